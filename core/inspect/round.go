package inspect

import (
	"errors"
	"slices"

	"mainstay/core/geo"
	"mainstay/core/home"
	"mainstay/core/judge"
	"mainstay/core/why"
)

// touchM is how far a place at the safe distance may reach into it: what arithmetic loses.
const touchM = 0.01

// Structure is what is inspected as a way round sees it: never passed over, the safe
// distance kept. A roof is flown over, along its plane: it stands in no way.
func (w Wish) Structure(places []geo.XY, line bool, safe float64) []home.Obstacle {
	point := func(q geo.XY, buffer float64) home.Obstacle {
		return home.Obstacle{Name: "what is inspected", Kind: home.PointKind, Places: []geo.XY{q}, BufferM: buffer}
	}
	var out []home.Obstacle
	switch {
	case w.Form == Roof:
	case w.Form == Cylinder:
		out = append(out, point(middle(places), w.RadiusM+safe))
	case w.Form == Poles:
		for _, q := range places {
			out = append(out, point(q, w.RadiusM+safe))
		}
		if len(places) > 1 { // what hangs between them
			out = append(out, home.Obstacle{Name: "what is inspected", Kind: home.LineKind, Places: places, BufferM: safe})
		}
	case line && len(places) > 1:
		out = append(out, home.Obstacle{Name: "what is inspected", Kind: home.LineKind, Places: places, BufferM: safe})
	default:
		out = append(out, home.Obstacle{Name: "what is inspected", Kind: home.AreaKind, Places: w.outline(places),
			BufferM: safe})
	}
	return out
}

// Safe is what is kept from a structure: the safe distance, or more where its owner says so.
func (w Wish) Safe() float64 { return max(w.SafeM, w.EnergisedM) }

// clear leaves out places that lie too near to another wall or to anything else, and finds
// the way round from each place to the next, the first from take-off.
func (p *Plan) clear(w Wish, g Given) {
	own := w.Structure(g.Places, g.Line, p.safe)
	before := len(p.Stops)
	p.Stops = slices.DeleteFunc(p.Stops, func(s Stop) bool { return blocked(own, g, s.HeightM, s.At, s.At) })
	if n := before - len(p.Stops); n > 0 {
		p.say("safe_m", judge.Watch, nil,
			"%d places would lie nearer than is safe to another side or to what stands beside: they are left out. Picture what they would show from elsewhere, or by hand.",
			n)
	}
	from, height := g.Start.At, 0.0
	for i := range p.Stops {
		s := &p.Stops[i]
		if i > 0 {
			from, height = p.Stops[i-1].At, min(p.Stops[i-1].HeightM, s.HeightM)
		} else {
			height = s.HeightM // it climbs first
		}
		var err error
		if s.Via, err = round(own, g, height, from, s.At); err != nil {
			p.say("feature", judge.Stop, nil, "To picture %d there is no way round what stands: %s.", i+1, why.Words(err))
			return
		}
	}
}

// blocked reports whether a straight way at a height over the ground meets anything.
func blocked(own []home.Obstacle, g Given, heightM float64, a, b geo.XY) bool {
	for _, o := range own {
		if o.Within(a, b, o.BufferM-touchM) {
			return true
		}
	}
	legs, err := home.Clearance([]home.Place3{{At: a, M: g.GroundM + heightM}, {At: b, M: g.GroundM + heightM}},
		home.Standing{
			Obstacles: g.Stand, PositionM: g.PositionM, OverM: g.OverM,
		})
	return len(g.Stand) > 0 && (err != nil || legs[0].Verdict == judge.Stop)
}

// round are the places between both ends of a way that stays clear; none where the straight
// way does.
func round(own []home.Obstacle, g Given, heightM float64, a, b geo.XY) ([]geo.XY, error) {
	if !blocked(own, g, heightM, a, b) {
		return nil, nil
	}
	all := slices.Clone(own)
	for i := range all { // a place at the safe distance is not inside of it
		all[i].BufferM -= touchM
	}
	way, err := home.WayRound(a, b, g.GroundM+heightM, home.Standing{
		Obstacles: append(all, g.Stand...), PositionM: g.PositionM, OverM: g.OverM,
	}, nil)
	if err != nil {
		return nil, err
	}
	if len(way) < 3 {
		return nil, errors.New("it is shut in")
	}
	return way[1 : len(way)-1], nil
}

// Join finds the ways between places that were added behind the others, from from on, and
// makes one flight of them; cannot says why that is none.
func (p *Plan) Join(from int, w Wish, g Given) (f Flight, cannot string, err error) {
	own := w.Structure(g.Places, g.Line, w.Safe())
	for i := from; i < len(p.Stops); i++ {
		at, height := g.Start.At, p.Stops[i].HeightM
		if i > from {
			at, height = p.Stops[i-1].At, min(p.Stops[i-1].HeightM, height)
		}
		if p.Stops[i].Via, err = round(own, g, height, at, p.Stops[i].At); err != nil {
			return f, "there is no way round what stands", nil
		}
	}
	if f, cannot, err = p.Reckon(Flight{From: from, To: len(p.Stops)}, w, g); err == nil && cannot == "" &&
		f.Wh > g.UsableWh {
		cannot = "one set of packs does not carry it"
	}
	return f, cannot, err
}
