package walkround

import (
	"bytes"
	"context"
	"slices"

	"github.com/google/uuid"

	"mainstay/api"
	"mainstay/core/checks"
	"mainstay/core/judge"
	"mainstay/docs/protocols"
	"mainstay/internal/fleet"
	"mainstay/internal/outbox"
	"mainstay/internal/people"
)

// Handlers serve the operations of walkrounds, defects and photos.
type Handlers struct{ Walkrounds *Service }

func (h *Handlers) GetChecklist(ctx context.Context,
	r api.GetChecklistRequestObject) (api.GetChecklistResponseObject, error) {
	version := 0
	if r.Params.Version != nil {
		version = *r.Params.Version
	}
	l, err := h.Walkrounds.List(ctx, r.Key, version)
	return api.File{Content: l}, err
}

func (h *Handlers) AddChecklist(ctx context.Context,
	r api.AddChecklistRequestObject) (api.AddChecklistResponseObject, error) {
	if err := h.Walkrounds.AddList(ctx, r.Key, *r.Body); err != nil {
		return nil, err
	}
	return api.AddChecklist201JSONResponse(*r.Body), nil
}

func (h *Handlers) wire(ctx context.Context, sh Sheet) (api.Walkround, error) {
	packs, err := h.Walkrounds.Fleet.WirePacks(ctx, append([]uuid.UUID{}, sh.PackIDs...))
	if err != nil {
		return api.Walkround{}, err
	}
	out := api.Walkround{Title: sh.round().Title, LeftOut: append([]checks.LeftOut{}, sh.LeftOut...),
		PaceSaid: sh.PaceSaid, Paper: append([]uuid.UUID{}, sh.Paper...), Id: sh.ID, AircraftId: sh.AircraftID,
		Aircraft: sh.Aircraft.Name, Kind: sh.Kind, Type: fleet.WireType(sh.Type), ChecklistVersion: sh.ChecklistVersion,
		Packs: packs, Items: sh.Items, Entries: []api.Entry{}, StartedBy: sh.StartedBy, StartedAt: sh.StartedAt,
		CompletedAt: sh.CompletedAt, CompletedBy: sh.CompletedBy,
		Abandoned: sh.AbandonedAt != nil, Missing: len(sh.Missing()), Notes: []api.WalkNote{}}
	others := map[string][]api.EntryOther{}
	counts := sh.Worst()
	for _, e := range sh.Entries {
		if !slices.ContainsFunc(counts, func(c Entry) bool { return c.ID == e.ID }) {
			others[e.ItemID] = append(others[e.ItemID], api.EntryOther{By: e.ByName, Verdict: severity(e.Verdict),
				Sentence: e.Sentence})
		}
	}
	me := people.From(ctx).ID
	if right, shown := sh.drillFor(me); shown {
		out.DrillRight, out.DrillShows = &right, &sh.Drill.Picture.Shows
	}
	for _, e := range counts {
		if e.ItemID == checks.DrillID && (e.PersonID == nil || *e.PersonID != me) {
			e.Value = checks.Value{} // whose eyes saw what is theirs alone
		}
		v := severity(e.Verdict)
		out.Verdict = max(out.Verdict, v)
		out.Entries = append(out.Entries, api.Entry{ItemId: e.ItemID, Value: e.Value,
			Judgement: checks.Judgement{Verdict: v, Sentence: e.Sentence, Against: e.Against}, By: e.ByName, At: e.At,
			Others: append([]api.EntryOther{}, others[e.ItemID]...)})
	}
	for _, n := range sh.Notes {
		out.Notes = append(out.Notes, api.WalkNote{At: n.At.UTC(), By: n.By, Text: n.Text})
	}
	if out.Missing > 0 {
		out.Verdict = max(out.Verdict, judge.Watch) // what is not complete is not clear
	}
	return out, nil
}

func (h *Handlers) StartWalkround(ctx context.Context,
	r api.StartWalkroundRequestObject) (api.StartWalkroundResponseObject, error) {
	n := New{ID: r.Body.Id, Aircraft: r.Body.AircraftId, Round: r.Body.Kind, Packs: r.Body.PackIds, Job: r.Body.JobId}
	if r.Body.Paper != nil {
		n.Paper = *r.Body.Paper
	}
	sh, err := h.Walkrounds.Start(ctx, n)
	if err != nil {
		return nil, err
	}
	w, err := h.wire(ctx, sh)
	return api.StartWalkround201JSONResponse(w), err
}

func (h *Handlers) GetWalkround(ctx context.Context,
	r api.GetWalkroundRequestObject) (api.GetWalkroundResponseObject, error) {
	sh, err := h.Walkrounds.Sheet(ctx, r.Id)
	if err != nil {
		return nil, err
	}
	w, err := h.wire(ctx, sh)
	return api.GetWalkround200JSONResponse(w), err
}

func (h *Handlers) PutEntries(ctx context.Context,
	r api.PutEntriesRequestObject) (api.PutEntriesResponseObject, error) {
	ctx, err := outbox.With(ctx, r.Params.PressId, r.Params.PressAgo, r.Params.PressBy)
	if err != nil {
		return nil, err
	}
	var es []NewEntry
	for _, e := range r.Body.Entries {
		es = append(es, NewEntry{ItemID: e.ItemId, Value: e.Value})
	}
	sh, err := h.Walkrounds.Save(ctx, r.Id, es)
	if err != nil {
		return nil, err
	}
	w, err := h.wire(ctx, sh)
	return api.PutEntries200JSONResponse(w), err
}

func (h *Handlers) JudgeEntry(ctx context.Context,
	r api.JudgeEntryRequestObject) (api.JudgeEntryResponseObject, error) {
	j, err := h.Walkrounds.Judge(ctx, r.Id, r.Body.ItemId, r.Body.Value)
	return api.JudgeEntry200JSONResponse(j), err
}

func (h *Handlers) CompleteWalkround(ctx context.Context,
	r api.CompleteWalkroundRequestObject) (api.CompleteWalkroundResponseObject, error) {
	ctx, err := outbox.With(ctx, r.Params.PressId, r.Params.PressAgo, r.Params.PressBy)
	if err != nil {
		return nil, err
	}
	sh, err := h.Walkrounds.Complete(ctx, r.Id)
	if err != nil {
		return nil, err
	}
	w, err := h.wire(ctx, sh)
	return api.CompleteWalkround200JSONResponse(w), err
}

func (h *Handlers) AbandonWalkround(ctx context.Context,
	r api.AbandonWalkroundRequestObject) (api.AbandonWalkroundResponseObject, error) {
	return api.AbandonWalkround204Response{}, h.Walkrounds.Abandon(ctx, r.Id)
}

// WireDefect is a defect as sent to the interface.
func WireDefect(d Defect, aircraft string) api.Defect {
	return api.Defect{Id: d.ID, AircraftId: d.AircraftID, Aircraft: aircraft, Station: d.Station, Title: d.Title,
		Note: d.Note, Severity: severity(d.Severity),
		Photos: append([]uuid.UUID{},
			d.Photos...), RaisedBy: d.RaisedBy, RaisedAt: d.RaisedAt, ClosedAt: d.ClosedAt, ClosedBy: d.ClosedBy,
		ClosingNote: d.ClosingNote, Origin: api.DefectOrigin(d.Origin)}
}

func (h *Handlers) RaiseDefect(ctx context.Context,
	r api.RaiseDefectRequestObject) (api.RaiseDefectResponseObject, error) {
	ctx, err := outbox.With(ctx, r.Params.PressId, r.Params.PressAgo, r.Params.PressBy)
	if err != nil {
		return nil, err
	}
	b := r.Body
	d, err := h.Walkrounds.Raise(ctx, Defect{ID: b.Id, AircraftID: b.AircraftId, Station: b.Station, Title: b.Title,
		Note: b.Note, Severity: string(b.Severity), Photos: b.Photos, WalkroundID: b.WalkroundId})
	if err != nil {
		return nil, err
	}
	a, err := h.Walkrounds.Fleet.Aircraft(ctx, d.AircraftID)
	return api.RaiseDefect201JSONResponse(WireDefect(d, a.Name)), err
}

func (h *Handlers) SettleDefect(ctx context.Context,
	r api.SettleDefectRequestObject) (api.SettleDefectResponseObject, error) {
	return api.SettleDefect204Response{}, h.Walkrounds.Settle(ctx, r.Id, r.Body.Note, r.Body.Pin)
}

func (h *Handlers) UploadPhoto(ctx context.Context,
	r api.UploadPhotoRequestObject) (api.UploadPhotoResponseObject, error) {
	ctx, err := outbox.With(ctx, nil, nil, r.Params.PressBy)
	if err != nil {
		return nil, err
	}
	p, err := h.Walkrounds.KeepPhoto(ctx, r.Params.Id, r.Body)
	if err != nil {
		return nil, err
	}
	return api.UploadPhoto201JSONResponse{Id: p.ID, MediaType: p.MediaType, Bytes: p.Bytes}, nil
}

func (h *Handlers) GetPhoto(ctx context.Context, r api.GetPhotoRequestObject) (api.GetPhotoResponseObject, error) {
	p, b, err := h.Walkrounds.Photo(ctx, r.Id)
	if err != nil {
		return nil, err
	}
	return api.GetPhoto200ImageResponse{Body: bytes.NewReader(b), ContentType: p.MediaType,
		ContentLength: int64(len(b))}, nil
}

func (h *Handlers) ListOffers(ctx context.Context,
	r api.ListOffersRequestObject) (api.ListOffersResponseObject, error) {
	all, err := h.Walkrounds.Offers(ctx, r.Id)
	out := api.ListOffers200JSONResponse{Offers: []api.Offer{}}
	for _, o := range all {
		out.Offers = append(out.Offers, api.Offer{ItemId: o.ItemID, Value: o.Value, Words: o.Words, Source: o.Source,
			At: o.At.UTC()})
	}
	return out, err
}

func (h *Handlers) ListBefore(ctx context.Context,
	r api.ListBeforeRequestObject) (api.ListBeforeResponseObject, error) {
	all, err := h.Walkrounds.Before(ctx, r.Id)
	out := api.ListBefore200JSONResponse{Before: []api.BeforeOne{}}
	for _, b := range all {
		one := api.BeforeOne{ItemId: b.ItemID, At: b.At.UTC(), By: b.ByName, Verdict: severity(b.Verdict), Note: b.Value.Note,
			Photos: []uuid.UUID{}}
		for _, p := range b.Value.Photos {
			if id, err := uuid.Parse(p); err == nil {
				one.Photos = append(one.Photos, id)
			}
		}
		out.Before = append(out.Before, one)
	}
	return out, err
}

func (h *Handlers) ListRounds(ctx context.Context,
	r api.ListRoundsRequestObject) (api.ListRoundsResponseObject, error) {
	l, err := h.Walkrounds.List(ctx, r.Key, 0)
	return api.ListRounds200JSONResponse{Rounds: l.Rounds()}, err
}

func (h *Handlers) GetDrills(ctx context.Context, _ api.GetDrillsRequestObject) (api.GetDrillsResponseObject, error) {
	own, crew, err := h.Walkrounds.Drills(ctx)
	return api.GetDrills200JSONResponse{Shown: own.Shown, Right: own.Right, CrewShown: crew.Shown,
		CrewRight: crew.Right}, err
}

func (h *Handlers) ListChecklists(ctx context.Context,
	r api.ListChecklistsRequestObject) (api.ListChecklistsResponseObject, error) {
	all, err := h.Walkrounds.Versions(ctx, r.Key)
	out := api.ListChecklists200JSONResponse{Versions: []api.ListVersion{}}
	for _, v := range all {
		out.Versions = append(out.Versions, api.ListVersion{Version: v.Version, At: v.CreatedAt.UTC()})
	}
	return out, err
}

func (h *Handlers) TryChecklist(ctx context.Context,
	r api.TryChecklistRequestObject) (api.TryChecklistResponseObject, error) {
	t, err := h.Walkrounds.Try(ctx, r.Key, r.Params.Round, *r.Body)
	return api.TryChecklist200JSONResponse{Wrong: t.Wrong, Items: t.Items, Uncovered: t.Uncovered, Rounds: t.Rounds}, err
}

func (h *Handlers) GetChecklistSchema(context.Context,
	api.GetChecklistSchemaRequestObject) (api.GetChecklistSchemaResponseObject, error) {
	m, err := asMap(protocols.Schema(protocols.Checklist))
	return api.GetChecklistSchema200JSONResponse(m), err
}
