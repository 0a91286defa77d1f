// Package link says what a PCI Express, SATA or USB link carries and what
// limits it. A Link is a generation and a width; two ends that meet settle on
// the lower of each (Train). An end that is not stated leaves the result unknown.
//
//	drive, socket := link.Link{Gen: 4, Lanes: 4}, link.Link{Gen: 3, Lanes: 4}
//	drive.Train(socket)              // Gen 3 x4
//	drive.Train(socket).LineRate()   // 3.94 GB/s before packet overhead
package link

import "deepbay/internal/core/quantity"

// Protocol is the language a link speaks.
type Protocol string

// The protocols a drive or socket may speak. NVMe drives speak PCIe.
const (
	PCIe Protocol = "pcie"
	SATA Protocol = "sata"
	USB  Protocol = "usb"
)

// Values lists the protocols for the formats.
func (Protocol) Values() []string { return []string{string(PCIe), string(SATA), string(USB)} }

// String prints the trade's spelling.
func (p Protocol) String() string {
	switch p {
	case PCIe:
		return "PCIe"
	case SATA:
		return "SATA"
	case USB:
		return "USB"
	}
	return "unknown protocol"
}

// Link is one PCI Express link or one end of it. The zero Link is unknown.
type Link struct {
	Gen   quantity.Gen   `json:"gen,omitzero"`
	Lanes quantity.Lanes `json:"lanes,omitzero"`
}

// Known reports whether both generation and width are known.
func (l Link) Known() bool { return l.Gen.Known() && l.Lanes.Known() }

// String prints "Gen 4 x4".
func (l Link) String() string { return l.Gen.String() + " " + l.Lanes.String() }

// Train is the link two ends settle on: the lower generation and the narrower
// width (PCI Express Base, link training; narrower widths between x1 and the
// maximum are optional in the standard and nearly always there). What either end
// does not state is unknown in the result.
func (l Link) Train(o Link) Link {
	var out Link
	if l.Gen.Known() && o.Gen.Known() {
		out.Gen = min(l.Gen, o.Gen)
	}
	if l.Lanes.Known() && o.Lanes.Known() {
		out.Lanes = min(l.Lanes, o.Lanes)
	}
	return out
}

// pcieGen is one generation's line (PCI Express Base): gigatransfers a second
// and the share of bits that carry data after line coding.
type pcieGen struct {
	gtps          float64
	coded, onWire float64
}

// pcieGens is indexed by generation; entry 0 is "not stated".
var pcieGens = [...]pcieGen{
	1: {2.5, 8, 10},
	2: {5, 8, 10},
	3: {8, 128, 130},
	4: {16, 128, 130},
	5: {32, 128, 130},
	6: {64, 1, 1}, // flit mode: no line coding, the cost is in the flit
}

// MaxGen is the newest PCI Express generation the tables know.
const MaxGen = quantity.Gen(len(pcieGens) - 1)

// LineRate is the payload after line coding, one direction, before packet
// overhead: lanes x GT/s x 1000/8 x coding, in MB/s.
func (l Link) LineRate() quantity.Rate {
	if !l.Known() || l.Gen > MaxGen {
		return 0
	}
	g := pcieGens[l.Gen]
	return quantity.MBps(g.gtps * 1000 / 8 * g.coded / g.onWire * float64(l.Lanes))
}

// Header is the length of a transaction layer packet's header in bytes.
type Header int

// The two header lengths of PCI Express: three double words for completions and
// 32-bit addresses, four for memory writes with a 64-bit address.
const (
	ThreeDW Header = 12
	FourDW  Header = 16
)

// flitTLP is the share of a 256-byte flit that carries packets (PCIe 6.0: 236 of 256).
const flitTLP = 236.0 / 256

// Efficiency names what the packet overhead depends on: the payload of each
// packet in bytes and its header.
type Efficiency struct {
	Payload int
	Header  Header
}

// Of is the share of a generation's line rate left for data when every packet
// carries e.Payload bytes: P/(P+8+H). The 8 bytes are framing, sequence number and
// link CRC. In flit mode (generation 6) the flit's own overhead takes their
// place. ECRC, acknowledgements and skip sets are not counted.
func (e Efficiency) Of(gen quantity.Gen) float64 {
	p := float64(e.Payload)
	if gen >= 6 {
		return flitTLP * p / (p + float64(e.Header))
	}
	return p / (p + 8 + float64(e.Header))
}

// Typical is what desktop root ports mostly do: 256 bytes a packet, 64-bit addresses.
var Typical = Efficiency{Payload: 256, Header: FourDW}

// Usable is the line rate less packet overhead under e.
func (l Link) Usable(e Efficiency) quantity.Rate {
	return l.LineRate() * quantity.Rate(e.Of(l.Gen))
}

// skipSets is the share left after skip ordered sets, acknowledgements and flow
// control of an ordinary stream.
const skipSets = 0.98

// Planning is what to plan with: the line rate less packet overhead under Typical
// and less the link's own traffic. x4 of generation 3 is 3.53 GB/s.
func (l Link) Planning() quantity.Rate { return l.Usable(Typical) * skipSets }

// SATARate is the payload of a SATA link after 8b/10b coding: 150, 300, 600
// MB/s for generations 1 to 3, zero for any other.
func SATARate(g quantity.Gen) quantity.Rate {
	if g < 1 || g > 3 {
		return 0
	}
	return quantity.MBps(75 * float64(uint(1)<<g))
}
