package sites_test

import (
	"bytes"
	"context"
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/geo"
	"mainstay/core/intent"
	"mainstay/core/judge"
	"mainstay/core/site"
	"mainstay/core/weather"
	"mainstay/internal/platform/fault"
	"mainstay/internal/sites"
	"mainstay/internal/testbed"
)

// bomb is XML whose entities would grow without end.
const bomb = `<?xml version="1.0"?><!DOCTYPE k [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;&a;&a;&a;&a;&a;&a;"><!ENTITY c "&b;&b;&b;&b;&b;&b;&b;&b;&b;&b;"><!ENTITY d "&c;&c;&c;&c;&c;&c;&c;&c;&c;&c;">]>`

// Files that no reader can use end in a sentence, soon, and save nothing.
func TestFilesThatAreRefusedWhole(t *testing.T) {
	b := newBed(t)
	deep := strings.Repeat("[", 200_000)
	for name, x := range map[string]struct{ format, file string }{
		"empty geojson": {"geojson", ""},
		"not json":      {"geojson", "PK\x03\x04\x00\x00"},
		"cut off":       {"geojson", `{"type":"FeatureCollection","features":[{"type":"Feature"`},
		"deep json":     {"geojson", `{"type":"FeatureCollection","features":` + deep},
		"a number":      {"geojson", "12"},
		"other datum": {"geojson",
			`{"type":"FeatureCollection","crs":{"type":"name","properties":{"name":"urn:ogc:def:crs:EPSG::26711"}},"features":[]}`},
		"empty kml":       {"kml", ""},
		"kml bomb":        {"kml", bomb + `<kml><Placemark><name>&d;</name></Placemark></kml>`},
		"kml cut off":     {"kml", "<kml><Document><Placemark>"},
		"deep kml":        {"kml", "<kml>" + strings.Repeat("<Folder>", 50_000)},
		"another xml":     {"kml", "<svg></svg>"},
		"gpx bomb":        {"gpx", bomb + `<gpx><wpt lat="46.31" lon="-119.7"><name>&d;</name></wpt></gpx>`},
		"gpx is kml":      {"gpx", "<kml></kml>"},
		"empty csv":       {"csv", ""},
		"csv of others":   {"csv", "date;pilot\n2026-01-01;Imre\n"},
		"csv not text":    {"csv", "\x00\x01\x02"},
		"unknown form":    {"shp", "x"},
		"nothing to read": {"", "x"},
	} {
		start := time.Now()
		_, err := b.Sites.Import(b.ctx, b.site.ID, x.format, strings.NewReader(x.file))
		_, sentence := fault.As(err)
		assert.True(t, sentence, "%s: %v", name, err)
		assert.Less(t, time.Since(start), 5*time.Second, name)
	}
	assert.Empty(t, b.file().Features)
}

// One wrong feature is named, and the right ones beside it count.
func TestWrongFeaturesAreNamedAndTheOthersCount(t *testing.T) {
	b := newBed(t)
	feature := func(geometry, properties string) string {
		return `{"type":"Feature","geometry":` + geometry + `,"properties":{` + properties + `}}`
	}
	good := `{"type":"Point","coordinates":[-119.7001,46.3101]}`
	for name, x := range map[string]struct{ geometry, properties, says string }{
		"swapped": {`{"type":"Point","coordinates":[46.3101,-119.7001]}`, `"name":"T"`, "over 90"},
		"another place": {`{"type":"Point","coordinates":[-100.1,46.31]}`, `"name":"T"`,
			"km from the site: it belongs to another site"},
		"crosses itself": {`{"type":"Polygon","coordinates":[[[-119.7,46.31],[-119.699,46.311],[-119.699,46.31],[-119.7,46.311],[-119.7,46.31]]]}`,
			`"name":"T"`, "crosses itself"},
		"no places":     {`{"type":"LineString","coordinates":[]}`, `"name":"T"`, "at least"},
		"one place":     {`{"type":"LineString","coordinates":[[-119.7,46.31]]}`, `"name":"T"`, "at least"},
		"too high":      {good, `"kind":"obstacle","height_m":2000`, "between 0 and 1000"},
		"below nothing": {good, `"kind":"obstacle","height_m":-3`, "between 0 and 1000"},
		"no such kind":  {good, `"kind":"volcano"`, "volcano"},
	} {
		rep, err := b.Sites.Import(b.ctx, b.site.ID, "geojson",
			strings.NewReader(`{"type":"FeatureCollection","features":[`+feature(x.geometry, x.properties)+`,`+feature(good,
				`"name":"`+name+`"`)+`]}`))
		require.NoError(t, err, name)
		assert.Equal(t, 1, rep.Accepted, name)
		require.Len(t, rep.Refused, 1, name)
		assert.Contains(t, rep.Refused[0].Sentence, x.says, name)
		assert.Equal(t, 1, rep.Refused[0].Line, name)
	}
}

// Heights in feet are taken as feet when the file says so.
func TestHeightsInFeet(t *testing.T) {
	b := newBed(t)
	rep, err := b.Sites.Import(b.ctx, b.site.ID, "csv",
		strings.NewReader("lat,lon,kind,name,height_ft\n46.3101,-119.7001,obstacle,Pole,100\n"))
	require.NoError(t, err)
	require.Equal(t, 1, rep.Accepted, rep.Refused)
	assert.InDelta(t, 30.48, *b.file().Features[0].HeightM, 1e-9)
}

// A site on the date line, and sites as far north and south as work goes, are
// charted, judged, written out and read back like any other.
func TestSitesAtTheEndsOfTheMap(t *testing.T) {
	for name, origin := range map[string]geo.Point{
		"date line": {Lat: -16.8, Lon: 179.9995}, "west of it": {Lat: -16.8, Lon: -179.9995}, "far north": {Lat: 80,
			Lon: 15}, "far south": {Lat: -77.8, Lon: 166.7}, "null": {},
	} {
		t.Run(name, func(t *testing.T) {
			b := newBed(t)
			b.site = sites.Site{ID: testbed.NewID(), Name: name, Lat: origin.Lat, Lon: origin.Lon, ElevationM: new(10.0)}
			require.NoError(t, b.Sites.Add(b.ctx, b.site))
			var err error
			b.frame, err = geo.NewFrame(origin)
			require.NoError(t, err)
			b.put(site.Feature{Kind: site.TakeOff, Shape: site.Point, Name: "Start", Main: true}, [2]float64{-100, 0})
			b.put(site.Feature{Kind: site.Work, Shape: site.Area, Name: "Field"}, [2]float64{50, -50}, [2]float64{200, -50},
				[2]float64{200, 50}, [2]float64{50, 50})
			b.put(site.Feature{Kind: site.Obstacle, Shape: site.Line, Name: "Hedge", HeightM: num(40)}, [2]float64{0, -200},
				[2]float64{0, 200})
			w, err := b.Sites.WayHome(b.ctx, b.site.ID, sites.Ask{Flight: intent.Flight{ReturnM: num(30)}})
			require.NoError(t, err)
			assert.Equal(t, "Hedge", w.Return.Decides, "the hedge stands across, on both sides of any line of the map")
			assert.Equal(t, 50.0, w.Return.HeightM, "40 m, 10 m of margin")
			assert.InDelta(t, 304.1, w.FarM, 0.5)
			assert.Equal(t, judge.Stop, judge.Worst(w.Findings), "30 m set, 40 m tall")
			for _, format := range []string{"geojson", "kml", "csv", "gpx"} {
				var out bytes.Buffer
				require.NoError(t, b.Sites.Export(b.ctx, b.site.ID, format, &out))
				again, err := b.Sites.Import(b.ctx, b.site.ID, format, &out)
				require.NoError(t, err, format)
				assert.Equal(t, 3, again.Unchanged, "%s: %v", format, again.Refused)
			}
			sky, err := b.Sites.SkyOver(b.ctx, b.site.ID, sites.AskSky{Work: weather.Mapping})
			require.NoError(t, err)
			assert.NotEmpty(t, sky.Sun.Kind, "the sun says polar day or night where it does not rise or set")
		})
	}
}

// What is charted stays near its site, whichever of the two is moved.
func TestFarFromTheSite(t *testing.T) {
	b := newBed(t)
	oak := b.put(site.Feature{Kind: site.Obstacle, Shape: site.Point, Name: "Oak"}, [2]float64{20, 30})
	far := oak
	far.Places = []geo.Point{{Lat: 46.31, Lon: -118.7}}
	assert.ErrorContains(t, b.Sites.SaveFeature(b.ctx, b.site.ID, far, 1),
		"It lies 77 km from the site: it belongs to another site. Nothing was saved.")
	moved := b.site
	moved.Version, moved.Lat = 1, 47.31
	assert.ErrorContains(t, b.Sites.Change(b.ctx, moved), "would be another site")
	moved.Lat = 46.32
	assert.NoError(t, b.Sites.Change(b.ctx, moved), "a correction of a kilometre")
	turned := site.Feature{ID: testbed.NewID().String(), Kind: site.Obstacle, Shape: site.Point, Name: "Oak",
		Places: []geo.Point{{Lat: 60, Lon: 46}}}
	assert.ErrorContains(t, turned.Near(geo.Point{Lat: 46, Lon: 60}), "latitude and longitude are swapped")
}

// A terrain that cannot be used, or does not know the ground at the site, is
// refused with a sentence and replaces nothing.
func TestTerrainFilesThatAreRefused(t *testing.T) {
	b := newBed(t)
	head := func(cols, rows int, cell float64) string {
		return fmt.Sprintf("ncols %d\nnrows %d\nxllcorner -119.71\nyllcorner 46.30\ncellsize %g\nNODATA_value -9999\n", cols,
			rows, cell)
	}
	for name, file := range map[string]string{
		"empty":           "",
		"no numbers":      head(2, 2, 0.01) + "a b\nc d\n",
		"too few":         head(2, 2, 0.01) + "1 2 3\n",
		"too many":        head(2, 2, 0.01) + "1 2 3 4 5\n",
		"no cells":        head(0, 2, 0.01),
		"vast":            head(100_000, 100_000, 0.01) + "1\n",
		"metres":          "ncols 2\nnrows 2\nxllcorner 480000\nyllcorner 5128000\ncellsize 30\n1 2\n3 4\n",
		"elsewhere":       "ncols 2\nnrows 2\nxllcorner 10\nyllcorner 46\ncellsize 0.01\n1 2\n3 4\n",
		"gap at the site": head(3, 3, 0.01) + strings.Repeat("-9999 -9999 -9999\n", 3),
		"no cell size":    "ncols 2\nnrows 2\nxllcorner -119.71\nyllcorner 46.30\n1 2\n3 4\n",
	} {
		err := b.Sites.PutTerrain(b.ctx, b.site.ID, "x.asc", 1, strings.NewReader(file))
		f, sentence := fault.As(err)
		if assert.True(t, sentence, "%s: %v", name, err) {
			assert.Contains(t, f.Detail, "Nothing was saved", name)
		}
	}
	assert.Equal(t, "level.asc", b.file().Terrain.Source, "what was there stays")
	ctx, stop := context.WithCancel(b.ctx)
	stop()
	assert.ErrorIs(t, b.Sites.PutTerrain(ctx, b.site.ID, "x.asc", 1,
		strings.NewReader(head(3, 3, 0.01)+strings.Repeat("1 2 3\n", 3))), context.Canceled)
}
