package store

// This file brings damaged records back as they last were in order.

import (
	"context"
	"database/sql"
	"errors"
	"fmt"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/job"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/problem"
	"deepbay/internal/core/shelf"
)

// Raw is the document of a job, sheet or part as it lies in the file, damaged or not.
func (s *Store) Raw(ctx context.Context, what, id string) ([]byte, error) {
	table, ok := map[string]string{"job": "jobs", "sheet": "sheets", "part": "parts"}[what]
	if !ok {
		return nil, fmt.Errorf("a %s: %w", what, ErrNotFound)
	}
	var doc []byte
	err := s.db.QueryRowContext(ctx, `SELECT doc FROM `+table+` WHERE id = ?`, id).Scan(&doc)
	if errors.Is(err, sql.ErrNoRows) {
		return nil, fmt.Errorf("%s %q: %w", what, id, ErrNotFound)
	}
	return doc, err
}

// What keeps a record from being brought back. Nothing was changed.
var (
	ErrSound  = errors.New("it can be read as it is")
	ErrNoGood = errors.New("no revision of it can be read: bring a backup back")
)

// BringBackSheet makes the last good revision of a damaged sheet its next one.
func (s *Store) BringBackSheet(ctx context.Context, id machine.ID, by job.Stamp, r Request) error {
	if err := s.Applied(ctx, r); err != nil {
		return err
	}
	_, err := s.Sheet(ctx, id)
	if err := isDamaged(err); err != nil {
		return fmt.Errorf("sheet %q: %w", id, err)
	}
	good, at, err := lastGood(ctx, s, (*machine.Sheet).Validate, `SELECT revision, doc, sum FROM sheet_journal WHERE sheet = ? ORDER BY revision DESC`, string(id))
	if err != nil {
		return fmt.Errorf("sheet %q: %w", id, err)
	}
	_, err = s.PutSheet(ctx, SheetWrite{Sheet: good, Back: true, Done: fact.Of(machine.BroughtBack, at), Stamp: by, Request: r})
	if err == nil {
		s.damage.mend("sheet", string(id))
	}
	return err
}

// BringBackPart makes the last good revision of a damaged part, with its stock, its next one.
func (s *Store) BringBackPart(ctx context.Context, id part.ID, by job.Stamp, r Request) error {
	if err := s.Applied(ctx, r); err != nil {
		return err
	}
	_, err := s.OnShelf(ctx, id)
	if err := isDamaged(err); err != nil {
		return fmt.Errorf("part %q: %w", id, err)
	}
	good, at, err := lastGood(ctx, s, func(e *shelf.Stock) problem.List { return e.Part.Validate() }, `SELECT revision, doc, sum FROM shelf_journal WHERE part = ? ORDER BY revision DESC`, string(id))
	if err != nil {
		return fmt.Errorf("part %q: %w", id, err)
	}
	defer s.shelves.Add(1)
	err = s.write(ctx, func(tx *sql.Tx) error {
		if err := applied(ctx, tx, r); err != nil {
			return err
		}
		last := 0
		if err := tx.QueryRowContext(ctx, `SELECT max(revision) FROM shelf_journal WHERE part = ?`, id).Scan(&last); err != nil {
			return err
		}
		if err := putStockRevision(ctx, tx, last+1, good, fact.Of(shelf.BroughtBack, at), by); err != nil {
			return err
		}
		return claim(ctx, tx, r, "shelf", 0, by.At)
	})
	if err == nil {
		s.damage.mend("part", string(id))
	}
	return err
}

// isDamaged is nil for what cannot be read because it is damaged.
func isDamaged(err error) error {
	var damaged *Damaged
	switch {
	case err == nil:
		return ErrSound
	case errors.As(err, &damaged):
		return nil
	}
	return err
}

// lastGood finds the newest revision that is what was kept, and its number.
func lastGood[T any](ctx context.Context, s *Store, validate func(*T) problem.List, query, id string) (v T, revision int, err error) {
	rows, err := s.db.QueryContext(ctx, query, id)
	if err != nil {
		return v, 0, err
	}
	defer rows.Close()
	for rows.Next() {
		var doc []byte
		var sum sql.NullString
		if err := rows.Scan(&revision, &doc, &sum); err != nil {
			return v, 0, err
		}
		var read T
		if open(doc, sum, &read) == nil && validate(&read).Err() == nil {
			return read, revision, nil
		}
	}
	if err := rows.Err(); err != nil {
		return v, 0, err
	}
	return v, 0, ErrNoGood
}
