package records_test

import (
	"context"
	"fmt"
	"testing"

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
			seq, err := records.Append(ctx, tx, records.Entry{Kind: records.Grounded, At: testbed.Noon,
				By: records.By{Name: "Somebody"}, Summary: fmt.Sprint("record ", i), Content: map[string]int{"n": i}})
			assert.EqualValues(t, i+1, seq)
			return err
		}))
	}
	return svc.DB
}

func TestChainHolds(t *testing.T) {
	g := chain(t, 20)
	res, err := records.Verify(context.Background(), g, records.Check{})
	require.NoError(t, err)
	assert.True(t, res.OK(), res.Sentence())
	assert.EqualValues(t, 20, res.Count)
	assert.EqualValues(t, 20, res.Head.Seq)
}

func TestDatabaseRefusesChanges(t *testing.T) {
	g := chain(t, 3)
	for _, sql := range []string{"update records set summary = 'x'", "delete from records where seq = 3",
		"truncate records cascade"} {
		assert.Error(t, g.Exec(sql).Error, sql)
	}
}

// The role of the application can neither change what is in the chain nor switch
// off what guards it.
func TestTheApplicationCannotDisableTheGuards(t *testing.T) {
	svc, url := testbed.Empty(t, clock.At(testbed.Noon))
	assert.ErrorIs(t, db.OwnsNothing(context.Background(), svc.DB), db.ErrOwner)
	app := testbed.Wide(t, testbed.App(t, url), clock.At(testbed.Noon), 1).DB
	require.NoError(t, db.OwnsNothing(context.Background(), app))
	for _, sql := range []string{
		"set session_replication_role = replica", "alter table records disable trigger all",
		"alter table flights disable trigger user", "drop trigger records_append_only on records",
		"create or replace function note_rows() returns trigger language plpgsql as $$ begin return null; end $$",
		"drop table seals", "truncate row_states", "update records set summary = ''", "delete from seals",
		"update row_states set hash = null", "alter role mainstay_app superuser",
		"update goose_db_version set is_applied = false", "create table public.mine (a int)",
	} {
		assert.Error(t, app.Exec(sql).Error, sql)
	}
	assert.NoError(t, app.Exec("insert into stock_lines (id, name, minimum, delivery_days) values (gen_random_uuid(), 'Screws', 1, 1)").Error)
	assert.True(t, verify(t, app, records.Check{}).OK())
}

func FuzzParseHead(f *testing.F) {
	f.Add("12.1 abandon ability able about above absent absorb abstract")
	f.Add("7:00ff00ff00ff00ff00ff00")
	f.Fuzz(func(t *testing.T, s string) {
		h, err := records.ParseHead(s)
		if err == nil {
			back, err := records.ParseHead(fmt.Sprintf("%s %x", h.Place(), h.Hash))
			assert.NoError(t, err)
			assert.Equal(t, h, back)
		}
	})
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
		res, err := records.Verify(context.Background(), g, records.Check{})
		require.NoError(t, err)
		assert.Equal(t, c.bad, res.FirstBad, c.sql)
		assert.NotEmpty(t, res.Why)
	}
}

func TestRolledBackRecordLeavesNoGap(t *testing.T) {
	g := chain(t, 2)
	_ = db.Tx(context.Background(), g, func(ctx context.Context, tx *gorm.DB) error {
		_, err := records.Append(ctx, tx, records.Entry{Kind: records.Grounded, At: testbed.Noon, By: records.By{Name: "x"},
			Content: 1})
		require.NoError(t, err)
		return fmt.Errorf("something else failed")
	})
	lines, err := records.Page(context.Background(), g, records.Filter{}, 10)
	require.NoError(t, err)
	require.Len(t, lines, 2)
	assert.EqualValues(t, 2, lines[0].Seq)
}
