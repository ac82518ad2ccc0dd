package archtest_test

import (
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
)

// Nobody is told of "pack(s)", of "1 cycles", or to enter something.
var (
	bothNumbers = regexp.MustCompile(`[a-z]\(s\)(\W|$)`)
	something   = regexp.MustCompile(`(?i)enter something`)
	// A figure with a plural right behind it, in a page: it is said with counted().
	plainCount = regexp.MustCompile(`[{$]\{?[\w.!?]+(\.length)?\} (cycles|flights|landings|findings|events|presses|defects|orders|records|readings|reasons|entries)\b`)
)

func TestCountsAreSaidInTheRightNumber(t *testing.T) {
	for _, dir := range []string{"../../core", "../../internal", "../../cmd"} {
		require.NoError(t, filepath.WalkDir(dir, func(path string, d fs.DirEntry, err error) error {
			if err != nil || d.IsDir() || !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") {
				return err
			}
			file, err := parser.ParseFile(token.NewFileSet(), path, nil, 0)
			if err != nil {
				return err
			}
			ast.Inspect(file, func(n ast.Node) bool {
				if l, ok := n.(*ast.BasicLit); ok && l.Kind == token.STRING &&
					(bothNumbers.MatchString(l.Value) && !strings.Contains(l.Value, "select ") || something.MatchString(l.Value)) {
					t.Errorf("%s: %s", path, l.Value)
				}
				return true
			})
			return nil
		}))
	}
	require.NoError(t, filepath.WalkDir("../../web/src", func(path string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() || !strings.HasSuffix(path, ".tsx") {
			return err
		}
		b, err := os.ReadFile(path)
		for i, line := range strings.Split(string(b), "\n") {
			if (bothNumbers.MatchString(line) && !regexp.MustCompile(`\w\(s\)[ ;,)}?:]`).MatchString(line)) ||
				something.MatchString(line) || plainCount.MatchString(line) && !strings.Contains(line, "=== 1") {
				t.Errorf("%s:%d: %s", path, i+1, strings.TrimSpace(line))
			}
		}
		return err
	}))
}
