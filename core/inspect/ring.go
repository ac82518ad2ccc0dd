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

// Ring is how many pictures show a round structure: spacing is measured on its surface,
// ceil(circumference/spacing) round it, and ceil((height - seen)/spacing) + 1 rows, one
// where a picture shows all of its height. Widths and heights are those that a picture
// shows of the surface; overlaps are percent, 0-95. Valid: radius 0.05-500, height to
// 1000.
func Ring(radiusM, heightM, wideM, highM, sideways, upward float64) (Shots, error) {
	if err := errors.Join(within("radius", radiusM, 0.05, 500), within("height", heightM, 0.1, 1000),
		within("picture width", wideM, 0.05, 1000), within("picture height", highM, 0.05, 1000),
		within("overlap sideways", sideways, 0, 95), within("overlap upwards", upward, 0, 95)); err != nil {
		return Shots{}, err
	}
	s := Shots{Around: int(math.Ceil(2*math.Pi*radiusM/(wideM*(1-sideways/100)) - 1e-9)), Rows: 1}
	if heightM > highM {
		s.Rows = int(math.Ceil((heightM-highM)/(highM*(1-upward/100))-1e-9)) + 1
	}
	s.All = s.Around * s.Rows
	return s, nil
}
