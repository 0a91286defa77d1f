package say

import (
	"strings"

	"deepbay/internal/core/rig"
)

// attributes is what is asked for where a fact is missing; # is the thing it is about.
var attributes = map[rig.Attr]string{
	rig.Keyed:       "how # is keyed",
	rig.Posts:       "at which lengths # has posts",
	rig.RoomBeside:  "whether # has room for a card wider than 22 mm",
	rig.RoomAbove:   "how much room there is above #",
	rig.RoomUnder:   "how much room there is below a card in #",
	rig.RoomCovered: "how much room a card above leaves #",
	rig.Speaks:      "what # speaks",
	rig.PlaceGen:    "the generation of #",
	rig.PlaceLanes:  "the width of #",
	rig.SATAPort:    "the SATA generation of #",
	rig.USBPort:     "the USB mode of #",
	rig.Long:        "how long # is",
	rig.OpenEnded:   "whether # is open at its end",
	rig.Opens:       "at which rear opening # is",
	rig.BayTakes:    "which drives the bay on # takes",
	rig.BayHeight:   "how tall a drive the bay on # takes",
	rig.HasLead:     "whether a data lead lies at #",
	rig.HasHolder:   "whether the bracket or caddy of the bay on # is in the machine",
	rig.RoomForCard: "whether there is room for a card in #",
	rig.HoldsNow:    "what lies in #",
	rig.Notched:     "where it is notched",
	rig.CardLong:    "how long it is",
	rig.CardWide:    "how wide it is",
	rig.CardTall:    "how tall its heatsink is",
	rig.CardDeep:    "whether it has parts on its under side, and how tall",
	rig.Protocol:    "whether it speaks PCIe or SATA",
	rig.PartGen:     "the generation of #",
	rig.PartLanes:   "the width of #",
	rig.PartUSB:     "the USB mode of #",
	rig.DriveTall:   "how tall it is",
	rig.Edge:        "how long its edge is",
	rig.Bracket:     "whether it has a low bracket",
	rig.ModuleGen:   "which memory generation it is of",
	rig.ModuleReg:   "whether it is registered",
	rig.ModuleTall:  "how tall it is",
	rig.ModuleVolt:  "at which voltage it runs",
	rig.ModuleSize:  "its size",
	rig.ModuleRate:  "its speed",
	rig.Ranks:       "its ranks, which the board's table asks for",
	rig.OwnSupply:   "whether the box has a supply of its own",
	rig.Capacity:    "its capacity",
	rig.BoardMemory: "which memory generation the board takes",
	rig.BoardReg:    "whether the board takes registered modules",
	rig.BoardVolt:   "which voltage the board feeds its modules",
	rig.BoardClock:  "whether the board runs clock drivers",
	rig.BoardSpeeds: "how fast the board runs so many modules",
	rig.CaseLong:    "how long a card the case takes",
	rig.CaseLow:     "whether the case takes low-profile cards only",
	rig.Feeds3V3:    "whether the supply's SATA plugs carry 3.3 V",
	rig.Fitted:      "which processor is fitted",
	rig.SetTo:       "what # is set to",
}

// fill puts the thing into its phrase.
func fill(s, about string) string { return strings.ReplaceAll(s, "#", about) }
