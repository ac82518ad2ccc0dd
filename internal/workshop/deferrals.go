package workshop

import (
	"context"
	"fmt"
	"slices"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/airframe"
	"mainstay/core/upkeep"
	"mainstay/internal/fleet"
	"mainstay/internal/people"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
)

// Deferral is a defect or a task put off by signature.
type Deferral struct {
	ID         uuid.UUID
	AircraftID uuid.UUID
	DefectID   *uuid.UUID
	TaskID     string
	Limits     string
	ExpiresOn  time.Time `gorm:"type:date"`
	MaxSeconds int64
	MaxFlights int
	Reason     string
	ByName     string
	At         time.Time
	EndedAt    *time.Time
}

// TableName is the table of deferrals.
func (Deferral) TableName() string { return "deferrals" }

func (d Deferral) core() upkeep.Deferral {
	return upkeep.Deferral{ID: d.ID.String(), By: d.ByName, At: d.At, ExpiresOn: d.ExpiresOn, MaxSeconds: d.MaxSeconds,
		MaxFlights: d.MaxFlights, Limits: d.Limits}
}

// Words says how something is put off.
func (d Deferral) Words() string {
	s := fmt.Sprintf("Put off by %s through %s", d.ByName, d.ExpiresOn.Format(time.DateOnly))
	if d.MaxFlights > 0 {
		s += fmt.Sprintf(" or flight %d", d.MaxFlights)
	}
	if d.MaxSeconds > 0 {
		s += fmt.Sprintf(" or %.1f h", float64(d.MaxSeconds)/3600)
	}
	return s + ". " + d.Limits
}

// NewDeferral asks to put something off.
type NewDeferral struct {
	ID       uuid.UUID
	Aircraft uuid.UUID
	DefectID *uuid.UUID
	TaskID   string
	Days     int
	Reason   string
	PIN      string
}

// Defer puts off a defect or a task, where the programme allows it and within
// its limits, signed by a technician or chief. Nothing is put off twice in a
// row: the second time the work is done. The same id twice changes nothing.
func (s *Service) Defer(ctx context.Context, n NewDeferral) (upkeep.Deferral, error) {
	by := people.From(ctx)
	if (n.DefectID == nil) == (n.TaskID == "") {
		return upkeep.Deferral{}, fault.Bad("task_id", "Name the defect or the task that is put off.")
	}
	if err := s.People.Sign(ctx, by.ID, n.PIN); err != nil {
		return upkeep.Deferral{}, err
	}
	var d Deferral
	err := db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		var a fleet.Aircraft
		if err := tx.Raw("select * from aircraft where id = ? for no key update", n.Aircraft).Scan(&a).Error; err != nil {
			return err
		}
		if a.ID == uuid.Nil {
			return fault.Missing("aircraft")
		}
		if err := tx.Limit(1).Find(&d, "id = ?", n.ID).Error; err != nil || d.ID != uuid.Nil {
			return err
		}
		grace, title, err := s.grace(ctx, tx, a, n)
		if err != nil {
			return err
		}
		c, _, err := s.People.Crew(ctx)
		if err != nil {
			return err
		}
		now := s.Clock.Now()
		allowed, ok := grace.Defer(c.Day(now), a.Seconds, a.Flights, n.Days)
		if !ok {
			return fault.Clash("may-not-defer", "The programme does not allow this to be put off: %s. Do the work.", title)
		}
		var before int64
		if err := tx.Raw("select count(*) from deferrals where aircraft_id = ? and (defect_id = ? or (task_id = ? and task_id <> '' and ended_at is null))",
			a.ID, n.DefectID, n.TaskID).Scan(&before).Error; err != nil {
			return err
		}
		if before > 0 {
			return fault.Clash("already-deferred", "This was put off once already: %s. Now the work is done.", title)
		}
		d = Deferral{ID: n.ID, AircraftID: a.ID, DefectID: n.DefectID, TaskID: n.TaskID, Limits: allowed.Limits,
			ExpiresOn: allowed.ExpiresOn, MaxSeconds: allowed.MaxSeconds, MaxFlights: allowed.MaxFlights,
			Reason: n.Reason, ByName: by.Name, At: now}
		if err := tx.Create(&d).Error; err != nil {
			return err
		}
		_, err = records.Append(ctx, tx, records.Entry{Kind: records.PutOff, Subject: a.ID, At: now, By: by.By(),
			Signed: true, Summary: fmt.Sprintf("%s: put off through %s: %s", a.Name, d.ExpiresOn.Format(time.DateOnly), title),
			Content: map[string]any{"deferral": d.ID, "defect": d.DefectID, "task": d.TaskID, "reason": d.Reason,
				"limits": d.Limits, "expires_on": d.ExpiresOn.Format(time.DateOnly), "max_seconds": d.MaxSeconds,
				"max_flights": d.MaxFlights,
				"statement":   "I put this off within the limits of the programme; the aircraft is safe to fly with it."}})
		return err
	})
	return d.core(), err
}

// grace finds how far the programme lets a thing be put off, nil for not at all.
func (s *Service) grace(ctx context.Context, tx *gorm.DB, a fleet.Aircraft, n NewDeferral) (*upkeep.Grace,
	string, error) {
	p, err := s.Programme(ctx, a.TypeKey)
	if err != nil {
		return nil, "", err
	}
	if n.TaskID != "" {
		t, ok := p.Task(n.TaskID)
		if !ok {
			return nil, "", fault.Bad("task_id", "The programme of this type has no task %q.", n.TaskID)
		}
		return t.Defer, t.Title, nil
	}
	var d struct {
		ID          uuid.UUID
		AircraftID  uuid.UUID
		Station     string
		Title       string
		ClosedAt    *time.Time
		Item        string
		WalkroundID *uuid.UUID
	}
	if err := tx.Raw("select * from defects where id = ? for no key update", *n.DefectID).Scan(&d).Error; err != nil {
		return nil, "", err
	}
	if d.ID == uuid.Nil || d.AircraftID != a.ID {
		return nil, "", fault.Missing("defect")
	}
	if d.ClosedAt != nil {
		return nil, "", fault.Clash("already-closed", "This defect is closed already.")
	}
	t, err := s.Fleet.Type(ctx, a.TypeKey)
	if err != nil {
		return nil, "", err
	}
	if d.WalkroundID != nil {
		if own, err := s.Walkrounds.DeferOf(ctx, *d.WalkroundID, d.Item); err != nil || own != nil {
			return own, d.Title, err
		}
	}
	return p.LeaveFor(stationKind(t, d.Station)), d.Title, nil
}

func station(t airframe.Type, id string) (airframe.Station, bool) {
	ss := t.Stations()
	i := slices.IndexFunc(ss, func(st airframe.Station) bool { return st.ID == id })
	if i < 0 {
		return airframe.Station{}, false
	}
	return ss[i], true
}

func stationLabel(t airframe.Type, id string) string {
	st, _ := station(t, id)
	return st.Label
}

func stationKind(t airframe.Type, id string) string {
	st, _ := station(t, id)
	return st.Kind
}
