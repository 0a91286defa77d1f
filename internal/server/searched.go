package server

// This file keeps heavy questions from holding up the others.

import (
	"context"
	"errors"
	"fmt"
	"net/http"

	"github.com/gin-gonic/gin"

	"deepbay/internal/store"
)

const (
	// lanes is how many questions to the planner are searched at once; others wait. Reads
	// and changes do not wait for any.
	lanes = 2
	// mostQuestions is how many wait or are searched at most.
	mostQuestions = 16
)

// searched gives a question to the planner its turn and an end: before the answer would be
// cut off, and when nobody waits for it any more.
func (s *api) searched(f func(*gin.Context) error) func(*gin.Context) error {
	in := make(chan struct{}, mostQuestions)
	return func(c *gin.Context) error {
		select {
		case in <- struct{}{}:
			defer func() { <-in }()
		default:
			return store.ErrBusy
		}
		ctx, cancel := context.WithTimeout(c.Request.Context(), s.Patience)
		defer cancel()
		c.Request = c.Request.WithContext(ctx)
		var err error
		select {
		case s.lanes <- struct{}{}:
			defer func() { <-s.lanes }()
			err = f(c)
		case <-ctx.Done():
			err = ctx.Err()
		}
		if errors.Is(err, context.DeadlineExceeded) {
			return &conflict{ProblemDoc{Title: "too heavy", Status: http.StatusServiceUnavailable,
				Detail: fmt.Sprintf("the search was given up after %s: pin some of the parts, leave some out, or ask without the shelf; nothing was changed", s.Patience)}}
		}
		return err
	}
}
