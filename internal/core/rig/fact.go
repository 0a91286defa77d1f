package rig

import (
	"slices"
	"strings"

	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
)

// Fact is something about the machine or a piece that may be known or not: which
// attribute of what. It is small and compared with ==, so it can be listed once for
// many findings, asked for, and answered.
type Fact struct {
	Item    ItemID            `json:"item,omitempty" jsonschema:"maxLength=60"`                    // a piece: what its label says
	Pos     int               `json:"position,omitzero" jsonschema:"minimum=1,maximum=16"`         // a position that the piece brings, counted from 1; absent is the piece itself
	Socket  Path              `json:"socket,omitzero" jsonschema:"maxLength=200"`                  // a socket of the board: what the sheet says of it
	Setting machine.SettingID `json:"setting,omitempty" jsonschema:"maxLength=40"`                 // a setting of the firmware
	N       int               `json:"modulesPerChannel,omitzero" jsonschema:"minimum=1,maximum=8"` // of so many modules a channel, where that matters
	Attr    Attr              `json:"attr" jsonschema:"minLength=1,maxLength=40"`                  // of the machine as a whole where none of these is given
}

// With is a list of facts with further ones, each once.
func With(list []Fact, facts ...Fact) []Fact {
	for _, f := range facts {
		if !slices.Contains(list, f) {
			list = append(list, f)
		}
	}
	return list
}

// Attr is an attribute that facts are about. The names are stable: files carry them.
type Attr string

// The attributes of places.
const (
	Keyed       Attr = "key"              // where an M.2 socket is keyed
	Posts       Attr = "posts"            // at which lengths it has posts
	RoomBeside  Attr = "room beside"      // how wide a card there is room for
	RoomAbove   Attr = "room above"       // free height above a card, or under a cooler
	RoomUnder   Attr = "room under"       // free height below a card
	RoomCovered Attr = "room under card"  // what is left with a card over it
	Speaks      Attr = "protocols"        // what it is wired for
	PlaceGen    Attr = "generation"       // of its link
	PlaceLanes  Attr = "lanes"            // how many it is wired with
	SATAPort    Attr = "sata generation"  // of a port
	USBPort     Attr = "usb mode"         // of a port
	Long        Attr = "length"           // of a slot
	OpenEnded   Attr = "open end"         // a longer card goes in over its end
	Opens       Attr = "opening"          // the rear opening it is at
	BayTakes    Attr = "bay"              // which drives the bay takes
	BayHeight   Attr = "bay height"       // and how tall
	HasLead     Attr = "data lead"        // one lies there
	HasHolder   Attr = "bracket or caddy" // it is there
	RoomForCard Attr = "room for a card"  // in the slot of an adapter
	HasSink     Attr = "heatsink"         // of a socket, or brought by a drive
	HoldsNow    Attr = "holds"            // what lies there: nobody has looked
)

// The attributes of pieces.
const (
	Notched    Attr = "notches"     // of an M.2 card
	CardLong   Attr = "card length" // of an M.2 card or a slot card
	CardWide   Attr = "card width"  // of an M.2 card
	CardTall   Attr = "card height" // above its board, heatsink included
	CardDeep   Attr = "under side"  // parts there, and how tall
	Protocol   Attr = "protocol"    // PCIe or SATA
	PartGen    Attr = "part generation"
	PartLanes  Attr = "part lanes"
	PartUSB    Attr = "part usb mode"
	DriveTall  Attr = "drive height"
	Edge       Attr = "card edge" // how long the edge of a slot card is
	Bracket    Attr = "low bracket"
	ModuleGen  Attr = "memory generation"
	ModuleReg  Attr = "registered"
	ModuleTall Attr = "module height"
	ModuleVolt Attr = "module voltage"
	ModuleSize Attr = "module size"
	ModuleRate Attr = "module speed"
	Ranks      Attr = "ranks"
	OwnSupply  Attr = "own supply"
	Queues     Attr = "queues"     // of a USB box: commands (UAS)
	Trims      Attr = "trims"      // of a USB box: passes on what was deleted
	Translates Attr = "translates" // of a USB box: shows other sectors, or encrypts
	Capacity   Attr = "capacity"
)

// The attributes of the machine as a whole.
const (
	BoardMemory Attr = "board memory"     // which generation it takes
	BoardReg    Attr = "board registered" // registered modules or not
	BoardVolt   Attr = "board voltage"
	BoardClock  Attr = "board clock drivers"
	BoardSpeeds Attr = "board speeds"
	CaseLong    Attr = "case card length"
	CaseLow     Attr = "case low profile"
	Feeds3V3    Attr = "supply 3.3 V"
	Fitted      Attr = "processor"
	SetTo       Attr = "setting" // the value of a setting whose default is not stated
)

// OfBay reports an attribute of a bay.
func (a Attr) OfBay() bool { return a == BayTakes || a == BayHeight || a == HasHolder }

// FreePlugs is how many plugs of a kind are free in the case.
func FreePlugs(p part.Plug) Attr { return Attr(p) + " plugs" }

// Plug is the kind of plug whose free ones an attribute counts, "" for another attribute.
func (a Attr) Plug() part.Plug {
	if p, ok := strings.CutSuffix(string(a), " plugs"); ok && slices.Contains(part.Plug("").Values(), p) {
		return part.Plug(p)
	}
	return ""
}

// Values lists the attributes for the formats.
func (Attr) Values() []string {
	all := []Attr{Keyed, Posts, RoomBeside, RoomAbove, RoomUnder, RoomCovered, Speaks, PlaceGen, PlaceLanes, SATAPort, USBPort, Long, OpenEnded, Opens, BayTakes, BayHeight, HasLead, HasHolder, RoomForCard, HasSink, HoldsNow, Notched, CardLong, CardWide, CardTall, CardDeep, Protocol, PartGen, PartLanes, PartUSB, DriveTall, Edge, Bracket, ModuleGen, ModuleReg, ModuleTall, ModuleVolt, ModuleSize, ModuleRate, Ranks, OwnSupply, Queues, Trims, Translates, Capacity, BoardMemory, BoardReg, BoardVolt, BoardClock, BoardSpeeds, CaseLong, CaseLow, Feeds3V3, Fitted, SetTo}
	out := make([]string, len(all))
	for i, a := range all {
		out[i] = string(a)
	}
	for _, p := range part.Plug("").Values() {
		out = append(out, string(FreePlugs(part.Plug(p))))
	}
	return out
}
