package year

import (
	"context"

	openapi "github.com/oapi-codegen/runtime/types"

	"mainstay/api"
)

// Handlers serve the year of the fleet.
type Handlers struct{ Year *Service }

func (h *Handlers) GetYear(ctx context.Context, _ api.GetYearRequestObject) (api.GetYearResponseObject, error) {
	y, err := h.Year.Last(ctx)
	out := api.GetYear200JSONResponse{Weeks: []openapi.Date{}, Aircraft: []api.AircraftYear{}}
	for _, m := range y.Mondays {
		out.Weeks = append(out.Weeks, openapi.Date{Time: m})
	}
	for _, a := range y.Aircraft {
		out.Aircraft = append(out.Aircraft, api.AircraftYear{Id: a.ID, Flights: a.Flights, Seconds: a.Seconds, Work: a.Work,
			Stops: a.Stop, Down: a.Down})
	}
	return out, err
}
