package air

import (
	"strings"

	"mainstay/core/judge"
)

// Inversion is what is known about a temperature inversion.
type Inversion struct {
	HoursAfterRise *float64 // since sunrise, nil unknown; negative before it
	HoursToSet     *float64 // to sunset; negative after it
	WindMS         *float64 // steady, near the ground
	ClearSky       *bool    // few clouds or none
	LowC, HighC    *float64 // measured at two heights, at least 2 m apart
}

// Judge: warmer above than below is an inversion and Stop for spraying. Without
// a measurement, still air under a clear sky near sunrise or sunset or at night
// is Stop, two of the three signs are Watch; what is not known counts as a sign.
func (i Inversion) Judge() (judge.Verdict, string) {
	if i.LowC != nil && i.HighC != nil {
		if *i.HighC > *i.LowC {
			return judge.Stop, "Measured: it is warmer above than below. That is an inversion; spray hangs and drifts far. Do not spray."
		}
		if *i.HighC == *i.LowC {
			return judge.Watch, "Measured: it is as warm above as below. An inversion may be forming; measure again soon."
		}
		return judge.Clear, "Measured: it is cooler above than below."
	}
	var signs, unknown []string
	sign := func(known, on bool, words, missing string) {
		switch {
		case !known:
			unknown = append(unknown, missing)
		case on:
			signs = append(signs, words)
		}
	}
	sun := i.HoursAfterRise != nil && i.HoursToSet != nil
	sign(sun, sun && (*i.HoursAfterRise < 2 || *i.HoursToSet < 2), "the sun is low or down", "the sun")
	sign(i.WindMS != nil, i.WindMS != nil && *i.WindMS < 1.5, "the air is still", "the wind")
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
	case all == 3 && len(unknown) == 0:
		return judge.Stop, "An inversion is likely: " + say + ". Measure at two heights or wait."
	case all >= 2:
		return judge.Watch, "An inversion is possible: " + say + ". Watch smoke or dust, or measure at two heights."
	case len(unknown) > 0:
		return judge.Watch, "Whether there is an inversion is not quite known: " + say + "."
	}
	return judge.Clear, "No sign of an inversion."
}
