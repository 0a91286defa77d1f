package store

// This file keeps the names of requests, so that one which is sent twice is carried out
// once.

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"time"
)

// Request names a request.
type Request struct {
	Key   string // "" if it has no name
	Asked string // a digest of all that is asked for
}

// KeysAreKept is how long a key is known.
const KeysAreKept = 30 * 24 * time.Hour

// ErrKeyUsed is returned where a key names another request.
var ErrKeyUsed = errors.New("the key names another request that was sent before")

// Applied says that a request was carried out before, and what came of it.
type Applied struct {
	Thing    string // the id of what it made or changed
	Revision int
}

// Error says so.
func (a *Applied) Error() string {
	return fmt.Sprintf("carried out before: %s at revision %d", a.Thing, a.Revision)
}

// Applied returns an *Applied where a request was carried out before, ErrKeyUsed where its
// key names another one, and nil where it is new or has no name.
func (s *Store) Applied(ctx context.Context, r Request) error { return applied(ctx, s.db, r) }

func applied(ctx context.Context, q interface {
	QueryRowContext(ctx context.Context, query string, args ...any) *sql.Row
}, r Request) error {
	if r.Key == "" {
		return nil
	}
	var asked string
	var out Applied
	err := q.QueryRowContext(ctx, `SELECT asked, thing, revision FROM requests WHERE key = ?`, r.Key).Scan(&asked, &out.Thing, &out.Revision)
	switch {
	case errors.Is(err, sql.ErrNoRows):
		return nil
	case err != nil:
		return fmt.Errorf("request %q: %w", r.Key, err)
	case asked != "" && asked != r.Asked: // of those from before digests were kept nobody knows
		return ErrKeyUsed
	}
	return &out
}

// claim keeps the name of a request that is being carried out.
func claim(ctx context.Context, tx *sql.Tx, r Request, thing string, revision int, at time.Time) error {
	if r.Key == "" {
		return nil
	}
	if _, err := tx.ExecContext(ctx, `DELETE FROM requests WHERE at < ?`, at.Add(-KeysAreKept).UTC().Format(timeLayout)); err != nil {
		return fmt.Errorf("request %q: %w", r.Key, err)
	}
	if _, err := tx.ExecContext(ctx, `INSERT INTO requests (key, asked, thing, revision, at) VALUES (?, ?, ?, ?, ?)`, r.Key, r.Asked, thing, revision, at.UTC().Format(timeLayout)); err != nil {
		return fmt.Errorf("request %q: %w", r.Key, err)
	}
	return nil
}
