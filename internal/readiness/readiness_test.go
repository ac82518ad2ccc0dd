package readiness_test

import (
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/internal/platform/fault"
	"mainstay/internal/readiness"
	"mainstay/internal/testbed"
)

func TestPracticeOpensAType(t *testing.T) {
	s := testbed.NewStage(t)
	day := testbed.Noon.Truncate(24*time.Hour).AddDate(0, 0, -3)
	log := func(change func(*readiness.Practice)) error {
		p := readiness.Practice{ID: testbed.NewID(), PersonID: s.Pilot.ID, TypeKey: "dray-30", Phase: "empty", Packs: 3,
			Landings: 4, NoseIn: true, FlownOn: day}
		if change != nil {
			change(&p)
		}
		return s.Readiness.Log(s.As(s.Chief), p, testbed.PIN)
	}
	for name, change := range map[string]func(*readiness.Practice){
		"nothing flown": func(p *readiness.Practice) { p.Packs, p.Landings = 0, 0 },
		"in the future": func(p *readiness.Practice) { p.FlownOn = day.AddDate(0, 0, 9) },
		"no tank":       func(p *readiness.Practice) { p.TypeKey, p.Phase = "lantern-4", "loaded" },
		"no such type":  func(p *readiness.Practice) { p.TypeKey = "kite" },
	} {
		assert.Error(t, log(change), name)
	}
	assert.True(t, fault.Is(s.Readiness.Log(s.As(s.Pilot),
		readiness.Practice{ID: testbed.NewID(), PersonID: s.Pilot.ID, TypeKey: "dray-30", Phase: "empty", Packs: 1,
			FlownOn: day}, testbed.PIN), "invalid"), "nobody signs for himself")
	assert.Error(t, s.Readiness.Log(s.As(s.Chief), readiness.Practice{ID: testbed.NewID(), PersonID: s.Pilot.ID,
		TypeKey: "dray-30", Phase: "empty", Packs: 1, FlownOn: day}, "0000"), "a wrong PIN logs nothing")
	own := readiness.Practice{ID: testbed.NewID(), PersonID: s.Chief.ID, TypeKey: "dray-30", Phase: "empty", Packs: 1,
		FlownOn: day}
	assert.True(t, fault.Is(s.Readiness.Log(s.As(s.Chief), own, testbed.PIN), "invalid"),
		"a chief neither, while somebody else can watch")
	require.NoError(t, s.DB.Exec("update people set active = false where id = ?", s.Pilot.ID).Error)
	require.NoError(t, s.Readiness.Log(s.As(s.Chief), own, testbed.PIN), "alone in the crew")
	require.NoError(t, s.DB.Exec("update people set active = true where id = ?", s.Pilot.ID).Error)
	f := s.Fly("walkround", s.Packs[0].ID, 240)
	flown := readiness.Practice{ID: testbed.NewID(), PersonID: f.PilotID, TypeKey: "lantern-4", Phase: "empty", Packs: 2,
		Landings: 1, FlownOn: f.TookOffAt.AddDate(0, 0, 0).UTC().Truncate(24 * time.Hour)}
	err := s.Readiness.Log(s.As(s.Chief), flown, testbed.PIN)
	require.ErrorContains(t, err, "The flights of that day show 1 pack and 1 landing")
	flown.Packs = 1
	require.NoError(t, s.Readiness.Log(s.As(s.Chief), flown, testbed.PIN))
	require.NoError(t, s.Readiness.Log(s.As(s.Chief), flown, testbed.PIN), "the same press twice")
	flown.ID = testbed.NewID()
	require.ErrorContains(t, s.Readiness.Log(s.As(s.Chief), flown, testbed.PIN), "1 and 1 are logged already",
		"one flight is not logged twice")

	open := func() bool {
		ty, err := s.Fleet.Type(s.As(s.Chief), "dray-30")
		require.NoError(t, err)
		r, err := s.Readiness.On(s.As(s.Chief), ty, []uuid.UUID{s.Pilot.ID})
		require.NoError(t, err)
		return r[s.Pilot.ID].Open
	}
	require.NoError(t, log(nil))
	assert.False(t, open(), "the loaded packs are missing")
	id := testbed.NewID()
	loaded := func(p *readiness.Practice) { p.ID, p.Phase, p.FlownOn = id, "loaded", day.AddDate(0, 0, 1) }
	require.NoError(t, log(loaded))
	require.NoError(t, log(loaded), "the same id twice is one")
	assert.True(t, open())
	held, err := s.Readiness.Held(s.As(s.Chief), s.Pilot.ID)
	require.NoError(t, err)
	assert.Len(t, held, 3)
}
