package workshop

import (
	"context"
	"encoding/json"
	"fmt"
	"slices"
	"strings"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/firmware"
	"mainstay/core/upkeep"
	"mainstay/internal/fleet"
	"mainstay/internal/people"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
)

// FirmwareSet is a tested combination of a type.
type FirmwareSet struct {
	TypeKey   string
	Version   int
	Content   firmware.Set `gorm:"serializer:json"`
	Note      string
	CreatedAt time.Time
}

// TableName is the table of sets.
func (FirmwareSet) TableName() string { return "firmware_sets" }

// Installed is the version of one component on one aircraft.
type Installed struct {
	ThingID   uuid.UUID
	Component string
	Version   string
	At        time.Time
	ByName    string
}

// firmwares is what is wanted by type and installed by aircraft.
type firmwares struct {
	sets map[string]FirmwareSet
	have map[uuid.UUID][]Installed
}

func (s *Service) firmwareOf(ctx context.Context, ids []uuid.UUID) (firmwares, error) {
	f := firmwares{map[string]FirmwareSet{}, map[uuid.UUID][]Installed{}}
	var sets []FirmwareSet
	if err := s.DB.WithContext(ctx).Raw("select distinct on (type_key) * from firmware_sets order by type_key, version desc").Scan(&sets).Error; err != nil {
		return f, err
	}
	for _, x := range sets {
		f.sets[x.TypeKey] = x
	}
	sql, args := "select thing_id, component, version, at, by_name from firmware_installed", []any{}
	if ids != nil {
		sql, args = sql+" where thing_id in ?", []any{ids}
	}
	err := db.Each(ctx, s.DB, sql, args, func(scan func(...any) error) error {
		var r Installed
		if err := scan(&r.ThingID, &r.Component, &r.Version, &r.At, &r.ByName); err != nil {
			return err
		}
		f.have[r.ThingID] = append(f.have[r.ThingID], r)
		return nil
	})
	return f, err
}

func (f firmwares) against(a fleet.Aircraft) []firmware.Finding {
	have := firmware.Set{}
	for _, i := range f.have[a.ID] {
		have[firmware.Component(i.Component)] = i.Version
	}
	return firmware.Compare(f.sets[a.TypeKey].Content, have, a.Flights == 0)
}

// FirmwareSetOf returns the newest tested combination of a type.
func (s *Service) FirmwareSetOf(ctx context.Context, key string) (FirmwareSet, error) {
	var x FirmwareSet
	if err := s.DB.WithContext(ctx).Raw("select * from firmware_sets where type_key = ? order by version desc limit 1",
		key).Scan(&x).Error; err != nil {
		return x, err
	}
	if x.TypeKey == "" {
		return x, fault.Missing("tested combination")
	}
	return x, nil
}

func checkVersions(v firmware.Set) error {
	var fields []fault.Field
	for c, version := range v {
		if !firmware.Known(c) {
			fields = append(fields, fault.Field{Field: "versions",
				Sentence: fmt.Sprintf("%q is none of aircraft, controller, pack, payload, app.", c)})
		}
		if len(version) > 40 {
			fields = append(fields, fault.Field{Field: "versions." + string(c),
				Sentence: "A version has at most 40 characters."})
		}
	}
	return fault.BadFields(fields)
}

// AddFirmwareSet adds a combination that was tested together.
func (s *Service) AddFirmwareSet(ctx context.Context, x FirmwareSet) error {
	t, err := s.Fleet.Type(ctx, x.TypeKey)
	if err != nil {
		return err
	}
	if err := checkVersions(x.Content); err != nil {
		return err
	}
	if x.Version < 1 || x.Version > 100000 {
		return fault.Bad("version", "The version must be 1 or more.")
	}
	b, err := json.Marshal(x.Content)
	if err != nil {
		return err
	}
	_, err = records.Change(ctx, s.DB, records.Entry{Kind: records.FileTaken, At: s.Clock.Now(), By: people.From(ctx).By(),
		Summary: fmt.Sprintf("Tested firmware of %s, version %d, taken in.", t.Name, x.Version), Content: x},
		"insert into firmware_sets (type_key, version, content, note, created_at) values (?, ?, ?, ?, ?)", x.TypeKey,
		x.Version, string(b), x.Note, s.Clock.Now())
	return err
}

// Firmware returns what is installed on an aircraft, against the tested
// combination of its type; the set is nil when there is none.
func (s *Service) Firmware(ctx context.Context, aircraft uuid.UUID) (*FirmwareSet, []Installed,
	[]firmware.Finding, error) {
	a, err := s.Fleet.Aircraft(ctx, aircraft)
	if err != nil {
		return nil, nil, nil, err
	}
	f, err := s.firmwareOf(ctx, []uuid.UUID{aircraft})
	if err != nil {
		return nil, nil, nil, err
	}
	have := f.have[aircraft]
	slices.SortFunc(have, func(x, y Installed) int {
		return slices.Index(firmware.AllComponents, firmware.Component(x.Component)) - slices.Index(firmware.AllComponents,
			firmware.Component(y.Component))
	})
	if x, ok := f.sets[a.TypeKey]; ok {
		return &x, have, f.against(a), nil
	}
	return nil, have, f.against(a), nil
}

// Install records what is installed now. A change of what was known opens the
// re-checks of the programme as work orders.
func (s *Service) Install(ctx context.Context, aircraft uuid.UUID, versions firmware.Set) error {
	if err := checkVersions(versions); err != nil {
		return err
	}
	by, now := people.From(ctx), s.Clock.Now()
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		a, err := fleet.LockOnGround(tx, aircraft)
		if err != nil {
			return err
		}
		_, have, _, err := s.Firmware(ctx, aircraft)
		if err != nil {
			return err
		}
		changed, updated := map[string]string{}, []string{}
		for _, c := range firmware.AllComponents {
			v := strings.TrimSpace(versions[c])
			i := slices.IndexFunc(have, func(x Installed) bool { return x.Component == string(c) })
			if v == "" || i >= 0 && have[i].Version == v {
				continue
			}
			changed[string(c)] = v
			if i >= 0 {
				updated = append(updated, fmt.Sprintf("%s %s to %s", c, have[i].Version, v))
			}
			if err := tx.Exec(`insert into firmware_installed (thing_id, component, version, at, by_name) values (?, ?, ?, ?, ?)
				on conflict (thing_id, component) do update set version = excluded.version, at = excluded.at, by_name = excluded.by_name`, aircraft, string(c), v, now, by.Name).Error; err != nil {
				return err
			}
		}
		if len(changed) == 0 {
			return nil
		}
		if _, err := records.Append(ctx, tx, records.Entry{Kind: records.FirmwareChanged, Subject: aircraft, At: now,
			By: by.By(), Summary: a.Name + ": firmware recorded.",
			Content: map[string]any{"versions": changed, "updated": updated}}); err != nil {
			return err
		}
		if len(updated) == 0 {
			return nil // known for the first time, not changed
		}
		_, err = s.openTasks(ctx, tx, aircraft, upkeep.FirmwareChange, strings.Join(updated, ", "))
		return err
	})
}
