package main

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"math"
	"net/http"
	"strings"
	"text/tabwriter"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/geo"
	"mainstay/core/home"
	"mainstay/core/site"
	"mainstay/internal/formats/geojson"
	"mainstay/internal/platform/db"
	"mainstay/internal/sites"
)

// The site of the budget: 2,000 obstacles, a route of 200 places and terrain of
// 1,000 by 1,000 cells.
const (
	siteObstacles = 2000
	sitePlaces    = 200
	siteCells     = 1000
)

var siteAt = geo.Point{Lat: 46.31, Lon: -119.70}

// largeSite puts the site on file, once.
func largeSite(ctx context.Context, svc *sites.Service) (uuid.UUID, error) {
	id := uuid.MustParse("01920000-0000-7000-8000-00000000a001")
	if f, err := svc.Get(ctx, id, false); err == nil && f.Terrain != nil {
		return id, nil
	}
	if err := svc.Add(ctx, sites.Site{ID: id, Name: "Bench site", Lat: siteAt.Lat, Lon: siteAt.Lon,
		ElevationM: new(210.0)}); err != nil {
		return id, err
	}
	var file bytes.Buffer
	if err := geojson.Write(&file, siteFeatures()); err != nil {
		return id, err
	}
	if rep, err := svc.Import(ctx, id, "geojson", &file); err != nil || len(rep.Refused) > 0 {
		return id, fmt.Errorf("bench site: %v %w", rep.Refused, err)
	}
	var grid strings.Builder
	const cell = 0.00002
	fmt.Fprintf(&grid, "ncols %d\nnrows %d\nxllcorner %.6f\nyllcorner %.6f\ncellsize %g\n", siteCells, siteCells,
		siteAt.Lon-siteCells/2*cell, siteAt.Lat-siteCells/2*cell, cell)
	for r := range siteCells {
		for c := range siteCells {
			fmt.Fprintf(&grid, "%.1f ", 210+10*math.Sin(float64(r)/80)*math.Cos(float64(c)/60))
		}
	}
	return id, svc.PutTerrain(ctx, id, "bench.asc", 0.5, strings.NewReader(grid.String()))
}

func siteFeatures() []site.Feature {
	frame, err := geo.NewFrame(siteAt)
	if err != nil {
		panic(err) // a constant place
	}
	at := func(x, y float64) geo.Point { return frame.Point(geo.XY{X: x, Y: y}) }
	id := func() string { return uuid.Must(uuid.NewV7()).String() }
	out := []site.Feature{{ID: id(), Kind: site.TakeOff, Shape: site.Point, Name: "Start", Places: []geo.Point{siteAt}}}
	route := site.Feature{ID: id(), Kind: site.Route, Shape: site.Line, Name: "Route"}
	for i := range sitePlaces {
		route.Places = append(route.Places, at(-700+float64(i/2)*14, float64(1-2*((i+1)/2%2))*900))
	}
	out = append(out, route)
	for i := range siteObstacles {
		h := float64(5 + i%20)
		out = append(out, site.Feature{ID: id(), Kind: site.Obstacle, Shape: site.Point, Name: fmt.Sprintf("Tree %d", i),
			HeightM: &h, SigmaM: 1, BufferM: 5, Places: []geo.Point{at(float64(i*37%1500)-750, float64(i*91%1900)-950)}})
	}
	return out
}

func siteBenches(id uuid.UUID, ask func(method, path string, body any) error) []bench {
	var path []home.Place3
	frame, err := geo.NewFrame(siteAt)
	if err != nil {
		panic(err)
	}
	features := siteFeatures()
	q := home.Question{Route: frame.All(features[1].Places), Obstacles: site.Standing(features, frame, nil, 210),
		HomeM: 210, PositionM: 3, Margin: home.UsualMargin, CeilingM: 121.92, ClimbMS: 3, DescentMS: 2,
		Terrain: &home.Terrain{Origin: geo.XY{X: -1000, Y: -1000}, CellM: 2, Columns: siteCells, Rows: siteCells,
			Heights: make([]float32, siteCells*siteCells)}}
	for _, p := range q.Route {
		path = append(path, home.Place3{At: p, M: 260})
	}
	setting := 0.0
	return []bench{
		{name: "return height and clearance, core", fn: func() error {
			_, err := home.ReturnHeight(q)
			_, err2 := home.Clearance(path, home.Standing{Obstacles: q.Obstacles, PositionM: 3, OverM: home.VerticalClear})
			return errors.Join(err, err2)
		}, budget: 50 * time.Millisecond, baseName: "budget", rounds: 60},
		{name: "site, way home, request, first look", fn: func() error {
			setting++ // nothing kept answers it
			return ask(http.MethodGet, fmt.Sprintf("/sites/%s/way-home?setting_m=%.2f", id, 60+setting/100), nil)
		}, budget: 150 * time.Millisecond, baseName: "budget", rounds: 40},
		{name: "site, way home, request, again", fn: func() error {
			return ask(http.MethodGet,
				"/sites/"+id.String()+"/way-home?setting_m=60", nil)
		}, budget: 150 * time.Millisecond, baseName: "budget",
			rounds: 40},
		{name: "site, map, request", fn: func() error { return ask(http.MethodGet, "/sites/"+id.String(), nil) },
			budget: 150 * time.Millisecond, baseName: "budget", rounds: 40},
	}
}

// bigFile measures the import of a GeoJSON file of 10 MB, undone
// afterwards.
func bigFile(ctx context.Context, w *tabwriter.Writer, b *bed, id uuid.UUID) error {
	frame, err := geo.NewFrame(siteAt)
	if err != nil {
		return err
	}
	var features []site.Feature
	for i := range 498 {
		f := site.Feature{ID: uuid.Must(uuid.NewV7()).String(), Kind: site.Obstacle, Shape: site.Area,
			Name: fmt.Sprintf("Wood %d", i)}
		for k := range 520 {
			s, c := math.Sincos(2 * math.Pi * float64(k) / 520)
			f.Places = append(f.Places, frame.Point(geo.XY{X: float64(i%20)*100 + 40*s, Y: float64(i/20)*100 + 40*c}))
		}
		features = append(features, f)
	}
	var file bytes.Buffer
	if err := geojson.Write(&file, features); err != nil {
		return err
	}
	var took time.Duration
	err = db.Tx(ctx, b.svc.DB, func(ctx context.Context, _ *gorm.DB) error {
		began := time.Now()
		rep, err := b.svc.Sites.Import(ctx, id, "geojson", bytes.NewReader(file.Bytes()))
		took = time.Since(began)
		if err != nil || rep.Accepted != len(features) {
			return fmt.Errorf("import: %d of %d, %w", rep.Accepted, len(features), err)
		}
		return errUndo
	})
	if !errors.Is(err, errUndo) {
		return err
	}
	fmt.Fprintf(w, "import of %.1f MB of GeoJSON, %d areas\t%s\t\tbudget\t%s\t\t%.2f\t\t\n", float64(file.Len())/(1<<20),
		len(features), short(took), short(3*time.Second), float64(took)/float64(3*time.Second))
	return nil
}
