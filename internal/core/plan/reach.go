package plan

// This file lists where each piece may go, and what it comes to there at best.

import (
	"cmp"
	"slices"

	"deepbay/internal/core/fit"
	"deepbay/internal/core/known"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// option is one place a piece may take. A socket that a part brings is there only
// while that part, the piece numbered holder, is in the socket named before the
// last stroke of the path.
type option struct {
	socket rig.Path
	seat   int // its number in search.seats; 0 for the mat
	holder int // -1 for the board's own sockets
	single
	on     rig.Path // where the holder must be
	behind int      // the root whose uplink it passes, as the sheet numbers them; -1 for none
	reach  places   // what hands must reach for it at least
}

// most is how many options a search takes on: far above any real machine.
const most = 20_000

// tooMany combinations of settings are not tried; the others fit into a word of bits.
const tooMany = 65

// trial names what alone was asked: a part in a socket, on these holders.
type trial struct {
	part   *part.Part
	home   rig.Path      // where it was found: that proves things, and it may lie in a bay already
	bay    machine.BayID // in which it was told to lie
	socket rig.Path
	on     string                     // the parts that hold it
	ref    known.Range[quantity.Rate] // what a card is measured against
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

// brings reports a part that brings sockets.
func brings(p *rig.Piece) bool { return len(p.Part.Positions()) > 0 }

// inSearchOrder puts cards that bring nothing first, for they cover slots, then
// what brings sockets, then the rest.
func inSearchOrder(pieces []rig.Piece) []rig.Piece {
	rank := func(p *rig.Piece) int {
		switch {
		case brings(p):
			return 1
		case p.Part.Card != nil:
			return 0
		}
		return 2
	}
	out := slices.Clone(pieces)
	slices.SortStableFunc(out, func(a, b rig.Piece) int { return rank(&a) - rank(&b) })
	return out
}

// sockets lists for every piece where it may go, those that other pieces bring
// included, to any depth.
func (s *search) sockets() {
	type place struct {
		socket *rig.Place
		seat   int
		holder int
		chain  []rig.Placement // what holds it
	}
	var places []place
	sheet := s.in.Found.Sheet
	for i := range sheet.Sockets {
		places = append(places, place{&rig.Place{Path: rig.On(sheet.Sockets[i].ID), Socket: sheet.Sockets[i]}, s.seat(rig.On(sheet.Sockets[i].ID)), -1, nil})
	}
	total := 0
	for n := 0; n < len(places); n++ {
		at := places[n]
		for i := range s.choices {
			c := &s.choices[i]
			if !rig.Suits(c.piece.Part, &at.socket.Socket) || slices.ContainsFunc(at.chain, func(p rig.Placement) bool { return p.Item == c.piece.ID }) || !s.allowed(c, at.socket.Path) {
				continue
			}
			reach, ok := s.reaches(c, at.socket)
			if !ok {
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
			if at.socket.Path != c.home && s.in.Found.Inside(at.socket.Path) {
				one.bound[Opened] = 1
			}
			if s.risks(c.piece, c.home, at.socket.Path) {
				one.bound[Data] = 1
			}
			one.bound[Cost] = int64(s.in.Prices[c.piece.ID])
			draws := fit.DrawOf(&s.in.Found, c.piece.Part, at.socket)
			if len(c.options) > 0 {
				draws = draws.Least(c.draws)
			}
			c.draws = draws
			c.add(option{socket: at.socket.Path, seat: at.seat, holder: at.holder, on: at.socket.Path.Holder(), single: one, behind: s.rootOf(&at.socket.Socket), reach: reach})
			if brings(c.piece) {
				chain := append(slices.Clone(at.chain), rig.Placement{Item: c.piece.ID, Socket: at.socket.Path})
				b := s.in.rig(chain, s.chosen)
				for _, k := range b.Carried() {
					if k.Path.Holder() == at.socket.Path {
						places = append(places, place{&k, s.seat(k.Path), i, chain})
					}
				}
			}
		}
	}
	rank := s.ranked()
	for i := range s.choices {
		c := &s.choices[i]
		slices.SortStableFunc(c.options, func(a, b option) int {
			return cmp.Or(cmp.Compare(rank[a.seat], rank[b.seat]), cmp.Compare(a.holder, b.holder))
		})
		if reach, ok := s.reaches(c, nil); ok && s.mayLeave(c) {
			out := option{holder: -1, behind: -1, reach: reach}
			if !c.home.IsZero() {
				if s.risks(c.piece, c.home, rig.Path{}) {
					out.bound[Data] = 1
				} else {
					out.bound[InUse] = 1
				}
			}
			c.options, c.draws = append(c.options, out), fit.Draw{}
		}
	}
}

// reaches is what hands must reach for a piece to go to a socket, nil for the mat; false where that
// cannot be reached, or is not to be.
func (s *search) reaches(c *choice, to *rig.Place) (places, bool) {
	if s.cover == nil {
		return places{}, true
	}
	p, ok := s.cover.surely(c.piece, to)
	return p, ok && (s.half.within == nil || p.within(*s.half.within))
}

// seat is the number of a place, the same for the same place; 0 is the mat. Places are
// compared and marked by their numbers, which is much cheaper than by their paths.
func (s *search) seat(at rig.Path) int {
	if at.IsZero() {
		return 0
	}
	n, known := s.seats[at]
	if !known {
		n = len(s.seats) + 1
		s.seats[at] = n
	}
	return n
}

// ranked is the order of the seats: that of the sheet's sockets.
func (s *search) ranked() []int {
	paths := make([]rig.Path, len(s.seats)+1)
	for at, n := range s.seats {
		paths[n] = at
	}
	order := make([]int, 0, len(s.seats))
	for n := 1; n < len(paths); n++ {
		order = append(order, n)
	}
	slices.SortStableFunc(order, func(a, b int) int { return s.in.Found.Compare(paths[a], paths[b]) })
	rank := make([]int, len(paths))
	for i, n := range order {
		rank[n] = i
	}
	return rank
}

// add lists an option once; met again on other holders, it is as good as the better.
func (c *choice) add(o option) {
	i := slices.IndexFunc(c.options, func(p option) bool { return p.seat == o.seat && p.holder == o.holder })
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

// allowed applies pins, bans and the role to a socket.
func (s *search) allowed(c *choice, id rig.Path) bool {
	for _, p := range s.in.Pins {
		if p.Item == c.piece.ID && p.Socket != id && !s.in.without[want{kind: wantPin, item: c.piece.ID}] {
			return false
		}
	}
	if c.home != id && (s.in.tried(c.piece.ID, id) || s.in.tried(c.piece.ID, c.home)) {
		return false
	}
	for _, p := range s.in.Bans {
		if p.Socket == id && (p.Item == c.piece.ID || p.Item == "") && !s.in.without[want{wantBan, p.Item, id}] {
			return false
		}
	}
	if c.home != id && !id.Nested() && slices.Contains(s.in.Ports, id.Top()) && !s.in.without[want{kind: wantPort, socket: id}] {
		return false
	}
	return s.in.role(c.piece) != Stay || c.home == id || s.in.without[want{kind: wantStay, item: c.piece.ID}]
}

func (s *search) mayLeave(c *choice) bool {
	id := c.piece.ID
	if s.in.tried(id, c.home) {
		return false
	}
	if s.in.without[want{kind: wantIn, item: id}] {
		return true
	}
	if slices.ContainsFunc(s.in.Pins, func(p rig.Placement) bool { return p.Item == id && !s.in.without[want{kind: wantPin, item: id}] }) {
		return false
	}
	return s.in.role(c.piece) == Leave
}

// try asks what a piece comes to alone, under the settings that suit it best. What
// stops it there stops it in every plan: rules and other parts only take away.
// Only a split of a slot may give: a position that another socket's part may bring to
// life is let pass.
func (s *search) try(c *choice, k *rig.Place, chain []rig.Placement) single {
	name := trial{part: c.piece.Part, home: c.home, bay: s.in.told(c.piece.ID), ref: s.refs[c.piece.ID], socket: k.Path}
	for _, p := range chain {
		name.on += "\x00" + string(s.in.piece(p.Item).Part.ID)
	}
	if got, ok := s.alone[name]; ok {
		return got
	}
	var best single
	placed := append(slices.Clone(chain), rig.Placement{Item: c.piece.ID, Socket: k.Path})
	sets := s.asked(placed, false)
	combinations := 1
	for _, j := range sets {
		combinations = min(combinations*len(s.half.settings[j].Options), tooMany)
	}
	choices := slices.Clone(s.chosen)
	var works uint64
	asFound := make([]bool, len(sets)) // it works with this setting as found
	if combinations == tooMany {       // to try: anything may be
		combinations, best = 0, s.anything(c.piece)
	}
	for n := range combinations {
		digits := n
		for _, j := range sets {
			o := s.half.settings[j].Options
			choices[j].Value = o[digits%len(o)].Value
			digits /= len(o)
		}
		if s.spend(s.judging()); s.out {
			return single{}
		}
		got := s.read(s.judge(placed, choices, s.at), c.piece, k.Path)
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
	if works != 0 {
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
func (s *search) anything(p *rig.Piece) single {
	out := single{ok: true}
	if d := p.Part.Drive; d != nil {
		if out.rate = max(d.Link().Planning().MBps(), 600); s.at == atBest && !d.Link().Known() {
			out.rate = fastest
		}
		if d.ReadMBps > 0 {
			out.rate = min(out.rate, d.ReadMBps)
		}
		out.bound[Rates] = -whole(out.rate)
	}
	return out
}

// fastest is more than any drive moves, MB/s: four lanes of the fastest generation.
const fastest = 32_000

// read takes the piece's own part out of a verdict.
func (s *search) read(v fit.Verdict, p *rig.Piece, at rig.Path) single {
	i := slices.IndexFunc(v.Sockets, func(o fit.Outcome) bool { return o.Socket == at })
	o := &v.Sockets[i]
	if v.Found[deadRule] > 0 && s.splitElsewhere {
		return s.anything(p)
	}
	if o.State != fit.Live {
		return single{}
	}
	out := single{ok: true}
	for i := range v.Flows {
		if f := &v.Flows[i]; f.Item == p.ID {
			out.rate = s.at.rate(f.Alone).MBps()
			out.bound[Rates] = -whole(out.rate)
		}
	}
	if s.refs[p.ID].High > 0 {
		out.bound[Graphics] = s.lost(p.ID, o.Link, s.at)
	}
	if s.at.spoke(&v, openRule) > 0 && slices.ContainsFunc(v.Troubles, func(t fit.Spot) bool { return t.Code == linkUnknown && t.Item == p.ID }) {
		out.bound[Warnings] = 1 // of an end that nobody states
	}
	for _, d := range v.Doubts {
		if d.Item == p.ID && s.in.shares(d) {
			out.bound.weigh(d.Rule, 1)
		}
	}
	if p.Part.Drive != nil {
		out.bound[Cooling] += int64(s.at.spoke(&v, warmRule) + 2*s.at.spoke(&v, hotRule))
	}
	return out
}

// asked lists the settings that can change what the parts placed come to: those
// that a rule with an effect on their sockets, or on memory, asks about; and, where
// ports count, those of rules that switch sockets off.
func (s *search) asked(placed []rig.Placement, ports bool) []int {
	var out []int
	for j, set := range s.half.settings {
		if slices.ContainsFunc(s.in.Found.Sheet.Rules, func(r machine.Rule) bool {
			return asksAbout(&r, set) &&
				slices.ContainsFunc(r.Then, func(e machine.Effect) bool {
					return e.Profile || e.Off && ports || slices.ContainsFunc(placed, func(p rig.Placement) bool { return p.Socket == rig.On(e.Socket) })
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

// ease finds what the options of a piece reach at least.
func (s *search) ease(i int) {
	c := &s.choices[i]
	for n := range c.options {
		p := c.options[n].reach
		if p == (places{}) {
			c.easiest = nil
			return
		}
		if slices.ContainsFunc(c.easiest, func(q places) bool { return q.within(p) }) {
			continue
		}
		c.easiest = append(slices.DeleteFunc(c.easiest, func(q places) bool { return p.within(q) }), p)
	}
}

// inherit finds, for each piece that was found, who may take its place.
func (s *search) inherit() {
	for i := range s.choices {
		c := &s.choices[i]
		for j := range s.choices {
			if i != j && !c.home.IsZero() && slices.ContainsFunc(s.choices[j].options, func(o option) bool { return o.socket == c.home }) {
				c.heirs = append(c.heirs, j)
			}
		}
	}
}

// twins finds pieces that nothing tells apart: of these the earlier lies in the
// earlier socket, for exchanged they make the same plan.
func (s *search) twins() {
	for i := range s.choices {
		a := &s.choices[i]
		for j := i - 1; j >= 0 && a.twin < 0; j-- {
			b := &s.choices[j]
			if a.home.IsZero() && b.home.IsZero() && s.in.told(a.piece.ID) == s.in.told(b.piece.ID) && a.piece.New == b.piece.New && a.scratch == b.scratch && a.array == b.array && samePart(a.piece.Part, b.piece.Part) && sameOptions(a, b) {
				a.twin = j
			}
		}
	}
}

func samePart(a, b *part.Part) bool { return a == b || a.ID == b.ID && a.ID != "" }

func sameOptions(a, b *choice) bool {
	return slices.EqualFunc(a.options, b.options, func(x, y option) bool { return x.socket == y.socket && x.holder == y.holder })
}
