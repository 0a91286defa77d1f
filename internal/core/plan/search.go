package plan

// This file is the search: branch and bound over the places of pieces, then over
// the settings that matter for them.

import (
	"cmp"
	"context"
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
	bound  Score
	rate   float64 // of a system drive at best
}

// choice is a piece while it is searched for: what it may do and what it does now.
type choice struct {
	piece   *build.Piece
	options []option // in the order of the sheet; the mat, "", is the last
	home    machine.SocketID
	twin    int // an earlier piece that nothing tells from this one, -1 if there is none
	best    Score
	system  bool
	rate    float64 // of a system drive, at best anywhere
	now     int     // its option, -1 while it has none
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
	budget    int
	judged    int
	out       bool // of budget
	steps     int

	best     *Score
	at       []int // options of the best plan
	set      []int // and its settings
	ordered  bool  // second pass: in the order of sockets, for the first plan as good as the best
	finished bool
	placed   []build.Placement
	chosen   []build.Choice
	alone    map[trial]single
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
}

func newSearch(ctx context.Context, in *Input, h half, budget int) *search {
	s := &search{scorer: newScorer(in, h), ctx: ctx, order: in.Order, budget: budget, taken: map[machine.SocketID]int{}, alone: map[trial]single{}}
	for _, set := range h.settings {
		s.found = append(s.found, slices.IndexFunc(set.Options, func(o machine.Option) bool { return o.Value == in.Found.Choice(set) }))
		s.chosen = append(s.chosen, build.Choice{Setting: set.ID, Value: in.Found.Choice(set)})
	}
	// Parts that bring sockets come first: what lies in those depends on them.
	pieces := slices.Clone(h.pieces)
	slices.SortStableFunc(pieces, func(a, b build.Piece) int { return brings(&b) - brings(&a) })
	s.choices = make([]choice, len(pieces))
	for i := range pieces {
		s.choices[i] = choice{piece: &pieces[i], home: in.home(pieces[i].ID), twin: -1, now: -1, system: s.systemDrive(pieces[i].ID)}
	}
	s.sockets()
	for i := range s.choices {
		s.limits(i)
	}
	s.twins()
	s.rootBound = s.lower()
	return s
}

// brings is 1 for a part that brings sockets, else 0.
func brings(p *build.Piece) int { return min(1, len(p.Part.Positions())) }

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
			c.add(option{socket: at.socket.ID, holder: at.holder, bound: one.bound, rate: one.rate})
			if len(c.piece.Part.Positions()) > 0 {
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
			out := option{holder: -1}
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
	for n := range min(combinations, 64) {
		for _, j := range sets {
			o := s.half.settings[j].Options
			choices[j].Value = o[n%len(o)].Value
			n /= len(o)
		}
		b := s.build(placed, choices)
		got := s.read(build.Judge(&b), c.piece, k.ID)
		switch {
		case !got.ok:
		case !best.ok:
			best = got
		default:
			best = single{true, max(best.rate, got.rate), least(best.bound, got.bound)}
		}
	}
	if combinations > 64 && !best.ok { // too many to try: anything may be
		best = s.anything(c.piece)
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
	if v.Count("position-dead") > 0 {
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
			c.best = o.bound
		}
		c.best = least(c.best, o.bound)
	}
	slices.SortStableFunc(c.byBound, func(a, b int) int {
		return compare(s.order, &c.options[a].bound, &c.options[b].bound)
	})
}

// twins finds pieces that nothing tells apart: of these the earlier lies in the
// earlier socket, for exchanged they make the same plan.
func (s *search) twins() {
	for i := range s.choices {
		a := &s.choices[i]
		for j := i - 1; j >= 0 && a.twin < 0; j-- {
			b := &s.choices[j]
			if a.home == "" && b.home == "" && a.piece.New == b.piece.New && samePart(a.piece.Part, b.piece.Part) && len(a.piece.Part.Positions()) == 0 && sameOptions(a, b) {
				a.twin = j
			}
		}
	}
}

func samePart(a, b *part.Part) bool { return a == b || a.ID == b.ID && a.ID != "" }

func sameOptions(a, b *choice) bool {
	return slices.EqualFunc(a.options, b.options, func(x, y option) bool { return x.socket == y.socket && x.holder == y.holder })
}

// lower is what no plan that goes on from here stays below.
func (s *search) lower() Score {
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
	if s.half.memory {
		out[Memory] = -4 * whole(s.peak())
	}
	return out
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
	var channels []machine.ChannelID
	for _, k := range s.in.Found.Sheet.Sockets {
		if k.Kind.Memory() && !slices.Contains(channels, k.Channel) {
			channels = append(channels, k.Channel)
		}
	}
	return memory.Effective([]memory.Region{{Bytes: quantity.GiB, Ways: min(count, len(channels))}}, slowest).MBps()
}

// run searches twice: for the best score, trying the most promising places first,
// and then for the first plan in the order of sockets that has it.
func (s *search) run() {
	if s.out || slices.ContainsFunc(s.choices, func(c choice) bool { return len(c.options) == 0 }) {
		return
	}
	s.place(0)
	if s.best == nil || s.out {
		return
	}
	s.ordered, s.finished = true, false
	s.place(0)
}

// hopeless reports that nothing from here on is worth the way.
func (s *search) hopeless(bound *Score) bool {
	if s.best == nil {
		return false
	}
	c := compare(s.order, bound, s.best)
	return c > 0 || c == 0 && !s.ordered
}

func (s *search) place(i int) {
	if s.steps++; s.steps%256 == 0 && s.ctx.Err() != nil {
		s.out = true
	}
	if s.out || s.finished {
		return
	}
	bound := s.lower()
	if s.hopeless(&bound) {
		return
	}
	if i == len(s.choices) {
		s.leaf(&bound)
		return
	}
	c := &s.choices[i]
	for n := range c.options {
		if !s.ordered {
			n = c.byBound[n]
		}
		o := &c.options[n]
		if !s.open(i, n, o) {
			continue
		}
		c.now = n
		if o.socket != "" {
			s.taken[o.socket] = i
		}
		s.place(i + 1)
		c.now = -1
		delete(s.taken, o.socket)
		if s.out || s.finished {
			return
		}
	}
}

// open reports whether a place can be taken now: free, its holder there or still to
// come, and not before that of a twin.
func (s *search) open(i, n int, o *option) bool {
	c := &s.choices[i]
	if c.twin >= 0 && n <= s.choices[c.twin].now && (o.socket != "" || n < s.choices[c.twin].now) {
		return false
	}
	if o.socket == "" {
		return true
	}
	if _, taken := s.taken[o.socket]; taken {
		return false
	}
	if o.holder >= 0 {
		if h := &s.choices[o.holder]; h.now >= 0 && h.options[h.now].socket != build.Holder(o.socket) {
			return false
		}
	}
	for j := range i { // what lies already where this piece would bring sockets
		if k := &s.choices[j]; k.options[k.now].holder == i && build.Holder(k.options[k.now].socket) != o.socket {
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
	s.settle(s.asked(s.placed, s.half.io), *bound)
}

func (s *search) settle(sets []int, bound Score) {
	if s.out || s.finished || s.hopeless(&bound) {
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
			s.chosen[j].Value = options[n].Value
			s.settle(sets[1:], next)
		}
		s.chosen[j].Value = options[s.found[j]].Value
		return
	}
	if s.judged++; s.judged > s.budget {
		s.out = true
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
