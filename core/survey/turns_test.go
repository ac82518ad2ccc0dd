package survey_test

import (
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/energy"
	"mainstay/core/geo"
	"mainstay/core/survey"
)

// A turn begins and ends where and as it is asked, nowhere tighter than the radius, and is
// no shorter than straight.
func TestTurnPaths(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		at := func(name string) geo.XY {
			return geo.XY{X: rapid.Float64Range(-800, 800).Draw(t, name+" x"),
				Y: rapid.Float64Range(-800, 800).Draw(t, name+" y")}
		}
		way := func(name string) geo.XY {
			a := rapid.Float64Range(0, 2*math.Pi).Draw(t, name)
			return geo.XY{X: math.Cos(a), Y: math.Sin(a)}
		}
		from, to, ahead, into := at("from"), at("to"), way("ahead"), way("into")
		r := rapid.Float64Range(5, 200).Draw(t, "radius")
		got := survey.TurnPath(from, ahead, to, into, r)
		require.NotEmpty(t, got)
		assert.InDelta(t, 0, geo.Dist(from, got[0]), 1e-6)
		assert.InDelta(t, 0, geo.Dist(to, got[len(got)-1]), 1e-5)
		length, before := 0.0, ahead
		for i := 1; i < len(got); i++ {
			d := got[i].Sub(got[i-1])
			if d.Len() < 1e-6 {
				continue
			}
			length += d.Len()
			now := d.Times(1 / d.Len())
			turned := math.Abs(math.Atan2(before.X*now.Y-before.Y*now.X, before.X*now.X+before.Y*now.Y))
			assert.LessOrEqual(t, turned, math.Pi/18+1e-3, "a corner at place %d", i)
			before = now
		}
		assert.LessOrEqual(t, math.Abs(math.Atan2(before.X*into.Y-before.Y*into.X, before.X*into.X+before.Y*into.Y)),
			math.Pi/18+1e-3)
		assert.GreaterOrEqual(t, length, geo.Dist(from, to)-1e-6)
	})
	// The textbook's case: a half circle between two lines two radii apart.
	way := survey.TurnPath(geo.XY{}, geo.XY{Y: 1}, geo.XY{X: 60}, geo.XY{Y: -1}, 30)
	top, length := 0.0, 0.0
	for i, q := range way {
		top = max(top, q.Y)
		if i > 0 {
			length += geo.Dist(way[i-1], q)
		}
	}
	assert.InDelta(t, 30, top, 0.2)
	assert.InDelta(t, math.Pi*30, length, 0.5)
}

// A wing that would turn over what is forbidden is stopped; one that turns on the spot is not.
func TestTurnsKeepOff(t *testing.T) {
	g := quad(nil)
	g.Wing = true
	g.Model, g.MassKg = energy.Model{Kind: energy.Wing, LiftDrag: 12, WingDrive: 0.5, CruiseMS: 17, ClimbMS: 3,
		DescentMS: 2}, 4
	w := survey.Defaults(true)
	w.Direction, w.BearingDeg = survey.Along, 0
	g.Area = &survey.Area{Outline: geo.Ring{{X: 0, Y: 0}, {X: 500, Y: 0}, {X: 500, Y: 600}, {X: 0, Y: 600}}}
	said := func(g survey.Given) string {
		p, err := survey.Make(w, g)
		require.NoError(t, err)
		var out []string
		for _, b := range p.Broken {
			out = append(out, b.Sentence)
		}
		return strings.Join(out, "\n")
	}
	assert.NotContains(t, said(g), "Turning from line")
	g.Area.Forbidden = []survey.Forbidden{{Name: "the mast", Places: []geo.XY{{X: 250, Y: 735}}, BufferM: 20}}
	assert.Contains(t, said(g), "it comes into the mast")
	g.Wing = false
	assert.NotContains(t, said(g), "Turning from line")
}
