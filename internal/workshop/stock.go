package workshop

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/airframe"
	"mainstay/core/stock"
	"mainstay/internal/fleet"
	"mainstay/internal/people"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
)

// StockLine is one kind of thing on the shelf. A line with a part kind counts
// the serial-numbered parts of that kind and type; any other has a quantity.
type StockLine struct {
	ID           uuid.UUID
	Name         string
	Kind         string
	TypeKey      string
	Quantity     int
	Minimum      int
	DeliveryDays int
	PriceCents   *int64
	Source       string
	Version      int
	Shelf        []fleet.Part `gorm:"-"`
	Order        stock.Order  `gorm:"-"`
}

// TableName is the table of stock lines.
func (StockLine) TableName() string { return "stock_lines" }

// OnHand is how many there are.
func (l StockLine) OnHand() int {
	if l.Kind != "" {
		return len(l.Shelf)
	}
	return l.Quantity
}

// Needs are the days on which parts of a kind for a type will be needed, by
// "kind/type".
type Needs map[string][]time.Time

// NeedOf is the key of a kind and a type.
func NeedOf(kind, typeKey string) string { return kind + "/" + typeKey }

// Stock returns every line with what lies on the shelf and what to order when;
// needs come from what falls due.
func (s *Service) Stock(ctx context.Context, needs Needs) ([]StockLine, error) {
	g := s.DB.WithContext(ctx)
	var lines []StockLine
	if err := g.Order("lower(name)").Find(&lines).Error; err != nil {
		return nil, err
	}
	var shelf []fleet.Part
	if err := g.Raw("select * from parts where aircraft_id is null and discarded_at is null order by kind, serial").Scan(&shelf).Error; err != nil {
		return nil, err
	}
	c, _, err := s.People.Crew(ctx)
	if err != nil {
		return nil, err
	}
	// What was used without a serial number in the last 90 days foretells the next 90.
	var used []struct {
		LineID uuid.UUID
		N      int
	}
	if err := g.Raw("select line_id, sum(quantity) as n from work_used where line_id is not null and part_id is null and at > ? group by 1",
		s.Clock.Now().AddDate(0, 0, -90)).Scan(&used).Error; err != nil {
		return nil, err
	}
	today := c.Day(s.Clock.Now())
	for i := range lines {
		l := &lines[i]
		var days []time.Time
		if l.Kind != "" {
			for _, p := range shelf {
				if p.Kind == l.Kind && p.TypeKey == l.TypeKey {
					l.Shelf = append(l.Shelf, p)
				}
			}
			days = needs[NeedOf(l.Kind, l.TypeKey)]
		}
		for _, u := range used {
			if u.LineID == l.ID {
				for n := range u.N {
					days = append(days, today.AddDate(0, 0, 90*(n+1)/u.N))
				}
			}
		}
		if l.Order, err = stock.Reorder(stock.Line{OnHand: l.OnHand(), Minimum: l.Minimum, DeliveryDays: l.DeliveryDays},
			days, today); err != nil {
			return nil, fmt.Errorf("%s: %w", l.Name, err)
		}
	}
	return lines, nil
}

// SaveStock adds a line, or changes one that nobody changed meanwhile. version
// 0 means it is new.
func (s *Service) SaveStock(ctx context.Context, l StockLine) error {
	l.Name, l.Source = strings.TrimSpace(l.Name), strings.TrimSpace(l.Source)
	if l.Name == "" {
		return fault.Bad("name", "Enter what it is.")
	}
	if l.Kind != "" {
		t, err := s.Fleet.Type(ctx, l.TypeKey)
		if err != nil {
			return fault.Bad("type_key", "Choose the type that these parts are for.")
		}
		if !slices.ContainsFunc(t.Positions(), func(p airframe.Position) bool { return p.Kind == l.Kind }) {
			return fault.Bad("kind", "%s carries no part of this kind.", t.Name)
		}
		l.Quantity = 0 // counted from the shelf
	}
	return db.Tx(ctx, s.DB, func(_ context.Context, tx *gorm.DB) error {
		if l.Version == 0 {
			l.Version = 1
			return tx.Exec(`insert into stock_lines (id, name, kind, type_key, quantity, minimum, delivery_days, price_cents, source, version) values (?, ?, ?, ?, ?, ?, ?, ?, ?, 1) on conflict (id) do nothing`,
				l.ID, l.Name, l.Kind, l.TypeKey, l.Quantity, l.Minimum, l.DeliveryDays, l.PriceCents, l.Source).Error
		}
		res := tx.Exec(`update stock_lines set name = ?, kind = ?, type_key = ?, quantity = ?, minimum = ?, delivery_days = ?, price_cents = ?, source = ?, version = version + 1 where id = ? and version = ?`,
			l.Name, l.Kind, l.TypeKey, l.Quantity, l.Minimum, l.DeliveryDays, l.PriceCents, l.Source, l.ID, l.Version)
		if res.Error == nil && res.RowsAffected == 0 {
			return fault.Stale("stock line")
		}
		return res.Error
	})
}

// UseStock takes pieces of a line for a work order. Serial-numbered parts are
// fitted at their position instead, which takes them from the shelf.
func (s *Service) UseStock(ctx context.Context, order, id, line uuid.UUID, quantity int) error {
	by := people.From(ctx)
	return db.Tx(ctx, s.DB, func(_ context.Context, tx *gorm.DB) error {
		o, _, err := lockOrder(tx, order)
		if err != nil {
			return err
		}
		if err := o.mustBeOpen(); err != nil {
			return err
		}
		var n int64
		if err := tx.Raw("select count(*) from work_used where id = ?", id).Scan(&n).Error; err != nil || n > 0 {
			return err
		}
		var l StockLine
		if err := tx.Raw("select * from stock_lines where id = ? for no key update", line).Scan(&l).Error; err != nil {
			return err
		}
		switch {
		case l.ID == uuid.Nil:
			return fault.Missing("stock line")
		case l.Kind != "":
			return fault.Bad("line_id", "%s have serial numbers: fit one at its position, which takes it from the shelf.",
				l.Name)
		case l.Quantity < quantity:
			return fault.Bad("quantity", "There are %d of %s on the shelf.", l.Quantity, l.Name)
		}
		if err := tx.Exec("update stock_lines set quantity = quantity - ?, version = version + 1 where id = ?", quantity,
			line).Error; err != nil {
			return err
		}
		return tx.Exec("insert into work_used (id, order_id, line_id, name, quantity, by_name, at) values (?, ?, ?, ?, ?, ?, ?)",
			id, order, line, l.Name, quantity, by.Name, s.Clock.Now()).Error
	})
}

// Approval lets third-party parts of a kind fly on a type.
type Approval struct {
	Kind    string
	TypeKey string
	Note    string
	ByName  string
	At      time.Time
}

// Approvals lists what the crew has approved.
func (s *Service) Approvals(ctx context.Context) ([]Approval, error) {
	var out []Approval
	err := s.DB.WithContext(ctx).Raw("select * from part_approvals order by type_key, kind").Scan(&out).Error
	return out, err
}

// Approve records that the crew lets third-party parts of a kind fly on a type.
func (s *Service) Approve(ctx context.Context, kind, typeKey, note string) error {
	by := people.From(ctx)
	t, err := s.Fleet.Type(ctx, typeKey)
	if err != nil {
		return fault.Bad("type_key", "Choose a type from the list.")
	}
	if !slices.ContainsFunc(t.Positions(), func(p airframe.Position) bool { return p.Kind == kind }) {
		return fault.Bad("kind", "%s carries no part of this kind.", t.Name)
	}
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		res := tx.Exec("insert into part_approvals (kind, type_key, note, by_name, at) values (?, ?, ?, ?, ?) on conflict do nothing",
			kind, typeKey, note, by.Name, s.Clock.Now())
		if res.Error != nil || res.RowsAffected == 0 {
			return res.Error
		}
		_, err := records.Append(ctx, tx, records.Entry{Kind: records.PartsApproved, At: s.Clock.Now(), By: by.By(),
			Summary: fmt.Sprintf("Third-party parts approved: %s for %s", airframe.KindName(kind), t.Name),
			Content: map[string]any{"kind": kind, "type": typeKey, "note": note}})
		return err
	})
}
