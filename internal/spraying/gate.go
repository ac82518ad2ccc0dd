package spraying

import (
	"context"
	"fmt"
	"math"

	"github.com/google/uuid"

	"mainstay/core/geo"
	"mainstay/core/judge"
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
		return &jobs.PlannedFlight{Findings: []judge.Finding{head.finding(judge.RuleSprayPlan, judge.Stop, "The spray plan cannot be worked out: "+f.Detail)}}, nil
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
		for _, l := range f[0].Legs {
			out.FarM = max(out.FarM, geo.Dist(p.start, l.From), geo.Dist(p.start, l.To))
		}
	}
	if err := s.filled(ctx, p, &out); err != nil {
		return nil, err
	}
	checks, err := s.Checks(ctx, aircraft)
	if err != nil {
		return nil, err
	}
	crew, _, err := s.Jobs.People.Crew(ctx)
	if err != nil {
		return nil, err
	}
	for _, c := range Standing(checks, s.Clock.Now(), crew.Location()) {
		if c.Verdict != judge.Clear {
			out.Findings = append(out.Findings, judge.Finding{Rule: judge.RuleSpraySystem, Verdict: c.Verdict, Sentence: c.Sentence, Source: "usual practice; the maker's manual wins", Evidence: "Calibrations on record.", Lifts: "calibrating it", Remedy: &judge.Remedy{Kind: judge.OpenSprayChecks, ID: aircraft.String()}})
		}
	}
	return &out, nil
}

func (p Plan) finding(rule judge.Rule, v judge.Verdict, sentence string) judge.Finding {
	return judge.Finding{Rule: rule, Verdict: v, Sentence: sentence, Source: "product label; usual practice", Evidence: "Spray plan.", Lifts: "changing the plan", Remedy: &judge.Remedy{Kind: judge.OpenSprayPlan, ID: p.Job.ID.String() + "/" + p.Aircraft.ID.String()}}
}

// filled takes over what was filled in since the last flight: its weighed mass, or that
// nobody saw it go in.
func (s *Service) filled(ctx context.Context, p Plan, out *jobs.PlannedFlight) error {
	if len(p.Fills) == 0 {
		return nil
	}
	last := p.Fills[len(p.Fills)-1]
	var flown int
	if err := s.DB.WithContext(ctx).Raw("select count(*) from flights where aircraft_id = ? and took_off_at > ?", p.Aircraft.ID, last.At).Scan(&flown).Error; err != nil || flown > 0 {
		return err // it was flown out
	}
	switch {
	case !last.Complete():
		out.Findings = append(out.Findings, p.finding(judge.RuleSprayPlan, judge.Watch, fmt.Sprintf("Fill %d is not yet seen by two people and weighed.", last.Number)))
	default:
		out.WeighedKg = last.MassKg
	}
	if len(p.Out.Loads) > 0 && math.Abs(last.Litres-p.Out.Loads[0].Litres) > 0.05*last.Litres {
		out.Findings = append(out.Findings, p.finding(judge.RuleSprayPlan, judge.Watch, fmt.Sprintf("%.1f L were filled in; by the plan as it is now the next flight takes %.1f.", last.Litres, p.Out.Loads[0].Litres)))
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
		find(judge.RuleDrift, judge.Stop, fmt.Sprintf("In the wind now, drift from %s of the next flight would come within %g m of %s. They wait for another wind.", passes(n), p.Out.Buffer, reaches))
	}
	return out
}
