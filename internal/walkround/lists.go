// Package walkround runs checklists on aircraft: versioned lists, runs with
// their entries, defects and photos.
package walkround

import (
	"context"
	"embed"
	"encoding/json"
	"fmt"
	"io/fs"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/checks"
	"mainstay/internal/fleet"
	"mainstay/internal/people"
	"mainstay/internal/platform/clock"
	"mainstay/internal/platform/fault"
	"mainstay/internal/platform/outside"
	"mainstay/internal/platform/photos"
	"mainstay/internal/records"
)

//go:embed shipped/*.json
var shipped embed.FS

// Service holds the use cases of walkrounds.
type Service struct {
	DB     *gorm.DB
	Clock  clock.Clock
	Fleet  *fleet.Service
	People *people.Service
	Photos photos.Store
	Link   *outside.Link // to aircraft on the network; nil: none
	// Today says what is known about a flight that is about to be checked; nil: nothing is.
	Today func(ctx context.Context, aircraft uuid.UUID, job *uuid.UUID, packs []uuid.UUID) (Today, error)
	heard heard
}

type listRow struct {
	TypeKey   string
	Version   int
	Content   checks.List `gorm:"serializer:json"`
	CreatedAt time.Time
}

func (listRow) TableName() string { return "checklists" }

// SeedLists puts shipped checklists into a database that does not have them.
func (s *Service) SeedLists(ctx context.Context) error {
	files, err := fs.Glob(shipped, "shipped/*.json")
	if err != nil {
		return err
	}
	for _, f := range files {
		b, err := shipped.ReadFile(f)
		if err != nil {
			return err
		}
		var l checks.List
		if err := json.Unmarshal(b, &l); err != nil {
			return fmt.Errorf("%s: %w", f, err)
		}
		if err := s.DB.WithContext(ctx).Exec("insert into checklists (type_key, version, content, created_at) values (?, ?, ?, ?) on conflict do nothing",
			l.Type, l.Version, string(b), s.Clock.Now()).Error; err != nil {
			return err
		}
	}
	return nil
}

// List returns a checklist of a type: the given version, or the newest for 0.
func (s *Service) List(ctx context.Context, typeKey string, version int) (checks.List, error) {
	q := s.DB.WithContext(ctx).Order("version desc").Limit(1).Where("type_key = ?", typeKey)
	if version > 0 {
		q = q.Where("version = ?", version)
	}
	var r listRow
	if err := q.Find(&r).Error; err != nil {
		return checks.List{}, err
	}
	if r.TypeKey == "" {
		return checks.List{}, fault.Missing("checklist")
	}
	return r.Content, nil
}

// AddList adds a version of a checklist. Runs keep the version they ran with.
func (s *Service) AddList(ctx context.Context, typeKey string, l checks.List) error {
	t, err := s.Fleet.Type(ctx, typeKey)
	if err != nil {
		return err
	}
	if err := l.Validate(t); err != nil {
		return fault.Bad("sections", "%s.", err)
	}
	b, err := json.Marshal(l)
	if err != nil {
		return err
	}
	_, err = records.Change(ctx, s.DB, records.Entry{Kind: records.FileTaken, At: s.Clock.Now(), By: people.From(ctx).By(),
		Summary: fmt.Sprintf("Checklist of %s, version %d, taken in.", t.Name, l.Version), Content: l},
		"insert into checklists (type_key, version, content, created_at) values (?, ?, ?, ?)", l.Type, l.Version, string(b),
		s.Clock.Now())
	return err
}
