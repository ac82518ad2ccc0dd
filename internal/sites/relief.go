package sites

import (
	"bytes"
	"context"
	"image/png"
	"math"
	"strconv"
	"strings"

	"github.com/google/uuid"

	"mainstay/api"
	"mainstay/core/geo"
	"mainstay/core/home"
	"mainstay/core/relief"
	"mainstay/core/site"
	"mainstay/core/wayhome"
	"mainstay/internal/platform/fault"
)

// Least and most of what is drawn round a site, m.
const (
	leastReachM = 400.0
	mostReachM  = 3000.0
)

// leastLine is how many places a contour has at least: shorter ones are the noise of the
// grid, and thousands of them would be sent.
const leastLine = 5

// reliefOf is the ground round what is charted.
func (s *Service) reliefOf(ctx context.Context, id uuid.UUID) (wayhome.Chart, relief.Ground, error) {
	g, err := s.Ground(ctx, id)
	if err != nil {
		return wayhome.Chart{}, relief.Ground{}, err
	}
	if g.Chart.Terrain == nil {
		return wayhome.Chart{}, relief.Ground{}, fault.Clash("no-terrain",
			"This site has no terrain: bring one under Files, and its slopes are drawn.")
	}
	far := 0.0
	for _, f := range g.Chart.Features {
		for _, p := range f.Places {
			far = max(far, geo.Dist(g.Chart.Frame.XY(p), geo.XY{}))
		}
	}
	out := relief.Of(g.Chart.Terrain, min(max(1.4*far, leastReachM), mostReachM))
	if !out.Drawable() {
		return g.Chart, out, fault.Clash("no-terrain",
			"The terrain of this site is too small to be drawn: bring one that reaches round it.")
	}
	return g.Chart, out, nil
}

// corners are the box that the cells of a relief fill.
func corners(c wayhome.Chart, g relief.Ground) (southWest, northEast geo.Point) {
	half := geo.XY{X: g.CellM / 2, Y: g.CellM / 2}
	far := geo.XY{X: float64(g.Columns-1) * g.CellM, Y: float64(g.Rows-1) * g.CellM}
	return c.Frame.Point(g.Origin.Sub(half)), c.Frame.Point(g.Origin.Add(far).Add(half))
}

func (h *Handlers) GetRelief(ctx context.Context, r api.GetReliefRequestObject) (api.GetReliefResponseObject, error) {
	c, g, err := h.Sites.reliefOf(ctx, r.Id)
	if err != nil {
		return nil, err
	}
	sw, ne := corners(c, g)
	out := api.GetRelief200JSONResponse{StepM: g.Step(), LowM: known(g.LowM), HighM: known(g.HighM), South: sw.Lat,
		West: sw.Lon, North: ne.Lat, East: ne.Lon, Lines: []api.Contour{}}
	for _, l := range g.Contours() {
		if len(l.Places) < leastLine {
			continue
		}
		places := make([]api.Place, len(l.Places))
		for i, p := range l.Places {
			places[i] = round(c.Frame.Point(p))
		}
		out.Lines = append(out.Lines, api.Contour{M: l.M, Main: l.Main, Places: places})
	}
	return out, nil
}

// round is a place to about a decimetre, which is finer than any terrain.
func round(p geo.Point) geo.Point {
	return geo.Point{Lat: math.Round(p.Lat*1e6) / 1e6, Lon: math.Round(p.Lon*1e6) / 1e6}
}

func known(m float64) float64 {
	if math.IsNaN(m) {
		return 0
	}
	return m
}

func (h *Handlers) GetShade(ctx context.Context, r api.GetShadeRequestObject) (api.GetShadeResponseObject, error) {
	_, g, err := h.Sites.reliefOf(ctx, r.Id)
	if err != nil {
		return nil, err
	}
	var b bytes.Buffer
	if err := png.Encode(&b, g.Picture()); err != nil {
		return nil, err
	}
	return api.GetShade200ImagepngResponse{Body: &b, ContentLength: int64(b.Len())}, nil
}

func (h *Handlers) GetHeights(ctx context.Context,
	r api.GetHeightsRequestObject) (api.GetHeightsResponseObject, error) {
	line, err := readLine(r.Params.Line)
	if err != nil {
		return nil, err
	}
	out, err := h.Sites.HeightsAlong(ctx, r.Id, line)
	return api.GetHeights200JSONResponse(out), err
}

// mostPlaces is how many places a line to look along may have.
const mostPlaces = 50

func readLine(places []string) ([]geo.Point, error) {
	var out []geo.Point
	for _, pair := range places {
		lat, lon, ok := strings.Cut(pair, ",")
		a, errA := strconv.ParseFloat(strings.TrimSpace(lat), 64)
		b, errB := strconv.ParseFloat(strings.TrimSpace(lon), 64)
		p := geo.Point{Lat: a, Lon: b}
		if !ok || errA != nil || errB != nil || p.Check() != nil {
			return nil, fault.Bad("line", "Each place of a line is latitude,longitude.")
		}
		out = append(out, p)
	}
	if len(out) < 2 || len(out) > mostPlaces {
		return nil, fault.Bad("line", "A line has two to %d places.", mostPlaces)
	}
	return out, nil
}

// HeightsAlong is the ground along a line, and what stands near it. The places lie
// within reach of the site, as everything on its map does.
func (s *Service) HeightsAlong(ctx context.Context, id uuid.UUID, line []geo.Point) (home.Section, error) {
	g, err := s.Ground(ctx, id)
	if err != nil {
		return home.Section{}, err
	}
	c := g.Chart
	if err := (site.Feature{Places: line}).Near(c.Frame.Point(geo.XY{})); err != nil {
		return home.Section{}, fault.Bad("line", "The line lies far from this site.")
	}
	return home.Along(c.Frame.All(line), c.Terrain, c.ElevationM,
		site.Standing(c.Features, c.Frame, c.Terrain, c.Reference()), 0)
}
