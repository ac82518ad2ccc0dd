package wayhome

import (
	"fmt"
	"math"

	"mainstay/core/airframe"
	"mainstay/core/geo"
	"mainstay/core/home"
	"mainstay/core/judge"
	"mainstay/core/site"
	"mainstay/core/units"
	"mainstay/core/weather"
	"mainstay/core/wind"
)

const makers = "maker's manual"

func wing(t airframe.Type) bool {
	return t.Geometry.Kind != airframe.Multirotor && t.Geometry.Kind != ""
}

// sectors holds the sectors of the free headings against what is charted: a
// wing climbs out along a heading from the take-off place and comes in from
// behind it at the landing place.
func (r *reckoning) sectors() error {
	w, t := &r.out, r.Type
	w.Clear = w.TakeOff.Free
	if !wing(t) {
		return nil
	}
	find := func(v judge.Verdict, sentence string) {
		r.find(judge.Finding{Rule: judge.RuleSector, Verdict: v, Sentence: sentence, Source: "usual practice; " + makers,
			Evidence: "Site file, climb and descent of the type.", Lifts: "another take-off place, or another heading"})
	}
	if len(w.TakeOff.Free) == 0 {
		find(judge.Stop, "Which headings are free for climb-out and approach is not charted: walk them, and enter them at the take-off place.")
		return nil
	}
	if t.Limits.SpeedMS == 0 {
		find(judge.Stop, "Whether climb-out and approach are clear of what is charted is not known: the type gives no speed.")
		return nil
	}
	speed, start := float64(t.Limits.SpeedMS), t.Transition()
	down, _ := r.Chart.Elevation(w.Landing)
	landAt := r.Chart.Frame.XY(w.Landing.Places[0])
	w.Clear, w.Sectored = nil, true
	for _, h := range w.TakeOff.Free {
		out, err := home.Sector(home.Place3{At: r.at, M: w.HomeM}, h,
			home.Slope{StartM: start, Rise: t.Limits.Climb() / speed}, r.obstacles,
			r.Chart.Terrain)
		if err != nil {
			return err
		}
		in, err := home.Sector(home.Place3{At: landAt, M: down}, math.Mod(h+180, 360),
			home.Slope{StartM: start, Rise: t.Limits.Descent() / speed}, r.obstacles, r.Chart.Terrain)
		if err != nil {
			return err
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

// InWind says where the crew stands, how fast the aircraft comes home, and on
// which of the clear headings a wing starts and lands, in the air of now. What
// it finds is added to the answer. nil is air that nobody knows: said elsewhere.
func (w *Answer) InWind(now *weather.Air, c Chart, t airframe.Type) {
	w.StandOffM = t.Kept().StandOffM()
	if now == nil || now.WindMS == nil {
		return
	}
	w.comesHome(*now, t)
	find := func(v judge.Verdict, sentence string) {
		w.Findings = append(w.Findings, judge.Finding{Rule: judge.RuleDirection, Verdict: v, Sentence: sentence,
			Source: makers, Evidence: "Latest weather, free headings of the take-off place.",
			Lifts: "another take-off place, or another wind"})
	}
	if now.FromDeg == nil {
		switch gust := gustOf(*now); {
		case !wing(t) || *now.WindMS < calmMS:
		case gust > t.Limits.Crosswind():
			find(judge.Stop, fmt.Sprintf("Start and landing: gusts of %.1f m/s from no known direction are over the crosswind limit of %.1f.",
				gust, t.Limits.Crosswind()))
		default:
			find(judge.Stop, "Start and landing: the wind has no known direction. Look at it on the spot, and enter it; never with tailwind.")
		}
		return
	}
	p := site.Stand(w.TakeOff.Places[0], *now.FromDeg, w.StandOffM, c.Frame)
	w.Stand, w.Cover = &p, site.FindCover(w.TakeOff.Places[0], *now.FromDeg, w.StandOffM, c.Features, c.Frame)
	// it turns into the wind where it stands, or the sectors say it
	if t.Geometry.Kind == airframe.Multirotor || len(w.Clear) == 0 {
		return
	}
	l, err := wind.BestHeading(units.MetresPerSecond(gustOf(*now)), *now.FromDeg, w.Clear,
		units.MetresPerSecond(t.Limits.Crosswind()))
	if err != nil {
		find(judge.Stop, "Start and landing: this wind cannot be used to choose a heading.")
		return
	}
	w.Wind = &l
	switch {
	case l.OK:
	case !wing(t): // nobody has said which aircraft flies
		find(judge.Watch, "Start and landing of a wing: "+l.Reason)
	default:
		find(judge.Stop, "Start and landing: "+l.Reason)
	}
}

// calmMS is the wind below which no direction matters.
const calmMS = 0.5

func gustOf(a weather.Air) float64 {
	if a.GustMS != nil {
		return *a.GustMS
	}
	return *a.WindMS * wind.AssumedGust
}

// slowHome is the share of its speed that is left over the ground in gusts, from
// which the way home is called slow.
const slowHome = 1.0 / 3

// comesHome holds the wind at the return height against the speed of the type:
// the steady wind for how long it takes, the gust for whether it can be flown.
// A wind without a direction is taken from ahead.
func (w *Answer) comesHome(now weather.Air, t airframe.Type) {
	find := func(v judge.Verdict, sentence string) {
		w.Findings = append(w.Findings, judge.Finding{Rule: judge.RuleHomeWind, Verdict: v, Sentence: sentence,
			Source: makers, Evidence: "Latest weather, speed of the type.", Lifts: "less wind, or a place upwind of the work"})
	}
	speed := t.Limits.SpeedMS
	if speed == 0 {
		if t.Geometry.Kind != "" {
			find(judge.Stop, "How fast it comes home against the wind is not known: the type gives no speed.")
		}
		return
	}
	gust := units.MetresPerSecond(gustOf(now))
	at, err := wind.Scale(units.MetresPerSecond(*now.WindMS), &gust, units.Metres(now.WindHeightM),
		units.Metres(max(w.ShownM, wind.Least)), wind.Ground(now.Ground))
	if err != nil {
		find(judge.Stop, "How fast it comes home against the wind is not known: this wind cannot be used.")
		return
	}
	course := geo.Bearing(w.Far, w.TakeOff.Places[0])
	from := course
	if now.FromDeg != nil {
		from = *now.FromDeg
	}
	if v, ok := wind.GroundSpeed(speed, at.Steady, from, course); ok {
		home := float64(v)
		w.HomeSpeedMS = &home
	}
	switch v, ok := wind.GroundSpeed(speed, at.Gust, from, course); {
	case !ok:
		find(judge.Stop, fmt.Sprintf("In gusts of %.1f m/s at %.0f m it does not come home from the farthest place: it flies %.1f m/s at most.",
			float64(at.Gust), w.ShownM, float64(speed)))
	case float64(v) < slowHome*float64(speed):
		find(judge.Watch, fmt.Sprintf("In gusts of %.1f m/s at %.0f m only %.1f m/s over the ground are left on the way home.",
			float64(at.Gust), w.ShownM, float64(v)))
	}
}
