package geo_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"mainstay/core/geo"
)

// Turning and turning back is the same place, and lengths stay.
func TestTurnedKeepsPlaces(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n := rapid.Float64Range(-5000, 5000)
		p := geo.XY{X: n.Draw(t, "x"), Y: n.Draw(t, "y")}
		turn := geo.TurnedTo(rapid.Float64Range(0, 360).Draw(t, "bearing"))
		assert.InDelta(t, 0, geo.Dist(p, turn.From(turn.To(p))), 1e-9)
		assert.InDelta(t, p.Len(), turn.To(p).Len(), 1e-9)
	})
	east := geo.TurnedTo(90).To(geo.XY{X: 10, Y: 3}) // looking east, north lies to the left
	assert.InDelta(t, 10, east.X, 1e-9)
	assert.InDelta(t, -3, east.Y, 1e-9)
}

// A place of the line lies in the stretch exactly when it is within reach.
func TestCapsuleAtAgreesWithDistance(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n := rapid.Float64Range(-100, 100)
		a, b := geo.XY{X: n.Draw(t, "ax"), Y: n.Draw(t, "ay")}, geo.XY{X: n.Draw(t, "bx"), Y: n.Draw(t, "by")}
		if rapid.Bool().Draw(t, "level") {
			b.Y = a.Y
		}
		reach, y := rapid.Float64Range(0, 60).Draw(t, "reach"), n.Draw(t, "y")
		lo, hi, ok := geo.CapsuleAt(a, b, reach, y)
		for i := range 200 {
			p := geo.XY{X: -200 + 2*float64(i), Y: y}
			q, _ := geo.Nearest(p, a, b)
			if d := geo.Dist(p, q); math.Abs(d-reach) > 1e-6 {
				assert.Equal(t, d < reach, ok && p.X >= lo && p.X <= hi, "%v: %v from it, reach %v, stretch %v to %v", p, d, reach,
					lo, hi)
			}
		}
	})
}
