package plan

// This file is the search: branch and bound over the places of pieces, then over
// the settings that matter for them.

import (
	"context"
	"math"
	"slices"

	"deepbay/internal/core/fit"
	"deepbay/internal/core/known"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/rig"
)

// choice is a piece while it is searched for: what it may do and what it does now.
type choice struct {
	piece   *rig.Piece
	options []option // in the order of the sheet; the mat, "", is the last
	home    rig.Path
	seat    int   // the number of its home
	heirs   []int // other pieces that may take its home
	twin    int   // an earlier piece that nothing tells from this one, -1 if there is none
	best    Score
	system  bool
	scratch bool
	array   bool
	rate    float64  // of a drive, at best anywhere
	related bool     // it is of some kin
	draws   fit.Draw // from power plugs, wherever it goes
	surely  int      // the root behind whose uplink it will be wherever it goes, -1 for none
	now     int      // its option, -1 while it has none
	step    int      // and which of those tried this is
	byBound []int    // options, the most promising first
	easiest []places // what its options reach, without those that reach more than another; none where one reaches nothing
}

type search struct {
	*scorer
	ctx       context.Context
	order     []Criterion
	choices   []choice
	seats     map[rig.Path]int // the numbers of places
	taken     []bool           // seats
	found     []int            // of each setting, the option as found
	rootBound Score
	budget    int // steps left
	steps     int // since the context was asked
	watched   func(steps int)
	judged    int  // builds
	out       bool // of budget, or no longer wanted
	channels  int
	floor     Score
	kin       []kin   // pieces that go into the same sockets
	opens     []int   // scratch of wanting: sockets that one more setting opens
	counted   []bool  // scratch of unmet
	loads     []int64 // scratch of lower: of each root, what passes its uplink and will
	must      []int   // of each setting, how many placed pieces need it changed
	passing   []int64 // of each root, what the drives behind its uplink would move alone, MB/s
	uplinks   []int64 // what it carries, rounded up; 0 where that is not stated

	at       corner // which is looked for
	not      *Plan  // a plan that is not looked for
	best     *Score
	met      bool  // a plan as good as best; until then best is only to be beaten
	lies     []int // its options
	set      []int // and its settings
	ordered  bool  // second pass: in the order of sockets, for the first plan as good as the best
	finished bool
	placed   []rig.Placement
	chosen   []rig.Choice
	alone    map[trial]single
	decided  []bool // settings
	// A rule may split a slot for what another socket holds: then a position that is
	// dead alone may live in a plan.
	splitElsewhere bool
	ratesFirst     bool // rates count more than settings
}

// watching is where a context carries who watches.
type watching struct{}

// Watched is a context in which searches tell how many more steps they took, often.
func Watched(ctx context.Context, tell func(steps int)) context.Context {
	return context.WithValue(ctx, watching{}, tell)
}

func newSearch(ctx context.Context, in *Input, h half, budget int) *search {
	s := &search{scorer: newScorer(in, h), at: in.corner, ctx: ctx, order: in.Order, budget: budget, seats: map[rig.Path]int{}, alone: map[trial]single{}}
	s.watched, _ = ctx.Value(watching{}).(func(int))
	for _, set := range h.settings {
		s.found = append(s.found, slices.IndexFunc(set.Options, func(o machine.Option) bool { return o.Value == in.Found.Choice(set) }))
		s.chosen = append(s.chosen, rig.Choice{Setting: set.ID, Value: in.Found.Choice(set)})
	}
	s.channels = in.Found.Sheet.MostChannels()
	// Parts that bring sockets come first: what lies in those depends on them.
	pieces := inSearchOrder(h.pieces)
	s.must, s.opens = make([]int, len(h.settings)), make([]int, len(h.settings))
	s.decided, s.counted = make([]bool, len(h.settings)), make([]bool, len(h.settings))
	for _, r := range in.Found.Sheet.Roots {
		carries := int64(0)
		if r.Uplink != nil {
			carries = int64(math.Ceil(r.Uplink.Link().Planning().MBps()))
		}
		s.uplinks = append(s.uplinks, carries)
	}
	s.ratesFirst = slices.Index(in.Order, Rates) < slices.Index(in.Order, Settings)
	s.passing, s.loads = make([]int64, len(s.uplinks)), make([]int64, len(s.uplinks))
	s.splitElsewhere = slices.ContainsFunc(in.Found.Sheet.Rules, func(r machine.Rule) bool {
		return slices.ContainsFunc(r.Then, func(e machine.Effect) bool { return len(e.Split) > 0 }) &&
			slices.ContainsFunc(r.When, func(c machine.Condition) bool { return c.Socket != "" })
	})
	s.choices = make([]choice, len(pieces))
	for i := range pieces {
		s.choices[i] = choice{piece: &pieces[i], home: in.home(pieces[i].ID), twin: -1, now: -1, system: s.systemDrive(pieces[i].ID, s.at),
			scratch: slices.Contains(in.Scratch, pieces[i].ID), array: slices.Contains(in.Array, pieces[i].ID)}
	}
	for i := range s.choices {
		s.choices[i].seat = s.seat(s.choices[i].home)
	}
	s.sockets()
	s.taken = make([]bool, len(s.seats)+1)
	for i := range s.choices {
		s.limits(i)
		s.ease(i)
	}
	s.inherit()
	s.twins()
	s.kinship()
	s.rootBound, _ = s.lower(false)
	s.floor, _ = s.lower(true)
	return s
}

// run searches twice: for the best score, trying the most promising places first,
// and then for the first plan in the order of sockets that has it.
func (s *search) run() {
	if s.out || slices.ContainsFunc(s.choices, func(c choice) bool { return len(c.options) == 0 }) {
		return
	}
	bound, ok := s.lower(false)
	if !ok || !s.powered() {
		return
	}
	s.place(0, &bound)
	if !s.met || s.out || s.in.any {
		return
	}
	s.ordered, s.finished = true, false
	s.place(0, &bound)
	s.out = s.ctx.Err() != nil // the best is proved, even where the budget ended before the first of its equals
}

// powered is whether there are plugs for what the pieces draw from wherever they go.
func (s *search) powered() bool {
	var need fit.Draw
	for i := range s.choices {
		need = need.Plus(s.choices[i].draws)
	}
	met := need.Met(&rig.Rig{Sheet: s.in.Found.Sheet, Pieces: s.in.Pieces, Found: &s.in.Found.Setup})
	s.unsettled = s.unsettled || met == known.Unknown
	return met == known.Yes || met == known.Unknown && s.at == atBest
}

// judging is what a judged build costs, in steps: more on boards of many sockets
// and rules.
func (s *search) judging() int {
	return 20 + (len(s.in.Found.Sheet.Sockets)+len(s.in.Found.Sheet.Rules))/3
}

// spend takes steps from the budget and asks now and then whether the search is
// still wanted.
func (s *search) spend(steps int) {
	s.budget -= steps
	s.steps += steps
	if s.watched != nil {
		s.watched(steps)
	}
	if s.budget < 0 {
		s.out = true
	} else if s.steps > 1000 {
		s.steps = 0
		s.out = s.out || s.ctx.Err() != nil
	}
}

// place decides about the pieces from i on; bound is what no plan from here on stays
// below.
func (s *search) place(i int, bound *Score) {
	if s.spend(1); s.out || s.finished || s.hopeless(bound) {
		return
	}
	if i == len(s.choices) {
		s.leaf(bound)
		return
	}
	c := &s.choices[i]
	try := func(n branch) {
		o := &c.options[n.option]
		c.now, c.step = n.option, n.step
		s.mark(o, 1)
		if c.piece.Part.Card == nil && !brings(c.piece) || s.possible(i) {
			s.place(i+1, &n.bound)
		}
		s.mark(o, -1)
		c.now = -1
	}
	var branches []branch
	for step := range c.options {
		n := branch{step: step, option: step}
		if !s.ordered {
			n.option = c.byBound[step]
		}
		o := &c.options[n.option]
		if !s.open(i, step, o) {
			continue
		}
		c.now = n.option
		s.mark(o, 1)
		var ok bool
		n.bound, ok = s.lower(false)
		s.mark(o, -1)
		c.now = -1
		if s.spend(1); !ok || s.hopeless(&n.bound) {
			continue
		}
		if s.ordered {
			if try(n); s.out || s.finished {
				return
			}
			continue
		}
		branches = append(branches, n)
	}
	// The most promising first, or the first good plan is far from the best.
	slices.SortStableFunc(branches, func(a, b branch) int { return compare(s.order, &a.bound, &b.bound) })
	for _, n := range branches {
		if try(n); s.out || s.finished {
			return
		}
	}
}

// branch is one place a piece may take, and what a plan with it there comes to at best.
type branch struct {
	option, step int
	bound        Score
}

// mark keeps what is in use in step with a piece placed (by 1) or taken up (by -1).
func (s *search) mark(o *option, by int) {
	if o.seat > 0 {
		s.taken[o.seat] = by > 0
	}
	for _, j := range o.must {
		s.must[j] += by
	}
	if o.behind >= 0 {
		s.passing[o.behind] += int64(by) * whole(o.rate)
	}
}

// possible asks whether what lies so far, cards and what brings sockets, can lie
// together: slots that are covered and plugs that are short stop whatever follows.
func (s *search) possible(last int) bool {
	var placed []rig.Placement
	for i := range last + 1 {
		if o := &s.choices[i].options[s.choices[i].now]; !o.socket.IsZero() {
			if o.holder > last {
				return true // its own holder is still to come
			}
			placed = append(placed, rig.Placement{Item: s.choices[i].piece.ID, Socket: o.socket})
		}
	}
	if s.spend(s.judging()); s.out {
		return false
	}
	v := s.judge(placed, s.chosen, s.at)
	return !slices.ContainsFunc(placementOnly[:], func(rule int) bool { return s.at.spoke(&v, rule) > 0 })
}

const linkUnknown fit.Code = "link-unknown"

// Rules that the search asks about; placementOnly stop by what lies where, whatever is set.
var (
	placementOnly     = [...]int{fit.RuleOf("slot-covered"), fit.RuleOf("m2-cover"), fit.RuleOf("power-plugs")}
	deadRule          = fit.RuleOf("position-dead")
	openRule          = fit.RuleOf(linkUnknown)
	drawRule          = fit.RuleOf("slot-power")
	warmRule, hotRule = fit.RuleOf("m2-warm"), fit.RuleOf("m2-hot")
)

// open reports whether a place can be taken now: free, its holder there or still to
// come, and not before that of a twin.
func (s *search) open(i, step int, o *option) bool {
	c := &s.choices[i]
	if c.twin >= 0 && step <= s.choices[c.twin].step && (!o.socket.IsZero() || step < s.choices[c.twin].step) {
		return false
	}
	if !o.socket.IsZero() {
		if s.taken[o.seat] {
			return false
		}
		if o.holder >= 0 {
			if h := &s.choices[o.holder]; h.now >= 0 && h.options[h.now].socket != o.on {
				return false
			}
		}
	}
	for j := range i { // what lies already where this piece would bring sockets
		if k := &s.choices[j]; k.options[k.now].holder == i && k.options[k.now].on != o.socket {
			return false
		}
	}
	return true
}

// leaf judges a whole placement under every combination of the settings that can
// change what it comes to, as found first.
func (s *search) leaf(bound *Score) {
	s.placed = s.placed[:0]
	for i := range s.choices {
		c := &s.choices[i]
		if o := &c.options[c.now]; !o.socket.IsZero() {
			s.placed = append(s.placed, rig.Placement{Item: c.piece.ID, Socket: o.socket})
		}
	}
	for j := range s.half.settings {
		s.chosen[j].Value = s.asFound(j)
	}
	clear(s.decided)
	sets := s.asked(s.placed, s.half.io)
	for j := range s.decided {
		s.decided[j] = !slices.Contains(sets, j)
	}
	bound[Settings] = 0 // counted as they are decided
	s.settle(sets, *bound)
}

// works reports whether every placed piece works, for all it knows, under the
// settings decided so far.
func (s *search) works() bool {
	for i := range s.choices {
		o := &s.choices[i].options[s.choices[i].now]
		n, stride, all := 0, 1, true
		for _, j := range o.sets {
			value := slices.IndexFunc(s.half.settings[j].Options, func(x machine.Option) bool { return x.Value == s.chosen[j].Value })
			all = all && s.decided[j] && value >= 0
			n += stride * value
			stride *= len(s.half.settings[j].Options)
		}
		if all && o.sets != nil && o.works&(1<<n) == 0 {
			return false
		}
	}
	return true
}

// asFound is the value of a setting as it was found, "" where nobody knows it.
func (s *search) asFound(j int) string {
	if n := s.found[j]; n >= 0 {
		return s.half.settings[j].Options[n].Value
	}
	return ""
}

func (s *search) settle(sets []int, bound Score) {
	if s.out || s.finished || s.hopeless(&bound) || !s.works() {
		return
	}
	if len(sets) > 0 {
		j := sets[0]
		options := s.half.settings[j].Options
		if s.found[j] < 0 { // whatever it is set to now, it may stay
			s.chosen[j].Value, s.decided[j] = "", true
			s.settle(sets[1:], bound)
		}
		for n := range options {
			if !s.ordered { // as found first
				n = (n + max(0, s.found[j])) % len(options)
			}
			next := bound
			if n != s.found[j] {
				next[Settings]++
			}
			s.chosen[j].Value, s.decided[j] = options[n].Value, true
			s.settle(sets[1:], next)
		}
		s.chosen[j].Value, s.decided[j] = s.asFound(j), false
		return
	}
	s.judged++
	if s.spend(s.judging()); s.out {
		return
	}
	if s.not != nil && s.same(s.not) {
		return
	}
	got, ok := s.score(s.placed, s.chosen, s.at)
	if !ok || s.best != nil && compare(s.order, &got, s.best) > 0 || s.best != nil && !s.ordered && compare(s.order, &got, s.best) == 0 {
		return
	}
	s.best, s.met = &got, true
	s.lies, s.set = s.lies[:0], s.set[:0]
	for i := range s.choices {
		s.lies = append(s.lies, s.choices[i].now)
	}
	for j, set := range s.half.settings {
		s.set = append(s.set, slices.IndexFunc(set.Options, func(o machine.Option) bool { return o.Value == s.chosen[j].Value }))
	}
	s.finished = s.ordered || s.in.any || compare(s.order, &got, &s.rootBound) == 0
}

// plan is the best plan of this half.
func (s *search) plan() Plan {
	out := Plan{Score: *s.best}
	for i, n := range s.lies {
		if o := &s.choices[i].options[n]; !o.socket.IsZero() {
			out.Placements = append(out.Placements, rig.Placement{Item: s.choices[i].piece.ID, Socket: o.socket})
		}
	}
	for j, set := range s.half.settings {
		if n := s.set[j]; n >= 0 && set.Options[n].Value != set.Default {
			v := set.Options[n].Value
			out.Choices = append(out.Choices, rig.Choice{Setting: set.ID, Value: v})
		}
	}
	return out
}
