package home

import (
	"fmt"
	"math"

	"mainstay/core/geo"
	"mainstay/core/why"
)

// The sector that a wing climbs out through, or comes in through: it opens from
// the place to both sides and is looked along for so many metres. Usual
// practice; the maker's manual wins.
const (
	SectorHalfDeg = 15.0
	SectorHalfM   = 10.0 // half its width at the place
	SectorLengthM = 300.0
)

// Slope is the path through a sector: from StartM above the place it rises by
// Rise metres for every metre flown.
type Slope struct {
	StartM float64
	Rise   float64
}

// at is the height of the path over the place at a distance, m.
func (s Slope) at(d float64) float64 { return s.StartM + s.Rise*d }

// room is how high something may stand at a distance, m over the place: under
// the path by VerticalClear, or by half its height where that is less. Under
// the path of a wire VerticalClear is always kept.
func (s Slope) room(d float64, wire bool) float64 {
	h := s.at(d)
	if wire {
		return h - VerticalClear
	}
	return h - min(VerticalClear, h/2)
}

// Blocked is what stands in a sector.
type Blocked struct {
	Name     string
	AheadM   float64  // from the place, buffer taken off
	PathM    float64  // height of the path there, over the place
	TopM     *float64 // of what stands there, two standard deviations up; nil: not known
	Unknown  bool     // nobody knows how high the ground is there
	Sentence string
}

// Sector holds the sector along a direction (degrees true) from a place and its
// elevation against what stands there and against the ground. It returns what
// stands nearest in the way; nil says that it is free of all that is charted.
// Errors wrap ErrInput.
func Sector(from Place3, direction float64, s Slope, obstacles []Obstacle, terrain *Terrain) (*Blocked, error) {
	if !finite(from.M) || geo.Finite(from.At) != nil || !(direction >= 0 && direction <= 360) ||
		!(s.StartM >= 0 && s.StartM <= 500) || !(s.Rise > 0 && s.Rise <= 10) || terrain.check() != nil {
		return nil, why.Not(ErrInput, "a sector has a direction, and a path that rises")
	}
	sin, cos := math.Sincos(direction * math.Pi / 180)
	// In this frame x lies along the direction and y to its right.
	turn := func(p geo.XY) geo.XY {
		q := p.Sub(from.At)
		return geo.XY{X: q.X*sin + q.Y*cos, Y: q.X*cos - q.Y*sin}
	}
	var worst *Blocked
	take := func(b Blocked) {
		if worst == nil || b.AheadM < worst.AheadM {
			worst = &b
		}
	}
	for _, o := range obstacles {
		if err := o.check(); err != nil {
			return nil, err
		}
		d, in := o.enters(from.At, turn)
		if !in {
			continue
		}
		b := Blocked{Name: o.Name, AheadM: d, PathM: s.at(d)}
		switch {
		case o.HeightM == nil:
			b.Sentence = fmt.Sprintf("%s of unknown height stands %.0f m away", o.Name, d)
			take(b)
		case o.top()-from.M > s.room(d, o.Wire):
			top := o.top() - from.M
			b.TopM = &top
			b.Sentence = fmt.Sprintf("%s reaches %.0f m, %.0f m away, where the path is at %.0f m", o.Name, top, d, b.PathM)
			take(b)
		}
	}
	if b := groundIn(from, s, terrain, sin, cos); b != nil {
		take(*b)
	}
	return worst, nil
}

// groundIn looks at the ground over the whole width of a sector, cell by cell
// outwards; nil says that it stays under the path. Ground that the terrain does
// not cover is in the way: nobody knows it. Its error is left out: so near to
// each other cells err alike.
func groundIn(from Place3, s Slope, terrain *Terrain, sin, cos float64) *Blocked {
	if terrain == nil {
		return nil // said once for the whole site
	}
	step := min(max(terrain.CellM/2, 1), 10)
	slant := math.Tan(SectorHalfDeg * math.Pi / 180)
	for d := 10.0; d <= SectorLengthM; d += step {
		wide := SectorHalfM + d*slant
		for y := -wide; ; y += step {
			y = min(y, wide)
			g, ok := terrain.At(from.At.Add(geo.XY{X: sin*d + cos*y, Y: cos*d - sin*y}))
			if !ok {
				return &Blocked{Name: "the ground", AheadM: d, PathM: s.at(d), Unknown: true,
					Sentence: fmt.Sprintf("the ground %.0f m away is not known: the terrain does not cover it", d)}
			}
			if top := g - from.M; top > s.room(d, false) {
				return &Blocked{Name: "the ground", AheadM: d, PathM: s.at(d), TopM: &top,
					Sentence: fmt.Sprintf("the ground rises to %.0f m, %.0f m away, where the path is at %.0f m", top, d, s.at(d))}
			}
			if y == wide {
				break
			}
		}
	}
	return nil
}

// enters is how far along the sector the buffered shape begins; in is false
// when it lies outside.
func (o Obstacle) enters(place geo.XY, turn func(geo.XY) geo.XY) (d float64, in bool) {
	ps := make([]geo.XY, len(o.Places))
	for i, p := range o.Places {
		ps[i] = turn(p)
	}
	if o.Kind == AreaKind {
		if geo.Ring(o.Places).Holds(place) {
			return 0, true
		}
		ps = append(ps, ps[0])
	}
	if len(ps) == 1 {
		ps = append(ps, ps[0])
	}
	d = math.Inf(1)
	for i := 1; i < len(ps); i++ {
		if x, ok := clip(ps[i-1], ps[i], o.BufferM+touchM); ok {
			d = min(d, max(x-o.BufferM, 0))
		}
	}
	return d, !math.IsInf(d, 1)
}

// clip cuts a segment down to the sector widened by a buffer and returns the
// least distance along it.
func clip(a, b geo.XY, buffer float64) (along float64, ok bool) {
	slant := math.Tan(SectorHalfDeg * math.Pi / 180)
	wide := SectorHalfM + buffer/math.Cos(SectorHalfDeg*math.Pi/180)
	from, to := 0.0, 1.0
	// Each side of the sector is f >= 0, linear along the segment.
	for _, f := range [](func(geo.XY) float64){
		func(p geo.XY) float64 { return p.X + buffer },
		func(p geo.XY) float64 { return SectorLengthM + buffer - p.X },
		func(p geo.XY) float64 { return wide + slant*p.X - p.Y },
		func(p geo.XY) float64 { return wide + slant*p.X + p.Y },
	} {
		fa, fb := f(a), f(b)
		switch {
		case fa < 0 && fb < 0:
			return 0, false
		case fa < 0:
			from = max(from, fa/(fa-fb))
		case fb < 0:
			to = min(to, fa/(fa-fb))
		}
	}
	if from > to {
		return 0, false
	}
	return min(a.X+(b.X-a.X)*from, a.X+(b.X-a.X)*to), true
}
