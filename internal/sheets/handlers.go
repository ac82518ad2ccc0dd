package sheets

import (
	"bytes"
	"context"

	"mainstay/api"
)

// Handlers serve the sheets.
type Handlers struct{ Sheets *Service }

func (h *Handlers) GetJobSheet(ctx context.Context,
	r api.GetJobSheetRequestObject) (api.GetJobSheetResponseObject, error) {
	b, err := h.Sheets.Job(ctx, r.Id)
	if err != nil {
		return nil, err
	}
	return api.GetJobSheet200ApplicationpdfResponse{Body: bytes.NewReader(b), ContentLength: int64(len(b))}, nil
}
