package spray

import (
	"errors"
	"fmt"
	"math"
	"strings"

	"mainstay/core/air"
	"mainstay/core/judge"
)

// whole counts how often a fits into b, rounded up, where a hair of binary
// arithmetic is not one more: 0.7/0.1 is 7, and 21 L in tanks of 7 L are 3 loads.
func whole(b, a float64) int {
	q := b / a
	if r := math.Round(q); math.Abs(q-r) < 1e-9*max(1, r) {
		return int(r)
	}
	return int(math.Ceil(q))
}

// Product is one product of the mix.
type Product struct {
	Name    string  `json:"name"`
	PerHa   float64 `json:"per_ha"`  // L/ha or kg/ha; 0: by volume
	Percent float64 `json:"percent"` // of the spray volume
	Unit    string  `json:"unit"`    // "L" or "kg"
}

// Amount is what of the product belongs to an area and its volume.
func (p Product) Amount(ha, litres float64) float64 {
	if p.PerHa > 0 {
		return p.PerHa * ha
	}
	return p.Percent / 100 * litres
}

// Check refuses a product without a rate, or with two.
func (p Product) Check() error {
	switch {
	case p.Name == "":
		return refuse("a product needs a name")
	case p.Unit != "L" && p.Unit != "kg":
		return refuse("%s: %q is neither L nor kg", p.Name, p.Unit)
	case (p.PerHa > 0) == (p.Percent > 0):
		return refuse("%s: give a rate for each hectare or a share of the volume", p.Name)
	}
	return errors.Join(within(p.Name+": rate", p.PerHa, 0, MostRate), within(p.Name+": share", p.Percent, 0, 100))
}

// Load is one fill of the tank.
type Load struct {
	Litres  float64   `json:"litres"` // of the mix
	Ha      float64   `json:"ha"`
	Amounts []float64 `json:"amounts"` // of each product, in its unit
	Water   float64   `json:"water"`   // litres of mix less the liquid products
}

// LoadOf is what goes into the tank for an area at a rate. Products by the litre
// take the place of water; those by the kilogram are taken as dissolved. It is an
// error when they leave no water.
func LoadOf(ha, rate float64, mix []Product) (Load, error) {
	l := Load{Ha: ha, Litres: ha * rate, Amounts: make([]float64, len(mix))}
	l.Water = l.Litres
	for i, p := range mix {
		if err := p.Check(); err != nil {
			return l, err
		}
		l.Amounts[i] = p.Amount(ha, l.Litres)
		if p.Unit == "L" {
			l.Water -= l.Amounts[i]
		}
	}
	if l.Water < -1e-9*l.Litres {
		return l, refuse("the products are %.1f L more than the %.1f L of the load: the rate of %g L/ha is too low for them",
			-l.Water, l.Litres, rate)
	}
	l.Water = max(0, l.Water)
	return l, nil
}

// Loads is how many fills an area takes at a rate with a tank, and the last: so
// many full ones, and a part load that is exact. Valid: area 0-10,000 ha.
func Loads(ha, rate, tank float64, mix []Product) ([]Load, error) {
	if err := errors.Join(within("area", ha, 0, 10_000), within("rate", rate, 0.1, MostRate),
		within("tank", tank, 0.1, 1000)); err != nil {
		return nil, err
	}
	if ha == 0 {
		return []Load{}, nil
	}
	n := whole(ha*rate, tank)
	out := make([]Load, n)
	for i := range n {
		area := tank / rate
		if i == n-1 {
			area = ha - float64(n-1)*tank/rate
		}
		l, err := LoadOf(area, rate, mix)
		if err != nil {
			return nil, err
		}
		out[i] = l
	}
	return out, nil
}

// Label is what the label of the product allows beside the wind, which belongs to
// the weather; nil is not said. It wins over the crew's practice.
type Label struct {
	MostC        *float64 `json:"most_c"`
	LeastDeltaT  *float64 `json:"least_delta_t"`
	MostDeltaT   *float64 `json:"most_delta_t"`
	BufferM      *float64 `json:"buffer_m"` // downwind, to what is sensitive
	MostRate     *float64 `json:"most_rate"`
	LeastRate    *float64 `json:"least_rate"`     // L/ha, or kg/ha of granules
	ReEntryHours *float64 `json:"re_entry_hours"` // nobody enters before
}

// Broken is a wish that cannot be met, and the nearest value that can.
type Broken = judge.Broken

func broken(wish string, v judge.Verdict, sentence string, nearest *float64) Broken {
	return Broken{Wish: wish, Verdict: v, Sentence: sentence, Nearest: nearest}
}

// Hold holds the rate against the label; unit is that of the loads, L or kg.
func (l Label) Hold(rate float64, unit string) []Broken {
	var out []Broken
	if l.MostRate != nil && !(rate <= *l.MostRate*(1+1e-9)) {
		out = append(out, broken("rate", judge.Stop, fmt.Sprintf("The label allows at most %g %s/ha; %g are planned.",
			*l.MostRate, unit, rate), l.MostRate))
	}
	if l.LeastRate != nil && !(rate >= *l.LeastRate*(1-1e-9)) {
		out = append(out, broken("rate", judge.Stop, fmt.Sprintf("The label asks for at least %g %s/ha; %g are planned.",
			*l.LeastRate, unit, rate), l.LeastRate))
	}
	if l.MostRate != nil && l.LeastRate != nil && !(*l.LeastRate <= *l.MostRate) {
		out = append(out, broken("label", judge.Stop,
			fmt.Sprintf("The label as entered allows nothing: at least %g and at most %g %s/ha.", *l.LeastRate, *l.MostRate,
				unit), nil))
	}
	if l.LeastDeltaT != nil && l.MostDeltaT != nil && !(*l.LeastDeltaT <= *l.MostDeltaT) {
		out = append(out, broken("label", judge.Stop,
			fmt.Sprintf("The label as entered allows nothing: delta T at least %g and at most %g °C.", *l.LeastDeltaT,
				*l.MostDeltaT), nil))
	}
	return out
}

// HoldAir holds the air against the label, in tenths of a degree: temperature and
// delta T (temperature less wet bulb), degC. Over or under is Stop, and so is what the
// label limits and nobody knows; a delta T nearer to its limit than instruments err is
// Watch.
func (l Label) HoldAir(tempC, deltaT *float64) []Broken {
	var out []Broken
	hold := func(wish, what string, v, limit *float64, margin float64) {
		if limit == nil {
			return
		}
		side, away, sign := "at most", "over", 1.0
		if strings.HasPrefix(wish, "least") {
			side, away, sign = "at least", "under", -1
		}
		switch {
		case v == nil || math.IsNaN(*v) || math.IsInf(*v, 0):
			out = append(out, broken(wish, judge.Stop, fmt.Sprintf("The label asks for a %s of %s %g °C, and it is not known.",
				what, side, *limit), nil))
		case sign*degrees(*v) > sign*degrees(*limit):
			out = append(out, broken(wish, judge.Stop, fmt.Sprintf("A %s of %.1f °C is %s the %g °C of the label.", what, *v,
				away, *limit), nil))
		case sign*degrees(*v) > sign*degrees(*limit)-10*margin:
			out = append(out, broken(wish, judge.Watch,
				fmt.Sprintf("A %s of %.1f °C is near the %g °C of the label: the instruments err by %g.", what, *v, *limit, margin),
				nil))
		}
	}
	hold("most_c", "temperature", tempC, l.MostC, 0)
	hold("least_delta_t", "delta T", deltaT, l.LeastDeltaT, air.DeltaTMargin)
	hold("most_delta_t", "delta T", deltaT, l.MostDeltaT, air.DeltaTMargin)
	return out
}

// degrees counts tenths of a degree, as they are shown.
func degrees(c float64) float64 { return math.Round(c * 10) }

// HoldNozzles holds the flow against the nozzles: outside their range is Stop, with
// the speed at which the flow would fit.
func (s Settings) HoldNozzles(n Nozzle, count int) []Broken {
	if count < 1 {
		return []Broken{broken("nozzles", judge.Stop, "How many nozzles are fitted is not known.", nil)}
	}
	each := s.Need(count)
	least, most := s.SpeedRange(n, count)
	switch {
	case !(each <= n.MostLPM*(1+1e-9)):
		return []Broken{broken("speed", judge.Stop,
			fmt.Sprintf("Each nozzle would have to give %.2f L/min; %s gives %g at most. Fly at %.1f m/s or less, or fit larger nozzles.",
				each, n.Name, n.MostLPM, floor(most)), ptr(floor(most)))}
	case !(each >= n.LeastLPM*(1-1e-9)):
		return []Broken{broken("speed", judge.Stop,
			fmt.Sprintf("Each nozzle would give only %.2f L/min; %s needs %g. Fly at %.1f m/s or more, or fit smaller nozzles.",
				each, n.Name, n.LeastLPM, ceil(least)), ptr(ceil(least)))}
	}
	return nil
}

func floor(v float64) float64 { return math.Floor(v*10+1e-9) / 10 }
func ceil(v float64) float64  { return math.Ceil(v*10-1e-9) / 10 }
func ptr(v float64) *float64  { return &v }
