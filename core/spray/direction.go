package spray

import (
	"math"

	"mainstay/core/geo"
)

// BestBearing is the direction of the strips with the fewest passes over a field,
// degrees true under 180: tried are the sides of its hull and their normals; a tie
// goes to the shorter passes flown altogether, then to the smaller bearing.
func (f Field) BestBearing(p Pattern) (float64, error) {
	if err := f.Check(); err != nil {
		return 0, err
	}
	hull := geo.Hull(f.Outline)
	best, passes, flown := 0.0, math.MaxInt, 0.0
	seen := map[int]bool{}
	p.Edges = false
	for i := range hull {
		d := hull[(i+1)%len(hull)].Sub(hull[i])
		for _, turn := range []float64{0, 90} {
			b := math.Mod(math.Atan2(d.X, d.Y)*180/math.Pi+turn+720, 180)
			if key := int(math.Round(b*10)) % 1800; !seen[key] {
				seen[key] = true
			} else {
				continue
			}
			p.BearingDeg = b
			c, err := f.Passes(p)
			if err != nil {
				return 0, err
			}
			long := 0.0
			for _, x := range c.Passes {
				long += x.Length()
			}
			n := len(c.Passes)
			if n == 0 {
				continue
			}
			if n < passes || n == passes && (long < flown-1 || long < flown+1 && b < best) {
				best, passes, flown = b, n, long
			}
		}
	}
	return best, nil
}
