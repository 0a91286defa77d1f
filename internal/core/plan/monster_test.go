package plan

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"testing"
	"time"

	"deepbay/internal/core/build"
	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/memory"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
)

// monster makes a question about a machine of many lanes, n parts of its full size
// of seven: n slots of 16 lanes that can be split, a graphics card that covers two
// openings, carriers, drives of three kinds, and eight memory slots.
func monster(n int) Input {
	s := &machine.Sheet{ID: "monster", Name: "Monster", Class: machine.Workstation, Board: machine.Board{WidthMM: 400, HeightMM: 400},
		Roots: []machine.Root{{ID: "cpu", Name: "processor", Kind: machine.CPU}, {ID: "chipset", Name: "chipset", Kind: machine.Chipset, Uplink: &machine.Uplink{To: "cpu", Gen: 4, Lanes: 8}}}}
	in := Input{Found: build.Build{Sheet: s}}
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
			in.Pieces = append(in.Pieces, build.Piece{ID: build.ItemID(fmt.Sprint("i", len(in.Pieces)+1)), Part: p, New: true})
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
	add(machine.Socket{Kind: machine.SATA, Root: "chipset", Protocols: []link.Protocol{link.SATA}, SATAGen: 3, Drives: []part.Form{part.Form3i5, part.Form2i5}, Lead: quantity.Yes}, 2*n)
	add(machine.Socket{Kind: machine.U2, Group: group("bays", "chipset", 16), Protocols: []link.Protocol{link.PCIe}, Gen: 4, Lanes: 4, Drives: []part.Form{part.FormU2}}, min(4, n))
	add(machine.Socket{Kind: machine.DIMM, Root: "cpu"}, 8)
	s.Memory = machine.Memory{Generation: memory.DDR4, Speeds: []machine.Speed{{PerChannel: 1, MTps: 3200}}, Fill: []machine.Fill{}}

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
	module := &part.Part{ID: "module", Name: "Sallow", Module: &part.Module{Generation: memory.DDR4, Form: memory.DIMM, SizeBytes: 16 * quantity.GiB, RateMTps: 3200, Ranks: 2}}
	fit(carrier, min(4, n-2))
	fit(flash("system", 2000, 7000), 1)
	fit(flash("data", 4000, 5000), 2*n-1)
	fit(disk, n-1)
	fit(bay, min(4, n))
	fit(module, 8)
	in.Pieces = append(in.Pieces, build.Piece{ID: "graphics", Part: card})
	in.Found.Pieces, in.Found.Placements = in.Pieces, []build.Placement{{Item: "graphics", Socket: "SLOT1"}}
	in.Wish.SystemBytes, in.Wish.SystemFast = quantity.DriveBytes(2000), true
	return in
}

// The monster is proved, by size.
func BenchmarkMonster(b *testing.B) {
	for n := 3; n <= 7; n++ {
		in := monster(n)
		b.Run(fmt.Sprintf("slots=%d/pieces=%d", n, len(in.Pieces)), func(b *testing.B) {
			b.ReportAllocs()
			for b.Loop() {
				if r, err := Find(context.Background(), in); err != nil || r.End != Optimal {
					b.Fatal(r.End, err)
				}
			}
		})
	}
}

func TestMonster(t *testing.T) {
	in := monster(7)
	r, err := Find(context.Background(), in)
	if err != nil || r.End != Optimal {
		t.Fatalf("%v %v after %d builds: %+v bound %v", r.End, err, r.Judged, r.Best, r.Bound)
	}
	t.Logf("%d builds, %v, bound %v", r.Judged, r.Best.Score, r.Bound)
	holds(t, &in, r.Best)
}

// hostile makes a question nobody would ask: hundreds of sockets, drives of which no
// two are alike, settings that switch off, in every value, what other values leave.
func hostile(sockets, drives, settings int, hopeless bool) Input {
	s := &machine.Sheet{ID: "hostile", Name: "Hostile", Roots: []machine.Root{{ID: "cpu", Name: "processor", Kind: machine.CPU}}, Groups: []machine.Group{{ID: "all", Root: "cpu", Lanes: 128}}}
	in := Input{Found: build.Build{Sheet: s}}
	for i := range sockets {
		s.Sockets = append(s.Sockets, machine.Socket{ID: machine.SocketID(fmt.Sprint("M2_", i+1)), Kind: machine.M2, Group: "all", Protocols: []link.Protocol{link.PCIe}, Gen: quantity.Gen(3 + i%3), Lanes: 4, Key: part.KeyM, LengthsMM: []quantity.Millimetres{80}})
	}
	s.Sockets = append(s.Sockets, machine.Socket{ID: "DIMM1", Kind: machine.DIMM, Root: "cpu", Channel: "A"})
	s.Memory.Generation = memory.DDR4
	for i := range settings {
		id := machine.SettingID(fmt.Sprint("set", i+1))
		s.Settings = append(s.Settings, machine.Setting{ID: id, Name: string(id), Default: "a", Options: []machine.Option{{Value: "a", Name: "a"}, {Value: "b", Name: "b"}}})
		for k := range s.Sockets[:sockets] {
			off := "ab"[(k+i)%2 : (k+i)%2+1]
			s.Rules = append(s.Rules, machine.Rule{ID: fmt.Sprint("r", len(s.Rules)), When: []machine.Condition{{Setting: id, Is: off}}, Then: []machine.Effect{{Socket: s.Sockets[k].ID, Off: k%(settings+1) == i || hopeless}}})
			if !s.Rules[len(s.Rules)-1].Then[0].Off {
				s.Rules[len(s.Rules)-1].Then[0].MaxGen = 3
			}
		}
	}
	for i := range drives {
		in.Pieces = append(in.Pieces, build.Piece{ID: build.ItemID(fmt.Sprint("i", i+1)), New: true, Part: &part.Part{ID: part.ID(fmt.Sprint("d", i+1)), Name: "drive",
			Drive: &part.Drive{Form: part.FormM2, Protocol: link.PCIe, Gen: 4, Lanes: 4, CapacityBytes: quantity.DriveBytes(500), ReadMBps: float64(3000 + 100*i), M2: &part.M2{Keys: []part.Key{part.KeyM}, LengthMM: 80, TwoSided: quantity.No}}}})
	}
	in.Pieces = append(in.Pieces, build.Piece{ID: "module", New: true, Part: &part.Part{ID: "m", Name: "module", Module: &part.Module{Generation: memory.DDR4, Form: memory.DIMM, SizeBytes: quantity.GiB, RateMTps: 3200, Ranks: 1}}})
	return in
}

// A hostile question ends within its budget: with a proof, or with the admission
// that there is none.
func TestHostile(t *testing.T) {
	for _, c := range []struct {
		name                      string
		sockets, drives, settings int
		hopeless                  bool
		want                      []End
	}{
		{"hundreds of sockets", 300, 40, 4, false, []End{Optimal, GaveUp}},
		{"every socket is off, whatever is set", 300, 40, 2, true, []End{Impossible, GaveUp}},
		{"many settings", 40, 12, 10, false, []End{Optimal, GaveUp}},
		{"more drives than sockets", 20, 21, 3, false, []End{Impossible}},
	} {
		in := hostile(c.sockets, c.drives, c.settings, c.hopeless)
		start := time.Now()
		r, err := Find(context.Background(), in)
		if err != nil || !slices.Contains(c.want, r.End) || r.End == Optimal != (r.Best != nil) && r.End != GaveUp {
			t.Errorf("%s: %s %v", c.name, r.End, err)
		}
		t.Logf("%s: %s after %d builds, %v", c.name, r.End, r.Judged, time.Since(start).Round(time.Millisecond))
		if r.End == Optimal {
			holds(t, &in, r.Best)
		}
		// Cut short, it says so, or had the answer by then.
		in.Budget = 2000
		if r, err := Find(context.Background(), in); err != nil || r.End == Optimal && r.Best == nil {
			t.Errorf("%s, cut short: %s %v", c.name, r.End, err)
		}
		// No longer wanted, it stops.
		gone, cancel := context.WithCancel(context.Background())
		cancel()
		if _, err := Find(gone, in); !errors.Is(err, context.Canceled) {
			t.Errorf("%s, no longer wanted: %v", c.name, err)
		}
	}
}
