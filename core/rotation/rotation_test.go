package rotation_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/energy"
	"mainstay/core/rotation"
)

// day is worked out by hand below: a pack of 100 Wh that gives 50 takes 1000 s to
// charge from 30 to 80 percent.
func day() rotation.Day {
	return rotation.Day{
		Sorties:  []rotation.Sortie{{600, 50, 2, false}, {600, 50, 2, false}, {600, 50, 2, false}, {600, 50, 2, false}},
		Aircraft: 1, Sets: 2, PerSet: 1, PackWh: 100, ChargeTo: 80, Channels: 1,
		ChannelW: 50 * 3600 / (energy.Efficiency * 1000), Hands: 1, SwapS: 120,
	}
}

// 0 swap, 120 fly, 720 swap, 840 fly, 1440 wait for the first set (charged 720-1720),
// 1720 swap, 1840 fly, 2440 wait for the second (1720-2720), 2720 swap, 2840 fly, 3440.
func TestDayByHand(t *testing.T) {
	r, err := day().Simulate()
	require.NoError(t, err)
	assert.InDelta(t, 3440, r.EndS, 1)
	assert.Equal(t, 4, r.Flown)
	assert.True(t, r.AllDone)
	assert.InDelta(t, 280+280, r.WaitedS[rotation.ForPacks], 1)
	assert.Zero(t, r.WaitedS[rotation.ForHands])
	assert.InDelta(t, 2*280, r.QueueS, 1, "from 1440 to 1720, and from 2440 to 2720")
	assert.InDelta(t, 8/3440.0*3600, r.PerHour, 0.01)
	// A third set: the third flight waits for nobody, the fourth until 1720.
	d := day()
	d.Sets = 3
	r, err = d.Simulate()
	require.NoError(t, err)
	assert.InDelta(t, 4*720, r.EndS, 1)
	assert.Zero(t, r.WaitedS[rotation.ForPacks])
}

func TestGeneratorHandsAndEvening(t *testing.T) {
	d := day()
	d.Channels, d.GeneratorW = 2, d.ChannelW*1.5
	r, err := d.Simulate()
	require.NoError(t, err)
	assert.InDelta(t, 3440, r.EndS, 1, "the generator bears one channel")
	d.GeneratorW = 0
	r, err = d.Simulate()
	require.NoError(t, err)
	assert.InDelta(t, 1720+720+720, r.EndS, 1)
	// Two aircraft and one hand: the second waits while the first is served.
	d = day()
	d.Aircraft, d.Sets = 2, 4
	r, err = d.Simulate()
	require.NoError(t, err)
	assert.InDelta(t, 120, r.WaitedS[rotation.ForHands], 1)
	assert.InDelta(t, 1560, r.EndS, 1)
	// Filling beside the swap when there are two hands, after it when there is one.
	d = day()
	d.Sorties, d.FillS = []rotation.Sortie{{600, 50, 2, true}}, 200
	r, _ = d.Simulate()
	assert.InDelta(t, 920, r.EndS, 1)
	d.Hands = 2
	r, _ = d.Simulate()
	assert.InDelta(t, 800, r.EndS, 1)
	// The evening comes: what would not be back is not begun.
	d = day()
	d.DayS = 2439
	r, err = d.Simulate()
	require.NoError(t, err)
	assert.Equal(t, 2, r.Flown)
	assert.False(t, r.AllDone)
	d.DayS = 2441
	r, _ = d.Simulate()
	assert.Equal(t, 3, r.Flown)
}

func TestWorkThatNeverEnds(t *testing.T) {
	d := day()
	d.Channels = 0
	_, err := d.Simulate()
	require.ErrorIs(t, err, rotation.ErrStuck)
	g, err := d.Gains()
	require.NoError(t, err)
	require.NotEmpty(t, g)
	assert.Equal(t, rotation.MoreChannels, g[0].More)
	assert.True(t, math.IsInf(g[0].SavedS, 1))
	d.Sets = 4
	_, err = d.Simulate()
	require.NoError(t, err, "enough sets for the day need no charger")
}

func TestGainsNameTheBottleneck(t *testing.T) {
	r, _ := day().Simulate()
	g, err := day().Gains()
	require.NoError(t, err)
	assert.Equal(t, rotation.MoreSets, g[0].More)
	assert.InDelta(t, 560, g[0].SavedS, 2)
	assert.Equal(t, rotation.MoreSets, rotation.Bottleneck(r, g))
	for _, x := range g {
		if x.More == rotation.MoreHands {
			assert.InDelta(t, 0, x.SavedS, 1e-9)
		}
		assert.NotEqual(t, rotation.MoreGenerator, x.More, "there is none")
	}
	free := day()
	free.Sets, free.Hands = 4, 4
	r, _ = free.Simulate()
	g, _ = free.Gains()
	assert.Equal(t, rotation.MoreAircraft, rotation.Bottleneck(r, g))
}

func TestSameSeedSameSpread(t *testing.T) {
	a, err := day().Simulations(200, 7, rotation.Usual)
	require.NoError(t, err)
	b, _ := day().Simulations(200, 7, rotation.Usual)
	assert.Equal(t, a, b)
	c, _ := day().Simulations(200, 8, rotation.Usual)
	assert.NotEqual(t, a.EndS, c.EndS)
	assert.LessOrEqual(t, a.EndS[0], a.EndS[1])
	assert.LessOrEqual(t, a.EndS[1], a.EndS[2])
	assert.InDelta(t, 1, a.InTime, 1e-9)
	still, _ := day().Simulations(10, 1, rotation.Vary{})
	assert.InDelta(t, 3440, still.EndS[0], 1)
	assert.InDelta(t, still.EndS[0], still.EndS[2], 1e-9)
	_, err = day().Simulations(0, 1, rotation.Usual)
	require.ErrorIs(t, err, rotation.ErrInput)
	_, err = day().Simulations(10, 1, rotation.Vary{Flights: math.NaN()})
	require.ErrorIs(t, err, rotation.ErrInput)
}

// Whatever the day: nothing is in two places, nothing is used that is not there, and
// all is flown.
func TestDaysAddUp(t *testing.T) {
	rapid.Check(t, func(rt *rapid.T) {
		n := rapid.IntRange(1, 20).Draw(rt, "sorties")
		d := day()
		d.Sorties = nil
		for range n {
			d.Sorties = append(d.Sorties, rotation.Sortie{Seconds: rapid.Float64Range(60, 1500).Draw(rt, "s"),
				Wh: rapid.Float64Range(0, 150).Draw(rt, "wh"), Done: 1, Fill: rapid.Bool().Draw(rt, "fill")})
		}
		d.Aircraft, d.Sets, d.PerSet = rapid.IntRange(1, 4).Draw(rt, "aircraft"), rapid.IntRange(1, 6).Draw(rt, "sets"), 2
		d.Channels, d.Hands = rapid.IntRange(1, 4).Draw(rt, "channels"), rapid.IntRange(1, 3).Draw(rt, "hands")
		d.CoolS, d.FillS = rapid.Float64Range(0, 900).Draw(rt, "cool"), rapid.Float64Range(0, 300).Draw(rt, "fill s")
		if rapid.Bool().Draw(rt, "generator") {
			d.GeneratorW = d.ChannelW * rapid.Float64Range(1, 4).Draw(rt, "w")
		}
		r, err := d.Simulate()
		require.NoError(rt, err)
		assert.Equal(rt, n, r.Flown)
		assert.InDelta(rt, float64(n), r.Done, 1e-9)
		type thing struct {
			of     string
			number int
		}
		at := map[thing][]rotation.Stretch{}
		air := 0.0
		for _, s := range r.Line {
			require.LessOrEqual(rt, s.From, s.To+1e-9)
			if s.Of == "aircraft" && s.Doing == rotation.Filling {
				continue // beside the swap, with two hands
			}
			at[thing{s.Of, s.Number}] = append(at[thing{s.Of, s.Number}], s)
			if s.Of == "aircraft" && s.Doing == rotation.Flying {
				air += s.To - s.From
			}
		}
		want := 0.0
		for _, s := range d.Sorties {
			want += s.Seconds
		}
		assert.InDelta(rt, want, air, 1e-6)
		for who, all := range at {
			for i, a := range all {
				for _, b := range all[:i] {
					require.False(rt, a.From < b.To-1e-6 && b.From < a.To-1e-6, "%v is at %v and %v", who, a, b)
				}
			}
		}
	})
}

func TestDaysThatAreNone(t *testing.T) {
	for name, spoil := range map[string]func(*rotation.Day){
		"no sorties":  func(d *rotation.Day) { d.Sorties = nil },
		"no aircraft": func(d *rotation.Day) { d.Aircraft = 0 },
		"no sets":     func(d *rotation.Day) { d.Sets = 0 },
		"no hands":    func(d *rotation.Day) { d.Hands = 0 },
		"too much":    func(d *rotation.Day) { d.Sorties[1].Wh = 81 },
		"no time":     func(d *rotation.Day) { d.Sorties[1].Seconds = math.NaN() },
		"no pack":     func(d *rotation.Day) { d.PackWh = 0 },
		"swap":        func(d *rotation.Day) { d.SwapS = -1 },
	} {
		d := day()
		spoil(&d)
		_, err := d.Simulate()
		require.ErrorIs(t, err, rotation.ErrInput, name)
	}
}

func BenchmarkDay(b *testing.B) {
	d := day()
	d.Aircraft, d.Sets, d.Hands, d.Channels = 2, 6, 2, 4
	for len(d.Sorties) < 60 {
		d.Sorties = append(d.Sorties, d.Sorties...)
	}
	for b.Loop() {
		if _, err := d.Simulations(200, 1, rotation.Usual); err != nil {
			b.Fatal(err)
		}
	}
}
