package part

// This file describes cards for PCIe slots, and carriers: cards that bring
// sockets of their own. An adapter is a carrier with one position; its edge may be
// that of an M.2 card.

import (
	"strconv"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/link"
	"deepbay/internal/core/problem"
	"deepbay/internal/core/quantity"
)

// Card is anything with a PCIe card edge, or an adapter with the edge of an M.2
// card (then M2 is given and what concerns slots and rear openings is not).
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
	Use        CardUse              `json:"use,omitempty"` // what else it is for
	M2         *M2                  `json:"m2,omitempty"`  // goes into an M.2 socket
	Carrier    *Carrier             `json:"carrier,omitempty"`
}

// Link is the card's own end.
func (c *Card) Link() link.Link { return link.Link{Gen: c.Gen, Lanes: c.Lanes} }

// CardUse is what a card that shows no picture and holds no drives is for.
type CardUse string

// The uses that a job may meet: for fit they are cards like others, for the person at the
// bench they have antennas, sockets and drivers of their own.
const (
	NetworkCard  CardUse = "network"
	WirelessCard CardUse = "wireless"
	CaptureCard  CardUse = "capture"
	SoundCard    CardUse = "sound"
)

// Values lists the uses for the formats.
func (CardUse) Values() []string {
	return []string{string(NetworkCard), string(WirelessCard), string(CaptureCard), string(SoundCard)}
}

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
// its first lane. One with a switch chip or a controller needs no split: all
// positions live and share the slot's link.
type Carrier struct {
	Switch    bool       `json:"switch,omitempty"`
	Positions []Position `json:"positions" jsonschema:"minItems=1,maxItems=16"`
}

// Takes is what kind of socket a position is.
type Takes string

// A position is an M.2 socket, the default, a PCIe slot, a U.2 port or a SATA port.
const (
	TakesM2   Takes = "m2"
	TakesSlot Takes = "pcie"
	TakesU2   Takes = "u2"
	TakesSATA Takes = "sata"
)

// Values lists the kinds of position for the formats.
func (Takes) Values() []string {
	return []string{string(TakesM2), string(TakesSlot), string(TakesU2), string(TakesSATA)}
}

// Position is one socket of a carrier, an adapter or an enclosure.
type Position struct {
	Takes     Takes                  `json:"takes,omitempty"`                                                 // absent is an M.2 socket
	FirstLane int                    `json:"firstLane,omitzero" jsonschema:"minimum=0,maximum=15"`            // of the slot; without meaning behind a switch chip
	Lanes     quantity.Lanes         `json:"lanes,omitzero" jsonschema:"enum=1,enum=2,enum=4,enum=8,enum=16"` // all but SATA ports
	Protocols []link.Protocol        `json:"protocols,omitempty" jsonschema:"uniqueItems=true"`               // of an enclosure's M.2 socket; elsewhere M.2 is PCIe
	Gen       quantity.Gen           `json:"gen,omitzero" jsonschema:"minimum=1,maximum=6"`                   // PCIe side of the bridge in an enclosure; a card has its own
	SATAGen   quantity.Gen           `json:"sataGen,omitzero" jsonschema:"minimum=1,maximum=3"`
	Drives    []Form                 `json:"drives,omitempty" jsonschema:"uniqueItems=true"`                   // a SATA port's
	HeightMM  quantity.Millimetres   `json:"bayHeightMM,omitzero" jsonschema:"minimum=1"`                      // the tallest box that goes in
	Physical  quantity.Lanes         `json:"physicalLanes,omitzero" jsonschema:"enum=1,enum=4,enum=8,enum=16"` // a slot's length
	OpenEnd   quantity.Answer        `json:"openEnded,omitzero"`
	LengthsMM []quantity.Millimetres `json:"lengthsMM,omitempty" jsonschema:"uniqueItems=true"`
	WidthMM   quantity.Millimetres   `json:"widthMM,omitzero" jsonschema:"enum=22,enum=25,enum=30"` // the widest M.2 card there is room for
	CardRoom  quantity.Answer        `json:"cardRoom,omitzero"`                                     // of a slot: there is room for a card where the adapter is mounted
	Heatsink  quantity.Answer        `json:"heatsink,omitzero"`
	TopMM     quantity.Millimetres   `json:"clearTopMM,omitzero" jsonschema:"minimum=0.1"`
	BottomMM  quantity.Millimetres   `json:"clearBottomMM,omitzero" jsonschema:"minimum=0.1"`
}

// Kind is what sort of socket the position is.
func (p *Position) Kind() Takes {
	if p.Takes == "" {
		return TakesM2
	}
	return p.Takes
}

// Speaks is the protocols of the position; nil is not stated.
func (p *Position) Speaks() []link.Protocol {
	if len(p.Protocols) > 0 {
		return p.Protocols
	}
	if p.Takes == TakesSATA {
		return []link.Protocol{link.SATA}
	}
	return []link.Protocol{link.PCIe}
}

func (c *Card) validate() problem.List {
	var l problem.List
	if c.Use != "" && (c.Graphics || c.Carrier != nil) {
		l.Add("/use", fact.Of(OneUse))
	}
	if c.M2 != nil && c.Connector.Known() {
		l.Add("/connectorLanes", fact.Of(AdapterWithoutEdge))
	}
	if c.M2 != nil && c.Lanes > c.M2.MaxLanes() {
		l.Add("/lanes", fact.Of(EdgeNotchedAt, Keys(c.M2.Keys), c.M2.MaxLanes()))
	}
	if c.Carrier != nil {
		for i, p := range c.Carrier.Positions {
			at := "/carrier/positions/" + strconv.Itoa(i)
			if p.Takes == TakesSATA && !c.Carrier.Switch {
				l.Add(at+"/takes", fact.Of(PortsNeedController))
			}
			if p.Takes != TakesSATA && !p.Lanes.Known() {
				l.Add(at+"/lanes", fact.Of(LanesMissing))
			}
		}
	}
	if c.Connector.Known() && c.Lanes > c.Connector {
		l.Add("/lanes", fact.Of(EdgeTooShort, c.Connector, c.Lanes))
	}
	if c.Carrier == nil || c.Carrier.Switch {
		return l
	}
	taken := 0
	for i, p := range c.Carrier.Positions {
		at := "/carrier/positions/" + strconv.Itoa(i)
		if c.Lanes.Known() && p.FirstLane+int(p.Lanes) > int(c.Lanes) {
			l.Add(at+"/firstLane", fact.Of(LanesBeyondCard, int(p.FirstLane), int(p.FirstLane+int(p.Lanes)-1), c.Lanes))
		}
		if p.FirstLane < taken {
			l.Add(at+"/firstLane", fact.Of(LaneTaken, int(p.FirstLane)))
		}
		taken = p.FirstLane + int(p.Lanes)
	}
	return l
}

// Plain reports a carrier without a chip of its own: it joins the lanes of its slot to
// its positions and is itself no end of a link.
func (p *Part) Plain() bool {
	return p.Card != nil && p.Card.Carrier != nil && !p.Card.Carrier.Switch
}
