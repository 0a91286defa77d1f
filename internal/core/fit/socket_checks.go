package fit

// This file holds the rules that look at one occupied socket.

import (
	"slices"
	"strings"

	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

func kindMismatch(r *resolver, s *sock) func() Finding {
	if rig.Suits(s.piece.Part, s.Socket) {
		return nil
	}
	return func() Finding {
		return Finding{
			Says: r.name(s) + " does not go into " + string(s.ID) + ": it is a " + shape(s.piece.Part) + ", and this is a " + s.Kind.String(),
			Because: []Reason{
				{FromPart, r.name(s) + " is a " + shape(s.piece.Part)},
				{FromSheet, string(s.ID) + " is a " + s.Kind.String()},
			},
		}
	}
}

func shape(p *part.Part) string {
	switch {
	case p.Drive != nil:
		return p.Drive.Form.String() + " drive"
	case p.Card != nil && p.Card.M2 != nil:
		return "M.2 adapter"
	case p.Card != nil:
		return "PCIe card"
	case p.Module != nil:
		return p.Module.Form.String()
	case p.Enclosure != nil:
		return "USB box"
	}
	return "fitting"
}

func memoryGeneration(r *resolver, s *sock) func() Finding {
	m, want := s.module(), r.sheet.Memory.Generation
	if m == nil || want == "" || m.Generation == "" || m.Generation == want {
		return nil
	}
	return func() Finding {
		return Finding{
			Says: r.name(s) + " is " + m.Generation.String() + "; this board takes " + want.String() + " only",
			Because: []Reason{
				{FromPart, r.name(s) + " is " + m.Generation.String()},
				{FromSheet, "the board takes " + want.String()},
				{FromStandard, "the notch of each generation is elsewhere; none fits another's slot"},
			},
			Cures: []Cure{{Says: "use " + want.String() + " modules"}},
		}
	}
}

func memoryRegistered(r *resolver, s *sock) func() Finding {
	m, want := s.module(), r.sheet.Memory.Registered
	if m == nil || want == quantity.Unknown || m.Registered == quantity.Unknown || m.Registered == want {
		return nil
	}
	kind := map[quantity.Answer]string{quantity.Yes: "registered", quantity.No: "unbuffered"}
	return func() Finding {
		return Finding{
			Says: r.name(s) + " is " + kind[m.Registered] + "; this board takes " + kind[want] + " modules",
			Because: []Reason{
				{FromPart, r.name(s) + " is " + kind[m.Registered]},
				{FromSheet, "the board takes " + kind[want] + " modules"},
				{FromStandard, "the two are electrically different and never mix"},
			},
			Cures: []Cure{{Says: "use " + kind[want] + " modules"}},
		}
	}
}

func m2Key(r *resolver, s *sock) func() Finding {
	m := s.m2()
	if m == nil || s.Key == "" || len(m.Keys) == 0 || slices.Contains(m.Keys, s.Key) {
		return nil
	}
	return func() Finding {
		return Finding{
			Says: r.name(s) + " is notched at " + part.Keys(m.Keys) + "; " + string(s.ID) + " is keyed " + string(s.Key) + ", so it does not go in",
			Because: []Reason{
				{FromPart, r.name(s) + " has notches at " + part.Keys(m.Keys)},
				{FromSheet, string(s.ID) + " has its key at " + string(s.Key)},
				{FromStandard, "a card goes in only with a notch where the socket has its key; never force it"},
			},
		}
	}
}

func m2Length(r *resolver, s *sock) func() Finding {
	m := s.m2()
	if m == nil || len(s.LengthsMM) == 0 || !m.LengthMM.Known() || slices.Contains(s.LengthsMM, m.LengthMM) {
		return nil
	}
	return func() Finding {
		posts := make([]string, len(s.LengthsMM))
		for i, l := range s.LengthsMM {
			posts[i] = l.String()
		}
		return Finding{
			Says: r.name(s) + " is " + m.LengthMM.String() + " long; " + string(s.ID) + " has posts at " + strings.Join(posts, ", "),
			Because: []Reason{
				{FromPart, r.name(s) + " is " + m.LengthMM.String() + " long"},
				{FromSheet, string(s.ID) + " has posts at " + strings.Join(posts, ", ")},
				{FromStandard, "the post sits at exactly the card's length; elsewhere it shorts or bends the card"},
			},
		}
	}
}

func bayForm(r *resolver, s *sock) func() Finding {
	d := s.drive()
	if d == nil || len(s.Drives) == 0 || slices.Contains(s.Drives, d.Form) || r.bracketed(s) {
		return nil
	}
	return func() Finding {
		takes := make([]string, len(s.Drives))
		for i, f := range s.Drives {
			takes[i] = f.String()
		}
		return Finding{
			Says: r.name(s) + " is a " + d.Form.String() + " drive; the bay on " + string(s.ID) + " takes " + strings.Join(takes, " or "),
			Because: []Reason{
				{FromPart, r.name(s) + " is a " + d.Form.String() + " drive"},
				{FromSheet, "the leads of " + string(s.ID) + " reach a bay for " + strings.Join(takes, " or ")},
			},
		}
	}
}

func socketOff(r *resolver, s *sock) func() Finding {
	if len(s.closed) == 0 {
		return nil
	}
	return func() Finding {
		return Finding{
			Says:    r.name(s) + " is not seen on " + string(s.ID) + ": the socket is off",
			Because: slices.Clone(s.because),
		}
	}
}

func socketOffCures(r *resolver, s *sock) []Cure {
	out := r.elsewhere(s)
	for _, rule := range s.closed {
		out = append(out, r.undo(rule)...)
	}
	return out
}

// undo lists ways to make a rule not apply: what it asks about put elsewhere,
// or the setting at another value.
func (r *resolver) undo(rule *machine.Rule) []Cure {
	var out []Cure
	for _, c := range rule.When {
		if c.Setting != "" {
			for _, o := range r.sheet.Setting(c.Setting).Options {
				if o.Value != c.Is {
					out = append(out, r.set(c.Setting, o.Value))
				}
			}
			continue
		}
		if cause := r.socket(c.Socket); cause.piece != nil {
			out = append(out, r.elsewhere(cause)...)
		}
	}
	return out
}

// set is the cure of one setting at another value.
func (r *resolver) set(id machine.SettingID, value string) Cure {
	st := r.sheet.Setting(id)
	return Cure{Says: "set " + st.Name + " to " + st.OptionName(value), Moves: []rig.Move{{Setting: id, Value: value}}}
}

// settingsFor are the settings that alone bring an effect that helps.
func (r *resolver) settingsFor(helps func(*machine.Effect) bool) []Cure {
	var out []Cure
	for _, rule := range r.sheet.Rules {
		if len(rule.When) != 1 || rule.When[0].Setting == "" {
			continue
		}
		for i := range rule.Then {
			if helps(&rule.Then[i]) {
				out = append(out, r.set(rule.When[0].Setting, rule.When[0].Is))
			}
		}
	}
	return out
}

// elsewhere lists the free, open sockets into which the part in s goes and
// where it would be seen, in the sheet's order.
func (r *resolver) elsewhere(s *sock) []Cure {
	var out []Cure
	if r.quiet() {
		return nil // nobody reads cures
	}
	for i := range r.sockets {
		k := &r.sockets[i]
		if k.piece != nil || len(k.closed) > 0 || k.path == s.path || !r.suits(s.piece.Part, k) {
			continue
		}
		says := "put " + r.name(s) + " into " + string(k.ID)
		if k.Kind == machine.SATA && s.Kind == machine.SATA {
			says = "move the data lead of " + r.name(s) + " to " + string(k.ID)
		}
		out = append(out, Cure{Says: says, Moves: []rig.Move{{Item: s.piece.ID, Socket: k.path}}})
	}
	return out
}

// suits reports whether the part surely works in k, by trying it there: no rule
// that stops speaks, and none that says "unknown".
func (r *resolver) suits(p *part.Part, k *sock) bool {
	if !rig.Suits(p, k.Socket) {
		return false
	}
	try := *k
	try.piece = &rig.Piece{Part: p}
	for i := range r.checks {
		if c := &r.checks[i]; c.socket != nil && (c.Severity == Stops || c.unsure) {
			if c.socket(r, &try) != nil {
				return false
			}
		}
	}
	return true
}

func protocol(r *resolver, s *sock) func() Finding {
	d := s.drive()
	if d == nil || d.Protocol == "" || s.Socket.Protocols == nil || slices.Contains(s.protocols, d.Protocol) {
		return nil
	}
	return func() Finding {
		takes := "nothing now"
		if len(s.protocols) > 0 {
			takes = protocols(s.protocols) + " only"
		}
		f := Finding{
			Says: r.name(s) + " speaks " + d.Protocol.String() + "; " + string(s.ID) + " takes " + takes + ", so the drive would not be seen",
			Because: []Reason{
				{FromPart, r.name(s) + " is a " + d.Protocol.String() + " drive"},
				{FromSheet, string(s.ID) + " is wired for " + protocols(s.Socket.Protocols)},
			},
		}
		for _, rule := range s.narrowed {
			f.Because = append(f.Because, r.ruleReason(rule))
		}
		f.Because = append(f.Because, Reason{FromStandard, "a notch tells what goes in, not what it speaks"})
		return f
	}
}

func protocolCures(r *resolver, s *sock) []Cure {
	out := r.elsewhere(s)
	if slices.Contains(s.Socket.Protocols, s.drive().Protocol) {
		for _, rule := range s.narrowed {
			out = append(out, r.undo(rule)...)
		}
	}
	return append(out, Cure{Says: "use a " + protocols(s.Socket.Protocols) + " drive here"})
}

func protocols(p []link.Protocol) string {
	s := make([]string, len(p))
	for i := range p {
		s[i] = p[i].String()
	}
	return strings.Join(s, " or ")
}

func fitUnknown(r *resolver, s *sock) func() Finding {
	var because []Reason
	sheet := func(what string) { because = append(because, r.unsaid(s, what)) }
	label := func(what string) {
		because = append(because, Reason{FromPart, "unknown, because the label of " + r.name(s) + " does not say " + what})
	}
	id := string(s.ID)
	for _, rule := range s.doubts {
		because = append(because, Reason{FromPlan, "unknown, because the job does not say which processor is fitted: " + r.ruleReason(rule).Says})
	}
	if d := s.drive(); d != nil {
		if d.Protocol == "" {
			label("whether it speaks PCIe or SATA")
		}
		if s.Socket.Protocols == nil {
			sheet("what " + id + " speaks")
		}
		if s.BayMM.Known() && !d.HeightMM.Known() {
			label("how tall it is")
		}
		if s.Kind == machine.SATA && len(s.Drives) == 0 {
			sheet("which drives the bay on " + id + " takes")
		}
		if s.outside() && d.Form == part.Form3i5 && s.parent.enclosure().OwnSupply == quantity.Unknown {
			sheet("whether the box has a supply of its own")
		}
	}
	if m := s.m2(); m != nil {
		if s.Key == "" {
			sheet("how " + id + " is keyed")
		}
		if len(s.LengthsMM) == 0 && s.parent == nil {
			sheet("at which lengths " + id + " has posts")
		}
		if len(m.Keys) == 0 {
			label("where it is notched")
		}
		if !m.LengthMM.Known() {
			label("how long it is")
		}
		if m.WidthMM > 22 && !s.WidthMM.Known() {
			sheet("whether " + id + " has room for a card " + m.WidthMM.String() + " wide")
		}
		if (s.TopMM.Known() || s.UnderMM.Known()) && m.Heatsink == quantity.Yes && !m.TopMM.Known() {
			label("how tall its heatsink is")
		}
		if s.BottomMM.Known() && (m.TwoSided == quantity.Unknown || m.TwoSided == quantity.Yes && !m.BottomMM.Known()) {
			label("whether it has parts on its under side, and how tall")
		}
	}
	if s.card() != nil && s.Kind == machine.Slot && s.parent != nil {
		sheet("whether there is room for a card in " + id)
	}
	if m := s.module(); m != nil && r.sheet.Memory.Generation == "" {
		sheet("which memory generation the board takes")
	}
	if len(because) == 0 {
		return nil
	}
	return func() Finding {
		return Finding{
			Says:    "whether " + r.name(s) + " works in " + id + " is unknown",
			Because: because,
			Cures:   []Cure{{Says: "look it up in the manual or on the label, and add it to the sheet or part"}},
		}
	}
}

func linkUnknown(r *resolver, s *sock) func() Finding {
	if s.trained == nil || s.trained.MBps > 0 {
		return nil
	}
	var because []Reason
	own, id, name := s.own(), string(s.ID), r.name(s)
	socket := func(known bool, what string) {
		if !known {
			because = append(because, r.unsaid(s, what+" of "+id))
		}
	}
	label := func(known bool, what string) {
		if !known {
			because = append(because, Reason{FromPart, "unknown, because the label does not say " + what + " of " + name})
		}
	}
	switch s.trained.Protocol {
	case link.PCIe:
		socket(s.link.Gen.Known(), "the generation")
		socket(s.link.Lanes.Known(), "the width")
		label(own.Lanes.Known(), "the width")
		label(own.Gen.Known(), "the generation")
	case link.SATA:
		socket(s.sataGen.Known(), "the SATA generation")
		label(own.Gen.Known(), "the generation")
	case link.USB:
		socket(s.USB != "", "the USB mode")
		label(s.enclosure().USB != "", "the USB mode")
	}
	return func() Finding {
		return Finding{Says: "the rate of " + name + " in " + id + " is unknown", Because: because,
			Cures: []Cure{{Says: "look it up in the manual or on the label"}}}
	}
}

// unsaid is the reason that what the socket's own description leaves out makes
// the answer unknown: the sheet, or for a socket that a part brings, that part.
func (r *resolver) unsaid(s *sock, what string) Reason {
	if s.parent != nil {
		return Reason{FromPart, "unknown, because the description of " + r.name(s.parent) + " does not say " + what}
	}
	return Reason{FromSheet, "unknown, because the sheet does not say " + what}
}

func linkBelowDrive(r *resolver, s *sock) func() Finding {
	d := s.drive()
	if d == nil || s.trained == nil || s.trained.MBps == 0 || s.outside() {
		return nil
	}
	own := d.Link().LineRate()
	if d.Protocol == link.SATA {
		own = link.SATARate(d.Gen)
	}
	if s.trained.MBps >= own.MBps() {
		return nil
	}
	return func() Finding {
		return Finding{
			Says:    r.name(s) + " could do " + own.String() + " and runs at " + s.trained.Text + ", " + s.trained.Rate + ", in " + string(s.ID),
			Because: slices.Clone(s.because),
		}
	}
}

// linkBelowDriveCures are only the sockets that are faster for this drive, and
// what lifts a rule that narrows this one.
func linkBelowDriveCures(r *resolver, s *sock) []Cure {
	var out []Cure
	d := s.drive()
	for _, c := range r.elsewhere(s) {
		k := r.place(c.Moves[0].Socket)
		if d.Protocol == link.PCIe && r.through(k, d.Link().Train(k.link)) > s.trained.MBps {
			out = append(out, c)
		}
	}
	for _, rule := range s.narrowed {
		out = append(out, r.undo(rule)...)
	}
	return out
}

// through is what a link in k carries on its way to the processor, in MB/s:
// its own rate, or its chipset's uplink where that is less.
func (r *resolver) through(k *sock, l link.Link) float64 {
	rate := l.LineRate().MBps()
	if root := r.sheet.RootOf(k.Socket); root != nil && root.Uplink != nil && root.Uplink.Link().Known() {
		rate = min(rate, root.Uplink.Link().LineRate().MBps())
	}
	return rate
}

func uplinkBelowLink(r *resolver, s *sock) func() Finding {
	root := r.sheet.RootOf(s.Socket)
	if s.drive() == nil || s.outside() || root == nil || root.Uplink == nil || s.trained == nil || s.trained.MBps == 0 {
		return nil
	}
	up := root.Uplink.Link().LineRate()
	if !up.Known() || up.MBps() >= s.trained.MBps {
		return nil
	}
	return func() Finding {
		return Finding{
			Says: r.name(s) + " in " + string(s.ID) + " is held to " + up.String() + " by the uplink of the " + root.Name,
			Because: []Reason{
				{FromSheet, "the uplink of the " + root.Name + " is " + root.Uplink.Link().String() + ", " + up.String()},
				{FromStandard, "everything behind an uplink shares it"},
			},
		}
	}
}

func linkBelowSocket(r *resolver, s *sock) func() Finding {
	d := s.drive()
	if d == nil || d.Protocol != link.PCIe || s.outside() || s.trained == nil || s.trained.MBps == 0 || s.trained.MBps >= s.link.LineRate().MBps() || s.trained.MBps < d.Link().LineRate().MBps() {
		return nil
	}
	return func() Finding {
		return Finding{
			Says:    string(s.ID) + " could carry " + s.link.String() + "; " + r.name(s) + " uses " + s.trained.Text,
			Because: slices.Clone(s.because),
		}
	}
}

func moduleTrial(r *resolver, s *sock) func() Finding {
	m, limit := s.module(), r.sheet.Memory.Module
	if m == nil || !limit.StatedBytes.Known() || m.SizeBytes <= limit.Largest() {
		return nil
	}
	return func() Finding {
		return Finding{
			Says:    r.name(s) + " is larger than the " + limit.Largest().Binary() + " a module that this board is known to take: a trial",
			Because: append([]Reason{{FromPart, r.name(s) + " is " + m.SizeBytes.Binary()}}, limitReasons("a module", limit)...),
			Cures:   []Cure{{Says: "prove it: a full count in set-up and in the system, and a memory test run to the end"}, {Says: "use smaller modules"}},
		}
	}
}

func moduleProven(r *resolver, s *sock) func() Finding {
	m, limit := s.module(), r.sheet.Memory.Module
	if m == nil || !limit.StatedBytes.Known() || m.SizeBytes <= limit.StatedBytes || m.SizeBytes > limit.ProvenBytes {
		return nil
	}
	return func() Finding {
		return Finding{
			Says:    r.name(s) + " is larger than the sheet states, and proven",
			Because: limitReasons("a module", limit),
		}
	}
}

func limitReasons(what string, l machine.Limit) []Reason {
	out := []Reason{{FromSheet, "the sheet states " + l.StatedBytes.Binary() + " for " + what}}
	if l.ProvenBytes.Known() {
		out = append(out, Reason{FromSheet, l.ProvenBytes.Binary() + " was proven by " + l.ProvenBy})
	}
	return out
}
