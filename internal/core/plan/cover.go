package plan

// This file says what a plan opens: the layers that lie over the sockets and bays whose part
// changes. Drives and memory may lie under the same cover, so what their halves open does not add
// up; it is opened once.

import (
	"fmt"
	"slices"

	"deepbay/internal/core/access"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/layer"
	"deepbay/internal/core/rig"
)

// places is a set of places by the numbers a cover gives them; a sheet has at most 512 sockets and
// 64 bays.
type places [9]uint64

func (p places) with(q places) places {
	for i := range p {
		p[i] |= q[i]
	}
	return p
}

func (p places) within(q places) bool { return p.with(q) == q }

// cover is the layers of a machine as it arrived, and what it takes to reach places under them.
type cover struct {
	in     *Input
	stack  layer.Stack
	asks   *layer.Search
	was    []rig.Lying          // in which bays drives were found
	number map[layer.Named]int  // of places; those under the same layers have the same, those under none have none
	goals  []layer.Goal         // by number
	lost   map[layer.Named]bool // places that nobody reaches: what is over them was tried and does not come off
	weigh  map[places]int64     // what was worked out
	memory []places             // the numbers of memory slots
}

// covers is the cover of a question, read when it is asked for first.
func (in *Input) covers() *cover {
	if in.cover == nil {
		in.cover = newCover(in)
	}
	return in.cover
}

// newCover reads the layers of a sheet, nil where it says of none: what is not stated does not tell
// plans apart.
func newCover(in *Input) *cover {
	sheet := in.Found.Sheet
	if len(sheet.Layers) == 0 {
		return nil
	}
	c := &cover{in: in, was: fit.Bays(&in.Found), number: map[layer.Named]int{}, lost: map[layer.Named]bool{}, weigh: map[places]int64{}}
	c.stack = access.Of(&in.Found, c.was, in.Barred)
	c.asks = c.stack.Search()
	numbers := map[string]int{}
	see := func(at layer.Named) {
		g := c.stack.To(at)
		if len(g.Ways[0]) == 0 {
			return
		}
		name := fmt.Sprint(g.Ways)
		n, ok := numbers[name]
		if !ok {
			n = len(c.goals)
			numbers[name], c.goals = n, append(c.goals, g)
		}
		c.number[at] = n
		if !c.asks.Reaches(g) {
			c.lost[at] = true
		}
	}
	for i := range sheet.Sockets {
		k := &sheet.Sockets[i]
		see(layer.Named(k.ID))
		if one := c.of(layer.Named(k.ID)); k.Kind.Memory() && one != (places{}) && !slices.Contains(c.memory, one) {
			c.memory = append(c.memory, one)
		}
	}
	for i := range sheet.Bays {
		see(layer.Named(sheet.Bays[i].ID))
	}
	return c
}

// of is the set of some places.
func (c *cover) of(at ...layer.Named) (out places) {
	for _, p := range at {
		if n, ok := c.number[p]; ok {
			out[n/64] |= 1 << (n % 64)
		}
	}
	return out
}

// never is the weight of places that are out of reach, far above that of all layers of a sheet.
const never = 1 << 40

// weight is what must come off to reach places, in tenths of a minute, with what the risk is worth:
// see layer.Layer.Weight. It never grows less with more places.
func (c *cover) weight(p places) int64 {
	if p == (places{}) {
		return 0
	}
	if w, ok := c.weigh[p]; ok {
		return w
	}
	w := int64(0)
	open, ok := c.asks.Least(c.to(p), nil)
	for _, i := range open {
		w += int64(c.stack.Layers[i].Weight())
	}
	if !ok {
		w = never
	}
	c.weigh[p] = w
	return w
}

// to is the goals that places are.
func (c *cover) to(p places) []layer.Goal {
	var goals []layer.Goal
	for n, g := range c.goals {
		if p[n/64]&(1<<(n%64)) != 0 {
			goals = append(goals, g)
		}
	}
	return goals
}

// opens is the layers that come off to reach places, in order.
func (c *cover) opens(p places) []int {
	open, _ := c.asks.Least(c.to(p), nil)
	order, _ := c.stack.Off(open)
	return order
}

// end is one end of what a piece does.
func (c *cover) end(r *rig.Rig, at rig.Path, lies []rig.Lying, id rig.ItemID) access.End {
	out := access.End{Socket: at}
	if k := r.Socket(at); k != nil {
		out.Kind, out.Bay = k.Kind, (&rig.Setup{Bays: lies}).Told(id)
	}
	return out
}

// touched is what hands must reach so that pieces lie as planned.
func (c *cover) touched(pieces []rig.Piece, planned *rig.Rig, lies []rig.Lying) (out places) {
	for i := range pieces {
		id := pieces[i].ID
		from, to := c.end(&c.in.Found, c.in.home(id), c.was, id), c.end(planned, rig.PlaceOf(planned.Placements, id), lies, id)
		if from != to {
			out = out.with(c.of(access.Change(planned, from, to)...))
		}
	}
	return out
}

// surely is what hands must reach at least for a piece that goes to a socket, in whichever bay it
// comes to lie; false where nobody reaches one of these.
func (c *cover) surely(piece *rig.Piece, to *rig.Place) (places, bool) {
	from := c.end(&c.in.Found, c.in.home(piece.ID), c.was, piece.ID)
	var end access.End
	if to != nil {
		end = access.End{Socket: to.Path, Kind: to.Kind}
	}
	if from.Socket == end.Socket {
		return places{}, true
	}
	at := access.Coming(&c.in.Found, end)
	if !access.LeadOnly(from, access.End{Socket: end.Socket, Kind: end.Kind, Bay: from.Bay}) { // else it may stay in its bay
		at = slices.Concat(at, access.Leaving(&c.in.Found, from))
	}
	return c.of(at...), !slices.ContainsFunc(at, func(p layer.Named) bool { return c.lost[p] })
}

// ties reports that memory lies under too many different layers for its half to be searched apart.
func (c *cover) ties() bool { return c != nil && len(c.memory) > mostOpenings }

// shares reports that memory lies under layers, which the other half may open as well.
func (c *cover) shares() bool { return c != nil && len(c.memory) > 0 }

// mostOpenings bounds the ways to open memory that are searched one by one: two to this power.
const mostOpenings = 3

// openings are the sets of places that work on memory may reach while the other half opens what it
// will, the smaller first; none where memory lies under nothing.
func (c *cover) openings() []places {
	if !c.shares() {
		return nil
	}
	out := []places{{}}
	for _, one := range c.memory {
		for _, p := range slices.Clone(out) {
			out = append(out, p.with(one))
		}
	}
	return out
}
