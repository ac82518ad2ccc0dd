package missions

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"net/url"
	"slices"
	"strings"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/geo"
	"mainstay/core/judge"
	"mainstay/core/survey"
	"mainstay/internal/formats/missionfile"
	"mainstay/internal/people"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
)

// Flown is a flight of a plan that was flown, and what its pictures show.
type Flown struct {
	ID       uuid.UUID
	PlanID   uuid.UUID
	Number   int
	FlightID *uuid.UUID
	Shots    string
	Taken    string
	Running  *bool  // the camera, at landing; nil: nobody looked
	Shake    string // what pictures or ears told; empty: nothing, or not asked
	At       time.Time
	ByName   string
	BackAt   *time.Time
	BackBy   *string
}

func (Flown) TableName() string { return "mission_flown" }

// After is what is said after a flight.
type After struct {
	ID      uuid.UUID
	Number  int
	Shots   []missionfile.Shot
	Offset  time.Duration // added to the clock of the camera
	Running *bool
	Shake   string
}

// taken is what was kept of the pictures.
func (f Flown) taken() (out survey.Taken) {
	_ = json.Unmarshal([]byte(f.Taken), &out) // it was written by Fly
	return out
}

// Look holds pictures against a flight of a plan without keeping anything.
func (s *Service) Look(ctx context.Context, job, aircraft uuid.UUID, a After) (Plan, survey.Taken, error) {
	p, _, err := s.flight(ctx, job, aircraft, a.Number)
	if err != nil {
		return p, survey.Taken{}, err
	}
	if len(a.Shots) > missionfile.MostShots {
		return p, survey.Taken{}, fault.Bad("shots", "%d pictures are more than the %d that are taken in at once.",
			len(a.Shots), missionfile.MostShots)
	}
	var shots []survey.Shot
	frame := p.Ground.Chart.Frame
	for i, x := range a.Shots {
		one := survey.Shot{Name: x.Name}
		if x.At != nil {
			if err := x.At.Check(); err != nil {
				return p, survey.Taken{}, fault.Bad("shots", "Picture %d, %s, lies nowhere on the earth: %s.", i+1, x.Name, err)
			}
			q := frame.XY(*x.At)
			one.At = &q
		}
		shots = append(shots, one)
	}
	var t survey.Taken
	if p.Out.Survey != nil {
		t, err = p.Out.Survey.Look(p.Out.Survey.Flights[a.Number-1].Pieces, shots, p.given.survey.Area)
	} else {
		t, err = p.atStops(a.Number, shots)
	}
	if err != nil {
		return p, t, fields.Refused(err)
	}
	say := func(v judge.Verdict, format string, args ...any) {
		t.Findings = append(t.Findings, judge.Broken{Wish: "pictures", Verdict: v, Sentence: fmt.Sprintf(format, args...)})
		t.Verdict = max(t.Verdict, v)
	}
	switch {
	case a.Running == nil:
		say(judge.Watch, "Nobody has said whether the camera was still running at landing.")
	case !*a.Running:
		say(judge.Watch, "The camera was not running any more at landing: look at the last pictures.")
	}
	if strings.TrimSpace(a.Shake) != "" {
		say(judge.Watch, "Shake, noise or blur was seen: look at propellers and motors before the next flight.")
	}
	err = s.clockOff(ctx, p, a, &t)
	return p, t, err
}

// Fly puts on record that a flight of the plan was flown, with its pictures.
func (s *Service) Fly(ctx context.Context, job, aircraft uuid.UUID, a After) error {
	p, t, err := s.Look(ctx, job, aircraft, a)
	if err != nil {
		return err
	}
	if len(a.Shake) > 500 {
		return fault.Bad("shake", "Up to 500 letters.")
	}
	flight, _, _, err := s.logged(ctx, p)
	if err != nil {
		return err
	}
	for i, x := range a.Shots {
		if x.Time != nil {
			at := x.Time.Add(a.Offset) // by the clock of the flight, not of the camera
			a.Shots[i].Time = &at
		}
	}
	shots, err1 := json.Marshal(a.Shots)
	taken, err2 := json.Marshal(t)
	if err := errors.Join(err1, err2); err != nil {
		return err
	}
	by, now := people.From(ctx), s.Clock.Now()
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		if err := p.lock(tx); err != nil {
			return err
		}
		var there []uuid.UUID
		if err := tx.Raw("select id from mission_flown where id = ? or plan_id = ? and number = ? and back_at is null", a.ID,
			p.ID, a.Number).Scan(&there).Error; err != nil || slices.Contains(there, a.ID) {
			return err // the same press sent twice
		}
		if len(there) > 0 {
			return flownAlready(a.Number)
		}
		row := Flown{ID: a.ID, PlanID: p.ID, Number: a.Number, FlightID: flight, Shots: string(shots), Taken: string(taken),
			Running: a.Running, Shake: strings.TrimSpace(a.Shake), At: now, ByName: by.Name}
		if err := tx.Create(&row).Error; err != nil {
			return err
		}
		_, err := records.Append(ctx, tx, records.Entry{Kind: records.MissionFlown, Subject: p.Aircraft.ID, At: now,
			By: by.By(), Summary: fmt.Sprintf("%s: flight %d of %s flown, %d of %d pictures", p.Aircraft.Name, a.Number,
				p.Job.Aim, t.Count, t.Planned),
			Content: map[string]any{"plan": p.ID, "flight": a.Number, "planned": t.Planned, "pictures": t.Count,
				"gaps": len(t.Gaps), "running": a.Running, "shake": a.Shake}})
		return err
	})
}

func flownAlready(number int) error {
	return fault.Clash("flown-already", "Flight %d is on record as flown. Take that back first, or fly its gaps again.",
		number)
}

// Unfly takes back what was put on record as flown by mistake; it stays on file.
func (s *Service) Unfly(ctx context.Context, job, aircraft uuid.UUID, number int) error {
	p, err := s.kept(ctx, job, aircraft)
	if err != nil {
		return err
	}
	f := p.flown(number)
	if f == nil {
		return nil
	}
	by, now := people.From(ctx), s.Clock.Now()
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		if err := p.lock(tx); err != nil {
			return err
		}
		if err := tx.Exec("update mission_flown set back_at = ?, back_by = ? where id = ? and back_at is null", now, by.Name,
			f.ID).Error; err != nil {
			return err
		}
		_, err := records.Append(ctx, tx, records.Entry{Kind: records.MissionTakenBack, Subject: p.Aircraft.ID, At: now,
			By: by.By(), Summary: fmt.Sprintf("%s: flight %d of %s is not flown after all", p.Aircraft.Name, number, p.Job.Aim),
			Content: map[string]any{"plan": p.ID, "flight": number}})
		return err
	})
}

// FlyAgain adds flights over the gaps of one that was flown.
func (s *Service) FlyAgain(ctx context.Context, job, aircraft uuid.UUID, number int) error {
	p, _, err := s.flight(ctx, job, aircraft, number)
	if err != nil {
		return err
	}
	f := p.flown(number)
	if f == nil {
		return fault.Clash("no-plan", "Flight %d is not on record as flown yet.", number)
	}
	gaps := f.taken().Gaps
	if len(gaps) == 0 {
		return fault.Clash("no-plan", "Flight %d has no gaps: nothing is flown again.", number)
	}
	if p.Out.Survey == nil {
		return s.stopsAgain(ctx, p, number, gaps)
	}
	for _, x := range p.Out.Survey.Flights[number:] {
		if x.Again && x.Part == p.Out.Survey.Flights[number-1].Part && covers(x, gaps) {
			return nil // they are planned already
		}
	}
	one := p.Out.Survey.Flights[number-1]
	more, err := p.Out.Survey.Refly(gaps, one.Pieces, one.Part, *p.Wish.Survey, p.given.survey)
	if err != nil {
		return fields.Refused(err)
	}
	for i := range more {
		more[i].Again = true
		p.Out.Survey.Pictures += more[i].Pictures
		p.Out.Survey.Minutes += more[i].Seconds / 60
	}
	p.Out.Survey.Flights = append(p.Out.Survey.Flights, more...)
	return s.add(ctx, p)
}

// covers reports whether a flight flies all of the gaps.
func covers(f survey.Flight, gaps []survey.Gap) bool {
	for _, g := range gaps {
		if !slices.ContainsFunc(f.Pieces, func(x survey.Piece) bool {
			a, _ := geo.Nearest(g.From, x.From, x.To)
			b, _ := geo.Nearest(g.To, x.From, x.To)
			return geo.Dist(a, g.From) < 0.5 && geo.Dist(b, g.To) < 0.5
		}) {
			return false
		}
	}
	return true
}

// stopsAgain adds the places without a picture as one more flight.
func (s *Service) stopsAgain(ctx context.Context, p Plan, number int, gaps []survey.Gap) error {
	o := p.Out.Inspect
	from := len(o.Stops)
	for _, g := range gaps {
		if g.Piece >= 0 && g.Piece < from {
			o.Stops = append(o.Stops, o.Stops[g.Piece])
		}
	}
	if from == len(o.Stops) {
		return fault.Clash("no-plan", "Flight %d has no place without a picture.", number)
	}
	again, cannot, err := o.Join(from, *p.Wish.Inspect, p.given.inspect)
	if err != nil {
		return fields.Refused(err)
	}
	if cannot != "" {
		return fault.Clash("no-plan", "These places cannot be flown again as one flight: %s.", cannot)
	}
	o.Flights = append(o.Flights, again)
	return s.add(ctx, p)
}

// add keeps a plan with more flights than before.
func (s *Service) add(ctx context.Context, p Plan) error {
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		if err := p.lock(tx); err != nil {
			return err
		}
		wish, err := json.Marshal(p.Wish)
		if err != nil {
			return err
		}
		return s.put(ctx, tx, p, Stored{ID: p.ID, JobID: p.Job.ID, AircraftID: p.Aircraft.ID, Wish: string(wish),
			Basis: p.basis, Version: p.Version + 1, ByName: people.From(ctx).Name, At: s.Clock.Now()})
	})
}

// Pictures asks the link for the places of the pictures of the last flight.
func (s *Service) Pictures(ctx context.Context, job, aircraft uuid.UUID) ([]missionfile.Shot, error) {
	p, err := s.kept(ctx, job, aircraft)
	if err != nil {
		return nil, err
	}
	if _, err := s.link(p); err != nil {
		return nil, err
	}
	var out struct{ Pictures []missionfile.Shot }
	if err := s.Link.Call(ctx, "GET", "/aircraft/"+url.PathEscape(p.Aircraft.Serial)+"/pictures", nil, &out); err != nil {
		return nil, fault.Clash("link",
			"The link to %s does not answer: bring the list of pictures as a file, or the pictures themselves.", p.Aircraft.Name)
	}
	if out.Pictures == nil {
		out.Pictures = []missionfile.Shot{}
	}
	return out.Pictures, nil
}
