package kml_test

import (
	"bytes"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/site"
	"mainstay/internal/formats/formatstest"
	"mainstay/internal/formats/kml"
)

// A round trip loses nothing that the format can hold.
func TestRoundTrip(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		in := formatstest.Features(true).Draw(t, "features")
		var b bytes.Buffer
		require.NoError(t, kml.Write(&b, "Test", in))
		out, refused, err := kml.Read(&b)
		require.NoError(t, err)
		assert.Empty(t, refused)
		assert.Equal(t, in, out)
	})
}

func FuzzRead(f *testing.F) {
	f.Add(`<kml><Document><Folder><Placemark><name>A</name><Point><coordinates>-119.7,46.3,0</coordinates></Point></Placemark></Folder></Document></kml>`)
	f.Fuzz(func(t *testing.T, s string) {
		in, _, err := kml.Read(strings.NewReader(s))
		if err != nil {
			assert.ErrorIs(t, err, kml.ErrFile)
			return
		}
		for _, x := range in {
			require.NoError(t, x.Check(), "what is taken is good")
		}
		var b bytes.Buffer
		require.NoError(t, kml.Write(&b, "Test", in))
		again, refused, err := kml.Read(&b)
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
	in, refused, err := kml.Read(strings.NewReader(`<?xml version="1.0"?><kml xmlns="http://www.opengis.net/kml/2.2"><Document><Style id="s"/><Folder><Folder>
		<Placemark><name>Yard</name><Polygon><outerBoundaryIs><LinearRing><coordinates>-119.7,46.3,0 -119.69,46.3,0 -119.69,46.31,0 -119.7,46.3,0</coordinates></LinearRing></outerBoundaryIs></Polygon></Placemark>
		<Placemark><name>Both</name><MultiGeometry><Point><coordinates>-119.7,46.3</coordinates></Point><LineString><coordinates>-119.7,46.3 -119.71,46.3</coordinates></LineString></MultiGeometry></Placemark>
		<Placemark><name>Empty</name></Placemark><Placemark><name>Bad</name><Point><coordinates>here</coordinates></Point></Placemark></Folder></Folder></Document></kml>`))
	require.NoError(t, err)
	require.Len(t, in, 3)
	assert.Len(t, in[0].Places, 3)
	assert.Equal(t, site.Obstacle, in[1].Kind)
	assert.Equal(t, site.Route, in[2].Kind)
	assert.NotEqual(t, in[1].ID, in[2].ID)
	assert.Contains(t, whys(refused), "no point, line or polygon")
	assert.Contains(t, whys(refused), "is no longitude,latitude")
	for _, bad := range []string{"", "hello", "<gpx/>", "<kml><Placemark>", `<!DOCTYPE x [<!ENTITY a "b"><!ENTITY c "&a;&a;">]><kml>&c;</kml>`, "<kml>" + strings.Repeat(" ", kml.MaxBytes)} {
		_, _, err := kml.Read(strings.NewReader(bad))
		assert.ErrorIs(t, err, kml.ErrFile)
	}
}
