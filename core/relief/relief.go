// Package relief draws the ground: its contours and the shade of its slopes, as
// topographic maps have them.
package relief

import (
	"image"
	"image/color"
	"math"

	"mainstay/core/geo"
	"mainstay/core/home"
)

// Most is the most cells along one side that are drawn; a finer grid is thinned.
const Most = 240

// Ground is a grid as it is drawn: rows from south to north, metres, NaN where
// nobody knows.
type Ground struct {
	Origin        geo.XY // centre of the south-west cell
	CellM         float64
	Columns, Rows int
	heights       []float32
	LowM, HighM   float64 // elevations; NaN without any
}

// Of takes the ground from a terrain within reach of the frame's origin, m, or two of
// its cells where they are larger, and thins it to at most Most cells a side.
func Of(t *home.Terrain, reachM float64) Ground {
	if !(reachM > 2*t.CellM) { // also what is no number
		reachM = 2 * t.CellM
	}
	first := func(o float64) int { return max(0, int(math.Ceil((-reachM-o)/t.CellM))) }
	last := func(o float64, n int) int { return min(n-1, int(math.Floor((reachM-o)/t.CellM))) }
	c0, c1 := first(t.Origin.X), last(t.Origin.X, t.Columns)
	r0, r1 := first(t.Origin.Y), last(t.Origin.Y, t.Rows)
	step := max(1, (max(c1-c0, r1-r0)+Most)/Most)
	g := Ground{Origin: t.Origin.Add(geo.XY{X: float64(c0) * t.CellM, Y: float64(r0) * t.CellM}),
		CellM: t.CellM * float64(step), LowM: math.NaN(), HighM: math.NaN()}
	for r := r0; r <= r1; r += step {
		g.Rows++
		for c := c0; c <= c1; c += step {
			h := t.Heights[r*t.Columns+c]
			g.heights = append(g.heights, h)
			if v := float64(h); !math.IsNaN(v) {
				g.LowM, g.HighM = fmin(g.LowM, v), fmax(g.HighM, v)
			}
		}
	}
	if g.Rows > 0 {
		g.Columns = len(g.heights) / g.Rows
	}
	return g
}

func fmin(a, b float64) float64 {
	if math.IsNaN(a) {
		return b
	}
	return min(a, b)
}

func fmax(a, b float64) float64 {
	if math.IsNaN(a) {
		return b
	}
	return max(a, b)
}

func (g Ground) at(c, r int) float64 { return float64(g.heights[r*g.Columns+c]) }

func (g Ground) place(c, r int) geo.XY {
	return g.Origin.Add(geo.XY{X: float64(c) * g.CellM, Y: float64(r) * g.CellM})
}

// Drawable tells whether there is anything to draw: at least two cells each way.
func (g Ground) Drawable() bool { return g.Columns > 1 && g.Rows > 1 }

// Step is how far contours lie apart, m: of 1, 2 or 5 times a power of ten the
// least that gives at most ten.
func (g Ground) Step() float64 {
	rise := g.HighM - g.LowM
	if !(rise > 0) {
		return 1
	}
	p := math.Pow(10, math.Floor(math.Log10(rise/10)))
	for _, k := range []float64{1, 2, 5} {
		if rise/(k*p) <= 10 {
			return max(k*p, 0.5)
		}
	}
	return max(10*p, 0.5)
}

// Light is the sun of the shade: from the north-west, half way up, as on printed
// maps.
const (
	lightAzimuth  = 315 * math.Pi / 180
	lightAltitude = 45 * math.Pi / 180
)

// Shade is how bright each cell is, 0 to 1, by the slope of its four neighbours
// (a flat cell has the sine of the sun's height); NaN at a gap. exaggerate makes
// slopes steeper, so that gentle ground is seen at all.
func (g Ground) Shade(c, r int, exaggerate float64) float64 {
	if math.IsNaN(g.at(c, r)) {
		return math.NaN()
	}
	slope := func(c0, r0, c1, r1 int) float64 {
		a, b := g.at(c0, r0), g.at(c1, r1)
		cells := math.Abs(float64(c1-c0)) + math.Abs(float64(r1-r0))
		if math.IsNaN(a) || math.IsNaN(b) || cells == 0 {
			return 0
		}
		return exaggerate * (b - a) / (cells * g.CellM)
	}
	east := slope(max(c-1, 0), r, min(c+1, g.Columns-1), r)
	north := slope(c, max(r-1, 0), c, min(r+1, g.Rows-1))
	// The normal of the ground against the direction of the light.
	lx, ly := math.Sin(lightAzimuth)*math.Cos(lightAltitude), math.Cos(lightAzimuth)*math.Cos(lightAltitude)
	return max(0, (-east*lx-north*ly+math.Sin(lightAltitude))/math.Sqrt(1+east*east+north*north))
}

// Picture is the shade as a picture with north up, one pixel a cell: dark where
// the ground turns away from the light, bright where it turns to it, clear where it
// is level or not known.
func (g Ground) Picture() image.Image {
	img := image.NewNRGBA(image.Rect(0, 0, g.Columns, g.Rows))
	g = g.smoothed()
	steep := g.exaggeration()
	flat := math.Sin(lightAltitude)
	for r := range g.Rows {
		for c := range g.Columns {
			s := g.Shade(c, r, steep)
			if math.IsNaN(s) {
				continue
			}
			d := (s - flat) / flat
			px := color.NRGBA{A: uint8(math.Round(150 * min(1, math.Abs(d))))}
			if d > 0 {
				px.R, px.G, px.B = 255, 255, 255
			}
			img.SetNRGBA(c, g.Rows-1-r, px)
		}
	}
	return img
}

// smoothed is the ground with each cell the mean of those round it, twice: grids
// come in whole decimetres, whose steps would be drawn as furrows.
func (g Ground) smoothed() Ground {
	for range 2 {
		next := make([]float32, len(g.heights))
		for r := range g.Rows {
			for c := range g.Columns {
				next[r*g.Columns+c] = g.mean(c, r)
			}
		}
		g.heights = next
	}
	return g
}

// mean is that of the cells within two of one; a gap stays one.
func (g Ground) mean(c, r int) float32 {
	if math.IsNaN(g.at(c, r)) {
		return float32(math.NaN())
	}
	sum, n := 0.0, 0
	for y := max(r-2, 0); y <= min(r+2, g.Rows-1); y++ {
		for x := max(c-2, 0); x <= min(c+2, g.Columns-1); x++ {
			if v := g.at(x, y); !math.IsNaN(v) {
				sum, n = sum+v, n+1
			}
		}
	}
	return float32(sum / float64(n))
}

// exaggeration makes the usual slope of the ground about one in two.
func (g Ground) exaggeration() float64 {
	sum, n := 0.0, 0
	for r := range g.Rows {
		for c := 1; c < g.Columns; c++ {
			if d := g.at(c, r) - g.at(c-1, r); !math.IsNaN(d) {
				sum, n = sum+math.Abs(d)/g.CellM, n+1
			}
		}
	}
	if n == 0 || sum == 0 {
		return 1
	}
	return min(max(0.5/(sum/float64(n)), 1), 12)
}
