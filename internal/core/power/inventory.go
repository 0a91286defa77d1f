package power

// This file is what a running machine tells about itself, as the probe or an import reads it.
// It knows no sheet: places are named as the machine names them.

import (
	"deepbay/internal/core/memory"
	"deepbay/internal/core/quantity"
)

// Inventory is what a running machine tells about itself. What it does not tell is left out.
type Inventory struct {
	Source    Source      `json:"source,omitempty"`
	Maker     string      `json:"maker,omitempty" jsonschema:"maxLength=200"`
	Product   string      `json:"product,omitempty" jsonschema:"maxLength=200"`
	Serial    string      `json:"serial,omitempty" jsonschema:"maxLength=200"`
	Board     string      `json:"board,omitempty" jsonschema:"maxLength=200"`
	Chassis   string      `json:"chassis,omitempty" jsonschema:"maxLength=40"` // tower, mini, space-saving, ...
	Firmware  string      `json:"firmware,omitempty" jsonschema:"maxLength=200"`
	Dated     string      `json:"firmwareDate,omitempty" jsonschema:"maxLength=40"`
	UEFI      bool        `json:"uefi,omitempty"`    // it was started so
	Virtual   bool        `json:"virtual,omitempty"` // it is no machine of its own
	Processor string      `json:"processor,omitempty" jsonschema:"maxLength=200"`
	Memory    MemorySeen  `json:"memory,omitzero"`
	Slots     []SlotSeen  `json:"slots,omitempty" jsonschema:"maxItems=256"`
	Devices   []PCIDevice `json:"devices,omitempty" jsonschema:"maxItems=1024"`
	Drives    []DriveSeen `json:"drives,omitempty" jsonschema:"maxItems=256"`
	Ports     []PortSeen  `json:"ports,omitempty" jsonschema:"maxItems=256"` // SATA ports, used or not
	Missed    []Missed    `json:"missed,omitempty" jsonschema:"maxItems=200"`
}

// Source is where an inventory comes from.
type Source string

// The sources.
const (
	FromLinux   Source = "linux"
	FromWindows Source = "windows"
	FromBench   Source = "simulated"
)

// Values lists the sources for the formats.
func (Source) Values() []string {
	return []string{string(FromLinux), string(FromWindows), string(FromBench)}
}

// Missed is something that could not be read, and why.
type Missed struct {
	What string `json:"what" jsonschema:"maxLength=200"` // a path, or what it is
	Why  Unread `json:"why"`
}

// Unread is why something could not be read.
type Unread string

// The reasons.
const (
	NeedsRoot  Unread = "needs-root"
	NotOffered Unread = "not-there"  // this machine, or its kernel, does not tell
	Damaged    Unread = "damaged"    // what stands there is cut off or makes no sense
	TooBig     Unread = "too-big"    // more than anything like it holds
	NotAFile   Unread = "not-a-file" // a pipe, a device, a link out of the tree
)

// Values lists the reasons for the formats.
func (Unread) Values() []string {
	return []string{string(NeedsRoot), string(NotOffered), string(Damaged), string(TooBig), string(NotAFile)}
}

// MemorySeen is the memory as firmware's tables (SMBIOS types 16 and 17) and the system tell.
type MemorySeen struct {
	Usable  quantity.Bytes `json:"usableBytes,omitzero"`
	Most    quantity.Bytes `json:"mostBytes,omitzero"` // that the board takes, as its firmware states
	Slots   int            `json:"slots,omitzero" jsonschema:"minimum=0,maximum=256"`
	ECC     bool           `json:"ecc,omitempty"`     // its array corrects errors
	Watched bool           `json:"watched,omitempty"` // and the system counts them
	Modules []ModuleSeen   `json:"modules,omitempty" jsonschema:"maxItems=256"`
}

// ModuleSeen is one memory slot with what is in it.
type ModuleSeen struct {
	Locator    string            `json:"locator,omitempty" jsonschema:"maxLength=120"` // as the board prints it
	Bank       string            `json:"bank,omitempty" jsonschema:"maxLength=120"`
	Empty      bool              `json:"empty,omitempty"`
	Bytes      quantity.Bytes    `json:"bytes,omitzero"`
	Form       memory.Form       `json:"form,omitempty"`
	Soldered   bool              `json:"soldered,omitempty"`
	Generation memory.Generation `json:"generation,omitzero"`
	Rate       quantity.MTps     `json:"rateMTps,omitzero"`       // at most
	Configured quantity.MTps     `json:"configuredMTps,omitzero"` // now
	Ranks      int               `json:"ranks,omitzero" jsonschema:"minimum=0,maximum=15"`
	ECC        bool              `json:"ecc,omitempty"`
	Registered bool              `json:"registered,omitempty"`
	Maker      string            `json:"maker,omitempty" jsonschema:"maxLength=120"`
	Number     string            `json:"number,omitempty" jsonschema:"maxLength=120"`
	Serial     string            `json:"serial,omitempty" jsonschema:"maxLength=120"`
}

// SlotSeen is a slot as firmware's tables name it (SMBIOS type 9).
type SlotSeen struct {
	Name    string         `json:"name,omitempty" jsonschema:"maxLength=120"`
	M2      bool           `json:"m2,omitempty"`
	Key     string         `json:"key,omitempty" jsonschema:"maxLength=2"`
	U2      bool           `json:"u2,omitempty"`
	Gen     quantity.Gen   `json:"gen,omitzero"`
	Lanes   quantity.Lanes `json:"lanes,omitzero"` // wired
	Long    quantity.Lanes `json:"physicalLanes,omitzero"`
	InUse   bool           `json:"inUse,omitempty"`
	Address string         `json:"address,omitempty" jsonschema:"maxLength=20"` // of what is in it, or of the port before it
}

// PCIDevice is a PCI function that is no bridge, with its link.
type PCIDevice struct {
	Address   string         `json:"address" jsonschema:"maxLength=20"`
	Parent    string         `json:"parent,omitempty" jsonschema:"maxLength=20"` // the port before it
	Depth     int            `json:"depth,omitempty" jsonschema:"maximum=32"`    // bridges before it: three and more are a switch
	Class     string         `json:"class,omitempty" jsonschema:"maxLength=10"`
	Vendor    string         `json:"vendor,omitempty" jsonschema:"maxLength=10"`
	Device    string         `json:"device,omitempty" jsonschema:"maxLength=10"`
	Gen       quantity.Gen   `json:"gen,omitzero"`
	Lanes     quantity.Lanes `json:"lanes,omitzero"`
	MostGen   quantity.Gen   `json:"mostGen,omitzero"`
	MostLanes quantity.Lanes `json:"mostLanes,omitzero"`
	PortGen   quantity.Gen   `json:"portGen,omitzero"` // the other end, at most
	PortLanes quantity.Lanes `json:"portLanes,omitzero"`
	Errors    int            `json:"errors,omitempty" jsonschema:"minimum=0"` // corrected, since the start
}

// DriveSeen is a drive as the system lists it.
type DriveSeen struct {
	Name      string           `json:"name,omitempty" jsonschema:"maxLength=60"` // nvme0n1, sda
	Model     string           `json:"model,omitempty" jsonschema:"maxLength=120"`
	Serial    string           `json:"serial,omitempty" jsonschema:"maxLength=120"`
	Firmware  string           `json:"firmware,omitempty" jsonschema:"maxLength=40"`
	Bytes     quantity.Bytes   `json:"bytes,omitzero"`
	Bus       Bus              `json:"bus,omitempty"`
	Turns     bool             `json:"turns,omitempty"` // platters
	Removable bool             `json:"removable,omitempty"`
	Blank     bool             `json:"blank,omitempty"`                                  // no partition on it, no file system of the whole drive, no member of an array, no encryption
	Address   string           `json:"address,omitempty" jsonschema:"maxLength=20"`      // of its PCI function
	Port      int              `json:"port,omitzero" jsonschema:"minimum=0,maximum=999"` // of its SATA controller, from 1 on
	Gen       quantity.Gen     `json:"gen,omitzero"`                                     // of its link
	Lanes     quantity.Lanes   `json:"lanes,omitzero"`
	Mbps      int              `json:"linkMbps,omitzero" jsonschema:"minimum=0,maximum=200000"` // of a USB link
	Celsius   quantity.Celsius `json:"celsius,omitzero"`
	Errors    int              `json:"errors,omitempty" jsonschema:"minimum=0"` // of its link, since the start
}

// Bus is how a drive hangs on the machine.
type Bus string

// The buses.
const (
	BusNVMe    Bus = "nvme"
	BusSATA    Bus = "sata"
	BusUSB     Bus = "usb"
	BusSAS     Bus = "sas"
	BusVirtual Bus = "virtual"
	BusRAID    Bus = "raid" // behind a controller that shows its own disks
)

// Values lists the buses for the formats.
func (Bus) Values() []string {
	return []string{string(BusNVMe), string(BusSATA), string(BusUSB), string(BusSAS), string(BusVirtual), string(BusRAID)}
}

// PortSeen is a SATA port.
type PortSeen struct {
	Controller string       `json:"controller,omitempty" jsonschema:"maxLength=20"`
	Port       int          `json:"port" jsonschema:"minimum=0,maximum=999"`
	Gen        quantity.Gen `json:"gen,omitzero"` // at which it runs, 0 for none
}
