package main

// This file measures a drive on the machine it is in, and proves that a copy is whole.

import (
	"context"
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"os"
	"os/signal"
	"strconv"
	"strings"
	"syscall"
	"time"

	"github.com/spf13/cobra"

	"deepbay/internal/core/measure"
	"deepbay/internal/core/quantity"
	"deepbay/internal/meter"
)

// interrupted is a context that ends when somebody presses Ctrl+C or the machine shuts down.
func interrupted(c *cobra.Command) (context.Context, context.CancelFunc) {
	return signal.NotifyContext(c.Context(), os.Interrupt, syscall.SIGTERM)
}

func measureCommand() *cobra.Command {
	plan := meter.Usual
	size, of, when, out, quiet := plan.Bytes.Binary(), "", string(measure.After), "", false
	c := &cobra.Command{
		Use:   "measure DIRECTORY",
		Short: "Measure how fast a drive reads and writes in a folder",
		Long:  "Writes one file of its own into the folder, reads it in large and in small pieces, and takes\nits name away at once: nothing is left of it. The table it writes is read on a job's page Measure.",
		Args:  cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			var err error
			if plan.Bytes, err = quantity.ParseBinary(size); err != nil {
				return language.Err(err)
			}
			if w := measure.When(when); w != measure.Before && w != measure.After {
				return fmt.Errorf("--when %q: write before or after", when)
			}
			var to *os.File
			if out != "" { // before anything is measured: a file that is there is not written over
				if to, err = os.OpenFile(out, os.O_WRONLY|os.O_CREATE|os.O_EXCL, 0o644); err != nil {
					return err
				}
				defer to.Close()
			}
			ctx, stop := interrupted(c)
			defer stop()
			step := func(what measure.What, run, of int) {
				if !quiet {
					fmt.Fprintf(c.ErrOrStderr(), "%s, run %d of %d%s\n", what, run, of, map[bool]string{true: " (does not count)", false: ""}[run == 0])
				}
			}
			series, err := meter.Measure(ctx, args[0], plan, step)
			if err == nil && to != nil {
				err = writeMeasured(to, series, when, of)
			}
			if err != nil {
				if to != nil {
					err = errors.Join(err, os.Remove(out))
				}
				if errors.Is(err, context.Canceled) {
					return errors.New("stopped: nothing was kept, and the file it measured with is gone")
				}
				return err
			}
			if to != nil {
				return nil
			}
			printMeasured(c.OutOrStdout(), series)
			return nil
		},
	}
	f := c.Flags()
	f.StringVar(&size, "size", size, "of the file: twice the memory or more tells the drive from the cache")
	f.IntVar(&plan.Runs, "runs", plan.Runs, "that count, after one that does not")
	f.DurationVar(&plan.Each, "each", plan.Each, "how long a run takes at most")
	f.BoolVar(&plan.Writing, "small-writes", false, "write small pieces too: it wears the drive")
	f.StringVar(&of, "of", "", "what is measured, in the owner's words")
	f.StringVar(&when, "when", when, "before or after the work")
	f.StringVar(&out, "out", "", "write a table into this new file")
	f.BoolVar(&quiet, "quiet", false, "do not say how far it is")
	return c
}

// writeMeasured writes series as the table that a job reads.
func writeMeasured(w io.Writer, series []measure.Series, when, of string) error {
	t := csv.NewWriter(w)
	t.Write(strings.Split(measure.Columns(), ","))
	for _, s := range series {
		for _, v := range s.Runs {
			t.Write([]string{string(s.What), when, of, strconv.FormatInt(int64(s.BlockBytes), 10), strconv.Itoa(s.Depth), strconv.FormatFloat(v, 'f', 2, 64), ""})
		}
	}
	t.Flush()
	return t.Error()
}

func printMeasured(w io.Writer, series []measure.Series) {
	for _, s := range series {
		m := measure.SpreadOf(s.Runs)
		fmt.Fprintf(w, "%-18s %8s x%-3d %10.1f MB/s   %.1f to %.1f, %s\n", s.What, s.BlockBytes.Binary(), s.Depth, m.Mid, m.Least, m.Top, plural(m.N, "run"))
	}
	if len(series) > 0 {
		fmt.Fprintln(w, series[0].With)
	}
}

func plural(n int, of string) string {
	if n == 1 {
		return "1 " + of
	}
	return strconv.Itoa(n) + " " + of + "s"
}

func verifyCommand() *cobra.Command {
	var asJSON, quiet bool
	c := &cobra.Command{
		Use:   "verify SOURCE DESTINATION",
		Short: "Prove that everything in one folder arrived in another, byte for byte",
		Long:  "Reads every byte of both and writes nothing. Ends with 0 when all of the source is in the\ndestination, with 1 when it is not, and with 2 when it could not be told.",
		Args:  cobra.ExactArgs(2),
		RunE: func(c *cobra.Command, args []string) error {
			ctx, stop := interrupted(c)
			defer stop()
			last := time.Now()
			seen := func(path string, bytes int64) {
				if !quiet && time.Since(last) > 2*time.Second {
					last = time.Now()
					fmt.Fprintf(c.ErrOrStderr(), "%s read, at %q\n", quantity.Bytes(bytes).Decimal(), path)
				}
			}
			r, err := meter.Verify(ctx, args[0], args[1], seen)
			if err != nil {
				return err
			}
			err = printAs(c.OutOrStdout(), asJSON, r, func(w io.Writer) { printVerified(w, &r) })
			switch {
			case err != nil:
				return err
			case r.Stopped:
				return errors.New("stopped before the end: nothing is proved")
			case !r.Same():
				return errStopped
			}
			return nil
		},
	}
	c.Flags().BoolVar(&asJSON, "json", false, "print for programs")
	c.Flags().BoolVar(&quiet, "quiet", false, "do not say how far it is")
	return c
}

// mostPrinted is how many entries of a kind are printed one by one.
const mostPrinted = 40

func printVerified(w io.Writer, r *meter.Report) {
	fmt.Fprintf(w, "the same: %s of %s, %s, %s\n", plural(r.Files, "file"), quantity.Bytes(r.Bytes).Exact(), plural(r.Folders, "folder"), plural(r.Links, "link"))
	for _, of := range []struct {
		title string
		list  []meter.Difference
	}{{"missing", r.Missing}, {"differs", r.Differs}, {"could not be read", r.Unread}} {
		for i, d := range of.list {
			if i == mostPrinted {
				fmt.Fprintf(w, "%s: and %d more\n", of.title, len(of.list)-i)
				break
			}
			fmt.Fprintf(w, "%s: %q: %s\n", of.title, d.Path, d.Says)
		}
	}
	if n := len(r.Special); n > 0 {
		fmt.Fprintf(w, "not compared, for they hold nothing: %s\n", plural(n, "special file"))
	}
	if n := len(r.Extra); n > 0 {
		fmt.Fprintf(w, "in the destination besides: %s\n", plural(n, "more name"))
	}
	switch {
	case r.Stopped:
	case r.Same():
		fmt.Fprintf(w, "all of it arrived. SHA-256 of names and sums: %s\n", r.Digest)
	default:
		fmt.Fprintln(w, "not all of it arrived: keep the source")
	}
}
