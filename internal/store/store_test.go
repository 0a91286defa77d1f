package store_test

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"

	"deepbay/demo"
	"deepbay/demo/shop"
	"deepbay/internal/core/fact"
	"deepbay/internal/core/job"
	"deepbay/internal/core/shelf"
	"deepbay/internal/store"
)

var stamp = job.Stamp{By: "Oda Finch", At: time.Date(2026, 11, 25, 10, 0, 0, 0, time.UTC)}

func open(t *testing.T) (*store.Store, string) {
	t.Helper()
	path := filepath.Join(t.TempDir(), "shop 1.db") // a blank, as folders have
	s, err := store.Open(t.Context(), path)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { s.Close() })
	return s, path
}

func tower(t *testing.T) job.Job {
	t.Helper()
	j, err := demo.Job("echo-sounding-tower")
	if err != nil {
		t.Fatal(err)
	}
	return j
}

func put(t *testing.T, s *store.Store, j job.Job, from int, key string) int {
	t.Helper()
	n, err := s.Put(t.Context(), store.Write{Job: j, From: from, Done: fact.Of(job.SaidThen, fact.Typed(fmt.Sprint("from ", from))), Stamp: stamp, Request: store.Request{Key: key}})
	if err != nil {
		t.Fatal(err)
	}
	return n
}

// The settings that the promises rest on hold on every connection.
func TestPragmas(t *testing.T) {
	s, _ := open(t)
	ctx := t.Context()
	holds := func(c interface {
		QueryRowContext(context.Context, string, ...any) *sql.Row
	}, pragmas map[string]string) {
		t.Helper()
		for pragma, want := range pragmas {
			var got string
			if err := c.QueryRowContext(ctx, "PRAGMA "+pragma).Scan(&got); err != nil || got != want {
				t.Errorf("%s = %s, %v; want %s", pragma, got, err, want)
			}
		}
	}
	holds(s.DB(), map[string]string{"foreign_keys": "1", "journal_mode": "wal", "busy_timeout": "5000", "synchronous": "2", "query_only": "0"})
	for range 3 {
		c, err := s.Readers().Conn(ctx)
		if err != nil {
			t.Fatal(err)
		}
		defer c.Close()
		holds(c, map[string]string{"journal_mode": "wal", "busy_timeout": "5000", "query_only": "1"})
	}
}

// A job is kept, revised, and read again from the file after it was closed.
func TestKeep(t *testing.T) {
	s, path := open(t)
	ctx := t.Context()
	j := tower(t)
	if n := put(t, s, j, 0, ""); n != 1 {
		t.Fatalf("revision %d, want 1", n)
	}
	j.Title = "Renamed"
	if n := put(t, s, j, 1, ""); n != 2 {
		t.Fatalf("revision %d, want 2", n)
	}
	if err := s.Close(); err != nil {
		t.Fatal(err)
	}
	s, err := store.Open(ctx, path)
	if err != nil {
		t.Fatal(err)
	}
	defer s.Close()
	k, err := s.Job(ctx, j.ID)
	if err != nil || k.Job.Title != "Renamed" || k.Revision != 2 || !k.Updated.Equal(stamp.At) {
		t.Fatalf("%v %d %v, %v", k.Job.Title, k.Revision, k.Updated, err)
	}
	entries, err := s.Journal(ctx, j.ID, 0)
	if err != nil || len(entries) != 2 || entries[1].Deed.Fact.Args[0] != fact.Typed("from 1") || entries[1].By != "Oda Finch" {
		t.Errorf("journal %+v, %v", entries, err)
	}
	if first, err := s.At(ctx, j.ID, 1); err != nil || first.Title != "Echo-sounding tower" {
		t.Errorf("revision 1 is %q, %v", first.Title, err)
	}
}

// What is refused changes nothing.
func TestRefused(t *testing.T) {
	s, _ := open(t)
	ctx := t.Context()
	j := tower(t)
	put(t, s, j, 0, "")
	put(t, s, j, 1, "")
	for _, c := range []struct {
		name string
		w    store.Write
		want string
	}{
		{"stale", store.Write{Job: j, From: 1}, `job "echo-sounding-tower": the job is at revision 2, and the change was made at revision 1`},
		{"from the future", store.Write{Job: j, From: 7}, `job "echo-sounding-tower": the job is at revision 2, and the change was made at revision 7`},
		{"name in use", store.Write{Job: j}, `job "echo-sounding-tower": a job of this name is on the bench already`},
		{"no such job", store.Write{Job: job.Job{ID: "x"}, From: 1}, `job "x": not found`},
	} {
		_, err := s.Put(ctx, c.w)
		if err == nil || err.Error() != c.want {
			t.Errorf("%s: %v, want %s", c.name, err, c.want)
		}
	}
	var conflict *store.Conflict
	if _, err := s.Put(ctx, store.Write{Job: j, From: 1}); !errors.As(err, &conflict) || conflict.Current != 2 {
		t.Errorf("a stale write is %v", err)
	}
	if e, _ := s.Journal(ctx, j.ID, 0); len(e) != 2 {
		t.Errorf("%d entries, want 2", len(e))
	}
	for name, f := range map[string]func() error{
		"job":      func() error { _, err := s.Job(ctx, "x"); return err },
		"sheet":    func() error { _, err := s.Sheet(ctx, "x"); return err },
		"revision": func() error { _, err := s.At(ctx, j.ID, 9); return err },
	} {
		if err := f(); !errors.Is(err, store.ErrNotFound) {
			t.Errorf("a missing %s is %v", name, err)
		}
	}
}

// The same request twice is carried out once, whatever happened in between; its key with
// anything else is refused, whatever it is about, and is free again after a month.
func TestSameRequest(t *testing.T) {
	s, _ := open(t)
	ctx := t.Context()
	j := tower(t)
	r := store.Request{Key: "k", Asked: "this"}
	write := func(j job.Job, from int, r store.Request, at time.Time) (int, error) {
		return s.Put(ctx, store.Write{Job: j, From: from, Done: fact.Of(job.TookIn), Stamp: job.Stamp{By: "Oda Finch", At: at}, Request: r})
	}
	if n, err := write(j, 0, r, stamp.At); n != 1 || err != nil {
		t.Fatalf("revision %d, %v", n, err)
	}
	put(t, s, j, 1, "")
	other := j
	other.ID = "other"
	sheet := store.SheetWrite{Sheet: j.Sheet, Stamp: stamp}
	var before *store.Applied
	for name, f := range map[string]func(store.Request) error{
		"again":      func(r store.Request) error { _, err := write(j, 0, r, stamp.At); return err },
		"of another": func(r store.Request) error { _, err := write(other, 0, r, stamp.At); return err },
		"of a sheet": func(r store.Request) error { sheet.Request = r; _, err := s.PutSheet(ctx, sheet); return err },
		"of stock": func(r store.Request) error {
			return s.ChangeStock(ctx, store.StockWrite{Stamp: stamp, Request: r}, func(store.OnShelf) ([]shelf.Stock, error) { return nil, nil })
		},
		"asked for": func(r store.Request) error { return s.Applied(ctx, r) },
	} {
		if err := f(r); !errors.As(err, &before) || before.Thing != string(j.ID) || before.Revision != 1 {
			t.Errorf("%s: %v", name, err)
		}
		if err := f(store.Request{Key: "k", Asked: "that"}); !errors.Is(err, store.ErrKeyUsed) {
			t.Errorf("%s, asking for something else: %v", name, err)
		}
	}
	if err := s.Applied(ctx, store.Request{}); err != nil {
		t.Errorf("a request without a name is taken for one: %v", err)
	}
	if k, err := s.Job(ctx, j.ID); err != nil || k.Revision != 2 {
		t.Errorf("revision %d, %v", k.Revision, err)
	}
	if _, err := write(other, 0, store.Request{Key: "later", Asked: "x"}, stamp.At.Add(store.KeysAreKept+time.Hour)); err != nil {
		t.Fatal(err)
	}
	if err := s.Applied(ctx, r); err != nil {
		t.Errorf("after a month the key is %v", err)
	}
}

// Of many writers at one revision exactly one wins, and the rest are told.
func TestRace(t *testing.T) {
	s, _ := open(t)
	j := tower(t)
	put(t, s, j, 0, "")
	const writers = 8
	errs := make([]error, writers)
	var wg sync.WaitGroup
	for i := range writers {
		wg.Go(func() {
			_, errs[i] = s.Put(t.Context(), store.Write{Job: j, From: 1, Done: fact.Of(job.SaidThen, fact.Typed(fmt.Sprint(i))), Stamp: stamp})
		})
	}
	wg.Wait()
	won := 0
	for _, err := range errs {
		var c *store.Conflict
		switch {
		case err == nil:
			won++
		case !errors.As(err, &c):
			t.Errorf("neither won nor conflict: %v", err)
		}
	}
	if won != 1 {
		t.Errorf("%d writers won", won)
	}
}

// The journal is append-only, also for somebody with SQL.
func TestJournalStays(t *testing.T) {
	s, _ := open(t)
	put(t, s, tower(t), 0, "")
	for _, q := range []string{"UPDATE journal SET by = 'nobody'", "DELETE FROM journal", "DELETE FROM jobs"} {
		if _, err := s.DB().ExecContext(t.Context(), q); err == nil {
			t.Errorf("%s went through", q)
		}
	}
}

// ids are those of a page.
func ids(l store.Listed) string {
	out := make([]string, len(l.Stands))
	for i, k := range l.Stands {
		out[i] = string(k.ID)
	}
	return strings.Join(out, " ")
}

// A job is found by anything printed on its parts, in any spelling, and by all of several
// words.
func TestSearch(t *testing.T) {
	s, _ := open(t)
	j := tower(t)
	put(t, s, j, 0, "")
	closed := j
	closed.ID, closed.Title, closed.Items, closed.Closed = "other", "Lock-keeper's thin client", nil, &job.Closing{By: "x", At: stamp.At}
	put(t, s, closed, 0, "")
	for query, want := range map[string]string{
		"":                    "echo-sounding-tower other",
		"TLN4-5A0C77":         "echo-sounding-tower",
		"tln4 5a0c77":         "echo-sounding-tower",
		"ml7.0093318":         "echo-sounding-tower",
		"SL16U32-162R8":       "echo-sounding-tower other", // a part number both carry
		"lock keeper":         "other",
		"client keeper":       "other",
		"client 5a0c77":       "",
		"keeper t4":           "other", // a word too short for the index
		"keeper zz":           "",
		"t4":                  "echo-sounding-tower other",
		"zq":                  "",
		"HS-0417":             "echo-sounding-tower other",
		"%":                   "echo-sounding-tower other", // no letter or digit: everything
		"open":                "",                          // how the index is kept is no word of it
		"stage : \"OPEN\" OR": "",
		"no such thing 42":    "",
	} {
		found, err := s.Jobs(t.Context(), store.Page{Query: query})
		if err != nil {
			t.Fatalf("%q: %v", query, err)
		}
		if got := ids(found); got != want || found.Open+found.Closed != len(found.Stands) || found.Short {
			t.Errorf("%q finds %q, want %q: %+v", query, got, want, found)
		}
	}
	// What a job is found by follows its changes, and what it says is no longer found.
	closed.Closed, closed.Title = nil, "Quay recorder"
	put(t, s, closed, 1, "")
	for query, want := range map[string]string{"lock keeper": "", "quay": "other", "qu": "other"} {
		if found, err := s.Jobs(t.Context(), store.Page{Query: query}); err != nil || ids(found) != want || found.Open != len(found.Stands) {
			t.Errorf("changed, %q finds %+v, %v", query, found, err)
		}
	}
}

// TestPages walks lists of many jobs a page at a time, while jobs change: what did not
// change is there once, in the order of the whole list, and what is said of how many there
// are is true. A search for what very many carry says that there are more.
func TestPages(t *testing.T) {
	s, path := open(t)
	put(t, s, tower(t), 0, "")
	if err := s.Close(); err != nil {
		t.Fatal(err)
	}
	const many = 2 * store.MostFound
	execute(t, path, "PRAGMA foreign_keys = 0", fmt.Sprintf(`WITH RECURSIVE n (i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n WHERE i < %d)
		INSERT INTO jobs (id, revision, open, updated, doc, sum) SELECT printf('j-%%05d', i), 1, i %% 3 = 0, printf('2026-03-%%02dT00:00:00Z', 1 + i * 7 %% 28), doc, sum FROM n, jobs WHERE id = 'echo-sounding-tower'`, many),
		`INSERT INTO marked (job, stage, marks) SELECT id, CASE open WHEN 1 THEN 'OPEN' ELSE 'CLOSED' END, 'SEVENTH' || CASE WHEN n % 7 THEN '' ELSE 'X' END || id FROM (SELECT substr(id, 3) AS n, * FROM jobs WHERE id LIKE 'j-%')`)
	s, err := store.Open(t.Context(), path)
	if err != nil {
		t.Fatal(err)
	}
	defer s.Close()
	for _, query := range []string{"", "SEVENTH", "seventh x", "tower"} {
		whole, err := s.Jobs(t.Context(), store.Page{Query: query})
		if err != nil {
			t.Fatal(err)
		}
		if n := len(whole.Stands); n != whole.Open+whole.Closed || whole.Short != (query == "SEVENTH") {
			t.Errorf("%q: %d jobs, said to be %d open and %d closed, short %v", query, n, whole.Open, whole.Closed, whole.Short)
		}
		var walked store.Listed
		for after := ""; ; {
			page, err := s.Jobs(t.Context(), store.Page{Query: query, After: after, Most: 37})
			if err != nil {
				t.Fatal(err)
			}
			if page.Open != whole.Open || page.Closed != whole.Closed || len(page.Stands) > 37 {
				t.Fatalf("%q: a page of %d says %d open, %d closed", query, len(page.Stands), page.Open, page.Closed)
			}
			walked.Stands = append(walked.Stands, page.Stands...)
			if after = page.Next; after == "" {
				break
			}
		}
		if ids(walked) != ids(whole) {
			t.Errorf("%q walked is not what it is whole", query)
		}
	}
	first, err := s.Jobs(t.Context(), store.Page{Most: 10})
	if err != nil {
		t.Fatal(err)
	}
	execute(t, path, `UPDATE jobs SET updated = '2026-04-01T00:00:00Z', seal = NULL WHERE id IN ('j-00003', 'j-00006')`) // they go to the front
	rest, err := s.Jobs(t.Context(), store.Page{After: first.Next})
	if err != nil {
		t.Fatal(err)
	}
	seen := map[string]int{}
	for _, id := range strings.Fields(ids(first) + " " + ids(rest)) {
		seen[id]++
	}
	for i := 1; i <= many; i++ {
		if id := fmt.Sprintf("j-%05d", i); seen[id] != 1 && id != "j-00003" && id != "j-00006" {
			t.Errorf("%s is listed %d times", id, seen[id])
		}
	}
	for _, after := range []string{"x", "2 a b", "1 a"} {
		if _, err := s.Jobs(t.Context(), store.Page{After: after}); !errors.Is(err, store.ErrPlace) {
			t.Errorf("after %q: %v", after, err)
		}
	}
}

// A file that cannot be used says which and why, and is left as it was.
func TestOpenRefuses(t *testing.T) {
	dir := t.TempDir()
	write := func(name, text string, mode os.FileMode) string {
		path := filepath.Join(dir, name)
		if err := os.WriteFile(path, []byte(text), mode); err != nil {
			t.Fatal(err)
		}
		return path
	}
	for _, c := range []struct{ path, want string }{
		{"", "no data file was named: say which with --data FILE"},
		{write("readonly.db", "SQLite", 0o444), "is read-only: change its permissions or name another with --data FILE; nothing was changed"},
		{dir, "is a folder"},
		{filepath.Join(dir, "no", "such.db"), "does not exist: make it or name another file"},
		{write("letter.txt", strings.Repeat("Dear harbour master, ", 200), 0o644), "is no Deep Bay data file: name another"},
	} {
		before, _ := os.ReadFile(c.path)
		s, err := store.Open(t.Context(), c.path)
		if err == nil {
			s.Close()
		}
		if err == nil || !strings.Contains(err.Error(), c.want) {
			t.Errorf("%q: %v, want %q", c.path, err, c.want)
		}
		if after, _ := os.ReadFile(c.path); string(after) != string(before) {
			t.Errorf("%q was changed", c.path)
		}
	}
}

func TestShelf(t *testing.T) {
	s, _ := open(t)
	ctx := t.Context()
	if err := shop.Fill(ctx, s); err != nil {
		t.Fatal(err)
	}
	sheets, err := s.Sheets(ctx)
	if err != nil || len(sheets) != 11 || sheets[0].Name != "Avocet E1 entry desktop" {
		t.Errorf("%d sheets, %v", len(sheets), err)
	}
	parts, err := s.Parts(ctx)
	if err != nil || len(parts) != 32 {
		t.Errorf("%d parts, %v", len(parts), err)
	}
	stock, err := s.Shelf(ctx)
	if err != nil || len(stock) != 32 || stock[1].Count != 5 {
		t.Errorf("%d on the shelf, %v", len(stock), err)
	}
	stock[0].Count, stock[0].Price = 7, 4250
	bad := stock[1]
	bad.Count = -1
	keep := func(entries ...shelf.Stock) error {
		return s.ChangeStock(ctx, store.StockWrite{Stamp: stamp}, func(store.OnShelf) ([]shelf.Stock, error) { return entries, nil })
	}
	if err := keep(stock[0].Stock, bad.Stock); err == nil {
		t.Error("a negative count was kept")
	}
	if again, _ := s.Shelf(ctx); again[0].Count == 7 {
		t.Error("of two entries one was kept, though the other was refused")
	}
	if err := keep(stock[0].Stock); err != nil {
		t.Fatal(err)
	}
	if again, _ := s.Shelf(ctx); again[0].Count != 7 || again[0].Price != 4250 {
		t.Errorf("kept as %+v", again[0])
	}
	parts[0].Name = "Zenith"
	if err := s.PutPart(ctx, parts[0], stamp); err != nil {
		t.Fatal(err)
	}
	if err := keep(stock[0].Stock, stock[0].Stock); err != nil { // the part as it was, and then what does not differ
		t.Fatal(err)
	}
	if err := s.PutPart(ctx, parts[0], stamp); err != nil {
		t.Fatal(err)
	}
	if again, _ := s.Parts(ctx); len(again) != 32 || again[31].Name != "Zenith" {
		t.Error("a part of the same name is not replaced")
	}
	var said []string
	history, err := s.ShelfHistory(ctx, parts[0].ID)
	for _, e := range history {
		said = append(said, fmt.Sprint(e.Revision, " ", e.By, " ", e.Deed.Fact))
	}
	want := []string{
		"1 the demo shop shelf/listed",
		"2 the demo shop shelf/changed [shelf/count-up 3 3 shelf/price-is 4.20 shelf/condition-is new]",
		"3 Oda Finch shelf/changed [shelf/count-up 4 7 shelf/price-is 42.50]",
		"4 Oda Finch shelf/changed [shelf/described-as [machine/field-from-to name 4-pin adapter Zenith]]",
		"5 Oda Finch shelf/changed [shelf/described-as [machine/field-from-to name Zenith 4-pin adapter]]", // what did not differ made none
		"6 Oda Finch shelf/changed [shelf/described-as [machine/field-from-to name 4-pin adapter Zenith]]",
	}
	if err != nil || !slices.Equal(said, want) {
		t.Errorf("history, %v:\n%s", err, strings.Join(said, "\n"))
	}
	if was, err := s.StockAt(ctx, parts[0].ID, 2); err != nil || was.Part.Name == "Zenith" || was.Count == 7 {
		t.Errorf("at revision 2 there was %+v, %v", was, err)
	}
	for _, q := range []string{`DELETE FROM shelf_journal`, `UPDATE shelf_journal SET says = 'nothing'`} {
		if _, err := s.DB().ExecContext(ctx, q); err == nil {
			t.Errorf("%s: history is written over", q)
		}
	}
}

// Sheets of a file from before there was a history have one that starts there,
// and no version can be changed or removed.
func TestSheetHistory(t *testing.T) {
	s, _ := open(t)
	ctx := t.Context()
	sheet := tower(t).Sheet
	write := func(from int, key string) (int, error) {
		n, err := s.PutSheet(ctx, store.SheetWrite{Sheet: sheet, From: from, Stamp: stamp, Request: store.Request{Key: key}})
		if before := (*store.Applied)(nil); errors.As(err, &before) {
			return before.Revision, nil
		}
		return n, err
	}
	for i, c := range []struct {
		from, want int
		key, name  string
		err        string
	}{
		{0, 1, "a", "One", ""}, {1, 2, "b", "Two", ""}, {1, 2, "b", "Two", ""}, {2, 2, "c", "Two", ""}, {store.Whatever, 3, "", "Three", ""},
		{1, 0, "d", "Four", "at revision 3, and the change was made at revision 1"}, {0, 0, "e", "Four", "in the shop already"},
	} {
		sheet.Name = c.name
		got, err := write(c.from, c.key)
		if got != c.want || (err == nil) != (c.err == "") || err != nil && !strings.Contains(err.Error(), c.err) {
			t.Errorf("write %d: revision %d, %v; want %d, %q", i, got, err, c.want, c.err)
		}
	}
	history, err := s.SheetHistory(ctx, sheet.ID)
	if err != nil || len(history) != 3 || history[2].Deed.Fact.String() != "machine/changed [machine/field-from-to name Two Three]" {
		t.Errorf("%+v, %v", history, err)
	}
	if k, err := s.SheetAt(ctx, sheet.ID, 2); err != nil || k.Sheet.Name != "Two" {
		t.Errorf("%s, %v", k.Sheet.Name, err)
	}
	for _, q := range []string{"UPDATE sheet_journal SET says = 'x'", "DELETE FROM sheet_journal"} {
		if _, err := s.DB().ExecContext(ctx, q); err == nil {
			t.Errorf("%s was carried out", q)
		}
	}
}

// An index that no longer finds what is printed is seen by a check, as documents are.
func TestIndexIsChecked(t *testing.T) {
	for change, want := range map[string]string{
		`UPDATE jobs SET updated = updated`:                                    "",
		`UPDATE marked SET marks = replace(marks, 'GBDDR4', 'GIBDDRFOUR')`:     "", // words of another program
		`UPDATE marked SET marks = replace(marks, 'T', 'L')`:                   "what job echo-sounding-tower is found by is not what is printed on it",
		`UPDATE marked SET stage = 'CLOSED'`:                                   "what job echo-sounding-tower is found by",
		`DELETE FROM marked`:                                                   "what job echo-sounding-tower is found by",
		`INSERT INTO found (found) VALUES ('delete-all')`:                      "the index of what is printed",
		`UPDATE found_data SET block = zeroblob(length(block)) WHERE id > 100`: "the index of what is printed",
	} {
		s, path := open(t)
		put(t, s, tower(t), 0, "")
		if err := s.Close(); err != nil {
			t.Fatal(err)
		}
		execute(t, path, change)
		checked, err := store.Check(t.Context(), path)
		if err != nil {
			t.Fatalf("%s: %v", change, err)
		}
		if got := strings.Join(checked.Faults, "; "); (want == "") != (got == "") || !strings.Contains(got, want) {
			t.Errorf("%s: %q, want %q", change, got, want)
		}
	}
}
