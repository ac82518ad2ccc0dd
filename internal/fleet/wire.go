package fleet

import (
	"context"
	"fmt"
	"time"

	"github.com/google/uuid"

	"mainstay/api"
	"mainstay/core/airframe"
	"mainstay/core/judge"
	"mainstay/core/pack"
)

// WireType is a type as sent to the interface.
func WireType(t airframe.Type) api.TypeEntry {
	out := api.TypeEntry{Stations: t.Stations(), Positions: t.Positions(), Motors: t.SisterMotors(),
		LandingCall: api.TypeEntryLandingCall(t.Kept().LandingCall(t.Packs.PercentFrom == "pack"))}
	t.Practice = nil // no part of the profile
	out.Profile = t
	return out
}

// WireAircraft is an aircraft as sent to the interface.
func WireAircraft(a Aircraft) api.Aircraft {
	return api.Aircraft{Id: a.ID, TypeKey: a.TypeKey, Name: a.Name, Serial: a.Serial, Registration: a.Registration,
		RegistrationExpires: api.DateOf(a.RegistrationExpires),
		Active:              a.Active, Hours: float64(a.Seconds) / 3600, Flights: a.Flights, Landings: a.Landings,
		Litres: a.Litres, LastLandingAt: a.LastLandingAt, Version: a.Version, MassKg: a.MassKg,
		WeighedOn: api.DateOf(a.WeighedOn)}
}

// WireReading is a reading of a pack as sent to the interface.
func WireReading(v PackView, r Reading) api.PackReading {
	v.Standing = nil // what is said is about this reading
	v.Reading = &r
	verdict, sentence := v.Judge()
	out := api.PackReading{Id: r.ID, At: r.At, By: r.ByName, Source: r.Source, CellMv: []int{}, RestedMin: r.RestedMin,
		Percent: r.Percent, TemperatureC: r.TemperatureC, Verdict: verdict, Sentence: sentence,
		ResistanceMohm: append([]float64{},
			r.MilliOhm...), MahIn: r.MAhIn, MahOut: r.MAhOut, CapacityMah: r.CapacityMAh, CapacityPlusMinus: r.CapacityPM,
		LoadA: r.LoadA, LoadS: r.LoadS}
	if r.WithdrawnAt != nil {
		words := fmt.Sprintf("Withdrawn by %s on %s: %s", r.WithdrawnBy, r.WithdrawnAt.UTC().Format("2006-01-02"),
			r.WithdrawnWhy)
		out.Withdrawn = &words
	}
	for _, mv := range r.CellMV {
		out.CellMv = append(out.CellMv, int(mv))
	}
	return out
}

// WirePack is a pack as sent to the interface, with the types it fits.
func WirePack(v PackView, types map[string]airframe.Type, now time.Time) api.Pack {
	out := api.Pack{Id: v.ID, Label: v.Label, Serial: v.Serial, Chemistry: v.Chemistry, Cells: v.Cells,
		CapacityMah: v.CapacityMAh, Cycles: v.Cycles,
		State: pack.State(v.State), StateSince: v.StateSince, FittedTo: v.FittedTo, Moves: []pack.State{}, Fits: []string{},
		Version:          v.Version,
		EquivalentCycles: v.EquivalentCycles(), FullSince: v.FullSince}
	if v.Standing != nil {
		out.HealthPercent, out.EightyOn = v.Standing.Capacity.Health, v.Standing.Capacity.On
	}
	if v.FullSince != nil {
		if j := pack.JudgeFull(*v.FullSince, now, v.LookedAt); j.Verdict != judge.Clear {
			out.Full = &j
		}
	}
	for _, m := range pack.Moves(pack.State(v.State)) {
		if m != pack.Fitted && (v.State != string(pack.Fitted) || m == pack.Quarantine) {
			out.Moves = append(out.Moves, m)
		}
	}
	out.Verdict, out.Sentence = v.Judge()
	percent, pm, spread := v.Level()
	out.Percent, out.SpreadMv = percent, spread
	if pm != nil {
		out.PercentPlusMinus = *pm
	}
	if v.Reading != nil {
		r := WireReading(v, *v.Reading)
		out.Reading = &r
	}
	for _, t := range sortedTypes(types) {
		if string(t.Packs.Chemistry) == v.Chemistry && t.Packs.Cells == v.Cells && v.CapacityMAh >= t.Packs.CapacityMAh {
			out.Fits = append(out.Fits, t.Name)
		}
	}
	return out
}

// WirePacks returns packs as sent to the interface, in the order asked for.
func (s *Service) WirePacks(ctx context.Context, ids []uuid.UUID) ([]api.Pack, error) {
	if ids != nil && len(ids) == 0 {
		return []api.Pack{}, nil
	}
	views, err := s.PackViews(ctx, ids)
	if err != nil {
		return nil, err
	}
	types, err := s.typesByKey(ctx)
	if err != nil {
		return nil, err
	}
	byID := map[uuid.UUID]api.Pack{}
	all := []api.Pack{}
	for _, v := range views {
		p := WirePack(v, types, s.Clock.Now())
		byID[v.ID] = p
		all = append(all, p)
	}
	if ids == nil {
		return all, nil
	}
	out := []api.Pack{}
	for _, id := range ids {
		if p, ok := byID[id]; ok {
			out = append(out, p)
		}
	}
	return out, nil
}
