package geo

import "math"

// Turned is the frame seen along a bearing: X runs along it, Y to its right.
type Turned struct{ Along, Right XY }

// TurnedTo looks along a bearing, degrees true.
func TurnedTo(bearing float64) Turned {
	sin, cos := math.Sincos(bearing * math.Pi / 180)
	return Turned{Along: XY{X: sin, Y: cos}, Right: XY{X: cos, Y: -sin}}
}

// To takes a place of the frame into the turned one.
func (t Turned) To(p XY) XY {
	return XY{X: p.X*t.Along.X + p.Y*t.Along.Y, Y: p.X*t.Right.X + p.Y*t.Right.Y}
}

// From takes a place of the turned frame back.
func (t Turned) From(q XY) XY { return t.Along.Times(q.X).Add(t.Right.Times(q.Y)) }

// CapsuleAt is the stretch of the line at height y in which a place is within reach of
// the segment from a to b, m; ok is false where none is. A capsule is convex, so there
// is one stretch: between the outermost of what its two round ends and its straight
// sides leave of the line.
func CapsuleAt(a, b XY, reach, y float64) (lo, hi float64, ok bool) {
	if y < min(a.Y, b.Y)-reach || y > max(a.Y, b.Y)+reach {
		return 0, 0, false
	}
	lo, hi = math.Inf(1), math.Inf(-1)
	for _, end := range [2]XY{a, b} {
		if d := math.Abs(y - end.Y); d <= reach {
			half := math.Sqrt(reach*reach - d*d)
			lo, hi = min(lo, end.X-half), max(hi, end.X+half)
		}
	}
	d := b.Sub(a)
	long := d.Len()
	if long > 0 && d.Y != 0 {
		n := XY{X: -d.Y, Y: d.X}.Times(reach / long)
		for _, side := range [2]XY{a.Add(n), a.Sub(n)} {
			if t := (y - side.Y) / d.Y; t >= 0 && t <= 1 {
				x := side.X + t*d.X
				lo, hi = min(lo, x), max(hi, x)
			}
		}
	}
	return lo, hi, hi >= lo
}
