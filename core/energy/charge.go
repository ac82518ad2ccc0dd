package energy

import (
	"errors"
	"math"
	"time"
)

// Model of charging: constant power to 80 percent, then power falling in a
// straight line to a fifth of it at 100; what goes in is a little more than
// what stays.
const (
	TaperFrom  = 80.0 // percent
	TaperTo    = 0.2  // share of full power at 100 percent
	Efficiency = 0.92
	Full       = 100.0
)

// Errors of the plan.
var (
	ErrPower = errors.New("charger power must be above zero")
	ErrLevel = errors.New("levels must be 0-100 percent")
)

// ChargeTime is the time to bring a pack of wh from one level to another at
// full power of watts:
//
//	to 80 %: wh dp / (eta P); above: wh (0.2/0.8) ln(P(a)/P(b)) / (eta P)
//
// with P falling linearly to P/5 at 100 percent. Valid 0 <= from, to <= 100;
// to at or under from takes no time. Errors: ErrPower, ErrLevel.
func ChargeTime(wh, watts, from, to float64) (time.Duration, error) {
	if !(watts > 0) || !(wh > 0) {
		return 0, ErrPower
	}
	if !(from >= 0 && from <= 100) || !(to >= 0 && to <= 100) {
		return 0, ErrLevel
	}
	if to <= from {
		return 0, nil
	}
	hours := max(0, min(to, TaperFrom)-from) / 100
	if to > TaperFrom {
		share := func(p float64) float64 { return 1 - (1-TaperTo)*(p-TaperFrom)/(100-TaperFrom) }
		slope := (1 - TaperTo) / ((100 - TaperFrom) / 100)
		hours += math.Log(share(max(from, TaperFrom))/share(to)) / slope
	}
	return time.Duration(hours * wh / (Efficiency * watts) * float64(time.Hour)).Round(time.Second), nil
}
