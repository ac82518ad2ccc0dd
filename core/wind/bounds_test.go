package wind_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"

	"mainstay/core/judge"
	"mainstay/core/units"
	"mainstay/core/wind"
)

// The wind against its limits, just under, at and over them, in the steps of the
// instrument.
func TestHoldAtItsLimits(t *testing.T) {
	worst := func(steady, gust, limit, gustLimit float64) judge.Verdict {
		v := judge.Clear
		for _, h := range wind.Hold(wind.AtHeight{Steady: units.MetresPerSecond(steady), Gust: units.MetresPerSecond(gust)},
			units.MetresPerSecond(limit), units.MetresPerSecond(gustLimit), 30) {
			v = max(v, h.Verdict)
		}
		return v
	}
	for _, x := range []struct {
		steady, gust, limit, gustLimit float64
		want                           judge.Verdict
	}{
		{8, 8, 10, 14, judge.Clear}, {8.04, 8, 10, 14, judge.Clear}, {8.1, 8, 10, 14, judge.Watch}, {10, 8, 10, 14,
			judge.Watch}, {10.04, 8, 10, 14, judge.Watch}, {10.1, 8, 10, 14, judge.Stop},
		{5, 11.2, 10, 14, judge.Clear}, {5, 11.3, 10, 14, judge.Watch}, {5, 14, 10, 14, judge.Watch}, {5, 14.1, 10, 14,
			judge.Stop},
		{5, 5, 0, 14, judge.Stop}, {5, 5, 10, 0, judge.Stop}, {5, 5, -1, 14, judge.Stop},
		{math.NaN(), 5, 10, 14, judge.Stop}, {5, math.NaN(), 10, 14, judge.Stop}, {5, 5, math.NaN(), 14, judge.Stop}, {5, 5,
			10, math.NaN(), judge.Stop},
	} {
		assert.Equal(t, x.want, worst(x.steady, x.gust, x.limit, x.gustLimit), "%+v", x)
	}
}

// What a heading is chosen from must be numbers; calm and a hundred are.
func TestBestHeadingAtItsEdges(t *testing.T) {
	free := []float64{0, 180}
	for _, gust := range []units.MetresPerSecond{0, 100} {
		_, err := wind.BestHeading(gust, 0, free, 6)
		assert.NoError(t, err, "%g", gust)
	}
	for name, try := range map[string]func() error{
		"under calm": func() error { _, err := wind.BestHeading(-0.1, 0, free, 6); return err },
		"over all":   func() error { _, err := wind.BestHeading(100.1, 0, free, 6); return err },
		"no gust":    func() error { _, err := wind.BestHeading(units.MetresPerSecond(math.NaN()), 0, free, 6); return err },
		"nowhere":    func() error { _, err := wind.BestHeading(5, math.NaN(), free, 6); return err },
		"no limit":   func() error { _, err := wind.BestHeading(5, 0, free, 0); return err },
		"nothing":    func() error { _, err := wind.BestHeading(5, 0, nil, 6); return err },
	} {
		assert.ErrorIs(t, try(), wind.ErrInput, name)
	}
}
