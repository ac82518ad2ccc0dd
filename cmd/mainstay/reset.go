package main

import (
	"fmt"

	"github.com/spf13/cobra"

	"mainstay/internal/people"
	"mainstay/internal/platform/clock"
	"mainstay/internal/platform/db"
	"mainstay/internal/records"
)

// resetCommand is the way back in for a crew whose only chief forgot the password.
func resetCommand() *cobra.Command {
	return &cobra.Command{Use: "reset-password LOGIN",
		Short: "Give a person a one-time password, when no chief can; it is put on record", Args: cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			c, err := load()
			if err != nil {
				return err
			}
			g, err := records.Open(c.DatabaseURL, db.Options{})
			if err != nil {
				return err
			}
			defer db.Close(g)
			s := &people.Service{DB: g, Clock: clock.System{}}
			once, until, err := s.ResetByServer(cmd.Context(), args[0])
			if err != nil {
				return err
			}
			fmt.Fprintf(cmd.OutOrStdout(),
				"One-time password of %s, good until %s: %s\nIt is shown once. They sign in with it, choose another, and prove who they are by their own PIN.\n",
				args[0], until.Format("2006-01-02 15:04 MST"), once)
			return nil
		}}
}
