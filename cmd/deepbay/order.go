package main

import (
	"fmt"
	"io"

	"github.com/spf13/cobra"

	"deepbay/internal/core/job"
	"deepbay/internal/core/say"
	"deepbay/internal/core/workorder"
)

func orderCommand() *cobra.Command {
	var asJSON bool
	var read func(*cobra.Command, string) (job.Job, error)
	c := &cobra.Command{
		Use:   "order JOB.json",
		Short: "Write the work order: what to lay out, the steps layer by layer, the tray",
		Args:  cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			j, err := read(c, args[0])
			if err != nil {
				return err
			}
			v := job.Look(j)
			doc := say.Look(language, &v)
			err = printAs(c.OutOrStdout(), asJSON, struct {
				Pick  []say.PickLine `json:"pick"`
				Steps []say.Step     `json:"steps"`
				Tray  []say.Cell     `json:"tray"`
			}{doc.Pick, doc.Order, doc.Tray}, func(w io.Writer) { printOrder(w, &j, &doc) })
			if err == nil && v.Planned.Stops() {
				return errStopped
			}
			return err
		},
	}
	read = stage(c)
	c.Flags().BoolVar(&asJSON, "json", false, "print it as JSON for programs")
	return c
}

func printOrder(w io.Writer, j *job.Job, v *say.View) {
	fmt.Fprintf(w, "%s (%s)\n\n", j.Title, j.Sheet.Name)
	if len(v.Order) == 0 {
		fmt.Fprintln(w, words("nothing to do: the plan is the machine as it was found"))
		return
	}
	fmt.Fprintln(w, words("lay out"))
	for _, n := range v.Pick {
		fmt.Fprintf(w, "  %d x %s\n", n.Count, n.Says)
	}
	phase := workorder.Phase("")
	for i, s := range v.Order {
		if s.Phase != phase {
			phase = s.Phase
			fmt.Fprintf(w, "\n%s\n", words("%s", phase))
		}
		fmt.Fprintf(w, "  %2d  %s\n", i+1, s.Do)
		for _, c := range s.Cautions {
			fmt.Fprintf(w, "      ! %s: %s\n", c.Topic, c.Says)
		}
		for _, h := range s.How {
			fmt.Fprintf(w, "      - %s\n", h)
		}
	}
	if len(v.Tray) > 0 {
		fmt.Fprintf(w, "\n%s\n", words("tray"))
	}
	for _, c := range v.Tray {
		fmt.Fprintf(w, "  %d  %s, %s\n", c.N, c.Says, c.Of)
	}
	for _, b := range v.Blocks {
		fmt.Fprintf(w, "\n%s\n", b.Says)
	}
}
