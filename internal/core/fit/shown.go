package fit

// This file is what the screens of the running machine showed, as far as it tells what
// sheet and labels do not.

import (
	"slices"

	"deepbay/internal/core/known"
	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/rig"
)

// speakShown notes the protocols that drives were seen to speak in sockets of which the
// sheet does not say what they speak: they speak that at least.
func (r *resolver) speakShown() {
	for i := range r.b.Shown {
		line := &r.b.Shown[i]
		q := r.b.Piece(line.Item)
		if q == nil || q.Part.Drive == nil || line.Socket.Nested() {
			continue
		}
		s := r.place(line.Socket)
		if s.Protocols != nil || s.Kind != machine.M2 && s.Kind != machine.U2 {
			continue
		}
		for n, p := range protocols {
			if speaks(q.Part.Drive, p) == known.Yes {
				s.speaks[n] = known.Yes
			}
		}
	}
}

// ran reports a piece that a screen of this machine showed, so that it works: where it
// lies, while what feeds it is as it was then. A module that ran is of the board's kind in any of
// its slots.
func (r *resolver) ran(s *sock) bool {
	for i := range r.b.Shown {
		if line := &r.b.Shown[i]; line.Item == s.piece.ID && (s.piece.Part.Module != nil || line.Socket == s.path && r.fedAs(s, line.Under) && line.Under.Told(s.piece.ID) == r.b.Told(s.piece.ID)) {
			return true
		}
	}
	return false
}

// fedAs reports a socket of which all that may feed it is as it was: what brings it, and
// whatever the rules about it ask for.
func (r *resolver) fedAs(s *sock, then *rig.Setup) bool {
	if then == nil {
		return false
	}
	for at := s.path.Holder(); !at.IsZero(); at = at.Holder() {
		if r.b.In(at) != then.In(at) {
			return false
		}
	}
	top := s.path.Top()
	for i := range r.sheet.Rules {
		rule := &r.sheet.Rules[i]
		if !slices.ContainsFunc(rule.Then, func(e machine.Effect) bool { return e.Socket == top }) {
			continue
		}
		for n := range rule.When {
			c := &rule.When[n]
			if st := r.sheet.Setting(c.Setting); st != nil && rig.Value(st, then.Settings) != r.b.Choice(st) {
				return false
			}
			if c.Socket != "" && r.b.In(rig.On(c.Socket)) != then.In(rig.On(c.Socket)) {
				return false
			}
		}
	}
	return true
}

// as reports a rig in which all lies and is set as it was.
func (r *resolver) as(then *rig.Setup) bool {
	if then == nil || len(then.Placements) != len(r.b.Placements) {
		return false
	}
	for _, p := range then.Placements {
		if r.b.In(p.Socket) != p.Item {
			return false
		}
	}
	for i := range r.sheet.Settings {
		if st := &r.sheet.Settings[i]; rig.Value(st, then.Settings) != r.b.Choice(st) {
			return false
		}
	}
	return true
}

// atLeast is a link no slower than it was seen, where it lies as it lay then: links idle
// slower than they can.
func (r *resolver) atLeast(s *sock) {
	for i := range r.b.Shown {
		line := &r.b.Shown[i]
		if line.Item != s.piece.ID || line.Socket != s.path || !line.Gen.Known() || !r.fedAs(s, line.Under) {
			continue
		}
		l := &s.link
		l.Gen.Low = max(l.Gen.Low, min(line.Gen, l.Gen.High))
		if l.Protocol == link.PCIe && line.Lanes.Known() {
			l.Lanes.Low = max(l.Lanes.Low, min(line.Lanes, l.Lanes.High))
		}
		switch l.Protocol {
		case link.PCIe:
			s.link = pcieLink(l.Gen, l.Lanes)
		case link.SATA:
			s.link = sataLink(l.Gen)
		}
	}
}

// totalShown narrows what memory comes to by what the screens showed of it, where the
// modules lie as they lay then.
func (r *resolver) totalShown() {
	m := &r.memory
	for i := range r.b.Shown {
		line := &r.b.Shown[i]
		if line.Item != "" || line.Under == nil || !r.modulesAs(line.Under) {
			continue
		}
		if b := line.Bytes; b.Known() && m.Total.Low <= b && b <= m.Total.High {
			m.Total = known.Exactly(b)
		}
	}
}

// speedShown does the same for its speed, which hangs on settings as well.
func (r *resolver) speedShown() {
	m := &r.memory
	for i := range r.b.Shown {
		line := &r.b.Shown[i]
		if line.Item == "" && line.MTps.Known() && line.Under != nil && r.as(line.Under) && m.MTps.Low <= line.MTps && line.MTps <= m.MTps.High {
			m.MTps = known.Exactly(line.MTps)
		}
	}
}

// modulesAs reports memory slots that hold what they held then.
func (r *resolver) modulesAs(then *rig.Setup) bool {
	return !slices.ContainsFunc(r.sheet.Sockets, func(k machine.Socket) bool {
		return k.Kind.Memory() && r.b.In(rig.On(k.ID)) != then.In(rig.On(k.ID))
	})
}
