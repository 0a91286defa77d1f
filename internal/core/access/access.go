// Package access is what lies over what in a machine as it stands: the layers of its sheet,
// and the parts in it, which are layers too. A wide card lies over sockets, a drive comes out
// with its cage and ties it down by its leads.
//
//	s := access.Of(&found, fit.Bays(&found), nil)
//	open, ok := s.Least([]layer.Goal{s.To("M2_2")}, nil)
package access

import (
	"slices"
	"strings"

	"deepbay/internal/core/layer"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// fitted begins the names of layers that are parts; no layer of a sheet is named so.
const fitted = "+"

// idOf is the name of a part as a layer.
func idOf(item rig.ItemID) layer.ID { return layer.ID(fitted + string(item)) }

// Item is the part that a layer is, "" for a layer of the sheet.
func Item(id layer.ID) rig.ItemID {
	item, ok := strings.CutPrefix(string(id), fitted)
	if !ok {
		return ""
	}
	return rig.ItemID(item)
}

// Of is the layers of a machine as it stands, with drives lying in bays as fit.Bays says. Those
// that are barred do not come off.
func Of(r *rig.Rig, lies []rig.Lying, barred []layer.ID) layer.Stack {
	s := layer.Stack{Barred: barred}
	in := map[layer.Named]rig.ItemID{}
	for _, p := range r.Placements {
		if !p.Socket.Nested() {
			in[layer.Named(p.Socket.Top())] = p.Item
		}
	}
	for _, l := range lies {
		in[layer.Named(l.Bay)] = l.Item
	}
	for i := range r.Sheet.Layers {
		l := r.Sheet.Layers[i].Clone()
		if l.In != "" && in[l.In] == "" || l.Kind == layer.Heatsink && replaced(r, &l, in) {
			continue // nothing lies there
		}
		for _, bay := range l.Holds {
			if id := in[bay]; id != "" && !l.Along {
				l.Leads = append(l.Leads, driveLeads(r, id)...)
			}
		}
		s.Layers = append(s.Layers, l)
	}
	for _, p := range r.Placements {
		if !p.Socket.Nested() {
			lie(&s, r, p)
		}
	}
	return s
}

// replaced reports a board's heatsink that is off because the cards below it bring their own: two
// do not go over one another.
func replaced(r *rig.Rig, l *layer.Layer, in map[layer.Named]rig.ItemID) bool {
	own := false
	for _, at := range l.Hides {
		k, p := r.Sheet.Socket(machine.SocketID(at)), r.Piece(in[at])
		if k == nil || k.Kind != machine.M2 || p == nil || p.Part.M2() == nil || p.Part.M2().Heatsink != quantity.Yes {
			return false
		}
		own = true
	}
	return own
}

// lie adds a card that lies over sockets to the layers: to that of its slot, where the sheet
// has one.
func lie(s *layer.Stack, r *rig.Rig, p rig.Placement) {
	k, piece := r.Sheet.Socket(p.Socket.Top()), r.Piece(p.Item)
	if k == nil || k.Kind != machine.Slot || piece == nil || piece.Part.Card == nil {
		return
	}
	c := piece.Part.Card
	at := slices.IndexFunc(s.Layers, func(l layer.Layer) bool { return l.In == layer.Named(k.ID) })
	over := under(r.Sheet, k, c)
	if at < 0 && len(over) == 0 {
		return
	}
	if at < 0 {
		s.Layers = append(s.Layers, card(p.Item, k, c))
		at = len(s.Layers) - 1
	}
	l := &s.Layers[at]
	for _, n := range over {
		if !slices.Contains(l.Hides, n) {
			l.Hides = append(l.Hides, n)
		}
	}
	if len(l.Leads) == 0 {
		for range c.Plugs {
			l.Leads = append(l.Leads, layer.Lead{Plug: layer.CardPower, Item: string(p.Item), Again: layer.OnceBack})
		}
	}
	for i := range s.Layers { // what lies on the board, under the card, waits for it
		low := &s.Layers[i]
		if (low.Kind == layer.Heatsink || low.Kind == layer.Shield) && low.ID != l.ID && slices.ContainsFunc(low.Hides, func(n layer.Named) bool { return slices.Contains(over, n) }) {
			low.After = append(low.After, l.ID)
		}
	}
}

// card is a card as a layer. One screw for each opening holds it at the rear, 6-32 (the PCIe
// card's electromechanical specification leaves it to the case; cases take 6-32 as a rule), and
// a latch at the end of a long slot.
func card(id rig.ItemID, k *machine.Socket, c *part.Card) layer.Layer {
	l := layer.Layer{ID: idOf(id), Kind: layer.Card, In: layer.Named(k.ID), Outline: shadow(k, c), Moves: []layer.Motion{{How: layer.Pull, Toward: layer.Top}}}
	screws := layer.Fastener{Count: max(1, c.Openings), Bit: layer.PH2, Thread: layer.UNC, Length: 5}
	middle := k.Place.YMM + k.Place.HeightMM/2
	for i := range screws.Count {
		screws.At = append(screws.At, layer.Point{XMM: bracketMM, YMM: middle + quantity.Millimetres(i)*openingMM})
	}
	l.Fasteners = []layer.Fastener{screws}
	if k.Physical == 0 || k.Physical >= latchedFrom {
		l.Catches = []layer.Catch{{Kind: layer.Latch, Count: 1, At: []layer.Point{{XMM: k.Place.XMM + k.Place.WidthMM, YMM: middle}}}}
	}
	return l
}

// bracketMM is where brackets stand, beyond the board's rear edge; slots of this length or
// longer have a latch as a rule.
const (
	bracketMM   quantity.Millimetres = -4
	latchedFrom quantity.Lanes       = 16
)

// openingMM is from one rear opening to the next (PCI Express card electromechanical
// specification: 20.32 mm); partsMM is how far parts stand off a card's board.
const (
	openingMM quantity.Millimetres = 20.32
	partsMM   quantity.Millimetres = 14.47
)

// shadow is the part of the board that a card in a slot lies over, as far as its size is
// known: from its slot away from the processor, where openings are counted.
func shadow(k *machine.Socket, c *part.Card) *layer.Outline {
	long := max(c.LengthMM, k.Place.WidthMM)
	wide := k.Place.HeightMM/2 + partsMM + quantity.Millimetres(max(1, c.Openings)-1)*openingMM
	return &layer.Outline{XMM: k.Place.XMM, YMM: k.Place.YMM, WidthMM: long, HeightMM: wide}
}

// under is the sockets that a card in a slot lies over: as the sheet says, and where it is
// silent, the M.2 sockets in its shadow.
func under(sheet *machine.Sheet, slot *machine.Socket, c *part.Card) []layer.Named {
	from, to := slot.Opening, slot.Opening+max(1, c.Openings)
	covers := func(n int) bool { return slot.Opening > 0 && from <= n && n < to }
	below := shadow(slot, c)
	var out []layer.Named
	for i := range sheet.Sockets {
		k := &sheet.Sockets[i]
		switch {
		case k.ID == slot.ID || k.Kind != machine.M2 && k.Kind != machine.Slot:
		case k.Kind == machine.Slot && !(covers(k.Opening) && k.Opening != slot.Opening):
		case k.Kind == machine.M2 && k.Under > 0 && !covers(k.Under):
		case k.Kind == machine.M2 && k.Under == 0 && !overlap(below, &k.Place):
		default:
			out = append(out, layer.Named(k.ID))
		}
	}
	return out
}

func overlap(o *layer.Outline, p *machine.Place) bool {
	return o.XMM < p.XMM+p.WidthMM && p.XMM < o.XMM+o.WidthMM && o.YMM < p.YMM+p.HeightMM && p.YMM < o.YMM+o.HeightMM
}

// driveLeads is the leads of a drive that comes out with its cage.
func driveLeads(r *rig.Rig, id rig.ItemID) []layer.Lead {
	p := r.Piece(id)
	if p == nil || p.Part.Drive == nil {
		return nil
	}
	return []layer.Lead{{Plug: layer.SATAData, Item: string(id)}, {Plug: layer.SATAPower, Item: string(id)}}
}
