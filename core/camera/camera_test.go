package camera_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/camera"
	"mainstay/core/judge"
)

func yes(v bool) *bool     { return &v }
func n(v int) *int         { return &v }
func f(v float64) *float64 { return &v }

func good() camera.Card {
	return camera.Card{Light: camera.Sun, Shutter: 1000, ISO: 100, BaseISO: 100, KelvinK: 5600, Formatted: yes(true),
		FreeGB: f(60), CapOff: yes(true), Before: n(10), After: n(11)}
}

// Metered 1/1600 s, wanted 1/50 s: five stops; the other way round is too dark.
func TestStops(t *testing.T) {
	s, err := camera.Stops(1.0/1600, 1.0/50)
	require.NoError(t, err)
	assert.InDelta(t, 5, s, 1e-9)
	s, err = camera.Stops(1.0/50, 1.0/1600)
	require.NoError(t, err)
	assert.InDelta(t, -5, s, 1e-9)
	_, err = camera.Stops(0, 1)
	assert.ErrorIs(t, err, camera.ErrInput)
	v, err := camera.Shutter(25)
	require.NoError(t, err)
	assert.InDelta(t, 1.0/50, v, 1e-12)
	_, err = camera.Shutter(math.NaN())
	assert.ErrorIs(t, err, camera.ErrInput)
}

// A card that is in order has nothing against it; each single thing that is not, or that
// nobody looked at, is said at its field.
func TestCards(t *testing.T) {
	require.NoError(t, good().Check())
	assert.Empty(t, good().Judge(12, 1000))
	for name, c := range map[string]struct {
		change func(*camera.Card)
		wish   string
		want   judge.Verdict
	}{
		"cap on":             {func(c *camera.Card) { c.CapOff = yes(false) }, "cap_off", judge.Stop},
		"cap not looked at":  {func(c *camera.Card) { c.CapOff = nil }, "cap_off", judge.Watch},
		"not formatted":      {func(c *camera.Card) { c.Formatted = yes(false) }, "formatted", judge.Stop},
		"format not known":   {func(c *camera.Card) { c.Formatted = nil }, "formatted", judge.Watch},
		"too little space":   {func(c *camera.Card) { c.FreeGB = f(11.9) }, "free_gb", judge.Stop},
		"space not known":    {func(c *camera.Card) { c.FreeGB = nil }, "free_gb", judge.Watch},
		"no test picture":    {func(c *camera.Card) { c.After = nil }, "after", judge.Stop},
		"counter stands":     {func(c *camera.Card) { c.After = n(10) }, "after", judge.Stop},
		"balance of a cloud": {func(c *camera.Card) { c.KelvinK = 7000 }, "kelvin", judge.Watch},
		"noisy":              {func(c *camera.Card) { c.ISO = 400 }, "iso", judge.Watch},
		"slower than plan":   {func(c *camera.Card) { c.Shutter = 500 }, "shutter", judge.Watch},
		"slow for video":     {func(c *camera.Card) { c.Video, c.FPS = true, 25 }, "shutter", judge.Watch},
		"wants a filter": {func(c *camera.Card) { c.Shutter, c.Video, c.FPS, c.Metered = 50, true, 25, 1600 },
			"filter_stop", judge.Watch},
		"too dark": {func(c *camera.Card) { c.Metered = 100 }, "filter_stop", judge.Watch},
		"gimbal was on": {func(c *camera.Card) { c.FilterStop, c.GimbalOff, c.Metered = 5, yes(false), 32000/1.6 },
			"gimbal_off", judge.Stop},
	} {
		card := good()
		c.change(&card)
		require.NoError(t, card.Check(), name)
		out := card.Judge(12, 1000)
		found := false
		for _, b := range out {
			found = found || b.Wish == c.wish && b.Verdict == c.want
		}
		assert.True(t, found, "%s: %v", name, out)
	}
	for name, change := range map[string]func(*camera.Card){
		"no light":   func(c *camera.Card) { c.Light = "moon" },
		"no number":  func(c *camera.Card) { c.Shutter = math.NaN() },
		"no pace":    func(c *camera.Card) { c.Video = true },
		"much space": func(c *camera.Card) { c.FreeGB = f(-1) },
		"no balance": func(c *camera.Card) { c.KelvinK = 0 },
	} {
		card := good()
		change(&card)
		assert.ErrorIs(t, card.Check(), camera.ErrInput, name)
	}
}
