// Package wear keeps the life of parts: counters, the first limit that falls
// due, and a forecast from use. Times are UTC; running time is whole seconds.
package wear

import (
	"errors"
	"fmt"
	"math"
	"time"

	"mainstay/core/judge"
)

// Counters is what a part has been through. All values are zero or more.
type Counters struct {
	Seconds  int64     `json:"seconds"`
	Flights  int       `json:"flights"`
	Landings int       `json:"landings"`
	Cycles   int       `json:"cycles"`
	Litres   float64   `json:"litres"` // sprayed
	Since    time.Time `json:"since"`  // when calendar life began: fitted or made
}

// Add returns c with the use of one flight added.
func (c Counters) Add(u Use) Counters {
	c.Seconds += u.Seconds
	c.Flights += u.Flights
	c.Landings += u.Landings
	c.Cycles += u.Cycles
	c.Litres += u.Litres
	return c
}

// From returns what c has been through since the counters of then, whose Since
// it takes: the use since a task was last done.
func (c Counters) From(then Counters) Counters {
	return Counters{Seconds: c.Seconds - then.Seconds, Flights: c.Flights - then.Flights,
		Landings: c.Landings - then.Landings, Cycles: c.Cycles - then.Cycles,
		Litres: max(c.Litres-then.Litres, 0), Since: then.Since}
}

// Use is what one flight puts on a part.
type Use struct {
	Seconds  int64 `json:"seconds"`
	Flights  int   `json:"flights"`
	Landings int   `json:"landings"`
	Cycles   int   `json:"cycles"`

	Litres float64 `json:"litres"`
}

// Limits is the life of a part; zero means no limit of that kind.
type Limits struct {
	Hours    float64 `json:"hours,omitempty"`
	Flights  int     `json:"flights,omitempty"`
	Landings int     `json:"landings,omitempty"`
	Cycles   int     `json:"cycles,omitempty"`
	Litres   float64 `json:"litres,omitempty"`
	Days     int     `json:"days,omitempty"`
	Months   int     `json:"months,omitempty"`
}

// Calendar reports whether the limits count days, which takes a start date.
func (l Limits) Calendar() bool { return l.Days > 0 || l.Months > 0 }

// Most is the greatest limit of any kind: more than a century of hours.
const Most = 1_000_000

// Beyond reports whether any limit is outside 0 to Most, or not a number.
func (l Limits) Beyond() bool {
	for _, v := range []float64{l.Hours, float64(l.Flights), float64(l.Landings), float64(l.Cycles), l.Litres,
		float64(l.Days), float64(l.Months)} {
		if !(v >= 0 && v <= Most) {
			return true
		}
	}
	return false
}

// WarnAt is the share of a life used from which Watch is given.
const WarnAt = 0.9

// ErrCounters marks counters or limits that cannot be true.
var ErrCounters = errors.New("counters cannot be negative")

// ErrNoStart marks a calendar limit without the day from which it counts.
var ErrNoStart = errors.New("there is a calendar limit but no start date")

// Due is the limit that is reached first.
type Due struct {
	// hours, flights, landings, cycles, litres, days, months, or "" without a limit
	By       string        `json:"by"`
	Used     float64       `json:"used"`     // in the unit of By
	Limit    float64       `json:"limit"`    // in the unit of By
	Fraction float64       `json:"fraction"` // used / limit, 1 or more when due
	Verdict  judge.Verdict `json:"verdict"`
	Sentence string        `json:"sentence"`
}

// Judge finds the first limit that falls due: the one with the largest share
// used. At the limit it is Stop, from 90 percent Watch. Calendar life is
// counted in months to the same day of the month (the last one where the
// month is shorter). Errors: ErrCounters; a calendar limit without a start
// date is an error too, because unknown age must not pass as new.
func Judge(c Counters, l Limits, now time.Time) (Due, error) {
	d, err := First(c, l, now)
	if err != nil {
		return d, err
	}
	if d.By == "" {
		d.Sentence = "No life limit set."
		return d, nil
	}
	d.Sentence = sentence(d)
	return d, nil
}

// Stand is Judge where there must be an answer: what cannot be judged is due.
func Stand(c Counters, l Limits, now time.Time) Due {
	d, err := Judge(c, l, now)
	if err != nil {
		return Due{Fraction: 1, Verdict: judge.Stop, Sentence: "Its life is not known: " + err.Error() + "."}
	}
	return d
}

// First is Judge without the sentence, for going through a whole fleet.
func First(c Counters, l Limits, now time.Time) (Due, error) {
	if c.Seconds < 0 || c.Flights < 0 || c.Landings < 0 || c.Cycles < 0 || !(c.Litres >= 0) || l.Beyond() {
		return Due{}, ErrCounters
	}
	best := Due{Fraction: -1}
	take := func(by string, used, limit float64, due bool) {
		if limit <= 0 {
			return
		}
		f := used / limit
		if due {
			f = max(f, 1)
		} else {
			f = min(f, 0.999999)
		}
		if f > best.Fraction {
			best = Due{By: by, Used: used, Limit: limit, Fraction: f}
		}
	}
	take("hours", float64(c.Seconds)/3600, l.Hours, float64(c.Seconds) >= l.Hours*3600)
	take("flights", float64(c.Flights), float64(l.Flights), c.Flights >= l.Flights)
	take("landings", float64(c.Landings), float64(l.Landings), c.Landings >= l.Landings)
	take("cycles", float64(c.Cycles), float64(l.Cycles), c.Cycles >= l.Cycles)
	take("litres", c.Litres, l.Litres, c.Litres >= l.Litres)
	if l.Calendar() && c.Since.IsZero() {
		return Due{}, ErrNoStart
	}
	if l.Days > 0 {
		used := now.Sub(c.Since).Hours() / 24
		take("days", max(used, 0), float64(l.Days), !now.Before(c.Since.AddDate(0, 0, l.Days)))
	}
	if l.Months > 0 {
		end := AddMonths(c.Since, l.Months)
		used := now.Sub(c.Since).Hours() / end.Sub(c.Since).Hours() * float64(l.Months)
		take("months", max(used, 0), float64(l.Months), !now.Before(end))
	}
	if best.Fraction < 0 {
		return Due{}, nil
	}
	switch {
	case best.Fraction >= 1:
		best.Verdict = judge.Stop
	case best.Fraction >= WarnAt:
		best.Verdict = judge.Watch
	}
	return best, nil
}

func sentence(d Due) string {
	switch d.Verdict {
	case judge.Stop:
		return fmt.Sprintf("%.1f of %g %s used: due now.", d.Used, d.Limit, d.By)
	case judge.Watch:
		return fmt.Sprintf("%.1f of %g %s used: %.1f left.", d.Used, d.Limit, d.By, d.Limit-d.Used)
	}
	return fmt.Sprintf("%.1f of %g %s used.", d.Used, d.Limit, d.By)
}

// AddMonths adds calendar months and stays in the month it reaches: 31 August
// plus six months is the last day of February, not early March.
func AddMonths(t time.Time, months int) time.Time {
	y, m, d := t.Date()
	first := time.Date(y, m+time.Month(months), 1, t.Hour(), t.Minute(), t.Second(), t.Nanosecond(), t.Location())
	last := first.AddDate(0, 1, -1).Day()
	return first.AddDate(0, 0, min(d, last)-1)
}

// DayUse is the use of one day, in the unit of the limit it is held against.
type DayUse struct {
	DaysAgo int // 0 is today
	Amount  float64
}

// Forecast estimates the days until remaining is used up, from the daily use
// of the last 28 days with the last 14 counted twice:
//
//	rate = (2 sum(last 14) + sum(14 before)) / (2*14 + 14)
//
// ok is false when nothing was used in that time, or it cannot be worked out: no
// use, no date. A remaining
// of zero or less gives 0 days: it is due.
func Forecast(uses []DayUse, remaining float64) (days float64, ok bool) {
	if remaining <= 0 {
		return 0, true
	}
	sum := 0.0
	for _, u := range uses {
		switch {
		case u.DaysAgo >= 0 && u.DaysAgo < 14:
			sum += 2 * u.Amount
		case u.DaysAgo >= 14 && u.DaysAgo < 28:
			sum += u.Amount
		}
	}
	if days = remaining / (sum / 42); !(sum > 0) || !(days >= 0 && days <= math.MaxFloat64) {
		return 0, false
	}
	return days, true
}
