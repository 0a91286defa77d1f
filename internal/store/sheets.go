package store

// This file keeps sheets, each with every version it had.

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"sync"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/job"
	"deepbay/internal/core/machine"
	"deepbay/internal/format"
)

// ErrSheetTaken is returned when a sheet is created under a name that is in use.
var ErrSheetTaken = errors.New("a sheet of this name is in the shop already")

// KeptSheet is a sheet with its revision.
type KeptSheet struct {
	Sheet    machine.Sheet
	Revision int
}

// SheetWrite is one version of a sheet on its way into the file.
type SheetWrite struct {
	Sheet machine.Sheet
	From  int       // the revision it started from; 0 creates it, Whatever takes any
	Back  bool      // over what is there now, which may be damaged: From is not asked for
	Done  fact.Fact // for the history; none is what Diff tells
	Stamp job.Stamp
	Request
}

// Whatever as SheetWrite.From replaces the sheet at whichever revision it is, or
// creates it: for files that are brought in.
const Whatever = -1

// SheetName is a sheet as lists tell of it.
type SheetName struct {
	ID    machine.ID    `json:"id"`
	Name  string        `json:"name"`
	Class machine.Class `json:"class"`
}

// sheetNames are the names of sheets that were read.
type sheetNames struct {
	mu    sync.Mutex
	known map[string]SheetName // by id and digest
}

// Sheets lists all sheets by name, but for damaged ones; see Damage. Of each version a
// sheet is read once.
func (s *Store) Sheets(ctx context.Context) ([]SheetName, error) {
	rows, err := s.sealsOf(ctx, `SELECT id, COALESCE(seal, '') FROM sheets ORDER BY name, id`)
	if err != nil {
		return nil, fmt.Errorf("list sheets: %w", err)
	}
	now := map[string]SheetName{}
	out := []SheetName{}
	s.sheets.mu.Lock()
	defer s.sheets.mu.Unlock()
	for _, row := range rows {
		version := row.id + " " + row.seal
		name, ok := s.sheets.known[version]
		if !ok {
			k, err := s.Sheet(ctx, machine.ID(row.id))
			var damaged *Damaged
			if errors.As(err, &damaged) {
				continue
			} else if err != nil {
				return nil, err
			}
			name = SheetName{k.Sheet.ID, k.Sheet.Name, k.Sheet.Class}
		}
		now[version] = name
		out = append(out, name)
	}
	s.sheets.known = now
	return out, nil
}

// Sheet reads one sheet.
func (s *Store) Sheet(ctx context.Context, id machine.ID) (KeptSheet, error) {
	return s.sheet(ctx, id, `SELECT revision, doc, sum, seal FROM sheets WHERE id = ?`, id)
}

// SheetAt is a sheet as it was at a revision.
func (s *Store) SheetAt(ctx context.Context, id machine.ID, revision int) (KeptSheet, error) {
	return s.sheet(ctx, id, `SELECT revision, doc, sum, NULL FROM sheet_journal WHERE sheet = ? AND revision = ?`, id, revision)
}

func (s *Store) sheet(ctx context.Context, id machine.ID, query string, args ...any) (KeptSheet, error) {
	var k KeptSheet
	var doc []byte
	var sum, seal sql.NullString
	err := s.db.QueryRowContext(ctx, query, args...).Scan(&k.Revision, &doc, &sum, &seal)
	if errors.Is(err, sql.ErrNoRows) {
		return k, fmt.Errorf("sheet %q: %w", id, ErrNotFound)
	}
	if err == nil {
		if err = unsealRow(seal, id, k.Revision); err != nil {
			err = s.damaged("sheet", string(id), err)
		} else {
			err = s.unseal("sheet", string(id), doc, sum, &k.Sheet)
		}
	}
	if err != nil {
		return k, fmt.Errorf("sheet %q: %w", id, err)
	}
	return k, nil
}

// SheetHistory lists what was done to a sheet, oldest first.
func (s *Store) SheetHistory(ctx context.Context, id machine.ID) ([]Entry, error) {
	return s.entries(ctx, `SELECT revision, at, by, says, deed, seal FROM sheet_journal WHERE sheet = ? ORDER BY revision`, id)
}

// PutSheet keeps a version and returns its revision. What does not differ from the
// version before makes none; a request whose key is known was applied before.
func (s *Store) PutSheet(ctx context.Context, w SheetWrite) (int, error) {
	revision := 0
	err := s.write(ctx, func(tx *sql.Tx) (err error) {
		revision, err = putSheet(ctx, tx, w)
		return err
	})
	if err != nil {
		return 0, fmt.Errorf("sheet %q: %w", w.Sheet.ID, err)
	}
	return revision, nil
}

func putSheet(ctx context.Context, tx *sql.Tx, w SheetWrite) (int, error) {
	if err := applied(ctx, tx, w.Request); err != nil {
		return 0, err
	}
	var current int
	var before []byte
	row := tx.QueryRowContext(ctx, `SELECT revision, doc FROM sheets WHERE id = ?`, w.Sheet.ID)
	if w.Back {
		row = tx.QueryRowContext(ctx, `SELECT max(revision), NULL FROM sheet_journal WHERE sheet = ? HAVING max(revision) > 0`, w.Sheet.ID)
		w.From = Whatever
	}
	err := row.Scan(&current, &before)
	switch {
	case errors.Is(err, sql.ErrNoRows) && w.From > 0:
		return 0, ErrNotFound
	case err != nil && !errors.Is(err, sql.ErrNoRows):
		return 0, err
	case current > 0 && w.From == 0:
		return 0, ErrSheetTaken
	case w.From != Whatever && current != w.From:
		return 0, &Conflict{What: "sheet", Yours: w.From, Current: current}
	}
	done := w.Done
	if before != nil {
		if err := whole[machine.Sheet](before); err != nil {
			return 0, err
		}
		var old machine.Sheet
		if err := json.Unmarshal(before, &old); err != nil && !w.Done.Is() { // an older revision may be brought back over it
			return 0, &Damaged{"sheet", string(w.Sheet.ID), err.Error()}
		}
		changed := machine.Diff(&old, &w.Sheet)
		if len(changed) == 0 {
			return current, nil
		}
		if !done.Is() {
			done = fact.Of(machine.Changed, changed)
		}
	}
	if !done.Is() {
		done = fact.Of(machine.Made)
	}
	deed, err := format.WriteDeed(done, nil)
	if err != nil {
		return 0, err
	}
	doc, err := format.Write(w.Sheet)
	if err != nil {
		return 0, err
	}
	if err := putSheetRow(ctx, tx, &w.Sheet, current+1, doc); err != nil {
		return 0, err
	}
	at := w.Stamp.At.UTC().Format(timeLayout)
	_, err = tx.ExecContext(ctx, `INSERT INTO sheet_journal (sheet, revision, at, by, says, deed, doc, sum, seal) VALUES (?, ?, ?, ?, '', ?, ?, ?, ?)`,
		w.Sheet.ID, current+1, at, w.Stamp.By, string(deed), string(doc), seal(doc), sealRow(w.Sheet.ID, current+1, at, w.Stamp.By, string(deed)))
	if err != nil {
		return 0, err
	}
	return current + 1, claim(ctx, tx, w.Request, string(w.Sheet.ID), current+1, w.Stamp.At)
}

// putSheetRow keeps a sheet as its document says it.
func putSheetRow(ctx context.Context, tx *sql.Tx, sheet *machine.Sheet, revision int, doc []byte) error {
	_, err := tx.ExecContext(ctx, `INSERT INTO sheets (id, name, doc, revision, sum, seal) VALUES (?1, ?2, ?3, ?4, ?5, ?6)
		ON CONFLICT (id) DO UPDATE SET name = ?2, doc = ?3, revision = ?4, sum = ?5, seal = ?6`, sheet.ID, sheet.Name, string(doc), revision, seal(doc), sealRow(sheet.ID, revision))
	return err
}
