package rack

import (
	"context"

	"github.com/google/uuid"

	"mainstay/api"
	"mainstay/core/judge"
	"mainstay/internal/fleet"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
)

// Handlers serve the operations of the rack.
type Handlers struct{ Rack *Service }

func (h *Handlers) one(ctx context.Context, id uuid.UUID) (api.Pack, error) {
	ps, err := h.Rack.Fleet.WirePacks(ctx, []uuid.UUID{id})
	if err != nil {
		return api.Pack{}, err
	}
	if len(ps) == 0 {
		return api.Pack{}, fault.Missing("pack")
	}
	return ps[0], nil
}

func (h *Handlers) GetPack(ctx context.Context, r api.GetPackRequestObject) (api.GetPackResponseObject, error) {
	p, err := h.one(ctx, r.Id)
	if err != nil {
		return nil, err
	}
	views, err := h.Rack.Fleet.PackViews(ctx, []uuid.UUID{r.Id})
	if err != nil {
		return nil, err
	}
	rs, next, err := h.Rack.Fleet.Readings(ctx, r.Id, "")
	if err != nil {
		return nil, err
	}
	standing, err := h.Rack.Fleet.Standing(ctx, r.Id)
	if err != nil {
		return nil, err
	}
	looks, err := h.Rack.Looks(ctx, r.Id)
	out := api.GetPack200JSONResponse{Pack: p, Readings: []api.PackReading{}, NextCursor: next, Looks: []api.PackLook{},
		Standing: standing}
	for _, x := range rs {
		out.Readings = append(out.Readings, fleet.WireReading(views[0], x))
	}
	for _, l := range looks {
		out.Looks = append(out.Looks, api.PackLook{Id: l.ID, Faces: l.Faces, Photos: append([]uuid.UUID{}, l.Photos...),
			Note: l.Note, Clean: l.Clean, By: l.ByName, At: l.At})
	}
	return out, err
}

func (h *Handlers) GetRackHealth(ctx context.Context,
	_ api.GetRackHealthRequestObject) (api.GetRackHealthResponseObject, error) {
	all, err := h.Rack.Fleet.RackHealth(ctx)
	out := api.GetRackHealth200JSONResponse{Packs: []api.PackHealth{}}
	for _, p := range all {
		x := api.PackHealth{Id: p.ID, Label: p.Label, Points: []api.HealthPoint{}}
		for _, m := range p.Points {
			x.Points = append(x.Points, api.HealthPoint{At: m.At, Percent: m.Percent})
		}
		out.Packs = append(out.Packs, x)
	}
	return out, err
}

func (h *Handlers) ListReadings(ctx context.Context,
	r api.ListReadingsRequestObject) (api.ListReadingsResponseObject, error) {
	views, err := h.Rack.Fleet.PackViews(ctx, []uuid.UUID{r.Id})
	if err != nil {
		return nil, err
	}
	if len(views) == 0 {
		return nil, fault.Missing("pack")
	}
	rs, next, err := h.Rack.Fleet.Readings(ctx, r.Id, api.Value(r.Params.Cursor))
	out := api.ListReadings200JSONResponse{Readings: []api.PackReading{}, NextCursor: next}
	for _, x := range rs {
		out.Readings = append(out.Readings, fleet.WireReading(views[0], x))
	}
	return out, err
}

func (h *Handlers) LookAtPack(ctx context.Context,
	r api.LookAtPackRequestObject) (api.LookAtPackResponseObject, error) {
	f := r.Body.Faces
	l := Look{ID: r.Body.Id, PackID: r.Id, Note: r.Body.Note, Photos: db.UUIDs(r.Body.Photos),
		Faces: map[string]string{"top": string(f.Top), "bottom": string(f.Bottom), "left": string(f.Left),
			"right": string(f.Right), "front": string(f.Front), "back": string(f.Back)}}
	if err := h.Rack.LookAt(ctx, l); err != nil {
		return nil, err
	}
	p, err := h.one(ctx, r.Id)
	return api.LookAtPack201JSONResponse(p), err
}

func (h *Handlers) DisposePack(ctx context.Context,
	r api.DisposePackRequestObject) (api.DisposePackResponseObject, error) {
	b := r.Body
	if err := h.Rack.Dispose(ctx, r.Id, Disposal{Method: b.Method, Discharged: b.Discharged, DeliveredTo: b.DeliveredTo,
		Note: b.Note, PIN: b.Pin}); err != nil {
		return nil, err
	}
	p, err := h.one(ctx, r.Id)
	return api.DisposePack200JSONResponse(p), err
}

func (h *Handlers) ImportReadings(ctx context.Context,
	r api.ImportReadingsRequestObject) (api.ImportReadingsResponseObject, error) {
	rep, err := h.Rack.Import(ctx, r.Body)
	rep.Refused = rep.Refused[:min(len(rep.Refused), 5000)]
	return api.ImportReadings200JSONResponse(rep), err
}

func (h *Handlers) ListSets(ctx context.Context, _ api.ListSetsRequestObject) (api.ListSetsResponseObject, error) {
	sets, err := h.Rack.Match(ctx)
	out := api.ListSets200JSONResponse{Models: []api.PackSets{}}
	for _, s := range sets {
		out.Models = append(out.Models, api.PackSets{Model: s.Model, Sets: s.Sets, Single: s.Single})
	}
	return out, err
}

func wireProgress(p Progress) api.BackgroundWork {
	return api.BackgroundWork{Kind: p.Kind, Done: p.Done, Total: p.Total, State: p.State, Message: p.Message,
		StartedAt: p.StartedAt, EndedAt: p.EndedAt}
}

func (h *Handlers) ComputeForecasts(ctx context.Context,
	_ api.ComputeForecastsRequestObject) (api.ComputeForecastsResponseObject, error) {
	p, err := h.Rack.AskForecasts(ctx)
	return api.ComputeForecasts202JSONResponse(wireProgress(p)), err
}

func (h *Handlers) ListBackground(ctx context.Context,
	_ api.ListBackgroundRequestObject) (api.ListBackgroundResponseObject, error) {
	ps, err := h.Rack.Background(ctx)
	out := api.ListBackground200JSONResponse{Work: []api.BackgroundWork{}}
	for _, p := range ps {
		out.Work = append(out.Work, wireProgress(p))
	}
	return out, err
}

func (h *Handlers) status(ctx context.Context) (api.ChargerStatus, error) {
	s, err := h.Rack.Status(ctx)
	out := api.ChargerStatus{Configured: s.Configured, Reachable: s.Reachable, Sentence: s.Sentence,
		Channels: []api.ChargerChannel{}}
	for _, c := range s.Channels {
		w := api.ChargerChannel{Channel: c.Channel, Phase: c.Phase, CellMv: append([]int{}, c.CellMV...),
			Sentence: c.Sentence, Verdict: max(c.Verdict, judge.Clear)}
		if c.Phase != "idle" {
			w.Percent, w.TemperatureC, w.MahIn = c.Percent, c.TemperatureC, c.MAhIn
		}
		if c.Charge != nil {
			w.PackId, w.Label, w.Target, w.StartedAt = &c.Pack.ID, c.Pack.Label, c.Charge.Target, &c.Charge.StartedAt
		}
		out.Channels = append(out.Channels, w)
	}
	return out, err
}

func (h *Handlers) GetCharger(ctx context.Context,
	_ api.GetChargerRequestObject) (api.GetChargerResponseObject, error) {
	s, err := h.status(ctx)
	return api.GetCharger200JSONResponse(s), err
}

func (h *Handlers) StartCharge(ctx context.Context,
	r api.StartChargeRequestObject) (api.StartChargeResponseObject, error) {
	if err := h.Rack.Begin(ctx, r.Channel, r.Body.PackId, string(r.Body.Target),
		r.Body.Felt != nil && *r.Body.Felt); err != nil {
		return nil, err
	}
	s, err := h.status(ctx)
	return api.StartCharge200JSONResponse(s), err
}

func (h *Handlers) StopCharge(ctx context.Context,
	r api.StopChargeRequestObject) (api.StopChargeResponseObject, error) {
	if err := h.Rack.End(ctx, r.Channel); err != nil {
		return nil, err
	}
	s, err := h.status(ctx)
	return api.StopCharge200JSONResponse(s), err
}
