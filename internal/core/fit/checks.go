package fit

import "deepbay/internal/core/rig"

// This file is the list of rules of fit. A new rule is one entry in Checks, a
// function beside its kin (socket_checks.go, room_checks.go, fitting_checks.go,
// outside_checks.go, carrier.go, memory_checks.go, wish_checks.go),
// and a passing and a failing case in checks_test.go; docs/rules.md and the
// interface take it from here.

// Code is the stable name of a rule. Programs match on it; it never changes.
type Code string

// Check is one rule. A socket rule looks at one occupied socket; a whole rule
// looks at everything after the sockets are settled.
type Check struct {
	Code     Code
	Severity Severity
	Title    string // what it watches for, a few words
	Doc      string // when it occurs, with an example

	unsure bool // a finding leaves the socket's state unknown
	// socket returns nil, or how to say what it found: words are made only where
	// somebody reads them, and not while places for a part are tried.
	socket func(*resolver, *sock) func() Finding
	cures  func(*resolver, *sock) []Cure // for socket rules, asked for only when there is a finding
	whole  func(*resolver) []Finding
}

// Checks is every rule, in the order they run. At one socket the first that
// stops ends the rest: what follows from a wrong part is not reported again.
var Checks = [...]Check{
	{Code: "kind-mismatch", Severity: Stops, Title: "part and socket are of different kinds",
		Doc:    "A part lies in a socket that takes another kind of thing. Example: a 2.5-inch drive in an M.2 socket, or a DIMM in an SO-DIMM slot.",
		socket: kindMismatch, cures: (*resolver).elsewhere},
	{Code: "memory-generation", Severity: Stops, Title: "module of another memory generation",
		Doc:    "No generation fits another's slot; equal contact counts mean nothing. Example: a DDR5 module on a DDR4 board.",
		socket: memoryGeneration},
	{Code: "memory-registered", Severity: Stops, Title: "registered module where plain ones go, or the reverse",
		Doc:    "Registered and unbuffered modules are not interchangeable. Example: an RDIMM in a desktop board.",
		socket: memoryRegistered},
	{Code: "m2-key", Severity: Stops, Title: "no notch at the socket's key",
		Doc:    "The card has no notch where the socket has its key, so it does not go in. Example: a card notched at M only in a B socket.",
		socket: m2Key, cures: (*resolver).elsewhere},
	{Code: "m2-length", Severity: Stops, Title: "no post at the card's length",
		Doc:    "The board has no fixing point at the card's length. Example: a 22110 card in a socket with posts up to 80 mm.",
		socket: m2Length, cures: (*resolver).elsewhere},
	{Code: "m2-width", Severity: Stops, Title: "too wide for the room beside the socket",
		Doc:    "The card is wider than the usual 22 mm and the socket has no room for it. Example: a 25110 card of 25 mm in a socket between two heatsinks.",
		socket: m2Width, cures: (*resolver).elsewhere},
	{Code: "m2-height", Severity: Stops, Title: "too tall for what lies above the socket",
		Doc:    "The card with its heatsink is taller than the free height. Example: an 8 mm heatsink under the cover of a mini PC with 3 mm.",
		socket: m2Height, cures: (*resolver).elsewhere},
	{Code: "m2-cover", Severity: Stops, Title: "too tall for the card that lies over the socket",
		Doc:    "The socket lies under a slot, and the card there leaves less height than the heatsink needs. Example: an 8 mm heatsink under a graphics card that leaves 5 mm.",
		socket: m2Cover},
	{Code: "m2-under", Severity: Stops, Title: "parts on the under side do not clear the board",
		Doc:    "A two-sided card in a low socket. Example: 1.35 mm of chips below the card where the socket leaves 0.3 mm.",
		socket: m2Under, cures: (*resolver).elsewhere},
	{Code: "module-height", Severity: Stops, Title: "module too tall for the cooler above the slot",
		Doc:    "A spreader collides with the cooler. Example: a 45 mm module under a cooler that leaves 36 mm.",
		socket: moduleHeight, cures: (*resolver).elsewhere},
	{Code: "memory-voltage", Severity: Stops, Title: "module for another voltage",
		Doc:    "The board feeds a voltage that the module does not run at. Example: a 1.5 V module in a mini PC that feeds 1.35 V only.",
		socket: memoryVoltage},
	{Code: "bay-height", Severity: Stops, Title: "the drive is too tall for the bay",
		Doc:    "The bay takes flatter drives only. Example: a 9.5 mm drive in a 7 mm bay.",
		socket: bayHeight, cures: (*resolver).elsewhere},
	{Code: "power-disable", Severity: Stops, Title: "the supply's 3.3 V holds the drive off",
		Doc:    "A drive with the power-disable pin (SATA 3.3) never spins on a plug that carries 3.3 V. Example: a large hard disk on an old supply's lead.",
		socket: powerDisable},
	{Code: "bay-form", Severity: Stops, Title: "the bay does not take this size of drive",
		Doc:    "The port's leads reach a bay for other drives, and no bracket at hand makes up for it. Example: a 3.5-inch disk in a mini PC with one 2.5-inch bay.",
		socket: bayForm, cures: (*resolver).elsewhere},
	{Code: "plug-wrong", Severity: Stops, Title: "the power lead at the bay ends in another plug",
		Doc:    "The lead that reaches the bay does not end in a SATA power plug, and no adapter is at hand. Example: a 2.5-inch drive in the place of a slim optical drive.",
		socket: plugWrong, cures: (*resolver).elsewhere},
	{Code: "box-supply", Severity: Stops, Title: "the box cannot feed the drive",
		Doc:    "A 3.5-inch drive in a USB box that lives from the port. Example: a large hard disk in a small box without a supply of its own.",
		socket: boxSupply},
	{Code: "slot-length", Severity: Stops, Title: "the slot is too short for the card",
		Doc:    "The card's edge is longer than the slot, whose end is closed. Example: an x16 card at a closed x1 slot.",
		socket: slotLength, cures: (*resolver).elsewhere},
	{Code: "slot-covered", Severity: Stops, Title: "a wide card covers the slot",
		Doc:    "A card in a slot before this one is wide enough to lie over it. Example: a graphics card of two openings in SLOT1 covers SLOT2.",
		socket: slotCovered, cures: (*resolver).elsewhere},
	{Code: "card-length", Severity: Stops, Title: "the card is too long for the case",
		Doc:    "The case has less room than the card is long. Example: a 310 mm graphics card in a case for 270 mm.",
		socket: cardLength},
	{Code: "card-bracket", Severity: Stops, Title: "no low bracket",
		Doc:    "The case takes low-profile cards only and the card has a full-height bracket. Example: a carrier with a full bracket in a slim desktop.",
		socket: cardBracket},
	{Code: "position-dead", Severity: Stops, Title: "the slot does not serve this position of the carrier",
		Doc:    "A plain carrier's position lives only when a segment of the slot begins at its first lane. Example: drives 2 and 4 of four in a slot split 8+8 are not seen; 4+4+4+4 shows all.",
		socket: positionDead, cures: positionCures},
	{Code: "socket-off", Severity: Stops, Title: "a rule switches the socket off",
		Doc:    "Something else placed or set closes this socket, and what is in it is not seen. Example: a disk on SATA port 6 when the M.2 socket that takes over its lines is used.",
		socket: socketOff, cures: socketOffCures},
	{Code: "protocol", Severity: Stops, Title: "the socket does not speak the drive's protocol",
		Doc:    "The card goes in but is not seen: the notch tells what goes in, not what it speaks. Example: a SATA M.2 card in a PCIe-only socket.",
		socket: protocol, cures: protocolCures},
	{Code: "fit-unknown", Severity: Warns, Title: "the sheet or label does not say enough to tell",
		Doc:    "A fact that decides whether the part fits or is seen is not stated. Example: an M.2 card whose protocol is not on its label.",
		unsure: true, socket: fitUnknown},
	{Code: "link-unknown", Severity: Warns, Title: "the rate cannot be told",
		Doc:    "The part is seen, but a generation or width is not stated at one end. Example: a socket whose sheet gives no PCIe generation.",
		socket: linkUnknown},
	{Code: "link-below-drive", Severity: Warns, Title: "the drive could run faster elsewhere",
		Doc:    "The link is slower than the drive's own end. Example: a Gen 4 x4 drive in a Gen 3 x4 socket runs at Gen 3 x4, 3.94 GB/s before packet overhead.",
		socket: linkBelowDrive, cures: linkBelowDriveCures},
	{Code: "uplink-below-link", Severity: Warns, Title: "the chipset's uplink is slower than the link",
		Doc:    "The drive's link is faster than the uplink it shares. Example: a Gen 4 x4 drive behind a chipset whose uplink is Gen 3 x4.",
		socket: uplinkBelowLink, cures: (*resolver).elsewhere},
	{Code: "link-below-socket", Severity: Notes, Title: "the socket could carry more",
		Doc:    "The drive is slower than the socket, which stays unused. Example: a Gen 3 x4 drive in a Gen 4 x4 socket.",
		socket: linkBelowSocket},
	{Code: "card-narrow", Severity: Warns, Title: "the card could run wider or faster",
		Doc:    "The slot is narrower or slower than the card. Example: a graphics card of x16 that has eight lanes left because the slot beside it is used.",
		socket: cardNarrow, cures: cardNarrowCures},
	{Code: "slot-power", Severity: Warns, Title: "the card draws more than its slot and plugs feed",
		Doc:    "Slots feed 75 W (x16), 25 W (x4, x8) or 10 W (x1); the rest comes from plugs. Example: a 120 W card without a plug.",
		socket: slotPower},
	{Code: "box-narrow", Severity: Warns, Title: "the USB box could run faster on another port",
		Doc:    "Port and box settle on a slower mode than the box has. Example: a Gen 2x2 box on a port without the second lane runs at Gen 2, half as fast.",
		socket: boxNarrow, cures: boxNarrowCures},
	{Code: "outside", Severity: Notes, Title: "what the drive loses in a USB box",
		Doc:    "A drive outside needs no opening and moves between machines; it is slower, most of all with small files, and some boxes hide what was deleted. Example: a Gen 4 drive of 7 GB/s in a box on USB 3.2 Gen 2 moves about 900 MB/s.",
		socket: outsideCost},
	{Code: "screw-thread", Severity: Warns, Title: "the screws at the bay are of another thread",
		Doc:    "A 6-32 screw strips an M3 hole, and the reverse is loose. Example: a 2.5-inch drive in a bay whose screws are for 3.5-inch drives.",
		socket: screwThread},
	{Code: "bay-loose", Severity: Notes, Title: "the drive is flatter than its caddy",
		Doc:    "A 7 mm drive in a caddy made for 9.5 mm wants a spacer of 2.5 mm. Example: a flash drive in the place of an old laptop disk.",
		socket: bayLoose},
	{Code: "carrier-shared", Severity: Notes, Title: "drives on a switch chip share its link",
		Doc:    "Together the drives are faster than the link of the carrier's slot. Example: four Gen 4 x4 drives on a switch card in an x8 slot.",
		socket: carrierBelowDrives},
	{Code: "m2-hot", Severity: Warns, Title: "a Gen 5 drive without a heatsink",
		Doc:    "Neither the drive nor the socket has a heatsink; drives of this generation need one. Example: a Gen 5 x4 drive in a bare socket.",
		socket: m2Hot},
	{Code: "m2-warm", Severity: Notes, Title: "a Gen 4 drive without a heatsink",
		Doc:    "Neither the drive nor the socket has a heatsink; under long writes it may slow down. Example: a Gen 4 x4 drive in a bare socket.",
		socket: m2Warm},
	{Code: "module-trial", Severity: Warns, Title: "module larger than stated or proven",
		Doc:    "The module is larger than the sheet states. Spec sheets freeze on the day of release: it is a trial, proven only by a full count in set-up, in the system, and a memory test run to the end. Example: a 32 GB module where the sheet says 16.",
		socket: moduleTrial},
	{Code: "module-proven", Severity: Notes, Title: "module larger than stated, but proven",
		Doc:    "The module is larger than the sheet states, and a finished job proved the size. Example: 16 GB where the sheet states 8 and an earlier job showed 16.",
		socket: moduleProven},

	{Code: "port-lost", Severity: Notes, Title: "an empty socket is switched off",
		Doc:   "Something placed or set closes a socket that is empty now but was free before. Example: SATA port 5 when the chipset's M.2 socket is used.",
		whole: portLost},
	{Code: "memory-none", Severity: Stops, Title: "no module is seen",
		Doc:   "The machine has memory slots and none holds a module that works. Example: both modules taken out and none put in.",
		whole: memoryNone},
	{Code: "memory-channels", Severity: Warns, Title: "fewer channels than the modules could fill",
		Doc:   "All modules sit on fewer channels than they could, which costs bandwidth. Example: two modules in A1 and A2, both on channel A, while channel B is empty.",
		whole: memoryChannels},
	{Code: "memory-order", Severity: Warns, Title: "slots not in the sheet's order",
		Doc:   "The manual says which slots so many modules go into, and these are others. Example: two modules in A1 and B1 where the sheet says A2 and B2.",
		whole: memoryOrder},
	{Code: "memory-order-unstated", Severity: Notes, Title: "the sheet does not say which slots",
		Doc:   "The sheet gives no order for this number of modules. On four slots the second and fourth first is common, and a guess. Example: three modules where the sheet lists one, two and four.",
		whole: memoryOrderUnstated},
	{Code: "memory-unequal", Severity: Notes, Title: "channels of unequal size",
		Doc:   "Only part of the memory is spread over all channels. Example: 16 GB on A and 8 GB on B: 16 run dual, 8 single.",
		whole: memoryUnequal},
	{Code: "memory-speed", Severity: Notes, Title: "modules run below their own speed",
		Doc:   "The board, a slower module or a profile left off holds a module back. Example: a DDR4-3200 module beside a DDR4-2400 one runs at 2400 MT/s.",
		whole: memorySpeed},
	{Code: "memory-unknown", Severity: Warns, Title: "total or speed of memory cannot be told",
		Doc:   "A size or speed that decides the answer is not stated. Example: a module whose label is torn off.",
		whole: memoryUnknown},
	{Code: "memory-ecc", Severity: Notes, Title: "check bits stay unused",
		Doc:   "Modules with ECC on a board that does not use it, or beside modules without. Example: one ECC module and one without: ECC is off for all.",
		whole: memoryECC},
	{Code: "memory-mixed", Severity: Notes, Title: "modules of different parts",
		Doc:   "Kits that were not sold together mostly work at base speed, often not with a profile. Example: two old modules kept beside two new ones.",
		whole: memoryMixed},
	{Code: "memory-system", Severity: Warns, Title: "more memory than the system uses",
		Doc:   "The system's edition or width caps what it can use. Example: 8 GB under a 32-bit system that uses 4.",
		whole: memorySystem},
	{Code: "memory-clocked", Severity: Warns, Title: "modules with a clock driver",
		Doc:   "DDR5 modules from about 6400 MT/s bring a clock driver; boards that do not know it run them slower or not at all, and mixes may not start. Example: such a pair on a board of the first DDR5 years.",
		whole: memoryClocked},
	{Code: "lead-missing", Severity: Warns, Title: "no data lead for a drive",
		Doc:   "No SATA lead lies at the port, none came free and none is among the parts, or its end does not suit the bay. Example: a second disk on a port whose lead was never in the box.",
		whole: leadMissing},
	{Code: "lead-unknown", Severity: Notes, Title: "whether a data lead is there is not known",
		Doc:   "A new drive goes on a port of which the sheet does not say whether a lead lies there. Example: SATA4 of a tower nobody has opened yet.",
		whole: leadUnknown},
	{Code: "holder-missing", Severity: Warns, Title: "the bracket or caddy of the bay is not there",
		Doc:   "The bay holds its drive in a bracket or caddy that is missing or not known to be there. Example: an office machine sold without the frame for its second disk.",
		whole: holderMissing},
	{Code: "power-plugs", Severity: Stops, Title: "not enough power plugs",
		Doc:   "Drives and cards need more plugs of a kind than are free. Example: a third SATA drive where the board's own lead feeds two.",
		whole: powerPlugs},
	{Code: "start-pcie", Severity: Warns, Title: "the firmware does not start from a PCIe drive",
		Doc:   "The system drive is wished over PCIe, and this firmware starts systems from SATA only. Example: an old tower with an adapter card.",
		whole: startPCIe},
	{Code: "memory-trial", Severity: Warns, Title: "more memory than stated or proven",
		Doc:   "The total is beyond what the sheet states. It is a trial, to be proven by a full count and a memory test. Example: 64 GB where the sheet says 32.",
		whole: memoryTrial},
	{Code: "not-placed", Severity: Warns, Title: "a new part has no place yet",
		Doc:   "A part that came to be fitted is in no socket. Example: the second module of a pair is still on the mat.",
		whole: notPlaced},
	{Code: "wish-memory", Severity: Warns, Title: "less memory than wished",
		Doc:   "The total is below what the owner asked for. Example: 16 GB where 32 were wished.",
		whole: wishMemory},
	{Code: "wish-system", Severity: Warns, Title: "no system drive as wished",
		Doc:   "No drive that is seen meets the wish for the system drive. Example: a fast 500 GB drive was wished, and only a SATA disk is in.",
		whole: wishSystem},
	{Code: "wish-keep", Severity: Stops, Title: "a part that must stay is not in the machine",
		Doc:   "The owner asked to keep a part, and the plan leaves it out. Example: the disk with the soundings is unplugged and plugged in nowhere.",
		whole: wishKeep},
}

// whole runs the rules that look at everything.
func (r *resolver) whole() {
	for i := range r.checks {
		c := &r.checks[i]
		if c.whole == nil {
			continue
		}
		found := c.whole(r)
		if r.quiet() {
			r.count[i] += len(found)
			continue
		}
		for _, f := range found {
			r.report(c, f, rig.Path{}, "")
		}
	}
}
