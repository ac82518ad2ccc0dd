package pack_test

import (
	"fmt"
	"testing"

	"mainstay/approved"
	"mainstay/core/pack"
	"mainstay/core/units"
)

// What packs are judged by, over the whole range and step by step where it
// decides.
func TestPacksAsApproved(t *testing.T) {
	var lines []string
	say := func(what string, v any, err error) {
		if err != nil {
			v = err
		}
		lines = append(lines, fmt.Sprintf("%s: %v", what, v))
	}
	for _, c := range []pack.Chemistry{pack.LiPo, pack.LiHV, pack.LiIon, "lead"} {
		for mv := units.Millivolts(2400); mv <= 4500; mv += 50 {
			one, err := pack.PercentFromVolts(c, mv, 45)
			say(fmt.Sprintf("%s %d mV", c, mv), fmt.Sprintf("%.3f ± %.3f", float64(one.Percent), float64(one.PlusMinus)), err)
			j, err := pack.JudgeCells(c, 2, []units.Millivolts{mv, mv + 20})
			say("  cells", j, err)
		}
		for spread := units.Millivolts(0); spread <= 120; spread += 5 {
			j, err := pack.JudgeCells(c, 3, []units.Millivolts{3900, 3900 + spread, 3900})
			say(fmt.Sprintf("%s spread %d", c, spread), j, err)
		}
	}
	for _, rest := range []float64{0, 29, 30, 31, 600} {
		one, err := pack.PercentFromVolts(pack.LiPo, 3950, rest)
		say(fmt.Sprint("rested ", rest), fmt.Sprintf("%.3f ± %.3f", float64(one.Percent), float64(one.PlusMinus)), err)
	}
	for p := 88.0; p <= 102; p += 0.5 {
		for _, pm := range []float64{0, 2.5} {
			say(fmt.Sprintf("launch %g ± %g", p, pm), pack.JudgeLaunch(units.Percent(p), units.Percent(pm), 95), nil)
		}
	}
	for _, c := range []float64{-60.1, -60, 200, 200.1} {
		say(fmt.Sprintf("%g degC", c), []any{pack.JudgeTakeoffTemperature(units.Celsius(c)),
			pack.JudgeLandedTemperature(units.Celsius(c))}, nil)
	}
	for c := -12.0; c <= 72; c += 0.5 {
		say(fmt.Sprintf("%g degC", c), []any{pack.JudgeTakeoffTemperature(units.Celsius(c)),
			pack.JudgeLandedTemperature(units.Celsius(c))}, nil)
	}
	for _, x := range [][5]float64{{5000, 95, 1, 35, 1}, {5000, 95, 1, 35.1, 1}, {5000, 99, 1, 60, 1},
		{5000, 99, 0, 59, 0}, {0.9, 99, 0, 20, 0}, {200001, 99, 0, 20, 0}, {5000, 20, 2, 95, 3}, {5000, 95, -1, 20, 1}} {
		one, err := pack.MeasureCapacity(x[0], x[1], x[2], x[3], x[4])
		say(fmt.Sprint("capacity ", x), fmt.Sprintf("%.2f ± %.2f", one.MilliampHours, one.PlusMinus), err)
	}
	for amps := -1.0; amps <= 12; amps += 0.5 {
		ohm, err := pack.Resistance(4100, 4010, amps)
		say(fmt.Sprint("amps ", amps), fmt.Sprintf("%.3f", ohm), err)
	}
	approved.Text(t, "packs", lines)
}
