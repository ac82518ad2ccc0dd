package rulebook

import (
	"context"

	"github.com/google/uuid"

	"mainstay/api"
	"mainstay/core/judge"
	"mainstay/core/rules"
)

// Handlers serve the rule book.
type Handlers struct{ Rules *Service }

func (h *Handlers) GetRules(ctx context.Context, _ api.GetRulesRequestObject) (api.GetRulesResponseObject, error) {
	b, err := h.Rules.Book(ctx)
	out := api.GetRules200JSONResponse{Chosen: b.Pack.Name, SightM: b.Crew.SightM, Packs: rules.Packs,
		Practice: rules.Practice, Local: []api.LocalRule{}, Caution: rules.Caution}
	for _, l := range b.Local {
		id, perr := uuid.Parse(l.ID)
		if perr != nil {
			return nil, perr
		}
		out.Local = append(out.Local, api.LocalRule{Id: id, Citation: l.Citation, Statement: l.Statement,
			Question: l.Question, Work: append([]string{}, l.Work...), Verdict: l.Verdict, Version: l.Version,
			ChangedBy: l.ChangedBy})
	}
	return out, err
}

func (h *Handlers) ChooseRules(ctx context.Context,
	r api.ChooseRulesRequestObject) (api.ChooseRulesResponseObject, error) {
	return api.ChooseRules204Response{}, h.Rules.Choose(ctx, Choice{Pack: string(r.Body.Pack), SightM: r.Body.SightM},
		r.Body.Version)
}

func (h *Handlers) GetCoverage(ctx context.Context,
	_ api.GetCoverageRequestObject) (api.GetCoverageResponseObject, error) {
	cs, err := h.Rules.Coverage(ctx)
	out := api.GetCoverage200JSONResponse{Source: rules.AdvisorySource, Types: []api.CoverageOf{}}
	for _, c := range cs {
		out.Types = append(out.Types, api.CoverageOf{TypeKey: c.Type.Key, Type: c.Type.Name, ListVersion: c.Version,
			Items: c.Items})
	}
	return out, err
}

func (h *Handlers) SaveLocalRule(ctx context.Context,
	r api.SaveLocalRuleRequestObject) (api.SaveLocalRuleResponseObject, error) {
	b := r.Body
	l := rules.Local{ID: r.Id.String(), Citation: b.Citation, Statement: b.Statement, Question: b.Question,
		Work: []string{}, Verdict: b.Verdict}
	for _, w := range b.Work {
		l.Work = append(l.Work, string(w))
	}
	return api.SaveLocalRule204Response{}, h.Rules.SaveLocal(ctx, l, b.Version)
}

func (h *Handlers) RemoveLocalRule(ctx context.Context,
	r api.RemoveLocalRuleRequestObject) (api.RemoveLocalRuleResponseObject, error) {
	return api.RemoveLocalRule204Response{}, h.Rules.RemoveLocal(ctx, r.Id)
}

func (h *Handlers) ListReports(ctx context.Context,
	r api.ListReportsRequestObject) (api.ListReportsResponseObject, error) {
	rs, next, err := h.Rules.Reports(ctx, api.Value(r.Params.Cursor))
	if err != nil {
		return nil, err
	}
	b, err := h.Rules.Book(ctx)
	out := api.ListReports200JSONResponse{Reports: []api.Report{}, NextCursor: next}
	for _, r := range b.Pack.Rules {
		if r.ID == judge.RuleAccidentReport {
			out.Statement, out.Citation = r.Statement, r.Citation
		}
	}
	for _, x := range rs {
		out.Reports = append(out.Reports, api.Report{Id: x.ID, AircraftId: x.AircraftID, What: x.What,
			HappenedAt: x.HappenedAt.UTC(), DueAt: x.DueAt.UTC(), ReportedAt: x.ReportedAt, Reference: x.Reference,
			RaisedBy: x.RaisedBy, Verdict: x.Verdict(h.Rules.Clock.Now())})
	}
	return out, err
}

func (h *Handlers) RaiseReport(ctx context.Context,
	r api.RaiseReportRequestObject) (api.RaiseReportResponseObject, error) {
	return api.RaiseReport201JSONResponse{MadeJSONResponse: api.MadeJSONResponse{Id: r.Body.Id}}, h.Rules.Raise(ctx,
		Report{ID: r.Body.Id, AircraftID: r.Body.AircraftId, What: r.Body.What, HappenedAt: r.Body.HappenedAt})
}

func (h *Handlers) ReportDone(ctx context.Context,
	r api.ReportDoneRequestObject) (api.ReportDoneResponseObject, error) {
	return api.ReportDone204Response{}, h.Rules.Done(ctx, r.Id, r.Body.Reference)
}
