package upkeep

import (
	"fmt"
	"slices"
	"time"

	"mainstay/core/judge"
	"mainstay/core/wear"
)

// Deferral is something put off by signature: it ends at the first of its
// limits.
type Deferral struct {
	ID         string    `json:"id"`
	By         string    `json:"by"`
	At         time.Time `json:"at"`
	ExpiresOn  time.Time `json:"expires_on"`            // civil date, the last day it holds
	MaxSeconds int64     `json:"max_seconds,omitempty"` // of the aircraft's running time; 0: no limit
	MaxFlights int       `json:"max_flights,omitempty"`
	Limits     string    `json:"limits"`
}

// Ended says why a deferral no longer holds, "" while it does. day is the
// civil date in the crew's zone, seconds and flights the aircraft's counters.
func (d Deferral) Ended(day time.Time, seconds int64, flights int) string {
	switch {
	case day.After(d.ExpiresOn):
		return "it ended on " + d.ExpiresOn.Format(time.DateOnly)
	case d.MaxSeconds > 0 && seconds >= d.MaxSeconds:
		return fmt.Sprintf("it ended at %.1f h of the aircraft", float64(d.MaxSeconds)/3600)
	case d.MaxFlights > 0 && flights >= d.MaxFlights:
		return fmt.Sprintf("it ended at flight %d of the aircraft", d.MaxFlights)
	}
	return ""
}

// Defer makes the deferral that a grace allows from the aircraft's counters. A
// nil grace allows none: ok is false. days shorter than the grace may be asked
// for; more is cut to the grace.
func (g *Grace) Defer(day time.Time, seconds int64, flights, days int) (d Deferral, ok bool) {
	if g == nil {
		return Deferral{}, false
	}
	if days < 1 || days > g.Days {
		days = g.Days
	}
	d = Deferral{ExpiresOn: day.AddDate(0, 0, days), Limits: g.Limits}
	if g.Hours > 0 {
		d.MaxSeconds = seconds + int64(g.Hours*3600)
	}
	if g.Flights > 0 {
		d.MaxFlights = flights + g.Flights
	}
	return d, true
}

// LeaveFor returns the grace for defects at a kind of station, nil for none.
func (p Programme) LeaveFor(kind string) *Grace {
	for i := range p.Leaves {
		if slices.Contains(p.Leaves[i].Stations, kind) {
			return &p.Leaves[i].Grace
		}
	}
	return nil
}

// Task returns the task of an id.
func (p Programme) Task(id string) (Task, bool) {
	i := slices.IndexFunc(p.Tasks, func(t Task) bool { return t.ID == id })
	if i < 0 {
		return Task{}, false
	}
	return p.Tasks[i], true
}

// OpenedBy lists the tasks that an event opens.
func (p Programme) OpenedBy(e Event) []Task {
	var out []Task
	for _, t := range p.Tasks {
		if slices.Contains(t.After, e) {
			out = append(out, t)
		}
	}
	return out
}

// Standing is how one repeating task of one aircraft stands.
type Standing struct {
	Task        Task
	Since       wear.Counters // use since it was last done
	DoneAt      time.Time     // zero: never
	LastLanding *time.Time
	Deferral    *Deferral
}

// Judge says how a task stands at now: due at the first limit is Stop, or
// Watch while a deferral holds; from 90 percent Watch. A task after the day's
// flying is due from the next civil day in the zone of day: Watch, because the
// walkround still stands before the next flight. Tasks that only events open
// are Clear here. day is the civil date in the crew's zone whose location is
// loc.
func (s Standing) Judge(now, day time.Time, loc *time.Location, seconds int64, flights int) (wear.Due, error) {
	if s.Task.AfterFlying {
		return s.afterFlying(day, loc), nil
	}
	d, err := wear.Judge(s.Since, s.Task.Every, now)
	if err != nil || d.Verdict != judge.Stop || s.Deferral == nil {
		return d, err
	}
	if why := s.Deferral.Ended(day, seconds, flights); why != "" {
		d.Sentence += " It was put off; " + why + "."
		return d, nil
	}
	d.Verdict = judge.Watch
	d.Sentence += fmt.Sprintf(" Put off by %s through %s.", s.Deferral.By, s.Deferral.ExpiresOn.Format(time.DateOnly))
	if s.Deferral.Limits != "" {
		d.Sentence += " " + s.Deferral.Limits
	}
	return d, nil
}

func (s Standing) afterFlying(day time.Time, loc *time.Location) wear.Due {
	d := wear.Due{By: "flying", Limit: 1, Sentence: "Done since the last flight."}
	if s.LastLanding == nil {
		d.Sentence = "Not flown yet."
		return d
	}
	if s.DoneAt.After(*s.LastLanding) {
		return d
	}
	d.Used, d.Fraction = 1, 1
	flown := s.LastLanding.In(loc)
	if y, m, n := flown.Date(); !time.Date(y, m, n, 0, 0, 0, 0, time.UTC).Before(day) {
		d.Fraction, d.Sentence = 0.95, "Flown today: due this evening."
		return d
	}
	d.Verdict, d.Sentence = judge.Watch, "Flown on "+flown.Format(time.DateOnly)+" and not inspected since."
	return d
}
