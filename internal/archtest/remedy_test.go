package archtest

import (
	"io/fs"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"github.com/getkin/kin-openapi/openapi3"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/api"
	"mainstay/core/judge"
)

// Remedies are a closed set: the contract lists the same, and nobody writes
// another one.
func TestRemediesAreAClosedSet(t *testing.T) {
	doc, err := openapi3.NewLoader().LoadFromData(api.Document)
	require.NoError(t, err)
	var listed []any
	for _, k := range judge.AllRemedies {
		listed = append(listed, string(k))
	}
	assert.ElementsMatch(t, listed, doc.Components.Schemas["Remedy"].Value.Properties["kind"].Value.Enum)
	assert.ElementsMatch(t, append(listed, "gate"), doc.Components.Schemas["NextStep"].Value.Properties["kind"].Value.Enum)

	written, found := regexp.MustCompile(`Remedy\{Label: [^}]*?Kind: "([a-z-]*)"`), 0
	for _, top := range []string{"core", "internal"} {
		require.NoError(t, filepath.WalkDir(filepath.Join("../..", top), func(path string, d fs.DirEntry, err error) error {
			if err != nil || d.IsDir() || filepath.Ext(path) != ".go" || strings.HasSuffix(path, "_test.go") {
				return err
			}
			b, err := os.ReadFile(path)
			for _, m := range written.FindAllStringSubmatch(string(b), -1) {
				found++
				assert.Contains(t, judge.AllRemedies, judge.RemedyKind(m[1]), path)
			}
			return err
		}))
	}
	assert.Greater(t, found, 30)
}
