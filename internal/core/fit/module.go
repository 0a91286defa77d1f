package fit

// This file holds the rules about memory modules at their slot.

import (
	"deepbay/internal/core/fact"
	"deepbay/internal/core/known"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/memory"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

func moduleGeneration(l *look) known.Truth {
	if l.s.module().Generation == "" && l.cameInSlot(l.s.piece.ID) {
		return known.Yes // the notches of generations differ
	}
	return same(l, value[memory.Generation]{l.s.module().Generation, l.label(rig.ModuleGen)}, value[memory.Generation]{l.boardGeneration(), l.machine(rig.BoardMemory)})
}

func tellGeneration(l *look) telling {
	id, is, want := l.s.piece.ID, l.s.module().Generation, l.boardGeneration()
	return telling{says: fact.Of(WrongGeneration, id, is, want),
		because: []Reason{{FromPart, fact.Of(ModuleIsGen, id, is)}, {l.fromBoard(), fact.Of(BoardTakesGen, want)}, {FromStandard, fact.Of(NotchesDiffer)}},
		advice:  []fact.Fact{fact.Of(UseModulesOf, want)}}
}

// registered is what a module is, and what the board takes. Short modules are never
// registered (JEDEC). Where nothing is said, modules are unbuffered and so is what
// desktops take; of workstations that is not usual.
func (l *look) registered() (is, takes known.Truth) {
	m := l.s.module()
	is, takes = m.Registered, l.sheet.Memory.Registered
	if m.Form == memory.SODIMM {
		is = known.No
	}
	plain := l.sheet.Class != machine.Workstation && l.sheet.Class != machine.Unclassed
	usual := func(t known.Truth, f rig.Fact) known.Truth {
		if t != known.Unknown || !plain {
			return t
		}
		if l.notes {
			l.usual = append(l.usual, f)
		}
		return known.No
	}
	return usual(is, l.label(rig.ModuleReg)), usual(takes, l.machine(rig.BoardReg))
}

func moduleRegistered(l *look) known.Truth {
	is, takes := l.registered()
	if is == known.Unknown {
		l.miss(l.label(rig.ModuleReg))
	}
	if takes == known.Unknown {
		l.miss(l.machine(rig.BoardReg))
	}
	if is == known.Unknown || takes == known.Unknown {
		return known.Unknown
	}
	return known.Of(is == takes)
}

func tellRegistered(l *look) telling {
	id := l.s.piece.ID
	is, takes := l.registered()
	how := BufferedStartsNot // DDR4 and before: the slot is the same
	if l.boardGeneration() == memory.DDR5 {
		how = BufferedGoesNotIn
	}
	module := FromPart
	if l.s.module().Form == memory.SODIMM {
		module = FromStandard
	}
	return telling{says: fact.Of(WrongBuffer, id, Registered(is == known.Yes), Registered(takes == known.Yes)),
		because: []Reason{{module, fact.Of(ModuleIsReg, id, Registered(is == known.Yes))}, {FromSheet, fact.Of(BoardTakesReg, Registered(takes == known.Yes))}, {FromStandard, fact.Of(how)}},
		advice:  []fact.Fact{fact.Of(UseModulesReg, Registered(takes == known.Yes))}}
}

// Registered is registered or unbuffered, as an argument of facts.
type Registered bool

// high is a module's height against the room under the cooler.
func (l *look) high() (is, has measure) {
	return mm(l.s.module().HeightMM, 0, bareModule, l.label(rig.ModuleTall)), mm(l.s.TopMM, bareModule, endless, l.sheetOf(rig.RoomAbove))
}

func moduleHeight(l *look) known.Truth { return l.within(l.high()) }

func tellModuleHeight(l *look) telling {
	is, has := l.high()
	return l.room(is, has, PartHigh, UnderCooler)
}

// moduleVolts are the voltages a module runs at: its generation's standard one where
// its label says nothing (JESD79).
func moduleVolts(m *part.Module) []quantity.Millivolts {
	if len(m.Millivolts) > 0 {
		return m.Millivolts
	}
	if v := standardVolts(m.Generation); v > 0 {
		return []quantity.Millivolts{v}
	}
	return nil
}

func standardVolts(g memory.Generation) quantity.Millivolts {
	return map[memory.Generation]quantity.Millivolts{memory.DDR2: 1800, memory.DDR3: 1500, memory.DDR4: 1200, memory.DDR5: 1100}[g]
}

func moduleVoltage(l *look) known.Truth {
	m, fed := l.s.module(), l.sheet.Memory.Millivolts
	if fed == 0 { // a board feeds its generation's voltage
		fed = standardVolts(l.boardGeneration())
		if l.notes && fed > 0 {
			l.usual = append(l.usual, l.machine(rig.BoardVolt))
		}
	}
	if m.Generation == "" && len(m.Millivolts) == 0 && fed > 0 && fed == standardVolts(l.boardGeneration()) && l.cameInSlot(l.s.piece.ID) {
		return known.Yes // of the board's generation, and of that one's voltage
	}
	return among(l, value[quantity.Millivolts]{fed, l.machine(rig.BoardVolt)}, moduleVolts(m), l.label(rig.ModuleVolt))
}

func tellVoltage(l *look) telling {
	id, runs, fed := l.s.piece.ID, moduleVolts(l.s.module()), l.sheet.Memory.Millivolts
	if fed == 0 {
		fed = standardVolts(l.boardGeneration())
	}
	because := Reason{FromPart, fact.Of(RunsAt, id, runs)}
	if len(l.s.module().Millivolts) == 0 {
		because = Reason{FromStandard, fact.Of(StandardVolts, l.s.module().Generation, runs)}
	}
	return telling{says: fact.Of(WrongVolts, id, runs, fed), because: []Reason{because, {FromSheet, fact.Of(BoardFeeds, fed)}}, advice: []fact.Fact{fact.Of(UseModulesFor, fed)}}
}

// moduleInside is whether a module is no larger than stated or proven.
func moduleInside(l *look) known.Truth {
	limit := l.sheet.Memory.Module
	if !limit.StatedBytes.Known() {
		return known.Unknown
	}
	return atMost(l, sizeOf(l.s.module()), known.Exactly(limit.Largest()))
}

// mostBytes is more than any module or machine holds.
const mostBytes = quantity.Bytes(1 << 52)

func sizeOf(m *part.Module) known.Range[quantity.Bytes] {
	if m.SizeBytes.Known() {
		return known.Exactly(m.SizeBytes)
	}
	return known.Between(0, mostBytes)
}

func tellTrial(l *look) telling {
	id, limit := l.s.piece.ID, l.sheet.Memory.Module
	return telling{says: fact.Of(ModuleBeyond, id, limit.Largest()),
		because: append([]Reason{{FromPart, fact.Of(ModuleIsOf, id, l.s.module().SizeBytes)}}, limitReasons(OfAModule, limit)...),
		advice:  []fact.Fact{fact.Of(ProveMemory), fact.Of(UseSmaller)}}
}

// moduleStated is whether a module is no larger than the sheet states; one that is
// larger than any job proved is another rule's.
func moduleStated(l *look) known.Truth {
	limit := l.sheet.Memory.Module
	if !limit.StatedBytes.Known() || !limit.ProvenBytes.Known() {
		return known.Unknown
	}
	size := sizeOf(l.s.module())
	return known.Or(known.AtMost(size, known.Exactly(limit.StatedBytes)), known.Not(known.AtMost(size, known.Exactly(limit.ProvenBytes))))
}

func tellProven(l *look) telling {
	return telling{says: fact.Of(ModuleProven, l.s.piece.ID), because: limitReasons(OfAModule, l.sheet.Memory.Module)}
}

// What a limit is of, as arguments of facts.
const (
	OfAModule  fact.Code = "fit/of-a-module"
	OfAllSlots fact.Code = "fit/of-all-slots"
)

func limitReasons(what fact.Code, l machine.Limit) []Reason {
	out := []Reason{{FromSheet, fact.Of(LimitStated, l.StatedBytes, fact.Of(what))}}
	if l.ProvenBytes.Known() {
		out = append(out, Reason{FromSheet, fact.Of(LimitProven, l.ProvenBytes, fact.Typed(l.ProvenBy))})
	}
	return out
}

// rates are the rates that a module has by its label: its own, and with a profile.
func rateOf(m *part.Module, profile bool) known.Range[quantity.MTps] {
	rate := m.RateMTps
	if profile && m.ProfileMTps.Known() {
		rate = m.ProfileMTps
	}
	if rate.Known() {
		return known.Exactly(rate)
	}
	return known.Between(0, MostMTps)
}

// MostMTps is faster than any module.
const MostMTps quantity.MTps = 20_000

// fastest is the highest rate a module can run at.
func fastest(m *part.Module) quantity.MTps { return max(m.RateMTps, m.ProfileMTps) }

// bySocket lists the places of some sockets.
func bySocket(socks []*sock) []rig.Path {
	out := make([]rig.Path, len(socks))
	for i, s := range socks {
		out[i] = s.path
	}
	return out
}

// mayBeFitted calls for each processor that may be the one in the machine.
func (r *resolver) mayBeFitted(do func(*machine.Processor)) {
	for i := range r.sheet.Processors {
		if p := &r.sheet.Processors[i]; r.b.Processor == "" || r.b.Processor == p.ID {
			do(p)
		}
	}
}

func aModule(p *machine.Processor) quantity.Bytes { return p.ModuleBytes }
func inAll(p *machine.Processor) quantity.Bytes   { return p.TotalBytes }

// addressed is whether the memory controller of whichever processor is fitted addresses
// so much, and the one that states the least. One of which nothing is stated is taken to
// address it, as usual.
func (r *resolver) addressed(size known.Range[quantity.Bytes], of func(*machine.Processor) quantity.Bytes) (t known.Truth, least *machine.Processor) {
	yes, no := known.Yes, known.Yes // all do, none does
	r.mayBeFitted(func(p *machine.Processor) {
		is := known.Yes
		if v := of(p); v.Known() {
			is = known.AtMost(size, known.Exactly(v))
			if least == nil || v < of(least) {
				least = p
			}
		}
		yes, no = known.And(yes, is), known.And(no, known.Not(is))
	})
	switch {
	case least == nil || yes == known.Yes:
		return known.Yes, least
	case no == known.Yes:
		return known.No, least
	}
	return known.Unknown, least
}

// moduleAddressed is whether the memory controller addresses a module of this size.
func moduleAddressed(l *look) known.Truth {
	size := sizeOf(l.s.module())
	t, _ := l.addressed(size, aModule)
	if t == known.Unknown && l.notes {
		if !size.Exact() {
			l.miss(l.label(rig.ModuleSize))
		}
		if l.b.Processor == "" && len(l.sheet.Processors) > 1 {
			l.miss(l.machine(rig.Fitted))
		}
	}
	return t
}

func tellNotAddressed(l *look) telling {
	id, size := l.s.piece.ID, l.s.module().SizeBytes
	_, by := l.addressed(known.Exactly(size), aModule)
	name := fact.Typed(by.Name)
	return telling{says: fact.Of(NotAddressed, id, size, name, by.ModuleBytes),
		because: []Reason{{FromPart, fact.Of(ModuleIsOf, id, size)}, {FromSheet, fact.Of(AddressesUpTo, name, by.ModuleBytes)}}, advice: []fact.Fact{fact.Of(UseSmaller)}}
}
