package build

import (
	"slices"

	"deepbay/internal/core/machine"
)

// Offer is what would come of putting one item into one socket.
type Offer struct {
	Socket machine.SocketID `json:"socket"`
	State  State            `json:"state"` // of the socket, with the item in it
	Says   string           `json:"says"`  // short: the link, what stops it, or what it costs
	Costs  []string         `json:"costs"` // what the change stops, here or elsewhere, in full
}

// Offers tries an item in every socket into which its kind of part goes, one at
// a time. What is in the socket is taken to give way; what sits on a carrier goes
// with it.
func Offers(b *Build, item ItemID) []Offer {
	out := []Offer{}
	p := b.piece(item)
	if p == nil {
		return out
	}
	base := *b
	base.Placements = nil
	var riding []Placement // on the item itself, by position
	from := SocketOf(b.Placements, item)
	for _, p := range b.Placements {
		switch {
		case from != "" && Holder(p.Socket) == from:
			riding = append(riding, Placement{p.Item, p.Socket[len(from):]})
		case p.Item != item:
			base.Placements = append(base.Placements, p)
		}
	}
	before := Resolve(&base)
	sockets := append(slices.Clone(b.Sheet.Sockets), base.Carried()...)
	for i := range sockets {
		k := &sockets[i]
		if !Suits(p.Part, k) {
			continue
		}
		try := base
		try.Placements = slices.DeleteFunc(slices.Clone(base.Placements), func(p Placement) bool { return p.Socket == k.ID })
		try.Placements = append(try.Placements, Placement{Item: item, Socket: k.ID})
		for _, p := range riding {
			try.Placements = append(try.Placements, Placement{p.Item, k.ID + p.Socket})
		}
		after := Resolve(&try)
		got := after.Socket(k.ID)
		o := Offer{Socket: k.ID, State: got.State, Says: got.Says, Costs: []string{}}
		for _, f := range after.Findings {
			if f.Severity != Stops || slices.ContainsFunc(before.Findings, func(g Finding) bool { return g.Says == f.Says }) {
				continue
			}
			if len(o.Costs) == 0 {
				o.Says = title(f.Code)
				if f.Item != item && f.Item != "" {
					o.Says = "costs " + b.piece(f.Item).Part.Name
				}
			}
			o.Costs = append(o.Costs, f.Says)
		}
		out = append(out, o)
	}
	return out
}

func title(code Code) string {
	i := slices.IndexFunc(Checks[:], func(c Check) bool { return c.Code == code })
	return Checks[i].Title
}
