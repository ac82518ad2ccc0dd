package workshop

import (
	"context"
	"time"

	"github.com/google/uuid"

	"mainstay/api"
	"mainstay/core/firmware"
	"mainstay/core/upkeep"
	"mainstay/internal/fleet"
)

// Handlers serve the operations of the workshop.
type Handlers struct{ Workshop *Service }

func (h *Handlers) GetProgramme(ctx context.Context,
	r api.GetProgrammeRequestObject) (api.GetProgrammeResponseObject, error) {
	p, err := h.Workshop.Programme(ctx, r.Key)
	return api.File{Content: p}, err
}

func (h *Handlers) AddProgramme(ctx context.Context,
	r api.AddProgrammeRequestObject) (api.AddProgrammeResponseObject, error) {
	return api.AddProgramme201JSONResponse(*r.Body), h.Workshop.AddProgramme(ctx, r.Key, *r.Body)
}

func (h *Handlers) ListDue(ctx context.Context, _ api.ListDueRequestObject) (api.ListDueResponseObject, error) {
	d, _, err := h.Workshop.DueList(ctx)
	return api.ListDue200JSONResponse(d), err
}

func (h *Handlers) ListDefects(ctx context.Context,
	r api.ListDefectsRequestObject) (api.ListDefectsResponseObject, error) {
	ds, next, err := h.Workshop.Walkrounds.Defects(ctx, r.Params.Aircraft, api.Value(r.Params.Cursor))
	if err != nil {
		return nil, err
	}
	w, err := h.Workshop.WireDefects(ctx, ds)
	return api.ListDefects200JSONResponse{Defects: w, NextCursor: next}, err
}

func (h *Handlers) ListWorkOrders(ctx context.Context,
	r api.ListWorkOrdersRequestObject) (api.ListWorkOrdersResponseObject, error) {
	rows, next, err := h.Workshop.OrderPage(ctx, r.Params.Aircraft, api.Value(r.Params.All), api.Value(r.Params.Cursor))
	if err != nil {
		return nil, err
	}
	types, err := h.Workshop.Fleet.Types(ctx)
	if err != nil {
		return nil, err
	}
	labels := map[string]string{}
	for _, t := range types {
		for _, st := range t.Stations() {
			labels[t.Key+"/"+st.ID] = st.Label
		}
	}
	out := api.ListWorkOrders200JSONResponse{Orders: []api.WorkLine{}, NextCursor: next}
	for _, o := range rows {
		out.Orders = append(out.Orders, api.WorkLine{Id: o.ID, AircraftId: o.AircraftID, Aircraft: o.Aircraft,
			StationLabel: labels[o.TypeKey+"/"+o.Station], Title: o.Title, Cause: o.Cause, Grounds: o.Grounds,
			State: api.WorkLineState(o.State), OpenedBy: o.OpenedBy, OpenedAt: o.OpenedAt, SignedBy: o.SignedBy,
			ClosedAt: o.ClosedAt, Steps: len(o.Work.Steps), Entered: o.Entered})
	}
	return out, nil
}

func (h *Handlers) OpenWorkOrder(ctx context.Context,
	r api.OpenWorkOrderRequestObject) (api.OpenWorkOrderResponseObject, error) {
	b := r.Body
	n := NewOrder{ID: b.Id, Aircraft: b.AircraftId, TaskID: b.TaskId, DefectID: b.DefectId, Station: b.Station,
		Title: b.Title, Steps: b.Steps, SecondPerson: b.SecondPerson}
	for _, l := range b.Acceptance {
		n.Acceptance = append(n.Acceptance, upkeep.Load(l))
	}
	o, err := h.Workshop.OpenOrder(ctx, n)
	if err != nil {
		return nil, err
	}
	w, err := h.Workshop.detail(ctx, o.ID)
	return api.OpenWorkOrder201JSONResponse(w), err
}

func (h *Handlers) GetWorkOrder(ctx context.Context,
	r api.GetWorkOrderRequestObject) (api.GetWorkOrderResponseObject, error) {
	w, err := h.Workshop.detail(ctx, r.Id)
	return api.GetWorkOrder200JSONResponse(w), err
}

func (h *Handlers) EnterSteps(ctx context.Context,
	r api.EnterStepsRequestObject) (api.EnterStepsResponseObject, error) {
	var es []NewEntry
	for _, e := range r.Body.Entries {
		es = append(es, NewEntry{e.StepId, e.Value})
	}
	if err := h.Workshop.Enter(ctx, r.Id, es); err != nil {
		return nil, err
	}
	w, err := h.Workshop.detail(ctx, r.Id)
	return api.EnterSteps200JSONResponse(w), err
}

func (h *Handlers) UseStock(ctx context.Context, r api.UseStockRequestObject) (api.UseStockResponseObject, error) {
	if err := h.Workshop.UseStock(ctx, r.Id, r.Body.Id, r.Body.LineId, r.Body.Quantity); err != nil {
		return nil, err
	}
	w, err := h.Workshop.detail(ctx, r.Id)
	return api.UseStock201JSONResponse(w), err
}

func (h *Handlers) SignWorkOrder(ctx context.Context,
	r api.SignWorkOrderRequestObject) (api.SignWorkOrderResponseObject, error) {
	if err := h.Workshop.Sign(ctx, r.Id, Signature{Note: r.Body.Note, PIN: r.Body.Pin, SecondLogin: r.Body.SecondLogin,
		SecondPIN: r.Body.SecondPin}); err != nil {
		return nil, err
	}
	w, err := h.Workshop.detail(ctx, r.Id)
	return api.SignWorkOrder200JSONResponse(w), err
}

func (h *Handlers) CancelWorkOrder(ctx context.Context,
	r api.CancelWorkOrderRequestObject) (api.CancelWorkOrderResponseObject, error) {
	if err := h.Workshop.Cancel(ctx, r.Id, r.Body.Reason); err != nil {
		return nil, err
	}
	w, err := h.Workshop.detail(ctx, r.Id)
	return api.CancelWorkOrder200JSONResponse(w), err
}

func (h *Handlers) ReportIncident(ctx context.Context,
	r api.ReportIncidentRequestObject) (api.ReportIncidentResponseObject, error) {
	return api.ReportIncident201JSONResponse{MadeJSONResponse: api.MadeJSONResponse{Id: r.Body.Id}}, h.Workshop.Report(ctx,
		r.Body.Id, r.Id, upkeep.Event(r.Body.Event),
		r.Body.Note)
}

func (h *Handlers) ReturnAircraft(ctx context.Context,
	r api.ReturnAircraftRequestObject) (api.ReturnAircraftResponseObject, error) {
	return api.ReturnAircraft204Response{}, h.Workshop.Return(ctx, r.Id, r.Body.Note, r.Body.Pin)
}

func (h *Handlers) Defer(ctx context.Context, r api.DeferRequestObject) (api.DeferResponseObject, error) {
	b := r.Body
	d, err := h.Workshop.Defer(ctx, NewDeferral{ID: b.Id, Aircraft: b.AircraftId, DefectID: b.DefectId, TaskID: b.TaskId,
		Days: b.Days, Reason: b.Reason, PIN: b.Pin})
	return api.Defer201JSONResponse(d), err
}

func (h *Handlers) AddPart(ctx context.Context, r api.AddPartRequestObject) (api.AddPartResponseObject, error) {
	b := r.Body
	p, err := h.Workshop.Fleet.AddPart(ctx, fleet.NewPart{ID: b.Id, Kind: b.Kind, TypeKey: b.TypeKey, Serial: b.Serial,
		Batch: b.Batch, Source: string(b.Source), PriceCents: cents(b.PriceCents)})
	if err != nil {
		return nil, err
	}
	w, err := h.Workshop.wirePart(ctx, p.ID)
	return api.AddPart201JSONResponse(w), err
}

func cents(v *int) *int64 {
	if v == nil {
		return nil
	}
	c := int64(*v)
	return &c
}

func (h *Handlers) GetPart(ctx context.Context, r api.GetPartRequestObject) (api.GetPartResponseObject, error) {
	w, err := h.Workshop.wirePart(ctx, r.Id)
	return api.GetPart200JSONResponse(w), err
}

func (h *Handlers) RemovePart(ctx context.Context,
	r api.RemovePartRequestObject) (api.RemovePartResponseObject, error) {
	if _, err := h.Workshop.Fleet.RemovePart(ctx, r.Id, string(r.Body.To), r.Body.CutUp, r.Body.Reason); err != nil {
		return nil, err
	}
	w, err := h.Workshop.wirePart(ctx, r.Id)
	return api.RemovePart200JSONResponse(w), err
}

func (h *Handlers) SwapPart(ctx context.Context, r api.SwapPartRequestObject) (api.SwapPartResponseObject, error) {
	return api.SwapPart204Response{}, h.Workshop.Fleet.SwapParts(ctx, r.Id, r.Body.With)
}

func (h *Handlers) stock(ctx context.Context) (api.Stock, error) {
	_, needs, err := h.Workshop.DueList(ctx)
	if err != nil {
		return api.Stock{}, err
	}
	lines, err := h.Workshop.Stock(ctx, needs)
	if err != nil {
		return api.Stock{}, err
	}
	approvals, err := h.Workshop.Approvals(ctx)
	out := api.Stock{Lines: []api.StockLine{}, Approvals: []api.ApprovalEntry{}}
	for _, l := range lines {
		w := api.StockLine{Id: l.ID, Name: l.Name, Kind: l.Kind, TypeKey: l.TypeKey, OnHand: l.OnHand(), Minimum: l.Minimum,
			DeliveryDays: l.DeliveryDays, Source: l.Source, Order: l.Order, Shelf: []api.ShelfPart{}, Version: l.Version}
		if l.PriceCents != nil {
			c := int(*l.PriceCents)
			w.PriceCents = &c
		}
		for _, p := range l.Shelf {
			w.Shelf = append(w.Shelf, api.ShelfPart{Id: p.ID, Serial: p.Serial, Hours: float64(p.Seconds) / 3600,
				Flights: p.Flights, Source: p.Source})
		}
		out.Lines = append(out.Lines, w)
	}
	for _, a := range approvals {
		out.Approvals = append(out.Approvals, api.ApprovalEntry{Kind: a.Kind, TypeKey: a.TypeKey, Note: a.Note, By: a.ByName,
			At: a.At})
	}
	return out, err
}

func (h *Handlers) GetStock(ctx context.Context, _ api.GetStockRequestObject) (api.GetStockResponseObject, error) {
	s, err := h.stock(ctx)
	return api.GetStock200JSONResponse(s), err
}

func (h *Handlers) SaveStock(ctx context.Context, r api.SaveStockRequestObject) (api.SaveStockResponseObject, error) {
	b := r.Body
	if err := h.Workshop.SaveStock(ctx, StockLine{ID: b.Id, Name: b.Name, Kind: b.Kind, TypeKey: b.TypeKey,
		Quantity: b.Quantity, Minimum: b.Minimum, DeliveryDays: b.DeliveryDays, PriceCents: cents(b.PriceCents),
		Source: b.Source, Version: b.Version}); err != nil {
		return nil, err
	}
	s, err := h.stock(ctx)
	return api.SaveStock200JSONResponse(s), err
}

func (h *Handlers) ApproveParts(ctx context.Context,
	r api.ApprovePartsRequestObject) (api.ApprovePartsResponseObject, error) {
	return api.ApproveParts204Response{}, h.Workshop.Approve(ctx, r.Body.Kind, r.Body.TypeKey, r.Body.Note)
}

func wireSet(x FirmwareSet) api.FirmwareSet {
	out := api.FirmwareSet{TypeKey: x.TypeKey, Version: x.Version, Versions: map[string]string{}, Note: x.Note}
	for c, v := range x.Content {
		out.Versions[string(c)] = v
	}
	return out
}

func unwireVersions(m map[string]string) firmware.Set {
	out := firmware.Set{}
	for c, v := range m {
		out[firmware.Component(c)] = v
	}
	return out
}

func (h *Handlers) GetFirmwareSet(ctx context.Context,
	r api.GetFirmwareSetRequestObject) (api.GetFirmwareSetResponseObject, error) {
	x, err := h.Workshop.FirmwareSetOf(ctx, r.Key)
	return api.GetFirmwareSet200JSONResponse(wireSet(x)), err
}

func (h *Handlers) AddFirmwareSet(ctx context.Context,
	r api.AddFirmwareSetRequestObject) (api.AddFirmwareSetResponseObject, error) {
	x := FirmwareSet{TypeKey: r.Key, Version: r.Body.Version, Content: unwireVersions(r.Body.Versions), Note: r.Body.Note}
	return api.AddFirmwareSet201JSONResponse(wireSet(x)), h.Workshop.AddFirmwareSet(ctx, x)
}

func (h *Handlers) firmware(ctx context.Context, id uuid.UUID) (api.AircraftFirmware, error) {
	set, have, findings, err := h.Workshop.Firmware(ctx, id)
	out := api.AircraftFirmware{Installed: []api.Installed{}, Findings: append([]firmware.Finding{}, findings...)}
	if set != nil {
		w := wireSet(*set)
		out.Set = &w
	}
	for _, i := range have {
		out.Installed = append(out.Installed, api.Installed{Component: i.Component, Version: i.Version, At: i.At.In(time.UTC),
			By: i.ByName})
	}
	return out, err
}

func (h *Handlers) GetFirmware(ctx context.Context,
	r api.GetFirmwareRequestObject) (api.GetFirmwareResponseObject, error) {
	f, err := h.firmware(ctx, r.Id)
	return api.GetFirmware200JSONResponse(f), err
}

func (h *Handlers) InstallFirmware(ctx context.Context,
	r api.InstallFirmwareRequestObject) (api.InstallFirmwareResponseObject, error) {
	if err := h.Workshop.Install(ctx, r.Id, unwireVersions(r.Body.Versions)); err != nil {
		return nil, err
	}
	f, err := h.firmware(ctx, r.Id)
	return api.InstallFirmware200JSONResponse(f), err
}

func (h *Handlers) AddAircraft(ctx context.Context,
	r api.AddAircraftRequestObject) (api.AddAircraftResponseObject, error) {
	b := r.Body
	a, err := h.Workshop.AddAircraft(ctx, fleet.NewAircraft{ID: b.Id, TypeKey: b.TypeKey, Name: b.Name, Serial: b.Serial,
		Registration:        b.Registration,
		RegistrationExpires: api.TimeOf(b.RegistrationExpires), FitNewParts: b.FitNewParts, MassKg: b.MassKg,
		WeighedOn: api.TimeOf(b.WeighedOn)})
	return api.AddAircraft201JSONResponse(fleet.WireAircraft(a)), err
}
