// Package gpx reads and writes the features of a site as GPX 1.1: points as
// waypoints, lines and outlines as routes; the fields stand in extensions. GPX
// knows no holes, so an outline goes without them.
package gpx

import (
	"encoding/xml"
	"errors"
	"fmt"
	"io"
	"strconv"

	"mainstay/core/geo"
	"mainstay/core/site"
	"mainstay/core/why"
	"mainstay/internal/formats/props"
)

// MaxBytes is the largest file that is read.
const MaxBytes = 10 << 20

// ErrFile is wrapped when a file cannot be read at all.
var ErrFile = errors.New("file not usable")

type field struct {
	XMLName xml.Name `xml:"urn:mainstay:site field"`
	Name    string   `xml:"name,attr"`
	Value   string   `xml:",chardata"`
}

type extensions struct {
	Fields []field `xml:"urn:mainstay:site field"`
}

// place's coordinates are text so that what is no number is one refused
// feature and not a refused file.
type place struct {
	Lat        string      `xml:"lat,attr"`
	Lon        string      `xml:"lon,attr"`
	Ele        string      `xml:"ele,omitempty"`
	Name       string      `xml:"name,omitempty"`
	Desc       string      `xml:"desc,omitempty"`
	Type       string      `xml:"type,omitempty"`
	Extensions *extensions `xml:"extensions"`
}

type route struct {
	Name       string      `xml:"name,omitempty"`
	Desc       string      `xml:"desc,omitempty"`
	Type       string      `xml:"type,omitempty"`
	Extensions *extensions `xml:"extensions"`
	Places     []place     `xml:"rtept"`
}

type track struct {
	Name       string      `xml:"name,omitempty"`
	Desc       string      `xml:"desc,omitempty"`
	Type       string      `xml:"type,omitempty"`
	Extensions *extensions `xml:"extensions"`
	Segments   []struct {
		Places []place `xml:"trkpt"`
	} `xml:"trkseg"`
}

type file struct {
	XMLName xml.Name `xml:"http://www.topografix.com/GPX/1/1 gpx"`
	Version string   `xml:"version,attr"`
	Creator string   `xml:"creator,attr"`
	Points  []place  `xml:"wpt"`
	Routes  []route  `xml:"rte"`
	Tracks  []track  `xml:"trk"`
}

// Write writes features.
func Write(w io.Writer, features []site.Feature) error {
	out := file{Version: "1.1", Creator: "Mainstay"}
	for _, f := range features {
		p := props.Of(f)
		ext := &extensions{}
		for _, k := range props.Names {
			if v, ok := p[k]; ok && k != "name" && k != "note" {
				ext.Fields = append(ext.Fields, field{Name: k, Value: v})
			}
		}
		ext.Fields = append(ext.Fields, field{Name: "shape", Value: string(f.Shape)})
		if f.Shape == site.Point {
			x := of(f.Places[0])
			x.Name, x.Desc, x.Type, x.Extensions, x.Ele = f.Name, f.Note, string(f.Kind), ext, p["elevation_m"]
			out.Points = append(out.Points, x)
			continue
		}
		r := route{Name: f.Name, Desc: f.Note, Type: string(f.Kind), Extensions: ext}
		for _, q := range f.Places {
			r.Places = append(r.Places, of(q))
		}
		if f.Shape == site.Area {
			r.Places = append(r.Places, of(f.Places[0]))
		}
		out.Routes = append(out.Routes, r)
	}
	if _, err := io.WriteString(w, xml.Header); err != nil {
		return err
	}
	e := xml.NewEncoder(w)
	e.Indent("", " ")
	return e.Encode(out)
}

func of(p geo.Point) place {
	f := func(v float64) string { return strconv.FormatFloat(v, 'f', -1, 64) }
	return place{Lat: f(p.Lat), Lon: f(p.Lon)}
}

// Read reads waypoints, routes and tracks. A route that says it is an area, or
// a track that ends where it began, is an outline.
func Read(r io.Reader) (taken []site.Feature, refused []site.Refused, err error) {
	limited := &io.LimitedReader{R: r, N: MaxBytes + 1}
	var in file
	err = xml.NewDecoder(limited).Decode(&in)
	switch {
	case limited.N <= 0:
		return nil, nil, why.Not(ErrFile, "it is larger than %d MB", MaxBytes>>20)
	case err != nil:
		return nil, nil, why.Not(ErrFile, "it is not GPX 1.1, or it is cut off")
	}
	n := 0
	add := func(of place, s site.Shape, ps []place) {
		n++
		fields := map[string]string{"kind": of.Type}
		if of.Extensions != nil {
			for _, f := range of.Extensions.Fields {
				fields[f.Name] = f.Value
			}
		}
		fields["name"], fields["note"] = of.Name, of.Desc
		if fields["elevation_m"] == "" {
			fields["elevation_m"] = of.Ele // GPX gives it in metres
		}
		if fields["shape"] == string(site.Area) {
			s = site.Area
		}
		delete(fields, "shape")
		if !known(fields["kind"]) {
			delete(fields, "kind")
		}
		places, perr := points(ps)
		if k := len(places); k > 3 && places[0] == places[k-1] && s != site.Point {
			s, places = site.Area, places[:k-1]
		}
		f, err := props.Read(fields, s)
		f.Places = places
		if err == nil {
			err = perr
		}
		props.Take(n, f, err, &taken, &refused)
	}
	for _, p := range in.Points {
		add(p, site.Point, []place{p})
	}
	for _, r := range in.Routes {
		add(place{Name: r.Name, Desc: r.Desc, Type: r.Type, Extensions: r.Extensions}, site.Line, r.Places)
	}
	for _, t := range in.Tracks {
		for _, s := range t.Segments {
			add(place{Name: t.Name, Desc: t.Desc, Type: t.Type, Extensions: t.Extensions}, site.Line, s.Places)
		}
	}
	return taken, refused, nil
}

func known(kind string) bool {
	for _, k := range site.AllKinds {
		if string(k) == kind {
			return true
		}
	}
	return false
}

func points(ps []place) ([]geo.Point, error) {
	var out []geo.Point
	for _, p := range ps {
		lat, err1 := strconv.ParseFloat(p.Lat, 64)
		lon, err2 := strconv.ParseFloat(p.Lon, 64)
		if err1 != nil || err2 != nil {
			return out, fmt.Errorf("%q, %q is no latitude and longitude", p.Lat, p.Lon)
		}
		out = append(out, geo.Point{Lat: lat, Lon: lon})
	}
	return out, nil
}
