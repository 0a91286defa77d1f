package main

import (
	"encoding/json"
	"errors"
	"net/http"
	"net/http/httptest"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"deepbay/internal/core/measure"
	"deepbay/internal/core/power"
)

// TestProveCommands takes a machine from the simulated bench to the cure on the command line:
// its files, what the probe reads of them, the comparison, the diagnosis check by check.
func TestProveCommands(t *testing.T) {
	dir := t.TempDir()
	file := jobFile(t, "echo-sounding-tower")
	tree, seen, sheet := filepath.Join(dir, "machine"), filepath.Join(dir, "seen.json"), filepath.Join(dir, "sheet.json")
	status, out, complaint := do(t, "sim", file, "--fault", "plug-off@SATA6", "--tree", tree)
	if status != 0 || !strings.Contains(out, "in the running system") || !strings.Contains(out, "Mudlark 2 TB on SATA6") {
		t.Fatalf("sim: %d %s %s", status, out, complaint)
	}
	if status, out, complaint = do(t, "probe", "--root", tree, "--out", seen); status != 0 || out != "" {
		t.Fatalf("probe: %d %s %s", status, out, complaint)
	}
	if status, out, _ = do(t, "compare", file, seen); status != 1 || !strings.Contains(out, "differs\n  Mudlark 2 TB on SATA6, in the system's list of disks shows not there") {
		t.Errorf("compare: %d %s", status, out)
	}
	if status, out, _ = do(t, "diagnose", file, seen); status != 1 || !strings.Contains(out, "check next") {
		t.Errorf("diagnose: %d %s", status, out)
	}
	status, out, complaint = do(t, "diagnose", file, seen, "--check", "power-plug@SATA6=not-home")
	if status != 1 || !strings.Contains(out, "One explanation is left") || !strings.Contains(out, "the power plug of Mudlark 2 TB on SATA6 is not home") {
		t.Errorf("diagnose with a check: %d %s %s", status, out, complaint)
	}
	var doc struct {
		Leaders []struct {
			Faults []struct{ Fault string }
		}
	}
	_, out, _ = do(t, "diagnose", file, seen, "--json", "--check", "power-plug@SATA6=not-home")
	if err := json.Unmarshal([]byte(out), &doc); err != nil || len(doc.Leaders) != 1 || doc.Leaders[0].Faults[0].Fault != "plug-off@SATA6" {
		t.Errorf("diagnose for programs: %v %s", err, out)
	}
	if status, out, complaint = do(t, "probe", "--root", tree, "--draft", sheet); status != 0 || !strings.Contains(out, "what a probe cannot see") || !strings.Contains(out, "A1: 4GB DDR4") {
		t.Errorf("draft: %d %s %s", status, out, complaint)
	}
	if status, out, complaint = do(t, "sheet", sheet); status != 0 {
		t.Errorf("the drafted sheet: %d %s %s", status, out, complaint)
	}
	for _, c := range []struct {
		args []string
		want string
	}{
		{[]string{"sim", file, "--fault", "bad-luck"}, "--fault bad-luck: that cannot be wrong"},
		{[]string{"sim", file, "--set", "none=1"}, "--set none=1: the machine has no such setting"},
		{[]string{"diagnose", file, seen, "--check", "gaze@A1=same"}, `there is no check "gaze@A1"`},
		{[]string{"compare", file, file}, "format"},
		{[]string{"compare", file, filepath.Join(dir, "none.json")}, "no such file"},
		{[]string{"probe", "--root", filepath.Join(dir, "none")}, "no such file"},
		{[]string{"probe", "--root", dir, "--draft", sheet}, "it tells of no socket"},
	} {
		if status, _, complaint := do(t, c.args...); status != 2 || !strings.Contains(complaint, c.want) {
			t.Errorf("%v: %d %q", c.args, status, complaint)
		}
	}
}

// TestProbeSends sends a reading where it is told to, and says so when it is not taken.
func TestProbeSends(t *testing.T) {
	dir := filepath.Join(t.TempDir(), "machine")
	if status, _, complaint := do(t, "sim", jobFile(t, "echo-sounding-tower"), "--tree", dir); status != 0 {
		t.Fatal(complaint)
	}
	var got power.Observation
	taken := http.StatusNoContent
	s := httptest.NewServer(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if err := json.NewDecoder(r.Body).Decode(&got); err != nil {
			t.Error(err)
		}
		w.WriteHeader(taken)
	}))
	defer s.Close()
	if status, out, complaint := do(t, "probe", "--root", dir, "--send", s.URL); status != 0 || !strings.Contains(out, "sent; drives: 1") || got.Machine == nil {
		t.Errorf("%d %s %s", status, out, complaint)
	}
	taken = http.StatusUnprocessableEntity
	if status, _, complaint := do(t, "probe", "--root", dir, "--send", s.URL); status != 2 || !strings.Contains(complaint, "not taken: 422") {
		t.Errorf("%d %s", status, complaint)
	}
}

// TestWindowsFile compares what a Windows machine's own classes print, in the shell's UTF-16.
func TestWindowsFile(t *testing.T) {
	text := `{"memory":[{"DeviceLocator":"A1","Capacity":4294967296,"FormFactor":8,"SMBIOSMemoryType":26,"ConfiguredClockSpeed":2400,"SerialNumber":"SL4-220871"},{"DeviceLocator":"A2","Capacity":"4294967296","FormFactor":8}],
"disks":{"FriendlyName":"Mudlark 2 TB","SerialNumber":"ML7-0093318 ","Size":2000398934016,"Bus":"SATA","Media":"HDD"},"slots":[],"system":{"Manufacturer":"To be filled by O.E.M.","TotalPhysicalMemory":8500000000}}`
	b := []byte{0xff, 0xfe}
	for _, r := range text {
		b = append(b, byte(r), byte(r>>8))
	}
	file := filepath.Join(t.TempDir(), "told.json")
	if err := os.WriteFile(file, b, 0o666); err != nil {
		t.Fatal(err)
	}
	status, out, complaint := do(t, "compare", jobFile(t, "echo-sounding-tower"), file)
	for _, want := range []string{"Memory total                                 8 GiB", "Mudlark 2 TB on SATA6, in the system's list of disks 2 TB"} {
		if !strings.Contains(out, want) {
			t.Errorf("%d: %q is missing: %s %s", status, want, out, complaint)
		}
	}
}

// TestMeter measures a folder into a table that a job reads, and proves a copy.
func TestMeter(t *testing.T) {
	dir := t.TempDir()
	table, tree, copy := filepath.Join(dir, "runs.csv"), filepath.Join(dir, "tree"), filepath.Join(dir, "copy")
	for _, d := range []string{tree, copy} {
		if err := errors.Join(os.Mkdir(d, 0o755), os.WriteFile(filepath.Join(d, "tides"), []byte("4.2 m"), 0o644)); err != nil {
			t.Fatal(err)
		}
	}
	quick := []string{"measure", tree, "--size", "64MiB", "--runs", "2", "--each", "20ms", "--quiet"}
	if status, out, complaint := do(t, append(quick, "--of", "scratch", "--when", "before", "--out", table)...); status != 0 || out != "" {
		t.Fatalf("%d %s %s", status, out, complaint)
	}
	b, err := os.ReadFile(table)
	if err != nil {
		t.Fatal(err)
	}
	series, err := measure.Read(b)
	if err != nil || len(series) != 3 || series[0].When != measure.Before || series[0].Of != "scratch" || len(series[2].Runs) != 2 {
		t.Errorf("the table reads as %+v, %v", series, err)
	}
	for _, c := range []struct {
		args   []string
		status int
		want   string
	}{
		{append(quick, "--out", table), 2, "file exists"},
		{append(quick, "--when", "later"), 2, "write before or after"},
		{[]string{"measure", tree, "--size", "much"}, 2, "is not a capacity"},
		{[]string{"verify", tree, copy}, 0, "all of it arrived"},
		{[]string{"verify", tree, copy, "--json"}, 0, `"files": 1`},
		{[]string{"verify", tree, tree}, 2, "same folder"},
	} {
		if status, out, complaint := do(t, c.args...); status != c.status || !strings.Contains(out+complaint, c.want) {
			t.Errorf("%v: %d %s%s", c.args, status, out, complaint)
		}
	}
	if err := os.WriteFile(filepath.Join(copy, "tides"), []byte("4.3 m"), 0o644); err != nil {
		t.Fatal(err)
	}
	if status, out, _ := do(t, "verify", tree, copy); status != 1 || !strings.Contains(out, `differs: "tides": differs from byte 2`) || !strings.Contains(out, "keep the source") {
		t.Errorf("%d %s", status, out)
	}
}
