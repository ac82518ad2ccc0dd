package airframe_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"mainstay/core/airframe"
)

// The bounds of a profile themselves are inside.
func TestBoundsAreInside(t *testing.T) {
	for name, c := range map[string]struct{ at, over func(*airframe.Type) }{
		"packs":    {func(a *airframe.Type) { a.Packs.Count = 4 }, func(a *airframe.Type) { a.Packs.Count = 5 }},
		"one pack": {func(a *airframe.Type) { a.Packs.Count = 1 }, func(a *airframe.Type) { a.Packs.Count = 0 }},
		"cells":    {func(a *airframe.Type) { a.Packs.Cells = 24 }, func(a *airframe.Type) { a.Packs.Cells = 25 }},
		"capacity": {func(a *airframe.Type) { a.Packs.CapacityMAh = 200000 }, func(a *airframe.Type) { a.Packs.CapacityMAh = 200001 }},
		"small":    {func(a *airframe.Type) { a.Packs.CapacityMAh = 100 }, func(a *airframe.Type) { a.Packs.CapacityMAh = 99 }},
		"mass":     {func(a *airframe.Type) { a.Limits.TakeoffMassKg = 1000 }, func(a *airframe.Type) { a.Limits.TakeoffMassKg = 1000.1 }},
		"height":   {func(a *airframe.Type) { a.Limits.FlightHeightM = 500 }, func(a *airframe.Type) { a.Limits.FlightHeightM = 500.1 }},
		"minutes":  {func(a *airframe.Type) { a.Limits.PlannedMinutes = 600 }, func(a *airframe.Type) { a.Limits.PlannedMinutes = 600.1 }},
		"warmth":   {func(a *airframe.Type) { a.Limits.WarmthOutlierC = 100 }, func(a *airframe.Type) { a.Limits.WarmthOutlierC = 100.1 }},
		"launch":   {func(a *airframe.Type) { a.Limits.LaunchPercent = 100 }, func(a *airframe.Type) { a.Limits.LaunchPercent = 100.1 }},
	} {
		a, b := shipped(t)["lantern-4"], shipped(t)["lantern-4"]
		c.at(&a)
		c.over(&b)
		assert.NoError(t, a.Validate(), name)
		assert.Error(t, b.Validate(), name)
	}
}

// What one gesture means on two types.
func TestGestures(t *testing.T) {
	types := shipped(t)
	quad, hexa := types["lantern-4"], types["dray-30"]
	words, unknown := quad.Gestures()
	assert.False(t, unknown)
	assert.Contains(t, words[0], "controller first")
	assert.Contains(t, words[1], "last resort")
	assert.Len(t, quad.Opposite(hexa), 2, "start and emergency stop are the other way round")
	assert.Empty(t, quad.Opposite(quad))
	quad.Sticks = nil
	words, unknown = quad.Gestures()
	assert.True(t, unknown)
	assert.Len(t, words, 1)
	assert.Empty(t, hexa.Opposite(quad))
	words, _ = types["tally-v"].Gestures()
	assert.Contains(t, words[0], "aircraft first")
	hexa.Sticks = &airframe.Sticks{Start: "up", Stop: " "}
	assert.Error(t, hexa.Validate())
}
