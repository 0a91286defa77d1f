// Package demo is the demo shop: the workshop of a harbour survey office, as
// open-format files. Everything in it is made up.
package demo

import (
	"bytes"
	"context"
	"embed"
	"fmt"
	"io/fs"
	"time"

	"deepbay/internal/core/job"
	"deepbay/internal/core/part"
	"deepbay/internal/core/shelf"
	"deepbay/internal/format"
	"deepbay/internal/store"
)

// Files holds sheets/, parts/, jobs/ and shelf.csv.
//
//go:embed sheets/*.json parts/*.json jobs/*.json shelf.csv
var Files embed.FS

// stocked is when the shop's sheets were written.
var stocked = time.Date(2026, time.January, 12, 9, 0, 0, 0, time.UTC)

// Fill puts the demo shop into an empty store.
func Fill(ctx context.Context, s *store.Store) error {
	return fs.WalkDir(Files, ".", func(path string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() {
			return err
		}
		b, err := Files.ReadFile(path)
		if err != nil {
			return err
		}
		switch path[:len("jobs")] {
		case "shee":
			v, err := format.Sheet(b)
			if err != nil {
				return fmt.Errorf("%s: %w", path, err)
			}
			_, err = s.PutSheet(ctx, store.SheetWrite{Sheet: v, From: store.Whatever, Says: "came with the demo shop", Stamp: job.Stamp{By: "the demo shop", At: stocked}})
			return err
		case "part":
			v, err := format.Part(b)
			if err != nil {
				return fmt.Errorf("%s: %w", path, err)
			}
			return s.PutPart(ctx, v)
		case "shel":
			return stock(ctx, s, b)
		}
		v, err := format.Job(b)
		if err != nil {
			return fmt.Errorf("%s: %w", path, err)
		}
		_, err = s.Put(ctx, store.Write{Job: v, Says: "brought in with the demo shop", Stamp: job.Stamp{By: "the demo shop", At: v.Arrived}})
		return err
	})
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
	return s.PutStock(ctx, entries)
}

// Job reads one job of the demo shop by its name.
func Job(name string) (job.Job, error) {
	b, err := Files.ReadFile("jobs/" + name + ".job.json")
	if err != nil {
		return job.Job{}, err
	}
	return format.Job(b)
}

// Parts reads all parts of the demo shop.
func Parts() ([]part.Part, error) {
	names, err := fs.Glob(Files, "parts/*.json")
	if err != nil {
		return nil, err
	}
	out := make([]part.Part, len(names))
	for i, name := range names {
		b, err := Files.ReadFile(name)
		if err != nil {
			return nil, err
		}
		if out[i], err = format.Part(b); err != nil {
			return nil, fmt.Errorf("%s: %w", name, err)
		}
	}
	return out, nil
}
