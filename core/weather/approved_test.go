package weather_test

import (
	"fmt"
	"strings"
	"testing"

	"mainstay/approved"
	"mainstay/core/judge"
	"mainstay/core/rules"
	"mainstay/core/weather"
)

// What the air allows, with everything about air and limits near where it
// decides.
func TestAirAsApproved(t *testing.T) {
	type question struct {
		Air    weather.Air
		Limits weather.Limits
	}
	for name, law := range map[string]rules.Law{"us-small": rules.USSmall.Law, "eu-specific": rules.EUSpecific.Law} {
		var lines []string
		for _, work := range []weather.Work{weather.Inspection, weather.Spraying, weather.Mapping} {
			q := question{air(t, "KZZT 101653Z 24006G09KT 10SM FEW060 SCT120 20/10 A3001"), limits()}
			q.Air.LowC, q.Air.HighC = f(20), f(19)
			q.Limits.HoursAfterRise, q.Limits.HoursToSet, q.Limits.SunElevation = f(4), f(7), f(50)
			q.Limits.Label = weather.Label{LowMS: f(1), HighMS: f(5), HeightM: f(2)}
			q.Limits.Work, q.Limits.Law = work, law
			q.Limits.TankWork = work == weather.Spraying
			say := func(what string, q question) {
				got := weather.Assess(q.Air, q.Limits, now)
				lines = append(lines, fmt.Sprintf("%s%s: %s", work, what, judge.Worst(got.Findings)))
				for _, f := range got.Findings {
					lines = append(lines, "  "+string(f.Rule)+" "+f.Verdict.String()+" "+f.Sentence)
				}
				for _, v := range []*float64{got.DeltaT, got.DensityKgM3, got.DensityAltitudeM, got.MassLimitKg, got.CloudCeilingM} {
					if v != nil {
						lines[len(lines)-1] += fmt.Sprintf(" %.4g", *v)
					}
				}
			}
			say("", q)
			approved.Vary(q, func(what string, q question) {
				if !strings.HasPrefix(what, ".Limits.Law") { // core/rules tests the law itself
					say(" "+what, q)
				}
			})
		}
		approved.Text(t, "air-"+name, lines)
	}
}
