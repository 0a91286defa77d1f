package fit

// This file says what each drive can move alone, and what all can move at once.

import (
	"slices"
	"strconv"

	"deepbay/internal/core/flow"
	"deepbay/internal/core/link"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// FlowAnswer is what one drive can move, reading, in one direction. Behind a link
// whose rate is not stated the figures are the most it can be, and Held names it.
type FlowAnswer struct {
	Item     rig.ItemID `json:"item"`
	Socket   rig.Path   `json:"socket"`
	Alone    float64    `json:"aloneMBps"`
	Together float64    `json:"togetherMBps"`     // with all other drives at work
	Held     string     `json:"held"`             // what holds it then
	AtMost   bool       `json:"atMost,omitempty"` // a link on the way is not stated: the figures are the most it can be
	Says     string     `json:"says"`
}

// sharedLink is a link that several drives pass: an uplink, the slot of a carrier
// with a switch chip, the USB link of a box.
type sharedLink struct {
	what, name string
	rate       quantity.Rate
}

// flows shares uplinks and switch links among the drives that are seen. The
// payload assumed is link.Typical's.
func (r *resolver) flows() []FlowAnswer {
	var links []sharedLink
	shared := func(what, name string, rate quantity.Rate) int {
		for i := range links {
			if links[i].what == what && links[i].name == name {
				return i
			}
		}
		links = append(links, sharedLink{what, name, rate})
		return len(links) - 1
	}
	n := 0
	for i := range r.sockets {
		if s := &r.sockets[i]; s.drive() != nil && s.state == Live {
			n++
		}
	}
	out := make([]FlowAnswer, 0, n)
	flows := make([]flow.Flow, 0, n)
	passed := make([]int, 0, 3*n) // the links of all flows, one behind the other
	for i := range r.sockets {
		s := &r.sockets[i]
		d := s.drive()
		if d == nil || s.state != Live || s.trained == nil || s.trained.MBps == 0 {
			continue
		}
		own := quantity.MBps(s.trained.MBps)
		if s.trained.Protocol == link.PCIe {
			own = link.Link{Gen: s.trained.Gen, Lanes: s.trained.Lanes}.Planning()
		}
		if rated := quantity.MBps(d.ReadMBps); rated.Known() {
			own = min(own, rated)
		}
		f, from := flow.Flow{Demand: own}, len(passed)
		for up := s.parent; up != nil; up = up.parent {
			switch {
			case up.trained == nil: // nothing is seen behind it
			case up.enclosure() != nil:
				passed = append(passed, shared("the USB link of ", string(up.ID), up.trained.USB.Planning()))
			case up.card().Carrier.Switch:
				passed = append(passed, shared("the link of the carrier in ", string(up.ID), link.Link{Gen: up.trained.Gen, Lanes: up.trained.Lanes}.Planning()))
			}
		}
		for root := r.sheet.RootOf(s.Socket); root != nil && root.Uplink != nil; root = r.sheet.Root(root.Uplink.To) {
			passed = append(passed, shared("the uplink of the ", root.Name, root.Uplink.Link().Planning()))
		}
		f.Links = passed[from:len(passed):len(passed)]
		flows = append(flows, f)
		out = append(out, FlowAnswer{Item: s.piece.ID, Socket: s.path})
	}
	capacity := make([]quantity.Rate, len(links))
	for i, l := range links {
		capacity[i] = l.rate
	}
	for i, share := range flow.Shares(capacity, flows) {
		a := &out[i]
		alone := flows[i].Alone(capacity)
		a.Alone, a.Together, a.Held = alone.MBps(), share.Rate.MBps(), "nothing"
		held := share.Held
		if u := slices.IndexFunc(flows[i].Links, func(l int) bool { return !capacity[l].Known() }); u >= 0 {
			held, a.AtMost = flows[i].Links[u], true
		}
		if held != flow.Free {
			a.Held = links[held].what + links[held].name
		}
		if r.quiet() {
			continue
		}
		if a.AtMost {
			a.Says = "at most " + alone.String() + ": what " + a.Held + " carries is not stated"
			continue
		}
		a.Says = alone.String() + " alone"
		if share.Held != flow.Free {
			a.Says += ", " + share.Rate.String() + " with all " + strconv.Itoa(len(flows)) + " drives at work, held by " + a.Held
		}
	}
	return out
}
