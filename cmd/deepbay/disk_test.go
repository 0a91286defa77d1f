package main

import (
	"errors"
	"flag"
	"math/rand"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"sync"
	"syscall"
	"testing"
	"time"
)

// troubles is how often the disk fails, each way; make soak asks for more.
var troubles = flag.Int("troubles", 1, "rounds of TestKillOnBadDisk, of each kind")

// disk is a small file system of its own, in a file.
type disk struct {
	t            *testing.T
	image, mount string
}

// newDisk skips the test where nobody may mount one of so many MiB.
func newDisk(t *testing.T, size int64) *disk {
	t.Helper()
	dir := t.TempDir()
	d := &disk{t, filepath.Join(dir, "disk.img"), filepath.Join(dir, "disk")}
	f, err := os.Create(d.image)
	if err == nil {
		err = errors.Join(f.Truncate(size<<20), f.Close(), os.Mkdir(d.mount, 0o700))
	}
	if err != nil {
		t.Fatal(err)
	}
	// Without a journal: where ext4 gives up one, it lets an fsync of that moment succeed that
	// did not (31 of 300 times for a bare loop of write and fsync), and a disk that lies so is
	// not what is tried here.
	if out, err := exec.CommandContext(t.Context(), "mkfs.ext4", "-q", "-O", "^has_journal", d.image).CombinedOutput(); err != nil {
		t.Skipf("no file system can be made here: %v %s", err, out)
	}
	if out, err := d.on(); err != nil {
		t.Skipf("no disk can be mounted here: %v %s", err, out)
	}
	t.Cleanup(func() { d.off() }) //nolint:errcheck // it is over
	return d
}

func (d *disk) on() ([]byte, error) {
	return exec.Command("mount", "-o", "loop,errors=remount-ro", d.image, d.mount).CombinedOutput() //nolint:noctx // it outlives the test's context
}

func (d *disk) off() ([]byte, error) {
	return exec.Command("umount", d.mount).CombinedOutput() //nolint:noctx // it outlives the test's context
}

func (d *disk) must(out []byte, err error) {
	d.t.Helper()
	if err != nil {
		d.t.Fatalf("%v: %s", err, out)
	}
}

// fill takes all the room there is, and drain gives it back.
func (d *disk) fill() {
	f, err := os.Create(filepath.Join(d.mount, "ballast"))
	if err != nil {
		d.t.Fatal(err)
	}
	defer f.Close()
	for _, size := range []int{1 << 20, 4 << 10} {
		for err = nil; err == nil; {
			_, err = f.Write(make([]byte, size))
		}
		if !errors.Is(err, syscall.ENOSPC) {
			d.t.Fatal(err)
		}
	}
}

func (d *disk) drain() {
	if err := os.Remove(filepath.Join(d.mount, "ballast")); err != nil {
		d.t.Fatal(err)
	}
}

// fail makes the file system find a fault of its own, upon which it is read-only.
func (d *disk) fail() {
	out, err := exec.CommandContext(d.t.Context(), "findmnt", "-n", "-o", "SOURCE", d.mount).CombinedOutput()
	d.must(out, err)
	name := filepath.Base(strings.TrimSpace(string(out)))
	if err := os.WriteFile(filepath.Join("/sys/fs/ext4", name, "trigger_fs_error"), []byte("tried"), 0o200); err != nil {
		d.t.Skipf("the disk cannot be made to fail here: %v", err)
	}
}

// repair checks the file system and mounts it anew.
func (d *disk) repair() {
	d.must(d.off())
	out, err := exec.CommandContext(d.t.Context(), "e2fsck", "-fy", d.image).CombinedOutput()
	var exit *exec.ExitError
	if errors.As(err, &exit) && exit.ExitCode() == 1 { // faults were mended
		err = nil
	}
	d.must(out, err)
	d.must(d.on())
}

// A program that finds no room to start in says so, and what to do; with room it starts.
func TestStartOnFullDisk(t *testing.T) {
	d := newDisk(t, 32)
	data := filepath.Join(d.mount, "shop.db")
	filledFor(t, data, 1)
	p := started(t, data)
	d.fill()
	if err := p.cmd.Process.Kill(); err != nil {
		t.Fatal(err)
	}
	p.cmd.Wait()                                   //nolint:errcheck // it was killed
	for _, end := range []string{"-shm", "-wal"} { // which a full disk has no room for
		if err := os.Remove(data + end); err != nil {
			t.Fatal(err)
		}
	}
	d.fill()
	cmd := exec.CommandContext(t.Context(), os.Args[0])
	cmd.Env = append(os.Environ(), "DEEPBAY_RUN=serve --listen 127.0.0.1:0 --data "+data)
	out, err := cmd.CombinedOutput()
	if err == nil || !strings.Contains(string(out), "shop.db cannot be used: the disk of the data file is full") || !strings.Contains(string(out), "make room on it; nothing was changed") {
		t.Errorf("%v: %s", err, out)
	}
	d.drain()
	p = started(t, data)
	p.cmd.Process.Kill() //nolint:errcheck // it is over
	p.cmd.Wait()         //nolint:errcheck
}

// TestKillOnBadDisk lets the disk get full, and then become read-only, while every kind of
// thing is written, and kills the server there: nothing that was answered is lost, nothing is
// there twice, what could not be kept was refused as that, and with the disk mended all goes
// on.
func TestKillOnBadDisk(t *testing.T) {
	for _, trouble := range []struct {
		name         string
		begins, ends func(*disk)
	}{
		{"full", (*disk).fill, (*disk).drain},
		{"read-only", (*disk).fail, (*disk).repair},
	} {
		t.Run(trouble.name, func(t *testing.T) {
			d := newDisk(t, 96+int64(*troubles)) // a round keeps half a MiB at most
			data := filepath.Join(d.mount, "shop.db")
			writers := filledFor(t, data, 4)
			rng := rand.New(rand.NewSource(int64(*troubles)))
			answered, refused := 0, 0
			for round := range *troubles {
				p := started(t, data)
				var all sync.WaitGroup
				counts := make([]int, len(writers))
				written := make(chan struct{}, 1)
				for i := range writers {
					all.Go(func() {
						counts[i] = writers[i].work(p.base, func() {
							select {
							case written <- struct{}{}:
							default:
							}
						})
					})
				}
				select { // trouble that comes before anything was written tries nothing; machines are slow at times
				case <-written:
				case <-time.After(10 * time.Second):
				}
				time.Sleep(time.Duration(rng.Intn(300)) * time.Millisecond)
				trouble.begins(d)
				time.Sleep(time.Duration(rng.Intn(600)) * time.Millisecond)
				if err := p.cmd.Process.Kill(); err != nil {
					t.Fatal(err)
				}
				all.Wait()
				p.cmd.Wait() //nolint:errcheck // it was killed
				for i := range writers {
					answered += counts[i]
					if writers[i].fault != nil {
						t.Fatalf("round %d: %v", round, writers[i].fault)
					}
				}
				trouble.ends(d)
			}
			found := settled(t, data, writers)
			for i := range writers {
				refused += writers[i].refused
			}
			t.Logf("%d times: %d changes answered, %d refused; %d revisions, all sound", *troubles, answered, refused, found.Revisions)
			if answered == 0 || refused == 0 && *troubles > 3 {
				t.Error("nothing was tried")
			}
		})
	}
}
