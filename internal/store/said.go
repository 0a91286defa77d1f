package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"fmt"
	"time"

	"deepbay/internal/core/job"
)

// Said is what lists say of one revision of a job.
type Said struct {
	Stand Stand
	Doc   []byte
}

// Said reads what a program said of jobs. Whether a job still stands where it stood then
// is for the caller to see.
func (s *Store) Said(ctx context.Context, program string, jobs []job.ID) ([]Said, error) {
	list, err := json.Marshal(jobs)
	if err != nil {
		return nil, err
	}
	rows, err := s.db.QueryContext(ctx, `SELECT job, revision, updated, doc, sum FROM said WHERE program = ? AND job IN (SELECT value FROM json_each(?))`, program, string(list))
	if err != nil {
		return nil, fmt.Errorf("what was said of jobs: %w", err)
	}
	defer rows.Close()
	var out []Said
	for rows.Next() {
		var k Said
		var updated, sum string
		if err := rows.Scan(&k.Stand.ID, &k.Stand.Revision, &updated, &k.Doc, &sum); err != nil {
			return nil, fmt.Errorf("what was said of jobs: %w", err)
		}
		if k.Stand.Updated, err = time.Parse(timeLayout, updated); err != nil {
			return nil, fmt.Errorf("what was said of jobs: %w", err)
		}
		if sum == seal(k.Doc) { // another is made anew
			out = append(out, k)
		}
	}
	return out, rows.Err()
}

// KeepSaid keeps what a program says of jobs, in place of what was said of them before.
// It stands back for writes that wait: ErrBusy, and the same may be kept another time.
func (s *Store) KeepSaid(ctx context.Context, program string, list []Said) error {
	if s.Waiting() > 0 {
		return ErrBusy
	}
	return s.write(ctx, func(tx *sql.Tx) error {
		q, err := tx.PrepareContext(ctx, `INSERT OR REPLACE INTO said (job, revision, updated, program, doc, sum) SELECT id, ?, ?, ?, ?, ? FROM jobs WHERE id = ?`)
		if err != nil {
			return fmt.Errorf("what is said of jobs: %w", err)
		}
		defer q.Close()
		for _, k := range list {
			if _, err := q.ExecContext(ctx, k.Stand.Revision, k.Stand.Updated.UTC().Format(timeLayout), program, string(k.Doc), seal(k.Doc), k.Stand.ID); err != nil {
				return fmt.Errorf("what is said of job %q: %w", k.Stand.ID, err)
			}
		}
		return nil
	})
}
