package missionfile

import (
	"bytes"
	"encoding/xml"
	"errors"
	"io"
	"strings"

	gokml "github.com/twpayne/go-kml/v3"

	"mainstay/core/geo"
	"mainstay/core/intent"
	"mainstay/core/mission"
	"mainstay/core/why"
)

// modes are the altitude modes of the datums. KML knows none for heights above take-off:
// they stand as relative to the ground, which is right at take-off, and the field says it.
var modes = map[intent.Datum]gokml.AltitudeModeEnum{intent.AboveTakeOff: gokml.AltitudeModeRelativeToGround,
	intent.AboveGround: gokml.AltitudeModeRelativeToGround, intent.AboveSea: gokml.AltitudeModeAbsolute}

// writeKML writes waypoints as placemarks (OGC 12-007r2), their fields in ExtendedData.
func writeKML(w io.Writer, m mission.Mission) error {
	doc := gokml.Document(gokml.Name(m.Name))
	mark := func(name string, at geo.Point, height float64, mode gokml.AltitudeModeEnum, values map[string]string) {
		data := gokml.ExtendedData()
		for _, k := range names {
			if v, ok := values[k]; ok {
				data.Append(gokml.Data(k, gokml.Value(v)))
			}
		}
		doc.Append(gokml.Placemark(gokml.Name(name), data, gokml.Point(gokml.AltitudeMode(mode),
			gokml.Coordinates(gokml.Coordinate{Lon: at.Lon, Lat: at.Lat, Alt: height}))))
	}
	if m.Home != nil {
		mark("home", *m.Home, 0, gokml.AltitudeModeClampToGround, map[string]string{"number": "0", "action": "home"})
	}
	for i, x := range m.Items {
		f := fields(m, i)
		mark(f["number"], x.At, x.HeightM, modes[m.Datum], f)
	}
	return gokml.KML(doc).WriteIndent(w, "", " ")
}

type kmlPlace struct {
	Mode        string `xml:"altitudeMode"`
	Coordinates string `xml:"coordinates"`
}

type kmlMark struct {
	Name string `xml:"name"`
	Data []struct {
		Name  string `xml:"name,attr"`
		Value string `xml:"value"`
	} `xml:"ExtendedData>Data"`
	Simple []struct {
		Name  string `xml:"name,attr"`
		Value string `xml:",chardata"`
	} `xml:"ExtendedData>SchemaData>SimpleData"`
	Point *kmlPlace `xml:"Point"`
	Line  *kmlPlace `xml:"LineString"`
}

func readKML(b []byte) (mission.Mission, error) {
	d := xml.NewDecoder(bytes.NewReader(b))
	d.Strict = true
	name, depth := "", 0
	var rows []row
	for {
		t, err := d.Token()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			return mission.Mission{}, why.Not(ErrFile, "it is no KML: %w", err)
		}
		s, ok := t.(xml.StartElement)
		if !ok {
			continue
		}
		depth++
		switch {
		case s.Name.Local == "name" && name == "" && len(rows) == 0:
			if err := d.DecodeElement(&name, &s); err != nil {
				return mission.Mission{}, why.Not(ErrFile, "%w", err)
			}
		case s.Name.Local == "Placemark":
			var k kmlMark
			if err := d.DecodeElement(&k, &s); err != nil {
				return mission.Mission{}, why.Not(ErrFile, "a placemark cannot be read: %w", err)
			}
			more, err := k.rows()
			if err != nil {
				return mission.Mission{}, err
			}
			if rows = append(rows, more...); len(rows) > mission.MostItems+1 {
				return mission.Mission{}, why.Not(ErrFile, "more than %d waypoints", mission.MostItems)
			}
		}
	}
	if depth == 0 {
		return mission.Mission{}, why.Not(ErrFile, "it holds no mission")
	}
	return gather(name, rows)
}

func (k kmlMark) rows() ([]row, error) {
	shape, point := k.Point, true
	if shape == nil {
		shape, point = k.Line, false
	}
	if shape == nil {
		return nil, nil
	}
	values := map[string]string{}
	for _, d := range k.Data {
		values[d.Name] = d.Value
	}
	for _, d := range k.Simple {
		values[d.Name] = d.Value
	}
	datum := intent.AboveSea
	if strings.HasPrefix(shape.Mode, "relative") {
		datum = intent.AboveGround
	}
	var out []row
	for _, c := range strings.Fields(shape.Coordinates) {
		parts := strings.Split(c, ",")
		if len(parts) < 2 {
			return nil, why.Not(ErrFile, "%q is no place", cut(c))
		}
		p, err := placed(parts[1], parts[0])
		if err != nil {
			return nil, err
		}
		r := row{number: -1, at: p, values: values, datum: datum}
		if point {
			r.number = numberOf(values["number"])
		}
		if len(parts) > 2 {
			q := row{values: map[string]string{"height_m": parts[2]}}
			x, _, err := q.item()
			if err != nil {
				return nil, why.Not(ErrFile, "%w", err)
			}
			r.height = &x.HeightM
		}
		out = append(out, r)
	}
	return out, nil
}
