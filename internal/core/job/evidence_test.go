package job_test

import (
	"context"
	"slices"
	"strings"
	"testing"

	"deepbay/demo"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/job"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/memory"
	"deepbay/internal/core/plan"
	"deepbay/internal/core/power"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/say"
	"deepbay/internal/core/workorder"
	"deepbay/internal/format"
)

// bench is a job with somebody at it.
type bench struct {
	*testing.T
	job job.Job
}

func (b *bench) do(c job.Change) string {
	b.Helper()
	next, says, err := job.Apply(b.job, c, stamp)
	if err != nil {
		b.Fatalf("%+v: %v", c, say.About(say.Plain, &b.job).Err(err))
	}
	b.job = next
	if _, err := format.WriteDeed(says, next.Name); err != nil {
		b.Fatalf("%+v: %v", c, err)
	}
	return say.About(say.Plain, &next).Event(says, nil).String()
}

// refused is why a change is not taken.
func (b *bench) refused(c job.Change) string {
	b.Helper()
	_, _, err := job.Apply(b.job, c, stamp)
	if err == nil {
		b.Fatalf("%+v was taken", c)
	}
	return say.About(say.Plain, &b.job).Err(err).Error()
}

func (b *bench) advice() plan.Advice {
	b.Helper()
	a, err := b.job.AskPlan(context.Background(), job.PlanQuestion{})
	if err != nil {
		b.Fatal(err)
	}
	return a
}

// missing is what the plan's findings miss, by attribute.
func (b *bench) missing() string {
	a := b.job.Check()
	var out []string
	for _, f := range a.Findings {
		for _, m := range f.Missing {
			out = append(out, m.Socket.String()+string(m.Item)+" "+string(m.Attr))
		}
	}
	return strings.Join(out, ", ")
}

func socketFact(socket string, a rig.Attr) *rig.Fact {
	return &rig.Fact{Socket: rig.ParsePath(socket), Attr: a}
}

// TestHalfAManual carries the demo's bought-in machine to its end: what its screens
// showed, what was looked up, the best plan provided that, and what is seen afterwards.
func TestHalfAManual(t *testing.T) {
	j, err := demo.Job("weather-mast-logger")
	if err != nil {
		t.Fatal(err)
	}
	b := bench{t, j}
	if a := b.advice(); a.End != plan.Depends || a.Provided == nil || len(a.Provided.Look) != 3 {
		t.Fatalf("with half a manual the plan is %s, provided %+v", a.End, a.Provided)
	}
	if got := b.missing(); !strings.Contains(got, "M2A protocols") {
		t.Fatalf("missing: %s", got)
	}
	// Its own set-up shows the drive where it lies: so the socket speaks SATA.
	b.do(job.Change{Do: job.DoRead, In: job.InFound, Line: power.ParseLineID("drive/M2A"), Text: "240 GB"})
	if got := b.missing(); strings.Contains(got, "M2A protocols") {
		t.Errorf("the drive was shown in M2A, and still missing: %s", got)
	}
	if a := b.advice(); a.End != plan.Depends || len(a.Provided.Look) != 2 {
		t.Errorf("%s, provided %+v", a.End, a.Provided)
	}
	// Its memory speed, as its screen showed it, holds for the machine as it is.
	b.do(job.Change{Do: job.DoRead, In: job.InFound, Line: power.ParseLineID("rate"), Text: "2400"})
	if m := b.job.Check().Memory; m.MTps.Low != 2400 || !m.MTps.Exact() {
		t.Errorf("memory runs at %v, and a screen showed 2400", m.MTps)
	}
	if says := b.do(job.Change{Do: job.DoLook, Fact: socketFact("M2B", rig.Posts), Value: "42 80"}); says != "looked: M2B has posts at 42 mm and 80 mm" {
		t.Errorf("says %q", says)
	}
	if a := b.advice(); a.End != plan.Depends || len(a.Provided.Look) != 1 || a.Provided.Look[0].Fact != *socketFact("M2B", rig.Speaks) || a.Provided.Look[0].Is != "pcie" {
		t.Errorf("%s, provided %+v", a.End, a.Provided)
	}
	b.do(job.Change{Do: job.DoLook, Fact: socketFact("M2B", rig.Speaks), Value: "pcie"})
	a := b.advice()
	if a.Best == nil {
		t.Fatalf("all was answered, and the plan is %s", a.End)
	}
	b.do(job.Change{Do: job.DoMoves, Moves: a.Best.Moves})
	if r := b.job.Check(); r.Stops() || strings.Contains(b.missing(), "M2B protocols") {
		t.Fatalf("stopped, or misses %s", b.missing())
	}
	// The reasons name who told it.
	found := false
	r := b.job.Check()
	for _, s := range r.Sockets {
		found = found || s.Socket == rig.On("M2B") && s.State == fit.Live
	}
	if !found {
		t.Error("the new drive is not live")
	}
	for _, s := range b.job.Order() {
		if s.Phase != workorder.Close {
			b.do(carryOut(s))
		}
	}
	for _, l := range job.Look(b.job).Lines {
		switch l.ID.String() {
		case "rate":
			b.do(job.Change{Do: job.DoRead, Line: l.ID, Text: "2400"})
		case "link/M2B":
			b.do(job.Change{Do: job.DoRead, Line: l.ID, Text: "Gen 3 x4"})
		case "link/M2A":
			b.do(job.Change{Do: job.DoRead, Line: l.ID, Text: "6 Gb/s"})
		default:
			if !l.Extra {
				b.do(job.Change{Do: job.DoConfirm, Line: l.ID})
			}
		}
	}
	v := job.Look(b.job)
	if got := b.missing(); got != "" {
		t.Errorf("after all screens were read, missing: %s", got)
	}
	if link := v.Planned.Socket(rig.On("M2B")).Link; link.Gen.Low < 3 {
		t.Errorf("the link was seen at Gen 3, and is %v", link.Gen)
	}
	for _, s := range b.job.Order() {
		if s.Phase == workorder.Close {
			b.do(job.Change{Do: job.DoTick, Step: s.ID})
		}
	}
	b.do(job.Change{Do: job.DoClose})
	if v := job.Look(b.job); v.Status.Stage != job.StageClosed || len(v.Report.Open) > 0 {
		t.Errorf("%s, open: %v", v.Status.Stage, v.Report.Open)
	}
}

// TestWhatReadingsProve: a reading is proof while all lies as it lay, and no longer.
func TestWhatReadingsProve(t *testing.T) {
	j, err := demo.Job("weather-mast-logger")
	if err != nil {
		t.Fatal(err)
	}
	b := bench{t, j}
	b.do(job.Change{Do: job.DoRead, In: job.InFound, Line: power.ParseLineID("drive/M2A"), Text: "240 GB"})
	b.do(job.Change{Do: job.DoTakeOut, In: job.InFound, Item: "item-1"}) // it was in the other slot
	b.do(job.Change{Do: job.DoRead, In: job.InFound, Line: power.ParseLineID("drive/M2A"), Text: "500 GB"})
	if b.job.Before[0].Proof {
		t.Error("another drive was shown than is said to lie there, and it is proof of that one")
	}
	b.do(job.Change{Do: job.DoRead, In: job.InFound, Line: power.ParseLineID("drive/M2A"), Text: "240 GB"})
	b.do(job.Change{Do: job.DoPlace, In: job.InFound, Item: "item-1", Socket: rig.On("SODIMM2")})
	if b.job.Before[0].Proof {
		t.Error("what was found was corrected, and a reading from before is still proof")
	}
	if got := b.missing(); !strings.Contains(got, "M2A protocols") {
		t.Errorf("nothing proves M2A any more, and missing is only: %s", got)
	}
	b.do(job.Change{Do: job.DoForget, In: job.InFound, Line: power.ParseLineID("drive/M2A")})
	if len(b.job.Before) != 0 {
		t.Error("a reading that was taken back is there")
	}
}

// TestLookedUp: an answer is about something here and one that can be, is taken back,
// goes with the piece, and is in the way of nothing that was stated.
func TestLookedUp(t *testing.T) {
	j, err := demo.Job("weather-mast-logger")
	if err != nil {
		t.Fatal(err)
	}
	b := bench{t, j}
	for _, c := range []struct {
		change job.Change
		want   string
	}{
		{job.Change{Do: job.DoLook}, "/fact: which fact was looked up is missing; name it as the answer that misses it does"},
		{job.Change{Do: job.DoLook, Fact: socketFact("M2Z", rig.Speaks), Value: "pcie"}, `/fact: nothing here can be asked for "protocols": take it from an answer that misses it`},
		{job.Change{Do: job.DoLook, Fact: socketFact("M2B", rig.ModuleSize), Value: "8 GB"}, `/fact: nothing here can be asked for "module size": take it from an answer that misses it`},
		{job.Change{Do: job.DoLook, Fact: socketFact("M2B", rig.Long), Value: "4"}, `/fact: nothing here can be asked for "length": take it from an answer that misses it`},              // it is no slot
		{job.Change{Do: job.DoLook, Fact: socketFact("SODIMM1", rig.HoldsNow), Value: "nothing"}, `/fact: nothing here can be asked for "holds": take it from an answer that misses it`}, // a module was found there
		{job.Change{Do: job.DoLook, Fact: socketFact("M2B", rig.Speaks), Value: "yes"}, `/value: "yes" is no answer to what M2B speaks: write one or several of pcie or sata, blanks between them`},
		{job.Change{Do: job.DoLook, Fact: socketFact("M2B", rig.RoomAbove), Value: "-1"}, `/value: "-1" is no answer to how much room there is above M2B: write a number of mm`},
		{job.Change{Do: job.DoUnlook, Fact: socketFact("M2B", rig.Speaks)}, "/fact: this was not looked up"},
	} {
		if got := b.refused(c.change); got != c.want {
			t.Errorf("says %q, want %q", got, c.want)
		}
	}
	b.do(job.Change{Do: job.DoLook, Fact: socketFact("M2B", rig.Speaks), Value: "sata"})
	b.do(job.Change{Do: job.DoLook, Fact: socketFact("M2B", rig.Speaks), Value: "pcie sata"}) // looked again
	if l := b.job.Looked; len(l) != 1 || l[0].Is != "pcie sata" || l[0].By != stamp.By || l[0].At != stamp.At {
		t.Errorf("looked up: %+v", l)
	}
	if says := b.do(job.Change{Do: job.DoUnlook, Fact: socketFact("M2B", rig.Speaks)}); says != "took back: what M2B speaks" || len(b.job.Looked) != 0 {
		t.Errorf("says %q, and %+v is left", says, b.job.Looked)
	}
	drive := b.job.Items[slices.IndexFunc(b.job.Items, func(it job.Item) bool { return b.job.Part(it.Part).Drive != nil && it.New })]
	height := &rig.Fact{Item: drive.ID, Attr: rig.CardTall}
	b.do(job.Change{Do: job.DoLook, Fact: height, Value: "2.5"})
	b.do(job.Change{Do: job.DoRemove, Item: drive.ID})
	if len(b.job.Looked) != 0 {
		t.Errorf("the drive left the job, and %+v is left of it", b.job.Looked)
	}
	if before, now := b.job.Sheet.Socket("M2A"), j.Sheet.Socket("M2A"); !slices.Equal(before.Protocols, now.Protocols) {
		t.Error("what was looked up is in the sheet of the job itself")
	}
}

// TestLookedIntoSlots says of a slot that nothing lies in it, and then finds a module in
// another: that is no contradiction. Found in the slot itself, the answer is no more.
func TestLookedIntoSlots(t *testing.T) {
	j, err := demo.Job("weather-mast-logger")
	if err != nil {
		t.Fatal(err)
	}
	b := bench{t, j}
	module := b.job.Found.In(rig.On("SODIMM1"))
	b.do(job.Change{Do: job.DoTakeOut, In: job.InFound, Item: module})
	b.do(job.Change{Do: job.DoLook, Fact: socketFact("SODIMM2", rig.HoldsNow), Value: "nothing"})
	b.do(job.Change{Do: job.DoPlace, In: job.InFound, Item: module, Socket: rig.On("SODIMM1")})
	if len(b.job.Looked) != 1 {
		t.Fatalf("looked up: %+v", b.job.Looked)
	}
	b.do(job.Change{Do: job.DoPlace, In: job.InFound, Item: module, Socket: rig.On("SODIMM2")})
	if len(b.job.Looked) != 0 {
		t.Errorf("a module was found in SODIMM2, and still it is said that %+v", b.job.Looked)
	}
}

// TestTotalProvesModules: modules without which the total that was seen could not have been
// reached work on this board, whatever their labels leave out; a total of other modules
// proves nothing of them.
func TestTotalProvesModules(t *testing.T) {
	j, err := demo.Job("weather-mast-logger")
	if err != nil {
		t.Fatal(err)
	}
	j.Sheet.Class, j.Sheet.Memory.Registered = machine.Workstation, quantity.Yes // where nothing is usual
	module := j.Found.In(rig.On("SODIMM1"))
	for i := range j.Sheet.Sockets {
		if k := &j.Sheet.Sockets[i]; k.Kind.Memory() {
			k.Kind = machine.DIMM
		}
	}
	for i := range j.Parts {
		if m := j.Parts[i].Module; m != nil {
			m.Form, m.Registered = memory.DIMM, quantity.Unknown
		}
	}
	b := bench{t, j}
	if got := b.missing(); !strings.Contains(got, string(module)+" registered") {
		t.Fatalf("missing: %s", got)
	}
	b.do(job.Change{Do: job.DoRead, In: job.InFound, Line: power.ParseLineID("total"), Text: "4 GB"})
	if got := b.missing(); !strings.Contains(got, string(module)+" registered") {
		t.Errorf("a total that it does not make up proves a module: missing %s", got)
	}
	b.do(job.Change{Do: job.DoRead, In: job.InFound, Line: power.ParseLineID("total"), Text: "8 GB"})
	if got := b.missing(); strings.Contains(got, string(module)+" registered") {
		t.Errorf("the total is not reached without the module, and still missing: %s", got)
	}
}

// TestPlanUnlooked plans for a machine into whose memory nobody looked: what leaves memory
// alone is planned as ever, and modules go in provided that the slots are empty, which is
// asked for; told so, the plan is proved.
func TestPlanUnlooked(t *testing.T) {
	j, err := demo.Job("echo-sounding-tower")
	if err != nil {
		t.Fatal(err)
	}
	untold := j
	untold.Wish = rig.Wish{Text: "a fast system drive"}
	untold.Items = slices.DeleteFunc(slices.Clone(j.Items), func(it job.Item) bool { return j.Part(it.Part).Module != nil })
	keep := func(list []rig.Placement) []rig.Placement {
		return slices.DeleteFunc(slices.Clone(list), func(p rig.Placement) bool { return j.Part(j.Item(p.Item).Part).Module != nil })
	}
	untold.Found.Placements, untold.Planned.Placements = keep(j.Found.Placements), keep(j.Planned.Placements)
	b := bench{t, untold}
	if a := b.advice(); a.End != plan.Optimal || a.Best == nil || a.Provided != nil {
		t.Fatalf("a job that leaves memory alone is %s, %+v", a.End, a.Provided)
	}
	for _, it := range j.Items {
		if m := j.Part(it.Part); m.Module != nil && it.New {
			b.do(job.Change{Do: job.DoAdd, Part: m, New: true})
		}
	}
	a := b.advice()
	if a.End != plan.Depends || a.Best != nil || a.Provided == nil || len(a.Provided.Look) != 4 {
		t.Fatalf("modules into slots that nobody looked into: %s, %+v", a.End, a.Provided)
	}
	for _, l := range a.Provided.Look {
		if l.Attr != rig.HoldsNow || l.Is != string(rig.Nothing) {
			t.Fatalf("asked for %+v", l)
		}
		b.do(job.Change{Do: job.DoLook, Fact: &l.Fact, Value: l.Is})
	}
	now := b.advice()
	if now.End != plan.Optimal || now.Best == nil || !slices.Equal(now.Best.Placements, a.Provided.Placements) {
		t.Errorf("with all of it told it is %s, %+v; provided that was %+v", now.End, now.Best, a.Provided.Placements)
	}
	// Memory that is there may meet a wish which new modules alone cannot.
	b.job = untold
	b.job.Wish.MemoryBytes = 64 * quantity.GiB
	if a := b.advice(); a.End == plan.Impossible {
		t.Error("what lies in the slots is not known, and it is proved impossible")
	}
}
