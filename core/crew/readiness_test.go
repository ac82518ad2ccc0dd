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
			done = append(done, crew.Practice{Phase: phase, Packs: rapid.IntRange(0, 4).Draw(t, "packs"), Landings: rapid.IntRange(0, 5).Draw(t, "landings"), NoseIn: rapid.Bool().Draw(t, "nose-in"), On: time.Date(2026, 5, rapid.IntRange(1, 20).Draw(t, "day"), 0, 0, 0, 0, time.UTC)})
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
