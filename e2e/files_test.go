package e2e

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/internal/demo"
	"mainstay/internal/logbook"
	"mainstay/internal/platform/clock"
	"mainstay/internal/testbed"
)

func write(t *testing.T, name, text string) string {
	t.Helper()
	f := filepath.Join(t.TempDir(), name)
	require.NoError(t, os.WriteFile(f, []byte(text), 0o600))
	return f
}

// A type file is copied, changed and brought back; files that cannot be used
// say why and change nothing.
func TestTypeFileIsCopiedAndBroughtBack(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	p := chromium.Open(t, testbed.Serve(t, svc), "/setup", 1280, 800)
	p.SignIn("imre", demo.Password)
	p.See("Bring in a type file")
	in := "input[aria-label='Bring in a type file']"
	p.Upload(in, write(t, "broken.json", "{not json"))
	p.See("broken.json is not a JSON file. Nothing was changed.")
	own, err := svc.Fleet.Type(context.Background(), "lantern-4")
	require.NoError(t, err)
	b, err := json.Marshal(own)
	require.NoError(t, err)
	p.Upload(in, write(t, "same.json", string(b)))
	p.See("version Version 4 of this type is there already: give this one 5.")
	own.Key, own.Name, own.Geometry.Rotors = "lantern-8", "Lantern 8", 20
	b, err = json.Marshal(own)
	require.NoError(t, err)
	p.Upload(in, write(t, "many.json", string(b)))
	p.See("geometry.rotors It must be 3 to 12, not 20.")
	own.Geometry.Rotors = 8
	b, err = json.Marshal(own)
	require.NoError(t, err)
	p.Upload(in, write(t, "eight.json", string(b)))
	p.See("eight.json is in use from now on.", "Lantern 8 version 4")
	assert.Empty(t, p.Faults())
}

// The log is searched, goes out as CSV and comes back; rows that are refused
// are listed with line and reason.
func TestLogSearchAndImport(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	year, err := svc.Log.Totals(context.Background(), logbook.Filter{})
	require.NoError(t, err)
	require.Greater(t, year.All.Flights, 300)
	all := fmt.Sprintf("%d flights", year.All.Flights)
	p := chromium.Open(t, testbed.Serve(t, svc), "/log", 1280, 800)
	p.SignIn("imre", demo.Password)
	p.See(all)
	p.Fill("Words in purpose, remarks, names", "water run")
	p.Gone(all)
	p.See("Water run, calibration")
	p.Fill("Aircraft", "")
	p.Fill("From day", "2026-06-10")
	p.Fill("Words in purpose, remarks, names", "")
	p.See("1 flights")
	p.Go("/log")
	p.See(all)
	var csv bytes.Buffer
	require.NoError(t, svc.Log.Export(context.Background(), logbook.Filter{}, &csv))
	lines := strings.SplitAfter(csv.String(), "\n")
	p.Upload("input[aria-label='CSV file of flights']", write(t, "flights.csv",
		strings.Join(lines[:11], "")+"not,a,flight\n"))
	p.See("0 flights taken, 10 were here already, 1 refused.", "Line 12: line has 3 fields instead of 10.")
	p.Keys("\x1b")
	p.Upload("input[aria-label='CSV file of flights']", write(t, "other.csv", "date;pilot\n"))
	p.See("the first line must name the columns")
	assert.Empty(t, p.Faults())
}
