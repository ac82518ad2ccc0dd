package gear_test

import (
	"math"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/gear"
)

var now = time.Date(2026, 6, 10, 15, 0, 0, 0, time.UTC)

func ago(d time.Duration) *time.Time { t := now.Add(-d); return &t }
func f(v float64) *float64           { return &v }

func TestEachThingAgainstAPiece(t *testing.T) {
	good := func() gear.Piece {
		return gear.Piece{Label: "Controller 1", Kind: gear.Controller, Percent: f(80), Least: 30, At: ago(time.Hour),
			LookedAt: ago(time.Hour)}
	}
	assert.Empty(t, good().Judge(now))
	for name, c := range map[string]struct {
		change func(*gear.Piece)
		says   string
	}{
		"out of use":          {func(p *gear.Piece) { p.Retired = true }, "out of use"},
		"never looked at":     {func(p *gear.Piece) { p.LookedAt = nil }, "Nobody has looked"},
		"something found":     {func(p *gear.Piece) { p.Found = "swollen." }, "found: swollen."},
		"look in the future":  {func(p *gear.Piece) { p.LookedAt = ago(-3 * time.Minute) }, "future"},
		"look too old":        {func(p *gear.Piece) { p.LookedAt = ago(gear.LookHolds + time.Second) }, "it holds for 7"},
		"look just holds":     {func(p *gear.Piece) { p.LookedAt = ago(gear.LookHolds) }, ""},
		"never read":          {func(p *gear.Piece) { p.Percent = nil }, "never been read"},
		"not a number":        {func(p *gear.Piece) { p.Percent = f(math.NaN()) }, "never been read"},
		"just under":          {func(p *gear.Piece) { p.Percent = f(29.9) }, "it needs 30 %"},
		"just at":             {func(p *gear.Piece) { p.Percent = f(30) }, ""},
		"level in the future": {func(p *gear.Piece) { p.At = ago(-3 * time.Minute) }, "future"},
		"level too old":       {func(p *gear.Piece) { p.At = ago(gear.LevelHolds + time.Second) }, "read it again"},
		"level just holds":    {func(p *gear.Piece) { p.At = ago(gear.LevelHolds) }, ""},
	} {
		p := good()
		c.change(&p)
		got := p.Judge(now)
		if c.says == "" {
			assert.Empty(t, got, name)
			continue
		}
		require.NotEmpty(t, got, name)
		assert.Contains(t, got[0].Sentence, c.says, name)
	}
}
