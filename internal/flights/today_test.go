package flights_test

import (
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/checks"
	"mainstay/core/gate"
	"mainstay/core/judge"
	"mainstay/internal/flights"
	"mainstay/internal/testbed"
)

// What is known of the day: what nobody knows is left away, so that it is asked; a date ahead of
// the clock is no knowledge; an event that nobody looks after is none.
func TestWhatIsKnownOfTheDay(t *testing.T) {
	s := testbed.NewStage(t)
	ctx := s.As(s.Pilot)
	pk := s.Packs[0].ID
	facts := func() checks.Facts {
		d, err := s.Flights.Today(ctx, s.Aircraft.ID, nil, nil)
		require.NoError(t, err)
		return d.Facts
	}
	word := func(key string) string { return facts()[key].Word }
	assert.Equal(t, []string{"yes", "yes", "yes", "yes"},
		[]string{word("new-aircraft"), word("first-of-day"), word("other-type"), word("worked")})
	for _, key := range []string{"night", "work", "product", "days-since-flight", "km-since-compass"} {
		assert.NotContains(t, facts(), key, "without a job and a flight nobody knows")
	}
	s.Fly(checks.Full, pk, 300)
	assert.Equal(t, []string{"no", "no", "no", "no", "no"},
		[]string{word("new-aircraft"), word("first-of-day"), word("other-type"), word("worked"), word("event")})
	assert.InDelta(t, 0, *facts()["days-since-flight"].Number, 0.01)
	s.Clock.Advance(31 * 24 * time.Hour)
	assert.InDelta(t, 31, *facts()["days-since-flight"].Number, 0.01)
	assert.Equal(t, "yes", word("first-of-day"))
	require.NoError(t, s.DB.Exec("update aircraft set last_landing_at = ? where id = ?", s.Clock.Now().Add(48*time.Hour),
		s.Aircraft.ID).Error)
	assert.NotContains(t, facts(), "days-since-flight", "a landing of the day after tomorrow tells nothing")

	job := s.Practice()
	d, err := s.Flights.Today(ctx, s.Aircraft.ID, &job, nil)
	require.NoError(t, err)
	assert.Equal(t, []string{"practice", "no"}, []string{d.Facts["work"].Word, d.Facts["product"].Word})
	assert.Contains(t, d.Facts, "night")
	assert.NotEmpty(t, d.Crew)
	assert.Contains(t, d.Known, judge.RuleMass)
	assert.NotContains(t, d.Known, judge.RuleWind, "nobody measured it yet")
	missing := testbed.NewID()
	_, err = s.Flights.Today(ctx, s.Aircraft.ID, &missing, nil)
	assert.Error(t, err, "a job that is none")
}

// After an event that somebody looks after, the next check asks for it; after a gust it does not.
func TestAnEventIsLookedAfterOnTheNextCheck(t *testing.T) {
	for kind, want := range map[string]string{"gust": "no", "vibration": "yes"} {
		s := testbed.NewStage(t)
		ctx := s.As(s.Pilot)
		pk := s.Packs[0].ID
		s.Charge(pk)
		s.Walk(checks.Full, []uuid.UUID{pk}, nil)
		r, err := s.Release(s.Pilot, pk)
		require.NoError(t, err)
		f, err := s.Flights.TakeOff(ctx, testbed.NewID(), r.ID, nil)
		require.NoError(t, err)
		s.Clock.Advance(time.Minute)
		require.NoError(t, s.Flights.AddEvent(ctx, f.ID, flights.Event{ID: testbed.NewID(), Kind: kind}))
		d, err := s.Flights.Today(ctx, s.Aircraft.ID, nil, nil)
		require.NoError(t, err)
		assert.Equal(t, want, d.Facts["event"].Word, kind)
	}
}

// A release lapses with the wind that it rests on, never later than it may wait.
func TestAReleaseLapses(t *testing.T) {
	at := testbed.Noon
	for name, x := range map[string]struct {
		wind time.Time
		want time.Duration
	}{"wind measured then": {at, time.Hour}, "20 minutes before": {at.Add(-20 * time.Minute),
		40 * time.Minute}, "ahead of it": {at.Add(time.Minute), time.Hour}, "none on file": {time.Time{}, time.Hour}} {
		r := flights.Release{At: at, Wind: gate.Wind{At: x.wind}}
		assert.Equal(t, at.Add(x.want), r.Until(), name)
	}
}
