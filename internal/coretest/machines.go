// Package coretest makes random machines for tests: sheets that validate, with
// parts placed in them, well and badly. The same source of randomness makes the
// same machine.
package coretest

import (
	"fmt"
	"math/rand"

	"deepbay/internal/core/layer"
	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/memory"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// Machine makes a build: roots with uplinks, groups whose lanes neighbours share,
// slots that split, settings, processors, memory, USB; and parts in a part of it.
func Machine(rng *rand.Rand) rig.Rig {
	m := maker{Rand: rng, sheet: &machine.Sheet{ID: "random", Name: "Random", Class: machine.Tower, Board: machine.Board{WidthMM: 300, HeightMM: 300}}}
	m.roots()
	m.groups()
	m.ports()
	m.memory()
	m.settings()
	b := rig.Rig{Sheet: m.sheet}
	if len(m.sheet.Processors) > 0 && m.Intn(3) > 0 {
		b.Processor = m.sheet.Processors[m.Intn(2)].ID
	}
	for i := range m.sheet.Settings {
		if s := &m.sheet.Settings[i]; m.Intn(2) == 0 {
			b.Settings = append(b.Settings, rig.Choice{Setting: s.ID, Value: s.Options[m.Intn(len(s.Options))].Value})
		}
	}
	m.place(&b)
	m.plugs()
	if m.Intn(2) == 0 {
		m.bays()
	}
	m.layers()
	return b
}

// plugs are counted in most sheets, and more or less enough. They, and the bays after them,
// come from chance of their own, so that a seed's machine is otherwise what it was before there were any.
func (m *maker) plugs() {
	m.Rand = rand.New(rand.NewSource(int64(len(m.sheet.Sockets)*100 + len(m.sheet.Rules))))
	for _, p := range []part.Plug{part.PlugSATA, part.PlugMolex, part.Plug6, part.Plug8} {
		if m.Intn(8) > 0 {
			m.sheet.Chassis.Plugs = append(m.sheet.Chassis.Plugs, machine.PlugCount{Kind: p, Count: 2 + m.Intn(12)})
		}
	}
}

type maker struct {
	*rand.Rand
	sheet *machine.Sheet
}

// pick is one of several.
func pick[T any](m *maker, of ...T) T { return of[m.Intn(len(of))] }

var at = machine.Place{XMM: 1, YMM: 1, WidthMM: 10, HeightMM: 10}

func (m *maker) roots() {
	m.sheet.Roots = []machine.Root{{ID: "cpu", Name: "processor", Kind: machine.CPU, Place: at}}
	to := machine.RootID("cpu")
	for i := range m.Intn(3) {
		id := machine.RootID(fmt.Sprint("chipset", i))
		up := machine.Uplink{To: to, Gen: quantity.Gen(2 + m.Intn(4)), Lanes: pick[quantity.Lanes](m, 2, 4, 8)}
		if m.Intn(10) == 0 {
			up.Gen = 0
		}
		m.sheet.Roots = append(m.sheet.Roots, machine.Root{ID: id, Name: string(id), Kind: machine.Chipset, Place: at, Uplink: &up})
		if m.Intn(2) == 0 {
			to = id // the next hangs behind this one
		}
	}
	if m.Intn(2) == 0 {
		m.sheet.Processors = []machine.Processor{{ID: "old", Name: "old"}, {ID: "new", Name: "new"}}
	}
}

func (m *maker) add(k machine.Socket) machine.SocketID {
	k.ID = machine.SocketID(fmt.Sprintf("%s%d", string(k.Kind), len(m.sheet.Sockets)+1))
	k.Place = at
	m.sheet.Sockets = append(m.sheet.Sockets, k)
	return k.ID
}

func (m *maker) rule(when machine.Condition, then machine.Effect) {
	m.sheet.Rules = append(m.sheet.Rules, machine.Rule{ID: fmt.Sprint("r", len(m.sheet.Rules)), When: []machine.Condition{when}, Then: []machine.Effect{then}})
}

func (m *maker) m2(group machine.GroupID, first int) machine.SocketID {
	k := machine.Socket{Kind: machine.M2, Group: group, FirstLane: first, Gen: quantity.Gen(2 + m.Intn(4)), Lanes: 4, SATAGen: 3, Key: part.KeyM,
		Protocols: pick(m, []link.Protocol{link.PCIe}, []link.Protocol{link.PCIe, link.SATA}, []link.Protocol{link.SATA}, nil), LengthsMM: []quantity.Millimetres{60, 80}}
	if m.Intn(10) == 0 {
		k.Gen = 0
	}
	return m.add(k)
}

func (m *maker) slot(group machine.GroupID, first int, lanes quantity.Lanes) machine.SocketID {
	k := machine.Socket{Kind: machine.Slot, Group: group, FirstLane: first, Gen: quantity.Gen(2 + m.Intn(4)), Lanes: lanes, Physical: 16, Protocols: []link.Protocol{link.PCIe}, Opening: len(m.sheet.Sockets) + 1}
	if lanes >= 8 {
		k.Splits = [][]quantity.Lanes{{4, 4}}
	}
	if lanes == 16 {
		k.Splits = [][]quantity.Lanes{{8, 8}, {8, 4, 4}, {4, 4, 4, 4}}
	}
	return m.add(k)
}

// groups deals lanes: a wide slot whose upper lanes a neighbour may take, and
// groups of four for M.2 sockets and small slots.
func (m *maker) groups() {
	for i := range 1 + m.Intn(3) {
		g := machine.GroupID(fmt.Sprint("wide", i))
		m.sheet.Groups = append(m.sheet.Groups, machine.Group{ID: g, Root: "cpu", Lanes: 16})
		wide := m.slot(g, 0, 16)
		holds := func(id machine.SocketID) machine.Condition {
			return machine.Condition{Socket: id, Holds: machine.HoldsAnything}
		}
		switch m.Intn(4) {
		case 0:
			m.rule(holds(m.slot(g, 8, 8)), machine.Effect{Socket: wide, MaxLanes: 8})
		case 1:
			m.rule(holds(m.m2(g, 8)), machine.Effect{Socket: wide, MaxLanes: 8})
			m.rule(holds(m.m2(g, 12)), machine.Effect{Socket: wide, MaxLanes: 8})
		case 2:
			m.rule(holds(m.m2(g, 0)), machine.Effect{Socket: wide, Off: true})
		}
	}
	for i := range 1 + m.Intn(3) {
		g := machine.GroupID(fmt.Sprint("small", i))
		m.sheet.Groups = append(m.sheet.Groups, machine.Group{ID: g, Root: pick(m, m.sheet.Roots...).ID, Lanes: 12})
		for n := range m.Intn(3) {
			if m.Intn(3) == 0 {
				m.slot(g, 4*n, 4)
			} else {
				m.m2(g, 4*n)
			}
		}
	}
}

func (m *maker) ports() {
	root := m.sheet.Roots[len(m.sheet.Roots)-1].ID
	var m2s []machine.SocketID
	for _, k := range m.sheet.Sockets {
		if k.Kind == machine.M2 {
			m2s = append(m2s, k.ID)
		}
	}
	for range m.Intn(5) {
		id := m.add(machine.Socket{Kind: machine.SATA, Root: root, SATAGen: quantity.Gen(1 + m.Intn(3)), Protocols: []link.Protocol{link.SATA}, Mount: machine.Mount{Drives: []part.Form{part.Form2i5, part.Form3i5}}})
		if len(m2s) > 0 && m.Intn(3) == 0 {
			m.rule(machine.Condition{Socket: pick(m, m2s...), Holds: pick(m, machine.HoldsAnything, machine.HoldsSATA, machine.HoldsPCIe)}, machine.Effect{Socket: id, Off: true})
		}
	}
	for range m.Intn(3) {
		m.add(machine.Socket{Kind: machine.USB, Root: root, Protocols: []link.Protocol{link.USB}, USB: pick(m, link.USBModes()...)})
	}
	if m.Intn(3) == 0 {
		m.sheet.Groups = append(m.sheet.Groups, machine.Group{ID: "u2", Root: root, Lanes: 4})
		m.add(machine.Socket{Kind: machine.U2, Group: "u2", Gen: 4, Lanes: 4, Protocols: []link.Protocol{link.PCIe}, Mount: machine.Mount{Drives: []part.Form{part.FormU2}}})
	}
}

// bays lists the bays apart from the ports: more or fewer of them, for one form or for both.
func (m *maker) bays() {
	var ports []machine.SocketID
	for i := range m.sheet.Sockets {
		if k := &m.sheet.Sockets[i]; k.Kind == machine.SATA {
			k.Mount, k.Lead = machine.Mount{}, pick(m, quantity.Unknown, quantity.No, quantity.Yes)
			ports = append(ports, k.ID)
		}
	}
	for n := range max(0, len(ports)-1+m.Intn(3)) {
		b := machine.Bay{ID: machine.BayID(fmt.Sprint("bay", n))}
		b.Drives = pick(m, []part.Form{part.Form2i5}, []part.Form{part.Form3i5}, []part.Form{part.Form2i5, part.Form3i5}, nil)
		for _, id := range ports {
			if m.Intn(3) == 0 {
				b.Ports = append(b.Ports, id)
			}
		}
		m.sheet.Bays = append(m.sheet.Bays, b)
	}
}

// layers puts half of the machines behind layers, with leads and fasteners. They come from
// chance of their own, like the plugs. Each lies only under those before it, so there is always a way in;
// a lead that could never be plugged is left out.
func (m *maker) layers() {
	m.Rand = rand.New(rand.NewSource(int64(len(m.sheet.Sockets)*1000 + len(m.sheet.Rules)*10 + len(m.sheet.Bays))))
	if m.Intn(2) == 0 {
		return
	}
	places := m.sheet.Places()
	some := func(odds int, kind machine.Kind) []layer.Named {
		var out []layer.Named
		for _, p := range places {
			k := m.sheet.Socket(machine.SocketID(p))
			if m.Intn(odds) == 0 && (kind == "" || k != nil && k.Kind == kind) {
				out = append(out, p)
			}
		}
		return out
	}
	for n := range 1 + m.Intn(6) {
		l := layer.Layer{ID: layer.ID(fmt.Sprint("l", n)), Name: fmt.Sprint("layer ", n), Kind: pick(m, layer.Cage, layer.Bracket, layer.Duct, layer.Bezel, layer.Cover), Hides: some(3, ""), Crowds: some(8, ""), RunsWith: m.Intn(3) == 0}
		switch {
		case n == 0:
			l.Kind, l.All = layer.Cover, m.Intn(4) > 0
		case m.Intn(5) == 0:
			l.Kind, l.Hides = layer.Heatsink, some(2, machine.M2)
		case m.Intn(4) == 0 && len(m.sheet.Bays) > 0:
			l.Kind, l.Hides, l.Holds = layer.Cage, nil, []layer.Named{layer.Named(m.sheet.Bays[m.Intn(len(m.sheet.Bays))].ID)}
		case m.Intn(3) == 0:
			l.Side = pick(m, layer.Top, layer.Bottom)
		}
		if m.Intn(2) == 0 {
			l.Fasteners = []layer.Fastener{{Count: 1 + m.Intn(4), Bit: pick(m, layer.PH1, layer.T8, layer.ByHand), Thread: layer.M3, Length: 6, Captive: pick(m, quantity.Unknown, quantity.No, quantity.Yes)}}
		}
		for k := range n {
			if m.Intn(3) == 0 && m.sheet.Layers[k].Kind != layer.Heatsink { // those lie at the bottom, under cards
				l.After = append(l.After, layer.ID(fmt.Sprint("l", k)))
			}
		}
		if m.Intn(2) == 0 {
			d := layer.Lead{For: "light", Plug: pick(m, layer.Plugs()...), Undone: pick(m, "", layer.First, layer.Lifting), Again: pick(m, "", layer.BeforeBack, layer.OnceBack)}
			if k := m.Intn(n + 1); k < n && m.Intn(3) == 0 && m.sheet.Layers[k].Kind != layer.Heatsink {
				d.Under = []layer.ID{m.sheet.Layers[k].ID}
			}
			l.Leads = []layer.Lead{d}
		}
		m.sheet.Layers = append(m.sheet.Layers, l)
	}
	for i := range m.sheet.Layers {
		if len(layer.Check(m.sheet.Layers, places)) > 0 {
			m.sheet.Layers[i].Leads = nil
		}
	}
}

func (m *maker) memory() {
	mem := &m.sheet.Memory
	mem.Generation = memory.DDR4
	perChannel := 1 + m.Intn(2)
	for c := range 1 + m.Intn(4) {
		for range perChannel {
			m.add(machine.Socket{Kind: machine.DIMM, Root: "cpu", Channel: machine.ChannelID(rune('A' + c))})
		}
	}
	mem.Speeds = []machine.Speed{{PerChannel: 1, MTps: 3200}, {PerChannel: 2, Ranks: 1, MTps: 2933}, {PerChannel: 2, Ranks: 2, MTps: 2400}}
	mem.Total = machine.Limit{StatedBytes: quantity.Bytes(16<<m.Intn(4)) * quantity.GiB}
}

// settings adds what firmware can choose: splits, caps, SATA only, a socket that
// some processor leaves dead.
func (m *maker) settings() {
	onOff := []machine.Option{{Value: "off", Name: "Off"}, {Value: "on", Name: "On"}}
	for _, k := range m.sheet.Sockets {
		switch {
		case k.Kind == machine.Slot && len(k.Splits) > 0 && m.Intn(4) > 0:
			s := machine.Setting{ID: machine.SettingID("split-" + k.ID), Name: "Layout of " + string(k.ID), Default: "whole", Options: []machine.Option{{Value: "whole", Name: "whole"}}}
			for i := range k.Splits {
				value := fmt.Sprint("split", i)
				s.Options = append(s.Options, machine.Option{Value: value, Name: value})
				m.rule(machine.Condition{Setting: s.ID, Is: value}, machine.Effect{Socket: k.ID, Split: k.Splits[i]})
			}
			m.sheet.Settings = append(m.sheet.Settings, s)
		case k.Kind == machine.M2 && m.Intn(4) == 0:
			s := machine.Setting{ID: machine.SettingID("set-" + k.ID), Name: "Choice for " + string(k.ID), Default: "off", Options: onOff}
			m.rule(machine.Condition{Setting: s.ID, Is: "on"}, pick(m, machine.Effect{Socket: k.ID, MaxGen: 3}, machine.Effect{Socket: k.ID, MaxLanes: 2}, machine.Effect{Socket: k.ID, Protocols: []link.Protocol{link.SATA}}))
			m.sheet.Settings = append(m.sheet.Settings, s)
		case k.Kind == machine.M2 && len(m.sheet.Processors) > 0 && m.Intn(3) == 0:
			m.rule(machine.Condition{Processor: "old"}, pick(m, machine.Effect{Socket: k.ID, Off: true}, machine.Effect{Socket: k.ID, MaxGen: 3}))
		}
	}
}

// parts is what may lie on the bench, by what it is for.
func (m *maker) part(kind machine.Kind) *part.Part {
	p := &part.Part{}
	m2 := &part.M2{Keys: []part.Key{part.KeyM}, LengthMM: pick[quantity.Millimetres](m, 60, 80, 80, 110), TwoSided: quantity.No}
	gen := quantity.Gen(2 + m.Intn(4))
	switch kind {
	case machine.M2:
		p.Drive = &part.Drive{Form: part.FormM2, Protocol: link.PCIe, Gen: gen, Lanes: pick[quantity.Lanes](m, 2, 4, 4, 4), CapacityBytes: quantity.DriveBytes(500), M2: m2}
		switch m.Intn(8) {
		case 0:
			p.Drive.Protocol, p.Drive.Gen, p.Drive.Lanes = link.SATA, 3, 0
		case 1:
			p.Drive.Protocol = "" // the label does not say
		case 2:
			p.Drive, p.Card = nil, &part.Card{M2: m2, Gen: gen, Lanes: 4, Carrier: &part.Carrier{Positions: []part.Position{{Takes: pick(m, part.TakesSlot, part.TakesU2), Lanes: 4, Physical: 16}}}}
		}
	case machine.SATA:
		p.Drive = &part.Drive{Form: pick(m, part.Form2i5, part.Form3i5), Protocol: link.SATA, Gen: quantity.Gen(1 + m.Intn(3)), CapacityBytes: quantity.DriveBytes(2000), ReadMBps: pick[float64](m, 0, 200, 550)}
	case machine.U2:
		p.Drive = &part.Drive{Form: part.FormU2, Protocol: link.PCIe, Gen: gen, Lanes: 4}
	case machine.USB:
		p.Enclosure = &part.Enclosure{USB: pick(m, link.USBModes()...), Positions: []part.Position{{Lanes: 4, Gen: 3}}}
		if m.Intn(2) == 0 {
			p.Enclosure.Positions = []part.Position{{Takes: part.TakesSATA, SATAGen: 3, Drives: []part.Form{part.Form2i5}}, {Takes: part.TakesSATA, SATAGen: 3, Drives: []part.Form{part.Form2i5}}}
		}
	case machine.Slot:
		lanes := pick[quantity.Lanes](m, 1, 4, 8, 16, 16)
		p.Card = &part.Card{Connector: lanes, Gen: gen, Lanes: lanes, Openings: 1 + m.Intn(2)}
		if lanes >= 4 && m.Intn(3) > 0 {
			p.Card.Openings = 1
			p.Card.Carrier = &part.Carrier{Switch: m.Intn(3) == 0}
			for first := 0; first < int(lanes); first += 4 {
				p.Card.Carrier.Positions = append(p.Card.Carrier.Positions, part.Position{FirstLane: first, Lanes: 4, LengthsMM: []quantity.Millimetres{60, 80}})
			}
		}
	default:
		p.Module = &part.Module{Generation: memory.DDR4, Form: memory.DIMM, SizeBytes: quantity.Bytes(4<<m.Intn(4)) * quantity.GiB, RateMTps: pick[quantity.MTps](m, 2400, 2666, 3200, 0), Ranks: 1 + m.Intn(2)}
	}
	return p
}

// place fills about two thirds of the sockets, those that parts bring among them,
// now and then with a part of another kind.
func (m *maker) place(b *rig.Rig) {
	put := func(at rig.Path, k *machine.Socket) {
		if m.Intn(3) == 0 {
			return
		}
		kind := k.Kind
		if m.Intn(25) == 0 {
			kind = pick(m, machine.M2, machine.SATA, machine.Slot, machine.DIMM)
		}
		id := rig.ItemID(fmt.Sprint("i", len(b.Pieces)))
		p := m.part(kind)
		p.ID, p.Name = part.ID(id), string(id)
		b.Pieces = append(b.Pieces, rig.Piece{ID: id, Part: p, New: m.Intn(2) == 0})
		b.Placements = append(b.Placements, rig.Placement{Item: id, Socket: at})
	}
	for i := range b.Sheet.Sockets {
		put(rig.On(b.Sheet.Sockets[i].ID), &b.Sheet.Sockets[i])
	}
	for tried := map[rig.Path]bool{}; len(tried) < 32; {
		before := len(tried)
		for _, k := range b.Carried() {
			if !tried[k.Path] {
				tried[k.Path] = true
				put(k.Path, &k.Socket)
			}
		}
		if len(tried) == before {
			return
		}
	}
}
