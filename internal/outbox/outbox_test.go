package outbox_test

import (
	"context"
	"sync"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/checks"
	"mainstay/core/pack"
	"mainstay/internal/flights"
	"mainstay/internal/outbox"
	"mainstay/internal/people"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
	"mainstay/internal/testbed"
	"mainstay/internal/walkround"
)

// pressed is what the device of a person sends so long after the press.
func pressed(s *testbed.Stage, p people.Person, id uuid.UUID, ago time.Duration) context.Context {
	sec := ago.Seconds()
	ctx, err := outbox.With(s.As(p), &id, &sec, &p.ID)
	if err != nil {
		panic(err) // its own maker sends it
	}
	return ctx
}

// On a shared tablet a press is sent by its maker only.
func TestAPressIsSentByItsMaker(t *testing.T) {
	s := testbed.NewStage(t)
	id := testbed.NewID()
	_, err := outbox.With(s.As(s.Tech), &id, nil, &s.Pilot.ID)
	assert.True(t, fault.Is(err, "press-not-yours"), "%v", err)
	_, err = outbox.With(s.As(s.Pilot), &id, nil, &s.Pilot.ID)
	require.NoError(t, err)
	_, err = outbox.With(s.As(s.Pilot), nil, nil, nil)
	require.NoError(t, err, "a client without an outbox says nothing of it")
}

// released is a release of the pilot that nothing has changed since.
func released(t *testing.T) (*testbed.Stage, flights.Release) {
	t.Helper()
	s := testbed.NewStage(t)
	s.Walk(checks.Full, []uuid.UUID{s.Packs[0].ID}, nil)
	r, err := s.Release(s.Pilot, s.Packs[0].ID)
	require.NoError(t, err)
	return s, r
}

// A whole flight pressed without network and sent an hour later, each press
// twice: what counts is when it was pressed, and that once.
func TestAFlightWithoutNetwork(t *testing.T) {
	s, r := released(t)
	t0 := s.Clock.Now()
	s.Clock.Set(t0.Add(time.Hour))
	ago := func(after time.Duration) time.Duration { return time.Hour - after }
	id, gust := testbed.NewID(), testbed.NewID()
	for range 2 {
		_, err := s.Flights.TakeOff(pressed(s, s.Pilot, id, ago(time.Minute)), id, r.ID, nil)
		require.NoError(t, err)
	}
	land, log := testbed.NewID(), testbed.NewID()
	for range 2 {
		require.NoError(t, s.Flights.AddEvent(pressed(s, s.Pilot, gust, ago(3*time.Minute)), id,
			flights.Event{ID: gust, Kind: "gust"}))
	}
	for range 2 {
		_, err := s.Flights.Land(pressed(s, s.Pilot, land, ago(9*time.Minute)), id)
		require.NoError(t, err)
	}
	f, err := s.Flights.Flight(s.As(s.Pilot), id)
	require.NoError(t, err)
	assert.Equal(t, 480, f.Seconds)
	assert.Equal(t, t0.Add(time.Minute), f.TookOffAt.UTC())
	assert.Equal(t, t0.Add(9*time.Minute), f.LandedAt.UTC())
	assert.Equal(t, s.Clock.Now(), f.TookOffHeardAt.UTC(), "when it was heard is kept beside it")
	assert.Equal(t, s.Clock.Now(), f.LandedHeardAt.UTC())
	assert.Empty(t, f.Unasked)
	for range 2 {
		_, err = s.Flights.Log(pressed(s, s.Pilot, log, ago(12*time.Minute)), id, testbed.Landed(f))
		require.NoError(t, err)
	}
	var read []time.Time
	require.NoError(t, s.DB.Raw("select at from pack_readings where source = 'landing'").Scan(&read).Error)
	require.Len(t, read, 1)
	assert.Equal(t, t0.Add(12*time.Minute), read[0].UTC(), "the pack was read when it was pressed")
	events, err := s.Flights.EventsOf(s.As(s.Pilot), id)
	require.NoError(t, err)
	require.Len(t, events, 1)
	assert.Equal(t, t0.Add(3*time.Minute), events[0].At.UTC())
}

// The answer to a LAND is lost, somebody else takes the landing back, and the
// device sends its LAND again: it was taken once and does not land anew.
func TestAPressIsTakenOnce(t *testing.T) {
	s, r := released(t)
	id, land := testbed.NewID(), testbed.NewID()
	_, err := s.Flights.TakeOff(s.As(s.Pilot), id, r.ID, nil)
	require.NoError(t, err)
	s.Clock.Advance(time.Minute)
	_, err = s.Flights.Land(pressed(s, s.Pilot, land, 0), id)
	require.NoError(t, err)
	_, err = s.Flights.Resume(s.As(s.Chief), id)
	require.NoError(t, err)
	f, err := s.Flights.Land(pressed(s, s.Pilot, land, time.Minute), id)
	require.NoError(t, err)
	assert.Equal(t, "air", f.State)

	_, err = s.Flights.Land(pressed(s, s.Chief, land, 0), id)
	assert.True(t, fault.Is(err, "press-used"), "somebody else's: %v", err)
	_, err = s.Flights.Resume(pressed(s, s.Pilot, land, 0), id)
	assert.True(t, fault.Is(err, "press-used"), "for something else: %v", err)

	next := testbed.NewID()
	var wg sync.WaitGroup
	for range 8 {
		wg.Go(func() {
			_, err := s.Flights.Land(pressed(s, s.Pilot, next, time.Second), id)
			assert.NoError(t, err)
		})
	}
	wg.Wait()
	var n int
	require.NoError(t, s.DB.Raw("select count(*) from presses where what like 'land %'").Scan(&n).Error)
	assert.Equal(t, 2, n)
}

// A take-off that has happened is kept even when the gate would have said Stop,
// and says so; one heard at once stays on the ground; a release that did not hold
// when it was pressed is not flown.
func TestTakeOffThatTheGateDidNotHear(t *testing.T) {
	for _, c := range []struct {
		name      string
		ago       time.Duration
		withdrawn bool
		want      string // the fault; "" is taken
		unasked   string
	}{
		{"at once, with a defect", 0, false, "gate-stop", ""},
		{"just at once", outbox.AtOnce, false, "gate-stop", ""},
		{"just late", outbox.AtOnce + time.Millisecond, false, "", "Cracked arm"},
		{"late", 30 * time.Minute, false, "", "Cracked arm"},
		{"late and withdrawn", 30 * time.Minute, true, "", "withdrawn"},
		{"withdrawn and at once", 0, true, "release-withdrawn", ""},
		{"before the release", 70 * time.Minute, false, "clock", ""},
	} {
		t.Run(c.name, func(t *testing.T) {
			s, r := released(t)
			s.Clock.Advance(59 * time.Minute)
			_, err := s.Walkrounds.Raise(s.As(s.Tech), walkround.Defect{ID: testbed.NewID(), AircraftID: s.Aircraft.ID,
				Station: "arm-1", Title: "Cracked arm", Severity: "stop"})
			require.NoError(t, err)
			if c.withdrawn {
				_, err = s.Flights.Withdraw(s.As(s.Pilot), r.ID)
				require.NoError(t, err)
			}
			id := testbed.NewID()
			f, err := s.Flights.TakeOff(pressed(s, s.Pilot, id, c.ago), id, r.ID, nil)
			if c.want != "" {
				assert.True(t, fault.Is(err, c.want), "%v", err)
				return
			}
			require.NoError(t, err)
			assert.Contains(t, f.Unasked, c.unasked)
			_, err = s.Flights.Land(s.As(s.Pilot), id)
			require.NoError(t, err)
			_, err = s.Flights.Log(s.As(s.Pilot), id, testbed.Landed(f))
			require.NoError(t, err)
			lines, err := records.Page(context.Background(), s.DB, records.Filter{Words: "without gate"}, 5)
			require.NoError(t, err)
			assert.Len(t, lines, 1, "the record says so")
		})
	}
	s, r := released(t)
	s.Clock.Advance(2 * time.Hour)
	id := testbed.NewID()
	_, err := s.Flights.TakeOff(pressed(s, s.Pilot, id, 59*time.Minute), id, r.ID, nil)
	assert.True(t, fault.Is(err, "release-expired"), "pressed 61 min after the release: %v", err)
}

// The release was withdrawn and its pack moved on before the flight was heard of:
// the flight is logged, and a pack in quarantine stays there.
func TestThePackWasMovedOnMeanwhile(t *testing.T) {
	s, r := released(t)
	s.Clock.Advance(30 * time.Minute)
	_, err := s.Flights.Withdraw(s.As(s.Pilot), r.ID)
	require.NoError(t, err)
	p, err := s.Fleet.Pack(context.Background(), s.Packs[0].ID)
	require.NoError(t, err)
	_, err = s.Fleet.MovePack(s.As(s.Tech), p.ID, pack.Quarantine, "swollen", p.Version)
	require.NoError(t, err)
	id := testbed.NewID()
	f, err := s.Flights.TakeOff(pressed(s, s.Pilot, id, 20*time.Minute), id, r.ID, nil)
	require.NoError(t, err)
	_, err = s.Flights.Land(pressed(s, s.Pilot, testbed.NewID(), 10*time.Minute), id)
	require.NoError(t, err)
	_, err = s.Flights.Log(s.As(s.Pilot), id, testbed.Landed(f))
	require.NoError(t, err)
	p, err = s.Fleet.Pack(context.Background(), p.ID)
	require.NoError(t, err)
	assert.Equal(t, "quarantine", p.State)
	assert.Equal(t, 1, p.Cycles, "its use counts")
}

// A contact pressed in flight and heard after the log still grounds the aircraft.
func TestAContactHeardLateGrounds(t *testing.T) {
	s, r := released(t)
	id := testbed.NewID()
	_, err := s.Flights.TakeOff(s.As(s.Pilot), id, r.ID, nil)
	require.NoError(t, err)
	s.Clock.Advance(5 * time.Minute)
	_, err = s.Flights.Land(s.As(s.Pilot), id)
	require.NoError(t, err)
	f, err := s.Flights.Flight(s.As(s.Pilot), id)
	require.NoError(t, err)
	_, err = s.Flights.Log(s.As(s.Pilot), id, testbed.Landed(f))
	require.NoError(t, err)
	s.Clock.Advance(5 * time.Minute)
	hit := flights.Event{ID: testbed.NewID(), Kind: "contact", Note: "a wire"}
	err = s.Flights.AddEvent(pressed(s, s.Pilot, testbed.NewID(), 4*time.Minute), id, hit)
	assert.True(t, fault.Is(err, "already-logged"), "pressed after the log: %v", err)
	require.NoError(t, s.Flights.AddEvent(pressed(s, s.Pilot, testbed.NewID(), 8*time.Minute), id, hit))
	conds, err := s.Fleet.Conditions(context.Background(), []uuid.UUID{s.Aircraft.ID})
	require.NoError(t, err)
	assert.NotEmpty(t, conds[0].Groundings)
}

// A walk ended without network: entries and the end count from their presses.
func TestAWalkEndedWithoutNetwork(t *testing.T) {
	s := testbed.NewStage(t)
	id := testbed.NewID()
	sh, err := s.Walkrounds.Start(s.As(s.Pilot), walkround.New{ID: id, Aircraft: s.Aircraft.ID, Round: checks.Full,
		Packs: []uuid.UUID{s.Packs[0].ID}})
	require.NoError(t, err)
	t0 := s.Clock.Now()
	s.Clock.Set(t0.Add(40 * time.Minute))
	for i, e := range s.Entries(sh, nil) {
		e.Ago = 0 // each comes by itself
		press := testbed.NewID()
		for range 2 {
			_, err = s.Walkrounds.Save(pressed(s, s.Pilot, press, 40*time.Minute-time.Duration(i+1)*10*time.Second), id,
				[]walkround.NewEntry{e})
			require.NoError(t, err)
		}
	}
	late := s.Entries(sh, nil)[:1]
	sh, err = s.Walkrounds.Complete(pressed(s, s.Pilot, testbed.NewID(), 20*time.Minute), id)
	require.NoError(t, err)
	assert.Empty(t, sh.Earlier, "nothing was entered twice")
	assert.Equal(t, t0.Add(10*time.Second), sh.Entries[0].At.UTC())
	assert.Equal(t, t0.Add(20*time.Minute), sh.CompletedAt.UTC())
	_, err = s.Walkrounds.Save(pressed(s, s.Tech, testbed.NewID(), 30*time.Minute), id, late)
	assert.True(t, fault.Is(err, "run-ended"), "a second tablet, later: %v", err)
}
