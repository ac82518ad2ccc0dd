package spraying

import (
	"context"

	"mainstay/api"

	"github.com/google/uuid"
	"gorm.io/gorm"
)

// Kept and Lock are the two halves of a press on a plan, for tests of what happens
// between them.
func Kept(s *Service, ctx context.Context, job, aircraft uuid.UUID) (Plan, error) {
	return s.kept(ctx, job, aircraft)
}

func Lock(tx *gorm.DB, p Plan) error { return p.lock(tx) }

// Wire is a plan as it goes over the wire, for the tests.
func Wire(ctx context.Context, p Plan) api.SprayPlan { return p.wire(ctx) }
