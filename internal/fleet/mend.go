package fleet

import (
	"context"
	"fmt"
	"strings"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/pack"
	"mainstay/core/why"
	"mainstay/internal/people"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
)

// NewPacks are several packs of one kind.
type NewPacks struct {
	ID                   uuid.UUID // of the whole; each pack gets its own from it
	Labels               string    // as pack.Labels reads them
	Serials              []string  // in the same order; none: not known yet
	Chemistry            string
	Cells, MilliampHours int
	Cycles               int
	Charged              bool // they were charged within the last day; else they lie at storage level
}

// AddPacks adds several packs, all or none. Adding the same id twice changes nothing.
func (s *Service) AddPacks(ctx context.Context, n NewPacks) ([]Pack, error) {
	labels, err := pack.Labels(n.Labels)
	if err != nil {
		return nil, fault.Bad("labels", "%s.", why.Words(err))
	}
	if len(n.Serials) != 0 && len(n.Serials) != len(labels) {
		return nil, fault.Bad("serials", "There are %d labels and %d serial numbers: one for each, in their order, or none.",
			len(labels), len(n.Serials))
	}
	var out []Pack
	err = db.Tx(ctx, s.DB, func(ctx context.Context, _ *gorm.DB) error {
		for i, l := range labels {
			serial := ""
			if len(n.Serials) > 0 {
				serial = n.Serials[i]
			}
			p, err := s.AddPack(ctx, NewPack{ID: uuid.NewSHA1(n.ID, []byte(l)), Label: l, Serial: serial,
				Unmarked: len(n.Serials) == 0, Chemistry: n.Chemistry, Cells: n.Cells, MilliampHours: n.MilliampHours,
				Cycles: n.Cycles, Charged: n.Charged})
			if f, ok := fault.As(err); ok {
				return ofMany(l, f)
			}
			if err != nil {
				return err
			}
			out = append(out, p)
		}
		return nil
	})
	return out, err
}

// ofMany is what is wrong with one of several packs, under the fields of them all.
func ofMany(label string, f *fault.Error) error {
	fields := []fault.Field{}
	for _, x := range f.Fields {
		if x.Field == "label" || x.Field == "serial" {
			x.Field += "s"
		}
		x.Sentence = label + ": " + x.Sentence
		fields = append(fields, x)
	}
	return &fault.Error{Kind: f.Kind, Type: f.Type, Detail: label + ": " + f.Detail, Fields: fields}
}

// CorrectPack puts right what is on file of a pack. What the readings of a pack rest on, its
// cells, is not changed under them.
func (s *Service) CorrectPack(ctx context.Context, n NewPack, version int) error {
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		locked, err := LockPacks(tx, []uuid.UUID{n.ID})
		if err != nil {
			return err
		}
		if len(locked) == 0 {
			return fault.Missing("pack")
		}
		p := locked[0]
		switch {
		case p.Version != version:
			return fault.Stale("pack")
		case p.State == string(pack.Fitted):
			return fault.Clash("in-flight", "%s is fitted to an aircraft. Correct it when it is out again.", p.Label)
		}
		if err := n.wrong(); err != nil {
			return err
		}
		if n.Cells != p.Cells || n.Chemistry != p.Chemistry {
			if p.State == string(pack.Charging) {
				return fault.Bad("chemistry",
					"%s is on charge as %s with %d cells. Take it off the charger first, then correct it.", p.Label, p.Chemistry,
					p.Cells)
			}
			var read bool
			if err := tx.Raw("select exists (select 1 from pack_readings where pack_id = ? and withdrawn_at is null and cell_mv <> '{}')",
				p.ID).Scan(&read).Error; err != nil {
				return err
			}
			if read {
				return fault.Bad("cells", "%s has readings of %d cells %s. Withdraw those first, or add it as another pack.",
					p.Label, p.Cells, p.Chemistry)
			}
		}
		taken, err := outOf(tx, p, n)
		if err != nil {
			return err
		}
		was := p
		p.Label, p.Serial, p.Chemistry, p.Cells, p.CapacityMAh = strings.TrimSpace(n.Label), strings.TrimSpace(n.Serial),
			n.Chemistry, n.Cells, n.MilliampHours
		p.OutMAh, p.Cycles = taken, n.Cycles
		p.Version++
		if err := db.Translate(tx.Save(&p).Error); err != nil {
			return err
		}
		if err := s.standPack(ctx, tx, p); err != nil {
			return err
		}
		_, err = records.Append(ctx, tx, records.Entry{Kind: records.PackCorrected, Subject: p.ID, At: s.Clock.Now(),
			By: people.From(ctx).By(),
			Summary: fmt.Sprintf("%s corrected: %s.", was.Label,
				strings.Join(corrected(was, p), ", ")), Content: map[string]any{"pack": p.ID, "before": filed(was),
				"now": filed(p)}})
		return err
	})
}

// outOf is the charge that was taken out of a pack over its life, mAh, once it is corrected: what
// a charger measured stays; what was counted as shares of the pack follows its capacity, and the
// cycles that it had more or less.
func outOf(tx *gorm.DB, p Pack, n NewPack) (float64, error) {
	var measured float64
	err := tx.Raw("select coalesce(sum(mah_out), 0) from pack_readings where pack_id = ? and withdrawn_at is null",
		p.ID).Scan(&measured).Error
	shares := max(p.OutMAh-measured, 0) / float64(p.CapacityMAh)
	return measured + max(shares+float64(n.Cycles-p.Cycles), 0)*float64(n.MilliampHours), err
}

// filed is what is on file of a pack, as a record keeps it.
func filed(p Pack) map[string]any {
	return map[string]any{"label": p.Label, "serial": p.Serial, "chemistry": p.Chemistry, "cells": p.Cells,
		"capacity_mah": p.CapacityMAh, "cycles": p.Cycles}
}

// corrected says what changed, in words.
func corrected(was, p Pack) (out []string) {
	before, now := filed(was), filed(p)
	for _, k := range []string{"label", "serial", "chemistry", "cells", "capacity_mah", "cycles"} {
		if before[k] != now[k] {
			out = append(out, fmt.Sprintf("%s %v, not %v", strings.ReplaceAll(strings.TrimSuffix(k, "_mah"), "_", " "), now[k],
				before[k]))
		}
	}
	if len(out) == 0 {
		return []string{"nothing changed"}
	}
	return out
}

// WithdrawReading takes a reading out of all that is judged, with the reason; it stays to be read.
// What it counted of charge is taken back.
func (s *Service) WithdrawReading(ctx context.Context, id, reading uuid.UUID, why string) error {
	why = strings.TrimSpace(why)
	if len([]rune(why)) < 3 {
		return fault.Bad("why", "Say why it is withdrawn, like: of another pack.")
	}
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		locked, err := LockPacks(tx, []uuid.UUID{id})
		if err != nil {
			return err
		}
		var r Reading
		if err := tx.Limit(1).Find(&r, "id = ? and pack_id = ?", reading, id).Error; err != nil {
			return err
		}
		if len(locked) == 0 || r.ID == uuid.Nil {
			return fault.Missing("reading")
		}
		if r.WithdrawnAt != nil {
			return nil
		}
		p, now, by := locked[0], s.Clock.Now(), people.From(ctx)
		// What was confirmed of it on a walk goes with it.
		if err := tx.Exec(`update pack_readings set withdrawn_at = ?, withdrawn_by = ?, withdrawn_why = ?
			where (id = ? or ? = any(confirms)) and withdrawn_at is null`, now, by.Name, why, r.ID, r.ID).Error; err != nil {
			return err
		}
		if r.MAhOut != nil {
			p.OutMAh = max(p.OutMAh-*r.MAhOut, 0)
			if err := tx.Exec("update packs set out_mah = ? where id = ?", p.OutMAh, p.ID).Error; err != nil {
				return err
			}
		}
		if err := s.standPack(ctx, tx, p); err != nil {
			return err
		}
		_, err = records.Append(ctx, tx, records.Entry{Kind: records.ReadingWithdrawn, Subject: p.ID, At: now, By: by.By(),
			Summary: fmt.Sprintf("%s: the reading of %s withdrawn: %s.", p.Label, r.At.UTC().Format("2006-01-02 15:04 UTC"),
				strings.TrimRight(why, ".")),
			Content: map[string]any{"pack": p.ID, "reading": r.ID, "read_at": r.At.UTC().Format(time.RFC3339),
				"read_by": r.ByName, "cell_mv": r.CellMV, "percent": r.Percent, "mah_out": r.MAhOut, "why": why}})
		return err
	})
}
