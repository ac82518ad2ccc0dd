package sites

import (
	"context"
	"fmt"
	"math"
	"slices"
	"strings"

	"github.com/google/uuid"

	"mainstay/core/airframe"
	"mainstay/core/geo"
	"mainstay/core/home"
	"mainstay/core/judge"
	"mainstay/core/site"
	"mainstay/core/units"
	"mainstay/core/weather"
	"mainstay/core/wind"
	"mainstay/internal/platform/fault"
)

// Usual values where a type says nothing.
const (
	positionM = 3.0    // error of the position in flight
	ceilingM  = 121.92 // 400 ft above ground, 14 CFR 107.51(b)
)

// Ask is what the way home is asked for.
type Ask struct {
	Aircraft *uuid.UUID
	SettingM *float64 // return height in the aircraft
	RouteM   *float64 // height of the route above take-off; nil: the type's usual
}

// WayHome is the answer.
type WayHome struct {
	Answer   home.Answer
	Margin   home.Margin // as the crew keeps it
	Profile  home.Profile
	RouteM   float64
	TakeOff  site.Feature
	Route    []geo.Point
	Legs     []home.Leg  // from take-off along the route
	WayRound []geo.Point // proposed from take-off to the first place; nil: not needed
	NoWay    string      // why there is none
	Stand    *geo.Point  // where the crew stands in the wind of the latest weather; nil: wind not known
	Cover    *site.Cover // behind, in that wind; nil: none is charted
	Landing  *wind.Landing
	Clear    []float64 // of the free headings, those whose sectors are clear of what is charted
	Sectored bool      // the sectors were looked at
	FarM     float64   // farthest place of the route from take-off
	Far      geo.Point
	ShownM   float64 // return height above take-off that is judged: as set, or else as recommended
	// HomeSpeedMS is the speed over the ground from there, in the steady wind at
	// that height; nil: wind or speed of the type is not known.
	HomeSpeedMS *float64
	HighM       float64  // greatest height above ground, route and way home
	OverTopM    *float64 // over the top of the structure that the route stays near; nil: none
	Findings    []judge.Finding
}

// WayHome judges the way out and home. What does not depend on the air is kept
// until the site file changes.
func (s *Service) WayHome(ctx context.Context, id uuid.UUID, ask Ask) (WayHome, error) {
	t, err := s.typeOf(ctx, ask.Aircraft)
	if err != nil {
		return WayHome{}, err
	}
	b, err := s.charted(ctx, id, t, ask)
	if err != nil {
		return WayHome{}, err
	}
	if b.noWay != nil {
		return WayHome{}, b.noWay
	}
	out := b.way
	out.Findings = slices.Clone(out.Findings)
	if ask.Aircraft == nil { // usual values are nobody's values
		out.Findings = append(out.Findings, judge.Finding{Rule: "return-height", Verdict: judge.Watch, Sentence: "No aircraft is chosen: usual rates and height of flight are taken.", Source: "maker's manual", Evidence: "Choice of aircraft.", Lifts: "choosing the aircraft"})
	}
	air, _, err := s.latest(ctx, id)
	if err != nil {
		return out, err
	}
	err = out.intoWind(air, b.file.Plain(), b.frame, t)
	return out, err
}

// Reckon works out what follows from the site file alone.
func (f File) Reckon(t airframe.Type, margin home.Margin, ask Ask) (WayHome, error) {
	frame, err := f.Frame()
	if err != nil {
		return WayHome{}, err
	}
	start, way := f.TakeOff(), f.Way(frame)
	if start == nil || len(way) == 0 {
		return WayHome{}, fault.Clash("site-not-ready", "Put a take-off place and an area or a route on the map first; then the way home can be judged.")
	}
	out := WayHome{Margin: margin, TakeOff: *start, RouteM: float64(t.Limits.FlightHeightM)}
	if ask.RouteM != nil {
		out.RouteM = *ask.RouteM
	}
	terrain := f.Terrain.in(frame)
	at := frame.XY(start.Places[0])
	homeM := f.Site.ElevationM
	if start.GroundM != nil {
		homeM = *start.GroundM
	} else if g, ok := terrain.At(at); ok {
		homeM = g
	}
	obstacles := site.Standing(f.Plain(), frame, terrain, f.Site.ElevationM)
	q := home.Question{Home: at, HomeM: homeM, Route: way, Obstacles: obstacles, Terrain: terrain, PositionM: positionM, Margin: margin, CeilingM: ceilingM,
		SettingM: ask.SettingM, ClimbMS: t.Limits.Climb(), DescentMS: t.Limits.Descent(), RouteHeight: out.RouteM}
	if m := t.Limits.PlannedMinutes; m > 0 {
		q.PercentMin = float64(t.Limits.LaunchPercent-t.Limits.LandByPercent) / m
	}
	if out.Answer, err = home.ReturnHeight(q); err != nil {
		return out, unusable(err)
	}
	out.ShownM = out.Answer.HeightM
	if ask.SettingM != nil {
		out.ShownM = *ask.SettingM
	}
	if out.Profile, err = home.SideView(q, out.ShownM); err != nil {
		return out, unusable(err)
	}
	for _, p := range way {
		out.Route = append(out.Route, frame.Point(p))
		if d := geo.Dist(at, p); d >= out.FarM {
			out.FarM, out.Far = d, frame.Point(p)
		}
	}
	out.HighM = max(out.Answer.MaxAGL, highest(terrain, way, homeM, out.RouteM))
	out.OverTopM = overTop(f.Plain(), frame, way, out.HighM)
	if err = out.path(f, frame, at, way, homeM, obstacles); err != nil {
		return out, err
	}
	out.Findings = append(out.Findings, out.Answer.Findings...)
	err = out.sectors(t, at, homeM, obstacles, terrain)
	return out, err
}

// highest is the greatest height above ground along the route, which is flown
// level at routeM above take-off.
func highest(terrain *home.Terrain, way []geo.XY, homeM, routeM float64) float64 {
	most := routeM
	for i, p := range way {
		q := way[(i+1)%len(way)]
		for k := range 21 {
			at := p.Add(q.Sub(p).Times(float64(k) / 20))
			if g, ok := terrain.At(at); ok {
				most = max(most, homeM+routeM-g)
			}
		}
	}
	return most
}

// overTop is the greatest height over the top of the structure that the whole
// route stays within 400 ft of; nil without one. A tree is no structure: only
// what is charted as one counts.
func overTop(features []site.Feature, frame geo.Frame, way []geo.XY, highM float64) *float64 {
	var best *float64
	for _, f := range features {
		if f.Kind != site.Obstacle || f.What != site.Structure || f.HeightM == nil {
			continue
		}
		places, far := frame.All(f.Places), false
		for _, p := range way {
			d := math.Inf(1)
			for i := range places {
				q, _ := geo.Nearest(p, places[i], places[(i+1)%len(places)])
				d = min(d, geo.Dist(p, q))
			}
			if far = d > ceilingM; far {
				break
			}
		}
		if over := highM - *f.HeightM; !far && (best == nil || over < *best) {
			best = &over
		}
	}
	return best
}

// sectors holds the sectors of the free headings against what is charted: a
// wing climbs out along a heading and comes in from behind it.
func (w *WayHome) sectors(t airframe.Type, at geo.XY, homeM float64, obstacles []home.Obstacle, terrain *home.Terrain) error {
	w.Clear = w.TakeOff.Free
	if t.Geometry.Kind == airframe.Multirotor || t.Geometry.Kind == "" {
		return nil
	}
	find := func(v judge.Verdict, sentence string) {
		w.Findings = append(w.Findings, judge.Finding{Rule: "sector", Verdict: v, Sentence: sentence, Source: "usual practice; maker's manual", Evidence: "Site file, climb and descent of the type.", Lifts: "another take-off place, or another heading"})
	}
	if len(w.TakeOff.Free) == 0 {
		find(judge.Watch, "Which headings are free for climb-out and approach is not charted: walk them, and enter them at the take-off place.")
		return nil
	}
	if t.Limits.SpeedMS == 0 {
		find(judge.Watch, "Whether climb-out and approach are clear of what is charted is not known: the type gives no speed.")
		return nil
	}
	speed, start := float64(t.Limits.SpeedMS), t.Transition()
	w.Clear, w.Sectored = nil, true
	for _, h := range w.TakeOff.Free {
		out, err := home.Sector(at, homeM, h, home.Slope{StartM: start, Rise: t.Limits.Climb() / speed}, obstacles, terrain)
		if err != nil {
			return unusable(err)
		}
		in, err := home.Sector(at, homeM, math.Mod(h+180, 360), home.Slope{StartM: start, Rise: t.Limits.Descent() / speed}, obstacles, terrain)
		if err != nil {
			return unusable(err)
		}
		switch {
		case out != nil:
			find(judge.Watch, fmt.Sprintf("Heading %03.0f is not free for climb-out: %s.", h, out.Sentence))
		case in != nil:
			find(judge.Watch, fmt.Sprintf("Heading %03.0f is not free for the approach: %s.", h, in.Sentence))
		default:
			w.Clear = append(w.Clear, h)
		}
	}
	if len(w.Clear) == 0 {
		find(judge.Stop, "No heading is free for climb-out and approach. Move the take-off place, or chart another heading.")
	}
	return nil
}

// intoWind says where the crew stands, how fast the aircraft comes home, and on
// which of the free headings a wing starts and lands.
func (w *WayHome) intoWind(air *weather.Air, all []site.Feature, frame geo.Frame, t airframe.Type) error {
	if air == nil || air.WindMS == nil {
		return nil
	}
	w.comesHome(*air, t)
	wing := t.Geometry.Kind != airframe.Multirotor && t.Geometry.Kind != ""
	find := func(v judge.Verdict, sentence string) {
		w.Findings = append(w.Findings, judge.Finding{Rule: "direction", Verdict: v, Sentence: sentence, Source: "maker's manual", Evidence: "Latest weather, free headings of the take-off place.", Lifts: "another take-off place, or another wind"})
	}
	if air.FromDeg == nil {
		switch gust := gustOf(*air); {
		case !wing || *air.WindMS < calmMS:
		case gust > t.Limits.Crosswind():
			find(judge.Stop, fmt.Sprintf("Start and landing: gusts of %.1f m/s from no known direction are over the crosswind limit of %.1f.", gust, t.Limits.Crosswind()))
		default:
			find(judge.Watch, "Start and landing: the wind has no known direction. Look at it on the spot; never with tailwind.")
		}
		return nil
	}
	p := site.Stand(w.TakeOff.Places[0], *air.FromDeg, site.StandOff, frame)
	w.Stand, w.Cover = &p, site.FindCover(w.TakeOff.Places[0], *air.FromDeg, all, frame)
	if t.Geometry.Kind == airframe.Multirotor { // it turns into the wind where it stands
		return nil
	}
	if len(w.Clear) == 0 {
		return nil // said by the sectors
	}
	l, err := wind.BestHeading(units.MetresPerSecond(gustOf(*air)), *air.FromDeg, w.Clear, units.MetresPerSecond(t.Limits.Crosswind()))
	if err != nil {
		return nil //nolint:nilerr // a wind that cannot be used is a finding of the weather
	}
	w.Landing = &l
	switch {
	case l.OK:
	case !wing:
		find(judge.Watch, "Start and landing of a wing: "+l.Reason)
	default:
		find(judge.Stop, "Start and landing: "+l.Reason)
	}
	return nil
}

// calmMS is the wind below which no direction matters.
const calmMS = 0.5

func gustOf(air weather.Air) float64 {
	if air.GustMS != nil {
		return *air.GustMS
	}
	return *air.WindMS * wind.AssumedGust
}

// slowHome is the share of its speed that is left over the ground in gusts, from
// which the way home is called slow.
const slowHome = 1.0 / 3

// comesHome holds the wind at the return height against the speed of the type:
// the steady wind for how long it takes, the gust for whether it can be flown.
// A wind without a direction is taken from ahead.
func (w *WayHome) comesHome(air weather.Air, t airframe.Type) {
	find := func(v judge.Verdict, sentence string) {
		w.Findings = append(w.Findings, judge.Finding{Rule: "home-wind", Verdict: v, Sentence: sentence, Source: "maker's manual", Evidence: "Latest weather, speed of the type.", Lifts: "less wind, or a place upwind of the work"})
	}
	speed := t.Limits.SpeedMS
	if speed == 0 {
		if t.Geometry.Kind != "" {
			find(judge.Watch, "How fast it comes home against the wind is not known: the type gives no speed.")
		}
		return
	}
	gust := units.MetresPerSecond(gustOf(air))
	at, err := wind.Scale(units.MetresPerSecond(*air.WindMS), &gust, units.Metres(air.WindHeightM), units.Metres(max(w.ShownM, 0.5)), wind.Ground(air.Ground))
	if err != nil {
		return // a wind that cannot be used is a finding of the weather
	}
	course := geo.Bearing(w.Far, w.TakeOff.Places[0])
	from := course
	if air.FromDeg != nil {
		from = *air.FromDeg
	}
	if v, ok := wind.GroundSpeed(speed, at.Steady, from, course); ok {
		home := float64(v)
		w.HomeSpeedMS = &home
	}
	switch v, ok := wind.GroundSpeed(speed, at.Gust, from, course); {
	case !ok:
		find(judge.Stop, fmt.Sprintf("In gusts of %.1f m/s at %.0f m it does not come home from the farthest place: it flies %.1f m/s at most.", float64(at.Gust), w.ShownM, float64(speed)))
	case float64(v) < slowHome*float64(speed):
		find(judge.Watch, fmt.Sprintf("In gusts of %.1f m/s at %.0f m only %.1f m/s over the ground are left on the way home.", float64(at.Gust), w.ShownM, float64(v)))
	}
}

// path judges the legs and, where the way to the start of the route is not
// clear, looks for one round what stands in it.
func (w *WayHome) path(f File, frame geo.Frame, at geo.XY, way []geo.XY, homeM float64, obstacles []home.Obstacle) error {
	level := homeM + w.RouteM
	path := []home.Place3{{At: at, M: level}}
	for _, p := range way {
		path = append(path, home.Place3{At: p, M: level})
	}
	all := append(obstacles, noGo(f.Features, frame)...)
	legs, err := home.Clearance(path, all, positionM)
	if err != nil {
		return unusable(err)
	}
	w.Legs = legs
	find := func(l home.Leg, where string) {
		w.Findings = append(w.Findings, judge.Finding{Rule: "path", Verdict: l.Verdict, Sentence: where + ": " + l.Sentence, Source: "usual practice", Evidence: "Site file."})
	}
	for i, l := range legs[1:] {
		if l.Verdict != judge.Clear {
			find(l, fmt.Sprintf("Leg %d of the route", i+1))
		}
	}
	if legs[0].Verdict == judge.Clear {
		return nil
	}
	find(legs[0], "From take-off to the start of the route")
	round, err := home.WayRound(at, way[0], level, all, positionM, nil)
	if err != nil {
		_, w.NoWay, _ = strings.Cut(err.Error(), ": ")
		return nil
	}
	for _, p := range round {
		w.WayRound = append(w.WayRound, frame.Point(p))
	}
	return nil
}

func unusable(err error) error {
	_, why, _ := strings.Cut(err.Error(), ": ")
	return fault.Clash("site-not-ready", "The way home cannot be judged: %s.", why)
}

// UsualType stands in while no aircraft is chosen.
var UsualType = airframe.Type{Limits: airframe.Limits{FlightHeightM: 30, WindMS: 10, GustMS: 12}}

// typeOf is the type of an aircraft; without one, a type with usual values.
func (s *Service) typeOf(ctx context.Context, aircraft *uuid.UUID) (airframe.Type, error) {
	if aircraft == nil {
		return UsualType, nil
	}
	a, err := s.Fleet.Aircraft(ctx, *aircraft)
	if err != nil {
		return airframe.Type{}, err
	}
	return s.Fleet.Type(ctx, a.TypeKey)
}

// TakeOffs judges every take-off place of a file.
func (f File) TakeOffs(frame geo.Frame) map[string][]site.Judgement {
	out, all := map[string][]site.Judgement{}, f.Plain()
	for _, x := range all {
		if x.Kind == site.TakeOff {
			out[x.ID] = site.JudgeTakeOff(x, all, frame)
		}
	}
	return out
}
