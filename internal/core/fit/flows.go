package fit

// This file says what each drive can move alone, and what all can move at once.

import (
	"slices"

	"deepbay/internal/core/flow"
	"deepbay/internal/core/known"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// Flow is what one drive can move, reading, in one direction, from and to where a rate
// on the way is not stated.
type Flow struct {
	Item     rig.ItemID
	Socket   rig.Path
	Wants    known.Range[quantity.Rate] // by its own link and label, whatever it passes
	Alone    known.Range[quantity.Rate]
	Together known.Range[quantity.Rate] // with all other drives at work
	Most     quantity.Rate              // its share with everything at its highest; of all flows it adds up to the most there can be
	Held     Shared                     // what holds it then; zero where its own link does
	Open     Shared                     // a link on the way whose rate is not known
}

// UplinkUse is an uplink, and what all drives behind it want of it together.
type UplinkUse struct {
	Root    machine.RootID
	Link    Link
	Drives  int
	Wants   known.Range[quantity.Rate]
	Carries known.Range[quantity.Rate]
}

// Uplinks tells how full the uplinks are, in the order of the sheet's roots.
func (a *Answer) Uplinks() []UplinkUse {
	if a.settled == nil {
		return nil
	}
	r := a.settled
	var out []UplinkUse
	for i := range r.sheet.Roots {
		root := &r.sheet.Roots[i]
		if root.Uplink == nil {
			continue
		}
		up := uplink(root)
		use := UplinkUse{Root: root.ID, Link: up, Carries: up.Planning()}
		for j := range a.Flows {
			f := &a.Flows[j]
			for at := r.sheet.RootOf(r.place(f.Socket).Socket); at != nil && at.Uplink != nil; at = r.sheet.Root(at.Uplink.To) {
				if at == root {
					use.Drives++
					use.Wants.Low, use.Wants.High = use.Wants.Low+f.Wants.Low, use.Wants.High+f.Wants.High
				}
			}
		}
		out = append(out, use)
	}
	return out
}

// Sure reports that nothing unstated leaves the figures open.
func (f *Flow) Sure() bool { return f.Alone.Exact() && f.Together.Exact() }

// Shared is a link that several drives pass: the uplink of a root, or the link of the
// part in a place, a carrier with a switch chip or a USB box.
type Shared struct {
	Root machine.RootID
	At   rig.Path
	Box  bool
}

// Is reports a link at all.
func (s Shared) Is() bool { return s != Shared{} }

type sharedLink struct {
	Shared
	rate known.Range[quantity.Rate]
}

// flows shares uplinks and switch links among the drives that are seen. The
// payload assumed is link.Typical's.
func (r *resolver) flows() []Flow { return r.flowsOf(func(*sock) bool { return true }) }

// AtWork is what some drives get while no other is at work.
func (a *Answer) AtWork(items []rig.ItemID) []Flow {
	if a.settled == nil {
		return nil
	}
	return a.settled.flowsOf(func(s *sock) bool { return slices.Contains(items, s.piece.ID) })
}

// flowsOf shares them among those that work.
func (r *resolver) flowsOf(works func(*sock) bool) []Flow {
	n := 0
	for i := range r.sockets {
		if s := &r.sockets[i]; s.drive() != nil && s.state == Live && s.linked && works(s) {
			n++
		}
	}
	if n == 0 {
		return nil
	}
	var links []sharedLink
	shared := func(s Shared, rate known.Range[quantity.Rate]) int {
		for i := range links {
			if links[i].Shared == s {
				return i
			}
		}
		links = append(links, sharedLink{s, rate})
		return len(links) - 1
	}
	out := make([]Flow, 0, n)
	flows := make([]flow.Flow, 0, n)
	lows := make([]quantity.Rate, 0, n)
	passed := make([]int, 0, 3*n) // the links of all flows, one behind the other
	exact := true
	for i := range r.sockets {
		s := &r.sockets[i]
		if s.drive() == nil || s.state != Live || !s.linked || !works(s) {
			continue
		}
		own := s.link.Planning()
		if rated := quantity.MBps(s.drive().ReadMBps); rated.Known() {
			own = known.Min(own, known.Exactly(rated))
		}
		from := len(passed)
		for up := s.parent; up != nil; up = up.parent {
			switch {
			case !up.linked: // nothing is seen behind it
			case up.enclosure() != nil:
				passed = append(passed, shared(Shared{At: up.path, Box: true}, up.link.Planning()))
			case up.card().Carrier.Switch:
				passed = append(passed, shared(Shared{At: up.path}, up.link.Planning()))
			}
		}
		if r.sheet.RootOf(s.Socket) == nil { // nobody says where it hangs: it may be behind any uplink
			for i := range r.sheet.Roots {
				if root := &r.sheet.Roots[i]; root.Uplink != nil {
					up := uplink(root)
					own.Low = min(own.Low, up.Planning().Low)
				}
			}
		}
		for root := r.sheet.RootOf(s.Socket); root != nil && root.Uplink != nil; root = r.sheet.Root(root.Uplink.To) {
			up := uplink(root)
			passed = append(passed, shared(Shared{Root: root.ID}, up.Planning()))
		}
		flows = append(flows, flow.Flow{Demand: own.High, Links: passed[from:len(passed):len(passed)]})
		lows = append(lows, own.Low)
		exact = exact && own.Exact()
		out = append(out, Flow{Item: s.piece.ID, Socket: s.path, Wants: own})
	}
	low, high := make([]quantity.Rate, len(links)), make([]quantity.Rate, len(links))
	for i, l := range links {
		low[i], high[i] = l.rate.Low, l.rate.High
		exact = exact && l.rate.Exact()
	}
	for i, share := range flow.Shares(high, flows) {
		a := &out[i]
		a.Alone = known.Exactly(flows[i].Alone(high))
		a.Together, a.Most = known.Exactly(share.Rate), share.Rate
		if share.Held != flow.Free {
			a.Held = links[share.Held].Shared
		}
		for _, l := range flows[i].Links {
			if !links[l].rate.Exact() && !a.Open.Is() {
				a.Open = links[l].Shared
			}
		}
	}
	if !exact {
		widen(out, flows, lows, low, high)
	}
	return out
}

// widen makes ranges of flows where not all rates are known. A flow's least share is
// its own demand and the links on its path at their lowest, all others at their
// highest; its greatest the reverse. On trees, which machines are, these bounds are
// never broken and always met.
func widen(out []Flow, flows []flow.Flow, lows, low, high []quantity.Rate) {
	try := make([]flow.Flow, len(flows))
	capacity := make([]quantity.Rate, len(high))
	share := func(i int, lowest bool) quantity.Rate {
		copy(try, flows)
		copy(capacity, high)
		if !lowest {
			copy(capacity, low)
		}
		for j := range try {
			if (j == i) == lowest {
				try[j].Demand = lows[j]
			}
		}
		for _, l := range flows[i].Links {
			capacity[l] = high[l]
			if lowest {
				capacity[l] = low[l]
			}
		}
		for l := range capacity {
			capacity[l] = max(capacity[l], least) // a link of no known rate carries next to nothing, not everything
		}
		return flow.Shares(capacity, try)[i].Rate
	}
	for i := range out {
		a := &out[i]
		alone := lows[i]
		for _, l := range flows[i].Links {
			alone = min(alone, low[l])
		}
		a.Alone.Low = alone
		a.Together = known.Between(min(share(i, true), a.Together.Low), max(share(i, false), a.Together.High))
	}
}

// least is a rate far below any link's, in bytes a second: flow takes zero for not known.
const least = quantity.Rate(1)
