package demo_test

import (
	"context"
	"os"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/internal/demo"
	"mainstay/internal/platform/clock"
	"mainstay/internal/platform/photos"
	"mainstay/internal/records"
	"mainstay/internal/server"
	"mainstay/internal/testbed"
)

// The demo starts at whatever hour somebody tries it: here at midnight in
// winter, when nobody of the crew may fly. DEMO_ENDS tries other moments.
func TestTheYearMayEndAtNight(t *testing.T) {
	ends := strings.Fields(os.Getenv("DEMO_ENDS"))
	if len(ends) == 0 {
		ends = []string{"2026-11-30T08:00:00Z"}
	}
	for _, e := range ends {
		at, err := time.Parse(time.RFC3339, e)
		require.NoError(t, err)
		empty, _ := testbed.Empty(t, clock.At(at))
		svc := server.NewServices(empty.DB, clock.At(at), &photos.Memory{})
		require.NoError(t, demo.FillLast(context.Background(), svc, 45, func(int, int) {}), e)
		var flights, ahead int64
		require.NoError(t, svc.DB.Raw("select count(*), count(*) filter (where took_off_at > ?) from flights",
			at).Row().Scan(&flights, &ahead))
		assert.Greater(t, flights, int64(25))
		assert.Zero(t, ahead)
		res, err := records.Verify(context.Background(), svc.DB, records.Check{})
		require.NoError(t, err)
		assert.True(t, res.OK(), res.Sentence())
	}
}
