package fit

// This file is evidence: what a machine as it was found proves, whatever its sheet and
// labels say or leave out.

import (
	"slices"

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
	return by == lying || r.cardsAsFound()
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
