package server

// This file reads the line with which a job begins. Nothing is changed.

import (
	"context"
	"encoding/json"
	"net/http"
	"strings"

	"github.com/gin-gonic/gin"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/intake"
	"deepbay/internal/core/job"
	"deepbay/internal/core/problem"
	"deepbay/internal/store"
)

// mostTags is how many words of a line are looked for among the tags of the shop.
const mostTags = 8

func (s *api) intake(c *gin.Context) error {
	ctx, text := c.Request.Context(), c.Query("text")
	names, err := s.Data.Sheets(ctx)
	if err != nil {
		return err
	}
	sheets := make([]intake.Sheet, len(names))
	for i, n := range names {
		sheets[i] = intake.Sheet{ID: n.ID, Name: n.Name}
	}
	var seen []intake.Seen
	if len(text) <= intake.Most {
		if seen, err = s.seen(ctx, text); err != nil {
			return err
		}
	}
	got, err := intake.Read(text, sheets, seen)
	if err != nil {
		return problem.List{{Pointer: "/text", Fact: fact.From(err)}}
	}
	c.JSON(http.StatusOK, s.Language.Intake(&got))
	return nil
}

// seen is the machines whose tags stand in a line: the latest job about each.
func (s *api) seen(ctx context.Context, text string) ([]intake.Seen, error) {
	var out []intake.Seen
	tried := 0
	for _, word := range strings.FieldsFunc(text, func(r rune) bool { return strings.ContainsRune(" ,;:()\"'", r) }) {
		if len(word) < 3 || !strings.ContainsAny(word, "0123456789") || tried == mostTags {
			continue
		}
		tried++
		list, err := s.Data.Jobs(ctx, store.Page{Query: word, Most: jobsOnPage})
		if err != nil {
			return nil, err
		}
		cards, err := s.cards(ctx, list.Stands)
		if err != nil {
			return nil, err
		}
		for _, kept := range cards {
			var card JobCard
			if err := json.Unmarshal(kept.Body, &card); err != nil {
				return nil, err
			}
			if !strings.EqualFold(card.Tag, word) || !card.Ill.IsZero() {
				continue
			}
			k, err := s.Data.Job(ctx, card.ID)
			if err != nil {
				return nil, err
			}
			out = append(out, intake.Seen{Job: string(card.ID), Tag: card.Tag, Title: card.Title, Owner: card.Owner, Sheet: k.Job.Sheet.ID, Open: card.Status.Stage != job.StageClosed})
			break
		}
	}
	return out, nil
}
