package survey_test

import (
	"encoding/json"
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/energy"
	"mainstay/core/geo"
	"mainstay/core/home"
	"mainstay/core/judge"
	"mainstay/core/survey"
)

var pocket = survey.Camera{SensorWMM: 13.2, SensorHMM: 8.8, FocalMM: 8.8, PixelsW: 5472, PixelsH: 3648, LeastS: 1}

// quad is a mapper that carries a long flight.
func quad(area *survey.Area) survey.Given {
	at := survey.Place{ID: "t", Name: "the gate", Known: true}
	return survey.Given{Area: area, Start: at, Places: []survey.Place{at}, Camera: &pocket, PictureM: 9,
		Canopies: survey.UsualCanopies, MassKg: 7, Rho: 1.1, UsableWh: 400, FullWh: 500, Reserve: 20, ReturnM: 40,
		Model: energy.Model{Kind: energy.Rotors, Discs: 4, DiameterM: 0.6, Efficiency: 0.55, CruiseShare: 1, CruiseMS: 12,
			ClimbMS: 4, DescentMS: 3}}
}

// outline draws a star-shaped outline round the origin.
func outline(t *rapid.T) geo.Ring {
	n := rapid.IntRange(3, 12).Draw(t, "corners")
	var out geo.Ring
	for i := range n {
		r := rapid.Float64Range(120, 600).Draw(t, fmt.Sprint("radius ", i))
		sin, cos := math.Sincos(2 * math.Pi * float64(i) / float64(n))
		out = append(out, geo.XY{X: r * cos, Y: r * sin})
	}
	return out
}

// hills are smooth hills up to high m over a square.
func hills(high float64, cell float64, n int) *home.Terrain {
	t := &home.Terrain{Origin: geo.XY{X: -float64(n) / 2 * cell, Y: -float64(n) / 2 * cell}, CellM: cell, Columns: n,
		Rows: n, Heights: make([]float32, n*n)}
	for i := range t.Heights {
		x, y := t.Origin.X+float64(i%n)*cell, t.Origin.Y+float64(i/n)*cell
		t.Heights[i] = float32(200 + high/2*(1+math.Sin(x/300)*math.Cos(y/260)))
	}
	return t
}

// Every place of the area lies in at least as many pictures as the plan says, over hills
// too, whichever way the lines lie and however the ground is kept to.
func TestEveryPlaceIsInItsPictures(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		area := &survey.Area{Outline: outline(t)}
		w := survey.Defaults(false)
		w.Side, w.Front = rapid.Float64Range(0, 80).Draw(t, "side"), rapid.Float64Range(0, 80).Draw(t, "front")
		w.By, w.HeightM, w.SpeedMS = survey.ByHeight, rapid.Float64Range(40, 120).Draw(t, "height"), 2
		w.Direction, w.BearingDeg = survey.Along, rapid.Float64Range(0, 360).Draw(t, "bearing")
		w.Relief = rapid.SampledFrom([]survey.Relief{survey.Split, survey.Follow}).Draw(t, "relief")
		g := quad(area)
		g.Terrain = hills(rapid.Float64Range(0, 60).Draw(t, "hills"), 10, 160)
		g.UsableWh = 1e5
		p, err := survey.Make(w, g)
		require.NoError(t, err)
		require.NotEmpty(t, p.Parts)
		random := rand.New(rand.NewPCG(1, 2))
		lo, hi := geo.XY{X: -600, Y: -600}, geo.XY{X: 600, Y: 600}
		for range 60 {
			at := geo.XY{X: lo.X + random.Float64()*(hi.X-lo.X), Y: lo.Y + random.Float64()*(hi.Y-lo.Y)}
			if !area.Outline.Holds(at) {
				continue
			}
			views := 0
			for _, part := range p.Parts {
				for _, x := range part.Pieces {
					d := x.To.Sub(x.From)
					turn := geo.TurnedTo(math.Atan2(d.X, d.Y) * 180 / math.Pi)
					for _, s := range x.Shots() {
						q := turn.To(at.Sub(s))
						if math.Abs(q.X) <= p.Picture.AlongM/2+0.01 && math.Abs(q.Y) <= p.Picture.AcrossM/2+0.01 {
							views++ // the part's lowest footprint: it flies no lower over any of its ground
						}
					}
				}
			}
			assert.GreaterOrEqual(t, views, p.Views, "at %v", at)
		}
	})
}

// The plan is the same wherever its outline begins, and whichever way round it goes.
func TestCountsDoNotDependOnTheStart(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		ring := outline(t)
		a, err := survey.Make(survey.Defaults(false), quad(&survey.Area{Outline: ring}))
		require.NoError(t, err)
		k := rapid.IntRange(0, len(ring)-1).Draw(t, "start")
		other := slices.Concat(ring[k:], ring[:k])
		if rapid.Bool().Draw(t, "round") {
			slices.Reverse(other)
		}
		b, err := survey.Make(survey.Defaults(false), quad(&survey.Area{Outline: other}))
		require.NoError(t, err)
		assert.Equal(t, a.Lines, b.Lines)
		assert.Equal(t, a.Pictures, b.Pictures)
		assert.InDelta(t, a.BearingDeg, b.BearingDeg, 1e-6)
		assert.Len(t, b.Flights, len(a.Flights))
	})
}

// Parts differ by at most 30 m of ground; together they hold every picture line once.
func TestPartsKeepTheirRelief(t *testing.T) {
	ring := geo.Ring{{X: -500, Y: -500}, {X: 500, Y: -500}, {X: 500, Y: 500}, {X: -500, Y: 500}}
	g := quad(&survey.Area{Outline: ring})
	g.Terrain = hills(200, 10, 160)
	g.UsableWh = 1e5
	w := survey.Defaults(false)
	rough, err := survey.Make(w, g)
	require.NoError(t, err)
	assert.Equal(t, judge.Stop, rough.Verdict, "ground that no sixty parts are enough for is said")
	g.Terrain = hills(60, 10, 160)
	split, err := survey.Make(w, g)
	require.NoError(t, err)
	assert.Greater(t, len(split.Parts), 1)
	w.Relief = survey.Level
	whole, err := survey.Make(w, g)
	require.NoError(t, err)
	length := func(p survey.Plan) (sum float64) {
		for _, x := range p.Parts {
			for _, y := range x.Pieces {
				sum += y.Length()
			}
		}
		return sum
	}
	assert.InDelta(t, length(whole), length(split), 1)
	for _, x := range split.Parts {
		assert.LessOrEqual(t, x.HighM-x.LowM, survey.MostReliefM)
		assert.InDelta(t, 75, x.SideLeft, 0.01, "on the highest ground the overlap is that of the plan")
		assert.GreaterOrEqual(t, x.GSDCm, x.BestCm)
	}
	// An independent reader: every picture of a part lies at least the height of the plan over its ground.
	for _, x := range split.Parts {
		for _, y := range x.Pieces {
			for _, s := range y.Shots() {
				if v, ok := g.Terrain.At(s); ok {
					assert.GreaterOrEqual(t, x.LevelM-v, split.HeightM-0.01)
					assert.LessOrEqual(t, x.LevelM-v, split.HeightM+survey.MostReliefM+0.01)
				}
			}
		}
	}
}

// A leg over the ground keeps its height and its slopes.
func TestFollowingKeepsHeightAndSlope(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		ground := hills(rapid.Float64Range(0, 200).Draw(t, "hills"), 10, 160)
		up, down := rapid.Float64Range(0.05, 2).Draw(t, "up"), rapid.Float64Range(0.05, 2).Draw(t, "down")
		n := rapid.Float64Range(-700, 700)
		a, b := geo.XY{X: n.Draw(t, "ax"), Y: n.Draw(t, "ay")}, geo.XY{X: n.Draw(t, "bx"), Y: n.Draw(t, "by")}
		if geo.Dist(a, b) < 1 {
			t.Skip()
		}
		way, _ := survey.Following(ground, a, b, survey.Reach{HeightM: 60, AsideM: 20, LevelM: 200, Up: up, Down: down})
		for i := range way {
			if v, ok := ground.At(way[i].At); ok {
				assert.GreaterOrEqual(t, way[i].M-v, 60-1e-6)
			}
			if i > 0 {
				d := geo.Dist(way[i-1].At, way[i].At)
				assert.LessOrEqual(t, way[i].M-way[i-1].M, up*d+1e-6)
				assert.LessOrEqual(t, way[i-1].M-way[i].M, down*d+1e-6)
			}
		}
	})
}

// Every place beside a line within half the width is covered by a picture line.
func TestCorridorCoversItsWidth(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		line := []geo.XY{{}}
		bearing := 0.0
		for i := range rapid.IntRange(1, 6).Draw(t, "legs") {
			bearing += rapid.Float64Range(-80, 80).Draw(t, fmt.Sprint("bend ", i))
			sin, cos := math.Sincos(bearing * math.Pi / 180)
			line = append(line, line[len(line)-1].Add(geo.XY{X: sin,
				Y: cos}.Times(rapid.Float64Range(120, 500).Draw(t, fmt.Sprint("leg ", i)))))
		}
		width := rapid.Float64Range(0, 100).Draw(t, "width")
		h, err := survey.Corridor(line, width, 20, 15, 30)
		require.NoError(t, err)
		for i := 1; i < len(line); i++ {
			d := line[i].Sub(line[i-1])
			right := geo.XY{X: d.Y, Y: -d.X}.Times(1 / d.Len())
			for k := range 9 {
				for _, off := range []float64{-width / 2, 0, width / 2} {
					at := line[i-1].Add(d.Times(float64(k) / 8)).Add(right.Times(off))
					near := math.Inf(1)
					for _, x := range h.Pieces {
						q, _ := geo.Nearest(at, x.From, x.To)
						near = min(near, geo.Dist(q, at))
					}
					assert.LessOrEqual(t, near, 10.01, "beside leg %d at %v", i, off)
				}
			}
		}
	})
}

// Holes shrink by the buffer, what is forbidden grows by its own.
func TestHolesAndForbidden(t *testing.T) {
	ring := geo.Ring{{X: 0, Y: 0}, {X: 1000, Y: 0}, {X: 1000, Y: 1000}, {X: 0, Y: 1000}}
	hole := geo.Ring{{X: 300, Y: 300}, {X: 700, Y: 300}, {X: 700, Y: 700}, {X: 300, Y: 700}}
	a := survey.Area{Outline: ring, LeaveOut: []geo.Ring{hole},
		Forbidden: []survey.Forbidden{{Name: "mast", Places: []geo.XY{{X: 100, Y: 500}}, BufferM: 50}}}
	h, err := a.Hatch(90, 20, 10, 30)
	require.NoError(t, err)
	for _, x := range h.Pieces {
		for _, s := range x.Shots() {
			assert.False(t, hole.Holds(s) && hole.ToEdge(s) > 30.01, "%v lies deep in the hole", s)
			assert.GreaterOrEqual(t, geo.Dist(s, geo.XY{X: 100, Y: 500}), 49.99)
		}
	}
	// Two holes that touch, and one in the other, are one hole.
	half := geo.Ring{{X: 700, Y: 300}, {X: 900, Y: 300}, {X: 900, Y: 700}, {X: 700, Y: 700}}
	a.LeaveOut = append(a.LeaveOut, half)
	_, err = a.Hatch(90, 20, 10, 30)
	assert.NoError(t, err)
}

// No way from line to line, round what is forbidden, comes into it; lines of a corridor that
// do are said.
func TestWaysBetweenLinesStayClear(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		area := &survey.Area{Outline: outline(t)}
		n := rapid.Float64Range(-200, 200)
		for i := range rapid.IntRange(1, 3).Draw(t, "forbidden") {
			c := geo.XY{X: n.Draw(t, fmt.Sprint("x ", i)), Y: n.Draw(t, fmt.Sprint("y ", i))}
			f := survey.Forbidden{Name: "no", Places: []geo.XY{c},
				BufferM: rapid.Float64Range(10, 60).Draw(t, fmt.Sprint("buffer ", i))}
			if rapid.Bool().Draw(t, fmt.Sprint("area ", i)) {
				f.Area, f.Places = true, []geo.XY{c, c.Add(geo.XY{X: 70}), c.Add(geo.XY{X: 70, Y: 50}), c.Add(geo.XY{Y: 50})}
			}
			area.Forbidden = append(area.Forbidden, f)
		}
		w := survey.Defaults(false)
		w.Direction, w.BearingDeg = survey.Along, rapid.Float64Range(0, 360).Draw(t, "bearing")
		p, err := survey.Make(w, quad(area))
		require.NoError(t, err)
		for _, b := range p.Broken {
			if strings.Contains(b.Sentence, "no way round") {
				return
			}
		}
		for _, f := range p.Flights {
			for i := 1; i < len(f.Pieces); i++ {
				from := f.Pieces[i-1].To
				for _, to := range append(slices.Clone(f.Pieces[i].Via), f.Pieces[i].From) {
					for k := range 41 {
						at := from.Add(to.Sub(from).Times(float64(k) / 40))
						for _, x := range area.Forbidden {
							near := math.Inf(1)
							for j := range x.Places {
								q, _ := geo.Nearest(at, x.Places[j], x.Places[(j+1)%len(x.Places)])
								near = min(near, geo.Dist(q, at))
							}
							assert.GreaterOrEqual(t, near, x.BufferM-0.01)
							assert.False(t, x.Area && geo.Ring(x.Places).Holds(at))
						}
					}
					from = to
				}
			}
		}
	})
	g := quad(nil)
	g.Line, g.Forbidden = []geo.XY{{}, {X: 600}}, []survey.Forbidden{{Name: "the sluice", Places: []geo.XY{{X: 300, Y: 5}},
		BufferM: 20}}
	p, err := survey.Make(survey.Defaults(false), g)
	require.NoError(t, err)
	assert.Equal(t, judge.Stop, p.Verdict)
	assert.Contains(t, fmt.Sprint(p.Broken), "pass through the sluice")
}

// A plan that is kept and read again follows the ground as it did; rough ground under it is
// no reason against it.
func TestFollowedGroundIsKept(t *testing.T) {
	g := quad(&survey.Area{Outline: geo.Ring{{X: -400, Y: -400}, {X: 400, Y: -400}, {X: 400, Y: 400}, {X: -400, Y: 400}}})
	g.Terrain = hills(90, 10, 160)
	ceiling := 120.0
	g.CeilingM, g.UsableWh = &ceiling, 1e5
	w := survey.Defaults(false)
	w.By, w.HeightM, w.Relief, w.SpeedMS = survey.ByHeight, 70, survey.Follow, 5
	p, err := survey.Make(w, g)
	require.NoError(t, err)
	for _, b := range p.Broken {
		assert.NotEqual(t, "height_m", b.Wish, b.Sentence)
	}
	text, err := json.Marshal(p)
	require.NoError(t, err)
	var back survey.Plan
	require.NoError(t, json.Unmarshal(text, &back))
	require.NotEmpty(t, back.Flights)
	for i, f := range back.Flights {
		require.Len(t, f.Ways, len(f.Pieces))
		assert.Equal(t, p.Flights[i].Ways, f.Ways)
	}
	assert.Equal(t, p, back, "nothing of a plan is lost where it is kept")
}

// A camera that takes any interval has a plan that can be kept.
func TestCameraWithoutInterval(t *testing.T) {
	fast := pocket
	fast.LeastS = 0
	g := quad(&survey.Area{Outline: geo.Ring{{}, {X: 300}, {X: 300, Y: 300}}})
	g.Camera = &fast
	p, err := survey.Make(survey.Defaults(false), g)
	require.NoError(t, err)
	_, err = json.Marshal(p)
	assert.NoError(t, err)
}

// What cannot be is refused; what cannot be flown is said with the nearest that can.
func TestWishesThatCannotBeMet(t *testing.T) {
	ring := geo.Ring{{X: 0, Y: 0}, {X: 300, Y: 0}, {X: 300, Y: 300}, {X: 0, Y: 300}}
	area := &survey.Area{Outline: ring}
	for name, bad := range map[string]func(*survey.Wish, *survey.Given){
		"an overlap of 100": func(w *survey.Wish, _ *survey.Given) { w.Side = 100 },
		"no number":         func(w *survey.Wish, _ *survey.Given) { w.SpeedMS = math.NaN() },
		"an empty area": func(_ *survey.Wish, g *survey.Given) {
			g.Area = &survey.Area{Outline: geo.Ring{{}, {X: 1},
				{X: 2}}}
		},
		"a canopy unknown": func(w *survey.Wish, _ *survey.Given) { w.By, w.Canopy = survey.ByCanopy, "jungle" },
	} {
		w, g := survey.Defaults(false), quad(area)
		bad(&w, &g)
		_, err := survey.Make(w, g)
		assert.ErrorIs(t, err, survey.ErrInput, name)
	}
	for name, c := range map[string]struct {
		change func(*survey.Wish, *survey.Given)
		wish   string
		near   float64
	}{
		"faster than the camera": {func(w *survey.Wish, g *survey.Given) {
			w.SpeedMS, w.Front, w.Shutter, w.By, w.HeightM = 20, 75, 8000, survey.ByHeight, 90
		}, "speed_ms", 18.7},
		"smears": {func(w *survey.Wish, g *survey.Given) { w.Shutter = 200 }, "speed_ms", 2.5},
		"over the ceiling": {func(w *survey.Wish, g *survey.Given) {
			w.By, w.HeightM = survey.ByHeight, 130
			c := 120.0
			g.CeilingM = &c
		}, "height_m", 120},
		"more than the card":    {func(w *survey.Wish, g *survey.Given) { w.CardGB = 0.2 }, "card_gb", 3},
		"more than it takes":    {func(w *survey.Wish, g *survey.Given) { g.MostWay = 3 }, "area", 0},
		"too far for the packs": {func(w *survey.Wish, g *survey.Given) { g.UsableWh = 5 }, "area", 0},
		"no camera":             {func(w *survey.Wish, g *survey.Given) { g.Camera = nil }, "camera", 0},
		"all of it forbidden": {func(w *survey.Wish, g *survey.Given) {
			g.Area = &survey.Area{Outline: ring, Forbidden: []survey.Forbidden{{Name: "x", Places: ring, Area: true,
				BufferM: 300}}}
		}, "area", 0},
		"a hill that it flies in": {func(w *survey.Wish, g *survey.Given) {
			w.Relief = survey.Level
			g.Terrain = hills(200, 10, 160)
			g.Start.ElevM = 200
		}, "relief", 0},
	} {
		w, g := survey.Defaults(false), quad(area)
		c.change(&w, &g)
		p, err := survey.Make(w, g)
		require.NoError(t, err, name)
		i := slices.IndexFunc(p.Broken, func(b judge.Broken) bool { return b.Wish == c.wish && b.Verdict == judge.Stop })
		if !assert.GreaterOrEqual(t, i, 0, "%s: %v", name, p.Broken) {
			continue
		}
		assert.Equal(t, judge.Stop, p.Verdict, name)
		if c.near != 0 && assert.NotNil(t, p.Broken[i].Nearest, name) {
			assert.InDelta(t, c.near, *p.Broken[i].Nearest, 0.11, name)
		}
	}
}

// A wing that cannot turn in one spacing leaves lines out and comes back for them; every
// line is flown once.
func TestWingTurnsOverLines(t *testing.T) {
	ring := geo.Ring{{X: 0, Y: 0}, {X: 800, Y: 0}, {X: 800, Y: 800}, {X: 0, Y: 800}}
	h, err := survey.Area{Outline: ring}.Hatch(0, 20, 10, 0)
	require.NoError(t, err)
	order := survey.InOrder(h.Pieces, 3)
	require.Len(t, order, len(h.Pieces))
	seen := map[int]bool{}
	for i, x := range order {
		seen[x.Line] = true
		if i > 0 && x.Line > order[i-1].Line {
			assert.Equal(t, 3, x.Line-order[i-1].Line)
		}
	}
	assert.Len(t, seen, h.Lines)
}

// Gaps of pictures are found to the metre, and the refly mission covers them and no more
// than a spacing beyond.
func TestGapsAreFoundAndFlownAgain(t *testing.T) {
	ring := geo.Ring{{X: 0, Y: 0}, {X: 400, Y: 0}, {X: 400, Y: 400}, {X: 0, Y: 400}}
	area := &survey.Area{Outline: ring}
	w, g := survey.Defaults(false), quad(area)
	p, err := survey.Make(w, g)
	require.NoError(t, err)
	pieces := p.Parts[0].Pieces
	rapid.Check(t, func(t *rapid.T) {
		var shots []survey.Shot
		lost := map[int][2]int{}
		for i, x := range pieces {
			all := x.Shots()
			from, n := rapid.IntRange(0, len(all)-1).Draw(t, fmt.Sprint("from ", i)), 0
			if rapid.IntRange(0, 5).Draw(t, fmt.Sprint("lost ", i)) == 0 {
				n = rapid.IntRange(2, 6).Draw(t, fmt.Sprint("many ", i))
				lost[i] = [2]int{from, min(from+n, len(all))}
			}
			for k, s := range all {
				if k >= from && k < from+n {
					continue
				}
				shots = append(shots, survey.Shot{At: &s})
			}
		}
		taken, err := p.Look(pieces, shots, area)
		require.NoError(t, err)
		found := map[int]survey.Gap{}
		for _, gap := range taken.Gaps {
			found[gap.Piece] = gap
		}
		for i, ends := range lost {
			if ends[1]-ends[0] < 2 {
				continue // one picture is within a spacing and a half only in the middle
			}
			gap, ok := found[i]
			if !assert.True(t, ok, "pictures %v of line %d are lost", ends, i) {
				continue
			}
			all := pieces[i].Shots()
			assert.InDelta(t, 0, geo.Dist(gap.From, all[max(0, ends[0]-1)]), 0.5)
			assert.InDelta(t, 0, geo.Dist(gap.To, all[min(len(all)-1, ends[1])]), 0.5)
		}
		if len(taken.Gaps) == 0 {
			return
		}
		assert.Equal(t, judge.Stop, taken.Verdict)
		again, err := p.Refly(taken.Gaps, pieces, 0, w, g)
		require.NoError(t, err)
		for _, gap := range taken.Gaps {
			middle := gap.From.Add(gap.To).Times(0.5)
			assert.True(t, slices.ContainsFunc(again, func(f survey.Flight) bool {
				return slices.ContainsFunc(f.Pieces, func(x survey.Piece) bool {
					for _, at := range []geo.XY{gap.From, middle, gap.To} {
						if q, _ := geo.Nearest(at, x.From, x.To); geo.Dist(q, at) > 0.01 {
							return false
						}
					}
					return x.Length() <= gap.LongM+2*p.PicturesM+0.01
				})
			}), "the gap of line %d is not flown again", gap.Piece)
		}
		second := slices.Clone(shots)
		for _, f := range again {
			for _, x := range f.Pieces {
				for _, s := range x.Shots() {
					second = append(second, survey.Shot{At: &s})
				}
			}
		}
		after, err := p.Look(pieces, second, area)
		require.NoError(t, err)
		assert.Empty(t, after.Gaps)
	})
}

// A whole picture set is complete; one without places, or none, is not.
func TestLookAtWholeAndEmpty(t *testing.T) {
	area := &survey.Area{Outline: geo.Ring{{X: 0, Y: 0}, {X: 300, Y: 0}, {X: 300, Y: 300}, {X: 0, Y: 300}}}
	p, err := survey.Make(survey.Defaults(false), quad(area))
	require.NoError(t, err)
	var shots []survey.Shot
	for _, x := range p.Parts[0].Pieces {
		for _, s := range x.Shots() {
			shots = append(shots, survey.Shot{At: &s})
		}
	}
	whole, err := p.Look(p.Parts[0].Pieces, shots, area)
	require.NoError(t, err)
	assert.Empty(t, whole.Gaps)
	assert.Equal(t, judge.Clear, whole.Verdict, "%v", whole.Findings)
	assert.GreaterOrEqual(t, whole.LeastOf, p.Views)
	none, err := p.Look(p.Parts[0].Pieces, nil, area)
	require.NoError(t, err)
	assert.Equal(t, judge.Stop, none.Verdict)
	for i := range shots {
		if i%10 == 0 {
			shots[i].At = nil
		}
	}
	tenth, err := p.Look(p.Parts[0].Pieces, shots, area)
	require.NoError(t, err)
	assert.NotEqual(t, judge.Clear, tenth.Verdict)
	assert.Equal(t, len(shots)-(len(shots)+9)/10, tenth.Placed)
	nowhere := geo.XY{X: math.NaN()}
	_, err = p.Look(p.Parts[0].Pieces, []survey.Shot{{At: &nowhere}}, area)
	assert.ErrorIs(t, err, survey.ErrInput)
}

// The clock of a camera that is an hour off, half an hour, or right.
func TestClockOff(t *testing.T) {
	from := time.Date(2026, 6, 1, 10, 0, 0, 0, time.UTC)
	to := from.Add(14 * time.Minute)
	for _, off := range []time.Duration{time.Hour, -time.Hour, 30 * time.Minute, 7 * time.Hour, -8 * time.Hour} {
		got, ok := survey.ClockOff([]time.Time{from.Add(2 * time.Minute).Add(-off), from.Add(12 * time.Minute).Add(-off)},
			from, to)
		assert.True(t, ok)
		assert.Equal(t, off, got)
	}
	_, ok := survey.ClockOff([]time.Time{from.Add(time.Minute)}, from, to)
	assert.False(t, ok, "it is right")
	_, ok = survey.ClockOff([]time.Time{from.Add(time.Minute), from.Add(40 * time.Minute)}, from, to)
	assert.False(t, ok, "nothing fits")
	_, ok = survey.ClockOff(nil, from, to)
	assert.False(t, ok)
}

func ponds(n int) *survey.Area {
	side := math.Sqrt(500e4)
	a := &survey.Area{Outline: geo.Ring{{X: 0, Y: 0}, {X: side, Y: 0}, {X: side, Y: side}, {X: 0, Y: side}}}
	for i := range n {
		c := geo.XY{X: side * (0.05 + 0.09*float64(i%10)), Y: side * (0.05 + 0.09*float64(i/10))}
		var hole geo.Ring
		for k := range 12 {
			sin, cos := math.Sincos(float64(k) * math.Pi / 6)
			hole = append(hole, c.Add(geo.XY{X: 40 * cos, Y: 40 * sin}))
		}
		a.LeaveOut = append(a.LeaveOut, hole)
	}
	return a
}

// BenchmarkSurvey is a plan of 500 ha with 100 holes.
func BenchmarkSurvey(b *testing.B) {
	g := quad(ponds(100))
	for b.Loop() {
		if _, err := survey.Make(survey.Defaults(false), g); err != nil {
			b.Fatal(err)
		}
	}
}

// BenchmarkSplit is the same over terrain of 1,000 x 1,000 cells.
func BenchmarkSplit(b *testing.B) {
	g := quad(ponds(100))
	g.Terrain = hills(90, 5, 1000)
	g.Terrain.Origin = geo.XY{X: -200, Y: -200}
	for b.Loop() {
		if _, err := survey.Make(survey.Defaults(false), g); err != nil {
			b.Fatal(err)
		}
	}
}

// BenchmarkLook holds 5,000 picture places against their lines.
func BenchmarkLook(b *testing.B) {
	area := ponds(0)
	p, err := survey.Make(survey.Defaults(false), quad(area))
	if err != nil {
		b.Fatal(err)
	}
	var shots []survey.Shot
	for len(shots) < 5000 {
		for _, x := range p.Parts[0].Pieces {
			for _, s := range x.Shots() {
				if len(shots) < 5000 {
					shots = append(shots, survey.Shot{At: &s})
				}
			}
		}
	}
	for b.Loop() {
		if _, err := p.Look(p.Parts[0].Pieces, shots, area); err != nil {
			b.Fatal(err)
		}
	}
}
