package fleet

import (
	"context"
	"strings"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/internal/people"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
)

// Aircraft is one airframe with its registration and totals.
type Aircraft struct {
	ID                  uuid.UUID
	TypeKey             string
	Name                string
	Serial              string
	Registration        string
	RegistrationExpires *time.Time `gorm:"type:date"`
	Active              bool
	Seconds             int64
	Flights             int
	Landings            int
	Litres              float64
	LastLandingAt       *time.Time
	MassKg              *float64   `gorm:"column:mass_kg"` // what it usually takes off with, weighed; nil: not known
	WeighedOn           *time.Time `gorm:"type:date"`
	Version             int
	CreatedAt           time.Time
}

// TableName is the table of aircraft.
func (Aircraft) TableName() string { return "aircraft" }

// Grounding is an order to stay on the ground.
type Grounding struct {
	ID         uuid.UUID
	AircraftID uuid.UUID
	Cause      string
	Reason     string
	ByName     string
	At         time.Time
	LiftedAt   *time.Time
	LiftedBy   string
	LiftedNote string
}

// Causes of a grounding.
const (
	ByPerson      = "person"
	ByContact     = "contact"
	ByHardLanding = "hard-landing"
	ByReadings    = "readings"
)

// NewAircraft is what a new aircraft comes with.
type NewAircraft struct {
	ID                  uuid.UUID
	TypeKey             string
	Name                string
	Serial              string
	Registration        string
	RegistrationExpires *time.Time
	FitNewParts         bool // make a new part for every station that carries one
	MassKg              *float64
	WeighedOn           *time.Time
}

func checkAircraft(name, serial string, expires *time.Time) []fault.Field {
	var out []fault.Field
	if strings.TrimSpace(name) == "" {
		out = append(out, fault.Field{Field: "name", Sentence: "Enter the name the crew calls it by."})
	}
	if strings.TrimSpace(serial) == "" {
		out = append(out, fault.Field{Field: "serial", Sentence: "Enter the maker's serial number."})
	}
	if expires != nil && (expires.Year() < 2000 || expires.Year() > 2100) {
		out = append(out, fault.Field{Field: "registration_expires", Sentence: "The year must be between 2000 and 2100."})
	}
	return out
}

// AddAircraft adds an aircraft. Adding the same id twice changes nothing.
func (s *Service) AddAircraft(ctx context.Context, n NewAircraft) (Aircraft, error) {
	if err := fault.BadFields(checkAircraft(n.Name, n.Serial, n.RegistrationExpires)); err != nil {
		return Aircraft{}, err
	}
	t, err := s.Type(ctx, n.TypeKey)
	if err != nil {
		if fault.Is(err, "not-found") {
			err = fault.Bad("type_key", "Choose a type from the list.")
		}
		return Aircraft{}, err
	}
	var old Aircraft
	if err := s.DB.WithContext(ctx).Limit(1).Find(&old, "id = ?", n.ID).Error; err != nil || old.ID != uuid.Nil {
		return old, err
	}
	now := s.Clock.Now()
	a := Aircraft{ID: n.ID, TypeKey: n.TypeKey, Name: strings.TrimSpace(n.Name), Serial: strings.TrimSpace(n.Serial),
		Registration:        strings.TrimSpace(n.Registration),
		RegistrationExpires: n.RegistrationExpires, MassKg: n.MassKg, WeighedOn: n.WeighedOn, Active: true, Version: 1,
		CreatedAt: now}
	err = db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		if err := tx.Create(&a).Error; err != nil {
			return err
		}
		if !n.FitNewParts {
			return nil
		}
		var fits []Fit
		for _, at := range t.Positions() {
			id, err := uuid.NewV7()
			if err != nil {
				return err
			}
			serial := a.Serial + "-" + at.ID
			if at.Kind == "airframe" {
				serial = a.Serial
			}
			fits = append(fits, Fit{PartID: id, Station: at.ID, Serial: serial})
		}
		return s.fit(ctx, tx, a, t, FitParts{Fits: fits, Source: "maker", Old: "shelf"})
	})
	return a, err
}

// Edit is a change to an aircraft.
type Edit struct {
	Version             int
	Name                string
	Registration        string
	RegistrationExpires *time.Time
	MassKg              *float64
	WeighedOn           *time.Time
	Active              bool
}

// Update changes an aircraft, if nobody did so meanwhile.
func (s *Service) Update(ctx context.Context, id uuid.UUID, e Edit) (Aircraft, error) {
	if err := fault.BadFields(checkAircraft(e.Name, "-", e.RegistrationExpires)); err != nil {
		return Aircraft{}, err
	}
	res := s.DB.WithContext(ctx).Exec(`update aircraft set name = ?, registration = ?, registration_expires = ?, mass_kg = ?, weighed_on = ?, active = ?, version = version + 1 where id = ? and version = ?`,
		strings.TrimSpace(e.Name), strings.TrimSpace(e.Registration), e.RegistrationExpires, e.MassKg, e.WeighedOn, e.Active,
		id, e.Version)
	if res.Error != nil {
		return Aircraft{}, db.Translate(res.Error)
	}
	a, err := s.Aircraft(ctx, id)
	if err == nil && res.RowsAffected == 0 {
		err = fault.Stale("aircraft")
	}
	return a, err
}

// Aircraft returns one aircraft.
func (s *Service) Aircraft(ctx context.Context, id uuid.UUID) (Aircraft, error) {
	var a Aircraft
	if err := s.DB.WithContext(ctx).Limit(1).Find(&a, "id = ?", id).Error; err != nil {
		return a, err
	}
	if a.ID == uuid.Nil {
		return a, fault.Missing("aircraft")
	}
	return a, nil
}

// Ground orders an aircraft to stay on the ground, at once. Grounding twice
// with the same id changes nothing.
func (s *Service) Ground(ctx context.Context, id, aircraft uuid.UUID, cause, reason string) error {
	by := people.From(ctx)
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		var a Aircraft
		if err := tx.Limit(1).Find(&a, "id = ?", aircraft).Error; err != nil {
			return err
		}
		if a.ID == uuid.Nil {
			return fault.Missing("aircraft")
		}
		now := s.Clock.Now()
		res := tx.Exec(`insert into groundings (id, aircraft_id, cause, reason, by_name, at) values (?, ?, ?, ?, ?, ?) on conflict (id) do nothing`,
			id, aircraft, cause, reason, by.Name, now)
		if res.Error != nil || res.RowsAffected == 0 {
			return res.Error
		}
		_, err := records.Append(ctx, tx, records.Entry{Kind: records.Grounded, Subject: aircraft, At: now, By: by.By(),
			Summary: a.Name + " grounded: " + reason, Content: map[string]any{"grounding": id, "cause": cause,
				"reason": reason}})
		return err
	})
}

// Names returns the name of every aircraft by id.
func (s *Service) Names(ctx context.Context) (map[uuid.UUID]string, error) {
	var rows []Aircraft
	err := s.DB.WithContext(ctx).Select("id, name").Find(&rows).Error
	out := make(map[uuid.UUID]string, len(rows))
	for _, r := range rows {
		out[r.ID] = r.Name
	}
	return out, err
}
