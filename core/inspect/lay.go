package inspect

import (
	"errors"
	"math"

	"mainstay/core/geo"
)

// lay places the pictures: faces in order, each in rows from the top down, to and fro.
func (p *Plan) lay(w Wish, g Given) error {
	switch w.Form {
	case Cylinder:
		return p.ring(w, middle(g.Places), w.RadiusM, 0)
	case Poles:
		if len(g.Places) > 1 {
			p.poles(w, g.Places)
			return nil
		}
		return p.ring(w, g.Places[0], w.RadiusM, 0)
	case Roof:
		return p.roof(w, g.Places)
	}
	if g.Line && len(g.Places) > 1 { // a wall along a line, from both of its sides
		face := 0
		for i := 1; i < len(g.Places); i++ {
			p.wall(w, g.Places[i-1], g.Places[i], face)
			face++
		}
		for i := len(g.Places) - 1; i > 0; i-- {
			p.wall(w, g.Places[i], g.Places[i-1], face)
			face++
		}
		return nil
	}
	ring := w.outline(g.Places)
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

// takes counts places that are to be laid; more than a plan takes are not.
func (p *Plan) takes(n int) bool {
	p.laid += n
	return p.laid <= MostPictures
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
	along, heights := steps(long, p.WideM, w.Sideways), p.rows(w)
	p.Faces++
	if !p.takes(len(along) * len(heights)) {
		return
	}
	for r, h := range heights {
		for i := range along {
			k := along[i]
			if r%2 == 1 {
				k = along[len(along)-1-i]
			}
			p.Stops = append(p.Stops, Stop{At: a.Add(d.Times(k)).Add(right.Times(p.StandM)), HeightM: h, HeadingDeg: heading,
				Face: face, Row: r})
		}
	}
}

// ring pictures something round, row by row from the top.
func (p *Plan) ring(w Wish, c geo.XY, radius float64, face int) error {
	shots, err := Ring(Round{
		RadiusM: radius, HeightM: max(w.HeightM-w.FromM, 0.1), WideM: p.WideM, HighM: p.HighM,
		Sideways: w.Sideways, Upward: w.Upwards,
	})
	if err != nil {
		return err
	}
	// No picture shows more of a cylinder than is seen of it from where it is taken.
	n := max(shots.Around, int(math.Ceil(math.Pi/math.Acos(radius/(radius+p.StandM)))), 3)
	if w.Form == Poles {
		n = max(n, PolePictures)
	}
	heights := p.rows(w)
	p.Faces++
	if !p.takes(n * len(heights)) {
		return nil
	}
	for r, h := range heights {
		for i := range n {
			a := 2 * math.Pi * float64(i) / float64(n)
			out := geo.XY{X: math.Sin(a), Y: math.Cos(a)}
			p.Stops = append(p.Stops, Stop{At: c.Add(out.Times(radius + p.StandM)), HeightM: h,
				HeadingDeg: geo.Turn(a*180/math.Pi + 180), Face: face, Row: r})
		}
	}
	return nil
}

// poles pictures poles along a line from its two sides, never from under what hangs between
// them: all of them along the right, and back along the left.
func (p *Plan) poles(w Wish, places []geo.XY) {
	heights := p.rows(w)
	if !p.takes(2 * len(places) * len(heights)) {
		return
	}
	last := len(places) - 1
	for side := range 2 {
		for k := range places {
			i := k
			if side == 1 {
				i = last - k
			}
			d := places[min(i+1, last)].Sub(places[max(i-1, 0)])
			if d.Len() < 0.01 {
				continue
			}
			out := geo.XY{X: d.Y, Y: -d.X}.Times((1 - 2*float64(side)) / d.Len())
			heading := geo.Turn(math.Atan2(-out.X, -out.Y) * 180 / math.Pi)
			for n := range heights {
				r := n
				if k%2 == 1 {
					r = len(heights) - 1 - n
				}
				p.Stops = append(p.Stops, Stop{At: places[i].Add(out.Times(w.RadiusM + p.StandM)), HeightM: heights[r],
					HeadingDeg: heading, Face: i, Row: r})
			}
		}
	}
	p.Faces = len(places)
}

// outline is that of a structure; one place is a square as wide as it.
func (w Wish) outline(places []geo.XY) geo.Ring {
	if len(places) > 2 {
		return places
	}
	c, r := middle(places), w.RadiusM
	return geo.Ring{c.Add(geo.XY{X: -r, Y: -r}), c.Add(geo.XY{X: r, Y: -r}), c.Add(geo.XY{X: r, Y: r}),
		c.Add(geo.XY{X: -r, Y: r})}
}

// roof pictures a plane from above it, square to it, in strips along its eaves.
func (p *Plan) roof(w Wish, places []geo.XY) error {
	places = w.outline(places)
	if err := geo.Ring(places).Check(); err != nil {
		return errors.Join(ErrInput, err)
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
	if p.Faces, p.Rows = 1, len(down); !p.takes(len(down) * len(along)) {
		return nil
	}
	for r, s := range down {
		for i := range along {
			k := along[i]
			if r%2 == 1 {
				k = along[len(along)-1-i]
			}
			at := geo.XY{X: lo.X + s*cos + p.StandM*sin, Y: lo.Y + k}
			p.Stops = append(p.Stops, Stop{At: t.From(at), HeightM: w.HeightM - s*sin + p.StandM*cos,
				HeadingDeg: geo.Turn(w.FacesDeg + 180), GimbalDeg: -90 + w.PitchDeg, Row: r})
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
