package server

// This file is the owners' data: all there is of one to take along, and to be deleted.

import (
	"context"
	"errors"
	"fmt"
	"net/http"
	"os"
	"strings"

	"github.com/gin-gonic/gin"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/problem"
	"deepbay/internal/store"
)

// owner lists the jobs of an owner.
func (s *api) owner(c *gin.Context) error {
	name, jobs, err := s.owned(c, c.Query("name"))
	if err != nil {
		return err
	}
	out := OwnerJobs{Owner: name, Jobs: make([]JobRef, len(jobs))}
	open := 0
	for i, k := range jobs {
		out.Jobs[i] = JobRef{k.ID, k.Title}
		if k.Open {
			open++
		}
	}
	if open > 0 {
		out.Keeps = s.Language.Says(fmt.Sprintf("of them %s open: close first", many(open, "is", "are")))
	}
	out.Says = s.Language.Says(fmt.Sprintf("%s of %s", many(len(jobs), "job", "jobs"), name))
	c.JSON(http.StatusOK, out)
	return nil
}

func (s *api) owned(c *gin.Context, name string) (string, []store.Owned, error) {
	name = strings.TrimSpace(name)
	if fact.Fold(name) == "" {
		return name, nil, problem.List{{Pointer: "/owner", Says: "no owner is named"}}
	}
	jobs, err := s.Data.OfOwner(c.Request.Context(), name)
	if err == nil && len(jobs) == 0 {
		err = fmt.Errorf("a job of %q: %w", name, store.ErrNotFound)
	}
	return name, jobs, err
}

// ownerFile is an archive of an owner's jobs with their journals.
func (s *api) ownerFile(c *gin.Context) error {
	name, jobs, err := s.owned(c, c.Query("name"))
	if err != nil {
		return err
	}
	f, err := os.CreateTemp("", "deepbay-owner-")
	if err != nil {
		return err
	}
	defer os.Remove(f.Name())
	defer f.Close()
	by := s.stamp(c.Query("by"))
	if err := s.Data.WriteArchive(c.Request.Context(), f, store.Archive{At: by.At, By: by.By, Owner: name}, jobs); err != nil {
		return err
	}
	c.FileAttachment(f.Name(), store.ArchiveName(name, by.At))
	return nil
}

// forget deletes all there is of an owner.
func (s *api) forget(c *gin.Context) error {
	in, err := body[Forget](c, "Forget")
	if err != nil {
		return err
	}
	ctx, r := c.Request.Context(), request(c, in.Key)
	var before *store.Applied
	if err := s.Data.Applied(ctx, r); err != nil && !errors.As(err, &before) {
		return err
	}
	count := in.Jobs
	if before == nil {
		var jobs []store.Owned
		if _, jobs, err = s.owned(c, in.Owner); err != nil {
			return err
		}
		if len(jobs) != count {
			return &conflict{ProblemDoc{Title: "changed meanwhile", Status: http.StatusConflict, Detail: fmt.Sprintf("by now there is more or less than %s of %s; nothing was changed", many(count, "job", "jobs"), in.Owner)}}
		}
		// Who does not wait for the answer has said it all the same.
		err = s.Data.Remove(context.WithoutCancel(ctx), jobs, store.Deleted, s.stamp(in.By), r)
	}
	var halted *store.Halted
	var stale *store.Conflict
	switch {
	case errors.As(err, &halted) && halted.Left > 0:
		s.looked.forget()
		return &conflict{ProblemDoc{Title: "partly done", Status: http.StatusConflict, Detail: err.Error()}}
	case errors.Is(err, store.ErrOpen):
		return &conflict{ProblemDoc{Title: "open", Status: http.StatusConflict, Detail: err.Error()}}
	case errors.As(err, &stale):
		return &conflict{ProblemDoc{Title: "changed meanwhile", Status: http.StatusConflict, Detail: err.Error()}}
	case err != nil && !errors.As(err, &before):
		return err
	}
	s.looked.forget()
	c.JSON(http.StatusOK, Forgotten{Jobs: count, Says: s.Language.Says(fmt.Sprintf("deleted: %s. Backups, copies and second machines have theirs until they are replaced", many(count, "job", "jobs")))})
	return nil
}

// many is a count with its noun or verb.
func many(n int, one, more string) string {
	if n == 1 {
		more = one
	}
	return fmt.Sprintf("%d %s", n, more)
}

// mostGone is how many jobs that are no longer here are told of.
const mostGone = 100

// gone lists what is no longer here.
func (s *api) gone(c *gin.Context) error {
	list, err := s.Data.Gone(c.Request.Context(), mostGone)
	if err != nil {
		return err
	}
	out := make([]Gone, len(list))
	for i, g := range list {
		says := fmt.Sprintf("a job of %s was deleted, with all there was of it", many(g.Revisions, "revision", "revisions"))
		if g.Why == store.IsArchived {
			says = fmt.Sprintf("%s, of %s, was archived", g.Title, many(g.Revisions, "revision", "revisions"))
		}
		out[i] = Gone{At: g.At, By: g.By, Says: s.Language.Says(says)}
	}
	c.JSON(http.StatusOK, out)
	return nil
}
