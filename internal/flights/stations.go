package flights

import (
	"fmt"
	"slices"

	"mainstay/core/gate"
	"mainstay/core/judge"
	"mainstay/core/wear"
)

// StationState is the condition of one station.
type StationState struct {
	Station   string
	Verdict   judge.Verdict
	Sentence  string
	Fraction  float64  // share of the life used by the part there
	HoursLeft *float64 // running hours until its hour limit
}

func stationStates(k Known) []StationState {
	in, walk := k.Input, k.Walk
	positions := k.Type.Positions()
	var out []StationState
	for _, st := range k.Type.Stations() {
		s := StationState{Station: st.ID, Sentence: "Nothing against it."}
		worse := func(v judge.Verdict, sentence string) {
			if v > s.Verdict {
				s.Verdict, s.Sentence = v, sentence
			}
		}
		for _, at := range positions {
			if at.Station != st.ID {
				continue
			}
			i := slices.IndexFunc(in.Parts, func(p gate.Part) bool { return p.Station == at.ID })
			if i >= 0 {
				partState(in, in.Parts[i], at.ID != st.ID, &s, worse)
			}
		}
		for _, t := range k.Work.Tasks {
			if t.Task.Station == st.ID && t.Due.Verdict == judge.Stop {
				worse(t.Due.Verdict, t.Task.Title+": "+t.Due.Sentence)
			}
		}
		for _, o := range in.Orders {
			if k.orderStation(o.ID) == st.ID {
				v := judge.Watch
				if o.Grounds || o.Signed {
					v = judge.Stop
				}
				worse(v, "Work order: "+o.Title)
			}
		}
		if m := k.Motor; m != nil && st.ID == fmt.Sprintf("motor-%d", m.Motor) {
			worse(judge.Watch, "After the last flight: "+m.Sentence)
		}
		for _, d := range walk.Defects {
			if d.Station == st.ID {
				v, err := judge.ParseVerdict(d.Severity)
				if err != nil {
					v = judge.Stop
				}
				worse(v, "Open defect: "+d.Title)
			}
		}
		for _, f := range walk.Findings {
			if f.Station == st.ID {
				worse(f.Verdict, f.Title+": "+f.Sentence)
			}
		}
		out = append(out, s)
	}
	return out
}

func (k Known) orderStation(id string) string {
	for _, o := range k.Work.Orders {
		if o.ID.String() == id {
			return o.Station
		}
	}
	return ""
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
	due := Due{Sentence: "No part with a life limit."}
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
