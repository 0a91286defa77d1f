package store_test

import (
	"errors"
	"fmt"
	"math/rand"
	"slices"
	"strings"
	"testing"
	"time"

	"deepbay/demo/shop"
	"deepbay/internal/core/fact"
	"deepbay/internal/core/job"
	"deepbay/internal/core/logbook"
	"deepbay/internal/core/part"
	"deepbay/internal/core/shelf"
	"deepbay/internal/store"
)

// saysOf is what lines say in these tests: their values.
func saysOf(_ *job.Job, e store.Entry) string {
	if e.Deed == nil {
		return e.Says
	}
	return fmt.Sprint(e.Deed.Fact.Args...)
}

// all is every line that answers a query, page by page.
func all(t *testing.T, s *store.Store, q store.LogQuery) []store.LogLine {
	t.Helper()
	var out []store.LogLine
	for q.Most = 7; ; {
		p, err := s.Logged(t.Context(), q)
		if err != nil {
			t.Fatal(err)
		}
		out = append(out, p.Lines...)
		if p.Next == "" {
			return out
		}
		q.After = p.Next
	}
}

func names(list []store.LogLine) string {
	var out strings.Builder
	for _, l := range list {
		fmt.Fprintf(&out, "%s %s %d, ", l.Kind, l.Thing, l.Revision)
	}
	return out.String()
}

// TestLogged writes lines of all kinds, taken in now and then, and asks for them by words, by who,
// what, model and time, alone and together: what is found is what a look at every line finds, the
// latest first, in pages that leave nothing out. What leaves is no longer found.
func TestLogged(t *testing.T) {
	ctx := t.Context()
	s, path := open(t)
	if err := shop.Fill(ctx, s); err != nil {
		t.Fatal(err)
	}
	rng := rand.New(rand.NewSource(1))
	base := tower(t)
	hands := []string{"Oda Finch", "Nils Brandt", "O.F."}
	says := []string{"the gasket of the cover", "dropped M3x5 by the fan", "serial DB-4711-22", "GASKET replaced"}
	words := []string{"gasket", "m3x5", "DB471122", "4711", "fan drop", "ga", "tower gasket", "echo", "nothing like it", "-"}
	for n := range 60 {
		j := base
		j.ID, j.Title = job.ID(fmt.Sprint("log-", n%7)), fmt.Sprint("Tower ", n%7)
		by := job.Stamp{By: hands[rng.Intn(3)], At: time.Date(2026, 1, 1+rng.Intn(300), 12, 0, rng.Intn(2), 0, time.UTC)} // many at the same time
		if n >= 50 {
			now := time.Date(2026, 11, 1, 12, 0, 0, 0, time.UTC)
			j.Closed = &job.Closing{By: "x", At: now}
		}
		if _, err := s.Put(ctx, store.Write{Job: j, From: n / 7, Done: fact.Of(job.SaidThen, fact.Typed(says[rng.Intn(4)])), Stamp: by}); err != nil {
			t.Fatal(err)
		}
		if rng.Intn(8) == 0 {
			if _, err := s.CatchUp(ctx, saysOf, 1+rng.Intn(10)); err != nil {
				t.Fatal(err)
			}
		}
	}
	if left, err := s.CatchUp(ctx, saysOf, 1e6); err != nil || left != 0 {
		t.Fatalf("%d left, %v", left, err)
	}
	whole := all(t, s, store.LogQuery{})
	if len(whole) < 60+20 {
		t.Fatalf("%d lines", len(whole))
	}
	if !slices.IsSortedFunc(whole, func(a, b store.LogLine) int { return b.At.Compare(a.At) }) {
		t.Error("they are not told the latest first")
	}
	jobs := map[string]job.Job{}
	for _, l := range whole {
		if _, read := jobs[l.Thing]; l.Kind != store.OfJob || read {
			continue
		}
		k, err := s.Job(ctx, job.ID(l.Thing))
		if err != nil {
			t.Fatal(err)
		}
		jobs[l.Thing] = k.Job
	}
	has := func(l store.LogLine, q store.LogQuery) bool {
		printed := ""
		if j, is := jobs[l.Thing]; is && l.Kind == store.OfJob {
			if printed = j.Tag + " " + j.Owner; q.Model != "" && j.Sheet.ID != q.Model {
				return false
			}
		} else if q.Model != "" && (l.Kind != store.OfSheet || l.Thing != string(q.Model)) {
			return false
		}
		text := saysOf(nil, l.Entry) + " " + l.Called + " " + printed
		for _, w := range strings.Fields(q.Words) {
			w = fact.Fold(w)
			begins := func(f string) bool {
				return strings.HasPrefix(fact.Fold(f), w) || slices.ContainsFunc(strings.FieldsFunc(f, func(r rune) bool { return !strings.ContainsRune(w, r) && fact.Fold(string(r)) == "" }), func(p string) bool { return strings.HasPrefix(fact.Fold(p), w) })
			}
			if w != "" && !slices.ContainsFunc(strings.Fields(text), begins) {
				return false
			}
		}
		return (q.Who == "" || fact.Fold(q.Who) == fact.Fold(l.By)) && (q.Kind == "" || q.Kind == l.Kind) && (q.Thing == "" || q.Thing == l.Thing) &&
			!l.At.Before(q.From) && (q.To.IsZero() || l.At.Before(q.To))
	}
	one := func(of ...string) string { return of[rng.Intn(len(of))] }
	met := 0
	for n := range 400 {
		if n == 200 { // from now on most beginnings are had by too many words
			defer store.Look(1, 13)()
		}
		var q store.LogQuery
		if rng.Intn(2) == 0 {
			q.Words = one(words...)
		}
		if rng.Intn(3) == 0 {
			q.Who = one(hands...)
		}
		if rng.Intn(3) == 0 {
			q.Kind = store.LogKind(one(store.LogKind("").Values()...))
		}
		if rng.Intn(5) == 0 {
			q.Kind, q.Thing = store.OfJob, one("log-1", "log-2", "weather-mast-logger")
		}
		if rng.Intn(5) == 0 {
			q.Model = base.Sheet.ID
		}
		if rng.Intn(3) == 0 {
			q.From = time.Date(2026, 1, 1+rng.Intn(300), 0, 0, 0, 0, time.UTC)
		}
		if rng.Intn(3) == 0 {
			q.To = time.Date(2026, 1, 1+rng.Intn(300), 0, 0, 0, 0, time.UTC)
		}
		var want []store.LogLine
		for _, l := range whole {
			if has(l, q) {
				want = append(want, l)
			}
		}
		got := all(t, s, q)
		met += len(got)
		if names(got) != names(want) {
			t.Fatalf("%+v finds %d lines, and %d are there", q, len(got), len(want))
		}
	}
	if met < 1000 {
		t.Errorf("%d lines were found in all", met)
	}
	gone, err := s.OfOwner(ctx, base.Owner)
	if err != nil {
		t.Fatal(err)
	}
	gone = slices.DeleteFunc(gone, func(k store.Owned) bool { return k.Open })
	if err := s.Remove(ctx, gone, store.Deleted, stamp, store.Request{}); err != nil || len(gone) == 0 {
		t.Fatal(len(gone), err)
	}
	for _, k := range gone {
		if left := all(t, s, store.LogQuery{Kind: store.OfJob, Thing: string(k.ID)}); len(left) > 0 {
			t.Errorf("of %s there is %v", k.ID, left)
		}
	}
	rows, err := s.DB().QueryContext(ctx, `SELECT word FROM logwords WHERE word NOT IN (SELECT value FROM logged, json_each('["' || replace(words, ' ', '","') || '"]'))`)
	if err != nil {
		t.Fatal(err)
	}
	defer rows.Close()
	for rows.Next() {
		var word string
		if err := rows.Scan(&word); err != nil {
			t.Fatal(err)
		}
		t.Errorf("%q is kept, and no line says it", word)
	}
	if c, err := store.Check(ctx, path); err != nil || !c.Sound() {
		t.Errorf("%+v, %v", c, err)
	}
	if _, err := s.Logged(ctx, store.LogQuery{After: "yesterday", Most: 5}); !errors.Is(err, store.ErrLogPlace) {
		t.Errorf("%v", err)
	}
}

// TestFigures closes, opens, changes and removes jobs in any order: the sums are always those of
// the jobs that are finished.
func TestFigures(t *testing.T) {
	ctx := t.Context()
	s, _ := open(t)
	rng := rand.New(rand.NewSource(2))
	base := tower(t)
	revision := map[int]int{}
	for range 120 {
		n := rng.Intn(8)
		j := base
		j.ID, j.Owner, j.Incidents = job.ID(fmt.Sprint("job-", n)), fmt.Sprint("owner ", n), nil
		for i := range rng.Intn(3) {
			j.Incidents = append(j.Incidents, job.Incident{ID: i + 1, Kind: job.Dropped})
		}
		if rng.Intn(2) == 0 {
			j.Closed = &job.Closing{By: "x", At: time.Date(2026, time.Month(1+rng.Intn(3)), 5, 0, 0, 0, 0, time.UTC)}
		}
		if _, err := s.Put(ctx, store.Write{Job: j, From: revision[n], Done: fact.Of(job.ClosedJob), Stamp: stamp}); err != nil {
			t.Fatal(err)
		}
		revision[n]++
		if j.Closed != nil && rng.Intn(5) == 0 {
			k, err := s.OfOwner(ctx, j.Owner)
			if err != nil || s.Remove(ctx, k, store.Deleted, stamp, store.Request{}) != nil {
				t.Fatal(err)
			}
			revision[n] = 0
		}
		if _, err := s.CatchUp(ctx, saysOf, 1e6); err != nil {
			t.Fatal(err)
		}
		want := map[string]int{}
		for n, r := range revision {
			if r == 0 {
				continue
			}
			k, err := s.Job(ctx, job.ID(fmt.Sprint("job-", n)))
			if err != nil {
				t.Fatal(err)
			}
			for _, f := range logbook.Figures(&k.Job) {
				want[fmt.Sprint(logbook.MonthOf(k.Job.Closed.At), f.Of, f.Name)] += f.N
			}
		}
		list, err := s.Figures(ctx, "2026-01", "2026-12")
		if err != nil {
			t.Fatal(err)
		}
		got := map[string]int{}
		for _, m := range list {
			got[fmt.Sprint(m.Month, m.Of, m.Name)] += m.N
		}
		if fmt.Sprint(got) != fmt.Sprint(want) {
			t.Fatalf("%v, want %v", got, want)
		}
	}
}

// TestCarrying finds jobs by what is printed, whole, in any spelling.
func TestCarrying(t *testing.T) {
	ctx := t.Context()
	s, _ := open(t)
	if err := s.ChangeStock(ctx, store.StockWrite{Stamp: stamp}, func(store.OnShelf) ([]shelf.Stock, error) {
		return []shelf.Stock{{Part: part.Part{ID: "x", Name: "x"}, Serials: []string{"DB-77-1"}, Count: 1}}, nil
	}); err != nil {
		t.Fatal(err)
	}
	for n, serial := range []string{"DB-77-1", "db 77 1", "DB-77-12", "Z"} {
		j := tower(t)
		j.ID, j.Tag = job.ID(fmt.Sprint("job-", n)), fmt.Sprint("T-", n)
		j.Items = slices.Clone(j.Items)
		j.Items[0].Serial = serial
		put(t, s, j, 0, "")
	}
	for printed, want := range map[string]string{"db77.1": "job-1 job-0", "DB-77-12": "job-2", "z": "job-3", "t-2": "job-2", "": "", "DB": ""} {
		list, err := s.Carrying(ctx, printed)
		var got []string
		for i := range list {
			got = append(got, string(list[i].ID))
		}
		if err != nil || strings.Join(got, " ") != want {
			t.Errorf("%q: %v, want %s, %v", printed, got, want, err)
		}
	}
}
