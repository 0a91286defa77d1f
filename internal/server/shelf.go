package server

// This file is the shelf: quick add, corrections, CSV in and out.

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"net/http"
	"slices"
	"strings"

	"github.com/gin-gonic/gin"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/job"
	"deepbay/internal/core/part"
	"deepbay/internal/core/problem"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/say"
	"deepbay/internal/core/shelf"
	"deepbay/internal/core/shorthand"
	"deepbay/internal/store"
)

// stocked finds what is kept of a part, by its id.
func (s *api) stocked(ctx context.Context) (func(part.ID) (shelf.Stock, bool), error) {
	entries, err := s.Data.Shelf(ctx)
	return func(id part.ID) (shelf.Stock, bool) {
		if k := of(entries, id); k != nil {
			return k.Stock, true
		}
		return shelf.Stock{}, false
	}, err
}

// quickAdd takes shorthand or a label into the shelf; more of the same part is
// added to its count.
func (s *api) quickAdd(c *gin.Context) error {
	in, err := body[QuickAdd](c, "QuickAdd")
	if err != nil {
		return err
	}
	got, list := shorthand.Keep(in.Text)
	list = list.Under("/text")
	price := shelf.Cents(0)
	if in.Price != "" {
		if price, err = shelf.ParseCents(in.Price); err != nil {
			list.Add("/price", fact.From(err))
		}
	}
	if err := list.Err(); err != nil {
		return err
	}
	err = s.Data.ChangeStock(c.Request.Context(), store.StockWrite{Stamp: s.stamp(in.By), Request: request(c, in.Key)}, func(on store.OnShelf) ([]shelf.Stock, error) {
		k, err := on(got.Part.ID)
		if err != nil {
			return nil, err
		}
		e := k.Stock
		if k.Revision == 0 {
			e.Part = got.Part
		}
		e.Count += got.Count
		e.Serials = slices.Concat(e.Serials, got.Serials, strings.Fields(in.Serials))
		if price > 0 {
			e.Price = price
		}
		if in.Condition != "" {
			e.Condition = in.Condition
		}
		if e.Count > shelf.Most || len(e.Serials) > shelf.MostSerials {
			return nil, problem.List{{Pointer: "/text", Says: fmt.Sprintf("with these there would be %d pieces and %d serial numbers of %s, and a shelf holds at most %d and %d", e.Count, len(e.Serials), e.Part.Name, shelf.Most, shelf.MostSerials), Cure: "correct the count of what is there first"}}
		}
		return []shelf.Stock{e}, nil
	})
	var before *store.Applied
	if err != nil && !errors.As(err, &before) {
		return err
	}
	return s.row(c, got.Part.ID)
}

// of finds a kind of part on the shelf, nil if there is none of it.
func of(have []store.KeptStock, id part.ID) *store.KeptStock {
	if i := slices.IndexFunc(have, func(k store.KeptStock) bool { return k.Part.ID == id }); i >= 0 {
		return &have[i]
	}
	return nil
}

// bare is what is on the shelf, for those who ask for no revision.
func bare(kept []store.KeptStock) []shelf.Stock {
	out := make([]shelf.Stock, len(kept))
	for i := range kept {
		out[i] = kept[i].Stock
	}
	return out
}

// restock corrects one entry, which nobody else changed since it was read.
func (s *api) restock(c *gin.Context) error {
	in, err := body[Restock](c, "Restock")
	if err != nil {
		return err
	}
	if err := in.Stock.Part.Validate().Under("/stock/part").Err(); err != nil {
		return err
	}
	w := store.StockWrite{From: map[part.ID]int{in.Stock.Part.ID: in.Revision}, Stamp: s.stamp(in.By), Request: request(c, in.Key)}
	err = s.Data.ChangeStock(c.Request.Context(), w, func(store.OnShelf) ([]shelf.Stock, error) { return []shelf.Stock{in.Stock}, nil })
	var before *store.Applied
	var stale *store.Conflict
	switch {
	case errors.As(err, &stale):
		return &conflict{ProblemDoc{Title: "changed meanwhile", Status: http.StatusConflict, Detail: stale.Error() + "; nothing was changed"}}
	case err != nil && !errors.As(err, &before):
		return err
	}
	return s.row(c, in.Stock.Part.ID)
}

// shelfPart is one kind of part as it is on the shelf now.
func (s *api) shelfPart(c *gin.Context) error { return s.row(c, part.ID(c.Param("part"))) }

// shelfHistory is what was done to one kind of part on the shelf, the latest last.
func (s *api) shelfHistory(c *gin.Context) error {
	entries, err := s.Data.ShelfHistory(c.Request.Context(), part.ID(c.Param("part")))
	if err != nil {
		return err
	}
	c.JSON(http.StatusOK, s.journal(&job.Job{}, entries))
	return nil
}

func (s *api) shelfCSV(c *gin.Context) error {
	entries, err := s.Data.Shelf(c.Request.Context())
	if err != nil {
		return err
	}
	c.Header("Content-Disposition", `attachment; filename="shelf.csv"`)
	c.Header("Content-Type", "text/csv; charset=utf-8")
	return shelf.WriteCSV(c.Writer, bare(entries))
}

// bringCSV reads a list and says what is wrong with it; the good rows are taken
// only when the request says so.
func (s *api) bringCSV(c *gin.Context) error {
	text, err := fileBody(c)
	if err != nil {
		return err
	}
	find, err := s.stocked(c.Request.Context())
	if err != nil {
		return err
	}
	entries, wrong, err := shelf.ReadCSV(bytes.NewReader(text), func(id part.ID) (part.Part, bool) {
		e, ok := find(id)
		return e.Part, ok
	})
	if err != nil {
		return problem.List{{Fact: fact.From(err)}}
	}
	out := CSVReport{Good: len(entries), Problems: s.Language.Rows(wrong)}
	if c.Query("take") == "true" && len(entries) > 0 {
		w := store.StockWrite{Stamp: s.stamp(c.Query("by"))}
		if err := s.Data.ChangeStock(c.Request.Context(), w, func(store.OnShelf) ([]shelf.Stock, error) { return entries, nil }); err != nil {
			return err
		}
		out.Taken = len(entries)
	}
	out.Says = s.Language(fmt.Sprintf("%d good rows, %d faults", out.Good, len(wrong)))
	c.JSON(http.StatusOK, out)
	return nil
}

// part is a part in one line.
func (s *api) part(p *part.Part) say.Text {
	return say.In(s.Language, &rig.Rig{}).Part(p)
}
