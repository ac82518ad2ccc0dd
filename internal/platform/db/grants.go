package db

import (
	"context"
	"errors"
	"fmt"

	"github.com/jackc/pgx/v5"
	"gorm.io/gorm"
)

// appendOnly are tables to which the application may add, and nothing else.
var appendOnly = []string{"records", "seals", "row_states", "flight_corrections"}

// Grant lets the role of the application read and write the crew's data, and
// no more: it owns nothing, so that it can switch no trigger off, and may only
// add to the chain. g is opened as the owner.
func Grant(ctx context.Context, g *gorm.DB, role string) error {
	var there bool
	if err := g.WithContext(ctx).Raw("select exists (select from pg_roles where rolname = ?)",
		role).Scan(&there).Error; err != nil {
		return err
	}
	if !there {
		return fmt.Errorf("the database has no role %q: let its owner make it with \"create role %s login password '…'\", then migrate again",
			role, role)
	}
	name := pgx.Identifier{role}.Sanitize()
	stmts := []string{
		"grant usage on schema public to " + name,
		"grant select, insert, update, delete on all tables in schema public to " + name,
		"grant usage, select, update on all sequences in schema public to " + name,
		"revoke insert, update, delete on goose_db_version from " + name,
	}
	for _, t := range appendOnly {
		stmts = append(stmts, fmt.Sprintf("revoke update, delete on %s from %s", t, name))
	}
	return Tx(ctx, g, func(_ context.Context, tx *gorm.DB) error {
		for _, s := range stmts {
			if err := tx.Exec(s).Error; err != nil {
				return fmt.Errorf("rights of %s: %w", role, err)
			}
		}
		return nil
	})
}

// ErrOwner says that the application runs as a role that could switch off what
// guards the records.
var ErrOwner = errors.New("this server uses the database as the owner of its tables, or as a superuser, who can switch off what guards the records; give it a role of its own (docs/operations.md)")

// OwnsNothing fails with ErrOwner when the role in use could switch triggers off.
func OwnsNothing(ctx context.Context, g *gorm.DB) error {
	var owner bool
	err := g.WithContext(ctx).Raw(`select exists (select from pg_class where relname in ('records', 'seals', 'row_states', 'flights') and pg_has_role(current_user, relowner, 'member'))
		or (select rolsuper from pg_roles where rolname = current_user)`).Scan(&owner).Error
	if err == nil && owner {
		return ErrOwner
	}
	return err
}

// Role is the name of the role in a database address.
func Role(url string) (string, error) {
	c, err := pgx.ParseConfig(url)
	if err != nil {
		return "", errors.New("the address of the database cannot be read")
	}
	return c.User, nil
}
