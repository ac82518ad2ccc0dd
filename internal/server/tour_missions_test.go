package server_test

import (
	"encoding/json"
	"fmt"
	"strings"
	"time"

	"github.com/stretchr/testify/require"

	"mainstay/api"
	"mainstay/core/geo"
	"mainstay/internal/standins/aircraft"
	"mainstay/internal/testbed"
)

// surveyor is the aircraft that the missions of the tour fly with.
func surveyor() *aircraft.Link {
	return aircraft.New(1, func() time.Time { return testbed.Noon },
		aircraft.Craft{Serial: "S-1", Motors: 1, Cells: 6, At: geo.Point{Lat: 46.24, Lon: -119.601}})
}

// plain is a value as it goes over the wire, so that every place of it can be spoilt.
func (x *tour) plain(v any) (out m) {
	b, err := json.Marshal(v)
	require.NoError(x.t, err)
	require.NoError(x.t, json.Unmarshal(b, &out))
	return out
}

// missions calls every operation of a mission plan, on an aircraft and an area of its own.
func (x *tour) missions(chief string) {
	id := func() string { return testbed.NewID().String() }
	var craft api.Aircraft
	x.do("POST", "/aircraft", m{"id": id(), "type_key": "lantern-4", "name": "Plover", "serial": "S-1", "registration": "",
		"registration_expires": nil, "fit_new_parts": true, "mass_kg": nil, "weighed_on": nil}, &craft)
	meadow := id()
	x.do("POST", "/sites", m{"id": meadow, "name": "Meadow", "note": "", "lat": 46.24, "lon": -119.6, "elevation_m": 210,
		"practice": false, "version": 0}, nil)
	for kind, places := range map[string][]m{"take-off": {{"lat": 46.24, "lon": -119.601}},
		"area": {{"lat": 46.24, "lon": -119.6}, {"lat": 46.242, "lon": -119.6}, {"lat": 46.242, "lon": -119.598},
			{"lat": 46.24, "lon": -119.598}}} {
		f := id()
		x.do("PUT", "/sites/"+meadow+"/features/"+f, m{"feature": m{"id": f, "kind": kind, "name": kind,
			"shape": map[bool]string{true: "point", false: "area"}[len(places) == 1], "places": places}, "version": 0}, nil)
	}
	at := "/jobs/" + id()
	x.do("PUT", at, m{"work": "mapping", "site_id": meadow, "aim": "Meadow from above", "product": "",
		"from": testbed.Noon.Add(4 * time.Hour), "to": testbed.Noon.Add(6 * time.Hour), "sorties": nil, "meeting": "Gate",
		"channel": "4", "version": 0,
		"aircraft": []m{{"aircraft_id": craft.Id, "return_m": 30, "home_follows": false, "lost_link": "return",
			"route_m": nil, "datum": "", "mass_kg": nil, "speed_ms": 5}}, "take_off_id": nil, "landing_id": nil,
		"second_id": nil,
		"label":     m{"low_ms": nil, "high_ms": nil, "height_m": nil}, "people": []m{{"person_id": chief,
			"post": "rpic"}}}, nil)
	plan := at + "/mission/" + craft.Id.String()
	var p api.MissionPlan
	x.do("GET", plan, nil, &p)
	wish := x.plain(p.Wish)
	survey := wish["survey"].(m)
	survey["camera"], survey["by"], survey["height_m"] = "map-20", "height", 60.0
	delete(survey, "buffer_m")
	x.do("POST", plan+"/try", wish, nil)
	x.do("PUT", plan, m{"id": id(), "version": 0, "wish": wish}, &p)
	require.NotEmpty(x.t, p.Flights)
	one := plan + "/flights/1"
	x.do("POST", one+"/send", nil, &p)
	require.Equal(x.t, "equal", string(p.Flights[0].Standing))
	x.do("POST", one+"/read", nil, nil)
	file := x.c.Do("GET", one+"/file?format=csv", nil).Text()
	x.do("GET", one+"/file?format=kml", nil, nil)
	x.do("POST", one+"/read/file?name=back.csv", file, nil)
	x.do("POST", plan+"/card", m{"id": id(), "card": m{"camera": "map-20", "light": "sun", "video": false, "fps": 0,
		"shutter": 1000, "metered": 0, "filter_stop": 0, "iso": 100, "base_iso": 0, "kelvin": 5600, "profile": "",
		"formatted": true, "free_gb": 60, "cap_off": true, "before": 1, "after": 2}}, nil)
	x.do("GET", plan+"/pictures", nil, nil)
	var list api.PictureList
	x.do("POST", plan+"/pictures/list",
		"name,latitude,longitude,time\na.jpg,46.2401,-119.5999,2026-06-10T16:00:00Z\nb.jpg,,,\n", &list)
	require.Len(x.t, list.Pictures, 2)
	// As many as are taken: 20,000 pictures in one list.
	many := make([]m, 20_000)
	for i := range many {
		many[i] = m{"name": fmt.Sprintf("IMG_%05d.jpg", i), "at": m{"lat": 46.2401234567, "lon": -119.5998765432},
			"time": "2026-06-10T16:00:00Z"}
	}
	crowd := x.c.Do("POST", one+"/look", map[string]any{"id": id(), "pictures": many})
	require.Equal(x.t, 200, crowd.Status, crowd.Text())
	var long strings.Builder
	long.WriteString("number,latitude,longitude,height_m,datum,speed_ms,action\n")
	for i := range 20_000 {
		fmt.Fprintf(&long, "%d,%.7f,%.7f,40,take-off,5,fly\n", i+1, 46.24+float64(i%100)*1e-5, -119.6+float64(i/100)*1e-5)
	}
	huge := x.c.Do("POST", one+"/read/file?name=huge.csv", long.String())
	require.Equal(x.t, 200, huge.Status, huge.Text())
	x.do("POST", one+"/read/file?name=back.csv", file, nil)
	after := m{"id": id(), "pictures": []m{{"name": "a.jpg", "at": m{"lat": 46.2401, "lon": -119.5999}}}, "offset_s": 0,
		"running": true, "shake": ""}
	x.do("POST", one+"/look", after, nil)
	x.do("POST", one+"/flown", after, &p)
	x.do("POST", one+"/again", nil, &p)
	require.Greater(x.t, len(p.Flights), 1)
	x.do("DELETE", one+"/flown", nil, nil)
	finding := id()
	x.do("POST", plan+"/findings", m{"id": finding, "picture": "a.jpg", "place": "North edge", "words": "Standing water.",
		"severity": "note"}, nil)
	x.do("DELETE", plan+"/findings/"+finding, nil, nil)
	sheet := x.c.Do("GET", at+"/sheet.pdf", nil)
	require.Equal(x.t, 200, sheet.Status, sheet.Text())
	require.True(x.t, strings.HasPrefix(sheet.Text(), "%PDF-"))
	x.seen["getJobSheet"] = true
	x.do("GET", "/canopies", nil, nil)
	x.do("PUT", "/canopies/"+id(), m{"id": id(), "key": "tour-1", "name": "Tour", "height_m": 90, "active": true,
		"version": 0}, nil)
	x.do("GET", "/cameras", nil, nil)
	x.do("PUT", "/cameras/"+id(), m{"id": id(), "key": "tour-1", "name": "Tour", "sensor_w_mm": 13, "sensor_h_mm": 9,
		"focal_mm": 9, "pixels_w": 4000, "pixels_h": 3000, "least_s": 1, "picture_mb": 8, "base_iso": 100, "active": true,
		"version": 0}, nil)
}
