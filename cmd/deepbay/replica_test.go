package main

import (
	"encoding/json"
	"flag"
	"fmt"
	"math/rand"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"sync"
	"testing"
	"time"

	"deepbay/internal/store"
)

// engine is the program that replicates; `make replica-drill` builds it and names it here.
var (
	engine = flag.String("engine", "", "the program of TestReplicaDrill")
	drills = flag.Int("drills", 3, "rounds of TestReplicaDrill")
)

// statedLag is how old what the second machine lacks may be, as docs/replica.md says.
const statedLag = 3 * time.Second

// TestReplicaDrill streams a data file to a second folder as replica/litestream.yml says,
// while four write; kills the server and the engine at a random moment, as a machine dies;
// brings the second machine up from what is there; and compares every document of both. The
// second has all that was answered longer ago than the stated lag, nothing that the first
// had not, is sound, and takes changes.
func TestReplicaDrill(t *testing.T) {
	if *engine == "" {
		t.Skip("run it by make replica-drill, which builds the engine")
	}
	for round := range *drills {
		rng := rand.New(rand.NewSource(time.Now().UnixNano()))
		dir := t.TempDir()
		first, second := filepath.Join(dir, "first.db"), filepath.Join(dir, "second.db")
		writers := filledFor(t, first, 4)
		p := started(t, first)
		run := func(args ...string) *exec.Cmd {
			c := exec.CommandContext(t.Context(), *engine, args...)
			c.Env = append(os.Environ(), "DEEPBAY_DATA="+first, "DEEPBAY_REPLICA="+filepath.Join(dir, "replica"))
			c.Stdout, c.Stderr = os.Stderr, os.Stderr
			return c
		}
		config := filepath.Join("..", "..", "replica", "litestream.yml")
		streaming := run("replicate", "-config", config)
		if err := streaming.Start(); err != nil {
			t.Fatal(err)
		}
		var mu sync.Mutex
		answers := map[string][]time.Time{} // of each writer's job, by revision: 2 first
		var all sync.WaitGroup
		for i := range writers {
			w := &writers[i]
			all.Go(func() {
				was := w.job
				w.work(p.base, func() {
					mu.Lock()
					defer mu.Unlock()
					if w.job > was {
						was, answers[w.name] = w.job, append(answers[w.name], time.Now())
					}
				})
			})
		}
		time.Sleep(6*time.Second + time.Duration(rng.Intn(3000))*time.Millisecond)
		killed := time.Now()
		streaming.Process.Kill() //nolint:errcheck // it is what is tried
		p.cmd.Process.Kill()     //nolint:errcheck // it is what is tried
		all.Wait()
		streaming.Wait() //nolint:errcheck // it was killed
		p.cmd.Wait()     //nolint:errcheck // it was killed
		for i := range writers {
			if writers[i].fault != nil {
				t.Fatal(writers[i].fault)
			}
		}
		began := time.Now()
		if err := run("restore", "-config", config, "-o", second, first).Run(); err != nil {
			t.Fatalf("round %d: nothing comes back: %v", round, err)
		}
		took := time.Since(began)
		changes := 0
		for _, times := range answers {
			changes += len(times)
		}
		documents, lacking, lag := sameAs(t, first, second, answers, killed)
		t.Logf("round %d: %d documents and revisions are the same; %d revisions are lacking, the oldest answered %v before the end; back in %v; %d changes of jobs, the data takes %d kB and the replica %d kB", round, documents, lacking,
			lag.Round(time.Millisecond), took.Round(time.Millisecond), changes, size(t, first), size(t, filepath.Join(dir, "replica")))
		if lag > statedLag {
			t.Errorf("round %d: what was answered %v before the end is lacking", round, lag)
		}
		q := started(t, second) // which goes on
		w := writer{client: writers[0].client}
		if ok, err := w.send(q.base, &request{"POST", "/api/jobs", `{"title":"Made on the second machine","sheet":"gannet-d1","wish":{}}`, nil}); !ok || err != nil {
			t.Errorf("round %d: the second machine takes nothing: %v %v", round, err, w.fault)
		}
		q.cmd.Process.Kill() //nolint:errcheck // it is over
		q.cmd.Wait()         //nolint:errcheck
	}
}

// size is how many kB a file, or all of a folder, takes.
func size(t *testing.T, path string) (kilobytes int64) {
	t.Helper()
	err := filepath.WalkDir(path, func(_ string, d os.DirEntry, err error) error {
		if err != nil || d.IsDir() {
			return err
		}
		info, err := d.Info()
		kilobytes += info.Size() >> 10
		return err
	})
	if err != nil {
		t.Fatal(err)
	}
	return kilobytes
}

// sameAs holds every document and journal of the second file against the first. What it
// lacks are the last revisions alone; how long before the end the oldest of those was
// answered is the lag.
func sameAs(t *testing.T, first, second string, answers map[string][]time.Time, killed time.Time) (documents, lacking int, lag time.Duration) {
	t.Helper()
	if found, err := store.Check(t.Context(), second); err != nil || !found.Sound() {
		t.Fatalf("what came back is not sound: %+v, %v", found, err)
	}
	have, want := content(t, second), content(t, first)
	for what, doc := range have {
		if want[what] != doc {
			t.Errorf("the second machine has another %s, or the first has none", what)
		}
		documents++
	}
	for what := range want {
		if _, ok := have[what]; ok {
			continue
		}
		lacking++
		var id string
		var revision int
		at, _ := strings.CutPrefix(what, "job ")
		if n, _ := fmt.Sscanf(at, "%s at %d", &id, &revision); n != 2 || len(answers[id]) < revision-1 || revision < 2 {
			continue // of sheets, shelf and new jobs, and of what was not answered, nobody knows when
		}
		lag = max(lag, killed.Sub(answers[id][revision-2]))
	}
	for id, times := range answers {
		if len(times) == 0 {
			t.Errorf("%s wrote nothing", id)
		}
	}
	return documents, lacking, lag
}

// content is every revision of every document.
func content(t *testing.T, path string) map[string]string {
	t.Helper()
	ctx := t.Context()
	s, err := store.Open(ctx, path)
	if err != nil {
		t.Fatal(err)
	}
	defer s.Close()
	out := map[string]string{}
	keep := func(what string, v any, err error) {
		b, jerr := json.Marshal(v)
		if err != nil || jerr != nil {
			t.Fatal(what, err, jerr)
		}
		out[what] = string(b)
	}
	list, err := s.Jobs(ctx, store.Page{})
	if err != nil {
		t.Fatal(err)
	}
	for _, k := range list.Stands {
		for n := 1; n <= k.Revision; n++ {
			j, err := s.At(ctx, k.ID, n)
			keep(fmt.Sprintf("job %s at %d", k.ID, n), j, err)
		}
		entries, err := s.Journal(ctx, k.ID, 0)
		for _, e := range entries {
			keep(fmt.Sprintf("entry %d of job %s", e.Revision, k.ID), e, err)
		}
	}
	sheets, err := s.Sheets(ctx)
	if err != nil {
		t.Fatal(err)
	}
	for _, k := range sheets {
		now, err := s.Sheet(ctx, k.ID)
		if err != nil {
			t.Fatal(err)
		}
		for n := 1; n <= now.Revision; n++ {
			at, err := s.SheetAt(ctx, k.ID, n)
			keep(fmt.Sprintf("sheet %s at %d", k.ID, n), at, err)
		}
	}
	rows, err := s.Shelf(ctx)
	if err != nil {
		t.Fatal(err)
	}
	for _, k := range rows {
		for n := 1; n <= k.Revision; n++ {
			at, err := s.StockAt(ctx, k.Part.ID, n)
			keep(fmt.Sprintf("part %s at %d", k.Part.ID, n), at, err)
		}
	}
	return out
}
