package missionfile

import (
	"encoding/xml"
	"io"
	"strconv"

	"mainstay/core/intent"
	"mainstay/core/mission"
	"mainstay/core/why"
)

type gpxField struct {
	XMLName xml.Name `xml:"urn:mainstay:mission field"`
	Name    string   `xml:"name,attr"`
	Value   string   `xml:",chardata"`
}

type gpxPlace struct {
	Lat    string     `xml:"lat,attr"`
	Lon    string     `xml:"lon,attr"`
	Ele    string     `xml:"ele,omitempty"`
	Name   string     `xml:"name,omitempty"`
	Fields []gpxField `xml:"extensions>field"`
}

type gpxRoute struct {
	Name   string     `xml:"name,omitempty"`
	Places []gpxPlace `xml:"rtept"`
}

type gpxDoc struct {
	XMLName xml.Name   `xml:"gpx"`
	Version string     `xml:"version,attr"`
	Creator string     `xml:"creator,attr"`
	NS      string     `xml:"xmlns,attr,omitempty"`
	Points  []gpxPlace `xml:"wpt"`
	Routes  []gpxRoute `xml:"rte"`
}

// writeGPX writes waypoints as the points of one route (GPX 1.1), their fields in
// extensions. Its ele counts from the sea, so it stands only where the mission does too.
func writeGPX(w io.Writer, m mission.Mission) error {
	doc := gpxDoc{Version: "1.1", Creator: "Mainstay", NS: "http://www.topografix.com/GPX/1/1",
		Routes: []gpxRoute{{Name: m.Name}}}
	deg := func(v float64) string { return strconv.FormatFloat(v, 'f', -1, 64) }
	if m.Home != nil {
		doc.Points = append(doc.Points, gpxPlace{Lat: deg(m.Home.Lat), Lon: deg(m.Home.Lon), Name: "home"})
	}
	for i, x := range m.Items {
		f := fields(m, i)
		p := gpxPlace{Lat: deg(x.At.Lat), Lon: deg(x.At.Lon), Name: f["number"]}
		if m.Datum == intent.AboveSea {
			p.Ele = f["height_m"]
		}
		for _, k := range names {
			if v, ok := f[k]; ok {
				p.Fields = append(p.Fields, gpxField{Name: k, Value: v})
			}
		}
		doc.Routes[0].Places = append(doc.Routes[0].Places, p)
	}
	if _, err := io.WriteString(w, xml.Header); err != nil {
		return err
	}
	e := xml.NewEncoder(w)
	e.Indent("", " ")
	return e.Encode(doc)
}

func readGPX(b []byte) (mission.Mission, error) {
	var doc gpxDoc
	if err := xml.Unmarshal(b, &doc); err != nil {
		return mission.Mission{}, why.Not(ErrFile, "it is no GPX: %w", err)
	}
	if len(doc.Routes) != 1 {
		return mission.Mission{}, why.Not(ErrFile, "it holds %d routes; a mission is one", len(doc.Routes))
	}
	var rows []row
	for _, p := range doc.Routes[0].Places {
		at, err := placed(p.Lat, p.Lon)
		if err != nil {
			return mission.Mission{}, err
		}
		r := row{number: -1, at: at, values: map[string]string{}, datum: intent.AboveSea}
		for _, f := range p.Fields {
			r.values[f.Name] = f.Value
		}
		r.number = numberOf(r.values["number"])
		if r.values["height_m"] == "" {
			r.values["height_m"] = p.Ele
		}
		rows = append(rows, r)
	}
	m, err := gather(doc.Routes[0].Name, rows)
	if err != nil {
		return m, err
	}
	for _, p := range doc.Points {
		if p.Name == "home" {
			at, err := placed(p.Lat, p.Lon)
			if err != nil {
				return m, err
			}
			m.Home = &at
		}
	}
	return m, nil
}
