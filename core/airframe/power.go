package airframe

import (
	"math"

	"mainstay/core/energy"
	"mainstay/core/mass"
	"mainstay/core/units"
)

// Power is what decides the energy that a type takes; zero takes the usual value.
type Power struct {
	Efficiency  float64               `json:"efficiency,omitempty"`   // of the hover, 0-1; five logged flights replace it
	CruiseShare float64               `json:"cruise_share,omitempty"` // cruise power of a multirotor over its hover power
	CruiseMS    units.MetresPerSecond `json:"cruise_ms,omitempty"`    // airspeed of transit and way home
	LiftDrag    float64               `json:"lift_drag,omitempty"`    // of a wing
	WingDrive   float64               `json:"wing_drive,omitempty"`   // efficiency of what drives a wing, 0-1
	// each rotor of the geometry is a pair, one over the other
	Coaxial bool `json:"coaxial,omitempty"`
}

// Balance is where the parts of the take-off mass lie, m from the centre, and how
// far off it the whole may lie; what is not known is nil.
type Balance struct {
	EmptyKg   units.Kilograms `json:"empty_kg"` // without packs, payload and liquid
	PackKg    units.Kilograms `json:"pack_kg"`  // of one
	Empty     Spot            `json:"empty"`
	Packs     Spot            `json:"packs"`
	Payload   Spot            `json:"payload"`
	Tank      Spot            `json:"tank"`
	XM        *float64        `json:"x_m,omitempty"`         // to either side
	AheadM    *float64        `json:"ahead_m,omitempty"`     //
	BehindM   *float64        `json:"behind_m,omitempty"`    //
	MostShare *float64        `json:"motor_share,omitempty"` // of a motor, over an equal share of the greatest mass
}

// Spot is a place on the airframe.
type Spot struct {
	X float64 `json:"x"`
	Y float64 `json:"y"`
}

// Usual airspeeds where a profile gives none.
const (
	UsualCruiseMS     = 8.0
	UsualWingCruiseMS = 16.0
)

// Model is what decides its power, with what had to be assumed in words. own is
// the airframe's own efficiency; nil takes the type's.
func (t Type) Model(own *energy.Learned) (m energy.Model, assumed []string) {
	p := Power{}
	if t.Power != nil {
		p = *t.Power
	}
	usual := func(v, usual float64, what string) float64 {
		if v > 0 {
			return v
		}
		assumed = append(assumed, what)
		return usual
	}
	g := t.Geometry
	m = energy.Model{ClimbMS: t.Limits.Climb(), DescentMS: t.Limits.Descent()}
	switch g.Kind {
	case Multirotor:
		m.Kind = energy.Rotors
	case FixedWing:
		m.Kind = energy.Wing
	default:
		m.Kind = energy.RotorsOnWing
	}
	if m.Kind != energy.Wing {
		m.Discs, m.DiameterM, m.Coaxial = g.Rotors, float64(g.RotorDiameterM), p.Coaxial
		if p.Coaxial {
			m.Discs *= 2
		}
		m.Efficiency = usual(p.Efficiency, energy.UsualEfficiency, "efficiency")
	}
	if m.Kind == energy.Rotors {
		m.CruiseShare, m.CruiseMS = energy.UsualCruise, usual(float64(p.CruiseMS), UsualCruiseMS, "cruise speed")
		if p.CruiseShare > 0 {
			m.CruiseShare = p.CruiseShare
		}
	} else {
		m.LiftDrag, m.WingDrive = usual(p.LiftDrag, energy.UsualLiftDrag, "lift over drag"), usual(p.WingDrive,
			energy.UsualWingDrive, "efficiency of the drive")
		m.CruiseMS = usual(float64(p.CruiseMS), UsualWingCruiseMS, "cruise speed")
	}
	if own != nil && own.Own {
		m = m.With(own.Efficiency)
	}
	return m, assumed
}

// LiftMotors is where the lifting motors stand; none on a fixed wing.
func (t Type) LiftMotors() []mass.Motor {
	out := make([]mass.Motor, t.Geometry.Rotors)
	for i := range out {
		a, r := rotorAngle(i, t.Geometry.Rotors), float64(t.Geometry.ArmM)
		out[i] = mass.Motor{X: r * math.Sin(a), Y: r * math.Cos(a)}
	}
	return out
}

// Load is what goes aboard today beside the aircraft and its packs, kg.
type Load struct {
	EmptyKg    *float64 // of this airframe, as weighed; nil: the type's
	PackKg     *float64 // of all packs, as weighed; nil: the type's
	PayloadKg  float64
	AttachedKg float64
	LiquidKg   float64
}

// Items are the parts of its take-off mass; ok is false where the type does not say
// what it weighs.
func (t Type) Items(l Load) (items []mass.Item, ok bool) {
	b := t.Balance
	if b == nil {
		return nil, false
	}
	or := func(v *float64, usual float64) float64 {
		if v != nil {
			return *v
		}
		return usual
	}
	at := func(p mass.Part, kg float64, s Spot) mass.Item { return mass.Item{Part: p, Kg: kg, X: s.X, Y: s.Y} }
	return []mass.Item{at(mass.Empty, or(l.EmptyKg, float64(b.EmptyKg)), b.Empty),
		at(mass.Packs, or(l.PackKg, float64(b.PackKg)*float64(t.Packs.Count)), b.Packs),
		at(mass.Payload, l.PayloadKg, b.Payload), at(mass.Attachments, l.AttachedKg, Spot{}), at(mass.Liquid, l.LiquidKg,
			b.Tank)}, true
}

// BalanceLimits is what its balance is held against.
func (t Type) BalanceLimits() mass.Limits {
	if t.Balance == nil {
		return mass.Limits{}
	}
	b := t.Balance
	return mass.Limits{XM: b.XM, AheadM: b.AheadM, BehindM: b.BehindM, MostShare: b.MostShare}
}
