package bench_test

import (
	"math"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/bench"
)

// Every calculator answers with what it stands at, and says what it is.
func TestEveryCalculatorAnswers(t *testing.T) {
	seen := map[string]bool{}
	for _, c := range bench.All {
		assert.False(t, seen[c.Key], c.Key)
		seen[c.Key] = true
		assert.Contains(t, bench.Groups, c.Group, c.Key)
		assert.NotEmpty(t, c.Title, c.Key)
		assert.NotEmpty(t, c.Formula, c.Key)
		assert.NotEmpty(t, c.Source, c.Key)
		out, _, err := c.Compute(nil)
		require.NoError(t, err, c.Key)
		if c.Key != "scale" {
			assert.NotEmpty(t, out, c.Key)
		}
		_, _, err = c.Compute(map[string]float64{"nothing": 1})
		require.ErrorIs(t, err, bench.ErrInput, c.Key)
		names := map[string]bool{}
		for _, in := range c.Inputs {
			assert.False(t, names[in.Name], "%s %s", c.Key, in.Name)
			names[in.Name] = true
			assert.True(t, in.Least <= in.Default && in.Default <= in.Most, "%s %s", c.Key, in.Name)
			for _, bad := range []float64{in.Least - 1, in.Most * 1.01, math.NaN()} {
				if bad == in.Most || bad >= in.Least && bad <= in.Most {
					continue
				}
				_, _, err := c.Compute(map[string]float64{in.Name: bad})
				var f bench.FieldError
				require.ErrorAs(t, err, &f, "%s %s", c.Key, in.Name)
				assert.Equal(t, in.Name, f.Field)
			}
		}
	}
	_, ok := bench.Find("nothing")
	assert.False(t, ok)
}

// Figures from elsewhere than this code.
func TestFiguresOfTheBench(t *testing.T) {
	for _, row := range []struct {
		key, label string
		in         map[string]float64
		want, tol  float64
	}{
		{"density", "Density", map[string]float64{"qnh": 1008, "height": 320, "temp": 31, "dew": 17}, 1.1030, 5e-5},
		{"pictures", "Resolution, cm", nil, 2.467, 5e-4},
		{"pictures", "Interval, s", nil, 2.8125, 1e-4},
		{"height-for", "Height or stand-off", map[string]float64{"gsd": 2.467}, 90, 0.05},
		{"ring", "Rows", map[string]float64{"stand_off": 4, "sideways": 50, "upward": 50}, 14, 0},
		{"sun", "Elevation", map[string]float64{"lat": 0, "lon": 0, "year": 2024, "month": 3, "day": 20, "hour": 12.12}, 90,
			0.3},
		{"density", "Density altitude", map[string]float64{"qnh": 1008, "height": 320, "temp": 31, "dew": 17}, 1079, 0.5},
		{"wind-height", "Wind there", map[string]float64{"steady": 5, "height": 120}, 8.64, 0.005},
		{"components", "Headwind", nil, 6.13, 0.005},
		{"clinometer", "Height", nil, 17.76, 0.005},
		{"two-stations", "Height", nil, 15.75, 0.005},
		{"hover", "Hover power", map[string]float64{"rotors": 4, "diameter": 0.55, "rho": 1.225, "mass": 12}, 1521, 0.5},
		{"usable", "Usable", map[string]float64{"packs": 1, "ah": 22, "volts": 22.2, "reserve": 20}, 363.4, 0.05},
		{"spray-energy", "Energy", map[string]float64{"diameter": 0.9, "rho": 1.225, "before": 58, "litres": 20,
			"flow": 3.78}, 538.4, 0.1},
		{"resistance", "Resistance", nil, 14.4, 0.05},
		{"percent", "Level", map[string]float64{"volts": 3.82}, 45, 0.01},
		{"camera", "Filter", nil, 5, 1e-9},
		{"heading", "Off by", nil, -4, 1e-9},
		{"heading", "Off by", map[string]float64{"true": 350, "shown": 5}, 15, 1e-9},
		{"motor-spread", "Spread", nil, 10, 1e-9},
		{"drift", "From bearing", map[string]float64{"from": 270}, 67.5, 1e-9},
		{"flow", "Flow", nil, 3.78, 1e-9},
		{"loads", "Loads", map[string]float64{"ha": 2.1, "rate": 10, "tank": 7}, 3, 0},
		{"pump", "New factor", map[string]float64{"old": 1.2}, 1.14, 1e-9},
	} {
		c, ok := bench.Find(row.key)
		require.True(t, ok, row.key)
		out, _, err := c.Compute(row.in)
		require.NoError(t, err, row.key)
		i := slices.IndexFunc(out, func(r bench.Result) bool { return r.Label == row.label })
		require.GreaterOrEqual(t, i, 0, "%s %s", row.key, row.label)
		assert.InDelta(t, row.want, out[i].Value, row.tol+1e-12, "%s %s", row.key, row.label)
	}
}

// Whatever is typed inside the ranges, there is a number or a sentence.
func TestNoCalculatorAnswersWithNoNumber(t *testing.T) {
	rapid.Check(t, func(rt *rapid.T) {
		c := rapid.SampledFrom(bench.All).Draw(rt, "calculator")
		in := map[string]float64{}
		for _, x := range c.Inputs {
			in[x.Name] = rapid.Float64Range(x.Least, x.Most).Draw(rt, x.Name)
		}
		out, _, err := c.Compute(in)
		if err != nil {
			require.ErrorIs(rt, err, bench.ErrInput)
			return
		}
		for _, r := range out {
			require.False(rt, math.IsNaN(r.Value) || math.IsInf(r.Value, 0), "%s %s", c.Key, r.Label)
		}
	})
}

// A report is read group by group; what cannot be read is said, and nothing stands in
// for it.
func TestReportOnTheBench(t *testing.T) {
	c, ok := bench.Find("report")
	require.True(t, ok)
	value := func(text, label string) (float64, string) {
		out, says, err := c.Read(text)
		require.NoError(t, err, text)
		for _, r := range out {
			if r.Label == label {
				return r.Value, says
			}
		}
		return math.NaN(), says
	}
	v, _ := value("METAR KZZT 101653Z 24008G14KT 10SM FEW040 24/11 A2992", "Gust")
	assert.InDelta(t, 14*0.514444, v, 0.01)
	v, _ = value("METAR KZZT 101653Z 24008KT 10SM FEW040 24/11 A2992", "Lowest cloud, over the station")
	assert.InDelta(t, 4000*0.3048, v, 0.1)
	v, says := value("METAR KZZT 101653Z /////KT 10SM FEW040 24/11 A2992", "Wind")
	assert.True(t, math.IsNaN(v))
	assert.Contains(t, says, "Wind not known.")
	_, says = value("METAR KZZT 101653Z 37008KT 10SM FEW040 24/11 A2992", "Wind")
	assert.Contains(t, says, "37008KT")
	for _, bad := range []string{"", "  ", strings.Repeat("A", bench.MostText+1)} {
		_, _, err := c.Read(bad)
		var f bench.FieldError
		assert.ErrorAs(t, err, &f)
	}
	_, says = value("good morning", "Wind")
	for _, what := range []string{"Wind", "Visibility", "Sky", "Weather"} {
		assert.Contains(t, says, what+" not known.")
	}
	hover, _ := bench.Find("hover")
	_, _, err := hover.Read("METAR")
	assert.ErrorIs(t, err, bench.ErrInput)
}

func FuzzReportOnTheBench(f *testing.F) {
	f.Add("METAR KZZT 101653Z 24008G14KT 10SM FEW040 24/11 A2992")
	c, _ := bench.Find("report")
	f.Fuzz(func(t *testing.T, text string) {
		out, _, err := c.Read(text)
		if err != nil {
			return
		}
		for _, r := range out {
			if math.IsNaN(r.Value) || math.IsInf(r.Value, 0) {
				t.Fatalf("%q: %s", text, r.Label)
			}
		}
	})
}
