package store_test

import (
	"archive/zip"
	"bytes"
	"errors"
	"fmt"
	"math/rand"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"deepbay/internal/core/job"
	"deepbay/internal/core/part"
	"deepbay/internal/store"
)

// owned puts a closed job of an owner there, in some revisions.
func owned(t *testing.T, s *store.Store, id, owner string, revisions int) job.Job {
	t.Helper()
	j := tower(t)
	j.ID, j.Title, j.Owner = job.ID(id), "Job of "+owner, owner
	for n := range revisions {
		j.Wish.Text = fmt.Sprint("wish ", n, " <of> ", owner)
		if n == revisions-1 {
			j.Closed = &job.Closing{By: "Oda Finch", At: stamp.At}
		}
		put(t, s, j, n, fmt.Sprint(id, "-", n))
	}
	return j
}

// TestArchive moves jobs to an archive and brings them back: the file has nothing of them
// between, and tells the same of them afterwards, their journals, what they are found by and
// what they have of the shelf included. A half archive, a changed one and one whose jobs are
// there already are refused, and nothing is changed.
func TestArchive(t *testing.T) {
	s, path := open(t)
	ctx := t.Context()
	put(t, s, tower(t), 0, "") // which stays
	for n := range 4 {
		owned(t, s, fmt.Sprint("old-", n), "Quarantine Dock", 3)
	}
	for n := range 2 {
		if _, err := s.KeepPicture(ctx, store.PictureWrite{Album: store.Photographs("old-1"), Says: "the inside", Picture: page(n), Stamp: stamp}); err != nil {
			t.Fatal(err)
		}
	}
	before := telling(t, s)
	jobs, err := s.ClosedBefore(ctx, stamp.At.Add(time.Hour))
	if err != nil || len(jobs) != 4 || jobs[0].Open {
		t.Fatalf("%+v, %v", jobs, err)
	}
	if none, err := s.ClosedBefore(ctx, stamp.At); err != nil || len(none) != 0 {
		t.Fatalf("%+v, %v", none, err)
	}
	to := filepath.Join(t.TempDir(), "old.zip")
	stale := append([]store.Owned{}, jobs...)
	stale[3].Revision = 2
	if _, err := s.MoveToArchive(ctx, to, stale, stamp); err == nil {
		t.Error("a job that was changed meanwhile is archived")
	}
	if files, _ := os.ReadDir(filepath.Dir(to)); len(files) > 0 || fmt.Sprint(telling(t, s)) != fmt.Sprint(before) {
		t.Errorf("what was refused left %v, or changed something", files)
	}
	about, err := s.MoveToArchive(ctx, to, jobs, stamp)
	if err != nil || len(about.Jobs) != 4 || about.Jobs[1].Revisions != 3 || about.Jobs[0].Photographs+about.Jobs[1].Photographs+about.Jobs[2].Photographs+about.Jobs[3].Photographs != 2 {
		t.Fatalf("%+v, %v", about, err)
	}
	if _, err := s.MoveToArchive(ctx, to, nil, stamp); err == nil || !strings.Contains(err.Error(), "is there already") {
		t.Errorf("written over: %v", err)
	}
	if len(telling(t, s)) >= len(before) {
		t.Error("nothing left the file")
	}
	left, err := s.Gone(ctx, 9)
	if err != nil || len(left) != 4 || left[0].Title != "Job of Quarantine Dock" || left[0].Why != store.IsArchived || left[0].Revisions != 3 {
		t.Errorf("%+v, %v", left, err)
	}
	if found, err := s.Jobs(ctx, store.Page{Query: "quarantine"}); err != nil || len(found.Stands) != 0 {
		t.Errorf("found %+v, %v", found, err)
	}
	if c, err := store.Check(ctx, path); err != nil || !c.Sound() {
		t.Errorf("%+v, %v", c, err)
	}
	whole, err := os.ReadFile(to)
	if err != nil {
		t.Fatal(err)
	}
	if z, err := zip.NewReader(bytes.NewReader(whole), int64(len(whole))); err != nil || len(z.File) != 12 { // four jobs with their journals, two photographs with what is known of them, and what the archive says
		t.Errorf("%v", err)
	}
	rng := rand.New(rand.NewSource(1))
	between := fmt.Sprint(telling(t, s))
	bad := filepath.Join(t.TempDir(), "bad.zip")
	for n := range 60 {
		b := bytes.Clone(whole)
		if n%4 == 0 {
			b = b[:rng.Intn(len(b))]
		} else {
			b[rng.Intn(len(b))] ^= 1 << rng.Intn(8)
		}
		if err := os.WriteFile(bad, b, 0o600); err != nil {
			t.Fatal(err)
		}
		if _, err := s.BringBackArchive(ctx, bad); err == nil { // a bit that means nothing, like one of a time
			if fmt.Sprint(telling(t, s)) != fmt.Sprint(before) {
				t.Errorf("%d: what a changed archive brought is not what was taken", n)
			}
			again, err := s.ClosedBefore(ctx, stamp.At.Add(time.Hour))
			if err != nil || s.Remove(ctx, again, store.IsArchived, stamp, store.Request{}) != nil {
				t.Fatal("cannot go on")
			}
		}
		if fmt.Sprint(telling(t, s)) != between {
			t.Fatalf("%d: an archive that was refused changed something", n)
		}
	}
	if _, err := s.BringBackArchive(ctx, to); err != nil {
		t.Fatal(err)
	}
	if after := telling(t, s); fmt.Sprint(after) != fmt.Sprint(before) {
		t.Error("what came back is not what was taken")
	}
	users, err := s.Users(ctx, []part.ID{"ternlight-500"}, 9)
	if err != nil || len(users["ternlight-500"]) != 5 {
		t.Errorf("used in %+v, %v", users, err)
	}
	if found, err := s.Jobs(ctx, store.Page{Query: "quarantine"}); err != nil || len(found.Stands) != 4 || found.Closed != 4 {
		t.Errorf("found %+v, %v", found, err)
	}
	if left, err := s.Gone(ctx, 9); err != nil || len(left) != 0 {
		t.Errorf("%+v, %v", left, err)
	}
	if _, err := s.BringBackArchive(ctx, to); err != nil || fmt.Sprint(telling(t, s)) != fmt.Sprint(before) {
		t.Errorf("brought back twice: %v", err)
	}
	changed := tower(t)
	changed.ID = "old-2"
	put(t, s, changed, 3, "")
	if _, err := s.BringBackArchive(ctx, to); !errors.Is(err, store.ErrTaken) {
		t.Errorf("put over what was changed since: %v", err)
	}
	if c, err := store.Check(ctx, path); err != nil || !c.Sound() {
		t.Errorf("%+v, %v", c, err)
	}
}

// TestOwnerIsForgotten deletes all there is of an owner: no byte of the file or its log has
// the name, a serial or a wish any more; that there were jobs is there. Open jobs are not
// deleted, nor those of others.
func TestOwnerIsForgotten(t *testing.T) {
	s, path := open(t)
	ctx := t.Context()
	other := owned(t, s, "other", "Pilot Station", 2)
	const many = 12 // more than leave at once
	for n := range many - 1 {
		owned(t, s, fmt.Sprint("zebedee-", n), "Zebedee Quarles", 9)
	}
	still := tower(t)
	still.Title, still.Owner = "Open", "zebedee quarles"
	put(t, s, still, 0, "")
	if err := s.KeepSaid(ctx, "p", []store.Said{{Stand: store.Stand{ID: "zebedee-1", Revision: 9}, Doc: []byte(`{"owner":"Zebedee Quarles"}`)}}); err != nil {
		t.Fatal(err)
	}
	jobs, err := s.OfOwner(ctx, "Zebedee  quarles")
	if err != nil || len(jobs) != many {
		t.Fatalf("%+v, %v", jobs, err)
	}
	if none, err := s.OfOwner(ctx, "Quarles"); err != nil || len(none) != 0 {
		t.Errorf("half a name is %+v, %v", none, err)
	}
	for _, most := range []int{30, 40, 1e6} { // the logbook has them, too, in several goes
		if _, err := s.CatchUp(ctx, saysOf, most); err != nil {
			t.Fatal(err)
		}
	}
	r := store.Request{Key: "forget", Asked: "x"}
	if err := s.Remove(ctx, jobs, store.Deleted, stamp, r); !errors.Is(err, store.ErrOpen) {
		t.Errorf("with an open one: %v", err)
	}
	still.Closed = &job.Closing{By: "Oda Finch", At: stamp.At}
	put(t, s, still, 1, "")
	if err := s.Remove(ctx, jobs, store.Deleted, stamp, r); err == nil {
		t.Error("a job that was changed meanwhile is deleted")
	}
	if jobs, err = s.OfOwner(ctx, "zebedee quarles"); err != nil || len(jobs) != many {
		t.Fatalf("%+v, %v", jobs, err)
	}
	if err := s.Remove(ctx, jobs, store.Deleted, stamp, r); err != nil {
		t.Fatal(err)
	}
	var before *store.Applied
	if err := s.Remove(ctx, jobs, store.Deleted, stamp, r); !errors.As(err, &before) {
		t.Errorf("sent again: %v", err)
	}
	for _, end := range []string{"", "-wal"} {
		b, err := os.ReadFile(path + end)
		if err != nil {
			t.Fatal(err)
		}
		for _, word := range []string{"Zebedee", "zebedee", "ZEBEDEE"} {
			if bytes.Contains(b, []byte(word)) {
				t.Errorf("the file%s has %q still", end, word)
			}
		}
	}
	gone, err := s.Gone(ctx, 99)
	if err != nil || len(gone) != many || gone[3].Title != "" || gone[3].Why != store.Deleted || gone[3].By != stamp.By || gone[3].Revisions != 9 {
		t.Errorf("%+v, %v", gone, err)
	}
	if k, err := s.Job(ctx, other.ID); err != nil || k.Revision != 2 {
		t.Errorf("another's: %+v, %v", k, err)
	}
	if c, err := store.Check(ctx, path); err != nil || !c.Sound() || c.Jobs != 1 {
		t.Errorf("%+v, %v", c, err)
	}
	if _, err := s.DB().ExecContext(ctx, "DELETE FROM journal"); err == nil {
		t.Error("journals can be deleted otherwise")
	}
}

// FuzzArchive reads any bytes as an archive: they are refused, or hold what they say.
func FuzzArchive(f *testing.F) {
	var seed bytes.Buffer
	z := zip.NewWriter(&seed)
	for name, text := range map[string]string{
		"archive.json":     `{"format":"deepbay/archive","version":1,"jobs":[{"id":"a","title":"A","revisions":1}]}`,
		"journals/a.jsonl": `{"revision":1,"at":"2026-11-26T10:00:00Z","by":"x","sum":"44136fa355b3678a1146ad16f7e8649e94fb4fc21fe77e8310c060f61caaff8a","job":{}}`,
	} {
		w, err := z.Create(name)
		if err == nil {
			_, err = w.Write([]byte(text))
		}
		if err != nil {
			f.Fatal(err)
		}
	}
	if err := z.Close(); err != nil {
		f.Fatal(err)
	}
	path := filepath.Join(f.TempDir(), "a.zip")
	if err := os.WriteFile(path, seed.Bytes(), 0o600); err != nil {
		f.Fatal(err)
	}
	if n, err := store.ReadArchive(path); n != 1 || err != nil {
		f.Fatalf("the seed is no archive: %v", err)
	}
	f.Add(seed.Bytes())
	f.Fuzz(func(t *testing.T, b []byte) {
		path := filepath.Join(t.TempDir(), "a.zip")
		if err := os.WriteFile(path, b, 0o600); err != nil {
			t.Fatal(err)
		}
		if n, err := store.ReadArchive(path); err == nil && n > len(b) {
			t.Errorf("%d jobs in %d bytes", n, len(b))
		}
	})
}
