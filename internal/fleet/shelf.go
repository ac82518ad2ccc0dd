package fleet

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/airframe"
	"mainstay/internal/people"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
)

// NewPart is a part that comes to the shelf.
type NewPart struct {
	ID                           uuid.UUID
	Kind, TypeKey, Serial, Batch string
	Source                       string
	PriceCents                   *int64
}

// AddPart puts a new part on the shelf. Adding the same id twice changes
// nothing.
func (s *Service) AddPart(ctx context.Context, n NewPart) (Part, error) {
	t, err := s.Type(ctx, n.TypeKey)
	if err != nil {
		if fault.Is(err, "not-found") {
			err = fault.Bad("type_key", "Choose a type from the list.")
		}
		return Part{}, err
	}
	if !slices.ContainsFunc(t.Positions(), func(p airframe.Position) bool { return p.Kind == n.Kind }) {
		return Part{}, fault.Bad("kind", "%s carries no part of this kind.", t.Name)
	}
	if strings.TrimSpace(n.Serial) == "" {
		return Part{}, fault.Bad("serial", "Enter the serial number.")
	}
	p := Part{ID: n.ID, Kind: n.Kind, TypeKey: n.TypeKey, Serial: strings.TrimSpace(n.Serial),
		Batch: strings.TrimSpace(n.Batch), Source: n.Source, PriceCents: n.PriceCents, Since: s.Clock.Now()}
	err = db.Tx(ctx, s.DB, func(_ context.Context, tx *gorm.DB) error {
		var old Part
		if err := tx.Limit(1).Find(&old, "id = ?", n.ID).Error; err != nil || old.ID != uuid.Nil {
			p = old
			return err
		}
		return tx.Create(&p).Error
	})
	return p, err
}

// Part returns one part.
func (s *Service) Part(ctx context.Context, id uuid.UUID) (Part, error) {
	var p Part
	if err := s.DB.WithContext(ctx).Limit(1).Find(&p, "id = ?", id).Error; err != nil {
		return p, err
	}
	if p.ID == uuid.Nil {
		return p, fault.Missing("part")
	}
	return p, nil
}

// lockPart locks the aircraft of a part, if any, then reads the part again.
func (s *Service) lockPart(tx *gorm.DB, id uuid.UUID) (Part, *Aircraft, error) {
	for range 3 { // the part may move between the look and the lock
		var p Part
		if err := tx.Limit(1).Find(&p, "id = ?", id).Error; err != nil {
			return p, nil, err
		}
		if p.ID == uuid.Nil {
			return p, nil, fault.Missing("part")
		}
		if p.AircraftID == nil {
			err := tx.Raw("select * from parts where id = ? for no key update", id).Scan(&p).Error
			if err != nil || p.AircraftID == nil {
				return p, nil, err
			}
			continue
		}
		a, err := LockOnGround(tx, *p.AircraftID)
		if err != nil {
			return p, nil, err
		}
		var again Part
		if err := tx.Limit(1).Find(&again, "id = ?", id).Error; err != nil {
			return p, nil, err
		}
		if again.AircraftID != nil && *again.AircraftID == a.ID {
			return again, &a, nil
		}
	}
	return Part{}, nil, fault.Stale("part")
}

// RemovePart takes a part off its aircraft without fitting another, or discards
// one that lies on the shelf.
func (s *Service) RemovePart(ctx context.Context, id uuid.UUID, to string, cutUp bool, why string) (Part, error) {
	by := people.From(ctx)
	err := db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		p, a, err := s.lockPart(tx, id)
		if err != nil {
			return err
		}
		switch {
		case p.DiscardedAt != nil:
			return fault.Clash("discarded", "%s %s is discarded already.", airframe.KindName(p.Kind), p.Serial)
		case a == nil && to == Shelf:
			return fault.Clash("on-shelf", "%s %s lies on the shelf already.", airframe.KindName(p.Kind), p.Serial)
		}
		now := s.Clock.Now()
		if err := remove(tx, p, to, cutUp, why, now); err != nil {
			return err
		}
		subject, summary := p.ID, fmt.Sprintf("%s %s discarded from the shelf: %s", airframe.KindName(p.Kind), p.Serial, why)
		if a != nil {
			subject, summary = a.ID, fmt.Sprintf("%s: %s %s taken off (%s): %s", a.Name, airframe.KindName(p.Kind), p.Serial, to,
				why)
		}
		_, err = records.Append(ctx, tx, records.Entry{Kind: records.PartsRemoved, Subject: subject, At: now, By: by.By(),
			Summary: summary,
			Content: map[string]any{"part": p.ID, "kind": p.Kind, "serial": p.Serial, "station": p.Station, "to": to,
				"cut_up": cutUp, "reason": why, "seconds": p.Seconds, "flights": p.Flights}})
		return err
	})
	if err != nil {
		return Part{}, err
	}
	return s.Part(ctx, id)
}

// SwapParts exchanges two fitted parts of one kind and type, on one aircraft or
// two; each takes its counters along.
func (s *Service) SwapParts(ctx context.Context, first, second uuid.UUID) error {
	by := people.From(ctx)
	if first == second {
		return fault.Bad("with", "Choose another part than this one.")
	}
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		ids := []uuid.UUID{first, second}
		// Aircraft are locked in the order of their ids, so that two swaps never wait for each other.
		var crafts []uuid.UUID
		if err := tx.Raw("select distinct aircraft_id from parts where id in ? and aircraft_id is not null order by 1",
			ids).Scan(&crafts).Error; err != nil {
			return err
		}
		names := map[uuid.UUID]string{}
		for _, c := range crafts {
			a, err := LockOnGround(tx, c)
			if err != nil {
				return err
			}
			names[c] = a.Name
		}
		var ps []Part
		if err := tx.Raw("select * from parts where id in ? order by id for no key update", ids).Scan(&ps).Error; err != nil {
			return err
		}
		if len(ps) != 2 {
			return fault.Missing("part")
		}
		a, b := ps[0], ps[1]
		switch {
		case a.AircraftID == nil || b.AircraftID == nil || names[*a.AircraftID] == "" || names[*b.AircraftID] == "":
			return fault.Clash("not-fitted", "Both parts must be fitted to be swapped. Fit the one from the shelf instead.")
		case a.Kind != b.Kind || a.TypeKey != b.TypeKey:
			return fault.Bad("with", "%s and %s are not the same kind of part for the same type.", a.Serial, b.Serial)
		}
		now := s.Clock.Now()
		if err := tx.Exec("update part_moves set removed_at = ?, removed_to = 'swap' where part_id in ? and removed_at is null",
			now, ids).Error; err != nil {
			return err
		}
		// Off first: one position never carries two parts, not even inside the transaction.
		if err := tx.Exec("update parts set aircraft_id = null, station = null, fitted_at = null where id in ?",
			ids).Error; err != nil {
			return err
		}
		for _, m := range []struct{ p, to Part }{{a, b}, {b, a}} {
			if err := tx.Exec("update parts set aircraft_id = ?, station = ?, fitted_at = ? where id = ?", m.to.AircraftID,
				m.to.Station, now, m.p.ID).Error; err != nil {
				return err
			}
			id, err := uuid.NewV7()
			if err != nil {
				return err
			}
			if err := tx.Exec("insert into part_moves (id, part_id, aircraft_id, station, fitted_at, by_name) values (?, ?, ?, ?, ?, ?)",
				id, m.p.ID, m.to.AircraftID, m.to.Station, now, by.Name).Error; err != nil {
				return err
			}
		}
		for _, c := range crafts {
			if _, err := records.Append(ctx, tx, records.Entry{Kind: records.PartsFitted, Subject: c, At: now, By: by.By(),
				Summary: fmt.Sprintf("%s: %s %s and %s swapped.", names[c], airframe.KindName(a.Kind), a.Serial, b.Serial),
				Content: map[string]any{"swapped": []map[string]any{{"serial": a.Serial, "from": a.Station, "to": b.Station},
					{"serial": b.Serial, "from": b.Station, "to": a.Station}}}}); err != nil {
				return err
			}
		}
		return nil
	})
}

// Stay is one stay of a part on an aircraft, with what it did there.
type Stay struct {
	Aircraft  string
	Station   string
	FittedAt  time.Time
	RemovedAt *time.Time
	RemovedTo string
	ByName    string
	Seconds   int64
	Flights   int
}

// Stays returns the whole history of a part, newest first.
func (s *Service) Stays(ctx context.Context, part uuid.UUID) ([]Stay, error) {
	var out []Stay
	err := s.DB.WithContext(ctx).Raw(`select a.name as aircraft, m.station, m.fitted_at, m.removed_at, m.removed_to, m.by_name, coalesce(u.seconds, 0) as seconds, coalesce(u.flights, 0) as flights
		from part_moves m join aircraft a on a.id = m.aircraft_id
		left join lateral (select sum(u.seconds) as seconds, count(*) as flights from flight_use u join flights f on f.id = u.flight_id
			where u.thing = 'part' and u.thing_id = m.part_id and f.aircraft_id = m.aircraft_id and f.took_off_at >= m.fitted_at and (m.removed_at is null or f.took_off_at < m.removed_at)) u on true
		where m.part_id = ? order by m.fitted_at desc`, part).Scan(&out).Error
	return out, err
}
