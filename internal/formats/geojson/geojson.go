// Package geojson reads and writes the features of a site as GeoJSON (RFC
// 7946): longitude before latitude, WGS 84, polygons with their holes.
package geojson

import (
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"strings"

	"github.com/paulmach/orb"
	orbjson "github.com/paulmach/orb/geojson"

	"mainstay/core/geo"
	"mainstay/core/site"
	"mainstay/core/why"
	"mainstay/internal/formats/props"
)

// MaxBytes is the largest file that is read.
const MaxBytes = 10 << 20

// ErrFile is wrapped when a file cannot be read at all.
var ErrFile = errors.New("file not usable")

// Write writes features as a FeatureCollection.
func Write(w io.Writer, features []site.Feature) error {
	c := orbjson.NewFeatureCollection()
	for _, f := range features {
		g := orbjson.NewFeature(shape(f))
		for k, v := range props.Of(f) {
			g.Properties[k] = v
		}
		c.Append(g)
	}
	return json.NewEncoder(w).Encode(c)
}

func shape(f site.Feature) orb.Geometry {
	line := func(ps []geo.Point) orb.LineString {
		var out orb.LineString
		for _, p := range ps {
			out = append(out, orb.Point{p.Lon, p.Lat})
		}
		return out
	}
	switch f.Shape {
	case site.Point:
		return orb.Point{f.Places[0].Lon, f.Places[0].Lat}
	case site.Line:
		return line(f.Places)
	}
	var out orb.Polygon
	for _, ps := range append([][]geo.Point{f.Places}, f.Holes...) {
		r := orb.Ring(line(ps))
		out = append(out, append(r, r[0]))
	}
	return out
}

// Read reads a FeatureCollection or a single Feature. Several shapes in one
// feature become several features.
func Read(r io.Reader) (taken []site.Feature, refused []site.Refused, err error) {
	c, err := collection(r)
	if err != nil {
		return nil, nil, err
	}
	for i, g := range c.Features {
		if g.Geometry == nil {
			refused = append(refused, site.Refused{Number: i + 1, Why: "it has no place"})
			continue
		}
		p := words(g)
		for _, one := range single(g.Geometry) {
			s, places, holes, ok := plain(one)
			if !ok {
				refused = append(refused, site.Refused{Number: i + 1, Name: p["name"],
					Why: one.GeoJSONType() + " is not read; points, lines and areas are"})
				continue
			}
			f, err := props.Read(p, s)
			f.Places, f.Holes = places, holes
			props.Take(i+1, f, err, &taken, &refused)
		}
	}
	return taken, refused, nil
}

// words are the properties of a feature as text.
func words(g *orbjson.Feature) map[string]string {
	p := map[string]string{}
	for k, v := range g.Properties {
		switch v := v.(type) {
		case nil:
		case string:
			p[k] = v
		default:
			p[k] = fmt.Sprint(v)
		}
	}
	return p
}

// collection reads what holds features, whichever they are.
func collection(r io.Reader) (*orbjson.FeatureCollection, error) {
	b, err := io.ReadAll(io.LimitReader(r, MaxBytes+1))
	switch {
	case err != nil:
		return nil, err
	case len(b) > MaxBytes:
		return nil, why.Not(ErrFile, "it is larger than %d MB", MaxBytes>>20)
	}
	var head struct {
		Type string `json:"type"`
		CRS  *struct {
			Properties struct {
				Name string `json:"name"`
			} `json:"properties"`
		} `json:"crs"`
	}
	if err := json.Unmarshal(b, &head); err != nil {
		return nil, why.Not(ErrFile, "it is not JSON")
	}
	if head.CRS != nil {
		n := strings.ToUpper(head.CRS.Properties.Name)
		if n != "" && !strings.HasSuffix(n, "CRS84") && !strings.HasSuffix(n, ":4326") {
			return nil, why.Not(ErrFile, "it says that its coordinates are %q; only WGS 84 in degrees is read. Convert it first",
				head.CRS.Properties.Name)
		}
	}
	c := orbjson.NewFeatureCollection()
	switch head.Type {
	case "FeatureCollection":
		if c, err = orbjson.UnmarshalFeatureCollection(b); err != nil {
			return nil, why.Not(ErrFile, "a feature in it is not GeoJSON")
		}
	case "Feature":
		f, err := orbjson.UnmarshalFeature(b)
		if err != nil {
			return nil, why.Not(ErrFile, "the feature in it is not GeoJSON")
		}
		c.Append(f)
	default:
		return nil, why.Not(ErrFile, "it is no GeoJSON FeatureCollection")
	}
	return c, nil
}

func single(g orb.Geometry) []orb.Geometry {
	var out []orb.Geometry
	switch g := g.(type) {
	case orb.MultiPoint:
		for _, x := range g {
			out = append(out, x)
		}
	case orb.MultiLineString:
		for _, x := range g {
			out = append(out, x)
		}
	case orb.MultiPolygon:
		for _, x := range g {
			out = append(out, x)
		}
	case orb.Collection:
		for _, x := range g {
			out = append(out, single(x)...)
		}
	default:
		out = append(out, g)
	}
	return out
}

func plain(g orb.Geometry) (s site.Shape, places []geo.Point, holes [][]geo.Point, ok bool) {
	points := func(ps []orb.Point) []geo.Point {
		out := make([]geo.Point, len(ps))
		for i, p := range ps {
			out[i] = geo.Point{Lat: p[1], Lon: p[0]}
		}
		return out
	}
	ring := func(r orb.Ring) []geo.Point {
		if n := len(r); n > 1 && r[0] == r[n-1] {
			r = r[:n-1]
		}
		return points(r)
	}
	switch g := g.(type) {
	case orb.Point:
		return site.Point, points([]orb.Point{g}), nil, true
	case orb.LineString:
		return site.Line, points(g), nil, true
	case orb.Polygon:
		if len(g) == 0 {
			return site.Area, nil, nil, true
		}
		for _, h := range g[1:] {
			holes = append(holes, ring(h))
		}
		return site.Area, ring(g[0]), holes, true
	}
	return "", nil, nil, false
}
