package api

import (
	"time"

	openapi_types "github.com/oapi-codegen/runtime/types"
)

// DateOf writes a civil date (UTC midnight) for the wire; nil stays nil.
func DateOf(t *time.Time) *openapi_types.Date {
	if t == nil {
		return nil
	}
	return &openapi_types.Date{Time: *t}
}

// TimeOf reads a civil date from the wire; nil stays nil.
func TimeOf(d *openapi_types.Date) *time.Time {
	if d == nil {
		return nil
	}
	return &d.Time
}
