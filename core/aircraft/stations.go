// Package aircraft says how each station of an aircraft stands, and what falls
// due first, from the same evidence that the gate judges: a drawing, a list and
// the gate cannot disagree.
package aircraft

import (
	"slices"

	"mainstay/core/airframe"
	"mainstay/core/gate"
	"mainstay/core/judge"
)

// State is the condition of one station.
type State struct {
	Station   string
	Verdict   judge.Verdict
	Sentence  string
	Fraction  float64  // share of the life used by the part there, 0 and up
	HoursLeft *float64 // running hours until its hour limit, h; nil: no such limit
}

// Stations judges every station of the type by the life of its parts, the tasks
// that are due there, the work that is open, its defects, and what the newest
// checks found there. Where only the parts near a limit are given, the others
// are far from theirs.
func Stations(in gate.Input) []State {
	stations := in.Type.Stations()
	out := make([]State, len(stations))
	at := make(map[string]*State, len(stations))
	for i, st := range stations {
		out[i] = State{Station: st.ID, Sentence: "Nothing against it."}
		at[st.ID] = &out[i]
	}
	worse := func(station string, v judge.Verdict, sentence string) {
		if s := at[station]; s != nil && v > s.Verdict {
			s.Verdict, s.Sentence = v, sentence
		}
	}
	parts(in, at)
	for _, t := range in.Tasks {
		worse(t.Place, t.Due.Verdict, t.Title+": "+t.Due.Sentence)
	}
	for _, o := range in.Orders {
		v, sentence := o.Judge(in.Acceptance)
		worse(o.Place, v, sentence)
	}
	for _, d := range in.Defects {
		v, sentence := d.Judge()
		worse(d.Place, v, sentence)
	}
	for _, r := range in.Checks() {
		for _, f := range r.Findings {
			if f.PackID == "" {
				worse(f.Place, f.Verdict, f.Title+": "+f.Sentence)
			}
		}
	}
	return out
}

// parts puts each part on its station. Where several sit, the sentence names the
// one.
func parts(in gate.Input, at map[string]*State) {
	if len(in.Parts) == 0 {
		return
	}
	home := map[string]airframe.Position{}
	for _, p := range in.Type.Positions() {
		home[p.ID] = p
	}
	for _, p := range in.Parts {
		if s := at[home[p.Station].Station]; s != nil {
			s.part(in, p, p.Station != s.Station)
		}
	}
}

// part judges the part at a position of the station; beside says that other
// parts sit there too, so that the sentence names this one.
func (s *State) part(in gate.Input, p gate.Part, beside bool) {
	name := ""
	if beside {
		name = p.Label + ": "
	}
	worse := func(v judge.Verdict, sentence string) {
		if v > s.Verdict {
			s.Verdict, s.Sentence = v, sentence
		}
	}
	d := p.Life(in.Now)
	if d.By == "" && d.Verdict != judge.Clear { // nothing fitted, or nothing known
		worse(d.Verdict, name+d.Sentence)
		return
	}
	if d.Fraction > s.Fraction || !beside {
		s.Fraction = d.Fraction
		if s.Verdict == judge.Clear && d.By != "" {
			s.Sentence = name + d.Sentence
		}
	}
	worse(d.Verdict, name+d.Sentence)
	if p.Limits.Hours > 0 {
		left := max(p.Limits.Hours-float64(p.Counters.Seconds)/3600, 0)
		if s.HoursLeft == nil || left < *s.HoursLeft {
			s.HoursLeft = &left
		}
	}
}

// Odd keeps the states that are not clear: a list shows no others.
func Odd(states []State) []State {
	return slices.DeleteFunc(slices.Clone(states), func(s State) bool { return s.Verdict == judge.Clear })
}

// Due is the part of an aircraft that falls due first.
type Due struct {
	Sentence  string
	Fraction  float64  // share of its life used, 0 and up
	HoursLeft *float64 // fewest hours left on any part; nil: no hour limit
}

// NextDue finds the part that has used the largest share of its life. hoursLeft
// is the fewest hours left on parts that are not among the states; nil: none.
func NextDue(t airframe.Type, states []State, hoursLeft *float64) Due {
	label := map[string]string{}
	for _, st := range t.Stations() {
		label[st.ID] = st.Label
	}
	due := Due{Sentence: "No part with a life limit.", HoursLeft: hoursLeft}
	for _, s := range states {
		if s.Fraction > due.Fraction {
			due.Fraction, due.Sentence = s.Fraction, label[s.Station]+": "+s.Sentence
		}
		if s.HoursLeft != nil && (due.HoursLeft == nil || *s.HoursLeft < *due.HoursLeft) {
			due.HoursLeft = s.HoursLeft
		}
	}
	return due
}
