package server

// This file is what can be done with what is damaged, or a job that cannot be judged.

import (
	"context"
	"errors"
	"fmt"
	"net/http"
	"runtime/debug"

	"github.com/gin-gonic/gin"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/job"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/store"
)

// raw is what the file holds of a job, as it is, whether it makes sense or not.
func (s *api) raw(c *gin.Context) error {
	return s.sendRaw(c, "job", c.Param("id"))
}

// damagedRaw is the same of a sheet or part.
func (s *api) damagedRaw(c *gin.Context) error { return s.sendRaw(c, c.Param("what"), c.Param("id")) }

func (s *api) sendRaw(c *gin.Context, what, id string) error {
	b, err := s.Data.Raw(c.Request.Context(), what, id)
	if err != nil {
		return err
	}
	c.Header("Content-Disposition", fmt.Sprintf("attachment; filename=%q", id+".raw.txt"))
	c.Data(http.StatusOK, "application/octet-stream", b)
	return nil
}

// damagedBack brings the last good revision of a damaged sheet or part back, as a new one.
func (s *api) damagedBack(c *gin.Context) error {
	in, err := body[Back](c, "Back")
	if err != nil {
		return err
	}
	ctx, id, r := c.Request.Context(), c.Param("id"), request(c, in.Key)
	switch what := c.Param("what"); what {
	case "sheet":
		err = s.Data.BringBackSheet(ctx, machine.ID(id), s.stamp(in.By), r)
	case "part":
		err = s.Data.BringBackPart(ctx, part.ID(id), s.stamp(in.By), r)
	default:
		err = fmt.Errorf("a damaged %s: %w", what, store.ErrNotFound)
	}
	var before *store.Applied
	switch {
	case errors.Is(err, store.ErrSound), errors.Is(err, store.ErrNoGood):
		return &conflict{ProblemDoc{Title: "not ill", Status: http.StatusConflict, Detail: err.Error() + "; nothing was changed"}}
	case err != nil && !errors.As(err, &before):
		return err
	}
	return s.health(c)
}

// back brings the last good revision of an ill job back, as a new one.
func (s *api) back(c *gin.Context) error {
	in, err := body[Back](c, "Back")
	if err != nil {
		return err
	}
	ctx, id, r := c.Request.Context(), job.ID(c.Param("id")), request(c, in.Key)
	var before *store.Applied
	if err := s.Data.Applied(ctx, r); errors.As(err, &before) {
		return s.answer(c, http.StatusOK, id)
	} else if err != nil {
		return err
	}
	k, err := s.Data.Job(ctx, id)
	if err == nil {
		err = s.sayable(&k)
	}
	if err == nil {
		return &conflict{ProblemDoc{Title: "not ill", Status: http.StatusConflict, Detail: "this job can be read as it is: undo its last changes instead; nothing was changed"}}
	} else if errors.Is(err, store.ErrNotFound) {
		return err
	}
	j, revision, err := s.lastGood(ctx, id)
	if err != nil {
		return err
	}
	_, err = s.Data.Put(ctx, store.Write{Job: j, Back: true, Done: fact.Of(job.BroughtBack, revision), Stamp: s.stamp(in.By), Request: r})
	if err != nil && !errors.As(err, &before) {
		return err
	}
	return s.answer(c, http.StatusOK, id)
}

// lastGood is the last revision of a job that can be read and judged.
func (s *api) lastGood(ctx context.Context, id job.ID) (job.Job, int, error) {
	entries, err := s.Data.Journal(ctx, id, 0)
	if err != nil {
		return job.Job{}, 0, err
	}
	for n := len(entries) - 1; n >= 0; n-- {
		at := entries[n].Revision
		j, err := s.Data.At(ctx, id, at)
		if err == nil {
			err = s.sayable(&store.Kept{Job: j, Revision: at})
		}
		if err == nil {
			return j, at, nil
		}
		s.Log.Warn("a revision cannot be brought back", "job", id, "revision", at, "error", err)
	}
	return job.Job{}, 0, &conflict{ProblemDoc{Title: "none is good", Status: http.StatusConflict, Detail: "no revision of this job can be read: bring a backup back; nothing was changed"}}
}

// sayable is nil for a revision of which all can be said.
func (s *api) sayable(k *store.Kept) (err error) {
	defer func() {
		if p := recover(); p != nil {
			err = fmt.Errorf("it cannot be judged: %v\n%s", p, debug.Stack())
		}
	}()
	_, _, err = s.say(nil, k, nil)
	return err
}
