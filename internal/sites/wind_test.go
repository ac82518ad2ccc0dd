package sites_test

import (
	"fmt"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/intent"
	"mainstay/core/judge"
	"mainstay/core/practice"
	"mainstay/core/site"
	"mainstay/core/wayhome"
	"mainstay/core/weather"
	"mainstay/internal/fleet"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
	"mainstay/internal/sites"
	"mainstay/internal/testbed"
)

// north is a site whose work lies 300 m north of the take-off place.
func north(t *testing.T, free ...float64) *bed {
	b := newBed(t)
	b.put(site.Feature{Kind: site.TakeOff, Shape: site.Point, Name: "Start", Main: true, Free: free}, [2]float64{0, 0})
	b.put(site.Feature{Kind: site.Route, Shape: site.Line, Name: "Line"}, [2]float64{0, 20}, [2]float64{0, 300})
	return b
}

func (b *bed) report(wind string) {
	b.t.Helper()
	require.NoError(b.t, b.Sites.AddWeather(b.ctx, b.site.ID,
		sites.NewWeather{ID: testbed.NewID(), Ground: "open", StationM: num(225), StationKm: num(12),
			Report: "KZZT " + b.Clock.Now().UTC().Format("021504") + "Z " + wind + " 10SM FEW060 18/08 A3001"}))
}

func (b *bed) of(kind string) *uuid.UUID {
	b.t.Helper()
	a := fleet.NewAircraft{ID: testbed.NewID(), TypeKey: kind, Name: "Of " + kind, Serial: "S-" + kind}
	_, err := b.Fleet.AddAircraft(b.As(b.Chief), a)
	require.NoError(b.t, err)
	return &a.ID
}

func (b *bed) said(w wayhome.Answer, rule judge.Rule) string {
	out := ""
	for _, f := range w.Findings {
		if f.Rule == rule {
			out += f.Verdict.String() + ": " + f.Sentence
		}
	}
	return out
}

// The way home against the wind: the steady wind tells the time, the gust tells
// whether it comes home at all. The aircraft flies 15 m/s; 10 kt at 10 m over
// open ground are 5.14 m/s, and at 30 m 5.14 x 3^0.14 = 6.00 m/s.
func TestComesHomeAgainstTheWind(t *testing.T) {
	b := north(t)
	for _, x := range []struct {
		wind, says string
		speed      float64 // over the ground, in the steady wind
	}{
		{"00000KT", "", 15},
		{"18010KT", "", 15 - 6.00}, // from the south: home is into it
		{"36010KT", "", 15 + 6.00}, // from behind
		{"27010KT", "", 13.75},     // across: sqrt(15^2 - 6.00^2)
		{"VRB10KT", "", 15 - 6.00}, // from anywhere: the worst counts
		{"18010G20KT", "watch: In gusts of 12.0 m/s at 30 m only 3.0 m/s over the ground are left", 9},
		{"18012G30KT", "stop: In gusts of 18.0 m/s at 30 m it does not come home", 15 - 7.20},
		// no crosswind of 18 m/s can be held either
		{"09012G30KT", "stop: In gusts of 18.0 m/s at 30 m it does not come home", 13.16},
	} {
		b.report(x.wind)
		w, err := b.Sites.WayHome(b.ctx, b.site.ID, sites.Ask{Aircraft: &b.Aircraft.ID,
			Flight: intent.Flight{ReturnM: num(30)}})
		require.NoError(t, err)
		require.NotNil(t, w.HomeSpeedMS, x.wind)
		assert.InDelta(t, x.speed, *w.HomeSpeedMS, 0.02, x.wind)
		if x.says == "" {
			assert.Empty(t, b.said(w, "home-wind"), x.wind)
		}
		assert.Contains(t, b.said(w, "home-wind"), x.says, x.wind)
		assert.InDelta(t, 300, w.FarM, 0.1)
	}
}

// What the crew keeps over the highest thing is its own choice; it counts at
// once, and who changed it is on record.
func TestMarginOfTheCrew(t *testing.T) {
	b := north(t)
	b.put(site.Feature{Kind: site.Obstacle, Shape: site.Point, Name: "Poplar", HeightM: num(60)}, [2]float64{0, 150})
	for _, x := range []struct{ m, percent, height float64 }{{10, 20, 75}, {30, 0, 90}, {5, 0, 65}, {10, 50, 90}} {
		require.NoError(t, b.Practices.Choose(b.As(b.Chief), practice.ReturnMargin,
			practice.Choice{School: "larger", Numbers: map[string]float64{"m": x.m, "percent": x.percent}}, "our trees",
			crewVersion(b)))
		w, err := b.Sites.WayHome(b.ctx, b.site.ID, sites.Ask{})
		require.NoError(t, err)
		assert.Equal(t, x.height, w.Return.HeightM, "60 m, %g m or %g %%", x.m, x.percent)
	}
	var by, said string
	require.NoError(t, b.DB.Raw("select by_name, summary from records where kind = 'practice-chosen' order by seq desc limit 1").Row().Scan(&by,
		&said))
	assert.Equal(t, b.Chief.Named(), by)
	assert.Contains(t, said, "How much is kept over the highest thing on the way home?")
	res, err := records.Verify(b.ctx, b.DB, records.Check{})
	require.NoError(t, err)
	assert.Zero(t, res.FirstBad)
}

// A wing starts and lands into the wind on a free heading; a multirotor turns
// where it stands.
func TestHeadingsCountForWings(t *testing.T) {
	b := north(t, 90)
	wing, multi := b.of("tally-w"), &b.Aircraft.ID
	ask := func(craft *uuid.UUID) wayhome.Answer {
		w, err := b.Sites.WayHome(b.ctx, b.site.ID, sites.Ask{Aircraft: craft, Flight: intent.Flight{ReturnM: num(60)}})
		require.NoError(t, err)
		return w
	}
	b.report("10008KT")
	assert.True(t, ask(wing).Wind.OK)
	assert.Nil(t, ask(multi).Wind)
	b.report("27008KT")
	assert.Contains(t, b.said(ask(wing), "direction"), "stop: Start and landing: Only tailwind")
	assert.Empty(t, b.said(ask(multi), "direction"))
	assert.Contains(t, b.said(ask(nil), "direction"), "watch: Start and landing of a wing")
	bare := north(t)
	bare.report("27008KT")
	w, err := bare.Sites.WayHome(bare.ctx, bare.site.ID, sites.Ask{Aircraft: bare.of("tally-v"),
		Flight: intent.Flight{ReturnM: num(60)}})
	require.NoError(t, err)
	assert.Contains(t, bare.said(w, "sector"), "stop: Which headings are free", "unknown is never good")
	for text, says := range map[string]string{"00000KT": "",
		"VRB03KT": "stop: Start and landing: the wind has no known direction",
		"VRB12KT": "stop: Start and landing: gusts of 8.6 m/s from no known direction are over the crosswind limit of 6.0"} {
		b.report(text)
		if said := b.said(ask(wing), "direction"); says == "" {
			assert.NotContains(t, said, "no known direction", text)
		} else {
			assert.Contains(t, said, says, text)
		}
		assert.Empty(t, b.said(ask(multi), "direction"), text)
	}
}

// A heading that was charted as free is held against what else is charted: the
// wing climbs 5 m and comes down 3 m while it flies 22 m.
func TestSectorsOfAWing(t *testing.T) {
	b := north(t, 90, 270)
	wing, vertical := b.of("tally-w"), b.of("tally-v")
	ask := func(craft *uuid.UUID) wayhome.Answer {
		w, err := b.Sites.WayHome(b.ctx, b.site.ID, sites.Ask{Aircraft: craft, Flight: intent.Flight{ReturnM: num(60)}})
		require.NoError(t, err)
		return w
	}
	assert.True(t, ask(wing).Sectored)
	assert.Equal(t, []float64{90, 270}, ask(wing).Clear)
	b.report("08008KT")
	assert.Equal(t, 90.0, ask(wing).Wind.Heading)
	b.put(site.Feature{Kind: site.Obstacle, Shape: site.Point, Name: "Barn", HeightM: num(20)}, [2]float64{120, 0})
	w := ask(wing)
	assert.Contains(t, b.said(w, "sector"),
		"watch: Heading 090 is not free for climb-out: Barn reaches 20 m, 115 m away, where the path is at 26 m.")
	assert.Contains(t, b.said(w, "sector"),
		"watch: Heading 270 is not free for the approach: Barn reaches 20 m, 115 m away, where the path is at 16 m.")
	assert.Contains(t, b.said(w, "sector"), "stop: No heading is free")
	assert.Nil(t, w.Wind)
	assert.Equal(t, []float64{90, 270}, ask(vertical).Clear, "it is 20 m up before it flies forward")
	assert.Empty(t, b.said(ask(&b.Aircraft.ID), "sector"))
	b.put(site.Feature{Kind: site.Obstacle, Shape: site.Point, Name: "Mast"}, [2]float64{-120, 5})
	assert.Contains(t, b.said(ask(vertical), "sector"), "Mast of unknown height stands 115 m away")
}

// An estimate by eye is a range: its upper end is held against the limits, its
// lower end against the calm that hides an inversion.
func TestWindByEye(t *testing.T) {
	b := north(t)
	eye := func(class int) sites.Sky {
		hand := weather.Air{At: b.Clock.Now(), Ground: "crops", Beaufort: &class, TempC: num(20), DewC: num(12),
			QNH: num(1013), VisibilityM: num(10000), CloudKnown: true, WeatherKnown: true, FromDeg: num(240)}
		require.NoError(t, b.Sites.AddWeather(b.ctx, b.site.ID,
			sites.NewWeather{ID: testbed.NewID(), Ground: "crops", Hand: &hand}))
		s, err := b.Sites.SkyOver(b.ctx, b.site.ID, sites.AskSky{Aircraft: &b.Aircraft.ID, Work: weather.Spraying,
			Ground: "crops"})
		require.NoError(t, err)
		return s
	}
	said := func(s sites.Sky) string { return fmt.Sprintf("%+v", s.Findings) }
	s := eye(2)
	assert.InDelta(t, 3.4, *s.Latest.Air.WindMS, 1e-9)
	assert.Contains(t, said(s), "estimated by eye: Beaufort 2, 1.6 to 3.4 m/s")
	assert.NotContains(t, said(s), "dead calm")
	assert.Contains(t, said(eye(1)), "is under 1.0: dead calm hides an inversion.")
	assert.Contains(t, said(eye(3)), "over 4.5: spray drifts.")
	assert.Contains(t, said(eye(12)), "Wind", "and is over every limit")
	assert.Equal(t, judge.Stop, judge.Worst(eye(12).Findings))
}

func TestReadingsThatContradictEachOther(t *testing.T) {
	b := north(t)
	two := 2
	for field, a := range map[string]weather.Air{
		"beaufort":         {Beaufort: &two, WindMS: num(3)},
		"gust_ms":          {WindMS: num(5), GustMS: num(4)},
		"dew_c":            {TempC: num(10), DewC: num(11)},
		"at":               {At: b.Clock.Now().Add(time.Hour)},
		"humidity_percent": {Humidity: num(50)},
	} {
		if a.At.IsZero() {
			a.At = b.Clock.Now()
		}
		a.WindHeightM, a.Ground = 2, "open"
		err := b.Sites.AddWeather(b.ctx, b.site.ID, sites.NewWeather{ID: testbed.NewID(), Hand: &a})
		f, ok := fault.As(err)
		require.True(t, ok, "%s: %v", field, err)
		assert.Equal(t, field, f.Fields[0].Field)
	}
	dry := weather.Air{At: b.Clock.Now(), WindHeightM: 2, Ground: "open", TempC: num(25), Humidity: num(50),
		QNH: num(1013.25)}
	require.NoError(t, b.Sites.AddWeather(b.ctx, b.site.ID, sites.NewWeather{ID: testbed.NewID(), Hand: &dry}))
	s, err := b.Sites.SkyOver(b.ctx, b.site.ID, sites.AskSky{Work: weather.Spraying, Ground: "open"})
	require.NoError(t, err)
	assert.InDelta(t, 13.9, *s.Latest.Air.DewC, 0.1, "a psychrometric chart gives 13.9 degC for 25 degC and 50 %")
	assert.InDelta(t, 50, *s.Latest.HumidityPercent, 1e-6)
	lone := weather.Air{At: b.Clock.Now(), GustMS: num(4), WindHeightM: 2, Ground: "open"}
	assert.ErrorContains(t, b.Sites.AddWeather(b.ctx, b.site.ID, sites.NewWeather{ID: testbed.NewID(), Hand: &lone}),
		"must be entered too")
}

// crewVersion is the version of the crew's settings now.
func crewVersion(b *bed) int {
	c, _, err := b.People.Crew(b.ctx)
	require.NoError(b.t, err)
	return c.Version
}
