package evening

import (
	"context"
	"slices"
	"strings"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/pack"
	"mainstay/internal/fleet"
	"mainstay/internal/outbox"
	"mainstay/internal/people"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
)

// Tick is a line of the evening that is done.
type Tick struct {
	Item   string
	Label  string // of the pack it is about
	ByName string
	At     time.Time
}

// What a tick does to its pack; the others only say that something is done.
var does = map[string]pack.State{"charge": pack.Charging, "charged": pack.Charged, "lower": pack.Storage}

// Tick notes that a line is done, and does it: a pack that is ticked goes on
// charge, is charged, or is at storage level with the same press. Taking a tick
// back puts the pack where it was, unless it has gone on since.
func (s *Service) Tick(ctx context.Context, day time.Time, item string, done bool) error {
	d := day.Format(time.DateOnly)
	kind, thing, _ := strings.Cut(item, ":")
	if !slices.Contains([]string{"charge", "charged", "ready", "lower", "gear"}, kind) || thing == "" {
		return fault.Bad("item", "This is not an item of the evening.")
	}
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		now := s.Clock.Now()
		if fresh, err := outbox.Once(ctx, tx, "tick "+d+" "+item, now); err != nil || !fresh {
			return err
		}
		var old struct{ Item, Was string }
		if err := tx.Raw("select item, was from evening_ticks where day = ? and item = ?", d,
			item).Scan(&old).Error; err != nil || done == (old.Item != "") {
			return err // it is so already
		}
		to, moves := does[kind]
		if !done {
			if moves && old.Was != "" {
				if err := s.back(ctx, tx, thing, to, pack.State(old.Was)); err != nil {
					return err
				}
			}
			return tx.Exec("delete from evening_ticks where day = ? and item = ?", d, item).Error
		}
		was := pack.State("")
		if moves {
			var err error
			if was, err = s.move(ctx, tx, thing, to); err != nil {
				return err
			}
		}
		return tx.Exec("insert into evening_ticks (day, item, by_name, at, was) values (?, ?, ?, ?, ?)", d, item,
			people.From(ctx).Name, outbox.From(ctx).At(now), string(was)).Error
	})
}

// move brings a pack into a state and says which it left; nothing when it is
// there already.
func (s *Service) move(ctx context.Context, tx *gorm.DB, thing string, to pack.State) (pack.State, error) {
	p, err := lockPack(tx, thing)
	if err != nil || p.State == string(to) {
		return "", err
	}
	was := pack.State(p.State)
	return was, s.Fleet.Move(ctx, tx, &p, to, "")
}

// back puts a pack where it was before a tick, if it is still where the tick put it.
func (s *Service) back(ctx context.Context, tx *gorm.DB, thing string, put, was pack.State) error {
	p, err := lockPack(tx, thing)
	if err != nil || p.State != string(put) || p.LeftState != string(was) {
		return err
	}
	return s.Fleet.PutBack(ctx, tx, &p)
}

func lockPack(tx *gorm.DB, thing string) (fleet.Pack, error) {
	id, err := uuid.Parse(thing)
	if err != nil {
		return fleet.Pack{}, fault.Bad("item", "This is not an item of the evening.")
	}
	ps, err := fleet.LockPacks(tx, []uuid.UUID{id})
	if err == nil && len(ps) == 0 {
		err = fault.Missing("pack")
	}
	if err != nil {
		return fleet.Pack{}, err
	}
	return ps[0], nil
}
