package robust_test

import (
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/stat"
	"pgregory.net/rapid"

	"mainstay/core/robust"
)

func TestMedianAndMAD(t *testing.T) {
	assert.True(t, math.IsNaN(robust.Median(nil)))
	assert.Equal(t, 2.0, robust.Median([]float64{9, 1, 2}))
	assert.Equal(t, 2.5, robust.Median([]float64{9, 1, 2, 3}))
	assert.Equal(t, 1.0, robust.MAD([]float64{1, 1, 2, 2, 4, 6, 9}), "the textbook set: median 2, distances 0 0 1 1 2 4 7")
}

// Sen's own worked example (1968, section 5): n = 7 with one tied pair of x.
func TestSensExample(t *testing.T) {
	x := []float64{1, 2, 3, 4, 10, 12, 18}
	y := []float64{9, 15, 19, 20, 45, 55, 78}
	l, err := robust.TheilSen(x, y)
	require.NoError(t, err)
	assert.InDelta(t, 4, l.Slope, 1e-9, "the published estimate")
	assert.Equal(t, 4.0, l.MidX)
	assert.Equal(t, 20.0, l.MidY)
	assert.LessOrEqual(t, l.Low, 4.0)
	assert.GreaterOrEqual(t, l.High, 4.0)
	assert.InDelta(t, 24, l.At(5), 1e-9)
}

func TestTooFewPoints(t *testing.T) {
	for _, x := range [][2][]float64{{nil, nil}, {{1}, {1}}, {{1, 1, 1}, {1, 2, 3}}, {{1, 2}, {1}}} {
		_, err := robust.TheilSen(x[0], x[1])
		assert.ErrorIs(t, err, robust.ErrPoints)
	}
}

// On a clean line it agrees with least squares; one wild point hardly moves it.
func TestAgainstLeastSquaresAndAWildPoint(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n := rapid.IntRange(8, 40).Draw(t, "n")
		a, b := rapid.Float64Range(-50, 50).Draw(t, "a"), rapid.Float64Range(-5, 5).Draw(t, "b")
		x, y := make([]float64, n), make([]float64, n)
		for i := range x {
			x[i] = float64(i) + rapid.Float64Range(0, 0.5).Draw(t, "dx")
			y[i] = a + b*x[i]
		}
		l, err := robust.TheilSen(x, y)
		require.NoError(t, err)
		alpha, beta := stat.LinearRegression(x, y, nil, false)
		assert.InDelta(t, beta, l.Slope, 1e-6)
		assert.InDelta(t, alpha, l.At(0), 1e-5)
		assert.InDelta(t, beta, l.Low, 1e-6, "no scatter, no interval")
		wild := slices.Clone(y)
		wild[rapid.IntRange(0, n-1).Draw(t, "which")] += rapid.Float64Range(-1000, 1000).Draw(t, "by")
		w, err := robust.TheilSen(x, wild)
		require.NoError(t, err)
		assert.InDelta(t, b, w.Slope, 1e-6, "fewer than half of the pairs are touched")
		assert.LessOrEqual(t, w.Low, w.Slope)
		assert.GreaterOrEqual(t, w.High, w.Slope)
	})
}
