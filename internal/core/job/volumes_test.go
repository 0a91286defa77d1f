package job_test

import (
	"math/rand"
	"slices"
	"strings"
	"testing"

	"deepbay/internal/core/job"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/say"
	"deepbay/internal/core/volume"
	"deepbay/internal/core/workorder"
	"deepbay/internal/coretest/jobs"
)

// TestVolumes: a blank drive gets volumes in the order, by size and serial number, and only when the
// end of that was typed; a drive of which nobody knows what it holds never does.
func TestVolumes(t *testing.T) {
	b := bench{t, load(t, "dive-camera-ingest")}
	l := volume.Layout{Item: "item-6", Table: volume.GPT, Volumes: []volume.Volume{{Bytes: 500 * quantity.GB, System: volume.NTFS, Label: "CAMERA", At: "D:"}, {System: volume.NTFS, Label: "SPARE", At: "E:"}}}
	b.do(job.Change{Do: job.DoLayout, Layout: &l})
	for _, s := range b.job.Order() {
		if s.ID == "volumes/item-6" && s.Held.Code != job.LawUnlooked {
			t.Errorf("a drive of which nothing is known is held by %v", s.Held)
		}
	}
	b.do(job.Change{Do: job.DoNoLayout, Value: "item-6"})
	b.job.Item("item-6").Holds = rig.Data
	if got := b.refused(job.Change{Do: job.DoLayout, Layout: &l}); !strings.Contains(got, "Confirm that this was agreed") {
		t.Errorf("a drive with data: %s", got)
	}
	for i := range b.job.Items {
		if it := &b.job.Items[i]; it.ID == "item-6" || it.ID == "item-7" {
			it.Holds = rig.Blank
		}
	}
	wide := l
	wide.Volumes = []volume.Volume{{Bytes: 3 * quantity.TB, System: volume.NTFS}}
	if d, ok := say.About(func(s string) string { return "<" + s + ">" }, &b.job).Divide(&b.job, wide); !ok || len(d.Faults) != 1 || strings.Count(d.Faults[0].String(), "<") != 1 {
		t.Errorf("drawn, its faults are %v: each is put into a language once", d.Faults)
	}
	for _, c := range []struct {
		change func(l *volume.Layout)
		says   string
	}{
		{func(l *volume.Layout) { l.Item = "item-1" }, "is no drive"},
		{func(l *volume.Layout) { l.Item = "nobody" }, "nobody"},
		{func(l *volume.Layout) { l.Volumes[0].Bytes = 3 * quantity.TB }, "are more than is left"},
		{func(l *volume.Layout) { l.Volumes[1].At = "D:" }, "D: is taken"},
		{func(l *volume.Layout) { l.Volumes[1].Label = "camera" }, "another volume is labelled"},
	} {
		wrong := l
		wrong.Volumes = slices.Clone(l.Volumes)
		c.change(&wrong)
		if got := b.refused(job.Change{Do: job.DoLayout, Layout: &wrong}); !strings.Contains(got, c.says) {
			t.Errorf("%+v: %s", wrong, got)
		}
	}
	b.do(job.Change{Do: job.DoLayout, Layout: &l})
	order := b.job.Order()
	n := slices.IndexFunc(order, func(s workorder.Step) bool { return s.ID == "volumes/item-6" })
	if n < 0 {
		t.Fatal("the order has no step for it")
	}
	words := ""
	for _, h := range order[n].How {
		words += say.About(say.Plain, &b.job).Fact(h).String() + "; "
	}
	for _, want := range []string{"It is Ternlight 2000, serial TLN4-20B117: 2.00 TB, shown as 1.81 TB", "Do not touch Ternlight 1000, serial TLN3-0E4411", "Volume 1: 500.00 GB", "labelled CAMERA, as D:", "Volume 2: 1.50 TB"} {
		if !strings.Contains(words, want) {
			t.Errorf("the step does not say %q: %s", want, words)
		}
	}
	if strings.Contains(words, "Not Ternlight 2000, serial TLN4-20B118") {
		t.Error("a blank drive is told to hold something")
	}
	if got := order[n].Confirm; len(got) != 1 || got[0] != "B117" {
		t.Errorf("it asks for %v", got)
	}
	b.do(job.Change{Do: job.DoCorrect, Item: "item-6", Serial: "TLN4-20B117", New: true, Holds: rig.Data, Alone: true}) // somebody looked again
	for _, s := range b.job.Order() {
		if s.ID == "volumes/item-6" && (s.Held.Code != job.LawNoCopy || s.Do.Code != workorder.EmptyDrive) {
			t.Errorf("a drive that holds data is written on: %v, held by %v", s.Do, s.Held)
		}
	}
}

// TestTyped: what people type for the end of a serial number.
func TestTyped(t *testing.T) {
	b := ready(t)
	w := b.job.Wish
	w.Starts = rig.Start{How: rig.Install, Item: "item-4"}
	b.do(job.Change{Do: job.DoWish, Wish: &w})
	for serial, typed := range map[string]map[string]bool{
		"TLN3-0E4411": {"4411": true, "TLN3-0E4411": true, " e4411 ": true, "4411.": true, "4412": false, "11": false, "": false, "44 11": false},
		"AB-C-12":     {"C-12": true, "bc12": true, "AB-C-12": true, "12": false, "XC12": false},
		"W-2":         {"": false, "W-2": false, "M2_1": true, "m2 1": false, "SATA6": false},
	} {
		b.job.Item("item-4").Serial = serial
		s := b.job.Order()
		n := slices.IndexFunc(s, func(s workorder.Step) bool { return s.ID == "system/install" })
		if n < 0 {
			t.Fatal("the order installs nothing")
		}
		for text, want := range typed {
			_, _, err := job.Apply(b.job, job.Change{Do: job.DoTick, Step: "system/install", Text: text}, stamp)
			if took := err == nil || !strings.Contains(say.About(say.Plain, &b.job).Err(err).Error(), "this erases"); took != want {
				t.Errorf("%q for %q: taken %v (%v)", text, serial, took, err)
			}
		}
	}
}

// TestErasesOnlyWhatIsConfirmed: on random jobs with volumes, arrays and systems to install no step
// that erases names a drive as its target that holds data or of which that is not known, for volumes;
// and none is ticked without the end of the serial number of all it erases.
func TestErasesOnlyWhatIsConfirmed(t *testing.T) {
	asked := 0
	for seed := range int64(max(60, *jobsTried)) {
		rng := rand.New(rand.NewSource(seed))
		j := jobs.Random(rng)
		for i := range j.Items {
			if it := &j.Items[i]; j.Part(it.Part).Drive != nil {
				it.Holds = []rig.Content{rig.Blank, rig.Blank, rig.Data, ""}[rng.Intn(4)]
				it.Serial = []string{"", "TL-00417", "TL-0042X"}[rng.Intn(3)]
			}
		}
		for _, l := range volume.Suggest(j.Blanks(), volume.NTFS, nil, nil) {
			if next, _, err := job.Apply(j, job.Change{Do: job.DoLayout, Layout: &l}, stamp); err == nil {
				j = next
			} else {
				t.Fatalf("seed %d: what is suggested is refused: %v", seed, say.About(say.Plain, &j).Err(err))
			}
		}
		for _, s := range j.Order() {
			if strings.HasPrefix(s.ID, "volumes/item") && j.Item(s.Item).Holds != rig.Blank {
				t.Fatalf("seed %d: %s writes on a drive that holds %q", seed, s.ID, j.Item(s.Item).Holds)
			}
			if len(s.Confirm) == 0 {
				continue
			}
			for _, text := range []string{"", "0000", strings.Join(s.Confirm[1:], " ") + " no"} {
				_, _, err := job.Apply(j, job.Change{Do: job.DoTick, Step: s.ID, Text: text}, stamp)
				if err == nil {
					t.Fatalf("seed %d: %s is done with %q typed, and asks for %v", seed, s.ID, text, s.Confirm)
				}
				if strings.Contains(err.Error(), string(job.ConfirmFirst)) { // and not for another reason
					asked++
				}
			}
		}
	}
	if asked < 10 {
		t.Errorf("only %d steps asked for a serial number", asked)
	}
}

// TestWipe: a drive is wiped when hands took it out, two copies are left, one of them read back, its serial number was typed and it was
// read back; taken back, it holds what it held.
func TestWipe(t *testing.T) {
	b := bench{t, load(t, "hydrophone-listening-desk")}
	b.do(job.Change{Do: job.DoReopen})
	b.job.Item("item-2").Holds = rig.Data
	wipe := job.Change{Do: job.DoWipe, Item: "item-2", Value: "purge", Text: "8842", Sure: true}
	for _, c := range []struct {
		change func(c *job.Change)
		says   string
	}{
		{func(c *job.Change) {}, "one copy only"},
		{func(c *job.Change) { c.Item, c.Text = "item-5", b.job.Item("item-5").Serial }, "is still in the machine"},
		{func(c *job.Change) { c.Item = "item-3" }, "is no drive"},
		{func(c *job.Change) { c.Value = "scrub" }, "is no way to wipe"},
		{func(c *job.Change) { c.Do = job.DoUnwipe }, "was not wiped"},
	} {
		wrong := wipe
		c.change(&wrong)
		if got := b.refused(wrong); !strings.Contains(got, c.says) {
			t.Errorf("%+v: %s", wrong, got)
		}
	}
	w := b.job.Wish
	w.BackedUp = "the archive, and a disk in the safe"
	b.do(job.Change{Do: job.DoWish, Wish: &w})
	for says, c := range map[string]job.Change{"last four characters": {Do: job.DoWipe, Item: "item-2", Value: "purge", Text: "8830", Sure: true}, "read it back": {Do: job.DoWipe, Item: "item-2", Value: "purge", Text: "8842"}} {
		if got := b.refused(c); !strings.Contains(got, says) {
			t.Errorf("%+v: %s", c, got)
		}
	}
	b.do(wipe)
	b.do(job.Change{Do: job.DoWipe, Item: "item-2", Value: "destroy", Text: "8842"}) // and then for good
	if it, was := b.job.Item("item-2"), b.job.WipedAs("item-2"); it.Holds != rig.Blank || was == nil || was.Level != volume.Destroy || was.Held != rig.Data {
		t.Errorf("it holds %q, and was wiped %+v", it.Holds, was)
	}
	if r := said(b.job).Report; !strings.HasPrefix(r.Removed[1].Wiped.String(), "wiped: destroy") {
		t.Errorf("the page says %q", r.Removed[1].Wiped)
	}
	b.do(job.Change{Do: job.DoUnwipe, Item: "item-2"})
	if it := b.job.Item("item-2"); it.Holds != rig.Data || b.job.WipedAs("item-2") != nil {
		t.Errorf("taken back, it holds %q", it.Holds)
	}
}

// TestLetters: letters that volumes have already are given to nothing else, whoever comes first.
func TestLetters(t *testing.T) {
	j := load(t, "echo-sounding-tower")
	try := func(c job.Change) error {
		next, _, err := job.Apply(j, c, stamp)
		if err == nil {
			j = next
		}
		return err
	}
	for _, c := range []job.Change{
		{Do: job.DoPlace, In: job.InPlanned, Item: "item-4", Socket: rig.ParsePath("M2_1")},
		{Do: job.DoCorrect, Item: "item-4", Serial: j.Item("item-4").Serial, New: true, Holds: rig.Blank},
		{Do: job.DoLetters, Item: "item-3", Text: "d e"},
	} {
		if err := try(c); err != nil {
			t.Fatal(c.Do, err)
		}
	}
	layout := func(at string) job.Change {
		return job.Change{Do: job.DoLayout, Layout: &volume.Layout{Item: "item-4", Table: volume.GPT, Volumes: []volume.Volume{{System: volume.NTFS, Label: "NEW", At: at}}}}
	}
	if s := volume.Suggest(j.Blanks(), volume.NTFS, nil, j.Taken()); len(s) != 1 || s[0].Volumes[0].At != "F:" {
		t.Errorf("suggested: %+v", s)
	}
	for _, c := range []struct {
		change job.Change
		ok     bool
	}{
		{layout("D:"), false}, {layout("F:"), true},
		{job.Change{Do: job.DoLetters, Item: "item-3", Text: "D: F:"}, false}, // the new volume has it
		{job.Change{Do: job.DoLetters, Item: "item-3", Text: "D: G:"}, true},
		{job.Change{Do: job.DoLetters, Item: "item-3", Text: "D: D:"}, false},
		{job.Change{Do: job.DoLetters, Item: "item-3", Text: "harbour"}, false},
		{job.Change{Do: job.DoLetters, Item: "item-5", Text: "H:"}, false}, // a module
		{job.Change{Do: job.DoLetters, Item: "item-3"}, true},
		{layout("D:"), true},
		{job.Change{Do: job.DoArray, Array: &rig.DriveArray{ID: "a", Level: rig.Mirror, Members: []rig.ItemID{"item-3", "item-4"}}}, true}, // which gets volumes then, and its members none
	} {
		if err := try(c.change); (err == nil) != c.ok {
			t.Errorf("%+v: %v", c.change, err)
		}
		if l := j.Validate(); len(l) > 0 {
			t.Errorf("%+v leaves %v", c.change, l)
		}
	}
}
