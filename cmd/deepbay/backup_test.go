package main

import (
	"bytes"
	"database/sql"
	"io"
	"log/slog"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"
	"time"

	"deepbay/demo/shop"
	"deepbay/internal/core/fact"
	"deepbay/internal/core/job"
	"deepbay/internal/store"
)

// shopFile is a data file with the demo shop.
func shopFile(t *testing.T) string {
	t.Helper()
	path := filepath.Join(t.TempDir(), "shop.db")
	s, err := store.Open(t.Context(), path)
	if err != nil {
		t.Fatal(err)
	}
	defer s.Close()
	if err := shop.Fill(t.Context(), s); err != nil {
		t.Fatal(err)
	}
	return path
}

// Closed jobs are archived and come back, an owner's data is taken along and deleted, from
// the command line; what is missing or not meant is said, and changes nothing.
func TestArchiveCommands(t *testing.T) {
	path := shopFile(t)
	s, err := store.Open(t.Context(), path)
	if err != nil {
		t.Fatal(err)
	}
	k, err := s.Job(t.Context(), "lock-gate-recorder")
	if err != nil {
		t.Fatal(err)
	}
	k.Job.Owner = "Lock keeper"
	k.Job.Closed = &job.Closing{By: "Oda Finch", At: k.Updated}
	if _, err := s.Put(t.Context(), store.Write{Job: k.Job, From: 1, Done: fact.Of(job.ClosedJob), Stamp: job.Stamp{By: "Oda Finch", At: k.Updated}}); err != nil {
		t.Fatal(err)
	}
	if err := s.Close(); err != nil {
		t.Fatal(err)
	}
	dir := t.TempDir()
	old, mine, letter := filepath.Join(dir, "old.zip"), filepath.Join(dir, "mine.zip"), filepath.Join(dir, "letter.zip")
	if err := os.WriteFile(letter, []byte("Dear harbour master"), 0o600); err != nil {
		t.Fatal(err)
	}
	data := []string{"--data", path}
	for _, c := range []struct {
		args      []string
		status    int
		out, says string
	}{
		{[]string{"archive", "--closed-before", "soon", old}, 2, "", `"soon" is no day: write it as 2026-01-31`},
		{[]string{"archive", "--closed-before", "2020-01-01", old}, 0, "nothing was changed", ""},
		{[]string{"archive", "--closed-before", "2030-01-01", old}, 0, "holds them now, 5 in number", ""},
		{[]string{"archive", "--closed-before", "2030-01-01", old}, 0, "no job was closed before", ""},
		{[]string{"check-data", path}, 0, "13 jobs", ""},
		{[]string{"bring-back", letter}, 2, "", "is no archive"},
		{[]string{"bring-back", old}, 0, "jobs back: 5", ""},
		{[]string{"bring-back", old}, 0, "jobs back: 5", ""}, // it is there just as it was
		{[]string{"owner", "export", "--name", "nobody", mine}, 2, "", `there is no job of "nobody"`},
		{[]string{"owner", "export", "--name", "lock keeper", mine}, 0, "mine.zip: 1", ""},
		{[]string{"owner", "export", "--name", "lock keeper", mine}, 2, "", "exists"},
		{[]string{"owner", "delete", "--name", "lock keeper"}, 2, "lock-gate-recorder", "these jobs of lock keeper would be deleted for good: say so with --jobs 1; nothing was changed"},
		{[]string{"owner", "delete", "--name", "lock keeper", "--jobs", "1"}, 0, "jobs deleted: 1", ""},
		{[]string{"owner", "delete", "--name", "lock keeper", "--jobs", "1"}, 2, "", "there is no job"},
		{[]string{"check-data", path}, 0, "17 jobs", ""},
		{[]string{"bring-back", mine}, 0, "jobs back: 1", ""}, // what an owner took along is whole
		{[]string{"check-data", path}, 0, "18 jobs", ""},
	} {
		if c.args[0] != "check-data" {
			c.args = append(c.args, data...)
		}
		status, out, says := do(t, c.args...)
		if status != c.status || !strings.Contains(out, c.out) || !strings.Contains(says, c.says) {
			t.Errorf("%v: %d %q %q, want %d with %q and %q", c.args, status, out, says, c.status, c.out, c.says)
		}
	}
	whole, anew, again := filepath.Join(dir, "shop.zip"), filepath.Join(dir, "new.db"), filepath.Join(dir, "again.zip")
	for _, c := range []struct {
		args      []string
		status    int
		out, says string
	}{
		{[]string{"export", "--data", path, whole}, 0, "18 jobs", ""},
		{[]string{"import", "--data", path, whole}, 2, "", "nothing was changed"},
		{[]string{"import", "--data", anew, letter}, 2, "", "is no archive"},
		{[]string{"import", "--data", anew, old}, 2, "", "shop.json"},
		{[]string{"import", "--data", anew, whole}, 0, "18 jobs", ""},
		{[]string{"export", "--data", anew, again}, 0, "18 jobs", ""},
		{[]string{"export", "--data", anew, again}, 2, "", "exists"},
	} {
		status, out, says := do(t, append([]string{"shop"}, c.args...)...)
		if status != c.status || !strings.Contains(out, c.out) || !strings.Contains(says, c.says) {
			t.Errorf("%v: %d %q %q, want %d with %q and %q", c.args, status, out, says, c.status, c.out, c.says)
		}
	}
	one, err := os.ReadFile(whole)
	two, err2 := os.ReadFile(again)
	if err != nil || err2 != nil || !bytes.Equal(one, two) {
		t.Errorf("a shop that was taken into a new data file gives another file: %v, %v", err, err2)
	}
	if status, _, says := do(t, "archive", "--data", filepath.Join(dir, "none.db"), "--closed-before", "2030-01-01", filepath.Join(dir, "x.zip")); status != 2 || !strings.Contains(says, "no such file") {
		t.Errorf("of no file: %d %q", status, says)
	}
}

// A backup is made, checked and brought back from the command line; what is wrong is said
// with what to do, and nothing is put over anything.
func TestBackupCommands(t *testing.T) {
	path := shopFile(t)
	dir := t.TempDir()
	to, letter, other := filepath.Join(dir, "b.db"), filepath.Join(dir, "letter.txt"), filepath.Join(dir, "other.db")
	if err := os.WriteFile(letter, []byte(strings.Repeat("Dear harbour master, ", 200)), 0o600); err != nil {
		t.Fatal(err)
	}
	for _, c := range []struct {
		args      []string
		status    int
		out, says string
	}{
		{[]string{"check-data", path}, 0, "18 jobs, 11 sheets, 32 parts, 130 revisions; 0 faults", ""},
		{[]string{"backup", "--data", path, to}, 0, "backed up to " + to, ""},
		{[]string{"backup", "--data", path, to}, 2, "", "is there already"},
		{[]string{"backup", "--data", letter, other}, 2, "", "is no Deep Bay data file"},
		{[]string{"backup", "--data", filepath.Join(dir, "none.db"), other}, 2, "", "does not exist"},
		{[]string{"check-data", letter}, 2, "", "is no Deep Bay data file"},
		{[]string{"rescue", path, filepath.Join(dir, "saved")}, 0, "18 jobs, 11 sheets, 1 pictures of pages, 32 parts, 130 lines of journals; 0 of them in an older revision; 0 faults", ""},
		{[]string{"rescue", path, filepath.Join(dir, "saved")}, 2, "", "is not empty: name a new folder"},
		{[]string{"rescue", letter, filepath.Join(dir, "nothing")}, 2, "", "bring a backup back"},
		{[]string{"restore", to}, 2, "", "no data file was named"},
		{[]string{"restore", "--data", other, letter}, 2, "", "is no Deep Bay data file"},
		{[]string{"restore", "--data", other, to}, 0, other + " is what " + to + " holds now", ""},
		{[]string{"restore", "--data", path, to}, 0, "what was there is kept as " + path + ".before-", ""},
		{[]string{"check-data", path}, 0, "18 jobs", ""},
	} {
		status, out, says := do(t, c.args...)
		if status != c.status || !strings.Contains(out, c.out) || !strings.Contains(says, c.says) {
			t.Errorf("%v: %d %q %q, want %d %q %q", c.args, status, out, says, c.status, c.out, c.says)
		}
	}
}

// A schedule makes a backup when one is due and not before, keeps so many, and says when
// it failed; others' files in the folder stay.
func TestSchedule(t *testing.T) {
	dir := t.TempDir()
	stranger := filepath.Join(dir, "other-backup-20260101-000000.000.db")
	if err := os.WriteFile(stranger, nil, 0o600); err != nil {
		t.Fatal(err)
	}
	s := schedule{data: shopFile(t), dir: dir, every: time.Hour, keep: 3, log: slog.New(slog.NewTextHandler(io.Discard, nil))}
	now := time.Date(2026, 11, 25, 8, 0, 0, 0, time.UTC)
	count := func() int {
		all, _, err := s.made()
		if err != nil {
			t.Fatal(err)
		}
		return len(all)
	}
	for _, c := range []struct {
		after time.Duration
		want  int
	}{{0, 1}, {59 * time.Minute, 1}, {time.Minute, 2}, {time.Hour, 3}, {time.Hour, 3}, {100 * time.Hour, 3}} {
		now = now.Add(c.after)
		s.due(t.Context(), now)
		if state := s.state(now); count() != c.want || state.Old || state.Fault != nil {
			t.Fatalf("at %s there are %d backups, want %d: %+v", now, count(), c.want, state)
		}
	}
	if state := s.state(now.Add(2*time.Hour + time.Minute)); !state.Old {
		t.Error("a backup of two hours is not old where one is made each hour")
	}
	good := s.data
	s.data = strings.Replace(good, "shop.db", "gone/shop.db", 1)
	s.due(t.Context(), now.Add(time.Hour))
	if state := s.state(now.Add(time.Hour)); !state.Old || state.Fault == nil || count() != 3 {
		t.Errorf("a backup that failed is %+v, %d are left", state, count())
	}
	s.data = good
	db, err := sql.Open("sqlite", good)
	if err != nil {
		t.Fatal(err)
	}
	defer db.Close()
	if _, err := db.ExecContext(t.Context(), `UPDATE parts SET doc = doc || ' ' WHERE id = 'skerry-480'`); err != nil {
		t.Fatal(err)
	}
	before, _, _ := s.made()
	for n := range 5 { // a copy of a damaged file takes no good one's place, however often it is tried
		s.due(t.Context(), now.Add(time.Duration(n+2)*time.Hour))
		after, _, err := s.made()
		if state := s.state(now.Add(time.Duration(n+2) * time.Hour)); err != nil || state.Fault == nil || !state.Old || !slices.Equal(after, before) {
			t.Fatalf("try %d of a damaged file: %+v, %v; there were %v", n, state, after, before)
		}
	}
	if _, err := os.Stat(stranger); err != nil {
		t.Error("another's file is gone")
	}
}
