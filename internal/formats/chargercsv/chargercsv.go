// Package chargercsv reads what chargers and battery testers write down: one
// line per measurement of one pack, comma-separated, the first line naming the
// columns with their units. The form is described in docs/formats.md.
package chargercsv

import (
	"errors"
	"fmt"
	"io"
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"time"

	"mainstay/core/why"
	"mainstay/internal/formats/table"
)

// Row is one measurement. nil and empty are not measured.
type Row struct {
	Line         int // in the file, from 1
	At           time.Time
	Pack         string // label or serial
	CellMV       []int
	MilliOhm     []float64
	StartPercent *float64
	EndPercent   *float64
	MAhIn        *float64
	MAhOut       *float64
	TemperatureC *float64
	RestedMin    *float64
}

// RowError says what is wrong with one line.
type RowError = table.RowError

// ErrColumns is wrapped when the first line does not name usable columns.
var ErrColumns = errors.New("columns not usable")

// column is one column of the file: what it holds and the factor to our unit.
type column struct {
	name   string
	field  string // time, pack, cell, ohm, or a plain number
	cell   int    // from 0
	factor float64
	offset float64
}

var cellName = regexp.MustCompile(`^cell_([0-9]{1,2})_([a-z]+)$`)

var plain = map[string]column{
	"start_percent": {field: "start", factor: 1}, "end_percent": {field: "end", factor: 1}, "rested_min": {field: "rested",
		factor: 1}, "rested_h": {field: "rested", factor: 60},
	"mah_in": {field: "in", factor: 1}, "ah_in": {field: "in", factor: 1000}, "mah_out": {field: "out",
		factor: 1}, "ah_out": {field: "out", factor: 1000},
	"temperature_c": {field: "temperature", factor: 1}, "temperature_f": {field: "temperature", factor: 5.0 / 9,
		offset: -32},
	"time": {field: "time"}, "pack": {field: "pack"},
}

func parseColumn(name string) (column, error) {
	name = strings.ToLower(strings.TrimSpace(strings.TrimPrefix(name, "\ufeff")))
	if c, ok := plain[name]; ok {
		c.name = name
		return c, nil
	}
	m := cellName.FindStringSubmatch(name)
	if m == nil {
		return column{}, why.Not(ErrColumns, "%q is not known; see the form of this file in the manual", name)
	}
	n, err := strconv.Atoi(m[1])
	if err != nil || n < 1 || n > 24 {
		return column{}, why.Not(ErrColumns, "%q: cells count from 1 to 24", name)
	}
	c := column{name: name, cell: n - 1}
	switch m[2] {
	case "mv":
		c.field, c.factor = "cell", 1
	case "v":
		c.field, c.factor = "cell", 1000
	case "mohm":
		c.field, c.factor = "ohm", 1
	case "ohm":
		c.field, c.factor = "ohm", 1000
	default:
		return column{}, why.Not(ErrColumns, "%q: the unit is none of mv, v, mohm, ohm", name)
	}
	return c, nil
}

// Read reads a file. Lines that cannot be used are named in bad; the rest
// still counts. err is for a file that cannot be read at all and wraps
// ErrColumns when its first line is at fault.
func Read(r io.Reader) (rows []Row, bad []*RowError, err error) {
	t, err := table.NewReader(r)
	if err != nil {
		return nil, nil, why.Not(ErrColumns, "%w", err)
	}
	cols, err := columns(t.Columns())
	if err != nil {
		return nil, nil, err
	}
	names := t.Columns()
	err = t.Each(func(line int, get func(string) string) *RowError {
		rec := make([]string, len(names))
		for i, n := range names {
			rec[i] = get(n)
		}
		row, rerr := parse(cols, rec)
		if rerr != nil {
			return rerr
		}
		row.Line = line
		rows = append(rows, row)
		return nil
	})
	if err != nil {
		return nil, nil, err
	}
	return rows, t.Bad(), nil
}

func columns(head []string) ([]column, error) {
	var cols []column
	seen := map[string]bool{}
	for _, h := range head {
		c, err := parseColumn(h)
		if err != nil {
			return nil, err
		}
		key := fmt.Sprint(c.field, c.cell)
		if seen[key] {
			return nil, why.Not(ErrColumns, "%q is there twice, or the same in another unit", c.name)
		}
		seen[key] = true
		cols = append(cols, c)
	}
	has := func(f string) bool { return slices.ContainsFunc(cols, func(c column) bool { return c.field == f }) }
	if !has("time") || !has("pack") {
		return nil, why.Not(ErrColumns, "there must be columns time and pack")
	}
	if !has("cell") && !has("ohm") && !has("in") && !has("out") {
		return nil, why.Not(ErrColumns, "there is nothing measured: cells, resistances or charge")
	}
	return cols, nil
}

func parse(cols []column, rec []string) (Row, *RowError) {
	var r Row
	cells, ohms := map[int]float64{}, map[int]float64{}
	fail := func(c column, format string, a ...any) (Row, *RowError) {
		return Row{}, &RowError{Column: c.name, Err: fmt.Errorf(format, a...)}
	}
	for i, c := range cols {
		text := strings.TrimSpace(rec[i])
		switch c.field {
		case "time":
			at, err := time.Parse(time.RFC3339, text)
			if err != nil || at.Year() < 2000 || at.Year() > 2100 {
				return fail(c, "is not a time like 2026-03-01T14:05:00Z")
			}
			r.At = at.UTC()
			continue
		case "pack":
			if r.Pack = text; text == "" || len(text) > 60 {
				return fail(c, "is empty or too long")
			}
			continue
		}
		if text == "" {
			continue
		}
		v, err := strconv.ParseFloat(text, 64)
		if err != nil || math.IsNaN(v) || math.IsInf(v, 0) {
			return fail(c, "%q is not a number with a decimal point", text)
		}
		v = (v + c.offset) * c.factor
		switch c.field {
		case "cell":
			if v < 500 || v > 5000 {
				return fail(c, "%s is not the voltage of a cell; look at the unit in the column's name", text)
			}
			cells[c.cell] = math.Round(v)
		case "ohm":
			if v <= 0 || v > 1000 {
				return fail(c, "%s is not the resistance of a cell; look at the unit in the column's name", text)
			}
			ohms[c.cell] = v
		default:
			if rerr := r.number(c, v, text); rerr != nil {
				return Row{}, rerr
			}
		}
	}
	var rerr *RowError
	if r.MilliOhm, rerr = whole(ohms, "resistance"); rerr != nil {
		return Row{}, rerr
	}
	mv, rerr := whole(cells, "voltage")
	if rerr != nil {
		return Row{}, rerr
	}
	for _, v := range mv {
		r.CellMV = append(r.CellMV, int(v))
	}
	if len(r.CellMV) > 0 && len(r.MilliOhm) > 0 && len(r.CellMV) != len(r.MilliOhm) {
		return Row{}, &RowError{Column: "cells", Err: fmt.Errorf("%d voltages and %d resistances", len(r.CellMV),
			len(r.MilliOhm))}
	}
	if len(r.CellMV) == 0 && len(r.MilliOhm) == 0 && r.MAhIn == nil && r.MAhOut == nil {
		return Row{}, &RowError{Column: "line", Err: errors.New("holds nothing measured")}
	}
	return r, nil
}

func (r *Row) number(c column, v float64, text string) *RowError {
	limits := map[string]struct {
		into   **float64
		lo, hi float64
	}{"start": {&r.StartPercent, 0, 100}, "end": {&r.EndPercent, 0, 100}, "in": {&r.MAhIn, 0, 400000}, "out": {&r.MAhOut,
		0, 400000}, "temperature": {&r.TemperatureC, -40, 120}, "rested": {&r.RestedMin, 0, 1000000}}
	l := limits[c.field]
	if v < l.lo || v > l.hi {
		return &RowError{Column: c.name, Err: fmt.Errorf("%s is out of range", text)}
	}
	*l.into = &v
	return nil
}

// whole makes a row of cells without a gap.
func whole(m map[int]float64, what string) ([]float64, *RowError) {
	var out []float64
	for i := range len(m) {
		v, ok := m[i]
		if !ok {
			return nil, &RowError{Column: fmt.Sprintf("cell %d", i+1),
				Err: fmt.Errorf("has no %s, though a later cell has", what)}
		}
		out = append(out, v)
	}
	return out, nil
}
