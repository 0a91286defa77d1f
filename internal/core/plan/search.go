package plan

// This file is the search: branch and bound over the places of pieces, then over
// the settings that matter for them.

import (
	"cmp"
	"context"
	"math"
	"slices"
	"strings"

	"deepbay/internal/core/build"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/memory"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
)

// option is one place a piece may take. A socket that a part brings is there only
// while that part, the piece numbered holder, is in the socket named before the
// last stroke of the path.
type option struct {
	socket machine.SocketID
	holder int // -1 for the board's own sockets
	single
	on     machine.SocketID // where the holder must be
	behind int              // the root whose uplink it passes, as the sheet numbers them; -1 for none
}

// choice is a piece while it is searched for: what it may do and what it does now.
type choice struct {
	piece   *build.Piece
	options []option // in the order of the sheet; the mat, "", is the last
	home    machine.SocketID
	twin    int // an earlier piece that nothing tells from this one, -1 if there is none
	best    Score
	system  bool
	rate    float64 // of a drive, at best anywhere
	surely  int     // the root behind whose uplink it will be wherever it goes, -1 for none
	now     int     // its option, -1 while it has none
	step    int     // and which of those tried this is
	byBound []int   // options, the most promising first
}

// most is how many options a search takes on: far above any real machine.
const most = 20_000

type search struct {
	*scorer
	ctx       context.Context
	order     []Criterion
	choices   []choice
	taken     map[machine.SocketID]int // by which piece
	found     []int                    // of each setting, the option as found
	rootBound Score
	budget    int  // steps left
	steps     int  // since the context was asked
	judged    int  // builds
	out       bool // of budget, or no longer wanted
	channels  int
	kin       [][]int   // pieces that go into the same sockets
	opens     []int     // scratch of wanting: sockets that one more setting opens
	must      []int     // of each setting, how many placed pieces need it changed
	passing   []float64 // of each root, what the drives behind its uplink would move alone
	uplinks   []float64 // what it carries; 0 where that is not stated

	best     *Score
	at       []int // options of the best plan
	set      []int // and its settings
	ordered  bool  // second pass: in the order of sockets, for the first plan as good as the best
	finished bool
	placed   []build.Placement
	chosen   []build.Choice
	alone    map[trial]single
	decided  []bool // settings
	// A rule may split a slot for what another socket holds: then a position that is
	// dead alone may live in a plan.
	splitElsewhere bool
	ratesFirst     bool // rates count more than settings
}

// trial names what alone was asked: a part in a socket, on these holders.
type trial struct {
	part   *part.Part
	socket machine.SocketID
	on     string  // the pieces that hold it
	ref    float64 // what a card is measured against
}

// single is what a piece comes to where it has the machine to itself.
type single struct {
	ok    bool
	rate  float64 // of a drive, through its uplinks
	bound Score
	sets  []int  // the settings that decide whether it works
	works uint64 // under which of their combinations it does, the first setting counting fastest
	must  []int  // of these, those that cannot stay as found
}

func newSearch(ctx context.Context, in *Input, h half, budget int) *search {
	s := &search{scorer: newScorer(in, h), ctx: ctx, order: in.Order, budget: budget, taken: map[machine.SocketID]int{}, alone: map[trial]single{}}
	for _, set := range h.settings {
		s.found = append(s.found, slices.IndexFunc(set.Options, func(o machine.Option) bool { return o.Value == in.Found.Choice(set) }))
		s.chosen = append(s.chosen, build.Choice{Setting: set.ID, Value: in.Found.Choice(set)})
	}
	var channels []machine.ChannelID
	for _, k := range in.Found.Sheet.Sockets {
		if k.Kind.Memory() && !slices.Contains(channels, k.Channel) {
			channels = append(channels, k.Channel)
		}
	}
	s.channels = len(channels)
	// Parts that bring sockets come first: what lies in those depends on them.
	pieces := inSearchOrder(h.pieces)
	s.must, s.decided, s.opens = make([]int, len(h.settings)), make([]bool, len(h.settings)), make([]int, len(h.settings))
	for _, r := range in.Found.Sheet.Roots {
		carries := 0.0
		if r.Uplink != nil {
			carries = r.Uplink.Link().Planning().MBps()
		}
		s.uplinks = append(s.uplinks, carries)
	}
	s.ratesFirst = slices.Index(in.Order, Rates) < slices.Index(in.Order, Settings)
	s.passing = make([]float64, len(s.uplinks))
	s.splitElsewhere = slices.ContainsFunc(in.Found.Sheet.Rules, func(r machine.Rule) bool {
		return slices.ContainsFunc(r.Then, func(e machine.Effect) bool { return len(e.Split) > 0 }) &&
			slices.ContainsFunc(r.When, func(c machine.Condition) bool { return c.Socket != "" })
	})
	s.choices = make([]choice, len(pieces))
	for i := range pieces {
		s.choices[i] = choice{piece: &pieces[i], home: in.home(pieces[i].ID), twin: -1, now: -1, system: s.systemDrive(pieces[i].ID)}
	}
	s.sockets()
	for i := range s.choices {
		s.limits(i)
	}
	s.twins()
	s.kinship()
	s.rootBound, _ = s.lower()
	return s
}

// brings reports a part that brings sockets.
func brings(p *build.Piece) bool { return len(p.Part.Positions()) > 0 }

// inSearchOrder puts cards that bring nothing first, for they cover slots, then
// what brings sockets, then the rest.
func inSearchOrder(pieces []build.Piece) []build.Piece {
	rank := func(p *build.Piece) int {
		switch {
		case brings(p):
			return 1
		case p.Part.Card != nil:
			return 0
		}
		return 2
	}
	out := slices.Clone(pieces)
	slices.SortStableFunc(out, func(a, b build.Piece) int { return rank(&a) - rank(&b) })
	return out
}

// sockets lists for every piece where it may go, those that other pieces bring
// included, to any depth.
func (s *search) sockets() {
	type place struct {
		socket *machine.Socket
		holder int
		chain  []build.Placement // what holds it
	}
	var places []place
	sheet := s.in.Found.Sheet
	for i := range sheet.Sockets {
		places = append(places, place{&sheet.Sockets[i], -1, nil})
	}
	total := 0
	for n := 0; n < len(places); n++ {
		at := places[n]
		for i := range s.choices {
			c := &s.choices[i]
			if !build.Suits(c.piece, at.socket) || slices.ContainsFunc(at.chain, func(p build.Placement) bool { return p.Item == c.piece.ID }) || !s.allowed(c, at.socket.ID) {
				continue
			}
			one := s.try(c, at.socket, at.chain)
			if s.out {
				return
			}
			if !one.ok {
				continue
			}
			if total++; total > most {
				s.out = true
				return
			}
			if at.socket.ID != c.home && s.inside(at.socket.ID) {
				one.bound[Opened] = 1
			}
			c.add(option{socket: at.socket.ID, holder: at.holder, on: build.Holder(at.socket.ID), single: one, behind: s.rootOf(at.socket)})
			if brings(c.piece) {
				chain := append(slices.Clone(at.chain), build.Placement{Item: c.piece.ID, Socket: at.socket.ID})
				b := s.build(chain, s.chosen)
				for _, k := range b.Carried() {
					if build.Holder(k.ID) == at.socket.ID {
						places = append(places, place{&k, i, chain})
					}
				}
			}
		}
	}
	for i := range s.choices {
		c := &s.choices[i]
		slices.SortStableFunc(c.options, func(a, b option) int {
			return cmp.Or(s.comesBefore(a.socket, b.socket), cmp.Compare(a.holder, b.holder))
		})
		if s.mayLeave(c) {
			out := option{holder: -1, behind: -1}
			if c.home != "" {
				if c.piece.Part.Drive != nil {
					out.bound[Data] = 1
				} else {
					out.bound[InUse] = 1
				}
			}
			c.options = append(c.options, out)
		}
	}
}

// add lists an option once; met again on other holders, it is as good as the better.
func (c *choice) add(o option) {
	i := slices.IndexFunc(c.options, func(p option) bool { return p.socket == o.socket && p.holder == o.holder })
	if i < 0 {
		c.options = append(c.options, o)
		return
	}
	p := &c.options[i]
	p.rate = max(p.rate, o.rate)
	p.bound = least(p.bound, o.bound)
	p.sets, p.must, p.works = nil, nil, 1 // which settings it asks for depends on what holds it
}

// rootOf is the number of the root behind whose uplink a socket lies, -1 for none.
func (s *search) rootOf(k *machine.Socket) int {
	root := s.in.Found.Sheet.RootOf(k)
	return slices.IndexFunc(s.in.Found.Sheet.Roots, func(r machine.Root) bool { return root != nil && r.ID == root.ID && r.Uplink != nil })
}

// least is the better of two scores by every criterion.
func least(a, b Score) Score {
	for i := range a {
		a[i] = min(a[i], b[i])
	}
	return a
}

// comesBefore orders sockets as the sheet lists them, and the positions of what is
// in one behind it.
func (s *scorer) comesBefore(a, b machine.SocketID) int {
	topA, restA, _ := strings.Cut(string(a), "/")
	topB, restB, _ := strings.Cut(string(b), "/")
	index := func(top string) int {
		return slices.IndexFunc(s.in.Found.Sheet.Sockets, func(k machine.Socket) bool { return string(k.ID) == top })
	}
	return cmp.Or(cmp.Compare(index(topA), index(topB)), cmp.Compare(len(restA), len(restB)), cmp.Compare(restA, restB))
}

// allowed applies pins, bans and the role to a socket.
func (s *search) allowed(c *choice, id machine.SocketID) bool {
	for _, p := range s.in.Pins {
		if p.Item == c.piece.ID && p.Socket != id && !s.in.without[want{wantPin, c.piece.ID, ""}] {
			return false
		}
	}
	for _, p := range s.in.Bans {
		if p.Socket == id && (p.Item == c.piece.ID || p.Item == "") && !s.in.without[want{wantBan, p.Item, id}] {
			return false
		}
	}
	return s.in.role(c.piece) != Stay || c.home == id || s.in.without[want{wantStay, c.piece.ID, ""}]
}

func (s *search) mayLeave(c *choice) bool {
	id := c.piece.ID
	if s.in.without[want{wantIn, id, ""}] {
		return true
	}
	if slices.ContainsFunc(s.in.Pins, func(p build.Placement) bool { return p.Item == id && !s.in.without[want{wantPin, id, ""}] }) {
		return false
	}
	return s.in.role(c.piece) == Leave
}

// try asks what a piece comes to alone, under the settings that suit it best. What
// stops it there stops it in every plan: rules and other parts only take away.
// Only a split of a slot may give, so a position that is not served is let pass.
func (s *search) try(c *choice, k *machine.Socket, chain []build.Placement) single {
	name := trial{part: c.piece.Part, ref: s.refs[c.piece.ID], socket: k.ID}
	for _, p := range chain {
		name.on += "\x00" + string(p.Item)
	}
	if got, ok := s.alone[name]; ok {
		return got
	}
	var best single
	placed := append(slices.Clone(chain), build.Placement{Item: c.piece.ID, Socket: k.ID})
	sets := s.asked(placed, false)
	combinations := 1
	for _, j := range sets {
		combinations *= len(s.half.settings[j].Options)
	}
	choices := slices.Clone(s.chosen)
	var works uint64
	asFound := make([]bool, len(sets)) // it works with this setting as found
	for n := range min(combinations, 64) {
		digits := n
		for _, j := range sets {
			o := s.half.settings[j].Options
			choices[j].Value = o[digits%len(o)].Value
			digits /= len(o)
		}
		if s.spend(judging); s.out {
			return single{}
		}
		b := s.build(placed, choices)
		got := s.read(build.Judge(&b), c.piece, k.ID)
		if got.ok {
			works |= 1 << n
			for i, j := range sets {
				asFound[i] = asFound[i] || choices[j].Value == s.chosen[j].Value
			}
		}
		switch {
		case !got.ok:
		case !best.ok:
			best = got
		default:
			best.rate, best.bound = max(best.rate, got.rate), least(best.bound, got.bound)
		}
	}
	if combinations > 64 { // too many to try: anything may be
		best = s.anything(c.piece)
	} else if best.ok {
		best.sets, best.works = sets, works
		for i, j := range sets {
			if !asFound[i] {
				best.must = append(best.must, j)
			}
		}
	}
	s.alone[name] = best
	return best
}

// anything is the bound of a piece of which nothing is known but its own label.
func (s *search) anything(p *build.Piece) single {
	out := single{ok: true}
	if d := p.Part.Drive; d != nil {
		out.rate = max(d.Link().Planning().MBps(), 600)
		if d.ReadMBps > 0 {
			out.rate = min(out.rate, d.ReadMBps)
		}
		out.bound[Rates] = -whole(out.rate)
	}
	return out
}

// read takes the piece's own part out of a verdict.
func (s *search) read(v build.Verdict, p *build.Piece, at machine.SocketID) single {
	i := slices.IndexFunc(v.Sockets, func(o build.Outcome) bool { return o.Socket == at })
	o := &v.Sockets[i]
	if v.Count("position-dead") > 0 && s.splitElsewhere {
		return s.anything(p)
	}
	if o.State != build.Live {
		return single{}
	}
	out := single{ok: true}
	for _, f := range v.Flows {
		if f.Item == p.ID && !f.AtMost {
			out.rate = f.Alone
			out.bound[Rates] = -whole(f.Alone)
		}
	}
	if ref := s.refs[p.ID]; ref > 0 {
		got := 0.0
		if o.Link != nil {
			got = o.Link.MBps
		}
		out.bound[Graphics] = whole(max(0, ref-got))
	}
	if p.Part.Drive != nil {
		out.bound[Cooling] = int64(v.Count("m2-warm") + 2*v.Count("m2-hot"))
	}
	return out
}

// asked lists the settings that can change what the parts placed come to: those
// that a rule with an effect on their sockets, or on memory, asks about; and, where
// ports count, those of rules that switch sockets off.
func (s *search) asked(placed []build.Placement, ports bool) []int {
	var out []int
	for j, set := range s.half.settings {
		if slices.ContainsFunc(s.in.Found.Sheet.Rules, func(r machine.Rule) bool {
			return slices.ContainsFunc(r.When, func(c machine.Condition) bool { return c.Setting == set.ID }) &&
				slices.ContainsFunc(r.Then, func(e machine.Effect) bool {
					return e.Profile || e.Off && ports || slices.ContainsFunc(placed, func(p build.Placement) bool { return p.Socket == e.Socket })
				})
		}) {
			out = append(out, j)
		}
	}
	return out
}

// limits works out the best a piece can come to, and in which order to try.
func (s *search) limits(i int) {
	c := &s.choices[i]
	for n := range c.options {
		o := &c.options[n]
		c.byBound = append(c.byBound, n)
		if c.rate = max(c.rate, o.rate); n == 0 {
			c.best, c.surely = o.bound, o.behind
		}
		if o.behind != c.surely {
			c.surely = -1
		}
		c.best = least(c.best, o.bound)
	}
	slices.SortStableFunc(c.byBound, func(a, b int) int {
		x, y := &c.options[a], &c.options[b]
		return cmp.Or(compare(s.order, &x.bound, &y.bound), cmp.Compare(len(x.must), len(y.must)), cmp.Compare(x.holder, y.holder))
	})
}

// twins finds pieces that nothing tells apart: of these the earlier lies in the
// earlier socket, for exchanged they make the same plan.
func (s *search) twins() {
	for i := range s.choices {
		a := &s.choices[i]
		for j := i - 1; j >= 0 && a.twin < 0; j-- {
			b := &s.choices[j]
			if a.home == "" && b.home == "" && a.piece.New == b.piece.New && samePart(a.piece.Part, b.piece.Part) && sameOptions(a, b) {
				a.twin = j
			}
		}
	}
}

func samePart(a, b *part.Part) bool { return a == b || a.ID == b.ID && a.ID != "" }

// kin groups pieces that go into the same sockets: together they need as many.
func (s *search) kinship() {
	for i := range s.choices {
		c := &s.choices[i]
		if len(c.options) > 0 && c.options[len(c.options)-1].socket == "" {
			continue // it may also lie on the mat
		}
		g := slices.IndexFunc(s.kin, func(k []int) bool { return sameOptions(&s.choices[k[0]], c) })
		if g < 0 {
			s.kin = append(s.kin, nil)
			g = len(s.kin) - 1
		}
		s.kin[g] = append(s.kin[g], i)
	}
	s.kin = slices.DeleteFunc(s.kin, func(k []int) bool { return len(k) < 2 })
}

// wanting counts, for pieces that need the same sockets, the further settings that
// must change so that there are enough of them; false when there never are.
func (s *search) wanting(kin []int) (int64, bool) {
	need := 0
	for _, i := range kin {
		if s.choices[i].now < 0 {
			need++
		}
	}
	if need == 0 {
		return 0, true
	}
	open, closed, costly := 0, 0, 0
	clear(s.opens)
	var last machine.SocketID
	for n := range s.choices[kin[0]].options {
		o := &s.choices[kin[0]].options[n]
		if _, taken := s.taken[o.socket]; taken || o.socket == last {
			continue
		}
		if o.holder >= 0 {
			if h := &s.choices[o.holder]; h.now >= 0 && h.options[h.now].socket != o.on {
				continue
			}
		}
		last = o.socket
		if s.overloads(kin, n) {
			costly++
			continue
		}
		unmet := false
		for _, j := range o.must {
			if s.must[j] == 0 {
				s.opens[j]++
				unmet = true
			}
		}
		if unmet {
			closed++
		} else {
			open++
		}
	}
	switch {
	case need <= open:
		return 0, true
	case need > open+closed+costly:
		return 0, false
	case need > open+closed:
		return 0, true
	}
	most := slices.Max(s.opens)
	return int64((need - open + most - 1) / most), true
}

// overloads reports that any of these pieces in their n-th place would be held back
// by the uplink there: worse by the rates, which count more than settings. Who asks
// how many settings a good plan needs leaves such places out.
func (s *search) overloads(kin []int, n int) bool {
	r := s.choices[kin[0]].options[n].behind
	if r < 0 || s.uplinks[r] == 0 || !s.ratesFirst {
		return false
	}
	least := math.Inf(1)
	for _, i := range kin {
		if c := &s.choices[i]; c.now < 0 {
			least = min(least, c.options[n].rate)
		}
	}
	before := s.load(r)
	return whole(max(0, before+least-s.uplinks[r])) > whole(max(0, before-s.uplinks[r]))
}

// load is what passes an uplink so far, with all that will pass it wherever it goes.
func (s *search) load(r int) float64 {
	sum := s.passing[r]
	for i := range s.choices {
		if c := &s.choices[i]; c.now < 0 && c.surely == r {
			sum += c.rate
		}
	}
	return sum
}

func sameOptions(a, b *choice) bool {
	return slices.EqualFunc(a.options, b.options, func(x, y option) bool { return x.socket == y.socket && x.holder == y.holder })
}

// lower is what no plan that goes on from here stays below; false when none does.
func (s *search) lower() (Score, bool) {
	var out Score
	system := 0.0
	for i := range s.choices {
		c := &s.choices[i]
		bound, rate := &c.best, c.rate
		if c.now >= 0 {
			bound, rate = &c.options[c.now].bound, c.options[c.now].rate
		}
		out = out.plus(*bound)
		if c.system {
			system = max(system, rate)
		}
	}
	out[System] = -whole(system)
	for r := range s.passing { // together they move no more than the uplink carries
		if over := s.load(r) - s.uplinks[r]; s.uplinks[r] > 0 && over > 0 {
			out[Rates] += whole(over)
		}
	}
	for _, n := range s.must {
		out[Settings] += int64(min(1, n))
	}
	more := int64(0)
	for _, kin := range s.kin {
		n, enough := s.wanting(kin)
		if !enough {
			return out, false
		}
		more = max(more, n)
	}
	out[Settings] += more
	if s.half.memory {
		out[Memory] = -4 * whole(s.peak())
	}
	return out, true
}

// peak is the most that memory can come to: every channel filled that can be, at
// the rate of the slowest module that is surely in.
func (s *search) peak() float64 {
	slowest, count := quantity.MTps(0), 0
	for i := range s.choices {
		c := &s.choices[i]
		m := c.piece.Part.Module
		if m == nil || c.now >= 0 && c.options[c.now].socket == "" {
			continue
		}
		count++
		surely := c.now >= 0 || len(c.options) > 0 && c.options[len(c.options)-1].socket != ""
		rate := max(m.RateMTps, m.ProfileMTps)
		if surely && rate.Known() && (slowest == 0 || rate < slowest) {
			slowest = rate
		}
	}
	if slowest == 0 {
		for i := range s.choices {
			if m := s.choices[i].piece.Part.Module; m != nil {
				slowest = max(slowest, m.RateMTps, m.ProfileMTps)
			}
		}
	}
	return memory.Effective([]memory.Region{{Bytes: quantity.GiB, Ways: min(count, s.channels)}}, slowest).MBps()
}

// run searches twice: for the best score, trying the most promising places first,
// and then for the first plan in the order of sockets that has it.
func (s *search) run() {
	if s.out || slices.ContainsFunc(s.choices, func(c choice) bool { return len(c.options) == 0 }) {
		return
	}
	bound, ok := s.lower()
	if !ok {
		return
	}
	s.place(0, &bound)
	if s.best == nil || s.out {
		return
	}
	s.ordered, s.finished = true, false
	s.place(0, &bound)
}

// judging is what a judged build costs, in steps.
const judging = 20

// spend takes steps from the budget and asks now and then whether the search is
// still wanted.
func (s *search) spend(steps int) {
	s.budget -= steps
	s.steps += steps
	if s.budget < 0 {
		s.out = true
	} else if s.steps > 1000 {
		s.steps = 0
		s.out = s.out || s.ctx.Err() != nil
	}
}

// hopeless reports that nothing from here on is worth the way.
func (s *search) hopeless(bound *Score) bool {
	if s.best == nil {
		return false
	}
	c := compare(s.order, bound, s.best)
	return c > 0 || c == 0 && !s.ordered
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
		s.mark(i, o, 1)
		if c.piece.Part.Card == nil && !brings(c.piece) || s.possible(i) {
			s.place(i+1, &n.bound)
		}
		s.mark(i, o, -1)
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
		s.mark(i, o, 1)
		var ok bool
		n.bound, ok = s.lower()
		s.mark(i, o, -1)
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
func (s *search) mark(i int, o *option, by int) {
	switch {
	case o.socket == "":
	case by > 0:
		s.taken[o.socket] = i
	default:
		delete(s.taken, o.socket)
	}
	for _, j := range o.must {
		s.must[j] += by
	}
	if o.behind >= 0 {
		s.passing[o.behind] += float64(by) * o.rate
	}
}

// possible asks whether what lies so far, cards and what brings sockets, can lie
// together: slots that are covered and plugs that are short stop whatever follows.
func (s *search) possible(last int) bool {
	var placed []build.Placement
	for i := range last + 1 {
		if o := &s.choices[i].options[s.choices[i].now]; o.socket != "" {
			if o.holder > last {
				return true // its own holder is still to come
			}
			placed = append(placed, build.Placement{Item: s.choices[i].piece.ID, Socket: o.socket})
		}
	}
	if s.spend(judging); s.out {
		return false
	}
	b := s.build(placed, s.chosen)
	v := build.Judge(&b)
	return !slices.ContainsFunc(placementOnly, func(c build.Code) bool { return v.Count(c) > 0 })
}

// placementOnly are the rules that stop by what lies where, whatever is set.
var placementOnly = []build.Code{"slot-covered", "m2-cover", "power-plugs"}

// open reports whether a place can be taken now: free, its holder there or still to
// come, and not before that of a twin.
func (s *search) open(i, step int, o *option) bool {
	c := &s.choices[i]
	if c.twin >= 0 && step <= s.choices[c.twin].step && (o.socket != "" || step < s.choices[c.twin].step) {
		return false
	}
	if o.socket == "" {
		return true
	}
	if _, taken := s.taken[o.socket]; taken {
		return false
	}
	if o.holder >= 0 {
		if h := &s.choices[o.holder]; h.now >= 0 && h.options[h.now].socket != o.on {
			return false
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
		if o := &c.options[c.now]; o.socket != "" {
			s.placed = append(s.placed, build.Placement{Item: c.piece.ID, Socket: o.socket})
		}
	}
	for j, set := range s.half.settings {
		s.chosen[j].Value = set.Options[s.found[j]].Value
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
			all = all && s.decided[j]
			n += stride * slices.IndexFunc(s.half.settings[j].Options, func(x machine.Option) bool { return x.Value == s.chosen[j].Value })
			stride *= len(s.half.settings[j].Options)
		}
		if all && o.sets != nil && o.works&(1<<n) == 0 {
			return false
		}
	}
	return true
}

func (s *search) settle(sets []int, bound Score) {
	if s.out || s.finished || s.hopeless(&bound) || !s.works() {
		return
	}
	if len(sets) > 0 {
		j := sets[0]
		options := s.half.settings[j].Options
		for n := range options {
			if !s.ordered { // as found first
				n = (n + s.found[j]) % len(options)
			}
			next := bound
			if n != s.found[j] {
				next[Settings]++
			}
			s.chosen[j].Value, s.decided[j] = options[n].Value, true
			s.settle(sets[1:], next)
		}
		s.chosen[j].Value, s.decided[j] = options[s.found[j]].Value, false
		return
	}
	s.judged++
	if s.spend(judging); s.out {
		return
	}
	got, ok := s.score(s.placed, s.chosen)
	if !ok || s.best != nil && compare(s.order, &got, s.best) > 0 || s.best != nil && !s.ordered && compare(s.order, &got, s.best) == 0 {
		return
	}
	s.best = &got
	s.at, s.set = s.at[:0], s.set[:0]
	for i := range s.choices {
		s.at = append(s.at, s.choices[i].now)
	}
	for j, set := range s.half.settings {
		s.set = append(s.set, slices.IndexFunc(set.Options, func(o machine.Option) bool { return o.Value == s.chosen[j].Value }))
	}
	s.finished = s.ordered || compare(s.order, &got, &s.rootBound) == 0
}

// plan is the best plan of this half.
func (s *search) plan() Plan {
	out := Plan{Score: *s.best}
	for i, n := range s.at {
		if o := &s.choices[i].options[n]; o.socket != "" {
			out.Placements = append(out.Placements, build.Placement{Item: s.choices[i].piece.ID, Socket: o.socket})
		}
	}
	for j, set := range s.half.settings {
		if v := set.Options[s.set[j]].Value; v != set.Default {
			out.Choices = append(out.Choices, build.Choice{Setting: set.ID, Value: v})
		}
	}
	return out
}
