package store_test

import (
	"bytes"
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"flag"
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"sync"
	"testing"

	"github.com/pressly/goose/v3"

	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/store"
)

// image is every file of a folder.
func image(t *testing.T, dir string) map[string][]byte {
	t.Helper()
	out := map[string][]byte{}
	entries, err := os.ReadDir(dir)
	if err != nil {
		t.Fatal(err)
	}
	for _, e := range entries {
		if out[e.Name()], err = os.ReadFile(filepath.Join(dir, e.Name())); err != nil {
			t.Fatal(err)
		}
	}
	return out
}

// sample is a data file of this version with a job in it, closed.
func sample(t *testing.T) []byte {
	t.Helper()
	s, path := open(t)
	put(t, s, tower(t), 0, "")
	if err := s.Close(); err != nil {
		t.Fatal(err)
	}
	b, err := os.ReadFile(path)
	if err != nil {
		t.Fatal(err)
	}
	return b
}

func execute(t *testing.T, path string, statements ...string) {
	t.Helper()
	db, err := sql.Open("sqlite", path)
	if err != nil {
		t.Fatal(err)
	}
	defer db.Close()
	for _, q := range statements {
		if _, err := db.ExecContext(t.Context(), q); err != nil {
			t.Fatalf("%s: %v", q, err)
		}
	}
}

// Files that are not this program's, or not whole, are refused, and the folder is byte for
// byte as it was.
func TestOpenLeavesAsItWas(t *testing.T) {
	whole := sample(t)
	made := func(change func(path string)) func(string) {
		return func(path string) {
			if err := os.WriteFile(path, whole, 0o600); err != nil {
				t.Fatal(err)
			}
			change(path)
		}
	}
	cut := func(n int) func(string) {
		return made(func(path string) {
			if err := os.Truncate(path, int64(n)); err != nil {
				t.Fatal(err)
			}
		})
	}
	cases := []struct {
		name string
		make func(path string)
		why  store.Reason
	}{
		{"newer", made(func(p string) { execute(t, p, fmt.Sprint("PRAGMA user_version = ", store.Version+1)) }), store.IsNewer},
		{"newer, from before files were marked", made(func(p string) {
			execute(t, p, "PRAGMA application_id = 0", fmt.Sprint("INSERT INTO goose_db_version (version_id, is_applied) VALUES (", store.Version+1, ", 1)"))
		}), store.IsNewer},
		{"of another program", func(p string) { execute(t, p, "CREATE TABLE jobs (x)", "PRAGMA application_id = 7") }, store.IsForeign},
		{"of another program, unmarked", func(p string) { execute(t, p, "CREATE TABLE jobs (x)") }, store.IsForeign},
		{"empty", cut(0), store.IsEmpty},
		{"one byte", cut(1), store.IsCut},
		{"half a header", cut(60), store.IsCut},
		{"a page", cut(4096), store.IsCut},
		{"one byte short", cut(len(whole) - 1), store.IsCut},
	}
	for n := 4097; n < len(whole); n += len(whole) / 40 {
		cases = append(cases, struct {
			name string
			make func(path string)
			why  store.Reason
		}{fmt.Sprint(n, " bytes"), cut(n), store.IsCut})
	}
	for _, c := range cases {
		dir := t.TempDir()
		path := filepath.Join(dir, "shop.db")
		c.make(path)
		before := image(t, dir)
		s, err := store.Open(t.Context(), path)
		if err == nil {
			s.Close()
		}
		var refused *store.Refused
		if !errors.As(err, &refused) || refused.Why != c.why {
			t.Errorf("%s: %v, want %s", c.name, err, c.why)
		}
		after := image(t, dir)
		for name, was := range before {
			if !bytes.Equal(after[name], was) {
				t.Errorf("%s: %s was changed", c.name, name)
			}
		}
		if len(after) != len(before) {
			t.Errorf("%s: the folder has %d files, had %d", c.name, len(after), len(before))
		}
	}
}

// A file as a power cut leaves it, most of it in the log, is whole; so is a plain copy of
// the file alone once it was put there.
func TestOpenAfterPowerCut(t *testing.T) {
	s, path := open(t)
	j := tower(t)
	put(t, s, j, 0, "")
	check := func(at string, want int) {
		t.Helper()
		k, err := store.Open(t.Context(), at)
		if err != nil {
			t.Fatal(err)
		}
		defer k.Close()
		if got, err := k.Job(t.Context(), j.ID); err != nil || got.Revision != want {
			t.Errorf("revision %d, %v; want %d", got.Revision, err, want)
		}
	}
	copied := func(ends ...string) string {
		to := filepath.Join(t.TempDir(), "copy.db")
		for _, end := range ends {
			b, err := os.ReadFile(path + end)
			if err != nil {
				t.Fatal(err)
			}
			if err := os.WriteFile(to+end, b, 0o600); err != nil {
				t.Fatal(err)
			}
		}
		return to
	}
	check(copied("", "-wal"), 1)
	put(t, s, j, 1, "")
	if err := s.Checkpoint(t.Context()); err != nil {
		t.Fatal(err)
	}
	check(copied(""), 2)
	if _, err := s.DB().ExecContext(t.Context(), "PRAGMA wal_checkpoint(TRUNCATE)"); err != nil { // so that the log ends with what comes
		t.Fatal(err)
	}
	put(t, s, j, 2, "")
	at := copied("", "-wal")
	info, err := os.Stat(at + "-wal")
	if err != nil {
		t.Fatal(err)
	}
	if err := os.Truncate(at+"-wal", info.Size()-100); err != nil { // in the middle of the last write
		t.Fatal(err)
	}
	k, err := store.Open(t.Context(), at)
	if err != nil {
		t.Fatal(err)
	}
	defer k.Close()
	if got, err := k.Job(t.Context(), j.ID); err != nil || got.Revision != 2 || !k.Log().Cut {
		t.Errorf("of a cut log: revision %d, %v, said to be cut: %v", got.Revision, err, k.Log().Cut)
	}
}

// Files of every version there was are brought up to date with all that is in them.
func TestUpgrades(t *testing.T) {
	dir := os.DirFS("migrations")
	names, err := fs.Glob(dir, "*.sql")
	if err != nil || len(names) != store.Version {
		t.Fatalf("%d migrations, the program says %d: %v", len(names), store.Version, err)
	}
	j := tower(t)
	doc := func(v any) string { return asJSON(t, v) }
	sheet, p := j.Sheet, j.Parts[0]
	for version := 1; version <= store.Version; version++ {
		path := filepath.Join(t.TempDir(), "old.db")
		db, err := sql.Open("sqlite", path)
		if err != nil {
			t.Fatal(err)
		}
		g, err := goose.NewProvider(goose.DialectSQLite3, db, dir)
		if err != nil {
			t.Fatal(err)
		}
		if _, err := g.UpTo(t.Context(), int64(version)); err != nil {
			t.Fatal(err)
		}
		insert := func(q string, args ...any) {
			if _, err := db.ExecContext(t.Context(), q, args...); err != nil {
				t.Fatalf("version %d: %s: %v", version, q, err)
			}
		}
		insert(`INSERT INTO sheets (id, name, doc) VALUES (?, ?, ?)`, sheet.ID, sheet.Name, doc(sheet))
		insert(`INSERT INTO parts (id, name, doc) VALUES (?, ?, ?)`, p.ID, p.Name, doc(p))
		if version < 12 {
			insert(`INSERT INTO jobs (id, revision, open, updated, marks, doc) VALUES (?, 2, 1, '2026-11-25T10:00:00Z', 'HS0417', ?)`, j.ID, doc(j))
		} else {
			insert(`INSERT INTO jobs (id, revision, open, updated, doc) VALUES (?, 2, 1, '2026-11-25T10:00:00Z', ?)`, j.ID, doc(j))
			insert(`INSERT INTO marked (job, stage, marks) VALUES (?, 'OPEN', 'HS0417')`, j.ID)
			insert(`INSERT INTO uses (part, number) VALUES (?, 1)`, p.ID)
		}
		for n := range 2 {
			insert(`INSERT INTO journal (job, revision, at, by, says, key, doc) VALUES (?, ?, '2026-11-25T10:00:00Z', 'Oda Finch', 'did it', ?, ?)`, j.ID, n+1, fmt.Sprint("key", n), doc(j))
		}
		if version >= 2 {
			insert(`INSERT INTO stock (part, count, price, condition, serials) VALUES (?, 3, 4250, 'new', '["a"]')`, p.ID)
		}
		db.Close()
		upgraded(t, path, version, sheet.ID, p.ID)
	}
}

func asJSON(t *testing.T, v any) string {
	t.Helper()
	b, err := json.Marshal(v)
	if err != nil {
		t.Fatal(err)
	}
	return string(b)
}

func upgraded(t *testing.T, path string, version int, sheet machine.ID, id part.ID) {
	t.Helper()
	ctx := context.Background()
	s, err := store.Open(ctx, path)
	if err != nil {
		t.Fatalf("version %d: %v", version, err)
	}
	defer s.Close()
	j := tower(t)
	got, err := s.Job(ctx, j.ID)
	if err != nil || got.Revision != 2 || fmt.Sprintf("%+v", got.Job.Items) != fmt.Sprintf("%+v", j.Items) {
		t.Errorf("version %d: %+v, %v", version, got.Revision, err)
	}
	entries, err := s.Journal(ctx, j.ID, 0)
	if err != nil || len(entries) != 2 || entries[1].Says != "did it" {
		t.Errorf("version %d: journal %+v, %v", version, entries, err)
	}
	var before *store.Applied
	if err := s.Applied(ctx, store.Request{Key: "key1", Asked: "whatever"}); version < 8 && (!errors.As(err, &before) || before.Thing != string(j.ID) || before.Revision != 2) {
		t.Errorf("version %d: the key is %v", version, err)
	}
	if k, err := s.Sheet(ctx, sheet); err != nil || k.Sheet.Name != j.Sheet.Name {
		t.Errorf("version %d: sheet %q, %v", version, k.Sheet.Name, err)
	}
	if version < 3 { // there was no history
		if h, err := s.SheetHistory(ctx, sheet); err != nil || len(h) != 1 {
			t.Errorf("version %d: history %+v, %v", version, h, err)
		}
	}
	if found, err := s.Jobs(ctx, store.Page{Query: "0417"}); err != nil || ids(found) != string(j.ID) {
		t.Errorf("version %d: found %+v, %v", version, found, err)
	}
	if users, err := s.Users(ctx, []part.ID{id}, 3); err != nil || len(users[id]) != 1 || users[id][0].ID != j.ID {
		t.Errorf("version %d: used in %+v, %v", version, users, err)
	}
	stock, err := s.Shelf(ctx)
	if err != nil || len(stock) != 1 || stock[0].Part.ID != id || version >= 2 && (stock[0].Count != 3 || !slices.Equal(stock[0].Serials, []string{"a"})) {
		t.Errorf("version %d: shelf %+v, %v", version, stock, err)
	}
}

// backups is how many are made while others write; make soak asks for more.
var backups = flag.Int("backups", 5, "backups in TestBackup")

// A backup that is made while many write is whole, holds what was answered before it began,
// and comes back; one that is damaged anywhere is refused, and so is a file that is served.
func TestBackup(t *testing.T) {
	s, path := open(t)
	ctx := t.Context()
	j := tower(t)
	put(t, s, j, 0, "")
	var all sync.WaitGroup
	stop := make(chan struct{})
	all.Go(func() {
		for n := 1; ; n++ {
			select {
			case <-stop:
				return
			default:
				put(t, s, j, n, "")
			}
		}
	})
	dir := t.TempDir()
	for n := range *backups {
		before, err := s.Job(ctx, j.ID)
		if err != nil {
			t.Fatal(err)
		}
		to := filepath.Join(dir, fmt.Sprint("backup", n, ".db"))
		found, err := store.Backup(ctx, path, to)
		if err != nil || !found.Sound() || found.Jobs != 1 || found.Revisions < before.Revision {
			t.Fatalf("%+v, %v; revision %d was answered", found, err, before.Revision)
		}
		if _, err := store.Backup(ctx, path, to); err == nil {
			t.Error("a backup is put over another")
		}
	}
	close(stop)
	all.Wait()
	whole := telling(t, s)
	for n := range *backups { // everything a backup tells is what was kept, but for where the job stood then
		b, err := store.Open(ctx, filepath.Join(dir, fmt.Sprint("backup", n, ".db")))
		if err != nil {
			t.Fatal(err)
		}
		k, err := b.Job(ctx, j.ID)
		if err != nil {
			t.Fatal(err)
		}
		for about, says := range telling(t, b) {
			if !strings.HasPrefix(about, "stand of ") && about != "job "+string(j.ID) && whole[about] != says {
				t.Errorf("backup %d tells of %s\n%s\nand there it is\n%s", n, about, says, whole[about])
			}
		}
		then, err := s.At(ctx, j.ID, k.Revision)
		if is, was := asJSON(t, k.Job), asJSON(t, then); err != nil || is != was {
			t.Errorf("backup %d has another job at revision %d: %v", n, k.Revision, err)
		}
		b.Close()
	}
	good := filepath.Join(dir, "backup0.db")
	if _, _, err := store.Restore(ctx, good, path, ".before"); err == nil || !strings.Contains(err.Error(), "stop it first") {
		t.Errorf("a file that is served is replaced: %v", err)
	}
	last, err := s.Job(ctx, j.ID)
	if err != nil {
		t.Fatal(err)
	}
	if err := s.Close(); err != nil {
		t.Fatal(err)
	}
	b, err := os.ReadFile(good)
	if err != nil {
		t.Fatal(err)
	}
	bad := filepath.Join(dir, "bad.db")
	for n := range 20 { // the first bytes of a page are its tree: none is without meaning
		torn := slices.Clone(b)
		at := (n*len(b)/20/4096)*4096 + 1
		torn[at] ^= 0xff
		if err := os.WriteFile(bad, torn, 0o600); err != nil {
			t.Fatal(err)
		}
		if _, found, err := store.Restore(ctx, bad, path, ".before"); err == nil {
			t.Fatalf("a backup with byte %d flipped is brought back: %+v", at, found)
		}
	}
	was, found, err := store.Restore(ctx, good, path, ".before")
	if err != nil || was != path+".before" || !found.Sound() {
		t.Fatalf("%s, %+v, %v", was, found, err)
	}
	for at, want := range map[string]int{path: found.Revisions, was: last.Revision} {
		k, err := store.Open(ctx, at)
		if err != nil {
			t.Fatal(err)
		}
		if got, err := k.Job(ctx, j.ID); err != nil || got.Revision != want {
			t.Errorf("%s is at revision %d, %v; want %d", at, got.Revision, err, want)
		}
		k.Close()
	}
}
