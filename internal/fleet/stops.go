package fleet

import (
	"context"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"
)

// Stopped is a time in which something barred an aircraft from flying.
type Stopped struct {
	AircraftID uuid.UUID
	Since      time.Time
	Until      *time.Time // nil: still
}

// Groundings are those that were open at some time since then.
func (s *Service) Groundings(ctx context.Context, since time.Time) ([]Stopped, error) {
	var out []Stopped
	err := s.DB.WithContext(ctx).Raw("select aircraft_id, at as since, lifted_at as until from groundings where lifted_at is null or lifted_at >= ?",
		since).Scan(&out).Error
	return out, err
}

// HealthPoint is a measured capacity, percent of the rated one.
type HealthPoint struct {
	At      time.Time
	Percent float64
}

// PackHealth is how the capacity of a pack went.
type PackHealth struct {
	ID     uuid.UUID
	Label  string
	Points []HealthPoint // oldest first
}

// healthPoints is how many of the newest measurements are told.
const healthPoints = 60

// RackHealth is the measured health of every pack that is not retired, by label,
// as last computed.
func (s *Service) RackHealth(ctx context.Context) ([]PackHealth, error) {
	var rows []struct {
		ID      uuid.UUID
		Label   string
		At      *time.Time
		Percent float64
	}
	err := s.DB.WithContext(ctx).Raw(`select p.id, p.label, x.at, x.percent from packs p
		left join pack_outlooks o on o.pack_id = p.id
		left join lateral (
			select (e->>'at')::timestamptz as at, 100 * (e->>'mah')::double precision / p.capacity_mah as percent
			from jsonb_array_elements(o.content->'points') e order by 1 desc limit ?) x on p.capacity_mah > 0
		where p.state <> 'retired' order by lower(p.label), p.id, x.at`, healthPoints).Scan(&rows).Error
	var out []PackHealth
	for _, r := range rows {
		if n := len(out); n == 0 || out[n-1].ID != r.ID {
			out = append(out, PackHealth{ID: r.ID, Label: r.Label})
		}
		if r.At != nil {
			last := &out[len(out)-1]
			last.Points = append(last.Points, HealthPoint{At: *r.At, Percent: r.Percent})
		}
	}
	return out, err
}

// LiftGroundings lifts all that are open: the aircraft is returned to service.
func LiftGroundings(tx *gorm.DB, aircraft uuid.UUID, at time.Time, by, note string) error {
	return tx.Exec("update groundings set lifted_at = ?, lifted_by = ?, lifted_note = ? where aircraft_id = ? and lifted_at is null",
		at, by, note, aircraft).Error
}
