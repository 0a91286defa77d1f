package fit

// This file holds the rules about what was asked for.

import (
	"slices"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/known"
	"deepbay/internal/core/link"
	"deepbay/internal/core/rig"
)

// at is the socket an item is in, nil if none.
func (r *resolver) at(id rig.ItemID) *sock {
	for i := range r.b.Placements {
		if p := &r.b.Placements[i]; p.Item == id {
			if s := r.place(p.Socket); s.piece != nil && s.piece.ID == id {
				return s
			}
		}
	}
	return nil
}

func notPlaced(r *resolver, found func(trouble)) {
	var loose []int
	for i := range r.b.Pieces {
		if p := &r.b.Pieces[i]; p.New && p.Part.Fitting == nil && r.at(p.ID) == nil {
			loose = append(loose, i)
		}
	}
	for _, i := range sortedByID(loose, r.b.Pieces) {
		found(trouble{truth: known.No, item: i})
	}
}

func sayNotPlaced(r *resolver, t *trouble) telling {
	return telling{says: fact.Of(NoPlaceYet, r.b.Pieces[t.item].ID), because: []Reason{{FromPlan, fact.Of(CameToBeFitted)}}}
}

// onTheMat reports whether a new module or drive still waits for its place: what
// the wish lacks may then only follow from that.
func (r *resolver) onTheMat(kind kinds) bool {
	for i := range r.b.Pieces {
		p := &r.b.Pieces[i]
		if p.New && kindOf(p.Part) == kind && r.at(p.ID) == nil {
			return true
		}
	}
	return false
}

func wishMemory(r *resolver, found func(trouble)) {
	want := r.b.Wish.MemoryBytes
	if want.Known() && !r.onTheMat(modules) {
		one(found, known.AtMost(known.Exactly(want), r.memory.Total))
	}
}

func sayWishMemory(r *resolver, t *trouble) telling {
	want := r.b.Wish.MemoryBytes
	if t.truth == known.Unknown {
		return telling{says: fact.Of(MemoryWishOpen, want), because: []Reason{{FromWish, fact.Of(MemoryWished, want)}}, missing: sayMemoryUnknown(r, t).missing}
	}
	return telling{says: fact.Of(LessMemory, r.memory.Total, want), because: []Reason{{FromWish, fact.Of(MemoryWished, want)}}, advice: []fact.Fact{fact.Of(AddModules)}}
}

// isSystem is whether the drive in s is what the wish asks of the system drive. One
// behind a bridge is reached over USB, whatever it speaks itself.
func (r *resolver) isSystem(s *sock) known.Truth {
	w, d := &r.b.Wish, s.drive()
	if d == nil || !s.seen() || slices.Contains(w.Keep, s.piece.ID) {
		return known.No
	}
	out := known.Yes
	if s.state == Unsure {
		out = known.Unknown
	}
	if d.CapacityBytes.Known() {
		out = known.And(out, known.Of(d.CapacityBytes >= w.SystemBytes))
	} else {
		out = known.And(out, known.Unknown)
	}
	if w.SystemFast {
		out = known.And(out, known.And(speaks(d, link.PCIe), known.Of(!s.outside())))
	}
	return out
}

func wishSystem(r *resolver, found func(trouble)) {
	if !r.b.Wish.SystemBytes.Known() || r.onTheMat(drives) {
		return
	}
	out := known.No
	for i := range r.sockets {
		out = known.Or(out, r.isSystem(&r.sockets[i]))
	}
	one(found, out)
}

func sayWishSystem(r *resolver, t *trouble) telling {
	w := &r.b.Wish
	says, wished := NoSystemDrive, SystemWished
	if t.truth == known.Unknown {
		return telling{says: fact.Of(SystemWishOpen, w.SystemBytes), because: []Reason{{FromWish, fact.Of(SystemWished, w.SystemBytes)}}, missing: r.systemFacts()}
	}
	if w.SystemFast {
		says, wished = NoFastSystem, FastSystemWished
	}
	return telling{says: fact.Of(says, w.SystemBytes), because: []Reason{{FromWish, fact.Of(wished, w.SystemBytes)}}, advice: []fact.Fact{fact.Of(FitSuchDrive)}}
}

// systemFacts is what would tell whether a drive is what was wished for.
func (r *resolver) systemFacts() []rig.Fact {
	var out []rig.Fact
	for i := range r.sockets {
		s := &r.sockets[i]
		if r.isSystem(s) != known.Unknown {
			continue
		}
		if s.state == Unsure {
			out = append(out, r.missing(s)...)
		}
		if !s.drive().CapacityBytes.Known() {
			out = append(out, rig.Fact{Item: s.piece.ID, Attr: rig.Capacity})
		}
	}
	return out
}

func wishKeep(r *resolver, found func(trouble)) {
	for _, id := range slices.Sorted(slices.Values(r.b.Wish.Keep)) {
		i := slices.IndexFunc(r.b.Pieces, func(p rig.Piece) bool { return p.ID == id })
		if i >= 0 && r.at(id) == nil { // in a socket: the rules there have spoken
			found(trouble{truth: known.No, item: i})
		}
	}
}

func sayWishKeep(r *resolver, t *trouble) telling {
	id := r.b.Pieces[t.item].ID
	return telling{says: fact.Of(MustStay, id), because: []Reason{{FromWish, fact.Of(MustBeSeen, id)}}}
}

func startPCIe(r *resolver, found func(trouble)) {
	if w := &r.b.Wish; w.SystemBytes.Known() && w.SystemFast && r.sheet.Firmware.StartsPCIe == known.No {
		one(found, known.No)
	}
}

func sayStart(r *resolver, t *trouble) telling {
	return telling{says: fact.Of(StartsNoPCIe), because: []Reason{{FromSheet, fact.Of(StartsFromOthers)}, {FromWish, fact.Of(SystemOverPCIe)}}, advice: []fact.Fact{fact.Of(StartFromSATA)}}
}
