package metar_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/metar"
)

// What cannot be read makes unknown what it may have been, never none.
func TestUnreadableIsUnknown(t *testing.T) {
	const sound = "KZZT 101653Z 24003KT 10SM "
	for text, want := range map[string]struct{ sky, weather bool }{
		sound + "BKN010 18/08 A3001":             {true, true},
		sound + "OVVC008 CLR 18/08 A3001":        {false, false},
		sound + "0VC008 CLR 18/08 A3001":         {false, false},
		sound + "OVC0O8 18/08 A3001":             {false, true},
		sound + "+T5RA CLR 18/08 A3001":          {false, false},
		sound + "// CLR 18/08 A3001":             {true, false},
		sound + "////// 18/08 A3001":             {false, true},
		sound + "FEW/// 18/08 A3001":             {false, true},
		sound + "18/08 A3001":                    {false, true},
		"KZZT 101653Z 24O03KT 10SM CLR 18/08":    {true, true},
		"KZZT 101653Z 24003KT 1OSM CLR 18/08":    {true, true},
		sound + "CLR 18/08 A3OO1":                {false, false},
		sound + "CLR 18/08 A3001 RMK AO2 PWINO":  {true, false},
		sound + "CLR 18/08 A3001 RMK AO2 TSNO":   {true, true},
		sound + "CLR 18/08 A3001 TEMPO OVVC008":  {true, true},
		sound + "CLR 18/08 A3001 BECMG 10SM XYZ": {true, true},
	} {
		r := decode(t, text)
		assert.Equal(t, want.sky, r.SkyKnown, text)
		assert.Equal(t, want.weather, r.WeatherKnown, text)
	}
	assert.Nil(t, decode(t, "KZZT 101653Z 24O03KT 10SM CLR").Wind.SpeedMS)
	assert.Nil(t, decode(t, "KZZT 101653Z 24003KT 1OSM CLR").VisibilityM)
}

// Whatever group is mangled, nothing that was known to be bad turns into none.
func TestManglingNeverClearsTheSky(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		group := rapid.SampledFrom([]string{"OVC004", "BKN003", "TSRA", "FG", "+SN", "VCTS", "OVC010CB"}).Draw(t, "group")
		at, with := rapid.IntRange(0, len(group)-1).Draw(t, "at"), rapid.SampledFrom([]byte("0X5OQZ-/")).Draw(t, "with")
		b := []byte(group)
		b[at] = with
		r, err := metar.Decode("KZZT 101653Z 24003KT 10SM " + string(b) + " CLR 18/08 A3001")
		if err != nil {
			return
		}
		_, known := r.LowestBase()
		base, _ := r.LowestBase()
		told := len(r.Hazards()) > 0 || base != nil || len(r.Vicinity()) > 0
		still := string(b) == group || !known || !r.WeatherKnown || told
		// A letter may turn one kind of weather into another that is none of ours.
		for _, w := range r.Weather {
			still = still || w == string(b)
		}
		assert.True(t, still, "%s came out as nothing", b)
	})
}

func TestTrendsStandApart(t *testing.T) {
	made := time.Date(2026, 6, 10, 16, 53, 0, 0, time.UTC)
	at := func(h, m int) time.Time { return time.Date(2026, 6, 10, h, m, 0, 0, time.UTC) }
	for text, want := range map[string]struct {
		kind     string
		from, to time.Time
		words    string
	}{
		"NOSIG":                        {"NOSIG", made, made.Add(2 * time.Hour), ""},
		"TEMPO TSRA BKN020CB":          {"TEMPO", made, made.Add(2 * time.Hour), "TSRA, BKN CB; cloud from 2000 ft"},
		"BECMG FM1730 TL1830 0800 FG":  {"BECMG", at(17, 30), at(18, 30), "FG; visibility 0.8 km"},
		"TEMPO AT1800 25015G25MPS":     {"TEMPO", at(18, 0), at(20, 0), "wind 15.0 m/s, gusts 25.0"},
		"PROB40 TEMPO 1018/1020 +SHRA": {"PROB", at(18, 0), at(20, 0), "+SHRA"},
		"INTER 4000 SHRA":              {"INTER", made, made.Add(2 * time.Hour), "SHRA; visibility 4.0 km"},
		"FM101900 24015KT 9999 BKN040": {"FM", at(19, 0), at(21, 0), "wind 7.7 m/s; visibility 10.0 km; cloud from 4000 ft"},
		"TEMPO OVVC008":                {"TEMPO", made, made.Add(2 * time.Hour), "part of it cannot be read"},
		"BECMG FM2460 TSRA":            {"BECMG", made, made.Add(2 * time.Hour), "TSRA; part of it cannot be read"},
		"BECMG FM2401 TSRA":            {"BECMG", made, made.Add(2 * time.Hour), "TSRA; part of it cannot be read"},
		"BECMG FM2500 TSRA":            {"BECMG", made, made.Add(2 * time.Hour), "TSRA; part of it cannot be read"},
		"BECMG FM1760 TSRA":            {"BECMG", made, made.Add(2 * time.Hour), "TSRA; part of it cannot be read"},
		"BECMG FM321700 TSRA":          {"BECMG", made, made.Add(2 * time.Hour), "TSRA; part of it cannot be read"},
		"BECMG FM1759 TSRA":            {"BECMG", at(17, 59), at(19, 59), "TSRA"},
		"BECMG FM9999 TSRA":            {"BECMG", made, made.Add(2 * time.Hour), "TSRA; part of it cannot be read"},
	} {
		r := decode(t, "KZZT 101653Z 24003KT 10SM CLR 18/08 A3001 "+text)
		require.Len(t, r.Trends, 1, text)
		x := r.Trends[0]
		from, to := x.Window(made)
		assert.Equal(t, want.kind, x.Kind, text)
		assert.Equal(t, want.from, from, text)
		assert.Equal(t, want.to, to, text)
		assert.Equal(t, want.words, x.Words(), text)
		assert.InDelta(t, 1.54, *r.Wind.SpeedMS, 0.01, "the observation stays")
		assert.Empty(t, r.Hazards(), text)
		base, known := r.LowestBase()
		assert.True(t, known && base == nil, text)
	}
	r := decode(t, "KZZT 101653Z 24003KT 10SM CLR 18/08 TEMPO TSRA FM101900 24015KT PROB30 FG")
	require.Len(t, r.Trends, 3)
}

func TestReportsOfOneText(t *testing.T) {
	for text, want := range map[string]int{
		"KZZT 101653Z 24003KT 10SM CLR 18/08 A3001":                            1,
		"METAR KZZT 101653Z CLR= SPECI KZZT 101710Z OVC003=":                   2,
		"METAR KZZT 101653Z CLR METAR KZZT 101710Z OVC003":                     2,
		"KZZT 101653Z CLR KABC 101710Z OVC003":                                 2,
		"COR SPECI KABC 010000Z M05/M12":                                       1,
		"METAR COR KABC 010000Z M05/M12 = ":                                    1,
		"KZZT 101653Z AUTO 24003KT 10SM CLR RMK AO2 SLP123 KZZT 101753Z 1/4SM": 2,
	} {
		rs, err := metar.DecodeAll(text)
		require.NoError(t, err, text)
		assert.Len(t, rs, want, text)
		_, err = metar.Decode(text)
		assert.Equal(t, want > 1, err != nil, text)
	}
	_, err := metar.DecodeAll("   ")
	require.ErrorIs(t, err, metar.ErrReport)
}

func TestVicinityIsSaid(t *testing.T) {
	r := decode(t, "KZZT 101653Z 24003KT 10SM VCSH VCTS VCFG CLR 18/08 A3001")
	assert.Equal(t, []string{"VCSH", "VCFG"}, r.Vicinity())
	assert.Equal(t, []string{"VCTS"}, r.Hazards(), "a thunderstorm near here is one")
}
