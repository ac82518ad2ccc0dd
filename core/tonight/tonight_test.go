package tonight_test

import (
	"fmt"
	"math"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/energy"
	"mainstay/core/judge"
	"mainstay/core/pack"
	"mainstay/core/tonight"
)

var evening = time.Date(2026, 6, 10, 2, 0, 0, 0, time.UTC)

func TestChargeTimeAgainstStepping(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		wh, w := rapid.Float64Range(50, 2000).Draw(t, "wh"), rapid.Float64Range(50, 3000).Draw(t, "w")
		from, to := rapid.Float64Range(0, 100).Draw(t, "from"), rapid.Float64Range(0, 100).Draw(t, "to")
		got, err := energy.ChargeTime(wh, w, from, to)
		require.NoError(t, err)
		// The naive way: step through the charge in thousandths.
		hours, steps := 0.0, 4000
		for i := range steps {
			p := from + (to-from)*(float64(i)+0.5)/float64(steps)
			power := w
			if p > 80 {
				power = w * (1 - 0.8*(p-80)/20)
			}
			hours += (to - from) / float64(steps) / 100 * wh / (0.92 * power)
		}
		assert.InDelta(t, max(hours, 0), got.Hours(), math.Abs(hours)*1e-3+0.001)
	})
	_, err := energy.ChargeTime(100, 0, 0, 100)
	assert.ErrorIs(t, err, energy.ErrPower)
	_, err = energy.ChargeTime(100, 100, math.NaN(), 100)
	assert.ErrorIs(t, err, energy.ErrLevel)
}

func level(v float64) *float64 { return &v }

func rack(states ...pack.State) []tonight.Pack {
	var out []tonight.Pack
	for i, s := range states {
		out = append(out, tonight.Pack{ID: fmt.Sprint(i + 1), Label: fmt.Sprintf("D%d", i+1), Types: []string{"dray"},
			State: s, Percent: level(50), WattHours: 500, Health: 95})
	}
	return out
}

func TestTonight(t *testing.T) {
	in := tonight.Input{Start: evening, ReadyBy: evening.Add(10 * time.Hour),
		Packs: rack(pack.Charged, pack.Flown, pack.Storage, pack.Charged, pack.Quarantine, pack.Charged, pack.Storage),
		Flying: []tonight.Flying{{Aircraft: "Dray One", TypeKey: "dray", Sorties: 2,
			Packs: 2}}, Chargers: []tonight.Charger{{Name: "Truck", Channels: 2, Watts: 500}}}
	in.Packs[4].Stop = "In quarantine."
	for _, pair := range [][2]int{{0, 1}, {2, 3}, {5, 6}} {
		a, b := &in.Packs[pair[0]], &in.Packs[pair[1]]
		a.Mate, b.Mate = b.ID, a.ID
	}
	p, err := tonight.Make(in)
	require.NoError(t, err)
	assert.Equal(t, judge.Clear, p.Verdict, "%v", p.Findings)
	require.Len(t, p.Ready, 3)
	require.Len(t, p.Charge, 3)
	assert.Equal(t, "D2", p.Charge[0].Label, "the partner of a charged pack is charged first")
	assert.Equal(t, evening, p.Charge[1].Start, "two channels begin together")
	assert.Equal(t, p.Charge[0].End, p.Charge[2].Start)
	assert.Empty(t, p.Lower)

	in.Flying[0].Sorties = 3
	p, err = tonight.Make(in)
	require.NoError(t, err)
	assert.Equal(t, judge.Watch, p.Verdict)
	assert.Contains(t, p.Findings[0].Sentence, "none to spare")
	in.Flying[0].Sorties = 4
	p, _ = tonight.Make(in)
	assert.Equal(t, judge.Stop, p.Verdict)

	in.Packs[5].Mate, in.Packs[6].Mate = "", ""
	in.Flying[0].Sorties = 3
	p, _ = tonight.Make(in)
	assert.Contains(t, p.Findings[0].Sentence, "4 packs in sets may fly, 3 sorties take 6",
		"a pack without a partner does not fly on a twin")
	in.Packs[5].Mate, in.Packs[6].Mate = "7", "6"

	in.Flying = nil
	in.Packs[0].FullFor, in.Packs[3].FullFor = 11*24*time.Hour, 3*24*time.Hour
	p, _ = tonight.Make(in)
	require.Len(t, p.Lower, 3)
	assert.Equal(t, []judge.Verdict{judge.Stop, judge.Watch, judge.Clear},
		[]judge.Verdict{p.Lower[0].Verdict, p.Lower[1].Verdict, p.Lower[2].Verdict})

	in.Flying = []tonight.Flying{{Aircraft: "Dray One", TypeKey: "dray", Sorties: 2, Packs: 2}}
	in.Packs[1].Percent, in.ReadyBy = nil, evening.Add(time.Hour)
	p, _ = tonight.Make(in)
	assert.Equal(t, judge.Stop, p.Verdict, "the night is too short")
	in.Chargers = nil
	p, _ = tonight.Make(in)
	assert.Contains(t, p.Findings[len(p.Findings)-1].Sentence, "no charger")
	in.Chargers = []tonight.Charger{{Name: "Dead", Channels: 1}}
	_, err = tonight.Make(in)
	assert.ErrorIs(t, err, energy.ErrPower)
}

// No channel holds two packs at once, no pack is planned twice, and what is
// done last is what the plan says.
func TestChannelsNeverOverlap(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		states := []pack.State{pack.Charged, pack.Flown, pack.Storage, pack.Hot}
		var packs []tonight.Pack
		for i := range rapid.IntRange(0, 25).Draw(t, "packs") {
			packs = append(packs, tonight.Pack{ID: fmt.Sprint(i), Label: fmt.Sprint(i), Types: []string{"a", "b"}[:1+i%2],
				State: rapid.SampledFrom(states).Draw(t, "state"), Percent: level(rapid.Float64Range(0, 100).Draw(t, "level")),
				WattHours: 300})
		}
		in := tonight.Input{Start: evening, ReadyBy: evening.Add(time.Hour * 8), Packs: packs,
			Chargers: []tonight.Charger{{"x", 2, 400}, {"y", 1, 900}},
			Flying: []tonight.Flying{{"A", "a", rapid.IntRange(0, 6).Draw(t, "sa"), 2, rapid.IntRange(0, 8).Draw(t, "sets")},
				{"B", "b", rapid.IntRange(0, 6).Draw(t, "sb"), 1, 0}}}
		p, err := tonight.Make(in)
		require.NoError(t, err)
		seen, free := map[string]bool{}, map[string]time.Time{}
		for _, j := range p.Charge {
			require.False(t, seen[j.PackID])
			seen[j.PackID] = true
			key := fmt.Sprint(j.Charger, j.Channel)
			require.False(t, j.Start.Before(free[key]))
			free[key] = j.End
			require.False(t, j.End.After(*p.DoneAt))
		}
		for _, r := range p.Ready {
			require.False(t, seen[r.PackID])
			seen[r.PackID] = true
		}
		for _, l := range p.Lower {
			require.False(t, seen[l.PackID])
		}
	})
}

// Packs that are charged in the field meanwhile are not taken along for each flight.
func TestSetsThatGoRound(t *testing.T) {
	var packs []tonight.Pack
	for i := range 6 {
		packs = append(packs, tonight.Pack{ID: fmt.Sprint(i), Label: fmt.Sprint(i), Types: []string{"a"}, State: pack.Charged,
			Percent: level(98), WattHours: 300})
	}
	in := tonight.Input{Start: evening, ReadyBy: evening.Add(8 * time.Hour), Packs: packs,
		Flying: []tonight.Flying{{Aircraft: "A", TypeKey: "a", Sorties: 12, Packs: 1}}}
	p, err := tonight.Make(in)
	require.NoError(t, err)
	assert.Equal(t, judge.Stop, p.Verdict)
	in.Flying[0].Sets = 4
	p, err = tonight.Make(in)
	require.NoError(t, err)
	assert.Equal(t, judge.Clear, p.Verdict, "%v", p.Findings)
	assert.Len(t, p.Ready, 5, "four, and one to spare")
	in.Flying[0].Sets = 7
	p, err = tonight.Make(in)
	require.NoError(t, err)
	require.NotEmpty(t, p.Findings)
	assert.Equal(t, judge.Stop, p.Verdict)
	assert.Contains(t, p.Findings[0].Sentence, "charged again in the field")
}
