package machine

import (
	"deepbay/internal/core/link"
	"deepbay/internal/core/quantity"
)

// This file is what rules of a sheet can say: an editor offers that, and nothing else.

// Asks lists what conditions can ask: of each socket, each setting, then of the processor.
func (s *Sheet) Asks() [][]Condition {
	var out [][]Condition
	for i := range s.Sockets {
		var can []Condition
		for _, h := range []Holds{HoldsAnything, HoldsPCIe, HoldsSATA} {
			can = append(can, Condition{Socket: s.Sockets[i].ID, Holds: h})
		}
		out = append(out, can)
	}
	for _, t := range s.Settings {
		var can []Condition
		for _, o := range t.Options {
			can = append(can, Condition{Setting: t.ID, Is: o.Value})
		}
		if len(can) > 0 {
			out = append(out, can)
		}
	}
	var can []Condition
	for _, p := range s.Processors {
		can = append(can, Condition{Processor: p.ID})
	}
	if len(can) > 0 {
		out = append(out, can)
	}
	return out
}

// Does lists what effects can do, one thing each: to each socket but memory slots, then to
// memory. All only take away, and leave less than there is.
func (s *Sheet) Does() [][]Effect {
	var out [][]Effect
	memory := false
	for i := range s.Sockets {
		k := &s.Sockets[i]
		if k.Kind.Memory() {
			memory = true
			continue
		}
		on := func(change func(*Effect)) Effect {
			e := Effect{Socket: k.ID}
			change(&e)
			return e
		}
		can := []Effect{on(func(e *Effect) { e.Off = true })}
		if k.Kind == M2 || k.Kind == Slot || k.Kind == U2 {
			for _, n := range []quantity.Lanes{8, 4, 2, 1} {
				if !k.Lanes.Known() || n < k.Lanes {
					can = append(can, on(func(e *Effect) { e.MaxLanes = n }))
				}
			}
			for g := link.MaxGen - 1; g >= 1; g-- {
				if !k.Gen.Known() || g < k.Gen {
					can = append(can, on(func(e *Effect) { e.MaxGen = g }))
				}
			}
		}
		if k.Kind == M2 || k.Kind == U2 {
			for _, p := range []link.Protocol{link.PCIe, link.SATA} {
				can = append(can, on(func(e *Effect) { e.Protocols = []link.Protocol{p} }))
			}
		}
		for _, split := range k.Splits {
			can = append(can, on(func(e *Effect) { e.Split = split }))
		}
		out = append(out, can)
	}
	if memory {
		out = append(out, []Effect{{Profile: true}})
	}
	return out
}
