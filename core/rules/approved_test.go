package rules_test

import (
	"fmt"
	"strings"
	"testing"

	"mainstay/approved"
	"mainstay/core/rules"
)

// What each pack asks and finds for each work, with everything about the facts
// near where it decides.
func TestPacksAsApproved(t *testing.T) {
	var lines []string
	for _, p := range rules.Packs {
		whole := all(p)
		for _, work := range []string{"spraying", "mapping", "inspection", rules.Practised} {
			f := spray(p)
			f.Work = work
			for _, a := range whole.Questions(f) {
				if _, ok := f.Answers[a.ID]; !ok {
					f.Answers[a.ID] = a.Options[0].ID
				}
			}
			asked := []string{}
			for _, a := range whole.Questions(f) {
				asked = append(asked, a.ID)
			}
			lines = append(lines, fmt.Sprintf("%s %s asks %s", p.Name, work, strings.Join(asked, " ")))
			base := ""
			say := func(what string, f rules.Facts) {
				found, held := whole.Judge(f, rules.OfAircraft, rules.OfPilot, rules.OfJob)
				said := []string{fmt.Sprintf("  held %d", len(held))}
				for _, x := range whole.Lift(found, f.Docs, f.Day) {
					said = append(said, fmt.Sprintf("  %s %s %s %v", x.Rule, x.Verdict, x.Sentence, x.Notice))
				}
				text := strings.Join(said, "\n")
				switch {
				case what == "":
					base = text
				case text == base:
					return
				}
				lines = append(append(lines, p.Name+" "+work+" "+what), said...)
			}
			say("", f)
			if work == "spraying" || work == "inspection" {
				approved.Vary(f, say)
			}
			for _, light := range []string{"day", "twilight", "night"} {
				g := f
				g.Light = []string{light}
				say("light "+light, g)
			}
		}
	}
	approved.Text(t, "packs", lines)
}
