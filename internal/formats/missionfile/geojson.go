package missionfile

import (
	"encoding/json"
	"fmt"
	"io"

	"mainstay/core/intent"
	"mainstay/core/mission"
	"mainstay/core/why"
)

type collection struct {
	Type     string    `json:"type"`
	Name     string    `json:"name,omitempty"`
	Features []feature `json:"features"`
}

type feature struct {
	Type       string         `json:"type"`
	Geometry   *geometry      `json:"geometry"`
	Properties map[string]any `json:"properties"`
}

type geometry struct {
	Type        string          `json:"type"`
	Coordinates json.RawMessage `json:"coordinates"`
}

// writeGeoJSON writes waypoints as points with their height as third coordinate (RFC 7946).
func writeGeoJSON(w io.Writer, m mission.Mission) error {
	c := collection{Type: "FeatureCollection", Name: m.Name, Features: []feature{}}
	point := func(lon, lat float64, more ...float64) *geometry {
		b, _ := json.Marshal(append([]float64{lon, lat}, more...))
		return &geometry{"Point", b}
	}
	if m.Home != nil {
		c.Features = append(c.Features, feature{"Feature", point(m.Home.Lon, m.Home.Lat),
			map[string]any{"number": homeNumber, "action": "home"}})
	}
	for i, x := range m.Items {
		p := map[string]any{"number": i + 1, "height_m": x.HeightM, "datum": m.Datum, "speed_ms": x.SpeedMS,
			"action": x.Action}
		if x.EveryM != 0 {
			p["every_m"] = x.EveryM
		}
		if x.HeadingDeg != nil {
			p["heading_deg"] = *x.HeadingDeg
		}
		if x.GimbalDeg != nil {
			p["gimbal_deg"] = *x.GimbalDeg
		}
		c.Features = append(c.Features, feature{"Feature", point(x.At.Lon, x.At.Lat, x.HeightM), p})
	}
	e := json.NewEncoder(w)
	e.SetIndent("", " ")
	return e.Encode(c)
}

func readGeoJSON(b []byte) (mission.Mission, error) {
	var c collection
	if err := json.Unmarshal(b, &c); err != nil {
		return mission.Mission{}, why.Not(ErrFile, "it is no GeoJSON: %w", err)
	}
	var rows []row
	for i, f := range c.Features {
		if f.Geometry == nil {
			continue
		}
		var all [][]float64
		switch f.Geometry.Type {
		case "Point":
			all = make([][]float64, 1)
			if err := json.Unmarshal(f.Geometry.Coordinates, &all[0]); err != nil {
				return mission.Mission{}, why.Not(ErrFile, "feature %d has no place: %w", i+1, err)
			}
		case "LineString":
			if err := json.Unmarshal(f.Geometry.Coordinates, &all); err != nil {
				return mission.Mission{}, why.Not(ErrFile, "feature %d has no places: %w", i+1, err)
			}
		default:
			continue
		}
		values := map[string]string{}
		for k, v := range f.Properties {
			if v != nil {
				values[k] = fmt.Sprint(v)
				if n, ok := v.(float64); ok {
					values[k] = num(n)
				}
			}
		}
		for _, at := range all {
			if len(at) < 2 {
				return mission.Mission{}, why.Not(ErrFile, "feature %d has no place", i+1)
			}
			p, err := placed(num(at[1]), num(at[0]))
			if err != nil {
				return mission.Mission{}, err
			}
			r := row{number: -1, at: p, values: values, datum: intent.AboveSea}
			if f.Geometry.Type == "Point" {
				r.number = numberOf(values["number"])
			}
			if len(at) > 2 {
				r.height = &at[2]
			}
			rows = append(rows, r)
		}
	}
	return gather(c.Name, rows)
}
