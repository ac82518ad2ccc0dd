package robust_test

import (
	"fmt"
	"math/rand/v2"
	"testing"

	"mainstay/approved"
	"mainstay/core/robust"
)

// Lines through points with ties and outliers, and their intervals.
func TestLinesAsApproved(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 3)) //nolint:gosec // figures, no secrets
	var lines []string
	for n := range 14 {
		for round := range 6 {
			var x, y []float64
			for i := range n {
				x = append(x, float64(i/(1+round%3)))
				y = append(y, float64(int(r.Float64()*20))/2-float64(round*i))
			}
			l, err := robust.TheilSen(x, y)
			lines = append(lines, fmt.Sprintf("%d points, %d: %.4f %.4f %.4f at 3: %.4f, median %.4f mad %.4f %v", n, round,
				l.Slope, l.Low, l.High, l.At(3), robust.Median(y), robust.MAD(y), err))
		}
	}
	approved.Text(t, "lines", lines)
}
