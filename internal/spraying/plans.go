// Package spraying keeps how a field is sprayed by an aircraft of a job: the
// wish, what is sprayed of it, the fills at the truck, and the calibrations of
// what sprays. What follows from a wish is worked out by core/spray each time.
package spraying

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"fmt"
	"strings"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/energy"
	"mainstay/core/geo"
	"mainstay/core/intent"
	"mainstay/core/judge"
	"mainstay/core/spray"
	"mainstay/core/weather"
	"mainstay/internal/fleet"
	"mainstay/internal/jobs"
	"mainstay/internal/people"
	"mainstay/internal/planning"
	"mainstay/internal/platform/clock"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
	"mainstay/internal/sites"
)

// Service keeps spray plans.
type Service struct {
	DB       *gorm.DB
	Clock    clock.Clock
	Fleet    *fleet.Service
	Sites    *sites.Service
	Jobs     *jobs.Service
	Planning *planning.Service
}

// Stored is a plan as it is kept.
type Stored struct {
	ID         uuid.UUID
	JobID      uuid.UUID
	AircraftID uuid.UUID
	Wish       string
	Basis      string // where its passes lay when the first was sprayed
	Version    int
	ByName     string
	At         time.Time
}

func (Stored) TableName() string { return "spray_plans" }

// Plan is a plan with what it is for and what follows from it.
type Plan struct {
	planning.Task
	ID       uuid.UUID
	Version  int // 0: nobody has planned yet; the wish is a proposal
	ByName   string
	At       time.Time
	Wish     spray.Wish
	Out      spray.Plan
	Ground   Ground
	Done     []Done
	Fills    []Fill
	Dry      float64 // kg, without the mix
	Most     float64 // kg that it takes off with today
	UsableWh float64
	Hours    []Hour
	Along    *Way // nil: not judged, or no pass

	given     spray.Given
	store     energy.Store
	sensitive []spray.Sensitive
	start     geo.XY
	basis     string
	laid      [7]any   // by what the passes lie, as kept
	tempC     *float64 // now; nil: not known
	deltaT    *float64
}

// Get is the plan of an aircraft of a job, worked out now.
func (s *Service) Get(ctx context.Context, job, aircraft uuid.UUID) (Plan, error) {
	return s.plan(ctx, job, aircraft, nil)
}

// Try works a wish out without keeping it.
func (s *Service) Try(ctx context.Context, job, aircraft uuid.UUID, w spray.Wish) (Plan, error) {
	return s.plan(ctx, job, aircraft, &w)
}

func (s *Service) plan(ctx context.Context, job, aircraft uuid.UUID, w *spray.Wish) (Plan, error) {
	p, err := s.about(ctx, job, aircraft)
	if err != nil {
		return p, err
	}
	if w != nil {
		p.Wish = *w
	}
	if p, err = s.work(ctx, p); err != nil || w != nil {
		return p, err // the hours of the forecast are asked for once, not while somebody tries
	}
	if p.Fills, err = s.fills(ctx, p.ID); err != nil {
		return p, err
	}
	if p.Along, err = s.along(ctx, p); err != nil {
		return p, err
	}
	p.Hours, err = s.hours(ctx, p)
	return p, err
}

// kept is a plan that somebody saved, worked out now without the forecast.
func (s *Service) kept(ctx context.Context, job, aircraft uuid.UUID) (Plan, error) {
	p, err := s.about(ctx, job, aircraft)
	if err != nil {
		return p, err
	}
	if p.Version == 0 {
		return p, fault.Clash("no-plan", "There is no plan for this aircraft yet. Save it first.")
	}
	return s.work(ctx, p)
}

// lock holds a plan as it was worked out; one that somebody changed meanwhile is
// refused, for its passes and loads are others.
func (p Plan) lock(tx *gorm.DB) error {
	var version int
	if err := tx.Raw("select version from spray_plans where id = ? for no key update",
		p.ID).Scan(&version).Error; err != nil {
		return err
	}
	if version != p.Version {
		return fault.Stale("spray plan")
	}
	return nil
}

// work works a plan out.
func (s *Service) work(ctx context.Context, p Plan) (Plan, error) {
	var err error
	if p.Done, err = s.done(ctx, p.ID); err != nil {
		return p, err
	}
	g, err := s.given(ctx, &p)
	if err != nil {
		return p, err
	}
	g.Sprayed = sprayed(p.Done)
	p.given = g
	p.Dry, p.Most, p.UsableWh, p.sensitive, p.start = g.DryKg, g.MostKg, g.UsableWh, g.Sensitive, g.Start
	p.Out, err = spray.Make(p.Wish, g)
	if err == nil && len(p.Done) > 0 && p.basis != lie(p.Out.Passes) {
		// What is sprayed is counted by passes; on another map they are others.
		p.Out.Verdict = judge.Stop
		why := "The map has changed since part of this field was sprayed: the passes lie elsewhere now. Put the map back, or take back what was sprayed and put it on record by the new passes."
		if lies(p.Wish) != p.laid {
			why = "Part of this field is sprayed by the passes as they lie: field, edge, swath, direction and sections stay, or what was sprayed is taken back."
		}
		p.Out.Broken = append(p.Out.Broken, spray.Broken{Wish: "field", Verdict: judge.Stop, Sentence: why})
	}
	return p, fields.Refused(err)
}

// lie names where passes lie, to a decimetre.
func lie(passes []spray.Pass) string {
	h := sha256.New()
	for _, x := range passes {
		fmt.Fprintf(h, "%.1f %.1f %.1f %.1f %.0f\n", x.From.X, x.From.Y, x.To.X, x.To.Y, x.Area)
	}
	return hex.EncodeToString(h.Sum(nil)[:12])
}

// about is a plan with what it is for, before anything is worked out.
func (s *Service) about(ctx context.Context, job, aircraft uuid.UUID) (Plan, error) {
	var p Plan
	var err error
	p.Task, err = s.Planning.Task(ctx, job, aircraft, func(j jobs.Job) error {
		return fault.Clash("not-spraying", "This job is %s: there is nothing to spray.", j.Work)
	}, weather.Spraying)
	if err != nil {
		return p, err
	}
	if p.Type.TankL <= 0 {
		return p, fault.Clash("no-tank", "%s carries no tank.", p.Aircraft.Name)
	}
	var row Stored
	if err := s.DB.WithContext(ctx).Limit(1).Find(&row, "job_id = ? and aircraft_id = ?", job,
		aircraft).Error; err != nil {
		return p, err
	}
	if row.ID == uuid.Nil {
		p.Wish = spray.Defaults()
		p.Wish.Granules = false
		return p, nil
	}
	p.ID, p.Version, p.ByName, p.At, p.basis = row.ID, row.Version, row.ByName, row.At.UTC(), row.Basis
	err = json.Unmarshal([]byte(row.Wish), &p.Wish)
	p.laid = lies(p.Wish)
	return p, err
}

// fields are the fields of a wish by the names that the core gives them.
var fields = planning.Fields{Of: []error{spray.ErrInput}, Else: "wish",
	By: map[string]string{"rate": "rate", "speed": "speed_ms", "swath": "swath_m", "flow": "flow_l_min", "edge": "edge_m",
		"height over the crop": "height_m", "height of the crop": "crop_m", "sections": "sections", "bearing": "bearing_deg",
		"tank": "tank_l", "density of the mix": "kg_per_l", "turn": "turn_s", "dry mass": "dry_kg"}}

// Save keeps a wish. Version 0 is the first; whoever changed it meanwhile is named.
// Once a pass is sprayed, what the passes lie by stays as it is.
func (s *Service) Save(ctx context.Context, id, job, aircraft uuid.UUID, w spray.Wish, version int) error {
	before, err := s.Try(ctx, job, aircraft, w)
	if err != nil {
		return err
	}
	if st := before.Job.State; st != jobs.Planned {
		return fault.Clash("job-closed", "This job is %s. Plan it again before its spray plan is changed.",
			strings.ReplaceAll(st, "-", " "))
	}
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		by, now := people.From(ctx), s.Clock.Now()
		var row Stored
		if err := tx.Raw("select * from spray_plans where job_id = ? and aircraft_id = ? for no key update", job,
			aircraft).Scan(&row).Error; err != nil {
			return err
		}
		content, err := json.Marshal(w)
		if err != nil {
			return err
		}
		switch {
		case row.ID == uuid.Nil && version == 0:
			row = Stored{ID: id, JobID: job, AircraftID: aircraft, Wish: string(content), Version: 1, ByName: by.Name, At: now}
			err = tx.Create(&row).Error
		case row.ID == id && row.Version == 1 && version == 0 && same(row.Wish, w):
			return nil // the same press sent twice
		case row.Version != version:
			return fault.Stale("spray plan")
		default:
			if err := mayChange(tx, row, &w); err != nil {
				return err
			}
			if content, err = json.Marshal(w); err != nil {
				return err
			}
			err = tx.Exec("update spray_plans set wish = ?, version = version + 1, by_name = ?, at = ? where id = ?",
				string(content), by.Name, now, row.ID).Error
		}
		if err != nil {
			return err
		}
		if err := s.count(ctx, tx, job, aircraft, len(before.Out.Flown.Sorties)); err != nil {
			return err
		}
		if err := before.tell(tx); err != nil {
			return err
		}
		_, err = records.Append(ctx, tx, records.Entry{Kind: records.SprayPlanned, Subject: aircraft, At: now, By: by.By(),
			Summary: before.Aircraft.Name + ": spray plan of " + before.Job.Aim,
			Content: map[string]any{"plan": row.ID, "job": job, "wish": w}})
		return err
	})
}

// count makes the flights with each aircraft of the job those of its plans, the most
// where they differ, so that kit and packs are counted by them.
func (s *Service) count(ctx context.Context, tx *gorm.DB, job, aircraft uuid.UUID, flights int) error {
	var others []uuid.UUID
	if err := tx.Raw("select aircraft_id from spray_plans where job_id = ? and aircraft_id <> ?", job,
		aircraft).Scan(&others).Error; err != nil {
		return err
	}
	for _, id := range others {
		p, err := s.about(ctx, job, id)
		if err == nil {
			p, err = s.work(ctx, p)
		}
		if err != nil {
			continue // an aircraft that left the job, or a plan that cannot be flown, takes no packs
		}
		flights = max(flights, len(p.Out.Flown.Sorties))
	}
	if flights == 0 {
		return nil
	}
	return jobs.CountSorties(tx, job, flights)
}

// tell writes height and speed of the plan into the job, where people are briefed from.
func (p Plan) tell(tx *gorm.DB) error {
	way := jobs.PlannedWay{HeightM: p.Wish.HeightM + p.Wish.CropM, SpeedMS: p.Out.Settings.Speed,
		Datum: intent.AboveGround}
	return jobs.Tell(tx, p.Job.ID, p.Aircraft.ID, way)
}

func same(stored string, w spray.Wish) bool {
	var was spray.Wish
	a, _ := json.Marshal(w)
	if json.Unmarshal([]byte(stored), &was) != nil {
		return false
	}
	b, _ := json.Marshal(was)
	return string(a) == string(b)
}

// lies is what decides where the passes lie.
func lies(w spray.Wish) [7]any {
	return [7]any{w.Field, w.EdgeM, w.Swath, w.Direction, w.BearingDeg, w.Sections, w.Edges}
}

// mayChange keeps the passes where they are once something of them is sprayed. A wish
// that leaves the direction to the field or the wind takes the bearing that is kept.
func mayChange(tx *gorm.DB, row Stored, w *spray.Wish) error {
	var was spray.Wish
	if err := json.Unmarshal([]byte(row.Wish), &was); err != nil {
		return err
	}
	var n int
	if err := tx.Raw("select count(*) from spray_done where plan_id = ? and back_at is null",
		row.ID).Scan(&n).Error; err != nil {
		return err
	}
	if n > 0 && w.Direction != spray.Along {
		w.Direction, w.BearingDeg = was.Direction, was.BearingDeg
	}
	if n > 0 && lies(was) != lies(*w) {
		return fault.Clash("sprayed-already",
			"Part of this field is sprayed already, by the passes as they lie: field, edge, swath, direction and sections stay. Take back what was sprayed, or change only rate, speed and product.")
	}
	return nil
}
