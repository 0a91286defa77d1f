package plan

// This file finds out why nothing works: the smallest set of wishes that clash, and
// what would help.

import (
	"context"
	"maps"
	"slices"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/fit"
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

// Known is a piece told from its like by where it was found, as an argument of facts.
type Known struct {
	Item rig.ItemID // "" is anything
	Home rig.Path   // zero: it came along
	Of   int        // of so many like it, each of which is meant; 0 is it alone
}

// says is a want, and what giving it up would mean.
func (in *Input) says(w want) (is, givenUp fact.Fact) {
	p := Known{Item: w.item, Home: in.home(w.item)}
	switch w.kind {
	case wantStay:
		return fact.Of(Stays, p), fact.Of(LetMove, p)
	case wantPin:
		at := rig.PlaceOf(in.Pins, w.item)
		return fact.Of(Pinned, p, at), fact.Of(LetGoPin, p, at)
	case wantBan:
		return fact.Of(Banned, p, w.socket), fact.Of(LetGo, p, w.socket)
	case wantPort:
		return fact.Of(PortKept, w.socket), fact.Of(GiveUpPort, w.socket)
	case wantMemory:
		return fact.Of(MemoryWanted, in.Wish.MemoryBytes), fact.Of(LessWillDo)
	case wantSystem:
		return fact.Of(SystemWanted, in.Wish.SystemBytes), fact.Of(OtherWillDo)
	}
	return fact.Of(IsInAndSeen, p), fact.Of(LeaveOut, p)
}

// help is what carries out giving up a want.
func (in *Input) help(w want) Help {
	_, says := in.says(w)
	out := Help{Says: says, Item: w.item, Socket: w.socket}
	switch w.kind {
	case wantStay:
		out.Do = LetMoveHelp
	case wantPin:
		out.Do, out.Socket = UnpinHelp, rig.PlaceOf(in.Pins, w.item)
	case wantBan:
		out.Do = AllowHelp
	case wantPort:
		out.Do = PortHelp
	case wantMemory, wantSystem:
		out.Do = WishHelp
	default:
		out.Do = LeaveHelp
	}
	return out
}

func (in *Input) setAside(ctx context.Context, out *Advice, without map[want]bool) (Result, error) {
	try := *in
	try.without = without
	r, err := Find(ctx, try)
	out.Judged += r.Judged
	return r, err
}

// whyNowhere is what most often stops a piece, tried in every free place of its kind
// with the rest as in a plan that does without it. Where none is free it is what would
// stop it in those that are taken; nothing, and it is room that is missing.
func (in *Input) whyNowhere(p *Plan, item rig.ItemID) fact.Fact {
	b := in.rig(p.Placements, p.Choices)
	q := in.piece(item)
	if q == nil {
		return fact.Fact{}
	}
	var free, taken stops
	var kept fact.Fact
	room := false // it would go where another lies
	for _, at := range b.Places() {
		if !rig.Suits(q.Part, &at.Socket) {
			continue
		}
		there := b.In(at.Path)
		if why := in.untouchable(item, at.Path); why.Is() {
			if there == "" {
				kept = why
			}
			continue
		}
		rest := slices.DeleteFunc(slices.Clone(p.Placements), func(o rig.Placement) bool {
			return there != "" && o.Socket.Within(at.Path)
		})
		with := in.rig(append(rest, rig.Placement{Item: item, Socket: at.Path}), p.Choices)
		a := fit.Resolve(&with)
		switch f := a.FirstStop(); {
		case there == "":
			free.add(f)
		case f != nil && f.Item == item:
			taken.add(f)
		default:
			room = true
		}
	}
	switch {
	case free.most != "":
		return free.first[free.most]
	case kept.Is():
		return kept
	case taken.most != "" && !room:
		return taken.first[taken.most]
	}
	return fact.Of(NoFreePlace, item)
}

// stops counts what stops a piece, and knows what did so first of each kind.
type stops struct {
	count map[fit.Code]int
	first map[fit.Code]fact.Fact
	most  fit.Code
}

func (s *stops) add(f *fit.Finding) {
	if f == nil {
		return
	}
	if s.count == nil {
		s.count, s.first = map[fit.Code]int{}, map[fit.Code]fact.Fact{}
	}
	if s.count[f.Code]++; s.count[f.Code] == 1 {
		s.first[f.Code] = f.Says
	}
	if s.most == "" || s.count[f.Code] > s.count[s.most] {
		s.most = f.Code
	}
}

// mostSets of one size are tried when a smaller clash is looked for: all sets of three
// out of twenty wants.
const mostSets = 1140

// explainClash names the smallest set of wants that cannot all be met, and for each
// whether giving it up is enough.
func (in *Input) explainClash(ctx context.Context, out *Advice, open bool) error {
	sure := *in
	if open { // what clashes does so however all that is not known turns out; what helps, surely does
		hopeful := *in
		hopeful.corner = atBest
		in = &hopeful
	}
	wants := in.wants()
	c := clashing{in: in, out: out, wants: wants}
	if free, err := c.free(ctx, map[want]bool{}); err != nil || !free {
		out.Clash = append(out.Clash, fact.Of(Starts))
		out.Help = append(out.Help, Help{Says: fact.Of(NoModuleStarts)})
		return err
	}
	clash, err := c.clash(ctx)
	if err != nil {
		return err
	}
	for n, w := range clash {
		if slices.ContainsFunc(clash[:n], func(v want) bool { return in.likeWants(v, w) }) {
			continue // said of one like it
		}
		is, _ := in.says(w)
		for _, v := range clash[n+1:] {
			if in.likeWants(w, v) {
				k := is.Args[0].(Known)
				k.Of = max(1, k.Of) + 1
				is.Args[0] = k
			}
		}
		r, also, err := sure.setAsideLike(ctx, out, wants, w)
		if err != nil {
			return err
		}
		if w.kind == wantIn {
			rest := r.Best
			if rest == nil { // another wish wants it, too: it is tried in the machine as it came
				rest = &Plan{Placements: in.Found.Placements, Choices: in.Found.Settings}
			}
			if why := sure.whyNowhere(rest, w.item); why.Is() {
				is = fact.Of(CannotBecause, is, why)
			}
		}
		out.Clash = append(out.Clash, is)
		if r.End != Impossible {
			help := in.help(w)
			if help.Also = also; len(also) > 0 {
				help.Says = fact.Of(LeaveOutSome, 1+len(also), w.item)
			}
			out.Help = append(out.Help, help)
		}
	}
	return sure.fromShelf(ctx, out)
}

// mostLike are set aside together at most.
const mostLike = 8

// setAsideLike sets a want aside, and as many like it as it takes until there is, or may
// be, a plan: those are returned.
func (in *Input) setAsideLike(ctx context.Context, out *Advice, wants []want, w want) (Result, []rig.ItemID, error) {
	without := map[want]bool{w: true}
	r, err := in.setAside(ctx, out, without)
	var also []rig.ItemID
	for _, v := range wants {
		if err != nil || r.End != Impossible || len(also) == mostLike {
			break
		}
		if v != w && in.likeWants(v, w) {
			without[v], also = true, append(also, v.item)
			r, err = in.setAside(ctx, out, without)
		}
	}
	return r, also, err
}

// likeWants reports that two pieces which came along, and which nothing tells apart, are
// wanted in the machine.
func (in *Input) likeWants(a, b want) bool {
	return a.kind == wantIn && b.kind == wantIn && in.home(a.item).IsZero() && in.home(b.item).IsZero() && samePart(in.piece(a.item).Part, in.piece(b.item).Part)
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
			out.Help = append(out.Help, Help{Says: fact.Of(TakeFromShelf, fact.Typed(p.Name)), Do: TakeHelp, Part: p.ID})
		}
	}
	return nil
}

// clashing looks for the smallest set of wants that no plan meets together.
type clashing struct {
	in    *Input
	out   *Advice
	wants []want
	met   []map[want]bool // wants that one plan meets together, so that no part of them clashes
}

// free reports whether there is, or may be, a plan that meets some wants, whatever of
// the others.
func (c *clashing) free(ctx context.Context, have map[want]bool) (bool, error) {
	for _, met := range c.met {
		if contains(met, have) {
			return true, nil
		}
	}
	try := *c.in
	try.any = true
	r, err := try.setAside(ctx, c.out, c.other(have))
	if r.Best != nil {
		c.met = append(c.met, c.meets(r.Best, have))
	}
	return r.End != Impossible, err // given up is not proved impossible
}

// other is every want but some.
func (c *clashing) other(have map[want]bool) map[want]bool {
	out := map[want]bool{}
	for _, w := range c.wants {
		if !have[w] {
			out[w] = true
		}
	}
	return out
}

// meets is what a plan that was asked to meet some wants meets of all.
func (c *clashing) meets(p *Plan, have map[want]bool) map[want]bool {
	placed := maps.Clone(have)
	for _, w := range c.wants {
		at, home := rig.PlaceOf(p.Placements, w.item), c.in.home(w.item)
		switch w.kind {
		case wantIn:
			placed[w] = placed[w] || !at.IsZero()
		case wantStay:
			placed[w] = placed[w] || at == home
		case wantPin:
			placed[w] = placed[w] || at == rig.PlaceOf(c.in.Pins, w.item)
		case wantBan:
			there := rig.ItemIn(p.Placements, w.socket)
			placed[w] = placed[w] || there == "" || w.item != "" && there != w.item
		}
	}
	all := maps.Clone(placed)
	for _, w := range c.wants {
		all[w] = all[w] || w.kind == wantMemory || w.kind == wantSystem || w.kind == wantPort
	}
	for _, try := range []map[want]bool{all, placed} {
		in := *c.in
		in.without = c.other(try)
		if _, ok := newScorer(&in, in.whole()).score(p.Placements, p.Choices, in.corner); ok {
			return try
		}
	}
	return have
}

func contains(all, some map[want]bool) bool {
	for w, is := range some {
		if is && !all[w] {
			return false
		}
	}
	return true
}

// clash takes wants away until none can be left out, and then looks for a smaller set
// among all of each size.
func (c *clashing) clash(ctx context.Context) ([]want, error) {
	have := c.other(nil)
	var kept []want
	for _, w := range c.wants {
		delete(have, w)
		free, err := c.free(ctx, have)
		if err != nil {
			return nil, err
		}
		if free { // this one is needed for the clash
			have[w] = true
			kept = append(kept, w)
		}
	}
	sets := 1
	for size := 1; size < len(kept); size++ {
		if sets = sets * (len(c.wants) - size + 1) / size; sets > mostSets {
			break
		}
		got, err := c.among(ctx, c.wants, nil, size)
		if err != nil || got != nil {
			return got, err
		}
	}
	return kept, nil
}

// among tries all sets of a size that has some wants and adds others.
func (c *clashing) among(ctx context.Context, others, have []want, size int) ([]want, error) {
	if size == 0 {
		set := map[want]bool{}
		for _, w := range have {
			set[w] = true
		}
		free, err := c.free(ctx, set)
		if err != nil || free {
			return nil, err
		}
		return slices.Clone(have), nil
	}
	for i := range others {
		if slices.ContainsFunc(others[:i], func(v want) bool { return c.in.likeWants(v, others[i]) }) {
			continue // tried with one like it
		}
		got, err := c.among(ctx, others[i+1:], append(have, others[i]), size-1)
		if err != nil || got != nil {
			return got, err
		}
	}
	return nil, nil
}
