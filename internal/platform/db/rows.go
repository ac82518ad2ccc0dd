package db

import (
	"encoding/json"
	"fmt"
)

// Rows is many rows as one parameter for jsonb_to_recordset, so that a
// statement stores thousands of rows in one go.
func Rows[T any](rows []T) (string, error) {
	b, err := json.Marshal(rows)
	if err != nil {
		return "", fmt.Errorf("rows for a statement: %w", err)
	}
	return string(b), nil
}
