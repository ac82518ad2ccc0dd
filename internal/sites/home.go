package sites

import (
	"context"
	"errors"
	"slices"

	"github.com/google/uuid"

	"mainstay/core/airframe"
	"mainstay/core/geo"
	"mainstay/core/home"
	"mainstay/core/intent"
	"mainstay/core/judge"
	"mainstay/core/rules"
	"mainstay/core/site"
	"mainstay/core/wayhome"
	"mainstay/core/why"
	"mainstay/internal/platform/fault"
)

// Ask is what the way home is asked for.
type Ask struct {
	Aircraft *uuid.UUID
	Flight   intent.Flight
}

// WayHome judges the way out and home. What does not depend on the air is kept
// until the site file changes.
func (s *Service) WayHome(ctx context.Context, id uuid.UUID, ask Ask) (wayhome.Answer, error) {
	t, err := s.typeOf(ctx, ask.Aircraft)
	if err != nil {
		return wayhome.Answer{}, err
	}
	b, err := s.charted(ctx, id, t, ask.Flight)
	if err != nil {
		return wayhome.Answer{}, err
	}
	if b.noWay != nil {
		return wayhome.Answer{}, b.noWay
	}
	out := b.way
	out.Findings = slices.Clone(out.Findings)
	if ask.Aircraft == nil { // usual values are nobody's values
		out.Findings = append(out.Findings, judge.Finding{Rule: judge.RuleReturnHeight, Verdict: judge.Watch,
			Sentence: "No aircraft is chosen: usual rates and height of flight are taken.", Source: "maker's manual",
			Evidence: "Choice of aircraft.", Lifts: "choosing the aircraft"})
	}
	air, _, _, err := s.latest(ctx, id)
	if err != nil {
		return out, err
	}
	out.InWind(air, b.chart(), t)
	judge.Sort(out.Findings)
	return out, nil
}

// chart is the file as the core judges it.
func (f File) chart(frame geo.Frame, terrain *home.Terrain) wayhome.Chart {
	return wayhome.Chart{Features: f.Plain(), Frame: frame, Terrain: terrain, ElevationM: f.Site.ElevationM}
}

// reckon works out what follows from the site file alone.
func (f File) reckon(frame geo.Frame, t airframe.Type, law rules.Law, flight intent.Flight) (wayhome.Answer, error) {
	out, err := wayhome.Reckon(wayhome.Question{Chart: f.chart(frame, f.Terrain.in(frame)), Type: t, Law: law,
		Flight: flight})
	switch {
	case errors.Is(err, wayhome.ErrNotReady) || errors.Is(err, wayhome.ErrNoElevation):
		return out, fault.Clash("site-not-ready", "%s.", judge.Capital(err.Error()))
	case errors.Is(err, home.ErrInput) || errors.Is(err, intent.ErrFlight):
		return out, fault.Clash("site-not-ready", "The way home cannot be judged: %s.", why.Words(err))
	}
	return out, err
}

// usualType stands in while no aircraft is chosen.
var usualType = airframe.Type{Limits: airframe.Limits{FlightHeightM: 30, WindMS: 10, GustMS: 12}}

// Usual is a type with usual values, and what the crew keeps.
func (s *Service) Usual(ctx context.Context) (t airframe.Type, err error) {
	t = usualType
	t.Practice, err = s.Fleet.Practice(ctx)
	return t, err
}

// typeOf is the type of an aircraft; without one, a type with usual values.
func (s *Service) typeOf(ctx context.Context, aircraft *uuid.UUID) (airframe.Type, error) {
	if aircraft == nil {
		return s.Usual(ctx)
	}
	a, err := s.Fleet.Aircraft(ctx, *aircraft)
	if err != nil {
		return airframe.Type{}, err
	}
	return s.Fleet.Type(ctx, a.TypeKey)
}

// TakeOffs judges every take-off place of a file.
func (f File) TakeOffs(frame geo.Frame) map[string][]site.Judgement {
	out, all := map[string][]site.Judgement{}, f.Plain()
	for _, x := range all {
		if x.Kind == site.TakeOff {
			out[x.ID] = site.JudgeTakeOff(x, all, frame)
		}
	}
	return out
}
