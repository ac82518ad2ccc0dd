package walkround

import (
	"context"
	"slices"
	"time"

	"github.com/google/uuid"

	"mainstay/core/airframe"
	"mainstay/core/checks"
	"mainstay/core/judge"
	"mainstay/core/pack"
	"mainstay/internal/fleet"
	"mainstay/internal/platform/fault"
)

// Sheet is a run with everything needed to show and judge it.
type Sheet struct {
	Run
	Aircraft fleet.Aircraft
	Type     airframe.Type
	Packs    []checks.PackRef
	Items    []checks.Item
	Entries  []Entry // that hold: one of each person for an item
	Earlier  []Entry // that their makers replaced
	Notes    []Note  // of the last flights, marked for this walk
}

// Note is what a pilot wanted changed before the next flight.
type Note struct {
	At   time.Time
	By   string
	Text string
}

// Worst are the entries that count: of several people's for one item the worse.
func (sh Sheet) Worst() []Entry {
	at, out := map[string]int{}, []Entry{}
	for _, e := range sh.Entries {
		i, ok := at[e.ItemID]
		switch {
		case !ok:
			at[e.ItemID] = len(out)
			out = append(out, e)
		case severity(e.Verdict) > severity(out[i].Verdict):
			out[i] = e
		}
	}
	return out
}

// SlipFor is how long an entry may be taken for a slip of the hand: changed
// later, what it said was seen.
const SlipFor = time.Minute

// seen are the entries that say what somebody saw: those that hold, and those
// that stood longer than a slip of the hand before they were replaced.
func (sh Sheet) seen() []Entry {
	out := sh.Worst()
	for _, e := range sh.Earlier {
		if e.Until.Sub(e.At) > SlipFor && severity(e.Verdict) > judge.Clear {
			out = append(out, e)
		}
	}
	return out
}

// Sheet returns a run with its items and entries, and with what is known of the items now.
func (s *Service) Sheet(ctx context.Context, id uuid.UUID) (Sheet, error) {
	sh, err := s.bare(ctx, id)
	if err != nil {
		return sh, err
	}
	return sh, s.fillIn(ctx, &sh)
}

// bare is a run as it stands in the database: nobody outside is asked.
func (s *Service) bare(ctx context.Context, id uuid.UUID) (Sheet, error) {
	var sh Sheet
	if err := s.DB.WithContext(ctx).Limit(1).Find(&sh.Run, "id = ?", id).Error; err != nil {
		return sh, err
	}
	if sh.ID == uuid.Nil {
		return sh, fault.Missing("walkround")
	}
	var err error
	if sh.Aircraft, err = s.Fleet.Aircraft(ctx, sh.AircraftID); err != nil {
		return sh, err
	}
	if sh.Type, err = s.typeVersion(ctx, sh.TypeKey, sh.TypeVersion); err != nil {
		return sh, err
	}
	sh.Type.Practice = sh.Practice
	l, err := s.List(ctx, sh.TypeKey, sh.ChecklistVersion)
	if err != nil {
		return sh, err
	}
	views, err := s.Fleet.PackViews(ctx, append([]uuid.UUID{}, sh.PackIDs...))
	if err != nil {
		return sh, err
	}
	for _, id := range sh.PackIDs {
		if i := slices.IndexFunc(views, func(v fleet.PackView) bool { return v.ID == id }); i >= 0 {
			v := views[i]
			sh.Packs = append(sh.Packs, checks.PackRef{ID: v.ID.String(), Label: v.Label, Chemistry: pack.Chemistry(v.Chemistry),
				Cells: v.Cells})
		}
	}
	sh.Items, sh.LeftOut = checks.Expand(l, sh.Type, checks.Ask{Round: sh.Kind, Packs: sh.Packs, Facts: sh.Facts})
	sh.Items = sh.Drill.With(sh.Items)
	var all []Entry
	if err := s.DB.WithContext(ctx).Order("at, item_id").Find(&all, "walkround_id = ?", id).Error; err != nil {
		return sh, err
	}
	for _, e := range all {
		if e.Until == nil {
			sh.Entries = append(sh.Entries, e)
		} else {
			sh.Earlier = append(sh.Earlier, e)
		}
	}
	sh.Notes, err = s.notes(ctx, sh.AircraftID)
	return sh, err
}

// notes are what was said since the last complete full walk of the aircraft: what pilots marked to
// change, and what the newest of each other round found that is no defect and bars nothing.
func (s *Service) notes(ctx context.Context, aircraft uuid.UUID) ([]Note, error) {
	var out []Note
	err := s.DB.WithContext(ctx).Raw(`with since as (select coalesce(max(completed_at), '-infinity') as at from walkrounds where aircraft_id = @a and kind = @full),
		newest as (select distinct on (kind) kind, completed_at, completed_by, findings from walkrounds where aircraft_id = @a and kind not in @checks and completed_at is not null order by kind, completed_at desc)
		select f.landed_at as at, p.name as by, f.next_time as text from flights f join people p on p.id = f.pilot_id, since where f.aircraft_id = @a and f.next_time <> '' and f.landed_at > since.at
		union all select w.completed_at, w.completed_by, concat(x->>'title', ': ', x->>'sentence') from newest w cross join lateral jsonb_array_elements(w.findings) x, since
		where w.completed_at > since.at and not coalesce((x->>'lasting')::boolean, false) order by 1 desc limit 20`,
		map[string]any{"a": aircraft, "full": checks.Full, "checks": []string{checks.Full,
			checks.Turnaround}}).Scan(&out).Error
	return out, err
}

// typeVersion returns the profile a run was started with.
func (s *Service) typeVersion(ctx context.Context, key string, version int) (airframe.Type, error) {
	var row struct {
		Profile airframe.Type `gorm:"serializer:json"`
	}
	err := s.DB.WithContext(ctx).Table("aircraft_types").Select("profile").Where("key = ? and version = ?", key,
		version).Limit(1).Find(&row).Error
	return row.Profile, err
}

// item finds an item and its pack.
func (sh Sheet) item(id string) (checks.Item, *checks.PackRef, error) {
	i := slices.IndexFunc(sh.Items, func(it checks.Item) bool { return it.ID == id })
	if i < 0 {
		return checks.Item{}, nil, fault.Bad("item_id", "This run has no item %q.", id)
	}
	it := sh.Items[i]
	for k := range sh.Packs {
		if sh.Packs[k].ID == it.PackID {
			return it, &sh.Packs[k], nil
		}
	}
	return it, nil, nil
}

// Missing lists the items without an entry, in walking order.
func (sh Sheet) Missing() []checks.Item {
	hands, have := map[string]int{}, map[string]bool{}
	for _, e := range sh.Entries { // one of each person
		hands[e.ItemID]++
	}
	for _, it := range sh.Items {
		have[it.ID] = hands[it.ID] >= max(1, it.Hands)
	}
	return checks.Missing(sh.Items, have)
}
