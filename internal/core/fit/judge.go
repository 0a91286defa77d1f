package fit

// This file is Resolve for programs that try many builds and read no words.

import "deepbay/internal/core/rig"

// Verdict is what Resolve comes to, without its words: the same sockets, flows and
// memory, and of the findings how many of each rule there are.
type Verdict struct {
	Stops   int   // findings that stop
	Found   []int // findings of each rule, as Checks lists them
	Sockets []Outcome
	Flows   []FlowAnswer // without words
	Memory  MemoryAnswer // without words
}

// Outcome is the state of one socket, in the order of Resolved.Sockets.
type Outcome struct {
	Socket rig.Path
	State  State
	Item   rig.ItemID
	Link   *LinkAnswer // of the part in it, nil if none is made
}

// Judge answers a build as Resolve does and makes no words: a good deal faster.
func Judge(b *rig.Rig) Verdict {
	r := resolver{checks: Checks[:], b: b, count: make([]int, len(Checks))}
	r.settle(b.Carried())
	out := Verdict{Found: r.count, Sockets: make([]Outcome, len(r.sockets)), Flows: r.flows(), Memory: r.memory}
	for i := range r.sockets {
		s := &r.sockets[i]
		o := &out.Sockets[i]
		o.Socket, o.State = s.path, s.state
		if s.piece != nil {
			o.Item = s.piece.ID
		}
		if s.state == Live || s.state == Unsure {
			o.Link = s.trained
		}
	}
	for i := range r.checks {
		if r.checks[i].Severity == Stops {
			out.Stops += r.count[i]
		}
	}
	return out
}

// Count is how many findings of a rule there are.
func (v *Verdict) Count(code Code) int {
	for i := range Checks {
		if Checks[i].Code == code {
			return v.Found[i]
		}
	}
	return 0
}
