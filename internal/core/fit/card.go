package fit

// This file holds the rules about cards and carriers.

import (
	"deepbay/internal/core/fact"
	"deepbay/internal/core/known"
	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// inSlot reports a card in a PCIe slot of the board.
func (l *look) inSlot() bool { return l.s.Kind == machine.Slot && l.s.parent == nil }

// edges are the length of a card's edge against that of its slot, in lanes. A slot is at
// least as long as it is wired; an edge is as long as it is wired, where nothing else is
// said.
func (l *look) edges() (edge, slot known.Range[quantity.Lanes]) {
	c := l.s.card()
	edge, slot = lanesOf(c.Connector, 16), lanesOf(l.s.Physical, 16)
	if !c.Connector.Known() && c.Lanes.Known() {
		edge = known.Exactly(c.Lanes)
		if l.notes {
			l.usual = append(l.usual, l.label(rig.Edge))
		}
	}
	if !l.s.Physical.Known() && l.s.Socket.Lanes.Known() {
		slot.Low = l.s.Socket.Lanes
	}
	return edge, slot
}

func slotLength(l *look) known.Truth {
	if l.s.Kind != machine.Slot {
		return known.Yes
	}
	edge, slot := l.edges()
	short := known.AtMost(edge, slot)
	out := known.Or(short, l.s.OpenEnd)
	if out == known.Unknown {
		if !edge.Exact() {
			l.miss(l.label(rig.Edge))
		}
		if !slot.Exact() {
			l.miss(l.sheetOf(rig.Long))
		}
		if short == known.No || l.s.OpenEnd == known.Unknown {
			l.miss(l.sheetOf(rig.OpenEnded))
		}
	}
	return out
}

func tellSlotLength(l *look) telling {
	edge, slot := l.edges()
	id, at := l.s.piece.ID, l.s.path
	return telling{says: fact.Of(SlotShort, id, edge.Low, at, slot.High),
		because: []Reason{{FromPart, fact.Of(EdgeIs, id, edge.Low)}, {FromSheet, fact.Of(SlotLongClosed, at, slot.High)}, {FromStandard, fact.Of(CardIntoSlot)}}}
}

// over is the card that lies over a rear opening, other than the one in except;
// nil if none does or the sheet does not number the openings.
func (r *resolver) over(opening int, except *sock) *sock {
	if opening == 0 {
		return nil
	}
	for i := range r.sockets {
		k := &r.sockets[i]
		if except.Kind == machine.Slot && k.Opening == opening {
			continue // two slots at one opening: neither lies over the other
		}
		if c := k.card(); c != nil && k.path != except.path && k.Opening > 0 && k.Opening <= opening && opening < k.Opening+max(1, c.Openings) {
			return k
		}
	}
	return nil
}

// slotCovered is whether no card in another slot lies over this one. A card is one
// opening wide where nothing else is said.
func slotCovered(l *look) known.Truth {
	if !l.inSlot() {
		return known.Yes
	}
	if l.over(l.s.Opening, l.s) != nil {
		return known.No
	}
	out := known.Yes
	for i := range l.sockets {
		k := &l.sockets[i]
		if c := k.card(); c == nil || c.Openings < 2 || k == l.s || k.Kind != machine.Slot || k.parent != nil || k.Opening > 0 && l.s.Opening > 0 {
			continue
		}
		out = known.Unknown
		for _, s := range []*sock{k, l.s} {
			if s.Opening == 0 {
				l.miss(s.fact(rig.Opens))
			}
		}
	}
	return out
}

func tellCovered(l *look) telling {
	k := l.over(l.s.Opening, l.s)
	return telling{says: fact.Of(SlotUnder, l.s.piece.ID, l.s.path, k.piece.ID, k.path),
		because: []Reason{{FromPart, fact.Of(CoversOpenings, k.piece.ID, fact.Count{N: k.card().Openings, Of: Openings})},
			{FromSheet, fact.Of(AtOpenings, k.path, k.Opening, l.s.path, l.s.Opening)}}}
}

// long is a card's length against the case's. What is no graphics card is mostly of
// half length or shorter.
func (l *look) long() (is, has measure) {
	c := l.s.card()
	usual := halfLength
	if c.Graphics {
		usual = endless
	}
	return mm(c.LengthMM, 0, usual, l.label(rig.CardLong)), mm(l.sheet.Chassis.CardMM, halfLength, endless, l.machine(rig.CaseLong))
}

func cardLength(l *look) known.Truth {
	if !l.inSlot() {
		return known.Yes
	}
	return l.within(l.long())
}

func tellCardLength(l *look) telling {
	is, has := l.long()
	id := l.s.piece.ID
	return telling{says: fact.Of(TooLong, id, is.Low, has.High, is.Low-has.High),
		because: []Reason{{FromPart, fact.Of(PartLong, id, is.Low)}, {FromSheet, fact.Of(CardsUpTo, has.High)}}, advice: []fact.Fact{fact.Of(UseShorter)}}
}

// cardBracket: a tower or workstation has full slots where it says nothing.
func cardBracket(l *look) known.Truth {
	if !l.inSlot() {
		return known.Yes
	}
	low := l.sheet.Chassis.LowSlots
	if low == known.Unknown && (l.sheet.Class == machine.Tower || l.sheet.Class == machine.Workstation || l.sheet.Class == "") {
		low = known.No
		if l.notes {
			l.usual = append(l.usual, l.machine(rig.CaseLow))
		}
	}
	out := known.Or(known.Not(low), l.s.card().LowBracket)
	if out == known.Unknown {
		if low == known.Unknown {
			l.miss(l.machine(rig.CaseLow))
		}
		if l.s.card().LowBracket == known.Unknown {
			l.miss(l.label(rig.Bracket))
		}
	}
	return out
}

func tellBracket(l *look) telling {
	id := l.s.piece.ID
	return telling{says: fact.Of(NoLowBracket, id), because: []Reason{{FromPart, fact.Of(FullBracketOnly, id)}, {FromSheet, fact.Of(LowOnly)}},
		advice: []fact.Fact{fact.Of(UseLowCard)}}
}

// cardRoom: whether there is room for a card in the slot of an adapter hangs on where it
// is mounted, which only a person who looks can tell.
func cardRoom(l *look) known.Truth {
	if l.s.Kind != machine.Slot || l.s.parent == nil {
		return known.Yes
	}
	if l.s.CardRoom == known.Unknown {
		l.miss(l.sheetOf(rig.RoomForCard))
	}
	return l.s.CardRoom
}

func tellNoRoom(l *look) telling {
	return telling{says: fact.Of(NoRoomForCard, l.s.piece.ID, l.s.path), because: []Reason{{FromLooked, fact.Of(SlotInClosed, l.s.path)}}}
}

func cardWide(l *look) known.Truth {
	if l.s.card().Carrier != nil {
		return known.Yes
	}
	return l.either(l.full(), known.Yes)
}

func tellNarrow(l *look) telling {
	return telling{says: fact.Of(CardNarrowed, l.s.piece.ID, l.ownLink(), l.s.link, l.s.path), because: l.whyLink(l.s)}
}

// carrierWide is whether the link of a switch carrier carries all its drives at once.
func carrierWide(l *look) known.Truth {
	c := l.s.card()
	if c.Carrier == nil || !c.Carrier.Switch || !l.s.linked {
		return known.Yes
	}
	n, sum := l.behind(l.s)
	if n < 2 {
		return known.Yes
	}
	return known.AtMost(sum, l.s.link.Rate)
}

// behind counts the drives on a carrier and what their own links come to.
func (r *resolver) behind(s *sock) (n int, sum known.Range[quantity.Rate]) {
	for i := range r.sockets {
		k := &r.sockets[i]
		if k.parent != s || k.drive() == nil {
			continue
		}
		n++
		d := k.drive()
		own := sataLink(known.Min(sataOf(d.Gen), k.sata))
		if k.Kind != machine.SATA {
			own = pcieLink(known.Min(ownGen(k.piece.Part), k.gen), known.Min(ownLanes(k.piece.Part), k.lanes))
		}
		sum.Low += own.Rate.Low
		sum.High += own.Rate.High
	}
	return n, sum
}

func tellShared(l *look) telling {
	n, _ := l.behind(l.s)
	id := l.s.piece.ID
	because := []Reason{{FromPart, fact.Of(ChipJoins, id, l.s.link)}, {FromStandard, fact.Of(OneLinkShared)}}
	if l.either(l.full(), known.Yes) != known.Yes { // the slot gives it less than it could use
		because = append(because, l.whyLink(l.s)...)
	}
	return telling{says: fact.Of(DrivesShare, fact.Count{N: n, Of: Drives}, id, l.s.link), because: because}
}

// slotWatts is what a slot of a length feeds its card (PCI Express CEM): 75 W for
// x16, 25 W for x4 and x8, 10 W for x1.
func slotWatts(long quantity.Lanes) Watts {
	switch {
	case long >= 16:
		return 75
	case long >= 4:
		return 25
	}
	return 10
}

// plugWatts is what a card draws from a plug (PCI Express CEM); the other plugs
// feed drives.
var plugWatts = map[part.Plug]Watts{part.Plug6: 75, part.Plug8: 150, part.Plug16: 600}

// fedWatts is what the plugs of a card feed it.
func fedWatts(c *part.Card) Watts {
	sum := Watts(0)
	for _, p := range c.Plugs {
		sum += plugWatts[p]
	}
	return sum
}

func slotPower(l *look) known.Truth {
	c := l.s.card()
	if l.s.Kind != machine.Slot || c.Watts == 0 {
		return known.Unknown
	}
	_, slot := l.edges()
	feeds := known.Between(slotWatts(slot.Low)+fedWatts(c), slotWatts(slot.High)+fedWatts(c))
	return known.AtMost(known.Exactly(Watts(c.Watts)), feeds)
}

func tellSlotPower(l *look) telling {
	c, id, at := l.s.card(), l.s.piece.ID, l.s.path
	_, slot := l.edges()
	out := telling{says: fact.Of(SlotFeedsLess, id, Watts(c.Watts), at, slotWatts(slot.High)+fedWatts(c)),
		because: []Reason{{FromPart, fact.Of(Draws, id, Watts(c.Watts))}, {FromStandard, fact.Of(SlotFeeds, slot.High, slotWatts(slot.High))}}}
	for _, p := range c.Plugs {
		out.because = append(out.because, Reason{FromStandard, fact.Of(PlugFeeds, p, plugWatts[p])})
	}
	return out
}

// A box on a USB port.

func boxFull(l *look) known.Truth {
	e := l.s.enclosure()
	if !l.s.linked || e.USB == "" || l.s.link.USB == "" {
		return known.Unknown
	}
	return known.Of(l.s.link.Rate.Low >= e.USB.LineRate())
}

func tellBoxNarrow(l *look) telling {
	return telling{says: fact.Of(BoxNarrowed, l.s.piece.ID, l.s.enclosure().USB, l.s.link, l.s.path), because: l.whyLink(l.s)}
}

func boxSupply(l *look) known.Truth {
	if !l.s.outside() || l.s.drive().Form != part.Form3i5 {
		return known.Yes
	}
	own := l.s.parent.enclosure().OwnSupply
	if own == known.Unknown {
		l.miss(rig.Fact{Item: l.s.parent.piece.ID, Attr: rig.OwnSupply})
	}
	return own
}

func tellBoxSupply(l *look) telling {
	id, box := l.s.piece.ID, l.s.parent.piece.ID
	return telling{says: fact.Of(BoxTooWeak, id, box),
		because: []Reason{{FromPart, fact.Of(BoxLivesFromPort, box)}, {FromStandard, fact.Of(PortFeeds5V)}}, advice: []fact.Fact{fact.Of(UseFedBox)}}
}

// notOutside: what a drive loses in a box is said whenever it is in one.
func notOutside(l *look) known.Truth {
	return known.Of(!l.s.outside())
}

// tellOutside says what a drive in a box loses against a place inside.
func tellOutside(l *look) telling {
	up := l.s.parent
	e, box := up.enclosure(), up.piece.ID
	inside := ownRate(l.s.piece.Part.Drive)
	here := known.Min(up.link.Planning(), inside)
	out := telling{says: fact.Of(OutsideMoves, l.s.piece.ID, here, box, inside),
		because: []Reason{{FromPart, fact.Of(BoxLinkIs, box, up.link)}, {FromStandard, fact.Of(BridgeCosts)}}}
	loss := func(a, bad quantity.Answer, says, open fact.Code, attr rig.Attr) {
		switch a {
		case bad:
			out.because = append(out.because, Reason{FromPart, fact.Of(says, box)})
		case known.Unknown:
			out.because = append(out.because, Reason{FromPart, fact.Of(open, box)})
			out.missing = append(out.missing, rig.Fact{Item: box, Attr: attr})
		}
	}
	loss(e.Queues, known.No, BoxOneByOne, BoxQueuesUnknown, rig.Queues)
	loss(e.Trims, known.No, BoxNoTrim, BoxTrimUnknown, rig.Trims)
	loss(e.Translates, known.Yes, BoxTranslates, BoxTranslatesUnknown, rig.Translates)
	return out
}

// ownRate is what a drive moves by itself, from and to where its label does not say.
func ownRate(d *part.Drive) known.Range[quantity.Rate] {
	pcie := pcieLink(genOf(d.Gen), lanesOf(d.Lanes, 4))
	sata := sataLink(sataOf(d.Gen))
	var out known.Range[quantity.Rate]
	switch {
	case speaks(d, link.SATA) == known.Yes:
		out = sata.Rate
	case speaks(d, link.PCIe) == known.Yes:
		out = pcie.Planning()
	default:
		out = known.Between(min(sata.Rate.Low, pcie.Planning().Low), max(sata.Rate.High, pcie.Planning().High))
	}
	if rated := quantity.MBps(d.ReadMBps); rated.Known() {
		out = known.Min(out, known.Exactly(rated))
	}
	return out
}
