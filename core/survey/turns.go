package survey

import (
	"math"
	"slices"

	"mainstay/core/geo"
	"mainstay/core/judge"
)

// turnStep is how far apart places along an arc are set, radians.
const turnStep = math.Pi / 18

// TurnPath is the shortest way of a wing that turns in no less than a radius, m, from one
// place and direction into another, as places at most 10 degrees of arc apart: an arc, a
// straight, an arc (Dubins 1957; without the ways of three arcs, which serve only where the
// places lie nearer than four radii, and there the way found is longer, never tighter).
// The directions have length 1; a radius of 0 turns on the spot. nil: a figure is unreadable.
func TurnPath(from, ahead, to, into geo.XY, radius float64) []geo.XY {
	for _, v := range []float64{from.X, from.Y, to.X, to.Y, ahead.X, ahead.Y, into.X, into.Y, radius} {
		if math.IsNaN(v) || math.Abs(v) > 1e7 {
			return nil
		}
	}
	if !(radius > 0) || math.Abs(ahead.Len()-1) > 1e-6 || math.Abs(into.Len()-1) > 1e-6 {
		return []geo.XY{from, to}
	}
	var best []geo.XY
	shortest := math.Inf(1)
	for _, first := range [2]float64{1, -1} { // 1 turns left
		for _, last := range [2]float64{1, -1} {
			if way, ok := arcs(pose{from, ahead}, pose{to, into}, radius, first, last); ok {
				if l := lengthOf(way); l < shortest {
					best, shortest = way, l
				}
			}
		}
	}
	return best
}

func left(d geo.XY) geo.XY { return geo.XY{X: -d.Y, Y: d.X} }

// pose is a place and the direction there, of length 1.
type pose struct{ at, ahead geo.XY }

// arcs is the way that turns to one side first and to one side last.
func arcs(from, to pose, r, first, last float64) ([]geo.XY, bool) {
	c1, c2 := from.at.Add(left(from.ahead).Times(first*r)), to.at.Add(left(to.ahead).Times(last*r))
	between := c2.Sub(c1)
	course := math.Atan2(between.Y, between.X)
	if first != last { // the straight crosses the line of the centres
		if between.Len() < 2*r {
			return nil, false
		}
		course += first * math.Asin(2*r/between.Len())
	} else if between.Len() == 0 {
		course = math.Atan2(from.ahead.Y, from.ahead.X)
	}
	along := geo.XY{X: math.Cos(course), Y: math.Sin(course)}
	out := arc(nil, c1, from, along, first)
	out = arc(out, c2, pose{c2.Sub(left(along).Times(last * r)), along}, to.ahead, last)
	return append(out, to.at), true
}

// arc adds the places of a turn round a centre, from one direction into another.
func arc(out []geo.XY, centre geo.XY, from pose, into geo.XY, side float64) []geo.XY {
	angle := math.Mod(side*(math.Atan2(into.Y, into.X)-math.Atan2(from.ahead.Y, from.ahead.X))+4*math.Pi, 2*math.Pi)
	if angle > 2*math.Pi-1e-9 {
		angle = 0
	}
	start := from.at.Sub(centre)
	n := max(1, int(math.Ceil(angle/turnStep)))
	for i := range n + 1 {
		a := side * angle * float64(i) / float64(n)
		out = append(out, centre.Add(geo.XY{X: start.X*math.Cos(a) - start.Y*math.Sin(a),
			Y: start.X*math.Sin(a) + start.Y*math.Cos(a)}))
	}
	return out
}

func lengthOf(way []geo.XY) (l float64) {
	for i := 1; i < len(way); i++ {
		l += geo.Dist(way[i-1], way[i])
	}
	return l
}

// turns says which turns of a wing come into what is forbidden. Carried by the wind it turns
// wider over the ground: by the square of what its fastest is over its airspeed.
func (p *Plan) turns(w Wish, g Given) {
	all := g.forbidden()
	if !g.Wing || len(all) == 0 {
		return
	}
	carried := 1 + g.Wind.MeanMS/max(w.SpeedMS, 1)
	r := w.TurnM * carried * carried
	unit := func(x Piece) geo.XY { return x.To.Sub(x.From).Times(1 / max(x.Length(), 1e-9)) }
	said := map[string]bool{}
	for _, f := range p.Flights {
		for i := 1; i < len(f.Pieces); i++ {
			a, b := f.Pieces[i-1], f.Pieces[i]
			if len(b.Via) > 0 { // led round already
				continue
			}
			way := TurnPath(a.To.Add(unit(a).Times(w.LeadM)), unit(a), b.From.Sub(unit(b).Times(w.LeadM)), unit(b), r)
			way = slices.Concat([]geo.XY{a.To}, way, []geo.XY{b.From})
			for _, n := range all {
				for k := 1; k < len(way) && !said[n.Name]; k++ {
					if n.enters(way[k-1], way[k]) {
						said[n.Name] = true
						p.say("bearing_deg", judge.Stop, nil,
							"Turning from line %d into line %d it comes into %s. Fly in another direction, turn tighter, or leave more room.",
							a.Line+1, b.Line+1, n.Name)
					}
				}
			}
		}
	}
}
