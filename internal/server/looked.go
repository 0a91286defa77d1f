package server

// This file keeps what was said about jobs: a revision of a job is judged once. A job
// that cannot be read or judged is named as ill, and keeps no other from its answer.

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"maps"
	"runtime/debug"
	"sync"

	"github.com/gin-gonic/gin"
	lru "github.com/hashicorp/golang-lru/v2"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/job"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/say"
	"deepbay/internal/format"
	"deepbay/internal/store"
)

// How many whole answers are kept, of about 25 kB each, and how many cards, of one or two
// kB. Older cards are in the file.
const (
	mostViews = 256
	mostCards = 2048
)

// looked is what was said about revisions of jobs. It may be used by many at once; what
// it hands out is shared and never changed.
type looked struct {
	views *lru.Cache[job.ID, view]
	cards *lru.Cache[job.ID, card]

	mu      sync.Mutex
	fresh   map[job.ID]card // that are not in the file
	storing bool            // while they are put there
}

func newLooked() *looked {
	var l looked
	l.views, _ = lru.New[job.ID, view](mostViews) // it fails for sizes below one alone
	l.cards, _ = lru.New[job.ID, card](mostCards)
	return &l
}

// view is everything that is said about one revision of a job, as it goes over the wire.
type view struct {
	stand store.Stand
	body  []byte
}

// said is the same as values.
type said struct {
	JobView
	view
}

// card is what lists say of one revision, as the file keeps it.
type card struct {
	stand store.Stand
	Body  json.RawMessage `json:"body"`
	Ref   JobRef          `json:"ref"`
}

const (
	// manyFresh is after how many new cards the next list has them put into the file: as
	// many are judged anew at the next start at most.
	manyFresh = 256
	// manyJudged is how many jobs one list judges that are worth a write of their own.
	manyJudged = 8
)

// view is everything that is said about a job as it is now.
func (s *api) view(ctx context.Context, id job.ID) ([]byte, error) {
	stand, err := s.Data.Stand(ctx, id)
	if err != nil {
		return nil, err
	}
	if kept, ok := s.looked.views.Get(id); ok && kept.stand.Is(stand) {
		return kept.body, nil
	}
	out, err := s.look(ctx, id)
	return out.body, err
}

// look says everything about a job as it is now.
func (s *api) look(ctx context.Context, id job.ID) (said, error) {
	k, err := s.Data.Job(ctx, id)
	if err != nil {
		return said{}, err
	}
	entries, err := s.Data.Journal(ctx, id, max(0, k.Revision-journalShown))
	if err != nil {
		return said{}, err
	}
	out, c, err := s.say(s.before(ctx, &k), &k, entries)
	if err == nil {
		s.remember(out.view, c)
	}
	return out, err
}

// before is a job as it was before its last change, nil where there is none that can be read.
func (s *api) before(ctx context.Context, k *store.Kept) *job.Job {
	if k.Revision < 2 {
		return nil
	}
	j, err := s.Data.At(ctx, k.Job.ID, k.Revision-1)
	if err != nil {
		return nil
	}
	return &j
}

// journalShown is how many entries of a journal a view has at most.
const journalShown = 50

// say is everything that is said about a revision of a job, and its card. before is the job
// as it was, nil where that is not at hand.
func (s *api) say(before *job.Job, k *store.Kept, entries []store.Entry) (said, card, error) {
	v := job.Look(k.Job)
	out := said{JobView: s.worded(k, &v, entries)}
	if before != nil {
		out.Changed = say.Differs(s.Language, before, &v)
	}
	c, err := cardOf(k, out.View.Status)
	if err != nil {
		return said{}, card{}, err
	}
	out.stand = c.stand
	out.body, err = json.Marshal(&out.JobView)
	return out, c, err
}

// worded is the view of a job, or of a stage of it, in words.
func (s *api) worded(k *store.Kept, v *job.View, entries []store.Entry) JobView {
	return JobView{Revision: k.Revision, Updated: k.Updated, View: say.Look(s.Language, v), Journal: s.journal(&k.Job, entries), Changed: []say.Changed{}}
}

// remember keeps what was said about a revision that is in the file.
func (s *api) remember(v view, c card) {
	s.looked.views.Add(c.stand.ID, v)
	s.putCard(c)
}

// put keeps a revision of a job and answers with what is said about it. All of that is
// made before anything is kept: what cannot be judged or worded is not carried out, and
// what is carried out can be shown. before is the job as it was, nil for a new one.
func (s *api) put(c *gin.Context, status int, before *job.Job, w store.Write) error {
	v, err := s.hold(c.Request.Context(), before, w)
	if err != nil {
		return err
	}
	c.Data(status, jsonType, v.body)
	return nil
}

// hold keeps a revision of a job, and tells those who listen.
func (s *api) hold(ctx context.Context, before *job.Job, w store.Write) (said, error) {
	next := store.Kept{Job: w.Job, Revision: w.From + 1, Updated: w.Stamp.At}
	var entries []store.Entry
	if w.From > 0 {
		var err error
		if entries, err = s.Data.Journal(ctx, w.Job.ID, max(0, next.Revision-journalShown)); err != nil {
			return said{}, err
		}
	}
	kept, err := format.KeptDeed(w.Done, w.Job.Name)
	if err != nil {
		return said{}, err
	}
	v, card, err := s.say(before, &next, append(entries, store.Entry{Revision: next.Revision, At: next.Updated, By: w.Stamp.By, Deed: &kept}))
	if err != nil {
		return said{}, err
	}
	if _, err := s.Data.Put(ctx, w); err != nil {
		return said{}, err
	}
	s.remember(v.view, card)
	if n := len(v.Journal); n > 0 {
		s.hub.tell(Happened{w.Job.ID, next.Revision, v.Journal[n-1].By, v.Journal[n-1].Says})
	}
	return v, nil
}

// journal words entries, in the names of a job.
func (s *api) journal(j *job.Job, entries []store.Entry) []say.Entry {
	v := say.About(s.Language, j)
	out := make([]say.Entry, len(entries))
	for i, e := range entries {
		out[i] = say.Entry{Revision: e.Revision, At: e.At, By: say.Name(e.By), Says: v.Event(deed(e))}
	}
	return out
}

// deed is what an entry says was done, and what pieces were called then.
func deed(e store.Entry) (fact.Fact, map[rig.ItemID]string) {
	if e.Deed == nil { // from before deeds were kept
		return fact.Of(job.SaidThen, fact.Typed(e.Says)), nil
	}
	return e.Deed.Fact, e.Deed.Names
}

// putCard keeps a card that the file should have as well.
func (s *api) putCard(c card) {
	s.looked.cards.Add(c.stand.ID, c)
	if s.Program == "" {
		return
	}
	s.looked.mu.Lock()
	defer s.looked.mu.Unlock()
	if s.looked.fresh == nil {
		s.looked.fresh = map[job.ID]card{}
	}
	s.looked.fresh[c.stand.ID] = c
}

// forget drops all that was said: some of it is of jobs that are no longer here.
func (l *looked) forget() {
	l.views.Purge()
	l.cards.Purge()
	l.mu.Lock()
	defer l.mu.Unlock()
	l.fresh = nil
}

// recall brings back what this very program said of jobs, be it before it was started anew.
func (s *api) recall(ctx context.Context, stands []store.Stand) {
	if s.Program == "" || len(stands) == 0 {
		return
	}
	ids := make([]job.ID, len(stands))
	for i, k := range stands {
		ids[i] = k.ID
	}
	list, err := s.Data.Said(ctx, s.Program, ids)
	if err != nil {
		s.Log.Warn("what was said of jobs cannot be read: they are judged anew", "error", err)
	}
	for _, k := range list {
		if c := (card{stand: k.Stand}); json.Unmarshal(k.Doc, &c) == nil {
			s.looked.cards.Add(c.stand.ID, c)
		}
	}
}

// store puts new cards into the file. That they are not kept costs time at the next start
// and nothing else.
func (s *api) store(ctx context.Context) {
	defer func() {
		s.looked.mu.Lock()
		defer s.looked.mu.Unlock()
		s.looked.storing = false
	}()
	if s.waiting() > 0 { // another time
		return
	}
	s.looked.mu.Lock()
	fresh := s.looked.fresh
	s.looked.fresh = nil
	s.looked.mu.Unlock()
	if len(fresh) == 0 {
		return
	}
	list := make([]store.Said, 0, len(fresh))
	for _, c := range fresh {
		doc, err := json.Marshal(c)
		if err != nil {
			s.Log.Warn("a card cannot be written", "job", c.stand.ID, "error", err)
			return
		}
		list = append(list, store.Said{Stand: c.stand, Doc: doc})
	}
	switch err := s.Data.KeepSaid(ctx, s.Program, list); {
	case errors.Is(err, store.ErrBusy): // another time
		s.looked.mu.Lock()
		maps.Copy(fresh, s.looked.fresh)
		s.looked.fresh = fresh
		s.looked.mu.Unlock()
	case err != nil:
		s.Log.Warn("what is said of jobs is not kept", "error", err)
	}
}

func cardOf(k *store.Kept, status say.Status) (card, error) {
	j := &k.Job
	out := card{stand: store.Stand{ID: j.ID, Revision: k.Revision, Updated: k.Updated}, Ref: JobRef{j.ID, j.Title}}
	var err error
	out.Body, err = json.Marshal(JobCard{ID: j.ID, Title: j.Title, Tag: j.Tag, Owner: j.Owner, Wish: j.Wish.Text, Sheet: j.Sheet.Name,
		Class: j.Sheet.Class, Arrived: j.Arrived, Stands: j.Stands, Due: j.Due, Updated: k.Updated, Revision: k.Revision, Status: status})
	return out, err
}

// cards is what lists say of jobs, each judged once a revision.
func (s *api) cards(ctx context.Context, stands []store.Stand) ([]card, error) {
	out := make([]card, len(stands))
	kept := func(i int) bool {
		c, ok := s.looked.cards.Get(stands[i].ID)
		out[i] = c
		return ok && c.stand.Is(stands[i])
	}
	var missing []store.Stand
	for i := range stands {
		if !kept(i) {
			missing = append(missing, stands[i])
		}
	}
	s.recall(ctx, missing)
	judged := 0
	for i := range stands {
		if len(missing) == 0 || kept(i) {
			continue
		}
		var err error
		if out[i], err = s.card(ctx, stands[i]); err != nil {
			return nil, err
		}
		judged++
	}
	s.looked.mu.Lock()
	due := !s.looked.storing && s.Program != "" && (judged >= manyJudged || len(s.looked.fresh) >= manyFresh)
	s.looked.storing = s.looked.storing || due
	s.looked.mu.Unlock()
	switch {
	case due && judged >= manyJudged: // with all that was judged just now
		s.store(ctx)
	case due: // nobody who reads waits for it
		go s.store(context.WithoutCancel(ctx))
	}
	return out, nil
}

// card judges one job; one that cannot be is ill, and said to be.
func (s *api) card(ctx context.Context, at store.Stand) (out card, err error) {
	defer func() {
		p := recover()
		if p == nil && err == nil || ctx.Err() != nil {
			return
		}
		if p != nil {
			s.Log.Error("a job cannot be judged", "job", at.ID, "panic", fmt.Sprint(p), "stack", string(debug.Stack()))
		} else {
			s.Log.Error("a job cannot be read", "job", at.ID, "error", err)
		}
		out = card{stand: at, Ref: JobRef{at.ID, string(at.ID)}}
		out.Body, err = json.Marshal(JobCard{ID: at.ID, Title: string(at.ID), Updated: at.Updated, Revision: at.Revision,
			Class: machine.Tower, Status: say.Status{Stage: job.StageFit, Go: job.StageFit}, Ill: say.Ill(s.Language)})
		if err == nil {
			s.looked.cards.Add(at.ID, out)
		}
	}()
	k, err := s.Data.Job(ctx, at.ID)
	if err != nil {
		return out, err
	}
	status := job.Stand(k.Job)
	if out, err = cardOf(&k, say.About(s.Language, &k.Job).Status(&status)); err != nil {
		return out, err
	}
	s.putCard(out)
	return out, nil
}
