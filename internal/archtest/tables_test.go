package archtest

import (
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"maps"
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var (
	makes  = regexp.MustCompile(`create (?:unlogged )?table (?:if not exists )?(\w+)`)
	writes = regexp.MustCompile(`\b(?:insert into|delete from|update)\s+([a-z_]+)\b`)
	reads  = regexp.MustCompile(`\b(?:from|join)\s+([a-z_]+)\b`)
)

// sqlOf finds the tables that a feature names in its texts: those it writes, and those
// it reads.
func sqlOf(t *testing.T, tables map[string]bool) (written, read map[string]map[string]bool) {
	t.Helper()
	written, read = map[string]map[string]bool{}, map[string]map[string]bool{}
	note := func(into map[string]map[string]bool, found [][]string, feature string) {
		for _, m := range found {
			if tables[m[1]] {
				if into[m[1]] == nil {
					into[m[1]] = map[string]bool{}
				}
				into[m[1]][feature] = true
			}
		}
	}
	require.NoError(t, filepath.WalkDir("..", func(path string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() || !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") {
			return err
		}
		feature := filepath.ToSlash(strings.TrimPrefix(filepath.Dir(path), "../"))
		if feature == "archtest" || feature == "testbed" || feature == "demo" {
			return nil // they prepare and look at everything
		}
		f, err := parser.ParseFile(token.NewFileSet(), path, nil, 0)
		if err != nil {
			return err
		}
		ast.Inspect(f, func(n ast.Node) bool {
			if l, ok := n.(*ast.BasicLit); ok && l.Kind == token.STRING {
				note(written, writes.FindAllStringSubmatch(l.Value, -1), feature)
				note(read, reads.FindAllStringSubmatch(l.Value, -1), feature)
			}
			return true
		})
		return nil
	}))
	return written, read
}

// lent are tables that others than their owner read, where a list joins the names of
// what it shows: whoever adds to it says so here, and asks the owner first.
var lent = map[string]string{
	"aircraft":        "evening flights jobs logbook practice readiness rulebook walkround workshop",
	"aircraft_types":  "logbook",
	"background_work": "people",
	"crew":            "fleet sites",
	"defects":         "workshop",
	"deferrals":       "workshop",
	"flights":         "fleet jobs logbook missions readiness spraying walkround",
	"gear":            "fleet flights jobs",
	"groundings":      "workshop",
	"job_aircraft":    "evening",
	"job_gear":        "flights",
	"jobs":            "evening fleet flights",
	"pack_readings":   "walkround",
	"packs":           "evening flights logbook rack walkround",
	"part_approvals":  "fleet",
	"part_moves":      "practice",
	"parts":           "flights practice workshop",
	"people":          "fleet flights jobs logbook records walkround",
	"photos":          "missions rack records workshop",
	"site_features":   "jobs",
	"sites":           "fleet flights jobs practice",
	"walkrounds":      "flights",
	"work_orders":     "flights practice walkround",
}

// A table is written by one feature, and read by others only where that is said.
func TestTablesAreWrittenByTheirOwner(t *testing.T) {
	tables := map[string]bool{}
	files, err := filepath.Glob("../platform/db/migrations/*.sql")
	require.NoError(t, err)
	for _, f := range files {
		b, err := os.ReadFile(f)
		require.NoError(t, err)
		for _, m := range makes.FindAllStringSubmatch(string(b), -1) {
			tables[m[1]] = true
		}
	}
	require.Greater(t, len(tables), 50)
	written, read := sqlOf(t, tables)
	owner := map[string]string{}
	for table, by := range written {
		who := slices.Sorted(maps.Keys(by))
		assert.Len(t, who, 1, "%s is written by more than one feature", table)
		owner[table] = who[0]
	}
	for table, by := range read {
		var others []string
		for feature := range by {
			if owner[table] != "" && feature != owner[table] {
				others = append(others, feature)
			}
		}
		slices.Sort(others)
		assert.Equal(t, lent[table], strings.Join(others, " "), "who reads %s of %s", table, owner[table])
	}
	for table := range lent {
		assert.NotEmpty(t, read[table], "%s is lent and not read", table)
	}
}

// features are the folders of internal/ that hold use cases; what the rest is for is
// said here too.
var folders = map[string]string{
	"archtest": "tests of the structure", "testbed": "stages for tests", "demo": "the made-up crew",
	"formats":  "files in and out",
	"platform": "what all features stand on", "server": "the wiring",
	"standins": "small servers in place of devices and services",
	"planning": "what the two kinds of plans share", "outbox": "presses of devices",
	"records": "the chain, shown by the log",
}

// web are the folders of the web application that have no feature of the same name.
var web = map[string]string{
	"api": "the contract", "parts": "what views are made of", "drawings": "airframes, sites and plots of their own",
	"app":    "the frame of the application",
	"styles": "the look", "help": "words about the pages", "judge": "the judge on the device",
	"find": "search over all features", "rotation": "a view of the bench",
}

// Every folder is a feature, or says what else it is; and a feature has the same name on
// both sides.
func TestFoldersAreKnown(t *testing.T) {
	names := func(dir string) map[string]bool {
		out := map[string]bool{}
		entries, err := os.ReadDir(dir)
		require.NoError(t, err)
		for _, e := range entries {
			if e.IsDir() {
				out[e.Name()] = true
			}
		}
		return out
	}
	inside := names("..")
	for dir := range inside {
		if folders[dir] != "" {
			continue
		}
		handlers, err := filepath.Glob(filepath.Join("..", dir, "*.go"))
		require.NoError(t, err)
		var text strings.Builder
		for _, f := range handlers {
			b, err := os.ReadFile(f)
			require.NoError(t, err)
			text.Write(b)
		}
		assert.True(t, strings.Contains(text.String(), "RequestObject) (api."),
			"internal/%s serves no operation: say in folders what it is for", dir)
	}
	for dir := range names("../../web/src") {
		assert.True(t, inside[dir] || web[dir] != "",
			"web/src/%s has no feature of its name: rename it, or say in web what it is for", dir)
	}
	for dir := range folders {
		assert.True(t, inside[dir], "internal/%s is named and not there", dir)
	}
}
