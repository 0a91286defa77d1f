// Package flow shares links among the flows that run through them.
//
// Shares are max-min fair: no flow can be given more without taking from one
// that has as much or less. Real arbiters are only roughly fair, so what comes
// out is an estimate, and it matters only when the flows really run at the same time.
//
//	// two drives of 3500 MB/s behind one uplink of 3500
//	flow.Share([]quantity.Rate{r}, []flow.Flow{{Demand: r, Links: []int{0}}, {Demand: r, Links: []int{0}}})
//	// r/2 each
package flow

import "deepbay/internal/core/quantity"

// Flow is one stream in one direction: what it asks for, and the links it
// passes, by index.
type Flow struct {
	Demand quantity.Rate
	Links  []int
}

// Alone is what the flow gets with nobody else at work: its demand, or the least
// of what its links carry. A link of capacity zero is not known and holds nobody.
func (f Flow) Alone(capacity []quantity.Rate) quantity.Rate {
	rate := f.Demand
	for _, l := range f.Links {
		if capacity[l] > 0 {
			rate = min(rate, capacity[l])
		}
	}
	return rate
}

// Share is what a flow gets and what holds it: a link's index, or Free when its
// own demand is met.
type Share struct {
	Rate quantity.Rate
	Held int
}

// Free marks a flow that gets all it asks for.
const Free = -1

// Shares fills all flows evenly until a demand is met or a link is full, fixes
// the flows concerned, and goes on with the rest (progressive filling). Every
// round fixes at least one flow, so it ends after at most len(flows) rounds.
// A link of capacity zero is not known and holds nobody.
func Shares(capacity []quantity.Rate, flows []Flow) []Share {
	out := make([]Share, len(flows))
	fixed := make([]bool, len(flows))
	room := make([]quantity.Rate, len(capacity))
	copy(room, capacity)
	active := make([]int, len(capacity))
	left := 0
	for i, f := range flows {
		out[i].Held = Free
		if f.Demand <= 0 {
			fixed[i] = true
			continue
		}
		left++
		for _, l := range f.Links {
			active[l]++
		}
	}
	for left > 0 {
		// The smallest even raise that meets a demand or fills a link.
		raise := quantity.Rate(-1)
		for i, f := range flows {
			if need := f.Demand - out[i].Rate; !fixed[i] && (raise < 0 || need < raise) {
				raise = need
			}
		}
		for l, n := range active {
			if n > 0 && capacity[l] > 0 {
				if even := room[l] / quantity.Rate(n); even < raise {
					raise = even
				}
			}
		}
		for l, n := range active {
			room[l] -= raise * quantity.Rate(n)
		}
		for i, f := range flows {
			if fixed[i] {
				continue
			}
			out[i].Rate += raise
			done := f.Demand-out[i].Rate <= epsilon
			for _, l := range f.Links {
				if !done && capacity[l] > 0 && room[l] <= epsilon {
					done, out[i].Held = true, l
				}
			}
			fixed[i] = done
		}
		left = 0
		clear(active)
		for i, f := range flows {
			if !fixed[i] {
				left++
				for _, l := range f.Links {
					active[l]++
				}
			}
		}
	}
	return out
}

// epsilon is far below anything printed: a thousandth of a byte a second.
const epsilon = quantity.Rate(1e-3)
