package missionfile_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/geo"
	"mainstay/core/intent"
	"mainstay/core/mission"
	"mainstay/internal/formats/missionfile"
)

func drawn(t *rapid.T) mission.Mission {
	m := mission.Mission{Datum: rapid.SampledFrom(intent.AllDatums).Draw(t, "datum")}
	if rapid.Bool().Draw(t, "home") {
		m.Home = &geo.Point{Lat: 46.3, Lon: -119.7}
	}
	angle := func(name string, lo, hi float64) *float64 {
		if !rapid.Bool().Draw(t, name+" set") {
			return nil
		}
		v := rapid.Float64Range(lo, hi).Draw(t, name)
		return &v
	}
	for range rapid.IntRange(1, 12).Draw(t, "waypoints") {
		m.Items = append(m.Items, mission.Item{At: geo.Point{Lat: rapid.Float64Range(-60, 60).Draw(t, "lat"),
			Lon: rapid.Float64Range(-20, 20).Draw(t, "lon")}, HeightM: rapid.Float64Range(0, 500).Draw(t, "height"),
			SpeedMS: rapid.Float64Range(0, 30).Draw(t, "speed"), Action: rapid.SampledFrom(mission.AllActions).Draw(t,
				"action"), EveryM: rapid.Float64Range(0, 90).Draw(t, "every"), HeadingDeg: angle("heading", 0, 360),
			GimbalDeg: angle("gimbal", -90, 30)})
	}
	return m
}

// A mission is the same after it was written and read, in every format.
func TestRoundTrip(t *testing.T) {
	for _, f := range missionfile.All {
		t.Run(string(f), func(t *testing.T) {
			rapid.Check(t, func(t *rapid.T) {
				m := drawn(t)
				var b bytes.Buffer
				require.NoError(t, missionfile.Write(&b, f, m))
				back, err := missionfile.Read(&b)
				require.NoError(t, err)
				back.Name = m.Name
				assert.Equal(t, m, back)
				d, err := mission.Compare(m, back)
				require.NoError(t, err)
				assert.Empty(t, d)
			})
		})
	}
}

// Order, count and heights are the same through a reader and writer that is not ours.
func TestIndependentReadersAgree(t *testing.T) {
	tool, err := exec.LookPath("ogr2ogr")
	require.NoError(t, err, "bin/test installs gdal-bin")
	m := mission.Mission{Name: "rows", Datum: intent.AboveSea, Home: &geo.Point{Lat: 46.3, Lon: -119.7}}
	for i := range 30 {
		m.Items = append(m.Items, mission.Item{At: geo.Point{Lat: 46.31 + float64(i%7)*0.001,
			Lon: -119.71 - float64(i)*0.0007}, HeightM: 200 + 3.5*float64(i), SpeedMS: 8, Action: mission.Fly})
	}
	for _, f := range missionfile.All {
		var b bytes.Buffer
		require.NoError(t, missionfile.Write(&b, f, m))
		dir := t.TempDir()
		in, out := filepath.Join(dir, "mission."+string(f)), filepath.Join(dir, "out.geojson")
		require.NoError(t, os.WriteFile(in, b.Bytes(), 0o600))
		args := []string{"-f", "GeoJSON", out, in}
		switch f {
		case missionfile.GPX:
			args = append(args, "route_points")
		case missionfile.CSV:
			args = append(args, "-oo", "X_POSSIBLE_NAMES=longitude", "-oo", "Y_POSSIBLE_NAMES=latitude")
		}
		text, err := exec.Command(tool, args...).CombinedOutput()
		require.NoError(t, err, "%s: %s", f, text)
		raw, err := os.ReadFile(out)
		require.NoError(t, err)
		var c struct {
			Features []struct {
				Geometry   struct{ Coordinates []float64 }
				Properties map[string]any
			}
		}
		require.NoError(t, json.Unmarshal(raw, &c), f)
		at := 0
		for _, x := range c.Features {
			if fmt.Sprint(x.Properties["action"]) == "home" || fmt.Sprint(x.Properties["name"]) == "home" ||
				fmt.Sprint(x.Properties["Name"]) == "home" {
				continue
			}
			require.Less(t, at, len(m.Items), "%s: more waypoints than were written", f)
			want := m.Items[at]
			assert.InDelta(t, want.At.Lat, x.Geometry.Coordinates[1], 1e-6, "%s: waypoint %d", f, at+1)
			assert.InDelta(t, want.At.Lon, x.Geometry.Coordinates[0], 1e-6)
			height := -1.0
			if len(x.Geometry.Coordinates) > 2 {
				height = x.Geometry.Coordinates[2]
			}
			for _, k := range []string{"ele", "height_m"} {
				if v, ok := x.Properties[k]; ok {
					height, err = strconv.ParseFloat(fmt.Sprint(v), 64)
					require.NoError(t, err)
				}
			}
			assert.InDelta(t, want.HeightM, height, 1e-6, "%s: height of waypoint %d", f, at+1)
			at++
		}
		assert.Equal(t, len(m.Items), at, "%s", f)
	}
}

// Files that hold no mission are refused with what is wrong in words.
func TestFilesThatCannotBe(t *testing.T) {
	for text, want := range map[string]string{
		"":         "empty",
		"{":        "no GeoJSON",
		"<kml>":    "no KML",
		"<gpx/>":   "0 routes",
		"a,b\n1,2": "no column",
		"number,latitude,longitude,height_m,datum\n1,46,-119,40,take-off\n1,46.1,-119,40,take-off":                                      "number 1",
		"latitude,longitude,height_m,datum\n46,-119,40,take-off\n46,-119,40,sea":                                                        "in one mission",
		"latitude,longitude,height_m,datum\n46,x,40,take-off":                                                                           "no pair of numbers",
		"latitude,longitude,height_m,datum\n46,-119,high,take-off":                                                                      "no number",
		"latitude,longitude,height_m,datum\n46,-119,,take-off":                                                                          "no height",
		"latitude,longitude,height_m,datum\n46,-119,40,moon":                                                                            "none of",
		`{"type":"FeatureCollection","features":[{"type":"Feature","geometry":{"type":"Point","coordinates":[-119]},"properties":{}}]}`: "no place",
	} {
		_, err := missionfile.Read(strings.NewReader(text))
		require.ErrorIs(t, err, missionfile.ErrFile, text)
		assert.Contains(t, err.Error(), want)
	}
	_, err := missionfile.Read(strings.NewReader(strings.Repeat("x", missionfile.MaxBytes+1)))
	assert.ErrorIs(t, err, missionfile.ErrFile)
	assert.ErrorIs(t, missionfile.Write(&bytes.Buffer{}, "dxf", mission.Mission{}), missionfile.ErrFile)
}

// Lists of pictures: whole, without a place, and with half of one.
func TestShots(t *testing.T) {
	got, err := missionfile.ReadShots(strings.NewReader("name,latitude,longitude,time\na.jpg,46.31,-119.7,2026-06-01T10:00:00Z\nb.jpg,,,2026:06:01 10:00:02\nc.jpg,46.32,-119.7,\n"))
	require.NoError(t, err)
	require.Len(t, got, 3)
	assert.Nil(t, got[1].At)
	assert.Equal(t, 2, got[1].Time.Second())
	assert.Nil(t, got[2].Time)
	for _, text := range []string{"name\na", "name,latitude,longitude\na,46,", "name,latitude,longitude\na,46,200",
		"name,latitude,longitude,time\na,46,-119,yesterday", ""} {
		_, err := missionfile.ReadShots(strings.NewReader(text))
		assert.ErrorIs(t, err, missionfile.ErrFile, text)
	}
}

// FuzzRead: whatever is read is a mission that can be flown, and can be written again.
func FuzzRead(f *testing.F) {
	m := mission.Mission{Datum: intent.AboveTakeOff, Items: []mission.Item{{At: geo.Point{Lat: 46, Lon: -119}, HeightM: 40,
		Action: mission.Fly}}}
	for _, form := range missionfile.All {
		var b bytes.Buffer
		require.NoError(f, missionfile.Write(&b, form, m))
		f.Add(b.Bytes())
	}
	f.Fuzz(func(t *testing.T, b []byte) {
		m, err := missionfile.Read(bytes.NewReader(b))
		if err != nil {
			return
		}
		require.NoError(t, m.Check())
		for _, form := range missionfile.All {
			require.NoError(t, missionfile.Write(&bytes.Buffer{}, form, m))
		}
	})
}

// FuzzReadShots: whatever is read has places on the earth.
func FuzzReadShots(f *testing.F) {
	f.Add([]byte("name,latitude,longitude,time\na.jpg,46.31,-119.7,2026-06-01T10:00:00Z\n"))
	f.Fuzz(func(t *testing.T, b []byte) {
		all, err := missionfile.ReadShots(bytes.NewReader(b))
		if err != nil {
			return
		}
		for _, s := range all {
			if s.At != nil {
				require.NoError(t, s.At.Check())
			}
		}
	})
}
