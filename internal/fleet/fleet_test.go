package fleet_test

import (
	"context"
	"fmt"
	"slices"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/judge"
	"mainstay/core/pack"
	"mainstay/core/wear"
	"mainstay/internal/fleet"
	"mainstay/internal/platform/clock"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/testbed"
)

// fakeFlight puts a logged flight into the table for the ledger to refer to.
func fakeFlight(t *testing.T, s *testbed.Stage, craft uuid.UUID, start time.Time, seconds int) uuid.UUID {
	id := testbed.NewID()
	require.NoError(t, s.DB.Exec(`insert into flights (id, aircraft_id, pilot_id, pack_ids, purpose, took_off_at, landed_at, logged_at, state, seconds, landings)
		values (?, ?, ?, '{}', 'test', ?, ?, ?, 'logged', ?, 1)`, id, craft, s.Pilot.ID, start, start.Add(time.Duration(seconds)*time.Second), s.Clock.Now(), seconds).Error)
	return id
}

// A whole demo year through the use cases agrees with its ledger too.
func TestDemoYearAgreesWithItsLedger(t *testing.T) {
	svc, _ := testbed.Demo(t, testbedClock{})
	for table, thing := range map[string]string{"parts": "part", "aircraft": "aircraft", "packs": "pack"} {
		var n, wrong int64
		require.NoError(t, svc.DB.Raw("select count(*) from "+table+" where seconds > 0").Scan(&n).Error)
		assert.Positive(t, n)
		require.NoError(t, svc.DB.Raw(fmt.Sprintf(`select count(*) from %s x where seconds is distinct from (select coalesce(sum(u.seconds), 0) from flight_use u where u.thing = ? and u.thing_id = x.id)`,
			table), thing).Scan(&wrong).Error)
		assert.Zero(t, wrong, table)
	}
}

type testbedClock struct{}

func (testbedClock) Now() time.Time { return testbed.Noon }

func TestAircraftBadInput(t *testing.T) {
	s := testbed.NewStage(t)
	ctx := s.As(s.Chief)
	old := time.Date(1850, 1, 1, 0, 0, 0, 0, time.UTC)
	for field, n := range map[string]fleet.NewAircraft{
		"name":     {ID: testbed.NewID(), TypeKey: "lantern-4", Name: " ", Serial: "x"},
		"serial":   {ID: testbed.NewID(), TypeKey: "lantern-4", Name: "x", Serial: ""},
		"type_key": {ID: testbed.NewID(), TypeKey: "nothing", Name: "x", Serial: "x"},
		"registration_expires": {ID: testbed.NewID(), TypeKey: "lantern-4", Name: "x", Serial: "x",
			RegistrationExpires: &old},
	} {
		_, err := s.Fleet.AddAircraft(ctx, n)
		assertField(t, err, field)
	}
	_, err := s.Fleet.AddAircraft(ctx, fleet.NewAircraft{ID: testbed.NewID(), TypeKey: "lantern-4", Name: "QUAD ONE",
		Serial: "new"})
	assertField(t, err, "name")
	_, err = s.Fleet.AddAircraft(ctx, fleet.NewAircraft{ID: testbed.NewID(), TypeKey: "lantern-4", Name: "new",
		Serial: "q-1"})
	assertField(t, err, "serial")
	again, err := s.Fleet.AddAircraft(ctx, fleet.NewAircraft{ID: s.Aircraft.ID, TypeKey: "lantern-4", Name: "Quad one",
		Serial: "Q-1"})
	require.NoError(t, err, "the same submit twice")
	assert.Equal(t, s.Aircraft.ID, again.ID)

	e := fleet.Edit{Version: 1, Name: "Quad 1", Registration: "T-1", Active: true}
	_, err = s.Fleet.Update(ctx, s.Aircraft.ID, e)
	require.NoError(t, err)
	_, err = s.Fleet.Update(ctx, s.Aircraft.ID, e)
	assert.True(t, fault.Is(err, "stale"), "%v", err)
}

func assertField(t *testing.T, err error, field string) {
	t.Helper()
	f, ok := fault.As(err)
	if assert.True(t, ok, "%s: %v", field, err) && assert.NotEmpty(t, f.Fields, field) {
		assert.Equal(t, field, f.Fields[0].Field)
	}
}

func TestPartsBadInput(t *testing.T) {
	s := testbed.NewStage(t)
	ctx := s.As(s.Tech)
	fit := func(station, serial string) error {
		return s.Fleet.FitParts(ctx, s.Aircraft.ID, fleet.FitParts{Source: "maker", Old: "shelf",
			Fits: []fleet.Fit{{PartID: testbed.NewID(), Station: station, Serial: serial}}})
	}
	assertField(t, fit("keel", "x"), "fits.0.station")
	assertField(t, fit("motor-1", " "), "fits.0.serial")
	assert.ErrorContains(t, fit("motor-1", "Q-1-motor-2"), "is fitted to an aircraft")
	assertField(t, s.Fleet.FitParts(ctx, s.Aircraft.ID, fleet.FitParts{}), "fits")
	assert.True(t, fault.Is(s.Fleet.FitParts(ctx, testbed.NewID(), fleet.FitParts{Fits: []fleet.Fit{{}}}), "not-found"))
	both := fleet.FitParts{Source: "maker", Old: "shelf",
		Fits: []fleet.Fit{{PartID: testbed.NewID(), Station: "motor-1", Serial: "M-9"},
			{PartID: testbed.NewID(), Station: "motor-2", Serial: ""}}}
	require.Error(t, s.Fleet.FitParts(ctx, s.Aircraft.ID, both))
	conds, err := s.Fleet.Conditions(ctx, []uuid.UUID{s.Aircraft.ID})
	require.NoError(t, err)
	assert.Equal(t, "Q-1-motor-1", conds[0].Parts["motor-1"].Serial, "all or none")
	assert.Error(t, s.DB.Exec("update parts set seconds = -1").Error, "the database refuses negative counters")
}

func TestPackMoves(t *testing.T) {
	s := testbed.NewStage(t)
	id := s.Packs[0].ID
	move := func(as context.Context, to pack.State, note string) error {
		p, err := s.Fleet.Pack(as, id)
		require.NoError(t, err)
		_, err = s.Fleet.MovePack(as, id, to, note, p.Version)
		return err
	}
	pilot, tech := s.As(s.Pilot), s.As(s.Tech)
	assert.True(t, fault.Is(move(pilot, pack.Fitted, ""), "move-not-allowed"))
	assert.True(t, fault.Is(move(pilot, pack.Flown, ""), "move-not-allowed"))
	assertField(t, move(pilot, pack.Quarantine, ""), "note")
	require.NoError(t, move(pilot, pack.Quarantine, "swollen"))
	assert.True(t, fault.Is(move(pilot, pack.Storage, "looks fine now"), "forbidden"), "a pilot never takes it out again")
	require.NoError(t, move(tech, pack.Storage, "inspected on all faces, label was lifting"))
	require.NoError(t, move(tech, pack.Retired, "ten years old"))
	assert.True(t, fault.Is(move(tech, pack.Storage, "back again"), "move-not-allowed"))
	_, err := s.Fleet.MovePack(tech, s.Packs[1].ID, pack.Storage, "", 1)
	assert.True(t, fault.Is(err, "stale"), "%v", err)
}

func TestPackReadings(t *testing.T) {
	s := testbed.NewStage(t)
	ctx, id := s.As(s.Pilot), s.Packs[0].ID
	read := func(n fleet.NewReading) error {
		n.Source = "hand"
		_, err := s.Fleet.ReadPack(ctx, id, n)
		return err
	}
	assertField(t, read(fleet.NewReading{ID: testbed.NewID()}), "cell_mv")
	assertField(t, read(fleet.NewReading{ID: testbed.NewID(), CellMV: []int{4200, 4200}}), "cell_mv")
	assertField(t, read(fleet.NewReading{ID: testbed.NewID(), CellMV: []int{4200, 4200, 4200, 4200, 4200, 42000}}),
		"cell_mv")
	n := fleet.NewReading{ID: testbed.NewID(), CellMV: []int{4340, 4340, 4340, 4340, 4340, 4200}}
	require.NoError(t, read(n))
	require.NoError(t, read(n), "sent twice")
	views, err := s.Fleet.PackViews(ctx, []uuid.UUID{id})
	require.NoError(t, err)
	verdict, sentence := views[0].Judge()
	assert.Equal(t, judge.Stop, verdict, sentence)
	percent, _, spread := views[0].Level()
	assert.Nil(t, percent, "no table for this chemistry: the level stays unknown")
	assert.Equal(t, 140, *spread)
	var count int64
	require.NoError(t, s.DB.Raw("select count(*) from pack_readings where pack_id = ?", id).Scan(&count).Error)
	assert.EqualValues(t, 1, count)
}

func TestTypesAreVersioned(t *testing.T) {
	s := testbed.NewStage(t)
	ctx := context.Background()
	ty, err := s.Fleet.Type(ctx, "lantern-4")
	require.NoError(t, err)
	require.ErrorContains(t, s.Fleet.AddType(ctx, ty), "Version 4 of this type is there already: give this one 5.")
	ty.Version = 5
	require.ErrorContains(t, s.Fleet.AddType(ctx, ty), "Practice is the crew's own")
	ty.Practice = nil
	bad := ty
	bad.Geometry.Rotors, bad.Limits.GustMS, bad.Packs.Chemistry = 1, 2, "lead"
	var said *fault.Error
	require.ErrorAs(t, s.Fleet.AddType(ctx, bad), &said)
	var paths []string
	for _, f := range said.Fields {
		paths = append(paths, f.Field)
	}
	assert.Equal(t, []string{"geometry.rotors", "limits.gust_ms", "packs.chemistry"}, paths,
		"every field is named, by its path in the file")
	ty.Version, ty.Limits.WindMS = 5, 9
	require.NoError(t, s.Fleet.AddType(ctx, ty))
	got, err := s.Fleet.Type(ctx, "lantern-4")
	require.NoError(t, err)
	assert.Equal(t, 5, got.Version)
	ty.Key, ty.Version = "Bad Key", 1
	assertField(t, s.Fleet.AddType(ctx, ty), "key")
	shipped, err := fleet.Shipped()
	require.NoError(t, err)
	assert.Len(t, shipped, 6)
}

func TestFindByNameSerialAndRegistration(t *testing.T) {
	s := testbed.NewStage(t)
	ctx := context.Background()
	for words, want := range map[string]string{"quad": "aircraft", "T-1": "aircraft", "a1": "pack", "S-A2": "pack",
		"Q-1-motor-3": "part", "chief": "person", " q-1 ": "aircraft"} {
		found, err := s.Fleet.Find(ctx, words)
		require.NoError(t, err)
		require.NotEmpty(t, found, words)
		assert.Equal(t, want, found[0].Kind, words)
	}
	box := testbed.NewID()
	require.NoError(t, s.DB.Exec("insert into gear (id, name, kind, minimum, active, version) values (?, 'Black box', 'comms', 80, true, 1)",
		box).Error)
	for _, words := range []string{"black", box.String()} { // the label of gear carries its id
		found, err := s.Fleet.Find(ctx, words)
		require.NoError(t, err)
		require.Len(t, found, 1, words)
		assert.Equal(t, "gear", found[0].Kind)
	}
	part, err := s.Fleet.Find(ctx, "Q-1-motor-3")
	require.NoError(t, err)
	assert.Equal(t, s.Aircraft.ID, *part[0].AircraftID)
	assert.Equal(t, "motor-3", part[0].Station)
	for _, words := range []string{"%", "_", `\`, "nothing like it", "'; drop table parts"} {
		found, err := s.Fleet.Find(ctx, words)
		require.NoError(t, err)
		assert.Empty(t, found, words)
	}
}

func TestPartsOnTheShelfAndSwapped(t *testing.T) {
	s := testbed.NewStage(t)
	ctx := s.As(s.Tech)
	part := func(serial string) fleet.Part {
		var p fleet.Part
		require.NoError(t, s.DB.Limit(1).Find(&p, "serial = ?", serial).Error)
		return p
	}
	add := func(kind, key, serial string) error {
		_, err := s.Fleet.AddPart(ctx, fleet.NewPart{ID: testbed.NewID(), Kind: kind, TypeKey: key, Serial: serial,
			Source: fleet.Maker})
		return err
	}
	assertField(t, add("motor", "kite", "M-1"), "type_key")
	assertField(t, add("rudder", "lantern-4", "M-1"), "kind")
	assertField(t, add("motor", "lantern-4", " "), "serial")
	require.NoError(t, add("motor", "lantern-4", "M-1"))
	require.NoError(t, add("motor", "dray-30", "M-2"))
	fit := func(serial string) error {
		return s.Fleet.FitParts(ctx, s.Aircraft.ID, fleet.FitParts{Source: fleet.Maker, Old: fleet.Shelf,
			Fits: []fleet.Fit{{PartID: testbed.NewID(), Station: "motor-1", Serial: serial}}})
	}
	assert.ErrorContains(t, fit("M-2"), "made for another type")
	require.NoError(t, fit("M-1"))
	old := part("Q-1-motor-1")
	require.Nil(t, old.AircraftID)

	assertField(t, s.Fleet.SwapParts(ctx, old.ID, old.ID), "with")
	assert.True(t, fault.Is(s.Fleet.SwapParts(ctx, old.ID, part("Q-1-motor-2").ID), "not-fitted"))
	assertField(t, s.Fleet.SwapParts(ctx, part("Q-1-propeller-1").ID, part("Q-1-motor-2").ID), "with")
	assert.True(t, fault.Is(s.Fleet.SwapParts(ctx, testbed.NewID(), part("Q-1-motor-2").ID), "not-found"))
	require.NoError(t, s.Fleet.SwapParts(ctx, part("Q-1-motor-3").ID, part("Q-1-motor-2").ID))
	assert.Equal(t, "motor-2", *part("Q-1-motor-3").Station)
	stays, err := s.Fleet.Stays(ctx, part("Q-1-motor-3").ID)
	require.NoError(t, err)
	require.Len(t, stays, 2)

	_, err = s.Fleet.RemovePart(ctx, old.ID, fleet.Shelf, false, "again")
	assert.True(t, fault.Is(err, "on-shelf"), "%v", err)
	_, err = s.Fleet.RemovePart(ctx, old.ID, fleet.Discard, false, "bearing rough")
	require.NoError(t, err)
	_, err = s.Fleet.RemovePart(ctx, old.ID, fleet.Discard, false, "again")
	assert.True(t, fault.Is(err, "discarded"), "%v", err)
	assert.ErrorContains(t, fit("Q-1-motor-1"), "must not fly again")
	_, err = s.Fleet.RemovePart(ctx, part("Q-1-propeller-1").ID, fleet.Discard, false, "nick")
	assertField(t, err, "cut_up")
	_, err = s.Fleet.RemovePart(ctx, testbed.NewID(), fleet.Discard, false, "nothing")
	assert.True(t, fault.Is(err, "not-found"), "%v", err)
	assert.Error(t, s.DB.Exec("update parts set aircraft_id = ?, station = 'motor-2' where serial = 'M-1'",
		s.Aircraft.ID).Error, "the database keeps one part at a position")
}

func TestReadingsInDepth(t *testing.T) {
	s := testbed.NewStage(t)
	ctx, id := s.As(s.Pilot), s.Packs[0].ID
	f := func(v float64) *float64 { return &v }
	read := func(n fleet.NewReading) (fleet.Reading, error) {
		n.ID, n.Source = testbed.NewID(), "hand"
		return s.Fleet.ReadPack(ctx, id, n)
	}
	for field, n := range map[string]fleet.NewReading{"resistance_mohm": {MilliOhm: []float64{1, 2}},
		"mah_in": {MAhIn: f(-1)}, "start_percent": {MAhIn: f(10), StartPercent: f(101)},
		"temperature_c": {TemperatureC: f(300)}, "at": {At: s.Clock.Now().Add(time.Hour), Percent: f(40)}} {
		_, err := read(n)
		assertField(t, err, field)
	}
	r, err := read(fleet.NewReading{MAhIn: f(9000), StartPercent: f(20), EndPercent: f(100)})
	require.NoError(t, err)
	assert.InDelta(t, 11250, *r.CapacityMAh, 1e-9)
	r, err = read(fleet.NewReading{MAhIn: f(3000), StartPercent: f(40), EndPercent: f(70)})
	require.NoError(t, err)
	assert.Nil(t, r.CapacityMAh, "30 points tell no capacity")
	_, err = read(fleet.NewReading{MAhOut: f(6000), StartPercent: f(100), EndPercent: f(45)})
	require.NoError(t, err)
	views, err := s.Fleet.PackViews(ctx, []uuid.UUID{id})
	require.NoError(t, err)
	assert.InDelta(t, 0.5, views[0].EquivalentCycles(), 1e-9, "6 of 12 Ah")
	require.NotNil(t, views[0].Standing)
	assert.InDelta(t, 93.75, *views[0].Standing.Capacity.Health, 1e-9)
	s.Clock.Set(testbed.Noon.Add(-time.Hour))
	_, err = read(fleet.NewReading{Percent: f(40)})
	assert.True(t, fault.Is(err, "clock"), "%v", err)
}

// The overview leaves out only what is far from its limits: held against the
// whole condition of every aircraft, on the demo year and at any later day.
func TestOverviewHidesNothingThatIsDue(t *testing.T) {
	for _, later := range []int{0, 20, 45, 90, 200, 400, 800} {
		at := testbed.Noon.AddDate(0, 0, later)
		svc, _ := testbed.Demo(t, clock.At(at))
		ctx := context.Background()
		require.NoError(t, svc.DB.Exec("update parts set aircraft_id = null, station = null, fitted_at = null where serial = 'TV-0088-receiver'").Error)
		whole, err := svc.Fleet.Conditions(ctx, nil)
		require.NoError(t, err)
		part, err := svc.Fleet.Overview(ctx)
		require.NoError(t, err)
		require.Len(t, part, len(whole))
		for i, c := range whole {
			odd := func(c fleet.Condition) map[string]string {
				out := map[string]string{}
				for _, p := range c.GateParts() {
					d, err := wear.Judge(p.Counters, p.Limits, at)
					if p.ID == "" || err != nil || d.Verdict != judge.Clear {
						out[p.Station] = d.Sentence
					}
				}
				return out
			}
			assert.Equal(t, odd(c), odd(part[i]), "%s after %d days", c.Aircraft.Name, later)
			assert.Equal(t, c.PacksReady, part[i].PacksReady)
			if part[i].Partial {
				least := 1e9
				for _, p := range c.GateParts() {
					if p.Limits.Hours > 0 {
						least = min(least, p.Limits.Hours-float64(p.Counters.Seconds)/3600)
					}
				}
				assert.InDelta(t, least, *part[i].HoursLeft, 1e-6, c.Aircraft.Name)
			}
		}
	}
}

// 4.12 V at rest and 3.86 V under 18 A are 14.4 mOhm; the load stays on file
// with it.
func TestResistanceFromALoad(t *testing.T) {
	s := testbed.NewStage(t)
	ctx, id := s.As(s.Tech), s.Packs[0].ID
	rest, loaded := slices.Repeat([]int{4120}, 6), []int{3860, 3860, 3860, 3860, 3860, 3850}
	read := func(change func(*fleet.NewReading)) (fleet.Reading, error) {
		n := fleet.NewReading{ID: testbed.NewID(), Source: "hand", CellMV: rest,
			Load: &fleet.Load{CellMV: loaded, Amps: 18, Seconds: 10}}
		if change != nil {
			change(&n)
		}
		return s.Fleet.ReadPack(ctx, id, n)
	}
	r, err := read(nil)
	require.NoError(t, err)
	require.Len(t, r.MilliOhm, 6)
	assert.InDelta(t, 14.4, r.MilliOhm[0], 0.05)
	assert.InDelta(t, 15.0, r.MilliOhm[5], 1e-9)
	assert.InDelta(t, 10, *r.LoadS, 1e-9)
	for name, change := range map[string]func(*fleet.NewReading){
		"both":               func(n *fleet.NewReading) { n.MilliOhm = slices.Repeat([]float64{10}, 6) },
		"no rest":            func(n *fleet.NewReading) { n.CellMV = nil },
		"five cells":         func(n *fleet.NewReading) { n.Load.CellMV = loaded[:5] },
		"higher under load":  func(n *fleet.NewReading) { n.Load.CellMV = slices.Repeat([]int{4200}, 6) },
		"next to no current": func(n *fleet.NewReading) { n.Load.Amps = 0.1 },
	} {
		_, err := read(change)
		f, ok := fault.As(err)
		require.True(t, ok, "%s: %v", name, err)
		assert.Equal(t, "under_load", f.Fields[0].Field, name)
	}
}

// On a large rack the few that may fly are found behind the many that may not,
// and where enough have been found it is said that there may be more.
func TestReadyPacksOnALargeRack(t *testing.T) {
	s := testbed.NewStage(t)
	ctx := context.Background()
	ready := func() (int, bool) {
		cs, err := s.Fleet.Conditions(ctx, []uuid.UUID{s.Aircraft.ID})
		require.NoError(t, err)
		return cs[0].PacksReady, cs[0].PacksMore
	}
	level, warm := 99.0, 21.0
	for _, p := range s.Packs {
		s.Charge(p.ID)
		_, err := s.Fleet.ReadPack(s.As(s.Pilot), p.ID, fleet.NewReading{ID: testbed.NewID(), Source: "hand",
			CellMV: []int{4340, 4340, 4340, 4340, 4340, 4340}, Percent: &level, TemperatureC: &warm})
		require.NoError(t, err)
	}
	few, more := ready()
	require.Positive(t, few)
	require.False(t, more)
	of := s.Packs[0].ID
	require.NoError(t, s.DB.Exec(`insert into packs (id, label, serial, chemistry, cells, capacity_mah, cycles, state, state_since, full_since, out_mah, created_at)
		select gen_random_uuid(), 'A' || lpad(n::text, 4, '0'), 'AS-' || n, chemistry, cells, capacity_mah, 0, 'charged', state_since, full_since, 0, created_at from packs cross join generate_series(1, 400) n where id = ?`, of).Error)
	require.NoError(t, s.DB.Exec(`insert into pack_readings (id, pack_id, at, by_name, source, cell_mv, rested_min, percent, temperature_c)
		select gen_random_uuid(), p.id, r.at, r.by_name, r.source, case when p.label > 'A0390' then r.cell_mv else array_fill(2500, array[p.cells]) end, r.rested_min, r.percent, r.temperature_c
		from packs p cross join (select * from pack_readings where pack_id = ? order by at desc limit 1) r where p.label like 'A0%'`, of).Error)
	require.NoError(t, s.DB.Exec("update packs set state = 'storage' where label > 'A0390' and label like 'A0%'").Error)
	n, more := ready()
	assert.Equal(t, few, n)
	assert.False(t, more)
	require.NoError(t, s.DB.Exec("update packs set state = 'charged' where label like 'A0%'").Error)
	n, more = ready()
	assert.Equal(t, min(few+10, 12), n)
	assert.Equal(t, few+10 >= 12, more)
}

// The rack and the readings of a pack come in pages that hold everything once,
// also while something is added; a cursor that is none is told.
func TestPagesOfRackAndReadings(t *testing.T) {
	s := testbed.NewStage(t)
	ctx := context.Background()
	require.NoError(t, s.DB.Exec(`insert into packs (id, label, serial, chemistry, cells, capacity_mah, state, state_since, created_at)
		select gen_random_uuid(), case when i % 7 = 0 then 'B' else 'b' end || lpad(i::text, 5, '0'), 'S' || i, 'lihv', 6, 12000, 'storage', now(), now() from generate_series(1, 1200) i`).Error)
	require.NoError(t, s.DB.Exec(`insert into pack_readings (id, pack_id, at, by_name, source, cell_mv) select gen_random_uuid(), ?, ?::timestamptz - (i / 3) * interval '1 hour', 'x', 'hand', '{}' from generate_series(1, 200) i`,
		s.Packs[0].ID, testbed.Noon).Error)
	seen, pages := map[uuid.UUID]bool{}, 0
	for cursor := ""; pages == 0 || cursor != ""; pages++ {
		ids, next, err := s.Fleet.PackPage(ctx, cursor)
		require.NoError(t, err)
		for _, id := range ids {
			assert.False(t, seen[id], "once")
			seen[id] = true
		}
		cursor = next
	}
	assert.Len(t, seen, 1202)
	assert.Equal(t, 3, pages)
	seen, pages = map[uuid.UUID]bool{}, 0
	last := testbed.Noon.AddDate(1, 0, 0)
	for cursor := ""; pages == 0 || cursor != ""; pages++ {
		rs, next, err := s.Fleet.Readings(ctx, s.Packs[0].ID, cursor)
		require.NoError(t, err)
		for _, r := range rs {
			assert.False(t, seen[r.ID], "once")
			assert.False(t, r.At.After(last), "newest first")
			seen[r.ID], last = true, r.At
		}
		cursor = next
	}
	assert.Len(t, seen, 200)
	for _, bad := range []string{"x", "AAAA", "not base64!", db.Cursor("no time", testbed.NewID())} {
		_, _, err := s.Fleet.Readings(ctx, s.Packs[0].ID, bad)
		assert.True(t, fault.Is(err, "invalid"), bad)
	}
}

// Several packs move with one press, each by itself: one that may not go holds
// up no other, and what was moved comes back as it was, once, if it has not changed.
func TestSeveralPacksAtOnce(t *testing.T) {
	s := testbed.NewStage(t)
	ctx := s.As(s.Pilot)
	pick := func(p fleet.Pack) fleet.Chosen { return fleet.Chosen{ID: p.ID, Version: p.Version} }
	now := func(i int) fleet.Pack {
		p, err := s.Fleet.Pack(ctx, s.Packs[i].ID)
		require.NoError(t, err)
		return p
	}
	back := func(p fleet.Pack) fleet.Outcome {
		t.Helper()
		got, err := s.Fleet.MoveBack(ctx, []fleet.Chosen{pick(p)})
		require.NoError(t, err)
		return got[0]
	}
	a, b := now(0), now(1)
	old := pick(b)
	old.Version--
	got, err := s.Fleet.MoveSeveral(ctx, pack.Storage, []fleet.Chosen{pick(a), old, {ID: testbed.NewID()}})
	require.NoError(t, err)
	require.Len(t, got, 3)
	assert.Equal(t, fleet.Outcome{ID: a.ID, Label: a.Label, Was: pack.State(a.State), Version: a.Version + 1}, got[0])
	assert.Contains(t, got[1].Sentence, "changed by somebody else")
	assert.NotEmpty(t, got[2].Sentence)
	assert.Equal(t, "storage", now(0).State)
	assert.Equal(t, b.State, now(1).State)

	s.Clock.Advance(fleet.UndoFor)
	assert.Empty(t, back(now(0)).Sentence)
	assert.Equal(t, a.State, now(0).State)
	assert.Equal(t, a.FullSince.UTC(), now(0).FullSince.UTC(), "it has been full since it was, not since the slip")
	assert.NotEmpty(t, back(now(0)).Sentence, "once")

	_, err = s.Fleet.MoveSeveral(ctx, pack.Storage, []fleet.Chosen{pick(now(0))})
	require.NoError(t, err)
	s.Clock.Advance(fleet.UndoFor + time.Second)
	assert.Contains(t, back(now(0)).Sentence, "too long ago")
	for _, to := range []pack.State{pack.Quarantine, pack.Retired, pack.Fitted, pack.Hot} {
		_, err := s.Fleet.MoveSeveral(s.As(s.Chief), to, []fleet.Chosen{pick(now(1))})
		assert.True(t, fault.Is(err, "invalid"), "%s: %v", to, err)
	}
}

// No undo takes a pack out of a state that it leaves only by somebody's decision
// or by a flight, whatever state it left to come there.
func TestNothingIsUndoneThatPeopleDecided(t *testing.T) {
	s := testbed.NewStage(t)
	ctx := s.As(s.Pilot)
	for _, c := range []struct{ left, state string }{
		{"charged", "quarantine"}, {"storage", "quarantine"}, {"charged", "fitted"}, {"charged", "retired"}, {"fitted",
			"hot"}, {"fitted", "flown"}, {"fitted", "charged"}, {"quarantine", "storage"}, {"hot", "flown"}, {"", "charged"},
	} {
		p, err := s.Fleet.Pack(ctx, s.Packs[1].ID)
		require.NoError(t, err)
		require.NoError(t, s.DB.Exec("update packs set state = ?, left_state = ?, state_since = ?, aircraft_id = case when ? = 'fitted' then ?::uuid end where id = ?",
			c.state, c.left, s.Clock.Now(), c.state, s.Aircraft.ID, p.ID).Error)
		got, err := s.Fleet.MoveBack(s.As(s.Chief), []fleet.Chosen{{ID: p.ID, Version: p.Version}})
		require.NoError(t, err)
		assert.NotEmpty(t, got[0].Sentence, "from %s to %s", c.left, c.state)
		p, err = s.Fleet.Pack(ctx, p.ID)
		require.NoError(t, err)
		assert.Equal(t, c.state, p.State)
	}
}
