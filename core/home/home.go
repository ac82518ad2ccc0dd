// Package home judges the way home over what stands on a site: the height to
// return at, the height above the ground on the way, the clearance of a path,
// and the way round. All places are in one flat frame, metres; all elevations
// are metres above one datum.
package home

import (
	"errors"
	"math"

	"mainstay/core/geo"
	"mainstay/core/why"
)

// ErrInput is wrapped by every refusal.
var ErrInput = errors.New("way home: input not usable")

// Kind is the shape of an obstacle.
type Kind string

// The shapes: a point (mast, tree), a line (wires between poles), an area
// (wood, building).
const (
	PointKind Kind = "point"
	LineKind  Kind = "line"
	AreaKind  Kind = "area"
)

// Obstacle is one thing that stands on the site.
type Obstacle struct {
	ID      string   `json:"id"`
	Name    string   `json:"name"`
	Kind    Kind     `json:"kind"`
	Places  []geo.XY `json:"places"`   // one, a line, or an outline
	HeightM *float64 `json:"height_m"` // above its ground; nil: not known
	SigmaM  float64  `json:"sigma_m"`  // of the height, one standard deviation
	BufferM float64  `json:"buffer_m"` // kept clear around it
	GroundM float64  `json:"ground_m"` // highest elevation of the ground it stands on
	Wire    bool     `json:"wire"`
	// GroundKnown says that the ground under all of it is known; GroundM is then
	// its highest.
	GroundKnown bool `json:"ground_known"`
}

// top is the elevation below which it may be, two standard deviations up.
func (o Obstacle) top() float64 { return o.GroundM + *o.HeightM + 2*o.SigmaM }

// distance from a segment to the shape, m; 0 inside an area.
func (o Obstacle) distance(a, b geo.XY) (dist, along float64) {
	switch {
	case len(o.Places) == 1:
		q, t := geo.Nearest(o.Places[0], a, b)
		return geo.Dist(q, o.Places[0]), t
	case o.Kind == AreaKind:
		r := geo.Ring(o.Places)
		if r.Holds(a) {
			return 0, 0
		}
		dist = math.Inf(1)
		for i := range r {
			if d, t := geo.Segments(a, b, r[i], r[(i+1)%len(r)]); d < dist {
				dist, along = d, t
			}
		}
		return dist, along
	}
	dist = math.Inf(1)
	for i := 1; i < len(o.Places); i++ {
		if d, t := geo.Segments(a, b, o.Places[i-1], o.Places[i]); d < dist {
			dist, along = d, t
		}
	}
	return dist, along
}

// Within reports whether the way from a to b comes within reach of it, m.
func (o Obstacle) Within(a, b geo.XY, reachM float64) bool {
	d, _ := o.distance(a, b)
	return !(d > reachM) // what is no number is near
}

func (o Obstacle) check() error {
	least := map[Kind]int{PointKind: 1, LineKind: 2, AreaKind: 3}[o.Kind]
	switch {
	case least == 0:
		return why.Not(ErrInput, "%s is neither point, line nor area", o.Name)
	case len(o.Places) < least:
		return why.Not(ErrInput, "%s needs at least %d places", o.Name, least)
	case o.HeightM != nil && !(*o.HeightM >= 0 && *o.HeightM <= 1000) || !(o.SigmaM >= 0 && o.SigmaM <= 200) ||
		!(o.BufferM >= 0 && o.BufferM <= 1000) || !finite(o.GroundM):
		return why.Not(ErrInput, "heights of %s are out of range", o.Name)
	}
	if err := geo.Finite(o.Places...); err != nil {
		return why.Not(ErrInput, "%s: %w", o.Name, err)
	}
	return nil
}

// Terrain is the ground as a grid of elevations, rows from south to north.
type Terrain struct {
	Origin  geo.XY    `json:"origin"` // centre of the south-west cell
	CellM   float64   `json:"cell_m"`
	Columns int       `json:"columns"`
	Rows    int       `json:"rows"`
	Heights []float32 `json:"-"` // NaN: a gap
	SigmaM  float64   `json:"sigma_m"`
}

// At is the elevation of the cell at a place; ok is false outside and in gaps.
func (t *Terrain) At(p geo.XY) (float64, bool) {
	if t == nil || t.CellM <= 0 {
		return 0, false
	}
	c, r := int(math.Floor((p.X-t.Origin.X)/t.CellM+0.5)), int(math.Floor((p.Y-t.Origin.Y)/t.CellM+0.5))
	if c < 0 || r < 0 || c >= t.Columns || r >= t.Rows {
		return 0, false
	}
	v := float64(t.Heights[r*t.Columns+c])
	return v, !math.IsNaN(v)
}

// Smooth is the elevation at a place between the cells round it, as slopes are taken
// from; at an edge or a gap it is that of its own cell. ok is false where that is not
// known.
func (t *Terrain) Smooth(p geo.XY) (float64, bool) {
	own, ok := t.At(p)
	if !ok {
		return 0, false
	}
	x, y := (p.X-t.Origin.X)/t.CellM, (p.Y-t.Origin.Y)/t.CellM
	c, r := math.Floor(x), math.Floor(y)
	sum := 0.0
	for _, k := range [4][2]float64{{0, 0}, {1, 0}, {0, 1}, {1, 1}} {
		share := (1 - math.Abs(x-c-k[0])) * (1 - math.Abs(y-r-k[1]))
		v, ok := t.At(geo.XY{X: t.Origin.X + (c+k[0])*t.CellM, Y: t.Origin.Y + (r+k[1])*t.CellM})
		if !ok {
			return own, true
		}
		sum += v * share
	}
	return sum, true
}

func (t *Terrain) check() error {
	if t == nil {
		return nil
	}
	if !(t.CellM > 0) || t.Columns < 1 || t.Rows < 1 || len(t.Heights) != t.Columns*t.Rows || !(t.SigmaM >= 0) {
		return why.Not(ErrInput, "the terrain grid is not whole")
	}
	return nil
}
