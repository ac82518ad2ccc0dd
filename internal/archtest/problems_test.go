package archtest

import (
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"testing"

	"github.com/getkin/kin-openapi/openapi3"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/api"
)

// The types of problems are a closed set: each that the program can answer with
// stands in the contract, and each of the contract can come.
func TestProblemsAreThoseOfTheContract(t *testing.T) {
	doc, err := openapi3.NewLoader().LoadFromData(api.Document)
	require.NoError(t, err)
	var told []string
	for _, v := range doc.Components.Schemas["Problem"].Value.Properties["type"].Value.Enum {
		s, _ := v.(string)
		told = append(told, s)
	}
	used := map[string]string{}
	require.NoError(t, filepath.WalkDir("..", func(path string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() || !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") {
			return err
		}
		f, err := parser.ParseFile(token.NewFileSet(), path, nil, 0)
		if err != nil {
			return err
		}
		take := func(e ast.Expr) {
			if l, ok := e.(*ast.BasicLit); ok && l.Kind == token.STRING {
				if s, err := strconv.Unquote(l.Value); err == nil {
					used[s] = path
				}
			}
		}
		ast.Inspect(f, func(n ast.Node) bool {
			switch x := n.(type) {
			case *ast.CallExpr:
				name := ""
				switch fn := x.Fun.(type) {
				case *ast.SelectorExpr:
					name = fn.Sel.Name
				case *ast.Ident:
					name = fn.Name
				}
				if name == "Clash" && len(x.Args) > 1 {
					if _, plain := x.Args[0].(*ast.BasicLit); !plain && f.Name.Name != "fault" {
						assert.Fail(t, "a type of a problem is not written out", path)
					}
					take(x.Args[0])
				}
			case *ast.CompositeLit:
				if name := typeName(x.Type); name != "Error" && name != "Problem" {
					return true
				}
				if f.Name.Name == "fault" && len(x.Elts) > 1 {
					take(x.Elts[1])
				}
				for _, e := range x.Elts {
					if kv, ok := e.(*ast.KeyValueExpr); ok && typeName(kv.Key) == "Type" {
						take(kv.Value)
					}
				}
			case *ast.AssignStmt:
				if s, ok := x.Lhs[0].(*ast.SelectorExpr); ok && s.Sel.Name == "Type" && typeName(s.X) == "p" &&
					strings.HasSuffix(path, "problem.go") {
					take(x.Rhs[0])
				}
			}
			return true
		})
		return nil
	}))
	for s, where := range used {
		assert.True(t, slices.Contains(told, s), "%s answers %q, which the contract does not name", where, s)
	}
	for _, s := range told {
		assert.Contains(t, used, s, "the contract names a problem that never comes")
	}
}

func typeName(e ast.Expr) string {
	switch x := e.(type) {
	case *ast.Ident:
		return x.Name
	case *ast.SelectorExpr:
		return x.Sel.Name
	}
	return ""
}
