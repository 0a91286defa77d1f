package store_test

import (
	"context"
	"errors"
	"fmt"
	"io"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"deepbay/demo/shop"
	"deepbay/internal/core/fact"
	"deepbay/internal/core/job"
	"deepbay/internal/core/part"
	"deepbay/internal/store"
)

// While one write takes long, others wait up to a bound, those beyond it are told so at
// once, and reads do not wait. What was answered is there, and what was refused is not.
func TestWritesWaitInLine(t *testing.T) {
	s, _ := open(t)
	ctx := t.Context()
	put(t, s, tower(t), 0, "")
	held, err := s.DB().BeginTx(ctx, nil) // a write that takes long
	if err != nil {
		t.Fatal(err)
	}
	const tries = 3 * store.MostWaiting
	var busy, kept atomic.Int32
	var all sync.WaitGroup
	ids := make([]job.ID, tries)
	for i := range tries {
		j := tower(t)
		j.ID = job.ID(fmt.Sprint("job-", i))
		all.Go(func() {
			_, err := s.Put(ctx, store.Write{Job: j, Done: fact.Of(job.TookIn), Stamp: stamp})
			switch {
			case err == nil:
				kept.Add(1)
				ids[i] = j.ID
			case errors.Is(err, store.ErrBusy):
				busy.Add(1)
			default:
				t.Error(err)
			}
		})
	}
	for busy.Load() < tries-store.MostWaiting {
		time.Sleep(time.Millisecond)
	}
	if n := s.Waiting(); n != store.MostWaiting {
		t.Errorf("%d writes wait, want %d", n, store.MostWaiting)
	}
	if _, err := s.Job(ctx, tower(t).ID); err != nil {
		t.Errorf("a read waits for writes: %v", err)
	}
	if err := held.Rollback(); err != nil {
		t.Fatal(err)
	}
	all.Wait()
	if kept.Load() != store.MostWaiting || busy.Load() != tries-store.MostWaiting || s.Waiting() != 0 {
		t.Errorf("%d kept, %d refused, %d wait still", kept.Load(), busy.Load(), s.Waiting())
	}
	list, err := s.Jobs(ctx, store.Page{})
	if err != nil || len(list.Stands) != 1+store.MostWaiting {
		t.Errorf("%d jobs, %v", len(list.Stands), err)
	}
	for i, id := range ids {
		if _, err := s.Stand(ctx, job.ID(fmt.Sprint("job-", i))); (err == nil) != (id != "") {
			t.Errorf("job %d was answered %v, and is read %v", i, id != "", err)
		}
	}
}

// One that no longer wants to wait leaves the line, and nothing of it is kept.
func TestWaitingIsGivenUp(t *testing.T) {
	s, _ := open(t)
	held, err := s.DB().BeginTx(t.Context(), nil)
	if err != nil {
		t.Fatal(err)
	}
	ctx, cancel := context.WithTimeout(t.Context(), 20*time.Millisecond)
	defer cancel()
	if _, err := s.Put(ctx, store.Write{Job: tower(t), Done: fact.Of(job.TookIn), Stamp: stamp}); !errors.Is(err, context.DeadlineExceeded) {
		t.Errorf("it waits on: %v", err)
	}
	if err := held.Rollback(); err != nil {
		t.Fatal(err)
	}
	if _, err := s.Stand(t.Context(), tower(t).ID); !errors.Is(err, store.ErrNotFound) {
		t.Errorf("what was given up is kept: %v", err)
	}
}

// On a full disk a change is refused as that, nothing of it is there, what is there can be
// read, and with room again it is kept.
func TestFullDisk(t *testing.T) {
	s, path := open(t)
	ctx := t.Context()
	put(t, s, tower(t), 0, "")
	var pages int
	if err := s.DB().QueryRowContext(ctx, "PRAGMA page_count").Scan(&pages); err != nil {
		t.Fatal(err)
	}
	limit := func(n int) {
		if _, err := s.DB().ExecContext(ctx, fmt.Sprint("PRAGMA max_page_count = ", n)); err != nil {
			t.Fatal(err)
		}
	}
	limit(pages)
	kept, full := 1, 0
	for range 20 {
		_, err := s.Put(ctx, store.Write{Job: tower(t), From: kept, Done: fact.Of(job.ChangedWish), Stamp: stamp})
		switch {
		case err == nil:
			kept++
		case errors.Is(err, store.ErrFull):
			full++
		default:
			t.Fatal(err)
		}
		k, err := s.Job(ctx, tower(t).ID)
		entries, jerr := s.Journal(ctx, tower(t).ID, 0)
		if err != nil || jerr != nil || k.Revision != kept || len(entries) != kept {
			t.Fatalf("at revision %d with %d lines, %v, %v; %d were answered", k.Revision, len(entries), err, jerr, kept)
		}
	}
	if full == 0 {
		t.Fatal("the disk was never full")
	}
	limit(1 << 30)
	put(t, s, tower(t), kept, "")
	if found, err := store.Check(ctx, path); err != nil || !found.Sound() {
		t.Errorf("%+v, %v", found, err)
	}
}

// No question holds a connection while it waits for another: with one of them each is
// answered. With as many askers as connections they would wait for each other for ever.
func TestOneReader(t *testing.T) {
	s, _ := open(t)
	if err := shop.Fill(t.Context(), s); err != nil {
		t.Fatal(err)
	}
	s.Readers().SetMaxOpenConns(1)
	ctx, cancel := context.WithTimeout(t.Context(), 20*time.Second)
	defer cancel()
	if _, err := told(ctx, s); err != nil {
		t.Fatal(err)
	}
	all, err := s.ClosedBefore(ctx, stamp.At.AddDate(9, 0, 0))
	errs := []error{err}
	for _, query := range []string{"tower", "tower t4", "t4", "t4 04", "no such thing"} {
		_, err := s.Jobs(ctx, store.Page{Query: query, Most: 2})
		errs = append(errs, err)
	}
	jobs, err := s.OfOwner(ctx, "Lock-keepers, gate 2")
	if len(jobs) != 1 {
		t.Errorf("%d jobs", len(jobs))
	}
	errs = append(errs, err, s.WriteArchive(ctx, io.Discard, store.Archive{}, append(all, jobs...)))
	_, err = s.Users(ctx, []part.ID{"ternlight-500", "raft-4"}, 3)
	errs = append(errs, err)
	_, err = s.Parts(ctx)
	errs = append(errs, err)
	_, err = s.Gone(ctx, 9)
	errs = append(errs, err)
	_, err = s.Said(ctx, "p", []job.ID{"echo-sounding-tower"})
	errs = append(errs, err, s.Applied(ctx, store.Request{Key: "k"}))
	if !errors.Is(s.BringBackPart(ctx, "raft-4", stamp, store.Request{}), store.ErrSound) || !errors.Is(s.BringBackSheet(ctx, "harrier-t4", stamp, store.Request{}), store.ErrSound) {
		t.Error("what is sound is brought back")
	}
	if err := errors.Join(errs...); err != nil {
		t.Error(err)
	}
}
