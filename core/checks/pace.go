package checks

import (
	"fmt"
	"slices"
	"strings"
	"time"

	"mainstay/core/judge"
)

// Press is one answer of a round, as far as its pace goes.
type Press struct {
	Item Item
	By   string
	At   time.Time
}

// Pace is how fast a round was walked.
type Pace struct {
	Items   int            `json:"items"`
	Seconds float64        `json:"seconds"`           // from its start to its last answer
	Each    map[string]int `json:"each,omitempty"`    // seconds that each item took whoever answered it
	Quick   int            `json:"quick,omitempty"`   // answers in all that came faster than one can look
	Fast    int            `json:"fast,omitempty"`    // longest row of answers that came faster than one can look
	FastS   float64        `json:"fast_s,omitempty"`  // how long that row took, s
	FastBy  string         `json:"fast_by,omitempty"` // whose it was
}

// ShortestRow is how many answers in a row, each faster than one can look, are said: one or
// two may be a quick eye.
const ShortestRow = 5

// things are how many things an item has one look at.
func (it Item) things() int {
	if it.Kind == Group || it.Kind == Alike {
		return max(1, len(it.Marks))
	}
	return 1
}

// PaceOf measures a round begun at a time by a person; leastS is how long a look at one thing
// takes at least, s. Each person's answers are a row of their own; the first answer of who
// joined later has no time of its own.
func PaceOf(begun time.Time, beganBy string, presses []Press, leastS float64) Pace {
	p := Pace{Items: len(presses), Each: map[string]int{}}
	sorted := slices.Clone(presses)
	slices.SortStableFunc(sorted, func(a, b Press) int { return a.At.Compare(b.At) })
	type row struct {
		at   time.Time
		n    int
		took time.Duration
	}
	rows := map[string]*row{beganBy: {at: begun}}
	for _, x := range sorted {
		p.Seconds = max(p.Seconds, x.At.Sub(begun).Seconds())
		r := rows[x.By]
		if r == nil {
			rows[x.By] = &row{at: x.At}
			continue
		}
		gap := x.At.Sub(r.at)
		r.at = x.At
		if x.Item.Kind != Drill {
			p.Each[x.Item.ID] = int(gap.Seconds() + 0.5)
		}
		if x.Item.Kind == Drill || gap.Seconds() >= leastS*float64(x.Item.things()) {
			r.n, r.took = 0, 0
			continue
		}
		p.Quick++
		r.n, r.took = r.n+1, r.took+gap
		if r.n >= ShortestRow && r.n > p.Fast {
			p.Fast, p.FastS, p.FastBy = r.n, r.took.Seconds(), x.By
		}
	}
	return p
}

// Usual is the usual length of a round, s, from those before; 0 where too few are known.
func Usual(before []float64) float64 {
	if len(before) < 5 {
		return 0
	}
	return median(before)
}

// Said says what is to be said of a pace: of a row that is too fast, of a round shorter than
// the crew allows (leastS, 0: it sets nothing), or much shorter than it usually is (usualS, 0:
// not known). Empty: nothing.
func (p Pace) Said(leastS, usualS float64) string {
	var out []string
	switch {
	case p.Fast > 0:
		out = append(out, fmt.Sprintf("%s in %s by %s: faster than anybody can look.", judge.Count(p.Fast, "item"),
			clock(p.FastS), p.FastBy))
	case p.Quick >= ShortestRow && 2*p.Quick > p.Items: // rests between them make no looks of them
		out = append(out, fmt.Sprintf("%d of %d items came faster than anybody can look.", p.Quick, p.Items))
	}
	switch {
	case p.Seconds < leastS:
		out = append(out, fmt.Sprintf("It took %s; the crew takes at least %s.", clock(p.Seconds), clock(leastS)))
	case usualS > 0 && p.Seconds < usualS/3:
		out = append(out, fmt.Sprintf("It took %s; on this aircraft it usually takes %s.", clock(p.Seconds), clock(usualS)))
	}
	if len(out) == 0 {
		return ""
	}
	return "The check went fast. " + strings.Join(out, " ")
}

// clock writes seconds as minutes and seconds.
func clock(s float64) string {
	n := int(s + 0.5)
	return fmt.Sprintf("%d:%02d", n/60, n%60)
}
