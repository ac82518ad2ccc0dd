package server_test

import (
	"archive/zip"
	"bytes"
	"fmt"
	"net/http"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/api"
	"mainstay/core/checks"
	"mainstay/core/geo"
	"mainstay/core/judge"
	"mainstay/core/site"
	"mainstay/internal/readiness"
	"mainstay/internal/testbed"
	"mainstay/internal/walkround"
)

// What a crew in a hurry tries, over HTTP.

// hurry is a stage with devices of its people, and the practice site charted
// further.
type hurry struct {
	*testbed.Stage
	t                  *testing.T
	pilot, chief, tech *testbed.Client
}

func inAHurry(t *testing.T) hurry {
	s := testbed.NewStage(t)
	base := testbed.Serve(t, s.Services)
	on := func(login string) *testbed.Client { return testbed.NewClient(t, base).SignIn(login, "long enough") }
	require.NoError(t, s.Readiness.Log(s.As(s.Chief), readiness.Practice{ID: testbed.NewID(), PersonID: s.Pilot.ID,
		TypeKey: "lantern-4", Phase: "empty", Packs: 3, Landings: 6, NoseIn: true, FlownOn: testbed.Noon.AddDate(0, -2, 0)},
		testbed.PIN))
	return hurry{s, t, on("pilot"), on("chief"), on("tech")}
}

// crew is the version of the crew's settings now.
func (h hurry) crew() int {
	c, _, err := h.People.Crew(h.As(h.Chief))
	require.NoError(h.t, err)
	return c.Version
}

// xy is a place so many metres east and north of the practice site.
func xy(east, north float64) geo.Point {
	f, _ := geo.NewFrame(geo.Point{Lat: testbed.SiteLat, Lon: testbed.SiteLon})
	return f.Point(geo.XY{X: east, Y: north})
}

// chart puts something on the map of the practice site and returns its id.
func (h hurry) chart(kind site.Kind, shape site.Shape, name string, height *float64, at ...geo.Point) string {
	h.t.Helper()
	yes := true
	f := site.Feature{ID: testbed.NewID().String(), Kind: kind, Shape: shape, Name: name, HeightM: height, Places: at}
	if kind == site.TakeOff {
		f.Ground = &site.GroundCheck{Flat: &yes, Firm: &yes, Clear: &yes, NoPlastic: &yes, NoDust: &yes, NoPeople: &yes}
	}
	require.NoError(h.t, h.Sites.SaveFeature(h.As(h.Pilot), h.Site, f, 0))
	return f.ID
}

// gate asks over HTTP and returns the answer.
func (h hurry) gate(c *testbed.Client, job uuid.UUID, packs ...uuid.UUID) api.GateAnswer {
	h.t.Helper()
	if packs == nil {
		packs = []uuid.UUID{}
	}
	a := c.Do(http.MethodPost, "/gate", m{"aircraft_id": h.Aircraft.ID, "pack_ids": packs, "job_id": job,
		"wind": m{"at": h.Clock.Now(), "steady_ms": 3, "gust_ms": 4, "measured_m": 2, "ground": "open"}})
	require.Equal(h.t, http.StatusOK, a.Status, a.Text())
	var out api.GateAnswer
	a.Into(&out)
	return out
}

func stops(fs []judge.Finding) string {
	var out []string
	for _, f := range fs {
		if f.Verdict == judge.Stop {
			out = append(out, string(f.Rule)+": "+f.Sentence)
		}
	}
	return strings.Join(out, "\n")
}

// change saves the practice job with something altered.
func (h hurry) change(job uuid.UUID, alter func(plan, craft m)) testbed.Answer {
	h.t.Helper()
	var j api.Job
	h.pilot.Do(http.MethodGet, "/jobs/"+job.String(), nil).Into(&j)
	c := j.Aircraft[0]
	craft := m{"aircraft_id": c.AircraftId, "return_m": c.ReturnM, "home_follows": c.HomeFollows, "lost_link": c.LostLink,
		"route_m": c.RouteM, "datum": c.Datum, "mass_kg": c.MassKg, "speed_ms": c.SpeedMs}
	plan := m{"work": j.Work, "site_id": j.SiteId, "aim": j.Aim, "product": j.Product, "from": j.From, "to": j.To,
		"sorties": j.Sorties, "meeting": j.Meeting, "channel": j.Channel, "version": j.Version,
		"aircraft": []m{craft}, "people": []m{{"person_id": h.Pilot.ID, "post": "rpic"},
			{"person_id": h.Chief.ID, "post": "pilot"}}, "take_off_id": j.TakeOffId, "landing_id": j.LandingId,
		"second_id": j.SecondId, "label": j.Label}
	alter(plan, craft)
	return h.pilot.Do(http.MethodPut, "/jobs/"+job.String(), plan)
}

func (h hurry) job(job uuid.UUID) api.Job {
	h.t.Helper()
	var j api.Job
	h.pilot.Do(http.MethodGet, "/jobs/"+job.String(), nil).Into(&j)
	for _, c := range j.Aircraft { // what one aircraft of it meets, too
		j.Findings = append(j.Findings, c.Findings...)
	}
	return j
}

// Another pack than the one that was looked at, no pack at all, two people at one
// item, and a finding that is walked away, given up, or looked away.
func TestWhatFliesIsWhatWasLookedAt(t *testing.T) {
	h := inAHurry(t)
	job, a, b := h.Practice(), h.Packs[0].ID, h.Packs[1].ID
	h.Walk(checks.Full, []uuid.UUID{a}, nil)
	assert.NotContains(t, stops(h.gate(h.pilot, job, a).Output.Findings), "looked at")
	assert.Contains(t, stops(h.gate(h.pilot, job, b).Output.Findings), "A2 was not looked at on the last check")

	h.Fly(checks.Full, a, 300)
	h.Charge(a)
	h.Walk(checks.Turnaround, nil, nil)
	assert.Contains(t, stops(h.gate(h.pilot, h.Practice(), b).Output.Findings), "A2 was not looked at",
		"a turnaround without a pack opens the gate for none")

	start := func() string {
		id := testbed.NewID().String()
		got := h.pilot.Do(http.MethodPost, "/walkrounds", m{"id": id, "aircraft_id": h.Aircraft.ID, "kind": "walkround",
			"pack_ids": []uuid.UUID{b}})
		require.Equal(t, http.StatusCreated, got.Status, got.Text())
		return "/walkrounds/" + id
	}
	enter := func(c *testbed.Client, walk, item string, value m) {
		got := c.Do(http.MethodPut, walk+"/entries", m{"entries": []m{{"item_id": item, "value": value}}})
		require.Equal(t, http.StatusOK, got.Status, got.Text())
	}
	crack := m{"look": "defect", "wrong": []string{"arm-2"}, "note": "crack at the hinge of arm 2"}
	walk := start()
	enter(h.pilot, walk, "corner-2", crack)
	h.Clock.Advance(2 * time.Minute)
	enter(h.chief, walk, "corner-2", m{"look": "ok"})
	var run api.Walkround
	h.pilot.Do(http.MethodGet, walk, nil).Into(&run)
	require.Len(t, run.Entries, 1)
	assert.Equal(t, judge.Stop, run.Entries[0].Judgement.Verdict, "the worse of two people's counts")
	require.Len(t, run.Entries[0].Others, 1, "and both are kept")
	require.Equal(t, http.StatusNoContent, h.pilot.Do(http.MethodDelete, walk, nil).Status, "given up")
	assert.Contains(t, stops(h.gate(h.pilot, h.Practice(), b).Output.Findings), "crack at the hinge of arm 2",
		"giving up does not lose what was seen")

	h.Walk(checks.Full, []uuid.UUID{b}, nil)
	assert.Contains(t, stops(h.gate(h.pilot, h.Practice(), b).Output.Findings), "crack at the hinge of arm 2",
		"nor does walking again with all in order")
	var list api.Defects
	h.pilot.Do(http.MethodGet, "/defects", nil).Into(&list)
	at := "/defects/" + list.Defects[0].Id.String() + "/settle"
	assert.Equal(t, http.StatusForbidden, h.pilot.Do(http.MethodPost, at,
		m{"note": "looks fine to me", "pin": testbed.PIN}).Status, "a pilot does not look it away")
	assert.Equal(t, http.StatusUnprocessableEntity, h.tech.Do(http.MethodPost, at,
		m{"note": "new arm fitted", "pin": "9999"}).Status)
	assert.Equal(t, http.StatusNoContent, h.tech.Do(http.MethodPost, at,
		m{"note": "new arm fitted", "pin": testbed.PIN}).Status)
	assert.NotContains(t, stops(h.gate(h.pilot, h.Practice(), b).Output.Findings), "crack")
}

// A slip of the hand is no defect; what stood longer is.
func TestSlipOfTheHand(t *testing.T) {
	h := inAHurry(t)
	for _, c := range []struct {
		after time.Duration
		want  bool
	}{{20 * time.Second, false}, {2 * time.Minute, true}} {
		h.Clock.Advance(time.Hour)
		sh, err := h.Walkrounds.Start(h.As(h.Pilot), walkround.New{ID: testbed.NewID(), Aircraft: h.Aircraft.ID,
			Round: checks.Full})
		require.NoError(t, err)
		put := func(value m) {
			require.Equal(t, http.StatusOK, h.pilot.Do(http.MethodPut, "/walkrounds/"+sh.ID.String()+"/entries",
				m{"entries": []m{{"item_id": "corner-1", "value": value}}}).Status)
		}
		put(m{"look": "defect", "wrong": []string{"arm-1"}, "note": "play"})
		h.Clock.Advance(c.after)
		put(m{"look": "ok"})
		require.Equal(t, http.StatusNoContent, h.pilot.Do(http.MethodDelete, "/walkrounds/"+sh.ID.String(), nil).Status)
		var n int64
		require.NoError(t, h.DB.Raw("select count(*) from defects where closed_at is null").Scan(&n).Error)
		assert.Equal(t, c.want, n == 1, "changed after %s", c.after)
	}
}

// A level that is typed does not charge a pack: its cells are held against it.
func TestLevelIsHeldAgainstTheCells(t *testing.T) {
	h := inAHurry(t)
	job, id := h.Practice(), h.Packs[0].ID
	read := func(mv int, level float64) {
		cells := []int{mv, mv, mv, mv, mv, mv}
		a := h.pilot.Do(http.MethodPost, "/packs/"+id.String()+"/readings",
			m{"id": testbed.NewID(), "cell_mv": cells, "rested_min": nil, "percent": level, "temperature_c": 21})
		require.Less(t, a.Status, 300, a.Text())
	}
	said := func() string { return stops(h.gate(h.pilot, job, id).Output.Findings) }
	read(4340, 99)
	assert.NotContains(t, said(), "It shows")
	h.Clock.Advance(time.Minute)
	read(3700, 99)
	assert.Contains(t, said(), "It shows 99 %, but with cell 1 at 3.70 V it holds at most 65 %")
	h.Clock.Advance(time.Minute)
	read(3700, 55)
	assert.NotContains(t, said(), "It shows", "they agree, and it is under its launch level")
	assert.Contains(t, said(), "Charge is 55 %")
}

// A defect that is put off and found worse is no longer put off.
func TestWorseEndsADeferral(t *testing.T) {
	h := inAHurry(t)
	show := func(v judge.Verdict, note string) {
		require.NoError(t, h.Walkrounds.Found(h.As(h.Pilot), h.DB, "Quad one",
			walkround.Defect{AircraftID: h.Aircraft.ID, Station: "sensor", Title: "Lens marked", Note: note,
				Severity: v.String(), Origin: walkround.ByFlight, Item: "flight/lens"}))
	}
	show(judge.Watch, "Scratch of 1 mm.")
	var list api.Defects
	h.tech.Do(http.MethodGet, "/defects", nil).Into(&list)
	require.Len(t, list.Defects, 1)
	put := h.tech.Do(http.MethodPost, "/deferrals", m{"id": testbed.NewID(), "aircraft_id": h.Aircraft.ID,
		"defect_id": list.Defects[0].Id, "task_id": "", "days": 5, "reason": "lens on order", "pin": testbed.PIN})
	require.Less(t, put.Status, 300, put.Text())
	show(judge.Watch, "Scratch of 2 mm.")
	gate := func() string { return stops(h.gate(h.pilot, h.Practice(), h.Packs[0].ID).Output.Findings) }
	assert.NotContains(t, gate(), "Lens marked", "it is put off")
	show(judge.Stop, "Lens broken.")
	assert.Contains(t, gate(), "Lens marked", "a deferral of something small does not cover something large")
	h.tech.Do(http.MethodGet, "/defects", nil).Into(&list)
	assert.Equal(t, "Scratch of 1 mm. Scratch of 2 mm. Lens broken.", list.Defects[0].Note,
		"nothing that was seen is lost")
}

// The job is altered until it seems to fit.
func TestTheFlightAsItWillBeFlown(t *testing.T) {
	h := inAHurry(t)
	job := h.Practice()
	h.Walk(checks.Full, []uuid.UUID{h.Packs[0].ID}, nil)
	assert.Empty(t, stops(h.gate(h.pilot, job, h.Packs[0].ID).Output.Findings))
	says := func(alter func(plan, craft m)) string {
		a := h.change(job, alter)
		require.Less(t, a.Status, 300, a.Text())
		return stops(h.gate(h.pilot, job, h.Packs[0].ID).Output.Findings)
	}
	high := func(v float64, datum string) func(plan, craft m) {
		return func(_, craft m) { craft["route_m"], craft["datum"], craft["return_m"] = v, datum, 40 }
	}
	assert.Contains(t, says(high(105, "take-off")), "how it is flown changed: Quad one: returns at 40 m, route at 105 m",
		"nobody flies on an old briefing")
	strong := h.pilot.Do(http.MethodPost, "/gate", m{"aircraft_id": h.Aircraft.ID, "pack_ids": []uuid.UUID{h.Packs[0].ID},
		"job_id": job, "wind": m{"at": h.Clock.Now(), "steady_ms": 7, "gust_ms": 9, "measured_m": 2, "ground": "open"}})
	var g api.GateAnswer
	strong.Into(&g)
	assert.Contains(t, stops(g.Output.Findings), "at 105 m, the limit is", "the wind up there, not at the usual height")
	assert.Contains(t, says(high(122, "take-off")), "goes 122 m above the ground, the limit is")
	assert.Contains(t, says(high(testbed.SiteM+123, "sea")), "goes 123 m above the ground, the limit is",
		"counted from the sea")
	assert.Contains(t, says(high(2, "ground")), "3.0 m are kept for this work")
	assert.Contains(t, says(func(_, craft m) {
		craft["route_m"], craft["datum"], craft["return_m"] = 30, "take-off",
			130
	}), "goes 130 m above the ground, the limit is", "the return at its setting")
	assert.Contains(t, says(func(_, craft m) { craft["return_m"], craft["mass_kg"] = 40, 7.6 }),
		"It takes off with 7.6 kg; the type takes 7.5 kg.")
	for field, bad := range map[string]any{"mass_kg": -1, "route_m": 1e9, "return_m": -5, "datum": "moon",
		"speed_ms": "fast"} {
		a := h.change(job, func(_, craft m) { craft["mass_kg"], craft[field] = nil, bad })
		assert.Equal(t, http.StatusUnprocessableEntity, a.Status, "%s: %s", field, a.Text())
	}
	// Where it lands, and where else it may, are part of the flight.
	meadow := h.chart(site.TakeOff, site.Point, "Meadow", nil, xy(0, -150))
	h.chart(site.Obstacle, site.Line, "Poplars", ptr(50.0), xy(-150, -80), xy(250, -80))
	none := func(plan, craft m) { craft["mass_kg"], craft["route_m"], craft["return_m"] = nil, 30, 40 }
	assert.NotContains(t, says(none), "Poplars")
	assert.Contains(t, says(func(plan, craft m) { none(plan, craft); plan["landing_id"] = meadow }), "Poplars",
		"the way to where it lands")
	assert.Contains(t, says(func(plan, craft m) { plan["landing_id"], plan["second_id"] = nil, meadow }),
		"To the second landing place Meadow it needs")
	zone := `{"type":"FeatureCollection","covers":{"lat":46.31,"lon":-119.7,"radius_km":15},"features":[{"type":"Feature","id":"r1","geometry":{"type":"Polygon","coordinates":[[` +
		ring(xy(-100,
			-140), xy(200, -140), xy(200, -100), xy(-100, -100)) + `]]},"properties":{"name":"Range","class":"restricted"}}]}`
	require.NoError(t, h.Airspace.Take(h.As(h.Pilot), h.Site, []byte(zone)))
	assert.Contains(t, says(func(plan, _ m) {}), "Inside Range", "a zone under the way to the second landing place")
	assert.NotContains(t, says(func(plan, _ m) { plan["second_id"] = nil }), "Inside Range")

	// Marks that open doors.
	other := m{"id": testbed.NewID(), "name": "Client's field", "note": "", "lat": 46.4, "lon": -119.7, "elevation_m": 200,
		"version": 0, "practice": true}
	assert.Equal(t, http.StatusForbidden, h.pilot.Do(http.MethodPost, "/sites", other).Status,
		"only a chief says where practice is flown")
	other["practice"] = false
	assert.Equal(t, http.StatusCreated, h.pilot.Do(http.MethodPost, "/sites", other).Status)
	other["practice"], other["version"] = true, 1
	assert.Equal(t, http.StatusForbidden, h.pilot.Do(http.MethodPut, fmt.Sprint("/sites/", other["id"]), other).Status)
	a := h.change(job, func(plan, _ m) { plan["site_id"] = other["id"] })
	assert.GreaterOrEqual(t, a.Status, 400, "practice elsewhere than at a practice site: %s", a.Text())
}

// A decision about the way: who may, once from forty presses, void when what it
// rests on changes, and never of a kind that nothing offers.
func TestDecisionsAboutTheWay(t *testing.T) {
	h := inAHurry(t)
	job := h.Practice()
	h.Walk(checks.Full, []uuid.UUID{h.Packs[0].ID}, nil)
	wires := h.chart(site.Wires, site.Line, "Wires", ptr(20.0), xy(-60, 50), xy(60, 50))
	flies := func() api.Job { return h.job(job) }
	h.change(job, func(_, craft m) { craft["route_m"], craft["return_m"] = 25, 40 })
	assert.Contains(t, stops(flies().Findings), "From take-off to the start of the route")
	at := "/jobs/" + job.String() + "/decisions"
	by := func(c *testbed.Client, id uuid.UUID, kind, reason string) testbed.Answer {
		return c.Do(http.MethodPost, at, m{"id": id, "aircraft_id": h.Aircraft.ID, "kind": kind, "reason": reason})
	}
	assert.Equal(t, http.StatusForbidden, by(h.tech, testbed.NewID(), "by-hand", "it will do").Status)
	assert.Equal(t, http.StatusUnprocessableEntity, by(h.pilot, testbed.NewID(), "by-hand", "  ").Status,
		"without a reason")
	assert.Equal(t, http.StatusConflict, by(h.pilot, testbed.NewID(), "level-ground", "looks level").Status,
		"nothing offers that")
	assert.GreaterOrEqual(t, by(h.pilot, testbed.NewID(), "ignore-it", "looks free").Status, 400)

	id := testbed.NewID()
	var all sync.WaitGroup
	said := make([]int, 40)
	for i := range said {
		all.Go(func() {
			said[i] = by(h.pilot, id, "by-hand", "looked from both ends, flown by hand over the gap").Status
		})
	}
	all.Wait()
	for _, s := range said {
		assert.Contains(t, []int{http.StatusCreated, http.StatusTooManyRequests}, s, "the same press, however often")
	}
	j := flies()
	require.Len(t, j.Decisions, 1)
	assert.NotContains(t, stops(j.Findings), "From take-off to the start of the route")
	var kept string
	for _, f := range j.Findings {
		if strings.HasPrefix(f.Sentence, "From take-off to the start of the route") {
			kept = f.Verdict.String() + " " + f.Sentence
		}
	}
	assert.Contains(t, kept, "watch ", "it stays in sight")
	assert.Contains(t, kept, "Decided by pilot person at ")
	assert.Contains(t, stops(j.Findings), "The briefing no longer holds", "and everybody is told")

	// It rests on what stood there.
	var file api.Site
	h.pilot.Do(http.MethodGet, "/sites/"+h.Site.String(), nil).Into(&file)
	for _, f := range file.Features {
		if f.Feature.ID == wires {
			f.Feature.HeightM = ptr(23.0)
			require.Less(t, h.pilot.Do(http.MethodPut, "/sites/"+h.Site.String()+"/features/"+wires,
				m{"feature": f.Feature, "version": f.Version}).Status, 300)
		}
	}
	assert.Contains(t, stops(flies().Findings), "no longer holds: the flight has changed")
	require.Equal(t, http.StatusCreated, by(h.pilot, testbed.NewID(), "way-round", "the dog-leg is clear").Status)
	assert.NotContains(t, stops(flies().Findings), "From take-off to the start of the route")
	var n int64
	require.NoError(t, h.DB.Raw("select count(*) from records where kind = 'decision'").Scan(&n).Error)
	assert.EqualValues(t, 2, n, "both are on record")

	// Taken back, it counts no longer, stays on file, and is taken back once.
	round := flies().Decisions[1].Id.String()
	back := func(c *testbed.Client, id, why string) int {
		return c.Do(http.MethodPost, at+"/"+id+"/withdraw", m{"reason": why}).Status
	}
	assert.Equal(t, http.StatusForbidden, back(h.tech, round, "not mine"))
	assert.Equal(t, http.StatusUnprocessableEntity, back(h.pilot, round, "   "), "without a reason")
	assert.Equal(t, http.StatusNotFound, back(h.pilot, testbed.NewID().String(), "no such one"))
	for range 2 {
		assert.Equal(t, http.StatusNoContent, back(h.pilot, round, "a trailer stands in the dog-leg"))
	}
	j = flies()
	assert.Contains(t, stops(j.Findings), "From take-off to the start of the route")
	require.Len(t, j.Decisions, 2)
	require.NotNil(t, j.Decisions[1].Withdrawn)
	assert.Equal(t, "pilot person", j.Decisions[1].Withdrawn.By)
	assert.Equal(t, "a trailer stands in the dog-leg", j.Decisions[1].Withdrawn.Why)
	require.NoError(t, h.DB.Raw("select count(*) from records where kind = 'decision'").Scan(&n).Error)
	assert.EqualValues(t, 3, n)
	require.Equal(t, http.StatusCreated, by(h.pilot, testbed.NewID(), "way-round", "the trailer has gone").Status,
		"and can be taken anew")
	assert.NotContains(t, stops(flies().Findings), "From take-off to the start of the route")
}

// Files and answers that say less than they seem to.
func TestZonesThatSayLess(t *testing.T) {
	h := inAHurry(t)
	at := "/sites/" + h.Site.String() + "/airspace/import"
	looked := func() bool {
		var a api.Airspace
		h.pilot.Do(http.MethodGet, "/sites/"+h.Site.String()+"/airspace", nil).Into(&a)
		return a.LookedAt != nil
	}
	h.DB.Exec("delete from site_airspace")
	for name, file := range map[string]string{
		"nothing":              `{"type":"FeatureCollection","features":[]}`,
		"a circle of 100 m":    `{"type":"FeatureCollection","covers":{"lat":46.31,"lon":-119.7,"radius_km":0.1},"features":[]}`,
		"another district":     `{"type":"FeatureCollection","covers":{"lat":47.31,"lon":-119.7,"radius_km":15},"features":[]}`,
		"no radius":            `{"type":"FeatureCollection","covers":{"lat":46.31,"lon":-119.7},"features":[]}`,
		"a radius of the moon": `{"type":"FeatureCollection","covers":{"lat":46.31,"lon":-119.7,"radius_km":1e9},"features":[]}`,
		"no file of zones":     `{"hello":"zones"}`,
		"cut off":              `{"type":"FeatureCollection","features":[`,
	} {
		a := h.pilot.Do(http.MethodPost, at, file)
		assert.Equal(t, http.StatusUnprocessableEntity, a.Status, "%s: %s", name, a.Text())
		assert.False(t, looked(), name)
	}
	far := `{"type":"FeatureCollection","features":[{"type":"Feature","geometry":{"type":"Polygon","coordinates":[[` +
		ring(xy(90_000,
			0), xy(91_000, 0), xy(91_000, 1000)) + `]]},"properties":{"name":"Far","class":"D"}}]}`
	assert.Equal(t, http.StatusOK, h.pilot.Do(http.MethodPost, at, far).Status)
	assert.False(t, looked(), "zones of elsewhere say nothing about this place")
	assert.Equal(t, http.StatusOK, h.pilot.Do(http.MethodPost, at,
		string(testbed.NoZones(testbed.SiteLat, testbed.SiteLon))).Status)
	assert.True(t, looked())
}

// Reports that cannot be read are not fine weather, an old one brought in later is
// not fresher, and one of tomorrow is none.
func TestWeatherThatSaysLess(t *testing.T) {
	h := inAHurry(t)
	at := "/sites/" + h.Site.String() + "/weather"
	put := func(report string) testbed.Answer {
		return h.pilot.Do(http.MethodPost, at, m{"id": testbed.NewID(), "ground": "open", "report": report,
			"station_m": testbed.SiteM, "station_km": 12})
	}
	var s api.Sky
	sky := func() string {
		s = api.Sky{}
		h.pilot.Do(http.MethodGet, at+"?aircraft="+h.Aircraft.ID.String()+"&work=inspection&ground=open", nil).Into(&s)
		return stops(s.Findings)
	}
	fine := func(sky string) string { return "METAR KZZT 101638Z 24006KT 10SM " + sky + " 16/06 A3000" }
	minute := 0
	newer := func(report string) string { // each a minute newer than the last
		minute++
		h.Clock.Advance(time.Minute)
		return strings.Replace(report, "101638Z", h.Clock.Now().UTC().Format("021504")+"Z", 1)
	}
	require.Less(t, put(newer(fine("CLR"))).Status, 300)
	assert.Empty(t, sky())
	for report, want := range map[string]string{
		fine("OVC0O8"):        "The cloud is not known",
		fine("//////"):        "The cloud is not known",
		fine("+T5RA CLR"):     "is not known: part of the weather cannot be read",
		fine("// CLR"):        "is not known",
		fine("TSRA OVC020"):   "Reported: TSRA",
		fine("VCTS CLR"):      "Reported: VCTS",
		fine("1500SW OVC050"): "",
	} {
		require.Less(t, put(newer(report)).Status, 300, report)
		if want != "" {
			assert.Contains(t, sky(), want, report)
		}
	}
	require.Less(t, put(newer(fine("CLR"))).Status, 300)
	assert.Empty(t, sky())
	h.Clock.Advance(time.Second)
	require.Less(t, put(fine("TSRA OVC020")).Status, 300, "an old report is kept")
	assert.Empty(t, sky(), "and is not fresher than the newer one")
	require.NotNil(t, s.LateAt, "which is said")
	assert.Equal(t, "1638", s.LateAt.Format("1504"))
	require.Less(t, put(newer(fine("CLR"))).Status, 300)
	assert.Empty(t, sky())
	assert.Nil(t, s.LateAt)
	assert.Equal(t, http.StatusUnprocessableEntity, put("METAR KZZT 102038Z 24006KT 10SM CLR 16/06 A3000").Status,
		"of tonight")
	late := h.pilot.Do(http.MethodPost, at, m{"id": testbed.NewID(), "ground": "open",
		"hand": m{"at": h.Clock.Now().Add(3 * time.Hour), "wind_height_m": 2, "ground": "open", "cloud_known": true,
			"wind_ms": 1}})
	assert.Equal(t, http.StatusUnprocessableEntity, late.Status, "a clock three hours ahead")
}

// Under another law nothing cites the first one.
func TestOneLawOverHTTP(t *testing.T) {
	h := inAHurry(t)
	job := h.Practice()
	h.Walk(checks.Full, []uuid.UUID{h.Packs[0].ID}, nil)
	for _, pack := range []struct{ name, foreign string }{{"us-small", "(EU)"}, {"eu-specific", "CFR"}} {
		a := h.chief.Do(http.MethodPut, "/rules", m{"pack": pack.name, "sight_m": 500, "version": h.crew()})
		require.Less(t, a.Status, 300, a.Text())
		for _, path := range []string{"/jobs/" + job.String(),
			"/sites/" + h.Site.String() + "/way-home?aircraft=" + h.Aircraft.ID.String(),
			"/sites/" + h.Site.String() + "/weather?aircraft=" + h.Aircraft.ID.String() + "&work=inspection&ground=open",
			"/sites/" + h.Site.String() + "/airspace", "/day", "/fitness", "/jobs/" + job.String()} {
			got := h.pilot.Do(http.MethodGet, path, nil)
			require.Equal(t, http.StatusOK, got.Status, "%s: %s", path, got.Text())
			assert.NotContains(t, got.Text(), pack.foreign, "%s under %s", path, pack.name)
		}
		g := h.pilot.Do(http.MethodPost, "/gate", m{"aircraft_id": h.Aircraft.ID, "pack_ids": []uuid.UUID{h.Packs[0].ID},
			"job_id": job, "wind": nil})
		assert.NotContains(t, g.Text(), pack.foreign, pack.name)
	}
}

// Gear of the aircraft stops its gate, and what was found on it is not looked
// away by who is in a hurry.
func TestGearIsNotLookedAway(t *testing.T) {
	h := inAHurry(t)
	id := testbed.NewID()
	gear := m{"id": id, "name": "Controller 1", "kind": "controller", "minimum": 60, "active": true,
		"aircraft_id": h.Aircraft.ID, "version": 0}
	require.Less(t, h.tech.Do(http.MethodPut, "/gear", gear).Status, 300)
	gate := func() string { return stops(h.gate(h.pilot, h.Practice(), h.Packs[0].ID).Output.Findings) }
	look := func(c *testbed.Client, found string) int {
		return c.Do(http.MethodPost, "/gear/"+id.String()+"/look", m{"found": found}).Status
	}
	assert.Contains(t, gate(), "Nobody has looked at it")
	require.Equal(t, http.StatusNoContent, h.pilot.Do(http.MethodPost, "/gear/"+id.String()+"/level",
		m{"level": 80}).Status)
	require.Equal(t, http.StatusNoContent, look(h.pilot, ""))
	assert.NotContains(t, gate(), "gear: ")
	require.Equal(t, http.StatusNoContent, look(h.pilot, "swollen at the back"))
	assert.Equal(t, http.StatusForbidden, look(h.pilot, " "))
	require.Equal(t, http.StatusNoContent, look(h.pilot, "strap loose"))
	assert.Contains(t, gate(), "swollen at the back; strap loose")
	assert.Equal(t, http.StatusForbidden, h.pilot.Do(http.MethodPut, "/gear", gear).Status, "nor taken off the aircraft")
	require.Equal(t, http.StatusNoContent, look(h.tech, ""))
	assert.NotContains(t, gate(), "gear: ")
	h.Clock.Advance(25 * time.Hour)
	assert.Contains(t, gate(), "gear: ")
}

// Gear of a job stops its gate like gear of the aircraft: a charger is looked at, a
// base station has its level too; what is not on file is refused.
func TestGearOfAJob(t *testing.T) {
	h := inAHurry(t)
	job := h.Practice()
	rack, base := testbed.NewID(), testbed.NewID()
	for id, kind := range map[uuid.UUID]string{rack: "charger", base: "base-station"} {
		require.Less(t, h.tech.Do(http.MethodPut, "/gear", m{"id": id, "name": "The " + kind, "kind": kind, "minimum": 60,
			"active": true, "aircraft_id": nil, "version": 0}).Status, 300)
	}
	gate := func() string { return stops(h.gate(h.pilot, job, h.Packs[0].ID).Output.Findings) }
	depends := func(ids ...uuid.UUID) testbed.Answer {
		return h.change(job, func(plan, _ m) { plan["gear_ids"] = ids })
	}
	assert.NotContains(t, gate(), "The charger", "no gear of this job")
	assert.Equal(t, http.StatusUnprocessableEntity, depends(rack, testbed.NewID()).Status)
	require.Less(t, depends(rack, base, rack).Status, 300)
	assert.Len(t, h.job(job).Gear, 2)
	assert.Contains(t, gate(), "The charger")
	for _, id := range []uuid.UUID{rack, base} {
		require.Equal(t, http.StatusNoContent, h.pilot.Do(http.MethodPost, "/gear/"+id.String()+"/look",
			m{"found": ""}).Status)
	}
	assert.NotContains(t, gate(), "The charger", "it holds no charge of its own")
	for _, list := range []string{"/gear", "/evenings/2026-06-11"} {
		a := h.pilot.Do(http.MethodGet, list, nil)
		require.Equal(t, http.StatusOK, a.Status, a.Text())
		assert.Contains(t, a.Text(), "Looked at.", list)
	}
	// An older tablet, or a service that does not know of gear and links, leaves both as they are.
	require.Less(t, h.change(job, func(plan, craft m) { delete(plan, "gear_ids"); delete(craft, "lost_link") }).Status,
		300)
	assert.Len(t, h.job(job).Gear, 2)
	assert.EqualValues(t, "return", h.job(job).Aircraft[0].LostLink)
	assert.Contains(t, gate(), "The base-station", "its level was never read")
	require.Equal(t, http.StatusNoContent, h.pilot.Do(http.MethodPost, "/gear/"+base.String()+"/level",
		m{"level": 80}).Status)
	assert.NotContains(t, gate(), "gear: ")
	require.Equal(t, http.StatusNoContent, h.pilot.Do(http.MethodPost, "/gear/"+rack.String()+"/look",
		m{"found": "fan stands still"}).Status)
	assert.Contains(t, gate(), "fan stands still")

	// What stops the job is not taken off it, but changed for another of its kind.
	off := depends(base)
	assert.Equal(t, http.StatusConflict, off.Status)
	assert.Contains(t, off.Text(), "The charger stops this job: The last look found: fan stands still.")
	assert.Contains(t, gate(), "fan stands still")
	other := testbed.NewID()
	require.Less(t, h.tech.Do(http.MethodPut, "/gear", m{"id": other, "name": "Another charger", "kind": "charger",
		"minimum": 60, "active": true, "aircraft_id": nil, "version": 0}).Status, 300)
	require.Less(t, depends(base, other).Status, 300)
	assert.Contains(t, gate(), "Another charger", "which is judged like the first")
	require.Equal(t, http.StatusNoContent, h.pilot.Do(http.MethodPost, "/gear/"+other.String()+"/look",
		m{"found": ""}).Status)
	assert.NotContains(t, gate(), "gear: ")
	require.Less(t, depends(other).Status, 300, "what is in order may go")
}

// A file of another program: what it would become is said before anything is
// taken, packed or plain.
func TestFileOfAnotherProgram(t *testing.T) {
	h := inAHurry(t)
	kml := `<kml xmlns="http://www.opengis.net/kml/2.2"><Document><Folder>
		<Placemark><name>Bull paddock</name><ExtendedData><SchemaData schemaUrl="#s"><SimpleData name="zone_class">keep out</SimpleData></SchemaData></ExtendedData>
			<MultiGeometry><Polygon><outerBoundaryIs><LinearRing><coordinates>-119.701,46.311 -119.700,46.311 -119.700,46.312 -119.701,46.311</coordinates></LinearRing></outerBoundaryIs></Polygon>
			<MultiGeometry><Polygon><outerBoundaryIs><LinearRing><coordinates>-119.703,46.311 -119.702,46.311 -119.702,46.312 -119.703,46.311</coordinates></LinearRing></outerBoundaryIs></Polygon></MultiGeometry></MultiGeometry></Placemark>
		<Placemark><name>Line to the pump</name><ExtendedData><Data name="kind"><value>wires</value></Data></ExtendedData><LineString><coordinates>-119.70,46.311 -119.70,46.313</coordinates></LineString></Placemark>
		<Placemark><name>Pond</name><ExtendedData><Data name="kind"><value>pond</value></Data></ExtendedData><Point><coordinates>-119.70,46.31</coordinates></Point></Placemark>
	</Folder></Document></kml>`
	var packed bytes.Buffer
	z := zip.NewWriter(&packed)
	w, err := z.Create("doc.kml")
	require.NoError(t, err)
	_, err = w.Write([]byte(kml))
	require.NoError(t, err)
	require.NoError(t, z.Close())
	count := func() (n int64) {
		require.NoError(t, h.DB.Raw("select count(*) from site_features").Scan(&n).Error)
		return n
	}
	before, at := count(), "/sites/"+h.Site.String()+"/import?format=kml"
	for name, file := range map[string]string{"plain": kml, "packed": packed.String()} {
		a := h.pilot.Do(http.MethodPost, at+"&look=true", file)
		require.Equal(t, http.StatusOK, a.Status, "%s: %s", name, a.Text())
		var rep api.ImportReport
		a.Into(&rep)
		assert.Equal(t, 3, rep.Accepted, name)
		require.Len(t, *rep.Features, 3, name)
		for _, f := range *rep.Features {
			assert.Equal(t, f.Name == "Bull paddock", f.Guessed, f.Name)
			if f.Guessed {
				assert.Equal(t, "area", f.Kind, "it says that it would be taken for the work")
				assert.Equal(t, []string{"zone_class"}, f.Unread)
			}
		}
		require.Len(t, rep.Refused, 1)
		assert.Contains(t, rep.Refused[0].Sentence, "Pond")
		assert.Equal(t, before, count(), "a look saves nothing")
	}
	require.Equal(t, http.StatusOK, h.pilot.Do(http.MethodPost, at, packed.String()).Status)
	assert.Equal(t, before+3, count())
	assert.Equal(t, http.StatusUnprocessableEntity, h.pilot.Do(http.MethodPost, at, packed.String()[:200]).Status,
		"cut off")
}

func ptr[T any](v T) *T { return &v }

// ring is an outline as GeoJSON writes it.
func ring(ps ...geo.Point) string {
	var out []string
	for _, p := range append(ps, ps[0]) {
		out = append(out, fmt.Sprintf("[%.7f,%.7f]", p.Lon, p.Lat))
	}
	return strings.Join(out, ",")
}

// What is attached, which lights burn and how it identifies itself is answered for
// each aircraft: the answer of one is none for another.
func TestEachAircraftAnswersForItself(t *testing.T) {
	h := inAHurry(t)
	job := h.Practice()
	second := testbed.NewID()
	a := h.chief.Do(http.MethodPost, "/aircraft", m{"id": second, "type_key": "lantern-4", "name": "Kite", "serial": "K-1",
		"registration": "K-1", "registration_expires": "2028-01-01", "fit_new_parts": true, "mass_kg": nil,
		"weighed_on": nil})
	require.Equal(t, http.StatusCreated, a.Status, a.Text())
	open := func() (out []string) {
		for _, q := range h.job(job).Asks {
			if q.Option == "" {
				out = append(out, q.Id)
			}
		}
		return out
	}
	require.Empty(t, open())
	a = h.change(job, func(plan, craft m) {
		other := m{}
		for k, v := range craft {
			other[k] = v
		}
		other["aircraft_id"] = second
		plan["aircraft"] = []m{craft, other}
	})
	require.Less(t, a.Status, 300, a.Text())
	assert.ElementsMatch(t, []string{"attached@" + second.String(), "remote-id@" + second.String()}, open())
	assert.NotContains(t, stops(h.gate(h.pilot, job, h.Packs[0].ID).Output.Findings), "How does it identify itself?")
	said := func(ask string) testbed.Answer {
		return h.pilot.Do(http.MethodPut, "/jobs/"+job.String()+"/answers", m{"answers": []m{{"ask": ask, "option": "none"}}})
	}
	for _, bad := range []string{"attached", "attached@" + testbed.NewID().String(), "attached@",
		"landowner@" + second.String()} {
		assert.Equal(t, http.StatusUnprocessableEntity, said(bad).Status, bad)
	}
	require.Less(t, said("attached@"+second.String()).Status, 300)
	assert.Equal(t, []string{"remote-id@" + second.String()}, open())
}
