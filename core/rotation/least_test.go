package rotation_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/rotation"
)

// With nothing to charge with, each flight takes its own packs; with plenty, two or three
// sets go round. No smaller number of sets is as quick: tried one by one.
func TestLeastSets(t *testing.T) {
	rapid.Check(t, func(r *rapid.T) {
		d := rotation.Day{Aircraft: rapid.IntRange(1, 3).Draw(r, "aircraft"), Sets: 1, PerSet: 2, PackWh: 1000, ChargeTo: 95,
			CoolS:    rapid.Float64Range(0, 1800).Draw(r, "cool"),
			Channels: rapid.IntRange(0, 6).Draw(r, "channels"), ChannelW: rapid.Float64Range(200, 3000).Draw(r,
				"watts"), Hands: 2, SwapS: 120, FillS: 150}
		for range rapid.IntRange(1, 14).Draw(r, "flights") {
			d.Sorties = append(d.Sorties, rotation.Sortie{Seconds: 540, Wh: 1300, Done: 1, Fill: true})
		}
		got, err := d.LeastSets()
		require.NoError(r, err)
		all := d
		all.Sets = len(d.Sorties)
		best, err := all.Simulate()
		require.NoError(r, err)
		enough := func(n int) bool {
			x := d
			x.Sets = n
			run, err := x.Simulate()
			return err == nil && run.Flown == best.Flown && run.EndS <= best.EndS*(1+rotation.Lateness)
		}
		assert.True(r, enough(got), "%d sets", got)
		if got > 1 {
			assert.False(r, enough(got-1), "%d sets do too", got-1)
		}
		if d.Channels == 0 {
			assert.Equal(r, len(d.Sorties), got)
		}
	})
	_, err := rotation.Day{}.LeastSets()
	assert.ErrorIs(t, err, rotation.ErrInput)
}
