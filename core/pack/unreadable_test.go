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

// The newest resistance at another temperature says so, and one that no cell can
// give never makes it milder.
func TestResistanceAtAnotherTemperature(t *testing.T) {
	at := func(c float64, mohm ...float64) pack.ResistanceReading {
		return pack.ResistanceReading{TemperatureC: &c, MilliOhm: mohm}
	}
	var history []pack.ResistanceReading
	for range 5 {
		history = append(history, at(20, 3, 3))
	}
	history = append(history, at(21, 3.1, 6.1))
	was := pack.JudgeResistance(history)
	assert.Equal(t, judge.Stop, was.Verdict)
	warm := pack.JudgeResistance(append(history, at(38, 2.5, 2.5)))
	assert.Equal(t, judge.Stop, warm.Verdict)
	assert.Contains(t, warm.Sentence, "A newer reading, at 38 °C, is not compared")
	assert.NotContains(t, pack.JudgeResistance(append(history, at(38, 2.5, 2.5), at(20, 3, 6.2))).Sentence, "not compared")
	for _, x := range []float64{math.NaN(), math.Inf(1), math.Inf(-1), -1} {
		assert.GreaterOrEqual(t, pack.JudgeResistance(append(history, at(20, 3, x))).Verdict, was.Verdict, x)
		fine := pack.JudgeResistance(append(history[:5:5], at(20, 3, 3), at(20, 3, x)))
		assert.Equal(t, judge.Watch, fine.Verdict, x)
		assert.GreaterOrEqual(t, pack.JudgeResistance(append(history, at(x, 3, 3))).Verdict, was.Verdict, x)
	}
}
