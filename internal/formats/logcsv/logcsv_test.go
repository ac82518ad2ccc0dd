package logcsv_test

import (
	"bytes"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/internal/formats/logcsv"
)

func row() logcsv.Row {
	t := time.Date(2026, 3, 1, 14, 5, 0, 123000, time.UTC)
	return logcsv.Row{ID: uuid.MustParse("01920000-0000-7000-8000-000000000001"), TookOffAt: t,
		LandedAt: t.Add(10 * time.Minute), AircraftSerial: "D-1", PilotLogin: "imre",
		Packs: []string{"D1",
			"D2"}, Seconds: 600, Landings: 1, Purpose: "Spraying, block 4", Remarks: "line one\nline \"two\""}
}

func TestRoundTripOfAnyText(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		r := row()
		text := rapid.StringMatching(`[ -~]{0,40}`)
		r.Purpose, r.Remarks = text.Draw(t, "purpose"), text.Draw(t, "remarks")
		r.AircraftSerial = rapid.StringMatching(`[!-~]{1,20}`).Draw(t, "serial")
		r.Packs = rapid.SliceOfN(rapid.StringMatching(`[!-~]{1,8}`), 0, 4).Draw(t, "packs")
		var b bytes.Buffer
		require.NoError(t, logcsv.Write(&b, []logcsv.Row{r}))
		got, bad, err := logcsv.Read(&b)
		require.NoError(t, err)
		require.Empty(t, bad)
		require.Len(t, got, 1)
		got[0].Line = 0
		if len(r.Packs) == 0 {
			r.Packs = []string{}
		}
		assert.Equal(t, r, got[0])
	})
}

func TestFormulasAreDefused(t *testing.T) {
	r := row()
	r.Remarks = "=1+1"
	var b bytes.Buffer
	require.NoError(t, logcsv.Write(&b, []logcsv.Row{r}))
	assert.Contains(t, b.String(), "'=1+1")
}

func TestBadRowsAreNamedAndTheRestIsRead(t *testing.T) {
	head := strings.Join(logcsv.Columns, ",") + "\n"
	good := "01920000-0000-7000-8000-000000000001,2026-03-01T14:05:00Z,2026-03-01T14:15:00Z,D-1,imre,D1;D2,600,1,Spraying,\n"
	for _, c := range []struct{ line, column string }{
		{"x,2026-03-01T14:05:00Z,2026-03-01T14:15:00Z,D-1,imre,D1,600,1,S,\n", "id"},
		{"01920000-0000-7000-8000-000000000002,1.3.2026,2026-03-01T14:15:00Z,D-1,imre,D1,600,1,S,\n", "took_off_at"},
		{"01920000-0000-7000-8000-000000000002,2026-03-01T14:05:00Z,2026-03-01T13:15:00Z,D-1,imre,D1,600,1,S,\n",
			"landed_at"},
		{"01920000-0000-7000-8000-000000000002,2026-03-01T14:05:00Z,2026-03-01T14:15:00Z,D-1,imre,D1,60,1,S,\n", "seconds"},
		{"01920000-0000-7000-8000-000000000002,2026-03-01T14:05:00Z,2026-03-01T14:15:00Z,D-1,imre,D1,\"600,5\",1,S,\n",
			"seconds"},
		{"01920000-0000-7000-8000-000000000002,2026-03-01T14:05:00Z,2026-03-01T14:15:00Z,D-1,imre,D1,600,0,S,\n", "landings"},
		{"01920000-0000-7000-8000-000000000002,2026-03-01T14:05:00Z,2026-03-01T14:15:00Z,,imre,D1,600,1,S,\n",
			"aircraft_serial"},
		{"01920000-0000-7000-8000-000000000002,2026-03-01T14:05:00Z,2026-03-01T14:15:00Z,D-1,,D1,600,1,S,\n", "pilot_login"},
		{"too,few,fields\n", "line"},
		{"01920000-0000-7000-8000-000000000002,2026-03-01T14:05:00Z,2026-03-01T14:15:00Z,D-1,imre,D1,600,1,S\x00,\n", "line"},
	} {
		rows, bad, err := logcsv.Read(strings.NewReader(head + c.line + good))
		require.NoError(t, err)
		require.Len(t, bad, 1, c.line)
		assert.Equal(t, 2, bad[0].Line)
		assert.Equal(t, c.column, bad[0].Column)
		assert.Len(t, rows, 1, "the good row is still read")
	}
	for _, f := range []string{"", "a,b,c\n", "\x00\x01"} {
		_, _, err := logcsv.Read(strings.NewReader(f))
		assert.ErrorIs(t, err, logcsv.ErrHeader)
	}
}

func FuzzRead(f *testing.F) {
	var b bytes.Buffer
	_ = logcsv.Write(&b, []logcsv.Row{row()})
	f.Add(b.String())
	f.Add("id\n\"")
	f.Fuzz(func(t *testing.T, s string) {
		rows, _, err := logcsv.Read(strings.NewReader(s))
		if err != nil {
			return
		}
		var out bytes.Buffer
		require.NoError(t, logcsv.Write(&out, rows))
		again, bad, err := logcsv.Read(&out)
		require.NoError(t, err)
		assert.Empty(t, bad)
		assert.Len(t, again, len(rows))
	})
}
