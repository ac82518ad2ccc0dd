package practice

import (
	"context"

	"mainstay/api"
	"mainstay/core/practice"
)

// Handlers answer the requests about practices.
type Handlers struct{ Practice *Service }

func (h *Handlers) ListPractices(ctx context.Context,
	_ api.ListPracticesRequestObject) (api.ListPracticesResponseObject, error) {
	all, err := h.Practice.All(ctx)
	out := api.ListPractices200JSONResponse{Practices: []api.PracticeKept{}}
	for _, k := range all {
		w := api.PracticeKept{Id: api.PracticeID(k.ID), Asks: k.Asks, Schools: []api.PracticeSchool{}, Default: k.Default,
			Why: k.Why, Where: k.Where, Chosen: k.Chosen, Own: k.Own, Overrule: []api.PracticeOverrule{}}
		for _, s := range k.Schools {
			w.Schools = append(w.Schools, api.PracticeSchool{Id: s.ID, Says: s.Says,
				Numbers: append([]practice.Number{}, s.Numbers...)})
		}
		for _, t := range k.Overrule {
			w.Overrule = append(w.Overrule, api.PracticeOverrule{TypeKey: t.Key, Name: t.Name})
		}
		out.Practices = append(out.Practices, w)
	}
	return out, err
}

func (h *Handlers) ChoosePractice(ctx context.Context,
	r api.ChoosePracticeRequestObject) (api.ChoosePracticeResponseObject, error) {
	return api.ChoosePractice204Response{}, h.Practice.Choose(ctx, practice.ID(r.Id),
		practice.Choice{School: r.Body.School, Numbers: r.Body.Numbers}, r.Body.Why, r.Body.Version)
}

func (h *Handlers) CalibrateCompass(ctx context.Context,
	r api.CalibrateCompassRequestObject) (api.CalibrateCompassResponseObject, error) {
	return api.CalibrateCompass201JSONResponse{MadeJSONResponse: api.MadeJSONResponse{Id: r.Body.Id}},
		h.Practice.Calibrate(ctx,
			Calibration{ID: r.Body.Id, AircraftID: r.Id, SiteID: r.Body.SiteId, MetalM: r.Body.MetalM, Note: r.Body.Note})
}
