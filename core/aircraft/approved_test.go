package aircraft_test

import (
	"fmt"
	"testing"

	"mainstay/approved"
	"mainstay/core/aircraft"
	"mainstay/core/airframe"
	"mainstay/core/checks"
	"mainstay/core/gate"
	"mainstay/core/judge"
	"mainstay/core/wear"
)

// Two stations with several parts each, and everything that can be against a
// station, each near where it decides.
func TestStationsAsApproved(t *testing.T) {
	in := quad()
	in.Type.Equipment = []airframe.Equipment{{Kind: "light", At: "frame", Count: 2}}
	in.Parts = nil
	positions := in.Type.Positions()
	for _, p := range append(positions[:4:4], positions[len(positions)-2:]...) {
		in.Parts = append(in.Parts, gate.Part{ID: "p-" + p.ID, Station: p.ID, Label: p.Label, Kind: p.Kind,
			Required: p.Required, Counters: wear.Counters{Seconds: 18*3600 - 1, Since: now.AddDate(0, -2, 0)},
			Limits: wear.Limits{Hours: 20, Flights: 100}})
	}
	in.Tasks = []gate.Task{{ID: "t", Title: "Screws", Place: "frame",
		Due: wear.Due{Verdict: judge.Watch, Sentence: "due."}}}
	in.Orders = []gate.Order{{ID: "o", Title: "Arm", Place: in.Parts[0].Station, At: now, Grounds: true}}
	in.Defects = []gate.Defect{{ID: "d", Title: "Crack", Place: "frame", Station: "Frame", Severity: judge.Watch, At: now}}
	in.Walkround.Findings = []gate.RunFinding{{Place: in.Parts[1].Station, Title: "Look", Verdict: judge.Watch,
		Sentence: "odd"}, {Place: in.Parts[1].Station, Title: "Pack", Verdict: judge.Stop, Sentence: "hot", PackID: "x"}}
	var lines []string
	seen := map[string]bool{}
	say := func(what string, in gate.Input) {
		states := aircraft.Stations(in)
		due := aircraft.NextDue(in.Type, states, nil)
		left := "none"
		if due.HoursLeft != nil {
			left = fmt.Sprintf("%.4f", *due.HoursLeft)
		}
		said := []string{fmt.Sprintf("  next: %s (%.4f, %s h left), %d odd", due.Sentence, due.Fraction, left,
			len(aircraft.Odd(states)))}
		for _, s := range states {
			if s.Verdict != judge.Clear || s.Fraction > 0 {
				said = append(said, fmt.Sprintf("  %s %s %.4f %s", s.Station, s.Verdict, s.Fraction, s.Sentence))
			}
		}
		text := fmt.Sprint(said)
		if !seen[text] { // what changes nothing says nothing
			lines = append(append(lines, what+":"), said...)
		}
		seen[text] = true
	}
	say("as it is", in)
	in.Walkround.Kept = checks.Kept(in.Type)
	approved.Vary(in, say)
	for i := range in.Parts {
		bare := in
		bare.Parts = append([]gate.Part{}, in.Parts...)
		bare.Parts[i].ID = ""
		say(fmt.Sprintf("no %s", in.Parts[i].Label), bare)
	}
	approved.Text(t, "stations", lines)
}
