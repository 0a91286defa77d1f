package fit

// This file settles links: what ends meet, what a carrier leaves of its slot.

import (
	"slices"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/known"
	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
)

// What is not stated spans what there is: generations 1 to 6 (SATA 1 to 3), widths
// from x1 to the widest that the shape allows.
func genOf(g quantity.Gen) known.Range[quantity.Gen] {
	if g.Known() {
		return known.Exactly(g)
	}
	return known.Between(1, link.MaxGen)
}

func sataOf(g quantity.Gen) known.Range[quantity.Gen] {
	if g.Known() {
		return known.Exactly(g)
	}
	return known.Between[quantity.Gen](1, 3)
}

func lanesOf(l, widest quantity.Lanes) known.Range[quantity.Lanes] {
	if l.Known() {
		return known.Exactly(l)
	}
	return known.Between(1, widest)
}

// The rates of PCIe links, worked out once: every socket of every resolve has one.
var lineRate, planning = func() (line, plan [link.MaxGen + 1][17]quantity.Rate) {
	for gen := range line {
		for lanes := range line[gen] {
			l := link.Link{Gen: quantity.Gen(gen), Lanes: quantity.Lanes(lanes)}
			line[gen][lanes], plan[gen][lanes] = l.LineRate(), l.Planning()
		}
	}
	return line, plan
}()

func pcieLink(gen known.Range[quantity.Gen], lanes known.Range[quantity.Lanes]) Link {
	return Link{Protocol: link.PCIe, Gen: gen, Lanes: lanes, Rate: known.Between(lineRate[gen.Low][lanes.Low], lineRate[gen.High][lanes.High])}
}

// PCIe is a link of which both, one or neither measure is stated.
func PCIe(l link.Link) Link { return pcieLink(genOf(l.Gen), lanesOf(l.Lanes, 16)) }

func sataLink(gen known.Range[quantity.Gen]) Link {
	return Link{Protocol: link.SATA, Gen: gen, Rate: known.Between(link.SATARate(gen.Low), link.SATARate(gen.High))}
}

// usbLink is what two ends come to; where one is not stated the other bounds it.
func usbLink(a, b link.USBMode) Link {
	if m := a.Train(b); m != "" {
		return Link{Protocol: link.USB, USB: m, Rate: known.Exactly(m.LineRate())}
	}
	out := Link{Protocol: link.USB, Rate: known.Between(link.USB2.LineRate(), link.USB4By80.LineRate())}
	for _, m := range []link.USBMode{a, b} {
		if m != "" {
			out.Rate.High = min(out.Rate.High, m.LineRate())
		}
	}
	return out
}

// speaks is whether a drive speaks a protocol. A box of 2.5 or 3.5 inch without the
// U.2 connector is a SATA drive (SFF-8639); what has lanes or a fourth generation
// speaks PCIe.
func speaks(d *part.Drive, p link.Protocol) known.Truth {
	switch {
	case d.Protocol != "":
		return known.Of(d.Protocol == p)
	case d.Form == part.Form2i5 || d.Form == part.Form3i5 || d.Form.Optical():
		return known.Of(p == link.SATA)
	case p == link.USB:
		return known.No
	case d.Lanes.Known() || d.Gen > 3: // SATA has no lanes, and generations 1 to 3
		return known.Of(p == link.PCIe)
	}
	return known.Unknown
}

// ownGen and ownLanes are the PCIe end of a drive or card; its notches bound its width
// (PCI Express M.2), the length of its edge a card's.
func ownGen(p *part.Part) known.Range[quantity.Gen] {
	switch {
	case p.Drive != nil:
		return genOf(p.Drive.Gen)
	case p.Card != nil:
		return genOf(p.Card.Gen)
	}
	return known.Between(1, link.MaxGen)
}

func ownLanes(p *part.Part) known.Range[quantity.Lanes] {
	switch {
	case p.Drive != nil && p.Drive.M2 != nil:
		return lanesOf(p.Drive.Lanes, p.Drive.M2.MaxLanes())
	case p.Drive != nil:
		return lanesOf(p.Drive.Lanes, 4)
	case p.Card != nil && p.Card.M2 != nil:
		return lanesOf(p.Card.Lanes, p.Card.M2.MaxLanes())
	case p.Card != nil && p.Card.Connector.Known():
		return lanesOf(p.Card.Lanes, p.Card.Connector)
	case p.Card != nil:
		return lanesOf(p.Card.Lanes, 16)
	}
	return known.Between[quantity.Lanes](1, 16)
}

// train settles the link of the part in s.
func (r *resolver) train(s *sock) {
	p := s.piece.Part
	switch {
	case p.Enclosure != nil && s.Kind == machine.USB:
		s.link, s.linked = usbLink(s.USB, p.Enclosure.USB), true
	case p.Card != nil && s.speaks[0] != known.No:
		lanes := s.lanes
		if !p.Plain() {
			lanes = s.firstSegment()
		}
		s.link, s.linked = pcieLink(known.Min(ownGen(p), s.gen), known.Min(ownLanes(p), lanes)), true
	case p.Drive != nil && known.And(speaks(p.Drive, link.PCIe), s.speaks[0]) == known.Yes:
		s.link, s.linked = pcieLink(known.Min(ownGen(p), s.gen), known.Min(ownLanes(p), s.lanes)), true
	case p.Drive != nil && known.And(speaks(p.Drive, link.SATA), s.speaks[1]) == known.Yes:
		s.link, s.linked = sataLink(known.Min(sataOf(p.Drive.Gen), s.sata)), true
	case p.Drive != nil:
		r.trainEither(s)
	}
}

// trainEither is the link of a drive or socket that may speak either protocol, where
// the other end leaves one: what is not spoken cannot be what is seen.
func (r *resolver) trainEither(s *sock) {
	d := s.piece.Part.Drive
	pcie, sata := known.And(speaks(d, link.PCIe), s.speaks[0]), known.And(speaks(d, link.SATA), s.speaks[1])
	if pcie == known.No && sata == known.No || pcie != known.No && sata != known.No && r.mode != hopeful {
		return
	}
	s.linked = true
	if pcie != known.No {
		s.link = pcieLink(known.Min(genOf(d.Gen), s.gen), known.Min(ownLanes(s.piece.Part), s.lanes))
	}
	if sata != known.No { // of both, whichever is the faster
		if other := sataLink(known.Min(sataOf(d.Gen), s.sata)); pcie == known.No || other.Planning().High > s.link.Planning().High {
			s.link = other
		}
	}
}

// offer is the best link a free socket has to give, nil for memory slots.
func (s *sock) offer() *Link {
	var l Link
	switch {
	case s.Kind.Memory():
		return nil
	case s.speaks[0] == known.Yes:
		l = pcieLink(s.gen, s.lanes)
	case s.speaks[1] == known.Yes:
		l = sataLink(s.sata)
	case s.Kind == machine.USB:
		l = usbLink(s.USB, s.USB)
	default:
		return nil
	}
	return &l
}

// nest settles what the slot leaves of a carrier's position, before it is judged.
func (r *resolver) nest(s *sock) {
	up := s.parent
	if up == nil {
		return
	}
	switch up.state {
	case Off, Stopped:
		s.served = known.No
	case Unsure:
		s.served = known.Unknown
	}
	if s.outside() || up.card().Carrier.Switch {
		return // all positions live; what they share is the link of the part that brings them
	}
	// A plain carrier joins slot and drive: what it is rated for is no end of the link,
	// which may train faster than that, and fail.
	s.gen = known.Between(min(s.gen.Low, up.gen.Low), up.gen.High)
	served, lanes := up.segmentAt(s.FirstLane, s.lanes)
	s.served = known.And(s.served, served)
	s.lanes = lanes
}

// segmentAt is whether a segment of the slot begins at a lane, and how wide a position
// wired so is there, over all widths and splits that the slot may have.
func (s *sock) segmentAt(first int, wired known.Range[quantity.Lanes]) (known.Truth, known.Range[quantity.Lanes]) {
	yes, no := false, false
	out := known.Range[quantity.Lanes]{Low: wired.High, High: 0}
	try := func(split []quantity.Lanes) {
		for _, width := range [2]quantity.Lanes{s.lanes.Low, s.lanes.High} {
			lanes, live := segment(width, split, first)
			if !live {
				no = true
				continue
			}
			yes = true
			out.Low = min(out.Low, min(lanes, wired.Low))
			out.High = max(out.High, min(lanes, wired.High))
		}
	}
	try(s.split)
	for _, p := range s.perhaps {
		if finer(p, s.split) {
			try(p)
		}
	}
	switch {
	case !yes:
		return known.No, wired
	case no:
		return known.Unknown, out
	}
	return known.Yes, out
}

// firstSegment is the lanes a card has that is no plain carrier: those of the segment
// that begins at lane 0.
func (s *sock) firstSegment() known.Range[quantity.Lanes] {
	_, lanes := s.segmentAt(0, s.lanes)
	return lanes
}

// segment is the width of the segment of a slot that begins at a lane: false
// when none does. A slot that is not split is one segment; what lies beyond its
// width is not there.
func segment(width quantity.Lanes, split []quantity.Lanes, first int) (quantity.Lanes, bool) {
	if len(split) == 0 {
		return width, first == 0
	}
	start := 0
	for _, l := range split {
		if start >= int(width) {
			return 0, false
		}
		if start == first {
			return min(l, width-quantity.Lanes(start)), true
		}
		start += int(l)
	}
	return 0, false
}

// finer orders splits so that of two rules that split a slot the finer holds,
// whatever their order.
func finer(a, b []quantity.Lanes) bool {
	if len(a) != len(b) {
		return len(a) > len(b)
	}
	return slices.Compare(a, b) > 0
}

// positions counts the positions of the carrier in s that are served.
func (r *resolver) positions(s *sock) (served, all int) {
	for i := range r.sockets {
		if k := &r.sockets[i]; k.parent == s {
			all++
			if k.served == known.Yes {
				served++
			}
		}
	}
	return served, all
}

// whyDead is why a position of a carrier is not served.
func (r *resolver) whyDead(s *sock) []Reason {
	up := s.parent
	if up.state == Off || up.state == Stopped {
		return []Reason{{FromPlan, fact.Of(HolderUnseen, up.piece.ID, up.path)}}
	}
	out := []Reason{{FromPart, fact.Of(WiredTo, up.piece.ID, s.path.Last(), s.FirstLane, s.FirstLane+int(s.Socket.Lanes)-1)},
		{FromSheet, fact.Of(SlotIs, up.path, up.lanes, Split(up.split))}}
	out = append(out, ruleReasons(up.splitBy)...)
	out = append(out, ruleReasons(up.binding())...)
	return append(out, Reason{FromStandard, fact.Of(SegmentsTrain, s.FirstLane)})
}

// binding is the rules that really narrow a socket: a cap above another does not.
func (s *sock) binding() []*machine.Rule {
	var out []*machine.Rule
	for _, rule := range s.caps {
		for i := range rule.Then {
			e := &rule.Then[i]
			if e.Socket == s.ID && (e.MaxLanes.Known() && e.MaxLanes == s.lanes.High || e.MaxGen.Known() && e.MaxGen == s.gen.High || len(e.Protocols) > 0) {
				out = append(out, rule)
				break
			}
		}
	}
	return out
}

// whyLink is why a link is what it is.
func (r *resolver) whyLink(s *sock) []Reason {
	id, p := s.piece.ID, s.piece.Part
	out := make([]Reason, 0, 6)
	switch s.link.Protocol {
	case link.SATA:
		var own known.Range[quantity.Gen]
		if p.Drive != nil {
			own = sataOf(p.Drive.Gen)
		}
		return append(out, Reason{FromPart, fact.Of(PartLink, id, sataLink(own))}, Reason{FromSheet, fact.Of(SocketLink, s.path, sataLink(s.sata), r.feed(s))})
	case link.USB:
		out = append(out, Reason{FromPart, fact.Of(PartUSBIs, id, p.Enclosure.USB)}, Reason{FromSheet, fact.Of(PortUSBIs, s.path, s.USB, r.feed(s))})
		return append(append(out, ruleReasons(s.binding())...), Reason{FromStandard, fact.Of(USBSettles, s.link)})
	}
	out = append(out, Reason{FromPart, fact.Of(PartLink, id, pcieLink(ownGen(p), ownLanes(p)))},
		Reason{FromSheet, fact.Of(SocketLink, s.path, pcieLink(genOf(s.Socket.Gen), lanesOf(s.Socket.Lanes, s.widest())), r.feed(s))})
	if up := s.parent; up != nil && !s.outside() {
		out = append(out, Reason{FromSheet, fact.Of(CarriedBy, up.path, pcieLink(up.gen, up.lanes), Split(up.split))})
	}
	if !p.Plain() { // which has its positions in the segments
		out = append(out, ruleReasons(s.splitBy)...)
	}
	out = append(append(out, ruleReasons(s.binding())...), Reason{FromStandard, fact.Of(LinkSettles, s.link)})
	if p.Drive != nil && s.link.Known() {
		out = append(out, Reason{FromStandard, fact.Of(PacketsLeave, s.link)})
	}
	return out
}

// Feed is how a socket is fed, as an argument of facts: by a bridge, or by a root and
// its uplink.
type Feed struct {
	Bridge bool
	Root   machine.RootID
	Uplink *Link
}

func (r *resolver) feed(s *sock) Feed {
	if s.outside() {
		return Feed{Bridge: true}
	}
	root := r.sheet.RootOf(s.Socket)
	if root == nil {
		return Feed{}
	}
	f := Feed{Root: root.ID}
	if root.Uplink != nil {
		l := uplink(root)
		f.Uplink = &l
	}
	return f
}

// uplink is the link of a root to what it hangs on.
func uplink(root *machine.Root) Link {
	return pcieLink(genOf(root.Uplink.Gen), lanesOf(root.Uplink.Lanes, 16))
}

// Split is how a slot is divided, as an argument of facts.
type Split []quantity.Lanes
