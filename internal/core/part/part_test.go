package part

import (
	"reflect"
	"strings"
	"testing"

	"deepbay/internal/core/link"
	"deepbay/internal/core/memory"
	"deepbay/internal/core/quantity"
)

func TestDescribeAndValidate(t *testing.T) {
	m2 := &M2{Keys: []Key{KeyM}, LengthMM: 80}
	for _, c := range []struct {
		part        Part
		says, wrong string
	}{
		{Part{Drive: &Drive{Form: FormM2, Protocol: link.PCIe, Gen: 4, Lanes: 4, CapacityBytes: quantity.DriveBytes(500), M2: m2}}, "500 GB M.2 PCIe Gen 4 x4 2280", ""},
		{Part{Drive: &Drive{Form: FormM2, M2: &M2{}}}, "? GB M.2, protocol unknown", ""},
		{Part{Drive: &Drive{Form: Form3i5, Protocol: link.SATA, CapacityBytes: quantity.DriveBytes(2000), Media: Platter}}, "2 TB 3.5-inch SATA hard disk", ""},
		{Part{Module: &Module{Generation: memory.DDR4, Form: memory.SODIMM, SizeBytes: 8 * quantity.GiB, RateMTps: 2666}}, "8 GiB DDR4-2666 SO-DIMM", ""},
		{Part{Module: &Module{Form: memory.DIMM}}, "DIMM", ""},
		{Part{Name: "X"}, "X", ": part/one-of-the-kinds"},
		{Part{Drive: &Drive{Form: Form2i5}, Module: &Module{}}, "? GB 2.5-inch, protocol unknown", ": part/one-of-the-kinds"},
		{Part{Drive: &Drive{Form: FormM2}}, "? GB M.2, protocol unknown", "/drive: part/needs-m2facts"},
		{Part{Drive: &Drive{Form: Form2i5, M2: m2}}, "? GB 2.5-inch, protocol unknown 2280", "/drive/m2: part/only-m2has-these"},
		{Part{Drive: &Drive{Form: Form2i5, Protocol: link.PCIe, Gen: 4, Lanes: 4}}, "? GB 2.5-inch PCIe Gen 4 x4", "/drive/protocol: part/box-over-pcie"},
		{Part{Card: &Card{Connector: 16, Gen: 4, Lanes: 16, Carrier: &Carrier{Positions: []Position{{Lanes: 4}, {FirstLane: 4, Lanes: 4}}}}}, "2-position carrier, Gen 4 x16", ""},
		{Part{Card: &Card{Gen: 3, Lanes: 4, Carrier: &Carrier{Switch: true, Positions: []Position{{Lanes: 4}, {Lanes: 4}}}}}, "2-position carrier, Gen 3 x4, with a switch chip", ""},
		{Part{Card: &Card{Connector: 4, Gen: 4, Lanes: 8}}, "Gen 4 x8 card", "/card/lanes: part/edge-too-short x4 x8"},
		{Part{Card: &Card{Gen: 4, Lanes: 8, Carrier: &Carrier{Positions: []Position{{Lanes: 4}, {FirstLane: 2, Lanes: 4}}}}}, "2-position carrier, Gen 4 x8", "/card/carrier/positions/1/firstLane: part/lane-taken 2"},
		{Part{Card: &Card{Gen: 4, Lanes: 4, Carrier: &Carrier{Positions: []Position{{FirstLane: 4, Lanes: 4}}}}}, "1-position carrier, Gen 4 x4", "/card/carrier/positions/0/firstLane: part/lanes-beyond-card 4 7 x4"},
		{Part{Drive: &Drive{Form: Form2i5, Protocol: link.SATA, Gen: 4}}, "? GB 2.5-inch SATA", "/drive/gen: part/satagenerations"},
		{Part{Drive: &Drive{Form: Form2i5, Protocol: link.USB}}, "? GB 2.5-inch, protocol unknown", "/drive/protocol: part/usbis-enclosure"},
		{Part{Drive: &Drive{Form: FormM2, Protocol: link.PCIe, Gen: 3, Lanes: 4, M2: &M2{Keys: []Key{KeyB, KeyM}, LengthMM: 110, WidthMM: 25}}}, "? GB M.2 PCIe Gen 3 x4 25110", "/drive/lanes: part/notch-bounds-lanes B and M x2"},
		{Part{Card: &Card{M2: m2, Gen: 4, Lanes: 4, Carrier: &Carrier{Positions: []Position{{Takes: TakesSlot, Lanes: 4, Physical: 16}}}}}, "M.2 to PCIe slot adapter, Gen 4 x4", ""},
		{Part{Card: &Card{M2: &M2{Keys: []Key{KeyE}}, Connector: 4, Lanes: 4, Carrier: &Carrier{Positions: []Position{{Takes: TakesU2}}}}}, "M.2 to U.2 adapter, Gen ? x4",
			"/card/connectorLanes: part/adapter-without-edge/card/lanes: part/edge-notched-at E x2/card/carrier/positions/0/lanes: part/lanes-missing"},
		{Part{Card: &Card{Gen: 3, Lanes: 2, Carrier: &Carrier{Switch: true, Positions: []Position{{Takes: TakesSATA}, {Takes: TakesSATA}}}}}, "2-port SATA controller, Gen 3 x2", ""},
		{Part{Card: &Card{Carrier: &Carrier{Positions: []Position{{Takes: TakesSATA}}}}}, "slot to SATA adapter, Gen ? x?", "/card/carrier/positions/0/takes: part/ports-need-controller"},
		{Part{Enclosure: &Enclosure{USB: link.USB10, Positions: []Position{{Lanes: 4}, {Takes: TakesSATA, Drives: []Form{Form3i5}}}}}, "box for M.2 and 3.5-inch, USB 3.2 Gen 2", ""},
		{Part{Enclosure: &Enclosure{Positions: []Position{{Takes: TakesSlot}}}}, "box for , USB, mode unknown", "/enclosure/positions/0/takes: part/box-without-slot"},
		{Part{Fitting: &Fitting{Kind: DataLead, End: AngledEnd}}, "SATA data lead, angled end", ""},
		{Part{Fitting: &Fitting{Kind: PowerAdapter, From: PlugMolex, To: PlugSATA, Plugs: 2}}, "4-pin peripheral to 2 x sata power adapter", ""},
		{Part{Fitting: &Fitting{Kind: PowerAdapter, To: PlugSATA}}, " to 1 x sata power adapter", "/fitting: part/adapter-without-ends"},
		{Part{Fitting: &Fitting{Kind: Bracket, Holds: Form2i5, Thread: M3}}, "bracket for a 2.5-inch drive", ""},
		{Part{Fitting: &Fitting{Kind: Screws, Thread: UNC632}}, "6-32 screws", ""},
		{Part{Fitting: &Fitting{Kind: Screws}}, "screws", "/fitting: part/thread-missing"},
		{Part{Fitting: &Fitting{Kind: Spacer}}, "spacer", ""},
	} {
		if got := c.part.Describe(); got != c.says {
			t.Errorf("%q, want %q", got, c.says)
		}
		wrong := ""
		for _, p := range c.part.Validate() {
			wrong += p.Pointer + ": " + p.Fact.String()
		}
		if wrong != c.wrong {
			t.Errorf("%s: %q, want %q", c.says, wrong, c.wrong)
		}
	}
}

// An id typed into a list meets what an id in a file meets: the tag of the schema.
func TestID(t *testing.T) {
	f, _ := reflect.TypeFor[Part]().FieldByName("ID")
	if tag := f.Tag.Get("jsonschema"); !strings.Contains(tag, "maxLength=60,pattern="+idPattern.String()) {
		t.Errorf("the schema says %s, Check asks for %s", tag, idPattern)
	}
	for id, good := range map[ID]bool{
		"raft-4": true, "0.a_b": true, ID(strings.Repeat("a", 60)): true,
		"": false, "Raft": false, "-a": false, "a b": false, "a/b": false, "a\n": false, ID(strings.Repeat("a", 61)): false,
	} {
		if err := id.Check(); (err == nil) != good {
			t.Errorf("%q: %v", id, err)
		}
	}
}
