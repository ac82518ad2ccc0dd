package spray_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/geo"
	"mainstay/core/judge"
	"mainstay/core/spray"
)

func wish() (spray.Wish, spray.Given) {
	n := spray.Nozzle{Key: "fan-020", Name: "Fan 020", LeastLPM: 0.4, MostLPM: 1, LeastBar: 1.5, MostBar: 6,
		Droplets: "medium"}
	w := spray.Defaults()
	w.Swath, w.Rate, w.Nozzle, w.Label.BufferM = 7, 15, n.Key, f(20)
	w.Mix = []spray.Product{{Name: "Hop guard", PerHa: 0.5, Unit: "L"}}
	return w, spray.Given{Field: spray.Field{Outline: box(0, 0, 70, 300)}, Start: geo.XY{X: 3.5, Y: -20}, Nozzle: &n,
		TankL: 30, DryKg: 40, MostKg: 72, Rho: 1.2, Model: sprayer(), UsableWh: 2000, ReturnM: 15,
		Blow: &spray.Blow{MeanMS: 3, FromDeg: f(270)}}
}

func breaks(p spray.Plan) map[string]judge.Verdict {
	out := map[string]judge.Verdict{}
	for _, b := range p.Broken {
		out[b.Wish] = max(out[b.Wish], b.Verdict)
	}
	return out
}

func TestPlanOfABox(t *testing.T) {
	w, g := wish()
	p, err := spray.Make(w, g)
	require.NoError(t, err)
	assert.Empty(t, p.Broken)
	assert.Equal(t, judge.Clear, p.Verdict)
	assert.InDelta(t, 0, math.Mod(p.BearingDeg, 180), 1e-9)
	assert.InDelta(t, 2.1, p.OnceHa, 1e-6)
	assert.InDelta(t, 3.78, p.Settings.Flow, 1e-9)
	assert.InDelta(t, 0.945, p.NozzleLPM, 1e-9)
	require.Len(t, p.Loads, 2)
	assert.InDelta(t, 1.05, p.Loads[0].Amounts[0]+p.Loads[1].Amounts[0], 1e-9)
	g.Sprayed = []spray.Sprayed{{Pass: 0, To: 1}}
	p, err = spray.Make(w, g)
	require.NoError(t, err)
	assert.InDelta(t, 0.21, p.DoneHa, 1e-9)
}

// Every impossible wish is named by the field it stands in.
func TestEachWishThatBreaks(t *testing.T) {
	for name, row := range map[string]struct {
		spoil func(*spray.Wish, *spray.Given)
		wish  string
		v     judge.Verdict
	}{
		"flow over the nozzles":  {func(w *spray.Wish, _ *spray.Given) { w.Nozzles = 3 }, "speed", judge.Stop},
		"flow under the nozzles": {func(w *spray.Wish, _ *spray.Given) { w.Nozzles = 12 }, "speed", judge.Stop},
		"nozzle not chosen":      {func(_ *spray.Wish, g *spray.Given) { g.Nozzle = nil }, "nozzle", judge.Watch},
		"rate over the label":    {func(w *spray.Wish, _ *spray.Given) { w.Label.MostRate = f(14.9) }, "rate", judge.Stop},
		"label allows nothing": {func(w *spray.Wish, _ *spray.Given) { w.Label.MostRate, w.Label.LeastRate = f(10), f(20) },
			"label", judge.Stop},
		"twice along edges": {func(w *spray.Wish, _ *spray.Given) { w.Edges, w.Label.MostRate = true, f(20) }, "edges",
			judge.Watch},
		"product over the rate": {func(w *spray.Wish, _ *spray.Given) { w.Mix[0].PerHa = 16 }, "rate", judge.Stop},
		"no product":            {func(w *spray.Wish, _ *spray.Given) { w.Mix = nil }, "mix", judge.Watch},
		"nothing left":          {func(w *spray.Wish, _ *spray.Given) { w.EdgeM = 36 }, "edge_m", judge.Stop},
		"too wide a swath": {func(w *spray.Wish, _ *spray.Given) { w.EdgeM, w.Direction = 32, spray.Along }, "swath_m",
			judge.Stop},
		"too heavy": {func(_ *spray.Wish, g *spray.Given) { g.DryKg = 73 }, "mass", judge.Stop},
		"no energy": {func(_ *spray.Wish, g *spray.Given) { g.UsableWh = 0 }, "energy", judge.Stop},
		"wind not known": {func(w *spray.Wish, g *spray.Given) {
			w.Direction, g.Blow = spray.IntoWind, nil
		}, "direction", judge.Watch},
		"bees downwind": {func(_ *spray.Wish, g *spray.Given) {
			g.Sensitive = []spray.Sensitive{{Name: "Bees", Places: []geo.XY{{X: 80, Y: 100}}}}
		}, "wind", judge.Watch},
		"buffer not known": {func(w *spray.Wish, g *spray.Given) {
			g.Sensitive, w.Label.BufferM = []spray.Sensitive{{Name: "Bees", Places: []geo.XY{{X: 900, Y: 100}}}}, nil
		}, "label", judge.Watch},
	} {
		w, g := wish()
		row.spoil(&w, &g)
		p, err := spray.Make(w, g)
		require.NoError(t, err, name)
		v, ok := breaks(p)[row.wish]
		assert.True(t, ok, "%s: %v", name, p.Broken)
		assert.Equal(t, row.v, v, name)
		assert.GreaterOrEqual(t, p.Verdict, row.v, name)
	}
	for _, spoil := range []func(*spray.Wish){func(w *spray.Wish) { w.Rate = 0 },
		func(w *spray.Wish) { w.HeightM = math.NaN() }, func(w *spray.Wish) { w.Direction = "up" },
		func(w *spray.Wish) { w.Sections = 0 }, func(w *spray.Wish) { w.Mix[0].Unit = "oz" }} {
		w, g := wish()
		spoil(&w)
		_, err := spray.Make(w, g)
		require.ErrorIs(t, err, spray.ErrInput)
	}
}

func TestStripsAcrossTheWind(t *testing.T) {
	w, g := wish()
	w.Direction = spray.IntoWind
	p, err := spray.Make(w, g)
	require.NoError(t, err)
	assert.InDelta(t, 0, p.BearingDeg, 1e-9, "a west wind: strips from south to north")
	w.Direction, w.BearingDeg = spray.Along, 45
	p, err = spray.Make(w, g)
	require.NoError(t, err)
	assert.InDelta(t, 45, p.BearingDeg, 1e-9)
	assert.Contains(t, breaks(p), "edges", "slanting edges leave something")
}
