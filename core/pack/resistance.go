package pack

import (
	"fmt"
	"math"
	"time"

	"mainstay/core/judge"
	"mainstay/core/robust"
	"mainstay/core/units"
	"mainstay/core/why"
)

// Limits of usual practice for internal resistance.
const (
	BaselineReadings = 5   // the first readings that make the baseline
	CompareWithinC   = 7.0 // degC between a reading and the baseline
	RiseWatch        = 50  // percent over baseline
	RiseRetire       = 100
)

// Resistance is the internal resistance of a cell in mohm from its volts at
// rest and under load in mV and the current in A:
//
//	R = (rest - loaded) / current
//
// Valid for currents of 0.5 A and more. Errors: ErrVolts for volts out of
// range or higher under load than at rest, ErrCurrent.
func Resistance(rest, loaded units.Millivolts, amps float64) (float64, error) {
	if !(amps >= 0.5 && amps <= 1000) {
		return 0, why.Not(ErrCurrent, "%g A", amps)
	}
	if rest < 500 || rest > 5000 || loaded < 500 || loaded > rest {
		return 0, why.Not(ErrVolts, "%d mV at rest, %d mV under load", rest, loaded)
	}
	return float64(rest-loaded) / amps, nil
}

// ResistanceReading is one measurement of all cells, oldest first in a history.
type ResistanceReading struct {
	At           time.Time
	TemperatureC *float64
	MilliOhm     []float64 // one per cell
}

// ResistanceTrend says how far the worst cell has risen over its baseline.
type ResistanceTrend struct {
	Known    bool          `json:"known"`
	Cell     int           `json:"cell"`         // worst cell, from 1
	Percent  float64       `json:"rise_percent"` // over its baseline
	Baseline float64       `json:"baseline_mohm"`
	Now      float64       `json:"now_mohm"`
	Verdict  judge.Verdict `json:"verdict"`
	Sentence string        `json:"sentence"`
}

// JudgeResistance holds the newest reading against the median of the first
// five, cell by cell. Resistance falls as a pack warms, so only readings within
// 7 degC of the baseline's median temperature count. A rise of 50 percent is
// Watch, 100 percent is Stop: retire it. With fewer than five earlier readings,
// or none at a like temperature, it is not known. A later reading at another
// temperature is named, and one that no cell can give is Watch.
func JudgeResistance(history []ResistanceReading) ResistanceTrend {
	var temps []float64
	var first []ResistanceReading
	var newest, apart *ResistanceReading
	unfit := false
	for i := range history {
		r := &history[i]
		if r.TemperatureC == nil || len(r.MilliOhm) == 0 || len(first) > 0 && len(r.MilliOhm) != len(first[0].MilliOhm) {
			continue
		}
		if !r.sound() {
			unfit = true
			continue
		}
		if len(first) < BaselineReadings {
			first = append(first, *r)
			temps = append(temps, *r.TemperatureC)
			continue
		}
		if math.Abs(*r.TemperatureC-robust.Median(temps)) <= CompareWithinC {
			newest, apart = r, nil
		} else {
			apart = r
		}
	}
	if len(first) < BaselineReadings {
		return ResistanceTrend{Verdict: judge.Watch,
			Sentence: fmt.Sprintf("Resistance: %d of %d readings with a temperature for a baseline.", len(first),
				BaselineReadings)}
	}
	if newest == nil {
		return ResistanceTrend{Verdict: judge.Watch,
			Sentence: fmt.Sprintf("Resistance: no reading since the baseline within %g °C of its %.0f °C.", CompareWithinC,
				robust.Median(temps))}
	}
	out := ResistanceTrend{Known: true, Percent: math.Inf(-1)}
	for c := range newest.MilliOhm {
		var base []float64
		for _, r := range first {
			base = append(base, r.MilliOhm[c])
		}
		b := robust.Median(base)
		if b <= 0 {
			continue
		}
		if rise := (newest.MilliOhm[c]/b - 1) * 100; rise > out.Percent {
			out.Cell, out.Percent, out.Baseline, out.Now = c+1, rise, b, newest.MilliOhm[c]
		}
	}
	if math.IsInf(out.Percent, -1) {
		return ResistanceTrend{Verdict: judge.Watch, Sentence: "Resistance: the baseline reads zero."}
	}
	out.Sentence = fmt.Sprintf("Resistance of cell %d is %.1f mΩ, %+.0f %% against %.1f mΩ when new.", out.Cell, out.Now,
		out.Percent, out.Baseline)
	// In whole tenths of a percent, so that exactly double counts as double.
	switch tenths := math.Round(out.Percent * 10); {
	case tenths >= RiseRetire*10:
		out.Verdict, out.Sentence = judge.Stop, out.Sentence+" Retire the pack."
	case tenths >= RiseWatch*10:
		out.Verdict = judge.Watch
	}
	if apart != nil {
		out.Sentence += fmt.Sprintf(" A newer reading, at %.0f °C, is not compared: the baseline is at %.0f °C.",
			*apart.TemperatureC, robust.Median(temps))
	}
	if unfit {
		out.Verdict, out.Sentence = max(out.Verdict,
			judge.Watch), out.Sentence+" A reading that no cell can give is left out."
	}
	return out
}

// sound reports whether cells can give the reading.
func (r ResistanceReading) sound() bool {
	for _, v := range append([]float64{*r.TemperatureC + 100}, r.MilliOhm...) {
		if !(v >= 0 && v < 10_000) {
			return false
		}
	}
	return true
}
