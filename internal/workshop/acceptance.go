package workshop

import (
	"context"
	"fmt"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/upkeep"
	"mainstay/internal/people"
	"mainstay/internal/records"
)

// Flown counts a logged flight as the acceptance flight of a signed order and
// closes the order after its last one. A flight with a contact, a hard landing
// or a motor that ran hot does not count; why says so.
func (s *Service) Flown(ctx context.Context, tx *gorm.DB, order, flight uuid.UUID, at time.Time, why string) error {
	o, a, err := lockOrder(tx, order)
	if err != nil {
		return err
	}
	if o.State != Signed {
		return nil // done again meanwhile
	}
	by, load := people.From(ctx), o.Next()
	summary := fmt.Sprintf("%s: acceptance flight (%s) after: %s", a.Name, load, o.Title)
	if why != "" {
		summary += ". It does not count: " + why
	}
	if _, err := records.Append(ctx, tx, records.Entry{Kind: records.AcceptanceFlown, Subject: a.ID, At: at, By: by.By(),
		Summary: summary,
		Content: map[string]any{"order": o.ID, "load": load, "flight": flight, "counts": why == "",
			"why": why}}); err != nil {
		return err
	}
	if why != "" {
		return nil
	}
	if err := tx.Exec("insert into acceptance_flights (order_id, load, flight_id, at) values (?, ?, ?, ?)", o.ID, load,
		flight, at).Error; err != nil {
		return err
	}
	if last := o.Work.Acceptance[len(o.Work.Acceptance)-1]; load == last {
		return tx.Exec("update work_orders set state = ?, closed_at = ?, version = version + 1 where id = ?", Closed, at,
			o.ID).Error
	}
	return tx.Exec("update work_orders set version = version + 1 where id = ?", o.ID).Error
}

// acceptance lists the acceptance flights of an order, made or not.
func (s *Service) acceptance(ctx context.Context, o Order) ([]acceptanceRow, error) {
	var rows []acceptanceRow
	if err := s.DB.WithContext(ctx).Raw("select load, flight_id, at from acceptance_flights where order_id = ?",
		o.ID).Scan(&rows).Error; err != nil {
		return nil, err
	}
	var out []acceptanceRow
	for _, l := range o.Work.Acceptance {
		row := acceptanceRow{Load: l}
		for _, r := range rows {
			if r.Load == l {
				row = r
			}
		}
		out = append(out, row)
	}
	return out, nil
}

type acceptanceRow struct {
	Load     upkeep.Load
	FlightID *uuid.UUID
	At       *time.Time
}
