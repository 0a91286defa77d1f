// Package draft describes a machine that nobody wrote down by what it tells about itself: its sheet,
// what lies in it, and what nobody can know without opening it.
//
//	d := draft.Of(observation.Machine)
//	d.Sheet // every fact in it was seen; places on the picture are in order, and measured by nobody
//	d.Lines // what was found in it, as it is written down
//	d.Asks  // what a probe cannot see
package draft

import (
	"cmp"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/memory"
	"deepbay/internal/core/part"
	"deepbay/internal/core/power"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/shorthand"
)

// What a draft asks, by name.
const (
	AskClass     fact.Code = "draft/class"
	AskMemory    fact.Code = "draft/memory"
	AskRoots     fact.Code = "draft/roots"
	AskChannel   fact.Code = "draft/channel" // socket
	AskM2        fact.Code = "draft/m2"      // socket
	AskSlotLanes fact.Code = "draft/lanes"   // what it is called
	AskHome      fact.Code = "draft/home"    // drive, its function
	AskBays      fact.Code = "draft/bays"
	AskSettings  fact.Code = "draft/settings"
	AskLayers    fact.Code = "draft/layers"
	AskUnread    fact.Code = "draft/unread" // what, as the probe names it
	NotAMachine  fact.Code = "draft/virtual"
	TellsNothing fact.Code = "draft/nothing"
	ReadFrom     fact.Code = "draft/read-from"
)

// Draft is a machine as it tells of itself.
type Draft struct {
	Sheet machine.Sheet
	Lines []string    // what lies in it, a piece a line, with its place where that is known
	Asks  []fact.Fact // what a probe cannot see
}

// Of drafts a machine. The error says why nothing can be drafted.
func Of(m *power.Inventory) (Draft, error) {
	switch {
	case m.Virtual:
		return Draft{}, fact.Err(NotAMachine)
	case len(m.Memory.Modules)+len(m.Ports)+len(m.Slots) == 0:
		return Draft{}, fact.Err(TellsNothing)
	}
	d := drafter{m: m, ids: map[machine.SocketID]bool{}}
	d.sheet()
	d.memory()
	d.slots()
	d.ports()
	d.drives()
	if len(d.out.Sheet.Sockets) == 0 {
		return Draft{}, fact.Err(TellsNothing)
	}
	d.ask(AskRoots)
	d.ask(AskBays)
	d.ask(AskSettings)
	d.ask(AskLayers)
	for _, x := range m.Missed {
		if x.Why != power.NotOffered {
			d.ask(AskUnread, fact.Typed(x.What))
		}
	}
	for i := range d.out.Sheet.Sockets {
		k := &d.out.Sheet.Sockets[i]
		k.Told = &machine.Told{Gen: k.Gen, Lanes: k.Lanes, Physical: k.Physical, Key: k.Key}
		if k.Channel != machine.UntoldChannel {
			k.Told.Channel = k.Channel
		}
	}
	d.place()
	return d.out, nil
}

type drafter struct {
	m     *power.Inventory
	out   Draft
	ids   map[machine.SocketID]bool
	homes map[string]machine.SocketID // of PCI functions, by their addresses and those of the ports before them
}

func (d *drafter) ask(c fact.Code, args ...any) { d.out.Asks = append(d.out.Asks, fact.Of(c, args...)) }

// slug is a name for files.
func slug(s string) string {
	s = regexp.MustCompile(`[^a-z0-9]+`).ReplaceAllString(strings.ToLower(s), "-")
	s = strings.Trim(s, "-")
	if len(s) > 60 {
		s = strings.Trim(s[:60], "-")
	}
	return s
}

// root is all that lanes start from: which sockets hang on a chipset a machine does not tell.
const root machine.RootID = "cpu"

// classes is the kinds of machine by the chassis that firmware names.
var classes = map[string]machine.Class{"tower": machine.Tower, "mini-tower": machine.Tower, "desktop": machine.Small, "low-profile": machine.Small, "space-saving": machine.Small, "mini": machine.MiniPC, "stick": machine.MiniPC}

func (d *drafter) sheet() {
	name := cmp.Or(strings.TrimSpace(d.m.Product), strings.TrimSpace(d.m.Board))
	class, told := classes[d.m.Chassis]
	if !told {
		class = machine.Unclassed
		d.ask(AskClass)
	}
	d.out.Sheet = machine.Sheet{
		Format: machine.Format, Version: machine.Version, ID: machine.ID(cmp.Or(slug(name), "read-machine")), Name: cmp.Or(name, "read-machine"), Class: class,
		Firmware: machine.Firmware{Version: clip(d.m.Firmware, 60)},
		Roots:    []machine.Root{{ID: root, Name: "processor", Kind: machine.CPU}},
		Groups:   []machine.Group{}, Sockets: []machine.Socket{}, Settings: []machine.Setting{}, Rules: []machine.Rule{},
	}
}

func clip(s string, n int) string {
	if r := []rune(s); len(r) > n {
		return string(r[:n])
	}
	return s
}

// name makes a socket's name of what the machine calls it.
func (d *drafter) name(s string) machine.SocketID {
	s = regexp.MustCompile(`[^A-Za-z0-9_.-]+`).ReplaceAllString(strings.TrimSpace(s), "_")
	s = strings.Trim(s, "_.-")
	if len(s) > 36 {
		s = s[:36]
	}
	id := machine.SocketID(cmp.Or(s, "X"))
	for n := 2; d.ids[id]; n++ {
		id = machine.SocketID(cmp.Or(s, "X") + "-" + strconv.Itoa(n))
	}
	d.ids[id] = true
	return id
}

// channel is the letter of a memory channel in what firmware calls a slot or its bank.
var channel = regexp.MustCompile(`(?i)\bchannel[ _-]?([A-H])|^(?:SO)?DIMM[ _-]?([A-H])[0-9]`)

func (d *drafter) memory() {
	mem := &d.m.Memory
	form, family, all := memory.Form(""), memory.Generation(""), true
	ecc, registered := false, false
	for _, s := range mem.Modules {
		form, family = cmp.Or(form, s.Form), cmp.Or(family, s.Generation)
		ecc, registered = ecc || s.ECC && mem.ECC, registered || s.Registered
		all = all && (s.Empty || s.Bytes > 0)
	}
	if form == "" {
		if len(mem.Modules) > 0 {
			d.ask(AskMemory)
		}
		return
	}
	sheet := &d.out.Sheet.Memory
	sheet.Generation, sheet.Total.StatedBytes = family, mem.Most
	if ecc {
		sheet.ECC = quantity.Yes
	}
	if registered {
		sheet.Registered = quantity.Yes
	}
	for _, s := range mem.Modules {
		if s.Soldered {
			continue
		}
		k := machine.Socket{ID: d.name(cmp.Or(s.Locator, "DIMM")), Kind: machine.DIMM, Root: root}
		if form == memory.SODIMM {
			k.Kind = machine.SODIMM
		}
		for _, words := range []string{s.Bank, s.Locator} {
			if c := channel.FindStringSubmatch(words); c != nil && k.Channel == "" {
				k.Channel = machine.ChannelID(strings.ToUpper(c[1] + c[2]))
			}
		}
		if k.Channel == "" {
			k.Channel = machine.UntoldChannel
			d.ask(AskChannel, k.ID)
		}
		d.out.Sheet.Sockets = append(d.out.Sheet.Sockets, k)
		if !s.Empty && s.Bytes > 0 {
			p := part.Part{Module: &part.Module{Generation: cmp.Or(s.Generation, family), Form: cmp.Or(s.Form, form), SizeBytes: s.Bytes, RateMTps: s.Rate, Ranks: s.Ranks}}
			if s.ECC {
				p.Module.ECC = quantity.Yes
			}
			if s.Registered {
				p.Module.Registered = quantity.Yes
			}
			d.lies(k.ID, &p, strings.TrimSpace(s.Number), s.Serial)
		}
	}
}

// lies writes down what lies in a place, "" where that is not known.
func (d *drafter) lies(at machine.SocketID, p *part.Part, name, serial string) {
	words := shorthand.Write(p)
	if words == "" {
		return
	}
	if at != "" {
		words = string(at) + ": " + words
	}
	if name = strings.ReplaceAll(name, `"`, ""); name != "" {
		words += ` "` + name + `"`
	}
	if serial = strings.Join(strings.Fields(serial), ""); serial != "" {
		words += " S/N " + serial
	}
	d.out.Lines = append(d.out.Lines, words)
}

// group is lanes for one socket: which sockets share, a machine does not tell.
func (d *drafter) group(id machine.SocketID, lanes quantity.Lanes) machine.GroupID {
	g := machine.GroupID("lanes-" + strings.ToLower(string(id)))
	if len(g) > 40 {
		g = g[:40]
	}
	d.out.Sheet.Groups = append(d.out.Sheet.Groups, machine.Group{ID: g, Root: root, Lanes: lanes})
	return g
}

// slots drafts the slots that firmware's tables name.
func (d *drafter) slots() {
	d.homes = map[string]machine.SocketID{}
	for _, s := range d.m.Slots {
		lanes, gen := s.Lanes, s.Gen
		for i := range d.m.Devices {
			if x := &d.m.Devices[i]; s.Address != "" && (x.Address == s.Address || x.Parent == s.Address) {
				lanes, gen = cmp.Or(lanes, x.PortLanes), cmp.Or(gen, x.PortGen)
			}
		}
		if lanes == 0 {
			d.ask(AskSlotLanes, fact.Typed(s.Name))
			continue
		}
		k := machine.Socket{ID: d.name(cmp.Or(s.Name, "SLOT")), Kind: machine.Slot, Gen: gen, Lanes: lanes, Protocols: []link.Protocol{link.PCIe}}
		switch {
		case s.M2 && s.Key == "M":
			k.Kind, k.Key, k.Protocols = machine.M2, part.KeyM, nil
			d.ask(AskM2, k.ID)
		case s.M2:
			continue // for radios
		case s.U2:
			k.Kind, k.Protocols = machine.U2, nil
		case s.Long >= lanes:
			k.Physical = s.Long
		}
		k.Group = d.group(k.ID, lanes)
		d.out.Sheet.Sockets = append(d.out.Sheet.Sockets, k)
		if s.Address != "" {
			d.homes[s.Address] = k.ID
		}
	}
}

// ports drafts the SATA ports that controllers have.
func (d *drafter) ports() {
	for i, p := range d.m.Ports {
		k := machine.Socket{ID: d.name("SATA" + strconv.Itoa(i+1)), Kind: machine.SATA, Root: root, Protocols: []link.Protocol{link.SATA}}
		d.out.Sheet.Sockets = append(d.out.Sheet.Sockets, k)
		d.homes[p.Controller+"/"+strconv.Itoa(p.Port)] = k.ID
	}
}

// drives writes down the drives, and asks where those lie of which nothing tells.
func (d *drafter) drives() {
	for i := range d.m.Drives {
		x := &d.m.Drives[i]
		if x.Removable || x.Bytes == 0 {
			continue
		}
		p := part.Part{Drive: &part.Drive{CapacityBytes: x.Bytes}}
		var home machine.SocketID
		switch x.Bus {
		case power.BusNVMe:
			home = d.homes[x.Address]
			for k := range d.m.Devices {
				if f := &d.m.Devices[k]; f.Address == x.Address {
					home = cmp.Or(home, d.homes[f.Parent])
					p.Drive.Gen, p.Drive.Lanes = f.MostGen, f.MostLanes
				}
			}
			p.Drive.Protocol, p.Drive.Media = link.PCIe, part.Flash
			k := d.socket(home)
			if k == nil || k.Kind == machine.Slot {
				d.ask(AskHome, fact.Typed(cmp.Or(x.Model, x.Name)), fact.Typed(x.Address))
				continue
			}
			p.Drive.Form = part.FormU2
			if k.Kind == machine.M2 {
				p.Drive.Form, p.Drive.M2 = part.FormM2, &part.M2{}
			}
		case power.BusSATA: // its port is told, its form (2.5 or 3.5 inches, M.2) is not
			at := d.homes[x.Address+"/"+strconv.Itoa(x.Port)]
			d.ask(AskHome, fact.Typed(cmp.Or(x.Model, x.Name)), fact.Typed(cmp.Or(string(at), x.Address)))
			continue
		default:
			continue
		}
		d.lies(home, &p, x.Model, x.Serial)
	}
}

func (d *drafter) socket(id machine.SocketID) *machine.Socket {
	if id == "" {
		return nil
	}
	return d.out.Sheet.Socket(id)
}

// place draws the sockets in rows, kind by kind: in order, and to no scale.
func (d *drafter) place() {
	const wide, margin = 240, 10
	sizes := map[machine.Kind][2]quantity.Millimetres{machine.DIMM: {10, 90}, machine.SODIMM: {70, 9}, machine.Slot: {100, 9}, machine.M2: {80, 22}, machine.U2: {40, 16}, machine.SATA: {12, 12}}
	s := &d.out.Sheet
	s.Roots[0].Place = machine.Place{XMM: 100, YMM: margin, WidthMM: 40, HeightMM: 40}
	x, y, high := quantity.Millimetres(margin), quantity.Millimetres(60), quantity.Millimetres(0)
	last := machine.Kind("")
	for i := range s.Sockets {
		k := &s.Sockets[i]
		size := sizes[k.Kind]
		if k.Kind != last && last != "" || x+size[0] > wide-margin {
			x, y, high = margin, y+high+6, 0
		}
		last = k.Kind
		k.Place = machine.Place{XMM: x, YMM: y, WidthMM: size[0], HeightMM: size[1]}
		x += size[0] + 8
		high = max(high, size[1])
	}
	s.Board = machine.Board{WidthMM: wide, HeightMM: min(1000, y+high+margin)}
	slices.SortStableFunc(s.Groups, func(a, b machine.Group) int { return strings.Compare(string(a.ID), string(b.ID)) })
}
