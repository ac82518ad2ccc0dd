package home_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/geo"
	"mainstay/core/home"
	"mainstay/core/judge"
)

func f(v float64) *float64 { return &v }

func question() home.Question {
	return home.Question{Route: []geo.XY{{X: 0, Y: 100}, {X: 100, Y: 100}}, PositionM: 3, Margin: home.UsualMargin,
		CeilingM: 121.92, ClimbMS: 3, DescentMS: 2, PercentMin: 4, SettingM: f(20)}
}

func tree(x, y, h float64) home.Obstacle {
	return home.Obstacle{ID: "t", Name: "the tall tree", Kind: home.PointKind, Places: []geo.XY{{X: x, Y: y}}, HeightM: &h,
		SigmaM: 1, BufferM: 5}
}

func TestHighestTopDecides(t *testing.T) {
	q := question()
	q.Obstacles = []home.Obstacle{tree(40, 60, 22), tree(-20, 50, 60),
		{ID: "w", Name: "the wires", Kind: home.LineKind, Places: []geo.XY{{X: -50, Y: 80}, {X: 90, Y: 80}}, HeightM: f(8),
			SigmaM: 0.5, BufferM: 10, Wire: true}}
	a, err := home.ReturnHeight(q)
	require.NoError(t, err)
	assert.Equal(t, "the tall tree", a.Decides)
	assert.InDelta(t, 24, a.NeedM, 1e-9, "22 m and twice 1 m")
	assert.InDelta(t, 10, a.MarginM, 1e-9)
	assert.InDelta(t, 35, a.HeightM, 1e-9, "34 rounded up to 5")
	assert.Equal(t, []string{"t", "w"}, a.InWay, "the tree at -20 stands 14 m beside the fan")
	twin := tree(40, 60, 22)
	twin.Name = "its twin"
	b := q
	b.Obstacles = append([]home.Obstacle{}, q.Obstacles[0], twin)
	first, err := home.ReturnHeight(b)
	require.NoError(t, err)
	assert.Equal(t, "the tall tree", first.Decides, "of two that are equally high the first is named")
	require.NotEmpty(t, a.Findings)
	assert.Equal(t, judge.Stop, a.Findings[0].Verdict)
	assert.Contains(t, a.Findings[0].Sentence, "returns at 20 m, under the top of the tall tree at 24 m. Set it to 35 m")
}

func TestMarginGrowsAndTheTypeHasAMinimum(t *testing.T) {
	q := question()
	q.Obstacles = []home.Obstacle{tree(40, 60, 78)}
	a, err := home.ReturnHeight(q)
	require.NoError(t, err)
	assert.InDelta(t, 16, a.MarginM, 1e-9, "20 percent of 80")
	assert.InDelta(t, 100, a.HeightM, 1e-9)
	q.Obstacles, q.TypeMinM = nil, 30
	a, err = home.ReturnHeight(q)
	require.NoError(t, err)
	assert.Zero(t, a.NeedM)
	assert.InDelta(t, 30, a.HeightM, 1e-9)
}

func TestWhatIsFoundAboutTheSetting(t *testing.T) {
	q := question()
	q.Obstacles = []home.Obstacle{tree(40, 60, 22)}
	for want, set := range map[string]*float64{
		"is not known. Set it to 35 m":            nil,
		"only 6 m over the tall tree":             f(30),
		"35 m are enough. It wastes 38 s and 3 %": f(80),
	} {
		q.SettingM = set
		a, err := home.ReturnHeight(q)
		require.NoError(t, err)
		assert.Contains(t, words(a), want)
	}
	q.SettingM = f(35)
	a, err := home.ReturnHeight(q)
	require.NoError(t, err)
	assert.Empty(t, a.Findings)
	assert.Zero(t, a.Gaps)
	q.Obstacles[0].HeightM = nil
	a, err = home.ReturnHeight(q)
	require.NoError(t, err)
	assert.Equal(t, []string{"the tall tree"}, a.Unknown)
	assert.Equal(t, judge.Stop, judge.Worst(a.Findings), "unknown is never good")
}

func words(a home.Answer) string {
	var all string
	for _, x := range a.Findings {
		all += x.Sentence + "\n"
	}
	return all
}

func slope(n int, cell float64, at func(x, y float64) float64) *home.Terrain {
	t := &home.Terrain{Origin: geo.XY{X: -float64(n) / 2 * cell, Y: -float64(n) / 2 * cell}, CellM: cell, Columns: n,
		Rows: n}
	for r := range n {
		for c := range n {
			t.Heights = append(t.Heights, float32(at(t.Origin.X+float64(c)*cell, t.Origin.Y+float64(r)*cell)))
		}
	}
	return t
}

func TestGroundRisesAndFalls(t *testing.T) {
	q := question()
	q.HomeM, q.SettingM = 200, f(60)
	q.Terrain = slope(100, 5, func(_, y float64) float64 { return 200 + y/4 })
	a, err := home.ReturnHeight(q)
	require.NoError(t, err)
	assert.Equal(t, "the ground itself", a.Decides)
	assert.InDelta(t, 26, a.NeedM, 1.3, "25 m up at 100 m, and the cells beside it")
	assert.GreaterOrEqual(t, a.NeedM, 25.0)
	q.Terrain = slope(100, 5, func(_, y float64) float64 { return 200 - y })
	a, err = home.ReturnHeight(q)
	require.NoError(t, err)
	assert.GreaterOrEqual(t, a.MaxAGL, a.HeightM+100, "the ground falls away: high above it out there")
	q.Terrain.Heights[55*100+50] = float32(math.NaN())
	a, err = home.ReturnHeight(q)
	require.NoError(t, err)
	assert.Equal(t, 1, a.Gaps)
}

// The sweep of the grid against asking every cell.
func TestSweepAgainstEveryCell(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		xy := func(name string) geo.XY {
			return geo.XY{X: rapid.Float64Range(-90, 90).Draw(t, name+"x"), Y: rapid.Float64Range(-90, 90).Draw(t, name+"y")}
		}
		q := question()
		q.Home, q.Route = xy("home"), []geo.XY{xy("a"), xy("b"), xy("c")}
		q.PositionM = rapid.Float64Range(0, 10).Draw(t, "error")
		peak := xy("peak")
		q.Terrain = slope(60, 4, func(x, y float64) float64 { return max(0, 50-geo.Dist(geo.XY{X: x, Y: y}, peak)) })
		a, err := home.ReturnHeight(q)
		require.NoError(t, err)
		inside, near := 0.0, 0.0
		for r := range 60 {
			for c := range 60 {
				p := geo.XY{X: q.Terrain.Origin.X + float64(c)*4, Y: q.Terrain.Origin.Y + float64(r)*4}
				h := float64(q.Terrain.Heights[r*60+c])
				d := fanDistance(q.Home, q.Route, p)
				if d <= q.PositionM {
					inside = max(inside, h)
				}
				if d <= (q.PositionM+2)*2+4 {
					near = max(near, h)
				}
			}
		}
		assert.GreaterOrEqual(t, a.NeedM+1e-3, inside, "no cell of the corridor is missed")
		assert.LessOrEqual(t, a.NeedM, near+1e-3, "and none from far away counts")
	})
}

// fanDistance is 0 in the fan, else to its nearest edge.
func fanDistance(h geo.XY, route []geo.XY, p geo.XY) float64 {
	d := math.Inf(1)
	for i := 1; i < len(route); i++ {
		r := geo.Ring{h, route[i-1], route[i]}
		if r.Holds(p) {
			return 0
		}
		d = min(d, r.ToEdge(p))
	}
	return d
}

// Nothing that stands in the corridor is ever left under the return height, and
// nothing added makes it lower.
func TestReturnHeightClearsEverything(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		q := question()
		n := rapid.IntRange(1, 8).Draw(t, "n")
		last := 0.0
		for i := range n {
			o := tree(rapid.Float64Range(-50, 150).Draw(t, "x"), rapid.Float64Range(-20, 150).Draw(t, "y"),
				rapid.Float64Range(0, 80).Draw(t, "h"))
			o.ID = string(rune('a' + i))
			q.Obstacles = append(q.Obstacles, o)
			a, err := home.ReturnHeight(q)
			require.NoError(t, err)
			assert.GreaterOrEqual(t, a.HeightM, last)
			last = a.HeightM
			for _, o := range q.Obstacles {
				if fanDistance(q.Home, q.Route, o.Places[0]) <= o.BufferM+q.PositionM-1e-6 {
					assert.GreaterOrEqual(t, a.HeightM, *o.HeightM+2*o.SigmaM+10)
					assert.Contains(t, a.InWay, o.ID)
				}
			}
		}
	})
}

func TestClearanceOfLegs(t *testing.T) {
	wires := home.Obstacle{ID: "w", Name: "the power line", Kind: home.LineKind,
		Places: []geo.XY{{X: 50, Y: -50}, {X: 50, Y: 50}}, HeightM: f(12), SigmaM: 1, BufferM: 10, Wire: true}
	hidden := home.Obstacle{ID: "u", Name: "the old mast", Kind: home.PointKind, Places: []geo.XY{{X: 150, Y: 0}},
		BufferM: 10}
	path := []home.Place3{{At: geo.XY{}, M: 6}, {At: geo.XY{X: 30}, M: 6}, {At: geo.XY{X: 80}, M: 6},
		{At: geo.XY{X: 80, Y: 60}, M: 6}, {At: geo.XY{X: 160, Y: 60}, M: 40}, {At: geo.XY{X: 160}, M: 40}}
	legs, err := home.Clearance(path, home.Standing{
		Obstacles: []home.Obstacle{wires, hidden}, PositionM: 2, OverM: home.VerticalClear,
	})
	require.NoError(t, err)
	assert.Equal(t, judge.Clear, legs[0].Verdict)
	assert.InDelta(t, 8, legs[0].HorizontalM, 1e-9)
	assert.Equal(t, judge.Stop, legs[1].Verdict)
	assert.Contains(t, legs[1].Sentence, "meets the wires of the power line: no automatic start")
	assert.InDelta(t, -8, *legs[1].VerticalM, 1e-9)
	assert.Equal(t, judge.Clear, legs[2].Verdict)
	assert.Equal(t, judge.Stop, legs[4].Verdict)
	assert.Contains(t, legs[4].Sentence, "the old mast of unknown height is in the way")
	over, err := home.Clearance([]home.Place3{{At: geo.XY{X: 0}, M: 30}, {At: geo.XY{X: 100}, M: 30}},
		home.Standing{Obstacles: []home.Obstacle{wires}, PositionM: 2, OverM: home.VerticalClear})
	require.NoError(t, err)
	assert.Equal(t, judge.Clear, over[0].Verdict)
	assert.Equal(t, "It passes 16 m over the power line.", over[0].Sentence)
	_, err = home.Clearance(path[:1], home.Standing{PositionM: 2, OverM: home.VerticalClear})
	assert.ErrorIs(t, err, home.ErrInput)
}

func TestWayRound(t *testing.T) {
	wall := home.Obstacle{ID: "w", Name: "the wood", Kind: home.AreaKind,
		Places: []geo.XY{{X: 40, Y: -100}, {X: 60, Y: -100}, {X: 60, Y: 30}, {X: 40, Y: 30}}, HeightM: f(20), BufferM: 5}
	a, b := geo.XY{}, geo.XY{X: 100}
	path, err := home.WayRound(a, b, 10, home.Standing{
		Obstacles: []home.Obstacle{wall}, PositionM: 2, OverM: home.VerticalClear,
	}, nil)
	require.NoError(t, err)
	require.Greater(t, len(path), 2)
	var places []home.Place3
	length := 0.0
	for i, p := range path {
		places = append(places, home.Place3{At: p, M: 10})
		if i > 0 {
			length += geo.Dist(path[i-1], p)
		}
	}
	legs, err := home.Clearance(places, home.Standing{
		Obstacles: []home.Obstacle{wall}, PositionM: 2, OverM: home.VerticalClear,
	})
	require.NoError(t, err)
	for _, l := range legs {
		assert.Equal(t, judge.Clear, l.Verdict, l.Sentence)
	}
	// The taut string round two corners with a radius of 7 m is a little shorter.
	assert.InDelta(t, 2*math.Hypot(40, 30)+20, length, 12)
	straight, err := home.WayRound(a, b, 40, home.Standing{
		Obstacles: []home.Obstacle{wall}, PositionM: 2, OverM: home.VerticalClear,
	}, nil)
	require.NoError(t, err)
	assert.Len(t, straight, 2, "over it")
	narrow := geo.Area{Outline: geo.Ring{{X: -10, Y: -10}, {X: 110, Y: -10}, {X: 110, Y: 20}, {X: -10, Y: 20}}}
	_, err = home.WayRound(a, b, 10, home.Standing{
		Obstacles: []home.Obstacle{wall}, PositionM: 2, OverM: home.VerticalClear,
	}, &narrow)
	assert.ErrorContains(t, err, "no way round")
	_, err = home.WayRound(geo.XY{X: 50}, b, 10, home.Standing{
		Obstacles: []home.Obstacle{wall}, PositionM: 2, OverM: home.VerticalClear,
	}, nil)
	assert.ErrorContains(t, err, "inside a buffer")
}

func TestSideView(t *testing.T) {
	q := question()
	q.HomeM = 100
	q.Terrain = slope(100, 5, func(_, y float64) float64 { return 100 + y/10 })
	o := tree(50, 50, 15)
	o.GroundM = 105
	q.Obstacles = []home.Obstacle{o, tree(300, 300, 50)}
	v, err := home.SideView(q, 35)
	require.NoError(t, err)
	assert.InDelta(t, math.Hypot(100, 100), v.LengthM, 1e-9)
	assert.Len(t, v.Steps, 101)
	assert.InDelta(t, 110, *v.Steps[0].GroundM, 0.5)
	assert.InDelta(t, 100, *v.Steps[100].GroundM, 0.5)
	require.Len(t, v.Tops, 1)
	assert.InDelta(t, 120, *v.Tops[0].TopM, 1e-9)
	assert.Less(t, v.Tops[0].FromM, v.LengthM/2)
	assert.True(t, v.CeilingOK)
}

func TestRefusals(t *testing.T) {
	q := question()
	for name, change := range map[string]func(*home.Question){
		"no route":   func(q *home.Question) { q.Route = nil },
		"bad margin": func(q *home.Question) { q.Margin.RoundM = 0 },
		"bad shape":  func(q *home.Question) { q.Obstacles = []home.Obstacle{{Kind: "cloud", Places: []geo.XY{{}}}} },
		"short line": func(q *home.Question) {
			q.Obstacles = []home.Obstacle{{Kind: home.LineKind,
				Places: []geo.XY{{}}}}
		},
		"deep":          func(q *home.Question) { q.Obstacles = []home.Obstacle{tree(0, 0, -3)} },
		"broken grid":   func(q *home.Question) { q.Terrain = &home.Terrain{CellM: 5, Columns: 2, Rows: 2} },
		"no ceiling":    func(q *home.Question) { q.CeilingM = -1 },
		"not a number":  func(q *home.Question) { q.HomeM = math.NaN() },
		"nowhere":       func(q *home.Question) { q.Home.X = math.Inf(1) },
		"route nowhere": func(q *home.Question) { q.Route = []geo.XY{{Y: math.NaN()}} },
		"setting":       func(q *home.Question) { q.SettingM = f(math.NaN()) },
		"tree nowhere":  func(q *home.Question) { q.Obstacles = []home.Obstacle{tree(math.NaN(), 0, 3)} },
		"tree on nothing": func(q *home.Question) {
			o := tree(0, 0, 3)
			o.GroundM = math.Inf(-1)
			q.Obstacles = []home.Obstacle{o}
		},
	} {
		bad := q
		change(&bad)
		_, err := home.ReturnHeight(bad)
		assert.ErrorIs(t, err, home.ErrInput, name)
	}
}

// The size of the budget: 2,000 obstacles, 200 places of a route and a grid of
// 1,000 by 1,000.
func BenchmarkReturnHeight(b *testing.B) {
	q, path := large()
	for b.Loop() {
		if _, err := home.ReturnHeight(q); err != nil {
			b.Fatal(err)
		}
		if _, err := home.Clearance(path, home.Standing{
			Obstacles: q.Obstacles, PositionM: 3, OverM: home.VerticalClear,
		}); err != nil {
			b.Fatal(err)
		}
	}
}

func large() (home.Question, []home.Place3) {
	q := question()
	q.Route = nil
	q.Terrain = slope(1000, 2, func(x, y float64) float64 { return 20 * math.Sin(x/90) * math.Cos(y/70) })
	var path []home.Place3
	for i := range 200 {
		p := geo.XY{X: -900 + float64(i/2)*18, Y: float64(1-2*((i+1)/2%2)) * 850}
		q.Route = append(q.Route, p)
		path = append(path, home.Place3{At: p, M: 60})
	}
	for i := range 2000 {
		q.Obstacles = append(q.Obstacles, tree(float64(i*37%1900)-950, float64(i*91%1900)-950, float64(5+i%20)))
	}
	return q, path
}

// The way round keeps the buffer and the position error from every corner, by
// whole metres and no more than the corners of its polygon take.
func TestWayRoundKeepsItsDistance(t *testing.T) {
	for _, buffer := range []float64{0, 5, 30} {
		tree := home.Obstacle{ID: "t", Name: "tree", Kind: home.PointKind, Places: []geo.XY{{X: 50}}, HeightM: f(20),
			BufferM: buffer}
		path, err := home.WayRound(geo.XY{}, geo.XY{X: 100}, 10, home.Standing{
			Obstacles: []home.Obstacle{tree}, PositionM: 3, OverM: home.VerticalClear,
		}, nil)
		require.NoError(t, err)
		near := math.Inf(1)
		for i := 1; i < len(path); i++ {
			q, _ := geo.Nearest(tree.Places[0], path[i-1], path[i])
			near = min(near, geo.Dist(q, tree.Places[0]))
		}
		assert.GreaterOrEqual(t, near, buffer+3, "buffer %g", buffer)
		assert.LessOrEqual(t, near, (buffer+3.5)*1.1+1, "buffer %g", buffer)
	}
}

// What only just reaches into the way home, from any side, is in it.
func TestTheWayHomeIsTouched(t *testing.T) {
	for _, turn := range []func(p geo.XY) geo.XY{
		func(p geo.XY) geo.XY { return p }, func(p geo.XY) geo.XY { return geo.XY{X: -p.X, Y: p.Y} },
		func(p geo.XY) geo.XY { return geo.XY{X: p.Y, Y: p.X} }, func(p geo.XY) geo.XY { return geo.XY{X: p.Y, Y: -p.X} },
	} {
		for d, in := range map[float64]bool{4: true, 8: true, 8.01: false} {
			q := question()
			q.Home, q.Route, q.PositionM = geo.XY{}, []geo.XY{turn(geo.XY{X: 64})}, 3
			q.Obstacles = []home.Obstacle{{ID: "t", Name: "tree", Kind: home.PointKind,
				Places: []geo.XY{turn(geo.XY{X: 64 + d})}, HeightM: f(20), BufferM: 5}}
			a, err := home.ReturnHeight(q)
			require.NoError(t, err)
			assert.Equal(t, in, len(a.InWay) == 1, "%g m beyond", d)
		}
	}
}
