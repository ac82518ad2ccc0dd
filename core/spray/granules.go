package spray

import (
	"math"

	"mainstay/core/judge"
)

// UnitOf is what loads are counted in: litres of a mix, kilograms of granules.
func UnitOf(granules bool) string {
	if granules {
		return "kg"
	}
	return "L"
}

// mixMargin is how far the products of a spreading may be from the rate, as a share.
const mixMargin = 0.01

// HopperOf is what goes into the hopper for an area at a rate, kg/ha: granules by the
// kilogram, no water. One product is all of it; several share it as their rates do.
func HopperOf(ha, rate float64, mix []Product) Load {
	l := Load{Ha: ha, Litres: ha * rate, Amounts: make([]float64, len(mix))}
	sum := perHa(mix)
	for i, p := range mix {
		switch {
		case len(mix) == 1:
			l.Amounts[i] = l.Litres
		case sum > 0:
			l.Amounts[i] = l.Litres * p.PerHa / sum
		}
	}
	return l
}

func perHa(mix []Product) float64 {
	sum := 0.0
	for _, p := range mix {
		sum += p.PerHa
	}
	return sum
}

// holdGranules holds what is spread against the rate: granules are given by the
// kilogram for each hectare, and together are what is spread.
func (p *Plan) holdGranules(w Wish, s Settings) {
	for _, x := range w.Mix {
		if x.Unit != "kg" || x.PerHa <= 0 {
			p.say("mix", judge.Stop, nil, "%s is not given by the kilogram for each hectare, as granules are spread.", x.Name)
			return
		}
	}
	if sum := perHa(w.Mix); len(w.Mix) > 0 && !(math.Abs(sum-s.Rate) <= mixMargin*s.Rate) {
		p.say("rate", judge.Stop, &sum, "The products are %g kg on each hectare, and the rate is %g.", sum, s.Rate)
	}
}
