package records_test

import (
	"context"
	"fmt"
	"strings"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gorm.io/gorm"

	"mainstay/internal/demo"
	"mainstay/internal/platform/clock"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/photos"
	"mainstay/internal/records"
	"mainstay/internal/testbed"
)

func verify(t *testing.T, g *gorm.DB, c records.Check) records.Result {
	t.Helper()
	res, err := records.Verify(context.Background(), g, c)
	require.NoError(t, err)
	return res
}

// Every table is in a family or named as outside, and the database watches each
// family with the key and content that the check uses.
func TestEveryTableIsKnownToTheChain(t *testing.T) {
	svc, _ := testbed.Empty(t, clock.At(testbed.Noon))
	var tables []string
	require.NoError(t, svc.DB.Raw("select c.relname from pg_class c join pg_namespace n on n.oid = c.relnamespace where n.nspname = 'public' and c.relkind = 'r' and c.relname not like 'river%'").Scan(&tables).Error)
	of := map[string]bool{}
	for _, f := range records.Families {
		of[f.Table] = true
		key := f.Key
		if f.UUID {
			key += "::text"
		}
		var n int64
		require.NoError(t, svc.DB.Raw(`select count(*) from pg_trigger where tgrelid = ?::regclass and tgfoid = 'note_rows'::regproc and tgenabled = 'O' and encode(tgargs, 'escape') = ?`,
			f.Table, strings.Join([]string{f.Name, key, f.Content, ""}, `\000`)).Scan(&n).Error)
		assert.EqualValues(t, 3, n, "insert, update and delete of %s", f.Name)
	}
	for _, table := range tables {
		_, outside := records.Outside[table]
		assert.NotEqual(t, outside, of[table], "%s is in a family or outside, and not both", table)
	}
}

// Fifty changes by hand, with the triggers switched off: all are found.
func TestFiftyChangesByHand(t *testing.T) {
	// The last weeks hold every kind of record, and are checked sooner than the year.
	svc, _ := testbed.Empty(t, clock.At(testbed.Noon))
	g := svc.DB
	svc.Walkrounds.Photos = &photos.Memory{}
	require.NoError(t, demo.FillLast(context.Background(), svc, 60, func(int, int) {}))
	require.True(t, verify(t, g, records.Check{}).OK(), verify(t, g, records.Check{}).Sentence())
	found := 0
	var missed []string
	for i, sql := range changesByHand {
		err := db.Tx(context.Background(), g, func(ctx context.Context, tx *gorm.DB) error {
			// As the owner of the database would, who knows of the triggers.
			require.NoError(t, tx.Exec("set local session_replication_role = replica").Error)
			done := tx.Exec(sql)
			require.NoError(t, done.Error, sql)
			assert.NotZero(t, done.RowsAffected, sql)
			if res := verifyIn(t, ctx, tx); !res.OK() {
				found++
				t.Log(res.Sentence())
			} else {
				missed = append(missed, fmt.Sprint(i+1, " ", sql))
			}
			return errUndo
		})
		require.ErrorIs(t, err, errUndo)
	}
	t.Logf("%d of %d changes by hand are found", found, len(changesByHand))
	for _, m := range missed {
		t.Log("not found: ", m)
	}
	assert.GreaterOrEqual(t, len(changesByHand), 50)
	assert.Equal(t, len(changesByHand), found, "what a check cannot see is named in docs/architecture.md")
}

var errUndo = fmt.Errorf("undo")

func verifyIn(t *testing.T, ctx context.Context, tx *gorm.DB) records.Result {
	t.Helper()
	res, err := records.VerifyInside(ctx, tx)
	require.NoError(t, err)
	return res
}

// A photo whose bytes were changed in the store, or that is gone, is named.
func TestBytesOfPhotos(t *testing.T) {
	s := testbed.NewStage(t)
	store := s.Walkrounds.Photos.(*photos.Memory)
	first := s.Photo()
	s.Photo()
	res := verify(t, s.DB, records.Check{Photos: store})
	assert.True(t, res.OK())
	assert.EqualValues(t, 2, res.Photos)
	store.Spoil(first, []byte("another picture"))
	assert.Contains(t, verify(t, s.DB, records.Check{Photos: store}).Sentence(), first)
	store.Spoil(first, nil)
	assert.Contains(t, verify(t, s.DB, records.Check{Photos: store}).Sentence(), "missing")
}

// What takes away the end of the chain, or writes it anew, is found by a head
// that is known outside.
func TestHeadsKnownOutside(t *testing.T) {
	s := testbed.NewStage(t)
	ctx := context.Background()
	old, err := records.NewestHead(ctx, s.DB.WithContext(ctx))
	require.NoError(t, err)
	s.Walk("walkround", []uuid.UUID{s.Packs[0].ID}, nil)
	head, err := records.NewestHead(ctx, s.DB.WithContext(ctx))
	require.NoError(t, err)
	assert.NotEqual(t, old, head)
	for _, said := range []string{head.String(), strings.ToUpper(head.String()),
		fmt.Sprintf("%s:%x", head.Place(), head.Hash), old.String()} {
		h, err := records.ParseHead(said)
		require.NoError(t, err, said)
		res := verify(t, s.DB, records.Check{Head: &h})
		assert.True(t, res.OK(), res.Sentence())
		assert.Contains(t, res.Sentence(), "leads through the head")
	}
	other := head
	other.Hash = append([]byte{head.Hash[0] ^ 1}, head.Hash[1:]...)
	assert.Contains(t, verify(t, s.DB, records.Check{Head: &other}).Sentence(), "written anew")
	later := head
	later.Seq++
	assert.Contains(t, verify(t, s.DB, records.Check{Head: &later}).Sentence(), "newest records were removed")

	// The newest records go, with all that was sealed after them.
	off := func(sql ...string) {
		require.NoError(t, db.Tx(ctx, s.DB, func(_ context.Context, tx *gorm.DB) error {
			require.NoError(t, tx.Exec("set local session_replication_role = replica").Error)
			for _, q := range sql {
				require.NoError(t, tx.Exec(q).Error, q)
			}
			return nil
		}))
	}
	off(fmt.Sprintf("delete from records where seq > %d", head.Seq-1),
		fmt.Sprintf("delete from seals where after_seq >= %d", head.Seq),
		fmt.Sprintf("delete from row_states where after_seq >= %d", head.Seq))
	assert.Contains(t, verify(t, s.DB, records.Check{Head: &head}).Sentence(), "newest records were removed")
	assert.False(t, verify(t, s.DB, records.Check{}).OK(), "and the rows that only they knew are named even without it")
	off("delete from records")
	assert.False(t, verify(t, s.DB, records.Check{}).OK(), "the whole table")
	off("delete from seals", "delete from row_states")
	assert.False(t, verify(t, s.DB, records.Check{}).OK(), "even with the seals: the crew's data is known to no record")
}

func TestHeadsThatCannotBeRead(t *testing.T) {
	for _, s := range []string{"", "12", "12.1 abandon ability", "x.1 00112233445566",
		"12.1 abandon ability able about above absent absorb nonsense", "-3.1 aabbccddeeff00112233", "1.1 aabb"} {
		_, err := records.ParseHead(s)
		assert.Error(t, err, s)
	}
}

// Words and their hash are one: read back they are the first 88 bits.
func TestWordsReadBack(t *testing.T) {
	h := records.Head{Seq: 7, Nth: 2, Hash: []byte{0, 1, 2, 3, 250, 251, 252, 253, 254, 255, 128, 7, 7, 7}}
	back, err := records.ParseHead(h.String())
	require.NoError(t, err)
	assert.Equal(t, h.Hash[:11], back.Hash)
	assert.Len(t, strings.Fields(h.Words()), 8)
}

// Seals name who acted, and every change is sealed, whichever way it was written.
func TestSealsNameWhoActed(t *testing.T) {
	s := testbed.NewStage(t)
	require.NoError(t, s.People.DeclareFit(s.As(s.Tech), testbed.NewID(), nil))
	var by string
	require.NoError(t, s.DB.Raw("select by_name from seals order by after_seq desc, nth desc limit 1").Scan(&by).Error)
	assert.Equal(t, s.Tech.Named(), by)
	var left int64
	require.NoError(t, s.DB.Raw("select count(*) from row_touched").Scan(&left).Error)
	assert.Zero(t, left)
}
