package trend_test

import (
	"fmt"
	"testing"

	"mainstay/approved"
	"mainstay/core/trend"
)

// One motor that moves away from its sisters, by ever more, over ever more
// flights.
func TestDriftsAsApproved(t *testing.T) {
	var lines []string
	for _, n := range []int{0, 1, 4, 5, 7, 8, 9, 12, 20, 40} {
		for _, rise := range []float64{0, 1, 2.9, 3, 3.1, 3.9, 4, 4.1, 5, 7, -3.9, -4.1, -7} {
			for i, d := range trend.Judge(flights(n, rise), trend.WarmthFloorC, "warmth", "°C") {
				lines = append(lines, fmt.Sprintf("%d flights, %+.1f, motor %d: %s %v %.3f to %.3f: %s", n, rise, i+1, d.Verdict,
					d.Known, d.Before, d.Now, d.Sentence))
			}
		}
	}
	for _, n := range []int{7, 8, 9, 20} { // scatter that lets more pass
		rs := flights(n, 9)
		for i := range rs {
			rs[i][2] += float64(i%3) * 4
		}
		for i, d := range trend.Judge(rs, trend.WarmthFloorC, "warmth", "°C") {
			lines = append(lines, fmt.Sprintf("%d rough flights, motor %d: %s", n, i+1, d.Sentence))
		}
	}
	for _, set := range [][]float64{{1, 2, 3, 4}, {1, 1, 1, 9}, {5}, {}, {2, 4}} {
		lines = append(lines, fmt.Sprint(set, " deviates ", trend.Deviations([][]float64{set, set})))
	}
	approved.Text(t, "drifts", lines)
}
