// Package simbench is the simulated bench: a machine made from a job, which can be powered on, set,
// opened and broken, so that the whole job can be done, and learnt, without one.
//
// What it shows is what core foretells of a machine with faults (see fault.World); what it tells
// about itself has the form in which the probe reads a real one, and can be written as a tree
// of files that the probe reads.
package simbench

import (
	"fmt"

	"deepbay/internal/core/fault"
	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/power"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// PCI class codes of what is simulated (PCI code and ID assignment).
const (
	classNVMe     = "0x010802"
	classAHCI     = "0x010601"
	classGraphics = "0x030000"
	classNetwork  = "0x020000"
	classUSB      = "0x0c0330"
)

// Where the simulated controllers sit.
const (
	ahci = "0000:00:17.0"
	xhci = "0000:00:14.0"
)

// quiet is the temperature of a drive that is well, in degrees Celsius.
const quiet = 41

// Inventory is what a machine tells about itself while its system runs. Of one that does not come
// so far there is none.
func Inventory(w *fault.World) (power.Inventory, bool) {
	if w.Blind() || power.Systemless(w.Message()) {
		return power.Inventory{}, false
	}
	r := w.Rig()
	m := power.Inventory{Source: power.FromBench, Product: r.Sheet.Name, Firmware: r.Sheet.Firmware.Version, UEFI: true}
	if p := r.Sheet.Processor(r.Processor); p != nil {
		m.Processor = p.Name
	}
	memorySeen(w, r, &m)
	controllers := map[string]bool{}
	n := map[power.Bus]int{}
	for _, k := range r.Places() {
		p := r.PieceIn(k.Path)
		if p == nil {
			if k.Kind == machine.SATA && !k.Path.Nested() {
				m.Ports = append(m.Ports, power.PortSeen{Controller: ahci, Port: port(r, k.Path)})
			}
			continue
		}
		lk, linked := w.Read(power.LineID{Kind: power.LinkOf, Socket: k.Path})
		switch {
		case p.Part.Card != nil && p.Part.Card.Carrier == nil && linked && !lk.Absent:
			class := classNetwork
			if p.Part.Card.Graphics {
				class = classGraphics
			}
			m.Devices = append(m.Devices, device(len(m.Devices), class, &k, lk))
		case p.Part.Drive != nil:
			d, ok := drive(w, r, p, &k, lk, n)
			if k.Kind == machine.SATA && !k.Path.Nested() {
				gen := d.Gen
				if !ok {
					gen = 0
				}
				m.Ports = append(m.Ports, power.PortSeen{Controller: ahci, Port: port(r, k.Path), Gen: gen})
			}
			if !ok {
				continue
			}
			switch d.Bus {
			case power.BusNVMe:
				f := device(len(m.Devices), classNVMe, &k, lk)
				d.Address, f.Errors = f.Address, d.Errors
				m.Devices = append(m.Devices, f)
			case power.BusSATA:
				controllers[ahci] = true
			case power.BusUSB:
				controllers[xhci] = true
			}
			m.Drives = append(m.Drives, d)
		}
	}
	for _, c := range []struct{ address, class string }{{ahci, classAHCI}, {xhci, classUSB}} {
		if controllers[c.address] || c.address == ahci && len(m.Ports) > 0 {
			m.Devices = append(m.Devices, power.PCIDevice{Address: c.address, Class: c.class, Vendor: "0x1d0f", Device: "0x0001"})
		}
	}
	return m, true
}

func memorySeen(w *fault.World, r *rig.Rig, m *power.Inventory) {
	if u, ok := w.Read(power.LineID{Kind: power.Usable}); ok && !u.Absent {
		m.Memory.Usable = u.Bytes &^ (quantity.KiB - 1)
	}
	rate, _ := w.Read(power.LineID{Kind: power.Rate})
	m.Memory.Most = r.Sheet.Memory.Total.StatedBytes
	for i := range r.Sheet.Sockets {
		k := &r.Sheet.Sockets[i]
		if !k.Kind.Memory() {
			continue
		}
		m.Memory.Slots++
		s := power.ModuleSeen{Locator: string(k.ID), Bank: bank(k), Empty: true}
		p := r.PieceIn(rig.On(k.ID))
		if got, ok := w.Read(power.LineID{Kind: power.Slot, Socket: rig.On(k.ID)}); ok && !got.Absent && p != nil && p.Part.Module != nil {
			d := p.Part.Module
			s = power.ModuleSeen{Locator: string(k.ID), Bank: bank(k), Bytes: got.Bytes, Form: d.Form, Generation: d.Generation, Rate: max(d.RateMTps, d.ProfileMTps), Configured: rate.MTps,
				Ranks: d.Ranks, ECC: d.ECC == quantity.Yes, Registered: d.Registered == quantity.Yes, Number: p.Part.Number, Serial: p.Serial}
		}
		m.Memory.Modules = append(m.Memory.Modules, s)
	}
	m.Memory.ECC = r.Sheet.Memory.ECC == quantity.Yes
}

// port is the number of a SATA port among those of the board, from 1 on.
func port(r *rig.Rig, at rig.Path) int {
	n := 0
	for i := range r.Sheet.Sockets {
		if k := &r.Sheet.Sockets[i]; k.Kind == machine.SATA {
			if n++; k.ID == at.Top() {
				return n
			}
		}
	}
	return 0
}

// device is the n-th function behind a port of its own.
func device(n int, class string, k *rig.Place, lk power.Reading) power.PCIDevice {
	return power.PCIDevice{Address: fmt.Sprintf("0000:%02x:00.0", n+1), Parent: fmt.Sprintf("0000:00:%02x.%d", 1+n/8, n%8), Depth: 1,
		Class: class, Vendor: "0x1d0f", Device: "0x1001", Gen: lk.Gen, Lanes: lk.Lanes, MostGen: lk.Gen, MostLanes: lk.Lanes, PortGen: max(k.Gen, lk.Gen), PortLanes: max(k.Lanes, lk.Lanes)}
}

// drive is a drive as the system lists it; false is that it does not.
func drive(w *fault.World, r *rig.Rig, p *rig.Piece, k *rig.Place, lk power.Reading, n map[power.Bus]int) (power.DriveSeen, bool) {
	got, ok := w.Read(power.LineID{Kind: power.Disk, Socket: k.Path})
	if !ok || got.Absent || p.Part.Drive.Form.Optical() {
		return power.DriveSeen{}, false
	}
	d := power.DriveSeen{Model: clip(p.Part.Name, 40), Serial: clip(p.Serial, 20), Bytes: got.Bytes &^ 511, Turns: p.Part.Drive.Media == part.Platter, Blank: p.Holds == rig.Blank}
	// What lanes count the kernel tells; what a SATA drive counts is behind commands that a probe does not send.
	if c, ok := w.Read(power.LineID{Kind: power.Counts, Socket: k.Path}); ok && c.Value == power.Rising && lk.Lanes.Known() {
		d.Errors = 37
	}
	if h, ok := w.Read(power.LineID{Kind: power.Heat, Socket: k.Path}); ok {
		d.Celsius = h.Celsius
	} else if p.Part.M2() != nil {
		d.Celsius = quiet
	}
	switch {
	case r.Outside(k.Path):
		d.Bus, d.Celsius = power.BusUSB, 0
		box, _ := w.Read(power.LineID{Kind: power.LinkOf, Socket: k.Path.Holder()})
		d.Mbps = int(box.Gbps * 1000)
	case p.Part.Drive.Protocol == link.PCIe:
		d.Bus, d.Gen, d.Lanes = power.BusNVMe, lk.Gen, lk.Lanes
		d.Name = fmt.Sprintf("nvme%dn1", n[d.Bus])
	default:
		d.Bus, d.Gen, d.Port, d.Address = power.BusSATA, lk.Gen, port(r, k.Path), ahci
	}
	n[d.Bus]++
	if d.Bus != power.BusNVMe {
		i := n[power.BusSATA] + n[power.BusUSB] - 1
		d.Name = "sd" + letters(i)
		if d.Bus == power.BusUSB {
			d.Address = xhci
		}
	}
	return d, true
}

// letters counts as the kernel counts disks: a to z, aa, ab.
func letters(i int) string {
	if i < 26 {
		return string(rune('a' + i))
	}
	return letters(i/26-1) + string(rune('a'+i%26))
}

func clip(s string, n int) string {
	if len(s) > n {
		return s[:n]
	}
	return s
}

// bank is what firmware calls the channel of a slot.
func bank(k *machine.Socket) string {
	if k.Channel == "" {
		return ""
	}
	return "channel-" + string(k.Channel)
}
