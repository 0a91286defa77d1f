package coretest

import (
	"fmt"

	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/memory"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// Monster makes a machine of many lanes and what is to be fitted into it, n sevenths
// of its full size: n slots of 16 lanes that can be split, a graphics card that
// covers two openings, carriers, drives of three kinds, eight memory slots. The
// planner is measured by it.
func Monster(n int) (found rig.Rig, pieces []rig.Piece, wish rig.Wish) {
	s := &machine.Sheet{ID: "monster", Name: "Monster", Class: machine.Workstation, Board: machine.Board{WidthMM: 400, HeightMM: 400},
		Chassis: machine.Chassis{Plugs: []machine.PlugCount{{Kind: part.PlugSATA, Count: 4 * n}, {Kind: part.Plug8, Count: 2}}},
		Roots:   []machine.Root{{ID: "cpu", Name: "processor", Kind: machine.CPU}, {ID: "chipset", Name: "chipset", Kind: machine.Chipset, Uplink: &machine.Uplink{To: "cpu", Gen: 4, Lanes: 8}}}}
	group := func(id string, root machine.RootID, lanes quantity.Lanes) machine.GroupID {
		s.Groups = append(s.Groups, machine.Group{ID: machine.GroupID(id), Root: root, Lanes: lanes})
		return machine.GroupID(id)
	}
	add := func(k machine.Socket, count int) {
		name := map[machine.Kind]string{machine.M2: "M2_", machine.SATA: "SATA", machine.U2: "U2_", machine.DIMM: "DIMM", machine.Slot: "SLOT"}[k.Kind]
		have := 0
		for _, o := range s.Sockets {
			if o.Kind == k.Kind {
				have++
			}
		}
		for i := range count {
			k.ID = machine.SocketID(fmt.Sprint(name, have+i+1))
			if k.Kind == machine.DIMM {
				k.Channel = machine.ChannelID(rune('A' + i))
			}
			s.Sockets = append(s.Sockets, k)
		}
	}
	fit := func(p *part.Part, count int) {
		for range count {
			pieces = append(pieces, rig.Piece{ID: rig.ItemID(fmt.Sprint("i", len(pieces)+1)), Part: p, New: true})
		}
	}
	for i := range n {
		id := fmt.Sprint("slot", i+1)
		add(machine.Socket{Kind: machine.Slot, Group: group(id, "cpu", 16), Protocols: []link.Protocol{link.PCIe}, Gen: 4, Lanes: 16, Physical: 16, Opening: i + 1,
			Splits: [][]quantity.Lanes{{8, 8}, {4, 4, 4, 4}}}, 1)
		set := machine.Setting{ID: machine.SettingID(id), Name: id, Default: "whole", Options: []machine.Option{{Value: "whole", Name: "x16"}, {Value: "two", Name: "x8 x8"}, {Value: "four", Name: "x4 x4 x4 x4"}}}
		s.Settings = append(s.Settings, set)
		for _, o := range []struct {
			value string
			split []quantity.Lanes
		}{{"two", []quantity.Lanes{8, 8}}, {"four", []quantity.Lanes{4, 4, 4, 4}}} {
			s.Rules = append(s.Rules, machine.Rule{ID: id + o.value, When: []machine.Condition{{Setting: set.ID, Is: o.value}}, Then: []machine.Effect{{Socket: machine.SocketID(fmt.Sprint("SLOT", i+1)), Split: o.split}}})
		}
	}
	m2 := machine.Socket{Kind: machine.M2, Protocols: []link.Protocol{link.PCIe}, Gen: 4, Lanes: 4, Key: part.KeyM, LengthsMM: []quantity.Millimetres{80}, Heatsink: quantity.Yes}
	m2.Group = group("storage", "cpu", 16)
	add(m2, min(4, n))
	m2.Group = group("chipset-lanes", "chipset", 8)
	add(m2, 2)
	add(machine.Socket{Kind: machine.SATA, Root: "chipset", Protocols: []link.Protocol{link.SATA}, SATAGen: 3, Mount: machine.Mount{Drives: []part.Form{part.Form3i5, part.Form2i5}}, Lead: quantity.Yes}, 2*n)
	add(machine.Socket{Kind: machine.U2, Group: group("bays", "chipset", 16), Protocols: []link.Protocol{link.PCIe}, Gen: 4, Lanes: 4, Mount: machine.Mount{Drives: []part.Form{part.FormU2}}}, min(4, n))
	add(machine.Socket{Kind: machine.DIMM, Root: "cpu"}, 8)
	s.Memory = machine.Memory{Generation: memory.DDR4, Registered: quantity.No, Speeds: []machine.Speed{{PerChannel: 1, MTps: 3200}}, Fill: []machine.Fill{}}

	carrier := &part.Part{ID: "carrier", Name: "Raft", Card: &part.Card{Connector: 16, Gen: 4, Lanes: 16, Openings: 1, Carrier: &part.Carrier{}}}
	for first := 0; first < 16; first += 4 {
		carrier.Card.Carrier.Positions = append(carrier.Card.Carrier.Positions, part.Position{FirstLane: first, Lanes: 4, LengthsMM: []quantity.Millimetres{80}, Heatsink: quantity.Yes})
	}
	card := &part.Part{ID: "card", Name: "Gallery", Card: &part.Card{Connector: 16, Gen: 4, Lanes: 16, Openings: 2}}
	flash := func(id string, gb int64, mbps float64) *part.Part {
		return &part.Part{ID: part.ID(id), Name: id, Drive: &part.Drive{Form: part.FormM2, Protocol: link.PCIe, Gen: 4, Lanes: 4, CapacityBytes: quantity.DriveBytes(gb), ReadMBps: mbps,
			M2: &part.M2{Keys: []part.Key{part.KeyM}, LengthMM: 80, TwoSided: quantity.No, Heatsink: quantity.No}}}
	}
	disk := &part.Part{ID: "disk", Name: "Mudlark", Drive: &part.Drive{Form: part.Form3i5, Protocol: link.SATA, Gen: 3, CapacityBytes: quantity.DriveBytes(8000), ReadMBps: 260}}
	bay := &part.Part{ID: "bay", Name: "Shoal", Drive: &part.Drive{Form: part.FormU2, Protocol: link.PCIe, Gen: 4, Lanes: 4, CapacityBytes: quantity.DriveBytes(4000), ReadMBps: 3000}}
	module := &part.Part{ID: "module", Name: "Sallow", Module: &part.Module{Generation: memory.DDR4, Form: memory.DIMM, SizeBytes: 16 * quantity.GiB, RateMTps: 3200, Ranks: 2, Registered: quantity.No}}
	fit(carrier, min(4, n-2))
	fit(flash("system", 2000, 7000), 1)
	fit(flash("data", 4000, 5000), 2*n-1)
	fit(disk, n-1)
	fit(bay, min(4, n))
	fit(module, 8)
	pieces = append(pieces, rig.Piece{ID: "graphics", Part: card})
	found = rig.Rig{Sheet: s, Pieces: pieces, Setup: rig.Setup{Placements: []rig.Placement{{Item: "graphics", Socket: rig.ParsePath("SLOT1")}}}}
	wish.SystemBytes, wish.SystemFast = quantity.DriveBytes(2000), true
	return found, pieces, wish
}
