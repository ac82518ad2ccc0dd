// Package mass adds up what an aircraft carries: its mass, its centre of
// gravity, and what each motor lifts. Masses are kg, places metres in the body
// frame: x to the right, y forward, origin at the centre of the airframe.
package mass

import (
	"errors"
	"mainstay/core/why"
	"math"
)

// ErrInput is wrapped by every refusal.
var ErrInput = errors.New("mass: input not usable")

// Part names what an item is; each stands once in a sum.
type Part string

// The parts of a take-off mass.
const (
	Empty       Part = "empty"
	Packs       Part = "packs"
	Payload     Part = "payload"
	Attachments Part = "attachments"
	Liquid      Part = "liquid" // or granules
)

// AllParts lists the parts in the order in which they are weighed.
var AllParts = []Part{Empty, Packs, Payload, Attachments, Liquid}

// Item is something aboard.
type Item struct {
	Part Part    `json:"part"`
	Kg   float64 `json:"kg"`
	X    float64 `json:"x_m"`
	Y    float64 `json:"y_m"`
}

// Sum is the mass and where it lies.
type Sum struct {
	Kg float64 `json:"kg"`
	X  float64 `json:"x_m"`
	Y  float64 `json:"y_m"`
}

// Add is the sum of the items: centre of gravity = sum(m x)/sum(m), per axis.
// Valid: each 0-1000 kg within 10 m of the centre, more than nothing together.
// Errors wrap ErrInput.
func Add(items []Item) (Sum, error) {
	var s Sum
	for _, i := range items {
		if !(i.Kg >= 0 && i.Kg <= 1000) || !(math.Abs(i.X) <= 10) || !(math.Abs(i.Y) <= 10) {
			return Sum{}, why.Not(ErrInput, "%s of %g kg at %g, %g m", i.Part, i.Kg, i.X, i.Y)
		}
		s.Kg, s.X, s.Y = s.Kg+i.Kg, s.X+i.Kg*i.X, s.Y+i.Kg*i.Y
	}
	if !(s.Kg > 0) {
		return Sum{}, why.Not(ErrInput, "nothing aboard weighs anything")
	}
	return Sum{Kg: s.Kg, X: s.X / s.Kg, Y: s.Y / s.Kg}, nil
}

// Motor is where a lifting motor stands.
type Motor struct{ X, Y float64 }

// Shares is what each motor lifts, kg, with the mass hanging still: the least sum
// of squares that carries the mass and leaves no moment to roll or pitch,
//
//	minimise sum s^2 with sum s = m, sum s x = m X, sum s y = m Y
//
// (s = At (A At)^-1 b). A share under 0 means that the mass lies outside the
// motors: no still hover. Errors wrap ErrInput: under three motors, or motors in
// one line.
func Shares(s Sum, motors []Motor) ([]float64, error) {
	if len(motors) < 3 {
		return nil, why.Not(ErrInput, "%d motors hold nothing level", len(motors))
	}
	var g [3][4]float64 // A At | b
	for _, m := range motors {
		row := [3]float64{1, m.X, m.Y}
		for i := range 3 {
			for j := range 3 {
				g[i][j] += row[i] * row[j]
			}
		}
	}
	g[0][3], g[1][3], g[2][3] = s.Kg, s.Kg*s.X, s.Kg*s.Y
	l, ok := solve(g)
	if !ok {
		return nil, why.Not(ErrInput, "the motors stand in one line")
	}
	out := make([]float64, len(motors))
	for i, m := range motors {
		out[i] = l[0] + l[1]*m.X + l[2]*m.Y
	}
	return out, nil
}

// solve solves three equations with the largest pivot first.
func solve(g [3][4]float64) (x [3]float64, ok bool) {
	for i := range 3 {
		p := i
		for r := i + 1; r < 3; r++ {
			if math.Abs(g[r][i]) > math.Abs(g[p][i]) {
				p = r
			}
		}
		if math.Abs(g[p][i]) < 1e-9 {
			return x, false
		}
		g[i], g[p] = g[p], g[i]
		for r := range 3 {
			if r == i {
				continue
			}
			k := g[r][i] / g[i][i]
			for c := i; c < 4; c++ {
				g[r][c] -= k * g[i][c]
			}
		}
	}
	for i := range 3 {
		x[i] = g[i][3] / g[i][i]
	}
	return x, true
}
