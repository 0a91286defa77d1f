// Package store keeps sheets, parts and jobs in one SQLite file.
//
// Documents are kept whole, with the columns that are searched beside them. A
// job has a revision number; a write names the revision it started from, and a
// stale one is refused with a Conflict and changes nothing. Every write leaves an
// entry in an append-only journal. A write that returned is on disk.
package store

import (
	"context"
	"database/sql"
	"embed"
	"encoding/json"
	"errors"
	"fmt"
	"io/fs"
	"net/url"
	"os"
	"path/filepath"
	"sync/atomic"
	"time"

	"github.com/pressly/goose/v3"
	_ "modernc.org/sqlite" // the driver

	"deepbay/internal/core/fact"
	"deepbay/internal/core/job"
	"deepbay/internal/format"
)

//go:embed migrations/*.sql
var migrations embed.FS

// ErrNotFound is returned where nothing of the name is kept.
var ErrNotFound = errors.New("not found")

// ErrTaken is returned when a job is created under a name that is in use.
var ErrTaken = errors.New("a job of this name is on the bench already")

// Conflict says that something was changed since it was read.
type Conflict struct {
	What           string // "job", "sheet" or "part"
	Yours, Current int
}

// Error names both revisions.
func (c *Conflict) Error() string {
	return fmt.Sprintf("the %s is at revision %d, and the change was made at revision %d", c.What, c.Current, c.Yours)
}

// Version is the newest version of data files that this program knows: the number of its
// last migration.
const Version = 17

// Store is an open data file. Its methods may be called from many goroutines.
type Store struct {
	db     *readers
	w      *writer
	path   string
	log    Log
	damage noticed

	shelves atomic.Int64 // changes of the shelf
	shelf   atomic.Pointer[readShelf]
	sheets  sheetNames
}

// Open opens the data file at path, or creates it where there is none, and brings its
// tables up to date. A file of another program, of a newer version, empty or cut is
// Refused and left as it was. The error says which file and what to do.
func Open(ctx context.Context, path string) (*Store, error) {
	if path == "" {
		return nil, errors.New("no data file was named: say which with --data FILE")
	}
	fresh, log, err := inspect(ctx, path)
	var refused *Refused
	if err != nil && !errors.As(err, &refused) {
		return nil, fmt.Errorf("data file %s cannot be read: %w; nothing was changed", path, err)
	}
	if err := writable(path, fresh); err != nil {
		return nil, err
	}
	if err != nil {
		return nil, err
	}
	// Settings belong to the name: the pool opens connections as it likes.
	// SQLite's own default, synchronous FULL, stays: an answered write is on disk.
	w, err := openWriter(path)
	if err != nil {
		return nil, fmt.Errorf("data file %s: %w", path, err)
	}
	s := &Store{w: w, path: path, log: log}
	if err = s.prepare(ctx, fresh); err == nil {
		s.db, err = openReaders(path)
	}
	if err != nil {
		w.db.Close()
		if err = asDisk(err); errors.Is(err, ErrFull) {
			return nil, fmt.Errorf("data file %s cannot be used: %w: make room on it; nothing was changed", path, err)
		}
		return nil, fmt.Errorf("data file %s cannot be used: %w", path, err)
	}
	return s, nil
}

// connect opens a file with settings for every connection. A transaction takes the right to
// write when it begins.
func connect(path string, pragmas ...string) (*sql.DB, error) {
	q := url.Values{"_txlock": {"immediate"}, "_pragma": pragmas}
	return sql.Open("sqlite", "file:"+(&url.URL{Path: path}).EscapedPath()+"?"+q.Encode())
}

// prepare marks the file as Deep Bay's and brings its tables up to date. All of it is put
// into the file itself, so that even a copy without its log says whose and of which
// version it is.
func (s *Store) prepare(ctx context.Context, fresh bool) error {
	mark := func(pragma string, value int) error {
		var is int
		if err := s.w.db.QueryRowContext(ctx, "PRAGMA "+pragma).Scan(&is); err != nil || is == value {
			return err
		}
		_, err := s.w.db.ExecContext(ctx, fmt.Sprintf("PRAGMA %s = %d", pragma, value))
		return err
	}
	if fresh { // first of all, so that half a new file is known again
		if err := mark("application_id", applicationID); err != nil {
			return err
		}
	}
	if err := s.migrate(ctx); err != nil {
		return err
	}
	if err := s.sealAll(ctx); err != nil {
		return err
	}
	if err := mark("application_id", applicationID); err != nil {
		return err
	}
	if err := mark("user_version", Version); err != nil {
		return err
	}
	return s.Checkpoint(ctx)
}

// Checkpoint puts what was answered into the file itself, and gives back the memory that
// needed. It waits for nobody: what somebody reads just then is put there the next time.
func (s *Store) Checkpoint(ctx context.Context) error {
	_, err := s.w.db.ExecContext(ctx, "PRAGMA wal_checkpoint(PASSIVE); PRAGMA shrink_memory")
	return err
}

// Log is what the write-ahead log held when the file was opened.
func (s *Store) Log() Log { return s.log }

// writable finds out before SQLite does, so that the message names the cure.
func writable(path string, fresh bool) error {
	// The mode is asked as well, for root may write where no mode bit lets it.
	if info, err := os.Stat(path); err == nil && info.Mode().Perm()&0o222 == 0 {
		return fmt.Errorf("data file %s is read-only: change its permissions or name another with --data FILE; nothing was changed", path)
	}
	how := os.O_RDWR
	if fresh {
		how |= os.O_CREATE
	}
	f, err := os.OpenFile(path, how, 0o600)
	switch {
	case errors.Is(err, fs.ErrPermission):
		return fmt.Errorf("data file %s is read-only: change its permissions or name another with --data FILE; nothing was changed", path)
	case errors.Is(err, fs.ErrNotExist):
		return fmt.Errorf("data file %s: the folder %s does not exist: make it or name another file", path, filepath.Dir(path))
	case err != nil:
		return fmt.Errorf("data file %s cannot be opened for writing: %w; name another with --data FILE", path, err)
	}
	return f.Close()
}

func (s *Store) migrate(ctx context.Context) error {
	dir, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return err
	}
	p, err := goose.NewProvider(goose.DialectSQLite3, s.w.db, dir)
	if err != nil {
		return err
	}
	_, err = p.Up(ctx)
	return err
}

// Close closes the file.
func (s *Store) Close() error { return errors.Join(s.db.Close(), s.w.db.Close()) }

// Kept is a job with what the store knows of it.
type Kept struct {
	Job      job.Job
	Revision int
	Updated  time.Time
}

// Entry is one line of the journal of a job or sheet: what was done, or the sentence of
// an entry that is older than that.
type Entry struct {
	Revision int
	At       time.Time
	By       string
	Says     string
	Deed     *format.Deed
}

const timeLayout = time.RFC3339Nano

// Job reads one job.
func (s *Store) Job(ctx context.Context, id job.ID) (Kept, error) {
	var r standing
	var doc []byte
	var sum sql.NullString
	err := s.db.QueryRowContext(ctx, `SELECT `+standingColumns+`, doc, sum FROM jobs j WHERE id = ?`, id).Scan(r.into(&doc, &sum)...)
	if errors.Is(err, sql.ErrNoRows) {
		return Kept{}, fmt.Errorf("job %q: %w", id, ErrNotFound)
	} else if err == nil {
		err = r.unseal(s)
	}
	k := Kept{Revision: r.Revision, Updated: r.Updated}
	if err == nil {
		err = s.unseal("job", string(id), doc, sum, &k.Job)
	}
	return k, err
}

// Write is one change of a job on its way into the file.
type Write struct {
	Job   job.Job
	From  int       // the revision it started from; 0 creates the job
	Back  bool      // over what is there now, whatever it is: From is not asked for
	Done  fact.Fact // for the journal
	Stamp job.Stamp
	Request
}

// Put keeps a change and returns its revision. Of a request that was carried out before it
// returns an *Applied and changes nothing.
func (s *Store) Put(ctx context.Context, w Write) (int, error) {
	revision := 0
	err := s.write(ctx, func(tx *sql.Tx) (err error) {
		revision, err = put(ctx, tx, w)
		return err
	})
	if err != nil {
		return 0, fmt.Errorf("job %q: %w", w.Job.ID, err)
	}
	if w.Back {
		s.damage.mend("job", string(w.Job.ID))
	}
	return revision, nil
}

func put(ctx context.Context, tx *sql.Tx, w Write) (int, error) {
	if err := applied(ctx, tx, w.Request); err != nil {
		return 0, err
	}
	current, was := 0, []byte(nil)
	row := tx.QueryRowContext(ctx, `SELECT revision, doc FROM jobs WHERE id = ?`, w.Job.ID)
	if w.Back { // the row may be what is damaged
		row = tx.QueryRowContext(ctx, `SELECT max(revision), NULL FROM journal WHERE job = ? HAVING max(revision) > 0`, w.Job.ID)
	}
	err := row.Scan(&current, &was)
	if w.Back {
		w.From = current
	}
	switch {
	case errors.Is(err, sql.ErrNoRows) && w.From > 0:
		return 0, ErrNotFound
	case err != nil && !errors.Is(err, sql.ErrNoRows):
		return 0, err
	case current > 0 && w.From == 0:
		return 0, ErrTaken
	case current != w.From:
		return 0, &Conflict{What: "job", Yours: w.From, Current: current}
	}
	if was != nil {
		if err := whole[job.Job](was); err != nil {
			return 0, err
		}
	}
	doc, err := json.Marshal(w.Job)
	if err != nil {
		return 0, err
	}
	at := w.Stamp.At.UTC().Format(timeLayout)
	if err := putRow(ctx, tx, &w.Job, current+1, at, string(doc)); err != nil {
		return 0, err
	}
	deed, err := format.WriteDeed(w.Done, w.Job.Name)
	if err != nil {
		return 0, fmt.Errorf("journal: %w", err)
	}
	if _, err := tx.ExecContext(ctx, `INSERT INTO journal (job, revision, at, by, says, deed, doc, sum, seal) VALUES (?, ?, ?, ?, '', ?, ?, ?, ?)`,
		w.Job.ID, current+1, at, w.Stamp.By, string(deed), string(doc), seal(doc), sealRow(w.Job.ID, current+1, at, w.Stamp.By, string(deed))); err != nil {
		return 0, fmt.Errorf("journal: %w", err)
	}
	return current + 1, claim(ctx, tx, w.Request, string(w.Job.ID), current+1, w.Stamp.At)
}

// putRow keeps a job's document with what stands beside it.
func putRow(ctx context.Context, tx *sql.Tx, j *job.Job, revision int, at, doc string) error {
	open := 0
	if j.Closed == nil {
		open = 1
	}
	if _, err := tx.ExecContext(ctx, `INSERT INTO jobs (id, revision, open, updated, doc, sum, seal) VALUES (?1, ?2, ?3, ?4, ?5, ?6, ?7)
		ON CONFLICT (id) DO UPDATE SET revision = ?2, open = ?3, updated = ?4, doc = ?5, sum = ?6, seal = ?7`,
		j.ID, revision, open, at, doc, seal([]byte(doc)), sealRow(j.ID, revision, open, at)); err != nil {
		return err
	}
	return mark(ctx, tx, j)
}

// Journal lists what was done to a job after a revision, oldest first.
func (s *Store) Journal(ctx context.Context, id job.ID, after int) ([]Entry, error) {
	return s.entries(ctx, `SELECT revision, at, by, says, deed, seal FROM journal WHERE job = ? AND revision > ? ORDER BY revision`, id, after)
}

// entries reads the lines of a journal; its name is the first argument.
func (s *Store) entries(ctx context.Context, query string, args ...any) ([]Entry, error) {
	rows, err := s.db.QueryContext(ctx, query, args...)
	if err != nil {
		return nil, fmt.Errorf("journal of %q: %w", args[0], err)
	}
	defer rows.Close()
	out := []Entry{}
	for rows.Next() {
		var e Entry
		var at string
		var deed, seal sql.NullString
		if err := rows.Scan(&e.Revision, &at, &e.By, &e.Says, &deed, &seal); err != nil {
			return nil, fmt.Errorf("journal of %q: %w", args[0], err)
		}
		if err := unsealRow(seal, args[0], e.Revision, at, e.By, deed.String); err != nil { // the others are what they were
			s.damaged("journal", fmt.Sprintf("%s at revision %d", args[0], e.Revision), err)
			out = append(out, Entry{Revision: e.Revision, Deed: &format.Deed{Fact: fact.Of(job.LineDamaged)}})
			continue
		}
		if deed.Valid {
			d, err := format.ReadDeed([]byte(deed.String))
			if err != nil {
				return nil, fmt.Errorf("journal of %q at revision %d: %w", args[0], e.Revision, err)
			}
			e.Deed = &d
		}
		if e.At, err = time.Parse(timeLayout, at); err != nil {
			return nil, fmt.Errorf("journal of %q: %w", args[0], err)
		}
		out = append(out, e)
	}
	return out, rows.Err()
}

// At is a job as it was at a revision.
func (s *Store) At(ctx context.Context, id job.ID, revision int) (job.Job, error) {
	return at[job.Job](ctx, s, "job", string(id), revision, `SELECT doc, sum FROM journal WHERE job = ? AND revision = ?`)
}

// at reads what a journal keeps of a thing at a revision.
func at[T any](ctx context.Context, s *Store, what, id string, revision int, query string) (T, error) {
	var v T
	var doc []byte
	var sum sql.NullString
	err := s.db.QueryRowContext(ctx, query, id, revision).Scan(&doc, &sum)
	if errors.Is(err, sql.ErrNoRows) {
		return v, fmt.Errorf("revision %d of %s %q: %w", revision, what, id, ErrNotFound)
	}
	if err != nil {
		return v, err
	}
	err = s.unseal(what, fmt.Sprintf("%s at revision %d", id, revision), doc, sum, &v)
	return v, err
}

// list reads documents, but for damaged ones; see Damage.
func list[T any](ctx context.Context, s *Store, what, query string, args ...any) ([]T, error) {
	rows, err := s.db.QueryContext(ctx, query, args...)
	if err != nil {
		return nil, fmt.Errorf("read %ss: %w", what, err)
	}
	defer rows.Close()
	out := []T{}
	for rows.Next() {
		var id string
		var doc []byte
		var sum sql.NullString
		var v T
		if err := rows.Scan(&id, &doc, &sum); err != nil {
			return nil, err
		}
		if s.unseal(what, id, doc, sum, &v) == nil {
			out = append(out, v)
		}
	}
	return out, rows.Err()
}
