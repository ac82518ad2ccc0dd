package workshop

import (
	"context"
	"slices"

	"github.com/google/uuid"

	"mainstay/api"
	"mainstay/core/aircraft"
	"mainstay/internal/fleet"
)

// dueLine is a line of the list with what it is about.
type dueLine struct {
	aircraft.Item
	of     uuid.UUID // aircraft
	part   *fleet.Part
	kind   string
	task   *TaskStanding
	wanted string // type key, for the parts it needs
}

// DueList lists every part with a limit and every repeating task: overdue ones
// first, then by the day they fall due, those without a day last. Positions
// that must carry a part and do not are overdue. It also returns when parts
// will be needed, for the stock.
func (s *Service) DueList(ctx context.Context) (api.DueList, Needs, error) {
	out, needs := api.DueList{Items: []api.DueItem{}}, Needs{}
	lines, err := s.dueLines(ctx)
	if err != nil {
		return out, nil, err
	}
	slices.SortStableFunc(lines, func(a, b dueLine) int { return aircraft.DueOrder(a.Item, b.Item) })
	for _, l := range lines {
		for _, kind := range l.Kinds {
			key := NeedOf(kind, l.wanted)
			needs[key] = append(needs[key], *l.On)
		}
		if l.On == nil && l.By != "" {
			out.NoDate++
		}
		out.Items = append(out.Items, l.wire())
	}
	return out, needs, nil
}

func (s *Service) dueLines(ctx context.Context) ([]dueLine, error) {
	conds, err := s.Fleet.Conditions(ctx, nil)
	if err != nil {
		return nil, err
	}
	c, _, err := s.People.Crew(ctx)
	if err != nil {
		return nil, err
	}
	evidence, err := s.ForGate(ctx, conds, nil, c)
	if err != nil {
		return nil, err
	}
	parts, err := s.Fleet.RecentUse(ctx, "part")
	if err != nil {
		return nil, err
	}
	crafts, err := s.Fleet.RecentUse(ctx, "aircraft")
	if err != nil {
		return nil, err
	}
	now := s.Clock.Now()
	today := c.Day(now)
	var out []dueLine
	for _, cond := range conds {
		a := cond.Aircraft
		if !a.Active {
			continue
		}
		for _, gp := range cond.GateParts() {
			l := dueLine{of: a.ID, kind: gp.Kind, wanted: a.TypeKey}
			part, fitted := cond.Parts[gp.Station]
			if fitted {
				l.part = &part
			}
			if it, ok := aircraft.PartDue(a.Name, gp, parts[part.ID], now, today); ok {
				l.Item = it
				out = append(out, l)
			}
		}
		for _, t := range evidence[a.ID].Tasks {
			if it, ok := aircraft.TaskDue(a.Name, t.Standing, t.Due, crafts[a.ID], today); ok {
				out = append(out, dueLine{Item: it, of: a.ID, task: &t, wanted: a.TypeKey})
			}
		}
	}
	return out, nil
}

func (l dueLine) wire() api.DueItem {
	it := api.DueItem{What: api.DueItemWhatPart, AircraftId: l.of, Aircraft: l.Aircraft, Station: l.Station,
		Label: l.Label, Kind: l.kind, Verdict: l.Verdict, Sentence: l.Sentence, Fraction: l.Fraction, DueOn: api.DateOf(l.On),
		By: l.By, Forecast: l.Forecast}
	if l.part != nil {
		it.Serial = l.part.Serial
	}
	if t := l.task; t != nil {
		it.What, it.TaskId, it.Deferrable = api.DueItemWhatTask, t.Task.ID, t.Task.Defer != nil && t.Deferral == nil
		if t.Order != nil {
			it.OrderId = &t.Order.ID
		}
	}
	return it
}
