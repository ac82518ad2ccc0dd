package main

import (
	"errors"
	"fmt"

	"github.com/spf13/cobra"

	"mainstay/internal/platform/db"
	"mainstay/internal/platform/photos"
	"mainstay/internal/records"
)

func verifyCommand() *cobra.Command {
	var head string
	var compare bool
	cmd := &cobra.Command{Use: "verify", Short: "Check the records, and everything else against them", Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			c, err := load()
			if err != nil {
				return err
			}
			var check records.Check
			if head != "" {
				h, err := records.ParseHead(head)
				if err != nil {
					return err
				}
				check.Head = &h
			}
			g, err := records.Open(c.DatabaseURL, db.Options{Patient: true})
			if err != nil {
				return err
			}
			defer db.Close(g)
			if compare {
				store, err := photos.Open(c.Photos)
				if err != nil {
					return err
				}
				defer func() { _ = store.Close() }()
				check.Photos = store
			}
			res, err := records.Verify(cmd.Context(), g, check)
			if err != nil {
				return err
			}
			if !res.OK() {
				return errors.New(res.Sentence())
			}
			fmt.Fprintln(cmd.OutOrStdout(), res.Sentence())
			fmt.Fprintln(cmd.OutOrStdout(), "Head:", res.Head)
			return nil
		}}
	cmd.Flags().StringVar(&head, "head", "",
		"a head known outside, like \"1234.2\" and its eight words: the chain must lead through it")
	cmd.Flags().BoolVar(&compare, "photos", true, "compare the bytes of every photo")
	return cmd
}
