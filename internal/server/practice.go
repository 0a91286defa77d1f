package server

// This file is the shop's practice: what it does where practitioners differ.

import (
	"errors"
	"net/http"

	"github.com/gin-gonic/gin"

	"deepbay/internal/core/job"
	"deepbay/internal/core/practice"
	"deepbay/internal/core/say"
	"deepbay/internal/store"
)

// PracticeView is the shop's practice in words.
type PracticeView struct {
	Revision int               `json:"revision"`
	Rows     []say.PracticeRow `json:"rows"`
}

// PutPractice writes the shop's practice over a revision.
type PutPractice struct {
	Revision int               `json:"revision" jsonschema:"minimum=0"`
	Practice practice.Practice `json:"practice" jsonschema:"maxItems=64"`
	By       string            `json:"by,omitempty" jsonschema:"maxLength=80"`
}

func (s *api) practice(c *gin.Context) error {
	k, err := s.Data.Practice(c.Request.Context())
	if err == nil {
		c.JSON(http.StatusOK, PracticeView{k.Revision, say.Practice(s.Language, k.Practice)})
	}
	return err
}

func (s *api) putPractice(c *gin.Context) error {
	in, err := body[PutPractice](c, "PutPractice")
	if err != nil {
		return err
	}
	if err := job.CheckPractice(in.Practice).Err(); err != nil {
		return err
	}
	err = s.Data.PutPractice(c.Request.Context(), in.Practice, in.Revision, s.stamp(in.By))
	var stale *store.Conflict
	if errors.As(err, &stale) {
		return &conflict{ProblemDoc{Title: "changed meanwhile", Status: http.StatusConflict, Detail: "the practice was changed meanwhile; nothing was kept: look at it anew"}}
	}
	if err != nil {
		return err
	}
	return s.practice(c)
}
