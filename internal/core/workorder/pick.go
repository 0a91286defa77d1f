package workorder

// This file is the pick list: what must lie ready before the machine is opened.

import (
	"slices"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// Sort is what sort of thing is picked.
type Sort string

// The sorts, in the order of the list.
const (
	PickPart   Sort = "part"
	PickSmall  Sort = "small" // screws, posts, leads, brackets, adapters
	PickTool   Sort = "tool"
	PickSupply Sort = "spent" // pads, paste
	PickStick  Sort = "stick"
)

// Values lists the sorts for the formats.
func (Sort) Values() []string {
	return []string{string(PickPart), string(PickSmall), string(PickTool), string(PickSupply), string(PickStick)}
}

// Need is one thing to lay out.
type Need struct {
	Sort  Sort
	Says  fact.Fact
	Count int
	Item  rig.ItemID    // a piece of the job
	Want  *part.Fitting // what to look for on the shelf; nil for what is no part
	Have  int           // of these, how many are with the job or in the machine
}

// Short reports that there are not enough, with so many more on the shelf.
func (n *Need) Short(onShelf int) bool { return n.Have+onShelf < n.Count }

// pick lists what the order needs, with every tool of its steps once.
func (m *maker) pick() []Need {
	var out []Need
	for _, p := range m.Planned.Pieces {
		in := slices.ContainsFunc(m.in, func(c change) bool { return c.piece.ID == p.ID && c.from == nil })
		if in || p.New && p.Part.Fitting != nil {
			out = append(out, Need{Sort: PickPart, Says: fact.Of(PartAndWhat, p.ID), Count: 1, Item: p.ID, Have: 1})
		}
	}
	out = append(out, m.small()...)
	if len(m.in) > 0 || m.inside() {
		for _, code := range []fact.Code{Mat, Strap, Light, Camera} {
			out = append(out, Need{Sort: PickTool, Says: fact.Of(code), Count: 1})
		}
	}
	tool := func(f fact.Fact) {
		sort := PickTool
		if f.Code == Paste || f.Code == AsTyped {
			sort = PickSupply
		}
		if !slices.ContainsFunc(out, func(n Need) bool { return n.Says.String() == f.String() }) {
			out = append(out, Need{Sort: sort, Says: f, Count: 1})
		}
	}
	for i := range m.steps {
		for _, f := range m.steps[i].Tools {
			tool(f)
		}
		switch s := &m.steps[i]; {
		case s.Test == rig.MemoryTest:
			out = append(out, Need{Sort: PickStick, Says: fact.Of(StickMemory), Count: 1})
		case s.Do.Code == InstallOn || s.Do.Code == InstallArray:
			out = append(out, Need{Sort: PickStick, Says: fact.Of(StickInstaller), Count: 1})
		}
		if m.steps[i].Do.Code == InstallArray {
			out = append(out, Need{Sort: PickStick, Says: fact.Of(StickDriver), Count: 1})
		}
	}
	slices.SortStableFunc(out, func(a, b Need) int { return order(a.Sort) - order(b.Sort) })
	return out
}

func order(s Sort) int { return slices.Index(s.Values(), string(s)) }

// small is the screws, posts, leads and holders for what is fitted anew.
func (m *maker) small() []Need {
	var out []Need
	add := func(says fact.Fact, count, have int, want *part.Fitting) {
		for i := range out {
			if out[i].Says.String() == says.String() {
				out[i].Count += count
				out[i].Have = max(out[i].Have, have)
				return
			}
		}
		out = append(out, Need{Sort: PickSmall, Says: says, Count: count, Have: have, Want: want})
	}
	hand := func(kind part.FittingKind, is func(*part.Fitting) bool) int {
		n := 0
		for _, p := range m.Planned.Pieces {
			if f := p.Part.Fitting; f != nil && f.Kind == kind && (is == nil || is(f)) {
				n++
			}
		}
		return n
	}
	moved := fit.LeadsFrom(&m.Planned)
	for _, c := range m.in {
		d := c.piece.Part.Drive
		switch {
		case c.back != nil || m.leadOnly(c) || !m.insideOf(c) || !rig.Suits(c.piece.Part, &c.to.Socket):
		case c.to.Kind == machine.M2:
			have := 0
			if m.Found.In(c.to.Path) != "" { // its screw and post are there
				have = 1
			}
			add(fact.Of(PostAndScrew), 1, have, nil)
		case c.to.Kind == machine.Slot:
			add(fact.Of(BracketScrew), max(1, c.piece.Part.Card.Openings), max(1, c.piece.Part.Card.Openings), nil) // that of the cover plate
		case d == nil || m.Planned.Outside(c.to.Path):
		default:
			mount := m.mount(c.in, c.to)
			if thread := d.Form.Thread(); thread != "" && mount.Holder != machine.HeldByCaddy {
				want := &part.Fitting{Kind: part.Screws, Thread: thread}
				have := 4 * hand(part.Screws, func(f *part.Fitting) bool { return f.Thread == thread })
				if mount.Thread == thread {
					have += 4 // those kept with the bay
				}
				add(fact.Of(DriveScrews, thread), 4, have, want)
			}
			if kind := part.FittingKind(mount.Holder); mount.Holder != "" && mount.Holder != machine.HeldByScrews {
				have := hand(kind, nil)
				if mount.HasHolder == quantity.Yes {
					have++
				}
				add(fact.Of(HolderFor, kind, c.in), 1, have, &part.Fitting{Kind: kind, Holds: d.Form})
			}
			if want, needs := fit.Adapter(d, mount); needs {
				have := hand(part.PowerAdapter, func(f *part.Fitting) bool { return f.From == want.From && f.To == want.To })
				if c.from != nil && c.out == c.in {
					have++ // it has lain there
				}
				add(fact.Of(AdapterFor, want.From, want.To), 1, have, &want)
			}
			have := hand(part.DataLead, nil)
			if c.to.Lead == quantity.Yes || c.from != nil || slices.ContainsFunc(moved, func(p rig.Placement) bool { return p.Item == c.piece.ID }) {
				have++
			}
			add(fact.Of(LeadFor), 1, have, &part.Fitting{Kind: part.DataLead, End: mount.LeadEnd})
		}
	}
	return out
}

// Laid is fasteners that lie in the tray now.
func (c *Cell) Laid(done func(step string) bool) bool { return done(c.Out) && !done(c.Back) }
