// Package outbox takes presses that a device kept until it could send them: each
// once, however often it is sent, and from the moment in which it was made.
package outbox

import (
	"context"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/internal/people"
	"mainstay/internal/platform/fault"
)

// AtOnce is up to how old a press may be to count as heard when it was made:
// longer than a slow network takes, shorter than anything changes in the field.
const AtOnce = 10 * time.Second

// Press is what a device says of a press. The zero Press is one made just now
// by a client that keeps no outbox.
type Press struct {
	ID  uuid.UUID
	Ago time.Duration // by the device's own clock, between press and sending
}

type key struct{}

// With carries what a request said of its press: its id, how many seconds ago it
// was made, and by whom. One that somebody else made than is signed in is refused:
// nobody acts in the name of who used the device before.
func With(ctx context.Context, id *uuid.UUID, ago *float64, by *uuid.UUID) (context.Context, error) {
	if by != nil && *by != people.From(ctx).ID {
		return ctx, fault.Clash("press-not-yours",
			"This was pressed by somebody else than is signed in now. Nothing was changed; it is kept and sent when they sign in on this device.")
	}
	var p Press
	if id != nil {
		p.ID = *id
	}
	if ago != nil && *ago > 0 {
		p.Ago = time.Duration(*ago * float64(time.Second)).Truncate(time.Microsecond)
	}
	return context.WithValue(ctx, key{}, p), nil
}

// From is the press of a request.
func From(ctx context.Context) Press {
	p, _ := ctx.Value(key{}).(Press)
	return p
}

// Late reports whether it was made longer ago than a slow network takes.
func (p Press) Late() bool { return p.Ago > AtOnce }

// At is when it was made, heard now.
func (p Press) At(now time.Time) time.Time { return now.Add(-p.Ago) }

// HeardAt is now where that differs from when it was made, else nil.
func (p Press) HeardAt(now time.Time) *time.Time {
	if !p.Late() {
		return nil
	}
	return &now
}

// ReadAt is when something was read that a device sends later; zero: just now.
func ReadAt(ctx context.Context, now time.Time) time.Time {
	if p := From(ctx); p.Late() {
		return p.At(now)
	}
	return time.Time{}
}

// Once notes the press of a request within its transaction and reports whether
// it is new; one that was taken before, or is being taken by another request,
// changes nothing again. Something without an id is always new. An id that was
// used for something else, or by somebody else, is refused.
func Once(ctx context.Context, tx *gorm.DB, what string, now time.Time) (fresh bool, err error) {
	p, by := From(ctx), people.From(ctx).ID
	if p.ID == uuid.Nil {
		return true, nil
	}
	res := tx.Exec("insert into presses (id, person_id, what, pressed_at, heard_at) values (?, ?, ?, ?, ?) on conflict (id) do nothing",
		p.ID, by, what, p.At(now), now)
	if res.Error != nil || res.RowsAffected == 1 {
		return res.Error == nil, res.Error
	}
	var old struct {
		PersonID uuid.UUID
		What     string
	}
	if err := tx.Raw("select person_id, what from presses where id = ?", p.ID).Scan(&old).Error; err != nil {
		return false, err
	}
	if old.PersonID != by || old.What != what {
		return false, fault.Clash("press-used",
			"This press was sent before as something else. Nothing was changed; press again.")
	}
	return false, nil
}

// Remembered is how long a press is known by its id: longer than any device keeps one.
const Remembered = 60 * 24 * time.Hour

// Forget removes the ids of presses that nobody sends again.
func Forget(ctx context.Context, g *gorm.DB, now time.Time) error {
	return g.WithContext(ctx).Exec("delete from presses where heard_at < ?", now.Add(-Remembered)).Error
}
