// Package height measures how high things are with what a crew carries, each
// way with its error (one standard deviation, by first-order propagation).
package height

import (
	"errors"
	"mainstay/core/why"
	"math"
)

// ErrInput is wrapped by every refusal.
var ErrInput = errors.New("height: input out of range")

const rad = math.Pi / 180

// Measured is a height above the foot of the thing, m, with one standard
// deviation.
type Measured struct {
	M     float64 `json:"m"`
	Sigma float64 `json:"sigma"`
}

// Value is a reading with one standard deviation.
type Value struct {
	V     float64 `json:"v"`
	Sigma float64 `json:"sigma"`
}

func (v Value) within(what string, lo, hi float64) error {
	if !(v.V >= lo && v.V <= hi) || !(v.Sigma >= 0 && v.Sigma <= hi) {
		return why.Not(ErrInput, "%s %g ± %g is not between %g and %g", what, v.V, v.Sigma, lo, hi)
	}
	return nil
}

// Clinometer is h = d tan(a) + eye, the foot level with the observer's feet:
// distance 1-2000 m, angle to the top 0-80 degrees, eye 0-3 m above the ground.
func Clinometer(dist, angle Value, eye float64) (Measured, error) {
	if err := errors.Join(dist.within("distance in m", 1, 2000), angle.within("angle in degrees", 0, 80),
		Value{V: eye}.within("eye height in m", 0, 3)); err != nil {
		return Measured{}, err
	}
	t, c := math.Tan(angle.V*rad), math.Cos(angle.V*rad)
	return Measured{dist.V*t + eye, math.Hypot(t*dist.Sigma, dist.V/(c*c)*angle.Sigma*rad)}, nil
}

// TwoAngles is for slopes: h = d (tan(top) - tan(base)), base negative when the
// foot lies below the eye. Angles -80 to 80 degrees, top over base.
func TwoAngles(dist, top, base Value) (Measured, error) {
	if err := errors.Join(dist.within("distance in m", 1, 2000), top.within("angle to the top", -80, 80),
		base.within("angle to the foot", -80, 80)); err != nil {
		return Measured{}, err
	}
	if top.V <= base.V {
		return Measured{}, why.Not(ErrInput, "the angle to the top must be over the one to the foot")
	}
	d := func(a Value) float64 { c := math.Cos(a.V * rad); return dist.V / (c * c) * a.Sigma * rad }
	t := math.Tan(top.V*rad) - math.Tan(base.V*rad)
	return Measured{dist.V * t, math.Hypot(t*dist.Sigma, math.Hypot(d(top), d(base)))}, nil
}

// TwoStations needs no distance to the foot: angles from two places in line
// with the thing, base metres apart (1-1000); far under near, 1-80 degrees.
func TwoStations(base, far, near Value, eye float64) (Measured, error) {
	if err := errors.Join(base.within("distance between the stations in m", 1, 1000), far.within("far angle", 1, 80),
		near.within("near angle", 1, 80), Value{V: eye}.within("eye height in m", 0, 3)); err != nil {
		return Measured{}, err
	}
	ta, tc := math.Tan(far.V*rad), math.Tan(near.V*rad)
	if tc-ta < 0.02 {
		return Measured{}, why.Not(ErrInput, "the near angle must be clearly over the far one")
	}
	h := base.V * ta * tc / (tc - ta)
	sec := func(a float64) float64 { return 1 / math.Pow(math.Cos(a*rad), 2) }
	q := math.Pow(tc-ta, 2)
	return Measured{h + eye, math.Sqrt(math.Pow(base.V*tc*tc*sec(far.V)*far.Sigma*rad/q,
		2) + math.Pow(base.V*ta*ta*sec(near.V)*near.Sigma*rad/q, 2) + math.Pow(h/base.V*base.Sigma, 2))}, nil
}

// Shadow is h = shadow times stick over the stick's shadow, all in m, measured
// at one time on level ground.
func Shadow(shadow, stick, stickShadow Value) (Measured, error) {
	if err := errors.Join(shadow.within("shadow in m", 0.1, 1000), stick.within("stick in m", 0.1, 10),
		stickShadow.within("shadow of the stick in m", 0.05, 50)); err != nil {
		return Measured{}, err
	}
	h := shadow.V * stick.V / stickShadow.V
	rel := math.Sqrt(math.Pow(shadow.Sigma/shadow.V, 2) + math.Pow(stick.Sigma/stick.V,
		2) + math.Pow(stickShadow.Sigma/stickShadow.V, 2))
	return Measured{h, h * rel}, nil
}
