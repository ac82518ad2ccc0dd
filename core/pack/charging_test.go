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

func TestTemperatureBeforeACharge(t *testing.T) {
	at := func(c float64, age time.Duration) judge.Verdict {
		v := units.Celsius(c)
		return pack.JudgeCharge(&v, age).Verdict
	}
	for c, want := range map[float64]judge.Verdict{4.9: judge.Stop, 5: judge.Clear, 40: judge.Clear, 40.1: judge.Stop,
		math.Inf(1): judge.Stop, -300: judge.Stop} {
		assert.Equal(t, want, at(c, 59*time.Minute), "%g", c)
	}
	assert.Equal(t, judge.Stop, at(math.NaN(), 0))
	assert.Equal(t, judge.Watch, at(20, time.Hour), "an hour old is not known")
	assert.Equal(t, judge.Watch, at(20, -time.Second), "nor of the future")
	assert.Equal(t, judge.Watch, pack.JudgeCharge(nil, 0).Verdict)
}
