package wind_test

import (
	"fmt"
	"testing"

	"mainstay/approved"
	"mainstay/core/units"
	"mainstay/core/wind"
)

// Winds brought to heights, headings and speeds over the ground, at the edges of
// what is taken.
func TestWindsAsApproved(t *testing.T) {
	var lines []string
	say := func(what string, v any, err error) { lines = append(lines, fmt.Sprintf("%s: %v %v", what, v, err)) }
	for _, g := range append([]wind.Ground{"moon"}, wind.AllGrounds...) {
		for _, steady := range []units.MetresPerSecond{-0.1, 0, 3, 60, 60.1} {
			for _, heights := range [][2]units.Metres{{0.4, 10}, {0.5, 0.5}, {2, 30}, {2, 30.1}, {2.5, 31}, {2.6, 31}, {10, 2},
				{10, 500}, {10, 501}, {500, 10}} {
				for _, gust := range []*units.MetresPerSecond{nil, speed(2.9), speed(3), speed(90), speed(90.1)} {
					if gust != nil && (steady != 3 || g != wind.Crops) {
						continue
					}
					at, err := wind.Scale(steady, gust, heights[0], heights[1], g)
					what := fmt.Sprintf("%s %g m/s %g to %g m", g, float64(steady), float64(heights[0]), float64(heights[1]))
					if gust != nil {
						what += fmt.Sprintf(" gust %g", float64(*gust))
					}
					say(what, fmt.Sprintf("%.3f %.3f %d", float64(at.Steady), float64(at.Gust), len(at.Notes)), err)
				}
			}
		}
	}
	for from := 0.0; from < 360; from += 15 {
		for _, free := range [][]float64{{0}, {0, 180}, {90, 180, 270}} {
			l, err := wind.BestHeading(7, from, free, 5)
			say(fmt.Sprintf("from %g free %v", from, free), fmt.Sprintf("%v %g %.3f %.3f %s", l.OK, l.Heading, float64(l.Head),
				float64(l.Cross), l.Reason), err)
		}
		for _, air := range []units.MetresPerSecond{4, 7, 12} {
			v, ok := wind.GroundSpeed(air, 7, from, 90)
			say(fmt.Sprintf("over the ground at %g from %g", float64(air), from), fmt.Sprintf("%.3f", float64(v)),
				fmt.Errorf("%v", ok))
		}
	}
	for class := -1; class <= 13; class++ {
		lo, hi, err := wind.ByEye(class)
		say(fmt.Sprint("by eye ", class), fmt.Sprintf("%.1f %.1f", float64(lo), float64(hi)), err)
	}
	approved.Text(t, "winds", lines)
}

func speed(v float64) *units.MetresPerSecond { s := units.MetresPerSecond(v); return &s }
