package home

import (
	"math"
	"slices"

	"mainstay/core/geo"
	"mainstay/core/why"
)

// sectionSteps is in how many steps a line over the ground is cut.
const sectionSteps = 100

// Section is the ground along a line, and what stands within reach of it.
type Section struct {
	Steps   []Step  `json:"steps"` // from the first place (0 m) to the last
	LengthM float64 `json:"length_m"`
	Tops    []Top   `json:"tops"`
}

// Along cuts a site along a line of two places or more, in steps of about a
// hundredth of it. What stands nearer to it than its own buffer and positionM is
// in the section. Without a terrain the ground is levelM everywhere; nil: nobody
// knows it. Errors wrap ErrInput.
func Along(line []geo.XY, t *Terrain, levelM *float64, obstacles []Obstacle, positionM float64) (Section, error) {
	if len(line) < 2 || !(positionM >= 0 && positionM <= 100) {
		return Section{}, why.Not(ErrInput, "a line has at least two places")
	}
	if levelM != nil && !finite(*levelM) {
		return Section{}, why.Not(ErrInput, "the elevation of the ground is no number")
	}
	if err := geo.Finite(line...); err != nil {
		return Section{}, why.Not(ErrInput, "%w", err)
	}
	for _, o := range obstacles {
		if err := o.check(); err != nil {
			return Section{}, err
		}
	}
	out := Section{Steps: []Step{}, Tops: []Top{}}
	alongs := make([]float64, 0, sectionSteps+len(line))
	for i := 1; i < len(line); i++ {
		out.LengthM += geo.Dist(line[i-1], line[i])
		alongs = append(alongs, out.LengthM)
	}
	for i := range sectionSteps {
		alongs = append(alongs, out.LengthM*float64(i)/sectionSteps)
	}
	slices.Sort(alongs) // corners of the line are places of their own: nothing is cut short
	cuts := make([]geo.XY, len(alongs))
	for i, along := range alongs {
		cuts[i] = placeAlong(line, along)
		step := Step{AlongM: along, GroundM: levelM}
		if t != nil {
			step.GroundM = nil
			if g, ok := t.At(cuts[i]); ok {
				step.GroundM = &g
			}
		}
		out.Steps = append(out.Steps, step)
	}
	for _, o := range obstacles {
		if top, ok := o.in(cuts, alongs, o.BufferM+positionM); ok {
			out.Tops = append(out.Tops, top)
		}
	}
	return out, nil
}

// in is where a thing stands along a line that is cut into pieces, each cut so
// many metres along.
func (o Obstacle) in(cuts []geo.XY, alongs []float64, keepM float64) (Top, bool) {
	first, last := math.Inf(1), math.Inf(-1)
	for i := 1; i < len(cuts); i++ {
		if d, _ := o.distance(cuts[i-1], cuts[i]); d <= keepM {
			first, last = min(first, alongs[i-1]), max(last, alongs[i])
		}
	}
	if math.IsInf(first, 1) {
		return Top{}, false
	}
	top := Top{ID: o.ID, Name: o.Name, FromM: first, ToM: last, FootM: o.GroundM, SigmaM: o.SigmaM}
	if o.HeightM != nil {
		v := o.GroundM + *o.HeightM
		top.TopM = &v
	}
	return top, true
}

// placeAlong is the place so many metres along a line.
func placeAlong(line []geo.XY, m float64) geo.XY {
	for i := 1; i < len(line); i++ {
		d := geo.Dist(line[i-1], line[i])
		if m <= d && d > 0 {
			return line[i-1].Add(line[i].Sub(line[i-1]).Times(m / d))
		}
		m -= d
	}
	return line[len(line)-1]
}
