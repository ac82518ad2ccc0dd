package planning

import (
	"context"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"mainstay/core/judge"
	"mainstay/internal/people"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
)

// Kind is the head of a row on a list of the crew that plans choose from, like cameras. Plans
// name it by its key, which never changes.
type Kind struct {
	ID      uuid.UUID
	Key     string
	Name    string
	Active  bool
	Version int
}

// Head is the head of the row.
func (k *Kind) Head() *Kind { return k }

// Row is a pointer to a row with a head.
type Row[T any] interface {
	*T
	Head() *Kind
}

// SeedKinds puts the shipped rows on a list that is empty.
func SeedKinds[T any, P Row[T]](ctx context.Context, g *gorm.DB, shipped []T) error {
	return db.Tx(ctx, g, func(_ context.Context, tx *gorm.DB) error {
		var n int64
		if err := tx.Model(new(T)).Count(&n).Error; err != nil || n > 0 {
			return err
		}
		for _, row := range shipped {
			h := P(&row).Head()
			id, err := uuid.NewV7()
			if err != nil {
				return err
			}
			h.ID, h.Active, h.Version = id, true, 1
			if err := tx.Create(&row).Error; err != nil {
				return err
			}
		}
		return nil
	})
}

// Kinds are the rows of a list, in use first, by name.
func Kinds[T any](ctx context.Context, g *gorm.DB) (out []T, err error) {
	return out, g.WithContext(ctx).Order("active desc, name").Find(&out).Error
}

// SaveKind adds a row, or changes it, and puts that on record; version 0 is a new one. What is
// what one is called in sentences.
func SaveKind[T any, P Row[T]](ctx context.Context, g *gorm.DB, now time.Time, what string, kind string, row P) error {
	h := row.Head()
	return db.Tx(ctx, g, func(ctx context.Context, tx *gorm.DB) error {
		var rows []T
		if err := tx.Clauses(clause.Locking{Strength: "NO KEY UPDATE"}).Find(&rows, "id = ?", h.ID).Error; err != nil {
			return err
		}
		var old *Kind
		if len(rows) > 0 {
			old = P(&rows[0]).Head()
		}
		switch {
		case old == nil && h.Version == 0:
			h.Version = 1
			if err := tx.Create(row).Error; err != nil {
				return err
			}
		case old == nil:
			return fault.Missing(what)
		case h.Version == 0 && old.Name == h.Name:
			return nil // the same press sent twice
		case old.Version != h.Version:
			return fault.Stale(what)
		default:
			h.Key = old.Key
			h.Version++
			if err := tx.Save(row).Error; err != nil {
				return err
			}
		}
		_, err := records.Append(ctx, tx, records.Entry{Kind: kind, At: now, By: people.From(ctx).By(),
			Summary: judge.Capital(what) + " " + h.Name + " on the list", Content: row})
		return err
	})
}
