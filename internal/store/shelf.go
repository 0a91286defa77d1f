package store

// This file keeps what is on the shelf: each kind of part with its stock, in revisions, as
// jobs and sheets are kept.

import (
	"cmp"
	"context"
	"database/sql"
	"encoding/json"
	"errors"
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
	was := s.shelf.Load()
	if was != nil && was.at == at {
		return slices.Clone(was.rows), nil
	}
	now, err := s.stock(ctx, was)
	if err != nil {
		return nil, fmt.Errorf("shelf: %w", err)
	}
	if now.at = at; !now.damaged {
		s.shelf.Store(now)
	}
	return slices.Clone(now.rows), nil
}

// readShelf is the shelf as it was read after so many changes; nobody changes what is in it.
type readShelf struct {
	at      int64
	rows    []KeptStock
	seals   map[part.ID]string // the digests of rows
	damaged bool               // some of it, which is left out
}

// stock reads what is on the shelf: of what was read before, by its digests, only which it is.
func (s *Store) stock(ctx context.Context, was *readShelf) (*readShelf, error) {
	known := map[part.ID]*KeptStock{}
	if was != nil {
		for i := range was.rows {
			known[was.rows[i].Part.ID] = &was.rows[i]
		}
	}
	seals, err := s.sealsOf(ctx, `SELECT p.id, COALESCE(p.seal, '') || COALESCE(s.seal, '') FROM parts p LEFT JOIN stock s ON s.part = p.id ORDER BY p.name, p.id`)
	if err != nil {
		return nil, err
	}
	out := &readShelf{rows: []KeptStock{}, seals: map[part.ID]string{}}
	for _, row := range seals {
		id := part.ID(row.id)
		e := known[id]
		if e == nil || was.seals[id] != row.seal {
			read, err := s.OnShelf(ctx, id)
			var is *Damaged
			if errors.As(err, &is) {
				out.damaged = true
				continue
			} else if err != nil {
				return nil, err
			}
			e = &read
		}
		out.rows, out.seals[id] = append(out.rows, *e), row.seal
	}
	return out, nil
}

// OnShelf is what there is of one kind of part.
func (s *Store) OnShelf(ctx context.Context, id part.ID) (KeptStock, error) {
	k, err := s.readStock(s.db.QueryRowContext(ctx, stockRows+` WHERE p.id = ?`, id))
	if errors.Is(err, sql.ErrNoRows) {
		err = fmt.Errorf("part %q on the shelf: %w", id, ErrNotFound)
	}
	return k, err
}

const stockRows = `SELECT p.id, p.revision, p.doc, p.sum, p.seal, COALESCE(s.count, 0), COALESCE(s.price, 0), COALESCE(s.condition, ''), COALESCE(s.serials, '[]'), s.seal
	FROM parts p LEFT JOIN stock s ON s.part = p.id`

// readStock reads one row of the shelf; the error of one that is not what was kept is *Damaged.
func (s *Store) readStock(row interface{ Scan(...any) error }) (KeptStock, error) {
	var id part.ID
	var doc, serials []byte
	var sum, partSeal, stockSeal sql.NullString
	var e KeptStock
	if err := row.Scan(&id, &e.Revision, &doc, &sum, &partSeal, &e.Count, (*int64)(&e.Price), &e.Condition, &serials, &stockSeal); err != nil {
		return e, err
	}
	if err := cmp.Or(unsealRow(partSeal, id, e.Revision), unsealRow(stockSeal, id, e.Count, int64(e.Price), e.Condition, string(serials))); err != nil {
		return e, s.damaged("part", string(id), err)
	}
	if err := s.unseal("part", string(id), doc, sum, &e.Part); err != nil {
		return e, err
	}
	return e, json.Unmarshal(serials, &e.Serials)
}

// OnShelf finds what there is of a part; one that was never there is at revision 0.
type OnShelf func(part.ID) (KeptStock, error)

// ChangeStock makes new entries of what is on the shelf, all or none. Nobody else changes
// the shelf in between, so that what is added at once is all there. What does not differ
// from what was there makes no revision, and what is damaged is not written over.
func (s *Store) ChangeStock(ctx context.Context, w StockWrite, change func(on OnShelf) ([]shelf.Stock, error)) error {
	defer s.shelves.Add(1) // whatever came of it: what was read before is read anew
	return s.write(ctx, func(tx *sql.Tx) error {
		if err := applied(ctx, tx, w.Request); err != nil {
			return err
		}
		on := func(id part.ID) (KeptStock, error) {
			k, err := s.readStock(tx.QueryRowContext(ctx, stockRows+` WHERE p.id = ?`, id))
			if errors.Is(err, sql.ErrNoRows) {
				return KeptStock{Stock: shelf.Stock{Part: part.Part{ID: id}}}, nil
			}
			return k, err
		}
		entries, err := change(on)
		if err != nil {
			return err
		}
		for i := range entries {
			id := entries[i].Part.ID
			was, err := on(id) // a list may name it twice
			if err != nil {
				return err
			}
			if from, asked := w.From[id]; asked && from != was.Revision {
				return &Conflict{What: "part", Yours: from, Current: was.Revision}
			}
			if err := putStock(ctx, tx, was, entries[i], w.Stamp); err != nil {
				return fmt.Errorf("part %q on the shelf: %w", id, err)
			}
		}
		return claim(ctx, tx, w.Request, "shelf", 0, w.Stamp.At)
	})
}

func putStock(ctx context.Context, tx *sql.Tx, was KeptStock, e shelf.Stock, by job.Stamp) error {
	done := shelf.First(&e)
	if was.Revision > 0 {
		changed := shelf.Diff(&was.Stock, &e)
		if len(changed) == 0 {
			return nil
		}
		done = fact.Of(shelf.Changed, changed)
		var doc []byte
		if err := tx.QueryRowContext(ctx, `SELECT doc FROM parts WHERE id = ?`, e.Part.ID).Scan(&doc); err != nil {
			return err
		}
		if err := whole[part.Part](doc); err != nil {
			return err
		}
	}
	return putStockRevision(ctx, tx, was.Revision+1, e, done, by)
}

// putStockRow keeps a part with its stock.
func putStockRow(ctx context.Context, tx *sql.Tx, revision int, e *shelf.Stock) error {
	serials, err := json.Marshal(e.Serials)
	if err != nil {
		return err
	}
	doc, err := format.Write(e.Part)
	if err != nil {
		return err
	}
	if _, err := tx.ExecContext(ctx, `INSERT INTO parts (id, name, doc, sum, revision, seal) VALUES (?1, ?2, ?3, ?4, ?5, ?6)
		ON CONFLICT (id) DO UPDATE SET name = ?2, doc = ?3, sum = ?4, revision = ?5, seal = ?6`, e.Part.ID, e.Part.Name, string(doc), seal(doc), revision, sealRow(e.Part.ID, revision)); err != nil {
		return err
	}
	_, err = tx.ExecContext(ctx, `INSERT INTO stock (part, count, price, condition, serials, seal) VALUES (?1, ?2, ?3, ?4, ?5, ?6)
		ON CONFLICT (part) DO UPDATE SET count = ?2, price = ?3, condition = ?4, serials = ?5, seal = ?6`,
		e.Part.ID, e.Count, int64(e.Price), e.Condition, string(serials), sealRow(e.Part.ID, e.Count, int64(e.Price), e.Condition, string(serials)))
	return err
}

// putStockRevision keeps a revision of a part with its stock.
func putStockRevision(ctx context.Context, tx *sql.Tx, revision int, e shelf.Stock, done fact.Fact, by job.Stamp) error {
	if e.Serials == nil {
		e.Serials = []string{}
	}
	if err := putStockRow(ctx, tx, revision, &e); err != nil {
		return err
	}
	deed, err := format.WriteDeed(done, nil)
	if err != nil {
		return err
	}
	whole, err := json.Marshal(e)
	if err != nil {
		return err
	}
	at := by.At.UTC().Format(timeLayout)
	_, err = tx.ExecContext(ctx, `INSERT INTO shelf_journal (part, revision, at, by, says, deed, doc, sum, seal) VALUES (?, ?, ?, ?, '', ?, ?, ?, ?)`,
		e.Part.ID, revision, at, by.By, string(deed), string(whole), seal(whole), sealRow(e.Part.ID, revision, at, by.By, string(deed)))
	return err
}

// PutPart keeps the description of a part on the shelf, in place of one of the same id;
// how many there are stays.
func (s *Store) PutPart(ctx context.Context, v part.Part, by job.Stamp) error {
	return s.ChangeStock(ctx, StockWrite{Stamp: by}, func(on OnShelf) ([]shelf.Stock, error) {
		k, err := on(v.ID)
		k.Part = v
		return []shelf.Stock{k.Stock}, err
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
