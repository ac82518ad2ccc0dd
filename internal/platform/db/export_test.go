package db

import "github.com/jackc/pgx/v5/pgconn"

// Sample is the driver's error for a broken constraint.
func Sample(constraint string) error {
	return &pgconn.PgError{Code: "23505", ConstraintName: constraint}
}
