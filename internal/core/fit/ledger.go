package fit

// This file is the ledger of lanes: of what a root deals out together, what is used,
// what lies idle, and which free sockets would use it.

import (
	"deepbay/internal/core/known"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// Ledger is the lanes of one group: Used by links that run, the rest Idle. Free is the
// sockets of the board that are open, empty and fed from it.
type Ledger struct {
	Group machine.GroupID
	Root  machine.RootID
	Dealt quantity.Lanes
	Used  known.Range[quantity.Lanes]
	By    []rig.ItemID // what uses them
	Free  []rig.Path
}

// Idle is what no link uses.
func (l *Ledger) Idle() known.Range[quantity.Lanes] {
	return known.Between(l.Dealt-min(l.Dealt, l.Used.High), l.Dealt-min(l.Dealt, l.Used.Low))
}

// Lanes is the ledger, group by group in the order of the sheet. It is worked out when it
// is asked for.
func (a *Answer) Lanes() []Ledger {
	r := a.settled
	if r == nil {
		return nil
	}
	out := make([]Ledger, len(r.sheet.Groups))
	for i := range out {
		g := &r.sheet.Groups[i]
		l := &out[i]
		l.Group, l.Root, l.Dealt = g.ID, g.Root, g.Lanes
		for n := range r.sheet.Sockets {
			s := &r.sockets[n]
			switch {
			case s.Group != g.ID || s.speaks[0] == known.No:
			case s.state == Free && s.closed == known.No:
				l.Free = append(l.Free, s.path)
			case s.seen() && s.linked && s.piece != nil:
				used := r.lanesUsed(s)
				if used.High == 0 {
					continue
				}
				if s.state == Unsure {
					used.Low = 0
				}
				l.Used.Low, l.Used.High = l.Used.Low+used.Low, l.Used.High+used.High
				l.By = append(l.By, s.piece.ID)
			}
		}
		l.Used = known.Min(l.Used, known.Exactly(l.Dealt))
	}
	return out
}

// lanesUsed is how many lanes of its socket a part uses: those of its link, or of a plain
// carrier those of the drives on it.
func (r *resolver) lanesUsed(s *sock) known.Range[quantity.Lanes] {
	if !s.piece.Part.Plain() {
		if s.drive() != nil && speaks(s.drive(), protocols[0]) != known.Yes {
			return known.Range[quantity.Lanes]{}
		}
		return s.link.Lanes
	}
	var out known.Range[quantity.Lanes]
	for i := len(r.sheet.Sockets); i < len(r.sockets); i++ {
		if k := &r.sockets[i]; k.parent == s && k.piece != nil && k.seen() && k.linked {
			used := r.lanesUsed(k)
			out.Low, out.High = out.Low+used.Low, out.High+used.High
		}
	}
	return out
}
