package main

import (
	"errors"
	"fmt"
	"io"
	"os"
	"strconv"
	"strings"
	"time"

	"github.com/spf13/cobra"

	"deepbay/internal/core/job"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/say"
	"deepbay/internal/format"
)

func lookCommand() *cobra.Command {
	var by, out string
	c := &cobra.Command{
		Use:   "look JOB.json [NUMBER=ANSWER...]",
		Short: "List what is not known of a job, and answer it",
		Long: "Without answers, look lists what is not known and would settle a finding, then what was\n" +
			"taken as usual, each with a number. With answers it writes the job that knows them.",
		Example: "  deepbay look job.json\n  deepbay look job.json 1=yes 3=8.5 --by Runa --out job.json",
		Args:    cobra.MinimumNArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			j, err := readJob(c, args[0])
			if err != nil {
				return err
			}
			asked, usual := unknown(&j)
			if len(args) == 1 {
				printUnknown(c.OutOrStdout(), &j, asked, usual)
				return nil
			}
			if j, err = answered(j, append(asked, usual...), args[1:], job.Stamp{By: by, At: time.Now().UTC().Truncate(time.Second)}); err != nil {
				return fmt.Errorf("%s: %w", args[0], err)
			}
			b, err := format.Write(j)
			if err != nil {
				return err
			}
			if out == "" {
				_, err = c.OutOrStdout().Write(b)
				return err
			}
			return os.WriteFile(out, b, 0o666)
		},
	}
	c.Flags().StringVar(&by, "by", "", "who looked")
	c.Flags().StringVar(&out, "out", "", "where the job is written, standard output if nowhere is named")
	return c
}

// unknown lists what findings about the plan miss, and what was taken as usual.
func unknown(j *job.Job) (asked, usual []rig.Fact) {
	a := j.Check()
	for i := range a.Findings {
		asked = rig.With(asked, a.Findings[i].Missing...)
	}
	return asked, a.Usual()
}

func printUnknown(w io.Writer, j *job.Job, asked, usual []rig.Fact) {
	v := say.About(language, j)
	fmt.Fprintf(w, "%s (%s)\n", j.Title, j.Sheet.Name)
	n := 0
	each := func(title string, facts []rig.Fact) {
		if len(facts) > 0 {
			fmt.Fprintf(w, "\n%s\n", title)
		}
		for _, f := range facts {
			n++
			fmt.Fprintf(w, "%4d  %s: %s\n", n, v.Missing(f).Says, v.Answers(f))
		}
	}
	each(words("not known"), asked)
	each(words("taken as usual"), usual)
	for i, l := range v.Looked(j) {
		if i == 0 {
			fmt.Fprintf(w, "\n%s\n", words("looked up"))
		}
		fmt.Fprintf(w, "      %s (%s)\n", l.Says, l.By)
	}
	if n == 0 {
		fmt.Fprintf(w, "\n%s\n", words("nothing that matters is unknown"))
	}
}

// answered is the job with answers, each a number of the list and what it is.
func answered(j job.Job, list []rig.Fact, answers []string, by job.Stamp) (job.Job, error) {
	for _, a := range answers {
		number, is, ok := strings.Cut(a, "=")
		n, err := strconv.Atoi(number)
		if !ok || err != nil || n < 1 || n > len(list) {
			return j, errors.New(words("%q is no answer: write NUMBER=ANSWER, the number one of the %d that look lists", a, len(list)))
		}
		next, _, err := job.Apply(j, job.Change{Do: job.DoLook, Fact: &list[n-1], Value: is}, by)
		if err != nil {
			return j, say.About(language, &j).Err(err)
		}
		j = next
	}
	return j, nil
}
