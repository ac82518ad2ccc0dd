// Package airframe describes an aircraft type: its geometry, limits, packs and
// the stations a walkround visits. Lengths are in metres in the body frame:
// x to the right, y forward, origin at the centre of the airframe.
package airframe

import (
	"fmt"
	"math"

	"mainstay/core/pack"
	"mainstay/core/practice"
	"mainstay/core/units"
	"mainstay/core/wear"
)

// Kind is the layout of an airframe.
type Kind string

// The layouts.
const (
	Multirotor   Kind = "multirotor"
	FixedWing    Kind = "fixed-wing"
	VerticalWing Kind = "vertical-take-off-wing"
)

// AllKinds lists the layouts.
var AllKinds = []Kind{Multirotor, FixedWing, VerticalWing}

// VTail is a tail of two surfaces that stand in a V.
const VTail = "v"

// Geometry is what the airframe drawing and the stations are made from.
// Rotors, ArmM and RotorDiameterM hold for layouts with lifting rotors; SpanM,
// LengthM and ChordM for layouts with a wing.
type Geometry struct {
	Kind Kind `json:"kind"`
	// lifting rotors: 4, 6 or 8 on a multirotor, 4 on a vertical take-off wing
	Rotors         int          `json:"rotors,omitempty"`
	ArmM           units.Metres `json:"arm_m,omitempty"`            // centre to motor axis
	RotorDiameterM units.Metres `json:"rotor_diameter_m,omitempty"` // of the lifting rotors
	SpanM          units.Metres `json:"span_m,omitempty"`
	LengthM        units.Metres `json:"length_m,omitempty"`
	ChordM         units.Metres `json:"chord_m,omitempty"`
	PropDiameterM  units.Metres `json:"prop_diameter_m,omitempty"` // of the propeller that drives a wing forward
	// of a wing: "v", or empty for one with fin and tailplane
	Tail string `json:"tail,omitempty"`
}

// Limits are the maker's limits that the gate holds a flight against.
type Limits struct {
	TakeoffMassKg units.Kilograms       `json:"takeoff_mass_kg"`
	WindMS        units.MetresPerSecond `json:"wind_ms"` // steady, at flight height
	GustMS        units.MetresPerSecond `json:"gust_ms"`
	// usual height above ground, for scaling the wind
	FlightHeightM units.Metres `json:"flight_height_m"`
	// where the maker demands one; 0: the crew's practice
	LaunchPercent  units.Percent    `json:"launch_percent,omitempty"`
	LandByPercent  units.Percent    `json:"land_by_percent"`
	LandByCellMV   units.Millivolts `json:"land_by_cell_mv"`  // under load
	PlannedMinutes float64          `json:"planned_minutes"`  // usual flight on full packs
	WarmthOutlierC units.Celsius    `json:"warmth_outlier_c"` // a motor this much over its sisters' median
	// Not every profile gives these; zero takes the usual value.
	CrosswindMS units.MetresPerSecond `json:"crosswind_ms,omitempty"` // start and landing of a wing
	ClimbMS     units.MetresPerSecond `json:"climb_ms,omitempty"`
	DescentMS   units.MetresPerSecond `json:"descent_ms,omitempty"`
	SpeedMS     units.MetresPerSecond `json:"speed_ms,omitempty"` // greatest over the ground; zero is not known
	// a vertical take-off wing goes over to forward flight here
	TransitionM units.Metres `json:"transition_m,omitempty"`
	// Least heights that a route keeps over the ground and over what stands there;
	// zero takes the usual one of the work.
	LeastGroundM units.Metres `json:"least_ground_m,omitempty"`
	LeastOverM   units.Metres `json:"least_over_m,omitempty"`
	// ReferenceKgM3 is the air density that the greatest mass holds for; zero is
	// sea level in the standard atmosphere.
	ReferenceKgM3 float64      `json:"reference_kgm3,omitempty"`
	LeastReturnM  units.Metres `json:"least_return_m,omitempty"` // lowest return height that the maker allows
}

// Usual values where a profile gives none: a crosswind of 6 m/s, and the climb and
// descent of a loaded multirotor.
const (
	UsualCrosswindMS = 6.0
	UsualClimbMS     = 3.0
	UsualDescentMS   = 2.0
	UsualTransitionM = 20.0
)

// Crosswind is the limit for start and landing.
func (l Limits) Crosswind() float64 { return orUsual(l.CrosswindMS, UsualCrosswindMS) }

// Climb is the rate of climb.
func (l Limits) Climb() float64 { return orUsual(l.ClimbMS, UsualClimbMS) }

// Descent is the rate of descent.
func (l Limits) Descent() float64 { return orUsual(l.DescentMS, UsualDescentMS) }

// Transition is the height at which a vertical take-off wing goes over to
// forward flight and back, m; 0 for the others.
func (t Type) Transition() float64 {
	switch {
	case t.Geometry.Kind != VerticalWing:
		return 0
	case t.Limits.TransitionM > 0:
		return float64(t.Limits.TransitionM)
	}
	return UsualTransitionM
}

func orUsual(v units.MetresPerSecond, usual float64) float64 {
	if v > 0 {
		return float64(v)
	}
	return usual
}

// Packs is the battery fit of a type.
type Packs struct {
	Count        int            `json:"count"`
	Chemistry    pack.Chemistry `json:"chemistry"`
	Cells        int            `json:"cells"`
	CapacityMAh  int            `json:"capacity_mah"`
	PercentFrom  string         `json:"percent_from"` // "pack": shown by a smart pack; "volts": from resting volts
	MaxCycles    int            `json:"max_cycles"`
	CallOutEvery int            `json:"call_out_every_s"` // seconds between voltage calls in flight
}

// Type is a profile that a crew can copy and change.
type Type struct {
	Key       string                 `json:"key"`
	Version   int                    `json:"version"`
	Name      string                 `json:"name"`
	Work      string                 `json:"work"` // what it is for, in a few words
	Geometry  Geometry               `json:"geometry"`
	Limits    Limits                 `json:"limits"`
	Packs     Packs                  `json:"packs"`
	Wear      map[string]wear.Limits `json:"wear"` // by part kind
	Equipment []Equipment            `json:"equipment,omitempty"`
	TankL     float64                `json:"tank_l,omitempty"` // liquid it can carry; 0: it does not spray
	// controller-first or aircraft-first, where the maker demands it
	PowerOrder string `json:"power_order,omitempty"`
	// Demands are what the maker demands where crews differ; it overrules their practice.
	Demands practice.Settings `json:"demands,omitempty"`
	// Practice is what the crew chose where crews differ. It is no part of a profile:
	// whoever judges fills it in.
	Practice practice.Settings `json:"practice,omitempty"`
	Sticks   *Sticks           `json:"sticks,omitempty"` // nil: not known
	// Unfold is the order in which the arms are opened, by number; the lower ones first where
	// they lie over each other. Empty: as they are numbered.
	Unfold     []int       `json:"unfold,omitempty"`
	RangeCheck *RangeCheck `json:"range_check,omitempty"` // nil: as the manual says
	Power      *Power      `json:"power,omitempty"`       // nil: all is assumed
	Balance    *Balance    `json:"balance,omitempty"`     // nil: not known

	shape *shape // of a prepared type
}

// RangeCheck is how the maker wants the link tried on the ground.
type RangeCheck struct {
	DistanceM units.Metres `json:"distance_m"`
	Power     string       `json:"power"` // like "at reduced power"
}

// shape is what follows from geometry and equipment.
type shape struct {
	stations  []Station
	positions []Position
}

// Prepared returns the type with its stations and positions worked out once.
// Do not change the geometry or equipment of a prepared type.
func (t Type) Prepared() Type {
	t.shape = nil
	t.shape = &shape{t.Stations(), t.Positions()}
	return t
}

// Station is a place on the airframe.
type Station struct {
	ID string `json:"id"`
	// arm, motor, propeller, wing, tail, surface, frame, bay, electronics, antenna, sensor, payload, controller
	Kind  string       `json:"kind"`
	Label string       `json:"label"`
	X     units.Metres `json:"x"`
	Y     units.Metres `json:"y"`
	Part  string       `json:"part,omitempty"` // kind of part with a life that is fitted here
}

// rotorAngle is the bearing of rotor i (from 0) clockwise from the nose: the
// rotors are spread evenly with the nose between the last and the first.
func rotorAngle(i, n int) float64 { return 2 * math.Pi * (float64(i) + 0.5) / float64(n) }

// Stations lists the places of the airframe in the order of a walkround:
// round the aircraft clockwise from the front right, then inwards.
func (t Type) Stations() []Station {
	if t.shape != nil {
		return t.shape.stations
	}
	g := t.Geometry
	var out []Station
	add := func(x, y float64, s Station) {
		s.X, s.Y = units.Metres(round(x)), units.Metres(round(y))
		out = append(out, s)
	}
	if g.Kind != Multirotor {
		half, length := float64(g.SpanM)/2, float64(g.LengthM)
		add(0, length*0.45, Station{ID: "nose", Kind: "frame", Label: "Nose"})
		add(half*0.6, 0.05, Station{ID: "wing-right", Kind: "wing", Label: "Right wing"})
		add(half*0.75, -float64(g.ChordM)*0.5, Station{ID: "surface-right", Kind: "surface", Label: "Right aileron"})
		add(0, -length*0.5, Station{ID: "tail", Kind: "tail", Label: "Tail"})
		if g.Tail == VTail {
			add(half*0.16, -length*0.52, Station{ID: "surface-tail-right", Kind: "surface", Label: "Right tail surface"})
			add(-half*0.16, -length*0.52, Station{ID: "surface-tail-left", Kind: "surface", Label: "Left tail surface"})
		}
		add(-half*0.75, -float64(g.ChordM)*0.5, Station{ID: "surface-left", Kind: "surface", Label: "Left aileron"})
		add(-half*0.6, 0.05, Station{ID: "wing-left", Kind: "wing", Label: "Left wing"})
		add(0, -length*0.31, Station{ID: "motor-drive", Kind: "motor", Label: "Drive motor", Part: "motor"})
		add(length*0.14, -length*0.36, Station{ID: "propeller-drive", Kind: "propeller", Label: "Drive propeller",
			Part: "propeller"})
	}
	for i := range g.Rotors {
		a, n, r := rotorAngle(i, g.Rotors), i+1, float64(g.ArmM)
		x, y := math.Sin(a), math.Cos(a)
		add(x*r*0.55, y*r*0.55, Station{ID: fmt.Sprintf("arm-%d", n), Kind: "arm", Label: fmt.Sprintf("Arm %d", n)})
		for _, m := range t.MotorsOf(n) {
			over := ""
			if t.Coaxial() {
				over = map[bool]string{true: ", upper", false: ", lower"}[m == n]
			}
			add(x*r, y*r, Station{ID: fmt.Sprintf("motor-%d", m), Kind: "motor", Label: fmt.Sprintf("Motor %d%s", m, over),
				Part: "motor"})
			add(x*r, y*r, Station{ID: fmt.Sprintf("propeller-%d", m), Kind: "propeller",
				Label: fmt.Sprintf("Propeller %d%s", m, over), Part: "propeller"})
		}
	}
	// Inside the body the places are spread so that their marks do not touch.
	step := float64(max(g.ArmM*0.27, g.LengthM*0.155))
	add(0, 0, Station{ID: "frame", Kind: "frame", Label: "Frame", Part: "airframe"})
	add(0, step, Station{ID: "payload", Kind: "payload", Label: "Payload"})
	add(0, 2*step, Station{ID: "sensor", Kind: "sensor", Label: "Sensors"})
	add(-step, 0, Station{ID: "electronics", Kind: "electronics", Label: "Electronics"})
	add(step, 0, Station{ID: "antenna", Kind: "antenna", Label: "Antennas"})
	add(0, -step, Station{ID: "bay", Kind: "bay", Label: "Pack bay"})
	add(0, 0, Station{ID: "controller", Kind: "controller", Label: "Controller"}) // off the airframe: drawn beside it
	return out
}

// Rotors lists the numbers of the lifting rotors, 1-based.
func (t Type) Rotors() []int {
	out := make([]int, t.Geometry.Rotors)
	for i := range out {
		out[i] = i + 1
	}
	return out
}

// ArmOrder lists the numbers of the arms in the order in which they are opened.
func (t Type) ArmOrder() []int {
	if len(t.Unfold) > 0 {
		return t.Unfold
	}
	return t.Rotors()
}

// PartStations lists the stations that carry a part with a life.
func (t Type) PartStations() []Station {
	var out []Station
	for _, s := range t.Stations() {
		if s.Part != "" {
			out = append(out, s)
		}
	}
	return out
}

func round(v float64) float64 { return math.Round(v*1000) / 1000 }

// Coaxial reports whether each arm carries two motors, one over the other.
func (t Type) Coaxial() bool {
	return t.Power != nil && t.Power.Coaxial && t.Geometry.Kind == Multirotor
}

// MotorsOf lists the motors of an arm by number: its own, and under it the one that is numbered
// behind all upper ones.
func (t Type) MotorsOf(arm int) []int {
	if t.Coaxial() {
		return []int{arm, t.Geometry.Rotors + arm}
	}
	return []int{arm}
}

// ArmOf is the number of the arm that carries a motor.
func (t Type) ArmOf(motor int) int { return (motor-1)%max(t.Geometry.Rotors, 1) + 1 }

// SisterMotors is the number of motors that a reading of all has: the lifting
// ones, or the single drive motor of a wing. Those of one layer are sisters.
func (t Type) SisterMotors() int {
	if t.Coaxial() {
		return 2 * t.Geometry.Rotors
	}
	return max(t.Geometry.Rotors, 1)
}

// Layer is how many motors are sisters that are held against each other: the lower ones of
// pairs work in the wash of the upper ones.
func (t Type) Layer() int { return max(t.Geometry.Rotors, 1) }
