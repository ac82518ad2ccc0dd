// Package air computes pressure, density, humidity and what follows from them
// for lift and for spraying.
package air

import (
	"errors"
	"fmt"
	"math"

	"mainstay/core/judge"
	"mainstay/core/why"
)

// ErrInput is wrapped by every refusal.
var ErrInput = errors.New("air: input out of range")

const kelvin = 273.15

// StandardKgM3 is the density of the standard atmosphere at sea level.
const StandardKgM3 = 1.225

// StationPressure is the pressure in hPa at a height in metres above the sea
// from the QNH in hPa (850-1100), for -400 to 6000 m.
func StationPressure(qnhHPa, heightM float64) (float64, error) {
	if !(qnhHPa >= 850 && qnhHPa <= 1100) || !(heightM >= -400 && heightM <= 6000) {
		return 0, why.Not(ErrInput, "QNH %g hPa, height %g m", qnhHPa, heightM)
	}
	const n = 0.190263
	return math.Pow(math.Pow(qnhHPa, n)-8.417286e-5*heightM, 1/n), nil
}

// Saturation is the vapour pressure of saturated air over water in Pa at a
// temperature in degC (Magnus form).
func Saturation(tC float64) float64 { return 610.94 * math.Exp(17.625*tC/(tC+243.04)) }

// Humidity is the relative humidity in percent from temperature and dew point
// in degC. A dew point above the temperature is refused.
func Humidity(tC, dewC float64) (float64, error) {
	if err := temperatures(tC, dewC); err != nil {
		return 0, err
	}
	return 100 * Saturation(dewC) / Saturation(tC), nil
}

// DewPoint is the dew point in degC from temperature and relative humidity in
// percent (over 0 to 100).
func DewPoint(tC, percent float64) (float64, error) {
	if !(percent > 0 && percent <= 100) || !(tC >= -60 && tC <= 60) {
		return 0, why.Not(ErrInput, "%g degC, %g %%", tC, percent)
	}
	g := math.Log(percent/100) + 17.625*tC/(tC+243.04)
	return 243.04 * g / (17.625 - g), nil
}

func temperatures(tC, dewC float64) error {
	if !(tC >= -60 && tC <= 60) || !(dewC >= -80 && dewC <= tC+1e-9) {
		return why.Not(ErrInput, "temperature %g, dew point %g degC", tC, dewC)
	}
	return nil
}

// Density is the density of moist air in kg/m3 from pressure in hPa and
// temperature and dew point in degC.
func Density(hPa, tC, dewC float64) (float64, error) {
	if err := temperatures(tC, dewC); err != nil {
		return 0, err
	}
	if !(hPa >= 300 && hPa <= 1100) {
		return 0, why.Not(ErrInput, "pressure %g hPa", hPa)
	}
	e, t := Saturation(dewC), tC+kelvin
	return (hPa*100-e)/(287.05*t) + e/(461.495*t), nil
}

// DensityAltitude is the height in metres of the standard atmosphere at which
// the air has that density in kg/m3; NaN for what is no density.
func DensityAltitude(rho float64) float64 { return 44330.8 * (1 - math.Pow(rho/1.225, 0.234969)) }

// MassLimit is the largest take-off mass in kg for today's density: the type's
// maximum, less in air thinner than the type's reference density (kg/m3).
// Without a table of the maker it is a rule of thumb: mass above it is Watch.
func MassLimit(maxKg, rho, referenceRho float64) float64 {
	return maxKg * min(1, rho/referenceRho)
}

// WetBulb is the wet-bulb temperature in degC from temperature and dew point in
// degC and station pressure in hPa: the root of the psychrometer equation
// e = es(Tw) - 6.53e-4 (1 + 9.44e-4 Tw) p (T - Tw).
func WetBulb(tC, dewC, hPa float64) (float64, error) {
	if err := temperatures(tC, dewC); err != nil {
		return 0, err
	}
	if !(hPa >= 300 && hPa <= 1100) {
		return 0, why.Not(ErrInput, "pressure %g hPa", hPa)
	}
	e := Saturation(dewC)
	lo, hi := dewC, tC // the equation rises with Tw and its root lies between
	for range 60 {
		mid := (lo + hi) / 2
		if Saturation(mid)-6.53e-4*(1+9.44e-4*mid)*hPa*100*(tC-mid) < e {
			lo = mid
		} else {
			hi = mid
		}
	}
	return (lo + hi) / 2, nil
}

// Limits of delta T for spraying, degC; the label wins.
const (
	DeltaTLow    = 2.0
	DeltaTGood   = 8.0
	DeltaTHigh   = 10.0
	DeltaTMargin = 0.7 // nearer than this to a limit is Watch: the instruments err by that
)

// JudgeDeltaT judges temperature less wet bulb for spraying: 2-8 good, to 10
// marginal, above or under 2 stop; within 0.7 of a limit is Watch.
func JudgeDeltaT(deltaT float64) (judge.Verdict, string) {
	d := math.Round(deltaT*10) / 10
	switch {
	case !(deltaT >= -0.05 && deltaT <= 60):
		return judge.Stop, "Delta T is not known."
	case d > DeltaTHigh:
		return judge.Stop, fmt.Sprintf("Delta T %.1f °C is over %g: drops dry before they land. The label wins.", d,
			DeltaTHigh)
	case d < DeltaTLow:
		return judge.Stop, fmt.Sprintf("Delta T %.1f °C is under %g: drops hang in the air and drift. The label wins.", d,
			DeltaTLow)
	case d > DeltaTGood:
		return judge.Watch, fmt.Sprintf("Delta T %.1f °C is over %g: coarse drops only, if the label lets you.", d,
			DeltaTGood)
	case d < DeltaTLow+DeltaTMargin:
		return judge.Watch, fmt.Sprintf("Delta T %.1f °C is near the limit of %g.", d, DeltaTLow)
	case d > DeltaTGood-DeltaTMargin:
		return judge.Watch, fmt.Sprintf("Delta T %.1f °C is near the limit of %g.", d, DeltaTGood)
	}
	return judge.Clear, fmt.Sprintf("Delta T %.1f °C, good between %g and %g.", d, DeltaTLow, DeltaTGood)
}
