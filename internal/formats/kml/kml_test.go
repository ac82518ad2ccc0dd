package kml_test

import (
	"io"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/site"
	"mainstay/internal/formats/formatstest"
	"mainstay/internal/formats/kml"
)

var form = formatstest.Form{Write: func(w io.Writer, f []site.Feature) error { return kml.Write(w, "Test", f) },
	Read: kml.Read, File: kml.ErrFile, Holes: true}

// A round trip loses nothing that the format can hold.
func TestRoundTrip(t *testing.T) { form.RoundTrip(t) }

func FuzzRead(f *testing.F) {
	form.Fuzz(f, `<kml><Document><Folder><Placemark><name>A</name><Point><coordinates>-119.7,46.3,0</coordinates></Point></Placemark></Folder></Document></kml>`)
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
	assert.Contains(t, formatstest.Whys(refused), "no point, line or polygon")
	assert.Contains(t, formatstest.Whys(refused), "is no longitude,latitude")
	form.Broken(t, "", "hello", "<gpx/>", "<kml><Placemark>",
		`<!DOCTYPE x [<!ENTITY a "b"><!ENTITY c "&a;&a;">]><kml>&c;</kml>`, "<kml>"+strings.Repeat(" ", kml.MaxBytes))
}
