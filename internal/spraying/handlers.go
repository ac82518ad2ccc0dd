package spraying

import (
	"bytes"
	"context"
	"encoding/json"
	"time"

	"github.com/google/uuid"

	"mainstay/api"
	"mainstay/core/crew"
	"mainstay/core/judge"
	"mainstay/internal/formats/spraycsv"
	"mainstay/internal/outbox"
	"mainstay/internal/people"
	"mainstay/internal/planning"
)

// Handlers serve the spray plans.
type Handlers struct{ Spraying *Service }

func (h *Handlers) GetSprayPlan(ctx context.Context,
	r api.GetSprayPlanRequestObject) (api.GetSprayPlanResponseObject, error) {
	p, err := h.Spraying.Get(ctx, r.Id, r.Aircraft)
	return api.GetSprayPlan200JSONResponse(p.wire(ctx)), err
}

func (h *Handlers) TrySprayPlan(ctx context.Context,
	r api.TrySprayPlanRequestObject) (api.TrySprayPlanResponseObject, error) {
	p, err := h.Spraying.Try(ctx, r.Id, r.Aircraft, *r.Body)
	return api.TrySprayPlan200JSONResponse(p.wire(ctx)), err
}

func (h *Handlers) SaveSprayPlan(ctx context.Context,
	r api.SaveSprayPlanRequestObject) (api.SaveSprayPlanResponseObject, error) {
	if err := h.Spraying.Save(ctx, r.Body.Id, r.Id, r.Aircraft, r.Body.Wish, r.Body.Version); err != nil {
		return nil, err
	}
	p, err := h.Spraying.Get(ctx, r.Id, r.Aircraft)
	return api.SaveSprayPlan200JSONResponse(p.wire(ctx)), err
}

func (h *Handlers) PutSprayed(ctx context.Context,
	r api.PutSprayedRequestObject) (api.PutSprayedResponseObject, error) {
	ctx, err := outbox.With(ctx, r.Params.PressId, r.Params.PressAgo, r.Params.PressBy)
	if err != nil {
		return nil, err
	}
	seen := 0
	if r.Body.Version != nil {
		seen = *r.Body.Version
	}
	parts := make([]Done, len(r.Body.Parts))
	for i, x := range r.Body.Parts {
		parts[i] = Done{ID: x.Id, Pass: x.Pass, FromShare: x.FromShare, ToShare: x.ToShare, FlightID: r.Body.FlightId}
	}
	if err := h.Spraying.Spray(ctx, r.Id, r.Aircraft, parts, seen); err != nil {
		return nil, err
	}
	p, err := h.Spraying.Get(ctx, r.Id, r.Aircraft)
	return api.PutSprayed200JSONResponse(p.wire(ctx)), err
}

func (h *Handlers) TakeSprayedBack(ctx context.Context,
	r api.TakeSprayedBackRequestObject) (api.TakeSprayedBackResponseObject, error) {
	ctx, err := outbox.With(ctx, r.Params.PressId, r.Params.PressAgo, r.Params.PressBy)
	if err != nil {
		return nil, err
	}
	if err := h.Spraying.Unspray(ctx, r.Id, r.Aircraft, r.Body.Ids); err != nil {
		return nil, err
	}
	p, err := h.Spraying.Get(ctx, r.Id, r.Aircraft)
	return api.TakeSprayedBack200JSONResponse(p.wire(ctx)), err
}

func (h *Handlers) SaveFill(ctx context.Context, r api.SaveFillRequestObject) (api.SaveFillResponseObject, error) {
	ctx, err := outbox.With(ctx, r.Params.PressId, r.Params.PressAgo, r.Params.PressBy)
	if err != nil {
		return nil, err
	}
	b := r.Body
	t := Tick{ID: b.Id, Version: b.Version, Line: b.Line, In: b.In == nil || *b.In, MassKg: b.MassKg}
	if b.What != nil && b.Amount != nil {
		t.What, t.Amount = *b.What, *b.Amount
	}
	if b.SecondLogin != nil && *b.SecondLogin != "" {
		t.SecondLogin = *b.SecondLogin
		if b.SecondPin != nil {
			t.SecondPIN = *b.SecondPin
		}
	}
	if err := h.Spraying.Fill(ctx, r.Id, r.Aircraft, r.Number, t); err != nil {
		return nil, err
	}
	p, err := h.Spraying.Get(ctx, r.Id, r.Aircraft)
	return api.SaveFill200JSONResponse(p.wire(ctx)), err
}

func (h *Handlers) ListNozzles(ctx context.Context,
	_ api.ListNozzlesRequestObject) (api.ListNozzlesResponseObject, error) {
	out, err := h.nozzles(ctx)
	return api.ListNozzles200JSONResponse(out), err
}

func (h *Handlers) SaveNozzle(ctx context.Context,
	r api.SaveNozzleRequestObject) (api.SaveNozzleResponseObject, error) {
	b := r.Body
	n := Nozzle{Kind: planning.Kind{ID: r.Id, Key: b.Key, Name: b.Name, Active: b.Active, Version: b.Version},
		LeastLPM: b.LeastLMin, MostLPM: b.MostLMin, LeastBar: b.LeastBar, MostBar: b.MostBar, Droplets: string(b.Droplets)}
	if err := h.Spraying.SaveNozzle(ctx, n); err != nil {
		return nil, err
	}
	out, err := h.nozzles(ctx)
	return api.SaveNozzle200JSONResponse(out), err
}

func (h *Handlers) nozzles(ctx context.Context) (api.Nozzles, error) {
	all, err := h.Spraying.Nozzles(ctx)
	out := api.Nozzles{Nozzles: []api.NozzleKind{}}
	for _, n := range all {
		out.Nozzles = append(out.Nozzles, api.NozzleKind{Id: n.ID, Key: n.Key, Name: n.Name, LeastLMin: n.LeastLPM,
			MostLMin: n.MostLPM, LeastBar: n.LeastBar, MostBar: n.MostBar, Droplets: api.NozzleKindDroplets(n.Droplets),
			Active: n.Active, Version: n.Version})
	}
	return out, err
}

func (h *Handlers) ListSprayChecks(ctx context.Context,
	r api.ListSprayChecksRequestObject) (api.ListSprayChecksResponseObject, error) {
	out, err := h.checks(ctx, r.Id)
	return api.ListSprayChecks200JSONResponse(out), err
}

func (h *Handlers) AddSprayCheck(ctx context.Context,
	r api.AddSprayCheckRequestObject) (api.AddSprayCheckResponseObject, error) {
	ctx, err := outbox.With(ctx, r.Params.PressId, r.Params.PressAgo, r.Params.PressBy)
	if err != nil {
		return nil, err
	}
	if err := h.Spraying.AddCheck(ctx, r.Id, *r.Body); err != nil {
		return nil, err
	}
	out, err := h.checks(ctx, r.Id)
	return api.AddSprayCheck201JSONResponse(out), err
}

func (h *Handlers) checks(ctx context.Context, aircraft uuid.UUID) (api.SprayChecks, error) {
	out := api.SprayChecks{Checks: []api.SprayCheck{}}
	if _, err := h.Spraying.Fleet.Aircraft(ctx, aircraft); err != nil {
		return out, err
	}
	all, err := h.Spraying.Checks(ctx, aircraft)
	if err != nil {
		return out, err
	}
	for _, c := range all {
		v, err := judge.ParseVerdict(c.Verdict)
		if err != nil {
			return out, err
		}
		w := api.SprayCheck{Id: c.ID, Kind: api.SprayCheckKind(c.Kind), Verdict: v, Sentence: c.Sentence, At: c.At.UTC(),
			By: c.ByName}
		if err := json.Unmarshal([]byte(c.Input), &w.Input); err != nil {
			return out, err
		}
		out.Checks = append(out.Checks, w)
	}
	c, _, err := h.Spraying.Jobs.People.Crew(ctx)
	out.Standing = Standing(all, h.Spraying.Clock.Now(), c.Location())
	return out, err
}

// mayPlan reports whether whoever asks may change plans.
func mayPlan(ctx context.Context) bool { return people.From(ctx).Has(crew.Pilot) }

func utc(t time.Time) *time.Time {
	if t.IsZero() {
		return nil
	}
	u := t.UTC()
	return &u
}

func (h *Handlers) GetSprayRecord(ctx context.Context,
	r api.GetSprayRecordRequestObject) (api.GetSprayRecordResponseObject, error) {
	out, err := h.records(ctx, r.Id, r.Aircraft)
	return api.GetSprayRecord200JSONResponse(out), err
}

func (h *Handlers) SignSprayRecord(ctx context.Context,
	r api.SignSprayRecordRequestObject) (api.SignSprayRecordResponseObject, error) {
	if err := h.Spraying.SignRecord(ctx, r.Id, r.Aircraft, Signing{
		ID: r.Body.Id, Neighbours: r.Body.Neighbours, Note: r.Body.Note, PIN: r.Body.Pin,
	}); err != nil {
		return nil, err
	}
	out, err := h.records(ctx, r.Id, r.Aircraft)
	return api.SignSprayRecord201JSONResponse(out), err
}

func (h *Handlers) records(ctx context.Context, job, aircraft uuid.UUID) (api.SprayRecords, error) {
	x, err := h.Spraying.Records(ctx, job, aircraft)
	out := api.SprayRecords{Draft: x.Draft, Missing: x.Missing, Signed: []api.SignedSprayRecord{}}
	for _, s := range x.Signed {
		out.Signed = append(out.Signed, api.SignedSprayRecord{Id: s.ID, Record: s.Record, At: s.At, By: s.ByName})
	}
	return out, err
}

func (h *Handlers) ExportSprayRecords(ctx context.Context,
	r api.ExportSprayRecordsRequestObject) (api.ExportSprayRecordsResponseObject, error) {
	c, _, err := h.Spraying.Jobs.People.Crew(ctx)
	if err != nil {
		return nil, err
	}
	day := func(d *time.Time) *time.Time {
		if d == nil {
			return nil
		}
		t := time.Date(d.Year(), d.Month(), d.Day(), 0, 0, 0, 0, c.Location())
		return &t
	}
	all, err := h.Spraying.Export(ctx, day(api.TimeOf(r.Params.From)), day(api.TimeOf(r.Params.To)))
	if err != nil {
		return nil, err
	}
	var b bytes.Buffer
	err = spraycsv.Write(&b, all)
	return api.ExportSprayRecords200TextcsvResponse{Body: &b, ContentLength: int64(b.Len())}, err
}
