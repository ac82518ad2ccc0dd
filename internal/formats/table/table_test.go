package table_test

import (
	"bytes"
	"encoding/csv"
	"errors"
	"fmt"
	"runtime"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/internal/formats/table"
)

func read(s string) (rows [][2]string, t *table.Reader, err error) {
	t, err = table.NewReader(strings.NewReader(s))
	if err != nil {
		return nil, nil, err
	}
	err = t.Each(func(_ int, get func(string) string) *table.RowError {
		if get("a") == "bad" {
			return &table.RowError{Column: "a", Err: errors.New("is bad")}
		}
		rows = append(rows, [2]string{get("a"), get("b")})
		return nil
	})
	return rows, t, err
}

func TestRowsAndBadLines(t *testing.T) {
	rows, r, err := read("\ufeffA, b \n1,2\nbad,3\n4\n\"5\",6\n")
	require.NoError(t, err)
	assert.Equal(t, [][2]string{{"1", "2"}, {"5", "6"}}, rows)
	require.Len(t, r.Bad(), 2)
	assert.Equal(t, "line 3, a: is bad", r.Bad()[0].Error())
	assert.Equal(t, 4, r.Bad()[1].Line)
}

// Whatever is too much is refused in a sentence, before it takes memory.
func TestTooMuch(t *testing.T) {
	for name, file := range map[string]string{
		"a line of it is longer than 64 kB":  strings.Repeat(",", 6<<20),
		"more than 100 columns":              strings.Repeat("x,", 200) + "\n",
		"more than 100000 lines":             "a,b\n" + strings.Repeat("1,2\n", 100_001),
		"more than 500 of its lines":         "a,b\n" + strings.Repeat("bad,2\n", 600),
		"larger than 16 MB":                  "a,b\n" + strings.Repeat("1,"+strings.Repeat("x", 60_000)+"\n", 300),
		"it is empty or not comma-separated": "",
		"a line of it is longer than 64 kB ": "a,b\n1,\"" + strings.Repeat("x", 100_000),
		"more than 500 of its lines cannot be": "a,b\n" + strings.Repeat(strings.Repeat(",", 60_000)+"\n",
			100) + strings.Repeat("bad,2\n", 600),
	} {
		var before, after runtime.MemStats
		runtime.ReadMemStats(&before)
		_, _, err := read(file)
		runtime.ReadMemStats(&after)
		require.Error(t, err, name)
		assert.ErrorIs(t, err, table.ErrTable)
		assert.Contains(t, err.Error(), strings.TrimSpace(name))
		used := after.TotalAlloc - before.TotalAlloc
		assert.Less(t, used, uint64(64<<20), name)
		t.Logf("%d kB file, %d kB taken in all: %v", len(file)>>10, used>>10, err)
	}
}

// What is written comes back the same, and no cell is a formula to a program
// that computes them.
func TestCellsAreNoFormulas(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		cell := rapid.OneOf(rapid.SampledFrom([]string{"=1+1", "-5", "-5.25", "+cmd|' /C calc'!A0", "@sum(1)", "'quoted",
			"\ttab", "", "plain", "-", "-e5", "=", "+1e9"}), rapid.StringMatching(`[=+\-@']?[a-z0-9,"' \n]{0,6}`))
		a, b := cell.Draw(t, "a"), cell.Draw(t, "b")
		var out bytes.Buffer
		w := table.NewWriter(&out, []string{"a", "b"})
		w.Row(a, b)
		require.NoError(t, w.Flush())
		raw, err := csv.NewReader(bytes.NewReader(out.Bytes())).ReadAll()
		require.NoError(t, err)
		for _, c := range raw[1] {
			if c != "" && strings.ContainsRune("=+-@\t\r", rune(c[0])) {
				assert.Regexp(t, `^[-+]?[0-9.]+$`, c)
			}
		}
		rows, _, err := read(out.String())
		require.NoError(t, err)
		if a != "bad" {
			assert.Equal(t, fmt.Sprint([][2]string{{a, b}}), fmt.Sprint(rows))
		}
	})
}

func FuzzReader(f *testing.F) {
	f.Add("a,b\n1,2\n")
	f.Add(",,,\n\"")
	f.Fuzz(func(t *testing.T, s string) {
		rows, r, err := read(s)
		if err == nil {
			assert.LessOrEqual(t, len(rows), table.MaxRows)
			assert.LessOrEqual(t, len(r.Bad()), table.MaxBad)
		}
	})
}
