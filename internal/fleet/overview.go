package fleet

import (
	"context"
	"maps"
	"slices"
	"time"

	"github.com/google/uuid"

	"mainstay/internal/platform/db"
)

// nearDue is the share of a life from which the database hands a part over to
// be judged. It lies well under the share at which the core warns, so that the
// rougher arithmetic of the database never hides one.
const nearDue = 0.85

// nearSQL finds, for every aircraft, the parts that are nearly due by any limit
// of their type, and the one that is nearest, with what sums up the rest. A
// month counts as its mean length.
const nearSQL = `with lim as (
		select * from unnest(cast(@keys as text[]), cast(@kinds as text[]), cast(@hours as float8[]), cast(@flights as float8[]), cast(@landings as float8[]), cast(@cycles as float8[]), cast(@litres as float8[]), cast(@days as float8[]))
			as l(type_key, kind, hours, flights, landings, cycles, litres, days)),
	f as materialized (select p.id, p.aircraft_id, p.fitted_at, l.hours - p.seconds / cast(3600 as float8) as hours_left,
			coalesce(greatest(p.seconds / cast(3600 as float8) / l.hours, p.flights / l.flights, p.landings / l.landings, p.cycles / l.cycles, p.litres / l.litres,
				cast(extract(epoch from cast(@now as timestamptz) - p.since) as float8) / 86400 / l.days), 0) as share
		from parts p join aircraft a on a.id = p.aircraft_id left join lim l on l.type_key = a.type_key and l.kind = p.kind),
	g as (select aircraft_id, max(share) as most, count(*) as fitted, max(fitted_at) as newest, min(hours_left) as hours_left from f group by 1)
	select p.id, p.kind, p.serial, p.type_key, p.aircraft_id, p.station, p.fitted_at, p.since, p.seconds, p.flights, p.landings, p.cycles, p.litres, p.source, g.fitted, g.newest, g.hours_left
		from f join g on g.aircraft_id = f.aircraft_id join parts p on p.id = f.id where f.share >= @near or f.share = g.most or p.kind = 'propeller' and p.source = 'third-party'`

type nearPart struct {
	Part
	Fitted    int
	Newest    time.Time
	HoursLeft *float64
}

// Overview returns the condition of the whole fleet by name, with only those
// parts of each aircraft that are nearly due. Aircraft with a position that
// carries nothing, or on which something was fitted lately, come with all
// their parts. The number of queries does not depend on the fleet.
func (s *Service) Overview(ctx context.Context) ([]Condition, error) {
	out, at, err := s.withoutParts(ctx, nil)
	if err != nil {
		return nil, err
	}
	args, err := s.limitColumns(ctx)
	if err != nil {
		return nil, err
	}
	now := s.Clock.Now()
	args["now"], args["near"] = now, nearDue
	var rows []nearPart
	if err := db.Each(ctx, s.DB, nearSQL, []any{args}, func(scan func(...any) error) error {
		var r nearPart
		p := &r.Part
		if err := scan(&p.ID, &p.Kind, &p.Serial, &p.TypeKey, &p.AircraftID, &p.Station, &p.FittedAt, &p.Since, &p.Seconds,
			&p.Flights, &p.Landings, &p.Cycles, &p.Litres, &p.Source, &r.Fitted, &r.Newest, &r.HoursLeft); err != nil {
			return err
		}
		rows = append(rows, r)
		return nil
	}); err != nil {
		return nil, err
	}
	for i := range out {
		out[i].Partial = true
	}
	whole := map[uuid.UUID]bool{}
	seen := map[uuid.UUID]bool{}
	for _, r := range rows {
		c := at[*r.AircraftID]
		if c == nil {
			continue
		}
		seen[c.Aircraft.ID] = true
		c.Parts[*r.Station] = r.Part
		c.HoursLeft = r.HoursLeft
		if r.Fitted != len(c.Type.Positions()) || now.Sub(r.Newest) < 24*time.Hour {
			whole[c.Aircraft.ID] = true
		}
	}
	for i := range out {
		if id := out[i].Aircraft.ID; !seen[id] {
			whole[id] = true // nothing is fitted at all
		}
	}
	return out, s.complete(ctx, at, whole)
}

// complete reads all parts of some aircraft, and counts the packs for all.
func (s *Service) complete(ctx context.Context, at map[uuid.UUID]*Condition, whole map[uuid.UUID]bool) error {
	ids := make([]uuid.UUID, 0, len(whole))
	for id := range whole {
		ids = append(ids, id)
		at[id].Partial, at[id].HoursLeft, at[id].Parts = false, nil, map[string]Part{}
	}
	var parts []Part
	if len(ids) > 0 {
		if err := s.DB.WithContext(ctx).Raw("select * from parts where aircraft_id in ?",
			ids).Scan(&parts).Error; err != nil {
			return err
		}
	}
	for _, p := range parts {
		at[*p.AircraftID].Parts[*p.Station] = p
	}
	return s.countReady(ctx, slices.Collect(maps.Values(at)))
}

// limitColumns lays the limits of all types out as columns; a limit that is not
// set is null.
func (s *Service) limitColumns(ctx context.Context) (map[string]any, error) {
	types, err := s.typesByKey(ctx)
	if err != nil {
		return nil, err
	}
	const meanMonth = 365.2425 / 12
	var keys, kinds db.Array[string]
	var hours, flights, landings, cycles, litres, days []*float64
	set := func(v float64) *float64 {
		if v <= 0 {
			return nil
		}
		return &v
	}
	for key, t := range types {
		for kind, l := range t.Lives() {
			keys, kinds = append(keys, key), append(kinds, kind)
			d := float64(l.Days)
			if m := float64(l.Months) * meanMonth; m > 0 && (d == 0 || m < d) {
				d = m
			}
			hours, flights, landings = append(hours, set(l.Hours)), append(flights, set(float64(l.Flights))), append(landings,
				set(float64(l.Landings)))
			cycles, litres, days = append(cycles, set(float64(l.Cycles))), append(litres, set(l.Litres)), append(days, set(d))
		}
	}
	return map[string]any{"keys": keys, "kinds": kinds, "hours": db.Array[*float64](hours),
		"flights": db.Array[*float64](flights), "landings": db.Array[*float64](landings),
		"cycles": db.Array[*float64](cycles), "litres": db.Array[*float64](litres), "days": db.Array[*float64](days)}, nil
}
