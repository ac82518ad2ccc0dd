// Package fleet keeps the aircraft, their types, the parts fitted to them and
// the packs: what each thing is, where it is and what it has been through.
package fleet

import (
	"context"
	"embed"
	"encoding/json"
	"fmt"
	"io/fs"
	"time"

	"gorm.io/gorm"

	"mainstay/core/airframe"
	"mainstay/internal/people"
	"mainstay/internal/platform/clock"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
)

//go:embed shipped/*.json
var shipped embed.FS

// Service holds the use cases of the fleet.
type Service struct {
	DB     *gorm.DB
	Clock  clock.Clock
	People *people.Service
}

type typeRow struct {
	Key       string
	Version   int
	Profile   airframe.Type `gorm:"serializer:json"`
	CreatedAt time.Time
}

func (typeRow) TableName() string { return "aircraft_types" }

// Shipped returns the profiles that come with the program.
func Shipped() ([]airframe.Type, error) {
	files, err := fs.Glob(shipped, "shipped/*.json")
	if err != nil {
		return nil, err
	}
	var out []airframe.Type
	for _, f := range files {
		b, err := shipped.ReadFile(f)
		if err != nil {
			return nil, err
		}
		var t airframe.Type
		if err := json.Unmarshal(b, &t); err != nil {
			return nil, fmt.Errorf("%s: %w", f, err)
		}
		if err := t.Validate(); err != nil {
			return nil, fmt.Errorf("%s: %w", f, err)
		}
		out = append(out, t)
	}
	return out, nil
}

// SeedTypes puts shipped profiles into a database that does not have them.
func (s *Service) SeedTypes(ctx context.Context) error {
	types, err := Shipped()
	if err != nil {
		return err
	}
	for _, t := range types {
		b, err := json.Marshal(t)
		if err != nil {
			return err
		}
		if err := s.DB.WithContext(ctx).Exec("insert into aircraft_types (key, version, profile, created_at) values (?, ?, ?, ?) on conflict do nothing",
			t.Key, t.Version, string(b), s.Clock.Now()).Error; err != nil {
			return err
		}
	}
	return nil
}

// Types returns the newest version of every type.
func (s *Service) Types(ctx context.Context) ([]airframe.Type, error) {
	var rows []typeRow
	err := s.DB.WithContext(ctx).Raw("select distinct on (key) key, version, profile from aircraft_types order by key, version desc").Scan(&rows).Error
	out := make([]airframe.Type, len(rows))
	for i, r := range rows {
		out[i] = r.Profile
	}
	return out, err
}

// typesByKey returns the newest version of every type by key.
func (s *Service) typesByKey(ctx context.Context) (map[string]airframe.Type, error) {
	ts, err := s.Types(ctx)
	out := make(map[string]airframe.Type, len(ts))
	for _, t := range ts {
		out[t.Key] = t
	}
	return out, err
}

// Type returns the newest version of one type.
func (s *Service) Type(ctx context.Context, key string) (airframe.Type, error) {
	var r typeRow
	if err := s.DB.WithContext(ctx).Raw("select * from aircraft_types where key = ? order by version desc limit 1", key).Scan(&r).Error; err != nil {
		return airframe.Type{}, err
	}
	if r.Key == "" {
		return airframe.Type{}, fault.Missing("type")
	}
	return r.Profile, nil
}

// AddType adds a type or a new version of one.
func (s *Service) AddType(ctx context.Context, t airframe.Type) error {
	if err := t.Validate(); err != nil {
		return fault.Bad("profile", "%s.", err)
	}
	b, err := json.Marshal(t)
	if err != nil {
		return err
	}
	return db.Translate(s.DB.WithContext(ctx).Exec("insert into aircraft_types (key, version, profile, created_at) values (?, ?, ?, ?)", t.Key, t.Version, string(b), s.Clock.Now()).Error)
}
