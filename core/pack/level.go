package pack

import (
	"fmt"

	"mainstay/core/judge"
	"mainstay/core/units"
)

// What a level that is shown may lie over the most that the weakest cell can
// hold: what a cell not yet at rest may read over its resting volts, and how
// coarse gauges are (usual practice).
const (
	RestingRise  units.Millivolts = 30
	GaugeError   units.Percent    = 5
	AtStorageMax units.Percent    = 65 // the most of a cell at its storage volts, of any chemistry
)

// most is the most that a pack can hold whose weakest cell shows mv without
// load. Of a chemistry without a table it is only known that storage volts are
// far from full.
func most(c Chemistry, mv units.Millivolts) units.Percent {
	if c == LiPo {
		return units.Percent(lookup(mv + RestingRise))
	}
	if cell, err := CellOf(c); err == nil && mv <= cell.Storage {
		return AtStorageMax
	}
	return 100
}

// JudgeShown holds the level that a pack shows, or somebody entered for it,
// against its weakest cell without load: one that the cell cannot hold is Stop,
// for then gauge or cell is wrong. Whether either can be read is judged elsewhere.
func JudgeShown(c Chemistry, shown units.Percent, cellMV []units.Millivolts) Judgement {
	_, low, err := Spread(cellMV)
	if err != nil {
		return Judgement{Verdict: judge.Clear}
	}
	mv := cellMV[low]
	against := fmt.Sprintf("at most %.0f %% with a cell at %.2f V", float64(most(c, mv)), float64(mv)/1000)
	if !(shown <= most(c, mv)+GaugeError) {
		return Judgement{judge.Stop,
			fmt.Sprintf("It shows %.0f %%, but with cell %d at %.2f V it holds at most %.0f %%: gauge or cell is wrong. Charge it and read it again; if it says so again, quarantine.",
				float64(shown), low+1, float64(mv)/1000, float64(most(c, mv))), against}
	}
	return Judgement{judge.Clear, "Level and cells agree.", against}
}
