package server

// This file keeps heavy questions, and floods of changes, from holding up the others.

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"io"
	"net/http"
	"sync"
	"sync/atomic"
	"time"

	"github.com/gin-gonic/gin"

	"deepbay/internal/core/plan"
	"deepbay/internal/store"
)

const (
	// lanes is how many questions to the planner are searched at once; others wait. Reads
	// and changes do not wait for any.
	lanes = 2
	// mostQuestions is how many wait or are searched at most.
	mostQuestions = 16
)

// turns is how many changes are carried out at once: while one waits for the disk another is
// judged. With more of them those who read would wait for a processor.
const turns = 2

// changed lets changes in one after another, and as many wait as may wait for the disk. One
// more is told to come again before anything of it is read, which costs those who read
// nothing. Nobody holds the others up by sending slowly.
func (s *api) changed(f func(*gin.Context) error) func(*gin.Context) error {
	return s.upTo(maxFile, f)
}

// upTo is changed with a body of at most so many bytes.
func (s *api) upTo(most int64, f func(*gin.Context) error) func(*gin.Context) error {
	return func(c *gin.Context) error {
		select {
		case s.changing <- struct{}{}:
			defer func() { <-s.changing }()
		default:
			return store.ErrBusy
		}
		b, err := io.ReadAll(http.MaxBytesReader(c.Writer, c.Request.Body, most))
		if err != nil {
			return err
		}
		c.Request.Body = io.NopCloser(bytes.NewReader(b))
		select {
		case s.turns <- struct{}{}:
			defer func() { <-s.turns }()
			return f(c)
		case <-c.Request.Context().Done():
			return c.Request.Context().Err()
		}
	}
}

// searching is a question that waits for its turn or is searched.
type searching struct {
	number int64 // in the order in which they came
	began  time.Time
	turn   atomic.Bool // it is searched
	steps  atomic.Int64
}

// questions are those that are asked just now, by the names that their askers gave them.
type questions struct {
	mu  sync.Mutex
	all map[string]*searching
	n   int64
}

// ask enters a question; done takes it out again.
func (q *questions) ask(name string, at time.Time) (w *searching, done func()) {
	q.mu.Lock()
	defer q.mu.Unlock()
	q.n++
	w = &searching{number: q.n, began: at}
	if name == "" || len(name) > longestName {
		name = fmt.Sprint("question ", q.n)
	}
	if q.all == nil {
		q.all = map[string]*searching{}
	}
	q.all[name] = w
	return w, func() {
		q.mu.Lock()
		defer q.mu.Unlock()
		if q.all[name] == w {
			delete(q.all, name)
		}
	}
}

// progress is how far a question is that was asked with ?search=NAME.
func (s *api) progress(c *gin.Context) error {
	s.questions.mu.Lock()
	defer s.questions.mu.Unlock()
	w := s.questions.all[c.Param("name")]
	if w == nil { // it is answered, or has not come yet: nothing to tell, and nothing wrong
		c.Status(http.StatusNoContent)
		return nil
	}
	out := Progress{Seconds: int(s.Now().Sub(w.began).Seconds()), Most: int(s.Patience.Seconds()), Steps: w.steps.Load()}
	switch before := 0; {
	case w.turn.Load():
		out.Says = s.Language.Says(fmt.Sprintf("searching: %d thousand steps", out.Steps/1000))
	default:
		for _, o := range s.questions.all {
			if o.number < w.number {
				before++
			}
		}
		out.Says = s.Language.Says("waits for its turn after " + many(before, "other question", "other questions"))
	}
	c.JSON(http.StatusOK, out)
	return nil
}

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
		w, done := s.questions.ask(c.Query("search"), s.Now())
		defer done()
		c.Request = c.Request.WithContext(plan.Watched(ctx, func(steps int) { w.steps.Add(int64(steps)) }))
		var err error
		select {
		case s.lanes <- struct{}{}:
			defer func() { <-s.lanes }()
			w.turn.Store(true)
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
