// Package robust holds the few statistics that judge wear: they stay true when
// one reading in a handful is wrong. Values are plain numbers in the unit of
// the caller.
package robust

import (
	"errors"
	"math"
	"slices"
)

// Median is the middle of the values, the mean of the two middle ones for an
// even number, NaN for none.
func Median(v []float64) float64 {
	if len(v) == 0 {
		return math.NaN()
	}
	s := slices.Sorted(slices.Values(v))
	n := len(s)
	if n%2 == 1 {
		return s[n/2]
	}
	return (s[n/2-1] + s[n/2]) / 2
}

// MAD is the median of the absolute distances from the median; NaN for none.
// For normal scatter 1.4826 MAD estimates the standard deviation.
func MAD(v []float64) float64 {
	m := Median(v)
	d := make([]float64, len(v))
	for i, x := range v {
		d[i] = math.Abs(x - m)
	}
	return Median(d)
}

// Line is a straight line through the medians of its points, with the interval
// of its slope.
type Line struct {
	Slope     float64 // units of y for one of x
	Low, High float64 // ends of the 90 percent interval of the slope, Low <= Slope <= High
	MidX      float64 // median of x
	MidY      float64 // median of y
}

// At is the height of the line at x.
func (l Line) At(x float64) float64 { return l.MidY + l.Slope*(x-l.MidX) }

// ErrPoints is returned when there are too few different points for a line.
var ErrPoints = errors.New("too few different points for a line")

// z of the 90 percent interval: the normal distribution holds 5 percent above it.
const z90 = 1.6448536269514722

// TheilSen fits a line whose slope is the median of the slopes of all pairs of
// points with different x, through the medians. The interval of the slope is
// Sen's by ranks, with Kendall's variance corrected for equal x and equal y:
//
//	var = (n(n-1)(2n+5) - sum over ties t(t-1)(2t+5)) / 18
//	C = 1.645 sqrt(var), ends = slopes ranked (N-C)/2 and (N+C)/2 + 1
//
// Errors: ErrPoints for fewer than two different x, or lengths that differ.
// Source: P. K. Sen, J. Am. Stat. Assoc. 63 (1968) 1379-1389.
func TheilSen(x, y []float64) (Line, error) {
	if len(x) != len(y) || len(x) < 2 {
		return Line{}, ErrPoints
	}
	var slopes []float64
	for i := range x {
		for j := range i {
			if x[i] != x[j] {
				slopes = append(slopes, (y[i]-y[j])/(x[i]-x[j]))
			}
		}
	}
	if len(slopes) == 0 {
		return Line{}, ErrPoints
	}
	slices.Sort(slopes)
	n := float64(len(x))
	variance := (n*(n-1)*(2*n+5) - ties(x) - ties(y)) / 18
	c := z90 * math.Sqrt(max(variance, 0))
	total := float64(len(slopes))
	low := int(math.Floor((total-c)/2)) - 1 // ranks count from 1
	high := int(math.Ceil((total + c) / 2))
	last := len(slopes) - 1
	return Line{Slope: Median(slopes), Low: slopes[min(max(low, 0), last)], High: slopes[max(min(high, last), 0)],
		MidX: Median(x), MidY: Median(y)}, nil
}

// ties sums t(t-1)(2t+5) over groups of t equal values.
func ties(v []float64) float64 {
	count := map[float64]float64{}
	for _, x := range v {
		count[x]++
	}
	sum := 0.0
	for _, t := range count {
		if t > 1 {
			sum += t * (t - 1) * (2*t + 5)
		}
	}
	return sum
}
