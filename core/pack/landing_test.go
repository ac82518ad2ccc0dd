package pack_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"

	"mainstay/core/pack"
	"mainstay/core/practice"
)

func TestLandBy(t *testing.T) {
	percent := func(v float64) *float64 { return &v }
	by := pack.LandBy{Percent: 25, CellMV: 3550, Minutes: 12, Call: practice.ByPercent}
	minutes := by
	minutes.Call = practice.ByMinutes
	for _, x := range []struct {
		name string
		by   pack.LandBy
		p    pack.Landed
		says string
	}{
		{"at the level", by, pack.Landed{Percent: percent(25)}, ""},
		{"just under", by, pack.Landed{Label: "A", Percent: percent(24.9)}, "A came back at 25 %; land by 25 %."},
		{"no number", by, pack.Landed{Percent: percent(math.NaN())}, "land by"},
		{"at the volts", by, pack.Landed{CellMV: []int{3600, 3550}}, ""},
		{"one cell under", by, pack.Landed{Label: "A", CellMV: []int{3600, 3549}}, "A came back with cell 2 at 3.55 V"},
		{"long, by percent", by, pack.Landed{Percent: percent(30), Seconds: 721}, ""},
		{"as long as planned", minutes, pack.Landed{Percent: percent(30), Seconds: 720}, ""},
		{"longer", minutes, pack.Landed{Label: "A", Percent: percent(30), Seconds: 721},
			"A flew 12.0 min; the crew lands by the planned 12."},
		{"by minutes, but empty", minutes, pack.Landed{Percent: percent(10), Seconds: 60}, "came back at 10 %"},
	} {
		got := x.by.Under(x.p)
		if x.says == "" {
			assert.Empty(t, got, x.name)
		} else {
			assert.Contains(t, got, x.says, x.name)
		}
	}
}
