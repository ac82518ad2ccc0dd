// Package spray plans the spraying and spreading of a field: rates and flows,
// nozzles, loads, passes over the field and sorties in the order flown, and
// which passes wait for which wind. Lengths are m, speeds m/s, areas ha where
// named so and else m2, volumes L, masses kg, rates L or kg for each hectare.
package spray

import (
	"errors"
	"math"

	"mainstay/core/units"
)

// ErrInput is wrapped by every refusal.
var ErrInput = errors.New("spray: input not usable")

// refuser refuses what cannot be.
var refuser = units.Refuser{Wraps: ErrInput}

func refuse(format string, a ...any) error { return refuser.Sayf(format, a...) }

func within(name string, v, lo, hi float64) error { return refuser.Within(name, v, lo, hi) }

// perMinute turns L/ha x m/s x m into L/min: 60 s and 10,000 m2.
const perMinute = 0.006

// Bounds of the four that belong together.
const (
	MostRate  = 1000.0 // L/ha or kg/ha
	MostSpeed = 30.0
	MostSwath = 60.0
	MostFlow  = 500.0 // L/min or kg/min
)

// Settings are rate, speed, swath and flow of a work; each follows from the three
// others:
//
//	flow = rate x speed x swath x 0.006
type Settings struct {
	Rate  float64 `json:"rate"`       // L/ha or kg/ha
	Speed float64 `json:"speed_ms"`   //
	Swath float64 `json:"swath_m"`    //
	Flow  float64 `json:"flow_l_min"` // L/min or kg/min, all nozzles together
}

// Unknown is the one of the four that is worked out.
type Unknown string

// The unknowns.
const (
	UnknownFlow  Unknown = "flow"
	UnknownRate  Unknown = "rate"
	UnknownSpeed Unknown = "speed"
	UnknownSwath Unknown = "swath"
)

// AllUnknowns lists them.
var AllUnknowns = []Unknown{UnknownFlow, UnknownRate, UnknownSpeed, UnknownSwath}

// Solve fills in the unknown from the three others. Valid: rate 0.1-1000, speed
// 0.1-30, swath 0.2-60, flow 0.001-500; the result may lie outside of that, which
// is an error too. 15 L/ha at 6 m/s over 7 m is 3.78 L/min. Errors wrap ErrInput.
func (s Settings) Solve(u Unknown) (Settings, error) {
	switch u {
	case UnknownFlow:
		s.Flow = s.Rate * s.Speed * s.Swath * perMinute
	case UnknownRate:
		s.Rate = s.Flow / (s.Speed * s.Swath * perMinute)
	case UnknownSpeed:
		s.Speed = s.Flow / (s.Rate * s.Swath * perMinute)
	case UnknownSwath:
		s.Swath = s.Flow / (s.Rate * s.Speed * perMinute)
	default:
		return s, refuse("%q is none of %v", u, AllUnknowns)
	}
	return s, errors.Join(within("rate", s.Rate, 0.1, MostRate), within("speed", s.Speed, 0.1, MostSpeed),
		within("swath", s.Swath, 0.2, MostSwath), within("flow", s.Flow, 0.001, MostFlow))
}

// Nozzle is a kind of nozzle, as its maker's table gives it.
type Nozzle struct {
	Key      string  `json:"key"`
	Name     string  `json:"name"`
	LeastLPM float64 `json:"least_l_min"` // at the least pressure of its table
	MostLPM  float64 `json:"most_l_min"`
	LeastBar float64 `json:"least_bar"`
	MostBar  float64 `json:"most_bar"`
	Droplets string  `json:"droplets"` // class at the middle of its range
}

// Droplets lists the classes of droplet size from fine to coarse.
var Droplets = []string{"very fine", "fine", "medium", "coarse", "very coarse", "extremely coarse"}

// Check refuses a nozzle that cannot be.
func (n Nozzle) Check() error {
	if n.Name == "" {
		return refuse("a nozzle needs a name")
	}
	if !(n.MostLPM >= n.LeastLPM) || !(n.MostBar >= n.LeastBar) {
		return refuse("%s: the most is under the least", n.Name)
	}
	known := false
	for _, d := range Droplets {
		known = known || d == n.Droplets
	}
	if !known {
		return refuse("%s: %q is none of the droplet classes %v", n.Name, n.Droplets, Droplets)
	}
	return errors.Join(within(n.Name+": flow", n.LeastLPM, 0.01, 50), within(n.Name+": flow", n.MostLPM, 0.01, 50),
		within(n.Name+": pressure", n.LeastBar, 0.1, 50), within(n.Name+": pressure", n.MostBar, 0.1, 50))
}

// Pressure is the pressure at which a nozzle gives a flow, bar: flow grows with
// the root of pressure, held to the middle of its table.
func (n Nozzle) Pressure(lpm float64) float64 {
	k := (n.LeastLPM/math.Sqrt(n.LeastBar) + n.MostLPM/math.Sqrt(n.MostBar)) / 2
	return (lpm / k) * (lpm / k)
}

// Need is one nozzle's flow when count of them share it.
func (s Settings) Need(count int) float64 { return s.Flow / float64(count) }

// SpeedRange is the range of speed in which count nozzles of a kind give the rate
// over the swath, m/s.
func (s Settings) SpeedRange(n Nozzle, count int) (least, most float64) {
	per := s.Rate * s.Swath * perMinute
	return n.LeastLPM * float64(count) / per, n.MostLPM * float64(count) / per
}
