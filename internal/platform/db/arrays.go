package db

import (
	"database/sql/driver"
	"fmt"
	"strings"

	"github.com/google/uuid"
)

// UUIDs is a uuid[] column.
type UUIDs []uuid.UUID

// Value writes the array.
func (u UUIDs) Value() (driver.Value, error) { return u.Literal(), nil }

// Literal is the array as PostgreSQL reads it from text.
func (u UUIDs) Literal() string {
	s := make([]string, len(u))
	for i, id := range u {
		s[i] = id.String()
	}
	return "{" + strings.Join(s, ",") + "}"
}

// Scan reads the array.
func (u *UUIDs) Scan(src any) error {
	var s string
	switch v := src.(type) {
	case string:
		s = v
	case []byte:
		s = string(v)
	default:
		return fmt.Errorf("uuid[] from %T", src)
	}
	*u = UUIDs{}
	s = strings.Trim(s, "{}")
	if s == "" {
		return nil
	}
	for _, f := range strings.Split(s, ",") {
		id, err := uuid.Parse(f)
		if err != nil {
			return err
		}
		*u = append(*u, id)
	}
	return nil
}
