package archtest

import (
	"go/ast"
	"go/constant"
	"go/types"
	"io/fs"
	"path/filepath"
	"testing"

	"github.com/getkin/kin-openapi/openapi3"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	load "golang.org/x/tools/go/packages"

	"mainstay/api"
	"mainstay/core/judge"
)

// Rules and remedies are closed sets: the contract lists the same, nobody
// writes another, makes one of a text, or keeps one that nothing uses.
func TestRulesAndRemediesAreClosedSets(t *testing.T) {
	doc, err := openapi3.NewLoader().LoadFromData(api.Document)
	require.NoError(t, err)
	rules, remedies := texts(judge.AllRules), texts(judge.AllRemedies)
	assert.ElementsMatch(t, rules, doc.Components.Schemas["RuleId"].Value.Enum)
	assert.ElementsMatch(t, remedies, doc.Components.Schemas["Remedy"].Value.Properties["kind"].Value.Enum)
	assert.ElementsMatch(t, append(remedies, "gate", "take-off"),
		doc.Components.Schemas["NextStep"].Value.Properties["kind"].Value.Enum)

	// The compiler reads the files for us; looking at them tells go test that its
	// answer of last time is no longer good when one is added.
	for _, top := range []string{"../../core", ".."} {
		require.NoError(t, filepath.WalkDir(top, func(string, fs.DirEntry, error) error { return nil }))
	}
	mode := load.NeedName | load.NeedSyntax | load.NeedTypes | load.NeedTypesInfo |
		load.NeedImports | load.NeedExportFile | load.NeedCompiledGoFiles
	all, err := load.Load(&load.Config{Mode: mode, Dir: "../.."}, "./core/...", "./internal/...")
	require.NoError(t, err)
	require.Greater(t, len(all), 50)
	for name, of := range map[string]struct {
		listed []any
		made   []string // packages that read one of a store
	}{"Rule": {rules, []string{"mainstay/internal/people"}}, "RemedyKind": {remedies, nil}} {
		used := map[any]bool{}
		for _, p := range all {
			require.Empty(t, p.Errors, p.PkgPath)
			uses(p, name, func(e ast.Expr, value any) {
				at := p.Fset.Position(e.Pos())
				switch {
				case value == nil:
					assert.Contains(t, of.made, p.PkgPath, "%v: a %s is made of a text", at, name)
				case value != "":
					assert.Contains(t, of.listed, value, "%v", at)
					used[value] = used[value] || p.PkgPath != "mainstay/core/judge"
				}
			})
		}
		for _, v := range of.listed {
			assert.True(t, used[v], "nothing uses the %s %s", name, v)
		}
	}
}

// uses tells of every constant of a type of package judge in a package, and of
// every conversion of something else to it, with the value nil.
func uses(p *load.Package, name string, tell func(e ast.Expr, value any)) {
	for _, f := range p.Syntax {
		ast.Inspect(f, func(n ast.Node) bool {
			e, ok := n.(ast.Expr)
			if !ok {
				return true
			}
			tv := p.TypesInfo.Types[e]
			is, ok := tv.Type.(*types.Named)
			if !ok || is.Obj().Pkg() == nil || is.Obj().Pkg().Path() != "mainstay/core/judge" || is.Obj().Name() != name {
				return true
			}
			call, ok := e.(*ast.CallExpr)
			switch {
			case tv.Value != nil:
				tell(e, constant.StringVal(tv.Value))
			case ok && p.TypesInfo.Types[call.Fun].IsType():
				tell(e, nil)
			}
			return true
		})
	}
}

func texts[T ~string](of []T) []any {
	var out []any
	for _, v := range of {
		out = append(out, string(v))
	}
	return out
}
