package height_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/height"
)

func v(x, s float64) height.Value { return height.Value{V: x, Sigma: s} }

func TestClinometerAndTwoStations(t *testing.T) {
	m, err := height.Clinometer(v(40, 0.5), v(22, 1), 1.6)
	require.NoError(t, err)
	assert.InDelta(t, 17.76, m.M, 0.005)
	assert.InDelta(t, 0.84, m.Sigma, 0.005)

	m, err = height.TwoStations(v(20, 0), v(18, 1), v(31, 1), 1.6)
	require.NoError(t, err)
	assert.InDelta(t, 15.75, m.M, 0.005)
	assert.InDelta(t, 1.9, m.Sigma, 0.05)

	m, err = height.Shadow(v(12, 0.1), v(2, 0.01), v(1.5, 0.02))
	require.NoError(t, err)
	assert.InDelta(t, 16, m.M, 1e-9)
	assert.InDelta(t, 16*math.Sqrt(math.Pow(0.1/12, 2)+math.Pow(0.005, 2)+math.Pow(0.02/1.5, 2)), m.Sigma, 1e-9)

	m, err = height.TwoAngles(v(30, 0), v(30, 0), v(-10, 0))
	require.NoError(t, err)
	assert.InDelta(t, 30*(math.Tan(math.Pi/6)+math.Tan(math.Pi/18)), m.M, 1e-9)
}

// Every error against a simulation with many noisy readings.
func TestErrorsAgainstSimulation(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 2))
	noisy := func(x height.Value) height.Value { return v(x.V+r.NormFloat64()*x.Sigma, x.Sigma) }
	for name, call := range map[string]func(noise func(height.Value) height.Value) (height.Measured, error){
		"clinometer": func(n func(height.Value) height.Value) (height.Measured, error) {
			return height.Clinometer(n(v(60, 1)), n(v(25, 0.7)), 1.6)
		},
		"two angles": func(n func(height.Value) height.Value) (height.Measured, error) {
			return height.TwoAngles(n(v(60, 1)), n(v(25, 0.7)), n(v(-4, 0.7)))
		},
		"two stations": func(n func(height.Value) height.Value) (height.Measured, error) {
			return height.TwoStations(n(v(30, 0.2)), n(v(18, 0.4)), n(v(31, 0.4)), 1.6)
		},
		"shadow": func(n func(height.Value) height.Value) (height.Measured, error) {
			return height.Shadow(n(v(12, 0.1)), n(v(2, 0.01)), n(v(1.5, 0.02)))
		},
	} {
		exact, err := call(func(x height.Value) height.Value { return x })
		require.NoError(t, err)
		var sum, squares float64
		const n = 20000
		for range n {
			m, err := call(noisy)
			require.NoError(t, err)
			sum += m.M
			squares += m.M * m.M
		}
		sd := math.Sqrt(squares/n - sum/n*sum/n)
		assert.InEpsilon(t, sd, exact.Sigma, 0.06, name)
	}
}

func TestRefusals(t *testing.T) {
	for name, call := range map[string]func() (height.Measured, error){
		"no distance":      func() (height.Measured, error) { return height.Clinometer(v(0, 0), v(20, 1), 1.6) },
		"straight up":      func() (height.Measured, error) { return height.Clinometer(v(10, 0), v(89, 1), 1.6) },
		"not a number":     func() (height.Measured, error) { return height.Clinometer(v(math.NaN(), 0), v(20, 1), 1.6) },
		"negative error":   func() (height.Measured, error) { return height.Clinometer(v(10, -1), v(20, 1), 1.6) },
		"eye":              func() (height.Measured, error) { return height.Clinometer(v(10, 1), v(20, 1), 12) },
		"top under foot":   func() (height.Measured, error) { return height.TwoAngles(v(10, 1), v(-5, 1), v(5, 1)) },
		"stations swapped": func() (height.Measured, error) { return height.TwoStations(v(20, 0), v(31, 1), v(18, 1), 1.6) },
		"no shadow":        func() (height.Measured, error) { return height.Shadow(v(10, 0), v(2, 0), v(0, 0)) },
	} {
		_, err := call()
		assert.ErrorIs(t, err, height.ErrInput, name)
	}
}
