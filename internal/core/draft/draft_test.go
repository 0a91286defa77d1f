package draft_test

import (
	"reflect"
	"strings"
	"testing"
	"time"

	"deepbay/demo"
	"deepbay/internal/core/draft"
	"deepbay/internal/core/job"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/power"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/say"
	"deepbay/internal/format"
	"deepbay/internal/simbench"
)

// TestDraftOfTheShop drafts the sheet of every machine of the demo shop from what it tells about
// itself: the sheet passes its own format, what lies in it is written down in words that read
// back, and nothing in it is other than the true sheet says.
func TestDraftOfTheShop(t *testing.T) {
	files, err := demo.Files.ReadDir("jobs")
	if err != nil {
		t.Fatal(err)
	}
	drafted := 0
	for _, f := range files {
		j, err := demo.Job(strings.TrimSuffix(f.Name(), ".job.json"))
		if err != nil {
			t.Fatal(err)
		}
		m, ok := simbench.Inventory(j.Case().World(nil, nil))
		if !ok {
			continue
		}
		d, err := draft.Of(&m)
		if err != nil {
			continue
		}
		drafted++
		words := say.Draft(say.Plain, &d)
		b, err := format.Write(words.Sheet)
		if err != nil {
			t.Fatal(err)
		}
		sheet, err := format.Sheet(b)
		if err != nil {
			t.Errorf("%s: %v", j.ID, err)
			continue
		}
		n := job.New("drafted", "Drafted", sheet, rig.Wish{}, time.Time{})
		if len(words.Lines) > 0 {
			var lines []string
			for _, l := range words.Lines {
				lines = append(lines, string(l))
			}
			next, _, err := job.Apply(n, job.Change{Do: job.DoAdd, In: job.InFound, Text: strings.Join(lines, "\n")}, job.Stamp{By: "probe"})
			if err != nil {
				t.Errorf("%s: %v: %q", j.ID, say.About(say.Plain, &n).Err(err), lines)
				continue
			}
			if len(next.Found.Placements) != len(words.Lines) {
				t.Errorf("%s: of %d lines %d lie somewhere", j.ID, len(words.Lines), len(next.Found.Placements))
			}
		}
		slots := 0
		for i := range sheet.Sockets {
			if k := &sheet.Sockets[i]; k.Kind.Memory() {
				slots++
				truth := j.Sheet.Socket(k.ID)
				if truth == nil || truth.Kind != k.Kind || k.Channel != "" && truth.Channel != k.Channel {
					t.Errorf("%s: %s is drafted as %s on channel %q", j.ID, k.ID, k.Kind, k.Channel)
				}
			}
			guessed(t, string(j.ID), &sheet.Sockets[i])
		}
		for _, k := range say.FactsOf(say.Plain, &sheet) {
			for _, f := range k.Facts { // what feeds a socket a machine does not tell, and a draft asks
				if what := f.What.String(); what != "fed by" && what != "speaks" && f.Note.String() != "seen" {
					t.Errorf("%s: %s of %s is not marked seen but %q", j.ID, what, k.Socket, f.Note)
				}
			}
		}
		if len(words.Asks) == 0 {
			t.Errorf("%s: a probe sees everything", j.ID)
		}
		if g := j.Sheet.Memory.Generation; g != "" && sheet.Memory.Generation != "" && g != sheet.Memory.Generation {
			t.Errorf("%s: memory is drafted as %s, and is %s", j.ID, sheet.Memory.Generation, g)
		}
	}
	if drafted < 8 {
		t.Errorf("%d machines were drafted", drafted)
	}
}

// guessed reports what a socket states that no machine tells.
func guessed(t *testing.T, name string, k *machine.Socket) {
	t.Helper()
	for _, field := range []string{"LengthsMM", "Heatsink", "TopMM", "BottomMM", "Opening", "OpenEnd", "Splits", "Lead", "Drives", "SATAGen", "USB", "Where"} {
		if v := reflect.ValueOf(k).Elem().FieldByName(field); v.IsValid() && !v.IsZero() {
			t.Errorf("%s: %s states %s, which nothing told", name, k.ID, field)
		}
	}
}

// TestNotDrafted says why of a machine that tells too little.
func TestNotDrafted(t *testing.T) {
	for name, want := range map[string]string{"virtual": "virtual machine", "silent": "tells of no socket"} {
		m := power.Inventory{Virtual: name == "virtual"}
		if _, err := draft.Of(&m); err == nil || !strings.Contains(say.Plain.Err(err).Error(), want) {
			t.Errorf("%s: %v", name, err)
		}
	}
}
