package store

// This file keeps what the shop does where practitioners differ: one document.

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"

	"deepbay/internal/core/job"
	"deepbay/internal/core/practice"
)

// KeptPractice is the shop's practice; revision 0 is one that nobody wrote: all is as usual.
type KeptPractice struct {
	Practice practice.Practice
	Revision int
}

// Practice reads the shop's practice.
func (s *Store) Practice(ctx context.Context) (KeptPractice, error) {
	out := KeptPractice{Practice: practice.Practice{}}
	var doc []byte
	var sum sql.NullString
	err := s.db.QueryRowContext(ctx, `SELECT revision, doc, sum FROM practice WHERE one = 1`).Scan(&out.Revision, &doc, &sum)
	switch {
	case errors.Is(err, sql.ErrNoRows):
		return out, nil
	case err == nil:
		err = s.unseal("practice", "of the shop", doc, sum, &out.Practice)
	}
	if err != nil {
		return KeptPractice{}, fmt.Errorf("the shop's practice: %w", err)
	}
	return out, nil
}

// PutPractice writes the shop's practice over the revision that was read.
func (s *Store) PutPractice(ctx context.Context, p practice.Practice, from int, by job.Stamp) error {
	doc, err := json.Marshal(p)
	if err != nil {
		return fmt.Errorf("the shop's practice: %w", err)
	}
	err = s.write(ctx, func(tx *sql.Tx) error {
		current := 0
		if err := tx.QueryRowContext(ctx, `SELECT coalesce(max(revision), 0) FROM practice`).Scan(&current); err != nil {
			return err
		}
		if current != from {
			return &Conflict{What: "practice", Yours: from, Current: current}
		}
		_, err := tx.ExecContext(ctx, `INSERT INTO practice (one, revision, doc, at, by, sum) VALUES (1, ?1, ?2, ?3, ?4, ?5)
			ON CONFLICT (one) DO UPDATE SET revision = ?1, doc = ?2, at = ?3, by = ?4, sum = ?5`, from+1, string(doc), by.At.UTC().Format(timeLayout), by.By, seal(doc))
		return err
	})
	if err != nil {
		return fmt.Errorf("the shop's practice: %w", err)
	}
	s.damage.mend("practice", "of the shop")
	return nil
}
