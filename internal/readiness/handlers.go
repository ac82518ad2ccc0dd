package readiness

import (
	"context"

	"mainstay/api"
	"mainstay/core/crew"
)

// Handlers serve the practice log.
type Handlers struct{ Readiness *Service }

func (h *Handlers) GetReadiness(ctx context.Context,
	r api.GetReadinessRequestObject) (api.GetReadinessResponseObject, error) {
	p, err := h.Readiness.People.Get(ctx, r.Id)
	if err != nil {
		return nil, err
	}
	types, ready, log, err := h.Readiness.Types(ctx, r.Id)
	s := crew.UsualSyllabus
	out := api.GetReadiness200JSONResponse{Person: p.Name, Types: []api.TypeReadiness{}, Log: []api.PracticeLogged{},
		NeedEmpty: s.EmptyPacks, NeedLoaded: s.LoadedPacks, NeedLandings: s.Landings}
	for i, t := range types {
		x := ready[i]
		out.Types = append(out.Types, api.TypeReadiness{TypeKey: t.Key, Type: t.Name, Tank: t.TankL > 0, Open: x.Open,
			EmptyPacks: x.EmptyPacks, LoadedPacks: x.LoadedPacks, Landings: x.Landings, NoseIn: x.NoseIn,
			Missing: append([]string{}, x.Missing...)})
	}
	for _, l := range log {
		out.Log = append(out.Log, api.PracticeLogged{Id: l.ID, TypeKey: l.TypeKey, Phase: l.Phase, Packs: l.Packs,
			Landings: l.Landings, NoseIn: l.NoseIn, FlownOn: *api.DateOf(&l.FlownOn), Note: l.Note, SignedBy: l.SignedBy})
	}
	return out, err
}

func (h *Handlers) LogPractice(ctx context.Context,
	r api.LogPracticeRequestObject) (api.LogPracticeResponseObject, error) {
	b := r.Body
	return api.LogPractice201JSONResponse{MadeJSONResponse: api.MadeJSONResponse{Id: r.Body.Id}}, h.Readiness.Log(ctx,
		Practice{ID: b.Id, PersonID: r.Id, TypeKey: b.TypeKey, Phase: string(b.Phase), Packs: b.Packs, Landings: b.Landings,
			NoseIn: b.NoseIn, FlownOn: b.FlownOn.Time, Note: b.Note}, b.Pin)
}
