package sun_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/sun"
)

// Rise and set as almanacs print them, in whole minutes.
func TestRiseAndSetAsInAlmanacs(t *testing.T) {
	for _, c := range []struct {
		date      string
		zone      float64 // hours east of UTC
		lat, lon  float64
		rise, set string
	}{
		{"2024-06-21", 1, 51.4769, -0.0005, "04:43", "21:21"},
		{"2024-12-21", 0, 51.4769, -0.0005, "08:03", "15:53"},
		{"2024-03-20", -5, 40.7128, -74.0060, "05:59", "18:08"},
		{"2024-01-01", 11, -33.8688, 151.2093, "05:47", "20:09"},
		{"2024-06-20", -7, 47.6062, -122.3321, "05:11", "21:11"},
	} {
		zone := time.FixedZone("", int(c.zone*3600))
		date, err := time.ParseInLocation(time.DateOnly, c.date, zone)
		require.NoError(t, err)
		d, err := sun.On(date, zone, c.lat, c.lon)
		require.NoError(t, err)
		require.NotNil(t, d.Rise)
		for got, want := range map[*time.Time]string{d.Rise: c.rise, d.Set: c.set} {
			w, err := time.ParseInLocation("2006-01-02 15:04", c.date+" "+want, zone)
			require.NoError(t, err)
			assert.WithinDuration(t, w, *got, 90*time.Second, "%s at %g, %g", c.date, c.lat, c.lon)
		}
	}
}

// Meeus, Astronomical Algorithms, example 25.a: 1992 October 13 at 0 h TD the
// apparent declination is -7.78507 degrees; the sun stands that far south of
// the zenith of the equator at noon there.
func TestDeclinationOfMeeus(t *testing.T) {
	at := time.Date(1992, 10, 12, 23, 59, 1, 0, time.UTC) // TD less 59 s
	best := -90.0
	for lon := -180.0; lon <= 180; lon += 0.5 {
		el, _, err := sun.Position(at, -7.78507, lon)
		require.NoError(t, err)
		best = max(best, el)
	}
	assert.InDelta(t, 90, best, 0.3)
	highest := -90.0
	for lon := -180.0; lon <= 180; lon += 0.01 {
		el, _, _ := sun.Position(at, 40, lon)
		highest = max(highest, el)
	}
	assert.InDelta(t, 90-40-7.78507, highest, 0.003)
}

func TestDaysWithoutRiseOrDark(t *testing.T) {
	for _, c := range []struct {
		date string
		lat  float64
		want sun.Kind
	}{
		{"2024-06-21", 70, sun.PolarDay}, {"2024-12-21", 70, sun.PolarNight}, {"2024-12-21", 80, sun.NoTwilight},
		{"2024-06-21", 62, sun.TwilightAllNight}, {"2024-03-20", 62, sun.Normal}, {"2024-06-21", -70, sun.PolarNight},
	} {
		date, err := time.Parse(time.DateOnly, c.date)
		require.NoError(t, err)
		d, err := sun.On(date, time.UTC, c.lat, 0)
		require.NoError(t, err)
		assert.Equal(t, c.want, d.Kind, "%s at %g", c.date, c.lat)
	}
	_, err := sun.On(time.Date(2026, 6, 10, 12, 0, 0, 0, time.UTC), time.UTC, 91, 0)
	assert.ErrorIs(t, err, sun.ErrInput)
	_, _, err = sun.Position(time.Date(2026, 6, 10, 12, 0, 0, 0, time.UTC), 0, 200)
	assert.ErrorIs(t, err, sun.ErrInput)
}

// At the times given the sun stands at the elevation that defines them, and
// noon is the highest of the day.
func TestEventsAgreeWithThePosition(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		lat, lon := rapid.Float64Range(-65, 65).Draw(t, "lat"), rapid.Float64Range(-180, 180).Draw(t, "lon")
		zone := time.FixedZone("", int(lon/15)*3600)
		date := time.Date(2026, 1, 1, 0, 0, 0, 0, zone).AddDate(0, 0, rapid.IntRange(0, 364).Draw(t, "day"))
		d, err := sun.On(date, zone, lat, lon)
		require.NoError(t, err)
		assert.Equal(t, date.Format(time.DateOnly), d.Noon.In(zone).Format(time.DateOnly))
		at := func(ev *time.Time, want float64) {
			if ev == nil {
				return
			}
			el, _, err := sun.Position(*ev, lat, lon)
			require.NoError(t, err)
			assert.InDelta(t, want, el, 0.02)
		}
		at(d.Rise, sun.RiseElevation)
		at(d.Set, sun.RiseElevation)
		at(d.Dawn, sun.TwilightElevation)
		at(d.Dusk, sun.TwilightElevation)
		top, _, _ := sun.Position(d.Noon, lat, lon)
		for _, off := range []time.Duration{-time.Hour, time.Hour} {
			el, _, _ := sun.Position(d.Noon.Add(off), lat, lon)
			assert.Less(t, el, top)
		}
		if d.Rise != nil && d.Dawn != nil {
			assert.True(t, d.Dawn.Before(*d.Rise))
		}
	})
}

func TestLightOfTheRule(t *testing.T) {
	zone := time.FixedZone("", -7*3600)
	date := time.Date(2026, 6, 10, 0, 0, 0, 0, zone)
	var days []sun.Day
	for i := -1; i <= 1; i++ {
		d, err := sun.On(date.AddDate(0, 0, i), zone, 46.31, -119.70)
		require.NoError(t, err)
		days = append(days, d)
	}
	today := days[1]
	for off, want := range map[time.Duration]sun.Light{time.Minute: sun.Daylight, -time.Minute: sun.Twilight,
		-29 * time.Minute: sun.Twilight, -40 * time.Minute: sun.Night} {
		assert.Equal(t, want, sun.LightAt(today.Rise.Add(off), days, 30*time.Minute), "%s from sunrise", off)
		assert.Equal(t, want, sun.LightAt(today.Set.Add(-off), days, 30*time.Minute), "%s before sunset", off)
	}
	assert.Equal(t, sun.Daylight, sun.LightAt(today.Noon, days, 30*time.Minute))
	// Near the equator almanac twilight is shorter than 30 minutes.
	var equator []sun.Day
	for i := -1; i <= 1; i++ {
		d, err := sun.On(date.AddDate(0, 0, i), time.UTC, 0, 0)
		require.NoError(t, err)
		equator = append(equator, d)
	}
	assert.Equal(t, sun.Night, sun.LightAt(equator[1].Set.Add(25*time.Minute), equator, 30*time.Minute))
	assert.Equal(t, sun.Twilight, sun.LightAt(equator[1].Set.Add(15*time.Minute), equator, 30*time.Minute))
}
