package home

import (
	"cmp"
	"math"
	"slices"

	"mainstay/core/geo"
	"mainstay/core/why"
)

// Under is the ground under a shape.
type Under struct {
	HighM float64 // highest elevation anywhere under it, as the terrain gives it
	LowM  float64 // lowest
	Known bool    // the terrain covers all of it
}

// UnderShape is the ground under a point, a line or the whole of an area grown
// by reach, m: the highest of every cell it touches, not of its corners. Known
// is false without terrain, in gaps, and where it reaches over the edge.
func (t *Terrain) UnderShape(kind Kind, places []geo.XY, reach float64) Under {
	if t == nil || len(places) == 0 {
		return Under{HighM: math.Inf(-1), LowM: math.Inf(1)}
	}
	var parts []triangle
	last := len(places) - 1
	for i := range places {
		switch {
		case last == 0:
			parts = append(parts, triangle{places[0], places[0], places[0]})
		case i < last:
			parts = append(parts, triangle{places[i], places[i+1], places[i+1]})
		case kind == AreaKind:
			parts = append(parts, triangle{places[last], places[0], places[0]})
		}
	}
	high, low, gaps := t.sweep(parts, reach)
	if kind == AreaKind {
		h, l, g := t.inside(geo.Ring(places))
		high, low, gaps = max(high, h), min(low, l), gaps+g
	}
	return Under{HighM: high, LowM: low, Known: gaps == 0 && !math.IsInf(high, -1)}
}

// inside is the highest and lowest of the cells whose centre lies in an
// outline, and how many of them are gaps.
func (t *Terrain) inside(r geo.Ring) (high, low float64, gaps int) {
	high, low = math.Inf(-1), math.Inf(1)
	lo, hi := bounds(r)
	first, last := max(0, int(math.Ceil((lo.Y-t.Origin.Y)/t.CellM))), min(t.Rows-1,
		int(math.Floor((hi.Y-t.Origin.Y)/t.CellM)))
	var xs []float64
	for row := first; row <= last; row++ {
		y := t.Origin.Y + float64(row)*t.CellM
		xs = xs[:0]
		for i, p := range r {
			if q := r[(i+1)%len(r)]; (p.Y > y) != (q.Y > y) {
				xs = append(xs, p.X+(y-p.Y)/(q.Y-p.Y)*(q.X-p.X))
			}
		}
		slices.SortFunc(xs, cmp.Compare[float64])
		for i := 0; i+1 < len(xs); i += 2 {
			from, to := max(0, int(math.Ceil((xs[i]-t.Origin.X)/t.CellM))), min(t.Columns-1,
				int(math.Floor((xs[i+1]-t.Origin.X)/t.CellM)))
			for col := from; col <= to; col++ {
				v := float64(t.Heights[row*t.Columns+col])
				if v != v {
					gaps++
					continue
				}
				high, low = max(high, v), min(low, v)
			}
		}
	}
	return high, low, gaps
}

// GroundLeg is how one leg of a path passes over the ground.
type GroundLeg struct {
	LowestM  float64 // least height over the ground, two standard deviations of the terrain off
	HighestM float64 // greatest height over the ground
	Known    bool    // the terrain covers all of it
}

// OverGround holds every leg of a path, widened by the position error, against
// the ground under it. Where the ground is not known a leg says so and counts
// from levelM. Errors wrap ErrInput.
func OverGround(path []Place3, terrain *Terrain, levelM, positionM float64) ([]GroundLeg, error) {
	if len(path) < 2 || !(positionM >= 0 && positionM <= 100) || !finite(levelM) {
		return nil, why.Not(ErrInput, "a path has at least two places")
	}
	if err := terrain.check(); err != nil {
		return nil, err
	}
	out := make([]GroundLeg, len(path)-1)
	for i := range out {
		a, b := path[i], path[i+1]
		if !finite(a.M) || !finite(b.M) {
			return nil, why.Not(ErrInput, "an elevation of the path is no number")
		}
		if err := geo.Finite(a.At, b.At); err != nil {
			return nil, why.Not(ErrInput, "%w", err)
		}
		u := terrain.UnderShape(LineKind, []geo.XY{a.At, b.At}, positionM)
		out[i] = GroundLeg{LowestM: min(a.M, b.M) - levelM, HighestM: max(a.M, b.M) - levelM, Known: u.Known}
		if math.IsInf(u.HighM, -1) {
			continue
		}
		sure := 2 * terrain.SigmaM
		if a.M == b.M {
			out[i].LowestM, out[i].HighestM = a.M-u.HighM-sure, a.M-u.LowM
			continue
		}
		// A sloping leg is cut into pieces no longer than a cell, each level at its lower end.
		out[i].LowestM, out[i].HighestM = math.Inf(1), math.Inf(-1)
		n := min(2000, max(1, int(math.Ceil(geo.Dist(a.At, b.At)/terrain.CellM))))
		for k := range n {
			s, e := float64(k)/float64(n), float64(k+1)/float64(n)
			p, q := a.At.Add(b.At.Sub(a.At).Times(s)), a.At.Add(b.At.Sub(a.At).Times(e))
			from, to := a.M+(b.M-a.M)*s, a.M+(b.M-a.M)*e
			if v := terrain.UnderShape(LineKind, []geo.XY{p, q}, positionM); !math.IsInf(v.HighM, -1) {
				out[i].LowestM, out[i].HighestM = min(out[i].LowestM, min(from, to)-v.HighM-sure), max(out[i].HighestM,
					max(from, to)-v.LowM)
			}
		}
	}
	return out, nil
}

// Following is a path at heightM over the ground: each leg is cut where the
// terrain changes, in pieces of at most a cell, so that it rises and falls with
// it. Where the ground is not known it counts from levelM. leg says which leg
// of the given places each piece belongs to.
func Following(places []geo.XY, terrain *Terrain, levelM, heightM float64) (path []Place3, leg []int) {
	at := func(p geo.XY) Place3 {
		g, ok := terrain.At(p)
		if !ok {
			g = levelM
		}
		return Place3{At: p, M: g + heightM}
	}
	for i := range places {
		if i == 0 {
			path = append(path, at(places[0]))
			continue
		}
		a, b, n := places[i-1], places[i], 1
		if terrain != nil {
			n = min(500, max(1, int(math.Ceil(geo.Dist(a, b)/terrain.CellM))))
		}
		for k := 1; k <= n; k++ {
			path, leg = append(path, at(a.Add(b.Sub(a).Times(float64(k)/float64(n))))), append(leg, i-1)
		}
	}
	return path, leg
}

// FanReaches reports whether the fan of straight ways home from every leg of a
// route comes within reach of an area, m. A fan that lies wholly in one of its
// holes does not.
func FanReaches(at geo.XY, route []geo.XY, a geo.Area, reach float64) bool {
	if len(route) == 0 || len(a.Outline) < 3 {
		return false
	}
	if FanMeetsRing(at, route, a.Outline, reach) {
		return true
	}
	for _, h := range a.Holes {
		if FanMeetsRing(at, route, h, reach) {
			return true
		}
	}
	if a.Holds(at) {
		return true
	}
	// The area may lie wholly inside the fan.
	for _, t := range triangles(at, route) {
		if math.Abs(geo.Ring(t[:]).Area()) > 1e-9 && t.holds(a.Outline[0]) {
			return true
		}
	}
	return false
}

// touchM is how near counts as touching: charts and arithmetic are no finer.
const touchM = 0.001

// FanMeetsRing reports whether the fan comes within reach of an outline itself.
func FanMeetsRing(at geo.XY, route []geo.XY, r geo.Ring, reach float64) bool {
	for _, t := range triangles(at, route) {
		for i := range r {
			for k := range t {
				if d, _ := geo.Segments(t[k], t[(k+1)%3], r[i], r[(i+1)%len(r)]); d <= reach+touchM {
					return true
				}
			}
		}
	}
	return false
}
