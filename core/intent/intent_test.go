package intent_test

import (
	"math"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/intent"
	"mainstay/core/judge"
)

func kg(v float64) *float64 { return &v }

// Each limit of the mass just under, at and just over it, in steps of 10 g; and
// what cannot be read.
func TestMassAtItsLimits(t *testing.T) {
	for name, c := range map[string]struct {
		m    intent.Mass
		want judge.Verdict
	}{
		"under both":         {intent.Mass{MassKg: kg(7.39), MaxKg: 7.5, LiftKg: kg(7.4)}, judge.Clear},
		"at the lift":        {intent.Mass{MassKg: kg(7.4), MaxKg: 7.5, LiftKg: kg(7.4)}, judge.Clear},
		"over the lift":      {intent.Mass{MassKg: kg(7.41), MaxKg: 7.5, LiftKg: kg(7.4)}, judge.Watch},
		"at the maximum":     {intent.Mass{MassKg: kg(7.5), MaxKg: 7.5, LiftKg: kg(8)}, judge.Clear},
		"a gram over is not": {intent.Mass{MassKg: kg(7.501), MaxKg: 7.5, LiftKg: kg(8)}, judge.Clear},
		"over the maximum":   {intent.Mass{MassKg: kg(7.51), MaxKg: 7.5, LiftKg: kg(8)}, judge.Stop},
		"lift not known":     {intent.Mass{MassKg: kg(7), MaxKg: 7.5}, judge.Watch},
		"mass not known":     {intent.Mass{MaxKg: 7.5, LiftKg: kg(8)}, judge.Stop},
		"maximum not known":  {intent.Mass{MassKg: kg(7), LiftKg: kg(8)}, judge.Stop},
		"no mass at all":     {intent.Mass{MassKg: kg(0), MaxKg: 7.5, LiftKg: kg(8)}, judge.Stop},
	} {
		v, words := c.m.Judge()
		assert.Equal(t, c.want, v, "%s: %s", name, words)
		assert.NotEmpty(t, words)
	}
	for _, x := range []float64{math.NaN(), math.Inf(1), math.Inf(-1), -3} {
		v, _ := intent.Mass{MassKg: kg(x), MaxKg: 7.5, LiftKg: kg(8)}.Judge()
		assert.Equal(t, judge.Stop, v, "mass %v", x)
		v, _ = intent.Mass{MassKg: kg(7), MaxKg: x, LiftKg: kg(8)}.Judge()
		assert.Equal(t, judge.Stop, v, "maximum %v", x)
		v, _ = intent.Mass{MassKg: kg(7), MaxKg: 7.5, LiftKg: kg(x)}.Judge()
		assert.NotEqual(t, judge.Clear, v, "lift %v", x)
	}
}

// A sprayer follows the crop; every datum and decision has its words.
func TestWords(t *testing.T) {
	assert.Equal(t, intent.AboveGround, intent.Usual("spraying"))
	assert.Equal(t, intent.AboveTakeOff, intent.Usual("mapping"))
	for _, d := range []intent.Datum{intent.AboveTakeOff, intent.AboveGround, intent.AboveSea} {
		assert.NotEmpty(t, d.Words())
	}
	for _, k := range intent.AllKinds {
		assert.NotEmpty(t, k.Words(), k)
	}
}

// The newest decision on the same basis counts; one on another basis is void and
// is named.
func TestDecisionsRestOnTheirBasis(t *testing.T) {
	at := time.Date(2026, 6, 10, 15, 0, 0, 0, time.UTC)
	f := intent.Flight{Decided: []intent.Decision{
		{ID: "old", Kind: intent.ByHand, By: "Ivo", Reason: "room beside it.", At: at, Basis: "b"},
		{ID: "new", Kind: intent.HoldAndLook, By: "Ivo", Reason: "seen", At: at.Add(time.Minute), Basis: "b"},
		{ID: "other", Kind: intent.ByHand, By: "Ivo", Reason: "then", At: at.Add(time.Hour), Basis: "c"},
	}}
	found, void := f.About("b", intent.ByHand, intent.HoldAndLook)
	require.NotNil(t, found)
	assert.Equal(t, "new", found.ID)
	require.NotNil(t, void)
	assert.Equal(t, "other", void.ID)
	found, _ = f.About("b", intent.WayRound)
	assert.Nil(t, found, "another kind")
	found, void = f.About("d", intent.ByHand)
	assert.Nil(t, found)
	assert.NotNil(t, void)
	assert.Equal(t, "Decided by Ivo at 2026-06-10 15:00 UTC: fly by hand to the start of the route, because room beside it.",
		f.Decided[0].Says())
}
