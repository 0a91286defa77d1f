package fit

// This file gives carriers, adapters and USB boxes their sockets: which positions
// live, at which width and generation, and why not.

import (
	"slices"
	"strconv"

	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
)

func (s *sock) card() *part.Card {
	if s.piece == nil {
		return nil
	}
	return s.piece.Part.Card
}

// m2 is the mechanical side of the M.2 drive or adapter in s.
func (s *sock) m2() *part.M2 {
	if s.piece == nil {
		return nil
	}
	return s.piece.Part.M2()
}

func (s *sock) enclosure() *part.Enclosure {
	if s.piece == nil {
		return nil
	}
	return s.piece.Part.Enclosure
}

// outside reports a socket of a USB box.
func (s *sock) outside() bool { return s.parent != nil && s.parent.enclosure() != nil }

// nest settles what the slot leaves of a carrier's position, before it is judged.
func (r *resolver) nest(s *sock) {
	up := s.parent
	if up == nil {
		return
	}
	if up.state == Off || up.state == Stopped {
		if s.dead = unread; !r.quiet() {
			s.dead = []Reason{{FromPlan, r.name(up) + " is not seen in " + string(up.ID)}}
		}
		return
	}
	if s.outside() || up.card().Carrier.Switch {
		return // all positions live; what they share is the link of the part that brings them
	}
	s.link.Gen = min(s.link.Gen, up.link.Gen) // unknown where either is
	width := up.link.Lanes
	if !width.Known() {
		s.link.Lanes = 0
		return
	}
	lanes, live := segment(width, up.split, s.FirstLane)
	if live {
		s.link.Lanes = min(s.link.Lanes, lanes)
		return
	}
	if r.quiet() {
		s.dead = unread
		return
	}
	s.dead = []Reason{
		{FromPart, "position " + strconv.Itoa(s.path.Last()) + " of " + r.name(up) + " is wired to lanes " + strconv.Itoa(s.FirstLane) + " to " + strconv.Itoa(s.FirstLane+int(s.Lanes)-1) + " of the slot"},
		{FromSheet, string(up.ID) + " is " + width.String() + ", " + splitText(up.split)},
	}
	for _, rule := range up.splitBy {
		s.dead = append(s.dead, r.ruleReason(rule))
	}
	for _, rule := range up.narrowed {
		s.dead = append(s.dead, r.ruleReason(rule))
	}
	s.dead = append(s.dead, Reason{FromStandard, "each segment of a slot trains one link, on its lowest lanes; no segment begins at lane " + strconv.Itoa(s.FirstLane)})
}

// unread stands for reasons that nobody reads.
var unread = []Reason{{}}

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

func splitText(split []quantity.Lanes) string {
	if len(split) == 0 {
		return "not split"
	}
	s := "split " + strconv.Itoa(int(split[0]))
	for _, l := range split[1:] {
		s += "+" + strconv.Itoa(int(l))
	}
	return s
}

// finer orders splits so that of two rules that split a slot the finer holds,
// whatever their order.
func finer(a, b []quantity.Lanes) bool {
	if len(a) != len(b) {
		return len(a) > len(b)
	}
	return slices.Compare(a, b) > 0
}

func positionDead(r *resolver, s *sock) func() Finding {
	if s.dead == nil {
		return nil
	}
	return func() Finding {
		return Finding{
			Says:    r.name(s) + " is not seen in " + string(s.ID) + ": the position is not served",
			Because: slices.Clone(s.dead),
		}
	}
}

// positionCures are the splits under which the position lives, and other places.
func positionCures(r *resolver, s *sock) []Cure {
	up := s.parent
	out := r.settingsFor(func(e *machine.Effect) bool {
		if e.Socket != up.ID || len(e.Split) == 0 {
			return false
		}
		_, live := segment(up.link.Lanes, e.Split, s.FirstLane)
		return live
	})
	return append(out, r.elsewhere(s)...)
}

// trainCard settles the link of a card in its slot, or of an adapter in its
// M.2 socket.
func (r *resolver) trainCard(s *sock) {
	c := s.card()
	if c == nil || !slices.Contains(s.protocols, link.PCIe) {
		return
	}
	r.trainPCIe(s, c.Link())
}

// trainBox settles the link of a USB box on its port.
func (r *resolver) trainBox(s *sock) {
	e := s.enclosure()
	if e == nil || s.Kind != machine.USB {
		return
	}
	got := s.USB.Train(e.USB)
	s.trained = usbAnswer(got)
	if r.quiet() {
		return
	}
	s.because = append(make([]Reason, 0, 3+len(s.narrowed)),
		Reason{FromPart, r.name(s) + " is " + e.USB.String()},
		Reason{FromSheet, string(s.ID) + " is " + s.USB.String() + r.fedBy(s)})
	for _, rule := range s.narrowed {
		s.because = append(s.because, r.ruleReason(rule))
	}
	s.because = append(s.because, Reason{FromStandard, "a USB link runs in the fastest mode that both ends have: " + got.String()})
}

// seen counts the positions of the carrier in s that are served.
func (r *resolver) seen(s *sock) (live, all int) {
	for i := range r.sockets {
		if k := &r.sockets[i]; k.parent == s {
			all++
			if k.dead == nil {
				live++
			}
		}
	}
	return live, all
}

func slotLength(r *resolver, s *sock) func() Finding {
	c := s.card()
	if c == nil || !c.Connector.Known() || !s.Physical.Known() || c.Connector <= s.Physical || s.OpenEnd == quantity.Yes {
		return nil
	}
	return func() Finding {
		return Finding{
			Says: r.name(s) + " has an edge for " + c.Connector.String() + "; " + string(s.ID) + " is " + s.Physical.String() + " long and closed at its end",
			Because: []Reason{
				{FromPart, r.name(s) + " has an edge " + c.Connector.String() + " long"},
				{FromSheet, string(s.ID) + " is " + s.Physical.String() + " long" + map[quantity.Answer]string{quantity.No: " and closed", quantity.Unknown: "; whether its end is open is not stated"}[s.OpenEnd]},
				{FromStandard, "a card goes into a slot as long as its edge, or longer, or open at its end"},
			},
		}
	}
}

// over is the card that lies over a rear opening, other than the one in except;
// nil if none does or the sheet does not number the openings.
func (r *resolver) over(opening int, except *sock) *sock {
	if opening == 0 {
		return nil
	}
	for i := range r.sockets {
		k := &r.sockets[i]
		if c := k.card(); c != nil && k.ID != except.ID && k.Opening > 0 && k.Opening <= opening && opening < k.Opening+max(1, c.Openings) {
			return k
		}
	}
	return nil
}

func slotCovered(r *resolver, s *sock) func() Finding {
	k := r.over(s.Opening, s)
	if k == nil {
		return nil
	}
	return func() Finding {
		return Finding{
			Says: r.name(s) + " does not go into " + string(s.ID) + ": " + r.name(k) + " in " + string(k.ID) + " covers it",
			Because: []Reason{
				{FromPart, r.name(k) + " covers " + plural(k.card().Openings, "opening")},
				{FromSheet, string(k.ID) + " is at opening " + strconv.Itoa(k.Opening) + ", " + string(s.ID) + " at " + strconv.Itoa(s.Opening)},
			},
		}
	}
}

func cardLength(r *resolver, s *sock) func() Finding {
	c, room := s.card(), r.sheet.Chassis.CardMM
	if c == nil || s.parent != nil || !c.LengthMM.Known() || !room.Known() || c.LengthMM <= room {
		return nil
	}
	return func() Finding {
		return Finding{
			Says:    r.name(s) + " is " + c.LengthMM.String() + " long; the case takes " + room.String(),
			Because: []Reason{{FromPart, r.name(s) + " is " + c.LengthMM.String() + " long"}, {FromSheet, "cards up to " + room.String() + " go in"}},
			Cures:   []Cure{{Says: "use a shorter card"}},
		}
	}
}

func cardBracket(r *resolver, s *sock) func() Finding {
	c := s.card()
	if c == nil || s.parent != nil || r.sheet.Chassis.LowSlots != quantity.Yes || c.LowBracket != quantity.No {
		return nil
	}
	return func() Finding {
		return Finding{
			Says:    r.name(s) + " has no low bracket, and this case takes no other",
			Because: []Reason{{FromPart, r.name(s) + " comes with a full-height bracket only"}, {FromSheet, "the case takes low-profile cards only"}},
			Cures:   []Cure{{Says: "use a low-profile card, or one that brings the low bracket"}},
		}
	}
}

func cardNarrow(r *resolver, s *sock) func() Finding {
	c := s.card()
	if c == nil || c.Carrier != nil || s.trained == nil || s.trained.MBps == 0 || s.trained.MBps >= c.Link().LineRate().MBps() {
		return nil
	}
	return func() Finding {
		return Finding{
			Says:    r.name(s) + " could do " + c.Link().String() + " and runs at " + s.trained.Text + " in " + string(s.ID),
			Because: slices.Clone(s.because),
		}
	}
}

// cardNarrowCures lift what narrows the slot, or move the card to one that is wider for it.
func cardNarrowCures(r *resolver, s *sock) []Cure {
	var out []Cure
	for _, rule := range s.narrowed {
		out = append(out, r.undo(rule)...)
	}
	for _, c := range r.elsewhere(s) {
		k := r.place(c.Moves[0].Socket)
		if s.card().Link().Train(k.link).LineRate().MBps() > s.trained.MBps {
			out = append(out, c)
		}
	}
	return out
}

func carrierBelowDrives(r *resolver, s *sock) func() Finding {
	c := s.card()
	if c == nil || c.Carrier == nil || !c.Carrier.Switch || s.trained == nil || s.trained.MBps == 0 {
		return nil
	}
	drives, sum := 0, 0.0
	for i := range r.sockets {
		if k := &r.sockets[i]; k.parent == s && k.drive() != nil {
			drives++
			sum += k.drive().Link().Train(k.link).LineRate().MBps()
		}
	}
	if drives < 2 || sum <= s.trained.MBps {
		return nil
	}
	return func() Finding {
		return Finding{
			Says: plural(drives, "drive") + " on " + r.name(s) + " share " + s.trained.Text + ", " + s.trained.Rate,
			Because: []Reason{
				{FromPart, "the switch chip of " + r.name(s) + " joins all positions to one link of " + s.trained.Text},
				{FromStandard, "everything behind one link shares it; it matters only when they are read at the same time"},
			},
		}
	}
}
