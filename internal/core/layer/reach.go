package layer

// This file finds which layers must come off.

import (
	"slices"
)

// Stack is the layers of one machine as it stands, those of fitted parts among them.
type Stack struct {
	Layers []Layer
	Barred []ID // do not come off, whatever the sheet says: somebody tried
}

// Goal is a place that hands must reach: any one of its ways will do, and each is layers that
// must be off.
type Goal struct {
	Place Named
	Ways  [][]int // indices into the stack; one empty way is within reach as it stands
}

// index finds a layer, -1 for none.
func (s *Stack) index(id ID) int {
	return slices.IndexFunc(s.Layers, func(l Layer) bool { return l.ID == id })
}

// fast reports a layer that does not come off.
func (s *Stack) fast(i int) bool {
	return s.Layers[i].Fixed || slices.Contains(s.Barred, s.Layers[i].ID)
}

// ways is what must be off before a layer comes off: what lies over it and over the plugs of
// its leads, and, for what lies in a socket or bay, one way to reach that. A layer that is not in
// the stack is not in the machine.
func (s *Stack) ways(i int) [][]int {
	l := &s.Layers[i]
	var own []int
	add := func(ids []ID) {
		for _, id := range ids {
			if n := s.index(id); n >= 0 && n != i && !slices.Contains(own, n) {
				own = append(own, n)
			}
		}
	}
	add(l.After)
	for k := range l.Leads {
		add(l.Leads[k].Under)
	}
	if l.In == "" {
		return [][]int{own}
	}
	var out [][]int
	for _, way := range s.To(l.In).Ways {
		way = slices.DeleteFunc(slices.Concat(own, way), func(n int) bool { return n == i })
		slices.Sort(way)
		out = append(out, slices.Compact(way))
	}
	return out
}

// hides reports that a layer hides a place.
func (l *Layer) hides(p Named) bool { return l.All || slices.Contains(l.Hides, p) }

// To is the goal of reaching a place. What hides it on one side need not come off where it
// can be reached from another; a layer without a side hides it from everywhere, and what it
// comes out with must come out.
func (s *Stack) To(p Named) Goal {
	g := Goal{Place: p}
	var always []int
	bySide := map[Side][]int{}
	var sides []Side
	for i := range s.Layers {
		l := &s.Layers[i]
		switch {
		case slices.Contains(l.Holds, p):
			always = append(always, i)
		case l.In == p || !l.hides(p):
		case l.Side == "":
			always = append(always, i)
		default:
			if _, ok := bySide[l.Side]; !ok {
				sides = append(sides, l.Side)
			}
			bySide[l.Side] = append(bySide[l.Side], i)
		}
	}
	if len(sides) == 0 {
		g.Ways = [][]int{always}
		return g
	}
	for _, side := range sides {
		way := slices.Concat(always, bySide[side])
		slices.Sort(way)
		g.Ways = append(g.Ways, way)
	}
	return g
}

// set is some layers of a stack.
type set []bool

func (s set) all(way []int) bool {
	for _, i := range way {
		if !s[i] {
			return false
		}
	}
	return true
}

func (s set) with(way []int) set {
	out := slices.Clone(s)
	for _, i := range way {
		out[i] = true
	}
	return out
}

// Least is the layers that must come off so that every goal is reached, of the least weight in
// all; free ones come off anyway and weigh nothing. Of sets that weigh the same it is one with
// the fewest layers. False is that a goal cannot be reached.
func (s *Stack) Least(goals []Goal, free []int) (open []int, ok bool) {
	return s.Search().Least(goals, free)
}

// Search answers many such questions about one stack.
type Search struct {
	Tried int // sets that were looked at so far

	s      *Stack
	ways   [][][]int
	weight []int
	can    set // layers that come off at all, with all the others that do
}

// mostTried bounds one question, in sets looked at: machines need some dozens, and only sheets that
// nobody wrote for a machine need more.
const mostTried = 4000

// Search prepares questions about a stack.
func (s *Stack) Search() *Search {
	q := &Search{s: s, ways: s.allWays(), weight: make([]int, len(s.Layers))}
	all := make(set, len(s.Layers))
	for i := range s.Layers {
		q.weight[i] = s.Layers[i].Weight()
		all[i] = true
	}
	off, _ := comesOff(all, q.ways)
	q.can = make(set, len(s.Layers)).with(off)
	return q
}

// Reaches reports that a goal can be reached, whatever must come off.
func (q *Search) Reaches(g Goal) bool {
	return slices.ContainsFunc(q.s.possible(g.Ways), q.can.all)
}

// Least is Stack.Least. Where it would have to look at too many sets, it is the lightest that it met, or
// everything that comes off.
func (q *Search) Least(goals []Goal, free []int) (open []int, ok bool) {
	f := finder{ways: q.ways, weight: q.weight, seen: map[string]bool{}}
	if len(free) > 0 {
		f.weight = slices.Clone(q.weight)
		for _, i := range free {
			f.weight[i] = 0
		}
	}
	for _, g := range goals {
		if !q.Reaches(g) {
			return nil, false
		}
		f.goals = append(f.goals, q.s.possible(g.Ways))
	}
	if !q.can.all(free) {
		return nil, false
	}
	f.search(make(set, len(q.s.Layers)).with(free))
	q.Tried += len(f.seen)
	if f.best == nil {
		f.best = q.can
	}
	for i, in := range f.best {
		if in {
			open = append(open, i)
		}
	}
	return open, true
}

// possible is the ways that need no layer which does not come off.
func (s *Stack) possible(ways [][]int) [][]int {
	return slices.DeleteFunc(slices.Clone(ways), func(way []int) bool { return slices.ContainsFunc(way, s.fast) })
}

// allWays is the possible ways of every layer; one that does not come off has none.
func (s *Stack) allWays() [][][]int {
	out := make([][][]int, len(s.Layers))
	for i := range s.Layers {
		if !s.fast(i) {
			out[i] = s.possible(s.ways(i))
		}
	}
	return out
}

// finder answers one question.
type finder struct {
	goals  [][][]int
	ways   [][][]int
	weight []int
	seen   map[string]bool
	best   set
	cost   [2]int // weight and number of the best
}

func (f *finder) costs(of set) [2]int {
	var c [2]int
	for i, in := range of {
		if in {
			c[0] += f.weight[i]
			c[1]++
		}
	}
	return c
}

// search adds to what is taken until every goal is reached and all of it can come off. Every
// set that will do and holds what is taken holds one of the branches as well: a way of a goal
// that is not reached, or, where some layers are stuck, a way of one of those, for the first
// of them to come off does so by a way that is not all taken yet. What is taken only grows, so a
// set that costs no less than the best is given up.
func (f *finder) search(taken set) {
	c := f.costs(taken)
	if f.best != nil && !less(c, f.cost) || len(f.seen) >= mostTried {
		return
	}
	key := string(f.bits(taken))
	if f.seen[key] {
		return
	}
	f.seen[key] = true
	for _, ways := range f.goals {
		if !slices.ContainsFunc(ways, taken.all) {
			for _, way := range ways {
				f.search(taken.with(way))
			}
			return
		}
	}
	_, stuck := comesOff(taken, f.ways)
	if len(stuck) == 0 {
		f.best, f.cost = taken, c
		return
	}
	for _, i := range stuck {
		for _, way := range f.ways[i] {
			if !taken.all(way) {
				f.search(taken.with(way))
			}
		}
		if len(f.ways[i]) == 1 && !taken.all(f.ways[i][0]) {
			return // it must go that way, whatever the others do
		}
	}
}

func (f *finder) bits(of set) []byte {
	out := make([]byte, len(of))
	for i, in := range of {
		if in {
			out[i] = 1
		}
	}
	return out
}

func less(a, b [2]int) bool { return a[0] < b[0] || a[0] == b[0] && a[1] < b[1] }

// comesOff takes layers off one after the other, the first in the stack that can come off
// each time: so one side is finished before the next where nothing else decides. stuck is what cannot
// come off.
func comesOff(taken set, ways [][][]int) (order, stuck []int) {
	off := make(set, len(taken))
	for {
		next := -1
		for i, in := range taken {
			if in && !off[i] && slices.ContainsFunc(ways[i], off.all) {
				next = i
				break
			}
		}
		if next < 0 {
			break
		}
		off[next] = true
		order = append(order, next)
	}
	for i, in := range taken {
		if in && !off[i] {
			stuck = append(stuck, i)
		}
	}
	return order, stuck
}

// Off is the order in which layers come off. False is that they do not all.
func (s *Stack) Off(open []int) (order []int, ok bool) {
	order, stuck := comesOff(make(set, len(s.Layers)).with(open), s.allWays())
	return order, len(stuck) == 0
}
