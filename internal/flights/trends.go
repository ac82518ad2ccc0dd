package flights

import (
	"context"
	"slices"
	"time"

	"github.com/google/uuid"

	"mainstay/api"
	"mainstay/core/trend"
	"mainstay/internal/platform/db"
)

// trendFlights is how many flights a trend looks back.
const trendFlights = 60

// Trends returns how each motor of an aircraft stands to its sisters over its
// last flights. A motor that was replaced begins anew: only flights since the
// newest motor was fitted count.
func (s *Service) Trends(ctx context.Context, aircraft uuid.UUID) (api.Trends, error) {
	out := api.Trends{Warmth: []trend.Drift{}, Output: []trend.Drift{}, Feel: []api.Feel{}, Notes: []api.TrendNote{}}
	if _, err := s.Fleet.Aircraft(ctx, aircraft); err != nil {
		return out, err
	}
	g := s.DB.WithContext(ctx)
	var rows []struct {
		WarmthSet db.Array[float64] `gorm:"type:double precision[]"`
		HoverSet  db.Array[float64] `gorm:"type:double precision[]"`
	}
	if err := g.Raw(`select warmth_set, hover_set from flights where aircraft_id = @a and state = 'logged' and (warmth_set is not null or hover_set is not null)
		and took_off_at > coalesce((select max(fitted_at) from parts where aircraft_id = @a and kind = 'motor'), '-infinity') order by took_off_at desc limit @n`,
		map[string]any{"a": aircraft, "n": trendFlights}).Scan(&rows).Error; err != nil {
		return out, err
	}
	slices.Reverse(rows)
	var warmth, output [][]float64
	for _, r := range rows {
		if len(r.WarmthSet) > 0 {
			warmth = append(warmth, r.WarmthSet)
		}
		if len(r.HoverSet) > 0 {
			output = append(output, r.HoverSet)
		}
	}
	out.Flights = len(rows)
	out.Warmth = append(out.Warmth, trend.Judge(warmth, trend.WarmthFloorC, "warmth", "°C")...)
	out.Output = append(out.Output, trend.Judge(output, trend.OutputFloorPoint, "output at hover", "points")...)
	// Spin feel: how often a walk found a motor odd.
	var feel []struct {
		Station string
		Walks   int
		Odd     int
		Last    string
	}
	if err := g.Raw(`with walks as (select completed_at, findings from walkrounds where aircraft_id = ? and kind in ('walkround', 'turnaround') and completed_at is not null)
		select f->>'station' as station, (select count(*) from walks) as walks, count(*) as odd, (array_agg(f->>'sentence' order by completed_at desc))[1] as last
		from walks cross join lateral jsonb_array_elements(findings) f where f->>'station' like 'motor-%' group by 1 order by 1`, aircraft).Scan(&feel).Error; err != nil {
		return out, err
	}
	for _, f := range feel {
		out.Feel = append(out.Feel, api.Feel{Station: f.Station, Walks: f.Walks, Odd: f.Odd, Last: f.Last})
	}
	var notes []struct {
		At     time.Time
		Note   string
		ByName string
	}
	if err := g.Raw(`select e.at, e.note, e.by_name from flight_events e join flights f on f.id = e.flight_id where f.aircraft_id = ? and e.kind = 'vibration' and e.taken_back_at is null order by e.at desc limit 20`,
		aircraft).Scan(&notes).Error; err != nil {
		return out, err
	}
	for _, n := range notes {
		out.Notes = append(out.Notes, api.TrendNote{At: n.At, Note: n.Note, By: n.ByName})
	}
	return out, nil
}

// GetTrends serves the trends of an aircraft.
func (h *Handlers) GetTrends(ctx context.Context, r api.GetTrendsRequestObject) (api.GetTrendsResponseObject, error) {
	t, err := h.Flights.Trends(ctx, r.Id)
	return api.GetTrends200JSONResponse(t), err
}
