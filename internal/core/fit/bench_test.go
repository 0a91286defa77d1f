package fit_test

import (
	"strconv"
	"testing"

	"deepbay/demo"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/memory"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
	"deepbay/internal/coretest/jobs"
)

// BenchmarkResolve shows what a user waits for at every change: the demo jobs
// as they ship, and the tower with everything placed.
func BenchmarkResolve(b *testing.B) {
	for _, name := range []string{"echo-sounding-tower", "tide-gauge-mini-pc", "chart-table-workstation", "dive-camera-ingest"} {
		j, err := demo.Job(name)
		if err != nil {
			b.Fatal(err)
		}
		bld := j.PlannedRig()
		b.Run(name, func(b *testing.B) {
			b.ReportAllocs()
			for b.Loop() {
				fit.Resolve(&bld)
			}
		})
		if name != "echo-sounding-tower" {
			continue
		}
		full := bld
		full.Placements = []rig.Placement{{Item: "item-1", Socket: rig.ParsePath("A1")}, {Item: "item-2", Socket: rig.ParsePath("B1")}, {Item: "item-3", Socket: rig.ParsePath("SATA6")},
			{Item: "item-4", Socket: rig.ParsePath("M2_2")}, {Item: "item-5", Socket: rig.ParsePath("A2")}, {Item: "item-6", Socket: rig.ParsePath("B2")}}
		b.Run(name+"-full", func(b *testing.B) {
			b.ReportAllocs()
			for b.Loop() {
				fit.Resolve(&full)
			}
		})
	}
}

// BenchmarkFullWorkstation resolves the largest shipped machine with every socket
// taken: cards, a carrier of each kind with all positions, modules, drives, boxes.
func BenchmarkFullWorkstation(b *testing.B) {
	bld := jobs.Full(b)
	b.ReportAllocs()
	for b.Loop() {
		fit.Resolve(&bld)
	}
}

// TestFullWorkstation keeps the benchmark honest: it is full, and works.
func TestFullWorkstation(t *testing.T) {
	b := jobs.Full(t)
	r := fit.Resolve(&b)
	for _, s := range r.Sockets {
		if s.State != fit.Live {
			t.Errorf("%s is %s: %s", s.Socket, s.State, s.Because())
		}
	}
	if n := len(r.Sockets); n != 34 {
		t.Errorf("%d sockets", n)
	}
}

// BenchmarkScale resolves ever larger boards, half full: one processor, a
// chipset, sockets in equal parts M.2, SATA and memory, and a rule to every four.
func BenchmarkScale(b *testing.B) {
	for _, n := range []int{8, 16, 32, 64, 128, 256} {
		bld := large(n)
		b.Run(strconv.Itoa(n), func(b *testing.B) {
			b.ReportAllocs()
			for b.Loop() {
				fit.Resolve(&bld)
			}
		})
	}
}

func large(n int) rig.Rig {
	sheet := &machine.Sheet{
		Roots: []machine.Root{{ID: "cpu", Name: "processor", Kind: machine.CPU},
			{ID: "pch", Name: "chipset", Kind: machine.Chipset, Uplink: &machine.Uplink{To: "cpu", Gen: 4, Lanes: 8}}},
		Groups: []machine.Group{{ID: "g", Root: "pch", Lanes: 128}},
		Memory: machine.Memory{Generation: memory.DDR4, Speeds: []machine.Speed{{PerChannel: 1, MTps: 3200}, {PerChannel: 2, MTps: 2933}}},
	}
	drive := &part.Part{Name: "drive", Drive: &part.Drive{Form: part.FormM2, Protocol: link.PCIe, Gen: 4, Lanes: 4, M2: &part.M2{Keys: []part.Key{part.KeyM}, LengthMM: 80}}}
	disk := &part.Part{Name: "disk", Drive: &part.Drive{Form: part.Form2i5, Protocol: link.SATA, Gen: 3}}
	module := &part.Part{Name: "module", Module: &part.Module{Generation: memory.DDR4, Form: memory.DIMM, SizeBytes: 16 * quantity.GiB, RateMTps: 3200}}
	out := rig.Rig{Sheet: sheet}
	for i := range n {
		id := machine.SocketID("S" + strconv.Itoa(i))
		k := machine.Socket{ID: id, Root: "pch", Kind: machine.SATA, SATAGen: 3, Protocols: []link.Protocol{link.SATA}, Mount: machine.Mount{Drives: []part.Form{part.Form2i5}}}
		p := disk
		switch i % 3 {
		case 0:
			k = machine.Socket{ID: id, Group: "g", Kind: machine.M2, Gen: 4, Lanes: 4, Key: part.KeyM, Protocols: []link.Protocol{link.PCIe}, LengthsMM: []quantity.Millimetres{80}}
			p = drive
		case 1:
			k = machine.Socket{ID: id, Root: "cpu", Kind: machine.DIMM, Channel: machine.ChannelID(strconv.Itoa(i / 6))}
			p = module
		}
		sheet.Sockets = append(sheet.Sockets, k)
		if i%4 == 3 {
			sheet.Rules = append(sheet.Rules, machine.Rule{ID: string(id), When: []machine.Condition{{Socket: "S0", Holds: machine.HoldsSATA}}, Then: []machine.Effect{{Socket: id, Off: true}}})
		}
		if i%2 == 0 {
			item := rig.ItemID("i" + strconv.Itoa(i))
			out.Pieces = append(out.Pieces, rig.Piece{ID: item, Part: p})
			out.Placements = append(out.Placements, rig.Placement{Item: item, Socket: rig.On(id)})
		}
	}
	return out
}
