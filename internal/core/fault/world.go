package fault

// This file reads the forecast forwards: a machine with faults in it, as the simulated bench
// has it.

import (
	"slices"

	"deepbay/internal/core/fit"
	"deepbay/internal/core/layer"
	"deepbay/internal/core/power"
	"deepbay/internal/core/rig"
)

// World is a machine with faults in it.
type World struct {
	c      *Case
	faults []Fault
	s      *shown
}

// World is the machine with some faults in it, each showing in one of its ways, of which there
// are as many as Ways says. A fault that cannot occur in the machine changes nothing.
func (c *Case) World(faults []Fault, ways []int) *World {
	w := &World{c: c}
	var do []change
	for i, f := range faults {
		s := c.suspectOf(f)
		if s == nil {
			continue
		}
		w.faults = append(w.faults, f)
		n := 0
		if i < len(ways) {
			n = min(max(ways[i], 0), len(s.variants)-1)
		}
		do = append(do, s.variants[n].do...)
	}
	w.s = c.show(do)
	return w
}

// Ways is in how many ways a fault can show, 0 where it cannot occur.
func (c *Case) Ways(f Fault) int {
	if s := c.suspectOf(f); s != nil {
		return len(s.variants)
	}
	return 0
}

// Rig is the machine as it finds itself.
func (w *World) Rig() *rig.Rig { return w.s.rig }

// Message is what its first screens say.
func (w *World) Message() string { return w.s.message }

// Blind reports that no screen of it can be read.
func (w *World) Blind() bool { return w.s.blind() }

// Lines lists what its screens show and what was foretold of them, by name.
func (w *World) Lines() []power.LineID {
	out := slices.Clone(w.c.lines)
	for _, id := range w.s.foretold.Lines() {
		if !slices.Contains(out, id) {
			out = append(out, id)
		}
	}
	slices.SortFunc(out, power.LineID.Compare)
	return out
}

// Read is what a line shows; false is that it is out of sight, or that what it shows is not
// known.
func (w *World) Read(id power.LineID) (power.Reading, bool) {
	r, known, inSight := w.s.foretells(id)
	return r, known && inSight
}

// Differs reports a line that a machine without faults would not show so.
func (w *World) Differs(id power.LineID) bool {
	r, ok := w.Read(id)
	return ok && !w.c.base.allows(r)
}

// Check is what a check of it shows.
func (w *World) Check(k Inspection) Outcome { return w.c.outcome(k, w.faults) }

// Cost is how long a check takes, in minutes, opening the machine included where it is closed.
func (c *Case) Cost(k Inspection, open bool) layer.Minutes {
	if open && looks[k.Look].inside {
		return looks[k.Look].minutes
	}
	return c.cost(k)
}

// Answer is what the rules say of the machine as it finds itself.
func (w *World) Answer() *fit.Answer { return w.s.answer }
