package aircraft

import (
	"cmp"
	"slices"
	"time"

	"mainstay/core/gate"
	"mainstay/core/judge"
	"mainstay/core/upkeep"
	"mainstay/core/wear"
)

// Item is one line of the list of what falls due: a part with a limit, a
// position without its part, or a task that repeats.
type Item struct {
	Aircraft string
	Station  string
	Label    string
	Verdict  judge.Verdict
	Sentence string
	Fraction float64    // share of the life used, 1 and more when due
	On       *time.Time // civil date, UTC midnight; nil: no day is known
	By       string     // the limit that is reached first; flying: after the day's last flight
	Forecast bool       // On rests on use of late, not on the calendar
	Kinds    []string   // of the parts that are needed on that day, one by one
}

// PartDue is the line of a position; ok is false where there is nothing to fall
// due. lately is what the part there did day by day, today the civil date in the
// crew's zone.
func PartDue(name string, p gate.Part, lately wear.Recent, now, today time.Time) (it Item, ok bool) {
	if p.ID == "" && !p.Required && p.Limits == (wear.Limits{}) {
		return Item{}, false
	}
	d := p.Life(now)
	it = Item{Aircraft: name, Station: p.Station, Label: p.Label, Verdict: d.Verdict, Sentence: d.Sentence,
		Fraction: d.Fraction, By: d.By}
	if d.By == "" {
		return it, d.Verdict != judge.Clear
	}
	it.falls(p.Counters, p.Limits, lately, today, p.Kind)
	return it, true
}

// TaskDue is the line of a repeating task of which due is known; ok is false for
// one that is done after flying and has been.
func TaskDue(name string, t upkeep.Standing, due wear.Due, lately wear.Recent, today time.Time) (it Item, ok bool) {
	it = Item{Aircraft: name, Station: t.Task.Station, Label: t.Task.Title, Verdict: due.Verdict, Sentence: due.Sentence,
		Fraction: due.Fraction, By: due.By}
	if t.Task.AfterFlying {
		it.On, it.By = &today, "flying"
		return it, due.Fraction > 0
	}
	var kinds []string
	for _, n := range t.Task.Parts {
		kinds = append(kinds, slices.Repeat([]string{n.Kind}, n.Count)...)
	}
	it.falls(t.Since, t.Task.Every, lately, today, kinds...)
	return it, true
}

// falls sets the day on which the first limit is reached. Counters that cannot be
// judged have none: they are a Stop already.
func (it *Item) falls(c wear.Counters, l wear.Limits, lately wear.Recent, today time.Time, kinds ...string) {
	when, err := wear.When(c, l, lately, today)
	if err != nil {
		it.Verdict, it.Fraction = judge.Stop, 1
		return
	}
	if when.Known {
		it.On, it.By, it.Forecast, it.Kinds = &when.On, when.By, when.Forecast, kinds
	}
}

// DueOrder puts what is due now before what will be, that by its day, and what
// has no day last.
func DueOrder(a, b Item) int {
	return cmp.Or(cmp.Compare(a.rank(), b.rank()), a.day().Compare(b.day()), cmp.Compare(b.Fraction, a.Fraction),
		cmp.Compare(a.Aircraft, b.Aircraft), cmp.Compare(a.Station, b.Station))
}

func (it Item) rank() int {
	switch {
	case it.Verdict == judge.Stop:
		return 0
	case it.On != nil:
		return 1
	}
	return 2
}

func (it Item) day() time.Time {
	if it.On == nil {
		return time.Time{}
	}
	return *it.On
}
