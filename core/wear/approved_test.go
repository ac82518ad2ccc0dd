package wear_test

import (
	"fmt"
	"slices"
	"testing"
	"time"

	"mainstay/approved"
	"mainstay/core/wear"
)

// A part against every limit, with every counter near where it decides.
func TestLivesAsApproved(t *testing.T) {
	at := time.Date(2026, 6, 10, 12, 0, 0, 0, time.UTC)
	type life struct {
		Used   wear.Counters
		Limits wear.Limits
		Recent wear.Recent
	}
	uses := []wear.DayUse{{DaysAgo: 0, Amount: 2}, {DaysAgo: 13, Amount: 1}, {DaysAgo: 14, Amount: 3},
		{DaysAgo: 27, Amount: 1}, {DaysAgo: 28, Amount: 50}}
	var lines []string
	for name, l := range map[string]wear.Limits{"hours": {Hours: 24}, "flights": {Flights: 100},
		"landings": {Landings: 100}, "cycles": {Cycles: 50}, "litres": {Litres: 900}, "days": {Days: 30},
		"months": {Months: 6}, "all": {Hours: 24, Flights: 100, Landings: 100, Cycles: 50, Litres: 900, Days: 200,
			Months: 6}} {
		for _, share := range []float64{0.2, 0.89, 0.9, 0.99, 1, 1.2} {
			s := life{wear.Counters{Seconds: int64(24 * 3600 * share), Flights: int(100 * share), Landings: int(100 * share),
				Cycles: int(50 * share), Litres: 900 * share, Since: at.AddDate(0, -int(6*share), 0)}, l,
				wear.Recent{Hours: uses, Flights: uses, Landings: uses, Cycles: uses, Litres: uses}}
			say := func(what string, s life) {
				d, err := wear.Judge(s.Used, s.Limits, at)
				first, err2 := wear.First(s.Used, s.Limits, at)
				when, err3 := wear.When(s.Used, s.Limits, s.Recent, at)
				lines = append(lines, fmt.Sprintf("%s %g%s: %s %s %.4f %q %v; %s %v; %s %s %v %v", name, share, what, d.Verdict,
					d.By, d.Fraction, d.Sentence, err, first.Verdict, err2, when.On.Format(time.DateOnly), when.By, when.Forecast,
					err3))
			}
			say("", s)
			if share == 0.9 && name == "all" {
				approved.Vary(s, func(what string, s life) { say(" "+what, s) })
			}
		}
	}
	slices.Sort(lines) // a map has no order
	approved.Text(t, "lives", lines)
}
