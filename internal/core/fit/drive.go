package fit

// This file holds the rules about drives, and the mechanical ones about all M.2 cards.

import (
	"slices"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/known"
	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// kindOf is the kind of a part.
func kindOf(p *part.Part) kinds {
	switch {
	case p.Drive != nil:
		return drives
	case p.Module != nil:
		return modules
	case p.Card != nil:
		return cards
	case p.Enclosure != nil:
		return boxes
	}
	return fittings
}

func kindSuits(l *look) known.Truth { return known.Of(rig.Suits(l.s.piece.Part, l.s.Socket)) }

func tellKind(l *look) telling {
	id, at := l.s.piece.ID, l.s.path
	return telling{says: fact.Of(WrongKind, id, at, ShapeOf(l.s.piece.Part), l.s.Kind),
		because: []Reason{{FromPart, fact.Of(PartShape, id, ShapeOf(l.s.piece.Part))}, {FromSheet, fact.Of(SocketShape, at, l.s.Kind)}}}
}

// Shape is what a part looks like to a socket, as an argument of facts.
type Shape string

// The shapes that are no form of a drive or module.
const (
	ShapeAdapter Shape = "adapter"
	ShapeCard    Shape = "card"
	ShapeBox     Shape = "box"
	ShapeFitting Shape = "fitting"
)

// ShapeOf is a drive's or module's form, or one of the shapes.
func ShapeOf(p *part.Part) any {
	switch {
	case p.Drive != nil:
		return p.Drive.Form
	case p.Card != nil && p.Card.M2 != nil:
		return ShapeAdapter
	case p.Card != nil:
		return ShapeCard
	case p.Module != nil:
		return p.Module.Form
	case p.Enclosure != nil:
		return ShapeBox
	}
	return ShapeFitting
}

// notches are those of an M.2 card; with four lanes it is notched at M only, for the
// notch at B takes the contacts of the upper two (PCI Express M.2).
func notches(p *part.Part) []part.Key {
	m := p.M2()
	if len(m.Keys) == 0 && p.Drive != nil && p.Drive.Protocol == link.PCIe && p.Drive.Lanes > 2 {
		return []part.Key{part.KeyM}
	}
	return m.Keys
}

func m2Key(l *look) known.Truth {
	if l.s.m2() == nil {
		return known.Yes
	}
	return among(l, value[part.Key]{l.s.Key, l.sheetOf(rig.Keyed)}, notches(l.s.piece.Part), l.label(rig.Notched))
}

func tellKey(l *look) telling {
	id, at, cut := l.s.piece.ID, l.s.path, notches(l.s.piece.Part)
	because := []Reason{{FromPart, fact.Of(NotchesAre, id, cut)}}
	if len(l.s.m2().Keys) == 0 {
		because = []Reason{{FromStandard, fact.Of(FourLanesKeyM, id)}}
	}
	return telling{says: fact.Of(NoNotch, id, cut, at, l.s.Key),
		because: append(because, Reason{FromSheet, fact.Of(KeyIs, at, l.s.Key)}, Reason{FromStandard, fact.Of(NotchMeetsKey)})}
}

func m2Length(l *look) known.Truth {
	m := l.s.m2()
	if m == nil || l.s.parent != nil && len(l.s.LengthsMM) == 0 {
		return known.Yes // carriers and boxes have holes for all lengths, or a clip
	}
	return among(l, value[quantity.Millimetres]{m.LengthMM, l.label(rig.CardLong)}, l.s.LengthsMM, l.sheetOf(rig.Posts))
}

func tellLength(l *look) telling {
	id, at, m := l.s.piece.ID, l.s.path, l.s.m2()
	return telling{says: fact.Of(NoPost, id, m.LengthMM, at, l.s.LengthsMM),
		because: []Reason{{FromPart, fact.Of(PartLong, id, m.LengthMM)}, {FromSheet, fact.Of(PostsAt, at, l.s.LengthsMM)}, {FromStandard, fact.Of(PostAtLength)}}}
}

// room words a measure that meets less room than it needs: the rules about room differ
// only in what is measured.
func (l *look) room(is, has measure, part, sheet fact.Code) telling {
	id, at := l.s.piece.ID, l.s.path
	return telling{says: fact.Of(TooBig, fact.Of(part, id, is.Low), fact.Of(sheet, at, has.High), is.Low-has.High),
		because: []Reason{{FromPart, fact.Of(part, id, is.Low)}, {FromSheet, fact.Of(sheet, at, has.High)}}}
}

// wide, tall and deep are an M.2 card against its socket.
func (l *look) wide() (is, has measure) {
	return mm(l.s.m2().WidthMM, usualCardWidth, usualCardWidth, l.label(rig.CardWide)), mm(l.s.WidthMM, usualCardWidth, endless, l.sheetOf(rig.RoomBeside))
}

// top is how high a card stands; one without a heatsink of its own is bare.
func (l *look) top() measure {
	m := l.s.m2()
	if m.Heatsink == quantity.Yes {
		return mm(m.TopMM, 0, endless, l.label(rig.CardTall))
	}
	return mm(m.TopMM, 0, bareCardTop, l.label(rig.CardTall))
}

func (l *look) tall() (is, has measure) {
	return l.top(), mm(l.s.TopMM, openSocketTop, endless, l.sheetOf(rig.RoomAbove))
}

func (l *look) deep() (is, has measure) {
	m := l.s.m2()
	is = mm(m.BottomMM, 0, bareCardUnder, l.label(rig.CardDeep))
	if m.TwoSided == quantity.No {
		is.Range, is.usual = known.Exactly[quantity.Millimetres](0), false
	}
	return is, mm(l.s.BottomMM, openSocketUnder, endless, l.sheetOf(rig.RoomUnder))
}

func m2Width(l *look) known.Truth { return l.m2Room(l.wide) }
func tellWidth(l *look) telling   { is, has := l.wide(); return l.room(is, has, PartWide, RoomWide) }

func m2Height(l *look) known.Truth { return l.m2Room(l.tall) }
func tellHeight(l *look) telling   { is, has := l.tall(); return l.room(is, has, PartTall, RoomTall) }

func m2Under(l *look) known.Truth { return l.m2Room(l.deep) }
func tellUnder(l *look) telling   { is, has := l.deep(); return l.room(is, has, PartDeep, RoomDeep) }

func (l *look) m2Room(measures func() (is, has measure)) known.Truth {
	if l.s.m2() == nil {
		return known.Yes
	}
	return l.within(measures())
}

// m2Cover asks for room under the card above; room that is there without one is
// m2Height's question.
func m2Cover(l *look) known.Truth {
	if l.s.m2() == nil || l.s.Under == 0 {
		return known.Yes
	}
	k := l.over(l.s.Under, l.s)
	if k == nil {
		return known.Yes
	}
	return l.within(l.top(), mm(l.s.UnderMM, openSocketTop, endless, l.sheetOf(rig.RoomCovered)))
}

func tellCover(l *look) telling {
	k, id, at := l.over(l.s.Under, l.s), l.s.piece.ID, l.s.path
	top := l.top()
	return telling{says: fact.Of(UnderCard, fact.Of(PartTall, id, top.Low), k.piece.ID, at, l.s.UnderMM, top.Low-l.s.UnderMM),
		because: []Reason{{FromPart, fact.Of(PartTall, id, top.Low)}, {FromSheet, fact.Of(LiesUnder, at, l.s.Under, l.s.UnderMM)}, {FromPlan, fact.Of(IsIn, k.piece.ID, k.path)}},
		advice:  []fact.Fact{fact.Of(UseFlatter)}}
}

// tallDrive is a drive's height against its bay's.
func (l *look) tallDrive() (is, has measure) {
	usual := func(form part.Form) quantity.Millimetres {
		switch form {
		case part.Form2i5:
			return usualFlatDrive
		case part.FormSlim:
			return tallSlim
		case part.Form5i25:
			return usualHalfHeight
		}
		return usualTallDrive
	}
	d := l.s.drive()
	bay := usual(d.Form)
	for _, f := range l.s.berth.Drives {
		bay = max(bay, usual(f))
	}
	if d.Form == part.FormSlim { // they are made in two heights, and so are their bays
		bay = flatSlim
	}
	return mm(d.HeightMM, 0, usual(d.Form), l.label(rig.DriveTall)), mm(l.s.berth.BayMM, bay, endless, l.s.bayFact(rig.BayHeight))
}

func bayHeight(l *look) known.Truth {
	if l.s.kept() || l.s.berth.full || l.s.Kind != machine.SATA && l.s.Kind != machine.U2 {
		return known.Yes
	}
	return l.within(l.tallDrive())
}

func tellBayHeight(l *look) telling {
	is, has := l.tallDrive()
	out := l.room(is, has, PartHigh, BayTakesHigh)
	bay := fact.Of(BayTakesHigh, l.s.bayName(), has.High)
	out.says.Args[1], out.because[1].Fact = bay, bay
	return out
}

func powerDisable(l *look) known.Truth {
	d := l.s.drive()
	if l.s.Kind != machine.SATA || l.s.outside() || d.PowerDisable != quantity.Yes {
		return known.Yes // a label without the pin says nothing of it
	}
	if l.sheet.Chassis.Feeds3V3 == quantity.Unknown {
		return l.miss(l.machine(rig.Feeds3V3))
	}
	return known.Not(l.sheet.Chassis.Feeds3V3)
}

func tellPowerDisable(l *look) telling {
	id := l.s.piece.ID
	return telling{says: fact.Of(HeldOff, id),
		because: []Reason{{FromPart, fact.Of(HasPowerPin, id)}, {FromSheet, fact.Of(SupplyFeeds3V3)}, {FromStandard, fact.Of(PowerPinHolds)}},
		advice:  []fact.Fact{fact.Of(LeadWithout3V3)}}
}

// positionServed is whether what brings the socket serves it.
func positionServed(l *look) known.Truth {
	if l.s.served == known.Unknown && l.notes {
		l.missed = append(l.missed, l.unserved(l.s)...)
	}
	return l.s.served
}

// unserved is what would tell whether a position is served.
func (r *resolver) unserved(s *sock) []rig.Fact {
	up := s.parent
	if up.state == Unsure {
		return r.missing(up)
	}
	var out []rig.Fact
	if !up.lanes.Exact() && !up.Socket.Lanes.Known() {
		out = append(out, up.fact(rig.PlaceLanes))
	}
	return append(out, r.hangsOn(up.doubts)...)
}

// hangsOn is what would tell whether rules of the sheet apply.
func (r *resolver) hangsOn(rules []*machine.Rule) []rig.Fact {
	var out []rig.Fact
	add := func(f rig.Fact) {
		if !slices.Contains(out, f) {
			out = append(out, f)
		}
	}
	for _, rule := range rules {
		for i := range rule.When {
			c := &rule.When[i]
			if r.holds(c) != known.Unknown {
				continue
			}
			switch {
			case c.Processor != "":
				add(rig.Fact{Attr: rig.Fitted})
			case c.Setting != "":
				add(rig.Fact{Setting: c.Setting, Attr: rig.SetTo})
			case r.socket(c.Socket).piece == nil:
				add(rig.Fact{Socket: rig.On(c.Socket), Attr: rig.HoldsNow})
			default:
				add(rig.Fact{Item: r.socket(c.Socket).piece.ID, Attr: rig.Protocol})
			}
		}
	}
	return out
}

func tellDead(l *look) telling {
	return telling{says: fact.Of(NotServed, l.s.piece.ID, l.s.path), because: l.whyDead(l.s)}
}

// socketOpen is whether no rule of the sheet closes the socket.
func socketOpen(l *look) known.Truth {
	if l.s.closed == known.Unknown && l.notes {
		l.missed = append(l.missed, l.hangsOn(l.s.doubts)...)
	}
	return known.Not(l.s.closed)
}

func tellOff(l *look) telling {
	return telling{says: fact.Of(IsOff, l.s.piece.ID, l.s.path), because: ruleReasons(l.s.closedBy)}
}

// spoken is whether socket and drive have a protocol in common.
func spoken(l *look) known.Truth {
	d, out := l.s.drive(), known.No
	for i, p := range protocols {
		out = known.Or(out, known.And(speaks(d, p), l.s.speaks[i]))
	}
	if out == known.Unknown && l.notes {
		if speaks(d, link.PCIe) == known.Unknown {
			l.miss(l.label(rig.Protocol))
		}
		if l.s.Protocols == nil && l.s.Kind != machine.SATA {
			l.miss(l.sheetOf(rig.Speaks))
		}
		l.missed = append(l.missed, l.hangsOn(l.s.doubts)...)
	}
	return out
}

// speaking lists what a socket surely speaks.
func (s *sock) speaking() []link.Protocol {
	var out []link.Protocol
	for i, p := range protocols {
		if s.speaks[i] == known.Yes {
			out = append(out, p)
		}
	}
	return out
}

func tellProtocol(l *look) telling {
	d, id, at := l.s.drive(), l.s.piece.ID, l.s.path
	p := d.Protocol
	if p == "" {
		p = link.SATA // by its form
	}
	says := fact.Of(SpeaksOther, id, p, at, l.s.speaking())
	if len(l.s.speaking()) == 0 {
		says = fact.Of(SpeaksNothing, id, p, at)
	}
	out := telling{says: says, because: []Reason{{FromPart, fact.Of(DriveSpeaks, id, p)}, {FromSheet, fact.Of(WiredFor, at, l.s.Protocols)}}}
	out.because = append(append(out.because, ruleReasons(l.s.binding())...), Reason{FromStandard, fact.Of(NotchSaysNothing)})
	if use := slices.DeleteFunc(slices.Clone(l.s.Protocols), func(q link.Protocol) bool { return q == p }); len(use) > 0 {
		out.advice = []fact.Fact{fact.Of(UseDriveFor, use)}
	}
	return out
}

// linkKnown is whether nothing that is not stated leaves the rate open.
func linkKnown(l *look) known.Truth {
	s := l.s
	if !s.linked || s.link.Known() || s.state != Live {
		return known.Yes
	}
	if d := s.drive(); d != nil && d.Form.Optical() {
		return known.Yes // a disc is slower than any link
	}
	asks := look{resolver: l.resolver, s: s, notes: true}
	asks.linkFacts()
	if len(asks.missed) == 0 {
		return known.Yes // only a carrier's rating leaves it open, and that rule says so
	}
	l.missed = append(l.missed, asks.missed...)
	return known.No
}

// linkFacts notes what would tell the rate.
func (l *look) linkFacts() {
	s, p := l.s, l.s.piece.Part
	switch s.link.Protocol {
	case link.PCIe:
		if !s.link.Gen.Exact() {
			if p.Drive != nil && !p.Drive.Gen.Known() || p.Card != nil && !p.Card.Gen.Known() {
				l.miss(l.label(rig.PartGen))
			}
			l.gen(s)
		}
		if !s.link.Lanes.Exact() {
			if p.Drive != nil && !p.Drive.Lanes.Known() || p.Card != nil && !p.Card.Lanes.Known() {
				l.miss(l.label(rig.PartLanes))
			}
			l.lanes(s)
		}
	case link.SATA:
		if !p.Drive.Gen.Known() {
			l.miss(l.label(rig.PartGen))
		}
		if !s.Socket.SATAGen.Known() {
			l.miss(l.sheetOf(rig.SATAPort))
		}
	case link.USB:
		if p.Enclosure.USB == "" {
			l.miss(l.label(rig.PartUSB))
		}
		if s.USB == "" {
			l.miss(l.sheetOf(rig.USBPort))
		}
	}
}

// gen and lanes note what leaves a socket's own end open, up to the board.
func (l *look) gen(s *sock) {
	if !s.gen.Exact() && !s.Socket.Gen.Known() {
		l.miss(s.fact(rig.PlaceGen))
	}
	l.missed = append(l.missed, l.hangsOn(s.doubts)...)
	if s.parent != nil && !s.outside() && !s.gen.Exact() && !s.parent.card().Carrier.Switch {
		l.gen(s.parent)
	}
}

func (l *look) lanes(s *sock) {
	if !s.lanes.Exact() && !s.Socket.Lanes.Known() {
		l.miss(s.fact(rig.PlaceLanes))
	}
	l.missed = append(l.missed, l.hangsOn(s.doubts)...)
	if s.parent != nil && !s.outside() && !s.lanes.Exact() && !s.parent.card().Carrier.Switch {
		l.lanes(s.parent)
	}
}

func tellLinkUnknown(l *look) telling {
	return telling{says: fact.Of(RateUnknown, l.s.piece.ID, l.s.path, l.s.link), missing: l.missed}
}

// carrierRated is whether the plain carrier below the drive is rated for the
// generation at which the link will train.
func carrierRated(l *look) known.Truth {
	up := l.s.parent
	if up == nil || l.s.outside() || up.card() == nil || up.card().Carrier.Switch {
		return known.Yes
	}
	return l.either(known.AtMost(known.Min(ownGen(l.s.piece.Part), up.gen), genOf(up.card().Gen)), known.Yes)
}

// either joins what is true of the part's link if it speaks PCIe and if it speaks SATA,
// where it may be either.
func (l *look) either(pcie, sata known.Truth) known.Truth {
	p, s := l.s.speaks[0], known.No
	if d := l.s.drive(); d != nil {
		p, s = known.And(p, speaks(d, link.PCIe)), known.And(l.s.speaks[1], speaks(d, link.SATA))
	}
	return known.And(known.Or(known.Not(p), pcie), known.Or(known.Not(s), sata))
}

func tellCarrierRated(l *look) telling {
	up := l.s.parent
	return telling{says: fact.Of(BeyondRating, l.s.piece.ID, l.s.path, up.piece.ID, up.card().Gen, known.Min(ownGen(l.s.piece.Part), up.gen)),
		because: []Reason{{FromPart, fact.Of(RatedFor, up.piece.ID, up.card().Gen)}, {FromStandard, fact.Of(RatingIsNoEnd)}},
		advice:  []fact.Fact{fact.Of(ForceSlot, up.path, up.card().Gen)}}
}

// full is whether a PCIe link is as fast as the part's own end; measure is compared
// with measure, so a narrow socket shows whatever the generations are.
func (l *look) full() known.Truth {
	p := l.s.piece.Part
	lanes := l.s.lanes
	if p.Card != nil && !p.Plain() {
		lanes = l.s.firstSegment()
	}
	return known.And(known.AtMost(ownGen(p), l.s.gen), known.AtMost(ownLanes(p), lanes))
}

func driveFull(l *look) known.Truth {
	if l.s.outside() {
		return known.Yes
	}
	return l.either(l.full(), known.AtMost(sataOf(l.s.drive().Gen), l.s.sata))
}

func tellBelowDrive(l *look) telling {
	return telling{says: fact.Of(BelowDrive, l.s.piece.ID, l.ownLink(), l.s.link, l.s.path), because: l.whyLink(l.s)}
}

// ownLink is the part's own end.
func (l *look) ownLink() Link {
	p := l.s.piece.Part
	if l.s.link.Protocol == link.SATA {
		return sataLink(sataOf(p.Drive.Gen))
	}
	return pcieLink(ownGen(p), ownLanes(p))
}

func uplinkWide(l *look) known.Truth {
	root := l.sheet.RootOf(l.s.Socket)
	switch {
	case l.s.outside() || root != nil && root.Uplink == nil:
		return known.Yes
	case root == nil:
		return known.Unknown // nobody says where it hangs
	}
	p, up := l.s.piece.Part, uplink(root).Rate
	return l.either(known.AtMost(pcieLink(known.Min(ownGen(p), l.s.gen), known.Min(ownLanes(p), l.s.lanes)).Rate, up),
		known.AtMost(sataLink(known.Min(sataOf(p.Drive.Gen), l.s.sata)).Rate, up))
}

func tellUplink(l *look) telling {
	root := l.sheet.RootOf(l.s.Socket)
	up := uplink(root)
	return telling{says: fact.Of(HeldByUplink, l.s.piece.ID, l.s.path, up, root.ID),
		because: []Reason{{FromSheet, fact.Of(UplinkIs, root.ID, up)}, {FromStandard, fact.Of(UplinkShared)}}}
}

// socketUsed is whether a socket that serves its drive fully has nothing to spare.
func socketUsed(l *look) known.Truth {
	if l.s.outside() {
		return known.Yes
	}
	p := l.s.piece.Part
	spare := known.And(known.AtMost(l.s.gen, ownGen(p)), known.AtMost(l.s.lanes, ownLanes(p)))
	return l.either(known.Or(known.Not(l.full()), spare), known.Yes)
}

func tellBelowSocket(l *look) telling {
	return telling{says: fact.Of(SocketCouldMore, l.s.path, pcieLink(l.s.gen, l.s.lanes), l.s.piece.ID, l.s.link), because: l.whyLink(l.s)}
}

// coolWatts is what a bare drive may draw at full load before it is judged by its
// watts and not by its generation: drives up to so much do without a heatsink in
// moving air, from hotWatts on none does. Fairly sure figures of the trade.
const (
	coolWatts = 6
	hotWatts  = 8
)

// warmth grades a PCIe drive that has no heatsink, its own or the socket's: 2
// needs one, 1 may slow down, 0 is fine. Where either heatsink is not stated
// nothing is claimed.
func warmth(s *sock) int {
	d := s.drive()
	if d.M2 == nil || d.Protocol != link.PCIe || d.M2.Heatsink != quantity.No || s.Heatsink != quantity.No {
		return 0
	}
	switch {
	case d.Watts >= hotWatts, d.Gen >= 5 && (d.Watts == 0 || d.Watts > coolWatts):
		return 2
	case d.Watts > coolWatts, d.Gen >= 4:
		return 1
	}
	return 0
}

// heatStated is whether everything is stated that warmth hangs on.
func heatStated(s *sock) bool {
	d := s.drive()
	return d.M2 == nil || d.M2.Heatsink == quantity.Yes || s.Heatsink == quantity.Yes || d.Protocol == link.SATA ||
		d.Protocol != "" && d.M2.Heatsink == quantity.No && s.Heatsink == quantity.No && d.Watts > 0 && d.Gen.Known()
}

func notHot(l *look) known.Truth {
	if warmth(l.s) == 2 {
		return known.No
	}
	if !heatStated(l.s) {
		return known.Unknown
	}
	return known.Yes
}

func notWarm(l *look) known.Truth {
	if warmth(l.s) == 1 {
		return known.No
	}
	if !heatStated(l.s) {
		return known.Unknown
	}
	return known.Yes
}

// heatKnown asks about heatsinks where it matters: a drive that surely needs one if it has
// none. Of slower drives labels and manuals never say, and little is lost.
func heatKnown(l *look) known.Truth {
	d := l.s.drive()
	if heatStated(l.s) || d.Watts < hotWatts && d.Gen < 5 || d.Watts > 0 && d.Watts <= coolWatts {
		return known.Yes
	}
	open := known.No
	if d.M2.Heatsink == quantity.Unknown {
		open = l.miss(l.label(rig.HasSink))
	}
	if l.s.Heatsink == quantity.Unknown {
		open = l.miss(l.sheetOf(rig.HasSink))
	}
	return known.Of(open == known.No)
}

func tellHeatUnknown(l *look) telling {
	return telling{says: fact.Of(HeatUnknown, l.s.piece.ID, l.s.path), missing: l.missed}
}

func tellHot(l *look) telling  { return l.heat(NeedsHeatsink, Gen5Draws) }
func tellWarm(l *look) telling { return l.heat(MaySlowDown, Gen4Draws) }

func (l *look) heat(says, why fact.Code) telling {
	id, at := l.s.piece.ID, l.s.path
	out := telling{says: fact.Of(says, id, at),
		because: []Reason{{FromPart, fact.Of(BringsNoHeatsink, id)}, {FromSheet, fact.Of(SocketHasNone, at)}, {FromStandard, fact.Of(why)}},
		advice:  []fact.Fact{fact.Of(FitHeatsink)}}
	if w := l.s.drive().Watts; w > 0 {
		out.because = append(out.because, Reason{FromPart, fact.Of(Draws, id, Watts(w))})
	}
	return out
}

// Watts is power, as an argument of facts.
type Watts float64
