package trend_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/judge"
	"mainstay/core/trend"
)

// together is flights of three packs; the third gives more from a flight on.
func together(n, from int, more float64) []map[string]float64 {
	var out []map[string]float64
	for i := range n {
		f := map[string]float64{"L1": 50 + float64(i%3), "L2": 50.5 + float64(i%3), "L3": 49.5 + float64(i%2)}
		if i >= from {
			f["L3"] += more
		}
		out = append(out, f)
	}
	return out
}

func TestAPackThatDrifts(t *testing.T) {
	got := trend.Packs(together(14, 9, 8))
	require.Len(t, got, 3)
	for _, p := range got {
		assert.True(t, p.Known)
		if p.Pack == "L3" {
			assert.Equal(t, judge.Watch, p.Verdict)
			assert.Contains(t, p.Sentence, "L3 is drifting")
			assert.InDelta(t, 8, p.Now-p.Before, 1)
		} else {
			assert.Equal(t, judge.Clear, p.Verdict, p.Sentence)
		}
	}
	for _, p := range trend.Packs(together(14, 14, 0)) {
		assert.Equal(t, judge.Clear, p.Verdict, p.Sentence)
	}
}

func TestTooLittleOfAPack(t *testing.T) {
	for _, p := range trend.Packs(together(7, 2, 20)) {
		assert.False(t, p.Known)
		assert.Equal(t, judge.Clear, p.Verdict, "said, and no alarm")
	}
	assert.Empty(t, trend.Packs(nil))
	assert.Empty(t, trend.Packs([]map[string]float64{{"L1": 50}}), "it flew alone")
	assert.Empty(t, trend.Packs([]map[string]float64{{"L1": 50, "L2": math.NaN()}}))
}

// A pack that always differs by the same has not drifted, whichever packs it flies with.
func TestSteadyPacksNeverDrift(t *testing.T) {
	rapid.Check(t, func(r *rapid.T) {
		off := map[string]float64{}
		names := []string{"A", "B", "C", "D"}
		for _, n := range names {
			off[n] = rapid.Float64Range(-5, 5).Draw(r, n)
		}
		var all []map[string]float64
		for range rapid.IntRange(0, 30).Draw(r, "flights") {
			use := rapid.Float64Range(20, 70).Draw(r, "use")
			f := map[string]float64{}
			for _, n := range names {
				f[n] = use + off[n]
			}
			all = append(all, f)
		}
		for _, p := range trend.Packs(all) {
			assert.Equal(r, judge.Clear, p.Verdict, p.Sentence)
		}
	})
}
