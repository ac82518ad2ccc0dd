package main

import (
	"context"
	"fmt"
	"io"

	"github.com/spf13/cobra"

	"mainstay/internal/platform/db"
	"mainstay/internal/records"
)

func migrateCommand() *cobra.Command {
	return &cobra.Command{Use: "migrate", Short: "Bring the database up to this version", Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			c, err := load()
			if err != nil {
				return err
			}
			return c.migrate(cmd.Context(), cmd.OutOrStdout())
		}}
}

// migrate changes the form of the database, as its owner, and gives the role of
// the application what it needs. What was wrong before stays known.
func (c config) migrate(ctx context.Context, say io.Writer) error {
	url := c.OwnerURL
	if url == "" {
		url = c.DatabaseURL
	}
	g, err := records.Open(url, db.Options{Patient: true, Size: 4})
	if err != nil {
		return err
	}
	defer db.Close(g)
	before, err := records.StatesBefore(ctx, g)
	if err != nil {
		before = "It could not be checked: " + err.Error()
	}
	if before != "" {
		fmt.Fprintln(say, "Before:", before)
	}
	if err := db.Migrate(ctx, g); err != nil {
		return err
	}
	if err := records.Baseline(ctx, g, before); err != nil {
		return err
	}
	owner, err := db.Role(url)
	if err != nil {
		return err
	}
	app, err := db.Role(c.DatabaseURL)
	if err != nil || app == owner {
		return err
	}
	return db.Grant(ctx, g, app)
}
