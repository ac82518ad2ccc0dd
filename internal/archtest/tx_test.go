package archtest

import (
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What runs in a transaction can name no context but the one that carries it:
// the function given to db.Tx calls its own ctx, which hides the outer one.
func TestNothingInsideATransactionReachesThePool(t *testing.T) {
	seen := 0
	require.NoError(t, filepath.WalkDir("../..", func(path string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() && (d.Name() == "node_modules" || strings.HasPrefix(d.Name(), ".") && len(d.Name()) > 2) {
			if d != nil && d.IsDir() {
				return filepath.SkipDir
			}
			return err
		}
		if !strings.HasSuffix(path, ".go") || strings.Contains(path, "internal/platform/db") {
			return nil
		}
		f, err := parser.ParseFile(token.NewFileSet(), path, nil, 0)
		require.NoError(t, err)
		ast.Inspect(f, func(n ast.Node) bool {
			c, ok := n.(*ast.CallExpr)
			if !ok || !isSel(c.Fun, "db", "Tx") || len(c.Args) != 3 {
				if ok && isSelName(c.Fun, "Transaction", "BeginTx", "Begin") && strings.Contains(path, "/internal/") && !strings.HasSuffix(path, "_test.go") {
					if s, ok := c.Fun.(*ast.SelectorExpr); ok && isDB(s.X) {
						t.Errorf("%s begins a transaction by itself; db.Tx is the one way", path)
					}
				}
				return true
			}
			fn, ok := c.Args[2].(*ast.FuncLit)
			require.True(t, ok, "%s: db.Tx takes the work where it is written", path)
			seen++
			outer, ok := c.Args[0].(*ast.Ident)
			if !ok {
				return true
			}
			inner := fn.Type.Params.List[0].Names[0].Name
			if inner == outer.Name {
				return true
			}
			ast.Inspect(fn.Body, func(n ast.Node) bool {
				if id, ok := n.(*ast.Ident); ok && id.Name == outer.Name {
					t.Errorf("%s: inside db.Tx the outer %s is used; name the inner one the same", path, outer.Name)
					return false
				}
				return true
			})
			return true
		})
		return nil
	}))
	assert.Greater(t, seen, 40)
}

func isSel(e ast.Expr, pkg, name string) bool {
	s, ok := e.(*ast.SelectorExpr)
	if !ok || s.Sel.Name != name {
		return false
	}
	x, ok := s.X.(*ast.Ident)
	return ok && x.Name == pkg
}

func isSelName(e ast.Expr, names ...string) bool {
	s, ok := e.(*ast.SelectorExpr)
	if !ok {
		return false
	}
	for _, n := range names {
		if s.Sel.Name == n {
			return true
		}
	}
	return false
}

// isDB reports whether an expression is what services call their database.
func isDB(e ast.Expr) bool {
	switch x := e.(type) {
	case *ast.Ident:
		return x.Name == "tx" || x.Name == "g" || x.Name == "pool"
	case *ast.SelectorExpr:
		return x.Sel.Name == "DB" || x.Sel.Name == "conns"
	case *ast.CallExpr:
		return isSelName(x.Fun, "WithContext") || isSelName(x.Fun, "DB")
	}
	return false
}
