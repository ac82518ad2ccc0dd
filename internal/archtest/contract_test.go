package archtest

import (
	"go/types"
	"io/fs"
	"path/filepath"
	"reflect"
	"strings"
	"testing"

	"github.com/getkin/kin-openapi/openapi3"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	load "golang.org/x/tools/go/packages"

	"mainstay/api"
)

// A schema that stands for a Go type has the fields of that type: one that is left out cannot be
// sent, since names that the contract does not know are refused.
func TestSchemasHaveTheFieldsOfTheirTypes(t *testing.T) {
	doc, err := openapi3.NewLoader().LoadFromData(api.Document)
	require.NoError(t, err)
	// go test sees that files change
	require.NoError(t, filepath.WalkDir("../../core", func(string, fs.DirEntry, error) error { return nil }))
	all, err := load.Load(&load.Config{Mode: load.NeedName | load.NeedTypes | load.NeedImports | load.NeedExportFile,
		Dir: "../.."}, "./core/...", "./internal/...")
	require.NoError(t, err)
	packages := map[string]*types.Package{}
	for _, p := range all {
		packages[p.PkgPath] = p.Types
	}
	held := 0
	for name, ref := range doc.Components.Schemas {
		goType, _ := ref.Value.Extensions["x-go-type"].(string)
		from, _ := ref.Value.Extensions["x-go-type-import"].(map[string]any)
		path, _ := from["path"].(string)
		_, typeName, dotted := strings.Cut(goType, ".")
		if p := packages[path]; dotted && p != nil && len(ref.Value.Properties) > 0 {
			object := p.Scope().Lookup(typeName)
			require.NotNil(t, object, "%s: %s is not there", name, goType)
			s, ok := object.Type().Underlying().(*types.Struct)
			if !ok {
				continue
			}
			held++
			listed := []string{} // with what is the crew's and not the sender's
			if left, ok := ref.Value.Extensions["x-left-out"].([]any); ok {
				for _, x := range left {
					listed = append(listed, x.(string))
				}
			}
			for k := range ref.Value.Properties {
				listed = append(listed, k)
			}
			assert.ElementsMatch(t, jsonNames(s), listed, "fields of %s and of %s", name, goType)
		}
	}
	assert.Greater(t, held, 20, "schemas that stand for a type")
}

// jsonNames are the names under which a struct is written; embedded ones are written in it.
func jsonNames(s *types.Struct) (out []string) {
	for i := range s.NumFields() {
		f := s.Field(i)
		name, _, _ := strings.Cut(reflect.StructTag(s.Tag(i)).Get("json"), ",")
		switch inner, ok := f.Type().Underlying().(*types.Struct); {
		case name == "-" || !f.Exported():
		case f.Embedded() && name == "" && ok:
			out = append(out, jsonNames(inner)...)
		case name == "":
			out = append(out, f.Name())
		default:
			out = append(out, name)
		}
	}
	return out
}
