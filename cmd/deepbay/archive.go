package main

import (
	"context"
	"errors"
	"fmt"
	"os"
	"time"

	"github.com/spf13/cobra"

	"deepbay/internal/core/job"
	"deepbay/internal/store"
)

func archiveCommand() *cobra.Command {
	var data, before, by string
	c := &cobra.Command{
		Use:   "archive --data FILE --closed-before DAY TO.zip",
		Short: "Move closed jobs with their journals to an archive; bring-back brings them back as they were",
		Args:  cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			day, err := time.ParseInLocation(time.DateOnly, before, time.Local)
			if err != nil {
				return fmt.Errorf("--closed-before %q is no day: write it as 2026-01-31", before)
			}
			return with(c.Context(), data, func(s *store.Store) error {
				jobs, err := s.ClosedBefore(c.Context(), day)
				if err != nil {
					return err
				}
				if len(jobs) == 0 {
					fmt.Fprintln(c.OutOrStdout(), words("no job was closed before %s: nothing was changed", before))
					return nil
				}
				about, err := s.MoveToArchive(c.Context(), args[0], jobs, stamped(by))
				if err != nil {
					return err
				}
				fmt.Fprintln(c.OutOrStdout(), words("%s holds them now, %d in number, and the data file no longer does: keep it as you keep backups", args[0], len(about.Jobs)))
				return nil
			})
		},
	}
	c.Flags().StringVar(&data, "data", "", "data file; it may be served meanwhile")
	c.Flags().StringVar(&before, "closed-before", "", "day, as 2026-01-31: jobs that were closed before it, and not changed since")
	c.Flags().StringVar(&by, "by", "", "your name, which stays with the note that they were archived")
	return c
}

func bringBackCommand() *cobra.Command {
	var data string
	c := &cobra.Command{
		Use:   "bring-back --data FILE FROM.zip",
		Short: "Put the jobs of an archive back as they were, all or none",
		Args:  cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			return with(c.Context(), data, func(s *store.Store) error {
				about, err := s.BringBackArchive(c.Context(), args[0])
				if err != nil {
					return fmt.Errorf("%w; nothing was changed", err)
				}
				fmt.Fprintln(c.OutOrStdout(), words("jobs back: %d", len(about.Jobs)))
				return nil
			})
		},
	}
	c.Flags().StringVar(&data, "data", "", "data file; it may be served meanwhile")
	return c
}

func ownerCommand() *cobra.Command {
	var data, name, by string
	var jobs int
	of := func(ctx context.Context, s *store.Store) ([]store.Owned, error) {
		list, err := s.OfOwner(ctx, name)
		if err == nil && len(list) == 0 {
			err = fmt.Errorf("there is no job of %q", name)
		}
		return list, err
	}
	export := &cobra.Command{
		Use:   "export --data FILE --name OWNER TO.zip",
		Short: "Write all there is of an owner's jobs, with their journals",
		Args:  cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			return with(c.Context(), data, func(s *store.Store) error {
				list, err := of(c.Context(), s)
				if err != nil {
					return err
				}
				f, err := os.OpenFile(args[0], os.O_CREATE|os.O_EXCL|os.O_WRONLY, 0o600)
				if err != nil {
					return err
				}
				by := stamped(by)
				err = errors.Join(s.WriteArchive(c.Context(), f, store.Archive{At: by.At, By: by.By, Owner: name}, list), f.Close())
				if err != nil {
					return errors.Join(err, os.Remove(args[0]))
				}
				fmt.Fprintln(c.OutOrStdout(), words("jobs in %s: %d", args[0], len(list)))
				return nil
			})
		},
	}
	forget := &cobra.Command{
		Use:   "delete --data FILE --name OWNER --jobs N",
		Short: "Delete all there is of an owner's jobs, for good; that there were jobs stays",
		Args:  cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			return with(c.Context(), data, func(s *store.Store) error {
				list, err := of(c.Context(), s)
				if err != nil {
					return err
				}
				if len(list) != jobs {
					for _, k := range list {
						fmt.Fprintln(c.OutOrStdout(), words("%s: %s", k.ID, k.Title))
					}
					return fmt.Errorf("these jobs of %s would be deleted for good: say so with --jobs %d; nothing was changed", name, len(list))
				}
				if err := s.Remove(c.Context(), list, store.Deleted, stamped(by), store.Request{}); err != nil {
					return err
				}
				fmt.Fprintln(c.OutOrStdout(), words("jobs deleted: %d. Backups, copies and second machines have theirs until they are replaced", len(list)))
				return nil
			})
		},
	}
	forget.Flags().IntVar(&jobs, "jobs", 0, "how many jobs that are")
	c := &cobra.Command{Use: "owner", Short: "Take an owner's data along, or delete it"}
	for _, sub := range []*cobra.Command{export, forget} {
		sub.Flags().StringVar(&data, "data", "", "data file; it may be served meanwhile")
		sub.Flags().StringVar(&name, "name", "", "the owner, as on the jobs")
		sub.Flags().StringVar(&by, "by", "", "your name")
		c.AddCommand(sub)
	}
	return c
}

// with opens a data file that is there, and closes it.
func with(ctx context.Context, data string, do func(*store.Store) error) error {
	if _, err := os.Stat(data); err != nil {
		return fmt.Errorf("data file: %w", err)
	}
	s, err := store.Open(ctx, data)
	if err != nil {
		return err
	}
	return errors.Join(do(s), s.Close())
}

func stamped(by string) job.Stamp {
	if by == "" {
		by = "the command line"
	}
	return job.Stamp{By: by, At: time.Now().UTC().Truncate(time.Second)}
}
