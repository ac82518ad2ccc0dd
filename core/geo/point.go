// Package geo holds places on the earth and plain geometry in a flat frame
// around a site. Places are WGS 84 degrees; the frame is metres east and north.
package geo

import (
	"errors"
	"math"

	"mainstay/core/units"
	"mainstay/core/why"
)

// ErrPlace is wrapped by every refusal of a place.
var ErrPlace = errors.New("place not usable")

// MaxLatitude bounds sites: nearer to a pole east and north lose their meaning.
const MaxLatitude = 85.0

// Point is a place in degrees: latitude north -90 to 90, longitude east -180 to
// 180.
type Point struct {
	Lat float64 `json:"lat"`
	Lon float64 `json:"lon"`
}

// Check says what is wrong with a place; a longitude over 180 or a latitude
// beyond 85 is refused, and latitude and longitude that seem swapped are named.
func (p Point) Check() error {
	switch {
	case math.IsNaN(p.Lat) || math.IsNaN(p.Lon):
		return why.Not(ErrPlace, "latitude and longitude must be numbers")
	case math.Abs(p.Lat) > 90 && math.Abs(p.Lat) <= 180 && math.Abs(p.Lon) <= 90:
		return why.Not(ErrPlace, "latitude %g is over 90; latitude and longitude seem to be swapped", p.Lat)
	case math.Abs(p.Lat) > 90:
		return why.Not(ErrPlace, "latitude %g is not between -90 and 90", p.Lat)
	case math.Abs(p.Lon) > 180:
		return why.Not(ErrPlace, "longitude %g is not between -180 and 180", p.Lon)
	case math.Abs(p.Lat) > MaxLatitude:
		return why.Not(ErrPlace, "latitude %g is so near the pole that a flat map does not hold; the limit is 85", p.Lat)
	}
	return nil
}

// Distance is the great-circle distance in metres on a sphere of mean radius
// (haversine); up to 0.5 % off the ellipsoid, enough inside a site.
func Distance(a, b Point) float64 {
	la, lb := a.Lat*rad, b.Lat*rad
	s := math.Pow(math.Sin((lb-la)/2), 2) + math.Cos(la)*math.Cos(lb)*math.Pow(math.Sin((b.Lon-a.Lon)*rad/2), 2)
	return 2 * units.EarthMeanRadius * math.Asin(math.Min(1, math.Sqrt(s)))
}

// Bearing is the initial true course from a to b, degrees clockwise from north,
// 0 to under 360; 0 when both are one place.
func Bearing(a, b Point) float64 {
	la, lb, d := a.Lat*rad, b.Lat*rad, (b.Lon-a.Lon)*rad
	return Turn(math.Atan2(math.Sin(d)*math.Cos(lb),
		math.Cos(la)*math.Sin(lb)-math.Sin(la)*math.Cos(lb)*math.Cos(d)) / rad)
}

const rad = math.Pi / 180

// Turn brings an angle into 0 to under 360 degrees.
func Turn(deg float64) float64 {
	d := math.Mod(deg, 360)
	if d < 0 {
		d += 360
	}
	if d >= 360 {
		d = 0
	}
	return d
}

// AngleBetween is the shortest signed turn from one course to another, degrees,
// over -180 to 180.
func AngleBetween(from, to float64) float64 {
	d := Turn(to - from)
	if d > 180 {
		d -= 360
	}
	return d
}

// XY is a place in a frame: metres east and north of its origin.
type XY struct {
	X float64 `json:"x"`
	Y float64 `json:"y"`
}

// Frame is a flat map around an origin: equirectangular with the radii of
// curvature of the WGS 84 ellipsoid at the origin. Within 10 km of the origin
// lengths are true to 0.2 % up to 70 degrees of latitude. It crosses the date
// line.
type Frame struct {
	Origin Point
	mLat   float64 // metres per degree
	mLon   float64
}

// NewFrame makes the frame around an origin that passes Check.
func NewFrame(origin Point) (Frame, error) {
	if err := origin.Check(); err != nil {
		return Frame{}, err
	}
	const a, e2 = 6378137.0, 0.00669437999014 // WGS 84
	s := math.Sin(origin.Lat * rad)
	w := 1 - e2*s*s
	return Frame{origin, a * (1 - e2) / math.Pow(w, 1.5) * rad, a / math.Sqrt(w) * math.Cos(origin.Lat*rad) * rad}, nil
}

// XY puts a place into the frame.
func (f Frame) XY(p Point) XY {
	d := math.Mod(p.Lon-f.Origin.Lon+540, 360)
	if d < 0 {
		d += 360
	}
	return XY{(d - 180) * f.mLon, (p.Lat - f.Origin.Lat) * f.mLat}
}

// Point takes a place out of the frame.
func (f Frame) Point(q XY) Point {
	lon := f.Origin.Lon + q.X/f.mLon
	if lon > 180 {
		lon -= 360
	} else if lon < -180 {
		lon += 360
	}
	return Point{f.Origin.Lat + q.Y/f.mLat, lon}
}

// All puts places into the frame.
func (f Frame) All(ps []Point) []XY {
	out := make([]XY, len(ps))
	for i, p := range ps {
		out[i] = f.XY(p)
	}
	return out
}
