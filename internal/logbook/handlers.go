package logbook

import (
	"bytes"
	"context"
	"encoding/hex"
	"io"
	"strconv"
	"strings"

	"github.com/gin-gonic/gin"
	openapi "github.com/oapi-codegen/runtime/types"

	"mainstay/api"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
)

// Handlers serve the log and the chain of records.
type Handlers struct{ Log *Service }

func (h *Handlers) ListLog(ctx context.Context, r api.ListLogRequestObject) (api.ListLogResponseObject, error) {
	p := r.Params
	lines, next, err := h.Log.Page(ctx, Filter{Words: value(p.Q), Aircraft: p.Aircraft, Pilot: p.Pilot,
		From: api.TimeOf(p.From), To: api.TimeOf(p.To)}, value(p.Cursor))
	out := api.ListLog200JSONResponse{Flights: []api.LogEntry{}, NextCursor: next}
	for _, l := range lines {
		out.Flights = append(out.Flights, api.LogEntry{Id: l.ID, TookOffAt: l.TookOffAt, Aircraft: l.Aircraft,
			Type: l.TypeName, Pilot: l.Pilot, Packs: append([]string{}, l.Packs...),
			Seconds: l.Seconds, Landings: l.Landings, Purpose: l.Purpose, Remarks: l.Remarks, Events: l.Events,
			Source: l.Source})
	}
	return out, err
}

func (h *Handlers) LogTotals(ctx context.Context, r api.LogTotalsRequestObject) (api.LogTotalsResponseObject, error) {
	p := r.Params
	t, err := h.Log.Totals(ctx, Filter{Words: value(p.Q), Aircraft: p.Aircraft, Pilot: p.Pilot, From: api.TimeOf(p.From),
		To: api.TimeOf(p.To)})
	return api.LogTotals200JSONResponse{All: wireTotal(t.All), ByPilot: wireTotals(t.Pilots),
		ByAircraft: wireTotals(t.Aircraft), ByType: wireTotals(t.Types), ByPack: wireTotals(t.Packs)}, err
}

func (h *Handlers) LogWeeks(ctx context.Context, r api.LogWeeksRequestObject) (api.LogWeeksResponseObject, error) {
	p := r.Params
	weeks, err := h.Log.Weeks(ctx, Filter{Words: value(p.Q), Aircraft: p.Aircraft, Pilot: p.Pilot,
		From: api.TimeOf(p.From), To: api.TimeOf(p.To)})
	out := api.LogWeeks200JSONResponse{Weeks: []api.LogWeek{}}
	for _, w := range weeks {
		out.Weeks = append(out.Weeks, api.LogWeek{From: openapi.Date{Time: w.From}, Flights: w.Flights, Seconds: w.Seconds})
	}
	return out, err
}

func wireTotal(t Total) api.Total {
	return api.Total{Name: t.Name, Seconds: int(t.Seconds), Flights: t.Flights, Landings: t.Landings}
}

func wireTotals(ts []Total) []api.Total {
	out := []api.Total{}
	for _, t := range ts {
		out = append(out, wireTotal(t))
	}
	return out
}

func (h *Handlers) ExportLog(ctx context.Context, r api.ExportLogRequestObject) (api.ExportLogResponseObject, error) {
	p := r.Params
	var b bytes.Buffer
	err := h.Log.Export(ctx, Filter{Words: value(p.Q), Aircraft: p.Aircraft, Pilot: p.Pilot, From: api.TimeOf(p.From),
		To: api.TimeOf(p.To)}, &b)
	return api.ExportLog200TextcsvResponse{Body: &b, ContentLength: int64(b.Len())}, err
}

func (h *Handlers) ImportLog(ctx context.Context, r api.ImportLogRequestObject) (api.ImportLogResponseObject, error) {
	rep, err := h.Log.Import(ctx, r.Body)
	return api.ImportLog200JSONResponse(rep), err
}

func (h *Handlers) VerifyRecords(ctx context.Context,
	r api.VerifyRecordsRequestObject) (api.VerifyRecordsResponseObject, error) {
	var check records.Check
	if r.Body != nil && r.Body.Head != nil && strings.TrimSpace(*r.Body.Head) != "" {
		known, err := records.ParseHead(*r.Body.Head)
		if err != nil {
			return nil, fault.Bad("head", "This head cannot be read: %v.", err)
		}
		check.Head = &known
	}
	res, err := records.Verify(ctx, h.Log.DB, check)
	out := api.VerifyRecords200JSONResponse{Ok: res.OK(), Count: int(res.Count), Sentence: res.Sentence(),
		Head: wireHead(res.Head)}
	if res.FirstBad != 0 {
		n := int(res.FirstBad)
		out.FirstBad = &n
	}
	return out, err
}

func wireHead(h records.Head) api.ChainHead {
	return api.ChainHead{Place: h.Place(), Words: h.Words(), Hash: hex.EncodeToString(h.Hash)}
}

// ExportRecords streams: the chain may be long.
func (h *Handlers) ExportRecords(ctx context.Context,
	_ api.ExportRecordsRequestObject) (api.ExportRecordsResponseObject, error) {
	if g, ok := ctx.(*gin.Context); ok {
		ctx = g.Request.Context() // that of gin is used again for the next request
	}
	r, w := io.Pipe()
	go func() { _ = w.CloseWithError(records.Export(ctx, h.Log.DB, w)) }()
	return api.ExportRecords200ApplicationxNdjsonResponse{Body: r}, nil
}

func (h *Handlers) GetHead(ctx context.Context, _ api.GetHeadRequestObject) (api.GetHeadResponseObject, error) {
	head, err := records.NewestHead(ctx, h.Log.DB.WithContext(ctx))
	if err != nil {
		return nil, err
	}
	out := wireHead(head)
	out.SentAt, out.Trouble, err = h.Log.People.HeadsSent(ctx)
	return api.GetHead200JSONResponse(out), err
}

func (h *Handlers) ListRecords(ctx context.Context,
	r api.ListRecordsRequestObject) (api.ListRecordsResponseObject, error) {
	f := records.Filter{Words: value(r.Params.Q)}
	if c := value(r.Params.Cursor); c != "" {
		var err error
		if f.Before, err = strconv.ParseInt(c, 10, 64); err != nil {
			return nil, fault.Bad("cursor", "This page does not exist; start again from the top.")
		}
	}
	if r.Params.Aircraft != nil {
		f.Subject = *r.Params.Aircraft
	}
	c, _, err := h.Log.People.Crew(ctx)
	if err != nil {
		return nil, err
	}
	if r.Params.From != nil {
		f.From = dayIn(r.Params.From.Time, c.Location())
	}
	if r.Params.To != nil {
		f.To = dayIn(r.Params.To.AddDate(0, 0, 1), c.Location())
	}
	lines, err := records.Page(ctx, h.Log.DB, f, pageSize+1)
	out := api.ListRecords200JSONResponse{Records: []api.Record{}}
	if len(lines) > pageSize {
		lines = lines[:pageSize]
		out.NextCursor = strconv.FormatInt(lines[pageSize-1].Seq, 10)
	}
	for _, l := range lines {
		out.Records = append(out.Records, api.Record{Seq: int(l.Seq), Kind: l.Kind, At: l.At, By: l.By, Signed: l.Signed,
			Subject: l.Subject, Summary: l.Summary, Hash: l.Hash})
	}
	return out, err
}

func value(s *string) string {
	if s == nil {
		return ""
	}
	return *s
}
