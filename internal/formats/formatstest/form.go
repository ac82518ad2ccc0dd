package formatstest

import (
	"bytes"
	"io"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/site"
)

// Form is a file format of sites.
type Form struct {
	Write func(io.Writer, []site.Feature) error
	Read  func(io.Reader) ([]site.Feature, []site.Refused, error)
	File  error // wrapped when a file cannot be read at all
	Holes bool  // it knows areas with holes
}

// RoundTrip holds that what is written reads the same again.
func (x Form) RoundTrip(t *testing.T) {
	t.Helper()
	rapid.Check(t, func(t *rapid.T) {
		in := Features(x.Holes).Draw(t, "features")
		var b bytes.Buffer
		require.NoError(t, x.Write(&b, in))
		out, refused, err := x.Read(&b)
		require.NoError(t, err)
		assert.Empty(t, refused)
		assert.ElementsMatch(t, in, out)
	})
}

// Fuzz holds that any text is refused or read into good features that can be
// written and read again.
func (x Form) Fuzz(f *testing.F, seed string) {
	f.Add(seed)
	f.Fuzz(func(t *testing.T, s string) {
		in, _, err := x.Read(strings.NewReader(s))
		if err != nil {
			assert.ErrorIs(t, err, x.File)
			return
		}
		for _, one := range in {
			require.NoError(t, one.Check(), "what is taken is good")
		}
		var b bytes.Buffer
		require.NoError(t, x.Write(&b, in))
		again, refused, err := x.Read(&b)
		require.NoError(t, err)
		assert.Empty(t, refused)
		assert.Len(t, again, len(in))
	})
}

// Broken holds that each file is refused as a whole.
func (x Form) Broken(t *testing.T, files ...string) {
	t.Helper()
	for _, bad := range files {
		_, _, err := x.Read(strings.NewReader(bad))
		assert.ErrorIs(t, err, x.File, "%.60s", bad)
	}
}

// Whys are the reasons of what was refused, one a line.
func Whys(refused []site.Refused) string {
	var out []string
	for _, r := range refused {
		out = append(out, r.Why)
	}
	return strings.Join(out, "\n")
}
