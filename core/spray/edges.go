package spray

import (
	"math"

	"mainstay/core/geo"
)

// Sides that get a pass of their own: at least so many swaths long, and so far from
// the direction of the strips.
const (
	leastSwaths  = 2.0
	leastDegrees = 2.0
	edgeSamples  = 4 // across a swath; along it they lie as close
)

// alongEdges adds passes along long sides of the outline and of keep-outs, where
// something is left that the strips do not reach.
func (c *Cover) alongEdges(f Field) {
	c.edgesOf(f, f.Outline, f.EdgeM, f.Outline.Area() > 0)
	for _, k := range f.KeepOuts {
		if k.Area {
			c.edgesOf(f, k.Places, k.BufferM, geo.Ring(k.Places).Area() < 0)
		}
	}
}

// edgesOf adds the passes along one outline; left says that what is sprayed lies to
// the left of its sides.
func (c *Cover) edgesOf(f Field, ring geo.Ring, buffer float64, left bool) {
	for i := range ring {
		a, b := ring[i], ring[(i+1)%len(ring)]
		d := b.Sub(a)
		if d.Len() < leastSwaths*c.SwathM {
			continue
		}
		bearing := math.Mod(math.Atan2(d.X, d.Y)*180/math.Pi+360, 360)
		if off := math.Mod(math.Abs(bearing-c.BearingDeg), 180); min(off, 180-off) < leastDegrees {
			continue
		}
		t := f.turn(bearing, c.SwathM)
		from, to := t.To(a), t.To(b)
		y0 := from.Y + buffer // the right of the side has the greater y
		if left {
			y0 = from.Y - buffer - c.SwathM
		}
		c.edge(t, y0, span{min(from.X, to.X) - c.SwathM, max(from.X, to.X) + c.SwathM})
	}
}

// edge adds the passes along one side: the stretches in which something is left.
func (c *Cover) edge(t *turned, y0 float64, near span) {
	w := c.SwathM
	s := strip{y0, y0 + w, sections(t, y0, w, c.Sections)}
	cell := w / edgeSamples
	var wanted []span
	for i := range edgeSamples {
		y := y0 + (float64(i)+0.5)*cell
		for _, free := range t.free(y, y) {
			for x := max(free.from, near.from) + cell/2; x < min(free.to, near.to); x += cell {
				if c.Reaches(t.From(geo.XY{X: x, Y: y})) == 0 {
					wanted = append(wanted, span{x - w, x + w})
				}
			}
		}
	}
	wanted = union(wanted)
	for i, open := range s.open {
		s.open[i] = nil
		for _, o := range open {
			for _, n := range wanted {
				if cut := (span{max(o.from, n.from), min(o.to, n.to)}); cut.long() >= ShortestPass {
					s.open[i] = append(s.open[i], cut)
				}
			}
		}
	}
	k := len(c.strips) + len(c.edges)
	fresh := 0.0
	for i := range edgeSamples {
		y := y0 + (float64(i)+0.5)*cell
		for _, o := range s.open[min(len(s.open)-1, int((y-y0)/w*float64(len(s.open))))] {
			for x := o.from + cell/2; x < o.to; x += cell {
				if c.Reaches(t.From(geo.XY{X: x, Y: y})) == 0 {
					fresh += cell * cell
				}
			}
		}
	}
	found := pieces(s.open)
	if fresh == 0 || len(found) == 0 {
		return
	}
	for _, piece := range found {
		p := s.pass(t, piece, k)
		p.Edge = true
		c.Passes = append(c.Passes, p)
	}
	c.OnceM2 = min(c.OnceM2+fresh, c.AreaM2)
	c.edges = append(c.edges, edgeStrip{t, s})
}
