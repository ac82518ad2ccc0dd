// Package sitecsv reads and writes the features of a site as CSV (RFC 4180):
// one line per place; lines with one feature number belong together, in order.
package sitecsv

import (
	"errors"
	"fmt"
	"io"
	"slices"
	"strconv"
	"strings"

	"mainstay/core/geo"
	"mainstay/core/site"
	"mainstay/core/why"
	"mainstay/internal/formats/props"
	"mainstay/internal/formats/table"
)

// ErrFile is wrapped when a file cannot be read at all.
var ErrFile = errors.New("file not usable")

// Columns of the places; the fields of props follow them. hole is empty or 0
// for the outline and counts the holes from 1.
var Columns = []string{"feature", "shape", "hole", "lat", "lon"}

// Write writes features.
func Write(w io.Writer, features []site.Feature) error {
	t := table.NewWriter(w, append(slices.Clone(Columns), props.Names...))
	for i, f := range features {
		p := props.Of(f)
		for h, ps := range append([][]geo.Point{f.Places}, f.Holes...) {
			for j, q := range ps {
				rec := []string{strconv.Itoa(i + 1), string(f.Shape), strconv.Itoa(h), strconv.FormatFloat(q.Lat, 'f', -1, 64),
					strconv.FormatFloat(q.Lon, 'f', -1, 64)}
				for _, name := range props.Names {
					v := ""
					if h == 0 && j == 0 {
						v = p[name]
					}
					rec = append(rec, v)
				}
				t.Row(rec...)
			}
		}
	}
	return t.Flush()
}

type gathered struct {
	number int
	fields map[string]string
	shape  site.Shape
	rings  [][]geo.Point
	err    error
}

// Read reads features. lat and lon are required; without feature every line is
// a point of its own.
func Read(r io.Reader) (taken []site.Feature, refused []site.Refused, err error) {
	t, err := table.NewReader(r)
	if err != nil {
		return nil, nil, why.Not(ErrFile, "%w", err)
	}
	for _, need := range []string{"lat", "lon"} {
		if !t.Has(need) {
			return nil, nil, why.Not(ErrFile, "there is no column %s; places are degrees of latitude and longitude (WGS 84)",
				need)
		}
	}
	var all []*gathered
	byName := map[string]*gathered{}
	err = t.Each(func(line int, cell func(string) string) *table.RowError {
		get := func(name string) string { return strings.TrimSpace(cell(name)) }
		name := get("feature")
		g := byName[name]
		if g == nil || name == "" {
			g = &gathered{number: line, fields: map[string]string{}, shape: site.Shape(get("shape")), rings: [][]geo.Point{nil}}
			for _, k := range t.Columns() {
				if !slices.Contains(Columns, k) {
					g.fields[k] = get(k)
				}
			}
			all = append(all, g)
			byName[name] = g
		}
		g.place(get("hole"), get("lat"), get("lon"))
		return nil
	})
	if err != nil {
		return nil, nil, why.Not(ErrFile, "%w", err)
	}
	for _, b := range t.Bad() {
		refused = append(refused, site.Refused{Number: b.Line, Why: fmt.Sprintf("line %d %v", b.Line, b.Err)})
	}
	for _, g := range all {
		if g.shape == "" {
			g.shape = site.Point
		}
		f, err := props.Read(g.fields, g.shape)
		f.Places, f.Holes = g.rings[0], g.rings[1:]
		if len(f.Holes) == 0 {
			f.Holes = nil
		}
		if err == nil {
			err = g.err
		}
		props.Take(g.number, f, err, &taken, &refused)
	}
	return taken, refused, nil
}

func (g *gathered) place(hole, lat, lon string) {
	n := 0
	if hole != "" {
		v, err := strconv.Atoi(hole)
		if err != nil || v < 0 || v > len(g.rings) {
			g.err = fmt.Errorf("hole %q is not counted from 1", hole)
			return
		}
		n = v
	}
	if n == len(g.rings) {
		g.rings = append(g.rings, nil)
	}
	la, err1 := strconv.ParseFloat(lat, 64)
	lo, err2 := strconv.ParseFloat(lon, 64)
	if err1 != nil || err2 != nil {
		g.err = fmt.Errorf("%q, %q is no latitude and longitude with a decimal point", lat, lon)
		return
	}
	g.rings[n] = append(g.rings[n], geo.Point{Lat: la, Lon: lo})
}
