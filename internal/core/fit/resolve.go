package fit

// This file turns a build into its answer: rules first, then links, then
// memory, then the checks.

import (
	"slices"
	"strconv"

	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// Resolve answers a build. It does no work in proportion to anything but the
// sheet's sockets, rules and the pieces.
func Resolve(b *rig.Rig) Resolved {
	carried := b.Carried()
	r := resolver{checks: Checks[:], b: b, findings: make([]Finding, 0, 16)}
	r.settle(carried)
	out := Resolved{Sockets: make([]SocketState, len(r.sockets)), Carried: make([]machine.Socket, len(carried)), Flows: r.flows(), Memory: r.memory, Findings: r.findings}
	for i := range carried {
		out.Carried[i] = carried[i].Socket
	}
	for i := range r.sockets {
		out.Sockets[i] = r.answer(&r.sockets[i])
	}
	return out
}

// settle runs the rules of the sheet, the links, the memory and the checks.
func (r *resolver) settle(carried []rig.Place) {
	b := r.b
	r.sheet, r.sockets = b.Sheet, make([]sock, len(b.Sheet.Sockets)+len(carried))
	for i := range r.sockets {
		var s *machine.Socket
		var path rig.Path
		if own := len(b.Sheet.Sockets); i < own {
			s = &b.Sheet.Sockets[i]
			path = rig.On(s.ID)
		} else {
			s, path = &carried[i-own].Socket, carried[i-own].Path
		}
		r.sockets[i] = sock{Socket: s, path: path, link: s.Link(), sataGen: s.SATAGen, protocols: s.Protocols, state: Free}
	}
	if len(r.sockets) > 64 {
		r.byPath = make(map[rig.Path]int, len(r.sockets))
		for i := range r.sockets {
			r.byPath[r.sockets[i].path] = i
		}
	}
	for i := len(b.Sheet.Sockets); i < len(r.sockets); i++ {
		r.sockets[i].parent = r.place(r.sockets[i].path.Holder())
	}
	for _, p := range b.Placements {
		r.place(p.Socket).piece = b.Piece(p.Item)
	}
	for i := range b.Sheet.Rules {
		switch rule := &b.Sheet.Rules[i]; r.applies(rule) {
		case quantity.Yes:
			r.apply(rule)
		case quantity.Unknown:
			r.doubt(rule)
		}
	}
	for i := range r.sockets {
		r.judge(&r.sockets[i])
	}
	r.remember()
	r.whole()
}

// sock is a socket while it is being resolved: the sheet's socket, what rules
// left of it, and what is in it.
type sock struct {
	*machine.Socket
	path  rig.Path
	piece *rig.Piece

	state     State
	link      link.Link
	sataGen   quantity.Gen
	protocols []link.Protocol
	parent    *sock            // the slot of the carrier this is a position of
	split     []quantity.Lanes // how rules divide this slot
	splitBy   []*machine.Rule  // rules that do
	dead      []Reason         // why this position of a carrier is not served
	doubts    []*machine.Rule  // rules that may apply, by a processor that is not stated
	closed    []*machine.Rule  // rules that turn it off
	narrowed  []*machine.Rule  // rules that narrow it
	trained   *LinkAnswer      // nil: no link is made
	because   []Reason
}

func (s *sock) drive() *part.Drive {
	if s.piece == nil {
		return nil
	}
	return s.piece.Part.Drive
}

// own is the PCIe link of the drive or card in s, as its label states it.
func (s *sock) own() link.Link {
	if c := s.card(); c != nil {
		return c.Link()
	}
	if d := s.drive(); d != nil {
		return d.Link()
	}
	return link.Link{}
}

func (s *sock) module() *part.Module {
	if s.piece == nil {
		return nil
	}
	return s.piece.Part.Module
}

type resolver struct {
	checks   []Check // Checks; a field, because rules look at the list they are in
	b        *rig.Rig
	sheet    *machine.Sheet
	sockets  []sock
	profile  *machine.Rule // the rule that lets memory run at its profile
	filled   []*sock       // memory slots whose modules are seen, in the sheet's order
	memory   MemoryAnswer
	wantLead *lacking // drives without a data lead, once asked for
	findings []Finding
	fed      []fed
	byPath   map[rig.Path]int // on boards of many sockets only: it costs more than it saves on others
	count    []int            // quiet: findings of each check, in place of their words; nil where somebody reads
}

// quiet reports that nobody reads: reasons and words are left out.
func (r *resolver) quiet() bool { return r.count != nil }

// socket is the socket of the board that a rule names.
func (r *resolver) socket(id machine.SocketID) *sock { return r.place(rig.On(id)) }

func (r *resolver) place(at rig.Path) *sock {
	if r.byPath != nil {
		if i, ok := r.byPath[at]; ok {
			return &r.sockets[i]
		}
		return &sock{Socket: &machine.Socket{}}
	}
	for i := range r.sockets {
		if r.sockets[i].path == at {
			return &r.sockets[i]
		}
	}
	return &sock{Socket: &machine.Socket{}}
}

// applies reports whether all conditions of a rule hold. One that asks for the
// processor is unknown while nobody has said which is fitted.
func (r *resolver) applies(rule *machine.Rule) quantity.Answer {
	out := quantity.Yes
	for i := range rule.When {
		c := &rule.When[i]
		if c.Processor != "" && r.b.Processor == "" {
			out = quantity.Unknown
		} else if !r.holds(c) {
			return quantity.No
		}
	}
	return out
}

// doubt marks the sockets that a rule may change.
func (r *resolver) doubt(rule *machine.Rule) {
	for i := range rule.Then {
		if e := &rule.Then[i]; !e.Profile {
			s := r.socket(e.Socket)
			s.doubts = append(s.doubts, rule)
		}
	}
}

func (r *resolver) holds(c *machine.Condition) bool {
	if c.Processor != "" {
		return r.b.Processor == c.Processor
	}
	if c.Setting != "" {
		s := r.sheet.Setting(c.Setting)
		return s != nil && r.b.Choice(s) == c.Is
	}
	s := r.socket(c.Socket)
	if s.piece == nil {
		return false
	}
	if c.Holds == machine.HoldsAnything {
		return true
	}
	d := s.drive()
	// A drive of unknown protocol may do what the rule asks about; the cautious
	// reading is that it does.
	return d != nil && (d.Protocol == "" || string(d.Protocol) == string(c.Holds))
}

func (r *resolver) apply(rule *machine.Rule) {
	for i := range rule.Then {
		e := &rule.Then[i]
		if e.Profile {
			r.profile = rule
			continue
		}
		s := r.socket(e.Socket)
		if e.Off {
			s.closed = append(s.closed, rule)
		}
		// At most so much of what is not stated is still not stated.
		if e.MaxLanes.Known() && e.MaxLanes < s.link.Lanes {
			s.link.Lanes = e.MaxLanes
			s.narrowed = append(s.narrowed, rule)
		}
		if e.MaxGen.Known() && e.MaxGen < s.link.Gen {
			s.link.Gen = e.MaxGen
			s.narrowed = append(s.narrowed, rule)
		}
		if len(e.Split) > 0 {
			s.splitBy = append(s.splitBy, rule)
			if finer(e.Split, s.split) {
				s.split = e.Split
			}
		}
		if len(e.Protocols) > 0 {
			s.protocols = intersect(s.protocols, e.Protocols)
			s.narrowed = append(s.narrowed, rule)
		}
	}
}

// intersect leaves the protocols in both lists, in a new slice: the sheet's own is not touched.
func intersect(a, b []link.Protocol) []link.Protocol {
	out := make([]link.Protocol, 0, len(a))
	for _, p := range a {
		if slices.Contains(b, p) {
			out = append(out, p)
		}
	}
	return out
}

// judge settles one socket: closed or not, then its link, then the checks on
// it. The first check that stops ends them, so that one cause gives one finding.
func (r *resolver) judge(s *sock) {
	r.nest(s)
	if len(s.closed) > 0 || s.dead != nil {
		s.state = Off
		if !r.quiet() {
			s.because = append(s.because, s.dead...)
			for _, rule := range s.closed {
				s.because = append(s.because, r.ruleReason(rule))
			}
		}
	}
	if s.piece == nil {
		return
	}
	if s.state != Off {
		s.state = Live
		r.train(s)
		r.trainCard(s)
		r.trainBox(s)
	}
	for i := range r.checks {
		c := &r.checks[i]
		if c.socket == nil {
			continue
		}
		say := c.socket(r, s)
		if say == nil {
			continue
		}
		if r.quiet() {
			r.count[i]++
		} else {
			f := say()
			if c.cures != nil {
				f.Cures = append(f.Cures, c.cures(r, s)...)
			}
			r.report(c, f, s.path, s.piece.ID)
		}
		if c.Severity == Stops {
			if s.state != Off {
				s.state = Stopped
			}
			return
		}
		if c.unsure {
			s.state = Unsure
		}
	}
}

func (r *resolver) report(c *Check, f Finding, socket rig.Path, item rig.ItemID) {
	f.Code, f.Severity = c.Code, c.Severity
	if f.Socket.IsZero() {
		f.Socket = socket
	}
	if f.Item == "" {
		f.Item = item
	}
	if f.Because == nil {
		f.Because = []Reason{}
	}
	if f.Cures == nil {
		f.Cures = []Cure{}
	}
	r.findings = append(r.findings, f)
}

// train settles the link of the drive in s and says why.
func (r *resolver) train(s *sock) {
	d := s.drive()
	if d == nil || d.Protocol == "" || !slices.Contains(s.protocols, d.Protocol) {
		return
	}
	switch d.Protocol {
	case link.PCIe:
		got := r.trainPCIe(s, d.Link())
		if got.Known() && !r.quiet() {
			s.because = append(s.because, Reason{FromStandard, worded(got).left})
		}
	case link.SATA:
		var gen quantity.Gen
		if d.Gen.Known() && s.sataGen.Known() {
			gen = min(d.Gen, s.sataGen)
		}
		s.trained = sataAnswer(gen)
		if r.quiet() {
			return
		}
		s.because = append(make([]Reason, 0, 2+len(s.narrowed)),
			Reason{FromPart, r.name(s) + " is SATA " + d.Gen.String()},
			Reason{FromSheet, string(s.ID) + " is SATA " + s.sataGen.String() + r.fedBy(s)})
	}
}

// trainPCIe settles the link of a part whose own end is given, and says why.
func (r *resolver) trainPCIe(s *sock, own link.Link) link.Link {
	got := own.Train(s.link)
	s.trained = pcieAnswer(got)
	if r.quiet() {
		return got
	}
	s.because = append(make([]Reason, 0, 5+len(s.narrowed)),
		Reason{FromPart, r.name(s) + " is " + worded(own).Text},
		Reason{FromSheet, string(s.ID) + " is " + worded(s.Socket.Link()).Text + r.fedBy(s)})
	if up := s.parent; up != nil && !s.outside() {
		s.because = append(s.because, Reason{FromSheet, string(up.ID) + ", which carries it, is " + worded(up.link).Text + ", " + splitText(up.split)})
	}
	for _, rule := range s.narrowed {
		s.because = append(s.because, r.ruleReason(rule))
	}
	s.because = append(s.because, Reason{FromStandard, worded(got).settles})
	return got
}

func (r *resolver) fedBy(s *sock) string {
	if s.outside() {
		return ", by its bridge"
	}
	root := r.sheet.RootOf(s.Socket)
	if root == nil {
		return ""
	}
	for _, f := range r.fed {
		if f.root == root {
			return f.says
		}
	}
	says := ", on the " + root.Name
	if root.Uplink != nil {
		says += " behind its uplink of " + worded(root.Uplink.Link()).Text + ", which everything there shares"
	}
	r.fed = append(r.fed, fed{root, says})
	return says
}

// fed is how the sockets of a root are fed, worded once.
type fed struct {
	root *machine.Root
	says string
}

// wording is a PCIe link with the sentences about it.
type wording struct {
	LinkAnswer
	says    string // "Gen 3 x4, 3.94 GB/s"
	settles string // what two ends settle on
	left    string // what packets leave of the line rate
}

// The answers for links in use, worded once: every socket of every resolve has one.
var (
	pcieAnswers [link.MaxGen + 1][17]wording
	sataAnswers [4]LinkAnswer
	usbAnswers  = map[link.USBMode]*LinkAnswer{}
)

func init() {
	for gen := range pcieAnswers {
		for lanes := range pcieAnswers[gen] {
			l := link.Link{Gen: quantity.Gen(gen), Lanes: quantity.Lanes(lanes)}
			a := LinkAnswer{Protocol: link.PCIe, Gen: l.Gen, Lanes: l.Lanes, MBps: l.LineRate().MBps(), Text: l.String(), Rate: "rate unknown"}
			if l.Known() {
				a.Rate = l.LineRate().String() + " before packet overhead"
			}
			pcieAnswers[gen][lanes] = wording{a, a.Text + ", " + l.LineRate().String(),
				"a PCIe link runs at the lower generation and the narrower width of its two ends: " + a.Text,
				l.LineRate().String() + " is the line rate after coding; with " + strconv.Itoa(link.Typical.Payload) + "-byte packets about " +
					l.Usable(link.Typical).String() + " is left for data"}
		}
	}
	for gen := range sataAnswers {
		g := quantity.Gen(gen)
		a := LinkAnswer{Protocol: link.SATA, Gen: g, MBps: link.SATARate(g).MBps(), Text: "SATA " + g.String(), Rate: "rate unknown"}
		if g.Known() {
			a.Rate = link.SATARate(g).String() + " after coding"
		}
		sataAnswers[gen] = a
	}
	for _, m := range append(link.USBModes(), "") {
		a := &LinkAnswer{Protocol: link.USB, USB: m, MBps: m.LineRate().MBps(), Text: m.String(), Rate: "rate unknown"}
		if m != "" {
			low, high := m.Practice()
			a.Rate = m.LineRate().String() + " after coding, " + low.String() + " to " + high.String() + " in practice"
		}
		usbAnswers[m] = a
	}
}

// pcieAnswer and sataAnswer look a link up; the sheet's schema keeps generation
// and width inside the tables.
func pcieAnswer(l link.Link) *LinkAnswer { return &worded(l).LinkAnswer }

func worded(l link.Link) *wording { return &pcieAnswers[min(l.Gen, link.MaxGen)][min(l.Lanes, 16)] }

func sataAnswer(gen quantity.Gen) *LinkAnswer { return &sataAnswers[min(gen, 3)] }

func usbAnswer(m link.USBMode) *LinkAnswer { return usbAnswers[m] }

// ruleReason is a rule of the sheet as a reason.
func (r *resolver) ruleReason(rule *machine.Rule) Reason {
	return Reason{FromSheet, RuleText(r.sheet, rule)}
}

// RuleText is a rule as a sentence: "when M2_2 holds anything, SATA5 is off".
func RuleText(sheet *machine.Sheet, rule *machine.Rule) string {
	s := "when "
	for i, c := range rule.When {
		if i > 0 {
			s += " and "
		}
		if c.Processor != "" {
			s += "the processor is " + sheet.Processor(c.Processor).Name
		} else if c.Setting != "" {
			st := sheet.Setting(c.Setting)
			s += st.Name + " is " + st.OptionName(c.Is)
		} else {
			what := "anything"
			if c.Holds != machine.HoldsAnything {
				what = "a " + link.Protocol(c.Holds).String() + " part"
			}
			s += string(c.Socket) + " holds " + what
		}
	}
	s += ", "
	for i, e := range rule.Then {
		if i > 0 {
			s += " and "
		}
		s += effect(&e)
	}
	if rule.Says != "" {
		s += " (" + rule.Says + ")"
	}
	return s
}

func effect(e *machine.Effect) string {
	switch {
	case e.Profile:
		return "memory runs at its profile"
	case e.Off:
		return string(e.Socket) + " is off"
	case len(e.Split) > 0:
		return string(e.Socket) + " is " + splitText(e.Split)
	}
	s := string(e.Socket) + " is at most"
	if e.MaxGen.Known() {
		s += " " + e.MaxGen.String()
	}
	if e.MaxLanes.Known() {
		s += " " + e.MaxLanes.String()
	}
	for i, p := range e.Protocols {
		if i > 0 {
			s += " or"
		}
		s += " " + p.String()
	}
	return s
}

func (r *resolver) name(s *sock) string {
	if s.piece == nil {
		return "nothing"
	}
	return s.piece.Part.Name
}

// answer puts a settled socket into words.
func (r *resolver) answer(s *sock) SocketState {
	out := SocketState{Socket: s.path, State: s.state, Because: s.because}
	if s.piece != nil {
		out.Item = s.piece.ID
	}
	if s.state == Live || s.state == Unsure {
		out.Link = s.trained
	}
	switch {
	case s.state == Off && s.piece == nil && s.dead != nil:
		out.Says = "not served"
	case s.state == Off && s.piece != nil:
		out.Says = "off: " + r.name(s) + " is not seen here"
	case s.state == Off:
		out.Says = "off"
	case s.state == Stopped:
		out.Says = r.name(s) + " does not work here"
	case s.state == Unsure && out.Link == nil:
		out.Says = "unknown: the sheet or the label does not say enough"
	case out.Link != nil && s.card() != nil:
		out.Says = s.trained.Text
		if c := s.card().Carrier; c != nil {
			live, all := r.seen(s)
			out.Says += ", " + strconv.Itoa(live) + " of " + plural(all, "position") + " served"
		}
	case out.Link != nil && s.trained.MBps > 0 && s.trained.Protocol == link.PCIe:
		out.Says = worded(link.Link{Gen: s.trained.Gen, Lanes: s.trained.Lanes}).says
	case out.Link != nil && s.trained.MBps > 0:
		out.Says = s.trained.Text + ", " + quantity.MBps(s.trained.MBps).String()
	case out.Link != nil:
		out.Says = s.trained.Text
	case s.state == Live && s.module() != nil:
		out.Says = s.module().SizeBytes.Binary() + " at " + r.memory.Speed
	case s.state == Free:
		out.Link = r.offer(s)
		out.Says = "free"
		if out.Link != nil {
			out.Says = "free, " + out.Link.Text
		}
	}
	if out.Because == nil {
		out.Because = []Reason{}
	}
	return out
}

// offer is the best link a free socket has to give.
func (r *resolver) offer(s *sock) *LinkAnswer {
	switch {
	case s.Kind.Memory():
		return nil
	case slices.Contains(s.protocols, link.PCIe):
		return pcieAnswer(s.link)
	case slices.Contains(s.protocols, link.SATA):
		return sataAnswer(s.sataGen)
	case s.Kind == machine.USB:
		return usbAnswer(s.USB)
	}
	return nil
}
