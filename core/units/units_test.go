package units_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/units"
)

// Expected values: NIST SP 811 appendix B.8 conversion tables.
func TestToBase(t *testing.T) {
	for _, c := range []struct {
		unit  string
		shown float64
		base  float64
	}{
		{"ft", 400, 121.92}, {"kt", 1, 0.514444}, {"mph", 100, 44.704}, {"lb", 55, 24.947580}, {"gal", 1, 3.785412},
		{"degF", 32, 0}, {"degF", 212, 100}, {"degF", -40, -40}, {"m/s", 3, 3},
		{"inHg", 29.92, 1013.207589}, {"mi", 3, 4.828032},
	} {
		u, err := units.Find(c.unit)
		require.NoError(t, err)
		assert.InDelta(t, c.base, u.ToBase(c.shown), 1e-6, "%v %s", c.shown, c.unit)
	}
}

func TestFindUnknown(t *testing.T) {
	_, err := units.Find("furlong")
	assert.ErrorIs(t, err, units.ErrUnit)
}

func TestRoundTripOfEveryUnit(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		x := rapid.Float64Range(-1e6, 1e6).Draw(t, "x")
		for _, u := range units.All {
			assert.InDelta(t, x, u.FromBase(u.ToBase(x)), 1e-6, u.Code)
		}
	})
}

func TestStepsCompareAsTheInstrumentShows(t *testing.T) {
	high, low := 3.85, 3.82
	assert.NotEqual(t, 0.03, high-low, "binary fractions do not compare; that is why steps exist")
	n, ok := units.Steps(high-low, 0.001)
	assert.True(t, ok)
	assert.EqualValues(t, 30, n)
	n, _ = units.Steps(0.7, 0.1)
	assert.EqualValues(t, 7, n)
	for _, bad := range []float64{math.NaN(), math.Inf(1)} {
		_, ok = units.Steps(bad, 0.1)
		assert.False(t, ok)
	}
	_, ok = units.Steps(1, 0)
	assert.False(t, ok)
}
