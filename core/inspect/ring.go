// Package inspect works out pictures of what stands: how far off, how many round it and
// in how many rows. Lengths are metres.
package inspect

import (
	"errors"
	"math"

	"mainstay/core/units"
)

// ErrInput is wrapped by every refusal.
var ErrInput = errors.New("inspect: input not usable")

var within = units.Refuser{Wraps: ErrInput}.Within

// Shots is how many pictures show a surface.
type Shots struct {
	Around int // in one row
	Rows   int
	All    int
}

// Round is something round, what a picture shows of its surface and how much of that the
// next one shows again.
type Round struct {
	RadiusM, HeightM float64 // 0.05-500 and 0.1-1000
	WideM, HighM     float64 // of a picture on the surface, 0.05-1000
	Sideways, Upward float64 // overlaps, percent, 0-95
}

// Ring is how many pictures show a round structure: spacing is measured on its surface,
// ceil(circumference/spacing) round it, and ceil((height - seen)/spacing) + 1 rows, one
// where a picture shows all of its height.
func Ring(r Round) (Shots, error) {
	if err := errors.Join(within("radius", r.RadiusM, 0.05, 500), within("height", r.HeightM, 0.1, 1000),
		within("picture width", r.WideM, 0.05, 1000), within("picture height", r.HighM, 0.05, 1000),
		within("overlap sideways", r.Sideways, 0, 95), within("overlap upwards", r.Upward, 0, 95)); err != nil {
		return Shots{}, err
	}
	s := Shots{Around: int(math.Ceil(2*math.Pi*r.RadiusM/(r.WideM*(1-r.Sideways/100)) - 1e-9)), Rows: 1}
	if r.HeightM > r.HighM {
		s.Rows = int(math.Ceil((r.HeightM-r.HighM)/(r.HighM*(1-r.Upward/100))-1e-9)) + 1
	}
	s.All = s.Around * s.Rows
	return s, nil
}
