package walkround

import (
	"context"

	"github.com/google/uuid"

	"mainstay/core/checks"
	"mainstay/internal/people"
)

// Drilled is how many pictures were answered, and how many rightly.
type Drilled struct{ Shown, Right int }

// Drills says what the person who asks made of the pictures of drills, and how the crew as a
// whole did. Nobody else is told about one person.
func (s *Service) Drills(ctx context.Context) (own, crew Drilled, err error) {
	var rows []struct {
		Mine  bool
		Shown int
		Right int
	}
	err = s.DB.WithContext(ctx).Raw(`select e.person_id is not distinct from ? as mine, count(*) as shown, count(*) filter (where (e.value->>'look' = 'defect') = (w.drill->'picture'->>'damage')::boolean) as "right"
		from walkround_entries e join walkrounds w on w.id = e.walkround_id where e.item_id = 'drill' and e.until is null and w.completed_at is not null and w.drill->'picture'->>'key' <> '' group by 1`, people.From(ctx).ID).Scan(&rows).Error
	for _, r := range rows {
		crew.Shown, crew.Right = crew.Shown+r.Shown, crew.Right+r.Right
		if r.Mine {
			own = Drilled{r.Shown, r.Right}
		}
	}
	return own, crew, err
}

// drillFor is how a drill of a run went, for the person who answered it alone.
func (sh Sheet) drillFor(person uuid.UUID) (right, shown bool) {
	for _, e := range sh.Entries {
		if e.ItemID == checks.DrillID && e.PersonID != nil && *e.PersonID == person && sh.CompletedAt != nil {
			return sh.Drill.Right(e.Value), true
		}
	}
	return false, false
}
