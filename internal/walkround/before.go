package walkround

import (
	"context"
	"time"

	"github.com/google/uuid"

	"mainstay/core/checks"
)

// Before is what an earlier run said or pictured at an item.
type Before struct {
	ItemID  string
	At      time.Time
	ByName  string
	Verdict string
	Value   checks.Value `gorm:"serializer:json"`
}

// beforeEach is how many earlier remarks of an item are shown.
const beforeEach = 3

// Before says what earlier runs on the same aircraft said in words or showed in photos at the
// items of a run, the newest first.
func (s *Service) Before(ctx context.Context, run uuid.UUID) ([]Before, error) {
	sh, err := s.bare(ctx, run)
	if err != nil {
		return nil, err
	}
	ids := []string{}
	for _, it := range sh.Items {
		if it.Kind != checks.Drill {
			ids = append(ids, it.ID)
		}
	}
	var out []Before
	err = s.DB.WithContext(ctx).Raw(`select item_id, at, by_name, verdict, value from (
		select e.item_id, e.at, e.by_name, e.verdict, e.value, row_number() over (partition by e.item_id order by e.at desc) as n
		from walkround_entries e join walkrounds w on w.id = e.walkround_id
		where w.aircraft_id = ? and w.id <> ? and (w.completed_at is not null or w.abandoned_at is not null) and e.item_id in ? and (coalesce(e.value->>'note', '') <> '' or jsonb_exists(e.value, 'photos'))) x
		where n <= ? order by item_id, at desc`, sh.AircraftID, run, ids, beforeEach).Scan(&out).Error
	return out, err
}
