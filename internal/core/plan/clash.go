package plan

// This file finds out why nothing works: the smallest set of wishes that clash, and
// what would help.

import (
	"context"
	"maps"
	"slices"

	"deepbay/internal/core/rig"
)

// want is one thing that binds the search and can be set aside to see what clashes.
type want struct {
	kind   wantKind
	item   rig.ItemID
	socket rig.Path
}

type wantKind string

const (
	wantIn     wantKind = "in"     // the piece must be in the machine
	wantStay   wantKind = "stay"   // and where it was found
	wantPin    wantKind = "pin"    // or where the technician pinned it
	wantBan    wantKind = "ban"    // and not there
	wantPort   wantKind = "port"   // the socket stays on and free
	wantMemory wantKind = "memory" // as much memory as was wished for
	wantSystem wantKind = "system" // the system drive that was wished for
)

// wants lists everything that binds a search.
func (in *Input) wants() []want {
	var out []want
	if in.Wish.MemoryBytes.Known() {
		out = append(out, want{kind: wantMemory})
	}
	if in.Wish.SystemBytes.Known() {
		out = append(out, want{kind: wantSystem})
	}
	for _, p := range in.Pins {
		out = append(out, want{kind: wantPin, item: p.Item})
	}
	for _, p := range in.Bans {
		out = append(out, want{wantBan, p.Item, p.Socket})
	}
	for _, id := range in.Ports {
		out = append(out, want{kind: wantPort, socket: rig.On(id)})
	}
	for i := range in.Pieces {
		p := &in.Pieces[i]
		if p.Part.Fitting != nil {
			continue
		}
		switch in.role(p) {
		case Stay:
			out = append(out, want{kind: wantStay, item: p.ID}, want{kind: wantIn, item: p.ID})
		case Move:
			out = append(out, want{kind: wantIn, item: p.ID})
		}
	}
	return out
}

// name tells a piece from its like.
func (in *Input) name(id rig.ItemID) string {
	p := in.piece(id)
	if p == nil {
		return "anything"
	}
	if home := in.home(id); !home.IsZero() {
		return p.Part.Name + " from " + home.String()
	}
	return "the new " + p.Part.Name
}

// words says a want, and what giving it up would mean.
func (in *Input) words(w want) (is, givenUp string) {
	name := in.name(w.item)
	switch w.kind {
	case wantStay:
		return name + " stays there", "let " + name + " move"
	case wantPin:
		at := rig.PlaceOf(in.Pins, w.item).String()
		return name + " is pinned to " + at, "let go of the pin of " + name + " to " + at
	case wantBan:
		return name + " does not go into " + w.socket.String(), "let " + name + " go into " + w.socket.String()
	case wantPort:
		return w.socket.String() + " stays on and free", "give up " + w.socket.String()
	case wantMemory:
		return in.Wish.MemoryBytes.Binary() + " of memory or more", "do with less memory"
	case wantSystem:
		return "a system drive of " + in.Wish.SystemBytes.Label() + " or more, as wished", "do with another system drive"
	}
	return name + " is in the machine and seen", "leave out " + name
}

// relieved reports whether there is a plan once some wants are set aside.
func (in *Input) relieved(ctx context.Context, out *Advice, without map[want]bool) (bool, error) {
	try := *in
	try.without = without
	r, err := Find(ctx, try)
	out.Judged += r.Judged
	return r.End != Impossible, err // given up is not proved impossible
}

// mostSets of one size are tried when a smaller clash is looked for: all sets of three
// out of twenty wants.
const mostSets = 1140

// explainClash names the smallest set of wants that cannot all be met, and for each
// whether giving it up is enough.
func (in *Input) explainClash(ctx context.Context, out *Advice) error {
	wants := in.wants()
	all := map[want]bool{}
	for _, w := range wants {
		all[w] = true
	}
	if free, err := in.relieved(ctx, out, all); err != nil || !free {
		out.Clash = append(out.Clash, "the machine starts")
		out.Cures = append(out.Cures, "nothing that was asked for is the cause: no module at hand works in this board")
		return err
	}
	clash, err := in.clash(ctx, out, wants, all)
	if err != nil {
		return err
	}
	for _, w := range clash {
		is, givenUp := in.words(w)
		out.Clash = append(out.Clash, is)
		enough, err := in.relieved(ctx, out, map[want]bool{w: true})
		if err != nil {
			return err
		}
		if enough {
			out.Cures = append(out.Cures, givenUp)
		}
	}
	return in.fromShelf(ctx, out)
}

// fromShelf tries what lies on the shelf, one part at a time: an adapter, a carrier
// or a lead may be all that is missing.
func (in *Input) fromShelf(ctx context.Context, out *Advice) error {
	for _, p := range in.Shelf {
		if p.Fitting == nil && len(p.Positions()) == 0 {
			continue
		}
		extra := rig.Piece{ID: OnShelf(p.ID), Part: p}
		if in.piece(extra.ID) != nil {
			continue // tried already
		}
		try := *in
		try.Pieces = append(slices.Clone(in.Pieces), extra)
		try.May = maps.Clone(in.May)
		if try.May == nil {
			try.May = map[rig.ItemID]Role{}
		}
		try.May[extra.ID] = Leave
		r, err := Find(ctx, try)
		if err != nil {
			return err
		}
		if out.Judged += r.Judged; r.Best != nil {
			out.Cures = append(out.Cures, "take from the shelf: "+p.Name)
		}
	}
	return nil
}

// clash takes wants away until none can be left out, and then looks for a smaller set
// among all of each size.
func (in *Input) clash(ctx context.Context, out *Advice, wants []want, all map[want]bool) ([]want, error) {
	without := map[want]bool{}
	var kept []want
	for _, w := range wants {
		without[w] = true
		free, err := in.relieved(ctx, out, without)
		if err != nil {
			return nil, err
		}
		if free { // this one is needed for the clash
			delete(without, w)
			kept = append(kept, w)
		}
	}
	sets := 1
	for size := 1; size < len(kept); size++ {
		if sets = sets * (len(wants) - size + 1) / size; sets > mostSets {
			break
		}
		got, err := in.among(ctx, out, wants, all, nil, size)
		if err != nil || got != nil {
			return got, err
		}
	}
	return kept, nil
}

// among tries all sets of a size.
func (in *Input) among(ctx context.Context, out *Advice, wants []want, all map[want]bool, have []want, size int) ([]want, error) {
	if size == 0 {
		without := maps.Clone(all)
		for _, w := range have {
			delete(without, w)
		}
		free, err := in.relieved(ctx, out, without)
		if err != nil || free {
			return nil, err
		}
		return slices.Clone(have), nil
	}
	for i := range wants {
		got, err := in.among(ctx, out, wants[i+1:], all, append(have, wants[i]), size-1)
		if err != nil || got != nil {
			return got, err
		}
	}
	return nil, nil
}
