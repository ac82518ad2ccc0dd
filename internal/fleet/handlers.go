package fleet

import (
	"cmp"
	"context"
	"maps"
	"slices"

	"github.com/google/uuid"
	openapi_types "github.com/oapi-codegen/runtime/types"

	"mainstay/api"
	"mainstay/core/airframe"
	"mainstay/internal/platform/fault"
)

// Handlers serve the operations of the fleet.
type Handlers struct{ Fleet *Service }

func sortedTypes(m map[string]airframe.Type) []airframe.Type {
	return slices.SortedFunc(maps.Values(m), func(a, b airframe.Type) int { return cmp.Compare(a.Name, b.Name) })
}

func (h *Handlers) ListTypes(ctx context.Context, _ api.ListTypesRequestObject) (api.ListTypesResponseObject, error) {
	ts, err := h.Fleet.Types(ctx)
	out := api.ListTypes200JSONResponse{Types: []api.TypeEntry{}}
	for _, t := range ts {
		out.Types = append(out.Types, WireType(t))
	}
	return out, err
}

func (h *Handlers) GetType(ctx context.Context, r api.GetTypeRequestObject) (api.GetTypeResponseObject, error) {
	t, err := h.Fleet.Type(ctx, r.Key)
	t.Practice = nil // no part of the profile
	return api.File{Content: t}, err
}

func (h *Handlers) UpdateAircraft(ctx context.Context,
	r api.UpdateAircraftRequestObject) (api.UpdateAircraftResponseObject, error) {
	b := r.Body
	a, err := h.Fleet.Update(ctx, r.Id, Edit{Version: b.Version, Name: b.Name, Registration: b.Registration,
		RegistrationExpires: api.TimeOf(b.RegistrationExpires), MassKg: b.MassKg, WeighedOn: api.TimeOf(b.WeighedOn),
		Active: b.Active})
	return api.UpdateAircraft200JSONResponse(WireAircraft(a)), err
}

func (h *Handlers) WeighAircraft(ctx context.Context,
	r api.WeighAircraftRequestObject) (api.WeighAircraftResponseObject, error) {
	b := r.Body
	return api.WeighAircraft201JSONResponse{MadeJSONResponse: api.MadeJSONResponse{Id: r.Body.Id}}, h.Fleet.Weigh(ctx,
		Weighing{ID: b.Id, AircraftID: r.Id, Part: string(b.Part), Kg: b.Kg, Scale: b.Scale, WeighedOn: b.On.Time})
}

func (h *Handlers) GroundAircraft(ctx context.Context,
	r api.GroundAircraftRequestObject) (api.GroundAircraftResponseObject, error) {
	return api.GroundAircraft201JSONResponse{MadeJSONResponse: api.MadeJSONResponse{Id: r.Body.Id}}, h.Fleet.Ground(ctx,
		r.Body.Id, r.Id, ByPerson, r.Body.Reason)
}

func (h *Handlers) FitParts(ctx context.Context, r api.FitPartsRequestObject) (api.FitPartsResponseObject, error) {
	f := FitParts{Source: string(r.Body.Source), Old: string(r.Body.Old), CutUp: r.Body.CutUp}
	for _, x := range r.Body.Fits {
		f.Fits = append(f.Fits, Fit{PartID: x.PartId, Station: x.Station, Serial: x.Serial, Batch: api.Value(x.Batch)})
	}
	return api.FitParts204Response{}, h.Fleet.FitParts(ctx, r.Id, f)
}

func (h *Handlers) ListPacks(ctx context.Context, r api.ListPacksRequestObject) (api.ListPacksResponseObject, error) {
	ids, next, err := h.Fleet.PackPage(ctx, api.Value(r.Params.Cursor))
	if err != nil {
		return nil, err
	}
	ps, err := h.Fleet.WirePacks(ctx, ids)
	return api.ListPacks200JSONResponse{Packs: ps, NextCursor: next}, err
}

// view returns one pack as sent to the interface.
func (h *Handlers) view(ctx context.Context, id openapi_types.UUID) (api.Pack, PackView, error) {
	views, err := h.Fleet.PackViews(ctx, []openapi_types.UUID{id})
	if err != nil {
		return api.Pack{}, PackView{}, err
	}
	if len(views) == 0 {
		return api.Pack{}, PackView{}, fault.Missing("pack")
	}
	types, err := h.Fleet.typesByKey(ctx)
	return WirePack(views[0], types, h.Fleet.Clock.Now()), views[0], err
}

func (h *Handlers) MovePack(ctx context.Context, r api.MovePackRequestObject) (api.MovePackResponseObject, error) {
	if _, err := h.Fleet.MovePack(ctx, r.Id, r.Body.State, r.Body.Note, r.Body.Version); err != nil {
		return nil, err
	}
	v, _, err := h.view(ctx, r.Id)
	return api.MovePack200JSONResponse(v), err
}

// AddPacks adds several packs.
func (h *Handlers) AddPacks(ctx context.Context, r api.AddPacksRequestObject) (api.AddPacksResponseObject, error) {
	b := r.Body
	n := NewPacks{ID: b.Id, Labels: b.Labels, Chemistry: string(b.Chemistry), Cells: b.Cells, MilliampHours: b.CapacityMah,
		Cycles: b.Cycles, Charged: b.Charged != nil && *b.Charged}
	if b.Serials != nil {
		n.Serials = *b.Serials
	}
	added, err := h.Fleet.AddPacks(ctx, n)
	if err != nil {
		return nil, err
	}
	ids := make([]uuid.UUID, len(added))
	for i, p := range added {
		ids[i] = p.ID
	}
	packs, err := h.Fleet.WirePacks(ctx, ids)
	return api.AddPacks201JSONResponse{Packs: packs}, err
}

// CorrectPack puts right what is on file of a pack.
func (h *Handlers) CorrectPack(ctx context.Context,
	r api.CorrectPackRequestObject) (api.CorrectPackResponseObject, error) {
	b := r.Body
	if err := h.Fleet.CorrectPack(ctx, NewPack{ID: r.Id, Label: b.Label, Serial: b.Serial, Chemistry: string(b.Chemistry),
		Cells: b.Cells, MilliampHours: b.CapacityMah, Cycles: b.Cycles}, b.Version); err != nil {
		return nil, err
	}
	v, _, err := h.view(ctx, r.Id)
	return api.CorrectPack200JSONResponse(v), err
}

// WithdrawReading takes a reading out of what is judged.
func (h *Handlers) WithdrawReading(ctx context.Context,
	r api.WithdrawReadingRequestObject) (api.WithdrawReadingResponseObject, error) {
	return api.WithdrawReading204Response{}, h.Fleet.WithdrawReading(ctx, r.Id, r.Reading, r.Body.Why)
}

func (h *Handlers) MovePacks(ctx context.Context, r api.MovePacksRequestObject) (api.MovePacksResponseObject, error) {
	var packs []Chosen
	for _, p := range r.Body.Packs {
		packs = append(packs, Chosen{ID: p.Id, Version: p.Version})
	}
	out, err := h.Fleet.MoveSeveral(ctx, r.Body.State, packs)
	return api.MovePacks200JSONResponse(wireOutcomes(out)), err
}

func (h *Handlers) MovePacksBack(ctx context.Context,
	r api.MovePacksBackRequestObject) (api.MovePacksBackResponseObject, error) {
	var packs []Chosen
	for _, p := range r.Body.Packs {
		packs = append(packs, Chosen{ID: p.Id, Version: p.Version})
	}
	out, err := h.Fleet.MoveBack(ctx, packs)
	return api.MovePacksBack200JSONResponse(wireOutcomes(out)), err
}

func wireOutcomes(all []Outcome) api.PackOutcomes {
	out := api.PackOutcomes{Packs: []api.PackOutcome{}}
	for _, o := range all {
		w := api.PackOutcome{Id: o.ID, Label: o.Label, Was: string(o.Was), Version: o.Version}
		if o.Sentence != "" {
			w.Sentence = &o.Sentence
		}
		out.Packs = append(out.Packs, w)
	}
	return out
}

func (h *Handlers) ReadPack(ctx context.Context, r api.ReadPackRequestObject) (api.ReadPackResponseObject, error) {
	b := r.Body
	n := NewReading{ID: b.Id, CellMV: b.CellMv, RestedMin: b.RestedMin, Percent: b.Percent, TemperatureC: b.TemperatureC,
		MAhIn: b.MahIn, MAhOut: b.MahOut, StartPercent: b.StartPercent, EndPercent: b.EndPercent, Source: "hand"}
	if b.ResistanceMohm != nil {
		n.MilliOhm = *b.ResistanceMohm
	}
	if l := b.UnderLoad; l != nil {
		n.Load = &Load{CellMV: l.CellMv, Amps: l.Amps, Seconds: l.Seconds}
	}
	x, err := h.Fleet.ReadPack(ctx, r.Id, n)
	if err != nil {
		return nil, err
	}
	_, v, err := h.view(ctx, r.Id)
	return api.ReadPack201JSONResponse(WireReading(v, x)), err
}
