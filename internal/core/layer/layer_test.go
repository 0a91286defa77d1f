package layer_test

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"

	"deepbay/internal/core/layer"
)

// random makes a stack without circles: a layer lies only under those before it in a shuffled
// order, and so do the plugs of its leads.
func random(r *rand.Rand, most int) layer.Stack {
	n := 1 + r.IntN(most)
	places := []layer.Named{"A", "B", "C", "D"}
	sides := []layer.Side{"", "", layer.Top, layer.Bottom, layer.Left}
	var s layer.Stack
	id := func(i int) layer.ID { return layer.ID(fmt.Sprint("l", i)) }
	some := func(i int, odds float64) (out []layer.ID) {
		for k := range i {
			if r.Float64() < odds {
				out = append(out, id(k))
			}
		}
		return out
	}
	for i := range n {
		l := layer.Layer{ID: id(i), Name: fmt.Sprint("layer ", i), Kind: layer.Cage, Side: sides[r.IntN(len(sides))], Minutes: layer.Minutes(1+r.IntN(40)) / 10, After: some(i, 0.25), Fixed: r.IntN(25) == 0}
		l.Risk = []layer.Risk{layer.Low, layer.Some, layer.High}[r.IntN(3)]
		for _, p := range places {
			if r.IntN(4) == 0 {
				l.Hides = append(l.Hides, p)
			}
		}
		if r.IntN(6) == 0 {
			if p := places[r.IntN(4)]; !slices.Contains(l.Hides, p) {
				l.In = p
			}
		}
		if p := places[r.IntN(4)]; r.IntN(6) == 0 && l.In != p {
			l.Holds = append(l.Holds, p)
		}
		for range r.IntN(3) {
			lead := layer.Lead{For: "light", Under: some(i, 0.2), Undone: []layer.Undone{"", layer.First, layer.Lifting}[r.IntN(3)], Again: []layer.Again{"", layer.BeforeBack, layer.OnceBack}[r.IntN(3)]}
			if lead.Undone == layer.Lifting && r.IntN(3) == 0 {
				lead.Under = append(lead.Under, l.ID)
			}
			l.Leads = append(l.Leads, lead)
		}
		if !l.Fixed && r.IntN(3) == 0 {
			l.Fasteners = append(l.Fasteners, layer.Fastener{Count: 1 + r.IntN(4)})
		}
		s.Layers = append(s.Layers, l)
	}
	r.Shuffle(n, func(a, b int) { s.Layers[a], s.Layers[b] = s.Layers[b], s.Layers[a] })
	return s
}

// bench is the machine as hands know it: what is on, and nothing of what the code thinks of it.
type bench struct {
	s    *layer.Stack
	off  map[layer.ID]bool
	open map[[2]int]bool // leads that are undone
}

func (b *bench) find(id layer.ID) *layer.Layer {
	for i := range b.s.Layers {
		if b.s.Layers[i].ID == id {
			return &b.s.Layers[i]
		}
	}
	return nil
}

func (b *bench) clear(ids []layer.ID) bool {
	for _, id := range ids {
		if b.find(id) != nil && !b.off[id] {
			return false
		}
	}
	return true
}

// reaches reports that hands come to a place: from some side, or from anywhere where no layer
// that hides it has a side.
func (b *bench) reaches(p layer.Named) bool {
	sides := map[layer.Side]bool{}
	for i := range b.s.Layers {
		l := &b.s.Layers[i]
		if slices.Contains(l.Holds, p) && !b.off[l.ID] {
			return false
		}
		if slices.Contains(l.Holds, p) || l.In == p || !l.All && !slices.Contains(l.Hides, p) {
			continue
		}
		if l.Side == "" {
			if !b.off[l.ID] {
				return false
			}
			continue
		}
		shut, seen := sides[l.Side]
		sides[l.Side] = seen && shut || !b.off[l.ID]
	}
	for _, shut := range sides {
		if !shut {
			return true
		}
	}
	return len(sides) == 0
}

// free reports that a layer can be moved: nothing lies over it, and hands reach it and every plug.
func (b *bench) free(l *layer.Layer) bool {
	ok := !l.Fixed && b.clear(l.After) && (l.In == "" || b.reaches(l.In))
	for k := range l.Leads { // what it hides itself is undone once it is lifted
		ok = ok && b.clear(slices.DeleteFunc(slices.Clone(l.Leads[k].Under), func(id layer.ID) bool { return id == l.ID }))
	}
	return ok
}

// exhaustive is the least weight of a set that can come off and reaches the goals, by trying
// all sets; false for none.
func exhaustive(s *layer.Stack, goals []layer.Named) (int, bool) {
	best, found := 0, false
	for bits := range 1 << len(s.Layers) {
		b := bench{s: s, off: map[layer.ID]bool{}}
		weight, left := 0, 0
		for i := range s.Layers {
			if bits&(1<<i) != 0 {
				weight += s.Layers[i].Weight()
				left++
			}
		}
		if found && weight >= best {
			continue
		}
		for moved := true; moved; {
			moved = false
			for i := range s.Layers {
				if l := &s.Layers[i]; bits&(1<<i) != 0 && !b.off[l.ID] && b.free(l) {
					b.off[l.ID], moved = true, true
					left--
				}
			}
		}
		reached := left == 0
		for _, p := range goals {
			reached = reached && b.reaches(p)
		}
		if reached {
			best, found = weight, true
		}
	}
	return best, found
}

// On random machines the set is the least there is, every order can be done by hands both ways,
// every lead that was undone is plugged while its plug is within reach, and all that came
// off is back in the end.
func TestEveryWay(t *testing.T) {
	rounds := 10_000
	if testing.Short() {
		rounds = 1_000
	}
	reachable, twoWays, held := 0, 0, 0
	for seed := range rounds {
		r := rand.New(rand.NewPCG(uint64(seed), 12))
		s := random(r, 9)
		var goals []layer.Goal
		var names []layer.Named
		for _, p := range []layer.Named{"A", "B", "C", "D"} {
			if r.IntN(2) == 0 {
				g := s.To(p)
				goals, names = append(goals, g), append(names, p)
				if len(g.Ways) > 1 {
					twoWays++
				}
			}
		}
		open, ok := s.Least(goals, nil)
		want, can := exhaustive(&s, names)
		if ok != can {
			t.Fatalf("seed %d: reached %v, by trying all sets %v: %+v to %v", seed, ok, can, s.Layers, names)
		}
		if !ok {
			continue
		}
		reachable++
		got := 0
		for _, i := range open {
			got += s.Layers[i].Weight()
		}
		if got != want {
			t.Fatalf("seed %d: weighs %d, least is %d: %v", seed, got, want, open)
		}
		b := bench{s: &s, off: map[layer.ID]bool{}, open: map[[2]int]bool{}}
		order, all := s.Off(open)
		if !all || len(order) != len(open) {
			t.Fatalf("seed %d: %v does not come off: %v", seed, open, order)
		}
		for _, i := range order {
			l := &s.Layers[i]
			if !b.free(l) {
				t.Fatalf("seed %d: %s comes off, but cannot: %v", seed, l.ID, order)
			}
			b.off[l.ID] = true
			for k := range l.Leads {
				b.open[[2]int{i, k}] = true
			}
		}
		tasks := make([]layer.Task, len(names))
		for i, p := range names {
			if !b.reaches(p) {
				t.Fatalf("seed %d: %s is not reached by %v", seed, p, order)
			}
			tasks[i].Places = []layer.Named{p}
		}
		acts, stuck := s.Back(order, tasks)
		if len(stuck) > 0 { // then it is a fault of the sheet, and said to be one
			if len(layer.Check(s.Layers, []layer.Named{"A", "B", "C", "D"})) == 0 {
				t.Fatalf("seed %d: no way back (%v), and the sheet is said to be good: %+v", seed, stuck, s.Layers)
			}
			held++
			continue
		}
		b.back(t, seed, acts, tasks)
	}
	t.Logf("%d reachable, %d goals with several ways, %d never closed", reachable, twoWays, held)
	if reachable < rounds/2 || twoWays < rounds/10 || held == 0 {
		t.Error("the random machines try too little")
	}
}

func (b *bench) back(t *testing.T, seed int, acts []layer.Act, tasks []layer.Task) {
	t.Helper()
	done := 0
	for _, a := range acts {
		switch {
		case a.Task >= 0:
			done++
			for _, p := range tasks[a.Task].Places {
				if !b.reaches(p) {
					t.Fatalf("seed %d: %s is out of reach when it is its turn", seed, p)
				}
			}
		case a.Lead >= 0:
			l := &b.s.Layers[a.Layer]
			lead := &l.Leads[a.Lead]
			switch {
			case !b.open[[2]int{a.Layer, a.Lead}]:
				t.Fatalf("seed %d: lead %v is plugged twice, or was not undone", seed, a)
			case !b.clear(lead.Under):
				t.Fatalf("seed %d: the plug of lead %v is hidden when it is its turn", seed, a)
			case lead.Again == layer.BeforeBack && !b.off[l.ID], lead.Again == layer.OnceBack && b.off[l.ID]:
				t.Fatalf("seed %d: lead %v is plugged at the wrong time", seed, a)
			}
			delete(b.open, [2]int{a.Layer, a.Lead})
		default:
			l := &b.s.Layers[a.Layer]
			if !b.off[l.ID] || !b.free(l) {
				t.Fatalf("seed %d: %s goes back, but cannot", seed, l.ID)
			}
			delete(b.off, l.ID)
		}
	}
	if len(b.off) > 0 || len(b.open) > 0 || done != len(tasks) {
		t.Fatalf("seed %d: left: layers %v, leads %v, %d of %d tasks done", seed, b.off, b.open, done, len(tasks))
	}
}

// What is wrong with layers is said at its place.
func TestCheck(t *testing.T) {
	places := []layer.Named{"M2_1", "A1", "bay-1"}
	lid := layer.Layer{ID: "lid", Name: "lid", Kind: layer.Cover, All: true}
	cage := func(change func(*layer.Layer)) layer.Layer {
		l := layer.Layer{ID: "cage", Name: "cage", Kind: layer.Cage, After: []layer.ID{"lid"}, Hides: []layer.Named{"M2_1"}}
		change(&l)
		return l
	}
	nothing := func(*layer.Layer) {}
	for _, c := range []struct {
		name   string
		layers []layer.Layer
		want   string // place and code of what is wrong
	}{
		{"nothing", []layer.Layer{lid, cage(nothing)}, ""},
		{"twice", []layer.Layer{lid, lid}, "/1/id layer/named-twice"},
		{"after none", []layer.Layer{lid, cage(func(l *layer.Layer) { l.After = []layer.ID{"lid", "bezel"} })}, "/1/after/1 layer/no-layer"},
		{"after itself", []layer.Layer{lid, cage(func(l *layer.Layer) { l.After = []layer.ID{"cage"} })}, "/1/after/0 layer/hides-itself"},
		{"no such place", []layer.Layer{lid, cage(func(l *layer.Layer) { l.Hides, l.Holds = nil, []layer.Named{"bay-9"} })}, "/1/holds/0 layer/no-place"},
		{"in no place", []layer.Layer{lid, cage(func(l *layer.Layer) { l.In = "PCIE9" })}, "/1/in layer/no-place"},
		{"a circle", []layer.Layer{cage(func(l *layer.Layer) {}), {ID: "lid", Name: "lid", Kind: layer.Cover, After: []layer.ID{"cage"}}}, "/1/after/0 layer/circle"},
		{"a circle by a lead", []layer.Layer{{ID: "lid", Name: "lid", Kind: layer.Cover, Leads: []layer.Lead{{For: "light", Under: []layer.ID{"cage"}}}}, cage(nothing)}, "/1/after/0 layer/circle"},
		{"out of reach", []layer.Layer{{ID: "lid", Name: "lid", Kind: layer.Cover, Fixed: true}, cage(nothing)}, "/1/hides/0 layer/out-of-reach"},
		{"reached from below", []layer.Layer{{ID: "lid", Name: "lid", Kind: layer.Cover, Fixed: true, Side: layer.Top, Hides: []layer.Named{"M2_1"}}, {ID: "plate", Name: "plate", Kind: layer.Cover, Side: layer.Bottom, Hides: []layer.Named{"M2_1"}}}, ""},
		{"never plugged", []layer.Layer{lid, cage(func(l *layer.Layer) {
			l.Leads = []layer.Lead{{For: "fan", Under: []layer.ID{"cage"}, Undone: layer.Lifting, Again: layer.OnceBack}}
		})}, "/1/leads/0 layer/never-plugged"},
		{"plugged while it is lifted", []layer.Layer{lid, cage(func(l *layer.Layer) {
			l.Leads = []layer.Lead{{For: "fan", Under: []layer.ID{"cage"}, Undone: layer.Lifting}}
		})}, ""},
		{"never undone", []layer.Layer{lid, cage(func(l *layer.Layer) { l.Leads = []layer.Lead{{For: "fan", Under: []layer.ID{"cage"}}} })}, "/1/leads/0/under/0 layer/never-undone"},
		{"more points than screws", []layer.Layer{lid, cage(func(l *layer.Layer) {
			l.Fasteners = []layer.Fastener{{Count: 1, At: make([]layer.Point, 2)}}
		})}, "/1/fasteners/0/at layer/more-points"},
		{"riveted, with a screw", []layer.Layer{{ID: "lid", Name: "lid", Kind: layer.Cover, Fixed: true, Fasteners: []layer.Fastener{{Count: 1}}}}, "/0/fixed layer/fixed-held"},
	} {
		got := ""
		if l := layer.Check(c.layers, places); len(l) > 0 {
			got = l[0].Pointer + " " + string(l[0].Fact.Code)
		}
		if got != c.want {
			t.Errorf("%s: %q, want %q", c.name, got, c.want)
		}
	}
}

// A place that two sides lead to is reached by the cheaper one, and by the other where that
// was tried and does not come off; what was in the way anyway weighs nothing.
func TestSides(t *testing.T) {
	s := layer.Stack{Layers: []layer.Layer{
		{ID: "lid", Kind: layer.Cover, Side: layer.Top, Hides: []layer.Named{"M2"}, Minutes: 5},
		{ID: "foot", Kind: layer.Foot, Side: layer.Bottom, Minutes: 1},
		{ID: "plate", Kind: layer.Cover, Side: layer.Bottom, Hides: []layer.Named{"M2"}, After: []layer.ID{"foot"}, Minutes: 2},
	}}
	for _, c := range []struct {
		barred []layer.ID
		free   []int
		want   string
	}{
		{nil, nil, "[1 2]"}, {[]layer.ID{"foot"}, nil, "[0]"}, {[]layer.ID{"foot", "lid"}, nil, "[]"}, {nil, []int{0}, "[0]"},
	} {
		s.Barred = c.barred
		open, _ := s.Least([]layer.Goal{s.To("M2")}, c.free)
		if fmt.Sprint(open) != c.want {
			t.Errorf("without %v, with %v off: %v, want %s", c.barred, c.free, open, c.want)
		}
	}
}

// A sheet that nobody wrote for a machine, with as many layers as the format lets through and
// every side in use, is answered within a bound: what comes off reaches what it must.
func TestManyLayers(t *testing.T) {
	most, reached := 0, 0
	for seed := range uint64(40) {
		r := rand.New(rand.NewPCG(seed, 2))
		var s layer.Stack
		places := []layer.Named{"A", "B", "C", "D", "E", "F"}
		for i := range 64 {
			l := layer.Layer{ID: layer.ID(fmt.Sprint("l", i)), Kind: layer.Cage, Minutes: layer.Minutes(1 + r.IntN(9)), Risk: layer.Low}
			l.Side = []layer.Side{layer.Top, layer.Bottom, layer.Left, layer.Right, layer.Front, layer.Rear, ""}[r.IntN(7)]
			for _, p := range places {
				if r.IntN(3) == 0 {
					l.Hides = append(l.Hides, p)
				}
			}
			for k := range i {
				if r.IntN(12) == 0 {
					l.After = append(l.After, s.Layers[k].ID)
				}
			}
			if r.IntN(8) == 0 {
				l.In = places[r.IntN(len(places))]
			}
			s.Layers = append(s.Layers, l)
		}
		q := s.Search()
		for _, p := range places {
			before := q.Tried
			open, ok := q.Least([]layer.Goal{s.To(p)}, nil)
			if most = max(most, q.Tried-before); !ok {
				continue
			}
			reached++
			var ids []layer.ID
			for _, i := range open {
				ids = append(ids, s.Layers[i].ID)
			}
			b := bench{s: &s, off: map[layer.ID]bool{}}
			if _, comes := s.Off(open); !comes {
				t.Fatalf("seed %d: %v do not come off", seed, ids)
			}
			for _, id := range ids {
				b.off[id] = true
			}
			if !b.reaches(p) {
				t.Fatalf("seed %d: %s is not reached with %v off", seed, p, ids)
			}
		}
	}
	if most < 1000 || most > 4000 || reached < 40 {
		t.Errorf("at most %d sets were looked at, and %d places reached: it shows little, or has no bound", most, reached)
	}
}
