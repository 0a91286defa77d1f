package say

import (
	"strconv"
	"strings"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/memory"
	"deepbay/internal/core/part"
	"deepbay/internal/core/shorthand"
)

// partWords is what words on labels mean, leave unsaid and leave open.
var partWords = map[fact.Code]string{
	shorthand.AllOf:           "{0}",
	shorthand.IsNamed:         "called {0:quoted}",
	shorthand.IsNumbered:      "part number {0}",
	shorthand.HasSerial:       "serial number {0}",
	shorthand.Pieces:          "{0} {0:piece}",
	shorthand.PiecesOf:        "{0} {0:piece} of {1}",
	shorthand.IsKit:           "pieces that are sold together",
	shorthand.IsSize:          "its size",
	shorthand.IsSumOf:         "the sum of the {0} {0:piece}",
	shorthand.Measures:        "{0}",
	shorthand.IsPCIeDrive:     "PCIe drive",
	shorthand.IsSATADrive:     "SATA drive",
	shorthand.IsSATAOf:        "SATA drive, generation {0}",
	shorthand.IsM2Card:        "M.2 card",
	shorthand.IsOfForm:        "{0} drive",
	shorthand.IsFlash:         "flash",
	shorthand.IsPlatters:      "rotating platters",
	shorthand.IsPlattersAt:    "rotating platters, {0} turns a minute",
	shorthand.IsOptical:       "drive for optical discs",
	shorthand.OnOneSide:       "parts on one side",
	shorthand.OnBothSides:     "parts on both sides",
	shorthand.BringsSink:      "brings a heatsink",
	shorthand.SinkUpTo:        "brings a heatsink, {0} above its board",
	shorthand.StandsUpTo:      "up to {0:fine} above its board",
	shorthand.HangsDownTo:     "up to {0:fine} below its board",
	shorthand.IsBare:          "no heatsink",
	shorthand.ReadsAt:         "reads at {0}",
	shorthand.WritesAt:        "writes at {0}, which no answer here needs",
	shorthand.DrawsUpTo:       "draws up to {0} W",
	shorthand.HasPinOff:       "3.3 V on its power plug holds it off",
	shorthand.NoPinOff:        "3.3 V on its power plug does not hold it off",
	shorthand.LongModule:      "long module",
	shorthand.LongUnbuffered:  "long module, unbuffered",
	shorthand.LongRegistered:  "long module, registered",
	shorthand.LongClocked:     "long DDR5 module with a clock driver, unbuffered",
	shorthand.LongPins:        "the contacts of a long module",
	shorthand.ShortModule:     "short module",
	shorthand.ShortClocked:    "short DDR5 module with a clock driver, unbuffered",
	shorthand.ShortPins:       "the contacts of a short {0} module",
	shorthand.HasClockDriver:  "with a clock driver",
	shorthand.NoClockDriver:   "without a clock driver",
	shorthand.OfForm:          "{0}",
	shorthand.SpeedIsBase:     "the speed is the module's own",
	shorthand.SpeedIsProfile:  "the speed is that of a stored profile",
	shorthand.TransfersAt:     "{0}; the clock is half of it",
	shorthand.HasCheckBits:    "with check bits",
	shorthand.NoCheckBits:     "without check bits",
	shorthand.IsRegistered:    "registered",
	shorthand.IsUnbuffered:    "unbuffered",
	shorthand.LetterInDoubt:   "the {0} is a speed bin or a kind of module",
	shorthand.SizedM2:         "M.2 card {0} wide, {1} long",
	shorthand.SizedM2Above:    "M.2 card {0} wide, {1} long, up to {2:fine} above its board",
	shorthand.SizedM2Between:  "M.2 card {0} wide, {1} long, up to {2:fine} above its board and {3:fine} below",
	shorthand.IsNotchedAt:     "notched at {0}",
	shorthand.HasRanks:        "{0} {0:rank}",
	shorthand.RanksOf:         "{0} {0:rank} of devices {1} bits wide",
	shorthand.RunsAt:          "runs at {0}",
	shorthand.IsOfGeneration:  "generation {0}",
	shorthand.HasLanes:        "{0} {0:lane}",
	shorthand.HasProfile:      "stored profile of {0}",
	shorthand.IsOfFamily:      "family {0}",
	shorthand.FamilyAtProfile: "{0}, a stored profile of {1}: no module of it is so fast of its own",
	shorthand.IsSpeed:         "{0}, {1}",
	shorthand.Clocks:          "CAS latency of {0} clocks",
	shorthand.Timings:         "CAS latency of {0} clocks, and the times after it, which no answer here needs",
	shorthand.HasLatency:      "{0} clocks, {1} ns",

	shorthand.EdgeOf:         "an edge for x{0}",
	shorthand.WiredWith:      "{0} {0:lane} wired",
	shorthand.Covers:         "covers {0} rear {0:opening}",
	shorthand.CardLong:       "{0} long",
	shorthand.LowBracket:     "with a low bracket",
	shorthand.FullBracket:    "full height only",
	shorthand.NeedsPlugs:     "needs {0} x {1}",
	shorthand.IsForPictures:  "graphics card",
	shorthand.IsForNetwork:   "network card",
	shorthand.IsForRadio:     "wireless card",
	shorthand.IsForCapture:   "capture card",
	shorthand.IsForSound:     "sound card",
	shorthand.Adapts:         "adapter to {0}",
	shorthand.Holds:          "{0} {0:position} for {1}",
	shorthand.HasPorts:       "{0} {0:port}",
	shorthand.HoldsPorts:     "SATA ports, behind a controller of its own",
	shorthand.HasChip:        "with a switch chip: the positions share the slot's link",
	shorthand.NoChip:         "without a chip: the slot must be split",
	shorthand.FirstLanes:     "the positions begin at lanes {0}",
	shorthand.LanesEach:      "{0} {0:lane} for each position",
	shorthand.WiredEach:      "{0} {0:lane} for each, counted off from the first",
	shorthand.PostsFor:       "posts for cards of {0}",
	shorthand.TakesM2:        "for M.2 drives",
	shorthand.TakesU2:        "for U.2 drives",
	shorthand.OverUSB:        "{0}",
	shorthand.DrivesPCIe:     "for PCIe drives",
	shorthand.DrivesSATA:     "for SATA drives",
	shorthand.TakesDrives:    "takes {0} drives",
	shorthand.HasBays:        "{0} {0:bay}",
	shorthand.RoomForHigh:    "drives up to {0} high",
	shorthand.HasQueues:      "queues commands",
	shorthand.NoQueues:       "one command at a time",
	shorthand.HasTrim:        "passes on what was deleted",
	shorthand.NoTrim:         "does not pass on what was deleted",
	shorthand.FedByPort:      "fed from the port",
	shorthand.FedByMains:     "with a supply of its own",
	shorthand.HasTranslation: "a drive from it is unreadable without it",
	shorthand.NoTranslation:  "a drive from it is read without it",
	shorthand.IsLong:         "{0} long",
	shorthand.LeadEnds:       "{0} end at the port, {1} at the drive",
	shorthand.LeadEnd:        "{0} end at the drive",
	shorthand.FromTo:         "from {0} to {1}",
	shorthand.FromPlug:       "from {0}",
	shorthand.Feeds:          "feeds {0} {0:plug}",
	shorthand.EndsIn:         "ends in {0} x {1}",
	shorthand.OfSupply:       "belongs to a {0} supply, and to no other",
	shorthand.IsSplitter:     "gives the plug it takes more than once",
	shorthand.IsCrimped:      "crimped",
	shorthand.IsMoulded:      "moulded: a known cause of fire from 4-pin plugs",
	shorthand.IsFitting:      "{0}",
	shorthand.HoldsIn:        "holds a {0} drive in a bay for {1}",
	shorthand.HoldsOne:       "for a {0} drive",
	shorthand.FitsBay:        "for a bay of {0} drives",
	shorthand.HasThread:      "thread {0}",

	shorthand.LacksCapacity:    "its capacity",
	shorthand.LacksProtocol:    "whether it speaks PCIe or SATA",
	shorthand.LacksGeneration:  "its generation",
	shorthand.LacksLanes:       "its lanes",
	shorthand.LacksLength:      "how long it is",
	shorthand.LacksNotch:       "where it is notched",
	shorthand.LacksSides:       "whether it has parts on both sides",
	shorthand.LacksHeight:      "how high it is",
	shorthand.LacksSize:        "its size",
	shorthand.LacksFamily:      "its family",
	shorthand.LacksSpeed:       "its speed",
	shorthand.LacksRanks:       "its ranks",
	shorthand.LacksECC:         "whether it has check bits",
	shorthand.LacksRegister:    "whether it is registered",
	shorthand.LacksEdge:        "how long its edge is",
	shorthand.LacksWired:       "how many lanes are wired",
	shorthand.LacksOpenings:    "how many rear openings it covers",
	shorthand.LacksCardLength:  "how long it is",
	shorthand.LacksBracket:     "whether it has a low bracket",
	shorthand.LacksPlugs:       "whether it needs power plugs",
	shorthand.LacksUse:         "what it is for",
	shorthand.LacksUSB:         "its USB mode",
	shorthand.LacksQueues:      "whether it queues commands",
	shorthand.LacksTrim:        "whether it passes on what was deleted",
	shorthand.LacksSupply:      "whether it has a supply of its own",
	shorthand.LacksTranslation: "whether a drive from it is read without it",
	shorthand.LacksEnd:         "its end at the drive",
	shorthand.LacksPortEnd:     "its end at the port",
	shorthand.LacksLeadLength:  "how long it is",
	shorthand.LacksSupplyOf:    "which model of supply it belongs to",
	shorthand.LacksMake:        "whether it is crimped",
	shorthand.LacksHolds:       "which drive it holds",
	shorthand.LacksFits:        "which bay it goes into",
	shorthand.LacksThread:      "which screws come with it",

	shorthand.FieldBayHeight:  "Drives up to",
	shorthand.FieldBays:       "How many bays",
	shorthand.FieldBracket:    "Bracket",
	shorthand.FieldCapacity:   "Capacity",
	shorthand.FieldCardLength: "Length of the card",
	shorthand.FieldChip:       "Switch chip",
	shorthand.FieldClock:      "Clock driver",
	shorthand.FieldECC:        "Check bits",
	shorthand.FieldEach:       "Lanes of each position",
	shorthand.FieldEdge:       "Length of its edge",
	shorthand.FieldEnds:       "Ends",
	shorthand.FieldFirstLanes: "Where positions begin",
	shorthand.FieldForm:       "Form",
	shorthand.FieldLeadPlugs:  "Plugs",
	shorthand.FieldOfSupply:   "Of the supply",
	shorthand.FieldFromTo:     "From plug to plugs",
	shorthand.FieldGen:        "Generation",
	shorthand.FieldHeatsink:   "Heatsink",
	shorthand.FieldHeight:     "Height",
	shorthand.FieldHolds:      "Which drive, in which bay",
	shorthand.IntoSlot:        "a PCIe slot",
	shorthand.NotKnown:        "not known",
	shorthand.FieldInto:       "Goes into",
	shorthand.FieldKeys:       "Notches",
	shorthand.FieldKind:       "What it is",
	shorthand.FieldLanes:      "Lanes",
	shorthand.FieldLatency:    "CAS latency",
	shorthand.FieldLeadLength: "Length",
	shorthand.FieldMake:       "Crimped or moulded",
	shorthand.FieldMedia:      "Stores on",
	shorthand.FieldOpenings:   "Rear openings",
	shorthand.FieldPinOff:     "Power-disable pin",
	shorthand.FieldPlaces:     "Positions",
	shorthand.FieldPlugs:      "Power plugs it needs",
	shorthand.FieldPosts:      "Lengths of M.2 cards",
	shorthand.FieldProfile:    "Stored profile",
	shorthand.FieldQueues:     "Queues commands",
	shorthand.FieldRanks:      "Ranks",
	shorthand.FieldReads:      "Reads at",
	shorthand.FieldRegister:   "Register",
	shorthand.FieldSides:      "Parts on",
	shorthand.FieldSize:       "M.2 size",
	shorthand.FieldSpeaks:     "Speaks",
	shorthand.FieldSpeed:      "Family and speed",
	shorthand.FieldSupply:     "Fed by",
	shorthand.FieldThread:     "Screws",
	shorthand.FieldTop:        "Height above its board",
	shorthand.FieldTranslates: "Changes sectors or encrypts",
	shorthand.FieldTrim:       "Passes on what was deleted",
	shorthand.FieldTurns:      "Turns a minute",
	shorthand.FieldUSB:        "USB mode",
	shorthand.FieldUnder:      "Height below its board",
	shorthand.FieldUse:        "What it is for",
	shorthand.FieldVolts:      "Voltage",
	shorthand.FieldWatts:      "Power",
	shorthand.FieldWired:      "Lanes wired",

	shorthand.WhichSpeed:    "which speed",
	shorthand.WhichForm:     "which form",
	shorthand.WhichProtocol: "what it speaks",
	shorthand.WhichNumber:   "what the number is",
	shorthand.BaseOrProfile: "base speed or profile",
	shorthand.KindOrBin:     "a kind of module or a speed bin",
	shorthand.HowManyInKit:  "how many pieces",
	shorthand.MemoryOrDrive: "memory or a drive",
	shorthand.PortsOfWhat:   "which ports",
	shorthand.HowManyPorts:  "how many ports",
	shorthand.HowWide:       "how many lanes",
	shorthand.SwitchOrNot:   "with a switch chip or without",
	shorthand.WhichLanes:    "at which lanes the positions begin",
	shorthand.WhichUSB:      "which USB mode",
	shorthand.WhichPlug:     "from which plug",
	shorthand.WhichPlugs:    "to which plugs",
	shorthand.HowManyPlugs:  "how many plugs it feeds",
	shorthand.WhichThread:   "which thread",
}

// describe is a part in one line.
func describe(p *part.Part) string {
	switch {
	case p.Drive != nil:
		return driveLine(p.Drive)
	case p.Card != nil:
		return cardLine(p.Card)
	case p.Enclosure != nil:
		return "box for " + list(p.Enclosure.Positions, positionWord, " and ", " and ") + ", " + p.Enclosure.USB.String()
	case p.Fitting != nil:
		return fittingLine(p.Fitting)
	case p.Module != nil:
		return moduleLine(p.Module)
	}
	return p.Name
}

func driveLine(d *part.Drive) string {
	s := d.CapacityBytes.Label() + " " + d.Form.String()
	switch d.Protocol {
	case link.PCIe:
		s += " PCIe " + d.Link().String()
	case link.SATA:
		s += " SATA"
	default:
		s += ", protocol unknown"
	}
	if d.M2 != nil && d.M2.LengthMM.Known() {
		s += " " + d.M2.Size()
	}
	if d.Media == part.Platter {
		s += " hard disk"
	}
	return s
}

func moduleLine(m *part.Module) string {
	var words []string
	if m.SizeBytes.Known() {
		words = append(words, m.SizeBytes.Binary())
	}
	switch {
	case m.RateMTps.Known() && m.Generation != "":
		words = append(words, memory.Rated{Generation: m.Generation, Label: m.RateMTps}.Name())
	case m.Generation != "":
		words = append(words, m.Generation.String())
	}
	if m.Form != "" {
		words = append(words, m.Form.String())
	} else {
		words = append(words, "memory module")
	}
	return strings.Join(words, " ")
}

// takes is what a position or adapter takes.
var takes = map[part.Takes]string{part.TakesM2: "M.2", part.TakesSlot: "PCIe slot", part.TakesU2: "U.2", part.TakesSATA: "SATA"}

func positionWord(p part.Position) string {
	if len(p.Drives) > 0 {
		return p.Drives[len(p.Drives)-1].String()
	}
	return takes[p.Kind()]
}

func cardLine(c *part.Card) string {
	if c.Carrier == nil {
		noun := "card"
		switch {
		case c.Graphics:
			noun = "graphics card"
		case c.Use != "":
			noun = string(c.Use) + " card"
		}
		switch {
		case c.M2 != nil && c.M2.LengthMM.Known():
			return "M.2 " + noun + ", " + c.M2.Size()
		case c.M2 != nil:
			return "M.2 " + noun
		case !c.Gen.Known() && !c.Lanes.Known() && c.Connector.Known():
			return noun + " with an edge for " + c.Connector.String()
		}
		return c.Link().String() + " " + noun
	}
	positions, first := len(c.Carrier.Positions), c.Carrier.Positions[0].Kind()
	switch {
	case c.M2 != nil:
		return "M.2 to " + takes[first] + " adapter, " + c.Link().String()
	case positions == 1 && first != part.TakesM2:
		return "slot to " + takes[first] + " adapter, " + c.Link().String()
	case first == part.TakesSATA:
		return strconv.Itoa(positions) + "-port SATA controller, " + c.Link().String()
	}
	link := c.Link().String()
	if !c.Gen.Known() && !c.Lanes.Known() && c.Connector.Known() {
		link = "with an edge for " + c.Connector.String()
	}
	s := strconv.Itoa(positions) + "-position carrier, " + link
	if c.Carrier.Switch {
		s += ", with a switch chip"
	}
	return s
}

func fittingLine(f *part.Fitting) string {
	switch {
	case f.Kind == part.DataLead && f.End != "":
		return "SATA data lead, " + string(f.End) + " end"
	case f.Kind == part.DataLead:
		return "SATA data lead"
	case f.Kind == part.PowerAdapter:
		return string(f.From) + " to " + strconv.Itoa(f.Feeds()) + " x " + string(f.To) + " power adapter"
	case f.Kind == part.SupplyLead:
		of := " of an unknown supply"
		if f.Supply != "" {
			of = " of a " + f.Supply
		}
		return "supply lead with " + strconv.Itoa(f.Feeds()) + " x " + string(f.To) + of
	case (f.Kind == part.Bracket || f.Kind == part.Caddy) && f.Holds != "":
		return string(f.Kind) + " for a " + f.Holds.String() + " drive"
	case f.Kind == part.Screws && f.Thread != "":
		return string(f.Thread) + " screws"
	}
	return string(f.Kind)
}

// kindWords is the trade's words for the kinds of sockets.
var kindWords = map[machine.Kind]string{
	machine.M2: "M.2 socket", machine.Slot: "PCIe slot", machine.SATA: "SATA port", machine.U2: "U.2 port",
	machine.DIMM: "DIMM slot", machine.SODIMM: "SO-DIMM slot", machine.USB: "USB port",
}
