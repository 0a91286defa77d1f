package store_test

import (
	"context"
	"encoding/json"
	"errors"
	"flag"
	"fmt"
	"maps"
	"math/rand"
	"os"
	"path/filepath"
	"slices"
	"testing"

	"deepbay/demo/shop"
	"deepbay/internal/core/fact"
	"deepbay/internal/core/job"
	"deepbay/internal/core/shelf"
	"deepbay/internal/store"
)

// flips is how many places are changed, and how many cut; make soak asks for more.
var flips = flag.Int("flips", 40, "places of each kind in TestNoByteIsSilent")

// told is all that a data file tells, by what it is about; what it says is damaged, or
// cannot be read, is not told.
func told(ctx context.Context, s *store.Store) (out map[string]string, failed error) {
	out = map[string]string{}
	tell := func(about string, v any, err error) {
		failed = errors.Join(failed, err)
		if err == nil {
			b, err := json.Marshal(v)
			if err != nil {
				panic(err)
			}
			out[about] = string(b)
		}
	}
	list, err := s.Jobs(ctx, store.Page{})
	if err == nil {
		for _, k := range list.Stands {
			if k.Revision > 0 { // else it is said to be damaged
				tell("stand of "+string(k.ID), k, nil)
			}
		}
	}
	failed = err
	for n, k := range list.Stands {
		if n == 4 {
			break // the rest is like these
		}
		j, err := s.Job(ctx, k.ID)
		tell("job "+string(k.ID), j, err)
		photos, err := s.Pictures(ctx, store.Photographs(k.ID))
		failed = errors.Join(failed, err)
		for _, p := range photos {
			b, err := s.Picture(ctx, store.Photographs(k.ID), p.ID)
			tell(fmt.Sprint("photograph ", p.Says, " of ", k.ID), p, err)
			tell(fmt.Sprint("what is seen on ", p.Says, " of ", k.ID), b, err)
		}
		entries, err := s.Journal(ctx, k.ID, 0)
		failed = errors.Join(failed, err)
		for _, e := range entries {
			if e.Deed != nil && e.Deed.Fact.Code == job.LineDamaged {
				continue
			}
			tell(fmt.Sprint("entry ", e.Revision, " of ", k.ID), e, err)
			at, err := s.At(ctx, k.ID, e.Revision)
			tell(fmt.Sprint("job ", k.ID, " at ", e.Revision), at, err)
		}
	}
	sheets, err := s.Sheets(ctx)
	failed = errors.Join(failed, err)
	for _, k := range sheets {
		tell("listed sheet "+string(k.ID), k, err)
		one, err := s.Sheet(ctx, k.ID)
		tell("sheet "+string(k.ID), one, err)
		pictures, err := s.Pictures(ctx, store.Pages(k.ID))
		failed = errors.Join(failed, err)
		for _, p := range pictures {
			b, err := s.Picture(ctx, store.Pages(k.ID), p.ID)
			tell(fmt.Sprint("picture ", p.Says, " of ", k.ID), p, err)
			tell(fmt.Sprint("what is seen on picture ", p.Says, " of ", k.ID), b, err)
		}
	}
	rows, err := s.Shelf(ctx)
	for _, k := range rows {
		tell("on the shelf "+string(k.Part.ID), k, err)
		entries, err := s.ShelfHistory(ctx, k.Part.ID)
		for _, e := range entries {
			if e.Deed == nil || e.Deed.Fact.Code != job.LineDamaged {
				tell(fmt.Sprint("entry ", e.Revision, " of ", k.Part.ID), e, err)
			}
		}
		failed = errors.Join(failed, err)
	}
	return out, errors.Join(failed, err)
}

// telling is what a sound file tells.
func telling(t *testing.T, s *store.Store) map[string]string {
	t.Helper()
	out, err := told(t.Context(), s)
	if err != nil || len(s.Damage()) > 0 {
		t.Fatalf("%v, %v", s.Damage(), err)
	}
	return out
}

// TestNoByteIsSilent flips bytes of a data file and of its log, and cuts both, at random
// places: the file is refused, or what is not as it was is said to be damaged and not told,
// or the log is said to be cut and all is as it was at one moment before. Nothing is told
// otherwise.
func TestNoByteIsSilent(t *testing.T) {
	ctx := t.Context()
	dir := t.TempDir()
	path := filepath.Join(dir, "shop.db")
	s, err := store.Open(ctx, path)
	if err != nil {
		t.Fatal(err)
	}
	if err := shop.Fill(ctx, s); err != nil {
		t.Fatal(err)
	}
	for n := range 3 { // two lie beside the first job of the list
		id := []job.ID{"multibeam-workstation", "multibeam-workstation", "rain-gauge-logger"}[n]
		if _, err := s.KeepPicture(ctx, store.PictureWrite{Album: store.Photographs(id), Says: "inside", Picture: page(50 + n), Stamp: stamp}); err != nil {
			t.Fatal(err)
		}
	}
	if err := s.Close(); err != nil {
		t.Fatal(err)
	}
	if s, err = store.Open(ctx, path); err != nil {
		t.Fatal(err)
	}
	moments := []map[string]string{telling(t, s)} // one after each write
	j := tower(t)
	for n := range 6 { // which are in the log
		j.Title = fmt.Sprint("Tower ", n)
		if _, err := s.Put(ctx, store.Write{Job: j, From: n + 1, Done: fact.Of(job.ChangedWish), Stamp: stamp}); err != nil {
			t.Fatal(err)
		}
		moments = append(moments, telling(t, s))
	}
	if err := s.ChangeStock(ctx, store.StockWrite{Stamp: stamp}, func(on store.OnShelf) ([]shelf.Stock, error) {
		k, err := on("raft-4")
		k.Count += 2
		return []shelf.Stock{k.Stock}, err
	}); err != nil {
		t.Fatal(err)
	}
	after := telling(t, s)
	moments = append(moments, after)
	files := map[string][]byte{}
	for _, end := range []string{"", "-wal"} {
		b, err := os.ReadFile(path + end)
		if err != nil {
			t.Fatal(err)
		}
		files[end] = b
	}
	if err := s.Close(); err != nil { // which puts the log into the file
		t.Fatal(err)
	}
	whole, err := os.ReadFile(path)
	if err != nil {
		t.Fatal(err)
	}
	kinds := []struct {
		what, end string
		files     map[string][]byte
	}{{"file beside a log", "", files}, {"log", "-wal", files}, {"file alone", "", map[string][]byte{"": whole}}}
	count := map[string]int{}
	rng := rand.New(rand.NewSource(int64(*flips)))
	for n := range 2 * len(kinds) * *flips {
		kind := kinds[n%len(kinds)]
		end := kind.end
		marred, b := maps.Clone(kind.files), slices.Clone(kind.files[end])
		at, how := rng.Intn(len(b)), "flipped"
		if n/len(kinds)%2 == 0 {
			b[at] ^= 1 << rng.Intn(8)
		} else {
			b, how = b[:at], "cut"
		}
		marred[end] = b
		to := filepath.Join(t.TempDir(), "marred.db")
		for end, b := range marred {
			if err := os.WriteFile(to+end, b, 0o600); err != nil {
				t.Fatal(err)
			}
		}
		result := func() string {
			k, err := store.Open(ctx, to)
			if err != nil {
				return "refused"
			}
			defer k.Close()
			now, failed := told(ctx, k)
			if i := slices.IndexFunc(moments, func(m map[string]string) bool { return maps.Equal(m, now) }); i == len(moments)-1 {
				return "as it was"
			} else if i >= 0 && (k.Log().Cut || how == "cut" && end == "-wal" && (at-32)%(24+4096) == 0) { // between two writes nothing is missing
				return "as it was before, and the log said to be cut"
			}
			for about, is := range now {
				if after[about] != is {
					t.Errorf("byte %d of the %s %s: %s is now\n%.300s\nand was\n%.300s", at, kind.what, how, about, is, after[about])
					return "silent"
				}
			}
			if len(k.Damage()) == 0 && failed == nil {
				t.Errorf("byte %d of the %s %s: %d of %d things are told, and nothing is said to be damaged", at, kind.what, how, len(now), len(after))
				return "silent"
			}
			return "damage said"
		}()
		count[kind.what+" "+how+": "+result]++
	}
	for _, k := range slices.Sorted(maps.Keys(count)) {
		t.Logf("%s: %d", k, count[k])
	}
}
