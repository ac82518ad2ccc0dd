// Package trend names a motor that drifts away from its sisters before it
// fails. Values are warmth in degC, output in percent, or any other reading
// that is taken of every motor at the same time.
package trend

import (
	"fmt"
	"math"

	"mainstay/core/judge"
	"mainstay/core/robust"
)

// Settings of the judgement.
const (
	Recent  = 5 // readings that make up now
	Least   = 8 // readings needed in all
	Scatter = 3 // times 1.4826 MAD that now may differ
)

// Floors below which a drift says nothing, however quiet the motors are.
const (
	WarmthFloorC     = 4.0
	OutputFloorPoint = 2.0
)

// Drift is how far one motor has moved from its sisters.
type Drift struct {
	Motor    int           `json:"motor"` // from 1
	Known    bool          `json:"known"` // enough readings to judge
	Before   float64       `json:"before"`
	Now      float64       `json:"now"` // median distance from the sisters over the last five readings
	Deviates []float64     `json:"deviates"`
	Verdict  judge.Verdict `json:"verdict"`
	Sentence string        `json:"sentence"`
}

// Deviations returns for each motor its distance from the median of the other
// motors, reading by reading. Readings with another number of motors are left
// out.
func Deviations(readings [][]float64) [][]float64 {
	if len(readings) == 0 {
		return nil
	}
	n := len(readings[len(readings)-1])
	out := make([][]float64, n)
	for _, r := range readings {
		if len(r) != n || n < 2 {
			continue
		}
		for i := range r {
			others := append(append([]float64{}, r[:i]...), r[i+1:]...)
			out[i] = append(out[i], r[i]-robust.Median(others))
		}
	}
	return out
}

// limitOf is how far now may be from before: from the scatter of all about their own
// earlier middles, at least the floor.
func limitOf(devs [][]float64, floor float64) float64 {
	var pool []float64
	for _, d := range devs {
		if len(d) >= Least {
			early := d[:len(d)-Recent]
			m := robust.Median(early)
			for _, x := range early {
				pool = append(pool, x-m)
			}
		}
	}
	if len(pool) == 0 {
		return floor
	}
	return max(floor, Scatter*1.4826*robust.MAD(pool))
}

// Judge holds each motor's last five readings against its own earlier ones:
// Watch when the median distance from its sisters has moved by more than three
// robust deviations (1.4826 MAD of all motors' earlier distances) and by more
// than the floor. readings are oldest first, one value per motor; quantity and
// unit name them in the sentence. With fewer than eight readings a motor is not
// Known and Watch.
func Judge(readings [][]float64, floor float64, quantity, unit string) []Drift {
	devs := Deviations(readings)
	out := make([]Drift, len(devs))
	limit := limitOf(devs, floor)
	for i, d := range devs {
		out[i] = Drift{Motor: i + 1, Deviates: d}
		if len(d) < Least {
			out[i].Verdict, out[i].Sentence = judge.Watch, fmt.Sprintf("%d of %d readings of %s for a trend.", len(d), Least,
				quantity)
			continue
		}
		before, now := robust.Median(d[:len(d)-Recent]), robust.Median(d[len(d)-Recent:])
		out[i].Known, out[i].Before, out[i].Now = true, before, now
		if moved := now - before; math.Abs(moved) > limit {
			out[i].Verdict = judge.Watch
			out[i].Sentence = fmt.Sprintf("Motor %d is drifting: its %s is %+.1f %s from its sisters, it was %+.1f.", i+1,
				quantity, now, unit, before)
			continue
		}
		out[i].Sentence = fmt.Sprintf("Steady: %+.1f %s from its sisters.", now, unit)
	}
	return out
}
