package sites_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"image/png"
	"math/rand/v2"
	"strings"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/api"
	"mainstay/core/site"
	"mainstay/internal/platform/fault"
	"mainstay/internal/sites"
	"mainstay/internal/testbed"
)

// squares is an ASCII grid of n cells a side round the bed's site, cell degrees each.
func squares(n int, cell float64, height func(row, col int) float64) *strings.Reader {
	var b strings.Builder
	fmt.Fprintf(&b, "ncols %d\nnrows %d\nxllcorner %f\nyllcorner %f\ncellsize %f\n", n, n,
		-119.70-cell*float64(n)/2, 46.31-cell*float64(n)/2, cell)
	for r := range n {
		for c := range n {
			fmt.Fprintf(&b, "%.1f ", height(r, c))
		}
		b.WriteByte('\n')
	}
	return strings.NewReader(b.String())
}

// The picture fills the box of the contours, both come from the terrain on file, and the
// noise of a grid is not sent as thousands of lines.
func TestReliefOfASite(t *testing.T) {
	b := newBed(t)
	h := &sites.Handlers{Sites: b.Sites}
	bare := sites.Site{ID: testbed.NewID(), Name: "Bare", Lat: 46.31, Lon: -119.70}
	require.NoError(t, b.Sites.Add(b.ctx, bare))
	_, err := h.GetRelief(b.ctx, api.GetReliefRequestObject{Id: bare.ID})
	assert.True(t, fault.Is(err, "no-terrain"), "%v", err)
	_, err = h.GetShade(b.ctx, api.GetShadeRequestObject{Id: bare.ID})
	assert.True(t, fault.Is(err, "no-terrain"), "%v", err)

	require.NoError(t, b.Sites.PutTerrain(b.ctx, bare.ID, "slope.asc", 1,
		squares(60, 0.0003, func(r, c int) float64 { return 200 + float64(r) + float64(c)/2 })))
	got, err := h.GetRelief(b.ctx, api.GetReliefRequestObject{Id: bare.ID})
	require.NoError(t, err)
	relief := got.(api.GetRelief200JSONResponse)
	assert.NotEmpty(t, relief.Lines)
	for _, l := range relief.Lines {
		for _, p := range l.Places {
			assert.True(t, p.Lat >= relief.South && p.Lat <= relief.North && p.Lon >= relief.West && p.Lon <= relief.East)
		}
	}
	shade, err := h.GetShade(b.ctx, api.GetShadeRequestObject{Id: bare.ID})
	require.NoError(t, err)
	img, err := png.Decode(shade.(api.GetShade200ImagepngResponse).Body)
	require.NoError(t, err)
	wide := (relief.East - relief.West) * 76_900 // m a degree there
	tall := (relief.North - relief.South) * 111_200
	assert.InDelta(t, wide/tall, float64(img.Bounds().Dx())/float64(img.Bounds().Dy()), 0.05, "cells are square")

	noise := rand.New(rand.NewPCG(1, 2))
	require.NoError(t, b.Sites.PutTerrain(b.ctx, bare.ID, "noise.asc", 1,
		squares(300, 0.0001, func(_, _ int) float64 { return 200 + 50*noise.Float64() })))
	got, err = h.GetRelief(b.ctx, api.GetReliefRequestObject{Id: bare.ID})
	require.NoError(t, err)
	text, err := json.Marshal(got)
	require.NoError(t, err)
	assert.Less(t, len(text), 12<<20, "even of noise")
	var wg sync.WaitGroup
	for range 40 {
		wg.Go(func() {
			_, err := h.GetShade(b.ctx, api.GetShadeRequestObject{Id: bare.ID})
			assert.NoError(t, err)
		})
	}
	wg.Wait()
}

// A line is places of this site; what is none is named, and nothing is made up.
func TestHeightsAlongALine(t *testing.T) {
	b := newBed(t)
	h := &sites.Handlers{Sites: b.Sites}
	twenty := 20.0
	b.put(site.Feature{Kind: site.Obstacle, Shape: site.Point, Name: "mast", HeightM: &twenty, Measured: "known"},
		[2]float64{50, 0})
	ask := func(places ...string) (api.GetHeights200JSONResponse, error) {
		r := api.GetHeightsRequestObject{Id: b.site.ID, Params: api.GetHeightsParams{Line: places}}
		out, err := h.GetHeights(b.ctx, r)
		if err != nil {
			return api.GetHeights200JSONResponse{}, err
		}
		return out.(api.GetHeights200JSONResponse), nil
	}
	got, err := ask("46.31,-119.70", " 46.31 , -119.6987 ")
	require.NoError(t, err)
	assert.InDelta(t, 100, got.LengthM, 1)
	require.Len(t, got.Tops, 1)
	assert.InDelta(t, 210, *got.Steps[50].GroundM, 1e-3, "of the terrain")
	for name, places := range map[string][]string{"one": {"46.31,-119.70"}, "none": nil, "word": {"46.31,-119.70", "here"},
		"no number": {"46.31,-119.70", "NaN,NaN"}, "too large": {"46.31,-119.70", "1e400,0"}, "pole": {"46.31,-119.70", "91,0"},
		"swapped": {"-119.70,46.31", "-119.70,46.32"}, "elsewhere": {"46.31,-119.70", "12.5,7.5"},
		"many": strings.Split(strings.Repeat("46.31,-119.70;", 60)+"46.31,-119.70", ";")} {
		_, err := ask(places...)
		f, ok := fault.As(err)
		require.True(t, ok, "%s: %v", name, err)
		assert.Equal(t, "line", f.Fields[0].Field, name)
	}
	same, err := ask("46.31,-119.70", "46.31,-119.70")
	require.NoError(t, err, "a line of no length is a place")
	assert.Zero(t, same.LengthM)
	var out bytes.Buffer
	require.NoError(t, json.NewEncoder(&out).Encode(same))
}
