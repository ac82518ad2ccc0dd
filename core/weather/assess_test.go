package weather_test

import (
	"math"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/judge"
	"mainstay/core/metar"
	"mainstay/core/rules"
	"mainstay/core/weather"
)

var now = time.Date(2026, 6, 10, 17, 30, 0, 0, time.UTC)

func f(v float64) *float64 { return &v }

func report(t *testing.T, s string) metar.Report {
	t.Helper()
	r, err := metar.Decode(s)
	require.NoError(t, err)
	return r
}

func limits() weather.Limits {
	return weather.Limits{WindMS: 8, GustMS: 10, FlightHeightM: 10, MaxMassKg: 72, GroundM: f(210),
		Work: weather.Inspection, Law: rules.USSmall.Law}
}

func air(t *testing.T, s string) weather.Air {
	a := weather.FromReport(report(t, s), now, "crops")
	a.StationM, a.StationKm = f(225), f(12)
	return a
}

func worst(x weather.Assessment, rule judge.Rule) judge.Verdict {
	var of []judge.Finding
	for _, g := range x.Findings {
		if g.Rule == rule {
			of = append(of, g)
		}
	}
	return judge.Worst(of)
}

// Where nobody knows how high the site lies, nothing is judged milder than where
// it is known; a cloud that was seen from the site counts from its own ground.
func TestSiteOfUnknownElevation(t *testing.T) {
	l := limits()
	l.GroundM = nil
	a := air(t, "KZZT 101653Z 24003KT 10SM OVC060 18/08 A3001")
	x := weather.Assess(a, l, now)
	assert.Equal(t, judge.Watch, worst(x, judge.RuleLift))
	assert.Nil(t, x.DensityAltitudeM)
	assert.Equal(t, judge.Stop, worst(x, judge.RuleClouds))
	assert.Nil(t, x.CloudCeilingM)
	for _, g := range x.Findings {
		if g.Rule == judge.RuleLift || g.Rule == judge.RuleClouds {
			assert.Equal(t, weather.EnterElevation, g.Lifts)
		}
	}
	a.Source, a.StationM = "hand", nil
	x = weather.Assess(a, l, now)
	assert.Equal(t, judge.Clear, worst(x, judge.RuleClouds))
	require.NotNil(t, x.CloudCeilingM)
	assert.InDelta(t, (6000-500)*0.3048, *x.CloudCeilingM, 1e-6)
	// A trend with a cloud whose base nobody can place is not expected to be fine.
	a = air(t, "KZZT 101653Z 24003KT 10SM SKC 18/08 A3001 BECMG 1718/1720 BKN060")
	require.NotEmpty(t, a.Trends)
	assert.GreaterOrEqual(t, worst(weather.Assess(a, l, now), judge.RuleHazard), judge.Watch)
}

func TestFineMorning(t *testing.T) {
	x := weather.Assess(air(t, "KZZT 101653Z 24003KT 10SM FEW060 SCT120 18/08 A3001"), limits(), now)
	assert.Empty(t, x.Findings)
	require.NotNil(t, x.Wind)
	assert.InDelta(t, 1.54, float64(x.Wind.Steady), 0.01)
	assert.InDelta(t, 1016.26-25.1, *x.PressureHPa, 0.5, "12 hPa less in 100 m")
	assert.InDelta(t, 375, *x.DensityAltitudeM, 20,
		"pressure altitude 185 m, 4 degrees over standard at 36 m each, and moist")
	assert.InDelta(t, (6000-500)*0.3048+225-210, *x.CloudCeilingM, 1e-6)
	assert.InDelta(t, 52, *x.HumidityPercent, 1)
}

func TestEachLimit(t *testing.T) {
	for name, c := range map[string]struct {
		text string
		rule judge.Rule
		want judge.Verdict
	}{
		"old":              {"KZZT 101553Z 24003KT 10SM CLR 18/08 A3001", "weather-age", judge.Stop},
		"no time":          {"KZZT 24003KT 10SM CLR 18/08 A3001", "weather-age", judge.Stop},
		"windy":            {"KZZT 101653Z 24018KT 10SM CLR 18/08 A3001", "wind", judge.Stop},
		"gusty":            {"KZZT 101653Z 24008G22KT 10SM CLR 18/08 A3001", "wind", judge.Stop},
		"near":             {"KZZT 101653Z 24013G14KT 10SM CLR 18/08 A3001", "wind", judge.Watch},
		"no wind":          {"KZZT 101653Z /////KT 10SM CLR 18/08 A3001", "wind", judge.Stop},
		"mist":             {"KZZT 101653Z 24003KT 2SM BR CLR 18/17 A3001", "visibility", judge.Stop},
		"three miles":      {"KZZT 101653Z 24003KT 3SM CLR 18/17 A3001", "visibility", judge.Clear},
		"no visibility":    {"KZZT 101653Z 24003KT CLR 18/17 A3001", "visibility", judge.Stop},
		"thunder":          {"KZZT 101653Z 24003KT 10SM TSRA BKN030CB 18/17 A3001", "hazard", judge.Stop},
		"low cloud":        {"KZZT 101653Z 24003KT 10SM OVC005 18/17 A3001", "clouds", judge.Watch},
		"very low cloud":   {"KZZT 101653Z 24003KT 10SM OVC003 18/17 A3001", "clouds", judge.Stop},
		"no sky":           {"KZZT 101653Z 24003KT 10SM 18/17 A3001", "clouds", judge.Stop},
		"no temperature":   {"KZZT 101653Z 24003KT 10SM CLR A3001", "lift", judge.Watch},
		"cold":             {"KZZT 101653Z 24003KT 10SM CLR M02/M05 A3001", "cold", judge.Watch},
		"hot":              {"KZZT 101653Z 24003KT 10SM CLR 42/10 A2980", "heat", judge.Watch},
		"cold, no QNH":     {"KZZT 101653Z 24003KT 10SM CLR M02/M05", "cold", judge.Watch},
		"warm or cold":     {"KZZT 101653Z 24003KT 10SM CLR A3001", "cold", judge.Watch},
		"hot and thin air": {"KZZT 101653Z 24003KT 10SM CLR 42/10 A2980", "lift", judge.Watch},
	} {
		x := weather.Assess(air(t, c.text), limits(), now)
		assert.Equal(t, c.want, worst(x, c.rule), "%s: %+v", name, x.Findings)
	}
	a := air(t, "KZZT 101653Z 24003KT 10SM OVC050 18/10 A3001")
	a.StationM = nil
	assert.Equal(t, judge.Stop, worst(weather.Assess(a, limits(), now), "clouds"), "a base over nothing known")
	a = air(t, "KZZT 101653Z 24003KT 10SM CLR 18/10 A3001")
	a.At = now.Add(time.Hour)
	assert.Equal(t, judge.Stop, worst(weather.Assess(a, limits(), now), "weather-age"))
	a.Ground = "moon"
	assert.Equal(t, judge.Stop, worst(weather.Assess(a, limits(), now), "wind"))
}

func TestSprayWindow(t *testing.T) {
	l := limits()
	l.Work, l.HoursAfterRise, l.HoursToSet = weather.Spraying, f(5), f(9)
	for text, by := range map[string]map[judge.Rule]judge.Verdict{
		"KZZT 101653Z 24005KT 10SM SCT060 20/13 A3001": {"spray-wind": judge.Clear, "delta-t": judge.Clear,
			"inversion": judge.Clear},
		"KZZT 101653Z 00000KT 10SM CLR 20/13 A3001":       {"spray-wind": judge.Stop, "inversion": judge.Watch},
		"KZZT 101653Z VRB05KT 10SM SCT060 20/13 A3001":    {"spray-wind": judge.Watch},
		"KZZT 101653Z 24005G12KT 10SM SCT060 20/13 A3001": {"spray-wind": judge.Stop},
		"KZZT 101653Z 24005KT 10SM SCT060 A3001":          {"delta-t": judge.Stop},
		"KZZT 101653Z 24010KT 10SM CLR 33/05 A3001":       {"spray-wind": judge.Stop, "delta-t": judge.Stop},
		"KZZT 101653Z 24005KT 10SM CLR 20/19 A3001":       {"delta-t": judge.Stop},
	} {
		x := weather.Assess(air(t, text), l, now)
		for rule, want := range by {
			assert.Equal(t, want, worst(x, rule), "%s %s", text, rule)
		}
	}
	l.HoursAfterRise = f(0.2)
	x := weather.Assess(air(t, "KZZT 101653Z 24002KT 10SM CLR 12/10 A3001"), l, now)
	assert.Equal(t, judge.Stop, worst(x, "inversion"))
}

func TestLightForMapping(t *testing.T) {
	l := limits()
	l.Work = weather.Mapping
	text := "KZZT 101653Z 24003KT 10SM BKN060 18/08 A3001"
	assert.Equal(t, judge.Watch, worst(weather.Assess(air(t, text), l, now), "light"))
	r := report(t, "KZZT 101653Z 24003KT 10SM OVC060 18/08 A3001")
	l.Light, l.SunElevation = &r, f(55)
	assert.Equal(t, judge.Clear, worst(weather.Assess(air(t, text), l, now), "light"))
	l.SunElevation = f(20)
	assert.Equal(t, judge.Watch, worst(weather.Assess(air(t, text), l, now), "light"))
}

// The label's own limits win, at the height it names; just under, at and just
// over each.
func TestLabelWins(t *testing.T) {
	l := limits()
	l.Work, l.HoursAfterRise, l.HoursToSet, l.WindMS, l.GustMS = weather.Spraying, f(5), f(9), 30, 40
	a := air(t, "KZZT 101653Z 24005KT 10SM SCT060 20/13 A3001")
	wind := func(steady, gust float64, label weather.Label) judge.Verdict {
		a.WindMS, a.GustMS, a.WindHeightM, l.Label = &steady, &gust, 2, label
		return worst(weather.Assess(a, l, now), "spray-wind")
	}
	own := weather.Label{LowMS: f(2), HighMS: f(6)}
	for _, c := range []struct {
		steady, gust float64
		label        weather.Label
		want         judge.Verdict
	}{
		{0.9, 1, weather.Label{}, judge.Stop}, {1, 1, weather.Label{}, judge.Clear}, {4.5, 4.5, weather.Label{},
			judge.Clear}, {4.6, 4.6, weather.Label{}, judge.Stop}, {4, 4.6, weather.Label{}, judge.Stop},
		{1.9, 2, own, judge.Stop}, {2, 2, own, judge.Clear}, {6, 6, own, judge.Clear}, {5, 6.1, own, judge.Stop},
		{4, 4, weather.Label{HeightM: f(10)}, judge.Stop}, // 4 m/s at 2 m over crops are 5.7 at 10 m
		{4, 4, weather.Label{LowMS: f(5), HighMS: f(3)}, judge.Stop},
	} {
		assert.Equal(t, c.want, wind(c.steady, c.gust, c.label), "%+v", c)
	}
}

// What is expected inside the window is Watch, and what lies outside says
// nothing.
func TestExpectedWeather(t *testing.T) {
	l := limits()
	text := "KZZT 101653Z 24003KT 10SM CLR 18/08 A3001 "
	for trend, want := range map[string]judge.Verdict{
		"NOSIG": judge.Clear, "TEMPO TSRA": judge.Watch, "BECMG 24018KT": judge.Watch, "BECMG 9999 SCT080": judge.Clear,
		"TEMPO 0800 FG": judge.Watch, "TEMPO BKN002": judge.Watch, "PROB30 XX": judge.Watch,
		"BECMG FM2300 TSRA": judge.Clear,
	} {
		l.From, l.To = now, now.Add(2*time.Hour)
		assert.Equal(t, want, worst(weather.Assess(air(t, text+trend), l, now), "hazard"), trend)
	}
	assert.Equal(t, judge.Watch, worst(weather.Assess(air(t, "KZZT 101653Z 24003KT 10SM VCSH CLR 18/08 A3001"), l, now),
		"hazard"))
	assert.Equal(t, judge.Stop, worst(weather.Assess(air(t, "KZZT 101653Z 24003KT 10SM +T5RA CLR 18/08 A3001"), l, now),
		"hazard"), "cannot be read")
	assert.Equal(t, judge.Watch, worst(weather.Assess(air(t, "KZZT 101653Z 24003KT 10SM CLR 18/08 A3001 RMK TSNO"), l,
		now), "hazard"))
}

// Another law has other limits: no visibility, no distance from cloud.
func TestUnderAnotherLaw(t *testing.T) {
	l := limits()
	l.Law = rules.EUSpecific.Law
	x := weather.Assess(air(t, "KZZT 101653Z 24003KT 2SM BR OVC003 18/17 A3001"), l, now)
	assert.Equal(t, judge.Clear, worst(x, "visibility"))
	assert.Equal(t, judge.Clear, worst(x, "clouds"), "300 ft are over the 10 m of the flight")
	x = weather.Assess(air(t, "KZZT 101553Z 24003KT M1/4SM FG VV001 18/17 A3001"), l, now)
	assert.Equal(t, judge.Stop, worst(x, "visibility"))
	atAge := func(old time.Duration) judge.Verdict {
		a := air(t, "KZZT 101653Z 24003KT 10SM CLR 18/10 A3001")
		a.At = now.Add(-old)
		return worst(weather.Assess(a, l, now), "weather-age")
	}
	assert.Equal(t, judge.Clear, atAge(weather.HoldsFor))
	assert.Equal(t, judge.Stop, atAge(weather.HoldsFor+time.Second))
	assert.Equal(t, judge.Clear, atAge(-weather.Future))
	assert.Equal(t, judge.Stop, atAge(-weather.Future-time.Second))
	for up, want := range map[float64]judge.Verdict{weather.LowSun - 0.001: judge.Watch, weather.LowSun: judge.Clear} {
		m := l
		m.Work, m.SunElevation = weather.Mapping, &up
		x := weather.Assess(air(t, "KZZT 101653Z 24003KT 10SM CLR 18/10 A3001"), m, now)
		long := false
		for _, f := range x.Findings {
			long = long || strings.Contains(f.Sentence, "long shadows")
		}
		assert.Equal(t, want == judge.Watch, long, "%g degrees", up)
	}
	for km, want := range map[float64]judge.Verdict{0: judge.Clear, weather.NearKm: judge.Clear,
		weather.NearKm + 0.1: judge.Watch, -1: judge.Watch, math.NaN(): judge.Watch} {
		got, _ := weather.Far("the station", &km)
		assert.Equal(t, want, got, "%g km", km)
	}
	for metres, want := range map[float64]judge.Verdict{1499: judge.Stop, 1500: judge.Clear, 1501: judge.Clear} {
		a := air(t, "KZZT 101653Z 24003KT 2SM BR OVC003 18/17 A3001")
		a.VisibilityM = &metres
		assert.Equal(t, want, worst(weather.Assess(a, l, now), "visibility"), "%g m", metres)
	}
	for _, g := range x.Findings {
		assert.NotContains(t, g.Source+g.Sentence, "CFR")
		assert.NotContains(t, g.Source+g.Sentence, "statute")
	}
}

// Whatever value of the air is taken away or spoilt, the verdict never becomes
// milder.
func TestSpoiltAirIsNeverMilder(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		pick := func(name string, v ...float64) *float64 { return f(rapid.SampledFrom(v).Draw(t, name)) }
		base := rapid.SampledFrom([]int{200, 700, 1500, 9000}).Draw(t, "base")
		clear := rapid.Bool().Draw(t, "clear")
		a := weather.Air{At: now.Add(-time.Duration(rapid.IntRange(-10, 90).Draw(t, "age")) * time.Minute), Source: "hand",
			WindMS: pick("wind", 0, 1, 3, 5, 9), FromDeg: pick("from", 10, 200), WindHeightM: 2, Ground: "crops",
			TempC: pick("temp", -5, 18, 45), DewC: pick("dew", -9, -6), QNH: pick("qnh", 960, 1013), VisibilityM: pick("vis",
				500, 4000, 9999), CloudBaseFt: &base, CloudKnown: true, ClearSky: &clear, StationM: f(225),
			Hazards: rapid.SampledFrom([][]string{nil, {"RA"}}).Draw(t, "hazards"), WeatherKnown: true}
		a.GustMS = f(*a.WindMS + *pick("more", 0, 2, 8))
		l := limits()
		l.Work = rapid.SampledFrom(weather.AllWork).Draw(t, "work")
		l.HoursAfterRise, l.HoursToSet, l.SunElevation = pick("rise", 0.5, 6), pick("set", 0.5, 7), pick("sun", 10, 60)
		if rapid.Bool().Draw(t, "eu") {
			l.Law = rules.EUSpecific.Law
		}
		before := judge.Worst(weather.Assess(a, l, now).Findings)
		bad := f(rapid.SampledFrom([]float64{math.NaN(), math.Inf(1), math.Inf(-1), -1e9, 1e9}).Draw(t, "bad"))
		if rapid.Bool().Draw(t, "gone") {
			bad = nil
		}
		what := rapid.SampledFrom([]string{"wind", "from", "temp", "dew", "qnh", "vis", "base", "cloud", "clear", "station",
			"weather", "at", "ground", "height", "rise", "sun"}).Draw(t, "what")
		switch what {
		case "wind":
			a.WindMS = bad
		case "from":
			a.FromDeg = bad
		case "temp":
			a.TempC = bad
		case "dew":
			a.DewC = bad
		case "qnh":
			a.QNH = bad
		case "vis":
			a.VisibilityM = bad
		case "base":
			n := -5
			a.CloudBaseFt = &n
		case "cloud":
			a.CloudKnown, a.CloudBaseFt = false, nil
		case "clear":
			a.ClearSky = nil
		case "station":
			a.StationM = bad
		case "weather":
			a.WeatherKnown, a.Hazards = false, nil
		case "at":
			a.At = time.Time{}
		case "ground":
			a.Ground = ""
		case "height":
			a.WindHeightM = math.NaN()
		case "rise":
			l.HoursAfterRise = bad
		case "sun":
			l.SunElevation = nil
		}
		after := weather.Assess(a, l, now)
		assert.GreaterOrEqual(t, judge.Worst(after.Findings), before, "%s: %+v", what, after.Findings)
	})
}
