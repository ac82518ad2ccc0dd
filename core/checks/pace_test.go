package checks_test

import (
	"fmt"
	"math"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/checks"
)

var began = time.Date(2026, 6, 10, 6, 0, 0, 0, time.UTC)

// row is n looks, each so many seconds after the one before, from a second on.
func row(by string, from float64, n int, gap float64) (out []checks.Press) {
	for i := range n {
		out = append(out, checks.Press{Item: checks.Item{ID: fmt.Sprintf("%s%d", by, i), Kind: checks.Look}, By: by,
			At: began.Add(time.Duration((from + gap*float64(i+1)) * float64(time.Second)))})
	}
	return out
}

func TestPaceOfARow(t *testing.T) {
	p := checks.PaceOf(began, "Imre", row("Imre", 0, 34, 0.5), 0.7)
	assert.Equal(t, 34, p.Fast)
	assert.Equal(t, "The check went fast. 34 items in 0:17 by Imre: faster than anybody can look.", p.Said(0, 0))
	for gap, fast := range map[float64]int{0.699: 8, 0.7: 0, 0.701: 0} {
		assert.Equal(t, fast, checks.PaceOf(began, "Imre", row("Imre", 0, 8, gap), 0.7).Fast, gap)
	}
	assert.Zero(t, checks.PaceOf(began, "Imre", row("Imre", 0, 4, 0.1), 0.7).Fast, "four are a quick eye")
	assert.Equal(t, 5, checks.PaceOf(began, "Imre", row("Imre", 0, 5, 0.1), 0.7).Fast)
	// Three marks take three looks.
	corner := row("Imre", 0, 6, 1.5)
	for i := range corner {
		corner[i].Item.Kind, corner[i].Item.Marks = checks.Group, make([]checks.Mark, 3)
	}
	assert.Equal(t, 6, checks.PaceOf(began, "Imre", corner, 0.7).Fast)
	// A row that rests once is two rows.
	broken := slices.Concat(row("Imre", 0, 3, 0.2), row("Imre", 10, 4, 0.2))
	assert.Zero(t, checks.PaceOf(began, "Imre", broken, 0.7).Fast)
	// Four at a time with rests between them are no looks either.
	var rests []checks.Press
	for i := range 5 {
		rests = append(rests, row("Imre", float64(10*i), 4, 0.2)...)
	}
	all := checks.PaceOf(began, "Imre", rests, 0.7)
	assert.Zero(t, all.Fast)
	assert.Equal(t, "The check went fast. 16 of 20 items came faster than anybody can look.", all.Said(0, 0))
	assert.Empty(t, checks.PaceOf(began, "Imre", slices.Concat(row("Imre", 0, 4, 0.2), row("Imre", 10, 4, 3)), 0.7).Said(0,
		0), "half is not more than half")
	assert.Equal(t, 40, checks.PaceOf(began, "Imre", row("Imre", 39.6, 1, 0.4), 0.7).Each["Imre0"])
	assert.Equal(t, 34, checks.PaceOf(began, "Imre", row("Imre", 0, 34, 0.5), math.NaN()).Fast,
		"no usable bound is no excuse")
}

// Two people beside each other are two rows: the one's press does not make the other's fast.
func TestTwoHandsAreTwoRows(t *testing.T) {
	both := slices.Concat(row("Imre", 0, 10, 1), row("Bao", 0.1, 10, 1))
	assert.Zero(t, checks.PaceOf(began, "Imre", both, 0.7).Fast)
	assert.NotContains(t, checks.PaceOf(began, "Imre", both, 0.7).Each, "Bao0",
		"when who joined began to look is not known")
}

func TestPaceAgainstTheUsual(t *testing.T) {
	p := checks.PaceOf(began, "Imre", row("Imre", 0, 20, 6), 0.7)
	assert.Equal(t, 120.0, p.Seconds)
	assert.Empty(t, p.Said(120, 360))
	assert.Equal(t, "The check went fast. It took 2:00; the crew takes at least 5:00.", p.Said(300, 360))
	assert.Equal(t, "The check went fast. It took 2:00; on this aircraft it usually takes 6:01.", p.Said(0, 361))
	assert.Empty(t, p.Said(math.NaN(), math.NaN()))
	assert.Zero(t, checks.Usual([]float64{1, 2, 3, 4}))
	assert.Equal(t, 3.0, checks.Usual([]float64{5, 1, 3, 2, 4}))
}

// Drills come about as often as asked, show damage about half of the time, and always at a part
// that the round looks at.
func TestDrills(t *testing.T) {
	a, l := load(t, "dray-30")
	items := expand(l, a, checks.Full, twoPacks(a))
	shown, damage := 0, 0
	for seed := range uint64(4000) {
		s, ok := checks.DrillIn(seed, items, 8)
		again, _ := checks.DrillIn(seed, items, 8)
		require.Equal(t, s, again)
		if !ok {
			continue
		}
		shown++
		if s.Picture.Damage {
			damage++
		}
		with := s.With(items)
		require.Len(t, with, len(items)+1)
		require.Equal(t, checks.DrillID, with[s.At].ID)
		require.Contains(t, with[s.At+1].Stations(), s.Station)
		require.True(t, s.Right(checks.Value{Look: map[bool]string{true: "defect", false: "ok"}[s.Picture.Damage]}))
		require.False(t, s.Right(checks.Value{Look: map[bool]string{false: "defect", true: "ok"}[s.Picture.Damage]}))
	}
	assert.InDelta(t, 500, shown, 90)
	assert.InDelta(t, 0.5, float64(damage)/float64(shown), 0.08)
	_, ok := checks.DrillIn(1, items, 0)
	assert.False(t, ok, "the crew shows none")
	rapid.Check(t, func(t *rapid.T) {
		n := rapid.IntRange(0, 3).Draw(t, "items")
		if s, ok := checks.DrillIn(rapid.Uint64().Draw(t, "seed"), items[:n], 1); ok && s.At >= n {
			t.Fatal("beyond the end")
		}
	})
	j, err := checks.Judge(checks.Item{ID: checks.DrillID, Kind: checks.Drill}, checks.Value{Look: "defect"}, nil)
	require.NoError(t, err)
	assert.Equal(t, 0, int(j.Verdict), "a picture says nothing of the aircraft")
}
