package gate

import (
	"fmt"

	"mainstay/core/judge"
	"mainstay/core/upkeep"
)

// programme names the tasks that are due. Without a programme nobody knows
// what falls due.
func (g *run) programme() {
	if !g.in.Programme {
		g.find(judge.RuleProgramme, judge.RuleCondition, judge.Finding{
			Verdict:  judge.Watch,
			Sentence: "There is no maintenance programme for " + g.in.Type.Name + ": what falls due is not known.",
			Evidence: "None on file.", Lifts: "chief",
			Remedy: &judge.Remedy{Kind: judge.OpenProgramme, ID: g.in.Type.Key},
		})
		return
	}
	for _, t := range g.in.Tasks {
		if t.Due.Verdict == judge.Clear {
			continue
		}
		g.find(judge.RuleProgramme, judge.RuleCondition, judge.Finding{
			Verdict: t.Due.Verdict, Sentence: t.Title + ": " + t.Due.Sentence, Evidence: "Maintenance programme.",
			Lifts:  "technician or chief does it",
			Remedy: &judge.Remedy{Kind: judge.OpenTask, ID: g.in.Aircraft.ID + "/" + t.ID},
		})
	}
}

// loads in words.
var loads = map[upkeep.Load]string{upkeep.NoLoad: "without load", upkeep.Loaded: "with load"}

// orders holds the aircraft while work is open, and asks for the acceptance
// flights once it is signed.
func (g *run) orders() {
	known := false
	for _, o := range g.in.Orders {
		open := &judge.Remedy{Kind: judge.OpenOrder, ID: o.ID}
		evidence := "Opened by " + o.By + "."
		v, sentence := o.Judge(g.in.Acceptance)
		lifts := "technician or chief signs it"
		switch {
		case o.Signed && g.in.Acceptance == o.ID:
			known, lifts, open = true, "this flight", nil
		case o.Signed:
			lifts, open = "the acceptance flight", &judge.Remedy{Kind: judge.FlyAcceptance, ID: o.ID}
		}
		g.find(judge.RuleWorkOrders, judge.RuleCondition, judge.Finding{
			Verdict: v, Sentence: sentence, Evidence: evidence, At: &o.At, Lifts: lifts, Remedy: open,
		})
	}
	if g.in.Acceptance != "" && !known {
		g.find(judge.RuleWorkOrders, judge.RuleCondition, judge.Finding{
			Verdict: judge.Stop, Sentence: "No acceptance flight is due for this aircraft.",
			Evidence: "Work orders.", Lifts: "asking the gate again without it",
		})
	}
}

// Judge is what an order that is not closed means for the next flight;
// acceptance is the order for which that is the acceptance flight.
func (o Order) Judge(acceptance string) (judge.Verdict, string) {
	switch {
	case o.Signed && acceptance == o.ID:
		return judge.Watch, fmt.Sprintf("Acceptance flight %s after: %s. Near, alone in the area, ready to land at once.",
			loads[o.Next], o.Title)
	case o.Signed:
		return judge.Stop, fmt.Sprintf("An acceptance flight %s is due after: %s.", loads[o.Next], o.Title)
	case o.Grounds:
		return judge.Stop, "Work is open: " + o.Title + "."
	}
	return judge.Watch, "A work order is open: " + o.Title + "."
}

func (g *run) firmware() {
	for _, f := range g.in.Firmware {
		g.find(judge.RuleFirmware, judge.RuleCondition, judge.Finding{
			Verdict: f.Verdict, Sentence: f.Sentence, Evidence: "Tested combination of the type.",
			Lifts:  "technician or chief, at base with a network",
			Remedy: &judge.Remedy{Kind: judge.OpenAircraft, ID: g.in.Aircraft.ID},
		})
	}
}
