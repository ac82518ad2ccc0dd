package spraying_test

import (
	"context"
	"net/http/httptest"
	"regexp"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/api"
	"mainstay/core/airframe"
	"mainstay/core/energy"
	"mainstay/core/intent"
	"mainstay/core/judge"
	"mainstay/core/spray"
	"mainstay/internal/fleet"
	"mainstay/internal/jobs"
	"mainstay/internal/outbox"
	"mainstay/internal/platform/fault"
	"mainstay/internal/platform/outside"
	"mainstay/internal/sites"
	"mainstay/internal/spraying"
	standin "mainstay/internal/standins/weather"
	"mainstay/internal/testbed"
)

func (y yard) planned() *jobs.PlannedFlight {
	out, err := y.Spraying.Planned(y.as("odile"), y.job, y.aircraft)
	require.NoError(y.t, err)
	return out
}

func (y yard) save(w spray.Wish) {
	p := y.plan()
	require.NoError(y.t, y.Spraying.Save(y.as("odile"), p.ID, y.job, y.aircraft, w, p.Version))
}

func (y yard) sprayOne() {
	leg := y.plan().Out.Flown.Sorties[0].Legs[0]
	require.NoError(y.t, y.Spraying.Spray(y.as("odile"), y.job, y.aircraft,
		[]spraying.Done{{ID: testbed.NewID(), Pass: leg.Pass, FromShare: leg.Share[0], ToShare: leg.Share[1]}}, 0))
}

// What was sprayed stays what it was when the plan is changed afterwards: on the record,
// and for the next product that goes into the same tank.
func TestWhatWasSprayedStays(t *testing.T) {
	y := setUp(t)
	ctx := y.as("odile")
	y.sprayOne()
	before, err := y.Spraying.Records(ctx, y.job, y.aircraft)
	require.NoError(t, err)
	w := y.plan().Wish
	first := w.Mix[0].Name
	hours := 72.0
	w.Mix, w.Number, w.Rate, w.Label.ReEntryHours = []spray.Product{{Name: "Mite oil", PerHa: 2,
		Unit: "L"}}, "N-77", 30, &hours
	y.save(w)
	after, err := y.Spraying.Records(ctx, y.job, y.aircraft)
	require.NoError(t, err)
	assert.Equal(t, before.Draft, after.Draft)

	assert.Contains(t, says(y.planned()), "It sprayed "+first+" and was not cleaned since")
	y.sprayOne()
	both, err := y.Spraying.Records(ctx, y.job, y.aircraft)
	require.NoError(t, err)
	assert.Contains(t, both.Draft.Product, first)
	assert.Contains(t, both.Draft.Product, "Mite oil 2 L/ha")
	assert.Contains(t, both.Draft.Number, "N-77")
	assert.InDelta(t, both.Draft.Volume, both.Draft.Rate*both.Draft.AreaHa, 1e-9)
	assert.Equal(t, both.Draft.To.Add(72*time.Hour), *both.Draft.ReEntry)

	yes := true
	require.NoError(t, y.Spraying.AddCheck(y.as("bao"), y.aircraft,
		api.NewSprayCheck{Id: testbed.NewID(), Kind: "cleaned", InOrder: &yes}))
	assert.NotContains(t, says(y.planned()), "was not cleaned since")
}

// What nobody had entered when it was sprayed is completed by the plan; until then the
// record is not signed.
func TestWhatWasMissingIsCompleted(t *testing.T) {
	y := setUp(t)
	record := func() spraying.Records {
		r, err := y.Spraying.Records(y.as("odile"), y.job, y.aircraft)
		require.NoError(t, err)
		return r
	}
	w := y.plan().Wish
	number := w.Number
	w.Number = ""
	y.save(w)
	y.sprayOne()
	assert.Contains(t, record().Missing, "The registration number of the product is not in the plan.")
	w.Number = number
	y.save(w)
	assert.Empty(t, record().Missing)
	assert.Equal(t, number, record().Draft.Number)

	mix := w.Mix
	w.Mix = []spray.Product{}
	y.save(w)
	y.sprayOne()
	assert.Contains(t, record().Missing, "No product is in the plan.")
	w.Mix = mix
	y.save(w)
	assert.Empty(t, record().Missing)
	assert.NotContains(t, record().Draft.Product, "on ", "it is all one product")
}

// A second record begins where the first ended, not with the first flight of the job.
func TestSecondRecordBeginsAfterTheFirst(t *testing.T) {
	y := setUp(t)
	ctx := y.as("odile")
	require.NoError(t, y.Spraying.SignRecord(ctx, y.job, y.aircraft, spraying.Signing{
		ID: testbed.NewID(), Neighbours: "The beekeeper", PIN: pin("odile"),
	}))
	y.sprayOne()
	r, err := y.Spraying.Records(ctx, y.job, y.aircraft)
	require.NoError(t, err)
	require.Len(t, r.Signed, 1)
	assert.True(t, r.Draft.From.After(*r.Signed[0].Record.To), "%s and %s", r.Draft.From, r.Signed[0].Record.To)
}

// A flight without a load sheet is a finding, before the first fill and after each
// flight.
func TestFlightWithoutLoadSheetIsSaid(t *testing.T) {
	y := setUp(t)
	assert.Contains(t, says(y.planned()), "Nothing is on the load sheet for the next flight")
	line := 0
	require.NoError(t, y.Spraying.Fill(y.as("odile"), y.job, y.aircraft, 1,
		spraying.Tick{ID: testbed.NewID(), Line: &line, In: true}))
	assert.NotContains(t, says(y.planned()), "Nothing is on the load sheet")
	require.NoError(t, y.DB.Exec("update spray_fills set at = at - interval '30 days'").Error)
	assert.Contains(t, says(y.planned()), "Nothing is on the load sheet", "that fill was flown out")
}

// Passes and loads belong to a plan as it was: whoever presses by an older one is told.
func TestPressesByAnOlderPlanAreRefused(t *testing.T) {
	y := setUp(t)
	p, err := spraying.Kept(y.Spraying, y.as("odile"), y.job, y.aircraft)
	require.NoError(t, err)
	require.NoError(t, spraying.Lock(y.DB, p))
	w := p.Wish
	w.Rate++
	y.save(w)
	assert.True(t, fault.Is(spraying.Lock(y.DB, p), "stale"))
}

// Granules ask for the spreader, liquids for pump, nozzles and air.
func TestCalibrationsOfTheWork(t *testing.T) {
	y := setUp(t)
	assert.NotContains(t, says(y.planned()), "Spread width")
	w := y.plan().Wish
	w.Granules, w.Nozzle, w.Mix = true, "", []spray.Product{{Name: "Slug bait", PerHa: w.Rate, Unit: "kg"}}
	y.save(w)
	got := says(y.planned())
	assert.Contains(t, got, "Spread width: never done on this aircraft.")
	for _, liquid := range []string{"Pump factor", "Catch test", "Air bled", "Idle reads zero"} {
		assert.NotContains(t, got, liquid)
	}
	trays, wide := []float64{5, 5, 5, 5}, 8.0
	n := api.NewSprayCheck{Id: testbed.NewID(), Kind: "spreader", Caught: &trays}
	assert.ErrorContains(t, y.Spraying.AddCheck(y.as("tamsin"), y.aircraft, n), "spread width that was tried")
	n.Target = &wide
	require.NoError(t, y.Spraying.AddCheck(y.as("tamsin"), y.aircraft, n))
	assert.Contains(t, says(y.planned()), "The spreader was tried at 8.0 m; the plan spreads 6.0 m wide.")
	assert.NotContains(t, says(y.planned()), "set to zero after each change")
	y.sprayOne()
	w = y.plan().Wish
	w.Mix[0].Name = "Grass seed"
	y.save(w)
	assert.Contains(t, says(y.planned()), "It spread Slug bait since its scale was set to zero")
}

// The truck may stand at several places: each flight takes the nearest, and the gate
// judges the next one from there.
func TestRefillPlaces(t *testing.T) {
	y := setUp(t)
	var east string
	for _, f := range y.plan().Ground.Places {
		if f.Name == "Headland east" {
			east = f.ID
		}
	}
	require.NotEmpty(t, east)
	w := y.plan().Wish
	w.Refills = []string{east}
	y.save(w)
	p := y.plan()
	from := map[string]int{}
	for _, s := range p.Out.Flown.Sorties {
		from[p.Ground.NameOf(s)]++
	}
	assert.Positive(t, from["Headland west"], "%v", from)
	assert.Positive(t, from["Headland east"], "%v", from)
	for y.planned().TakeOff != east {
		s := y.plan().Out.Flown.Sorties[0]
		var parts []spraying.Done
		for _, l := range s.Legs {
			parts = append(parts, spraying.Done{ID: testbed.NewID(), Pass: l.Pass, FromShare: l.Share[0], ToShare: l.Share[1]})
		}
		require.NoError(t, y.Spraying.Spray(y.as("odile"), y.job, y.aircraft, parts, 0))
	}
	assert.Contains(t, says(y.planned()), "takes off and lands at Headland east")
	w.Refills = []string{"nowhere"}
	err := y.Spraying.Save(y.as("odile"), p.ID, y.job, y.aircraft, w, p.Version)
	assert.ErrorContains(t, err, "not on the map of the site any more")
}

// A kept plan is judged as the gate will: the way, the ground, how far it comes.
func TestWayOfAPlan(t *testing.T) {
	y := setUp(t)
	p := y.plan()
	require.NotNil(t, p.Along)
	assert.NotNil(t, p.Along.Relief)
	assert.Len(t, p.Along.Reach, 36)
	require.NotEmpty(t, p.Along.Homes)
	assert.GreaterOrEqual(t, p.Along.Homes[0].DistanceM, p.Along.FarM)
	for i, h := range p.Along.Homes[1:] {
		assert.Greater(t, h.Percent, p.Along.Homes[i].Percent, "farther asks for more")
	}
	a, err := y.Jobs.Assess(y.as("odile"), y.job)
	require.NoError(t, err)
	for _, f := range p.Along.Findings {
		if f.Rule == judge.RulePath {
			assert.Contains(t, sentences(append(a.Common, a.Each[y.aircraft].Findings...)), f.Sentence)
		}
	}
	tried, err := y.Spraying.Try(y.as("odile"), y.job, y.aircraft, p.Wish)
	require.NoError(t, err)
	assert.Nil(t, tried.Along, "not while a slider moves")
}

func must[T any](v T, err error) T {
	if err != nil {
		panic(err)
	}
	return v
}

func sentences(fs []judge.Finding) []string {
	var out []string
	for _, f := range fs {
		out = append(out, f.Sentence)
	}
	return out
}

// What a plan had to assume is said at the gate, and its wind is never taken as behind.
func TestAssumptionsOfAPlanAreSaid(t *testing.T) {
	y := setUp(t)
	assert.NotContains(t, says(y.planned()), "had to be assumed")
	require.NoError(t, y.DB.Exec("delete from site_weather").Error)
	p := y.plan()
	assert.Contains(t, says(y.planned()), "no wind known: half of the type's limit, against the way home")
	require.NotNil(t, p.Ground.Wind)
	assert.True(t, p.Ground.Wind.Against)
	assert.NotEmpty(t, p.Out.Waiting, "drift may go anywhere")
}

// The whole range that a report gives for its wind belongs to the sector of drift.
func TestVariableWindWidensTheSector(t *testing.T) {
	y := setUp(t)
	now := y.Clock.Now().UTC()
	take := func(wind string) spraying.Plan {
		require.NoError(t, y.Sites.AddWeather(y.as("odile"), y.plan().Job.SiteID,
			sites.NewWeather{ID: testbed.NewID(), Ground: "crops",
				Report: "METAR XTST " + now.Format("021504Z") + " " + wind + " 9999 FEW060 22/12 Q1016"}))
		return y.plan()
	}
	w, far := y.plan().Wish, 150.0
	w.Label.BufferM = &far
	y.save(w)
	narrow := take("24006KT")
	wide := take("24006KT 150V330")
	require.NotNil(t, wide.Ground.Blow.VariesTo)
	assert.InDelta(t, 330, *wide.Ground.Blow.VariesTo, 0)
	assert.Greater(t, len(wide.Out.Waiting), len(narrow.Out.Waiting))
}

// The plan counts with what the airframe's own flights say of it.
func TestPlanTakesTheAirframesOwnEfficiency(t *testing.T) {
	y := setUp(t)
	usual := y.plan().Out.Flown.Sorties[0]
	y.Spraying.Planning.Learned = func(_ context.Context, _ uuid.UUID, t airframe.Type) (energy.Learned, error) {
		m, _ := t.Model(nil)
		return energy.Learned{Count: 6, Own: true, Efficiency: m.Own() / 1.5}, nil
	}
	worn := y.plan().Out.Flown.Sorties[0]
	assert.Greater(t, worn.Wh/worn.AreaM2, 1.2*usual.Wh/usual.AreaM2)
}

// The limits of wind that the label names win in the hours of the forecast too.
func TestHoursAreHeldAgainstTheLabel(t *testing.T) {
	y := setUp(t)
	srv := httptest.NewServer(standin.New(y.Clock.Now))
	t.Cleanup(srv.Close)
	y.Sites.Weather = outside.New(srv.URL, "")
	open := func() int {
		n := 0
		for _, h := range y.plan().Hours {
			if h.Verdict != judge.Stop {
				n++
			}
		}
		return n
	}
	require.Positive(t, open())
	j, err := y.Jobs.Get(y.as("odile"), y.job)
	require.NoError(t, err)
	calm, least := 0.2, 0.1
	j.Label.LowMS, j.Label.HighMS = &least, &calm
	require.NoError(t, y.Jobs.Save(y.as("odile"), j))
	assert.Zero(t, open(), "it is never as calm as this label asks")
}

// The passes are the route that way home, airspace and gate judge: what anybody wrote
// down about the route before counts no longer.
func TestPassesAreTheRoute(t *testing.T) {
	y := setUp(t)
	way := y.planned().Way
	require.NotNil(t, way)
	p := y.plan()
	assert.Len(t, way.Passes, 2*len(p.Out.Passes), "all of them, sprayed or not")
	assert.Len(t, way.Starts, len(p.Out.Flown.Sorties))
	assert.InDelta(t, 8.5, y.planned().HeightM, 1e-9)
	assess := func() jobs.AircraftPart {
		a, err := y.Jobs.Assess(y.as("odile"), y.job)
		require.NoError(t, err)
		part := a.Each[y.aircraft]
		part.Findings = append(part.Findings, a.Common...)
		return part
	}
	path := func() string {
		var out string
		for _, f := range assess().Findings {
			if f.Rule == judge.RulePath {
				out += f.Verdict.String() + ": " + f.Sentence + "\n"
			}
		}
		return out
	}
	assert.Contains(t, path(), "of the plan")
	require.NoError(t, y.Jobs.Decide(y.as("odile"), y.job,
		jobs.NewDecision{ID: testbed.NewID(), Aircraft: y.aircraft, Kind: intent.ByHand,
			Reason: "over the end of the trellis by hand"}))
	assert.NotContains(t, path(), "stop: ")
	for _, c := range must(y.Jobs.Get(y.as("odile"), y.job)).Aircraft {
		require.NotNil(t, c.RouteM, "people are briefed by the plan")
		assert.InDelta(t, 8.5, *c.RouteM, 1e-9)
		assert.Equal(t, string(intent.AboveGround), c.RouteDatum)
		assert.InDelta(t, p.Out.Settings.Speed, *c.SpeedMS, 1e-9)
	}
	w := p.Wish
	w.HeightM = 1.2 // the wires of the trellis are no longer passed over
	y.save(w)
	assert.Contains(t, path(), "stop: ")
}

// A press that was kept without network counts once, from when it was made.
func TestPressesAtTheTruckAreKept(t *testing.T) {
	y := setUp(t)
	ago, line := 3600.0, 0
	press := func() context.Context {
		id := testbed.NewID()
		ctx, err := outbox.With(y.as("odile"), &id, &ago, nil)
		require.NoError(t, err)
		return ctx
	}
	in, out := press(), press()
	fill := testbed.NewID()
	tick := func(ctx context.Context, in bool) {
		require.NoError(t, y.Spraying.Fill(ctx, y.job, y.aircraft, 1, spraying.Tick{ID: fill, Line: &line, In: in}))
	}
	tick(in, true)
	tick(out, false)
	tick(in, true) // sent again, since its answer was not heard
	f := y.plan().Fills[0]
	assert.Empty(t, f.Lines[0].First)
	now := y.Spraying.Clock.Now()
	assert.WithinDuration(t, now.Add(-time.Hour), f.At, 10*time.Minute)

	l := y.plan().Out.Flown.Sorties[0].Legs[0]
	part := spraying.Done{ID: testbed.NewID(), Pass: l.Pass, FromShare: l.Share[0], ToShare: l.Share[1]}
	sprayed := press()
	before := len(y.plan().Done)
	require.NoError(t, y.Spraying.Spray(sprayed, y.job, y.aircraft, []spraying.Done{part}, 0))
	require.NoError(t, y.Spraying.Spray(sprayed, y.job, y.aircraft, []spraying.Done{part}, 0))
	require.Len(t, y.plan().Done, before+1)
	found := false
	for _, d := range y.plan().Done {
		if d.ID == part.ID {
			found = true
			assert.WithinDuration(t, now.Add(-time.Hour), d.At, 10*time.Minute)
		}
	}
	assert.True(t, found)

	ok := true
	check := api.NewSprayCheck{Id: testbed.NewID(), Kind: "bled", InOrder: &ok}
	require.NoError(t, y.Spraying.AddCheck(press(), y.aircraft, check))
	checks, err := y.Spraying.Checks(y.as("odile"), y.aircraft)
	require.NoError(t, err)
	for _, c := range checks {
		if c.ID == check.Id {
			assert.WithinDuration(t, now.Add(-time.Hour), c.At, 10*time.Minute)
		}
	}
}

// What was weighed takes the place of the type's file: in the plan, and the newest counts.
func TestWhatWasWeighedIsPlanned(t *testing.T) {
	y := setUp(t)
	before := y.plan().Dry
	load := func() (empty, packs float64) {
		l, _, err := y.Fleet.Load(y.as("tamsin"), y.aircraft)
		require.NoError(t, err)
		if l.EmptyKg != nil {
			empty = *l.EmptyKg
		}
		if l.PackKg != nil {
			packs = *l.PackKg
		}
		return empty, packs
	}
	day := testbed.Noon.Truncate(24 * time.Hour)
	w := fleet.Weighing{ID: testbed.NewID(), AircraftID: y.aircraft, Part: "empty", Kg: 31.5, Scale: " Platform scale 2 ",
		WeighedOn: day.AddDate(0, 0, -3)}
	tamsin := y.as("tamsin")
	require.NoError(t, y.Fleet.Weigh(tamsin, w))
	require.NoError(t, y.Fleet.Weigh(tamsin, w), "the same press sent twice")
	empty, packs := load()
	assert.InDelta(t, 31.5, empty, 1e-9)
	assert.Zero(t, packs)
	one := y.plan().Dry
	assert.NotEqual(t, before, one)
	w.ID, w.Kg, w.WeighedOn = testbed.NewID(), 30, day.AddDate(0, 0, -9)
	require.NoError(t, y.Fleet.Weigh(tamsin, w))
	assert.InDelta(t, one, y.plan().Dry, 1e-9, "an older weighing that is entered late")
	w.ID, w.Kg, w.WeighedOn = testbed.NewID(), 32, day
	require.NoError(t, y.Fleet.Weigh(tamsin, w))
	assert.InDelta(t, one+0.5, y.plan().Dry, 1e-9)
	for what, spoil := range map[string]func(*fleet.Weighing){
		"takes off with 72.0 kg at most": func(w *fleet.Weighing) { w.Kg = 73 },
		"Name the scale":                 func(w *fleet.Weighing) { w.Scale = " " },
		"has not come yet":               func(w *fleet.Weighing) { w.WeighedOn = day.AddDate(0, 0, 3) },
		"Say what was weighed":           func(w *fleet.Weighing) { w.Part = "pilot" },
	} {
		bad := w
		bad.ID = testbed.NewID()
		spoil(&bad)
		assert.ErrorContains(t, y.Fleet.Weigh(tamsin, bad), what)
	}
}

// What stands against the way stands in the verdict of the plan too.
func TestVerdictOfAPlanWithItsWay(t *testing.T) {
	y := setUp(t)
	p := y.plan()
	require.Equal(t, judge.Stop, judge.Worst(p.Along.Findings), "nobody has decided how it comes over the trellis")
	assert.Equal(t, judge.Stop, spraying.Wire(y.as("odile"), p).Verdict)
}

// late is a context of somebody whose press was made that long ago without network.
func (y yard) late(login string, ago time.Duration) context.Context {
	id, seconds := testbed.NewID(), ago.Seconds()
	ctx, err := outbox.With(y.as(login), &id, &seconds, nil)
	require.NoError(y.t, err)
	return ctx
}

func (y yard) nextPart() []spraying.Done {
	l := y.plan().Out.Flown.Sorties[0].Legs[0]
	return []spraying.Done{{ID: testbed.NewID(), Pass: l.Pass, FromShare: l.Share[0], ToShare: l.Share[1]}}
}

// What was sprayed and comes late from a device without network belongs to the next
// record, however old it is: nothing that was applied is in no record, or in two.
func TestLatePressesAreRecorded(t *testing.T) {
	y := setUp(t)
	ctx := y.as("odile")
	draft := func() float64 {
		r, err := y.Spraying.Records(ctx, y.job, y.aircraft)
		require.NoError(t, err)
		return r.Draft.AreaHa
	}
	first := draft()
	require.Positive(t, first)
	require.NoError(t, y.Spraying.SignRecord(ctx, y.job, y.aircraft, spraying.Signing{
		ID: testbed.NewID(), Neighbours: "the beekeeper", PIN: pin("odile"),
	}))
	assert.Zero(t, draft())
	part := y.nextPart()
	require.NoError(t, y.Spraying.Spray(y.late("odile", 30*time.Minute), y.job, y.aircraft, part, 0))
	all := 0.0
	for _, d := range y.plan().Done {
		all += d.AreaM2 / 1e4
	}
	assert.InDelta(t, all-first, draft(), 1e-9, "pressed before the record was signed, and not in it")
	require.NoError(t, y.Spraying.SignRecord(ctx, y.job, y.aircraft, spraying.Signing{
		ID: testbed.NewID(), Neighbours: "the beekeeper", PIN: pin("odile"),
	}))
	assert.Zero(t, draft())

	err := y.Spraying.Unspray(ctx, y.job, y.aircraft, []uuid.UUID{part[0].ID})
	assert.True(t, fault.Is(err, "already-signed"), "%v", err)
}

// What was pressed by one plan is not put on record with the product of another.
func TestPressesOfAnOlderPlanAreRefused(t *testing.T) {
	y := setUp(t)
	seen, part := y.plan().Version, y.nextPart()
	w := y.plan().Wish
	w.Mix = []spray.Product{{Name: "Mite oil", PerHa: 2, Unit: "L"}}
	y.save(w)
	before := len(y.plan().Done)
	err := y.Spraying.Spray(y.late("odile", time.Hour), y.job, y.aircraft, part, seen)
	assert.True(t, fault.Is(err, "plan-changed"), "%v", err)
	assert.ErrorContains(t, err, "Odile Varga changed the plan")
	assert.Len(t, y.plan().Done, before)
	require.NoError(t, y.Spraying.Spray(y.late("odile", time.Hour), y.job, y.aircraft, part, y.plan().Version))
}

// A closed job is history: its plan does not change. What was sprayed and comes late is
// taken all the same.
func TestPlanOfAClosedJob(t *testing.T) {
	y := setUp(t)
	p, part := y.plan(), y.nextPart()
	require.NoError(t, y.Jobs.End(y.as("odile"), y.job, jobs.Done, p.Job.Version))
	w := p.Wish
	w.Rate++
	err := y.Spraying.Save(y.as("odile"), p.ID, y.job, y.aircraft, w, p.Version)
	assert.True(t, fault.Is(err, "job-closed"), "%v", err)
	require.NoError(t, y.Spraying.Spray(y.late("odile", time.Hour), y.job, y.aircraft, part, p.Version))
}

// Granules are said in kilograms wherever a load is said.
func TestGranulesAreSaidInKilograms(t *testing.T) {
	y := setUp(t)
	w := y.plan().Wish
	most := w.Rate / 2
	w.Granules, w.Nozzle, w.Label.MostRate, w.Mix = true, "", &most, []spray.Product{{Name: "Slug bait", PerHa: w.Rate,
		Unit: "kg"}}
	y.save(w)
	litres := regexp.MustCompile(`\d L\b|L/ha`)
	assert.NotRegexp(t, litres, says(y.planned()))
	assert.Contains(t, says(y.planned()), "kg/ha")
	line := 0
	require.NoError(t, y.Spraying.Fill(y.as("odile"), y.job, y.aircraft, 1,
		spraying.Tick{ID: testbed.NewID(), Line: &line, In: true}))
	less := y.plan().Wish
	less.TankL = 5
	y.save(less)
	assert.NotRegexp(t, litres, says(y.planned()))
	r, err := y.Spraying.Records(y.as("odile"), y.job, y.aircraft)
	require.NoError(t, err)
	assert.Equal(t, "kg/ha", r.Draft.RateUnit)
}
