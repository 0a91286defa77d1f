package store

import (
	"context"

	"deepbay/internal/core/job"
	"deepbay/internal/core/machine"
)

// mostClosed is how many finished jobs on one model are read: the latest ones say enough.
const mostClosed = 50

// Closed is the finished jobs on one model, the latest first, but for damaged ones; see
// Damage.
func (s *Store) Closed(ctx context.Context, model machine.ID) ([]job.Job, error) {
	return list[job.Job](ctx, s, "job", `SELECT id, doc, sum FROM jobs WHERE CASE WHEN json_valid(doc) THEN json_extract(doc, '$.sheet.id') END = ? AND open = 0 ORDER BY updated DESC LIMIT ?`, model, mostClosed)
}
