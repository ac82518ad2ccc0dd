package checks_test

import (
	"fmt"
	"testing"

	"mainstay/approved"
	"mainstay/core/checks"
)

// Readings and motor sets step by step through their bands.
func TestEntriesAsApproved(t *testing.T) {
	num := func(v float64) *float64 { return &v }
	reading := checks.Item{ID: "r", Title: "Volts", Kind: checks.Reading, Quantity: "volts", Unit: "V", Step: 0.1,
		Min: num(0), Max: num(60), Band: &checks.Band{StopBelow: num(10), WatchBelow: num(12), WatchAbove: num(48),
			StopAbove: num(50)}}
	warm := checks.Item{ID: "w", Title: "Warmth", Kind: checks.Motors, Unit: "°C", Step: 1, Min: num(-20), Max: num(120),
		Count: 4, Compare: &checks.Compare{How: "outlier", Watch: 10, Stop: 15}}
	spread := checks.Item{ID: "s", Title: "Outputs", Kind: checks.Motors, Unit: "%", Step: 1, Min: num(0), Max: num(100),
		Count: 4, Compare: &checks.Compare{How: "spread-percent", Watch: 10, Stop: 20}}
	var lines []string
	say := func(what string, it checks.Item, v checks.Value) {
		j, err := checks.Judge(it, v, nil)
		lines = append(lines, fmt.Sprintf("%s: %v %v", what, j, err))
	}
	for v := -0.1; v <= 60.2; v += 0.05 {
		if v > 0.2 && v < 9.8 || v > 12.2 && v < 47.8 || v > 50.2 && v < 59.8 {
			continue
		}
		say(fmt.Sprintf("volts %.2f", v), reading, checks.Value{Number: num(v)})
	}
	for d := -20.0; d <= 20; d++ {
		say(fmt.Sprintf("one motor %+g", d), warm, checks.Value{Set: []float64{40, 40 + d, 41, 39}})
		say(fmt.Sprintf("two motors %+g", d), warm, checks.Value{Set: []float64{40 + d, 40 + d, 41, 39}})
		say(fmt.Sprintf("output %+g", d), spread, checks.Value{Set: []float64{50, 50 + d, 50, 50}})
	}
	for n := range 6 {
		say(fmt.Sprintf("%d motors", n), warm, checks.Value{Set: make([]float64, n)})
	}
	approved.Text(t, "entries", lines)
}
