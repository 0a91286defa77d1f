// Package workorder walks from the machine as found to the machine as planned:
// the steps in the order they are done, each with how to do it and the cautions
// that belong to it.
//
// A step's ID is made of what it does, so a tick stays with its step when the
// plan around it changes, and is gone when the step is.
package workorder

import (
	"cmp"
	"slices"
	"strings"

	"deepbay/internal/core/access"
	"deepbay/internal/core/data"
	"deepbay/internal/core/fact"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/layer"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/memory"
	"deepbay/internal/core/part"
	"deepbay/internal/core/practice"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/volume"
)

// Phase is a stretch of the work.
type Phase string

// The phases, in order.
const (
	Prepare   Phase = "prepare"
	PowerDown Phase = "power down"
	Open      Phase = "open"
	TakeOut   Phase = "take out"
	Fit       Phase = "fit"
	PowerOn   Phase = "first power-on"
	Settings  Phase = "settings"
	Test      Phase = "test"
	System    Phase = "system"
	Close     Phase = "close"
)

// Values lists the phases for the formats.
func (Phase) Values() []string {
	return []string{string(Prepare), string(PowerDown), string(Open), string(TakeOut), string(Fit), string(PowerOn), string(Settings), string(Test), string(System), string(Close)}
}

// Caution is what can hurt somebody or lose data at a step.
type Caution struct{ Topic, Says fact.Fact }

func caution(topic, says fact.Code) Caution { return Caution{fact.Of(topic), fact.Of(says)} }

// The cautions, said where the step is. Electrical work beyond them is for
// licensed people and local rules.
var (
	cautionMains   = caution(TopicMains, SaysMains)
	cautionStandby = caution(TopicStandby, SaysStandby)
	cautionStatic  = caution(TopicStatic, SaysStatic)
	cautionEdges   = caution(TopicEdges, SaysEdges)
	cautionFans    = caution(TopicFans, SaysFans)
	cautionBackup  = caution(TopicData, SaysData)
	cautionKey     = caution(TopicKey, SaysKey)
	cautionHeavy   = caution(TopicWeight, SaysWeight)
	cautionCell    = caution(TopicCells, SaysCells)
	cautionOldData = caution(TopicOldDrive, SaysOldDrive)
	cautionProfile = caution(TopicProfile, SaysProfile)
	cautionArray   = caution(TopicArray, SaysArray)
	cautionTarget  = caution(TopicTarget, SaysTarget)
)

// Step is one thing to do and tick off.
type Step struct {
	ID       string
	Phase    Phase
	Do       fact.Fact
	How      []fact.Fact
	Cautions []Caution
	Item     rig.ItemID
	Socket   rig.Path
	Bay      machine.BayID // of a drive: in which it lies, or lay
	Choice   rig.Choice    // of a step in set-up
	Layer    layer.ID      // that it takes off or puts back, or whose lead it is
	Names    fact.Fact     // what that is called
	Lead     int           // of that layer, from 1 on; 0 for the layer itself
	Shuts    bool          // it belongs to the way back
	Inside   bool          // it is done inside the open machine
	Tools    []fact.Fact   // what hands need for it
	See      fact.Fact     // what must be seen before it counts as done; none where nothing must
	Photo    bool          // and is worth a photograph
	Takes    layer.Minutes // how long it takes
	Guess    bool          // nobody measured that: it is as usual
	Runs     layer.Minutes // how long its test runs by itself, roughly
	Test     rig.Test      // it asks for a test: how that ended is told, not ticked; "" for none
	Danger   fact.Fact     // what can come of it if it is left out; none where nothing does
	Needs    []string      // steps that must be done before it, by their names: it is refused otherwise
	Effects  []data.Act    // what it does to drives and to where they are
	Asks     []Ask         // how each drive that it erases is told from all others, which is typed before it counts as done
	Confirm  []string      // what is typed for that
	Look     []rig.ItemID  // drives of which somebody must say what they hold before that
	Held     fact.Fact     // why it must not be done as things are; none where nothing stands against it
}

// Ask is how one drive is told from all others that run while it is erased.
type Ask struct {
	Item rig.ItemID
	By   Mark
	Word string // what is typed
}

// Says is what is asked for.
func (a *Ask) Says() fact.Fact {
	return fact.Of(map[Mark]fact.Code{BySerial: AskSerial, ByPlace: AskPlace, ByTape: AskTape}[a.By], a.Item, fact.Typed(a.Word))
}

// Mark is what tells a drive from others.
type Mark string

// The marks, the surest first.
const (
	BySerial Mark = "serial" // the end of its serial number, which no other drive that runs has
	ByPlace  Mark = "place"  // where it is connected, while nothing else that runs has its size
	ByTape   Mark = "tape"   // a tape that hands put on it
)

// Values lists the marks for the formats.
func (Mark) Values() []string { return []string{string(BySerial), string(ByPlace), string(ByTape)} }

// Erases reports a step that writes over a drive.
func (s *Step) Erases() bool {
	return slices.ContainsFunc(s.Effects, func(e data.Act) bool {
		return e.What == data.Erases || e.What == data.Copies || e.What == data.Clones
	})
}

// Powered reports a step for which the machine has power.
func (s *Step) Powered() bool {
	_, id := Mends(s.ID)
	return id == BetweenStep || s.Phase == PowerOn && id != lookStep || s.Phase == Settings || s.Phase == Test || s.Phase == System
}

// LoadStep is the test of the machine at work.
const LoadStep = "test/load"

// lookStep is the last look before that.
const lookStep = "power-on/look"

// StartStep is the step with which the machine gets power again.
const StartStep = "power-on/start"

// Setting is a setting at a value, as an argument of facts.
type Setting rig.Choice

// Job is what an order is made from: one machine in two states.
type Job struct {
	Sheet    *machine.Sheet
	Found    rig.Rig
	Planned  rig.Rig
	Fresh    bool         // a new machine that never ran
	Last     bool         // no stage comes after this
	System   bool         // the system comes onto its drive in this stage
	Back     []rig.ItemID // pieces that come back in a later stage
	Done     []Deed       // what hands did, oldest first: what the plan asks for no more is taken back
	Again    bool         // it was opened, closed and is opened again: what is done needs no reaching any more
	Practice practice.Practice
	Agreed   []fact.Fact     // losses that somebody accepted knowingly, and who
	Barred   []layer.ID      // layers that were tried and do not come off
	Layouts  []volume.Layout // of blank drives and arrays that get volumes in this stage

	Transfers []Transfer // of data, in this stage
}

// Order is the steps, with what goes with them.
type Order struct {
	Steps  []Step
	Layers []layer.Layer // of the machine as it is opened, and parts that lie over others when it is closed
	Tray   []Cell
	Pick   []Need
	Lost   []Lost // what cannot be reached: the order must not be begun
}

// Make lists the steps from found to planned, and from what hands did to planned where that
// is something else. It is empty when nothing differs.
func Make(j Job) Order {
	m := maker{Job: j, steps: []Step{}}
	m.Planned.Found = &m.Found.Setup
	m.wasIn, m.liesIn = fit.Bays(&m.Found), fit.Bays(&m.Planned)
	if m.layered() {
		m.opening.found, m.opening.planned = access.Of(&m.Found, m.wasIn, m.Barred), access.Of(&m.Planned, m.liesIn, m.Barred)
	}
	m.compare()
	if len(m.out)+len(m.in)+len(m.set)+len(m.back)+len(m.Planned.Wish.Tests)+len(m.Transfers) == 0 && !m.leftOff() {
		return Order{Steps: m.steps}
	}
	inside := m.inside()
	if inside {
		m.reach()
	}
	m.prepare()
	if inside {
		m.powerDown()
		m.open()
	}
	m.backAgain(TakeOut)
	for i, c := range m.out {
		if !slices.Contains(m.taken, i) {
			m.takeOut(c)
		}
	}
	now, then := m.opening.before(m.Practice.Of(practice.FirstStart) == practice.Closed)
	if !m.layered() || !inside { // nothing but what comes in
		for i := range m.in {
			now = append(now, layer.Act{Layer: -1, Lead: -1, Task: i})
		}
	}
	m.putTogether(now, then, Fit)
	if inside {
		m.powerOn(then)
	} else if len(m.set)+len(m.back) > 0 {
		m.setUp(fact.Of(RestartSetUp))
	}
	m.settings()
	m.arrays(false)
	m.test()
	m.system()
	m.arrays(true)
	m.volumes(false)
	m.transfers()
	m.volumes(true)
	if inside {
		m.close(then)
	} else {
		m.resume()
	}
	for i := range m.tray { // what stays off for good takes its screws along
		if !slices.ContainsFunc(m.steps, func(s Step) bool { return s.ID == m.tray[i].Back }) {
			m.tray[i].Back = ""
		}
	}
	layers := slices.Clone(m.opening.found.Layers)
	for _, l := range m.opening.planned.Layers {
		if !slices.ContainsFunc(layers, func(f layer.Layer) bool { return f.ID == l.ID }) {
			layers = append(layers, l)
		}
	}
	return Order{m.steps, layers, m.tray, m.pick(), m.opening.lost}
}

// leftOff reports that hands took a layer off, or undid a lead, and did not put it back.
func (m *maker) leftOff() bool {
	for i := range m.opening.planned.Layers {
		if m.wasLeft(&m.opening.planned.Layers[i]) {
			return true
		}
	}
	return false
}

// change is one piece leaving a place, entering one, or both.
type change struct {
	piece    rig.Piece
	from, to *rig.Place    // nil: not in the machine
	aside    bool          // it goes back where it was: only what it carries changes
	back     *Step         // it takes back what was done: the step is that
	unplug   bool          // a data lead that is pulled first, for the leads go round in a ring
	out, in  machine.BayID // of a drive: the bays it lay in and lies in
}

// leadOnly reports a drive that stays in its bay and only gets its data lead moved.
func (m *maker) leadOnly(c change) bool {
	if c.from == nil || c.to == nil {
		return false
	}
	if c.back != nil {
		return c.from.Kind == machine.SATA && c.to.Kind == machine.SATA
	}
	return access.LeadOnly(end(c.from, c.out), end(c.to, c.in)) && !m.tookOut(c.piece.ID)
}

// tookOut reports that hands took a piece out: it is not in its bay any more.
func (m *maker) tookOut(id rig.ItemID) bool {
	return slices.ContainsFunc(m.Done, func(d Deed) bool { return d.Phase == TakeOut && d.Item == id && !strings.HasPrefix(d.Step, unplugStep) })
}

// inside reports that the machine must be opened: something changes that is
// neither a box on a USB port nor in one.
func (m *maker) inside() bool {
	return m.leftOff() || slices.ContainsFunc(slices.Concat(m.in, m.out), m.insideOf) || slices.ContainsFunc(m.back, func(s Step) bool { return s.Inside })
}

func (m *maker) insideOf(c change) bool {
	outside := func(k *rig.Place) bool { return k == nil || !m.Planned.Inside(k.Path) }
	return !outside(c.from) || !outside(c.to)
}

type maker struct {
	Job
	out, in []change
	wasIn   []rig.Lying // bays as found
	liesIn  []rig.Lying // and as planned
	set     []rig.Choice
	back    []Step // of what was done and is not wanted any more
	steps   []Step
	opening opening
	taken   []int  // of out: those that were in the way
	tray    []Cell // what lies in it
	cells   int    // that work before this one uses

	resolved    *fit.Answer // of the machine as planned, once something asked
	memoryFirst bool        // modules go in before other parts, with a start in between
	started     bool        // that start was looked at
	saidSlots   bool        // which slots come first was said
}

// answer is what the rules say of the machine as planned.
func (m *maker) answer() *fit.Answer {
	if m.resolved == nil {
		a := fit.Resolve(&m.Planned)
		m.resolved = &a
	}
	return m.resolved
}

func (m *maker) compare() {
	where := func(r *rig.Rig, id rig.ItemID) *rig.Place {
		at := r.Where(id)
		if k := r.Socket(at); k != nil {
			return &rig.Place{Path: at, Socket: *k}
		}
		return nil
	}
	// What sits on a carrier goes onto it before the carrier goes in, and comes
	// off it after the carrier is out.
	top := func(k *rig.Place) rig.Path { return rig.On(k.Path.Top()) }
	for _, p := range m.Planned.Pieces {
		c := change{piece: p, from: where(&m.Found, p.ID), to: where(&m.Planned, p.ID), out: bayOf(m.wasIn, p.ID), in: bayOf(m.liesIn, p.ID)}
		if c.from == nil && c.to == nil || c.from != nil && c.to != nil && (c.from.Path == c.to.Path && m.sameHolder(c) && c.out == c.in || rig.Rides(&m.Found.Setup, &m.Planned.Setup, p.ID)) {
			continue
		}
		if c.from != nil && !m.leadOnly(c) {
			m.out = append(m.out, c)
		} else if at := m.leadAt(p.ID); c.from != nil && !at.IsZero() && at != c.to.Path {
			c.from = m.place(at) // hands moved it on
		}
		if c.to != nil {
			m.in = append(m.in, c)
		}
	}
	m.setAside()
	m.takeBack()
	slices.SortStableFunc(m.out, func(a, b change) int {
		return cmp.Or(m.Found.Compare(top(a.from), top(b.from)), a.from.Path.Depth()-b.from.Path.Depth(), a.from.Path.Compare(b.from.Path))
	})
	m.memoryFirst = m.kindByKind()
	slices.SortStableFunc(m.in, func(a, b change) int {
		switch {
		case !m.memoryFirst || isModule(a) == isModule(b):
		case isModule(a):
			return -1
		default:
			return 1
		}
		return cmp.Or(m.Found.Compare(top(a.to), top(b.to)), b.to.Path.Depth()-a.to.Path.Depth(), a.to.Path.Compare(b.to.Path))
	})
	m.freeFirst()
	for i := range m.Sheet.Settings {
		s := &m.Sheet.Settings[i]
		if v := m.Planned.Choice(s); v != m.Found.Choice(s) {
			m.set = append(m.set, rig.Choice{Setting: s.ID, Value: v})
		}
	}
}

// bayOf is the bay in which a drive lies, "" for none.
func bayOf(list []rig.Lying, id rig.ItemID) machine.BayID {
	s := rig.Setup{Bays: list}
	return s.Told(id)
}

// mount is how a bay holds what lies in it; a socket that holds its drive itself says so.
func (m *maker) mount(bay machine.BayID, k *rig.Place) *machine.Mount {
	if b, ok := m.Sheet.Bay(bay); ok {
		return &b.Mount
	}
	return &k.Mount
}

// apart tells steps that fit a drive at one port apart by its bay, where that is not the port's own.
func (m *maker) apart(bay machine.BayID, k *rig.Place) string {
	if bay == "" || !k.Path.Nested() && machine.SocketID(bay) == k.Path.Top() {
		return ""
	}
	return "#" + string(bay)
}

// setAside takes out the slot cards on which an M.2 card changes: it is fitted and
// screwed down on the bench, not over the board.
func (m *maker) setAside() {
	touched := func(r *rig.Rig, k *rig.Place) {
		if k == nil || k.Kind != machine.M2 || !k.Path.Nested() {
			return
		}
		at := k.Path.Holder()
		p := r.PieceIn(at)
		slot := r.Socket(at)
		moves := func(c change) bool { return c.piece.ID == p.ID }
		if p == nil || p.Part.Card == nil || slot == nil || slot.Kind != machine.Slot || slices.ContainsFunc(m.out, moves) || slices.ContainsFunc(m.in, moves) {
			return
		}
		from, to := m.Found.Where(p.ID), m.Planned.Where(p.ID)
		i := slices.IndexFunc(m.Planned.Pieces, func(q rig.Piece) bool { return q.ID == p.ID })
		a, b := m.Found.Socket(from), m.Planned.Socket(to)
		if i < 0 || a == nil || b == nil {
			return
		}
		c := change{piece: m.Planned.Pieces[i], from: &rig.Place{Path: from, Socket: *a}, to: &rig.Place{Path: to, Socket: *b}, aside: true}
		m.out, m.in = append(m.out, c), append(m.in, c)
	}
	for _, c := range slices.Concat(m.out, m.in) {
		touched(&m.Found, c.from)
		touched(&m.Planned, c.to)
	}
}

// freeFirst orders what goes in so that a port is free before a lead goes onto it:
// data leads are not taken out beforehand. Where they go round in a ring, one is
// pulled first.
func (m *maker) freeFirst() {
	held := func(c change, rest []change) bool {
		return slices.ContainsFunc(rest, func(d change) bool {
			return d.piece.ID != c.piece.ID && m.leadOnly(d) && !d.unplug && d.from.Path == c.to.Path
		})
	}
	rest, in := m.in, make([]change, 0, len(m.in))
	for len(rest) > 0 {
		i := slices.IndexFunc(rest, func(c change) bool { return !held(c, rest) })
		if i < 0 { // every one waits for a lead: pull the first
			i = slices.IndexFunc(rest, m.leadOnly)
			rest[i].unplug = true
			m.out = append(m.out, rest[i])
			continue
		}
		in = append(in, rest[i])
		rest = slices.Delete(slices.Clone(rest), i, i+1)
	}
	m.in = in
}

// sameHolder reports that what holds the place is the same piece before and after;
// the board always is.
func (m *maker) sameHolder(c change) bool {
	return !c.from.Path.Nested() || m.Found.In(c.from.Path.Holder()) == m.Planned.In(c.to.Path.Holder())
}

// add adds a step. One that carries a caution is dangerous to leave out, if nothing else is said.
func (m *maker) add(s Step) {
	if !s.Danger.Is() && len(s.Cautions) > 0 {
		s.Danger = s.Cautions[0].Says
	}
	if s.Takes == 0 {
		s.Takes, s.Guess = cmp.Or(usual[s.Do.Code], 1), true
	}
	if s.Item != "" && s.Layer == "" && !MovesLead(s.ID) {
		switch s.Phase {
		case Fit:
			s.Effects = append(s.Effects, data.Act{What: data.Puts, Item: s.Item, At: s.Socket})
		case TakeOut:
			s.Effects = append(s.Effects, data.Act{What: data.Takes, Item: s.Item})
		}
	}
	m.steps = append(m.steps, s)
}

// usual is how long hands are busy with a step where nobody measured it; of a test, with
// beginning it and reading what it says.
var usual = map[fact.Code]layer.Minutes{
	Backup: 3, LayOut: 3, HoldButton: 0.5, TakeOutOf: 1.5, FitInto: 2, StartUp: 2, StartClosed: 2, RunMemoryTest: 3, RunSelfTest: 2, RunLoadTest: 3, SaveLeave: 0.5,
	MakeArray: 3, InstallOn: 20, InstallArray: 20, CopyOnto: 10, CoverOff: 1, CloseReverse: 2, LeadsBack: 3,
}

func (m *maker) drivesFound() bool {
	return slices.ContainsFunc(m.Found.Placements, func(p rig.Placement) bool {
		return slices.ContainsFunc(m.Planned.Pieces, func(q rig.Piece) bool { return q.ID == p.Item && q.Part.Drive != nil && !q.Part.Drive.Form.Optical() })
	})
}

// risks reports work by which what lies on a drive can be lost.
func (m *maker) risks() bool {
	return !m.Fresh && m.drivesFound() && (m.inside() || len(m.set)+len(m.Transfers) > 0)
}

// suspends reports that the protection of an encrypted disk is suspended for the work.
func (m *maker) suspends() bool { return m.Planned.Wish.Encrypted == quantity.Yes && m.risks() }

// BackupStep is that a copy is there and was read.
const BackupStep = "prepare/backup"

func (m *maker) prepare() {
	if m.risks() {
		s := Step{ID: BackupStep, Phase: Prepare, Do: fact.Of(Backup),
			Cautions: []Caution{cautionBackup}}
		if w := m.Planned.Wish; w.BackedUp != "" {
			s.How = append(s.How, fact.Of(OwnerSays, fact.Typed(w.BackedUp)))
		}
		if w := m.Planned.Wish; w.Untouched != "" {
			s.How = append(s.How, fact.Of(NotTouched, fact.Typed(w.Untouched)))
		}
		if m.Planned.Wish.Encrypted != quantity.No {
			s.Cautions = append(s.Cautions, cautionKey)
		}
		for _, p := range m.Found.Placements {
			if d := m.Planned.Piece(p.Item); d != nil && d.Part.Drive != nil && !d.Part.Drive.Form.Optical() && d.Holds != rig.Blank {
				s.How = append(s.How, fact.Of(CopyOf, p.Item))
				s.Effects = append(s.Effects, data.Act{What: data.BacksUp, Item: p.Item})
			}
		}
		m.add(s)
	}
	if m.suspends() {
		m.add(Step{ID: "prepare/suspend", Phase: Prepare, Do: fact.Of(SuspendProtection), How: []fact.Fact{fact.Of(OnceResumed)}, Cautions: []Caution{cautionKey}})
	}
	if len(m.in) == 0 && !m.inside() {
		return // a setting needs no tool
	}
	tools := Step{ID: "prepare/parts", Phase: Prepare, Do: fact.Of(LayOut)}
	m2 := false
	for _, c := range m.in {
		if c.from == nil {
			tools.How = append(tools.How, fact.Of(PartAndWhat, c.piece.ID))
		}
		m2 = m2 || c.to.Kind == machine.M2
	}
	for _, p := range m.Planned.Pieces {
		if p.New && p.Part.Fitting != nil {
			tools.How = append(tools.How, fact.Of(PartAndWhat, p.ID))
		}
	}
	list := Tools
	if m2 {
		list = ToolsM2
	}
	tools.How = slices.Concat(tools.How, []fact.Fact{fact.Of(list)}, m.Agreed, m.apartOrArray())
	if says, mixed := m.mix(); mixed && m.Practice.Of(practice.More) == practice.Mix {
		tools.How = append(tools.How, says)
	} else if mixed {
		m.add(Step{ID: "prepare/mix", Phase: Prepare, Do: fact.Of(AgreeMix), How: []fact.Fact{says, fact.Of(KitInstead)}})
	}
	m.add(tools)
}

// earthed reports that the machine stays plugged in with its supply switched off: the shop
// does so, and the supply has a switch and an earthed lead.
func (m *maker) earthed() bool {
	return m.Practice.Of(practice.Earth) == practice.Switch && m.Sheet.Chassis.Earthed == quantity.Yes
}

func (m *maker) powerDown() {
	if m.Fresh { // it never ran: nothing is shut down, and it has had no mains yet
		m.add(Step{ID: "power-down/unplugged", Phase: PowerDown, Do: fact.Of(NoMainsYet),
			How: []fact.Fact{fact.Of(LeadsLast)}, Cautions: []Caution{cautionMains}})
		return
	}
	m.add(Step{ID: "power-down/shut", Phase: PowerDown, Do: fact.Of(ShutDown),
		How: []fact.Fact{fact.Of(FullShutDown)}, Danger: fact.Of(DangerLive)})
	if m.earthed() {
		m.add(Step{ID: "power-down/switch", Phase: PowerDown, Do: fact.Of(SwitchOff),
			How:      []fact.Fact{fact.Of(EarthTested)},
			Cautions: []Caution{cautionMains}})
	} else {
		m.add(Step{ID: "power-down/unplug", Phase: PowerDown, Do: fact.Of(PullMains),
			How:      []fact.Fact{fact.Of(SupplySwitch)},
			Cautions: []Caution{cautionMains}})
	}
	m.add(Step{ID: "power-down/drain", Phase: PowerDown, Do: fact.Of(HoldButton),
		How:      []fact.Fact{fact.Of(LightsOut)},
		Cautions: []Caution{cautionStandby}})
}

// open opens the machine: layer by layer where the sheet knows them, else by its cover alone,
// and it is said that nobody knows what lies below.
func (m *maker) open() {
	if m.layered() {
		m.takeApart()
		return
	}
	s := Step{ID: "open/cover", Phase: Open, Do: fact.Of(CoverOff), Cautions: m.openCautions()}
	if c := m.Sheet.Chassis.Cover; c != "" {
		s.How = append(s.How, fact.Of(AsTyped, fact.Typed(c)))
	}
	s.How = append(s.How, fact.Of(map[practice.School]fact.Code{practice.PlaceOrder: LayScrews, practice.Cups: ScrewsInCups, practice.MagneticMat: ScrewsOnMat}[m.Practice.Of(practice.Screws)]), fact.Of(LayersUnstated))
	m.add(s)
	m.strap()
}

func (m *maker) strap() {
	s := Step{ID: "open/strap", Phase: Open, Do: fact.Of(StrapOn), See: fact.Of(SeeInside), Photo: true,
		How: []fact.Fact{fact.Of(LeadsAsFound)}, Cautions: []Caution{cautionStatic}}
	if !m.isDone(s.ID) && slices.ContainsFunc(m.Done, func(d Deed) bool { return Opens(d.Step) }) {
		s.Cautions = append(s.Cautions, cautionEdges) // it ran since the cover came off, and is hot again
	}
	m.add(s)
}

// outStep names the step that takes a piece out, inStep the one that fits it.
func (m *maker) outStep(c change) string {
	if c.unplug {
		return placeStep(unplugStep, c.piece.ID, c.from.Path)
	}
	return placeStep("take-out/", c.piece.ID, c.from.Path)
}

func (m *maker) inStep(c change) string {
	switch {
	case c.back != nil:
		return c.back.ID
	case m.leadOnly(c) && rig.Suits(c.piece.Part, &c.to.Socket):
		return placeStep(leadStep, c.piece.ID, c.to.Path)
	}
	return placeStep("fit/", c.piece.ID, c.to.Path) + m.apart(c.in, c.to)
}

func (m *maker) takeOut(c change) {
	s := Step{ID: m.outStep(c), Phase: TakeOut,
		Do: fact.Of(TakeOutOf, c.piece.ID, c.from.Path), Item: c.piece.ID, Socket: c.from.Path, Bay: c.out, Inside: m.insideOf(c)}
	switch c.from.Kind {
	case machine.DIMM:
		s.How = []fact.Fact{fact.Of(OpenLevers), fact.Of(HoldEdges)}
	case machine.SODIMM:
		s.How = []fact.Fact{fact.Of(SpreadClips), fact.Of(HoldEdges)}
	case machine.M2:
		s.How = []fact.Fact{fact.Of(UndoScrew), fact.Of(DrawOut)}
		if !m.sinkIsLayer(c.from) {
			s.How = append([]fact.Fact{fact.Of(HeatsinkOff)}, s.How...)
		}
		if m.layered() && !slices.ContainsFunc(m.in, func(d change) bool { return d.to.Path == c.from.Path }) {
			s.How = append(s.How, fact.Of(ScrewStays))
		}
	case machine.Slot:
		s.How = []fact.Fact{fact.Of(PlugsOff), fact.Of(PressLatch)}
	case machine.SATA, machine.U2:
		s.How = []fact.Fact{fact.Of(PullPlugs), fact.Of(outOf(c.piece.Part.Drive, m.mount(c.out, c.from).Holder))}
		if c.unplug {
			s.Do = fact.Of(PullLead, c.piece.ID, c.from.Path)
			s.How = []fact.Fact{fact.Of(PortWanted)}
		}
	case machine.USB:
		s.How = []fact.Fact{fact.Of(UnmountFirst)}
	}
	if c.aside {
		s.How = append(s.How, fact.Of(GoesBack))
	}
	m.crowded(&s, m.leaving(c))
	if at := m.leadAt(c.piece.ID); !at.IsZero() && at != c.from.Path {
		s.How = append(s.How, fact.Of(LeadIsOn, at))
	}
	d := c.piece.Part.Drive
	switch {
	case c.to == nil && slices.Contains(m.Back, c.piece.ID):
		s.How = append(s.How, fact.Of(ComesBack))
	case c.to == nil && d != nil && !d.Form.Optical():
		s.Cautions = append(s.Cautions, cautionOldData)
	}
	m.add(s)
}

func (m *maker) fit(c change) {
	if c.back != nil {
		m.add(*c.back)
		return
	}
	s := Step{ID: m.inStep(c), Phase: Fit,
		Do: fact.Of(FitInto, c.piece.ID, c.to.Path), Item: c.piece.ID, Socket: c.to.Path, Bay: c.in, Inside: m.insideOf(c)}
	switch holder := m.Planned.In(c.to.Path.Holder()); {
	case c.to.Where != "":
		s.How = append(s.How, fact.Of(SocketWhere, c.to.Path, fact.Typed(c.to.Where)))
	case holder != "":
		s.How = append(s.How, fact.Of(PositionOf, c.to.Path, c.to.Path.Last(), holder))
	}
	if !rig.Suits(c.piece.Part, &c.to.Socket) {
		m.add(s) // it does not go there, so nobody is told how
		return
	}
	switch c.to.Kind {
	case machine.DIMM:
		s.See = fact.Of(SeeLevel)
		s.How = append(s.How, fact.Of(LeversOpen),
			fact.Of(PressEnds),
			fact.Of(FingerAlong))
		s.How = append(s.How, m.slots()...)
	case machine.SODIMM:
		s.See = fact.Of(SeeLevel)
		s.How = append(s.How, fact.Of(InAtSlant),
			fact.Of(FoldDown))
		s.How = append(s.How, m.slots()...)
	case machine.M2:
		s.See = fact.Of(SeeGold)
		s.How = append(s.How, m.fitM2(c.piece.Part.M2(), c.to)...)
	case machine.Slot:
		s.How = append(s.How, fact.Of(PlateOff), fact.Of(BracketClosed))
		for _, p := range c.piece.Part.Card.Plugs {
			s.How = append(s.How, fact.Of(PowerPlugOn, p))
		}
	case machine.SATA, machine.U2:
		s.How = append(s.How, m.fitSATA(c)...)
	case machine.USB:
		s.How = append(s.How, fact.Of(BoxLead),
			fact.Of(AllTheWay))
	}
	m.crowded(&s, m.coming(c))
	if m.leadOnly(c) {
		s.Do = fact.Of(MoveLead, c.piece.ID, c.from.Path, c.to.Path)
	}
	m.add(s)
}

// sinkIsLayer reports that the board's heatsink over a socket is a layer, with steps of its
// own.
func (m *maker) sinkIsLayer(k *rig.Place) bool {
	return slices.ContainsFunc(m.Sheet.Layers, func(l layer.Layer) bool {
		return l.Kind == layer.Heatsink && slices.Contains(l.Hides, layer.Named(k.Path.Top()))
	})
}

func (m *maker) fitM2(d *part.M2, k *rig.Place) []fact.Fact {
	own, sinkIsLayer, peel := d.Heatsink == quantity.Yes, m.sinkIsLayer(k), PeelFilms
	if m.Practice.Of(practice.Label) == practice.LabelOff {
		peel = PaperLabelOff
	}
	var how []fact.Fact
	if k.Heatsink == quantity.Yes && !sinkIsLayer {
		how = append(how, fact.Of(BoardHeatsinkOff))
	}
	if d.LengthMM.Known() {
		how = append(how, fact.Of(MovePost, d.LengthMM))
	}
	how = append(how,
		fact.Of(LabelUp),
		fact.Of(FoldFlat))
	switch {
	case k.Heatsink == quantity.Yes && own:
		how = append(how, fact.Of(OneHeatsink))
	case k.Heatsink == quantity.Yes && sinkIsLayer:
		how = append(how, fact.Of(peel))
	case k.Heatsink == quantity.Yes:
		how = append(how, fact.Of(peel),
			fact.Of(HeatsinkBack))
	case !own && m.Practice.Of(practice.Heatsink) == practice.Always:
		how = append(how, fact.Of(HeatsinkOn))
	}
	return how
}

func (m *maker) fitSATA(c change) []fact.Fact {
	if m.Planned.Outside(c.to.Path) {
		return []fact.Fact{fact.Of(OntoBoxPlug)}
	}
	if m.leadOnly(c) {
		return []fact.Fact{fact.Of(NeverForce)}
	}
	var how []fact.Fact
	if b, ok := m.Sheet.Bay(c.in); ok && machine.SocketID(c.in) != c.to.Path.Top() {
		how = append(how, fact.Of(IntoBay, c.in))
		if b.Where != "" && m.Sheet.Socket(machine.SocketID(c.in)) == nil {
			how[0] = fact.Of(IntoBayWhere, c.in, fact.Typed(b.Where))
		}
	}
	how = append(how, fact.Of(into(c.piece.Part.Drive, m.mount(c.in, c.to).Holder)))
	for _, p := range fit.LeadsFrom(&m.Planned) {
		if p.Item == c.piece.ID {
			how = append(how, fact.Of(LeadEndMoves, p.Socket, c.to.Path))
		}
	}
	return append(how, fact.Of(LeadAndPlug, c.to.Path))
}

// into is how a drive is held in its bay: by what the sheet says, else by a bracket.
func into(d *part.Drive, held machine.Holder) fact.Code {
	unc := d.Form == part.Form3i5
	switch {
	case d.Form.Optical():
		return OpticalIn
	case held == machine.HeldByCaddy:
		return CaddyIn
	case held == machine.HeldByScrews && unc:
		return ScrewsUNC
	case held == machine.HeldByScrews:
		return ScrewsM3
	case unc:
		return BracketUNC
	}
	return BracketM3
}

// outOf is how what lies in a bay is let go, be it no drive.
func outOf(d *part.Drive, held machine.Holder) fact.Code {
	switch {
	case d != nil && d.Form.Optical():
		return OpticalOut
	case held == machine.HeldByCaddy:
		return CaddyOut
	case held == machine.HeldByScrews:
		return ScrewsOut
	}
	return UndoBracket
}

// training is how long the first start after a change of memory may stay dark.
var training = map[memory.Generation]fact.Code{
	memory.DDR4: TrainsDDR4,
	memory.DDR5: TrainsDDR5,
}

func (m *maker) powerOn(then []layer.Act) {
	m.add(Step{ID: lookStep, Phase: PowerOn, Do: fact.Of(LookOnce),
		How: m.lookOver(), See: fact.Of(SeeNothingLoose), Danger: fact.Of(DangerLoose)})
	start := Step{ID: StartStep, Phase: PowerOn, Do: fact.Of(StartUp),
		How: []fact.Fact{fact.Of(StrapOff)}, Cautions: []Caution{cautionFans}}
	if m.layered() {
		start.Do = fact.Of(StartClosed)
		var loose []fact.Fact
		for _, a := range then {
			if a.Lead < 0 {
				loose = append(loose, named(&m.opening.planned.Layers[a.Layer]))
			}
		}
		if len(loose) > 0 {
			start.How = append([]fact.Fact{fact.Of(StayLoose, loose)}, start.How...)
		}
	}
	moved := slices.Concat(m.in, m.out)
	if n := m.kinds(); n > 1 && m.Practice.Of(practice.Test) == practice.EachKind && !slices.ContainsFunc(m.steps, func(s Step) bool { return s.ID == BetweenStep }) {
		start.How = append(start.How, fact.Of(KindByKind, n))
	}
	if m.Practice.Of(practice.Speed) == practice.Base && slices.ContainsFunc(m.in, isModule) && !slices.ContainsFunc(m.set, m.profiles) {
		start.How = append(start.How, fact.Of(ProfileStaysOff))
	}
	if i := slices.IndexFunc(moved, isModule); i >= 0 {
		family := cmp.Or(m.Sheet.Memory.Generation, moved[i].piece.Part.Module.Generation)
		start.How = append(start.How, fact.Of(cmp.Or(training[family], TrainsOther)))
	}
	m.add(start)
	m.setUp(fact.Of(IntoSetUp))
}

// lookOver is what is looked at before the machine gets power.
func (m *maker) lookOver() []fact.Fact {
	how := []fact.Fact{fact.Of(AllLevel), fact.Of(EveryScrew)}
	if !m.Fresh {
		how = append(how, fact.Of(DustOut))
	}
	if slices.ContainsFunc(m.in, func(c change) bool { return c.to.Kind == machine.Slot || c.to.Kind == machine.M2 }) {
		how = append(how, fact.Of(NothingRubs))
	}
	return how
}

// kinds is how many kinds of parts come in.
func (m *maker) kinds() int {
	seen := map[machine.Kind]bool{}
	for _, c := range m.in {
		if c.from == nil {
			seen[c.to.Kind] = true
		}
	}
	return len(seen)
}

// setUp adds the way into the set-up screens.
func (m *maker) setUp(do fact.Fact) {
	key := fact.Of(KeyUnknown)
	if k := m.Sheet.Firmware.SetupKey; k != "" {
		key = fact.Of(PressKey, fact.Typed(k))
	}
	m.add(Step{ID: "power-on/set-up", Phase: PowerOn, Do: do, How: []fact.Fact{key}, See: fact.Of(SeeScreens)})
}

// settings asks for what is set in set-up, in the order of what it is for: the storage mode before
// what hangs on it, what starts last.
func (m *maker) settings() {
	slices.SortStableFunc(m.set, func(a, b rig.Choice) int { return m.role(a).Order() - m.role(b).Order() })
	for _, c := range m.set {
		m.add(m.setStep(c))
	}
	m.backAgain(Settings)
	byHand := m.byHand()
	if len(m.set) > 0 || byHand || slices.ContainsFunc(m.back, func(s Step) bool { return s.Phase == Settings }) {
		m.add(Step{ID: "settings/save", Phase: Settings, Do: fact.Of(SaveLeave), How: []fact.Fact{fact.Of(NoticeOnce)}})
	}
}

// role is what a setting is for.
func (m *maker) role(c rig.Choice) machine.Role {
	if st := m.Sheet.Setting(c.Setting); st != nil {
		return m.Sheet.RoleOf(st)
	}
	return ""
}

// setStep is the step that makes a setting, with what goes with its role.
func (m *maker) setStep(c rig.Choice) Step {
	st := m.Sheet.Setting(c.Setting)
	s := Step{ID: settingStep(c), Phase: Settings, Do: fact.Of(SetTo, Setting(c)), Choice: c}
	if st.Where != "" {
		s.How = append(s.How, fact.Of(Under, fact.Typed(st.Where)))
	}
	r := roles[m.role(c)]
	for _, how := range r.how {
		s.How = append(s.How, fact.Of(how))
	}
	if r.see != "" {
		s.See = fact.Of(r.see)
	}
	if st.Caution != "" {
		s.Cautions = append(s.Cautions, Caution{fact.Of(TopicBefore), fact.Of(AsTyped, fact.Typed(st.Caution))})
	}
	if r.caution != "" && (!r.drives || m.drivesFound()) {
		s.Cautions = append(s.Cautions, caution(TopicInstalled, r.caution))
	}
	if len(s.Cautions) > 0 && m.Planned.Wish.Encrypted != quantity.No {
		s.Cautions = append(s.Cautions, cautionKey)
	}
	if m.profiles(c) {
		s.How, s.Cautions = append(s.How, fact.Of(ProfileWayBack)), append(s.Cautions, cautionProfile)
	}
	return s
}

// roles is what goes with settings by what they are for, whatever firmware calls them.
var roles = map[machine.Role]struct {
	how     []fact.Code
	see     fact.Code // how to see that it took
	caution fact.Code
	drives  bool // the caution is for a machine that came with drives
}{
	machine.StorageMode:   {[]fact.Code{ModeDriverFirst}, SeeMode, SaysMode, true},
	machine.Remapping:     {[]fact.Code{ModeDriverFirst}, SeeMode, SaysRemap, true},
	machine.SocketMode:    {[]fact.Code{SocketModeOne}, SeeSocketMode, "", false},
	machine.SlotSplit:     {[]fact.Code{SplitNoArray, SplitByNumber}, SeePositions, "", false},
	machine.LinkSpeed:     {nil, SeeLink, "", false},
	machine.MemoryProfile: {nil, SeeProfile, "", false},
	machine.LegacyStart:   {nil, "", SaysLegacy, true},
	machine.SecureStart:   {nil, "", SaysSecure, true},
	machine.BootOrder:     {[]fact.Code{OrderLast}, SeeOrder, "", false},
}

// profiles reports a setting at a value that lets memory run at its profile.
func (m *maker) profiles(c rig.Choice) bool {
	return slices.ContainsFunc(m.Sheet.Rules, func(r machine.Rule) bool {
		return slices.ContainsFunc(r.When, func(w machine.Condition) bool { return w.Setting == c.Setting && w.Is == c.Value }) &&
			slices.ContainsFunc(r.Then, func(e machine.Effect) bool { return e.Profile })
	})
}

// test asks for a memory test wherever modules came in or a profile was switched on,
// which proves sizes and speeds beyond the sheet and finds bad modules while they can
// go back; and for what the owner asked.
func (m *maker) test() {
	asked := func(t rig.Test) bool { return slices.Contains(m.Planned.Wish.Tests, t) }
	if asked(rig.MemoryTest) || slices.ContainsFunc(m.in, isModule) || slices.ContainsFunc(m.set, m.profiles) {
		m.testMemory()
	}
	if asked(rig.SelfTest) {
		m.testDrives()
	}
	if asked(rig.LoadTest) {
		m.add(Step{ID: LoadStep, Phase: Test, Do: fact.Of(RunLoadTest), How: []fact.Fact{fact.Of(LoadHow), fact.Of(LoadHeat)}, Test: rig.LoadTest, Runs: loadRuns})
	}
}

// testDrives asks for the self-test of the drives that came in, of all where none did.
func (m *maker) testDrives() {
	var all, fresh []Step
	for _, p := range m.Planned.Pieces {
		at := m.Planned.Where(p.ID)
		if d := p.Part.Drive; at.IsZero() || d == nil || d.Form.Optical() {
			continue
		}
		s := Step{ID: "test/self@" + string(p.ID), Phase: Test, Do: fact.Of(RunSelfTest, p.ID, at), How: []fact.Fact{fact.Of(SelfHow)}, Item: p.ID, Socket: at, Test: rig.SelfTest, Runs: selfRuns(p.Part.Drive)}
		if all = append(all, s); m.Found.Where(p.ID).IsZero() {
			fresh = append(fresh, s)
		}
	}
	if len(fresh) > 0 {
		all = fresh
	}
	for _, s := range all {
		m.add(s)
	}
}

// loadRuns is how long a load test runs until temperatures stand still (fact sheet, section 12: ten
// to twenty minutes, and again as long to see that they do).
const loadRuns layer.Minutes = 30

// How long tests run, roughly: four passes over memory take some ten minutes a GiB; a drive's own
// long test reads all of it, platters at about 150 MB/s, flash at 500 MB/s.
const (
	minutesPerGiB           = 10
	plattersRead, flashRead = 150 * quantity.MB, 500 * quantity.MB // a second
)

func memoryRuns(b quantity.Bytes) layer.Minutes {
	return layer.Minutes(minutesPerGiB * float64(min(b, 4*quantity.TiB)) / float64(quantity.GiB))
}

func selfRuns(d *part.Drive) layer.Minutes {
	read := flashRead
	if d.Media == part.Platter {
		read = plattersRead
	}
	return 2 + layer.Minutes(float64(d.CapacityBytes)/float64(read)/60)
}

func (m *maker) testMemory() {
	s := Step{ID: "test/memory", Phase: Test, Do: fact.Of(RunMemoryTest),
		How: []fact.Fact{fact.Of(FromStick), fact.Of(OneFault)}, Test: rig.MemoryTest, Runs: memoryRuns(m.answer().Memory.Total.High)}
	for _, f := range m.answer().Findings {
		if f.Code == "memory-trial" || f.Code == "module-trial" || f.Code == "profile-trial" {
			s.How = append(s.How, fact.Of(IsTrial, f.Says))
		}
	}
	m.add(s)
}

// resume asks for the protection that was suspended.
func (m *maker) resume() {
	if m.suspends() {
		m.add(Step{ID: "close/resume", Phase: Close, Do: fact.Of(ResumeProtection), How: []fact.Fact{fact.Of(ProtectionOn)}, Danger: fact.Of(DangerUnprotected)})
	}
}

// close closes what is open still: what the layers say, where the sheet knows them.
func (m *maker) close(then []layer.Act) {
	if len(then) > 0 || !m.layered() {
		off := fact.Of(OffAgain)
		if m.earthed() {
			off = fact.Of(SwitchOffAgain)
		}
		m.add(Step{ID: "close/off", Phase: Close, Do: off,
			Cautions: []Caution{cautionMains}})
		inside := Step{ID: "close/cover", Phase: Close, Do: fact.Of(CloseReverse),
			How: []fact.Fact{fact.Of(NothingInside), fact.Of(CoverLocked)}, Danger: fact.Of(DangerLoose)}
		if m.layered() {
			inside.Do, inside.How = fact.Of(LookInside), inside.How[:1]
		}
		m.add(inside)
		m.putTogether(then, nil, Close)
	}
	comes := ComesUp
	if m.Fresh || m.Planned.Wish.Starts.How != "" && m.Last {
		comes = ComesUpNew
	}
	m.add(Step{ID: "close/leads", Phase: Close, Do: fact.Of(LeadsBack),
		How: []fact.Fact{fact.Of(comes)}})
	m.resume()
}
