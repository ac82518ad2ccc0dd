package survey

import (
	"cmp"
	"errors"
	"math"
	"slices"

	"mainstay/core/geo"
	"mainstay/core/home"
)

// Bounds of an area.
const (
	MostHoles  = 2000
	MostBuffer = 500.0
	MostExtent = 20_000.0 // m
	MostLines  = 5000     // of one plan
)

// Forbidden is where nothing flies: one place, a line, or an outline, with what is kept
// clear round it, m.
type Forbidden struct {
	Name    string
	Places  []geo.XY
	Area    bool
	BufferM float64
}

// obstacle is it as the way round sees it: without a height it is never passed over.
func (f Forbidden) obstacle() home.Obstacle {
	o := home.Obstacle{Name: f.Name, Kind: home.LineKind, Places: f.Places, BufferM: f.BufferM}
	switch {
	case f.Area:
		o.Kind = home.AreaKind
	case len(f.Places) == 1:
		o.Kind = home.PointKind
	}
	return o
}

// enters reports whether a straight way comes into what is forbidden or its buffer.
func (f Forbidden) enters(from, to geo.XY) bool {
	return f.obstacle().Within(from, to, f.BufferM-touchM)
}

// touchM is how far a line that ends at a buffer may reach into it: what arithmetic loses.
const touchM = 0.001

// Area is what is to be pictured: an outline, holes of which no picture is wanted, and
// places that are not flown over.
type Area struct {
	Outline   geo.Ring
	LeaveOut  []geo.Ring
	Forbidden []Forbidden
}

// Check refuses an area that cannot be flown over.
func (a Area) Check() error {
	wrap := func(err error) error {
		if err == nil {
			return nil
		}
		return errors.Join(ErrInput, err)
	}
	if err := wrap(a.Outline.Check()); err != nil {
		return err
	}
	lo, hi := extent(a.Outline)
	if err := errors.Join(within("the width of the area", hi.X-lo.X, 0, MostExtent),
		within("the length of the area", hi.Y-lo.Y, 0, MostExtent),
		within("the number of holes", float64(len(a.LeaveOut)+len(a.Forbidden)), 0, MostHoles)); err != nil {
		return err
	}
	for _, h := range a.LeaveOut {
		if err := wrap(h.Check()); err != nil {
			return err
		}
	}
	for _, f := range a.Forbidden {
		if len(f.Places) == 0 {
			return wrap(errors.New(f.Name + " has no place"))
		}
		if err := errors.Join(wrap(geo.Finite(f.Places...)),
			within("the buffer of "+f.Name, f.BufferM, 0, MostBuffer)); err != nil {
			return err
		}
		if f.Area {
			if err := wrap(geo.Ring(f.Places).Check()); err != nil {
				return err
			}
		}
	}
	return nil
}

func extent(ps []geo.XY) (lo, hi geo.XY) {
	lo, hi = geo.XY{X: math.Inf(1), Y: math.Inf(1)}, geo.XY{X: math.Inf(-1), Y: math.Inf(-1)}
	for _, p := range ps {
		lo = geo.XY{X: min(lo.X, p.X), Y: min(lo.Y, p.Y)}
		hi = geo.XY{X: max(hi.X, p.X), Y: max(hi.Y, p.Y)}
	}
	return lo, hi
}

// span is a stretch of a line, from <= to.
type span struct{ from, to float64 }

// shape is an outline or a line in the turned frame, with the box that it and its buffer
// fill.
type shape struct {
	places    []geo.XY
	ring      bool
	buffer    float64
	low, high float64
}

func turnedShape(t geo.Turned, places []geo.XY, ring bool, buffer float64) shape {
	s := shape{places: make([]geo.XY, len(places)), ring: ring, buffer: buffer, low: math.Inf(1), high: math.Inf(-1)}
	for i, p := range places {
		s.places[i] = t.To(p)
		s.low, s.high = min(s.low, s.places[i].Y-buffer), max(s.high, s.places[i].Y+buffer)
	}
	return s
}

// near adds the stretches of the line at y that lie within the buffer of a side.
func (s shape) near(y float64, out []span) []span {
	n := len(s.places)
	sides := n
	if !s.ring {
		sides = max(1, n-1)
	}
	for i := range sides {
		if lo, hi, ok := geo.CapsuleAt(s.places[i], s.places[(i+1)%n], s.buffer, y); ok {
			out = append(out, span{lo, hi})
		}
	}
	return out
}

// inside adds the stretches of the line at y that lie inside an outline (even-odd rule).
func (s shape) inside(y float64, out []span) []span {
	if !s.ring {
		return out
	}
	var xs []float64
	for i, a := range s.places {
		b := s.places[(i+1)%len(s.places)]
		if (a.Y > y) != (b.Y > y) {
			xs = append(xs, a.X+(y-a.Y)/(b.Y-a.Y)*(b.X-a.X))
		}
	}
	slices.Sort(xs)
	for i := 0; i+1 < len(xs); i += 2 {
		out = append(out, span{xs[i], xs[i+1]})
	}
	return out
}

// union merges stretches that touch.
func union(all []span) []span {
	slices.SortFunc(all, func(a, b span) int { return cmp.Compare(a.from, b.from) })
	out := all[:0]
	for _, s := range all {
		if n := len(out); n > 0 && s.from <= out[n-1].to {
			out[n-1].to = max(out[n-1].to, s.to)
			continue
		}
		out = append(out, s)
	}
	return out
}

// without takes stretches from others; both are sorted and do not touch.
func without(all, taken []span) []span {
	var out []span
	k := 0
	for _, s := range all {
		from := s.from
		for k < len(taken) && taken[k].to <= from {
			k++
		}
		for i := k; i < len(taken) && taken[i].from < s.to; i++ {
			if taken[i].from > from {
				out = append(out, span{from, taken[i].from})
			}
			from = max(from, taken[i].to)
		}
		if from < s.to {
			out = append(out, span{from, s.to})
		}
	}
	return out
}

// field is an area in a turned frame: grown by the buffer, its holes shrunk by it.
type field struct {
	turn      geo.Turned
	outline   shape
	leaveOut  []shape
	forbidden []shape
}

func (a Area) turned(bearing, buffer float64) field {
	f := field{turn: geo.TurnedTo(bearing)}
	f.outline = turnedShape(f.turn, a.Outline, true, buffer)
	for _, h := range a.LeaveOut {
		f.leaveOut = append(f.leaveOut, turnedShape(f.turn, h, true, buffer))
	}
	for _, n := range a.Forbidden {
		f.forbidden = append(f.forbidden, turnedShape(f.turn, n.Places, n.Area, n.BufferM))
	}
	return f
}

// at is where the line at y is flown: inside the grown outline, outside of what is left
// of the holes, and clear of what is forbidden.
func (f field) at(y float64) []span {
	wanted := union(f.outline.near(y, f.outline.inside(y, nil)))
	for _, h := range f.leaveOut {
		if y < h.low || y > h.high {
			continue
		}
		if in := h.inside(y, nil); len(in) > 0 { // what of the hole is not near its side
			wanted = without(wanted, without(union(in), union(h.near(y, nil))))
		}
	}
	var taken []span
	for _, n := range f.forbidden {
		if y >= n.low && y <= n.high {
			taken = n.near(y, n.inside(y, taken))
		}
	}
	return without(wanted, union(taken))
}
