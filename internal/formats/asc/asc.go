// Package asc reads terrain from an ASCII grid: a head with ncols, nrows,
// xllcorner or xllcenter, yllcorner or yllcenter, cellsize and NODATA_value,
// then the elevations in metres, the northernmost row first. The corner and the
// cell are degrees of WGS 84.
package asc

import (
	"bufio"
	"errors"
	"fmt"
	"io"
	"math"
	"strconv"
	"strings"

	"mainstay/core/geo"
	"mainstay/core/why"
)

// MaxBytes and MaxCells bound what is read.
const (
	MaxBytes = 32 << 20
	MaxCells = 4_000_000
)

// ErrGrid is wrapped by every refusal.
var ErrGrid = errors.New("terrain not usable")

// Grid is terrain in degrees, rows from south to north.
type Grid struct {
	SouthWest     geo.Point // centre of the cell
	CellDeg       float64
	Columns, Rows int
	Heights       []float32 // NaN: a gap
	Gaps          int
}

// Read reads a grid.
func Read(r io.Reader) (Grid, error) {
	limited := &io.LimitedReader{R: r, N: MaxBytes + 1}
	s := bufio.NewScanner(limited)
	s.Buffer(make([]byte, 64<<10), 1<<20)
	s.Split(bufio.ScanWords)
	head, first, err := header(s)
	if err != nil {
		return Grid{}, err
	}
	g, noData, err := fromHead(head)
	if err != nil {
		return Grid{}, err
	}
	g.Heights = make([]float32, g.Columns*g.Rows)
	word := first
	for i := range g.Heights {
		if i > 0 {
			if !s.Scan() {
				return Grid{}, short(limited, fmt.Sprintf("it ends after %d of %d elevations", i, len(g.Heights)))
			}
			word = s.Text()
		}
		v, err := strconv.ParseFloat(word, 32)
		if err != nil {
			return Grid{}, why.Not(ErrGrid, "elevation %d, %q, is not a number", i+1, clip(word))
		}
		row, col := g.Rows-1-i/g.Columns, i%g.Columns
		if v == noData || math.IsNaN(v) {
			v = math.NaN()
			g.Gaps++
		} else if v < -500 || v > 9000 {
			return Grid{}, why.Not(ErrGrid, "elevation %g m is none on this earth; are they metres, and is the gap value named?",
				v)
		}
		g.Heights[row*g.Columns+col] = float32(v)
	}
	if s.Scan() {
		return Grid{}, why.Not(ErrGrid, "it has more elevations than %d columns and %d rows hold", g.Columns, g.Rows)
	}
	if g.Gaps == len(g.Heights) {
		return Grid{}, why.Not(ErrGrid, "every elevation is a gap")
	}
	return g, nil
}

func short(l *io.LimitedReader, reason string) error {
	if l.N <= 0 {
		reason = fmt.Sprintf("it is larger than %d MB", MaxBytes>>20)
	}
	return why.Not(ErrGrid, "%s", reason)
}

func clip(s string) string {
	if len(s) > 20 {
		return s[:20] + "..."
	}
	return s
}

// header reads names and values until the first number that stands where a name
// should.
func header(s *bufio.Scanner) (map[string]float64, string, error) {
	head := map[string]float64{}
	for range 8 {
		if !s.Scan() {
			return nil, "", why.Not(ErrGrid, "it has no grid")
		}
		name := strings.ToLower(s.Text())
		if _, err := strconv.ParseFloat(name, 64); err == nil && name != "nan" {
			return head, name, nil
		}
		if !s.Scan() {
			return nil, "", why.Not(ErrGrid, "%s has no value", clip(name))
		}
		v, err := strconv.ParseFloat(s.Text(), 64)
		if err != nil {
			return nil, "", why.Not(ErrGrid, "%s %q is not a number", clip(name), clip(s.Text()))
		}
		head[name] = v
	}
	return nil, "", why.Not(ErrGrid, "its head is too long")
}

func fromHead(head map[string]float64) (Grid, float64, error) {
	noData := -9999.0
	if v, ok := head["nodata_value"]; ok {
		noData = v
	}
	g := Grid{CellDeg: head["cellsize"]}
	cols, rows := head["ncols"], head["nrows"]
	x, okX := head["xllcenter"]
	y, okY := head["yllcenter"]
	if !okX {
		if x, okX = head["xllcorner"]; okX {
			x += g.CellDeg / 2
		}
	}
	if !okY {
		if y, okY = head["yllcorner"]; okY {
			y += g.CellDeg / 2
		}
	}
	switch {
	case !(cols >= 2 && rows >= 2) || cols != math.Trunc(cols) || rows != math.Trunc(rows):
		return g, 0, why.Not(ErrGrid, "ncols and nrows must be whole numbers from 2")
	case cols*rows > MaxCells:
		return g, 0, why.Not(ErrGrid, "it has over %d cells; cut out the site", MaxCells)
	case !okX || !okY || !(g.CellDeg > 0):
		return g, 0, why.Not(ErrGrid, "the head needs xllcorner, yllcorner and cellsize")
	case math.Abs(x) > 180 || math.Abs(y) > 90 || g.CellDeg > 0.1:
		return g, 0, why.Not(ErrGrid,
			"corner and cell look like metres of a map projection; degrees of WGS 84 are read. Convert it first")
	}
	g.SouthWest, g.Columns, g.Rows = geo.Point{Lat: y, Lon: x}, int(cols), int(rows)
	if err := g.SouthWest.Check(); err != nil {
		return g, 0, why.Not(ErrGrid, "%w", err)
	}
	return g, noData, nil
}

// At is the elevation of the cell at a place; ok is false outside and in gaps.
func (g Grid) At(p geo.Point) (float64, bool) {
	c, r := int(math.Floor((p.Lon-g.SouthWest.Lon)/g.CellDeg+0.5)), int(math.Floor((p.Lat-g.SouthWest.Lat)/g.CellDeg+0.5))
	if c < 0 || r < 0 || c >= g.Columns || r >= g.Rows {
		return 0, false
	}
	v := float64(g.Heights[r*g.Columns+c])
	return v, !math.IsNaN(v)
}
