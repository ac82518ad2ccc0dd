package flights

import (
	"context"
	"fmt"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/airframe"
	"mainstay/core/checks"
	"mainstay/core/energy"
	"mainstay/core/judge"
	"mainstay/core/why"
	"mainstay/internal/outbox"
	"mainstay/internal/people"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
)

// States of a flight.
const (
	stateAir    = "air"
	stateLanded = "landed"
	stateLogged = "logged"
)

// Flight is one flight from take-off to log.
type Flight struct {
	ID          uuid.UUID
	ReleaseID   *uuid.UUID
	AircraftID  uuid.UUID
	PilotID     uuid.UUID
	PackIDs     db.UUIDs `gorm:"type:uuid[]"`
	Purpose     string
	TookOffAt   time.Time
	LandedAt    *time.Time
	LoggedAt    *time.Time
	State       string
	Seconds     int
	Landings    int
	Remarks     string
	Hover       *checks.Judgement `gorm:"serializer:json"`
	Warmth      *checks.Judgement `gorm:"serializer:json"`
	WarmthMotor *int              // the motor that stood out, from 1
	Source      string
	Events      int
	Litres      float64           // sprayed
	HoverSet    db.Array[float64] `gorm:"type:double precision[]"` // output of each motor in the first hover, percent
	WarmthSet   db.Array[float64] `gorm:"type:double precision[]"` // warmth of each motor after landing, degC

	AcceptanceOrder *uuid.UUID // the work order for which this was the acceptance flight
	JobID           *uuid.UUID // nil: of before flights belonged to jobs, or imported

	NextTime string           // what to change before the next flight
	Signs    db.Array[string] `gorm:"type:text[]"` // what was heard, seen or felt

	MassKg      *float64           `gorm:"column:mass_kg"`      // at take-off; nil: not known
	RhoKgM3     *float64           `gorm:"column:rho_kgm3"`     // of the air
	PackFrom    map[string]float64 `gorm:"serializer:json"`     // level of each pack at take-off, percent
	PackTo      map[string]float64 `gorm:"serializer:json"`     // and after the flight
	Home        []energy.CallOut   `gorm:"serializer:json"`     // what the packs must show to come home, as of take-off
	UsedWh      *float64           `gorm:"column:used_wh"`      // out of the packs
	PredictedWh *float64           `gorm:"column:predicted_wh"` // with the type's efficiency

	TookOffHeardAt *time.Time // when a take-off without network was heard; nil: at once
	LandedHeardAt  *time.Time // the same of the landing
	Unasked        string     // what the gate said when a take-off without network was heard
}

// TableName is the table of flights.
func (Flight) TableName() string { return "flights" }

// Flight returns one flight.
func (s *Service) Flight(ctx context.Context, id uuid.UUID) (Flight, error) {
	var f Flight
	if err := s.DB.WithContext(ctx).Limit(1).Find(&f, "id = ?", id).Error; err != nil {
		return f, err
	}
	if f.ID == uuid.Nil {
		return f, fault.Missing("flight")
	}
	return f, nil
}

// lock locks and reads a flight, after its aircraft.
func (s *Service) lock(tx *gorm.DB, id uuid.UUID) (Flight, error) {
	var f Flight
	if err := tx.Exec("select 1 from aircraft where id = (select aircraft_id from flights where id = ?) for no key update",
		id).Error; err != nil {
		return f, err
	}
	if err := tx.Raw("select * from flights where id = ? for no key update", id).Scan(&f).Error; err != nil {
		return f, err
	}
	if f.ID == uuid.Nil {
		return f, fault.Missing("flight")
	}
	return f, nil
}

// Resume takes back a landing that was pressed by mistake: the flight goes on
// from its take-off as if LAND had not been touched.
func (s *Service) Resume(ctx context.Context, flight uuid.UUID) (Flight, error) {
	by := people.From(ctx)
	var f Flight
	err := db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		var err error
		if f, err = s.lock(tx, flight); err != nil {
			return err
		}
		switch {
		case f.PilotID != by.ID && !by.Has("chief"):
			return fault.Denied("Only the pilot of this flight or a chief takes the landing back.")
		case f.State == stateLogged:
			return fault.Clash("already-logged", "This flight is logged; a record does not change.")
		}
		if fresh, err := outbox.Once(ctx, tx, "resume "+flight.String(), s.Clock.Now()); err != nil || !fresh ||
			f.State == stateAir {
			return err
		}
		landed := f.LandedAt
		f.State, f.LandedAt, f.LandedHeardAt, f.Seconds = stateAir, nil, nil, 0
		if err := tx.Save(&f).Error; err != nil {
			return err
		}
		_, err = records.Append(ctx, tx, records.Entry{Kind: records.LandingTakenBack, Subject: f.AircraftID,
			At: s.Clock.Now(), By: by.By(), Summary: "A landing pressed by mistake was taken back.",
			Content: map[string]any{"flight": flight, "landed_at": landed}})
		return err
	})
	return f, err
}

// Hover judges the motor outputs of the first hover and keeps the judgement.
func (s *Service) Hover(ctx context.Context, flight uuid.UUID, outputs []float64) (checks.Judgement, error) {
	var j checks.Judgement
	err := db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		f, err := s.lock(tx, flight)
		if err != nil {
			return err
		}
		if fresh, err := outbox.Once(ctx, tx, "hover "+flight.String(), s.Clock.Now()); err != nil {
			return err
		} else if !fresh && f.Hover != nil {
			j = *f.Hover
			return nil
		}
		if f.State != stateAir {
			return fault.Clash("not-in-the-air", "This flight has landed; the hover is over.")
		}
		t, err := s.typeOf(ctx, f)
		if err != nil {
			return err
		}
		if j, err = judgeSet(checks.HoverItem(t), "outputs", outputs); err != nil {
			return err
		}
		f.Hover, f.HoverSet = &j, outputs
		return tx.Save(&f).Error
	})
	return j, err
}

func judgeSet(it checks.Item, field string, set []float64) (checks.Judgement, error) {
	j, err := checks.Judge(it, checks.Value{Set: set}, nil)
	if err != nil {
		return j, fault.Bad(field, "%s", why.Words(err))
	}
	return j, nil
}

func (s *Service) typeOf(ctx context.Context, f Flight) (airframe.Type, error) {
	a, err := s.Fleet.Aircraft(ctx, f.AircraftID)
	if err != nil {
		return airframe.Type{}, err
	}
	return s.Fleet.Type(ctx, a.TypeKey)
}

func (f Flight) summary(aircraft string) string {
	s := fmt.Sprintf("%s: %d min, %s, %s", aircraft, (f.Seconds+30)/60, judge.Count(f.Landings, "landing"), f.Purpose)
	if f.Unasked != "" {
		s += "; taken off without the gate"
	}
	return s
}
