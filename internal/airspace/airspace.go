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
	"slices"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/api"
	"mainstay/core/airspace"
	"mainstay/core/geo"
	"mainstay/core/judge"
	"mainstay/core/rules"
	"mainstay/core/site"
	"mainstay/core/wayhome"
	"mainstay/core/why"
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

	FloorDatum   string
	CeilingDatum string
	Source       string
	TakenAt      time.Time
	ByName       string
	Outline      []geo.Point   `gorm:"-"`
	Holes        [][]geo.Point `gorm:"-"`
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
	return airspace.Zone{ID: z.ID.String(), Name: z.Name, Class: airspace.Class(z.Class), Area: g.Area(frame),
		FloorM: z.FloorM, CeilingM: z.CeilingM, From: z.FromAt, To: z.ToAt, FloorDatum: airspace.Datum(z.FloorDatum),
		CeilingDatum: airspace.Datum(z.CeilingDatum)}
}

// zones are all that are on file and not gone.
func (s *Service) zones(ctx context.Context) ([]Zone, error) {
	var rows []zoneRow
	if err := s.DB.WithContext(ctx).Raw("select id, outside_id, name, class, floor_m, ceiling_m, floor_datum, ceiling_datum, from_at, to_at, calls, source, taken_at, by_name, area from zones where gone_at is null order by name, id").Scan(&rows).Error; err != nil {
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

// LookKm is how far round a site the desk is asked for zones, km.
const LookKm = 15.0

// Look asks the desk which zones there are round a site and notes that the site
// was looked up. Zones of the desk that lie in the area it answered for, and
// that it no longer gives, are gone; those elsewhere stay.
func (s *Service) Look(ctx context.Context, id uuid.UUID) error {
	if s.Desk == nil {
		return fault.Clash("no-desk", "No airspace desk is connected. Bring the zones in as a file.")
	}
	f, err := s.Sites.Get(ctx, id, false)
	if err != nil {
		return err
	}
	b, err := s.Desk.Get(ctx, fmt.Sprintf("/zones?lat=%.4f&lon=%.4f&radius_km=%.0f", f.Site.Lat, f.Site.Lon, LookKm))
	if err != nil {
		return fault.Clash("desk",
			"The airspace desk does not answer. What is on file is unchanged and may be old; ask again, or bring the zones in as a file.")
	}
	return s.Take(ctx, id, b)
}

// Take keeps the zones that a desk gave for a site, all of them or none.
func (s *Service) Take(ctx context.Context, id uuid.UUID, b []byte) error {
	zones, refused, err := geojson.ReadZones(bytes.NewReader(b))
	if err != nil || len(refused) > 0 {
		// A zone that cannot be read may be the one that matters.
		return fault.Clash("desk",
			"The airspace desk answers what cannot be read. What is on file is unchanged and may be old; ask again, or bring the zones in as a file.")
	}
	covers, err := geojson.ReadCovers(b)
	if err != nil {
		return fault.Clash("desk",
			"The airspace desk does not say for which area it answers. What is on file is unchanged and may be old; ask again, or bring the zones in as a file.")
	}
	return s.keep(ctx, id, "desk", zones, true, &covers)
}

// fileReachKm is how near a zone of a file that does not say what it covers has
// to lie, so that the file counts as an answer for a site.
const fileReachKm = 30

// Import takes zones from a GeoJSON file. The site counts as looked up when every
// zone in it could be read and the file is about it: it says that it covers the
// site, or has a zone near. A file that covers the site may hold no zone.
func (s *Service) Import(ctx context.Context, id uuid.UUID, r io.Reader) (api.ImportReport, error) {
	rep := api.NewImportReport()
	b, err := io.ReadAll(r)
	if err != nil {
		return rep, err
	}
	zones, refused, err := geojson.ReadZones(bytes.NewReader(b))
	if err != nil {
		reason, ok := why.Of(err)
		if !ok {
			return rep, err
		}
		return rep, fault.Bad("file", "The file cannot be read: %s. Nothing was saved.", reason)
	}
	for _, x := range refused {
		rep.Refused = append(rep.Refused, api.RowProblem{Line: x.Number,
			Sentence: fmt.Sprintf("Zone %d (%s): %s.", x.Number, x.Name, x.Why)})
	}
	covers, err := geojson.ReadCovers(b)
	says := err == nil
	if len(zones) == 0 && !(says && len(refused) == 0) {
		hint := " Where there is none, the file says which area it covers."
		if len(rep.Refused) > 0 {
			hint = " " + rep.Refused[0].Sentence
		}
		return rep, fault.Bad("file", "There is no zone in the file that can be used.%s Nothing was saved.", hint)
	}
	rep.Accepted = len(zones)
	if !says {
		return rep, s.keep(ctx, id, "file", zones, len(refused) == 0, nil)
	}
	return rep, s.keep(ctx, id, "file", zones, len(refused) == 0, &covers)
}

// keep puts zones on file. Those of the desk that lie in the area it answered
// for and are no longer given are gone; a file only adds. whole says that all
// that was given could be read: only then the site counts as looked up, and by
// the desk only when its area holds the site.
func (s *Service) keep(ctx context.Context, site uuid.UUID, source string, zones []geojson.Zone, whole bool,
	covers *geojson.Circle) error {
	now, by := s.Clock.Now(), people.From(ctx).Name
	head, err := s.Sites.Get(ctx, site, false)
	if err != nil {
		return err
	}
	at := head.Site.Origin()
	if covers != nil && !covers.Around(at, airspace.Near) {
		if source == "file" {
			return fault.Bad("file", "The file does not cover this site and %.0f km round it. Nothing was saved.",
				airspace.Near/1000)
		}
		return fault.Clash("desk",
			"The airspace desk did not answer for this site and what lies round it. What is on file is unchanged; ask again, or bring the zones in as a file.")
	}
	if covers == nil {
		near := geojson.Circle{At: at, RadiusM: fileReachKm * 1000}
		whole = whole && slices.ContainsFunc(zones, func(z geojson.Zone) bool { return near.Meets(z.Outline) })
	}
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		seen := map[string]bool{}
		for _, z := range zones {
			area, err := json.Marshal(shape{z.Outline, z.Holes})
			if err != nil {
				return err
			}
			id, err := uuid.NewV7()
			if err != nil {
				return err
			}
			seen[z.OutsideID] = true
			if err := tx.Exec(`insert into zones (id, outside_id, name, class, floor_m, ceiling_m, floor_datum, ceiling_datum, from_at, to_at, calls, area, source, taken_at, by_name) values (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)
				on conflict (source, outside_id) where gone_at is null do update set name = excluded.name, class = excluded.class, floor_m = excluded.floor_m, ceiling_m = excluded.ceiling_m, floor_datum = excluded.floor_datum, ceiling_datum = excluded.ceiling_datum,
					from_at = excluded.from_at, to_at = excluded.to_at, calls = excluded.calls, area = excluded.area, taken_at = excluded.taken_at, by_name = excluded.by_name`,
				id, z.OutsideID, z.Name, string(z.Class), z.FloorM, z.CeilingM, string(z.FloorDatum), string(z.CeilingDatum),
				z.From, z.To, z.Calls, string(area), source, now, by).Error; err != nil {
				return err
			}
		}
		if covers != nil && source == "desk" {
			if err := s.dropGone(ctx, tx, *covers, seen, now); err != nil {
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

// dropGone takes zones of the desk off the file that reach into the area it
// answered for and that it did not give.
func (s *Service) dropGone(ctx context.Context, tx *gorm.DB, covers geojson.Circle, seen map[string]bool,
	now time.Time) error {
	on := *s
	on.DB = tx
	all, err := on.zones(ctx)
	if err != nil {
		return err
	}
	for _, z := range all {
		if z.Source != "desk" || seen[z.OutsideID] || !covers.Meets(z.Outline) {
			continue
		}
		if err := tx.Exec("update zones set gone_at = ? where id = ?", now, z.ID).Error; err != nil {
			return err
		}
	}
	return nil
}

// Remove takes a zone off the file. Those of the desk come and go with it.
func (s *Service) Remove(ctx context.Context, id uuid.UUID) error {
	res := s.DB.WithContext(ctx).Exec("update zones set gone_at = ? where id = ? and source = 'file' and gone_at is null",
		s.Clock.Now(), id)
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
	err := s.DB.WithContext(ctx).Raw("select looked_at, by_name, source from site_airspace where site_id = ?",
		id).Scan(&l).Error
	return l, err
}

// Seen is the airspace as a flight meets it.
type Seen struct {
	Zones    map[string]Zone
	Zoned    []airspace.Zoned
	Grants   []Authorisation
	Looked   looked
	Law      rules.Law
	HeightM  float64 // that was judged, when none was given
	Findings []judge.Finding
}

// reachM is how far round the route the airspace is looked at: the error of a
// position in flight and the room a turn takes.
const reachM = 30.0

// Flown is a flight over a site as the airspace meets it.
type Flown struct {
	Law      rules.Law
	Frame    geo.Frame
	Places   []geo.XY // take-off place, then the route
	Second   []geo.XY // second landing place; empty: none
	HeightM  float64  // highest place above ground
	TopM     *float64 // highest elevation; nil: not known
	QNH      *float64
	From, To time.Time
}

// Meet judges a flight of a site: its route and the whole fan of ways home.
func (s *Service) Meet(ctx context.Context, id uuid.UUID, f Flown) (Seen, error) {
	zones, err := s.zones(ctx)
	if err != nil {
		return Seen{}, err
	}
	out := Seen{Zones: map[string]Zone{}, Law: f.Law}
	if out.Looked, err = s.looked(ctx, id); err != nil {
		return out, err
	}
	if out.Grants, err = s.Authorisations(ctx, id); err != nil {
		return out, err
	}
	plane := make([]airspace.Zone, len(zones))
	for i, z := range zones {
		plane[i] = z.in(f.Frame)
		out.Zones[z.ID.String()] = z
	}
	var grants []airspace.Grant
	for _, a := range out.Grants {
		if a.State != withdrawn {
			grants = append(grants, a.fact())
		}
	}
	q := airspace.Question{Law: f.Law, Places: f.Places, ReachM: reachM, HeightM: f.HeightM, TopM: f.TopM, QNH: f.QNH,
		From: f.From, To: f.To, Now: s.Clock.Now()}
	if len(f.Places) > 1 {
		q.Homes = append([]geo.XY{f.Places[0]}, f.Second...)
	}
	out.Zoned, out.Findings = airspace.Judge(q, plane, grants, out.Looked.LookedAt)
	for i := range out.Findings {
		out.Findings[i].Remedy = &judge.Remedy{Kind: judge.OpenAirspace, ID: id.String()}
	}
	return out, nil
}

// Over judges the airspace of a site without a job: its route or, without one,
// its take-off place or origin. A height of 0 is the limit of the law there.
func (s *Service) Over(ctx context.Context, id uuid.UUID, heightM float64, from, to time.Time) (Seen, error) {
	c, law, err := s.Sites.Charted(ctx, id)
	if err != nil {
		return Seen{}, err
	}
	if heightM <= 0 {
		heightM = law.HeightM
	}
	var top *float64
	if c.ElevationM != nil {
		top = new(*c.ElevationM + heightM)
	}
	seen, err := s.Meet(ctx, id, Flown{Law: law, Frame: c.Frame, Places: places(c), HeightM: heightM, TopM: top,
		From: from, To: to})
	seen.HeightM = heightM
	return seen, err
}

func places(c wayhome.Chart) []geo.XY {
	var out []geo.XY
	if t := c.Place(""); t != nil {
		out = append(out, c.Frame.XY(t.Places[0]))
	}
	out = append(out, c.Way()...)
	for _, x := range c.Features { // of several work areas every corner counts
		if x.Kind == site.Work {
			out = append(out, c.Frame.All(x.Places)...)
		}
	}
	if len(out) == 0 {
		out = append(out, geo.XY{})
	}
	return out
}

// InFlight judges what may end while an aircraft is in the air.
func InFlight(now time.Time, seen Seen) []judge.Finding {
	return airspace.InFlight(now, seen.Law, seen.Zoned)
}
