package job_test

import (
	"slices"
	"strings"
	"testing"

	"deepbay/internal/core/fit"
	"deepbay/internal/core/job"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/rig"
)

// bayOf is where a drive lies in a rig.
func bayOf(r rig.Rig, id rig.ItemID) machine.BayID { return bays(r)[id] }

// A bay is a place of its own: told, kept when only the lead moves, and over the stages; and
// the steps say which bay, and whose lead.
func TestBays(t *testing.T) {
	b := &bench{t, load(t, "echo-sounding-tower")} // its disk lies in cage-3, on SATA6
	steps := func() string {
		var out []string
		for _, s := range b.job.Order() {
			out = append(out, s.ID)
		}
		return strings.Join(out, " ")
	}
	if got := bayOf(b.job.FoundRig(), "item-3"); got != "cage-3" {
		t.Fatalf("found in bay %q", got)
	}
	b.do(put("item-3", "SATA2"))
	if got := bayOf(b.job.PlannedRig(), "item-3"); got != "cage-3" || !strings.Contains(steps(), "fit/lead-item-3@SATA2") {
		t.Errorf("its lead moved, it lies in %q: %s", got, steps())
	}
	b.do(job.Change{Do: job.DoBay, Item: "item-3", Value: "cage-1"})
	if got := steps(); strings.Contains(got, "lead-item-3") || !strings.Contains(got, "take-out/item-3@SATA6") || !strings.Contains(got, "fit/item-3@SATA2#cage-1") {
		t.Errorf("told to lie elsewhere: %s", got)
	}
	b.do(job.Change{Do: job.DoBay, Item: "item-3"})
	if got := bayOf(b.job.PlannedRig(), "item-3"); got != "cage-3" {
		t.Errorf("told no more, it lies in %q", got)
	}

	// What was found otherwise is planned so too; a free bay is had with another port's lead.
	b.do(job.Change{Do: job.DoBay, In: job.InFound, Item: "item-3", Value: "cage-4"})
	b.do(job.Change{Do: job.DoAdd, Text: "500GB 2.5 sata", New: true})
	ssd := b.job.Items[len(b.job.Items)-1].ID
	b.do(put(ssd, "SATA3")) // no lead lies there
	b.do(job.Change{Do: job.DoBay, Item: ssd, Value: "cage-1"})
	r := b.job.PlannedRig()
	if got := bayOf(r, "item-3"); got != "cage-4" {
		t.Errorf("found in cage-4, planned in %q", got)
	}
	a := fit.Resolve(&r)
	if slices.ContainsFunc(a.Findings, func(f fit.Finding) bool { return f.Item == ssd && f.Code == "lead-missing" }) {
		t.Error("the lead of SATA1 lies in cage-1, and one is missed")
	}
	if got := fit.LeadsFrom(&r); len(got) != 1 || got[0] != (rig.Placement{Item: ssd, Socket: rig.On("SATA1")}) {
		t.Errorf("leads from %v", got)
	}

	// It is written down with the port.
	j := arrived(t, "echo-sounding-tower")
	next, _, err := job.Apply(j, job.Change{Do: job.DoAdd, Text: "SATA1 in bay Cage 4: 2TB 3.5 sata; SATA2: 1TB 3.5 sata"}, stamp)
	if got := bays(next.PlannedRig()); err != nil || len(got) != 2 || got["item-1"] != "cage-4" || got["item-2"] != "cage-2" {
		t.Errorf("written down: %v, %v", got, err)
	}

	// A machine that comes back has them there; a sheet that knows no such bays forgets them.
	b.carry()
	again := b.job.Again("again", stamp.At)
	if got := bays(again.FoundRig()); got["item-3"] != "cage-4" || got[ssd] != "cage-1" {
		t.Errorf("come back with %v", got)
	}
	plain := b.job.Sheet
	plain.Bays = nil
	other, _, err := job.Apply(b.job, job.Change{Do: job.DoSheet, Sheet: &plain}, stamp)
	if err != nil || len(other.Planned.Bays)+len(other.Found.Bays) > 0 {
		t.Errorf("on a sheet without bays: %v, %+v", err, other.Planned.Bays)
	}

	// The next stage finds drives where this one left them.
	b.do(job.Change{Do: job.DoAddStage, Text: "later", Value: "now"})
	ahead, _ := b.job.Ahead(1)
	if got := bays(ahead.FoundRig()); got["item-3"] != "cage-4" || got[ssd] != "cage-1" {
		t.Errorf("the next stage finds %v", got)
	}
}
