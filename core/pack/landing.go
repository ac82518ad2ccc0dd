package pack

import (
	"fmt"

	"mainstay/core/practice"
	"mainstay/core/units"
)

// LandBy is when a flight ends at the latest: the level and the lowest cell of
// the packs, the planned time, and which of them calls the landing.
type LandBy struct {
	Percent units.Percent
	CellMV  units.Millivolts
	Minutes float64
	Call    practice.Call
}

// Landed is what one pack showed after a flight of so many seconds; nil was not read.
type Landed struct {
	Label   string
	Percent *float64
	CellMV  []int // mV, after landing; at rest a cell shows more than under load
	Seconds int
}

// Under says why a pack came down too late; empty when nothing that is known says
// so. Whatever calls the landing, an earlier sign counts too; the planned time
// counts where it is what calls.
func (l LandBy) Under(p Landed) string {
	if p.Percent != nil && !(*p.Percent >= float64(l.Percent)) {
		return fmt.Sprintf("%s came back at %.0f %%; land by %.0f %%.", p.Label, *p.Percent, float64(l.Percent))
	}
	for i, mv := range p.CellMV {
		if mv < int(l.CellMV) {
			return fmt.Sprintf("%s came back with cell %d at %.2f V; land by %.2f V under load.", p.Label, i+1, float64(mv)/1000,
				float64(l.CellMV)/1000)
		}
	}
	if l.Call == practice.ByMinutes && !(float64(p.Seconds) <= l.Minutes*60) {
		return fmt.Sprintf("%s flew %.1f min; the crew lands by the planned %g.", p.Label, float64(p.Seconds)/60, l.Minutes)
	}
	return ""
}
