package records_test

import (
	"context"
	"fmt"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gorm.io/gorm"

	"mainstay/internal/platform/clock"
	"mainstay/internal/platform/db"
	"mainstay/internal/records"
	"mainstay/internal/testbed"
)

func chain(t *testing.T, n int) *gorm.DB {
	svc, _ := testbed.Empty(t, clock.At(testbed.Noon))
	for i := range n {
		require.NoError(t, db.Tx(context.Background(), svc.DB, func(ctx context.Context, tx *gorm.DB) error {
			seq, err := records.Append(ctx, tx, records.Entry{Kind: records.Grounded, At: testbed.Noon, By: records.By{Name: "Somebody"}, Summary: fmt.Sprint("record ", i), Content: map[string]int{"n": i}})
			assert.EqualValues(t, i+1, seq)
			return err
		}))
	}
	return svc.DB
}

func TestChainHolds(t *testing.T) {
	g := chain(t, 20)
	res, err := records.Verify(context.Background(), g)
	require.NoError(t, err)
	assert.Equal(t, records.Result{Count: 20}, res)
}

func TestDatabaseRefusesChanges(t *testing.T) {
	g := chain(t, 3)
	for _, sql := range []string{"update records set summary = 'x'", "delete from records where seq = 3", "truncate records cascade"} {
		assert.Error(t, g.Exec(sql).Error, sql)
	}
}

// Somebody who may switch the triggers off can change rows, but not unseen.
func TestTamperingIsNamed(t *testing.T) {
	for _, c := range []struct {
		sql string
		bad int64
	}{
		{`update records set content = '{"n":99}' where seq = 5`, 5},
		{`update records set summary = 'nothing happened' where seq = 7`, 7},
		{`update records set by_name = 'Another' where seq = 1`, 1},
		{`update records set at = at + interval '1 day' where seq = 3`, 3},
		{`update records set signed = true where seq = 2`, 2},
		{`delete from records where seq = 4`, 4},
		{`update records set content_hash = sha256('{"n":99}'), content = '{"n":99}' where seq = 6`, 6},
		{`update records set prev_hash = hash where seq = 8`, 8},
	} {
		g := chain(t, 10)
		require.NoError(t, g.Exec("alter table records disable trigger user").Error)
		require.NoError(t, g.Exec(c.sql).Error)
		res, err := records.Verify(context.Background(), g)
		require.NoError(t, err)
		assert.Equal(t, c.bad, res.FirstBad, c.sql)
		assert.NotEmpty(t, res.Why)
	}
}

func TestRolledBackRecordLeavesNoGap(t *testing.T) {
	g := chain(t, 2)
	_ = db.Tx(context.Background(), g, func(ctx context.Context, tx *gorm.DB) error {
		_, err := records.Append(ctx, tx, records.Entry{Kind: records.Grounded, At: testbed.Noon, By: records.By{Name: "x"}, Content: 1})
		require.NoError(t, err)
		return fmt.Errorf("something else failed")
	})
	lines, err := records.Page(context.Background(), g, uuid.Nil, 0, 10)
	require.NoError(t, err)
	require.Len(t, lines, 2)
	assert.EqualValues(t, 2, lines[0].Seq)
}
