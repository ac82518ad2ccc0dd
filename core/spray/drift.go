package spray

import (
	"math"

	"mainstay/core/geo"
)

// Drift is judged with these (usual practice; a label wins).
const (
	SectorHalf   = 22.5 // degrees to both sides of the wind
	AllRoundMS   = 2.0  // under this mean wind drift may go anywhere
	UsualBufferM = 30.0 // downwind to what is sensitive, where no label says
)

// Sensitive is what drift must not reach: one place, a line, or an outline.
type Sensitive struct {
	ID     string
	Name   string
	Places []geo.XY
	Area   bool
}

// Blow is the wind as drift follows it, at the height of the nozzles.
type Blow struct {
	MeanMS  float64
	FromDeg *float64 // nil: not known, or all round
	// VariesFrom and VariesTo bound a reported variable range, clockwise; nil: none.
	VariesFrom, VariesTo *float64
}

// Sector is the range of directions that drift goes to: from, clockwise over width
// degrees, true. All round is 360: with a direction that is not known or a wind
// under 2 m/s, and where it varies so far. It is the wind and 22.5 degrees to both
// sides, and the whole reported range where that reaches further.
func (b Blow) Sector() (from, width float64) {
	if b.FromDeg == nil || !(b.MeanMS >= AllRoundMS) || math.IsNaN(*b.FromDeg) {
		return 0, 360
	}
	lo, hi := -SectorHalf, SectorHalf // from the mean
	if b.VariesFrom != nil && b.VariesTo != nil {
		across := clockwise(*b.VariesFrom, *b.VariesTo)
		back := clockwise(*b.VariesFrom, *b.FromDeg)
		if !(back <= across) { // the mean lies outside of its own range: nothing is sure
			return 0, 360
		}
		lo, hi = min(lo, -back), max(hi, across-back)
	}
	if hi-lo >= 360 {
		return 0, 360
	}
	return math.Mod(*b.FromDeg+180+lo+720, 360), hi - lo
}

// clockwise is the turn from one direction to another, 0 to under 360 degrees.
func clockwise(from, to float64) float64 { return math.Mod(math.Mod(to-from, 360)+360, 360) }

// Reaches reports whether drift from a pass, half a swath to both sides of it, may
// come to a place nearer than a distance, m, and how near it lies.
//
// What matters is the vector from any place of the pass to any place of what is
// sensitive. For one side of an outline these fill a convex polygon; the nearest of
// them in the sector lies on a line between two of its corners.
func (b Blow) Reaches(from, to geo.XY, swath float64, s Sensitive, within float64) (nearest float64, ok bool) {
	start, width := b.Sector()
	if s.Area && geo.Ring(s.Places).Holds(from) {
		return 0, true
	}
	across := geo.XY{}
	if d := to.Sub(from); d.Len() > 0 {
		across = geo.XY{X: d.Y, Y: -d.X}.Times(swath / 2 / d.Len())
	}
	pass := []geo.XY{from.Add(across), from.Sub(across), to.Add(across), to.Sub(across)}
	nearest = math.Inf(1)
	n := len(s.Places)
	sides := max(1, n-1)
	if s.Area {
		sides = n
	}
	for i := range sides {
		var corners []geo.XY
		for _, p := range pass {
			corners = append(corners, s.Places[i].Sub(p), s.Places[(i+1)%n].Sub(p))
		}
		if r := geo.Hull(corners); len(r) > 2 && r.Holds(geo.XY{}) {
			return 0, true
		}
		for j := range corners {
			for k := range j {
				nearest = min(nearest, inSector(geo.XY{}, corners[k], corners[j], start, width))
			}
		}
	}
	return nearest, nearest < within
}

// inSector is the distance from p to the nearest place of the segment a-b that lies
// in the sector as seen from p.
func inSector(p, a, b geo.XY, start, width float64) float64 {
	q, _ := geo.Nearest(p, a, b)
	if holds(p, q, start, width) {
		return geo.Dist(p, q)
	}
	// The nearest lies outside: then it is where the segment leaves the sector, or an end.
	d := math.Inf(1)
	for _, e := range []geo.XY{a, b} {
		if holds(p, e, start, width) {
			d = min(d, geo.Dist(p, e))
		}
	}
	if width < 360 {
		for _, edge := range []float64{start, start + width} {
			if x, ok := rayMeets(p, edge, a, b); ok {
				d = min(d, geo.Dist(p, x))
			}
		}
	}
	return d
}

func holds(p, q geo.XY, start, width float64) bool {
	return width >= 360 || geo.Dist(p, q) == 0 || clockwise(start, bearing(p, q)) <= width+1e-9
}

// rayMeets is where the ray from p on a bearing meets the segment a-b.
func rayMeets(p geo.XY, deg float64, a, b geo.XY) (geo.XY, bool) {
	sin, cos := math.Sincos(deg * math.Pi / 180)
	d, e := geo.XY{X: sin, Y: cos}, b.Sub(a)
	den := d.X*e.Y - d.Y*e.X
	if math.Abs(den) < 1e-12 {
		return geo.XY{}, false
	}
	f := a.Sub(p)
	t, u := (f.X*e.Y-f.Y*e.X)/den, (f.X*d.Y-f.Y*d.X)/den
	if t < 0 || u < 0 || u > 1 {
		return geo.XY{}, false
	}
	return p.Add(d.Times(t)), true
}

// Waits is a pass that waits for another wind, and what it would reach.
type Waits struct {
	Pass     int     `json:"pass"`
	Reaches  string  `json:"reaches"` // name
	ID       string  `json:"id"`
	NearestM float64 `json:"nearest_m"`
}

// Waiting are the passes that cannot be sprayed in a wind, each with the nearest
// thing it would reach within the buffer.
func (b Blow) Waiting(passes []Pass, swath float64, all []Sensitive, buffer float64) []Waits {
	out := []Waits{}
	for i, p := range passes {
		w := Waits{Pass: i, NearestM: math.Inf(1)}
		for _, s := range all {
			if far(p, s, buffer+swath) {
				continue
			}
			if d, ok := b.Reaches(p.From, p.To, swath, s, buffer); ok && d < w.NearestM {
				w.Reaches, w.ID, w.NearestM = s.Name, s.ID, d
			}
		}
		if !math.IsInf(w.NearestM, 1) {
			out = append(out, w)
		}
	}
	return out
}

// far reports whether something is so far from a pass that no wind matters.
func far(p Pass, s Sensitive, than float64) bool {
	for i := range s.Places {
		d, _ := geo.Segments(p.From, p.To, s.Places[i], s.Places[(i+1)%len(s.Places)])
		if d < than {
			return false
		}
	}
	return !s.Area || !geo.Ring(s.Places).Holds(p.From)
}
