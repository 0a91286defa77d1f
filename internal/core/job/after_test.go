package job_test

import (
	"slices"
	"strings"
	"testing"

	"deepbay/internal/core/fit"
	"deepbay/internal/core/job"
	"deepbay/internal/core/plan"
	"deepbay/internal/core/power"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/workorder"
)

// TestStarts: what starts the machine afterwards is said or follows, and where neither is so
// nothing can be begun.
func TestStarts(t *testing.T) {
	item := func(b *bench, id rig.ItemID, f func(*job.Item)) {
		f(b.job.Item(id))
	}
	wish := func(b *bench, s rig.Start) {
		w := b.job.Wish
		w.Starts = s
		b.do(job.Change{Do: job.DoWish, Wish: &w})
	}
	for _, c := range []struct {
		name   string
		make   func(*bench)
		starts string // "" where it is not known
		waits  string
	}{
		{"a new drive that the wish asks for", func(*bench) {}, "Ternlight 500, serial TLN4-5A0C77, by a new install or a copy: say which", ""},
		{"nothing is touched that may hold it", func(b *bench) { b.job.Wish.SystemBytes = 0 }, "what started it before", ""},
		{"the found drive holds it and stays", func(b *bench) { item(b, "item-3", func(i *job.Item) { i.Holds = rig.System }) }, "the system on Mudlark 2 TB, serial ML7-0093318, as it came", ""},
		{"a drive of which nobody knows leaves", func(b *bench) {
			b.job.Wish.SystemBytes, b.job.Wish.Keep = 0, nil
			item(b, "item-3", func(i *job.Item) { i.Holds = "" })
			b.do(job.Change{Do: job.DoTakeOut, Item: "item-3"})
		}, "", "leaves and may hold the system"},
		{"one that holds data leaves", func(b *bench) {
			b.job.Wish.SystemBytes, b.job.Wish.Keep = 0, nil
			item(b, "item-3", func(i *job.Item) { i.Holds = rig.Data })
			b.do(job.Change{Do: job.DoTakeOut, Item: "item-3"})
		}, "what started it before", ""},
		{"it comes back in a later stage", func(b *bench) {
			b.job.Wish.SystemBytes = 0
			item(b, "item-3", func(i *job.Item) { i.Holds = rig.System })
			b.do(job.Change{Do: job.DoAside, Item: "item-3", Text: "back", Value: "now"})
		}, "as it came", ""},
		{"a new install", func(b *bench) { wish(b, rig.Start{How: rig.Install, Item: "item-4"}) }, "a new install on Ternlight 500", ""},
		{"a copy", func(b *bench) { wish(b, rig.Start{How: rig.CopyOver, Item: "item-4"}) }, "a copy of the system on Ternlight 500", ""},
		{"nothing, and that is wanted", func(b *bench) { wish(b, rig.Start{How: rig.StartNothing}) }, "nothing yet, as was wanted", ""},
		{"a drive that is in no place", func(b *bench) {
			wish(b, rig.Start{How: rig.Install, Item: "item-4"})
			b.do(job.Change{Do: job.DoTakeOut, Item: "item-4"})
			item(b, "item-4", func(i *job.Item) { i.New = false })
		}, "", "lies in no place of the last plan"},
		{"a blank one that is said to hold it", func(b *bench) {
			item(b, "item-4", func(i *job.Item) { i.Holds = rig.Blank })
			wish(b, rig.Start{How: rig.FromDisk, Item: "item-4"})
		}, "", "is blank"},
	} {
		t.Run(c.name, func(t *testing.T) {
			b := ready(t)
			c.make(b)
			v := said(b.job)
			if got := v.Starts.String(); !strings.HasPrefix(got, c.starts) && !strings.HasSuffix(got, c.starts) || (got == "") != (c.starts == "") {
				t.Errorf("starts: %q", got)
			}
			if c.waits == "" {
				if len(v.Blocks) > 0 {
					t.Errorf("blocked: %s", v.Blocks[0].Says)
				}
				return
			}
			if !v.Status.Stops || !strings.Contains(v.Status.Waits.String(), c.waits) {
				t.Errorf("waits for %q", v.Status.Waits)
			}
			if got := b.refused(job.Change{Do: job.DoTick, Step: "prepare/parts"}); !strings.Contains(got, c.waits) {
				t.Error(got)
			}
		})
	}
	// What was said is carried out: the step stands in the order, once, in the stage in which the drive comes.
	b := ready(t)
	wish(b, rig.Start{How: rig.Install, Item: "item-4"})
	b.do(job.Change{Do: job.DoAddStage, Text: "then", Value: "now"})
	installs := func(j *job.Job) bool {
		return slices.ContainsFunc(j.Order(), func(s workorder.Step) bool { return s.ID == "system/install" })
	}
	if ahead, _ := b.job.Ahead(1); !installs(&b.job) || installs(&ahead) {
		t.Errorf("the system is installed: now %t, later %t", installs(&b.job), installs(&ahead))
	}
	b.do(job.Change{Do: job.DoDropStage, Value: "1"})
	if s := b.job.Order()[step(t, &b.job, "system/install")]; !s.Danger.Is() || s.Socket != rig.On("M2_1") {
		t.Errorf("%+v", s)
	}
}

// TestFresh: a new machine with nothing in it is not shut down, backed up or unplugged, its
// memory slots are known to be empty, and what starts it is asked.
func TestFresh(t *testing.T) {
	b := &bench{t, job.New("kit", "Kit", load(t, "echo-sounding-tower").Sheet, rig.Wish{}, stamp.At)}
	b.do(job.Change{Do: job.DoFresh, Value: "yes"})
	b.do(job.Change{Do: job.DoAdd, Text: "A2, B2: 2x16GB DDR4-3200\nM2_1: 1TB nvme 2280 gen4 x4", New: true})
	if len(b.job.Found.Placements) > 0 {
		b.Fatal("what was written down for a new machine was found in it")
	}
	if v := said(b.job); !strings.Contains(v.Status.Waits.String(), "nothing is said to start this machine") || !v.Status.Stops {
		t.Errorf("waits for %q", v.Status.Waits)
	}
	w := rig.Wish{Starts: rig.Start{How: rig.Install, Item: b.job.Planned.In(rig.On("M2_1"))}}
	b.do(job.Change{Do: job.DoWish, Wish: &w})
	ids := b.open()
	for _, not := range []string{"power-down/shut", "power-down/drain", "power-down/unplug ", "prepare/backup"} {
		if strings.Contains(ids+" ", not) {
			t.Errorf("%s of a machine that never ran: %s", not, ids)
		}
	}
	for _, want := range []string{"power-down/unplugged", "open/strap", "system/install", "fit/"} {
		if !strings.Contains(ids, want) {
			t.Errorf("no %s: %s", want, ids)
		}
	}
	if m := b.job.Check().Memory; m.Unlooked || m.Total.Low != m.Total.High {
		t.Errorf("memory of a new machine: %+v", m)
	}
	b.do(job.Change{Do: job.DoAdd, Text: "SATA1: 2TB 3.5 sata"})
	if !b.job.Fresh || b.job.Found.In(rig.On("SATA1")) != "" {
		t.Error("written down for a new machine, and found in it")
	}
	b.do(job.Change{Do: job.DoTakeOut, Item: "item-4"})
	b.do(job.Change{Do: job.DoPlace, In: job.InFound, Item: "item-4", Socket: rig.On("SATA1")})
	if b.job.Fresh {
		t.Error("something was found in it, and it is still new")
	}
	if got := b.refused(job.Change{Do: job.DoFresh, Value: "yes"}); !strings.Contains(got, "pieces were found") {
		t.Error(got)
	}
}

// TestArray: drives that work together meet a wish together, need their mode, are erased, and
// are one disk to the system.
func TestArray(t *testing.T) {
	b := ready(t)
	b.do(job.Change{Do: job.DoAdd, Text: "2x 500GB 2.5 sata ssd", New: true})
	b.do(put("item-7", "SATA1"))
	b.do(put("item-8", "SATA2"))
	b.job.Wish.SystemBytes, b.job.Wish.SystemFast, b.job.Wish.Keep = 900e9, false, []rig.ItemID{"item-3"}
	b.do(job.Change{Do: job.DoTakeOut, Item: "item-4"})
	b.do(job.Change{Do: job.DoRemove, Item: "item-4"})
	wished := func() bool {
		return slices.ContainsFunc(b.job.Check().Findings, func(f fit.Finding) bool { return f.Code == "wish-system" })
	}
	if !wished() {
		t.Fatal("no drive is large enough, and nothing says so")
	}
	mode := rig.Choice{}
	for _, s := range b.job.Sheet.Settings {
		for _, o := range s.Options {
			if o.Value == "raid" {
				mode = rig.Choice{Setting: s.ID, Value: o.Value}
			}
		}
	}
	if mode.Setting == "" {
		t.Fatal("the demo's sheet has no mode for arrays")
	}
	for _, c := range []struct {
		array rig.DriveArray
		says  string
	}{
		{rig.DriveArray{ID: "a", Level: rig.Parity, Members: []rig.ItemID{"item-7", "item-8"}}, "at least 3 members"},
		{rig.DriveArray{ID: "a", Level: rig.Stripe, Members: []rig.ItemID{"item-7", "item-5"}}, "no drive that holds data"},
		{rig.DriveArray{ID: "a", Level: rig.Stripe, Members: []rig.ItemID{"item-7", "item-7"}}, "is a member already"},
		{rig.DriveArray{ID: "a", Level: rig.Stripe, Members: []rig.ItemID{"item-7", "item-8"}, Mode: rig.Choice{Setting: "nothing", Value: "x"}}, "no setting"},
	} {
		if got := b.refused(job.Change{Do: job.DoArray, Array: &c.array}); !strings.Contains(got, c.says) {
			t.Errorf("%+v: %s", c.array, got)
		}
	}
	b.do(job.Change{Do: job.DoArray, Array: &rig.DriveArray{ID: "a", Level: rig.Stripe, Members: []rig.ItemID{"item-7", "item-8"}, Mode: mode}})
	if a := b.job.Check(); a.Stops() || wished() {
		t.Error("the array does not meet the wish")
	}
	v := said(b.job)
	if len(v.Blocks) != 1 || !strings.Contains(v.Blocks[0].Says.String(), "the array needs SATA controller mode to RAID") {
		t.Fatalf("blocks: %+v", v.Blocks)
	}
	for _, x := range v.Blocks {
		if len(x.Moves) > 0 {
			b.do(job.Change{Do: job.DoMoves, Moves: x.Moves})
		}
	}
	w := b.job.Wish
	w.Starts = rig.Start{How: rig.Install, Array: "a"}
	b.do(job.Change{Do: job.DoWish, Wish: &w})
	if v := said(b.job); len(v.Blocks) != 0 || !strings.Contains(v.Starts.String(), "array of level 0") {
		t.Errorf("blocks %+v, starts %s", v.Blocks, v.Starts)
	}
	if s := b.job.Order()[step(t, &b.job, "settings/array-a")]; !s.Danger.Is() {
		t.Error("making an array can be left out without a word")
	}
	if l := b.line("array/a/system"); l.Screen != power.InSystem || l.Reading != nil || !l.Exact {
		t.Errorf("%+v", l)
	}
	for _, l := range said(b.job).Lines {
		if id := l.ID.String(); id == "link/SATA1" || id == "link/SATA2" {
			t.Errorf("%s: a member's link, which the system does not show", id)
		}
	}
	for _, id := range power.ArrayLines("a") { // what its members hold nobody told: whether it is in the boot list is not known
		l := b.line(id.String())
		if id.Kind == power.Boots && l.Exact || id.Kind == power.Installs && l.Want.Bytes != b.line("array/a").Want.Bytes {
			t.Errorf("%s: expected %+v", id, l.Want)
		}
	}
	b.do(job.Change{Do: job.DoRead, Line: power.ParseLineID("installer/array:a"), Text: "931 GB"})
	if l := b.line("installer/array:a"); l.Verdict != power.Agrees || l.Screen != power.InInstaller {
		t.Errorf("in the installer's list: %+v", l)
	}
	b.do(job.Change{Do: job.DoRead, Line: power.ParseLineID("array/a/system"), Text: "931 GB"})
	if l := b.line("array/a/system"); l.Verdict != power.Agrees {
		t.Errorf("931 GB for 1 TB of array: %s", l.Verdict)
	}
	if a := b.advice(); a.End == plan.Impossible {
		t.Errorf("the planner does not see the array: %s", a.End)
	}
	b.job.Item("item-7").Holds, b.job.Wish.BackedUp = rig.Data, ""
	if s := b.job.Order()[step(t, &b.job, "settings/array-a")]; s.Held.Code != job.LawNoCopy {
		t.Errorf("a member that holds data: %v", s.Held)
	}
	b.do(job.Change{Do: job.DoArray, Array: &rig.DriveArray{ID: "a", Level: rig.Stripe, Members: []rig.ItemID{"item-7", "item-8"}, Came: true}})
	if slices.ContainsFunc(b.job.Order(), func(s workorder.Step) bool { return s.ID == "settings/array-a" }) {
		t.Error("an array that came with its data is made anew")
	}
	b.do(job.Change{Do: job.DoRemove, Item: "item-7"})
	if len(b.job.Arrays) != 0 {
		t.Errorf("an array of one: %+v", b.job.Arrays)
	}
}

// TestRoles: what a piece is for is kept, planned by, and held against the machine that leaves.
func TestRoles(t *testing.T) {
	b := ready(t)
	b.do(job.Change{Do: job.DoRole, Item: "item-3", Value: "leaves"})
	if got := b.refused(job.Change{Do: job.DoRole, Item: "item-3", Value: "ballast"}); !strings.Contains(got, "nothing a piece can be for") {
		t.Error(got)
	}
	open := said(b.job).Report.Open
	if !strings.Contains(open[len(open)-1].String(), "was to leave: it lies in SATA6") {
		t.Errorf("open: %q", open)
	}
}
