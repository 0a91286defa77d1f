package store_test

import (
	"bytes"
	"errors"
	"os"
	"path/filepath"
	"strconv"
	"strings"
	"testing"
	"time"

	"deepbay/internal/core/job"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/practice"
	"deepbay/internal/picture"
	"deepbay/internal/store"
)

// page is a picture as it comes from picture.Read, of which the store looks at nothing.
func page(n int) picture.Picture {
	return picture.Picture{Width: 3, Height: 4, JPEG: []byte("page " + strconv.Itoa(n))}
}

// TestPictures keeps pages beside a sheet: once each, in their order, no more than there is
// room for, and what is taken away is away; a damaged one is said to be and not shown.
func TestPictures(t *testing.T) {
	ctx := t.Context()
	path := filepath.Join(t.TempDir(), "shop.db")
	s, err := store.Open(ctx, path)
	if err != nil {
		t.Fatal(err)
	}
	defer s.Close()
	sheet := tower(t).Sheet
	if _, err := s.PutSheet(ctx, store.SheetWrite{Sheet: sheet}); err != nil {
		t.Fatal(err)
	}
	stamp := job.Stamp{By: "Ines", At: time.Date(2026, 11, 26, 9, 0, 0, 0, time.UTC)}
	keep := func(of machine.ID, says string, p picture.Picture, key string) (store.PictureID, error) {
		return s.KeepPicture(ctx, store.PictureWrite{Album: store.Pages(of), Says: says, Picture: p, Stamp: stamp, Request: store.Request{Key: key, Asked: says}})
	}
	says := func() string {
		t.Helper()
		list, err := s.Pictures(ctx, store.Pages(sheet.ID))
		if err != nil {
			t.Fatal(err)
		}
		var out []string
		for _, k := range list {
			out = append(out, k.Says)
		}
		return strings.Join(out, ", ")
	}
	first, err := keep(sheet.ID, "page 1", page(1), "a")
	if err != nil {
		t.Fatal(err)
	}
	var before *store.Applied
	if _, err := keep(sheet.ID, "page 1", page(1), "a"); !errors.As(err, &before) || before.Thing != string(first) {
		t.Errorf("sent twice: %v", err)
	}
	if _, err := keep("nothing", "page 1", page(1), ""); !errors.Is(err, store.ErrNotFound) {
		t.Errorf("beside no sheet: %v", err)
	}
	for n := 2; n <= store.MostPictures; n++ {
		if _, err := keep(sheet.ID, "page "+strconv.Itoa(n), page(n), ""); err != nil {
			t.Fatal(n, err)
		}
	}
	if _, err := keep(sheet.ID, "one more", page(99), ""); !errors.Is(err, store.ErrManyPictures) {
		t.Errorf("one more than there is room for: %v", err)
	}
	if _, err := keep(sheet.ID, "page 1, the slots", page(1), ""); err != nil { // it is there, and is said otherwise
		t.Error(err)
	}
	if err := s.DropPicture(ctx, store.Pages(sheet.ID), store.PictureID("nothing")); err != nil {
		t.Errorf("what is not there: %v", err)
	}
	list, err := s.Pictures(ctx, store.Pages(sheet.ID))
	if err != nil || len(list) != store.MostPictures {
		t.Fatal(len(list), err)
	}
	for _, k := range list[2:] {
		if err := s.DropPicture(ctx, store.Pages(sheet.ID), k.ID); err != nil {
			t.Fatal(err)
		}
	}
	if is := says(); is != "page 1, the slots, page 2" {
		t.Errorf("there are: %s", is)
	}
	if b, err := s.Picture(ctx, store.Pages(sheet.ID), first); err != nil || !bytes.Equal(b, page(1).JPEG) {
		t.Errorf("%q, %v", b, err)
	}

	if found, err := store.Check(ctx, path); err != nil || !found.Sound() {
		t.Errorf("%v, %v", found.Faults, err)
	}
	execute(t, path, "UPDATE pictures SET jpeg = x'00' WHERE says = 'page 2'", "UPDATE pictures SET says = 'page 3' WHERE says = 'page 1, the slots'")
	if is := says(); is != "page 2" {
		t.Errorf("with one that is damaged there are: %s", is)
	}
	var damaged *store.Damaged
	if _, err := s.Picture(ctx, store.Pages(sheet.ID), list[1].ID); !errors.As(err, &damaged) || damaged.What != "picture" {
		t.Errorf("what is seen on a damaged one: %v", err)
	}
	if len(s.Damage()) != 2 {
		t.Errorf("damage: %v", s.Damage())
	}
	if found, err := store.Check(ctx, path); err != nil || len(found.Faults) != 2 {
		t.Errorf("%v, %v", found.Faults, err)
	}
	dir := filepath.Join(t.TempDir(), "saved")
	saved, err := store.Rescue(ctx, path, dir)
	if err != nil || saved.Pictures != 1 || len(saved.Faults) != 1 {
		t.Errorf("%+v, %v", saved, err)
	}
	if b, err := os.ReadFile(filepath.Join(dir, "pictures", string(sheet.ID), "page_3-"+string(first[:8])+".jpg")); err != nil || !bytes.Equal(b, page(1).JPEG) {
		t.Errorf("%q, %v", b, err)
	}
	for _, k := range list[:2] {
		if err := s.DropPicture(ctx, store.Pages(sheet.ID), k.ID); err != nil {
			t.Error(err)
		}
	}
	if len(s.Damage()) != 0 {
		t.Errorf("damage of what is away: %v", s.Damage())
	}
}

// TestPhotographs keeps what was seen at the steps of a job: apart from the pages of a sheet of
// the same name, and no longer than there is the job.
func TestPhotographs(t *testing.T) {
	s, path := open(t)
	ctx := t.Context()
	owned(t, s, "old-1", "Quarantine Dock", 2)
	of := store.Photographs("old-1")
	for n := range store.MostPhotographs {
		if _, err := s.KeepPicture(ctx, store.PictureWrite{Album: of, Says: "step", Picture: page(n), Stamp: stamp}); err != nil {
			t.Fatal(err)
		}
	}
	if _, err := s.KeepPicture(ctx, store.PictureWrite{Album: of, Says: "step", Picture: page(999), Stamp: stamp}); !errors.Is(err, store.ErrManyPictures) {
		t.Errorf("one more: %v", err)
	}
	if _, err := s.KeepPicture(ctx, store.PictureWrite{Album: store.Photographs("nobody"), Says: "step", Picture: page(1), Stamp: stamp}); !errors.Is(err, store.ErrNotFound) {
		t.Errorf("beside no job: %v", err)
	}
	if pages, err := s.Pictures(ctx, store.Pages("old-1")); err != nil || len(pages) != 0 {
		t.Errorf("beside a sheet of that name lie %d, %v", len(pages), err)
	}
	found, err := store.Check(ctx, path)
	if err != nil || len(found.Faults) > 0 {
		t.Errorf("%+v, %v", found, err)
	}
	jobs, err := s.OfOwner(ctx, "Quarantine Dock")
	if err != nil || len(jobs) != 1 {
		t.Fatalf("%v, %v", jobs, err)
	}
	if err := s.Remove(ctx, jobs, store.Deleted, stamp, store.Request{}); err != nil {
		t.Fatal(err)
	}
	left := 0
	if err := s.DB().QueryRowContext(ctx, "SELECT count(*) FROM photographs").Scan(&left); err != nil || left > 0 {
		t.Errorf("%d photographs of a job that is gone for good, %v", left, err)
	}
}

// TestShopsPractice is kept over its revision; a byte that changed is seen.
func TestShopsPractice(t *testing.T) {
	s, path := open(t)
	ctx := t.Context()
	if k, err := s.Practice(ctx); err != nil || k.Revision != 0 || len(k.Practice) != 0 {
		t.Fatalf("%+v, %v", k, err)
	}
	p := practice.Practice{{Matter: practice.Screws, School: practice.Cups}}
	if err := s.PutPractice(ctx, p, 0, stamp); err != nil {
		t.Fatal(err)
	}
	var stale *store.Conflict
	if err := s.PutPractice(ctx, nil, 0, stamp); !errors.As(err, &stale) || stale.Current != 1 {
		t.Errorf("over what was read before: %v", err)
	}
	if k, err := s.Practice(ctx); err != nil || k.Revision != 1 || !k.Practice.Same(p) {
		t.Errorf("%+v, %v", k, err)
	}
	if err := s.Close(); err != nil {
		t.Fatal(err)
	}
	execute(t, path, `UPDATE practice SET doc = replace(doc, 'cups', 'caps')`)
	if s, err := store.Open(ctx, path); err != nil {
		t.Fatal(err)
	} else {
		defer s.Close()
		var damaged *store.Damaged
		if _, err := s.Practice(ctx); !errors.As(err, &damaged) {
			t.Errorf("a byte changed: %v", err)
		}
	}
	if found, err := store.Check(ctx, path); err != nil || len(found.Faults) != 1 {
		t.Errorf("%+v, %v", found, err)
	}
}
