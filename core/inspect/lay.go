package inspect

import (
	"math"

	"mainstay/core/geo"
)

// lay places the pictures: faces in order, each in rows from the top down, to and fro.
func (p *Plan) lay(w Wish, g Given) error {
	switch w.Form {
	case Cylinder:
		return p.ring(w, middle(g.Places), w.RadiusM, 0)
	case Poles:
		for i, q := range g.Places {
			if err := p.ring(w, q, w.RadiusM, i); err != nil {
				return err
			}
		}
		return nil
	case Roof:
		return p.roof(w, g.Places)
	}
	ring := geo.Ring(g.Places)
	if len(ring) < 3 { // a wall along a line, seen from its right; or a box round one place
		if len(ring) == 1 {
			r := w.RadiusM
			c := ring[0]
			ring = geo.Ring{c.Add(geo.XY{X: -r, Y: -r}), c.Add(geo.XY{X: r, Y: -r}), c.Add(geo.XY{X: r, Y: r}), c.Add(geo.XY{X: -r, Y: r})}
		} else {
			p.wall(w, ring[0], ring[1], 0)
			return nil
		}
	}
	if ring.Area() > 0 { // clockwise, so that what is outside lies to the left of each side
		turned := make(geo.Ring, len(ring))
		for i := range ring {
			turned[i] = ring[len(ring)-1-i]
		}
		ring = turned
	}
	for i := range ring {
		p.wall(w, ring[(i+1)%len(ring)], ring[i], i)
	}
	return nil
}

// steps are the middles of pictures over a length: one where a picture shows all of it,
// else evenly, so that neighbours overlap at least as wished.
func steps(length, seen, overlap float64) []float64 {
	if length <= seen {
		return []float64{length / 2}
	}
	n := int(math.Ceil((length-seen)/(seen*(1-overlap/100))-1e-9)) + 1
	out := make([]float64, n)
	for i := range out {
		out[i] = seen/2 + (length-seen)*float64(i)/float64(n-1)
	}
	return out
}

// rows are the heights of the rows, from the top down.
func (p *Plan) rows(w Wish) []float64 {
	up := steps(w.HeightM-w.FromM, p.HighM, w.Upwards)
	out := make([]float64, len(up))
	for i, h := range up {
		out[len(up)-1-i] = w.FromM + h
	}
	p.Rows = max(p.Rows, len(out))
	return out
}

// wall pictures a wall from a to b, seen from its right.
func (p *Plan) wall(w Wish, a, b geo.XY, face int) {
	d := b.Sub(a)
	long := d.Len()
	if long < 0.01 {
		return
	}
	d = d.Times(1 / long)
	right := geo.XY{X: d.Y, Y: -d.X}
	heading := geo.Turn(math.Atan2(-right.X, -right.Y) * 180 / math.Pi)
	along := steps(long, p.WideM, w.Sideways)
	p.Faces++
	for r, h := range p.rows(w) {
		for i := range along {
			k := along[i]
			if r%2 == 1 {
				k = along[len(along)-1-i]
			}
			p.Stops = append(p.Stops, Stop{At: a.Add(d.Times(k)).Add(right.Times(p.StandM)), HeightM: h, HeadingDeg: heading, Face: face, Row: r})
		}
	}
}

// ring pictures something round, row by row from the top.
func (p *Plan) ring(w Wish, c geo.XY, radius float64, face int) error {
	shots, err := Ring(radius, max(w.HeightM-w.FromM, 0.1), p.WideM, p.HighM, w.Sideways, w.Upwards)
	if err != nil {
		return err
	}
	// A picture shows no more of a cylinder than its stand-off lets it see round, half of it less.
	n := max(shots.Around, 3)
	heights := p.rows(w)
	if w.Form == Poles {
		n = max(n, PolePictures)
		if w.HeightM < LeastPoleRowM {
			heights = heights[:1]
		}
	}
	p.Faces++
	for r, h := range heights {
		for i := range n {
			a := 2 * math.Pi * float64(i) / float64(n)
			out := geo.XY{X: math.Sin(a), Y: math.Cos(a)}
			p.Stops = append(p.Stops, Stop{At: c.Add(out.Times(radius + p.StandM)), HeightM: h, HeadingDeg: geo.Turn(a*180/math.Pi + 180), Face: face, Row: r})
		}
	}
	return nil
}

// roof pictures a plane from above it, square to it, in strips along its eaves.
func (p *Plan) roof(w Wish, places []geo.XY) error {
	if len(places) < 3 {
		c, r := middle(places), w.RadiusM
		places = []geo.XY{c.Add(geo.XY{X: -r, Y: -r}), c.Add(geo.XY{X: r, Y: -r}), c.Add(geo.XY{X: r, Y: r}), c.Add(geo.XY{X: -r, Y: r})}
	}
	if err := geo.Ring(places).Check(); err != nil {
		return err
	}
	t := geo.TurnedTo(w.FacesDeg) // X runs down the roof, Y along the eaves
	lo, hi := t.To(places[0]), t.To(places[0])
	for _, q := range places {
		v := t.To(q)
		lo, hi = geo.XY{X: min(lo.X, v.X), Y: min(lo.Y, v.Y)}, geo.XY{X: max(hi.X, v.X), Y: max(hi.Y, v.Y)}
	}
	sin, cos := math.Sincos(w.PitchDeg * math.Pi / 180)
	down := steps((hi.X-lo.X)/cos, p.HighM, w.Upwards) // on the slope
	along := steps(hi.Y-lo.Y, p.WideM, w.Sideways)
	p.Faces, p.Rows = 1, len(down)
	for r, s := range down {
		for i := range along {
			k := along[i]
			if r%2 == 1 {
				k = along[len(along)-1-i]
			}
			at := geo.XY{X: lo.X + s*cos + p.StandM*sin, Y: lo.Y + k}
			p.Stops = append(p.Stops, Stop{At: t.From(at), HeightM: w.HeightM - s*sin + p.StandM*cos, HeadingDeg: geo.Turn(w.FacesDeg + 180), GimbalDeg: -90 + w.PitchDeg, Row: r})
		}
	}
	return nil
}

func middle(ps []geo.XY) geo.XY {
	var sum geo.XY
	for _, q := range ps {
		sum = sum.Add(q)
	}
	return sum.Times(1 / float64(len(ps)))
}
