package workorder

// This file is what the shop's practice adds to an order, where practitioners differ and no step
// of its own file decides.

import (
	"slices"

	"deepbay/internal/core/data"
	"deepbay/internal/core/fact"
	"deepbay/internal/core/known"
	"deepbay/internal/core/layer"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/practice"
	"deepbay/internal/core/rig"
)

// BetweenStep is the start with memory alone, before other parts go in.
const BetweenStep = "between/memory"

// Seconds reports a shop that takes the second slot of each channel first where a sheet is silent.
func Seconds(p practice.Practice) bool { return p.Of(practice.Slots) == practice.BySheet }

// isNew reports a piece that comes into the machine, not one that only moves.
func isNew(c change) bool { return c.from == nil && c.to != nil && c.back == nil }

func isModule(c change) bool { return c.piece.Part.Module != nil }

// kindByKind reports that memory goes in first and the machine is started with it, before other
// parts go in: not where hands were faster and one of those is in already.
func (m *maker) kindByKind() bool {
	if m.Practice.Of(practice.Test) != practice.EachKind || !slices.ContainsFunc(m.in, func(c change) bool { return isNew(c) && isModule(c) }) || !slices.ContainsFunc(m.in, m.another) {
		return false
	}
	return m.isDone(BetweenStep) || !slices.ContainsFunc(m.in, func(c change) bool { return m.another(c) && m.isDone(m.inStep(c)) })
}

// another reports a part that is no module, comes in and shows itself when the machine starts.
func (m *maker) another(c change) bool { return isNew(c) && !isModule(c) && m.insideOf(c) }

// between adds the start with memory alone before the first of what is left to do is fitted, where
// that is another part: when all modules are in, and the machine can run with what is off now. rest is
// what comes later still.
func (m *maker) between(left, rest []layer.Act) {
	if m.started || !m.memoryFirst || !m.another(m.in[left[0].Task]) || slices.ContainsFunc(m.back, func(s Step) bool { return s.Inside }) ||
		slices.ContainsFunc(left, func(a layer.Act) bool { return a.Task >= 0 && isModule(m.in[a.Task]) }) {
		return
	}
	m.started = true // it is done once, or not at all
	if slices.ContainsFunc(slices.Concat(left, rest), func(a layer.Act) bool {
		return a.Task < 0 && !runsWithout(&m.opening.planned.Layers[a.Layer])
	}) {
		return
	}
	s := Step{ID: BetweenStep, Phase: Fit, Do: fact.Of(StartMemoryAlone), Inside: true, Takes: 4, Guess: true,
		How: []fact.Fact{fact.Of(HandsOutStart)}, Cautions: []Caution{cautionFans, cautionMains}}
	if memory := m.answer().Memory; memory.Sized() {
		s.See = fact.Of(SeeTotal, memory.Total.Low)
	}
	after := OffAndOut
	if m.earthed() {
		after = OffAndSwitch
	}
	s.How = append(s.How, fact.Of(after))
	m.add(s)
}

// runsWithout reports a layer that a machine does without for the minutes of a start: nothing of it
// cools, feeds or carries what runs.
func runsWithout(l *layer.Layer) bool {
	switch l.Kind {
	case layer.Cover, layer.Bezel, layer.Foot, layer.Heatsink, layer.Shield, layer.Bracket, layer.Cage:
		return !l.RunsWith && len(l.Leads) == 0
	}
	return false
}

// slots says which memory slots come first where the sheet is silent, once in an order.
func (m *maker) slots() []fact.Fact {
	var planned []machine.SocketID
	for i := range m.Sheet.Sockets {
		if k := &m.Sheet.Sockets[i]; k.Kind.Memory() && m.Planned.In(rig.On(k.ID)) != "" {
			planned = append(planned, k.ID)
		}
	}
	first, guess := m.Sheet.OrderOrGuess(len(planned), Seconds(m.Practice))
	if !guess || len(planned) >= len(first) || m.saidSlots {
		return nil
	}
	m.saidSlots = true
	want := first[:len(planned)]
	says := []fact.Fact{fact.Of(SlotsGuessed, want)}
	if slices.ContainsFunc(want, func(id machine.SocketID) bool { return !slices.Contains(planned, id) }) {
		says = append(says, fact.Of(SlotsPlanned, planned))
	}
	return says
}

// mix is what comes of modules that are not alike, which lie together for the first time; none
// where they are alike.
func (m *maker) mix() (fact.Fact, bool) {
	var first *part.Part
	mixed, comes := false, false
	for i := range m.Planned.Pieces {
		p := &m.Planned.Pieces[i]
		if p.Part.Module == nil || m.Planned.Where(p.ID).IsZero() {
			continue
		}
		comes = comes || m.Found.Where(p.ID).IsZero()
		if first == nil {
			first = p.Part
		}
		mixed = mixed || first.ID != p.Part.ID
	}
	if !mixed || !comes {
		return fact.Fact{}, false
	}
	memory := m.answer().Memory
	return fact.Of(MixComesTo, memory.MTps, memory.Peak), true
}

// byHand asks for a memory speed set by hand where modules have a profile that the plan leaves
// off, and the shop goes between.
func (m *maker) byHand() bool {
	if m.Practice.Of(practice.Speed) != practice.ByHand || slices.ContainsFunc(m.set, m.profiles) {
		return false
	}
	for _, c := range m.in {
		if d := c.piece.Part.Module; d != nil && d.ProfileMTps > d.RateMTps && d.RateMTps.Known() {
			m.add(Step{ID: "settings/memory-speed", Phase: Settings, Do: fact.Of(SpeedByHand, d.RateMTps, d.ProfileMTps), How: []fact.Fact{fact.Of(SpeedBySteps), fact.Of(ProfileWayBack)}, Cautions: []Caution{cautionProfile}})
			return true
		}
	}
	return false
}

// likeDrives are new drives of one kind, two or more, that are in no array.
func (m *maker) likeDrives() []rig.ItemID {
	by := map[part.ID][]rig.ItemID{}
	var order []part.ID
	for _, c := range m.in {
		if !isNew(c) || c.piece.Part.Drive == nil || c.piece.Part.Drive.Form.Optical() || c.piece.ID == m.Planned.Wish.Starts.Item ||
			slices.ContainsFunc(m.Planned.Arrays, func(a rig.DriveArray) bool { return slices.Contains(a.Members, c.piece.ID) }) {
			continue
		}
		id := c.piece.Part.ID
		if by[id] == nil {
			order = append(order, id)
		}
		by[id] = append(by[id], c.piece.ID)
	}
	for _, id := range order {
		if len(by[id]) > 1 {
			return by[id]
		}
	}
	return nil
}

// apartOrArray says before the work what the shop does with several like drives.
func (m *maker) apartOrArray() []fact.Fact {
	like := m.likeDrives()
	if like == nil {
		return nil
	}
	return []fact.Fact{fact.Of(map[practice.School]fact.Code{practice.Apart: LikeApart, practice.Striped: LikeStriped, practice.Mirrored: LikeMirrored}[m.Practice.Of(practice.Array)], like)}
}

// systemBySchool asks for the system to come onto a new drive that was wished for it, where nobody
// said how: by the shop's practice.
func (m *maker) systemBySchool() {
	w := &m.Planned.Wish
	if !w.SystemBytes.Known() || w.Starts.How != "" {
		return
	}
	i := slices.IndexFunc(m.in, func(c change) bool {
		return isNew(c) && m.insideOf(c) && c.piece.Part.Drive != nil && w.IsSystem(c.piece.Part.Drive) == known.Yes
	})
	if i < 0 {
		return
	}
	id := m.in[i].piece.ID
	switch m.Practice.Of(practice.System) {
	case practice.Fresh:
		m.install(id)
	case practice.Clone:
		m.copyOver(id)
	case practice.CopyAndSwap:
		s := Step{ID: "system/swap", Phase: System, Do: fact.Of(CopyData, id), How: []fact.Fact{fact.Of(SwapLetters), fact.Of(OldKept)}, Item: id, Socket: m.Planned.Where(id), Cautions: []Caution{cautionTarget}}
		m.erases(s, data.Act{What: data.Erases}, m.source(rig.Start{Item: id}), id)
	default: // it writes nothing: the steps that do follow when it is said in the job
		m.add(Step{ID: "system/how", Phase: System, Do: fact.Of(SystemHow, id), How: []fact.Fact{fact.Of(GoalFresh), fact.Of(GoalClone), fact.Of(GoalSwap), fact.Of(SayHow)}, Item: id, Socket: m.Planned.Where(id), Cautions: []Caution{cautionTarget}})
	}
}
