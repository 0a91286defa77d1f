package store_test

import (
	"fmt"
	"io/fs"
	"math/rand"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"deepbay/demo/shop"
	"deepbay/internal/core/fact"
	"deepbay/internal/core/job"
	"deepbay/internal/format"
	"deepbay/internal/store"
)

// saved reads every job, sheet and part in a folder, as it would be brought in.
func saved(t *testing.T, dir string) map[string]int {
	t.Helper()
	out := map[string]int{}
	err := filepath.WalkDir(dir, func(path string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() || strings.Contains(path, "damaged") {
			return err
		}
		b, err := os.ReadFile(path)
		if err != nil {
			return err
		}
		kind, _, _ := strings.Cut(filepath.ToSlash(path[len(dir)+1:]), "/")
		switch kind {
		case "jobs":
			_, err = format.Job(b)
		case "sheets":
			_, err = format.Sheet(b)
		case "parts":
			_, err = format.Part(b)
		}
		if err != nil {
			t.Errorf("%s cannot be brought in: %v", path, err)
		}
		out[kind]++
		return nil
	})
	if err != nil {
		t.Fatal(err)
	}
	return out
}

// TestRescue saves a sound file whole, damaged records in their last good revision with
// what is there beside them, and what can be read of a file that is cut or has damaged
// pages; the data file stays as it was.
func TestRescue(t *testing.T) {
	ctx := t.Context()
	path := filepath.Join(t.TempDir(), "shop.db")
	s, err := store.Open(ctx, path)
	if err != nil {
		t.Fatal(err)
	}
	if err := shop.Fill(ctx, s); err != nil {
		t.Fatal(err)
	}
	j := tower(t)
	j.Title = "Tower, looked at again"
	if _, err := s.Put(ctx, store.Write{Job: j, From: 1, Done: fact.Of(job.ChangedWish), Stamp: stamp}); err != nil {
		t.Fatal(err)
	}
	dir := filepath.Join(t.TempDir(), "sound")
	r, err := store.Rescue(ctx, path, dir) // while it is open, its last changes in the log
	if err != nil || r.Jobs != 18 || r.Sheets != 11 || r.Parts != 32 || r.Lines != 59+11+61 || len(r.Faults) != 0 {
		t.Errorf("a sound file: %+v, %v", r, err)
	}
	if n := saved(t, dir); n["jobs"] != 18 || n["sheets"] != 11 || n["parts"] != 32 || n["journals"] != 61 || n["shelf.csv"] != 1 {
		t.Errorf("saved are %v", n)
	}
	if b, err := os.ReadFile(filepath.Join(dir, "jobs", string(j.ID)+".job.json")); err != nil || !strings.Contains(string(b), j.Title) {
		t.Errorf("the last change is not saved: %v", err)
	}
	if _, err := store.Rescue(ctx, path, dir); err == nil {
		t.Error("it is saved over what is there")
	}
	for _, q := range []string{
		`UPDATE jobs SET doc = replace(doc, 'looked', 'looted') WHERE id = 'echo-sounding-tower'`,
		`UPDATE parts SET doc = '{}' WHERE id = 'raft-4'`,
	} {
		if _, err := s.DB().ExecContext(ctx, q); err != nil {
			t.Fatal(err)
		}
	}
	if err := s.Close(); err != nil {
		t.Fatal(err)
	}
	dir = filepath.Join(t.TempDir(), "damaged")
	r, err = store.Rescue(ctx, path, dir)
	if err != nil || r.Jobs != 18 || r.Parts != 32 || r.Older != 2 || len(r.Faults) != 4 {
		t.Errorf("a damaged job and part: %+v, %v", r, err)
	}
	saved(t, dir)
	if b, err := os.ReadFile(filepath.Join(dir, "damaged", string(j.ID)+".job.raw.txt")); err != nil || !strings.Contains(string(b), "looted") {
		t.Errorf("what is there is not beside it: %v", err)
	}

	whole, err := os.ReadFile(path)
	if err != nil {
		t.Fatal(err)
	}
	rng := rand.New(rand.NewSource(1))
	most := 0
	for n := range 12 {
		b := append([]byte(nil), whole...)
		if n%2 == 0 {
			b = b[:len(b)/4+rng.Intn(len(b)*3/4)]
		} else {
			for range 3 {
				at := 4096 * (1 + rng.Intn(len(b)/4096-1))
				copy(b[at:at+4096], make([]byte, 4096))
			}
		}
		bad := filepath.Join(t.TempDir(), "bad.db")
		if err := os.WriteFile(bad, b, 0o600); err != nil {
			t.Fatal(err)
		}
		dir := filepath.Join(t.TempDir(), fmt.Sprint("bad", n))
		r, err := store.Rescue(ctx, bad, dir)
		if after, _ := os.ReadFile(bad); string(after) != string(b) {
			t.Error("the data file is changed")
		}
		if err != nil {
			continue // nothing of it can be read, and that is said
		}
		saved(t, dir)
		if most = max(most, r.Jobs); r.Jobs+r.Sheets+r.Parts < 48 && len(r.Faults) == 0 {
			t.Errorf("only %+v is saved, and nothing is said to be at fault", r)
		}
	}
	if most < 5 {
		t.Errorf("of no damaged file more than %d jobs were saved", most)
	}
	if _, err := store.Rescue(ctx, filepath.Join(t.TempDir(), "none.db"), t.TempDir()); err == nil {
		t.Error("a file that is not there is saved")
	}
}
