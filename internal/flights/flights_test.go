package flights_test

import (
	"context"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/checks"
	"mainstay/core/crew"
	"mainstay/core/judge"
	"mainstay/internal/fleet"
	"mainstay/internal/flights"
	"mainstay/internal/people"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
	"mainstay/internal/testbed"
	"mainstay/internal/walkround"
)

func TestFromWalkToLog(t *testing.T) {
	s := testbed.NewStage(t)
	f := s.Fly(checks.Full, s.Packs[0].ID, 754)
	assert.Equal(t, 754, f.Seconds)
	assert.Equal(t, "logged", f.State)
	ctx := context.Background()
	a, err := s.Fleet.Aircraft(ctx, s.Aircraft.ID)
	require.NoError(t, err)
	assert.EqualValues(t, 754, a.Seconds)
	assert.Equal(t, 1, a.Flights)
	p, err := s.Fleet.Pack(ctx, s.Packs[0].ID)
	require.NoError(t, err)
	assert.Equal(t, 1, p.Cycles)
	assert.Equal(t, "flown", p.State)
	assert.Nil(t, p.AircraftID)
	conds, err := s.Fleet.Conditions(ctx, []uuid.UUID{a.ID})
	require.NoError(t, err)
	for station, part := range conds[0].Parts {
		assert.EqualValues(t, 754, part.Seconds, station)
		assert.Equal(t, 1, part.Flights, station)
		assert.Equal(t, 1, part.Landings, station)
	}
	assert.Len(t, conds[0].Parts, 23, "every position of the type")
	res, err := records.Verify(ctx, s.DB, records.Check{})
	require.NoError(t, err)
	assert.Zero(t, res.FirstBad)
	again, err := s.Flights.Log(s.As(s.Pilot), f.ID, testbed.Landed(f))
	require.NoError(t, err, "the same log sent twice")
	assert.Equal(t, f.LoggedAt.Unix(), again.LoggedAt.Unix())
	a, err = s.Fleet.Aircraft(ctx, a.ID)
	require.NoError(t, err)
	assert.EqualValues(t, 754, a.Seconds, "counts once")
}

func TestReleaseIsRefused(t *testing.T) {
	s := testbed.NewStage(t)
	pk := s.Packs[0].ID
	_, err := s.Release(s.Pilot, pk)
	assert.True(t, fault.Is(err, "gate-stop"), "without a walkround: %v", err)
	s.Walk(checks.Full, []uuid.UUID{pk}, nil)

	q := s.Question(pk)
	a, err := s.Flights.Ask(s.As(s.Pilot), q)
	require.NoError(t, err)
	require.Equal(t, judge.Watch, a.Output.Verdict, "only that it belongs to no job, and the pilot has no practice: %+v",
		a.Output.Findings)
	n := flights.NewRelease{ID: testbed.NewID(), Question: q, Purpose: "Test", GateHash: a.Hash, PIN: "9999"}
	_, err = s.Flights.Release(s.As(s.Pilot), n)
	f, ok := fault.As(err)
	require.True(t, ok)
	assert.Equal(t, "pin", f.Fields[0].Field, "a wrong PIN signs nothing")

	n.PIN, n.GateHash = testbed.PIN, a.Hash[:63]+"0"
	if a.Hash[63] == '0' {
		n.GateHash = a.Hash[:63] + "1"
	}
	_, err = s.Flights.Release(s.As(s.Pilot), n)
	assert.True(t, fault.Is(err, "gate-changed"), "another gate than the one seen: %v", err)

	_, err = s.Walkrounds.Raise(s.As(s.Pilot), walk(s, "watch"))
	require.NoError(t, err)
	n.GateHash = a.Hash
	_, err = s.Flights.Release(s.As(s.Pilot), n)
	assert.True(t, fault.Is(err, "gate-changed"), "a defect raised meanwhile: %v", err)
	var count int64
	require.NoError(t, s.DB.Raw("select count(*) from releases").Scan(&count).Error)
	assert.Zero(t, count)

	_, err = s.Release(s.Tech, pk)
	assert.True(t, fault.Is(err, "gate-stop"), "a technician is not a pilot: %v", err)
}

// A part fitted after the walk has not been looked at: it takes a new walk.
func TestWorkAfterTheWalkAsksForAnother(t *testing.T) {
	s := testbed.NewStage(t)
	pk := s.Packs[0].ID
	s.Walk(checks.Full, []uuid.UUID{pk}, nil)
	s.Clock.Advance(time.Minute)
	require.NoError(t, s.Fleet.FitParts(s.As(s.Tech), s.Aircraft.ID,
		fleet.FitParts{Source: "maker", Old: "shelf", Fits: []fleet.Fit{{PartID: testbed.NewID(), Station: "motor-2",
			Serial: "NEW"}}}))
	_, err := s.Release(s.Pilot, pk)
	assert.ErrorContains(t, err, "Motor 2 is newly fitted")
	s.Clock.Advance(time.Minute)
	s.Walk(checks.Turnaround, []uuid.UUID{pk}, nil)
	_, err = s.Release(s.Pilot, pk)
	assert.ErrorContains(t, err, "newly fitted", "the short check does not look at motors")
	s.Clock.Advance(time.Minute)
	s.Walk(checks.Full, []uuid.UUID{pk}, nil)
	_, err = s.Release(s.Pilot, pk)
	assert.NoError(t, err)
}

func TestTwoPilotsAtTheSameTime(t *testing.T) {
	s := testbed.NewStage(t)
	pk := s.Packs[0].ID
	s.Walk(checks.Full, []uuid.UUID{pk}, nil)
	q := s.Question(pk)
	var wg sync.WaitGroup
	errs := make([]error, 2)
	for i, p := range []people.Person{s.Pilot, s.Chief} {
		a, err := s.Flights.Ask(s.As(p), q)
		require.NoError(t, err)
		wg.Go(func() {
			_, errs[i] = s.Flights.Release(s.As(p), flights.NewRelease{ID: testbed.NewID(), Question: q, Purpose: "Race",
				GateHash: a.Hash, PIN: testbed.PIN})
		})
	}
	wg.Wait()
	won := 0
	for i, err := range errs {
		if err == nil {
			won++
			continue
		}
		f, ok := fault.As(err)
		require.True(t, ok, "%v", err)
		assert.Equal(t, "already-released", f.Type)
		other := []string{s.Chief.Name, s.Pilot.Name}[i]
		assert.Contains(t, f.Detail, other, "the other is told who")
	}
	assert.Equal(t, 1, won)
}

func TestTakeOffLooksAgain(t *testing.T) {
	s := testbed.NewStage(t)
	pk := s.Packs[0].ID
	s.Walk(checks.Full, []uuid.UUID{pk}, nil)
	r, err := s.Release(s.Pilot, pk)
	require.NoError(t, err)
	_, err = s.Flights.TakeOff(s.As(s.Chief), testbed.NewID(), r.ID, nil)
	assert.True(t, fault.Is(err, "forbidden"), "another's release")
	require.NoError(t, s.Fleet.Ground(s.As(s.Tech), testbed.NewID(), s.Aircraft.ID, fleet.ByPerson, "smell of burning"))
	_, err = s.Flights.TakeOff(s.As(s.Pilot), testbed.NewID(), r.ID, nil)
	assert.True(t, fault.Is(err, "gate-stop"), "grounded after the signature: %v", err)
	require.NoError(t, s.Workshop.Return(s.As(s.Tech), s.Aircraft.ID, "it was the truck", testbed.PIN))
	s.Clock.Advance(61 * time.Minute)
	_, err = s.Flights.TakeOff(s.As(s.Pilot), testbed.NewID(), r.ID, nil)
	assert.True(t, fault.Is(err, "release-expired"), "%v", err)
	_, err = s.Flights.Withdraw(s.As(s.Pilot), r.ID)
	require.NoError(t, err)
	p, err := s.Fleet.Pack(context.Background(), pk)
	require.NoError(t, err)
	assert.Equal(t, "charged", p.State, "a withdrawn release frees its packs")
	_, err = s.Flights.TakeOff(s.As(s.Pilot), testbed.NewID(), r.ID, nil)
	assert.True(t, fault.Is(err, "release-withdrawn"))
}

func TestOnePilotOneAircraft(t *testing.T) {
	s := testbed.NewStage(t)
	second, err := s.Fleet.AddAircraft(s.As(s.Chief), fleet.NewAircraft{ID: testbed.NewID(), TypeKey: "lantern-4",
		Name: "Quad two", Serial: "Q-2", Registration: "T-2", RegistrationExpires: s.Aircraft.RegistrationExpires,
		FitNewParts: true, MassKg: s.Aircraft.MassKg})
	require.NoError(t, err)
	s.Known(second.ID)
	s.Walk(checks.Full, []uuid.UUID{s.Packs[0].ID}, nil)
	r, err := s.Release(s.Pilot, s.Packs[0].ID)
	require.NoError(t, err)
	_, err = s.Flights.TakeOff(s.As(s.Pilot), testbed.NewID(), r.ID, nil)
	require.NoError(t, err)
	s.Aircraft = second
	s.Walk(checks.Full, []uuid.UUID{s.Packs[1].ID}, nil)
	_, err = s.Release(s.Pilot, s.Packs[1].ID)
	require.Error(t, err)
	assert.ErrorContains(t, err, "already has Quad one in the air")
	a, err := s.Flights.Ask(s.As(s.Chief), s.Question(s.Packs[0].ID))
	require.NoError(t, err)
	assert.True(t, slices.ContainsFunc(a.Output.Findings,
		func(f judge.Finding) bool { return strings.Contains(f.Sentence, "fitted to Quad one") }), "nor the same pack twice")
}

func TestContactGroundsUntilPropellersAreReplaced(t *testing.T) {
	s := testbed.NewStage(t)
	pk := s.Packs[0].ID
	s.Walk(checks.Full, []uuid.UUID{pk}, nil)
	r, err := s.Release(s.Pilot, pk)
	require.NoError(t, err)
	pilot, tech := s.As(s.Pilot), s.As(s.Tech)
	f, err := s.Flights.TakeOff(pilot, testbed.NewID(), r.ID, nil)
	require.NoError(t, err)
	event := flights.Event{ID: testbed.NewID(), Kind: "contact", Note: "branch"}
	require.NoError(t, s.Flights.AddEvent(pilot, f.ID, event))
	require.NoError(t, s.Flights.AddEvent(pilot, f.ID, event), "sent twice")
	events, err := s.Flights.EventsOf(pilot, f.ID)
	require.NoError(t, err)
	assert.Len(t, events, 1)
	assert.True(t, fault.Is(s.Flights.RemoveEvent(pilot, f.ID, event.ID), "grounded"), "what grounded the aircraft stays")
	slip := flights.Event{ID: testbed.NewID(), Kind: "bird"}
	require.NoError(t, s.Flights.AddEvent(pilot, f.ID, slip))
	require.NoError(t, s.Flights.RemoveEvent(pilot, f.ID, slip.ID))
	require.NoError(t, s.Flights.RemoveEvent(pilot, f.ID, slip.ID), "taken back twice")
	events, err = s.Flights.EventsOf(pilot, f.ID)
	require.NoError(t, err)
	require.Len(t, events, 2, "it stays in sight")
	assert.Equal(t, s.Pilot.Name, events[1].TakenBackBy)
	seen := flights.Event{ID: testbed.NewID(), Kind: "person"}
	require.NoError(t, s.Flights.AddEvent(tech, f.ID, seen))
	hand, err := s.People.Add(context.Background(), people.New{ID: testbed.NewID(), Login: "hand", Name: "A Hand",
		Roles: []crew.Role{crew.Hand}, Password: "hop hedge drum", PIN: "7391"})
	require.NoError(t, err)
	assert.ErrorContains(t, s.Flights.RemoveEvent(s.As(hand), f.ID, seen.ID), "entered this event",
		"nobody takes back another's")
	s.Clock.Advance(time.Minute)
	fit := fleet.FitParts{Source: "maker", Old: "discard", CutUp: true}
	for _, n := range []string{"1", "2", "3"} {
		fit.Fits = append(fit.Fits, fleet.Fit{PartID: testbed.NewID(), Station: "propeller-" + n, Serial: "NEW-" + n})
	}
	assert.True(t, fault.Is(s.Fleet.FitParts(tech, s.Aircraft.ID, fit), "in-flight"), "hours go to the parts that flew")
	_, err = s.Flights.Land(pilot, f.ID)
	require.NoError(t, err)
	_, err = s.Flights.Resume(s.As(s.Tech), f.ID)
	assert.True(t, fault.Is(err, "forbidden"))
	back, err := s.Flights.Resume(pilot, f.ID)
	require.NoError(t, err)
	assert.Equal(t, "air", back.State, "LAND was a slip")
	s.Clock.Advance(time.Minute)
	landed, err := s.Flights.Land(pilot, f.ID)
	require.NoError(t, err)
	assert.Equal(t, 120, landed.Seconds, "the time runs on from take-off")
	_, err = s.Flights.Log(pilot, f.ID, testbed.Landed(f))
	require.NoError(t, err)
	s.Clock.Advance(time.Minute)

	require.NoError(t, s.Fleet.FitParts(tech, s.Aircraft.ID, fit))
	err = s.Workshop.Return(tech, s.Aircraft.ID, "three are new", testbed.PIN)
	assert.ErrorContains(t, err, "propeller-4", "one old propeller keeps it down")
	fit.Fits = []fleet.Fit{{PartID: testbed.NewID(), Station: "propeller-4", Serial: "NEW-4"}}
	fit.CutUp = false
	err = s.Fleet.FitParts(tech, s.Aircraft.ID, fit)
	assert.ErrorContains(t, err, "cut up")
	fit.CutUp = true
	require.NoError(t, s.Fleet.FitParts(tech, s.Aircraft.ID, fit))
	assert.Error(t, s.Workshop.Return(tech, s.Aircraft.ID, "all new", "0001"), "a wrong PIN")
	assert.ErrorContains(t, s.Workshop.Return(tech, s.Aircraft.ID, "all new", testbed.PIN),
		"not signed yet: After contact", "the contact opened work")
	s.DoOrder("after-contact")
	require.NoError(t, s.Workshop.Return(tech, s.Aircraft.ID, "all new", testbed.PIN))
	fit.Fits[0].Serial, fit.Fits[0].PartID = "Q-1-propeller-4", testbed.NewID()
	assert.ErrorContains(t, s.Fleet.FitParts(tech, s.Aircraft.ID, fit), "must not fly again",
		"a discarded propeller never comes back")
}

func TestHotMotorAndHotPackAfterLanding(t *testing.T) {
	s := testbed.NewStage(t)
	pk := s.Packs[0].ID
	s.Walk(checks.Full, []uuid.UUID{pk}, nil)
	r, err := s.Release(s.Pilot, pk)
	require.NoError(t, err)
	ctx := s.As(s.Pilot)
	f, err := s.Flights.TakeOff(ctx, testbed.NewID(), r.ID, nil)
	require.NoError(t, err)
	_, err = s.Flights.Log(ctx, f.ID, testbed.Landed(f))
	assert.True(t, fault.Is(err, "in-the-air"))
	j, err := s.Flights.Hover(ctx, f.ID, []float64{50, 50, 58, 50})
	require.NoError(t, err)
	assert.Equal(t, judge.Watch, j.Verdict)
	s.Clock.Advance(10 * time.Minute)
	_, err = s.Flights.Land(ctx, f.ID)
	require.NoError(t, err)
	n := testbed.Landed(f)
	for name, change := range map[string]func(*flights.NewLog){
		"a motor missing": func(n *flights.NewLog) { n.WarmthC = n.WarmthC[:3] },
		"no landing":      func(n *flights.NewLog) { n.Landings = 0 },
		"pack not read":   func(n *flights.NewLog) { n.Packs = nil },
		"motor on fire":   func(n *flights.NewLog) { n.WarmthC = []float64{40, 40, 900, 40} },
	} {
		bad := testbed.Landed(f)
		change(&bad)
		_, err := s.Flights.Log(ctx, f.ID, bad)
		got, ok := fault.As(err)
		require.True(t, ok, "%s: %v", name, err)
		assert.NotEmpty(t, got.Fields, name)
	}
	n.WarmthC[2], n.Packs[0].TemperatureC = 60, 64
	logged, err := s.Flights.Log(ctx, f.ID, n)
	require.NoError(t, err)
	assert.Equal(t, 3, *logged.WarmthMotor)
	p, err := s.Fleet.Pack(ctx, pk)
	require.NoError(t, err)
	assert.Equal(t, "quarantine", p.State)
	ks, err := s.Flights.Know(ctx, []uuid.UUID{s.Aircraft.ID})
	require.NoError(t, err)
	require.Len(t, ks[0].Groundings, 1)
	assert.Contains(t, ks[0].Groundings[0].Reason, "Motor 3")
	for _, st := range ks[0].Stations() {
		if st.Station == "motor-3" {
			assert.Equal(t, judge.Stop, st.Verdict, "its defect is open: %s", st.Sentence)
		}
	}
	err = s.DB.Exec("update flights set seconds = 1 where id = ?", f.ID).Error
	assert.ErrorContains(t, err, "does not change", "the database itself refuses")
}

func walk(s *testbed.Stage, severity string) (d walkround.Defect) {
	d.ID, d.AircraftID, d.Station, d.Title, d.Severity = testbed.NewID(), s.Aircraft.ID, "frame", "Scratch", severity
	return d
}
