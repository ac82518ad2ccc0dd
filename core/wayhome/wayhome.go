package wayhome

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"mainstay/core/airframe"
	"mainstay/core/geo"
	"mainstay/core/home"
	"mainstay/core/intent"
	"mainstay/core/judge"
	"mainstay/core/rules"
	"mainstay/core/site"
	"mainstay/core/wind"
)

// PositionM is the error of the position in flight (usual practice).
const PositionM = 3.0

// margin is what the crew keeps over the highest thing, rounded up as usual.
func margin(t airframe.Type) home.Margin {
	m, percent := t.Kept().Margin()
	return home.Margin{M: m, Percent: percent, RoundM: home.UsualMargin.RoundM}
}

// Question is a flight over a chart.
type Question struct {
	Chart     Chart
	Type      airframe.Type
	TypeKnown bool // false: Type stands in with usual values
	Law       rules.Law
	Flight    intent.Flight
	MaxLegs   int // of the answer; 0: all
}

// Answer is how the flight stands over the chart.
type Answer struct {
	Return    home.Answer
	Margin    home.Margin
	Profile   home.Profile
	RouteM    float64
	Datum     intent.Datum
	TakeOff   site.Feature
	Landing   site.Feature
	Second    *site.Feature // second landing place; nil: none chosen
	Route     []geo.Point
	Legs      []home.Leg // from take-off along the route
	WayRound  []geo.Point
	NoWay     string      // why there is no way round
	StandOffM float64     // how far from the aircraft the crew stands
	Stand     *geo.Point  // where the crew stands in the wind of the latest weather; nil: wind not known
	Cover     *site.Cover // behind, in that wind; nil: none is charted
	Wind      *wind.Landing
	Clear     []float64 // of the free headings, those whose sectors are clear of what is charted
	Sectored  bool      // the sectors were looked at
	FarM      float64   // farthest place of the route from take-off
	Far       geo.Point
	HomeM     float64 // elevation of the take-off place
	ShownM    float64 // return height above take-off that is judged: as set, or else as recommended
	CeilingM  float64 // above ground, as the law gives it here; 0: none
	// HomeSpeedMS is the speed over the ground from the farthest place, in the
	// steady wind at that height; nil: wind or speed of the type is not known.
	HomeSpeedMS *float64
	HighM       float64  // highest place above ground, route and way home
	TopM        float64  // highest elevation of both
	Relief      *Relief  // of the ground under the legs of a planned route; nil: no plan
	OverTopM    *float64 // over the top of the structure that the route stays near; nil: none
	PeopleM     *float64 // to where people are, as charted; nil: nothing of the kind is
	Findings    []judge.Finding
}

type reckoning struct {
	Question
	out       Answer
	way       []geo.XY
	at        geo.XY   // take-off
	in        int      // of the way: places of ways round before the route
	starts    []geo.XY // where flights begin on the route
	obstacles []home.Obstacle
	unknown   []string // where the ground is not known
}

// Reckon works out what follows from chart, type and flight, whatever the air.
// Errors are ErrNotReady, ErrNoElevation, or wrap home.ErrInput.
func Reckon(q Question) (Answer, error) {
	if err := q.Flight.Check(); err != nil {
		return Answer{}, err
	}
	r := reckoning{Question: q, way: q.Chart.Way()}
	if p := q.Flight.Plan; p != nil {
		r.way, r.starts = q.Chart.Frame.All(p.Passes), q.Chart.Frame.All(p.Starts)
	}
	if len(r.starts) == 0 && len(r.way) > 0 {
		r.starts = r.way[:1]
	}
	r.out.Findings = []judge.Finding{}
	start := q.Chart.Place(q.Flight.TakeOff)
	if start == nil || len(r.way) == 0 {
		return Answer{}, ErrNotReady
	}
	if !q.Chart.comparable() {
		return Answer{}, ErrNoElevation
	}
	r.places(*start)
	if r.out.Landing.ID != start.ID { // the way to where it lands is flown like the route
		r.way = append(r.way, r.Chart.Frame.XY(r.out.Landing.Places[0]))
	}
	r.heights()
	r.obstacles = site.Standing(q.Chart.Features, q.Chart.Frame, q.Chart.Terrain, q.Chart.Reference())
	for _, step := range []func() error{r.wayIn, r.returns, r.highest, r.relief, r.path, r.secondPlace, r.sectors} {
		if err := step(); err != nil {
			return r.out, err
		}
	}
	r.fan()
	r.ceiling()
	r.ground()
	return r.out, nil
}

func (r *reckoning) find(f judge.Finding) {
	if f.Source == "" {
		f.Source = rules.Usual
	}
	if f.Evidence == "" {
		f.Evidence = "Site file."
	}
	r.out.Findings = append(r.out.Findings, f)
}

// places takes over where it starts and lands. A place that was chosen and is
// no longer on the map is said.
func (r *reckoning) places(start site.Feature) {
	r.out.TakeOff, r.out.Landing = start, start
	gone := func(what string) {
		r.find(judge.Finding{Rule: judge.RuleTakeOff, Verdict: judge.Stop,
			Sentence: "The " + what + " that was chosen is no longer on the map.", Lifts: "choosing another"})
	}
	if id := r.Flight.Landing; id != "" {
		if p := r.Chart.Place(id); p != nil {
			r.out.Landing = *p
		} else {
			gone("landing place")
		}
	}
	if id := r.Flight.Second; id != "" {
		if r.out.Second = r.Chart.Place(id); r.out.Second == nil {
			gone("second landing place")
		}
	}
	if id := r.Flight.TakeOff; id != "" && start.ID != id {
		gone("take-off place")
	}
	r.at = r.Chart.Frame.XY(start.Places[0])
	home, known := r.Chart.Elevation(start)
	r.out.HomeM = home
	if !known {
		r.unknown = append(r.unknown, "at the take-off place")
	}
}

// heights of the route: as planned, or else the usual ones of type and work.
func (r *reckoning) heights() {
	r.out.RouteM, r.out.Datum, r.out.Margin, r.out.CeilingM = float64(r.Type.Limits.FlightHeightM), r.Flight.Datum,
		margin(r.Type), r.Law.HeightM
	if r.out.Datum == "" {
		r.out.Datum = intent.Usual(r.Flight.Work)
	}
	if r.Flight.RouteM != nil {
		r.out.RouteM = *r.Flight.RouteM
	} else if r.out.Datum == intent.AboveSea {
		r.out.Datum = intent.AboveTakeOff
	}
}

// returns works out the return height and its side view.
func (r *reckoning) returns() error {
	l := r.Type.Limits
	q := home.Question{Home: r.at, HomeM: r.out.HomeM, Route: r.way, Obstacles: r.obstacles, Terrain: r.Chart.Terrain,
		PositionM: PositionM, Margin: r.out.Margin, CeilingM: r.Law.HeightM,
		SettingM: r.Flight.ReturnM, ClimbMS: l.Climb(), DescentMS: l.Descent(), RouteHeight: r.overTakeOff(),
		TypeMinM: float64(l.LeastReturnM)}
	if m := l.PlannedMinutes; m > 0 {
		q.PercentMin = (r.Type.LaunchPercent() - float64(l.LandByPercent)) / m
	}
	a, err := home.ReturnHeight(q)
	if err != nil {
		return err
	}
	r.out.Return, r.out.ShownM = a, a.HeightM
	if r.Flight.ReturnM != nil {
		r.out.ShownM = *r.Flight.ReturnM
	}
	if a.Gaps > 0 {
		r.unknown = append(r.unknown, "on the way home")
	}
	if r.out.Profile, err = home.SideView(q, r.out.ShownM); err != nil {
		return err
	}
	for _, p := range r.way {
		r.out.Route = append(r.out.Route, r.Chart.Frame.Point(p))
		if d := geo.Dist(r.at, p); d >= r.out.FarM {
			r.out.FarM, r.out.Far = d, r.Chart.Frame.Point(p)
		}
	}
	for _, f := range a.Findings {
		if f.Verdict == judge.Stop && len(a.Unknown) == 0 {
			f.Decide = []string{string(intent.SetReturn), string(intent.OtherPlace)}
			f.Lifts = "setting it in the aircraft"
		}
		r.find(f)
	}
	for _, o := range r.obstacles {
		if !o.GroundKnown && slices.Contains(a.InWay, o.ID) {
			r.unknown = append(r.unknown, "under "+o.Name)
		}
	}
	return nil
}

// overTakeOff is the height of the route over the take-off place, for a route
// over the ground as if that were level.
func (r *reckoning) overTakeOff() float64 {
	if r.out.Datum == intent.AboveSea {
		return r.out.RouteM - r.out.HomeM
	}
	return r.out.RouteM
}

// points is the path from take-off along the route with its elevations, and
// which leg each piece of it belongs to.
func (r *reckoning) points() (path []home.Place3, leg []int) {
	return r.rise(append([]geo.XY{r.at}, r.way...))
}

// rise is a way over the ground with its elevations, and which leg each piece is of.
func (r *reckoning) rise(places []geo.XY) (path []home.Place3, leg []int) {
	if r.out.Datum == intent.AboveGround {
		return home.Following(places, r.Chart.Terrain, r.out.HomeM, r.out.RouteM)
	}
	level := intent.Level(r.out.Datum, r.out.RouteM, r.out.HomeM)
	for i, p := range places {
		path = append(path, home.Place3{At: p, M: level})
		if i > 0 {
			leg = append(leg, i-1)
		}
	}
	return path, leg
}

// highest is the highest place above ground that the flight really reaches:
// along the route, and on the way home at the height that is set.
func (r *reckoning) highest() error {
	path, leg := r.points()
	over, err := home.OverGround(path, r.Chart.Terrain, r.out.HomeM, PositionM)
	if err != nil {
		return err
	}
	r.out.HighM = r.out.ShownM + r.out.Return.MaxAGL - r.out.Return.HeightM
	top := r.out.HomeM + r.out.ShownM
	least, low := intent.LeastGround(r.Type, r.Flight.Work), map[int]float64{}
	gaps := false
	for i, g := range over {
		r.out.HighM = max(r.out.HighM, g.HighestM)
		top = max(top, path[i].M, path[i+1].M)
		gaps = gaps || !g.Known && r.Chart.Terrain != nil
		if r.out.Datum == intent.AboveGround {
			g.LowestM = r.out.RouteM
		}
		if v, ok := low[leg[i]]; !ok || g.LowestM < v {
			low[leg[i]] = g.LowestM
		}
	}
	if gaps {
		r.unknown = append(r.unknown, "under the route")
	}
	worst, at := math.Inf(1), 0
	for k := 0; k < len(r.way); k++ {
		if v, ok := low[k]; ok && v < worst {
			worst, at = v, k
		}
	}
	name := "On " + r.leg(at)
	if at == 0 {
		name = "On the way to the start of the route"
	}
	switch {
	case worst < 0:
		r.find(judge.Finding{Rule: judge.RulePath, Verdict: judge.Stop,
			Sentence: fmt.Sprintf("%s it flies into the ground, %.0f m under its top. Fly higher, follow the ground, or split the area.",
				name, -worst), Lifts: "a higher route"})
	case worst < least-1e-9:
		r.find(judge.Finding{Rule: judge.RulePath, Verdict: judge.Stop,
			Sentence: fmt.Sprintf("%s only %.1f m are left over the ground; %.1f m are kept for this work.", name, worst, least),
			Lifts:    "a higher route"})
	}
	r.out.TopM = top
	r.out.OverTopM, r.out.PeopleM = r.Chart.overTop(r.way, top,
		r.Law.StructureWithin), r.Chart.nearPeople(append([]geo.XY{r.at}, r.way...))
	return nil
}

// ceiling holds the highest place against the law, over a structure against
// what it allows there.
func (r *reckoning) ceiling() {
	l, o := r.Law, &r.out
	switch {
	case !l.Over(o.HighM):
	case o.OverTopM != nil && o.HighM-*o.OverTopM > l.StructureTall && *o.OverTopM <= l.StructureOver+0.005:
	default:
		r.find(judge.Finding{Rule: judge.RuleHeight, Verdict: judge.Stop, Source: l.HeightCite, Limit: true,
			Lifts: "flying lower, or another take-off place", Decide: []string{string(intent.OtherPlace)},
			Sentence: fmt.Sprintf("Route and way home at %.0f m reach %.0f m above the ground; the limit is %s. Move the take-off place, or fly and return lower.",
				o.ShownM, o.HighM, l.HeightLimit())})
	}
}

// fan holds the whole fan of straight ways home against no-go areas.
func (r *reckoning) fan() {
	for _, x := range r.Chart.Features {
		if x.Kind == site.NoGo && home.FanReaches(r.at, r.way, x.Area(r.Chart.Frame), x.Buffer()+PositionM) {
			r.find(judge.Finding{Rule: judge.RulePath, Verdict: judge.Stop,
				Sentence: fmt.Sprintf("The straight way home from part of the route goes over the no-go area %s.", x.Name),
				Lifts:    "another take-off place, or another route", Decide: []string{string(intent.OtherPlace)}})
		}
	}
}

// ground says where the ground is not known: what is not known weighs as if it
// rose into the flight, until a named person puts on record that it does not.
func (r *reckoning) ground() {
	where := "nobody has brought any terrain"
	if r.Chart.Terrain != nil {
		if len(r.unknown) == 0 {
			return
		}
		where = "the terrain does not cover it " + list(r.unknown)
	}
	f := judge.Finding{Rule: judge.RuleGround, Verdict: judge.Stop,
		Sentence: "The ground is not known: " + where +
			". Bring the terrain, or look at it and put on record that it is level.",
		Lifts:  "pilot in command or chief, after looking at the ground",
		Decide: []string{string(intent.LevelGround)}, Basis: fmt.Sprint("ground ", where, r.out.TakeOff.ID, r.way)}
	r.decide(&f, intent.LevelGround)
	r.find(f)
}

// decide turns a finding into Watch when a decision of a named person about it
// holds, and says when one no longer does.
func (r *reckoning) decide(f *judge.Finding, kinds ...intent.Kind) {
	found, void := r.Flight.About(f.Basis, kinds...)
	switch {
	case found != nil:
		f.Verdict, f.Sentence = judge.Watch, f.Sentence+" "+found.Says()
	case void != nil:
		f.Sentence += fmt.Sprintf(" What %s decided on %s no longer holds: the flight has changed.", void.By,
			void.At.UTC().Format("2006-01-02 15:04"))
	}
}

func list(words []string) string {
	var once []string
	for _, w := range words {
		if !slices.Contains(once, w) {
			once = append(once, w)
		}
	}
	return strings.Join(once, ", ")
}
