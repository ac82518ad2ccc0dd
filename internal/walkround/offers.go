package walkround

import (
	"context"
	"fmt"
	"net/url"
	"slices"
	"strings"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/checks"
	"mainstay/internal/fleet"
	"mainstay/internal/platform/fault"
)

// Offer is a value that is known already, to be confirmed and never taken as done.
type Offer struct {
	ItemID string
	Value  checks.Value // with From
	Words  string       // what it says, like "6 mV apart, lowest 4195 mV"
	Source string       // charger, hand, file, walkround, link
	At     time.Time
}

// How long a reading of a pack is offered for, unless it has flown since.
const (
	cellsHold = 24 * time.Hour
	warmHolds = 30 * time.Minute
	linkHolds = 15 * time.Minute // between what the aircraft told and the press that confirms it
)

// Where a confirmed value comes from.
const (
	fromReading = "reading:"
	fromLink    = "link:"
)

// Offers are what is known for the items of a run: of packs their newest reading, of the
// aircraft what it tells over its link.
func (s *Service) Offers(ctx context.Context, run uuid.UUID) ([]Offer, error) {
	sh, err := s.Sheet(ctx, run)
	if err != nil {
		return nil, err
	}
	views, err := s.Fleet.PackViews(ctx, append([]uuid.UUID{}, sh.PackIDs...))
	if err != nil {
		return nil, err
	}
	flown, err := s.flownWith(ctx, sh.PackIDs)
	if err != nil {
		return nil, err
	}
	now, out := s.Clock.Now(), []Offer{}
	for _, it := range sh.Items {
		i := slices.IndexFunc(views, func(v fleet.PackView) bool { return v.ID.String() == it.PackID })
		if i < 0 || views[i].Reading == nil {
			continue
		}
		r := *views[i].Reading
		if at, ok := flown[views[i].ID]; ok && !r.At.After(at) || r.At.After(now) {
			continue // it has flown since
		}
		if o, ok := offered(it, r, now.Sub(r.At)); ok {
			out = append(out, o)
		}
	}
	return append(out, s.told(ctx, sh)...), nil
}

// offered is what a reading of a pack says of an item, while it holds.
func offered(it checks.Item, r fleet.Reading, age time.Duration) (Offer, bool) {
	o := Offer{ItemID: it.ID, At: r.At, Source: r.Source, Value: checks.Value{From: fromReading + r.ID.String()}}
	switch {
	case it.Kind == checks.Cells && age <= cellsHold && len(r.CellMV) == it.Count && it.Count > 0:
		for _, mv := range r.CellMV {
			o.Value.Set = append(o.Value.Set, float64(mv))
		}
		low, high := slices.Min(r.CellMV), slices.Max(r.CellMV)
		o.Words = fmt.Sprintf("%d mV apart, lowest %d mV", high-low, low)
	case it.Quantity == "level" && age <= cellsHold && r.Percent != nil:
		o.Value.Number, o.Words = r.Percent, fmt.Sprintf("%.0f %%", *r.Percent)
	case it.Quantity == "pack temperature" && age <= warmHolds && r.TemperatureC != nil:
		o.Value.Number, o.Words = r.TemperatureC, fmt.Sprintf("%.0f °C", *r.TemperatureC)
	default:
		return o, false
	}
	return o, true
}

// flownWith is when each pack took off last.
func (s *Service) flownWith(ctx context.Context, packs []uuid.UUID) (map[uuid.UUID]time.Time, error) {
	out := map[uuid.UUID]time.Time{}
	for _, id := range packs {
		var at *time.Time
		if err := s.DB.WithContext(ctx).Raw("select took_off_at from flights where ? = any(pack_ids) order by took_off_at desc limit 1", id).Scan(&at).Error; err != nil {
			return nil, err
		}
		if at != nil {
			out[id] = *at
		}
	}
	return out, nil
}

// told is what the aircraft itself tells; a link that does not answer offers nothing.
func (s *Service) told(ctx context.Context, sh Sheet) (out []Offer) {
	if s.Link == nil || sh.Aircraft.Serial == "" {
		return nil
	}
	var state struct {
		Satellites int `json:"satellites"`
	}
	ctx, stop := context.WithTimeout(ctx, 2*time.Second)
	defer stop()
	if s.Link.Call(ctx, "GET", "/aircraft/"+url.PathEscape(sh.Aircraft.Serial)+"/state", nil, &state) != nil || state.Satellites < 0 || state.Satellites > 60 {
		return nil
	}
	now := s.Clock.Now()
	for _, it := range sh.Items {
		if it.Quantity == checks.Satellites {
			n := float64(state.Satellites)
			out = append(out, Offer{ItemID: it.ID, Value: checks.Value{Number: &n, From: fromLink + now.UTC().Format(time.RFC3339)}, Words: fmt.Sprintf("%d satellites", state.Satellites), Source: "link", At: now})
		}
	}
	return out
}

// confirmed refuses an entry that says it confirms what was never offered: another number,
// another pack's reading, or one from too long ago.
func (s *Service) confirmed(tx *gorm.DB, it checks.Item, v checks.Value, at time.Time) error {
	stale := fault.Bad("value", "What was offered for %q does not hold any more. Read it anew.", it.Title)
	if told, ok := strings.CutPrefix(v.From, fromLink); ok {
		when, err := time.Parse(time.RFC3339, told)
		if err != nil || s.Link == nil || at.Sub(when).Abs() > linkHolds {
			return stale
		}
		return nil
	}
	id, err := uuid.Parse(strings.TrimPrefix(v.From, fromReading))
	if err != nil || !strings.HasPrefix(v.From, fromReading) {
		return fault.Bad("value", "Nobody offered this value. Read it anew.")
	}
	var rows []fleet.Reading
	if err := tx.Raw("select * from pack_readings where id = ? and pack_id::text = ?", id, it.PackID).Scan(&rows).Error; err != nil {
		return err
	}
	if len(rows) == 0 || rows[0].At.After(at.Add(time.Minute)) {
		return stale
	}
	o, ok := offered(it, rows[0], at.Sub(rows[0].At))
	if !ok || !slices.Equal(o.Value.Set, v.Set) || (o.Value.Number == nil) != (v.Number == nil) || o.Value.Number != nil && *o.Value.Number != *v.Number {
		return stale
	}
	return nil
}
