package server

// This file keeps what was said about jobs: a revision of a job is judged once.

import (
	"sync"
	"time"

	"deepbay/internal/core/job"
	"deepbay/internal/core/say"
	"deepbay/internal/store"
)

// mostViews is how many whole answers are kept, of about 30 kB each; of every job
// its status is, which is what lists ask for.
const mostViews = 256

// looked is what was said about revisions of jobs. It may be used by many at once; what
// it hands out is shared and never changed.
type looked struct {
	mu       sync.Mutex
	views    map[job.ID]said[say.View]
	statuses map[job.ID]said[say.Status]
}

// said is an answer about one revision. A job that was deleted and brought in again
// counts from one again, so the time tells them apart.
type said[T any] struct {
	revision int
	updated  time.Time
	answer   T
}

func (s *said[T]) about(k *store.Kept) bool {
	return s.revision == k.Revision && s.updated.Equal(k.Updated)
}

// view is everything that is said about a job.
func (l *looked) view(in say.Language, k store.Kept) say.View {
	l.mu.Lock()
	kept, ok := l.views[k.Job.ID]
	l.mu.Unlock()
	if ok && kept.about(&k) {
		return kept.answer
	}
	v := job.Look(k.Job)
	out := say.Look(in, &v)
	l.mu.Lock()
	defer l.mu.Unlock()
	if l.views == nil || len(l.views) >= mostViews {
		l.views = map[job.ID]said[say.View]{}
	}
	if l.statuses == nil {
		l.statuses = map[job.ID]said[say.Status]{}
	}
	l.views[k.Job.ID] = said[say.View]{k.Revision, k.Updated, out}
	l.statuses[k.Job.ID] = said[say.Status]{k.Revision, k.Updated, out.Status}
	return out
}

// status is what a list says of a job.
func (l *looked) status(in say.Language, k store.Kept) say.Status {
	l.mu.Lock()
	kept, ok := l.statuses[k.Job.ID]
	l.mu.Unlock()
	if ok && kept.about(&k) {
		return kept.answer
	}
	return l.view(in, k).Status
}
