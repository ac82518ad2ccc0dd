package evening

import (
	"context"
	"time"

	"github.com/google/uuid"
	openapi_types "github.com/oapi-codegen/runtime/types"

	"mainstay/api"
	"mainstay/internal/outbox"
)

// Handlers serve the operations of the evening.
type Handlers struct{ Evening *Service }

func (h *Handlers) sheet(ctx context.Context, day openapi_types.Date) (api.Evening, error) {
	sh, err := h.Evening.Of(ctx, day.Time)
	if err != nil {
		return api.Evening{}, err
	}
	now := h.Evening.Clock.Now()
	out := api.Evening{Day: day, StartAt: sh.StartAt.UTC(), ReadyBy: sh.ReadyBy.UTC(), Saved: sh.Saved,
		Flying: []api.EveningFlying{}, Plan: sh.Plan, Chargers: []api.ChargerEdit{}, Ticks: []api.Tick{}}
	for _, f := range sh.Flying {
		out.Flying = append(out.Flying, api.EveningFlying{AircraftId: f.Aircraft.ID, Aircraft: f.Aircraft.Name,
			Type: f.Type.Name, Packs: f.Type.Packs.Count, Sorties: f.Sorties})
	}
	out.Gear = wireGear(sh.Gear, now)
	for _, c := range sh.Chargers {
		out.Chargers = append(out.Chargers, api.ChargerEdit{Id: c.ID, Name: c.Name, Channels: c.Channels, Watts: c.Watts,
			Active: c.Active, InField: &c.InField, GeneratorW: &c.GeneratorW, Version: c.Version})
	}
	for _, t := range sh.Ticks {
		out.Ticks = append(out.Ticks, api.Tick{Item: t.Item, Label: t.Label, By: t.ByName, At: t.At.In(time.UTC)})
	}
	return out, nil
}

func (h *Handlers) GetEvening(ctx context.Context,
	r api.GetEveningRequestObject) (api.GetEveningResponseObject, error) {
	s, err := h.sheet(ctx, r.Day)
	return api.GetEvening200JSONResponse(s), err
}

func (h *Handlers) SaveEvening(ctx context.Context,
	r api.SaveEveningRequestObject) (api.SaveEveningResponseObject, error) {
	e := Edit{StartAt: r.Body.StartAt, ReadyBy: r.Body.ReadyBy, Sorties: map[uuid.UUID]int{}}
	for _, f := range r.Body.Sorties {
		e.Sorties[f.AircraftId] = f.Sorties
	}
	if err := h.Evening.Save(ctx, r.Day.Time, e); err != nil {
		return nil, err
	}
	s, err := h.sheet(ctx, r.Day)
	return api.SaveEvening200JSONResponse(s), err
}

func (h *Handlers) TickEvening(ctx context.Context,
	r api.TickEveningRequestObject) (api.TickEveningResponseObject, error) {
	ctx, err := outbox.With(ctx, r.Params.PressId, r.Params.PressAgo, r.Params.PressBy)
	if err != nil {
		return nil, err
	}
	if err := h.Evening.Tick(ctx, r.Day.Time, r.Body.Item, r.Body.Done); err != nil {
		return nil, err
	}
	s, err := h.sheet(ctx, r.Day)
	return api.TickEvening200JSONResponse(s), err
}

// wireGear is the gear in use, the worst first.
func wireGear(all []Gear, now time.Time) []api.Gear {
	out := []api.Gear{}
	for _, g := range byVerdict(all, now) {
		if !g.Active {
			continue
		}
		v, sentence := g.Judge(now)
		out = append(out, api.Gear{Id: g.ID, Name: g.Name, Kind: api.GearKind(g.Kind), Minimum: g.Minimum, Level: g.Level,
			CheckedAt: g.CheckedAt, CheckedBy: g.CheckedBy, Active: g.Active, AircraftId: g.AircraftID, LookedAt: g.LookedAt,
			LookedBy: g.LookedBy, Found: g.Found, Verdict: v, Sentence: sentence, Version: g.Version})
	}
	return out
}

func (h *Handlers) ListGear(ctx context.Context, _ api.ListGearRequestObject) (api.ListGearResponseObject, error) {
	all, err := h.Evening.Gear(ctx)
	return api.ListGear200JSONResponse{Gear: wireGear(all, h.Evening.Clock.Now())}, err
}

func (h *Handlers) SaveGear(ctx context.Context, r api.SaveGearRequestObject) (api.SaveGearResponseObject, error) {
	b := r.Body
	return api.SaveGear204Response{}, h.Evening.SaveGear(ctx,
		Gear{ID: b.Id, Name: b.Name, Kind: string(b.Kind), Minimum: b.Minimum, Active: b.Active, AircraftID: b.AircraftId,
			Version: b.Version})
}

func (h *Handlers) CheckGear(ctx context.Context, r api.CheckGearRequestObject) (api.CheckGearResponseObject, error) {
	return api.CheckGear204Response{}, h.Evening.CheckGear(ctx, r.Id, r.Body.Level)
}

func (h *Handlers) LookAtGear(ctx context.Context,
	r api.LookAtGearRequestObject) (api.LookAtGearResponseObject, error) {
	return api.LookAtGear204Response{}, h.Evening.LookAtGear(ctx, r.Id, r.Body.Found)
}

func (h *Handlers) SaveCharger(ctx context.Context,
	r api.SaveChargerRequestObject) (api.SaveChargerResponseObject, error) {
	b := r.Body
	c := Charger{ID: b.Id, Name: b.Name, Channels: b.Channels, Watts: b.Watts, InField: b.InField != nil && *b.InField,
		Active: b.Active, Version: b.Version}
	if b.GeneratorW != nil {
		c.GeneratorW = *b.GeneratorW
	}
	return api.SaveCharger204Response{}, h.Evening.SaveCharger(ctx, c)
}
