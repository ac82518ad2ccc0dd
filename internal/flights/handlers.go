package flights

import (
	"context"
	"time"

	"github.com/google/uuid"

	"mainstay/api"
	"mainstay/core/aircraft"
	"mainstay/core/gate"
	"mainstay/core/judge"
	"mainstay/core/units"
	"mainstay/core/wear"
	"mainstay/core/wind"
	"mainstay/internal/fleet"
	"mainstay/internal/outbox"
	"mainstay/internal/people"
)

// Handlers serve the gate, releases, flights and the views of the fleet that
// need the gate's judgement.
type Handlers struct{ Flights *Service }

// WireStations are station states as sent to the interface.
func WireStations(ss []aircraft.State) []api.StationState {
	out := make([]api.StationState, len(ss))
	for i, s := range ss {
		out[i] = api.StationState{Station: s.Station, Verdict: s.Verdict, Sentence: s.Sentence, Fraction: s.Fraction,
			HoursLeft: s.HoursLeft}
	}
	return out
}

func (h *Handlers) ListAircraft(ctx context.Context,
	_ api.ListAircraftRequestObject) (api.ListAircraftResponseObject, error) {
	ks, err := h.Flights.Know(ctx, nil)
	out := api.ListAircraft200JSONResponse{Aircraft: []api.FleetEntry{}}
	for _, k := range ks {
		states := k.Stations()
		due := aircraft.NextDue(k.Type, states, k.HoursLeft)
		out.Aircraft = append(out.Aircraft, api.FleetEntry{Aircraft: fleet.WireAircraft(k.Aircraft),
			Verdict: gate.Judge(k.Input).Verdict, Stations: WireStations(aircraft.Odd(states)),
			NextDue: due.Sentence, NextDueFraction: due.Fraction, HoursLeft: due.HoursLeft})
	}
	return out, err
}

func (h *Handlers) GetAircraft(ctx context.Context,
	r api.GetAircraftRequestObject) (api.GetAircraftResponseObject, error) {
	k, err := h.Flights.one(ctx, r.Id)
	if err != nil {
		return nil, err
	}
	states := k.Stations()
	out := api.GetAircraft200JSONResponse{Aircraft: fleet.WireAircraft(k.Aircraft), Type: fleet.WireType(k.Type),
		Stations: WireStations(states), Parts: []api.Part{},
		Groundings: []api.Grounding{}, Defects: []api.Defect{}, History: []api.PartMove{}, Orders: []api.OrderRef{}}
	if c := k.Compass; c != nil {
		out.Compass = &api.CompassCalibration{Id: c.ID, At: c.At.UTC(), By: c.ByName, Site: c.Site, MetalM: c.MetalM,
			Note: c.Note, Since: c.Since}
	}
	g := gate.Judge(k.Input)
	out.Verdict, out.Findings = g.Verdict, g.Findings
	lives := k.Type.Lives()
	for _, at := range k.Type.Positions() {
		p, ok := k.Parts[at.ID]
		if !ok {
			continue
		}
		w := api.Part{Id: p.ID, Kind: p.Kind, Serial: p.Serial, Source: api.PartSource(p.Source), Batch: p.Batch,
			Station: at.ID, At: at.Station, StationLabel: at.Label, Hours: float64(p.Seconds) / 3600,
			Flights: p.Flights, Landings: p.Landings, Litres: p.Litres, FittedAt: p.FittedAt}
		if p.PriceCents != nil {
			c := int(*p.PriceCents)
			w.PriceCents = &c
		}
		d := wear.Stand(p.Counters(), lives[p.Kind], k.Input.Now)
		w.Verdict, w.Due, w.Fraction = d.Verdict, d.Sentence, max(d.Fraction, 0)
		out.Parts = append(out.Parts, w)
	}
	for _, x := range k.Groundings {
		out.Groundings = append(out.Groundings, api.Grounding{Id: x.ID, Cause: x.Cause, Reason: x.Reason, By: x.ByName,
			At: x.At})
	}
	if out.Defects, err = h.Flights.Workshop.WireDefects(ctx, k.Walk.Defects); err != nil {
		return nil, err
	}
	for _, o := range k.Work.Orders {
		out.Orders = append(out.Orders, api.OrderRef{Id: o.ID, Title: o.Title, State: o.State})
	}
	moves, err := h.Flights.Fleet.History(ctx, r.Id)
	for _, m := range moves {
		out.History = append(out.History, api.PartMove{Serial: m.Serial, Kind: m.Kind, Station: m.Station,
			FittedAt: m.FittedAt, RemovedAt: m.RemovedAt, RemovedTo: m.RemovedTo, By: m.ByName})
	}
	return out, err
}

func unwireWind(w *api.WindReading) *gate.Wind {
	if w == nil {
		return nil
	}
	out := &gate.Wind{At: w.At.UTC().Truncate(time.Millisecond), SteadyMS: units.MetresPerSecond(w.SteadyMs),
		MeasuredM: units.Metres(w.MeasuredM), Ground: wind.Ground(w.Ground)}
	if w.GustMs != nil {
		g := units.MetresPerSecond(*w.GustMs)
		out.GustMS = &g
	}
	return out
}

func (h *Handlers) JudgeGate(ctx context.Context, r api.JudgeGateRequestObject) (api.JudgeGateResponseObject, error) {
	a, err := h.Flights.Ask(ctx, Question{r.Body.AircraftId, append([]uuid.UUID{}, r.Body.PackIds...),
		unwireWind(r.Body.Wind), r.Body.Acceptance, r.Body.JobId})
	if err != nil {
		return nil, err
	}
	out := api.JudgeGate200JSONResponse{Aircraft: fleet.WireAircraft(a.Known.Aircraft), Type: fleet.WireType(a.Known.Type),
		Output: a.Output, Hash: a.Hash, Pilot: people.From(ctx).Name,
		SuggestedPacks: append([]uuid.UUID{}, a.Suggested...), Jobs: []api.JobRef{}}
	js, err := h.Flights.Jobs.Of(ctx, r.Body.AircraftId)
	if err != nil {
		return nil, err
	}
	for _, j := range js {
		out.Jobs = append(out.Jobs, api.JobRef{Id: j.ID, Aim: j.Aim, Site: j.Site, From: j.FromAt.UTC(), To: j.ToAt.UTC()})
	}
	if o := a.Known.Release; o != nil {
		rel, err := h.wireRelease(ctx, o.ID)
		if err != nil {
			return nil, err
		}
		out.Release = &rel
	}
	return out, nil
}

func (h *Handlers) wireRelease(ctx context.Context, id uuid.UUID) (api.Release, error) {
	var r struct {
		Release
		Aircraft string
		Pilot    string
	}
	err := h.Flights.DB.WithContext(ctx).Raw(`select r.*, a.name as aircraft, p.name as pilot from releases r join aircraft a on a.id = r.aircraft_id join people p on p.id = r.pilot_id where r.id = ?`,
		id).Scan(&r).Error
	return api.Release{Id: r.ID, AircraftId: r.AircraftID, Aircraft: r.Aircraft, PilotId: r.PilotID, Pilot: r.Pilot,
		Purpose: r.Purpose, Verdict: r.Gate.Verdict, PackIds: append([]uuid.UUID{}, r.PackIDs...), At: r.At, Until: r.Until(),
		State: r.State, JobId: r.JobID}, err
}

func (h *Handlers) CreateRelease(ctx context.Context,
	r api.CreateReleaseRequestObject) (api.CreateReleaseResponseObject, error) {
	b := r.Body
	rel, err := h.Flights.Release(ctx, NewRelease{ID: b.Id,
		Question: Question{b.AircraftId, append([]uuid.UUID{}, b.PackIds...), unwireWind(&b.Wind), b.Acceptance, b.JobId},
		Purpose:  b.Purpose, GateHash: b.GateHash, PIN: b.Pin})
	if err != nil {
		return nil, err
	}
	w, err := h.wireRelease(ctx, rel.ID)
	return api.CreateRelease201JSONResponse(w), err
}

func (h *Handlers) WithdrawRelease(ctx context.Context,
	r api.WithdrawReleaseRequestObject) (api.WithdrawReleaseResponseObject, error) {
	if _, err := h.Flights.Withdraw(ctx, r.Id); err != nil {
		return nil, err
	}
	w, err := h.wireRelease(ctx, r.Id)
	return api.WithdrawRelease200JSONResponse(w), err
}

func (h *Handlers) wire(ctx context.Context, id uuid.UUID) (api.Flight, error) {
	s := h.Flights
	f, err := s.Flight(ctx, id)
	if err != nil {
		return api.Flight{}, err
	}
	a, err := s.Fleet.Aircraft(ctx, f.AircraftID)
	if err != nil {
		return api.Flight{}, err
	}
	t, err := s.Fleet.Type(ctx, a.TypeKey)
	if err != nil {
		return api.Flight{}, err
	}
	p, err := s.People.Get(ctx, f.PilotID)
	if err != nil {
		return api.Flight{}, err
	}
	packs, err := s.Fleet.WirePacks(ctx, append([]uuid.UUID{}, f.PackIDs...))
	if err != nil {
		return api.Flight{}, err
	}
	events, err := s.EventsOf(ctx, id)
	if err != nil {
		return api.Flight{}, err
	}
	out := api.Flight{Id: f.ID, AircraftId: a.ID, Aircraft: a.Name, Type: fleet.WireType(t), PilotId: p.ID, Pilot: p.Name,
		Packs: packs, Purpose: f.Purpose, TookOffAt: f.TookOffAt, LandedAt: f.LandedAt,
		LoggedAt: f.LoggedAt, State: api.FlightState(f.State), Seconds: f.Seconds, Landings: f.Landings, Remarks: f.Remarks,
		Hover: f.Hover, Warmth: f.Warmth, Events: []api.FlightEvent{}, Now: s.Clock.Now(), Litres: f.Litres,
		TookOffHeardAt: f.TookOffHeardAt, LandedHeardAt: f.LandedHeardAt, Corrections: []api.Correction{}, JobId: f.JobID,
		Alerts: []judge.Finding{}, MassKg: f.MassKg}
	if len(f.Home) > 0 {
		out.Home = &f.Home
	}
	if f.Unasked != "" {
		out.Unasked = &f.Unasked
	}
	if f.JobID != nil {
		j, err := s.Jobs.Get(ctx, *f.JobID)
		if err != nil {
			return out, err
		}
		aim := j.Aim
		out.Job = &aim
		if f.State == stateAir {
			alerts, err := s.Jobs.InFlight(ctx, *f.JobID, a, t)
			if err != nil {
				return out, err
			}
			out.Alerts = append(out.Alerts, alerts...)
		}
	}
	corrections, err := s.Corrections(ctx, id)
	if err != nil {
		return out, err
	}
	for _, c := range corrections {
		out.Seconds, out.Landings, out.Litres = c.Seconds, c.Landings, c.Litres
		out.Corrections = append(out.Corrections, api.Correction{Seconds: c.Seconds, Landings: c.Landings, Litres: c.Litres,
			Reason: c.Reason, By: c.ByName, At: c.At})
	}
	if f.AcceptanceOrder != nil {
		if err := s.DB.WithContext(ctx).Raw("select title from work_orders where id = ?",
			*f.AcceptanceOrder).Scan(&out.Acceptance).Error; err != nil {
			return out, err
		}
	}
	for _, e := range events {
		w := api.FlightEvent{Id: e.ID, Kind: api.EventKind(e.Kind), Note: e.Note, At: e.At, By: e.ByName}
		if e.TakenBackAt != nil {
			w.TakenBackBy = &e.TakenBackBy
		}
		out.Events = append(out.Events, w)
	}
	return out, err
}

func (h *Handlers) TakeOff(ctx context.Context, r api.TakeOffRequestObject) (api.TakeOffResponseObject, error) {
	ctx, err := outbox.With(ctx, r.Params.PressId, r.Params.PressAgo, r.Params.PressBy)
	if err != nil {
		return nil, err
	}
	f, err := h.Flights.TakeOff(ctx, r.Body.Id, r.Body.ReleaseId, r.Body.DeviceAt)
	if err != nil {
		return nil, err
	}
	w, err := h.wire(ctx, f.ID)
	return api.TakeOff201JSONResponse(w), err
}

func (h *Handlers) GetFlight(ctx context.Context, r api.GetFlightRequestObject) (api.GetFlightResponseObject, error) {
	w, err := h.wire(ctx, r.Id)
	return api.GetFlight200JSONResponse(w), err
}

func (h *Handlers) AddEvent(ctx context.Context, r api.AddEventRequestObject) (api.AddEventResponseObject, error) {
	ctx, err := outbox.With(ctx, r.Params.PressId, r.Params.PressAgo, r.Params.PressBy)
	if err != nil {
		return nil, err
	}
	if err := h.Flights.AddEvent(ctx, r.Id, Event{ID: r.Body.Id, Kind: string(r.Body.Kind),
		Note: r.Body.Note}); err != nil {
		return nil, err
	}
	w, err := h.wire(ctx, r.Id)
	return api.AddEvent201JSONResponse(w), err
}

func (h *Handlers) RemoveEvent(ctx context.Context,
	r api.RemoveEventRequestObject) (api.RemoveEventResponseObject, error) {
	ctx, err := outbox.With(ctx, r.Params.PressId, r.Params.PressAgo, r.Params.PressBy)
	if err != nil {
		return nil, err
	}
	if err := h.Flights.RemoveEvent(ctx, r.Id, r.Event); err != nil {
		return nil, err
	}
	w, err := h.wire(ctx, r.Id)
	return api.RemoveEvent200JSONResponse(w), err
}

func (h *Handlers) ResumeFlight(ctx context.Context,
	r api.ResumeFlightRequestObject) (api.ResumeFlightResponseObject, error) {
	ctx, err := outbox.With(ctx, r.Params.PressId, r.Params.PressAgo, r.Params.PressBy)
	if err != nil {
		return nil, err
	}
	if _, err := h.Flights.Resume(ctx, r.Id); err != nil {
		return nil, err
	}
	w, err := h.wire(ctx, r.Id)
	return api.ResumeFlight200JSONResponse(w), err
}

func (h *Handlers) PutHover(ctx context.Context, r api.PutHoverRequestObject) (api.PutHoverResponseObject, error) {
	ctx, err := outbox.With(ctx, r.Params.PressId, r.Params.PressAgo, r.Params.PressBy)
	if err != nil {
		return nil, err
	}
	j, err := h.Flights.Hover(ctx, r.Id, r.Body.Outputs)
	return api.PutHover200JSONResponse(j), err
}

func (h *Handlers) Land(ctx context.Context, r api.LandRequestObject) (api.LandResponseObject, error) {
	ctx, err := outbox.With(ctx, r.Params.PressId, r.Params.PressAgo, r.Params.PressBy)
	if err != nil {
		return nil, err
	}
	if _, err := h.Flights.Land(ctx, r.Id); err != nil {
		return nil, err
	}
	w, err := h.wire(ctx, r.Id)
	return api.Land200JSONResponse(w), err
}

func (h *Handlers) LogFlight(ctx context.Context, r api.LogFlightRequestObject) (api.LogFlightResponseObject, error) {
	ctx, err := outbox.With(ctx, r.Params.PressId, r.Params.PressAgo, r.Params.PressBy)
	if err != nil {
		return nil, err
	}
	n := NewLog{Landings: r.Body.Landings, WarmthC: r.Body.WarmthC, Remarks: r.Body.Remarks}
	if r.Body.Litres != nil {
		n.Litres = *r.Body.Litres
	}
	if r.Body.NextTime != nil {
		n.NextTime = *r.Body.NextTime
	}
	if r.Body.Signs != nil {
		n.Signs = *r.Body.Signs
	}
	for _, p := range r.Body.Packs {
		l := LandedPack{Pack: p.PackId, Percent: p.Percent, TemperatureC: p.TemperatureC}
		if p.CellMv != nil {
			l.CellMV = *p.CellMv
		}
		n.Packs = append(n.Packs, l)
	}
	if _, err := h.Flights.Log(ctx, r.Id, n); err != nil {
		return nil, err
	}
	w, err := h.wire(ctx, r.Id)
	return api.LogFlight200JSONResponse(w), err
}

func (h *Handlers) CorrectFlight(ctx context.Context,
	r api.CorrectFlightRequestObject) (api.CorrectFlightResponseObject, error) {
	b := r.Body
	if err := h.Flights.Correct(ctx, Correction{ID: b.Id, FlightID: r.Id, Seconds: b.Seconds, Landings: b.Landings,
		Litres: b.Litres, Reason: b.Reason}, b.Pin); err != nil {
		return nil, err
	}
	w, err := h.wire(ctx, r.Id)
	return api.CorrectFlight201JSONResponse(w), err
}
