package height_test

import (
	"fmt"
	"testing"

	"mainstay/approved"
	"mainstay/core/height"
)

// Every way to measure, at and over the edges of what it takes.
func TestHeightsAsApproved(t *testing.T) {
	var lines []string
	say := func(what string, m height.Measured, err error) {
		lines = append(lines, fmt.Sprintf("%s: %.4f ± %.4f %q", what, m.M, m.Sigma, fmt.Sprint(err)))
	}
	val := func(v float64) height.Value { return height.Value{V: v, Sigma: 0.5} }
	for _, d := range []float64{0.9, 1, 30, 2000, 2001} {
		for _, a := range []float64{-1, 0, 45, 80, 81} {
			m, err := height.Clinometer(val(d), val(a), 1.7)
			say(fmt.Sprintf("clinometer %g %g", d, a), m, err)
			for _, b := range []float64{-81, -80, -10, 0, 45} {
				m, err = height.TwoAngles(val(d), val(a), val(b))
				say(fmt.Sprintf("two angles %g %g %g", d, a, b), m, err)
			}
		}
	}
	for _, b := range []float64{0.9, 1, 40, 1000, 1001} {
		for _, far := range []float64{0.9, 1, 20, 80, 81} {
			for _, near := range []float64{1, 1.5, 20, 21, 21.2, 40, 80, 81} {
				m, err := height.TwoStations(val(b), val(far), val(near), 1.7)
				say(fmt.Sprintf("two stations %g %g %g", b, far, near), m, err)
			}
		}
	}
	for _, eye := range []float64{-0.1, 0, 3, 3.1} {
		m, err := height.Clinometer(val(30), val(45), eye)
		say(fmt.Sprintf("eye %g", eye), m, err)
	}
	approved.Text(t, "heights", lines)
}
