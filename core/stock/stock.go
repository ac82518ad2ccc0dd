// Package stock says when to order what the workshop uses up. Dates are civil
// dates at UTC midnight.
package stock

import (
	"errors"
	"fmt"
	"slices"
	"time"

	"mainstay/core/judge"
)

// Line is one kind of thing on the shelf.
type Line struct {
	OnHand       int
	Minimum      int // never to fall below
	DeliveryDays int
}

// Order is what to order and by when.
type Order struct {
	Quantity int           `json:"quantity"` // 0: nothing to order
	By       *time.Time    `json:"by"`       // last day to order; nil: no need in sight
	ShortOn  *time.Time    `json:"short_on"` // day on which the shelf would fall below the minimum
	Verdict  judge.Verdict `json:"verdict"`
	Sentence string        `json:"sentence"`
}

// ErrLine marks quantities that cannot be true.
var ErrLine = errors.New("quantities and days cannot be negative")

// Reorder takes the days on which one piece each will be needed and finds the
// day on which the shelf falls below its minimum, less the delivery time. The
// quantity covers every need up to that day plus the time of one delivery
// after it, and the minimum. Already below, or the order day past: Stop; within
// two weeks: Watch. Errors: ErrLine.
func Reorder(l Line, needs []time.Time, today time.Time) (Order, error) {
	if l.OnHand < 0 || l.Minimum < 0 || l.DeliveryDays < 0 {
		return Order{}, ErrLine
	}
	needs = slices.Clone(needs)
	slices.SortFunc(needs, func(a, b time.Time) int { return a.Compare(b) })
	short := func() (time.Time, bool) {
		if l.OnHand < l.Minimum {
			return today, true
		}
		if spare := l.OnHand - l.Minimum; spare < len(needs) {
			return needs[spare], true
		}
		return time.Time{}, false
	}
	on, any := short()
	if !any {
		s := fmt.Sprintf("%d on the shelf, nothing to order.", l.OnHand)
		if len(needs) > 0 {
			s = fmt.Sprintf("%d on the shelf cover the %d needed in sight.", l.OnHand, len(needs))
		}
		return Order{Sentence: s}, nil
	}
	if on.Before(today) {
		on = today
	}
	by := on.AddDate(0, 0, -l.DeliveryDays)
	until := on.AddDate(0, 0, l.DeliveryDays)
	count := 0
	for _, n := range needs {
		if !n.After(until) {
			count++
		}
	}
	o := Order{Quantity: max(count+l.Minimum-l.OnHand, 1), By: &by, ShortOn: &on}
	word := fmt.Sprintf("Order %d by %s: below the minimum of %d from %s, delivery takes %d days.", o.Quantity,
		by.Format(time.DateOnly), l.Minimum, on.Format(time.DateOnly), l.DeliveryDays)
	switch days := by.Sub(today).Hours() / 24; {
	case days <= 0 && !on.After(today):
		o.Verdict, o.Sentence = judge.Stop,
			fmt.Sprintf("Order %d now: %d on the shelf, the minimum is %d, delivery takes %d days.",
				o.Quantity, l.OnHand, l.Minimum, l.DeliveryDays)
		if l.OnHand >= l.Minimum {
			o.Sentence = fmt.Sprintf("Order %d now: %d on the shelf, more are due than that, delivery takes %d days.",
				o.Quantity, l.OnHand, l.DeliveryDays)
		}
	case days <= 0:
		o.Verdict, o.Sentence = judge.Stop, fmt.Sprintf("Order %d now: needed on %s, and delivery takes %d days.", o.Quantity,
			on.Format(time.DateOnly), l.DeliveryDays)
	case days <= 14:
		o.Verdict, o.Sentence = judge.Watch, word
	default:
		o.Sentence = word
	}
	return o, nil
}
