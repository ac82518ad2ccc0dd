package crew_test

import (
	"fmt"
	"testing"
	"time"

	"mainstay/approved"
	"mainstay/core/crew"
)

// Practice near what opens a type, training near the day it runs out, and what
// posts and declarations are called.
func TestCrewAsApproved(t *testing.T) {
	day := time.Date(2026, 5, 1, 0, 0, 0, 0, time.UTC)
	done := []crew.Practice{{Phase: crew.Empty, Packs: 2, Landings: 3, On: day},
		{Phase: crew.Loaded, Packs: 1, Landings: 1, On: day},
		{Phase: crew.Empty, Packs: 1, Landings: 1, NoseIn: true, On: day.AddDate(0, 0, 1)},
		{Phase: crew.Loaded, Packs: 3, Landings: 2, On: day.AddDate(0, 0, 2)}}
	var lines []string
	for _, tank := range []bool{true, false} {
		say := func(what string, done []crew.Practice) {
			r := crew.UsualSyllabus.Judge(done, tank)
			lines = append(lines, fmt.Sprintf("tank %v%s: open %v, %d empty, %d loaded, %d landings, nose-in %v, missing %q",
				tank, what, r.Open, r.EmptyPacks, r.LoadedPacks, r.Landings, r.NoseIn, r.Missing))
		}
		say("", done)
		approved.Vary(done, func(what string, done []crew.Practice) { say(" "+what, done) })
		for i := range done {
			say(fmt.Sprint(" without ", i), append(append([]crew.Practice{}, done[:i]...), done[i+1:]...))
		}
	}
	for _, trained := range []time.Time{day, time.Date(2024, 2, 29, 0, 0, 0, 0, time.UTC),
		time.Date(2025, 12, 31, 0, 0, 0, 0, time.UTC)} {
		through := crew.CurrentThrough(trained)
		for d := -1; d <= 1; d++ {
			lines = append(lines, fmt.Sprintf("trained %s, on %s: %v", trained.Format(time.DateOnly),
				through.AddDate(0, 0, d).Format(time.DateOnly), crew.Current(trained, through.AddDate(0, 0, d))))
		}
	}
	for _, p := range crew.FitnessPoints {
		lines = append(lines, fmt.Sprintf("%s: %q, under a law %q", p.ID, crew.Fitness{Against: []string{p.ID}}.Words(),
			crew.AskedUnder("No alcohol for 24 hours")))
	}
	approved.Text(t, "crew", lines)
}
