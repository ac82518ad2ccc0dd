package spray_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/judge"
	"mainstay/core/spray"
)

func TestFlow(t *testing.T) {
	s, err := spray.Settings{Rate: 15, Speed: 6, Swath: 7}.Solve(spray.UnknownFlow)
	require.NoError(t, err)
	assert.InDelta(t, 3.78, s.Flow, 1e-12)
	// In the units of the other world: gal/min = gal/ac x mph x ft / 495.
	const gal, ac, mph, ft = 3.785411784, 0.40468564224, 0.44704, 0.3048
	us, err := spray.Settings{Rate: 2 * gal / ac, Speed: 15 * mph, Swath: 24 * ft}.Solve(spray.UnknownFlow)
	require.NoError(t, err)
	assert.InEpsilon(t, 2*15*24/495.0, us.Flow/gal, 1e-9)
}

// Whichever of the four is left out comes back.
func TestEachCanBeTheUnknown(t *testing.T) {
	rapid.Check(t, func(rt *rapid.T) {
		s, err := spray.Settings{Rate: rapid.Float64Range(1, 100).Draw(rt, "rate"),
			Speed: rapid.Float64Range(1, 10).Draw(rt, "speed"),
			Swath: rapid.Float64Range(1, 12).Draw(rt, "swath")}.Solve(spray.UnknownFlow)
		require.NoError(rt, err)
		for _, u := range spray.AllUnknowns {
			cut := s
			switch u {
			case spray.UnknownFlow:
				cut.Flow = 0
			case spray.UnknownRate:
				cut.Rate = 0
			case spray.UnknownSpeed:
				cut.Speed = 0
			case spray.UnknownSwath:
				cut.Swath = 0
			}
			got, err := cut.Solve(u)
			require.NoError(rt, err)
			assert.InEpsilonSlice(rt, []float64{s.Rate, s.Speed, s.Swath, s.Flow},
				[]float64{got.Rate, got.Speed, got.Swath, got.Flow}, 1e-9)
		}
	})
}

func TestRatesThatAreNone(t *testing.T) {
	for _, s := range []spray.Settings{{}, {Rate: 15, Speed: 6}, {Rate: math.NaN(), Speed: 6, Swath: 7},
		{Rate: -1, Speed: 6, Swath: 7}, {Rate: 1001, Speed: 1, Swath: 1}} {
		_, err := s.Solve(spray.UnknownFlow)
		require.ErrorIs(t, err, spray.ErrInput)
	}
	_, err := spray.Settings{Rate: 15, Speed: 6, Swath: 7}.Solve("height")
	require.ErrorIs(t, err, spray.ErrInput)
}

func fan() spray.Nozzle {
	return spray.Nozzle{Key: "fan-015", Name: "Fan 015", LeastLPM: 0.4, MostLPM: 0.8, LeastBar: 1.5, MostBar: 6,
		Droplets: "medium"}
}

func TestFlowOutsideTheNozzles(t *testing.T) {
	s := spray.Settings{Rate: 15, Speed: 6, Swath: 7, Flow: 3.78}
	assert.Empty(t, s.HoldNozzles(fan(), 6), "0.63 each")
	b := s.HoldNozzles(fan(), 4)
	require.Len(t, b, 1)
	assert.Equal(t, judge.Stop, b[0].Verdict)
	assert.InDelta(t, 5.0, *b[0].Nearest, 1e-9, "3.2 L/min over 7 m at 15 L/ha is 5.08 m/s")
	b = s.HoldNozzles(fan(), 12)
	assert.InDelta(t, 7.7, *b[0].Nearest, 1e-9, "4.8 L/min is 7.62 m/s")
	assert.Empty(t, spray.Settings{Flow: 0.8 * 4}.HoldNozzles(fan(), 4), "at the most")
	assert.Empty(t, spray.Settings{Flow: 0.4 * 4}.HoldNozzles(fan(), 4), "at the least")
	assert.NotEmpty(t, spray.Settings{Flow: 0.4}.HoldNozzles(fan(), 0))
	assert.InDelta(t, 6, fan().Pressure(0.8), 0.01)
	assert.InDelta(t, 1.5, fan().Pressure(0.4), 0.01)
	require.NoError(t, fan().Check())
	for _, spoil := range []func(*spray.Nozzle){func(n *spray.Nozzle) { n.Name = "" },
		func(n *spray.Nozzle) { n.MostLPM = 0.1 }, func(n *spray.Nozzle) { n.Droplets = "wet" },
		func(n *spray.Nozzle) { n.LeastBar = math.NaN() }} {
		n := fan()
		spoil(&n)
		require.ErrorIs(t, n.Check(), spray.ErrInput)
	}
}

func TestLoads(t *testing.T) {
	mix := []spray.Product{{Name: "A", PerHa: 0.5, Unit: "L"}, {Name: "B", Percent: 1, Unit: "L"},
		{Name: "C", PerHa: 2, Unit: "kg"}}
	l, err := spray.Loads(4.5, 15, 30, mix)
	require.NoError(t, err)
	require.Len(t, l, 3)
	assert.InDelta(t, 30, l[0].Litres, 1e-9)
	assert.InDeltaSlice(t, []float64{1, 0.3, 4}, l[0].Amounts, 1e-9)
	assert.InDelta(t, 28.7, l[0].Water, 1e-9)
	assert.InDelta(t, 7.5, l[2].Litres, 1e-9, "the last is a part")
	assert.InDelta(t, 0.5, l[2].Ha, 1e-9)
	// A hair of binary arithmetic is no load more.
	for _, row := range []struct {
		ha, rate, tank float64
		n              int
	}{{0.7, 1, 0.1, 7}, {2.1, 10, 7, 3}, {2.10001, 10, 7, 4}, {0, 10, 7, 0}} {
		l, err := spray.Loads(row.ha, row.rate, row.tank, nil)
		require.NoError(t, err)
		assert.Len(t, l, row.n, row)
	}
	_, err = spray.LoadOf(1, 2, []spray.Product{{Name: "A", PerHa: 3, Unit: "L"}})
	require.ErrorIs(t, err, spray.ErrInput, "more product than mix")
	for _, p := range []spray.Product{{Name: "A", Unit: "L"}, {Name: "A", PerHa: 1, Percent: 1, Unit: "L"},
		{Name: "A", PerHa: 1, Unit: "oz"}, {PerHa: 1, Unit: "L"}, {Name: "A", PerHa: math.NaN(), Percent: 1, Unit: "L"}} {
		require.ErrorIs(t, p.Check(), spray.ErrInput)
	}
}

// Products of all loads sum to the area, and each load to its litres.
func TestProductSumsToTheArea(t *testing.T) {
	rapid.Check(t, func(rt *rapid.T) {
		ha := rapid.Float64Range(0.01, 60).Draw(rt, "ha")
		rate := rapid.Float64Range(5, 100).Draw(rt, "rate")
		mix := []spray.Product{{Name: "A", PerHa: rapid.Float64Range(0.01, 2).Draw(rt, "per ha"), Unit: "L"}}
		all, err := spray.Loads(ha, rate, 30, mix)
		require.NoError(rt, err)
		var product, litres float64
		for _, l := range all {
			product, litres = product+l.Amounts[0], litres+l.Litres
			assert.InDelta(rt, l.Litres, l.Water+l.Amounts[0], 1e-9)
			assert.LessOrEqual(rt, l.Litres, 30*(1+1e-9))
		}
		assert.InEpsilon(rt, mix[0].PerHa*ha, product, 1e-9)
		assert.InEpsilon(rt, rate*ha, litres, 1e-9)
	})
}

func TestLabelAgainstTheRate(t *testing.T) {
	l := spray.Label{MostRate: f(20), LeastRate: f(10)}
	assert.Empty(t, l.Hold(20, "L"))
	assert.Empty(t, l.Hold(10, "L"))
	assert.InDelta(t, 20, *l.Hold(20.1, "L")[0].Nearest, 0)
	assert.InDelta(t, 10, *l.Hold(9.9, "L")[0].Nearest, 0)
	both := spray.Label{MostRate: f(10), LeastRate: f(20)}.Hold(15, "L")
	require.Len(t, both, 3)
	assert.Equal(t, "label", both[2].Wish)
	assert.Empty(t, spray.Label{}.Hold(500, "L"))
}

func TestLabelAgainstTheAir(t *testing.T) {
	l := spray.Label{MostC: f(28), LeastDeltaT: f(2), MostDeltaT: f(8)}
	assert.Empty(t, l.HoldAir(f(28.04), f(5)), "at the limit is allowed, as it is shown")
	for _, near := range []float64{2, 2.6, 7.4, 8, 8.04, 1.96} {
		b := l.HoldAir(f(20), f(near))
		require.Len(t, b, 1, "%g", near)
		assert.Equal(t, judge.Watch, b[0].Verdict, "%g: nearer than instruments err", near)
	}
	assert.Empty(t, l.HoldAir(f(20), f(2.7)))
	assert.Empty(t, l.HoldAir(f(20), f(7.3)))
	for _, x := range []struct {
		temp, delta *float64
		wish, says  string
	}{
		{f(28.1), f(5), "most_c", "A temperature of 28.1 °C is over the 28 °C of the label."},
		{f(20), f(1.9), "least_delta_t", "A delta T of 1.9 °C is under the 2 °C of the label."},
		{f(20), f(8.1), "most_delta_t", "A delta T of 8.1 °C is over the 8 °C of the label."},
		{nil, f(5), "most_c", "The label asks for a temperature of at most 28 °C, and it is not known."},
		{f(math.NaN()), f(5), "most_c", "The label asks for a temperature of at most 28 °C, and it is not known."},
	} {
		b := l.HoldAir(x.temp, x.delta)
		require.Len(t, b, 1, x.says)
		assert.Equal(t, spray.Broken{Wish: x.wish, Verdict: judge.Stop, Sentence: x.says}, b[0])
	}
	assert.Len(t, l.HoldAir(nil, nil), 3, "unknown never passes")
	assert.Empty(t, spray.Label{}.HoldAir(nil, nil), "a label that says nothing asks for nothing")
	assert.Equal(t, "label", spray.Label{LeastDeltaT: f(9), MostDeltaT: f(2)}.Hold(20, "L")[0].Wish)
}

func TestCatchTestAtItsLimits(t *testing.T) {
	verdict := func(one float64) judge.Verdict {
		// Seven of 1 and one that pulls the mean: the one is looked at against it.
		all := []float64{1, 1, 1, 1, 1, 1, 1, one}
		mean := (7 + one) / 8
		c, err := spray.Catch(all, 7+one)
		require.NoError(t, err)
		assert.InDelta(t, mean, c.Mean, 1e-12)
		return c.Nozzles[7].Verdict
	}
	solve := func(percent float64) float64 { k := 1 + percent/100; return 7 * k / (8 - k) }
	assert.Equal(t, judge.Clear, verdict(solve(5)))
	assert.Equal(t, judge.Watch, verdict(solve(5.1)))
	assert.Equal(t, judge.Watch, verdict(solve(-10)))
	assert.Equal(t, judge.Stop, verdict(solve(-10.1)))
	c, err := spray.Catch([]float64{1, 1}, 2/1.05)
	require.NoError(t, err)
	assert.Equal(t, judge.Clear, c.Verdict, "five percent over the target")
	c, err = spray.Catch([]float64{1, 1}, 2/1.052)
	require.NoError(t, err)
	assert.Equal(t, judge.Watch, c.Verdict)
	assert.Contains(t, c.Sentence, "calibrate the pump again")
	c, err = spray.Catch([]float64{1, 1, 0}, 2)
	require.NoError(t, err)
	assert.Equal(t, judge.Stop, c.Verdict, "a nozzle that gives nothing")
	for _, bad := range [][]float64{nil, {0, 0}, {math.NaN()}, {-1}, {51}} {
		_, err := spray.Catch(bad, 2)
		require.ErrorIs(t, err, spray.ErrInput)
	}
	_, err = spray.Catch([]float64{1}, 0)
	require.ErrorIs(t, err, spray.ErrInput)
}

func TestPumpFactor(t *testing.T) {
	v, err := spray.PumpFactor(1.2, 9.5, 10, false)
	require.NoError(t, err)
	assert.InDelta(t, 1.14, v, 1e-12)
	v, err = spray.PumpFactor(600, 9.5, 10, true)
	require.NoError(t, err)
	assert.InDelta(t, 631.578947, v, 1e-6)
	_, err = spray.PumpFactor(1, 4.9, 10, false)
	require.ErrorIs(t, err, spray.ErrInput)
	_, err = spray.PumpFactor(1, 5, 10, false)
	require.NoError(t, err)
	_, err = spray.PumpFactor(0, 5, 10, false)
	require.ErrorIs(t, err, spray.ErrInput)
}

func TestTankScale(t *testing.T) {
	check := func(empty, known, shown float64) spray.Scale {
		s, err := spray.ScaleCheck(empty, known, shown, 0.02)
		require.NoError(t, err)
		return s
	}
	assert.Equal(t, judge.Clear, check(0.05, 20, 20.2).Verdict)
	assert.Equal(t, judge.Stop, check(0.06, 20, 20).Verdict)
	assert.Nil(t, check(-0.06, 20, 25).Span, "zero comes first")
	s := check(0, 20, 20.21)
	assert.Equal(t, judge.Stop, s.Verdict)
	assert.InDelta(t, 0.02*20/20.21, *s.Span, 1e-12)
	_, err := spray.ScaleCheck(0, 9.99, 10, 0.02)
	require.ErrorIs(t, err, spray.ErrInput, "too light to say anything")
}
