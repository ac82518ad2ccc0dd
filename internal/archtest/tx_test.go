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
			// A foreign key shares the key of what it points at; a lock on the key too would make circles of waiting with it.
			if l, ok := n.(*ast.BasicLit); ok && !strings.HasSuffix(path, "_test.go") &&
				strings.Contains(strings.ToLower(l.Value), " for update") {
				t.Errorf("%s locks rows \"for update\"; \"for no key update\" is enough", path)
			}
			c, ok := n.(*ast.CallExpr)
			if !ok || !isSel(c.Fun, "db", "Tx") || len(c.Args) != 3 {
				if ok && isSelName(c.Fun, "Transaction", "BeginTx", "Begin") && strings.Contains(path, "/internal/") &&
					!strings.HasSuffix(path, "_test.go") {
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
			for _, name := range countedOutside(fn) {
				t.Errorf("%s: inside db.Tx %s is added to, but never set anew; a transaction may be run again", path, name)
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

// countedOutside names the variables from outside of a function that it adds to
// without setting them first.
func countedOutside(fn *ast.FuncLit) (out []string) {
	own, counted := map[string]bool{}, map[string]bool{}
	declare := func(e ast.Expr) {
		if id, ok := e.(*ast.Ident); ok {
			own[id.Name] = true
		}
	}
	for _, f := range fn.Type.Params.List {
		for _, n := range f.Names {
			own[n.Name] = true
		}
	}
	ast.Inspect(fn.Body, func(n ast.Node) bool {
		switch x := n.(type) {
		case *ast.AssignStmt:
			for i, l := range x.Lhs {
				adds := x.Tok == token.ADD_ASSIGN
				if c, ok := x.Rhs[min(i, len(x.Rhs)-1)].(*ast.CallExpr); ok && len(c.Args) > 0 {
					f, named := c.Fun.(*ast.Ident)
					adds = adds || named && f.Name == "append" && root(c.Args[0]) == root(l)
				}
				if adds {
					counted[root(l)] = true
				} else {
					declare(l)
				}
			}
		case *ast.IncDecStmt:
			counted[root(x.X)] = true
		case *ast.ValueSpec:
			for _, n := range x.Names {
				own[n.Name] = true
			}
		case *ast.RangeStmt:
			declare(x.Key)
			declare(x.Value)
		case *ast.UnaryExpr: // handed out to be filled
			if x.Op == token.AND {
				declare(x.X)
			}
		}
		return true
	})
	for name := range counted {
		if !own[name] {
			out = append(out, name)
		}
	}
	return out
}

// root is the variable that an expression is a part of.
func root(e ast.Expr) string {
	switch x := e.(type) {
	case *ast.Ident:
		return x.Name
	case *ast.SelectorExpr:
		return root(x.X)
	case *ast.IndexExpr:
		return root(x.X)
	case *ast.StarExpr:
		return root(x.X)
	}
	return ""
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
