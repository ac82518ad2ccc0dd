package archtest

import (
	"io/fs"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// How a law of some country is named in code.
var lawNamed = regexp.MustCompile(`\bCFR\b|\bUSC\b|\b107\.[0-9]|\bpart (48|89|91|107|137)\b|\bAC 107|\b201[0-9]/9[0-9][0-9]\b|\b376/2014\b|\bUAS\.(OPEN|SPEC)|statute mile|\bFAA\b|\bEASA\b`)

// Only core/rules names a law: whatever judges gets its law handed in as a
// value, and the screens show what they are told.
func TestOnlyTheRulesNameLaw(t *testing.T) {
	for _, s := range []string{`"14 CFR 107.49"`, "Regulation (EU) 2019/947", "UAS.OPEN.060", "3 statute miles",
		"FAA AC 107-2A"} {
		require.Regexp(t, lawNamed, s)
	}
	n := 0
	for _, top := range []string{"core", "internal", "cmd", "bench", "web/src", "api/openapi.yaml"} {
		require.NoError(t, filepath.WalkDir(filepath.Join("../..", top), func(path string, d fs.DirEntry, err error) error {
			name := strings.TrimPrefix(filepath.ToSlash(path), "../../")
			if err != nil || d.IsDir() || strings.HasPrefix(name, "core/rules/") || strings.HasSuffix(name, "_test.go") ||
				strings.HasSuffix(name, ".test.ts") {
				return err
			}
			switch filepath.Ext(name) {
			case ".go", ".ts", ".tsx", ".yaml", ".scss", ".sql", ".json":
			default:
				return nil
			}
			b, err := os.ReadFile(path)
			if err != nil {
				return err
			}
			n++
			for i, l := range strings.Split(string(b), "\n") {
				assert.NotRegexp(t, lawNamed, l, "%s:%d names a law; only core/rules does", name, i+1)
			}
			return nil
		}))
	}
	assert.Greater(t, n, 300, "the code was found")
}
