// Package formatstest makes site features for the tests of the file formats.
package formatstest

import (
	"math"

	"github.com/google/uuid"
	"pgregory.net/rapid"

	"mainstay/core/geo"
	"mainstay/core/site"
)

// Features are any features that a site may have; withHoles is false for
// formats that know none.
func Features(withHoles bool) *rapid.Generator[[]site.Feature] {
	return rapid.Custom(func(t *rapid.T) []site.Feature {
		var out []site.Feature
		for range rapid.IntRange(1, 6).Draw(t, "n") {
			out = append(out, feature(t, withHoles))
		}
		return out
	})
}

var word = rapid.StringMatching(`[A-Za-z0-9<>&"',;äß]([A-Za-z0-9 <>&"',;äß]{0,20}[A-Za-z0-9<>&"',;äß])?`)

func feature(t *rapid.T, withHoles bool) site.Feature {
	kind := rapid.SampledFrom(site.AllKinds).Draw(t, "kind")
	shape := map[site.Kind]site.Shape{site.Work: site.Area, site.NoGo: site.Area, site.TakeOff: site.Point,
		site.Wires: site.Line, site.Route: site.Line, site.Access: site.Line}[kind]
	if shape == "" {
		shape = rapid.SampledFrom([]site.Shape{site.Point, site.Line, site.Area}).Draw(t, "shape")
	}
	num := func(name string, hi float64) float64 {
		return math.Round(rapid.Float64Range(0, hi).Draw(t, name)*100) / 100
	}
	f := site.Feature{ID: uuid.Must(uuid.NewV7()).String(), Kind: kind, Shape: shape, Name: word.Draw(t, "name"),
		Note: word.Draw(t, "note"), BufferM: num("buffer", 50)}
	if kind == site.Obstacle || kind == site.Wires {
		h := num("height", 200)
		f.HeightM, f.SigmaM, f.Measured, f.SagM = &h, num("sigma", 5), "clinometer", num("sag", 4)
	}
	if kind == site.TakeOff {
		yes, no := true, false
		f.Main, f.Free, f.Ground = true, []float64{0, 92.5, 270}, &site.GroundCheck{Flat: &yes, NoDust: &no}
		e := num("elevation", 900)
		f.GroundM = &e
	}
	if kind == site.Sensitive {
		f.What = "bees"
	}
	lat, lon := rapid.Float64Range(-60, 60).Draw(t, "lat"), rapid.Float64Range(-179, 179).Draw(t, "lon")
	ring := func(r float64, n int) []geo.Point {
		var out []geo.Point
		for i := range n {
			s, c := math.Sincos(2 * math.Pi * float64(i) / float64(n))
			out = append(out, geo.Point{Lat: lat + r*s, Lon: lon + r*c})
		}
		return out
	}
	switch shape {
	case site.Point:
		f.Places = ring(0.001, 1)
	case site.Line:
		f.Places = ring(0.001, 7)[:5]
	default:
		f.Places = ring(0.002, rapid.IntRange(3, 9).Draw(t, "corners"))
		if withHoles && rapid.Bool().Draw(t, "hole") {
			f.Holes = [][]geo.Point{ring(0.0005, 4)}
		}
	}
	return f
}
