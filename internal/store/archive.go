package store

// This file takes jobs out of a data file with all there is of them: into an archive, from
// which they come back as they were, or, as their owner asks, for good. That there was a
// job stays.

import (
	"archive/zip"
	"bufio"
	"context"
	"crypto/sha256"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"hash"
	"io"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"time"
	"unicode/utf8"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/job"
	"deepbay/internal/format"
)

// Archive is what archive.json in an archive says. Beside it each job lies as a file that can be
// brought in by itself, jobs/ID.job.json, its journal, journals/ID.jsonl, a revision a line, and
// where it has photographs, those, photographs/ID/NAME.jpg, with what is known of each in
// photographs/ID.jsonl.
type Archive struct {
	Format  string     `json:"format"` // ArchiveFormat
	Version int        `json:"version"`
	At      time.Time  `json:"at"`
	By      string     `json:"by"`
	Owner   string     `json:"owner,omitempty"` // whose all of them are, where that is why they are here
	Jobs    []Archived `json:"jobs"`
}

// Archived is one job of an archive.
type Archived struct {
	ID        job.ID `json:"id"`
	Title     string `json:"title"`
	Revisions int    `json:"revisions"`

	Photographs int `json:"photographs,omitempty"`
}

// ArchiveFormat is what an archive says it is.
const ArchiveFormat = "deepbay/archive"

// line is one revision in a journal.
type line struct {
	Revision int             `json:"revision"`
	At       string          `json:"at"`
	By       string          `json:"by"`
	Says     string          `json:"says,omitempty"`
	Deed     json.RawMessage `json:"deed,omitempty"`
	Sum      string          `json:"sum"`            // of the document, in hexadecimal SHA-256
	Job      json.RawMessage `json:"job,omitempty"`  // the document of a job
	Text     string          `json:"text,omitempty"` // that of anything else, letter by letter
}

// doc is the document as it was then.
func (l *line) doc() []byte {
	if l.Job != nil {
		return l.Job
	}
	return []byte(l.Text)
}

// journaled is a kind of thing that has a journal: its table, and the column that names whose a
// line is.
type journaled struct{ what, journal, column string }

var jobJournal = &journaled{"job", "journal", "job"}

// sql puts the names of the journal into a statement.
func (k *journaled) sql(q string) string {
	return strings.NewReplacer("JOURNAL", k.journal, "OWNER", k.column).Replace(q)
}

// Owned is a job that is somebody's.
type Owned struct {
	Stand
	Title string
	Open  bool
}

// OfOwner lists the jobs of an owner, whatever capitals, blanks and dashes the name was
// written with.
func (s *Store) OfOwner(ctx context.Context, owner string) ([]Owned, error) {
	want := fact.Fold(owner)
	if want == "" {
		return nil, nil
	}
	where, args := "1", []any{}
	if utf8.RuneCountInString(want) >= shortest { // a name is printed on its jobs
		where = `m.number IN (SELECT rowid FROM found WHERE found MATCH ?)`
		args = append(args, `marks : "`+want+`"`)
	}
	return s.owned(ctx, where, func(owner string) bool { return fact.Fold(owner) == want }, args...)
}

// ClosedBefore lists the jobs that were closed, and not changed since.
func (s *Store) ClosedBefore(ctx context.Context, day time.Time) ([]Owned, error) {
	return s.owned(ctx, `j.open = 0 AND j.updated < ?`, func(string) bool { return true }, day.UTC().Format(timeLayout))
}

// owned lists sound jobs of owners.
func (s *Store) owned(ctx context.Context, where string, is func(owner string) bool, args ...any) ([]Owned, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT `+standingColumns+`, j.doc, j.sum FROM jobs j JOIN marked m ON m.job = j.id WHERE `+where+` ORDER BY m.number`, args...)
	if err != nil {
		return nil, fmt.Errorf("look for jobs: %w", err)
	}
	defer rows.Close()
	var out []Owned
	for rows.Next() {
		var r standing
		var doc []byte
		var sum sql.NullString
		var j struct{ Title, Owner string } // the rest of a job takes ten times as long to read
		if err := rows.Scan(r.into(&doc, &sum)...); err != nil {
			return nil, fmt.Errorf("look for jobs: %w", err)
		}
		if r.unseal(s) == nil && s.unseal("job", string(r.ID), doc, sum, &j) == nil && is(j.Owner) {
			out = append(out, Owned{r.Stand, j.Title, r.open == 1})
		}
	}
	return out, rows.Err()
}

// WriteArchive writes jobs with their journals, as they are at one moment. What is damaged is an
// error: an archive holds everything or is none.
func (s *Store) WriteArchive(ctx context.Context, to io.Writer, about Archive, jobs []Owned) error {
	tx, err := s.db.BeginTx(ctx, &sql.TxOptions{ReadOnly: true})
	if err != nil {
		return err
	}
	defer tx.Rollback() //nolint:errcheck // it only reads
	about.Format, about.Version, about.Jobs = ArchiveFormat, 1, []Archived{}
	z := newPacker(to)
	for _, k := range jobs {
		a, err := s.archiveJob(ctx, tx, z, k)
		if err != nil {
			return fmt.Errorf("job %q: %w", k.ID, err)
		}
		about.Jobs = append(about.Jobs, a)
	}
	doc, err := json.MarshalIndent(about, "", "  ")
	if err != nil {
		return err
	}
	if err := entry(z, aboutName, append(doc, '\n')); err != nil {
		return err
	}
	return z.Close()
}

// archiveJob writes a job with its journal and its photographs.
func (s *Store) archiveJob(ctx context.Context, tx *sql.Tx, z *packer, k Owned) (Archived, error) {
	n, doc, err := s.archiveJournal(ctx, tx, z, jobJournal, string(k.ID), journalName(k.ID))
	if err != nil {
		return Archived{}, err
	}
	if n != k.Revision { // someone changed it, or its journal lacks something
		return Archived{}, &Conflict{What: "job", Yours: k.Revision, Current: n}
	}
	photos, err := s.archivePictures(ctx, tx, z, Photographs(k.ID))
	if err != nil {
		return Archived{}, err
	}
	var last job.Job
	if err := json.Unmarshal(doc, &last); err != nil {
		return Archived{}, err
	}
	return Archived{k.ID, last.Title, k.Revision, photos}, writeEntry(z, jobName(k.ID), last)
}

const aboutName = "archive.json"

func jobName(id job.ID) string { return "jobs/" + string(id) + ".job.json" }

func journalName(id job.ID) string { return "journals/" + string(id) + ".jsonl" }

// writeEntry writes a document as the format has it.
func writeEntry(z *packer, name string, v any) error {
	doc, err := format.Write(v)
	if err != nil {
		return err
	}
	return entry(z, name, doc)
}

// packer writes an archive and keeps the digest of each of its files.
type packer struct {
	*zip.Writer
	files []packedFile
}

type packedFile struct {
	name string
	sum  hash.Hash
}

func newPacker(to io.Writer) *packer { return &packer{Writer: zip.NewWriter(to)} }

// Create begins a file.
func (z *packer) Create(name string) (io.Writer, error) {
	w, err := z.Writer.Create(name)
	if err != nil {
		return nil, err
	}
	sum := sha256.New()
	z.files = append(z.files, packedFile{name, sum})
	return io.MultiWriter(w, sum), nil
}

func entry(z *packer, name string, b []byte) error {
	w, err := z.Create(name)
	if err == nil {
		_, err = w.Write(b)
	}
	return err
}

// archiveJournal writes the journal of a thing, a revision a line, and returns how many there are
// and the document as it was last. What is damaged is an error.
func (s *Store) archiveJournal(ctx context.Context, tx *sql.Tx, z *packer, of *journaled, id, name string) (n int, last []byte, err error) {
	rows, err := tx.QueryContext(ctx, of.sql(`SELECT revision, at, by, says, deed, doc, sum, seal FROM JOURNAL WHERE OWNER = ? ORDER BY revision`), id)
	if err != nil {
		return 0, nil, err
	}
	defer rows.Close()
	w, err := z.Create(name)
	if err != nil {
		return 0, nil, err
	}
	for rows.Next() {
		var l line
		var deed, sum, row sql.NullString
		if err := rows.Scan(&l.Revision, &l.At, &l.By, &l.Says, &deed, &last, &sum, &row); err != nil {
			return 0, nil, err
		}
		at := fmt.Sprintf("%s at revision %d", id, l.Revision)
		if err := unsealRow(row, id, l.Revision, l.At, l.By, deed.String); err != nil {
			return 0, nil, s.damaged("journal", at, err)
		}
		if err := s.unseal(of.what, at, last, sum, new(json.RawMessage)); err != nil {
			return 0, nil, err
		}
		if l.Sum = seal(last); of == jobJournal {
			l.Job = last
		} else {
			l.Text = string(last)
		}
		if deed.Valid {
			l.Deed = json.RawMessage(deed.String)
		}
		text, err := json.Marshal(l)
		if err != nil {
			return 0, nil, err
		}
		if _, err := w.Write(append(text, '\n')); err != nil {
			return 0, nil, err
		}
		n++
	}
	return n, last, rows.Err()
}

// Why a job is no longer here.
const (
	Deleted    = "deleted"
	IsArchived = "archived"
)

// Gone is a job that is no longer here.
type Gone struct {
	At        time.Time
	By, Why   string
	Revisions int
	Title     string // of an archived one
}

// Gone lists the jobs that are no longer here, the latest first.
func (s *Store) Gone(ctx context.Context, most int) ([]Gone, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT at, by, why, revisions, title FROM gone ORDER BY number DESC LIMIT ?`, most)
	if err != nil {
		return nil, fmt.Errorf("jobs that are gone: %w", err)
	}
	defer rows.Close()
	out := []Gone{}
	for rows.Next() {
		var g Gone
		var at string
		if err := rows.Scan(&at, &g.By, &g.Why, &g.Revisions, &g.Title); err != nil {
			return nil, fmt.Errorf("jobs that are gone: %w", err)
		}
		if g.At, err = time.Parse(timeLayout, at); err != nil {
			return nil, fmt.Errorf("jobs that are gone: %w", err)
		}
		out = append(out, g)
	}
	return out, rows.Err()
}

// ErrOpen is of a job that is still worked on.
var ErrOpen = errors.New("it is not closed: close it first")

// Halted is of a removal of jobs that came to a stop.
type Halted struct {
	Left, Of int // how many of them have left
	Why      error
}

func (e *Halted) Error() string {
	if e.Left == 0 {
		return e.Why.Error() + "; nothing was changed"
	}
	return fmt.Sprintf("%d of %d jobs have left: %v; the others are as they were", e.Left, e.Of, e.Why)
}

func (e *Halted) Unwrap() error { return e.Why }

// atOnce is how many jobs leave before others who write have their turn: to overwrite what
// the index has of one takes a tenth of a second in a large shop.
var atOnce = map[string]int{IsArchived: 50, Deleted: 5}

// Remove takes jobs with their journals and the names of their requests out of the file: none,
// where one of them is open or was changed since it was listed. The bytes of Deleted ones are
// overwritten; the other why is IsArchived. Many jobs leave some at a time: *Halted is of
// what comes between, and of all that may not leave.
func (s *Store) Remove(ctx context.Context, jobs []Owned, why string, by job.Stamp, r Request) error {
	if err := s.Applied(ctx, r); err != nil {
		return err
	}
	for _, k := range jobs {
		if err := may(s.db.QueryRowContext(ctx, `SELECT revision, open FROM jobs WHERE id = ?`, k.ID), k); err != nil {
			return &Halted{0, len(jobs), err}
		}
	}
	left := 0
	for some := range slices.Chunk(jobs, atOnce[why]) {
		err := s.write(ctx, func(tx *sql.Tx) error {
			if err := applied(ctx, tx, r); err != nil {
				return err
			}
			if err := removeSome(ctx, tx, some, why, by); err != nil {
				return err
			}
			if left+len(some) < len(jobs) {
				return nil
			}
			return claim(ctx, tx, r, "gone", len(jobs), by.At)
		})
		var before *Applied
		if errors.As(err, &before) {
			return err
		} else if err != nil {
			return &Halted{left, len(jobs), err}
		}
		left += len(some)
	}
	// The log holds what was overwritten, until all of it is in the file. Where somebody
	// reads just then the next checkpoint does that.
	if _, err := s.w.db.ExecContext(ctx, "PRAGMA wal_checkpoint(TRUNCATE)"); err != nil {
		return nil //nolint:nilerr // they are gone, which is what was asked for
	}
	return nil
}

// may says why a job is not removed.
func may(row *sql.Row, k Owned) error {
	var revision int
	var open bool
	err := row.Scan(&revision, &open)
	switch {
	case errors.Is(err, sql.ErrNoRows):
		err = ErrNotFound
	case err == nil && revision != k.Revision:
		err = &Conflict{What: "job", Yours: k.Revision, Current: revision}
	case err == nil && open:
		err = ErrOpen
	}
	if err != nil {
		return fmt.Errorf("job %q: %w", k.ID, err)
	}
	return nil
}

func removeSome(ctx context.Context, tx *sql.Tx, jobs []Owned, why string, by job.Stamp) error {
	// To overwrite what is taken out of the index is slow: no archive needs that.
	secure := func(on int) error {
		if why != Deleted {
			return nil
		}
		for _, index := range []string{"found", "log"} {
			if _, err := tx.ExecContext(ctx, `INSERT INTO `+index+` (`+index+`, rank) VALUES ('secure-delete', ?)`, on); err != nil {
				return err
			}
		}
		return nil
	}
	if err := secure(1); err != nil {
		return err
	}
	for _, k := range jobs {
		if err := may(tx.QueryRowContext(ctx, `SELECT revision, open FROM jobs WHERE id = ?`, k.ID), k); err != nil {
			return err
		}
		words, err := wordsOf(ctx, tx, k.ID)
		if err == nil {
			err = remove(ctx, tx, k, why, by)
		}
		if err == nil {
			err = forgetWords(ctx, tx, words)
		}
		if err != nil {
			return fmt.Errorf("job %q: %w", k.ID, err)
		}
	}
	return secure(0)
}

func remove(ctx context.Context, tx *sql.Tx, k Owned, why string, by job.Stamp) error {
	id, title := string(k.ID), k.Title
	if why == Deleted {
		id, title = "", ""
	}
	for _, do := range []struct {
		query string
		args  []any
	}{
		{`INSERT INTO leaving (job) VALUES (?)`, []any{k.ID}},
		{`DELETE FROM journal WHERE job = ?`, []any{k.ID}},
		{`DELETE FROM requests WHERE thing = ?`, []any{k.ID}},
		{`DELETE FROM jobs WHERE id = ?`, []any{k.ID}},
		{`DELETE FROM leaving WHERE job = ?`, []any{k.ID}},
		{`INSERT INTO gone (at, by, why, revisions, job, title) VALUES (?, ?, ?, ?, ?, ?)`,
			[]any{by.At.UTC().Format(timeLayout), by.By, why, k.Revision, id, title}},
	} {
		if _, err := tx.ExecContext(ctx, do.query, do.args...); err != nil {
			return err
		}
	}
	return nil
}

// MoveToArchive writes jobs into a new file, reads that again, and only then takes them out
// of the data file.
func (s *Store) MoveToArchive(ctx context.Context, to string, jobs []Owned, by job.Stamp) (Archive, error) {
	if _, err := os.Stat(to); err == nil {
		return Archive{}, fmt.Errorf("%s is there already: name another file", to)
	}
	half := to + ".half"
	f, err := os.OpenFile(half, os.O_CREATE|os.O_TRUNC|os.O_WRONLY, 0o600)
	if err != nil {
		return Archive{}, err
	}
	defer os.Remove(half)
	err = s.WriteArchive(ctx, f, Archive{At: by.At, By: by.By}, jobs)
	if err == nil {
		err = f.Sync()
	}
	if err := errors.Join(err, f.Close()); err != nil {
		return Archive{}, err
	}
	about, _, _, err := readArchive(half)
	if err != nil {
		return about, fmt.Errorf("the archive is not what was written: %w; nothing was taken out", err)
	}
	if len(about.Jobs) != len(jobs) {
		return about, fmt.Errorf("the archive has %d jobs of %d; nothing was taken out", len(about.Jobs), len(jobs))
	}
	if err := os.Rename(half, to); err != nil {
		return about, err
	}
	if err := syncFolder(filepath.Dir(to)); err != nil {
		return about, err
	}
	return about, s.Remove(ctx, jobs, IsArchived, by, Request{})
}

// syncFolder sees to it that the names in a folder are on the disk.
func syncFolder(path string) error {
	d, err := os.Open(path)
	if err != nil {
		return err
	}
	return errors.Join(d.Sync(), d.Close())
}

// mostUnpacked is how large a journal in an archive may be.
const mostUnpacked = 1 << 30

// BadFile is an archive, or the file of a shop, that is not what was written.
type BadFile struct {
	Path string
	Name string // of the file in it; "" for all of it
	Why  error
}

// Error names the file and the place in it.
func (e *BadFile) Error() string {
	if e.Name == "" {
		return fmt.Sprintf("%s: %v", e.Path, e.Why)
	}
	return fmt.Sprintf("%s, %s: %v", e.Path, e.Name, e.Why)
}

func (e *BadFile) Unwrap() error { return e.Why }

// packed is an archive that is read.
type packed struct {
	path string
	zip  *zip.ReadCloser
}

func openPacked(path string) (*packed, error) {
	z, err := zip.OpenReader(path)
	if err != nil {
		return nil, &BadFile{path, "", fmt.Errorf("it is no archive: %w", err)}
	}
	return &packed{path, z}, nil
}

// read reads one of its files; an error names it.
func (p *packed) read(name string, do func(io.Reader) error) error {
	f, err := p.zip.Open(name)
	if err != nil {
		return &BadFile{p.path, name, err}
	}
	defer f.Close()
	if err := do(io.LimitReader(f, mostUnpacked)); err != nil {
		return &BadFile{p.path, name, err}
	}
	return nil
}

// journal reads a journal, and holds every revision against its digest.
func (p *packed) journal(name string, revisions int) ([]line, error) {
	var lines []line
	err := p.read(name, func(r io.Reader) error {
		in := bufio.NewScanner(r)
		in.Buffer(nil, 64<<20)
		for in.Scan() {
			var l line
			if err := json.Unmarshal(in.Bytes(), &l); err != nil {
				return fmt.Errorf("line %d: %w", len(lines)+1, err)
			}
			_, err := time.Parse(timeLayout, l.At)
			if err != nil || l.Revision != len(lines)+1 || seal(l.doc()) != l.Sum {
				return fmt.Errorf("line %d: %w", len(lines)+1, errDoc)
			}
			lines = append(lines, l)
		}
		return in.Err()
	})
	if err == nil && (len(lines) != revisions || revisions == 0) {
		err = &BadFile{p.path, name, fmt.Errorf("it has %d revisions, and there were %d", len(lines), revisions)}
	}
	return lines, err
}

// readArchive reads an archive, and holds every revision and photograph against its digest.
func readArchive(path string) (about Archive, lines map[job.ID][]line, photos map[job.ID][]photograph, err error) {
	p, err := openPacked(path)
	if err != nil {
		return about, nil, nil, err
	}
	defer p.zip.Close()
	if err := p.read(aboutName, func(r io.Reader) error { return json.NewDecoder(r).Decode(&about) }); err != nil {
		return about, nil, nil, err
	}
	if about.Format != ArchiveFormat || about.Version != 1 {
		return about, nil, nil, fmt.Errorf("%s, %s: it is %q of version %d, and %q of version 1 is read here", path, aboutName, about.Format, about.Version, ArchiveFormat)
	}
	lines, photos = map[job.ID][]line{}, map[job.ID][]photograph{}
	for _, k := range about.Jobs {
		if lines[k.ID], err = p.journal(journalName(k.ID), k.Revisions); err != nil {
			return about, nil, nil, err
		}
		if photos[k.ID], err = p.pictures(Photographs(k.ID), k.Photographs); err != nil {
			return about, nil, nil, err
		}
	}
	return about, lines, photos, nil
}

// BringBackArchive puts the jobs of an archive into the file as they were, all or none. Those
// that are there, just as they were, stay as they are.
func (s *Store) BringBackArchive(ctx context.Context, path string) (Archive, error) {
	about, lines, photos, err := readArchive(path)
	if err != nil {
		return about, err
	}
	return about, s.write(ctx, func(tx *sql.Tx) error {
		for _, k := range about.Jobs {
			if err := comeBack(ctx, tx, k.ID, lines[k.ID]); err != nil {
				return fmt.Errorf("job %q: %w", k.ID, err)
			}
			if err := picturesBack(ctx, tx, Photographs(k.ID), photos[k.ID]); err != nil {
				return fmt.Errorf("photographs of job %q: %w", k.ID, err)
			}
		}
		return nil
	})
}

func comeBack(ctx context.Context, tx *sql.Tx, id job.ID, lines []line) error {
	last := &lines[len(lines)-1]
	j, err := format.Job(last.Job)
	if err != nil {
		return err
	}
	if j.ID != id {
		return fmt.Errorf("its document is of job %q", j.ID)
	}
	there, sum := 0, sql.NullString{}
	switch err := tx.QueryRowContext(ctx, `SELECT revision, sum FROM jobs WHERE id = ?`, id).Scan(&there, &sum); {
	case err == nil && there == last.Revision && sum.String == last.Sum: // it never left
		return nil
	case err == nil:
		return ErrTaken
	case !errors.Is(err, sql.ErrNoRows):
		return err
	}
	if err := putRow(ctx, tx, &j, last.Revision, last.At, string(last.Job)); err != nil {
		return err
	}
	if err := journalBack(ctx, tx, jobJournal, string(id), lines); err != nil {
		return err
	}
	_, err = tx.ExecContext(ctx, `DELETE FROM gone WHERE why = ? AND job = ?`, IsArchived, id)
	return err
}

// journalBack writes the lines of a journal as they were.
func journalBack(ctx context.Context, tx *sql.Tx, of *journaled, id string, lines []line) error {
	for _, l := range lines {
		if len(l.Deed) > 0 {
			if _, err := format.ReadDeed(l.Deed); err != nil {
				return fmt.Errorf("revision %d: %w", l.Revision, err)
			}
		}
		deed := sql.NullString{String: string(l.Deed), Valid: len(l.Deed) > 0}
		if _, err := tx.ExecContext(ctx, of.sql(`INSERT INTO JOURNAL (OWNER, revision, at, by, says, deed, doc, sum, seal) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)`),
			id, l.Revision, l.At, l.By, l.Says, deed, string(l.doc()), l.Sum, sealRow(id, l.Revision, l.At, l.By, deed.String)); err != nil {
			return err
		}
	}
	return nil
}

// ArchiveName is what an archive of an owner's jobs is called.
func ArchiveName(owner string, at time.Time) string {
	name := strings.ToLower(strings.Join(strings.Fields(owner), "-"))
	return fileName(name) + "-" + at.UTC().Format("20060102") + ".zip"
}
