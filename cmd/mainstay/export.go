package main

import (
	"os"

	"github.com/spf13/cobra"

	"mainstay/internal/platform/db"
	"mainstay/internal/records"
)

func exportCommand() *cobra.Command {
	return &cobra.Command{Use: "export FILE", Short: "Write all records with their contents as JSON Lines",
		Args: cobra.ExactArgs(1), RunE: func(cmd *cobra.Command, args []string) error {
			c, err := load()
			if err != nil {
				return err
			}
			g, err := records.Open(c.DatabaseURL, db.Options{Patient: true})
			if err != nil {
				return err
			}
			defer db.Close(g)
			f, err := os.OpenFile(args[0], os.O_CREATE|os.O_EXCL|os.O_WRONLY, 0o600)
			if err != nil {
				return err
			}
			if err := records.Export(cmd.Context(), g, f); err != nil {
				_ = f.Close()
				return err
			}
			return f.Close()
		}}
}
