package flights

import (
	"time"

	"gorm.io/gorm"
)

// TakeIn keeps flights that were logged elsewhere, as they are: rows as db.Rows gives them,
// with id, aircraft_id, pilot_id, pack_ids, purpose, took_off_at, landed_at, seconds,
// landings and remarks.
func TakeIn(tx *gorm.DB, rows string, now time.Time) error {
	return tx.Exec(`insert into flights (id, aircraft_id, pilot_id, pack_ids, purpose, took_off_at, landed_at, logged_at, state, seconds, landings, remarks, source)
		select id, aircraft_id, pilot_id, pack_ids::uuid[], purpose, took_off_at, landed_at, ?, 'logged', seconds, landings, remarks, 'import'
		from jsonb_to_recordset(?::jsonb) as x (id uuid, aircraft_id uuid, pilot_id uuid, pack_ids text, purpose text, took_off_at timestamptz,
			landed_at timestamptz, seconds int, landings int, remarks text)`, now, rows).Error
}
