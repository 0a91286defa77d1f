package fault_test

import (
	"flag"
	"fmt"
	"math/rand"
	"slices"
	"strings"
	"testing"

	"deepbay/demo"
	"deepbay/internal/core/fault"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/layer"
	"deepbay/internal/core/power"
	"deepbay/internal/core/rig"
	"deepbay/internal/coretest/jobs"
)

var (
	random    = flag.Int("machines", 400, "random machines besides those of the shop")
	pairsEach = flag.Int("pairs", 25, "pairs of faults hidden in each machine")
	everyNth  = flag.Int("every", 4, "of the faults of the largest machine, one in so many is hidden")
)

// bench is a machine of the demo shop with its work done.
type bench struct {
	name string
	c    *fault.Case
}

func machines(t testing.TB) []bench {
	t.Helper()
	var out []bench
	files, err := demo.Files.ReadDir("jobs")
	if err != nil {
		t.Fatal(err)
	}
	for _, file := range files {
		n := strings.TrimSuffix(file.Name(), ".job.json")
		j, err := demo.Job(n)
		if err != nil {
			t.Fatal(err)
		}
		planned := j.PlannedRig()
		if a := fit.Resolve(&planned); a.Stops() || len(planned.Placements) == 0 {
			continue
		}
		out = append(out, bench{n, j.Case()})
	}
	full := jobs.Full(t)
	for i := range full.Pieces {
		if p := &full.Pieces[i]; p.Part.Drive != nil {
			p.Holds = map[rig.Path]rig.Content{rig.On("M2_1"): rig.System, rig.On("SATA1"): rig.System, rig.On("M2_2"): rig.Blank}[full.Where(p.ID)]
			p.Serial = "DB-" + string(p.ID)
		}
	}
	return append(out, bench{"full", fault.Of(&full, fault.Work{})})
}

// look is what a person reads of a machine that is not well: what the first screens say, what
// memory comes to, what is other than it should be, and of the rest every second line. What is
// read only when asked for, it is not read.
func look(rng *rand.Rand, w *fault.World) []power.Reading {
	var out []power.Reading
	told := false
	lines := w.Lines()
	var apart []power.LineID
	for _, id := range lines {
		r, ok := w.Read(id)
		if !ok {
			continue
		}
		extra := id.Kind == power.Boots || id.Kind == power.Installs || id.Kind == power.Disk || id.Kind == power.Counts || id.Kind == power.Heat
		switch {
		case w.Differs(id) && extra:
			apart = append(apart, id)
		case w.Differs(id) && (!told || rng.Intn(4) > 0) || id.Kind == power.Message || id.Kind == power.Total || !extra && rng.Intn(2) == 0:
			told = told || w.Differs(id)
			out = append(out, r)
		}
	}
	for _, id := range apart {
		if !told || rng.Intn(3) == 0 {
			r, _ := w.Read(id)
			out, told = append(out, r), true
		}
	}
	return out
}

// found is how a search for what is wrong ended.
type found struct {
	first, three, sightFirst, sightThree bool
	checks                               int
	minutes                              layer.Minutes
	gaveUp                               bool
}

// search asks until one explanation is left. Listed is to work off a list of checks instead, in a
// fixed order whatever they show, until one of them shows something and one explanation is left.
func search(t testing.TB, c *fault.Case, w *fault.World, seen []power.Reading, truth []fault.Fault, listed bool) found {
	e := fault.Evidence{Readings: slices.Clone(seen)}
	var f found
	var list []fault.Inspection
	rank := func(d *fault.Diagnosis) int {
		return slices.IndexFunc(d.Leaders, func(l fault.Leader) bool { return sameFaults(l.Faults, truth) })
	}
	for step := 0; ; step++ {
		d := c.Diagnose(e)
		for _, l := range d.Leaders {
			if why := contradicts(c, l.Faults, e); why != "" {
				t.Errorf("%v is offered for %v, and contradicts %s", l.Faults, truth, why)
			}
		}
		n := rank(&d)
		if step == 0 {
			f.sightFirst, f.sightThree = n == 0, n >= 0 && n < 3
		}
		if step == 0 && listed {
			list = c.Listed(e)
		}
		next := d.Next
		if listed && step < len(list) {
			next = &fault.Next{Check: list[step], Inside: list[step].Look.Inside()}
		} else if listed {
			next = nil
		}
		shown := listed && len(e.Answers) > 0 && e.Answers[len(e.Answers)-1].Is != e.Answers[len(e.Answers)-1].Check.Look.Outcomes()[0]
		if d.Certain && (!listed || shown || step == 0) || next == nil || step == 200 {
			f.first, f.three, f.gaveUp = n == 0, n >= 0 && n < 3, !d.Certain
			return f
		}
		f.checks++
		f.minutes += c.Cost(next.Check, e.Open)
		if next.Inside {
			e.Open = next.Check.Look.LeavesOpen()
		}
		if next.Check.Look == fault.ReadLine {
			r, ok := w.Read(next.Check.Line)
			if !ok {
				r = power.Reading{Line: next.Check.Line, Absent: true}
			}
			e.Readings = append(e.Readings, r)
			e.Open = false
			continue
		}
		e.Answers = append(e.Answers, fault.Answered{Check: next.Check, Is: w.Check(next.Check)})
	}
}

func sameFaults(a, b []fault.Fault) bool {
	return len(a) == len(b) && !slices.ContainsFunc(a, func(f fault.Fault) bool { return !slices.Contains(b, f) })
}

// contradicts is what no way in which faults show agrees with, "" for nothing. It asks the
// machine with those faults, not the diagnosis.
func contradicts(c *fault.Case, faults []fault.Fault, e fault.Evidence) string {
	ways := make([]int, len(faults))
	why := ""
	for {
		w := c.World(faults, ways)
		why = ""
		for _, r := range e.Readings {
			if got, ok := w.Read(r.Line); ok && !power.Agree(got, r, w.Rig(), w.Answer()) && why == "" && r.Line.Kind != power.Usable {
				why = r.Line.String()
			}
		}
		if why == "" {
			break
		}
		i := 0
		for ; i < len(ways); i++ {
			if ways[i]++; ways[i] < c.Ways(faults[i]) {
				break
			}
			ways[i] = 0
		}
		if i == len(ways) {
			break
		}
	}
	for _, a := range e.Answers {
		if is := c.World(faults, nil).Check(a.Check); a.Is != fault.Unclear && is != a.Is {
			return a.Check.String()
		}
	}
	return why
}

// TestCatalogue hides every fault of the catalogue in every machine in which it can occur, and
// looks for it.
func TestCatalogue(t *testing.T) {
	kinds := map[fault.Kind]bool{}
	worst := map[fault.Kind][3]int{} // tried, not first, not in three
	for _, m := range machines(t) {
		rng := rand.New(rand.NewSource(1))
		for n, f := range m.c.Faults() {
			if m.name == "full" && n%*everyNth > 0 && kinds[f.Kind] {
				continue
			}
			for way := range m.c.Ways(f) {
				w := m.c.World([]fault.Fault{f}, []int{way})
				seen := look(rng, w)
				if !slices.ContainsFunc(seen, func(r power.Reading) bool { return w.Differs(r.Line) }) {
					continue // nothing shows
				}
				kinds[f.Kind] = true
				got := search(t, m.c, w, seen, []fault.Fault{f}, false)
				x := worst[f.Kind]
				x[0]++
				if !got.first {
					x[1]++
					if testing.Verbose() {
						t.Logf("%s: %v way %d: %+v", m.name, f, way, got)
					}
				}
				if !got.three {
					x[2]++
				}
				worst[f.Kind] = x
			}
		}
	}
	var tried, notFirst, notThree int
	for _, k := range fault.Kinds() {
		x := worst[k]
		tried, notFirst, notThree = tried+x[0], notFirst+x[1], notThree+x[2]
		if !kinds[k] {
			t.Logf("no machine of the demo shop can have %s", k)
		}
		if testing.Verbose() && x[1] > 0 {
			t.Logf("%s: %d tried, %d not first, %d not in three", k, x[0], x[1], x[2])
		}
	}
	if notFirst*10 > tried || notThree*100 > tried {
		t.Errorf("of %d faults %d were not found first, %d not among three", tried, notFirst, notThree)
	}
	if len(kinds) < 45 {
		t.Errorf("%d kinds of fault can occur in the demo shop", len(kinds))
	}
}

// TestPairs hides two faults at a time.
func TestPairs(t *testing.T) {
	var tried, sight, three int
	for _, m := range machines(t) {
		rng := rand.New(rand.NewSource(2))
		all := m.c.Faults()
		for range *pairsEach {
			a, b := all[rng.Intn(len(all))], all[rng.Intn(len(all))]
			truth := []fault.Fault{a, b}
			w := m.c.World(truth, []int{rng.Intn(m.c.Ways(a)), rng.Intn(m.c.Ways(b))})
			seen := look(rng, w)
			// Two that can be told from one: each shows something that the other alone does not.
			if a == b || m.explains(a, seen) || m.explains(b, seen) || !slices.ContainsFunc(seen, func(r power.Reading) bool { return w.Differs(r.Line) }) {
				continue
			}
			got := search(t, m.c, w, seen, truth, false)
			tried++
			if got.three {
				three++
			} else if testing.Verbose() {
				t.Logf("%s: %v: %+v", m.name, truth, got)
			}
			if got.sightThree {
				sight++
			}
		}
	}
	t.Logf("%d pairs, %d in three at sight, %d in three at the end", tried, sight, three)
	if tried < 50 || three*100 < tried*80 {
		t.Errorf("of %d pairs %d were found among three", tried, three)
	}
}

// explains reports that a fault alone agrees with what was seen.
func (m *bench) explains(f fault.Fault, seen []power.Reading) bool {
	for way := range m.c.Ways(f) {
		w := m.c.World([]fault.Fault{f}, []int{way})
		if !slices.ContainsFunc(seen, func(r power.Reading) bool {
			got, ok := w.Read(r.Line)
			return !ok && !r.Absent || ok && !power.Agree(got, r, w.Rig(), w.Answer())
		}) {
			return true
		}
	}
	return false
}

// TestDanger stops everything at a dangerous sign, and puts data first: whatever else was seen.
func TestDanger(t *testing.T) {
	full := jobs.Full(t)
	c := fault.Of(&full, fault.Work{})
	for typed, stops := range map[string]bool{"smells burnt": true, "smoke": true, "the disk clicks": true, "sparks": true, "dark": false, "starts": false} {
		r, err := power.Read(power.LineID{Kind: power.Message}, typed)
		if err != nil {
			t.Fatal(err)
		}
		d := c.Diagnose(fault.Evidence{Readings: []power.Reading{r}})
		if d.Danger != stops || stops && (d.Next != nil || len(d.Leaders) > 0) {
			t.Errorf("%q: danger %v, next %v", typed, d.Danger, d.Next)
		}
	}
	r, err := power.Read(power.ParseLineID("errors/SATA1"), "rising")
	if err != nil {
		t.Fatal(err)
	}
	if d := c.Diagnose(fault.Evidence{Readings: []power.Reading{r}}); !d.Danger {
		t.Error("errors that rise are no danger")
	}
	if d := c.Diagnose(fault.Evidence{Answers: []fault.Answered{{Check: fault.ParseCheck("listen@SATA1"), Is: fault.Clicks}}}); !d.Danger {
		t.Error("a disk that clicks is no danger")
	}
}

// TestTouches holds what Diagnose leaves out against the forecast in full: a line that a fault
// changes is one that its changes are said to touch, so that no explanation is passed over.
func TestTouches(t *testing.T) {
	changed := 0
	all := machines(t)
	for seed := range int64(*random) { // and in random ones whose plan can be carried out
		j := jobs.Random(rand.New(rand.NewSource(seed)))
		if r := j.PlannedRig(); len(r.Placements) > 0 {
			if a := fit.Resolve(&r); !a.Stops() {
				all = append(all, bench{fmt.Sprint("seed ", seed), j.Case()})
			}
		}
	}
	for _, m := range all {
		missed, n := m.c.Untouched()
		changed += n
		for _, s := range missed[:min(len(missed), 5)] {
			t.Errorf("%s: %s", m.name, s)
		}
	}
	if changed < 5000 {
		t.Errorf("%d lines changed", changed)
	}
}

// tally is how searches ended, all together.
type tally struct {
	tried, sightFirst, sightThree, first, three, checks, gaveUp int
	minutes, inOrder                                            layer.Minutes
}

func (x *tally) add(f found) {
	x.tried++
	x.checks += f.checks
	x.minutes += f.minutes
	for _, c := range []struct {
		is bool
		n  *int
	}{{f.sightFirst, &x.sightFirst}, {f.sightThree, &x.sightThree}, {f.first, &x.first}, {f.three, &x.three}, {f.gaveUp, &x.gaveUp}} {
		if c.is {
			*c.n++
		}
	}
}

func (x *tally) row(name string) string {
	if x.tried == 0 {
		return ""
	}
	n := float64(x.tried)
	share := func(k int) float64 { return 100 * float64(k) / n }
	return fmt.Sprintf("%-26s %5d  %5.1f %5.1f  %5.1f %5.1f  %5.2f %6.1f %6.1f", name, x.tried, share(x.sightFirst), share(x.sightThree), share(x.first), share(x.three), float64(x.checks)/n, float64(x.minutes)/n, float64(x.inOrder)/n)
}

// BenchmarkTable hides every fault in every machine, and pairs, and prints how they were found:
// at sight and once no check tells more, in how many checks and minutes of hands, and in how many
// where checks are made in the order of a list. Of ten checks, one cannot be told.
func BenchmarkTable(b *testing.B) {
	for b.Loop() {
		head := fmt.Sprintf("%-26s %5s  %5s %5s  %5s %5s  %5s %6s %6s", "", "tried", "sight", "in 3", "first", "in 3", "asked", "min", "listed")
		fmt.Printf("\n%s\n", head)
		byKind := map[fault.Kind]*tally{}
		var all, pairs tally
		for _, m := range machines(b) {
			rng := rand.New(rand.NewSource(3))
			var own tally
			for _, f := range m.c.Faults() {
				for way := range m.c.Ways(f) {
					truth := []fault.Fault{f}
					w := m.c.World(truth, []int{way})
					seen := look(rng, w)
					if !slices.ContainsFunc(seen, func(r power.Reading) bool { return w.Differs(r.Line) }) {
						continue
					}
					got := search(b, m.c, w, seen, truth, false)
					listed := search(b, m.c, w, seen, truth, true)
					if byKind[f.Kind] == nil {
						byKind[f.Kind] = &tally{}
					}
					for _, x := range []*tally{&own, &all, byKind[f.Kind]} {
						x.add(got)
						x.inOrder += listed.minutes
					}
				}
			}
			fmt.Println(own.row(m.name))
			list := m.c.Faults()
			for range 4 * *pairsEach {
				x, y := list[rng.Intn(len(list))], list[rng.Intn(len(list))]
				truth := []fault.Fault{x, y}
				w := m.c.World(truth, []int{rng.Intn(m.c.Ways(x)), rng.Intn(m.c.Ways(y))})
				seen := look(rng, w)
				if x == y || m.explains(x, seen) || m.explains(y, seen) || !slices.ContainsFunc(seen, func(r power.Reading) bool { return w.Differs(r.Line) }) {
					continue
				}
				pairs.add(search(b, m.c, w, seen, truth, false))
				pairs.inOrder += search(b, m.c, w, seen, truth, true).minutes
			}
		}
		fmt.Printf("\n%s\n", head)
		for _, k := range fault.Kinds() {
			if x := byKind[k]; x != nil {
				fmt.Println(x.row(string(k)))
			}
		}
		fmt.Println(all.row("all singles"))
		fmt.Println(pairs.row("pairs"))
		b.ReportMetric(100*float64(all.first)/float64(all.tried), "first%")
		b.ReportMetric(100*float64(all.three)/float64(all.tried), "three%")
		b.ReportMetric(100*float64(pairs.three)/float64(pairs.tried), "pairs%")
		b.ReportMetric(float64(all.minutes)/float64(all.inOrder), "of-listed")
	}
}

// BenchmarkDiagnose is the time a person waits for: singles and pairs on the largest machine,
// with one thing amiss, with several, and with memory in all alone.
func BenchmarkDiagnose(b *testing.B) {
	full := jobs.Full(b)
	for _, bb := range []struct {
		name  string
		truth []string
	}{
		{"drive", []string{"m2-not-seated@M2_1"}},
		{"two", []string{"lead-off@SATA1", "half-seated@A1"}},
		{"dark", []string{"cpu-plug-off"}},
	} {
		b.Run(bb.name, func(b *testing.B) {
			for b.Loop() {
				c := fault.Of(&full, fault.Work{})
				var truth []fault.Fault
				for _, s := range bb.truth {
					truth = append(truth, fault.Parse(s))
				}
				w := c.World(truth, nil)
				var seen []power.Reading
				for _, id := range w.Lines() {
					if r, ok := w.Read(id); ok && (w.Differs(id) || id.Kind == power.Total) {
						seen = append(seen, r)
					}
				}
				if d := c.Diagnose(fault.Evidence{Readings: seen}); len(d.Leaders) == 0 {
					b.Fatal("nothing agrees")
				}
			}
		})
	}
}
