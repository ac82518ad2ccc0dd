package geo

import (
	"errors"
	"fmt"
	"mainstay/core/why"
	"math"
	"slices"
)

// Sub is a - b.
func (a XY) Sub(b XY) XY { return XY{a.X - b.X, a.Y - b.Y} }

// Add is a + b.
func (a XY) Add(b XY) XY { return XY{a.X + b.X, a.Y + b.Y} }

// Times is a scaled.
func (a XY) Times(k float64) XY { return XY{a.X * k, a.Y * k} }

// Len is the length of a, m.
func (a XY) Len() float64 { return math.Sqrt(a.X*a.X + a.Y*a.Y) }

// Dist is the distance between two places, m.
func Dist(a, b XY) float64 { return a.Sub(b).Len() }

// cross is twice the signed area of o, a, b: positive when b lies to the left.
func cross(o, a, b XY) float64 { return (a.X-o.X)*(b.Y-o.Y) - (a.Y-o.Y)*(b.X-o.X) }

// Nearest is the place on the segment from a to b that is nearest to p, and
// where it lies along it, 0 at a to 1 at b.
func Nearest(p, a, b XY) (XY, float64) {
	d := b.Sub(a)
	l := d.X*d.X + d.Y*d.Y
	if l == 0 {
		return a, 0
	}
	t := max(0, min(1, ((p.X-a.X)*d.X+(p.Y-a.Y)*d.Y)/l))
	return a.Add(d.Times(t)), t
}

// Cross reports whether two segments meet, touching ends included.
func Cross(a, b, c, d XY) bool {
	s1, s2, s3, s4 := sign(cross(a, b, c)), sign(cross(a, b, d)), sign(cross(c, d, a)), sign(cross(c, d, b))
	if s1*s2 < 0 && s3*s4 < 0 {
		return true
	}
	return s1 == 0 && between(c, a, b) || s2 == 0 && between(d, a, b) || s3 == 0 && between(a, c, d) || s4 == 0 &&
		between(b, c, d)
}

func sign(v float64) int {
	switch {
	case v > 0:
		return 1
	case v < 0:
		return -1
	}
	return 0
}

func between(p, a, b XY) bool {
	return min(a.X, b.X) <= p.X && p.X <= max(a.X, b.X) && min(a.Y, b.Y) <= p.Y && p.Y <= max(a.Y, b.Y)
}

// Segments is how near two segments come, m, and where: the nearest place along
// the first, 0 at a to 1 at b.
func Segments(a, b, c, d XY) (dist, along float64) {
	if Cross(a, b, c, d) {
		den := (b.X-a.X)*(d.Y-c.Y) - (b.Y-a.Y)*(d.X-c.X)
		if den == 0 {
			_, t := Nearest(c, a, b)
			return 0, t
		}
		return 0, max(0, min(1, ((c.X-a.X)*(d.Y-c.Y)-(c.Y-a.Y)*(d.X-c.X))/den))
	}
	dist = math.Inf(1)
	for _, p := range [2]XY{c, d} {
		if q, t := Nearest(p, a, b); Dist(p, q) < dist {
			dist, along = Dist(p, q), t
		}
	}
	for t, p := range [2]XY{a, b} {
		if q, _ := Nearest(p, c, d); Dist(p, q) < dist {
			dist, along = Dist(p, q), float64(t)
		}
	}
	return dist, along
}

// Ring is a closed outline; the last place joins the first and is not repeated.
type Ring []XY

// ErrRing is wrapped by every refusal of an outline.
var ErrRing = errors.New("outline not usable")

// Check refuses an outline with under three places, without area, or that
// crosses itself. Up to 2,000 places are held against each other.
func (r Ring) Check() error {
	switch {
	case len(r) < 3:
		return why.Not(ErrRing, "it has %d corners, at least 3 are needed", len(r))
	case len(r) > 2000:
		return why.Not(ErrRing, "it has %d corners, at most 2000 are taken", len(r))
	}
	n := len(r)
	for i := range n {
		if r[i] == r[(i+1)%n] {
			return why.Not(ErrRing, "corner %d stands twice", i+1)
		}
	}
	if i, j, ok := r.selfCrossing(); ok {
		return why.Not(ErrRing, "it crosses itself between corners %d and %d", i+1, j+1)
	}
	if math.Abs(r.Area()) < 0.01 {
		return why.Not(ErrRing, "it has no area")
	}
	return nil
}

// selfCrossing finds two sides that meet though they are not neighbours. Sides
// are taken from west to east, so that each is held only against those whose
// stretch of x it shares.
func (r Ring) selfCrossing() (i, j int, ok bool) {
	n := len(r)
	west := func(i int) float64 { return min(r[i].X, r[(i+1)%n].X) }
	order := make([]int, n)
	for i := range order {
		order[i] = i
	}
	slices.SortFunc(order, func(a, b int) int { return cmpFloat(west(a), west(b)) })
	for k, i := range order {
		east := max(r[i].X, r[(i+1)%n].X)
		for _, j := range order[k+1:] {
			if west(j) > east {
				break
			}
			if d := (i - j + n) % n; d == 1 || d == n-1 {
				continue
			}
			if Cross(r[i], r[(i+1)%n], r[j], r[(j+1)%n]) {
				return min(i, j), max(i, j), true
			}
		}
	}
	return 0, 0, false
}

// Area is the signed area, m2, positive anticlockwise (shoelace).
func (r Ring) Area() float64 {
	var s float64
	for i := range r {
		s += cross(r[0], r[i], r[(i+1)%len(r)])
	}
	return s / 2
}

// Holds reports whether p lies inside or on the outline (even-odd rule).
func (r Ring) Holds(p XY) bool {
	in := false
	for i, j := 0, len(r)-1; i < len(r); j, i = i, i+1 {
		a, b := r[i], r[j]
		if cross(a, b, p) == 0 && between(p, a, b) {
			return true
		}
		if (a.Y > p.Y) != (b.Y > p.Y) && p.X < (b.X-a.X)*(p.Y-a.Y)/(b.Y-a.Y)+a.X {
			in = !in
		}
	}
	return in
}

// ToEdge is the distance from p to the outline, m, wherever p lies.
func (r Ring) ToEdge(p XY) float64 {
	d := math.Inf(1)
	for i := range r {
		q, _ := Nearest(p, r[i], r[(i+1)%len(r)])
		d = min(d, Dist(p, q))
	}
	return d
}

// Area is an outline with holes.
type Area struct {
	Outline Ring   `json:"outline"`
	Holes   []Ring `json:"holes"`
}

// Check holds the outline and every hole, and refuses a hole outside.
func (a Area) Check() error {
	if err := a.Outline.Check(); err != nil {
		return err
	}
	for i, h := range a.Holes {
		if err := h.Check(); err != nil {
			return fmt.Errorf("hole %d: %w", i+1, err)
		}
		for _, p := range h {
			if !a.Outline.Holds(p) {
				return why.Not(ErrRing, "hole %d reaches outside", i+1)
			}
		}
	}
	return nil
}

// Holds reports whether p lies inside and in no hole.
func (a Area) Holds(p XY) bool {
	return a.Outline.Holds(p) && !slices.ContainsFunc(a.Holes, func(h Ring) bool { return h.Holds(p) && h.ToEdge(p) > 0 })
}

// Size is the area without the holes, m2.
func (a Area) Size() float64 {
	s := math.Abs(a.Outline.Area())
	for _, h := range a.Holes {
		s -= math.Abs(h.Area())
	}
	return s
}

// Hull is the convex hull, anticlockwise (monotone chain).
func Hull(ps []XY) Ring {
	s := slices.Clone(ps)
	slices.SortFunc(s, func(a, b XY) int {
		if a.X != b.X {
			return cmpFloat(a.X, b.X)
		}
		return cmpFloat(a.Y, b.Y)
	})
	s = slices.Compact(s)
	if len(s) < 3 {
		return s
	}
	half := func(it []XY) []XY {
		var h []XY
		for _, p := range it {
			for len(h) >= 2 && cross(h[len(h)-2], h[len(h)-1], p) <= 0 {
				h = h[:len(h)-1]
			}
			h = append(h, p)
		}
		return h[:len(h)-1]
	}
	lower := half(s)
	slices.Reverse(s)
	return append(lower, half(s)...)
}

func cmpFloat(a, b float64) int {
	switch {
	case a < b:
		return -1
	case a > b:
		return 1
	}
	return 0
}

// Finite refuses places that are not numbers, or lie beyond any site. Errors
// wrap ErrPlace.
func Finite(ps ...XY) error {
	for _, p := range ps {
		if !(math.Abs(p.X) <= 1e7 && math.Abs(p.Y) <= 1e7) {
			return why.Not(ErrPlace, "%g, %g are no metres in a flat frame", p.X, p.Y)
		}
	}
	return nil
}
