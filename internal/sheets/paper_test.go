package sheets_test

import (
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/checks"
	"mainstay/internal/fleet"
	"mainstay/internal/testbed"
)

// Every round of every shipped list is a sheet with all its items and a place to write for each
// mark, with the condition beside what is only asked then.
func TestPaperOfEveryRound(t *testing.T) {
	s := testbed.NewStage(t)
	ctx := s.As(s.Pilot)
	all, err := fleet.Shipped()
	require.NoError(t, err)
	for _, ty := range all {
		l, err := s.Walkrounds.List(ctx, ty.Key, 0)
		require.NoError(t, err)
		for _, r := range l.Rounds() {
			b, err := s.Sheets.Paper(ctx, ty.Key, r.Key, nil)
			require.NoError(t, err)
			text := read(t, b)
			items, _ := checks.Expand(l, ty, checks.Ask{Round: r.Key,
				Packs: []checks.PackRef{{ID: "1", Label: "________", Cells: ty.Packs.Cells}}})
			for _, it := range items {
				assert.Contains(t, text, plain(it.Title), "%s %s", ty.Key, r.Key)
				for _, m := range it.Marks {
					if it.Kind == checks.Group {
						assert.Contains(t, text, plain(m.Title), "%s %s", ty.Key, r.Key)
					}
				}
			}
			assert.NotContains(t, text, "{", "%s %s: a placeholder is left", ty.Key, r.Key)
			assert.NotContains(t, text, "Ω", "the font has it not")
			assert.Contains(t, text, "Walkedby")
		}
	}
	b, err := s.Sheets.Paper(ctx, "lantern-4", checks.Full, &s.Aircraft.ID)
	require.NoError(t, err)
	text := read(t, b)
	assert.Contains(t, text, "Aircraft:"+plain(s.Aircraft.Name))
	assert.Contains(t, text, plain("Only if night or twilight is yes."))
	_, err = s.Sheets.Paper(ctx, "lantern-4", "brunch", nil)
	assert.ErrorContains(t, err, "no round")
	missing := testbed.NewID()
	_, err = s.Sheets.Paper(ctx, "lantern-4", checks.Full, &missing)
	assert.Error(t, err)
}

// plain is text without spaces, as a sheet breaks its lines where it likes.
func plain(s string) string { return strings.Join(strings.Fields(s), "") }

// read is the text of a PDF.
func read(t *testing.T, b []byte) string {
	t.Helper()
	file := filepath.Join(t.TempDir(), "a.pdf")
	require.NoError(t, os.WriteFile(file, b, 0o600))
	out, err := exec.Command("pdftotext", "-raw", file, "-").Output()
	require.NoError(t, err)
	return plain(string(out))
}
