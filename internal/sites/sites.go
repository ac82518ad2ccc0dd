// Package sites keeps site files: what is on the map of a place of work, its
// terrain, and the weather that was read there; and judges the way home and the
// air over them.
package sites

import (
	"context"
	"encoding/json"
	"strings"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/crew"
	"mainstay/core/geo"
	"mainstay/core/judge"
	"mainstay/core/site"
	"mainstay/core/why"
	"mainstay/internal/fleet"
	"mainstay/internal/people"
	"mainstay/internal/platform/clock"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/platform/outside"
)

// Service keeps site files.
type Service struct {
	DB      *gorm.DB
	Clock   clock.Clock
	People  *people.Service
	Fleet   *fleet.Service
	Weather *outside.Link // a weather service; nil: none

	kept kept
}

// Site is the head of a site file.
type Site struct {
	ID         uuid.UUID
	Name       string
	Note       string
	Lat, Lon   float64
	ElevationM *float64 `gorm:"column:elevation_m"` // of the ground: entered, or else from the terrain; nil: not known
	Practice   bool     // a base or practice site
	Version    int
	CreatedAt  time.Time
	CreatedBy  string
	Features   int `gorm:"->"` // in lists
}

// Origin is the place the site's frame is made around.
func (s Site) Origin() geo.Point { return geo.Point{Lat: s.Lat, Lon: s.Lon} }

// Feature is one thing on the map, with who changed it last.
type Feature struct {
	site.Feature
	Version   int
	ChangedAt time.Time
	ChangedBy string
}

// File is a whole site file.
type File struct {
	Site     Site
	Features []Feature
	Terrain  *Terrain
	Removed  []Feature // removed within the last day: may come back
}

// Plain are the features without their history of changes.
func (f File) Plain() []site.Feature {
	out := make([]site.Feature, len(f.Features))
	for i, x := range f.Features {
		out[i] = x.Feature
	}
	return out
}

// Frame is the flat frame of the site. The origin was checked when it was
// stored.
func (f File) Frame() (geo.Frame, error) { return geo.NewFrame(f.Site.Origin()) }

// List returns all sites by name.
func (s *Service) List(ctx context.Context) ([]Site, error) {
	var out []Site
	err := s.DB.WithContext(ctx).Raw(`select s.*, (select count(*) from site_features f where f.site_id = s.id and f.removed_at is null) as features from sites s order by lower(s.name)`).Scan(&out).Error
	return out, err
}

// Add begins a site file.
func (s *Service) Add(ctx context.Context, n Site) error {
	if err := n.check(); err != nil {
		return err
	}
	if n.Practice && !people.From(ctx).Has(crew.Chief) {
		return onlyChief
	}
	return db.Translate(s.DB.WithContext(ctx).Exec("insert into sites (id, name, note, lat, lon, elevation_m, practice, created_at, created_by) values (?, ?, ?, ?, ?, ?, ?, ?, ?) on conflict (id) do nothing",
		n.ID, n.Name, n.Note, n.Lat, n.Lon, n.ElevationM, n.Practice, s.Clock.Now(), people.From(ctx).Name).Error)
}

// onlyChief refuses the mark that lets people fly who are not ready yet.
var onlyChief = fault.Denied("Only a chief says which sites are bases or practice sites. Nothing was saved.")

func (n *Site) check() error {
	n.Name, n.Note = strings.TrimSpace(n.Name), strings.TrimSpace(n.Note)
	if n.Name == "" {
		return fault.Bad("name", "Enter what the site is called.")
	}
	if err := n.Origin().Check(); err != nil {
		return fault.Bad("lat", "The place cannot be used: %s.", why.Words(err))
	}
	return nil
}

// Change changes the head, if nobody did so meanwhile.
func (s *Service) Change(ctx context.Context, n Site) error {
	if err := n.check(); err != nil {
		return err
	}
	f, err := s.Get(ctx, n.ID, n.ElevationM == nil)
	if err != nil {
		return err
	}
	if n.ElevationM == nil {
		n.ElevationM = f.Terrain.ground(n.Origin())
	}
	if n.Practice != f.Site.Practice && !people.From(ctx).Has(crew.Chief) {
		return onlyChief
	}
	for _, x := range f.Features {
		if x.Near(n.Origin()) != nil {
			return fault.Bad("lat",
				"What is charted on the map lies far from there; this would be another site. Nothing was saved.")
		}
	}
	res := s.DB.WithContext(ctx).Exec("update sites set name = ?, note = ?, lat = ?, lon = ?, elevation_m = ?, practice = ?, version = version + 1 where id = ? and version = ?",
		n.Name, n.Note, n.Lat, n.Lon, n.ElevationM, n.Practice, n.ID, n.Version)
	if res.Error == nil && res.RowsAffected == 0 {
		return fault.Stale("site")
	}
	return db.Translate(res.Error)
}

type featureRow struct {
	ID        uuid.UUID
	SiteID    uuid.UUID
	Content   string
	Version   int
	ChangedAt time.Time
	ChangedBy string
	RemovedAt *time.Time
}

func (r featureRow) feature() (Feature, error) {
	out := Feature{Version: r.Version, ChangedAt: r.ChangedAt, ChangedBy: r.ChangedBy}
	err := json.Unmarshal([]byte(r.Content), &out.Feature)
	return out, err
}

// head is the head of a site file.
func (s *Service) head(ctx context.Context, id uuid.UUID) (Site, error) {
	var out Site
	if err := s.DB.WithContext(ctx).Limit(1).Find(&out, "id = ?", id).Error; err != nil {
		return out, err
	}
	if out.ID == uuid.Nil {
		return out, fault.Missing("site")
	}
	return out, nil
}

// origin is where a site lies.
func (s *Service) origin(ctx context.Context, id uuid.UUID) (geo.Point, error) {
	out, err := s.head(ctx, id)
	return out.Origin(), err
}

// Restorable is how long a removed feature may come back.
const Restorable = 24 * time.Hour

// Get returns a site file. With terrain false its grid is left out.
func (s *Service) Get(ctx context.Context, id uuid.UUID, terrain bool) (File, error) {
	g := s.DB.WithContext(ctx)
	var out File
	if err := g.Limit(1).Find(&out.Site, "id = ?", id).Error; err != nil {
		return out, err
	}
	if out.Site.ID == uuid.Nil {
		return out, fault.Missing("site")
	}
	var rows []featureRow
	if err := g.Raw("select id, content, version, changed_at, changed_by, removed_at from site_features where site_id = ? and (removed_at is null or removed_at > ?) order by id",
		id, s.Clock.Now().Add(-Restorable)).Scan(&rows).Error; err != nil {
		return out, err
	}
	for _, r := range rows {
		f, err := r.feature()
		if err != nil {
			return out, err
		}
		if r.RemovedAt == nil {
			out.Features = append(out.Features, f)
		} else {
			out.Removed = append(out.Removed, f)
		}
	}
	t, err := s.terrain(ctx, id, terrain)
	out.Terrain = t
	return out, err
}

// SaveFeature puts a feature on the map, or changes it if nobody did so
// meanwhile; version 0 means it is new. A height that changes keeps the earlier
// one in its history.
func (s *Service) SaveFeature(ctx context.Context, id uuid.UUID, f site.Feature, version int) error {
	if err := f.Check(); err != nil {
		return sentence(err)
	}
	origin, err := s.origin(ctx, id)
	if err != nil {
		return err
	}
	if err := f.Near(origin); err != nil {
		return sentence(err)
	}
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		var old []featureRow
		if err := tx.Raw("select id, content, version, changed_at, changed_by, removed_at from site_features where id = ? and site_id = ? for no key update",
			f.ID, id).Scan(&old).Error; err != nil {
			return err
		}
		now, by := s.Clock.Now(), people.From(ctx).Name
		f.Heights = nil
		if len(old) == 1 {
			was, err := old[0].feature()
			switch {
			case err != nil:
				return err
			case version == 0 && old[0].RemovedAt == nil && sameFeature(was.Feature, f):
				return nil // the same press sent twice
			case version != old[0].Version:
				return fault.Stale("feature")
			}
			f.Heights = history(was, f)
		} else if version != 0 {
			return fault.Missing("feature")
		} else if err := room(tx, id, 1); err != nil {
			return err
		}
		content, err := json.Marshal(f)
		if err != nil {
			return err
		}
		res := tx.Exec(`insert into site_features (id, site_id, content, changed_at, changed_by) values (?, ?, ?, ?, ?)
			on conflict (id) do update set content = excluded.content, version = site_features.version + 1, changed_at = excluded.changed_at, changed_by = excluded.changed_by, removed_at = null
			where site_features.site_id = excluded.site_id`,
			f.ID, id, string(content), now, by)
		if res.Error == nil && res.RowsAffected == 0 {
			return fault.Clash("id-in-use", "A feature of another site has this id. Nothing was saved.")
		}
		return res.Error
	})
}

func sameFeature(a, b site.Feature) bool {
	a.Heights, b.Heights = nil, nil
	x, errX := json.Marshal(a)
	y, errY := json.Marshal(b)
	return errX == nil && errY == nil && string(x) == string(y)
}

// history keeps the earlier height when it was measured anew.
func history(was Feature, f site.Feature) []site.Height {
	same := (was.HeightM == nil) == (f.HeightM == nil) && (f.HeightM == nil || *was.HeightM == *f.HeightM) &&
		was.SigmaM == f.SigmaM && was.Measured == f.Measured
	if same || was.HeightM == nil && len(was.Heights) == 0 {
		return was.Heights
	}
	return append(was.Heights, site.Height{M: was.HeightM, SigmaM: was.SigmaM, Measured: was.Measured, By: was.ChangedBy,
		At: was.ChangedAt.UTC().Format(time.RFC3339)})
}

// room refuses more features than a site may have.
func room(tx *gorm.DB, id uuid.UUID, more int) error {
	var sites, n int64
	if err := tx.Raw("select count(*) from sites where id = ?", id).Scan(&sites).Error; err != nil {
		return err
	}
	if sites == 0 {
		return fault.Missing("site")
	}
	if err := tx.Raw("select count(*) from site_features where site_id = ? and removed_at is null",
		id).Scan(&n).Error; err != nil {
		return err
	}
	if int(n)+more > site.MaxFeatures {
		return fault.Bad("file", "A site has at most %d features; it has %d, and this brings %d more. Nothing was saved.",
			site.MaxFeatures, n, more)
	}
	return nil
}

func sentence(err error) error {
	return fault.Bad("feature", "%s. Nothing was saved.", judge.Capital(why.Words(err)))
}

// RemoveFeature takes a feature off the map; Restore brings it back within a
// day.
func (s *Service) RemoveFeature(ctx context.Context, id, feature uuid.UUID) error {
	return s.mark(ctx, "update site_features set removed_at = ?, version = version + 1, changed_by = ? where site_id = ? and id = ? and removed_at is null",
		s.Clock.Now(), people.From(ctx).Name, id, feature)
}

// RestoreFeature brings a removed feature back.
func (s *Service) RestoreFeature(ctx context.Context, id, feature uuid.UUID) error {
	return s.mark(ctx, "update site_features set removed_at = null, version = version + 1, changed_by = ? where site_id = ? and id = ? and removed_at > ?",
		people.From(ctx).Name, id, feature, s.Clock.Now().Add(-Restorable))
}

func (s *Service) mark(ctx context.Context, sql string, args ...any) error {
	res := s.DB.WithContext(ctx).Exec(sql, args...)
	if res.Error == nil && res.RowsAffected == 0 {
		return fault.Missing("feature")
	}
	return res.Error
}
