package survey

import (
	"errors"
	"math"

	"mainstay/core/geo"
)

// MostTurn is the sharpest bend that a corridor follows, degrees; over it the lines are
// led round the outside.
const MostTurn = 150.0

// Corridor is pictures along a line: ceil(width/spacing) lines that follow it, centred,
// one where it fits, each piece a straight leg lengthened by lead at its ends so that
// bends are covered. Valid: width 0-2000 m. Errors wrap ErrInput.
func Corridor(line []geo.XY, width, spacing, pictures, lead float64) (Hatch, error) {
	h := Hatch{SpacingM: spacing, PicturesM: pictures, Pieces: []Piece{}}
	if len(line) < 2 {
		return h, errors.Join(ErrInput, errors.New("a line has two places at least"))
	}
	if err := errors.Join(geo.Finite(line...), within("width", width, 0, 2000),
		within("lead", lead, 0, MostBuffer)); err != nil {
		return h, errors.Join(ErrInput, err)
	}
	n, err := Lines(width, spacing)
	if err != nil {
		return h, err
	}
	if err := within("the number of pieces", float64(n*(len(line)-1)), 0, MostLines); err != nil {
		return h, err
	}
	h.Lines = n
	legs := cleanLegs(line)
	if len(legs) < 2 {
		return h, errors.Join(ErrInput, errors.New("the line has no length"))
	}
	for i := range n {
		off := (float64(i) - float64(n-1)/2) * spacing
		for _, p := range beside(legs, off, lead) {
			p.Line = i
			if p.Pictures, err = Pictures(p.Length(), pictures); err != nil {
				return h, err
			}
			h.Pieces = append(h.Pieces, p)
		}
	}
	d := legs[len(legs)-1].Sub(legs[0])
	h.BearingDeg = geo.Turn(math.Atan2(d.X, d.Y) * 180 / math.Pi)
	return h, nil
}

// cleanLegs drops places that lie on the one before.
func cleanLegs(line []geo.XY) []geo.XY {
	out := []geo.XY{line[0]}
	for _, p := range line[1:] {
		if geo.Dist(p, out[len(out)-1]) >= ShortestPiece {
			out = append(out, p)
		}
	}
	return out
}

// beside are the legs of a line moved to its right by off. At a bend each leg reaches
// as far as the legs of both sides need: |off| x tan(half the bend), and the lead at the
// two ends.
func beside(line []geo.XY, off, lead float64) []Piece {
	last := len(line) - 2
	bend := func(i int) float64 { // how much the leg beside is longer (shorter: less than 0) at place i
		if i == 0 || i == len(line)-1 {
			return lead
		}
		a, b := line[i].Sub(line[i-1]), line[i+1].Sub(line[i])
		turn := math.Atan2(a.X*b.Y-a.Y*b.X, a.X*b.X+a.Y*b.Y) // to the left is positive
		turn = math.Max(-MostTurn*math.Pi/180, math.Min(MostTurn*math.Pi/180, turn))
		// Inside of a bend nothing is cut off: the ground there is covered twice rather than missed.
		return max(0, off*math.Tan(turn/2))
	}
	out := make([]Piece, 0, last+1)
	for i := 0; i <= last; i++ {
		d := line[i+1].Sub(line[i])
		d = d.Times(1 / d.Len())
		right := geo.XY{X: d.Y, Y: -d.X}.Times(off)
		out = append(out, Piece{From: line[i].Add(right).Sub(d.Times(bend(i))),
			To: line[i+1].Add(right).Add(d.Times(bend(i + 1)))})
	}
	return out
}
