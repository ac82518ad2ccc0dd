package people

import (
	"context"
	"strings"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/crew"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
)

// New is what a new person comes with.
type New struct {
	ID          uuid.UUID
	Login       string
	Name        string
	Roles       []crew.Role
	Password    string
	PIN         string
	Certificate string
	TrainedOn   *time.Time
	StickMode   *int
}

func (s *Service) check(n *New) []fault.Field {
	n.Login = strings.TrimSpace(n.Login)
	var bad []fault.Field
	n.Name, bad = cleanName(n.Name)
	fields := append(checkLogin(n.Login), bad...)
	if len(n.Roles) == 0 {
		fields = append(fields, fault.Field{Field: "roles", Sentence: "Choose at least one role."})
	}
	return append(append(fields, s.checkTraining(n.TrainedOn)...), checkSticks(n.StickMode)...)
}

// checkSticks refuses a stick mode that no controller has.
func checkSticks(mode *int) []fault.Field {
	if mode == nil || *mode >= 1 && *mode <= 4 {
		return nil
	}
	return []fault.Field{{Field: "stick_mode", Sentence: "Stick modes are 1 to 4."}}
}

func (n New) person(now time.Time) Person {
	p := Person{ID: n.ID, Login: n.Login, Name: n.Name, Active: true, SessionEpoch: 1, Version: 1,
		Certificate: strings.TrimSpace(n.Certificate), TrainedOn: n.TrainedOn, StickMode: n.StickMode, CreatedAt: now}
	for _, r := range n.Roles {
		p.Roles = append(p.Roles, string(r))
	}
	return p
}

// Enrol adds a person and returns the one-time password with which they come
// in and choose their own; it is kept nowhere. Enrolling the same id again
// gives a new one, as long as the person has not been here.
func (s *Service) Enrol(ctx context.Context, n New) (Person, string, error) {
	if err := fault.BadFields(s.check(&n)); err != nil {
		return Person{}, "", err
	}
	var old Person
	if err := s.DB.WithContext(ctx).Limit(1).Find(&old, "id = ?", n.ID).Error; err != nil {
		return old, "", err
	}
	if old.ID != uuid.Nil {
		if old.Once != "new" || old.Login != n.Login {
			return old, "", fault.Clash("id-in-use", "%s is in the crew already.", old.Name)
		}
		once, err := s.Reset(ctx, old.ID)
		return old, once, err
	}
	once, err := oncePassword()
	if err != nil {
		return old, "", err
	}
	p, until := n.person(s.Clock.Now()), s.Clock.Now().Add(onceFor)
	p.Once, p.OnceUntil = "new", &until
	if p.PasswordHash, err = s.hash(ctx, once); err != nil {
		return old, "", err
	}
	return p, once, s.add(ctx, p, From(ctx))
}

// Add adds a person who has chosen their secrets already: the first chief at
// set-up, and the made-up crews of demo and tests. Adding the same id twice
// changes nothing.
func (s *Service) Add(ctx context.Context, n New) (Person, error) {
	fields := append(s.check(&n), checkPIN(n.PIN)...)
	fields = append(fields, checkPassword("password", n.Password, n.Login, n.Name)...)
	if err := fault.BadFields(fields); err != nil {
		return Person{}, err
	}
	var old Person
	if err := s.DB.WithContext(ctx).Limit(1).Find(&old, "id = ?", n.ID).Error; err != nil || old.ID != uuid.Nil {
		return old, err
	}
	p := n.person(s.Clock.Now())
	var err error
	if p.PasswordHash, err = s.hash(ctx, n.Password); err != nil {
		return Person{}, err
	}
	if p.PinHash, err = s.hash(ctx, n.PIN); err != nil {
		return Person{}, err
	}
	by := From(ctx)
	if by.ID == uuid.Nil {
		by = p
	}
	return p, s.add(ctx, p, by)
}

func (s *Service) add(ctx context.Context, p, by Person) error {
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		if err := records.Turn(ctx, tx); err != nil {
			return err
		}
		if err := tx.Create(&p).Error; err != nil {
			return err
		}
		_, err := records.Append(ctx, tx, records.Entry{Kind: records.PersonAdded, Subject: p.ID, At: s.Clock.Now(),
			By: by.By(), Summary: p.Named() + " joined the crew as " + strings.Join(p.Roles, ", ") + ".", Content: p.content()})
		return err
	})
}

// content is the person as a record holds them: without secrets.
func (p Person) content() map[string]any {
	return map[string]any{"person": p.ID, "login": p.Login, "name": p.Name, "roles": p.Roles, "active": p.Active,
		"certificate": p.Certificate, "trained_on": p.TrainedOn, "stick_mode": p.StickMode}
}

func (s *Service) checkTraining(on *time.Time) []fault.Field {
	if on != nil && on.After(s.Clock.Now().Add(24*time.Hour)) {
		return []fault.Field{{Field: "trained_on", Sentence: "The training date lies in the future."}}
	}
	if on != nil && on.Year() < 1990 {
		return []fault.Field{{Field: "trained_on", Sentence: "The training date is too long ago to be right."}}
	}
	return nil
}
