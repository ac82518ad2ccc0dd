package people

import (
	"context"
	"fmt"
	"math"
	"time"

	"github.com/alexedwards/argon2id"
	"github.com/google/uuid"

	"mainstay/internal/platform/fault"
)

// Limits on guessing: so many failures within the window lock the key.
const (
	maxFailures   = 5
	maxByAddress  = 30
	failureWindow = 15 * time.Minute
	lockFor       = 5 * time.Minute
)

// decoy is compared when no such login exists, so that the time taken does not
// tell which logins do.
var decoy, _ = argon2id.CreateHash("no such person", defaultHash)

// SignIn checks a login and password; address is where the request came from.
// It says the same whether the login or the password is wrong.
func (s *Service) SignIn(ctx context.Context, login, password, address string) (Person, error) {
	byLogin, byAddress := "login:"+login, "address:"+address
	for key, limit := range map[string]int{byLogin: maxFailures, byAddress: maxByAddress} {
		if err := s.locked(ctx, key, limit); err != nil {
			return Person{}, err
		}
	}
	var p Person
	if err := s.DB.WithContext(ctx).Limit(1).Find(&p, "lower(login) = lower(?) and active", login).Error; err != nil {
		return Person{}, err
	}
	hash := p.PasswordHash
	if p.ID == uuid.Nil {
		hash = decoy
	}
	ok, err := argon2id.ComparePasswordAndHash(password, hash)
	if err != nil {
		return Person{}, err
	}
	if !ok || p.ID == uuid.Nil {
		for _, key := range []string{byLogin, byAddress} {
			if err := s.failed(ctx, key, map[bool]int{true: maxFailures, false: maxByAddress}[key == byLogin]); err != nil {
				return Person{}, err
			}
		}
		return Person{}, &fault.Error{Kind: fault.Unauthorized, Type: "wrong-password", Detail: "Sign-in name and password do not match.",
			Fields: []fault.Field{{Field: "password", Sentence: "Sign-in name and password do not match."}}}
	}
	return p, s.DB.WithContext(ctx).Exec("delete from attempts where key = ?", byLogin).Error
}

// Sign checks the PIN of a person who is about to sign. A wrong PIN signs
// nothing, is counted, and after five locks signing for five minutes.
func (s *Service) Sign(ctx context.Context, id uuid.UUID, pin string) error {
	key := "pin:" + id.String()
	if err := s.locked(ctx, key, maxFailures); err != nil {
		return err
	}
	p, err := s.Get(ctx, id)
	if err != nil {
		return err
	}
	ok, err := argon2id.ComparePasswordAndHash(pin, p.PinHash)
	if err != nil {
		return err
	}
	if !ok {
		if err := s.failed(ctx, key, maxFailures); err != nil {
			return err
		}
		return fault.Bad("pin", "This is not %s's PIN. Nothing was signed.", p.Name)
	}
	return s.DB.WithContext(ctx).Exec("delete from attempts where key = ?", key).Error
}

func (s *Service) locked(ctx context.Context, key string, limit int) error {
	var until *time.Time
	err := s.DB.WithContext(ctx).Raw("select locked_until from attempts where key = ? and failures >= ?", key, limit).Scan(&until).Error
	if err != nil || until == nil {
		return err
	}
	if left := until.Sub(s.Clock.Now()); left > 0 {
		return &fault.Error{Kind: fault.TooMany, Type: "locked", Detail: fmt.Sprintf("Too many wrong tries. Wait %.0f minutes and try again; nothing was signed or changed.", math.Ceil(left.Minutes()))}
	}
	return nil
}

func (s *Service) failed(ctx context.Context, key string, limit int) error {
	now := s.Clock.Now()
	return s.DB.WithContext(ctx).Exec(`insert into attempts as a (key, failures, since) values (?, 1, ?)
		on conflict (key) do update set
			failures = case when a.since < ? or a.locked_until <= ? then 1 else a.failures + 1 end,
			since = case when a.since < ? or a.locked_until <= ? then excluded.since else a.since end,
			locked_until = case when a.since >= ? and (a.locked_until is null or a.locked_until > ?) and a.failures + 1 >= ? then ?::timestamptz end`,
		key, now, now.Add(-failureWindow), now, now.Add(-failureWindow), now, now.Add(-failureWindow), now, limit, now.Add(lockFor)).Error
}

// ChangePIN sets a person's own PIN after checking the password.
func (s *Service) ChangePIN(ctx context.Context, id uuid.UUID, password, pin string) error {
	if err := fault.BadFields(checkPIN(pin)); err != nil {
		return err
	}
	return s.change(ctx, id, password, pin, "pin_hash", false)
}

// ChangePassword sets a person's own password after checking the old one, and
// ends the person's sessions elsewhere.
func (s *Service) ChangePassword(ctx context.Context, id uuid.UUID, password, next string) error {
	if len([]rune(next)) < 10 {
		return fault.Bad("new_password", "A password has at least 10 characters.")
	}
	return s.change(ctx, id, password, next, "password_hash", true)
}

func (s *Service) change(ctx context.Context, id uuid.UUID, password, secret, column string, endSessions bool) error {
	p, err := s.Get(ctx, id)
	if err != nil {
		return err
	}
	if _, err := s.SignIn(ctx, p.Login, password, "own:"+id.String()); err != nil {
		if fault.Is(err, "wrong-password") {
			return fault.Bad("password", "This is not your password.")
		}
		return err
	}
	h, err := s.hash(secret)
	if err != nil {
		return err
	}
	set := map[string]any{column: h}
	if endSessions {
		set["session_epoch"] = p.SessionEpoch + 1
	}
	return s.DB.WithContext(ctx).Model(&Person{}).Where("id = ?", id).Updates(set).Error
}
