package walkround_test

import (
	"net/http/httptest"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/checks"
	"mainstay/core/gate"
	"mainstay/core/judge"
	"mainstay/internal/fleet"
	"mainstay/internal/platform/fault"
	"mainstay/internal/platform/outside"
	"mainstay/internal/standins/aircraft"
	"mainstay/internal/testbed"
	"mainstay/internal/walkround"
)

// begun is a walk with one pack that a charger has read an hour ago.
func begun(t *testing.T) (*testbed.Stage, walkround.Sheet) {
	s := testbed.NewStage(t)
	temp, level, rested := 24.0, 99.0, 0.0
	_, err := s.Fleet.ReadPack(s.As(s.Pilot), s.Packs[0].ID,
		fleet.NewReading{ID: testbed.NewID(), CellMV: []int{4340, 4341, 4342, 4343, 4344, 4346}, RestedMin: &rested,
			Percent: &level, TemperatureC: &temp, Source: "charger"})
	require.NoError(t, err)
	s.Clock.Advance(time.Hour)
	sh, err := s.Walkrounds.Start(s.As(s.Pilot), walkround.New{ID: testbed.NewID(), Aircraft: s.Aircraft.ID,
		Round: checks.Full, Packs: []uuid.UUID{s.Packs[0].ID}})
	require.NoError(t, err)
	return s, sh
}

func offers(t *testing.T, s *testbed.Stage, run uuid.UUID) map[string]walkround.Offer {
	all, err := s.Walkrounds.Offers(s.As(s.Pilot), run)
	require.NoError(t, err)
	out := map[string]walkround.Offer{}
	for _, o := range all {
		out[o.ItemID] = o
	}
	return out
}

// What a charger read is offered with its time while it holds; confirmed it is judged like any
// entry, and makes no second reading. What was never offered cannot be confirmed.
func TestWhatIsKnownIsOffered(t *testing.T) {
	s, sh := begun(t)
	ctx := s.As(s.Pilot)
	cells, level, warm := "pack-cells@"+s.Packs[0].ID.String(), "pack-percent@"+s.Packs[0].ID.String(),
		"pack-temp@"+s.Packs[0].ID.String()
	known := offers(t, s, sh.ID)
	require.Contains(t, known, cells)
	require.Contains(t, known, level)
	assert.NotContains(t, known, warm, "an hour old: it may have cooled")
	assert.Equal(t, "6 mV apart, lowest 4340 mV", known[cells].Words)
	assert.Equal(t, "charger", known[cells].Source)
	assert.Equal(t, testbed.Noon, known[cells].At.UTC())

	spoiled := known[cells].Value
	spoiled.Set = append([]float64{4400}, spoiled.Set[1:]...)
	other := known[cells].Value
	other.From = uuid.NewString()
	for name, v := range map[string]checks.Value{"another number": spoiled, "another reading": other,
		"nobody's": {Set: known[cells].Value.Set, From: "me"}} {
		_, err := s.Walkrounds.Save(ctx, sh.ID, []walkround.NewEntry{{ItemID: cells, Value: v}})
		_, people := fault.As(err)
		assert.True(t, people, "%s: %v", name, err)
	}
	got, err := s.Walkrounds.Save(ctx, sh.ID, []walkround.NewEntry{{ItemID: cells, Value: known[cells].Value},
		{ItemID: level, Value: known[level].Value}})
	require.NoError(t, err)
	assert.Equal(t, judge.Clear.String(), got.Entries[0].Verdict)
	var es []walkround.NewEntry
	for _, e := range s.Entries(sh, nil) {
		if e.ItemID != cells && e.ItemID != level && e.ItemID != warm {
			es = append(es, e)
		}
	}
	cool := 22.0
	_, err = s.Walkrounds.Save(ctx, sh.ID, append(es, walkround.NewEntry{ItemID: warm,
		Value: checks.Value{Number: &cool}}))
	require.NoError(t, err)
	_, err = s.Walkrounds.Complete(ctx, sh.ID)
	require.NoError(t, err)
	reading := func() *gate.PackReading {
		all, err := s.Fleet.PackViews(ctx, []uuid.UUID{s.Packs[0].ID})
		require.NoError(t, err)
		return all[0].GatePack(s.Aircraft.ID).Reading
	}
	r := reading()
	require.NotNil(t, r)
	assert.NotEmpty(t, r.CellMV, "the newest reading knows all that was said on the walk: confirmed,")
	assert.NotNil(t, r.Percent)
	require.NotNil(t, r.Temperature)
	assert.InDelta(t, 22, float64(*r.Temperature), 1e-9, "and read anew")
	var anew int64
	require.NoError(t, s.DB.Raw("select count(*) from pack_readings where pack_id = ? and cell_mv <> '{}' and cells_from is null",
		s.Packs[0].ID).Scan(&anew).Error)
	assert.EqualValues(t, 1, anew, "the history of the pack has the cells once, where they were read")

	// What was confirmed of a reading goes with it.
	from := uuid.MustParse(known[cells].Value.From)
	require.NoError(t, s.Fleet.WithdrawReading(s.As(s.Tech), s.Packs[0].ID, from, "of another pack"))
	assert.Nil(t, reading())
}

// Once the pack has flown nothing that was read before is offered, nor can it be confirmed.
func TestOffersEndWithAFlight(t *testing.T) {
	s := testbed.NewStage(t)
	ctx := s.As(s.Pilot)
	s.Fly(checks.Full, s.Packs[0].ID, 300)
	sh, err := s.Walkrounds.Start(ctx, walkround.New{ID: testbed.NewID(), Aircraft: s.Aircraft.ID, Round: checks.Full,
		Packs: []uuid.UUID{s.Packs[0].ID}})
	require.NoError(t, err)
	cells := "pack-cells@" + s.Packs[0].ID.String()
	assert.NotContains(t, offers(t, s, sh.ID), cells)
	var before fleet.Reading
	require.NoError(t, s.DB.Raw("select * from pack_readings where pack_id = ? and cardinality(cell_mv) > 0 order by at desc limit 1",
		s.Packs[0].ID).Scan(&before).Error)
	require.NotEqual(t, uuid.Nil, before.ID, "the walk before the flight read its cells")
	v := checks.Value{From: before.ID.String()}
	for _, mv := range before.CellMV {
		v.Set = append(v.Set, float64(mv))
	}
	_, err = s.Walkrounds.Save(ctx, sh.ID, []walkround.NewEntry{{ItemID: cells, Value: v}})
	assert.ErrorContains(t, err, "does not hold any more")
}

// A reading of yesterday is not offered; what an aircraft tells is offered while its link
// answers.
func TestOffersAge(t *testing.T) {
	s, sh := begun(t)
	ctx := s.As(s.Pilot)
	cells := "pack-cells@" + s.Packs[0].ID.String()
	was := offers(t, s, sh.ID)[cells]
	s.Clock.Advance(24 * time.Hour)
	assert.Empty(t, offers(t, s, sh.ID))
	_, err := s.Walkrounds.Save(ctx, sh.ID, []walkround.NewEntry{{ItemID: cells, Value: was.Value}})
	assert.ErrorContains(t, err, "does not hold any more")

	l := aircraft.New(1, s.Clock.Now, aircraft.Craft{Serial: s.Aircraft.Serial, Motors: 4, Cells: 6})
	srv := httptest.NewServer(l)
	t.Cleanup(srv.Close)
	s.Walkrounds.Link = outside.New(srv.URL, "")
	told := offers(t, s, sh.ID)["satellites"]
	require.NotNil(t, told.Value.Number)
	assert.Equal(t, "link", told.Source)
	_, err = s.Walkrounds.Save(ctx, sh.ID, []walkround.NewEntry{{ItemID: "satellites", Value: told.Value}})
	require.NoError(t, err)
	l.Set(aircraft.Faults{Unreachable: true})
	s.Clock.Advance(10 * time.Second) // what was told is old then
	assert.Empty(t, offers(t, s, sh.ID), "no link, nothing is offered, and nothing breaks")
}

// Each mark that is not in order is a defect at its own place.
func TestMarksBecomeDefects(t *testing.T) {
	s := testbed.NewStage(t)
	ctx := s.As(s.Pilot)
	sh := s.Walk(checks.Full, nil, func(it checks.Item, v *checks.Value) {
		switch it.ID {
		case "corner-2":
			*v = checks.Value{Look: "defect", Note: "Nick in the leading edge, bell tips.",
				Wrong: []string{"motor-2", "propeller-2"}}
		case "body":
			*v = checks.Value{Look: "defect", Note: "Smear on the left eye.", Wrong: []string{"sensor"}}
		}
	})
	assert.Equal(t, judge.Stop.String(), sh.Verdict)
	open, _, err := s.Walkrounds.Defects(ctx, &s.Aircraft.ID, "")
	require.NoError(t, err)
	at := map[string]string{}
	for _, d := range open {
		at[d.Station] = d.Severity
	}
	assert.Equal(t, map[string]string{"motor-2": "stop", "propeller-2": "stop", "sensor": "watch"}, at)
}

// What asks for two hands is open until a second person has said it too.
func TestCallAndResponse(t *testing.T) {
	s := testbed.NewStage(t)
	l, err := s.Walkrounds.List(s.As(s.Chief), "lantern-4", 0)
	require.NoError(t, err)
	l.Version++
	l.Sections = l.Sections[1:2]
	l.Sections[0].Items[0].Hands = 2
	require.NoError(t, s.Walkrounds.AddList(s.As(s.Chief), "lantern-4", l))
	sh, err := s.Walkrounds.Start(s.As(s.Pilot), walkround.New{ID: testbed.NewID(), Aircraft: s.Aircraft.ID,
		Round: checks.Full})
	require.NoError(t, err)
	_, err = s.Walkrounds.Save(s.As(s.Pilot), sh.ID, s.Entries(sh, nil))
	require.NoError(t, err)
	one := []walkround.NewEntry{{ItemID: "body", Value: checks.Value{Look: "ok"}}}
	_, err = s.Walkrounds.Save(s.As(s.Pilot), sh.ID, one)
	require.NoError(t, err, "the same person twice is one")
	_, err = s.Walkrounds.Complete(s.As(s.Pilot), sh.ID)
	assert.True(t, fault.Is(err, "incomplete"), "%v", err)
	_, err = s.Walkrounds.Save(s.As(s.Chief), sh.ID, one)
	require.NoError(t, err)
	_, err = s.Walkrounds.Complete(s.As(s.Pilot), sh.ID)
	require.NoError(t, err)
}

// A reading that is withdrawn between being confirmed and the end of the walk is not known.
func TestWhatIsWithdrawnIsNotConfirmed(t *testing.T) {
	s, sh := begun(t)
	ctx, pack := s.As(s.Pilot), s.Packs[0].ID
	cells := "pack-cells@" + pack.String()
	known := offers(t, s, sh.ID)
	var es []walkround.NewEntry
	for _, e := range s.Entries(sh, nil) {
		if e.ItemID == cells {
			e.Value = known[cells].Value
		}
		es = append(es, e)
	}
	_, err := s.Walkrounds.Save(ctx, sh.ID, es)
	require.NoError(t, err)
	require.NoError(t, s.Fleet.WithdrawReading(s.As(s.Tech), pack, uuid.MustParse(known[cells].Value.From),
		"of another pack"))
	_, err = s.Walkrounds.Complete(ctx, sh.ID)
	require.NoError(t, err)
	all, err := s.Fleet.PackViews(ctx, []uuid.UUID{pack})
	require.NoError(t, err)
	r := all[0].GatePack(s.Aircraft.ID).Reading
	require.NotNil(t, r)
	assert.Empty(t, r.CellMV, "the gate asks for them")
	assert.NotNil(t, r.Percent)
}
