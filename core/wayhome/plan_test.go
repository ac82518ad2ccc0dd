package wayhome_test

import (
	"math"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/geo"
	"mainstay/core/home"
	"mainstay/core/intent"
	"mainstay/core/judge"
	"mainstay/core/site"
	"mainstay/core/wayhome"
)

// planned flies passes along y, 10 m apart, at 4 m over the ground, from x = 0 on.
func (b *bed) planned(n int, from, to float64) {
	p := intent.Plan{SpeedMS: 5}
	for i := range n {
		x := float64(i) * 10
		y0, y1 := from, to
		if i%2 == 1 {
			y0, y1 = y1, y0
		}
		p.Passes = append(p.Passes, b.frame.Point(geo.XY{X: x, Y: y0}), b.frame.Point(geo.XY{X: x, Y: y1}))
	}
	b.q.Flight.Work, b.q.Flight.Plan, b.q.Flight.Datum, b.q.Flight.RouteM = "spraying", &p, intent.AboveGround, f(4)
}

// A plan is what is flown: what is charted as route says nothing any more.
func TestThePlanIsFlown(t *testing.T) {
	b := setUp(t)
	b.planned(4, 50, 150)
	a := b.reckon()
	assert.Empty(t, says(a, judge.RulePath))
	assert.Len(t, a.Route, 8)
	assert.InDelta(t, math.Hypot(30, 150), a.FarM, 0.2, "the farthest place of the passes, not the charted 200 m")

	b.put("pole", site.Obstacle, site.Point, f(12), [2]float64{20, 100}).BufferM = 2
	hit := find(b.reckon(), judge.RulePath, "Pass 3: ")
	require.NotNil(t, hit, says(b.reckon(), ""))
	assert.Equal(t, judge.Stop, hit.Verdict)

	b = setUp(t)
	b.planned(4, 50, 150)
	b.put("mast", site.Obstacle, site.Point, f(12), [2]float64{5, 150}).BufferM = 1
	assert.NotNil(t, find(b.reckon(), judge.RulePath, "The way from pass 1 to 2: "), says(b.reckon(), ""))
}

// What is part of the crop may be passed over with what spraying keeps; the way to
// where a flight begins keeps what every route does.
func TestOverTheCrop(t *testing.T) {
	b := setUp(t)
	b.planned(4, 50, 150)
	b.put("trellis", site.Wires, site.Line, f(2), [2]float64{-20, 100}, [2]float64{60, 100})
	a := b.reckon()
	assert.Nil(t, find(a, judge.RulePath, "trellis"), says(a, ""))
	b.q.Chart.Features[len(b.q.Chart.Features)-1].HeightM = f(2.6)
	assert.NotNil(t, find(b.reckon(), judge.RulePath, "So do 3 more legs"), says(b.reckon(), ""))

	b = setUp(t)
	b.planned(4, 50, 150)
	b.put("fence", site.Wires, site.Line, f(2), [2]float64{-20, 30}, [2]float64{60, 30})
	way := find(b.reckon(), judge.RulePath, "where flight 1 of the plan begins")
	require.NotNil(t, way, says(b.reckon(), ""))
	assert.Equal(t, judge.Stop, way.Verdict)
	assert.Contains(t, way.Decide, string(intent.ByHand))
	assert.NotContains(t, way.Decide, string(intent.WayRound))
}

// A long wire down a slope stands on the ground under each piece of it.
func TestWiresDownASlope(t *testing.T) {
	b := setUp(t)
	b.q.Chart.Terrain = b.terrain(func(_, y float64) float64 { return 200 + 0.02*math.Max(0, y) })
	b.planned(4, 50, 150)
	b.put("trellis", site.Wires, site.Line, f(2), [2]float64{15, 40}, [2]float64{15, 400})
	a := b.reckon()
	assert.NotContains(t, says(a, judge.RulePath), "more legs of the route", "the hill at its far end is 7 m higher")
	b.q.Chart.Features[len(b.q.Chart.Features)-1].HeightM = f(2.6)
	assert.Contains(t, says(b.reckon(), judge.RulePath), "more legs of the route")
}

// What was decided about the way to a plan holds for all its flights, and for no other
// passes.
func TestDecidedForAPlan(t *testing.T) {
	b := setUp(t)
	b.planned(4, 50, 150)
	b.put("fence", site.Wires, site.Line, f(2), [2]float64{-20, 30}, [2]float64{60, 30})
	basis := find(b.reckon(), judge.RulePath, "begins").Basis
	b.q.Flight.Decided = []intent.Decision{{ID: "1", Kind: intent.ByHand, Reason: "I fly it", By: "Odile Varga",
		At: time.Unix(1e9, 0), Basis: basis}}
	assert.Equal(t, judge.Watch, find(b.reckon(), judge.RulePath, "begins").Verdict)
	p := b.q.Flight.Plan
	p.Starts = []geo.Point{p.Passes[2], p.Passes[6]}
	later := find(b.reckon(), judge.RulePath, "flight 1 of the plan, and 1 more, begin")
	require.NotNil(t, later, says(b.reckon(), ""))
	assert.Equal(t, judge.Watch, later.Verdict, "the same passes, other flights")
	b.planned(5, 50, 150)
	assert.Equal(t, judge.Stop, find(b.reckon(), judge.RulePath, "begins").Verdict, "other passes")
}

// What a plan flies round on purpose is its own to keep away from; everything else that
// stands there is not, nor is the way home over it.
func TestAroundWhatIsInspected(t *testing.T) {
	b := setUp(t)
	tower := b.put("tower", site.Obstacle, site.Point, f(40), [2]float64{20, 100})
	tower.BufferM = 10
	p := intent.Plan{SpeedMS: 3, Spots: true}
	for _, q := range []geo.XY{{X: 27, Y: 100}, {X: 20, Y: 107}, {X: 13, Y: 100}} {
		p.Passes = append(p.Passes, b.frame.Point(q), b.frame.Point(q))
	}
	b.q.Flight.Work, b.q.Flight.Plan, b.q.Flight.Datum, b.q.Flight.RouteM = "inspection", &p, intent.AboveTakeOff, f(12)
	require.NotNil(t, find(b.reckon(), judge.RulePath, "tower"), "on nobody's purpose")
	p.Around = []string{tower.ID}
	a := b.reckon()
	assert.Nil(t, find(a, judge.RulePath, "tower"), says(a, ""))
	assert.Equal(t, "tower", a.Return.Decides, "the way home is over it all the same")
	b.put("mast", site.Obstacle, site.Point, f(20), [2]float64{23.5, 103.5}).BufferM = 1
	assert.NotNil(t, find(b.reckon(), judge.RulePath, "The way to waypoint 2: "), says(b.reckon(), ""))
}

// Every start is looked at: the worst of them is said whichever it is.
func TestEveryStartCounts(t *testing.T) {
	b := setUp(t)
	b.planned(8, 50, 150)
	b.put("shed", site.Obstacle, site.Point, f(6), [2]float64{35, 25}).BufferM = 1
	p := b.q.Flight.Plan
	p.Starts = []geo.Point{p.Passes[0]}
	assert.Nil(t, find(b.reckon(), judge.RulePath, "shed"), says(b.reckon(), ""))
	p.Starts = []geo.Point{p.Passes[0], p.Passes[15]}
	a := b.reckon()
	assert.NotNil(t, find(a, judge.RulePath, "where flight 2 of the plan begins"), says(a, ""))
	assert.Equal(t, judge.Stop, a.Legs[0].Verdict)
}

// Passes that follow the ground climb no faster than the aircraft does. The steepest
// stretch of a plane is that of the plane.
func TestSlopesUnderAPlan(t *testing.T) {
	b := setUp(t)
	rapid.Check(t, func(r *rapid.T) {
		slope := rapid.Float64Range(0, 0.8).Draw(r, "slope")
		speed := rapid.Float64Range(1, 12).Draw(r, "speed")
		b.planned(3, 50, 150)
		b.q.Flight.Plan.SpeedMS = speed
		ground := &home.Terrain{Origin: geo.XY{X: -50, Y: -50}, CellM: 5, Columns: 30, Rows: 60}
		for i := range 30 * 60 {
			ground.Heights = append(ground.Heights, float32(200+slope*float64(i/30*5-50)))
		}
		b.q.Chart.Terrain = ground
		b.q.Type.Limits.ClimbMS, b.q.Type.Limits.DescentMS = 3, 2
		a := b.reckon()
		require.NotNil(t, a.Relief)
		assert.InDelta(t, slope, a.Relief.Steepest, 0.005)
		assert.InDelta(t, 200+slope*50, a.Relief.LowM, 0.1)
		assert.InDelta(t, 200+slope*150, a.Relief.HighM, 0.1)
		if math.Abs(slope*speed-2) > 0.1 {
			assert.Equal(t, slope*speed > 2, find(a, judge.RulePath, "rises or falls") != nil, "%g of %g", slope, speed)
		}
	})
	b = setUp(t)
	b.planned(3, 50, 150)
	b.q.Chart.Terrain = nil
	assert.Nil(t, b.reckon().Relief, "nothing is known, and said elsewhere")
}

// A route that cannot be is refused.
func TestPlansThatCannotBe(t *testing.T) {
	for name, spoil := range map[string]func(*intent.Plan){
		"no pass": func(p *intent.Plan) { p.Passes = nil }, "half a pass": func(p *intent.Plan) { p.Passes = p.Passes[1:] },
		"no speed":        func(p *intent.Plan) { p.SpeedMS = 0 },
		"speed no number": func(p *intent.Plan) { p.SpeedMS = math.NaN() },
		"off the earth":   func(p *intent.Plan) { p.Passes[1].Lat = 91 },
		"start no number": func(p *intent.Plan) { p.Starts = []geo.Point{{Lat: math.NaN()}} },
		"too many":        func(p *intent.Plan) { p.Passes = make([]geo.Point, 2*intent.MostPasses+2) },
	} {
		b := setUp(t)
		b.planned(3, 50, 150)
		spoil(b.q.Flight.Plan)
		_, err := wayhome.Reckon(b.q)
		assert.ErrorIs(t, err, intent.ErrFlight, name)
	}
}

// Looking only at what is near a leg finds what looking at everything does.
func TestOnlyWhatIsNearIsLookedAt(t *testing.T) {
	rapid.Check(t, func(r *rapid.T) {
		place := func(name string) geo.XY {
			return geo.XY{X: rapid.Float64Range(-200, 200).Draw(r, name+" x"),
				Y: rapid.Float64Range(-200, 200).Draw(r, name+" y")}
		}
		var things []home.Obstacle
		for range rapid.IntRange(0, 8).Draw(r, "things") {
			o := home.Obstacle{ID: "1", Name: "thing", Kind: home.LineKind, Places: []geo.XY{place("from"), place("to")},
				BufferM: rapid.Float64Range(0, 20).Draw(r, "buffer")}
			if rapid.Bool().Draw(r, "known") {
				h := rapid.Float64Range(0, 20).Draw(r, "height")
				o.HeightM = &h
			}
			things = append(things, o)
		}
		var path []home.Place3
		var leg []int
		n := rapid.IntRange(1, 5).Draw(r, "legs")
		at := place("start")
		path = append(path, home.Place3{At: at, M: 5})
		for k := range n {
			end := place("end")
			for i := 1; i <= 3; i++ { // in pieces, as the ground is followed
				path = append(path, home.Place3{At: at.Add(end.Sub(at).Times(float64(i) / 3)),
					M: rapid.Float64Range(0, 25).Draw(r, "m")})
				leg = append(leg, k)
			}
			at = end
		}
		got, err := wayhome.ClearOf(path, leg, n, things, 1.5)
		require.NoError(r, err)
		all, err := home.Clearance(path, home.Standing{Obstacles: things, PositionM: wayhome.PositionM, OverM: 1.5})
		require.NoError(r, err)
		worst := make([]judge.Verdict, n)
		for i, l := range all {
			worst[leg[i]] = max(worst[leg[i]], l.Verdict)
		}
		for k := range n {
			assert.Equal(r, worst[k], got[k].Verdict, "leg %d", k)
		}
	})
}
