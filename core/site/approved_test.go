package site_test

import (
	"fmt"
	"maps"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"

	"mainstay/approved"
	"mainstay/core/geo"
	"mainstay/core/site"
)

// A take-off place among things of every kind, each moved through the distance
// that is kept, with and without a buffer; where the crew stands, and what covers
// it.
func TestPlacesAsApproved(t *testing.T) {
	fr, err := geo.NewFrame(depot)
	require.NoError(t, err)
	fine := &site.GroundCheck{Flat: yes(true), Firm: yes(true), Clear: yes(true), NoPlastic: yes(true), NoDust: yes(true),
		NoPeople: yes(true)}
	place := site.Feature{ID: "t", Kind: site.TakeOff, Shape: site.Point, Places: []geo.Point{depot}, Ground: fine}
	var lines []string
	say := func(what string, got []site.Judgement) {
		for _, j := range got {
			lines = append(lines, what+": "+j.Verdict.String()+" "+j.Sentence)
		}
	}
	for _, k := range site.AllKinds {
		for _, d := range []float64{0, 9, 9.99, 10.01, 14.99, 15.01, 29.9, 30.1, 39.9, 40.1} {
			for _, buffer := range []float64{0, 5, 40} {
				x := site.Feature{ID: "x", Kind: k, Shape: site.Point, What: "bees", BufferM: buffer,
					Places: []geo.Point{at(t, 0, d)}}
				say(fmt.Sprintf("%s at %g, buffer %g", k, d, buffer), site.JudgeTakeOff(place, []site.Feature{place, x}, fr))
			}
		}
		lines = append(lines, fmt.Sprintf("%s keeps %g, with 7 %g", k, site.Feature{Kind: k}.Buffer(),
			site.Feature{Kind: k, BufferM: 7}.Buffer()))
	}
	approved.Vary(*fine, func(what string, g site.GroundCheck) {
		p := place
		p.Ground = &g
		say(what, site.JudgeTakeOff(p, nil, fr))
	})
	h, covers := 3.0, map[string]bool{}
	for _, from := range []float64{0, 44, 46, 90, 180, 270, 359} {
		p := fr.XY(site.Stand(depot, from, 10, fr))
		lines = append(lines, fmt.Sprintf("wind from %g: stands at %.2f %.2f", from, p.X, p.Y))
		for _, d := range []float64{5, 9.9, 10.1, 30, 49, 51, 80} {
			for _, x := range []float64{0, 10, 20} {
				thing := site.Feature{Kind: site.Obstacle, Shape: site.Point, Name: "shed", HeightM: &h,
					Places: []geo.Point{fr.Point(geo.XY{X: x, Y: -d})}}
				if c := site.FindCover(depot, from, 10, []site.Feature{thing}, fr); c != nil {
					lines = append(lines, fmt.Sprintf("wind from %g: cover at %g, %g: %.2f m", from, x, -d, c.DistanceM))
				}
			}
		}
	}
	// What covers: an obstacle of 1.5 m and more, of each shape, the nearest of them.
	tall := func(v float64) *float64 { return &v }
	south := func(x, d float64) geo.Point { return fr.Point(geo.XY{X: x, Y: -d}) }
	for name, x := range map[string]site.Feature{
		"low": {HeightM: tall(1.49)}, "just": {HeightM: tall(1.5)}, "unknown": {}, "wires": {Kind: site.Wires,
			HeightM: tall(9)}, "trees": {Kind: site.Sensitive, HeightM: tall(9)},
		"line": {Shape: site.Line, HeightM: tall(3), Places: []geo.Point{south(-40, 30),
			south(40, 20)}}, "line away": {Shape: site.Line, HeightM: tall(3), Places: []geo.Point{south(-40, 30),
			south(-10, 30)}},
		"area": {Shape: site.Area, HeightM: tall(3), Places: []geo.Point{south(-10, 40), south(10, 40), south(10, 20),
			south(-10, 20)}},
	} {
		if x.Kind == "" {
			x.Kind = site.Obstacle
		}
		if x.Places == nil {
			x.Shape, x.Places = site.Point, []geo.Point{south(0, 20)}
		}
		x.Name = name
		far := site.Feature{Kind: site.Obstacle, Shape: site.Point, Name: "far", HeightM: tall(5),
			Places: []geo.Point{south(0, 45)}}
		for _, order := range [][]site.Feature{{x, far}, {far, x}} {
			c := site.FindCover(depot, 0, 10, order, fr)
			covers[fmt.Sprintf("%s, %s first: %s at %.2f m", name, order[0].Name, c.Name, c.DistanceM)] = true
		}
	}
	lines = append(lines, slices.Sorted(maps.Keys(covers))...)
	approved.Text(t, "places", lines)
}
