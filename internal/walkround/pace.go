package walkround

import (
	"context"
	"fmt"
	"slices"

	"gorm.io/gorm"

	"mainstay/core/checks"
	"mainstay/core/judge"
)

// usualOf is how many runs before one say how long it usually takes.
const usualOf = 10

// pace measures a run that ends, and says what is to be said of it. Of one that was entered from
// paper nobody knows how it was walked, and that is said.
func (s *Service) pace(ctx context.Context, tx *gorm.DB, sh Sheet) (*checks.Pace, string, error) {
	if len(sh.Paper) > 0 {
		return nil, fmt.Sprintf("It was entered from paper, with %s of it: how it was walked is not known here.",
			judge.Count(len(sh.Paper), "photo")), nil
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
