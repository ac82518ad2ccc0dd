package walkround

import (
	"context"
	"errors"
	"fmt"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/checks"
	"mainstay/core/why"
	"mainstay/internal/outbox"
	"mainstay/internal/people"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
)

// Judge judges an entry without saving it.
func (s *Service) Judge(ctx context.Context, run uuid.UUID, itemID string, v checks.Value) (checks.Judgement, error) {
	sh, err := s.Sheet(ctx, run)
	if err != nil {
		return checks.Judgement{}, err
	}
	return sh.judge("value", itemID, v)
}

func (sh Sheet) judge(field, itemID string, v checks.Value) (checks.Judgement, error) {
	it, pk, err := sh.item(itemID)
	if err != nil {
		return checks.Judgement{}, err
	}
	j, err := checks.Judge(it, v, pk)
	if errors.Is(err, checks.ErrValue) {
		return j, fault.Bad(field, "%s", why.Words(err))
	}
	return j, err
}

// NewEntry is one entry to save.
type NewEntry struct {
	ItemID string
	Value  checks.Value
	Ago    time.Duration // before the others of the same request, where they came one by one
}

// Save judges and saves entries; entering an item again replaces the person's own
// entry, never another's, and what it said stays on record. All entries are
// saved or none. A run that has ended takes no more.
func (s *Service) Save(ctx context.Context, run uuid.UUID, entries []NewEntry) (Sheet, error) {
	sh, err := s.Sheet(ctx, run)
	if err != nil {
		return sh, err
	}
	by, now := people.From(ctx), s.Clock.Now()
	at := outbox.From(ctx).At(now)
	var rows []Entry
	for i, e := range entries {
		at := at.Add(-e.Ago)
		if at.Before(sh.StartedAt) {
			at = sh.StartedAt // a device whose clock is wrong
		}
		field := "value"
		if len(entries) > 1 {
			field = fmt.Sprintf("entries.%d.value", i)
		}
		j, err := sh.judge(field, e.ItemID, e.Value)
		if err != nil {
			return sh, err
		}
		if e.Value.From != "" {
			it, _, err := sh.item(e.ItemID)
			if err != nil {
				return sh, err
			}
			if err := s.confirmed(ctx, it, e.Value, at); err != nil {
				return sh, err
			}
		}
		id, err := uuid.NewV7()
		if err != nil {
			return sh, err
		}
		rows = append(rows, Entry{ID: id, PersonID: &by.ID, WalkroundID: run, ItemID: e.ItemID, Value: e.Value,
			Verdict: j.Verdict.String(), Sentence: j.Sentence, Against: j.Against, ByName: by.Name, At: at})
	}
	err = db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		var r Run
		if err := tx.Raw("select * from walkrounds where id = ? for no key update", run).Scan(&r).Error; err != nil {
			return err
		}
		if fresh, err := outbox.Once(ctx, tx, "entries "+run.String(), now); err != nil || !fresh {
			return err
		}
		if err := r.stillOpen(); err != nil {
			return err
		}
		if len(rows) == 0 {
			return nil
		}
		items := make([]string, len(rows))
		for i, e := range rows {
			items[i] = e.ItemID
		}
		if err := tx.Exec("update walkround_entries set until = greatest(at, ?) where walkround_id = ? and person_id = ? and item_id in ? and until is null",
			at, run, by.ID, items).Error; err != nil {
			return err
		}
		return tx.Create(&rows).Error
	})
	if err != nil {
		return sh, err
	}
	out, err := s.bare(ctx, run)
	for i := range out.Items { // what was known a moment ago is known
		out.Items[i].Known, out.Items[i].Names = sh.Items[i].Known, sh.Items[i].Names
	}
	return out, err
}
