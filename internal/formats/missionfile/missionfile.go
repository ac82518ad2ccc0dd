// Package missionfile reads and writes a mission as GeoJSON, KML, GPX and CSV. In each of
// them a waypoint is a point with its fields beside it, in order; home is one more point.
// Places are degrees, heights m over the datum that is named.
package missionfile

import (
	"bytes"
	"cmp"
	"errors"
	"fmt"
	"io"
	"math"
	"slices"
	"strconv"
	"strings"

	"mainstay/core/geo"
	"mainstay/core/intent"
	"mainstay/core/mission"
	"mainstay/core/why"
)

// MaxBytes is the largest file that is read.
const MaxBytes = 10 << 20

// ErrFile is wrapped when a file cannot be read, or holds no mission that can be flown.
var ErrFile = errors.New("file not usable")

// Format is a form of file.
type Format string

// The formats.
const (
	GeoJSON Format = "geojson"
	KML     Format = "kml"
	GPX     Format = "gpx"
	CSV     Format = "csv"
)

// All lists the formats.
var All = []Format{GeoJSON, KML, GPX, CSV}

// Write writes a mission.
func Write(w io.Writer, f Format, m mission.Mission) error {
	switch f {
	case GeoJSON:
		return writeGeoJSON(w, m)
	case KML:
		return writeKML(w, m)
	case GPX:
		return writeGPX(w, m)
	case CSV:
		return writeCSV(w, m)
	}
	return why.Not(ErrFile, "%q is none of %v", f, All)
}

// Read reads a mission in any of the formats, told by its first characters, and refuses
// one that cannot be flown.
func Read(r io.Reader) (mission.Mission, error) {
	b, err := io.ReadAll(io.LimitReader(r, MaxBytes+1))
	if err != nil {
		return mission.Mission{}, err
	}
	if len(b) > MaxBytes {
		return mission.Mission{}, why.Not(ErrFile, "it is larger than %d MB", MaxBytes>>20)
	}
	start := bytes.TrimLeft(bytes.TrimPrefix(b, []byte("\xef\xbb\xbf")), " \t\r\n")
	var m mission.Mission
	switch {
	case len(start) == 0:
		return m, why.Not(ErrFile, "it is empty")
	case start[0] == '{':
		m, err = readGeoJSON(start)
	case start[0] == '<' && bytes.Contains(start[:min(len(start), 2000)], []byte("<gpx")):
		m, err = readGPX(start)
	case start[0] == '<':
		m, err = readKML(start)
	default:
		m, err = readCSV(start)
	}
	if err != nil {
		return mission.Mission{}, err
	}
	if err := m.Check(); err != nil {
		return mission.Mission{}, why.Not(ErrFile, "%w", err)
	}
	return m, nil
}

// names are the fields of a waypoint, in their order.
var names = []string{"number", "latitude", "longitude", "height_m", "datum", "speed_ms", "action", "every_m",
	"heading_deg", "gimbal_deg"}

// homeNumber is the number under which home stands.
const homeNumber = 0

func num(v float64) string { return strconv.FormatFloat(v, 'f', -1, 64) }

// fields are a waypoint as names and values; what is not set is left out.
func fields(m mission.Mission, i int) map[string]string {
	x := m.Items[i]
	out := map[string]string{"number": strconv.Itoa(i + 1), "height_m": num(x.HeightM), "datum": string(m.Datum),
		"speed_ms": num(x.SpeedMS), "action": string(x.Action)}
	if x.EveryM != 0 {
		out["every_m"] = num(x.EveryM)
	}
	if x.HeadingDeg != nil {
		out["heading_deg"] = num(*x.HeadingDeg)
	}
	if x.GimbalDeg != nil {
		out["gimbal_deg"] = num(*x.GimbalDeg)
	}
	return out
}

// row is a waypoint as it was read.
type row struct {
	number int
	at     geo.Point
	values map[string]string
	height *float64 // of the shape itself, where no field gives one
	datum  intent.Datum
}

// gather makes a mission of rows: in the order of their numbers, where all have one, else
// in the order of the file.
func gather(name string, rows []row) (mission.Mission, error) {
	m := mission.Mission{Name: name}
	numbered := !slices.ContainsFunc(rows, func(r row) bool { return r.number < 0 })
	if numbered {
		slices.SortStableFunc(rows, func(a, b row) int { return cmp.Compare(a.number, b.number) })
	}
	last := -1
	for i, r := range rows {
		if numbered && r.number == last {
			return m, why.Not(ErrFile, "two waypoints have the number %d", r.number)
		}
		last = r.number
		if numbered && r.number == homeNumber || r.values["action"] == "home" {
			m.Home = &r.at
			continue
		}
		x, datum, err := r.item()
		if err != nil {
			return m, why.Not(ErrFile, "waypoint %d: %w", i+1, err)
		}
		if m.Datum == "" {
			m.Datum = datum
		} else if m.Datum != datum {
			return m, why.Not(ErrFile, "heights count %s and %s in one mission", m.Datum.Words(), datum.Words())
		}
		m.Items = append(m.Items, x)
	}
	return m, nil
}

// item reads a waypoint. A file of another program may name nothing but the place: then
// it is flown past, at no speed of its own.
func (r row) item() (mission.Item, intent.Datum, error) {
	x := mission.Item{At: r.at, Action: mission.Fly}
	var err error
	number := func(name string, into *float64) {
		if v, ok := r.values[name]; ok && strings.TrimSpace(v) != "" {
			f, e := strconv.ParseFloat(strings.TrimSpace(v), 64)
			if e != nil || math.IsNaN(f) || math.IsInf(f, 0) {
				err = errors.Join(err, fmt.Errorf("%s is %q, no number", name, cut(v)))
			}
			*into = f
		}
	}
	optional := func(name string) *float64 {
		if strings.TrimSpace(r.values[name]) == "" {
			return nil
		}
		var v float64
		number(name, &v)
		return &v
	}
	if h := optional("height_m"); h != nil {
		x.HeightM = *h
	} else if r.height != nil {
		x.HeightM = *r.height
	} else {
		err = errors.Join(err, errors.New("it has no height"))
	}
	number("speed_ms", &x.SpeedMS)
	number("every_m", &x.EveryM)
	x.HeadingDeg, x.GimbalDeg = optional("heading_deg"), optional("gimbal_deg")
	if a := r.values["action"]; a != "" {
		x.Action = mission.Action(a)
	}
	datum := r.datum
	if d := r.values["datum"]; d != "" {
		datum = intent.Datum(d)
	}
	return x, datum, err
}

func cut(s string) string {
	if r := []rune(s); len(r) > 40 {
		return string(r[:40]) + "…"
	}
	return s
}

// place reads a latitude and a longitude.
func place(lat, lon string) (geo.Point, error) {
	a, err := strconv.ParseFloat(strings.TrimSpace(lat), 64)
	b, err2 := strconv.ParseFloat(strings.TrimSpace(lon), 64)
	p := geo.Point{Lat: a, Lon: b}
	if err != nil || err2 != nil {
		return p, fmt.Errorf("the place %q, %q is no pair of numbers", cut(lat), cut(lon))
	}
	return p, p.Check()
}

// placed reads a place of a file that is refused as a whole without it.
func placed(lat, lon string) (geo.Point, error) {
	p, err := place(lat, lon)
	if err != nil {
		err = why.Not(ErrFile, "%w", err)
	}
	return p, err
}

// numberOf is the number of a waypoint; -1: it has none.
func numberOf(s string) int {
	n, err := strconv.Atoi(strings.TrimSpace(s))
	if err != nil || n < 0 {
		return -1
	}
	return n
}
