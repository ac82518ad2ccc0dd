package gate

import (
	"fmt"

	"mainstay/core/judge"
)

// compass asks for a calibration as the crew keeps it.
func (g *run) compass() {
	kept := g.in.Type.Kept()
	km, days, need := kept.CompassNeed()
	if !need && !kept.CompassDaily() {
		return
	}
	c := g.in.Compass
	find := func(v judge.Verdict, sentence string) {
		f := judge.Finding{Rule: judge.RuleCompass, Verdict: v, Sentence: sentence,
			Source: g.in.Rules.Source(judge.RuleCompass), Evidence: "No calibration on record.",
			Lifts:  "a calibration away from metal, on record",
			Remedy: &judge.Remedy{Kind: judge.OpenAircraft, ID: g.in.Aircraft.ID}}
		if c != nil {
			at := c.At
			f.Evidence, f.At = "By "+c.By+".", &at
		}
		g.out = append(g.out, f)
	}
	switch {
	case c == nil:
		find(judge.Watch, "When the compass was calibrated last is not known. Hold the heading against a known line, and calibrate away from metal.")
	case c.At.IsZero() || c.At.After(g.in.Now.Add(ClockSkew)):
		find(judge.Watch, "The calibration of the compass is dated in the future, or not at all.")
	case c.Since != "":
		find(judge.Watch, "Since the compass was calibrated, work was done that disturbs it: "+c.Since+".")
	case kept.CompassDaily():
		if !c.SameDay {
			find(judge.Watch, "The compass was not calibrated today.")
		}
	case g.in.Now.Sub(c.At).Hours() > days*24:
		find(judge.Watch, fmt.Sprintf("The compass was calibrated %s ago; it holds for %.0f days.", age(g.in.Now.Sub(c.At)),
			days))
	case g.in.Scope != WholeFlight:
	case c.MovedKm == nil:
		find(judge.Watch, "How far it came since the compass was calibrated is not known.")
	case !(*c.MovedKm >= 0 && *c.MovedKm <= km):
		find(judge.Watch, fmt.Sprintf("The compass was calibrated %.0f km from here; it holds within %.0f km.", *c.MovedKm,
			km))
	}
}

// CompassNeeded reports whether the crew's practice asks for a calibration of the compass.
func (in Input) CompassNeeded() bool {
	g := &run{in: in}
	g.compass()
	return len(g.out) > 0
}

// nearPeopleM is how near people live, work or rest, m, for the flight to count as near
// people.
const nearPeopleM = 30.0

// propellers holds those of another maker against what the crew allows.
func (g *run) propellers() {
	away, near := g.in.Type.Kept().OtherPropellersFly()
	n := 0
	for _, p := range g.in.Parts {
		if p.Kind == "propeller" && p.Foreign {
			n++
		}
	}
	if n == 0 {
		return
	}
	say := func(v judge.Verdict, sentence string) {
		g.find(judge.RuleOtherPropellers, judge.RuleOtherPropellers, judge.Finding{
			Verdict: v, Sentence: sentence,
			Evidence: fmt.Sprintf("%s of another maker fitted.", judge.Count(n, "propeller")),
			Lifts:    "propellers of the maker",
			Remedy:   &judge.Remedy{Kind: judge.ReplacePropeller, ID: g.in.Aircraft.ID},
		})
	}
	switch {
	case !away:
		say(judge.Stop, "It carries propellers of another maker; the crew never flies them.")
	case near || g.in.Scope != WholeFlight:
	case g.in.Facts.NearPeople(nearPeopleM):
		say(judge.Stop, "It carries propellers of another maker, and people may be near; the crew flies those away from people only.")
	}
}
