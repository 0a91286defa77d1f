package store

// This file takes a whole shop into one file of open formats, and out of it into an empty data
// file, where it is what it was.

import (
	"context"
	"crypto/sha256"
	"database/sql"
	"encoding/hex"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"
	"time"

	"deepbay/internal/core/job"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/practice"
	"deepbay/internal/core/shelf"
	"deepbay/internal/format"
)

// Shop is what shop.json in the file of a whole shop says: all that there is in it, so that what
// is missing is seen. Each sheet, part and job lies beside it as a file that can be brought in by
// itself, with its journal, a revision a line, and its pictures. It says nothing of when it was
// written: the same shop gives the same file.
type Shop struct {
	Format   string          `json:"format"` // ShopFormat
	Version  int             `json:"version"`
	Sheets   []PackedSheet   `json:"sheets"`
	Parts    []PackedPart    `json:"parts"`
	Jobs     []Archived      `json:"jobs"` // in the order in which they came
	Gone     []GoneJob       `json:"gone"` // jobs that are no longer here, the oldest first
	Practice *PackedPractice `json:"practice,omitempty"`
	Files    []PackedFile    `json:"files"` // all the others
}

// ShopFormat is what the file of a whole shop says it is.
const ShopFormat = "deepbay/shop"

// PackedFile is one file of it, with the SHA-256 of its bytes in hexadecimal.
type PackedFile struct {
	Name string `json:"name"`
	Sum  string `json:"sum"`
}

// PackedSheet is a sheet in the file of a shop.
type PackedSheet struct {
	ID        machine.ID `json:"id"`
	Revisions int        `json:"revisions"`
	Pictures  int        `json:"pictures,omitempty"`
}

// PackedPart is a part of the shelf in the file of a shop.
type PackedPart struct {
	ID        part.ID `json:"id"`
	Revisions int     `json:"revisions"`
}

// GoneJob is a job that is no longer here, as the data file has it.
type GoneJob struct {
	At        string `json:"at"`
	By        string `json:"by"`
	Why       string `json:"why"`
	Revisions int    `json:"revisions"`
	Job       string `json:"job,omitempty"`
	Title     string `json:"title,omitempty"`
}

// PackedPractice is what the shop does where practitioners differ, as the data file has it.
type PackedPractice struct {
	Revision int               `json:"revision"`
	At       string            `json:"at"`
	By       string            `json:"by"`
	Practice practice.Practice `json:"practice"`
}

// ErrNotEmpty is of a data file that a shop was to be put into, and that has something in it.
var ErrNotEmpty = errors.New("there is something in this data file already: a whole shop goes into a new one only")

const shopName = "shop.json"

var (
	sheetJournal = &journaled{"sheet", "sheet_journal", "sheet"}
	shelfJournal = &journaled{"part", "shelf_journal", "part"}
)

func sheetName(id machine.ID) string    { return "sheets/" + string(id) + ".sheet.json" }
func sheetLogName(id machine.ID) string { return "sheet-journals/" + string(id) + ".jsonl" }
func partName(id part.ID) string        { return "parts/" + string(id) + ".part.json" }
func partJournalName(id part.ID) string { return "shelf-journals/" + string(id) + ".jsonl" }

// WriteShop writes all there is, as it is at one moment, but for what can be made anew and the
// names of requests. What is damaged is an error: the file holds everything or is none.
func (s *Store) WriteShop(ctx context.Context, to io.Writer) (Shop, error) {
	about := Shop{Format: ShopFormat, Version: 1, Sheets: []PackedSheet{}, Parts: []PackedPart{}, Jobs: []Archived{}, Gone: []GoneJob{}, Files: []PackedFile{}}
	tx, err := s.db.BeginTx(ctx, &sql.TxOptions{ReadOnly: true})
	if err != nil {
		return about, err
	}
	defer tx.Rollback() //nolint:errcheck // it only reads
	z := newPacker(to)
	sheets, err := column[machine.ID](ctx, tx, `SELECT id FROM sheets ORDER BY id`)
	if err != nil {
		return about, err
	}
	for _, id := range sheets {
		k := PackedSheet{ID: id}
		var last []byte
		if k.Revisions, last, err = s.archiveJournal(ctx, tx, z, sheetJournal, string(id), sheetLogName(id)); err != nil {
			return about, err
		}
		sheet, err := format.Sheet(last)
		if err != nil {
			return about, fmt.Errorf("sheet %q: %w", id, err)
		}
		if err := writeEntry(z, sheetName(id), sheet); err != nil {
			return about, err
		}
		if k.Pictures, err = s.archivePictures(ctx, tx, z, Pages(id)); err != nil {
			return about, err
		}
		about.Sheets = append(about.Sheets, k)
	}
	parts, err := column[part.ID](ctx, tx, `SELECT id FROM parts ORDER BY id`)
	if err != nil {
		return about, err
	}
	for _, id := range parts {
		k := PackedPart{ID: id}
		var last []byte
		if k.Revisions, last, err = s.archiveJournal(ctx, tx, z, shelfJournal, string(id), partJournalName(id)); err != nil {
			return about, err
		}
		e, err := readStockDoc(last)
		if err != nil {
			return about, fmt.Errorf("part %q: %w", id, err)
		}
		if err := writeEntry(z, partName(id), e.Part); err != nil {
			return about, err
		}
		about.Parts = append(about.Parts, k)
	}
	jobs, err := column[job.ID](ctx, tx, `SELECT job FROM marked ORDER BY number`)
	if err != nil {
		return about, err
	}
	for _, id := range jobs {
		var k Owned
		k.ID = id
		if err := tx.QueryRowContext(ctx, `SELECT revision FROM jobs WHERE id = ?`, id).Scan(&k.Revision); err != nil {
			return about, err
		}
		a, err := s.archiveJob(ctx, tx, z, k)
		if err != nil {
			return about, fmt.Errorf("job %q: %w", id, err)
		}
		about.Jobs = append(about.Jobs, a)
	}
	if err := about.rest(ctx, tx); err != nil {
		return about, err
	}
	for _, f := range z.files {
		about.Files = append(about.Files, PackedFile{f.name, hex.EncodeToString(f.sum.Sum(nil))})
	}
	if err := writeEntry(z, shopName, about); err != nil {
		return about, err
	}
	return about, z.Close()
}

// rest fills in what stands in shop.json itself.
func (about *Shop) rest(ctx context.Context, tx *sql.Tx) error {
	rows, err := tx.QueryContext(ctx, `SELECT at, by, why, revisions, job, title FROM gone ORDER BY number`)
	if err != nil {
		return err
	}
	defer rows.Close()
	for rows.Next() {
		var g GoneJob
		if err := rows.Scan(&g.At, &g.By, &g.Why, &g.Revisions, &g.Job, &g.Title); err != nil {
			return err
		}
		about.Gone = append(about.Gone, g)
	}
	if err := rows.Err(); err != nil {
		return err
	}
	var p PackedPractice
	var doc []byte
	var sum sql.NullString
	err = tx.QueryRowContext(ctx, `SELECT revision, at, by, doc, sum FROM practice`).Scan(&p.Revision, &p.At, &p.By, &doc, &sum)
	switch {
	case errors.Is(err, sql.ErrNoRows):
		return nil
	case err == nil:
		err = open(doc, sum, &p.Practice)
	}
	if err != nil {
		return fmt.Errorf("the shop's practice: %w", err)
	}
	about.Practice = &p
	return nil
}

// column reads the one column of a statement.
func column[T any](ctx context.Context, tx *sql.Tx, query string, args ...any) ([]T, error) {
	rows, err := tx.QueryContext(ctx, query, args...)
	if err != nil {
		return nil, err
	}
	return scanned[T](rows)
}

func scanned[T any](rows *sql.Rows) ([]T, error) {
	defer rows.Close()
	var out []T
	for rows.Next() {
		var v T
		if err := rows.Scan(&v); err != nil {
			return nil, err
		}
		out = append(out, v)
	}
	return out, rows.Err()
}

// readStockDoc reads a part as the journal of the shelf has it.
func readStockDoc(doc []byte) (shelf.Stock, error) {
	var e shelf.Stock
	if err := json.Unmarshal(doc, &e); err != nil {
		return e, err
	}
	b, err := format.Write(e.Part)
	if err == nil {
		_, err = format.Part(b)
	}
	return e, err
}

// SaveShop writes the file of the whole shop to a path where there is none.
func (s *Store) SaveShop(ctx context.Context, path string) (Shop, error) {
	f, err := os.OpenFile(path, os.O_CREATE|os.O_EXCL|os.O_WRONLY, 0o600)
	if err != nil {
		return Shop{}, err
	}
	about, err := s.WriteShop(ctx, f)
	if err == nil {
		err = f.Sync()
	}
	if err = errors.Join(err, f.Close()); err != nil {
		return about, errors.Join(err, os.Remove(path))
	}
	return about, nil
}

// BringShop puts a whole shop into an empty data file, all of it or nothing. What is not as it
// was written is refused with its place.
func (s *Store) BringShop(ctx context.Context, path string) (Shop, error) {
	var about Shop
	p, err := openPacked(path)
	if err != nil {
		return about, err
	}
	defer p.zip.Close()
	if err := p.document(shopName, &about); err != nil {
		return about, err
	}
	if about.Format != ShopFormat || about.Version != 1 {
		return about, &BadFile{path, shopName, fmt.Errorf("it is %q of version %d, and %q of version 1 is read here", about.Format, about.Version, ShopFormat)}
	}
	if err := p.has(about.Files); err != nil {
		return about, err
	}
	defer s.shelves.Add(1) // whatever came of it: what was read before is read anew
	return about, s.write(ctx, func(tx *sql.Tx) error {
		var there int
		if err := tx.QueryRowContext(ctx, `SELECT (SELECT count(*) FROM sheets) + (SELECT count(*) FROM parts) + (SELECT count(*) FROM jobs) + (SELECT count(*) FROM practice) + (SELECT count(*) FROM gone)`).Scan(&there); err != nil {
			return err
		}
		if there > 0 {
			return ErrNotEmpty
		}
		return (&bringing{p, tx}).all(ctx, &about)
	})
}

// document reads a small file of an archive that has nothing but what is known here.
func (p *packed) document(name string, into any) error {
	return p.read(name, func(r io.Reader) error {
		d := json.NewDecoder(r)
		d.DisallowUnknownFields()
		return d.Decode(into)
	})
}

// has holds the files of an archive against what it says of them: all are there once, as they
// were written, and no other is.
func (p *packed) has(files []PackedFile) error {
	sums := map[string]string{shopName: ""}
	for _, f := range files {
		sums[f.Name] = f.Sum
	}
	for _, f := range p.zip.File {
		want, is := sums[f.Name]
		if !is {
			return &BadFile{p.path, f.Name, fmt.Errorf("%s does not speak of it, or it is there twice", shopName)}
		}
		delete(sums, f.Name)
		if f.Name == shopName {
			continue
		}
		if err := p.read(f.Name, func(r io.Reader) error {
			sum := sha256.New()
			_, err := io.Copy(sum, r)
			if err == nil && hex.EncodeToString(sum.Sum(nil)) != want {
				err = errDoc
			}
			return err
		}); err != nil {
			return err
		}
	}
	for _, f := range files {
		if _, missing := sums[f.Name]; missing {
			return &BadFile{p.path, f.Name, errors.New("it is not there")}
		}
	}
	return nil
}

// bringing is a shop on its way into a data file.
type bringing struct {
	*packed
	tx *sql.Tx
}

func (in *bringing) all(ctx context.Context, about *Shop) error {
	for _, k := range about.Sheets {
		if err := in.sheet(ctx, k); err != nil {
			return err
		}
	}
	for _, k := range about.Parts {
		if err := in.part(ctx, k); err != nil {
			return err
		}
	}
	for _, k := range about.Jobs {
		if err := in.job(ctx, k); err != nil {
			return err
		}
	}
	for i, g := range about.Gone {
		if _, err := time.Parse(timeLayout, g.At); err != nil {
			return in.at(shopName, fmt.Errorf("/gone/%d/at: %w", i, err))
		}
		if _, err := in.tx.ExecContext(ctx, `INSERT INTO gone (at, by, why, revisions, job, title) VALUES (?, ?, ?, ?, ?, ?)`, g.At, g.By, g.Why, g.Revisions, g.Job, g.Title); err != nil {
			return in.at(shopName, fmt.Errorf("/gone/%d: %w", i, err))
		}
	}
	if p := about.Practice; p != nil {
		doc, err := json.Marshal(p.Practice)
		if err != nil {
			return err
		}
		if _, err := format.Value[practice.Practice]("Practice", doc); err != nil {
			return in.at(shopName, fmt.Errorf("/practice: %w", err))
		}
		if _, err := in.tx.ExecContext(ctx, `INSERT INTO practice (one, revision, doc, at, by, sum) VALUES (1, ?, ?, ?, ?, ?)`, p.Revision, string(doc), p.At, p.By, seal(doc)); err != nil {
			return in.at(shopName, fmt.Errorf("/practice: %w", err))
		}
	}
	return nil
}

// at names the place in the file of what is wrong with it; what is wrong with the disk has none.
func (in *bringing) at(name string, err error) error {
	switch is := asDisk(err); {
	case errors.Is(is, ErrBusy), errors.Is(is, ErrFull), errors.Is(is, ErrReadOnly), errors.Is(is, ErrDisk):
		return err
	}
	return &BadFile{in.path, name, err}
}

// album puts pictures back where they lay.
func (in *bringing) album(ctx context.Context, of Album, count int) error {
	list, err := in.pictures(of, count)
	if err != nil {
		return err
	}
	return picturesBack(ctx, in.tx, of, list)
}

func (in *bringing) sheet(ctx context.Context, k PackedSheet) error {
	name := sheetLogName(k.ID)
	lines, err := in.journal(name, k.Revisions)
	if err != nil {
		return err
	}
	last := &lines[len(lines)-1]
	sheet, err := format.Sheet(last.doc())
	if err == nil && sheet.ID != k.ID {
		err = fmt.Errorf("it is of sheet %q", sheet.ID)
	}
	if err != nil {
		return in.at(name, err)
	}
	if err := putSheetRow(ctx, in.tx, &sheet, last.Revision, last.doc()); err != nil {
		return in.at(name, err)
	}
	if err := journalBack(ctx, in.tx, sheetJournal, string(k.ID), lines); err != nil {
		return in.at(name, err)
	}
	return in.album(ctx, Pages(k.ID), k.Pictures)
}

func (in *bringing) part(ctx context.Context, k PackedPart) error {
	name := partJournalName(k.ID)
	lines, err := in.journal(name, k.Revisions)
	if err != nil {
		return err
	}
	last := &lines[len(lines)-1]
	e, err := readStockDoc(last.doc())
	if err == nil && e.Part.ID != k.ID {
		err = fmt.Errorf("it is of part %q", e.Part.ID)
	}
	if err != nil {
		return in.at(name, err)
	}
	if err := putStockRow(ctx, in.tx, last.Revision, &e); err != nil {
		return in.at(name, err)
	}
	if err := journalBack(ctx, in.tx, shelfJournal, string(k.ID), lines); err != nil {
		return in.at(name, err)
	}
	return nil
}

func (in *bringing) job(ctx context.Context, k Archived) error {
	name := journalName(k.ID)
	lines, err := in.journal(name, k.Revisions)
	if err != nil {
		return err
	}
	j, err := format.Job(lines[len(lines)-1].Job)
	if err == nil && (j.ID != k.ID || j.Title != k.Title) {
		err = fmt.Errorf("it is of job %q, %q", j.ID, j.Title)
	}
	if err != nil {
		return in.at(name, err)
	}
	if err := comeBack(ctx, in.tx, k.ID, lines); err != nil {
		return in.at(name, err)
	}
	return in.album(ctx, Photographs(k.ID), k.Photographs)
}
