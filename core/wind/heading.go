package wind

import (
	"fmt"
	"math"

	"mainstay/core/units"
	"mainstay/core/why"
)

// Landing is the best of the headings that are free to land or start on.
type Landing struct {
	Heading float64               `json:"heading"` // degrees true
	Head    units.MetresPerSecond `json:"head_ms"`
	Cross   units.MetresPerSecond `json:"cross_ms"` // positive from the right
	OK      bool                  `json:"ok"`
	Reason  string                `json:"reason"`
}

// BestHeading picks, among free headings (degrees true), the one into the wind
// with the least crosswind, more headwind deciding a tie, judged with the gust
// against the type's crosswind limit. None is an answer too: OK is false and
// Reason says why.
func BestHeading(gust units.MetresPerSecond, from float64, free []float64,
	crossLimit units.MetresPerSecond) (Landing, error) {
	if !(gust >= 0 && gust <= 100) || math.IsNaN(from) || !(crossLimit > 0) || len(free) == 0 {
		return Landing{}, why.Not(ErrInput, "gust, direction, crosswind limit and at least one free heading are needed")
	}
	var best *Landing
	for _, h := range free {
		head, cross := Components(gust, from, h)
		if head < -1e-6 {
			continue
		}
		l := Landing{Heading: h, Head: head, Cross: cross}
		if best == nil || better(l, *best) {
			best = &l
		}
	}
	switch {
	case best == nil:
		return Landing{Reason: "Only tailwind on the free headings: move the place or wait."}, nil
	case math.Abs(float64(best.Cross)) > float64(crossLimit):
		best.Reason = fmt.Sprintf("Crosswind %.1f m/s in gusts on heading %03.0f is over the limit of %.1f.",
			math.Abs(float64(best.Cross)), best.Heading, float64(crossLimit))
	default:
		best.OK, best.Reason = true, fmt.Sprintf("Heading %03.0f: %.1f m/s from ahead, %.1f across.", best.Heading,
			float64(best.Head), math.Abs(float64(best.Cross)))
	}
	return *best, nil
}

func better(a, b Landing) bool {
	ca, cb := math.Abs(float64(a.Cross)), math.Abs(float64(b.Cross))
	if math.Abs(ca-cb) > 1e-6 {
		return ca < cb
	}
	return a.Head > b.Head
}

// GroundSpeed is the speed over a course (degrees true) at an airspeed in m/s
// in a wind in m/s from a direction. ok is false when the course cannot be held
// or there is no way forward.
func GroundSpeed(airspeed, wind units.MetresPerSecond, from, course float64) (speed units.MetresPerSecond, ok bool) {
	head, cross := Components(wind, from, course)
	if math.Abs(float64(cross)) >= float64(airspeed) {
		return 0, false
	}
	angle := math.Asin(float64(cross) / float64(airspeed))
	v := float64(airspeed)*math.Cos(angle) - float64(head)
	return units.MetresPerSecond(v), v > 0 && v <= math.MaxFloat64
}

// beaufort are the lower edges of the classes 0 to 12, m/s (WMO); class 12 is
// open upwards and ends here where readings end.
var beaufort = []units.MetresPerSecond{0, 0.3, 1.6, 3.4, 5.5, 8.0, 10.8, 13.9, 17.2, 20.8, 24.5, 28.5, 32.7, 60}

// ByEye is the range that a class of the Beaufort scale stands for, m/s at 10 m
// above open ground. An estimate by eye stays a range. Valid: 0 to 12; errors
// wrap ErrInput.
func ByEye(class int) (from, to units.MetresPerSecond, err error) {
	if class < 0 || class > 12 {
		return 0, 0, why.Not(ErrInput, "Beaufort %d is not between 0 and 12", class)
	}
	return beaufort[class], beaufort[class+1], nil
}
