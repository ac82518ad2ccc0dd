package airframe_test

import (
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"

	"mainstay/core/airframe"
	"mainstay/core/units"
	"mainstay/core/wear"
)

// The bounds of a profile themselves are inside.
func TestBoundsAreInside(t *testing.T) {
	for name, c := range map[string]struct{ at, over func(*airframe.Type) }{
		"packs":    {func(a *airframe.Type) { a.Packs.Count = 4 }, func(a *airframe.Type) { a.Packs.Count = 5 }},
		"one pack": {func(a *airframe.Type) { a.Packs.Count = 1 }, func(a *airframe.Type) { a.Packs.Count = 0 }},
		"cells":    {func(a *airframe.Type) { a.Packs.Cells = 24 }, func(a *airframe.Type) { a.Packs.Cells = 25 }},
		"capacity": {func(a *airframe.Type) { a.Packs.CapacityMAh = 200000 },
			func(a *airframe.Type) { a.Packs.CapacityMAh = 200001 }},
		"small": {func(a *airframe.Type) { a.Packs.CapacityMAh = 100 },
			func(a *airframe.Type) { a.Packs.CapacityMAh = 99 }},
		"mass": {func(a *airframe.Type) { a.Limits.TakeoffMassKg = 1000 },
			func(a *airframe.Type) { a.Limits.TakeoffMassKg = 1000.1 }},
		"height": {func(a *airframe.Type) { a.Limits.FlightHeightM = 500 },
			func(a *airframe.Type) { a.Limits.FlightHeightM = 500.1 }},
		"minutes": {func(a *airframe.Type) { a.Limits.PlannedMinutes = 600 },
			func(a *airframe.Type) { a.Limits.PlannedMinutes = 600.1 }},
		"warmth": {func(a *airframe.Type) { a.Limits.WarmthOutlierC = 100 },
			func(a *airframe.Type) { a.Limits.WarmthOutlierC = 100.1 }},
		"launch": {func(a *airframe.Type) { a.Limits.LaunchPercent = 100 },
			func(a *airframe.Type) { a.Limits.LaunchPercent = 100.1 }},
	} {
		a, b := shipped(t)["lantern-4"], shipped(t)["lantern-4"]
		c.at(&a)
		c.over(&b)
		assert.NoError(t, a.Validate(), name)
		assert.Error(t, b.Validate(), name)
	}
}

// Every figure of a profile is taken at both ends of its range and refused beyond.
func TestFiguresOfAProfileAtBothEnds(t *testing.T) {
	type ends struct {
		what   string
		lo, hi float64
		set    func(a *airframe.Type, v float64)
	}
	of := func(what string, lo, hi float64, set func(a *airframe.Type, v float64)) ends {
		return ends{what, lo, hi, set}
	}
	quad := []ends{
		of("mass", 0.1, 1000, func(a *airframe.Type, v float64) { a.Limits.TakeoffMassKg = units.Kilograms(v) }),
		of("wind", 0.5, 40, func(a *airframe.Type, v float64) {
			a.Limits.WindMS, a.Limits.GustMS = units.MetresPerSecond(v),
				40
		}),
		of("gust", 5, 60, func(a *airframe.Type, v float64) {
			a.Limits.WindMS, a.Limits.GustMS = 5,
				units.MetresPerSecond(v)
		}),
		of("height", 1, 500, func(a *airframe.Type, v float64) { a.Limits.FlightHeightM = units.Metres(v) }),
		of("launch", 25, 100, func(a *airframe.Type, v float64) {
			a.Limits.LaunchPercent, a.Limits.LandByPercent = units.Percent(v), 25
		}),
		of("land by", 1, 90, func(a *airframe.Type, v float64) {
			a.Limits.LaunchPercent, a.Limits.LandByPercent = 90, units.Percent(v)
		}),
		of("minutes", 1, 600, func(a *airframe.Type, v float64) { a.Limits.PlannedMinutes = v }),
		of("crosswind", 0, 30, func(a *airframe.Type, v float64) { a.Limits.CrosswindMS = units.MetresPerSecond(v) }),
		of("climb", 0, 30, func(a *airframe.Type, v float64) { a.Limits.ClimbMS = units.MetresPerSecond(v) }),
		of("descent", 0, 30, func(a *airframe.Type, v float64) { a.Limits.DescentMS = units.MetresPerSecond(v) }),
		of("speed", 0, 100, func(a *airframe.Type, v float64) { a.Limits.SpeedMS = units.MetresPerSecond(v) }),
		of("transition", 0, 120, func(a *airframe.Type, v float64) { a.Limits.TransitionM = units.Metres(v) }),
		of("ground", 0, 120, func(a *airframe.Type, v float64) { a.Limits.LeastGroundM = units.Metres(v) }),
		of("over", 0, 120, func(a *airframe.Type, v float64) { a.Limits.LeastOverM = units.Metres(v) }),
		of("return", 0, 120, func(a *airframe.Type, v float64) { a.Limits.LeastReturnM = units.Metres(v) }),
		of("density", 0.7, 1.5, func(a *airframe.Type, v float64) { a.Limits.ReferenceKgM3 = v }),
		of("warmth", 1, 100, func(a *airframe.Type, v float64) { a.Limits.WarmthOutlierC = units.Celsius(v) }),
		of("packs", 1, 4, func(a *airframe.Type, v float64) { a.Packs.Count = int(v) }),
		of("cells", 1, 24, func(a *airframe.Type, v float64) { a.Packs.Cells = int(v) }),
		of("capacity", 100, 200000, func(a *airframe.Type, v float64) { a.Packs.CapacityMAh = int(v) }),
		of("cycles", 0, 100000, func(a *airframe.Type, v float64) { a.Packs.MaxCycles = int(v) }),
		of("call", 10, 3600, func(a *airframe.Type, v float64) { a.Packs.CallOutEvery = int(v) }),
		of("tank", 0, 500, func(a *airframe.Type, v float64) { a.TankL = v }),
		of("arm", 0.05, 10, func(a *airframe.Type, v float64) { a.Geometry.ArmM = units.Metres(v) }),
		of("rotor", 0.02, 5, func(a *airframe.Type, v float64) { a.Geometry.RotorDiameterM = units.Metres(v) }),
		of("rotors", 3, 12, func(a *airframe.Type, v float64) { a.Geometry.Rotors, a.Equipment = int(v), nil }),
		of("version", 1, wear.Most, func(a *airframe.Type, v float64) { a.Version = int(v) }),
		of("efficiency", 0.1, 0.95, func(a *airframe.Type, v float64) { a.Power = &airframe.Power{Efficiency: v} }),
		of("cruise share", 0.5, 2, func(a *airframe.Type, v float64) { a.Power = &airframe.Power{CruiseShare: v} }),
		of("cruise", 0.5, 80, func(a *airframe.Type,
			v float64) {
			a.Power = &airframe.Power{CruiseMS: units.MetresPerSecond(v)}
		}),
		of("empty", 0.01, 1000, balance(func(b *airframe.Balance, v float64) { b.EmptyKg = units.Kilograms(v) })),
		of("one pack", 0, 200, balance(func(b *airframe.Balance, v float64) { b.PackKg = units.Kilograms(v) })),
		of("tank across", -5, 5, balance(func(b *airframe.Balance, v float64) { b.Tank.X = v })),
		of("payload along", -5, 5, balance(func(b *airframe.Balance, v float64) { b.Payload.Y = v })),
		of("range across", 0.001, 5, balance(func(b *airframe.Balance, v float64) { b.XM = &v })),
		of("range ahead", 0.001, 5, balance(func(b *airframe.Balance, v float64) { b.AheadM = &v })),
		of("range behind", 0.001, 5, balance(func(b *airframe.Balance, v float64) { b.BehindM = &v })),
		of("motor", 0.001, 3, balance(func(b *airframe.Balance, v float64) { b.MostShare = &v })),
		of("equipment", 0, 40, func(a *airframe.Type, v float64) { a.Equipment[0].Count = int(v) }),
	}
	wing := []ends{
		of("lift over drag", 2, 60, func(a *airframe.Type, v float64) { a.Power = &airframe.Power{LiftDrag: v} }),
		of("drive", 0.1, 0.95, func(a *airframe.Type, v float64) { a.Power = &airframe.Power{WingDrive: v} }),
		of("span", 0.2, 20, func(a *airframe.Type, v float64) { a.Geometry.SpanM = units.Metres(v) }),
		of("length", 0.1, 20, func(a *airframe.Type, v float64) { a.Geometry.LengthM = units.Metres(v) }),
		of("chord", 0.05, 5, func(a *airframe.Type, v float64) { a.Geometry.ChordM = units.Metres(v) }),
		of("propeller", 0.02, 5, func(a *airframe.Type, v float64) { a.Geometry.PropDiameterM = units.Metres(v) }),
	}
	for key, list := range map[string][]ends{"lantern-4": quad, "tally-w": wing} {
		for _, e := range list {
			check := func(v float64) error {
				a := shipped(t)[key]
				a.Equipment = slices.Clone(a.Equipment)
				e.set(&a, v)
				return a.Validate()
			}
			step := (e.hi - e.lo) * 1e-6
			if e.hi > 2 && e.lo == math.Trunc(e.lo) { // counts move by one
				step = max(step, 1)
			}
			assert.NoError(t, check(e.lo), "%s at %g", e.what, e.lo)
			assert.NoError(t, check(e.hi), "%s at %g", e.what, e.hi)
			assert.Error(t, check(e.lo-step), "%s under %g", e.what, e.lo)
			assert.Error(t, check(e.hi+step), "%s over %g", e.what, e.hi)
		}
	}
}

// balance changes one figure of a balance that is otherwise in order.
func balance(set func(b *airframe.Balance, v float64)) func(a *airframe.Type, v float64) {
	return func(a *airframe.Type, v float64) {
		b := airframe.Balance{EmptyKg: 3, PackKg: 1}
		set(&b, v)
		a.Balance = &b
	}
}

// What one gesture means on two types.
func TestGestures(t *testing.T) {
	types := shipped(t)
	quad, hexa := types["lantern-4"], types["dray-30"]
	words, unknown := quad.Gestures()
	assert.False(t, unknown)
	assert.Contains(t, words[0], "controller first")
	assert.Contains(t, words[1], "last resort")
	assert.Len(t, quad.Opposite(hexa), 2, "start and emergency stop are the other way round")
	assert.Empty(t, quad.Opposite(quad))
	quad.Sticks = nil
	words, unknown = quad.Gestures()
	assert.True(t, unknown)
	assert.Len(t, words, 1)
	assert.Empty(t, hexa.Opposite(quad))
	words, _ = types["tally-v"].Gestures()
	assert.Contains(t, words[0], "aircraft first")
	hexa.Sticks = &airframe.Sticks{Start: "up", Stop: " "}
	assert.Error(t, hexa.Validate())
}

// One piece of equipment needs no number.
func TestEquipmentIsNumberedWhereThereAreMore(t *testing.T) {
	a := shipped(t)["lantern-4"]
	labels := func(count int) (out []string) {
		a.Equipment = []airframe.Equipment{{Kind: "light", At: "frame", Count: count}}
		for _, p := range a.Positions() {
			if p.Kind == "light" {
				out = append(out, p.ID+" "+p.Label)
			}
		}
		return out
	}
	assert.Equal(t, []string{"light Light"}, labels(0))
	assert.Equal(t, []string{"light Light"}, labels(1))
	assert.Equal(t, []string{"light-1 Light 1", "light-2 Light 2"}, labels(2))
}
