// Package airspace keeps the zones round the crew's sites, what was asked for
// and granted, and the calls at start and end; and judges a flight against
// them.
package airspace

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"strings"
	"time"

	"github.com/google/uuid"
	"github.com/lib/pq"
	"gorm.io/gorm"

	"mainstay/api"
	"mainstay/core/airspace"
	"mainstay/core/geo"
	"mainstay/core/judge"
	"mainstay/core/site"
	"mainstay/internal/formats/geojson"
	"mainstay/internal/people"
	"mainstay/internal/platform/clock"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/platform/outside"
	"mainstay/internal/sites"
)

// Service keeps the airspace.
type Service struct {
	DB    *gorm.DB
	Clock clock.Clock
	Sites *sites.Service
	Desk  *outside.Link // an airspace desk on the network; nil: none
}

// Zone is a zone on file, with its outline on the globe.
type Zone struct {
	ID        uuid.UUID
	OutsideID string
	Name      string
	Class     string
	FloorM    *float64
	CeilingM  *float64
	FromAt    *time.Time
	ToAt      *time.Time
	Calls     bool
	Source    string
	TakenAt   time.Time
	ByName    string
	Outline   []geo.Point   `gorm:"-"`
	Holes     [][]geo.Point `gorm:"-"`
}

type zoneRow struct {
	Zone `gorm:"embedded"`
	Area string
}

type shape struct {
	Outline []geo.Point   `json:"outline"`
	Holes   [][]geo.Point `json:"holes"`
}

func (z Zone) in(frame geo.Frame) airspace.Zone {
	g := geojson.Zone{Outline: z.Outline, Holes: z.Holes}
	return airspace.Zone{ID: z.ID.String(), Name: z.Name, Class: airspace.Class(z.Class), Area: g.Area(frame), FloorM: z.FloorM, CeilingM: z.CeilingM, From: z.FromAt, To: z.ToAt}
}

// zones are all that are on file and not gone.
func (s *Service) zones(ctx context.Context) ([]Zone, error) {
	var rows []zoneRow
	if err := s.DB.WithContext(ctx).Raw("select id, outside_id, name, class, floor_m, ceiling_m, from_at, to_at, calls, source, taken_at, by_name, area from zones where gone_at is null order by name, id").Scan(&rows).Error; err != nil {
		return nil, err
	}
	out := make([]Zone, len(rows))
	for i, r := range rows {
		var a shape
		if err := json.Unmarshal([]byte(r.Area), &a); err != nil {
			return nil, err
		}
		out[i] = r.Zone
		out[i].Outline, out[i].Holes = a.Outline, a.Holes
	}
	return out, nil
}

// Look asks the desk which zones there are and notes that the site was looked
// up. Zones of the desk that it no longer gives are gone.
func (s *Service) Look(ctx context.Context, id uuid.UUID) error {
	if s.Desk == nil {
		return fault.Clash("no-desk", "No airspace desk is connected. Bring the zones in as a file.")
	}
	f, err := s.Sites.Get(ctx, id, false)
	if err != nil {
		return err
	}
	b, err := s.Desk.Get(ctx, fmt.Sprintf("/zones?lat=%.4f&lon=%.4f", f.Site.Lat, f.Site.Lon))
	if err != nil {
		return fault.Clash("desk", "The airspace desk does not answer. What is on file is unchanged and may be old; ask again, or bring the zones in as a file.")
	}
	return s.Take(ctx, id, b)
}

// Take keeps the zones that a desk gave for a site, all of them or none.
func (s *Service) Take(ctx context.Context, id uuid.UUID, b []byte) error {
	zones, refused, err := geojson.ReadZones(bytes.NewReader(b))
	if err != nil || len(refused) > 0 {
		// A zone that cannot be read may be the one that matters.
		return fault.Clash("desk", "The airspace desk answers what cannot be read. What is on file is unchanged and may be old; ask again, or bring the zones in as a file.")
	}
	return s.keep(ctx, id, "desk", zones, true)
}

// Import takes zones from a GeoJSON file and notes that the site was looked up
// when every zone in it could be read.
func (s *Service) Import(ctx context.Context, id uuid.UUID, r io.Reader) (api.ImportReport, error) {
	rep := api.NewImportReport()
	zones, refused, err := geojson.ReadZones(r)
	if err != nil {
		_, why, ok := strings.Cut(err.Error(), ": ")
		if !ok {
			return rep, err
		}
		return rep, fault.Bad("file", "The file cannot be read: %s. Nothing was saved.", why)
	}
	for _, x := range refused {
		rep.Refused = append(rep.Refused, api.RowProblem{Line: x.Number, Sentence: fmt.Sprintf("Zone %d (%s): %s.", x.Number, x.Name, x.Why)})
	}
	if len(zones) == 0 {
		why := ""
		if len(rep.Refused) > 0 {
			why = " " + rep.Refused[0].Sentence
		}
		return rep, fault.Bad("file", "There is no zone in the file that can be used.%s Nothing was saved.", why)
	}
	rep.Accepted = len(zones)
	return rep, s.keep(ctx, id, "file", zones, len(refused) == 0)
}

// keep puts zones on file. Those of a source that are no longer given are gone
// when whole says that all were given: the desk gives the whole district, a
// file only adds.
func (s *Service) keep(ctx context.Context, site uuid.UUID, source string, zones []geojson.Zone, whole bool) error {
	now, by := s.Clock.Now(), people.From(ctx).Name
	return db.Tx(ctx, s.DB, func(_ context.Context, tx *gorm.DB) error {
		var n int64
		if err := tx.Raw("select count(*) from sites where id = ?", site).Scan(&n).Error; err != nil {
			return err
		}
		if n == 0 {
			return fault.Missing("site")
		}
		seen := []string{}
		for _, z := range zones {
			area, err := json.Marshal(shape{z.Outline, z.Holes})
			if err != nil {
				return err
			}
			id, err := uuid.NewV7()
			if err != nil {
				return err
			}
			seen = append(seen, z.OutsideID)
			if err := tx.Exec(`insert into zones (id, outside_id, name, class, floor_m, ceiling_m, from_at, to_at, calls, area, source, taken_at, by_name) values (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)
				on conflict (source, outside_id) where gone_at is null do update set name = excluded.name, class = excluded.class, floor_m = excluded.floor_m, ceiling_m = excluded.ceiling_m, from_at = excluded.from_at,
					to_at = excluded.to_at, calls = excluded.calls, area = excluded.area, taken_at = excluded.taken_at, by_name = excluded.by_name`,
				id, z.OutsideID, z.Name, string(z.Class), z.FloorM, z.CeilingM, z.From, z.To, z.Calls, string(area), source, now, by).Error; err != nil {
				return err
			}
		}
		if source == "desk" {
			if err := tx.Exec("update zones set gone_at = ? where source = 'desk' and gone_at is null and not (outside_id = any(?::text[]))", now, pq.StringArray(seen)).Error; err != nil {
				return err
			}
		}
		if !whole {
			return nil
		}
		return tx.Exec("insert into site_airspace (site_id, looked_at, by_name, source) values (?, ?, ?, ?) on conflict (site_id) do update set looked_at = excluded.looked_at, by_name = excluded.by_name, source = excluded.source",
			site, now, by, source).Error
	})
}

// Remove takes a zone off the file. Those of the desk come and go with it.
func (s *Service) Remove(ctx context.Context, id uuid.UUID) error {
	res := s.DB.WithContext(ctx).Exec("update zones set gone_at = ? where id = ? and source = 'file' and gone_at is null", s.Clock.Now(), id)
	if res.Error == nil && res.RowsAffected == 0 {
		return fault.Missing("zone from a file")
	}
	return res.Error
}

// looked is when and by whom the airspace of a site was looked up last.
type looked struct {
	LookedAt *time.Time
	ByName   string
	Source   string
}

func (s *Service) looked(ctx context.Context, id uuid.UUID) (looked, error) {
	var l looked
	err := s.DB.WithContext(ctx).Raw("select looked_at, by_name, source from site_airspace where site_id = ?", id).Scan(&l).Error
	return l, err
}

// Seen is the airspace as a flight meets it.
type Seen struct {
	Zones    map[string]Zone
	Zoned    []airspace.Zoned
	Grants   []Authorisation
	Looked   looked
	Findings []judge.Finding
}

// reachM is how far round the route the airspace is looked at: the error of a
// position in flight and the room a turn takes.
const reachM = 30.0

// Meet judges a flight over places of a site in a window and up to a height
// above ground.
func (s *Service) Meet(ctx context.Context, id uuid.UUID, frame geo.Frame, places []geo.XY, heightM float64, from, to time.Time) (Seen, error) {
	zones, err := s.zones(ctx)
	if err != nil {
		return Seen{}, err
	}
	out := Seen{Zones: map[string]Zone{}}
	if out.Looked, err = s.looked(ctx, id); err != nil {
		return out, err
	}
	if out.Grants, err = s.Authorisations(ctx, id); err != nil {
		return out, err
	}
	plane := make([]airspace.Zone, len(zones))
	for i, z := range zones {
		plane[i] = z.in(frame)
		out.Zones[z.ID.String()] = z
	}
	var grants []airspace.Grant
	for _, a := range out.Grants {
		if a.State != withdrawn {
			grants = append(grants, a.fact())
		}
	}
	out.Zoned, out.Findings = airspace.Judge(airspace.Question{Places: places, ReachM: reachM, HeightM: heightM, From: from, To: to, Now: s.Clock.Now()}, plane, grants, out.Looked.LookedAt)
	for i := range out.Findings {
		out.Findings[i].Remedy = &judge.Remedy{Label: "Open the airspace", Kind: "site-airspace", ID: id.String()}
	}
	return out, nil
}

// Over judges the airspace of a site without a job: its route or, without one,
// its take-off place or origin.
func (s *Service) Over(ctx context.Context, id uuid.UUID, heightM float64, from, to time.Time) (Seen, error) {
	f, err := s.Sites.Get(ctx, id, false)
	if err != nil {
		return Seen{}, err
	}
	frame, err := f.Frame()
	if err != nil {
		return Seen{}, err
	}
	return s.Meet(ctx, id, frame, places(f, frame), heightM, from, to)
}

func places(f sites.File, frame geo.Frame) []geo.XY {
	var out []geo.XY
	if t := f.TakeOff(); t != nil {
		out = append(out, frame.XY(t.Places[0]))
	}
	out = append(out, f.Way(frame)...)
	for _, x := range f.Features { // of several work areas every corner counts
		if x.Kind == site.Work {
			out = append(out, frame.All(x.Places)...)
		}
	}
	if len(out) == 0 {
		out = append(out, geo.XY{})
	}
	return out
}

// InFlight judges what may end while an aircraft is in the air.
func InFlight(now time.Time, seen Seen) []judge.Finding { return airspace.InFlight(now, seen.Zoned) }
