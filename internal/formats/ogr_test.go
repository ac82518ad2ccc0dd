package formats_test

import (
	"bytes"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/geo"
	"mainstay/core/site"
	"mainstay/internal/formats/geojson"
	"mainstay/internal/formats/gpx"
	"mainstay/internal/formats/kml"
)

// What we write is read by a reader that is not ours: GDAL's ogrinfo.
func TestAnIndependentReaderAgrees(t *testing.T) {
	tool, err := exec.LookPath("ogrinfo")
	require.NoError(t, err, "bin/test installs gdal-bin")
	h := 12.5
	features := []site.Feature{
		{ID: "01920000-0000-7000-8000-000000000001", Kind: site.Work, Name: "Upper <yard> & co", Shape: site.Area,
			Places: []geo.Point{{Lat: 46.31, Lon: -119.70}, {Lat: 46.31, Lon: -119.69}, {Lat: 46.32, Lon: -119.69},
				{Lat: 46.32, Lon: -119.70}},
			Holes: [][]geo.Point{{{Lat: 46.312, Lon: -119.698}, {Lat: 46.312, Lon: -119.696}, {Lat: 46.314, Lon: -119.696}}}},
		{ID: "01920000-0000-7000-8000-000000000002", Kind: site.Obstacle, Name: "Mast", Shape: site.Point,
			Places: []geo.Point{{Lat: 46.3125, Lon: -119.6975}}, HeightM: &h},
		{ID: "01920000-0000-7000-8000-000000000003", Kind: site.Wires, Name: "Road line", Shape: site.Line,
			Places: []geo.Point{{Lat: 46.31, Lon: -119.70}, {Lat: 46.315, Lon: -119.695}}},
	}
	var b bytes.Buffer
	for name, write := range map[string]func() error{
		"site.geojson": func() error { return geojson.Write(&b, features) },
		"site.kml":     func() error { return kml.Write(&b, "Site", features) },
		"site.gpx":     func() error { return gpx.Write(&b, features) },
	} {
		b.Reset()
		require.NoError(t, write())
		file := filepath.Join(t.TempDir(), name)
		require.NoError(t, os.WriteFile(file, b.Bytes(), 0o600))
		out, err := exec.Command(tool, "-ro", "-al", file).CombinedOutput()
		require.NoError(t, err, "%s: %s", name, out)
		text := string(out)
		assert.NotContains(t, text, "ERROR", name)
		assert.Contains(t, text, "POINT", name)
		assert.Contains(t, text, "-119.6975 46.3125", name)
		assert.Contains(t, text, "Upper <yard> & co", name)
		assert.Contains(t, text, "LINESTRING", name)
		if name != "site.gpx" {
			assert.Contains(t, text, "POLYGON", name)
			assert.Equal(t, 1, strings.Count(text, "),("), "%s: the hole is one", name)
			assert.Contains(t, text, "12.5", name)
		}
	}
}
