package gpx_test

import (
	"bytes"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/site"
	"mainstay/internal/formats/formatstest"
	"mainstay/internal/formats/gpx"
)

// A round trip loses nothing that the format can hold.
func TestRoundTrip(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		in := formatstest.Features(false).Draw(t, "features")
		var b bytes.Buffer
		require.NoError(t, gpx.Write(&b, in))
		out, refused, err := gpx.Read(&b)
		require.NoError(t, err)
		assert.Empty(t, refused)
		assert.ElementsMatch(t, in, out, "GPX puts waypoints before routes")
	})
}

func FuzzRead(f *testing.F) {
	f.Add(`<gpx xmlns="http://www.topografix.com/GPX/1/1" version="1.1"><wpt lat="46.3" lon="-119.7"><name>A</name></wpt></gpx>`)
	f.Fuzz(func(t *testing.T, s string) {
		in, _, err := gpx.Read(strings.NewReader(s))
		if err != nil {
			assert.ErrorIs(t, err, gpx.ErrFile)
			return
		}
		for _, x := range in {
			require.NoError(t, x.Check(), "what is taken is good")
		}
		var b bytes.Buffer
		require.NoError(t, gpx.Write(&b, in))
		again, refused, err := gpx.Read(&b)
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
	const head = `<?xml version="1.0"?><gpx xmlns="http://www.topografix.com/GPX/1/1" version="1.1" creator="x">`
	in, refused, err := gpx.Read(strings.NewReader(head + `<wpt lat="46.3" lon="-119.7"><ele>210</ele><name>Pole</name><type>Waypoint</type></wpt>
		<wpt lat="x" lon="-119.7"><name>Bad</name></wpt><wpt lat="-119.7" lon="46.3"><name>Swapped</name></wpt>
		<trk><name>Walk round the field</name><trkseg><trkpt lat="46.3" lon="-119.7"/><trkpt lat="46.301" lon="-119.7"/><trkpt lat="46.301" lon="-119.701"/><trkpt lat="46.3" lon="-119.7"/></trkseg></trk></gpx>`))
	require.NoError(t, err)
	require.Len(t, in, 2)
	assert.Equal(t, site.Obstacle, in[0].Kind)
	assert.Nil(t, in[0].HeightM, "the elevation of a place is not a height")
	assert.Equal(t, 210.0, *in[0].GroundM)
	assert.Equal(t, site.Work, in[1].Kind, "a closed track is an outline")
	assert.Len(t, in[1].Places, 3)
	assert.Contains(t, whys(refused), "no latitude and longitude")
	assert.Contains(t, whys(refused), "swapped")
	for _, bad := range []string{"", "hello", head, "<kml/>", `<!DOCTYPE x [<!ENTITY a "b"><!ENTITY c "&a;&a;">]><gpx xmlns="http://www.topografix.com/GPX/1/1">&c;</gpx>`, head + strings.Repeat(" ", gpx.MaxBytes)} {
		_, _, err := gpx.Read(strings.NewReader(bad))
		assert.ErrorIs(t, err, gpx.ErrFile)
	}
}
