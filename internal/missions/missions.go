// Package missions keeps how an aircraft of a job takes its pictures, of an area or of
// what stands: the wish and its flights, what the aircraft held when it was read back, the
// camera card, the pictures taken, and what was found on them. What follows from a wish is
// worked out by core/survey and core/inspect.
package missions

import (
	"context"
	"encoding/json"
	"slices"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/airframe"
	"mainstay/core/inspect"
	"mainstay/core/judge"
	"mainstay/core/mission"
	"mainstay/core/survey"
	"mainstay/core/weather"
	"mainstay/internal/fleet"
	"mainstay/internal/jobs"
	"mainstay/internal/planning"
	"mainstay/internal/platform/clock"
	"mainstay/internal/platform/fault"
	"mainstay/internal/platform/outside"
	"mainstay/internal/sites"
)

// Service keeps mission plans.
type Service struct {
	DB       *gorm.DB
	Clock    clock.Clock
	Fleet    *fleet.Service
	Sites    *sites.Service
	Jobs     *jobs.Service
	Planning *planning.Service
	Link     *outside.Link // to aircraft on the network; nil: none
}

// Wish is how somebody wants the pictures: exactly one of both.
type Wish struct {
	Survey  *survey.Wish  `json:"survey,omitempty"`
	Inspect *inspect.Wish `json:"inspect,omitempty"`
}

// Out is a wish worked out.
type Out struct {
	Survey  *survey.Plan  `json:"survey,omitempty"`
	Inspect *inspect.Plan `json:"inspect,omitempty"`
}

// Stored is a plan as it is kept: the wish, and its flights as they were then, so that a
// mission that is in the aircraft stays the one that is planned.
type Stored struct {
	ID         uuid.UUID
	JobID      uuid.UUID
	AircraftID uuid.UUID
	Wish       string
	Flights    string
	Basis      string
	Version    int
	ByName     string
	At         time.Time
}

func (Stored) TableName() string { return "mission_plans" }

// Plan is a plan with what it is for and what follows from it.
type Plan struct {
	planning.Task
	ID       uuid.UUID
	Version  int // 0: nobody has planned yet; the wish is a proposal
	ByName   string
	At       time.Time
	Wish     Wish
	Out      Out // as kept; of a proposal, as worked out now
	Ground   Ground
	Missions []mission.Mission // of each flight
	Reads    []Read            // newest of each flight
	Card     *Card
	Flown    []Flown
	Found    []Found
	Newest   uuid.UUID      // reading of this aircraft, of any plan
	FlownAt  *time.Time     // last take-off of this aircraft; nil: none
	Logged   int            // flights of this aircraft in the log of the job
	Broken   []judge.Broken // of the plan, and since it was kept
	UsableWh float64
	Cameras  []Camera
	Canopies []Canopy
	Now      time.Time
	Sun      []Light // over the window of the job

	basis string
	given given
}

// Kinds of plan.
const (
	Survey     = "survey"
	Inspection = "inspection"
)

// Kind is the kind of plan.
func (p Plan) Kind() string {
	if p.Wish.Inspect != nil {
		return Inspection
	}
	return Survey
}

// Get is the plan of an aircraft of a job.
func (s *Service) Get(ctx context.Context, job, aircraft uuid.UUID) (Plan, error) {
	p, err := s.about(ctx, job, aircraft)
	if err != nil {
		return p, err
	}
	if err := s.work(ctx, &p, p.Version == 0); err != nil {
		return p, err
	}
	return p, s.follow(ctx, &p)
}

// Try works a wish out without keeping it.
func (s *Service) Try(ctx context.Context, job, aircraft uuid.UUID, w Wish) (Plan, error) {
	p, err := s.about(ctx, job, aircraft)
	if err != nil {
		return p, err
	}
	if err := fits(p, w); err != nil {
		return p, err
	}
	p.Wish, p.Out = w, Out{}
	if err := s.work(ctx, &p, true); err != nil {
		return p, err
	}
	return p, s.follow(ctx, &p)
}

// fits refuses a wish of another kind of work.
func fits(p Plan, w Wish) error {
	if (w.Survey == nil) == (w.Inspect == nil) {
		return fault.Bad("wish", "A plan is either a survey or an inspection.")
	}
	if (p.Job.Work == string(weather.Inspection)) != (w.Inspect != nil) {
		return fault.Bad("wish", "This job is %s.", p.Job.Work)
	}
	return nil
}

// kept is a plan that somebody saved.
func (s *Service) kept(ctx context.Context, job, aircraft uuid.UUID) (Plan, error) {
	p, err := s.Get(ctx, job, aircraft)
	if err == nil && p.Version == 0 {
		err = fault.Clash("no-plan", "There is no plan for this aircraft yet. Save it first.")
	}
	return p, err
}

// about is a plan with what it is for, before anything is worked out.
func (s *Service) about(ctx context.Context, job, aircraft uuid.UUID) (Plan, error) {
	p := Plan{Now: s.Clock.Now()}
	var err error
	p.Task, err = s.Planning.Task(ctx, job, aircraft, func(j jobs.Job) error {
		return fault.Clash("not-pictures", "This job is %s: no pictures are planned for it.", j.Work)
	}, weather.Mapping, weather.Inspection)
	if err != nil {
		return p, err
	}
	var row Stored
	if err := s.DB.WithContext(ctx).Limit(1).Find(&row, "job_id = ? and aircraft_id = ?", job,
		aircraft).Error; err != nil {
		return p, err
	}
	if row.ID == uuid.Nil {
		if p.Job.Work == string(weather.Inspection) {
			w := inspect.Defaults()
			p.Wish.Inspect = &w
		} else {
			w := survey.Defaults(p.winged())
			p.Wish.Survey = &w
		}
		return p, nil
	}
	p.ID, p.Version, p.ByName, p.At, p.basis = row.ID, row.Version, row.ByName, row.At.UTC(), row.Basis
	if err := json.Unmarshal([]byte(row.Wish), &p.Wish); err != nil {
		return p, err
	}
	return p, json.Unmarshal([]byte(row.Flights), &p.Out)
}

// winged reports an aircraft that does not stop to turn.
func (p Plan) winged() bool {
	return p.Type.Geometry.Kind == airframe.FixedWing || p.Type.Geometry.Kind == airframe.VerticalWing
}

// follow adds what happened with a plan since it was kept.
func (s *Service) follow(ctx context.Context, p *Plan) error {
	p.missions()
	if p.ID == uuid.Nil {
		return nil
	}
	q := s.DB.WithContext(ctx)
	if err := q.Raw("select distinct on (number) * from mission_reads where plan_id = ? order by number, at desc, id desc",
		p.ID).Scan(&p.Reads).Error; err != nil {
		return err
	}
	var cards []Card
	if err := q.Raw("select * from camera_cards where plan_id = ? order by at desc, id desc limit 1",
		p.ID).Scan(&cards).Error; err != nil {
		return err
	}
	if len(cards) > 0 {
		p.Card = &cards[0]
	}
	if err := q.Order("number").Find(&p.Flown, "plan_id = ? and back_at is null", p.ID).Error; err != nil {
		return err
	}
	var newest []Read
	if err := q.Raw("select r.id from mission_reads r join mission_plans p on p.id = r.plan_id where p.aircraft_id = ? order by r.at desc, r.id desc limit 1",
		p.Aircraft.ID).Scan(&newest).Error; err != nil {
		return err
	}
	for _, r := range newest {
		p.Newest = r.ID
	}
	if err := q.Raw("select took_off_at from flights where aircraft_id = ? order by took_off_at desc limit 1",
		p.Aircraft.ID).Scan(&p.FlownAt).Error; err != nil {
		return err
	}
	if err := q.Raw("select count(*) from flights where aircraft_id = ? and job_id = ?", p.Aircraft.ID,
		p.Job.ID).Scan(&p.Logged).Error; err != nil {
		return err
	}
	return q.Order("at, id").Find(&p.Found, "plan_id = ? and back_at is null", p.ID).Error
}

// Next is the number of the first flight that is not flown; 0: all are.
func (p Plan) Next() int {
	for i := range p.Missions {
		if p.flown(i+1) == nil {
			return i + 1
		}
	}
	return 0
}

func (p Plan) flown(number int) *Flown {
	i := slices.IndexFunc(p.Flown, func(f Flown) bool { return f.Number == number })
	if i < 0 {
		return nil
	}
	return &p.Flown[i]
}

func (p Plan) read(number int) *Read {
	i := slices.IndexFunc(p.Reads, func(r Read) bool { return r.Number == number })
	if i < 0 {
		return nil
	}
	return &p.Reads[i]
}

// Takes is what a flight takes: pictures, time and energy.
func (p Plan) Takes(number int) (pictures int, seconds, wh float64) {
	if o := p.Out.Survey; o != nil {
		f := o.Flights[number-1]
		return f.Pictures, f.Seconds, f.Wh
	}
	f := p.Out.Inspect.Flights[number-1]
	return f.To - f.From, f.Seconds, f.Wh
}
