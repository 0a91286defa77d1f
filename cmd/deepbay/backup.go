package main

import (
	"errors"
	"fmt"
	"io"
	"time"

	"github.com/spf13/cobra"

	"deepbay/internal/store"
)

func backupCommand() *cobra.Command {
	var data string
	c := &cobra.Command{
		Use:   "backup --data FILE TO",
		Short: "Copy a data file whole, also while it is served, and check the copy",
		Args:  cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			found, err := store.Backup(c.Context(), data, args[0])
			if err != nil {
				return err
			}
			fmt.Fprintln(c.OutOrStdout(), words("backed up to %s", args[0]))
			return told(c.OutOrStdout(), args[0], &found)
		},
	}
	c.Flags().StringVar(&data, "data", "", "data file")
	return c
}

func restoreCommand() *cobra.Command {
	var data string
	c := &cobra.Command{
		Use:   "restore --data FILE FROM",
		Short: "Put a backup in the place of a data file that is not served; what was there is kept beside it",
		Args:  cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			if data == "" {
				return errors.New("no data file was named: say which with --data FILE")
			}
			was, found, err := store.Restore(c.Context(), args[0], data, time.Now().Format(".before-20060102-150405"))
			if err != nil {
				return err
			}
			if was != "" {
				fmt.Fprintln(c.OutOrStdout(), words("what was there is kept as %s", was))
			}
			fmt.Fprintln(c.OutOrStdout(), words("%s is what %s holds now", data, args[0]))
			return told(c.OutOrStdout(), data, &found)
		},
	}
	c.Flags().StringVar(&data, "data", "", "data file")
	return c
}

func checkDataCommand() *cobra.Command {
	return &cobra.Command{
		Use:   "check-data FILE",
		Short: "Look at every page, row and document of a data file or backup",
		Args:  cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			found, err := store.Check(c.Context(), args[0])
			if err != nil {
				return err
			}
			return told(c.OutOrStdout(), args[0], &found)
		},
	}
}

func rescueCommand() *cobra.Command {
	return &cobra.Command{
		Use:   "rescue FILE DIR",
		Short: "Save what can be saved of a damaged data file to open files in a new folder",
		Args:  cobra.ExactArgs(2),
		RunE: func(c *cobra.Command, args []string) error {
			r, err := store.Rescue(c.Context(), args[0], args[1])
			for _, f := range r.Faults {
				fmt.Fprintln(c.OutOrStdout(), words("fault: %s", f))
			}
			if err != nil {
				return err
			}
			fmt.Fprintln(c.OutOrStdout(), words("saved to %s: %d jobs, %d sheets, %d pictures of pages, %d parts, %d lines of journals; %d of them in an older revision; %d faults", args[1], r.Jobs, r.Sheets, r.Pictures, r.Parts, r.Lines, r.Older, len(r.Faults)))
			if len(r.Faults) > 0 {
				return errStopped
			}
			return nil
		},
	}
}

// told prints what a file holds, and fails where something is wrong with it.
func told(w io.Writer, path string, c *store.Checked) error {
	for _, f := range c.Faults {
		fmt.Fprintln(w, words("fault: %s", f))
	}
	fmt.Fprintln(w, words("%s: version %d, %d jobs, %d sheets, %d parts, %d revisions; %d faults", path, c.Version, c.Jobs, c.Sheets, c.Parts, c.Revisions, len(c.Faults)))
	if !c.Sound() {
		return errStopped
	}
	return nil
}
