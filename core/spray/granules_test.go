package spray_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/judge"
	"mainstay/core/spray"
)

func spreading() (spray.Wish, spray.Given) {
	w, g := wish()
	w.Granules, w.Nozzle, g.Nozzle = true, "", nil
	w.Mix = []spray.Product{{Name: "Slug bait", PerHa: w.Rate, Unit: "kg"}}
	return w, g
}

// Granules go into the hopper by the kilogram: it takes its litres of them, and the
// mass counts them as they are.
func TestSpreadingOfABox(t *testing.T) {
	w, g := spreading()
	w.KgPerL = 0.65
	p, err := spray.Make(w, g)
	require.NoError(t, err)
	require.NotEmpty(t, p.Flown.Sorties)
	sum := 0.0
	for i, s := range p.Flown.Sorties {
		assert.LessOrEqual(t, s.Litres, g.TankL*0.65+1e-6, "the hopper")
		assert.InDelta(t, g.DryKg+s.Litres, s.TakeOffKg, 1e-6)
		assert.InDelta(t, s.Litres, p.Loads[i].Amounts[0], 1e-9, "one product is all of it")
		assert.Zero(t, p.Loads[i].Water)
		sum += s.AreaM2 / 1e4 * w.Rate
	}
	assert.InDelta(t, sum, p.Flown.Litres, 1e-6)
	assert.NotContains(t, breaks(p), "nozzle")
}

func TestGranulesThatDoNotFitTheRate(t *testing.T) {
	w, g := spreading()
	w.Mix[0].PerHa = w.Rate * 1.02
	p, err := spray.Make(w, g)
	require.NoError(t, err)
	assert.Equal(t, judge.Stop, breaks(p)["rate"])
	for _, b := range p.Broken {
		if b.Wish == "rate" {
			require.NotNil(t, b.Nearest)
			assert.InDelta(t, w.Mix[0].PerHa, *b.Nearest, 1e-9)
		}
	}
	w.Mix[0] = spray.Product{Name: "Oil", Percent: 1, Unit: "L"}
	p, err = spray.Make(w, g)
	require.NoError(t, err)
	assert.Equal(t, judge.Stop, breaks(p)["mix"])
}

// Several granules share the load as their rates do, and are all of it.
func TestSharesOfAHopper(t *testing.T) {
	rapid.Check(t, func(r *rapid.T) {
		ha, rate := rapid.Float64Range(0, 50).Draw(r, "ha"), rapid.Float64Range(0.1, 200).Draw(r, "rate")
		var mix []spray.Product
		for range rapid.IntRange(1, 4).Draw(r, "n") {
			mix = append(mix, spray.Product{Name: "x", PerHa: rapid.Float64Range(0.01, 50).Draw(r, "per ha"), Unit: "kg"})
		}
		l := spray.HopperOf(ha, rate, mix)
		sum := 0.0
		for _, a := range l.Amounts {
			sum += a
		}
		assert.InDelta(r, ha*rate, sum, 1e-6*max(1, ha*rate))
	})
}
