package sheets_test

import (
	"context"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/internal/people"
	"mainstay/internal/platform/clock"
	"mainstay/internal/testbed"
)

// The sheets of the demo's jobs are opened by two readers that are not ours, and say what a
// crew needs on paper.
func TestSheetsAreRead(t *testing.T) {
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	imre, err := svc.People.ByLogin(context.Background(), "imre")
	require.NoError(t, err)
	ctx := people.With(context.Background(), imre)
	for aim, wants := range map[string][]string{
		"Flood bank, surface model, km 0 to 4": {"Mapping at Long Bank", "Flights with Tally W",
			"different from the plan", "from the side", "records up to"},
		"Roof panels and intake, pictures for the operator": {"Inspection at Cutwater station", "Found on the pictures",
			"Crack from the lower left corner", "Kit", "Car park, at the gate"},
		"Hops, rows 25 to 60, mildew": {"Loads and flights with Dray One", "Wettable sulphur 80 %",
			"Odile Varga (rpic)", "What is against it now"},
	} {
		var found string
		require.NoError(t, svc.DB.Raw("select id from jobs where aim = ?", aim).Scan(&found).Error)
		id := uuid.MustParse(found)
		b, err := svc.Sheets.Job(ctx, id)
		require.NoError(t, err, aim)
		file := filepath.Join(t.TempDir(), "sheet.pdf")
		require.NoError(t, os.WriteFile(file, b, 0o600))
		out, err := exec.Command("qpdf", "--check", file).CombinedOutput()
		require.NoError(t, err, "%s: %s", aim, out)
		text, err := exec.Command("pdftotext", "-layout", file, "-").CombinedOutput()
		require.NoError(t, err, "%s: %s", aim, text)
		for _, w := range wants {
			assert.Contains(t, string(text), w, aim)
		}
		images, err := exec.Command("pdfimages", "-list", file).CombinedOutput()
		require.NoError(t, err)
		assert.Contains(t, string(images), "image", "the map is a picture")
		if strings.HasPrefix(aim, "Roof") {
			assert.Contains(t, string(images), "jpeg", "the panel that was found cracked")
		}
	}
	_, err = svc.Sheets.Job(ctx, uuid.New())
	assert.ErrorContains(t, err, "not-found")
}
