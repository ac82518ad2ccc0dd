package archtest

import (
	"go/ast"
	"go/parser"
	"go/token"
	"os/exec"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// mostArguments are as many as a reader tells apart by their places; more have names, in a
// struct. The context and the transaction do not count.
const mostArguments = 5

func TestArgumentsAreFew(t *testing.T) {
	out, err := exec.Command("git", "-C", "../..", "ls-files", "*.go").Output()
	require.NoError(t, err)
	seen := 0
	for _, f := range strings.Fields(string(out)) {
		if strings.HasSuffix(f, ".gen.go") {
			continue
		}
		fset := token.NewFileSet()
		file, err := parser.ParseFile(fset, "../../"+f, nil, parser.SkipObjectResolution)
		if err != nil {
			continue // taken away, and not committed yet; what does not parse fails the build
		}
		ast.Inspect(file, func(n ast.Node) bool {
			fn, ok := n.(*ast.FuncType)
			if !ok {
				return true
			}
			seen++
			count := 0
			for _, x := range fn.Params.List {
				if !carriesTheCall(x.Type) {
					count += max(1, len(x.Names))
				}
			}
			assert.LessOrEqual(t, count, mostArguments, "%s takes %d arguments: name them in a struct", fset.Position(fn.Pos()),
				count)
			return true
		})
	}
	assert.Greater(t, seen, 3000)
}

// carriesTheCall says that an argument is the context, or the transaction, of the call.
func carriesTheCall(e ast.Expr) bool {
	if p, ok := e.(*ast.StarExpr); ok {
		e = p.X
	}
	s, ok := e.(*ast.SelectorExpr)
	if !ok {
		return false
	}
	x, ok := s.X.(*ast.Ident)
	return ok && (x.Name == "context" && s.Sel.Name == "Context" || x.Name == "gorm" && s.Sel.Name == "DB" ||
		x.Name == "testing" && s.Sel.Name == "T")
}
