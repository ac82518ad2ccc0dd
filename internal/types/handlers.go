package types

import (
	"context"

	"mainstay/api"
	"mainstay/internal/fleet"
)

// Handlers serve the types.
type Handlers struct{ Types *Service }

// AddType takes in a type.
func (h *Handlers) AddType(ctx context.Context, r api.AddTypeRequestObject) (api.AddTypeResponseObject, error) {
	like := ""
	if r.Params.Like != nil {
		like = *r.Params.Like
	}
	if err := h.Types.Add(ctx, *r.Body, like); err != nil {
		return nil, err
	}
	return api.AddType201JSONResponse(fleet.WireType(*r.Body)), nil
}

// TryType says what a profile would be.
func (h *Handlers) TryType(ctx context.Context, r api.TryTypeRequestObject) (api.TryTypeResponseObject, error) {
	t := *r.Body
	got, err := h.Types.Try(ctx, t)
	out := api.TryType200JSONResponse{Wrong: []api.WrongField{}, Like: got.Like}
	for _, w := range got.Wrong {
		out.Wrong = append(out.Wrong, api.WrongField{Field: w.Path, Sentence: w.Sentence})
	}
	if t.Drawable() {
		e := fleet.WireType(t)
		out.Entry = &e
	}
	return out, err
}
