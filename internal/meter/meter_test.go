package meter

import (
	"context"
	"errors"
	"fmt"
	"io/fs"
	"math/rand"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"syscall"
	"testing"
	"time"

	"deepbay/internal/core/measure"
	"deepbay/internal/core/quantity"
)

// write makes a file with its folders.
func write(t *testing.T, path string, content []byte) {
	t.Helper()
	if err := errors.Join(os.MkdirAll(filepath.Dir(path), 0o755), os.WriteFile(path, content, 0o644)); err != nil {
		t.Fatal(err)
	}
}

// snapshot is everything below a folder, with times, so that anything touched shows.
func snapshot(t *testing.T, root string) string {
	t.Helper()
	var out strings.Builder
	err := filepath.WalkDir(root, func(path string, d fs.DirEntry, err error) error {
		if err != nil || path == root {
			return err
		}
		s, err := os.Lstat(path)
		if err != nil {
			return err
		}
		fmt.Fprintf(&out, "%q %v %d %v\n", path, s.Mode(), s.Size(), s.ModTime())
		return nil
	})
	if err != nil {
		t.Fatal(err)
	}
	return out.String()
}

// odd is names that file systems allow and programs trip over.
var odd = []string{"plain", "with space", "ends. ", "-rf", "new\nline", "tab\t", "quote\"'", "back\\slash", "ümlaut", "\xff\xfe not utf-8", "日本", strings.Repeat("long", 60), "a*b?", ".hidden", "%s%d"}

// planted is a tree with odd names, links that lead anywhere, a pipe, and files about the size of what is
// read at once.
func planted(t *testing.T, rng *rand.Rand) string {
	t.Helper()
	root := t.TempDir()
	for i, name := range odd {
		content := make([]byte, []int{0, 1, 4096, 1 << 20, 1<<20 + 1, 3<<20 - 1}[i%6])
		rng.Read(content)
		write(t, filepath.Join(root, fmt.Sprint("d", i%3), name), content)
	}
	for name, to := range map[string]string{"gone": "/no/such/place", "round": ".", "up": "../../..", "file": "d0/plain"} {
		if err := os.Symlink(to, filepath.Join(root, name)); err != nil {
			t.Fatal(err)
		}
	}
	if err := syscall.Mkfifo(filepath.Join(root, "pipe"), 0o644); err != nil {
		t.Fatal(err)
	}
	return root
}

// copied is a copy of a tree, links as links.
func copied(t *testing.T, from string) string {
	t.Helper()
	to := t.TempDir()
	if out, err := exec.Command("cp", "-a", from+"/.", to).CombinedOutput(); err != nil {
		t.Fatalf("%v: %s", err, out)
	}
	return to
}

// TestVerify: a copy is whole; a copy in which anything was changed is not, and the place is named;
// neither tree is touched.
func TestVerify(t *testing.T) {
	rng := rand.New(rand.NewSource(1))
	from := planted(t, rng)
	whole := copied(t, from)
	before := snapshot(t, from) + snapshot(t, whole)
	r, err := Verify(t.Context(), from, whole, nil)
	if err != nil || !r.Same() || r.Files != len(odd) || r.Links != 4 || len(r.Special) != 1 || len(r.Extra) != 0 {
		t.Fatalf("a copy: %v %+v", err, r)
	}
	again, _ := Verify(t.Context(), from, whole, nil)
	if snapshot(t, from)+snapshot(t, whole) != before || again.Digest != r.Digest || len(r.Digest) != 64 {
		t.Error("a comparison touched a tree, or is another each time")
	}
	file := filepath.Join("d1", odd[4]) // of 1 MiB and a byte
	for name, c := range map[string]struct {
		does func(root string) error
		want string
	}{
		"last byte": {func(root string) error {
			f, err := os.OpenFile(filepath.Join(root, file), os.O_RDWR, 0)
			if err != nil {
				return err
			}
			defer f.Close()
			b := make([]byte, 1)
			f.ReadAt(b, 1<<20)
			_, err = f.WriteAt([]byte{^b[0]}, 1<<20)
			return err
		}, "differs from byte 1048576"},
		"shorter": {func(root string) error { return os.Truncate(filepath.Join(root, file), 5) }, "1048577 bytes, and there 5"},
		"missing": {func(root string) error { return os.Remove(filepath.Join(root, file)) }, "file is missing"},
		"folder":  {func(root string) error { return os.RemoveAll(filepath.Join(root, "d1")) }, "folder is missing"},
		"kind": {func(root string) error {
			return errors.Join(os.Remove(filepath.Join(root, file)), os.Symlink("x", filepath.Join(root, file)))
		}, "is a file, and there a link"},
		"link": {func(root string) error {
			return errors.Join(os.Remove(filepath.Join(root, "file")), os.Symlink("d0/other", filepath.Join(root, "file")))
		}, `there to "d0/other"`},
	} {
		to := copied(t, from)
		if err := c.does(to); err != nil {
			t.Fatal(err)
		}
		r, err := Verify(t.Context(), from, to, nil)
		if err != nil || r.Same() || !strings.Contains(fmt.Sprint(r.Missing, r.Differs), c.want) {
			t.Errorf("%s: %v, same %v, %v %v", name, err, r.Same(), r.Missing, r.Differs)
		}
	}
	to := copied(t, from)
	write(t, filepath.Join(to, "more", "of it"), nil)
	if r, err := Verify(t.Context(), from, to, nil); err != nil || !r.Same() || fmt.Sprint(r.Extra) != "[more]" {
		t.Errorf("more in the copy: %v %+v", err, r)
	}
	stopped, stop := context.WithCancel(t.Context())
	if r, err := Verify(stopped, from, to, func(string, int64) { stop() }); err != nil || !r.Stopped || r.Same() {
		t.Errorf("stopped: %v %+v", err, r)
	}
	link := filepath.Join(t.TempDir(), "link")
	if err := os.Symlink(from, link); err != nil {
		t.Fatal(err)
	}
	for _, c := range [][3]string{{from, from, "same folder"}, {from, link, "same folder"}, {from, filepath.Join(from, "d1"), "lie in one another"}, {from, filepath.Join(from, "nowhere"), "no such file"}, {filepath.Join(from, "d0", "plain"), to, "is no folder"}} {
		if _, err := Verify(t.Context(), c[0], c[1], nil); err == nil || !strings.Contains(err.Error(), c[2]) {
			t.Errorf("%s with %s: %v", c[0], c[1], err)
		}
	}
}

var little = Plan{Bytes: LeastBytes, Runs: 2, Each: 50 * time.Millisecond, Writing: true}

// TestMeasure measures beside files that must not be touched, and leaves nothing behind: at its end,
// stopped at any run, and where there is no room.
func TestMeasure(t *testing.T) {
	root := t.TempDir()
	write(t, filepath.Join(root, "kept"), []byte("tide tables"))
	link := filepath.Join(t.TempDir(), "link")
	if err := os.Symlink(root, link); err != nil {
		t.Fatal(err)
	}
	before := snapshot(t, root)
	series, err := Measure(t.Context(), link, little, nil)
	if err != nil || len(series) != 4 {
		t.Fatalf("%v %+v", err, series)
	}
	for _, s := range series {
		s.ID = 1
		if len(s.Runs) != little.Runs || len(s.Check()) > 0 {
			t.Errorf("%+v: %v", s, s.Check())
		}
	}
	for at := range 8 { // stopped at every step
		ctx, stop := context.WithCancel(t.Context())
		n := 0
		_, err := Measure(ctx, root, little, func(measure.What, int, int) {
			if n++; n > at {
				stop()
			}
		})
		if !errors.Is(err, context.Canceled) {
			t.Errorf("stopped at step %d: %v", at, err)
		}
		stop()
	}
	for name, c := range map[string]struct {
		at   string
		plan Plan
		want string
	}{
		"no room":   {root, Plan{Bytes: MostBytes, Runs: 1}, "give a smaller --size"},
		"too small": {root, Plan{Bytes: quantity.MiB, Runs: 1}, "measures nothing here"},
		"no runs":   {root, Plan{Bytes: LeastBytes}, "0 runs"},
		"a file":    {filepath.Join(root, "kept"), little, "is no folder"},
		"nowhere":   {filepath.Join(root, "nowhere"), little, "no such file"},
		"read-only": {"/proc/self", little, ""},
	} {
		if free, err := room(root); name == "no room" && (err != nil || free > MostBytes) {
			continue
		}
		if _, err := Measure(t.Context(), c.at, c.plan, nil); err == nil || !strings.Contains(err.Error(), c.want) {
			t.Errorf("%s: %v", name, err)
		}
	}
	if after := snapshot(t, root); after != before {
		t.Errorf("it left or touched something:\n%s\nwas:\n%s", after, before)
	}
}

// TestNameless: the file that is measured with has no name from the moment it is made.
func TestNameless(t *testing.T) {
	dir := t.TempDir()
	f, _, err := nameless(dir)
	if err != nil {
		t.Fatal(err)
	}
	defer f.Close()
	if left, err := os.ReadDir(dir); err != nil || len(left) > 0 {
		t.Errorf("%v %v", left, err)
	}
}
