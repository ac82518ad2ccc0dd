package relief

import (
	"math"

	"mainstay/core/geo"
)

// Contour is a line of one elevation.
type Contour struct {
	M      float64
	Main   bool // every fifth
	Places []geo.XY
}

// Contours are lines of equal elevation, every Step metres, joined where they
// meet. They end at the edge and at gaps. Between four cells the elevation is taken
// to be linear along the sides; where two lines cross one square, the mean of its
// corners says which sides belong together.
func (g Ground) Contours() []Contour {
	out := []Contour{}
	if !(g.HighM > g.LowM) {
		return out
	}
	step := g.Step()
	for k := math.Ceil(g.LowM / step); k*step <= g.HighM; k++ {
		m := k * step
		for _, line := range g.level(m) {
			out = append(out, Contour{M: m, Main: math.Mod(math.Abs(k), 5) == 0, Places: line})
		}
	}
	return out
}

// edge is one side of a square between four cells: the one that leaves cell
// (c, r) to the east, or to the north.
type edge struct {
	c, r  int
	north bool
}

// level joins the pieces of one elevation.
func (g Ground) level(m float64) [][]geo.XY {
	next := map[edge][]edge{}
	join := func(a, b edge) { next[a], next[b] = append(next[a], b), append(next[b], a) }
	for r := range g.Rows - 1 {
		for c := range g.Columns - 1 {
			g.square(c, r, m, join)
		}
	}
	var lines [][]geo.XY
	walk := func(from edge) {
		line := []geo.XY{g.cross(from, m)}
		for at := from; len(next[at]) > 0; {
			to := next[at][0]
			cut(next, at, to)
			line = append(line, g.cross(to, m))
			at = to
		}
		lines = append(lines, line)
	}
	// Ends first, so that an open line is walked from one; then what is closed.
	for _, ends := range []bool{true, false} {
		for r := range g.Rows {
			for c := range g.Columns {
				for _, north := range []bool{false, true} {
					e := edge{c, r, north}
					if n := len(next[e]); n == 1 || !ends && n > 0 {
						walk(e)
					}
				}
			}
		}
	}
	return lines
}

// square finds which sides of one square a level crosses, and which belong together.
func (g Ground) square(c, r int, m float64, join func(a, b edge)) {
	sw, se, ne, nw := g.at(c, r), g.at(c+1, r), g.at(c+1, r+1), g.at(c, r+1)
	if math.IsNaN(sw + se + ne + nw) {
		return
	}
	up := func(v float64) bool { return v >= m }
	south, east, north, west := edge{c, r, false}, edge{c + 1, r, true}, edge{c, r + 1, false}, edge{c, r, true}
	var sides []edge
	for _, s := range []struct {
		e    edge
		a, b float64
	}{{south, sw, se}, {east, se, ne}, {north, nw, ne}, {west, sw, nw}} {
		if up(s.a) != up(s.b) {
			sides = append(sides, s.e)
		}
	}
	switch {
	case len(sides) == 2:
		join(sides[0], sides[1])
	case len(sides) == 4 && up((sw+se+ne+nw)/4) == up(sw):
		join(south, east)
		join(north, west)
	case len(sides) == 4:
		join(south, west)
		join(north, east)
	}
}

// cross is where a level crosses a side.
func (g Ground) cross(e edge, m float64) geo.XY {
	c, r := e.c+1, e.r
	if e.north {
		c, r = e.c, e.r+1
	}
	a, b := g.at(e.c, e.r), g.at(c, r)
	from, to := g.place(e.c, e.r), g.place(c, r)
	return from.Add(to.Sub(from).Times((m - a) / (b - a)))
}

func cut(next map[edge][]edge, a, b edge) {
	drop := func(from, to edge) {
		list := next[from]
		for i, e := range list {
			if e == to {
				next[from] = append(list[:i:i], list[i+1:]...)
				return
			}
		}
	}
	drop(a, b)
	drop(b, a)
}
