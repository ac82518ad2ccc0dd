package jobs

import (
	"context"
	"slices"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/crew"
	"mainstay/core/judge"
	"mainstay/internal/evening"
	"mainstay/internal/people"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
)

// JobGear is a piece of gear that a job depends on.
type JobGear struct {
	JobID uuid.UUID
	ID    uuid.UUID
	Name  string
}

// gear sets the gear of a job inside a transaction.
func (s *Service) gear(ctx context.Context, tx *gorm.DB, j Job) error {
	if j.Gear == nil {
		return nil
	}
	if err := s.stillNeeded(ctx, tx, j); err != nil {
		return err
	}
	if err := tx.Exec("delete from job_gear where job_id = ?", j.ID).Error; err != nil {
		return err
	}
	for _, g := range j.Gear {
		res := tx.Exec("insert into job_gear (job_id, gear_id) select ?, id from gear where id = ? on conflict do nothing",
			j.ID, g.ID)
		if res.Error != nil {
			return res.Error
		}
		if res.RowsAffected == 0 {
			var n int64
			if err := tx.Raw("select count(*) from gear where id = ?", g.ID).Scan(&n).Error; err != nil || n > 0 {
				return err
			}
			return fault.Bad("gear_ids", "A piece of this gear is not on file any more. Load the page again.")
		}
	}
	return nil
}

// stillNeeded refuses to take a piece off a job that stops its gate, unless
// another of its kind takes its place: the job would fly without what was found
// wanting. A chief may.
func (s *Service) stillNeeded(ctx context.Context, tx *gorm.DB, j Job) error {
	if slices.Contains(people.From(ctx).Held(), crew.Chief) {
		return nil
	}
	var rows []evening.Gear
	if err := tx.Raw("select * from gear where id in (select gear_id from job_gear where job_id = ?) or id = any(?::uuid[]) order by lower(name)",
		j.ID, gearIDs(j)).Scan(&rows).Error; err != nil {
		return err
	}
	kept, kinds := gearIDs(j), map[string]bool{}
	for _, g := range rows {
		kinds[g.Kind] = kinds[g.Kind] || slices.Contains(kept, g.ID)
	}
	for _, g := range rows {
		if slices.Contains(kept, g.ID) || kinds[g.Kind] {
			continue
		}
		for _, f := range g.Piece().Judge(s.Clock.Now()) {
			if f.Verdict == judge.Stop {
				return fault.Clash("gear-stops",
					"%s stops this job: %s Put it right, name another of its kind in its place, or ask the chief to take it off. Nothing was saved.",
					g.Name, f.Sentence)
			}
		}
	}
	return nil
}

func gearIDs(j Job) db.UUIDs {
	out := db.UUIDs{}
	for _, g := range j.Gear {
		out = append(out, g.ID)
	}
	return out
}
