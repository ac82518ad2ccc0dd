package home

import (
	"fmt"
	"math"

	"mainstay/core/geo"
	"mainstay/core/judge"
	"mainstay/core/why"
)

// Place3 is a place of a path with its elevation.
type Place3 struct {
	At geo.XY  `json:"at"`
	M  float64 `json:"m"` // elevation, same datum as the obstacles
}

// Leg is how one leg of a path passes what stands there.
type Leg struct {
	Nearest     string        `json:"nearest"` // name of the obstacle that comes nearest, "" for none
	NearestID   string        `json:"nearest_id"`
	HorizontalM float64       `json:"horizontal_m"` // clear of buffer and position error; negative: inside
	VerticalM   *float64      `json:"vertical_m"`   // over its top there; nil: its height is not known
	Verdict     judge.Verdict `json:"verdict"`
	Sentence    string        `json:"sentence"`
}

// VerticalClear is what is usually kept over a thing that is passed overhead, m.
const VerticalClear = 10.0

// Standing is what stands on a site, and how clear of it a way is kept: beside it by its own
// buffer and the error of positions (0-100 m), over it by OverM (0-200 m).
type Standing struct {
	Obstacles        []Obstacle
	PositionM, OverM float64
}

// Clearance holds every leg of a path against the obstacles. A leg may pass
// beside a thing outside its buffer and the position error, or over it with
// OverM to spare; a wire or a thing of unknown height in the way is
// Stop: no automatic start, fly it by hand, go round, or move the start.
func Clearance(path []Place3, s Standing) ([]Leg, error) {
	if len(path) < 2 || !(s.PositionM >= 0 && s.PositionM <= 100) || !(s.OverM >= 0 && s.OverM <= 200) {
		return nil, why.Not(ErrInput, "a path has at least two places")
	}
	for _, o := range s.Obstacles {
		if err := o.check(); err != nil {
			return nil, err
		}
	}
	for _, p := range path {
		if err := geo.Finite(p.At); err != nil || !finite(p.M) {
			return nil, why.Not(ErrInput, "a place of the path is no number")
		}
	}
	boxes := boxesOf(s.Obstacles)
	legs := make([]Leg, len(path)-1)
	for i := range legs {
		legs[i] = s.leg(path[i], path[i+1], boxes)
	}
	return legs, nil
}

// box is the least upright rectangle round a thing.
type box struct{ lo, hi geo.XY }

func boxesOf(obstacles []Obstacle) []box {
	out := make([]box, len(obstacles))
	for i, o := range obstacles {
		out[i].lo, out[i].hi = bounds(o.Places)
	}
	return out
}

func (s Standing) leg(a, b Place3, boxes []box) Leg {
	out := Leg{HorizontalM: math.Inf(1), Verdict: judge.Clear}
	worst := judge.Clear
	var decides *Obstacle
	lo, hi := bounds([]geo.XY{a.At, b.At})
	for i := range s.Obstacles {
		o := &s.Obstacles[i]
		keep := o.BufferM + s.PositionM
		if boxes[i].far(lo, hi, keep+max(0, out.HorizontalM)) {
			continue
		}
		d, t := o.distance(a.At, b.At)
		clear := d - keep
		var over *float64
		if o.HeightM != nil {
			low := a.M + (b.M-a.M)*t
			if clear < 0 { // the lowest end of what passes inside counts
				low = min(low, a.M, b.M)
			}
			v := low - o.top()
			over = &v
		}
		v := judge.Clear
		if clear < 0 && (over == nil || *over < s.OverM) {
			v = judge.Stop
		}
		if v > worst || v == worst && clear < out.HorizontalM {
			worst, out.Nearest, out.NearestID, out.HorizontalM, out.VerticalM, out.Verdict = v, o.Name, o.ID, clear, over, v
			decides = o
		}
	}
	if decides != nil {
		out.Sentence = sentence(*decides, out.HorizontalM, out.VerticalM, out.Verdict, s.OverM)
	}
	if decides == nil {
		out.HorizontalM, out.Sentence = 0, "Nothing stands on the site."
	}
	return out
}

func (b box) far(lo, hi geo.XY, reach float64) bool {
	return b.lo.X-reach > hi.X || b.hi.X+reach < lo.X || b.lo.Y-reach > hi.Y || b.hi.Y+reach < lo.Y
}

func sentence(o Obstacle, clear float64, over *float64, v judge.Verdict, overM float64) string {
	switch {
	case v == judge.Stop && over == nil:
		return fmt.Sprintf("%s of unknown height is in the way: no automatic start. Measure it, go round, fly it by hand or move the take-off place.",
			o.Name)
	case v == judge.Stop && o.Wire && *over >= 0:
		return fmt.Sprintf("It passes only %.1f m over the wires of %s; %g m are kept: no automatic start. Go round, fly it by hand or move the take-off place.",
			math.Floor(*over*10)/10, o.Name, overM)
	case v == judge.Stop && o.Wire:
		return fmt.Sprintf("It meets the wires of %s: no automatic start. Go round, fly it by hand or move the take-off place.",
			o.Name)
	case v == judge.Stop && *over < 0:
		return fmt.Sprintf("It runs into %s, %.0f m under its top. Go round, or higher.", o.Name, -*over)
	case v == judge.Stop:
		return fmt.Sprintf("It passes only %.0f m over %s; %.0f m are kept. Go round, or higher.", *over, o.Name, overM)
	case clear < 0:
		return fmt.Sprintf("It passes %.0f m over %s.", *over, o.Name)
	}
	return fmt.Sprintf("It passes %s with %.0f m to spare beside its buffer.", o.Name, clear)
}

// corners of the polygon that stands for a circle when a way round is looked
// for.
const corners = 12

// WayRound is the shortest path from a to b at one elevation that stays clear
// of every obstacle it does not pass over, and inside the permitted area when
// one is given; it holds both ends. An error says that there is none.
func WayRound(a, b geo.XY, elevationM float64, s Standing, inside *geo.Area) ([]geo.XY, error) {
	var block []Obstacle
	for _, o := range s.Obstacles {
		if err := o.check(); err != nil {
			return nil, err
		}
		if o.HeightM == nil || elevationM-o.top() < s.OverM {
			block = append(block, o)
		}
	}
	nodes, boxes := []geo.XY{a, b}, boxesOf(block)
	free := func(p, q geo.XY) bool {
		lo, hi := bounds([]geo.XY{p, q})
		for i := range block {
			keep := block[i].BufferM + s.PositionM - 1e-6
			if boxes[i].far(lo, hi, keep) {
				continue
			}
			if d, _ := block[i].distance(p, q); d < keep {
				return false
			}
		}
		return inside == nil || stays(p, q, *inside)
	}
	if free(a, b) {
		return nodes, nil
	}
	for _, end := range []geo.XY{a, b} {
		if !free(end, end) {
			return nil, why.Not(ErrInput, "an end of the way lies inside a buffer or outside the permitted area")
		}
	}
	for _, o := range block {
		if len(nodes) > 600 {
			return nil, why.Not(ErrInput, "too many obstacles are in the way; move the take-off place")
		}
		// The outer polygon of a circle clears it, and so does its convex sum
		// with the obstacle.
		r := (o.BufferM + s.PositionM + 0.5) / math.Cos(math.Pi/corners)
		var grown []geo.XY
		for _, p := range o.Places {
			for k := range corners {
				s, c := math.Sincos(2 * math.Pi * float64(k) / corners)
				grown = append(grown, geo.XY{X: p.X + r*c, Y: p.Y + r*s})
			}
		}
		for _, p := range geo.Hull(grown) {
			if free(p, p) {
				nodes = append(nodes, p)
			}
		}
	}
	path := shortest(nodes, free)
	if path == nil {
		return nil, why.Not(ErrInput, "there is no way round that stays clear; move the take-off place or fly it by hand")
	}
	return path, nil
}

// shortest is Dijkstra from node 0 to node 1 over the pairs that see each
// other; sight is asked for only when a pair could matter.
func shortest(nodes []geo.XY, free func(a, b geo.XY) bool) []geo.XY {
	n := len(nodes)
	dist, from, done := make([]float64, n), make([]int, n), make([]bool, n)
	for i := range dist {
		dist[i] = math.Inf(1)
	}
	dist[0] = 0
	for {
		at := -1
		for i := range n {
			if !done[i] && !math.IsInf(dist[i], 1) && (at < 0 || dist[i] < dist[at]) {
				at = i
			}
		}
		if at < 0 {
			return nil
		}
		if at == 1 {
			break
		}
		done[at] = true
		for j := range n {
			if d := dist[at] + geo.Dist(nodes[at], nodes[j]); !done[j] && d < dist[j] && free(nodes[at], nodes[j]) {
				dist[j], from[j] = d, at
			}
		}
	}
	path := []geo.XY{nodes[1]}
	for i := from[1]; ; i = from[i] {
		path = append([]geo.XY{nodes[i]}, path...)
		if i == 0 {
			return path
		}
	}
}

// stays reports whether a segment stays inside an area.
func stays(p, q geo.XY, a geo.Area) bool {
	if !a.Holds(p) || !a.Holds(q) || !a.Holds(p.Add(q).Times(0.5)) {
		return false
	}
	for _, r := range append([]geo.Ring{a.Outline}, a.Holes...) {
		for i := range r {
			if proper(p, q, r[i], r[(i+1)%len(r)]) {
				return false
			}
		}
	}
	return true
}

// proper reports whether two segments cross inside both.
func proper(a, b, c, d geo.XY) bool {
	if !geo.Cross(a, b, c, d) {
		return false
	}
	for _, p := range []geo.XY{c, d} {
		if n, _ := geo.Nearest(p, a, b); geo.Dist(n, p) < 1e-9 {
			return false
		}
	}
	for _, p := range []geo.XY{a, b} {
		if n, _ := geo.Nearest(p, c, d); geo.Dist(n, p) < 1e-9 {
			return false
		}
	}
	return true
}

// Profile is the way home in side view.
type Profile struct {
	Section           // from the route's place to home
	ReturnM   float64 `json:"return_m"`   // elevation of the return
	CeilingOK bool    `json:"ceiling_ok"` // everywhere under the ceiling
}

// Step is one place along the way.
type Step struct {
	AlongM  float64  `json:"along_m"`
	GroundM *float64 `json:"ground_m"` // elevation; nil: not known
}

// Top is an obstacle that reaches into the way.
type Top struct {
	ID     string   `json:"id"`
	Name   string   `json:"name"`
	FromM  float64  `json:"from_m"` // along the way
	ToM    float64  `json:"to_m"`
	FootM  float64  `json:"foot_m"` // elevation
	TopM   *float64 `json:"top_m"`  // best estimate; nil: not known
	SigmaM float64  `json:"sigma_m"`
}

// SideView cuts the site along the straight way home from the farthest place
// of the route, in steps of about a hundredth of it.
func SideView(q Question, heightM float64) (Profile, error) {
	if err := q.check(); err != nil {
		return Profile{}, err
	}
	from := q.Route[0]
	for _, p := range q.Route {
		if geo.Dist(p, q.Home) > geo.Dist(from, q.Home) {
			from = p
		}
	}
	cut, err := Along([]geo.XY{from, q.Home}, q.Terrain, &q.HomeM, q.Obstacles, q.PositionM)
	if err != nil {
		return Profile{}, err
	}
	out := Profile{Section: cut, ReturnM: q.HomeM + heightM, CeilingOK: true}
	for _, s := range cut.Steps {
		if s.GroundM != nil {
			out.CeilingOK = out.CeilingOK && (q.CeilingM == 0 || out.ReturnM-*s.GroundM <= q.CeilingM+1e-6)
		}
	}
	return out, nil
}
