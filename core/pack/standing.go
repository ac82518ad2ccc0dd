package pack

import (
	"fmt"
	"math"
	"slices"
	"time"

	"mainstay/core/judge"
	"mainstay/core/robust"
	"mainstay/core/units"
)

// Measured is one reading in the history of a pack, oldest first. nil and empty
// are not measured.
type Measured struct {
	At           time.Time
	CellMV       []units.Millivolts
	RestedMin    *float64
	TemperatureC *float64
	MilliOhm     []float64
	LoadS        *float64 // seconds under load from which MilliOhm was worked out; nil: an instrument gave it
	Capacity     *Capacity
	Cycles       float64 // equivalent full cycles then
}

// Standing is what the whole history of a pack says.
type Standing struct {
	Resistance ResistanceTrend `json:"resistance"`
	Capacity   Outlook         `json:"capacity"`
	Discharge  *Discharge      `json:"discharge"`    // nil: no two readings of one rest far enough apart
	LowestCell int             `json:"lowest_cell"`  // lowest in the last three resting readings; 0: none
	MilliOhm   *float64        `json:"mean_mohm"`    // mean per cell, newest reading
	MAh        *float64        `json:"capacity_mah"` // median of the last five measurements
	Points     []CapacityPoint `json:"points"`       // for the chart
	Trend      []OhmPoint      `json:"trend"`        // mean resistance over time
	Verdict    judge.Verdict   `json:"verdict"`      // worst of what is known
	Concerns   []Judgement     `json:"concerns"`     // what is known and not clear
	NotKnown   []string        `json:"not_known"`    // what has not been measured
}

// OhmPoint is the mean resistance of the cells at one time.
type OhmPoint struct {
	At       time.Time `json:"at"`
	MilliOhm float64   `json:"mohm"`
}

// RestSlack is how much the stated rest of two readings may disagree and still
// be one rest.
const RestSlack = 2 * time.Hour

// Stand judges the history of a pack against its rated mAh.
func Stand(rated float64, history []Measured) Standing {
	s := Standing{Points: []CapacityPoint{}, Trend: []OhmPoint{}, Concerns: []Judgement{}, NotKnown: []string{}}
	var resting [][]units.Millivolts
	for _, m := range history {
		if m.Capacity != nil {
			s.Points = append(s.Points, CapacityPoint{m.At, m.Cycles, m.Capacity.MilliampHours, m.Capacity.PlusMinus})
		}
		if len(m.CellMV) > 1 && m.RestedMin != nil && *m.RestedMin >= RestMinutes {
			resting = append(resting, m.CellMV)
		}
	}
	s.resistance(history)
	s.Capacity = Forecast(s.Points, rated)
	s.LowestCell, s.Discharge = LowestRepeats(resting), newestRest(history)
	if n := len(s.Trend); n > 0 {
		s.MilliOhm = &s.Trend[n-1].MilliOhm
	}
	if n := len(s.Points); n > 0 {
		var last []float64
		for _, p := range s.Points[max(0, n-5):] {
			last = append(last, p.MAh)
		}
		m := robust.Median(last)
		s.MAh = &m
	}
	s.sum()
	return s
}

// resistance judges like with like: a load of seconds reads more than the short
// pulse of an instrument, so each kind has a baseline of its own. The curve is
// the instrument's where there is one; the worse verdict counts.
func (s *Standing) resistance(history []Measured) {
	var pulse, loaded []ResistanceReading
	last := 0.0
	for _, m := range history {
		if m.LoadS != nil && len(m.MilliOhm) > 0 {
			last = *m.LoadS
		}
	}
	for _, m := range history {
		r := ResistanceReading{m.At, m.TemperatureC, m.MilliOhm}
		switch {
		case len(m.MilliOhm) == 0:
		case m.LoadS == nil:
			pulse = append(pulse, r)
		case math.Abs(*m.LoadS-last) <= 0.25*last:
			loaded = append(loaded, r)
		}
	}
	shown, other := pulse, loaded
	if len(pulse) == 0 {
		shown, other = loaded, nil
	}
	for _, r := range shown {
		s.Trend = append(s.Trend, OhmPoint{r.At, mean(r.MilliOhm)})
	}
	s.Resistance = JudgeResistance(shown)
	if x := JudgeResistance(other); x.Known && (!s.Resistance.Known || x.Verdict > s.Resistance.Verdict) {
		x.Sentence += " Measured under load."
		s.Resistance = x
	}
}

// Summary is the standing without the points of its curves.
func (s Standing) Summary() Standing {
	s.Points, s.Trend = []CapacityPoint{}, []OhmPoint{}
	return s
}

// sum gathers what is known and not clear, and names what is not known.
func (s *Standing) sum() {
	add := func(v judge.Verdict, sentence string) {
		if v != judge.Clear {
			s.Concerns = append(s.Concerns, Judgement{Verdict: v, Sentence: sentence})
			s.Verdict = max(s.Verdict, v)
		}
	}
	if s.Resistance.Known {
		add(s.Resistance.Verdict, s.Resistance.Sentence)
	} else {
		s.NotKnown = append(s.NotKnown, s.Resistance.Sentence)
	}
	switch {
	case s.Capacity.Health == nil:
		s.NotKnown = append(s.NotKnown, s.Capacity.Sentence)
	case s.Capacity.Verdict == judge.Stop || s.Capacity.AtCycles != nil:
		add(s.Capacity.Verdict, s.Capacity.Sentence)
	}
	if s.Discharge == nil {
		s.NotKnown = append(s.NotKnown,
			"Self-discharge: no two readings of one rest, the first a day after the charge, the second three days later.")
	} else {
		add(s.Discharge.Verdict, s.Discharge.Sentence)
	}
	if s.LowestCell > 0 {
		add(judge.Watch, fmt.Sprintf("Cell %d was the lowest in each of the last %d resting readings.", s.LowestCell,
			LowestTimes))
	}
}

func mean(v []float64) float64 {
	sum := 0.0
	for _, x := range v {
		sum += x
	}
	return sum / float64(len(v))
}

// newestRest finds the newest pair of readings of one rest that tells the
// self-discharge: the stated rest of the later one must reach back to the rest
// of the earlier.
func newestRest(history []Measured) *Discharge {
	minutes := func(m Measured) time.Duration { return time.Duration(*m.RestedMin * float64(time.Minute)) }
	for i := len(history) - 1; i > 0; i-- {
		b := history[i]
		if b.RestedMin == nil || len(b.CellMV) == 0 {
			continue
		}
		from := b.At.Add(-minutes(b))
		// The earliest reading of this rest gives the longest base.
		k := slices.IndexFunc(history[:i], func(a Measured) bool {
			if a.RestedMin == nil || len(a.CellMV) != len(b.CellMV) || minutes(a) < SelfDischargeAfter {
				return false
			}
			began := a.At.Add(-minutes(a))
			return began.Sub(from).Abs() <= RestSlack
		})
		if k < 0 {
			continue
		}
		a := history[k]
		if d, ok := SelfDischarge(a.At.Add(-minutes(a)), RestingReading{a.At, a.CellMV}, RestingReading{b.At, b.CellMV}); ok {
			return &d
		}
	}
	return nil
}
