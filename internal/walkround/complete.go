package walkround

import (
	"context"
	"fmt"
	"slices"
	"strings"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/checks"
	"mainstay/core/judge"
	"mainstay/core/pack"
	"mainstay/internal/fleet"
	"mainstay/internal/outbox"
	"mainstay/internal/people"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
)

// lockWithPacks locks a run and its packs: what is found at its end goes on
// record, and whoever waits for that must not hold what the end still needs.
func lockWithPacks(tx *gorm.DB, run uuid.UUID) (Run, error) {
	var r Run
	if err := tx.Raw("select * from walkrounds where id = ? for no key update", run).Scan(&r).Error; err != nil {
		return r, err
	}
	_, err := fleet.LockPacks(tx, r.PackIDs)
	return r, err
}

// Complete ends a run and puts it on record. Every item must have an entry.
// Cell, level and temperature entries become readings of their packs; a pack
// found defective goes to quarantine in the same transaction.
func (s *Service) Complete(ctx context.Context, run uuid.UUID) (Sheet, error) {
	by := people.From(ctx)
	err := db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		r, err := lockWithPacks(tx, run)
		if err != nil {
			return err
		}
		if r.ID == uuid.Nil {
			return fault.Missing("walkround")
		}
		if r.CompletedAt != nil {
			return nil // the same completion sent twice
		}
		if err := r.stillOpen(); err != nil {
			return err
		}
		sh, err := s.bare(ctx, run)
		if err != nil {
			return err
		}
		if left := sh.Missing(); len(left) > 0 {
			return fault.Clash("incomplete", "%d of %d items are still open; the next is %q.", len(left), len(sh.Items),
				left[0].Title)
		}
		now := s.Clock.Now()
		if fresh, err := outbox.Once(ctx, tx, "complete "+run.String(), now); err != nil || !fresh {
			return err
		}
		at := outbox.From(ctx).At(now)
		for _, e := range sh.Entries {
			if e.At.After(at) {
				at = e.At // no walk is complete before its last entry
			}
		}
		findings, worst, err := s.keepFound(ctx, tx, sh)
		if err != nil {
			return err
		}
		if err := s.packsAfter(ctx, tx, sh, findings); err != nil {
			return err
		}
		left := append([]checks.LeftOut{}, sh.LeftOut...)
		pace, said, err := s.pace(ctx, tx, sh)
		if err != nil {
			return err
		}
		seq, err := records.Append(ctx, tx, records.Entry{Kind: records.WalkroundDone, Subject: r.AircraftID, At: now,
			By:      by.By(),
			Summary: strings.TrimSpace(fmt.Sprintf("%s: %s complete, %s. %s", sh.Aircraft.Name, r.Kind, worst, said)),
			Content: map[string]any{"walkround": run, "aircraft": sh.Aircraft.Name, "kind": r.Kind, "type": r.TypeKey,
				"type_version": r.TypeVersion, "checklist_version": r.ChecklistVersion,
				"packs": sh.Packs, "entries": contentOf(sh), "started_at": r.StartedAt, "completed_at": at, "verdict": worst,
				"findings": findings,
				"left_out": left, "pace": pace, "paper": r.Paper}})
		if err != nil {
			return err
		}
		if !slices.ContainsFunc(sh.Items, func(it checks.Item) bool { return it.Kind == checks.Poll }) {
			r.Names = []string{} // nobody was asked
		}
		r.CompletedAt, r.CompletedBy, r.Verdict, r.Findings, r.RecordSeq, r.LeftOut, r.Pace, r.PaceSaid = &at, by.Name,
			worst.String(), findings, &seq, left, pace, said
		return tx.Save(&r).Error
	})
	if err != nil {
		return Sheet{}, err
	}
	return s.Sheet(ctx, run)
}

// keepFound makes what was seen on a run open defects of the aircraft where it
// lasts, and says what was found and the worst of it.
func (s *Service) keepFound(ctx context.Context, tx *gorm.DB, sh Sheet) (findings []Finding, worst judge.Verdict,
	err error) {
	findings = []Finding{}
	for _, e := range sh.seen() {
		it, _, err := sh.item(e.ItemID)
		if err != nil {
			continue // an item of a pack that has been taken out of the database cannot be
		}
		v, err := judge.ParseVerdict(e.Verdict)
		if err != nil {
			return nil, judge.Stop, err
		}
		worst = max(worst, v)
		if v == judge.Clear {
			continue
		}
		sentence := e.Sentence
		if e.Value.Note != "" {
			sentence = e.Value.Note
		}
		for _, spot := range checks.Spots(it, e.Value, v) {
			f := Finding{ItemID: spot.Item, Station: spot.Station, Title: spot.Title, Verdict: spot.Verdict, Sentence: sentence,
				PackID: it.PackID, Lasting: it.Lasting() && e.Value.Skip == "", By: e.ByName}
			findings = append(findings, f)
			if !f.Lasting {
				continue
			}
			if err := s.found(ctx, tx, sh, f, e); err != nil {
				return nil, worst, err
			}
		}
	}
	return findings, worst, nil
}

// contentOf is every entry of a run for its record, those that were replaced too.
func contentOf(sh Sheet) []map[string]any {
	out := []map[string]any{}
	for _, e := range slices.Concat(sh.Entries, sh.Earlier) {
		if e.ItemID == checks.DrillID {
			continue // whose eyes saw what is theirs alone
		}
		one := map[string]any{"item": e.ItemID, "value": e.Value, "verdict": e.Verdict, "against": e.Against, "by": e.ByName,
			"at": e.At}
		if e.Until != nil {
			one["replaced_at"] = e.Until
		}
		out = append(out, one)
	}
	return out
}

// Rested is how long the cells are taken to have rested at a walkround: the
// item asks for 30 minutes without load.
const Rested = 30.0

func (s *Service) packsAfter(ctx context.Context, tx *gorm.DB, sh Sheet, findings []Finding) error {
	packs, err := fleet.LockPacks(tx, sh.PackIDs)
	if err != nil {
		return err
	}
	for i := range packs {
		p := &packs[i]
		id, err := uuid.NewV7()
		if err != nil {
			return err
		}
		n, anew, err := sh.readingOf(tx, *p)
		if err != nil {
			return err
		}
		// What was confirmed alone is a reading already, and makes no second one.
		if anew {
			n.ID, n.At, n.Source = id, outbox.ReadAt(ctx, s.Clock.Now()), "walkround"
			if err := s.Fleet.StoreReading(ctx, tx, *p, n); err != nil {
				return err
			}
		}
		for _, f := range findings {
			if f.PackID == p.ID.String() && f.Verdict == judge.Stop && strings.HasPrefix(f.ItemID, "pack-look@") &&
				p.State != string(pack.Quarantine) && p.State != string(pack.Retired) {
				if err := s.Fleet.SetState(ctx, tx, p, pack.Quarantine, nil, "found on the walk: "+f.Sentence); err != nil {
					return err
				}
			}
		}
	}
	return nil
}

// Abandon gives a run up; it is no check, but what was seen and read on it stays:
// defects are open, packs have their readings, a bulging one is in quarantine.
func (s *Service) Abandon(ctx context.Context, run uuid.UUID) error {
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		r, err := lockWithPacks(tx, run)
		if err != nil {
			return err
		}
		switch {
		case r.ID == uuid.Nil:
			return fault.Missing("walkround")
		case r.AbandonedAt != nil:
			return nil
		case r.CompletedAt != nil:
			return r.stillOpen()
		}
		sh, err := s.bare(ctx, run)
		if err != nil {
			return err
		}
		findings, _, err := s.keepFound(ctx, tx, sh)
		if err != nil {
			return err
		}
		if err := s.packsAfter(ctx, tx, sh, findings); err != nil {
			return err
		}
		now, by := s.Clock.Now(), people.From(ctx)
		if err := tx.Exec("update walkrounds set abandoned_at = ? where id = ?", now, run).Error; err != nil {
			return err
		}
		_, err = records.Append(ctx, tx, records.Entry{Kind: records.WalkroundGivenUp, Subject: r.AircraftID, At: now,
			By: by.By(), Summary: fmt.Sprintf("Walkround begun by %s given up after %d entries.", r.StartedBy, len(sh.Entries)),
			Content: map[string]any{"walkround": run, "started_by": r.StartedBy, "entries": contentOf(sh)}})
		return err
	})
}
