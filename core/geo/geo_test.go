package geo_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/geo"
)

func TestDistanceAndBearing(t *testing.T) {
	// A degree of a great circle on the mean sphere is 111.195 km.
	assert.InDelta(t, 111195, geo.Distance(geo.Point{}, geo.Point{Lat: 1}), 1)
	assert.InDelta(t, 111195, geo.Distance(geo.Point{Lon: 179.5}, geo.Point{Lon: -179.5}), 1)
	assert.InDelta(t, 0, geo.Bearing(geo.Point{}, geo.Point{Lat: 1}), 1e-9)
	assert.InDelta(t, 90, geo.Bearing(geo.Point{}, geo.Point{Lon: 1}), 1e-9)
	assert.InDelta(t, 270, geo.Bearing(geo.Point{Lon: -179.5}, geo.Point{Lon: 179.5}), 1e-9)
	assert.Equal(t, 20.0, geo.AngleBetween(350, 10))
	assert.Equal(t, -20.0, geo.AngleBetween(10, 350))
	assert.Equal(t, 180.0, geo.AngleBetween(0, 180))
}

func TestPlacesThatAreRefused(t *testing.T) {
	for want, p := range map[string]geo.Point{
		"swapped": {Lat: -119.7, Lon: 46.31}, "latitude 95": {Lat: 95, Lon: 100}, "longitude 190": {Lat: 10, Lon: 190},
		"pole": {Lat: 89, Lon: 10}, "numbers": {Lat: math.NaN()},
	} {
		err := p.Check()
		require.ErrorIs(t, err, geo.ErrPlace)
		assert.ErrorContains(t, err, want)
	}
}

func TestFrameComesBackAndAgreesWithTheSphere(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		o := geo.Point{Lat: rapid.Float64Range(-70, 70).Draw(t, "lat"), Lon: rapid.Float64Range(-180, 180).Draw(t, "lon")}
		f, err := geo.NewFrame(o)
		require.NoError(t, err)
		q := geo.XY{X: rapid.Float64Range(-7000, 7000).Draw(t, "x"), Y: rapid.Float64Range(-7000, 7000).Draw(t, "y")}
		p := f.Point(q)
		back := f.XY(p)
		assert.InDelta(t, q.X, back.X, 1e-3)
		assert.InDelta(t, q.Y, back.Y, 1e-3)
		if q.Len() > 100 {
			assert.InEpsilon(t, geo.Distance(o, p), q.Len(), 0.008, "the sphere is up to 0.5 percent off the ellipsoid")
		}
	})
	f, err := geo.NewFrame(geo.Point{Lat: -17, Lon: 179.999})
	require.NoError(t, err)
	assert.InDelta(t, 213, f.XY(geo.Point{Lat: -17, Lon: -179.999}).X, 1, "over the date line")
}

func TestAreaOfARectangleWithAHole(t *testing.T) {
	a := geo.Area{Outline: square(0, 0, 100), Holes: []geo.Ring{square(20, 20, 10)}}
	require.NoError(t, a.Check())
	assert.InDelta(t, 9900, a.Size(), 1e-9)
	assert.True(t, a.Holds(geo.XY{X: 5, Y: 5}))
	assert.True(t, a.Holds(geo.XY{X: 0, Y: 50}), "the edge belongs to it")
	assert.False(t, a.Holds(geo.XY{X: 25, Y: 25}), "in the hole")
	assert.True(t, a.Holds(geo.XY{X: 20, Y: 25}), "the edge of the hole belongs to the area")
	assert.False(t, a.Holds(geo.XY{X: 101, Y: 5}))
	assert.ErrorContains(t, geo.Area{Outline: square(0, 0, 10), Holes: []geo.Ring{square(20, 20, 10)}}.Check(), "outside")
}

func square(x, y, side float64) geo.Ring {
	return geo.Ring{{X: x, Y: y}, {X: x + side, Y: y}, {X: x + side, Y: y + side}, {X: x, Y: y + side}}
}

func TestOutlinesThatAreRefused(t *testing.T) {
	for want, r := range map[string]geo.Ring{
		"at least 3": {{X: 0, Y: 0}, {X: 1, Y: 1}},
		"no area":    {{X: 0, Y: 0}, {X: 1, Y: 1}, {X: 2, Y: 2}},
		"it crosses itself between corners 1 and 3": {{X: 0, Y: 0}, {X: 10, Y: 10}, {X: 10, Y: 0}, {X: 0, Y: 9}},
		"corner 2 stands twice":                     {{X: 0, Y: 0}, {X: 10, Y: 0}, {X: 10, Y: 0}, {X: 10, Y: 10}},
	} {
		err := r.Check()
		require.ErrorIs(t, err, geo.ErrRing)
		assert.ErrorContains(t, err, want)
	}
}

// The distance of segments against sampling both finely.
func TestSegmentsAgainstSampling(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := func(name string) geo.XY {
			return geo.XY{X: rapid.Float64Range(-50, 50).Draw(t, name+"x"), Y: rapid.Float64Range(-50, 50).Draw(t, name+"y")}
		}
		a, b, c, d := p("a"), p("b"), p("c"), p("d")
		got, along := geo.Segments(a, b, c, d)
		least := math.Inf(1)
		for i := range 201 {
			q := a.Add(b.Sub(a).Times(float64(i) / 200))
			n, _ := geo.Nearest(q, c, d)
			least = min(least, geo.Dist(q, n))
		}
		assert.InDelta(t, least, got, geo.Dist(a, b)/200+1e-6)
		n, _ := geo.Nearest(a.Add(b.Sub(a).Times(along)), c, d)
		assert.InDelta(t, got, geo.Dist(a.Add(b.Sub(a).Times(along)), n), 1e-6,
			"the place along the first is where they are nearest")
	})
}

func TestHullHoldsEverything(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n := rapid.IntRange(3, 30).Draw(t, "n")
		var ps []geo.XY
		for range n {
			ps = append(ps, geo.XY{X: float64(rapid.IntRange(-20, 20).Draw(t, "x")),
				Y: float64(rapid.IntRange(-20, 20).Draw(t, "y"))})
		}
		h := geo.Hull(ps)
		if len(h) < 3 {
			return
		}
		assert.Positive(t, h.Area(), "anticlockwise")
		for _, p := range ps {
			assert.True(t, h.Holds(p))
		}
	})
}

// The search from west to east against holding every side against every other.
func TestSelfCrossingAgainstAllPairs(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n := rapid.IntRange(3, 14).Draw(t, "n")
		var r geo.Ring
		seen := map[geo.XY]bool{}
		for len(r) < n {
			p := geo.XY{X: float64(rapid.IntRange(0, 12).Draw(t, "x")), Y: float64(rapid.IntRange(0, 12).Draw(t, "y"))}
			if !seen[p] {
				seen[p], r = true, append(r, p)
			}
		}
		want := false
		for i := range r {
			for j := i + 2; j < n; j++ {
				if !(i == 0 && j == n-1) && geo.Cross(r[i], r[(i+1)%n], r[j], r[(j+1)%n]) {
					want = true
				}
			}
		}
		err := r.Check()
		if want {
			assert.ErrorContains(t, err, "crosses itself")
		} else if err != nil {
			assert.ErrorContains(t, err, "no area")
		}
	})
}

// Segments that cross, that touch with an end, that lie on each other, and that
// miss.
func TestCross(t *testing.T) {
	o := func(x, y float64) geo.XY { return geo.XY{X: x, Y: y} }
	for _, c := range []struct {
		a, b, c, d geo.XY
		meet       bool
	}{
		{o(0, 0), o(10, 10), o(0, 10), o(10, 0), true}, {o(0, 0), o(10, 0), o(5, 0), o(5, 5), true}, {o(0, 0), o(10, 0),
			o(5, 0), o(5, -5), true}, {o(0, 0), o(10, 0), o(10, 0), o(20, 5), true},
		{o(0, 0), o(10, 0), o(5, 0), o(15, 0), true}, {o(0, 0), o(10, 0), o(11, 0), o(15, 0), false}, {o(0, 0), o(10, 0),
			o(5, 1), o(5, 5), false}, {o(0, 0), o(10, 0), o(0, 1), o(10, 1), false},
		{o(0, 0), o(10, 0), o(11, -5), o(11, 5), false}, {o(0, 0), o(10, 0), o(11, 0), o(11, 5), false}, {o(0, 0), o(10, 0),
			o(-1, 0), o(-1, 5), false},
	} {
		assert.Equal(t, c.meet, geo.Cross(c.a, c.b, c.c, c.d), "%v", c)
		assert.Equal(t, c.meet, geo.Cross(c.c, c.d, c.a, c.b), "%v turned", c)
		assert.Equal(t, c.meet, geo.Cross(c.b, c.a, c.d, c.c), "%v backwards", c)
	}
}
