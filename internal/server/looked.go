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

	"deepbay/internal/core/fact"
	"deepbay/internal/core/job"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/say"
	"deepbay/internal/format"
	"deepbay/internal/store"
)

// mostViews is how many whole answers are kept, of about 60 kB each; of every job its
// card is, which is what lists ask for.
const mostViews = 256

// looked is what was said about revisions of jobs. It may be used by many at once; what
// it hands out is shared and never changed.
type looked struct {
	once  sync.Once // recalls cards from the file
	mu    sync.Mutex
	views map[job.ID]said
	cards map[job.ID]card // nil until the first is needed
	fresh map[job.ID]card // that are not in the file
	// stored is set once cards were put there, storing while they are.
	stored, storing bool
}

// said is everything about one revision of a job, and the same as it goes over the wire.
type said struct {
	JobView
	stand store.Stand
	body  []byte
}

// card is what lists say of one revision, as the file keeps it.
type card struct {
	stand store.Stand
	Body  json.RawMessage `json:"body"`
	Ref   JobRef          `json:"ref"`
	Parts []part.ID       `json:"parts"`
}

// manyFresh is after how many new cards the next list has them put into the file: as many
// are judged anew at the next start at most.
const manyFresh = 256

// view is everything that is said about a job as it is now.
func (s *api) view(ctx context.Context, id job.ID) (said, error) {
	stand, err := s.Data.Stand(ctx, id)
	if err != nil {
		return said{}, err
	}
	s.looked.mu.Lock()
	kept, ok := s.looked.views[id]
	s.looked.mu.Unlock()
	if ok && kept.stand.Is(stand) {
		return kept, nil
	}
	k, err := s.Data.Job(ctx, id)
	if err != nil {
		return said{}, err
	}
	entries, err := s.Data.Journal(ctx, id, max(0, k.Revision-journalShown))
	if err != nil {
		return said{}, err
	}
	out, c, err := s.say(&k, entries)
	if err == nil {
		s.remember(out, c)
	}
	return out, err
}

// journalShown is how many entries of a journal a view has at most.
const journalShown = 50

// say is everything that is said about a revision of a job, and its card.
func (s *api) say(k *store.Kept, entries []store.Entry) (said, card, error) {
	v := job.Look(k.Job)
	out := said{JobView: JobView{Revision: k.Revision, Updated: k.Updated, View: say.Look(s.Language, &v), Journal: s.journal(&k.Job, entries)}}
	c, err := cardOf(k, out.View.Status)
	if err != nil {
		return said{}, card{}, err
	}
	out.stand = c.stand
	out.body, err = json.Marshal(&out.JobView)
	return out, c, err
}

// mostChanging is how many changes of jobs wait to be judged at most: fewer than may wait
// for the disk, for each is waited for twice.
const mostChanging = 24

// sayNext says what there is to say of a change. One at a time, for they are kept one at a
// time as well: so a flood of changes leaves the other processors to those who read.
func (s *api) sayNext(ctx context.Context, k *store.Kept, entries []store.Entry) (said, card, error) {
	select {
	case s.changing <- struct{}{}:
		defer func() { <-s.changing }()
	default:
		return said{}, card{}, store.ErrBusy
	}
	select {
	case s.judging <- struct{}{}:
		defer func() { <-s.judging }()
		return s.say(k, entries)
	case <-ctx.Done():
		return said{}, card{}, ctx.Err()
	}
}

// remember keeps what was said about a revision that is in the file.
func (s *api) remember(v said, c card) {
	s.looked.mu.Lock()
	defer s.looked.mu.Unlock()
	if s.looked.views == nil || len(s.looked.views) >= mostViews {
		s.looked.views = map[job.ID]said{}
	}
	s.looked.views[c.stand.ID] = v
	s.putCard(c)
}

// put keeps a revision of a job and answers with what is said about it. All of that is
// made before anything is kept: what cannot be judged or worded is not carried out, and
// what is carried out can be shown.
func (s *api) put(c *gin.Context, status int, w store.Write) error {
	ctx := c.Request.Context()
	next := store.Kept{Job: w.Job, Revision: w.From + 1, Updated: w.Stamp.At}
	var entries []store.Entry
	if w.From > 0 {
		var err error
		if entries, err = s.Data.Journal(ctx, w.Job.ID, max(0, next.Revision-journalShown)); err != nil {
			return err
		}
	}
	kept, err := format.KeptDeed(w.Done, w.Job.Name)
	if err != nil {
		return err
	}
	v, card, err := s.sayNext(ctx, &next, append(entries, store.Entry{Revision: next.Revision, At: next.Updated, By: w.Stamp.By, Deed: &kept}))
	if err != nil {
		return err
	}
	if _, err := s.Data.Put(ctx, w); err != nil {
		return err
	}
	s.remember(v, card)
	c.Data(status, jsonType, v.body)
	return nil
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

func (l *looked) set(c card) {
	if l.cards == nil {
		l.cards = map[job.ID]card{}
	}
	l.cards[c.stand.ID] = c
}

// putCard sets a card that the file should have as well. The caller holds the lock.
func (s *api) putCard(c card) {
	s.looked.set(c)
	if s.Program != "" {
		if s.looked.fresh == nil {
			s.looked.fresh = map[job.ID]card{}
		}
		s.looked.fresh[c.stand.ID] = c
	}
}

// recall brings back what this very program said of jobs before it was started anew.
func (s *api) recall(ctx context.Context) {
	list, err := s.Data.Said(ctx, s.Program)
	if err != nil {
		s.Log.Warn("what was said of jobs cannot be read: they are judged anew", "error", err)
	}
	s.looked.mu.Lock()
	defer s.looked.mu.Unlock()
	for _, k := range list {
		c := card{stand: k.Stand}
		if _, ok := s.looked.cards[k.Stand.ID]; !ok && json.Unmarshal(k.Doc, &c) == nil {
			s.looked.set(c)
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
	for _, p := range j.Parts {
		out.Parts = append(out.Parts, p.ID)
	}
	var err error
	out.Body, err = json.Marshal(JobCard{ID: j.ID, Title: j.Title, Tag: j.Tag, Owner: j.Owner, Wish: j.Wish.Text, Sheet: j.Sheet.Name,
		Class: j.Sheet.Class, Arrived: j.Arrived, Updated: k.Updated, Revision: k.Revision, Status: status})
	return out, err
}

// list is the cards of jobs that match a query.
func (s *api) list(ctx context.Context, query string) ([]card, error) {
	stands, err := s.Data.Stands(ctx, query)
	if err != nil {
		return nil, err
	}
	if s.Program != "" {
		s.looked.once.Do(func() { s.recall(ctx) })
	}
	out := make([]card, len(stands))
	var fresh []int
	s.looked.mu.Lock()
	for i, k := range stands {
		c, ok := s.looked.cards[k.ID]
		if out[i] = c; !ok || !c.stand.Is(k) {
			fresh = append(fresh, i)
		}
	}
	s.looked.mu.Unlock()
	for _, i := range fresh {
		if out[i], err = s.card(ctx, stands[i]); err != nil {
			return nil, err
		}
	}
	s.looked.mu.Lock()
	first := !s.looked.stored && s.Program != ""
	many := len(s.looked.fresh) >= manyFresh && !s.looked.storing
	s.looked.stored, s.looked.storing = true, s.looked.storing || many || first
	s.looked.mu.Unlock()
	switch {
	case first: // with all that was judged just now
		s.store(ctx)
	case many: // nobody who reads waits for it
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
			s.looked.mu.Lock()
			defer s.looked.mu.Unlock()
			s.looked.set(out)
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
	s.looked.mu.Lock()
	defer s.looked.mu.Unlock()
	s.putCard(out)
	return out, nil
}
