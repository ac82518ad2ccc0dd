package pack_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/judge"
	"mainstay/core/pack"
	"mainstay/core/units"
)

func TestPercentFromVoltsAtThePointsOfTheCurve(t *testing.T) {
	for mv, want := range map[units.Millivolts]float64{4200: 100, 4150: 95, 4020: 80, 3840: 50, 3800: 40, 3730: 20,
		3610: 5, 3270: 0, 3000: 0, 3815: 43.75} {
		c, err := pack.PercentFromVolts(pack.LiPo, mv, 30)
		require.NoError(t, err)
		assert.InDelta(t, want, float64(c.Percent), 1e-9, "%d mV", mv)
		assert.False(t, c.Overcharged)
	}
	c, err := pack.PercentFromVolts(pack.LiPo, 4230, 45)
	require.NoError(t, err)
	assert.True(t, c.Overcharged)
	assert.EqualValues(t, 100, c.Percent)
}

func TestFlatPartOfTheCurveShowsItsUncertainty(t *testing.T) {
	for mv := units.Millivolts(3720); mv <= 3860; mv += 5 {
		c, err := pack.PercentFromVolts(pack.LiPo, mv, 60)
		require.NoError(t, err)
		assert.GreaterOrEqual(t, float64(c.PlusMinus), 2.5, "%d mV", mv)
		assert.LessOrEqual(t, float64(c.PlusMinus), 5.0, "%d mV", mv)
	}
}

func TestPercentNeverRisesAsVoltsFall(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		a := units.Millivolts(rapid.IntRange(500, 4999).Draw(t, "a"))
		b := units.Millivolts(rapid.IntRange(int(a), 5000).Draw(t, "b"))
		lo, err := pack.PercentFromVolts(pack.LiPo, a, 30)
		require.NoError(t, err)
		hi, err := pack.PercentFromVolts(pack.LiPo, b, 30)
		require.NoError(t, err)
		assert.LessOrEqual(t, lo.Percent, hi.Percent)
	})
}

func TestPercentRefusesWhatItCannotKnow(t *testing.T) {
	for _, c := range []struct {
		chem   pack.Chemistry
		mv     units.Millivolts
		rested float64
		want   error
	}{
		{pack.LiHV, 3900, 60, pack.ErrNoTable}, {pack.LiIon, 3900, 60, pack.ErrNoTable}, {pack.LiPo, 3900, 29.9,
			pack.ErrNotRested},
		{pack.LiPo, 400, 60, pack.ErrVolts}, {pack.LiPo, 6000, 60, pack.ErrVolts},
	} {
		_, err := pack.PercentFromVolts(c.chem, c.mv, c.rested)
		assert.ErrorIs(t, err, c.want)
	}
}

func TestJudgeCells(t *testing.T) {
	for _, c := range []struct {
		name string
		chem pack.Chemistry
		mv   []units.Millivolts
		want judge.Verdict
	}{
		{"spread of exactly 30 mV is clear", pack.LiPo, []units.Millivolts{3850, 3820, 3840}, judge.Clear},
		{"31 mV is watch", pack.LiPo, []units.Millivolts{3851, 3820, 3840}, judge.Watch},
		{"100 mV is watch", pack.LiPo, []units.Millivolts{3920, 3820, 3840}, judge.Watch},
		{"101 mV is stop", pack.LiPo, []units.Millivolts{3921, 3820, 3840}, judge.Stop},
		{"under damage voltage", pack.LiPo, []units.Millivolts{2999, 3000, 3000}, judge.Stop},
		{"Li-ion goes deeper", pack.LiIon, []units.Millivolts{2600, 2610, 2600}, judge.Clear},
		{"overcharged", pack.LiPo, []units.Millivolts{4211, 4200, 4200}, judge.Stop},
		{"high-voltage cells may be at 4.35", pack.LiHV, []units.Millivolts{4350, 4345, 4348}, judge.Clear},
	} {
		j, err := pack.JudgeCells(c.chem, 3, c.mv)
		require.NoError(t, err, c.name)
		assert.Equal(t, c.want, j.Verdict, c.name)
		assert.NotEmpty(t, j.Sentence)
		assert.NotEmpty(t, j.Against)
	}
	_, err := pack.JudgeCells(pack.LiPo, 6, []units.Millivolts{3800})
	assert.ErrorIs(t, err, pack.ErrCellCount)
	_, err = pack.JudgeCells("lead", 1, []units.Millivolts{3800})
	assert.ErrorIs(t, err, pack.ErrChemistry)
	_, err = pack.JudgeCells(pack.LiPo, 1, []units.Millivolts{42000})
	assert.ErrorIs(t, err, pack.ErrVolts)
}

func TestJudgeLaunchAndTemperatures(t *testing.T) {
	assert.Equal(t, judge.Clear, pack.JudgeLaunch(95, 0, 95).Verdict)
	assert.Equal(t, judge.Stop, pack.JudgeLaunch(94.9, 0, 95).Verdict)
	assert.Equal(t, judge.Watch, pack.JudgeLaunch(95, 2, 95).Verdict)
	for temp, want := range map[units.Celsius]judge.Verdict{4.9: judge.Stop, 5: judge.Watch, 14.9: judge.Watch,
		15: judge.Clear, 60: judge.Clear, 61: judge.Stop} {
		assert.Equal(t, want, pack.JudgeTakeoffTemperature(temp).Verdict, "%v", temp)
	}
	for temp, want := range map[units.Celsius]judge.Verdict{45: judge.Clear, 46: judge.Watch, 60: judge.Watch,
		61: judge.Stop} {
		assert.Equal(t, want, pack.JudgeLandedTemperature(temp).Verdict, "%v", temp)
	}
}

// A walk through legal moves never leaves the known states, never leaves
// retired, and a pack never flies straight out of quarantine or uncharged.
func TestMoves(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		s := pack.Storage
		for range 30 {
			to := rapid.SampledFrom(pack.AllStates).Draw(t, "to")
			if err := pack.Move(s, to); err != nil {
				assert.ErrorIs(t, err, pack.ErrMove)
				continue
			}
			assert.NotEqual(t, pack.Retired, s)
			if to == pack.Fitted {
				assert.Equal(t, pack.Charged, s)
			}
			if s == pack.Quarantine {
				assert.Contains(t, []pack.State{pack.Storage, pack.Retired}, to)
			}
			s = to
		}
	})
	for _, s := range pack.AllStates {
		if s != pack.Quarantine && s != pack.Retired {
			assert.NoError(t, pack.Move(s, pack.Quarantine), "a swollen pack goes to quarantine from %s", s)
		}
		assert.Equal(t, s == pack.Charged || s == pack.Fitted, pack.MayFly(s))
	}
	assert.ErrorIs(t, pack.Move("lost", pack.Charged), pack.ErrMove)
}
