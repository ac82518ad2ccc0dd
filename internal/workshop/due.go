package workshop

import (
	"cmp"
	"context"
	"slices"
	"time"

	"github.com/google/uuid"

	"mainstay/api"
	"mainstay/core/gate"
	"mainstay/core/judge"
	"mainstay/core/wear"
	"mainstay/internal/fleet"
)

// DueList lists every part with a limit and every repeating task: overdue ones
// first, then by the day they fall due, those without a day last. Positions
// that must carry a part and do not are overdue. It also returns when parts
// will be needed, for the stock.
func (s *Service) DueList(ctx context.Context) (api.DueList, Needs, error) {
	out, needs := api.DueList{Items: []api.DueItem{}}, Needs{}
	conds, err := s.Fleet.Conditions(ctx, nil)
	if err != nil {
		return out, nil, err
	}
	c, _, err := s.People.Crew(ctx)
	if err != nil {
		return out, nil, err
	}
	evidence, err := s.ForGate(ctx, conds, nil, c)
	if err != nil {
		return out, nil, err
	}
	parts, err := s.Fleet.RecentUse(ctx, "part")
	if err != nil {
		return out, nil, err
	}
	crafts, err := s.Fleet.RecentUse(ctx, "aircraft")
	if err != nil {
		return out, nil, err
	}
	now := s.Clock.Now()
	d := dueList{now: now, today: c.Day(now), out: &out, needs: needs, parts: parts}
	for _, cond := range conds {
		if !cond.Aircraft.Active {
			continue
		}
		for _, gp := range cond.GateParts() {
			if err := d.part(cond, gp); err != nil {
				return out, nil, err
			}
		}
		for _, t := range evidence[cond.Aircraft.ID].Tasks {
			if err := d.task(cond, t, crafts[cond.Aircraft.ID]); err != nil {
				return out, nil, err
			}
		}
	}
	slices.SortStableFunc(out.Items, func(a, b api.DueItem) int {
		return cmp.Or(cmp.Compare(rank(a), rank(b)), cmp.Compare(day(a), day(b)), cmp.Compare(b.Fraction, a.Fraction), cmp.Compare(a.Aircraft, b.Aircraft), cmp.Compare(a.Station, b.Station))
	})
	return out, needs, nil
}

type dueList struct {
	now   time.Time
	today time.Time
	out   *api.DueList
	needs Needs
	parts map[uuid.UUID]wear.Recent
}

func (d dueList) part(c fleet.Condition, gp gate.Part) error {
	it := api.DueItem{What: api.DueItemWhatPart, AircraftId: c.Aircraft.ID, Aircraft: c.Aircraft.Name, Station: gp.Station, Label: gp.Label, Kind: gp.Kind}
	part, fitted := c.Parts[gp.Station]
	switch {
	case !fitted && !gp.Required && gp.Limits == (wear.Limits{}):
		return nil
	case !fitted:
		it.Verdict, it.Sentence, it.Fraction = judge.Stop, "No part is recorded here.", 1
		if !gp.Required {
			it.Verdict = judge.Watch
		}
		d.out.Items = append(d.out.Items, it)
		return nil
	}
	it.Serial = part.Serial
	due, err := wear.Judge(gp.Counters, gp.Limits, d.now)
	if err != nil {
		it.Verdict, it.Sentence, it.Fraction = judge.Stop, "Life not known: "+err.Error()+".", 1
		d.out.Items = append(d.out.Items, it)
		return nil
	}
	if due.By == "" {
		return nil // no limit, nothing to fall due
	}
	when, err := d.add(it, due, gp.Counters, gp.Limits, d.parts[part.ID])
	if err == nil && when.Known {
		key := NeedOf(gp.Kind, c.Aircraft.TypeKey)
		d.needs[key] = append(d.needs[key], when.On)
	}
	return err
}

func (d dueList) task(c fleet.Condition, t TaskStanding, recent wear.Recent) error {
	it := api.DueItem{What: api.DueItemWhatTask, AircraftId: c.Aircraft.ID, Aircraft: c.Aircraft.Name, Station: t.Task.Station, Label: t.Task.Title, TaskId: t.Task.ID, Deferrable: t.Task.Defer != nil && t.Deferral == nil}
	if t.Order != nil {
		it.OrderId = &t.Order.ID
	}
	if t.Task.AfterFlying {
		if t.Due.Fraction > 0 {
			it.Verdict, it.Sentence, it.Fraction = t.Due.Verdict, t.Due.Sentence, t.Due.Fraction
			it.DueOn, it.By = api.DateOf(&d.today), "flying"
			d.out.Items = append(d.out.Items, it)
		}
		return nil
	}
	when, err := d.add(it, t.Due, t.Since, t.Task.Every, recent)
	if err == nil && when.Known {
		for _, n := range t.Task.Parts {
			key := NeedOf(n.Kind, c.Aircraft.TypeKey)
			for range n.Count {
				d.needs[key] = append(d.needs[key], when.On)
			}
		}
	}
	return err
}

// add puts an item on the list with the day on which it falls due.
func (d dueList) add(it api.DueItem, due wear.Due, c wear.Counters, l wear.Limits, r wear.Recent) (wear.DueDate, error) {
	it.Verdict, it.Sentence, it.Fraction = due.Verdict, due.Sentence, due.Fraction
	when, err := wear.When(c, l, r, d.today)
	if err != nil {
		return when, err
	}
	it.By, it.Forecast = when.By, when.Forecast
	if when.Known {
		it.DueOn = api.DateOf(&when.On)
	} else {
		d.out.NoDate++
	}
	d.out.Items = append(d.out.Items, it)
	return when, nil
}

// rank puts what is due now before what will be, and what has no day last.
func rank(i api.DueItem) int {
	switch {
	case i.Verdict == judge.Stop:
		return 0
	case i.DueOn != nil:
		return 1
	}
	return 2
}

func day(i api.DueItem) string {
	if i.DueOn == nil {
		return ""
	}
	return i.DueOn.String()
}
