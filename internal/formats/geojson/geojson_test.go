package geojson_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/internal/formats/formatstest"
	"mainstay/internal/formats/geojson"
)

var form = formatstest.Form{Write: geojson.Write, Read: geojson.Read, File: geojson.ErrFile, Holes: true}

// A round trip loses nothing that the format can hold.
func TestRoundTrip(t *testing.T) { form.RoundTrip(t) }

func FuzzRead(f *testing.F) {
	form.Fuzz(f, `{"type":"FeatureCollection","features":[{"type":"Feature","properties":{"kind":"obstacle","height_m":12},"geometry":{"type":"Point","coordinates":[-119.7,46.3]}}]}`)
}

func TestFilesOfOthers(t *testing.T) {
	point := `{"type":"Feature","properties":{%s},"geometry":{"type":"Point","coordinates":[%s]}}`
	feature := func(props, at string) string {
		return strings.Replace(strings.Replace(point, "%s", props, 1), "%s", at, 1)
	}
	in, refused, err := geojson.Read(strings.NewReader(`{"type":"FeatureCollection","features":[` + strings.Join([]string{
		feature(`"name":"Mast","height_ft":100`, "-119.7,46.3"), feature(`"name":"Unit","height":100`,
			"-119.7,46.3"), feature(`"name":"Swapped"`, "46.3,-119.7"), feature(`"name":"Words","height_m":"tall"`,
			"-119.7,46.3"),
		`{"type":"Feature","properties":null,"geometry":null}`,
		`{"type":"Feature","properties":{"name":"Bow"},"geometry":{"type":"Polygon","coordinates":[[[-119.7,46.3],[-119.69,46.31],[-119.69,46.3],[-119.7,46.31],[-119.7,46.3]]]}}`,
		`{"type":"Feature","properties":{"name":"Two"},"geometry":{"type":"MultiPoint","coordinates":[[-119.7,46.3],[-119.71,46.3]]}}`,
	}, ",") + `]}`))
	require.NoError(t, err)
	require.Len(t, in, 3)
	assert.InDelta(t, 30.48, *in[0].HeightM, 1e-9, "feet become metres")
	for _, w := range []string{"no unit in its name; call it height_m or height_ft", "swapped", "is not a number",
		"no place", "crosses itself"} {
		assert.Contains(t, formatstest.Whys(refused), w)
	}
	for want, bad := range map[string]string{
		"not JSON": "{", "no GeoJSON": `{"type":"Topology"}`,
		"only WGS 84": `{"type":"FeatureCollection","crs":{"type":"name","properties":{"name":"EPSG:32611"}},"features":[]}`,
		"larger than 10 MB": `{"type":"FeatureCollection"` + strings.Repeat(" ",
			geojson.MaxBytes) + `}`,
		"is not GeoJSON": `{"type":"FeatureCollection","features":[{"type":"Feature","geometry":{"type":"Point","coordinates":"x"}}]}`,
	} {
		_, _, err := geojson.Read(strings.NewReader(bad))
		require.ErrorIs(t, err, geojson.ErrFile, want)
		assert.ErrorContains(t, err, want)
	}
	_, _, err = geojson.Read(strings.NewReader(`{"type":"FeatureCollection","crs":{"type":"name","properties":{"name":"urn:ogc:def:crs:OGC:1.3:CRS84"}},"features":[]}`))
	assert.NoError(t, err)
}
