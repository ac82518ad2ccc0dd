// Package day puts the crew's day on one page: each aircraft with its verdict,
// what stops it, and the next thing to do.
package day

import (
	"context"
	"slices"

	"mainstay/api"
	"mainstay/core/aircraft"
	"mainstay/core/gate"
	"mainstay/core/judge"
	"mainstay/internal/fleet"
	"mainstay/internal/flights"
)

// Handlers serve the day view.
type Handlers struct{ Flights *flights.Service }

// first is the order in which obstacles are best cleared: there is no sense in
// walking round an aircraft that is grounded.
var first = []judge.Rule{judge.RuleAircraftActive, judge.RuleOneAircraft, judge.RuleGrounding, judge.RuleDefects,
	judge.RuleRegistration, judge.RuleWear, judge.RuleWalkround, judge.RulePacks}

// showFindings is how many findings of an aircraft stand on the page; its own
// page has them all.
const showFindings = 3

// Next is the next thing to do about an aircraft.
func Next(k flights.Known, out gate.Output) api.NextStep {
	id := k.Aircraft.ID.String()
	switch {
	case k.Flight != nil && k.Flight.State == "air":
		return api.NextStep{Kind: "flight", Id: k.Flight.ID.String()}
	case k.Flight != nil:
		return api.NextStep{Kind: "flight-log", Id: k.Flight.ID.String()}
	case k.Release != nil:
		return api.NextStep{Kind: "take-off", Id: id}
	}
	for _, rule := range first {
		for _, f := range out.Findings {
			if f.Rule == rule && f.Verdict == judge.Stop && f.Remedy != nil {
				return api.NextStep{Kind: api.NextStepKind(f.Remedy.Kind), Id: f.Remedy.ID, Name: f.Remedy.Name}
			}
		}
	}
	return api.NextStep{Kind: "gate", Id: id}
}

func (h *Handlers) GetDay(ctx context.Context, _ api.GetDayRequestObject) (api.GetDayResponseObject, error) {
	s := h.Flights
	ks, err := s.Know(ctx, nil)
	if err != nil {
		return nil, err
	}
	c, _, err := s.People.Crew(ctx)
	if err != nil {
		return nil, err
	}
	now := s.Clock.Now()
	today := c.Day(now)
	out := api.GetDay200JSONResponse{Now: now, Date: *api.DateOf(&today), Zone: c.Zone, Types: []api.TypeEntry{},
		Aircraft: []api.DayAircraft{}}
	drawn := map[string]bool{}
	for _, k := range ks {
		if !k.Aircraft.Active {
			continue
		}
		g, states := gate.Judge(k.Input), k.Stations()
		if !drawn[k.Type.Key] {
			drawn[k.Type.Key] = true
			out.Types = append(out.Types, fleet.WireType(k.Type))
		}
		shown := g.Findings[:min(len(g.Findings), showFindings)]
		a := api.DayAircraft{Id: k.Aircraft.ID, Name: k.Aircraft.Name, TypeKey: k.Type.Key, Verdict: g.Verdict,
			Findings: shown, More: len(g.Findings) - len(shown), Next: Next(k, g),
			Stations: flights.WireStations(aircraft.Odd(states)), HoursLeft: aircraft.NextDue(k.Type, states,
				k.HoursLeft).HoursLeft, PacksReady: k.PacksReady, PacksMore: k.PacksMore}
		if k.Flight != nil {
			a.Pilot, a.InAirSince = k.Flight.Pilot, &k.Flight.TookOffAt
		} else if k.Release != nil {
			a.Pilot = k.Release.Pilot
		}
		out.Aircraft = append(out.Aircraft, a)
	}
	// In the air first, then what may fly, then what is stopped; by name within each.
	slices.SortStableFunc(out.Aircraft, func(a, b api.DayAircraft) int { return rank(a) - rank(b) })
	counts, err := s.Fleet.PackCounts(ctx)
	if err != nil {
		return nil, err
	}
	out.Start, err = start(ctx, s, ks, counts)
	out.PacksCharged, out.PacksFlown, out.PacksQuarantine = counts["charged"]+counts["fitted"],
		counts["flown"]+counts["hot"], counts["quarantine"]
	return out, err
}

// rank puts aircraft in the air first, then ready ones, then stopped ones.
func rank(a api.DayAircraft) int {
	if a.InAirSince != nil {
		return -1
	}
	return int(a.Verdict)
}
