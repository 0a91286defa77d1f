package job_test

import (
	"slices"
	"strings"
	"testing"

	"deepbay/internal/core/job"
	"deepbay/internal/core/known"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/power"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// TestAgain: a machine that comes back is found as it was left: pieces, serial numbers,
// settings, what its drives hold, and what its screens showed last.
func TestAgain(t *testing.T) {
	b := ready(t)
	w := b.job.Wish
	w.Starts = rig.Start{How: rig.Install, Item: "item-4"}
	b.do(job.Change{Do: job.DoWish, Wish: &w})
	b.blank("item-4")
	b.do(job.Change{Do: job.DoSet, Setting: "sata-mode", Value: "raid"})
	b.carry()
	b.confirm()
	for _, s := range b.job.Order() {
		if b.job.Closed == nil && s.Phase == "close" {
			b.do(carryOut(s))
		}
	}
	b.do(job.Change{Do: job.DoClose})
	next := b.job.Again("tower-again", stamp.At)
	if err := next.Validate().Err(); err != nil {
		t.Fatal(err)
	}
	if next.Title != b.job.Title || next.Tag != b.job.Tag || next.Closed != nil || len(next.Done)+len(next.Seen) > 0 {
		t.Errorf("%+v", next)
	}
	if !slices.Equal(next.Found.Placements, b.job.Planned.Placements) || !slices.Equal(next.Found.Settings, b.job.Planned.Settings) || !slices.Equal(next.Planned.Placements, next.Found.Placements) {
		t.Errorf("found %v, left %v", next.Found, b.job.Planned)
	}
	for _, gone := range []rig.ItemID{"item-1", "item-2"} {
		if next.Item(gone) != nil {
			t.Errorf("%s was taken out, and comes back", gone)
		}
	}
	if it := next.Item("item-4"); it == nil || it.New || it.Serial != "TLN4-5A0C77" || it.Holds != rig.System {
		t.Errorf("the new system drive: %+v", it)
	}
	v := said(next)
	if v.Starts.String() != "the system on Ternlight 500, serial TLN4-5A0C77, as it came" || len(v.Blocks) > 0 {
		t.Errorf("starts: %s", v.Starts)
	}
	for _, l := range v.Before {
		if l.ID.String() == "total" && l.Verdict != power.Agrees {
			t.Errorf("what was read last: %+v", l)
		}
	}
}

// TestNewerSheet: a newer version of the sheet is shown by what it changes, taken whole or not
// at all, and given up facts go with it.
func TestNewerSheet(t *testing.T) {
	b := ready(t)
	same := b.job.Sheet
	if n := b.job.Newer(&same); len(n.Differs) != 0 {
		t.Errorf("the same sheet differs: %v", n.Differs)
	}
	if got := b.refused(job.Change{Do: job.DoSheet, Sheet: &same}); !strings.Contains(got, "says what the job's says") {
		t.Error(got)
	}
	newer := b.job.Sheet
	newer.Sockets = slices.Clone(newer.Sockets)
	newer.Socket("M2_1").Gen = 3
	n := b.job.Newer(&newer)
	if len(n.Differs) == 0 || n.Fault != nil || len(n.Comes) == 0 {
		t.Errorf("%+v", n)
	}
	gen := func() known.Range[quantity.Gen] {
		a := b.job.Check()
		return a.Socket(rig.On("M2_1")).Link.Gen
	}
	before := gen()
	b.do(job.Change{Do: job.DoSheet, Sheet: &newer})
	if after := gen(); before == after || after.High != 3 {
		t.Errorf("the link was %v and is %v", before, after)
	}
	without := newer
	without.Sockets = slices.DeleteFunc(slices.Clone(newer.Sockets), func(k machine.Socket) bool { return k.ID == "M2_1" })
	if n := b.job.Newer(&without); n.Fault == nil {
		t.Error("a sheet without the socket of a drive can be taken")
	}
	if got := b.refused(job.Change{Do: job.DoSheet, Sheet: &without}); got == "" || b.job.Sheet.Socket("M2_1") == nil {
		t.Error(got)
	}
	other := newer
	other.ID = "another"
	if got := b.refused(job.Change{Do: job.DoSheet, Sheet: &other}); !strings.Contains(got, "about a machine of the sheet") {
		t.Error(got)
	}
}
