package people

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"strings"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/crew"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
)

// SignIn checks a sign-in name and password. It says the same whether the name
// or the password is wrong. Wrong tries from elsewhere do not lock a device on
// which the person has signed in before.
func (s *Service) SignIn(ctx context.Context, login, password string) (Person, error) {
	var p Person
	if err := s.DB.WithContext(ctx).Limit(1).Find(&p, "lower(login) = lower(?) and active", login).Error; err != nil {
		return Person{}, err
	}
	ok, err := s.tryPassword(ctx, p, login, password)
	if err != nil {
		return Person{}, err
	}
	if !ok {
		return Person{}, &fault.Error{Kind: fault.Unauthorized, Type: "wrong-password",
			Detail: "Sign-in name and password do not match.",
			Fields: []fault.Field{{Field: "password", Sentence: "Sign-in name and password do not match."}}}
	}
	if p.Once != "" && p.OnceUntil != nil && s.Clock.Now().After(*p.OnceUntil) {
		return Person{}, &fault.Error{Kind: fault.Unauthorized, Type: "wrong-password",
			Detail: "This one-time password has run out. Ask a chief for a new one.",
			Fields: []fault.Field{{Field: "password",
				Sentence: "This one-time password has run out. Ask a chief for a new one."}}}
	}
	if p.Once != "" {
		return p, nil // whoever knows a one-time password need not be the person
	}
	return p, s.keepDevice(ctx, p.ID)
}

// tryPassword judges one try at a password, counted under the person, however
// the name was spelt, or under the name where there is no such person.
func (s *Service) tryPassword(ctx context.Context, p Person, login, password string) (bool, error) {
	who := "login:" + p.ID.String()
	if p.ID == uuid.Nil {
		h := sha256.Sum256([]byte(strings.ToLower(strings.ToValidUTF8(login, ""))))
		who = "nobody:" + hex.EncodeToString(h[:])
	}
	return s.try(ctx, p.ID, who, password, p.PasswordHash)
}

// SecondPerson is somebody else of the given roles, or a chief, who signs with the
// own PIN what the person of the context did. Faults stand at second_login and
// second_pin.
func (s *Service) SecondPerson(ctx context.Context, login, pin string, roles ...crew.Role) (Person, error) {
	p, err := s.ByLogin(ctx, login)
	switch {
	case err != nil || !p.Active:
		return p, fault.Bad("second_login", "A second person looks at this work: choose who.")
	case p.ID == From(ctx).ID:
		return p, fault.Bad("second_login", "The second person is somebody else than you.")
	case !p.Has(roles...):
		return p, fault.Bad("second_login", "%s does not have a role in which somebody looks at this work as second person.",
			p.Name)
	}
	if err := s.Sign(ctx, p.ID, pin); err != nil {
		if f, ok := fault.As(err); ok {
			return p, &fault.Error{Kind: f.Kind, Type: f.Type, Detail: f.Detail,
				Fields: []fault.Field{{Field: "second_pin", Sentence: f.Detail}}}
		}
		return p, err
	}
	return p, nil
}

// Sign checks the PIN of a person who is about to sign: of whoever is signed in
// here, or of somebody else who takes the same device in hand. A wrong PIN
// signs nothing and is counted. What makes a signature, the person's standing
// and roles, is looked at again when its record is written.
func (s *Service) Sign(ctx context.Context, id uuid.UUID, pin string) error {
	p, err := s.Get(ctx, id)
	if err != nil {
		return err
	}
	if err := mayPressPIN(p); err != nil {
		return err
	}
	ok, err := s.try(ctx, p.ID, "pin:"+p.ID.String(), pin, p.PinHash)
	if err != nil {
		return err
	}
	if !ok {
		return fault.Bad("pin", "This is not %s's PIN. Nothing was signed.", p.Name)
	}
	return nil
}

func mayPressPIN(p Person) error {
	switch {
	case !p.Active:
		return fault.Denied("%s is no longer active in this crew and signs nothing. Nothing was signed.", p.Name)
	case p.Once != "":
		return fault.Denied("%s has not chosen their own password and PIN yet and signs nothing before. Nothing was signed.",
			p.Name)
	}
	return nil
}

// try judges one guess at a secret of a person. On a device of theirs it counts
// for itself. Elsewhere all devices count together, and so do the device, its
// address, and who is signed in on it.
func (s *Service) try(ctx context.Context, person uuid.UUID, who, secret, hash string) (bool, error) {
	known, err := s.knows(ctx, person)
	if err != nil {
		return false, err
	}
	d, by := DeviceOf(ctx), From(ctx)
	var limits []limit
	switch {
	case known:
		limits = []limit{{who + ":on:" + d.name(), triesOfPerson, true}}
	case d.Address == "": // not a request: a command or a test
		limits = []limit{{who + ":elsewhere", triesOfPerson, true}}
	default:
		limits = []limit{{who + ":elsewhere", triesOfPerson, true}, {"address:" + d.network(), triesOfAddress, false}}
		if d.Token != "" {
			limits = append(limits, limit{"device:" + d.name(), triesOfDevice, false})
		}
		if by.ID != uuid.Nil && by.ID != person {
			limits = append(limits, limit{"asker:" + by.ID.String(), triesOfAsker, false})
		}
	}
	done, err := s.turns.wait(ctx, limits[0].key)
	if err != nil {
		return false, err
	}
	defer done()
	if err := s.take(ctx, limits); err != nil {
		return false, err
	}
	ok, err := s.matches(ctx, secret, hash)
	if err != nil {
		return false, err // the try stays counted: nobody can say what it was
	}
	if ok {
		return true, s.giveBack(ctx, limits, true)
	}
	return false, nil
}

// ChangePIN sets a person's own PIN after checking the password.
func (s *Service) ChangePIN(ctx context.Context, id uuid.UUID, password, pin string) error {
	if err := fault.BadFields(checkPIN(pin)); err != nil {
		return err
	}
	p, err := s.ownPassword(ctx, id, password)
	if err != nil {
		return err
	}
	h, err := s.hash(ctx, pin)
	if err != nil {
		return err
	}
	return s.setSecrets(ctx, p, map[string]any{"pin_hash": h}, "chose a new PIN")
}

// ChangePassword sets a person's own password after checking the old one, and
// ends the person's sessions elsewhere.
func (s *Service) ChangePassword(ctx context.Context, id uuid.UUID, password, next string) error {
	p, err := s.ownPassword(ctx, id, password)
	if err != nil {
		return err
	}
	if err := fault.BadFields(checkPassword("new_password", next, p.Login, p.Name)); err != nil {
		return err
	}
	h, err := s.hash(ctx, next)
	if err != nil {
		return err
	}
	return s.setSecrets(ctx, p, map[string]any{"password_hash": h}, "chose a new password")
}

func (s *Service) ownPassword(ctx context.Context, id uuid.UUID, password string) (Person, error) {
	p, err := s.Get(ctx, id)
	if err != nil {
		return p, err
	}
	if p.Once != "" {
		return p, fault.Denied("Choose your own password and PIN first.")
	}
	ok, err := s.tryPassword(ctx, p, p.Login, password)
	if err == nil && !ok {
		err = fault.Bad("password", "This is not your password.")
	}
	return p, err
}

// FirstSecrets is the way from a one-time password to one's own secrets. Who is
// new chooses both. Whose password was reset proves to be the same person by
// the PIN that only they know, so that nobody who resets a password can sign as
// somebody else.
func (s *Service) FirstSecrets(ctx context.Context, id uuid.UUID, password, pin string) error {
	p, err := s.Get(ctx, id)
	if err != nil {
		return err
	}
	if p.Once == "" {
		return fault.Clash("secrets-chosen", "You have chosen your password and PIN already. Change them under Crew.")
	}
	fields := checkPassword("new_password", password, p.Login, p.Name)
	if p.Once == "new" {
		fields = append(fields, checkPIN(pin)...)
	}
	if err := fault.BadFields(fields); err != nil {
		return err
	}
	if ok, err := s.matches(ctx, password, p.PasswordHash); err != nil {
		return err
	} else if ok {
		return fault.Bad("new_password", "This is the one-time password. Choose another, which only you know.")
	}
	set, what := map[string]any{"once": "", "once_until": nil}, "chose a password after a reset"
	if p.Once == "new" {
		what = "chose a password and a PIN"
		if set["pin_hash"], err = s.hash(ctx, pin); err != nil {
			return err
		}
	} else {
		ok, err := s.try(ctx, p.ID, "pin:"+p.ID.String(), pin, p.PinHash)
		if err != nil {
			return err
		}
		if !ok {
			return fault.Bad("pin",
				"This is not your PIN. Enter the PIN you signed with before the reset; if it is lost too, a chief adds you as a new person.")
		}
	}
	if set["password_hash"], err = s.hash(ctx, password); err != nil {
		return err
	}
	if err := s.setSecrets(ctx, p, set, what); err != nil {
		return err
	}
	return s.keepDevice(ctx, p.ID)
}

// setSecrets writes new secrets unless somebody set others meanwhile, and puts
// on record that they changed. A new password ends the person's sessions.
func (s *Service) setSecrets(ctx context.Context, p Person, set map[string]any, what string) error {
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		if err := records.Turn(ctx, tx); err != nil {
			return err
		}
		if _, password := set["password_hash"]; password {
			set["session_epoch"] = p.SessionEpoch + 1
		}
		done := tx.Model(&Person{}).Where("id = ? and active and once = ? and password_hash = ? and pin_hash = ?", p.ID,
			p.Once, p.PasswordHash, p.PinHash).Updates(set)
		if done.Error != nil {
			return done.Error
		}
		if done.RowsAffected == 0 {
			return fault.Clash("stale", "Your password or PIN was changed meanwhile. Nothing was changed now; sign in again.")
		}
		_, err := records.Append(ctx, tx, records.Entry{Kind: records.SecretChanged, Subject: p.ID, At: s.Clock.Now(),
			By: p.By(), Summary: p.Named() + " " + what + ".",
			Content: map[string]any{"person": p.ID, "login": p.Login, "what": what}})
		return err
	})
}

// server names whoever may start commands where the server runs, in the records.
var server = Person{Name: "Whoever runs the server", Login: "server"}

// ResetByServer is Reset from where the server runs, for a crew whose only chief
// forgot the password. It returns the password and until when it is good.
func (s *Service) ResetByServer(ctx context.Context, login string) (string, time.Time, error) {
	p, err := s.ByLogin(ctx, login)
	if err != nil {
		return "", time.Time{}, err
	}
	once, err := s.Reset(With(ctx, server), p.ID)
	return once, s.Clock.Now().Add(onceFor), err
}

// Reset gives a person a one-time password and ends their sessions. The PIN
// stays: with the one-time password alone nobody signs. It returns the
// password, which is kept nowhere.
func (s *Service) Reset(ctx context.Context, id uuid.UUID) (string, error) {
	by := From(ctx)
	if id == by.ID {
		return "", fault.Bad("id", "Change your own password under “My password”; nobody resets their own.")
	}
	once, err := oncePassword()
	if err != nil {
		return "", err
	}
	h, err := s.hash(ctx, once)
	if err != nil {
		return "", err
	}
	err = db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		if err := records.Turn(ctx, tx); err != nil {
			return err
		}
		var p Person
		if err := tx.Raw("select * from people where id = ? for no key update", id).Scan(&p).Error; err != nil {
			return err
		}
		if p.ID == uuid.Nil {
			return fault.Missing("person")
		}
		if !p.Active {
			return fault.Clash("stale", "%s is not active. Make them active first; nothing was changed.", p.Name)
		}
		kind := "reset"
		if p.PinHash == "" {
			kind = "new" // has not been here yet
		}
		if err := tx.Exec("update people set password_hash = ?, once = ?, once_until = ?, session_epoch = session_epoch + 1, version = version + 1 where id = ?",
			h, kind, s.Clock.Now().Add(onceFor), id).Error; err != nil {
			return err
		}
		_, err := records.Append(ctx, tx, records.Entry{Kind: records.SecretReset, Subject: p.ID, At: s.Clock.Now(),
			By: by.By(), Summary: "One-time password given to " + p.Named() + ".",
			Content: map[string]any{"person": p.ID, "login": p.Login}})
		return err
	})
	if err != nil {
		return "", err
	}
	return once, nil
}
