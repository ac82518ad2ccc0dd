package survey

import (
	"cmp"
	"errors"
	"fmt"
	"math"
	"slices"
	"time"

	"mainstay/core/geo"
	"mainstay/core/judge"
)

// GapSpacings is how many spacings two pictures of a line may lie apart (usual practice).
const GapSpacings = 1.5

// MostShots bounds what is judged at once.
const MostShots = 50_000

// mapCells bounds the sides of the overlap map.
const mapCells = 160

// Shot is a picture as it was taken.
type Shot struct {
	Name string
	At   *geo.XY   // nil: it carries no place
	Time time.Time // zero: it carries none
}

// Gap is a stretch of a piece without a picture.
type Gap struct {
	Piece int      `json:"piece"` // index of the planned pieces
	From  geo.XY   `json:"from"`
	To    geo.XY   `json:"to"`
	LongM float64  `json:"long_m"`
	Ring  geo.Ring `json:"ring"` // the ground that only this stretch shows in full
}

// Overlap is how many pictures show the ground, by square cell, rows from south to north.
type Overlap struct {
	Origin  geo.XY  `json:"origin"` // south-west corner
	CellM   float64 `json:"cell_m"`
	Columns int     `json:"columns"`
	Rows    int     `json:"rows"`
	Views   []int   `json:"views"` // -1: outside of what was wanted
}

// Taken is what was pictured of what was planned.
type Taken struct {
	Planned  int            `json:"planned"`
	Count    int            `json:"count"`    // of all pictures
	Placed   int            `json:"placed"`   // with a place
	OnLines  int            `json:"on_lines"` // that lie on a planned line
	Gaps     []Gap          `json:"gaps"`
	GapHa    float64        `json:"gap_ha"`
	Overlap  Overlap        `json:"overlap"`
	Views    int            `json:"views"`   // wanted of each place
	LeastOf  int            `json:"least"`   // least that a place of the area lies in
	ThinHa   float64        `json:"thin_ha"` // in fewer than wanted
	Verdict  judge.Verdict  `json:"verdict"`
	Findings []judge.Broken `json:"findings"`
}

// Look holds pictures against the pieces of a flight: how many there are, stretches of a
// line longer than 1.5 spacings without one, and how often the ground was really seen. A
// picture belongs to the nearest piece within half a spacing of it. area is what was
// wanted; nil counts round the pieces alone. Errors wrap ErrInput.
func (p *Plan) Look(pieces []Piece, shots []Shot, area *Area) (Taken, error) {
	t := Taken{Count: len(shots), Gaps: []Gap{}, Findings: []judge.Broken{}, Views: p.Views}
	if err := errors.Join(within("the number of pictures", float64(len(shots)), 0, MostShots),
		within("the number of lines", float64(len(pieces)), 1, MostLines),
		within("spacing of pictures", p.PicturesM, 0.01, 5000),
		within("spacing of lines", p.LinesM, 0.01, 5000)); err != nil {
		return t, err
	}
	on := make([][]float64, len(pieces))
	var placed []placedShot
	for _, s := range shots {
		if s.At == nil {
			continue
		}
		if err := geo.Finite(*s.At); err != nil {
			return t, errors.Join(ErrInput, fmt.Errorf("picture %s: %w", s.Name, err))
		}
		t.Placed++
		best, at, away := -1, 0.0, math.Inf(1)
		for i, x := range pieces {
			q, k := geo.Nearest(*s.At, x.From, x.To)
			if d := geo.Dist(q, *s.At); d < away {
				best, at, away = i, k, d
			}
		}
		if away <= p.LinesM/2 {
			on[best] = append(on[best], at*pieces[best].Length())
			t.OnLines++
			placed = append(placed, placedShot{*s.At, best})
		}
	}
	for i, x := range pieces {
		t.Planned += x.Pictures
		p.gaps(&t, i, x, on[i])
	}
	p.overlap(&t, pieces, placed, area)
	t.judge()
	return t, nil
}

type placedShot struct {
	at    geo.XY
	piece int
}

// gaps finds the stretches of a piece that no picture was taken along.
func (p *Plan) gaps(t *Taken, i int, x Piece, at []float64) {
	slices.Sort(at)
	long := x.Length()
	spacing := p.PicturesM
	if n := x.Pictures - 1; n > 0 {
		spacing = min(spacing, long/float64(n))
	}
	add := func(from, to float64) {
		d := x.To.Sub(x.From).Times(1 / max(long, 1e-9))
		g := Gap{Piece: i, From: x.From.Add(d.Times(from)), To: x.From.Add(d.Times(to)), LongM: to - from}
		side := geo.XY{X: d.Y, Y: -d.X}.Times(p.LinesM / 2)
		g.Ring = geo.Ring{g.From.Add(side), g.From.Sub(side), g.To.Sub(side), g.To.Add(side)}
		t.GapHa += math.Abs(g.Ring.Area()) / 1e4
		t.Gaps = append(t.Gaps, g)
	}
	if len(at) == 0 {
		add(0, long)
		return
	}
	most := GapSpacings*spacing + 0.05
	if at[0] > most-spacing/2 { // a picture at the very end was planned
		add(0, at[0])
	}
	for k := 1; k < len(at); k++ {
		if at[k]-at[k-1] > most {
			add(at[k-1], at[k])
		}
	}
	if last := at[len(at)-1]; long-last > most-spacing/2 {
		add(last, long)
	}
}

// overlap counts in how many pictures each place of the area lies.
func (p *Plan) overlap(t *Taken, pieces []Piece, placed []placedShot, area *Area) {
	var all []geo.XY
	if area != nil {
		all = area.Outline
	} else {
		for _, x := range pieces {
			all = append(all, x.From, x.To)
		}
	}
	lo, hi := extent(all)
	if area == nil {
		half := geo.XY{X: p.LinesM / 2, Y: p.LinesM / 2}
		lo, hi = lo.Sub(half), hi.Add(half)
	}
	cell := max((hi.X-lo.X)/mapCells, (hi.Y-lo.Y)/mapCells, p.PicturesM/4, 0.5)
	o := Overlap{Origin: lo, CellM: cell, Columns: max(1, int(math.Ceil((hi.X-lo.X)/cell))),
		Rows: max(1, int(math.Ceil((hi.Y-lo.Y)/cell)))}
	o.Views = make([]int, o.Columns*o.Rows)
	for i := range o.Views {
		c := lo.Add(geo.XY{X: (float64(i%o.Columns) + 0.5) * cell, Y: (float64(i/o.Columns) + 0.5) * cell})
		if !wanted(c, area, pieces, p.LinesM/2) {
			o.Views[i] = -1
		}
	}
	for _, s := range placed {
		x := pieces[s.piece]
		d := x.To.Sub(x.From)
		turn := geo.TurnedTo(math.Atan2(d.X, d.Y) * 180 / math.Pi)
		reach := math.Hypot(p.Picture.AcrossM, p.Picture.AlongM) / 2
		c0, c1 := max(0, int((s.at.X-reach-lo.X)/cell)), min(o.Columns-1, int((s.at.X+reach-lo.X)/cell))
		r0, r1 := max(0, int((s.at.Y-reach-lo.Y)/cell)), min(o.Rows-1, int((s.at.Y+reach-lo.Y)/cell))
		for r := r0; r <= r1; r++ {
			for c := c0; c <= c1; c++ {
				i := r*o.Columns + c
				if o.Views[i] < 0 {
					continue
				}
				q := turn.To(lo.Add(geo.XY{X: (float64(c) + 0.5) * cell, Y: (float64(r) + 0.5) * cell}).Sub(s.at))
				if math.Abs(q.X) <= p.Picture.AlongM/2 && math.Abs(q.Y) <= p.Picture.AcrossM/2 {
					o.Views[i]++
				}
			}
		}
	}
	t.LeastOf = math.MaxInt
	for _, v := range o.Views {
		if v < 0 {
			continue
		}
		t.LeastOf = min(t.LeastOf, v)
		if v < p.Views {
			t.ThinHa += cell * cell / 1e4
		}
	}
	if t.LeastOf == math.MaxInt {
		t.LeastOf = 0
	}
	t.Overlap = o
}

func wanted(c geo.XY, area *Area, pieces []Piece, reach float64) bool {
	if area == nil {
		return slices.ContainsFunc(pieces, func(x Piece) bool {
			q, _ := geo.Nearest(c, x.From, x.To)
			return geo.Dist(q, c) <= reach
		})
	}
	if !area.Outline.Holds(c) {
		return false
	}
	for _, h := range area.LeaveOut {
		if h.Holds(c) {
			return false
		}
	}
	for _, f := range area.Forbidden {
		if f.Area && geo.Ring(f.Places).Holds(c) {
			return false
		}
	}
	return true
}

// judge says what is missing.
func (t *Taken) judge() {
	say := func(v judge.Verdict, format string, a ...any) {
		t.Findings = append(t.Findings, judge.Broken{Wish: "pictures", Verdict: v, Sentence: fmt.Sprintf(format, a...)})
		t.Verdict = max(t.Verdict, v)
	}
	if t.Count == 0 {
		say(judge.Stop, "There is no picture.")
		return
	}
	if n := t.Count - t.Placed; n > 0 {
		say(judge.Watch, "%d of %d pictures carry no place: what they show is not counted. Where one may lie in a gap, look at it before that is flown again.",
			n, t.Count)
	}
	if n := t.Placed - t.OnLines; n > 0 {
		say(judge.Watch, "%d pictures lie on no planned line.", n)
	}
	if t.Count < t.Planned {
		say(judge.Watch, "%d pictures were planned; %d are there.", t.Planned, t.Count)
	}
	if n := len(t.Gaps); n > 0 {
		words, again := fmt.Sprintf("%d stretches of the lines have no picture", n), "them"
		if n == 1 {
			words, again = "1 stretch of the lines has no picture", "it"
		}
		say(judge.Stop, "%s over more than %.1f spacings, %.2f ha: fly %s again.", words, GapSpacings, t.GapHa, again)
	}
	slices.SortStableFunc(t.Findings, func(a, b judge.Broken) int { return cmp.Compare(b.Verdict, a.Verdict) })
}

// ClockOff finds by how much the clock of a camera is off, from pictures that ought to lie
// between take-off and landing: a whole number of quarter hours, that of the least amount
// which brings all of them in. ok is false where nothing is off, or nothing fits.
func ClockOff(times []time.Time, from, to time.Time) (off time.Duration, ok bool) {
	if len(times) == 0 || !to.After(from) {
		return 0, false
	}
	first, last := slices.MinFunc(times, time.Time.Compare), slices.MaxFunc(times, time.Time.Compare)
	const slack = time.Minute
	fits := func(d time.Duration) bool {
		return !first.Add(d).Before(from.Add(-slack)) && !last.Add(d).After(to.Add(slack))
	}
	if fits(0) {
		return 0, false
	}
	const quarter = 15 * time.Minute
	for k := 1; k <= 4*26; k++ {
		for _, d := range [2]time.Duration{time.Duration(k) * quarter, -time.Duration(k) * quarter} {
			if fits(d) {
				return d, true
			}
		}
	}
	return 0, false
}

// Refly are the stretches to fly again as flights: in the order, and each in the
// direction, that takes the fewest flights and the least energy in the wind of now. Each
// reaches one spacing beyond its gap, so that the new pictures join the old.
func (p *Plan) Refly(gaps []Gap, pieces []Piece, part int, w Wish, g Given) ([]Flight, error) {
	if part < 0 || part >= len(p.Parts) {
		return nil, within("part", float64(part), 0, float64(len(p.Parts)-1))
	}
	again := make([]Piece, 0, len(gaps))
	for _, gap := range gaps {
		x := pieces[gap.Piece]
		d := x.To.Sub(x.From).Times(1 / max(x.Length(), 1e-9))
		back, on := min(p.PicturesM, geo.Dist(x.From, gap.From)), min(p.PicturesM, geo.Dist(gap.To, x.To))
		y := Piece{Line: x.Line, From: gap.From.Sub(d.Times(back)), To: gap.To.Add(d.Times(on))}
		var err error
		if y.Pictures, err = Pictures(y.Length(), p.PicturesM); err != nil {
			return nil, err
		}
		again = append(again, y)
	}
	var best []Flight
	bestWh := math.Inf(1)
	for _, back := range []bool{false, true} {
		for _, turned := range []bool{false, true} {
			order := slices.Clone(again)
			if back {
				slices.Reverse(order)
			}
			for i := range order {
				if turned == (i%2 == 0) {
					order[i] = order[i].Back()
				}
			}
			try := Plan{PicturesM: p.PicturesM, LinesM: p.LinesM, HeightM: p.HeightM, Parts: []Part{p.Parts[part]}}
			try.Parts[0].Pieces = order
			if err := try.fillAs(w, g); err != nil {
				return nil, err
			}
			wh := 0.0
			for _, f := range try.Flights {
				wh += f.Wh
			}
			if best == nil || len(try.Flights) < len(best) || len(try.Flights) == len(best) && wh < bestWh {
				best, bestWh = try.Flights, wh
			}
		}
	}
	for i := range best {
		best[i].Part = part
	}
	return best, nil
}
