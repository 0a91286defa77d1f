package fit

// This file holds the rules about what was asked for.

import (
	"deepbay/internal/core/machine"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// at is the socket an item is in, nil if none.
func (r *resolver) at(id rig.ItemID) *sock {
	for i := range r.sockets {
		if s := &r.sockets[i]; s.piece != nil && s.piece.ID == id {
			return s
		}
	}
	return nil
}

func notPlaced(r *resolver) []Finding {
	var out []Finding
	for i := range r.b.Pieces {
		p := &r.b.Pieces[i]
		if p.New && p.Part.Fitting == nil && r.at(p.ID) == nil {
			if r.quiet() {
				out = append(out, Finding{})
				continue
			}
			out = append(out, Finding{Item: p.ID, Says: p.Part.Name + " has no place yet",
				Because: []Reason{{FromPlan, "it came to be fitted and is in no socket"}},
				Cures:   r.elsewhere(&sock{Socket: &machine.Socket{}, piece: p})})
		}
	}
	return out
}

// onTheMat reports whether a new module or drive still waits for its place: what
// the wish lacks may then only follow from that.
func (r *resolver) onTheMat(module bool) bool {
	for i := range r.b.Pieces {
		p := &r.b.Pieces[i]
		if p.New && (module && p.Part.Module != nil || !module && p.Part.Drive != nil) && r.at(p.ID) == nil {
			return true
		}
	}
	return false
}

func wishMemory(r *resolver) []Finding {
	want := r.b.Wish.MemoryBytes
	if !want.Known() || r.memory.TotalBytes >= want || r.memory.Total == unknownTotal || r.onTheMat(true) {
		return nil
	}
	return []Finding{{Says: r.memory.Total + " of memory; " + want.Binary() + " or more was wished",
		Because: []Reason{{FromWish, want.Binary() + " or more"}},
		Cures:   []Cure{{Says: "add or keep modules until the total is reached"}}}}
}

func wishSystem(r *resolver) []Finding {
	w := &r.b.Wish
	if !w.SystemBytes.Known() || r.onTheMat(false) {
		return nil
	}
	want := w.SystemBytes.Label()
	for i := range r.sockets {
		s := &r.sockets[i]
		d := s.drive()
		if d == nil || s.state != Live || r.kept(s.piece.ID) {
			continue
		}
		if w.System(d) {
			return nil
		}
	}
	if w.SystemFast {
		want += " over PCIe"
	}
	return []Finding{{Says: "no drive that is seen can be the system drive of " + want + " that was wished",
		Because: []Reason{{FromWish, "a system drive of at least " + want}},
		Cures:   []Cure{{Says: "fit such a drive where it is seen"}}}}
}

func (r *resolver) kept(id rig.ItemID) bool {
	for _, k := range r.b.Wish.Keep {
		if k == id {
			return true
		}
	}
	return false
}

func wishKeep(r *resolver) []Finding {
	var out []Finding
	for _, id := range r.b.Wish.Keep {
		p := r.b.Piece(id)
		if p == nil || r.at(id) != nil { // in a socket: the rules there have spoken
			continue
		}
		out = append(out, Finding{Item: id, Says: p.Part.Name + " must stay in the machine and is in no socket",
			Because: []Reason{{FromWish, p.Part.Name + " must stay and be seen"}},
			Cures:   r.elsewhere(&sock{Socket: &machine.Socket{}, piece: p})})
	}
	return out
}

func startPCIe(r *resolver) []Finding {
	w := &r.b.Wish
	if !w.SystemBytes.Known() || !w.SystemFast || r.sheet.Firmware.StartsPCIe != quantity.No {
		return nil
	}
	return []Finding{{Says: "this firmware does not start a system from a PCIe drive",
		Because: []Reason{{FromSheet, "the firmware starts systems from SATA and USB only"}, {FromWish, "the system drive runs over PCIe"}},
		Cures:   []Cure{{Says: "start from a SATA drive and keep the system's files on it, or update the firmware if the maker offers it"}}}}
}
