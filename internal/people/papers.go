package people

import (
	"context"

	"mainstay/api"
	"mainstay/core/crew"
	"mainstay/core/rules"
)

func (h *Handlers) ListDocuments(ctx context.Context,
	_ api.ListDocumentsRequestObject) (api.ListDocumentsResponseObject, error) {
	docs, err := h.People.Documents(ctx)
	if err != nil {
		return nil, err
	}
	c, _, err := h.People.Crew(ctx)
	out := api.ListDocuments200JSONResponse{Documents: []api.Paper{}, Kinds: []api.DocumentSort{}}
	today := c.Day(h.People.Clock.Now())
	for _, d := range docs {
		out.Documents = append(out.Documents, api.Paper{Id: d.ID, Kind: api.PaperKind(d.Kind),
			Name: rules.DocumentKind(d.Kind).Name(), PersonId: d.PersonID, Number: d.Number, IssuedOn: api.DateOf(d.IssuedOn),
			ExpiresOn: api.DateOf(d.ExpiresOn),
			Rules:     d.Named(), Conditions: d.Conditions, Version: d.Version, InForce: d.Fact().InForce(today),
			ChangedBy: d.ChangedBy})
	}
	for _, k := range rules.AllDocumentKinds {
		out.Kinds = append(out.Kinds, api.DocumentSort{Id: api.DocumentSortId(k), Name: k.Name(), OfPerson: k.OfPerson()})
	}
	return out, err
}

func (h *Handlers) SaveDocument(ctx context.Context,
	r api.SaveDocumentRequestObject) (api.SaveDocumentResponseObject, error) {
	b := r.Body
	named := []string{}
	for _, x := range b.Rules {
		named = append(named, string(x))
	}
	return api.SaveDocument204Response{}, h.People.SaveDocument(ctx,
		Document{ID: r.Id, Kind: string(b.Kind), PersonID: b.PersonId, Number: b.Number, IssuedOn: api.TimeOf(b.IssuedOn),
			ExpiresOn: api.TimeOf(b.ExpiresOn), Rules: named, Conditions: b.Conditions, Version: b.Version})
}

func (h *Handlers) RemoveDocument(ctx context.Context,
	r api.RemoveDocumentRequestObject) (api.RemoveDocumentResponseObject, error) {
	return api.RemoveDocument204Response{}, h.People.RemoveDocument(ctx, r.Id)
}

func (h *Handlers) DeclareFit(ctx context.Context,
	r api.DeclareFitRequestObject) (api.DeclareFitResponseObject, error) {
	return api.DeclareFit201JSONResponse{MadeJSONResponse: api.MadeJSONResponse{Id: r.Body.Id}}, h.People.DeclareFit(ctx,
		r.Body.Id, r.Body.Against)
}

func (h *Handlers) GetFitness(ctx context.Context,
	_ api.GetFitnessRequestObject) (api.GetFitnessResponseObject, error) {
	c, _, err := h.People.Crew(ctx)
	if err != nil {
		return nil, err
	}
	fit, err := h.People.FitOn(ctx, c.Day(h.People.Clock.Now()))
	if err != nil {
		return nil, err
	}
	pack, err := rules.Find(c.RulePack)
	if err != nil {
		return nil, err
	}
	out := api.GetFitness200JSONResponse{Law: pack.Law.PersonCite + ": " + pack.Law.PersonWords + ".",
		Points: crew.AskedUnder(pack.Law.AlcoholAsks), Declared: []api.FitnessOf{}}
	for id, f := range fit {
		out.Declared = append(out.Declared, api.FitnessOf{PersonId: id, At: f.At.UTC(),
			Against: append([]string{}, f.Against...), Words: append([]string{}, f.Words()...)})
	}
	return out, nil
}
