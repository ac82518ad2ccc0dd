package people

import (
	"context"
	"fmt"
	"math"
	"slices"
	"sync"
	"time"

	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
)

// Limits on guessing. A try counts in the database before the secret is looked
// at, so that any number of guesses at once, on any number of servers, are no
// more than the limit; a right one is taken off again.
const (
	triesOfPerson  = 5                // at one person, from one of their devices, or from all others together
	triesOfAsker   = 10               // by one signed-in person, at others
	triesOfDevice  = 10               // on one device, at people who have not signed in on it
	triesOfAddress = 100              // from one address: a crew behind one router signs in at once
	tryWindow      = 15 * time.Minute // in which they count together
	lockFor        = 5 * time.Minute  // the first time; it doubles with each lock that follows
	maxDoublings   = 6
)

// limit is one count: at most so many tries within the window.
type limit struct {
	key string
	max int
	own bool // a right try wipes the count; else it only takes itself off
}

// take counts a try against every limit, and refuses it when one is used up.
func (s *Service) take(ctx context.Context, limits []limit) error {
	limits = slices.Clone(limits)
	slices.SortFunc(limits, func(a, b limit) int { // one order, so that two never wait for each other
		if a.key < b.key {
			return -1
		}
		return 1
	})
	now := s.Clock.Now()
	for i, l := range limits {
		var row struct {
			Tries       int
			LockedUntil *time.Time
		}
		// Over the limit the row locks, for longer each time; a row whose window or lock is over begins anew. A lock
		// that ends later than any can was made by a clock that was ahead, and is none.
		err := s.DB.WithContext(db.Outside(ctx)).Raw(`insert into attempts as a (key, tries, since) values (@key, 1, @now)
			on conflict (key) do update set (tries, since, locks, locked_until) = (
				select case when x.locked then a.tries when x.anew then 1 else a.tries + 1 end,
					case when x.anew then @now else a.since end,
					case when x.over then a.locks + 1 when a.since < @forget then 0 else a.locks end,
					case when x.locked then a.locked_until when x.over then cast(@now as timestamptz) + cast(@lock as interval) * power(2, least(a.locks, @doublings)) end
				from (select y.locked, not y.locked and (a.locked_until is not null or a.since < @from) as anew, not y.locked and a.locked_until is null and a.since >= @from and a.tries >= @max as over
					from (select coalesce(a.locked_until > @now and a.locked_until <= @longest, false) as locked) y) x)
			returning tries, locked_until`,
			map[string]any{"key": l.key, "now": now, "from": now.Add(-tryWindow), "forget": now.Add(-24 * time.Hour),
				"longest": now.Add(lockFor << maxDoublings), "max": l.max,
				"lock": fmt.Sprintf("%d seconds", int(lockFor.Seconds())), "doublings": maxDoublings}).Scan(&row).Error
		if err != nil {
			return err
		}
		if row.LockedUntil != nil {
			if err := s.giveBack(ctx, limits[:i], false); err != nil {
				return err
			}
			return &fault.Error{Kind: fault.TooMany, Type: "locked",
				Detail: fmt.Sprintf("Too many wrong tries. Wait %.0f minutes and try again; nothing was signed or changed.",
					math.Max(1, math.Ceil(row.LockedUntil.Sub(now).Minutes())))}
		}
	}
	return nil
}

// giveBack takes a try off again: one that was right, or one that another
// limit refused.
func (s *Service) giveBack(ctx context.Context, limits []limit, right bool) error {
	for _, l := range limits {
		do := "update attempts set tries = greatest(tries - 1, 0) where key = ? and locked_until is null"
		if right && l.own {
			do = "delete from attempts where key = ?"
		}
		if err := s.DB.WithContext(db.Outside(ctx)).Exec(do, l.key).Error; err != nil {
			return err
		}
	}
	return nil
}

// turns lets tries at one key wait for one another on this server: somebody who
// presses ten times at once with the right PIN is not locked for it.
type turns struct {
	mu   sync.Mutex
	held map[string]*turn
}

type turn struct {
	in   chan struct{}
	used int
}

// wait waits until it is this one's turn and returns a func that ends it.
func (t *turns) wait(ctx context.Context, key string) (func(), error) {
	t.mu.Lock()
	if t.held == nil {
		t.held = map[string]*turn{}
	}
	e := t.held[key]
	if e == nil {
		e = &turn{in: make(chan struct{}, 1)}
		t.held[key] = e
	}
	e.used++
	t.mu.Unlock()
	leave := func() {
		t.mu.Lock()
		if e.used--; e.used == 0 {
			delete(t.held, key)
		}
		t.mu.Unlock()
	}
	select {
	case e.in <- struct{}{}:
		return func() { <-e.in; leave() }, nil
	case <-ctx.Done():
		leave()
		return nil, ctx.Err()
	}
}

// Forget removes counts, sessions and devices of long ago, which no longer matter.
func (s *Service) Forget(ctx context.Context) error {
	now := s.Clock.Now()
	g := s.DB.WithContext(ctx)
	if err := g.Exec("delete from attempts where since < ? and coalesce(locked_until, since) < ?", now.Add(-48*time.Hour),
		now.Add(-48*time.Hour)).Error; err != nil {
		return err
	}
	if err := g.Exec("delete from sessions where expiry < now()").Error; err != nil {
		return err
	}
	return g.Exec("delete from devices where last_at < ?", now.Add(-deviceLife)).Error
}
