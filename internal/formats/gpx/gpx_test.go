package gpx_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/site"
	"mainstay/internal/formats/formatstest"
	"mainstay/internal/formats/gpx"
)

var form = formatstest.Form{Write: gpx.Write, Read: gpx.Read, File: gpx.ErrFile, Holes: false}

// A round trip loses nothing that the format can hold.
func TestRoundTrip(t *testing.T) { form.RoundTrip(t) }

func FuzzRead(f *testing.F) {
	form.Fuzz(f, `<gpx xmlns="http://www.topografix.com/GPX/1/1" version="1.1"><wpt lat="46.3" lon="-119.7"><name>A</name></wpt></gpx>`)
}

func TestFilesOfOthers(t *testing.T) {
	const head = `<?xml version="1.0"?><gpx xmlns="http://www.topografix.com/GPX/1/1" version="1.1" creator="x">`
	in, refused, err := gpx.Read(strings.NewReader(head +
		`<wpt lat="46.3" lon="-119.7"><ele>210</ele><name>Pole</name><type>Waypoint</type></wpt>
		<wpt lat="x" lon="-119.7"><name>Bad</name></wpt><wpt lat="-119.7" lon="46.3"><name>Swapped</name></wpt>
		<trk><name>Walk round the field</name><trkseg><trkpt lat="46.3" lon="-119.7"/><trkpt lat="46.301" lon="-119.7"/><trkpt lat="46.301" lon="-119.701"/><trkpt lat="46.3" lon="-119.7"/></trkseg></trk></gpx>`))
	require.NoError(t, err)
	require.Len(t, in, 2)
	assert.Equal(t, site.Obstacle, in[0].Kind)
	assert.Nil(t, in[0].HeightM, "the elevation of a place is not a height")
	assert.Equal(t, 210.0, *in[0].GroundM)
	assert.Equal(t, site.Work, in[1].Kind, "a closed track is an outline")
	assert.Len(t, in[1].Places, 3)
	assert.Contains(t, formatstest.Whys(refused), "no latitude and longitude")
	assert.Contains(t, formatstest.Whys(refused), "swapped")
	form.Broken(t, "", "hello", head, "<kml/>",
		`<!DOCTYPE x [<!ENTITY a "b"><!ENTITY c "&a;&a;">]><gpx xmlns="http://www.topografix.com/GPX/1/1">&c;</gpx>`,
		head+strings.Repeat(" ", gpx.MaxBytes))
}
