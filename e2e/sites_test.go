package e2e

import (
	"context"
	"encoding/json"
	"fmt"
	"net/http/httptest"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/site"
	"mainstay/e2e/browser"
	"mainstay/internal/demo"
	"mainstay/internal/platform/clock"
	"mainstay/internal/platform/outside"
	"mainstay/internal/standins/weather"
	"mainstay/internal/testbed"
)

// A new site: drawn by hand, an obstacle measured by clinometer, the return
// height in the aircraft found too low, the rest brought in by file.
func TestNewSiteIsChartedAndTheReturnHeightFoundTooLow(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	p := chromium.Open(t, testbed.Serve(t, svc), "/sites", 1280, 800)
	p.SignIn("odile", demo.Password)
	p.Click("New site")
	p.Click("Begin the site file")
	p.See("Enter what the site is called.")
	p.Fill("Name", "Willow Corner")
	p.Fill("Place", "146.31, -119.70")
	p.Fill("Elevation of the ground", "210")
	p.Click("Begin the site file")
	p.See("Latitude comes first")
	p.Fill("Place", "46°18'36\"N 119°42'W")
	p.Click("Begin the site file")
	p.See("The map is empty.")
	require.Equal(t, 0, p.Wide(), "the page fits")
	p.Click("Change")
	p.Fill("Note", "Ask for the key.")
	p.Click("Save")
	p.See("Ask for the key.")

	p.Click("Draw it") // a take-off place
	p.See("Press on the map where the take-off place is.")
	p.Press(".leaflet-container", 0.3, 0.8)
	p.See("New: Take-off place")
	p.Fill("Name", "Headland")
	p.Click("Save")
	p.See("On the map", "Watch")
	p.Click("Headland")
	p.See("The ground of the take-off place has not been looked at")
	p.Click("Close")

	p.Fill("What to draw", "area")
	p.Click("Draw it")
	for _, at := range [][2]float64{{0.3, 0.2}, {0.7, 0.2}, {0.7, 0.45}, {0.9, 0.9}} {
		p.Press(".leaflet-container", at[0], at[1])
	}
	p.See("4 so far")
	p.Click("Last one back")
	p.See("3 so far")
	p.Keys("\r")
	p.See("New: Work area")
	p.Fill("Name", "Corner field")
	p.Click("Save")
	p.See("Corner field")
	p.Click("Corner field") // its shape is changed by hand: a corner, a new one, a hole
	before := p.FieldValue("Places")
	p.Drag("Corner 2", 30, -20)
	p.See("Its shape was changed and is not saved yet.")
	// The field follows the shape a moment later.
	become := func(what string, ok func(places string) bool) {
		for range 200 {
			if ok(p.FieldValue("Places")) {
				return
			}
			p.Pause()
		}
		assert.Fail(t, what, p.FieldValue("Places"))
	}
	become("the corner moved", func(v string) bool { return v != before })
	p.Click("One step back")
	p.Gone("Its shape was changed")
	become("as it was before", func(v string) bool { return v == before })
	p.Drag("New corner after 1", 0, -25)
	p.See("Its shape was changed")
	p.Click("Draw a hole in it")
	for _, at := range [][2]float64{{0.45, 0.25}, {0.5, 0.25}, {0.5, 0.3}} {
		p.Press(".leaflet-container", at[0], at[1])
	}
	p.See("of the hole: 3 so far")
	p.Click("Done")
	p.Click("Save")
	p.Gone("Its shape was changed")

	p.Fill("What to draw", "obstacle")
	p.Click("Draw it")
	p.Press(".leaflet-container", 0.32, 0.5)
	p.See("New: Obstacle")
	p.Fill("Name", "Willow")
	p.Click("Measure it")
	p.Click("Work it out")
	p.See("Enter it.")
	p.Fill("Distance to the foot", "40")
	p.Fill("Angle to the top", "22")
	p.Click("Work it out")
	p.See("17.76 ± 0.84 m")
	p.Click("Take this height")
	p.Click("Save")
	p.See("17.8 ± 0.8 m, clinometer")

	p.Click("Way home")
	p.See("The return height in the aircraft is not known. Set it to 30 m.", "30 m above take-off")
	p.Fill("Return height in it", "15")
	p.See("The aircraft returns at 15 m, under the top of Willow at 19 m. Set it to 30 m.", "30 m needed")
	p.Fill("Return height in it", "30")
	p.Gone("Set it to 30 m.")

	p.Click("Files")
	p.Upload("input[aria-label='Map file']", write(t, "more.kml", `<kml><Document>
		<Placemark><name>Mast</name><ExtendedData><Data name="kind"><value>obstacle</value></Data></ExtendedData><Point><coordinates>-119.7004,46.3102</coordinates></Point></Placemark>
		<Placemark><name>Bull paddock</name><ExtendedData><Data name="zone_class"><value>keep out</value></Data></ExtendedData><Point><coordinates>-119.7030,46.3140</coordinates></Point></Placemark>
		<Placemark><name>Swapped</name><Point><coordinates>46.31,-119.70</coordinates></Point></Placemark></Document></kml>`))
	p.See("Nothing is taken yet.", "guessed: the file does not say what this point is: Bull paddock",
		"Not understood, and left out: zone_class.", "Feature 3 (Swapped)")
	p.Click("Leave it")
	p.Gone("Nothing is taken yet.")
	p.Upload("input[aria-label='Map file']", write(t, "more.kml", `<kml><Document>
		<Placemark><name>Mast</name><ExtendedData><Data name="kind"><value>obstacle</value></Data></ExtendedData><Point><coordinates>-119.7004,46.3102</coordinates></Point></Placemark>
		<Placemark><name>Swapped</name><Point><coordinates>46.31,-119.70</coordinates></Point></Placemark></Document></kml>`))
	p.Click("Take 1 onto the map")
	p.See("1 feature taken, 0 were here already, 1 refused.", "Feature 2 (Swapped)", "seem to be swapped")
	p.Upload("input[aria-label='Map file']", write(t, "notes.txt", "hello"))
	p.See("notes.txt is none of GeoJSON, KML, KMZ, GPX and CSV. Nothing was saved.")
	p.Click("Way home")
	p.See("The height of Mast, which stands on the way home, is not known. Measure it.")
	p.Click("Map")
	p.Click("Mast")
	p.Click("Take it off the map")
	p.See("Taken off the map.")
	p.Click("Bring it back")
	p.Gone("Taken off the map.")
	p.See("height not known")
	assert.Empty(t, p.Faults())

	list, err := svc.Sites.List(context.Background())
	require.NoError(t, err)
	for _, s := range list {
		if s.Name != "Willow Corner" {
			continue
		}
		f, err := svc.Sites.Get(context.Background(), s.ID, false)
		require.NoError(t, err)
		kinds := map[site.Kind]int{}
		for _, x := range f.Features {
			kinds[x.Kind]++
		}
		for _, x := range f.Features {
			if x.Kind == site.Work {
				assert.Len(t, x.Places, 4, "three corners and one that was drawn out")
				assert.Len(t, x.Holes, 1)
			}
		}
		assert.Equal(t, map[site.Kind]int{site.TakeOff: 1, site.Work: 1, site.Obstacle: 2}, kinds)
	}
}

// The weather comes from the service, by paste and by hand; what is not known
// says so.
func TestWeatherOfASite(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	device := weather.New(svc.Clock.Now)
	sky := httptest.NewServer(device)
	defer sky.Close()
	svc.Sites.Weather = outside.New(sky.URL, "")
	p := chromium.Open(t, testbed.Serve(t, svc), "/sites", 1280, 800)
	p.SignIn("odile", demo.Password)
	p.Click("Long Bank")
	p.Click("Weather")
	p.See("Delta T", "The hours to come")
	require.NoError(t, device.Set(weather.Faults{Scenario: weather.Gusty}))
	p.Click("Take the report")
	p.See("the limit is")
	p.Click("Paste a report")
	p.Fill("METAR or SPECI", "it is windy today")
	p.Click("Put it on file")
	p.See("This is no weather report")
	p.Fill("METAR or SPECI", "METAR KZZT 101640Z 24004KT 10SM OVC050 18/10 A3001 QQQ")
	p.Click("Put it on file")
	p.See("Not read:", "QQQ", "The cloud is not known")
	p.Click("Read by hand")
	p.Fill("Wind, steady", "70")
	p.Click("Put it on file")
	p.See("Enter 0 to 60 m/s.")
	p.Fill("Wind, steady", "2,5")
	p.Fill("Visibility", "16")
	p.Tick("No cloud at all")
	p.Tick("Looked all round: none of these")
	p.Click("Put it on file")
	p.See("Read by hand", "Density altitude is not known", "no cloud")
	p.Click("Read by hand")
	p.Fill("Wind by eye, where nothing measures it", "3")
	p.Fill("Temperature", "77 °F")
	p.Fill("Humidity", "50")
	p.Fill("or dew point", "10")
	p.Click("Put it on file")
	p.See("Enter the humidity with the temperature, and without a dew point.")
	p.Fill("or dew point", "")
	p.Click("Put it on file")
	p.See("The wind was estimated by eye: Beaufort 3, 3.4 to 5.5 m/s.", "50 %")
	require.NoError(t, device.Set(weather.Faults{Unreachable: true}))
	p.Click("Take the report")
	p.See("The weather service does not answer. Paste a report or read the air by hand; nothing was saved.")
	assert.Equal(t, 0, p.Wide())
}

// A wing at the flood bank: the headings charted as free are held against what
// stands there and against the wind.
func TestHeadingsOfAWing(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	var wing string
	require.NoError(t, svc.DB.Raw("select id from aircraft where name = 'Tally W'").Scan(&wing).Error)
	p := chromium.Open(t, testbed.Serve(t, svc), "/sites", 1280, 800)
	p.SignIn("odile", demo.Password)
	p.Click("Long Bank")
	p.Click("Way home")
	p.Fill("Aircraft", wing)
	p.See("Heading 270:", "it comes home in")
	assert.Equal(t, 2, browser.Eval[int](p, "document.querySelectorAll('.sector:not(.blocked)').length"))

	var places string
	require.NoError(t, svc.DB.Raw("select content::jsonb->'places' from site_features where content::jsonb->>'name' = 'Sluice'").Scan(&places).Error)
	var at []struct{ Lat, Lon float64 }
	require.NoError(t, json.Unmarshal([]byte(places), &at))
	p.Click("Files")
	p.Upload("input[aria-label='Map file']", write(t, "mast.csv",
		fmt.Sprintf("lat,lon,kind,name,height_m\n%f,%f,obstacle,New mast,40\n", at[0].Lat, at[0].Lon-0.002)))
	p.Click("Take 1 onto the map")
	p.See("1 feature taken")
	p.Click("Way home")
	p.See("Heading 270 is not free for climb-out: New mast reaches 40 m", "Heading 090 is not free for the approach",
		"No heading is free for climb-out and approach")
	assert.Equal(t, 2, browser.Eval[int](p, "document.querySelectorAll('.sector.blocked').length"))
	assert.Empty(t, p.Faults())
}
