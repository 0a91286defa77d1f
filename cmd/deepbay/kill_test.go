package main

import (
	"bufio"
	"bytes"
	"context"
	"encoding/json"
	"flag"
	"fmt"
	"io"
	"math/rand"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"sync"
	"testing"
	"time"

	"deepbay/demo/shop"
	"deepbay/internal/core/fact"
	"deepbay/internal/core/job"
	"deepbay/internal/core/machine"
	"deepbay/internal/server"
	"deepbay/internal/store"
)

// kills is how often the server is killed; make soak asks for more.
var kills = flag.Int("kills", 6, "rounds of TestKill")

// TestMain lets the tests start this program as a process of its own.
func TestMain(m *testing.M) {
	if args := os.Getenv("DEEPBAY_RUN"); args != "" {
		os.Exit(run(context.Background(), strings.Fields(args), os.Stdout, os.Stderr))
	}
	os.Exit(m.Run())
}

// process is a server in a process of its own, and base its address.
type process struct {
	cmd  *exec.Cmd
	base string
}

func started(t *testing.T, data string) process {
	t.Helper()
	cmd := exec.CommandContext(t.Context(), os.Args[0])
	cmd.Env = append(os.Environ(), "DEEPBAY_RUN=serve --listen 127.0.0.1:0 --data "+data)
	out, err := cmd.StdoutPipe()
	if err != nil {
		t.Fatal(err)
	}
	var errs bytes.Buffer
	cmd.Stderr = &errs
	if err := cmd.Start(); err != nil {
		t.Fatal(err)
	}
	line, err := bufio.NewReader(out).ReadString('\n')
	_, base, ok := strings.Cut(strings.TrimSpace(line), ": ")
	if err != nil || !ok {
		cmd.Process.Kill() //nolint:errcheck // it is over
		cmd.Wait()         //nolint:errcheck
		t.Fatalf("it does not start: %q, %v\n%s", line, err, errs.String())
	}
	return process{cmd, base}
}

// writer changes things of its own, one after the other: it knows at which revision each
// must be, and which request was not answered.
type writer struct {
	name    string
	rng     *rand.Rand
	client  *http.Client
	job     int // revisions
	sheet   int
	shelf   int // pieces
	made    int // jobs that it created
	n       int
	doc     machine.Sheet
	pending *request
	refused int // requests
	fault   error
}

// request is one change, and what it means when it was carried out.
type request struct {
	method, path, body string
	done               func()
}

// next makes the next change up.
func (w *writer) next() *request {
	w.n++
	key := fmt.Sprintf("%s-%d", w.name, w.n)
	switch w.rng.Intn(8) {
	case 0:
		return &request{"POST", "/api/jobs", fmt.Sprintf(`{"title":"Made by %s %d","sheet":"gannet-d1","wish":{},"key":%q}`, w.name, w.made, key), func() { w.made++ }}
	case 1, 2:
		return &request{"POST", "/api/shelf/words", fmt.Sprintf(`{"text":"%s","key":%q}`, partWords(w.name), key), func() { w.shelf++ }}
	case 3:
		next := w.doc
		next.Source = "manual, copy " + key
		b, err := json.Marshal(server.PutSheet{Revision: w.sheet, By: w.name, Key: key, Sheet: next})
		if err != nil {
			panic(err)
		}
		return &request{"PUT", "/api/sheets/" + string(w.doc.ID), string(b), func() { w.sheet++; w.doc = next }}
	}
	return &request{"POST", "/api/jobs/" + w.name + "/changes", fmt.Sprintf(`{"revision":%d,"by":%q,"key":%q,"change":{"do":"wish","wish":{"text":%q}}}`, w.job, w.name, key, key), func() { w.job++ }}
}

// partWords are of a part that no other writer puts on the shelf.
func partWords(name string) string {
	var n int
	fmt.Sscanf(name, "writer-%d", &n) //nolint:errcheck // names are ours
	return fmt.Sprintf("%dGB nvme 2280", 100+n)
}

// send sends a request; true is an answer that says it was carried out, and an error none.
func (w *writer) send(base string, r *request) (bool, error) {
	q, err := http.NewRequest(r.method, base+r.path, strings.NewReader(r.body))
	if err != nil {
		return false, err
	}
	q.Header.Set("Content-Type", "application/json")
	a, err := w.client.Do(q)
	if err != nil {
		return false, err
	}
	defer a.Body.Close()
	b, err := io.ReadAll(a.Body)
	if err != nil {
		return false, err
	}
	if a.StatusCode >= 300 && a.StatusCode != http.StatusServiceUnavailable && a.StatusCode != http.StatusInsufficientStorage {
		w.fault = fmt.Errorf("%s %s %s: %d %.300s", r.method, r.path, r.body, a.StatusCode, b)
	}
	return a.StatusCode < 300, nil
}

// work sends changes until there is no answer any more.
func (w *writer) work(base string, first func()) (answered int) {
	for w.fault == nil {
		r := w.pending
		if r == nil {
			r = w.next()
		}
		w.pending = r // until it is answered
		switch ok, err := w.send(base, r); {
		case err != nil:
			return answered
		case ok:
			r.done()
			w.pending = nil
			answered++
			first()
		default: // another time
			w.refused++
			time.Sleep(10 * time.Millisecond)
		}
	}
	return answered
}

// TestKill kills the server at random moments while every kind of thing is written, starts
// it anew, sends again what was not answered, and goes on: nothing that was answered is
// lost, nothing is there twice, and the file stays sound.
func TestKill(t *testing.T) {
	data := filepath.Join(t.TempDir(), "shop.db")
	writers := filledFor(t, data, 4)
	rng := rand.New(rand.NewSource(int64(*kills)))
	answered := 0
	for round := range *kills {
		p := started(t, data)
		var all sync.WaitGroup
		counts := make([]int, len(writers))
		answer := make(chan struct{})
		first := sync.OnceFunc(func() { close(answer) })
		for i := range writers {
			all.Go(func() {
				defer first() // a writer that met a fault holds nobody up
				counts[i] = writers[i].work(p.base, first)
			})
		}
		if round%2 == 0 { // else it may be killed before it answers anything
			<-answer
		}
		time.Sleep(time.Duration(20+rng.Intn(600)) * time.Millisecond)
		if err := p.cmd.Process.Kill(); err != nil {
			t.Fatal(err)
		}
		all.Wait()
		p.cmd.Wait() //nolint:errcheck // it was killed
		for i := range counts {
			answered += counts[i]
		}
		for i := range writers {
			if writers[i].fault != nil {
				t.Fatalf("round %d: %v", round, writers[i].fault)
			}
		}
	}
	found := settled(t, data, writers)
	t.Logf("killed %d times, %d changes answered; %d revisions, all sound", *kills, answered, found.Revisions)
	if answered < *kills/2 { // every other round waits for an answer, on however slow a machine
		t.Errorf("only %d changes were answered", answered)
	}
}

// settled sends what was not answered once more, and holds what is kept against what was
// answered.
func settled(t *testing.T, data string, writers []writer) store.Checked {
	t.Helper()
	ctx := t.Context()
	p := started(t, data)
	for i := range writers {
		w := &writers[i]
		for w.pending != nil {
			ok, err := w.send(p.base, w.pending)
			if err != nil || w.fault != nil {
				t.Fatal(err, w.fault)
			}
			if ok {
				w.pending.done()
				w.pending = nil
			}
		}
	}
	p.cmd.Process.Kill() //nolint:errcheck // it is over
	p.cmd.Wait()         //nolint:errcheck
	found, err := store.Check(ctx, data)
	if err != nil || !found.Sound() {
		t.Fatalf("%+v, %v", found, err)
	}
	s, err := store.Open(ctx, data)
	if err != nil {
		t.Fatal(err)
	}
	defer s.Close()
	for i := range writers {
		writers[i].holds(t, s)
	}
	return found
}

// filledFor is a shop in which each writer has a job and a sheet of its own.
func filledFor(t *testing.T, data string, n int) []writer {
	t.Helper()
	ctx := t.Context()
	s, err := store.Open(ctx, data)
	if err != nil {
		t.Fatal(err)
	}
	defer s.Close()
	if err := shop.Fill(ctx, s); err != nil {
		t.Fatal(err)
	}
	k, err := s.Job(ctx, "echo-sounding-tower")
	if err != nil {
		t.Fatal(err)
	}
	by := job.Stamp{By: "nobody", At: time.Now()}
	out := make([]writer, n)
	for i := range out {
		w := &out[i]
		*w = writer{name: fmt.Sprint("writer-", i+1), rng: rand.New(rand.NewSource(int64(i))), client: &http.Client{Timeout: 20 * time.Second, Transport: &http.Transport{}}, job: 1, sheet: 1}
		j := k.Job
		j.ID = job.ID(w.name)
		if _, err := s.Put(ctx, store.Write{Job: j, Done: fact.Of(job.TookIn), Stamp: by}); err != nil {
			t.Fatal(err)
		}
		w.doc = k.Job.Sheet
		w.doc.ID = machine.ID(w.name)
		if _, err := s.PutSheet(ctx, store.SheetWrite{Sheet: w.doc, Stamp: by}); err != nil {
			t.Fatal(err)
		}
	}
	return out
}

// holds compares what is kept with what was answered.
func (w *writer) holds(t *testing.T, s *store.Store) {
	t.Helper()
	ctx := t.Context()
	j, err := s.Job(ctx, job.ID(w.name))
	if err != nil || j.Revision != w.job {
		t.Errorf("%s: its job is at revision %d, %v; %d were answered", w.name, j.Revision, err, w.job)
	}
	if entries, err := s.Journal(ctx, job.ID(w.name), 0); err != nil || len(entries) != w.job {
		t.Errorf("%s: its journal has %d lines, %v; %d were answered", w.name, len(entries), err, w.job)
	}
	k, err := s.Sheet(ctx, w.doc.ID)
	if err != nil || k.Revision != w.sheet || k.Sheet.Source != w.doc.Source {
		t.Errorf("%s: its sheet is at revision %d, %q, %v; answered were %d, %q", w.name, k.Revision, k.Sheet.Source, err, w.sheet, w.doc.Source)
	}
	rows, err := s.Shelf(ctx)
	if err != nil {
		t.Fatal(err)
	}
	pieces := 0
	for _, r := range rows {
		if strings.HasPrefix(r.Part.Name, strings.TrimSuffix(partWords(w.name), " 2280")+" ") {
			pieces = r.Count
		}
	}
	if pieces != w.shelf {
		t.Errorf("%s: %d pieces are on the shelf, %d were answered", w.name, pieces, w.shelf)
	}
	list, err := s.Jobs(ctx, store.Page{})
	if err != nil {
		t.Fatal(err)
	}
	made := 0
	for _, k := range list.Stands {
		if strings.HasPrefix(string(k.ID), "made-by-"+w.name+"-") {
			made++
		}
	}
	if made != w.made {
		t.Errorf("%s: %d jobs were made, %d answered", w.name, made, w.made)
	}
}
