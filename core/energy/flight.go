package energy

import (
	"errors"
	"math"
)

// PhaseKind is what an aircraft does in a part of a flight.
type PhaseKind string

// The kinds of phase.
const (
	Climbing   PhaseKind = "climb"
	Cruising   PhaseKind = "cruise"
	Hovering   PhaseKind = "hover" // and turning, landing: at little speed
	Descending PhaseKind = "descend"
	Spraying   PhaseKind = "spray" // or spreading: mass leaves at KgPerS
)

// AllPhaseKinds lists the kinds.
var AllPhaseKinds = []PhaseKind{Climbing, Cruising, Hovering, Descending, Spraying}

// Phase is a part of a flight.
type Phase struct {
	Kind    PhaseKind
	Seconds float64
	KgPerS  float64 // mass that leaves, of spraying
}

// Need is what a flight or a part of it needs.
type Need struct {
	Wh      float64
	Seconds float64
	MassKg  float64 // after it
}

// Fly adds up a flight, phase by phase, with the mass that is left. Phases take no
// time backwards; spraying cannot take the mass under 0.05 kg. Errors wrap
// ErrInput.
func (m Model) Fly(massKg, rho float64, phases []Phase) (Need, error) {
	n := Need{MassKg: massKg}
	if err := m.usable(massKg, rho); err != nil {
		return n, err
	}
	for _, p := range phases {
		if err := within("seconds", p.Seconds, 0, 1e6); err != nil {
			return n, err
		}
		switch p.Kind {
		case Climbing:
			n.Wh += wattHours(m.climb(n.MassKg, rho), p.Seconds)
		case Cruising:
			n.Wh += wattHours(m.cruise(n.MassKg, rho), p.Seconds)
		case Hovering, Descending:
			n.Wh += wattHours(m.slow(n.MassKg, rho), p.Seconds)
		case Spraying:
			after := n.MassKg - p.KgPerS*p.Seconds
			switch {
			case !(p.KgPerS >= 0) || !(after >= 0.05):
				return n, refuse("%g kg/s for %g s from %g kg", p.KgPerS, p.Seconds, n.MassKg)
			case after == n.MassKg:
				n.Wh += wattHours(m.cruise(n.MassKg, rho), p.Seconds)
			default:
				n.Wh += m.spray(n.MassKg, after, p.KgPerS, rho)
			}
			n.MassKg = after
		default:
			return n, refuse("%q is none of %v", p.Kind, AllPhaseKinds)
		}
		n.Seconds += p.Seconds
	}
	return n, nil
}

// Verticals are the phases in which rotors carry a vertical take-off wing: up to where it
// goes over to forward flight, and down from there with the hover over the place.
// transitionM is that height, m. Others have none.
func (m Model) Verticals(transitionM float64) []Phase {
	if m.Kind != RotorsOnWing || !(transitionM > 0) {
		return nil
	}
	return []Phase{{Kind: Climbing, Seconds: transitionM / m.ClimbMS},
		{Kind: Descending, Seconds: transitionM/m.DescentMS + LandingSeconds}}
}

// Wind is the wind at the height of the way.
type Wind struct {
	MeanMS  float64 // decides the energy
	GustMS  float64 // decides whether it comes forward at all
	FromDeg float64 // true
	Against bool    // taken as against every way, for nobody knows where it comes from
}

// along is the speed over the ground on a course, and whether it comes forward:
// the angle into the wind is asin(cross/airspeed).
func (w Wind) along(course, airspeed, speed float64) (float64, bool) {
	d := (w.FromDeg - course) * math.Pi / 180
	if w.Against {
		d = 0
	}
	cross := speed * math.Sin(d)
	if math.Abs(cross) >= airspeed {
		return 0, false
	}
	v := math.Sqrt(airspeed*airspeed-cross*cross) - speed*math.Cos(d)
	return v, v > 0
}

// Over is the speed over the ground on a course at an airspeed in the mean wind, m/s;
// ok is false where it does not come forward.
func (w Wind) Over(course, airspeed float64) (speed float64, ok bool) {
	return w.along(course, airspeed, w.MeanMS)
}

func (w Wind) check() error {
	for _, e := range []error{within("wind", w.MeanMS, 0, 60), within("gust", w.GustMS, w.MeanMS, 100),
		within("wind direction", w.FromDeg, 0, 360)} {
		if e != nil {
			return e
		}
	}
	return nil
}

// Return is the way home from where an aircraft is.
type Return struct {
	MassKg    float64
	Rho       float64
	HeightM   float64 // above take-off, now
	ReturnM   float64 // above take-off, on the way
	DistanceM float64
	CourseDeg float64 // of the way home, true
	Wind      Wind
}

// Home is what a way home takes.
type Home struct {
	Wh       float64
	Seconds  float64
	GroundMS float64 // on the way, in the mean wind
	Cannot   string  // why there is no way home; "" there is
}

// No way home.
const (
	AgainstMean = "the wind is stronger than it flies"
	AgainstGust = "in the gusts it does not come forward"
)

// Home is the energy of the way home: the climb to the return height if it is
// lower, the way at that height against the mean wind, the descent with a hover of
// 15 s over the place, at least 45 s together. Valid: heights 0-5000 m, distance
// to 200 km. Errors wrap ErrInput; a wind that it does not come home against is
// no error but Cannot.
func (m Model) Home(r Return) (Home, error) {
	if err := m.returns(r); err != nil {
		return Home{}, err
	}
	if _, ok := r.Wind.along(r.CourseDeg, m.CruiseMS, r.Wind.MeanMS); !ok && r.DistanceM > 0 {
		return Home{Cannot: AgainstMean}, nil
	}
	if _, ok := r.Wind.along(r.CourseDeg, m.CruiseMS, r.Wind.GustMS); !ok && r.DistanceM > 0 {
		return Home{Cannot: AgainstGust}, nil
	}
	v, _ := r.Wind.along(r.CourseDeg, m.CruiseMS, r.Wind.MeanMS)
	phases := []Phase{{Kind: Climbing, Seconds: max(0, r.ReturnM-r.HeightM) / m.ClimbMS}}
	if r.DistanceM > 0 {
		phases = append(phases, Phase{Kind: Cruising, Seconds: r.DistanceM / v})
	}
	down := max(r.HeightM, r.ReturnM)/m.DescentMS + LandingSeconds
	phases = append(phases, Phase{Kind: Descending, Seconds: max(down, LeastDescentTime)})
	n, err := m.Fly(r.MassKg, r.Rho, phases)
	return Home{Wh: n.Wh, Seconds: n.Seconds, GroundMS: v}, err
}

func (m Model) returns(r Return) error {
	for _, e := range []error{m.usable(r.MassKg, r.Rho), within("height", r.HeightM, 0, 5000),
		within("return height", r.ReturnM, 0, 5000), within("distance", r.DistanceM, 0, 200_000),
		within("course", r.CourseDeg, 0, 360), r.Wind.check()} {
		if e != nil {
			return e
		}
	}
	return nil
}

// CallOut is what the packs must still show at a distance to come home.
type CallOut struct {
	DistanceM float64 `json:"distance_m"`
	Percent   float64 `json:"percent"` // with the reserve
	Wh        float64 `json:"wh"`
	Seconds   float64 `json:"seconds"`
	Cannot    string  `json:"cannot,omitempty"`
}

// CallOuts are the call-outs of a way home by distance: energy over the full packs
// as percent, and the reserve.
func (m Model) CallOuts(r Return, s Store, reservePercent float64, distances []float64) ([]CallOut, error) {
	out := make([]CallOut, 0, len(distances))
	for _, d := range distances {
		r.DistanceM = d
		h, err := m.Home(r)
		if err != nil {
			return nil, err
		}
		out = append(out, CallOut{DistanceM: d, Wh: h.Wh, Seconds: h.Seconds, Cannot: h.Cannot,
			Percent: s.PercentOf(h.Wh) + reservePercent})
	}
	return out, nil
}

// Radius is how far out an aircraft comes on a bearing and back, with what may be
// taken from its packs, m: the climb, the descent, and cruise out and back at the
// ground speeds of the mean wind. 0 where it does not come forward one of the
// ways, in the gusts of the way back either. mayWh is the usable energy.
func (m Model) Radius(r Return, bearing, mayWh float64) (float64, error) {
	r.DistanceM, r.CourseDeg = 0, math.Mod(bearing+180, 360)
	if err := errors.Join(within("bearing", bearing, 0, 360), within("usable energy", mayWh, 0, 1e6)); err != nil {
		return 0, err
	}
	r.HeightM = 0 // from the ground up, and down again
	fixed, err := m.Home(r)
	if err != nil {
		return 0, err
	}
	out, ok := r.Wind.along(bearing, m.CruiseMS, r.Wind.MeanMS)
	back, ok2 := r.Wind.along(r.CourseDeg, m.CruiseMS, r.Wind.MeanMS)
	_, ok3 := r.Wind.along(r.CourseDeg, m.CruiseMS, r.Wind.GustMS)
	if !ok || !ok2 || !ok3 || mayWh <= fixed.Wh {
		return 0, nil
	}
	return (mayWh - fixed.Wh) * 3600 / (m.cruise(r.MassKg, r.Rho) * (1/out + 1/back)), nil
}
