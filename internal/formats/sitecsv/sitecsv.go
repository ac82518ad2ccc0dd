// Package sitecsv reads and writes the features of a site as CSV (RFC 4180):
// one line per place; lines with one feature number belong together, in order.
package sitecsv

import (
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"slices"
	"strconv"
	"strings"

	"mainstay/core/geo"
	"mainstay/core/site"
	"mainstay/internal/formats/props"
)

// MaxBytes is the largest file that is read.
const MaxBytes = 10 << 20

// ErrFile is wrapped when a file cannot be read at all.
var ErrFile = errors.New("file not usable")

// Columns of the places; the fields of props follow them. hole is empty or 0
// for the outline and counts the holes from 1.
var Columns = []string{"feature", "shape", "hole", "lat", "lon"}

// Write writes features.
func Write(w io.Writer, features []site.Feature) error {
	c := csv.NewWriter(w)
	_ = c.Write(append(slices.Clone(Columns), props.Names...)) // the error comes back from c.Error
	for i, f := range features {
		p := props.Of(f)
		for h, ps := range append([][]geo.Point{f.Places}, f.Holes...) {
			for j, q := range ps {
				rec := []string{strconv.Itoa(i + 1), string(f.Shape), strconv.Itoa(h), strconv.FormatFloat(q.Lat, 'f', -1, 64), strconv.FormatFloat(q.Lon, 'f', -1, 64)}
				for _, name := range props.Names {
					v := ""
					if h == 0 && j == 0 {
						v = p[name]
					}
					rec = append(rec, v)
				}
				_ = c.Write(rec)
			}
		}
	}
	c.Flush()
	return c.Error()
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
	limited := &io.LimitedReader{R: r, N: MaxBytes + 1}
	c := csv.NewReader(limited)
	head, err := c.Read()
	if err != nil {
		return nil, nil, fmt.Errorf("%w: it is empty or not comma-separated text", ErrFile)
	}
	at := map[string]int{}
	for i, h := range head {
		at[strings.ToLower(strings.TrimSpace(strings.TrimPrefix(h, "\ufeff")))] = i
	}
	for _, need := range []string{"lat", "lon"} {
		if _, ok := at[need]; !ok {
			return nil, nil, fmt.Errorf("%w: there is no column %s; places are degrees of latitude and longitude (WGS 84)", ErrFile, need)
		}
	}
	var all []*gathered
	byName := map[string]*gathered{}
	for {
		rec, err := c.Read()
		if errors.Is(err, io.EOF) {
			break
		}
		if limited.N <= 0 {
			return nil, nil, fmt.Errorf("%w: it is larger than %d MB", ErrFile, MaxBytes>>20)
		}
		if err != nil {
			line := 0
			var perr *csv.ParseError
			if errors.As(err, &perr) {
				line = perr.Line
			}
			refused = append(refused, site.Refused{Number: line, Why: fmt.Sprintf("line %d is not comma-separated text with %d fields", line, len(head))})
			if errors.Is(err, csv.ErrFieldCount) {
				continue
			}
			break // quotes are open; what follows cannot be told apart
		}
		line, _ := c.FieldPos(0)
		get := func(name string) string {
			if i, ok := at[name]; ok {
				return strings.TrimSpace(rec[i])
			}
			return ""
		}
		name := get("feature")
		g := byName[name]
		if g == nil || name == "" {
			g = &gathered{number: line, fields: map[string]string{}, shape: site.Shape(get("shape")), rings: [][]geo.Point{nil}}
			for k := range at {
				if !slices.Contains(Columns, k) {
					g.fields[k] = get(k)
				}
			}
			all = append(all, g)
			byName[name] = g
		}
		g.place(get("hole"), get("lat"), get("lon"))
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
