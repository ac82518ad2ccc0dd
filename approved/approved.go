// Package approved holds what judgements answer over many inputs against text
// that was read and approved: whatever changes an answer shows as a line that
// differs. After a change that is meant, APPROVE=1 go test ./core/... writes the
// texts anew; read the difference before it is committed. For tests only.
package approved

import (
	"os"
	"path/filepath"
	"strings"
	"testing"
)

// Text compares lines with testdata/<name>.txt of the package under test, and
// names the first that differ.
func Text(t *testing.T, name string, lines []string) {
	t.Helper()
	file := filepath.Join("testdata", name+".txt")
	got := strings.Join(lines, "\n") + "\n"
	if os.Getenv("APPROVE") != "" {
		if err := os.MkdirAll("testdata", 0o755); err != nil {
			t.Fatal(err)
		}
		if err := os.WriteFile(file, []byte(got), 0o600); err != nil {
			t.Fatal(err)
		}
	}
	b, err := os.ReadFile(file) //nolint:gosec // a file of the test
	if err != nil {
		t.Fatal(err)
	}
	want := strings.Split(strings.TrimSuffix(string(b), "\n"), "\n")
	for i := range max(len(lines), len(want)) {
		var g, w string
		if i < len(lines) {
			g = lines[i]
		}
		if i < len(want) {
			w = want[i]
		}
		if g != w {
			t.Fatalf("%s line %d\n approved: %s\n now:      %s", file, i+1, w, g)
		}
	}
}
