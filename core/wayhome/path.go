package wayhome

import (
	"fmt"
	"strings"

	"mainstay/core/geo"
	"mainstay/core/home"
	"mainstay/core/intent"
	"mainstay/core/judge"
	"mainstay/core/site"
)

// basis is what a decision about the way to the start of the route rests on:
// where it starts, where the route begins, at what height, and what stands
// there.
func (r *reckoning) basis() string {
	way := r.Chart.Way()
	var b strings.Builder
	fmt.Fprintf(&b, "path %s %.1f %.1f %s %.2f", r.out.TakeOff.ID, way[0].X, way[0].Y, r.out.Datum, r.out.RouteM)
	for _, o := range r.obstacles {
		h := "?"
		if o.HeightM != nil {
			h = fmt.Sprintf("%.1f/%.1f", *o.HeightM, o.SigmaM)
		}
		lo, hi := bounds(o.Places)
		if span(lo, hi, r.at, way[0], 2*(o.BufferM+PositionM)) {
			fmt.Fprintf(&b, " %s %s %.1f %.1f %.1f", o.ID, h, lo.X, lo.Y, o.BufferM)
		}
	}
	return b.String()
}

func bounds(ps []geo.XY) (lo, hi geo.XY) {
	lo, hi = ps[0], ps[0]
	for _, p := range ps {
		lo, hi = geo.XY{X: min(lo.X, p.X), Y: min(lo.Y, p.Y)}, geo.XY{X: max(hi.X, p.X), Y: max(hi.Y, p.Y)}
	}
	return lo, hi
}

func span(lo, hi, a, b geo.XY, reach float64) bool {
	return lo.X-reach <= max(a.X, b.X) && hi.X+reach >= min(a.X, b.X) && lo.Y-reach <= max(a.Y, b.Y) && hi.Y+reach >= min(a.Y, b.Y)
}

// path judges the legs against what stands there. Where the way to the start of
// the route is not free it looks for one round it, and takes what a named person
// decided.
func (r *reckoning) path() error {
	path, leg := r.points()
	all := append(append([]home.Obstacle{}, r.obstacles...), r.Chart.noGo()...)
	legs, err := home.Clearance(path, all, PositionM, intent.LeastOver(r.Type))
	if err != nil {
		return err
	}
	r.out.Legs = worstOf(legs, leg, len(r.way))
	for i, l := range r.out.Legs {
		if i == 0 || l.Verdict == judge.Clear {
			continue
		}
		r.find(judge.Finding{Rule: judge.RulePath, Verdict: l.Verdict, Sentence: fmt.Sprintf("Leg %d of the route: %s", i, l.Sentence), Lifts: "another route or height"})
	}
	r.knownUnder(all)
	if r.out.Legs[0].Verdict == judge.Clear {
		return nil
	}
	f := judge.Finding{Rule: judge.RulePath, Verdict: r.out.Legs[0].Verdict, Sentence: "From take-off to the start of the route: " + r.out.Legs[0].Sentence, Lifts: "pilot in command or chief: by hand, holding and looking, the way round, or another take-off place",
		Decide: []string{string(intent.ByHand), string(intent.HoldAndLook), string(intent.OtherPlace)}, Basis: r.basis()}
	r.wayRound(all)
	if len(r.out.WayRound) > 0 {
		f.Decide = append(f.Decide, string(intent.WayRound))
	}
	r.decide(&f, intent.ByHand, intent.HoldAndLook, intent.WayRound)
	r.find(f)
	return nil
}

// knownUnder says which things near the path stand on ground nobody knows.
func (r *reckoning) knownUnder(all []home.Obstacle) {
	for _, l := range r.out.Legs {
		for _, o := range all {
			if o.ID == l.NearestID && !o.GroundKnown && o.HeightM != nil && l.HorizontalM < 0 {
				r.unknown = append(r.unknown, "under "+o.Name)
			}
		}
	}
}

// worstOf joins the pieces of each leg: the worst, then the nearest, stands for
// it.
func worstOf(pieces []home.Leg, leg []int, n int) []home.Leg {
	out, have := make([]home.Leg, n), make([]bool, n)
	for i, p := range pieces {
		k := leg[i]
		if w := out[k]; !have[k] || p.Verdict > w.Verdict || p.Verdict == w.Verdict && p.Nearest != "" && (w.Nearest == "" || p.HorizontalM < w.HorizontalM) {
			out[k], have[k] = p, true
		}
	}
	return out
}

// wayRound looks for the shortest way round, at the lowest elevation of the
// first leg.
func (r *reckoning) wayRound(all []home.Obstacle) {
	level := intent.Level(r.out.Datum, r.out.RouteM, r.out.HomeM)
	round, err := home.WayRound(r.at, r.way[0], level, all, PositionM, intent.LeastOver(r.Type), nil)
	if err != nil {
		_, r.out.NoWay, _ = strings.Cut(err.Error(), ": ")
		return
	}
	for _, p := range round {
		r.out.WayRound = append(r.out.WayRound, r.Chart.Frame.Point(p))
	}
}

// secondPlace judges the straight ways to the second landing place at the same
// setting: that is where it goes when the first is no longer free.
func (r *reckoning) secondPlace() error {
	if r.out.Second == nil || r.out.Second.ID == r.out.TakeOff.ID {
		return nil
	}
	l := r.Type.Limits
	a, err := home.ReturnHeight(home.Question{Home: r.Chart.Frame.XY(r.out.Second.Places[0]), HomeM: r.out.HomeM, Route: r.way, Obstacles: r.obstacles, Terrain: r.Chart.Terrain, PositionM: PositionM, Margin: r.out.Margin,
		CeilingM: r.Law.HeightM, SettingM: &r.out.ShownM, ClimbMS: l.Climb(), DescentMS: l.Descent(), RouteHeight: r.overTakeOff()})
	if err != nil {
		return err
	}
	name := "To the second landing place " + r.out.Second.Name
	if a.Gaps > 0 {
		r.unknown = append(r.unknown, "on the way to the second landing place")
	}
	for _, thing := range a.Unknown {
		r.find(judge.Finding{Rule: judge.RuleReturnHeight, Verdict: judge.Stop, Sentence: fmt.Sprintf("%s: the height of %s in the way is not known.", name, thing), Lifts: "measuring it, or another place"})
	}
	if r.out.ShownM < a.NeedM+a.MarginM-1e-6 {
		r.find(judge.Finding{Rule: judge.RuleReturnHeight, Verdict: judge.Stop, Sentence: fmt.Sprintf("%s it needs %.0f m above take-off over %s; %.0f m are set.", name, a.HeightM, a.Decides, r.out.ShownM), Lifts: "a higher setting, or another place"})
	}
	for _, x := range r.Chart.Features {
		if x.Kind == site.NoGo && home.FanReaches(r.Chart.Frame.XY(r.out.Second.Places[0]), r.way, x.Area(r.Chart.Frame), x.Buffer()+PositionM) {
			r.find(judge.Finding{Rule: judge.RulePath, Verdict: judge.Stop, Sentence: fmt.Sprintf("%s the straight way from part of the route goes over the no-go area %s.", name, x.Name), Lifts: "another second place"})
		}
	}
	r.out.HighM = max(r.out.HighM, r.out.ShownM+a.MaxAGL-a.HeightM)
	return nil
}
