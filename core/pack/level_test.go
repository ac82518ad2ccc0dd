package pack_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"mainstay/approved"
	"mainstay/core/judge"
	"mainstay/core/pack"
	"mainstay/core/units"
)

func TestShownLevelsAsApproved(t *testing.T) {
	var lines []string
	for _, c := range append(pack.AllChemistries, "none") {
		for _, mv := range []units.Millivolts{3100, 3649, 3650, 3651, 3750, 3800, 3849, 3850, 3851, 4000, 4050, 4069, 4070,
			4110, 4120, 4160, 4200} {
			for _, shown := range []units.Percent{0, 25, 50, 69, 70, 71, 90, 95, 99, 100} {
				j := pack.JudgeShown(c, shown, []units.Millivolts{mv + 20, mv})
				lines = append(lines, fmt.Sprintf("%s %d mV shows %g: %s (%s)", c, mv, float64(shown), j.Verdict, j.Against))
			}
		}
	}
	approved.Text(t, "shown", lines)
	assert.Equal(t, judge.Clear, pack.JudgeShown(pack.LiPo, 99, nil).Verdict,
		"cells that were not read are judged elsewhere")
}

// A pack that shows what its resting cells say, within what its gauge may err, is
// never called wrong; a lower cell never makes it milder.
func TestShownLevelsAgreeWithRestingCells(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		mv := units.Millivolts(rapid.IntRange(3300, 4200).Draw(t, "mv"))
		says, err := pack.PercentFromVolts(pack.LiPo, mv, 60)
		assert.NoError(t, err)
		shown := says.Percent + units.Percent(rapid.Float64Range(-5, 5).Draw(t, "off"))
		assert.Equal(t, judge.Clear, pack.JudgeShown(pack.LiPo, shown, []units.Millivolts{mv + 5, mv}).Verdict)
		c := rapid.SampledFrom(pack.AllChemistries).Draw(t, "chemistry")
		any := units.Percent(rapid.Float64Range(0, 100).Draw(t, "shown"))
		lower := mv - units.Millivolts(rapid.IntRange(0, 500).Draw(t, "lower"))
		assert.GreaterOrEqual(t, pack.JudgeShown(c, any, []units.Millivolts{mv, lower}).Verdict,
			pack.JudgeShown(c, any, []units.Millivolts{mv, mv}).Verdict)
	})
}
