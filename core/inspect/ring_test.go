package inspect_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/inspect"
)

// A tower of 2 m radius and 30 m, pictures of 6 x 4 m with half overlap: 12.57 m round by
// 3 m are 5, and (30 - 4)/2 + 1 are 14 rows.
func TestRingByHand(t *testing.T) {
	s, err := inspect.Ring(inspect.Round{RadiusM: 2, HeightM: 30, WideM: 6, HighM: 4, Sideways: 50, Upward: 50})
	require.NoError(t, err)
	assert.Equal(t, inspect.Shots{Around: 5, Rows: 14, All: 70}, s)
	s, err = inspect.Ring(inspect.Round{RadiusM: 2, HeightM: 3, WideM: 6, HighM: 4, Sideways: 50, Upward: 50})
	require.NoError(t, err)
	assert.Equal(t, 1, s.Rows)
	_, err = inspect.Ring(inspect.Round{RadiusM: math.NaN(), HeightM: 3, WideM: 6, HighM: 4, Sideways: 50, Upward: 50})
	assert.ErrorIs(t, err, inspect.ErrInput)
}

// Every height of the surface lies in a row, and the rows reach its top.
func TestRowsReachTheTop(t *testing.T) {
	rapid.Check(t, func(r *rapid.T) {
		h, high, up := rapid.Float64Range(0.1, 200).Draw(r, "height"), rapid.Float64Range(0.05, 50).Draw(r,
			"seen"), rapid.Float64Range(0, 95).Draw(r, "overlap")
		s, err := inspect.Ring(inspect.Round{RadiusM: 1, HeightM: h, WideM: 2, HighM: high, Sideways: 30, Upward: up})
		require.NoError(r, err)
		step := high * (1 - up/100)
		assert.GreaterOrEqual(r, float64(s.Rows-1)*step+high, h-1e-6)
		if s.Rows > 1 {
			assert.Less(r, float64(s.Rows-2)*step+high, h+1e-6, "one row fewer does not")
		}
	})
}
