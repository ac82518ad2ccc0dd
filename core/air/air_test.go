package air_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/air"
	"mainstay/core/judge"
)

func TestHotAndHigh(t *testing.T) {
	p, err := air.StationPressure(1008, 320)
	require.NoError(t, err)
	assert.InDelta(t, 970.30, p, 0.01)
	rho, err := air.Density(p, 31, 17)
	require.NoError(t, err)
	assert.InDelta(t, 1.1030, rho, 0.00005)
	assert.InDelta(t, 1079, air.DensityAltitude(rho), 0.5)
	assert.InDelta(t, 72*1.1030/1.225, air.MassLimit(72, rho, 1.225), 0.01)
	assert.Equal(t, 72.0, air.MassLimit(72, 1.3, 1.225), "never over the maker's maximum")
}

// The tables of the International Standard Atmosphere (ICAO Doc 7488): height,
// pressure hPa, temperature degC, density kg/m3, dry air.
func TestStandardAtmosphere(t *testing.T) {
	for _, row := range [][4]float64{{0, 1013.25, 15, 1.2250}, {500, 954.61, 11.75, 1.1673}, {1000, 898.76, 8.5, 1.1117},
		{2000, 795.01, 2, 1.0066}, {3000, 701.21, -4.5, 0.90925}} {
		p, err := air.StationPressure(1013.25, row[0])
		require.NoError(t, err)
		assert.InDelta(t, row[1], p, 0.4)
		rho, err := air.Density(row[1], row[2], -80)
		require.NoError(t, err)
		assert.InDelta(t, row[3], rho, 0.0005)
		assert.InDelta(t, row[0], air.DensityAltitude(rho), 6)
	}
}

// Saturation over water from the Smithsonian tables, hPa.
func TestSaturationTable(t *testing.T) {
	for c, want := range map[float64]float64{0: 6.11, 10: 12.27, 20: 23.37, 30: 42.43, 40: 73.78} {
		assert.InEpsilon(t, want*100, air.Saturation(c), 0.004)
	}
}

// Psychrometric chart at 1013.25 hPa, read to a third of a degree: dry bulb,
// humidity, wet bulb.
func TestWetBulbTable(t *testing.T) {
	for _, row := range [][3]float64{{20, 50, 13.8}, {25, 50, 17.9}, {30, 50, 22.0}, {30, 30, 17.8}, {35, 20, 18.8},
		{15, 80, 13.0}, {25, 100, 25}} {
		dew, err := air.DewPoint(row[0], row[1])
		require.NoError(t, err)
		w, err := air.WetBulb(row[0], dew, 1013.25)
		require.NoError(t, err)
		assert.InDelta(t, row[2], w, 0.34, "%g degC, %g %%", row[0], row[1])
	}
}

// Stull's fit of 2011 is within -1 to +0.65 degC at sea level.
func TestWetBulbAgainstStull(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		c, rh := rapid.Float64Range(0, 45).Draw(t, "t"), rapid.Float64Range(10, 99).Draw(t, "rh")
		dew, err := air.DewPoint(c, rh)
		require.NoError(t, err)
		w, err := air.WetBulb(c, dew, 1013.25)
		require.NoError(t, err)
		stull := c*math.Atan(0.151977*math.Sqrt(rh+8.313659)) + math.Atan(c+rh) - math.Atan(rh-1.676331) +
			0.00391838*math.Pow(rh,
				1.5)*math.Atan(0.023101*rh) - 4.686035
		assert.Greater(t, w-stull, -1.15)
		assert.Less(t, w-stull, 1.15)
		assert.LessOrEqual(t, w, c+1e-9)
		assert.GreaterOrEqual(t, w, dew-1e-9)
		back, err := air.Humidity(c, dew)
		require.NoError(t, err)
		assert.InDelta(t, rh, back, 1e-6)
	})
}

func TestDeltaT(t *testing.T) {
	for d, want := range map[float64]judge.Verdict{1.9: judge.Stop, 2: judge.Watch, 2.69: judge.Clear, 2.6: judge.Watch,
		5: judge.Clear, 7.3: judge.Clear, 7.4: judge.Watch, 8: judge.Watch, 9: judge.Watch, 10: judge.Watch, 10.1: judge.Stop,
		math.NaN(): judge.Stop, math.Inf(1): judge.Stop, math.Inf(-1): judge.Stop} {
		v, words := air.JudgeDeltaT(d)
		assert.Equal(t, want, v, "%g: %s", d, words)
	}
}

func TestInversion(t *testing.T) {
	f := func(v float64) *float64 { return &v }
	clear, cloudy := true, false
	for name, c := range map[string]struct {
		in   air.Inversion
		want judge.Verdict
	}{
		"measured": {air.Inversion{LowC: f(12), HighC: f(13)}, judge.Stop},
		"measured even": {air.Inversion{LowC: f(12), HighC: f(12), HoursAfterRise: f(6), HoursToSet: f(8), WindMS: f(3),
			ClearSky: &cloudy}, judge.Watch},
		"even, and signs": {air.Inversion{LowC: f(12), HighC: f(12.4), HoursAfterRise: f(0.5), HoursToSet: f(14),
			WindMS: f(1), ClearSky: &clear}, judge.Stop},
		"just an inversion": {air.Inversion{LowC: f(12), HighC: f(12.5)}, judge.Stop},
		"just inside": {air.Inversion{LowC: f(12), HighC: f(11.6), HoursAfterRise: f(6), HoursToSet: f(8), WindMS: f(3),
			ClearSky: &cloudy}, judge.Watch},
		"not a number": {air.Inversion{LowC: f(math.NaN()), HighC: f(11)}, judge.Stop},
		"wind no number": {air.Inversion{HoursAfterRise: f(0.5), HoursToSet: f(14), WindMS: f(math.NaN()),
			ClearSky: &clear}, judge.Stop},
		"measured cooler": {air.Inversion{LowC: f(12), HighC: f(11.5), WindMS: f(0), ClearSky: &clear}, judge.Clear},
		"still clear dawn": {air.Inversion{HoursAfterRise: f(0.5), HoursToSet: f(14), WindMS: f(1), ClearSky: &clear},
			judge.Stop},
		"evening": {air.Inversion{HoursAfterRise: f(13), HoursToSet: f(1), WindMS: f(1), ClearSky: &clear},
			judge.Stop},
		"windy dawn": {air.Inversion{HoursAfterRise: f(0.5), HoursToSet: f(14), WindMS: f(3), ClearSky: &clear},
			judge.Watch},
		"noon": {air.Inversion{HoursAfterRise: f(6), HoursToSet: f(8), WindMS: f(3), ClearSky: &cloudy},
			judge.Clear},
		"nothing known": {air.Inversion{}, judge.Stop},
		"sky not known": {air.Inversion{HoursAfterRise: f(6), HoursToSet: f(8), WindMS: f(3)}, judge.Watch},
	} {
		v, words := c.in.Judge()
		assert.Equal(t, c.want, v, "%s: %s", name, words)
	}
}

func TestRefusals(t *testing.T) {
	for name, call := range map[string]func() (float64, error){
		"qnh":    func() (float64, error) { return air.StationPressure(29.92, 100) },
		"height": func() (float64, error) { return air.StationPressure(1013, 9000) },
		"dew over temperature": func() (float64, error) {
			return air.Density(1013, 10, 12)
		},
		"pressure": func() (float64, error) { return air.Density(0, 10, 2) },
		"nan":      func() (float64, error) { return air.WetBulb(math.NaN(), 2, 1000) },
		"humidity": func() (float64, error) { return air.DewPoint(20, 0) },
		"wet bulb": func() (float64, error) { return air.WetBulb(20, 10, 5000) },
		"over":     func() (float64, error) { return air.Humidity(20, 30) },
	} {
		_, err := call()
		assert.ErrorIs(t, err, air.ErrInput, name)
	}
}
