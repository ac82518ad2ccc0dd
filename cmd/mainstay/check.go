package main

import (
	"fmt"

	"github.com/spf13/cobra"

	"mainstay/internal/standins/conform"
)

// checkCommand tries a real service against the published protocol of its kind.
func checkCommand() *cobra.Command {
	var s conform.Service
	c := &cobra.Command{Use: "check URL",
		Short: "Try a charger, weather service or airspace desk against the published protocol", Args: cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			s.URL = args[0]
			var err error
			if s.Key, err = cmd.Flags().GetString("key"); err != nil {
				return err
			}
			kind, out, err := conform.Run(cmd.Context(), s)
			if err != nil {
				return err
			}
			bad := 0
			fmt.Fprintf(cmd.OutOrStdout(), "%s at %s, held against docs/protocols/%s.json\n", kind, s.URL, kind)
			for _, r := range out {
				if r.Why == "" {
					fmt.Fprintln(cmd.OutOrStdout(), "  does   ", r.What)
					continue
				}
				bad++
				fmt.Fprintln(cmd.OutOrStdout(), "  DOES NOT", r.What+":", r.Why)
			}
			if !s.Write {
				fmt.Fprintln(cmd.OutOrStdout(), "  nothing was changed there; --write tries that too")
			}
			if bad > 0 {
				return fmt.Errorf("%d of %d do not conform", bad, len(out))
			}
			return nil
		}}
	c.Flags().StringVar(&s.Kind, "as", "", "charger, weather or desk; found out when not said")
	c.Flags().BoolVar(&s.Write, "write", false,
		"also start and stop a charge, or ask for an authorisation and make a call")
	c.Flags().IntVar(&s.Channel, "channel", 1, "the channel of a charger to try with --write; nothing must be on it")
	return c
}
