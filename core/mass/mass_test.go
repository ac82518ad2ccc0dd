package mass_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/judge"
	"mainstay/core/mass"
)

func ring(n int, r float64) []mass.Motor {
	out := make([]mass.Motor, n)
	for i := range out {
		a := math.Pi / float64(n) * float64(2*i+1)
		out[i] = mass.Motor{X: r * math.Sin(a), Y: r * math.Cos(a)}
	}
	return out
}

func TestCentreOfGravity(t *testing.T) {
	s, err := mass.Add([]mass.Item{{mass.Empty, 20, 0, 0}, {mass.Packs, 10, 0, 0.12}, {mass.Liquid, 30, 0.02, -0.04}})
	require.NoError(t, err)
	assert.InDelta(t, 60, s.Kg, 1e-12)
	assert.InDelta(t, 0.01, s.X, 1e-12)
	assert.InDelta(t, 0, s.Y, 1e-12)
	for _, bad := range [][]mass.Item{nil, {{mass.Empty, 0, 0, 0}}, {{mass.Empty, -1, 0, 0}},
		{{mass.Empty, 1, math.NaN(), 0}}, {{mass.Empty, 1, 0, 11}}, {{mass.Empty, math.Inf(1), 0, 0}}} {
		_, err := mass.Add(bad)
		require.ErrorIs(t, err, mass.ErrInput)
	}
}

// With four motors in a square the split follows from the two levers.
func TestSharesOfAQuadByHand(t *testing.T) {
	square := []mass.Motor{{1, 1}, {1, -1}, {-1, -1}, {-1, 1}}
	got, err := mass.Shares(mass.Sum{Kg: 8, X: 0.1, Y: 0.2}, square)
	require.NoError(t, err)
	assert.InDeltaSlice(t, []float64{2.6, 1.8, 1.4, 2.2}, got, 1e-12)
	_, err = mass.Shares(mass.Sum{Kg: 8}, []mass.Motor{{1, 0}, {2, 0}, {3, 0}})
	require.ErrorIs(t, err, mass.ErrInput)
	_, err = mass.Shares(mass.Sum{Kg: 8}, square[:2])
	require.ErrorIs(t, err, mass.ErrInput)
}

// The shares carry the mass without a moment, and no other split that does has a
// smaller sum of squares.
func TestSharesAreTheLeastSquares(t *testing.T) {
	rapid.Check(t, func(rt *rapid.T) {
		motors := ring(rapid.SampledFrom([]int{4, 6, 8}).Draw(rt, "motors"), rapid.Float64Range(0.3, 1.5).Draw(rt, "arm"))
		s := mass.Sum{Kg: rapid.Float64Range(1, 80).Draw(rt, "kg"), X: rapid.Float64Range(-0.3, 0.3).Draw(rt, "x"),
			Y: rapid.Float64Range(-0.3, 0.3).Draw(rt, "y")}
		got, err := mass.Shares(s, motors)
		require.NoError(rt, err)
		var sum, mx, my, squares float64
		for i, v := range got {
			sum, mx, my, squares = sum+v, mx+v*motors[i].X, my+v*motors[i].Y, squares+v*v
		}
		assert.InDelta(rt, s.Kg, sum, 1e-9)
		assert.InDelta(rt, s.Kg*s.X, mx, 1e-9)
		assert.InDelta(rt, s.Kg*s.Y, my, 1e-9)
		// Move along what changes neither lift nor moment: opposite pairs against the others.
		for i := range got {
			if len(got)%4 == 0 {
				got[i] += 0.1 * float64(1-2*(i%2))
			}
		}
		var other float64
		for _, v := range got {
			other += v * v
		}
		assert.GreaterOrEqual(rt, other, squares-1e-9)
	})
}

func f(v float64) *float64 { return &v }

func TestRangeAtItsEdges(t *testing.T) {
	l := mass.Limits{XM: f(0.02), AheadM: f(0.05), BehindM: f(0.03)}
	verdict := func(x, y float64) judge.Verdict {
		b, err := l.Judge(mass.Sum{Kg: 40, X: x, Y: y}, ring(6, 1), 72)
		require.NoError(t, err)
		return b.Verdict
	}
	for _, row := range []struct {
		x, y float64
		want judge.Verdict
	}{
		{0, 0, judge.Clear}, {0.02, 0, judge.Clear}, {0.021, 0, judge.Stop}, {-0.02, 0, judge.Clear}, {-0.021, 0, judge.Stop},
		{0, 0.05, judge.Clear}, {0, 0.051, judge.Stop}, {0, -0.03, judge.Clear}, {0, -0.031, judge.Stop},
		{math.NaN(), 0, judge.Stop}, {0, math.NaN(), judge.Stop},
	} {
		assert.Equal(t, row.want, verdict(row.x, row.y), row)
	}
	b, err := mass.Limits{}.Judge(mass.Sum{Kg: 40}, ring(6, 1), 72)
	require.NoError(t, err)
	assert.Equal(t, judge.Watch, b.Verdict, "a range that nobody knows is never clear")
}

func TestMotorOverItsShare(t *testing.T) {
	l := mass.Limits{XM: f(1), AheadM: f(1), BehindM: f(1)}
	b, err := l.Judge(mass.Sum{Kg: 72, X: 0.2}, ring(6, 1), 72)
	require.NoError(t, err)
	assert.Equal(t, judge.Stop, b.Verdict)
	assert.InDelta(t, 13.8, b.MostKg, 1e-9)
	assert.Contains(t, b.Says[1].Sentence, "Motor 2 would lift")
	b, err = l.Judge(mass.Sum{Kg: 10, X: 0.9}, ring(6, 1), 72)
	require.NoError(t, err)
	assert.Contains(t, b.Says[0].Sentence, "push down")
	b, err = l.Judge(mass.Sum{Kg: 72}, ring(6, 1), 72)
	require.NoError(t, err)
	assert.Equal(t, judge.Clear, b.Verdict)
	assert.InDelta(t, 12, b.Shares[3], 1e-9)
	b, err = l.Judge(mass.Sum{Kg: 5, Y: 0.1}, nil, 9)
	require.NoError(t, err)
	assert.Empty(t, b.Shares, "a wing")
}
