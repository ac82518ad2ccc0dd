package geojson

import (
	"fmt"
	"io"
	"math"
	"strconv"
	"strings"
	"time"

	"mainstay/core/airspace"
	"mainstay/core/geo"
	"mainstay/core/site"
)

// Zone is a piece of airspace as a file gives it. Heights are metres above the
// ground; nil is not given.
type Zone struct {
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
// class, floor_m or floor_ft, ceiling_m or ceiling_ft, from, to (RFC 3339),
// calls. A shape of several polygons becomes several zones.
func ReadZones(r io.Reader) (taken []Zone, refused []site.Refused, err error) {
	c, err := collection(r)
	if err != nil {
		return nil, nil, err
	}
	if len(c.Features) > MaxZones {
		return nil, nil, fmt.Errorf("%w: it holds %d zones, at most %d are taken", ErrFile, len(c.Features), MaxZones)
	}
	for i, g := range c.Features {
		p := words(g)
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
				_, why, _ := strings.Cut(err.Error(), ": ")
				return fmt.Errorf("%s", why)
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
	err = airspace.Zone{ID: z.OutsideID, Name: z.Name, Class: z.Class, Area: z.Area(frame), FloorM: z.FloorM, CeilingM: z.CeilingM, From: z.From, To: z.To}.Check()
	if err != nil {
		_, why, _ := strings.Cut(err.Error(), ": ")
		return fmt.Errorf("%s", why)
	}
	return nil
}

func zoneHead(p map[string]string) (Zone, error) {
	z := Zone{OutsideID: p["id"], Name: strings.TrimSpace(p["name"]), Class: airspace.Class(p["class"]), Calls: p["calls"] == "true"}
	if z.Name == "" {
		return z, fmt.Errorf("it has no name")
	}
	if len(z.Name) > site.MaxName || len(z.OutsideID) > site.MaxName || strings.ContainsRune(z.Name+z.OutsideID, 0) {
		return z, fmt.Errorf("its words are too long or cannot be stored")
	}
	var err error
	if z.FloorM, err = level(p, "floor"); err != nil {
		return z, err
	}
	if z.CeilingM, err = level(p, "ceiling"); err != nil {
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

func level(p map[string]string, name string) (*float64, error) {
	for unit, k := range map[string]float64{"_m": 1, "_ft": site.FeetM} {
		text := p[name+unit]
		if text == "" {
			continue
		}
		v, err := strconv.ParseFloat(text, 64)
		if v *= k; err != nil || math.IsNaN(v) || v < -500 || v > 30_000 {
			return nil, fmt.Errorf("its %s %q is no height", name, text)
		}
		return &v, nil
	}
	return nil, nil //nolint:nilnil // not given
}
