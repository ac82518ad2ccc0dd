package stock_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/judge"
	"mainstay/core/stock"
)

var today = time.Date(2026, 6, 10, 0, 0, 0, 0, time.UTC)

func in(days ...int) []time.Time {
	var out []time.Time
	for _, d := range days {
		out = append(out, today.AddDate(0, 0, d))
	}
	return out
}

func TestReorder(t *testing.T) {
	for _, c := range []struct {
		name  string
		l     stock.Line
		needs []time.Time
		n     int
		by    string
		v     judge.Verdict
	}{
		{"nothing needed", stock.Line{OnHand: 2, Minimum: 1, DeliveryDays: 10}, nil, 0, "", judge.Clear},
		{"covered", stock.Line{OnHand: 3, Minimum: 1, DeliveryDays: 10}, in(20, 40), 0, "", judge.Clear},
		{"second need breaks the minimum", stock.Line{OnHand: 2, Minimum: 1, DeliveryDays: 10}, in(20, 40), 1, "2026-07-10",
			judge.Clear},
		{"order within two weeks", stock.Line{OnHand: 2, Minimum: 1, DeliveryDays: 30}, in(20, 40), 1, "2026-06-20",
			judge.Watch},
		{"order day is past", stock.Line{OnHand: 2, Minimum: 1, DeliveryDays: 45}, in(20, 40), 1, "2026-06-05", judge.Stop},
		{"below the minimum", stock.Line{OnHand: 1, Minimum: 4, DeliveryDays: 5}, in(3, 9), 4, "2026-06-05", judge.Stop},
		{"overdue need, empty shelf", stock.Line{OnHand: 0, Minimum: 0, DeliveryDays: 5}, in(-3), 1, "2026-06-05",
			judge.Stop},
	} {
		o, err := stock.Reorder(c.l, c.needs, today)
		require.NoError(t, err, c.name)
		assert.Equal(t, c.n, o.Quantity, "%s: %s", c.name, o.Sentence)
		assert.Equal(t, c.v, o.Verdict, "%s: %s", c.name, o.Sentence)
		if c.by == "" {
			assert.Nil(t, o.By, c.name)
		} else {
			assert.Equal(t, c.by, o.By.Format(time.DateOnly), c.name)
		}
	}
	_, err := stock.Reorder(stock.Line{OnHand: -1}, nil, today)
	assert.ErrorIs(t, err, stock.ErrLine)
}

// Ordered by its day and delivered in time, the shelf never falls below the
// minimum until a delivery after the shortage.
func TestWhatIsOrderedIsEnough(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		l := stock.Line{OnHand: rapid.IntRange(0, 8).Draw(t, "hand"), Minimum: rapid.IntRange(0, 4).Draw(t, "min"),
			DeliveryDays: rapid.IntRange(0, 60).Draw(t, "days")}
		var days []int
		for range rapid.IntRange(0, 15).Draw(t, "n") {
			days = append(days, rapid.IntRange(0, 300).Draw(t, "day"))
		}
		needs := in(days...)
		o, err := stock.Reorder(l, needs, today)
		require.NoError(t, err)
		count := func(until time.Time) int {
			n := 0
			for _, x := range needs {
				if !x.After(until) {
					n++
				}
			}
			return n
		}
		if o.By == nil {
			assert.GreaterOrEqual(t, l.OnHand-len(needs), l.Minimum)
			return
		}
		until := o.ShortOn.AddDate(0, 0, l.DeliveryDays)
		assert.GreaterOrEqual(t, l.OnHand+o.Quantity-count(until), min(l.Minimum, l.OnHand+o.Quantity),
			"enough until one delivery later")
		assert.Equal(t, *o.ShortOn, o.By.AddDate(0, 0, l.DeliveryDays))
		assert.GreaterOrEqual(t, l.OnHand-count(o.ShortOn.AddDate(0, 0, -1)), min(l.Minimum, l.OnHand),
			"until the day before, the shelf holds")
	})
}
