package fleet

import (
	"context"
	"slices"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/pack"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
)

// UndoFor is how long a move of several packs can be taken back.
const UndoFor = 15 * time.Minute

// Chosen is one of several packs, as it was when it was chosen.
type Chosen struct {
	ID      uuid.UUID
	Version int
}

// Outcome is what became of one of several packs: where it came from and its
// version now, or the sentence of its refusal.
type Outcome struct {
	ID       uuid.UUID
	Label    string
	Was      pack.State
	Version  int
	Sentence string
}

// MoveSeveral moves packs to one state, each by itself: one that may not go
// there holds up no other.
func (s *Service) MoveSeveral(ctx context.Context, to pack.State, packs []Chosen) ([]Outcome, error) {
	if !slices.Contains(together, to) {
		return nil, fault.Bad("state",
			"Several packs at once go on charge, are charged, are cooled down or are at storage level; the rest is done pack by pack.")
	}
	return s.several(ctx, packs, func(ctx context.Context, tx *gorm.DB, p *Pack) error {
		return s.Move(ctx, tx, p, to, "")
	})
}

// MoveBack takes moves back that were a slip: a pack that has not changed since
// is where it was.
func (s *Service) MoveBack(ctx context.Context, packs []Chosen) ([]Outcome, error) {
	return s.several(ctx, packs, func(ctx context.Context, tx *gorm.DB, p *Pack) error {
		if s.Clock.Now().Sub(p.StateSince) > UndoFor {
			return fault.Clash("move-not-allowed", "%s was moved too long ago to take it back; move it on instead.", p.Label)
		}
		return s.PutBack(ctx, tx, p)
	})
}

func (s *Service) several(ctx context.Context, packs []Chosen,
	do func(context.Context, *gorm.DB, *Pack) error) ([]Outcome, error) {
	out := []Outcome{}
	for _, c := range packs {
		o := Outcome{ID: c.ID}
		err := db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
			locked, err := LockPacks(tx, []uuid.UUID{c.ID})
			if err != nil {
				return err
			}
			if len(locked) == 0 {
				return fault.Missing("pack")
			}
			p := locked[0]
			o.Label, o.Was = p.Label, pack.State(p.State)
			if p.Version != c.Version {
				return fault.Stale("pack")
			}
			if err := do(ctx, tx, &p); err != nil {
				return err
			}
			o.Version = p.Version
			return nil
		})
		if f, ok := fault.As(err); ok {
			o.Sentence = f.Detail
		} else if err != nil {
			return nil, err
		}
		out = append(out, o)
	}
	return out, nil
}
