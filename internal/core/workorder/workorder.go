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

	"deepbay/internal/core/fit"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/memory"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
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
	Close     Phase = "close"
)

// Values lists the phases for the formats.
func (Phase) Values() []string {
	return []string{string(Prepare), string(PowerDown), string(Open), string(TakeOut), string(Fit), string(PowerOn), string(Settings), string(Test), string(Close)}
}

// Caution is what can hurt somebody or lose data at a step.
type Caution struct {
	Topic string `json:"topic"`
	Says  string `json:"says"`
}

// The cautions, said where the step is. Electrical work beyond them is for
// licensed people and local rules.
var (
	cautionMains   = Caution{"Mains", "Pull the plug; a switch may sit in the wrong wire. Never open a power supply: it holds about 325 V or more for minutes. Electrical work is for licensed people, by local rules."}
	cautionStandby = Caution{"Stand-by", "While plugged in, a machine that is off still feeds the board 5 V. Fit nothing until the board's lights are out."}
	cautionStatic  = Caution{"Static", "Strap on, clipped to bare metal of the chassis; parts stay in their bags until they go in. Never wear a strap on live equipment."}
	cautionEdges   = Caution{"Edges and heat", "Case edges cut. Heatsinks and drives may be 60 to 90 °C after use: wait 5 to 10 minutes."}
	cautionFans    = Caution{"Fans", "Fingers and leads out of the machine while it has power. Smell, smoke or sparks: pull the plug, no further step."}
	cautionBackup  = Caution{"Data", "No verified copy, no start: test one file from the backup, then unplug the medium it is on."}
	cautionKey     = Caution{"Encryption", "A changed setting or moved drive may ask for the recovery key at the next start. Have it written down away from this machine."}
	cautionHeavy   = Caution{"Weight", "Over 20 kg: two people. Lay it on its side on a soft, firm table."}
	cautionCell    = Caution{"Cells", "A swollen or leaking cell: stop, do not press or pierce it, and have it taken away."}
	cautionOldData = Caution{"Old drive", "It holds personal data: mark it, and wipe or return it by the owner's policy and local law."}
)

// Step is one thing to do and tick off.
type Step struct {
	ID       string     `json:"id"`
	Phase    Phase      `json:"phase"`
	Do       string     `json:"do"`
	How      []string   `json:"how"`
	Cautions []Caution  `json:"cautions"`
	Item     rig.ItemID `json:"item,omitempty"`
	Socket   rig.Path   `json:"socket,omitzero"`
}

// Job is what an order is made from: one machine in two states.
type Job struct {
	Sheet   *machine.Sheet
	Pieces  []Piece
	Found   rig.Rig
	Planned rig.Rig
}

// Piece is a piece with what tells it from its like.
type Piece struct {
	rig.Piece
	Serial string
}

// Make lists the steps from found to planned. It is empty when nothing differs.
func Make(j Job) []Step {
	m := maker{Job: j}
	m.compare()
	if len(m.out)+len(m.in)+len(m.set) == 0 {
		return []Step{}
	}
	m.prepare()
	if m.inside() {
		m.powerDown()
		m.open()
	}
	for _, c := range m.out {
		m.takeOut(c)
	}
	for _, c := range m.in {
		m.fit(c)
	}
	if m.inside() {
		m.powerOn()
	} else if len(m.set) > 0 {
		m.setUp("Restart, and go into set-up")
	}
	m.settings()
	m.test()
	if m.inside() {
		m.close()
	}
	for i := range m.steps {
		if m.steps[i].How == nil {
			m.steps[i].How = []string{}
		}
		if m.steps[i].Cautions == nil {
			m.steps[i].Cautions = []Caution{}
		}
	}
	return m.steps
}

// change is one piece leaving a place, entering one, or both.
type change struct {
	piece    Piece
	from, to *rig.Place // nil: not in the machine
	aside    bool       // it goes back where it was: only what it carries changes
	unplug   bool       // a data lead that is pulled first, for the leads go round in a ring
}

// leadOnly reports a drive that stays in its bay and only gets its data lead moved.
func (m *maker) leadOnly(c change) bool {
	return c.from != nil && c.to != nil && c.from.Kind == machine.SATA && c.to.Kind == machine.SATA &&
		!m.Found.Outside(c.from.Path) && !m.Planned.Outside(c.to.Path)
}

// inside reports that the machine must be opened: something changes that is
// neither a box on a USB port nor in one.
func (m *maker) inside() bool {
	outside := func(k *rig.Place) bool { return k == nil || !m.Planned.Inside(k.Path) }
	return slices.ContainsFunc(slices.Concat(m.in, m.out), func(c change) bool { return !outside(c.from) || !outside(c.to) })
}

type maker struct {
	Job
	out, in []change
	set     []rig.Choice
	steps   []Step
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
	for _, p := range m.Pieces {
		c := change{piece: p, from: where(&m.Found, p.ID), to: where(&m.Planned, p.ID)}
		if c.from == nil && c.to == nil || c.from != nil && c.to != nil && (c.from.Path == c.to.Path && m.sameHolder(c) || rig.Rides(&m.Found.Setup, &m.Planned.Setup, p.ID)) {
			continue
		}
		if c.from != nil && !m.leadOnly(c) {
			m.out = append(m.out, c)
		}
		if c.to != nil {
			m.in = append(m.in, c)
		}
	}
	m.setAside()
	slices.SortStableFunc(m.out, func(a, b change) int {
		return cmp.Or(m.Found.Compare(top(a.from), top(b.from)), a.from.Path.Depth()-b.from.Path.Depth(), a.from.Path.Compare(b.from.Path))
	})
	slices.SortStableFunc(m.in, func(a, b change) int {
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
		i := slices.IndexFunc(m.Pieces, func(q Piece) bool { return q.ID == p.ID })
		a, b := m.Found.Socket(from), m.Planned.Socket(to)
		if i < 0 || a == nil || b == nil {
			return
		}
		c := change{piece: m.Pieces[i], from: &rig.Place{Path: from, Socket: *a}, to: &rig.Place{Path: to, Socket: *b}, aside: true}
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

func (m *maker) add(s Step) { m.steps = append(m.steps, s) }

func (m *maker) drivesFound() bool {
	return slices.ContainsFunc(m.Found.Placements, func(p rig.Placement) bool {
		return slices.ContainsFunc(m.Pieces, func(q Piece) bool { return q.ID == p.Item && q.Part.Drive != nil })
	})
}

func (m *maker) prepare() {
	if m.drivesFound() && (m.inside() || len(m.set) > 0) {
		s := Step{ID: "prepare/backup", Phase: Prepare, Do: "See that the backup is there and can be read",
			Cautions: []Caution{cautionBackup}}
		if w := m.Planned.Wish; w.BackedUp != "" {
			s.How = append(s.How, "The owner says: "+w.BackedUp)
		}
		if w := m.Planned.Wish; w.Untouched != "" {
			s.How = append(s.How, "Not to be touched: "+w.Untouched)
		}
		if m.Planned.Wish.Encrypted != quantity.No {
			s.Cautions = append(s.Cautions, cautionKey)
		}
		m.add(s)
	}
	if len(m.in) == 0 && !m.inside() {
		return // a setting needs no tool
	}
	tools := Step{ID: "prepare/parts", Phase: Prepare, Do: "Lay out parts and tools"}
	m2 := false
	for _, c := range m.in {
		if c.from == nil {
			tools.How = append(tools.How, c.piece.name()+" ("+c.piece.Part.Describe()+")")
		}
		m2 = m2 || c.to.Kind == machine.M2
	}
	for _, p := range m.Pieces {
		if p.New && p.Part.Fitting != nil {
			tools.How = append(tools.How, p.name()+" ("+p.Part.Describe()+")")
		}
	}
	list := "Cross-head drivers 0 and 1, magnetic mat, strap, light, camera"
	if m2 {
		list += "; M.2 post and screw (M2 x 3 mm), from the board's box or the drive's"
	}
	tools.How = append(tools.How, list)
	m.add(tools)
}

func (p Piece) name() string {
	if p.Serial == "" {
		return p.Part.Name
	}
	return p.Part.Name + ", serial " + p.Serial
}

func (m *maker) powerDown() {
	m.add(Step{ID: "power-down/shut", Phase: PowerDown, Do: "Shut the system down",
		How: []string{"A full shut-down, not sleep"}})
	m.add(Step{ID: "power-down/unplug", Phase: PowerDown, Do: "Pull the mains plug and every other lead",
		How:      []string{"Supply switch off first, if there is one; then mains, monitor, network, the rest"},
		Cautions: []Caution{cautionMains}})
	m.add(Step{ID: "power-down/drain", Phase: PowerDown, Do: "Hold the power button for 10 seconds",
		How:      []string{"Wait until every light on the board is out"},
		Cautions: []Caution{cautionStandby}})
}

func (m *maker) open() {
	s := Step{ID: "open/cover", Phase: Open, Do: "Take the cover off", Cautions: []Caution{cautionEdges, cautionCell}}
	if c := m.Sheet.Chassis.Cover; c != "" {
		s.How = append(s.How, c)
	}
	s.How = append(s.How, "Lay the screws out in the order and place they came from")
	if m.Sheet.Chassis.WeightKG > 20 {
		s.Cautions = append(s.Cautions, cautionHeavy)
	}
	m.add(s)
	m.add(Step{ID: "open/strap", Phase: Open, Do: "Strap on, and photograph the inside",
		How: []string{"Leads and plugs as they were found"}, Cautions: []Caution{cautionStatic}})
}

func (m *maker) takeOut(c change) {
	s := Step{ID: "take-out/" + string(c.piece.ID) + "@" + c.from.Path.String(), Phase: TakeOut,
		Do: "Take " + c.piece.name() + " out of " + string(c.from.ID), Item: c.piece.ID, Socket: c.from.Path}
	switch c.from.Kind {
	case machine.DIMM:
		s.How = []string{"Open the levers at its ends; it rises", "Hold it by the edges"}
	case machine.SODIMM:
		s.How = []string{"Spread both side clips; it springs up at a slant", "Hold it by the edges"}
	case machine.M2:
		s.How = []string{"Heatsink off first, if it has one", "Undo the screw; the card springs up, which is normal", "Draw it out at its slant"}
	case machine.Slot:
		s.How = []string{"Power plugs off, bracket screw or lock open", "Press the latch at the slot's end and draw the card straight out"}
	case machine.SATA, machine.U2:
		s.How = []string{"Pull the plugs, not the wires", "Undo the bracket and keep its screws with the drive"}
		if c.unplug {
			s.ID = "take-out/lead-" + string(c.piece.ID) + "@" + c.from.Path.String()
			s.Do = "Pull the data lead of " + c.piece.name() + " off " + c.from.Path.String()
			s.How = []string{"Pull the plug, not the wire; its port is wanted for another lead first"}
		}
	case machine.USB:
		s.How = []string{"Unmount its drives in the system first, then pull the plug at the port"}
	}
	if c.aside {
		s.How = append(s.How, "It goes back: what it carries is changed on the bench")
	}
	if c.to == nil && c.piece.Part.Drive != nil {
		s.Cautions = append(s.Cautions, cautionOldData)
	}
	m.add(s)
}

func (m *maker) fit(c change) {
	s := Step{ID: "fit/" + string(c.piece.ID) + "@" + c.to.Path.String(), Phase: Fit,
		Do: "Fit " + c.piece.name() + " into " + string(c.to.ID), Item: c.piece.ID, Socket: c.to.Path}
	if c.to.Where != "" {
		s.How = append(s.How, string(c.to.ID)+": "+c.to.Where)
	}
	if !rig.Suits(c.piece.Part, &c.to.Socket) {
		m.add(s) // it does not go there, so nobody is told how
		return
	}
	switch c.to.Kind {
	case machine.DIMM:
		s.How = append(s.How, "Levers open; notch to the key: it goes one way round",
			"Press one end until it clicks, then the other",
			"Run a finger along: it sits level, both levers upright")
	case machine.SODIMM:
		s.How = append(s.How, "Notch to the key, in at a slant of about 30 degrees, fully home",
			"Fold it down until both side clips snap")
	case machine.M2:
		s.How = append(s.How, fitM2(c.piece.Part.M2(), &c.to.Socket)...)
	case machine.Slot:
		s.How = append(s.How, "Cover plate off at its opening; edge over the slot, press evenly until the latch at its end clicks", "Bracket screw or lock closed")
		for _, p := range c.piece.Part.Card.Plugs {
			s.How = append(s.How, "Power plug on: "+string(p))
		}
	case machine.SATA, machine.U2:
		s.How = append(s.How, m.fitSATA(c)...)
	case machine.USB:
		s.How = append(s.How, "With the lead that came with the box: a lead for charging only, or one of USB 2.0, holds it to 480 Mb/s",
			"All the way in; a rear port before one of the front panel")
	}
	if m.leadOnly(c) {
		s.ID = "fit/lead-" + string(c.piece.ID) + "@" + string(c.to.ID)
		s.Do = "Move the data lead of " + c.piece.name() + " from " + string(c.from.ID) + " to " + string(c.to.ID)
	}
	m.add(s)
}

func fitM2(d *part.M2, k *machine.Socket) []string {
	own := d.Heatsink == quantity.Yes
	var how []string
	if k.Heatsink == quantity.Yes {
		how = append(how, "Take the board's heatsink off this socket")
	}
	if d.LengthMM.Known() {
		how = append(how, "Move the post to "+d.LengthMM.String()+"; no post may stay under the card")
	}
	how = append(how,
		"Label side up, notch to the key, in at about 30 degrees until it is home: an even sliver of gold at most",
		"Fold it flat and screw it snug, no more")
	switch {
	case k.Heatsink == quantity.Yes && own:
		how = append(how, "One heatsink only: the drive brings its own, so the board's stays off and goes into the box")
	case k.Heatsink == quantity.Yes:
		how = append(how, "Peel the films off the heatsink's pads; the drive's own label stays on, it conducts",
			"Heatsink back: start both screws before you tighten either")
	}
	return how
}

func (m *maker) fitSATA(c change) []string {
	if m.Planned.Outside(c.to.Path) {
		return []string{"Onto the plug of the box, without force; its screws or latch closed"}
	}
	if m.leadOnly(c) {
		return []string{"Pull the plug, not the wire; the L-shaped plug goes one way, never force it"}
	}
	screws := "M3 screws, 3 mm deep at most"
	if c.piece.Part.Drive.Form == part.Form3i5 {
		screws = "6-32 screws; an M3 screw is loose in these holes"
	}
	return []string{"Into its bracket first, the right way round for its leads: " + screws,
		"Data lead to " + string(c.to.ID) + ", power plug to the drive; both L-shaped plugs go one way"}
}

// training is how long the first start after a change of memory may stay dark.
var training = map[memory.Generation]string{
	memory.DDR4: "With new memory the first start may take 5 to 30 seconds longer, show a notice, or start twice: wait",
	memory.DDR5: "With new memory the screen may stay dark for half a minute to 5 minutes, with large sets up to 15, and restart: wait",
}

func (m *maker) powerOn() {
	m.add(Step{ID: "power-on/look", Phase: PowerOn, Do: "Look once more before power",
		How: []string{"All parts level and latched, fan and power plugs back, leads clear of the fans", "Every screw accounted for, nothing under the board"}})
	start := Step{ID: "power-on/start", Phase: PowerOn, Do: "Cover loosely on, plug in, start",
		How: []string{"Strap off first; hands out from here on"}, Cautions: []Caution{cautionFans}}
	if slices.ContainsFunc(append(slices.Clone(m.in), m.out...), func(c change) bool { return c.piece.Part.Module != nil }) {
		if t := training[m.Sheet.Memory.Generation]; t != "" {
			start.How = append(start.How, t)
		}
	}
	m.add(start)
	m.setUp("Go into set-up")
}

// setUp adds the way into the set-up screens.
func (m *maker) setUp(do string) {
	key := "The sheet does not say which key: try the one the first screen names, and note it on the sheet"
	if k := m.Sheet.Firmware.SetupKey; k != "" {
		key = "Press " + k + " again and again from the moment of power"
	}
	m.add(Step{ID: "power-on/set-up", Phase: PowerOn, Do: do, How: []string{key}})
}

func (m *maker) settings() {
	for _, c := range m.set {
		st := m.Sheet.Setting(c.Setting)
		s := Step{ID: "settings/" + string(c.Setting) + "=" + c.Value, Phase: Settings,
			Do: "Set " + st.Name + " to " + st.OptionName(c.Value)}
		if st.Where != "" {
			s.How = append(s.How, "Under "+st.Where)
		}
		if st.Caution != "" {
			s.Cautions = append(s.Cautions, Caution{"Before you change it", st.Caution})
			if m.Planned.Wish.Encrypted != quantity.No {
				s.Cautions = append(s.Cautions, cautionKey)
			}
		}
		m.add(s)
	}
	if len(m.set) > 0 {
		m.add(Step{ID: "settings/save", Phase: Settings, Do: "Save and leave set-up"})
	}
}

// test asks for a memory test wherever modules came in, which proves sizes beyond
// the sheet and finds bad modules while they can go back.
func (m *maker) test() {
	if !slices.ContainsFunc(m.in, func(c change) bool { return c.piece.Part.Module != nil }) {
		return
	}
	s := Step{ID: "test/memory", Phase: Test, Do: "Run a memory test to the end",
		How: []string{"From its own stick, all patterns; hours, overnight with much memory", "One fault is enough: take modules out one by one to find it, and send the kit back"}}
	r := fit.Resolve(&m.Planned)
	for _, f := range r.Findings {
		if f.Code == "memory-trial" || f.Code == "module-trial" {
			s.How = append(s.How, "This is a trial: "+f.Says)
		}
	}
	m.add(s)
}

func (m *maker) close() {
	m.add(Step{ID: "close/off", Phase: Close, Do: "Shut down and pull the plug again",
		Cautions: []Caution{cautionMains}})
	m.add(Step{ID: "close/cover", Phase: Close, Do: "Close in reverse",
		How: []string{"No tool, film or screw left inside; all leads back", "Cover on and locked"}})
	m.add(Step{ID: "close/leads", Phase: Close, Do: "All leads back, start once more",
		How: []string{"The system comes up as before it left the bench"}})
}
