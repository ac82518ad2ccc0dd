package crew_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"mainstay/core/crew"
)

// 14 CFR 107.65: "within the previous 24 calendar months"; the month counts to its end.
func TestCurrentThrough(t *testing.T) {
	day := func(y int, m time.Month, d int) time.Time { return time.Date(y, m, d, 0, 0, 0, 0, time.UTC) }
	assert.Equal(t, day(2026, 2, 28), crew.CurrentThrough(day(2024, 2, 1)))
	assert.Equal(t, day(2026, 12, 31), crew.CurrentThrough(day(2024, 12, 31)))
	assert.Equal(t, day(2028, 2, 29), crew.CurrentThrough(day(2026, 2, 10)))
	assert.True(t, crew.Current(day(2024, 2, 1), day(2026, 2, 28)))
	assert.False(t, crew.Current(day(2024, 2, 1), day(2026, 3, 1)))
}

func TestHas(t *testing.T) {
	for _, r := range crew.AllRoles {
		assert.True(t, crew.Has([]crew.Role{r}, r))
		assert.True(t, crew.Has([]crew.Role{crew.Chief}, r))
		assert.False(t, crew.Has(nil, r))
	}
	assert.False(t, crew.Has([]crew.Role{crew.Reader}, crew.Pilot, crew.Technician))
}

// Three packs empty, then three loaded, landings and nose-in; loaded before
// empty does not count.
func TestReadiness(t *testing.T) {
	d := func(n int) time.Time { return time.Date(2026, 5, n, 0, 0, 0, 0, time.UTC) }
	s := crew.UsualSyllabus
	for _, c := range []struct {
		name  string
		done  []crew.Practice
		tank  bool
		open  bool
		lacks int
	}{
		{"nothing", nil, true, false, 4},
		{"nothing, no tank", nil, false, false, 3},
		{"enough without a tank", []crew.Practice{{crew.Empty, 3, 3, true, d(1)}}, false, true, 0},
		{"not enough for a tank", []crew.Practice{{crew.Empty, 3, 6, true, d(1)}}, true, false, 1},
		{"all", []crew.Practice{{crew.Empty, 3, 3, true, d(1)}, {crew.Loaded, 3, 3, false, d(2)}}, true, true, 0},
		{"same day", []crew.Practice{{crew.Loaded, 3, 3, false, d(1)}, {crew.Empty, 3, 3, true, d(1)}}, true, true, 0},
		{"loaded too early", []crew.Practice{{crew.Loaded, 3, 3, true, d(1)}, {crew.Empty, 3, 3, true, d(2)}}, true, false,
			3},
		{"never nose-in", []crew.Practice{{crew.Empty, 4, 9, false, d(1)}}, false, false, 1},
	} {
		r := s.Judge(c.done, c.tank)
		assert.Equal(t, c.open, r.Open, c.name)
		assert.Len(t, r.Missing, c.lacks, "%s: %v", c.name, r.Missing)
	}
}

func TestFitnessWords(t *testing.T) {
	assert.Equal(t, []string{"alcohol", "food or water"}, crew.Fitness{Against: []string{"food", "alcohol"}}.Words())
	for _, p := range crew.AllPosts {
		assert.NotEmpty(t, p.Words())
	}
	assert.False(t, crew.Ground.Flies())
}
