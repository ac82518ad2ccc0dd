package photos_test

import (
	"os"
	"path/filepath"
	"strings"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/internal/platform/photos"
)

func TestStoresKeepAndNeverReplace(t *testing.T) {
	dir := filepath.Join(t.TempDir(), "made", "when missing")
	folder, err := photos.Open(dir)
	require.NoError(t, err)
	defer func() { _ = folder.Close() }()
	for name, s := range map[string]photos.Store{"folder": folder, "memory": &photos.Memory{}} {
		_, err := s.Get("a")
		require.ErrorIs(t, err, photos.ErrMissing, name)
		require.NoError(t, s.Put("a", []byte("one")), name)
		require.ErrorIs(t, s.Put("a", []byte("two")), photos.ErrThere, name)
		got, err := s.Get("a")
		require.NoError(t, err, name)
		assert.Equal(t, "one", string(got), name)
	}
	entries, err := os.ReadDir(dir)
	require.NoError(t, err)
	assert.Len(t, entries, 1, "nothing is left beside")
	again, err := photos.Open(dir)
	require.NoError(t, err)
	defer func() { _ = again.Close() }()
	got, err := again.Get("a")
	require.NoError(t, err)
	assert.Equal(t, "one", string(got))
}

// Of many that put the same key, one is kept, whole.
func TestOneOfManyIsKept(t *testing.T) {
	s, err := photos.Open(t.TempDir())
	require.NoError(t, err)
	defer func() { _ = s.Close() }()
	var wg sync.WaitGroup
	kept := make(chan string, 20)
	for i := range 20 {
		wg.Go(func() {
			b := strings.Repeat(string(rune('a'+i)), 100_000)
			if s.Put("k", []byte(b)) == nil {
				kept <- b
			}
		})
	}
	wg.Wait()
	close(kept)
	require.Len(t, kept, 1)
	got, err := s.Get("k")
	require.NoError(t, err)
	assert.Equal(t, <-kept, string(got))
}

func TestKeysStayInTheFolder(t *testing.T) {
	parent := t.TempDir()
	s, err := photos.Open(filepath.Join(parent, "store"))
	require.NoError(t, err)
	defer func() { _ = s.Close() }()
	for _, key := range []string{"../out", "/etc/out", "a/b"} {
		assert.Error(t, s.Put(key, []byte("x")), key)
		_, err := s.Get(key)
		assert.Error(t, err, key)
	}
	assert.NoFileExists(t, filepath.Join(parent, "out"))
	_, err = photos.Open(filepath.Join(parent, "store", "\x00"))
	assert.Error(t, err)
}
