// Package server puts the features behind one HTTP server: contract, roles,
// sessions, limits, headers and the web application.
package server

import (
	"context"
	"errors"
	"log/slog"

	"github.com/google/uuid"
	"github.com/riverqueue/river"
	"gorm.io/gorm"

	"mainstay/api"
	"mainstay/core/airframe"
	"mainstay/core/upkeep"
	"mainstay/core/weather"
	"mainstay/internal/airspace"
	"mainstay/internal/bench"
	"mainstay/internal/day"
	"mainstay/internal/evening"
	"mainstay/internal/fleet"
	"mainstay/internal/flights"
	"mainstay/internal/jobs"
	"mainstay/internal/logbook"
	"mainstay/internal/missions"
	"mainstay/internal/people"
	"mainstay/internal/planning"
	"mainstay/internal/platform/clock"
	"mainstay/internal/platform/photos"
	"mainstay/internal/platform/versions"
	"mainstay/internal/platform/work"
	"mainstay/internal/practice"
	"mainstay/internal/rack"
	"mainstay/internal/readiness"
	"mainstay/internal/rulebook"
	"mainstay/internal/setup"
	"mainstay/internal/sheets"
	"mainstay/internal/sites"
	"mainstay/internal/spraying"
	"mainstay/internal/types"
	"mainstay/internal/walkround"
	"mainstay/internal/workshop"
	"mainstay/internal/year"
)

// Services are the use cases of all features.
type Services struct {
	DB         *gorm.DB
	Clock      clock.Clock
	People     *people.Service
	Fleet      *fleet.Service
	Walkrounds *walkround.Service
	Workshop   *workshop.Service
	Types      *types.Service
	Flights    *flights.Service
	Log        *logbook.Service
	Rack       *rack.Service
	Evening    *evening.Service
	Sites      *sites.Service
	Airspace   *airspace.Service
	Readiness  *readiness.Service
	Rules      *rulebook.Service
	Jobs       *jobs.Service
	Practices  *practice.Service
	Spraying   *spraying.Service
	Missions   *missions.Service
	Sheets     *sheets.Service
	Year       *year.Service
}

// NewServices wires the features to a database, a clock and a photo store.
func NewServices(g *gorm.DB, c clock.Clock, pictures photos.Store) *Services {
	p := &people.Service{DB: g, Clock: c}
	f := &fleet.Service{DB: g, Clock: c, People: p, Kept: &versions.Kept[airframe.Type]{}}
	w := &walkround.Service{DB: g, Clock: c, Fleet: f, People: p, Photos: pictures}
	r := &rack.Service{DB: g, Clock: c, People: p, Fleet: f}
	shop := &workshop.Service{DB: g, Clock: c, People: p, Fleet: f, Walkrounds: w,
		Kept: &versions.Kept[upkeep.Programme]{}}
	at := &sites.Service{DB: g, Clock: c, People: p, Fleet: f}
	air := &airspace.Service{DB: g, Clock: c, Sites: at}
	ready := &readiness.Service{DB: g, Clock: c, People: p, Fleet: f}
	book := &rulebook.Service{DB: g, Clock: c, People: p, Fleet: f, Walkrounds: w}
	kept := &practice.Service{DB: g, Clock: c, Fleet: f}
	night := &evening.Service{DB: g, Clock: c, People: p, Fleet: f, Rack: r}
	j := &jobs.Service{DB: g, Clock: c, People: p, Fleet: f, Sites: at, Airspace: air, Readiness: ready, Rules: book,
		Evening: night}
	plan := &planning.Service{Fleet: f, Jobs: j}
	plans := &spraying.Service{DB: g, Clock: c, Fleet: f, Sites: at, Jobs: j, Planning: plan}
	shot := &missions.Service{DB: g, Clock: c, Fleet: f, Sites: at, Jobs: j, Planning: plan}
	j.Plans = map[string]jobs.Planner{
		string(weather.Spraying):   plans.Planned,
		string(weather.Mapping):    shot.Planned,
		string(weather.Inspection): shot.Planned,
	}
	flown := &flights.Service{DB: g, Clock: c, People: p, Fleet: f, Walkrounds: w, Workshop: shop, Jobs: j,
		Practices: kept}
	plan.Learned, w.Today = flown.Learned, flown.Today
	log := &logbook.Service{DB: g, Clock: c, People: p}
	paper := &sheets.Service{
		DB: g, Clock: c, People: p, Sites: at, Jobs: j, Spraying: plans, Missions: shot, Walkrounds: w,
	}
	paper.Photo = func(ctx context.Context, id uuid.UUID) ([]byte, error) {
		_, b, err := w.Photo(ctx, id)
		return b, err
	}
	return &Services{
		DB: g, Clock: c, People: p, Fleet: f, Walkrounds: w, Workshop: shop, Flights: flown, Log: log, Rack: r,
		Evening: night, Sites: at, Airspace: air, Readiness: ready, Rules: book, Jobs: j, Practices: kept, Spraying: plans,
		Missions: shot, Sheets: paper, Types: &types.Service{DB: g, Fleet: f, Walkrounds: w, Workshop: shop},
		Year: &year.Service{Clock: c, People: p, Fleet: f, Log: log, Walks: w, Workshop: shop},
	}
}

// Queue makes the queue of background work with everything that may run in it.
// Start it to have this server work; without that it only takes work in.
func (s *Services) Queue(log *slog.Logger) (*work.Client, error) {
	pool, err := s.DB.DB()
	if err != nil {
		return nil, err
	}
	workers := river.NewWorkers()
	if err := river.AddWorkerSafely(workers, &rack.ForecastWorker{Rack: s.Rack}); err != nil {
		return nil, err
	}
	s.Rack.Queue, err = work.New(pool, workers, log)
	return s.Rack.Queue, err
}

// Seed puts the shipped types, checklists and programmes into the database.
func (s *Services) Seed(ctx context.Context) error {
	return errors.Join(s.Fleet.SeedTypes(ctx), s.Walkrounds.SeedLists(ctx), s.Workshop.SeedProgrammes(ctx),
		s.Spraying.SeedNozzles(ctx), s.Missions.SeedCameras(ctx), s.Missions.SeedCanopies(ctx))
}

// Aliases give each feature's handlers a name of their own, so that one struct
// can embed them all.
type (
	peopleAPI    = people.Handlers
	fleetAPI     = fleet.Handlers
	typesAPI     = types.Handlers
	walkroundAPI = walkround.Handlers
	workshopAPI  = workshop.Handlers
	flightsAPI   = flights.Handlers
	logAPI       = logbook.Handlers
	dayAPI       = day.Handlers
	rackAPI      = rack.Handlers
	eveningAPI   = evening.Handlers
	sitesAPI     = sites.Handlers
	airspaceAPI  = airspace.Handlers
	readinessAPI = readiness.Handlers
	rulesAPI     = rulebook.Handlers
	practiceAPI  = practice.Handlers
	jobsAPI      = jobs.Handlers
	sprayingAPI  = spraying.Handlers
	missionsAPI  = missions.Handlers
	sheetsAPI    = sheets.Handlers
	yearAPI      = year.Handlers
	setupAPI     = setup.Handlers
	benchAPI     = bench.Handlers
)

type handlers struct {
	*peopleAPI
	*fleetAPI
	*typesAPI
	*walkroundAPI
	*workshopAPI
	*flightsAPI
	*logAPI
	*dayAPI
	*rackAPI
	*eveningAPI
	*sitesAPI
	*airspaceAPI
	*readinessAPI
	*rulesAPI
	*practiceAPI
	*jobsAPI
	*sprayingAPI
	*missionsAPI
	*sheetsAPI
	*yearAPI
	*setupAPI
	benchAPI
	streamAPI
}

var _ api.StrictServerInterface = handlers{}
