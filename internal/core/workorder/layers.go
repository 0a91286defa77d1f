package workorder

// This file opens the machine layer by layer, and closes it again. What must come off, in which
// order, and the way back are found by room layer; here they become steps.

import (
	"slices"
	"strconv"
	"strings"

	"deepbay/internal/core/access"
	"deepbay/internal/core/fact"
	"deepbay/internal/core/layer"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/rig"
)

// openStep begins the steps that take a layer off or undo a lead of it, shutStep those that put it
// back.
const (
	openStep = "open/"
	shutStep = "shut/"
)

// Opens reports a step that takes a layer off or undoes a lead.
func Opens(step string) bool {
	_, within := Mends(step)
	return strings.HasPrefix(within, openStep)
}

// Opened is the step that a step of the way back takes back, "" for any other.
func Opened(step string) string {
	_, within := Mends(step)
	of, ok := strings.CutPrefix(within, shutStep)
	if !ok {
		return ""
	}
	return strings.TrimSuffix(step, within) + openStep + of
}

// opening is how the machine is opened for the work, and closed after it.
type opening struct {
	found   layer.Stack // as it is opened
	planned layer.Stack // as it is closed
	off     []int       // of found, in order
	acts    []layer.Act // of planned
	lost    []Lost
}

// Lost is what cannot be reached, or not be put back.
type Lost struct {
	Item  rig.ItemID
	Place layer.Named
	Layer layer.ID // of what cannot go back: whose lead or which layer it is
}

// layered reports a sheet that says what lies over what.
func (m *maker) layered() bool { return len(m.Sheet.Layers) > 0 }

// leaving is where hands must reach for the place that a piece leaves, coming for the one to which it
// comes.
func (m *maker) leaving(c change) []layer.Named {
	if m.leadOnly(c) {
		return access.Port(&m.Planned, end(c.from, c.out))
	}
	return access.Leaving(&m.Planned, end(c.from, c.out))
}

func (m *maker) coming(c change) []layer.Named {
	if m.leadOnly(c) {
		return access.Port(&m.Planned, end(c.to, c.in))
	}
	return access.Coming(&m.Planned, end(c.to, c.in))
}

// end is one end of a change; none is the mat.
func end(k *rig.Place, bay machine.BayID) access.End {
	if k == nil {
		return access.End{}
	}
	return access.End{Socket: k.Path, Kind: k.Kind, Bay: bay}
}

// isDone reports that hands did a step, and have not taken it back.
func (m *maker) isDone(step string) bool {
	return slices.ContainsFunc(m.Done, func(d Deed) bool { return d.Step == step })
}

// reach finds what must come off. What hands took off and did not put back stays off until the
// end, though the plan has changed.
func (m *maker) reach() {
	o := &m.opening
	if !m.layered() {
		return
	}
	var goals []layer.Goal
	asks := o.found.Search()
	reach := func(item rig.ItemID, at []layer.Named) {
		for _, p := range at {
			g := o.found.To(p)
			if !asks.Reaches(g) {
				o.lost = append(o.lost, Lost{Item: item, Place: p})
				continue
			}
			goals = append(goals, g)
		}
	}
	for _, c := range m.out {
		if !m.Again || !m.isDone(m.outStep(c)) {
			reach(c.piece.ID, m.leaving(c))
		}
	}
	for _, c := range m.in {
		if !m.Again || !m.isDone(m.inStep(c)) {
			if m.leadOnly(c) {
				reach(c.piece.ID, m.leaving(c))
			}
			reach(c.piece.ID, m.coming(c))
		}
	}
	for _, s := range m.back {
		if s.Inside {
			at := layer.Named(s.Socket.Top())
			if s.Bay != "" {
				at = layer.Named(s.Bay)
			}
			reach(s.Item, []layer.Named{at})
		}
	}
	var free []int
	for i := range o.found.Layers {
		l := &o.found.Layers[i]
		if m.leaves(l) || m.wasLeft(l) || m.isDone(openStep+string(l.ID)) { // what was opened and closed stays to be seen
			free = append(free, i)
		}
	}
	open, ok := asks.Least(goals, free)
	if !ok { // what hands took off is over what does not come off: say what can be reached
		open, _ = asks.Least(goals, nil)
	}
	o.off, _ = o.found.Off(open)
	m.wayBack()
}

// wasLeft reports a layer that is off, or has a lead that is, as hands left it.
func (m *maker) wasLeft(l *layer.Layer) bool {
	open := func(key string) bool { return m.isDone(openStep+key) && !m.isDone(shutStep+key) }
	for k := range l.Leads {
		if open(string(l.ID)+"/"+leadKey(l, k)) && !m.comesIn(rig.ItemID(l.Leads[k].Item)) {
			return true
		}
	}
	return open(string(l.ID))
}

// leaves reports a layer that is a part which the order takes out anyway.
func (m *maker) leaves(l *layer.Layer) bool { return m.outOf(l) >= 0 }

// outOf is the change that takes out the part that a layer is, -1 for none.
func (m *maker) outOf(l *layer.Layer) int {
	if l.In == "" {
		return -1
	}
	return slices.IndexFunc(m.out, func(c change) bool {
		return !c.unplug && (layer.Named(c.from.Path.Top()) == l.In && !c.from.Path.Nested() && (c.out == "" || layer.Named(c.out) == l.In) || c.out != "" && layer.Named(c.out) == l.In)
	})
}

// wayBack finds the way back, with what is fitted meanwhile.
func (m *maker) wayBack() {
	o := &m.opening
	tasks := make([]layer.Task, len(m.in))
	for i, c := range m.in {
		t := &tasks[i]
		t.Places = m.coming(c)
		for k := range o.planned.Layers {
			l := &o.planned.Layers[k]
			if l.In != "" && !m.leadOnly(c) && slices.Contains(t.Places, l.In) && !c.to.Path.Nested() {
				t.Layer = l.ID
			}
		}
		for n, d := range m.in {
			switch {
			case n == i:
			case c.to.Path.Nested() && !d.to.Path.Nested() && c.to.Path.Top() == d.to.Path.Top():
				t.Before = append(t.Before, n) // onto its card first
			case m.leadOnly(c) && !c.unplug && c.from != nil && c.from.Path == d.to.Path:
				t.Before = append(t.Before, n) // its port must be free
			}
		}
	}
	var off []int
	for _, i := range o.off {
		l := &o.found.Layers[i]
		if n := slices.IndexFunc(o.planned.Layers, func(p layer.Layer) bool { return p.ID == l.ID }); n >= 0 && !m.leaves(l) {
			off = append(off, n)
		}
	}
	acts, stuck := o.planned.Back(off, tasks)
	for _, a := range stuck {
		if a.Layer >= 0 {
			o.lost = append(o.lost, Lost{Layer: o.planned.Layers[a.Layer].ID})
		} else if c := m.in[a.Task]; c.piece.ID != "" {
			o.lost = append(o.lost, Lost{Item: c.piece.ID, Place: layer.Named(c.to.Path.Top())})
		}
	}
	o.acts = slices.Concat(acts, stuck) // what waits for itself is listed all the same, and holds the work
}

// before splits the way back at the first start: what is done before it, and the covers that
// can wait until the machine was seen to run: those on which nothing hangs that it needs.
func (o *opening) before(all bool) (now, then []layer.Act) {
	n := len(o.acts)
	for !all && n > 0 {
		a := o.acts[n-1]
		if a.Layer < 0 {
			break
		}
		if l := &o.planned.Layers[a.Layer]; l.RunsWith || len(l.Leads)+len(l.Holds) > 0 || // the start button's cable may be on it, or a drive in it
			l.Kind != layer.Cover && l.Kind != layer.Bezel && l.Kind != layer.Foot {
			break
		}
		n--
	}
	return o.acts[:n], o.acts[n:]
}

// takeApart adds the steps that open the machine; parts that leave it anyway are taken out
// where they are in the way.
func (m *maker) takeApart() {
	first, strapped := true, false
	for _, i := range m.opening.off {
		l := &m.opening.found.Layers[i]
		if n := m.outOf(l); n >= 0 {
			if !slices.Contains(m.taken, n) {
				m.taken = append(m.taken, n)
				m.takeOut(m.out[n])
			}
			continue
		}
		for k := range l.Leads {
			if l.Leads[k].Undone != layer.Lifting {
				m.add(m.undo(l, k))
			}
		}
		s := m.off(l)
		if first {
			s.Cautions = append(s.Cautions, m.openCautions()...)
		}
		m.add(s)
		for k := range l.Leads {
			if l.Leads[k].Undone == layer.Lifting {
				m.add(m.undo(l, k))
			}
		}
		first = false
		if l.Kind != layer.Foot && !strapped {
			m.strap()
			strapped = true
		}
	}
	if !strapped {
		m.strap()
	}
}

// leadKey tells the leads of a layer apart, and stays with a lead when the sheet gets another.
func leadKey(l *layer.Layer, k int) string {
	if d := &l.Leads[k]; d.Item != "" {
		return d.Item + "-" + strings.ReplaceAll(string(d.Plug), " ", "-")
	}
	return "lead-" + strconv.Itoa(k+1)
}

// lead is a lead in words: what it is for, or whose it is.
func lead(d *layer.Lead) fact.Fact {
	switch item := rig.ItemID(d.Item); {
	case item == "":
		return fact.Of(AsTyped, fact.Typed(d.For))
	case d.Plug == layer.SATAData:
		return fact.Of(DataLeadOf, item)
	default:
		return fact.Of(PowerLeadOf, item)
	}
}

// releases is how each kind of plug lets go, and goes on again.
var releases = map[layer.Plug][2]fact.Code{
	layer.Friction: {PullStraight, PushStraight}, layer.Latched: {PressPull, UntilLatch}, layer.FlipLock: {FlipUp, FlipDown}, layer.SlideLock: {SlideOut, SlideIn},
	layer.Coax: {LiftCoax, PressCoax}, layer.SATAData: {PullStraight, NeverForce}, layer.SATAPower: {PullStraight, NeverForce}, layer.CardPower: {PressPull, UntilLatch},
}

func (m *maker) undo(l *layer.Layer, k int) Step {
	d := &l.Leads[k]
	s := Step{ID: openStep + string(l.ID) + "/" + leadKey(l, k), Phase: Open, Do: fact.Of(UndoLead, lead(d)), Layer: l.ID, Names: lead(d), Lead: k + 1, Inside: true, Item: rig.ItemID(d.Item), Takes: 0.5}
	s.where(d.Where)
	if how, ok := releases[d.Plug]; ok {
		s.How = append(s.How, fact.Of(how[0]))
	}
	if d.Undone == layer.Lifting {
		s.How = append(s.How, fact.Of(HeldMeanwhile, named(l)))
	}
	if d.Again == layer.OnceBack && d.Item == "" {
		s.How = append(s.How, fact.Of(GoesOnLast, named(l)))
	}
	if d.Plug == layer.Coax {
		s.Tools = append(s.Tools, fact.Of(PryTool))
	}
	return s
}

func (m *maker) plug(l *layer.Layer, k int, p Phase) Step {
	d := &l.Leads[k]
	s := Step{ID: shutStep + string(l.ID) + "/" + leadKey(l, k), Phase: p, Do: fact.Of(PlugLead, lead(d)), Layer: l.ID, Names: lead(d), Lead: k + 1, Shuts: true, Inside: true, Item: rig.ItemID(d.Item), Takes: 0.5, Danger: fact.Of(DangerLead)}
	s.where(d.Where)
	if how, ok := releases[d.Plug]; ok {
		s.How = append(s.How, fact.Of(how[1]))
	}
	var hidden []fact.Fact
	for _, id := range d.Under {
		if over := m.Sheet.Layer(id); over != nil {
			hidden = append(hidden, named(over))
		}
	}
	switch {
	case len(hidden) > 0:
		s.How = append(s.How, fact.Of(OutOfReachOnce, hidden))
	case d.Again == layer.BeforeBack || d.Undone == layer.Lifting:
		s.How = append(s.How, fact.Of(OutOfReachOnce, []fact.Fact{named(l)}))
	case d.Again == layer.OnceBack && d.Item == "":
		s.How = append(s.How, fact.Of(TooShortBefore))
	}
	return s
}

func (s *Step) where(w string) {
	if w != "" {
		s.How = append(s.How, fact.Of(AsTyped, fact.Typed(w)))
	}
}

// named is what a layer is called: a part by its own name.
func named(l *layer.Layer) fact.Fact {
	if item := access.Item(l.ID); item != "" {
		return fact.Of(PartNamed, item)
	}
	return fact.Of(LayerNamed, fact.Typed(l.Name))
}

// off is the step that takes a layer off.
func (m *maker) off(l *layer.Layer) Step {
	minutes, guess := l.Takes()
	s := Step{ID: openStep + string(l.ID), Phase: Open, Do: fact.Of(TakeOff, named(l)), Layer: l.ID, Names: named(l), Inside: true, Takes: minutes, Guess: guess}
	switch item := access.Item(l.ID); {
	case item != "":
		s.Item, s.Socket = item, rig.On(machine.SocketID(l.In))
		s.Do = fact.Of(SetAsideOf, item, s.Socket)
		s.How = append(s.How, fact.Of(LiesOver, l.Hides))
	case l.Stays:
		s.Do = fact.Of(SwingAside, named(l))
	}
	s.where(l.Where)
	if c := m.Sheet.Chassis.Cover; c != "" && l.Kind == layer.Cover && len(l.Fasteners)+len(l.Catches)+len(l.Moves) == 0 {
		s.where(c)
	}
	if l.Typical {
		s.How = append(s.How, fact.Of(IsTypical))
	}
	m.screws(&s, l, UndoFasteners)
	for _, c := range l.Catches {
		s.How = append(s.How, fact.Of(LetGo, c))
		if c.Kind == layer.Clip || c.Kind == layer.Glue {
			s.Tools = append(s.Tools, fact.Of(PryTool))
		}
	}
	for _, v := range l.Moves {
		s.How = append(s.How, fact.Of(MoveAway, v))
	}
	for i := range l.Leads {
		d := &l.Leads[i]
		switch {
		case d.Undone == layer.Lifting && d.Length.Known():
			s.How = append(s.How, fact.Of(LeadReaches, lead(d), d.Length))
		case d.Undone == layer.Lifting:
			s.How = append(s.How, fact.Of(LeadHolds, lead(d)))
		}
	}
	for _, tool := range l.Tools {
		s.Tools = append(s.Tools, fact.Of(AsTyped, fact.Typed(tool)))
	}
	if c := kindCautions[l.Kind]; c.Topic.Is() {
		s.Cautions = append(s.Cautions, c)
	}
	if l.Caution != "" {
		s.Cautions = append(s.Cautions, Caution{fact.Of(TopicLayer, named(l)), fact.Of(AsTyped, fact.Typed(l.Caution))})
	}
	return s
}

// screws says what is done with the fasteners of a layer, and into which cell or from which.
func (m *maker) screws(s *Step, l *layer.Layer, does fact.Code) {
	for i := range l.Fasteners {
		f := &l.Fasteners[i]
		cell := 0
		if f.Loose() {
			cell = m.cell(l, i)
		}
		s.How = append(s.How, fact.Of(does, *f, cell))
		s.tool(f.Bit)
	}
}

// tool adds the driver for a fastener, once.
func (s *Step) tool(b layer.Bit) {
	f := fact.Of(Driver, b)
	if b != "" && b != layer.ByHand && !slices.ContainsFunc(s.Tools, func(t fact.Fact) bool { return t.String() == f.String() }) {
		s.Tools = append(s.Tools, f)
	}
}

// kindCautions is what can hurt or break with the kinds of layer, whatever the machine.
var kindCautions = map[layer.Kind]Caution{
	layer.Cooler:   caution(TopicCooler, SaysCooler),
	layer.Supply:   caution(TopicSupply, SaysSupply),
	layer.Heatsink: caution(TopicHeatsink, SaysHeatsink),
	layer.Card:     caution(TopicCard, SaysCard),
	layer.Board:    caution(TopicBoard, SaysBoard),
}

// putBack is the step that puts a layer back.
func (m *maker) putBack(l *layer.Layer, p Phase) Step {
	minutes, guess := l.Takes()
	s := Step{ID: shutStep + string(l.ID), Phase: p, Do: fact.Of(PutOn, named(l)), Layer: l.ID, Names: named(l), Shuts: true, Inside: true, Takes: minutes, Guess: guess, Danger: fact.Of(DangerLoose)}
	if item := access.Item(l.ID); item != "" {
		s.Item, s.Socket = item, rig.On(machine.SocketID(l.In))
		s.Do = fact.Of(PutBackInto, item, s.Socket)
		s.How = append(s.How, fact.Of(PressSlot))
	} else if l.Stays {
		s.Do = fact.Of(SwingBack, named(l))
	}
	for _, v := range slices.Backward(l.Moves) {
		s.How = append(s.How, fact.Of(MoveBack, v))
	}
	for _, c := range l.Catches {
		s.How = append(s.How, fact.Of(CatchHolds, c))
	}
	m.screws(&s, l, StartFasteners)
	switch l.Kind {
	case layer.Cooler:
		s.How = append(s.How, fact.Of(NewPaste))
		s.Tools = append(s.Tools, fact.Of(Paste))
	case layer.Heatsink:
		s.How = append(s.How, fact.Of(PadsWhole))
	case layer.Duct, layer.Shroud:
		s.How = append(s.How, fact.Of(NoLeadInFan))
	}
	return s
}

// putTogether adds steps of the way back; rest is what comes later.
func (m *maker) putTogether(acts, rest []layer.Act, p Phase) {
	for i, a := range acts {
		switch {
		case a.Task >= 0:
			m.between(acts[i:], rest)
			m.fit(m.in[a.Task])
		case a.Lead >= 0:
			l := &m.opening.planned.Layers[a.Layer]
			if !m.comesIn(rig.ItemID(l.Leads[a.Lead].Item)) {
				m.add(m.plug(l, a.Lead, p))
			}
		default:
			m.add(m.putBack(&m.opening.planned.Layers[a.Layer], p))
		}
	}
}

// comesIn reports a piece that the order fits: its plugs are part of that.
func (m *maker) comesIn(id rig.ItemID) bool {
	return id != "" && slices.ContainsFunc(m.in, func(c change) bool { return c.piece.ID == id && !m.leadOnly(c) })
}

// Cell is a place in the tray: fasteners of one kind from one layer, in the order they came
// out.
type Cell struct {
	N         int
	Layer     layer.ID
	Of        fact.Fact // what they came out of
	Fastener  layer.Fastener
	Out, Back string // the steps in which they come out and go back
}

// cell is the number of the tray's cell for fasteners of a layer.
func (m *maker) cell(l *layer.Layer, f int) int {
	n := slices.IndexFunc(m.tray, func(c Cell) bool {
		return c.Layer == l.ID && c.Fastener.Where == l.Fasteners[f].Where && c.Fastener.Thread == l.Fasteners[f].Thread && c.Fastener.Length == l.Fasteners[f].Length
	})
	if n < 0 {
		m.tray = append(m.tray, Cell{N: m.cells + len(m.tray) + 1, Layer: l.ID, Of: named(l), Fastener: l.Fasteners[f], Out: openStep + string(l.ID), Back: shutStep + string(l.ID)})
		n = len(m.tray) - 1
	}
	return m.cells + n + 1
}

// openCautions is what is said where the machine is opened first.
func (m *maker) openCautions() []Caution {
	out := []Caution{cautionEdges, cautionCell}
	if m.Sheet.Chassis.WeightKG > 20 {
		out = append(out, cautionHeavy)
	}
	return out
}

// crowded adds to a step what lies close by.
func (m *maker) crowded(s *Step, at []layer.Named) {
	for i := range m.opening.planned.Layers {
		l := &m.opening.planned.Layers[i]
		if slices.ContainsFunc(at, func(p layer.Named) bool { return slices.Contains(l.Crowds, p) }) && !m.isOff(l.ID) {
			s.How = append(s.How, fact.Of(TightBy, named(l)))
		}
	}
}

func (m *maker) isOff(id layer.ID) bool {
	return slices.ContainsFunc(m.opening.off, func(i int) bool { return m.opening.found.Layers[i].ID == id })
}
