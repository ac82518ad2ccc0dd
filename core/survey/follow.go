package survey

import (
	"fmt"
	"math"

	"mainstay/core/geo"
	"mainstay/core/home"
)

// mostStations bounds the places that a piece is followed by.
const mostStations = 400

// follow lays the heights of a flight over the ground, where that is wished: at every
// station HeightM over the highest ground beside it, raised where the aircraft could not
// climb or sink as steeply; never lower.
func (f *filling) follow() {
	if f.w.Relief != Follow {
		return
	}
	up, down := f.g.Model.ClimbMS/f.w.SpeedMS, f.g.Model.DescentMS/f.w.SpeedMS
	for _, x := range f.now.Pieces {
		way, most := Following(f.g.Terrain, x.From, x.To, Reach{
			HeightM: f.p.HeightM, AsideM: f.p.LinesM / 2, LevelM: f.g.Start.ElevM, Up: up, Down: down,
		})
		f.now.Ways = append(f.now.Ways, way)
		f.now.MostOverM = max(f.now.MostOverM, most)
	}
}

// Reach is how a leg keeps over the ground.
type Reach struct {
	HeightM  float64 // over the highest ground
	AsideM   float64 // as far beside the leg
	LevelM   float64 // elevation that counts where the ground is not known
	Up, Down float64 // the most it rises and falls, m per m
}

// Following is a leg that keeps over the ground; most is its greatest height over it.
func Following(t *home.Terrain, from, to geo.XY, r Reach) (way []home.Place3, most float64) {
	long := geo.Dist(from, to)
	step := leastStepM / 2
	if t != nil {
		step = max(t.CellM, 5)
	}
	n := min(mostStations, max(1, int(math.Ceil(long/step))))
	way = make([]home.Place3, n+1)
	ground := make([]home.Under, n)
	at := func(k int) geo.XY { return from.Add(to.Sub(from).Times(float64(k) / float64(n))) }
	for k := range n {
		ground[k] = t.UnderShape(home.LineKind, []geo.XY{at(k), at(k + 1)}, r.AsideM)
		if math.IsInf(ground[k].HighM, 0) {
			ground[k].HighM, ground[k].LowM = r.LevelM, r.LevelM
		}
	}
	for k := range way {
		m := ground[min(k, n-1)].HighM
		if k > 0 {
			m = max(m, ground[k-1].HighM)
		}
		way[k] = home.Place3{At: at(k), M: m + r.HeightM}
	}
	d := long / float64(n)
	for k := 1; k <= n; k++ {
		way[k].M = max(way[k].M, way[k-1].M-r.Down*d)
		way[n-k].M = max(way[n-k].M, way[n-k+1].M-r.Up*d)
	}
	for k := range n {
		most = max(most, max(way[k].M, way[k+1].M)-ground[k].LowM)
	}
	return way, most
}

// stretches are the parts of a corridor: as much of the line as differs by at most
// MostReliefM, one after the other.
func (p *Plan) stretches(w Wish, g Given, c Camera, h Hatch) error {
	line := cleanLegs(g.Line)
	fine := []geo.XY{line[0]}
	for i := 1; i < len(line); i++ {
		n := max(1, int(math.Ceil(geo.Dist(line[i-1], line[i])/max(leastStepM, stepPictures*p.PicturesM))))
		for k := 1; k <= n; k++ {
			fine = append(fine, line[i-1].Add(line[i].Sub(line[i-1]).Times(float64(k)/float64(n))))
		}
	}
	reach := w.WidthM/2 + p.LinesM/2
	add := func(from, to int, low, high float64, known bool) error {
		x := Part{LowM: low, HighM: high, Known: known, Pieces: h.Pieces}
		if from > 0 || to < len(fine)-1 {
			part, err := Corridor(bends(fine[from:to+1]), w.WidthM, p.LinesM, p.PicturesM, p.BufferM)
			if err != nil {
				return err
			}
			x.Pieces = part.Pieces
		}
		return p.part(w, g, c, x)
	}
	from, low, high, known := 0, math.Inf(1), math.Inf(-1), true
	for i := 0; i+1 < len(fine); i++ {
		u := g.Terrain.UnderShape(home.LineKind, fine[i:i+2], reach)
		if w.Relief == Split && i > from && max(high, u.HighM)-min(low, u.LowM) > MostReliefM {
			if err := add(from, i, low, high, known); err != nil {
				return err
			}
			from, low, high, known = i, math.Inf(1), math.Inf(-1), true
		}
		if w.Relief == Split && u.HighM-u.LowM > MostReliefM {
			p.tooRough()
		}
		low, high, known = min(low, u.LowM), max(high, u.HighM), known && u.Known
	}
	return add(from, len(fine)-1, low, high, known)
}

// bends drops the places of a line that lie straight between their neighbours.
func bends(line []geo.XY) []geo.XY {
	out := []geo.XY{line[0]}
	for i := 1; i+1 < len(line); i++ {
		if q, _ := geo.Nearest(line[i], out[len(out)-1], line[i+1]); geo.Dist(q, line[i]) > 0.01 {
			out = append(out, line[i])
		}
	}
	return append(out, line[len(line)-1])
}

// nearM is how far from a part its take-off place may lie, m.
const nearM = 1500.0

// advise picks the highest take-off place near a part that may be used.
func advise(x Part, g Given) Advice {
	best, far := -1, 0.0
	for i, s := range g.Places {
		d := math.Inf(1)
		for _, k := range x.Pieces {
			q, _ := geo.Nearest(s.At, k.From, k.To)
			d = min(d, geo.Dist(q, s.At))
		}
		if s.Why != "" || !s.Known || d > nearM {
			continue
		}
		if best < 0 || s.ElevM > g.Places[best].ElevM+0.5 || s.ElevM > g.Places[best].ElevM-0.5 && d < far {
			best, far = i, d
		}
	}
	if best >= 0 {
		s := g.Places[best]
		a := Advice{ID: s.ID, Name: s.Name, At: s.At, ElevM: s.ElevM, HeightM: x.LevelM - s.ElevM}
		a.Sentence = fmt.Sprintf("Take off at %s, the highest place near this part that may be used: it flies %.0f m over it.",
			s.Name, a.HeightM)
		return a
	}
	// Heights count from where it is charted that somebody takes off; nothing is made up.
	a := Advice{Name: g.Start.Name, ID: g.Start.ID, At: g.Start.At, ElevM: g.Start.ElevM,
		HeightM: x.LevelM - g.Start.ElevM,
		Sentence: fmt.Sprintf("No take-off place on the map lies within %.1f km of this part and may be used: heights count from %s.",
			nearM/1000, g.Start.Name)}
	top := math.Inf(-1)
	for _, k := range x.Pieces {
		for i := range 9 {
			q := k.From.Add(k.To.Sub(k.From).Times(float64(i) / 8))
			if v, ok := g.Terrain.At(q); ok && v > top {
				top, a.Top = v, &q
			}
		}
	}
	if a.Top != nil {
		a.Sentence += fmt.Sprintf(" Its highest ground, %.0f m, is marked: chart a place there, and look at it first.", top)
	}
	return a
}
