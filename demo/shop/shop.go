// Package shop puts the demo shop's files into a store. It stands apart from the
// files, so that the tests of the core, which read those, need no database.
package shop

import (
	"bytes"
	"context"
	"fmt"
	"io/fs"
	"path/filepath"
	"strings"
	"time"

	"deepbay/demo"
	"deepbay/internal/core/fact"
	"deepbay/internal/core/job"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/shelf"
	"deepbay/internal/format"
	"deepbay/internal/picture"
	"deepbay/internal/store"
)

// pictures is the folder of the pages of manuals.
const pictures = "pictures"

// beside puts pictures/SHEET/page-18.jpg beside its sheet.
func beside(ctx context.Context, s *store.Store, path string) error {
	b, err := demo.Files.ReadFile(path)
	if err != nil {
		return err
	}
	p, err := picture.Read(b)
	if err != nil {
		return fmt.Errorf("%s: %w", path, err)
	}
	folder, file := filepath.Split(path)
	says := strings.ReplaceAll(strings.TrimSuffix(file, ".jpg"), "-", " ")
	_, err = s.KeepPicture(ctx, store.PictureWrite{Album: store.Pages(machine.ID(filepath.Base(folder))), Says: says, Picture: p, Stamp: stamp})
	return err
}

// stocked is when the shop's sheets were written.
var stocked = time.Date(2026, time.January, 12, 9, 0, 0, 0, time.UTC)

var stamp = job.Stamp{By: "the demo shop", At: stocked}

// Fill puts the demo shop into an empty store.
func Fill(ctx context.Context, s *store.Store) error {
	err := fs.WalkDir(demo.Files, ".", func(path string, d fs.DirEntry, err error) error {
		switch {
		case err == nil && path == pictures:
			return fs.SkipDir // they lie beside sheets, which are there afterwards
		case err != nil || d.IsDir():
			return err
		}
		b, err := demo.Files.ReadFile(path)
		if err != nil {
			return err
		}
		switch path[:len("jobs")] {
		case "shee":
			v, err := format.Sheet(b)
			if err != nil {
				return fmt.Errorf("%s: %w", path, err)
			}
			_, err = s.PutSheet(ctx, store.SheetWrite{Sheet: v, From: store.Whatever, Done: fact.Of(job.FromDemo), Stamp: stamp})
			return err
		case "part":
			v, err := format.Part(b)
			if err != nil {
				return fmt.Errorf("%s: %w", path, err)
			}
			return s.PutPart(ctx, v, stamp)
		case "shel":
			return stock(ctx, s, b)
		}
		v, err := format.Job(b)
		if err != nil {
			return fmt.Errorf("%s: %w", path, err)
		}
		_, err = s.Put(ctx, store.Write{Job: v, Done: fact.Of(job.FromDemo), Stamp: job.Stamp{By: "the demo shop", At: v.Arrived}})
		return err
	})
	if err != nil {
		return err
	}
	names, err := fs.Glob(demo.Files, pictures+"/*/*")
	for _, name := range names {
		if err := beside(ctx, s, name); err != nil {
			return err
		}
	}
	return err
}

// stock puts the counts of shelf.csv on the shelf; its parts are there already.
func stock(ctx context.Context, s *store.Store, b []byte) error {
	parts, err := s.Parts(ctx)
	if err != nil {
		return err
	}
	entries, problems, err := shelf.ReadCSV(bytes.NewReader(b), func(id part.ID) (part.Part, bool) {
		for _, p := range parts {
			if p.ID == id {
				return p, true
			}
		}
		return part.Part{}, false
	})
	if err != nil {
		return fmt.Errorf("shelf.csv: %w", err)
	}
	for _, p := range problems {
		return fmt.Errorf("shelf.csv: %w", p)
	}
	return s.ChangeStock(ctx, store.StockWrite{Stamp: stamp}, func(store.OnShelf) ([]shelf.Stock, error) { return entries, nil })
}
