package airspace

import (
	"context"
	"fmt"
	"time"

	"github.com/google/uuid"

	"mainstay/api"
	"mainstay/core/airspace"
	"mainstay/core/judge"
)

// Handlers serve the airspace.
type Handlers struct{ Airspace *Service }

func (h *Handlers) GetAirspace(ctx context.Context,
	r api.GetAirspaceRequestObject) (api.GetAirspaceResponseObject, error) {
	s := h.Airspace
	from, heightM := s.Clock.Now(), 0.0
	if r.Params.From != nil {
		from = *r.Params.From
	}
	to := from.Add(2 * time.Hour)
	if r.Params.To != nil && r.Params.To.After(from) {
		to = *r.Params.To
	}
	if r.Params.HeightM != nil {
		heightM = *r.Params.HeightM
	}
	if err := s.Refresh(ctx, r.Id); err != nil {
		return nil, err
	}
	seen, err := s.Over(ctx, r.Id, heightM, from, to)
	if err != nil {
		return nil, err
	}
	out := api.GetAirspace200JSONResponse{Verdict: judge.Worst(seen.Findings), Findings: seen.Findings,
		Zones: []api.ZoneSeen{}, Authorisations: []api.Authorisation{}, LookedAt: seen.Looked.LookedAt,
		LookedBy: seen.Looked.ByName, Source: seen.Looked.Source,
		Desk: s.Desk != nil, From: from.UTC(), To: to.UTC(), HeightM: seen.HeightM}
	if out.Findings == nil {
		out.Findings = []judge.Finding{}
	}
	for _, z := range seen.Zoned {
		on := seen.Zones[z.Zone.ID]
		w := api.ZoneSeen{Id: on.ID, Name: on.Name, Class: on.Class, FloorM: on.FloorM, CeilingM: on.CeilingM,
			FloorDatum: api.ZoneDatum(datum(on.FloorDatum)), CeilingDatum: api.ZoneDatum(datum(on.CeilingDatum)),
			From: on.FromAt, To: on.ToAt, Calls: on.Calls, Source: on.Source, Inside: z.Inside, BorderM: z.BorderM,
			Verdict: z.Verdict, Sentence: z.Sentence,
			Outline: on.Outline, Holes: on.Holes, MayAsk: z.Zone.Class.NeedsAuthorisation() || z.Zone.Class.NeedsPermission()}
		if w.Holes == nil {
			w.Holes = [][]api.Place{}
		}
		out.Zones = append(out.Zones, w)
	}
	for _, a := range seen.Grants {
		out.Authorisations = append(out.Authorisations, wire(a, s.Clock.Now()))
	}
	return out, nil
}

// datum is what a height is counted from; above ground when nothing is said.
func datum(d string) string {
	if d == "" {
		return string(airspace.AboveGround)
	}
	return d
}

// wire is an authorisation with what to say about it now.
func wire(a Authorisation, now time.Time) api.Authorisation {
	out := api.Authorisation{Id: a.ID, ZoneId: a.ZoneID, Zone: a.Zone, State: api.AuthorisationState(a.State),
		Number: a.Number, CeilingM: a.CeilingM, From: a.FromAt.UTC(), To: a.ToAt.UTC(), Why: a.Why, AskedAt: a.AskedAt.UTC(),
		AskedBy: a.AskedBy, Calls: []api.Call{}, NeedsCalls: a.NeedsCalls}
	for _, c := range a.Calls {
		out.Calls = append(out.Calls, api.Call{Kind: api.CallKind(c.Kind), How: c.How, At: c.At.UTC(), By: c.ByName})
	}
	g := a.fact()
	out.Verdict, out.Sentence = says(a, g, now)
	return out
}

func says(a Authorisation, g airspace.Grant, now time.Time) (judge.Verdict, string) {
	switch {
	case a.State == asked:
		return judge.Stop, "Asked for, not answered yet. Nothing is allowed until it is."
	case a.State == refused:
		return judge.Stop, "Refused: " + g.Refused
	case a.State == withdrawn:
		return judge.Watch, "Withdrawn."
	case now.After(a.ToAt):
		if a.NeedsCalls && g.Started != nil && (g.Ended == nil || g.Ended.Before(*g.Started)) {
			return judge.Watch, "It has ended, and the call at the end has not been made."
		}
		return judge.Watch, "It has ended."
	case a.NeedsCalls && g.Started == nil:
		return judge.Watch, fmt.Sprintf("Granted up to %.0f m. Call before the start.", a.CeilingM)
	case a.NeedsCalls && g.Ended != nil && !g.Ended.Before(*g.Started):
		return judge.Watch, "Granted; the end was called. Call again before another start."
	case a.NeedsCalls:
		return judge.Clear, fmt.Sprintf("Granted up to %.0f m; the start was called. Call again at the end.", a.CeilingM)
	}
	return judge.Clear, fmt.Sprintf("Granted up to %.0f m.", a.CeilingM)
}

func (h *Handlers) LookAirspace(ctx context.Context,
	r api.LookAirspaceRequestObject) (api.LookAirspaceResponseObject, error) {
	return api.LookAirspace204Response{}, h.Airspace.Look(ctx, r.Id)
}

func (h *Handlers) ImportZones(ctx context.Context,
	r api.ImportZonesRequestObject) (api.ImportZonesResponseObject, error) {
	rep, err := h.Airspace.Import(ctx, r.Id, r.Body)
	return api.ImportZones200JSONResponse(rep), err
}

func (h *Handlers) RemoveZone(ctx context.Context,
	r api.RemoveZoneRequestObject) (api.RemoveZoneResponseObject, error) {
	return api.RemoveZone204Response{}, h.Airspace.Remove(ctx, r.Id)
}

func (h *Handlers) AskAuthorisation(ctx context.Context,
	r api.AskAuthorisationRequestObject) (api.AskAuthorisationResponseObject, error) {
	b := r.Body
	return api.AskAuthorisation204Response{}, h.Airspace.Ask(ctx,
		New{ID: r.Id, Site: b.SiteId, Zone: b.ZoneId, Number: b.Number, CeilingM: b.CeilingM, From: b.From, To: b.To})
}

func (h *Handlers) WithdrawAuthorisation(ctx context.Context,
	r api.WithdrawAuthorisationRequestObject) (api.WithdrawAuthorisationResponseObject, error) {
	return api.WithdrawAuthorisation204Response{}, h.Airspace.Withdraw(ctx, r.Id)
}

func (h *Handlers) CallDesk(ctx context.Context, r api.CallDeskRequestObject) (api.CallDeskResponseObject, error) {
	return api.CallDesk201JSONResponse{MadeJSONResponse: api.MadeJSONResponse{Id: r.Body.Id}}, h.Airspace.Call(ctx, r.Id,
		Call{ID: uuid.UUID(r.Body.Id), Kind: string(r.Body.Kind), How: string(r.Body.How)})
}
