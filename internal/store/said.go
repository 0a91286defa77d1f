package store

import (
	"context"
	"database/sql"
	"fmt"
)

// Said is what lists say of one revision of a job.
type Said struct {
	Stand Stand
	Doc   []byte
}

// Said reads what a program said of jobs. Whether a job still stands where it stood then
// is for the caller to see.
func (s *Store) Said(ctx context.Context, program string) ([]Said, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT job, revision, updated, doc FROM said WHERE program = ?`, program)
	if err != nil {
		return nil, fmt.Errorf("what was said of jobs: %w", err)
	}
	defer rows.Close()
	var out []Said
	for rows.Next() {
		var k Said
		if k.Stand, err = stand(with{rows, &k.Doc}); err != nil {
			return nil, fmt.Errorf("what was said of jobs: %w", err)
		}
		out = append(out, k)
	}
	return out, rows.Err()
}

// with is a row that has one column more.
type with struct {
	row  scanner
	more any
}

// Scan reads the columns asked for, and the one more.
func (w with) Scan(dest ...any) error { return w.row.Scan(append(dest, w.more)...) }

// KeepSaid keeps what a program says of jobs, in place of what was said of them before.
// It stands back for writes that wait: ErrBusy, and the same may be kept another time.
func (s *Store) KeepSaid(ctx context.Context, program string, list []Said) error {
	if s.Waiting() > 0 {
		return ErrBusy
	}
	return s.write(ctx, func(tx *sql.Tx) error {
		q, err := tx.PrepareContext(ctx, `INSERT OR REPLACE INTO said (job, revision, updated, program, doc) SELECT id, ?, ?, ?, ? FROM jobs WHERE id = ?`)
		if err != nil {
			return fmt.Errorf("what is said of jobs: %w", err)
		}
		defer q.Close()
		for _, k := range list {
			if _, err := q.ExecContext(ctx, k.Stand.Revision, k.Stand.Updated.UTC().Format(timeLayout), program, string(k.Doc), k.Stand.ID); err != nil {
				return fmt.Errorf("what is said of job %q: %w", k.Stand.ID, err)
			}
		}
		return nil
	})
}
