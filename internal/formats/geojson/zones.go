package geojson

import (
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"math"
	"slices"
	"strconv"
	"strings"
	"time"

	"github.com/paulmach/orb"

	"mainstay/core/airspace"
	"mainstay/core/geo"
	"mainstay/core/site"
	"mainstay/core/why"
)

// Zone is a piece of airspace as a file gives it. Heights are metres over their
// datum; nil is not given, and an empty datum is above the ground.
type Zone struct {
	FloorDatum   airspace.Datum
	CeilingDatum airspace.Datum

	OutsideID string
	Name      string
	Class     airspace.Class
	FloorM    *float64
	CeilingM  *float64
	From, To  *time.Time
	Calls     bool // whoever controls it wants to be told at start and end
	Outline   []geo.Point
	Holes     [][]geo.Point
}

// Area is the zone in a flat frame.
func (z Zone) Area(frame geo.Frame) geo.Area {
	a := geo.Area{Outline: frame.All(z.Outline)}
	for _, h := range z.Holes {
		a.Holes = append(a.Holes, frame.All(h))
	}
	return a
}

// MaxZones is the most zones a file may hold.
const MaxZones = 2000

// ReadZones reads zones of airspace: polygons with the properties id, name,
// class, floor_m, floor_ft or floor_fl, ceiling_m, ceiling_ft or ceiling_fl,
// floor_datum and ceiling_datum (ground, sea, flight-level), from, to (RFC
// 3339), calls. A point with radius_m or radius_km is a circle. A shape of
// several polygons becomes several zones. An id may stand beside the properties,
// as GeoJSON has it; zones of one name without ids stay as many as there are.
func ReadZones(r io.Reader) (taken []Zone, refused []site.Refused, err error) {
	c, err := collection(r)
	if err != nil {
		return nil, nil, err
	}
	if len(c.Features) > MaxZones {
		return nil, nil, why.Not(ErrFile, "it holds %d zones, at most %d are taken", len(c.Features), MaxZones)
	}
	names := map[string]int{}
	for i, g := range c.Features {
		p := words(g)
		if p["id"] == "" && g.ID != nil {
			p["id"] = strings.TrimSpace(fmt.Sprint(g.ID))
		}
		refuse := func(why string) { refused = append(refused, site.Refused{Number: i + 1, Name: p["name"], Why: why}) }
		if g.Geometry == nil {
			refuse("it has no place")
			continue
		}
		head, err := zoneHead(p)
		if err != nil {
			refuse(err.Error())
			continue
		}
		if head.OutsideID == "" {
			head.OutsideID = head.Name
		}
		if names[head.OutsideID]++; names[head.OutsideID] > 1 { // two of one name stay two
			head.OutsideID = fmt.Sprintf("%s#%d", head.OutsideID, names[head.OutsideID])
		}
		if round, err := circle(g.Geometry, p); err != nil {
			refuse(err.Error())
			continue
		} else if round != nil {
			head.Outline = round
			if err := head.check(); err != nil {
				refuse(err.Error())
				continue
			}
			taken = append(taken, head)
			continue
		}
		for k, one := range single(g.Geometry) {
			z := head
			if k > 0 {
				z.OutsideID = fmt.Sprintf("%s/%d", head.OutsideID, k+1)
			}
			shape, places, holes, ok := plain(one)
			if !ok || shape != site.Area {
				refuse("a zone is an area; this is a " + one.GeoJSONType())
				continue
			}
			z.Outline, z.Holes = places, holes
			if err := z.check(); err != nil {
				refuse(err.Error())
				continue
			}
			taken = append(taken, z)
		}
	}
	return taken, refused, nil
}

func (z Zone) check() error {
	if len(z.Outline) < 3 {
		return fmt.Errorf("an area has at least three corners")
	}
	for _, ps := range append([][]geo.Point{z.Outline}, z.Holes...) {
		for _, p := range ps {
			if err := p.Check(); err != nil {
				return errors.New(why.Words(err))
			}
		}
	}
	frame, err := geo.NewFrame(z.Outline[0])
	if err != nil {
		return err
	}
	for _, p := range frame.All(z.Outline) {
		if p.Len() > 500_000 {
			return fmt.Errorf("it reaches over 500 km")
		}
	}
	err = airspace.Zone{ID: z.OutsideID, Name: z.Name, Class: z.Class, Area: z.Area(frame), FloorM: z.FloorM,
		CeilingM: z.CeilingM, FloorDatum: z.FloorDatum, CeilingDatum: z.CeilingDatum, From: z.From, To: z.To}.Check()
	if err != nil {
		return errors.New(why.Words(err))
	}
	return nil
}

func zoneHead(p map[string]string) (Zone, error) {
	z := Zone{OutsideID: p["id"], Name: strings.TrimSpace(p["name"]), Class: airspace.Class(p["class"]),
		Calls: p["calls"] == "true"}
	if z.Name == "" {
		return z, fmt.Errorf("it has no name")
	}
	if len(z.Name) > site.MaxName || len(z.OutsideID) > site.MaxName || strings.ContainsRune(z.Name+z.OutsideID, 0) {
		return z, fmt.Errorf("its words are too long or cannot be stored")
	}
	var err error
	if z.FloorM, z.FloorDatum, err = level(p, "floor"); err != nil {
		return z, err
	}
	if z.CeilingM, z.CeilingDatum, err = level(p, "ceiling"); err != nil {
		return z, err
	}
	for name, at := range map[string]**time.Time{"from": &z.From, "to": &z.To} {
		if p[name] == "" {
			continue
		}
		t, err := time.Parse(time.RFC3339, p[name])
		if err != nil {
			return z, fmt.Errorf("%s %q is no time like 2026-06-10T16:00:00Z", name, p[name])
		}
		t = t.UTC()
		*at = &t
	}
	return z, nil
}

// metresByLevel is one flight level in metres: 100 ft.
const metresByLevel = 100 * site.FeetM

func level(p map[string]string, name string) (*float64, airspace.Datum, error) {
	d := airspace.Datum(p[name+"_datum"])
	if d != "" && !slices.Contains(airspace.AllDatums, d) {
		return nil, d, fmt.Errorf("its %s_datum %q is none of %v", name, d, airspace.AllDatums)
	}
	var found *float64
	for _, unit := range []struct {
		name string
		k    float64
	}{{"_m", 1}, {"_ft", site.FeetM}, {"_fl", metresByLevel}} {
		text := p[name+unit.name]
		if text == "" {
			continue
		}
		v, err := strconv.ParseFloat(text, 64)
		if v *= unit.k; err != nil || math.IsNaN(v) || v < -500 || v > 30_000 {
			return nil, d, fmt.Errorf("its %s %q is no height", name, text)
		}
		if found != nil {
			return nil, d, fmt.Errorf("its %s is given twice", name)
		}
		if unit.name == "_fl" {
			if d != "" && d != airspace.FlightLevel {
				return nil, d, fmt.Errorf("its %s is a flight level and is said to be counted from %s", name, d)
			}
			d = airspace.FlightLevel
		}
		found = &v
	}
	return found, d, nil
}

// circleSides is how many sides stand for a circle; they lie outside it.
const circleSides = 48

// circle is the outline of a point with a radius; nil for any other shape.
func circle(g orb.Geometry, p map[string]string) ([]geo.Point, error) {
	at, ok := g.(orb.Point)
	if !ok {
		return nil, nil
	}
	text, k := p["radius_m"], 1.0
	if text == "" {
		text, k = p["radius_km"], 1000
	}
	if text == "" {
		return nil, nil
	}
	r, err := strconv.ParseFloat(text, 64)
	if r *= k; err != nil || !(r >= 1 && r <= 200_000) {
		return nil, fmt.Errorf("its radius %q is not between 1 m and 200 km", text)
	}
	return Circle{At: geo.Point{Lat: at.Lat(), Lon: at.Lon()}, RadiusM: r}.outline()
}

// Circle is an area round a place.
type Circle struct {
	At      geo.Point
	RadiusM float64
}

func (c Circle) outline() ([]geo.Point, error) {
	if err := c.At.Check(); err != nil {
		return nil, errors.New(why.Words(err))
	}
	frame, err := geo.NewFrame(c.At)
	if err != nil {
		return nil, err
	}
	out := make([]geo.Point, circleSides)
	reach := c.RadiusM / math.Cos(math.Pi/circleSides)
	for i := range out {
		s, k := math.Sincos(2 * math.Pi * float64(i) / circleSides)
		out[i] = frame.Point(geo.XY{X: reach * s, Y: reach * k})
	}
	return out, nil
}

// Around reports whether all that lies within so many metres of a place is in
// the circle.
func (c Circle) Around(p geo.Point, m float64) bool { return geo.Distance(c.At, p)+m <= c.RadiusM }

// Meets reports whether an outline reaches into the circle.
func (c Circle) Meets(outline []geo.Point) bool {
	frame, err := geo.NewFrame(c.At)
	if err != nil || len(outline) < 3 {
		return false
	}
	r := geo.Ring(frame.All(outline))
	return r.Holds(geo.XY{}) || r.ToEdge(geo.XY{}) <= c.RadiusM
}

// ErrCovers says that an answer does not say for which area it is.
var ErrCovers = errors.New("it does not say for which area it answers")

// ReadCovers reads the area that an answer is for: the member "covers" of the
// collection with lat, lon and radius_km.
func ReadCovers(b []byte) (Circle, error) {
	var c struct {
		Covers *struct {
			Lat      *float64 `json:"lat"`
			Lon      *float64 `json:"lon"`
			RadiusKm *float64 `json:"radius_km"`
		} `json:"covers"`
	}
	if err := json.Unmarshal(b, &c); err != nil || c.Covers == nil || c.Covers.Lat == nil || c.Covers.Lon == nil ||
		c.Covers.RadiusKm == nil {
		return Circle{}, ErrCovers
	}
	out := Circle{At: geo.Point{Lat: *c.Covers.Lat, Lon: *c.Covers.Lon}, RadiusM: *c.Covers.RadiusKm * 1000}
	if out.At.Check() != nil || !(out.RadiusM > 0 && out.RadiusM <= 1_000_000) {
		return Circle{}, ErrCovers
	}
	return out, nil
}
