package store

// This file lets writes at the file one after another, and no more of them wait than are
// answered soon. Reads have connections of their own and wait for none of them.

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"io/fs"
	"math"
	"os"
	"path/filepath"
	"sync"
	"time"

	"github.com/shirou/gopsutil/v4/disk"
	"modernc.org/sqlite"
	sqlite3 "modernc.org/sqlite/lib"
)

// ErrBusy is returned where so many writes wait that another would not be answered soon.
// Nothing was changed; the same may be asked again.
var ErrBusy = errors.New("more changes come in than the disk takes")

// What a write may meet on its disk. Nothing was changed; of ErrDisk nobody knows: the same
// request, sent again by its key when the disk is mended, is carried out once.
var (
	ErrFull     = errors.New("the disk of the data file is full")
	ErrReadOnly = errors.New("the data file can no longer be written to")
	ErrDisk     = errors.New("the disk of the data file fails")
)

const (
	// MostWaiting is how many writes wait or are under way at most: where the disk takes
	// one in 15 ms the last is answered within a second.
	MostWaiting = 64
	mostReaders = 8
)

// writer is the one connection that writes.
type writer struct {
	db *sql.DB
	in chan struct{} // one for each write that waits or is under way
}

func openWriter(path string) (*writer, error) {
	db, err := connect(path, "foreign_keys(1)", "busy_timeout(5000)", "journal_mode(WAL)", "secure_delete(1)")
	if err != nil {
		return nil, err
	}
	db.SetMaxOpenConns(1)
	return &writer{db: db, in: make(chan struct{}, MostWaiting)}, nil
}

// readers are connections that only read. Each keeps the statements that it was asked
// once, for most of what a short question takes is to make sense of it.
type readers struct {
	*sql.DB
	mu    sync.RWMutex
	known map[string]*sql.Stmt
}

// mostKnown is how many statements are kept; there are fewer, but for those of searches for
// many short words.
const mostKnown = 64

// openReaders opens them. What a burst needed is given back soon.
func openReaders(path string) (*readers, error) {
	db, err := connect(path, "busy_timeout(5000)", "query_only(1)")
	if err != nil {
		return nil, err
	}
	db.SetMaxOpenConns(mostReaders)
	db.SetMaxIdleConns(mostReaders)
	db.SetConnMaxIdleTime(time.Minute)
	return &readers{DB: db, known: map[string]*sql.Stmt{}}, nil
}

// statement is a query that was made sense of, nil where it is not kept.
func (r *readers) statement(ctx context.Context, query string) *sql.Stmt {
	r.mu.RLock()
	s, n := r.known[query], len(r.known)
	r.mu.RUnlock()
	if s != nil || n >= mostKnown {
		return s
	}
	s, err := r.PrepareContext(ctx, query)
	if err != nil {
		return nil // what is wrong is said by who asks
	}
	r.mu.Lock()
	defer r.mu.Unlock()
	if first := r.known[query]; first != nil { // somebody was faster
		s.Close()
		return first
	}
	r.known[query] = s
	return s
}

// QueryContext asks what sql.DB does.
func (r *readers) QueryContext(ctx context.Context, query string, args ...any) (*sql.Rows, error) {
	if s := r.statement(ctx, query); s != nil {
		return s.QueryContext(ctx, args...)
	}
	return r.DB.QueryContext(ctx, query, args...)
}

// QueryRowContext asks what sql.DB does.
func (r *readers) QueryRowContext(ctx context.Context, query string, args ...any) *sql.Row {
	if s := r.statement(ctx, query); s != nil {
		return s.QueryRowContext(ctx, args...)
	}
	return r.DB.QueryRowContext(ctx, query, args...)
}

// write carries f out in a transaction of its own, all or nothing. What is said to be
// busy was not carried out.
func (s *Store) write(ctx context.Context, f func(*sql.Tx) error) error {
	select {
	case s.w.in <- struct{}{}:
	default:
		return ErrBusy
	}
	defer func() { <-s.w.in }()
	tx, err := s.w.db.BeginTx(ctx, nil)
	if err != nil {
		return asDisk(err)
	}
	defer tx.Rollback() //nolint:errcheck // after Commit it does nothing
	if err := f(tx); err != nil {
		return asDisk(err)
	}
	return asDisk(tx.Commit())
}

// Waiting is how many writes wait or are under way.
func (s *Store) Waiting() int { return len(s.w.in) }

// asDisk names what the file was not written for: another program's hold on it, or no
// room. Nothing was changed.
func asDisk(err error) error {
	var is *sqlite.Error
	if !errors.As(err, &is) {
		return err
	}
	if is.Code() == sqlite3.SQLITE_IOERR_SHMSIZE { // no room to begin in
		return fmt.Errorf("%w: %w", ErrFull, err)
	}
	switch is.Code() & 0xff { // the rest of a code says where
	case sqlite3.SQLITE_BUSY, sqlite3.SQLITE_LOCKED:
		return fmt.Errorf("%w: %w", ErrBusy, err)
	case sqlite3.SQLITE_FULL:
		return fmt.Errorf("%w: %w", ErrFull, err)
	case sqlite3.SQLITE_READONLY:
		return fmt.Errorf("%w: %w", ErrReadOnly, err)
	case sqlite3.SQLITE_IOERR, sqlite3.SQLITE_CANTOPEN:
		return fmt.Errorf("%w: %w", ErrDisk, err)
	}
	return err
}

// Space is how much room the data takes, and how much is left on its disk.
type Space struct {
	Bytes, Free int64
}

// Space measures the data file with its log, and the disk it lies on.
func (s *Store) Space() (Space, error) {
	var out Space
	for _, path := range []string{s.path, s.path + "-wal"} {
		info, err := os.Stat(path)
		switch {
		case err == nil:
			out.Bytes += info.Size()
		case !errors.Is(err, fs.ErrNotExist):
			return out, err
		}
	}
	use, err := disk.Usage(filepath.Dir(s.path))
	if err != nil {
		return out, err
	}
	out.Free = int64(min(use.Free, math.MaxInt64))
	return out, nil
}
