package say

import (
	"strings"

	"deepbay/internal/core/rig"
)

// attribute is what is asked for where a fact is missing, and what is said of an answer:
// # is the thing it is about, $ the answer, and isNot what a no comes to.
type attribute struct{ asks, is, isNot string }

var attributes = map[rig.Attr]attribute{
	rig.Keyed:       {"how # is keyed", "# is keyed at $", ""},
	rig.Posts:       {"at which lengths # has posts", "# has posts at $", ""},
	rig.RoomBeside:  {"whether # has room for a card wider than 22 mm", "# has room for a card $ wide", ""},
	rig.RoomAbove:   {"how much room there is above #", "there is $ of room above #", ""},
	rig.RoomUnder:   {"how much room there is below a card in #", "there is $ of room below a card in #", ""},
	rig.RoomCovered: {"how much room a card above leaves #", "a card above leaves # $", ""},
	rig.Speaks:      {"what # speaks", "# speaks $", ""},
	rig.PlaceGen:    {"the generation of #", "# is $", ""},
	rig.PlaceLanes:  {"the width of #", "# is $", ""},
	rig.SATAPort:    {"the SATA generation of #", "# is SATA $", ""},
	rig.USBPort:     {"the USB mode of #", "# is USB $", ""},
	rig.Long:        {"how long # is", "# is $ long", ""},
	rig.OpenEnded:   {"whether # is open at its end", "# is open at its end", "# is closed at its end"},
	rig.Opens:       {"at which rear opening # is", "# is at rear opening $", ""},
	rig.BayTakes:    {"which drives # takes", "# takes $ drives", ""},
	rig.BayHeight:   {"how tall a drive # takes", "# takes drives $ tall", ""},
	rig.HasLead:     {"whether a data lead lies at #", "a data lead lies at #", "no data lead lies at #"},
	rig.HasHolder:   {"whether the bracket or caddy of # is in the machine", "the bracket or caddy of # is in the machine", "the bracket or caddy of # is not in the machine"},
	rig.HasSink:     {"whether # has a heatsink", "# has a heatsink", "# has no heatsink"},
	rig.RoomForCard: {"whether there is room for a card in #", "there is room for a card in #", "there is no room for a card in #"},
	rig.HoldsNow:    {"what lies in #", "nothing lies in #", ""},
	rig.Notched:     {"where # is notched", "# is notched at $", ""},
	rig.CardLong:    {"how long # is", "# is $ long", ""},
	rig.CardWide:    {"how wide # is", "# is $ wide", ""},
	rig.CardTall:    {"how tall # is with its heatsink", "# with its heatsink is $ tall", ""},
	rig.CardDeep:    {"how tall the parts on the under side of # are (0 for none)", "the parts on the under side of # are $ tall", ""},
	rig.Protocol:    {"whether # speaks PCIe or SATA", "# speaks $", ""},
	rig.PartGen:     {"the generation of #", "# is $", ""},
	rig.PartLanes:   {"the width of #", "# is $", ""},
	rig.PartUSB:     {"the USB mode of #", "# is USB $", ""},
	rig.DriveTall:   {"how tall # is", "# is $ tall", ""},
	rig.Edge:        {"how long the edge of # is", "the edge of # is $", ""},
	rig.Bracket:     {"whether # has a low bracket", "# has a low bracket", "# has no low bracket"},
	rig.ModuleGen:   {"which memory generation # is of", "# is $", ""},
	rig.ModuleReg:   {"whether # is registered", "# is registered", "# is not registered"},
	rig.ModuleTall:  {"how tall # is", "# is $ tall", ""},
	rig.ModuleVolt:  {"at which voltage # runs", "# runs at $", ""},
	rig.ModuleSize:  {"the size of #", "# is of $", ""},
	rig.ModuleRate:  {"the speed of #", "# runs at $", ""},
	rig.Ranks:       {"the ranks of #, which the board's table asks for", "# has $", ""},
	rig.OwnSupply:   {"whether # has a supply of its own", "# has a supply of its own", "# has no supply of its own"},
	rig.Queues:      {"whether # queues commands", "# queues commands", "# takes one command at a time"},
	rig.Trims:       {"whether # passes on what was deleted (TRIM)", "# passes on what was deleted (TRIM)", "# does not pass on what was deleted (TRIM)"},
	rig.Translates:  {"whether # shows other sectors than the drive's own, or encrypts", "# shows other sectors or encrypts", "# shows the drive's own sectors"},
	rig.Capacity:    {"the capacity of #", "# is of $", ""},
	rig.BoardMemory: {"which memory generation the board takes", "the board takes $", ""},
	rig.BoardReg:    {"whether the board takes registered modules", "the board takes registered modules", "the board takes no registered modules"},
	rig.BoardVolt:   {"which voltage the board feeds its modules", "the board feeds its modules $", ""},
	rig.BoardClock:  {"whether the board runs clock drivers", "the board runs clock drivers", "the board does not run clock drivers"},
	rig.BoardSpeeds: {"how fast the board runs so many modules", "the board runs its modules at $", ""},
	rig.CaseLong:    {"how long a card the case takes", "the case takes cards up to $", ""},
	rig.CaseLow:     {"whether the case takes low-profile cards only", "the case takes low-profile cards only", "the case takes full-height cards"},
	rig.Feeds3V3:    {"whether the supply's SATA plugs carry 3.3 V", "the supply's SATA plugs carry 3.3 V", "the supply's SATA plugs carry no 3.3 V"},
	rig.Fitted:      {"which processor is fitted", "the processor is $", ""},
	rig.SetTo:       {"what # is set to", "# is set to $", ""},
}

// fill puts the thing into its phrase.
func fill(s, about string) string { return strings.ReplaceAll(s, "#", about) }
