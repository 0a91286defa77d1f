package rig

// This file is what a machine is for after the job: what it starts from, and which drives
// work together.

import (
	"deepbay/internal/core/machine"
	"deepbay/internal/core/quantity"
)

// StartHow is how a machine comes to start afterwards.
type StartHow string

// How a machine starts afterwards; "" is not said.
const (
	Install      StartHow = "install" // a system is put onto a drive anew
	CopyOver     StartHow = "copy"    // the system is copied onto it
	FromDisk     StartHow = "disk"    // a drive holds it already
	StartNothing StartHow = "nothing" // nothing yet, and that is wanted
)

// Values lists the ways for the formats.
func (StartHow) Values() []string {
	return []string{string(Install), string(CopyOver), string(FromDisk), string(StartNothing)}
}

// Start is what starts a machine afterwards: from a drive, or from an array.
type Start struct {
	How   StartHow `json:"how,omitempty"`
	Item  ItemID   `json:"item,omitempty" jsonschema:"maxLength=60"`
	Array ArrayID  `json:"array,omitempty" jsonschema:"maxLength=60"`
}

// ArrayID names an array in a job.
type ArrayID string

// Level is how the members of an array share what is written.
type Level string

// The levels that firmware offers.
const (
	Stripe      Level = "0"
	Mirror      Level = "1"
	Parity      Level = "5"
	TwoParities Level = "6"
	MirrorsOver Level = "10"
	Joined      Level = "joined" // one behind the other
)

// Values lists the levels for the formats.
func (Level) Values() []string {
	return []string{string(Stripe), string(Mirror), string(Parity), string(TwoParities), string(MirrorsOver), string(Joined)}
}

// Maker is who makes an array.
type Maker string

// Firmware's arrays are there before a system starts, and hang on the board's controller; the
// system's are made by its own volume manager, and any machine with such a system reads them. "" is
// firmware.
const (
	ByFirmware Maker = "firmware"
	BySystem   Maker = "system"
)

// Values lists the makers for the formats.
func (Maker) Values() []string { return []string{string(ByFirmware), string(BySystem)} }

// DriveArray is drives that are one disk together.
type DriveArray struct {
	ID      ArrayID  `json:"id" jsonschema:"minLength=1,maxLength=60,pattern=^[a-z0-9][a-z0-9._-]*$"`
	Level   Level    `json:"level"`
	Members []ItemID `json:"members" jsonschema:"maxItems=32,uniqueItems=true"`
	Mode    Choice   `json:"mode,omitzero"` // the setting that firmware needs for it
	By      Maker    `json:"by,omitempty"`
	Came    bool     `json:"came,omitempty"` // it was there with its data as the machine came: it is kept, and never made anew
}

// Fewest is how many members a level needs.
func (l Level) Fewest() int {
	switch l {
	case Parity:
		return 3
	case TwoParities, MirrorsOver:
		return 4
	}
	return 2
}

// Takes reports that a level can be made of n members.
func (l Level) Takes(n int) bool { return n >= l.Fewest() && (l != MirrorsOver || n%2 == 0) }

// Capacity is what an array of members of these sizes shows: every member gives as much as the
// smallest, unless they are joined one behind the other.
func (l Level) Capacity(members []quantity.Bytes) quantity.Bytes {
	if len(members) == 0 {
		return 0
	}
	smallest, sum := members[0], quantity.Bytes(0)
	for _, c := range members {
		smallest, sum = min(smallest, c), sum+c
	}
	n := quantity.Bytes(len(members))
	switch l {
	case Mirror:
		return smallest
	case Parity:
		return smallest * (n - 1)
	case TwoParities:
		return smallest * max(0, n-2)
	case MirrorsOver:
		return smallest * (n / 2)
	case Joined:
		return sum
	}
	return smallest * n
}

// ArrayBytes is what an array of the rig shows; 0 where a member's capacity is not known.
func (r *Rig) ArrayBytes(a *DriveArray) quantity.Bytes {
	sizes := make([]quantity.Bytes, 0, len(a.Members))
	for _, id := range a.Members {
		p := r.Piece(id)
		if p == nil || p.Part.Drive == nil || !p.Part.Drive.CapacityBytes.Known() {
			return 0
		}
		sizes = append(sizes, p.Part.Drive.CapacityBytes)
	}
	return a.Level.Capacity(sizes)
}

// ArrayOf is the array that a piece is a member of, nil for none.
func (r *Rig) ArrayOf(id ItemID) *DriveArray {
	for i := range r.Arrays {
		for _, m := range r.Arrays[i].Members {
			if m == id {
				return &r.Arrays[i]
			}
		}
	}
	return nil
}

// Firmwares is the array of firmware's that a piece is a member of, nil for none: what is in one is
// not seen by itself.
func (r *Rig) Firmwares(id ItemID) *DriveArray {
	if a := r.ArrayOf(id); a != nil && a.By != BySystem {
		return a
	}
	return nil
}

// ModeOf is the setting that an array needs, nil where none is named.
func (r *Rig) ModeOf(a *DriveArray) *machine.Setting { return r.Sheet.Setting(a.Mode.Setting) }
