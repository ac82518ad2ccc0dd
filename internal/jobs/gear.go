package jobs

import (
	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/internal/platform/fault"
)

// JobGear is a piece of gear that a job depends on.
type JobGear struct {
	JobID uuid.UUID
	ID    uuid.UUID
	Name  string
}

// gear sets the gear of a job inside a transaction.
func (s *Service) gear(tx *gorm.DB, j Job) error {
	if j.Gear == nil {
		return nil
	}
	if err := tx.Exec("delete from job_gear where job_id = ?", j.ID).Error; err != nil {
		return err
	}
	for _, g := range j.Gear {
		res := tx.Exec("insert into job_gear (job_id, gear_id) select ?, id from gear where id = ? on conflict do nothing", j.ID, g.ID)
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
