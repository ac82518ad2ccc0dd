// Package flights takes a flight from the gate to the log: the question
// whether it may fly, the pilot's signed release, the flight itself and the
// transaction that puts its use on everything that flew.
package flights

import (
	"context"
	"slices"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/aircraft"
	"mainstay/core/airframe"
	"mainstay/core/gate"
	"mainstay/core/gear"
	"mainstay/core/geo"
	"mainstay/internal/evening"
	"mainstay/internal/fleet"
	"mainstay/internal/jobs"
	"mainstay/internal/people"
	"mainstay/internal/platform/clock"
	"mainstay/internal/platform/fault"
	"mainstay/internal/practice"
	"mainstay/internal/walkround"
	"mainstay/internal/workshop"
)

// Service holds the use cases of flights.
type Service struct {
	DB         *gorm.DB
	Clock      clock.Clock
	People     *people.Service
	Fleet      *fleet.Service
	Walkrounds *walkround.Service
	Workshop   *workshop.Service
	Jobs       *jobs.Service
	Practices  *practice.Service
}

// Known is everything known about one aircraft, with the gate's input.
type Known struct {
	fleet.Condition
	Walk    *walkround.Evidence
	Work    *workshop.Evidence
	Input   gate.Input
	Flight  *openFlight
	Release *openRelease
	Compass *practice.Newest // newest calibration; nil: none on record
	papers  jobs.Papers
}

type openFlight struct {
	ID         uuid.UUID
	AircraftID uuid.UUID
	PilotID    uuid.UUID
	Pilot      string
	Aircraft   string
	State      string
	TookOffAt  time.Time
}

type openRelease struct {
	ID         uuid.UUID
	AircraftID uuid.UUID
	PilotID    uuid.UUID
	Pilot      string
	At         time.Time
}

// Know gathers what is known about the given aircraft, or the whole fleet for
// nil, for the aircraft scope of the gate. The number of queries does not
// depend on the number of aircraft.
func (s *Service) Know(ctx context.Context, ids []uuid.UUID) ([]Known, error) {
	conds, err := s.conditions(ctx, ids)
	if err != nil {
		return nil, err
	}
	walks, err := s.Walkrounds.ForGate(ctx, ids)
	if err != nil {
		return nil, err
	}
	var flights []openFlight
	if err := s.DB.WithContext(ctx).Raw(`select f.id, f.aircraft_id, f.pilot_id, p.name as pilot, a.name as aircraft, f.state, f.took_off_at from flights f
		join people p on p.id = f.pilot_id join aircraft a on a.id = f.aircraft_id where f.state <> 'logged'`).Scan(&flights).Error; err != nil {
		return nil, err
	}
	var releases []openRelease
	if err := s.DB.WithContext(ctx).Raw(`select r.id, r.aircraft_id, r.pilot_id, p.name as pilot, r.at from releases r join people p on p.id = r.pilot_id where r.state = 'open'`).Scan(&releases).Error; err != nil {
		return nil, err
	}
	gears, err := s.gear(ctx, ids)
	if err != nil {
		return nil, err
	}
	papers, err := s.Jobs.Papers(ctx)
	if err != nil {
		return nil, err
	}
	work, err := s.Workshop.ForGate(ctx, conds, ids, papers.Crew)
	if err != nil {
		return nil, err
	}
	compasses, err := s.Practices.ForGate(ctx, ids)
	if err != nil {
		return nil, err
	}
	flightOf, releaseOf := map[uuid.UUID]*openFlight{}, map[uuid.UUID]*openRelease{}
	for i := range flights {
		flightOf[flights[i].AircraftID] = &flights[i]
	}
	for i := range releases {
		releaseOf[releases[i].AircraftID] = &releases[i]
	}
	now := s.Clock.Now()
	out := make([]Known, len(conds))
	for i, cond := range conds {
		k := Known{papers: papers, Condition: cond, Walk: walks[cond.Aircraft.ID], Work: work[cond.Aircraft.ID]}
		if k.Walk == nil {
			k.Walk = &walkround.Evidence{}
		}
		k.Flight, k.Release = flightOf[cond.Aircraft.ID], releaseOf[cond.Aircraft.ID]
		k.Input = k.input(now, papers)
		k.Input.Gear = gears[cond.Aircraft.ID]
		if c, ok := compasses[cond.Aircraft.ID]; ok {
			k.Compass = &c
			k.Input.Compass = &gate.Calibration{By: c.ByName, At: c.At, SameDay: papers.Crew.Day(c.At).Equal(papers.Day),
				Since: c.Since}
		}
		out[i] = k
	}
	return out, nil
}

// gear is what else belongs to the given aircraft, or to all for nil.
func (s *Service) gear(ctx context.Context, ids []uuid.UUID) (map[uuid.UUID][]gear.Piece, error) {
	sql, args := "select * from gear where aircraft_id is not null", []any{}
	if ids != nil {
		sql, args = sql+" and aircraft_id in ?", []any{ids}
	}
	var rows []evening.Gear
	if err := s.DB.WithContext(ctx).Raw(sql+" order by lower(name)", args...).Scan(&rows).Error; err != nil {
		return nil, err
	}
	out := map[uuid.UUID][]gear.Piece{}
	for _, r := range rows {
		out[*r.AircraftID] = append(out[*r.AircraftID], r.Piece())
	}
	return out, nil
}

// jobGear adds the gear that the job depends on.
func (s *Service) jobGear(ctx context.Context, in *gate.Input, job *uuid.UUID) error {
	if job == nil {
		return nil
	}
	var rows []evening.Gear
	if err := s.DB.WithContext(ctx).Raw("select g.* from gear g join job_gear x on x.gear_id = g.id where x.job_id = ? order by lower(g.name)",
		*job).Scan(&rows).Error; err != nil {
		return err
	}
	all := slices.Clone(in.Gear)
	for _, r := range rows {
		if p := r.Piece(); !slices.ContainsFunc(all, func(have gear.Piece) bool { return have.ID == p.ID }) {
			all = append(all, p)
		}
	}
	in.Gear = all
	return nil
}

// conditions brings every part of the aircraft asked for; of the whole fleet
// only the parts that are nearly due.
func (s *Service) conditions(ctx context.Context, ids []uuid.UUID) ([]fleet.Condition, error) {
	if ids == nil {
		return s.Fleet.Overview(ctx)
	}
	return s.Fleet.Conditions(ctx, ids)
}

func (k Known) input(now time.Time, papers jobs.Papers) gate.Input {
	a := k.Aircraft
	in := gate.Input{Scope: gate.AircraftOnly, Now: now, Type: k.Type, Rules: papers.Pack, Facts: papers.Facts(a, k.Type),
		PacksReady: k.PacksReady, Parts: k.GateParts(), PartsNear: k.Partial,
		Aircraft: gate.Aircraft{ID: a.ID.String(), Name: a.Name, Active: a.Active, LastLanding: a.LastLandingAt},
		Defects:  k.Walk.GateDefects(k.label), Walkround: k.Walk.Walkround, Turnaround: k.Walk.Turnaround,
		Draft: k.Walk.Draft}
	k.Work.Into(&in, k.Walk.Defects, papers.Day, a)
	for _, g := range k.Groundings {
		in.Groundings = append(in.Groundings, gate.Grounding{ID: g.ID.String(), Reason: g.Reason, By: g.ByName, At: g.At,
			Cause: g.Cause})
	}
	if f := k.Flight; f != nil {
		in.InAir = &gate.InAir{FlightID: f.ID.String(), Pilot: f.Pilot, Landed: f.State == stateLanded}
	}
	if r := k.Release; r != nil {
		in.Released = &gate.Release{ID: r.ID.String(), Pilot: r.Pilot, At: r.At}
	}
	return in
}

// label names a station of the aircraft's type.
func (k Known) label(station string) string {
	for _, st := range k.Type.Stations() {
		if st.ID == station {
			return st.Label
		}
	}
	return station
}

// one returns what is known about one aircraft.
func (s *Service) one(ctx context.Context, id uuid.UUID) (Known, error) {
	ks, err := s.Know(ctx, []uuid.UUID{id})
	if err != nil {
		return Known{}, err
	}
	if len(ks) == 0 {
		return Known{}, fault.Missing("aircraft")
	}
	return ks[0], nil
}

// moved says how far the site of the flight is from where the compass was
// calibrated, where both are known.
func (s *Service) moved(ctx context.Context, k Known, in *gate.Input, job *uuid.UUID) error {
	if k.Compass == nil || k.Compass.Lat == nil || k.Compass.Lon == nil || job == nil {
		return nil
	}
	var at []geo.Point
	if err := s.DB.WithContext(ctx).Raw("select s.lat, s.lon from jobs j join sites s on s.id = j.site_id where j.id = ?",
		*job).Scan(&at).Error; err != nil || len(at) == 0 {
		return err
	}
	c := *in.Compass
	km := geo.Distance(geo.Point{Lat: *k.Compass.Lat, Lon: *k.Compass.Lon}, at[0]) / 1000
	c.MovedKm, in.Compass = &km, &c
	return nil
}

// forFlight widens the input to a whole flight with pilot, packs, wind and job.
func (s *Service) forFlight(ctx context.Context, k Known, pilot uuid.UUID, q Question) (gate.Input, error) {
	in, packs := k.Input, q.Packs
	in.Scope, in.Wind = gate.WholeFlight, q.Wind
	if q.Acceptance != nil {
		in.Acceptance = q.Acceptance.String()
	}
	g, err := s.Jobs.Gate(ctx, k.papers, jobs.Flight{Job: q.Job, Aircraft: k.Aircraft, Type: k.Type, Pilot: &pilot,
		Wind: q.Wind})
	if err != nil {
		return in, err
	}
	in.Rules, in.Facts, in.Site, in.HighM, in.Mass, in.Energy, in.FirstLeg = g.Pack, g.Facts, g.Site, g.HighM, g.Mass,
		g.Energy, g.FirstLeg
	learned, err := s.Learned(ctx, k.Aircraft.ID, k.Type)
	if err != nil {
		return in, err
	}
	if learned.Own {
		in.Energy.Own = &learned
	}
	if err := s.jobGear(ctx, &in, q.Job); err != nil {
		return in, err
	}
	if err := s.moved(ctx, k, &in, q.Job); err != nil {
		return in, err
	}
	if in.Reports, err = s.Jobs.Rules.ForGate(ctx); err != nil {
		return in, err
	}
	if in.LastType, err = s.lastType(ctx, pilot); err != nil {
		return in, err
	}
	views, err := s.Fleet.FlightPacks(ctx, packs)
	if err != nil {
		return in, err
	}
	for _, id := range packs {
		for _, v := range views {
			if v.ID == id {
				in.Packs = append(in.Packs, v.GatePack(k.Aircraft.ID))
			}
		}
	}
	in.Day, err = s.facts(ctx, k, in, q, g)
	return in, err
}

// lastType is the type that a person flew last; nil: none yet.
func (s *Service) lastType(ctx context.Context, pilot uuid.UUID) (*airframe.Type, error) {
	var keys []string
	if err := s.DB.WithContext(ctx).Raw("select a.type_key from flights f join aircraft a on a.id = f.aircraft_id where f.pilot_id = ? order by f.took_off_at desc limit 1",
		pilot).Scan(&keys).Error; err != nil || len(keys) == 0 {
		return nil, err
	}
	t, err := s.Fleet.Type(ctx, keys[0])
	return &t, err
}

// Stations are the states of the stations, from what the gate judges.
func (k Known) Stations() []aircraft.State { return aircraft.Stations(k.Input) }
