package jobs

import (
	"context"
	"encoding/json"
	"fmt"
	"slices"
	"strings"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/crew"
	"mainstay/core/geo"
	"mainstay/core/intent"
	"mainstay/core/judge"
	"mainstay/internal/people"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
)

// Decision is what a named person put on record about how an aircraft of a job
// is flown.
type Decision struct {
	intent.Decision
	JobID      uuid.UUID
	AircraftID uuid.UUID
	Withdrawn  *Withdrawn // nil while it counts
}

// Withdrawn says who took a decision back, and why.
type Withdrawn struct {
	By, Why string
	At      time.Time
}

// flight is how an aircraft of the job will be flown.
func (j Job) flight(c Craft) intent.Flight {
	id := func(v *uuid.UUID) string {
		if v == nil {
			return ""
		}
		return v.String()
	}
	f := intent.Flight{Work: j.Work, TakeOff: id(j.TakeOffID), Landing: id(j.LandingID), Second: id(j.SecondID),
		RouteM: c.RouteM, Datum: intent.Datum(c.RouteDatum), ReturnM: c.ReturnM, HomeFollows: c.HomeFollows,
		LostLink: intent.LostLink(c.LostLink), MassKg: c.mass()}
	for _, d := range j.Decided {
		if d.AircraftID == c.AircraftID && d.Withdrawn == nil {
			f.Decided = append(f.Decided, d.Decision)
		}
	}
	return f
}

// mass is what it takes off with: of today, or else as usually weighed. A
// sprayer's liquid changes from job to job, so that only today's counts there.
func (c Craft) mass() *float64 {
	if c.MassKg != nil {
		return c.MassKg
	}
	return c.UsualMassKg
}

// decided reads the decisions of jobs in one query.
func (s *Service) decided(ctx context.Context, ids db.UUIDs, at map[uuid.UUID]*Job) error {
	var rows []struct {
		ID, JobID, AircraftID uuid.UUID
		Kind, Reason, Basis   string
		Way                   *string
		ByName                string
		At                    time.Time
		WithdrawnAt           *time.Time
		WithdrawnBy           *string
		WithdrawnWhy          *string
	}
	if err := s.DB.WithContext(ctx).Raw("select id, job_id, aircraft_id, kind, reason, basis, way, by_name, at, withdrawn_at, withdrawn_by, withdrawn_why from job_decisions where job_id = any(?::uuid[]) order by at, id",
		ids).Scan(&rows).Error; err != nil {
		return err
	}
	for _, r := range rows {
		d := Decision{JobID: r.JobID, AircraftID: r.AircraftID,
			Decision: intent.Decision{ID: r.ID.String(), Kind: intent.Kind(r.Kind), Reason: r.Reason, By: r.ByName,
				At: r.At.UTC(), Basis: r.Basis}}
		if r.WithdrawnAt != nil {
			d.Withdrawn = &Withdrawn{By: *r.WithdrawnBy, Why: *r.WithdrawnWhy, At: r.WithdrawnAt.UTC()}
		}
		if r.Way != nil {
			if err := json.Unmarshal([]byte(*r.Way), &d.Way); err != nil {
				return err
			}
		}
		at[r.JobID].Decided = append(at[r.JobID].Decided, d)
	}
	return nil
}

// NewDecision is what somebody decides.
type NewDecision struct {
	ID       uuid.UUID
	Aircraft uuid.UUID
	Kind     intent.Kind
	Reason   string
	Place    *uuid.UUID // of another take-off place
}

// Decide puts a decision on record, with name and reason, and changes how the
// aircraft is flown. Only who is in command of the job, or a chief, decides; and
// only about what the judgement of the flight offers now.
func (s *Service) Decide(ctx context.Context, job uuid.UUID, n NewDecision) error {
	by := people.From(ctx)
	n.Reason = strings.TrimSpace(n.Reason)
	if len([]rune(n.Reason)) < 3 {
		return fault.Bad("reason", "Say why: what was looked at, and what makes it safe.")
	}
	j, err := s.Get(ctx, job)
	if err != nil {
		return err
	}
	if slices.ContainsFunc(j.Decided, func(d Decision) bool { return d.ID == n.ID.String() }) {
		return nil // the same press sent twice
	}
	if err := j.decides(by); err != nil {
		return err
	}
	c, mine := j.craft(n.Aircraft)
	if !mine {
		return fault.Bad("aircraft_id", "This aircraft does not belong to the job.")
	}
	part, err := s.Judge(ctx, j, c)
	if err != nil {
		return err
	}
	i := slices.IndexFunc(part.Findings, func(f judge.Finding) bool { return slices.Contains(f.Decide, string(n.Kind)) })
	if i < 0 {
		return fault.Clash("nothing-to-decide",
			"There is nothing to decide of this kind now: %s. Look at the findings of the job again.", n.Kind.Words())
	}
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		var version int
		if err := tx.Raw("select version from jobs where id = ? for no key update", job).Scan(&version).Error; err != nil {
			return err
		}
		var twice int64
		if err := tx.Raw("select count(*) from job_decisions where id = ?", n.ID).Scan(&twice).Error; err != nil ||
			twice > 0 {
			return err // the same press sent twice at once
		}
		if version != j.Version { // judged as it was, not as it is now
			return fault.Stale("job")
		}
		return s.keep(ctx, tx, j, c, n, part, part.Findings[i])
	})
}

// decides refuses who may not decide about how the job is flown, and any decision
// about one that is closed.
func (j Job) decides(by people.Person) error {
	command := slices.ContainsFunc(j.People, func(p Post) bool {
		return p.PersonID == by.ID &&
			p.Post == string(crew.InCommand)
	})
	switch {
	case !command && !slices.Contains(by.Held(), crew.Chief):
		return fault.Denied("Only who is in command of this job, or a chief, decides how it is flown.")
	case j.State != Planned:
		return fault.Clash("job-closed", "This job is %s. Plan it again before anybody decides about it.",
			strings.ReplaceAll(j.State, "-", " "))
	}
	return nil
}

// Withdraw takes a decision back, with name and reason: it stays on file and
// counts no longer. What it set in the job, a return height or a place, stays as
// it is. Withdrawing twice changes nothing.
func (s *Service) Withdraw(ctx context.Context, job, decision uuid.UUID, why string) error {
	by, now := people.From(ctx), s.Clock.Now()
	why = strings.TrimSpace(why)
	if len([]rune(why)) < 3 {
		return fault.Bad("reason", "Say why it no longer holds.")
	}
	j, err := s.Get(ctx, job)
	if err != nil {
		return err
	}
	if err := j.decides(by); err != nil {
		return err
	}
	i := slices.IndexFunc(j.Decided, func(d Decision) bool { return d.ID == decision.String() })
	if i < 0 {
		return fault.Missing("decision")
	}
	c, _ := j.craft(j.Decided[i].AircraftID)
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		r := tx.Exec("update job_decisions set withdrawn_at = ?, withdrawn_by = ?, withdrawn_why = ? where id = ? and job_id = ? and withdrawn_at is null",
			now, by.Name, why, decision, job)
		if r.Error != nil || r.RowsAffected == 0 {
			return r.Error
		}
		d := j.Decided[i]
		_, err := records.Append(ctx, tx, records.Entry{Kind: records.Decided, Subject: j.ID, At: now, By: by.By(),
			Content: map[string]any{"withdrawn": decision, "job": j.ID, "aircraft": c.Name, "kind": d.Kind, "reason": why},
			Summary: fmt.Sprintf("%s, %s: no longer %s, because %s", j.Aim, c.Name, d.Kind.Words(), why)})
		if err != nil {
			return err
		}
		return tx.Exec("update jobs set version = version + 1 where id = ?", j.ID).Error
	})
}

// keep writes the decision, its record, and what it changes in the job.
func (s *Service) keep(ctx context.Context, tx *gorm.DB, j Job, c Craft, n NewDecision, part AircraftPart,
	about judge.Finding) error {
	var way []geo.Point
	if n.Kind == intent.WayRound {
		way = part.WayRound
	}
	by, now := people.From(ctx), s.Clock.Now()
	content := map[string]any{"decision": n.ID, "job": j.ID, "aircraft": c.Name, "kind": n.Kind, "reason": n.Reason,
		"about": about.Sentence}
	switch n.Kind {
	case intent.SetReturn:
		content["return_m"] = part.AdvisedM
		if err := tx.Exec("update job_aircraft set return_m = ? where job_id = ? and aircraft_id = ?", part.AdvisedM, j.ID,
			c.AircraftID).Error; err != nil {
			return err
		}
	case intent.OtherPlace:
		if n.Place == nil {
			return fault.Bad("place_id", "Choose the take-off place.")
		}
		content["place"] = n.Place
		j.TakeOffID = n.Place
		if err := s.places(tx, j); err != nil {
			return err
		}
	}
	var wayJSON *string
	if len(way) > 0 {
		b, err := json.Marshal(way)
		if err != nil {
			return err
		}
		text := string(b)
		wayJSON, content["way"] = &text, way
	}
	seq, err := records.Append(ctx, tx, records.Entry{Kind: records.Decided, Subject: j.ID, At: now, By: by.By(),
		Content: content,
		Summary: fmt.Sprintf("%s, %s: %s, because %s", j.Aim, c.Name, n.Kind.Words(), n.Reason)})
	if err != nil {
		return err
	}
	if err := tx.Exec("insert into job_decisions (id, job_id, aircraft_id, kind, reason, basis, way, person_id, by_name, at, record_seq) values (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)",
		n.ID, j.ID, c.AircraftID, string(n.Kind), n.Reason, about.Basis, wayJSON, by.ID, by.Name, now,
		seq).Error; err != nil {
		return err
	}
	return tx.Exec("update jobs set version = version + 1 where id = ?", j.ID).Error
}
