package fit

// This file holds the rules about memory as a whole.

import (
	"slices"
	"strconv"
	"strings"

	"deepbay/internal/core/machine"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// refill is the moves that bring modules from where they are into want, leaving
// alone those that are right already.
func refill(have []*sock, want []machine.SocketID) []rig.Move {
	var free []machine.SocketID
	for _, id := range want {
		if !slices.ContainsFunc(have, func(s *sock) bool { return s.ID == id }) {
			free = append(free, id)
		}
	}
	var out []rig.Move
	for _, s := range have {
		if !slices.Contains(want, s.ID) {
			out = append(out, rig.Move{Item: s.piece.ID, Socket: rig.On(free[len(out)])})
		}
	}
	return out
}

func slots(ids []machine.SocketID) string {
	s := ""
	for i, id := range ids {
		switch {
		case i == 0:
		case i == len(ids)-1:
			s += " and "
		default:
			s += ", "
		}
		s += string(id)
	}
	return s
}

func ids(have []*sock) []machine.SocketID {
	out := make([]machine.SocketID, len(have))
	for i, s := range have {
		out[i] = s.ID
	}
	return out
}

func portLost(r *resolver) []Finding {
	var out []Finding
	for i := range r.sockets {
		s := &r.sockets[i]
		if s.piece == nil && len(s.closed) > 0 {
			if r.quiet() {
				out = append(out, Finding{})
				continue
			}
			f := Finding{Socket: s.path, Says: string(s.ID) + " is off and takes nothing", Because: slices.Clone(s.because)}
			for _, rule := range s.closed {
				f.Cures = append(f.Cures, r.undo(rule)...)
			}
			out = append(out, f)
		}
	}
	return out
}

func memoryNone(r *resolver) []Finding {
	if len(r.memory.Channels) == 0 || len(r.filled) > 0 {
		return nil
	}
	return []Finding{{Says: "no memory is seen: the machine does not start",
		Because: []Reason{{FromPlan, "no memory slot holds a module that works here"}},
		Cures:   []Cure{{Says: "put a module into " + r.firstSlot()}}}}
}

func (r *resolver) firstSlot() string {
	if f := r.sheet.Memory.Order(1); f != nil {
		return string(f[0])
	}
	return "a memory slot"
}

// order is the cure that follows the sheet, for the two rules about slots.
func (r *resolver) order(have []*sock) []Cure {
	want := r.sheet.Memory.Order(len(have))
	if want == nil {
		return nil
	}
	if moves := refill(have, want); len(moves) > 0 {
		return []Cure{{Says: "put them into " + slots(want), Moves: moves}}
	}
	return nil
}

// used is the number of channels that hold a module, and whether the modules
// could fill more.
func (r *resolver) used() (used int, tooFew bool) {
	for _, c := range r.memory.Channels {
		if c.Modules > 0 {
			used++
		}
	}
	return used, used < min(len(r.filled), len(r.memory.Channels))
}

func memoryChannels(r *resolver) []Finding {
	have := r.filled
	used, tooFew := r.used()
	if !tooFew {
		return nil
	}
	f := Finding{
		Says: slots(ids(have)) + " use " + strconv.Itoa(used) + " of the " + plural(len(r.memory.Channels), "channel"),
		Because: []Reason{
			{FromSheet, "the board has " + plural(len(r.memory.Channels), "channel")},
			{FromStandard, "only modules on different channels are read side by side"},
		},
		Cures: r.order(have),
	}
	for _, s := range have {
		f.Because = append(f.Because, Reason{FromSheet, string(s.ID) + " is on channel " + string(s.Channel)})
	}
	if want := r.sheet.Memory.Order(len(have)); want != nil {
		f.Because = append(f.Because, Reason{FromSheet, "for " + plural(len(have), "module") + " the sheet says " + slots(want)})
	}
	return []Finding{f}
}

func plural(n int, what string) string {
	if n == 1 {
		return "1 " + what
	}
	return strconv.Itoa(n) + " " + what + "s"
}

func memoryOrder(r *resolver) []Finding {
	have := r.filled
	want := r.sheet.Memory.Order(len(have))
	if _, tooFew := r.used(); tooFew || want == nil || len(refill(have, want)) == 0 {
		return nil // too few channels has the same cure, and is said already
	}
	return []Finding{{
		Says: plural(len(have), "module") + " in " + slots(ids(have)) + "; the sheet says " + slots(want),
		Because: []Reason{
			{FromSheet, "for " + plural(len(have), "module") + " the sheet says " + slots(want)},
			{FromStandard, "on most boards the far slot of a channel ends the line; left empty it reflects the signal"},
		},
		Cures: r.order(have),
	}}
}

func memoryOrderUnstated(r *resolver) []Finding {
	have := r.filled
	if len(have) == 0 || r.sheet.Memory.Order(len(have)) != nil {
		return nil
	}
	return []Finding{{
		Says:    "the sheet does not say which slots " + plural(len(have), "module") + " go into",
		Because: []Reason{{FromSheet, "no order is given for " + plural(len(have), "module")}},
		Cures:   []Cure{{Says: "look it up in the manual; on four slots the second and fourth first is common, and a guess"}},
	}}
}

func memoryUnequal(r *resolver) []Finding {
	if len(r.memory.Regions) < 2 {
		return nil
	}
	f := Finding{Says: "the channels are of unequal size: " + r.memory.Spread,
		Because: []Reason{{FromStandard, "as much as the smaller channels hold is spread over all; the rest is not"}}}
	for _, c := range r.memory.Channels {
		if c.Modules > 0 {
			f.Because = append(f.Because, Reason{FromPlan, "channel " + string(c.Channel) + " holds " + c.Bytes.Binary()})
		}
	}
	return []Finding{f}
}

func memorySpeed(r *resolver) []Finding {
	var out []Finding
	if !r.memory.MTps.Known() {
		return nil
	}
	for _, s := range r.filled {
		m := s.module()
		own := max(m.RateMTps, m.ProfileMTps)
		if own <= r.memory.MTps {
			continue
		}
		if r.quiet() {
			out = append(out, Finding{})
			continue
		}
		f := Finding{Socket: s.path, Item: s.piece.ID,
			Says:    r.name(s) + " could do " + own.String() + " and runs at " + r.memory.Speed,
			Because: slices.Clone(r.memory.Because)}
		if m.ProfileMTps > r.memory.MTps && r.profile == nil {
			f.Because = append(f.Because, Reason{FromSetting, "the memory profile is off; without it a module runs at its base speed"})
			f.Cures = append(f.Cures, r.profileCures()...)
		}
		out = append(out, f)
	}
	return out
}

// profileCures are the settings that switch a memory profile on.
func (r *resolver) profileCures() []Cure {
	return r.settingsFor(func(e *machine.Effect) bool { return e.Profile })
}

func memoryUnknown(r *resolver) []Finding {
	have := r.filled
	if len(have) == 0 {
		return nil
	}
	var because []Reason
	for _, s := range have {
		if !s.module().SizeBytes.Known() {
			because = append(because, Reason{FromPart, "total unknown, because the label of " + r.name(s) + " does not state its size"})
		}
	}
	if !r.memory.MTps.Known() {
		because = append(because, r.memory.Because...)
	}
	if len(because) == 0 {
		return nil
	}
	return []Finding{{Says: "the memory's total or speed cannot be told", Because: because,
		Cures: []Cure{{Says: "read the module's label or the board's manual and add it"}}}}
}

func memoryECC(r *resolver) []Finding {
	with, without := 0, 0
	for _, s := range r.filled {
		switch s.module().ECC {
		case quantity.Yes:
			with++
		case quantity.No:
			without++
		}
	}
	switch {
	case with > 0 && without > 0:
		return []Finding{{Says: "ECC is off: modules with and without it are mixed",
			Because: []Reason{{FromPart, plural(with, "module") + " with ECC, " + strconv.Itoa(without) + " without"}, {FromStandard, "one module without check bits switches ECC off for all"}},
			Cures:   []Cure{{Says: "use modules of one kind"}}}}
	case with > 0 && r.sheet.Memory.ECC == quantity.No:
		return []Finding{{Says: "ECC stays unused on this board",
			Because: []Reason{{FromPart, plural(with, "module") + " with ECC"}, {FromSheet, "the board does not use it"}}}}
	}
	return nil
}

func memoryMixed(r *resolver) []Finding {
	var parts []string
	for _, s := range r.filled {
		if !slices.Contains(parts, r.name(s)) {
			parts = append(parts, r.name(s))
		}
	}
	if len(parts) < 2 {
		return nil
	}
	return []Finding{{Says: "modules of " + strconv.Itoa(len(parts)) + " kinds: mostly fine at base speed, often not with a profile",
		Because: []Reason{{FromPlan, strings.Join(parts, ", ")}, {FromStandard, "timings are the slowest of all; kits are tested together, mixes are not"}},
		Cures:   []Cure{{Says: "one matched kit, or the same part again; test the memory to the end"}}}}
}

func memorySystem(r *resolver) []Finding {
	most := r.b.Wish.SystemMax
	if !most.Known() || r.memory.TotalBytes <= most {
		return nil
	}
	return []Finding{{Says: "the system uses " + most.Binary() + " of " + r.memory.Total + " at most",
		Because: []Reason{{FromWish, "its edition or width ends at " + most.Binary()}},
		Cures:   []Cure{{Says: "another edition, a 64-bit system, or less memory"}}}}
}

func memoryClocked(r *resolver) []Finding {
	with, without := 0, 0
	var first *sock
	for _, s := range r.filled {
		switch s.module().ClockDriver {
		case quantity.Yes:
			with++
			if first == nil {
				first = s
			}
		case quantity.No:
			without++
		}
	}
	if with == 0 || without == 0 && r.sheet.Memory.ClockDrivers == quantity.Yes {
		return nil
	}
	f := Finding{Socket: first.path, Item: first.piece.ID, Because: []Reason{{FromPart, r.name(first) + " brings a clock driver"}},
		Cures: []Cure{{Says: "use modules without a clock driver"}}}
	switch {
	case without > 0:
		f.Says = "modules with and without a clock driver are mixed: they may not start together"
		f.Because = append(f.Because, Reason{FromPart, plural(with, "module") + " with, " + strconv.Itoa(without) + " without"})
		f.Cures = []Cure{{Says: "use modules of one kind"}}
	case r.sheet.Memory.ClockDrivers == quantity.No:
		f.Says = r.name(first) + " brings a clock driver that this board does not run: it may be slower, or not start"
		f.Because = append(f.Because, Reason{FromSheet, "the board does not run clock drivers"}, Reason{FromStandard, "on such hosts the driver is bypassed, at lower rates, or the module does not start"})
	default:
		f.Says = "whether " + r.name(first) + " runs at its rate here is unknown"
		f.Because = append(f.Because, Reason{FromSheet, "unknown, because the sheet does not say whether the board runs clock drivers"})
	}
	return []Finding{f}
}

func memoryTrial(r *resolver) []Finding {
	limit := r.sheet.Memory.Total
	if !limit.StatedBytes.Known() || r.memory.TotalBytes <= limit.Largest() {
		return nil
	}
	return []Finding{{
		Says:    r.memory.Total + " is more than the " + limit.Largest().Binary() + " this board is known to take: a trial",
		Because: limitReasons("all slots together", limit),
		Cures:   []Cure{{Says: "prove it: a full count in set-up and in the system, and a memory test run to the end"}},
	}}
}
