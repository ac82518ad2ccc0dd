package pack_test

import (
	"math"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"mainstay/core/judge"
	"mainstay/core/pack"
	"mainstay/core/units"
)

// What cannot be read is never good.
func TestUnreadableIsStop(t *testing.T) {
	now := time.Date(2026, 6, 10, 15, 0, 0, 0, time.UTC)
	for _, x := range []float64{math.NaN(), math.Inf(1), math.Inf(-1), 1e9, -1e9} {
		assert.Equal(t, judge.Stop, pack.JudgeLaunch(units.Percent(x), 0, 95).Verdict, "level %v", x)
		assert.Equal(t, judge.Stop, pack.JudgeLaunch(99, units.Percent(x), 95).Verdict, "error %v", x)
		assert.Equal(t, judge.Stop, pack.JudgeLaunch(99, 0, units.Percent(x)).Verdict, "limit %v", x)
		assert.Equal(t, judge.Stop, pack.JudgeTakeoffTemperature(units.Celsius(x)).Verdict, "%v °C", x)
		assert.Equal(t, judge.Stop, pack.JudgeLandedTemperature(units.Celsius(x)).Verdict, "%v °C", x)
	}
	for name, since := range map[string]time.Time{"undated": {}, "later": now.Add(time.Hour)} {
		assert.Equal(t, judge.Stop, pack.JudgeFull(since, now, nil).Verdict, name)
	}
	look := now.Add(time.Hour)
	assert.Equal(t, judge.Stop, pack.JudgeFull(now.AddDate(0, 0, -11), now, &look).Verdict, "a look that is still to come")
}
