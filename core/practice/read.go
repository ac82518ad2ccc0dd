package practice

import "fmt"

// MinSatellites is how many satellites a take-off asks for.
func (s Settings) MinSatellites() float64 {
	if s.is(Satellites, "eight") {
		return 8
	}
	return 10
}

// PropellerLife is after how many hours and months propellers are replaced; 0 is
// no such limit.
func (s Settings) PropellerLife() (hours float64, months int) {
	return s.number(Propellers, "hours"), int(s.number(Propellers, "months"))
}

// InspectsBefore and InspectsAfter say where the full inspection lies: a full
// walkround before the flight, and a full inspection after the last flight.
func (s Settings) InspectsBefore() bool { return !s.is(FullInspection, "after") }

// InspectsAfter reports whether a full inspection follows the last flight.
func (s Settings) InspectsAfter() bool { return !s.is(FullInspection, "before") }

// Power is what is switched on first: controller-first or aircraft-first.
func (s Settings) Power() string {
	k, _ := s.Kept(PowerOrder)
	return k.ID
}

// LaunchPercent is the least charge at take-off, %.
func (s Settings) LaunchPercent() float64 {
	if s.is(LaunchCharge, "full") {
		return 100
	}
	return s.number(LaunchCharge, "percent")
}

// Call is what calls a landing.
type Call string

// The calls.
const (
	ByPercent Call = "percent"
	ByVolts   Call = "volts"
	ByMinutes Call = "minutes"
)

// LandingCall is what calls the landing of a type whose packs show their own
// percent, or do not.
func (s Settings) LandingCall(smart bool) Call {
	k, _ := s.Kept(LandBy)
	switch {
	case k.ID != "pack":
		return Call(k.ID)
	case smart:
		return ByPercent
	}
	return ByVolts
}

// SprayWindow is the wind to spray in, m/s; low 0 is no lower bound.
func (s Settings) SprayWindow() (low, high float64) {
	return s.number(SprayWind, "low"), s.number(SprayWind, "high")
}

// StandOffM is how far from the aircraft the crew stands, m.
func (s Settings) StandOffM() float64 { return s.number(SafeDistance, "m") }

// Margin is how much is kept over the highest thing on the way home: the larger
// of both counts.
func (s Settings) Margin() (m, percent float64) {
	k, c := s.Kept(ReturnMargin)
	m, percent = number(k, c, "m"), number(k, c, "percent")
	if k.ID == "percent" {
		m = 5
	}
	return m, percent
}

// CompassNeed is when a calibration is due on need, km and days; ok is false
// under another school.
func (s Settings) CompassNeed() (km, days float64, ok bool) {
	return s.number(Compass, "km"), s.number(Compass, "days"), s.is(Compass, "on-need")
}

// CompassDaily reports whether the compass is calibrated each flying day.
func (s Settings) CompassDaily() bool { return s.is(Compass, "flying-day") }

// OtherPropellersFly says whether approved propellers of another maker may fly
// away from people, and near them.
func (s Settings) OtherPropellersFly() (away, near bool) {
	return !s.is(OtherPropellers, "never"), s.is(OtherPropellers, "approved")
}

// LookS is how long a look at one thing takes at least, s.
func (s Settings) LookS() float64 { return s.number(WalkPace, "s") }

// WalkS is how long a full walk takes at least, s; 0: the crew sets nothing.
func (s Settings) WalkS() float64 { return 60 * s.number(WalkPace, "minutes") }

// DrillOneIn is in how many full walks one drill is shown; 0: none.
func (s Settings) DrillOneIn() float64 { return s.number(Drills, "one-in") }

// ToSet says in words what stands on controller and aircraft at take-off. lifts
// is false for a wing that does not rise by rotors.
func (s Settings) ToSet(lifts bool) []string {
	out := []string{}
	word := func(id ID, words map[string]string) {
		k, _ := s.Kept(id)
		out = append(out, words[k.ID])
	}
	word(Sensing, map[string]string{"on": "obstacle sensing on",
		"off-open":     "obstacle sensing on, off only over open areas",
		"vertical-off": "obstacle sensing on, vertical off near the ground"})
	if lifts {
		if !s.is(Sensing, "vertical-off") {
			word(VerticalSensing, map[string]string{"on": "vertical sensing on",
				"off": "vertical sensing off for take-off and landing"})
		}
		word(TakeOffBy, map[string]string{"position-hold": "take-off in position hold (by hand only by a pilot current on it)",
			"manual": "take-off by hand, by a pilot current on it"})
	}
	word(Corrections, map[string]string{"off-in-training": "position corrections on (off only while training, on record)",
		"always": "position corrections on"})
	out = append(out, fmt.Sprintf("at least %.0f satellites and the home point seen", s.MinSatellites()))
	word(Antennas, map[string]string{"broadside": "antennas parallel and broadside, tips never at the aircraft",
		"tilted": "antennas tilted 45 to 90 degrees to each other, tips never at the aircraft"})
	return out
}
