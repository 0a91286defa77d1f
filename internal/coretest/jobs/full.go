package jobs

import (
	"testing"

	"deepbay/demo"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/rig"
	"deepbay/internal/format"
)

// Full is the largest shipped machine with every socket taken: cards, a carrier of each kind with
// all positions, modules, drives, boxes.
func Full(tb testing.TB) rig.Rig {
	tb.Helper()
	raw, err := demo.Files.ReadFile("sheets/cormorant-w8.sheet.json")
	if err != nil {
		tb.Fatal(err)
	}
	sheet, err := format.Sheet(raw)
	if err != nil {
		tb.Fatal(err)
	}
	all, err := demo.Parts()
	if err != nil {
		tb.Fatal(err)
	}
	parts := map[string]*part.Part{}
	for i := range all {
		parts[string(all[i].ID)] = &all[i]
	}
	out := rig.Rig{Sheet: &sheet, Setup: rig.Setup{Settings: []rig.Choice{{Setting: "slot3-layout", Value: "4+4+4+4"}}}}
	put := func(name string, at rig.Path) {
		id := rig.ItemID("item-" + at.String())
		out.Pieces = append(out.Pieces, rig.Piece{ID: id, Part: parts[name], New: len(out.Pieces)%2 == 0})
		out.Placements = append(out.Placements, rig.Placement{Item: id, Socket: at})
	}
	fill := map[machine.Kind]string{machine.M2: "ternlight-2000", machine.DIMM: "sallow-32g-reg", machine.SATA: "mudlark-2000", machine.U2: "spindrift-3840", machine.USB: "haven-10", machine.Slot: "raft-4"}
	cards := []string{"jetty-2", "raft-1", "raft-4", "raft-4s"}
	for _, k := range sheet.Sockets {
		name := fill[k.Kind]
		if k.Kind == machine.Slot {
			name, cards = cards[0], cards[1:]
		}
		put(name, rig.On(k.ID))
	}
	for _, k := range out.Carried() {
		put(fill[k.Kind], k.Path)
	}
	return out
}
