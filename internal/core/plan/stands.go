package plan

// This file judges a plan anew before it is shown: carried out move by move, and resolved
// as any other machine. It shares nothing with the search but the question.

import (
	"slices"

	"deepbay/internal/core/fit"
	"deepbay/internal/core/rig"
)

// stands reports that a plan can be carried out as it is told, comes to what it says, and
// does all it was asked to.
func (in *Input) stands(p *Plan) bool {
	b := in.rig(in.Found.Placements, in.Found.Settings)
	after, _, err := b.Moved(in.moves(p))
	if err != nil || len(after.Placements) != len(p.Placements) {
		return false
	}
	for _, at := range p.Placements {
		if after.In(at.Socket) != at.Item {
			return false
		}
	}
	for i := range in.Found.Sheet.Settings {
		if s := &in.Found.Sheet.Settings[i]; in.asks(s) && rig.Value(s, after.Settings) != rig.Value(s, p.Choices) {
			return false
		}
	}
	b.Setup = after
	a := fit.Resolve(&b)
	for i := range a.Findings {
		f := &a.Findings[i]
		if q := b.Piece(f.Item); q != nil && q.Part.Fitting != nil { // what lies about is not moved
			continue
		}
		if f.Severity == fit.Stops || f.Code == "wish-memory" || f.Code == "wish-system" {
			return false
		}
	}
	return in.asked(&after, &a)
}

// asked reports that a setup has every piece where it was asked for, seen, and keeps the
// ports.
func (in *Input) asked(s *rig.Setup, a *fit.Answer) bool {
	for i := range in.Pieces {
		q := &in.Pieces[i]
		if at := s.Where(q.ID); q.Part.Fitting == nil && (at.IsZero() && in.role(q) != Leave || in.role(q) == Stay && at != in.home(q.ID)) {
			return false
		}
	}
	for _, p := range in.Pins {
		if s.Where(p.Item) != p.Socket {
			return false
		}
	}
	for _, p := range in.Bans {
		if there := s.In(p.Socket); there != "" && (p.Item == "" || p.Item == there) {
			return false
		}
	}
	for i := range a.Sockets {
		k := &a.Sockets[i]
		if k.Item != "" && k.State != fit.Live {
			return false
		}
		if k.Socket.Nested() || !slices.Contains(in.Ports, k.Socket.Top()) {
			continue
		}
		if k.State == fit.Off || k.Item != "" && in.home(k.Item) != k.Socket {
			return false
		}
	}
	return true
}
