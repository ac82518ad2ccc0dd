package weather_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"mainstay/core/judge"
	"mainstay/core/sun"
	"mainstay/core/weather"
)

// An hour of a forecast: what it leaves out is not known, what it says counts.
func TestHourAsAir(t *testing.T) {
	yes, no, base := true, false, 4500
	text := func(s string) *string { return &s }
	dry := weather.Hour{At: now, Rain: &no, Cover: text("CLR")}
	assert.Empty(t, dry.Air(nil, "open").Hazards)
	assert.True(t, dry.Air(nil, "open").WeatherKnown)
	dry.Rain = &yes
	assert.Equal(t, []string{"rain"}, dry.Air(nil, "open").Hazards)
	dry.Rain = nil
	assert.Empty(t, dry.Air(nil, "open").Hazards)
	assert.False(t, dry.Air(nil, "open").WeatherKnown, "nobody said whether it rains")
	for cover, want := range map[string]struct{ known, clear bool }{"CLR": {true, true}, "FEW": {true, true},
		"SCT": {true, false}, "BKN": {true, false}, "OVC": {true, false}} {
		h := weather.Hour{At: now, Cover: text(cover), CloudBaseFt: &base}
		a := h.Air(nil, "open")
		assert.Equal(t, want.known, a.CloudKnown, cover)
		assert.Equal(t, want.clear, *a.ClearSky, cover)
		h.CloudBaseFt = nil
		assert.Equal(t, cover == "CLR", h.Air(nil, "open").CloudKnown, "%s without a base", cover)
	}
	assert.False(t, weather.Hour{At: now}.Air(nil, "open").CloudKnown)
	assert.Nil(t, weather.Hour{At: now}.Air(nil, "open").ClearSky)
	assert.Nil(t, weather.Hour{At: now, Cover: text("fog")}.Air(nil, "open").ClearSky)
}

// Mapping asks for even light; an hour that says its cover answers.
func TestLightOfAnHour(t *testing.T) {
	l := limits()
	l.Work = weather.Mapping
	el := 50.0
	l.SunElevation = &el
	num := func(v float64) *float64 { return &v }
	base, no := 4500, false
	why := func(cover string, light sun.Light, assumed bool) string {
		h := weather.Hour{At: now, Cover: &cover, CloudBaseFt: &base, Rain: &no, WindMS: num(3), GustMS: num(4),
			FromDeg: num(270), TempC: num(20), DewC: num(10), QNH: num(1013), VisibilityM: num(16000)}
		got := weather.JudgeHour(h, weather.Station{ElevationM: num(210), Ground: "open"}, l, light, assumed)
		if got.Verdict == judge.Clear {
			return ""
		}
		return got.Verdict.String() + " " + got.Why
	}
	assert.Empty(t, why("CLR", sun.Daylight, false))
	assert.Empty(t, why("OVC", sun.Daylight, false), "even under a closed sky")
	assert.Contains(t, why("SCT", sun.Daylight, false), "watch")
	assert.Contains(t, why("CLR", sun.Twilight, false), "watch Twilight")
	assert.Contains(t, why("CLR", sun.Night, false), "watch Night")
	assert.Contains(t, why("CLR", sun.Daylight, true), "watch No aircraft is chosen")
}
