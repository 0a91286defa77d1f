package part

// This file describes boxes that put a drive outside, on a USB port.

import (
	"strconv"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/link"
	"deepbay/internal/core/problem"
	"deepbay/internal/core/quantity"
)

// Enclosure is a box on a USB port. Its bridge chip translates between USB and
// what the drive speaks; all its drives share the one USB link.
type Enclosure struct {
	USB        link.USBMode    `json:"usb,omitempty"` // the fastest mode of its bridge and of the cable with it
	Positions  []Position      `json:"positions" jsonschema:"minItems=1,maxItems=16"`
	Queues     quantity.Answer `json:"queues,omitzero"`     // commands are queued (UAS), not one at a time
	Trims      quantity.Answer `json:"trims,omitzero"`      // passes on what was deleted (TRIM)
	OwnSupply  quantity.Answer `json:"ownSupply,omitzero"`  // fed from the mains, not from the port
	Translates quantity.Answer `json:"translates,omitzero"` // shows other sectors, or encrypts: the drive is unreadable without it
}

func (e *Enclosure) validate() problem.List {
	var l problem.List
	for i := range e.Positions {
		if e.Positions[i].Takes == TakesSlot {
			l.Add("/positions/"+strconv.Itoa(i)+"/takes", fact.Of(BoxWithoutSlot))
		}
	}
	return l
}
