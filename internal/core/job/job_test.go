package job_test

import (
	"reflect"
	"strings"
	"testing"
	"time"

	"deepbay/demo"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/job"
	"deepbay/internal/core/part"
	"deepbay/internal/core/power"
	"deepbay/internal/core/problem"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/say"
)

var stamp = job.Stamp{By: "Oda Finch", At: time.Date(2026, 11, 25, 10, 0, 0, 0, time.UTC)}

func load(t testing.TB, name string) job.Job {
	t.Helper()
	j, err := demo.Job(name)
	if err != nil {
		t.Fatal(err)
	}
	return j
}

// must applies changes one after another.
func must(t *testing.T, j job.Job, changes ...job.Change) job.Job {
	t.Helper()
	for _, c := range changes {
		next, says, err := job.Apply(j, c, stamp)
		if err != nil || !says.Is() {
			t.Fatalf("%+v: %q, %v", c, says, err)
		}
		j = next
	}
	return j
}

// said is a job with everything that is said about it.
func said(j job.Job) say.View {
	v := job.Look(j)
	return say.Look(say.Plain, &v)
}

func worded(j *job.Job, err error) string {
	list, _ := err.(problem.List)
	return say.About(say.Plain, j).Problems(list).Error()
}

func joined(texts []say.Text) string {
	var out []string
	for _, t := range texts {
		out = append(out, t.String())
	}
	return strings.Join(out, "\n")
}

func put(item rig.ItemID, socket string) job.Change {
	return job.Change{Do: job.DoPlace, Item: item, Socket: rig.ParsePath(socket)}
}

// Each change says what it did, or refuses with the field and the cure; the job
// it started from is never touched.
func TestApply(t *testing.T) {
	sata := part.Part{Format: part.Format, Version: 1, ID: "skerry-240", Name: "Skerry 240", Drive: &part.Drive{Form: part.FormM2, M2: &part.M2{}}}
	for _, c := range []struct {
		name   string
		change job.Change
		want   string // the sentence, or the first line of the error
	}{
		{"place", put("item-4", "M2_1"), "put Ternlight 500 into M2_1"},
		{"place on another", put("item-5", "A2"), "put Sallow 16 GB into A2, Sallow 4 GB goes to the mat"},
		{"change places", put("item-1", "A2"), "put Sallow 4 GB into A2 and Sallow 4 GB into A1"},
		{"move", put("item-3", "SATA1"), "put Mudlark 2 TB into SATA1"},
		{"move as found", job.Change{Do: job.DoPlace, In: job.InFound, Item: "item-3", Socket: rig.ParsePath("SATA2")}, "as found: put Mudlark 2 TB into SATA2"},
		{"place where it is", put("item-3", "SATA6"), "/socket: Mudlark 2 TB is in SATA6 already"},
		{"unknown item", put("item-99", "M2_1"), `/item: no item is named "item-99"; name an item of this job`},
		{"unknown socket", put("item-4", "M2_9"), `/socket: no socket is named "M2_9"; the sheet has M2_1, M2_2, PCIE1, PCIE2, A1, A2, B1, B2, SATA1, SATA2, SATA3, SATA4 and 4 more`},
		{"no socket", put("item-4", ""), "/socket: no socket was named; say where it goes"},
		{"take out", job.Change{Do: job.DoTakeOut, Item: "item-1"}, "took Sallow 4 GB out of A1"},
		{"take out what is out", job.Change{Do: job.DoTakeOut, Item: "item-4"}, "/item: Ternlight 500 is in no socket"},
		{"moves", job.Change{Do: job.DoMoves, Moves: []rig.Move{{Item: "item-5", Socket: rig.ParsePath("A1")}, {Item: "item-1"}, {Setting: "upper-speed", Value: "gen3"}}},
			"put Sallow 16 GB into A1; took Sallow 4 GB out; set Upper M.2 link speed to Gen 3"},
		{"no moves", job.Change{Do: job.DoMoves}, "/moves: no move was given"},
		{"moves of nothing", job.Change{Do: job.DoMoves, Moves: []rig.Move{{Item: "item-1"}, {Socket: rig.ParsePath("A1")}}}, "/moves/1: moves neither an item nor a setting; name one of them"},
		{"moves of nobody", job.Change{Do: job.DoMoves, Moves: []rig.Move{{Item: "x", Socket: rig.ParsePath("A1")}}}, `/moves/0/item: no item is named "x"; name an item of this job`},
		{"moves to nowhere", job.Change{Do: job.DoMoves, Moves: []rig.Move{{Item: "item-5", Socket: rig.ParsePath("Z")}}}, `/moves/0/socket: no socket is named "Z"; the sheet has M2_1, M2_2, PCIE1, PCIE2, A1, A2, B1, B2, SATA1, SATA2, SATA3, SATA4 and 4 more`},
		{"into a bay", job.Change{Do: job.DoBay, Item: "item-3", Value: "cage-1"}, "laid Mudlark 2 TB into bay cage-1, its lead on SATA6"},
		{"into no bay", job.Change{Do: job.DoBay, Item: "item-3", Value: "cage-9"}, `/value: "cage-9" is no bay in which it can lie there; the machine has the bays cage-1, cage-2, cage-3, cage-4; only drives on a SATA or U.2 port lie in one`},
		{"a module into a bay", job.Change{Do: job.DoBay, Item: "item-1", Value: "cage-1"}, `/value: "cage-1" is no bay in which it can lie there; the machine has the bays cage-1, cage-2, cage-3, cage-4; only drives on a SATA or U.2 port lie in one`},
		{"what lies nowhere into a bay", job.Change{Do: job.DoBay, Item: "item-4", Value: "cage-1"}, "/item: Ternlight 500 is in no socket"},
		{"moves into a bay", job.Change{Do: job.DoMoves, Moves: []rig.Move{{Item: "item-3", Socket: rig.ParsePath("SATA1"), Bay: "cage-2"}}}, "laid Mudlark 2 TB into bay cage-2, its lead on SATA1"},
		{"set", job.Change{Do: job.DoSet, Setting: "memory-profile", Value: "on"}, "set Memory profile to Profile 1"},
		{"set nothing", job.Change{Do: job.DoSet, Setting: "x", Value: "on"}, `/setting: no setting is named "x"; name a setting of the sheet`},
		{"set to nonsense", job.Change{Do: job.DoSet, Setting: "memory-profile", Value: "42"}, `/planned/settings/0/value: "42" is not an option of memory-profile; use the value of an option`},
		{"add", job.Change{Do: job.DoAdd, Part: &sata, New: true}, "added, to fit: Skerry 240"},
		{"add nothing", job.Change{Do: job.DoAdd}, "/part: no part was given; choose one from the shelf, or type what is printed on it"},
		{"add by its words", job.Change{Do: job.DoAdd, Text: "2x16 DDR4-3200 DIMM", New: true}, "added, to fit: 2 of 16GB DDR4-3200 DIMM"},
		{"add by words that leave a question", job.Change{Do: job.DoAdd, Text: "16 12800"}, "/text: which speed? it could be DDR3-1600 or DDR4-1600; add one of these words"},
		{"remove", job.Change{Do: job.DoRemove, Item: "item-3"}, "removed Mudlark 2 TB from the job"},
		{"wish", job.Change{Do: job.DoWish, Wish: &rig.Wish{Text: "quiet"}}, "changed the wish"},
		{"wish for a ghost", job.Change{Do: job.DoWish, Wish: &rig.Wish{Keep: []rig.ItemID{"x"}}}, `/wish/keep/0: no item is named "x"; name an item of this job`},
		{"tick nothing", job.Change{Do: job.DoTick, Step: "fit/x"}, `/step: the order has no step "fit/x" now; the plan has changed: look at the order again`},
		{"confirm", job.Change{Do: job.DoConfirm, Line: power.ParseLineID("total")}, "Memory total: as expected"},
		{"read", job.Change{Do: job.DoRead, Line: power.ParseLineID("drive/SATA6"), Text: "1.8 TB"}, "Mudlark 2 TB on SATA6: shows 1.8 TB"},
		{"read nonsense", job.Change{Do: job.DoRead, Line: power.ParseLineID("total"), Text: "many"}, `/text: "many" is not a capacity: write a number above 0 and a unit, such as 16 GiB or 500 GB`},
		{"read a line that is none", job.Change{Do: job.DoRead, Line: power.ParseLineID("drive/M2_1"), Text: "1 TB"}, `/line: no line "drive/M2_1" is expected now; the plan has changed: look at the lines again`},
		{"explain what agrees", job.Change{Do: job.DoExplain, Line: power.ParseLineID("total"), Text: "because"}, `/line: line "total" does not differ; only a difference needs a reason`},
		{"explain without a word", job.Change{Do: job.DoExplain, Line: power.ParseLineID("total")}, "/text: no reason was given; say why the difference is right"},
		{"reopen what is open", job.Change{Do: job.DoReopen}, "/do: the job is open"},
		{"nonsense", job.Change{Do: "dance"}, `/do: "dance" is not a change`},
	} {
		j := load(t, "echo-sounding-tower")
		next, says, err := job.Apply(j, c.change, stamp)
		got := say.About(say.Plain, &j).Fact(says).String()
		if err != nil {
			list, ok := err.(problem.List)
			got = strings.Split(say.About(say.Plain, &j).Problems(list).Error(), "\n")[0]
			if !ok || !reflect.DeepEqual(next, j) {
				t.Errorf("%s: error %T, and the job changed: %v", c.name, err, !reflect.DeepEqual(next, j))
			}
		}
		if got != c.want {
			t.Errorf("%s: %s\nwant %s", c.name, got, c.want)
		}
		if fresh := load(t, "echo-sounding-tower"); !reflect.DeepEqual(j, fresh) {
			t.Fatalf("%s: the job it started from was changed", c.name)
		}
	}
}

// A generation without a width does not prove a link that may be half as wide.
func TestLinkNeedsItsWidth(t *testing.T) {
	j := load(t, "echo-sounding-tower")
	j, _, err := job.Apply(j, put("item-4", "M2_1"), stamp)
	if err != nil {
		t.Fatal(err)
	}
	for text, want := range map[string]string{"Gen 4": `"Gen 4" says no width: write it too, such as Gen 4 x4`, "PCIe 4.0 x4": ""} {
		_, _, err := job.Apply(j, job.Change{Do: job.DoRead, Line: power.ParseLineID("link/M2_1"), Text: text}, stamp)
		got := ""
		if list, ok := err.(problem.List); ok { //nolint:errorlint // Apply's errors are lists
			got = say.About(say.Plain, &j).Problems(list).Error()
		}
		if !strings.Contains(got, want) || want == "" && err != nil {
			t.Errorf("%q: %v, want %q", text, got, want)
		}
	}
}

// A kit typed as it is printed becomes one piece for each module, with its serial.
func TestAddKit(t *testing.T) {
	j := load(t, "echo-sounding-tower")
	next, _, err := job.Apply(j, job.Change{Do: job.DoAdd, Text: "2x16 DDR4-3200 DIMM", Serial: "S1 S2", New: true}, stamp)
	if err != nil {
		t.Fatal(err)
	}
	got := next.Items[len(j.Items):]
	if len(got) != 2 || got[0].Serial != "S1" || got[1].Serial != "S2" || got[0].Part != got[1].Part || got[0].ID == got[1].ID {
		t.Errorf("the kit became %+v", got)
	}
}

// A correction of what was found goes into the plan as long as the two agree.
func TestPlanFollowsFound(t *testing.T) {
	at := func(s rig.Setup, item rig.ItemID) (out string) {
		for _, p := range s.Placements {
			if p.Item == item {
				out = p.Socket.String()
			}
		}
		return out
	}
	found := func(do job.Do, item rig.ItemID, socket string) job.Change {
		return job.Change{Do: do, In: job.InFound, Item: item, Socket: rig.ParsePath(socket)}
	}
	for _, c := range []struct {
		name           string
		changes        []job.Change
		item           rig.ItemID
		found, planned string
	}{
		{"agreed", []job.Change{found(job.DoPlace, "item-3", "SATA2")}, "item-3", "SATA2", "SATA2"},
		{"planned elsewhere", []job.Change{put("item-3", "SATA1"), found(job.DoPlace, "item-3", "SATA2")}, "item-3", "SATA2", "SATA1"},
		{"something new is planned there", []job.Change{put("item-5", "B1"), found(job.DoPlace, "item-1", "B1")}, "item-1", "B1", "A1"},
		{"two change places", []job.Change{found(job.DoPlace, "item-1", "A2")}, "item-2", "A1", "A1"},
		{"out", []job.Change{found(job.DoTakeOut, "item-1", "")}, "item-1", "", ""},
		{"out, planned elsewhere", []job.Change{put("item-1", "B1"), found(job.DoTakeOut, "item-1", "")}, "item-1", "", "B1"},
	} {
		j := must(t, load(t, "echo-sounding-tower"), c.changes...)
		if f, p := at(j.Found, c.item), at(j.Planned, c.item); f != c.found || p != c.planned {
			t.Errorf("%s: found in %q, planned in %q; want %q and %q", c.name, f, p, c.found, c.planned)
		}
	}
}

// Pieces stay on their carrier when it moves, change places with it, and go to
// the mat with it; the order fits them before it and does not touch them after.
func TestCarrierTravels(t *testing.T) {
	quad := part.Part{Format: part.Format, Version: 1, ID: "quad", Name: "Quad", Card: &part.Card{Connector: 16, Gen: 4, Lanes: 16,
		Carrier: &part.Carrier{Positions: []part.Position{{Lanes: 4}, {FirstLane: 4, Lanes: 4}}}}}
	drive := part.Part{Format: part.Format, Version: 1, ID: "d", Name: "Drive", Drive: &part.Drive{Form: part.FormM2, Protocol: "pcie", Gen: 4, Lanes: 4, M2: &part.M2{Keys: []part.Key{"M"}, LengthMM: 80}}}
	j := must(t, load(t, "chart-table-workstation"),
		job.Change{Do: job.DoAdd, Part: &quad, New: true}, job.Change{Do: job.DoAdd, Part: &drive, New: true},
		put("item-7", "SLOT1"), put("item-8", "SLOT1/1"))
	ids := func(j job.Job) string {
		out := ""
		for _, s := range j.Order() {
			if s.Item == "item-7" || s.Item == "item-8" {
				out += s.ID + " "
			}
		}
		return out
	}
	if got := ids(j); got != "fit/item-8@SLOT1/1 fit/item-7@SLOT1 " {
		t.Errorf("order: %s", got)
	}
	view := job.Look(j)
	if got := view.Planned.Socket(rig.ParsePath("SLOT1/1")); got == nil || got.State != fit.Live {
		t.Errorf("position 1: %+v", got)
	}
	at := func(j job.Job, item rig.ItemID) (out string) {
		for _, p := range j.Planned.Placements {
			if p.Item == item {
				out = p.Socket.String()
			}
		}
		return out
	}
	moved := must(t, j, put("item-7", "SLOT2"))
	if got := at(moved, "item-8"); got != "SLOT2/1" {
		t.Errorf("the carrier went to SLOT2 and its drive to %q", got)
	}
	// A machine found with the carrier in SLOT1: moving the carrier moves one thing.
	moved.Found.Placements = append(moved.Found.Placements, rig.Placement{Item: "item-7", Socket: rig.ParsePath("SLOT1")}, rig.Placement{Item: "item-8", Socket: rig.ParsePath("SLOT1/1")})
	if got := ids(moved); got != "take-out/item-7@SLOT1 fit/item-7@SLOT2 " {
		t.Errorf("order of a moved carrier: %s", got)
	}
	if got := at(must(t, j, job.Change{Do: job.DoTakeOut, Item: "item-7"}), "item-8"); got != "" {
		t.Errorf("the carrier is on the mat and its drive in %q", got)
	}
	if _, _, err := job.Apply(j, put("item-8", "SLOT2/1"), stamp); err == nil || !strings.Contains(say.Plain.Err(err).Error(), `no socket is named "SLOT2/1"`) {
		t.Errorf("a position of no carrier was taken: %v", err)
	}
	if _, _, err := job.Apply(j, job.Change{Do: job.DoProcessor, Value: "x"}, stamp); err == nil || !strings.Contains(say.Plain.Err(err).Error(), `/processor: no processor is named "x"`) {
		t.Errorf("a processor that is none: %v", err)
	}
}

// One job from the mat to closed, with the stage and the next action after each stretch.
func TestStages(t *testing.T) {
	j := load(t, "echo-sounding-tower")
	expect := func(stage job.Stage, waits, next string) {
		t.Helper()
		s := said(j).Status
		if s.Stage != stage || s.Waits.String() != waits || s.Next.String() != next {
			t.Errorf("stage %q waits for %q, next %q\nwant  %q waits for %q, next %q", s.Stage, s.Waits, s.Next, stage, waits, next)
		}
	}
	// verdict is the grade, the verdict and its reason, in one line.
	verdict := func(want string) {
		t.Helper()
		v := said(j).Status.Verdict
		if got := string(v.Grade) + ": " + v.Says.String() + ": " + v.Why.String(); got != want {
			t.Errorf("verdict %q\nwant    %q", got, want)
		}
	}
	tickAll := func(closing bool) {
		t.Helper()
		for _, s := range j.Order() {
			if (s.Phase == "close") == closing {
				j = must(t, j, carryOut(s))
			}
		}
	}
	expect(job.StageFit, "a place for Ternlight 500", "Place Ternlight 500")
	verdict("unknown: Not everything has a place: Ternlight 500 lies on the mat")

	j = must(t, j, put("item-4", "M2_2"))
	expect(job.StageFit, "a fix: Mudlark 2 TB is not seen on SATA6: the socket is off", "Fix what stops the plan")
	verdict("stops: It does not work: Mudlark 2 TB is not seen on SATA6: the socket is off")
	if _, _, err := job.Apply(j, job.Change{Do: job.DoTick, Step: "prepare/parts"}, stamp); err == nil || !strings.Contains(worded(&j, err), "the plan is stopped: Mudlark 2 TB is not seen") {
		t.Errorf("a step of a stopped plan was ticked: %v", err)
	}
	j = must(t, j, put("item-4", "M2_1"), put("item-5", "A2"), put("item-6", "B2"), job.Change{Do: job.DoTakeOut, Item: "item-1"})
	expect(job.StageFit, "somebody to begin: the plan is ready", "Begin the work order")
	verdict("good: It works: ")
	if _, _, err := job.Apply(j, job.Change{Do: job.DoClose}, stamp); err == nil || !strings.Contains(worded(&j, err), "a step is not done: See that") {
		t.Errorf("closed with the machine open: %v", err)
	}
	j = must(t, j, job.Change{Do: job.DoTick, Step: "prepare/backup"})
	expect(job.StageOrder, "somebody to go on: Lay out parts and tools", "Go on with the work order")
	verdict("unknown: 1 of 21 steps done: Lay out parts and tools")
	j = must(t, j, job.Change{Do: job.DoUntick, Step: "prepare/backup"})
	expect(job.StageFit, "somebody to begin: the plan is ready", "Begin the work order")
	tickAll(false)
	expect(job.StageProve, "16 lines to read off the screens", "Compare what the screens show")
	verdict("unknown: Fitted, not proved yet: 16 lines to read off the screens")

	for _, l := range job.Look(j).Lines {
		if !l.Extra {
			j = must(t, j, job.Change{Do: job.DoConfirm, Line: l.ID})
		}
	}
	j = must(t, j, job.Change{Do: job.DoRead, Line: power.ParseLineID("rate"), Text: "2133"})
	expect(job.StageProve, "1 difference to be explained or fixed", "Explain or fix what differs")
	verdict("stops: It does not show what it should: 1 difference to be explained or fixed")
	j = must(t, j, job.Change{Do: job.DoExplain, Line: power.ParseLineID("rate"), Text: "reliability first"})
	expect(job.StageOrder, "closing: Shut down and pull the plug again", "Close the machine")
	tickAll(true)
	expect(job.StageHandOver, "the owner", "Hand it over")
	verdict("good: Fitted and proved: the owner")

	j = must(t, j, job.Change{Do: job.DoClose, Text: "done"})
	expect(job.StageClosed, "nothing", "Read the hand-over page")
	if _, _, err := job.Apply(j, put("item-1", "A1"), stamp); err == nil || !strings.Contains(say.Plain.Err(err).Error(), "the job is closed; reopen it first") {
		t.Errorf("a closed job was changed: %v", err)
	}
	r := job.Look(j).Report
	if len(r.Fitted) != 3 || len(r.Removed) != 2 || len(r.Stayed) != 1 || len(r.Open) != 0 || len(r.Seen) != 16 || strings.Join(r.Hands, ",") != "Oda Finch" {
		t.Errorf("report: %+v", r)
	}
	if got := strings.Join(j.Marks(), "|"); !strings.Contains(got, "ML7-0093318") || !strings.Contains(got, "TL-N4-0500") || !strings.Contains(got, "HS-0417") {
		t.Errorf("marks: %s", got)
	}
	j = must(t, j, job.Change{Do: job.DoReopen})
	expect(job.StageHandOver, "the owner", "Hand it over")
}

// What is left undone or differs is on the page.
func TestReportOpens(t *testing.T) {
	r := said(load(t, "tide-gauge-mini-pc")).Report
	want := []string{"not done: Shut down and pull the plug again", "Memory speed shows 2400, expected 2666 MT/s", "not looked at: Skerry 480 on SATA1"}
	for _, w := range want {
		if !strings.Contains(joined(r.Open), w) {
			t.Errorf("open does not say %q:\n%s", w, joined(r.Open))
		}
	}
}

// With and without the old modules, from any state of the plan.
func TestVariants(t *testing.T) {
	brief := func(j job.Job) string {
		var out []string
		for _, v := range said(j).Variants {
			now := ""
			if v.Current {
				now = " (in plan)"
			}
			out = append(out, v.Name.String()+": "+v.Memory.Total.String()+", "+v.Memory.Speed.String()+", "+v.Memory.Spread.String()+now)
		}
		return strings.Join(out, "\n")
	}
	j := load(t, "echo-sounding-tower")
	alone, kept := "New modules alone: 32 GiB, 3200 MT/s, dual channel", "Old modules kept as well: 40 GiB, 2400 MT/s, dual channel"
	if got := brief(j); got != alone+"\n"+kept {
		t.Errorf("at the start:\n%s", got)
	}
	for i, want := range []string{alone + " (in plan)\n" + kept, alone + "\n" + kept + " (in plan)"} {
		v := job.Look(j).Variants[i]
		next := must(t, j, job.Change{Do: job.DoMoves, Moves: v.Moves})
		if got := brief(next); got != want {
			t.Errorf("after %v:\n%s\nwant\n%s", v.Name, got, want)
		}
		if got := job.Look(next).Planned.Memory; got.Total != v.Memory.Total || got.Peak != v.Memory.Peak {
			t.Errorf("%v promised %v and came to %v", v.Name, v.Memory.Total, got.Total)
		}
	}
	// Two slots, both old: no room for keeping, so one answer is enough.
	m := load(t, "tide-gauge-mini-pc")
	if n := len(job.Look(m).Variants); n != 2 {
		t.Errorf("%d variants for one old and one new module in two slots, want 2", n)
	}
	if n := len(job.Look(must(t, j, job.Change{Do: job.DoRemove, Item: "item-5"}, job.Change{Do: job.DoRemove, Item: "item-6"})).Variants); n != 0 {
		t.Errorf("%d variants without new modules", n)
	}
}

func TestValidateJob(t *testing.T) {
	for _, c := range []struct {
		name   string
		break_ func(*job.Job)
		want   string
	}{
		{"good", func(*job.Job) {}, ""},
		{"bad sheet", func(j *job.Job) { j.Sheet.Groups[0].Lanes = 1 }, "/sheet/groups/0/lanes: its sockets take 16 lanes, the group has 1"},
		{"bad part", func(j *job.Job) { j.Parts[1].Module = &part.Module{} }, "/parts/1: a part is one of drive, module, card, enclosure and fitting"},
		{"two parts of a name", func(j *job.Job) { j.Parts = append(j.Parts, j.Parts[0]) }, `/parts/4/id: "sallow-4g-2400" names an earlier part too`},
		{"two items of a name", func(j *job.Job) { j.Items = append(j.Items, j.Items[5]) }, `/items/6/id: "item-6" names an earlier item too`},
		{"item of no part", func(j *job.Job) { j.Items[0].Part = "x" }, `/items/0/part: no part is named "x"`},
		{"in two places", func(j *job.Job) { j.Planned.Placements[0].Item = "item-3" }, `/planned/placements/2/item: "item-3" is in another socket already`},
		{"two in one", func(j *job.Job) { j.Found.Placements[1].Socket = rig.On("A1") }, `/found/placements/1/socket: "A1" holds another piece already`},
		{"setting that is none", func(j *job.Job) { j.Found.Settings = []rig.Choice{{Setting: "x"}} }, `/found/settings/0/setting: no setting is named "x"`},
	} {
		j := load(t, "echo-sounding-tower")
		c.break_(&j)
		var got []string
		for _, p := range j.Validate() {
			got = append(got, p.Pointer+": "+say.Plain.Problems(problem.List{p})[0].Says)
		}
		if strings.Join(got, "\n") != c.want {
			t.Errorf("%s: %s\nwant %s", c.name, strings.Join(got, "\n"), c.want)
		}
	}
}

// The web application and the command line call the same code: the check of a
// job is the planned answer of its view.
func TestCheckIsTheView(t *testing.T) {
	j := load(t, "chart-table-workstation")
	if c, v := say.CheckOf(say.Plain, &j), said(j); !reflect.DeepEqual(c.Answer, v.Planned) || c.Stops != v.Status.Stops {
		t.Error("two answers to one question")
	}
	empty := job.New("x", "X", j.Sheet, rig.Wish{}, stamp.At)
	if s := said(empty).Status; s.Next.String() != "Enter what is in the machine" {
		t.Errorf("an empty job waits for %q", s.Next)
	}
	if _, err := power.Read(power.ParseLineID("total"), "16 GB"); err != nil {
		t.Error(err)
	}
}

// Parts taken from the shelf for a way of the planner are one change: pieces, places and all,
// or nothing. So are several pieces that leave.
func TestManyAtOnce(t *testing.T) {
	j := load(t, "echo-sounding-tower")
	carrier, drive := *j.Part("ternlight-500"), *j.Part("mudlark-2000")
	carrier.ID, drive.ID = "raft", "skerry"
	moves := []rig.Move{{Item: "shelf/raft", Socket: rig.On("M2_1")}, {Item: "shelf/skerry", Socket: rig.On("SATA1")}, {Item: "item-1"}}
	next, says, err := job.Apply(j, job.Change{Do: job.DoMoves, Parts: []part.Part{carrier, drive}, Moves: moves}, stamp)
	if err != nil {
		t.Fatal(worded(&j, err))
	}
	if got := next.Planned.In(rig.On("M2_1")); next.Item(got) == nil || next.Item(got).Part != "raft" || !next.Item(got).New {
		t.Errorf("%q lies in M2_1", got)
	}
	if n := len(next.Items) - len(j.Items); n != 2 || next.Planned.Where("item-1") != (rig.Path{}) {
		t.Errorf("%d pieces came, and item-1 is in %v", n, next.Planned.Where("item-1"))
	}
	if got := say.About(say.Plain, &next).Event(says, nil).String(); !strings.Contains(got, "added, to fit: Ternlight 500") || !strings.Contains(got, "took") {
		t.Errorf("the journal says %q", got)
	}
	moves[1].Socket = rig.On("nowhere")
	if after, _, err := job.Apply(j, job.Change{Do: job.DoMoves, Parts: []part.Part{carrier, drive}, Moves: moves}, stamp); err == nil || len(after.Items) != len(j.Items) {
		t.Errorf("half of it was done: %v, %d pieces", err, len(after.Items))
	}
	added := must(t, j, job.Change{Do: job.DoAdd, Parts: []part.Part{carrier, drive}, New: true})
	a, b := added.Items[len(added.Items)-2].ID, added.Items[len(added.Items)-1].ID
	if gone := must(t, added, job.Change{Do: job.DoRemove, Items: []rig.ItemID{a, b}}); len(gone.Items) != len(j.Items) || len(gone.Parts) != len(j.Parts) {
		t.Errorf("%d pieces and %d parts are left", len(gone.Items), len(gone.Parts))
	}
	if after, _, err := job.Apply(added, job.Change{Do: job.DoRemove, Items: []rig.ItemID{a, "nobody"}}, stamp); err == nil || len(after.Items) != len(added.Items) {
		t.Errorf("half of them left: %v", err)
	}
}

// Where a machine stands and when it is due are kept; a day that there is not is refused.
func TestSchedule(t *testing.T) {
	j := load(t, "echo-sounding-tower")
	for _, c := range []struct{ stands, due, says, refused string }{
		{"bench 2", "2026-11-30", "the machine stands at bench 2; due on 2026-11-30", ""},
		{" rack ", "", "the machine stands at rack", ""},
		{"", "2028-02-29", "where the machine stands is not said; due on 2028-02-29", ""},
		{"bench", "2027-02-29", "", `"2027-02-29" is no day`},
		{"bench", "soon", "", `"soon" is no day`},
		{strings.Repeat("x", 61), "", "", "longer than 60 letters"},
		{strings.Repeat("é", 60), "", "the machine stands at " + strings.Repeat("é", 60), ""}, // letters, not bytes
	} {
		next, says, err := job.Apply(j, job.Change{Do: job.DoSchedule, Value: c.stands, Text: c.due}, stamp)
		switch {
		case c.refused != "":
			if err == nil || !strings.Contains(worded(&j, err), c.refused) {
				t.Errorf("%+v: %v", c, err)
			}
		case err != nil || next.Stands != strings.TrimSpace(c.stands) || string(next.Due) != c.due || say.About(say.Plain, &next).Event(says, nil).String() != c.says:
			t.Errorf("%+v: %v, stands %q, due %q: %s", c, err, next.Stands, next.Due, say.About(say.Plain, &next).Event(says, nil))
		}
	}
}
