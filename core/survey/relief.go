package survey

import (
	"math"

	"mainstay/core/geo"
	"mainstay/core/home"
)

// MostReliefM is how much the ground may differ under what is flown at one height,
// m (usual practice).
const MostReliefM = 30.0

// MostParts is how many parts a survey is split into; rougher ground is followed.
const MostParts = 60

// leastStep is the length of a station along the lines, in pictures and m.
const (
	stepPictures = 4
	leastStepM   = 40.0
)

// relief is the ground under a hatch, by line and station along it.
type relief struct {
	turn       geo.Turned
	x0, y0     float64 // of the first station and line strip
	step, wide float64
	rows, cols int
	low, high  []float64 // of the ground, +Inf and -Inf where none is known
	flown      []bool
	lines      []int // number of the line of each row
}

// reliefUnder looks at the ground under a hatch once for every cell of the terrain.
func reliefUnder(h Hatch, t *home.Terrain) *relief {
	r := &relief{turn: geo.TurnedTo(h.BearingDeg), step: max(stepPictures*h.PicturesM, leastStepM), wide: h.SpacingM,
		x0: math.Inf(1)}
	x1, y := math.Inf(-1), 0.0
	first, last := math.MaxInt, -1
	for _, p := range h.Pieces {
		a, b := r.turn.To(p.From), r.turn.To(p.To)
		r.x0, x1 = min(r.x0, a.X, b.X), max(x1, a.X, b.X)
		if p.Line < first {
			first, y = p.Line, a.Y
		}
		last = max(last, p.Line)
	}
	if last < 0 {
		return r
	}
	r.y0 = y - h.SpacingM/2
	r.rows, r.cols = last-first+1, max(1, int(math.Ceil((x1-r.x0)/r.step-1e-9)))
	n := r.rows * r.cols
	r.low, r.high, r.flown = make([]float64, n), make([]float64, n), make([]bool, n)
	for i := range n {
		r.low[i], r.high[i] = math.Inf(1), math.Inf(-1)
	}
	for i := range r.rows {
		r.lines = append(r.lines, first+i)
	}
	for _, p := range h.Pieces {
		from, to := r.columns(p)
		for c := from; c <= to; c++ {
			r.flown[(p.Line-first)*r.cols+c] = true
		}
	}
	r.fill(t)
	return r
}

// columns are the first and last station that a piece touches.
func (r *relief) columns(p Piece) (from, to int) {
	a, b := r.turn.To(p.From).X, r.turn.To(p.To).X
	at := func(x float64) int { return min(max(0, int((x-r.x0)/r.step)), r.cols-1) }
	return at(min(a, b) + 1e-9), at(max(a, b) - 1e-9)
}

// fill puts every cell of the terrain into the station it lies in; a station that no cell
// lies in takes the cells at its corners and middle.
func (r *relief) fill(t *home.Terrain) {
	if t == nil {
		return
	}
	for row := range t.Rows {
		p := geo.XY{X: t.Origin.X, Y: t.Origin.Y + float64(row)*t.CellM}
		q := r.turn.To(p)
		for col := range t.Columns {
			x, y := q.X+float64(col)*t.CellM*r.turn.Along.X, q.Y+float64(col)*t.CellM*r.turn.Right.X
			if x < r.x0 || y < r.y0 {
				continue
			}
			c, l := int((x-r.x0)/r.step), int((y-r.y0)/r.wide)
			if c >= r.cols || l >= r.rows {
				continue
			}
			r.take(l*r.cols+c, float64(t.Heights[row*t.Columns+col]))
		}
	}
	for l := range r.rows {
		for c := range r.cols {
			i := l*r.cols + c
			if !r.flown[i] {
				continue
			}
			for _, k := range [5][2]float64{{0, 0}, {1, 0}, {0, 1}, {1, 1}, {0.5, 0.5}} {
				at := r.turn.From(geo.XY{X: r.x0 + (float64(c)+k[0])*r.step, Y: r.y0 + (float64(l)+k[1])*r.wide})
				if v, ok := t.At(at); ok {
					r.take(i, v)
				}
			}
		}
	}
}

func (r *relief) take(i int, v float64) {
	if v == v {
		r.low[i], r.high[i] = min(r.low[i], v), max(r.high[i], v)
	}
}

// block is a rectangle of lines and stations, the ends not in it.
type block struct{ r0, r1, c0, c1 int }

// heights are the lowest and highest ground under what is flown of a block; known is
// false where the terrain has none under a station.
func (r *relief) heights(b block) (low, high float64, known bool) {
	low, high, known = math.Inf(1), math.Inf(-1), true
	for l := b.r0; l < b.r1; l++ {
		for c := b.c0; c < b.c1; c++ {
			i := l*r.cols + c
			if !r.flown[i] {
				continue
			}
			known = known && r.high[i] >= r.low[i]
			low, high = min(low, r.low[i]), max(high, r.high[i])
		}
	}
	return low, high, known && high >= low
}

// split cuts a block until the ground under each part differs by most at most; ok is
// false where one station alone differs by more, or where that takes too many parts.
func (r *relief) split(most float64) (parts []block, ok bool) {
	ok = true
	open := []block{{0, r.rows, 0, r.cols}}
	for len(open) > 0 {
		b := open[len(open)-1]
		open = open[:len(open)-1]
		low, high, _ := r.heights(b)
		switch {
		case math.IsInf(low, 1) && !r.any(b):
			continue
		case !(high-low > most):
			parts = append(parts, b)
			continue
		case b.r1-b.r0 == 1 && b.c1-b.c0 == 1 || len(parts)+len(open) >= MostParts:
			parts, ok = append(parts, b), false
			continue
		}
		one, two := r.cut(b)
		open = append(open, two, one) // the first is looked at first: parts stay in order
	}
	return parts, ok
}

func (r *relief) any(b block) bool {
	for l := b.r0; l < b.r1; l++ {
		for c := b.c0; c < b.c1; c++ {
			if r.flown[l*r.cols+c] {
				return true
			}
		}
	}
	return false
}

// acrossCosts is how much better a cut across the lines must be than one between them:
// every line that it cuts is turned at once more.
const acrossCosts = 1.15

// worthIt is the share of the relief under which a cut counts as one that helps; where
// none does, as on a saddle, a block is cut in its middle.
const worthIt = 0.85

// cut halves a block where the relief of both halves, weighed by their size, is least.
func (r *relief) cut(b block) (one, two block) {
	low, high, _ := r.heights(b)
	best := worthIt * (high - low)
	if rows, cols := b.r1-b.r0, b.c1-b.c0; cols == 1 || rows > 1 && float64(rows)*r.wide >= float64(cols)*r.step {
		one, two = block{b.r0, b.r0 + rows/2, b.c0, b.c1}, block{b.r0 + rows/2, b.r1, b.c0, b.c1}
	} else {
		one, two = block{b.r0, b.r1, b.c0, b.c0 + cols/2}, block{b.r0, b.r1, b.c0 + cols/2, b.c1}
	}
	try := func(n int, ranges func(k int) (low, high float64), halves func(k int) (block, block), weight float64) {
		lowTo, highTo := make([]float64, n), make([]float64, n)
		lo, hi := math.Inf(1), math.Inf(-1)
		for k := range n {
			l, h := ranges(k)
			lo, hi = min(lo, l), max(hi, h)
			lowTo[k], highTo[k] = lo, hi
		}
		lo, hi = math.Inf(1), math.Inf(-1)
		for k := n - 1; k > 0; k-- {
			l, h := ranges(k)
			lo, hi = min(lo, l), max(hi, h)
			share := float64(k) / float64(n)
			cost := (max(highTo[k-1]-lowTo[k-1], 0)*share + max(hi-lo, 0)*(1-share)) * weight
			cost += 1e-6 * math.Abs(float64(2*k-n)) // of equals, the more even one
			if cost < best {
				best = cost
				one, two = halves(k)
			}
		}
	}
	try(b.r1-b.r0, func(k int) (float64, float64) {
		l, h, _ := r.heights(block{b.r0 + k, b.r0 + k + 1, b.c0, b.c1})
		return l, h
	}, func(k int) (block, block) {
		return block{b.r0, b.r0 + k, b.c0, b.c1}, block{b.r0 + k, b.r1, b.c0, b.c1}
	}, 1)
	try(b.c1-b.c0, func(k int) (float64, float64) {
		l, h, _ := r.heights(block{b.r0, b.r1, b.c0 + k, b.c0 + k + 1})
		return l, h
	}, func(k int) (block, block) {
		return block{b.r0, b.r1, b.c0, b.c0 + k}, block{b.r0, b.r1, b.c0 + k, b.c1}
	}, acrossCosts)
	return one, two
}

// within are the pieces of a hatch that lie in a block, cut at its ends.
func (r *relief) within(h Hatch, b block) []Piece {
	from, to := r.x0+float64(b.c0)*r.step, r.x0+float64(b.c1)*r.step
	var out []Piece
	for _, p := range h.Pieces {
		row := p.Line - r.lines[0]
		if row < b.r0 || row >= b.r1 {
			continue
		}
		a, z := r.turn.To(p.From), r.turn.To(p.To)
		lo, hi := max(min(a.X, z.X), from), min(max(a.X, z.X), to)
		if hi-lo < ShortestPiece {
			continue
		}
		n, err := Pictures(hi-lo, h.PicturesM)
		if err != nil {
			continue // the spacing was held when the hatch was made
		}
		out = append(out, Piece{Line: p.Line, From: r.turn.From(geo.XY{X: lo, Y: a.Y}),
			To: r.turn.From(geo.XY{X: hi, Y: a.Y}), Pictures: n})
	}
	return out
}
