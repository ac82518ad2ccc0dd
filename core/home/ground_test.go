package home_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/geo"
	"mainstay/core/home"
)

// The ground under a shape against asking every cell: the highest is never
// missed, wherever under it the hill lies.
func TestGroundUnderAShapeAgainstEveryCell(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		coord := rapid.Float64Range(-90, 90)
		xy := func(name string) geo.XY { return geo.XY{X: coord.Draw(t, name+"x"), Y: coord.Draw(t, name+"y")} }
		peak := xy("peak")
		terrain := slope(60, 4, func(x, y float64) float64 { return max(0, 40-geo.Dist(geo.XY{X: x, Y: y}, peak)) })
		area := []geo.XY{xy("a"), xy("b"), xy("c")}
		kind := rapid.SampledFrom([]home.Kind{home.AreaKind, home.LineKind, home.PointKind}).Draw(t, "kind")
		if kind == home.PointKind {
			area = area[:1]
		}
		u := terrain.UnderShape(kind, area, 0)
		require.True(t, u.Known)
		inside, near := 0.0, 0.0
		for r := range 60 {
			for c := range 60 {
				p := geo.XY{X: terrain.Origin.X + float64(c)*4, Y: terrain.Origin.Y + float64(r)*4}
				h := float64(terrain.Heights[r*60+c])
				d := math.Inf(1)
				for i := range area {
					q, _ := geo.Nearest(p, area[i], area[min(i+1, len(area)-1)])
					d = min(d, geo.Dist(p, q))
				}
				if kind == home.AreaKind {
					if q, _ := geo.Nearest(p, area[2], area[0]); geo.Dist(p, q) < d {
						d = geo.Dist(p, q)
					}
					if geo.Ring(area).Holds(p) {
						d = 0
					}
				}
				if d == 0 {
					inside = max(inside, h)
				}
				if d <= 6 {
					near = max(near, h)
				}
			}
		}
		assert.GreaterOrEqual(t, u.HighM+1e-3, inside)
		assert.LessOrEqual(t, u.HighM, near+1e-3)
	})
}

func TestAWoodOverAHilltop(t *testing.T) {
	hill := slope(100, 5, func(x, y float64) float64 { return max(0, 15-geo.Dist(geo.XY{X: x, Y: y}, geo.XY{})/4) })
	corners := []geo.XY{{X: -70, Y: -70}, {X: 70, Y: -70}, {X: 70, Y: 70}, {X: -70, Y: 70}}
	u := hill.UnderShape(home.AreaKind, corners, 0)
	assert.InDelta(t, 15, u.HighM, 0.1, "its top, not its corners")
	assert.True(t, u.Known)
	ridge := slope(100, 5, func(x, _ float64) float64 { return max(0, 20-math.Abs(x)/2) })
	assert.InDelta(t, 20, ridge.UnderShape(home.LineKind, []geo.XY{{X: -100}, {X: 100}}, 0).HighM, 0.1,
		"the span crosses the ridge")
	assert.False(t, ridge.UnderShape(home.LineKind, []geo.XY{{X: -100}, {X: 900}}, 0).Known, "over the edge")
	ridge.Heights[50*100+50] = float32(math.NaN())
	assert.False(t, ridge.UnderShape(home.LineKind, []geo.XY{{X: -100}, {X: 100}}, 0).Known, "a gap")
	var none *home.Terrain
	assert.False(t, none.UnderShape(home.PointKind, corners[:1], 0).Known)
}

func TestLegsOverTheGround(t *testing.T) {
	rise := slope(100, 5, func(_, y float64) float64 { return 100 + max(0, y)/5 })
	rise.SigmaM = 0.5
	level := []home.Place3{{At: geo.XY{}, M: 130}, {At: geo.XY{Y: 100}, M: 130}, {At: geo.XY{Y: 200}, M: 130}}
	got, err := home.OverGround(level, rise, 100, 0)
	require.NoError(t, err)
	require.Len(t, got, 2)
	assert.InDelta(t, 9, got[0].LowestM, 1.1, "20 m up at 100 m, and twice 0.5")
	assert.InDelta(t, 30, got[0].HighestM, 0.1)
	assert.Less(t, got[1].LowestM, -9.0, "it flies into the ground")
	assert.True(t, got[0].Known)
	path, leg := home.Following([]geo.XY{{}, {Y: 100}, {Y: 200}}, rise, 100, 30)
	assert.Equal(t, len(path), len(leg)+1)
	assert.Equal(t, []int{0, 1}, []int{leg[0], leg[len(leg)-1]})
	assert.Equal(t, []geo.XY{{}, {Y: 200}}, []geo.XY{path[0].At, path[len(path)-1].At}, "from its first place to its last")
	assert.Len(t, leg, 40, "a step for each cell")
	over, err := home.OverGround(path, rise, 100, 0)
	require.NoError(t, err)
	for _, g := range over {
		assert.InDelta(t, 29, g.LowestM, 1.5, "it follows the ground")
	}
	far, err := home.OverGround([]home.Place3{{M: 130}, {At: geo.XY{Y: 900}, M: 130}}, rise, 100, 0)
	require.NoError(t, err)
	assert.False(t, far[0].Known)
	none, err := home.OverGround(level, nil, 100, 0)
	require.NoError(t, err)
	assert.Equal(t, home.GroundLeg{LowestM: 30, HighestM: 30}, none[0])
	for _, bad := range [][]home.Place3{nil, {{M: math.NaN()}, {}}, {{At: geo.XY{X: math.Inf(1)}}, {}}} {
		_, err := home.OverGround(bad, rise, 100, 0)
		assert.ErrorIs(t, err, home.ErrInput)
	}
}

// The fan against a fine sample of its places.
func TestFanAgainstItsPlaces(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		coord := rapid.Float64Range(-200, 200)
		xy := func(name string) geo.XY { return geo.XY{X: coord.Draw(t, name+"x"), Y: coord.Draw(t, name+"y")} }
		at, route := xy("home"), []geo.XY{xy("a"), xy("b"), xy("c")}
		c, side := xy("zone"), rapid.Float64Range(5, 150).Draw(t, "side")
		ring := geo.Ring{c, {X: c.X + side, Y: c.Y}, {X: c.X + side, Y: c.Y + side}, {X: c.X, Y: c.Y + side}}
		met := false
		for i := 1; i < len(route); i++ {
			for a := range 30 {
				p := route[i-1].Add(route[i].Sub(route[i-1]).Times(float64(a) / 29))
				for b := range 30 {
					met = met || ring.Holds(at.Add(p.Sub(at).Times(float64(b)/29)))
				}
			}
		}
		if met {
			assert.True(t, home.FanReaches(at, route, geo.Area{Outline: ring}, 0))
		}
	})
	hole := geo.Area{Outline: geo.Ring{{X: -900, Y: -900}, {X: 900, Y: -900}, {X: 900, Y: 900}, {X: -900, Y: 900}},
		Holes: []geo.Ring{{{X: -300, Y: -300}, {X: 300, Y: -300}, {X: 300, Y: 300}, {X: -300, Y: 300}}}}
	assert.False(t, home.FanReaches(geo.XY{}, []geo.XY{{X: 100}, {X: 100, Y: 100}}, hole, 20), "wholly in its hole")
	assert.True(t, home.FanReaches(geo.XY{}, []geo.XY{{X: 100}, {X: 350, Y: 100}}, hole, 20))
}

// A needle on any cell of a square whose edges run over the cells is found, and
// one a cell further out is not far enough to matter twice.
func TestNoCellOfASquareIsMissed(t *testing.T) {
	square := []geo.XY{{X: -20, Y: -20}, {X: 20, Y: -20}, {X: 20, Y: 20}, {X: -20, Y: 20}}
	for x := -32.0; x <= 32; x += 4 {
		for y := -32.0; y <= 32; y += 4 {
			needle := slope(20, 4, func(px, py float64) float64 {
				if px == x && py == y {
					return 30
				}
				return 0
			})
			u := needle.UnderShape(home.AreaKind, square, 0)
			require.True(t, u.Known)
			d := max(math.Abs(x), math.Abs(y)) - 20
			switch {
			case d <= 0:
				assert.InDelta(t, 30, u.HighM, 1e-9, "at %g, %g", x, y)
			case d > 4:
				assert.InDelta(t, 0, u.HighM, 1e-9, "at %g, %g", x, y)
			}
		}
	}
}

// A shape or a fan that reaches over the edge of the terrain is not known, on
// each of its four sides; one that ends on the last cells is.
func TestTheEdgeOfTheTerrain(t *testing.T) {
	flat := slope(20, 4, func(_, _ float64) float64 { return 0 }) // cells from -40 to 36
	for _, turn := range []func(x, y float64) geo.XY{
		func(x, y float64) geo.XY { return geo.XY{X: x, Y: y} }, func(x, y float64) geo.XY { return geo.XY{X: y, Y: x} },
	} {
		for _, c := range []struct {
			to    float64
			known bool
		}{{32, true}, {38, true}, {38.1, false}, {60, false}, {-36, true}, {-42, true}, {-42.1, false}, {-60, false}} {
			u := flat.UnderShape(home.LineKind, []geo.XY{turn(0, 0), turn(c.to, 0)}, 0)
			assert.Equal(t, c.known, u.Known, "to %g", c.to)
		}
	}
}

func TestTheSmallestTerrain(t *testing.T) {
	one := &home.Terrain{CellM: 5, Columns: 1, Rows: 1, Heights: []float32{7}}
	got, err := home.OverGround([]home.Place3{{M: 30}, {At: geo.XY{X: 1}, M: 30}}, one, 0, 0)
	require.NoError(t, err)
	assert.InDelta(t, 23, got[0].LowestM, 1e-9)
	for name, spoil := range map[string]func(t *home.Terrain){
		"no cell":   func(t *home.Terrain) { t.CellM = 0 },
		"no column": func(t *home.Terrain) { t.Columns, t.Heights = 0, nil },
		"no row":    func(t *home.Terrain) { t.Rows, t.Heights = 0, nil },
		"too few":   func(t *home.Terrain) { t.Heights = nil },
		"no error":  func(t *home.Terrain) { t.SigmaM = -1 },
	} {
		bad := *one
		spoil(&bad)
		_, err := home.OverGround([]home.Place3{{M: 30}, {At: geo.XY{X: 1}, M: 30}}, &bad, 0, 0)
		assert.ErrorIs(t, err, home.ErrInput, name)
	}
}

// A needle that the reach of a shape touches is found, wherever the terrain lies.
func TestTheReachOfAShape(t *testing.T) {
	for _, from := range []geo.XY{{}, {X: 1000, Y: 2000}, {X: -3000, Y: -500}} {
		for d := 2.0; d <= 40; d += 2 {
			for _, at := range []geo.XY{{Y: d}, {Y: -d}, {X: d}, {X: -d}} {
				needle := slope(60, 2, func(x, y float64) float64 {
					if math.Abs(x-at.X) < 1 && math.Abs(y-at.Y) < 1 {
						return 30
					}
					return 0
				})
				needle.Origin = needle.Origin.Add(from)
				u := needle.UnderShape(home.PointKind, []geo.XY{from}, 20)
				require.True(t, u.Known)
				switch {
				case d <= 20:
					assert.InDelta(t, 30, u.HighM, 1e-9, "at %v of %v", at, from)
				case d > 24:
					assert.InDelta(t, 0, u.HighM, 1e-9, "at %v of %v", at, from)
				}
			}
		}
	}
}

// Between cells the ground is a plane where the cells are; at the edge and beside a gap it
// is that of its own cell.
func TestSmoothGround(t *testing.T) {
	g := &home.Terrain{CellM: 10, Columns: 3, Rows: 3, Heights: []float32{0, 10, 20, 5, 15, 25, 10, 20,
		float32(math.NaN())}}
	at := func(x, y float64) float64 {
		v, ok := g.Smooth(geo.XY{X: x, Y: y})
		require.True(t, ok, "%g %g", x, y)
		return v
	}
	assert.InDelta(t, 7.5, at(5, 5), 1e-9)
	assert.InDelta(t, 4, at(4, 0), 1e-9)
	assert.InDelta(t, 20, at(24, -4), 1e-9, "the edge")
	assert.InDelta(t, 15, at(12, 12), 1e-9, "beside a gap")
	_, ok := g.Smooth(geo.XY{X: 20, Y: 20})
	assert.False(t, ok)
	_, ok = g.Smooth(geo.XY{X: 60, Y: 0})
	assert.False(t, ok)
	_, ok = (*home.Terrain)(nil).Smooth(geo.XY{})
	assert.False(t, ok)
}
