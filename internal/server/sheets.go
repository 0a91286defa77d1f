package server

// This file is the sheets: list, show, judge while they are written, keep every
// version, and the layouts a new one starts from.

import (
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"strconv"

	"github.com/gin-gonic/gin"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/job"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/problem"
	"deepbay/internal/core/say"
	"deepbay/internal/format"
	"deepbay/internal/layouts"
	"deepbay/internal/store"
)

func (s *api) sheets(c *gin.Context) error {
	out, err := s.Data.Sheets(c.Request.Context())
	if err == nil {
		c.JSON(http.StatusOK, out)
	}
	return err
}

func (s *api) layouts(c *gin.Context) error {
	all, err := layouts.All()
	if err != nil {
		return err
	}
	out := make([]machine.Sheet, len(all))
	copy(out, all)
	c.JSON(http.StatusOK, out)
	return nil
}

// sheet shows one sheet as an empty machine, its rules in words; with ?at=N as it
// was at a revision.
func (s *api) sheet(c *gin.Context) error {
	ctx, id := c.Request.Context(), machine.ID(c.Param("id"))
	var kept store.KeptSheet
	var err error
	if at := c.Query("at"); at == "" {
		kept, err = s.Data.Sheet(ctx, id)
	} else { // also where the newest is damaged
		n, bad := strconv.Atoi(at)
		if bad != nil {
			return problem.List{{Pointer: "/at", Says: fmt.Sprintf("%q is no revision", at), Cure: "write a number, such as 2"}}
		}
		kept, err = s.Data.SheetAt(ctx, id, n)
	}
	if err != nil {
		return err
	}
	history, err := s.Data.SheetHistory(ctx, id)
	if err != nil {
		return err
	}
	pictures, err := s.pictures(c, store.Pages(id))
	if err != nil {
		return err
	}
	v := &kept.Sheet
	empty, rules := say.SheetAnswer(s.Language, v)
	c.JSON(http.StatusOK, SheetView{Sheet: *v, Revision: kept.Revision, Empty: empty, Rules: rules, Facts: say.FactsOf(s.Language, v), Pictures: pictures, History: s.journal(&job.Job{}, history)})
	return nil
}

func (s *api) sheetFile(c *gin.Context) error {
	k, err := s.Data.Sheet(c.Request.Context(), machine.ID(c.Param("id")))
	if err != nil {
		return err
	}
	return s.download(c, string(k.Sheet.ID)+".sheet.json", k.Sheet)
}

// checkSheet judges a sheet that is being written. What is wrong is an answer like
// any other, for half-written is the ordinary case. With faults in it the board is
// answered for without its rules, whose names may lead nowhere.
func (s *api) checkSheet(c *gin.Context) error {
	b, err := fileBody(c)
	if err != nil {
		return err
	}
	out := SheetCheck{Problems: []problem.Problem{}, Doubts: []problem.Problem{}, Groups: []say.Text{}, Rules: []say.Text{}, Sayable: say.Sayable{When: []say.Asks{}, Then: []say.Does{}}}
	v, err := format.Sheet(b)
	var list problem.List
	switch {
	case errors.As(err, &list):
		out.Problems = s.Language.Problems(list)
		v = machine.Sheet{}
		if json.Unmarshal(b, &v) != nil {
			c.JSON(http.StatusOK, out)
			return nil
		}
		v.Rules = nil
	case err != nil:
		return err
	}
	out.Doubts = append(out.Doubts, s.Language.Problems(v.Doubts())...)
	out.Groups = say.Groups(s.Language, &v)
	out.Sayable = say.SayableOf(s.Language, &v)
	empty, rules := say.SheetAnswer(s.Language, &v)
	out.Empty, out.Rules = &empty, rules
	c.JSON(http.StatusOK, out)
	return nil
}

// putSheet keeps a new version of a sheet, or a new sheet.
func (s *api) putSheet(c *gin.Context) error {
	ctx, id := c.Request.Context(), machine.ID(c.Param("id"))
	b, err := fileBody(c)
	if err != nil {
		return err
	}
	c.Set(asked, b)
	in, err := format.Value[PutSheet]("PutSheet", b)
	if err != nil {
		return err
	}
	list := in.Sheet.Validate().Under("/sheet")
	if in.Sheet.ID != id {
		list.Say("/sheet/id", fmt.Sprintf("the sheet is named %q, the address says %q", in.Sheet.ID, id), "send it to its own address")
	}
	if err := list.Err(); err != nil {
		return err
	}
	var done fact.Fact
	switch {
	case in.Back > 0:
		done = fact.Of(machine.BroughtBack, in.Back)
	case in.Says != "":
		done = fact.Of(job.SaidThen, fact.Typed(in.Says))
	}
	_, err = s.Data.PutSheet(ctx, store.SheetWrite{Sheet: in.Sheet, From: in.Revision, Done: done, Stamp: s.stamp(in.By), Request: request(c, in.Key)})
	var before *store.Applied
	if errors.As(err, &before) {
		return s.sheet(c)
	}
	var stale *store.Conflict
	if errors.As(err, &stale) {
		now, err := s.Data.Sheet(ctx, id)
		if err != nil {
			return err
		}
		return &conflict{ProblemDoc{Title: "changed meanwhile", Status: http.StatusConflict,
			Detail: fmt.Sprintf("the sheet is at revision %d, yours started from %d; it was not kept", stale.Current, stale.Yours),
			Sheet:  &SheetNow{now.Sheet, now.Revision, s.Language.Facts(machine.Diff(&in.Sheet, &now.Sheet))}}}
	}
	if err != nil {
		return err
	}
	return s.sheet(c)
}
