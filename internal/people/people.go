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
	Version      int
	CreatedAt    time.Time
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

type ctxKey struct{}

// With returns a context in which p acts.
func With(ctx context.Context, p Person) context.Context { return context.WithValue(ctx, ctxKey{}, p) }

// From returns who acts in this context; a zero Person outside a request.
func From(ctx context.Context) Person { p, _ := ctx.Value(ctxKey{}).(Person); return p }

// Service holds the use cases about people.
type Service struct {
	DB    *gorm.DB
	Clock clock.Clock
	// Hash is the cost of password and PIN hashes; nil takes the default.
	Hash *argon2id.Params
}

// defaultHash follows the second recommended option of RFC 9106, with memory
// lowered to 32 MiB so that a small server bears several sign-ins at once.
var defaultHash = &argon2id.Params{Memory: 32 * 1024, Iterations: 3, Parallelism: 1, SaltLength: 16, KeyLength: 32}

func (s *Service) hash(secret string) (string, error) {
	p := s.Hash
	if p == nil {
		p = defaultHash
	}
	return argon2id.CreateHash(secret, p)
}

var pinForm = regexp.MustCompile(`^[0-9]{4,12}$`)

func checkPIN(pin string) []fault.Field {
	if !pinForm.MatchString(pin) {
		return []fault.Field{{Field: "pin", Sentence: "A PIN has 4 to 12 digits and nothing else."}}
	}
	if strings.Count(pin, pin[:1]) == len(pin) || strings.Contains("0123456789012", pin) || strings.Contains("98765432109", pin) {
		return []fault.Field{{Field: "pin", Sentence: "This PIN is too easy to guess: no repeated digit, no plain sequence."}}
	}
	return nil
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

// Add adds a person. Adding the same id twice changes nothing.
func (s *Service) Add(ctx context.Context, n New) (Person, error) {
	fields := append(checkLogin(n.Login), checkPIN(n.PIN)...)
	if strings.TrimSpace(n.Name) == "" {
		fields = append(fields, fault.Field{Field: "name", Sentence: "Enter the person's name."})
	}
	if len(n.Roles) == 0 {
		fields = append(fields, fault.Field{Field: "roles", Sentence: "Choose at least one role."})
	}
	if len([]rune(n.Password)) < 10 {
		fields = append(fields, fault.Field{Field: "password", Sentence: "A password has at least 10 characters."})
	}
	fields = append(fields, s.checkTraining(n.TrainedOn)...)
	if err := fault.BadFields(fields); err != nil {
		return Person{}, err
	}
	var old Person
	if err := s.DB.WithContext(ctx).Limit(1).Find(&old, "id = ?", n.ID).Error; err != nil || old.ID != uuid.Nil {
		return old, err
	}
	p := Person{ID: n.ID, Login: strings.TrimSpace(n.Login), Name: strings.TrimSpace(n.Name), Active: true, SessionEpoch: 1, Version: 1,
		Certificate: strings.TrimSpace(n.Certificate), TrainedOn: n.TrainedOn, CreatedAt: s.Clock.Now()}
	for _, r := range n.Roles {
		p.Roles = append(p.Roles, string(r))
	}
	var err error
	if p.PasswordHash, err = s.hash(n.Password); err != nil {
		return Person{}, err
	}
	if p.PinHash, err = s.hash(n.PIN); err != nil {
		return Person{}, err
	}
	err = db.Tx(ctx, s.DB, func(_ context.Context, tx *gorm.DB) error { return tx.Create(&p).Error })
	return p, err
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

// Edit is a change to a person; an empty password leaves it as it is.
type Edit struct {
	Version     int
	Name        string
	Roles       []crew.Role
	Active      bool
	Certificate string
	TrainedOn   *time.Time
	Password    string
}

// Update changes a person, if nobody did so meanwhile. The last active chief
// cannot be removed: nobody could manage the crew then.
func (s *Service) Update(ctx context.Context, id uuid.UUID, e Edit) (Person, error) {
	var fields []fault.Field
	if strings.TrimSpace(e.Name) == "" {
		fields = append(fields, fault.Field{Field: "name", Sentence: "Enter the person's name."})
	}
	if len(e.Roles) == 0 {
		fields = append(fields, fault.Field{Field: "roles", Sentence: "Choose at least one role."})
	}
	fields = append(fields, s.checkTraining(e.TrainedOn)...)
	if err := fault.BadFields(fields); err != nil {
		return Person{}, err
	}
	var p Person
	err := db.Tx(ctx, s.DB, func(_ context.Context, tx *gorm.DB) error {
		// All chiefs are locked together, so that two edits cannot remove the last two.
		var chiefs []Person
		if err := tx.Raw("select * from people where active and 'chief' = any(roles) order by id for update").Scan(&chiefs).Error; err != nil {
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
		p.Name, p.Active, p.Certificate, p.TrainedOn = strings.TrimSpace(e.Name), e.Active, strings.TrimSpace(e.Certificate), e.TrainedOn
		p.Roles = nil
		for _, r := range e.Roles {
			p.Roles = append(p.Roles, string(r))
		}
		if e.Password != "" {
			h, err := s.hash(e.Password)
			if err != nil {
				return err
			}
			p.PasswordHash = h
		}
		if e.Password != "" || !e.Active {
			p.SessionEpoch++
		}
		p.Version++
		return tx.Save(&p).Error
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
