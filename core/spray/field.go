package spray

import (
	"cmp"
	"errors"
	"math"
	"slices"

	"mainstay/core/geo"
)

// KeepOut is something in or at a field that is not sprayed over: a pond, a
// house, a pole, a line of trees. One place, a line, or an outline.
type KeepOut struct {
	Name    string
	Places  []geo.XY
	Area    bool // the places are an outline
	BufferM float64
}

// Field is where is sprayed.
type Field struct {
	Outline  geo.Ring
	KeepOuts []KeepOut
	EdgeM    float64 // kept free along the outline, inside
}

// Bounds of a field.
const (
	MostKeepOuts = 2000
	MostBuffer   = 500.0
	MostExtent   = 20_000.0 // m
)

// Check refuses a field that cannot be sprayed.
func (f Field) Check() error {
	if err := f.Outline.Check(); err != nil {
		return errors.Join(ErrInput, err)
	}
	if len(f.KeepOuts) > MostKeepOuts {
		return refuse("%d keep-outs; %d are taken", len(f.KeepOuts), MostKeepOuts)
	}
	lo, hi := extent(f.Outline)
	if hi.X-lo.X > MostExtent || hi.Y-lo.Y > MostExtent {
		return refuse("the field is over %.0f km wide", MostExtent/1000)
	}
	for _, k := range f.KeepOuts {
		if len(k.Places) == 0 {
			return refuse("%s has no place", k.Name)
		}
		if err := geo.Finite(k.Places...); err != nil {
			return errors.Join(ErrInput, err)
		}
		if k.Area {
			if err := geo.Ring(k.Places).Check(); err != nil {
				return errors.Join(ErrInput, err)
			}
		}
		if err := within("the buffer of "+k.Name, k.BufferM, 0, MostBuffer); err != nil {
			return err
		}
	}
	return within("the edge", f.EdgeM, 0, MostBuffer)
}

func extent(ps []geo.XY) (lo, hi geo.XY) {
	lo, hi = geo.XY{X: math.Inf(1), Y: math.Inf(1)}, geo.XY{X: math.Inf(-1), Y: math.Inf(-1)}
	for _, p := range ps {
		lo = geo.XY{X: min(lo.X, p.X), Y: min(lo.Y, p.Y)}
		hi = geo.XY{X: max(hi.X, p.X), Y: max(hi.Y, p.Y)}
	}
	return lo, hi
}

// Holds reports whether a place may be sprayed: inside, off the edge, and clear of
// what is kept out.
func (f Field) Holds(p geo.XY) bool {
	if !f.Outline.Holds(p) || f.Outline.ToEdge(p) < f.EdgeM {
		return false
	}
	for _, k := range f.KeepOuts {
		if k.near(p) {
			return false
		}
	}
	return true
}

func (k KeepOut) near(p geo.XY) bool {
	if k.Area {
		r := geo.Ring(k.Places)
		return r.Holds(p) || r.ToEdge(p) < k.BufferM
	}
	for i := range max(1, len(k.Places)-1) {
		q, _ := geo.Nearest(p, k.Places[i], k.Places[min(i+1, len(k.Places)-1)])
		if geo.Dist(p, q) < k.BufferM {
			return true
		}
	}
	return false
}

// side is a side of an outline or a line, with what is kept clear on both of its
// sides; ring says which outline it belongs to, -1 to none.
type side struct {
	a, b   geo.XY
	buffer float64
	ring   int
}

// span is a stretch along a strip, from <= to.
type span struct{ from, to float64 }

func (s span) long() float64 { return s.to - s.from }

// turned is a field seen along a direction: x runs along the strips.
type turned struct {
	geo.Turned
	sides     []side
	rings     int
	low, high float64 // y between which is sprayed
	bands     [][]int32
	band      float64
}

// turn looks at a field along a bearing, degrees true, for strips of a width.
func (f Field) turn(bearing, width float64) *turned {
	t := &turned{Turned: geo.TurnedTo(bearing), low: math.Inf(1), high: math.Inf(-1), band: width}
	ring := func(ps []geo.XY, buffer float64) {
		for i := range ps {
			t.sides = append(t.sides, side{t.To(ps[i]), t.To(ps[(i+1)%len(ps)]), buffer, t.rings})
		}
		t.rings++
	}
	ring(f.Outline, f.EdgeM)
	for _, s := range t.sides {
		t.low, t.high = min(t.low, s.a.Y), max(t.high, s.a.Y)
	}
	t.low, t.high = t.low+f.EdgeM, t.high-f.EdgeM
	for _, k := range f.KeepOuts {
		if k.Area {
			ring(k.Places, k.BufferM)
			continue
		}
		for i := range max(1, len(k.Places)-1) {
			t.sides = append(t.sides, side{t.To(k.Places[i]), t.To(k.Places[min(i+1, len(k.Places)-1)]), k.BufferM, -1})
		}
	}
	t.sort()
	return t
}

// sort puts every side into the bands of y that it or its buffer touches, so that a
// strip looks only at what is near.
func (t *turned) sort() {
	n := max(1, int(math.Ceil((t.high-t.low)/t.band))+2)
	t.bands = make([][]int32, n)
	for i, s := range t.sides {
		lo, hi := t.at(min(s.a.Y, s.b.Y)-s.buffer), t.at(max(s.a.Y, s.b.Y)+s.buffer)
		for b := lo; b <= hi; b++ {
			t.bands[b] = append(t.bands[b], int32(i))
		}
	}
}

func (t *turned) at(y float64) int {
	return min(max(int(math.Floor((y-t.low)/t.band))+1, 0), len(t.bands)-1)
}

// free is where the whole width from y0 to y1 may be sprayed: the stretches that no
// side comes near and that lie inside the outline and outside of every keep-out.
func (t *turned) free(y0, y1 float64) []span {
	var blocked []span
	var crossings []crossing
	middle := (y0 + y1) / 2
	for b := t.at(y0); b <= t.at(y1); b++ {
		for _, i := range t.bands[b] {
			s := &t.sides[i]
			if b > t.at(y0) && t.at(min(s.a.Y, s.b.Y)-s.buffer) < b {
				continue // seen in the band below
			}
			if lo, hi, ok := s.over(y0, y1); ok {
				blocked = append(blocked, span{lo, hi})
			}
			if s.ring >= 0 && (s.a.Y > middle) != (s.b.Y > middle) {
				x := s.a.X + (middle-s.a.Y)/(s.b.Y-s.a.Y)*(s.b.X-s.a.X)
				crossings = append(crossings, crossing{x, s.ring})
			}
		}
	}
	slices.SortFunc(blocked, func(a, b span) int { return cmp.Compare(a.from, b.from) })
	slices.SortFunc(crossings, func(a, b crossing) int { return cmp.Compare(a.x, b.x) })
	var out []span
	inside := newInside(t.rings, crossings)
	for i := 0; i < len(blocked); {
		end := blocked[i].to
		for i++; i < len(blocked) && blocked[i].from <= end; i++ {
			end = max(end, blocked[i].to)
		}
		if i < len(blocked) && inside.at((end+blocked[i].from)/2) {
			out = append(out, span{end, blocked[i].from})
		}
	}
	return out
}

// crossing is where the middle of a strip crosses an outline.
type crossing struct {
	x    float64
	ring int
}

// inside walks along a strip and knows which outlines it is in.
type inside struct {
	crossings []crossing
	next      int
	in        []bool
	holes     int
}

func newInside(rings int, crossings []crossing) *inside {
	return &inside{crossings: crossings, in: make([]bool, rings)}
}

// at reports whether x lies in the outline and in no keep-out; x only grows.
func (w *inside) at(x float64) bool {
	for ; w.next < len(w.crossings) && w.crossings[w.next].x < x; w.next++ {
		r := w.crossings[w.next].ring
		w.in[r] = !w.in[r]
		if r > 0 {
			if w.in[r] {
				w.holes++
			} else {
				w.holes--
			}
		}
	}
	return w.in[0] && w.holes == 0
}

// touch is how near sides may come to the rim of a strip, m: less than any instrument
// shows, more than arithmetic loses.
const touch = 1e-6

// over is the stretch of x in which a side or its buffer reaches into y0..y1: the
// ends of a capsule, which is convex, cut by the strip.
func (s *side) over(y0, y1 float64) (lo, hi float64, ok bool) {
	b := s.buffer
	if max(s.a.Y, s.b.Y)+b <= y0+touch || min(s.a.Y, s.b.Y)-b >= y1-touch {
		return 0, 0, false // a side along the rim of a strip is not in it
	}
	lo, hi = math.Inf(1), math.Inf(-1)
	try := func(x, y float64) {
		d := max(0, y0-y, y-y1)
		if d > b+touch {
			return
		}
		reach := math.Sqrt(max(0, b*b-d*d))
		lo, hi = min(lo, x-reach), max(hi, x+reach)
	}
	try(s.a.X, s.a.Y)
	try(s.b.X, s.b.Y)
	dx, dy := s.b.X-s.a.X, s.b.Y-s.a.Y
	if dy != 0 {
		tangent := b * math.Abs(dx) / math.Hypot(dx, dy)
		for _, y := range [...]float64{y0, y1, y0 - b, y1 + b, y0 - tangent, y1 + tangent} {
			if t := (y - s.a.Y) / dy; t > 0 && t < 1 {
				try(s.a.X+t*dx, y)
			}
		}
	}
	return lo, hi, hi >= lo
}
