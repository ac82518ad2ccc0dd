package pack_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/pack"
)

func TestLabelsOfSeveralPacks(t *testing.T) {
	for text, want := range map[string]string{
		"L1 to L8": "L1 L2 L3 L4 L5 L6 L7 L8", "L1-L3": "L1 L2 L3", "l1 – L2": "l1 l2", "L09 to 11": "L09 L10 L11",
		"L9 to L11": "L9 L10 L11", "7": "7",
		"A, B; C3 to C4\nD": "A B C3 C4 D", "3 to 3": "3", "Dray 1 to Dray 2": "Dray 1|Dray 2",
	} {
		got, err := pack.Labels(text)
		require.NoError(t, err, text)
		sep := " "
		if strings.Contains(want, "|") {
			sep = "|"
		}
		assert.Equal(t, strings.Split(want, sep), got, text)
	}
	for text, says := range map[string]string{"": "like L1 to L8", " , ": "like L1 to L8", "L8 to L1": "backwards",
		"L1 to L90": "40", "A, a": "twice", "L1 to L3, L2": "twice",
		strings.Repeat("é", 21): "at most 20 characters", "pack number on the shelf 1 to 2": "at most 20 characters"} {
		_, err := pack.Labels(text)
		require.ErrorIs(t, err, pack.ErrLabels, text)
		assert.ErrorContains(t, err, says, text)
	}
}

// Whatever is typed: labels that differ, at most as many as may be, or a sentence.
func FuzzLabels(f *testing.F) {
	for _, s := range []string{"L1 to L8", "1-40", "x to y", "L1 to M2", "9999 to 99999", "\x00"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, text string) {
		got, err := pack.Labels(text)
		if err != nil {
			return
		}
		seen := map[string]bool{}
		for _, l := range got {
			assert.NotEmpty(t, strings.TrimSpace(l))
			assert.False(t, seen[strings.ToLower(l)])
			seen[strings.ToLower(l)] = true
			assert.LessOrEqual(t, len([]rune(l)), pack.LongestLabel)
		}
		assert.LessOrEqual(t, len(got), pack.MostAtOnce)
	})
}
