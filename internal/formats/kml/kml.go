// Package kml reads and writes the features of a site as KML (OGC 12-007r2):
// placemarks with points, lines and polygons; the fields stand in ExtendedData.
package kml

import (
	"archive/zip"
	"bytes"
	"encoding/xml"
	"errors"
	"fmt"
	"io"
	"strconv"
	"strings"

	gokml "github.com/twpayne/go-kml/v3"

	"mainstay/core/geo"
	"mainstay/core/site"
	"mainstay/core/why"
	"mainstay/internal/formats/props"
)

// MaxBytes is the largest file that is read.
const MaxBytes = 10 << 20

// ErrFile is wrapped when a file cannot be read at all.
var ErrFile = errors.New("file not usable")

// Write writes features as placemarks of one document.
func Write(w io.Writer, name string, features []site.Feature) error {
	doc := gokml.Document(gokml.Name(name))
	for _, f := range features {
		p := props.Of(f)
		data := gokml.ExtendedData()
		for _, k := range props.Names {
			if v, ok := p[k]; ok && k != "name" && k != "note" {
				data.Append(gokml.Data(k, gokml.Value(v)))
			}
		}
		doc.Append(gokml.Placemark(gokml.Name(f.Name), gokml.Description(f.Note), data, shape(f)))
	}
	return gokml.KML(doc).WriteIndent(w, "", " ")
}

func coordinates(ps []geo.Point, closed bool) gokml.Element {
	var out []gokml.Coordinate
	for _, p := range ps {
		out = append(out, gokml.Coordinate{Lon: p.Lon, Lat: p.Lat})
	}
	if closed {
		out = append(out, out[0])
	}
	return gokml.Coordinates(out...)
}

func shape(f site.Feature) gokml.Element {
	switch f.Shape {
	case site.Point:
		return gokml.Point(coordinates(f.Places, false))
	case site.Line:
		return gokml.LineString(coordinates(f.Places, false))
	}
	p := gokml.Polygon(gokml.OuterBoundaryIs(gokml.LinearRing(coordinates(f.Places, true))))
	for _, h := range f.Holes {
		p.Append(gokml.InnerBoundaryIs(gokml.LinearRing(coordinates(h, true))))
	}
	return p
}

type line struct {
	Coordinates string `xml:"coordinates"`
}

type polygon struct {
	Outer line   `xml:"outerBoundaryIs>LinearRing"`
	Inner []line `xml:"innerBoundaryIs>LinearRing"`
}

type shapes struct {
	Points   []line     `xml:"Point"`
	Lines    []line     `xml:"LineString"`
	Rings    []line     `xml:"LinearRing"`
	Polygons []polygon  `xml:"Polygon"`
	Multi    []shapes   `xml:"MultiGeometry"` // may nest
	Track    []struct{} `xml:"Track"`
	Tracks   []struct{} `xml:"MultiTrack"`
	Model    []struct{} `xml:"Model"`
}

// all are the shapes with those inside them, to a depth that no map needs more
// of.
func (s shapes) all(depth int) []shapes {
	out := []shapes{s}
	for _, m := range s.Multi {
		if depth < maxDepth {
			out = append(out, m.all(depth+1)...)
		}
	}
	return out
}

const maxDepth = 20

type placemark struct {
	Name        string `xml:"name"`
	Description string `xml:"description"`
	Data        []struct {
		Name  string `xml:"name,attr"`
		Value string `xml:"value"`
	} `xml:"ExtendedData>Data"`
	// As other writers give it, under a schema.
	Simple []struct {
		Name  string `xml:"name,attr"`
		Value string `xml:",chardata"`
	} `xml:"ExtendedData>SchemaData>SimpleData"`
	shapes
}

// Read reads every placemark, in folders too, of a KML or of the KML in a KMZ.
func Read(r io.Reader) (taken []site.Feature, refused []site.Refused, err error) {
	b, err := io.ReadAll(io.LimitReader(r, MaxBytes+1))
	switch {
	case err != nil:
		return nil, nil, err
	case len(b) > MaxBytes:
		return nil, nil, why.Not(ErrFile, "it is larger than %d MB", MaxBytes>>20)
	case bytes.HasPrefix(b, []byte("PK")):
		if b, err = unzip(b); err != nil {
			return nil, nil, err
		}
	}
	return read(bytes.NewReader(b))
}

// unzip takes the first KML out of a KMZ, bounded like a plain file.
func unzip(b []byte) ([]byte, error) {
	z, err := zip.NewReader(bytes.NewReader(b), int64(len(b)))
	if err != nil {
		return nil, why.Not(ErrFile, "it is no KMZ, or it is cut off")
	}
	for _, f := range z.File {
		if !strings.HasSuffix(strings.ToLower(f.Name), ".kml") {
			continue
		}
		in, err := f.Open()
		if err != nil {
			return nil, why.Not(ErrFile, "the KML in it cannot be read")
		}
		defer func() { _ = in.Close() }()
		out, err := io.ReadAll(io.LimitReader(in, MaxBytes+1))
		switch {
		case err != nil:
			return nil, why.Not(ErrFile, "the KML in it is cut off")
		case len(out) > MaxBytes:
			return nil, why.Not(ErrFile, "the KML in it is larger than %d MB", MaxBytes>>20)
		}
		return out, nil
	}
	return nil, why.Not(ErrFile, "there is no KML in it")
}

func read(r io.Reader) (taken []site.Feature, refused []site.Refused, err error) {
	limited := &io.LimitedReader{R: r, N: MaxBytes + 1}
	d := xml.NewDecoder(limited)
	number, seen := 0, false
	for {
		tok, err := d.Token()
		if errors.Is(err, io.EOF) && seen && limited.N > 0 {
			return taken, refused, nil
		}
		if limited.N <= 0 {
			return nil, nil, why.Not(ErrFile, "it is larger than %d MB", MaxBytes>>20)
		}
		if err != nil {
			return nil, nil, why.Not(ErrFile, "it is not KML, or it is cut off")
		}
		start, ok := tok.(xml.StartElement)
		if !ok {
			continue
		}
		if !seen && start.Name.Local != "kml" {
			return nil, nil, why.Not(ErrFile, "it is not KML")
		}
		seen = true
		if start.Name.Local != "Placemark" {
			continue
		}
		number++
		var p placemark
		if err := d.DecodeElement(&p, &start); err != nil {
			return nil, nil, why.Not(ErrFile, "placemark %d cannot be read", number)
		}
		p.take(number, &taken, &refused)
	}
}

func (p placemark) take(number int, taken *[]site.Feature, refused *[]site.Refused) {
	fields := map[string]string{"name": strings.TrimSpace(p.Name), "note": strings.TrimSpace(p.Description)}
	for _, d := range p.Simple {
		fields[d.Name] = d.Value
	}
	for _, d := range p.Data {
		fields[d.Name] = d.Value
	}
	add := func(s site.Shape, outer string, inner []line) {
		f, err := props.Read(fields, s)
		ps, perr := places(outer, s == site.Area)
		f.Places = ps
		if err == nil {
			err = perr
		}
		for _, in := range inner {
			hole, perr := places(in.Coordinates, true)
			f.Holes = append(f.Holes, hole)
			if err == nil {
				err = perr
			}
		}
		props.Take(number, f, err, taken, refused)
	}
	before := len(*taken) + len(*refused)
	for _, s := range p.all(0) {
		for _, other := range []struct {
			n    int
			name string
		}{{len(s.Track) + len(s.Tracks), "track"}, {len(s.Model), "model"}} {
			if other.n > 0 {
				*refused = append(*refused, site.Refused{Number: number, Name: p.Name,
					Why: "a " + other.name + " in it is not read; points, lines and areas are"})
			}
		}
		for _, x := range s.Rings {
			add(site.Area, x.Coordinates, nil)
		}
		for _, x := range s.Points {
			add(site.Point, x.Coordinates, nil)
		}
		for _, x := range s.Lines {
			add(site.Line, x.Coordinates, nil)
		}
		for _, x := range s.Polygons {
			add(site.Area, x.Outer.Coordinates, x.Inner)
		}
	}
	if len(*taken)+len(*refused) == before {
		*refused = append(*refused, site.Refused{Number: number, Name: p.Name, Why: "it has no point, line or polygon"})
	}
}

func places(text string, closed bool) ([]geo.Point, error) {
	var out []geo.Point
	for _, t := range strings.Fields(text) {
		parts := strings.Split(t, ",")
		if len(parts) < 2 {
			return out, fmt.Errorf("%q is no longitude,latitude", t)
		}
		lon, err1 := strconv.ParseFloat(parts[0], 64)
		lat, err2 := strconv.ParseFloat(parts[1], 64)
		if err1 != nil || err2 != nil {
			return out, fmt.Errorf("%q is no longitude,latitude", t)
		}
		if out = append(out, geo.Point{Lat: lat, Lon: lon}); len(out) > site.MaxPlaces+1 {
			return out, fmt.Errorf("it has over %d places", site.MaxPlaces)
		}
	}
	if n := len(out); closed && n > 1 && out[0] == out[n-1] {
		out = out[:n-1]
	}
	return out, nil
}
