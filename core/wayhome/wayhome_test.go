package wayhome_test

import (
	"math"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/airframe"
	"mainstay/core/geo"
	"mainstay/core/home"
	"mainstay/core/intent"
	"mainstay/core/judge"
	"mainstay/core/rules"
	"mainstay/core/site"
	"mainstay/core/wayhome"
	"mainstay/core/weather"
)

var depot = geo.Point{Lat: 46.31, Lon: -119.70}

func f(v float64) *float64 { return &v }

// bed is a chart in metres from the depot.
type bed struct {
	t     *testing.T
	frame geo.Frame
	q     wayhome.Question
}

func setUp(t *testing.T) *bed {
	frame, err := geo.NewFrame(depot)
	require.NoError(t, err)
	b := &bed{t: t, frame: frame}
	b.q = wayhome.Question{Type: airframe.Type{Geometry: airframe.Geometry{Kind: airframe.Multirotor},
		Limits: airframe.Limits{FlightHeightM: 30, SpeedMS: 15, LaunchPercent: 95, LandByPercent: 25, PlannedMinutes: 20}},
		TypeKnown: true,
		Law:       rules.USSmall.Law, Flight: intent.Flight{Work: "inspection", ReturnM: f(30)}}
	b.q.Chart = wayhome.Chart{Frame: frame, ElevationM: new(200.0),
		Terrain: b.terrain(func(_, _ float64) float64 { return 200 })}
	b.put("start", site.TakeOff, site.Point, nil, [2]float64{0, 0})
	b.put("line", site.Route, site.Line, nil, [2]float64{0, 50}, [2]float64{0, 200})
	return b
}

// terrain is a grid of 5 m over 1 km each way.
func (b *bed) terrain(at func(x, y float64) float64) *home.Terrain {
	const n, cell = 401, 5.0
	t := &home.Terrain{Origin: geo.XY{X: -1000, Y: -1000}, CellM: cell, Columns: n, Rows: n}
	for r := range n {
		for c := range n {
			t.Heights = append(t.Heights, float32(at(-1000+float64(c)*cell, -1000+float64(r)*cell)))
		}
	}
	return t
}

func (b *bed) put(id string, kind site.Kind, shape site.Shape, h *float64, xy ...[2]float64) *site.Feature {
	x := site.Feature{ID: id, Name: id, Kind: kind, Shape: shape, HeightM: h}
	for _, p := range xy {
		x.Places = append(x.Places, b.frame.Point(geo.XY{X: p[0], Y: p[1]}))
	}
	b.q.Chart.Features = append(b.q.Chart.Features, x)
	return &b.q.Chart.Features[len(b.q.Chart.Features)-1]
}

func (b *bed) reckon() wayhome.Answer {
	b.t.Helper()
	a, err := wayhome.Reckon(b.q)
	require.NoError(b.t, err)
	return a
}

func says(a wayhome.Answer, rule judge.Rule) string {
	var out []string
	for _, x := range a.Findings {
		if rule == "" || x.Rule == rule {
			out = append(out, x.Verdict.String()+": "+x.Sentence)
		}
	}
	return strings.Join(out, "\n")
}

func find(a wayhome.Answer, rule judge.Rule, part string) *judge.Finding {
	for i := range a.Findings {
		if a.Findings[i].Rule == rule && strings.Contains(a.Findings[i].Sentence, part) {
			return &a.Findings[i]
		}
	}
	return nil
}

func TestAFreeWay(t *testing.T) {
	a := setUp(t).reckon()
	assert.Empty(t, a.Findings, says(a, ""))
	assert.InDelta(t, 30, a.HighM, 1e-3)
	assert.InDelta(t, 200, a.FarM, 0.1)
	assert.Len(t, a.Legs, 2)
}

// The highest place that is really reached counts: the route where it is higher
// than the way home, the way home where that is, and both over falling ground.
func TestTheHighestPlaceCounts(t *testing.T) {
	b := setUp(t)
	b.q.Flight.RouteM = f(105)
	assert.InDelta(t, 105, b.reckon().HighM, 1e-3)
	b.q.Flight.RouteM, b.q.Flight.Datum, b.q.Flight.ReturnM = f(3), intent.AboveGround, f(35)
	assert.InDelta(t, 35, b.reckon().HighM, 1e-3, "a sprayer returns higher than it flies")
	b.q.Flight.RouteM, b.q.Flight.Datum = f(260), intent.AboveSea
	assert.InDelta(t, 60, b.reckon().HighM, 1e-3, "60 m over ground at 200 m")
	b.q.Flight = intent.Flight{Work: "inspection", ReturnM: f(100), RouteM: f(20)}
	b.q.Chart.Terrain = b.terrain(func(_, y float64) float64 { return 200 - math.Max(0, y)/4 })
	a := b.reckon()
	assert.InDelta(t, 150, a.HighM, 2, "the ground lies 50 m lower out there")
	assert.NotNil(t, find(a, "height", "m above the ground; the limit is 121.9 m (400 ft)"), says(a, ""))
}

// The setting is held against the ceiling however near the advice it lies.
func TestSettingAgainstTheCeiling(t *testing.T) {
	b := setUp(t)
	b.put("mast", site.Obstacle, site.Point, f(99), [2]float64{0, 100})
	for set, over := range map[float64]bool{119: false, 121.92: false, 121.93: true, 125: true} {
		b.q.Flight.ReturnM = f(set)
		a := b.reckon()
		assert.InDelta(t, 120, a.Return.HeightM, 1e-6)
		assert.Equal(t, over, find(a, "height", "the limit is") != nil, "%g: %s", set, says(a, ""))
	}
}

// A route into rising ground stops, and so does one too near to it; each work
// and each type keeps its own least height.
func TestRouteOverRisingGround(t *testing.T) {
	b := setUp(t)
	b.q.Flight.ReturnM = f(80)
	b.q.Chart.Terrain = b.terrain(func(_, y float64) float64 { return 200 + math.Max(0, y)/5 })
	for route, word := range map[float64]string{38: "into the ground", 41: "are left over the ground", 45: ""} {
		b.q.Flight.RouteM = f(route)
		got := says(b.reckon(), "path")
		if word == "" {
			assert.Empty(t, got)
			continue
		}
		assert.Contains(t, got, word, "%g", route)
	}
	b.q.Flight.RouteM, b.q.Flight.Datum = f(3), intent.AboveGround
	assert.Empty(t, says(b.reckon(), "path"), "it follows the ground")
	for work, least := range map[string]float64{"spraying": 1.5, "inspection": 3, "mapping": 15} {
		b.q.Flight.Work = work
		b.q.Flight.RouteM = f(least)
		assert.Empty(t, says(b.reckon(), "path"), work)
		b.q.Flight.RouteM = f(least - 0.1)
		assert.Contains(t, says(b.reckon(), "path"), "are kept for this work", work)
	}
	b.q.Type.Limits.LeastGroundM = 1
	assert.Empty(t, says(b.reckon(), "path"), "the type's own wins")
}

// Ground that nobody knows stops until a named person puts on record that it
// was looked at; what that rests on may not change.
func TestUnknownGroundIsAFinding(t *testing.T) {
	b := setUp(t)
	whole := b.q.Chart.Terrain
	b.q.Chart.Terrain = nil
	a := b.reckon()
	g := find(a, "ground", "nobody has brought any terrain")
	require.NotNil(t, g, says(a, ""))
	assert.Equal(t, judge.Stop, g.Verdict)
	assert.Equal(t, []string{string(intent.LevelGround)}, g.Decide)
	b.q.Flight.Decided = []intent.Decision{{Kind: intent.LevelGround, Reason: "walked it", By: "Imre",
		At: time.Date(2026, 6, 10, 15, 0, 0, 0, time.UTC), Basis: g.Basis}}
	g = find(b.reckon(), "ground", "Decided by Imre at 2026-06-10 15:00 UTC")
	require.NotNil(t, g)
	assert.Equal(t, judge.Watch, g.Verdict)
	b.put("more", site.Route, site.Line, nil, [2]float64{50, 50}, [2]float64{50, 300})
	g = find(b.reckon(), "ground", "no longer holds: the flight has changed")
	require.NotNil(t, g, "the route is longer now")
	assert.Equal(t, judge.Stop, g.Verdict)
	b.q.Chart.Terrain = whole
	whole.Heights[240*401+200] = float32(math.NaN()) // at 0, 200
	require.NotNil(t, find(b.reckon(), "ground", "under the route"))
	whole.Heights[240*401+200] = 200
	whole.Heights[200*401+200] = float32(math.NaN()) // at 0, 0
	require.NotNil(t, find(b.reckon(), "ground", "at the take-off place"))
}

// Where the way to the start is not free the pilot decides, with name and
// reason; what stands there or where it starts may not change afterwards.
func TestDecisionsAboutTheWayIn(t *testing.T) {
	b := setUp(t)
	b.q.Flight.RouteM = f(4)
	b.put("wires", site.Wires, site.Line, f(6), [2]float64{-100, 25}, [2]float64{40, 25})
	a := b.reckon()
	w := find(a, "path", "From take-off to the start of the route: It meets the wires")
	require.NotNil(t, w, says(a, ""))
	assert.Equal(t, judge.Stop, w.Verdict)
	assert.ElementsMatch(t, []string{"by-hand", "hold-and-look", "other-place", "way-round"}, w.Decide)
	require.Greater(t, len(a.WayRound), 2)
	for _, k := range []intent.Kind{intent.ByHand, intent.HoldAndLook} {
		b.q.Flight.Decided = []intent.Decision{{Kind: k, Reason: "looked from both ends", By: "Odile", Basis: w.Basis}}
		x := find(b.reckon(), "path", "From take-off")
		assert.Equal(t, judge.Watch, x.Verdict, k)
		assert.Contains(t, x.Sentence, "because looked from both ends")
	}
	for name, change := range map[string]func(*bed){
		"another height": func(b *bed) { b.q.Flight.RouteM = f(5) },
		"higher wires":   func(b *bed) { b.q.Chart.Features[2].HeightM = f(7) },
		"another take-off": func(b *bed) {
			b.put("other", site.TakeOff, site.Point, nil, [2]float64{5, 0})
			b.q.Flight.TakeOff = "other"
		},
		"another start":  func(b *bed) { b.q.Chart.Features[1].Places[0] = b.frame.Point(geo.XY{X: 3, Y: 50}) },
		"something else": func(b *bed) { b.put("pole", site.Obstacle, site.Point, f(9), [2]float64{2, 30}) },
	} {
		c := *b
		c.q.Chart.Features = append([]site.Feature{}, b.q.Chart.Features...)
		for i := range c.q.Chart.Features {
			c.q.Chart.Features[i].Places = append([]geo.Point{}, c.q.Chart.Features[i].Places...)
		}
		change(&c)
		x := find(c.reckon(), "path", "From take-off")
		require.NotNil(t, x, name)
		assert.Equal(t, judge.Stop, x.Verdict, name)
		assert.Contains(t, x.Sentence, "no longer holds", name)
	}
	b.q.Flight.Decided = []intent.Decision{{Kind: intent.WayRound, Reason: "clear on both sides", By: "Odile",
		Basis: w.Basis, Way: a.WayRound}}
	round := b.reckon()
	assert.Nil(t, find(round, "path", "From take-off"), says(round, ""))
	assert.Greater(t, len(round.Route), len(a.Route), "the way round is flown")
}

// The fan home is held against no-go areas like the route.
func TestNoGoUnderTheFan(t *testing.T) {
	b := setUp(t)
	b.q.Chart.Features[1].Places = []geo.Point{b.frame.Point(geo.XY{X: 10, Y: 200}), b.frame.Point(geo.XY{X: 200, Y: 200}),
		b.frame.Point(geo.XY{X: 200, Y: 10})}
	assert.Nil(t, find(b.reckon(), "path", "no-go"))
	b.put("paddock", site.NoGo, site.Area, nil, [2]float64{90, 90}, [2]float64{110, 90}, [2]float64{110, 110},
		[2]float64{90, 110})
	assert.NotNil(t, find(b.reckon(), "path", "over the no-go area paddock"))
}

func TestWayToTheSecondLandingPlace(t *testing.T) {
	b := setUp(t)
	b.put("second", site.TakeOff, site.Point, nil, [2]float64{300, 100})
	b.q.Flight.Second = "second"
	assert.Empty(t, b.reckon().Findings)
	b.put("poplar", site.Obstacle, site.Point, f(28), [2]float64{150, 120})
	assert.NotNil(t, find(b.reckon(), "return-height", "To the second landing place second it needs 40 m"),
		says(b.reckon(), ""))
	b.q.Chart.Features[3].HeightM = nil
	assert.NotNil(t, find(b.reckon(), "return-height", "the height of poplar in the way is not known"))
	b.q.Flight.Second = "gone"
	assert.NotNil(t, find(b.reckon(), "take-off", "second landing place that was chosen is no longer"))
}

// The sectors of a wing are looked at over their whole width, and where the
// terrain ends nobody knows.
func TestSectorsOverTheirWholeWidth(t *testing.T) {
	b := setUp(t)
	b.q.Type.Geometry.Kind = airframe.FixedWing
	b.q.Flight.ReturnM, b.q.Flight.Work = f(60), "mapping"
	assert.NotNil(t, find(b.reckon(), "sector", "not charted"))
	b.q.Chart.Features[0].Free = []float64{0, 180}
	a := b.reckon()
	assert.Equal(t, []float64{0, 180}, a.Clear, says(a, ""))
	b.q.Chart.Terrain = b.terrain(func(x, y float64) float64 { // a knoll beside the middle line
		return 200 + math.Max(0, 40-geo.Dist(geo.XY{X: x, Y: y}, geo.XY{X: 45, Y: 180}))
	})
	a = b.reckon()
	assert.NotNil(t, find(a, "sector", "Heading 000 is not free for climb-out: the ground rises"), says(a, ""))
	b.q.Chart.Terrain.Rows, b.q.Chart.Terrain.Heights = 220, b.q.Chart.Terrain.Heights[:220*401] // ends at y = 95
	assert.NotNil(t, find(b.reckon(), "sector", "is not known: the terrain does not cover it"))
	b.q.Type.Limits.SpeedMS = 0
	assert.NotNil(t, find(b.reckon(), "sector", "gives no speed"))
}

func TestHeightNearAStructure(t *testing.T) {
	b := setUp(t)
	b.q.Flight.RouteM, b.q.Flight.ReturnM = f(200), f(200)
	tower := b.put("tower", site.Obstacle, site.Point, f(150), [2]float64{10, 120})
	tower.What = site.Structure
	a := b.reckon()
	require.NotNil(t, a.OverTopM)
	assert.InDelta(t, 50, *a.OverTopM, 0.5, "200 m over the ground is 50 over its top")
	assert.Nil(t, find(a, "height", ""), says(a, ""))
	b.q.Law = rules.EUSpecific.Law
	assert.Nil(t, b.reckon().OverTopM, "over 50 m away")
	b.q.Law = rules.USSmall.Law
	b.q.Chart.Features[2].What = ""
	assert.Nil(t, b.reckon().OverTopM, "a tree")
	assert.NotNil(t, find(b.reckon(), "height", "200 m above the ground"))
	b.q.Chart.Features[2].What, b.q.Chart.Features[2].HeightM = site.Structure, nil
	assert.Nil(t, b.reckon().OverTopM, "height not known")
}

func TestPeopleNearTheRoute(t *testing.T) {
	b := setUp(t)
	assert.Nil(t, b.reckon().PeopleM)
	x := b.put("bees", site.Sensitive, site.Point, nil, [2]float64{40, 100})
	x.What = "bees"
	assert.Nil(t, b.reckon().PeopleM)
	b.put("farm", site.Sensitive, site.Point, nil, [2]float64{60, 100})
	assert.InDelta(t, 60, *b.reckon().PeopleM, 0.1, "what is not said to be something else counts")
	b.put("yard", site.Sensitive, site.Area, nil, [2]float64{30, 80}, [2]float64{50, 80}, [2]float64{50, 120},
		[2]float64{30, 120})
	assert.InDelta(t, 30, *b.reckon().PeopleM, 0.1, "to the nearest of its edges")
	b.put("lane", site.Sensitive, site.Line, nil, [2]float64{20, 50}, [2]float64{-20, 20})
	assert.InDelta(t, 0, *b.reckon().PeopleM, 0.1, "across the way to the start")
	b.q.Chart.Features = b.q.Chart.Features[:2]
	b.put("village", site.Sensitive, site.Area, nil, [2]float64{-300, -300}, [2]float64{300, -300}, [2]float64{300, 300},
		[2]float64{-300, 300})
	assert.Zero(t, *b.reckon().PeopleM, "over it")
}

// Without the site's elevation heights count from its own ground; they cannot
// once something on the map has an elevation of its own.
func TestSiteOfUnknownElevation(t *testing.T) {
	b := setUp(t)
	b.q.Chart.Terrain, b.q.Chart.ElevationM = nil, nil
	got, err := wayhome.Reckon(b.q)
	require.NoError(t, err)
	b.q.Chart.ElevationM = f(350)
	high, err := wayhome.Reckon(b.q)
	require.NoError(t, err)
	assert.InDelta(t, high.Return.HeightM, got.Return.HeightM, 1e-9)
	assert.False(t, wayhome.Chart{}.AboveSea())
	b.q.Chart.ElevationM = nil
	b.q.Chart.Features[0].GroundM = f(410)
	_, err = wayhome.Reckon(b.q)
	require.ErrorIs(t, err, wayhome.ErrNoElevation)
}

func TestWhatCannotBeReckoned(t *testing.T) {
	b := setUp(t)
	b.q.Chart.Features = b.q.Chart.Features[:1]
	_, err := wayhome.Reckon(b.q)
	require.ErrorIs(t, err, wayhome.ErrNotReady)
	for name, change := range map[string]func(*wayhome.Question){
		"route":  func(q *wayhome.Question) { q.Flight.RouteM = f(math.NaN()) },
		"return": func(q *wayhome.Question) { q.Flight.ReturnM = f(math.Inf(1)) },
		"datum":  func(q *wayhome.Question) { q.Flight.Datum = "moon" },
	} {
		b := setUp(t)
		change(&b.q)
		_, err := wayhome.Reckon(b.q)
		assert.ErrorIs(t, err, intent.ErrFlight, name)
	}
}

// Whatever is taken away or spoilt of what is charted, the verdict is never
// milder.
func TestSpoiltChartIsNeverMilder(t *testing.T) {
	base := setUp(t)
	rapid.Check(t, func(r *rapid.T) {
		b := *base
		b.q.Chart.Features = append([]site.Feature{}, base.q.Chart.Features...)
		b.put("tree", site.Obstacle, site.Point, f(rapid.Float64Range(1, 60).Draw(r, "tree")),
			[2]float64{rapid.Float64Range(-20, 20).Draw(r, "x"), rapid.Float64Range(10, 180).Draw(r, "y")})
		b.put("wires", site.Wires, site.Line, f(rapid.Float64Range(4, 30).Draw(r, "wires")), [2]float64{-50, 30},
			[2]float64{rapid.Float64Range(-40, 40).Draw(r, "to"), 30})
		b.q.Flight.RouteM, b.q.Flight.ReturnM = f(rapid.Float64Range(2, 130).Draw(r, "route")), f(rapid.Float64Range(10,
			130).Draw(r, "return"))
		b.q.Chart.Terrain = b.terrain(func(_, y float64) float64 {
			return 200 + y/rapid.SampledFrom([]float64{-4, 4,
				1000}).Draw(r, "slope")
		})
		before := judge.Worst(b.reckon().Findings)
		switch what := rapid.SampledFrom([]string{"tree", "wires", "terrain", "gap", "setting"}).Draw(r, "what"); what {
		case "tree", "wires":
			b.q.Chart.Features[map[string]int{"tree": 2, "wires": 3}[what]].HeightM = nil
		case "terrain":
			b.q.Chart.Terrain = nil
		case "gap":
			b.q.Chart.Terrain.Heights[220*401+200] = float32(math.NaN())
		case "setting":
			b.q.Flight.ReturnM = nil
		}
		assert.GreaterOrEqual(r, judge.Worst(b.reckon().Findings), before)
	})
}

func TestInTheWind(t *testing.T) {
	b := setUp(t)
	b.q.Type.Geometry.Kind, b.q.Chart.Features[0].Free = airframe.FixedWing, []float64{0, 180}
	a := b.reckon()
	for name, c := range map[string]struct {
		air  weather.Air
		says string
	}{
		"into it": {weather.Air{WindMS: f(4), FromDeg: f(10), WindHeightM: 10, Ground: "open"}, ""},
		"across": {weather.Air{WindMS: f(5), FromDeg: f(90), WindHeightM: 10, Ground: "open"},
			"stop: Start and landing"},
		"no direction": {weather.Air{WindMS: f(3), WindHeightM: 10, Ground: "open"},
			"stop: Start and landing: the wind has no known direction"},
		"calm": {weather.Air{WindMS: f(0), WindHeightM: 10, Ground: "open"}, ""},
		"not usable": {weather.Air{WindMS: f(3), FromDeg: f(10), WindHeightM: math.NaN(), Ground: "open"},
			"this wind cannot be used"},
		"strong": {weather.Air{WindMS: f(14), FromDeg: f(180), WindHeightM: 10, Ground: "open"},
			"it does not come home"},
	} {
		x := a
		x.Findings = nil
		x.InWind(&c.air, b.q.Chart, b.q.Type)
		if c.says == "" {
			assert.Empty(t, x.Findings, name)
			continue
		}
		assert.Contains(t, says(x, ""), c.says, name)
	}
}

// What turns into the wind where it stands needs no heading of the sectors; a
// wing without any is judged by them; a type without a speed does not come home.
func TestWindAndTheType(t *testing.T) {
	b := setUp(t)
	b.q.Chart.Features[0].Free = []float64{0, 180}
	a := b.reckon()
	across := weather.Air{WindMS: f(9), FromDeg: f(90), WindHeightM: 10, Ground: "open"}
	said := func(change func(*airframe.Type)) string {
		ty, x := b.q.Type, a
		change(&ty)
		x.Findings = nil
		x.InWind(&across, b.q.Chart, ty)
		return says(x, "")
	}
	a.Clear = []float64{0, 180}
	assert.NotContains(t, said(func(*airframe.Type) {}), "Start and landing")
	assert.Contains(t, said(func(ty *airframe.Type) { ty.Geometry.Kind = airframe.FixedWing }), "Start and landing")
	assert.Contains(t, said(func(ty *airframe.Type) { ty.Limits.SpeedMS = 0 }),
		"stop: How fast it comes home against the wind is not known")
	assert.NotContains(t, said(func(ty *airframe.Type) { *ty = airframe.Type{} }), "How fast it comes home",
		"nobody has said which aircraft flies")
	a.Clear = nil
	assert.NotContains(t, said(func(ty *airframe.Type) { ty.Geometry.Kind = airframe.FixedWing }),
		"this wind cannot be used")
}

// The way is that of the routes, and round the areas where there is none.
func TestTheWayOfAChart(t *testing.T) {
	b := setUp(t)
	assert.Len(t, b.q.Chart.Way(), 2)
	b.q.Chart.Features = b.q.Chart.Features[:1]
	assert.Empty(t, b.q.Chart.Way())
	b.put("field", site.Work, site.Area, nil, [2]float64{0, 50}, [2]float64{50, 50}, [2]float64{50, 90})
	way := b.q.Chart.Way()
	require.Len(t, way, 4)
	assert.Equal(t, way[0], way[3], "back to where it began")
}

// It may land elsewhere than it started: that place is judged, and said when it
// is no longer there.
func TestAnotherLandingPlace(t *testing.T) {
	b := setUp(t)
	assert.Equal(t, "start", b.reckon().Landing.ID)
	b.put("yard", site.TakeOff, site.Point, nil, [2]float64{60, 0})
	b.q.Flight.Landing = "yard"
	assert.Equal(t, "yard", b.reckon().Landing.ID)
	b.q.Flight.Landing = "gone"
	a := b.reckon()
	assert.Equal(t, "start", a.Landing.ID)
	assert.NotNil(t, find(a, "take-off", "The landing place that was chosen is no longer on the map."), says(a, ""))
}

// At the ground itself nothing is left; under it, it flies into it.
func TestRouteAtTheGround(t *testing.T) {
	b := setUp(t)
	for top, want := range map[float64]string{229: "only 1.0 m are left", 230: "only 0.0 m are left",
		231: "it flies into the ground, 1 m under its top"} {
		b.q.Chart.Terrain = b.terrain(func(_, y float64) float64 {
			if y > 45 {
				return top
			}
			return 200
		})
		a := b.reckon()
		assert.NotNil(t, find(a, "path", want), "%g: %s", top, says(a, ""))
	}
}
