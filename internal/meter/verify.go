// Package meter measures drives and compares trees of files, on the machine where they are. It writes
// to no file but one of its own, which has no name from the moment it is made.
//
//	report, err := meter.Verify(ctx, "/mnt/old", "/mnt/new", nil)
//	report.Same() // every file arrived, byte for byte
package meter

import (
	"bytes"
	"context"
	"crypto/sha256"
	"encoding/hex"
	"errors"
	"fmt"
	"hash"
	"io"
	"io/fs"
	"os"
	"path/filepath"
	"slices"
	"strings"
)

// Difference is one entry that did not arrive as it was.
type Difference struct {
	Path string `json:"path"` // below both trees
	Says string `json:"says"`
}

// Report is what a comparison of two trees came to.
type Report struct {
	Files   int          `json:"files"` // that are the same
	Folders int          `json:"folders"`
	Links   int          `json:"links"`
	Bytes   int64        `json:"bytes"`   // in the files that are the same
	Digest  string       `json:"digest"`  // SHA-256 over the names and sums of all that is the same, in order
	Missing []Difference `json:"missing"` // in the second tree
	Differs []Difference `json:"differs"` // in content, size or kind
	Unread  []Difference `json:"unread"`  // on either side
	Extra   []string     `json:"extra"`   // in the second tree alone: nothing is lost by it
	Special []string     `json:"special"` // pipes, sockets and devices, which hold nothing
	Stopped bool         `json:"stopped"` // before the end: what is left was not compared
}

// Same reports that all of the first tree is in the second, byte for byte.
func (r *Report) Same() bool {
	return !r.Stopped && len(r.Missing)+len(r.Differs)+len(r.Unread) == 0
}

// Seen tells how far a comparison is: the entry at work and how many bytes were read of the first tree.
type Seen func(path string, bytes int64)

// Verify compares the tree at src with the one at dst by reading every byte of both. It follows no
// links below them and writes nothing. The error says why nothing was compared; a context that ends
// stops it, with what was found so far.
func Verify(ctx context.Context, src, dst string, seen Seen) (Report, error) {
	r := Report{Missing: []Difference{}, Differs: []Difference{}, Unread: []Difference{}, Extra: []string{}, Special: []string{}}
	from, err := tree(src)
	if err != nil {
		return r, err
	}
	to, err := tree(dst)
	if err != nil {
		return r, err
	}
	switch {
	case from == to:
		return r, fmt.Errorf("%s and %s are the same folder", src, dst)
	case inside(from, to) || inside(to, from):
		return r, fmt.Errorf("%s and %s lie in one another: name two trees apart", src, dst)
	}
	v := verifier{report: &r, from: from, to: to, seen: seen, all: sha256.New(), buf: [2][]byte{make([]byte, 1<<20), make([]byte, 1<<20)}}
	err = v.walk(ctx)
	if r.Stopped = ctx.Err() != nil; r.Stopped {
		err = nil
	}
	r.Digest = hex.EncodeToString(v.all.Sum(nil))
	return r, err
}

// tree is a folder by its real path.
func tree(path string) (string, error) {
	real, err := filepath.EvalSymlinks(path)
	if err != nil {
		return "", err
	}
	if real, err = filepath.Abs(real); err != nil {
		return "", err
	}
	s, err := os.Stat(real)
	if err != nil {
		return "", err
	}
	if !s.IsDir() {
		return "", fmt.Errorf("%s is no folder", path)
	}
	return real, nil
}

// inside reports that a path lies in another.
func inside(path, in string) bool {
	rel, err := filepath.Rel(in, path)
	return err == nil && rel != ".." && !strings.HasPrefix(rel, ".."+string(filepath.Separator))
}

type verifier struct {
	report   *Report
	from, to string
	seen     Seen
	all      hash.Hash
	buf      [2][]byte
	read     int64
}

func (v *verifier) walk(ctx context.Context) error {
	err := filepath.WalkDir(v.from, func(path string, d fs.DirEntry, err error) error {
		if ctx.Err() != nil {
			return fs.SkipAll
		}
		rel, _ := filepath.Rel(v.from, path)
		if err != nil {
			v.report.Unread = append(v.report.Unread, Difference{rel, reason(err)})
			if d != nil && d.IsDir() {
				return fs.SkipDir
			}
			return nil
		}
		if rel == "." {
			return nil
		}
		if v.seen != nil {
			v.seen(rel, v.read)
		}
		return v.entry(ctx, rel, d)
	})
	if err != nil || ctx.Err() != nil {
		return err
	}
	err = filepath.WalkDir(v.to, func(path string, d fs.DirEntry, err error) error { // what is there besides
		rel, _ := filepath.Rel(v.to, path)
		switch {
		case ctx.Err() != nil:
			return fs.SkipAll
		case err != nil:
			v.report.Unread = append(v.report.Unread, Difference{rel, "in the second tree: " + reason(err)})
			if d != nil && d.IsDir() {
				return fs.SkipDir
			}
			return nil
		case rel == ".":
			return nil
		}
		if _, err := os.Lstat(filepath.Join(v.from, rel)); errors.Is(err, fs.ErrNotExist) {
			v.report.Extra = append(v.report.Extra, rel)
			if d.IsDir() {
				return fs.SkipDir
			}
		}
		return nil
	})
	slices.Sort(v.report.Extra)
	return err
}

// entry compares one entry of the first tree with the one of its name in the second.
func (v *verifier) entry(ctx context.Context, rel string, d fs.DirEntry) error {
	r := v.report
	there, err := os.Lstat(filepath.Join(v.to, rel))
	switch {
	case d.Type()&^(fs.ModeDir|fs.ModeSymlink) != 0:
		r.Special = append(r.Special, rel)
		return nil
	case errors.Is(err, fs.ErrNotExist):
		r.Missing = append(r.Missing, Difference{rel, kind(d.Type()) + " is missing"})
		if d.IsDir() {
			return fs.SkipDir
		}
		return nil
	case err != nil:
		r.Unread = append(r.Unread, Difference{rel, "in the second tree: " + reason(err)})
		return nil
	case there.Mode().Type() != d.Type():
		r.Differs = append(r.Differs, Difference{rel, "is a " + kind(d.Type()) + ", and there a " + kind(there.Mode().Type())})
		if d.IsDir() {
			return fs.SkipDir
		}
		return nil
	case d.IsDir():
		r.Folders++
		return nil
	case d.Type()&fs.ModeSymlink != 0:
		v.link(rel)
		return nil
	}
	v.file(ctx, rel, there.Size())
	return nil
}

func (v *verifier) link(rel string) {
	a, err := os.Readlink(filepath.Join(v.from, rel))
	b, other := os.Readlink(filepath.Join(v.to, rel))
	switch err := errors.Join(err, other); {
	case err != nil:
		v.report.Unread = append(v.report.Unread, Difference{rel, reason(err)})
	case a != b:
		v.report.Differs = append(v.report.Differs, Difference{rel, fmt.Sprintf("points to %q, and there to %q", a, b)})
	default:
		v.report.Links++
		fmt.Fprintf(v.all, "link %q %q\n", filepath.ToSlash(rel), a)
	}
}

// file compares two files byte for byte.
func (v *verifier) file(ctx context.Context, rel string, size int64) {
	a, err := os.Open(filepath.Join(v.from, rel))
	if err != nil {
		v.report.Unread = append(v.report.Unread, Difference{rel, reason(err)})
		return
	}
	defer a.Close()
	b, err := os.Open(filepath.Join(v.to, rel))
	if err != nil {
		v.report.Unread = append(v.report.Unread, Difference{rel, "in the second tree: " + reason(err)})
		return
	}
	defer b.Close()
	if s, err := a.Stat(); err == nil && s.Size() != size {
		v.read += s.Size()
		v.report.Differs = append(v.report.Differs, Difference{rel, fmt.Sprintf("has %d bytes, and there %d", s.Size(), size)})
		return
	}
	sum, at := sha256.New(), int64(0)
	for ctx.Err() == nil {
		n, err := io.ReadFull(a, v.buf[0])
		m, other := io.ReadFull(b, v.buf[1])
		sum.Write(v.buf[0][:n])
		v.read += int64(n)
		end := func(err error) bool { return errors.Is(err, io.EOF) || errors.Is(err, io.ErrUnexpectedEOF) }
		switch {
		case err != nil && !end(err):
			v.report.Unread = append(v.report.Unread, Difference{rel, fmt.Sprintf("from byte %d: %s", at+int64(n), reason(err))})
			return
		case other != nil && !end(other):
			v.report.Unread = append(v.report.Unread, Difference{rel, fmt.Sprintf("in the second tree, from byte %d: %s", at+int64(m), reason(other))})
			return
		case !bytes.Equal(v.buf[0][:n], v.buf[1][:m]):
			first := int64(0)
			for first < int64(min(n, m)) && v.buf[0][first] == v.buf[1][first] {
				first++
			}
			v.report.Differs = append(v.report.Differs, Difference{rel, fmt.Sprintf("differs from byte %d", at+first)})
			return
		}
		if at += int64(n); err != nil {
			v.report.Files++
			v.report.Bytes += at
			fmt.Fprintf(v.all, "file %q %x\n", filepath.ToSlash(rel), sum.Sum(nil))
			return
		}
		if v.seen != nil {
			v.seen(rel, v.read)
		}
	}
}

func kind(m fs.FileMode) string {
	switch {
	case m.IsDir():
		return "folder"
	case m&fs.ModeSymlink != 0:
		return "link"
	case m.IsRegular():
		return "file"
	}
	return "special file"
}

// reason is an error without the path, which stands beside it.
func reason(err error) string {
	if p := new(fs.PathError); errors.As(err, &p) {
		return p.Err.Error()
	}
	return err.Error()
}
