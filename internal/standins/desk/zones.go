package desk

import (
	"encoding/json"
	"math"
	"net/http"
	"strconv"
	"time"
)

// The middle of the zones, longitude and latitude.
const (
	stripLon, stripLat = -119.6850, 46.3330 // the landing strip
	stationLon         = -119.6905
	stationLat         = 46.3215
)

type collection struct {
	Type     string    `json:"type"`
	Covers   covers    `json:"covers"` // the area the answer is for
	Features []feature `json:"features"`
}

type feature struct {
	Type       string         `json:"type"`
	Geometry   map[string]any `json:"geometry"`
	Properties map[string]any `json:"properties"`
}

type covers struct {
	Lat      float64 `json:"lat"`
	Lon      float64 `json:"lon"`
	RadiusKm float64 `json:"radius_km"`
}

// district is all that the desk knows.
var district = covers{46.31, -119.70, 40}

// Zones are the zones of the whole district now, as GeoJSON.
func (d *Desk) Zones() ([]byte, error) {
	d.mu.Lock()
	defer d.mu.Unlock()
	return json.Marshal(d.zones(district))
}

// asked is the area of a question; without one the whole district.
func asked(r *http.Request) covers {
	num := func(name string, usual float64) float64 {
		v, err := strconv.ParseFloat(r.URL.Query().Get(name), 64)
		if err != nil {
			return usual
		}
		return v
	}
	return covers{num("lat", district.Lat), num("lon", district.Lon), num("radius_km", district.RadiusKm)}
}

// reaches reports whether a round zone comes into the area, roughly.
func (c covers) reaches(ring [][2]float64) bool {
	for _, p := range ring {
		x, y := (p[0]-c.Lon)*111.2*math.Cos(c.Lat*math.Pi/180), (p[1]-c.Lat)*111.2
		if math.Hypot(x, y) <= c.RadiusKm {
			return true
		}
	}
	return false
}

// round is a ring of 32 corners of a radius in metres.
func round(lon, lat, radius float64) [][2]float64 {
	var out [][2]float64
	for i := range 33 {
		s, c := math.Sincos(float64(i%32) / 32 * 2 * math.Pi)
		out = append(out, [2]float64{lon + radius*s/(111200*math.Cos(lat*math.Pi/180)), lat + radius*c/111200})
	}
	return out
}

// zones are those that come into an area; the temporary one comes with its fault.
func (d *Desk) zones(area covers) collection {
	now := d.Now().UTC().Truncate(time.Hour)
	out := collection{Type: "FeatureCollection", Covers: area, Features: []feature{}}
	add := func(id, name, class string, ring [][2]float64, more map[string]any) {
		if !area.reaches(ring) {
			return
		}
		if d.faults.Swapped {
			for i, p := range ring {
				ring[i] = [2]float64{p[1], p[0]}
			}
		}
		p := map[string]any{"id": id, "name": name, "class": class}
		for k, v := range more {
			p[k] = v
		}
		out.Features = append(out.Features, feature{"Feature",
			map[string]any{"type": "Polygon", "coordinates": [][][2]float64{ring}}, p})
	}
	add("td-ctr", "Tolmere control zone", "D", round(stripLon, stripLat, 2300),
		map[string]any{"floor_m": 0, "ceiling_m": 760, "calls": true})
	add("td-shelf", "Tolmere shelf", "C", round(stripLon, stripLat, 9000),
		map[string]any{"floor_m": 370, "ceiling_m": 1200})
	add("td-r12", "Range R-12", "restricted", round(-119.78, 46.28, 2500), map[string]any{"floor_m": 0, "ceiling_m": 900})
	add("td-geese", "Goose marsh", "advisory", round(-119.655, 46.292, 700),
		map[string]any{"floor_m": 0, "ceiling_m": 150})
	if d.faults.Fire {
		add("td-fire", "Fire fighting, canal", "temporary", round(stationLon, stationLat, 1500),
			map[string]any{"floor_m": 0, "ceiling_m": 600,
				"from": now.Add(-time.Hour).Format(time.RFC3339), "to": now.Add(6 * time.Hour).Format(time.RFC3339)})
	}
	return out
}
