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
	"mainstay/core/judge"
	"mainstay/core/site"
	"mainstay/core/sun"
	"mainstay/core/units"
	"mainstay/core/weather"
	"mainstay/internal/platform/fault"
)

// JobAsk is a flight of a job as the site sees it.
type JobAsk struct {
	JobID       string
	Type        airframe.Type
	Work        weather.Work
	SettingM    *float64 // return height in the aircraft; nil: not read
	RouteM      *float64
	HomeFollows bool
	From, To    time.Time
	Zone        *time.Location // of the crew
	Wind        *gate.Wind     // measured on the spot; nil: the weather on file
}

// Judged is what the site says about a flight of a job.
type Judged struct {
	Site     Site
	Findings []judge.Finding
	Light    []string // sorts of light in the window
	Sun      sun.Day  // of the day the window begins
	HighM    *float64 // greatest height above ground; nil: there is no way to judge
	OverTopM *float64
	FarM     *float64
	AdvisedM *float64 // return height above take-off
	Things   []site.Feature
	TakeOffs []string
	Air      *weather.Assessment
	Frame    geo.Frame
	Places   []geo.XY // take-off and route, in the frame
}

// ForJob judges site, way home and air for one type of aircraft of a job.
func (s *Service) ForJob(ctx context.Context, id uuid.UUID, ask JobAsk) (Judged, error) {
	c, err := s.charted(ctx, id, ask.Type, Ask{SettingM: ask.SettingM, RouteM: ask.RouteM})
	if err != nil {
		return Judged{}, err
	}
	out := Judged{Site: c.file.Site, Frame: c.frame, Things: c.file.Plain(), Findings: []judge.Finding{}}
	find := func(rule string, v judge.Verdict, sentence, lifts, label, kind string) {
		out.Findings = append(out.Findings, judge.Finding{Rule: rule, Verdict: v, Sentence: sentence, Source: "14 CFR 107.49(a); usual practice", Evidence: "Site file.", Lifts: lifts, Remedy: &judge.Remedy{Label: label, Kind: kind, ID: id.String()}})
	}
	for _, x := range out.Things {
		if x.Kind == site.TakeOff {
			out.TakeOffs = append(out.TakeOffs, x.Name)
		}
	}
	if c.noWay != nil {
		f, _ := fault.As(c.noWay)
		find("site", judge.Stop, "The site cannot be judged: "+f.Detail, "charting it", "Open the map", "site")
	} else {
		out.way(c, ask, find)
	}
	days, err := sunDays(ask.From, ask.Zone, c.file.Site)
	if err != nil {
		find("night", judge.Stop, "Where the sun stands over this site is not known.", "another site", "Open the map", "site")
		return out, nil //nolint:nilerr // said as a finding
	}
	out.Sun, out.Light = days[1], lightsIn(ask.From, ask.To, days)
	var sky Sky
	if err := s.over(ctx, c.file.Site, ask.Type, ask.Work, ask.Wind, days, &sky); err != nil {
		return out, err
	}
	out.Air = sky.Latest
	for _, f := range sky.Findings {
		if f.Rule == "wind" && ask.Wind != nil {
			continue // the gate holds the measured wind against the limits itself
		}
		f.Remedy = &judge.Remedy{Label: "Read the weather", Kind: "site-weather", ID: id.String()}
		out.Findings = append(out.Findings, f)
	}
	if sky.Latest != nil && c.noWay == nil {
		w := c.way
		w.Findings = nil
		if err := w.intoWind(&sky.Latest.Air, out.Things, c.frame, ask.Type); err != nil {
			return out, err
		}
		for _, f := range w.Findings {
			f.Remedy = &judge.Remedy{Label: "Open the way home", Kind: "site-home", ID: id.String()}
			out.Findings = append(out.Findings, f)
		}
	}
	judge.Sort(out.Findings)
	return out, nil
}

// way takes over what the way home and the take-off place say.
func (out *Judged) way(c charted, ask JobAsk, find func(rule string, v judge.Verdict, sentence, lifts, label, kind string)) {
	w := c.way
	out.HighM, out.OverTopM, out.FarM, out.AdvisedM = &w.HighM, w.OverTopM, &w.FarM, &w.Answer.HeightM
	out.Places = append(out.Places, c.frame.XY(w.TakeOff.Places[0]))
	out.Places = append(out.Places, c.frame.All(w.Route)...)
	for _, f := range w.Findings {
		f.Remedy = &judge.Remedy{Label: "Open the way home", Kind: "site-home", ID: out.Site.ID.String()}
		out.Findings = append(out.Findings, f)
	}
	for _, j := range c.takeOffs[w.TakeOff.ID] {
		if j.Verdict != judge.Clear {
			find("take-off", j.Verdict, w.TakeOff.Name+": "+j.Sentence, "another place, or putting it right", "Open the map", "site")
		}
	}
	enter := &judge.Remedy{Label: "Enter it", Kind: "job", ID: ask.JobID}
	if ask.SettingM == nil {
		out.Findings = append(out.Findings, judge.Finding{Rule: "return-height", Verdict: judge.Stop, Sentence: fmt.Sprintf("The return height set in the aircraft has not been read; at least %.0f m above take-off are needed.", w.Answer.HeightM),
			Source: "usual practice", Evidence: "The job.", Lifts: "reading it", Remedy: enter})
	}
	if ask.HomeFollows {
		out.Findings = append(out.Findings, judge.Finding{Rule: "return-height", Verdict: judge.Watch, Sentence: "The home point follows the pilot: the way home was worked out from the take-off place. Stay near it, or fix the home point.",
			Source: "usual practice", Evidence: "The job.", Lifts: "a fixed home point", Remedy: enter})
	}
}

// lightsIn are the sorts of light met between two times, looked at every five
// minutes and at the end.
func lightsIn(from, to time.Time, days []sun.Day) []string {
	out := []string{}
	for t := from; ; t = t.Add(5 * time.Minute) {
		if t.After(to) {
			t = to
		}
		if l := string(sun.LightAt(t, days)); !slices.Contains(out, l) {
			out = append(out, l)
		}
		if !t.Before(to) {
			return out
		}
	}
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
		add("Wind at flight height %.1f m/s, gusts %.1f%s.", float64(w.Steady), float64(w.Gust), from)
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
		add("Visibility %.1f km (%.0f statute miles).", *a.Air.VisibilityM/1000, *a.Air.VisibilityM/units.MetresPerStatuteMile)
	}
	if a.CloudCeilingM != nil {
		add("Under the lowest cloud at most %.0f m above the ground.", *a.CloudCeilingM)
	}
	if a.DeltaT != nil {
		add("Delta T %.1f.", *a.DeltaT)
	}
	return out
}
