package coretest

import (
	"strconv"
	"strings"
	"testing"

	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/memory"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

const gib = quantity.GiB

// Board is the machine of the table tests. U is the processor's own M.2 socket, L the
// chipset's, which takes P5 and P6 with it; K is keyed B; Q and G are badly
// described; T is tight; O is dead with the old processor; X1 to X3 are slots, of
// which X2 takes half of X1's lanes; A1 to B2 are memory. W lies under X2 and
// takes 110 mm only; P8 is a caddy for 9.5 mm that is not there, P9 wants an
// angled lead, PO is fed by a slim plug; V is a U.2 port, R1 to R3 are USB.
func Board() *machine.Sheet {
	m2 := func(id machine.SocketID, group machine.GroupID, gen quantity.Gen, key part.Key, protocols ...link.Protocol) machine.Socket {
		return machine.Socket{ID: id, Kind: machine.M2, Group: group, Gen: gen, Lanes: 4, SATAGen: 3, Key: key, Protocols: protocols,
			LengthsMM: []quantity.Millimetres{42, 60, 80}}
	}
	sata := func(id machine.SocketID, forms ...part.Form) machine.Socket {
		return machine.Socket{ID: id, Kind: machine.SATA, Root: "pch", Protocols: []link.Protocol{link.SATA}, SATAGen: 3, Mount: machine.Mount{Drives: forms}}
	}
	dimm := func(id machine.SocketID, c machine.ChannelID) machine.Socket {
		return machine.Socket{ID: id, Kind: machine.DIMM, Root: "cpu", Channel: c}
	}
	q, g := m2("Q", "low", 3, "M"), m2("G", "low", 0, "M", link.PCIe)
	q.LengthsMM = nil
	tight, old := m2("T", "more", 4, "M", link.PCIe), m2("O", "more", 4, "M", link.PCIe)
	tight.TopMM, tight.BottomMM, tight.Heatsink = 3, 0.3, quantity.No
	k := m2("K", "low", 3, "B", link.SATA)
	k.Lanes = 2
	under := m2("W", "low", 4, "M", link.PCIe)
	under.Under, under.UnderMM, under.WidthMM, under.LengthsMM = 2, 5, 22, []quantity.Millimetres{110}
	caddy, angled, optical := sata("P8", part.Form2i5), sata("P9", part.Form2i5, part.Form3i5), sata("PO", part.Form2i5)
	caddy.Lead, caddy.Holder, caddy.HasHolder, caddy.BayMM, caddy.Thread = quantity.Yes, machine.HeldByCaddy, quantity.No, 9.5, part.UNC632
	angled.Lead, angled.LeadEnd, angled.Holder = quantity.No, part.AngledEnd, machine.HeldByBracket
	optical.Power = part.PlugSlim
	u2 := machine.Socket{ID: "V", Kind: machine.U2, Group: "low", Gen: 4, Lanes: 4, Protocols: []link.Protocol{link.PCIe}, Mount: machine.Mount{Drives: []part.Form{part.FormU2}}}
	usb := func(id machine.SocketID, m link.USBMode) machine.Socket {
		return machine.Socket{ID: id, Kind: machine.USB, Root: "pch", Protocols: []link.Protocol{link.USB}, USB: m}
	}
	slot := func(id machine.SocketID, group machine.GroupID, gen quantity.Gen, first int, lanes, long quantity.Lanes, opening int) machine.Socket {
		return machine.Socket{ID: id, Kind: machine.Slot, Group: group, Gen: gen, FirstLane: first, Lanes: lanes, Physical: long, Opening: opening,
			Protocols: []link.Protocol{link.PCIe}, OpenEnd: quantity.No}
	}
	x1 := slot("X1", "wide", 4, 0, 16, 16, 1)
	x1.Splits = [][]quantity.Lanes{{8, 8}, {8, 4, 4}, {4, 4, 4, 4}}
	upper := m2("U", "top", 4, "M", link.PCIe)
	upper.TopMM, under.TopMM = 12, 12
	bay := sata("P1", part.Form2i5)
	bay.BayMM = 7
	a1, a2 := dimm("A1", "A"), dimm("A2", "A")
	a1.TopMM, a2.TopMM = 36, 60
	split := machine.Setting{ID: "split", Name: "Slot 1 layout", Default: "16", Options: []machine.Option{{Value: "16", Name: "x16"}, {Value: "8+8", Name: "x8x8"}, {Value: "8+4+4", Name: "x8x4x4"}, {Value: "4+4+4+4", Name: "x4x4x4x4"}}}
	divided := func(i int) machine.Rule {
		return machine.Rule{ID: "s" + split.Options[i].Value, When: []machine.Condition{{Setting: "split", Is: split.Options[i].Value}}, Then: []machine.Effect{{Socket: "X1", Split: x1.Splits[i-1]}}}
	}
	onOff := []machine.Option{{Value: "off", Name: "Off"}, {Value: "on", Name: "On"}}
	setting := func(id machine.SettingID) machine.Setting {
		return machine.Setting{ID: id, Name: "the " + string(id) + " setting", Options: onOff, Default: "off"}
	}
	when := func(id machine.SettingID) []machine.Condition { return []machine.Condition{{Setting: id, Is: "on"}} }
	s := &machine.Sheet{
		ID: "board", Name: "Test board", Class: machine.Tower, Board: machine.Board{WidthMM: 1000, HeightMM: 1000},
		Roots: []machine.Root{{ID: "cpu", Name: "processor", Kind: machine.CPU},
			{ID: "pch", Name: "chipset", Kind: machine.Chipset, Uplink: &machine.Uplink{To: "cpu", Gen: 3, Lanes: 4}}},
		Groups:     []machine.Group{{ID: "top", Root: "cpu", Lanes: 4}, {ID: "low", Root: "pch", Lanes: 40}, {ID: "wide", Root: "cpu", Lanes: 16}, {ID: "more", Root: "cpu", Lanes: 8}},
		Processors: []machine.Processor{{ID: "old", Name: "the old one"}, {ID: "new", Name: "the new one"}},
		Chassis:    machine.Chassis{CardMM: 270, LowSlots: quantity.Yes, Feeds3V3: quantity.Yes, Supply: "gale 450", Plugs: []machine.PlugCount{{Kind: part.PlugSATA, Count: 3}, {Kind: part.PlugMolex, Count: 1, From: "the board's own lead"}}},
		Sockets: []machine.Socket{
			upper, m2("L", "low", 3, "M", link.PCIe, link.SATA), k,
			m2("F", "low", 4, "M", link.PCIe), q, g,
			tight, old, bay, sata("P5", part.Form2i5, part.Form3i5), sata("P6", part.Form2i5, part.Form3i5), sata("P7"),
			a1, a2, dimm("B1", "B"), dimm("B2", "B"),
			x1, slot("X2", "wide", 4, 8, 8, 16, 2), slot("X3", "low", 3, 0, 4, 4, 3),
			under, caddy, angled, optical, u2, usb("R1", link.USB10), usb("R2", link.USB20), usb("R3", ""),
		},
		Settings: []machine.Setting{setting("profile"), setting("cap"), setting("half"), setting("sata-only"), setting("close"), split},
		Rules: []machine.Rule{
			{ID: "r1", When: []machine.Condition{{Socket: "L", Holds: machine.HoldsAnything}}, Then: []machine.Effect{{Socket: "P5", Off: true}, {Socket: "P6", Off: true}}, Says: "p. 18"},
			{ID: "r2", When: when("profile"), Then: []machine.Effect{{Profile: true}}},
			{ID: "r3", When: when("cap"), Then: []machine.Effect{{Socket: "U", MaxGen: 3}}},
			{ID: "r4", When: when("half"), Then: []machine.Effect{{Socket: "U", MaxLanes: 2}}},
			{ID: "r5", When: when("sata-only"), Then: []machine.Effect{{Socket: "L", Protocols: []link.Protocol{link.SATA}}}},
			{ID: "r6", When: when("close"), Then: []machine.Effect{{Socket: "P1", Off: true}}},
			{ID: "r8", When: []machine.Condition{{Socket: "X2", Holds: machine.HoldsAnything}}, Then: []machine.Effect{{Socket: "X1", MaxLanes: 8}}},
			{ID: "r9", When: []machine.Condition{{Processor: "old"}}, Then: []machine.Effect{{Socket: "O", Off: true}}},
			divided(1), divided(2), divided(3),
			{ID: "r7", When: []machine.Condition{{Socket: "K", Holds: machine.HoldsSATA}, {Setting: "half", Is: "on"}}, Then: []machine.Effect{{Socket: "P1", Off: true}}},
		},
		Memory: machine.Memory{Generation: memory.DDR4, Registered: quantity.No, ECC: quantity.No, Millivolts: 1200,
			Module: machine.Limit{StatedBytes: 16 * gib, ProvenBytes: 32 * gib, ProvenBy: "an earlier job"},
			Total:  machine.Limit{StatedBytes: 64 * gib},
			Fill:   []machine.Fill{{Slots: []machine.SocketID{"A2"}}, {Slots: []machine.SocketID{"A2", "B2"}}, {Slots: []machine.SocketID{"A1", "A2", "B1", "B2"}}},
			Speeds: []machine.Speed{{PerChannel: 1, MTps: 3200}, {PerChannel: 2, Ranks: 1, MTps: 2933}, {PerChannel: 2, Ranks: 2, MTps: 2666}}},
	}
	return s
}

// Parts is the parts of the table tests by short name; a second copy of one is "m16'"
// and so on.
var Parts = func() map[string]*part.Part {
	card := func(p link.Protocol, gen quantity.Gen, lanes quantity.Lanes, length quantity.Millimetres, keys ...part.Key) *part.Drive {
		return &part.Drive{Form: part.FormM2, Protocol: p, Gen: gen, Lanes: lanes, CapacityBytes: quantity.DriveBytes(500), M2: &part.M2{Keys: keys, LengthMM: length, TwoSided: quantity.No}}
	}
	high := func(p *part.Part, f func(*part.Part)) *part.Part { f(p); return p }
	slotCard := func(connector, lanes quantity.Lanes, openings int, long quantity.Millimetres) *part.Card {
		return &part.Card{Connector: connector, Gen: 4, Lanes: lanes, Openings: openings, LengthMM: long, LowBracket: quantity.Yes}
	}
	four := []part.Position{{Lanes: 4}, {FirstLane: 4, Lanes: 4}, {FirstLane: 8, Lanes: 4}, {FirstLane: 12, Lanes: 4}}
	quad, two, joined, full := slotCard(16, 16, 1, 200), slotCard(8, 8, 1, 200), slotCard(8, 8, 1, 200), slotCard(4, 4, 1, 100)
	quad.Carrier, two.Carrier, joined.Carrier = &part.Carrier{Positions: four}, &part.Carrier{Positions: four[:2]}, &part.Carrier{Switch: true, Positions: four}
	full.LowBracket = quantity.No
	box := func(f part.Form, gb int64) *part.Drive {
		return &part.Drive{Form: f, Protocol: link.SATA, Gen: 3, CapacityBytes: quantity.DriveBytes(gb), HeightMM: 7}
	}
	module := func(size quantity.Bytes, rate quantity.MTps, ranks int) *part.Module {
		return &part.Module{Generation: memory.DDR4, Form: memory.DIMM, SizeBytes: size, RateMTps: rate, Ranks: ranks, Registered: quantity.No}
	}
	ddr5, registered, fast, short := module(16*gib, 4800, 1), module(16*gib, 3200, 1), module(16*gib, 2666, 1), module(8*gib, 3200, 1)
	ddr5.Generation, registered.Registered, fast.ProfileMTps, short.Form = memory.DDR5, quantity.Yes, 3600, memory.SODIMM
	out := map[string]*part.Part{
		"nvme": {Drive: card(link.PCIe, 4, 4, 80, "M")}, "nvme3": {Drive: card(link.PCIe, 3, 4, 80, "M")}, "x2": {Drive: card(link.PCIe, 3, 2, 80, "B", "M")},
		"long": {Drive: card(link.PCIe, 4, 4, 110, "M")}, "sata2": {Drive: card(link.SATA, 3, 0, 80, "B", "M")},
		"mystery": {Drive: card("", 0, 0, 80, "M")}, "nogen": {Drive: card(link.PCIe, 0, 4, 80, "M")},
		"ssd": {Drive: box(part.Form2i5, 480)}, "hdd": {Drive: box(part.Form3i5, 2000)},
		"m8": {Module: module(8*gib, 2400, 1)}, "m16": {Module: module(16*gib, 3200, 1)}, "m32": {Module: module(32*gib, 3200, 1)}, "m64": {Module: module(64*gib, 3200, 1)},
		"gpu": {Card: slotCard(16, 16, 2, 250)}, "thin": {Card: slotCard(16, 16, 1, 250)}, "longgpu": {Card: slotCard(16, 16, 1, 310)}, "nic": {Card: slotCard(4, 4, 1, 100)},
		"plain": {Card: &part.Card{Connector: 4, Lanes: 4, Openings: 1, LengthMM: 100, LowBracket: quantity.Yes}}, "full": {Card: full}, "quad": {Card: quad}, "two": {Card: two}, "joined": {Card: joined},
		"tall":   high(&part.Part{Drive: card(link.PCIe, 4, 4, 80, "M")}, func(p *part.Part) { p.Drive.M2.TopMM, p.Drive.M2.Heatsink = 8, quantity.Yes }),
		"both":   high(&part.Part{Drive: card(link.PCIe, 4, 4, 80, "M")}, func(p *part.Part) { p.Drive.M2.TwoSided, p.Drive.M2.BottomMM = quantity.Yes, 1.35 }),
		"gen5":   high(&part.Part{Drive: card(link.PCIe, 5, 4, 80, "M")}, func(p *part.Part) { p.Drive.M2.Heatsink = quantity.No }),
		"warm":   high(&part.Part{Drive: card(link.PCIe, 4, 4, 80, "M")}, func(p *part.Part) { p.Drive.M2.Heatsink, p.Drive.Watts = quantity.No, 6 }),
		"thick":  high(&part.Part{Drive: box(part.Form2i5, 480)}, func(p *part.Part) { p.Drive.HeightMM = 9.5 }),
		"pwdis":  high(&part.Part{Drive: box(part.Form3i5, 8000)}, func(p *part.Part) { p.Drive.PowerDisable = quantity.Yes }),
		"spread": high(&part.Part{Module: module(16*gib, 3200, 1)}, func(p *part.Part) { p.Module.HeightMM = 45 }),
		"volt":   high(&part.Part{Module: module(16*gib, 3200, 1)}, func(p *part.Part) { p.Module.Millivolts = []quantity.Millivolts{1350, 1500} }),
		"ecc":    high(&part.Part{Module: module(16*gib, 3200, 1)}, func(p *part.Part) { p.Module.ECC = quantity.Yes }),
		"noecc":  high(&part.Part{Module: module(16*gib, 3200, 1)}, func(p *part.Part) { p.Module.ECC = quantity.No }),
		"m16r2":  {Module: module(16*gib, 3200, 2)}, "ddr5": {Module: ddr5}, "reg": {Module: registered}, "fast": {Module: fast}, "so": {Module: short},
		"wide25":    high(&part.Part{Drive: card(link.PCIe, 4, 4, 110, "M")}, func(p *part.Part) { p.Drive.M2.WidthMM = 25 }),
		"tall110":   high(&part.Part{Drive: card(link.PCIe, 4, 4, 110, "M")}, func(p *part.Part) { p.Drive.M2.TopMM = 8 }),
		"cool5":     high(&part.Part{Drive: card(link.PCIe, 5, 4, 80, "M")}, func(p *part.Part) { p.Drive.M2.Heatsink, p.Drive.Watts = quantity.No, 5.5 }),
		"clocked":   high(&part.Part{Module: module(16*gib, 3200, 1)}, func(p *part.Part) { p.Module.ClockDriver = quantity.Yes }),
		"unclocked": high(&part.Part{Module: module(16*gib, 3200, 1)}, func(p *part.Part) { p.Module.ClockDriver = quantity.No }),
		"hungry":    high(&part.Part{Card: slotCard(16, 16, 1, 200)}, func(p *part.Part) { p.Card.Watts = 120 }),
		"plugged":   high(&part.Part{Card: slotCard(16, 16, 1, 200)}, func(p *part.Part) { p.Card.Watts, p.Card.Plugs = 120, []part.Plug{part.Plug6} }),
		"loud":      high(&part.Part{Drive: box(part.Form3i5, 2000)}, func(p *part.Part) { p.Drive.HeightMM, p.Drive.Watts = 26.1, 9 }),
		"display":   high(&part.Part{Card: slotCard(16, 16, 2, 250)}, func(p *part.Part) { p.Card.Graphics = true }),
		"u2":        {Drive: &part.Drive{Form: part.FormU2, Protocol: link.PCIe, Gen: 4, Lanes: 4, HeightMM: 15}},
		"riser":     {Card: &part.Card{M2: &part.M2{Keys: []part.Key{"M"}, LengthMM: 80, TwoSided: quantity.No}, Gen: 4, Lanes: 4, Carrier: &part.Carrier{Positions: []part.Position{{Takes: part.TakesSlot, Lanes: 4, Physical: 16}}}}},
		"tou2":      {Card: &part.Card{M2: &part.M2{Keys: []part.Key{"M"}, LengthMM: 80, TwoSided: quantity.No}, Gen: 3, Lanes: 4, Carrier: &part.Carrier{Positions: []part.Position{{Takes: part.TakesU2, Lanes: 4, Drives: []part.Form{part.FormU2}}}}}},
		"ports":     {Card: &part.Card{Connector: 4, Gen: 3, Lanes: 2, Openings: 1, LengthMM: 100, LowBracket: quantity.Yes, Carrier: &part.Carrier{Switch: true, Positions: []part.Position{{Takes: part.TakesSATA, SATAGen: 3, Drives: []part.Form{part.Form2i5}}, {Takes: part.TakesSATA, SATAGen: 3}}}}},
		"box":       {Enclosure: &part.Enclosure{USB: link.USB10, Queues: quantity.Yes, Trims: quantity.No, Translates: quantity.No, Positions: []part.Position{{Lanes: 4, Gen: 3, LengthsMM: []quantity.Millimetres{80}}}}},
		"fastbox":   {Enclosure: &part.Enclosure{USB: link.USB20, Positions: []part.Position{{Lanes: 4, Gen: 3, LengthsMM: []quantity.Millimetres{80}}}}},
		"dock":      {Enclosure: &part.Enclosure{USB: link.USB5, OwnSupply: quantity.No, Positions: []part.Position{{Takes: part.TakesSATA, SATAGen: 3, Drives: []part.Form{part.Form2i5, part.Form3i5}}}}},
		"fed":       {Enclosure: &part.Enclosure{USB: link.USB5, OwnSupply: quantity.Yes, Positions: []part.Position{{Takes: part.TakesSATA, SATAGen: 3, Drives: []part.Form{part.Form2i5, part.Form3i5}}}}},
		"lead":      {Fitting: &part.Fitting{Kind: part.DataLead, End: part.StraightEnd}}, "bent": {Fitting: &part.Fitting{Kind: part.DataLead, End: part.AngledEnd}},
		"gale": {Fitting: &part.Fitting{Kind: part.SupplyLead, To: part.PlugSATA, Plugs: 3, Supply: "Gale-450"}}, "gale6": {Fitting: &part.Fitting{Kind: part.SupplyLead, To: part.PlugSATA, Plugs: 3, Supply: "Gale-600"}}, "drawer": {Fitting: &part.Fitting{Kind: part.SupplyLead, To: part.PlugSATA}},
		"toslim": {Fitting: &part.Fitting{Kind: part.PowerAdapter, From: part.PlugSlim, To: part.PlugSATA}}, "tomolex": {Fitting: &part.Fitting{Kind: part.PowerAdapter, From: part.PlugMolex, To: part.PlugSATA, Plugs: 2}},
		"frame": {Fitting: &part.Fitting{Kind: part.Bracket, Holds: part.Form2i5, Thread: part.M3}}, "sled": {Fitting: &part.Fitting{Kind: part.Caddy}},
		"spacer": {Fitting: &part.Fitting{Kind: part.Spacer}}, "m3": {Fitting: &part.Fitting{Kind: part.Screws, Thread: part.M3}},
		"nosize": {Module: module(0, 3200, 1)}, "norate": {Module: module(16*gib, 0, 1)}, "noranks": {Module: module(16*gib, 3200, 0)},
	}
	for name, p := range out {
		p.ID, p.Name = part.ID(name), name
	}
	return out
}()

// Lay reads "nvme:U +m16:A2 +m16': profile=on" into a build: a part in a socket,
// + for one that came to be fitted, @ for one that was found there, ! for one that a screen
// of the machine as found showed there, no socket for the mat, and settings;
// "U?key=B" and "riser/1?room_for_a_card=no" are what somebody looked up.
func Lay(t testing.TB, sheet *machine.Sheet, text string) *rig.Rig {
	b := &rig.Rig{Sheet: sheet, Found: &rig.Setup{}}
	var looked []rig.Learned
	var lines []rig.Shown
	for _, word := range strings.Fields(text) {
		if about, is, ok := strings.Cut(word, "?"); ok {
			looked = append(looked, learned(about, is))
			continue
		}
		if id, value, ok := strings.Cut(word, "="); ok {
			if id == "cpu" {
				b.Processor = machine.ProcessorID(value)
				continue
			}
			b.Settings = append(b.Settings, rig.Choice{Setting: machine.SettingID(id), Value: value})
			continue
		}
		name, socket, _ := strings.Cut(word, ":")
		name, isNew := strings.CutPrefix(name, "+")
		name, found := strings.CutPrefix(name, "@")
		name, shown := strings.CutPrefix(name, "!")
		p := Parts[strings.TrimRight(name, "'")]
		if p == nil || socket != "" && !strings.Contains(socket, "/") && sheet.Socket(machine.SocketID(socket)) == nil {
			t.Fatalf("%q: no such part or socket", word)
		}
		b.Pieces = append(b.Pieces, rig.Piece{ID: rig.ItemID(name), Part: p, New: isNew})
		if socket != "" {
			b.Placements = append(b.Placements, rig.Placement{Item: rig.ItemID(name), Socket: rig.ParsePath(socket)})
			if found || shown {
				b.Found.Placements = append(b.Found.Placements, b.Placements[len(b.Placements)-1])
			}
			if shown {
				lines = append(lines, rig.Shown{Item: rig.ItemID(name), Socket: rig.ParsePath(socket), Under: b.Found})
			}
		}
	}
	for _, a := range looked {
		if !b.CanBe(a) {
			t.Fatalf("%q is no answer to %+v", a.Is, a.Fact)
		}
	}
	learnt := b.Learn(looked)
	learnt = learnt.Seen(lines)
	return &learnt
}

// learned reads an answer: of a socket in capitals, else of a piece or a position of it.
func learned(about, is string) rig.Learned {
	attr, is, _ := strings.Cut(is, "=")
	out := rig.Learned{Fact: rig.Fact{Attr: rig.Attr(strings.ReplaceAll(attr, "_", " "))}, Is: strings.ReplaceAll(is, "_", " ")}
	if about == strings.ToUpper(about) {
		out.Socket = rig.ParsePath(about)
		return out
	}
	item, pos, nested := strings.Cut(about, "/")
	if out.Item = rig.ItemID(item); nested {
		out.Pos, _ = strconv.Atoi(pos)
	}
	return out
}
