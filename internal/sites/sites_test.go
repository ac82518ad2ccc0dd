package sites_test

import (
	"bytes"
	"context"
	"fmt"
	"math"
	"net/http/httptest"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/geo"
	"mainstay/core/intent"
	"mainstay/core/judge"
	"mainstay/core/site"
	"mainstay/core/sun"
	"mainstay/core/weather"
	"mainstay/internal/platform/fault"
	"mainstay/internal/platform/outside"
	"mainstay/internal/sites"
	standin "mainstay/internal/standins/weather"
	"mainstay/internal/testbed"
)

type bed struct {
	*testbed.Stage
	t     *testing.T
	ctx   context.Context
	site  sites.Site
	frame geo.Frame
}

func newBed(t *testing.T) *bed {
	s := testbed.NewStage(t)
	b := &bed{Stage: s, t: t, ctx: s.As(s.Pilot), site: sites.Site{ID: testbed.NewID(), Name: "Yard", Lat: 46.31,
		Lon: -119.70, ElevationM: new(210.0)}}
	require.NoError(t, s.Sites.Add(b.ctx, b.site))
	var err error
	b.frame, err = geo.NewFrame(b.site.Origin())
	require.NoError(t, err)
	require.NoError(t, s.Sites.PutTerrain(b.ctx, b.site.ID, "level.asc", 0, testbed.Level(b.site.Lat, b.site.Lon, 210)))
	return b
}

func (b *bed) at(x, y float64) geo.Point { return b.frame.Point(geo.XY{X: x, Y: y}) }

func (b *bed) put(f site.Feature, xy ...[2]float64) site.Feature {
	b.t.Helper()
	f.ID = testbed.NewID().String()
	for _, q := range xy {
		f.Places = append(f.Places, b.at(q[0], q[1]))
	}
	require.NoError(b.t, b.Sites.SaveFeature(b.ctx, b.site.ID, f, 0))
	return f
}

func (b *bed) file() sites.File {
	b.t.Helper()
	f, err := b.Sites.Get(b.ctx, b.site.ID, true)
	require.NoError(b.t, err)
	return f
}

func num(v float64) *float64 { return &v }

func TestSiteHeads(t *testing.T) {
	b := newBed(t)
	require.NoError(t, b.Sites.Add(b.ctx, b.site), "the same press twice is one site")
	other := b.site
	other.ID = testbed.NewID()
	assert.ErrorContains(t, b.Sites.Add(b.ctx, other), "Another site has this name")
	for field, change := range map[string]func(*sites.Site){"name": func(s *sites.Site) { s.Name = " " },
		"lat": func(s *sites.Site) { s.Lat, s.Lon = s.Lon, s.Lat }, "pole": func(s *sites.Site) { s.Lat = 89 }} {
		bad := other
		change(&bad)
		_, isFault := fault.As(b.Sites.Add(b.ctx, bad))
		assert.True(t, isFault, field)
	}
	head := b.site
	head.Note, head.Version = "Gate", 1
	require.NoError(t, b.Sites.Change(b.ctx, head))
	assert.True(t, fault.Is(b.Sites.Change(b.ctx, head), "stale"), "somebody changed it meanwhile")
	_, err := b.Sites.Get(b.ctx, testbed.NewID(), false)
	assert.True(t, fault.Is(err, "not-found"))
}

func TestFeaturesComeGoAndKeepTheirHistory(t *testing.T) {
	b := newBed(t)
	tree := b.put(site.Feature{Kind: site.Obstacle, Shape: site.Point, Name: "Oak", HeightM: num(15), SigmaM: 3,
		Measured: "estimate"}, [2]float64{20, 30})
	require.NoError(t, b.Sites.SaveFeature(b.ctx, b.site.ID, tree, 0), "the same press twice")
	better := tree
	better.HeightM, better.SigmaM, better.Measured = num(17.76), 0.84, "clinometer"
	require.NoError(t, b.Sites.SaveFeature(b.ctx, b.site.ID, better, 1))
	assert.True(t, fault.Is(b.Sites.SaveFeature(b.ctx, b.site.ID, better, 1), "stale"))
	got := b.file().Features
	require.Len(t, got, 1)
	require.Len(t, got[0].Heights, 1)
	assert.Equal(t, 15.0, *got[0].Heights[0].M)
	assert.Equal(t, "estimate", got[0].Heights[0].Measured)
	better.Name = "Oak by the gate"
	require.NoError(t, b.Sites.SaveFeature(b.ctx, b.site.ID, better, 2))
	assert.Len(t, b.file().Features[0].Heights, 1, "a new name is no new height")

	other := sites.Site{ID: testbed.NewID(), Name: "Other", Lat: 46.31, Lon: -119.70}
	require.NoError(t, b.Sites.Add(b.ctx, other))
	assert.True(t, fault.Is(b.Sites.SaveFeature(b.ctx, other.ID, tree, 0), "id-in-use"), "a feature belongs to one site")
	assert.Equal(t, "Oak by the gate", b.file().Features[0].Name)

	id := uuid.MustParse(tree.ID)
	require.NoError(t, b.Sites.RemoveFeature(b.ctx, b.site.ID, id))
	assert.Empty(t, b.file().Features)
	assert.Len(t, b.file().Removed, 1)
	require.NoError(t, b.Sites.RestoreFeature(b.ctx, b.site.ID, id))
	assert.Len(t, b.file().Features, 1)
	require.NoError(t, b.Sites.RemoveFeature(b.ctx, b.site.ID, id))
	b.Clock.Set(b.Clock.Now().Add(25 * time.Hour))
	assert.True(t, fault.Is(b.Sites.RestoreFeature(b.ctx, b.site.ID, id), "not-found"), "only within a day")

	bow := site.Feature{ID: testbed.NewID().String(), Kind: site.Work, Shape: site.Area, Name: "Bow",
		Places: []geo.Point{b.at(0, 0), b.at(50, 50), b.at(50, 0), b.at(0, 60)}}
	assert.ErrorContains(t, b.Sites.SaveFeature(b.ctx, b.site.ID, bow, 0), "crosses itself")
	bow.Places = bow.Places[:3]
	assert.True(t, fault.Is(b.Sites.SaveFeature(b.ctx, testbed.NewID(), bow, 0), "not-found"), "no such site")
}

func TestWayHomeFromTheMap(t *testing.T) {
	b := newBed(t)
	_, err := b.Sites.WayHome(b.ctx, b.site.ID, sites.Ask{})
	assert.ErrorContains(t, err, "take-off place and an area or a route")
	b.put(site.Feature{Kind: site.TakeOff, Shape: site.Point, Name: "Headland", Main: true, Free: []float64{90, 180}},
		[2]float64{0, 0})
	b.put(site.Feature{Kind: site.Work, Shape: site.Area, Name: "Yard"}, [2]float64{-80, 60}, [2]float64{80, 60},
		[2]float64{80, 160}, [2]float64{-80, 160})
	b.put(site.Feature{Kind: site.Obstacle, Shape: site.Point, Name: "Oak", HeightM: num(17.76), SigmaM: 0.84, BufferM: 5},
		[2]float64{-20, 30})
	w, err := b.Sites.WayHome(b.ctx, b.site.ID, sites.Ask{Aircraft: &b.Aircraft.ID,
		Flight: intent.Flight{ReturnM: num(20)}})
	require.NoError(t, err)
	assert.Equal(t, "Oak", w.Return.Decides)
	assert.InDelta(t, 19.44, w.Return.NeedM, 1e-6)
	assert.InDelta(t, 30, w.Return.HeightM, 1e-6)
	assert.Equal(t, judge.Stop, judge.Worst(w.Findings))
	assert.Contains(t, b.said(w, "return-height"), "Set it to 30 m")
	assert.Len(t, w.Route, 5, "round the whole outline")
	assert.NotEmpty(t, w.Profile.Steps)
	assert.Nil(t, w.Stand, "without wind nobody knows where to stand")
	for _, c := range []struct {
		from string
		ok   bool
	}{{"200", true}, {"330", false}} {
		require.NoError(t, b.Sites.AddWeather(b.ctx, b.site.ID,
			sites.NewWeather{ID: testbed.NewID(), Ground: "open", Report: "KZZT " + c.from + "06KT"}))
		w, err = b.Sites.WayHome(b.ctx, b.site.ID, sites.Ask{Flight: intent.Flight{ReturnM: num(30)}})
		require.NoError(t, err)
		require.NotNil(t, w.Stand)
		assert.InDelta(t, 10, geo.Distance(b.site.Origin(), *w.Stand), 0.1)
		assert.Equal(t, c.ok, w.Wind.OK, w.Wind.Reason)
	}
	assert.Contains(t, b.said(w, "direction"), "Only tailwind")

	b.put(site.Feature{Kind: site.Wires, Shape: site.Line, Name: "Road line", HeightM: num(11), SigmaM: 1, BufferM: 10},
		[2]float64{-60, 30}, [2]float64{10, 30})
	low := 5.0
	w, err = b.Sites.WayHome(b.ctx, b.site.ID, sites.Ask{Flight: intent.Flight{ReturnM: num(30), RouteM: &low}})
	require.NoError(t, err)
	assert.Contains(t, b.said(w, "path"),
		"From take-off to the start of the route: It meets the wires of Road line: no automatic start")
	require.Greater(t, len(w.WayRound), 2, "a way round is proposed")
	b.put(site.Feature{Kind: site.NoGo, Shape: site.Area, Name: "Paddock"}, [2]float64{-300, 20}, [2]float64{300, 20},
		[2]float64{300, 50}, [2]float64{-300, 50})
	w, err = b.Sites.WayHome(b.ctx, b.site.ID, sites.Ask{Flight: intent.Flight{ReturnM: num(30), RouteM: &low}})
	require.NoError(t, err)
	b.put(site.Feature{Kind: site.Obstacle, Shape: site.Point, Name: "Mast of unknown height"}, [2]float64{0, 40})
	w, err = b.Sites.WayHome(b.ctx, b.site.ID, sites.Ask{Flight: intent.Flight{ReturnM: num(30)}})
	require.NoError(t, err)
	assert.Equal(t, []string{"Mast of unknown height"}, w.Return.Unknown)
}

func grid(at geo.Point, f func(lat, lon float64) float64) string {
	var s strings.Builder
	const n, cell = 60, 0.0001
	fmt.Fprintf(&s, "ncols %d\nnrows %d\nxllcenter %.6f\nyllcenter %.6f\ncellsize %g\nnodata_value -9999\n", n, n,
		at.Lon-n/2*cell, at.Lat-n/2*cell, cell)
	for r := range n {
		for c := range n {
			fmt.Fprintf(&s, "%.2f ", f(at.Lat+(n/2-1-float64(r))*cell, at.Lon+(float64(c)-n/2)*cell))
		}
	}
	return s.String()
}

func TestTerrainLiftsTheWay(t *testing.T) {
	b := newBed(t)
	b.put(site.Feature{Kind: site.TakeOff, Shape: site.Point, Name: "Foot"}, [2]float64{0, 0})
	b.put(site.Feature{Kind: site.Route, Shape: site.Line, Name: "Up the hill"}, [2]float64{0, 80}, [2]float64{0, 160})
	hill := grid(b.site.Origin(), func(lat, _ float64) float64 { return 200 + math.Max(0, (lat-46.31)*111200/4) })
	require.NoError(t, b.Sites.PutTerrain(b.ctx, b.site.ID, "hill.asc", 0.5, strings.NewReader(hill)))
	w, err := b.Sites.WayHome(b.ctx, b.site.ID, sites.Ask{Flight: intent.Flight{ReturnM: num(60)}})
	require.NoError(t, err)
	assert.Equal(t, "the ground itself", w.Return.Decides)
	assert.InDelta(t, 40+1, w.Return.NeedM, 5)
	assert.Equal(t, 3600, b.file().Terrain.Columns*b.file().Terrain.Rows)
	assert.ErrorContains(t, b.Sites.PutTerrain(b.ctx, b.site.ID, "x.asc", 1, strings.NewReader("hello")),
		"The terrain cannot be used")
	away := grid(geo.Point{Lat: 40, Lon: -100}, func(_, _ float64) float64 { return 1 })
	assert.ErrorContains(t, b.Sites.PutTerrain(b.ctx, b.site.ID, "x.asc", 1, strings.NewReader(away)),
		"does not reach the site")
}

func TestFilesInAndOut(t *testing.T) {
	b := newBed(t)
	b.put(site.Feature{Kind: site.Work, Shape: site.Area, Name: "Yard",
		Holes: [][]geo.Point{{b.at(10, 2), b.at(20, 2), b.at(20, 10)}}}, [2]float64{0, 0}, [2]float64{80, 0}, [2]float64{80,
		60})
	b.put(site.Feature{Kind: site.Obstacle, Shape: site.Point, Name: "Oak", HeightM: num(17.76), SigmaM: 0.84},
		[2]float64{-20, 30})
	other := sites.Site{ID: testbed.NewID(), Name: "Other", Lat: 46.31, Lon: -119.70}
	require.NoError(t, b.Sites.Add(b.ctx, other))
	for _, format := range []string{"geojson", "kml", "gpx", "csv"} {
		var out bytes.Buffer
		require.NoError(t, b.Sites.Export(b.ctx, b.site.ID, format, &out))
		again, err := b.Sites.Import(b.ctx, b.site.ID, format, bytes.NewReader(out.Bytes()))
		require.NoError(t, err, format)
		if format == "gpx" { // it knows no holes
			assert.Equal(t, 1, again.Unchanged)
			assert.Contains(t, again.Refused[0].Sentence, "on file with other values")
			continue
		}
		assert.Equal(t, 2, again.Unchanged, "%s: the same file twice changes nothing", format)
		assert.Empty(t, again.Refused, format)
		fresh := strings.NewReplacer(b.file().Features[0].ID, testbed.NewID().String(), b.file().Features[1].ID,
			testbed.NewID().String()).Replace(out.String())
		rep, err := b.Sites.Import(b.ctx, other.ID, format, strings.NewReader(fresh))
		require.NoError(t, err)
		assert.Equal(t, 2, rep.Accepted, format)
	}
	rep, err := b.Sites.Import(b.ctx, other.ID, "csv",
		strings.NewReader("lat,lon,name\n46.3,-119.7,Good\n-119.7,46.3,Swapped\n"))
	require.NoError(t, err)
	assert.Equal(t, 1, rep.Accepted)
	assert.Contains(t, rep.Refused[0].Sentence, "Feature 3 (Swapped): latitude -119.7 is over 90")
	_, err = b.Sites.Import(b.ctx, b.site.ID, "kml", strings.NewReader("<html>"))
	assert.ErrorContains(t, err, "Nothing was saved")
	_, err = b.Sites.Import(b.ctx, testbed.NewID(), "csv", strings.NewReader("lat,lon\n46.3,-119.7\n"))
	assert.True(t, fault.Is(err, "not-found"))
}

func TestWeatherByReportHandAndService(t *testing.T) {
	b := newBed(t)
	ask := sites.AskSky{Aircraft: &b.Aircraft.ID, Work: weather.Inspection, Ground: "open"}
	s, err := b.Sites.SkyOver(b.ctx, b.site.ID, ask)
	require.NoError(t, err)
	assert.Nil(t, s.Latest)
	assert.Equal(t, judge.Stop, judge.Worst(s.Findings), "no weather is never clear")
	assert.Equal(t, "No weather service is connected.", s.NoHours)
	assert.Equal(t, sun.Normal, s.Sun.Kind)

	now := b.Clock.Now().UTC()
	require.NoError(t, b.Sites.AddWeather(b.ctx, b.site.ID,
		sites.NewWeather{ID: testbed.NewID(), Ground: "open", StationM: num(225), StationKm: num(12),
			Report: "METAR KZZT " + now.Format("021504") + "Z 24006KT 10SM FEW060 18/08 A3001 FOO"}))
	s, err = b.Sites.SkyOver(b.ctx, b.site.ID, ask)
	require.NoError(t, err)
	assert.Equal(t, judge.Stop, judge.Worst(s.Findings), "what cannot be read may be cloud or weather: %+v", s.Findings)
	assert.Equal(t, "FOO", s.Report.Bad[0].Group)
	b.Clock.Advance(time.Minute)
	require.NoError(t, b.Sites.AddWeather(b.ctx, b.site.ID,
		sites.NewWeather{ID: testbed.NewID(), Ground: "open", StationM: num(225), StationKm: num(12),
			Report: "METAR KZZT " + now.Add(time.Minute).Format("021504") + "Z 24006KT 10SM FEW060 18/08 A3001"}))
	s, err = b.Sites.SkyOver(b.ctx, b.site.ID, ask)
	require.NoError(t, err)
	assert.Equal(t, judge.Clear, judge.Worst(s.Findings), "%+v", s.Findings)
	require.NoError(t, b.Sites.AddWeather(b.ctx, b.site.ID,
		sites.NewWeather{ID: testbed.NewID(), Ground: "open", StationM: num(225), StationKm: num(12),
			Report: "METAR KZZT " + now.Add(-20*time.Minute).Format("021504") + "Z 24036G45KT 1/4SM FG"}))
	s, err = b.Sites.SkyOver(b.ctx, b.site.ID, ask)
	require.NoError(t, err)
	assert.Equal(t, judge.Clear, judge.Worst(s.Findings), "what is entered later is not fresher")
	assert.ErrorContains(t, b.Sites.AddWeather(b.ctx, b.site.ID,
		sites.NewWeather{ID: testbed.NewID(), Ground: "open",
			Report: "METAR KZZT " + now.Add(20*time.Minute).Format("021504") + "Z CAVOK"}), "dated in the future")
	nobody, err := b.Sites.SkyOver(b.ctx, b.site.ID, sites.AskSky{Work: weather.Inspection, Ground: "open"})
	require.NoError(t, err)
	assert.Equal(t, judge.Watch, judge.Worst(nobody.Findings), "the limits of no aircraft are never clear")
	assert.InDelta(t, 3.09, *s.Latest.Air.WindMS, 0.01)
	b.Clock.Set(now.Add(90 * time.Minute))
	s, err = b.Sites.SkyOver(b.ctx, b.site.ID, ask)
	require.NoError(t, err)
	assert.Equal(t, judge.Stop, judge.Worst(s.Findings), "an hour and a half old")

	for _, bad := range []string{"", "it is windy", "METAR KZZT 101630Z NIL"} {
		assert.Error(t, b.Sites.AddWeather(b.ctx, b.site.ID,
			sites.NewWeather{ID: testbed.NewID(), Ground: "open", Report: bad}))
	}
	hand := weather.Air{At: b.Clock.Now(), WindMS: num(2), WindHeightM: 2, Ground: "crops", TempC: num(20), DewC: num(10),
		QNH: num(1015), VisibilityM: num(16000), CloudKnown: true}
	once := testbed.NewID()
	for range 2 {
		require.NoError(t, b.Sites.AddWeather(b.ctx, b.site.ID, sites.NewWeather{ID: once, Hand: &hand}))
	}
	s, err = b.Sites.SkyOver(b.ctx, b.site.ID, ask)
	require.NoError(t, err)
	assert.Equal(t, "hand", s.Latest.Air.Source)
	hand.At = b.Clock.Now().Add(time.Hour)
	assert.ErrorContains(t, b.Sites.AddWeather(b.ctx, b.site.ID, sites.NewWeather{ID: testbed.NewID(), Hand: &hand}),
		"future")
	assert.True(t, fault.Is(b.Sites.AddWeather(b.ctx, testbed.NewID(),
		sites.NewWeather{ID: testbed.NewID(), Report: "KZZT 24006KT"}), "not-found"))

	device := standin.New(b.Clock.Now)
	srv := httptest.NewServer(device)
	defer srv.Close()
	b.Sites.Weather = outside.New(srv.URL, "")
	b.Clock.Advance(30 * time.Minute)
	require.NoError(t, b.Sites.FetchWeather(b.ctx, b.site.ID, testbed.NewID(), "crops"))
	s, err = b.Sites.SkyOver(b.ctx, b.site.ID, ask)
	require.NoError(t, err)
	assert.Empty(t, s.About)
	assert.InDelta(t, 6, *s.Latest.Air.StationKm, 1)
	assert.Equal(t, 225.0, *s.Latest.Air.StationM)
	require.Len(t, s.Hours, 36)
	var stop, clear int
	for _, h := range s.Hours {
		if h.Verdict == judge.Stop {
			stop++
		}
		if h.Verdict == judge.Clear {
			clear++
			assert.Equal(t, sun.Daylight, h.Light)
		}
	}
	assert.Zero(t, stop)
	assert.NotZero(t, clear)
	ask.Work = weather.Spraying
	for scenario, word := range map[string]string{standin.Heat: "Delta T", standin.Front: "rain",
		standin.Inversion: "inversion", standin.Gusty: "the limit is", standin.Fog: "3 statute miles"} {
		require.NoError(t, device.Set(standin.Faults{Scenario: scenario}))
		s, err = b.Sites.SkyOver(b.ctx, b.site.ID, ask)
		require.NoError(t, err)
		var all string
		for _, h := range s.Hours {
			all += h.Why + "\n"
		}
		assert.Contains(t, all, word, scenario)
	}
	for word, f := range map[string]standin.Faults{"does not answer": {Unreachable: true},
		"cannot be read": {Nonsense: true}} {
		require.NoError(t, device.Set(f))
		assert.ErrorContains(t, b.Sites.FetchWeather(b.ctx, b.site.ID, testbed.NewID(), "crops"), word)
		s, err = b.Sites.SkyOver(b.ctx, b.site.ID, ask)
		require.NoError(t, err)
		assert.NotEmpty(t, s.NoHours)
	}
	b.Clock.Advance(30 * time.Minute)
	require.NoError(t, device.Set(standin.Faults{Stale: true}))
	require.NoError(t, b.Sites.FetchWeather(b.ctx, b.site.ID, testbed.NewID(), "crops"))
	require.NoError(t, device.Set(standin.Faults{Garbled: true}))
	require.NoError(t, b.Sites.FetchWeather(b.ctx, b.site.ID, testbed.NewID(), "crops"))
	s, err = b.Sites.SkyOver(b.ctx, b.site.ID, ask)
	require.NoError(t, err)
	assert.Len(t, s.Report.Bad, 2, "%+v", s.Report.Bad)
	assert.Equal(t, judge.Stop, judge.Worst(s.Findings))
	assert.Error(t, device.Set(standin.Faults{Scenario: "hail"}))
}

// A site may begin without its elevation: the terrain says it, and what somebody
// entered stays.
func TestElevationFromTheTerrain(t *testing.T) {
	b := newBed(t)
	fresh := sites.Site{ID: testbed.NewID(), Name: "New field", Lat: 46.31, Lon: -119.70}
	require.NoError(t, b.Sites.Add(b.ctx, fresh))
	read := func(id uuid.UUID) sites.Site {
		got, err := b.Sites.Get(b.ctx, id, false)
		require.NoError(t, err)
		return got.Site
	}
	require.Nil(t, read(fresh.ID).ElevationM)
	_, err := b.Sites.SkyOver(b.ctx, fresh.ID, sites.AskSky{Work: weather.Spraying, Ground: "crops"})
	require.NoError(t, err)
	require.NoError(t, b.Sites.PutTerrain(b.ctx, fresh.ID, "level.asc", 0, testbed.Level(46.31, -119.70, 187.26)))
	assert.InDelta(t, 187.3, *read(fresh.ID).ElevationM, 0.051)
	require.NoError(t, b.Sites.PutTerrain(b.ctx, b.site.ID, "level.asc", 0, testbed.Level(46.31, -119.70, 187.26)))
	assert.InDelta(t, 210, *read(b.site.ID).ElevationM, 1e-9, "what somebody entered stays")
	head := read(b.site.ID)
	head.ElevationM = nil
	require.NoError(t, b.Sites.Change(b.ctx, head))
	assert.InDelta(t, 187.3, *read(b.site.ID).ElevationM, 0.051, "left out it is that of the terrain")
	assert.Error(t, b.Sites.Add(b.ctx, sites.Site{ID: testbed.NewID(), Name: "Moon", Lat: 46, Lon: -119,
		ElevationM: new(9000.0)}))
}
