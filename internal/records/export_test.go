package records

import (
	"context"

	"gorm.io/gorm"
)

// VerifyInside checks inside a transaction that will be undone.
func VerifyInside(ctx context.Context, tx *gorm.DB) (res Result, err error) {
	return res, verify(ctx, tx, Check{}, &res)
}
