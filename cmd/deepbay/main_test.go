package main

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"
	"time"

	"github.com/santhosh-tekuri/jsonschema/v6"

	"deepbay/demo"
	"deepbay/docs/schema"
	"deepbay/internal/core/job"
	"deepbay/internal/core/say"
	"deepbay/internal/format"
)

// do runs a command line and returns status, output and complaint.
func do(t *testing.T, args ...string) (int, string, string) {
	t.Helper()
	var out, complaint bytes.Buffer
	status := run(t.Context(), args, &out, &complaint)
	return status, out.String(), complaint.String()
}

// jobFile writes a demo job, changed, into a folder of the test's.
func jobFile(t *testing.T, name string, pairs ...string) string {
	t.Helper()
	b, err := demo.Files.ReadFile("jobs/" + name + ".job.json")
	if err != nil {
		t.Fatal(err)
	}
	text := strings.NewReplacer(pairs...).Replace(string(b))
	if len(pairs) > 0 && text == string(b) {
		t.Fatal("nothing was replaced")
	}
	path := filepath.Join(t.TempDir(), "job.json")
	if err := os.WriteFile(path, []byte(text), 0o644); err != nil {
		t.Fatal(err)
	}
	return path
}

// inLower puts the new drive of the tower's plan into the lower socket.
var inLower = []string{`"planned": {
    "placements": [`, `"planned": {
    "placements": [
      {
        "item": "item-4",
        "socket": "M2_2"
      },`}

func TestCommands(t *testing.T) {
	sheet := filepath.Join("..", "..", "demo", "sheets", "dunlin-s3.sheet.json")
	good, stopping := jobFile(t, "echo-sounding-tower"), jobFile(t, "echo-sounding-tower", inLower...)
	ahead := jobFile(t, "echo-sounding-tower", `"seen": []`, `"stage": "now", "later": [{"name": "then", "planned": {"placements": [], "settings": []}}], "seen": []`)
	for _, c := range []struct {
		name   string
		args   []string
		status int
		out    []string // in the output
		err    []string // in the complaint
	}{
		{"check", []string{"check", good}, 0, []string{"Echo-sounding tower (Harrier T4 tower)", "SATA6  live  Mudlark 2 TB  SATA 6 Gb/s, 600 MB/s",
			"memory  8 GiB, 2400 MT/s, single channel, peak 19.20 GB/s", "warns  A1 and A2 use 1 of the 2 channels  [memory-channels]", "cure     put them into A2 and B2", "no stop, 3 warnings"}, nil},
		{"check that stops", []string{"check", stopping}, 1, []string{"M2_2   live  Ternlight 500  Gen 3 x4, 3.94 GB/s", "SATA6  off   Mudlark 2 TB   off, not seen",
			"stops  Mudlark 2 TB is not seen on SATA6: the socket is off  [socket-off]", "because  when M2_2 holds anything, SATA5 is off and SATA6 is off (manual p. 18, note 2) (sheet)"}, nil},
		{"expect", []string{"expect", good}, 0, []string{"in set-up", "Memory total", "8 GiB", "in megabytes: 8,192 MB", "as many systems print it: 1.81 TB", "in the running system", "SATA 6 Gb/s"}, nil},
		{"expect that stops", []string{"expect", stopping}, 1, []string{"not there"}, nil},
		{"plan", []string{"plan", good}, 0, []string{"proved best", "M2_1     Ternlight 500, new", "out      Sallow 4 GB, from A1", "system drive: 6.50 GB/s, 16 s for 100 GB", "alternative 1", "memory 38.40 GB/s at its peak instead of 51.20 GB/s"}, nil},
		{"plan in another order", []string{"plan", good, "--order", "in use"}, 0, []string{"A1       Sallow 4 GB", "memory: 38.40 GB/s"}, nil},
		{"plan by nothing", []string{"plan", good, "--order", "beauty"}, 2, nil, []string{`/order/0: "beauty" is not a criterion`}},
		{"check of a stage to come", []string{"check", ahead, "--stage", "1"}, 1, []string{"SATA6  free", "to be answered first  Mudlark 2 TB, serial ML7-0093318 leaves and may hold the system"}, nil},
		{"check of the stage at work", []string{"check", ahead}, 0, []string{"SATA6  live"}, nil},
		{"order", []string{"order", filepath.Join("..", "..", "demo", "jobs", "quay-camera-mini-pc.job.json")}, 0, []string{"lay out", "antistatic strap", "Take off the board tray", "- Into cell 2: 2 screws M2.5 x 6 mm", "tray", "All leads back"}, nil},
		{"order of nothing", []string{"order", good}, 0, []string{"nothing to do"}, nil},
		{"expect of a stage to come", []string{"expect", ahead, "--stage", "1"}, 1, []string{"Slot A1", "empty"}, nil},
		{"plan of no stage", []string{"plan", ahead, "--stage", "2"}, 2, nil, []string{"the job has no stage 2 to come"}},
		{"version", []string{"version"}, 0, []string{"deepbay development"}, nil},
		{"no such file", []string{"check", "nothing.json"}, 2, nil, []string{"deepbay: open nothing.json: no such file"}},
		{"wrong file", []string{"check", jobFile(t, "echo-sounding-tower", `"kind": "m2"`, `"kind": "m3"`)}, 2, nil, []string{"job.json is not a usable job file", "/sheet/sockets/0/kind: value must be one of"}},
		{"unknown socket", []string{"check", jobFile(t, "echo-sounding-tower", `"item": "item-1",
        "socket": "A1"`, `"item": "item-1",
        "socket": "A9"`)}, 2, nil, []string{`/found/placements/0/socket: no socket is named "A9"`, "/planned/placements/0/socket"}},
		{"sheets", []string{"sheet", sheet, sheet}, 0, []string{"Dunlin S3 slim desktop, ", "no fault"}, nil},
		{"sheet with a fault", []string{"sheet", sheet, good}, 2, []string{"Dunlin S3"}, []string{"job.json is not a usable sheet file"}},
		{"read a label", []string{"read", "2Rx4", "PC4-2400T-R", "16GB"}, 0, []string{"16 GiB DDR4-2400 DIMM", "2Rx4: 2 ranks of devices 4 bits wide", "CAS latency of 17 clocks", "it does not say: whether it has check bits"}, nil},
		{"read what may be two things", []string{"read", "16GB", "PC4-2400R", "DIMM"}, 1, []string{"a kind of module or a speed bin? registered / CL16"}, nil},
		{"read what means nothing", []string{"read", "16GB", "banana"}, 2, nil, []string{`"banana" means nothing here`}},
		{"read a part", []string{"read", "--part", "x16 carrier 4x m.2 2280 no switch"}, 0, []string{`"format": "deepbay/part"`, `"connectorLanes": 16`, `"firstLane": 12`}, nil},
		{"read half a part", []string{"read", "--part", "x16 carrier 4x m.2"}, 2, nil, []string{"with a switch chip or without? it could be no-switch or switch"}},
		{"nothing named", []string{"check"}, 2, nil, []string{"accepts 1 arg"}},
		{"unknown command", []string{"dance"}, 2, nil, []string{`unknown command "dance"`}},
		{"serve elsewhere", []string{"serve", "--data", filepath.Join(t.TempDir(), "x.db"), "--listen", "0.0.0.0:8480"}, 2, nil, []string{"Deep Bay listens on this machine only"}},
		{"serve nothing", []string{"serve", "--listen", "127.0.0.1:0"}, 2, nil, []string{"no data file was named"}},
	} {
		status, out, complaint := do(t, c.args...)
		if status != c.status {
			t.Errorf("%s: status %d, want %d: %s", c.name, status, c.status, complaint)
		}
		for _, w := range c.out {
			if !strings.Contains(out, w) {
				t.Errorf("%s does not print %q:\n%s", c.name, w, out)
			}
		}
		for _, w := range c.err {
			if !strings.Contains(complaint, w) {
				t.Errorf("%s does not complain %q:\n%s", c.name, w, complaint)
			}
		}
		if (complaint != "") != (c.status == 2) {
			t.Errorf("%s: status %d and complaint %q", c.name, status, complaint)
		}
	}
}

// A refused address or a file larger than any job leaves nothing behind.
func TestNothingLeftBehind(t *testing.T) {
	data := filepath.Join(t.TempDir(), "shop.db")
	do(t, "serve", "--data", data, "--listen", "192.0.2.1:80")
	if _, err := os.Stat(data); err == nil {
		t.Error("a refused address left a data file")
	}
	large := filepath.Join(t.TempDir(), "large.json")
	if err := os.WriteFile(large, bytes.Repeat([]byte(" "), 50<<20), 0o644); err != nil {
		t.Fatal(err)
	}
	if status, _, complaint := do(t, "check", large); status != 2 || !strings.Contains(complaint, "larger than the 4 MiB a file may have") {
		t.Errorf("%d %s", status, complaint)
	}
}

// What is printed for programs keeps to the published schema.
func TestJSONKeepsToSchema(t *testing.T) {
	path := jobFile(t, "echo-sounding-tower", inLower...)
	for command, name := range map[string]string{"check": "check", "expect": "observation", "plan": "plan"} {
		_, out, _ := do(t, command, path, "--json")
		b, err := schema.Files.ReadFile(name + ".schema.json")
		if err != nil {
			t.Fatal(err)
		}
		doc, err := jsonschema.UnmarshalJSON(bytes.NewReader(b))
		if err != nil {
			t.Fatal(err)
		}
		c := jsonschema.NewCompiler()
		if err := c.AddResource("urn:x", doc); err != nil {
			t.Fatal(err)
		}
		s, err := c.Compile("urn:x")
		if err != nil {
			t.Fatal(err)
		}
		got, err := jsonschema.UnmarshalJSON(strings.NewReader(out))
		if err != nil {
			t.Fatalf("%s --json prints no JSON: %v\n%s", command, err, out)
		}
		if err := s.Validate(got); err != nil {
			t.Errorf("%s --json: %v", command, err)
		}
	}
	_, out, _ := do(t, "expect", path, "--json")
	if o, err := format.Observation([]byte(out)); err != nil || len(o.Readings) < 8 {
		t.Errorf("the expected observation cannot be read back: %v", err)
	}
}

// Demo starts from a clean copy and leaves none; serve keeps its file.
func TestServeAndDemo(t *testing.T) {
	data := filepath.Join(t.TempDir(), "shop.db")
	for _, c := range []struct {
		name string
		args []string
		jobs int
	}{
		{"demo", []string{"demo", "--listen", "127.0.0.1:0"}, 18},
		{"serve", []string{"serve", "--data", data, "--listen", "127.0.0.1:0"}, 0},
	} {
		ctx, stop := context.WithCancel(t.Context())
		read, write := io.Pipe()
		status := make(chan int, 1)
		go func() {
			s := run(ctx, c.args, write, io.Discard)
			write.CloseWithError(fmt.Errorf("it ended with status %d before it listened", s)) //nolint:errcheck // always nil
			status <- s
		}()
		line := make([]byte, 200)
		n, err := read.Read(line)
		if err != nil {
			t.Fatal(err)
		}
		url := strings.TrimSpace(strings.TrimPrefix(string(line[:n]), "Deep Bay: "))
		client := http.Client{Timeout: 5 * time.Second}
		r, err := client.Get(url + "/api/jobs")
		if err != nil {
			t.Fatal(err)
		}
		var list struct{ Jobs []json.RawMessage }
		err = json.NewDecoder(r.Body).Decode(&list)
		r.Body.Close()
		if err != nil || len(list.Jobs) != c.jobs {
			t.Errorf("%s has %d jobs, want %d (%v)", c.name, len(list.Jobs), c.jobs, err)
		}
		stop()
		if s := <-status; s != 0 {
			t.Errorf("%s ended with status %d", c.name, s)
		}
	}
	if _, err := os.Stat(data); err != nil {
		t.Errorf("serve kept nothing: %v", err)
	}
}

// TestLook answers by number what look lists, and writes the job that knows it.
func TestLook(t *testing.T) {
	const logger = "../../demo/jobs/weather-mast-logger.job.json"
	out := filepath.Join(t.TempDir(), "job.json")
	tests := []struct {
		args   []string
		status int
		want   []string
	}{
		{[]string{"look", logger}, 0, []string{"1  what M2A speaks: write one or several of pcie or sata", "how fast the board runs 1 module a channel: write a number of MT/s"}},
		{[]string{"look", logger, "1=sata", "2=2400", "--by", "Runa", "--out", out}, 0, nil},
		{[]string{"look", out}, 0, []string{"looked up", "M2A speaks SATA (Runa)", "the board runs 1 module a channel at 2400 MT/s (Runa)"}},
		{[]string{"look", logger, "9=sata"}, 2, []string{`"9=sata" is no answer: write NUMBER=ANSWER, the number one of the 2 that look lists`}},
		{[]string{"look", logger, "1=maybe"}, 2, []string{`"maybe" is no answer to what M2A speaks: write one or several of pcie or sata`}},
	}
	for _, tt := range tests {
		var b strings.Builder
		if got := run(t.Context(), tt.args, &b, &b); got != tt.status {
			t.Fatalf("%v: status %d\n%s", tt.args, got, b.String())
		}
		for _, want := range tt.want {
			if !strings.Contains(b.String(), want) {
				t.Errorf("%v does not say %q:\n%s", tt.args, want, b.String())
			}
		}
	}
}

// TestSecondLanguage runs the commands in a second, mechanical language: what is not
// wrapped is a name, a word of the formats, or a place.
func TestSecondLanguage(t *testing.T) {
	language = func(s string) string { return "⟦" + s + "⟧" }
	t.Cleanup(func() { language = say.Plain })
	files, err := filepath.Glob("../../demo/jobs/*.json")
	if err != nil {
		t.Fatal(err)
	}
	broken := filepath.Join(t.TempDir(), "broken.json")
	if err := os.WriteFile(broken, []byte(`{"format":"deepbay/job","version":1}`), 0o600); err != nil {
		t.Fatal(err)
	}
	sentences := 0
	run1 := func(named string, args ...string) {
		_, out, complaint := do(t, args...)
		for _, line := range strings.Split(out+complaint, "\n") {
			sentences += strings.Count(line, "⟦")
			rest := wrapped.ReplaceAllString(line, "")
			for _, name := range strings.Split(named, "\n") {
				if len(name) > 3 {
					rest = strings.ReplaceAll(rest, name, "")
				}
			}
			if prose.MatchString(rest) {
				t.Errorf("%v: %q is not wrapped in %q", args, prose.FindString(rest), line)
			}
		}
	}
	for _, path := range files {
		j, err := demo.Job(strings.TrimSuffix(filepath.Base(path), ".job.json"))
		if err != nil {
			t.Fatal(err)
		}
		named := strings.Join(append([]string{j.Title, j.Sheet.Name}, printed(&j)...), "\n")
		for _, command := range []string{"check", "expect", "plan", "look"} {
			run1(named, command, path)
		}
	}
	run1("", "check", broken)
	run1("", "check", "nowhere.json")
	run1("", "look", files[0], "99=yes")
	run1("", "read", "16GB PC4-2400R")
	run1("", "read", "16GB banana")
	if sentences < 400 {
		t.Errorf("only %d sentences were wrapped", sentences)
	}
}

var (
	wrapped = regexp.MustCompile(`⟦[^⟦⟧]*⟧`)
	prose   = regexp.MustCompile(`\pL{2,} \pL{2,}`)
)

// printed is every name on the parts and settings of a job.
func printed(j *job.Job) []string {
	var out []string
	for _, p := range j.Parts {
		out = append(out, p.Name)
	}
	for _, s := range j.Sheet.Settings {
		out = append(out, s.Name)
		for _, o := range s.Options {
			out = append(out, o.Name)
		}
	}
	return out
}
