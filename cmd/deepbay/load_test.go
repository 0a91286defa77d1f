package main

import (
	"context"
	"flag"
	"fmt"
	"net/http"
	"os"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"sync"
	"testing"
	"time"

	"deepbay/internal/store"
)

// clients and lasting are how many ask the server in TestLoad, and how long; make soak asks
// for more.
var (
	clients = flag.Int("clients", 12, "clients in TestLoad")
	lasting = flag.Duration("lasting", 2*time.Second, "how long they ask")
	calm    = flag.Duration("calm", 0, "how long the server has then to give memory back")
)

// asked is how long the answers to one kind of request took, and how often there was none yet.
type asked struct {
	took []time.Duration
	busy int
}

func (a *asked) add(o *asked) {
	a.took, a.busy = append(a.took, o.took...), a.busy+o.busy
}

func (a *asked) String() string {
	if len(a.took) == 0 {
		return "none"
	}
	slices.Sort(a.took)
	at := func(q float64) time.Duration {
		return a.took[int(q*float64(len(a.took)-1))].Round(100 * time.Microsecond)
	}
	return fmt.Sprintf("%d, half within %v, 99 of 100 within %v, all within %v; %d told to come again", len(a.took), at(.5), at(.99), at(1), a.busy)
}

// TestLoad lets many clients read and change at once, each what is its own and lists of
// everything: nobody gets a fault, only, at times, word to come again; nothing is lost, and
// nothing is there twice. What it measures is printed and not judged.
func TestLoad(t *testing.T) {
	data := filepath.Join(t.TempDir(), "shop.db")
	writers := filledFor(t, data, *clients)
	p := started(t, data)
	defer func() {
		p.cmd.Process.Kill() //nolint:errcheck // it is over
		p.cmd.Wait()         //nolint:errcheck
	}()
	if a, err := http.Get(p.base + "/api/jobs"); err != nil || a.Body.Close() != nil { //nolint:noctx // a first list
		t.Fatal(err)
	}
	fresh := held(t, p.cmd.Process.Pid)
	ask := func(lasting time.Duration) (reads, changes asked, during, after holding) {
		ctx, cancel := context.WithTimeout(t.Context(), lasting)
		defer cancel()
		var mu sync.Mutex
		var all sync.WaitGroup
		for i := range writers {
			all.Go(func() {
				r, c := writers[i].live(ctx, p.base)
				mu.Lock()
				defer mu.Unlock()
				reads.add(&r)
				changes.add(&c)
			})
		}
		all.Wait()
		during = held(t, p.cmd.Process.Pid)
		time.Sleep(*calm)
		return reads, changes, during, held(t, p.cmd.Process.Pid)
	}
	_, _, _, before := ask(*lasting / 20) // what is kept to be quick is there
	reads, changes, during, after := ask(*lasting)
	t.Logf("%d clients, %v\nreads: %v\nchanges: %v\nmemory %d MB fresh, %d after a first burst, then %d, then %d MB; descriptors %d, %d, %d, %d", *clients, *lasting, &reads, &changes,
		fresh.megabytes, before.megabytes, during.megabytes, after.megabytes, fresh.files, before.files, during.files, after.files)
	s, err := store.Open(t.Context(), data)
	if err != nil {
		t.Fatal(err)
	}
	defer s.Close()
	for i := range writers {
		if w := &writers[i]; w.fault != nil {
			t.Error(w.fault)
		} else {
			w.holds(t, s)
		}
	}
	if len(changes.took) < *clients {
		t.Errorf("only %d changes were answered", len(changes.took))
	}
}

// live reads and changes until ctx ends; what is under way then is seen through.
func (w *writer) live(ctx context.Context, base string) (reads, changes asked) {
	paths := []string{"/api/jobs/" + w.name, "/api/jobs?q=" + w.name, "/api/shelf", "/api/jobs/" + w.name, "/api/sheets/" + w.name, "/api/health"}
	for w.fault == nil && ctx.Err() == nil {
		for range 3 {
			w.see(base, &request{"GET", paths[w.rng.Intn(len(paths))], "", func() {}}, &reads)
		}
		w.see(base, w.next(), &changes)
	}
	return reads, changes
}

// see sends a request until it is answered, as the interface does.
func (w *writer) see(base string, r *request, a *asked) {
	for w.fault == nil {
		start := time.Now()
		ok, err := w.send(base, r)
		if err != nil {
			w.fault = err
			return
		}
		if ok {
			a.took = append(a.took, time.Since(start))
			r.done()
			return
		}
		a.busy++
		time.Sleep(time.Second + time.Duration(w.rng.Intn(1000))*time.Millisecond)
	}
}

// holding is what a process holds.
type holding struct{ megabytes, files int }

func held(t *testing.T, pid int) holding {
	t.Helper()
	b, err := os.ReadFile(fmt.Sprintf("/proc/%d/status", pid))
	if err != nil {
		t.Skip("this system does not tell what a process holds")
	}
	_, rest, _ := strings.Cut(string(b), "VmRSS:")
	kilobytes, _ := strconv.Atoi(strings.Fields(rest)[0])
	files, err := os.ReadDir(fmt.Sprintf("/proc/%d/fd", pid))
	if err != nil {
		t.Fatal(err)
	}
	return holding{kilobytes >> 10, len(files)}
}
