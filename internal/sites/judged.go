package sites

import (
	"context"
	"fmt"
	"slices"
	"time"

	"github.com/google/uuid"

	"mainstay/core/airframe"
	"mainstay/core/gate"
	"mainstay/core/geo"
	"mainstay/core/intent"
	"mainstay/core/judge"
	"mainstay/core/rules"
	"mainstay/core/site"
	"mainstay/core/sun"
	"mainstay/core/weather"
	"mainstay/internal/platform/fault"
)

// JobAsk is a flight of a job as the site sees it.
type JobAsk struct {
	JobID    string
	Type     airframe.Type
	Flight   intent.Flight
	From, To time.Time
	Zone     *time.Location // of the crew
	Wind     *gate.Wind     // measured on the spot; nil: the weather on file
	Label    weather.Label
}

// Judged is what the site says about a flight of a job.
type Judged struct {
	Site     Site
	Law      rules.Law // as it holds there
	Findings []judge.Finding
	Light    []string // sorts of light in the window
	Sun      sun.Day  // of the day the window begins
	HighM    *float64 // highest place above ground; nil: there is no way to judge
	OverTopM *float64
	PeopleM  *float64
	FarM     *float64
	AdvisedM *float64 // return height above take-off
	ShownM   *float64 // return height that is judged
	TopM     *float64 // highest elevation that it reaches
	LiftKg   *float64 // what today's air lifts of the type's greatest mass; nil: not known
	Things   []site.Feature
	TakeOffs []string
	TakeOff  string // names of what was chosen
	Landing  string
	Second   string
	RouteM   *float64
	Datum    intent.Datum
	Air      *weather.Assessment
	Frame    geo.Frame
	Places   []geo.XY // take-off and route to the landing place, in the frame
	SecondAt []geo.XY // second landing place; empty: none
	WayRound []geo.Point
}

// ForJob judges site, way home and air for one flight of a job.
func (s *Service) ForJob(ctx context.Context, id uuid.UUID, ask JobAsk) (Judged, error) {
	c, err := s.charted(ctx, id, ask.Type, ask.Flight)
	if err != nil {
		return Judged{}, err
	}
	out := Judged{Site: c.file.Site, Law: c.law, Frame: c.frame, Things: c.file.Plain(), Findings: []judge.Finding{}}
	find := func(rule judge.Rule, v judge.Verdict, sentence, lifts string, kind judge.RemedyKind) {
		out.Findings = append(out.Findings, judge.Finding{Rule: rule, Verdict: v, Sentence: sentence, Source: c.law.Site(),
			Evidence: "Site file.", Lifts: lifts, Remedy: &judge.Remedy{Kind: kind, ID: id.String()}})
	}
	for _, x := range out.Things {
		if x.Kind == site.TakeOff {
			out.TakeOffs = append(out.TakeOffs, x.Name)
		}
	}
	if c.noWay != nil {
		f, _ := fault.As(c.noWay)
		find(judge.RuleSite, judge.Stop, "The site cannot be judged: "+f.Detail, "charting it", judge.OpenSite)
	} else {
		out.way(c, ask, find)
	}
	days, err := sunDays(ask.From, ask.Zone, c.file.Site)
	if err != nil {
		find(judge.RuleNight, judge.Stop, "Where the sun stands over this site is not known.", "another site", judge.OpenSite)
		return out, nil //nolint:nilerr // said as a finding
	}
	out.Sun, out.Light = days[1], lightsIn(ask.From, ask.To, days, c.law.TwilightLast)
	var sky Sky
	over := above{site: c.file.Site, law: c.law, t: ask.Type, work: weather.Work(ask.Flight.Work), highM: out.HighM,
		measured: ask.Wind, from: ask.From, to: ask.To, label: ask.Label, days: days}
	if err := s.over(ctx, over, &sky); err != nil {
		return out, err
	}
	out.Air = sky.Latest
	for _, f := range sky.Findings {
		if f.Rule == judge.RuleWind && sky.Replaced {
			continue // the gate holds the measured wind against the limits itself
		}
		kind := judge.ReadWeather
		if f.Lifts == weather.EnterElevation {
			kind = judge.OpenSite
		}
		f.Remedy = &judge.Remedy{Kind: kind, ID: id.String()}
		out.Findings = append(out.Findings, f)
	}
	if sky.Latest != nil {
		out.LiftKg = sky.Latest.MassLimitKg
	}
	if sky.Latest != nil && c.noWay == nil {
		w := c.way
		w.Findings = nil
		w.InWind(&sky.Latest.Air, c.chart(), ask.Type)
		for _, f := range w.Findings {
			f.Remedy = &judge.Remedy{Kind: judge.OpenWayHome, ID: id.String()}
			out.Findings = append(out.Findings, f)
		}
	}
	judge.Sort(out.Findings)
	return out, nil
}

// way takes over what the way home and the take-off and landing places say.
func (out *Judged) way(c charted, ask JobAsk, find func(rule judge.Rule, v judge.Verdict, sentence, lifts string,
	kind judge.RemedyKind)) {
	w := c.way
	out.HighM, out.OverTopM, out.FarM, out.AdvisedM, out.ShownM, out.PeopleM = &w.HighM, w.OverTopM, &w.FarM,
		&w.Return.HeightM, &w.ShownM, w.PeopleM
	if c.chart().AboveSea() {
		out.TopM = &w.TopM
	}
	out.RouteM, out.Datum, out.WayRound = &w.RouteM, w.Datum, w.WayRound
	out.TakeOff, out.Landing = w.TakeOff.Name, w.Landing.Name
	out.Places = append(out.Places, c.frame.XY(w.TakeOff.Places[0]))
	out.Places = append(out.Places, c.frame.All(w.Route)...)
	for _, f := range w.Findings {
		if f.Rule == judge.RuleHeight {
			continue // the rule about it judges the same height
		}
		f.Remedy = &judge.Remedy{Kind: judge.OpenWayHome, ID: out.Site.ID.String()}
		if len(f.Decide) > 0 {
			f.Remedy = &judge.Remedy{Kind: judge.DecideInJob, ID: ask.JobID}
		}
		out.Findings = append(out.Findings, f)
	}
	places := []site.Feature{w.TakeOff}
	if w.Landing.ID != w.TakeOff.ID {
		places = append(places, w.Landing)
	}
	if w.Second != nil {
		out.Second = w.Second.Name
		out.SecondAt = []geo.XY{c.frame.XY(w.Second.Places[0])}
		if w.Second.ID != w.TakeOff.ID && w.Second.ID != w.Landing.ID {
			places = append(places, *w.Second)
		}
	}
	for _, p := range places {
		for _, j := range c.takeOffs[p.ID] {
			if j.Verdict != judge.Clear {
				find(judge.RuleTakeOff, j.Verdict, p.Name+": "+j.Sentence, "another place, or putting it right", judge.OpenSite)
			}
		}
	}
	enter := &judge.Remedy{Kind: judge.OpenJob, ID: ask.JobID}
	if v, words := ask.Flight.LostLink.Judge(); v != judge.Clear {
		out.Findings = append(out.Findings, judge.Finding{Rule: judge.RuleReturnHeight, Verdict: v, Sentence: words,
			Source: rules.Usual, Evidence: "The job.", Lifts: "reading or setting it in the aircraft", Remedy: enter})
	}
	if ask.Flight.HomeFollows {
		out.Findings = append(out.Findings, judge.Finding{Rule: judge.RuleReturnHeight, Verdict: judge.Watch,
			Sentence: "The home point follows the pilot: the way home was worked out from the take-off place. Stay near it, or fix the home point.",
			Source:   rules.Usual, Evidence: "The job.", Lifts: "a fixed home point", Remedy: enter})
	}
}

// lightsIn are the sorts of light met between two times, looked at every five
// minutes and at the end.
func lightsIn(from, to time.Time, days []sun.Day, last time.Duration) []string {
	out := []string{}
	for t := from; ; t = t.Add(5 * time.Minute) {
		if t.After(to) {
			t = to
		}
		if l := string(sun.LightAt(t, days, last)); !slices.Contains(out, l) {
			out = append(out, l)
		}
		if !t.Before(to) {
			return out
		}
	}
}

// at is the height the wind is judged at, in words.
func (j Judged) at() string {
	if j.HighM == nil {
		return "flight height"
	}
	return fmt.Sprintf("%.0f m, the highest of the flight,", *j.HighM)
}

// AirWords says in sentences what is known about the air.
func (j Judged) AirWords() []string {
	if j.Air == nil {
		return nil
	}
	a, out := j.Air, []string{}
	add := func(format string, v ...any) { out = append(out, fmt.Sprintf(format, v...)) }
	if w := a.Wind; w != nil {
		from := ""
		if a.Air.FromDeg != nil {
			from = fmt.Sprintf(" from %.0f°", *a.Air.FromDeg)
		}
		add("Wind at %s %.1f m/s, gusts %.1f%s.", j.at(), float64(w.Steady), float64(w.Gust), from)
	} else {
		add("Wind: not known.")
	}
	if a.Air.TempC != nil {
		add("Temperature %.0f °C.", *a.Air.TempC)
	}
	if a.DensityAltitudeM != nil {
		mass := ""
		if a.MassLimitKg != nil {
			mass = fmt.Sprintf("; start with at most %.1f kg", *a.MassLimitKg)
		}
		add("Density altitude %.0f m%s.", *a.DensityAltitudeM, mass)
	}
	if a.Air.VisibilityM != nil {
		add("Visibility %.1f km.", *a.Air.VisibilityM/1000)
	}
	if a.CloudCeilingM != nil {
		add("Under the lowest cloud at most %.0f m above the ground.", *a.CloudCeilingM)
	}
	if a.DeltaT != nil {
		add("Delta T %.1f.", *a.DeltaT)
	}
	return out
}
