package logbook

import (
	"context"
	"time"

	"github.com/google/uuid"
)

// Week is what was flown in one week of the crew's zone.
type Week struct {
	From    time.Time // its Monday, as a day
	Flights int
	Seconds int
}

// mostWeeks is how many weeks are told at most: the newest ten years.
const mostWeeks = 530

// Weeks sums a selection week by week, also those in which nothing was flown.
func (s *Service) Weeks(ctx context.Context, f Filter) ([]Week, error) {
	where, args, err := s.where(ctx, f)
	if err != nil {
		return nil, err
	}
	c, _, err := s.People.Crew(ctx)
	if err != nil {
		return nil, err
	}
	var found []Week
	err = s.DB.WithContext(ctx).Raw(`select date_trunc('week', f.took_off_at at time zone ?)::date as "from", count(*) as flights, sum(coalesce(c.seconds, f.seconds)) as seconds`+
		from+where+" group by 1 order by 1 desc limit ?", append(append([]any{c.Location().String()}, args...),
		mostWeeks)...).Scan(&found).Error
	if err != nil || len(found) == 0 {
		return nil, err
	}
	var out []Week
	for i := len(found) - 1; i >= 0; i-- {
		for n := len(out); n > 0 && out[n-1].From.AddDate(0, 0, 7).Before(found[i].From); n = len(out) {
			out = append(out, Week{From: out[n-1].From.AddDate(0, 0, 7)})
		}
		out = append(out, found[i])
	}
	return out[max(0, len(out)-mostWeeks):], nil
}

// Flown is what one aircraft flew in one week.
type Flown struct {
	AircraftID uuid.UUID
	Week
}

// FlownSince is what each aircraft flew week by week since then.
func (s *Service) FlownSince(ctx context.Context, since time.Time, zone *time.Location) ([]Flown, error) {
	var out []Flown
	err := s.DB.WithContext(ctx).Raw(`select f.aircraft_id, date_trunc('week', f.took_off_at at time zone ?)::date as "from", count(*) as flights, sum(coalesce(c.seconds, f.seconds)) as seconds
		from flights f left join (select distinct on (flight_id) * from flight_corrections order by flight_id, at desc) c on c.flight_id = f.id
		where f.state = 'logged' and f.took_off_at >= ? group by 1, 2`, zone.String(), since).Scan(&out).Error
	return out, err
}
