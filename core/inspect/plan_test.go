package inspect_test

import (
	"math"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/energy"
	"mainstay/core/geo"
	"mainstay/core/home"
	"mainstay/core/inspect"
	"mainstay/core/judge"
	"mainstay/core/survey"
)

func given(places ...geo.XY) inspect.Given {
	c := survey.Camera{SensorWMM: 6.4, SensorHMM: 4.8, FocalMM: 6.8, PixelsW: 8000, PixelsH: 6000}
	return inspect.Given{Places: places, Start: survey.Place{At: geo.XY{X: -80, Y: -80}}, OverM: 10, Known: true,
		Camera: &c, PictureM: 12, MassKg: 7, Rho: 1.1, UsableWh: 300, FullWh: 400, Reserve: 20, ReturnM: 30, WindKnown: true,
		Model: energy.Model{Kind: energy.Rotors, Discs: 4, DiameterM: 0.55, Efficiency: 0.55, CruiseShare: 1, CruiseMS: 10,
			ClimbMS: 3, DescentMS: 2}}
}

func square(side float64) []geo.XY {
	return []geo.XY{{}, {X: side}, {X: side, Y: side}, {Y: side}}
}

// Every place of the walls lies in a picture, seen square to it, from no nearer than is
// safe; whichever way round the outline goes.
func TestWallsAreSeenWhole(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		side, high := rapid.Float64Range(2, 60).Draw(t, "side"), rapid.Float64Range(2, 40).Draw(t, "height")
		w := inspect.Defaults()
		w.HeightM, w.FromM = high, 0
		w.DetailMM = rapid.Float64Range(1.2, 6).Draw(t, "detail")
		w.Sideways, w.Upwards = rapid.Float64Range(0, 60).Draw(t, "sideways"), rapid.Float64Range(0, 60).Draw(t, "upwards")
		ring := geo.Ring(square(side))
		if rapid.Bool().Draw(t, "round") {
			ring = geo.Ring{ring[3], ring[2], ring[1], ring[0]}
		}
		g := given(ring...)
		g.UsableWh = 1e5
		p, err := inspect.Make(w, g)
		require.NoError(t, err)
		for _, s := range p.Stops {
			assert.False(t, ring.Holds(s.At))
			assert.GreaterOrEqual(t, ring.ToEdge(s.At), w.SafeM-1e-6)
		}
		for i := range ring {
			a, b := ring[i], ring[(i+1)%4]
			for k := range 7 {
				for up := range 5 {
					at, h := a.Add(b.Sub(a).Times(float64(k)/6)), high*float64(up)/4
					seen := false
					for _, s := range p.Stops {
						sin, cos := math.Sincos(s.HeadingDeg * math.Pi / 180)
						look := geo.XY{X: sin, Y: cos}
						d := at.Sub(s.At)
						ahead, beside := d.X*look.X+d.Y*look.Y, math.Abs(d.X*look.Y-d.Y*look.X)
						seen = seen || math.Abs(ahead-p.StandM) < 1e-6 && beside <= p.WideM/2+1e-6 &&
							math.Abs(h-s.HeightM) <= p.HighM/2+1e-6
					}
					assert.True(t, seen, "wall %d at %v, %v m up", i, at, h)
				}
			}
		}
	})
}

// No way from take-off to the first picture, and from each to the next, comes nearer to the
// structure or to what stands beside it than is safe: walls of any shape, towers, poles.
func TestWaysStayClear(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		w := inspect.Defaults()
		w.Form = rapid.SampledFrom([]inspect.Form{inspect.Box, inspect.Cylinder, inspect.Poles}).Draw(t, "form")
		w.HeightM, w.SafeM, w.DetailMM = rapid.Float64Range(3, 30).Draw(t, "height"), rapid.Float64Range(2, 12).Draw(t,
			"safe"), rapid.Float64Range(1.2, 3).Draw(t, "detail")
		w.RadiusM = rapid.Float64Range(0.2, 8).Draw(t, "radius")
		var places []geo.XY
		g := given()
		switch w.Form {
		case inspect.Box: // an L, whose inner walls look at each other
			a, b := rapid.Float64Range(10, 40).Draw(t, "a"), rapid.Float64Range(3, 9).Draw(t, "b")
			places = []geo.XY{{}, {X: a}, {X: a, Y: b}, {X: b, Y: b}, {X: b, Y: a}, {Y: a}}
			g.Line = rapid.IntRange(0, 3).Draw(t, "line") == 0
		case inspect.Cylinder:
			places = []geo.XY{{}}
		case inspect.Poles, inspect.Roof:
			places, g.Line = []geo.XY{{}, {X: 50}, {X: 95, Y: 20}}, true
		}
		g.Places = places
		h := 14.0
		tree := home.Obstacle{Name: "oak", Kind: home.PointKind,
			Places: []geo.XY{{X: rapid.Float64Range(-40, 60).Draw(t, "tree"), Y: -25}}, HeightM: &h, BufferM: 4}
		g.Stand = []home.Obstacle{tree}
		g.UsableWh = rapid.SampledFrom([]float64{80, 1e5}).Draw(t, "packs")
		p, err := inspect.Make(w, g)
		require.NoError(t, err)
		for _, b := range p.Broken {
			if strings.Contains(b.Sentence, "no way round") {
				return // said, and stopped
			}
		}
		far := func(at geo.XY) float64 { // an own reader of how near it comes
			near := math.Inf(1)
			switch {
			case w.Form == inspect.Cylinder:
				return at.Len() - w.RadiusM
			case w.Form == inspect.Box && !g.Line:
				if geo.Ring(places).Holds(at) {
					return 0
				}
				return geo.Ring(places).ToEdge(at)
			}
			for i := 1; i < len(places); i++ {
				q, _ := geo.Nearest(at, places[i-1], places[i])
				near = min(near, geo.Dist(q, at))
			}
			return near
		}
		for _, f := range p.Flights {
			from, low := g.Start.At, p.Stops[f.From].HeightM
			for i := f.From; i < f.To; i++ {
				s := p.Stops[i]
				for _, to := range append(slices.Clone(s.Via), s.At) {
					for k := range 13 {
						at := from.Add(to.Sub(from).Times(float64(k) / 12))
						assert.GreaterOrEqual(t, far(at), w.SafeM-0.1, "on the way to picture %d", i+1)
						if min(low, s.HeightM) < h+10 {
							assert.GreaterOrEqual(t, geo.Dist(at, tree.Places[0]), 4-0.1, "the oak, on the way to picture %d", i+1)
						}
					}
					from = to
				}
				low = s.HeightM
			}
		}
	})
}

// A roof is seen square to its plane, from the same distance everywhere.
func TestRoofIsSeenSquare(t *testing.T) {
	for _, pitch := range []float64{0, 15, 40} {
		w := inspect.Defaults()
		w.Form, w.PitchDeg, w.FacesDeg, w.HeightM, w.DetailMM = inspect.Roof, pitch, 180, 9, 1.5
		p, err := inspect.Make(w, given(square(20)...))
		require.NoError(t, err)
		require.NotEmpty(t, p.Stops)
		sin, cos := math.Sincos(pitch * math.Pi / 180)
		for _, s := range p.Stops {
			// The plane through the ridge at y = 20, 9 m up, that falls to the south.
			off := (s.HeightM-9)*cos + (20-s.At.Y)*sin
			assert.InDelta(t, p.StandM, off, 1e-6)
			assert.InDelta(t, -90+pitch, s.GimbalDeg, 1e-9)
			assert.InDelta(t, 0, s.HeadingDeg, 1e-9)
		}
	}
}

// A tower in rings that look at its middle; poles one after the other.
func TestRings(t *testing.T) {
	w := inspect.Defaults()
	w.Form, w.HeightM, w.RadiusM = inspect.Cylinder, 30, 4
	p, err := inspect.Make(w, given(geo.XY{X: 100, Y: 50}))
	require.NoError(t, err)
	for _, s := range p.Stops {
		d := geo.XY{X: 100, Y: 50}.Sub(s.At)
		assert.InDelta(t, 4+p.StandM, d.Len(), 1e-9)
		assert.InDelta(t, 0, geo.AngleBetween(s.HeadingDeg, geo.Turn(math.Atan2(d.X, d.Y)*180/math.Pi)), 1e-6)
	}
	assert.Equal(t, p.Pictures, len(p.Stops))
	w.Form, w.RadiusM, w.HeightM = inspect.Poles, 0.15, 9
	p, err = inspect.Make(w, given(geo.XY{}, geo.XY{X: 60}, geo.XY{X: 120}))
	require.NoError(t, err)
	assert.Equal(t, 3, p.Faces)
	assert.Zero(t, p.Pictures%(3*2), "from both sides of the line, never from under its wires")
	for _, s := range p.Stops {
		assert.InDelta(t, p.StandM+0.15, math.Abs(s.At.Y), 1e-9)
	}
	assert.Equal(t, judge.Watch, p.Verdict, "the owner's stand-off is asked for")
	w.EnergisedM = 25
	p, err = inspect.Make(w, given(geo.XY{}))
	require.NoError(t, err)
	assert.InDelta(t, 25, p.StandM, 1e-9)
}

// What cannot be flown is said with the nearest that can.
func TestInspectionsThatCannotBe(t *testing.T) {
	near := 120.0
	for wish, c := range map[string]struct {
		change func(*inspect.Wish, *inspect.Given)
		want   judge.Verdict
	}{
		"detail_mm": {func(w *inspect.Wish, _ *inspect.Given) { w.DetailMM = 0.1 }, judge.Watch},
		"height_m":  {func(w *inspect.Wish, g *inspect.Given) { w.HeightM, g.CeilingM = 160, &near }, judge.Stop},
		"card_gb":   {func(w *inspect.Wish, _ *inspect.Given) { w.CardGB, w.DetailMM = 0.1, 1 }, judge.Stop},
		"camera":    {func(_ *inspect.Wish, g *inspect.Given) { g.Camera = nil }, judge.Stop},
		"feature":   {func(_ *inspect.Wish, g *inspect.Given) { g.UsableWh = 1 }, judge.Stop},
		"wind": {func(_ *inspect.Wish, g *inspect.Given) { g.Wind = energy.Wind{MeanMS: 6, GustMS: 8, FromDeg: 270} },
			judge.Watch},
	} {
		w, g := inspect.Defaults(), given(square(12)...)
		c.change(&w, &g)
		p, err := inspect.Make(w, g)
		require.NoError(t, err, wish)
		found := false
		for _, b := range p.Broken {
			found = found || b.Wish == wish && b.Verdict == c.want
		}
		assert.True(t, found, "%s: %v", wish, p.Broken)
	}
	w, g := inspect.Defaults(), given(square(12)...)
	w.HeightM, g.CeilingM = 160, &near
	over := 121.92
	g.OverTopM, g.WithinM = &over, 121.92
	p, err := inspect.Make(w, g)
	require.NoError(t, err)
	for _, b := range p.Broken {
		assert.NotEqual(t, "height_m", b.Wish, "near a structure its top counts: %s", b.Sentence)
	}
	for name, bad := range map[string]func(*inspect.Wish, *inspect.Given){
		"no number": func(w *inspect.Wish, _ *inspect.Given) { w.DetailMM = math.NaN() },
		"overlap":   func(w *inspect.Wish, _ *inspect.Given) { w.Sideways = 100 },
		"form":      func(w *inspect.Wish, _ *inspect.Given) { w.Form = "cloud" },
		"nowhere":   func(_ *inspect.Wish, g *inspect.Given) { g.Places = nil },
		"too many": func(w *inspect.Wish, g *inspect.Given) {
			g.Places, w.HeightM, w.Sideways, w.Upwards, w.DetailMM = square(900), 300, 90, 90, 0.5
		},
	} {
		w, g := inspect.Defaults(), given(square(12)...)
		bad(&w, &g)
		_, err := inspect.Make(w, g)
		assert.Error(t, err, name)
	}
}

// Flights take every stop once and what the packs give.
func TestInspectionFlights(t *testing.T) {
	g := given(square(40)...)
	g.UsableWh = 60
	w := inspect.Defaults()
	w.HeightM, w.DetailMM = 20, 1
	p, err := inspect.Make(w, g)
	require.NoError(t, err)
	require.Greater(t, len(p.Flights), 1)
	at := 0
	for _, f := range p.Flights {
		assert.Equal(t, at, f.From)
		assert.Greater(t, f.To, f.From)
		assert.LessOrEqual(t, f.Wh, 60.0)
		at = f.To
	}
	assert.Equal(t, len(p.Stops), at)
}
