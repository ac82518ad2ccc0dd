package asc_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/geo"
	"mainstay/internal/formats/asc"
)

const grid = "ncols 3\nnrows 2\nxllcorner -119.71\nyllcorner 46.30\ncellsize 0.01\nNODATA_value -9999\n1 2 3\n4 -9999 6\n"

func TestGridStandsNorthUp(t *testing.T) {
	g, err := asc.Read(strings.NewReader(grid))
	require.NoError(t, err)
	assert.Equal(t, 1, g.Gaps)
	assert.InDelta(t, -119.705, g.SouthWest.Lon, 1e-9, "a corner is half a cell from the centre")
	v, ok := g.At(geo.Point{Lat: 46.315, Lon: -119.705})
	assert.True(t, ok)
	assert.Equal(t, 1.0, v, "the first row is the northernmost")
	v, _ = g.At(geo.Point{Lat: 46.305, Lon: -119.685})
	assert.Equal(t, 6.0, v)
	_, ok = g.At(geo.Point{Lat: 46.305, Lon: -119.695})
	assert.False(t, ok, "a gap is not known")
	_, ok = g.At(geo.Point{Lat: 46.4, Lon: -119.695})
	assert.False(t, ok)
	c, err := asc.Read(strings.NewReader(strings.NewReplacer("xllcorner", "XLLCENTER", "yllcorner",
		"YLLCENTER").Replace(grid)))
	require.NoError(t, err)
	assert.InDelta(t, -119.71, c.SouthWest.Lon, 1e-9)
}

func TestGridsThatAreRefused(t *testing.T) {
	for want, bad := range map[string]string{
		"has no grid":        "",
		"after 5 of 6":       strings.TrimSuffix(grid, " 6\n"),
		"more elevations":    grid + " 7",
		"metres of a map":    strings.NewReplacer("-119.71", "292000", "46.30", "5131000", "0.01", "30").Replace(grid),
		"is not a number":    strings.Replace(grid, "4", "four", 1),
		"none on this earth": strings.Replace(grid, "1 2 3", "1 2 32767", 1),
		"whole numbers":      strings.Replace(grid, "ncols 3", "ncols 3.5", 1),
		"over 4000000 cells": strings.Replace(grid, "ncols 3", "ncols 3000000", 1),
		"every elevation": strings.NewReplacer("1 2 3", "-9999 -9999 -9999", "4 -9999 6",
			"-9999 -9999 -9999").Replace(grid),
		"head needs":            strings.Replace(grid, "cellsize", "cell", 1),
		"its head is too long":  strings.Repeat("a 1\n", 20),
		"cellsize \"x\" is not": strings.Replace(grid, "0.01", "x", 1),
	} {
		_, err := asc.Read(strings.NewReader(bad))
		require.ErrorIs(t, err, asc.ErrGrid, want)
		assert.ErrorContains(t, err, want)
	}
}

func FuzzRead(f *testing.F) {
	f.Add(grid)
	f.Fuzz(func(t *testing.T, s string) {
		g, err := asc.Read(strings.NewReader(s))
		if err != nil {
			assert.ErrorIs(t, err, asc.ErrGrid)
			return
		}
		assert.Len(t, g.Heights, g.Columns*g.Rows)
	})
}
