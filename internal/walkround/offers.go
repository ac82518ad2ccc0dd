package walkround

import (
	"context"
	"fmt"
	"slices"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/checks"
	"mainstay/internal/fleet"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
)

// Offer is a value that is known already, to be confirmed and never taken as done.
type Offer struct {
	ItemID string
	Value  checks.Value // with From where it is a reading on file
	Words  string       // what it says, like "6 mV apart, lowest 4195 mV"
	Source string       // charger, hand, file, walkround, link
	At     time.Time
}

// How long a reading of a pack is offered for, unless it has flown since.
const (
	cellsHold = 24 * time.Hour
	warmHolds = 30 * time.Minute
)

// Offers are what is known for the items of a run: of packs their newest reading, of the
// aircraft what it tells over its link.
func (s *Service) Offers(ctx context.Context, run uuid.UUID) ([]Offer, error) {
	sh, err := s.bare(ctx, run)
	if err != nil {
		return nil, err
	}
	views, err := s.Fleet.PackViews(ctx, append([]uuid.UUID{}, sh.PackIDs...))
	if err != nil {
		return nil, err
	}
	flown, err := flownWith(s.DB.WithContext(ctx), sh.PackIDs)
	if err != nil {
		return nil, err
	}
	now, out := s.Clock.Now(), []Offer{}
	for _, it := range sh.Items {
		i := slices.IndexFunc(views, func(v fleet.PackView) bool { return v.ID.String() == it.PackID })
		if i < 0 || views[i].Reading == nil {
			continue
		}
		if o, ok := offered(it, *views[i].Reading, now, flown[views[i].ID]); ok {
			out = append(out, o)
		}
	}
	return append(out, s.byLink(ctx, sh)...), nil
}

// offered is what a reading of a pack says of an item, while it holds: not once the pack has
// taken off since, nor when it is dated ahead of the clock.
func offered(it checks.Item, r fleet.Reading, now, flown time.Time) (Offer, bool) {
	o := Offer{ItemID: it.ID, At: r.At, Source: r.Source, Value: checks.Value{From: r.ID.String()}}
	age := now.Sub(r.At)
	if age < -time.Minute || !r.At.After(flown) {
		return o, false
	}
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
func flownWith(g *gorm.DB, packs []uuid.UUID) (map[uuid.UUID]time.Time, error) {
	var rows []struct {
		Pack uuid.UUID
		At   time.Time
	}
	err := g.Raw("select p.id as pack, max(f.took_off_at) as at from packs p join flights f on p.id = any(f.pack_ids) where p.id = any(?::uuid[]) group by p.id",
		db.UUIDs(packs)).Scan(&rows).Error
	out := map[uuid.UUID]time.Time{}
	for _, r := range rows {
		out[r.Pack] = r.At
	}
	return out, err
}

// byLink is what the aircraft tells over its link; one that does not answer offers nothing.
// Nothing of it is on file: who confirms it has read it, and the entry is theirs.
func (s *Service) byLink(ctx context.Context, sh Sheet) (out []Offer) {
	l, ok := s.told(ctx, sh.Aircraft.Serial)
	if !ok {
		return nil
	}
	for _, it := range sh.Items {
		if it.Kind != checks.Reading || it.PackID != "" {
			continue
		}
		if n, words := l.number(it.Quantity); n != nil {
			out = append(out, Offer{ItemID: it.ID, Value: checks.Value{Number: n}, Words: words, Source: "link", At: l.heard})
		}
	}
	return out
}

// confirmed refuses an entry that says it confirms a reading which does not say so: another
// number, another pack's, one from too long ago, or from before the pack flew.
func (s *Service) confirmed(ctx context.Context, it checks.Item, v checks.Value, at time.Time) error {
	id, err := uuid.Parse(v.From)
	if err != nil {
		return fault.Bad("value", "Nobody offered this value. Read it anew.")
	}
	g := s.DB.WithContext(ctx)
	var rows []fleet.Reading
	if err := g.Raw("select * from pack_readings where id = ? and pack_id::text = ? and withdrawn_at is null", id,
		it.PackID).Scan(&rows).Error; err != nil {
		return err
	}
	for _, r := range rows {
		flown, err := flownWith(g, []uuid.UUID{r.PackID})
		if err != nil {
			return err
		}
		o, ok := offered(it, r, at, flown[r.PackID])
		if ok && slices.Equal(o.Value.Set, v.Set) && (v.Number == nil) == (o.Value.Number == nil) &&
			(v.Number == nil || *v.Number == *o.Value.Number) {
			return nil
		}
	}
	return fault.Bad("value", "What was offered for %q does not hold any more. Read it anew.", it.Title)
}
