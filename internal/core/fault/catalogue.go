package fault

// This file is the catalogue: what goes wrong at a bench, how likely it is among the rest, what
// it changes, what checks show where it is, and how long its cure takes. Priors are rough (fact
// sheet, section 10: "all C"): they order the checks, and what was touched weighs three times.

import (
	"slices"

	"deepbay/internal/core/layer"
	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/power"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// kind is an entry of the catalogue.
type kind struct {
	name    Kind
	prior   float64
	where   func(*Case) []Fault
	effects func(*Case, Fault) []variant
	shows   map[Look]Outcome // what checks show where it is, but for the ordinary
	inside  bool             // its cure needs the machine opened
	minutes layer.Minutes    // that its cure takes
	normal  bool             // it only looks like a fault
	danger  bool             // work stops, and data comes first
	caution bool             // its cure has a caution of its own
	channel bool             // it is about a memory channel, not one slot
	spoilt  bool             // the piece itself is bad: it fails, and another takes its place
}

// The entries, by name.
const (
	HalfSeated      Kind = "half-seated"
	ModuleDirty     Kind = "module-dirty"
	ModuleDead      Kind = "module-dead"
	SlotDead        Kind = "slot-dead"
	ChannelPressed  Kind = "channel-pressed"
	ModuleMislabel  Kind = "module-mislabelled"
	ModuleDense     Kind = "module-too-dense"
	ProfileUnstable Kind = "profile-unstable"
	MemoryErrors    Kind = "memory-errors"
	FirmwareOld     Kind = "firmware-too-old"
	Training        Kind = "training"
	ThirtyTwoBit    Kind = "32-bit"
	LiesElsewhere   Kind = "lies-elsewhere"
	Swapped         Kind = "swapped"

	ProfileNotSet  Kind = "profile-not-set"
	SplitNotSet    Kind = "split-not-set"
	SplitWrongSlot Kind = "split-on-wrong-slot"
	ModeWrong      Kind = "mode-wrong"
	SpeedCapped    Kind = "speed-capped"
	SettingOther   Kind = "setting-other"
	NotSaved       Kind = "not-saved"
	CellEmpty      Kind = "cell-empty"
	ProcessorOther Kind = "processor-other"

	M2NotSeated   Kind = "m2-not-seated"
	M2Dirty       Kind = "m2-dirty"
	DriveDead     Kind = "drive-dead"
	PortDead      Kind = "port-dead"
	PostShorts    Kind = "post-shorts"
	PostMissing   Kind = "post-missing"
	FilmOn        Kind = "film-on"
	NoAir         Kind = "no-air"
	SATACard      Kind = "sata-card"
	DriveMislabel Kind = "drive-mislabelled"
	DriveFailing  Kind = "drive-failing"
	Remapped      Kind = "remapped"
	PathTooLong   Kind = "path-too-long"
	IdleLink      Kind = "idle-link"

	LeadOff       Kind = "lead-off"
	LeadBad       Kind = "lead-bad"
	LeadDead      Kind = "lead-dead"
	PlugOff       Kind = "plug-off"
	PinHolds      Kind = "power-disable-pin"
	PowerLeadDead Kind = "power-lead-dead"
	SplitterWeak  Kind = "splitter-weak"

	CardNotSeated Kind = "card-not-seated"
	CardDirty     Kind = "card-dirty"
	CardPlugOff   Kind = "card-plug-off"
	CardDead      Kind = "card-dead"
	WrongOutput   Kind = "wrong-output"
	BoxSlow       Kind = "box-slow"
	BoxOff        Kind = "box-off"

	StartOrder    Kind = "start-order"
	LegacyStart   Kind = "legacy-start"
	NoStartFiles  Kind = "no-start-files"
	SameSignature Kind = "same-signature"
	NoLetter      Kind = "no-letter"
	KeyAsked      Kind = "key-asked"

	SupplyOff    Kind = "supply-off"
	SupplyDead   Kind = "supply-dead"
	MainPlugOff  Kind = "main-plug-off"
	CPUPlugOff   Kind = "cpu-plug-off"
	FrontLeadOff Kind = "front-lead-off"
	LooseScrew   Kind = "loose-screw"
	StandBy      Kind = "stand-by"
	CoverSwitch  Kind = "cover-switch"
	FanOff       Kind = "fan-off"
)

// all is one way in which a fault shows.
func all(list ...change) []variant { return []variant{{1, list}} }

// either is two ways, the first with its share.
func either(share float64, a, b []change) []variant { return []variant{{share, a}, {1 - share, b}} }

func say(message string) change { return change{does: says, value: message} }

var catalogue = []kind{
	// Memory.
	{name: HalfSeated, prior: .50, where: modules, inside: true, minutes: 2, effects: lostOr(.8, power.Dark), shows: map[Look]Outcome{Seat: NotHome, Spare: Gone, Swap: Gone, OtherPlace: Gone, Alone: Starts}},
	{name: ModuleDirty, prior: .06, where: modules, inside: true, minutes: 5, effects: lostOr(.6, power.Beeps), shows: map[Look]Outcome{Contacts: Dirty, Spare: Gone, Swap: Gone, Alone: Starts}},
	{name: ModuleDead, spoilt: true, prior: .12, where: modules, inside: true, minutes: 5, effects: lostOr(.7, power.Beeps), shows: map[Look]Outcome{Swap: WithPiece, Spare: Gone, Alone: Starts}},
	{name: SlotDead, prior: .08, where: modules, inside: true, minutes: 5, effects: lost, shows: map[Look]Outcome{Swap: WithPlace, OtherPlace: Gone, Alone: Starts}},
	{name: ChannelPressed, caution: true, prior: .05, where: channels, inside: true, minutes: 20, channel: true, effects: channelLost, shows: map[Look]Outcome{Cooler: Gone, Swap: WithPlace, OtherPlace: Gone}},
	{name: ModuleMislabel, prior: .04, where: modules, inside: true, minutes: 5, effects: halved, shows: map[Look]Outcome{Label: Another, Swap: WithPiece, Spare: Gone}},
	{name: ModuleDense, prior: .05, where: modules, inside: true, minutes: 10, effects: halved, shows: map[Look]Outcome{Swap: WithPiece, Spare: Gone, Version: TooOld}},
	{name: ProfileUnstable, prior: .15, where: settings(machine.MemoryProfile), minutes: 3, effects: messages(.6, power.Loops, power.Dark), shows: map[Look]Outcome{ProfileOff: Starts}},
	{name: MemoryErrors, spoilt: true, prior: .10, where: modules, inside: true, minutes: 5, effects: messages(1, power.Stops, ""), shows: map[Look]Outcome{MemTest: Fails}},
	{name: FirmwareOld, caution: true, prior: .10, where: newModules, inside: true, minutes: 25, effects: messages(.5, power.Beeps, power.Dark), shows: map[Look]Outcome{Version: TooOld}},
	{name: Training, prior: .50, where: newModules, minutes: 15, normal: true, effects: messages(1, power.Dark, ""), shows: map[Look]Outcome{Wait: Starts}},
	{name: ThirtyTwoBit, prior: .10, where: muchMemory, minutes: 2, effects: always(change{does: uses, n: usable}), shows: map[Look]Outcome{Bits: ThirtyTwo}},
	{name: LiesElsewhere, prior: .05, where: elsewhere, inside: true, minutes: 4, effects: moved, shows: map[Look]Outcome{Place: Another, Swap: WithPlace}},
	{name: Swapped, prior: .05, where: exchanged, inside: true, minutes: 6, effects: moved, shows: map[Look]Outcome{Place: Another}},

	// Settings.
	{name: ProfileNotSet, prior: .70, where: settings(machine.MemoryProfile), minutes: 1, effects: setTo},
	{name: SplitNotSet, prior: .70, where: settings(machine.SlotSplit), minutes: 1, effects: setTo},
	{name: SplitWrongSlot, prior: .15, where: wrongSlots, minutes: 1, effects: onWrongSlot},
	{name: ModeWrong, caution: true, prior: .30, where: settings(machine.StorageMode, machine.Remapping), minutes: 1, effects: wrongMode},
	{name: SpeedCapped, prior: .30, where: settings(machine.LinkSpeed), minutes: 1, effects: setTo},
	{name: SettingOther, prior: .10, where: settings("", machine.SocketMode, machine.PCIeStart, machine.LegacyStart, machine.SecureStart, machine.BootOrder), minutes: 1, effects: setTo},
	{name: NotSaved, prior: .15, where: unsaved, minutes: 2, effects: allSettingsBack},
	{name: CellEmpty, caution: true, prior: .10, where: machineWith(anySetting), inside: true, minutes: 3, effects: cleared, shows: map[Look]Outcome{Cell: Failing}},
	{name: ProcessorOther, prior: .12, where: processors, minutes: 1, effects: otherProcessor, shows: map[Look]Outcome{Processor: Another}},

	// Drives on M.2 and U.2, and what all drives share.
	{name: M2NotSeated, prior: .25, where: drivesIn(machine.M2), inside: true, minutes: 3, effects: lostOrNarrow(.6), shows: map[Look]Outcome{Seat: NotHome, Spare: Gone, Swap: Gone, OtherPlace: Gone}},
	{name: M2Dirty, prior: .08, where: overPCIe(machine.M2), inside: true, minutes: 5, effects: narrowed(counts), shows: map[Look]Outcome{Contacts: Dirty, Spare: Gone, Swap: Gone}},
	{name: DriveDead, spoilt: true, caution: true, prior: .08, where: drives, inside: true, minutes: 5, effects: lost, shows: map[Look]Outcome{Swap: WithPiece, Spare: Gone, Listen: Silent}},
	{name: PortDead, prior: .06, where: drives, inside: true, minutes: 5, effects: lost, shows: map[Look]Outcome{Swap: WithPlace, OtherPlace: Gone}},
	{name: PostShorts, prior: .03, where: onTheBoard(machine.M2), inside: true, minutes: 4, effects: messages(.5, power.Loops, power.Dead), shows: map[Look]Outcome{Post: Wrong}},
	{name: PostMissing, prior: .06, where: overPCIe(machine.M2), inside: true, minutes: 4, effects: narrowed(counts), shows: map[Look]Outcome{Post: Wrong, OtherPlace: Gone}},
	{name: FilmOn, prior: .15, where: drivesIn(machine.M2), inside: true, minutes: 4, effects: hot(92), shows: map[Look]Outcome{Film: On}},
	{name: NoAir, prior: .10, where: drivesIn(machine.M2), inside: true, minutes: 5, effects: hot(81), shows: map[Look]Outcome{Air: Covered}},
	{name: SATACard, prior: .06, where: overPCIe(machine.M2), inside: true, minutes: 5, effects: speaksSATA, shows: map[Look]Outcome{Label: Another, Swap: WithPiece, Spare: Gone}},
	{name: DriveMislabel, prior: .03, where: drives, inside: true, minutes: 5, effects: halved, shows: map[Look]Outcome{Health: Failing, Swap: WithPiece, Spare: Gone}},
	{name: DriveFailing, spoilt: true, caution: true, prior: .05, where: drives, inside: true, minutes: 10, danger: true, effects: failing, shows: map[Look]Outcome{Health: Failing, Listen: Clicks, Swap: WithPiece, Spare: Gone}},
	{name: Remapped, caution: true, prior: .05, where: drives, minutes: 5, effects: always(change{does: unseen}), shows: map[Look]Outcome{Driver: Gone}},
	{name: PathTooLong, prior: .10, where: overPCIe(machine.M2), inside: true, minutes: 6, effects: slower(counts), shows: map[Look]Outcome{Straight: Gone}},
	{name: IdleLink, prior: .60, where: overPCIe(""), minutes: 1, normal: true, effects: idle, shows: map[Look]Outcome{AtWork: Gone}},

	// Drives on leads.
	{name: LeadOff, prior: .12, where: drivesIn(machine.SATA), inside: true, minutes: 1, effects: lost, shows: map[Look]Outcome{DataLead: NotHome, Swap: WithPlace}},
	{name: LeadBad, prior: .30, where: drivesIn(machine.SATA), inside: true, minutes: 3, effects: slowLead, shows: map[Look]Outcome{OtherLead: Gone, Swap: WithPlace}},
	{name: LeadDead, prior: .04, where: drivesIn(machine.SATA), inside: true, minutes: 3, effects: lost, shows: map[Look]Outcome{OtherLead: Gone, Swap: WithPlace}},
	{name: PlugOff, prior: .12, where: drivesIn(machine.SATA), inside: true, minutes: 1, effects: lost, shows: map[Look]Outcome{PowerPlug: NotHome, Listen: Silent, Swap: WithPlace}},
	{name: PinHolds, prior: .10, where: pinned, inside: true, minutes: 4, effects: lost, shows: map[Look]Outcome{NoThird: Gone, Listen: Silent, Swap: WithPiece, Spare: Gone}},
	{name: PowerLeadDead, caution: true, prior: .04, where: drivesIn(machine.SATA), inside: true, minutes: 3, effects: lost, shows: map[Look]Outcome{OtherPlug: Gone, Listen: Silent, Swap: WithPlace}},
	{name: SplitterWeak, prior: .06, where: platters, inside: true, minutes: 4, effects: dropsOut, shows: map[Look]Outcome{OtherPlug: Gone}},

	// Cards and boxes.
	{name: CardNotSeated, prior: .25, where: cards, inside: true, minutes: 3, effects: lostOrNarrow(.5), shows: map[Look]Outcome{Seat: NotHome, Spare: Gone, Swap: Gone, OtherPlace: Gone}},
	{name: CardDirty, prior: .08, where: cards, inside: true, minutes: 5, effects: narrowed(""), shows: map[Look]Outcome{Contacts: Dirty}},
	{name: CardPlugOff, prior: .25, where: plugged, inside: true, minutes: 1, effects: lostOr(.5, power.Dark), shows: map[Look]Outcome{PowerPlug: NotHome}},
	{name: CardDead, spoilt: true, prior: .04, where: cards, inside: true, minutes: 5, effects: lost, shows: map[Look]Outcome{Swap: WithPiece, Spare: Gone}},
	{name: WrongOutput, prior: .30, where: graphics, minutes: 1, effects: messages(1, power.Dark, ""), shows: map[Look]Outcome{Screen: OnTheBoard}},
	{name: BoxSlow, prior: .50, where: drivesIn(machine.USB), minutes: 1, effects: always(change{does: crawls}), shows: map[Look]Outcome{OtherPort: Gone}},
	{name: BoxOff, prior: .20, where: drivesIn(machine.USB), minutes: 1, effects: lost, shows: map[Look]Outcome{PowerPlug: NotHome}},

	// What starts.
	{name: StartOrder, prior: .70, where: machineWith(func(c *Case) bool { return len(starters(c)) > 0 }), minutes: 2, effects: startsOther, shows: map[Look]Outcome{Order: Another, Menu: Starts}},
	{name: LegacyStart, prior: .15, where: starters, minutes: 2, effects: notStarted, shows: map[Look]Outcome{StartMode: Legacy}},
	{name: NoStartFiles, caution: true, prior: .12, where: starters, minutes: 15, effects: notStarted},
	{name: SameSignature, caution: true, prior: .06, where: twins, minutes: 3, effects: always(change{does: offline}), shows: map[Look]Outcome{Disks: SameID}},
	{name: NoLetter, caution: true, prior: .50, where: blank, minutes: 1, normal: true, effects: always(change{does: offline}), shows: map[Look]Outcome{Disks: NotYet}},
	{name: KeyAsked, caution: true, prior: .30, where: locked, minutes: 3, normal: true, effects: messages(1, power.Key, "")},

	// The machine.
	{name: SupplyOff, prior: .35, where: wholeMachine, minutes: 1, effects: messages(1, power.Dead, ""), shows: map[Look]Outcome{SupplyOn: Off}},
	{name: SupplyDead, caution: true, prior: .05, where: wholeMachine, inside: true, minutes: 20, effects: messages(1, power.Dead, ""), shows: map[Look]Outcome{OtherSupply: Starts}},
	{name: MainPlugOff, prior: .25, where: wholeMachine, inside: true, minutes: 1, effects: messages(1, power.Dead, ""), shows: map[Look]Outcome{MainPlugs: NotHome}},
	{name: CPUPlugOff, prior: .30, where: wholeMachine, inside: true, minutes: 1, effects: messages(.7, power.Loops, power.Dark), shows: map[Look]Outcome{CPUPlug: NotHome}},
	{name: FrontLeadOff, prior: .15, where: wholeMachine, inside: true, minutes: 1, effects: messages(1, power.Dead, ""), shows: map[Look]Outcome{FrontLead: NotHome}},
	{name: LooseScrew, caution: true, prior: .15, where: wholeMachine, inside: true, minutes: 4, danger: true, effects: messages(.5, power.Dead, power.Loops), shows: map[Look]Outcome{Loose: Found}},
	{name: StandBy, prior: .10, where: wholeMachine, minutes: 1, effects: messages(1, power.Dead, ""), shows: map[Look]Outcome{Restart: Gone}},
	{name: CoverSwitch, prior: .90, where: wholeMachine, minutes: 1, effects: messages(1, power.CoverOpen, ""), shows: map[Look]Outcome{Lid: Open}},
	{name: FanOff, prior: .80, where: wholeMachine, inside: true, minutes: 1, effects: messages(1, power.FanError, ""), shows: map[Look]Outcome{FanPlug: Off}},
}

// Where faults can be.

// seat is a piece that the machine finds, with the socket it lies in.
type seat struct {
	at     rig.Path
	socket *machine.Socket
	part   *part.Part
}

// look finds all places and what the machine finds in them.
func (c *Case) look() {
	c.places = c.rig.Places()
	for i := range c.places {
		k := &c.places[i]
		c.sockets[k.Path] = &k.Socket
		s, p := c.answer.Socket(k.Path), c.rig.PieceIn(k.Path)
		if s == nil || p == nil || s.Dead || c.base.gone(power.LineID{Kind: power.Drive, Socket: k.Path}) {
			continue
		}
		c.seats = append(c.seats, seat{k.Path, &k.Socket, p.Part})
	}
	c.oneModule = len(modules(c)) == 1
}

// live lists the pieces that the machine finds, by their places.
func (c *Case) live(is func(*machine.Socket, *part.Part) bool) []Fault {
	var out []Fault
	for i := range c.seats {
		if s := &c.seats[i]; is(s.socket, s.part) {
			out = append(out, Fault{At: s.at})
		}
	}
	return out
}

func modules(c *Case) []Fault {
	return c.live(func(_ *machine.Socket, p *part.Part) bool { return p.Module != nil })
}

// channels is each memory channel with modules, by the first slot of it that holds one.
func channels(c *Case) []Fault {
	var out []Fault
	for _, f := range modules(c) {
		if !slices.ContainsFunc(out, func(o Fault) bool { return c.sameChannel(o.At, f.At) }) {
			out = append(out, f)
		}
	}
	if len(out) < 2 { // all memory gone is a dark machine, for which there are other entries
		return nil
	}
	return out
}

func (c *Case) sameChannel(a, b rig.Path) bool {
	x, y := c.socket(a), c.socket(b)
	return x != nil && y != nil && x.Kind.Memory() && y.Kind.Memory() && x.Channel != "" && x.Channel == y.Channel
}

// newModules is one fault for the machine where new modules came in.
func newModules(c *Case) []Fault {
	for _, p := range c.rig.Pieces {
		if p.Part.Module != nil && p.New && !c.rig.Where(p.ID).IsZero() {
			return []Fault{{}}
		}
	}
	return nil
}

func muchMemory(c *Case) []Fault {
	if c.answer.Memory.Sized() && c.answer.Memory.Usable.Low > 5*quantity.GiB {
		return []Fault{{}}
	}
	return nil
}

// elsewhere is each module and each drive on a lead, in the first free place of its kind that
// is not its own.
func elsewhere(c *Case) []Fault {
	var out []Fault
	for _, f := range c.live(func(k *machine.Socket, p *part.Part) bool {
		return k.Kind.Memory() || k.Kind == machine.SATA || k.Kind == machine.Slot || k.Kind == machine.M2
	}) {
		k := c.socket(f.At)
		for _, o := range c.places {
			if o.Kind == k.Kind && o.Path != f.At && !o.Path.Within(f.At) && c.rig.In(o.Path) == "" && rig.Suits(c.partOf(f.At), &o.Socket) {
				out = append(out, Fault{At: f.At, To: o.Path})
				break
			}
		}
	}
	return out
}

// exchanged is each two unlike pieces of one kind that lie in each other's places.
func exchanged(c *Case) []Fault {
	lie := c.live(func(k *machine.Socket, p *part.Part) bool {
		return (p.Module != nil || p.Drive != nil) && k.Kind != machine.USB
	})
	var out []Fault
	for i, a := range lie {
		for _, b := range lie[i+1:] {
			p, q := c.partOf(a.At), c.partOf(b.At)
			x, y := c.socket(a.At), c.socket(b.At)
			if p.ID != q.ID && x.Kind == y.Kind && (p.Module == nil) == (q.Module == nil) && rig.Suits(p, y) && rig.Suits(q, x) {
				out = append(out, Fault{At: a.At, To: b.At})
			}
		}
	}
	return out
}

// settings is each setting of some roles, at each value that it should not have.
func settings(roles ...machine.Role) func(*Case) []Fault {
	return func(c *Case) []Fault {
		var out []Fault
		for i := range c.rig.Sheet.Settings {
			st := &c.rig.Sheet.Settings[i]
			if !slices.Contains(roles, c.rig.Sheet.RoleOf(st)) || c.rig.Choice(st) == "" {
				continue
			}
			for _, o := range st.Options {
				if o.Value != c.rig.Choice(st) {
					out = append(out, Fault{Setting: st.ID, Value: o.Value})
				}
			}
		}
		return out
	}
}

// wrongSlots is each split that was set for a slot other than the one it is for.
func wrongSlots(c *Case) []Fault {
	var out []Fault
	for i := range c.rig.Sheet.Settings {
		a := &c.rig.Sheet.Settings[i]
		if c.rig.Sheet.RoleOf(a) != machine.SlotSplit || c.rig.Choice(a) == a.Default || a.Default == "" {
			continue
		}
		for k := range c.rig.Sheet.Settings {
			b := &c.rig.Sheet.Settings[k]
			if b.ID != a.ID && c.rig.Sheet.RoleOf(b) == machine.SlotSplit && c.rig.Choice(b) == b.Default && b.Offers(c.rig.Choice(a)) {
				out = append(out, Fault{Setting: a.ID, Value: string(b.ID)})
			}
		}
	}
	return out
}

func anySetting(c *Case) bool { return len(c.rig.Sheet.Settings) > 0 }

func machineWith(is func(*Case) bool) func(*Case) []Fault {
	return func(c *Case) []Fault {
		if is(c) {
			return []Fault{{}}
		}
		return nil
	}
}

// unsaved is a machine of which more than one setting was to be changed: one alone is told by
// its own entry.
func unsaved(c *Case) []Fault {
	if len(c.setBack()) > 1 {
		return []Fault{{}}
	}
	return nil
}

// setBack is the settings that were to be changed, as they were.
func (c *Case) setBack() []change {
	var out []change
	for i := range c.rig.Sheet.Settings {
		st := &c.rig.Sheet.Settings[i]
		was := st.Default
		if c.work.Was != nil {
			was = c.work.Was(st.ID)
		}
		if c.work.Set != nil && !c.work.Set(st.ID) || was == "" || was == c.rig.Choice(st) {
			continue
		}
		out = append(out, change{does: set, setting: st.ID, value: was})
	}
	return out
}

func processors(c *Case) []Fault {
	var out []Fault
	for _, p := range c.rig.Sheet.Processors {
		if p.ID != c.rig.Processor && c.rig.Processor != "" {
			out = append(out, Fault{Value: string(p.ID)})
		}
	}
	return out
}

func drives(c *Case) []Fault {
	return c.live(func(k *machine.Socket, p *part.Part) bool { return p.Drive != nil && !p.Drive.Form.Optical() })
}

func drivesIn(kind machine.Kind) func(*Case) []Fault {
	return func(c *Case) []Fault {
		return c.live(func(k *machine.Socket, p *part.Part) bool {
			return k.Kind == kind && (p.Drive != nil && !p.Drive.Form.Optical() || p.Enclosure != nil)
		})
	}
}

// onTheBoard is drives in sockets of the board itself.
func onTheBoard(kind machine.Kind) func(*Case) []Fault {
	return func(c *Case) []Fault {
		return slices.DeleteFunc(drivesIn(kind)(c), func(f Fault) bool { return f.At.Nested() })
	}
}

// overPCIe is drives in places of a kind, of any where none is named, whose link is foretold
// and has lanes.
func overPCIe(kind machine.Kind) func(*Case) []Fault {
	return func(c *Case) []Fault {
		return c.live(func(k *machine.Socket, p *part.Part) bool {
			return (kind == "" || k.Kind == kind) && (p.Drive != nil && p.Drive.Protocol == link.PCIe || kind == "" && p.Card != nil)
		})
	}
}

func platters(c *Case) []Fault {
	return c.live(func(k *machine.Socket, p *part.Part) bool {
		return k.Kind == machine.SATA && p.Drive != nil && p.Drive.Media == part.Platter
	})
}

// pinned is 3.5-inch drives that the 3.3 V of a power plug may hold off.
func pinned(c *Case) []Fault {
	return c.live(func(k *machine.Socket, p *part.Part) bool {
		return k.Kind == machine.SATA && p.Drive != nil && p.Drive.Form == part.Form3i5 && p.Drive.PowerDisable != quantity.No
	})
}

func cards(c *Case) []Fault {
	return c.live(func(k *machine.Socket, p *part.Part) bool { return k.Kind == machine.Slot && p.Card != nil })
}

func plugged(c *Case) []Fault {
	return c.live(func(k *machine.Socket, p *part.Part) bool {
		return k.Kind == machine.Slot && p.Card != nil && len(p.Card.Plugs) > 0
	})
}

func graphics(c *Case) []Fault {
	return c.live(func(k *machine.Socket, p *part.Part) bool {
		return k.Kind == machine.Slot && p.Card != nil && p.Card.Graphics
	})
}

// starters is the drives with a system that are in the boot list.
func starters(c *Case) []Fault {
	return slices.DeleteFunc(drives(c), func(f Fault) bool {
		r, known := c.base.line(power.LineID{Kind: power.Boots, Socket: f.At})
		return !known || r.Absent
	})
}

// twins is the drives with a system beside another: one may be a copy of the other, name and all.
func twins(c *Case) []Fault {
	list := slices.DeleteFunc(drives(c), func(f Fault) bool { return c.rig.PieceIn(f.At).Holds == rig.Blank })
	if len(list) < 2 {
		return nil
	}
	return list
}

func blank(c *Case) []Fault {
	return slices.DeleteFunc(drives(c), func(f Fault) bool {
		p := c.rig.PieceIn(f.At)
		return p.Holds != rig.Blank && !(p.New && p.Holds == "")
	})
}

// locked is a machine whose disk may be encrypted and may ask for its key.
func locked(c *Case) []Fault {
	if c.rig.Wish.Encrypted == quantity.No || len(starters(c)) == 0 {
		return nil
	}
	return []Fault{{}}
}

func wholeMachine(*Case) []Fault { return []Fault{{}} }

// What they change.

func always(x change) func(*Case, Fault) []variant {
	return func(_ *Case, f Fault) []variant {
		x := x
		x.at = f.At
		return all(x)
	}
}

func lost(_ *Case, f Fault) []variant { return all(change{does: lift, at: f.At}) }

// lostOr is a piece that is not found, or keeps the machine from starting.
func lostOr(share float64, message string) func(*Case, Fault) []variant {
	return func(c *Case, f Fault) []variant {
		gone := []change{{does: lift, at: f.At}}
		if p := c.partOf(f.At); p.Card != nil && !p.Card.Graphics {
			return []variant{{1, gone}}
		}
		return either(share, gone, []change{say(message)})
	}
}

func channelLost(c *Case, f Fault) []variant {
	var out []change
	for _, m := range modules(c) {
		if c.sameChannel(m.At, f.At) {
			out = append(out, change{does: lift, at: m.At})
		}
	}
	return all(out...)
}

func halved(c *Case, f Fault) []variant {
	p := c.partOf(f.At)
	if p.Module != nil && !p.Module.SizeBytes.Known() || p.Drive != nil && !p.Drive.CapacityBytes.Known() {
		return nil
	}
	return all(change{does: halve, at: f.At})
}

// messages is a machine that says something else, or one of two things.
func messages(share float64, a, b string) func(*Case, Fault) []variant {
	return func(*Case, Fault) []variant {
		if b == "" {
			return all(say(a))
		}
		return either(share, []change{say(a)}, []change{say(b)})
	}
}

func moved(_ *Case, f Fault) []variant { return all(change{does: move, at: f.At, to: f.To}) }

func setTo(_ *Case, f Fault) []variant {
	return all(change{does: set, setting: f.Setting, value: f.Value})
}

func onWrongSlot(c *Case, f Fault) []variant {
	a, b := c.rig.Sheet.Setting(f.Setting), c.rig.Sheet.Setting(machine.SettingID(f.Value))
	return all(change{does: set, setting: a.ID, value: a.Default}, change{does: set, setting: b.ID, value: c.rig.Choice(a)})
}

// wrongMode is the controller at another mode: a system that is there mostly stops as it starts.
func wrongMode(c *Case, f Fault) []variant {
	x := change{does: set, setting: f.Setting, value: f.Value}
	if len(starters(c)) == 0 && len(c.rig.Arrays) == 0 {
		return all(x)
	}
	return either(.8, []change{x, say(power.Stops)}, []change{x})
}

func allSettingsBack(c *Case, _ Fault) []variant { return all(c.setBack()...) }

// cleared is firmware that lost its settings, and says so.
func cleared(c *Case, _ Fault) []variant {
	out := []change{say(power.ClockLost)}
	for i := range c.rig.Sheet.Settings {
		if st := &c.rig.Sheet.Settings[i]; st.Default != "" && st.Default != c.rig.Choice(st) {
			out = append(out, change{does: set, setting: st.ID, value: st.Default})
		}
	}
	return all(out...)
}

func otherProcessor(_ *Case, f Fault) []variant { return all(change{does: fitted, value: f.Value}) }

// lanes is the width of the link at a place as it is foretold, 0 where it is not.
func (c *Case) lanes(at rig.Path) int64 {
	r, _ := c.base.line(power.LineID{Kind: power.LinkOf, Socket: at})
	return int64(r.Lanes)
}

// narrows is the widths a link trains to when lanes are missing: x4 to x2 or x1, never x3
// (PCIe: widths are powers of two, from lane 0 on).
func (c *Case) narrows(at rig.Path, also ...change) []variant {
	var out []variant
	if w := c.lanes(at); w > 1 {
		out = append(out, variant{.6, append([]change{{does: narrow, at: at, n: w / 2}}, also...)})
		if w > 2 {
			out = append(out, variant{.4, append([]change{{does: narrow, at: at, n: 1}}, also...)})
		} else {
			out[0].share = 1
		}
	}
	return out
}

func narrowed(also does) func(*Case, Fault) []variant {
	return func(c *Case, f Fault) []variant {
		if also == "" {
			return c.narrows(f.At)
		}
		out := c.narrows(f.At, change{does: also, at: f.At})
		for i := range out {
			out[i].share *= .8
		}
		return append(out, variant{.2, []change{{does: also, at: f.At}}})
	}
}

func lostOrNarrow(share float64) func(*Case, Fault) []variant {
	return func(c *Case, f Fault) []variant {
		out := c.narrows(f.At)
		if len(out) == 0 {
			return lost(c, f)
		}
		for i := range out {
			out[i].share *= 1 - share
		}
		return append(out, variant{share, []change{{does: lift, at: f.At}}})
	}
}

func hot(celsius int64) func(*Case, Fault) []variant {
	return func(_ *Case, f Fault) []variant { return all(change{does: heats, at: f.At, n: celsius}) }
}

func speaksSATA(_ *Case, f Fault) []variant { return all(change{does: speaks, at: f.At}) }

// failing is a drive that counts errors, or is not found any more.
func failing(c *Case, f Fault) []variant {
	return either(.7, []change{{does: counts, at: f.At}}, []change{{does: lift, at: f.At}})
}

// gen is the generation of the link at a place as it is foretold, 0 where it is not.
func (c *Case) gen(at rig.Path) int64 {
	r, _ := c.base.line(power.LineID{Kind: power.LinkOf, Socket: at})
	return int64(r.Gen)
}

// slower is a link that trains a generation lower because its path is too long.
func slower(also does) func(*Case, Fault) []variant {
	return func(c *Case, f Fault) []variant {
		if g := c.gen(f.At); f.At.Nested() && g > 2 {
			return all(change{does: slow, at: f.At, n: g - 1}, change{does: also, at: f.At})
		}
		return nil
	}
}

// idle is a link that was read while nothing worked.
func idle(c *Case, f Fault) []variant {
	if c.gen(f.At) < 2 {
		return nil
	}
	return all(change{does: slow, at: f.At, n: 1})
}

// slowLead is a data lead that carries a lower rate, or loses some of what it carries.
func slowLead(c *Case, f Fault) []variant {
	err := change{does: counts, at: f.At}
	if g := c.gen(f.At); g > 1 {
		return either(.5, []change{{does: slow, at: f.At, n: g - 1}, err}, []change{err})
	}
	return all(err)
}

func dropsOut(_ *Case, f Fault) []variant {
	return all(change{does: offline, at: f.At}, change{does: counts, at: f.At})
}

// startsOther is firmware that starts another drive first: its system, or none.
func startsOther(c *Case, _ Fault) []variant {
	if len(starters(c)) > 1 {
		return all(say(power.OldSystem))
	}
	return all(say(power.NoSystem))
}

// notStarted is a drive that is not in the boot list.
func notStarted(c *Case, f Fault) []variant {
	x := change{does: boots, at: f.At}
	if len(starters(c)) > 1 {
		return either(.5, []change{x, say(power.OldSystem)}, []change{x})
	}
	return all(x, say(power.NoSystem))
}
