package store

// This file keeps what is on the shelf: each kind of part with its stock, in revisions, as
// jobs and sheets are kept.

import (
	"cmp"
	"context"
	"database/sql"
	"encoding/json"
	"fmt"
	"slices"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/job"
	"deepbay/internal/core/part"
	"deepbay/internal/core/shelf"
	"deepbay/internal/format"
)

// KeptStock is one kind of part on the shelf, with its revision.
type KeptStock struct {
	shelf.Stock
	Revision int
}

// StockWrite is a change of the shelf on its way into the file.
type StockWrite struct {
	From  map[part.ID]int // the revisions it started from, 0 for what was not there; others are taken as they are
	Stamp job.Stamp
	Request
}

// Shelf lists all parts with their stock, by name, but for damaged ones; see Damage. A
// part that was never counted has a count of 0.
func (s *Store) Shelf(ctx context.Context) ([]KeptStock, error) {
	at := s.shelves.Load()
	if c := s.shelf.Load(); c != nil && c.at == at {
		return slices.Clone(c.rows), nil
	}
	out, damaged, err := s.stockOf(ctx, s.db)
	if err == nil && len(damaged) == 0 {
		s.shelf.Store(&readShelf{at, out})
	}
	return slices.Clone(out), err
}

// readShelf is the shelf as it was read after so many changes; nobody changes what is in it.
type readShelf struct {
	at   int64
	rows []KeptStock
}

// queries is the file, or a transaction in it.
type queries interface {
	QueryContext(ctx context.Context, query string, args ...any) (*sql.Rows, error)
}

// stockOf lists what is on the shelf, and which parts there are damaged.
func (s *Store) stockOf(ctx context.Context, q queries) ([]KeptStock, map[part.ID]error, error) {
	rows, err := q.QueryContext(ctx, `SELECT p.id, p.revision, p.doc, p.sum, p.seal, COALESCE(s.count, 0), COALESCE(s.price, 0), COALESCE(s.condition, ''), COALESCE(s.serials, '[]'), s.seal
		FROM parts p LEFT JOIN stock s ON s.part = p.id ORDER BY p.name, p.id`)
	if err != nil {
		return nil, nil, fmt.Errorf("shelf: %w", err)
	}
	defer rows.Close()
	out, damaged := []KeptStock{}, map[part.ID]error{}
	for rows.Next() {
		var id part.ID
		var doc, serials []byte
		var sum, partSeal, stockSeal sql.NullString
		var e KeptStock
		if err := rows.Scan(&id, &e.Revision, &doc, &sum, &partSeal, &e.Count, (*int64)(&e.Price), &e.Condition, &serials, &stockSeal); err != nil {
			return nil, nil, fmt.Errorf("shelf: %w", err)
		}
		if err := cmp.Or(unsealRow(partSeal, id, e.Revision), unsealRow(stockSeal, id, e.Count, int64(e.Price), e.Condition, string(serials))); err != nil {
			damaged[id] = s.damaged("part", string(id), err)
			continue
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

// ChangeStock makes new entries of what is on the shelf, all or none. Nobody else changes
// the shelf in between, so that what is added at once is all there. What does not differ
// from what was there makes no revision.
func (s *Store) ChangeStock(ctx context.Context, w StockWrite, change func(have []KeptStock) ([]shelf.Stock, error)) error {
	defer s.shelves.Add(1) // whatever came of it: what was read before is read anew
	return s.write(ctx, func(tx *sql.Tx) error {
		if err := applied(ctx, tx, w.Request); err != nil {
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
		there := map[part.ID]KeptStock{}
		for _, k := range have {
			there[k.Part.ID] = k
		}
		for i := range entries {
			id := entries[i].Part.ID
			if err := damaged[id]; err != nil { // what is left of it is not written over
				return err
			}
			if from, asked := w.From[id]; asked && from != there[id].Revision {
				return &Conflict{What: "part", Yours: from, Current: there[id].Revision}
			}
			k, err := putStock(ctx, tx, there[id], entries[i], w.Stamp)
			if err != nil {
				return fmt.Errorf("part %q on the shelf: %w", id, err)
			}
			there[id] = k // a list may name it twice
		}
		return claim(ctx, tx, w.Request, "shelf", 0, w.Stamp.At)
	})
}

func putStock(ctx context.Context, tx *sql.Tx, was KeptStock, e shelf.Stock, by job.Stamp) (KeptStock, error) {
	done := shelf.First(&e)
	if was.Revision > 0 {
		changed := shelf.Diff(&was.Stock, &e)
		if len(changed) == 0 {
			return was, nil
		}
		done = fact.Of(shelf.Changed, changed)
	}
	if was.Revision > 0 {
		var doc []byte
		if err := tx.QueryRowContext(ctx, `SELECT doc FROM parts WHERE id = ?`, e.Part.ID).Scan(&doc); err != nil {
			return was, err
		}
		if err := whole[part.Part](doc); err != nil {
			return was, err
		}
	}
	next := KeptStock{e, was.Revision + 1}
	if e.Serials == nil {
		e.Serials = []string{}
	}
	serials, err := json.Marshal(e.Serials)
	if err != nil {
		return was, err
	}
	doc, err := format.Write(e.Part)
	if err != nil {
		return was, err
	}
	if _, err := tx.ExecContext(ctx, `INSERT INTO parts (id, name, doc, sum, revision, seal) VALUES (?1, ?2, ?3, ?4, ?5, ?6)
		ON CONFLICT (id) DO UPDATE SET name = ?2, doc = ?3, sum = ?4, revision = ?5, seal = ?6`, e.Part.ID, e.Part.Name, string(doc), seal(doc), next.Revision, sealRow(e.Part.ID, next.Revision)); err != nil {
		return was, err
	}
	if _, err := tx.ExecContext(ctx, `INSERT INTO stock (part, count, price, condition, serials, seal) VALUES (?1, ?2, ?3, ?4, ?5, ?6)
		ON CONFLICT (part) DO UPDATE SET count = ?2, price = ?3, condition = ?4, serials = ?5, seal = ?6`,
		e.Part.ID, e.Count, int64(e.Price), e.Condition, string(serials), sealRow(e.Part.ID, e.Count, int64(e.Price), e.Condition, string(serials))); err != nil {
		return was, err
	}
	deed, err := format.WriteDeed(done, nil)
	if err != nil {
		return was, err
	}
	whole, err := json.Marshal(e)
	if err != nil {
		return was, err
	}
	at := by.At.UTC().Format(timeLayout)
	_, err = tx.ExecContext(ctx, `INSERT INTO shelf_journal (part, revision, at, by, says, deed, doc, sum, seal) VALUES (?, ?, ?, ?, '', ?, ?, ?, ?)`,
		e.Part.ID, next.Revision, at, by.By, string(deed), string(whole), seal(whole), sealRow(e.Part.ID, next.Revision, at, by.By, string(deed)))
	return next, err
}

// PutPart keeps the description of a part on the shelf, in place of one of the same id;
// how many there are stays.
func (s *Store) PutPart(ctx context.Context, v part.Part, by job.Stamp) error {
	return s.ChangeStock(ctx, StockWrite{Stamp: by}, func(have []KeptStock) ([]shelf.Stock, error) {
		e := shelf.Stock{}
		for _, k := range have {
			if k.Part.ID == v.ID {
				e = k.Stock
			}
		}
		e.Part = v
		return []shelf.Stock{e}, nil
	})
}

// Parts lists all parts of the shelf by name, but for damaged ones; see Damage.
func (s *Store) Parts(ctx context.Context) ([]part.Part, error) {
	return list[part.Part](ctx, s, "part", `SELECT id, doc, sum FROM parts ORDER BY name, id`)
}

// ShelfHistory lists what was done to one kind of part on the shelf, oldest first.
func (s *Store) ShelfHistory(ctx context.Context, id part.ID) ([]Entry, error) {
	out, err := s.entries(ctx, `SELECT revision, at, by, says, deed, seal FROM shelf_journal WHERE part = ? ORDER BY revision`, id)
	if err == nil && len(out) == 0 {
		err = fmt.Errorf("part %q on the shelf: %w", id, ErrNotFound)
	}
	return out, err
}

// StockAt is what there was of one kind of part at a revision.
func (s *Store) StockAt(ctx context.Context, id part.ID, revision int) (shelf.Stock, error) {
	return at[shelf.Stock](ctx, s, "part", string(id), revision, `SELECT doc, sum FROM shelf_journal WHERE part = ? AND revision = ?`)
}
