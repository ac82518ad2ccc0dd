package spray_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/geo"
	"mainstay/core/spray"
)

func box(x0, y0, x1, y1 float64) geo.Ring {
	return geo.Ring{{X: x0, Y: y0}, {X: x1, Y: y0}, {X: x1, Y: y1}, {X: x0, Y: y1}}
}

func cover(t require.TestingT, f spray.Field, p spray.Pattern) *spray.Cover {
	c, err := f.Passes(p)
	require.NoError(t, err)
	return c
}

// A field that the swath fits is sprayed once, whole, by the passes of an oracle
// that only divides.
func TestPassesOfABox(t *testing.T) {
	for _, row := range []struct {
		width, long, edge, swath float64
		passes                   int
		once, opened             float64
	}{
		{70, 300, 0, 7, 10, 70 * 300, 70 * 300},
		{0.7, 300, 0, 0.7, 1, 0.7 * 300, 0.7 * 300},
		{70, 300, 3.5, 7, 9, 63 * 293, 63 * 293},
		{66, 300, 0, 7, 10, 66 * 300, 70 * 300},    // the last lies flush and overlaps by 4 m
		{7, 300, 0, 7, 1, 7 * 300, 7 * 300},        //
		{6.9, 300, 0, 7, 0, 0, 0},                  // no whole swath fits: nothing outside is sprayed
		{70, 300, 36, 7, 0, 0, 0},                  // nothing is left inside the edge
		{70.00000001, 300, 0, 7, 10, 21000, 21000}, // a hair more is no eleventh pass
	} {
		name := fmt.Sprint(row)
		c := cover(t, spray.Field{Outline: box(0, 0, row.width, row.long), EdgeM: row.edge},
			spray.Pattern{SwathM: row.swath, Sections: 1})
		assert.Len(t, c.Passes, row.passes, name)
		assert.InDelta(t, row.once, c.OnceM2, 1e-3*row.once+1e-6, name)
		assert.InDelta(t, row.opened, c.OpenedM2, 1e-6*row.opened+1e-6, name)
		for _, p := range c.Passes {
			assert.InDelta(t, row.long-2*row.edge, p.Length(), 1e-6, name)
		}
	}
}

// blob is an outline without crossing sides.
func blob(rt *rapid.T, name string, c geo.XY, least, most float64) geo.Ring {
	n := rapid.IntRange(3, 9).Draw(rt, name+" corners")
	r := make(geo.Ring, n)
	for i := range r {
		d := rapid.Float64Range(least, most).Draw(rt, fmt.Sprintf("%s %d", name, i))
		a := 2 * math.Pi * float64(i) / float64(n)
		r[i] = geo.XY{X: c.X + d*math.Cos(a), Y: c.Y + d*math.Sin(a)}
	}
	return r
}

func anyField(rt *rapid.T) spray.Field {
	f := spray.Field{Outline: blob(rt, "field", geo.XY{}, 60, 250),
		EdgeM: rapid.SampledFrom([]float64{0, 0.5, 5, 12}).Draw(rt, "edge")}
	for i := range rapid.IntRange(0, 4).Draw(rt, "keep-outs") {
		x, y := rapid.Float64Range(-120, 120).Draw(rt, "x"), rapid.Float64Range(-120, 120).Draw(rt, "y")
		k := spray.KeepOut{Name: fmt.Sprint(i), BufferM: rapid.SampledFrom([]float64{0, 2, 15}).Draw(rt, "buffer")}
		switch rapid.IntRange(0, 2).Draw(rt, "kind") {
		case 0:
			k.Places, k.BufferM = []geo.XY{{X: x, Y: y}}, k.BufferM+1
		case 1:
			k.Places = []geo.XY{{X: x, Y: y}, {X: x + 30, Y: y - 12}, {X: x + 31, Y: y + 40}}
		case 2:
			k.Area, k.Places = true, blob(rt, "hole", geo.XY{X: x, Y: y}, 4, 40)
		}
		f.KeepOuts = append(f.KeepOuts, k)
	}
	return f
}

func depth(f spray.Field, p geo.XY) float64 {
	d := f.Outline.ToEdge(p) - f.EdgeM
	for _, k := range f.KeepOuts {
		r := geo.Ring(k.Places)
		if k.Area {
			d = min(d, r.ToEdge(p)-k.BufferM)
			continue
		}
		for i := range max(1, len(r)-1) {
			q, _ := geo.Nearest(p, r[i], r[min(i+1, len(r)-1)])
			d = min(d, geo.Dist(p, q)-k.BufferM)
		}
	}
	return d
}

// Nothing outside is sprayed, and every place that is deeper inside than a section
// is wide is.
func TestNothingOutsideEverythingInside(t *testing.T) {
	rapid.Check(t, func(rt *rapid.T) {
		f := anyField(rt)
		p := spray.Pattern{BearingDeg: rapid.Float64Range(0, 360).Draw(rt, "bearing"),
			SwathM: rapid.Float64Range(2, 9).Draw(rt, "swath"), Sections: rapid.IntRange(1, 4).Draw(rt, "sections"),
			Edges: rapid.Bool().Draw(rt, "edges")}
		c, err := f.Passes(p)
		require.NoError(rt, err)
		r := rand.New(rand.NewPCG(1, 2))
		section := p.SwathM / float64(p.Sections)
		inside, reached := 0, 0
		for range 3000 {
			q := geo.XY{X: r.Float64()*500 - 250, Y: r.Float64()*500 - 250}
			d, times := depth(f, q), c.Reaches(q)
			switch {
			case !f.Holds(q):
				if d < -1e-3 || d > 1e-3 {
					require.Zero(rt, times, "outside at %v, %g m deep", q, d)
				}
			case d > section+1e-3 && d > spray.ShortestPass:
				require.Positive(rt, times, "inside at %v, %g m deep", q, d)
			}
			if f.Holds(q) {
				inside++
			}
			if times > 0 {
				reached++
			}
		}
		assert.InDelta(rt, float64(inside)/3000*250000, c.AreaM2, 0.05*250000)
		assert.InDelta(rt, float64(reached)/3000*250000, c.OnceM2, 0.05*250000)
		assert.LessOrEqual(rt, c.OnceM2, c.AreaM2*1.01+1)
		assert.LessOrEqual(rt, c.OnceM2, c.OpenedM2*1.01+1)
	})
}

// Where the outline starts, and which way round it goes, changes nothing.
func TestOutlineMayStartAnywhere(t *testing.T) {
	rapid.Check(t, func(rt *rapid.T) {
		f := anyField(rt)
		p := spray.Pattern{BearingDeg: rapid.Float64Range(0, 360).Draw(rt, "bearing"), SwathM: 6, Sections: 2, Edges: true}
		a, err := f.Passes(p)
		require.NoError(rt, err)
		n := rapid.IntRange(0, len(f.Outline)-1).Draw(rt, "start")
		f.Outline = append(append(geo.Ring{}, f.Outline[n:]...), f.Outline[:n]...)
		if rapid.Bool().Draw(rt, "backwards") {
			for i, j := 0, len(f.Outline)-1; i < j; i, j = i+1, j-1 {
				f.Outline[i], f.Outline[j] = f.Outline[j], f.Outline[i]
			}
		}
		b, err := f.Passes(p)
		require.NoError(rt, err)
		assert.InDelta(rt, a.AreaM2, b.AreaM2, 1e-6*a.AreaM2+1e-6)
		var la, lb float64
		for _, x := range a.Passes {
			if !x.Edge {
				la += x.Length()
			}
		}
		for _, x := range b.Passes {
			if !x.Edge {
				lb += x.Length()
			}
		}
		assert.InDelta(rt, la, lb, 1e-6*la+1e-3)
	})
}

// With passes along the edges nearly all of a slanting field is reached.
func TestEdgesReachWhatStripsLeave(t *testing.T) {
	f := spray.Field{Outline: geo.Ring{{X: 0, Y: 0}, {X: 300, Y: 80}, {X: 260, Y: 300}, {X: -40, Y: 220}}}
	p := spray.Pattern{BearingDeg: 0, SwathM: 7, Sections: 1}
	without := cover(t, f, p)
	p.Edges = true
	with := cover(t, f, p)
	assert.Less(t, without.OnceM2/without.AreaM2, 0.985)
	assert.Greater(t, with.OnceM2/with.AreaM2, 0.997)
	assert.Positive(t, with.TwiceM2, "they overlap the strips, and say so")
}

func TestFieldsThatAreNone(t *testing.T) {
	good := box(0, 0, 100, 100)
	for name, f := range map[string]spray.Field{
		"no outline":   {},
		"crossing":     {Outline: geo.Ring{{X: 0, Y: 0}, {X: 10, Y: 10}, {X: 10, Y: 0}, {X: 0, Y: 10}}},
		"edge":         {Outline: good, EdgeM: -1},
		"edge unknown": {Outline: good, EdgeM: math.NaN()},
		"keep-out":     {Outline: good, KeepOuts: []spray.KeepOut{{Name: "pole"}}},
		"buffer":       {Outline: good, KeepOuts: []spray.KeepOut{{Name: "pole", Places: []geo.XY{{}}, BufferM: 501}}},
		"hole": {Outline: good, KeepOuts: []spray.KeepOut{{Name: "pond", Area: true,
			Places: []geo.XY{{}, {X: 1}}}}},
		"as wide as all": {Outline: box(0, 0, 21_000, 10)},
	} {
		_, err := f.Passes(spray.Pattern{SwathM: 7, Sections: 1})
		require.ErrorIs(t, err, spray.ErrInput, name)
	}
	for _, p := range []spray.Pattern{{SwathM: 0, Sections: 1}, {SwathM: 7}, {SwathM: 7, Sections: 17},
		{SwathM: 7, Sections: 1, BearingDeg: 361}, {SwathM: math.NaN(), Sections: 1}} {
		_, err := spray.Field{Outline: good}.Passes(p)
		require.ErrorIs(t, err, spray.ErrInput)
	}
}
