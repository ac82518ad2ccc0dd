package air_test

import (
	"fmt"
	"testing"

	"mainstay/approved"
	"mainstay/core/air"
)

// The air at and over the edges of what is taken, and step by step where it decides.
func TestAirAsApproved(t *testing.T) {
	var lines []string
	say := func(what string, v float64, err error) {
		lines = append(lines, fmt.Sprintf("%s: %.5g %v", what, v, err))
	}
	for _, tc := range []float64{-60.1, -60, -10, 0, 20, 60, 60.1} {
		for _, dew := range []float64{-80.1, -80, -60, -10, 0, 10, 20, 20.1, 60} {
			v, err := air.Humidity(tc, dew)
			say(fmt.Sprintf("humidity %g %g", tc, dew), v, err)
			for _, p := range []float64{1013} {
				v, err = air.Density(p, tc, dew)
				say(fmt.Sprintf("density %g %g %g", p, tc, dew), v, err)
				v, err = air.WetBulb(tc, dew, p)
				say(fmt.Sprintf("wet bulb %g %g %g", p, tc, dew), v, err)
			}
		}
		for _, rh := range []float64{0, 0.9, 1, 50, 100, 100.1} {
			v, err := air.DewPoint(tc, rh)
			say(fmt.Sprintf("dew point %g %g", tc, rh), v, err)
		}
	}
	for _, p := range []float64{299, 300, 500, 850, 1100, 1101, 1200} {
		for _, h := range []float64{-501, -500, 0, 210, 6000, 6001, 9000} {
			v, err := air.StationPressure(p, h)
			say(fmt.Sprintf("pressure %g %g", p, h), v, err)
		}
		v, err := air.Density(p, 20, 10)
		say(fmt.Sprintf("density at %g", p), v, err)
	}
	for _, d := range []float64{-0.0501, -0.05, 1.95, 2.05, 2.65, 2.75, 7.25, 7.35, 8.05, 10.05, 60, 60.01} {
		v, words := air.JudgeDeltaT(d)
		lines = append(lines, fmt.Sprintf("delta T %g: %s %s", d, v, words))
	}
	for d := -1.0; d <= 13; d += 0.1 {
		v, words := air.JudgeDeltaT(d)
		lines = append(lines, fmt.Sprintf("delta t %.1f: %s %s", d, v, words))
	}
	for rho := 0.7; rho <= 1.4; rho += 0.05 {
		lines = append(lines, fmt.Sprintf("%.2f: %.1f m, %.3f kg", rho, air.DensityAltitude(rho),
			air.MassLimit(72, rho, 1.225)))
	}
	num := func(v float64) *float64 { return &v }
	yes := true
	in := air.Inversion{HoursAfterRise: num(1.5), HoursToSet: num(8), WindMS: num(1.5), ClearSky: &yes, LowC: num(20),
		HighC: num(20.5)}
	say2 := func(what string, x air.Inversion) {
		v, words := x.Judge()
		lines = append(lines, fmt.Sprintf("inversion%s: %s %s", what, v, words))
	}
	say2("", in)
	approved.Vary(in, func(what string, x air.Inversion) { say2(" "+what, x) })
	in.LowC, in.HighC = nil, nil
	for _, rise := range []float64{-2, -0.1, 0, 1.9, 2, 2.1, 5} {
		for _, set := range []float64{-1, 0, 0.9, 1, 1.9, 2, 2.1, 6} {
			for _, w := range []float64{0.9, 1, 2, 3, 4} {
				in.HoursAfterRise, in.HoursToSet, in.WindMS = num(rise), num(set), num(w)
				say2(fmt.Sprintf(" %g %g %g", rise, set, w), in)
			}
		}
	}
	approved.Text(t, "air", lines)
}
