package weather_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"mainstay/core/judge"
	"mainstay/core/weather"
)

// Delta T that the label names takes the place of the crew's practice on its side only;
// what nobody knows it does not lift.
func TestLabelNamesDeltaT(t *testing.T) {
	const dry, damp = "KZZT 101653Z 24006KT 9999 FEW040 30/08 Q1016", "KZZT 101653Z 24006KT 9999 FEW040 15/14 Q1016"
	verdict := func(metar string, l weather.Label) judge.Verdict {
		x := limits()
		x.Work, x.Label = weather.Spraying, l
		return worst(weather.Assess(air(t, metar), x, now), judge.RuleDeltaT)
	}
	most, least := 20.0, 0.5
	assert.Equal(t, judge.Stop, verdict(dry, weather.Label{}))
	assert.Equal(t, judge.Clear, verdict(dry, weather.Label{MostDeltaT: &most}))
	assert.Equal(t, judge.Stop, verdict(dry, weather.Label{LeastDeltaT: &least}), "it speaks about the other side")
	assert.Equal(t, judge.Stop, verdict(damp, weather.Label{}))
	assert.Equal(t, judge.Clear, verdict(damp, weather.Label{LeastDeltaT: &least}))
	assert.Equal(t, judge.Stop, verdict(damp, weather.Label{MostDeltaT: &most}))
	x := limits()
	x.Work, x.Label = weather.Spraying, weather.Label{LeastDeltaT: &least, MostDeltaT: &most}
	a := air(t, dry)
	a.DewC = nil
	assert.Equal(t, judge.Stop, worst(weather.Assess(a, x, now), judge.RuleDeltaT), "not known")
}
