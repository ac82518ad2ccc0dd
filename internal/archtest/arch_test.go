// Package archtest holds the shape of the program: dependencies point one way,
// the core stands alone, and what is generated is current.
package archtest

import (
	"bytes"
	"encoding/json"
	"errors"
	"io"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

type pkg struct {
	ImportPath string
	Imports    []string
	Dir        string
}

func packages(t *testing.T) []pkg {
	t.Helper()
	cmd := exec.Command("go", "list", "-json=ImportPath,Imports,Dir", "mainstay/...")
	cmd.Dir = "../.."
	out, err := cmd.Output()
	require.NoError(t, err)
	var ps []pkg
	for d := json.NewDecoder(bytes.NewReader(out)); ; {
		var p pkg
		if err := d.Decode(&p); errors.Is(err, io.EOF) {
			break
		} else {
			require.NoError(t, err)
		}
		ps = append(ps, p)
	}
	require.Greater(t, len(ps), 20)
	return ps
}

// The layers of internal, lowest first; a package imports only lower ones.
var layers = []string{"internal/platform", "internal/formats/formatstest", "internal/formats/props",
	"internal/formats/table", "internal/formats", "internal/standins", "internal/records", "internal/people",
	"internal/fleet", "internal/rack", "internal/evening", "internal/sites", "internal/airspace", "internal/walkround",
	"internal/workshop", "internal/types", "internal/readiness", "internal/rulebook", "internal/jobs", "internal/planning",
	"internal/spraying", "internal/missions", "internal/sheets", "internal/bench", "internal/flights", "internal/logbook",
	"internal/day", "internal/server", "internal/demo", "internal/testbed"}

func layer(path string) int {
	return slices.IndexFunc(layers, func(l string) bool {
		return strings.HasPrefix(strings.TrimPrefix(path, "mainstay/"),
			l)
	})
}

// Tables are read within bounds and written without formulas in one place.
func TestOnePlaceReadsAndWritesCSV(t *testing.T) {
	for _, p := range packages(t) {
		if p.ImportPath != "mainstay/internal/formats/table" {
			assert.NotContains(t, p.Imports, "encoding/csv", p.ImportPath)
		}
	}
}

func TestDependenciesPointOneWay(t *testing.T) {
	for _, p := range packages(t) {
		core := strings.HasPrefix(p.ImportPath, "mainstay/core/")
		for _, i := range p.Imports {
			if !strings.HasPrefix(i, "mainstay/") {
				if core {
					assert.NotContains(t, i, ".", "%s imports %s: the core needs nothing but the standard library", p.ImportPath, i)
					for _, banned := range []string{"os", "net", "net/http", "database/sql", "io/fs", "log", "log/slog", "math/rand",
						"math/rand/v2"} {
						if p.ImportPath == "mainstay/core/rotation" && i == "math/rand/v2" {
							continue // from the seed in its input, so that the same input gives the same output
						}
						assert.NotEqual(t, banned, i, "%s: the core has no input, output or chance", p.ImportPath)
					}
				}
				continue
			}
			assert.NotContains(t, i, "mainstay/cmd", p.ImportPath)
			if core {
				assert.True(t, strings.HasPrefix(i, "mainstay/core/"), "%s imports %s", p.ImportPath, i)
			}
			if from, to := layer(p.ImportPath), layer(i); from >= 0 && to >= 0 &&
				!strings.HasPrefix(i, "mainstay/internal/platform") {
				assert.Less(t, to, from, "%s imports %s", p.ImportPath, i)
			}
		}
	}
}

func TestCoreReadsNoClock(t *testing.T) {
	clock := regexp.MustCompile(`time\.(Now|Since|Until|Sleep|After|Tick|NewTimer)\(`)
	files, err := filepath.Glob("../../core/*/*.go")
	require.NoError(t, err)
	require.NotEmpty(t, files)
	for _, f := range files {
		b, err := os.ReadFile(f)
		require.NoError(t, err)
		assert.False(t, clock.Match(b), "%s reads the clock", f)
	}
}

func TestCoreBuildsForTheBrowser(t *testing.T) {
	cmd := exec.Command("go", "build", "./core/...")
	cmd.Dir = "../.."
	cmd.Env = append(os.Environ(), "GOOS=js", "GOARCH=wasm")
	out, err := cmd.CombinedOutput()
	assert.NoError(t, err, string(out))
}

func TestGeneratedCodeIsCurrent(t *testing.T) {
	dir := t.TempDir()
	generated := filepath.Join(dir, "api.gen.go")
	config, err := os.ReadFile("../../api/codegen.yaml")
	require.NoError(t, err)
	elsewhere := filepath.Join(dir, "codegen.yaml")
	require.NoError(t, os.WriteFile(elsewhere, bytes.Replace(config, []byte("output: api.gen.go"),
		[]byte("output: "+generated), 1), 0o600))
	cmd := exec.Command("go", "tool", "oapi-codegen", "-config", elsewhere, "openapi.yaml")
	cmd.Dir = "../../api"
	out, err := cmd.CombinedOutput()
	require.NoError(t, err, string(out))
	same(t, generated, "../../api/api.gen.go", "go generate ./api")
	types := filepath.Join(dir, "schema.d.ts")
	cmd = exec.Command("npx", "--no-install", "openapi-typescript", "../api/openapi.yaml", "-o", types)
	cmd.Dir = "../../web"
	out, err = cmd.CombinedOutput()
	require.NoError(t, err, string(out))
	same(t, types, "../../web/src/api/schema.d.ts", "npm run types in web/")
}

func same(t *testing.T, fresh, committed, how string) {
	t.Helper()
	a, err := os.ReadFile(fresh)
	require.NoError(t, err)
	b, err := os.ReadFile(committed)
	require.NoError(t, err)
	assert.True(t, bytes.Equal(a, b), "%s is stale: run %s", committed, how)
}

// The first page needs at most 200 kB of script, compressed.
func TestFirstLoadIsSmall(t *testing.T) {
	index, err := os.ReadFile("../../web/dist/index.html")
	require.NoError(t, err, "build the web application first: bin/test does")
	total := 0
	for _, m := range regexp.MustCompile(`(?:src|href)="(/assets/[^"]+\.js)"`).FindAllStringSubmatch(string(index), -1) {
		b, err := os.ReadFile("../../web/dist" + m[1])
		require.NoError(t, err)
		total += compressed(t, b)
	}
	assert.Positive(t, total)
	assert.LessOrEqual(t, total, 200_000)
}
