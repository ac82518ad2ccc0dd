// Package units names the quantities that Mainstay computes with and converts
// them to the units people read. Inside the core every length is in metres,
// every mass in kilograms, every speed in metres per second, every temperature
// in degrees Celsius and every time in UTC.
package units

import (
	"errors"
	"fmt"
	"math"
)

// Defined types keep a swap of two quantities from compiling.
type (
	Metres          float64 // length, m
	MetresPerSecond float64 // speed, m/s
	Kilograms       float64 // mass, kg
	Celsius         float64 // temperature, degC
	Millivolts      int     // cell voltage in whole mV, the resolution of the instruments
	Percent         float64 // state of charge or share, 0-100
	Hours           float64 // running time, h
)

// Exact conversion factors to the base unit (international yard and pound
// agreement of 1959; nautical mile of 1929; US liquid gallon of 231 cubic
// inches).
const (
	MetresPerFoot            = 0.3048
	MetresPerStatuteMile     = 1609.344
	MetresPerSecondPerMPH    = 0.44704
	MetresPerSecondPerKnot   = 1852.0 / 3600.0
	LitresPerUSGallon        = 3.785411784
	KilogramsPerPound        = 0.45359237
	HectopascalsPerInHg      = 33.86389 // conventional, 7 digits
	EarthMeanRadius          = 6371008.8
	fahrenheitOffset         = 32.0
	celsiusPerFahrenheitStep = 5.0 / 9.0
)

// Unit is one way of showing a quantity. A value in the base unit is
// Factor * shown + Offset, so shown = (base - Offset) / Factor.
type Unit struct {
	Code     string  `json:"code"`
	Quantity string  `json:"quantity"`
	Label    string  `json:"label"`
	Factor   float64 `json:"factor"`
	Offset   float64 `json:"offset"`
	Decimals int     `json:"decimals"`
}

// All lists every unit Mainstay can show, base unit of each quantity first.
var All = []Unit{
	{"m", "length", "m", 1, 0, 1},
	{"ft", "length", "ft", MetresPerFoot, 0, 0},
	{"m/s", "speed", "m/s", 1, 0, 1},
	{"mph", "speed", "mph", MetresPerSecondPerMPH, 0, 1},
	{"kt", "speed", "kt", MetresPerSecondPerKnot, 0, 1},
	{"kg", "mass", "kg", 1, 0, 1},
	{"lb", "mass", "lb", KilogramsPerPound, 0, 1},
	{"degC", "temperature", "°C", 1, 0, 0},
	{"degF", "temperature", "°F", celsiusPerFahrenheitStep, -fahrenheitOffset * celsiusPerFahrenheitStep, 0},
	{"L", "volume", "L", 1, 0, 1},
	{"gal", "volume", "gal", LitresPerUSGallon, 0, 1},
	// Of these the base unit is shown; the others may be typed.
	{"hPa", "pressure", "hPa", 1, 0, 0},
	{"inHg", "pressure", "inHg", HectopascalsPerInHg, 0, 2},
	{"km", "distance", "km", 1, 0, 1},
	{"mi", "distance", "mi", MetresPerStatuteMile / 1000, 0, 1},
}

// ErrUnit is wrapped by every error about an unknown or mismatched unit.
var ErrUnit = errors.New("unknown unit")

// Find returns the unit with the given code, or an error wrapping ErrUnit.
func Find(code string) (Unit, error) {
	for _, u := range All {
		if u.Code == code {
			return u, nil
		}
	}
	return Unit{}, fmt.Errorf("%w %q", ErrUnit, code)
}

// ToBase turns a shown value into the base unit of its quantity.
func (u Unit) ToBase(shown float64) float64 { return shown*u.Factor + u.Offset }

// FromBase turns a value in the base unit into the shown one.
func (u Unit) FromBase(base float64) float64 { return (base - u.Offset) / u.Factor }

// Steps expresses a value in whole steps of an instrument, so that limits are
// compared as integers and 3.85 - 3.82 is 30 mV and not 30.000000000000249.
// The step must be positive and the value finite; otherwise ok is false.
func Steps(value, step float64) (n int64, ok bool) {
	q := value / step
	if step <= 0 || math.IsNaN(q) || math.IsInf(q, 0) || math.Abs(q) > 1e15 {
		return 0, false
	}
	return int64(math.Round(q)), true
}
