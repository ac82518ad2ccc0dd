package year

import (
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/internal/fleet"
)

// Weeks begin on Mondays of the crew's zone, also over a change of the clocks, and
// every time of the year is in exactly the week whose days hold it.
func TestWeeksHoldTheirDays(t *testing.T) {
	for _, name := range []string{"America/Los_Angeles", "Europe/Vienna", "Pacific/Auckland", "UTC"} {
		zone, err := time.LoadLocation(name)
		require.NoError(t, err)
		rapid.Check(t, func(t *rapid.T) {
			now := time.Unix(rapid.Int64Range(1_700_000_000, 1_900_000_000).Draw(t, "now"), 0)
			b := begin(now, zone)
			require.Len(t, b.starts, Weeks)
			for i, s := range b.starts {
				require.Equal(t, time.Monday, s.In(zone).Weekday())
				require.Equal(t, 0, s.In(zone).Hour())
				require.Equal(t, s.In(zone).Format(time.DateOnly), b.year.Mondays[i].Format(time.DateOnly))
			}
			require.Equal(t, Weeks-1, b.week(now))
			at := now.Add(-time.Duration(rapid.Int64Range(0, int64(380*24*time.Hour)).Draw(t, "ago")))
			w := b.week(at)
			day := at.In(zone)
			monday := day.AddDate(0, 0, -(int(day.Weekday())+6)%7).Format(time.DateOnly)
			if monday < b.year.Mondays[0].Format(time.DateOnly) {
				require.Equal(t, -1, w)
				return
			}
			require.Equal(t, monday, b.year.Mondays[w].Format(time.DateOnly))
		})
	}
}

// An aircraft is down in every week in which something stood open against it.
func TestDownWhileSomethingStandsOpen(t *testing.T) {
	now := time.Date(2026, 6, 10, 16, 0, 0, 0, time.UTC)
	id := uuid.New()
	b := begin(now, time.UTC)
	until := now.AddDate(0, 0, -10)
	b.stopped(fleet.Stopped{AircraftID: id, Since: now.AddDate(0, 0, -20), Until: &until})
	b.stopped(fleet.Stopped{AircraftID: id, Since: now.AddDate(-2, 0, 0)})
	of := b.year.Aircraft[0]
	assert.Equal(t, 1, sum(of.Stop), "what began before the year is not of it")
	for _, d := range of.Down {
		assert.True(t, d)
	}
	b = begin(now, time.UTC)
	b.stopped(fleet.Stopped{AircraftID: id, Since: now.AddDate(0, 0, -20), Until: &until})
	down := 0
	for _, d := range b.year.Aircraft[0].Down {
		if d {
			down++
		}
	}
	assert.Equal(t, 2, down, "21 May is in the week of the 18th, 31 May in that of the 25th")
}

func sum(v []int) (n int) {
	for _, x := range v {
		n += x
	}
	return n
}
