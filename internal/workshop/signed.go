package workshop

import (
	"context"
	"time"

	"github.com/google/uuid"
)

// SignedOrder is a work order that was signed.
type SignedOrder struct {
	AircraftID uuid.UUID
	SignedAt   time.Time
}

// SignedSince are the work orders that were signed since then.
func (s *Service) SignedSince(ctx context.Context, since time.Time) ([]SignedOrder, error) {
	var out []SignedOrder
	err := s.DB.WithContext(ctx).Raw("select aircraft_id, signed_at from work_orders where signed_at >= ?",
		since).Scan(&out).Error
	return out, err
}
