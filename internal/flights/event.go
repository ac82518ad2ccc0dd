package flights

import (
	"context"
	"fmt"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"mainstay/core/upkeep"
	"mainstay/internal/outbox"
	"mainstay/internal/people"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
)

// Event is one thing that happened in flight.
type Event struct {
	ID       uuid.UUID
	FlightID uuid.UUID
	Kind     string
	Note     string
	At       time.Time
	ByID     *uuid.UUID // nil: entered before it was noted
	ByName   string
	// TakenBackAt and TakenBackBy say that it was pressed by mistake.
	TakenBackAt *time.Time
	TakenBackBy string
}

// TableName is the table of events.
func (Event) TableName() string { return "flight_events" }

// opens are the events in flight that ground the aircraft and open work.
var opens = map[string]upkeep.Event{"contact": upkeep.Contact, "hard-landing": upkeep.HardLanding}

// AddEvent logs an event of a flight that is not logged yet. A contact or a
// hard landing grounds the aircraft in the same transaction. The same id twice
// is one event.
func (s *Service) AddEvent(ctx context.Context, flight uuid.UUID, e Event) error {
	by := people.From(ctx)
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		f, err := s.lock(tx, flight)
		if err != nil {
			return err
		}
		press, now := outbox.From(ctx), s.Clock.Now()
		if fresh, err := outbox.Once(ctx, tx, "event "+e.ID.String(), now); err != nil || !fresh {
			return err
		}
		e.At, e.FlightID, e.ByID, e.ByName = press.At(now), flight, &by.ID, by.Name
		if e.At.Before(f.TookOffAt) {
			e.At = f.TookOffAt
		}
		behind := f.State == stateLogged
		if behind && (!press.Late() || e.At.After(*f.LoggedAt)) {
			return fault.Clash("already-logged", "This flight is logged; a record does not change. Raise a defect instead.")
		}
		res := tx.Clauses(clause.OnConflict{DoNothing: true}).Create(&e)
		if res.Error != nil || res.RowsAffected == 0 {
			return res.Error
		}
		if behind {
			err = s.heardBehind(ctx, tx, f, e)
		} else {
			err = tx.Exec("update flights set events = events + 1 where id = ?", flight).Error
		}
		if err != nil {
			return err
		}
		if ev, ok := opens[e.Kind]; ok {
			id, err := uuid.NewV7()
			if err != nil {
				return err
			}
			return s.Workshop.Happened(ctx, tx, id, f.AircraftID, ev, e.Note)
		}
		return nil
	})
}

// heardBehind puts an event on record that was pressed in flight without network
// and heard when the flight was logged already.
func (s *Service) heardBehind(ctx context.Context, tx *gorm.DB, f Flight, e Event) error {
	_, err := records.Append(ctx, tx, records.Entry{Kind: records.EventHeardLate, Subject: f.AircraftID, At: s.Clock.Now(),
		By: people.From(ctx).By(), Summary: fmt.Sprintf("Event %q of %s heard after the flight was logged.", e.Kind,
			e.ByName),
		Content: map[string]any{"flight": f.ID, "event": e.ID, "kind": e.Kind, "note": e.Note, "at": e.At}})
	return err
}

// RemoveEvent takes back an event that was pressed by mistake, until the flight
// is logged. It stays in sight with who took it back: the person who entered it,
// the pilot of the flight, or a chief. An event that grounded the aircraft stays: only a return to
// service lifts it.
func (s *Service) RemoveEvent(ctx context.Context, flight, event uuid.UUID) error {
	by := people.From(ctx)
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		f, err := s.lock(tx, flight)
		if err != nil {
			return err
		}
		if f.State == stateLogged {
			return fault.Clash("already-logged", "This flight is logged; a record does not change.")
		}
		if fresh, err := outbox.Once(ctx, tx, "take back "+event.String(), s.Clock.Now()); err != nil || !fresh {
			return err
		}
		var e Event
		if err := tx.Limit(1).Find(&e, "id = ? and flight_id = ?", event, flight).Error; err != nil {
			return err
		}
		if e.ID == uuid.Nil || e.TakenBackAt != nil {
			return nil // taken back twice by the same press
		}
		if (e.ByID == nil || *e.ByID != by.ID) && f.PilotID != by.ID && !by.Has("chief") {
			return fault.Denied("%s entered this event. They, the pilot of the flight or a chief take it back.", e.ByName)
		}
		if _, grounds := opens[e.Kind]; grounds {
			return fault.Clash("grounded",
				"This event has grounded the aircraft and stays in the log. If it was a mistake, say so in the remarks; a technician or chief returns the aircraft to service.")
		}
		now := s.Clock.Now()
		if err := tx.Exec("update flight_events set taken_back_at = ?, taken_back_by = ? where id = ?", now, by.Name,
			event).Error; err != nil {
			return err
		}
		if _, err := records.Append(ctx, tx, records.Entry{Kind: records.EventTakenBack, Subject: f.AircraftID, At: now,
			By: by.By(), Summary: fmt.Sprintf("Event %q of %s taken back.", e.Kind, e.ByName),
			Content: map[string]any{"flight": flight, "event": e.ID, "kind": e.Kind, "note": e.Note, "entered_by": e.ByName,
				"entered_at": e.At}}); err != nil {
			return err
		}
		return tx.Exec("update flights set events = events - 1 where id = ?", flight).Error
	})
}

// EventsOf returns the events of a flight in order.
func (s *Service) EventsOf(ctx context.Context, flight uuid.UUID) ([]Event, error) {
	var out []Event
	err := s.DB.WithContext(ctx).Order("at, id").Find(&out, "flight_id = ?", flight).Error
	return out, err
}
