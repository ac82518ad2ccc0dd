// Package server puts the features behind one HTTP server: contract, roles,
// sessions, limits, headers and the web application.
package server

import (
	"context"
	"errors"

	"gocloud.dev/blob"
	"gorm.io/gorm"

	"mainstay/api"
	"mainstay/internal/day"
	"mainstay/internal/fleet"
	"mainstay/internal/flights"
	"mainstay/internal/logbook"
	"mainstay/internal/people"
	"mainstay/internal/platform/clock"
	"mainstay/internal/walkround"
	"mainstay/internal/workshop"
)

// Services are the use cases of all features.
type Services struct {
	DB         *gorm.DB
	Clock      clock.Clock
	People     *people.Service
	Fleet      *fleet.Service
	Walkrounds *walkround.Service
	Workshop   *workshop.Service
	Flights    *flights.Service
	Log        *logbook.Service
}

// NewServices wires the features to a database, a clock and a photo store.
func NewServices(g *gorm.DB, c clock.Clock, photos *blob.Bucket) *Services {
	p := &people.Service{DB: g, Clock: c}
	f := &fleet.Service{DB: g, Clock: c, People: p}
	w := &walkround.Service{DB: g, Clock: c, Fleet: f, People: p, Photos: photos}
	shop := &workshop.Service{DB: g, Clock: c, People: p, Fleet: f, Walkrounds: w}
	return &Services{DB: g, Clock: c, People: p, Fleet: f, Walkrounds: w, Workshop: shop,
		Flights: &flights.Service{DB: g, Clock: c, People: p, Fleet: f, Walkrounds: w, Workshop: shop}, Log: &logbook.Service{DB: g, Clock: c, People: p}}
}

// Seed puts the shipped types, checklists and programmes into the database.
func (s *Services) Seed(ctx context.Context) error {
	return errors.Join(s.Fleet.SeedTypes(ctx), s.Walkrounds.SeedLists(ctx), s.Workshop.SeedProgrammes(ctx))
}

// Aliases give each feature's handlers a name of their own, so that one struct
// can embed them all.
type (
	peopleAPI    = people.Handlers
	fleetAPI     = fleet.Handlers
	walkroundAPI = walkround.Handlers
	workshopAPI  = workshop.Handlers
	flightsAPI   = flights.Handlers
	logAPI       = logbook.Handlers
	dayAPI       = day.Handlers
)

type handlers struct {
	*peopleAPI
	*fleetAPI
	*walkroundAPI
	*workshopAPI
	*flightsAPI
	*logAPI
	*dayAPI
	streamAPI
}

var _ api.StrictServerInterface = handlers{}
