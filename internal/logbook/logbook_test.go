package logbook_test

import (
	"bytes"
	"context"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/api"
	"mainstay/core/crew"
	"mainstay/internal/demo"
	"mainstay/internal/fleet"
	"mainstay/internal/formats/logcsv"
	"mainstay/internal/logbook"
	"mainstay/internal/people"
	"mainstay/internal/platform/clock"
	"mainstay/internal/records"
	"mainstay/internal/testbed"
)

// The log of the demo year goes out as CSV and into an empty crew that has the
// same aircraft, packs and pilots; what comes out there is the same file.
func TestExportComesBackTheSame(t *testing.T) {
	from, _ := testbed.Demo(t, clock.At(testbed.Noon))
	ctx := context.Background()
	var out bytes.Buffer
	require.NoError(t, from.Log.Export(ctx, logbook.Filter{}, &out))
	require.Greater(t, strings.Count(out.String(), "\n"), 300)

	to, _ := testbed.Empty(t, clock.At(testbed.Noon.AddDate(-1, 0, -1)))
	chief, err := to.People.SetUp(ctx, people.Crew{Name: "Copy", Zone: "UTC",
		Units: people.Shown{Length: "m", Speed: "m/s", Mass: "kg", Temperature: "degC", Volume: "L"}},
		people.New{Login: demo.Crew[0].Login, Name: demo.Crew[0].Name, Password: "long enough", PIN: "2580"})
	require.NoError(t, err)
	ctx = people.With(ctx, chief)
	_, err = to.People.Add(ctx, people.New{ID: testbed.NewID(), Login: "odile", Name: "Odile",
		Roles: []crew.Role{crew.Pilot}, Password: "long enough", PIN: "2580"})
	require.NoError(t, err)
	var crafts []fleet.Aircraft
	require.NoError(t, from.DB.Find(&crafts).Error)
	for _, a := range crafts {
		_, err := to.Fleet.AddAircraft(ctx, fleet.NewAircraft{ID: testbed.NewID(), TypeKey: a.TypeKey, Name: a.Name,
			Serial: a.Serial, FitNewParts: true})
		require.NoError(t, err)
	}
	var packs []fleet.Pack
	require.NoError(t, from.DB.Find(&packs).Error)
	for _, p := range packs {
		_, err := to.Fleet.AddPack(ctx, fleet.NewPack{ID: testbed.NewID(), Label: p.Label, Serial: p.Serial,
			Chemistry: p.Chemistry, Cells: p.Cells, MilliampHours: p.CapacityMAh})
		require.NoError(t, err)
	}
	later := &logbook.Service{DB: to.DB, Clock: clock.At(testbed.Noon), People: to.People}
	rep, err := later.Import(ctx, bytes.NewReader(out.Bytes()))
	require.NoError(t, err)
	assert.Empty(t, rep.Refused)
	assert.Equal(t, strings.Count(out.String(), "\n")-1, rep.Accepted)

	var back bytes.Buffer
	require.NoError(t, later.Export(ctx, logbook.Filter{}, &back))
	assert.Equal(t, out.String(), back.String())
	a, err := from.Log.Totals(ctx, logbook.Filter{})
	require.NoError(t, err)
	b, err := later.Totals(ctx, logbook.Filter{})
	require.NoError(t, err)
	assert.Equal(t, a.All, b.All)
	assert.Equal(t, a.Packs, b.Packs)
	var differ int64
	require.NoError(t, to.DB.Raw(`select count(*) from aircraft a where seconds is distinct from (select coalesce(sum(seconds), 0) from flights f where f.aircraft_id = a.id)`).Scan(&differ).Error)
	assert.Zero(t, differ, "imported hours land on the aircraft")

	again, err := later.Import(ctx, bytes.NewReader(out.Bytes()))
	require.NoError(t, err)
	assert.Equal(t, api.ImportReport{Unchanged: rep.Accepted, Refused: []api.RowProblem{}}, again,
		"the same file twice changes nothing")
	res, err := records.Verify(ctx, to.DB, records.Check{})
	require.NoError(t, err)
	assert.Zero(t, res.FirstBad)
}

func TestImportRefusesRowByRow(t *testing.T) {
	svc, _ := testbed.Demo(t, clock.At(testbed.Noon))
	ctx := context.Background()
	var out bytes.Buffer
	require.NoError(t, svc.Log.Export(ctx, logbook.Filter{}, &out))
	rows, _, err := logcsv.Read(bytes.NewReader(out.Bytes()))
	require.NoError(t, err)
	base := rows[10]
	file := []logcsv.Row{base}
	add := func(change func(r *logcsv.Row)) {
		r := base
		r.ID, r.TookOffAt, r.LandedAt = testbed.NewID(), base.TookOffAt.AddDate(-2, 0, len(file)), base.LandedAt.AddDate(-2,
			0, len(file))
		change(&r)
		file = append(file, r)
	}
	add(func(r *logcsv.Row) { r.AircraftSerial = "NONE" })
	add(func(r *logcsv.Row) { r.PilotLogin = "nobody" })
	add(func(r *logcsv.Row) { r.Packs = []string{"X9"} })
	add(func(r *logcsv.Row) {
		r.TookOffAt, r.LandedAt = base.TookOffAt.Add(time.Minute), base.LandedAt.Add(time.Minute)
	})
	add(func(r *logcsv.Row) {
		r.TookOffAt, r.LandedAt = testbed.Noon.AddDate(1, 0, 0), testbed.Noon.AddDate(1, 0,
			0).Add(base.LandedAt.Sub(base.TookOffAt))
	})
	add(func(r *logcsv.Row) { r.ID, r.Remarks = base.ID, "rewritten" })
	add(func(r *logcsv.Row) { r.Purpose = "Earlier job" })
	var csv bytes.Buffer
	require.NoError(t, logcsv.Write(&csv, file))
	rep, err := svc.Log.Import(ctx, &csv)
	require.NoError(t, err)
	assert.Equal(t, 1, rep.Accepted)
	assert.Equal(t, 1, rep.Unchanged)
	require.Len(t, rep.Refused, 6)
	for i, words := range []string{"no aircraft has serial", "nobody signs in", "no pack is labelled",
		"another flight at that time", "future", "does not change"} {
		assert.Contains(t, rep.Refused[i].Sentence, words)
		assert.Equal(t, i+3, rep.Refused[i].Line)
	}
}

// Lines are also held against the lines before them.
func TestImportHoldsLinesAgainstEachOther(t *testing.T) {
	svc, _ := testbed.Demo(t, clock.At(testbed.Noon))
	ctx := context.Background()
	start := testbed.Noon.AddDate(-3, 0, 0)
	var file []logcsv.Row
	add := func(serial string, from, minutes int) *logcsv.Row {
		at := start.Add(time.Duration(from) * time.Minute)
		file = append(file, logcsv.Row{ID: testbed.NewID(), TookOffAt: at,
			LandedAt: at.Add(time.Duration(minutes) * time.Minute), AircraftSerial: serial, PilotLogin: "imre",
			Seconds: minutes * 60, Landings: 1, Purpose: "Old job"})
		return &file[len(file)-1]
	}
	var crafts []fleet.Aircraft
	require.NoError(t, svc.DB.Order("name").Find(&crafts).Error)
	a, b := crafts[0], crafts[1]
	add(a.Serial, 60, 10) // line 2
	add(a.Serial, 0, 10)
	add(a.Serial, 20, 60) // reaches over line 2
	add(b.Serial, 60, 10) // another aircraft at that time
	add(a.Serial, 70, 10) // begins as line 2 ends
	twice := *add(a.Serial, 200, 10)
	file = append(file, twice)
	twice.Remarks = "rewritten"
	file = append(file, twice)
	var csv bytes.Buffer
	require.NoError(t, logcsv.Write(&csv, file))
	rep, err := svc.Log.Import(ctx, &csv)
	require.NoError(t, err)
	assert.Equal(t, 5, rep.Accepted)
	assert.Equal(t, 1, rep.Unchanged)
	require.Len(t, rep.Refused, 2)
	assert.Contains(t, rep.Refused[0].Sentence, "Line 4: the aircraft was on another flight")
	assert.Contains(t, rep.Refused[1].Sentence, "Line 9: this flight is on record with other values")
	for _, craft := range []fleet.Aircraft{a, b} {
		var now fleet.Aircraft
		require.NoError(t, svc.DB.First(&now, "id = ?", craft.ID).Error)
		want := 40 * 60
		if craft.ID == b.ID {
			want = 10 * 60
		}
		assert.EqualValues(t, want, now.Seconds-craft.Seconds)
	}
}

func TestPagesFiltersAndTotals(t *testing.T) {
	svc, _ := testbed.Demo(t, clock.At(testbed.Noon))
	ctx := context.Background()
	seen, cursor, pages := map[string]bool{}, "", 0
	for {
		lines, next, err := svc.Log.Page(ctx, logbook.Filter{}, cursor)
		require.NoError(t, err)
		for _, l := range lines {
			assert.False(t, seen[l.ID.String()], "no flight twice")
			seen[l.ID.String()] = true
		}
		pages++
		if cursor = next; cursor == "" {
			break
		}
	}
	all, err := svc.Log.Totals(ctx, logbook.Filter{})
	require.NoError(t, err)
	assert.Equal(t, all.All.Flights, len(seen))
	assert.Greater(t, pages, 5)
	sum := func(ts []logbook.Total) (n int) {
		for _, x := range ts {
			n += x.Flights
		}
		return
	}
	assert.Equal(t, all.All.Flights, sum(all.Pilots))
	assert.Equal(t, all.All.Flights, sum(all.Aircraft))
	assert.Equal(t, all.All.Flights, sum(all.Types))
	some, err := svc.Log.Totals(ctx, logbook.Filter{Words: "spraying tolmere"})
	require.NoError(t, err)
	assert.Positive(t, some.All.Flights)
	assert.Less(t, some.All.Flights, all.All.Flights)
	none, err := svc.Log.Totals(ctx, logbook.Filter{Words: "100%_\\"})
	require.NoError(t, err)
	assert.Zero(t, none.All.Flights)
	day := time.Date(2026, 6, 10, 0, 0, 0, 0, time.UTC)
	lines, _, err := svc.Log.Page(ctx, logbook.Filter{From: &day, To: &day}, "")
	require.NoError(t, err)
	assert.Len(t, lines, 1, "the flight of this morning, by the crew's own day")
	_, _, err = svc.Log.Page(ctx, logbook.Filter{}, "not a cursor")
	assert.Error(t, err)
}
