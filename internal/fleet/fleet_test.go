package fleet_test

import (
	"context"
	"fmt"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gorm.io/gorm"
	"pgregory.net/rapid"

	"mainstay/core/judge"
	"mainstay/core/pack"
	"mainstay/internal/fleet"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/testbed"
)

// Whatever is fitted, flown and moved, the counters of every thing are the sum
// of the flights on its ledger, and of the flights during which it was fitted.
func TestCountersAreTheSumOfTheFlights(t *testing.T) {
	s := testbed.NewStage(t)
	ctx := s.As(s.Chief)
	other, err := s.Fleet.AddAircraft(ctx, fleet.NewAircraft{ID: testbed.NewID(), TypeKey: "lantern-4", Name: "Other", Serial: "Q-2", FitNewParts: true})
	require.NoError(t, err)
	crafts := []uuid.UUID{s.Aircraft.ID, other.ID}
	n, expected := 0, map[string]int64{} // part serial -> seconds, kept by hand
	on := map[string]string{}            // aircraft/station -> serial
	for i, id := range crafts {
		for _, st := range []string{"propeller-1", "motor-1", "frame"} {
			on[fmt.Sprint(id, st)] = map[string]string{"frame": fmt.Sprintf("Q-%d", i+1)}[st]
			if st != "frame" {
				on[fmt.Sprint(id, st)] = fmt.Sprintf("Q-%d-%s", i+1, st)
			}
		}
	}
	shelf := map[string][]string{}
	rapid.Check(t, func(rt *rapid.T) {
		for range 6 {
			craft := rapid.SampledFrom(crafts).Draw(rt, "craft")
			s.Clock.Advance(time.Minute)
			if rapid.Bool().Draw(rt, "fly") {
				seconds := rapid.IntRange(1, 3000).Draw(rt, "seconds")
				start := s.Clock.Now()
				s.Clock.Advance(time.Duration(seconds) * time.Second)
				use := fleet.Use{Flight: fakeFlight(t, s, craft, start, seconds), Aircraft: craft, Packs: []uuid.UUID{s.Packs[0].ID}, TookOff: start, Landed: s.Clock.Now(), Seconds: seconds, Landings: 1}
				require.NoError(t, db.Tx(ctx, s.DB, func(_ context.Context, tx *gorm.DB) error { return fleet.ApplyUse(tx, use) }))
				for _, st := range []string{"propeller-1", "motor-1", "frame"} {
					expected[on[fmt.Sprint(craft, st)]] += int64(seconds)
				}
				continue
			}
			st := rapid.SampledFrom([]string{"propeller-1", "motor-1"}).Draw(rt, "station")
			serial := ""
			if list := shelf[st]; len(list) > 0 && rapid.Bool().Draw(rt, "from the shelf") {
				serial, shelf[st] = list[0], list[1:]
			} else {
				n++
				serial = fmt.Sprintf("N-%d", n)
			}
			key := fmt.Sprint(craft, st)
			shelf[st] = append(shelf[st], on[key])
			on[key] = serial
			require.NoError(t, s.Fleet.FitParts(ctx, craft, fleet.FitParts{Source: "maker", Old: "shelf", Fits: []fleet.Fit{{PartID: testbed.NewID(), Station: st, Serial: serial}}}))
		}
		var parts []fleet.Part
		require.NoError(t, s.DB.Find(&parts).Error)
		for _, p := range parts {
			if want, ok := expected[p.Serial]; ok {
				require.Equal(t, want, p.Seconds, p.Serial)
			}
		}
		for table, thing := range map[string]string{"parts": "part", "aircraft": "aircraft", "packs": "pack"} {
			var wrong int64
			require.NoError(t, s.DB.Raw(fmt.Sprintf(`select count(*) from %s x left join
				(select thing_id, sum(seconds) as s, sum(flights) as f from flight_use where thing = ? group by thing_id) u on u.thing_id = x.id
				where seconds <> coalesce(u.s, 0) or flights <> coalesce(u.f, 0)`, table), thing).Scan(&wrong).Error)
			require.Zero(t, wrong, table)
		}
	})
}

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
		require.NoError(t, svc.DB.Raw(fmt.Sprintf(`select count(*) from %s x where seconds is distinct from (select coalesce(sum(u.seconds), 0) from flight_use u where u.thing = ? and u.thing_id = x.id)`, table), thing).Scan(&wrong).Error)
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
		"name":                 {ID: testbed.NewID(), TypeKey: "lantern-4", Name: " ", Serial: "x"},
		"serial":               {ID: testbed.NewID(), TypeKey: "lantern-4", Name: "x", Serial: ""},
		"type_key":             {ID: testbed.NewID(), TypeKey: "nothing", Name: "x", Serial: "x"},
		"registration_expires": {ID: testbed.NewID(), TypeKey: "lantern-4", Name: "x", Serial: "x", RegistrationExpires: &old},
	} {
		_, err := s.Fleet.AddAircraft(ctx, n)
		assertField(t, err, field)
	}
	_, err := s.Fleet.AddAircraft(ctx, fleet.NewAircraft{ID: testbed.NewID(), TypeKey: "lantern-4", Name: "QUAD ONE", Serial: "new"})
	assertField(t, err, "name")
	_, err = s.Fleet.AddAircraft(ctx, fleet.NewAircraft{ID: testbed.NewID(), TypeKey: "lantern-4", Name: "new", Serial: "q-1"})
	assertField(t, err, "serial")
	again, err := s.Fleet.AddAircraft(ctx, fleet.NewAircraft{ID: s.Aircraft.ID, TypeKey: "lantern-4", Name: "Quad one", Serial: "Q-1"})
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
		return s.Fleet.FitParts(ctx, s.Aircraft.ID, fleet.FitParts{Source: "maker", Old: "shelf", Fits: []fleet.Fit{{PartID: testbed.NewID(), Station: station, Serial: serial}}})
	}
	assertField(t, fit("keel", "x"), "fits.0.station")
	assertField(t, fit("motor-1", " "), "fits.0.serial")
	assert.ErrorContains(t, fit("motor-1", "Q-1-motor-2"), "is fitted to an aircraft")
	assertField(t, s.Fleet.FitParts(ctx, s.Aircraft.ID, fleet.FitParts{}), "fits")
	assert.True(t, fault.Is(s.Fleet.FitParts(ctx, testbed.NewID(), fleet.FitParts{Fits: []fleet.Fit{{}}}), "not-found"))
	both := fleet.FitParts{Source: "maker", Old: "shelf", Fits: []fleet.Fit{{PartID: testbed.NewID(), Station: "motor-1", Serial: "M-9"}, {PartID: testbed.NewID(), Station: "motor-2", Serial: ""}}}
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
	assertField(t, read(fleet.NewReading{ID: testbed.NewID(), CellMV: []int{4200, 4200, 4200, 4200, 4200, 42000}}), "cell_mv")
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
	require.Error(t, s.Fleet.AddType(ctx, ty), "the same version twice")
	ty.Version, ty.Limits.WindMS = 2, 9
	require.NoError(t, s.Fleet.AddType(ctx, ty))
	got, err := s.Fleet.Type(ctx, "lantern-4")
	require.NoError(t, err)
	assert.Equal(t, 2, got.Version)
	ty.Key, ty.Version = "Bad Key", 1
	assertField(t, s.Fleet.AddType(ctx, ty), "profile")
	shipped, err := fleet.Shipped()
	require.NoError(t, err)
	assert.Len(t, shipped, 4)
}

func TestFindByNameSerialAndRegistration(t *testing.T) {
	s := testbed.NewStage(t)
	ctx := context.Background()
	for words, want := range map[string]string{"quad": "aircraft", "T-1": "aircraft", "a1": "pack", "S-A2": "pack", "Q-1-motor-3": "part", "chief": "person", " q-1 ": "aircraft"} {
		found, err := s.Fleet.Find(ctx, words)
		require.NoError(t, err)
		require.NotEmpty(t, found, words)
		assert.Equal(t, want, found[0].Kind, words)
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
