package year_test

import (
	"context"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/internal/logbook"
	"mainstay/internal/platform/clock"
	"mainstay/internal/testbed"
)

// The year, the weeks of the log and the totals say the same of the same flights;
// and the health of the rack is that of each pack.
func TestTheYearAgreesWithTheLog(t *testing.T) {
	svc, _ := testbed.Demo(t, clock.At(testbed.Noon))
	ctx := context.Background()
	y, err := svc.Year.Last(ctx)
	require.NoError(t, err)
	first := y.Mondays[0]
	totals, err := svc.Log.Totals(ctx, logbook.Filter{From: &first})
	require.NoError(t, err)
	weeks, err := svc.Log.Weeks(ctx, logbook.Filter{From: &first})
	require.NoError(t, err)
	flights, seconds, work, stops := 0, 0, 0, 0
	for _, a := range y.Aircraft {
		flights, seconds, work, stops = flights+total(a.Flights), seconds+total(a.Seconds), work+total(a.Work),
			stops+total(a.Stop)
	}
	assert.Equal(t, totals.All.Flights, flights)
	assert.EqualValues(t, totals.All.Seconds, seconds)
	assert.Positive(t, work)
	assert.Positive(t, stops)
	inWeeks := 0
	for i, w := range weeks {
		inWeeks += w.Flights
		if i > 0 {
			assert.Equal(t, 7*24*time.Hour, w.From.Sub(weeks[i-1].From), "no week is left out")
		}
	}
	assert.Equal(t, totals.All.Flights, inWeeks)
	none, err := svc.Log.Weeks(ctx, logbook.Filter{Words: "no flight says this"})
	require.NoError(t, err)
	assert.Empty(t, none)

	health, err := svc.Fleet.RackHealth(ctx)
	require.NoError(t, err)
	measured := 0
	for _, p := range health {
		st, err := svc.Fleet.Standing(ctx, p.ID)
		require.NoError(t, err)
		if st == nil || len(st.Points) == 0 {
			assert.Empty(t, p.Points)
			continue
		}
		measured++
		newest := p.Points[len(p.Points)-1]
		assert.WithinDuration(t, st.Points[len(st.Points)-1].At, newest.At, time.Second)
		assert.LessOrEqual(t, len(p.Points), 60)
		for i := 1; i < len(p.Points); i++ {
			assert.False(t, p.Points[i].At.Before(p.Points[i-1].At))
		}
	}
	assert.Positive(t, measured)
}

func total(v []int) (n int) {
	for _, x := range v {
		n += x
	}
	return n
}
