package jobs

import (
	"context"
	"slices"
	"strings"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/kit"
	"mainstay/core/rules"
	"mainstay/core/sun"
	"mainstay/internal/outbox"
	"mainstay/internal/people"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
)

type answerRow struct {
	Ask    string
	Option string
	At     time.Time
	ByName string
}

func (s *Service) answerRows(ctx context.Context, job uuid.UUID) ([]answerRow, error) {
	var out []answerRow
	err := s.DB.WithContext(ctx).Raw("select ask, option, at, by_name from job_answers where job_id = ?",
		job).Scan(&out).Error
	return out, err
}

// answers are what was answered for one aircraft of a job, by question. What is
// asked for each aircraft counts only where it was answered for that one.
func (s *Service) answers(ctx context.Context, job, aircraft uuid.UUID, pack rules.Pack) (map[string]string, error) {
	rows, err := s.answerRows(ctx, job)
	out, asks := map[string]string{}, asksOf(pack)
	for _, r := range rows {
		ask, craft, one := strings.Cut(r.Ask, "@")
		if asks[ask].Each == one && (!one || craft == aircraft.String()) {
			out[ask] = r.Option
		}
	}
	return out, err
}

// asksOf are the questions of a pack by id.
func asksOf(pack rules.Pack) map[string]rules.Ask {
	out := map[string]rules.Ask{}
	for _, r := range pack.Rules {
		for _, a := range r.Asks {
			out[a.ID] = a
		}
	}
	return out
}

// asks adds the questions that apply to one aircraft of a job; those that are
// asked for each carry its id and name.
func asks(list []rules.Ask, pack rules.Pack, f rules.Facts) []rules.Ask {
	for _, a := range pack.Questions(f) {
		if a.Each && f.Aircraft.Name == "" {
			continue // nobody to answer for yet
		}
		if a.Each {
			a.ID, a.Question = a.ID+"@"+f.Aircraft.ID, f.Aircraft.Name+": "+a.Question
		}
		if !slices.ContainsFunc(list, func(b rules.Ask) bool { return a.ID == b.ID }) {
			list = append(list, a)
		}
	}
	return list
}

// Answer keeps answers to questions of the rules, by question.
func (s *Service) Answer(ctx context.Context, job uuid.UUID, said map[string]string) error {
	j, err := s.Get(ctx, job)
	if err != nil {
		return err
	}
	book, err := s.Rules.Book(ctx)
	if err != nil {
		return err
	}
	pack, err := book.Whole()
	if err != nil {
		return err
	}
	known := asksOf(pack)
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		for ask, option := range said {
			id, craft, one := strings.Cut(ask, "@")
			a, ok := known[id]
			if !ok || a.Each != one || one && !slices.ContainsFunc(j.Aircraft,
				func(c Craft) bool { return c.AircraftID.String() == craft }) || !slices.ContainsFunc(a.Options,
				func(o rules.Option) bool { return o.ID == option }) {
				return fault.Bad("answers", "There is no such question or answer in the rules that hold now. Load the job again.")
			}
			if err := tx.Exec("insert into job_answers (job_id, ask, option, at, by_name) values (?, ?, ?, ?, ?) on conflict (job_id, ask) do update set option = excluded.option, at = excluded.at, by_name = excluded.by_name",
				job, ask, option, s.Clock.Now(), people.From(ctx).Name).Error; err != nil {
				return err
			}
		}
		return nil
	})
}

// KitItem is one thing to take along, with who packed and checked it.
type KitItem struct {
	kit.Item
	Own       bool
	PackedBy  string
	CheckedBy string
	PackedAt  *time.Time
	CheckedAt *time.Time
}

type kitRow struct {
	Item      string
	Label     string
	Quantity  int
	PackedAt  *time.Time
	PackedBy  string
	CheckedAt *time.Time
	CheckedBy string
}

// Kit is the list of a job with its state.
func (s *Service) Kit(ctx context.Context, a Assessed) ([]KitItem, error) {
	j := a.Job
	in := kit.Job{Work: j.Work, People: len(j.People), Sorties: j.Sorties,
		Night:  slices.ContainsFunc(a.Judged.Light, func(l string) bool { return l != string(sun.Daylight) }),
		Lights: a.Judged.Law.LightsSeen, Observer: a.Facts.Answers["sight"] == "observer"}
	field, err := s.Evening.Field(ctx)
	if err != nil {
		return nil, err
	}
	for _, c := range j.Aircraft {
		t, err := s.Fleet.Type(ctx, c.TypeKey)
		if err != nil {
			return nil, err
		}
		props := 0
		for _, p := range t.Positions() {
			if p.Kind == "propeller" {
				props++
			}
		}
		one := kit.Aircraft{Type: t.Name, Packs: t.Packs.Count, Propellers: props}
		if j.Sorties != nil {
			same := 0
			for _, x := range j.Aircraft {
				if x.TypeKey == c.TypeKey {
					same++
				}
			}
			one.Sets = field.Share(same, len(j.Aircraft)).Sets(t, *j.Sorties*same, same)
		}
		in.Aircraft = append(in.Aircraft, one)
	}
	var rows []kitRow
	if err := s.DB.WithContext(ctx).Raw("select * from job_kit where job_id = ? order by item",
		j.ID).Scan(&rows).Error; err != nil {
		return nil, err
	}
	out := []KitItem{}
	for _, it := range kit.List(in) {
		out = append(out, KitItem{Item: it})
	}
	for _, r := range rows {
		i := slices.IndexFunc(out, func(k KitItem) bool { return k.ID == r.Item })
		if i < 0 {
			if r.Label == "" {
				continue // of a list that no longer has it
			}
			out = append(out, KitItem{Item: kit.Item{ID: r.Item, Label: r.Label, Quantity: r.Quantity, Why: "added by the crew"},
				Own: true})
			i = len(out) - 1
		}
		out[i].PackedAt, out[i].PackedBy, out[i].CheckedAt, out[i].CheckedBy = r.PackedAt, r.PackedBy, r.CheckedAt,
			r.CheckedBy
	}
	return out, nil
}

// Packing is what was done with an item of the kit; one of the crew's own brings its label
// and quantity.
type Packing struct {
	Item, Label     string
	Quantity        int
	Packed, Checked bool
}

// Pack notes that an item is packed or checked. What is not packed cannot be checked.
func (s *Service) Pack(ctx context.Context, job uuid.UUID, p Packing) error {
	if p.Checked && !p.Packed {
		return fault.Bad("checked", "Pack it first; then somebody checks it.")
	}
	if _, err := s.Get(ctx, job); err != nil {
		return err
	}
	now, by := s.Clock.Now(), people.From(ctx).Name
	pressed := outbox.From(ctx).At(now)
	at := func(on bool) (*time.Time, string) {
		if !on {
			return nil, ""
		}
		return &pressed, by
	}
	packedAt, packedBy := at(p.Packed)
	checkedAt, checkedBy := at(p.Checked)
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		if fresh, err := outbox.Once(ctx, tx, "kit "+job.String()+" "+p.Item, now); err != nil || !fresh {
			return err
		}
		return tx.Exec(`insert into job_kit as k (job_id, item, label, quantity, packed_at, packed_by, checked_at, checked_by) values (?, ?, ?, ?, ?, ?, ?, ?)
			on conflict (job_id, item) do update set label = excluded.label, quantity = excluded.quantity,
				packed_at = case when excluded.packed_at is null then null else coalesce(k.packed_at, excluded.packed_at) end, packed_by = case when excluded.packed_at is null then '' when k.packed_at is null then excluded.packed_by else k.packed_by end,
				checked_at = case when excluded.checked_at is null then null else coalesce(k.checked_at, excluded.checked_at) end, checked_by = case when excluded.checked_at is null then '' when k.checked_at is null then excluded.checked_by else k.checked_by end`,
			job, p.Item, p.Label, p.Quantity, packedAt, packedBy, checkedAt, checkedBy).Error
	})
}
