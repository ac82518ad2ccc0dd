// Package workshop keeps aircraft fit to fly: the maintenance programme of each
// type, what is due, work orders, deferrals, return to service, stock and
// firmware.
package workshop

import (
	"context"
	"embed"
	"encoding/json"
	"fmt"
	"io/fs"
	"slices"

	"gorm.io/gorm"

	"mainstay/core/airframe"
	"mainstay/core/upkeep"
	"mainstay/internal/fleet"
	"mainstay/internal/people"
	"mainstay/internal/platform/clock"
	"mainstay/internal/platform/fault"
	"mainstay/internal/platform/versions"
	"mainstay/internal/records"
	"mainstay/internal/walkround"
)

//go:embed shipped/*.json
var shipped embed.FS

// Service holds the use cases of the workshop.
type Service struct {
	DB         *gorm.DB
	Clock      clock.Clock
	People     *people.Service
	Fleet      *fleet.Service
	Walkrounds *walkround.Service
	Kept       *versions.Kept[upkeep.Programme] // programmes already read
}

// Shipped returns the programmes that come with the program.
func Shipped() ([]upkeep.Programme, error) {
	files, err := fs.Glob(shipped, "shipped/*.json")
	if err != nil {
		return nil, err
	}
	var out []upkeep.Programme
	for _, f := range files {
		b, err := shipped.ReadFile(f)
		if err != nil {
			return nil, err
		}
		var p upkeep.Programme
		if err := json.Unmarshal(b, &p); err != nil {
			return nil, fmt.Errorf("%s: %w", f, err)
		}
		out = append(out, p)
	}
	return out, nil
}

// SeedProgrammes puts shipped programmes into a database that does not have
// them.
func (s *Service) SeedProgrammes(ctx context.Context) error {
	ps, err := Shipped()
	if err != nil {
		return err
	}
	for _, p := range ps {
		b, err := json.Marshal(p)
		if err != nil {
			return err
		}
		if err := s.DB.WithContext(ctx).Exec("insert into programmes (type_key, version, content, created_at) values (?, ?, ?, ?) on conflict do nothing",
			p.TypeKey, p.Version, string(b), s.Clock.Now()).Error; err != nil {
			return err
		}
	}
	return nil
}

// Programmes returns the newest programme of every type that has one.
func (s *Service) Programmes(ctx context.Context) (map[string]upkeep.Programme, error) {
	return s.Kept.Newest(s.DB.WithContext(ctx), versions.Table{Name: "programmes", Key: "type_key", Content: "content"})
}

// Programme returns the newest programme of a type.
func (s *Service) Programme(ctx context.Context, key string) (upkeep.Programme, error) {
	m, err := s.Programmes(ctx)
	if err != nil {
		return upkeep.Programme{}, err
	}
	p, ok := m[key]
	if !ok {
		return p, fault.Missing("maintenance programme")
	}
	return p, nil
}

// AddProgramme adds a version of a programme. Work orders keep the steps they
// were opened with.
func (s *Service) AddProgramme(ctx context.Context, key string, p upkeep.Programme) error {
	t, err := s.Fleet.Type(ctx, key)
	if err != nil {
		return err
	}
	if p.TypeKey != key {
		return fault.Bad("type_key", "This programme is for %q, not for %q.", p.TypeKey, key)
	}
	if err := Check(p, t); err != nil {
		return fault.Bad("tasks", "%s.", err)
	}
	b, err := json.Marshal(p)
	if err != nil {
		return err
	}
	_, err = records.Change(ctx, s.DB, records.Entry{Kind: records.FileTaken, At: s.Clock.Now(), By: people.From(ctx).By(),
		Summary: fmt.Sprintf("Programme of %s, version %d, taken in.", t.Name, p.Version), Content: p},
		"insert into programmes (type_key, version, content, created_at) values (?, ?, ?, ?)", key, p.Version, string(b),
		s.Clock.Now())
	return err
}

// Check holds a programme against its type.
func Check(p upkeep.Programme, t airframe.Type) error {
	var ids, kinds []string
	for _, st := range t.Stations() {
		ids = append(ids, st.ID)
		if !slices.Contains(kinds, st.Kind) {
			kinds = append(kinds, st.Kind)
		}
	}
	return p.Validate(ids, kinds)
}
