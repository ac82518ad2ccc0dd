package pack

import (
	"fmt"
	"time"

	"mainstay/core/judge"
	"mainstay/core/robust"
	"mainstay/core/units"
)

// Limits of usual practice for packs at rest.
const (
	SelfDischargeAfter = 24 * time.Hour     // from the end of the charge to the first reading
	SelfDischargeApart = 3 * 24 * time.Hour // between the two readings
	SelfDischargeMV    = 5.0                // mV a day
	SelfDischargeTimes = 3.0                // times the median of the other cells
	FullWatch          = 48 * time.Hour     // charged above storage
	FullStop           = 10 * 24 * time.Hour
	LowestTimes        = 3 // the same cell lowest this many times running
)

// RestingReading is a reading of a pack that lay without load.
type RestingReading struct {
	At     time.Time
	CellMV []units.Millivolts
}

// Discharge is what the cells of a resting pack lose by themselves.
type Discharge struct {
	MVPerDay []float64     `json:"mv_per_day"`
	Suspect  int           `json:"suspect"` // cell from 1, 0 for none
	Verdict  judge.Verdict `json:"verdict"`
	Sentence string        `json:"sentence"`
}

// SelfDischarge compares two readings of the same rest. The first is taken at
// least 24 h after the charge ended, the second at least 3 days later; a cell
// that loses over three times the median of the other cells and over 5 mV a
// day is suspect: Stop. ok is false when the readings do not qualify.
func SelfDischarge(chargedAt time.Time, a, b RestingReading) (d Discharge, ok bool) {
	if a.At.Sub(chargedAt) < SelfDischargeAfter || b.At.Sub(a.At) < SelfDischargeApart || len(a.CellMV) == 0 ||
		len(a.CellMV) != len(b.CellMV) {
		return Discharge{}, false
	}
	days := b.At.Sub(a.At).Hours() / 24
	for i := range a.CellMV {
		d.MVPerDay = append(d.MVPerDay, float64(a.CellMV[i]-b.CellMV[i])/days)
	}
	worst := 0.0
	for i, loss := range d.MVPerDay {
		others := append(append([]float64{}, d.MVPerDay[:i]...), d.MVPerDay[i+1:]...)
		m := 0.0
		if len(others) > 0 {
			m = max(robust.Median(others), 0)
		}
		if loss > SelfDischargeMV && loss > SelfDischargeTimes*m && loss > worst {
			d.Suspect, worst = i+1, loss
		}
	}
	if d.Suspect > 0 {
		d.Verdict = judge.Stop
		d.Sentence = fmt.Sprintf("Cell %d loses %.1f mV a day at rest, far more than the others: suspect.", d.Suspect, worst)
		return d, true
	}
	d.Sentence = fmt.Sprintf("At rest the cells lose %.1f mV a day.", robust.Median(d.MVPerDay))
	return d, true
}

// JudgeFull judges how long a pack has been charged above storage level since
// the given time: from 48 h Watch, from 10 days Stop until a look at all six
// faces is on record after those ten days. lookedAt is the newest clean look. A
// date in the future is no date: Stop; a look in the future is none.
func JudgeFull(since, now time.Time, lookedAt *time.Time) Judgement {
	full := now.Sub(since)
	against := "48 h watch, 10 days stop"
	if since.IsZero() || full < -judge.ClockSkew {
		return Judgement{judge.Stop,
			"Since when it is charged is not known: look at all six faces, and bring it down to storage.", against}
	}
	if lookedAt != nil && now.Before(lookedAt.Add(-judge.ClockSkew)) {
		lookedAt = nil
	}
	days := fmt.Sprintf("Charged for %.0f h", full.Hours())
	if full >= FullWatch {
		days = fmt.Sprintf("Charged for %.0f days", full.Hours()/24)
	}
	switch {
	case full >= FullStop && (lookedAt == nil || lookedAt.Before(since.Add(FullStop))):
		return Judgement{judge.Stop,
			days + ": it may have swollen where nobody looks. Look at all six faces before it flies, and bring it down to storage.",
			against}
	case full >= FullWatch:
		return Judgement{judge.Watch, days + ": fly it first or bring it down to storage.", against}
	}
	return Judgement{judge.Clear, days + ".", against}
}

// LowestRepeats returns the cell (from 1) that was lowest in each of the last
// three readings given, newest last, or 0. Readings in which cells agree within
// 5 mV name no cell.
func LowestRepeats(history [][]units.Millivolts) int {
	if len(history) < LowestTimes {
		return 0
	}
	cell := 0
	for i, mv := range history[len(history)-LowestTimes:] {
		spread, low, err := Spread(mv)
		if err != nil || spread < 5 {
			return 0
		}
		if i > 0 && low+1 != cell {
			return 0
		}
		cell = low + 1
	}
	return cell
}
