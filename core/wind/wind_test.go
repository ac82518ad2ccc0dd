package wind_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/units"
	"mainstay/core/wind"
)

func TestScaleOverCrops(t *testing.T) {
	for h, want := range map[units.Metres]float64{10: 5, 30: 6.37, 120: 8.64} {
		at, err := wind.Scale(5, nil, 10, h, wind.Crops)
		require.NoError(t, err)
		assert.InDelta(t, want, float64(at.Steady), 0.005)
		assert.True(t, at.GustAssumed)
		assert.InDelta(t, want*1.4, float64(at.Gust), 0.01)
	}
}

func TestScaleNotesAndRefusals(t *testing.T) {
	gust := units.MetresPerSecond(7)
	at, err := wind.Scale(5, &gust, 2, 60, wind.Open)
	require.NoError(t, err)
	assert.Len(t, at.Notes, 1, "from 2 m to over 30 m is rough")
	low := units.MetresPerSecond(4)
	for name, call := range map[string]func() (wind.AtHeight, error){
		"gust under steady": func() (wind.AtHeight, error) { return wind.Scale(5, &low, 2, 10, wind.Open) },
		"negative":          func() (wind.AtHeight, error) { return wind.Scale(-1, nil, 2, 10, wind.Open) },
		"not a number": func() (wind.AtHeight, error) {
			return wind.Scale(units.MetresPerSecond(math.NaN()), nil, 2, 10, wind.Open)
		},
		"no height":      func() (wind.AtHeight, error) { return wind.Scale(5, nil, 0, 10, wind.Open) },
		"unknown ground": func() (wind.AtHeight, error) { return wind.Scale(5, nil, 2, 10, "moon") },
	} {
		_, err := call()
		assert.ErrorIs(t, err, wind.ErrInput, name)
	}
}

func TestComponents(t *testing.T) {
	head, cross := wind.Components(8, 240, 200)
	assert.InDelta(t, 6.13, float64(head), 0.005)
	assert.InDelta(t, 5.14, float64(cross), 0.005)
	rapid.Check(t, func(t *rapid.T) {
		v, d, h := rapid.Float64Range(0, 40).Draw(t, "v"), rapid.Float64Range(0, 360).Draw(t, "from"), rapid.Float64Range(0,
			360).Draw(t, "heading")
		head, cross := wind.Components(units.MetresPerSecond(v), d, h)
		assert.InDelta(t, v, math.Hypot(float64(head), float64(cross)), 1e-9)
	})
}

func TestGustIsNeverScaledDown(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		s := rapid.Float64Range(0, 40).Draw(t, "steady")
		g := units.MetresPerSecond(s + rapid.Float64Range(0, 20).Draw(t, "more"))
		ref, h := rapid.Float64Range(0.5, 500).Draw(t, "ref"), rapid.Float64Range(0.5, 500).Draw(t, "h")
		at, err := wind.Scale(units.MetresPerSecond(s), &g, units.Metres(ref), units.Metres(h),
			rapid.SampledFrom(wind.AllGrounds).Draw(t, "ground"))
		require.NoError(t, err)
		assert.GreaterOrEqual(t, at.Gust, g)
	})
}
