package airframe

import (
	"maps"

	"mainstay/core/practice"
	"mainstay/core/wear"
)

// Kept is what is kept where crews differ: the crew's practice, and over it what
// the maker of the type demands.
func (t Type) Kept() practice.Settings {
	out := t.Practice.Over(t.Demands)
	if t.PowerOrder != "" {
		out[practice.PowerOrder] = practice.Choice{School: t.PowerOrder}
	}
	return out
}

// LaunchPercent is the least charge at take-off, %: the maker's, or the crew's.
func (t Type) LaunchPercent() float64 {
	if t.Limits.LaunchPercent != 0 {
		return float64(t.Limits.LaunchPercent)
	}
	return t.Kept().LaunchPercent()
}

// Lives are the limits of wear by part kind: the profile's, and the crew's
// practice for propellers that it leaves open.
func (t Type) Lives() map[string]wear.Limits {
	if _, ok := t.Wear["propeller"]; ok {
		return t.Wear
	}
	out := maps.Clone(t.Wear)
	if out == nil {
		out = map[string]wear.Limits{}
	}
	hours, months := t.Kept().PropellerLife()
	out["propeller"] = wear.Limits{Hours: hours, Months: months}
	return out
}

// Demanded are the questions on which the maker of the type overrules the crew.
func (t Type) Demanded() []practice.ID {
	out := []practice.ID{}
	for _, q := range practice.Questions {
		_, ok := t.Demands[q.ID]
		_, life := t.Wear["propeller"]
		if ok || q.ID == practice.PowerOrder && t.PowerOrder != "" || q.ID == practice.LaunchCharge &&
			t.Limits.LaunchPercent != 0 || q.ID == practice.Propellers && life {
			out = append(out, q.ID)
		}
	}
	return out
}

// Lifts reports whether it rises by rotors.
func (t Type) Lifts() bool { return t.Geometry.Kind != FixedWing }
