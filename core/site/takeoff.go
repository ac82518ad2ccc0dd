package site

import (
	"fmt"
	"math"
	"strings"

	"mainstay/core/geo"
	"mainstay/core/judge"
)

// Distances kept from a take-off place, m (usual practice).
const (
	FromObstacle     = 10.0 // beyond its buffer
	FromWires        = 30.0
	FromInterference = 30.0
	FromSensitive    = 30.0
)

// Judgement is one thing found about a place.
type Judgement struct {
	Verdict  judge.Verdict `json:"verdict"`
	Sentence string        `json:"sentence"`
}

// JudgeTakeOff judges a take-off place: what was found on the ground, and how
// near everything else lies. What was not looked at is Watch, never good.
func JudgeTakeOff(t Feature, all []Feature, frame geo.Frame) []Judgement {
	out := groundFindings(t.Ground)
	at := frame.XY(t.Places[0])
	for _, f := range all {
		if f.ID == t.ID {
			continue
		}
		d, inside := distance(at, f, frame)
		keep := map[Kind]float64{Obstacle: FromObstacle + f.Buffer(), Wires: max(FromWires, f.Buffer()),
			Interference: max(FromInterference, f.Buffer()), Sensitive: max(FromSensitive, f.Buffer())}[f.Kind]
		name := f.Name
		if name == "" {
			name = string(f.Kind)
		}
		switch {
		case f.Kind == NoGo && inside:
			out = append(out, Judgement{judge.Stop, "It lies inside the no-go area " + name + "."})
		case keep == 0 || d >= keep:
		case f.Kind == Wires:
			out = append(out, Judgement{judge.Stop,
				fmt.Sprintf("%s: wires %.0f m away, %.0f m are kept. Never start under or beside wires.", name, d, keep)})
		case f.Kind == Obstacle:
			out = append(out, Judgement{judge.Stop, fmt.Sprintf("%s stands %.0f m away, %.0f m are kept.", name, d, keep)})
		case f.Kind == Interference:
			out = append(out, Judgement{judge.Watch,
				fmt.Sprintf("%s, %.0f m away, disturbs compass and positioning: do not calibrate here; better start %.0f m off.",
					name, d, keep)})
		default:
			out = append(out, Judgement{judge.Watch, fmt.Sprintf("%s (%s) is %.0f m away.", name, f.What, d)})
		}
	}
	return out
}

func groundFindings(g *GroundCheck) []Judgement {
	if g == nil {
		return []Judgement{{judge.Watch, "The ground of the take-off place has not been looked at."}}
	}
	out := []Judgement{}
	var unknown []string
	for _, c := range []struct {
		v           *bool
		name, wrong string
		verdict     judge.Verdict
	}{
		{g.Flat, "flat", "It is not flat.", judge.Stop},
		{g.Firm, "firm", "It is not firm.", judge.Stop},
		{g.Clear, "clear", "It is not clear.", judge.Stop},
		{g.NoPlastic, "loose plastic", "Loose plastic or film lies about: a bag in a propeller brings it down. Pick it up.",
			judge.Stop},
		{g.NoDust, "dust", "Dust: use a landing pad or wet the place.", judge.Watch},
		{g.NoPeople, "road and people", "It is on a road or near a crowd.", judge.Stop},
	} {
		switch {
		case c.v == nil:
			unknown = append(unknown, c.name)
		case !*c.v:
			out = append(out, Judgement{c.verdict, c.wrong})
		}
	}
	if len(unknown) > 0 {
		out = append(out, Judgement{judge.Watch, "Not looked at: " + strings.Join(unknown, ", ") + "."})
	}
	return out
}

// distance from a place to a feature, m; inside an area it is 0.
func distance(p geo.XY, f Feature, frame geo.Frame) (d float64, inside bool) {
	ps := frame.All(f.Places)
	switch f.Shape {
	case Point:
		return geo.Dist(p, ps[0]), false
	case Area:
		if f.Area(frame).Holds(p) {
			return 0, true
		}
		return geo.Ring(ps).ToEdge(p), false
	}
	d = math.Inf(1)
	for i := 1; i < len(ps); i++ {
		q, _ := geo.Nearest(p, ps[i-1], ps[i])
		d = min(d, geo.Dist(p, q))
	}
	return d, false
}

// Stand is where the crew stands: behind the aircraft, which starts into the
// wind, at the stand-off distance downwind. fromDeg is where the wind comes
// from, degrees true.
func Stand(takeOff geo.Point, fromDeg, distM float64, frame geo.Frame) geo.Point {
	s, c := math.Sincos((fromDeg + 180) * math.Pi / 180)
	return frame.Point(frame.XY(takeOff).Add(geo.XY{X: s * distM, Y: c * distM}))
}

// Cover is something to get behind.
type Cover struct {
	Name      string    `json:"name"`
	Place     geo.Point `json:"place"` // the nearest place of it
	DistanceM float64   `json:"distance_m"`
}

// CoverAtMost is how far away cover is still reached in time, m, and
// coverHalfAngle how far to the side of straight behind it may lie, degrees.
const (
	CoverAtMost    = 60.0
	coverHalfAngle = 75.0
)

// FindCover looks for something solid to get behind, downwind of a take-off
// place and at least standM, the stand-off distance, away; nil when nothing of the
// kind is charted. fromDeg is where the wind comes from, degrees true.
func FindCover(takeOff geo.Point, fromDeg, standM float64, all []Feature, frame geo.Frame) *Cover {
	at := frame.XY(takeOff)
	var best *Cover
	for _, f := range all {
		if f.Kind != Obstacle || f.HeightM == nil || *f.HeightM < 1.5 {
			continue
		}
		ps := frame.All(f.Places)
		near, d := ps[0], geo.Dist(at, ps[0])
		for i := range ps {
			if f.Shape == Point || f.Shape == Line && i == len(ps)-1 {
				break
			}
			if q, _ := geo.Nearest(at, ps[i], ps[(i+1)%len(ps)]); geo.Dist(at, q) < d {
				near, d = q, geo.Dist(at, q)
			}
		}
		bearing := math.Atan2(near.X-at.X, near.Y-at.Y) * 180 / math.Pi
		if d < standM || d > CoverAtMost || math.Abs(geo.AngleBetween(fromDeg+180, bearing)) > coverHalfAngle {
			continue
		}
		if best == nil || d < best.DistanceM {
			best = &Cover{Name: f.Name, Place: frame.Point(near), DistanceM: d}
		}
	}
	return best
}
