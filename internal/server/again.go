package server

// This file is what a job takes from the shop later on, and what the shop takes from it: a
// newer sheet, a machine that comes back, a part that was completed.

import (
	"errors"
	"fmt"
	"net/http"

	"github.com/gin-gonic/gin"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/job"
	"deepbay/internal/core/problem"
	"deepbay/internal/core/say"
	"deepbay/internal/store"
)

// newerSheet says what the shop's version of a job's sheet would change in the job.
func (s *api) newerSheet(c *gin.Context) error {
	ctx := c.Request.Context()
	k, err := s.named(c)
	if err != nil {
		return err
	}
	out := NewerSheet{Differs: []say.Text{}, Comes: []say.Text{}, Goes: []say.Text{}, Proofs: []ModelProof{}}
	kept, err := s.Data.Sheet(ctx, k.Job.Sheet.ID)
	if errors.Is(err, store.ErrNotFound) || err == nil && k.Job.Closed != nil {
		c.JSON(http.StatusOK, out)
		return nil
	}
	if err != nil {
		return err
	}
	done, err := s.Data.Closed(ctx, k.Job.Sheet.ID)
	if err != nil {
		return err
	}
	out.Proofs = s.proofs(&kept.Sheet, done)
	n := k.Job.Newer(&kept.Sheet)
	if len(n.Differs) == 0 {
		c.JSON(http.StatusOK, out)
		return nil
	}
	v := say.About(s.Language, &k.Job)
	for _, f := range n.Differs {
		out.Differs = append(out.Differs, v.Fact(f))
	}
	for i := range n.Comes {
		out.Comes = append(out.Comes, v.Finding(&n.Comes[i]).Says)
	}
	for i := range n.Goes {
		out.Goes = append(out.Goes, v.Finding(&n.Goes[i]).Says)
	}
	var list problem.List
	if errors.As(n.Fault, &list) {
		out.Fault = v.Fact(list[0].Fact)
	}
	c.JSON(http.StatusOK, out)
	return nil
}

// takeSheet takes the shop's version of a job's sheet: one change, which undo takes back.
func (s *api) takeSheet(c *gin.Context) error {
	in, err := body[AtRevision](c, "AtRevision")
	if err != nil {
		return err
	}
	stamp := s.stamp(in.By)
	return s.revise(c, in.Revision, in.Key, stamp, nil, func(k store.Kept) (job.Job, fact.Fact, error) {
		kept, err := s.Data.Sheet(c.Request.Context(), k.Job.Sheet.ID)
		if err != nil {
			return k.Job, fact.Fact{}, err
		}
		next, done, err := job.Apply(k.Job, job.Change{Do: job.DoSheet, Sheet: &kept.Sheet}, stamp)
		var list problem.List
		if errors.As(err, &list) {
			return next, done, say.About(s.Language, &k.Job).Problems(list)
		}
		return next, done, err
	})
}

// again takes a machine in that was here before, with what was left in it.
func (s *api) again(c *gin.Context) error {
	in, err := body[AtRevision](c, "AtRevision")
	if err != nil {
		return err
	}
	stamp := s.stamp(in.By)
	return s.takeIn(c, in.Key, stamp, func() (job.Job, fact.Fact, error) {
		ctx := c.Request.Context()
		k, err := s.named(c)
		if err != nil {
			return job.Job{}, fact.Fact{}, err
		}
		if k.Job.Closed == nil {
			return job.Job{}, fact.Fact{}, problem.List{{Pointer: "/revision", Says: "the job is open: the machine is here", Cure: "go on with it, or close it first"}}
		}
		j, done := k.Job.Again(newID(k.Job.Title), stamp.At), fact.Of(job.TookInAgain, fact.Typed(k.Job.ID))
		kept, err := s.Data.Sheet(ctx, j.Sheet.ID) // what the shop knows of it by now, where that holds
		switch {
		case errors.Is(err, store.ErrNotFound):
			return j, done, nil
		case err != nil:
			return j, done, err
		}
		if next, _, err := job.Apply(j, job.Change{Do: job.DoSheet, Sheet: &kept.Sheet}, stamp); err == nil {
			j = next
		}
		return j, done, nil
	})
}

// keepPart writes what a job says of a part into the shop's description of it.
func (s *api) keepPart(c *gin.Context) error {
	in, err := body[KeepPart](c, "KeepPart")
	if err != nil {
		return err
	}
	ctx := c.Request.Context()
	k, err := s.named(c)
	if err != nil {
		return err
	}
	it := k.Job.Item(in.Item)
	if it == nil {
		return fmt.Errorf("item %q: %w", in.Item, store.ErrNotFound)
	}
	p := *k.Job.Part(it.Part)
	p.Source = k.Job.Evidence()
	if err := s.Data.PutPart(ctx, p, s.stamp(in.By)); err != nil {
		return err
	}
	c.JSON(http.StatusOK, Because{say.About(s.Language, &k.Job).Fact(fact.Of(job.KeptPart, fact.Typed(p.Name)))})
	return nil
}
