package upkeep_test

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/judge"
	"mainstay/core/upkeep"
)

// What a programme may hold at most and at least, at its edges.
func TestBoundsOfProgrammes(t *testing.T) {
	check := func(change func(*upkeep.Programme)) error {
		p := valid()
		change(&p)
		return p.Validate([]string{"frame", "sensor"}, []string{"frame", "sensor"})
	}
	tasks := func(n int) func(*upkeep.Programme) {
		return func(p *upkeep.Programme) {
			one := p.Tasks[0]
			p.Tasks = nil
			for i := range n {
				one.ID = fmt.Sprintf("task-%d", i)
				p.Tasks = append(p.Tasks, one)
			}
		}
	}
	parts := func(kind string, n int) func(*upkeep.Programme) {
		return func(p *upkeep.Programme) { p.Tasks[0].Parts = []upkeep.Need{{Kind: kind, Count: n}} }
	}
	reading := func(r upkeep.Reading) func(*upkeep.Programme) {
		return func(p *upkeep.Programme) { p.Tasks[0].Steps[0].Reading = &r }
	}
	band := func(target, tolerance float64) func(*upkeep.Programme) {
		return reading(upkeep.Reading{Quantity: "torque", Unit: "Nm",
			Bands: []upkeep.Band{{Target: target, Tolerance: tolerance}}})
	}
	for name, ok := range map[string]func(*upkeep.Programme){"one task": tasks(1), "200 tasks": tasks(200),
		"one part": parts("filter", 1), "100 parts": parts("filter", 100), "exact": band(1.2, 0), "wide": band(-1e6, 1e6)} {
		assert.NoError(t, check(ok), name)
	}
	for name, bad := range map[string]func(*upkeep.Programme){"201 tasks": tasks(201), "no part": parts("filter", 0),
		"101 parts": parts("filter", 101), "parts of nothing": parts("", 1),
		"no quantity": reading(upkeep.Reading{Bands: []upkeep.Band{{Target: 1}}}), "tolerance under zero": band(1,
			-0.1), "no tolerance": band(1, math.NaN()), "endless tolerance": band(1, math.Inf(1)), "no target": band(math.NaN(),
			1), "endless target": band(math.Inf(-1), 1)} {
		assert.ErrorIs(t, check(bad), upkeep.ErrProgramme, name)
	}
}

// A number that cannot be is refused, one at a time.
func TestNumbersOfSteps(t *testing.T) {
	s := upkeep.Step{ID: "s", Text: "Torque.", Reading: &upkeep.Reading{Quantity: "torque", Unit: "Nm",
		Bands: []upkeep.Band{{Target: 1e6, Tolerance: 0}}}}
	for _, v := range []float64{math.NaN(), math.Inf(1), math.Inf(-1), 1e6 + 1, -1e6 - 1} {
		_, err := s.Judge(upkeep.Entry{Number: &v})
		assert.ErrorIs(t, err, upkeep.ErrEntry, "%g", v)
	}
	v := 1e6
	j, err := s.Judge(upkeep.Entry{Number: &v})
	require.NoError(t, err)
	assert.Equal(t, judge.Clear, j.Verdict)
	_, err = s.Judge(upkeep.Entry{Done: true})
	assert.ErrorIs(t, err, upkeep.ErrEntry, "no number")
	_, err = upkeep.Step{ID: "s", Text: "Look.", Photo: true}.Judge(upkeep.Entry{Done: true})
	assert.ErrorIs(t, err, upkeep.ErrEntry, "no photo")
	_, err = s.Judge(upkeep.Entry{NotOK: true, Note: " "})
	assert.ErrorIs(t, err, upkeep.ErrEntry, "not in order, and not said what")
}
