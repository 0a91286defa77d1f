package job_test

import (
	"bytes"
	"context"
	"errors"
	"slices"
	"strings"
	"testing"

	"deepbay/demo"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/job"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/plan"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/say"
	"deepbay/internal/core/shelf"
	"deepbay/internal/format"
)

// ask asks the planner about a demo job and prints the answer as lines.
func ask(t *testing.T, name string, q job.PlanQuestion) (plan.Advice, string) {
	t.Helper()
	j, err := demo.Job(name)
	if err != nil {
		t.Fatal(err)
	}
	a, err := j.AskPlan(context.Background(), q)
	if err != nil {
		t.Fatal(err)
	}
	w := say.About(say.Plain, &j).Advice(&a)
	lines := []string{string(a.End)}
	if a.Best != nil {
		for _, p := range a.Best.Placements {
			lines = append(lines, string(p.Item)+" in "+p.Socket.String())
		}
		for _, c := range a.Best.Choices {
			lines = append(lines, string(c.Setting)+" at "+c.Value)
		}
		lines = append(lines, joined(w.Best.Says))
	}
	for _, o := range w.Alternatives {
		lines = append(lines, "or "+strings.ReplaceAll(joined(append(o.Differs, o.Says...)), "\n", ", "))
	}
	for _, s := range w.Clash {
		lines = append(lines, "clash "+s.String())
	}
	for _, s := range w.Cures {
		lines = append(lines, "cure "+s.String())
	}
	return a, strings.Join(lines, "\n")
}

// Each demo job is there for a judgement call that is easy to get wrong.
func TestPlans(t *testing.T) {
	some := func(ids ...part.ID) []shelf.Stock {
		return slices.DeleteFunc(stock(t), func(e shelf.Stock) bool { return !slices.Contains(ids, e.Part.ID) })
	}
	for _, c := range []struct {
		name string
		job  string
		q    job.PlanQuestion
		want []string
	}{
		{"old modules come out, the drive goes to the processor", "echo-sounding-tower", job.PlanQuestion{},
			[]string{"optimal", "item-4 in M2_1", "item-5 in A2", "item-6 in B2", "2 of Sallow 4 GB come out", "or Sallow 4 GB in A1, Sallow 4 GB in B1, memory 38.40 GB/s at its peak instead of 51.20 GB/s, nothing that was in use is lost"}},
		{"nothing in use lost counts most", "echo-sounding-tower", job.PlanQuestion{Order: []string{"in use"}}, []string{"item-1 in A1", "item-2 in B1", "memory: 38.40 GB/s at its peak"}},
		{"a pinned drive moves the old one", "echo-sounding-tower", job.PlanQuestion{Pins: []rig.Placement{{Item: "item-4", Socket: rig.ParsePath("M2_2")}}}, []string{"item-4 in M2_2", "item-3 in SATA1"}},
		{"a ban", "echo-sounding-tower", job.PlanQuestion{Bans: []rig.Placement{{Item: "item-4", Socket: rig.ParsePath("M2_1")}}}, []string{"item-4 in M2_2"}},
		{"what must stay and what would put it off", "echo-sounding-tower", job.PlanQuestion{Stay: []rig.ItemID{"item-3"}, Bans: []rig.Placement{{Item: "item-4", Socket: rig.ParsePath("M2_1")}}},
			[]string{"impossible", "clash the new Ternlight 500 does not go into M2_1", "clash Mudlark 2 TB from SATA6 stays there", "cure let Mudlark 2 TB from SATA6 move"}},
		{"a port that is kept", "echo-sounding-tower", job.PlanQuestion{Ports: []machine.SocketID{"SATA5"}, Bans: []rig.Placement{{Item: "item-4", Socket: rig.ParsePath("M2_1")}}},
			[]string{"impossible", "clash SATA5 stays on and free", "cure give up SATA5"}},
		{"the fastest socket for each drive would halve the graphics card", "wave-model-desktop", job.PlanQuestion{},
			[]string{"item-1 in PCIE1", "item-5 in M2_1", "item-6 in M2_3", "or Ternlight 2000 in M2_2, cards lose 15.75 GB/s of their rate; in the best plan nothing"}},
		{"two drives behind one uplink lose to one on the processor", "side-scan-archive", job.PlanQuestion{},
			[]string{"item-3 in M2_1", "item-4 in M2_4", "item-5 in M2_2", "all drives at once: 21.17 GB/s", "all drives at once 14.11 GB/s instead of 21.17 GB/s"}},
		{"an old drive becomes scratch", "side-scan-archive", job.PlanQuestion{Scratch: []rig.ItemID{"item-4"}}, []string{"scratch and array: 7.06 GB/s"}},
		{"an array is as fast as its slowest", "side-scan-archive", job.PlanQuestion{Array: []rig.ItemID{"item-3", "item-4"}}, []string{"scratch and array: 14.11 GB/s"}},
		{"the graphics card moves to where it covers nothing", "bathymetry-render", job.PlanQuestion{}, []string{"item-1 in SLOT4", "item-7 in SLOT1", "slot1-layout at 4+4+4+4", "all drives at once: 45.74 GB/s"}},
		{"a carrier is split and filled", "dive-camera-ingest", job.PlanQuestion{}, []string{"item-5 in SLOT3", "slot3-layout at 4+4+4+4"}},
		{"three drives on a lead for two", "lock-gate-recorder", job.PlanQuestion{Shelf: some("crimp-slim", "lead-angled", "raft-4")},
			[]string{"impossible", "clash Mudlark 2 TB from SATA1 is in the machine and seen", "clash the new Skerry 480 is in the machine and seen", "cure take from the shelf: Slim plug adapter"}},
		{"a box of the shelf may be used", "lock-gate-recorder", job.PlanQuestion{UseShelf: true, Shelf: some("haven-dock", "raft-1")},
			[]string{"optimal", "shelf/haven-dock in USB1", "item-4 in USB1/1", "from the shelf for 38.50"}},
		{"a carrier that would help nobody is left on the shelf", "echo-sounding-tower", job.PlanQuestion{UseShelf: true, Shelf: some("raft-1", "raft-4")}, []string{"optimal", "item-4 in M2_1", "4 sockets"}},
		{"one of them may leave", "lock-gate-recorder", job.PlanQuestion{Leave: []rig.ItemID{"item-3"}}, []string{"optimal", "1 drive with data comes out"}},
	} {
		_, got := ask(t, c.job, c.q)
		for _, want := range c.want {
			if !strings.Contains(got, want) {
				t.Errorf("%s: lacks %q in\n%s", c.name, want, got)
			}
		}
	}
}

// The moves of a plan make it: the job then resolves without a stop and with the
// figures the plan claims.
func TestPlanIsTaken(t *testing.T) {
	for _, name := range []string{"echo-sounding-tower", "wave-model-desktop", "side-scan-archive", "bathymetry-render", "dive-camera-ingest"} {
		a, _ := ask(t, name, job.PlanQuestion{})
		for i, way := range append([]plan.Way{*a.Best}, a.Alternatives...) {
			j := load(t, name)
			next, _, err := job.Apply(j, job.Change{Do: job.DoMoves, Moves: way.Moves}, stamp)
			if err != nil {
				t.Fatalf("%s, way %d: %v", name, i, err)
			}
			b := next.PlannedRig()
			r := fit.Resolve(&b)
			if r.Stops() || len(next.Planned.Placements) != len(way.Placements) {
				t.Errorf("%s, way %d: %+v\n%v", name, i, r.Findings, next.Planned.Placements)
			}
			sum := 0.0
			for _, f := range r.Flows {
				sum += float64(int64(f.Together.Low.MBps() + 1e-6))
			}
			says := joined(say.About(say.Plain, &j).Advice(&a).Best.Says)
			if want := "all drives at once: " + quantity.MBps(sum).String(); i == 0 && !strings.Contains(says, want) {
				t.Errorf("%s: the plan comes to %q and says %q", name, want, says)
			}
		}
	}
}

func TestWhyNot(t *testing.T) {
	for _, c := range []struct{ job, item, socket, want string }{
		{"echo-sounding-tower", "item-4", "M2_2", "Ternlight 500 works in M2_2, but: system drive 3."},
		{"echo-sounding-tower", "item-4", "A1", "Ternlight 500 does not go into A1: it is a M.2 drive, and this is a DIMM slot"},
		{"echo-sounding-tower", "item-3", "SATA1", "Mudlark 2 TB works in SATA1, but: 6 sockets inside are touched, instead of 4"},
		{"echo-sounding-tower", "item-6", "A2", "Sallow 16 GB would be as good in A2; of equal plans the one with the earlier sockets is taken"},
		{"wave-model-desktop", "item-6", "M2_2", "Ternlight 2000 works in M2_2, but: cards lose 15.75 GB/s"},
		{"bathymetry-render", "item-1", "SLOT1", "Gallery 8 graphics in SLOT1 covers it"},
	} {
		j := load(t, c.job)
		why, err := j.WhyNot(context.Background(), job.PlanQuestion{}, rig.ItemID(c.item), rig.ParsePath(c.socket))
		got := say.About(say.Plain, &j).Fact(why).String()
		if err != nil || !strings.Contains(got, c.want) {
			t.Errorf("%s in %s: %q, %v\nwant %q", c.item, c.socket, got, err, c.want)
		}
	}
}

// A question that is no longer wanted stops the search; one about what is not there is refused.
func TestPlanRefused(t *testing.T) {
	j := load(t, "echo-sounding-tower")
	gone, cancel := context.WithCancel(context.Background())
	cancel()
	if _, err := j.AskPlan(gone, job.PlanQuestion{}); !errors.Is(err, context.Canceled) {
		t.Errorf("cancelled: %v", err)
	}
	_, err := j.AskPlan(context.Background(), job.PlanQuestion{Stay: []rig.ItemID{"x"}, Order: []string{"beauty"}})
	if err == nil || !strings.Contains(say.Plain.Err(err).Error(), `/stay/0: no item is named "x"`) || !strings.Contains(say.Plain.Err(err).Error(), `/order/0: "beauty" is not a criterion`) {
		t.Errorf("%v", err)
	}
}

// BenchmarkPlan is the search for the best plan of each demo job, and the whole
// answer with its alternatives.
func BenchmarkPlan(b *testing.B) {
	for _, name := range []string{"echo-sounding-tower", "tide-gauge-mini-pc", "wave-model-desktop", "side-scan-archive", "chart-table-workstation", "dive-camera-ingest", "bathymetry-render", "multibeam-workstation", "pilot-office-desktop", "quay-camera-mini-pc"} {
		j, err := demo.Job(name)
		if err != nil {
			b.Fatal(err)
		}
		in, err := j.PlanInput(job.PlanQuestion{})
		if err != nil {
			b.Fatal(err)
		}
		b.Run("best/"+name, func(b *testing.B) {
			b.ReportAllocs()
			for b.Loop() {
				if r, err := plan.Find(context.Background(), in); err != nil || r.End != plan.Optimal {
					b.Fatal(r.End, err)
				}
			}
		})
		b.Run("answer/"+name, func(b *testing.B) {
			b.ReportAllocs()
			for b.Loop() {
				if _, err := plan.Ask(context.Background(), in); err != nil {
					b.Fatal(err)
				}
			}
		})
	}
}

// stock is the demo shop's shelf.
func stock(tb testing.TB) []shelf.Stock {
	tb.Helper()
	b, err := demo.Files.ReadFile("shelf.csv")
	if err != nil {
		tb.Fatal(err)
	}
	entries, problems, err := shelf.ReadCSV(bytes.NewReader(b), func(id part.ID) (part.Part, bool) {
		b, err := demo.Files.ReadFile("parts/" + string(id) + ".part.json")
		if err != nil {
			return part.Part{}, false
		}
		p, err := format.Part(b)
		return p, err == nil
	})
	if err != nil || len(problems) > 0 {
		tb.Fatal(err, problems)
	}
	return entries
}

// From wish to parts: what is cheapest, and what each step of money more buys.
func TestShop(t *testing.T) {
	j := load(t, "echo-sounding-tower")
	for _, it := range []rig.ItemID{"item-4", "item-5", "item-6"} { // nothing was bought yet
		next, _, err := job.Apply(j, job.Change{Do: job.DoRemove, Item: it}, stamp)
		if err != nil {
			t.Fatal(err)
		}
		j = next
	}
	for _, c := range []struct {
		name string
		need plan.Need
		want []string
	}{
		{"memory and a fast system drive", plan.Need{MemoryBytes: 32 * quantity.GiB, SystemBytes: quantity.DriveBytes(500), SystemFast: true},
			[]string{"2 of Sallow 16 GB, Ternlight 500 117.80: system drive: 6.50 GB/s"}},
		{"any system drive: money buys speed", plan.Need{SystemBytes: quantity.DriveBytes(240)},
			[]string{"Skerry 240 19.00: system drive: 540 MB/s, 186 s for 100 GB", "SATA5 goes off", "Skerry 480 34.00", "nothing in use is lost",
				"Ternlight 500 44.00: system drive 6.50 GB/s instead of 550 MB/s: 166 s less for 100 GB", "5 combinations"}},
		{"with data", plan.Need{MemoryBytes: 32 * quantity.GiB, SystemBytes: quantity.DriveBytes(500), SystemFast: true, DataBytes: quantity.DriveBytes(2000), AtMost: 30000},
			[]string{"2 of Sallow 16 GB, Ternlight 500, Mudlark 2 TB 165.80: system drive: 6.50 GB/s", "9 combinations"}},
		{"for too little", plan.Need{MemoryBytes: 32 * quantity.GiB, AtMost: 1000}, []string{"0 combinations of what is on the shelf were planned; 3 cost more than was said: none of them"}},
		{"more than the shelf has", plan.Need{DataBytes: quantity.DriveBytes(40000)}, []string{"0 combinations of what is on the shelf were planned: none of them meets the wish"}},
	} {
		got, err := j.Shop(context.Background(), c.need, stock(t))
		if err != nil {
			t.Fatal(err)
		}
		var lines []string
		w := say.About(say.Plain, &j).Shopping(&got)
		for i := range w.Baskets {
			b := &w.Baskets[i]
			lines = append(lines, b.What.String()+" "+string(b.Price)+": "+strings.ReplaceAll(joined(b.Says), "\n", "; "))
		}
		all := strings.Join(append(lines, w.Says.String()), "\n")
		for _, want := range c.want {
			if !strings.Contains(all, want) {
				t.Errorf("%s: lacks %q in\n%s", c.name, want, all)
			}
		}
	}
}

// TestTakenOut takes a found drive out of the plan by hand: it leaves, and where no
// place was free for the new one there is one now.
func TestTakenOut(t *testing.T) {
	j, err := demo.Job("lock-gate-recorder")
	if err != nil {
		t.Fatal(err)
	}
	b := bench{t, j}
	if a := b.advice(); a.End != plan.Impossible {
		t.Fatalf("with both old drives kept the plan is %s", a.End)
	}
	old := b.job.Found.In(rig.On("SATA2"))
	b.do(job.Change{Do: job.DoTakeOut, Item: old})
	a := b.advice()
	if a.Best == nil || !rig.PlaceOf(a.Best.Placements, old).IsZero() {
		t.Fatalf("%s was taken out by hand, and the plan is %s with %+v", old, a.End, a.Best)
	}
	if slices.ContainsFunc(a.Best.Moves, func(m rig.Move) bool { return m.Item == old }) {
		t.Errorf("%s is moved: %+v", old, a.Best.Moves)
	}
	b.do(job.Change{Do: job.DoWish, Wish: &rig.Wish{Keep: []rig.ItemID{old}}})
	if a := b.advice(); a.Best != nil && rig.PlaceOf(a.Best.Placements, old).IsZero() {
		t.Errorf("%s must stay, and the plan leaves it out", old)
	}
}

// A clash says why each piece cannot be had, and carries out what would help.
func TestClashSaysWhy(t *testing.T) {
	a, _ := ask(t, "lock-gate-recorder", job.PlanQuestion{})
	j, _ := demo.Job("lock-gate-recorder")
	w := say.About(say.Plain, &j).Advice(&a)
	if got := w.Clash[1].String(); got != "Skerry 480 from SATA2 is in the machine and seen: Skerry 480 has a SATA power plug; the lead that reaches the bay on SATA3 ends in slimline sata" {
		t.Errorf("says %q", got)
	}
	if len(w.Help) != 3 || w.Help[0].Do != plan.LeaveHelp || w.Help[0].Item == "" {
		t.Errorf("help: %+v", w.Help)
	}
}

// What clashes is said once of pieces that nothing tells apart, with why, and with how many
// of them to leave out.
func TestClashOfTwins(t *testing.T) {
	j, err := demo.Job("echo-sounding-tower")
	if err != nil {
		t.Fatal(err)
	}
	parts, err := demo.Parts()
	if err != nil {
		t.Fatal(err)
	}
	skerry := parts[slices.IndexFunc(parts, func(p part.Part) bool { return p.ID == "skerry-480" })]
	b := bench{t, j}
	for range 5 { // beside the disk that is in, for three free bays
		b.do(job.Change{Do: job.DoAdd, Part: &skerry, New: true})
	}
	a := b.advice()
	words := say.About(say.Plain, &b.job).Advice(&a)
	if a.End != plan.Impossible || len(words.Clash) == 0 || len(words.Help) == 0 {
		t.Fatalf("%s, %v, %v", a.End, words.Clash, words.Help)
	}
	var clash []string
	for _, s := range words.Clash {
		clash = append(clash, s.String())
	}
	if got := strings.Join(clash, "; "); strings.Count(got, "new Skerry 480 is in the machine") != 1 || !strings.Contains(got, "each of the 5 new Skerry 480 is in the machine and seen: no bay that takes Skerry 480 is free") {
		t.Errorf("clash: %s", got)
	}
	h := a.Help[slices.IndexFunc(a.Help, func(h plan.Help) bool { return h.Do == plan.LeaveHelp })]
	for _, id := range append(h.Also, h.Item) {
		b.do(job.Change{Do: job.DoRemove, Item: id})
	}
	if a := b.advice(); len(h.Also) != 1 || a.End == plan.Impossible {
		t.Errorf("without %v and %s: %s", h.Also, h.Item, a.End)
	}
}
