package main

import (
	"errors"
	"fmt"
	"io"

	"github.com/spf13/cobra"

	"deepbay/internal/core/job"
	"deepbay/internal/core/plan"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/say"
)

// errGaveUp ends a command with status 3: the search stopped at its budget.
var errGaveUp = errors.New("the search stopped at its budget")

func planCommand() *cobra.Command {
	var asJSON bool
	var q job.PlanQuestion
	var read func(*cobra.Command, string) (job.Job, error)
	c := &cobra.Command{
		Use:   "plan JOB.json",
		Short: "Find the best placement, and the real alternatives",
		Args:  cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			j, err := read(c, args[0])
			if err != nil {
				return err
			}
			advice, err := j.AskPlan(c.Context(), q)
			if err != nil {
				return err
			}
			doc := say.About(language, &j).Planned(&j, &advice)
			if err := printAs(c.OutOrStdout(), asJSON, doc, func(w io.Writer) { printPlan(w, &j, &doc.Advice) }); err != nil {
				return err
			}
			switch advice.End {
			case plan.Impossible, plan.Depends:
				return errStopped
			case plan.GaveUp:
				return errGaveUp
			}
			return nil
		},
	}
	read = stage(c)
	c.Flags().BoolVar(&asJSON, "json", false, "print a deepbay/plan document for programs")
	c.Flags().StringSliceVar(&q.Order, "order", nil, fmt.Sprintf("what counts most, first: of %v", plan.Criteria()))
	return c
}

func printWay(w io.Writer, j *job.Job, way *say.Way) {
	fmt.Fprintln(w)
	for _, p := range way.Placements {
		fmt.Fprintf(w, "  %-8s %s%s\n", p.Socket, j.Name(p.Item), from(j, p))
	}
	for _, p := range j.Found.Placements {
		if rig.PlaceOf(way.Placements, p.Item).IsZero() {
			fmt.Fprintf(w, "  %-8s %s, %s\n", words("out"), j.Name(p.Item), words("from %s", p.Socket))
		}
	}
	for _, c := range way.Choices {
		s := j.Sheet.Setting(c.Setting)
		fmt.Fprintf(w, "  %-8s %s: %s\n", words("set"), s.Name, s.OptionName(c.Value))
	}
	fmt.Fprintln(w)
	for _, s := range way.Says {
		fmt.Fprintln(w, " ", s)
	}
}

func printPlan(w io.Writer, j *job.Job, a *say.Advice) {
	fmt.Fprintf(w, "%s (%s): %s\n", j.Title, j.Sheet.Name, a.Proof)
	if a.Best != nil {
		printWay(w, j, a.Best)
	}
	if p := a.Provided; p != nil {
		if a.Best != nil {
			fmt.Fprintf(w, "\n%s:\n", words("better, provided that it turns out well"))
		} else {
			fmt.Fprintf(w, "\n%s:\n", words("it works, provided that it turns out well"))
		}
		printWay(w, j, &p.Way)
		fmt.Fprintf(w, "\n  %s:\n", words("look up, the cheapest first"))
		for _, m := range p.Look {
			if m.If.IsZero() {
				fmt.Fprintln(w, "   ", m.Says)
			} else {
				fmt.Fprintf(w, "    %s: %s %s\n", m.Says, words("provided that"), m.If)
			}
		}
	}
	for i, o := range a.Alternatives {
		fmt.Fprintf(w, "\n%s\n", words("alternative %d", i+1))
		for _, s := range append(o.Differs, o.Says...) {
			fmt.Fprintln(w, " ", s)
		}
	}
	if len(a.Clash) > 0 {
		fmt.Fprintf(w, "\n%s\n", words("these cannot all be had"))
		for _, s := range a.Clash {
			fmt.Fprintln(w, " ", s)
		}
	}
	for _, s := range a.Cures {
		fmt.Fprintf(w, "%-8s %s\n", words("cure"), s)
	}
}

// from says what the plan does with a piece that was found elsewhere, or is new.
func from(j *job.Job, p rig.Placement) string {
	switch was := j.Found.Where(p.Item); was {
	case p.Socket:
		return ""
	case rig.Path{}:
		return ", " + words("new")
	default:
		return ", " + words("from %s", was)
	}
}
