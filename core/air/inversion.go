package air

import (
	"math"
	"strings"

	"mainstay/core/judge"
	"mainstay/core/units"
)

// StillMS is the wind near the ground under which the air is still, m/s.
const StillMS = 1.5

// Inversion is what is known about a temperature inversion.
type Inversion struct {
	HoursAfterRise *float64 // since sunrise, nil unknown; negative before it
	HoursToSet     *float64 // to sunset; negative after it
	WindMS         *float64 // steady, near the ground
	ClearSky       *bool    // few clouds or none
	LowC, HighC    *float64 // measured at two heights, at least 2 m apart
}

// InstrumentC is the error of two thermometers held against each other, degC:
// a smaller difference decides nothing.
const InstrumentC = 0.5

// Judge: warmer above than below is an inversion and Stop for spraying. Inside
// the instruments' error a measurement decides nothing and is Watch at least.
// Without one, still air under a clear sky near sunrise or sunset or at night is
// Stop, two of the three signs are Watch; what is not known counts as a sign. A
// value that is no number is not known.
func (i Inversion) Judge() (judge.Verdict, string) {
	if number(i.LowC) && number(i.HighC) {
		// In tenths of a degree, as instruments show it.
		switch apart, _ := units.Steps(*i.HighC-*i.LowC, 0.1); {
		case apart >= 10*InstrumentC:
			return judge.Stop, "Measured: it is warmer above than below. That is an inversion; spray hangs and drifts far. Do not spray."
		case apart > -10*InstrumentC:
			v, words := i.signs()
			return max(v, judge.Watch),
				"Measured: the two heights differ by less than the instruments' error; that decides nothing. " + words
		}
		return judge.Clear, "Measured: it is cooler above than below."
	}
	return i.signs()
}

func number(v *float64) bool { return v != nil && !math.IsNaN(*v) && !math.IsInf(*v, 0) }

func (i Inversion) signs() (judge.Verdict, string) {
	var signs, unknown []string
	sign := func(known, on bool, words, missing string) {
		switch {
		case !known:
			unknown = append(unknown, missing)
		case on:
			signs = append(signs, words)
		}
	}
	sun := number(i.HoursAfterRise) && number(i.HoursToSet)
	sign(sun, sun && (*i.HoursAfterRise < 2 || *i.HoursToSet < 2), "the sun is low or down", "the sun")
	sign(number(i.WindMS), number(i.WindMS) && *i.WindMS < StillMS, "the air is still", "the wind")
	sign(i.ClearSky != nil, i.ClearSky != nil && *i.ClearSky, "the sky is clear", "the sky")
	all := len(signs) + len(unknown)
	say := strings.Join(signs, ", ")
	if len(unknown) > 0 {
		if say != "" {
			say += "; "
		}
		say += "not known: " + strings.Join(unknown, ", ")
	}
	switch {
	case all == 3:
		return judge.Stop, "An inversion is likely: " + say + ". Measure at two heights or wait."
	case all >= 2:
		return judge.Watch, "An inversion is possible: " + say + ". Watch smoke or dust, or measure at two heights."
	case len(unknown) > 0:
		return judge.Watch, "Whether there is an inversion is not quite known: " + say + "."
	}
	return judge.Clear, "No sign of an inversion."
}
