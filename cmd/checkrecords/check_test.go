package main

import (
	"bytes"
	"context"
	"encoding/json"
	"math/rand/v2"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/internal/platform/clock"
	"mainstay/internal/records"
	"mainstay/internal/testbed"
)

// export is the demo crew's year, written by the program whose word is checked.
func export(t *testing.T) (lines [][]byte, head records.Head) {
	svc, _ := testbed.Demo(t, clock.At(testbed.Noon))
	var b bytes.Buffer
	ctx := context.Background()
	require.NoError(t, records.Export(ctx, svc.DB, &b))
	head, err := records.NewestHead(ctx, svc.DB.WithContext(ctx))
	require.NoError(t, err)
	return bytes.SplitAfter(bytes.TrimSuffix(b.Bytes(), []byte("\n")), []byte("\n")), head
}

func run(lines [][]byte, head string) (string, error) {
	return check(bytes.NewReader(bytes.Join(lines, nil)), "", head)
}

// Two programs that share no code agree about the demo crew's year.
func TestExportOfAYearHolds(t *testing.T) {
	lines, head := export(t)
	said, err := run(lines, "")
	require.NoError(t, err)
	assert.Contains(t, said, head.String(), "the words, made twice over")
	_, err = run(lines, head.String())
	require.NoError(t, err)
	_, err = run(lines, head.Place()+" "+strings.Repeat("abandon ", 8))
	assert.ErrorContains(t, err, "written anew")
	_, err = run(lines, "999999.1 "+head.Words())
	assert.ErrorContains(t, err, "does not lead through")
}

// Whatever is changed in any line, taken out, doubled or moved is found.
func TestAnyChangeIsFound(t *testing.T) {
	lines, _ := export(t)
	r := rand.New(rand.NewPCG(1, 2))
	for range 60 {
		i := 1 + r.IntN(len(lines)-2)
		altered := append([][]byte{}, lines...)
		what := ""
		switch r.IntN(4) {
		case 0:
			var l map[string]any
			require.NoError(t, json.Unmarshal(lines[i], &l))
			if l["type"] == "photo" {
				continue // bound by the state of its row, and by the bytes themselves
			}
			what = alter(r, l)
			b, err := json.Marshal(l)
			require.NoError(t, err)
			altered[i] = append(b, '\n')
		case 1:
			what = "taken out"
			altered = append(altered[:i:i], altered[i+1:]...)
		case 2:
			what = "doubled"
			altered = append(append(altered[:i:i], altered[i]), altered[i:]...)
		default:
			what = "ended early"
			altered = altered[:i]
		}
		_, err := run(altered, "")
		assert.Error(t, err, "line %d: %s", i, what)
	}
}

// alter changes one field of a line to another value.
func alter(r *rand.Rand, l map[string]any) string {
	var keys []string
	for k := range l {
		keys = append(keys, k)
	}
	k := keys[r.IntN(len(keys))]
	switch v := l[k].(type) {
	case string:
		l[k] = v + "0"
	case float64:
		l[k] = v + 1
	case bool:
		l[k] = !v
	case []any:
		l[k] = append(v, []any{"flights", "x", "00"})
	default:
		l[k] = "00000000-0000-0000-0000-000000000001"
	}
	return k
}

func TestPhotosAreCompared(t *testing.T) {
	s := testbed.NewStage(t)
	id := s.Photo()
	ctx, folder := context.Background(), t.TempDir()
	var b bytes.Buffer
	require.NoError(t, records.Export(ctx, s.DB, &b))
	_, err := check(bytes.NewReader(b.Bytes()), folder, "")
	assert.ErrorContains(t, err, "missing")
	picture, err := s.Walkrounds.Photos.Get(id)
	require.NoError(t, err)
	require.NoError(t, os.WriteFile(filepath.Join(folder, id), picture, 0o600))
	said, err := check(bytes.NewReader(b.Bytes()), folder, "")
	require.NoError(t, err)
	assert.Contains(t, said, "bytes of 1 photo")
	require.NoError(t, os.WriteFile(filepath.Join(folder, id), append(picture, 1), 0o600))
	_, err = check(bytes.NewReader(b.Bytes()), folder, "")
	assert.ErrorContains(t, err, "not the one")
}

func FuzzCheck(f *testing.F) {
	f.Add([]byte(`{"type":"mainstay-records","version":1}` + "\n" + `{"type":"end","hash":"00"}`))
	f.Add([]byte("{}"))
	f.Fuzz(func(t *testing.T, b []byte) {
		if said, err := check(bytes.NewReader(b), "", ""); err == nil {
			assert.Contains(t, said, "0 records", "nothing but an empty chain is made by chance")
		}
	})
}
