package missions_test

import (
	"slices"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/camera"
	"mainstay/core/judge"
	"mainstay/internal/missions"
	"mainstay/internal/platform/clock"
	"mainstay/internal/platform/fault"
	"mainstay/internal/standins/aircraft"
	"mainstay/internal/testbed"
)

// An aircraft holds one mission: reading another flight's, or flying, makes what was read old.
func TestReadingHoldsUntilAnotherIsInside(t *testing.T) {
	b := setUp(t, "Tally W")
	ctx := b.as("imre")
	require.NoError(t, b.Missions.Send(ctx, b.job, b.craft, 2))
	require.Equal(t, missions.Equal, b.plan().Standing(2))
	require.NoError(t, b.Missions.Send(ctx, b.job, b.craft, 3))
	p := b.plan()
	assert.Equal(t, missions.Equal, p.Standing(3))
	assert.Equal(t, missions.Old, p.Standing(2))
	assert.Contains(t, p.Outdated(2), "another mission")
	require.NoError(t, b.Missions.Send(ctx, b.job, b.craft, 2))
	require.Equal(t, missions.Equal, b.plan().Standing(2))
	// The same reading, dated before the last take-off of this aircraft.
	require.NoError(t, b.DB.Exec("alter table mission_reads disable trigger mission_reads_append_only").Error)
	require.NoError(t, b.DB.Exec("update mission_reads set at = (select max(took_off_at) from flights where aircraft_id = ?) - interval '1 minute' where plan_id = ?",
		b.craft, p.ID).Error)
	p = b.plan()
	for n := range p.Missions {
		assert.NotEqual(t, missions.Equal, p.Standing(n+1))
	}
	assert.Contains(t, p.Outdated(2)+p.Outdated(3), "the aircraft has flown")
}

// Two people put the same flight as flown at once: one is taken, the other told.
func TestFlownOnce(t *testing.T) {
	b := setUp(t, "Tally W")
	shots := b.flies(2, aircraft.Faults{})
	running := false
	errs := make([]error, 4)
	var wait sync.WaitGroup
	for i := range errs {
		wait.Go(func() {
			errs[i] = b.Missions.Fly(b.as([]string{"imre", "odile"}[i%2]), b.job, b.craft,
				missions.After{ID: testbed.NewID(), Number: 2, Shots: shots, Running: &running})
		})
	}
	wait.Wait()
	taken := 0
	for _, err := range errs {
		if err == nil {
			taken++
			continue
		}
		assert.True(t, fault.Is(err, "flown-already"), "%v", err)
	}
	assert.Equal(t, 1, taken)
	n := 0
	for _, f := range b.plan().Flown {
		if f.Number == 2 {
			n++
		}
	}
	assert.Equal(t, 1, n)
}

// Pictures without places are no proof; a clock that is off is said, by how much, and judged
// with what is added to it.
func TestPicturesWithoutPlaceOrTime(t *testing.T) {
	b := setUp(t, "Tally W")
	ctx := b.as("imre")
	shots := b.flies(2, aircraft.Faults{})
	// The newest flight of this aircraft was for this job.
	require.NoError(t, b.DB.Exec("alter table flights disable trigger user").Error)
	require.NoError(t, b.DB.Exec("update flights set job_id = ? where id = (select id from flights where aircraft_id = ? order by took_off_at desc limit 1)",
		b.job, b.craft).Error)
	var flown struct{ TookOffAt, LandedAt time.Time }
	require.NoError(t, b.DB.Raw("select took_off_at, landed_at from flights where aircraft_id = ? and job_id = ? order by took_off_at desc limit 1",
		b.craft, b.job).Scan(&flown).Error)
	require.False(t, flown.LandedAt.IsZero())
	nowhere, late := slices.Clone(shots), slices.Clone(shots)
	for i := range shots {
		nowhere[i].At = nil
		at := flown.LandedAt.Add(20*time.Minute + time.Duration(i)*time.Second/100)
		late[i].Time = &at
	}
	_, taken, err := b.Missions.Look(ctx, b.job, b.craft, missions.After{Number: 2, Shots: nowhere})
	require.NoError(t, err)
	assert.Equal(t, judge.Stop, taken.Verdict, "%v", taken.Findings)
	clockSaid := func(off time.Duration) *judge.Broken {
		_, taken, err := b.Missions.Look(ctx, b.job, b.craft, missions.After{Number: 2, Shots: late, Offset: off})
		require.NoError(t, err)
		for _, f := range taken.Findings {
			if f.Wish == "offset_min" {
				return &f
			}
		}
		return nil
	}
	said := clockSaid(0)
	require.NotNil(t, said)
	assert.Contains(t, said.Sentence, "ahead")
	require.NotNil(t, said.Nearest)
	assert.Nil(t, clockSaid(time.Duration(*said.Nearest*float64(time.Minute))), "what it asks for is enough: %+v", said)
}

// A card of yesterday is not a card of today, nor one dated in the future.
func TestCardHolds(t *testing.T) {
	b := setUp(t, "Lantern Three")
	ctx := b.as("imre")
	p := b.plan()
	before, after, yes, free := 10, 11, true, 64.0
	good := camera.Card{Camera: p.Wish.Inspect.Camera, Light: camera.Cloud, Shutter: 1000, ISO: 100, KelvinK: 6500,
		Profile: "standard", GimbalOff: &yes, Formatted: &yes, FreeGB: &free, CapOff: &yes, Before: &before, After: &after}
	require.NoError(t, b.Missions.FillCard(ctx, testbed.NewID(), b.job, b.craft, good))
	said := func() string {
		gate, err := b.Missions.Planned(ctx, b.job, b.craft)
		require.NoError(t, err)
		out := ""
		for _, f := range gate.Findings {
			out += f.Sentence + "\n"
		}
		return out
	}
	assert.NotContains(t, said(), "hours ago")
	now := b.Clock.Now()
	b.Missions.Clock = clock.From(now.Add(13 * time.Hour))
	assert.Contains(t, said(), "filled in 13 hours ago")
	b.Missions.Clock = clock.From(now.Add(-time.Hour))
	assert.True(t, strings.Contains(said(), "dated in the future"), said())
}

// An inspection is judged where it flies: every place and way round, at its highest, round
// what is inspected.
func TestInspectionIsJudgedWhereItFlies(t *testing.T) {
	b := setUp(t, "Lantern Three")
	p := b.plan()
	gate, err := b.Missions.Planned(b.as("imre"), b.job, b.craft)
	require.NoError(t, err)
	require.NotNil(t, gate.Way)
	m := p.Missions[p.Next()-1]
	require.Len(t, gate.Way.Passes, 2*(len(m.Items)-1), "all but the return")
	highest := 0.0
	for i, x := range m.Items[:len(m.Items)-1] {
		assert.Equal(t, x.At, gate.Way.Passes[2*i])
		highest = max(highest, x.HeightM)
	}
	assert.InDelta(t, highest, gate.HeightM, 0.011)
	assert.Equal(t, []string{p.Ground.Feature.ID}, gate.Way.Around)
}
