package server

// This file is what the open machine needs of the rest of the shop: what lies on the shelf of a
// pick list, how long steps took in finished jobs, and differences for the shop's sheet.

import (
	"net/http"
	"slices"
	"strconv"

	"github.com/gin-gonic/gin"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/job"
	"deepbay/internal/core/layer"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/practice"
	"deepbay/internal/core/problem"
	"deepbay/internal/core/say"
	"deepbay/internal/core/shelf"
)

// BenchView is what to lay out for a job, and how long its steps take.
type BenchView struct {
	Pick     []say.PickLine     `json:"pick"`
	Steps    []StepTime         `json:"steps"`
	Minutes  layer.Minutes      `json:"minutes"`            // all steps together
	Left     layer.Minutes      `json:"left"`               // those that are not done
	Practice *practice.Practice `json:"practice,omitempty"` // the shop's, where the job has another; empty is all as usual
	Learnt   int                `json:"learnt"`             // how many of them are learnt from finished jobs
	Says     say.Text           `json:"says"`
}

// StepTime is how long a step takes, and who says so.
type StepTime struct {
	Step    say.StepID    `json:"step"`
	Minutes layer.Minutes `json:"minutes"`
	Says    say.Text      `json:"says"`
}

// KeepDifference writes what differs into the shop's sheet.
type KeepDifference struct {
	ID int    `json:"id" jsonschema:"minimum=1"`
	By string `json:"by,omitempty" jsonschema:"maxLength=80"`
}

// benchView says what to lay out for a job, and how long it takes.
func (s *api) benchView(c *gin.Context) error {
	k, err := s.named(c)
	if err != nil {
		return err
	}
	ctx := c.Request.Context()
	stock, err := s.Data.Shelf(ctx)
	if err != nil {
		return err
	}
	done, err := s.Data.Closed(ctx, k.Job.Sheet.ID)
	if err != nil {
		return err
	}
	done = slices.DeleteFunc(done, func(j job.Job) bool { return j.ID == k.Job.ID })
	work, v := k.Job.Work(), say.About(s.Language, &k.Job)
	out := BenchView{Pick: v.Picks(work.Pick), Steps: []StepTime{}}
	for i := range work.Pick {
		need, line := &work.Pick[i], &out.Pick[i]
		if need.Want == nil {
			continue
		}
		for _, row := range stock {
			line.Shelf += shelf.Holds(&row.Stock, need.Want)
		}
		line.Short = need.Short(line.Shelf)
	}
	for _, e := range k.Job.Estimates(work.Steps, job.Medians(done)) {
		out.Minutes += e.Minutes
		if !k.Job.Did(e.Step) {
			out.Left += e.Minutes
		}
		if e.Jobs > 0 {
			out.Learnt++
		}
		out.Steps = append(out.Steps, StepTime{say.StepID(e.Step), e.Minutes, v.Fact(e.Says())})
	}
	shop, err := s.Data.Practice(ctx)
	if err != nil {
		return err
	}
	if !shop.Practice.Same(k.Job.Practice) {
		out.Practice = &shop.Practice
	}
	out.Says = v.Fact(job.TimeLeft(out.Left, out.Learnt, len(work.Steps)))
	c.JSON(http.StatusOK, out)
	return nil
}

// keepDifference writes what differs into the shop's sheet, with the job as evidence.
func (s *api) keepDifference(c *gin.Context) error {
	in, err := body[KeepDifference](c, "KeepDifference")
	if err != nil {
		return err
	}
	k, err := s.named(c)
	if err != nil {
		return err
	}
	i := slices.IndexFunc(k.Job.Differs, func(d job.Difference) bool { return d.ID == in.ID })
	if i < 0 {
		return problem.List{{Pointer: "/id", Fact: fact.Of(job.NoSuchNumber, fact.Typed(strconv.Itoa(in.ID)))}}
	}
	d := &k.Job.Differs[i]
	says := d.Says(&k.Job)
	err = s.keepInSheet(c.Request.Context(), &k.Job, says, s.stamp(in.By), func(sheet *machine.Sheet) fact.Fact {
		if !d.Teach(sheet) {
			return fact.Of(job.OnlyWords)
		}
		return fact.Fact{}
	})
	if err != nil {
		return say.About(s.Language, &k.Job).Err(err)
	}
	c.JSON(http.StatusOK, Because{say.About(s.Language, &k.Job).Fact(fact.Of(job.KeptDifference, says))})
	return nil
}
