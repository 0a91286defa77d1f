package fit

// This file makes findings of what the rules found: one cause, one finding.

import (
	"reflect"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/known"
	"deepbay/internal/core/rig"
)

// findings tells all troubles, in the order they were found.
func (r *resolver) findings() []Finding {
	var out []Finding
	for i := 0; i < len(r.troubles); i++ {
		t := &r.troubles[i]
		if t.idle() {
			continue
		}
		rule := &Rules[t.rule]
		var told telling
		at := r.spot(t)
		f := Finding{Code: at.Code, Severity: at.Severity, Socket: at.Socket, Item: at.Item}
		switch {
		case rule.whole != nil:
			told = rule.say(r, t)
		case t.truth == known.Unknown:
			if n := len(out); n > 0 && out[n-1].Code == f.Code && out[n-1].Socket == t.s.path {
				continue // said together with what else is not known there
			}
			told = telling{says: fact.Of(FitUnknown, t.s.piece.ID, t.s.path), missing: r.missing(t.s)}
		default:
			l := look{resolver: r, s: t.s, notes: true}
			rule.holds(&l)
			told = rule.tell(&l)
			if t.found {
				told = telling{says: fact.Of(FoundAllTheSame, t.s.piece.ID, t.s.path, told.says), because: told.because, advice: []fact.Fact{fact.Of(OneIsWrong)}}
			}
		}
		f.Says, f.Because, f.Advice, f.Missing = told.says, r.sourced(told.because), told.advice, rig.With(nil, told.missing...)
		out = r.join(out, f)
	}
	return out
}

// joined are the rules whose findings about like pieces, or places, with one cause are one
// finding.
var joined = map[Code]bool{"fit-unknown": true, "link-unknown": true, "carrier-rating": true, "link-below-drive": true, "link-below-socket": true, "uplink-below-link": true, "position-dead": true,
	"m2-hot": true, "m2-heat-unknown": true, "m2-warm": true, "module-trial": true, "module-proven": true, "memory-speed": true, "lead-missing": true, "lead-unknown": true, "holder-missing": true, "not-placed": true, "port-lost": true}

// join adds a finding, or its piece and place to one that says the same of a like piece.
func (r *resolver) join(out []Finding, f Finding) []Finding {
	if joined[f.Code] {
		p := r.b.Piece(f.Item)
		for i := range out {
			g := &out[i]
			if g.Code != f.Code || !likePart(r.b.Piece(g.Item), p) || !g.alike(&f) {
				continue
			}
			g.Also = append(g.Also, rig.Placement{Item: f.Item, Socket: f.Socket})
			g.Missing = rig.With(g.Missing, f.Missing...)
			return out
		}
	}
	return append(out, f)
}

// likePart reports like pieces, or none in either place.
func likePart(a, b *rig.Piece) bool {
	if a == nil || b == nil {
		return a == b
	}
	return a.New == b.New && (a.Part == b.Part || a.Part.ID != "" && a.Part.ID == b.Part.ID)
}

// alike reports that two findings have one cause, seen from two places.
func (f *Finding) alike(g *Finding) bool {
	if len(f.Because) != len(g.Because) || len(f.Missing) != len(g.Missing) || !alikeFacts(f.Says, g.Says) {
		return false
	}
	for i := range f.Because {
		if !alikeFacts(f.Because[i].Fact, g.Because[i].Fact) {
			return false
		}
	}
	for i, a := range f.Missing {
		b := g.Missing[i]
		if a.Attr != b.Attr || a.Setting != b.Setting || (a.Item != b.Item) && (a.Item != f.Item || b.Item != g.Item) || a.Socket != b.Socket && (a.Socket != f.Socket || b.Socket != g.Socket) {
			return false
		}
	}
	return true
}

// alikeFacts reports that two facts say the same of different pieces, places or lanes.
func alikeFacts(a, b fact.Fact) bool {
	if a.Code != b.Code || len(a.Args) != len(b.Args) {
		return false
	}
	for i, x := range a.Args {
		y := b.Args[i]
		switch x.(type) {
		case rig.ItemID, rig.Path, int:
		default:
			if !reflect.DeepEqual(x, y) {
				return false
			}
		}
	}
	return true
}

// missing is the facts that would tell whether the part in s works there: those that
// the rules which do not know ask for themselves.
func (r *resolver) missing(s *sock) []rig.Fact {
	l := look{resolver: r, s: s, notes: true}
	for i := range r.troubles {
		if t := &r.troubles[i]; t.s == s && t.truth == known.Unknown && Rules[t.rule].holds != nil {
			Rules[t.rule].holds(&l)
		}
	}
	return l.missed
}
