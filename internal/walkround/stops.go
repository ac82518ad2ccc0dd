package walkround

import (
	"context"
	"time"

	"mainstay/internal/fleet"
)

// Stops are the defects with a Stop that were open at some time since then.
func (s *Service) Stops(ctx context.Context, since time.Time) ([]fleet.Stopped, error) {
	var out []fleet.Stopped
	err := s.DB.WithContext(ctx).Raw("select aircraft_id, raised_at as since, closed_at as until from defects where severity = 'stop' and (closed_at is null or closed_at >= ?)",
		since).Scan(&out).Error
	return out, err
}
