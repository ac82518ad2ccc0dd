package flights

import (
	"fmt"
	"slices"

	"mainstay/core/airframe"
	"mainstay/core/gate"
	"mainstay/core/judge"
	"mainstay/core/wear"
	"mainstay/internal/workshop"
)

// StationState is the condition of one station.
type StationState struct {
	Station   string
	Verdict   judge.Verdict
	Sentence  string
	Fraction  float64  // share of the life used by the part there
	HoursLeft *float64 // running hours until its hour limit
}

// stationStates judges every station. What is known goes to its station; on a
// partly known aircraft the rest is far from its limits.
func stationStates(k Known) []StationState {
	stations := k.Type.Stations()
	out := make([]StationState, len(stations))
	at := make(map[string]*StationState, len(stations))
	for i, st := range stations {
		out[i] = StationState{Station: st.ID, Sentence: "Nothing against it."}
		at[st.ID] = &out[i]
	}
	worse := func(station string, v judge.Verdict, sentence string) {
		if s := at[station]; s != nil && v > s.Verdict {
			s.Verdict, s.Sentence = v, sentence
		}
	}
	k.partStates(at)
	for _, t := range k.Work.Tasks {
		if t.Due.Verdict == judge.Stop {
			worse(t.Task.Station, judge.Stop, t.Task.Title+": "+t.Due.Sentence)
		}
	}
	for _, o := range k.Work.Orders {
		v := judge.Watch
		if o.Grounds || o.State == workshop.Signed {
			v = judge.Stop
		}
		worse(o.Station, v, "Work order: "+o.Title)
	}
	for _, d := range k.Walk.Defects {
		v, err := judge.ParseVerdict(d.Severity)
		if err != nil {
			v = judge.Stop
		}
		worse(d.Station, v, "Open defect: "+d.Title)
	}
	for _, f := range k.Walk.Findings {
		worse(f.Station, f.Verdict, f.Title+": "+f.Sentence)
	}
	return out
}

// partStates puts each known part on its station. Where several sit, the
// sentence names the one.
func (k Known) partStates(at map[string]*StationState) {
	if len(k.Input.Parts) == 0 {
		return
	}
	home := make(map[string]airframe.Position, len(k.Type.Positions()))
	for _, p := range k.Type.Positions() {
		home[p.ID] = p
	}
	for _, p := range k.Input.Parts {
		if s := at[home[p.Station].Station]; s != nil {
			partState(k.Input, p, p.Station != s.Station, s, func(v judge.Verdict, sentence string) {
				if v > s.Verdict {
					s.Verdict, s.Sentence = v, sentence
				}
			})
		}
	}
}

// partState judges the part at a position of a station; beside says that other
// parts sit there too, so that the sentence names this one.
func partState(in gate.Input, p gate.Part, beside bool, s *StationState, worse func(judge.Verdict, string)) {
	name := ""
	if beside {
		name = p.Label + ": "
	}
	if p.ID == "" {
		v := judge.Watch
		if p.Required {
			v = judge.Stop
		}
		worse(v, name+"No "+p.Kind+" is recorded here.")
		return
	}
	d, err := wear.Judge(p.Counters, p.Limits, in.Now)
	if err != nil {
		worse(judge.Stop, fmt.Sprintf("%sLife not known: %v.", name, err))
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

// Due is the part of an aircraft that falls due first.
type Due struct {
	Sentence  string
	Fraction  float64
	HoursLeft *float64 // fewest hours left on any part
}

// NextDue finds the part that has used the largest share of its life.
func (k Known) NextDue(states []StationState) Due {
	due := Due{Sentence: "No part with a life limit.", HoursLeft: k.HoursLeft}
	for _, s := range states {
		if s.Fraction > due.Fraction {
			due.Fraction, due.Sentence = s.Fraction, k.label(s.Station)+": "+s.Sentence
		}
		if s.HoursLeft != nil && (due.HoursLeft == nil || *s.HoursLeft < *due.HoursLeft) {
			due.HoursLeft = s.HoursLeft
		}
	}
	return due
}

// Odd keeps the states that are not clear: a list shows no others.
func Odd(states []StationState) []StationState {
	return slices.DeleteFunc(slices.Clone(states), func(s StationState) bool { return s.Verdict == judge.Clear })
}
