package pack_test

import (
	"fmt"
	"testing"

	"mainstay/approved"
	"mainstay/core/pack"
)

// Racks that fade by more and by less, over as many measurements and cycles as a
// forecast needs, and one fewer.
func TestCapacityAsApproved(t *testing.T) {
	var lines []string
	show := func(v *float64) string {
		if v == nil {
			return "never"
		}
		return fmt.Sprintf("%.2f", *v)
	}
	say := func(what string, o pack.Outlook) {
		lines = append(lines, fmt.Sprintf("%s: %s, health %s, per 100 %s, at %s (%s to %s): %s", what, o.Verdict,
			show(o.Health), show(o.SlopePer100), show(o.AtCycles), show(o.EarlyCycles), show(o.LateCycles), o.Sentence))
	}
	for _, n := range []int{0, 1, 7, 8, 9, 20} {
		for _, step := range []float64{2.8, 2.85, 2.86, 3, 10} {
			for _, fade := range []float64{-1, 0, 1, 10, 40} {
				say(fmt.Sprintf("%d points each %g cycles fading %g", n, step, fade),
					pack.Forecast(fading(n, step, 9500, fade), 10000))
			}
		}
	}
	for _, full := range []float64{7949, 7951, 7994, 7996, 8000, 8004, 8006, 8100} {
		say(fmt.Sprintf("%g mAh", full), pack.Forecast(fading(8, 5, full, 0), 10000))
	}
	once := fading(8, 5, 8500, 10) // a history without days has no day ahead
	for i := range once {
		once[i].At = once[0].At
	}
	if o := pack.Forecast(once, 10000); o.AtCycles == nil || o.On != nil || o.EarlyOn != nil || o.LateOn != nil {
		t.Errorf("all on one day: %+v", o)
	}
	for _, start := range []float64{100, 95, 80, 60, 59} {
		for _, end := range []float64{0, 14, 15, 16, 20, 35, 40, 55, 60, 61} {
			c, err := pack.MeasureCapacity(6000, start, 1, end, 2)
			lines = append(lines, fmt.Sprintf("from %g to %g: %.2f ± %.3f %v", start, end, c.MilliampHours, c.PlusMinus, err))
		}
	}
	approved.Text(t, "capacity", lines)
}
