// Package energy works out the power that an aircraft takes and the energy
// that a flight needs, from momentum theory and one efficiency per airframe,
// which its own flights correct. Masses are kg, powers W, energies Wh, lengths
// m, speeds m/s, densities kg/m3, temperatures degC.
package energy

import (
	"errors"
	"math"

	"mainstay/core/units"
)

// Gravity is the standard acceleration of free fall, m/s2.
const Gravity = 9.80665

// Values that are assumed where a type's file gives none. They are on the low
// side of what small electric aircraft reach; five logged flights replace the
// efficiency.
const (
	UsualEfficiency  = 0.55 // hover: ideal power over power from the pack
	UsualCruise      = 1.0  // cruise power of a multirotor over its hover power
	UsualLiftDrag    = 10.0
	UsualWingDrive   = 0.50 // propeller, motor and controller of a wing
	CoaxialShare     = 0.80 // of the efficiency where one rotor works in the stream of another
	LandingSeconds   = 15.0 // hover over the place before touch-down
	LeastDescentTime = 45.0 // s, whatever the height
)

// ErrInput is wrapped by every refusal.
var ErrInput = errors.New("energy: input not usable")

// refuser refuses what cannot be.
var refuser = units.Refuser{Wraps: ErrInput}

func refuse(format string, a ...any) error { return refuser.Sayf(format, a...) }

func within(name string, v, lo, hi float64) error { return refuser.Within(name, v, lo, hi) }

// Kind is how an aircraft stays in the air.
type Kind string

// The kinds.
const (
	Rotors       Kind = "rotors"
	Wing         Kind = "wing"
	RotorsOnWing Kind = "rotors-and-wing" // hovers up and down, cruises on its wing
)

// AllKinds lists the kinds.
var AllKinds = []Kind{Rotors, Wing, RotorsOnWing}

// Model is what decides the power of one airframe.
type Model struct {
	Kind        Kind
	Discs       int     // lifting rotors, each disc of a coaxial pair counted
	DiameterM   float64 // of a lifting rotor
	Coaxial     bool    // rotors stand in pairs one over the other
	Efficiency  float64 // of the hover, 0-1
	CruiseShare float64 // cruise power of a multirotor over its hover power
	LiftDrag    float64 // of the wing
	WingDrive   float64 // efficiency of what drives the wing, 0-1
	CruiseMS    float64 // airspeed of transit and of the way home
	ClimbMS     float64
	DescentMS   float64
}

// With is the model with an efficiency of its own: of the hover, or of what drives a
// wing.
func (m Model) With(efficiency float64) Model {
	if m.Kind == Wing {
		m.WingDrive = efficiency
	} else {
		m.Efficiency = efficiency
	}
	return m
}

// Own is the efficiency that flights correct.
func (m Model) Own() float64 {
	if m.Kind == Wing {
		return m.WingDrive
	}
	return m.Efficiency
}

// Check refuses a model that cannot be.
func (m Model) Check() error {
	var err error
	switch m.Kind {
	case Rotors, RotorsOnWing:
		if m.Discs < 1 || m.Discs > 32 {
			err = refuse("%d rotors", m.Discs)
		}
		err = errors.Join(err, within("rotor diameter", m.DiameterM, 0.05, 10), within("efficiency", m.Efficiency, 0.1, 0.95))
	case Wing:
	default:
		return refuse("%q is none of %v", m.Kind, AllKinds)
	}
	if m.Kind == Rotors {
		err = errors.Join(err, within("cruise share", m.CruiseShare, 0.5, 2))
	} else {
		err = errors.Join(err, within("lift over drag", m.LiftDrag, 2, 60),
			within("efficiency of the drive", m.WingDrive, 0.1, 0.95))
	}
	return errors.Join(err, within("cruise speed", m.CruiseMS, 0.5, 80), within("climb", m.ClimbMS, 0.1, 30),
		within("descent", m.DescentMS, 0.1, 30))
}

// perMass is k in P = k (m g)^1.5, for the lifting rotors.
func (m Model) perMass(rho float64) float64 {
	area := float64(m.Discs) * math.Pi * m.DiameterM * m.DiameterM / 4
	eta := m.Efficiency
	if m.Coaxial {
		eta *= CoaxialShare
	}
	return 1 / (eta * math.Sqrt(2*rho*area))
}

// Hover is the power to hover, W:
//
//	P = (m g)^1.5 / (eta sqrt(2 rho A)),  A = n pi (D/2)^2
//
// with eta less by a fifth for coaxial rotors. Valid: mass 0.05-1000 kg, rho
// 0.3-1.5 kg/m3, a model with rotors. Source: momentum theory of an actuator disc
// (Froude), with figure of merit and drive in one efficiency. Errors wrap
// ErrInput.
func (m Model) Hover(massKg, rho float64) (float64, error) {
	if m.Kind == Wing {
		return 0, refuse("a wing does not hover")
	}
	if err := m.usable(massKg, rho); err != nil {
		return 0, err
	}
	return m.hover(massKg, rho), nil
}

func (m Model) hover(massKg, rho float64) float64 {
	return m.perMass(rho) * math.Pow(massKg*Gravity, 1.5)
}

// Cruise is the power of level flight at the cruise airspeed, W: hover power by
// the type's share on rotors, P = m g V/((L/D) eta) on a wing. Valid and errors
// as for Hover.
func (m Model) Cruise(massKg, rho float64) (float64, error) {
	if err := m.usable(massKg, rho); err != nil {
		return 0, err
	}
	return m.cruise(massKg, rho), nil
}

func (m Model) cruise(massKg, rho float64) float64 {
	if m.Kind == Rotors {
		return m.CruiseShare * m.hover(massKg, rho)
	}
	return massKg * Gravity * m.CruiseMS / (m.LiftDrag * m.WingDrive)
}

// slow is the power at little or no speed: rotors hover, a wing keeps flying.
func (m Model) slow(massKg, rho float64) float64 {
	if m.Kind == Wing {
		return m.cruise(massKg, rho)
	}
	return m.hover(massKg, rho)
}

// climb is the power to climb: what keeps it up, and the lift of the mass
// through the same efficiency.
func (m Model) climb(massKg, rho float64) float64 {
	eta := m.Efficiency
	if m.Kind == Wing {
		eta = m.WingDrive
	}
	return m.slow(massKg, rho) + massKg*Gravity*m.ClimbMS/eta
}

func (m Model) usable(massKg, rho float64) error {
	return errors.Join(m.Check(), within("mass", massKg, 0.05, 1000), within("density", rho, 0.3, 1.5))
}

// wattHours turns W for seconds into Wh.
func wattHours(watts, seconds float64) float64 { return watts * seconds / 3600 }

// Spray is the energy of spraying from mass m0 down to m1 at a steady flow of
// mass, Wh, at the power of level flight, which for rotors follows from
//
//	E = k g^1.5 (2/5)(m0^2.5 - m1^2.5) / (dm/dt),  k = share/(eta sqrt(2 rho A))
//
// and for a wing from the mean mass. kgPerS is the flow of mass, over 0 when m1
// is under m0. Valid: masses as for Hover, m1 at most m0. Errors wrap ErrInput.
func (m Model) Spray(m0, m1, kgPerS, rho float64) (float64, error) {
	if err := errors.Join(m.usable(m0, rho), within("mass after", m1, 0.05, m0)); err != nil {
		return 0, err
	}
	if m0 == m1 {
		return 0, nil
	}
	if !(kgPerS > 0) || math.IsInf(kgPerS, 0) {
		return 0, refuse("a flow of %g kg/s", kgPerS)
	}
	return m.spray(m0, m1, kgPerS, rho), nil
}

func (m Model) spray(m0, m1, kgPerS, rho float64) float64 {
	if m.Kind != Rotors {
		return wattHours(m.cruise((m0+m1)/2, rho), (m0-m1)/kgPerS)
	}
	k := m.perMass(rho) * m.CruiseShare * math.Pow(Gravity, 1.5)
	return k * 0.4 * (math.Pow(m0, 2.5) - math.Pow(m1, 2.5)) / kgPerS / 3600
}
