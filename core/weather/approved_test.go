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
					lines = append(lines, "  "+string(f.Rule)+" "+f.Verdict.String()+" "+f.Sentence+" ["+f.Source+"; "+f.Evidence+"]")
				}
				for _, v := range []*float64{got.DeltaT, got.DensityKgM3, got.DensityAltitudeM, got.MassLimitKg,
					got.CloudCeilingM} {
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
		approved.Text(t, "expected-"+name, expected(t, law))
	}
}

// expected is what is said of a trend, with everything about it near where it
// decides.
func expected(t *testing.T, law rules.Law) []string {
	type question struct {
		Air    weather.Air
		Limits weather.Limits
	}
	q := question{air(t, "KZZT 101653Z 24003KT 10SM CLR 20/10 A3001 TEMPO FM1700 TL1900 25015G20KT 5000 BKN008"), limits()}
	q.Limits.Law = law
	q.Air.StationM = f(200)
	var lines []string
	seen := map[string]bool{}
	say := func(what string, q question) {
		said := []string{}
		for _, f := range weather.Assess(q.Air, q.Limits, now).Findings {
			if f.Rule == judge.RuleHazard {
				said = append(said, f.Verdict.String()+" "+f.Sentence)
			}
		}
		if text := strings.Join(said, "; "); !seen[text] {
			seen[text] = true
			lines = append(lines, what+": "+text)
		}
	}
	say("as it is", q)
	for _, part := range []func(q *question){
		func(*question) {},
		func(q *question) {
			q.Air.Trends[0].WindMS, q.Air.Trends[0].GustMS, q.Air.Trends[0].BaseFt = nil, nil, nil
		},
		func(q *question) {
			q.Air.Trends[0].WindMS, q.Air.Trends[0].GustMS, q.Air.Trends[0].VisibilityM = nil, nil, nil
		},
		func(q *question) { q.Air.Trends[0].VisibilityM, q.Air.Trends[0].BaseFt = nil, nil },
	} {
		x := q
		x.Air.Trends = append(x.Air.Trends[:0:0], q.Air.Trends...)
		part(&x)
		say("part", x)
		approved.Vary(x, func(what string, q question) {
			if !strings.HasPrefix(what, ".Limits.Law") {
				say(what, q)
			}
		})
	}
	return lines
}
