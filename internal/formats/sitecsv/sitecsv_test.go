package sitecsv_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/internal/formats/formatstest"
	"mainstay/internal/formats/sitecsv"
	"mainstay/internal/formats/table"
)

var form = formatstest.Form{Write: sitecsv.Write, Read: sitecsv.Read, File: sitecsv.ErrFile, Holes: true}

// A round trip loses nothing that the format can hold.
func TestRoundTrip(t *testing.T) { form.RoundTrip(t) }

func FuzzRead(f *testing.F) { form.Fuzz(f, "lat,lon,kind,name\n46.3,-119.7,obstacle,A\n") }

func TestFilesOfOthers(t *testing.T) {
	in, refused, err := sitecsv.Read(strings.NewReader("\ufeffName,Lat,Lon,kind,height_ft\nPole,46.3,-119.7,obstacle,30\nComma,\"46,3\",-119.7,obstacle,\nShort,46.3\nSwapped,-119.7,46.3,obstacle,\n"))
	require.NoError(t, err)
	require.Len(t, in, 1)
	assert.InDelta(t, 9.144, *in[0].HeightM, 1e-9)
	for _, w := range []string{"with a decimal point", "line 4 has 2 fields", "swapped"} {
		assert.Contains(t, formatstest.Whys(refused), w)
	}
	_, refused, err = sitecsv.Read(strings.NewReader("feature,shape,hole,lat,lon\n1,area,5,46.3,-119.7\n"))
	require.NoError(t, err)
	assert.Contains(t, formatstest.Whys(refused), "not counted from 1")
	form.Broken(t, "", "x,y\n1,2\n", "lat,lon\n"+strings.Repeat("46.3,-119.7\n", table.MaxBytes/10))
}
