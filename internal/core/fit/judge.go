package fit

// This file is Resolve for programs that try many rigs and read nothing.

import (
	"deepbay/internal/core/known"
	"deepbay/internal/core/rig"
)

// Verdict is what Resolve comes to without its findings: the same sockets, flows and
// memory, and how many times each rule spoke.
type Verdict struct {
	Found   []int // of each rule, as Rules lists them, how often it does not hold, or of a wish nobody can tell; under fit-unknown, how many parts may not work
	Open    []int // how many of these hang on what is not known; nil for none
	Doubts  []Doubt
	Sockets []Outcome
	Flows   []Flow
	Memory  MemoryAnswer

	Troubles []Spot // what does not hold or is not known, and where

	settled *resolver
}

// Spot is a rule that does not hold, or about which the facts do not tell, and where.
type Spot struct {
	Code     Code
	Severity Severity
	Unknown  bool
	Item     rig.ItemID
	Socket   rig.Path
}

// Same reports the same trouble of the same piece, wherever it lies.
func (s *Spot) Same(o Spot) bool {
	return s.Code == o.Code && s.Item == o.Item && (s.Item != "" || s.Socket == o.Socket) && s.Unknown == o.Unknown
}

// Doubt is a rule about a loss of which nobody can tell whether it is one.
type Doubt struct {
	Rule   int // its place in Rules
	Item   rig.ItemID
	Socket rig.Path
}

// Outcome is the state of one socket, in the order of Answer.Sockets.
type Outcome struct {
	Socket rig.Path
	State  State
	Item   rig.ItemID
	Link   *Link // of the part in it, nil if none is made
	MayOff bool  // a rule that may hold closes it
}

// Judge answers a rig as Resolve does and tells nothing: a good deal faster.
func Judge(b *rig.Rig) Verdict { return verdict(b, asKnown) }

// Hope is Judge where every answer that is not known turns out well: a part that may
// work works, and rates are read at their highest. What is impossible even so is
// impossible.
func Hope(b *rig.Rig) Verdict { return verdict(b, hopeful) }

func verdict(b *rig.Rig, how mode) Verdict {
	r := settle(b, how)
	out := Verdict{Found: make([]int, len(Rules)), Sockets: make([]Outcome, len(r.sockets)), Flows: r.flows(), Memory: r.memory, settled: r}
	var last *sock
	out.Doubts = r.doubts
	out.Troubles = make([]Spot, 0, len(r.troubles))
	for i := range r.troubles {
		t := &r.troubles[i]
		if t.idle() {
			continue
		}
		out.Troubles = append(out.Troubles, r.spot(t))
		switch {
		case t.found:
			out.Found[foundOtherwise]++
		case t.truth == known.No || t.s == nil || Rules[t.rule].Severity != Stops:
			out.Found[t.rule]++
			if t.truth == known.Unknown || Rules[t.rule].asks {
				out.open(t.rule)
			}
		case t.s != last:
			last = t.s
			out.Found[fitUnknown]++
			out.open(fitUnknown)
		}
	}
	for i := range r.sockets {
		s := &r.sockets[i]
		o := &out.Sockets[i]
		o.Socket, o.State = s.path, s.state
		o.MayOff = s.closed == known.Unknown
		if s.piece != nil {
			o.Item = s.piece.ID
		}
		if s.seen() && s.linked {
			o.Link = &s.link
		}
	}
	return out
}

func (v *Verdict) open(rule int) {
	if v.Open == nil {
		v.Open = make([]int, len(v.Found))
	}
	v.Open[rule]++
}

// Settled reports that nothing unstated could change the verdict.
func (v *Verdict) Settled() bool {
	if v.Open != nil || v.Doubts != nil || !v.Memory.Peak.Exact() {
		return false
	}
	for i := range v.Sockets {
		if o := &v.Sockets[i]; o.State == Unsure || o.MayOff || o.Item != "" && o.Link != nil && !o.Link.Known() {
			return false
		}
	}
	for i := range v.Flows {
		if !v.Flows[i].Sure() {
			return false
		}
	}
	return true
}

// idle reports something that is not known about a part that does not work anyway.
func (t *trouble) idle() bool {
	return t.truth == known.Unknown && t.s != nil && (t.s.state == Stopped || t.s.state == Off)
}

// spot is a trouble for others to compare.
func (r *resolver) spot(t *trouble) Spot {
	rule := &Rules[t.rule]
	switch {
	case t.found:
		rule = &Rules[foundOtherwise]
	case t.truth == known.Unknown && rule.holds != nil:
		rule = &Rules[fitUnknown]
	}
	out := Spot{Code: rule.Code, Severity: rule.Severity, Unknown: t.truth == known.Unknown}
	switch {
	case t.s != nil:
		out.Socket = t.s.path
		if t.s.piece != nil {
			out.Item = t.s.piece.ID
		}
	case t.item >= 0:
		out.Item = r.b.Pieces[t.item].ID
	}
	return out
}

// The places in Rules of those that others speak under.
var fitUnknown, foundOtherwise int

// Count is how many findings of a rule there are.
func (v *Verdict) Count(code Code) int { return v.Found[RuleOf(code)] }
