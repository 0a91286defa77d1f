package server

// This file keeps what was looked up in one job for the shop: in its sheet, or in the
// description of the part.

import (
	"context"
	"errors"
	"net/http"
	"slices"

	"github.com/gin-gonic/gin"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/job"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/problem"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/say"
	"deepbay/internal/store"
)

// keep writes what somebody looked up into the shop's sheet or part.
func (s *api) keep(c *gin.Context) error {
	in, err := body[Keep](c, "Keep")
	if err != nil {
		return err
	}
	ctx := c.Request.Context()
	k, err := s.named(c)
	if err != nil {
		return err
	}
	i := slices.IndexFunc(k.Job.Looked, func(l job.Looked) bool { return l.Fact == in.Fact })
	if i < 0 {
		return problem.List{{Pointer: "/fact", Fact: fact.Of(job.NotLookedUp, in.Fact)}}
	}
	says := fact.Of(job.KeptForSheet, k.Job.Looked[i].Learned)
	switch l := &k.Job.Looked[i]; {
	case l.OfSheet():
		err = s.keepInSheet(ctx, &k.Job, says, s.stamp(in.By), func(sheet *machine.Sheet) fact.Fact {
			if !rig.Teach(sheet, l.Learned) {
				return fact.Of(job.SheetIsOther, l.Fact)
			}
			return fact.Fact{}
		})
	case l.OfPart():
		says.Code = job.KeptForPart
		err = s.keepInPart(ctx, &k.Job, l.Learned, s.stamp(in.By))
	default:
		err = problem.List{{Pointer: "/fact", Fact: fact.Of(job.OfThisOnly, l.Fact)}}
	}
	if err != nil {
		return say.About(s.Language, &k.Job).Err(err)
	}
	c.JSON(http.StatusOK, Because{say.About(s.Language, &k.Job).Fact(says)})
	return nil
}

// keepProven writes what a job showed beyond its sheet into the shop's, with the job as evidence.
func (s *api) keepProven(c *gin.Context) error {
	in, err := body[KeepProven](c, "KeepProven")
	if err != nil {
		return err
	}
	ctx := c.Request.Context()
	k, err := s.named(c)
	if err != nil {
		return err
	}
	proven := job.Look(k.Job).Report.Proven
	i := slices.IndexFunc(proven, func(p job.Proven) bool { return p.Of == in.Of && p.Socket == in.Socket })
	if i < 0 {
		return problem.List{{Pointer: "/of", Fact: fact.Of(job.NotProven)}}
	}
	err = s.keepInSheet(ctx, &k.Job, proven[i].Says, s.stamp(in.By), func(sheet *machine.Sheet) fact.Fact {
		if !proven[i].Teach(sheet, k.Job.Evidence()) {
			return fact.Of(job.NotOnSheet)
		}
		return fact.Fact{}
	})
	if err != nil {
		return err
	}
	c.JSON(http.StatusOK, Because{say.About(s.Language, &k.Job).Fact(fact.Of(job.KeptProven, proven[i].Says))})
	return nil
}

// keepInSheet writes into the shop's sheet of a job what teach puts there, with what was learnt
// and the job as its evidence in the sheet's history; teach says why it cannot.
func (s *api) keepInSheet(ctx context.Context, j *job.Job, what fact.Fact, by job.Stamp, teach func(*machine.Sheet) fact.Fact) error {
	kept, err := s.Data.Sheet(ctx, j.Sheet.ID)
	if errors.Is(err, store.ErrNotFound) {
		return problem.List{{Pointer: "/fact", Fact: fact.Of(job.NoShopSheet, fact.Typed(j.Sheet.ID))}}
	}
	if err != nil {
		return err
	}
	if why := teach(&kept.Sheet); why.Is() {
		return problem.List{{Pointer: "/fact", Fact: why}}
	}
	if err := kept.Sheet.Validate().Under("/sheet").Err(); err != nil {
		return err
	}
	_, err = s.Data.PutSheet(ctx, store.SheetWrite{Sheet: kept.Sheet, From: kept.Revision, Done: fact.Of(job.LearntIn, fact.Typed(j.Evidence()), what), Stamp: by})
	var stale *store.Conflict
	if errors.As(err, &stale) {
		return &conflict{ProblemDoc{Title: "changed meanwhile", Status: http.StatusConflict, Detail: "the sheet was changed meanwhile; nothing was kept: try again"}}
	}
	return err
}

func (s *api) keepInPart(ctx context.Context, j *job.Job, a rig.Learned, by job.Stamp) error {
	own := j.Part(j.Item(a.Item).Part).Clone()
	parts, err := s.Data.Parts(ctx)
	if err != nil {
		return err
	}
	for i := range parts {
		if parts[i].ID == own.ID {
			own = &parts[i] // the shop may know more of it by now
		}
	}
	if !rig.TeachPart(own, a) {
		return problem.List{{Pointer: "/fact", Fact: fact.Of(job.PartIsOther, a.Fact)}}
	}
	if err := own.Validate().Under("/part").Err(); err != nil {
		return err
	}
	own.Source = j.Evidence()
	return s.Data.PutPart(ctx, *own, by)
}
