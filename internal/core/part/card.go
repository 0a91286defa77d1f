package part

// This file describes cards for PCIe slots, and carriers: cards that bring
// sockets of their own.

import (
	"fmt"
	"strconv"

	"deepbay/internal/core/link"
	"deepbay/internal/core/problem"
	"deepbay/internal/core/quantity"
)

// Card is anything with a PCIe card edge.
type Card struct {
	Connector  quantity.Lanes       `json:"connectorLanes,omitzero" jsonschema:"enum=1,enum=4,enum=8,enum=16"` // length of its edge
	Gen        quantity.Gen         `json:"gen,omitzero" jsonschema:"minimum=1,maximum=6"`
	Lanes      quantity.Lanes       `json:"lanes,omitzero" jsonschema:"enum=1,enum=2,enum=4,enum=8,enum=16"` // wired
	Openings   int                  `json:"openings,omitzero" jsonschema:"minimum=1,maximum=4"`              // rear openings it covers
	LengthMM   quantity.Millimetres `json:"lengthMM,omitzero" jsonschema:"minimum=1"`
	LowBracket quantity.Answer      `json:"lowBracket,omitzero"`                     // comes with, or is, low profile
	Plugs      []Plug               `json:"plugs,omitempty" jsonschema:"maxItems=4"` // extra power it needs, by plug
	Watts      float64              `json:"watts,omitzero" jsonschema:"minimum=0.1"` // at full load
	Graphics   bool                 `json:"graphics,omitempty"`
	Carrier    *Carrier             `json:"carrier,omitempty"`
}

// Link is the card's own end.
func (c *Card) Link() link.Link { return link.Link{Gen: c.Gen, Lanes: c.Lanes} }

// Plug is a kind of power plug.
type Plug string

// The plugs counted: the supply's for drives and cards, and a board's own lead for drives.
const (
	PlugSATA  Plug = "sata"
	PlugSlim  Plug = "slimline sata"
	PlugMolex Plug = "4-pin peripheral"
	Plug6     Plug = "6-pin"
	Plug8     Plug = "8-pin"
	Plug16    Plug = "12V-2x6"
)

// Values lists the plugs for the formats.
func (Plug) Values() []string {
	return []string{string(PlugSATA), string(PlugSlim), string(PlugMolex), string(Plug6), string(Plug8), string(Plug16)}
}

// Carrier is what a card holds. A plain one wires each position to fixed lanes
// of the slot, and a position lives when a segment of the slot's split begins at
// its first lane. One with a switch chip needs no split: all positions live and
// share the slot's link.
type Carrier struct {
	Switch    bool       `json:"switch,omitempty"`
	Positions []Position `json:"positions" jsonschema:"minItems=1,maxItems=16"`
}

// Position is one M.2 socket of a carrier.
type Position struct {
	FirstLane int                    `json:"firstLane,omitzero" jsonschema:"minimum=0,maximum=15"` // of the slot; without meaning behind a switch chip
	Lanes     quantity.Lanes         `json:"lanes" jsonschema:"enum=1,enum=2,enum=4"`
	LengthsMM []quantity.Millimetres `json:"lengthsMM,omitempty" jsonschema:"uniqueItems=true"`
	Heatsink  quantity.Answer        `json:"heatsink,omitzero"`
	TopMM     quantity.Millimetres   `json:"clearTopMM,omitzero" jsonschema:"minimum=0.1"`
	BottomMM  quantity.Millimetres   `json:"clearBottomMM,omitzero" jsonschema:"minimum=0.1"`
}

func (c *Card) validate() problem.List {
	var l problem.List
	if c.Connector.Known() && c.Lanes > c.Connector {
		l.Add("/lanes", fmt.Sprintf("an edge %s long carries no %s", c.Connector, c.Lanes), "lanes is the wiring, connectorLanes the length of the edge")
	}
	if c.Carrier == nil || c.Carrier.Switch {
		return l
	}
	taken := 0
	for i, p := range c.Carrier.Positions {
		at := "/carrier/positions/" + strconv.Itoa(i)
		if c.Lanes.Known() && p.FirstLane+int(p.Lanes) > int(c.Lanes) {
			l.Add(at+"/firstLane", fmt.Sprintf("lanes %d to %d are not on a card of %s", p.FirstLane, p.FirstLane+int(p.Lanes)-1, c.Lanes), "check firstLane and lanes")
		}
		if p.FirstLane < taken {
			l.Add(at+"/firstLane", fmt.Sprintf("lane %d is wired to the position before it", p.FirstLane), "give every position lanes of its own, in rising order")
		}
		taken = p.FirstLane + int(p.Lanes)
	}
	return l
}
