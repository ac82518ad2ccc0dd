package walkround

import (
	"context"
	"slices"

	"gorm.io/gorm"

	"mainstay/core/checks"
)

// usualOf is how many runs before one say how long it usually takes.
const usualOf = 10

// pace measures a run that ends, and says what is to be said of it. One that was entered from
// paper has no pace here.
func (s *Service) pace(ctx context.Context, tx *gorm.DB, sh Sheet) (*checks.Pace, string, error) {
	if len(sh.Paper) > 0 {
		return nil, "", nil
	}
	var presses []checks.Press
	for _, e := range slices.Concat(sh.Entries, sh.Earlier) {
		if it, _, err := sh.item(e.ItemID); err == nil {
			presses = append(presses, checks.Press{Item: it, By: e.ByName, At: e.At})
		}
	}
	kept := sh.Type.Kept()
	p := checks.PaceOf(sh.StartedAt, sh.StartedBy, presses, kept.LookS())
	var before []float64
	if err := tx.Raw(`select (pace->>'seconds')::float8 from walkrounds where aircraft_id = ? and kind = ? and checklist_version = ? and pace is not null and pace_said = ''
		order by completed_at desc limit ?`, sh.AircraftID, sh.Kind, sh.ChecklistVersion, usualOf).Scan(&before).Error; err != nil {
		return nil, "", err
	}
	least := 0.0
	if sh.Kind == checks.Full {
		least = kept.WalkS()
	}
	return &p, p.Said(least, checks.Usual(before)), nil
}
