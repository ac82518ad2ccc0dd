package fleet

import (
	"context"
	"time"

	"github.com/google/uuid"

	"mainstay/core/wear"
)

// forecastDays is how far back the forecast looks.
const forecastDays = 28

// RecentUse returns what each thing of a kind, "part" or "aircraft", did in the
// last 28 days, by thing.
func (s *Service) RecentUse(ctx context.Context, thing string) (map[uuid.UUID]wear.Recent, error) {
	now := s.Clock.Now()
	var rows []struct {
		ThingID  uuid.UUID
		Day      time.Time
		Seconds  float64
		Flights  float64
		Landings float64
		Cycles   float64
		Litres   float64
	}
	err := s.DB.WithContext(ctx).Raw(`select u.thing_id, date_trunc('day', f.took_off_at, 'UTC') as day, sum(u.seconds) as seconds, sum(u.flights) as flights, sum(u.landings) as landings, sum(u.cycles) as cycles, sum(u.litres) as litres
		from flights f join flight_use u on u.flight_id = f.id and u.thing = ? where f.took_off_at > ? group by 1, 2`, thing, now.AddDate(0, 0, -forecastDays)).Scan(&rows).Error
	out := map[uuid.UUID]wear.Recent{}
	today := now.Truncate(24 * time.Hour)
	for _, r := range rows {
		ago := int(today.Sub(r.Day.UTC()).Hours() / 24)
		x := out[r.ThingID]
		x.Hours = append(x.Hours, wear.DayUse{DaysAgo: ago, Amount: r.Seconds / 3600})
		x.Flights = append(x.Flights, wear.DayUse{DaysAgo: ago, Amount: r.Flights})
		x.Landings = append(x.Landings, wear.DayUse{DaysAgo: ago, Amount: r.Landings})
		x.Cycles = append(x.Cycles, wear.DayUse{DaysAgo: ago, Amount: r.Cycles})
		x.Litres = append(x.Litres, wear.DayUse{DaysAgo: ago, Amount: r.Litres})
		out[r.ThingID] = x
	}
	return out, err
}
