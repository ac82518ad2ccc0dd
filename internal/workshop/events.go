package workshop

import (
	"context"
	"fmt"
	"strings"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/upkeep"
	"mainstay/internal/fleet"
	"mainstay/internal/people"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
)

// reasons says what an event grounds an aircraft for, and the cause kept.
var reasons = map[upkeep.Event]struct{ cause, reason string }{
	upkeep.Contact:         {fleet.ByContact, "Contact with something hard: replace every propeller."},
	upkeep.HardLanding:     {fleet.ByHardLanding, "Hard landing: inspect legs, arms, mounts and packs."},
	upkeep.Water:           {fleet.ByPerson, "Water inside: open, dry and clean it before power."},
	upkeep.Overheating:     {fleet.ByReadings, "Overheating: find the cause."},
	upkeep.ChemicalSpill:   {fleet.ByPerson, "Chemical spill: wash it as the label says, with gloves and goggles."},
	upkeep.Built:           {fleet.ByPerson, "Built again: it is accepted before it flies."},
	upkeep.TransportDamage: {fleet.ByPerson, "Damage in transport: inspect it."},
}

// AddAircraft adds an aircraft and opens its acceptance: it stays on the ground
// until that is signed and flown. Adding the same id twice changes nothing.
func (s *Service) AddAircraft(ctx context.Context, n fleet.NewAircraft) (a fleet.Aircraft, err error) {
	err = db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		var known int64
		if err := tx.Raw("select count(*) from aircraft where id = ?", n.ID).Scan(&known).Error; err != nil {
			return err
		}
		if a, err = s.Fleet.AddAircraft(ctx, n); err != nil || known > 0 {
			return err
		}
		_, err := s.openTasks(ctx, tx, a.ID, upkeep.Built, "")
		return err
	})
	return a, err
}

// Report takes an event outside a flight: it opens the tasks of the programme
// at once and grounds the aircraft. The same id twice changes nothing.
func (s *Service) Report(ctx context.Context, id, aircraft uuid.UUID, e upkeep.Event, note string) error {
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		if err := tx.Exec("select 1 from aircraft where id = ? for no key update", aircraft).Error; err != nil {
			return err
		}
		var n int64
		if err := tx.Raw("select count(*) from groundings where id = ?", id).Scan(&n).Error; err != nil || n > 0 {
			return err
		}
		return s.Happened(ctx, tx, id, aircraft, e, note)
	})
}

// Happened opens the tasks that an event calls for, one work order each unless
// one is open already, and grounds the aircraft, inside a transaction that
// holds the aircraft. grounding is the id of the grounding.
func (s *Service) Happened(ctx context.Context, tx *gorm.DB, grounding, aircraft uuid.UUID, e upkeep.Event,
	note string) error {
	r, ok := reasons[e]
	if !ok {
		return fault.Bad("event", "This is not an event that opens work.")
	}
	reason := r.reason
	if note = strings.TrimSpace(note); note != "" {
		reason += " Note: " + note
	}
	if err := s.Fleet.Ground(ctx, grounding, aircraft, r.cause, reason); err != nil {
		return err
	}
	_, err := s.openTasks(ctx, tx, aircraft, e, note)
	return err
}

// openTasks opens the work orders that an event calls for.
func (s *Service) openTasks(ctx context.Context, tx *gorm.DB, aircraft uuid.UUID, e upkeep.Event,
	note string) ([]Order, error) {
	a, err := s.Fleet.Aircraft(ctx, aircraft)
	if err != nil {
		return nil, err
	}
	p, err := s.Programme(ctx, a.TypeKey)
	if err != nil && !fault.Is(err, "not-found") { // a type without a programme is a finding of its own
		return nil, err
	}
	tasks := p.OpenedBy(e)
	if e == upkeep.Built && len(tasks) == 0 { // whatever the programme says, nothing new flies unaccepted
		t, err := s.Fleet.Type(ctx, a.TypeKey)
		if err != nil {
			return nil, err
		}
		tasks = []upkeep.Task{upkeep.Commissioning(t.TankL > 0)}
	}
	var out []Order
	for _, t := range tasks {
		var n int64
		if err := tx.Raw("select count(*) from work_orders where aircraft_id = ? and task_id = ? and state = 'open'",
			aircraft, t.ID).Scan(&n).Error; err != nil {
			return nil, err
		}
		if n > 0 {
			continue
		}
		// What is signed and waits for its acceptance flight is done again: the event came after.
		if err := tx.Exec("update work_orders set state = 'closed', closed_at = ? where aircraft_id = ? and task_id = ? and state = 'signed'",
			s.Clock.Now(), aircraft, t.ID).Error; err != nil {
			return nil, err
		}
		id, err := uuid.NewV7()
		if err != nil {
			return nil, err
		}
		o := Order{ID: id, AircraftID: a.ID, Cause: ByEvent,
			CauseNote: strings.TrimSpace(fmt.Sprintf("%s. %s", spoken(e), note)), Grounds: t.Grounds}
		o.fromTask(t, p.Version)
		if err := s.open(ctx, tx, a, &o); err != nil {
			return nil, err
		}
		out = append(out, o)
	}
	return out, nil
}

// spoken is an event as a person says it.
func spoken(e upkeep.Event) string {
	if e == upkeep.Built {
		return "new or rebuilt aircraft"
	}
	return strings.ReplaceAll(string(e), "-", " ")
}

// Return puts an aircraft back into service: every open grounding is lifted,
// signed with the PIN of a technician or chief. After a contact all propellers
// must have been replaced since, and work that grounds must be signed.
func (s *Service) Return(ctx context.Context, aircraft uuid.UUID, note, pin string) error {
	by := people.From(ctx)
	if err := s.People.Sign(ctx, by.ID, pin); err != nil {
		return err
	}
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		var a fleet.Aircraft
		if err := tx.Raw("select * from aircraft where id = ? for no key update", aircraft).Scan(&a).Error; err != nil {
			return err
		}
		if a.ID == uuid.Nil {
			return fault.Missing("aircraft")
		}
		var open []fleet.Grounding
		if err := tx.Order("at").Find(&open, "aircraft_id = ? and lifted_at is null", aircraft).Error; err != nil {
			return err
		}
		if len(open) == 0 {
			return fault.Clash("not-grounded", "%s is not grounded; there is nothing to lift.", a.Name)
		}
		lifted := []string{}
		for _, g := range open {
			if g.Cause == fleet.ByContact {
				if err := propellersSince(tx, a, g); err != nil {
					return err
				}
			}
			lifted = append(lifted, g.Reason)
		}
		var work []string
		if err := tx.Raw("select title from work_orders where aircraft_id = ? and state = 'open' and grounds order by opened_at",
			aircraft).Scan(&work).Error; err != nil {
			return err
		}
		if len(work) > 0 {
			return fault.Clash("work-open", "Work that grounds it is not signed yet: %s. The aircraft stays grounded.",
				strings.Join(work, "; "))
		}
		now := s.Clock.Now()
		if err := fleet.LiftGroundings(tx, aircraft, now, by.Name, note); err != nil {
			return err
		}
		_, err := records.Append(ctx, tx, records.Entry{Kind: records.Returned, Subject: aircraft, At: now, By: by.By(),
			Signed:  true,
			Summary: fmt.Sprintf("%s returned to service: %s", a.Name, note), Content: map[string]any{"lifted": lifted,
				"note": note, "statement": "I have inspected this aircraft and return it to service."}})
		return err
	})
}

func propellersSince(tx *gorm.DB, a fleet.Aircraft, g fleet.Grounding) error {
	var old []string
	if err := tx.Raw("select station from parts where aircraft_id = ? and kind = 'propeller' and fitted_at <= ? order by station",
		a.ID, g.At).Scan(&old).Error; err != nil {
		return err
	}
	var fitted int64
	if err := tx.Raw("select count(*) from parts where aircraft_id = ? and kind = 'propeller'",
		a.ID).Scan(&fitted).Error; err != nil {
		return err
	}
	if len(old) > 0 || fitted == 0 {
		return fault.Clash("propellers-not-replaced",
			"After the contact every propeller is replaced, even one that looks fine. Still the old ones: %s. The aircraft stays grounded.",
			strings.Join(old, ", "))
	}
	return nil
}
