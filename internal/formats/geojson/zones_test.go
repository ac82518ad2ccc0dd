package geojson_test

import (
	"encoding/json"
	"fmt"
	"net/http/httptest"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/airspace"
	"mainstay/core/geo"
	"mainstay/internal/formats/geojson"
	"mainstay/internal/standins/desk"
)

func zone(properties, ring string) string {
	return fmt.Sprintf(`{"type":"FeatureCollection","features":[{"type":"Feature","geometry":{"type":"Polygon","coordinates":[%s]},"properties":{%s}}]}`,
		ring, properties)
}

const square = "[[-119.7,46.3],[-119.6,46.3],[-119.6,46.4],[-119.7,46.4],[-119.7,46.3]]"

func TestReadZones(t *testing.T) {
	got, refused, err := geojson.ReadZones(strings.NewReader(zone(`"id":"z1","name":"Control zone","class":"D","floor_ft":0,"ceiling_ft":2500,"from":"2026-06-10T16:00:00Z","calls":true`,
		square)))
	require.NoError(t, err)
	require.Empty(t, refused)
	require.Len(t, got, 1)
	z := got[0]
	assert.Equal(t, airspace.D, z.Class)
	assert.InDelta(t, 762, *z.CeilingM, 1e-9)
	assert.True(t, z.Calls)
	assert.Nil(t, z.To)
	assert.Equal(t, time.Date(2026, 6, 10, 16, 0, 0, 0, time.UTC), *z.From)
	assert.Len(t, z.Outline, 4)
}

func TestBadZonesAreRefusedWithASentence(t *testing.T) {
	for says, file := range map[string]string{
		"has no name":          zone(`"class":"D"`, square),
		"is none of":           zone(`"name":"x","class":"Q"`, square),
		"not over its floor":   zone(`"name":"x","class":"D","floor_m":100,"ceiling_m":50`, square),
		"not above the ground": zone(`"name":"x","class":"D","ceiling_m":-10`, square),
		"is no height":         zone(`"name":"x","class":"D","floor_m":"ground"`, square),
		"is no time":           zone(`"name":"x","class":"D","from":"noon"`, square),
		"ends before": zone(`"name":"x","class":"D","from":"2026-06-10T16:00:00Z","to":"2026-06-10T15:00:00Z"`,
			square),
		"cross": zone(`"name":"x","class":"D"`,
			"[[-119.7,46.3],[-119.6,46.4],[-119.6,46.3],[-119.7,46.4],[-119.7,46.3]]"),
		"latitude":      zone(`"name":"x","class":"D"`, "[[46.3,-119.7],[46.3,-119.6],[46.4,-119.6],[46.3,-119.7]]"),
		"three corners": zone(`"name":"x","class":"D"`, "[[-119.7,46.3],[-119.6,46.3],[-119.7,46.3]]"),
		"a zone is an area": strings.Replace(zone(`"name":"x","class":"D"`, square),
			`"Polygon","coordinates":[`+square+`]`, `"Point","coordinates":[1,2]`, 1),
		"it has no place": `{"type":"FeatureCollection","features":[{"type":"Feature","geometry":null,"properties":{"name":"x"}}]}`,
		"it reaches over": zone(`"name":"x","class":"D"`, "[[-119.7,46.3],[-100,46.3],[-100,46.4],[-119.7,46.3]]"),
	} {
		got, refused, err := geojson.ReadZones(strings.NewReader(file))
		require.NoError(t, err, says)
		assert.Empty(t, got, says)
		require.Len(t, refused, 1, says)
		assert.Contains(t, refused[0].Why, says)
	}
	_, _, err := geojson.ReadZones(strings.NewReader("<kml/>"))
	assert.ErrorIs(t, err, geojson.ErrFile)
}

// What the desk of the demo gives can be read, all of it.
func TestTheDesksZonesAreRead(t *testing.T) {
	now := time.Date(2026, 6, 10, 16, 40, 0, 0, time.UTC)
	d := desk.New(func() time.Time { return now })
	d.Set(desk.Faults{Fire: true})
	w := httptest.NewRecorder()
	d.ServeHTTP(w, httptest.NewRequest("GET", "/zones", nil))
	got, refused, err := geojson.ReadZones(w.Body)
	require.NoError(t, err)
	assert.Empty(t, refused)
	assert.Len(t, got, 5)
}

func FuzzReadZones(f *testing.F) {
	f.Add(zone(`"name":"x","class":"D","floor_m":0`, square))
	f.Add(`{"type":"Feature"}`)
	f.Fuzz(func(t *testing.T, file string) {
		got, refused, err := geojson.ReadZones(strings.NewReader(file))
		if err != nil {
			require.Empty(t, got)
			return
		}
		for _, r := range refused {
			require.NotEmpty(t, r.Why)
		}
		for _, z := range got {
			_, err := json.Marshal(z)
			require.NoError(t, err)
			require.GreaterOrEqual(t, len(z.Outline), 3)
			frame, err := geo.NewFrame(geo.Point{Lat: 46.31, Lon: -119.70})
			require.NoError(t, err)
			// Whatever was taken can be judged.
			airspace.Judge(airspace.Question{Places: []geo.XY{{}}, HeightM: 50, From: time.Unix(0, 0), To: time.Unix(3600, 0)},
				[]airspace.Zone{{ID: "z", Name: z.Name, Class: z.Class, Area: z.Area(frame), FloorM: z.FloorM, CeilingM: z.CeilingM,
					From: z.From, To: z.To}}, nil, nil)
		}
	})
}
