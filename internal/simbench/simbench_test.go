package simbench_test

import (
	"encoding/json"
	"math/rand"
	"slices"
	"strings"
	"testing"

	"deepbay/demo"
	"deepbay/internal/core/fault"
	"deepbay/internal/core/job"
	"deepbay/internal/core/power"
	"deepbay/internal/format"
	"deepbay/internal/probe"
	"deepbay/internal/simbench"
)

// jobs is the demo shop's.
func jobs(t *testing.T) []job.Job {
	t.Helper()
	files, err := demo.Files.ReadDir("jobs")
	if err != nil {
		t.Fatal(err)
	}
	var out []job.Job
	for _, f := range files {
		j, err := demo.Job(strings.TrimSuffix(f.Name(), ".job.json"))
		if err != nil {
			t.Fatal(err)
		}
		out = append(out, j)
	}
	return out
}

// TestProbeReadsWhatIsSimulated writes every machine of the demo shop, well and with faults, as
// the files of a Linux machine: what the probe reads is what was simulated, and passes its format.
func TestProbeReadsWhatIsSimulated(t *testing.T) {
	rng := rand.New(rand.NewSource(5))
	tried := 0
	for _, j := range jobs(t) {
		c := j.Case()
		all := c.Faults()
		for n := range 5 {
			var hidden []fault.Fault
			if n > 0 && len(all) > 0 {
				hidden = append(hidden, all[rng.Intn(len(all))])
			}
			want, ok := simbench.Inventory(c.World(hidden, nil))
			if !ok {
				continue
			}
			tried++
			dir := t.TempDir()
			if err := simbench.WriteTree(dir, &want); err != nil {
				t.Fatal(err)
			}
			got, err := probe.Read(dir)
			if err != nil {
				t.Fatal(err)
			}
			b, err := format.Write(got)
			if err != nil {
				t.Fatal(err)
			}
			if _, err := format.Observation(b); err != nil {
				t.Errorf("%s, %v: %v", j.ID, hidden, err)
			}
			want.Source = power.FromLinux
			slices.SortFunc(want.Devices, func(a, b power.PCIDevice) int { return strings.Compare(a.Address, b.Address) })
			slices.SortFunc(want.Drives, func(a, b power.DriveSeen) int { return strings.Compare(a.Name, b.Name) })
			if g, w := text(t, got.Machine), text(t, want); g != w {
				t.Errorf("%s, %v: read\n%s\nsimulated\n%s", j.ID, hidden, g, w)
			}
		}
	}
	if tried < 40 {
		t.Errorf("%d machines", tried)
	}
}

func text(t *testing.T, v any) string {
	t.Helper()
	b, err := json.MarshalIndent(v, "", " ")
	if err != nil {
		t.Fatal(err)
	}
	return string(b)
}
