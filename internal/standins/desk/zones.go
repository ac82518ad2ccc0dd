package desk

import (
	"encoding/json"
	"math"
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
	Features []feature `json:"features"`
}

type feature struct {
	Type       string         `json:"type"`
	Geometry   map[string]any `json:"geometry"`
	Properties map[string]any `json:"properties"`
}

// Zones are the zones now, as GeoJSON.
func (d *Desk) Zones() ([]byte, error) {
	d.mu.Lock()
	defer d.mu.Unlock()
	return json.Marshal(d.zones())
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

// zones are those of the district; the temporary area comes
// with its fault.
func (d *Desk) zones() collection {
	now := d.Now().UTC().Truncate(time.Hour)
	out := collection{Type: "FeatureCollection"}
	add := func(id, name, class string, ring [][2]float64, more map[string]any) {
		if d.faults.Swapped {
			for i, p := range ring {
				ring[i] = [2]float64{p[1], p[0]}
			}
		}
		p := map[string]any{"id": id, "name": name, "class": class}
		for k, v := range more {
			p[k] = v
		}
		out.Features = append(out.Features, feature{"Feature", map[string]any{"type": "Polygon", "coordinates": [][][2]float64{ring}}, p})
	}
	add("td-ctr", "Tolmere control zone", "D", round(stripLon, stripLat, 2300), map[string]any{"floor_m": 0, "ceiling_m": 760, "calls": true})
	add("td-shelf", "Tolmere shelf", "C", round(stripLon, stripLat, 9000), map[string]any{"floor_m": 370, "ceiling_m": 1200})
	add("td-r12", "Range R-12", "restricted", round(-119.78, 46.28, 2500), map[string]any{"floor_m": 0, "ceiling_m": 900})
	add("td-geese", "Goose marsh", "advisory", round(-119.655, 46.292, 700), map[string]any{"floor_m": 0, "ceiling_m": 150})
	if d.faults.Fire {
		add("td-fire", "Fire fighting, canal", "temporary", round(stationLon, stationLat, 1500), map[string]any{"floor_m": 0, "ceiling_m": 600,
			"from": now.Add(-time.Hour).Format(time.RFC3339), "to": now.Add(6 * time.Hour).Format(time.RFC3339)})
	}
	return out
}
