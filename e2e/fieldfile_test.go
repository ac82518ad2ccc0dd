package e2e

import (
	"encoding/json"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/geo"
	"mainstay/internal/demo"
	"mainstay/internal/platform/clock"
	"mainstay/internal/testbed"
)

// A field comes from the grower as a map file, is planned on, and leads to a load sheet.
func TestFieldFileToLoadSheet(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	var job, aircraft, siteID string
	require.NoError(t, svc.DB.Raw("select p.job_id::text, p.aircraft_id::text, j.site_id::text from spray_plans p join aircraft a on a.id = p.aircraft_id join jobs j on j.id = p.job_id where a.name = 'Dray Two' limit 1").Row().Scan(&job,
		&aircraft, &siteID))
	p := chromium.Open(t, testbed.Serve(t, svc), "/sites/"+siteID+"?tab=files", 820, 1180)
	p.SignIn("odile", demo.Password)
	p.See("Bring in a map file")
	var lat, lon float64
	require.NoError(t, svc.DB.Raw("select lat, lon from sites where id = ?", siteID).Row().Scan(&lat, &lon))
	frame, err := geo.NewFrame(geo.Point{Lat: lat, Lon: lon})
	require.NoError(t, err)
	var ring [][2]float64
	for _, q := range []geo.XY{{X: -150, Y: -420}, {X: 120, Y: -430}, {X: 130, Y: -260}, {X: -140, Y: -250},
		{X: -150, Y: -420}} {
		at := frame.Point(q)
		ring = append(ring, [2]float64{at.Lon, at.Lat})
	}
	file, err := json.Marshal(map[string]any{"type": "FeatureCollection",
		"features": []any{map[string]any{"type": "Feature",
			"properties": map[string]any{"kind": "area", "name": "Lower barley"}, "geometry": map[string]any{"type": "Polygon",
				"coordinates": []any{ring}}}}})
	require.NoError(t, err)
	p.Upload("input[aria-label='Map file']", write(t, "lower-barley.geojson", string(file)))
	p.Click("Take 1 onto the map")
	p.See("lower-barley.geojson")

	p.Go("/jobs/" + job + "/spray/" + aircraft)
	p.See("What follows")
	p.Pick("Field", "Lower barley")
	p.Fill("Crop height", "1")
	p.Click("Keep this plan")
	p.Gone("Back to what is kept")
	p.See("The way")
	p.Click("Load sheet")
	p.See("Fill 1:")
	p.Click("Water, first half")
	p.SeeIn(".fill-lines", "in, Odile Varga")
	p.Click("Sprayed")
	p.See("The flight just flown")
	assert.True(t, strings.Contains(p.Path(), "/spray/"))
	assert.Empty(t, p.Faults())
}
