package gate_test

import (
	"strings"
	"testing"
	"time"

	"mainstay/approved"
	"mainstay/core/checks"
	"mainstay/core/gate"
	"mainstay/core/judge"
	"mainstay/core/pack"
	"mainstay/core/units"
	"mainstay/core/upkeep"
	"mainstay/core/wear"
)

// What the gate says with everything it knows near where it decides.
func TestGateAsApproved(t *testing.T) {
	in := good()
	in.Aircraft.LastLanding = ptr(ago(3 * time.Hour))
	in.Turnaround = &gate.Run{ID: "t", By: "Bo", At: ago(2 * time.Hour), PackIDs: []string{"b"}, Kept: in.Walkround.Kept,
		LeftOut: []checks.LeftOut{}, Asked: []string{}}
	in.Walkround.At = ago(5 * time.Hour)
	in.Tasks = []gate.Task{{ID: "screws", Title: "Screws", Due: wear.Due{Verdict: judge.Watch, Sentence: "due soon"}}}
	in.Orders = []gate.Order{{ID: "o", Title: "Arm", By: "Bo", At: ago(time.Hour), Signed: true, Next: upkeep.NoLoad}}
	in.Defects = []gate.Defect{{ID: "d", Title: "Scratch", Station: "Frame", Severity: judge.Watch, By: "Bo",
		At: ago(time.Hour)}}
	in.Reports = []gate.Report{{ID: "r", What: "Fence", DueAt: now.Add(time.Hour)}}
	in.Packs[0].FlownAt, in.Packs[0].LookedAt = ptr(ago(3*time.Hour)), ptr(ago(time.Hour))
	in.Packs[0].Reading.CellMV = []units.Millivolts{4200, 4175, 4198}
	in.Packs[0].State = pack.Charged
	var lines []string
	for _, scope := range []gate.Scope{gate.WholeFlight, gate.AircraftOnly} {
		q := in
		q.Scope = scope
		rules := q.Rules
		q.Rules.Rules = nil
		last := ""
		say := func(what string, q gate.Input) {
			q.Rules = rules
			out := gate.Judge(q)
			said := []string{out.Verdict.String()}
			for _, f := range append(out.Findings, out.Notices...) {
				said = append(said, "  "+string(f.Rule)+" "+f.Verdict.String()+" "+
					f.Sentence+" ["+f.Source+"; "+f.Evidence+"; "+f.Lifts+"]")
			}
			if text := strings.Join(said, "\n"); text != last || what == "" { // what changes nothing is not said
				lines = append(lines, strings.Split(string(scope)+what+": "+text, "\n")...)
				if what == "" {
					last = text
				}
			}
		}
		say("", q)
		approved.Vary(q, func(what string, q gate.Input) {
			if !strings.HasPrefix(what, ".Rules") {
				say(" "+what, q)
			}
		})
	}
	approved.Text(t, "gate", lines)
}
