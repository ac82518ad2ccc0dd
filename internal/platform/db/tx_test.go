package db_test

import (
	"context"
	"errors"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gorm.io/gorm"

	"mainstay/internal/platform/clock"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/testbed"
)

// Two transactions that wait for each other both come to their end: the one the
// database ended is run again.
func TestCircleOfWaitingIsRunAgain(t *testing.T) {
	_, url := testbed.Empty(t, clock.At(testbed.Noon))
	svc := testbed.Wide(t, url, clock.At(testbed.Noon), 8)
	ctx := context.Background()
	var runs atomic.Int64
	var all, both sync.WaitGroup
	both.Add(2)
	for _, order := range [][2]int{{1, 2}, {2, 1}} {
		first := true
		all.Go(func() {
			assert.NoError(t, db.Tx(ctx, svc.DB, func(_ context.Context, tx *gorm.DB) error {
				runs.Add(1)
				if err := tx.Exec("select pg_advisory_xact_lock(?)", order[0]).Error; err != nil {
					return err
				}
				if first {
					first = false
					both.Done()
					both.Wait()
				}
				return tx.Exec("select pg_advisory_xact_lock(?)", order[1]).Error
			}))
		})
	}
	all.Wait()
	assert.EqualValues(t, 3, runs.Load())
}

// A transaction inside another is the same one; an error or a panic leaves
// nothing, and a deadline is told as such.
func TestTransactions(t *testing.T) {
	svc, _ := testbed.Empty(t, clock.At(testbed.Noon))
	ctx := context.Background()
	count := func() (n int64) {
		require.NoError(t, svc.DB.Raw("select count(*) from stock_lines").Scan(&n).Error)
		return n
	}
	add := func(ctx context.Context) error {
		return svc.DB.WithContext(ctx).Exec("insert into stock_lines (id, name, minimum, delivery_days) values (gen_random_uuid(), gen_random_uuid()::text, 1, 1)").Error
	}
	assert.False(t, db.Inside(ctx))
	require.NoError(t, db.Tx(ctx, svc.DB, func(ctx context.Context, _ *gorm.DB) error {
		assert.True(t, db.Inside(ctx))
		assert.False(t, db.Inside(db.Outside(ctx)))
		return errors.Join(add(ctx), db.Tx(ctx, svc.DB, func(ctx context.Context, _ *gorm.DB) error { return add(ctx) }))
	}))
	assert.EqualValues(t, 2, count())
	fails := errors.New("on second thoughts")
	assert.ErrorIs(t, db.Tx(ctx, svc.DB, func(ctx context.Context,
		_ *gorm.DB) error {
		return errors.Join(add(ctx), fails)
	}), fails)
	assert.Panics(t, func() {
		_ = db.Tx(ctx, svc.DB, func(ctx context.Context, _ *gorm.DB) error {
			_ = add(ctx)
			panic("so it goes")
		})
	})
	assert.EqualValues(t, 2, count(), "and the connection is free again")
	short, stop := context.WithTimeout(ctx, 50*time.Millisecond)
	defer stop()
	err := db.Tx(short, svc.DB, func(_ context.Context, tx *gorm.DB) error { return tx.Exec("select pg_sleep(3)").Error })
	assert.ErrorIs(t, err, context.DeadlineExceeded)
	err = db.Tx(ctx, svc.DB, func(_ context.Context, tx *gorm.DB) error {
		return errors.Join(tx.Exec("set local statement_timeout = 50").Error, tx.Exec("select pg_sleep(3)").Error)
	})
	assert.True(t, fault.Is(err, "busy"), "%v", err)
	assert.Error(t, svc.DB.Transaction(func(*gorm.DB) error { return nil }), "gorm has no transactions of its own")
	assert.Error(t, db.Long(ctx, svc.DB, time.Second))
	assert.Error(t, db.Snapshot(ctx, svc.DB, func(ctx context.Context, _ *gorm.DB) error { return add(ctx) }),
		"a snapshot only reads")
}
