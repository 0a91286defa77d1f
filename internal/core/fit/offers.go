package fit

import (
	"slices"

	"deepbay/internal/core/rig"
)

// Offer is what would come of putting one item into one socket.
type Offer struct {
	Item   rig.ItemID
	Socket rig.Path
	After  Answer    // with the item in it
	Costs  []Finding // that would stop then and do not without the item
}

// State is what the socket does with the item in it.
func (o *Offer) State() State { return o.After.Socket(o.Socket).State }

// Offers tries an item in every socket into which its kind of part goes, one at
// a time. What is in the socket is taken to give way; what sits on a carrier goes
// with it.
func Offers(b *rig.Rig, item rig.ItemID) []Offer {
	var out []Offer
	p := b.Piece(item)
	if p == nil {
		return out
	}
	base := *b
	base.Setup = moved(b, rig.Move{Item: item})
	before := Resolve(&base)
	for _, k := range base.Places() {
		if !rig.Suits(p.Part, &k.Socket) {
			continue
		}
		try := *b
		try.Setup = moved(b, rig.Move{Item: item, Socket: k.Path})
		o := Offer{Item: item, Socket: k.Path, After: Resolve(&try)}
		for _, f := range o.After.Findings {
			if f.Severity == Stops && !slices.ContainsFunc(before.Findings, f.same) {
				o.Costs = append(o.Costs, f)
			}
		}
		out = append(out, o)
	}
	return out
}

// same reports a finding of the same rule about the same thing.
func (f *Finding) same(g Finding) bool {
	return f.Code == g.Code && f.Item == g.Item && f.Socket == g.Socket
}

// moved is the setup with one piece moved to a place that is there.
func moved(b *rig.Rig, m rig.Move) rig.Setup {
	after, _, err := b.Moved([]rig.Move{m})
	if err != nil {
		return b.Setup // the place is gone with the piece: nothing is moved
	}
	return after
}
