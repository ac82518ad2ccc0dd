package home

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"mainstay/core/geo"
	"mainstay/core/judge"
	"mainstay/core/why"
)

// Margin is how much is kept above the highest thing.
type Margin struct {
	M       float64 `json:"m"`
	Percent float64 `json:"percent"` // of the height needed; the larger of both counts
	RoundM  float64 `json:"round_m"` // rounded up to whole steps of this
}

// UsualMargin is 10 m or 20 percent, the larger, rounded up to 5 m.
var UsualMargin = Margin{10, 20, 5}

// Question is what the return height depends on.
type Question struct {
	Home        geo.XY     `json:"home"`
	HomeM       float64    `json:"home_m"` // elevation of the take-off place
	Route       []geo.XY   `json:"route"`  // in order; at least one place
	Obstacles   []Obstacle `json:"obstacles"`
	Terrain     *Terrain   `json:"terrain"` // nil: the ground is taken as level
	PositionM   float64    `json:"position_m"`
	Margin      Margin     `json:"margin"`
	TypeMinM    float64    `json:"type_min_m"`   // the type's own minimum
	CeilingM    float64    `json:"ceiling_m"`    // above ground; 0: no law gives one
	SettingM    *float64   `json:"setting_m"`    // in the aircraft now; nil: not known
	ClimbMS     float64    `json:"climb_ms"`     // of the type
	DescentMS   float64    `json:"descent_ms"`   //
	PercentMin  float64    `json:"percent_min"`  // of a pack that a minute takes; 0: not known
	RouteHeight float64    `json:"route_height"` // above take-off, at which the route is flown
}

// Answer is the height to return at, above take-off.
type Answer struct {
	NeedM     float64  `json:"need_m"`     // highest top on the way
	MarginM   float64  `json:"margin_m"`   //
	HeightM   float64  `json:"height_m"`   // to set
	Decides   string   `json:"decides"`    // what is highest
	DecidesID string   `json:"decides_id"` // its id, "" for the ground
	MaxAGL    float64  `json:"max_agl_m"`  // greatest height above ground on the way at that height
	InWay     []string `json:"in_way"`     // ids of all obstacles in the corridor
	Unknown   []string `json:"unknown"`    // obstacles in the corridor of unknown height
	// cells of the terrain under the fan that are not known; all of it is when there is no terrain
	Gaps     int             `json:"gaps"`
	Findings []judge.Finding `json:"findings"`
}

// ReturnHeight sweeps the fan of straight ways home from every place of the
// route, widened by the position error and each obstacle's buffer, and takes
// the highest top in it, two standard deviations up.
func ReturnHeight(q Question) (Answer, error) {
	if err := q.check(); err != nil {
		return Answer{}, err
	}
	out := Answer{Decides: "level ground", InWay: []string{}, Unknown: []string{}, Findings: []judge.Finding{}}
	fan := triangles(q.Home, q.Route)
	for _, o := range q.Obstacles {
		if !inFan(fan, o, o.BufferM+q.PositionM) {
			continue
		}
		out.InWay = append(out.InWay, o.ID)
		if o.HeightM == nil {
			out.Unknown = append(out.Unknown, o.Name)
			continue
		}
		if need := o.top() - q.HomeM; need > out.NeedM {
			out.NeedM, out.Decides, out.DecidesID = need, o.Name, o.ID
		}
	}
	high, low, gaps := q.Terrain.sweep(fan, q.PositionM)
	if q.Terrain != nil && !math.IsInf(high, -1) {
		if need := high + 2*q.Terrain.SigmaM - q.HomeM; need > out.NeedM {
			out.NeedM, out.Decides, out.DecidesID = need, "the ground itself", ""
		}
	}
	out.MarginM = max(q.Margin.M, out.NeedM*q.Margin.Percent/100)
	out.HeightM = max(roundUp(out.NeedM+out.MarginM, q.Margin.RoundM), q.TypeMinM)
	out.MaxAGL = out.HeightM
	if q.Terrain != nil && !math.IsInf(low, 1) {
		out.MaxAGL = max(out.HeightM, q.HomeM+out.HeightM-low)
	}
	q.judge(&out, gaps)
	return out, nil
}

func (q Question) check() error {
	if len(q.Route) == 0 {
		return why.Not(ErrInput, "there is no route")
	}
	within := func(v, lo, hi float64) bool { return v >= lo && v <= hi }
	switch {
	case !within(q.PositionM, 0, 100), !within(q.HomeM, -1000, 10000), !within(q.RouteHeight, -1000, 10000),
		!within(q.PercentMin, 0, 1000), !within(q.TypeMinM, 0, 500),
		q.SettingM != nil && !within(*q.SettingM, 0, 1000), !within(q.Margin.M, 0, 500), !within(q.Margin.Percent, 0,
			1000), !(q.Margin.RoundM > 0 && q.Margin.RoundM <= 100),
		!within(q.CeilingM, 0, 10000), !(q.ClimbMS > 0 && q.ClimbMS <= 100), !(q.DescentMS > 0 && q.DescentMS <= 100):
		return why.Not(ErrInput, "errors, margins, ceiling and speeds must be positive numbers")
	}
	if err := geo.Finite(append([]geo.XY{q.Home}, q.Route...)...); err != nil {
		return why.Not(ErrInput, "%w", err)
	}
	for _, o := range q.Obstacles {
		if err := o.check(); err != nil {
			return err
		}
	}
	return q.Terrain.check()
}

func finite(v float64) bool { return !math.IsNaN(v) && !math.IsInf(v, 0) }

func roundUp(v, step float64) float64 { return math.Ceil(v/step-1e-9) * step }

func (q Question) judge(a *Answer, gaps int) {
	find := func(v judge.Verdict, rule judge.Rule, sentence, source string) {
		a.Findings = append(a.Findings, judge.Finding{Rule: rule, Verdict: v, Sentence: sentence, Source: source,
			Evidence: "Site file."})
	}
	const usual = "usual practice"
	for _, name := range a.Unknown {
		find(judge.Stop, judge.RuleReturnHeight,
			fmt.Sprintf("The height of %s, which stands on the way home, is not known. Measure it.", name), usual)
	}
	a.Gaps = gaps
	switch {
	case q.SettingM == nil:
		find(judge.Stop, judge.RuleReturnHeight,
			fmt.Sprintf("The return height in the aircraft is not known. Set it to %.0f m.", a.HeightM), usual)
	case *q.SettingM+1e-6 < a.NeedM:
		find(judge.Stop, judge.RuleReturnHeight,
			fmt.Sprintf("The aircraft returns at %.0f m, under the top of %s at %.0f m. Set it to %.0f m.", *q.SettingM,
				a.Decides, a.NeedM, a.HeightM), usual)
	case *q.SettingM+1e-6 < a.HeightM:
		find(judge.Stop, judge.RuleReturnHeight,
			fmt.Sprintf("The aircraft returns at %.0f m: only %.0f m over %s, %.0f m are kept. Set it to %.0f m.", *q.SettingM,
				*q.SettingM-a.NeedM, a.Decides, a.MarginM, a.HeightM), usual)
	case *q.SettingM > a.HeightM+q.Margin.RoundM+1e-6:
		more := *q.SettingM - max(a.HeightM, q.RouteHeight)
		if more > 0 {
			seconds := more/q.ClimbMS + more/q.DescentMS
			cost := fmt.Sprintf("%.0f s", seconds)
			if q.PercentMin > 0 {
				cost += fmt.Sprintf(" and %.0f %% of a pack", math.Ceil(seconds/60*q.PercentMin))
			}
			find(judge.Watch, judge.RuleReturnHeight,
				fmt.Sprintf("The aircraft returns at %.0f m; %.0f m are enough. It wastes %s.", *q.SettingM, a.HeightM, cost),
				usual)
		}
	}
	slices.SortStableFunc(a.Findings, func(x, y judge.Finding) int { return cmp.Compare(y.Verdict, x.Verdict) })
}

type triangle [3]geo.XY

// triangles are the fan between home and every leg.
func triangles(home geo.XY, route []geo.XY) []triangle {
	if len(route) == 1 {
		return []triangle{{home, route[0], route[0]}}
	}
	out := make([]triangle, 0, len(route)-1)
	for i := 1; i < len(route); i++ {
		out = append(out, triangle{home, route[i-1], route[i]})
	}
	return out
}

func (t triangle) holds(p geo.XY) bool {
	side := func(a, b geo.XY) float64 { return (b.X-a.X)*(p.Y-a.Y) - (b.Y-a.Y)*(p.X-a.X) }
	s1, s2, s3 := side(t[0], t[1]), side(t[1], t[2]), side(t[2], t[0])
	return s1 >= 0 && s2 >= 0 && s3 >= 0 || s1 <= 0 && s2 <= 0 && s3 <= 0
}

// inFan reports whether an obstacle comes within reach of any triangle.
func inFan(fan []triangle, o Obstacle, reach float64) bool {
	lo, hi := bounds(o.Places)
	for _, t := range fan {
		tl, th := bounds(t[:])
		if lo.X-reach > th.X || hi.X+reach < tl.X || lo.Y-reach > th.Y || hi.Y+reach < tl.Y {
			continue
		}
		flat := t[1] == t[2] || t[0] == t[1] || t[0] == t[2] || math.Abs(geo.Ring(t[:]).Area()) < 1e-9
		if !flat && t.holds(o.Places[0]) || o.Kind == AreaKind && geo.Ring(o.Places).Holds(t[0]) {
			return true
		}
		for i := range t {
			if d, _ := o.distance(t[i], t[(i+1)%3]); d <= reach {
				return true
			}
		}
	}
	return false
}

func bounds(ps []geo.XY) (lo, hi geo.XY) {
	lo, hi = ps[0], ps[0]
	for _, p := range ps[1:] {
		lo.X, lo.Y = min(lo.X, p.X), min(lo.Y, p.Y)
		hi.X, hi.Y = max(hi.X, p.X), max(hi.Y, p.Y)
	}
	return lo, hi
}

// sweep is the highest and lowest ground under the fan grown by reach, and how
// many of its cells are gaps or outside. Each row of the grid is cut with every
// triangle and the cuts are joined, so that no cell is looked at twice; cells
// up to half a cell further out are taken in, to the safe side.
func (t *Terrain) sweep(fan []triangle, reach float64) (high, low float64, gaps int) {
	high, low = math.Inf(-1), math.Inf(1)
	if t == nil {
		return high, low, 0
	}
	lo, hi := bounds(fan[0][:])
	south, north := make([]float64, len(fan)), make([]float64, len(fan))
	for i, f := range fan {
		a, b := bounds(f[:])
		south[i], north[i] = a.Y, b.Y
		lo, hi = geo.XY{X: min(lo.X, a.X), Y: min(lo.Y, a.Y)}, geo.XY{X: max(hi.X, b.X), Y: max(hi.Y, b.Y)}
	}
	grow := reach + t.CellM/2
	first, last := int(math.Floor((lo.Y-grow-t.Origin.Y)/t.CellM)), int(math.Ceil((hi.Y+grow-t.Origin.Y)/t.CellM))
	south0, west0 := t.Origin.Y-t.CellM/2, t.Origin.X-t.CellM/2
	if lo.Y-reach < south0 || hi.Y+reach > south0+float64(t.Rows)*t.CellM || lo.X-reach < west0 ||
		hi.X+reach > west0+float64(t.Columns)*t.CellM {
		gaps++ // the fan reaches over the edge
	}
	var cuts [][2]float64
	for row := max(0, first); row <= min(t.Rows-1, last); row++ {
		y := t.Origin.Y + float64(row)*t.CellM
		cuts = cuts[:0]
		for i, f := range fan {
			if south[i] > y+grow || north[i] < y-grow {
				continue
			}
			if a, b, ok := f.between(y-grow, y+grow); ok {
				cuts = append(cuts, [2]float64{a - grow, b + grow})
			}
		}
		slices.SortFunc(cuts, func(a, b [2]float64) int { return cmp.Compare(a[0], b[0]) })
		done, cells := 0, t.Heights[row*t.Columns:(row+1)*t.Columns]
		top, foot := float32(math.Inf(-1)), float32(math.Inf(1))
		for _, c := range cuts {
			from, to := max(done, int(math.Ceil((c[0]-t.Origin.X)/t.CellM))), min(t.Columns-1,
				int(math.Floor((c[1]-t.Origin.X)/t.CellM)))
			for col := from; col <= to; col++ {
				v := cells[col]
				if v != v {
					gaps++
					continue
				}
				top, foot = max(top, v), min(foot, v)
			}
			done = max(done, to+1)
		}
		high, low = max(high, float64(top)), min(low, float64(foot))
	}
	return high, low, gaps
}

// between is the range of x that a triangle covers in a band of y.
func (t triangle) between(y0, y1 float64) (a, b float64, ok bool) {
	a, b = math.Inf(1), math.Inf(-1)
	take := func(x float64) { a, b, ok = min(a, x), max(b, x), true }
	for i := range t {
		p, q := t[i], t[(i+1)%3]
		if p.Y >= y0 && p.Y <= y1 {
			take(p.X)
		}
		for _, y := range [2]float64{y0, y1} {
			if (p.Y-y)*(q.Y-y) < 0 {
				take(p.X + (q.X-p.X)*(y-p.Y)/(q.Y-p.Y))
			}
		}
	}
	return a, b, ok
}
