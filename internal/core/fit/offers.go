package fit

import (
	"cmp"
	"slices"

	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// Offer is what would come of putting one item into one socket.
type Offer struct {
	Item   rig.ItemID
	Socket rig.Path
	After  Answer     // with the item in it
	Costs  []Finding  // that would stop then and do not without the item
	Out    rig.ItemID // what lies there and would have to give way
}

// WorstOffer is the class of an offer that does not work.
const WorstOffer = 4

// Class is how good an offer is, 0 the best: it works, it works in another's place, it may
// work, it costs something, it does not work.
func (o *Offer) Class() int {
	switch state := o.State(); {
	case state == Stopped || state == Off:
		return WorstOffer
	case len(o.Costs) > 0:
		return 3
	case state != Live:
		return 2
	case o.Out != "":
		return 1
	}
	return 0
}

// rate is what the item moves there at best.
func (o *Offer) rate() quantity.Rate {
	for i := range o.After.Flows {
		if f := &o.After.Flows[i]; f.Item == o.Item {
			return f.Alone.High
		}
	}
	return o.After.Socket(o.Socket).rate()
}

// State is what the socket does with the item in it.
func (o *Offer) State() State { return o.After.Socket(o.Socket).State }

// Offers tries an item in every socket into which its kind of part goes, one at
// a time, and lists the best first. What is in the socket is taken to give way; what sits
// on a carrier goes with it.
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
		o := Offer{Item: item, Socket: k.Path, After: Resolve(&try), Out: base.In(k.Path)}
		for _, f := range o.After.Findings {
			if f.Severity == Stops && !slices.ContainsFunc(before.Findings, f.same) {
				o.Costs = append(o.Costs, f)
			}
		}
		out = append(out, o)
	}
	slices.SortStableFunc(out, func(a, b Offer) int {
		return cmp.Or(cmp.Compare(a.Class(), b.Class()), cmp.Compare(b.rate(), a.rate()))
	})
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
