package evening_test

import (
	"slices"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/airframe"
	"mainstay/core/judge"
	"mainstay/core/pack"
	"mainstay/internal/evening"
	"mainstay/internal/platform/fault"
	"mainstay/internal/testbed"
)

func TestEveningOfTomorrow(t *testing.T) {
	s := testbed.NewStage(t)
	ctx := s.As(s.Pilot)
	day := time.Date(2026, 6, 11, 0, 0, 0, 0, time.UTC)
	sh, err := s.Evening.Of(ctx, day)
	require.NoError(t, err)
	assert.False(t, sh.Saved)
	assert.Equal(t, "2026-06-11T06:00:00-07:00", sh.ReadyBy.Format(time.RFC3339))
	assert.Len(t, sh.Plan.Lower, 2, "two charged packs and nothing flies")
	e := evening.Edit{StartAt: sh.StartAt, ReadyBy: sh.ReadyBy, Sorties: map[uuid.UUID]int{s.Aircraft.ID: 1}}
	require.NoError(t, s.Evening.Save(ctx, day, e))
	sh, err = s.Evening.Of(ctx, day)
	require.NoError(t, err)
	assert.True(t, sh.Saved)
	assert.Len(t, sh.Plan.Ready, 2, "one to fly, one to spare")
	assert.Equal(t, judge.Clear, sh.Plan.Verdict)

	e.Sorties[s.Aircraft.ID] = 3
	require.NoError(t, s.Evening.Save(ctx, day, e))
	sh, err = s.Evening.Of(ctx, day)
	require.NoError(t, err)
	assert.Equal(t, judge.Stop, sh.Plan.Verdict, "three sorties, two packs")

	back := e
	back.ReadyBy = back.StartAt
	assert.ErrorContains(t, s.Evening.Save(ctx, day, back), "before charging begins")
	back.ReadyBy = back.StartAt.AddDate(0, 0, 3)
	assert.Error(t, s.Evening.Save(ctx, day, back))
	back = e
	back.Sorties = map[uuid.UUID]int{testbed.NewID(): 1}
	assert.True(t, fault.Is(s.Evening.Save(ctx, day, back), "not-found"))

	require.NoError(t, s.Evening.Tick(ctx, day, "charge:"+s.Packs[0].ID.String(), true))
	require.NoError(t, s.Evening.Tick(ctx, day, "charge:"+s.Packs[0].ID.String(), true), "ticked twice")
	assert.Error(t, s.Evening.Tick(ctx, day, "fly:me", true))
	sh, err = s.Evening.Of(ctx, day)
	require.NoError(t, err)
	require.Len(t, sh.Ticks, 1)
	assert.Equal(t, s.Pilot.Name, sh.Ticks[0].ByName)
	require.NoError(t, s.Evening.Tick(ctx, day, "charge:"+s.Packs[0].ID.String(), false))
	sh, _ = s.Evening.Of(ctx, day)
	assert.Empty(t, sh.Ticks)
}

// A tick does the thing: the pack goes on charge, is charged, is at storage
// level; taken back, it is where it was, unless it has gone on since.
func TestTicksMoveThePack(t *testing.T) {
	s := testbed.NewStage(t)
	ctx, day := s.As(s.Pilot), s.Clock.Now()
	id := s.Packs[0].ID
	item := func(kind string) string { return kind + ":" + id.String() }
	state := func() string {
		p, err := s.Fleet.Pack(ctx, id)
		require.NoError(t, err)
		return p.State
	}
	require.Equal(t, "charged", state())
	tick := func(kind string, done bool, want string) {
		t.Helper()
		require.NoError(t, s.Evening.Tick(ctx, day, item(kind), done))
		assert.Equal(t, want, state())
	}
	tick("lower", true, "storage")
	tick("lower", true, "storage")
	tick("lower", false, "charged")
	tick("lower", true, "storage")
	tick("charge", true, "charging")
	tick("lower", false, "charging") // it has gone on since
	tick("charged", true, "charged")
	tick("charge", false, "charged") // as above
	tick("charged", false, "charging")

	p, err := s.Fleet.Pack(ctx, id)
	require.NoError(t, err)
	_, err = s.Fleet.MovePack(s.As(s.Tech), id, pack.Quarantine, "swollen", p.Version)
	require.NoError(t, err)
	for _, kind := range []string{"charge", "charged", "lower"} {
		require.NoError(t, s.Evening.Tick(ctx, day, item(kind), false))
		assert.Error(t, s.Evening.Tick(ctx, day, item(kind), true), "nobody ticks a pack out of quarantine")
		assert.Error(t, s.Evening.Tick(s.As(s.Tech), day, item(kind), true), "a technician says why, on its own page")
		assert.Equal(t, "quarantine", state())
	}
}

func TestGearAndChargers(t *testing.T) {
	s := testbed.NewStage(t)
	ctx := s.As(s.Tech)
	now := s.Clock.Now()
	g := evening.Gear{ID: testbed.NewID(), Name: "Tablet", Kind: "tablet", Minimum: 80, Active: true}
	require.NoError(t, s.Evening.SaveGear(ctx, g))
	require.NoError(t, s.Evening.SaveGear(ctx, g), "sent twice")
	twin := g
	twin.ID = testbed.NewID()
	assert.ErrorContains(t, s.Evening.SaveGear(ctx, twin), "has this name")
	twin.Name = " "
	assert.Error(t, s.Evening.SaveGear(ctx, twin))
	g.Version = 7
	assert.True(t, fault.Is(s.Evening.SaveGear(ctx, g), "stale"))
	g.Version, g.Minimum = 1, 70
	require.NoError(t, s.Evening.SaveGear(ctx, g))
	assert.True(t, fault.Is(s.Evening.CheckGear(ctx, testbed.NewID(), 50), "not-found"))
	require.NoError(t, s.Evening.CheckGear(ctx, g.ID, 75))
	require.NoError(t, s.Evening.SaveCharger(ctx, evening.Charger{ID: testbed.NewID(), Name: "Rack", Channels: 2,
		Watts: 500, Active: true}))
	assert.ErrorContains(t, s.Evening.SaveCharger(ctx, evening.Charger{ID: testbed.NewID(), Name: "RACK", Channels: 2,
		Watts: 500}), "has this name")
	assert.Error(t, s.Evening.SaveCharger(ctx, evening.Charger{ID: testbed.NewID(), Name: " "}))

	level := func(v float64) *float64 { return &v }
	for _, c := range []struct {
		g evening.Gear
		v judge.Verdict
	}{
		{evening.Gear{Minimum: 80, Active: true, LookedAt: &now},
			judge.Stop}, {evening.Gear{Minimum: 80, Level: level(79), CheckedAt: &now, Active: true, LookedAt: &now},
			judge.Stop}, {evening.Gear{Minimum: 80, Level: level(80), CheckedAt: &now, Active: true, LookedAt: &now},
			judge.Clear},
	} {
		v, sentence := c.g.Judge(now)
		assert.Equal(t, c.v, v, sentence)
	}
	old := evening.Gear{Minimum: 80, Level: level(99), CheckedAt: &now, Active: true, LookedAt: &now}
	v, _ := old.Judge(now.Add(25 * time.Hour))
	assert.Equal(t, judge.Stop, v, "a level of yesterday is no level")
}

// The packs of a day follow from its rotation: with a strong charger in the field a few
// sets go round, with a weak one more, with none each flight takes its own.
func TestSetsForADayInTheField(t *testing.T) {
	s := testbed.NewStage(t)
	ctx := s.As(s.Tech)
	types, err := s.Fleet.Types(ctx)
	require.NoError(t, err)
	i := slices.IndexFunc(types, func(x airframe.Type) bool { return x.TankL > 0 })
	require.GreaterOrEqual(t, i, 0)
	sets := func() int {
		f, err := s.Evening.Field(ctx)
		require.NoError(t, err)
		return f.Sets(types[i], 12, 1)
	}
	assert.Zero(t, sets(), "nothing charges in the field")
	c := evening.Charger{ID: testbed.NewID(), Name: "Truck", Channels: 4, Watts: 3000, InField: true, Active: true}
	require.NoError(t, s.Evening.SaveCharger(ctx, c))
	strong := sets()
	assert.Positive(t, strong)
	assert.Less(t, strong, 8)
	c.Version, c.GeneratorW = 1, 3000
	require.NoError(t, s.Evening.SaveCharger(ctx, c))
	weak := sets()
	assert.True(t, weak == 0 || weak > strong, "%d with a weak generator, %d without its limit", weak, strong)
	c.Version, c.InField = 2, false
	require.NoError(t, s.Evening.SaveCharger(ctx, c))
	assert.Zero(t, sets())
}

// What charges in the field is shared by all that fly: two aircraft never count on the
// same channel.
func TestFieldIsShared(t *testing.T) {
	f := evening.Field{Channels: 5, ChannelW: 1000, GeneratorW: 4000}
	assert.Equal(t, f, f.Share(1, 1))
	assert.Equal(t, evening.Field{Channels: 2, ChannelW: 1000, GeneratorW: 2000}, f.Share(1, 2))
	assert.Equal(t, evening.Field{Channels: 3, ChannelW: 1000, GeneratorW: 4000 * 2.0 / 3}, f.Share(2, 3))
	assert.Zero(t, f.Share(1, 6).Channels, "then each flight takes its own")
	sum := 0
	for range 3 {
		sum += f.Share(1, 3).Channels
	}
	assert.LessOrEqual(t, sum, f.Channels)
}
