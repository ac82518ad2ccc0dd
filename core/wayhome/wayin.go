package wayhome

import (
	"fmt"
	"hash/fnv"
	"strings"

	"mainstay/core/geo"
	"mainstay/core/home"
	"mainstay/core/intent"
	"mainstay/core/judge"
	"mainstay/core/why"
)

// basis is what a decision about the way to the start of the route rests on:
// where it starts, where the route begins, at what height, and what stands
// there. For a plan, whose flights begin anew wherever the last one ended, it is all
// of its passes.
func (r *reckoning) basis(start geo.XY) string {
	var b strings.Builder
	if r.Flight.Plan != nil {
		h := fnv.New64a()
		for _, p := range r.Flight.Plan.Passes {
			fmt.Fprintf(h, "%.6f %.6f ", p.Lat, p.Lon)
		}
		fmt.Fprintf(&b, "plan %x ", h.Sum64())
		start = geo.XY{}
	}
	fmt.Fprintf(&b, "path %s %.1f %.1f %s %.2f", r.out.TakeOff.ID, start.X, start.Y, r.out.Datum, r.out.RouteM)
	for _, o := range r.obstacles {
		h := "?"
		if o.HeightM != nil {
			h = fmt.Sprintf("%.1f/%.1f", *o.HeightM, o.SigmaM)
		}
		lo, hi := bounds(o.Places)
		if r.Flight.Plan != nil || span(lo, hi, r.at, start, 2*(o.BufferM+PositionM)) {
			fmt.Fprintf(&b, " %s %s %.1f %.1f %.1f", o.ID, h, lo.X, lo.Y, o.BufferM)
		}
	}
	return b.String()
}

// wayTo judges the ways from take-off to where flights begin. Where the way to the
// start of the route is not free it looks for one round it, and takes what a named
// person decided; the ways of a plan past the same thing are one finding.
func (r *reckoning) wayTo(all []home.Obstacle) error {
	said := map[string]int{}
	var found []judge.Finding
	var flights [][]int
	for i, start := range r.starts {
		l, lift, err := r.wayOf(all, start)
		if err != nil {
			return err
		}
		if i == 0 || l.Verdict > r.out.Legs[0].Verdict {
			r.out.Legs[0] = l
		}
		if l.Verdict == judge.Clear {
			continue
		}
		if k, again := said[l.NearestID]; again {
			flights[k] = append(flights[k], i+1)
			continue
		}
		said[l.NearestID] = len(found)
		f := judge.Finding{Rule: judge.RulePath, Verdict: l.Verdict, Sentence: l.Sentence,
			Lifts: "pilot in command or chief: by hand, holding and looking, the way round, or another take-off place",
			Decide: []string{string(intent.ByHand), string(intent.HoldAndLook),
				string(intent.OtherPlace)}, Basis: r.basis(start)}
		if r.Flight.Plan == nil {
			r.wayRound(all, start)
		}
		if len(r.out.WayRound) > 0 {
			f.Decide = append(f.Decide, string(intent.WayRound))
		}
		f.Sentence = "From take-off to the start of the route: " + l.Sentence
		if r.Flight.Plan != nil {
			f.Sentence = "From take-off to where %s: " + l.Sentence
		}
		r.decide(&f, lift...)
		found, flights = append(found, f), append(flights, []int{i + 1})
	}
	for k, f := range found {
		if r.Flight.Plan != nil {
			which := fmt.Sprintf("flight %d of the plan begins", flights[k][0])
			if n := len(flights[k]); n > 1 {
				which = fmt.Sprintf("flight %d of the plan, and %d more, begin", flights[k][0], n-1)
			}
			f.Sentence = strings.Replace(f.Sentence, "%s", which, 1)
		}
		r.find(f)
	}
	return nil
}

// wayOf is the way to one start, round what stands there if that was decided, and
// which decisions lift what is found.
func (r *reckoning) wayOf(all []home.Obstacle, start geo.XY) (home.Leg, []intent.Kind, error) {
	to, lift := []geo.XY{r.at, start}, []intent.Kind{intent.ByHand, intent.HoldAndLook, intent.WayRound}
	if round := r.round(start); round != nil {
		to = r.Chart.Frame.All(round.Way)
		to[0], to[len(to)-1] = r.at, start
		lift = lift[:2] // what stands on the way round is not lifted by it
	}
	path, leg := r.rise(to)
	legs, err := home.Clearance(path, home.Standing{
		Obstacles: all, PositionM: PositionM, OverM: intent.LeastOver(r.Type),
	})
	if err != nil {
		return home.Leg{}, nil, err
	}
	var worst home.Leg
	for k, x := range worstOf(legs, leg, len(to)-1) {
		if k == 0 || x.Verdict > worst.Verdict {
			worst = x
		}
	}
	return worst, lift, nil
}

// round is the way round to the start of the route that somebody decided; nil is none.
func (r *reckoning) round(start geo.XY) *intent.Decision {
	if r.Flight.Plan != nil {
		return nil
	}
	if d, _ := r.Flight.About(r.basis(start), intent.WayRound); d != nil && len(d.Way) > 2 {
		return d
	}
	return nil
}

// wayIn puts a way round that was decided before the route: it is flown like it.
func (r *reckoning) wayIn() error {
	d := r.round(r.starts[0])
	if d == nil {
		return nil
	}
	way := r.Chart.Frame.All(d.Way[1 : len(d.Way)-1]) // its ends are the take-off place and the start of the route
	if err := geo.Finite(way...); err != nil {
		return why.Not(home.ErrInput, "%w", err)
	}
	r.way, r.in = append(way, r.way...), len(way)
	return nil
}

// wayRound looks for the shortest way round to the start of the route, at the lowest
// elevation of the first leg.
func (r *reckoning) wayRound(all []home.Obstacle, start geo.XY) {
	level := intent.Level(r.out.Datum, r.out.RouteM, r.out.HomeM)
	round, err := home.WayRound(r.at, start, level, home.Standing{
		Obstacles: all, PositionM: PositionM, OverM: intent.LeastOver(r.Type),
	}, nil)
	if err != nil {
		r.out.NoWay = why.Words(err)
		return
	}
	for _, p := range round {
		r.out.WayRound = append(r.out.WayRound, r.Chart.Frame.Point(p))
	}
}
