package store_test

import (
	"archive/zip"
	"bytes"
	"crypto/sha256"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"math/rand"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"deepbay/demo/shop"
	"deepbay/internal/core/practice"
	"deepbay/internal/store"
)

// packed is the file of a whole shop.
func packed(t *testing.T, s *store.Store) []byte {
	t.Helper()
	var b bytes.Buffer
	if _, err := s.WriteShop(t.Context(), &b); err != nil {
		t.Fatal(err)
	}
	return b.Bytes()
}

// TestShopFile takes the demo shop with everything a shop has into a new data file: it tells the
// same there, is found by the same, and gives the same file again, byte by byte.
func TestShopFile(t *testing.T) {
	ctx := t.Context()
	from, _ := open(t)
	if err := shop.Fill(ctx, from); err != nil {
		t.Fatal(err)
	}
	owned(t, from, "old", "Quarantine Dock", 3)
	owned(t, from, "forgotten", "Lamp Room", 2)
	sheets, err := from.Sheets(ctx)
	if err != nil {
		t.Fatal(err)
	}
	for n := range 2 {
		for _, album := range []store.Album{store.Photographs("old"), store.Pages(sheets[0].ID)} {
			if _, err := from.KeepPicture(ctx, store.PictureWrite{Album: album, Says: "the inside", Picture: page(n), Stamp: stamp}); err != nil {
				t.Fatal(err)
			}
		}
	}
	gone, err := from.OfOwner(ctx, "lamp room")
	if err != nil || from.Remove(ctx, gone, store.Deleted, stamp, store.Request{}) != nil {
		t.Fatal(err)
	}
	if err := from.PutPractice(ctx, practice.Practice{}, 0, stamp); err != nil {
		t.Fatal(err)
	}
	path := filepath.Join(t.TempDir(), "shop.zip")
	about, err := from.SaveShop(ctx, path)
	if err != nil || len(about.Jobs) < 18 || len(about.Gone) != 1 || about.Practice == nil {
		t.Fatalf("%+v, %v", about, err)
	}
	if _, err := from.SaveShop(ctx, path); err == nil {
		t.Error("written over")
	}
	if _, err := from.BringShop(ctx, path); !errors.Is(err, store.ErrNotEmpty) {
		t.Errorf("into a shop that has something: %v", err)
	}
	to, data := open(t)
	if _, err := to.BringShop(ctx, path); err != nil {
		t.Fatal(err)
	}
	if fmt.Sprint(telling(t, to)) != fmt.Sprint(telling(t, from)) {
		t.Error("it tells other things than the shop it came from")
	}
	if !bytes.Equal(packed(t, to), packed(t, from)) {
		t.Error("the file of it is another")
	}
	for _, q := range []string{"quarantine", "DB-4", "tide"} {
		a, err := from.Jobs(ctx, store.Page{Query: q})
		b, err2 := to.Jobs(ctx, store.Page{Query: q})
		if err != nil || err2 != nil || fmt.Sprint(a) != fmt.Sprint(b) {
			t.Errorf("%q finds %v, and %v", q, a, b)
		}
	}
	if c, err := store.Check(ctx, data); err != nil || !c.Sound() {
		t.Errorf("%+v, %v", c, err)
	}
}

// TestMarredShopFile brings files in which something is other than it was written: bytes, and
// whole entries that are changed, left out, put in or there twice by somebody who packed it again.
// Each is refused with a place in it, and the data file stays empty.
func TestMarredShopFile(t *testing.T) {
	ctx := t.Context()
	from, _ := open(t)
	owned(t, from, "old", "Quarantine Dock", 2)
	if err := from.PutPart(ctx, tower(t).Parts[0], stamp); err != nil {
		t.Fatal(err)
	}
	if _, err := from.PutSheet(ctx, store.SheetWrite{Sheet: tower(t).Sheet, Stamp: stamp}); err != nil {
		t.Fatal(err)
	}
	if _, err := from.KeepPicture(ctx, store.PictureWrite{Album: store.Photographs("old"), Says: "the inside", Picture: page(1), Stamp: stamp}); err != nil {
		t.Fatal(err)
	}
	whole := packed(t, from)
	to, _ := open(t)
	bad := filepath.Join(t.TempDir(), "bad.zip")
	refused := func(what string, b []byte, place string) {
		t.Helper()
		if err := os.WriteFile(bad, b, 0o600); err != nil {
			t.Fatal(err)
		}
		if _, err := to.BringShop(ctx, bad); err == nil {
			t.Fatalf("%s: it is taken", what)
		} else if !strings.Contains(err.Error(), place) {
			t.Errorf("%s: %v does not name %s", what, err, place)
		}
		if left := telling(t, to); len(left) > 0 {
			t.Fatalf("%s: it left %v", what, left)
		}
	}
	z, err := zip.NewReader(bytes.NewReader(whole), int64(len(whole)))
	if err != nil {
		t.Fatal(err)
	}
	// again packs it again, each file as do says: none, one or several.
	again := func(do func(name string, b []byte) [][]byte) []byte {
		var out bytes.Buffer
		w := zip.NewWriter(&out)
		for _, f := range z.File {
			r, err := f.Open()
			if err != nil {
				t.Fatal(err)
			}
			b, err := io.ReadAll(r)
			if err != nil {
				t.Fatal(err)
			}
			for _, b := range do(f.Name, b) {
				e, err := w.Create(f.Name)
				if err != nil {
					t.Fatal(err)
				}
				if _, err := e.Write(b); err != nil {
					t.Fatal(err)
				}
			}
		}
		if err := w.Close(); err != nil {
			t.Fatal(err)
		}
		return out.Bytes()
	}
	rng := rand.New(rand.NewSource(7))
	for _, f := range z.File {
		one := func(do func(b []byte) [][]byte) []byte {
			return again(func(name string, b []byte) [][]byte {
				if name == f.Name {
					return do(b)
				}
				return [][]byte{b}
			})
		}
		refused("without "+f.Name, one(func([]byte) [][]byte { return nil }), f.Name)
		refused("twice "+f.Name, one(func(b []byte) [][]byte { return [][]byte{b, b} }), f.Name)
		refused("half "+f.Name, one(func(b []byte) [][]byte { return [][]byte{b[:len(b)/2]} }), ".")
		for range 12 {
			at, to := 0, byte('0')
			b := one(func(b []byte) [][]byte {
				b = bytes.Clone(b)
				for at = rng.Intn(len(b)); b[at] == ' ' || b[at] == '\n'; at = rng.Intn(len(b)) { // where any letter would do, none is wrong
				}
				if to += byte(rng.Intn(10)); b[at] == to {
					to = '~'
				}
				b[at] = to
				return [][]byte{b}
			})
			if f.Name != "shop.json" { // what it says of itself: who, when and why of jobs that are gone is nowhere else
				refused(fmt.Sprintf("%s with %q at %d", f.Name, to, at), b, "bad.zip")
			}
		}
	}
	for range 60 {
		b := bytes.Clone(whole)
		b = b[:rng.Intn(len(b))]
		refused(fmt.Sprint(len(b), " bytes"), b, "bad.zip")
	}
}

// FuzzShop brings whatever bytes into an empty data file: what is refused leaves it empty, and what
// is taken gives the same file again.
func FuzzShop(f *testing.F) {
	f.Add([]byte("PK"))
	f.Fuzz(func(t *testing.T, b []byte) {
		s, _ := open(t)
		path := filepath.Join(t.TempDir(), "shop.zip")
		if err := os.WriteFile(path, b, 0o600); err != nil {
			t.Fatal(err)
		}
		if _, err := s.BringShop(t.Context(), path); err != nil {
			if left := telling(t, s); len(left) > 0 {
				t.Fatalf("%v left %v", err, left)
			}
			return
		}
		if len(packed(t, s)) == 0 {
			t.Fatal("what was taken is not given again")
		}
	})
}

// TestWrongShopFile brings files that are whole, digests included, and say what cannot be: a sheet, a
// part and a job that their formats refuse, and a job that left for no reason there is. Each is refused
// with its place, and the data file stays empty.
func TestWrongShopFile(t *testing.T) {
	from, _ := open(t)
	owned(t, from, "old", "Quarantine Dock", 1)
	if err := from.PutPart(t.Context(), tower(t).Parts[0], stamp); err != nil {
		t.Fatal(err)
	}
	if _, err := from.PutSheet(t.Context(), store.SheetWrite{Sheet: tower(t).Sheet, Stamp: stamp}); err != nil {
		t.Fatal(err)
	}
	whole := packed(t, from)
	digest := func(b []byte) string { return fmt.Sprintf("%x", sha256.Sum256(b)) }
	// nameless takes the name out of the document of a journal's only line.
	nameless := func(field, name string) func([]byte) []byte {
		return func(b []byte) []byte {
			var l map[string]json.RawMessage
			if err := json.Unmarshal(b, &l); err != nil {
				t.Fatal(err)
			}
			doc := []byte(l["job"])
			if l["text"] != nil {
				var text string
				if err := json.Unmarshal(l["text"], &text); err != nil {
					t.Fatal(err)
				}
				doc = []byte(text)
			}
			for _, gap := range []string{"", " "} {
				doc = bytes.Replace(doc, []byte(`"`+field+`":`+gap+`"`+name+`"`), []byte(`"`+field+`":`+gap+`""`), 1)
			}
			l["sum"], _ = json.Marshal(digest(doc))
			if l["text"] != nil {
				l["text"], _ = json.Marshal(string(doc))
			} else {
				l["job"] = doc
			}
			out, err := json.Marshal(l)
			if err != nil {
				t.Fatal(err)
			}
			return append(out, '\n')
		}
	}
	for place, change := range map[string]func([]byte) []byte{
		"sheet-journals/": nameless("name", tower(t).Sheet.Name),
		"shelf-journals/": nameless("name", tower(t).Parts[0].Name),
		"journals/":       nameless("title", "Job of Quarantine Dock"),
		"shop.json": func(b []byte) []byte {
			return bytes.Replace(b, []byte(`"gone": []`), []byte(`"gone": [{"at": "2026-11-01T00:00:00Z", "by": "x", "why": "boredom", "revisions": 1}]`), 1)
		},
	} {
		z, err := zip.NewReader(bytes.NewReader(whole), int64(len(whole)))
		if err != nil {
			t.Fatal(err)
		}
		var out bytes.Buffer
		w := zip.NewWriter(&out)
		sums := map[string]string{} // was, is
		for _, f := range z.File {  // shop.json is the last
			b, err := fs.ReadFile(z, f.Name)
			if err != nil {
				t.Fatal(err)
			}
			was := digest(b)
			if strings.HasPrefix(f.Name, place) {
				if b = change(b); digest(b) == was {
					t.Fatalf("%s is as it was", f.Name)
				}
				sums[was] = digest(b)
			}
			for was, is := range sums {
				b = bytes.ReplaceAll(b, []byte(was), []byte(is))
			}
			e, err := w.Create(f.Name)
			if err == nil {
				_, err = e.Write(b)
			}
			if err != nil {
				t.Fatal(err)
			}
		}
		if err := w.Close(); err != nil {
			t.Fatal(err)
		}
		file := filepath.Join(t.TempDir(), "shop.zip")
		if err := os.WriteFile(file, out.Bytes(), 0o600); err != nil {
			t.Fatal(err)
		}
		to, _ := open(t)
		var bad *store.BadFile
		if _, err := to.BringShop(t.Context(), file); !errors.As(err, &bad) || !strings.HasPrefix(bad.Name, place) {
			t.Errorf("%s: %v", place, err)
		}
		if left := telling(t, to); len(left) > 0 {
			t.Errorf("%s left %d things", place, len(left))
		}
	}
}
