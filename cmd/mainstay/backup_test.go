package main_test

import (
	"context"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/checks"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/photos"
	"mainstay/internal/records"
	"mainstay/internal/testbed"
)

// What docs/operations.md says of backup and restore, done with its own
// commands: the restored crew holds, with every byte of its photos; and a
// backup that is older than a head known outside is told from the newest.
func TestBackupAndRestore(t *testing.T) {
	s := testbed.NewStage(t)
	ctx, folder := context.Background(), t.TempDir()
	folderOf := filepath.Join(folder, "photos")
	require.NoError(t, os.Mkdir(folderOf, 0o700))
	store, err := photos.Open(folderOf)
	require.NoError(t, err)
	defer func() { _ = store.Close() }()
	s.Walkrounds.Photos = store
	s.Photo()
	s.Photo()
	old, err := records.NewestHead(ctx, s.DB)
	require.NoError(t, err)

	dump := filepath.Join(folder, "mainstay.dump")
	run := func(name string, args ...string) {
		t.Helper()
		out, err := exec.Command(filepath.Join(pgBin(t), name), args...).CombinedOutput()
		require.NoError(t, err, string(out))
	}
	run("pg_dump", "-Fc", "-f", dump, s.URL)
	require.NoError(t, os.CopyFS(filepath.Join(folder, "photos-copy"), os.DirFS(folderOf)))

	// Life goes on after the backup.
	s.Walk(checks.Full, []uuid.UUID{s.Packs[0].ID}, nil)
	newest, err := records.NewestHead(ctx, s.DB)
	require.NoError(t, err)

	_, fresh := testbed.Empty(t, s.Clock)
	run("pg_restore", "--clean", "--if-exists", "-d", fresh, dump)
	g, err := records.Open(fresh, db.Options{Size: 2})
	require.NoError(t, err)
	defer db.Close(g)
	copied, err := photos.Open(filepath.Join(folder, "photos-copy"))
	require.NoError(t, err)
	defer func() { _ = copied.Close() }()
	res, err := records.Verify(ctx, g, records.Check{Photos: copied, Head: &old})
	require.NoError(t, err)
	assert.True(t, res.OK(), res.Sentence())
	assert.EqualValues(t, 2, res.Photos)
	res, err = records.Verify(ctx, g, records.Check{Head: &newest})
	require.NoError(t, err)
	assert.Contains(t, res.Sentence(), "an older copy was put in place")
	require.NoError(t, db.Migrate(ctx, g), "a restored database is current")
	require.NoError(t, records.Baseline(ctx, g, ""))
	var again int64
	require.NoError(t, g.Raw("select count(*) from records where kind = 'baseline'").Scan(&again).Error)
	assert.Zero(t, again, "and nothing of it is taken in anew")

	entries, err := os.ReadDir(filepath.Join(folder, "photos-copy"))
	require.NoError(t, err)
	for _, e := range entries {
		if !strings.HasSuffix(e.Name(), ".attrs") {
			require.NoError(t, os.Remove(filepath.Join(folder, "photos-copy", e.Name())))
			break
		}
	}
	res, err = records.Verify(ctx, g, records.Check{Photos: copied})
	require.NoError(t, err)
	assert.Contains(t, res.Sentence(), "is missing from the store")
}
