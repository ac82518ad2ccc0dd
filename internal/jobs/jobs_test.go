package jobs_test

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

	"mainstay/core/geo"
	"mainstay/core/judge"
	"mainstay/core/site"
	"mainstay/core/weather"
	"mainstay/internal/airspace"
	"mainstay/internal/flights"
	"mainstay/internal/jobs"
	"mainstay/internal/platform/fault"
	"mainstay/internal/readiness"
	"mainstay/internal/sites"
	"mainstay/internal/testbed"
)

// bed is a stage with a charted site, its weather and airspace, and a pilot who
// is ready for the type.
type bed struct {
	*testbed.Stage
	t    *testing.T
	site uuid.UUID
}

func setUp(t *testing.T) bed {
	b := bed{testbed.NewStage(t), t, testbed.NewID()}
	ctx := b.As(b.Chief)
	require.NoError(t, b.Sites.Add(ctx, sites.Site{ID: b.site, Name: "Yard", Lat: 46.31, Lon: -119.70,
		ElevationM: new(210.0)}))
	yes := true
	ground := &site.GroundCheck{Flat: &yes, Firm: &yes, Clear: &yes, NoPlastic: &yes, NoDust: &yes, NoPeople: &yes}
	for _, f := range []site.Feature{
		{Kind: site.TakeOff, Shape: site.Point, Name: "Gate", Ground: ground,
			Places: []geo.Point{{Lat: 46.31, Lon: -119.70}}},
		{Kind: site.Route, Shape: site.Line, Places: []geo.Point{{Lat: 46.311, Lon: -119.70}, {Lat: 46.311, Lon: -119.699}}},
	} {
		f.ID = testbed.NewID().String()
		require.NoError(t, b.Sites.SaveFeature(ctx, b.site, f, 0))
	}
	station, near := 210.0, 12.0
	require.NoError(t, b.Sites.AddWeather(ctx, b.site, sites.NewWeather{ID: testbed.NewID(), Ground: "open",
		StationM: &station, StationKm: &near, Report: "METAR KZZT 101635Z 24005KT 10SM CLR 16/06 A3000"}))
	require.NoError(t, b.Airspace.Take(ctx, b.site, testbed.NoZones(46.31, -119.70)))
	require.NoError(t, b.Sites.PutTerrain(ctx, b.site, "level.asc", 0, testbed.Level(46.31, -119.70, 210)))
	require.NoError(t, b.Readiness.Log(ctx, readiness.Practice{ID: testbed.NewID(), PersonID: b.Pilot.ID,
		TypeKey: "lantern-4", Phase: "empty", Packs: 3, Landings: 6, NoseIn: true, FlownOn: testbed.Noon.AddDate(0, -2, 0)},
		testbed.PIN))
	return b
}

// job is an inspection now, the pilot in command; change may alter it.
func (b bed) job(change func(*jobs.Job)) jobs.Job {
	b.t.Helper()
	height, speed := 30.0, 5.0
	j := jobs.Job{ID: testbed.NewID(), Work: "inspection", SiteID: b.site, Aim: "Roof",
		FromAt: testbed.Noon.Add(-time.Hour), ToAt: testbed.Noon.Add(5 * time.Hour),
		Aircraft: []jobs.Craft{{AircraftID: b.Aircraft.ID, ReturnM: &height, LostLink: "return",
			SpeedMS: &speed}}, People: []jobs.Post{{PersonID: b.Pilot.ID, Post: "rpic"}}}
	if change != nil {
		change(&j)
	}
	require.NoError(b.t, b.Jobs.Save(b.As(b.Chief), j))
	return j
}

// ready answers everything well and has everybody sign the briefing.
func (b bed) ready(j jobs.Job) {
	b.t.Helper()
	ctx := b.As(b.Pilot)
	said := map[string]string{}
	a, err := b.Jobs.Assess(ctx, j.ID)
	require.NoError(b.t, err)
	for _, q := range a.Asks {
		said[q.ID] = q.Options[0].ID
	}
	require.NoError(b.t, b.Jobs.Answer(ctx, j.ID, said))
	b.brief(j)
}

func (b bed) brief(j jobs.Job) {
	b.t.Helper()
	ctx, id := b.As(b.Pilot), testbed.NewID()
	require.NoError(b.t, b.Jobs.Brief(ctx, j.ID, id))
	n, err := b.Jobs.Newest(ctx, j.ID)
	require.NoError(b.t, err)
	for _, p := range j.People {
		require.NoError(b.t, b.Jobs.SignBriefing(ctx, j.ID, id, p.PersonID, n.Hash, testbed.PIN))
	}
}

func (b bed) stops(j jobs.Job) []string {
	b.t.Helper()
	a, err := b.Jobs.Assess(b.As(b.Pilot), j.ID)
	require.NoError(b.t, err)
	out := []string{}
	for _, f := range a.Common {
		if f.Verdict == judge.Stop {
			out = append(out, string(f.Rule)+": "+f.Sentence)
		}
	}
	return out
}

func has(list []string, words string) bool {
	return slices.ContainsFunc(list, func(s string) bool { return strings.Contains(s, words) })
}

func TestJobGoesThroughTheGate(t *testing.T) {
	b := setUp(t)
	j := b.job(nil)
	assert.True(t, has(b.stops(j), "There is no briefing"))
	assert.True(t, has(b.stops(j), "questions about this job are not answered"))
	b.ready(j)
	assert.Empty(t, b.stops(j))

	pk := b.Packs[0].ID
	b.Walk("walkround", []uuid.UUID{pk}, nil)
	q := b.For(j.ID, pk)
	ctx := b.As(b.Pilot)
	a, err := b.Flights.Ask(ctx, q)
	require.NoError(t, err)
	assert.NotEqual(t, judge.Stop, a.Output.Verdict, "%+v", a.Output.Findings)
	assert.Contains(t, a.Output.Checked, judge.RuleBriefing)
	r, err := b.Flights.Release(ctx, flights.NewRelease{ID: testbed.NewID(), Question: q, Purpose: j.Aim, GateHash: a.Hash,
		PIN: testbed.PIN})
	require.NoError(t, err)
	f, err := b.Flights.TakeOff(ctx, testbed.NewID(), r.ID, nil)
	require.NoError(t, err)
	assert.Equal(t, j.ID, *f.JobID, "the flight belongs to the job")
	assert.True(t, fault.Is(b.Jobs.End(ctx, j.ID, jobs.Done, 1), "job-flying"))

	// Somebody else who has no role in it is stopped, and so is another aircraft.
	_, err = b.Flights.Land(ctx, f.ID)
	require.NoError(t, err)
	a, err = b.Flights.Ask(b.As(b.Chief), q)
	require.NoError(t, err)
	assert.True(t, slices.ContainsFunc(a.Output.Findings, func(f judge.Finding) bool { return f.Rule == "roles" }))
}

// What changes after the briefing ends it: the crew, the site, the day; the air
// does not.
func TestBriefingHoldsForCrewSiteAndDay(t *testing.T) {
	b := setUp(t)
	j := b.job(nil)
	b.ready(j)
	ctx := b.As(b.Chief)
	station, near := 210.0, 12.0
	require.NoError(t, b.Sites.AddWeather(ctx, b.site, sites.NewWeather{ID: testbed.NewID(), Ground: "open",
		StationM: &station, StationKm: &near, Report: "METAR KZZT 101638Z 24006KT 10SM CLR 17/06 A3000"}))
	assert.Empty(t, b.stops(j))

	height := 12.0
	tree := site.Feature{ID: testbed.NewID().String(), Kind: site.Obstacle, Shape: site.Point, Name: "Tree",
		HeightM: &height, Places: []geo.Point{{Lat: 46.315, Lon: -119.71}}}
	require.NoError(t, b.Sites.SaveFeature(ctx, b.site, tree, 0))
	assert.True(t, has(b.stops(j), "the site file changed"))
	b.brief(j)
	assert.Empty(t, b.stops(j))

	higher, was := 61.0, j.Aircraft[0].ReturnM
	j.Version, j.Aircraft[0].ReturnM = 1, &higher
	require.NoError(t, b.Jobs.Save(ctx, j))
	assert.True(t, has(b.stops(j), "how it is flown changed: Quad one: returns at 61 m"),
		"what the aircraft does when its link is lost: %v", b.stops(j))
	j.Version, j.Aircraft[0].ReturnM = 2, was
	require.NoError(t, b.Jobs.Save(ctx, j))
	assert.Empty(t, b.stops(j), "as it was briefed again")

	j.Version, j.People = 3, append(j.People, jobs.Post{PersonID: b.Tech.ID, Post: "ground"})
	require.NoError(t, b.Jobs.Save(ctx, j))
	assert.True(t, has(b.stops(j), "the crew or its roles changed"))
	old, err := b.Jobs.Newest(ctx, j.ID)
	require.NoError(t, err)
	require.NoError(t, b.Jobs.Brief(ctx, j.ID, testbed.NewID()))
	err = b.Jobs.SignBriefing(ctx, j.ID, old.ID, b.Tech.ID, old.Hash, testbed.PIN)
	assert.True(t, fault.Is(err, "briefing-changed"), "%v", err)
	assert.True(t, has(b.stops(j), "Not briefed yet: "), "nobody has signed the new one")
	n, err := b.Jobs.Newest(ctx, j.ID)
	require.NoError(t, err)
	assert.Error(t, b.Jobs.SignBriefing(ctx, j.ID, n.ID, b.Chief.ID, n.Hash, testbed.PIN), "the chief has no role in it")
	assert.Error(t, b.Jobs.SignBriefing(ctx, j.ID, n.ID, b.Tech.ID, n.Hash, "0000"), "a wrong PIN signs nothing")
	require.NoError(t, b.Jobs.SignBriefing(ctx, j.ID, n.ID, b.Tech.ID, n.Hash, testbed.PIN))
	require.NoError(t, b.Jobs.SignBriefing(ctx, j.ID, n.ID, b.Tech.ID, n.Hash, testbed.PIN), "twice is once")
	n, err = b.Jobs.Newest(ctx, j.ID)
	require.NoError(t, err)
	assert.Len(t, n.Signed, 1)

	b.Clock.Advance(24 * time.Hour)
	assert.True(t, has(b.stops(j), "outside the window"))
}

func TestJobsThatCannotBe(t *testing.T) {
	b := setUp(t)
	ctx := b.As(b.Chief)
	first := b.job(nil)
	for name, c := range map[string]struct {
		field  string
		change func(*jobs.Job)
	}{
		"no aim":               {"aim", func(j *jobs.Job) { j.Aim = "  " }},
		"ends before it began": {"to", func(j *jobs.Job) { j.ToAt = j.FromAt }},
		"longer than a day":    {"to", func(j *jobs.Job) { j.ToAt = j.FromAt.Add(25 * time.Hour) }},
		"over already": {"to", func(j *jobs.Job) {
			j.FromAt, j.ToAt = testbed.Noon.Add(-5*time.Hour),
				testbed.Noon.Add(-4*time.Hour)
		}},
		"two in command": {"people", func(j *jobs.Job) {
			j.People = append(j.People,
				jobs.Post{PersonID: b.Chief.ID, Post: "rpic"})
		}},
		"not a pilot": {"people", func(j *jobs.Job) { j.People = []jobs.Post{{PersonID: b.Tech.ID, Post: "rpic"}} }},
		"nobody we know": {"people", func(j *jobs.Job) {
			j.People = []jobs.Post{{PersonID: testbed.NewID(),
				Post: "ground"}}
		}},
		"somebody twice": {"people", func(j *jobs.Job) {
			j.People = append(j.People,
				jobs.Post{PersonID: b.Pilot.ID, Post: "ground"})
		}},
		"aircraft twice":     {"aircraft", func(j *jobs.Job) { j.Aircraft = append(j.Aircraft, j.Aircraft[0]) }},
		"aircraft elsewhere": {"aircraft", func(j *jobs.Job) { j.People = nil }},
		"pilot elsewhere":    {"people", func(j *jobs.Job) { j.Aircraft = nil }},
		"no site":            {"site_id", func(j *jobs.Job) { j.SiteID = testbed.NewID() }},
	} {
		height := 30.0
		j := jobs.Job{ID: testbed.NewID(), Work: "inspection", SiteID: b.site, Aim: "Roof", FromAt: testbed.Noon,
			ToAt:     testbed.Noon.Add(2 * time.Hour),
			Aircraft: []jobs.Craft{{AircraftID: b.Aircraft.ID, ReturnM: &height}}, People: []jobs.Post{{PersonID: b.Pilot.ID,
				Post: "rpic"}}}
		c.change(&j)
		err := b.Jobs.Save(ctx, j)
		f, ok := fault.As(err)
		require.True(t, ok, "%s: %v", name, err)
		require.NotEmpty(t, f.Fields, name)
		assert.Equal(t, c.field, f.Fields[0].Field, "%s: %v", name, err)
		_, err = b.Jobs.Get(ctx, j.ID)
		assert.Error(t, err, "%s: nothing was saved", name)
	}
	// A job that is called off holds nobody; planned again it would.
	require.NoError(t, b.Jobs.End(ctx, first.ID, jobs.CalledOff, 1))
	second := b.job(nil)
	err := b.Jobs.End(ctx, first.ID, jobs.Planned, 2)
	assert.Contains(t, err.Error(), "another job")
	first.Version = 2
	assert.True(t, fault.Is(b.Jobs.Save(ctx, first), "job-closed"))
	second.Version = 7
	assert.True(t, fault.Is(b.Jobs.Save(ctx, second), "stale"))
	assert.True(t, fault.Is(b.Jobs.Answer(ctx, second.ID, map[string]string{"sight": "maybe"}), "invalid"))
	assert.True(t, fault.Is(b.Jobs.Pack(ctx, second.ID, jobs.Packing{Item: "pad", Checked: true}), "invalid"),
		"checked before packed")
}

// Each thing that is wrong about a job is found in it.
func TestOneThingWrongWithAJob(t *testing.T) {
	b := setUp(t)
	for name, c := range map[string]struct {
		says   string
		change func(*jobs.Job)
	}{
		"return height not read": {"return height in the aircraft is not known",
			func(j *jobs.Job) { j.Aircraft[0].ReturnM = nil }},
		"too fast":          {"over the limit of 44.7", func(j *jobs.Job) { v := 50.0; j.Aircraft[0].SpeedMS = &v }},
		"too high":          {"the limit is 121.9 m", func(j *jobs.Job) { v := 140.0; j.Aircraft[0].RouteM = &v }},
		"nobody in command": {"Nobody is named", func(j *jobs.Job) { j.People = nil }},
		"no tank":           {"carries no tank", func(j *jobs.Job) { j.Work = "spraying" }},
		"no aircraft":       {"No aircraft is named", func(j *jobs.Job) { j.Aircraft = nil }},
		"later":             {"outside the window", func(j *jobs.Job) { j.FromAt = testbed.Noon.Add(time.Hour) }},
		"at night":          {"no night training", func(j *jobs.Job) { j.ToAt = testbed.Noon.Add(16 * time.Hour) }},
	} {
		j := b.job(c.change)
		assert.True(t, has(b.stops(j), c.says), "%s: %v", name, b.stops(j))
		got, err := b.Jobs.Get(context.Background(), j.ID)
		require.NoError(t, err)
		require.NoError(t, b.Jobs.End(b.As(b.Chief), j.ID, jobs.CalledOff, got.Version))
	}
}

func TestKitKeepsWhoPackedAndChecked(t *testing.T) {
	b := setUp(t)
	j := b.job(nil)
	require.NoError(t, b.Jobs.Pack(b.As(b.Tech), j.ID, jobs.Packing{Item: "pad", Packed: true}))
	require.NoError(t, b.Jobs.Pack(b.As(b.Pilot), j.ID, jobs.Packing{Item: "pad", Packed: true, Checked: true}))
	own := testbed.NewID().String()
	require.NoError(t, b.Jobs.Pack(b.As(b.Pilot), j.ID, jobs.Packing{Item: own, Label: "Ladder", Quantity: 1}))
	a, err := b.Jobs.Assess(b.As(b.Pilot), j.ID)
	require.NoError(t, err)
	items, err := b.Jobs.Kit(b.As(b.Pilot), a)
	require.NoError(t, err)
	i := slices.IndexFunc(items, func(k jobs.KitItem) bool { return k.ID == "pad" })
	assert.Equal(t, []string{b.Tech.Name, b.Pilot.Name}, []string{items[i].PackedBy, items[i].CheckedBy})
	assert.Equal(t, "Ladder", items[len(items)-1].Label)
	require.NoError(t, b.Jobs.Pack(b.As(b.Tech), j.ID, jobs.Packing{Item: "pad"}))
	items, err = b.Jobs.Kit(b.As(b.Pilot), a)
	require.NoError(t, err)
	assert.Nil(t, items[i].PackedAt, "taken out again")
}

// An authorisation that ends while the aircraft is in the air is said.
func TestAuthorisationEndsInFlight(t *testing.T) {
	b := setUp(t)
	ctx := b.As(b.Pilot)
	require.NoError(t, b.Airspace.Take(ctx, b.site,
		[]byte(`{"type":"FeatureCollection","covers":{"lat":46.31,"lon":-119.7,"radius_km":15},"features":[{"type":"Feature","geometry":{"type":"Polygon","coordinates":[[[-119.72,46.30],[-119.68,46.30],[-119.68,46.32],[-119.72,46.32],[-119.72,46.30]]]},"properties":{"id":"z","name":"Zone","class":"D"}}]}`)))
	j := b.job(nil)
	b.ready(j)
	assert.True(t, has(b.stops(j), "Inside Zone (D) without authorisation"))
	seen, err := b.Airspace.Over(ctx, b.site, 40, testbed.Noon, testbed.Noon.Add(time.Hour))
	require.NoError(t, err)
	zone := uuid.MustParse(seen.Zoned[0].Zone.ID)
	require.NoError(t, b.Airspace.Ask(ctx, airspace.New{ID: testbed.NewID(), Site: b.site, Zone: zone, Number: "A-1",
		CeilingM: 60, From: j.FromAt, To: j.ToAt}))
	assert.Empty(t, b.stops(j))
	ty, err := b.Fleet.Type(ctx, "lantern-4")
	require.NoError(t, err)
	verdict := func() judge.Verdict {
		alerts, err := b.Jobs.InFlight(ctx, j.ID, b.Aircraft, ty)
		require.NoError(t, err)
		return judge.Worst(alerts)
	}
	assert.Equal(t, judge.Clear, verdict())
	b.Clock.Set(j.ToAt.Add(-9 * time.Minute))
	assert.Equal(t, judge.Watch, verdict())
	b.Clock.Set(j.ToAt)
	assert.Equal(t, judge.Stop, verdict())
}

// Of two jobs that want the same aircraft at the same time, one is planned and
// the other is told why not, however close they come.
func TestTwoJobsWantOneAircraft(t *testing.T) {
	b := setUp(t)
	errs := make([]error, 6)
	var wait sync.WaitGroup
	for i := range errs {
		wait.Go(func() {
			errs[i] = b.Jobs.Save(b.As(b.Chief), jobs.Job{ID: testbed.NewID(), Work: "mapping", SiteID: b.site, Aim: "Bank",
				FromAt: testbed.Noon, ToAt: testbed.Noon.Add(time.Hour), Aircraft: []jobs.Craft{{AircraftID: b.Aircraft.ID}}})
		})
	}
	wait.Wait()
	won := 0
	for _, err := range errs {
		if err == nil {
			won++
			continue
		}
		assert.Contains(t, err.Error(), "in another job at that time")
	}
	assert.Equal(t, 1, won)
	next := jobs.Job{ID: testbed.NewID(), Work: "mapping", SiteID: b.site, Aim: "Bank",
		FromAt: testbed.Noon.Add(time.Hour), ToAt: testbed.Noon.Add(2 * time.Hour),
		Aircraft: []jobs.Craft{{AircraftID: b.Aircraft.ID}}}
	require.NoError(t, b.Jobs.Save(b.As(b.Chief), next), "the next hour is free")
	require.NoError(t, b.Jobs.Save(b.As(b.Chief), next), "the same press twice is one job")
	js, err := b.Jobs.Of(b.As(b.Chief), b.Aircraft.ID)
	require.NoError(t, err)
	assert.Len(t, js, 2)
}

// The two pages that show a job agree: what stops it on its own page stops its
// aircraft at the gate.
func TestJobAndGateAgree(t *testing.T) {
	b := setUp(t)
	j := b.job(nil)
	pk := b.Packs[0].ID
	b.Walk("walkround", []uuid.UUID{pk}, nil)
	q := b.For(j.ID, pk)
	agree := func(when string) {
		t.Helper()
		a, err := b.Flights.Ask(b.As(b.Pilot), q)
		require.NoError(t, err)
		gate := map[string]bool{}
		for _, f := range a.Output.Findings {
			gate[string(f.Rule)+": "+f.Sentence] = true
		}
		for _, s := range b.stops(j) {
			assert.True(t, gate[s], "%s: %s", when, s)
		}
	}
	agree("nothing done")
	b.ready(j)
	agree("all done")
	b.Clock.Advance(61 * time.Minute)
	agree("the weather is old")
	require.NoError(t, b.Jobs.End(b.As(b.Chief), j.ID, jobs.CalledOff, 1))
	agree("called off")
}

// A wind that is measured at the gate takes the place of an estimate by eye.
func TestMeasuredWindReplacesAnEstimate(t *testing.T) {
	b := setUp(t)
	j := b.job(func(j *jobs.Job) { j.Work, j.Product = "spraying", "Copper" })
	light, far, from := 1, 16000.0, 240.0
	hand := weather.Air{At: b.Clock.Now(), Ground: "open", WindHeightM: 2, Beaufort: &light, FromDeg: &from,
		VisibilityM: &far, CloudKnown: true, WeatherKnown: true}
	require.NoError(t, b.Sites.AddWeather(b.As(b.Pilot), b.site, sites.NewWeather{ID: testbed.NewID(), Hand: &hand}))
	assert.True(t, slices.ContainsFunc(b.all(j), func(f judge.Finding) bool {
		return strings.Contains(f.Sentence,
			"is under 1.0: dead calm")
	}))
	b.Clock.Advance(time.Minute)
	q := b.For(j.ID, b.Packs[0].ID)
	a, err := b.Flights.Ask(b.As(b.Pilot), q)
	require.NoError(t, err)
	for _, f := range a.Output.Findings {
		assert.NotContains(t, f.Sentence, "estimated by eye")
		assert.NotEqual(t, judge.RuleSprayWind, f.Rule, "3 m/s are measured: %s", f.Sentence)
	}
}

func (b bed) all(j jobs.Job) []judge.Finding {
	b.t.Helper()
	a, err := b.Jobs.Assess(b.As(b.Pilot), j.ID)
	require.NoError(b.t, err)
	return a.Common
}
