package geo_test

import (
	"fmt"
	"testing"

	"mainstay/approved"
	"mainstay/core/geo"
)

// Places at the edges of what is taken, and the plain geometry of a few shapes.
func TestPlacesAsApproved(t *testing.T) {
	var lines []string
	for _, lat := range []float64{-181, -180, -91, -90, -85.01, -85, 0, 46, 85, 85.01, 90, 90.5, 180, 180.5} {
		for _, lon := range []float64{-181, -180, -90, 0, 90, 90.5, 180, 180.5} {
			lines = append(lines, fmt.Sprintf("%g %g: %v", lat, lon, geo.Point{Lat: lat, Lon: lon}.Check()))
		}
	}
	for _, a := range []float64{-720, -181, -180, -90, 0, 1, 179, 180, 181, 359.5, 360, 725} {
		for _, b := range []float64{0, 90, 180, 270} {
			lines = append(lines, fmt.Sprintf("%g %g: %g %g", a, b, geo.Turn(a), geo.AngleBetween(a, b)))
		}
	}
	ring := geo.Ring{{X: 0, Y: 0}, {X: 10, Y: 0}, {X: 10, Y: 10}, {X: 4, Y: 12}, {X: 0, Y: 10}}
	area := geo.Area{Outline: ring, Holes: []geo.Ring{{{X: 3, Y: 3}, {X: 5, Y: 3}, {X: 5, Y: 5}, {X: 3, Y: 5}}}}
	for x := -2.0; x <= 12; x += 2 {
		for y := -2.0; y <= 14; y += 2 {
			p := geo.XY{X: x, Y: y}
			near, d := geo.Nearest(p, ring[1], ring[3])
			dist, along := geo.Segments(p, geo.XY{X: x + 3, Y: y + 1}, ring[2], ring[4])
			lines = append(lines, fmt.Sprintf("%v: in %v, edge %.4f, near %.4f %.4f %.4f, segments %.4f %.4f", p, area.Holds(p),
				ring.ToEdge(p), near.X, near.Y, d, dist, along))
		}
	}
	lines = append(lines, fmt.Sprintf("%.3f %.3f", ring.Area(), area.Size()))
	approved.Text(t, "places", lines)
}
