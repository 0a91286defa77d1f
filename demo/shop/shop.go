// Package shop puts the demo shop's files into a store. It stands apart from the
// files, so that the tests of the core, which read those, need no database.
package shop

import (
	"bytes"
	"context"
	"fmt"
	"io/fs"
	"path/filepath"
	"slices"
	"strings"
	"time"

	"deepbay/demo"
	"deepbay/internal/core/fact"
	"deepbay/internal/core/job"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/power"
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
		for from, w := range story(v) {
			w.From = from
			if _, err := s.Put(ctx, w); err != nil {
				return err
			}
		}
		return nil
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

// story is how a job came to be what it is: that it came in, and of a finished one what was done
// in each phase of the work, what was mended, and that it went back.
func story(j job.Job) []store.Write {
	came := store.Write{Job: j, Done: fact.Of(job.FromDemo), Stamp: job.Stamp{By: "the demo shop", At: j.Arrived}}
	if j.Closed == nil {
		return []store.Write{came}
	}
	do := map[string]fact.Fact{}
	for _, step := range j.Order() {
		do[step.ID] = step.Do
	}
	done, closed := j.Done, j.Closed
	j.Closed, j.Done = nil, []job.Tick{}
	j.Seen, j.Explained, j.Tests, j.Cures, j.Checked, j.Incidents, j.Accepted = []power.Reading{}, []job.Explanation{}, nil, nil, nil, nil, nil
	whole := came.Job
	came.Job = j
	out := []store.Write{came}
	for i := 0; i < len(done); {
		var steps []fact.Fact
		first := i
		for ; i < len(done) && done[i].Phase == done[first].Phase; i++ {
			if what, is := do[done[i].Step]; is {
				steps = append(steps, fact.Of(job.Done, what))
			}
		}
		last := &done[i-1]
		for _, m := range whole.Cures {
			if m.At.Before(last.At) && !slices.ContainsFunc(j.Cures, func(x job.Mending) bool { return x.ID == m.ID }) {
				j.Cures = append(slices.Clone(j.Cures), m)
				out = append(out, store.Write{Job: j, Done: fact.Of(job.BeganCure, m.Fault), Stamp: job.Stamp{By: m.By, At: m.At}})
			}
		}
		j.Done = done[:i]
		out = append(out, store.Write{Job: j, Done: fact.Of(job.Together, steps), Stamp: job.Stamp{By: last.By, At: last.At}})
	}
	return append(out, store.Write{Job: whole, Done: fact.Of(job.ClosedJob), Stamp: job.Stamp{By: closed.By, At: closed.At}})
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
