package missions

import (
	"context"
	"encoding/json"
	"strings"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/intent"
	"mainstay/core/survey"
	"mainstay/internal/jobs"
	"mainstay/internal/people"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
)

// Save keeps a wish, and the flights that follow from it now. Version 0 is the first;
// whoever changed it meanwhile is named. Once a flight of it is flown, it stays.
func (s *Service) Save(ctx context.Context, id, job, aircraft uuid.UUID, w Wish, version int) error {
	p, err := s.Try(ctx, job, aircraft, w)
	if err != nil {
		return err
	}
	if st := p.Job.State; st != jobs.Planned {
		return fault.Clash("job-closed", "This job is %s. Plan it again before its mission plan is changed.",
			strings.ReplaceAll(st, "-", " "))
	}
	wish, err := json.Marshal(w)
	if err != nil {
		return err
	}
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		by, now := people.From(ctx), s.Clock.Now()
		var row Stored
		if err := tx.Raw("select * from mission_plans where job_id = ? and aircraft_id = ? for no key update", job,
			aircraft).Scan(&row).Error; err != nil {
			return err
		}
		if row.ID == id && row.Version == 1 && version == 0 {
			return nil // the same press sent twice
		}
		if row.Version != version {
			return fault.Stale("mission plan")
		}
		if err := unflown(tx, row.ID); err != nil {
			return err
		}
		if row.ID == uuid.Nil {
			row.ID = id
		}
		return s.put(ctx, tx, p, Stored{ID: row.ID, JobID: job, AircraftID: aircraft, Wish: string(wish),
			Basis: p.Ground.basis(), Version: version + 1, ByName: by.Name, At: now})
	})
}

// unflown refuses to lay out anew what is partly flown.
func unflown(tx *gorm.DB, plan uuid.UUID) error {
	var n int
	if err := tx.Raw("select count(*) from mission_flown where plan_id = ? and back_at is null",
		plan).Scan(&n).Error; err != nil {
		return err
	}
	if n > 0 {
		return fault.Clash("flown-already",
			"Part of this plan is flown: its lines stay as they are. Fly the rest of it, fly gaps again, or take back what was put on record as flown.")
	}
	return nil
}

// put writes a plan, tells the job of it, and puts it on record.
func (s *Service) put(ctx context.Context, tx *gorm.DB, p Plan, row Stored) error {
	flights, err := json.Marshal(p.Out)
	if err != nil {
		return err
	}
	row.Flights = string(flights)
	if err := tx.Save(&row).Error; err != nil {
		return err
	}
	p.missions()
	if err := p.tell(tx); err != nil {
		return err
	}
	_, err = records.Append(ctx, tx, records.Entry{Kind: records.MissionPlanned, Subject: p.Aircraft.ID, At: row.At,
		By: people.From(ctx).By(), Summary: p.Aircraft.Name + ": " + p.Kind() + " plan of " + p.Job.Aim,
		Content: map[string]any{"plan": row.ID, "job": p.Job.ID, "version": row.Version, "wish": p.Wish,
			"flights": hashes(p)}})
	return err
}

// hashes name the missions of a plan.
func hashes(p Plan) []string {
	out := []string{}
	for _, m := range p.Missions {
		out = append(out, m.Hash())
	}
	return out
}

// tell writes height, speed and number of flights of the plan into the job, where people
// are briefed and packs are counted from.
func (p Plan) tell(tx *gorm.DB) error {
	height, speed, datum, flights := p.height()
	if flights > 0 {
		if err := jobs.CountSorties(tx, p.Job.ID, flights); err != nil {
			return err
		}
	}
	if p.Out.Inspect != nil {
		return nil // it flies round what stands, not along one height: the way that is charted stays what is judged
	}
	return jobs.Tell(tx, p.Job.ID, p.Aircraft.ID, jobs.PlannedWay{HeightM: height, SpeedMS: speed, Datum: datum})
}

// height is how high and fast the plan flies, and in how many flights.
func (p Plan) height() (height, speed float64, datum intent.Datum, flights int) {
	if x := p.Out.Inspect; x != nil {
		return centi(x.TopM +
			p.standsAt() - p.Ground.Start.ElevM), p.Wish.Inspect.SpeedMS, intent.AboveTakeOff, len(x.Flights)
	}
	x := p.Out.Survey
	height = x.HeightM
	for _, y := range x.Parts {
		height = max(height, y.TakeOff.HeightM)
	}
	if p.Wish.Survey.Relief == survey.Follow {
		return x.HeightM, p.Wish.Survey.SpeedMS, intent.AboveGround, len(x.Flights)
	}
	return height, p.Wish.Survey.SpeedMS, intent.AboveTakeOff, len(x.Flights)
}
