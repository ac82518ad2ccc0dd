package trend_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/judge"
	"mainstay/core/trend"
)

// flights makes readings of four motors about 40; motor 3 warms by rise over
// the last five.
func flights(n int, rise float64) [][]float64 {
	var out [][]float64
	for i := range n {
		s := []float64{0, 0.5, -0.5, 1}[i%4]
		r := []float64{40 + s, 40.5, 41, 39.5 - s}
		if i >= n-trend.Recent {
			r[2] += rise
		}
		out = append(out, r)
	}
	return out
}

func TestADriftingMotorIsNamed(t *testing.T) {
	for _, c := range []struct {
		name  string
		n     int
		rise  float64
		known bool
		v     judge.Verdict
	}{{"steady", 20, 0, true, judge.Clear}, {"under the floor", 20, 3.5, true, judge.Clear}, {"drifting", 20, 7, true,
		judge.Watch}, {"cooling too", 20, -7, true, judge.Watch}, {"too few", 7, 9, false, judge.Watch}} {
		got := trend.Judge(flights(c.n, c.rise), trend.WarmthFloorC, "warmth", "°C")
		require.Len(t, got, 4, c.name)
		assert.Equal(t, c.v, got[2].Verdict, "%s: %s", c.name, got[2].Sentence)
		assert.Equal(t, c.known, got[2].Known, c.name)
		if c.known {
			for _, i := range []int{0, 1, 3} {
				assert.Equal(t, judge.Clear, got[i].Verdict, "%s: sister %d", c.name, i+1)
			}
		}
	}
	assert.Empty(t, trend.Judge(nil, 1, "warmth", "°C"))
}

// Warmer days warm all motors alike and name none; one wild reading names none.
func TestWeatherAndOneWildReadingNameNobody(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		rs := flights(rapid.IntRange(8, 40).Draw(t, "n"), 0)
		for i := range rs {
			day := rapid.Float64Range(-20, 25).Draw(t, "day")
			for m := range rs[i] {
				rs[i][m] += day
			}
		}
		rs[rapid.IntRange(0, len(rs)-1).Draw(t, "which")][rapid.IntRange(0, 3).Draw(t, "motor")] += rapid.Float64Range(-60,
			60).Draw(t, "wild")
		for _, d := range trend.Judge(rs, trend.WarmthFloorC, "warmth", "°C") {
			assert.Equal(t, judge.Clear, d.Verdict, d.Sentence)
		}
	})
}
