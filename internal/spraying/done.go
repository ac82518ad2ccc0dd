package spraying

import (
	"context"
	"encoding/json"
	"fmt"
	"strings"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/spray"
	"mainstay/internal/outbox"
	"mainstay/internal/people"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
)

// Done is a part of a pass that is sprayed.
type Done struct {
	ID        uuid.UUID
	PlanID    uuid.UUID
	Pass      int
	FromShare float64
	ToShare   float64
	AreaM2    float64 `gorm:"column:area_m2"`
	Litres    float64
	FlightID  *uuid.UUID
	Applied   Applied `gorm:"serializer:json"`
	At        time.Time
	ByName    string
	RecordID  *uuid.UUID // signed in that record
	BackAt    *time.Time
	BackBy    *string
}

// Applied is what was sprayed, as it stood in the plan then: a plan that is changed
// afterwards changes nothing of what was.
type Applied struct {
	Mix    []spray.Product `json:"mix"`
	Number string          `json:"number"` // registration number
	Label  spray.Label     `json:"label"`
}

// with completes what was not entered yet when it was sprayed from what the plan says of
// it since: a product or a number that stood there is never replaced.
func (a Applied) with(w spray.Wish) Applied {
	now := Applied{w.Mix, w.Number, w.Label}
	switch {
	case len(a.Mix) == 0:
		return now
	case a.Number == "" && a.words() == now.words():
		a.Number = now.Number
	}
	return a
}

// words is the mix with its rates, in the order of mixing.
func (a Applied) words() string {
	var out []string
	for _, x := range a.Mix {
		if x.PerHa > 0 {
			out = append(out, fmt.Sprintf("%s %g %s/ha", x.Name, x.PerHa, x.Unit))
		} else {
			out = append(out, fmt.Sprintf("%s %g %%", x.Name, x.Percent))
		}
	}
	return strings.Join(out, "; ")
}

func (Done) TableName() string { return "spray_done" }

// done are the parts that are sprayed and not taken back, oldest first.
func (s *Service) done(ctx context.Context, plan uuid.UUID) ([]Done, error) {
	out := []Done{}
	if plan == uuid.Nil {
		return out, nil
	}
	return out, s.DB.WithContext(ctx).Order("at, id").Find(&out, "plan_id = ? and back_at is null", plan).Error
}

func sprayed(all []Done) []spray.Sprayed {
	out := make([]spray.Sprayed, len(all))
	for i, d := range all {
		out[i] = spray.Sprayed{Pass: d.Pass, From: d.FromShare, To: d.ToShare}
	}
	return out
}

// Spray puts on record that parts of passes are sprayed, in the order flown. The same
// id sent twice counts once; a part that was sprayed before is refused.
// seen is the version of the plan by which it was sprayed; 0 is the one of now.
func (s *Service) Spray(ctx context.Context, job, aircraft uuid.UUID, parts []Done, seen int) error {
	p, err := s.kept(ctx, job, aircraft)
	if err != nil {
		return err
	}
	if seen > 0 && seen != p.Version {
		return fault.Clash("plan-changed",
			"%s changed the plan after this was pressed: passes, rate or product may be others now. Nothing was put on record. Look what was sprayed, and put it on record by the plan as it is.",
			p.ByName)
	}
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		if err := p.lock(tx); err != nil {
			return err
		}
		by, now := people.From(ctx), s.Clock.Now()
		pressed := outbox.From(ctx).At(now)
		var have []Done
		if err := tx.Find(&have, "plan_id = ?", p.ID).Error; err != nil {
			return err
		}
		if err := p.freeze(tx, have); err != nil {
			return err
		}
		ha, n := 0.0, 0
		for i, d := range parts {
			if known(have, d.ID) {
				continue
			}
			if d.Pass < 0 || d.Pass >= len(p.Out.Passes) || !(d.FromShare >= 0 && d.FromShare < d.ToShare && d.ToShare <= 1) {
				return fault.Bad(fmt.Sprintf("parts.%d", i), "The plan has no such part of a pass: it has %d passes.",
					len(p.Out.Passes))
			}
			for _, h := range have {
				if h.BackAt == nil && h.Pass == d.Pass && min(h.ToShare, d.ToShare)-max(h.FromShare, d.FromShare) > 1e-6 {
					return fault.Clash("sprayed-already", "Pass %d is sprayed there already, put on record by %s. Nothing was saved.",
						d.Pass+1, h.ByName)
				}
			}
			d.PlanID, d.At, d.ByName, d.Applied = p.ID, pressed, by.Name, Applied{p.Wish.Mix, p.Wish.Number, p.Wish.Label}
			d.AreaM2 = p.Out.Passes[d.Pass].Area * (d.ToShare - d.FromShare)
			d.Litres = d.AreaM2 / 1e4 * p.Out.Settings.Rate
			if err := tx.Create(&d).Error; err != nil {
				return err
			}
			have, ha, n = append(have, d), ha+d.AreaM2/1e4, n+1
		}
		if n == 0 {
			return nil
		}
		_, err := records.Append(ctx, tx, records.Entry{Kind: records.Sprayed, Subject: aircraft, At: now, By: by.By(),
			Summary: fmt.Sprintf("%s: %.2f ha of %s sprayed", p.Aircraft.Name, ha, p.Ground.Field.Name),
			Content: map[string]any{"plan": p.ID, "job": job, "parts": parts, "rate": p.Out.Settings.Rate, "mix": p.Wish.Mix,
				"number": p.Wish.Number}})
		return err
	})
}

// freeze keeps the passes where they lie from the first that is sprayed on: whatever
// the wind does, the strips keep their bearing.
func (p Plan) freeze(tx *gorm.DB, have []Done) error {
	for _, h := range have {
		if h.BackAt == nil {
			return nil // frozen already
		}
	}
	w := p.Wish
	w.Direction, w.BearingDeg = spray.Along, p.Out.BearingDeg
	content, err := json.Marshal(w)
	if err != nil {
		return err
	}
	return tx.Exec("update spray_plans set wish = ?, basis = ? where id = ?", string(content), lie(p.Out.Passes),
		p.ID).Error
}

func known(have []Done, id uuid.UUID) bool {
	for _, h := range have {
		if h.ID == id {
			return true
		}
	}
	return false
}

// Unspray takes back what was put on record by mistake; it stays on file, with who
// took it back.
func (s *Service) Unspray(ctx context.Context, job, aircraft uuid.UUID, ids []uuid.UUID) error {
	p, err := s.about(ctx, job, aircraft)
	if err != nil {
		return err
	}
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		by, now := people.From(ctx), s.Clock.Now()
		var signed int
		if err := tx.Raw("select count(*) from spray_done where plan_id = ? and id = any(?::uuid[]) and back_at is null and record_id is not null",
			p.ID, db.UUIDs(ids)).Scan(&signed).Error; err != nil {
			return err
		}
		if signed > 0 {
			return fault.Clash("already-signed",
				"Part of this stands in a signed record, which does not change. Nothing was taken back; tell the chief what is wrong with the record.")
		}
		res := tx.Exec("update spray_done set back_at = ?, back_by = ? where plan_id = ? and id = any(?::uuid[]) and back_at is null",
			outbox.From(ctx).At(now), by.Name, p.ID, db.UUIDs(ids))
		if res.Error != nil || res.RowsAffected == 0 {
			return res.Error
		}
		_, err := records.Append(ctx, tx, records.Entry{Kind: records.SprayTakenBack, Subject: aircraft, At: now, By: by.By(),
			Summary: p.Aircraft.Name + ": taken back what was put on record as sprayed",
			Content: map[string]any{"plan": p.ID, "parts": ids}})
		return err
	})
}
