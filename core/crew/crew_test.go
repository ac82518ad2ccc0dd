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
