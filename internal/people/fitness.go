package people

import (
	"context"
	"slices"
	"time"

	"github.com/google/uuid"

	"mainstay/core/crew"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
)

type fitnessRow struct {
	PersonID uuid.UUID
	At       time.Time
	Against  db.Array[string] `gorm:"type:text[]"`
}

// DeclareFit keeps what the acting person says about being fit today; against
// are ids of the points that speak against flying. The newest of a day counts.
func (s *Service) DeclareFit(ctx context.Context, id uuid.UUID, against []string) error {
	for _, a := range against {
		if !slices.ContainsFunc(crew.FitnessPoints, func(p crew.Point) bool { return p.ID == a }) {
			return fault.Bad("against", "%q is none of the points that are asked.", a)
		}
	}
	c, _, err := s.Crew(ctx)
	if err != nil {
		return err
	}
	now := s.Clock.Now()
	return s.DB.WithContext(ctx).Exec("insert into fitness (id, person_id, day, at, against) values (?, ?, ?, ?, ?) on conflict (id) do nothing",
		id, From(ctx).ID, c.Day(now), now, db.Array[string](append([]string{}, against...))).Error
}

// FitOn is the newest declaration of each person for a civil day.
func (s *Service) FitOn(ctx context.Context, day time.Time) (map[uuid.UUID]crew.Fitness, error) {
	var rows []fitnessRow
	if err := s.DB.WithContext(ctx).Raw("select distinct on (person_id) person_id, at, against from fitness where day = ? order by person_id, at desc, id desc",
		day).Scan(&rows).Error; err != nil {
		return nil, err
	}
	out := map[uuid.UUID]crew.Fitness{}
	for _, r := range rows {
		out[r.PersonID] = crew.Fitness{At: r.At, Against: r.Against}
	}
	return out, nil
}
