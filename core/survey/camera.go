// Package survey works out pictures from above: what a camera sees of the ground, how
// far apart pictures and lines lie, and how fast it may fly. Lengths are metres unless
// said, sensors and lenses millimetres, times seconds, speeds m/s.
package survey

import (
	"errors"
	"fmt"
	"math"

	"mainstay/core/judge"
	"mainstay/core/units"
)

// ErrInput is wrapped by every refusal.
var ErrInput = errors.New("survey: input not usable")

var within = units.Refuser{Wraps: ErrInput}.Within

// Camera is what decides how a camera sees the ground.
type Camera struct {
	SensorWMM float64 // across the flight, unless it is turned
	SensorHMM float64
	FocalMM   float64
	PixelsW   float64
	PixelsH   float64
	LeastS    float64 // from one picture to the next
	Turned    bool    // the long side lies along the flight
}

// Check refuses a camera that cannot be.
func (c Camera) Check() error {
	return errors.Join(within("sensor width", c.SensorWMM, 1, 100), within("sensor height", c.SensorHMM, 1, 100),
		within("focal length", c.FocalMM, 1, 1000), within("picture width", c.PixelsW, 100, 50000),
		within("picture height", c.PixelsH, 100, 50000), within("least interval", c.LeastS, 0, 60))
}

// Picture is what one picture shows of level ground.
type Picture struct {
	AcrossM    float64 // across the flight
	AlongM     float64
	GSDAcross  float64 // of one pixel, m
	GSDAlong   float64
	GroundGSDM float64 // the coarser of both
}

// See is what a picture from a height shows: sensor x height/focal length, and that by
// the pixels of the side. Valid: 0.5-5000 m. Source: central projection on level ground.
func (c Camera) See(heightM float64) (Picture, error) {
	if err := errors.Join(c.Check(), within("height", heightM, 0.5, 5000)); err != nil {
		return Picture{}, err
	}
	w, h := c.SensorWMM*heightM/c.FocalMM, c.SensorHMM*heightM/c.FocalMM
	p := Picture{AcrossM: w, AlongM: h, GSDAcross: w / c.PixelsW, GSDAlong: h / c.PixelsH}
	if c.Turned {
		p.AcrossM, p.AlongM, p.GSDAcross, p.GSDAlong = p.AlongM, p.AcrossM, p.GSDAlong, p.GSDAcross
	}
	p.GroundGSDM = max(p.GSDAcross, p.GSDAlong)
	return p, nil
}

// HeightFor is the height from which one pixel shows gsdM of the ground, m.
func (c Camera) HeightFor(gsdM float64) (float64, error) {
	if err := errors.Join(c.Check(), within("ground resolution", gsdM, 0.00005, 5)); err != nil {
		return 0, err
	}
	one, err := c.See(1)
	return gsdM / one.GroundGSDM, err
}

// Spacing is how far apart lines and pictures lie for overlaps in percent, m. Valid:
// 0-95 percent.
func (p Picture) Spacing(side, front float64) (lines, pictures float64, err error) {
	if err := errors.Join(within("side overlap", side, 0, 95), within("front overlap", front, 0, 95)); err != nil {
		return 0, 0, err
	}
	return p.AcrossM * (1 - side/100), p.AlongM * (1 - front/100), nil
}

// IntervalMargin is what is kept over the camera's least interval.
const IntervalMargin = 1.2

// Blur over which a picture is Watch and Stop, pixels (usual practice).
const (
	BlurWatch = 0.5
	BlurStop  = 1.0
)

// MostSpeedMS is the greatest speed over the ground that is reckoned with, m/s.
const MostSpeedMS = 60.0

// Pace is how often pictures are taken at a speed, and how sharp they are.
type Pace struct {
	IntervalS float64
	FitsMS    float64 // the greatest speed at which the camera keeps up, at most MostSpeedMS
	BlurPx    float64
	Verdict   judge.Verdict
	Sentence  string
}

// Pace holds speed and shutter against a camera: the interval is spacing over speed and
// at least 1.2 times the camera's least; blur is speed x exposure over the resolution
// along the flight. Valid: 0.1-60 m/s, exposure 1/20000-1 s.
func (c Camera) Pace(p Picture, picturesM, speedMS, exposureS float64) (Pace, error) {
	if err := errors.Join(c.Check(), within("spacing", picturesM, 0.01, 5000), within("speed", speedMS, 0.1, MostSpeedMS),
		within("exposure", exposureS, 1.0/20000, 1), within("resolution", p.GSDAlong, 1e-6, 10)); err != nil {
		return Pace{}, err
	}
	out := Pace{IntervalS: picturesM / speedMS, FitsMS: MostSpeedMS, BlurPx: speedMS * exposureS / p.GSDAlong}
	if c.LeastS > 0 {
		out.FitsMS = min(MostSpeedMS, picturesM/(c.LeastS*IntervalMargin))
	}
	switch {
	case speedMS > out.FitsMS*(1+1e-9):
		out.Verdict, out.Sentence = judge.Stop,
			fmt.Sprintf("A picture each %.2f s is more than the camera takes. Fly at most %.1f m/s.",
				out.IntervalS, out.FitsMS)
	case out.BlurPx > BlurStop:
		out.Verdict, out.Sentence = judge.Stop,
			fmt.Sprintf("Each picture smears over %.2f pixels. Fly slower, or with a shorter exposure.",
				out.BlurPx)
	case out.BlurPx > BlurWatch:
		out.Verdict, out.Sentence = judge.Watch, fmt.Sprintf("Each picture smears over %.2f pixels.", out.BlurPx)
	default:
		out.Sentence = fmt.Sprintf("A picture each %.2f s, %.2f pixels of blur.", out.IntervalS, out.BlurPx)
	}
	return out, nil
}

// Lines is how many lines cover a strip, centred; one where it fits. Valid: width to
// 100 km.
func Lines(widthM, spacingM float64) (int, error) {
	if err := errors.Join(within("width", widthM, 0, 100_000), within("spacing", spacingM, 0.1, 5000)); err != nil {
		return 0, err
	}
	return max(1, int(math.Ceil(widthM/spacingM-1e-9))), nil
}

// Pictures is how many are taken along a line of a length: one at each end too.
func Pictures(lengthM, spacingM float64) (int, error) {
	if err := errors.Join(within("length", lengthM, 0, 100_000), within("spacing", spacingM, 0.01, 5000)); err != nil {
		return 0, err
	}
	return int(math.Ceil(lengthM/spacingM-1e-9)) + 1, nil
}
