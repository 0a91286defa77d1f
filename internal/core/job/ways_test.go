package job_test

import (
	"slices"
	"strings"
	"testing"

	"deepbay/internal/core/job"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/say"
	"deepbay/internal/core/volume"
	"deepbay/internal/core/workorder"
)

// losing is a bench on which item-3, a disk with data, and item-4, a new drive, are fitted in the tower,
// and where a tick types what its step asks for.
type losing struct{ *bench }

func (l losing) tick(id string) string {
	l.Helper()
	for _, s := range l.job.Order() {
		if s.ID == id {
			return l.try(job.Change{Do: job.DoTick, Step: id, Text: strings.Join(s.Confirm, " ")})
		}
	}
	return "no such step"
}

// try is why a change is refused, "" where it is taken.
func (l losing) try(c job.Change) string {
	next, _, err := job.Apply(l.job, c, stamp)
	if err != nil {
		return say.About(say.Plain, &l.job).Err(err).Error()
	}
	l.job = next
	return ""
}

// TestWaysOfLosing: the ways in which data was lost while every screen was green. Each ends in a
// refusal, or in a step that is held back; none is refused before the truth was told.
func TestWaysOfLosing(t *testing.T) {
	const disk, drive = rig.ItemID("item-3"), rig.ItemID("item-4")
	transfer := job.Change{Do: job.DoTransfer, Transfer: &volume.Transfer{ID: 1, How: volume.Swap, From: disk, To: drive, Bytes: 300 * quantity.GB}}
	layout := job.Change{Do: job.DoLayout, Sure: true, Layout: &volume.Layout{Item: disk, Table: volume.GPT, Volumes: []volume.Volume{{System: volume.NTFS, Label: "NEW"}}}}
	card := func(l losing, id rig.ItemID, holds rig.Content) {
		l.Helper()
		it := l.job.Item(id)
		if why := l.try(job.Change{Do: job.DoCorrect, Item: id, Serial: it.Serial, New: it.New, Holds: holds, Alone: true}); why != "" {
			t.Errorf("a true word is refused: %s", why)
		}
	}
	held := func(l losing, id string) string {
		l.Helper()
		for _, s := range l.job.Order() {
			if s.ID == id {
				return string(s.Held.Code)
			}
		}
		return "no such step"
	}
	copied := func(l losing) {
		l.Helper()
		for _, id := range []string{"prepare/backup", "fit/item-4@M2_1", "move/1/look", "move/1/copy"} {
			if slices.ContainsFunc(l.job.Order(), func(s workorder.Step) bool { return s.ID == id }) {
				if why := l.tick(id); why != "" {
					t.Errorf("%s: %s", id, why)
				}
			}
		}
	}
	out := func(l losing) { // the disk goes, by plan and by hands
		l.Helper()
		l.job.Wish.Keep = nil
		for _, why := range []string{l.try(job.Change{Do: job.DoTakeOut, Item: disk}), l.tick("take-out/item-3@SATA6")} {
			if why != "" {
				t.Error(why)
			}
		}
	}
	wipe := func(l losing) string {
		l.Helper()
		return l.try(job.Change{Do: job.DoWipe, Item: disk, Value: "purge", Text: l.job.Item(disk).Serial, Sure: true})
	}
	for name, c := range map[string]struct {
		do   func(l losing) string
		want string
	}{
		"the new drive leaves the job, and the old one is wiped": {func(l losing) string {
			l.try(transfer)
			copied(l)
			l.try(job.Change{Do: job.DoUntick, Step: "prepare/backup"}) // it was not read after all
			out(l)
			l.job.Done = nil // nothing fitted keeps it in the job
			if why := l.try(job.Change{Do: job.DoRemove, Item: drive}); why != "" {
				t.Error(why)
			}
			return wipe(l)
		}, "no copy of what is on"},
		"the source of a pending copy is called blank and gets a table": {func(l losing) string {
			l.try(transfer)
			card(l, disk, rig.Blank)
			return l.try(layout)
		}, "is not proved"},
		"the source of a pending copy gets a table": {func(l losing) string {
			l.try(transfer)
			if why := l.try(layout); why != "" {
				t.Error(why)
			}
			copied(l)
			if order := l.job.Order(); step(t, &l.job, "move/1/prove") > step(t, &l.job, "volumes/item-3") {
				t.Errorf("%s is emptied before its copy is proved", order[step(t, &l.job, "volumes/item-3")].ID)
			}
			return l.tick("volumes/item-3")
		}, "must be done"},
		"two alike drives without serial numbers": {func(l losing) string {
			l.job.Item(drive).Serial, l.job.Item(disk).Serial = "", ""
			l.job.Parts = slices.Clone(l.job.Parts)
			l.job.Part(l.job.Item(drive).Part).Drive.CapacityBytes = l.job.Part(l.job.Item(disk).Part).Drive.CapacityBytes
			w := l.job.Wish
			w.Starts = rig.Start{How: rig.CopyOver, Item: drive}
			l.try(job.Change{Do: job.DoWish, Wish: &w})
			copied(l)
			return l.try(job.Change{Do: job.DoTick, Step: "system/copy"})
		}, "write TAPE-"},
		"a system is installed over data with no copy": {func(l losing) string {
			w := l.job.Wish
			w.Starts = rig.Start{How: rig.Install, Item: disk}
			l.try(job.Change{Do: job.DoWish, Wish: &w})
			return l.tick("system/install")
		}, "no copy of what is on"},
		"a proof of a copy that was erased again": {func(l losing) string {
			l.try(transfer)
			copied(l)
			l.try(job.Change{Do: job.DoLayout, Sure: true, Layout: &volume.Layout{Item: drive, Table: volume.GPT, Volumes: []volume.Volume{{System: volume.NTFS, Label: "ANEW"}}}})
			if why := l.tick("volumes/item-4"); why != "" {
				t.Error(why)
			}
			return l.try(job.Change{Do: job.DoProve, Value: "1", Proof: &volume.Proof{Files: 9, Bytes: 300 * quantity.GB}})
		}, "is not connected"},
		"an erasing step among others": {func(l losing) string {
			w := l.job.Wish
			w.Starts = rig.Start{How: rig.Install, Item: drive}
			l.try(job.Change{Do: job.DoWish, Wish: &w})
			copied(l)
			return l.try(job.Change{Do: job.DoTick, Steps: []string{"prepare/parts", "system/install"}, Text: l.job.Item(drive).Serial})
		}, "never together"},
		"the backup is unsaid after the plan relied on it": {func(l losing) string {
			w := l.job.Wish
			w.Starts = rig.Start{How: rig.Install, Item: disk}
			l.try(job.Change{Do: job.DoWish, Wish: &w})
			l.tick("prepare/backup")
			if got := held(l, "system/install"); got != "" {
				t.Errorf("held by %s", got)
			}
			return l.try(job.Change{Do: job.DoLeaveOut, Step: "prepare/backup", Text: "no time", Sure: true})
		}, "no copy of what is on"},
		"wiped while it is in its bay": {func(l losing) string {
			l.job.Wish.BackedUp = "the archive"
			l.tick("prepare/backup")
			l.job.Wish.Keep = nil
			l.try(job.Change{Do: job.DoTakeOut, Item: disk})
			return wipe(l)
		}, "is still in the machine"},
	} {
		t.Run(name, func(t *testing.T) {
			l := losing{ready(t)}
			l.Helper()
			card(l, disk, rig.Data)
			card(l, drive, rig.Blank)
			if got := c.do(l); !strings.Contains(got, c.want) {
				t.Errorf("%q, want %q", got, c.want)
			}
		})
	}
}
