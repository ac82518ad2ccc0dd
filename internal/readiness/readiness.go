// Package readiness logs manual-flying practice and says which types it opens
// to whom.
package readiness

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/airframe"
	"mainstay/core/crew"
	judging "mainstay/core/judge"
	"mainstay/internal/fleet"
	"mainstay/internal/people"
	"mainstay/internal/platform/clock"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
)

// Service keeps the practice log.
type Service struct {
	DB     *gorm.DB
	Clock  clock.Clock
	People *people.Service
	Fleet  *fleet.Service
}

// Practice is one logged piece of manual flying.
type Practice struct {
	ID        uuid.UUID
	PersonID  uuid.UUID
	TypeKey   string
	Phase     string
	Packs     int
	Landings  int
	NoseIn    bool
	FlownOn   time.Time `gorm:"type:date"`
	Note      string
	SignedBy  string
	At        time.Time
	RecordSeq *int64
}

// TableName is the table of practice.
func (Practice) TableName() string { return "practice" }

func (p Practice) fact() crew.Practice {
	return crew.Practice{Phase: crew.Phase(p.Phase), Packs: p.Packs, Landings: p.Landings, NoseIn: p.NoseIn, On: p.FlownOn}
}

// Log keeps practice of a person, signed by the acting pilot who watched it.
// Nobody signs for himself, a chief neither; only who is alone in the crew may,
// and the record says so. Where flights of that day are on file, no more is
// logged than they show. Logging the same id twice changes nothing.
func (s *Service) Log(ctx context.Context, p Practice, pin string) error {
	by := people.From(ctx)
	t, err := s.Fleet.Type(ctx, p.TypeKey)
	if err != nil {
		return err
	}
	who, err := s.People.Get(ctx, p.PersonID)
	if err != nil {
		return err
	}
	c, _, err := s.People.Crew(ctx)
	if err != nil {
		return err
	}
	alone := false
	if p.PersonID == by.ID {
		if alone, err = s.alone(ctx, by.ID); err != nil {
			return err
		}
	}
	switch {
	case p.PersonID == by.ID && !(alone && by.Has(crew.Chief)):
		return fault.Bad("person", "Somebody who watched it signs it, not the pilot who practised.")
	case p.Packs == 0 && p.Landings == 0:
		return fault.Bad("packs", "Enter the packs flown or the landings made.")
	case p.Phase == string(crew.Loaded) && t.TankL == 0:
		return fault.Bad("phase", "%s carries no tank; log it as empty.", t.Name)
	case p.FlownOn.After(c.Day(s.Clock.Now())):
		return fault.Bad("flown_on", "The day lies in the future.")
	}
	if err := s.flown(ctx, p, c); err != nil {
		return err
	}
	statement := "I watched this practice and it went as logged."
	if p.PersonID == by.ID {
		statement = "I practised alone; nobody else of the crew could watch."
	}
	var n int64
	if err := s.DB.WithContext(ctx).Raw("select count(*) from practice where id = ?", p.ID).Scan(&n).Error; err != nil ||
		n > 0 {
		return err
	}
	if err := s.People.Sign(ctx, by.ID, pin); err != nil {
		return err
	}
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		p.SignedBy, p.At, p.Note = by.Name, s.Clock.Now(), strings.TrimSpace(p.Note)
		seq, err := records.Append(ctx, tx, records.Entry{Kind: records.PracticeLogged, Subject: p.PersonID, At: p.At,
			By: by.By(), Signed: true,
			Summary: fmt.Sprintf("%s flew %s by hand, %s: %s, %s", who.Name, t.Name, p.Phase, judging.Count(p.Packs, "pack"),
				judging.Count(p.Landings, "landing")),
			Content: map[string]any{"practice": p.ID, "person": who.Name, "type": t.Key, "phase": p.Phase, "packs": p.Packs,
				"landings": p.Landings, "nose_in": p.NoseIn, "flown_on": p.FlownOn.Format(time.DateOnly), "note": p.Note,
				"statement": statement}})
		if err != nil {
			return err
		}
		p.RecordSeq = &seq
		return tx.Create(&p).Error
	})
}

// alone reports whether nobody else of the crew could watch and sign.
func (s *Service) alone(ctx context.Context, id uuid.UUID) (bool, error) {
	all, err := s.People.List(ctx)
	return !slices.ContainsFunc(all, func(p people.Person) bool {
		return p.ID != id && p.Active && p.Has(crew.Pilot)
	}), err
}

// flown refuses more than the flights of the person on the type and day show,
// where there are any.
func (s *Service) flown(ctx context.Context, p Practice, c people.Crew) error {
	from := time.Date(p.FlownOn.Year(), p.FlownOn.Month(), p.FlownOn.Day(), 0, 0, 0, 0, c.Location())
	var sum struct{ Flights, Packs, Landings int }
	if err := s.DB.WithContext(ctx).Raw(`select count(*) as flights, coalesce(sum(cardinality(f.pack_ids)), 0) as packs, coalesce(sum(f.landings), 0) as landings from flights f join aircraft a on a.id = f.aircraft_id
		where f.pilot_id = ? and a.type_key = ? and f.state = 'logged' and f.took_off_at >= ? and f.took_off_at < ?`, p.PersonID, p.TypeKey, from, from.AddDate(0, 0, 1)).Scan(&sum).Error; err != nil || sum.Flights == 0 {
		return err
	}
	var before struct{ Packs, Landings int }
	if err := s.DB.WithContext(ctx).Raw("select coalesce(sum(packs), 0) as packs, coalesce(sum(landings), 0) as landings from practice where person_id = ? and type_key = ? and flown_on = ? and id <> ?",
		p.PersonID, p.TypeKey, p.FlownOn, p.ID).Scan(&before).Error; err != nil {
		return err
	}
	if p.Packs+before.Packs > sum.Packs || p.Landings+before.Landings > sum.Landings {
		return fault.Bad("packs",
			"The flights of that day show %s and %s on this type, and %d and %d are logged already; no more is.",
			judging.Count(sum.Packs, "pack"), judging.Count(sum.Landings, "landing"), before.Packs, before.Landings)
	}
	return nil
}

// Held is the practice of one person, newest first.
func (s *Service) Held(ctx context.Context, person uuid.UUID) ([]Practice, error) {
	var out []Practice
	err := s.DB.WithContext(ctx).Order("flown_on desc, at desc").Find(&out, "person_id = ?", person).Error
	return out, err
}

// On is how far each of the people has come on a type.
func (s *Service) On(ctx context.Context, t airframe.Type, persons []uuid.UUID) (map[uuid.UUID]crew.Readiness, error) {
	var rows []Practice
	if len(persons) > 0 {
		if err := s.DB.WithContext(ctx).Find(&rows, "person_id in ? and type_key = ?", persons, t.Key).Error; err != nil {
			return nil, err
		}
	}
	out := map[uuid.UUID]crew.Readiness{}
	for _, id := range persons {
		out[id] = judge(rows, id, t)
	}
	return out, nil
}

func judge(rows []Practice, person uuid.UUID, t airframe.Type) crew.Readiness {
	var done []crew.Practice
	for _, r := range rows {
		if r.PersonID == person && r.TypeKey == t.Key {
			done = append(done, r.fact())
		}
	}
	return crew.UsualSyllabus.Judge(done, t.TankL > 0)
}

// Types is how far a person has come on every type, by name of the type.
func (s *Service) Types(ctx context.Context, person uuid.UUID) ([]airframe.Type, []crew.Readiness, []Practice, error) {
	types, err := s.Fleet.Types(ctx)
	if err != nil {
		return nil, nil, nil, err
	}
	rows, err := s.Held(ctx, person)
	slices.SortFunc(types, func(a, b airframe.Type) int { return strings.Compare(a.Name, b.Name) })
	ready := make([]crew.Readiness, len(types))
	for i, t := range types {
		ready[i] = judge(rows, person, t)
	}
	return types, ready, rows, err
}
