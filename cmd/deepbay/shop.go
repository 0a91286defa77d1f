package main

import (
	"errors"
	"fmt"

	"github.com/spf13/cobra"

	"deepbay/internal/store"
)

func shopCommand() *cobra.Command {
	var data string
	export := &cobra.Command{
		Use:   "export --data FILE TO.zip",
		Short: "Write the whole shop into one file of open formats: sheets, shelf, jobs, journals, pictures",
		Args:  cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			return with(c.Context(), data, func(s *store.Store) error {
				about, err := s.SaveShop(c.Context(), args[0])
				if err != nil {
					return err
				}
				fmt.Fprintln(c.OutOrStdout(), words("%s holds the shop: %d sheets, %d kinds of part, %d jobs", args[0], len(about.Sheets), len(about.Parts), len(about.Jobs)))
				return nil
			})
		},
	}
	bring := &cobra.Command{
		Use:   "import --data NEW FROM.zip",
		Short: "Put a whole shop into a new data file, all of it or nothing",
		Args:  cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			s, err := store.Open(c.Context(), data)
			if err != nil {
				return err
			}
			about, err := s.BringShop(c.Context(), args[0])
			if err := errors.Join(err, s.Close()); err != nil {
				return fmt.Errorf("%w; nothing was changed", err)
			}
			fmt.Fprintln(c.OutOrStdout(), words("%s holds the shop: %d sheets, %d kinds of part, %d jobs", data, len(about.Sheets), len(about.Parts), len(about.Jobs)))
			return nil
		},
	}
	c := &cobra.Command{Use: "shop", Short: "Take the whole shop along in open formats, and put it into a new data file"}
	export.Flags().StringVar(&data, "data", "", "data file; it may be served meanwhile")
	bring.Flags().StringVar(&data, "data", "", "data file; one that is not there is made")
	c.AddCommand(export, bring)
	return c
}
