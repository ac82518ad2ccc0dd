package spray

import (
	"math"
	"slices"

	"mainstay/core/geo"
)

// ShortestPass is the least that a nozzle is opened for, m.
const ShortestPass = 1.0

// Pass is one straight line over the field, and where along it is sprayed.
type Pass struct {
	Strip    int      `json:"strip"` // strips are counted from one side of the field; edge passes follow
	From     geo.XY   `json:"from"`
	To       geo.XY   `json:"to"`
	Edge     bool     `json:"edge"`     // along an edge, for what the others do not reach
	Area     float64  `json:"area_m2"`  // that is sprayed
	Sections [][]Open `json:"sections"` // of each section, left to right as seen from From
}

// Open is a stretch along a pass where a section sprays, m from From.
type Open struct {
	From float64 `json:"from"`
	To   float64 `json:"to"`
}

// Length is the length of a pass, m.
func (p Pass) Length() float64 { return geo.Dist(p.From, p.To) }

// Pattern is how a field is covered.
type Pattern struct {
	BearingDeg float64 // of the strips, true
	SwathM     float64
	Sections   int  // parts of the swath that are switched alone, 1-16
	Edges      bool // a pass along the edges for what the strips do not reach
}

// Cover is a field covered by passes.
type Cover struct {
	Pattern
	Passes   []Pass  `json:"passes"`
	AreaM2   float64 `json:"area_m2"`   // that may be sprayed, inside the edge and the buffers
	OnceM2   float64 `json:"once_m2"`   // of it, sprayed
	TwiceM2  float64 `json:"twice_m2"`  // sprayed twice or more
	OpenedM2 float64 `json:"opened_m2"` // sum over passes: what product is needed for

	t      *turned
	strips []strip
	edges  []edgeStrip
}

// strip is one swath of the field in the turned frame.
type strip struct {
	y0, y1 float64
	open   [][]span // by section
}

type edgeStrip struct {
	t *turned
	strip
}

// Passes covers a field with strips one swath wide. The first lies with half a
// swath inside the field, the last flush with the other side. A section is open
// only where its whole width may be sprayed, so that nothing else ever is; every
// place that is farther than a section's width from any edge or buffer is reached.
// What the strips leave at slanting edges, passes along the edges take when they
// are wanted. Errors wrap ErrInput; a field of which nothing is left is no error
// but a Cover without passes.
func (f Field) Passes(p Pattern) (*Cover, error) {
	if err := f.Check(); err != nil {
		return nil, err
	}
	for _, e := range []error{within("bearing", p.BearingDeg, 0, 360), within("swath", p.SwathM, 0.2, MostSwath),
		within("sections", float64(p.Sections), 1, 16)} {
		if e != nil {
			return nil, e
		}
	}
	c := &Cover{Pattern: p, t: f.turn(p.BearingDeg, p.SwathM)}
	c.hatch()
	c.measure()
	if p.Edges {
		c.alongEdges(f)
	}
	for _, x := range c.Passes {
		c.OpenedM2 += x.Area
	}
	c.TwiceM2 = max(0, c.OpenedM2-c.OnceM2)
	return c, nil
}

// hatch lays the strips and makes passes of them.
func (c *Cover) hatch() {
	t, w := c.t, c.SwathM
	high := t.high - t.low
	if high < w*1e-3 {
		return
	}
	n := max(1, whole(high, w))
	for k := range n {
		y0 := t.low + float64(k)*w
		if k > 0 && k == n-1 {
			y0 = t.high - w // flush with the far side
		}
		s := strip{y0, y0 + w, sections(t, y0, w, c.Sections)}
		c.strips = append(c.strips, s)
		for _, piece := range pieces(s.open) {
			c.Passes = append(c.Passes, s.pass(t, piece, k))
		}
	}
}

// sections are the open stretches of every section of a strip.
func sections(t *turned, y0, width float64, n int) [][]span {
	out := make([][]span, n)
	w := width / float64(n)
	for i := range n {
		for _, s := range t.free(y0+float64(i)*w, y0+float64(i+1)*w) {
			if s.long() >= ShortestPass {
				out[i] = append(out[i], s)
			}
		}
	}
	return out
}

// pieces are the stretches of a strip in which any section is open.
func pieces(open [][]span) []span {
	var all []span
	for _, s := range open {
		all = append(all, s...)
	}
	return union(all)
}

func union(all []span) []span {
	slices.SortFunc(all, func(a, b span) int {
		if a.from < b.from {
			return -1
		}
		return 1
	})
	var out []span
	for _, s := range all {
		if n := len(out); n > 0 && s.from <= out[n-1].to {
			out[n-1].to = max(out[n-1].to, s.to)
			continue
		}
		out = append(out, s)
	}
	return out
}

// pass is one piece of a strip as it is flown.
func (s strip) pass(t *turned, piece span, k int) Pass {
	y := (s.y0 + s.y1) / 2
	p := Pass{Strip: k, From: t.From(geo.XY{X: piece.from, Y: y}), To: t.From(geo.XY{X: piece.to, Y: y}),
		Sections: make([][]Open, len(s.open))}
	w := (s.y1 - s.y0) / float64(len(s.open))
	for i, open := range s.open {
		for _, o := range open {
			if o.from >= piece.from-1e-9 && o.to <= piece.to+1e-9 {
				p.Sections[i] = append(p.Sections[i], Open{o.from - piece.from, o.to - piece.from})
				p.Area += o.long() * w
			}
		}
	}
	return p
}

// lines is how many lines of a swath the areas are measured along.
const lines = 16

// measure finds how much may be sprayed, and how much the strips reach.
func (c *Cover) measure() {
	t := c.t
	if len(c.strips) == 0 {
		return
	}
	n := max(lines, int(math.Round((t.high-t.low)/c.SwathM*lines)))
	step := (t.high - t.low) / float64(n)
	for i := range n {
		y := t.low + (float64(i)+0.5)*step
		for _, s := range t.free(y, y) {
			c.AreaM2 += s.long() * step
		}
		for _, s := range c.openAt(y) {
			c.OnceM2 += s.long() * step
		}
	}
}

// openAt is where the strips spray along a line.
func (c *Cover) openAt(y float64) []span {
	var all []span
	for _, i := range c.at(y) {
		s := c.strips[i]
		w := (s.y1 - s.y0) / float64(len(s.open))
		all = append(all, s.open[min(len(s.open)-1, int((y-s.y0)/w))]...)
	}
	return union(all)
}

// at are the strips that hold a y: one, or two where the last overlaps.
func (c *Cover) at(y float64) []int {
	var out []int
	last := len(c.strips) - 1
	k := int(math.Floor((y - c.t.low) / c.SwathM))
	for _, i := range []int{k, last} {
		if i >= 0 && i <= last && y >= c.strips[i].y0 && y <= c.strips[i].y1 && (len(out) == 0 || out[0] != i) {
			out = append(out, i)
		}
	}
	return out
}

// Reaches reports whether a place is sprayed, and how often.
func (c *Cover) Reaches(p geo.XY) (times int) {
	q := c.t.To(p)
	for _, i := range c.at(q.Y) {
		times += c.strips[i].over(q)
	}
	for _, e := range c.edges {
		times += e.over(e.t.To(p))
	}
	return times
}

func (s strip) over(q geo.XY) int {
	if q.Y < s.y0 || q.Y > s.y1 {
		return 0
	}
	w := (s.y1 - s.y0) / float64(len(s.open))
	for _, o := range s.open[min(len(s.open)-1, int((q.Y-s.y0)/w))] {
		if q.X >= o.from && q.X <= o.to {
			return 1
		}
	}
	return 0
}
