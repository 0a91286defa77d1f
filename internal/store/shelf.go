package store

// This file keeps what is on the shelf.

import (
	"context"
	"database/sql"
	"encoding/json"
	"fmt"
	"time"

	"deepbay/internal/core/part"
	"deepbay/internal/core/shelf"
)

// Shelf lists all parts with their stock, by name. A part that was never counted
// has a count of 0.
func (s *Store) Shelf(ctx context.Context) ([]shelf.Stock, error) {
	out, _, err := s.stockOf(ctx, s.db)
	return out, err
}

// queries is the file, or a transaction in it.
type queries interface {
	QueryContext(ctx context.Context, query string, args ...any) (*sql.Rows, error)
}

// stockOf lists what is on the shelf, and which parts there are damaged.
func (s *Store) stockOf(ctx context.Context, q queries) ([]shelf.Stock, map[part.ID]error, error) {
	rows, err := q.QueryContext(ctx, `SELECT p.id, p.doc, p.sum, COALESCE(s.count, 0), COALESCE(s.price, 0), COALESCE(s.condition, ''), COALESCE(s.serials, '[]')
		FROM parts p LEFT JOIN stock s ON s.part = p.id ORDER BY p.name, p.id`)
	if err != nil {
		return nil, nil, fmt.Errorf("shelf: %w", err)
	}
	defer rows.Close()
	out, damaged := []shelf.Stock{}, map[part.ID]error{}
	for rows.Next() {
		var id part.ID
		var doc, serials []byte
		var sum sql.NullString
		var e shelf.Stock
		if err := rows.Scan(&id, &doc, &sum, &e.Count, &e.Price, &e.Condition, &serials); err != nil {
			return nil, nil, fmt.Errorf("shelf: %w", err)
		}
		if err := s.unseal("part", string(id), doc, sum, &e.Part); err != nil {
			damaged[id] = err
			continue
		}
		if err := json.Unmarshal(serials, &e.Serials); err != nil {
			return nil, nil, fmt.Errorf("shelf: %w", err)
		}
		out = append(out, e)
	}
	return out, damaged, rows.Err()
}

// PutStock keeps entries, all or none.
func (s *Store) PutStock(ctx context.Context, entries []shelf.Stock) error {
	return s.ChangeStock(ctx, Request{}, time.Time{}, func([]shelf.Stock) ([]shelf.Stock, error) { return entries, nil })
}

// ChangeStock makes new entries of what is on the shelf, all or none. Nobody else changes
// the shelf in between, so that what is added at once is all there.
func (s *Store) ChangeStock(ctx context.Context, r Request, at time.Time, change func(have []shelf.Stock) ([]shelf.Stock, error)) error {
	return s.write(ctx, func(tx *sql.Tx) error {
		if err := applied(ctx, tx, r); err != nil {
			return err
		}
		have, damaged, err := s.stockOf(ctx, tx)
		if err != nil {
			return err
		}
		entries, err := change(have)
		if err != nil {
			return err
		}
		for i := range entries {
			if err := damaged[entries[i].Part.ID]; err != nil { // what is left of it is not written over
				return err
			}
			if err := putStock(ctx, tx, &entries[i]); err != nil {
				return err
			}
		}
		return claim(ctx, tx, r, "shelf", 0, at)
	})
}

func putStock(ctx context.Context, tx *sql.Tx, e *shelf.Stock) error {
	if e.Serials == nil {
		e.Serials = []string{}
	}
	serials, err := json.Marshal(e.Serials)
	if err != nil {
		return fmt.Errorf("part %q: %w", e.Part.ID, err)
	}
	if err := putPart(ctx, tx, e.Part); err != nil {
		return err
	}
	if _, err := tx.ExecContext(ctx, `INSERT INTO stock (part, count, price, condition, serials) VALUES (?1, ?2, ?3, ?4, ?5)
		ON CONFLICT (part) DO UPDATE SET count = ?2, price = ?3, condition = ?4, serials = ?5`,
		e.Part.ID, e.Count, e.Price, e.Condition, string(serials)); err != nil {
		return fmt.Errorf("stock of %q: %w", e.Part.ID, err)
	}
	return nil
}
