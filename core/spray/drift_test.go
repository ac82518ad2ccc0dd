package spray_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/geo"
	"mainstay/core/spray"
)

func f(v float64) *float64 { return &v }

func TestDriftSector(t *testing.T) {
	for name, row := range map[string]struct {
		blow        spray.Blow
		from, width float64
	}{
		"west wind":         {spray.Blow{MeanMS: 3, FromDeg: f(270)}, 67.5, 45},
		"over north":        {spray.Blow{MeanMS: 3, FromDeg: f(180)}, 337.5, 45},
		"just under 2":      {spray.Blow{MeanMS: 1.99, FromDeg: f(270)}, 0, 360},
		"at 2":              {spray.Blow{MeanMS: 2, FromDeg: f(270)}, 67.5, 45},
		"direction unknown": {spray.Blow{MeanMS: 4}, 0, 360},
		"speed unknown":     {spray.Blow{MeanMS: math.NaN(), FromDeg: f(270)}, 0, 360},
		"varies less":       {spray.Blow{MeanMS: 3, FromDeg: f(270), VariesFrom: f(260), VariesTo: f(280)}, 67.5, 45},
		"varies further":    {spray.Blow{MeanMS: 3, FromDeg: f(270), VariesFrom: f(200), VariesTo: f(300)}, 20, 100},
		"varies elsewhere":  {spray.Blow{MeanMS: 3, FromDeg: f(270), VariesFrom: f(0), VariesTo: f(90)}, 0, 360},
	} {
		from, width := row.blow.Sector()
		assert.InDelta(t, row.from, from, 1e-9, name)
		assert.InDelta(t, row.width, width, 1e-9, name)
	}
}

// Bees east of a field wait for a wind that does not blow east.
func TestPassesWaitForTheWind(t *testing.T) {
	c := cover(t, spray.Field{Outline: box(0, 0, 70, 300)}, spray.Pattern{SwathM: 7, Sections: 1})
	bees := spray.Sensitive{ID: "b", Name: "Bees", Places: []geo.XY{{X: 100, Y: 150}}}
	waiting := func(from *float64, buffer float64) (out []int) {
		for _, w := range (spray.Blow{MeanMS: 3, FromDeg: from}).Waiting(c.Passes, 7, []spray.Sensitive{bees}, buffer) {
			out = append(out, w.Pass)
		}
		return out
	}
	assert.Empty(t, waiting(f(270), 30), "the edge is 30 m away: at the buffer is not inside it")
	assert.Equal(t, []int{9}, waiting(f(270), 30.01))
	assert.Equal(t, []int{7, 8, 9}, waiting(f(270), 50))
	assert.Empty(t, waiting(f(90), 50), "it blows the other way")
	assert.Equal(t, []int{7, 8, 9}, waiting(nil, 50), "nobody knows where it blows")
	// A wood that lies over the field's corner is always reached.
	wood := spray.Sensitive{Name: "Wood", Area: true, Places: box(60, 280, 120, 400)}
	w := spray.Blow{MeanMS: 3, FromDeg: f(90)}.Waiting(c.Passes, 7, []spray.Sensitive{wood}, 5)
	require.NotEmpty(t, w)
	assert.Zero(t, w[len(w)-1].NearestM)
}

// Against an oracle that looks at many points of both.
func TestDriftAgainstManyPoints(t *testing.T) {
	rapid.Check(t, func(rt *rapid.T) {
		coordinate := rapid.Float64Range(-100, 100)
		at := func(n string) geo.XY {
			return geo.XY{X: coordinate.Draw(rt, n+" x"), Y: coordinate.Draw(rt, n+" y")}
		}
		from, to := at("from"), at("to")
		s := spray.Sensitive{Name: "x", Places: []geo.XY{at("a"), at("b"), at("c")}}
		b := spray.Blow{MeanMS: 3, FromDeg: f(rapid.Float64Range(0, 359.9).Draw(rt, "wind"))}
		start, width := b.Sector()
		nearest := math.Inf(1)
		for i := range 101 {
			p := from.Add(to.Sub(from).Times(float64(i) / 100))
			for k := range 2 {
				for j := range 101 {
					q := s.Places[k].Add(s.Places[k+1].Sub(s.Places[k]).Times(float64(j) / 100))
					turn := math.Mod(math.Atan2(q.X-p.X, q.Y-p.Y)*180/math.Pi-start+720, 360)
					if turn <= width {
						nearest = min(nearest, geo.Dist(p, q))
					}
				}
			}
		}
		got, _ := b.Reaches(from, to, 0, s, 50)
		if math.IsInf(nearest, 1) {
			return // the oracle's points may all lie just outside
		}
		assert.LessOrEqual(rt, got, nearest+1e-9, "it is never later than the oracle")
	})
}
