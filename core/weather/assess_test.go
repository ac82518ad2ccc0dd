package weather_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/judge"
	"mainstay/core/metar"
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
	return weather.Limits{WindMS: 8, GustMS: 10, FlightHeightM: 10, MaxMassKg: 72, GroundM: 210, Work: weather.Inspection}
}

func air(t *testing.T, s string) weather.Air {
	a := weather.FromReport(report(t, s), now, "crops")
	a.StationM = f(225)
	return a
}

func worst(x weather.Assessment, rule string) judge.Verdict {
	var of []judge.Finding
	for _, g := range x.Findings {
		if g.Rule == rule {
			of = append(of, g)
		}
	}
	return judge.Worst(of)
}

func TestFineMorning(t *testing.T) {
	x := weather.Assess(air(t, "KZZT 101653Z 24003KT 10SM FEW060 SCT120 18/08 A3001"), limits(), now)
	assert.Empty(t, x.Findings)
	require.NotNil(t, x.Wind)
	assert.InDelta(t, 1.54, float64(x.Wind.Steady), 0.01)
	assert.InDelta(t, 1016.26-25.1, *x.PressureHPa, 0.5, "12 hPa less in 100 m")
	assert.InDelta(t, 375, *x.DensityAltitudeM, 20, "pressure altitude 185 m, 4 degrees over standard at 36 m each, and moist")
	assert.InDelta(t, (6000-500)*0.3048+225-210, *x.CloudCeilingM, 1e-6)
	assert.InDelta(t, 52, *x.HumidityPercent, 1)
}

func TestEachLimit(t *testing.T) {
	for name, c := range map[string]struct {
		text, rule string
		want       judge.Verdict
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
	for text, rules := range map[string]map[string]judge.Verdict{
		"KZZT 101653Z 24005KT 10SM SCT060 20/13 A3001": {"spray-wind": judge.Clear, "delta-t": judge.Clear, "inversion": judge.Clear},
		"KZZT 101653Z 00000KT 10SM CLR 20/13 A3001":    {"spray-wind": judge.Stop, "inversion": judge.Watch},
		"KZZT 101653Z 24010KT 10SM CLR 33/05 A3001":    {"spray-wind": judge.Stop, "delta-t": judge.Stop},
		"KZZT 101653Z 24005KT 10SM CLR 20/19 A3001":    {"delta-t": judge.Stop},
	} {
		x := weather.Assess(air(t, text), l, now)
		for rule, want := range rules {
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
