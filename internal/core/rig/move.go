package rig

// This file moves things. Everything that changes where pieces lie, a person's
// change, a cure, the planner's answer, goes through Moved or Put.

import (
	"cmp"
	"fmt"
	"slices"

	"deepbay/internal/core/machine"
)

// Move is one thing changed: an item into a place (the zero Path takes it out), there into
// a bay where one is named, or a setting to a value.
type Move struct {
	Item    ItemID            `json:"item,omitempty"`
	Socket  Path              `json:"socket,omitzero"`
	Bay     machine.BayID     `json:"bay,omitempty" jsonschema:"maxLength=40"`
	Setting machine.SettingID `json:"setting,omitempty"`
	Value   string            `json:"value,omitempty"`
}

// Fault says why a move cannot be made.
type Fault struct {
	Move int // which of the moves
	Kind FaultKind
	At   Path
}

// FaultKind is what is wrong with a move.
type FaultKind int

// What can be wrong with a move.
const (
	NoPlace  FaultKind = iota // there is no such place in the machine as it is after the moves
	OnItself                  // a part cannot lie on what it carries
	NoItem                    // no piece has that name
	NoBay                     // the machine has no such bay, or the piece does not lie in one there
)

// Error is for programmers; people are told by whoever took the move from them.
func (f *Fault) Error() string { return fmt.Sprintf("move %d: fault %d at %q", f.Move, f.Kind, f.At) }

// seat is where a piece lies, said by what holds it: another piece or the board.
type seat struct {
	on       ItemID // "" is the board
	socket   machine.SocketID
	position int
}

// tree is the pieces by what holds them: who moves takes along what sits on it.
type tree map[ItemID]seat

func grow(placed []Placement) tree {
	t := make(tree, len(placed))
	for _, p := range placed {
		if p.Socket.Nested() {
			t[p.Item] = seat{on: ItemIn(placed, p.Socket.Holder()), position: p.Socket.Last()}
		} else {
			t[p.Item] = seat{socket: p.Socket.Top()}
		}
	}
	return t
}

// path is where an item lies; the zero Path where it, or what holds it, is on the mat.
func (t tree) path(id ItemID) Path {
	s, ok := t[id]
	switch {
	case !ok:
		return Path{}
	case s.on == "":
		return On(s.socket) // a position whose holder is not there has no socket and no top
	}
	up := t.path(s.on)
	if up.IsZero() || up.Depth() == MaxDepth {
		return Path{}
	}
	return up.Position(s.position)
}

func (t tree) in(at Path) ItemID {
	for id := range t {
		if t.path(id) == at {
			return id
		}
	}
	return ""
}

// seatAt finds the seat of a place: it is there when its holder is.
func (t tree) seatAt(at Path) (seat, bool) {
	if !at.Nested() {
		return seat{socket: at.Top()}, true
	}
	on := t.in(at.Holder())
	return seat{on: on, position: at.Last()}, on != ""
}

// holds reports that a carries b, at any depth.
func (t tree) holds(a, b ItemID) bool {
	for s, ok := t[b]; ok && s.on != ""; s, ok = t[s.on] {
		if s.on == a {
			return true
		}
	}
	return false
}

// placements lists what lies in the machine: what was there in its old order, the
// rest by the order of the moves.
func (t tree) placements(before []Placement, moved []Move) []Placement {
	out := make([]Placement, 0, len(t))
	add := func(id ItemID) {
		if at := t.path(id); !at.IsZero() {
			out = append(out, Placement{id, at})
		}
	}
	for _, p := range before {
		add(p.Item)
	}
	for _, m := range moved {
		if m.Item != "" && !slices.ContainsFunc(out, func(p Placement) bool { return p.Item == m.Item }) {
			add(m.Item)
		}
	}
	return out
}

// Moved is the setup after some moves and what really changed, as moves. All that is
// moved is lifted first and then set down, holders before what lies on them, so the
// order of the moves does not matter. What sits on a piece travels with it to any
// depth unless it is moved itself; a piece in the way goes to the mat. The error is
// a *Fault; the rig is not touched.
func (r *Rig) Moved(moves []Move) (Setup, []Move, error) {
	t := grow(r.Placements)
	order := make([]int, 0, len(moves))
	for i, m := range moves {
		if m.Item == "" {
			continue
		}
		if r.Piece(m.Item) == nil {
			return r.Setup, nil, &Fault{Move: i, Kind: NoItem}
		}
		delete(t, m.Item)
		if !m.Socket.IsZero() {
			order = append(order, i)
		}
	}
	slices.SortStableFunc(order, func(a, b int) int { return cmp.Compare(moves[a].Socket.Depth(), moves[b].Socket.Depth()) })
	out := Setup{Settings: r.Settings}
	for _, i := range order {
		m := &moves[i]
		if out.Placements = r.served(t.placements(r.Placements, moves)); r.with(out).Socket(m.Socket) == nil {
			kind := NoPlace
			if r.carries(m.Item, m.Socket) {
				kind = OnItself
			}
			return r.Setup, nil, &Fault{Move: i, Kind: kind, At: m.Socket}
		}
		s, _ := t.seatAt(m.Socket)
		if there := t.in(m.Socket); there != "" {
			delete(t, there)
		}
		t[m.Item] = s
	}
	out.Placements = r.served(t.placements(r.Placements, moves))
	if i := r.bays(&out, moves); i >= 0 {
		return r.Setup, nil, &Fault{Move: i, Kind: NoBay, At: moves[i].Socket}
	}
	for _, m := range moves {
		if m.Setting != "" {
			out.Settings = append(slices.DeleteFunc(slices.Clone(out.Settings), func(c Choice) bool { return c.Setting == m.Setting }), Choice{m.Setting, m.Value})
		}
	}
	return out, r.changed(out, moves), nil
}

// bays keeps in which bays drives were told to lie, as far as they still lie in one, and adds
// what the moves tell; who lay there lies where it fits. It returns the move that names a bay
// which is none for that place, -1 for none.
func (r *Rig) bays(out *Setup, moves []Move) int {
	if len(r.Bays) == 0 && !slices.ContainsFunc(moves, func(m Move) bool { return m.Bay != "" }) {
		return -1
	}
	after := r.with(*out)
	lies := func(id ItemID) bool {
		at := after.Where(id)
		return !at.IsZero() && after.InBay(at, after.Socket(at))
	}
	out.Bays = slices.DeleteFunc(slices.Clone(r.Bays), func(l Lying) bool { return !lies(l.Item) })
	for i, m := range moves {
		if m.Bay == "" {
			continue
		}
		if _, ok := r.Sheet.Bay(m.Bay); !ok || !lies(m.Item) {
			return i
		}
		out.Bays = append(slices.DeleteFunc(out.Bays, func(l Lying) bool { return l.Item == m.Item || l.Bay == m.Bay }), Lying{m.Item, m.Bay})
	}
	if len(out.Bays) == 0 {
		out.Bays = nil
	}
	return -1
}

// with is the rig in another setup.
func (r *Rig) with(s Setup) *Rig {
	out := *r
	out.Setup = s
	return &out
}

// served leaves out what lies in places that are not there: a part in a socket of
// another kind brings none, and what it carried goes to the mat.
func (r *Rig) served(placed []Placement) []Placement {
	var there map[Path]bool
	return slices.DeleteFunc(placed, func(p Placement) bool {
		if !p.Socket.Nested() {
			return false
		}
		if there == nil {
			there = map[Path]bool{}
			for _, k := range r.with(Setup{Placements: slices.Clone(placed)}).Carried() {
				there[k.Path] = true
			}
		}
		return !there[p.Socket]
	})
}

// carries reports that a place is one that the item brings, at any depth.
func (r *Rig) carries(id ItemID, at Path) bool {
	for at.Nested() {
		if at = at.Holder(); r.In(at) == id {
			return true
		}
	}
	return false
}

// changed lists what is other in a setup: what was told and what gave way, not what
// only travelled along.
func (r *Rig) changed(after Setup, told []Move) []Move {
	var out []Move
	was, is := grow(r.Placements), grow(after.Placements)
	for _, m := range told {
		switch {
		case m.Setting != "":
			if s := r.Sheet.Setting(m.Setting); s == nil || r.Choice(s) != m.Value {
				out = append(out, m)
			}
		case r.Where(m.Item) != after.Where(m.Item):
			out = append(out, Move{Item: m.Item, Socket: after.Where(m.Item), Bay: m.Bay})
		case m.Bay != "" && r.Told(m.Item) != m.Bay:
			out = append(out, m)
		}
	}
	for _, p := range r.Placements {
		if _, there := is[p.Item]; there || slices.ContainsFunc(told, func(m Move) bool { return m.Item == p.Item }) {
			continue
		}
		if on := was[p.Item].on; on == "" || !after.Where(on).IsZero() { // else it went with what holds it
			out = append(out, Move{Item: p.Item})
		}
	}
	return out
}

// Put is the move of one piece into a place, and of what lies there: two pieces that
// both lie in the machine change places, unless one carries the other; else what lies
// there goes to the mat.
func (r *Rig) Put(item ItemID, at Path) []Move {
	moves := []Move{{Item: item, Socket: at}}
	there, from := r.In(at), r.Where(item)
	if t := grow(r.Placements); there != "" && there != item && !from.IsZero() && !t.holds(there, item) && !t.holds(item, there) {
		moves = append(moves, Move{Item: there, Socket: from})
	}
	return moves
}

// Rides reports a piece that lies on the same holder in the same position in both
// setups: it is not touched, wherever its holder goes.
func Rides(a, b *Setup, id ItemID) bool {
	x, y := a.Where(id), b.Where(id)
	return x.Nested() && y.Nested() && x.Last() == y.Last() && a.In(x.Holder()) == b.In(y.Holder())
}
