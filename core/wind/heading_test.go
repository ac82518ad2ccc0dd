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

func TestBestHeading(t *testing.T) {
	l, err := wind.BestHeading(8, 240, []float64{20, 200, 290}, 6.7)
	require.NoError(t, err)
	assert.True(t, l.OK)
	assert.Equal(t, 200.0, l.Heading)
	assert.InDelta(t, 5.14, float64(l.Cross), 0.005)
	l, err = wind.BestHeading(8, 240, []float64{60, 100}, 6.7)
	require.NoError(t, err)
	assert.False(t, l.OK)
	assert.Contains(t, l.Reason, "Only tailwind")
	l, err = wind.BestHeading(12, 240, []float64{180}, 6.7)
	require.NoError(t, err)
	assert.False(t, l.OK)
	assert.Contains(t, l.Reason, "over the limit of 6.7")
	l, err = wind.BestHeading(5, 0, []float64{90, 270}, 6.7)
	require.NoError(t, err)
	assert.True(t, l.OK, "square across counts as no tailwind")
	_, err = wind.BestHeading(5, 0, nil, 6.7)
	assert.ErrorIs(t, err, wind.ErrInput)
}

// The triangle of velocities closes: air speed and wind add up to the ground
// speed along the course.
func TestGroundSpeedClosesTheTriangle(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		va, w := rapid.Float64Range(5, 30).Draw(t, "va"), rapid.Float64Range(0, 25).Draw(t, "w")
		from, course := rapid.Float64Range(0, 360).Draw(t, "from"), rapid.Float64Range(0, 360).Draw(t, "course")
		v, ok := wind.GroundSpeed(units.MetresPerSecond(va), units.MetresPerSecond(w), from, course)
		if !ok {
			_, cross := wind.Components(units.MetresPerSecond(w), from, course)
			assert.True(t, math.Abs(float64(cross)) >= va || v <= 0)
			return
		}
		rad := math.Pi / 180
		// What the air must do: ground vector less wind vector.
		x := float64(v)*math.Sin(course*rad) + w*math.Sin(from*rad)
		y := float64(v)*math.Cos(course*rad) + w*math.Cos(from*rad)
		assert.InDelta(t, va, math.Hypot(x, y), 1e-6)
	})
}

// The WMO table of the scale in knots, rounded there to whole ones, is an
// independent source of the edges.
func TestByEyeAgreesWithTheTableInKnots(t *testing.T) {
	knots := [][2]float64{{0, 0}, {1, 3}, {4, 6}, {7, 10}, {11, 16}, {17, 21}, {22, 27}, {28, 33}, {34, 40}, {41, 47},
		{48, 55}, {56, 63}}
	last := units.MetresPerSecond(0)
	for class, k := range knots {
		from, to, err := wind.ByEye(class)
		require.NoError(t, err)
		assert.Equal(t, last, from, "the classes follow each other without a gap")
		assert.LessOrEqual(t, float64(from), k[0]*1852/3600+0.26, "class %d", class)
		assert.GreaterOrEqual(t, float64(to), k[1]*1852/3600-0.26, "class %d", class)
		last = to
	}
	from, to, err := wind.ByEye(12)
	require.NoError(t, err)
	assert.EqualValues(t, 32.7, from)
	assert.EqualValues(t, 60, to)
	for _, class := range []int{-1, 13} {
		_, _, err := wind.ByEye(class)
		assert.ErrorIs(t, err, wind.ErrInput)
	}
}
