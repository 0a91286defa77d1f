package fit

// This file is how rules read facts. A rule asks for measures and kinds of things and
// gets truths; what was not stated, and would have told, is noted by whoever asked for
// notes. So no rule keeps a list of what it needs.

import (
	"cmp"
	"slices"

	"deepbay/internal/core/known"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// look is one occupied socket while rules look at it.
type look struct {
	*resolver
	s      *sock
	notes  bool
	missed []rig.Fact // facts that are not known and would have told
	usual  []rig.Fact // facts that are not known and were taken as usual
}

// label and sheet name facts of the part in the socket and of the socket; machine those
// of the whole.
func (l *look) label(a rig.Attr) rig.Fact   { return rig.Fact{Item: l.s.piece.ID, Attr: a} }
func (l *look) sheetOf(a rig.Attr) rig.Fact { return l.s.fact(a) }
func (l *look) machine(a rig.Attr) rig.Fact { return rig.Fact{Attr: a} }

// fact is an attribute of a socket: of the board's, or of the part that brings it.
func (s *sock) fact(a rig.Attr) rig.Fact {
	if s.parent != nil && s.parent.piece != nil {
		if a == rig.PlaceGen && !s.outside() { // what a card brings is of its generation
			return rig.Fact{Item: s.parent.piece.ID, Attr: rig.PartGen}
		}
		return rig.Fact{Item: s.parent.piece.ID, Pos: s.path.Last(), Attr: a}
	}
	return rig.Fact{Socket: s.path, Attr: a}
}

func (l *look) miss(facts ...rig.Fact) known.Truth {
	if l.notes {
		l.missed = rig.With(l.missed, facts...)
	}
	return known.Unknown
}

// measure is a length, or from what to what it may be.
type measure struct {
	known.Range[quantity.Millimetres]
	fact  rig.Fact
	usual bool // the range is what is usual, for nothing is stated
}

// endless is longer than anything on a bench.
const endless quantity.Millimetres = 1e6

// mm is a stated length; what is not stated is from low to high.
func mm(v, low, high quantity.Millimetres, f rig.Fact) measure {
	if v.Known() {
		return measure{known.Exactly(v), f, false}
	}
	return measure{known.Between(low, high), f, low > 0 || high < endless}
}

// within is whether a measure is no more than the room for it.
func (l *look) within(is, room measure) known.Truth {
	t := known.AtMost(is.Range, room.Range)
	for _, m := range [2]measure{is, room} {
		switch {
		case m.Exact():
		case t == known.Unknown:
			l.miss(m.fact)
		case m.usual && t == known.Yes && l.notes:
			l.usual = append(l.usual, m.fact)
		}
	}
	return t
}

// value is something stated, or not.
type value[T comparable] struct {
	is   T
	fact rig.Fact
}

func (v value[T]) stated() bool {
	var none T
	return v.is != none
}

// same is whether two values are one.
func same[T comparable](l *look, a, b value[T]) known.Truth {
	if a.stated() && b.stated() {
		return known.Of(a.is == b.is)
	}
	for _, v := range [2]value[T]{a, b} {
		if !v.stated() {
			l.miss(v.fact)
		}
	}
	return known.Unknown
}

// among is whether a value is one of a list; an empty list is not stated.
func among[T comparable](l *look, v value[T], list []T, f rig.Fact) known.Truth {
	if v.stated() && len(list) > 0 {
		return known.Of(slices.Contains(list, v.is))
	}
	if !v.stated() {
		l.miss(v.fact)
	}
	if len(list) == 0 {
		l.miss(f)
	}
	return known.Unknown
}

// least is whether one range surely reaches another, noting what it hangs on.
func atMost[T cmp.Ordered](l *look, a, b known.Range[T], missing ...rig.Fact) known.Truth {
	t := known.AtMost(a, b)
	if t == known.Unknown {
		l.miss(missing...)
	}
	return t
}
