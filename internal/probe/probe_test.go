package probe_test

import (
	"bytes"
	"encoding/hex"
	"fmt"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"deepbay/internal/core/draft"
	"deepbay/internal/core/power"
	"deepbay/internal/format"
	"deepbay/internal/probe"
)

var head = regexp.MustCompile(`(?m)^-- (.*) --$`)

// plant makes the tree of files that an archive in testdata holds. "name -> to" is a link, and
// what ends with .hex is bytes.
func plant(t testing.TB, archive string) string {
	t.Helper()
	raw, err := os.ReadFile(archive)
	if err != nil {
		t.Fatal(err)
	}
	dir := t.TempDir()
	at := head.FindAllSubmatchIndex(raw, -1)
	for i, m := range at {
		end := len(raw)
		if i+1 < len(at) {
			end = at[i+1][0]
		}
		name, text := string(raw[m[2]:m[3]]), strings.TrimPrefix(string(raw[m[1]:end]), "\n")
		name, to, link := strings.Cut(name, " -> ")
		file := filepath.Join(dir, filepath.FromSlash(strings.TrimSuffix(name, ".hex")))
		if err := os.MkdirAll(filepath.Dir(file), 0o777); err != nil {
			t.Fatal(err)
		}
		switch {
		case link:
			err = os.Symlink(filepath.FromSlash(to), file)
		case strings.HasSuffix(name, ".hex"):
			var b []byte
			if b, err = hex.DecodeString(strings.TrimSpace(text)); err == nil {
				err = os.WriteFile(file, b, 0o666)
			}
		default:
			err = os.WriteFile(file, []byte(text), 0o666)
		}
		if err != nil {
			t.Fatal(err)
		}
	}
	return dir
}

// told is an inventory in a few lines.
func told(m *power.Inventory) string {
	var b strings.Builder
	line := func(s string, args ...any) { fmt.Fprintf(&b, s+"\n", args...) }
	line("%s|%s|%s|%s|%s|%s|%s uefi=%v virtual=%v", m.Maker, m.Product, m.Serial, m.Board, m.Chassis, m.Processor, m.Firmware, m.UEFI, m.Virtual)
	line("memory %v usable, %v most, %d slots, ecc=%v watched=%v", m.Memory.Usable.Binary(), m.Memory.Most.Binary(), m.Memory.Slots, m.Memory.ECC, m.Memory.Watched)
	for _, x := range m.Memory.Modules {
		if x.Empty {
			line("  %s empty", x.Locator)
			continue
		}
		line("  %s %s %v %s %s %d now %d ranks=%d ecc=%v reg=%v %s/%s", x.Locator, x.Bank, x.Bytes.Binary(), x.Form, x.Generation, x.Rate, x.Configured, x.Ranks, x.ECC, x.Registered, x.Number, x.Serial)
	}
	for _, x := range m.Slots {
		line("slot %s m2=%v%s gen%d x%d long %d use=%v %s", x.Name, x.M2, x.Key, x.Gen, x.Lanes, x.Long, x.InUse, x.Address)
	}
	for _, x := range m.Devices {
		line("%s under %s depth %d %s gen%d x%d of gen%d x%d, port gen%d x%d, %d errors", x.Address, x.Parent, x.Depth, x.Class, x.Gen, x.Lanes, x.MostGen, x.MostLanes, x.PortGen, x.PortLanes, x.Errors)
	}
	for _, x := range m.Drives {
		line("%s %s %s %s %v turns=%v blank=%v at %s port %d gen%d x%d %d Mb/s %v errors %d", x.Name, x.Bus, x.Model, x.Serial, x.Bytes.Label(), x.Turns, x.Blank, x.Address, x.Port, x.Gen, x.Lanes, x.Mbps, x.Celsius, x.Errors)
	}
	for _, x := range m.Ports {
		line("port %s/%d gen%d", x.Controller, x.Port, x.Gen)
	}
	for _, x := range m.Missed {
		line("missed %s: %s", x.What, x.Why)
	}
	return b.String()
}

// listed is every file under a folder, with its size, mode and when it was written.
func listed(t *testing.T, dir string) string {
	t.Helper()
	var b strings.Builder
	err := filepath.Walk(dir, func(p string, i os.FileInfo, err error) error {
		if err == nil {
			fmt.Fprintln(&b, p, i.Size(), i.Mode(), i.ModTime())
		}
		return err
	})
	if err != nil {
		t.Fatal(err)
	}
	return b.String()
}

// draftable is the trees of machines that tell enough for a sheet.
var draftable = map[string]bool{"mini-pc.tree": true, "tower.tree": true, "workstation.tree": true, "remapped.tree": true, "old-desktop.tree": true}

// TestMachines reads the trees of made-up machines: what is told of each is held to the letter,
// and its observation passes its own format.
func TestMachines(t *testing.T) {
	trees, err := filepath.Glob("testdata/*.tree")
	if err != nil || len(trees) < 8 {
		t.Fatal(trees, err)
	}
	for _, tree := range trees {
		t.Run(strings.TrimSuffix(filepath.Base(tree), ".tree"), func(t *testing.T) {
			dir := plant(t, tree)
			before := listed(t, dir)
			got, err := probe.Read(dir)
			if err != nil {
				t.Fatal(err)
			}
			if after := listed(t, dir); after != before {
				t.Errorf("it wrote: before\n%s\nafter\n%s", before, after)
			}
			b, err := format.Write(got)
			if err != nil {
				t.Fatal(err)
			}
			if _, err := format.Observation(b); err != nil {
				t.Error(err)
			}
			if d, err := draft.Of(got.Machine); err == nil {
				b, err := format.Write(d.Sheet)
				if err != nil {
					t.Fatal(err)
				}
				if _, err := format.Sheet(b); err != nil {
					t.Errorf("its drafted sheet: %v", err)
				}
				if len(d.Asks) == 0 {
					t.Error("its drafted sheet asks for nothing")
				}
			} else if draftable[filepath.Base(tree)] {
				t.Errorf("no sheet is drafted of it: %v", err)
			}
			golden := strings.TrimSuffix(tree, ".tree") + ".told"
			want, err := os.ReadFile(golden)
			if err != nil && os.Getenv("DEEPBAY_GOLDEN") != "" {
				want = []byte(told(got.Machine))
				err = os.WriteFile(golden, want, 0o666)
			}
			if err != nil {
				t.Fatal(err)
			}
			if s := told(got.Machine); s != string(want) {
				t.Errorf("told\n%s\nwant\n%s", s, want)
			}
		})
	}
}

// TestThisMachine reads the machine that the test runs on, and the answer passes its format.
func TestThisMachine(t *testing.T) {
	got, err := probe.Read("/")
	if err != nil {
		t.Fatal(err)
	}
	b, err := format.Write(got)
	if err != nil {
		t.Fatal(err)
	}
	if _, err := format.Observation(b); err != nil {
		t.Error(err)
	}
	if got.Machine.Memory.Usable == 0 {
		t.Errorf("no memory is told of this machine: %+v", got.Machine.Missed)
	}
	if _, err := probe.Read(filepath.Join(t.TempDir(), "nowhere")); err == nil {
		t.Error("a folder that is not there is read")
	}
}

// TestHostile puts what does harm into every file of a machine, one after the other: a pipe, a
// link that leads out, a folder, nothing, a megabyte, half of it, other bytes. Nothing fails,
// nothing of outside is told, and the answer passes its format.
func TestHostile(t *testing.T) {
	secret := filepath.Join(t.TempDir(), "secret")
	if err := os.WriteFile(secret, []byte("salt-cellar"), 0o666); err != nil {
		t.Fatal(err)
	}
	for _, tree := range []string{"testdata/tower.tree", "testdata/workstation.tree"} {
		dir := plant(t, tree)
		var files []string
		err := filepath.Walk(dir, func(p string, i os.FileInfo, err error) error {
			if err == nil && i.Mode().IsRegular() {
				files = append(files, p)
			}
			return err
		})
		if err != nil {
			t.Fatal(err)
		}
		for n, f := range files {
			was, err := os.ReadFile(f)
			if err != nil {
				t.Fatal(err)
			}
			must := func(err error) {
				t.Helper()
				if err != nil {
					t.Fatal(err)
				}
			}
			must(os.Remove(f))
			switch n % 7 {
			case 0:
				must(os.Symlink(secret, f))
			case 1:
				must(os.Mkdir(f, 0o777))
			case 2:
				must(os.WriteFile(f, nil, 0o666))
			case 3:
				must(os.WriteFile(f, bytes.Repeat([]byte("7"), 1<<20+2), 0o666))
			case 4:
				must(os.WriteFile(f, was[:len(was)/2], 0o666))
			case 5:
				must(os.WriteFile(f, bytes.Map(func(r rune) rune { return r ^ 0x55 }, was), 0o666))
			case 6:
				must(pipe(f))
			}
			got, err := probe.Read(dir)
			if err != nil {
				t.Fatalf("%s: %v", f, err)
			}
			b, err := format.Write(got)
			if err != nil {
				t.Fatal(err)
			}
			if _, err := format.Observation(b); err != nil {
				t.Errorf("%s: %v", f, err)
			}
			if bytes.Contains(b, []byte("salt-cellar")) {
				t.Errorf("%s: what lies outside is told", f)
			}
			must(os.RemoveAll(f))
			must(os.WriteFile(f, was, 0o666))
		}
	}
}

// FuzzTables reads firmware's tables that were damaged in any way.
func FuzzTables(f *testing.F) {
	for _, tree := range []string{"testdata/tower.tree", "testdata/workstation.tree", "testdata/old-desktop.tree"} {
		b, err := os.ReadFile(filepath.Join(plant(f, tree), "sys/firmware/dmi/tables/DMI"))
		if err != nil {
			f.Fatal(err)
		}
		f.Add(b)
		f.Add(b[:len(b)/2])
	}
	f.Fuzz(func(t *testing.T, b []byte) {
		m, _ := probe.Tables(b)
		doc, err := format.Write(power.Observation{Format: power.Format, Version: power.Version, Readings: []power.Reading{}, Machine: &m})
		if err != nil {
			t.Fatal(err)
		}
		if _, err := format.Observation(doc); err != nil {
			t.Error(err)
		}
	})
}

// FuzzTree puts any bytes into any file of a machine.
func FuzzTree(f *testing.F) {
	dir := plant(f, "testdata/tower.tree")
	var files []string
	err := filepath.Walk(dir, func(p string, i os.FileInfo, err error) error {
		if err == nil && i.Mode().IsRegular() {
			files = append(files, p)
		}
		return err
	})
	if err != nil {
		f.Fatal(err)
	}
	f.Add(uint16(0), []byte("16.0 GT/s PCIe"))
	f.Add(uint16(9), []byte("-1"))
	f.Add(uint16(20), []byte("\x00\x80\xff\xff99999999999999999999"))
	f.Fuzz(func(t *testing.T, n uint16, b []byte) {
		at := files[int(n)%len(files)]
		was, err := os.ReadFile(at)
		if err != nil {
			t.Fatal(err)
		}
		defer os.WriteFile(at, was, 0o666)
		if err := os.WriteFile(at, b, 0o666); err != nil {
			t.Fatal(err)
		}
		got, err := probe.Read(dir)
		if err != nil {
			t.Fatal(err)
		}
		fits(t, got)
		if d, err := draft.Of(got.Machine); err == nil {
			doc, err := format.Write(d.Sheet)
			if err != nil {
				t.Fatal(err)
			}
			if _, err := format.Sheet(doc); err != nil {
				t.Errorf("its drafted sheet: %v", err)
			}
		}
	})
}

// FuzzWindows reads anything as what a Windows machine told.
func FuzzWindows(f *testing.F) {
	f.Add([]byte(`{"memory":[{"DeviceLocator":"A1","Capacity":"17179869184","FormFactor":8}],"disks":{"Size":500107862016,"Bus":"NVMe"}}`))
	f.Add([]byte("\xff\xfe{\x00}\x00"))
	f.Fuzz(func(t *testing.T, b []byte) {
		if got, err := probe.Windows(b); err == nil {
			fits(t, got)
		}
	})
}

// fits holds an observation to its own format.
func fits(t *testing.T, o power.Observation) {
	t.Helper()
	doc, err := format.Write(o)
	if err != nil {
		t.Fatal(err)
	}
	if _, err := format.Observation(doc); err != nil {
		t.Error(err)
	}
}
