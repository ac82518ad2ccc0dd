package sitecsv_test

import (
	"bytes"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/site"
	"mainstay/internal/formats/formatstest"
	"mainstay/internal/formats/sitecsv"
)

// A round trip loses nothing that the format can hold.
func TestRoundTrip(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		in := formatstest.Features(true).Draw(t, "features")
		var b bytes.Buffer
		require.NoError(t, sitecsv.Write(&b, in))
		out, refused, err := sitecsv.Read(&b)
		require.NoError(t, err)
		assert.Empty(t, refused)
		assert.Equal(t, in, out)
	})
}

func FuzzRead(f *testing.F) {
	f.Add("lat,lon,kind,name\n46.3,-119.7,obstacle,A\n")
	f.Fuzz(func(t *testing.T, s string) {
		in, _, err := sitecsv.Read(strings.NewReader(s))
		if err != nil {
			assert.ErrorIs(t, err, sitecsv.ErrFile)
			return
		}
		for _, x := range in {
			require.NoError(t, x.Check(), "what is taken is good")
		}
		var b bytes.Buffer
		require.NoError(t, sitecsv.Write(&b, in))
		again, refused, err := sitecsv.Read(&b)
		require.NoError(t, err)
		assert.Empty(t, refused)
		assert.Len(t, again, len(in))
	})
}

func whys(refused []site.Refused) string {
	var out []string
	for _, r := range refused {
		out = append(out, r.Why)
	}
	return strings.Join(out, "\n")
}

func TestFilesOfOthers(t *testing.T) {
	in, refused, err := sitecsv.Read(strings.NewReader("\ufeffName,Lat,Lon,kind,height_ft\nPole,46.3,-119.7,obstacle,30\nComma,\"46,3\",-119.7,obstacle,\nShort,46.3\nSwapped,-119.7,46.3,obstacle,\n"))
	require.NoError(t, err)
	require.Len(t, in, 1)
	assert.InDelta(t, 9.144, *in[0].HeightM, 1e-9)
	for _, w := range []string{"with a decimal point", "line 4 is not", "swapped"} {
		assert.Contains(t, whys(refused), w)
	}
	_, refused, err = sitecsv.Read(strings.NewReader("feature,shape,hole,lat,lon\n1,area,5,46.3,-119.7\n"))
	require.NoError(t, err)
	assert.Contains(t, whys(refused), "not counted from 1")
	for _, bad := range []string{"", "x,y\n1,2\n", "lat,lon\n" + strings.Repeat("46.3,-119.7\n", sitecsv.MaxBytes/10)} {
		_, _, err := sitecsv.Read(strings.NewReader(bad))
		assert.ErrorIs(t, err, sitecsv.ErrFile)
	}
}
