// Package fleet keeps the aircraft, their types, the parts fitted to them and
// the packs: what each thing is, where it is and what it has been through.
package fleet

import (
	"cmp"
	"context"
	"embed"
	"encoding/json"
	"fmt"
	"io/fs"
	"maps"
	"slices"

	"gorm.io/gorm"

	"mainstay/core/airframe"
	"mainstay/core/practice"
	"mainstay/internal/people"
	"mainstay/internal/platform/clock"
	"mainstay/internal/platform/fault"
	"mainstay/internal/platform/versions"
	"mainstay/internal/records"
)

//go:embed shipped/*.json
var shipped embed.FS

// Service holds the use cases of the fleet.
type Service struct {
	DB     *gorm.DB
	Clock  clock.Clock
	People *people.Service
	Kept   *versions.Kept[airframe.Type] // profiles already read
}

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

// Types returns the newest version of every type, by key.
func (s *Service) Types(ctx context.Context) ([]airframe.Type, error) {
	m, err := s.typesByKey(ctx)
	return slices.SortedFunc(maps.Values(m), func(a, b airframe.Type) int { return cmp.Compare(a.Key, b.Key) }), err
}

// typesByKey returns the newest version of every type by key, as the crew flies it.
func (s *Service) typesByKey(ctx context.Context) (map[string]airframe.Type, error) {
	m, err := s.Kept.Newest(s.DB.WithContext(ctx), versions.Table{Name: "aircraft_types", Key: "key", Content: "profile"})
	if err != nil {
		return nil, err
	}
	kept, err := s.Practice(ctx)
	for k, t := range m {
		t.Practice = kept
		m[k] = t
	}
	return m, err
}

// Practice is what the crew chose where crews differ.
func (s *Service) Practice(ctx context.Context) (practice.Settings, error) {
	var text string
	if err := s.DB.WithContext(ctx).Raw("select practices from crew").Scan(&text).Error; err != nil || text == "" {
		return nil, err
	}
	var out practice.Settings
	err := json.Unmarshal([]byte(text), &out)
	return out, err
}

// Type returns the newest version of one type.
func (s *Service) Type(ctx context.Context, key string) (airframe.Type, error) {
	m, err := s.typesByKey(ctx)
	if err != nil {
		return airframe.Type{}, err
	}
	t, ok := m[key]
	if !ok {
		return t, fault.Missing("type")
	}
	return t, nil
}

// AddType adds a type or a new version of one.
func (s *Service) AddType(ctx context.Context, t airframe.Type) error {
	if have, err := s.Type(ctx, t.Key); err == nil && t.Version <= have.Version {
		return fault.Bad("version", "Version %d of this type is there already: give this one %d.", have.Version,
			have.Version+1)
	}
	var wrong []fault.Field
	for _, w := range t.Wrong() {
		wrong = append(wrong, fault.Field{Field: w.Path, Sentence: w.Sentence})
	}
	if err := fault.BadFields(wrong); err != nil {
		return err
	}
	b, err := json.Marshal(t)
	if err != nil {
		return err
	}
	_, err = records.Change(ctx, s.DB, records.Entry{Kind: records.FileTaken, At: s.Clock.Now(), By: people.From(ctx).By(),
		Summary: fmt.Sprintf("Type %s, version %d, taken in.", t.Name, t.Version), Content: t},
		"insert into aircraft_types (key, version, profile, created_at) values (?, ?, ?, ?)", t.Key, t.Version, string(b),
		s.Clock.Now())
	return err
}
