package spraying_test

import (
	"context"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/api"
	"mainstay/core/judge"
	"mainstay/internal/demo"
	"mainstay/internal/jobs"
	"mainstay/internal/people"
	"mainstay/internal/planning"
	"mainstay/internal/platform/clock"
	"mainstay/internal/platform/fault"
	"mainstay/internal/server"
	"mainstay/internal/spraying"
	"mainstay/internal/testbed"
)

// yard is the hop yard of the demo: planned, its first flight sprayed.
type yard struct {
	*server.Services
	t             *testing.T
	job, aircraft uuid.UUID
}

func setUp(t *testing.T) yard {
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	y := yard{Services: svc, t: t}
	var row struct{ JobID, AircraftID uuid.UUID }
	require.NoError(t, svc.DB.Raw("select p.job_id, p.aircraft_id from spray_plans p join aircraft a on a.id = p.aircraft_id where a.name = 'Dray One'").Scan(&row).Error)
	y.job, y.aircraft = row.JobID, row.AircraftID
	return y
}

func (y yard) as(login string) context.Context {
	p, err := y.People.ByLogin(context.Background(), login)
	require.NoError(y.t, err)
	return people.With(context.Background(), p)
}

func (y yard) plan() spraying.Plan {
	p, err := y.Spraying.Get(y.as("odile"), y.job, y.aircraft)
	require.NoError(y.t, err)
	return p
}

func TestPlanOfTheDemo(t *testing.T) {
	y := setUp(t)
	p := y.plan()
	assert.Equal(t, 1, p.Version)
	assert.Greater(t, p.Out.DoneHa, 0.5)
	assert.Greater(t, len(p.Out.Flown.Sorties), 2)
	assert.Len(t, p.Out.Waiting, 1, "the pass next to the bees waits for another wind")
	assert.Equal(t, "Bee yard", p.Out.Waiting[0].Reaches)
	assert.Empty(t, p.Ground.Assumed)
	for _, s := range p.Out.Flown.Sorties {
		assert.LessOrEqual(t, s.TakeOffKg, p.Most)
		assert.LessOrEqual(t, s.Wh, p.UsableWh)
	}
}

func TestTwoPeopleChangeOnePlan(t *testing.T) {
	y := setUp(t)
	p := y.plan()
	w := p.Wish
	w.Rate = 22
	require.NoError(t, y.Spraying.Save(y.as("odile"), p.ID, y.job, y.aircraft, w, 1))
	w.Rate = 24
	err := y.Spraying.Save(y.as("imre"), p.ID, y.job, y.aircraft, w, 1)
	assert.True(t, fault.Is(err, "stale"), "%v", err)
	assert.InDelta(t, 22, y.plan().Wish.Rate, 0)
	// What is sprayed keeps the passes where they lie.
	w = y.plan().Wish
	w.Swath = 5
	err = y.Spraying.Save(y.as("odile"), p.ID, y.job, y.aircraft, w, 2)
	assert.True(t, fault.Is(err, "sprayed-already"), "%v", err)
	var ids []uuid.UUID
	for _, d := range y.plan().Done {
		ids = append(ids, d.ID)
	}
	require.NoError(t, y.Spraying.Unspray(y.as("odile"), y.job, y.aircraft, ids))
	require.NoError(t, y.Spraying.Save(y.as("odile"), p.ID, y.job, y.aircraft, w, 2))
	var kept int
	require.NoError(t, y.DB.Raw("select count(*) from spray_done where back_by = 'Odile Varga'").Scan(&kept).Error)
	assert.Equal(t, len(ids), kept, "taken back stays on file")
	// Wishes that cannot be have their field.
	w.Speed = 31
	_, err = y.Spraying.Try(y.as("odile"), y.job, y.aircraft, w)
	f, ok := fault.As(err)
	require.True(t, ok, "%v", err)
	assert.Equal(t, "speed_ms", f.Fields[0].Field)
	assert.Equal(t, "Speed 31 is not between 0.1 and 30.", f.Detail)
}

func TestBrokenOffAndGoneOn(t *testing.T) {
	y := setUp(t)
	p := y.plan()
	leg := p.Out.Flown.Sorties[0].Legs[0]
	half := spraying.Done{ID: testbed.NewID(), Pass: leg.Pass, FromShare: leg.Share[0],
		ToShare: (leg.Share[0] + leg.Share[1]) / 2}
	require.NoError(t, y.Spraying.Spray(y.as("odile"), y.job, y.aircraft, []spraying.Done{half}, 0))
	require.NoError(t, y.Spraying.Spray(y.as("odile"), y.job, y.aircraft, []spraying.Done{half}, 0), "sent twice")
	after := y.plan()
	assert.Len(t, after.Done, len(p.Done)+1)
	assert.InDelta(t, p.Out.DoneHa+half.ToShare*p.Out.Passes[leg.Pass].Area/1e4-
		half.FromShare*p.Out.Passes[leg.Pass].Area/1e4,
		after.Out.DoneHa, 1e-6)
	again := spraying.Done{ID: testbed.NewID(), Pass: leg.Pass, FromShare: half.FromShare, ToShare: 1}
	err := y.Spraying.Spray(y.as("imre"), y.job, y.aircraft, []spraying.Done{again}, 0)
	assert.True(t, fault.Is(err, "sprayed-already"), "%v", err)
	for _, bad := range []spraying.Done{{Pass: 500, ToShare: 1}, {Pass: -1, ToShare: 1},
		{Pass: 0, FromShare: 0.5, ToShare: 0.5}, {Pass: 0, ToShare: 1.1}} {
		bad.ID = testbed.NewID()
		require.Error(t, y.Spraying.Spray(y.as("odile"), y.job, y.aircraft, []spraying.Done{bad}, 0))
	}
}

func TestFillIsSeenByTwoAndWeighed(t *testing.T) {
	y := setUp(t)
	p := y.plan()
	one := func(i int) *int { return &i }
	kg := func(v float64) *float64 { return &v }
	fill := func(login string, number int, tick spraying.Tick) error {
		tick.ID = testbed.NewID()
		return y.Spraying.Fill(y.as(login), y.job, y.aircraft, number, tick)
	}
	err := fill("odile", 2, spraying.Tick{Line: one(0), In: true})
	assert.True(t, fault.Is(err, "fill-order"), "%v", err)
	require.NoError(t, fill("odile", 1, spraying.Tick{Line: one(0), In: true}))
	f := y.plan().Fills[0]
	assert.InDelta(t, p.Out.Loads[0].Litres, f.Litres, 1e-9)
	require.Len(t, f.Lines, 4)
	assert.Equal(t, "Odile Varga", f.Lines[0].First)
	sum := 0.0
	for _, l := range f.Lines {
		if l.Unit == "L" {
			sum += l.Amount
		}
	}
	assert.InDelta(t, f.Litres, sum, 1e-9)
	err = fill("odile", 1, spraying.Tick{Version: f.Version, SecondLogin: "tamsin", SecondPIN: pin("tamsin")})
	require.ErrorContains(t, err, "is not in yet")
	planned := func() *jobs.PlannedFlight {
		out, err := y.Spraying.Planned(y.as("odile"), y.job, y.aircraft)
		require.NoError(t, err)
		return out
	}
	assert.Contains(t, says(planned()), "Fill 1 is not yet seen by two people and weighed.")
	assert.Nil(t, planned().WeighedKg)
	for i := 1; i < 4; i++ {
		require.NoError(t, fill("odile", 1, spraying.Tick{Version: y.plan().Fills[0].Version, Line: one(i), In: true}))
	}
	v := func() int { return y.plan().Fills[0].Version }
	require.ErrorContains(t, fill("odile", 1, spraying.Tick{Line: one(1), In: true, What: f.Lines[1].What,
		Amount: f.Lines[1].Amount * 1.1}), "The load is another one by now")
	require.NoError(t, fill("odile", 1, spraying.Tick{Line: one(1), In: true, What: f.Lines[1].What,
		Amount: f.Lines[1].Amount}), "pressed twice it is in once")
	require.Error(t, fill("odile", 1, spraying.Tick{Version: v() - 1, SecondLogin: "tamsin", SecondPIN: pin("tamsin")}),
		"somebody ticked meanwhile")
	require.ErrorContains(t, fill("odile", 1, spraying.Tick{Version: v(), SecondLogin: "odile", SecondPIN: pin("odile")}),
		"somebody else")
	require.ErrorContains(t, fill("odile", 1, spraying.Tick{Version: v(), SecondLogin: "rhea", SecondPIN: pin("rhea")}),
		"does not have a role")
	require.Error(t, fill("odile", 1, spraying.Tick{Version: v(), SecondLogin: "tamsin", SecondPIN: "0000"}))
	require.NoError(t, fill("odile", 1, spraying.Tick{Version: v(), SecondLogin: "tamsin", SecondPIN: pin("tamsin")}))
	should := p.Dry + f.Litres
	require.ErrorContains(t, fill("odile", 1, spraying.Tick{Version: v(), MassKg: kg(72.1)}), "the type takes 72.0 kg")
	require.ErrorContains(t, fill("odile", 1, spraying.Tick{Version: v(), MassKg: kg(should - 3)}), "it should be")
	require.NoError(t, fill("odile", 1, spraying.Tick{Version: v(), MassKg: kg(should + 0.4)}))
	assert.True(t, y.plan().Fills[0].Complete())
	require.NotNil(t, planned().WeighedKg, "what was weighed at the truck goes to the gate")
	assert.InDelta(t, should+0.4, *planned().WeighedKg, 1e-9)
	assert.NotContains(t, says(planned()), "Fill 1")
	err = fill("odile", 1, spraying.Tick{Version: v(), Line: one(0), In: true})
	assert.True(t, fault.Is(err, "fill-complete"), "%v", err)
}

// says is all that a plan has against its next flight.
func says(p *jobs.PlannedFlight) string {
	var b strings.Builder
	for _, f := range p.Findings {
		b.WriteString(f.Sentence + " ")
	}
	return b.String()
}

func pin(login string) string {
	for _, w := range demo.Crew {
		if w.Login == login {
			return w.PIN
		}
	}
	return ""
}

// What the label asks of the air is judged at the gate and for each hour, and is not
// lifted by the crew's practice.
func TestLabelHoldsTheAir(t *testing.T) {
	y := setUp(t)
	p := y.plan()
	w, few := p.Wish, 0.1
	w.Label.MostDeltaT = &few
	require.NoError(t, y.Spraying.Save(y.as("odile"), p.ID, y.job, y.aircraft, w, p.Version))
	got, err := y.Spraying.Planned(y.as("odile"), y.job, y.aircraft)
	require.NoError(t, err)
	assert.True(t, slices.ContainsFunc(got.Findings, func(f judge.Finding) bool {
		return f.Rule == judge.RuleDeltaT &&
			f.Verdict == judge.Stop
	}), "%v", got.Findings)
	assert.Contains(t, says(got), "of the label")
	for _, h := range y.plan().Hours { // none without a weather service
		assert.Equal(t, judge.Stop, h.Verdict, "%s", h.At)
	}
	lowest := 5.0
	w.Label.LeastDeltaT = &lowest
	require.NoError(t, y.Spraying.Save(y.as("odile"), p.ID, y.job, y.aircraft, w, p.Version+1))
	got, err = y.Spraying.Planned(y.as("odile"), y.job, y.aircraft)
	require.NoError(t, err)
	assert.Contains(t, says(got), "The label as entered allows nothing: delta T at least 5")
}

// What stands against the next flight by the plan reaches the gate, and the plan's
// energy and mass with it.
func TestGateAsksThePlan(t *testing.T) {
	y := setUp(t)
	got, err := y.Spraying.Planned(y.as("odile"), y.job, y.aircraft)
	require.NoError(t, err)
	assert.Greater(t, got.NeedWh, 100.0)
	assert.Greater(t, got.TakeOffKg, 50.0)
	says := func() map[judge.Rule]judge.Verdict {
		got, err := y.Spraying.Planned(y.as("odile"), y.job, y.aircraft)
		require.NoError(t, err)
		out := map[judge.Rule]judge.Verdict{}
		for _, f := range got.Findings {
			out[f.Rule] = max(out[f.Rule], f.Verdict)
		}
		return out
	}
	assert.Equal(t, judge.Watch, says()[judge.RuleSpraySystem], "one nozzle is worn")
	assert.NotContains(t, says(), judge.RuleDrift, "the pass that waits is not in the next flight")
	no := false
	require.NoError(t, y.Spraying.AddCheck(y.as("bao"), y.aircraft,
		api.NewSprayCheck{Id: testbed.NewID(), Kind: "bled", InOrder: &no}))
	assert.Equal(t, judge.Stop, says()[judge.RuleSpraySystem])
	// With a wide buffer everything waits, and the next flight is stopped.
	p := y.plan()
	w, far := p.Wish, 600.0
	w.Label.BufferM = &far
	require.NoError(t, y.Spraying.Save(y.as("odile"), p.ID, y.job, y.aircraft, w, 1))
	assert.Equal(t, judge.Stop, says()[judge.RuleDrift])
	most := 10.0
	w.Label.MostRate = &most
	require.NoError(t, y.Spraying.Save(y.as("odile"), p.ID, y.job, y.aircraft, w, 2))
	assert.Equal(t, judge.Stop, says()[judge.RuleSprayPlan], "over the rate of the label")
	other, err := y.Spraying.Planned(y.as("odile"), y.job, testbed.NewID())
	require.Error(t, err, "an aircraft that is not of the job")
	assert.Nil(t, other)
}

func TestCalibrationsGrowOld(t *testing.T) {
	at := time.Date(2026, 6, 10, 15, 0, 0, 0, time.UTC)
	standing := func(kind, verdict string, age time.Duration) api.CheckAge {
		for _, c := range spraying.Standing([]spraying.Check{{Kind: kind, Verdict: verdict, Sentence: "Fine.",
			At: at.Add(-age), ByName: "Bo"}}, at, time.UTC) {
			if c.Kind == kind {
				return c
			}
		}
		return api.CheckAge{}
	}
	day := 24 * time.Hour
	assert.Equal(t, judge.Clear, standing("catch", "clear", 30*day).Verdict)
	assert.Equal(t, judge.Watch, standing("catch", "clear", 30*day+time.Minute).Verdict)
	assert.Equal(t, judge.Stop, standing("catch", "stop", 40*day).Verdict, "age makes nothing milder")
	assert.Equal(t, judge.Watch, standing("bled", "clear", -time.Hour).Verdict, "of the future")
	assert.Equal(t, judge.Clear, standing("bled", "clear", day).Verdict)
	for _, c := range spraying.Standing(nil, at, time.UTC) {
		assert.Equal(t, judge.Watch, c.Verdict, c.Sentence)
	}
}

func TestCalibrationsThatCannotBe(t *testing.T) {
	y := setUp(t)
	num := func(v float64) *float64 { return &v }
	for name, c := range map[string]api.NewSprayCheck{
		"scale without a mass":  {Kind: "scale", Empty: num(0), Shown: num(20), Factor: num(1)},
		"scale with too little": {Kind: "scale", Empty: num(0), Known: num(5), Shown: num(5), Factor: num(1)},
		"pump":                  {Kind: "pump", Target: num(3), Shown: num(10), Factor: num(1)},
		"nothing caught":        {Kind: "catch", Target: num(3)},
		"trays":                 {Kind: "spreader", Caught: &[]float64{1, 2}},
		"not looked":            {Kind: "bled"},
	} {
		c.Id = testbed.NewID()
		err := y.Spraying.AddCheck(y.as("tamsin"), y.aircraft, c)
		_, ok := fault.As(err)
		assert.True(t, ok, "%s: %v", name, err)
	}
	var text string
	require.NoError(t, y.DB.Raw("select id from aircraft where name = 'Lantern One'").Scan(&text).Error)
	lantern := uuid.MustParse(text)
	yes := true
	err := y.Spraying.AddCheck(y.as("tamsin"), lantern, api.NewSprayCheck{Id: testbed.NewID(), Kind: "bled",
		InOrder: &yes})
	assert.True(t, fault.Is(err, "no-tank"), "%v", err)
}

func TestNozzlesOfTheCrew(t *testing.T) {
	y := setUp(t)
	ctx := y.as("tamsin")
	all, err := y.Spraying.Nozzles(ctx)
	require.NoError(t, err)
	require.NotEmpty(t, all)
	n := spraying.Nozzle{Kind: planning.Kind{ID: testbed.NewID(), Key: "own-1", Name: "Own", Active: true}, LeastLPM: 0.5,
		MostLPM: 1, LeastBar: 1, MostBar: 3, Droplets: "coarse"}
	require.NoError(t, y.Spraying.SaveNozzle(ctx, n))
	require.NoError(t, y.Spraying.SaveNozzle(ctx, n), "sent twice")
	n.Version, n.MostLPM, n.Key = 1, 1.5, "another"
	require.NoError(t, y.Spraying.SaveNozzle(ctx, n))
	all, err = y.Spraying.Nozzles(ctx)
	require.NoError(t, err)
	assert.True(t, slices.ContainsFunc(all, func(x spraying.Nozzle) bool {
		return x.ID == n.ID && x.Key == "own-1" &&
			x.MostLPM == 1.5
	}), "plans name it by its key, which stays")
	assert.True(t, fault.Is(y.Spraying.SaveNozzle(ctx, n), "stale"))
	n.Version, n.MostLPM = 2, 0.1
	require.Error(t, y.Spraying.SaveNozzle(ctx, n))
	n = spraying.Nozzle{Kind: planning.Kind{ID: testbed.NewID(), Key: all[0].Key, Name: "Twin"}, LeastLPM: 0.5, MostLPM: 1,
		LeastBar: 1, MostBar: 3, Droplets: "coarse"}
	err = y.Spraying.SaveNozzle(ctx, n)
	e, ok := fault.As(err)
	require.True(t, ok, "a key stands once: %v", err)
	assert.Equal(t, "name", e.Fields[0].Field)
}

// The record is made from plan, flights, papers and weather, signed once, and does
// not change.
func TestSprayRecordIsSigned(t *testing.T) {
	y := setUp(t)
	ctx := y.as("odile")
	r, err := y.Spraying.Records(ctx, y.job, y.aircraft)
	require.NoError(t, err)
	assert.Empty(t, r.Missing)
	d := r.Draft
	assert.Equal(t, "Upper Tolmere yard", d.Site)
	assert.Equal(t, "Odile Varga", d.Applicator)
	assert.Equal(t, "PA-3388", d.Licence)
	assert.Contains(t, d.Product, "Wettable sulphur 80 % 3 kg/ha")
	assert.InDelta(t, y.plan().Out.DoneHa, d.AreaHa, 1e-6)
	assert.InDelta(t, d.AreaHa*d.Rate, d.Volume, 1e-6)
	assert.Contains(t, d.WeatherTo, "wind 2.6 m/s from 240")
	require.NotNil(t, d.ReEntry)
	assert.Equal(t, d.To.Add(24*time.Hour), *d.ReEntry)
	id := testbed.NewID()
	require.Error(t, y.Spraying.SignRecord(ctx, y.job, y.aircraft, spraying.Signing{
		ID: id, Neighbours: "The beekeeper", PIN: "0000",
	}))
	require.Error(t, y.Spraying.SignRecord(ctx, y.job, y.aircraft, spraying.Signing{
		ID: id, Neighbours: " ", PIN: pin("odile"),
	}))
	require.NoError(t, y.Spraying.SignRecord(ctx, y.job, y.aircraft, spraying.Signing{
		ID: id, Neighbours: "The beekeeper", PIN: pin("odile"),
	}))
	require.NoError(t, y.Spraying.SignRecord(ctx, y.job, y.aircraft, spraying.Signing{
		ID: id, Neighbours: "The beekeeper", PIN: pin("odile"),
	}), "sent twice")
	r, err = y.Spraying.Records(ctx, y.job, y.aircraft)
	require.NoError(t, err)
	require.Len(t, r.Signed, 1)
	assert.NotEmpty(t, r.Missing, "nothing new is sprayed")
	err = y.Spraying.SignRecord(ctx, y.job, y.aircraft, spraying.Signing{
		ID: testbed.NewID(), Neighbours: "Nobody", PIN: pin("odile"),
	})
	assert.True(t, fault.Is(err, "incomplete"), "%v", err)
	all, err := y.Spraying.Export(ctx, nil, nil)
	require.NoError(t, err)
	require.Len(t, all, 1)
	assert.Equal(t, "The beekeeper", all[0].Neighbours)
	require.Error(t, y.DB.Exec("update spray_records set content = '{}'").Error, "it does not change")
	// A file is never cut: what it cannot hold is refused, and taken in parts.
	require.NoError(t, y.DB.Exec(`insert into spray_records (id, plan_id, content, from_at, to_at, at, by_name)
		select gen_random_uuid(), plan_id, content, from_at - i * interval '1 hour', to_at - i * interval '1 hour', at, by_name
		from (select * from spray_records limit 1) r, generate_series(1, 5000) i`).Error)
	_, err = y.Spraying.Export(ctx, nil, nil)
	require.ErrorContains(t, err, "5000")
	last := y.Clock.Now().Add(-20 * 24 * time.Hour)
	part, err := y.Spraying.Export(ctx, &last, nil)
	require.NoError(t, err)
	assert.Greater(t, len(part), 400)
}

// The flights of a plan are the flights of its job, and those of the evening before
// until somebody plans it.
func TestPlanCountsForKitAndEvening(t *testing.T) {
	y := setUp(t)
	p := y.plan()
	j, err := y.Jobs.Get(y.as("odile"), y.job)
	require.NoError(t, err)
	require.NotNil(t, j.Sorties)
	assert.Equal(t, len(p.Out.Flown.Sorties)+1, *j.Sorties, "one was sprayed since it was planned")
	w := p.Wish
	w.Rate = 35
	require.NoError(t, y.Spraying.Save(y.as("odile"), p.ID, y.job, y.aircraft, w, 1))
	j, err = y.Jobs.Get(y.as("odile"), y.job)
	require.NoError(t, err)
	assert.Equal(t, len(y.plan().Out.Flown.Sorties), *j.Sorties)
	j.FromAt, j.ToAt = j.FromAt.AddDate(0, 0, 3), j.ToAt.AddDate(0, 0, 3)
	require.NoError(t, y.Jobs.Save(y.as("odile"), j))
	day := time.Date(2026, 6, 13, 0, 0, 0, 0, time.UTC)
	sheet, err := y.Evening.Of(y.as("odile"), day)
	require.NoError(t, err)
	for _, f := range sheet.Flying {
		want := 0
		if f.Aircraft.ID == y.aircraft {
			want = *j.Sorties
		}
		assert.Equal(t, want, f.Sorties, f.Aircraft.Name)
	}
}

// On a heavy day the mass, not the tank, ends a flight, and the plan says so.
func TestHeavyDay(t *testing.T) {
	y := setUp(t)
	var row struct{ JobID, AircraftID uuid.UUID }
	require.NoError(t, y.DB.Raw("select p.job_id, p.aircraft_id from spray_plans p join aircraft a on a.id = p.aircraft_id where a.name = 'Dray Two'").Scan(&row).Error)
	p, err := y.Spraying.Get(y.as("odile"), row.JobID, row.AircraftID)
	require.NoError(t, err)
	require.NotEmpty(t, p.Out.Flown.Sorties)
	assert.Equal(t, "mass", string(p.Out.Flown.Sorties[0].Limit))
	assert.LessOrEqual(t, p.Out.Flown.Sorties[0].TakeOffKg, p.Most)
	assert.Equal(t, "tank", p.Out.Broken[0].Wish)
}

// Once a pass is sprayed the passes lie still, whatever wind and map do: another wind
// turns nothing, another map is said and stops the flight.
func TestPassesLieStillOnceSprayed(t *testing.T) {
	y := setUp(t)
	p := y.plan()
	assert.Equal(t, "rows", string(p.Wish.Direction), "the bearing is kept from the first pass on")
	var ids []uuid.UUID
	for _, d := range p.Done {
		ids = append(ids, d.ID)
	}
	require.NoError(t, y.Spraying.Unspray(y.as("odile"), y.job, y.aircraft, ids))
	w := p.Wish
	w.Direction = "into-wind"
	require.NoError(t, y.Spraying.Save(y.as("odile"), p.ID, y.job, y.aircraft, w, 1))
	turned := y.plan().Out.BearingDeg
	assert.NotEqual(t, p.Out.BearingDeg, turned)
	require.NoError(t, y.Spraying.Spray(y.as("odile"), y.job, y.aircraft,
		[]spraying.Done{{ID: testbed.NewID(), Pass: 3, ToShare: 1}}, 0))
	assert.Equal(t, "rows", string(y.plan().Wish.Direction))
	w.Direction = "best"
	require.NoError(t, y.Spraying.Save(y.as("odile"), p.ID, y.job, y.aircraft, w, 2), "the bearing that is kept is taken")
	w.Direction, w.BearingDeg = "rows", 17
	err := y.Spraying.Save(y.as("odile"), p.ID, y.job, y.aircraft, w, 3)
	assert.True(t, fault.Is(err, "sprayed-already"), "%v", err)
	assert.InDelta(t, turned, y.plan().Out.BearingDeg, 0)
	before := y.plan().Out.Verdict
	assert.NotEqual(t, judge.Stop, before)
	require.NoError(t, y.DB.Exec(`update site_features set content = jsonb_set(content, '{buffer_m}', '40'), version = version + 1 where content->>'name' = 'Oak at the pump house'`).Error)
	p = y.plan()
	assert.Equal(t, judge.Stop, p.Out.Verdict)
	assert.Contains(t, p.Out.Broken[len(p.Out.Broken)-1].Sentence, "The map has changed")
	require.NoError(t, y.DB.Exec(`update site_features set removed_at = now(), version = version + 1 where content->>'kind' = 'area'`).Error)
	got, err2 := y.Spraying.Planned(y.as("odile"), y.job, y.aircraft)
	require.NoError(t, err2, "the gate still answers")
	assert.Equal(t, judge.Stop, got.Findings[0].Verdict)
	assert.Contains(t, got.Findings[0].Sentence, "There is no area on the map")
}
