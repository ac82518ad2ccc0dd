package wayhome

import (
	"fmt"
	"math"
	"slices"

	"mainstay/core/geo"
	"mainstay/core/home"
	"mainstay/core/intent"
	"mainstay/core/judge"
	"mainstay/core/site"
	"mainstay/core/why"
)

func bounds(ps []geo.XY) (lo, hi geo.XY) {
	lo, hi = ps[0], ps[0]
	for _, p := range ps {
		lo, hi = geo.XY{X: min(lo.X, p.X), Y: min(lo.Y, p.Y)}, geo.XY{X: max(hi.X, p.X), Y: max(hi.Y, p.Y)}
	}
	return lo, hi
}

func span(lo, hi, a, b geo.XY, reach float64) bool {
	return lo.X-reach <= max(a.X, b.X) && hi.X+reach >= min(a.X, b.X) && lo.Y-reach <= max(a.Y, b.Y) &&
		hi.Y+reach >= min(a.Y, b.Y)
}

// leg names a leg in a sentence: by its number, or by the passes of a plan.
func (r *reckoning) leg(i int) string {
	k := i - r.in // 1 is the first pass
	switch {
	case r.Flight.Plan == nil || k < 1 || k >= len(r.Flight.Plan.Passes):
		return fmt.Sprintf("leg %d of the route", i)
	case r.Flight.Plan.Spots:
		return fmt.Sprintf("the way to waypoint %d", k/2+1)
	case k%2 == 1:
		return fmt.Sprintf("pass %d", (k+1)/2)
	}
	return fmt.Sprintf("the way from pass %d to %d", k/2, k/2+1)
}

// path judges the legs against what stands there.
func (r *reckoning) path() error {
	path, leg := r.points()
	all := append(slices.Clone(r.obstacles), r.Chart.noGo()...)
	if r.Flight.Plan != nil {
		all = slices.DeleteFunc(all, func(o home.Obstacle) bool {
			return o.ID != "" &&
				slices.Contains(r.Flight.Plan.Around, o.ID)
		})
	}
	var err error
	if r.Flight.Plan != nil && r.out.Datum == intent.AboveGround { // over the crop, and what is part of it
		r.out.Legs, err = clearOf(path, leg, len(r.way), r.cut(all), intent.LeastGround(r.Type, r.Flight.Work))
	} else {
		var legs []home.Leg
		legs, err = home.Clearance(path, home.Standing{
			Obstacles: all, PositionM: PositionM, OverM: intent.LeastOver(r.Type),
		})
		r.out.Legs = worstOf(legs, leg, len(r.way))
	}
	if err != nil {
		return err
	}
	r.along()
	if err := r.wayTo(all); err != nil {
		return err
	}
	r.knownUnder(all)
	return nil
}

// clearOf holds each of many legs against the things near it alone: a leg with nothing
// near is clear, and what is nearest to it is not looked for.
func clearOf(path []home.Place3, leg []int, n int, things []home.Obstacle, over float64) ([]home.Leg, error) {
	type box struct{ lo, hi geo.XY }
	boxes := make([]box, len(things))
	for i, o := range things {
		if len(o.Places) == 0 {
			return nil, why.Not(home.ErrInput, "%s has no place", o.Name)
		}
		boxes[i].lo, boxes[i].hi = bounds(o.Places)
	}
	out := make([]home.Leg, n)
	for from := 0; from < len(leg); {
		to := from
		for to < len(leg) && leg[to] == leg[from] {
			to++
		}
		a, b := path[from].At, path[to].At // pieces of a leg lie on one straight line
		var near []home.Obstacle
		for i, o := range things {
			if reach := o.BufferM + PositionM; span(boxes[i].lo, boxes[i].hi, a, b, reach) && o.Within(a, b, reach) {
				near = append(near, o)
			}
		}
		out[leg[from]] = home.Leg{Verdict: judge.Clear, Sentence: "Nothing stands near it."}
		if len(near) > 0 {
			pieces, err := home.Clearance(path[from:to+1], home.Standing{
				Obstacles: near, PositionM: PositionM, OverM: over,
			})
			if err != nil {
				return nil, err
			}
			out[leg[from]] = worstOf(pieces, make([]int, len(pieces)), 1)[0]
		}
		from = to
	}
	return out, nil
}

// along says which legs of the route are not free, the nearest for each thing.
func (r *reckoning) along() {
	type met struct{ worst, n int }
	things, order := map[string]*met{}, []string{}
	for i, l := range r.out.Legs {
		if i <= r.in || l.Verdict == judge.Clear { // the ways into the route are judged by wayTo
			continue
		}
		m := things[l.NearestID]
		if m == nil {
			m = &met{worst: i}
			things[l.NearestID], order = m, append(order, l.NearestID)
		}
		m.n++
		if w := r.out.Legs[m.worst]; l.Verdict > w.Verdict || l.Verdict == w.Verdict && l.HorizontalM < w.HorizontalM {
			m.worst = i
		}
	}
	for _, id := range order {
		m := things[id]
		l := r.out.Legs[m.worst]
		sentence := judge.Capital(r.leg(m.worst)) + ": " + l.Sentence
		switch {
		case m.n == 2:
			sentence += " So does 1 more leg of the route."
		case m.n > 2:
			sentence += fmt.Sprintf(" So do %d more legs of the route.", m.n-1)
		}
		r.find(judge.Finding{Rule: judge.RulePath, Verdict: l.Verdict, Sentence: sentence, Lifts: "another route or height"})
	}
}

// leastPieceM is the least length of the pieces that a line is cut into, m: as long as a
// cell of the terrain is wide, but no shorter.
const leastPieceM = 5.0

// cut cuts wires and other lines into pieces that each stand on their own ground: over
// a slope the highest ground under the whole of a long line says little.
func (r *reckoning) cut(things []home.Obstacle) []home.Obstacle {
	var out []home.Obstacle
	for _, o := range things {
		if o.Kind != home.LineKind || r.Chart.Terrain == nil || !o.GroundKnown {
			out = append(out, o)
			continue
		}
		for i := 1; i < len(o.Places); i++ {
			a, way := o.Places[i-1], o.Places[i].Sub(o.Places[i-1])
			n := max(1, int(math.Ceil(geo.Dist(a, o.Places[i])/max(leastPieceM, r.Chart.Terrain.CellM))))
			for k := range n {
				piece := o
				piece.Places = []geo.XY{a.Add(way.Times(float64(k) / float64(n))), a.Add(way.Times(float64(k+1) / float64(n)))}
				if u := r.Chart.Terrain.UnderShape(home.LineKind, piece.Places, 0); u.Known {
					piece.GroundM = min(o.GroundM, u.HighM)
				}
				out = append(out, piece)
			}
		}
	}
	return out
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
		if w := out[k]; !have[k] || p.Verdict > w.Verdict || p.Verdict == w.Verdict && p.Nearest != "" &&
			(w.Nearest == "" || p.HorizontalM < w.HorizontalM) {
			out[k], have[k] = p, true
		}
	}
	return out
}

// secondPlace judges the straight ways to the second landing place at the same
// setting: that is where it goes when the first is no longer free.
func (r *reckoning) secondPlace() error {
	if r.out.Second == nil || r.out.Second.ID == r.out.TakeOff.ID {
		return nil
	}
	l := r.Type.Limits
	a, err := home.ReturnHeight(home.Question{Home: r.Chart.Frame.XY(r.out.Second.Places[0]), HomeM: r.out.HomeM,
		Route: r.way, Obstacles: r.obstacles, Terrain: r.Chart.Terrain, PositionM: PositionM, Margin: r.out.Margin,
		CeilingM: r.Law.HeightM, SettingM: &r.out.ShownM, ClimbMS: l.Climb(), DescentMS: l.Descent(),
		RouteHeight: r.overTakeOff()})
	if err != nil {
		return err
	}
	name := "To the second landing place " + r.out.Second.Name
	if a.Gaps > 0 {
		r.unknown = append(r.unknown, "on the way to the second landing place")
	}
	for _, thing := range a.Unknown {
		r.find(judge.Finding{Rule: judge.RuleReturnHeight, Verdict: judge.Stop,
			Sentence: fmt.Sprintf("%s: the height of %s in the way is not known.", name, thing),
			Lifts:    "measuring it, or another place"})
	}
	if r.out.ShownM < a.NeedM+a.MarginM-1e-6 {
		r.find(judge.Finding{Rule: judge.RuleReturnHeight, Verdict: judge.Stop,
			Sentence: fmt.Sprintf("%s it needs %.0f m above take-off over %s; %.0f m are set.", name, a.HeightM, a.Decides,
				r.out.ShownM), Lifts: "a higher setting, or another place"})
	}
	for _, x := range r.Chart.Features {
		if x.Kind == site.NoGo && home.FanReaches(r.Chart.Frame.XY(r.out.Second.Places[0]), r.way, x.Area(r.Chart.Frame),
			x.Buffer()+PositionM) {
			r.find(judge.Finding{Rule: judge.RulePath, Verdict: judge.Stop,
				Sentence: fmt.Sprintf("%s the straight way from part of the route goes over the no-go area %s.", name, x.Name),
				Lifts:    "another second place"})
		}
	}
	r.out.HighM = max(r.out.HighM, r.out.ShownM+a.MaxAGL-a.HeightM)
	return nil
}
