// Package wind brings a wind reading to flight height and resolves it against
// a heading. Speeds are m/s, heights m above ground, directions degrees true.
package wind

import (
	"errors"
	"fmt"
	"math"

	"mainstay/core/judge"
	"mainstay/core/units"
	"mainstay/core/why"
)

// Ground is the roughness of the surface the wind blows over.
type Ground string

// The classes of ground with their power-law exponents (usual engineering
// values for neutral air).
const (
	Water Ground = "water"
	Open  Ground = "open"
	Crops Ground = "crops"
	Built Ground = "built"
)

// AllGrounds lists the classes from smooth to rough.
var AllGrounds = []Ground{Water, Open, Crops, Built}

var exponents = map[Ground]float64{Water: 0.10, Open: 0.14, Crops: 0.22, Built: 0.30}

// HandHeight is the height of a hand-held reading.
const HandHeight units.Metres = 2

// AssumedGust is the factor on the steady wind when no gust was reported.
const AssumedGust = 1.4

// ErrInput marks readings that cannot be used.
var ErrInput = errors.New("wind reading out of range")

// AtHeight is the wind at a flight height.
type AtHeight struct {
	Steady      units.MetresPerSecond `json:"steady_ms"`
	Gust        units.MetresPerSecond `json:"gust_ms"`
	GustAssumed bool                  `json:"gust_assumed"`
	Notes       []string              `json:"notes"`
}

// Scale brings a reading taken at height ref up to height h by the power law
//
//	v(h) = v_ref (h/h_ref)^a
//
// and the gust the same way, never below what was reported. gust nil means
// none was reported: 1.4 times steady is assumed and said. Valid: steady
// 0-60 m/s, gust at least steady, ref and h 0.5-500 m. Errors wrap ErrInput.
func Scale(steady units.MetresPerSecond, gust *units.MetresPerSecond, ref, h units.Metres, g Ground) (AtHeight, error) {
	a, ok := exponents[g]
	if !ok {
		return AtHeight{}, why.Not(ErrInput, "ground %q is none of %v", g, AllGrounds)
	}
	if !(steady >= 0 && steady <= 60) {
		return AtHeight{}, why.Not(ErrInput, "steady wind %v m/s is not between 0 and 60", steady)
	}
	if !(ref >= 0.5 && ref <= 500) || !(h >= 0.5 && h <= 500) {
		return AtHeight{}, why.Not(ErrInput, "heights must be 0.5-500 m")
	}
	out := AtHeight{GustAssumed: gust == nil, Notes: []string{}}
	raw := units.MetresPerSecond(float64(steady) * AssumedGust)
	if gust != nil {
		raw = *gust
		if !(raw >= steady && raw <= 90) {
			return AtHeight{}, why.Not(ErrInput, "gust %v m/s is under the steady wind or over 90", raw)
		}
	} else {
		out.Notes = append(out.Notes, "No gust was entered: 1.4 times the steady wind is assumed.")
	}
	f := math.Pow(float64(h)/float64(ref), a)
	out.Steady = units.MetresPerSecond(float64(steady) * f)
	out.Gust = units.MetresPerSecond(float64(raw) * max(f, 1))
	if ref <= 2.5 && h > 30 {
		out.Notes = append(out.Notes,
			"From a reading near the ground to over 30 m is a rough estimate; at night or in an inversion the wind up there is stronger than this.")
	}
	return out, nil
}

// Least is the least height that a wind is brought to, m.
const Least = 0.5

// Held is one part of a wind against a limit.
type Held struct {
	Verdict  judge.Verdict
	Sentence string
}

// near is the share of a limit from which a wind is near it.
const near = 0.8

// Hold holds the wind at a height against the limits of a type, in whole
// 0.1 m/s, the resolution of a hand anemometer: over a limit is Stop, over four
// fifths of it Watch; a limit that is no number is Stop.
func Hold(at AtHeight, steady, gust units.MetresPerSecond, height units.Metres) []Held {
	var out []Held
	one := func(name string, v, limit units.MetresPerSecond) {
		n, ok := units.Steps(float64(v), 0.1)
		m, ok2 := units.Steps(float64(limit), 0.1)
		s := fmt.Sprintf("%s %.1f m/s at %.0f m, the limit is %.1f.", name, float64(v), float64(height), float64(limit))
		switch {
		case !ok || !ok2 || m <= 0:
			out = append(out, Held{judge.Stop, name + ": wind or limit is not known."})
		case n > m:
			out = append(out, Held{judge.Stop, s})
		case float64(n) > near*float64(m):
			out = append(out, Held{judge.Watch, "Near the limit: " + s})
		}
	}
	one("Wind", at.Steady, steady)
	name := "Gusts"
	if at.GustAssumed {
		name = "Gusts (assumed)"
	}
	one(name, at.Gust, gust)
	return out
}

// Components resolves a wind from direction from (degrees) at speed v against
// a heading: head positive from ahead, cross positive from the right.
func Components(v units.MetresPerSecond, from, heading float64) (head, cross units.MetresPerSecond) {
	d := (from - heading) * math.Pi / 180
	return units.MetresPerSecond(float64(v) * math.Cos(d)), units.MetresPerSecond(float64(v) * math.Sin(d))
}
