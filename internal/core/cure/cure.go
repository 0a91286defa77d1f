// Package cure finds ways to make a finding go away, and tries each before it is
// offered: the finding is gone, nothing is stopped that was not, and what else gets
// worse is said.
//
//	a := fit.Resolve(&r)
//	cure.Fill(&r, &a) // each finding now has its cures
package cure

import (
	"slices"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// Setting is a setting at a value, as an argument of facts.
type Setting rig.Choice

// way is which kinds of move are tried for a finding.
type way uint8

const (
	elsewhere way = 1 << iota // the piece in another place
	settings                  // one setting at another value
	causes                    // what a rule of the sheet asks about, in another place
	exchange                  // the piece and one like it change places
	otherBay                  // a drive in another bay, its lead where it is
	reorder                   // modules into the slots of the sheet
	faster                    // what is asked for is that the piece gets faster
	inside                    // only places that are not behind a bridge
)

// ways says what is tried for which finding; for others there are no moves.
var ways = map[fit.Code]way{
	"kind-mismatch": elsewhere, "m2-key": elsewhere, "m2-length": elsewhere, "m2-width": elsewhere, "m2-height": elsewhere, "m2-cover": elsewhere | causes, "m2-under": elsewhere,
	"module-height": elsewhere, "bay-height": elsewhere | otherBay, "bay-form": elsewhere | otherBay, "plug-wrong": elsewhere | otherBay, "holder-missing": otherBay, "screw-thread": otherBay, "slot-length": elsewhere, "slot-covered": elsewhere | causes,
	"position-dead": elsewhere | settings | causes, "socket-off": elsewhere | settings | causes, "protocol": elsewhere | settings | causes, "fit-unknown": elsewhere,
	"carrier-rating":   elsewhere | settings,
	"link-below-drive": elsewhere | settings | causes | exchange | faster, "uplink-below-link": elsewhere | exchange | faster, "card-narrow": elsewhere | settings | causes | faster, "carrier-shared": elsewhere | settings | causes | faster, "box-narrow": elsewhere | faster,
	"outside": elsewhere | inside, "port-lost": settings | causes, "memory-channels": reorder, "memory-order": reorder, "memory-speed": settings, "profile-trial": settings, "not-placed": elsewhere, "wish-keep": elsewhere,
}

// Fill gives the findings of an answer their cures.
func Fill(r *rig.Rig, a *fit.Answer) {
	var t *trier
	for i := range a.Findings {
		f := &a.Findings[i]
		if ways[f.Code] == 0 {
			continue
		}
		if t == nil {
			t = newTrier(r)
		}
		f.Cures = t.cures(f)
	}
}

type trier struct {
	r      *rig.Rig
	places []rig.Place
	now    fit.Verdict
}

func newTrier(r *rig.Rig) *trier {
	return &trier{r: r, now: fit.Judge(r), places: r.Places()}
}

// cures are the moves that cure a finding, in the order of the sheet.
func (t *trier) cures(f *fit.Finding) []fit.Cure {
	how := ways[f.Code]
	var out []fit.Cure
	try := func(says fact.Fact, moves ...rig.Move) {
		if c, ok := t.try(f, how, moves); ok {
			c.Says = says
			out = append(out, c)
		}
	}
	if how&elsewhere != 0 {
		t.elsewhere(f.Item, f.Item, how&inside != 0, try)
	}
	if how&otherBay != 0 {
		t.otherBays(f, try)
	}
	if how&exchange != 0 {
		t.exchanges(f, try)
	}
	if how&settings != 0 {
		t.settings(try)
	}
	if how&causes != 0 {
		for _, id := range t.causes(f) {
			t.elsewhere(id, f.Item, false, try)
		}
	}
	if how&reorder != 0 {
		t.reorder(try)
	}
	return out
}

// elsewhere tries a piece in every free place of its kind. Where the finding is about
// another, which may be its twin, it is said where the piece lies.
func (t *trier) elsewhere(id, about rig.ItemID, insideOnly bool, try func(fact.Fact, ...rig.Move)) {
	p := t.r.Piece(id)
	if p == nil {
		return
	}
	from := t.r.Where(id)
	k := t.r.Socket(from)
	for i := range t.places {
		at := &t.places[i]
		if at.Path == from || t.r.In(at.Path) != "" || !rig.Suits(p.Part, &at.Socket) || insideOnly && t.r.Outside(at.Path) {
			continue
		}
		lead := at.Kind == machine.SATA && k != nil && k.Kind == machine.SATA
		says := fact.Of(PutInto, id, at.Path)
		switch {
		case id != about && lead:
			says = fact.Of(MoveLeadFrom, id, from, at.Path)
		case id != about && !from.IsZero():
			says = fact.Of(PutFrom, id, from, at.Path)
		case lead:
			says = fact.Of(MoveLead, id, at.Path)
		}
		try(says, rig.Move{Item: id, Socket: at.Path})
	}
}

// otherBays tries a drive in every bay that nothing lies in.
func (t *trier) otherBays(f *fit.Finding, try func(fact.Fact, ...rig.Move)) {
	lies := fit.Bays(t.r)
	for _, b := range t.r.Sheet.EveryBay() {
		if !slices.ContainsFunc(lies, func(l rig.Lying) bool { return l.Bay == b.ID }) {
			try(fact.Of(LayInto, f.Item, b.ID), rig.Move{Item: f.Item, Socket: t.r.Where(f.Item), Bay: b.ID})
		}
	}
}

// exchanges tries the piece in the place of another that is of its kind.
func (t *trier) exchanges(f *fit.Finding, try func(fact.Fact, ...rig.Move)) {
	mine := t.r.Piece(f.Item)
	for _, q := range t.r.Placements {
		other, k, here := t.r.Piece(q.Item), t.r.Socket(q.Socket), t.r.Socket(f.Socket)
		if q.Item == f.Item || mine == nil || other == nil || k == nil || here == nil || other.Part == mine.Part || other.Part.Drive == nil || mine.Part.Drive == nil ||
			!rig.Suits(mine.Part, k) || !rig.Suits(other.Part, here) {
			continue
		}
		try(fact.Of(SwapWith, f.Item, f.Socket, q.Item, q.Socket), rig.Move{Item: f.Item, Socket: q.Socket}, rig.Move{Item: q.Item, Socket: f.Socket})
	}
}

// settings tries every setting at its other values.
func (t *trier) settings(try func(fact.Fact, ...rig.Move)) {
	for i := range t.r.Sheet.Settings {
		s := &t.r.Sheet.Settings[i]
		for _, o := range s.Options {
			if o.Value != t.r.Choice(s) {
				try(fact.Of(SetTo, Setting{s.ID, o.Value}), rig.Move{Setting: s.ID, Value: o.Value})
			}
		}
	}
}

// causes are the other pieces that rules among a finding's reasons ask about, and those
// that its reasons name as lying in the way.
func (t *trier) causes(f *fit.Finding) []rig.ItemID {
	var out []rig.ItemID
	add := func(id rig.ItemID) {
		if id != "" && id != f.Item && !slices.Contains(out, id) {
			out = append(out, id)
		}
	}
	for _, why := range f.Because {
		for _, arg := range why.Fact.Args {
			switch a := arg.(type) {
			case *machine.Rule:
				for _, c := range a.When {
					if c.Socket != "" {
						add(t.r.In(rig.On(c.Socket)))
					}
				}
			case rig.ItemID:
				if why.From == fit.FromPlan || f.Code == "slot-covered" {
					add(a)
				}
			}
		}
	}
	return out
}

// reorder tries the modules in the slots that the sheet gives for so many.
func (t *trier) reorder(try func(fact.Fact, ...rig.Move)) {
	var have []rig.Placement
	for _, k := range t.r.Sheet.Sockets {
		if id := t.r.In(rig.On(k.ID)); id != "" && k.Kind.Memory() {
			have = append(have, rig.Placement{Item: id, Socket: rig.On(k.ID)})
		}
	}
	want := t.r.Sheet.Memory.Order(len(have))
	var free []rig.Path
	for _, id := range want {
		if t.r.In(rig.On(id)) == "" {
			free = append(free, rig.On(id))
		}
	}
	var moves []rig.Move
	for _, p := range have {
		if !slices.Contains(want, p.Socket.Top()) && len(free) > len(moves) {
			moves = append(moves, rig.Move{Item: p.Item, Socket: free[len(moves)]})
		}
	}
	if len(moves) > 0 {
		try(fact.Of(PutThem, want), moves...)
	}
}

// try carries moves out and reports whether they cure: the finding is gone, or the piece
// faster where that is asked; nothing is stopped or not known that was fine before, and
// nothing else had to leave.
func (t *trier) try(f *fit.Finding, how way, moves []rig.Move) (fit.Cure, bool) {
	after, done, err := t.r.Moved(moves)
	if err != nil || len(done) != len(moves) {
		return fit.Cure{}, false
	}
	next := *t.r
	next.Setup = after
	v := fit.Judge(&next)
	for i := range v.Troubles {
		s := &v.Troubles[i]
		if s.Severity == fit.Stops && !slices.ContainsFunc(t.now.Troubles, s.Same) {
			return fit.Cure{}, false
		}
		if how&faster == 0 && s.Code == f.Code && s.Item == f.Item && (s.Item != "" || f.Names(s.Socket)) {
			return fit.Cure{}, false
		}
	}
	if how&faster != 0 && !t.fasterIn(&v, f.Item) {
		return fit.Cure{}, false
	}
	for _, m := range moves {
		if m.Item != "" && !m.Socket.IsZero() && stateOf(&v, m.Socket) != fit.Live {
			return fit.Cure{}, false
		}
	}
	return fit.Cure{Moves: moves, Costs: t.costs(&v, moves)}, true
}

func stateOf(v *fit.Verdict, at rig.Path) fit.State {
	for i := range v.Sockets {
		if v.Sockets[i].Socket == at {
			return v.Sockets[i].State
		}
	}
	return ""
}

func linkOf(v *fit.Verdict, id rig.ItemID) *fit.Link {
	for i := range v.Sockets {
		if v.Sockets[i].Item == id {
			return v.Sockets[i].Link
		}
	}
	return nil
}

// fasterIn reports that a piece surely moves more than before: a drive by what it moves
// alone, uplinks counted, another by its link.
func (t *trier) fasterIn(v *fit.Verdict, id rig.ItemID) bool {
	alone := func(v *fit.Verdict) (low, high quantity.Rate) {
		for i := range v.Flows {
			if v.Flows[i].Item == id {
				return v.Flows[i].Alone.Low, v.Flows[i].Alone.High
			}
		}
		if l := linkOf(v, id); l != nil {
			return l.Rate.Low, l.Rate.High
		}
		return 0, 0
	}
	_, before := alone(&t.now)
	after, _ := alone(v)
	return after > before
}

// costs is what else the moves change for the worse: sockets that go off, links that
// get slower.
func (t *trier) costs(v *fit.Verdict, moves []rig.Move) []fact.Fact {
	var out []fact.Fact
	var off []rig.Path
	for i := range v.Sockets {
		o := &v.Sockets[i]
		if o.State == fit.Off && o.Item == "" && !o.Socket.Nested() && stateOf(&t.now, o.Socket) == fit.Free {
			off = append(off, o.Socket)
		}
	}
	if len(off) > 0 {
		out = append(out, fact.Of(GoOff, off))
	}
	for i := range v.Sockets {
		o := &v.Sockets[i]
		if o.Item == "" || o.Link == nil {
			continue
		}
		if was := linkOf(&t.now, o.Item); was != nil && o.Link.Rate.High < was.Rate.Low {
			out = append(out, fact.Of(RunsSlower, o.Item, *o.Link, *was))
		}
	}
	return out
}
