package job_test

import (
	"math/rand"
	"slices"
	"strings"
	"testing"

	"deepbay/internal/core/job"
	"deepbay/internal/core/power"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/workorder"
	"deepbay/internal/coretest/jobs"
)

// names is the stages of a job with where they stand.
func names(v *job.View) string {
	var out []string
	for _, s := range v.Stages {
		out = append(out, s.Name)
	}
	return strings.Join(out, ", ")
}

// TestDiskUnplugged: a data disk that is unplugged until the system is installed is laid
// aside, not handed over; its way back is the next stage, whose found state is what was read.
func TestDiskUnplugged(t *testing.T) {
	b := ready(t)
	b.job.Wish.Keep = []rig.ItemID{"item-3"}
	b.do(job.Change{Do: job.DoAside, Item: "item-3", Text: "data disk back in", Value: "install"})
	if v := job.Look(b.job); names(&v) != "install, data disk back in" {
		t.Fatalf("stages: %s", names(&v))
	}
	if a := b.job.Check(); a.Stops() {
		t.Fatalf("a disk that must stay may not be aside for now: %v", a.FirstStop().Code)
	}
	out := step(t, &b.job, "take-out/item-3@SATA6")
	how := said(b.job).Order[out].How
	if s := b.job.Order()[out]; len(s.Cautions) != 0 || !strings.Contains(how[len(how)-1].String(), "comes back in a later stage") {
		t.Errorf("%q, cautions %d", how, len(s.Cautions))
	}
	if got := b.refused(job.Change{Do: job.DoNextStage}); !strings.Contains(got, "a step is not done") {
		t.Error(got)
	}
	b.carry()
	b.confirm()
	if got := b.refused(job.Change{Do: job.DoClose}); !strings.Contains(got, "a stage is still to come: data disk back in") {
		t.Error(got)
	}
	for _, s := range b.job.Order() {
		if s.Phase == workorder.Close {
			b.do(carryOut(s))
		}
	}
	s := said(b.job).Status
	if s.Next.String() != "Go on to: data disk back in" || s.At != 1 || s.Of != 2 || s.Name != "install" {
		t.Errorf("%+v", s)
	}
	if got := b.do(job.Change{Do: job.DoNextStage}); got != "finished \u201cinstall\u201d, began \u201cdata disk back in\u201d" {
		t.Error(got)
	}
	if !b.job.Found.Where("item-3").IsZero() || b.job.Planned.Where("item-3") != rig.On("SATA6") || len(b.job.Done) != 0 {
		t.Fatalf("found %v, planned %v, done %v", b.job.Found, b.job.Planned, b.job.Done)
	}
	for _, l := range job.Look(b.job).Before {
		if l.ID.String() == "drive/M2_1" && (l.Verdict != power.Agrees || !l.Reading.Proof) {
			t.Errorf("what was read last is not what the machine is found with: %+v", l)
		}
	}
	step(t, &b.job, "fit/item-3@SATA6#cage-3")
	b.carry()
	b.confirm()
	for _, s := range b.job.Order() {
		if s.Phase == workorder.Close {
			b.do(carryOut(s))
		}
	}
	b.do(job.Change{Do: job.DoClose})
	r := said(b.job).Report
	if len(r.Removed) != 2 || len(r.Fitted) != 3 || len(r.Stayed) != 1 || len(r.Stages) != 1 || r.Stages[0].Name != "install" || len(r.Stages[0].Report.Seen) == 0 || len(r.Stages[0].Report.Open) != 0 {
		t.Errorf("the page counts from arrival to hand-over: %d removed, %d fitted, %d stayed; %+v", len(r.Removed), len(r.Fitted), len(r.Stayed), r.Stages)
	}
	if got := b.refused(job.Change{Do: job.DoReopen, Stage: 1}); got == "" {
		t.Error("a change of no stage was taken")
	}
}

// step finds a step of the order.
func step(t *testing.T, j *job.Job, id string) int {
	t.Helper()
	order := j.Order()
	i := slices.IndexFunc(order, func(s workorder.Step) bool { return s.ID == id })
	if i < 0 {
		var have []string
		for _, s := range order {
			have = append(have, s.ID)
		}
		t.Fatalf("no step %s in %s", id, have)
	}
	return i
}

// TestBoxThenInside: a drive goes into a box outside, and inside once it is copied to; the
// later stage is planned before the first begins.
func TestBoxThenInside(t *testing.T) {
	b := &bench{t, load(t, "echo-sounding-tower")}
	b.do(job.Change{Do: job.DoAdd, Text: "usb 3.2 gen 2 box nvme 2280", New: true})
	usb := rig.Path{}
	for _, k := range b.job.Sheet.Sockets {
		if k.Kind == "usb" {
			usb = rig.On(k.ID)
			break
		}
	}
	b.do(job.Change{Do: job.DoPlace, Item: "item-7", Socket: usb})
	b.do(job.Change{Do: job.DoPlace, Item: "item-4", Socket: usb.Position(1)})
	b.do(job.Change{Do: job.DoAddStage, Text: "inside after copying", Value: "box outside"})
	b.do(job.Change{Do: job.DoPlace, Item: "item-4", Socket: rig.On("M2_1"), Stage: 1})
	b.do(job.Change{Do: job.DoTakeOut, Item: "item-7", Stage: 1})
	// What goes in now goes in later too, where the later plan knew nothing of it.
	b.do(put("item-5", "A1"))
	if got := b.job.Later[0].Planned.Where("item-5"); got != rig.On("A1") {
		t.Errorf("fitted now, and the later plan has it in %q", got)
	}
	if got := b.job.Later[0].Planned.Where("item-4"); got != rig.On("M2_1") {
		t.Errorf("the later plan has the drive in %q", got)
	}
	v, ok := job.LookAt(b.job, 1)
	if !ok || v.At != 1 || v.Planned.Stops() || len(v.Order) == 0 {
		t.Fatalf("the later stage: %v %v, stops %v", ok, v.At, v.Planned.FirstStop())
	}
	step(t, &v.Job, "take-out/item-4@"+usb.Position(1).String())
	step(t, &v.Job, "fit/item-4@M2_1")
	if _, ok := job.LookAt(b.job, 2); ok {
		t.Error("there is no second stage to come")
	}
	for _, c := range []struct {
		change job.Change
		says   string
	}{
		{job.Change{Do: job.DoTick, Step: "prepare/parts", Stage: 1}, "has a plan and nothing else"},
		{job.Change{Do: job.DoPlace, Item: "item-4", Socket: rig.On("M2_2"), Stage: 3}, "no stage 3"},
		{job.Change{Do: job.DoAddStage, Text: " "}, "the stage has no name"},
		{job.Change{Do: job.DoDropStage, Value: "2"}, "no stage 2"},
	} {
		if got := b.refused(c.change); !strings.Contains(got, c.says) {
			t.Errorf("%+v: %s", c.change, got)
		}
	}
	b.do(job.Change{Do: job.DoRemove, Item: "item-4"})
	if len(b.job.Later[0].Planned.Placements) == 0 || !b.job.Later[0].Planned.Where("item-4").IsZero() {
		t.Errorf("removed, and still planned: %v", b.job.Later[0].Planned)
	}
	b.do(job.Change{Do: job.DoDropStage, Value: "1"})
	if v := job.Look(b.job); len(v.Stages) != 0 || b.job.StageName != "" {
		t.Errorf("one stage is none: %v", v.Stages)
	}
}

// TestLookedAcrossStages: that a slot was looked into and empty holds no more once a stage
// has filled it, and keeps nobody from going on.
func TestLookedAcrossStages(t *testing.T) {
	b := &bench{t, load(t, "echo-sounding-tower")}
	b.job.Wish = rig.Wish{}
	for _, id := range []rig.ItemID{"item-1", "item-2"} {
		b.do(job.Change{Do: job.DoRemove, Item: id})
	}
	b.do(job.Change{Do: job.DoAdd, Text: "A1, A2, B1, B2: empty"})
	if len(b.job.Looked) != 4 {
		t.Fatalf("looked: %+v", b.job.Looked)
	}
	for _, c := range []job.Change{put("item-5", "A2"), put("item-6", "B2"), put("item-4", "M2_1"), {Do: job.DoAddStage, Text: "then", Value: "now"}} {
		b.do(c)
	}
	if v, ok := job.LookAt(b.job, 1); !ok || v.Planned.Memory.Unlooked {
		t.Errorf("ahead: %v", ok)
	}
	b.carry()
	for _, s := range b.job.Order() {
		if s.Phase == workorder.Close {
			b.do(carryOut(s))
		}
	}
	b.do(job.Change{Do: job.DoNextStage})
	for _, l := range b.job.Looked {
		if at := l.Socket.String(); at != "A1" && at != "B1" {
			t.Errorf("still said to be empty: %s", at)
		}
	}
	b.do(job.Change{Do: job.DoClose, Sure: true})
	if next := b.job.Again("again", stamp.At); next.Validate().Err() != nil {
		t.Error(next.Validate().Err())
	}
}

// TestStagesRandom: whatever is planned in whichever stage, a job is never left that
// contradicts itself, and the last stage's plan is where the machine ends.
func TestStagesRandom(t *testing.T) {
	ended := 0
	for seed := range int64(*jobsTried / 20) {
		rng := rand.New(rand.NewSource(seed))
		b := bench{t, jobs.Random(rng)}
		b.job.Wish.Starts.How = rig.StartNothing
		for range rng.Intn(3) + 1 {
			b.do(job.Change{Do: job.DoAddStage, Text: "then", Value: "first"})
		}
		for range 12 {
			if len(b.job.Items) == 0 {
				break
			}
			it := b.job.Items[rng.Intn(len(b.job.Items))]
			c := job.Change{Do: job.DoTakeOut, Item: it.ID, Stage: rng.Intn(len(b.job.Later) + 1)}
			switch rng.Intn(4) {
			case 0:
				c.Do, c.Text, c.Value = job.DoAside, "back", "now"
			case 1:
				k := b.job.Sheet.Sockets[rng.Intn(len(b.job.Sheet.Sockets))]
				c.Do, c.Socket = job.DoPlace, rig.On(k.ID)
			case 2:
				c = job.Change{Do: job.DoRemove, Item: it.ID}
			}
			if next, _, err := job.Apply(b.job, c, stamp); err == nil {
				b.job = next
			}
			if err := b.job.Validate().Err(); err != nil {
				t.Fatalf("seed %d: %+v: %v", seed, c, err)
			}
			for n := range len(b.job.Later) + 1 {
				j, ok := b.job.Ahead(n)
				if !ok {
					t.Fatalf("seed %d: no stage %d", seed, n)
				}
				walk(t, seed, &job.View{Job: j, Order: j.Order()})
			}
		}
		last := b.job.Later[len(b.job.Later)-1].Planned
		for len(b.job.Later) > 0 {
			var left []string
			for _, s := range b.job.Order() {
				left = append(left, s.ID)
			}
			if a := b.job.Check(); a.Stops() {
				break
			}
			if len(left) > 0 {
				b.do(job.Change{Do: job.DoLeaveOut, Steps: left, Text: "in a test", Sure: true})
			}
			b.do(job.Change{Do: job.DoNextStage})
			ended++
			if len(b.job.Later) == 0 && len(b.job.Planned.Placements) != len(last.Placements) {
				t.Fatalf("seed %d: ends as %v, planned %v", seed, b.job.Planned, last)
			}
		}
	}
	if ended == 0 {
		t.Error("no stage ended")
	}
}
