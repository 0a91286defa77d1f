package main

import (
	"errors"
	"fmt"
	"io"
	"os"
	"strings"
	"text/tabwriter"

	"github.com/spf13/cobra"

	"deepbay/internal/core/fit"
	"deepbay/internal/core/job"
	"deepbay/internal/core/power"
	"deepbay/internal/core/say"
	"deepbay/internal/format"
)

// maxFile is the largest file read.
const maxFile = 4 << 20

// readFile reads a whole file; "-" is standard input.
func readFile(c *cobra.Command, path string) ([]byte, error) {
	in := c.InOrStdin()
	if path != "-" {
		f, err := os.Open(path)
		if err != nil {
			return nil, errors.New(words("%v", err))
		}
		defer f.Close()
		in = f
	}
	b, err := io.ReadAll(io.LimitReader(in, maxFile+1))
	if err != nil {
		return nil, fmt.Errorf("%s: %w", path, err)
	}
	if len(b) > maxFile {
		return nil, fmt.Errorf("%s: %s", path, words("larger than the %d MiB a file may have", maxFile>>20))
	}
	return b, nil
}

// unusable words an error of a file's content: its name and every place in it.
func unusable(path, kind string, err error) error {
	return fmt.Errorf("%s %s\n  %s", path, words("is not a usable %s file", kind), strings.ReplaceAll(language.Err(err).Error(), "\n", "\n  "))
}

func readJob(c *cobra.Command, path string) (job.Job, error) {
	b, err := readFile(c, path)
	if err != nil {
		return job.Job{}, err
	}
	j, err := format.Job(b)
	if err != nil {
		return j, unusable(path, "job", err)
	}
	return j, nil
}

// stage adds the flag that names a stage to come, and returns how a job is read as it stands then.
func stage(c *cobra.Command) func(*cobra.Command, string) (job.Job, error) {
	n := c.Flags().Int("stage", 0, "a stage that is to come, the first of them 1")
	return func(c *cobra.Command, path string) (job.Job, error) {
		j, err := readJob(c, path)
		if err != nil || *n == 0 {
			return j, err
		}
		ahead, ok := j.Ahead(*n)
		if !ok {
			return j, fmt.Errorf("%s: the job has no stage %d to come", path, *n)
		}
		return ahead, nil
	}
}

func sheetCommand() *cobra.Command {
	return &cobra.Command{
		Use:   "sheet SHEET.json...",
		Short: "Judge machine sheets: say what is wrong, and where",
		Args:  cobra.MinimumNArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			for _, path := range args {
				b, err := readFile(c, path)
				if err != nil {
					return err
				}
				s, err := format.Sheet(b)
				if err != nil {
					return unusable(path, "sheet", err)
				}
				fmt.Fprintf(c.OutOrStdout(), "%s: %s, %s\n", path, s.Name, words("%d sockets, %d rules, no fault", len(s.Sockets), len(s.Rules)))
			}
			return nil
		},
	}
}

func checkCommand() *cobra.Command {
	var asJSON bool
	var read func(*cobra.Command, string) (job.Job, error)
	c := &cobra.Command{
		Use:   "check JOB.json",
		Short: "Judge the plan of a job file",
		Args:  cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			j, err := read(c, args[0])
			if err != nil {
				return err
			}
			answer := say.CheckOf(language, &j)
			if err := printAs(c.OutOrStdout(), asJSON, answer, func(w io.Writer) { printCheck(w, &j, &answer) }); err != nil {
				return err
			}
			if answer.Stops {
				return errStopped
			}
			return nil
		},
	}
	read = stage(c)
	c.Flags().BoolVar(&asJSON, "json", false, "print a deepbay/check document for programs")
	return c
}

func printAs(w io.Writer, asJSON bool, doc any, people func(io.Writer)) error {
	if !asJSON {
		people(w)
		return nil
	}
	b, err := format.Write(doc)
	if err != nil {
		return err
	}
	_, err = w.Write(b)
	return err
}

func printCheck(w io.Writer, j *job.Job, a *say.Check) {
	fmt.Fprintf(w, "%s (%s)\n\n", j.Title, j.Sheet.Name)
	t := tabwriter.NewWriter(w, 0, 0, 2, ' ', 0)
	for _, s := range a.Answer.Sockets {
		name := ""
		if s.Item != "" {
			name = j.Name(s.Item)
		}
		fmt.Fprintf(t, "%s\t%s\t%s\t%s\n", s.Socket, s.State, name, s.Says)
	}
	t.Flush()
	flows(w, a.Answer.Flows, j)
	for i, l := range a.Answer.Lanes {
		if i == 0 {
			fmt.Fprintln(w)
		}
		fmt.Fprintf(t, "%s\t%s\t%s\n", words("lanes"), l.Group, l.Says)
	}
	t.Flush()
	m := &a.Answer.Memory
	fmt.Fprintf(w, "\n%s  %s", words("memory"), m.Says)
	if !m.Peak.IsZero() {
		fmt.Fprintf(w, ", %s %s", words("peak"), m.Peak)
	}
	fmt.Fprintln(w)
	if starts := a.Starts.String(); starts != "" {
		fmt.Fprintf(w, "\n%s  %s\n", words("starts from"), starts)
	}
	for _, b := range a.Blocks {
		fmt.Fprintf(w, "\n%s  %s\n", words("to be answered first"), b)
	}
	for _, f := range a.Answer.Findings {
		if f.Quiet {
			continue
		}
		fmt.Fprintf(w, "\n%s  %s  [%s]\n", f.Severity, f.Says, f.Code)
		for _, r := range f.Because {
			fmt.Fprintf(w, "    %-8s %s (%s)\n", words("because"), r.Says, r.From)
		}
		for _, m := range f.Missing {
			fmt.Fprintf(w, "    %-8s %s\n", words("look"), m.Says)
		}
		for _, c := range f.Cures {
			fmt.Fprintf(w, "    %-8s %s\n", words("cure"), c.Says)
		}
	}
	quiet := 0
	for _, f := range a.Answer.Findings {
		if !f.Quiet {
			continue
		}
		if quiet++; quiet == 1 {
			fmt.Fprintf(w, "\n%s:\n", words("as it came, and nobody touches it"))
		}
		fmt.Fprintf(w, "    %s  %s  [%s]\n", f.Severity, f.Says, f.Code)
	}
	fmt.Fprintf(w, "\n%s\n", a.Answer.Tally)
}

// flows prints what drives that share a link move, each alone and all at once.
func flows(w io.Writer, list []say.FlowAnswer, j *job.Job) {
	t := tabwriter.NewWriter(w, 0, 0, 2, ' ', 0)
	for i, f := range list {
		if i == 0 {
			fmt.Fprintln(w)
		}
		fmt.Fprintf(t, "%s\t%s\t%s\t%s\n", words("moves"), f.Socket, j.Name(f.Item), f.Says)
	}
	t.Flush()
}

func expectCommand() *cobra.Command {
	var asJSON bool
	var read func(*cobra.Command, string) (job.Job, error)
	c := &cobra.Command{
		Use:   "expect JOB.json",
		Short: "Foretell what set-up and the system show after the work",
		Args:  cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			j, err := read(c, args[0])
			if err != nil {
				return err
			}
			b := j.PlannedRig()
			r := fit.Resolve(&b)
			err = printAs(c.OutOrStdout(), asJSON, power.Expect(&b, &r), func(w io.Writer) {
				printLines(w, &j, say.About(language, &j).Lines(power.Compare(&b, &r, power.Seen{})))
			})
			if err == nil && r.Stops() {
				return errStopped
			}
			return err
		},
	}
	read = stage(c)
	c.Flags().BoolVar(&asJSON, "json", false, "print a deepbay/observation document for programs")
	return c
}

func printLines(w io.Writer, j *job.Job, lines []say.Line) {
	fmt.Fprintf(w, "%s (%s)\n", j.Title, j.Sheet.Name)
	screen := power.Screen("")
	for _, l := range lines {
		if l.Screen != screen {
			screen = l.Screen
			fmt.Fprintf(w, "\n%s\n", words("%s", screenTitle[screen]))
		}
		fmt.Fprintf(w, "  %-44s %s\n", l.About, l.Expected)
		for _, s := range l.Shows {
			fmt.Fprintf(w, "  %-44s   %s: %s\n", "", s.Where, s.Text)
		}
		if l.Extra && l.Normal.String() != "" {
			fmt.Fprintf(w, "  %-44s   %s\n", "", l.Normal)
		}
	}
}
