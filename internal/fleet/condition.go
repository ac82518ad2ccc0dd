package fleet

import (
	"context"
	"fmt"
	"time"

	"github.com/google/uuid"

	"mainstay/core/airframe"
	"mainstay/core/gate"
	"mainstay/core/judge"
	"mainstay/core/pack"
	"mainstay/core/units"
	"mainstay/internal/platform/db"
)

// Condition is what the fleet knows about one aircraft for the gate.
type Condition struct {
	Aircraft   Aircraft
	Type       airframe.Type
	Groundings []Grounding
	Parts      map[string]Part // by position
	PacksReady int
	PacksMore  bool // there may be more
	// Partial: Parts holds only those that are nearly due, and the nearest of
	// all; every other position carries a part that is far from its limits.
	Partial   bool
	HoursLeft *float64 // fewest running hours left on any part, when Partial
}

// Conditions returns the condition of the given aircraft, or of the whole
// fleet for nil, by name, with every part. However many aircraft there are, it
// asks a fixed number of queries and a few for the packs of each type.
func (s *Service) Conditions(ctx context.Context, ids []uuid.UUID) ([]Condition, error) {
	out, at, err := s.withoutParts(ctx, ids)
	if err != nil {
		return nil, err
	}
	sql, args := "select * from parts where aircraft_id is not null", []any{}
	if ids != nil {
		sql, args = sql+" and aircraft_id in ?", []any{ids}
	}
	var parts []Part
	if err := s.DB.WithContext(ctx).Raw(sql, args...).Scan(&parts).Error; err != nil {
		return nil, err
	}
	for _, p := range parts {
		if c := at[*p.AircraftID]; c != nil {
			c.Parts[*p.Station] = p
		}
	}
	all := make([]*Condition, len(out))
	for i := range out {
		all[i] = &out[i]
	}
	return out, s.countReady(ctx, all)
}

// withoutParts returns the conditions with an empty map of parts, and the same
// by id.
func (s *Service) withoutParts(ctx context.Context, ids []uuid.UUID) ([]Condition, map[uuid.UUID]*Condition, error) {
	g := s.DB.WithContext(ctx)
	var crafts []Aircraft
	q := g.Order("lower(name)")
	if ids != nil {
		q = q.Where("id in ?", ids)
	}
	if err := q.Find(&crafts).Error; err != nil {
		return nil, nil, err
	}
	types, err := s.typesByKey(ctx)
	if err != nil {
		return nil, nil, err
	}
	out := make([]Condition, len(crafts))
	at := make(map[uuid.UUID]*Condition, len(crafts))
	for i, a := range crafts {
		out[i] = Condition{Aircraft: a, Type: types[a.TypeKey], Parts: map[string]Part{}}
		at[a.ID] = &out[i]
	}
	sql, args := "select * from groundings where lifted_at is null", []any{}
	if ids != nil {
		sql, args = sql+" and aircraft_id in ?", []any{ids}
	}
	var grounds []Grounding
	if err := g.Raw(sql, args...).Scan(&grounds).Error; err != nil {
		return nil, nil, err
	}
	for _, x := range grounds {
		if c := at[x.AircraftID]; c != nil {
			c.Groundings = append(c.Groundings, x)
		}
	}
	return out, at, nil
}

// A list of what may fly needs no long count: from so many charged packs on it
// says "or more". Packs are read in pages, and a large rack is rarely read to its
// end.
const (
	enoughReady = 12
	readyPage   = 40
)

// countReady counts for each aircraft the charged packs that the gate would let
// fly in its type, up to enough.
func (s *Service) countReady(ctx context.Context, cs []*Condition) error {
	ready := map[string]int{}
	for _, c := range cs {
		n, counted := ready[c.Type.Key]
		if !counted {
			var err error
			if n, err = s.ready(ctx, c.Type); err != nil {
				return err
			}
			ready[c.Type.Key] = n
		}
		c.PacksReady, c.PacksMore = n, n >= enoughReady
	}
	return nil
}

// ready counts the charged packs that may fly in a type, up to enough.
func (s *Service) ready(ctx context.Context, t airframe.Type) (n int, err error) {
	now, after := s.Clock.Now(), ""
	// A pack whose reading has run out is stopped anyway, as is one of another kind.
	which := fmt.Sprintf(`where p.state = 'charged' and p.chemistry = ? and p.cells = ? and p.label > ?
		and exists (select 1 from pack_readings r where r.pack_id = p.id and r.withdrawn_at is null and r.at >= ?) order by p.label limit %d`, readyPage)
	for {
		views, err := s.packViews(ctx, "jsonb_build_object('concerns', o.summary->'concerns')", which,
			string(t.Packs.Chemistry), t.Packs.Cells, after, now.Add(-pack.CheckValidFor))
		if err != nil {
			return 0, err
		}
		for _, v := range views {
			if gate.Ready(t, v.GatePack(uuid.Nil), now) {
				if n++; n >= enoughReady {
					return n, nil
				}
			}
			after = v.Label
		}
		if len(views) < readyPage {
			return n, nil
		}
	}
}

// GateParts lists the positions that carry a part, with what is there.
func (c Condition) GateParts() []gate.Part {
	var out []gate.Part
	lives := c.Type.Lives()
	for _, at := range c.Type.Positions() {
		if _, near := c.Parts[at.ID]; c.Partial && !near {
			continue
		}
		gp := gate.Part{Station: at.ID, Label: at.Label, Kind: at.Kind, Limits: lives[at.Kind], Required: at.Required}
		if p, ok := c.Parts[at.ID]; ok {
			gp.ID, gp.Counters, gp.Foreign = p.ID.String(), p.Counters(), p.Source == ThirdParty
			if p.FittedAt != nil {
				gp.FittedAt = *p.FittedAt
			}
		}
		out = append(out, gp)
	}
	return out
}

// PackView is a pack with its newest reading.
type PackView struct {
	Pack
	Reading *Reading // nil: never read, or the newest was withdrawn

	Withdrawn bool // its newest reading was withdrawn, and nobody has read it since

	FittedTo string
	Standing *pack.Standing // what its history says, as last computed, without curves; nil: nothing measured yet
	LookedAt *time.Time     // newest clean look at all six faces
	FlownAt  *time.Time     // last landing with it, of FlightPacks only; nil: never flown
}

// PackViews returns the given packs, or the whole rack for nil, each with its
// newest reading, in two queries.
func (s *Service) PackViews(ctx context.Context, ids []uuid.UUID) ([]PackView, error) {
	if ids == nil {
		return s.packViews(ctx, "o.summary", "order by p.label")
	}
	if len(ids) == 0 {
		return nil, nil
	}
	return s.packViews(ctx, "o.summary", "where p.id = any(?::uuid[]) order by p.label", db.UUIDs(ids))
}

// packViews reads packs with what the history says, as much of it as is asked for.
func (s *Service) packViews(ctx context.Context, summary, which string, args ...any) ([]PackView, error) {
	g := s.DB.WithContext(ctx)
	var packs []struct {
		Pack
		FittedTo string
		Standing *pack.Standing `gorm:"serializer:json"`
		LookedAt *time.Time
	}
	if err := g.Raw(`select p.*, coalesce(a.name, '') as fitted_to, `+summary+` as standing, (select max(l.at) from pack_looks l where l.pack_id = p.id and l.clean) as looked_at
		from packs p left join aircraft a on a.id = p.aircraft_id left join pack_outlooks o on o.pack_id = p.id `+which, args...).Scan(&packs).Error; err != nil {
		return nil, err
	}
	var readings []Reading
	if err := g.Raw(`select r.* from packs p cross join lateral (select * from pack_readings x where x.pack_id = p.id order by x.at desc, x.id desc limit 1) r `+which,
		args...).Scan(&readings).Error; err != nil {
		return nil, err
	}
	newest := make(map[uuid.UUID]*Reading, len(readings))
	for i := range readings {
		newest[readings[i].PackID] = &readings[i]
	}
	out := make([]PackView, len(packs))
	for i, p := range packs {
		r := newest[p.ID]
		gone := r != nil && r.WithdrawnAt != nil
		if gone {
			r = nil // what was read before it is not good again
		}
		out[i] = PackView{Pack: p.Pack, Reading: r, Withdrawn: gone, FittedTo: p.FittedTo, Standing: p.Standing,
			LookedAt: p.LookedAt}
	}
	return out, nil
}

// FlightPacks are the packs chosen for a flight, with when each flew last.
func (s *Service) FlightPacks(ctx context.Context, ids []uuid.UUID) ([]PackView, error) {
	views, err := s.PackViews(ctx, append([]uuid.UUID{}, ids...))
	if err != nil || len(views) == 0 {
		return views, err
	}
	var flown []struct {
		ID uuid.UUID
		At time.Time
	}
	if err := s.DB.WithContext(ctx).Raw("select u.thing_id as id, max(f.landed_at) as at from flight_use u join flights f on f.id = u.flight_id where u.thing = 'pack' and u.thing_id in ? group by 1",
		ids).Scan(&flown).Error; err != nil {
		return nil, err
	}
	for i := range views {
		for _, f := range flown {
			if f.ID == views[i].ID {
				views[i].FlownAt = &f.At
			}
		}
	}
	return views, nil
}

// GatePack is the pack as the gate takes it; for is the aircraft it would fly.
func (v PackView) GatePack(forAircraft uuid.UUID) gate.Pack {
	out := gate.Pack{ID: v.ID.String(), Label: v.Label, Chemistry: pack.Chemistry(v.Chemistry), Cells: v.Cells,
		Capacity: v.CapacityMAh, State: pack.State(v.State), Cycles: v.Cycles, FullSince: v.FullSince,
		LookedAt: v.LookedAt, FlownAt: v.FlownAt, Set: v.Candidate()}
	if v.Standing != nil {
		out.Condition = v.Standing.Concerns
	}
	if v.AircraftID != nil && *v.AircraftID != forAircraft {
		out.InUseBy = v.FittedTo
	}
	if r := v.Reading; r != nil {
		gr := &gate.PackReading{At: r.At, CellMV: r.Millivolts()}
		if r.RestedMin != nil {
			gr.RestedMin = *r.RestedMin
		}
		if r.Percent != nil {
			p := units.Percent(*r.Percent)
			gr.Percent = &p
		}
		if r.TemperatureC != nil {
			t := units.Celsius(*r.TemperatureC)
			gr.Temperature = &t
		}
		out.Reading = gr
	}
	return out
}

// Candidate is the pack as it is matched into sets.
func (v PackView) Candidate() pack.Candidate {
	c := pack.Candidate{ID: v.ID.String(), Label: v.Label,
		Model: fmt.Sprintf("%s %dS %d", v.Chemistry, v.Cells, v.CapacityMAh), Cycles: v.EquivalentCycles()}
	if v.Reading != nil && len(v.Reading.CellMV) > 0 && v.Reading.RestedMin != nil &&
		*v.Reading.RestedMin >= pack.RestMinutes {
		sum := 0.0
		for _, mv := range v.Reading.CellMV {
			sum += float64(mv)
		}
		sum /= float64(len(v.Reading.CellMV))
		c.MeanMV = &sum
	}
	if v.Standing != nil {
		c.CapacityMAh, c.ResistanceMO = v.Standing.MAh, v.Standing.MilliOhm
	}
	return c
}

// Level is the charge of a pack as far as its newest reading tells.
func (v PackView) Level() (percent, plusMinus *float64, spread *int) {
	r := v.Reading
	if r == nil {
		return nil, nil, nil
	}
	zero := 0.0
	if r.Percent != nil {
		percent, plusMinus = r.Percent, &zero
	}
	if d, low, err := pack.Spread(r.Millivolts()); err == nil {
		n := int(d)
		spread = &n
		if percent == nil && r.RestedMin != nil {
			if c, err := pack.PercentFromVolts(pack.Chemistry(v.Chemistry), r.Millivolts()[low], *r.RestedMin); err == nil {
				p, pm := float64(c.Percent), float64(c.PlusMinus)
				percent, plusMinus = &p, &pm
			}
		}
	}
	return percent, plusMinus, spread
}

// Judge says in one sentence how a pack stands, apart from its charge.
func (v PackView) Judge() (judge.Verdict, string) {
	switch pack.State(v.State) {
	case pack.Quarantine:
		return judge.Stop, "In quarantine: must not be charged or flown."
	case pack.Retired:
		return judge.Stop, "Retired."
	}
	if v.Withdrawn {
		return judge.Watch, "Its newest reading was withdrawn: read it again."
	}
	if v.Reading == nil {
		return judge.Watch, "Never read."
	}
	if len(v.Reading.CellMV) == 0 {
		return judge.Watch, "Cells were not read."
	}
	j, err := pack.JudgeCells(pack.Chemistry(v.Chemistry), v.Cells, v.Reading.Millivolts())
	if err != nil {
		return judge.Stop, fmt.Sprintf("Reading not usable: %v.", err)
	}
	// The worst of cells and history speaks; at a tie the cells.
	if v.Standing != nil {
		for _, c := range v.Standing.Concerns {
			if c.Verdict > j.Verdict {
				j = c
			}
		}
	}
	return j.Verdict, j.Sentence
}

// PackCounts counts packs by state.
func (s *Service) PackCounts(ctx context.Context) (map[string]int, error) {
	var rows []struct {
		State string
		N     int
	}
	err := s.DB.WithContext(ctx).Raw("select state, count(*) as n from packs group by state").Scan(&rows).Error
	out := map[string]int{}
	for _, r := range rows {
		out[r.State] = r.N
	}
	return out, err
}
