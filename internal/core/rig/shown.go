package rig

// This file is what screens of the running machine showed: stronger than what anybody
// says, and proof of what it can prove.

import (
	"deepbay/internal/core/link"
	"deepbay/internal/core/quantity"
)

// Shown is a line of a screen: of a piece that was shown in a place, or of memory as a
// whole where no piece is named.
type Shown struct {
	Item   ItemID
	Socket Path
	Bytes  quantity.Bytes // capacity or size; as a screen prints it
	MTps   quantity.MTps  // of memory as a whole
	Gen    quantity.Gen   // of a link: it can do this at least, for links idle slower
	Lanes  quantity.Lanes
	Under  *Setup // what lay where, and what was set, when it was read
}

// Seen is the rig with what screens showed. What they say of a label or of a socket that
// is silent is filled in, as Learn does, and listed in Screened.
func (r *Rig) Seen(lines []Shown) Rig {
	l := learner{Rig: *r}
	l.Shown = lines
	for _, s := range lines {
		q := l.Piece(s.Item)
		if q == nil {
			continue
		}
		switch {
		case q.Part.Drive != nil:
			if k := l.Sheet.Socket(s.Socket.Top()); k != nil && !s.Socket.Nested() && len(k.Protocols) == 1 && k.Protocols[0] != link.USB {
				l.fill(Fact{Item: s.Item, Attr: Protocol}, string(k.Protocols[0])) // it speaks what its place speaks
			}
			if s.Bytes.Known() {
				l.fill(Fact{Item: s.Item, Attr: Capacity}, s.Bytes.Decimal())
			}
		case q.Part.Module != nil && s.Bytes.Known():
			l.fill(Fact{Item: s.Item, Attr: ModuleSize}, s.Bytes.Binary())
		}
	}
	return l.Rig
}

// fill writes what a screen showed where nothing was stated.
func (l *learner) fill(f Fact, is string) {
	if at, ok := l.field(f); ok && at.is == "" && at.put(is) {
		l.Screened = append(l.Screened, f)
	}
}
