package server

// This file is the lists of jobs and of the shelf. Both are told a page at a time, and say
// how much there is.

import (
	"cmp"
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"slices"
	"strings"
	"time"

	"github.com/gin-gonic/gin"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/job"
	"deepbay/internal/core/part"
	"deepbay/internal/core/problem"
	"deepbay/internal/core/say"
	"deepbay/internal/core/shorthand"
	"deepbay/internal/store"
)

// How many rows a page has.
const (
	jobsOnPage  = 50
	shelfOnPage = 100
	usersShown  = 3 // jobs beside a part of the shelf

	longestQuery = 200
)

// jsonType is what answers are.
const jsonType = "application/json; charset=utf-8"

func (s *api) jobs(c *gin.Context) error {
	ctx, q := c.Request.Context(), c.Query("q")
	if len(q) > longestQuery {
		return problem.List{{Pointer: "/q", Says: fmt.Sprintf("what is looked for has at most %d letters", longestQuery)}}
	}
	list, err := s.Data.Jobs(ctx, store.Page{Query: q, After: c.Query("after"), Most: jobsOnPage})
	if errors.Is(err, store.ErrPlace) {
		return problem.List{{Pointer: "/after", Says: err.Error(), Cure: "take it from the page before"}}
	}
	if err != nil {
		return err
	}
	cards, err := s.cards(ctx, list.Stands)
	if err != nil {
		return err
	}
	var out struct {
		JobList
		Jobs []json.RawMessage `json:"jobs"` // as they are kept
	}
	out.Next, out.Open, out.Closed = list.Next, list.Open, list.Closed
	out.Today = job.Date(s.Now().Format(time.DateOnly))
	out.Jobs = make([]json.RawMessage, len(cards))
	for i := range cards {
		out.Jobs[i] = cards[i].Body
	}
	switch n := list.Open + list.Closed; {
	case fact.Fold(q) == "":
		out.Says = s.Language.Says(fmt.Sprintf("%d open, %d closed", list.Open, list.Closed))
	case list.Short:
		out.Says = s.Language.Says(fmt.Sprintf("the latest %d with “%s”, and there may be more: type more of it", n, q))
	default:
		out.Says = s.Language.Says(fmt.Sprintf("%d found for “%s”", n, q))
	}
	c.JSON(http.StatusOK, out)
	return nil
}

func (s *api) shelf(c *gin.Context) error {
	all, err := s.Data.Shelf(c.Request.Context())
	if err != nil {
		return err
	}
	if q := fact.Fold(c.Query("q")); q != "" {
		all = slices.DeleteFunc(all, func(k store.KeptStock) bool { return !carries(&k, q) })
	}
	out := ShelfList{Kinds: []KindCount{}}
	for _, kind := range shorthand.Kinds() {
		n := 0
		for i := range all {
			if shorthand.KindOf(&all[i].Part) == kind {
				n++
			}
		}
		if n > 0 {
			out.Kinds = append(out.Kinds, KindCount{kind, n})
		}
	}
	if kind := shorthand.Kind(c.Query("kind")); kind != "" {
		all = slices.DeleteFunc(all, func(k store.KeptStock) bool { return shorthand.KindOf(&k.Part) != kind })
	}
	page := all
	if after := part.ID(c.Query("after")); after != "" {
		i := slices.IndexFunc(all, func(k store.KeptStock) bool { return k.Part.ID == after })
		if i < 0 {
			return problem.List{{Pointer: "/after", Says: fmt.Sprintf("there is no part %q in this list of the shelf", after), Cure: "take it from the page before"}}
		}
		page = all[i+1:]
	}
	out.Count = len(all)
	if len(page) > shelfOnPage {
		page = page[:shelfOnPage]
		out.Next = page[shelfOnPage-1].Part.ID
	}
	if out.Parts, err = s.rows(c, page); err != nil {
		return err
	}
	if id := job.ID(c.Query("for")); id != "" {
		k, err := s.Data.Job(c.Request.Context(), id)
		if err != nil {
			return err
		}
		out.For = &ShelfFor{id, k.Job.Title, k.Revision}
		s.suit(&k.Job, out.Parts)
	}
	c.JSON(http.StatusOK, out)
	return nil
}

// carries reports a part of the shelf with something printed on it, or in its words.
func carries(k *store.KeptStock, folded string) bool {
	p := &k.Part
	printed := append([]string{p.Name, p.Number, shorthand.Write(p)}, k.Serials...)
	return slices.ContainsFunc(printed, func(t string) bool { return strings.Contains(fact.Fold(t), folded) })
}

// suit says where each part would go best in a job's plan, and puts those that go first.
func (s *api) suit(j *job.Job, rows []ShelfRow) {
	class := map[part.ID]int{}
	for i := range rows {
		p := &rows[i].Stock.Part
		class[p.ID] = fit.WorstOffer + 1
		r, offers := j.Try(p)
		if len(offers) == 0 {
			continue
		}
		class[p.ID] = offers[0].Class()
		rows[i].Goes = &say.In(s.Language, &r).Offers(offers[:1])[0]
	}
	slices.SortStableFunc(rows, func(a, b ShelfRow) int { return cmp.Compare(class[a.Stock.Part.ID], class[b.Stock.Part.ID]) })
}

// rows is what the shelf says of some of its parts.
func (s *api) rows(c *gin.Context, kept []store.KeptStock) ([]ShelfRow, error) {
	ctx := c.Request.Context()
	ids := make([]part.ID, len(kept))
	for i := range kept {
		ids[i] = kept[i].Part.ID
	}
	users, err := s.Data.Users(ctx, ids, usersShown+1)
	if err != nil {
		return nil, err
	}
	var shown []store.Stand // those of all parts, so that their cards are looked for once
	for _, id := range ids {
		shown = append(shown, users[id][:min(len(users[id]), usersShown)]...)
	}
	cards, err := s.cards(ctx, shown)
	if err != nil {
		return nil, err
	}
	out := make([]ShelfRow, len(kept))
	for i, k := range kept {
		in := len(users[k.Part.ID])
		out[i] = ShelfRow{Stock: k.Stock, Revision: k.Revision, What: s.part(&k.Part), Price: k.Price.String(), Used: make([]JobRef, min(in, usersShown)), More: in > usersShown}
		for n := range out[i].Used {
			out[i].Used[n] = cards[n].Ref
		}
		cards = cards[len(out[i].Used):]
	}
	return out, nil
}

// row answers with what the shelf says of one part.
func (s *api) row(c *gin.Context, id part.ID) error {
	k, err := s.Data.OnShelf(c.Request.Context(), id)
	if err != nil {
		return err
	}
	rows, err := s.rows(c, []store.KeptStock{k})
	if err != nil {
		return err
	}
	c.JSON(http.StatusOK, rows[0])
	return nil
}
