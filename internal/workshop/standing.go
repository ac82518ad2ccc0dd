package workshop

import (
	"context"
	"fmt"
	"time"

	"github.com/google/uuid"

	"mainstay/core/firmware"
	"mainstay/core/gate"
	"mainstay/core/judge"
	"mainstay/core/practice"
	"mainstay/core/upkeep"
	"mainstay/core/wear"
	"mainstay/internal/fleet"
	"mainstay/internal/people"
	"mainstay/internal/platform/db"
	"mainstay/internal/walkround"
)

// Evidence is what the workshop tells the gate about one aircraft.
type Evidence struct {
	Programme *upkeep.Programme
	Tasks     []TaskStanding
	Orders    []Order // open or signed
	Deferrals map[uuid.UUID]Deferral
	Firmware  []firmware.Finding
}

// TaskStanding is a repeating task with how it stands.
type TaskStanding struct {
	upkeep.Standing
	Due   wear.Due
	Order *Order // that deals with it
}

type doneRow struct {
	AircraftID uuid.UUID
	TaskID     string
	DoneAt     time.Time
	Seconds    int64
	Flights    int
	Landings   int
	Litres     float64
}

// ForGate returns the evidence for each of the given conditions in a fixed
// number of queries; ids nil means the whole fleet.
func (s *Service) ForGate(ctx context.Context, conds []fleet.Condition, ids []uuid.UUID,
	crew people.Crew) (map[uuid.UUID]*Evidence, error) {
	programmes, err := s.Programmes(ctx)
	if err != nil {
		return nil, err
	}
	narrow := func(sql string) (string, []any) {
		if ids == nil {
			return sql, nil
		}
		return sql + " and aircraft_id in ?", []any{ids}
	}
	g := s.DB.WithContext(ctx)
	last := make(map[uuid.UUID]map[string]doneRow, len(conds))
	sql, args := narrow("select aircraft_id, task_id, done_at, seconds, flights, landings, litres from task_done where true")
	if err := db.Each(ctx, g, sql, args, func(scan func(...any) error) error {
		var d doneRow
		if err := scan(&d.AircraftID, &d.TaskID, &d.DoneAt, &d.Seconds, &d.Flights, &d.Landings, &d.Litres); err != nil {
			return err
		}
		if last[d.AircraftID] == nil {
			last[d.AircraftID] = make(map[string]doneRow, 8)
		}
		last[d.AircraftID][d.TaskID] = d
		return nil
	}); err != nil {
		return nil, err
	}
	var orders []Order
	sql, args = narrow("select w.*, (select min(load) from acceptance_flights a where a.order_id = w.id) as flown from work_orders w where state in ('open', 'signed')")
	if err := g.Raw(sql+" order by opened_at", args...).Scan(&orders).Error; err != nil {
		return nil, err
	}
	var deferrals []Deferral
	sql, args = narrow("select * from deferrals where ended_at is null")
	if err := g.Raw(sql, args...).Scan(&deferrals).Error; err != nil {
		return nil, err
	}
	firm, err := s.firmwareOf(ctx, ids)
	if err != nil {
		return nil, err
	}
	out := make(map[uuid.UUID]*Evidence, len(conds))
	for _, c := range conds {
		e := &Evidence{Deferrals: map[uuid.UUID]Deferral{}, Firmware: firm.against(c.Aircraft)}
		if p, ok := programmes[c.Aircraft.TypeKey]; ok {
			e.Programme = &p
		}
		out[c.Aircraft.ID] = e
	}
	for _, o := range orders {
		if e := out[o.AircraftID]; e != nil {
			e.Orders = append(e.Orders, o)
		}
	}
	tasks := map[uuid.UUID]map[string]Deferral{}
	for _, d := range deferrals {
		e := out[d.AircraftID]
		switch {
		case e == nil:
		case d.DefectID != nil:
			e.Deferrals[*d.DefectID] = d
		default:
			if tasks[d.AircraftID] == nil {
				tasks[d.AircraftID] = map[string]Deferral{}
			}
			tasks[d.AircraftID][d.TaskID] = d
		}
	}
	now := s.Clock.Now()
	day, loc := crew.Day(now), crew.Location()
	for _, c := range conds {
		if err := out[c.Aircraft.ID].stand(c.Aircraft, c.Type.Kept(), known{
			done: last[c.Aircraft.ID], deferred: tasks[c.Aircraft.ID], now: now, day: day, loc: loc,
		}); err != nil {
			return nil, fmt.Errorf("%s: %w", c.Aircraft.Name, err)
		}
	}
	return out, nil
}

// known is what tasks are judged by: when each was done last and until when it is deferred, and
// what day it is where the crew works.
type known struct {
	done     map[string]doneRow
	deferred map[string]Deferral
	now, day time.Time
	loc      *time.Location
}

// stand judges every repeating task. One that was never done counts from the
// day the aircraft came.
func (e *Evidence) stand(a fleet.Aircraft, kept practice.Settings, k known) error {
	if e.Programme == nil {
		return nil
	}
	total := wear.Counters{Seconds: a.Seconds, Flights: a.Flights, Landings: a.Landings, Litres: a.Litres}
	for _, t := range e.Programme.Tasks {
		if t.AfterFlying && !kept.InspectsAfter() {
			continue
		}
		if t.Every == (wear.Limits{}) && !t.AfterFlying {
			continue
		}
		then := wear.Counters{Since: a.CreatedAt}
		st := TaskStanding{Standing: upkeep.Standing{Task: t, LastLanding: a.LastLandingAt}}
		if d, ok := k.done[t.ID]; ok {
			then = wear.Counters{Seconds: d.Seconds, Flights: d.Flights, Landings: d.Landings, Litres: d.Litres, Since: d.DoneAt}
			st.DoneAt = d.DoneAt
		}
		st.Since = total.From(then)
		if d, ok := k.deferred[t.ID]; ok {
			c := d.core()
			st.Deferral = &c
		}
		for i := range e.Orders {
			if e.Orders[i].TaskID == t.ID {
				st.Order = &e.Orders[i]
			}
		}
		var err error
		if st.Due, err = st.Judge(k.now, k.day, k.loc, a.Seconds, a.Flights); err != nil {
			return fmt.Errorf("task %s: %w", t.ID, err)
		}
		e.Tasks = append(e.Tasks, st)
	}
	return nil
}

// inspected is when the inspection after flying was done last: with several
// tasks the earliest, nil while one was never done.
func (e *Evidence) inspected() *time.Time {
	var out *time.Time
	for _, t := range e.Tasks {
		if done := t.DoneAt; t.Task.AfterFlying && (out == nil || done.Before(*out)) {
			out = &done
		}
	}
	if out != nil && out.IsZero() {
		return nil
	}
	return out
}

// Into puts the evidence into a gate's input.
func (e *Evidence) Into(in *gate.Input, defects []walkround.Defect, day time.Time, a fleet.Aircraft) {
	in.Programme, in.Firmware = e.Programme != nil, e.Firmware
	in.Inspected = e.inspected()
	for _, t := range e.Tasks {
		if t.Due.Verdict != judge.Clear {
			in.Tasks = append(in.Tasks, gate.Task{ID: t.Task.ID, Place: t.Task.Station, Title: t.Task.Title, Due: t.Due})
		}
	}
	for _, o := range e.Orders {
		in.Orders = append(in.Orders, gate.Order{ID: o.ID.String(), Place: o.Station, Title: o.Title, By: o.OpenedBy,
			At: o.OpenedAt, Grounds: o.Grounds, Signed: o.State == Signed, Next: o.Next()})
	}
	for i := range in.Defects {
		id := defects[i].ID
		for _, o := range e.Orders {
			if o.DefectID != nil && *o.DefectID == id {
				in.Defects[i].Order = o.ID.String()
			}
		}
		if d, ok := e.Deferrals[id]; ok {
			if why := d.core().Ended(day, a.Seconds, a.Flights); why != "" {
				in.Defects[i].Ended = why
			} else {
				in.Defects[i].Deferred = d.Words()
			}
		}
	}
}
