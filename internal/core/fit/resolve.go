package fit

// This file settles a rig: the rules of the sheet first, then sockets and links, then
// memory, then the rules of fit.

import (
	"cmp"
	"slices"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/known"
	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// Resolve answers a rig. It does no work in proportion to anything but the sheet's
// sockets, rules and the pieces.
func Resolve(b *rig.Rig) Answer {
	r := settle(b, asKnown)
	out := Answer{Sockets: make([]SocketState, len(r.sockets)), Carried: r.carried, Flows: r.flows(), Memory: r.memory, settled: r}
	out.Findings = r.findings()
	slices.SortStableFunc(out.Findings, func(a, b Finding) int { return cmp.Compare(a.Severity.rank(), b.Severity.rank()) })
	out.Memory.Because = r.whySpeed()
	for i := range r.sockets {
		out.Sockets[i] = r.answer(&r.sockets[i])
	}
	return out
}

// sock is a socket while it is being resolved: the sheet's socket, what rules left of
// it, and what is in it.
type sock struct {
	*machine.Socket
	path   rig.Path
	piece  *rig.Piece
	kind   kinds // of the piece
	parent *sock // what brings it is in there
	berth  berth // of its drive
	stays  bool  // its drive lies in the bay in which it was found
	moved  bool  // but on another port than then

	gen    known.Range[quantity.Gen] // of its PCIe end, after rules and what brings it
	lanes  known.Range[quantity.Lanes]
	sata   known.Range[quantity.Gen]
	speaks [len(protocols)]known.Truth
	closed known.Truth
	served known.Truth // by what brings it: yes for sockets of the board

	split    []quantity.Lanes   // how rules divide this slot
	perhaps  [][]quantity.Lanes // how they may, for what is not known
	closedBy []*machine.Rule
	doubts   []*machine.Rule // rules that may change it
	caps     []*machine.Rule // rules that narrow it
	splitBy  []*machine.Rule

	link   Link
	linked bool // its part has a link here
	state  State
}

// protocols is what sockets may speak, in the order of sock.speaks.
var protocols = [...]link.Protocol{link.PCIe, link.SATA, link.USB}

type resolver struct {
	b        *rig.Rig
	sheet    *machine.Sheet
	carried  []rig.Place
	sockets  []sock
	profile  known.Truth     // memory runs at its profile
	profiled []*machine.Rule // rules that let it
	filled   []*sock         // memory slots whose modules are seen, or may be, in the sheet's order
	memory   MemoryAnswer
	speedBy  speedReason
	troubles []trouble
	doubts   []Doubt     // losses that may be
	plugs    *count      // nil until it is asked for
	foundIn  []rig.Lying // in which bays drives were found; nil until it is asked for
	mode     mode
	byPath   map[rig.Path]int // on boards of many sockets only: it costs more than it saves on others
}

// mode is what is made of answers that are not known.
type mode uint8

const (
	asKnown  mode = iota // a part that may not work is unsure
	hopeful              // it works: every answer turns out well
	allRules             // as known, and no rule ends the rest
)

// laid is a rig with every piece in its socket, and every drive in its bay.
func laid(b *rig.Rig) *resolver {
	r := &resolver{b: b, sheet: b.Sheet, carried: b.Carried()}
	own := len(b.Sheet.Sockets)
	r.sockets = make([]sock, own+len(r.carried))
	for i := range r.sockets {
		s := &r.sockets[i]
		if i < own {
			s.Socket = &b.Sheet.Sockets[i]
			s.path = rig.On(s.ID)
		} else {
			s.Socket, s.path = &r.carried[i-own].Socket, r.carried[i-own].Path
		}
		s.asDescribed()
	}
	if len(r.sockets) > 64 {
		r.byPath = make(map[rig.Path]int, len(r.sockets))
		for i := range r.sockets {
			r.byPath[r.sockets[i].path] = i
		}
	}
	for i := own; i < len(r.sockets); i++ {
		r.sockets[i].parent = r.place(r.sockets[i].path.Holder())
	}
	for _, p := range b.Placements {
		s := r.place(p.Socket)
		if s.piece = b.Piece(p.Item); s.piece != nil {
			s.kind = kindOf(s.piece.Part)
		}
	}
	r.dealBays()
	return r
}

func settle(b *rig.Rig, how mode) *resolver {
	r := laid(b)
	r.mode, r.profile, r.troubles = how, known.No, make([]trouble, 0, 16)
	r.speakShown()
	for i := range b.Sheet.Rules {
		rule := &b.Sheet.Rules[i]
		if t := r.applies(rule); t != known.No {
			r.apply(rule, t)
		}
	}
	for i := range r.sockets {
		r.judge(&r.sockets[i])
	}
	r.remember()
	for _, i := range wholes {
		rule := &Rules[i]
		rule.whole(r, func(t trouble) {
			t.rule = i
			r.troubles = append(r.troubles, t)
		})
	}
	return r
}

// nowhere stands for a socket that is not there.
var nowhere = sock{Socket: &machine.Socket{}}

// socket is the socket of the board that a rule names.
func (r *resolver) socket(id machine.SocketID) *sock { return r.place(rig.On(id)) }

func (r *resolver) place(at rig.Path) *sock {
	if r.byPath != nil {
		if i, ok := r.byPath[at]; ok {
			return &r.sockets[i]
		}
	} else {
		for i := range r.sockets {
			if r.sockets[i].path == at {
				return &r.sockets[i]
			}
		}
	}
	out := nowhere
	return &out
}

// asDescribed is the socket as its sheet, or the part that brings it, describes it;
// what is not stated spans what there is.
func (s *sock) asDescribed() {
	s.state, s.served, s.closed = Free, known.Yes, known.No
	s.gen, s.lanes, s.sata = genOf(s.Gen), lanesOf(s.Lanes, s.widest()), sataOf(s.SATAGen)
	for i, p := range protocols {
		switch {
		case s.Protocols != nil:
			s.speaks[i] = known.Of(slices.Contains(s.Protocols, p))
		case s.Kind == machine.Slot:
			s.speaks[i] = known.Of(p == link.PCIe)
		case s.Kind == machine.SATA:
			s.speaks[i] = known.Of(p == link.SATA)
		case s.Kind == machine.USB:
			s.speaks[i] = known.Of(p == link.USB)
		case p == link.USB || s.Kind.Memory():
			s.speaks[i] = known.No
		}
	}
}

// widest is the widest link a socket of its kind can have.
func (s *sock) widest() quantity.Lanes {
	switch s.Kind {
	case machine.M2:
		if s.Key != "" {
			return s.Key.MaxLanes()
		}
		return part.KeyM.MaxLanes()
	case machine.U2:
		return 4
	}
	if s.Physical.Known() {
		return s.Physical
	}
	return 16
}

func (s *sock) drive() *part.Drive {
	if s.piece == nil {
		return nil
	}
	return s.piece.Part.Drive
}

func (s *sock) card() *part.Card {
	if s.piece == nil {
		return nil
	}
	return s.piece.Part.Card
}

func (s *sock) module() *part.Module {
	if s.piece == nil {
		return nil
	}
	return s.piece.Part.Module
}

func (s *sock) enclosure() *part.Enclosure {
	if s.piece == nil {
		return nil
	}
	return s.piece.Part.Enclosure
}

// m2 is the mechanical side of the M.2 drive or adapter in s.
func (s *sock) m2() *part.M2 {
	if s.piece == nil {
		return nil
	}
	return s.piece.Part.M2()
}

// outside reports a socket of a USB box.
func (s *sock) outside() bool { return s.parent != nil && s.parent.enclosure() != nil }

// seen reports a part that is there for the machine, or may be.
func (s *sock) seen() bool { return s.state == Live || s.state == Unsure }

// applies is whether all conditions of a rule hold.
func (r *resolver) applies(rule *machine.Rule) known.Truth {
	out := known.Yes
	for i := range rule.When {
		if out = known.And(out, r.holds(&rule.When[i])); out == known.No {
			return out
		}
	}
	return out
}

func (r *resolver) holds(c *machine.Condition) known.Truth {
	if c.Processor != "" {
		if r.b.Processor == "" {
			return known.Unknown
		}
		return known.Of(r.b.Processor == c.Processor)
	}
	if c.Setting != "" {
		s := r.sheet.Setting(c.Setting)
		if s == nil {
			return known.No
		}
		value := r.b.Choice(s)
		if value == "" {
			return known.Unknown // neither chosen nor its default stated
		}
		return known.Of(value == c.Is)
	}
	s := r.socket(c.Socket)
	switch {
	case s.piece == nil && r.b.IsUnlooked(c.Socket):
		return known.Unknown
	case s.piece == nil:
		return known.No
	case c.Holds == machine.HoldsAnything:
		return known.Yes
	}
	d := s.drive()
	if d == nil {
		return known.Of(c.Holds == machine.HoldsPCIe && s.card() != nil)
	}
	return speaks(d, link.Protocol(c.Holds))
}

// apply lets a rule that holds, or may, take away what it takes away.
func (r *resolver) apply(rule *machine.Rule, t known.Truth) {
	note := func(list *[]*machine.Rule, s *sock) {
		if t != known.Yes {
			list = &s.doubts
		}
		if n := len(*list); n == 0 || (*list)[n-1] != rule {
			*list = append(*list, rule)
		}
	}
	for i := range rule.Then {
		e := &rule.Then[i]
		if e.Profile {
			r.profile = known.Or(r.profile, t)
			r.profiled = append(r.profiled, rule)
			continue
		}
		s := r.socket(e.Socket)
		if e.Off {
			s.closed = known.Or(s.closed, t)
			note(&s.closedBy, s)
		}
		if e.MaxLanes.Known() && e.MaxLanes < s.Lanes || e.MaxLanes.Known() && !s.Lanes.Known() {
			s.lanes = s.lanes.Cap(e.MaxLanes, t)
			note(&s.caps, s)
		}
		if e.MaxGen.Known() && (e.MaxGen < s.Gen || !s.Gen.Known()) {
			s.gen = s.gen.Cap(e.MaxGen, t)
			note(&s.caps, s)
		}
		if len(e.Split) > 0 {
			note(&s.splitBy, s)
			if t == known.Unknown {
				s.perhaps = append(s.perhaps, e.Split)
			} else if finer(e.Split, s.split) {
				s.split = e.Split
			}
		}
		if len(e.Protocols) > 0 {
			for i, p := range protocols {
				if !slices.Contains(e.Protocols, p) {
					s.speaks[i] = known.And(s.speaks[i], known.Not(t))
				}
			}
			note(&s.caps, s)
		}
	}
}

// judge settles one socket: served or not, closed or not, its link, then its rules.
func (r *resolver) judge(s *sock) {
	r.nest(s)
	if s.closed == known.Yes || s.served == known.No {
		s.state = Off
	}
	if s.piece == nil {
		return
	}
	r.train(s) // what the link would be is known where the part is not seen, too
	if s.linked && len(r.b.Shown) > 0 {
		r.atLeast(s)
	}
	if s.state != Off {
		s.state = Live
	}
	l := look{resolver: r, s: s}
	ended := stage(255)
	for _, i := range byKind[s.kind] {
		rule := &Rules[i]
		if r.mode != allRules && (rule.stage > ended || rule.stage == ended && rule.stage != fitsIn) {
			continue
		}
		t := rule.holds(&l)
		if t == known.Yes {
			continue
		}
		if t == known.Unknown && rule.Severity != Stops {
			r.doubt(i, s)
			continue // what a loss hangs on is not asked for: only what decides whether it works
		}
		if rule.proof != nothing && r.proved(s, rule.proof) || len(r.b.Shown) > 0 && rule.Severity == Stops && rule.Code != "kind-mismatch" && r.ran(s) {
			if t == known.No {
				r.troubles = append(r.troubles, trouble{rule: i, truth: t, s: s, item: -1, found: true})
			}
			continue
		}
		r.troubles = append(r.troubles, trouble{rule: i, truth: t, s: s, item: -1})
		if rule.Severity != Stops {
			continue
		}
		switch {
		case t == known.No:
			ended = min(ended, rule.stage)
			if s.state != Off {
				s.state = Stopped
			}
		case s.state == Live && r.mode != hopeful:
			s.state = Unsure
		}
	}
}

// doubt counts a loss that may be, of those that plans are compared by.
func (r *resolver) doubt(rule int, s *sock) {
	if Rules[rule].Weighs != WeighsNothing {
		r.doubts = append(r.doubts, Doubt{rule, s.piece.ID, s.path})
	}
}

// answer is a settled socket as others read it.
func (r *resolver) answer(s *sock) SocketState {
	out := SocketState{Socket: s.path, State: s.state, settled: r, sock: s}
	if s.piece != nil {
		out.Item = s.piece.ID
	}
	switch {
	case s.state == Off:
		out.Dead = s.served == known.No
	case s.seen() && s.linked:
		l := s.link
		out.Link = &l
		if c := s.card(); c != nil && c.Carrier != nil {
			out.Served, out.Brings = r.positions(s)
		}
	case s.state == Free && s.piece == nil:
		out.Link = s.offer()
	}
	return out
}

// whySocket is why a socket is what it is.
func (r *resolver) whySocket(s *sock) []Reason {
	switch {
	case s.state == Off:
		return r.whyOff(s)
	case s.seen() && s.linked:
		return r.whyLink(s)
	}
	return nil
}

// whyOff is why a socket is off: what brings it is not served, or rules close it.
func (r *resolver) whyOff(s *sock) []Reason {
	var out []Reason
	if s.served == known.No {
		out = append(out, r.whyDead(s)...)
	}
	return append(out, ruleReasons(s.closedBy)...)
}

// ruleReasons gives rules of the sheet as reasons, in an order that does not hang on
// the sheet's.
func ruleReasons(rules []*machine.Rule) []Reason {
	sorted := slices.SortedFunc(slices.Values(rules), func(a, b *machine.Rule) int { return cmp.Compare(a.ID, b.ID) })
	out := make([]Reason, len(sorted))
	for i, rule := range sorted {
		out[i] = Reason{FromSheet, fact.Of(RuleSays, rule)}
	}
	return out
}
