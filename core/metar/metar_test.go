package metar_test

import (
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/judge"
	"mainstay/core/metar"
)

func decode(t *testing.T, s string) metar.Report {
	t.Helper()
	r, err := metar.Decode(s)
	require.NoError(t, err)
	return r
}

// The example of the WMO Manual on Codes and ICAO Annex 3.
func TestExampleOfTheManualOnCodes(t *testing.T) {
	r := decode(t, "METAR YUDO 221630Z 24008MPS 0600 R12/1000U DZ FG SCT010 OVC020 17/16 Q1018 BECMG TL1700 0800 FG BECMG AT1800 9999 NSW=")
	assert.Empty(t, r.Bad)
	assert.Equal(t, "YUDO", r.Station)
	assert.Equal(t, 240, *r.Wind.Direction)
	assert.Equal(t, 8.0, *r.Wind.SpeedMS)
	assert.Equal(t, 600.0, *r.VisibilityM)
	assert.Equal(t, []string{"R12/1000U"}, r.RVR)
	assert.Equal(t, []string{"DZ", "FG"}, r.Weather)
	ceiling, known := r.Ceiling()
	assert.True(t, known)
	assert.Equal(t, 2000, *ceiling)
	base, _ := r.LowestBase()
	assert.Equal(t, 1000, *base)
	assert.Equal(t, 17.0, *r.Temperature)
	assert.Equal(t, 16.0, *r.DewPoint)
	assert.Equal(t, 1018.0, *r.QNH)
	assert.Equal(t, "BECMG TL1700 0800 FG BECMG AT1800 9999 NSW", r.Trend)
	at, ok := r.At(time.Date(2026, 6, 23, 0, 0, 0, 0, time.UTC))
	assert.True(t, ok)
	assert.Equal(t, time.Date(2026, 6, 22, 16, 30, 0, 0, time.UTC), at)
}

// The example of the US handbook FMH-1.
func TestExampleOfTheUSHandbook(t *testing.T) {
	r := decode(t, "METAR KABC 121755Z AUTO 21016G24KT 180V240 1SM R11/P6000FT -RA BR BKN015 OVC025 06/04 A2990 RMK AO2 PK WND 20032/25 WSHFT 1715")
	assert.Empty(t, r.Bad)
	assert.True(t, r.Auto)
	assert.InDelta(t, 8.23, *r.Wind.SpeedMS, 0.005)
	assert.InDelta(t, 12.35, *r.Wind.GustMS, 0.005)
	assert.Equal(t, 180, *r.Wind.From)
	assert.Equal(t, 240, *r.Wind.To)
	assert.Equal(t, 1609.344, *r.VisibilityM)
	assert.InDelta(t, 1012.53, *r.QNH, 0.01)
	assert.Equal(t, "AO2 PK WND 20032/25 WSHFT 1715", r.Remarks)
	assert.Equal(t, []string{"-RA"}, r.Hazards())
	ceiling, _ := r.Ceiling()
	assert.Equal(t, 1500, *ceiling)
}

func TestGroupsOneByOne(t *testing.T) {
	vis := func(s string) float64 { return *decode(t, "KABC "+s).VisibilityM }
	assert.InDelta(t, 1.75*1609.344, vis("1 3/4SM"), 1e-9)
	assert.InDelta(t, 0.25*1609.344, vis("M1/4SM"), 1e-9)
	assert.InDelta(t, 6*1609.344, vis("P6SM"), 1e-9)
	assert.Equal(t, 10000.0, vis("9999"))
	assert.Equal(t, 10000.0, vis("CAVOK"))
	assert.Equal(t, 800.0, vis("1500 0800NE"), "the lowest of the directions counts")
	assert.Equal(t, 1500.0, vis("1500 4000NE"))
	assert.Equal(t, 3000.0, vis("3000NDV"))
	calm := decode(t, "KABC 00000KT")
	assert.Nil(t, calm.Wind.Direction)
	assert.Zero(t, *calm.Wind.SpeedMS)
	assert.True(t, decode(t, "KABC VRB03KT").Wind.Variable)
	assert.Equal(t, 0, *decode(t, "KABC 36005KT").Wind.Direction)
	cold := decode(t, "COR SPECI KABC 010000Z M05/M12")
	assert.Equal(t, -5.0, *cold.Temperature)
	assert.Equal(t, -12.0, *cold.DewPoint)
	assert.Equal(t, "SPECI", cold.Kind)
	assert.True(t, cold.Corrected)
	assert.True(t, decode(t, "METAR KABC 010000Z COR 01005KT").Corrected)
	assert.True(t, decode(t, "METAR KABC 010000Z NIL=").Nil)
	assert.Equal(t, []string{"WS ALL RWY"}, decode(t, "KABC WS ALL RWY").WindShear)
	assert.Equal(t, []string{"WS R03"}, decode(t, "KABC WS R03 NOSIG").WindShear)
	w := decode(t, "KABC VCTS RERA +TSRAGR FZFG FEW030CB")
	assert.Equal(t, []string{"VCTS", "RERA", "+TSRAGR", "FZFG"}, w.Weather)
	assert.Equal(t, []string{"VCTS", "+TSRAGR", "FZFG", "FEW CB"}, w.Hazards(), "recent rain is over")
	vv := decode(t, "KABC VV002")
	c, _ := vv.Ceiling()
	assert.Equal(t, 200, *c)
}

func TestUnknownIsNotBadAndBadIsNamed(t *testing.T) {
	r := decode(t, "METAR KABC 121755Z AUTO /////KT //// // ////// ///// Q////")
	assert.Empty(t, r.Bad)
	assert.Nil(t, r.Wind.SpeedMS)
	assert.Nil(t, r.VisibilityM)
	assert.Nil(t, r.QNH)
	_, known := r.Ceiling()
	assert.False(t, known)

	r = decode(t, "METAR KABC 321755Z 37010KT 99SM FOO BKNXXX OVC020 45/46 Q2000 20/10 Q1010")
	var groups []string
	for _, b := range r.Bad {
		groups = append(groups, b.Group)
	}
	assert.Equal(t, []string{"321755Z", "37010KT", "FOO", "BKNXXX", "45/46", "Q2000"}, groups)
	assert.Equal(t, 20.0, *r.Temperature, "the rest still decodes")
	assert.Equal(t, 1010.0, *r.QNH)
	_, known = r.Ceiling()
	assert.False(t, known, "a bad sky group makes the ceiling unknown")
	_, ok := r.At(time.Date(2026, 6, 10, 12, 0, 0, 0, time.UTC))
	assert.False(t, ok)
	assert.Len(t, decode(t, "KABC 20015G10KT").Bad, 1)
	for _, s := range []string{"", "METAR", "hello there", "KABC", strings.Repeat("A", 3000)} {
		_, err := metar.Decode(s)
		assert.ErrorIs(t, err, metar.ErrReport, s)
	}
}

func TestLightForMapping(t *testing.T) {
	for s, want := range map[string]judge.Verdict{"OVC030": judge.Clear, "FEW040 OVC200": judge.Clear,
		"SCT040": judge.Watch, "FEW040 BKN100": judge.Watch, "FEW040": judge.Clear, "CLR": judge.Clear, "SKC": judge.Clear,
		"NSC": judge.Watch, "CAVOK": judge.Watch, "//////": judge.Watch, "10/05": judge.Watch} {
		v, words := decode(t, "KABC 121755Z "+s).Light()
		assert.Equal(t, want, v, "%s: %s", s, words)
	}
}

func TestTimeOverTheTurnOfTheMonth(t *testing.T) {
	r := decode(t, "KABC 312350Z 01005KT")
	at, ok := r.At(time.Date(2026, 3, 1, 0, 20, 0, 0, time.UTC))
	assert.True(t, ok)
	assert.Equal(t, time.Date(2026, 1, 31, 23, 50, 0, 0, time.UTC), at, "February has no such day")
	at, _ = decode(t, "KABC 010010Z 01005KT").At(time.Date(2026, 2, 28, 23, 59, 0, 0, time.UTC))
	assert.Equal(t, time.Date(2026, 3, 1, 0, 10, 0, 0, time.UTC), at, "a clock may be a little behind")
}

func FuzzDecode(f *testing.F) {
	f.Add("METAR YUDO 221630Z 24008MPS 0600 R12/1000U DZ FG SCT010 OVC020 17/16 Q1018 BECMG TL1700")
	f.Add("KABC 121755Z 1 3/4SM WS ALL")
	f.Fuzz(func(t *testing.T, s string) {
		r, err := metar.Decode(s)
		if err != nil {
			return
		}
		again, err := metar.Decode(r.Raw)
		require.NoError(t, err)
		assert.Equal(t, r, again, "what was read reads the same again")
		r.Light()
		r.Hazards()
		r.At(time.Date(2026, 6, 10, 12, 0, 0, 0, time.UTC))
	})
}
