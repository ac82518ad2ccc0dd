package crew_test

import (
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"mainstay/core/crew"
)

// More practice never closes a type, and the order in which it was logged does
// not matter, only the days.
func TestPracticeOnlyHelps(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		tank := rapid.Bool().Draw(t, "tank")
		var done []crew.Practice
		for range rapid.IntRange(0, 8).Draw(t, "entries") {
			phase := crew.Empty
			if tank && rapid.Bool().Draw(t, "loaded") {
				phase = crew.Loaded
			}
			done = append(done, crew.Practice{Phase: phase, Packs: rapid.IntRange(0, 4).Draw(t, "packs"),
				Landings: rapid.IntRange(0, 5).Draw(t, "landings"), NoseIn: rapid.Bool().Draw(t, "nose-in"),
				On: time.Date(2026, 5, rapid.IntRange(1, 20).Draw(t, "day"), 0, 0, 0, 0, time.UTC)})
		}
		s := crew.UsualSyllabus
		before := s.Judge(done, tank)
		late := crew.Practice{Phase: crew.Empty, Packs: 1, Landings: 1, On: time.Date(2026, 6, 1, 0, 0, 0, 0, time.UTC)}
		after := s.Judge(append(slices.Clone(done), late), tank)
		if before.Open {
			assert.True(t, after.Open)
		}
		shuffled := rapid.Permutation(done).Draw(t, "order")
		assert.Equal(t, before.Open, s.Judge(shuffled, tank).Open)
		assert.Equal(t, before.Open, len(before.Missing) == 0)

		// The definition, written down directly for packs: loaded ones count from the day the empty ones are complete.
		empty, loaded := 0, 0
		for d := 1; d <= 20; d++ {
			for _, phase := range []crew.Phase{crew.Empty, crew.Loaded} {
				for _, p := range done {
					if p.On.Day() == d && p.Phase == phase {
						if phase == crew.Empty {
							empty += p.Packs
						} else if empty >= s.EmptyPacks {
							loaded += p.Packs
						}
					}
				}
			}
		}
		assert.Equal(t, []int{empty, loaded}, []int{before.EmptyPacks, before.LoadedPacks})
	})
}

// Half the landings, rounded up, where there is no tank.
func TestLandingsWithoutATank(t *testing.T) {
	day := time.Date(2026, 5, 1, 0, 0, 0, 0, time.UTC)
	for _, c := range []struct {
		asked, done int
		tank, open  bool
	}{{5, 3, false, true}, {5, 2, false, false}, {6, 3, false, true}, {6, 2, false, false}, {1, 1, false, true}, {5, 4,
		true, false}, {5, 5, true, true}} {
		s := crew.Syllabus{EmptyPacks: 1, LoadedPacks: 1, Landings: c.asked}
		got := s.Judge([]crew.Practice{{Phase: crew.Empty, Packs: 1, NoseIn: true, On: day},
			{Phase: crew.Loaded, Packs: 1, Landings: c.done, On: day.AddDate(0, 0, 1)}}, c.tank)
		assert.Equal(t, c.open, got.Open, "%d of %d, tank %v: %v", c.done, c.asked, c.tank, got.Missing)
	}
}
