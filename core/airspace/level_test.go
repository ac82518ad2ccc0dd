package airspace_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"mainstay/core/airspace"
	"mainstay/core/judge"
)

// A floor in flight levels sinks with the pressure, by 8.23 m for each hPa under
// the standard; where the pressure is not known the lowest that is met counts.
func TestFlightLevelsSinkWithThePressure(t *testing.T) {
	zone := airspace.Zone{ID: "z", Name: "Test", Class: airspace.C, Area: box(-500, -500, 1000), FloorM: f(1000),
		FloorDatum: airspace.FlightLevel}
	verdict := func(topM float64, qnh *float64) judge.Verdict {
		q := question()
		q.TopM, q.QNH = f(topM), qnh
		got, _ := airspace.Judge(q, []airspace.Zone{zone}, nil, &noon)
		return got[0].Verdict
	}
	const standard, low = 1013.25, 993.25 // 20 hPa: 164.6 m lower
	assert.Equal(t, judge.Stop, verdict(1001, f(standard)))
	assert.NotEqual(t, judge.Stop, verdict(999, f(standard)))
	assert.Equal(t, judge.Stop, verdict(836, f(low)))
	assert.NotEqual(t, judge.Stop, verdict(835, f(low)))
	// Not known, and values that no barometer shows: (950 - 1013.25) x 8.23 = -520.5 m.
	for _, qnh := range []*float64{nil, f(949), f(1101)} {
		assert.Equal(t, judge.Stop, verdict(480, qnh))
		assert.NotEqual(t, judge.Stop, verdict(479, qnh))
	}
	q := question()
	q.TopM = nil
	got, _ := airspace.Judge(q, []airspace.Zone{zone}, nil, &noon)
	assert.Equal(t, judge.Stop, got[0].Verdict, "how high it goes over the sea is not known")
}
