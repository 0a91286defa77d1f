package fit

import (
	"slices"

	"deepbay/internal/core/rig"
)

// Offer is what would come of putting one item into one socket.
type Offer struct {
	Socket rig.Path `json:"socket"`
	State  State    `json:"state"` // of the socket, with the item in it
	Says   string   `json:"says"`  // short: the link, what stops it, or what it costs
	Costs  []string `json:"costs"` // what the change stops, here or elsewhere, in full
}

// Offers tries an item in every socket into which its kind of part goes, one at
// a time. What is in the socket is taken to give way; what sits on a carrier goes
// with it.
func Offers(b *rig.Rig, item rig.ItemID) []Offer {
	out := []Offer{}
	p := b.Piece(item)
	if p == nil {
		return out
	}
	base := *b
	base.Setup = moved(b, rig.Move{Item: item})
	before := Resolve(&base)
	places := make([]rig.Place, 0, len(b.Sheet.Sockets))
	for _, k := range b.Sheet.Sockets {
		places = append(places, rig.Place{Path: rig.On(k.ID), Socket: k})
	}
	for _, k := range append(places, base.Carried()...) {
		if !rig.Suits(p.Part, &k.Socket) {
			continue
		}
		try := *b
		try.Setup = moved(b, rig.Move{Item: item, Socket: k.Path})
		after := Resolve(&try)
		got := after.Socket(k.Path)
		o := Offer{Socket: k.Path, State: got.State, Says: got.Says, Costs: []string{}}
		for _, f := range after.Findings {
			if f.Severity != Stops || slices.ContainsFunc(before.Findings, func(g Finding) bool { return g.Says == f.Says }) {
				continue
			}
			if len(o.Costs) == 0 {
				o.Says = title(f.Code)
				if f.Item != item && f.Item != "" {
					o.Says = "costs " + b.Piece(f.Item).Part.Name
				}
			}
			o.Costs = append(o.Costs, f.Says)
		}
		out = append(out, o)
	}
	return out
}

// moved is the setup with one piece moved to a place that is there.
func moved(b *rig.Rig, m rig.Move) rig.Setup {
	after, _, err := b.Moved([]rig.Move{m})
	if err != nil {
		return b.Setup // the place is gone with the piece: nothing is moved
	}
	return after
}

func title(code Code) string {
	i := slices.IndexFunc(Checks[:], func(c Check) bool { return c.Code == code })
	return Checks[i].Title
}
