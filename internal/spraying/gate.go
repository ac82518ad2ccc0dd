package spraying

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"math"
	"slices"
	"strings"
	"time"

	"github.com/google/uuid"

	"mainstay/api"
	"mainstay/core/geo"
	"mainstay/core/intent"
	"mainstay/core/judge"
	"mainstay/core/spray"
	"mainstay/internal/jobs"
	"mainstay/internal/platform/fault"
)

// Planned is what the plan says of the next flight of an aircraft of a job; nil where
// nobody has planned.
func (s *Service) Planned(ctx context.Context, job, aircraft uuid.UUID) (*jobs.PlannedFlight, error) {
	head, err := s.about(ctx, job, aircraft)
	if err != nil || head.Version == 0 {
		return nil, err
	}
	p, err := s.work(ctx, head)
	if f, people := fault.As(err); people {
		// A plan that cannot be worked out any more stops the flight, not the gate.
		return &jobs.PlannedFlight{Findings: []judge.Finding{head.finding(judge.RuleSprayPlan, judge.Stop,
			"The spray plan cannot be worked out: "+f.Detail)}}, nil
	}
	if err != nil {
		return nil, err
	}
	if p.Fills, err = s.fills(ctx, p.ID); err != nil {
		return nil, err
	}
	out := jobs.PlannedFlight{Findings: p.findings()}
	if f := p.Out.Flown.Sorties; len(f) > 0 {
		out.NeedWh, out.TakeOffKg, out.Seconds = f[0].Wh, f[0].TakeOffKg, f[0].Seconds
		from := p.start
		if at := p.Ground.place(f[0]); at != nil {
			from = p.Ground.Frame.XY(at.Places[0])
			out.TakeOff = at.ID
		}
		for _, l := range f[0].Legs {
			out.FarM = max(out.FarM, geo.Dist(from, l.From), geo.Dist(from, l.To))
		}
		if at := p.Ground.place(f[0]); f[0].Start > 0 {
			out.Findings = append(out.Findings, p.finding(judge.RuleSprayPlan, judge.Watch,
				fmt.Sprintf("By the plan the next flight takes off and lands at %s: truck, home point and people belong there.",
					at.Name)))
		}
	}
	out.LeastDeltaT, out.MostDeltaT = p.Wish.Label.LeastDeltaT, p.Wish.Label.MostDeltaT
	out.Way, out.HeightM = p.way(), p.Wish.HeightM+p.Wish.CropM
	if err := s.filled(ctx, p, &out); err != nil {
		return nil, err
	}
	found, err := s.system(ctx, p)
	out.Findings = append(out.Findings, found...)
	return &out, err
}

// way is what the flights of a plan fly along: every pass of it, so that it stays the
// same while the work goes on, and where the flights begin that are left.
func (p Plan) way() *intent.Plan {
	if len(p.Out.Passes) == 0 {
		return nil
	}
	at := p.Ground.Frame.Point
	w := intent.Plan{SpeedMS: p.Out.Settings.Speed}
	for _, q := range spray.Route(p.Out.Passes, p.start) {
		w.Passes = append(w.Passes, at(q))
	}
	for _, f := range p.Out.Flown.Sorties {
		if f.Start == p.Out.Flown.Sorties[0].Start { // the others take off elsewhere, and are judged when they are next
			w.Starts = append(w.Starts, at(f.Legs[0].From))
		}
	}
	return &w
}

// system is what stands against what sprays: calibrations that do not hold, and what is
// left in it of another product.
func (s *Service) system(ctx context.Context, p Plan) ([]judge.Finding, error) {
	var out []judge.Finding
	find := func(v judge.Verdict, sentence, evidence, lifts string) {
		out = append(out, judge.Finding{Rule: judge.RuleSpraySystem, Verdict: v, Sentence: sentence,
			Source: "usual practice; the maker's manual wins", Evidence: evidence, Lifts: lifts,
			Remedy: &judge.Remedy{Kind: judge.OpenSprayChecks, ID: p.Aircraft.ID.String()}})
	}
	checks, err := s.Checks(ctx, p.Aircraft.ID)
	if err != nil {
		return nil, err
	}
	crew, _, err := s.Jobs.People.Crew(ctx)
	if err != nil {
		return nil, err
	}
	for _, c := range Standing(checks, s.Clock.Now(), crew.Location()) {
		if c.Verdict != judge.Clear && p.concerns(string(c.Kind)) {
			find(c.Verdict, c.Sentence, "Calibrations on record.", "calibrating it")
		}
	}
	other, err := s.soiled(ctx, p, checks, "cleaned")
	if err != nil {
		return nil, err
	}
	if other != "" {
		find(judge.Stop, "It sprayed "+other+" and was not cleaned since; this job does not take it.",
			"Spray plans and what is sprayed of them.", "cleaning and rinsing it")
	}
	if !p.Wish.Granules {
		return out, nil
	}
	if w, ok := triedWidth(checks); ok && math.Abs(w-p.Out.Settings.Swath) > widthMargin {
		find(judge.Watch, fmt.Sprintf("The spreader was tried at %.1f m; the plan spreads %.1f m wide.", w,
			p.Out.Settings.Swath), "Calibrations on record.", "trying it at that width")
	}
	other, err = s.soiled(ctx, p, checks, "scale")
	if other != "" {
		find(judge.Watch, "It spread "+other+" since its scale was set to zero: the hopper is set to zero after each change of material.",
			"Calibrations on record.", "the check of the scale")
	}
	return out, err
}

// widthMargin is how far a spread width may be from the one that was tried, m.
const widthMargin = 0.25

// triedWidth is the spread width of the newest check of the spreader, m.
func triedWidth(checks []Check) (float64, bool) {
	for _, c := range checks {
		var in api.NewSprayCheck
		if c.Kind == "spreader" && json.Unmarshal([]byte(c.Input), &in) == nil && in.Target != nil {
			return *in.Target, true
		}
	}
	return 0, false
}

// soiled names a product that was sprayed with an aircraft since a kind of check was in
// order and that a plan does not take; "" is none.
func (s *Service) soiled(ctx context.Context, p Plan, checks []Check, kind string) (string, error) {
	var cleaned time.Time
	for _, c := range checks {
		if c.Kind == kind && c.Verdict == judge.Clear.String() {
			cleaned = c.At
			break
		}
	}
	var rows []struct{ Applied, Wish string }
	if err := s.DB.WithContext(ctx).Raw("select distinct d.applied::text as applied, p.wish::text as wish from spray_done d join spray_plans p on p.id = d.plan_id where p.aircraft_id = ? and d.back_at is null and d.at > ?",
		p.Aircraft.ID, cleaned).Scan(&rows).Error; err != nil {
		return "", err
	}
	takes := func(name string) bool {
		return slices.ContainsFunc(p.Wish.Mix, func(y spray.Product) bool {
			return strings.EqualFold(strings.TrimSpace(name), strings.TrimSpace(y.Name))
		})
	}
	for _, r := range rows {
		var a Applied
		var w spray.Wish
		if err := errors.Join(json.Unmarshal([]byte(r.Applied), &a), json.Unmarshal([]byte(r.Wish), &w)); err != nil {
			return "", err
		}
		mix := a.with(w).Mix
		if len(mix) == 0 {
			return "something that nobody entered", nil
		}
		for _, x := range mix {
			if !takes(x.Name) {
				return x.Name, nil
			}
		}
	}
	return "", nil
}

func (p Plan) finding(rule judge.Rule, v judge.Verdict, sentence string) judge.Finding {
	return judge.Finding{Rule: rule, Verdict: v, Sentence: sentence, Source: "product label; usual practice",
		Evidence: "Spray plan.", Lifts: "changing the plan",
		Remedy: &judge.Remedy{Kind: judge.OpenSprayPlan, ID: p.Job.ID.String() + "/" + p.Aircraft.ID.String()}}
}

// filled takes over what was filled in since the last flight: its weighed mass, or that
// nobody saw it go in. A flight without a load sheet is said too.
func (s *Service) filled(ctx context.Context, p Plan, out *jobs.PlannedFlight) error {
	watch := func(format string, a ...any) {
		out.Findings = append(out.Findings, p.finding(judge.RuleSprayPlan, judge.Watch, fmt.Sprintf(format, a...)))
	}
	none := func() {
		if len(p.Out.Loads) > 0 {
			watch("Nothing is on the load sheet for the next flight: nobody has seen the %.1f %s go in, or weighed it.",
				p.Out.Loads[0].Litres, p.unit())
		}
	}
	if len(p.Fills) == 0 {
		none()
		return nil
	}
	last := p.Fills[len(p.Fills)-1]
	var flown int
	if err := s.DB.WithContext(ctx).Raw("select count(*) from flights where aircraft_id = ? and took_off_at > ?",
		p.Aircraft.ID, last.At).Scan(&flown).Error; err != nil {
		return err
	}
	if flown > 0 { // it was flown out
		none()
		return nil
	}
	switch {
	case !last.Complete():
		watch("Fill %d is not yet seen by two people and weighed.", last.Number)
	default:
		out.WeighedKg = last.MassKg
	}
	if len(p.Out.Loads) > 0 && math.Abs(last.Litres-p.Out.Loads[0].Litres) > 0.05*last.Litres {
		watch("%.1f %s were filled in; by the plan as it is now the next flight takes %.1f.", last.Litres, p.unit(),
			p.Out.Loads[0].Litres)
	}
	return nil
}

// findings are what stands against flying the plan as it is.
func (p Plan) findings() []judge.Finding {
	out := []judge.Finding{}
	find := func(rule judge.Rule, v judge.Verdict, sentence string) {
		out = append(out, p.finding(rule, v, sentence))
	}
	for _, b := range p.Out.Broken {
		if b.Wish != "wind" || len(p.Out.Waiting) == 0 {
			find(judge.RuleSprayPlan, b.Verdict, b.Sentence)
		}
	}
	if a := p.Ground.Assumed; len(a) > 0 {
		find(judge.RuleSprayPlan, judge.Watch, "The spray plan rests on what had to be assumed: "+strings.Join(a, "; ")+".")
	}
	for _, b := range p.Wish.Label.HoldAir(p.tempC, p.deltaT) {
		f := p.finding(judge.RuleDeltaT, b.Verdict, b.Sentence)
		f.Lifts = "waiting until the air is as the label asks"
		out = append(out, f)
	}
	if len(p.Out.Flown.Sorties) == 0 && len(p.Out.Broken) == 0 {
		find(judge.RuleSprayPlan, judge.Watch, "By the plan all of this field is sprayed already.")
	}
	waits := map[int]string{}
	for _, w := range p.Out.Waiting {
		waits[w.Pass] = w.Reaches
	}
	if len(p.Out.Flown.Sorties) == 0 {
		return out
	}
	n, reaches := 0, ""
	for _, l := range p.Out.Flown.Sorties[0].Legs {
		if r, ok := waits[l.Pass]; ok {
			n, reaches = n+1, r
		}
	}
	if n > 0 {
		find(judge.RuleDrift, judge.Stop,
			fmt.Sprintf("In the wind now, drift from %s of the next flight would come within %g m of %s. They wait for another wind.",
				passes(n), p.Out.Buffer, reaches))
	}
	return out
}
