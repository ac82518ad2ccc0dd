package records

import (
	"context"
	"fmt"
	"time"

	"gorm.io/gorm"

	"mainstay/internal/platform/db"
)

// BaselineTaken is the kind of record that begins anew: a migration changed the
// form of rows, or the chain did not know them yet.
const BaselineTaken = "baseline"

// StatesBefore says, before a migration, whether everything is as the chain
// says, or nothing when the chain knows no states yet.
func StatesBefore(ctx context.Context, g *gorm.DB) (string, error) {
	var there bool
	if err := g.WithContext(ctx).Raw("select to_regclass('row_states') is not null").Scan(&there).Error; err != nil ||
		!there {
		return "", err
	}
	res, err := Verify(ctx, g, Check{})
	return res.Sentence(), err
}

// Baseline takes in the state of every row that is not as the chain says, which
// after a migration are those whose form it changed. What was found before the
// migration goes on record with it, so that a change made by hand does not pass
// as one of the migration.
func Baseline(ctx context.Context, g *gorm.DB, before string) error {
	return db.Tx(ctx, g, func(ctx context.Context, tx *gorm.DB) error {
		counts := map[string]int64{}
		for _, f := range Families {
			done := tx.Exec(`insert into row_touched (xact, family, key) select pg_current_xact_id(), ?, coalesce(l.key, n.key)
				from (select distinct on (key) key, hash from row_states where family = ? order by key, after_seq desc, nth desc) l full join (`+f.hashed("")+`) n on n.key = l.key
				where l.hash is distinct from n.hash on conflict do nothing`, f.Name, f.Name)
			if done.Error != nil {
				return fmt.Errorf("states of %s: %w", f.Name, done.Error)
			}
			if done.RowsAffected > 0 {
				counts[f.Name] = done.RowsAffected
			}
		}
		if len(counts) == 0 {
			return nil
		}
		_, err := Append(ctx, tx, Entry{Kind: BaselineTaken, At: time.Now(), By: By{Name: "Mainstay"},
			Summary: "States taken in after a change of the database's form.",
			Content: map[string]any{"things": counts, "before": before}})
		return err
	})
}
