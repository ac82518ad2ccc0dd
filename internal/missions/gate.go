package missions

import (
	"context"
	"encoding/json"
	"fmt"
	"slices"
	"strings"

	"github.com/google/uuid"

	"mainstay/core/geo"
	"mainstay/core/intent"
	"mainstay/core/judge"
	"mainstay/core/mission"
	"mainstay/core/survey"
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
	p, err := s.Get(ctx, job, aircraft)
	if f, people := fault.As(err); people {
		// A plan that cannot be worked out any more stops the flight, not the gate.
		return &jobs.PlannedFlight{Findings: []judge.Finding{head.finding(judge.RuleMissionPlan, judge.Stop,
			"The mission plan cannot be worked out: "+f.Detail, "changing the plan")}}, nil
	}
	if err != nil {
		return nil, err
	}
	number := p.Next()
	out := jobs.PlannedFlight{Findings: p.findings(number)}
	if number == 0 {
		return &out, nil
	}
	p.way(number, &out)
	if id, _, _ := p.takeOff(number); id != "" && id != p.Ground.Start.ID {
		out.Findings = append(out.Findings, p.finding(judge.RuleMissionPlan, judge.Watch,
			fmt.Sprintf("By the plan flight %d takes off and lands at %s: truck, home point and people belong there.", number,
				p.placeName(id)), "changing the take-off place of the job"))
	}
	if f, ok := p.First(number); ok {
		out.FirstLeg = f.Sentence
	}
	return &out, nil
}

// way is what the next flight flies along, and what it needs.
func (p Plan) way(number int, out *jobs.PlannedFlight) {
	id, at, elevation := p.takeOff(number)
	out.TakeOff = id
	frame := p.Ground.Chart.Frame
	if o := p.Out.Inspect; o != nil {
		f := o.Flights[number-1]
		out.NeedWh, out.Seconds = f.Wh, f.Seconds
		w := intent.Plan{SpeedMS: p.Wish.Inspect.SpeedMS, Around: []string{p.Ground.Feature.ID}, Spots: true}
		for _, x := range o.Stops[f.From:min(f.To, len(o.Stops))] {
			for _, q := range append(slices.Clone(x.Via), x.At) {
				w.Passes = append(w.Passes, frame.Point(q), frame.Point(q))
				out.FarM = max(out.FarM, geo.Dist(at, q))
			}
		}
		if w.Check() == nil {
			highest, _, _, _ := p.height()
			out.Way, out.HeightM, out.Datum = &w, highest, intent.AboveTakeOff
		}
		return
	}
	o := p.Out.Survey
	f := o.Flights[number-1]
	part := o.Parts[f.Part]
	out.NeedWh, out.Seconds = f.Wh, f.Seconds
	w := intent.Plan{SpeedMS: p.Wish.Survey.SpeedMS}
	for _, x := range f.Pieces {
		for _, q := range x.Via {
			w.Passes = append(w.Passes, frame.Point(q), frame.Point(q))
		}
		w.Passes = append(w.Passes, frame.Point(p.leadIn(x)), frame.Point(x.To))
		out.FarM = max(out.FarM, geo.Dist(at, x.From), geo.Dist(at, x.To))
	}
	if w.Check() != nil {
		return
	}
	w.Starts = []geo.Point{w.Passes[0]}
	out.Way, out.HeightM, out.Datum = &w, part.LevelM-elevation, intent.AboveTakeOff
	out.HighestM, _, _, _ = p.height()
	if p.Wish.Survey.Relief == survey.Follow {
		out.HeightM, out.Datum = o.HeightM, intent.AboveGround
	}
}

func (p Plan) finding(rule judge.Rule, v judge.Verdict, sentence, lifts string) judge.Finding {
	return judge.Finding{Rule: rule, Verdict: v, Sentence: sentence, Source: "usual practice", Evidence: "Mission plan.",
		Lifts: lifts, Remedy: &judge.Remedy{Kind: judge.OpenMission, ID: p.Job.ID.String() + "/" + p.Aircraft.ID.String()}}
}

// findings are what stands against flying the next flight of the plan.
func (p Plan) findings(number int) []judge.Finding {
	out := []judge.Finding{}
	for _, b := range p.Broken {
		out = append(out, p.finding(judge.RuleMissionPlan, b.Verdict, b.Sentence, "changing the plan"))
	}
	if a := p.Ground.Assumed; len(a) > 0 {
		out = append(out, p.finding(judge.RuleMissionPlan, judge.Watch,
			"The mission plan rests on what had to be assumed: "+strings.Join(a, "; ")+".", "finding it out"))
	}
	if n := len(p.Flown); n > p.Logged {
		v := judge.Watch
		if number == 0 { // nothing is read back any more: somebody may have put it on record to get there
			v = judge.Stop
		}
		out = append(out, p.finding(judge.RuleMissionPlan, v,
			fmt.Sprintf("Of this plan %d are on record as flown; the log has %d for this job. Take back what was not flown.", n,
				p.Logged), "taking back what was not flown"))
	}
	if number == 0 {
		return append(out, p.finding(judge.RuleMissionPlan, judge.Watch, "By the plan all of its flights are flown.",
			"planning what is left"))
	}
	out = append(out, p.inAircraft(number)...)
	if p.Card == nil {
		return append(out, p.finding(judge.RuleCamera, judge.Watch,
			"The camera card is not filled in: cap, card, exposure and test picture were not looked at.", "filling it in"))
	}
	for _, b := range p.judged(p.Now) {
		out = append(out, p.finding(judge.RuleCamera, b.Verdict, b.Sentence,
			"putting the camera right, and filling the card in again"))
	}
	return out
}

// inAircraft are the findings about what the aircraft holds.
func (p Plan) inAircraft(number int) []judge.Finding {
	var out []judge.Finding
	find := func(v judge.Verdict, sentence string) {
		f := p.finding(judge.RuleMission, v, sentence, "sending the plan and reading it back")
		if r := p.read(number); r != nil {
			f.Evidence = fmt.Sprintf("Read back from %s by %s at %s UTC.", r.Source, r.ByName,
				r.At.UTC().Format("2006-01-02 15:04"))
		}
		out = append(out, f)
	}
	switch p.Standing(number) {
	case NotRead:
		find(judge.Stop, fmt.Sprintf("What the aircraft holds was not read back for flight %d: it may be another mission.",
			number))
	case Old:
		find(judge.Stop, fmt.Sprintf("Since flight %d was read back %s: send it and read it back again.", number,
			p.Outdated(number)))
	case Different, Equal:
		r := p.read(number)
		var differences []mission.Difference
		var judged []judge.Broken
		if json.Unmarshal([]byte(r.Differences), &differences) != nil || json.Unmarshal([]byte(r.Judged), &judged) != nil {
			find(judge.Stop, "What was read back cannot be understood any more: read it back again.")
		}
		for i, d := range differences {
			if i == 3 {
				find(judge.Stop, fmt.Sprintf("%d more differences from the plan.", len(differences)-i))
				break
			}
			find(judge.Stop, d.Sentence)
		}
		for _, b := range judged {
			find(b.Verdict, b.Sentence)
		}
	}
	return out
}

// placeName is a take-off place by its id.
func (p Plan) placeName(id string) string {
	for _, x := range p.Ground.Places {
		if x.ID == id {
			return x.Name
		}
	}
	return "another place"
}
