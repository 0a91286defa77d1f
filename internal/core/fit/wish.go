package fit

// This file holds the rules about what was asked for.

import (
	"slices"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/known"
	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
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
	if d == nil || d.Form.Optical() || !s.seen() || slices.Contains(w.Keep, s.piece.ID) {
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

// isSystemArray is whether an array is what the wish asks of the system drive: all members are
// seen, and together they are large enough.
func (r *resolver) isSystemArray(a *rig.DriveArray) known.Truth {
	w, out := &r.b.Wish, known.Yes
	for _, id := range a.Members {
		s := r.at(id)
		if s == nil || s.drive() == nil || !s.seen() || s.outside() {
			return known.No
		}
		if s.state == Unsure {
			out = known.And(out, known.Unknown)
		}
		if w.SystemFast {
			out = known.And(out, speaks(s.drive(), link.PCIe))
		}
	}
	if c := r.b.ArrayBytes(a); c.Known() {
		return known.And(out, known.Of(c >= w.SystemBytes))
	}
	return known.And(out, known.Unknown)
}

func wishSystem(r *resolver, found func(trouble)) {
	if !r.b.Wish.SystemBytes.Known() || r.onTheMat(drives) {
		return
	}
	out := known.No
	for i := range r.sockets {
		out = known.Or(out, r.isSystem(&r.sockets[i]))
	}
	for i := range r.b.Arrays {
		out = known.Or(out, r.isSystemArray(&r.b.Arrays[i]))
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

// startPCIe finds the system drives over PCIe on firmware that does not start from them:
// one that holds a system, and, where every drive that can be the wished one is such, the
// first of these.
func startPCIe(r *resolver, found func(trouble)) {
	if r.sheet.Firmware.StartsPCIe != known.No {
		return
	}
	over := func(s *sock) bool { return !s.outside() && speaks(s.drive(), link.PCIe) == known.Yes }
	var first *sock
	all := r.b.Wish.SystemBytes.Known()
	for i := range r.sockets {
		s := &r.sockets[i]
		if s.drive() == nil || !s.seen() {
			continue
		}
		if s.piece.Holds == rig.System && over(s) {
			found(trouble{truth: known.No, s: s, item: -1})
			continue
		}
		if all && r.isSystem(s) == known.Yes {
			if all = over(s); all && first == nil {
				first = s
			}
		}
	}
	if all && first != nil {
		found(trouble{truth: known.No, s: first, item: -1})
	}
}

func sayStart(r *resolver, t *trouble) telling {
	out := telling{says: fact.Of(StartsNot, t.s.piece.ID), because: []Reason{{FromSheet, fact.Of(StartsFromOthers)}}, advice: []fact.Fact{fact.Of(StartFromSATA)}}
	if r.b.Wish.SystemFast {
		out.because = append(out.because, Reason{FromWish, fact.Of(SystemOverPCIe)})
	}
	return out
}

// picture is whether something brings graphics: the processor that is fitted, or every
// one it may be; or a card.
func (r *resolver) picture() known.Truth {
	if r.sheet.Memory.Reserved.Known() { // what graphics in the processor keeps is stated
		return known.Yes
	}
	for i := range r.sockets {
		if c := r.sockets[i].card(); c != nil && c.Graphics && r.sockets[i].seen() {
			return known.Yes
		}
	}
	out, n := known.Unknown, 0
	r.mayBeFitted(func(p *machine.Processor) {
		if n++; n == 1 {
			out = p.Graphics
		} else if out != p.Graphics {
			out = known.Unknown
		}
	})
	return out
}

func noPicture(r *resolver, found func(trouble)) {
	if r.picture() == known.No {
		one(found, known.No)
	}
}

func sayNoPicture(r *resolver, t *trouble) telling {
	out := telling{says: fact.Of(NoPictureAny), advice: []fact.Fact{fact.Of(FitGraphics)}}
	r.mayBeFitted(func(p *machine.Processor) {
		out.because = append(out.because, Reason{FromSheet, fact.Of(HasNoGraphics, fact.Typed(p.Name))})
		if r.b.Processor == p.ID {
			out.says = fact.Of(NoPicture, fact.Typed(p.Name))
		}
	})
	return out
}
