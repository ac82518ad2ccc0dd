package spraying

import (
	"context"

	"github.com/google/uuid"
	"gorm.io/gorm"
)

// Kept and Lock are the two halves of a press on a plan, for tests of what happens
// between them.
func Kept(s *Service, ctx context.Context, job, aircraft uuid.UUID) (Plan, error) {
	return s.kept(ctx, job, aircraft)
}

func Lock(tx *gorm.DB, p Plan) error { return p.lock(tx) }
