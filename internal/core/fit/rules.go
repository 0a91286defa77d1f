package fit

// This file is the list of rules of fit. A new rule is one entry in Rules, a function
// in the file of the kind of part it looks at (drive.go, module.go, card.go, box.go,
// fitting.go) or of the whole (memory.go, wish.go), its words in say, and cases for
// yes, no and unknown in rules_test.go; docs/rules.md and the interface take it from
// here.

import (
	"deepbay/internal/core/fact"
	"deepbay/internal/core/known"
	"deepbay/internal/core/rig"
)

// Code is the stable name of a rule. Programs match on it; it never changes.
type Code string

// stage says how rules at one socket follow on each other.
type stage uint8

const (
	goesInto stage = iota // is it of the right kind at all: the first no ends everything
	fitsIn                // mechanical and supply, independent of each other: all speak
	isSeen                // closed, served, spoken to: the first no ends the rest
	runsWell              // what is lost
)

// proof is what settles a rule without its facts.
type proof uint8

const (
	nothing         proof = iota
	lying                 // the piece was found in this place
	lyingUnderCards       // and all cards lie where they were found, too
)

// Weight is what a rule counts for when plans are compared.
type Weight uint8

// The weights.
const (
	WeighsNothing    Weight = iota // a note, or rates, roles and the wish say it already
	WeighsStop                     // no plan has it
	WeighsStopMemory               // no plan has it where memory is in question
	WeighsWishMemory               // no plan has it while that wish stands
	WeighsWishSystem               // nor this
	WeighsSlots                    // the order of memory slots
	WeighsWarm                     // a drive that may get warm
	WeighsHot                      // or surely does
	WeighsWarning                  // any other warning
)

// Rule is one rule. A socket rule looks at one occupied socket; a whole rule looks at
// everything after the sockets are settled.
type Rule struct {
	Code     Code
	Severity Severity
	Weighs   Weight

	stage stage
	of    kinds // of part that a socket rule looks at
	// asks is whether it speaks only of what is not known: it falls silent once that is.
	asks bool
	// proof is what being found in its place proves: that it goes in there.
	proof proof
	// holds is whether all is well; a look that takes notes learns which facts would tell.
	holds func(*look) known.Truth
	tell  func(*look) telling // what is said where it is not
	// whole finds what is wrong with everything together.
	whole func(*resolver, func(trouble))
	say   func(*resolver, *trouble) telling
}

// Asks reports a rule that speaks only of what is not known: it is never broken.
func (r *Rule) Asks() bool { return r.asks }

// telling is what a rule says of what it found.
type telling struct {
	says    fact.Fact
	because []Reason
	advice  []fact.Fact
	missing []rig.Fact
}

// trouble is a rule that does not hold, and where.
type trouble struct {
	rule  int
	truth known.Truth // no, or unknown
	s     *sock       // nil: the whole
	found bool        // the part was found there all the same
	item  int         // of the pieces, where it is about one that lies nowhere; -1
	n     int         // whatever else the rule wants to remember
}

// The places of rules that others ask about.
const (
	anyPart = drives | modules | cards | boxes | fittings
	m2Parts = drives | cards
)

// Rules is every rule, in the order they run. It is filled when the program starts,
// because rules look at the list they are in.
var Rules []Rule

func init() {
	Rules = table()
	fitUnknown, foundOtherwise = RuleOf("fit-unknown"), RuleOf("found-otherwise")
	for i := range Rules {
		if Rules[i].whole != nil {
			wholes = append(wholes, i)
			continue
		}
		for k := range byKind {
			if Rules[i].of&k != 0 {
				byKind[k] = append(byKind[k], i)
			}
		}
	}
}

// byKind is the socket rules that look at each kind of part, wholes those that look at
// everything.
var (
	byKind = map[kinds][]int{drives: nil, modules: nil, cards: nil, boxes: nil, fittings: nil}
	wholes []int
)

func table() []Rule {
	return []Rule{
		{Code: "kind-mismatch", Severity: Stops, Weighs: WeighsStop, stage: goesInto, of: anyPart, holds: kindSuits, tell: tellKind},
		{Code: "memory-generation", Severity: Stops, Weighs: WeighsStop, stage: goesInto, of: modules, proof: lying, holds: moduleGeneration, tell: tellGeneration},
		{Code: "memory-registered", Severity: Stops, Weighs: WeighsStop, stage: goesInto, of: modules, holds: moduleRegistered, tell: tellRegistered},
		{Code: "m2-key", Severity: Stops, Weighs: WeighsStop, stage: fitsIn, of: m2Parts, proof: lying, holds: m2Key, tell: tellKey},
		{Code: "m2-length", Severity: Stops, Weighs: WeighsStop, stage: fitsIn, of: m2Parts, proof: lying, holds: m2Length, tell: tellLength},
		{Code: "m2-width", Severity: Stops, Weighs: WeighsStop, stage: fitsIn, of: m2Parts, proof: lying, holds: m2Width, tell: tellWidth},
		{Code: "m2-height", Severity: Stops, Weighs: WeighsStop, stage: fitsIn, of: m2Parts, proof: lying, holds: m2Height, tell: tellHeight},
		{Code: "m2-cover", Severity: Stops, Weighs: WeighsStop, stage: fitsIn, of: m2Parts, proof: lyingUnderCards, holds: m2Cover, tell: tellCover},
		{Code: "m2-under", Severity: Stops, Weighs: WeighsStop, stage: fitsIn, of: m2Parts, proof: lying, holds: m2Under, tell: tellUnder},
		{Code: "module-height", Severity: Stops, Weighs: WeighsStop, stage: fitsIn, of: modules, proof: lying, holds: moduleHeight, tell: tellModuleHeight},
		{Code: "memory-voltage", Severity: Stops, Weighs: WeighsStop, stage: fitsIn, of: modules, holds: moduleVoltage, tell: tellVoltage},
		{Code: "bay-height", Severity: Stops, Weighs: WeighsStop, stage: fitsIn, of: drives, proof: lying, holds: bayHeight, tell: tellBayHeight},
		{Code: "power-disable", Severity: Stops, Weighs: WeighsStop, stage: fitsIn, of: drives, holds: powerDisable, tell: tellPowerDisable},
		{Code: "bay-form", Severity: Stops, Weighs: WeighsStop, stage: fitsIn, of: drives, proof: lying, holds: bayForm, tell: tellBayForm},
		{Code: "plug-wrong", Severity: Stops, Weighs: WeighsStop, stage: fitsIn, of: drives, proof: lying, holds: plugRight, tell: tellPlug},
		{Code: "box-supply", Severity: Stops, Weighs: WeighsStop, stage: fitsIn, of: drives, holds: boxSupply, tell: tellBoxSupply},
		{Code: "slot-length", Severity: Stops, Weighs: WeighsStop, stage: fitsIn, of: cards, proof: lying, holds: slotLength, tell: tellSlotLength},
		{Code: "slot-covered", Severity: Stops, Weighs: WeighsStop, stage: fitsIn, of: cards, proof: lyingUnderCards, holds: slotCovered, tell: tellCovered},
		{Code: "card-length", Severity: Stops, Weighs: WeighsStop, stage: fitsIn, of: cards, proof: lying, holds: cardLength, tell: tellCardLength},
		{Code: "card-bracket", Severity: Stops, Weighs: WeighsStop, stage: fitsIn, of: cards, proof: lying, holds: cardBracket, tell: tellBracket},
		{Code: "card-room", Severity: Stops, Weighs: WeighsStop, stage: fitsIn, of: cards, proof: lying, holds: cardRoom, tell: tellNoRoom},
		{Code: "position-dead", Severity: Stops, Weighs: WeighsStop, stage: isSeen, of: anyPart, holds: positionServed, tell: tellDead},
		{Code: "socket-off", Severity: Stops, Weighs: WeighsStop, stage: isSeen, of: anyPart, holds: socketOpen, tell: tellOff},
		{Code: "protocol", Severity: Stops, Weighs: WeighsStop, stage: isSeen, of: drives, holds: spoken, tell: tellProtocol},
		{Code: "fit-unknown", Severity: Warns, Weighs: WeighsStop, asks: true, of: 0}, // what the rules above do not know, said together
		{Code: "found-otherwise", Severity: Warns, Weighs: WeighsWarning, of: 0},      // a rule above says no to a part that was found there all the same
		{Code: "link-unknown", Severity: Warns, Weighs: WeighsWarning, asks: true, stage: runsWell, of: drives | cards | boxes, holds: linkKnown, tell: tellLinkUnknown},
		{Code: "carrier-rating", Severity: Warns, Weighs: WeighsWarning, stage: runsWell, of: drives, holds: carrierRated, tell: tellCarrierRated},
		{Code: "link-below-drive", Severity: Warns, Weighs: WeighsNothing, stage: runsWell, of: drives, holds: driveFull, tell: tellBelowDrive},
		{Code: "uplink-below-link", Severity: Warns, Weighs: WeighsNothing, stage: runsWell, of: drives, holds: uplinkWide, tell: tellUplink},
		{Code: "link-below-socket", Severity: Notes, stage: runsWell, of: drives, holds: socketUsed, tell: tellBelowSocket},
		{Code: "card-narrow", Severity: Warns, Weighs: WeighsNothing, stage: runsWell, of: cards, holds: cardWide, tell: tellNarrow},
		{Code: "slot-power", Severity: Warns, Weighs: WeighsWarning, stage: runsWell, of: cards, holds: slotPower, tell: tellSlotPower},
		{Code: "box-narrow", Severity: Warns, Weighs: WeighsWarning, stage: runsWell, of: boxes, holds: boxFull, tell: tellBoxNarrow},
		{Code: "outside", Severity: Notes, stage: runsWell, of: drives, holds: notOutside, tell: tellOutside},
		{Code: "screw-thread", Severity: Warns, Weighs: WeighsWarning, stage: runsWell, of: drives, holds: threadRight, tell: tellThread},
		{Code: "bay-loose", Severity: Notes, stage: runsWell, of: drives, holds: bayTight, tell: tellLoose},
		{Code: "carrier-shared", Severity: Notes, stage: runsWell, of: cards, holds: carrierWide, tell: tellShared},
		{Code: "m2-hot", Severity: Warns, Weighs: WeighsHot, stage: runsWell, of: drives, holds: notHot, tell: tellHot},
		{Code: "m2-warm", Severity: Notes, Weighs: WeighsWarm, stage: runsWell, of: drives, holds: notWarm, tell: tellWarm},
		{Code: "m2-heat-unknown", Severity: Notes, asks: true, stage: runsWell, of: drives, holds: heatKnown, tell: tellHeatUnknown},
		{Code: "module-impossible", Severity: Stops, Weighs: WeighsStop, stage: isSeen, of: modules, holds: moduleAddressed, tell: tellNotAddressed},
		{Code: "module-trial", Severity: Warns, Weighs: WeighsWarning, stage: runsWell, of: modules, holds: moduleInside, tell: tellTrial},
		{Code: "module-proven", Severity: Notes, stage: runsWell, of: modules, holds: moduleStated, tell: tellProven},

		{Code: "looked-otherwise", Severity: Warns, Weighs: WeighsNothing, whole: lookedOtherwise, say: sayLookedOtherwise},
		{Code: "port-lost", Severity: Notes, whole: portLost, say: sayPortLost},
		{Code: "memory-none", Severity: Stops, Weighs: WeighsStopMemory, whole: memoryNone, say: sayMemoryNone},
		{Code: "memory-channels", Severity: Warns, Weighs: WeighsSlots, whole: memoryChannels, say: sayChannels},
		{Code: "memory-order", Severity: Warns, Weighs: WeighsSlots, whole: memoryOrder, say: sayOrder},
		{Code: "memory-order-unstated", Severity: Notes, whole: memoryOrderUnstated, say: sayOrderUnstated},
		{Code: "channels-empty", Severity: Notes, whole: channelsEmpty, say: sayChannelsEmpty},
		{Code: "memory-slowest", Severity: Notes, whole: memorySlowest, say: saySlowest},
		{Code: "memory-unequal", Severity: Notes, whole: memoryUnequal, say: sayUnequal},
		{Code: "memory-speed", Severity: Notes, whole: memorySpeed, say: saySpeed},
		{Code: "profile-trial", Severity: Warns, Weighs: WeighsWarning, whole: profileTrial, say: sayProfileTrial},
		{Code: "memory-unknown", Severity: Warns, Weighs: WeighsWarning, asks: true, whole: memoryUnknown, say: sayMemoryUnknown},
		{Code: "memory-ecc", Severity: Notes, whole: memoryECC, say: sayECC},
		{Code: "memory-mixed", Severity: Notes, whole: memoryMixed, say: sayMixed},
		{Code: "memory-system", Severity: Warns, Weighs: WeighsWarning, whole: memorySystem, say: saySystem},
		{Code: "memory-clocked", Severity: Warns, Weighs: WeighsWarning, whole: memoryClocked, say: sayClocked},
		{Code: "lead-missing", Severity: Warns, Weighs: WeighsWarning, whole: leadMissing, say: sayLeadMissing},
		{Code: "lead-unknown", Severity: Notes, asks: true, whole: leadUnknown, say: sayLeadUnknown},
		{Code: "holder-missing", Severity: Warns, Weighs: WeighsWarning, whole: holderMissing, say: sayHolder},
		{Code: "supply-lead", Severity: Stops, Weighs: WeighsNothing, whole: supplyLead, say: saySupplyLead},
		{Code: "supply-lead-unknown", Severity: Warns, Weighs: WeighsNothing, whole: supplyLeadUnknown, say: saySupplyUnknown},
		{Code: "power-plugs", Severity: Stops, Weighs: WeighsStop, whole: powerPlugs, say: sayPlugs},
		{Code: "plugs-unknown", Severity: Warns, Weighs: WeighsStop, asks: true, whole: plugsUnknown, say: sayPlugsUnknown},
		{Code: "plug-watts", Severity: Warns, Weighs: WeighsWarning, whole: leadWatts, say: sayLeadWatts},
		{Code: "no-picture", Severity: Warns, Weighs: WeighsWarning, whole: noPicture, say: sayNoPicture},
		{Code: "start-pcie", Severity: Warns, Weighs: WeighsNothing, whole: startPCIe, say: sayStart},
		{Code: "memory-impossible", Severity: Stops, Weighs: WeighsStopMemory, whole: memoryAddressed, say: sayNotAddressed},
		{Code: "memory-trial", Severity: Warns, Weighs: WeighsWarning, whole: memoryTrial, say: sayMemoryTrial},
		{Code: "not-placed", Severity: Warns, Weighs: WeighsNothing, whole: notPlaced, say: sayNotPlaced},
		{Code: "wish-memory", Severity: Warns, Weighs: WeighsWishMemory, whole: wishMemory, say: sayWishMemory},
		{Code: "wish-system", Severity: Warns, Weighs: WeighsWishSystem, whole: wishSystem, say: sayWishSystem},
		{Code: "wish-keep", Severity: Stops, Weighs: WeighsNothing, whole: wishKeep, say: sayWishKeep},
	}
}

// RuleOf is the place of a rule in Rules; it panics on a code that is none, which only
// a programmer can write.
func RuleOf(c Code) int {
	for i := range Rules {
		if Rules[i].Code == c {
			return i
		}
	}
	panic("no rule is named " + string(c))
}

// kinds is a set of kinds of part.
type kinds uint8

const (
	drives kinds = 1 << iota
	modules
	cards
	boxes
	fittings
)
