package access

// This file says where hands must reach when a piece changes its place.

import (
	"slices"

	"deepbay/internal/core/layer"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/rig"
)

// End is one end of a change: a socket, of which kind, and the bay of a drive that lies in one. The
// zero end is the mat.
type End struct {
	Socket rig.Path
	Kind   machine.Kind
	Bay    machine.BayID
}

// places is where an end is reached, nothing for the mat and for what is outside. A drive in a bay is
// reached there, and its port besides where port says so.
func (e End) places(r *rig.Rig, port bool) []layer.Named {
	at := layer.Named(e.Socket.Top())
	switch {
	case e.Socket.IsZero() || !r.Inside(e.Socket):
		return nil
	case e.Bay == "" || e.Socket.Nested():
		return []layer.Named{at}
	case port:
		return slices.Compact([]layer.Named{layer.Named(e.Bay), at})
	}
	return []layer.Named{layer.Named(e.Bay)}
}

// Leaving is where hands must reach to take a piece out: the plugs of a drive are pulled at the
// drive.
func Leaving(r *rig.Rig, from End) []layer.Named { return from.places(r, false) }

// Coming is where hands must reach to put a piece in.
func Coming(r *rig.Rig, to End) []layer.Named { return to.places(r, true) }

// Port is where hands must reach for the port of a data lead that is moved alone.
func Port(r *rig.Rig, of End) []layer.Named {
	of.Bay = ""
	return of.places(r, true)
}

// LeadOnly reports a drive that stays in its bay and only gets its data lead moved.
func LeadOnly(from, to End) bool {
	return from.Bay != "" && from.Bay == to.Bay && from.Kind == machine.SATA && to.Kind == machine.SATA
}

// Change is where hands must reach for a piece that goes from one end to another.
func Change(r *rig.Rig, from, to End) []layer.Named {
	switch {
	case from == to:
		return nil
	case LeadOnly(from, to):
		return slices.Concat(Port(r, from), Port(r, to))
	}
	return slices.Concat(Leaving(r, from), Coming(r, to))
}

// Minutes is how long it takes to reach some places and to close the machine again; false is
// that one is not reached.
func Minutes(s *layer.Stack, at []layer.Named) (layer.Minutes, bool) {
	var goals []layer.Goal
	for _, p := range at {
		goals = append(goals, s.To(p))
	}
	open, ok := s.Least(goals, nil)
	var out layer.Minutes
	for _, i := range open {
		m, _ := s.Layers[i].Takes()
		out += 2 * m
	}
	return out, ok
}
