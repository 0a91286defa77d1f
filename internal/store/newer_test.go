package store_test

import (
	"errors"
	"strings"
	"testing"

	"deepbay/demo/shop"
	"deepbay/internal/core/fact"
	"deepbay/internal/core/job"
	"deepbay/internal/core/shelf"
	"deepbay/internal/store"
)

// What a newer Deep Bay wrote can be read, is not written over, and stays byte for byte as
// it was, whether its version says so or a field that nobody here knows, however deep.
func TestNewerDocuments(t *testing.T) {
	ctx := t.Context()
	for _, change := range []string{`json_set(doc, '$.version', 2)`, `json_set(doc, '$.tideTable', 'high')`, `json_set(doc, '$.sheet.board.layers', 8, '$.board.layers', 8, '$.drive.spins', 1, '$.card.spins', 1, '$.fitting.spins', 1, '$.module.spins', 1, '$.enclosure.spins', 1)`} {
		s, _ := open(t)
		if err := shop.Fill(ctx, s); err != nil {
			t.Fatal(err)
		}
		docs := func() string {
			var out strings.Builder
			for _, q := range []string{`SELECT doc FROM jobs WHERE id = 'echo-sounding-tower'`, `SELECT doc FROM sheets WHERE id = 'harrier-t4'`, `SELECT doc FROM parts WHERE id = 'raft-4'`} {
				var doc string
				if err := s.DB().QueryRowContext(ctx, q).Scan(&doc); err != nil {
					t.Fatal(err)
				}
				out.WriteString(doc)
			}
			return out.String()
		}
		for _, table := range []string{"jobs", "sheets", "parts"} {
			if _, err := s.DB().ExecContext(ctx, `UPDATE `+table+` SET doc = `+change+`, sum = NULL`); err != nil {
				t.Fatal(err)
			}
		}
		before := docs()
		k, err := s.Job(ctx, "echo-sounding-tower")
		if err != nil {
			t.Fatalf("%s: it cannot be read: %v", change, err)
		}
		sheet, err := s.Sheet(ctx, "harrier-t4")
		if err != nil {
			t.Fatal(err)
		}
		k.Job.Title, sheet.Sheet.Name = "otherwise", "otherwise"
		_, jobErr := s.Put(ctx, store.Write{Job: k.Job, From: k.Revision, Done: fact.Of(job.ChangedWish), Stamp: stamp})
		_, sheetErr := s.PutSheet(ctx, store.SheetWrite{Sheet: sheet.Sheet, From: sheet.Revision, Stamp: stamp})
		stockErr := s.ChangeStock(ctx, store.StockWrite{Stamp: stamp}, func(on store.OnShelf) ([]shelf.Stock, error) {
			k, err := on("raft-4")
			k.Count++
			return []shelf.Stock{k.Stock}, err
		})
		for _, err := range []error{jobErr, sheetErr, stockErr} {
			if !errors.Is(err, store.ErrNewer) {
				t.Errorf("%s: %v", change, err)
			}
		}
		if docs() != before {
			t.Errorf("%s: a document is changed", change)
		}
	}
}
