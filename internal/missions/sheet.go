package missions

import (
	"context"

	"github.com/google/uuid"

	"mainstay/internal/platform/fault"
)

// Sheet is the sheet of a job as PDF.
func (s *Service) Sheet(_ context.Context, _ uuid.UUID) ([]byte, error) {
	return nil, fault.Missing("sheet")
}
