package say

import (
	"strconv"
	"strings"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/memory"
	"deepbay/internal/core/part"
)

// partWords is what words on labels mean, leave unsaid and leave open.
var partWords = map[fact.Code]string{
	part.IsPCIeDrive:     "PCIe drive",
	part.IsSATADrive:     "SATA drive",
	part.IsM2Card:        "M.2 card",
	part.IsOfForm:        "{0} drive",
	part.IsFlash:         "flash",
	part.IsPlatters:      "rotating platters",
	part.IsPlattersAt:    "rotating platters, {0} turns a minute",
	part.OnOneSide:       "parts on one side",
	part.OnBothSides:     "parts on both sides",
	part.BringsSink:      "brings a heatsink",
	part.IsBare:          "no heatsink",
	part.LongModule:      "long module",
	part.LongUnbuffered:  "long module, unbuffered",
	part.LongRegistered:  "long module, registered",
	part.ShortModule:     "short module",
	part.SpeedIsBase:     "the speed is the module's own",
	part.SpeedIsProfile:  "the speed is that of a stored profile",
	part.HasCheckBits:    "with check bits",
	part.NoCheckBits:     "without check bits",
	part.IsRegistered:    "registered",
	part.IsUnbuffered:    "unbuffered",
	part.SizedM2:         "M.2 card {0} wide, {1} long",
	part.SizedM2Above:    "M.2 card {0} wide, {1} long, up to {2:fine} above its board",
	part.SizedM2Between:  "M.2 card {0} wide, {1} long, up to {2:fine} above its board and {3:fine} below",
	part.IsNotchedAt:     "notched at {0}",
	part.HasRanks:        "{0} {0:rank}",
	part.RunsAt:          "runs at {0}",
	part.IsOfGeneration:  "generation {0}",
	part.HasLanes:        "{0} {0:lane}",
	part.PiecesOf:        "{0} {0:piece} of {1}",
	part.HasProfile:      "stored profile of {0}",
	part.IsOfFamily:      "family {0}",
	part.FamilyAtProfile: "{0}, a stored profile of {1}: no module of it is so fast of its own",
	part.IsSpeed:         "{0}, {1}",
	part.IsLabel:         "label of a module",
	part.HasLatency:      "{0} clocks, {1} ns",

	part.LacksCapacity:   "its capacity",
	part.LacksProtocol:   "whether it speaks PCIe or SATA",
	part.LacksGeneration: "its generation",
	part.LacksLanes:      "its lanes",
	part.LacksLength:     "how long it is",
	part.LacksNotch:      "where it is notched",
	part.LacksSides:      "whether it has parts on both sides",
	part.LacksSize:       "its size",
	part.LacksFamily:     "its family",
	part.LacksSpeed:      "its speed",
	part.LacksRanks:      "its ranks",
	part.LacksECC:        "whether it has check bits",
	part.LacksRegister:   "whether it is registered",

	part.WhichSpeed:    "which speed",
	part.WhichForm:     "which form",
	part.BaseOrProfile: "base speed or profile",
	part.MemoryOrDrive: "memory or a drive",
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
		return c.Link().String() + " card"
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
	s := strconv.Itoa(positions) + "-position carrier, " + c.Link().String()
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
