package job_test

import (
	"slices"
	"strings"
	"testing"
	"time"

	"deepbay/demo"
	"deepbay/internal/core/job"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/say"
	"deepbay/internal/core/volume"
	"deepbay/internal/core/workorder"
)

// TestTransfer moves the soundings of a tower onto a new drive: nothing is written before the backup
// was read and the serial number typed, nothing counts as proved that was not compared, and the old
// drive is not wiped before.
func TestTransfer(t *testing.T) {
	j, err := demo.Job("echo-sounding-tower")
	if err != nil {
		t.Fatal(err)
	}
	at := time.Date(2026, 11, 27, 9, 0, 0, 0, time.UTC)
	try := func(c job.Change) error {
		at = at.Add(time.Minute)
		next, _, err := job.Apply(j, c, job.Stamp{By: "Oda Finch", At: at})
		if err == nil {
			j = next
			if l := j.Validate(); len(l) > 0 {
				t.Fatalf("%s: %v", c.Do, l)
			}
			return nil
		}
		return say.About(say.Plain, &j).Err(err)
	}
	do := func(c job.Change) {
		t.Helper()
		if err := try(c); err != nil {
			t.Fatalf("%s: %v", c.Do, err)
		}
	}
	refused := func(c job.Change, why string) {
		t.Helper()
		if err := try(c); err == nil || !strings.Contains(err.Error(), why) {
			t.Errorf("%s: %v, want %q", c.Do, err, why)
		}
	}
	var from, to rig.ItemID
	for i := range j.Items {
		switch it := &j.Items[i]; it.Part {
		case "mudlark-2000":
			from = it.ID
			it.Holds = rig.Data
		case "ternlight-500":
			to = it.ID
			it.Holds = rig.Blank
		}
	}
	j.Wish.Starts = rig.Start{How: rig.StartNothing}
	do(job.Change{Do: job.DoPlace, In: job.InPlanned, Item: to, Socket: rig.ParsePath("M2_1")})
	swap := volume.Transfer{ID: 1, How: volume.Swap, From: from, To: to, Bytes: 300 * quantity.GB, Mean: 5 * quantity.MB}
	for _, c := range []struct {
		change func(*volume.Transfer)
		why    string
	}{
		{func(x *volume.Transfer) { x.To = from }, "a drive is not copied onto itself"},
		{func(x *volume.Transfer) { x.Bytes = 501 * quantity.GB }, "does not fit"},
		{func(x *volume.Transfer) { x.How, x.Sectors = volume.Clone, quantity.No }, "copy files instead"},
		{func(x *volume.Transfer) { x.From = "nobody" }, "nobody"},
		{func(x *volume.Transfer) { x.From = "item-5" }, "is no drive"},
		{func(x *volume.Transfer) { x.Mean = 400 * quantity.GB }, "a file is larger"},
	} {
		bad := swap
		c.change(&bad)
		refused(job.Change{Do: job.DoTransfer, Transfer: &bad}, c.why)
	}
	refused(job.Change{Do: job.DoTransfer}, "no transfer is given")
	whole := j
	j.Arrays = []rig.DriveArray{{ID: "a", Level: rig.Mirror, Members: []rig.ItemID{from, to}}}
	refused(job.Change{Do: job.DoTransfer, Transfer: &swap}, "is a member of an array")
	j = whole
	do(job.Change{Do: job.DoTransfer, Transfer: &swap})
	refused(job.Change{Do: job.DoArray, Sure: true, Array: &rig.DriveArray{ID: "a", Level: rig.Mirror, Members: []rig.ItemID{from, to}}}, "give that up first")
	step := func(id string) *workorder.Step {
		t.Helper()
		order := j.Order()
		i := slices.IndexFunc(order, func(s workorder.Step) bool { return s.ID == id })
		if i < 0 {
			t.Fatalf("no step %s", id)
		}
		return &order[i]
	}
	end := volume.Ending(j.Item(to).Serial)
	copies := step("move/1/copy")
	if !slices.Contains(copies.Confirm, end) || len(copies.Cautions) == 0 || copies.Runs <= 0 {
		t.Errorf("%+v", copies)
	}
	m := j.Moving(&j.Transfers[0])
	// 300 GB at 197 MB/s, as the platters are rated, and 60,000 files at 12 ms each (docs/model.md).
	if got := float64(m.Takes); m.Measured || got < 300e9/float64(m.Reads)+60000*0.012-1 || got > 300e9/float64(m.Reads)+60000*0.012+1 {
		t.Errorf("%v s at %v and %v", m.Takes, m.Reads, m.Writes)
	}
	tick := func(id string, more ...string) job.Change {
		return job.Change{Do: job.DoTick, Steps: []string{id}, Text: strings.Join(more, " ")}
	}
	refused(tick("move/1/copy", end), "must be done")
	refused(job.Change{Do: job.DoProve, Value: "1", Proof: &volume.Proof{Files: 9, Bytes: 300 * quantity.GB}}, "nothing was copied")
	do(tick("prepare/backup"))
	if s := j.Order(); slices.ContainsFunc(s, func(s workorder.Step) bool { return s.ID == "move/1/look" }) {
		refused(tick("move/1/copy", end), "must be done")
		do(tick("move/1/look"))
	}
	refused(tick("move/1/copy", end), "not connected in the machine") // it lies on the bench still
	do(tick("fit/item-4@M2_1"))
	refused(tick("move/1/copy"), "type its last four")
	refused(tick("move/1/prove"), "must be done")
	do(tick("move/1/copy", end))
	refused(tick("move/1/prove"), "prove first")
	refused(tick("move/1/letters"), "must be done")
	refused(job.Change{Do: job.DoNoTransfer, Value: "1"}, "has begun")
	refused(job.Change{Do: job.DoProve, Value: "1"}, "no proof is given")
	refused(job.Change{Do: job.DoProve, Value: "1", Proof: &volume.Proof{Files: 9, Bytes: 200 * quantity.GB}}, "compare again")
	refused(job.Change{Do: job.DoProve, Value: "7", Proof: &volume.Proof{Files: 9, Bytes: 300 * quantity.GB}}, "7")
	// out takes the old drive out of a job by plan and by hands.
	out := func(of job.Job) job.Job {
		t.Helper()
		of.Wish.BackedUp, of.Wish.Keep = "the archive", nil
		for _, c := range []job.Change{{Do: job.DoTakeOut, Item: from}, tick("take-out/" + string(from) + "@SATA6")} {
			next, _, err := job.Apply(of, c, job.Stamp{By: "Oda Finch", At: at})
			if err != nil {
				t.Fatalf("%s: %v", c.Do, say.About(say.Plain, &of).Err(err))
			}
			of = next
		}
		return of
	}
	wiped := out(j)
	wipe := job.Change{Do: job.DoWipe, Item: from, Value: "clear", Text: j.Item(from).Serial, Sure: true}
	if _, _, err := job.Apply(wiped, wipe, job.Stamp{}); err == nil || !strings.Contains(say.About(say.Plain, &wiped).Err(err).Error(), "is not proved") {
		t.Errorf("wiped before it was proved: %v", err)
	}
	do(job.Change{Do: job.DoProve, Value: "1", Proof: &volume.Proof{Files: 60123, Bytes: 300 * quantity.GB}})
	do(tick("move/1/prove"))
	do(tick("move/1/letters"))
	do(tick("move/1/keep"))
	if p := j.Transfers[0].Proof; p == nil || p.By != "Oda Finch" || j.Item(to).Holds != rig.Data {
		t.Errorf("%+v, %s", p, j.Item(to).Holds)
	}
	wiped = out(j)
	if _, _, err := job.Apply(wiped, wipe, job.Stamp{}); err != nil {
		t.Errorf("it was proved and backed up, and is not wiped: %v", say.About(say.Plain, &wiped).Err(err))
	}
	if _, _, err := job.Apply(j, job.Change{Do: job.DoTransfer, Transfer: &swap}, job.Stamp{}); err == nil {
		t.Error("onto a drive that holds the only proved copy something else is copied")
	}
}
