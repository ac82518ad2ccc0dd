package walkround

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/checks"
	"mainstay/core/judge"
)

// What is set in the aircraft is held against what the job sets: the same is clear, to half a
// metre; a return height of yesterday stops; what nobody knows is said and never taken for good.
func TestLimitsAgainstTheJob(t *testing.T) {
	at := func(v float64) *float64 { return &v }
	facts := checks.Facts{checks.FactReturn: {Number: at(45)}, checks.FactHigh: {Number: at(60)},
		checks.FactLostLink: {Word: "return"}}
	for name, x := range map[string]struct {
		set   limits
		facts checks.Facts
		want  judge.Verdict
		says  string
	}{
		"as the job": {limits{ReturnM: at(45), HeightM: at(120), LostLink: "return"}, facts, judge.Clear,
			"It returns at 45 m, as the job sets."},
		"half a metre":    {limits{ReturnM: at(45.5)}, facts, judge.Clear, "as the job sets"},
		"too low":         {limits{ReturnM: at(44.4)}, facts, judge.Stop, "the job sets 45 m"},
		"too high":        {limits{ReturnM: at(80)}, facts, judge.Stop, "the job sets 45 m"},
		"no job":          {limits{ReturnM: at(45)}, checks.Facts{}, judge.Watch, "no job says at which height"},
		"a height limit":  {limits{HeightM: at(50)}, facts, judge.Watch, "does not climb over 50 m; the flight goes to 60 m"},
		"other lost link": {limits{LostLink: "hover"}, facts, judge.Stop, "Without link it does this: hover."},
		"nothing":         {limits{}, facts, judge.Clear, ""},
		"no number":       {limits{ReturnM: at(math.NaN())}, facts, judge.Clear, ""},
	} {
		var said teller
		linked{Limits: &x.set}.limits(&said, x.facts)
		assert.Equal(t, x.want, said.verdict, name)
		if x.says == "" {
			assert.Empty(t, said.words, name)
			continue
		}
		require.NotEmpty(t, said.words, name)
		assert.Contains(t, said.words[0], x.says, name)
	}
}

// Outputs are held against each other only while the motors turn, and only if each tells its own.
func TestOutputsOverTheLink(t *testing.T) {
	it := checks.Item{ID: "o", Kind: checks.Alike, Defect: judge.Stop, Quantity: checks.Output, Unit: "%", Step: 1,
		Min: new(float64), Max: func() *float64 { v := 100.0; return &v }(),
		Compare: &checks.Compare{How: checks.BySpread, Watch: 10, Stop: 20}, Count: 4}
	for name, x := range map[string]struct {
		set  []float64
		want judge.Verdict
		says bool
	}{
		"alike": {[]float64{50, 51, 50, 49}, judge.Clear, true}, "watch": {[]float64{50, 56, 50, 50}, judge.Watch,
			true}, "stop": {[]float64{50, 64, 50, 50}, judge.Stop, true},
		"still": {[]float64{0, 0, 0, 0}, judge.Clear, false}, "one missing": {[]float64{50, 50, 50}, judge.Clear,
			false}, "none": {nil, judge.Clear, false}, "no number": {[]float64{50, math.NaN(), 50, 50}, judge.Clear, false},
	} {
		k := linked{Outputs: x.set}.says(it, nil)
		if !x.says {
			assert.Nil(t, k, name)
			continue
		}
		require.NotNil(t, k, name)
		assert.Equal(t, x.want, k.Verdict, name)
	}
}
