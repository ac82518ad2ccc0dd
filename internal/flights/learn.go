package flights

import (
	"context"
	"encoding/json"
	"errors"
	"maps"
	"slices"
	"time"

	"github.com/google/uuid"

	"mainstay/api"
	"mainstay/core/airframe"
	"mainstay/core/energy"
	"mainstay/core/gate"
	"mainstay/core/mass"
	"mainstay/core/pack"
	"mainstay/core/trend"
	"mainstay/internal/platform/db"
)

// setOff keeps with what a flight took off, for what its airframe learns.
func (f *Flight) setOff(in gate.Input) {
	f.MassKg, f.RhoKgM3, f.PackFrom = in.Mass.MassKg, in.Energy.Rho, map[string]float64{}
	if out := gate.Judge(in); out.Energy != nil {
		f.Home = out.Energy.Home
	}
	for _, p := range in.Packs {
		if level, ok := gate.Level(p, in.Type.Packs); ok {
			f.PackFrom[p.ID] = level
		}
	}
}

// took works out what a flight took from its packs, and what the model says with the
// efficiency of the type. What is not known stays so.
func (s *Service) took(ctx context.Context, f *Flight, t airframe.Type, n NewLog) error {
	views, err := s.Fleet.PackViews(ctx, f.PackIDs)
	if err != nil {
		return err
	}
	cell, err := pack.CellOf(t.Packs.Chemistry)
	if err != nil {
		return err
	}
	f.PackTo = map[string]float64{}
	for _, p := range n.Packs {
		if p.Percent != nil {
			f.PackTo[p.Pack.String()] = *p.Percent
		}
	}
	used, known := 0.0, len(views) > 0
	for _, v := range views {
		from, ok := f.PackFrom[v.ID.String()]
		to, shown := f.PackTo[v.ID.String()]
		if !ok || !shown || to > from {
			known = false
			break
		}
		mah := float64(v.CapacityMAh)
		if v.Standing != nil && v.Standing.MAh != nil {
			mah = *v.Standing.MAh
		}
		used += (from - to) / 100 * mah / 1000 * float64(cell.Nominal) / 1000 * float64(v.Cells)
	}
	if known {
		f.UsedWh = &used
	}
	if f.MassKg == nil || f.Seconds <= 0 {
		return nil
	}
	rho := 1.15 // of a usual day, where nobody knew the air
	if f.RhoKgM3 != nil {
		rho = *f.RhoKgM3
	}
	m, _ := t.Model(nil)
	seconds := float64(f.Seconds)
	phases := []energy.Phase{{Kind: energy.Cruising, Seconds: seconds}}
	switch {
	case f.Litres > 0:
		phases = []energy.Phase{{Kind: energy.Spraying, Seconds: seconds, KgPerS: f.Litres / seconds}}
	default:
		up := m.Verticals(t.Transition())
		for _, p := range up {
			seconds -= p.Seconds
		}
		if seconds > 0 {
			phases = append(up, energy.Phase{Kind: energy.Cruising, Seconds: seconds})
		}
	}
	if need, err := m.Fly(*f.MassKg, rho, phases); err == nil {
		f.PredictedWh = &need.Wh
	}
	return nil
}

// lookBack is how many flights are looked at for what an airframe learned.
const lookBack = 60

type learning struct {
	ID          uuid.UUID
	TookOffAt   time.Time
	Seconds     int
	MassKg      *float64
	UsedWh      *float64
	PredictedWh *float64
}

// flown are the last flights of an aircraft as it learns from them, oldest first.
func (s *Service) flown(ctx context.Context, aircraft uuid.UUID, t airframe.Type) ([]learning, []energy.Flown, error) {
	var rows []learning
	if err := s.DB.WithContext(ctx).Raw(`select * from (select id, took_off_at, seconds, mass_kg, used_wh, predicted_wh from flights where aircraft_id = ? and state = 'logged' and source = 'live'
		order by took_off_at desc limit ?) x order by took_off_at`, aircraft, lookBack).Scan(&rows).Error; err != nil {
		return nil, nil, err
	}
	cell, err := pack.CellOf(t.Packs.Chemistry)
	if err != nil {
		return nil, nil, err
	}
	full := float64(t.Packs.Count*t.Packs.CapacityMAh*t.Packs.Cells) / 1000 * float64(cell.Nominal) / 1000
	out := make([]energy.Flown, len(rows))
	for i, r := range rows {
		out[i] = energy.Flown{Seconds: float64(r.Seconds), MassKg: r.MassKg, MeasuredWh: r.UsedWh, PredictedWh: r.PredictedWh}
		if r.UsedWh != nil {
			out[i].UsedPercent = *r.UsedWh / full * 100
		}
	}
	return rows, out, nil
}

// sisters is how the packs of an aircraft stand to those they fly with.
func (s *Service) sisters(ctx context.Context, aircraft uuid.UUID) ([]trend.PackDrift, error) {
	var rows []struct{ From, To string }
	if err := s.DB.WithContext(ctx).Raw(`select "from", "to" from (select took_off_at, pack_from::text as "from", pack_to::text as "to" from flights where aircraft_id = ? and state = 'logged' and pack_to is not null
		order by took_off_at desc limit ?) x order by took_off_at`, aircraft, lookBack).Scan(&rows).Error; err != nil {
		return nil, err
	}
	used, ids := make([]map[string]float64, len(rows)), map[string]bool{}
	for i, r := range rows {
		var from, to map[string]float64
		if err := errors.Join(json.Unmarshal([]byte(r.From), &from), json.Unmarshal([]byte(r.To), &to)); err != nil {
			return nil, err
		}
		used[i] = map[string]float64{}
		for id, end := range to {
			if begin, ok := from[id]; ok {
				used[i][id], ids[id] = begin-end, true
			}
		}
	}
	var labels []struct{ ID, Label string }
	if err := s.DB.WithContext(ctx).Raw("select id::text, label from packs where id::text = any(?)",
		db.Array[string](slices.Sorted(maps.Keys(ids)))).Scan(&labels).Error; err != nil {
		return nil, err
	}
	name := map[string]string{}
	for _, l := range labels {
		name[l.ID] = l.Label
	}
	for i, f := range used {
		named := map[string]float64{}
		for id, v := range f {
			named[name[id]] = v
		}
		used[i] = named
	}
	return trend.Packs(used), nil
}

// Learned is what the flights of an aircraft say of its efficiency.
func (s *Service) Learned(ctx context.Context, aircraft uuid.UUID, t airframe.Type) (energy.Learned, error) {
	_, flown, err := s.flown(ctx, aircraft, t)
	if err != nil {
		return energy.Learned{}, err
	}
	m, _ := t.Model(nil)
	return energy.Learn(m.Own(), flown), nil
}

// GetEnergy is what an aircraft takes: its efficiency and the flights it comes from,
// its mass and balance, and how long it flies.
func (h *Handlers) GetEnergy(ctx context.Context, r api.GetEnergyRequestObject) (api.GetEnergyResponseObject, error) {
	k, err := h.Flights.one(ctx, r.Id)
	if err != nil {
		return nil, err
	}
	rows, flown, err := h.Flights.flown(ctx, r.Id, k.Type)
	if err != nil {
		return nil, err
	}
	m, assumed := k.Type.Model(nil)
	out := api.AircraftEnergy{TypeEfficiency: m.Own(), Learned: energy.Learn(m.Own(), flown),
		Flights: []api.LearnedFlight{}, Assumed: append([]string{}, assumed...)}
	if out.Packs, err = h.Flights.sisters(ctx, r.Id); err != nil {
		return nil, err
	}
	trends, err := h.Flights.Trends(ctx, r.Id)
	if err != nil {
		return nil, err
	}
	out.Motors = trends.Output
	for i, f := range flown {
		out.Flights = append(out.Flights, api.LearnedFlight{Id: rows[i].ID, At: rows[i].TookOffAt.UTC(),
			MeasuredWh: f.MeasuredWh, PredictedWh: f.PredictedWh, MassKg: f.MassKg, Left: string(f.Judge())})
	}
	load, weighed, err := h.Flights.Fleet.Load(ctx, r.Id)
	if err != nil {
		return nil, err
	}
	out.Weighed = []api.Weighing{}
	for _, w := range weighed {
		out.Weighed = append(out.Weighed, api.Weighing{Part: api.WeighingPart(w.Part), Kg: w.Kg, Scale: w.Scale,
			On: *api.DateOf(&w.WeighedOn), By: w.ByName})
	}
	if r.Params.LiquidL != nil {
		load.LiquidKg = *r.Params.LiquidL
	}
	if r.Params.PayloadKg != nil {
		load.PayloadKg = *r.Params.PayloadKg
	}
	if r.Params.AttachedKg != nil {
		load.AttachedKg = *r.Params.AttachedKg
	}
	items, ok := k.Type.Items(load)
	if !ok {
		return api.GetEnergy200JSONResponse(out), nil
	}
	sum, err := mass.Add(items)
	if err != nil {
		return nil, err
	}
	b, err := k.Type.BalanceLimits().Judge(sum, k.Type.LiftMotors(), float64(k.Type.Limits.TakeoffMassKg))
	if err != nil {
		return nil, err
	}
	out.Balance, out.Items = &b, &items
	return api.GetEnergy200JSONResponse(out), nil
}
