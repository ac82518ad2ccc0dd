package site_test

import (
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/geo"
	"mainstay/core/home"
	"mainstay/core/judge"
	"mainstay/core/site"
)

var depot = geo.Point{Lat: 46.31, Lon: -119.70}

func f(v float64) *float64 { return &v }
func yes(v bool) *bool     { return &v }

// at is a place metres east and north of the depot.
func at(t *testing.T, x, y float64) geo.Point {
	t.Helper()
	fr, err := geo.NewFrame(depot)
	require.NoError(t, err)
	return fr.Point(geo.XY{X: x, Y: y})
}

func TestFeaturesThatAreRefused(t *testing.T) {
	square := []geo.Point{at(t, 0, 0), at(t, 100, 0), at(t, 100, 100), at(t, 0, 100)}
	good := site.Feature{Kind: site.Work, Name: "North yard", Shape: site.Area, Places: square}
	require.NoError(t, good.Check())
	for want, change := range map[string]func(*site.Feature){
		"none of the kinds":      func(x *site.Feature) { x.Kind = "pond" },
		"cannot be a point":      func(x *site.Feature) { x.Shape = site.Point },
		"at least three corners": func(x *site.Feature) { x.Places = nil },
		"crosses itself": func(x *site.Feature) {
			x.Places = []geo.Point{square[0], square[2], square[1],
				square[3]}
		},
		"swapped": func(x *site.Feature) {
			x.Places = []geo.Point{{Lat: -119.7, Lon: 46.3}, {Lat: -119.7, Lon: 46.4}, {Lat: -119.8, Lon: 46.4}}
		},
		"a site is smaller": func(x *site.Feature) {
			x.Places = []geo.Point{square[0], square[1],
				{Lat: 47, Lon: -119}}
		},
		"heights are metres": func(x *site.Feature) { x.HeightM = f(5000) },
		"out of range":       func(x *site.Feature) { x.BufferM = -1 },
		"no way to measure":  func(x *site.Feature) { x.Measured = "guess" },
		"reaches outside": func(x *site.Feature) {
			x.Holes = [][]geo.Point{{at(t, 150, 0), at(t, 160, 0),
				at(t, 160, 10)}}
		},
		"words are too long": func(x *site.Feature) { x.Name = strings.Repeat("x", 200) },
		"at most 2000":       func(x *site.Feature) { x.Places = make([]geo.Point, 2001) },
		"0 to under 360":     func(x *site.Feature) { x.Free = []float64{360} },
		"elevation -600":     func(x *site.Feature) { x.GroundM = f(-600) },
		"near the pole": func(x *site.Feature) {
			x.Places = []geo.Point{{Lat: 89}, {Lat: 89, Lon: 1},
				{Lat: 88, Lon: 1}}
		},
		"none of the kinds of featu": func(x *site.Feature) { x.Kind = "" },
	} {
		x := good
		change(&x)
		err := x.Check()
		require.ErrorIs(t, err, site.ErrFeature, want)
		assert.ErrorContains(t, err, want)
	}
	// A reach of 50 km, to the place.
	for metres, fits := range map[float64]bool{site.MaxSpan - 1: true, site.MaxSpan + 1: false} {
		far := site.Feature{Kind: site.Wires, Name: "far", Shape: site.Line,
			Places: []geo.Point{at(t, 0, 0), at(t, metres, 0)}}
		assert.Equal(t, fits, far.Check() == nil, "%g m: %v", metres, far.Check())
	}
	long := good
	long.Name, long.What, long.Note = strings.Repeat("x", site.MaxName), strings.Repeat("x",
		site.MaxName), strings.Repeat("x", 4000)
	assert.NoError(t, long.Check())
	for _, spoil := range []func(x *site.Feature){func(x *site.Feature) { x.Name += "x" },
		func(x *site.Feature) { x.What += "x" }, func(x *site.Feature) { x.Note += "x" }} {
		x := long
		spoil(&x)
		assert.ErrorContains(t, x.Check(), "words are too long")
	}
	line := site.Feature{Kind: site.Wires, Shape: site.Line, Places: square[:1]}
	assert.ErrorContains(t, line.Check(), "at least two places")
	hole := site.Feature{Kind: site.Obstacle, Shape: site.Point, Places: square[:1], Holes: [][]geo.Point{square}}
	assert.ErrorContains(t, hole.Check(), "only an area has holes")
	date := site.Feature{Kind: site.Work, Shape: site.Area,
		Places: []geo.Point{{Lat: -17, Lon: 179.999}, {Lat: -17, Lon: -179.999}, {Lat: -17.001, Lon: -179.999}}}
	assert.NoError(t, date.Check(), "a site may lie across the date line")
}

func TestObstaclesStandOnTheGround(t *testing.T) {
	fr, err := geo.NewFrame(depot)
	require.NoError(t, err)
	terrain := &home.Terrain{Origin: geo.XY{X: -50, Y: -50}, CellM: 50, Columns: 3, Rows: 3,
		Heights: []float32{100, 101, 102, 103, 104, 105, 106, 107, float32(math.NaN())}}
	got := site.Standing([]site.Feature{
		{ID: "a", Kind: site.Obstacle, Name: "Mast", Shape: site.Point, Places: []geo.Point{at(t, 0, 0)}, HeightM: f(30)},
		{ID: "b", Kind: site.Wires, Shape: site.Line, Places: []geo.Point{at(t, -50, -50), at(t, 0, 50)}, HeightM: f(8)},
		{ID: "c", Kind: site.Obstacle, Name: "Own", Shape: site.Point, Places: []geo.Point{at(t, 0, 0)}, GroundM: f(90)},
		{ID: "d", Kind: site.Obstacle, Name: "Outside", Shape: site.Point, Places: []geo.Point{at(t, 900, 0)}},
		{ID: "e", Kind: site.Work, Shape: site.Area},
	}, fr, terrain, 55)
	require.Len(t, got, 4)
	assert.Equal(t, 104.0, got[0].GroundM)
	assert.True(t, got[0].GroundKnown)
	assert.Equal(t, 107.0, got[1].GroundM, "the highest under the span counts")
	assert.True(t, got[1].Wire)
	assert.Equal(t, "an unnamed wires", got[1].Name)
	assert.Equal(t, 104.0, got[2].GroundM, "its own elevation counts where it is higher")
	assert.Equal(t, 55.0, got[3].GroundM)
	assert.False(t, got[3].GroundKnown, "the terrain does not cover it")
	assert.Nil(t, got[3].HeightM, "unknown stays unknown")
}

func TestTakeOffPlaces(t *testing.T) {
	fr, err := geo.NewFrame(depot)
	require.NoError(t, err)
	place := func(g *site.GroundCheck) site.Feature {
		return site.Feature{ID: "t", Kind: site.TakeOff, Shape: site.Point, Places: []geo.Point{depot}, Ground: g}
	}
	fine := &site.GroundCheck{Flat: yes(true), Firm: yes(true), Clear: yes(true), NoPlastic: yes(true), NoDust: yes(true),
		NoPeople: yes(true)}
	assert.Empty(t, site.JudgeTakeOff(place(fine), nil, fr))
	one := func(got []site.Judgement) site.Judgement {
		require.Len(t, got, 1)
		return got[0]
	}
	assert.Equal(t, judge.Watch, one(site.JudgeTakeOff(place(nil), nil, fr)).Verdict, "not looked at is never good")
	plastic := *fine
	plastic.NoPlastic, plastic.NoDust = yes(false), nil
	got := site.JudgeTakeOff(place(&plastic), nil, fr)
	require.Len(t, got, 2)
	assert.Equal(t, judge.Stop, got[0].Verdict)
	assert.Contains(t, got[1].Sentence, "Not looked at: dust")
	around := []site.Feature{
		{ID: "w", Kind: site.Wires, Name: "Road line", Shape: site.Line,
			Places: []geo.Point{at(t, -100, 20), at(t, 100, 20)}},
		{ID: "o", Kind: site.Obstacle, Name: "Barn", Shape: site.Area,
			Places: []geo.Point{at(t, 12, -5), at(t, 30, -5), at(t, 30, 5), at(t, 12, 5)}, BufferM: 5},
		{ID: "i", Kind: site.Interference, Name: "Mast", Shape: site.Point, Places: []geo.Point{at(t, 0, -25)}},
		{ID: "s", Kind: site.Sensitive, Name: "Hives", What: "bees", Shape: site.Point, Places: []geo.Point{at(t, -29, 0)}},
		{ID: "n", Kind: site.NoGo, Name: "Paddock", Shape: site.Area,
			Places: []geo.Point{at(t, -50, -50), at(t, 50, -50), at(t, 50, 50), at(t, -50, 50)}},
		{ID: "far", Kind: site.Obstacle, Name: "Silo", Shape: site.Point, Places: []geo.Point{at(t, 0, 60)}, BufferM: 5},
	}
	var verdicts []judge.Verdict
	var all string
	for _, j := range site.JudgeTakeOff(place(fine), around, fr) {
		verdicts = append(verdicts, j.Verdict)
		all += j.Sentence
	}
	assert.Equal(t, []judge.Verdict{judge.Stop, judge.Stop, judge.Watch, judge.Watch, judge.Stop}, verdicts)
	for _, w := range []string{"wires 20 m away, 30 m are kept", "Barn stands 12 m away, 15 m are kept",
		"do not calibrate here", "(bees) is 29 m away", "no-go area Paddock"} {
		assert.Contains(t, all, w)
	}
}

func TestStandsDownwindOfTheAircraft(t *testing.T) {
	fr, err := geo.NewFrame(depot)
	require.NoError(t, err)
	p := site.Stand(depot, 270, 10, fr) // wind from the west: it starts west, the crew stands east
	assert.InDelta(t, 10, geo.Distance(depot, p), 0.06)
	assert.InDelta(t, 90, geo.Bearing(depot, p), 0.1)
}

// Cover is looked for behind, where the wind goes to, in reach and not too near.
func TestFindCover(t *testing.T) {
	at := geo.Point{Lat: 46.31, Lon: -119.70}
	frame, err := geo.NewFrame(at)
	require.NoError(t, err)
	h := 3.0
	thing := func(name string, x, y float64) site.Feature {
		return site.Feature{Kind: site.Obstacle, Shape: site.Point, Name: name, HeightM: &h,
			Places: []geo.Point{frame.Point(geo.XY{X: x, Y: y})}}
	}
	all := []site.Feature{thing("too near", 0, -5), thing("shed", 5, -30), thing("far", 0, -80), thing("upwind", 0, 20),
		thing("beside", 25, 0), {Kind: site.Wires, Shape: site.Point, HeightM: &h, Places: []geo.Point{at}}}
	got := site.FindCover(at, 0, 10, all, frame) // wind from the north: behind is south
	require.NotNil(t, got)
	assert.Equal(t, "shed", got.Name)
	assert.InDelta(t, 30.4, got.DistanceM, 0.1)
	assert.Equal(t, "upwind", site.FindCover(at, 180, 10, all, frame).Name)
	assert.Nil(t, site.FindCover(at, 90, 10, all, frame))
	wall := site.Feature{Kind: site.Obstacle, Shape: site.Line, Name: "wall", HeightM: &h,
		Places: []geo.Point{frame.Point(geo.XY{X: -20, Y: -50}), frame.Point(geo.XY{X: -20, Y: 50})}}
	assert.InDelta(t, 20, site.FindCover(at, 90, 10, []site.Feature{wall}, frame).DistanceM, 0.01)
}

// What stands there keeps its buffer, or the usual one of its kind; nothing
// stands without one.
func TestBuffer(t *testing.T) {
	for _, c := range []struct {
		kind     site.Kind
		own, has float64
	}{{site.Obstacle, 0, 5}, {site.Wires, 0, 15}, {site.Wires, 8, 8}, {site.Obstacle, 30, 30}, {site.Sensitive, 0,
		0}, {site.Sensitive, 60, 60}, {site.TakeOff, 0, 0}} {
		assert.Equal(t, c.has, site.Feature{Kind: c.kind, BufferM: c.own}.Buffer(), "%s with %g m", c.kind, c.own)
	}
	frame, err := geo.NewFrame(depot)
	require.NoError(t, err)
	pole := site.Feature{ID: "p", Kind: site.Wires, Shape: site.Line, Places: []geo.Point{at(t, 0, 10), at(t, 30, 10)}}
	assert.Equal(t, 15.0, site.Standing([]site.Feature{pole}, frame, nil, 0)[0].BufferM)
	bees := site.Feature{ID: "b", Kind: site.Sensitive, Shape: site.Point, Name: "Hives", What: "bees", BufferM: 90,
		Places: []geo.Point{at(t, 80, 0)}}
	start := site.Feature{ID: "t", Kind: site.TakeOff, Shape: site.Point, Places: []geo.Point{at(t, 0, 0)}}
	found := site.JudgeTakeOff(start, []site.Feature{bees}, frame)
	assert.Contains(t, found[len(found)-1].Sentence, "Hives (bees) is 80 m away", "90 m are kept around these")
}
