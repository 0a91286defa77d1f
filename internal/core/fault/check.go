package fault

// This file is the checks: what can be looked at or tried, what each may show, and what it costs.

import (
	"strings"

	"deepbay/internal/core/layer"
	"deepbay/internal/core/power"
	"deepbay/internal/core/rig"
)

// Look is a kind of check.
type Look string

// The checks. Each has its outcomes in looks, the ordinary one first.
const (
	ReadLine    Look = "read"         // a line of a screen
	Wait        Look = "wait"         // as long as new memory may take
	Restart     Look = "restart"      // after half a minute without mains
	Label       Look = "label"        // what the label of the piece says
	Place       Look = "place"        // in which place the piece lies
	Seat        Look = "seat"         // whether it lies home
	Contacts    Look = "contacts"     // whether they are clean
	Swap        Look = "swap"         // with a like piece: does it go with the piece or stay with the place
	OtherPlace  Look = "other-place"  // the piece alone in another place of its kind
	Spare       Look = "spare"        // a like piece that is known to be good, in its place
	Alone       Look = "alone"        // one module, in the slot that the manual names first
	DataLead    Look = "data-lead"    // whether both ends are home
	OtherLead   Look = "other-lead"   // another data lead
	PowerPlug   Look = "power-plug"   // whether it is home
	OtherPlug   Look = "other-plug"   // a power plug of another lead of the supply
	NoThird     Look = "no-third"     // a power plug without the 3.3 V contacts
	Listen      Look = "listen"       // whether platters turn
	Post        Look = "post"         // under an M.2 card: the right post, and none too many
	Film        Look = "film"         // of a heatsink's pad
	Air         Look = "air"          // round a drive
	Straight    Look = "straight"     // without riser or adapter between
	Cooler      Look = "cooler"       // of the processor, mounted anew and evenly
	Loose       Look = "loose"        // a screw or post under the board
	MainPlugs   Look = "main-plugs"   // of the board
	CPUPlug     Look = "cpu-plug"     // of the processor
	FrontLead   Look = "front-lead"   // of the button
	SupplyOn    Look = "supply-on"    // its switch, and the outlet
	OtherSupply Look = "other-supply" // in place of this one
	Screen      Look = "screen"       // which output the screen hangs on
	Lid         Look = "lid"          // whether its switch is pressed
	FanPlug     Look = "fan-plug"     // whether it is on its header
	Cell        Look = "cell"         // its voltage
	Version     Look = "version"      // of firmware, against the manual's list
	Order       Look = "order"        // which drive comes first
	Menu        Look = "menu"         // the drive chosen in the boot menu
	StartMode   Look = "start-mode"   // UEFI, or the older kind
	Disks       Look = "disks"        // the system's page of disks, not its file window
	Driver      Look = "driver"       // loaded in the installer
	MemTest     Look = "memory-test"  // of one module after the other
	ProfileOff  Look = "profile-off"  // memory at its base speed
	AtWork      Look = "at-work"      // the link, read while the drive works
	Bits        Look = "bits"         // of the system: 32 or 64
	OtherPort   Look = "other-port"   // of a USB box: a rear port, and the lead it came with
	Health      Look = "health"       // what the drive says of itself
	Processor   Look = "processor"    // which one set-up names
)

// Outcome is what a check showed.
type Outcome string

// The outcomes.
const (
	Unclear    Outcome = "unclear" // of any check: nobody can tell
	Same       Outcome = "same"
	Gone       Outcome = "gone" // what was wrong is right now
	AsWritten  Outcome = "as-written"
	Another    Outcome = "another"
	Home       Outcome = "home"
	NotHome    Outcome = "not-home"
	Clean      Outcome = "clean"
	Dirty      Outcome = "dirty"
	WithPlace  Outcome = "with-place"
	WithPiece  Outcome = "with-piece"
	Turns      Outcome = "turns"
	Silent     Outcome = "silent"
	Clicks     Outcome = "clicks"
	Right      Outcome = "right"
	Wrong      Outcome = "wrong"
	Off        Outcome = "off"
	On         Outcome = "on"
	Free       Outcome = "free"
	Covered    Outcome = "covered"
	Nothing    Outcome = "nothing"
	Found      Outcome = "found"
	Good       Outcome = "good"
	Failing    Outcome = "failing"
	Closed     Outcome = "closed"
	Open       Outcome = "open"
	NewEnough  Outcome = "new-enough"
	TooOld     Outcome = "too-old"
	First      Outcome = "first"
	Starts     Outcome = "starts"
	StartsNot  Outcome = "starts-not"
	UEFI       Outcome = "uefi"
	Legacy     Outcome = "legacy"
	Online     Outcome = "online"
	SameID     Outcome = "same-id"
	NotYet     Outcome = "not-yet" // initialised
	Passes     Outcome = "passes"
	Fails      Outcome = "fails"
	SixtyFour  Outcome = "64"
	ThirtyTwo  Outcome = "32"
	OnTheCard  Outcome = "on-the-card"
	OnTheBoard Outcome = "on-the-board"
)

// look is what is known of a kind of check.
type look struct {
	minutes  layer.Minutes // of hands, without opening the machine
	inside   bool          // the machine must be opened
	mends    bool          // an outcome but the first means that nothing else is wrong
	whole    bool          // it is about the machine, not about a place
	starts   bool          // the machine is closed and started for it: what comes after opens it again
	outcomes []Outcome     // the ordinary one first
}

var looks = map[Look]look{
	Wait: {15, false, true, true, false, []Outcome{Same, Starts}}, Restart: {2, false, true, true, false, []Outcome{Same, Gone}},
	Label: {1.5, true, false, false, false, []Outcome{AsWritten, Another}}, Place: {0.5, true, false, false, false, []Outcome{AsWritten, Another}},
	Seat: {0.5, true, false, false, false, []Outcome{Home, NotHome}}, Contacts: {3, true, false, false, false, []Outcome{Clean, Dirty}},
	Swap: {5, true, false, false, true, []Outcome{WithPlace, WithPiece, Gone}}, OtherPlace: {5, true, false, false, true, []Outcome{Same, Gone}},
	Spare: {6, true, false, false, true, []Outcome{Same, Gone}},
	Alone: {6, true, false, true, true, []Outcome{Same, Starts}}, DataLead: {0.5, true, false, false, false, []Outcome{Home, NotHome}},
	OtherLead: {3, true, false, false, true, []Outcome{Same, Gone}}, PowerPlug: {0.5, true, false, false, false, []Outcome{Home, NotHome}},
	OtherPlug: {3, true, false, false, true, []Outcome{Same, Gone}}, NoThird: {3, true, false, false, true, []Outcome{Same, Gone}},
	Listen: {1, false, false, false, false, []Outcome{Turns, Silent, Clicks}}, Post: {2, true, false, false, false, []Outcome{Right, Wrong}},
	Film: {2, true, false, false, false, []Outcome{Off, On}}, Air: {1, true, false, false, false, []Outcome{Free, Covered}},
	Straight: {6, true, false, false, true, []Outcome{Same, Gone}}, Cooler: {20, true, false, true, true, []Outcome{Same, Gone}},
	Loose: {4, true, false, true, false, []Outcome{Nothing, Found}}, MainPlugs: {1, true, false, true, false, []Outcome{Home, NotHome}},
	CPUPlug: {1, true, false, true, false, []Outcome{Home, NotHome}}, FrontLead: {1, true, false, true, false, []Outcome{Home, NotHome}},
	SupplyOn: {0.5, false, false, true, false, []Outcome{On, Off}}, OtherSupply: {15, true, true, true, true, []Outcome{Same, Starts}},
	Screen: {0.5, false, false, true, false, []Outcome{OnTheCard, OnTheBoard}}, Lid: {0.5, false, false, true, false, []Outcome{Closed, Open}},
	FanPlug: {1, true, false, true, false, []Outcome{On, Off}}, Cell: {2, true, false, true, false, []Outcome{Good, Failing}},
	Version: {2, false, false, true, false, []Outcome{NewEnough, TooOld}}, Order: {1, false, false, true, false, []Outcome{First, Another}},
	Menu: {2, false, false, true, false, []Outcome{StartsNot, Starts}}, StartMode: {1, false, false, true, false, []Outcome{UEFI, Legacy}},
	Disks: {2, false, false, false, false, []Outcome{Online, SameID, NotYet}}, Driver: {5, false, true, true, false, []Outcome{Same, Gone}},
	MemTest: {4, false, false, false, false, []Outcome{Passes, Fails}}, ProfileOff: {3, false, true, true, false, []Outcome{Same, Starts}},
	AtWork: {2, false, false, false, false, []Outcome{Same, Gone}}, Bits: {1, false, false, true, false, []Outcome{SixtyFour, ThirtyTwo}},
	OtherPort: {1, false, false, false, false, []Outcome{Same, Gone}}, Health: {2, false, false, false, false, []Outcome{Good, Failing}},
	Processor: {1, false, false, true, false, []Outcome{AsWritten, Another}},
}

// Values lists the outcomes for the formats.
func (Outcome) Values() []string {
	out := []string{string(Unclear)}
	seen := map[Outcome]bool{}
	for _, k := range lookOrder {
		for _, o := range looks[k].outcomes {
			if !seen[o] {
				seen[o] = true
				out = append(out, string(o))
			}
		}
	}
	return out
}

// lookOrder is the checks in the order in which they are listed above.
var lookOrder = []Look{Wait, Restart, Label, Place, Seat, Contacts, Swap, OtherPlace, Spare, Alone, DataLead, OtherLead, PowerPlug, OtherPlug, NoThird, Listen, Post, Film, Air, Straight, Cooler, Loose, MainPlugs, CPUPlug, FrontLead, SupplyOn, OtherSupply, Screen, Lid, FanPlug, Cell, Version, Order, Menu, StartMode, Disks, Driver, MemTest, ProfileOff, AtWork, Bits, OtherPort, Health, Processor}

// Looks lists the kinds of check.
func Looks() []Look { return lookOrder }

// Outcomes lists what a kind of check may show, the ordinary first.
func (k Look) Outcomes() []Outcome { return looks[k].outcomes }

// Inside reports a kind of check for which the machine is opened.
func (k Look) Inside() bool { return looks[k].inside }

// LeavesOpen reports a kind of check after which the machine stands open.
func (k Look) LeavesOpen() bool { return looks[k].inside && !looks[k].starts }

// Inspection is something to look at or try: a line to read, or a kind of check at a place, with
// another place where one is needed.
type Inspection struct {
	Look Look
	Line power.LineID // of ReadLine
	At   rig.Path     // of the others; none is the machine
	With rig.Path     // of a swap
}

// String names a check as files do: "seat@A2", "swap@A2,B2", "read:slot/A2", "restart".
func (k Inspection) String() string {
	s := string(k.Look)
	if k.Line != (power.LineID{}) {
		return s + ":" + k.Line.String()
	}
	if !k.At.IsZero() {
		s += "@" + k.At.String()
	}
	if !k.With.IsZero() {
		s += "," + k.With.String()
	}
	return s
}

// ParseCheck reads a check's name. One that is none has a kind that there is not.
func ParseCheck(s string) Inspection {
	if l, line, ok := strings.Cut(s, ":"); ok {
		return Inspection{Look: Look(l), Line: power.ParseLineID(line)}
	}
	rest, with, two := strings.Cut(s, ",")
	var k Inspection
	if two {
		k.With = rig.ParsePath(with)
	}
	l, at, placed := strings.Cut(rest, "@")
	if k.Look = Look(l); placed {
		k.At = rig.ParsePath(at)
	}
	return k
}

// MarshalText writes the name as files do.
func (k Inspection) MarshalText() ([]byte, error) { return []byte(k.String()), nil }

// UnmarshalText reads any name; see ParseCheck.
func (k *Inspection) UnmarshalText(b []byte) error { *k = ParseCheck(string(b)); return nil }

// Answered is a check that was made, and what it showed.
type Answered struct {
	Check Inspection `json:"check" jsonschema:"minLength=1,maxLength=120"`
	Is    Outcome    `json:"is"`
}

// outcome is what a check shows where some faults are. Of two, the one that it is about speaks;
// what mends the one does not mend the other.
func (c *Case) outcome(k Inspection, faults []Fault) Outcome {
	of := looks[k.Look]
	is := of.outcomes[0]
	for _, f := range faults {
		o, told := c.kinds[f.Kind].shows[k.Look]
		if !told || !k.At.IsZero() && !f.At.IsZero() && k.At != f.At && !(c.kinds[f.Kind].channel && c.sameChannel(k.At, f.At)) {
			if of.mends {
				return of.outcomes[0]
			}
			continue
		}
		is = o
	}
	return is
}

// cost is how long a check takes in minutes, opening the machine included.
func (c *Case) cost(k Inspection) layer.Minutes {
	if k.Look == ReadLine {
		switch k.Line.Kind {
		case power.Message:
			return 0.5
		case power.Boots:
			return 1
		case power.Installs:
			return 4
		case power.Heat, power.Counts:
			return 5 // at work
		}
		if inSystem(k.Line) {
			return 2
		}
		return 0.5
	}
	m := looks[k.Look].minutes
	if looks[k.Look].inside {
		m += c.open(k.At)
	}
	return m
}
