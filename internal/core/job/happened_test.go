package job_test

import (
	"context"
	"slices"
	"strings"
	"testing"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/job"
	"deepbay/internal/core/layer"
	"deepbay/internal/core/plan"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/say"
	"deepbay/internal/core/workorder"
)

// deep is the jobs of the demo shop that go through every layer of their machine.
var deep = []string{"quay-camera-mini-pc", "buoy-tracker-desktop", "pilot-office-desktop", "rain-gauge-logger", "multibeam-workstation"}

// Each of them opens every layer once and puts it back once, but for a heatsink that a drive
// with its own replaces; no lead is left off and no screw is left over.
func TestDeepMachines(t *testing.T) {
	for _, name := range deep {
		j := load(t, name)
		opened, open := 0, map[string]bool{}
		for _, s := range j.Order() {
			switch of := workorder.Opened(s.ID); {
			case of != "" && !open[of]:
				t.Errorf("%s: %s, and it is not off", name, s.ID)
			case of != "":
				delete(open, of)
			case s.Layer != "":
				open[s.ID] = true
				if s.Lead == 0 && j.Sheet.Layer(s.Layer) != nil {
					opened++
				}
			}
		}
		kept := map[string]bool{"open/drive-heatsink": name == "multibeam-workstation"} // the new drive brings its own
		for id := range open {
			if !kept[id] {
				t.Errorf("%s: %s is never put back", name, id)
			}
		}
		if opened != len(j.Sheet.Layers) {
			t.Errorf("%s opens %d of %d layers", name, opened, len(j.Sheet.Layers))
		}
		for _, c := range j.Work().Tray {
			if c.Back == "" && !kept[c.Out] {
				t.Errorf("%s: the screws of %s go nowhere", name, c.Out)
			}
		}
	}
}

// refused is why a change is not taken, "" where it is.
func refused(j job.Job, c job.Change) string {
	_, _, err := job.Apply(j, c, stamp)
	if err == nil {
		return ""
	}
	return say.About(say.Plain, &j).Err(err).Error()
}

// A screw that dropped holds every step with power until it is found, or somebody says with
// open eyes why it may stay; others hold nothing.
func TestDropped(t *testing.T) {
	b := bench{t, load(t, "rain-gauge-logger")}
	b.do(job.Change{Do: job.DoIncident, Incident: &job.Incident{Kind: job.Stripped}})
	b.do(job.Change{Do: job.DoIncident, Incident: &job.Incident{Kind: job.Dropped, Screw: &layer.Fastener{Count: 4, Thread: layer.M3, Length: 10}, Count: 1}})
	for _, s := range b.job.Order() {
		c := job.Change{Do: job.DoTick, Step: s.ID, Text: strings.Join(s.Confirm, " ")}
		if s.Test != "" {
			c = job.Change{Do: job.DoTest, Step: s.ID, Result: &job.TestRun{State: job.TestPassed, Passes: 1}}
		}
		why := refused(b.job, c)
		if s.Powered() != strings.Contains(why, "no power until it is found") {
			t.Errorf("%s: %q", s.ID, why)
		}
		if !s.Powered() && s.Phase != workorder.Close {
			b.do(c)
		}
	}
	if v := job.Look(b.job); v.Status.Verdict.Grade != job.GradeStops || v.Status.Waits.Code != job.ScrewDropped {
		t.Errorf("it stands %+v", v.Status)
	}
	b.do(job.Change{Do: job.DoSettle, Value: "1", Incident: &job.Incident{Ended: job.Agreed}})
	said := func(list []fact.Fact, code fact.Code) bool {
		return slices.ContainsFunc(list, func(f fact.Fact) bool { return f.Code == code })
	}
	if r := job.Look(b.job).Report; !said(r.Open, job.ScrewDropped) || !said(r.Notes, job.ScrewAgreed) || said(r.Open, job.ScrewStripped) {
		t.Errorf("the page says %v and %v", r.Open, r.Notes)
	}
	agreed := job.Change{Do: job.DoSettle, Value: "2", Incident: &job.Incident{Ended: job.Agreed}}
	for want, more := range map[string]func(*job.Change){"reason": func(*job.Change) {}, "burn": func(c *job.Change) { c.Text = "under the plate, taped" }} {
		c := agreed
		if more(&c); !strings.Contains(refused(b.job, c), want) {
			t.Errorf("without it: %s, want %s", refused(b.job, c), want)
		}
	}
	agreed.Text, agreed.Sure = "under the plate, taped", true
	if why := refused(b.job, agreed); why != "" {
		t.Error(why)
	}
	b.do(job.Change{Do: job.DoSettle, Value: "2", Incident: &job.Incident{Ended: job.FoundAgain}})
	b.do(job.Change{Do: job.DoTick, Step: workorder.StartStep})
	if why := refused(b.job, job.Change{Do: job.DoSettle, Value: "2", Incident: &job.Incident{Ended: job.FoundAgain}}); why == "" {
		t.Error("it is found twice")
	}
}

// What differs changes the sheet of the job by one change, and with it the order; what would
// make no sheet is refused, and what is only words stays a note.
func TestDiffers(t *testing.T) {
	b := bench{t, load(t, "buoy-tracker-desktop")}
	cage := b.job.Sheet.Layer("riser-cage").Clone()
	cage.Fasteners = append(slices.Clone(cage.Fasteners), layer.Fastener{Count: 2, Bit: layer.T10, Thread: layer.M4, Length: 4})
	b.do(job.Change{Do: job.DoDiffers, Differs: &job.Difference{Layer: "riser-cage", Is: &cage}})
	b.do(job.Change{Do: job.DoDiffers, Differs: &job.Difference{Layer: "fan-duct", Gone: true}})
	b.do(job.Change{Do: job.DoDiffers, Differs: &job.Difference{Text: "it smells of fish"}})
	before := len(b.job.Work().Tray)
	b.do(job.Change{Do: job.DoToSheet, Value: "1"})
	if n := len(b.job.Work().Tray); n != before+1 {
		t.Errorf("the tray has %d cells, and had %d", n, before)
	}
	b.do(job.Change{Do: job.DoToSheet, Value: "2"})
	if b.job.Sheet.Layer("fan-duct") != nil || slices.Contains(b.job.Sheet.Layer("riser-cage").After, "fan-duct") {
		t.Error("what is not there is waited for")
	}
	for _, s := range b.job.Order() {
		if s.Layer == "fan-duct" {
			t.Errorf("the order still has %s", s.ID)
		}
	}
	for value, want := range map[string]string{"1": "nothing open has the number", "3": "in words", "9": "nothing open"} {
		if why := refused(b.job, job.Change{Do: job.DoToSheet, Value: value}); !strings.Contains(why, want) {
			t.Errorf("%s: %q, want %q", value, why, want)
		}
	}
	lid := b.job.Sheet.Layer("side-panel").Clone()
	lid.After = []layer.ID{"riser-cage"}
	if why := refused(b.job, job.Change{Do: job.DoDiffers, Differs: &job.Difference{Layer: lid.ID, Is: &lid}}); !strings.Contains(why, "wait for one another") {
		t.Errorf("a circle: %q", why)
	}
}

// A layer that does not come off is gone round, or holds the work; a piece that does not go in
// holds it until it is planned elsewhere.
func TestStuck(t *testing.T) {
	b := bench{t, load(t, "rain-gauge-logger")}
	sheet := b.job.Sheet
	sheet.Layers = slices.Clone(sheet.Layers)
	lid := sheet.Layer("finned-lid")
	lid.Hides = append(slices.Clone(lid.Hides), "SATA1") // the bay is open to both sides
	b.do(job.Change{Do: job.DoSheet, Sheet: &sheet})
	order := func() string {
		var out []string
		for _, s := range b.job.Order() {
			out = append(out, s.ID)
		}
		return strings.Join(out, " ")
	}
	if !strings.Contains(order(), "open/finned-lid") || strings.Contains(order(), "open/bottom-plate") {
		t.Fatalf("one side is enough for both parts: %s", order())
	}
	b.do(job.Change{Do: job.DoStuck, Stuck: &job.Stuck{Layer: "finned-lid"}})
	_, blocks := b.job.Afterwards()
	if len(blocks) != 1 || !strings.Contains(order(), "open/bottom-plate") || strings.Contains(order(), "open/finned-lid") {
		t.Errorf("%d blocks; %s", len(blocks), order())
	}
	if why := refused(b.job, job.Change{Do: job.DoTick, Step: "prepare/parts"}); !strings.Contains(why, "SODIMM1 cannot be reached") {
		t.Errorf("work begins: %q", why)
	}
	b.do(job.Change{Do: job.DoUnstuck, Value: "1"})
	b.do(job.Change{Do: job.DoStuck, Stuck: &job.Stuck{Item: "item-2", Socket: b.job.Planned.Where("item-2")}})
	if _, blocks := b.job.Afterwards(); len(blocks) != 1 || blocks[0].Says.Code != job.PieceStuck {
		t.Errorf("a piece that does not go in: %+v", blocks)
	}
	a, err := b.job.AskPlan(context.Background(), job.PlanQuestion{})
	if err != nil || a.Best != nil && rig.PlaceOf(a.Best.Placements, "item-2") == b.job.Planned.Where("item-2") {
		t.Errorf("it is planned where it does not go: %+v, %v", a.Best, err)
	}
	if why, err := b.job.WhyNot(context.Background(), job.PlanQuestion{}, "item-2", b.job.Planned.Where("item-2")); err != nil || why.Code != plan.TriedThere {
		t.Errorf("why not there: %v, %v", why, err)
	}
	b.do(job.Change{Do: job.DoTakeOut, Item: "item-2"})
	if _, blocks := b.job.Afterwards(); slices.ContainsFunc(blocks, func(x job.Block) bool { return x.Says.Code == job.PieceStuck }) {
		t.Error("it holds the work though it is planned elsewhere")
	}
}

// What does not go is planned anew: what hands fitted stays, of like pieces each keeps its place, and a
// piece that does not come out is planned where it is.
func TestPlannedAnew(t *testing.T) {
	b := bench{t, load(t, "multibeam-workstation")}
	for _, s := range b.job.Order() {
		if s.ID == "fit/item-5@C1" {
			break // its like is in D1
		}
		b.do(job.Change{Do: job.DoTick, Steps: []string{s.ID}, Text: strings.Join(s.Confirm, " ")})
	}
	for _, at := range []string{"", "M2_2", "NOWHERE"} {
		if why := refused(b.job, job.Change{Do: job.DoStuck, Stuck: &job.Stuck{Item: "item-7", Socket: rig.ParsePath(at)}}); !strings.Contains(why, "/stuck/socket") {
			t.Errorf("stuck at %q: %q", at, why)
		}
	}
	b.do(job.Change{Do: job.DoStuck, Stuck: &job.Stuck{Item: "item-7", Socket: rig.ParsePath("M2_1")}})
	for _, fitted := range []bool{true, false} {
		a, err := b.job.AskPlan(context.Background(), job.PlanQuestion{Fitted: fitted})
		if err != nil || a.Best == nil {
			t.Fatal(a.Proof, err)
		}
		at := func(id rig.ItemID) string { return rig.PlaceOf(a.Best.Placements, id).String() }
		got, want := at("item-7")+" "+at("item-8")+" "+at("item-5")+" "+at("item-6"), "M2_2 M2_1 C1 D1"
		if (got == want) != fitted {
			t.Errorf("fitted %v: planned in %s", fitted, got)
		}
	}
	b.do(job.Change{Do: job.DoUnstuck, Value: "1"})
	b.do(job.Change{Do: job.DoStuck, Stuck: &job.Stuck{Item: "item-1", Socket: rig.ParsePath("A1")}})
	if _, blocks := b.job.Afterwards(); len(blocks) > 0 {
		t.Errorf("it stays where it is, and holds the work: %+v", blocks)
	}
	a, err := b.job.AskPlan(context.Background(), job.PlanQuestion{Leave: []rig.ItemID{"item-1"}, Bans: []rig.Placement{{Item: "item-2", Socket: rig.ParsePath("B1")}}})
	if err != nil || a.Best == nil || rig.PlaceOf(a.Best.Placements, "item-1").String() != "A1" {
		t.Errorf("what does not come out is planned elsewhere: %+v %v", a.Best, err)
	}
	b.do(job.Change{Do: job.DoTakeOut, Item: "item-1"})
	if _, blocks := b.job.Afterwards(); !slices.ContainsFunc(blocks, func(x job.Block) bool { return x.Says.Code == job.PieceHeld }) {
		t.Error("what does not come out is planned out, and nothing holds the work")
	}
}

// What the planner says must be opened is what the work order opens.
func TestPlannerOpensWhatTheOrderOpens(t *testing.T) {
	for _, name := range deep {
		j := load(t, name)
		a, err := j.AskPlan(context.Background(), job.PlanQuestion{})
		if err != nil || a.Best == nil && a.Provided == nil {
			t.Fatal(name, a.Proof, err)
		}
		best := a.Best
		if best == nil {
			best = &a.Provided.Way
		}
		var says []layer.ID
		for _, s := range best.Says {
			if s.Code == plan.ToOpen {
				says = s.Args[0].(fact.Fact).Args[0].([]layer.ID)
			}
		}
		next, _, err := job.Apply(j, job.Change{Do: job.DoMoves, Moves: best.Moves}, stamp)
		if err != nil {
			t.Fatal(name, err)
		}
		var opens []layer.ID
		for _, s := range next.Order() {
			if s.Layer != "" && !s.Shuts && s.Lead == 0 {
				opens = append(opens, s.Layer)
			}
		}
		if len(says) == 0 || !slices.Equal(says, opens) {
			t.Errorf("%s: the planner says %v, the order opens %v", name, says, opens)
		}
	}
}

// Times of finished jobs replace guesses: the middle of them, by place where pieces are
// others, and it is said how many they were.
func TestTimes(t *testing.T) {
	j := load(t, "rain-gauge-logger")
	timed := func(lid, fit int) job.Job {
		done := j
		for _, s := range j.Order() {
			tick := job.Tick{Step: s.ID, Deed: workorder.DeedOf(&s)}
			switch s.ID {
			case "open/finned-lid":
				tick.Seconds = lid
			case "fit/item-1@SODIMM1":
				tick.Step, tick.Seconds = "fit/item-9@SODIMM1", fit // another piece in the same place
			}
			done.Done = append(slices.Clone(done.Done), tick)
		}
		return done
	}
	learnt := job.Medians([]job.Job{timed(60, 30), timed(600, 0), timed(120, 90)})
	for _, e := range j.Estimates(j.Order(), learnt) {
		said := say.About(say.Plain, &j).Fact(e.Says()).String()
		want := map[string]string{"open/finned-lid": "2 min, the middle of 3 jobs", "fit/item-1@SODIMM1": "1 min, the middle of 2 jobs", "open/bottom-plate": "2 min, as the sheet says", "power-down/unplugged": "a guess"}[e.Step]
		if !strings.Contains(said, want) {
			t.Errorf("%s: %s, want %s", e.Step, said, want)
		}
	}
}

// What to lay out follows from the order: the tools of its steps once each, and for each drive
// what holds and plugs it, as far as it is not there.
func TestPick(t *testing.T) {
	j := load(t, "rain-gauge-logger")
	v := say.About(say.Plain, &j)
	var got []string
	for _, n := range v.Picks(j.Work().Pick) {
		if n.Part {
			got = append(got, n.Says.String())
		}
	}
	if want := "drive screw M3, 3 mm deep at most; SATA data lead"; strings.Join(got, "; ") != want {
		t.Errorf("of the shelf it needs %q, want %q", got, want)
	}
	slim := load(t, "lock-gate-recorder")
	slim, _, err := job.Apply(slim, job.Change{Do: job.DoPlace, Item: "item-4", Socket: rig.On("SATA3")}, stamp)
	if err != nil {
		t.Fatal(err)
	}
	if i := slices.IndexFunc(slim.Work().Pick, func(n workorder.Need) bool { return n.Says.Code == workorder.AdapterFor }); i < 0 || slim.Work().Pick[i].Have != 0 {
		t.Errorf("a bay fed by the slim plug asks for %+v", slim.Work().Pick)
	}
	all := ""
	for _, n := range v.Picks(j.Work().Pick) {
		all += n.Says.String() + "; "
	}
	for _, want := range []string{"T10", "cross-head 1", "new thermal pad", "stick with the memory test", "stick with the system's installer"} {
		if strings.Count(all, want) != 1 {
			t.Errorf("%q is asked for %d times in %s", want, strings.Count(all, want), all)
		}
	}
}

// A sheet that says of no layer keeps its cover when the first is noted: it was there all the
// time, and comes off first.
func TestFirstLayer(t *testing.T) {
	b := bench{t, load(t, "echo-sounding-tower")}
	b.do(job.Change{Do: job.DoPlace, Item: "item-4", Socket: rig.On("M2_1")})
	b.do(job.Change{Do: job.DoDiffers, Differs: &job.Difference{Is: &layer.Layer{ID: "guide", Name: "cable guide", Kind: layer.Bracket, Hides: []layer.Named{"M2_1"}}}})
	b.do(job.Change{Do: job.DoToSheet, Value: "1"})
	var opens []string
	how := ""
	for _, s := range say.About(say.Plain, &b.job).Steps(b.job.Order()) {
		if s.Layer != "" && !s.Shuts {
			opens = append(opens, string(s.ID))
		}
		if s.ID == "open/cover" {
			for _, h := range s.How {
				how += h.String() + "; "
			}
		}
	}
	if got := strings.Join(opens, " "); got != "open/cover open/guide" || !strings.Contains(how, "thumbscrews") || !strings.Contains(how, "nobody looked") {
		t.Errorf("it opens %s: %s", got, how)
	}
}

// The protection of an encrypted disk is suspended before and resumed after, and what was
// agreed to stands at the beginning with who did.
func TestAgreedAndSuspended(t *testing.T) {
	b := bench{t, load(t, "buoy-tracker-desktop")}
	has := func(id string) bool {
		return slices.ContainsFunc(b.job.Order(), func(s workorder.Step) bool { return s.ID == id })
	}
	if has("prepare/suspend") || has("close/resume") {
		t.Error("a disk that is not encrypted is suspended")
	}
	wish := b.job.Wish
	wish.Encrypted = quantity.Yes
	b.do(job.Change{Do: job.DoWish, Wish: &wish})
	b.do(job.Change{Do: job.DoAccept})
	if order := b.job.Order(); !has("prepare/suspend") || order[len(order)-1].ID != "close/resume" {
		t.Error("the protection is not suspended and resumed")
	}
	agreed := ""
	for _, s := range say.About(say.Plain, &b.job).Steps(b.job.Order()) {
		for _, h := range s.How {
			if s.ID == "prepare/parts" {
				agreed += h.String() + "; "
			}
		}
	}
	if !strings.Contains(agreed, "Agreed to, by ") || !strings.Contains(agreed, "7.88 GB/s") {
		t.Errorf("what was agreed to is not said: %s", agreed)
	}
}
