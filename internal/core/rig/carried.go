package rig

// This file gives carriers, adapters and USB boxes their sockets.

import (
	"deepbay/internal/core/machine"
	"deepbay/internal/core/memory"
	"deepbay/internal/core/part"
)

// Place is a socket with the path that leads to it.
type Place struct {
	Path Path
	machine.Socket
}

// Suits reports whether part and socket are of one kind at all: whether trying it
// there makes sense.
func Suits(p *part.Part, k *machine.Socket) bool {
	switch k.Kind {
	case machine.M2:
		return p.M2() != nil
	case machine.SATA:
		return p.Drive != nil && (p.Drive.Form == part.Form2i5 || p.Drive.Form == part.Form3i5 || p.Drive.Form.Optical())
	case machine.Slot:
		return p.Card != nil && p.Card.M2 == nil
	case machine.U2: // its plug takes SATA drives too (SFF-8639); whether they are seen is the protocol's question
		return p.Drive != nil && (p.Drive.Form == part.FormU2 || p.Drive.Form == part.Form2i5)
	case machine.USB:
		return p.Enclosure != nil
	case machine.DIMM:
		return p.Module != nil && p.Module.Form == memory.DIMM
	case machine.SODIMM:
		return p.Module != nil && p.Module.Form == memory.SODIMM
	}
	return false
}

// Carried lists the places that the parts fitted here bring, in the order of the
// sheet's sockets and then of theirs: a carrier may sit in the slot of an adapter.
func (r *Rig) Carried() []Place {
	bring, n := map[Path]*part.Part{}, 0
	for _, p := range r.Placements {
		if q := r.Piece(p.Item); q != nil && q.Part.Positions() != nil {
			bring[p.Socket] = q.Part
			n += len(q.Part.Positions())
		}
	}
	if len(bring) == 0 {
		return nil
	}
	out := make([]Place, 0, n)
	for i := range r.Sheet.Sockets {
		k := &r.Sheet.Sockets[i]
		out = carried(out, On(k.ID), k, bring[On(k.ID)])
	}
	for i := 0; i < len(out); i++ {
		out = carried(out, out[i].Path, &out[i].Socket, bring[out[i].Path])
	}
	return out
}

// kinds are the kinds of socket that positions are.
var kinds = map[part.Takes]machine.Kind{part.TakesM2: machine.M2, part.TakesSlot: machine.Slot, part.TakesU2: machine.U2, part.TakesSATA: machine.SATA}

// carried appends the sockets of the part in k, if there is one and it goes there, as
// the part describes them: their lanes are the position's, their generation that of
// the card or the bridge.
func carried(out []Place, at Path, k *machine.Socket, p *part.Part) []Place {
	if p == nil || !Suits(p, k) || at.Depth() == MaxDepth {
		return out
	}
	group, root := k.Group, k.Root
	positions := p.Positions()
	for i := range positions {
		pos := &positions[i]
		path := at.Position(i + 1)
		s := machine.Socket{
			ID: machine.SocketID(path.String()), Kind: kinds[pos.Kind()],
			Group: group, Root: root, Protocols: pos.Speaks(), Gen: pos.Gen, SATAGen: pos.SATAGen, Lanes: pos.Lanes, FirstLane: pos.FirstLane,
			LengthsMM: pos.LengthsMM, WidthMM: pos.WidthMM, CardRoom: pos.CardRoom, Heatsink: pos.Heatsink, TopMM: pos.TopMM, BottomMM: pos.BottomMM,
			Physical: pos.Physical, OpenEnd: pos.OpenEnd, Mount: machine.Mount{Drives: pos.Drives, BayMM: pos.HeightMM},
		}
		if s.Kind == machine.M2 {
			s.Key = part.KeyM
		}
		if p.Card != nil && s.Kind != machine.SATA {
			s.Gen = p.Card.Gen
		}
		out = append(out, Place{path, s})
	}
	return out
}

// Places lists every place of the machine: the sheet's sockets, and then those that the
// parts fitted bring.
func (r *Rig) Places() []Place {
	out := make([]Place, 0, len(r.Sheet.Sockets))
	for _, k := range r.Sheet.Sockets {
		out = append(out, Place{On(k.ID), k})
	}
	return append(out, r.Carried()...)
}

// Socket finds the socket of a place, on the board or brought by a part; nil if
// there is none.
func (r *Rig) Socket(at Path) *machine.Socket {
	if !at.Nested() {
		return r.Sheet.Socket(at.Top())
	}
	carried := r.Carried()
	for i := range carried {
		if carried[i].Path == at {
			return &carried[i].Socket
		}
	}
	return nil
}

// Compare orders places as the sheet lists its sockets, what parts bring behind
// what holds them.
func (r *Rig) Compare(a, b Path) int {
	if a.Top() == b.Top() {
		return a.Compare(b)
	}
	for i := range r.Sheet.Sockets {
		switch r.Sheet.Sockets[i].ID {
		case a.Top():
			return -1
		case b.Top():
			return 1
		}
	}
	return 0
}
