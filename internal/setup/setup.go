// Package setup tells what the server is connected to; what a crew sets belongs to
// the features that use it.
package setup

import (
	"context"

	"mainstay/api"
	"mainstay/internal/missions"
	"mainstay/internal/rack"
	"mainstay/internal/sites"

	"mainstay/internal/airspace"
)

// Handlers serve the set-up.
type Handlers struct {
	Rack     *rack.Service
	Sites    *sites.Service
	Airspace *airspace.Service
	Missions *missions.Service
}

// ListOutside tells which devices and services are set where the server runs; their
// addresses and keys stay there.
func (h *Handlers) ListOutside(context.Context, api.ListOutsideRequestObject) (api.ListOutsideResponseObject, error) {
	return api.ListOutside200JSONResponse{Charger: h.Rack.Charger != nil, Weather: h.Sites.Weather != nil,
		Desk: h.Airspace.Desk != nil, Aircraft: h.Missions.Link != nil}, nil
}
