package db_test

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/internal/platform/clock"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/testbed"
)

func TestMigrationsGoUpAndDown(t *testing.T) {
	svc, _ := testbed.Empty(t, clock.At(testbed.Noon))
	ctx := context.Background()
	require.NoError(t, db.Current(ctx, svc.DB))
	require.NoError(t, db.MigrateDown(ctx, svc.DB))
	assert.ErrorContains(t, db.Current(ctx, svc.DB), "mainstay migrate", "a program refuses an older database")
	var left int64
	require.NoError(t, svc.DB.Raw("select count(*) from information_schema.tables where table_schema = 'public' and table_name <> 'goose_db_version'").Scan(&left).Error)
	assert.Zero(t, left, "nothing is left behind")
	require.NoError(t, db.Migrate(ctx, svc.DB))
	require.NoError(t, db.Migrate(ctx, svc.DB), "twice is once")
	require.NoError(t, db.Current(ctx, svc.DB))
}

// Every constraint that people can run into by racing each other is known to
// the table of sentences: the unique ones by name.
func TestUniqueConstraintsHaveSentences(t *testing.T) {
	svc, _ := testbed.Empty(t, clock.At(testbed.Noon))
	var names []string
	require.NoError(t, svc.DB.Raw("select indexname from pg_indexes where schemaname = 'public' and indexname like '%_once'").Scan(&names).Error)
	assert.NotEmpty(t, names)
	for _, n := range names {
		err := db.Translate(db.Sample(n))
		_, ok := fault.As(err)
		if n == "part_moves_open_once" {
			continue // cannot be reached: the part's row is locked first
		}
		assert.True(t, ok, n)
	}
}

func TestUUIDs(t *testing.T) {
	a, b := testbed.NewID(), testbed.NewID()
	for _, u := range []db.UUIDs{{}, {a}, {a, b}} {
		v, err := u.Value()
		require.NoError(t, err)
		var back db.UUIDs
		require.NoError(t, back.Scan(v))
		assert.Equal(t, u, back)
	}
	var u db.UUIDs
	assert.Error(t, u.Scan(7))
	assert.Error(t, u.Scan("{nonsense}"))
}
