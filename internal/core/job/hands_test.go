package job_test

import (
	"slices"
	"strings"
	"testing"

	"deepbay/internal/core/job"
	"deepbay/internal/core/power"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/say"
	"deepbay/internal/core/workorder"
)

// carryOut is the change that says that a step was done, and of a test that it passed.
func carryOut(s workorder.Step) job.Change {
	if s.Test != "" {
		return job.Change{Do: job.DoTest, Step: s.ID, Result: &job.TestRun{State: job.TestPassed, Passes: 4}}
	}
	return job.Change{Do: job.DoTick, Step: s.ID, Text: strings.Join(s.Confirm, " ")}
}

// ready is the demo's tower with a plan that nothing stops.
func ready(t *testing.T) *bench {
	t.Helper()
	b := &bench{t, load(t, "echo-sounding-tower")}
	for _, c := range []job.Change{put("item-4", "M2_1"), put("item-5", "A2"), put("item-6", "B2"), {Do: job.DoTakeOut, Item: "item-1"}} {
		b.do(c)
	}
	return b
}

// blank says that somebody looked, and that nothing is on a drive.
func (b *bench) blank(id rig.ItemID) {
	b.Helper()
	it := b.job.Item(id)
	b.do(job.Change{Do: job.DoCorrect, Item: id, Serial: it.Serial, New: it.New, Holds: rig.Blank})
}

// carry does every step up to the closing.
func (b *bench) carry() {
	b.Helper()
	for _, s := range b.job.Order() {
		if s.Phase != workorder.Close {
			b.do(carryOut(s))
		}
	}
}

// confirm takes every line as expected.
func (b *bench) confirm() {
	b.Helper()
	var ids []power.LineID
	for _, l := range job.Look(b.job).Lines {
		if l.Exact && l.Reading == nil {
			ids = append(ids, l.ID)
		}
	}
	b.do(job.Change{Do: job.DoConfirm, Lines: ids})
}

func (b *bench) line(id string) power.Line {
	b.Helper()
	for _, l := range job.Look(b.job).Lines {
		if l.ID.String() == id {
			return l
		}
	}
	b.Fatalf("no line %s", id)
	return power.Line{}
}

// open is the ids of steps of which nobody has said anything.
func (b *bench) open() string {
	v := said(b.job)
	var out []string
	for _, s := range v.Order {
		if !slices.ContainsFunc(b.job.Done, func(t job.Tick) bool { return t.Step == string(s.ID) && !t.Over }) {
			out = append(out, string(s.ID))
		}
	}
	return strings.Join(out, " ")
}

// TestLeftOut: a step left out needs a reason, a dangerous one a second word; neither holds
// the closing back, both stand on the page.
func TestLeftOut(t *testing.T) {
	b := ready(t)
	for _, c := range []struct {
		change job.Change
		says   string
	}{
		{job.Change{Do: job.DoLeaveOut, Step: "prepare/parts"}, "no reason was given for leaving it out"},
		{job.Change{Do: job.DoLeaveOut, Step: "power-down/unplug", Text: "in a hurry"}, "Pull the mains plug and every other lead: Pull the plug; a switch may sit in the wrong wire"},
		{job.Change{Do: job.DoLeaveOut, Step: "power-on/look", Text: "in a hurry"}, "A screw under the board"},
		{job.Change{Do: job.DoLeaveOut, Step: "close/cover", Text: "in a hurry"}, "A screw under the board"},
		{job.Change{Do: job.DoLeaveOut, Step: "power-down/shut", Text: "in a hurry"}, "while the machine is on"},
	} {
		if got := b.refused(c.change); !strings.Contains(got, c.says) {
			t.Errorf("%+v: %s", c.change, got)
		}
	}
	for _, s := range b.job.Order() { // whatever carries a caution, cuts the power or counts screws asks twice
		asks := len(s.Cautions) > 0 || s.Phase == workorder.PowerDown || s.ID == "power-on/look" || s.ID == "close/cover"
		if asks != s.Danger.Is() {
			t.Errorf("%s: danger %v", s.ID, s.Danger)
		}
	}
	for _, s := range b.job.Order() {
		b.do(job.Change{Do: job.DoLeaveOut, Step: s.ID, Text: "the owner does it", Sure: true})
	}
	b.do(job.Change{Do: job.DoClose})
	r := said(b.job).Report
	if len(r.LeftOut) != len(b.job.Order()) || r.LeftOut[0].Reason != "the owner does it" || r.LeftOut[0].By == "" {
		t.Errorf("left out: %+v", r.LeftOut)
	}
	for _, open := range r.Open {
		if strings.HasPrefix(open.String(), "not done") {
			t.Errorf("open as well: %s", open)
		}
	}
}

// TestTickSeveral ticks what was seen, all of it or nothing.
func TestTickSeveral(t *testing.T) {
	b := ready(t)
	b.do(job.Change{Do: job.DoTick, Steps: []string{"prepare/backup", "prepare/parts"}})
	if got := b.refused(job.Change{Do: job.DoTick, Steps: []string{"open/cover", "no/such"}}); !strings.Contains(got, "/steps/1") {
		t.Error(got)
	}
	if len(b.job.Done) != 2 {
		t.Errorf("done: %+v", b.job.Done)
	}
}

// TestInsideAgain: where work inside begins anew after power was on, the plug, the strap and
// the closing are there again, unticked; work that the machine is not opened for renews nothing.
func TestInsideAgain(t *testing.T) {
	renewed := []string{"power-down/shut", "power-down/unplug", "power-down/drain", "open/cover", "open/strap", "power-on/look", "power-on/start", "power-on/set-up"}
	for _, c := range []struct {
		name   string
		change job.Change
		again  bool
	}{
		{"a drive to another port", put("item-3", "SATA1"), true},
		{"a step that was not done after all", job.Change{Do: job.DoUntick, Step: "fit/item-5@A2"}, true},
		{"a piece out", job.Change{Do: job.DoTakeOut, Item: "item-6"}, true},
		{"a note of a test", job.Change{Do: job.DoUntick, Step: "test/memory"}, false},
		{"a step left out", job.Change{Do: job.DoLeaveOut, Step: "prepare/parts", Text: "they lay there"}, false},
	} {
		t.Run(c.name, func(t *testing.T) {
			b := ready(t)
			b.carry()
			b.do(c.change)
			for _, id := range renewed {
				if again := slices.Contains(strings.Fields(b.open()), id); again != c.again {
					t.Errorf("%s is to do again: %v", id, again)
				}
			}
			if slices.Contains(strings.Fields(b.open()), "prepare/backup") {
				t.Error("the backup is to be looked for again")
			}
			if !c.again {
				return
			}
			// What was done in the first round still says whose hands they were; a second round ends.
			if len(said(b.job).Report.Hands) == 0 {
				t.Error("the hands of the first round are forgotten")
			}
			b.carry()
			if got := b.open(); got != "close/off close/cover close/leads" {
				t.Errorf("open after the second round: %s", got)
			}
		})
	}
	b := ready(t)
	for _, s := range b.job.Order() { // ticked out of order, nothing is renewed
		if !s.Inside && s.Test == "" {
			b.do(job.Change{Do: job.DoTick, Step: s.ID, Text: strings.Join(s.Confirm, " ")})
		}
	}
	if got := b.open(); strings.Contains(got, "power-down") {
		t.Errorf("ticking renewed safety: %s", got)
	}
}

// TestTests: a test is told by how it stands, not ticked; running or with errors it is open
// on the page and does not hold back the closing.
func TestTests(t *testing.T) {
	b := ready(t)
	test := func(r job.TestRun) job.Change {
		return job.Change{Do: job.DoTest, Step: "test/memory", Result: &r}
	}
	for _, c := range []struct {
		change job.Change
		says   string
	}{
		{job.Change{Do: job.DoTick, Step: "test/memory"}, "a test is not ticked"},
		{test(job.TestRun{State: job.TestPassed}), "at least one pass"},
		{test(job.TestRun{State: job.TestErrors}), "what the errors were is missing"},
		{job.Change{Do: job.DoTest, Step: "prepare/parts", Result: &job.TestRun{State: job.TestRuns}}, "this step asks for no test"},
	} {
		if got := b.refused(c.change); !strings.Contains(got, c.says) {
			t.Errorf("%+v: %s", c.change, got)
		}
	}
	for _, s := range b.job.Order() {
		if s.Test == "" {
			b.do(carryOut(s))
		}
	}
	b.confirm()
	has := func(list []string, want string) bool {
		return slices.ContainsFunc(list, func(s string) bool { return strings.Contains(s, want) })
	}
	open := func() (out []string) {
		for _, o := range said(b.job).Report.Open {
			out = append(out, o.String())
		}
		return out
	}
	if !has(open(), "not begun: Run a memory test") {
		t.Errorf("open: %q", open())
	}
	if got := b.refused(job.Change{Do: job.DoClose}); !strings.Contains(got, "Run a memory test") {
		t.Errorf("closed without a word of the test: %s", got)
	}
	b.do(test(job.TestRun{State: job.TestRuns}))
	if s := said(b.job).Status; !strings.Contains(s.Waits.String(), "running") {
		t.Errorf("waits for %q", s.Waits)
	}
	b.do(test(job.TestRun{State: job.TestErrors, Text: "12 in pass 2"}))
	if !has(open(), "errors, 12 in pass 2") {
		t.Errorf("open: %q", open())
	}
	before := b.job
	b.do(job.Change{Do: job.DoClose})
	b.job = before
	b.do(test(job.TestRun{State: job.TestPassed, Passes: 4}))
	if len(open()) != 0 || said(b.job).Report.Tests[0].Says.String() != "Run a memory test to the end: passed, 4 passes" {
		t.Errorf("open %q, tests %q", open(), said(b.job).Report.Tests)
	}
	b.do(job.Change{Do: job.DoTakeOut, Item: "item-6"}) // what was tested lies otherwise now
	if b.do(put("item-6", "B2")); !has(open(), "not begun: Run a memory test") {
		t.Errorf("a test of memory that was changed counts: %q", open())
	}

	b = ready(t)
	wish := b.job.Wish
	wish.Tests = []rig.Test{rig.LoadTest, rig.SelfTest}
	b.do(job.Change{Do: job.DoWish, Wish: &wish})
	var ids []string
	for _, s := range b.job.Order() {
		if s.Test != "" {
			ids = append(ids, s.ID)
		}
	}
	if got := strings.Join(ids, " "); got != "test/memory test/self@item-4 test/load" {
		t.Errorf("tests: %s", got)
	}
}

// TestReadingsOfPieces: a reading is of the piece that lay there. Like drives that change
// places take nothing along, and what was not touched keeps what was read.
func TestReadingsOfPieces(t *testing.T) {
	b := ready(t)
	twin := *b.job.Part(b.job.Item("item-3").Part).Clone()
	b.do(job.Change{Do: job.DoAdd, Part: &twin, Serial: "MD-2", New: true})
	b.do(put("item-7", "SATA1"))
	b.carry()
	b.confirm()
	b.do(put("item-7", "SATA6")) // they change places
	for id, want := range map[string]power.Verdict{
		"drive/SATA1": power.NotLooked, "drive/SATA6": power.NotLooked, "link/SATA6": power.NotLooked, "message": power.NotLooked,
		"drive/M2_1": power.Agrees, "total": power.Agrees, "slot/A2": power.Agrees, "fitted": power.Agrees, "rate": power.Agrees,
	} {
		if l := b.line(id); l.Verdict != want || (want == power.NotLooked) != l.Was.Is() {
			t.Errorf("%s: %s, was %v", id, l.Verdict, l.Was)
		}
	}
	if got := b.do(job.Change{Do: job.DoRead, Line: power.ParseLineID("drive/SATA6"), Text: "S/N: md 2"}); !strings.Contains(got, "md 2") {
		t.Error(got)
	}
	if l := b.line("drive/SATA6"); l.Verdict != power.Agrees || l.Serial != "MD-2" {
		t.Errorf("%+v", l)
	}
	b.do(job.Change{Do: job.DoRead, Line: power.ParseLineID("drive/SATA1"), Text: "MD-2"})
	if l := said(b.job).Lines; !slices.ContainsFunc(l, func(l say.Line) bool {
		return l.ID.String() == "drive/SATA1" && l.Verdict == power.Differs && strings.Contains(l.Says.String(), "shows serial number MD-2, which is that of Mudlark 2 TB")
	}) {
		t.Errorf("%+v", b.line("drive/SATA1"))
	}
	b.do(put("item-5", "B2")) // modules change places
	for _, id := range []string{"total", "slot/A2", "fitted", "rate"} {
		if l := b.line(id); l.Verdict != power.NotLooked {
			t.Errorf("%s: %s", id, l.Verdict)
		}
	}
	if l := b.line("drive/M2_1"); l.Verdict != power.Agrees {
		t.Errorf("a drive that nobody touched: %s", l.Verdict)
	}
}

// TestReadingStays: what a screen told that no label states stays told when something else is
// moved: that the reading proves less by then is no reason to read the line again.
func TestReadingStays(t *testing.T) {
	b := ready(t)
	b.job.Parts = slices.Clone(b.job.Parts)
	for i := range b.job.Parts {
		if d := b.job.Parts[i].Drive; d != nil && b.job.Parts[i].Name == "Mudlark 2 TB" {
			other := *d
			other.Gen = 0
			b.job.Parts[i].Drive = &other
		}
	}
	b.do(job.Change{Do: job.DoRead, Line: power.ParseLineID("link/SATA6"), Text: "6 Gb/s"})
	if l := b.line("link/SATA6"); l.Touched || l.Verdict != power.Agrees {
		t.Errorf("it was read, and counts as touched: %+v", l)
	}
	b.do(job.Change{Do: job.DoTakeOut, Item: "item-6"})
	if l := b.line("link/SATA6"); l.Reading == nil || l.Was.Is() {
		t.Errorf("a module moved, and the disk's link is to be read again: %+v", l)
	}
}

// TestAsked: what the job cannot have changed and nothing foretells is not asked for.
func TestAsked(t *testing.T) {
	b := ready(t)
	b.job.Sheet.Settings = slices.Clone(b.job.Sheet.Settings)
	b.job.Sheet.Settings[0].Default = ""
	l := b.line("setting/" + string(b.job.Sheet.Settings[0].ID))
	if l.Verdict != power.NotAsked || l.Touched || l.Verdict.Open() {
		t.Errorf("%+v", l)
	}
	for id, want := range map[string]bool{"drive/M2_1": true, "slot/A2": true, "total": true, "drive/SATA6": false, "link/SATA6": false} {
		if l := b.line(id); l.Touched != want {
			t.Errorf("%s can have changed: %v", id, l.Touched)
		}
	}
}

// TestMessages: what a first screen says is known by its words, with what it proves.
func TestMessages(t *testing.T) {
	for _, c := range []struct {
		typed   string
		verdict power.Verdict
		proves  string
	}{
		{"No operating system found", power.Differs, "It proves nothing about drives"},
		{"Reboot and select proper boot device", power.Differs, "It proves nothing about drives"},
		{"The amount of system memory has changed", power.Agrees, "Read the total and the slots"},
		{"enter the recovery key", power.Differs, "do not start anew"},
		{"screen stays black", power.Differs, "none of them keeps a screen dark"},
		{"3 long beeps", power.Differs, "Mostly it is memory"},
		{"it starts", power.Agrees, "the other lines say"},
		{"a picture of a whale", power.Differs, "look it up in the manual"},
	} {
		b := ready(t)
		b.do(job.Change{Do: job.DoRead, Line: power.LineID{Kind: power.Message}, Text: c.typed})
		l := said(b.job).Lines[0]
		if l.Verdict != c.verdict || !strings.Contains(l.Proves.String(), c.proves) {
			t.Errorf("%q: %s, %s", c.typed, l.Verdict, l.Proves)
		}
	}
}

// TestAccepted: only what somebody accepted is called accepted; the rest is open.
func TestAccepted(t *testing.T) {
	b := ready(t)
	b.do(put("item-4", "M2_2"))
	b.do(put("item-3", "SATA1"))
	page := func() (open, accepted int) {
		r := said(b.job).Report
		for _, o := range r.Open {
			if strings.Contains(o.String(), "could do 7.88") {
				open++
			}
		}
		for _, a := range r.Accepted {
			if strings.Contains(a.Says.String(), "could do 7.88") && a.By != "" {
				accepted++
			}
		}
		return open, accepted
	}
	if o, a := page(); o != 1 || a != 0 {
		t.Errorf("%d open, %d accepted", o, a)
	}
	b.do(job.Change{Do: job.DoAccept})
	if o, a := page(); o != 0 || a != 1 {
		t.Errorf("accepted: %d open, %d accepted", o, a)
	}
	b.do(job.Change{Do: job.DoSet, Setting: "upper-speed", Value: "gen3"})
	if o, a := page(); o != 0 || a != 1 {
		t.Errorf("another setting, the same loss: %d open, %d accepted", o, a)
	}
	whole := b.job.Sheet
	b.job.Sheet.Sockets = slices.Clone(whole.Sockets)
	b.job.Sheet.Socket("M2_2").Lanes = 2
	if o, a := page(); o != 1 || a != 0 {
		t.Errorf("a larger loss than was accepted: %d open, %d accepted", o, a)
	}
	b.job.Sheet = whole
	b.do(job.Change{Do: job.DoUnaccept, Finding: &b.job.Accepted[0]})
	if o, a := page(); o != 1 || a != 0 {
		t.Errorf("taken back: %d open, %d accepted", o, a)
	}
	if r := said(b.job).Report; !slices.ContainsFunc(r.Notes, func(x say.Text) bool {
		return strings.HasPrefix(x.String(), "SATA6 stays off: when M2_2 holds anything")
	}) {
		t.Errorf("notes: %q", r.Notes)
	}
	b = ready(t)
	if got := b.refused(job.Change{Do: job.DoAccept}); !strings.Contains(got, "no such warning") {
		t.Error(got)
	}
}

// TestNothingFitted: a job in which nothing happened asks before it closes.
func TestNothingFitted(t *testing.T) {
	b := &bench{t, load(t, "echo-sounding-tower")}
	if got := b.refused(job.Change{Do: job.DoClose}); !strings.Contains(got, "nothing was fitted") {
		t.Error(got)
	}
	b.do(job.Change{Do: job.DoClose, Sure: true})
}

// TestProven: memory beyond the sheet is proven once it was read and tested, and the sheet
// that was taught plans with it.
func TestProven(t *testing.T) {
	b := ready(t)
	b.job.Sheet.Memory.Module.StatedBytes, b.job.Sheet.Memory.Module.ProvenBytes = 8*quantity.GiB, 0
	b.job.Sheet.Memory.Total.StatedBytes, b.job.Sheet.Memory.Total.ProvenBytes = 16*quantity.GiB, 0
	b.job.Sheet.Socket("M2_1").Gen = 3
	b.carry()
	if got := job.Look(b.job).Report.Proven; len(got) != 0 {
		t.Errorf("before anything was read: %+v", got)
	}
	b.confirm()
	b.do(job.Change{Do: job.DoRead, Line: power.ParseLineID("link/M2_1"), Text: "Gen 4 x4"})
	got := job.Look(b.job).Report.Proven
	taught := b.job.Sheet
	taught.Sockets = slices.Clone(taught.Sockets)
	var of []string
	for i := range got {
		of = append(of, string(got[i].Of))
		if !got[i].Teach(&taught, "job of a tower") {
			t.Errorf("%s is not taken", got[i].Of)
		}
	}
	if strings.Join(of, " ") != "memory module link" || taught.Memory.Total.ProvenBytes != 32*quantity.GiB || taught.Memory.Module.ProvenBytes != 16*quantity.GiB || taught.Socket("M2_1").Gen != 4 {
		t.Fatalf("%v: %+v, %d", of, taught.Memory, taught.Socket("M2_1").Gen)
	}
	if err := taught.Validate().Err(); err != nil {
		t.Error(err)
	}
	again := b.job
	again.Sheet = taught
	if got := job.Look(again).Report.Proven; len(got) != 0 {
		t.Errorf("on the sheet that was taught: %+v", got)
	}
	if w := said(again).Planned.Findings; slices.ContainsFunc(w, func(f say.Finding) bool { return f.Code == "module-trial" || f.Code == "memory-trial" }) {
		t.Error("what was proven is a trial again")
	}
	b.do(job.Change{Do: job.DoUntick, Step: "test/memory"})
	if got := job.Look(b.job).Report.Proven; len(got) != 1 || got[0].Of != job.ProvenLink {
		t.Errorf("without the test: %+v", got)
	}
}
