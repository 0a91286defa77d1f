package store

// This file saves what can be saved of a data file, however damaged, to open files.

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"strings"

	"deepbay/internal/core/job"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/problem"
	"deepbay/internal/core/shelf"
	"deepbay/internal/format"
)

// Rescued is what was saved, and what was not as it was kept.
type Rescued struct {
	Jobs, Sheets, Parts, Lines int // lines of journals
	Older                      int // jobs and sheets of which only an older revision was good
	Pictures                   int
	Faults                     []string
}

// Rescue writes what a data file holds into a new folder, each job, sheet and part as a
// file that can be brought in again, the shelf as a list, journals a line each. Of what is
// damaged the last good revision is saved, and beside it what is there. The data file is
// not opened itself but a copy, so that it stays as it is, and it may be cut or have
// damaged pages: what can be read around them is. The error is of the folder, or of a
// file of which nothing can be read.
func Rescue(ctx context.Context, path, dir string) (Rescued, error) {
	if entries, err := os.ReadDir(dir); err == nil && len(entries) > 0 {
		return Rescued{}, fmt.Errorf("%s is not empty: name a new folder", dir)
	}
	work, err := os.MkdirTemp("", "deepbay-rescue-")
	if err != nil {
		return Rescued{}, err
	}
	defer os.RemoveAll(work)
	whole := filepath.Join(work, "copy.db")
	if err := copyFile(whole, path); err != nil {
		return Rescued{}, err
	}
	if err := copyFile(whole+"-wal", path+"-wal"); err != nil && !errors.Is(err, os.ErrNotExist) {
		return Rescued{}, err
	}
	db, err := connect(whole, "cell_size_check(0)")
	if err != nil {
		return Rescued{}, err
	}
	defer db.Close()
	r := rescuer{db: db, dir: dir}
	if _, err := db.ExecContext(ctx, `SELECT count(*) FROM sqlite_schema`); err != nil {
		return Rescued{}, fmt.Errorf("nothing of %s can be read: %w; bring a backup back", path, err)
	}
	r.thing(ctx, "job", "jobs", "journal", &r.out.Jobs, func(b []byte) (any, error) { return checked(b, (*job.Job).Validate) })
	r.thing(ctx, "sheet", "sheets", "sheet_journal", &r.out.Sheets, func(b []byte) (any, error) { return checked(b, (*machine.Sheet).Validate) })
	r.thing(ctx, "part", "parts", "shelf_journal", &r.out.Parts, func(b []byte) (any, error) { return checked(b, (*part.Part).Validate) })
	r.shelf(ctx)
	r.pictures(ctx, ofSheets)
	r.pictures(ctx, ofJobs)
	r.practice(ctx)
	return r.out, errors.Join(r.fault, ctx.Err())
}

func checked[T any](b []byte, validate func(*T) problem.List) (any, error) {
	var v T
	if err := json.Unmarshal(b, &v); err != nil {
		return nil, err
	}
	return v, validate(&v).Err()
}

// rescuer writes into a folder; fault is what kept it from writing.
type rescuer struct {
	db    *sql.DB
	dir   string
	out   Rescued
	fault error
}

func (r *rescuer) says(format string, args ...any) {
	r.out.Faults = append(r.out.Faults, fmt.Sprintf(format, args...))
}

func (r *rescuer) write(name string, b []byte) {
	path := filepath.Join(r.dir, name)
	err := os.MkdirAll(filepath.Dir(path), 0o700)
	if err == nil {
		err = os.WriteFile(path, b, 0o600)
	}
	r.fault = errors.Join(r.fault, err)
}

// names are the ids of a table, from wherever they can still be read.
func (r *rescuer) names(ctx context.Context, queries ...string) []string {
	seen := map[string]bool{}
	var out []string
	for _, q := range queries {
		rows, err := r.db.QueryContext(ctx, q)
		if err != nil {
			continue // the table, or the page its tree begins at, is gone
		}
		for rows.Next() {
			var id string
			if rows.Scan(&id) == nil && !seen[id] {
				seen[id] = true
				out = append(out, id)
			}
		}
		if err := rows.Err(); err != nil {
			r.says("damaged pages: %v", err)
		}
		rows.Close()
	}
	return out
}

// thing saves every job, sheet or part with its journal.
func (r *rescuer) thing(ctx context.Context, what, table, journal string, n *int, read func([]byte) (any, error)) {
	ids := r.names(ctx, `SELECT id FROM `+table, `SELECT DISTINCT `+what+` FROM `+journal, `SELECT id FROM `+table+` NOT INDEXED ORDER BY rowid DESC`)
	for _, id := range ids {
		base := fileName(id)
		doc, v, err := r.document(ctx, read, `SELECT doc, sum FROM `+table+` WHERE id = ?`, id)
		if err != nil {
			r.says("%s %s: %v", what, id, err)
			if doc != nil {
				r.write(filepath.Join("damaged", base+"."+what+".raw.txt"), doc)
			}
			v = r.older(ctx, what, journal, id, read)
		}
		if v != nil {
			if b, err := format.Write(v); err == nil {
				r.write(filepath.Join(table, base+"."+what+".json"), b)
				*n++
			}
		}
		r.journal(ctx, journal, what, id, base)
	}
}

// document reads one document and holds it against its digest; what there is of it comes
// back with the error.
func (r *rescuer) document(ctx context.Context, read func([]byte) (any, error), query string, args ...any) ([]byte, any, error) {
	var doc []byte
	var sum sql.NullString
	if err := r.db.QueryRowContext(ctx, query, args...).Scan(&doc, &sum); err != nil {
		return nil, nil, err
	}
	if sum.Valid && sum.String != seal(doc) {
		return doc, nil, errDoc
	}
	v, err := read(doc)
	return doc, v, err
}

// older is the last good revision, nil where there is none.
func (r *rescuer) older(ctx context.Context, what, journal, id string, read func([]byte) (any, error)) any {
	last := 0
	if err := r.db.QueryRowContext(ctx, `SELECT COALESCE(max(revision), 0) FROM `+journal+` WHERE `+what+` = ?`, id).Scan(&last); err != nil {
		last = mostLooked
	}
	if what == "part" { // there it lies with its stock
		whole := read
		read = func(b []byte) (any, error) {
			var e shelf.Stock
			if err := json.Unmarshal(b, &e); err != nil {
				return nil, err
			}
			b, err := json.Marshal(e.Part)
			if err != nil {
				return nil, err
			}
			return whole(b)
		}
	}
	for at := min(last, mostLooked); at > 0; at-- {
		_, v, err := r.document(ctx, read, `SELECT doc, sum FROM `+journal+` WHERE `+what+` = ? AND revision = ?`, id, at)
		if err == nil {
			r.says("%s %s: saved as it was at revision %d", what, id, at)
			r.out.Older++
			return v
		}
	}
	return nil
}

// mostLooked is how many revisions of a thing are tried at most.
const mostLooked = 10_000

// journal saves what was done to a thing, an object a line.
func (r *rescuer) journal(ctx context.Context, table, key, id, base string) {
	rows, err := r.db.QueryContext(ctx, `SELECT revision, at, by, says, COALESCE(deed, 'null') FROM `+table+` WHERE `+key+` = ? ORDER BY revision`, id)
	if err != nil {
		return // of a version without this journal, or damaged: what it is about was said
	}
	defer rows.Close()
	var b strings.Builder
	for rows.Next() {
		var e struct {
			Revision int             `json:"revision"`
			At       string          `json:"at"`
			By       string          `json:"by"`
			Says     string          `json:"says,omitempty"`
			Deed     json.RawMessage `json:"deed"`
		}
		var deed string
		if err := rows.Scan(&e.Revision, &e.At, &e.By, &e.Says, &deed); err != nil {
			r.says("journal of %s: %v", id, err)
			continue
		}
		if e.Deed = json.RawMessage(deed); !json.Valid(e.Deed) {
			e.Deed = json.RawMessage("null")
		}
		line, err := json.Marshal(e)
		if err != nil {
			r.says("journal of %s: %v", id, err)
			continue
		}
		r.out.Lines++
		b.Write(append(line, '\n'))
	}
	if err := rows.Err(); err != nil {
		r.says("journal of %s ends where its pages are damaged: %v", id, err)
	}
	if b.Len() > 0 {
		r.write(filepath.Join("journals", base+"."+key+".jsonl"), []byte(b.String()))
	}
}

// shelf saves the shelf as the list that is brought in again.
func (r *rescuer) shelf(ctx context.Context) {
	rows, err := r.db.QueryContext(ctx, `SELECT p.doc, s.count, s.price, s.condition, s.serials FROM stock s JOIN parts p ON p.id = s.part ORDER BY p.id`)
	if err != nil {
		r.says("the shelf's counts: %v", err)
		return
	}
	defer rows.Close()
	var list []shelf.Stock
	for rows.Next() {
		var doc, serials []byte
		var e shelf.Stock
		err := rows.Scan(&doc, &e.Count, (*int64)(&e.Price), &e.Condition, &serials)
		err = errors.Join(err, json.Unmarshal(doc, &e.Part), json.Unmarshal(serials, &e.Serials))
		if err != nil {
			r.says("a row of the shelf: %v", err)
			continue
		}
		list = append(list, e)
	}
	if err := rows.Err(); err != nil {
		r.says("the shelf's counts end where its pages are damaged: %v", err)
	}
	var b strings.Builder
	if err := shelf.WriteCSV(&b, list); err != nil {
		r.says("the shelf's list: %v", err)
		return
	}
	r.write("shelf.csv", []byte(b.String()))
}

// practice saves what the shop does where practitioners differ, where it ever said so.
func (r *rescuer) practice(ctx context.Context) {
	var doc []byte
	var sum string
	if err := r.db.QueryRowContext(ctx, `SELECT doc, sum FROM practice WHERE one = 1`).Scan(&doc, &sum); err != nil {
		return // of a version without it, never written, or on damaged pages, which are said
	}
	if seal(doc) != sum {
		r.says("the shop's practice: %v", errDoc)
		r.write(filepath.Join("damaged", "practice.json"), doc)
		return
	}
	r.write("practice.json", doc)
}

// pictures saves albums, in a folder for each sheet or job; of one that is damaged
// what is there is saved.
func (r *rescuer) pictures(ctx context.Context, kind *albums) {
	rows, err := r.db.QueryContext(ctx, kind.sql(`SELECT OWNER, id, says, jpeg FROM ALBUM ORDER BY OWNER, number`))
	if err != nil {
		return // of a version without them, or damaged pages, which are said
	}
	defer rows.Close()
	for rows.Next() {
		var owner, id, says string
		var b []byte
		if err := rows.Scan(&owner, &id, &says, &b); err != nil {
			r.says("a picture: %v", err)
			continue
		}
		dir := kind.table
		if seal(b) != id {
			r.says("picture %q of %s %s: %v", says, kind.noun, owner, errDoc)
			dir = filepath.Join("damaged", dir)
		} else {
			r.out.Pictures++
		}
		r.write(filepath.Join(dir, fileName(owner), fileName(strings.ToLower(says))+"-"+fileName(id)[:min(8, len(fileName(id)))]+".jpg"), b)
	}
	if err := rows.Err(); err != nil {
		r.says("%s end where their pages are damaged: %v", kind.table, err)
	}
}

// fileName is an id as a name of a file: ids of damaged rows may be anything.
func fileName(id string) string {
	out := strings.Map(func(c rune) rune {
		if c >= 'a' && c <= 'z' || c >= '0' && c <= '9' || c == '-' || c == '_' || c == '.' {
			return c
		}
		return '_'
	}, id)
	return strings.TrimLeft(out[:min(len(out), 80)], ".")
}
