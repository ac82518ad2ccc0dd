package inspect

import (
	"errors"
	"math"

	"mainstay/core/energy"
	"mainstay/core/geo"
	"mainstay/core/judge"
	"mainstay/core/why"
)

// tally adds up a flight from place to place.
type tally struct {
	w    Wish
	g    Given
	last *Stop // nil: still at take-off
	wh   float64
	s    float64
}

// need is what it takes to fly to a place and take its picture.
func (t tally) need(to Stop) (energy.Need, error) {
	from, height, speed := t.g.Start.At, 0.0, t.g.Model.CruiseMS
	via := to.Via
	if t.last != nil {
		from, height, speed = t.last.At, t.last.HeightM, t.w.SpeedMS
	}
	long := 0.0
	for _, q := range via {
		long, from = long+geo.Dist(from, q), q
	}
	long += geo.Dist(from, to.At)
	return t.g.Model.Fly(t.g.MassKg, t.g.Rho, []energy.Phase{{Kind: energy.Climbing,
		Seconds: max(0, to.HeightM-height) / t.g.Model.ClimbMS}, {Kind: energy.Cruising,
		Seconds: math.Hypot(long, min(0, to.HeightM-height)) / speed}, {Kind: energy.Hovering, Seconds: StopS}})
}

// home is the way home from a place.
func (t tally) home(s Stop) (energy.Home, error) {
	d := t.g.Start.At.Sub(s.At)
	return t.g.Model.Home(energy.Return{MassKg: t.g.MassKg, Rho: t.g.Rho, HeightM: max(0, s.HeightM), ReturnM: t.g.ReturnM,
		DistanceM: d.Len(), CourseDeg: geo.Turn(math.Atan2(d.X, d.Y) * 180 / math.Pi), Wind: t.g.Wind})
}

// add flies on to a place.
func (t *tally) add(s *Stop) error {
	n, err := t.need(*s)
	if err != nil {
		return errors.Join(ErrInput, err)
	}
	t.wh, t.s, t.last = t.wh+n.Wh, t.s+n.Seconds, s
	return nil
}

// end is the flight when it turns home now, and why it does not come there; "" it does.
func (t tally) end(from, to int) (f Flight, cannot string, err error) {
	way, err := t.home(*t.last)
	if err != nil {
		return f, "", errors.Join(ErrInput, err)
	}
	f = Flight{From: from, To: to, Wh: t.wh + way.Wh, Seconds: t.s + way.Seconds}
	if t.g.FullWh > 0 {
		f.Percent = 100*f.Wh/t.g.FullWh + t.g.Reserve
	}
	return f, way.Cannot, nil
}

// Reckon is what a flight over some of the places takes with what is known now, and why it
// does not come home; "" it does. Errors wrap ErrInput.
func (p Plan) Reckon(f Flight, w Wish, g Given) (out Flight, cannot string, err error) {
	if f.From < 0 || f.To > len(p.Stops) || f.From >= f.To {
		return f, "", why.Not(ErrInput, "a flight over places that are none")
	}
	t := tally{w: w, g: g}
	for i := f.From; i < f.To; i++ {
		if err := t.add(&p.Stops[i]); err != nil {
			return f, "", err
		}
	}
	return t.end(f.From, f.To)
}

// fly divides the stops into flights that the packs carry.
func (p *Plan) fly(w Wish, g Given) error {
	own := w.Structure(g.Places, g.Line, p.safe)
	stuck := ""
	for from := 0; from < len(p.Stops); {
		if from > 0 { // a later flight begins at take-off too
			via, err := round(own, g, p.Stops[from].HeightM, g.Start.At, p.Stops[from].At)
			if err != nil {
				stuck = "From take-off there is no way round what stands to a later flight."
			}
			p.Stops[from].Via = via
		}
		t := tally{w: w, g: g}
		var f Flight
		for to := from; to < len(p.Stops); to++ {
			more := t
			if err := more.add(&p.Stops[to]); err != nil {
				return err
			}
			one, cannot, err := more.end(from, to+1)
			if err != nil {
				return err
			}
			full := one.Wh > g.UsableWh || cannot != ""
			if full && to > from {
				break
			}
			if t, f = more, one; full {
				stuck = "Full packs do not carry it there and home: take off nearer to the structure."
				if cannot != "" {
					stuck = "It does not come home: " + cannot + "."
				}
				break
			}
		}
		p.Flights, p.Minutes, from = append(p.Flights, f), p.Minutes+f.Seconds/60, f.To
	}
	if stuck != "" {
		p.say("feature", judge.Stop, nil, "%s", stuck)
	}
	return nil
}
