package survey

import (
	"cmp"
	"errors"
	"math"
	"slices"

	"mainstay/core/geo"
)

// ShortestPiece is the shortest piece of a line that is flown, m.
const ShortestPiece = 1.0

// Piece is a straight piece of a line, flown with the camera running.
type Piece struct {
	Line     int    `json:"line"` // counted from one side; pieces of one line share it
	From     geo.XY `json:"from"`
	To       geo.XY `json:"to"`
	Pictures int    `json:"pictures"`
	// Via is flown through to it from the line before, round what is forbidden.
	Via []geo.XY `json:"via,omitempty"`
}

// Length is the length of a piece, m.
func (p Piece) Length() float64 { return geo.Dist(p.From, p.To) }

// Back is the piece flown the other way.
func (p Piece) Back() Piece {
	p.From, p.To, p.Via = p.To, p.From, nil
	return p
}

// Shots are the places of its pictures: evenly, one at each end.
func (p Piece) Shots() []geo.XY {
	out := make([]geo.XY, 0, p.Pictures)
	for i := range p.Pictures {
		k := 0.0
		if p.Pictures > 1 {
			k = float64(i) / float64(p.Pictures-1)
		}
		out = append(out, p.From.Add(p.To.Sub(p.From).Times(k)))
	}
	return out
}

// Hatch is an area covered by parallel lines.
type Hatch struct {
	BearingDeg float64
	SpacingM   float64
	PicturesM  float64
	Pieces     []Piece
	Lines      int
}

// Hatch covers an area grown by buffer with ceil(width/spacing) lines at the exact
// spacing, centred; each piece is given as flown along the bearing. Valid: spacing
// 0.1-5000 m, buffer 0-500 m. Errors wrap ErrInput.
func (a Area) Hatch(bearing, spacing, pictures, buffer float64) (Hatch, error) {
	h := Hatch{BearingDeg: bearing, SpacingM: spacing, PicturesM: pictures, Pieces: []Piece{}}
	if err := errors.Join(a.Check(), within("bearing", bearing, 0, 360), within("buffer", buffer, 0, MostBuffer),
		within("spacing of pictures", pictures, 0.01, 5000)); err != nil {
		return h, err
	}
	f := a.turned(bearing, buffer)
	n, err := Lines(f.outline.high-f.outline.low, spacing)
	if err != nil {
		return h, err
	}
	if err := within("the number of lines", float64(n), 0, MostLines); err != nil {
		return h, err
	}
	middle := (f.outline.low + f.outline.high) / 2
	for i := range n {
		y := middle + (float64(i)-float64(n-1)/2)*spacing
		any := false
		for _, s := range f.at(y) {
			if s.to-s.from < ShortestPiece {
				continue
			}
			count, err := Pictures(s.to-s.from, pictures)
			if err != nil {
				return h, err
			}
			h.Pieces = append(h.Pieces, Piece{Line: i, From: f.turn.From(geo.XY{X: s.from, Y: y}),
				To: f.turn.From(geo.XY{X: s.to, Y: y}), Pictures: count})
			any = true
		}
		if any {
			h.Lines++
		}
	}
	return h, nil
}

// mostSides is how many sides of a hull are tried, the longest: a round area has hundreds,
// and none of them is better than its neighbours.
const mostSides = 24

// BestBearing is the direction of the lines with the fewest pieces, degrees true under
// 180: tried are the sides of the hull and their normals; a tie goes to the narrower
// hull, then to the smaller bearing.
func (a Area) BestBearing(spacing, buffer float64) (float64, error) {
	if err := a.Check(); err != nil {
		return 0, err
	}
	hull := geo.Hull(a.Outline)
	best, pieces, width := 0.0, math.MaxInt, math.Inf(1)
	tried := map[int]bool{}
	var sides []geo.XY
	for i := range hull {
		sides = append(sides, hull[(i+1)%len(hull)].Sub(hull[i]))
	}
	slices.SortStableFunc(sides, func(a, b geo.XY) int { return cmp.Compare(b.Len(), a.Len()) })
	for _, d := range sides[:min(len(sides), mostSides)] {
		for _, turn := range [2]float64{0, 90} {
			b := math.Mod(math.Atan2(d.X, d.Y)*180/math.Pi+turn+720, 180)
			key := int(math.Round(b*10)) % 1800
			if tried[key] {
				continue
			}
			tried[key] = true
			h, err := a.Hatch(b, spacing, spacing, buffer)
			if err != nil {
				return 0, err
			}
			n := len(h.Pieces)
			if n == 0 {
				continue
			}
			lo, hi := extentAlong(hull, b)
			w := hi - lo
			if n < pieces || n == pieces && (w < width-0.01 || w < width+0.01 && b < best) {
				best, pieces, width = b, n, w
			}
		}
	}
	return best, nil
}

// extentAlong is how wide places lie across a bearing.
func extentAlong(ps []geo.XY, bearing float64) (lo, hi float64) {
	t := geo.TurnedTo(bearing)
	lo, hi = math.Inf(1), math.Inf(-1)
	for _, p := range ps {
		y := t.To(p).Y
		lo, hi = min(lo, y), max(hi, y)
	}
	return lo, hi
}

// InOrder are pieces as they are flown, to and fro. skip is how many lines lie between
// one and the next, for a wing that cannot turn in one spacing; 1 takes every line.
func InOrder(pieces []Piece, skip int) []Piece {
	var lines [][]Piece
	for _, p := range pieces {
		if n := len(lines); n > 0 && lines[n-1][0].Line == p.Line {
			lines[n-1] = append(lines[n-1], p)
			continue
		}
		lines = append(lines, []Piece{p})
	}
	skip = min(max(1, skip), max(1, len(lines)))
	out := make([]Piece, 0, len(pieces))
	back := false
	for first := range skip {
		for i := first; i < len(lines); i += skip {
			l := lines[i]
			for k := range l {
				if back {
					out = append(out, l[len(l)-1-k].Back())
				} else {
					out = append(out, l[k])
				}
			}
			back = !back
		}
	}
	return out
}
