package logbook_test

import (
	"fmt"
	"math/rand"
	"slices"
	"sort"
	"strings"
	"testing"
	"time"

	"deepbay/demo"
	"deepbay/internal/core/fault"
	"deepbay/internal/core/job"
	"deepbay/internal/core/layer"
	"deepbay/internal/core/logbook"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/workorder"
)

func demoJob(t *testing.T, name string) job.Job {
	t.Helper()
	j, err := demo.Job(name)
	if err != nil {
		t.Fatal(err)
	}
	return j
}

func told(l *logbook.Life) string {
	var out strings.Builder
	for _, s := range l.Stays {
		to := "now"
		if !s.To.IsZero() {
			to = s.To.Format(time.DateOnly)
		}
		fmt.Fprintf(&out, "%s in %s of %s, %s to %s, fitted %t, lost %t\n", s.Serial, s.Place, s.Last.Title, s.From.Format(time.DateOnly), to, s.Fitted, s.Lost)
	}
	return out.String()
}

// TestDemoLives: what the demo shop's tower had in it over its two jobs, and where one of its drives
// went afterwards, whatever the order in which the jobs are read.
func TestDemoLives(t *testing.T) {
	then, now, gauge := demoJob(t, "echo-sounding-tower-2025"), demoJob(t, "echo-sounding-tower"), demoJob(t, "tide-gauge-mini-pc")
	want := `SL4-220871 in A1 of Echo-sounding tower, 2025-03-10 to now, fitted false, lost false
SL4-220872 in A2 of Echo-sounding tower, 2025-03-10 to now, fitted false, lost false
SKB-40117 in SATA6 of Echo-sounding tower, 2025-03-10 to 2025-03-10, fitted false, lost false
ML7-0093318 in SATA6 of Echo-sounding tower, 2025-03-10 to now, fitted true, lost false
`
	for _, jobs := range [][]job.Job{{then, now}, {now, then}} {
		if l := logbook.OfMachine(jobs); told(&l) != want {
			t.Errorf("%s\nwant\n%s", told(&l), want)
		}
	}
	l := logbook.OfSerial("skb 40117", []job.Job{now, gauge, then})
	if got := told(&l); got != "SKB-40117 in SATA6 of Echo-sounding tower, 2025-03-10 to 2025-03-10, fitted false, lost false\nSKB-40117 in SATA1 of Tide-gauge mini PC, 2026-11-24 to now, fitted false, lost false\n" {
		t.Error(got)
	}
	var says []string
	for _, e := range l.Events {
		says = append(says, string(e.Says.Code))
	}
	if strings.Join(says, " ") != "logbook/was-in logbook/taken-up logbook/was-in" {
		t.Error(says)
	}
	if l := logbook.OfSerial("", []job.Job{then}); len(l.Events)+len(l.Stays) > 0 {
		t.Error("no serial number has a life")
	}
	if a, b := logbook.MachineOf(&job.Job{Tag: "hs 0417"}), logbook.MachineOf(&now); a != b {
		t.Errorf("%q and %q", a, b)
	}
}

// TestLives works on a machine in random jobs, some of them never finished, and between them
// somebody takes pieces out or puts others in. As far as jobs tell, the life says what was there
// at each moment.
func TestLives(t *testing.T) {
	places := []string{"SATA1", "SATA2", "SATA3", "SATA4"}
	drive := part.Part{ID: "drive", Name: "Drive"}
	for seed := range int64(400) {
		rng := rand.New(rand.NewSource(seed))
		in, n := map[string]string{}, 0 // what lies where
		fresh := func() string { n++; return fmt.Sprint("SN-", n) }
		day := time.Date(2020, 1, 1, 0, 0, 0, 0, time.UTC)
		var jobs []job.Job
		var last map[string]string // as the last job knows it
		for range 1 + rng.Intn(6) {
			for _, at := range places { // what nobody wrote down
				switch rng.Intn(8) {
				case 0:
					delete(in, at)
				case 1:
					in[at] = fresh()
				}
			}
			day = day.AddDate(0, 0, 1+rng.Intn(100))
			j := job.New(job.ID(fmt.Sprint("j", len(jobs))), "Tower", machine.Sheet{}, rig.Wish{}, day)
			j.Tag, j.Parts = "T-1", []part.Part{drive}
			add := func(serial string) rig.ItemID {
				id := rig.ItemID(fmt.Sprint("i", len(j.Items)))
				j.Items = append(j.Items, job.Item{ID: id, Part: drive.ID, Serial: serial})
				return id
			}
			plan := map[string]rig.ItemID{}
			for _, at := range places {
				if s := in[at]; s != "" {
					id := add(s)
					j.Found.Placements = append(j.Found.Placements, rig.Placement{Item: id, Socket: rig.ParsePath(at)})
					plan[at] = id
				}
			}
			last = map[string]string{}
			for at, s := range in {
				last[s] = at
			}
			if rng.Intn(4) > 0 { // it is finished
				for _, at := range places {
					switch rng.Intn(4) {
					case 0:
						delete(plan, at)
					case 1:
						plan[at] = add(fresh())
					}
				}
				if a, b := places[rng.Intn(4)], places[rng.Intn(4)]; plan[a] != "" || plan[b] != "" { // two change places
					plan[a], plan[b] = plan[b], plan[a]
				}
				in, last = map[string]string{}, map[string]string{}
				for at, id := range plan {
					if id != "" {
						j.Planned.Placements = append(j.Planned.Placements, rig.Placement{Item: id, Socket: rig.ParsePath(at)})
						in[at] = j.Item(id).Serial
						last[in[at]] = at
					}
				}
				j.Closed = &job.Closing{By: "x", At: day.Add(5 * time.Hour)}
			}
			jobs = append(jobs, j)
		}
		rng.Shuffle(len(jobs), func(a, b int) { jobs[a], jobs[b] = jobs[b], jobs[a] })
		l := logbook.OfMachine(jobs)
		now := map[string]string{}
		for _, s := range l.Stays {
			if !s.To.IsZero() && s.To.Before(s.From) {
				t.Fatalf("seed %d: it left before it came: %s", seed, told(&l))
			}
			if s.To.IsZero() {
				if now[s.Serial] != "" {
					t.Fatalf("seed %d: %s is there twice:\n%s", seed, s.Serial, told(&l))
				}
				now[s.Serial] = s.Place.String()
			}
		}
		if fmt.Sprint(now) != fmt.Sprint(last) {
			t.Fatalf("seed %d: it has %v, and there was %v\n%s", seed, now, last, told(&l))
		}
		if !slices.IsSortedFunc(l.Events, func(a, b logbook.Event) int { return a.At.Compare(b.At) }) {
			t.Fatalf("seed %d: events are not in their order", seed)
		}
		for i := range jobs { // each part alone says the same of itself
			for _, it := range jobs[i].Items {
				one := logbook.OfSerial(it.Serial, jobs)
				var own logbook.Life
				for _, s := range l.Stays {
					if s.Serial == it.Serial {
						own.Stays = append(own.Stays, s)
					}
				}
				// A job that does not have the part any more tells that it was not found; the part's own jobs do not.
				for k := range own.Stays {
					if own.Stays[k].Lost {
						own.Stays[k].Lost, own.Stays[k].To = one.Stays[k].Lost, one.Stays[k].To
					}
				}
				if told(&one) != told(&own) {
					t.Fatalf("seed %d, %s:\n%s\nwant\n%s", seed, it.Serial, told(&one), told(&own))
				}
			}
		}
	}
}

// TestFigures: what the demo shop's finished jobs add, and what that comes to over months.
func TestFigures(t *testing.T) {
	then := demoJob(t, "echo-sounding-tower-2025")
	got := map[string]logbook.Figure{}
	for _, f := range logbook.Figures(&then) {
		got[string(f.Of)+" "+f.Name] = f
	}
	for name, n := range map[string]int{"jobs tower": 1, "fault lead-off": 1, "incident missing": 1, "put drive": 1, "phase take out": 1, "phase fit": 2} {
		if got[name].N != n {
			t.Errorf("%s: %d, want %d", name, got[name].N, n)
		}
	}
	if f := got["jobs tower"]; f.Took != 94*time.Minute { // 08:30 to 10:04
		t.Errorf("%v", f.Took)
	}
	if f := got["phase fit"]; f.Took <= 0 || f.Expected <= 0 {
		t.Errorf("%+v", f)
	}
	open := then
	open.Closed = nil
	if f := logbook.Figures(&open); len(f) > 0 {
		t.Errorf("an open job adds %v", f)
	}
	spoilt := then
	spoilt.Cures = []job.Mending{{ID: 1, Fault: fault.Parse("drive-dead@SATA6"), Item: "item-4", Ended: then.Closed.At}, {ID: 2, Fault: fault.Parse("module-dead@A1"), Item: "item-1"}} // the second was never done
	failed := ""
	for _, f := range logbook.Figures(&spoilt) {
		if f.Of == logbook.Failed {
			failed += f.Name + " "
		}
	}
	if failed != "Mudlark 2 TB " {
		t.Errorf("failed: %q", failed)
	}

	months := logbook.Months(time.Date(2026, 2, 28, 12, 0, 0, 0, time.UTC), 3)
	if fmt.Sprint(months) != "[2025-12 2026-01 2026-02]" {
		t.Error(months)
	}
	fig := func(m logbook.Month, of logbook.Of, name string, n int, took time.Duration) logbook.Monthly {
		return logbook.Monthly{Month: m, Figure: logbook.Figure{Of: of, Name: name, N: n, Took: took, Expected: took / 2}}
	}
	fit, out := string(workorder.Fit), string(workorder.TakeOut)
	list := []logbook.Monthly{
		fig("2025-12", logbook.Phase, fit, 2, 10*time.Minute), fig("2026-02", logbook.Phase, fit, 3, 5*time.Minute), fig("2026-01", logbook.Phase, out, 9, 9*time.Minute),
		fig("2026-01", logbook.FaultMet, "a", 1, 0), fig("2026-01", logbook.FaultMet, "b", 2, 0), fig("2024-01", logbook.FaultMet, "a", 50, 0),
	}
	tables := logbook.Over(months, list)
	var says []string
	for _, t := range tables {
		for _, r := range t.Rows {
			says = append(says, fmt.Sprintf("%s %s %d %v %v", t.Of, r.Name, r.N, r.Took, r.Expected))
			for _, m := range r.Months {
				says = append(says, fmt.Sprint(m.N, m.Took))
			}
		}
	}
	want := "phase take out 9 1m0s 30s, 0 0s, 9 1m0s, 0 0s, phase fit 5 3m0s 1m30s, 2 5m0s, 0 0s, 3 1m40s, fault b 2 0s 0s, 0 0s, 2 0s, 0 0s, fault a 1 0s 0s, 0 0s, 1 0s, 0 0s"
	if strings.Join(says, ", ") != want {
		t.Errorf("%s\nwant\n%s", strings.Join(says, ", "), want)
	}
}

// TestModel: what jobs on a model showed is told until its sheet says so, by which job, and how often.
func TestModel(t *testing.T) {
	current := demoJob(t, "current-model-mini-pc")
	sheet := current.Sheet
	told := func() string {
		var out []string
		for _, p := range logbook.Proofs(&sheet, []job.Job{current}) {
			out = append(out, string(p.Of)+" by "+string(p.Job.ID))
		}
		sort.Strings(out)
		return strings.Join(out, ", ")
	}
	if got := told(); got != "memory by current-model-mini-pc, module by current-model-mini-pc" {
		t.Error(got)
	}
	for _, p := range logbook.Proofs(&sheet, []job.Job{current}) {
		p.Teach(&sheet, current.Evidence())
		if strings.Contains(told(), string(p.Of)) {
			t.Errorf("%s is told, and the sheet says it", p.Of)
		}
	}
	open := current
	open.Closed = nil
	if p := logbook.Proofs(&current.Sheet, []job.Job{open}); len(p) > 0 {
		t.Errorf("a job that is not finished proves %v", p)
	}

	tower := demoJob(t, "hydrophone-listening-desk")
	is := tower.Sheet.Layers[0].Clone()
	is.Fasteners = append(is.Fasteners, layer.Fastener{Count: 2})
	jobs := make([]job.Job, 3)
	for n := range jobs {
		jobs[n] = tower
		jobs[n].ID, jobs[n].Arrived = job.ID(fmt.Sprint("job-", n)), tower.Arrived.AddDate(0, n, 0)
		jobs[n].Differs = []job.Difference{{ID: 7, Layer: is.ID, Is: &is}}
	}
	jobs[1].Differs = append(jobs[1].Differs, job.Difference{ID: 8, Text: "the  Foot is loose"}, job.Difference{ID: 9, Text: "the foot is loose"})
	out := logbook.Differing(&tower.Sheet, jobs)
	if len(out) != 2 || out[0].Times != 3 || out[0].Job.ID != "job-2" || out[0].ID != 7 || !out[0].Fits || out[1].Times != 1 || out[1].Fits {
		t.Fatalf("%+v", out)
	}
	taught := tower.Sheet
	if !jobs[0].Differs[0].Teach(&taught) {
		t.Fatal("it cannot be taught")
	}
	if out := logbook.Differing(&taught, jobs); len(out) != 1 || out[0].ID != 9 && out[0].ID != 8 {
		t.Errorf("the sheet says it, and there is %+v", out)
	}
}
