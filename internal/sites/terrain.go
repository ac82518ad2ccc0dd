package sites

import (
	"context"
	"encoding/binary"
	"io"
	"math"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/geo"
	"mainstay/core/home"
	"mainstay/core/why"
	"mainstay/internal/formats/asc"
	"mainstay/internal/people"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
)

// Terrain is the ground of a site.
type Terrain struct {
	SiteID        uuid.UUID
	Source        string
	Lat, Lon      float64
	CellDeg       float64
	Columns, Rows int
	Gaps          int
	SigmaM        float64 `gorm:"column:sigma_m"`
	Heights       []byte  // float32, little endian, rows from south to north
	At            time.Time
	ByName        string
}

// PutTerrain replaces the terrain by a grid file with a standard error in
// metres.
func (s *Service) PutTerrain(ctx context.Context, id uuid.UUID, name string, sigma float64, r io.Reader) error {
	g, err := asc.Read(r)
	if err != nil {
		reason, ok := why.Of(err)
		if !ok {
			return err
		}
		return fault.Bad("file", "The terrain cannot be used: %s. Nothing was saved.", reason)
	}
	f, err := s.Get(ctx, id, false)
	if err != nil {
		return err
	}
	ground, ok := g.At(f.Site.Origin())
	if !ok {
		return fault.Bad("file", "The terrain does not reach the site, or has a gap there. Nothing was saved.")
	}
	heights := make([]byte, 4*len(g.Heights))
	for i, v := range g.Heights {
		binary.LittleEndian.PutUint32(heights[4*i:], math.Float32bits(v))
	}
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		// What somebody entered stays; what nobody knew is known now.
		if err := tx.Exec("update sites set elevation_m = ?, version = version + 1 where id = ? and elevation_m is null",
			math.Round(ground*10)/10, id).Error; err != nil {
			return err
		}
		return tx.Exec(`insert into site_terrain (site_id, source, lat, lon, cell_deg, columns, rows, gaps, sigma_m, heights, at, by_name) values (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)
		on conflict (site_id) do update set source = excluded.source, lat = excluded.lat, lon = excluded.lon, cell_deg = excluded.cell_deg, columns = excluded.columns, rows = excluded.rows, gaps = excluded.gaps,
			sigma_m = excluded.sigma_m, heights = excluded.heights, at = excluded.at, by_name = excluded.by_name`,
			id, name, g.SouthWest.Lat, g.SouthWest.Lon, g.CellDeg, g.Columns, g.Rows, g.Gaps, sigma, heights, s.Clock.Now(),
			people.From(ctx).Name).Error
	})
}

// ground is the elevation of the ground at a place, as the terrain of its site
// has it; nil: there is none, or it does not reach.
func (t *Terrain) ground(at geo.Point) *float64 {
	frame, err := geo.NewFrame(at)
	if err != nil {
		return nil
	}
	m, ok := t.in(frame).At(geo.XY{})
	if !ok {
		return nil
	}
	return new(math.Round(m*10) / 10)
}

func (s *Service) terrain(ctx context.Context, id uuid.UUID, whole bool) (*Terrain, error) {
	cols := "site_id, source, lat, lon, cell_deg, columns, rows, gaps, sigma_m, at, by_name"
	if whole {
		cols += ", heights"
	}
	var out []Terrain
	if err := s.DB.WithContext(ctx).Raw("select "+cols+" from site_terrain where site_id = ?",
		id).Scan(&out).Error; err != nil || len(out) == 0 {
		return nil, err
	}
	return &out[0], nil
}

// in puts the grid into the flat frame of the site: square cells as high as the
// grid's, each with the height of the cell it falls into.
func (t *Terrain) in(frame geo.Frame) *home.Terrain {
	if t == nil || len(t.Heights) == 0 {
		return nil
	}
	sw := frame.XY(geo.Point{Lat: t.Lat, Lon: t.Lon})
	ne := frame.XY(geo.Point{Lat: t.Lat + t.CellDeg*float64(t.Rows-1), Lon: t.Lon + t.CellDeg*float64(t.Columns-1)})
	cell := (ne.Y - sw.Y) / float64(t.Rows-1)
	cols := int((ne.X-sw.X)/cell) + 1
	out := &home.Terrain{Origin: sw, CellM: cell, Columns: cols, Rows: t.Rows, Heights: make([]float32, cols*t.Rows),
		SigmaM: t.SigmaM}
	step := (ne.X - sw.X) / float64(t.Columns-1)
	from := make([]int, cols)
	for c := range from {
		from[c] = 4 * min(t.Columns-1, int(float64(c)*cell/step+0.5))
	}
	for r := range t.Rows {
		row, into := t.Heights[4*r*t.Columns:], out.Heights[r*cols:(r+1)*cols]
		for c, at := range from {
			into[c] = math.Float32frombits(binary.LittleEndian.Uint32(row[at:]))
		}
	}
	return out
}
