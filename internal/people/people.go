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
	"github.com/lib/pq"
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
	Roles        pq.StringArray `gorm:"type:text[]"`
	PasswordHash string
	PinHash      string
	Active       bool
	Certificate  string
	TrainedOn    *time.Time `gorm:"type:date"`
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
		return []fault.Field{{Field: "login", Sentence: "A sign-in name has 2 to 40 letters, digits, dots, hyphens or underscores, and no spaces."}}
	}
	return nil
}

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
}

func (s *Service) check(n *New) []fault.Field {
	n.Login = strings.TrimSpace(n.Login)
	var bad []fault.Field
	n.Name, bad = cleanName(n.Name)
	fields := append(checkLogin(n.Login), bad...)
	if len(n.Roles) == 0 {
		fields = append(fields, fault.Field{Field: "roles", Sentence: "Choose at least one role."})
	}
	return append(fields, s.checkTraining(n.TrainedOn)...)
}

func (n New) person(now time.Time) Person {
	p := Person{ID: n.ID, Login: n.Login, Name: n.Name, Active: true, SessionEpoch: 1, Version: 1, Certificate: strings.TrimSpace(n.Certificate), TrainedOn: n.TrainedOn, CreatedAt: now}
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
		_, err := records.Append(ctx, tx, records.Entry{Kind: records.PersonAdded, Subject: p.ID, At: s.Clock.Now(), By: by.By(), Summary: p.Named() + " joined the crew as " + strings.Join(p.Roles, ", ") + ".", Content: p.content()})
		return err
	})
}

// content is the person as a record holds them: without secrets.
func (p Person) content() map[string]any {
	return map[string]any{"person": p.ID, "login": p.Login, "name": p.Name, "roles": p.Roles, "active": p.Active, "certificate": p.Certificate, "trained_on": p.TrainedOn}
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

// Edit is a change to a person.
type Edit struct {
	Version     int
	Name        string
	Roles       []crew.Role
	Active      bool
	Certificate string
	TrainedOn   *time.Time
}

// Update changes a person, if nobody did so meanwhile. The last active chief
// cannot be removed: nobody could manage the crew then.
func (s *Service) Update(ctx context.Context, id uuid.UUID, e Edit) (Person, error) {
	name, fields := cleanName(e.Name)
	if len(e.Roles) == 0 {
		fields = append(fields, fault.Field{Field: "roles", Sentence: "Choose at least one role."})
	}
	fields = append(fields, s.checkTraining(e.TrainedOn)...)
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
		p.Name, p.Active, p.Certificate, p.TrainedOn = name, e.Active, strings.TrimSpace(e.Certificate), e.TrainedOn
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
		_, err := records.Append(ctx, tx, records.Entry{Kind: records.PersonChanged, Subject: p.ID, At: s.Clock.Now(), By: From(ctx).By(), Summary: p.Named() + " changed: " + strings.Join(p.Roles, ", ") + map[bool]string{true: ".", false: ", no longer active."}[p.Active],
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
