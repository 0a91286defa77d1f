package fit

// This file is evidence: what a machine as it was found proves, whatever its sheet and
// labels say or leave out.

import (
	"slices"

	"deepbay/internal/core/memory"
	"deepbay/internal/core/rig"
)

// proved reports that a piece lies where it was found, on what held it there: so it
// goes in there, even in a dead machine. It does not prove that it is seen.
func (r *resolver) proved(s *sock, by proof) bool {
	for at := s; at != nil; at = at.parent {
		if at.piece == nil || at.piece.New || !r.asFound(at.piece.ID, at.path) {
			return false
		}
	}
	return (by == lying || r.cardsAsFound()) && (!s.inBay() || s.stays)
}

// asFound reports a piece that lies in the place it was found in.
func (r *resolver) asFound(id rig.ItemID, at rig.Path) bool {
	f := r.b.Found
	return f == nil || f.In(at) == id
}

// cardsAsFound reports that no slot has another card over it than it had.
func (r *resolver) cardsAsFound() bool {
	return !slices.ContainsFunc(r.b.Placements, func(p rig.Placement) bool {
		q := r.b.Piece(p.Item)
		return q != nil && q.Part.Card != nil && (q.New || !r.asFound(p.Item, p.Socket))
	})
}

// cameInSlot reports a module that was found in a slot of the board: it is of the
// generation that the board takes, wherever it goes.
func (r *resolver) cameInSlot(id rig.ItemID) bool {
	at := r.found().Where(id)
	k, p := r.sheet.Socket(at.Top()), r.b.Piece(id)
	return !p.New && k != nil && !at.Nested() && rig.Suits(p.Part, k)
}

func (r *resolver) found() *rig.Setup {
	if r.b.Found != nil {
		return r.b.Found
	}
	return &r.b.Setup
}

// boardGeneration is the memory the board takes: what its sheet says or, where that is
// silent, what was found in its slots, for the notches of generations differ.
func (r *resolver) boardGeneration() memory.Generation {
	if g := r.sheet.Memory.Generation; g != "" {
		return g
	}
	var out memory.Generation
	for _, at := range r.found().Placements {
		k, p := r.sheet.Socket(at.Socket.Top()), r.b.Piece(at.Item)
		if p == nil || p.New || at.Socket.Nested() || k == nil || !k.Kind.Memory() || p.Part.Module == nil || p.Part.Module.Generation == "" {
			continue
		}
		if out != "" && out != p.Part.Module.Generation {
			return "" // one of them is not what it is said to be
		}
		out = p.Part.Module.Generation
	}
	return out
}

// fromBoard is where that is known from.
func (r *resolver) fromBoard() Source {
	if r.sheet.Memory.Generation != "" {
		return FromSheet
	}
	return FromFound
}
