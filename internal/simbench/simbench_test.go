package simbench_test

import (
	"encoding/json"
	"math/rand"
	rng2 "math/rand/v2"
	"slices"
	"strings"
	"testing"

	"deepbay/demo"
	"deepbay/internal/core/fault"
	"deepbay/internal/core/job"
	"deepbay/internal/core/power"
	"deepbay/internal/core/rig"
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

// TestFoundOnTheBench hides faults by chance in every machine of the demo shop, reads its screens,
// makes the checks that are asked for and carries out the cure that is found: afterwards the
// machine shows what was foretold. What cannot be seen of it is said.
func TestFoundOnTheBench(t *testing.T) {
	tried := 0
	for _, j := range jobs(t) {
		planned, found := j.PlannedRig(), j.FoundRig()
		c := j.Case()
		for seed := range uint64(4) {
			b := simbench.Of(&planned, &found, j.FaultWork())
			for _, st := range planned.Sheet.Settings {
				b.Hands(rig.Choice{Setting: st.ID, Value: planned.Choice(&st)})
			}
			b.Surprise(rng2.New(rng2.NewPCG(seed, 1)), 1)
			hidden := b.Hidden()
			if len(hidden) == 0 {
				continue
			}
			read := func() (out []power.Reading) {
				b.Start()
				for _, s := range b.Screens() {
					out = append(out, s.Is)
				}
				return out
			}
			e := fault.Evidence{Readings: read()}
			var d fault.Diagnosis
			for range 30 {
				if d = c.Diagnose(e); d.Certain || d.Next == nil {
					break
				}
				is, err := b.Check(d.Next.Check)
				if d.Next.Check.Look == fault.ReadLine || err != nil {
					t.Fatalf("%s, %v: asked for %s, %v", j.ID, hidden, d.Next.Check, err)
				}
				e.Answers = append(e.Answers, fault.Answered{Check: d.Next.Check, Is: is})
			}
			tried++
			if len(d.Leaders) == 0 || !d.Certain || d.Leaders[0].Faults[0] != hidden[0] {
				t.Errorf("%s: %v is found as %v", j.ID, hidden, d.Leaders)
				continue
			}
			if !b.Mend(hidden[0]) {
				t.Errorf("%s: %v is not put right", j.ID, hidden)
			}
			if after := c.Diagnose(fault.Evidence{Readings: read()}); len(after.Differs) > 0 || len(b.Hidden()) > 0 {
				t.Errorf("%s: after the cure of %v %v differs", j.ID, hidden, after.Differs)
			}
			if b.Minutes() < 2 {
				t.Errorf("%s: it took no time", j.ID)
			}
		}
	}
	if tried < 30 {
		t.Errorf("%d faults", tried)
	}
}
