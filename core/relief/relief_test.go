package relief_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/geo"
	"mainstay/core/home"
	"mainstay/core/relief"
)

func terrain(n int, cell float64, h func(x, y float64) float64) *home.Terrain {
	half := float64(n-1) / 2 * cell
	t := &home.Terrain{Origin: geo.XY{X: -half, Y: -half}, CellM: cell, Columns: n, Rows: n}
	for r := range n {
		for c := range n {
			t.Heights = append(t.Heights, float32(h(-half+float64(c)*cell, -half+float64(r)*cell)))
		}
	}
	return t
}

// The shade of a plane is the cosine of the angle between its normal and the
// light, which is the textbook's formula written with slope and aspect.
func TestShadeOfPlanes(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		slope := rapid.Float64Range(0, 60).Draw(t, "slope") * math.Pi / 180
		aspect := rapid.Float64Range(0, 360).Draw(t, "aspect") * math.Pi / 180 // downhill
		g := relief.Of(terrain(5, 10, func(x, y float64) float64 {
			return 300 - math.Tan(slope)*(x*math.Sin(aspect)+y*math.Cos(aspect))
		}), 1000)
		const zenith = 45 * math.Pi / 180
		want := math.Cos(zenith)*math.Cos(slope) + math.Sin(zenith)*math.Sin(slope)*math.Cos(315*math.Pi/180-aspect)
		assert.InDelta(t, max(0, want), g.Shade(2, 2, 1), 1e-4)
	})
}

// Every place of a contour has its elevation, no two lines of one level meet but
// in themselves, and what lies between two contours is between their levels.
func TestContoursLieAtTheirElevation(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		k := rapid.Float64Range(0.002, 0.02).Draw(t, "k")
		phase := rapid.Float64Range(0, 6).Draw(t, "phase")
		high := rapid.Float64Range(3, 90).Draw(t, "high")
		g := terrain(25, 20, func(x, y float64) float64 { return 200 + high*math.Sin(k*x+phase)*math.Cos(k*y) })
		of := relief.Of(g, 10_000)
		lines := of.Contours()
		require.LessOrEqual(t, of.HighM-of.LowM, 10.001*of.Step())
		for _, l := range lines {
			require.GreaterOrEqual(t, len(l.Places), 2)
			for i, p := range l.Places {
				v, ok := g.Smooth(p)
				require.True(t, ok)
				if max(math.Abs(p.X), math.Abs(p.Y)) > 219 {
					continue // at the edge the terrain gives whole cells
				}
				require.InDelta(t, l.M, v, 1e-3+high*1e-4, "on a side of the grid the elevation is linear")
				if i > 0 {
					require.LessOrEqual(t, geo.Dist(p, l.Places[i-1]), 20*math.Sqrt2+1e-6, "piece by piece")
				}
			}
		}
	})
}

// A cone's contours are rings of the radius that its slope gives, each one line.
func TestContoursOfACone(t *testing.T) {
	g := relief.Of(terrain(101, 5, func(x, y float64) float64 { return 500 - 0.2*math.Hypot(x, y) }), 10_000)
	step := g.Step()
	assert.InDelta(t, 10, step, 1e-9, "70 m of relief to the corners")
	rings := map[float64]int{}
	for _, l := range g.Contours() {
		r := (500 - l.M) / 0.2
		if r > 240 || r < 10 {
			continue // cut by the edge, or the tip itself
		}
		rings[l.M]++
		for _, p := range l.Places {
			assert.InDelta(t, r, math.Hypot(p.X, p.Y), 1)
		}
		assert.InDelta(t, 0, geo.Dist(l.Places[0], l.Places[len(l.Places)-1]), 1e-9, "closed")
		assert.Equal(t, math.Mod(l.M, 50) == 0, l.Main)
	}
	assert.Len(t, rings, 4)
	for m, n := range rings {
		assert.Equal(t, 1, n, m)
	}
}

func TestGapsAndLevelGround(t *testing.T) {
	flat := relief.Of(terrain(9, 10, func(_, _ float64) float64 { return 210 }), 1000)
	assert.Empty(t, flat.Contours())
	_, _, _, a := flat.Picture().At(4, 4).RGBA()
	assert.Zero(t, a, "level ground is neither darker nor brighter")
	holed := terrain(21, 10, func(x, y float64) float64 {
		if math.Hypot(x, y) < 25 {
			return math.NaN()
		}
		return 200 + x/5
	})
	g := relief.Of(holed, 1000)
	for _, l := range g.Contours() {
		for _, p := range l.Places {
			assert.Greater(t, math.Hypot(p.X, p.Y), 14.0, "nothing is drawn through a gap")
		}
	}
	assert.True(t, math.IsNaN(g.Shade(10, 10, 1)))
	none := relief.Of(terrain(3, 10, func(_, _ float64) float64 { return math.NaN() }), 1000)
	assert.Empty(t, none.Contours())
	coarse := relief.Of(terrain(2, 900, func(x, _ float64) float64 { return x }), 100)
	assert.True(t, coarse.Drawable(), "cells that are larger than what is looked at are drawn too")
	away := terrain(3, 10, func(_, _ float64) float64 { return 1 })
	away.Origin = geo.XY{X: 5000}
	assert.False(t, relief.Of(away, 100).Drawable())
	assert.Empty(t, relief.Of(away, 100).Contours())
}

// A fine grid is thinned, and one that reaches far is cut.
func TestOnlyWhatIsSeenIsDrawn(t *testing.T) {
	g := relief.Of(terrain(900, 3, func(x, y float64) float64 { return x + y }), 600)
	assert.LessOrEqual(t, max(g.Columns, g.Rows), relief.Most+1)
	assert.GreaterOrEqual(t, g.Origin.X, -600.0)
	assert.Less(t, math.Abs(g.Origin.X+float64(g.Columns-1)*g.CellM), 610.0)
}
