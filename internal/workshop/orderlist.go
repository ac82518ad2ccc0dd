package workshop

import (
	"context"

	"github.com/google/uuid"

	"mainstay/internal/platform/db"
)

// OrderLine is a work order as a list shows it.
type OrderLine struct {
	Order
	Aircraft string
	TypeKey  string
	Entered  int // steps
}

const ordersPage = 100

// OrderPage returns a page of the work orders of one aircraft, or of all for a nil id: open ones
// first, newest first, with the closed ones when all are asked for; and where the next begins,
// empty when there is none.
func (s *Service) OrderPage(ctx context.Context, aircraft *uuid.UUID, all bool,
	cursor string) ([]OrderLine, string, error) {
	const open = "(w.state in ('open', 'signed'))"
	q := s.DB.WithContext(ctx).Table("work_orders w").Joins("join aircraft a on a.id = w.aircraft_id").
		Select("w.*, a.name as aircraft, a.type_key, (select count(*) from work_entries e where e.order_id = w.id and e.verdict <> 'stop') as entered").
		Order(open + " desc, w.opened_at desc, w.id desc").Limit(ordersPage + 1)
	if aircraft != nil {
		q = q.Where("w.aircraft_id = ?", *aircraft)
	}
	if !all {
		q = q.Where(open)
	}
	if cursor != "" {
		first, at, id, err := db.ParseOpenCursor(cursor)
		if err != nil {
			return nil, "", err
		}
		q = q.Where("("+open+", w.opened_at, w.id) < (?, ?::timestamptz, ?::uuid)", first, at, id)
	}
	var out []OrderLine
	err := q.Scan(&out).Error
	out, next := db.Page(out, ordersPage, func(o OrderLine) string {
		return db.OpenCursor(o.State == Open || o.State == Signed, o.OpenedAt, o.ID)
	})
	return out, next, err
}
