package spray_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/energy"
	"mainstay/core/geo"
	"mainstay/core/judge"
	"mainstay/core/spray"
)

func sprayer() energy.Model {
	return energy.Model{Kind: energy.Rotors, Discs: 6, DiameterM: 1, Efficiency: 0.55, CruiseShare: 1, CruiseMS: 8,
		ClimbMS: 3, DescentMS: 2}
}

// work is a sprayer beside a field of 70 x 300 m: 10 passes of 300 m and 3.15 L each.
func work(t require.TestingT) spray.Work {
	c := cover(t, spray.Field{Outline: box(0, 0, 70, 300)}, spray.Pattern{SwathM: 7, Sections: 1})
	s, err := spray.Settings{Rate: 15, Speed: 6, Swath: 7}.Solve(spray.UnknownFlow)
	require.NoError(t, err)
	return spray.Work{Cover: c, Settings: s, Start: geo.XY{X: 3.5, Y: -20}, TankL: 30, KgPerL: 1, DryKg: 40, MostKg: 72,
		TurnS: 6, ReturnM: 10, HeightM: 3, Rho: 1.225, Model: sprayer(), UsableWh: 2000}
}

func TestSortiesOfABoxByHand(t *testing.T) {
	w := work(t)
	f, err := w.Fly()
	require.NoError(t, err)
	assert.Empty(t, f.Broken)
	require.Len(t, f.Sorties, 2)
	assert.InDelta(t, 21000, f.AreaM2, 1e-6)
	assert.InDelta(t, 31.5, f.Litres, 1e-6)
	assert.InDelta(t, 30, f.Sorties[0].Litres, 1e-4)
	assert.Equal(t, spray.ByTank, f.Sorties[0].Limit)
	assert.InDelta(t, 1.5, f.Sorties[1].Litres, 1e-4, "the last load is exact")
	assert.Equal(t, spray.ByArea, f.Sorties[1].Limit)
	assert.InDelta(t, 70, f.Sorties[0].TakeOffKg, 1e-4)
	assert.InDelta(t, 41.5, f.Sorties[1].TakeOffKg, 1e-4)
	// Passes follow each other there and back.
	for i, l := range f.Sorties[0].Legs {
		assert.Equal(t, i, l.Pass)
		assert.Equal(t, i%2 == 1, l.Back)
	}
	// Whole passes: nine in the first, the tenth in the second.
	w.WholePass = true
	f, err = w.Fly()
	require.NoError(t, err)
	assert.Len(t, f.Sorties[0].Legs, 9)
	assert.InDelta(t, 28.35, f.Sorties[0].Litres, 1e-6)
	w.EndAtStart = true
	f, err = w.Fly()
	require.NoError(t, err)
	assert.Len(t, f.Sorties[0].Legs, 8, "an odd number ends at the far side")
}

func TestBrokenOffGoesOnWhereItEnded(t *testing.T) {
	w := work(t)
	for _, i := range []int{0, 1, 2, 5, 7, 8, 9} {
		w.Sprayed = append(w.Sprayed, spray.Sprayed{Pass: i, To: 1})
	}
	w.Sprayed = append(w.Sprayed, spray.Sprayed{Pass: 3, From: 0.25, To: 0.75}, spray.Sprayed{Pass: 3, From: 0.7, To: 0.8})
	f, err := w.Fly()
	require.NoError(t, err)
	var passes []int
	for _, l := range f.Sorties[0].Legs {
		passes = append(passes, l.Pass)
	}
	assert.ElementsMatch(t, []int{3, 3, 4, 6}, passes)
	assert.InDelta(t, (0.25+0.2+2)*2100, f.AreaM2, 1e-6)
	for i := range w.Cover.Passes {
		w.Sprayed = append(w.Sprayed, spray.Sprayed{Pass: i, To: 1})
	}
	f, err = w.Fly()
	require.NoError(t, err)
	assert.Empty(t, f.Sorties, "all is sprayed")
}

// Wishes that cannot be met are named, with the nearest value where there is one.
func TestWishesThatBreak(t *testing.T) {
	for name, row := range map[string]struct {
		spoil func(*spray.Work)
		wish  string
		stop  bool
	}{
		"mass":    {func(w *spray.Work) { w.MostKg = 40 }, "mass", true},
		"less":    {func(w *spray.Work) { w.MostKg = 50 }, "tank", false},
		"energy":  {func(w *spray.Work) { w.UsableWh = 20 }, "energy", true},
		"no home": {func(w *spray.Work) { w.Wind = energy.Wind{MeanMS: 9, GustMS: 9, FromDeg: 180} }, "wind", true},
		"a drop":  {func(w *spray.Work) { w.MostKg = 40.001 }, "tank", true},
	} {
		w := work(t)
		row.spoil(&w)
		f, err := w.Fly()
		require.NoError(t, err, name)
		require.NotEmpty(t, f.Broken, name)
		last := f.Broken[len(f.Broken)-1]
		assert.Equal(t, row.wish, last.Wish, name)
		assert.Equal(t, row.stop, last.Verdict == judge.Stop, name)
		assert.Equal(t, row.stop, len(f.Sorties) == 0, name)
	}
	w := work(t)
	w.MostKg = 50
	f, err := w.Fly()
	require.NoError(t, err)
	assert.InDelta(t, 10, *f.Broken[0].Nearest, 1e-9)
	assert.Equal(t, spray.ByMass, f.Sorties[0].Limit)
	bad := work(t)
	bad.Sprayed = []spray.Sprayed{{Pass: 10, To: 1}}
	_, err = bad.Fly()
	require.ErrorIs(t, err, spray.ErrInput)
	bad = work(t)
	bad.Rho = math.NaN()
	_, err = bad.Fly()
	require.ErrorIs(t, err, spray.ErrInput)
}

// Every sortie keeps its limits, and all together spray every pass once, whole.
func TestSortiesAddUp(t *testing.T) {
	rapid.Check(t, func(rt *rapid.T) {
		f := anyField(rt)
		c, err := f.Passes(spray.Pattern{BearingDeg: rapid.Float64Range(0, 360).Draw(rt, "bearing"), SwathM: 6, Sections: 2,
			Edges: rapid.Bool().Draw(rt, "edges")})
		require.NoError(rt, err)
		w := work(rt)
		w.Cover = c
		w.Settings, err = spray.Settings{Rate: rapid.Float64Range(5, 60).Draw(rt, "rate"), Speed: 6,
			Swath: 6}.Solve(spray.UnknownFlow)
		require.NoError(rt, err)
		w.UsableWh = rapid.Float64Range(200, 1500).Draw(rt, "energy")
		w.WholePass, w.EndAtStart = rapid.Bool().Draw(rt, "whole"), rapid.Bool().Draw(rt, "end at start")
		w.Wind = energy.Wind{MeanMS: 3, GustMS: 5, FromDeg: rapid.Float64Range(0, 360).Draw(rt, "wind")}
		got, err := w.Fly()
		require.NoError(rt, err)
		if len(got.Broken) > 0 {
			return
		}
		shares := make([]float64, len(c.Passes))
		area := 0.0
		for _, s := range got.Sorties {
			assert.LessOrEqual(rt, s.Litres, w.TankL*(1+1e-9))
			assert.LessOrEqual(rt, s.TakeOffKg, w.MostKg*(1+1e-9))
			assert.LessOrEqual(rt, s.Wh, w.UsableWh*(1+1e-9))
			assert.InDelta(rt, s.AreaM2*w.Settings.Rate/1e4, s.Litres, 1e-6)
			for _, l := range s.Legs {
				shares[l.Pass] += l.Share[1] - l.Share[0]
				area += l.AreaM2
			}
		}
		assert.InDelta(rt, c.OpenedM2, area, 1e-6*c.OpenedM2+1e-6)
		for i, s := range shares {
			assert.InDelta(rt, 1, s, 1e-9, i)
		}
	})
}

func TestBestBearing(t *testing.T) {
	// A field of 70 x 300, turned by 30 degrees, is flown along its length.
	sin, cos := math.Sincos(30 * math.Pi / 180)
	var r geo.Ring
	for _, p := range box(0, 0, 70, 300) {
		r = append(r, geo.XY{X: p.X*cos + p.Y*sin, Y: -p.X*sin + p.Y*cos})
	}
	b, err := spray.Field{Outline: r}.BestBearing(spray.Pattern{SwathM: 7, Sections: 1})
	require.NoError(t, err)
	assert.InDelta(t, 30, b, 1e-6)
}

// Every flight is filled at the nearest place to where it goes on; what is sprayed, and
// the way of the passes, stays the same.
func TestRefillPoints(t *testing.T) {
	w := work(t)
	w.TankL, w.WholePass = 10, true
	one, err := w.Fly()
	require.NoError(t, err)
	w.Refills = []geo.XY{{X: 3.5, Y: 320}, {X: 80, Y: 150}}
	f, err := w.Fly()
	require.NoError(t, err)
	assert.InDelta(t, one.AreaM2, f.AreaM2, 1e-6)
	assert.InDelta(t, one.Litres, f.Litres, 1e-6)
	places := append([]geo.XY{w.Start}, w.Refills...)
	used := map[int]bool{}
	for _, s := range f.Sorties {
		used[s.Start] = true
		for k, p := range places {
			assert.GreaterOrEqual(t, geo.Dist(p, s.Legs[0].From)+1e-9, geo.Dist(places[s.Start], s.Legs[0].From), "place %d", k)
		}
	}
	assert.Greater(t, len(used), 1)
	w.Refills[0].X = math.NaN()
	_, err = w.Fly()
	assert.Error(t, err)
}

// The route is every pass once, there and back, whatever is sprayed of it.
func TestRouteOfAPlan(t *testing.T) {
	w := work(t)
	r := spray.Route(w.Cover.Passes, w.Start)
	require.Len(t, r, 2*len(w.Cover.Passes))
	for i, p := range w.Cover.Passes {
		assert.Contains(t, [][2]geo.XY{{p.From, p.To}, {p.To, p.From}}, [2]geo.XY{r[2*i], r[2*i+1]})
	}
	assert.Empty(t, spray.Route(nil, w.Start))
}
