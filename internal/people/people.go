// Package people knows the crew: who they are, what they may do, how they sign
// in and how they sign. All dates are civil dates in the crew's zone.
package people

import (
	"context"
	"regexp"
	"slices"
	"strings"
	"time"

	"github.com/alexedwards/argon2id"
	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/crew"
	"mainstay/internal/platform/clock"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
)

// Person is one member of the crew.
type Person struct {
	ID           uuid.UUID
	Login        string
	Name         string
	Roles        db.Array[string] `gorm:"type:text[]"`
	PasswordHash string
	PinHash      string
	Active       bool
	Certificate  string
	TrainedOn    *time.Time `gorm:"type:date"`
	StickMode    *int       // 1 to 4; nil: not known
	SessionEpoch int
	// Once says that the password is one-time: "new" for somebody without a PIN,
	// "reset" for somebody who has one; OnceUntil is when it runs out.
	Once      string
	OnceUntil *time.Time
	Version   int
	CreatedAt time.Time
}

// TableName is the table of people.
func (Person) TableName() string { return "people" }

// Held returns the person's roles.
func (p Person) Held() []crew.Role {
	out := make([]crew.Role, len(p.Roles))
	for i, r := range p.Roles {
		out[i] = crew.Role(r)
	}
	return out
}

// Has reports whether the person holds one of the roles; a chief holds all.
func (p Person) Has(roles ...crew.Role) bool { return crew.Has(p.Held(), roles...) }

// Named is the name with the sign-in name: two people may come to be called
// alike over the years, but no two ever sign in alike.
func (p Person) Named() string { return p.Name + " (" + p.Login + ")" }

// By is the person as records name them.
func (p Person) By() records.By {
	return records.By{ID: p.ID, Name: p.Named(), Roles: p.Roles}
}

type ctxKey struct{}

// With returns a context in which p acts.
func With(ctx context.Context, p Person) context.Context {
	return records.As(context.WithValue(ctx, ctxKey{}, p), p.By())
}

// From returns who acts in this context; a zero Person outside a request.
func From(ctx context.Context) Person { p, _ := ctx.Value(ctxKey{}).(Person); return p }

// Service holds the use cases about people.
type Service struct {
	DB    *gorm.DB
	Clock clock.Clock
	// Hash is the cost of password and PIN hashes; nil takes the default.
	Hash *argon2id.Params

	turns turns
}

func checkLogin(login string) []fault.Field {
	if !regexp.MustCompile(`^[a-zA-Z0-9][a-zA-Z0-9._@-]{1,39}$`).MatchString(login) {
		return []fault.Field{{Field: "login",
			Sentence: "A sign-in name has 2 to 40 letters, digits, dots, hyphens or underscores, and no spaces."}}
	}
	return nil
}

// Edit is a change to a person.
type Edit struct {
	Version     int
	Name        string
	Roles       []crew.Role
	Active      bool
	Certificate string
	TrainedOn   *time.Time
	StickMode   *int
}

// Update changes a person, if nobody did so meanwhile. The last active chief
// cannot be removed: nobody could manage the crew then.
func (s *Service) Update(ctx context.Context, id uuid.UUID, e Edit) (Person, error) {
	name, fields := cleanName(e.Name)
	if len(e.Roles) == 0 {
		fields = append(fields, fault.Field{Field: "roles", Sentence: "Choose at least one role."})
	}
	fields = append(append(fields, s.checkTraining(e.TrainedOn)...), checkSticks(e.StickMode)...)
	if err := fault.BadFields(fields); err != nil {
		return Person{}, err
	}
	var p Person
	err := db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		// Nobody signs while it changes who may: the next signature sees this.
		if err := records.Turn(ctx, tx); err != nil {
			return err
		}
		// All chiefs are locked together, so that two edits cannot remove the last two.
		var chiefs []Person
		if err := tx.Raw("select * from people where active and 'chief' = any(roles) order by id for no key update").Scan(&chiefs).Error; err != nil {
			return err
		}
		if err := tx.Limit(1).Find(&p, "id = ?", id).Error; err != nil {
			return err
		}
		if p.ID == uuid.Nil {
			return fault.Missing("person")
		}
		if p.Version != e.Version {
			return fault.Stale("person")
		}
		staysChief := e.Active && slices.Contains(e.Roles, crew.Chief)
		if len(chiefs) == 1 && chiefs[0].ID == id && !staysChief {
			return fault.Bad("roles", "%s is the only chief. Make somebody else chief first.", p.Name)
		}
		before := p.content()
		p.Name, p.Active, p.Certificate, p.TrainedOn, p.StickMode = name, e.Active, strings.TrimSpace(e.Certificate),
			e.TrainedOn, e.StickMode
		p.Roles = nil
		for _, r := range e.Roles {
			p.Roles = append(p.Roles, string(r))
		}
		if !e.Active {
			p.SessionEpoch++
		}
		p.Version++
		if err := tx.Save(&p).Error; err != nil {
			return err
		}
		_, err := records.Append(ctx, tx, records.Entry{Kind: records.PersonChanged, Subject: p.ID, At: s.Clock.Now(),
			By: From(ctx).By(), Summary: p.Named() + " changed: " + strings.Join(p.Roles, ", ") + map[bool]string{true: ".",
				false: ", no longer active."}[p.Active],
			Content: map[string]any{"before": before, "after": p.content()}})
		return err
	})
	return p, err
}

// List returns everybody, active people first.
func (s *Service) List(ctx context.Context) ([]Person, error) {
	var out []Person
	err := s.DB.WithContext(ctx).Order("active desc, lower(name)").Find(&out).Error
	return out, err
}

// Get returns one person.
func (s *Service) Get(ctx context.Context, id uuid.UUID) (Person, error) {
	var p Person
	if err := s.DB.WithContext(ctx).Limit(1).Find(&p, "id = ?", id).Error; err != nil {
		return p, err
	}
	if p.ID == uuid.Nil {
		return p, fault.Missing("person")
	}
	return p, nil
}

// ByLogin returns the person who signs in with a name.
func (s *Service) ByLogin(ctx context.Context, login string) (Person, error) {
	var p Person
	if err := s.DB.WithContext(ctx).Limit(1).Find(&p, "lower(login) = lower(?)", login).Error; err != nil {
		return p, err
	}
	if p.ID == uuid.Nil {
		return p, fault.Missing("person")
	}
	return p, nil
}
