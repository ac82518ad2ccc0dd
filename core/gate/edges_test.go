package gate_test

import (
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"mainstay/core/gate"
	"mainstay/core/judge"
	"mainstay/core/pack"
	"mainstay/core/units"
	"mainstay/core/upkeep"
)

// Every age and level of the gate, at its edge and just over it: at the edge
// nothing new is found, over it the rule says so.
func TestGateAtItsEdges(t *testing.T) {
	found := func(rule judge.Rule, change func(*gate.Input)) int {
		in := good()
		change(&in)
		n := 0
		for _, f := range gate.Judge(in).Findings {
			if f.Rule == rule && f.Verdict != judge.Clear {
				n++
			}
		}
		return n
	}
	second := func(d time.Duration) time.Time { return ago(d + time.Second) }
	mv := func(v ...units.Millivolts) []units.Millivolts { return v }
	for name, x := range map[string]struct {
		rule     judge.Rule
		at, over func(*gate.Input)
	}{
		"walkround": {"walkround", func(i *gate.Input) { i.Walkround.At = ago(gate.WalkroundValidFor) },
			func(i *gate.Input) { i.Walkround.At = second(gate.WalkroundValidFor) }},
		"wind": {"wind", func(i *gate.Input) { i.Wind.At = ago(gate.WindValidFor) },
			func(i *gate.Input) { i.Wind.At = second(gate.WindValidFor) }},
		"wind ahead": {"wind", func(i *gate.Input) { i.Wind.At = now.Add(gate.ClockSkew) },
			func(i *gate.Input) { i.Wind.At = now.Add(gate.ClockSkew + time.Second) }},
		"reading": {"packs", func(i *gate.Input) { i.Packs[0].Reading.At = ago(24 * time.Hour) },
			func(i *gate.Input) { i.Packs[0].Reading.At = second(24 * time.Hour) }},
		"reading now": {"packs", func(i *gate.Input) { i.Packs[0].Reading.At = now },
			func(i *gate.Input) { i.Packs[0].Reading.At = now.Add(time.Second) }},
		"cells": {"packs", func(i *gate.Input) { i.Packs[0].Reading.CellMV = mv(4200, 4170, 4200) },
			func(i *gate.Input) { i.Packs[0].Reading.CellMV = mv(4200, 4169, 4200) }},
		"cold": {"packs", func(i *gate.Input) { i.Packs[0].Reading.Temperature = ptr(units.Celsius(15)) },
			func(i *gate.Input) { i.Packs[0].Reading.Temperature = ptr(units.Celsius(14.9)) }},
		"compass": {"compass", func(i *gate.Input) { i.Compass.At = ago(30 * 24 * time.Hour) },
			func(i *gate.Input) { i.Compass.At = second(30 * 24 * time.Hour) }},
		"far": {"compass", func(i *gate.Input) { i.Compass.MovedKm = ptr(50.0) },
			func(i *gate.Input) { i.Compass.MovedKm = ptr(50.001) }},
		"near people": {"other-propellers", func(i *gate.Input) { i.Parts[0].Foreign, i.Facts.PeopleM = true, ptr(30.0) },
			func(i *gate.Input) { i.Parts[0].Foreign, i.Facts.PeopleM = true, ptr(29.9) }},
		"mass": {"mass", func(i *gate.Input) { i.Mass.MassKg, i.Mass.LiftKg = ptr(7.5), ptr(7.5) },
			func(i *gate.Input) { i.Mass.MassKg, i.Mass.LiftKg = ptr(7.51), ptr(7.6) }},
		"lift": {"mass", func(i *gate.Input) { i.Mass.LiftKg = ptr(7.2) },
			func(i *gate.Input) { i.Mass.LiftKg = ptr(7.1) }},
		"gear level": {"gear", func(i *gate.Input) { i.Gear[0].Percent = ptr(30.0) },
			func(i *gate.Input) { i.Gear[0].Percent = ptr(29.9) }},
		"gear look": {"gear", func(i *gate.Input) { i.Gear[0].LookedAt = ptr(ago(7 * 24 * time.Hour)) },
			func(i *gate.Input) { i.Gear[0].LookedAt = ptr(second(7 * 24 * time.Hour)) }},
		"pack looked": {"packs", func(i *gate.Input) {
			i.Walkround.PackIDs, i.Packs[0].LookedAt = nil, ptr(ago(gate.WalkroundValidFor))
		}, func(i *gate.Input) {
			i.Walkround.PackIDs, i.Packs[0].LookedAt = nil, ptr(second(gate.WalkroundValidFor))
		}},
		"hours": {"wear", func(i *gate.Input) { i.Parts[0].Counters.Seconds = 24*3600*9/10 - 1 },
			func(i *gate.Input) { i.Parts[0].Counters.Seconds = 24 * 3600 * 9 / 10 }},
	} {
		assert.Equal(t, found(x.rule, func(*gate.Input) {}), found(x.rule, x.at), "%s at its edge", name)
		assert.Greater(t, found(x.rule, x.over), found(x.rule, x.at), "%s over its edge", name)
	}
	assert.True(t, slices.Contains(gate.Judge(good()).Checked, "compass"))
}

// Each order says who lifts it: the one whose acceptance is flown this flight, a
// signed one its own acceptance, one that is open the signature.
func TestOrdersSayWhatLiftsThem(t *testing.T) {
	in := good()
	in.Acceptance = "b"
	in.Orders = []gate.Order{{ID: "a", Title: "A", Signed: true, Next: upkeep.NoLoad},
		{ID: "b", Title: "B", Signed: true, Next: upkeep.NoLoad}, {ID: "c", Title: "C"}}
	lifts := map[string]string{}
	for _, f := range gate.Judge(in).Findings {
		if f.Rule == judge.RuleWorkOrders {
			id := "none"
			if f.Remedy != nil {
				id = string(f.Remedy.Kind) + " " + f.Remedy.ID
			}
			lifts[f.Lifts] = id
		}
	}
	assert.Equal(t, map[string]string{"the acceptance flight": "acceptance a", "this flight": "none",
		"technician or chief signs it": "order c"}, lifts)
}

// Propellers of another maker that may fly away from people say nothing of an
// aircraft that nobody flies yet.
func TestOtherPropellersNeedAFlight(t *testing.T) {
	for scope, want := range map[gate.Scope]bool{gate.WholeFlight: true, gate.AircraftOnly: false} {
		in := good()
		near := 5.0
		in.Scope, in.Parts[0].Foreign, in.Facts.PeopleM = scope, true, &near
		found := slices.ContainsFunc(gate.Judge(in).Findings,
			func(f judge.Finding) bool { return f.Rule == judge.RuleOtherPropellers })
		assert.Equal(t, want, found, "scope %v", scope)
	}
}

// Packs that cannot fly together anyway are not held against each other too.
func TestPacksOfTwoKindsAreNamedOnce(t *testing.T) {
	for name, change := range map[string]func(b *gate.Pack){
		"cells": func(b *gate.Pack) { b.Cells = 6 }, "chemistry": func(b *gate.Pack) { b.Chemistry = pack.LiHV },
		"the same": func(b *gate.Pack) { b.ID = "b" },
	} {
		in := good()
		in.Type.Packs.Count = 2
		b := in.Packs[0]
		b.ID, b.Label, b.Set = "c", "B2", pack.Candidate{ID: "c", Label: "B2", Cycles: 90}
		change(&b)
		in.Packs[0].ID = "b"
		in.Packs = append(in.Packs, b)
		for _, f := range gate.Judge(in).Findings {
			assert.NotContains(t, f.Sentence, "do not make a set", name)
		}
	}
}
