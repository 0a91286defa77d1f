package say_test

import (
	"testing"

	"deepbay/internal/core/link"
	"deepbay/internal/core/memory"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/say"
)

// A part in one line, of whichever kind and however little of it is known.
func TestPart(t *testing.T) {
	m2 := &part.M2{Keys: []part.Key{part.KeyM}, LengthMM: 80}
	for _, c := range []struct {
		part part.Part
		says string
	}{
		{part.Part{Drive: &part.Drive{Form: part.FormM2, Protocol: link.PCIe, Gen: 4, Lanes: 4, CapacityBytes: quantity.DriveBytes(500), M2: m2}}, "500 GB M.2 PCIe Gen 4 x4 2280"},
		{part.Part{Drive: &part.Drive{Form: part.FormM2, M2: &part.M2{}}}, "? GB M.2, protocol unknown"},
		{part.Part{Drive: &part.Drive{Form: part.Form3i5, Protocol: link.SATA, CapacityBytes: quantity.DriveBytes(2000), Media: part.Platter}}, "2 TB 3.5-inch SATA hard disk"},
		{part.Part{Module: &part.Module{Generation: memory.DDR4, Form: memory.SODIMM, SizeBytes: 8 * quantity.GiB, RateMTps: 2666}}, "8 GiB DDR4-2666 SO-DIMM"},
		{part.Part{Module: &part.Module{Form: memory.DIMM}}, "DIMM"},
		{part.Part{Name: "X"}, "X"},
		{part.Part{Drive: &part.Drive{Form: part.Form2i5}, Module: &part.Module{}}, "? GB 2.5-inch, protocol unknown"},
		{part.Part{Drive: &part.Drive{Form: part.Form2i5, M2: m2}}, "? GB 2.5-inch, protocol unknown 2280"},
		{part.Part{Drive: &part.Drive{Form: part.Form2i5, Protocol: link.PCIe, Gen: 4, Lanes: 4}}, "? GB 2.5-inch PCIe Gen 4 x4"},
		{part.Part{Card: &part.Card{Connector: 16, Gen: 4, Lanes: 16, Carrier: &part.Carrier{Positions: []part.Position{{Lanes: 4}, {FirstLane: 4, Lanes: 4}}}}}, "2-position carrier, Gen 4 x16"},
		{part.Part{Card: &part.Card{Gen: 3, Lanes: 4, Carrier: &part.Carrier{Switch: true, Positions: []part.Position{{Lanes: 4}, {Lanes: 4}}}}}, "2-position carrier, Gen 3 x4, with a switch chip"},
		{part.Part{Card: &part.Card{Connector: 4, Gen: 4, Lanes: 8}}, "Gen 4 x8 card"},
		{part.Part{Card: &part.Card{Gen: 4, Lanes: 8, Carrier: &part.Carrier{Positions: []part.Position{{Lanes: 4}, {FirstLane: 2, Lanes: 4}}}}}, "2-position carrier, Gen 4 x8"},
		{part.Part{Card: &part.Card{Gen: 4, Lanes: 4, Carrier: &part.Carrier{Positions: []part.Position{{FirstLane: 4, Lanes: 4}}}}}, "1-position carrier, Gen 4 x4"},
		{part.Part{Drive: &part.Drive{Form: part.Form2i5, Protocol: link.SATA, Gen: 4}}, "? GB 2.5-inch SATA"},
		{part.Part{Drive: &part.Drive{Form: part.FormM2, Protocol: link.PCIe, Gen: 3, Lanes: 4, M2: &part.M2{Keys: []part.Key{part.KeyB, part.KeyM}, LengthMM: 110, WidthMM: 25}}}, "? GB M.2 PCIe Gen 3 x4 25110"},
		{part.Part{Card: &part.Card{M2: m2, Gen: 4, Lanes: 4, Carrier: &part.Carrier{Positions: []part.Position{{Takes: part.TakesSlot, Lanes: 4, Physical: 16}}}}}, "M.2 to PCIe slot adapter, Gen 4 x4"},
		{part.Part{Card: &part.Card{M2: &part.M2{Keys: []part.Key{part.KeyE}}, Connector: 4, Lanes: 4, Carrier: &part.Carrier{Positions: []part.Position{{Takes: part.TakesU2}}}}}, "M.2 to U.2 adapter, Gen ? x4"},
		{part.Part{Card: &part.Card{Gen: 3, Lanes: 2, Carrier: &part.Carrier{Switch: true, Positions: []part.Position{{Takes: part.TakesSATA}, {Takes: part.TakesSATA}}}}}, "2-port SATA controller, Gen 3 x2"},
		{part.Part{Card: &part.Card{Carrier: &part.Carrier{Positions: []part.Position{{Takes: part.TakesSATA}}}}}, "slot to SATA adapter, Gen ? x?"},
		{part.Part{Enclosure: &part.Enclosure{USB: link.USB10, Positions: []part.Position{{Lanes: 4}, {Takes: part.TakesSATA, Drives: []part.Form{part.Form3i5}}}}}, "box for M.2 and 3.5-inch, USB 3.2 Gen 2"},
		{part.Part{Enclosure: &part.Enclosure{Positions: []part.Position{{Takes: part.TakesSlot}}}}, "box for PCIe slot, USB, mode unknown"},
		{part.Part{Fitting: &part.Fitting{Kind: part.DataLead, End: part.AngledEnd}}, "SATA data lead, angled end"},
		{part.Part{Fitting: &part.Fitting{Kind: part.PowerAdapter, From: part.PlugMolex, To: part.PlugSATA, Plugs: 2}}, "4-pin peripheral to 2 x sata power adapter"},
		{part.Part{Fitting: &part.Fitting{Kind: part.PowerAdapter, To: part.PlugSATA}}, " to 1 x sata power adapter"},
		{part.Part{Fitting: &part.Fitting{Kind: part.Bracket, Holds: part.Form2i5, Thread: part.M3}}, "bracket for a 2.5-inch drive"},
		{part.Part{Fitting: &part.Fitting{Kind: part.Screws, Thread: part.UNC632}}, "6-32 screws"},
		{part.Part{Fitting: &part.Fitting{Kind: part.Screws}}, "screws"},
		{part.Part{Fitting: &part.Fitting{Kind: part.Spacer}}, "spacer"},
	} {
		if got := say.English(&rig.Rig{}).Part(&c.part).String(); got != c.says {
			t.Errorf("%q, want %q", got, c.says)
		}
	}
}
