package store

import (
	"context"
	"database/sql"
	"fmt"

	"deepbay/internal/core/job"
	"deepbay/internal/core/machine"
)

// mostClosed is how many finished jobs on one model are read: the latest ones say enough.
const mostClosed = 50

// Closed is the finished jobs on one model, the latest first, but for damaged ones; see
// Damage.
func (s *Store) Closed(ctx context.Context, model machine.ID) ([]job.Job, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT id, doc, sum FROM jobs WHERE CASE WHEN json_valid(doc) THEN json_extract(doc, '$.sheet.id') END = ? AND open = 0 ORDER BY updated DESC LIMIT ?`, model, mostClosed)
	if err != nil {
		return nil, fmt.Errorf("finished jobs on %q: %w", model, err)
	}
	defer rows.Close()
	var out []job.Job
	for rows.Next() {
		var id string
		var doc []byte
		var sum sql.NullString
		var j job.Job
		if err := rows.Scan(&id, &doc, &sum); err != nil {
			return nil, fmt.Errorf("finished jobs on %q: %w", model, err)
		}
		if s.unseal("job", id, doc, sum, &j) == nil {
			out = append(out, j)
		}
	}
	return out, rows.Err()
}
