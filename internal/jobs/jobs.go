// Package jobs keeps the orders of work: what is done where, when, with which
// aircraft and people; and gathers what the gate has to know about one.
package jobs

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/crew"
	"mainstay/core/intent"
	"mainstay/core/judge"
	"mainstay/core/rules"
	"mainstay/core/site"
	"mainstay/core/weather"
	"mainstay/internal/airspace"
	"mainstay/internal/evening"
	"mainstay/internal/fleet"
	"mainstay/internal/people"
	"mainstay/internal/platform/clock"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/readiness"
	"mainstay/internal/rulebook"
	"mainstay/internal/sites"
)

// Planner says what a plan asks of the next flight of an aircraft; nil is no plan.
type Planner func(ctx context.Context, job, aircraft uuid.UUID) (*PlannedFlight, error)

// Service keeps jobs.
type Service struct {
	DB        *gorm.DB
	Clock     clock.Clock
	People    *people.Service
	Fleet     *fleet.Service
	Sites     *sites.Service
	Airspace  *airspace.Service
	Readiness *readiness.Service
	Rules     *rulebook.Service
	Evening   *evening.Service
	Plans     map[string]Planner // by kind of work
}

// Any reports whether a job was ever planned.
func (s *Service) Any(ctx context.Context) (bool, error) {
	var any bool
	err := s.DB.WithContext(ctx).Raw("select exists (select 1 from jobs)").Scan(&any).Error
	return any, err
}

// PlannedFlight is the next flight of a plan.
type PlannedFlight struct {
	NeedWh    float64
	TakeOffKg float64
	WeighedKg *float64 // at the truck, filled for this flight; it wins over what anybody wrote down before
	Seconds   float64
	FarM      float64      // farthest place of it from take-off
	Way       *intent.Plan // what all flights of the plan fly along; nil: nothing
	HeightM   float64      // of the way over its datum
	Datum     intent.Datum // "": above the ground
	HighestM  float64      // of all flights of the plan, where they fly at several heights; 0: HeightM
	TakeOff   string       // id of the place where the next flight takes off and lands; "": that of the job
	// Delta T that the product's label names; it wins over the crew's practice.
	LeastDeltaT, MostDeltaT *float64
	Findings                []judge.Finding
	FirstLeg                string // what it does first after take-off, in words
}

// States of a job.
const (
	Planned   = "planned"
	Done      = "done"
	CalledOff = "called-off"
)

// Job is one order at one site on one day.
type Job struct {
	ID        uuid.UUID
	Work      string
	SiteID    uuid.UUID
	Aim       string
	Product   string
	FromAt    time.Time
	ToAt      time.Time
	Sorties   *int
	Meeting   string        // where to gather in an emergency
	Channel   string        // agreed way to speak
	TakeOffID *uuid.UUID    // nil: the main take-off place of the site
	LandingID *uuid.UUID    // nil: where it takes off
	SecondID  *uuid.UUID    // second landing place
	Label     weather.Label `gorm:"-"`
	State     string
	Version   int
	CreatedAt time.Time
	CreatedBy string
	Site      string     `gorm:"->"` // its name
	Aircraft  []Craft    `gorm:"-"`
	People    []Post     `gorm:"-"`
	Gear      []JobGear  `gorm:"-"` // beside what belongs to the aircraft; nil in a change: as it was
	Decided   []Decision `gorm:"-"`

	LabelLowMS   *float64 `gorm:"column:label_low_ms"`
	LabelHighMS  *float64 `gorm:"column:label_high_ms"`
	LabelHeightM *float64 `gorm:"column:label_height_m"`
}

// Craft is an aircraft of a job, with what is set in it for the site.
type Craft struct {
	JobID       uuid.UUID
	AircraftID  uuid.UUID
	Name        string
	TypeKey     string
	ReturnM     *float64 `gorm:"column:return_m"` // above take-off, as read in the aircraft
	HomeFollows bool
	LostLink    string   // intent.LostLink, as read in the aircraft; empty: not read
	RouteM      *float64 `gorm:"column:route_m"` // height of the route over its datum
	RouteDatum  string   // intent.Datum; empty: usual for the work
	MassKg      *float64 `gorm:"column:mass_kg"`       // of today; nil: what it usually takes off with
	UsualMassKg *float64 `gorm:"column:usual_mass_kg"` // as weighed for the aircraft
	SpeedMS     *float64 `gorm:"column:speed_ms"`
}

// Post is what a person does in a job.
type Post struct {
	JobID    uuid.UUID
	PersonID uuid.UUID
	Name     string
	Post     string
}

// Get returns a job with its aircraft and people.
func (s *Service) Get(ctx context.Context, id uuid.UUID) (Job, error) {
	js, err := s.find(ctx, "j.id = ?", id)
	if err != nil {
		return Job{}, err
	}
	if len(js) == 0 {
		return Job{}, fault.Missing("job")
	}
	return js[0], nil
}

// Which are the jobs of a list: the planned ones and those that ended within a day, soonest
// first, or those that are done or called off, newest first; with all of the words in aim, site,
// people and aircraft.
type Which struct {
	Past   bool
	Since  *time.Time // only those that end after it: what nobody closed for months does not hide today
	Words  string
	Cursor string
}

const jobsPage = 200

// Page returns a page of a list of jobs, and where the next begins; empty when there is none.
func (s *Service) Page(ctx context.Context, w Which) ([]Job, string, error) {
	where, args, order, after := "(j.state = 'planned' or j.to_at > ?)", []any{s.Clock.Now().Add(-24 * time.Hour)}, "", ">"
	if w.Past {
		where, args, order, after = "j.state <> 'planned'", nil, " desc", "<"
	}
	if w.Since != nil {
		where, args = where+" and j.to_at > ?", append(args, *w.Since)
	}
	for _, word := range strings.Fields(w.Words) {
		where += ` and (j.aim ilike ? or s.name ilike ?
			or exists (select 1 from job_people p join people q on q.id = p.person_id where p.job_id = j.id and q.name ilike ?)
			or exists (select 1 from job_aircraft c join aircraft a on a.id = c.aircraft_id where c.job_id = j.id and a.name ilike ?))`
		like := db.Like(word)
		args = append(args, like, like, like, like)
	}
	if w.Cursor != "" {
		at, id, err := db.ParseTimeCursor(w.Cursor)
		if err != nil {
			return nil, "", err
		}
		where, args = where+" and (j.from_at, j.id) "+after+" (?::timestamptz, ?::uuid)", append(args, at, id)
	}
	out, err := s.find(ctx, where+fmt.Sprintf(" order by j.from_at%s, j.id%[1]s limit %d", order, jobsPage+1), args...)
	out, next := db.Page(out, jobsPage, func(j Job) string { return db.TimeCursor(j.FromAt, j.ID) })
	return out, next, err
}

// find reads jobs with four queries, however many there are.
func (s *Service) find(ctx context.Context, where string, args ...any) ([]Job, error) {
	g := s.DB.WithContext(ctx)
	var out []Job
	if err := g.Raw("select j.*, s.name as site from jobs j join sites s on s.id = j.site_id where "+where,
		args...).Scan(&out).Error; err != nil || len(out) == 0 {
		return out, err
	}
	ids := make(db.UUIDs, len(out))
	at := map[uuid.UUID]*Job{}
	for i := range out {
		ids[i], at[out[i].ID] = out[i].ID, &out[i]
	}
	var crafts []Craft
	if err := g.Raw("select c.*, a.name, a.type_key, a.mass_kg as usual_mass_kg from job_aircraft c join aircraft a on a.id = c.aircraft_id where c.job_id = any(?::uuid[]) order by a.name",
		ids).Scan(&crafts).Error; err != nil {
		return out, err
	}
	for _, c := range crafts {
		at[c.JobID].Aircraft = append(at[c.JobID].Aircraft, c)
	}
	var posts []Post
	if err := g.Raw("select p.*, q.name from job_people p join people q on q.id = p.person_id where p.job_id = any(?::uuid[]) order by q.name",
		ids).Scan(&posts).Error; err != nil {
		return out, err
	}
	for _, p := range posts {
		at[p.JobID].People = append(at[p.JobID].People, p)
	}
	var gear []JobGear
	if err := g.Raw("select x.job_id, g.id, g.name from job_gear x join gear g on g.id = x.gear_id where x.job_id = any(?::uuid[]) order by lower(g.name)",
		ids).Scan(&gear).Error; err != nil {
		return out, err
	}
	for _, x := range gear {
		at[x.JobID].Gear = append(at[x.JobID].Gear, x)
	}
	if err := s.decided(ctx, ids, at); err != nil {
		return out, err
	}
	for i := range out {
		out[i].Label = weather.Label{LowMS: out[i].LabelLowMS, HighMS: out[i].LabelHighMS, HeightM: out[i].LabelHeightM}
		// In command first, then the others in their order.
		slices.SortStableFunc(out[i].People, func(a, b Post) int {
			return slices.Index(crew.AllPosts, crew.Post(a.Post)) - slices.Index(crew.AllPosts, crew.Post(b.Post))
		})
	}
	return out, nil
}

func (j *Job) check(now time.Time, isNew bool) error {
	j.Aim, j.Product, j.Meeting, j.Channel = strings.TrimSpace(j.Aim), strings.TrimSpace(j.Product),
		strings.TrimSpace(j.Meeting), strings.TrimSpace(j.Channel)
	var fields []fault.Field
	bad := func(field, sentence string) { fields = append(fields, fault.Field{Field: field, Sentence: sentence}) }
	if len([]rune(j.Aim)) < 3 {
		bad("aim", "Say in one line what the job is for.")
	}
	switch {
	case !j.ToAt.After(j.FromAt) || j.ToAt.Sub(j.FromAt) > 24*time.Hour:
		bad("to", "A job ends after it begins, within 24 hours.")
	case isNew && j.ToAt.Before(now):
		bad("to", "The job would be over already.")
	case j.FromAt.After(now.AddDate(2, 0, 0)):
		bad("from", "A job lies at most two years ahead.")
	}
	command := 0
	seen := map[uuid.UUID]bool{}
	for _, p := range j.People {
		if p.Post == string(crew.InCommand) {
			command++
		}
		if seen[p.PersonID] {
			bad("people", "Somebody was chosen twice.")
		}
		seen[p.PersonID] = true
	}
	if command > 1 {
		bad("people", "One person is in command of a job.")
	}
	for _, c := range j.Aircraft {
		if seen[c.AircraftID] {
			bad("aircraft", "An aircraft was chosen twice.")
		}
		seen[c.AircraftID] = true
		if c.RouteM != nil && c.RouteDatum != string(intent.AboveSea) && !(*c.RouteM >= 0.5 && *c.RouteM <= 500) {
			bad("aircraft", "A route lies 0.5 to 500 m above take-off or above the ground.")
		}
	}
	if l := j.Label; l.LowMS != nil && l.HighMS != nil && *l.HighMS <= *l.LowMS {
		bad("label", "The wind that the label lets through ends above where it begins.")
	}
	return fault.BadFields(fields)
}

// Save plans a job (version 0) or changes it, if nobody did so meanwhile. An
// aircraft or person that is in another job at the time is refused.
func (s *Service) Save(ctx context.Context, j Job) error {
	if err := j.check(s.Clock.Now(), j.Version == 0); err != nil {
		return err
	}
	if err := s.mayPost(ctx, j); err != nil {
		return err
	}
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		if err := s.head(ctx, tx, j); err != nil {
			return err
		}
		if err := s.places(tx, j); err != nil {
			return err
		}
		if err := s.gear(ctx, tx, j); err != nil { // nil: as it was
			return err
		}
		for _, table := range []string{"job_aircraft", "job_people"} {
			if err := tx.Exec("delete from "+table+" where job_id = ?", j.ID).Error; err != nil {
				return err
			}
		}
		for _, c := range j.Aircraft {
			if err := tx.Exec(`insert into job_aircraft (job_id, aircraft_id, span, open, return_m, home_follows, lost_link, route_m, route_datum, mass_kg, speed_ms) values (?, ?, tstzrange(?, ?), true, ?, ?, ?, ?, ?, ?, ?)`,
				j.ID, c.AircraftID, j.FromAt, j.ToAt, c.ReturnM, c.HomeFollows, c.LostLink, c.RouteM, c.RouteDatum, c.MassKg,
				c.SpeedMS).Error; err != nil {
				return err
			}
		}
		for _, p := range j.People {
			if err := tx.Exec("insert into job_people (job_id, person_id, post, span, open) values (?, ?, ?, tstzrange(?, ?), true)",
				j.ID, p.PersonID, p.Post, j.FromAt, j.ToAt).Error; err != nil {
				return err
			}
		}
		return nil
	})
}

// places keeps from where it takes off and where it lands; each is a take-off
// place on the map of the job's site.
func (s *Service) places(tx *gorm.DB, j Job) error {
	for field, id := range map[string]*uuid.UUID{"take_off_id": j.TakeOffID, "landing_id": j.LandingID,
		"second_id": j.SecondID} {
		if id == nil {
			continue
		}
		var n int64
		if err := tx.Raw("select count(*) from site_features where id = ? and site_id = ? and removed_at is null and content->>'kind' = ?",
			*id, j.SiteID, string(site.TakeOff)).Scan(&n).Error; err != nil {
			return err
		}
		if n == 0 {
			return fault.Bad(field, "This is no take-off place on the map of the site. Choose one.")
		}
	}
	if j.Work == rules.Practised {
		var practice bool
		if err := tx.Raw("select practice from sites where id = ?", j.SiteID).Scan(&practice).Error; err != nil {
			return err
		}
		if !practice {
			return fault.Bad("site_id",
				"Practice and check flights are flown at a base or practice site. Choose one, or mark this site as one.")
		}
	}
	return tx.Exec("update jobs set take_off_id = ?, landing_id = ?, second_id = ?, label_low_ms = ?, label_high_ms = ?, label_height_m = ? where id = ?",
		j.TakeOffID, j.LandingID, j.SecondID, j.Label.LowMS, j.Label.HighMS, j.Label.HeightM, j.ID).Error
}

// head writes the job's own row.
func (s *Service) head(ctx context.Context, tx *gorm.DB, j Job) error {
	if j.Version == 0 {
		// The same press sent twice is one job: a second insert finds the first and writes the same again.
		res := tx.Exec(`insert into jobs (id, work, site_id, aim, product, from_at, to_at, sorties, meeting, channel, created_at, created_by) select ?, ?, s.id, ?, ?, ?, ?, ?, ?, ?, ?, ? from sites s where s.id = ?
			on conflict (id) do update set aim = excluded.aim where jobs.version = 1 and jobs.created_by = excluded.created_by`,
			j.ID, j.Work, j.Aim, j.Product, j.FromAt, j.ToAt, j.Sorties, j.Meeting, j.Channel, s.Clock.Now(),
			people.From(ctx).Name, j.SiteID)
		if res.Error == nil && res.RowsAffected == 0 {
			var n int64
			if err := tx.Raw("select count(*) from jobs where id = ?", j.ID).Scan(&n).Error; err != nil {
				return err
			}
			if n > 0 {
				return fault.Stale("job")
			}
			return fault.Bad("site_id", "Choose the site.")
		}
		return res.Error
	}
	var old Job
	if err := tx.Raw("select * from jobs where id = ? for no key update", j.ID).Scan(&old).Error; err != nil {
		return err
	}
	switch {
	case old.ID == uuid.Nil:
		return fault.Missing("job")
	case old.Version != j.Version:
		return fault.Stale("job")
	case old.State != Planned:
		return fault.Clash("job-closed", "This job is %s. Plan it again before you change it.",
			strings.ReplaceAll(old.State, "-", " "))
	}
	res := tx.Exec("update jobs set work = ?, site_id = (select id from sites where id = ?), aim = ?, product = ?, from_at = ?, to_at = ?, sorties = ?, meeting = ?, channel = ?, version = version + 1 where id = ? and exists (select 1 from sites where id = ?)",
		j.Work, j.SiteID, j.Aim, j.Product, j.FromAt, j.ToAt, j.Sorties, j.Meeting, j.Channel, j.ID, j.SiteID)
	if res.Error == nil && res.RowsAffected == 0 {
		return fault.Bad("site_id", "Choose the site.")
	}
	return res.Error
}

// mayPost refuses people who left the crew, readers, and a pilot's post for who
// is no pilot.
func (s *Service) mayPost(ctx context.Context, j Job) error {
	all, err := s.People.List(ctx)
	if err != nil {
		return err
	}
	for _, p := range j.People {
		i := slices.IndexFunc(all, func(x people.Person) bool { return x.ID == p.PersonID })
		switch {
		case i < 0 || !all[i].Active:
			return fault.Bad("people", "Somebody of this job does not belong to the crew.")
		case p.Post == string(crew.InCommand) && !slices.Contains(all[i].Held(), crew.Pilot):
			return fault.Bad("people", "%s is not a pilot and cannot be in command.", all[i].Name)
		}
	}
	return nil
}

// End closes a job, calls it off, or plans it again. Only a planned job holds
// its aircraft and people.
func (s *Service) End(ctx context.Context, id uuid.UUID, state string, version int) error {
	return db.Tx(ctx, s.DB, func(_ context.Context, tx *gorm.DB) error {
		var open int64
		if err := tx.Raw("select count(*) from flights where job_id = ? and state <> 'logged'",
			id).Scan(&open).Error; err != nil {
			return err
		}
		if open > 0 && state != Planned {
			return fault.Clash("job-flying", "A flight of this job is not logged yet. Land and log it first.")
		}
		res := tx.Exec("update jobs set state = ?, version = version + 1 where id = ? and version = ?", state, id, version)
		if res.Error != nil {
			return res.Error
		}
		if res.RowsAffected == 0 {
			return fault.Stale("job")
		}
		for _, table := range []string{"job_aircraft", "job_people"} {
			if err := tx.Exec("update "+table+" set open = ? where job_id = ?", state == Planned, id).Error; err != nil {
				return err
			}
		}
		return nil
	})
}

// Of are the planned jobs of an aircraft that are not over, soonest first.
func (s *Service) Of(ctx context.Context, aircraft uuid.UUID) ([]Job, error) {
	return s.find(ctx, "j.state = 'planned' and j.to_at > ? and exists (select 1 from job_aircraft c where c.job_id = j.id and c.aircraft_id = ?) order by j.from_at, j.id limit 20",
		s.Clock.Now(), aircraft)
}
