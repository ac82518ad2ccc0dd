package wear_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/judge"
	"mainstay/core/wear"
)

func date(y int, m time.Month, d int) time.Time { return time.Date(y, m, d, 0, 0, 0, 0, time.UTC) }

func TestFirstLimitWins(t *testing.T) {
	l := wear.Limits{Hours: 24, Months: 6}
	now := date(2026, 3, 1)
	for _, c := range []struct {
		name string
		c    wear.Counters
		by   string
		v    judge.Verdict
	}{
		{"new", wear.Counters{Since: now}, "hours", judge.Clear},
		{"hours reach first", wear.Counters{Seconds: 24 * 3600, Since: now}, "hours", judge.Stop},
		{"one second before", wear.Counters{Seconds: 24*3600 - 1, Since: now}, "hours", judge.Watch},
		{"months reach first", wear.Counters{Seconds: 3600, Since: date(2025, 9, 1)}, "months", judge.Stop},
		{"a day before six months", wear.Counters{Seconds: 3600, Since: date(2025, 9, 2)}, "months", judge.Watch},
	} {
		d, err := wear.Judge(c.c, l, now)
		require.NoError(t, err, c.name)
		assert.Equal(t, c.by, d.By, c.name)
		assert.Equal(t, c.v, d.Verdict, "%s: %s", c.name, d.Sentence)
	}
}

func TestUnknownAgeIsAnError(t *testing.T) {
	_, err := wear.Judge(wear.Counters{}, wear.Limits{Months: 6}, date(2026, 1, 1))
	assert.Error(t, err)
	_, err = wear.Judge(wear.Counters{Seconds: -1}, wear.Limits{}, date(2026, 1, 1))
	assert.ErrorIs(t, err, wear.ErrCounters)
	d, err := wear.Judge(wear.Counters{Seconds: 1e9}, wear.Limits{}, date(2026, 1, 1))
	require.NoError(t, err)
	assert.Equal(t, judge.Clear, d.Verdict)
}

func TestAddMonthsStaysInTheMonth(t *testing.T) {
	assert.Equal(t, date(2026, 2, 28), wear.AddMonths(date(2025, 8, 31), 6))
	assert.Equal(t, date(2028, 2, 29), wear.AddMonths(date(2027, 8, 31), 6))
	assert.Equal(t, date(2027, 1, 15), wear.AddMonths(date(2026, 12, 15), 1))
}

// More use never makes a part fresher, and being due agrees with a plain
// comparison of each counter.
func TestDueAgreesWithPlainComparison(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		c := wear.Counters{
			Seconds: rapid.Int64Range(0, 400000).Draw(t, "s"), Flights: rapid.IntRange(0, 300).Draw(t, "f"),
			Landings: rapid.IntRange(0, 300).Draw(t, "l"), Cycles: rapid.IntRange(0, 300).Draw(t, "c"),
		}
		l := wear.Limits{Hours: float64(rapid.IntRange(0, 100).Draw(t, "H")), Flights: rapid.IntRange(0, 250).Draw(t, "F"),
			Landings: rapid.IntRange(0, 250).Draw(t, "L"), Cycles: rapid.IntRange(0, 250).Draw(t, "C")}
		d, err := wear.Judge(c, l, date(2026, 1, 1))
		require.NoError(t, err)
		plain := l.Hours > 0 && float64(c.Seconds)/3600 >= l.Hours || l.Flights > 0 && c.Flights >= l.Flights ||
			l.Landings > 0 && c.Landings >= l.Landings || l.Cycles > 0 && c.Cycles >= l.Cycles
		assert.Equal(t, plain, d.Verdict == judge.Stop)
		more, err := wear.Judge(c.Add(wear.Use{Seconds: 600, Flights: 1, Landings: 1, Cycles: 1}), l, date(2026, 1, 1))
		require.NoError(t, err)
		assert.GreaterOrEqual(t, more.Fraction, d.Fraction)
	})
}

func TestForecast(t *testing.T) {
	// One hour a day for 28 days: rate 1 h/day, 10 h left is 10 days.
	var daily []wear.DayUse
	for d := range 28 {
		daily = append(daily, wear.DayUse{DaysAgo: d, Amount: 1})
	}
	days, ok := wear.Forecast(daily, 10)
	assert.True(t, ok)
	assert.InDelta(t, 10, days, 1e-9)
	// Only the recent half: 14 h over the last 14 days count double, 2/3 h a day.
	days, ok = wear.Forecast(daily[:14], 10)
	assert.True(t, ok)
	assert.InDelta(t, 15, days, 1e-9)
	_, ok = wear.Forecast([]wear.DayUse{{DaysAgo: 40, Amount: 5}}, 10)
	assert.False(t, ok, "no use, no date")
	days, ok = wear.Forecast(nil, 0)
	assert.True(t, ok)
	assert.Zero(t, days)
}

func TestWhenTakesTheEarliest(t *testing.T) {
	now := date(2026, 6, 10)
	hourADay := wear.Recent{}
	for d := range 28 {
		hourADay.Hours = append(hourADay.Hours, wear.DayUse{DaysAgo: d, Amount: 1})
	}
	c := wear.Counters{Seconds: 14 * 3600, Since: date(2026, 1, 1)}
	for _, x := range []struct {
		name  string
		c     wear.Counters
		l     wear.Limits
		r     wear.Recent
		on    time.Time
		by    string
		fore  bool
		known bool
	}{
		{"hours before months", c, wear.Limits{Hours: 24, Months: 6}, hourADay, date(2026, 6, 20), "hours", true, true},
		{"months before hours", c, wear.Limits{Hours: 240, Months: 6}, hourADay, date(2026, 7, 1), "months", false, true},
		{"no use leaves the calendar", c, wear.Limits{Hours: 24, Months: 6}, wear.Recent{}, date(2026, 7, 1), "months", false,
			true},
		{"no use, no calendar, no date", c, wear.Limits{Hours: 24}, wear.Recent{}, time.Time{}, "", false, false},
		{"due already is today", wear.Counters{Seconds: 24 * 3600, Since: now}, wear.Limits{Hours: 24}, wear.Recent{}, now,
			"hours", false, true},
		{"no limit", c, wear.Limits{}, hourADay, time.Time{}, "", false, false},
	} {
		got, err := wear.When(x.c, x.l, x.r, now)
		require.NoError(t, err, x.name)
		assert.Equal(t, wear.DueDate{On: x.on, By: x.by, Forecast: x.fore, Known: x.known}, got, x.name)
	}
	_, err := wear.When(wear.Counters{}, wear.Limits{Months: 6}, wear.Recent{}, now)
	assert.Error(t, err)
}

// More use never moves the date later.
func TestMoreUseIsNeverLater(t *testing.T) {
	now := date(2026, 6, 10)
	rapid.Check(t, func(t *rapid.T) {
		used := rapid.Int64Range(0, 23*3600).Draw(t, "used")
		a, b := wear.Recent{}, wear.Recent{}
		for d := range 28 {
			x := rapid.Float64Range(0, 3).Draw(t, "hours")
			a.Hours = append(a.Hours, wear.DayUse{DaysAgo: d, Amount: x})
			b.Hours = append(b.Hours, wear.DayUse{DaysAgo: d, Amount: x + rapid.Float64Range(0, 2).Draw(t, "more")})
		}
		l := wear.Limits{Hours: 24}
		first, err := wear.When(wear.Counters{Seconds: used, Since: now}, l, a, now)
		require.NoError(t, err)
		second, err := wear.When(wear.Counters{Seconds: used, Since: now}, l, b, now)
		require.NoError(t, err)
		if first.Known {
			require.True(t, second.Known)
			assert.False(t, second.On.After(first.On))
		}
	})
}

// A forecast of ten years and more from four weeks says nothing.
func TestForecastEndsAtTenYears(t *testing.T) {
	now := time.Date(2026, 6, 10, 12, 0, 0, 0, time.UTC)
	var r wear.Recent
	for d := range 28 {
		r.Hours = append(r.Hours, wear.DayUse{DaysAgo: d, Amount: 1})
	}
	for hours, known := range map[float64]bool{3649: true, 3650: false, 4000: false} {
		got, err := wear.When(wear.Counters{}, wear.Limits{Hours: hours}, r, now)
		require.NoError(t, err)
		assert.Equal(t, known, got.Known, "%g h at one a day", hours)
	}
	days, ok := wear.Forecast(r.Hours, 0)
	assert.True(t, ok)
	assert.Zero(t, days)
	days, ok = wear.Forecast([]wear.DayUse{{DaysAgo: 13, Amount: 42}, {DaysAgo: 14, Amount: 42}, {DaysAgo: 27, Amount: 42},
		{DaysAgo: 28, Amount: 1e6}, {DaysAgo: -1, Amount: 1e6}}, 8)
	assert.True(t, ok)
	assert.InDelta(t, 2, days, 1e-12, "the last fourteen days count twice, older ones and those to come not at all")
	_, ok = wear.Forecast([]wear.DayUse{{Amount: -1}}, 1)
	assert.False(t, ok)
}
