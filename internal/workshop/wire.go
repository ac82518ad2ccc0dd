package workshop

import (
	"context"
	"time"

	"github.com/google/uuid"

	"mainstay/api"
	"mainstay/core/airframe"
	"mainstay/core/judge"
	"mainstay/core/upkeep"
	"mainstay/core/wear"
	"mainstay/internal/fleet"
	"mainstay/internal/walkround"
)

// detail is one work order as sent to the interface.
func (s *Service) detail(ctx context.Context, id uuid.UUID) (api.WorkOrder, error) {
	g := s.DB.WithContext(ctx)
	var o Order
	if err := g.Limit(1).Find(&o, "id = ?", id).Error; err != nil {
		return api.WorkOrder{}, err
	}
	a, err := s.Fleet.Aircraft(ctx, o.AircraftID)
	if err != nil {
		return api.WorkOrder{}, err
	}
	t, err := s.Fleet.Type(ctx, a.TypeKey)
	if err != nil {
		return api.WorkOrder{}, err
	}
	var entries []Entry
	if err := g.Find(&entries, "order_id = ?", id).Error; err != nil {
		return api.WorkOrder{}, err
	}
	out := api.WorkOrder{Id: o.ID, AircraftId: o.AircraftID, Aircraft: a.Name, Station: o.Station,
		StationLabel: stationLabel(t, o.Station), Title: o.Title, Why: o.Work.Why, Cause: o.Cause, CauseNote: o.CauseNote,
		TaskId: o.TaskID, DefectId: o.DefectID, Grounds: o.Grounds, Tools: append([]string{},
			o.Work.Tools...), Parts: append([]upkeep.Need{}, o.Work.Parts...), Steps: []api.WorkStep{}, Used: []api.WorkUse{},
		SecondPerson: o.Work.SecondPerson, Acceptance: []api.Acceptance{}, OpenedBy: o.OpenedBy, OpenedAt: o.OpenedAt,
		State: api.WorkOrderState(o.State), SignedBy: o.SignedBy, SignedAt: o.SignedAt, SecondBy: o.SecondBy,
		Note: o.Note, Missing: append([]string{}, o.missing(entries)...), Version: o.Version}
	for _, st := range o.Work.Steps {
		row := api.WorkStep{Step: st, Sentence: "Not done yet.", Verdict: judge.Watch}
		for _, e := range entries {
			if e.StepID == st.ID {
				v, err := judge.ParseVerdict(e.Verdict)
				if err != nil {
					v = judge.Stop
				}
				row.Value, row.Verdict, row.Sentence, row.By, row.At = &e.Value, v, e.Sentence, e.ByName, &e.At
			}
		}
		out.Steps = append(out.Steps, row)
	}
	var used []struct {
		ID       uuid.UUID
		Name     string
		Quantity int
		ByName   string
		At       time.Time
	}
	if err := g.Raw("select id, name, quantity, by_name, at from work_used where order_id = ? order by at",
		id).Scan(&used).Error; err != nil {
		return out, err
	}
	for _, u := range used {
		out.Used = append(out.Used, api.WorkUse{Id: u.ID, Name: u.Name, Quantity: u.Quantity, By: u.ByName, At: u.At})
	}
	flown, err := s.acceptance(ctx, o)
	for _, f := range flown {
		out.Acceptance = append(out.Acceptance, api.Acceptance{Load: api.AcceptanceLoad(f.Load), FlightId: f.FlightID,
			At: f.At})
	}
	return out, err
}

// WireDefects are defects as sent to the interface, with what was decided about
// each.
func (s *Service) WireDefects(ctx context.Context, ds []walkround.Defect) ([]api.Defect, error) {
	out := []api.Defect{}
	if len(ds) == 0 {
		return out, nil
	}
	names, err := s.Fleet.Names(ctx)
	if err != nil {
		return nil, err
	}
	ids := make([]uuid.UUID, len(ds))
	for i, d := range ds {
		ids[i] = d.ID
	}
	var orders []Order
	if err := s.DB.WithContext(ctx).Raw("select id, defect_id from work_orders where defect_id in ? and state in ('open', 'signed')",
		ids).Scan(&orders).Error; err != nil {
		return nil, err
	}
	var put []Deferral
	if err := s.DB.WithContext(ctx).Raw("select * from deferrals where defect_id in ?", ids).Scan(&put).Error; err != nil {
		return nil, err
	}
	leaves, err := s.leaves(ctx)
	if err != nil {
		return nil, err
	}
	for _, d := range ds {
		w := walkround.WireDefect(d, names[d.AircraftID])
		w.Deferrable = leaves[d.AircraftID](d.Station)
		for _, o := range orders {
			if *o.DefectID == d.ID {
				w.OrderId = &o.ID
			}
		}
		for _, p := range put {
			if *p.DefectID == d.ID {
				w.Deferrable = false
				if p.EndedAt == nil {
					w.Deferral = p.Words()
				}
			}
		}
		out = append(out, w)
	}
	return out, nil
}

// leaves says for each aircraft whether a defect at a station may be put off.
func (s *Service) leaves(ctx context.Context) (map[uuid.UUID]func(station string) bool, error) {
	programmes, err := s.Programmes(ctx)
	if err != nil {
		return nil, err
	}
	types, err := s.Fleet.Types(ctx)
	if err != nil {
		return nil, err
	}
	byKey := map[string]airframe.Type{}
	for _, t := range types {
		byKey[t.Key] = t
	}
	var crafts []fleet.Aircraft
	if err := s.DB.WithContext(ctx).Select("id, type_key").Find(&crafts).Error; err != nil {
		return nil, err
	}
	out := make(map[uuid.UUID]func(string) bool, len(crafts))
	for _, a := range crafts {
		p, t := programmes[a.TypeKey], byKey[a.TypeKey]
		out[a.ID] = func(at string) bool { return p.LeaveFor(stationKind(t, at)) != nil }
	}
	return out, nil
}

// wirePart is one part with its history.
func (s *Service) wirePart(ctx context.Context, id uuid.UUID) (api.PartDetail, error) {
	p, err := s.Fleet.Part(ctx, id)
	if err != nil {
		return api.PartDetail{}, err
	}
	stays, err := s.Fleet.Stays(ctx, id)
	if err != nil {
		return api.PartDetail{}, err
	}
	out := api.PartDetail{Id: p.ID, Kind: p.Kind, TypeKey: p.TypeKey, Serial: p.Serial, Batch: p.Batch, Source: p.Source,
		AircraftId: p.AircraftID, Hours: float64(p.Seconds) / 3600, Flights: p.Flights,
		Landings: p.Landings, Litres: p.Litres, Since: p.Since, FittedAt: p.FittedAt, DiscardedAt: p.DiscardedAt,
		DiscardedWhy: p.DiscardedWhy, Moves: []api.PartFlight{}}
	if p.PriceCents != nil {
		c := int(*p.PriceCents)
		out.PriceCents = &c
	}
	types, err := s.Fleet.Types(ctx)
	if err != nil {
		return out, err
	}
	labels := map[string]string{}
	var limits wear.Limits
	for _, t := range types {
		if t.Key == p.TypeKey {
			limits = t.Lives()[p.Kind]
			for _, at := range t.Positions() {
				labels[at.ID] = at.Label
			}
		}
	}
	d := wear.Stand(p.Counters(), limits, s.Clock.Now())
	out.Verdict, out.Due, out.Fraction = d.Verdict, d.Sentence, max(d.Fraction, 0)
	if p.Station != nil {
		out.Station, out.StationLabel = *p.Station, labels[*p.Station]
	}
	for _, m := range stays {
		label := labels[m.Station]
		if label == "" {
			label = m.Station
		}
		if m.RemovedAt == nil {
			out.Aircraft = m.Aircraft
		}
		out.Moves = append(out.Moves, api.PartFlight{Aircraft: m.Aircraft, Station: label, FittedAt: m.FittedAt,
			RemovedAt: m.RemovedAt, RemovedTo: m.RemovedTo, By: m.ByName, Hours: float64(m.Seconds) / 3600, Flights: m.Flights})
	}
	return out, nil
}
