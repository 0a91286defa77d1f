package part

import (
	"reflect"
	"strings"
	"testing"

	"deepbay/internal/core/link"
	"deepbay/internal/core/memory"
	"deepbay/internal/core/quantity"
)

func TestValidate(t *testing.T) {
	m2 := &M2{Keys: []Key{KeyM}, LengthMM: 80}
	for _, c := range []struct {
		part  Part
		wrong string
	}{
		{Part{Drive: &Drive{Form: FormM2, Protocol: link.PCIe, Gen: 4, Lanes: 4, CapacityBytes: quantity.DriveBytes(500), M2: m2}}, ""},
		{Part{Drive: &Drive{Form: FormM2, M2: &M2{}}}, ""},
		{Part{Module: &Module{Generation: memory.DDR4, Form: memory.SODIMM, SizeBytes: 8 * quantity.GiB, RateMTps: 2666}}, ""},
		{Part{Module: &Module{Form: memory.DIMM}}, ""},
		{Part{Name: "X"}, ": part/one-of-the-kinds"},
		{Part{Drive: &Drive{Form: Form2i5}, Module: &Module{}}, ": part/one-of-the-kinds"},
		{Part{Drive: &Drive{Form: FormM2}}, "/drive: part/needs-m2facts"},
		{Part{Drive: &Drive{Form: Form2i5, M2: m2}}, "/drive/m2: part/only-m2has-these"},
		{Part{Drive: &Drive{Form: Form2i5, Protocol: link.PCIe, Gen: 4, Lanes: 4}}, "/drive/protocol: part/box-over-pcie"},
		{Part{Card: &Card{Gen: 3, Lanes: 4, Carrier: &Carrier{Switch: true, Positions: []Position{{Lanes: 4}, {Lanes: 4}}}}}, ""},
		{Part{Card: &Card{Connector: 4, Gen: 4, Lanes: 8}}, "/card/lanes: part/edge-too-short x4 x8"},
		{Part{Card: &Card{Gen: 4, Lanes: 8, Carrier: &Carrier{Positions: []Position{{Lanes: 4}, {FirstLane: 2, Lanes: 4}}}}}, "/card/carrier/positions/1/firstLane: part/lane-taken 2"},
		{Part{Card: &Card{Gen: 4, Lanes: 4, Carrier: &Carrier{Positions: []Position{{FirstLane: 4, Lanes: 4}}}}}, "/card/carrier/positions/0/firstLane: part/lanes-beyond-card 4 7 x4"},
		{Part{Drive: &Drive{Form: Form2i5, Protocol: link.SATA, Gen: 4}}, "/drive/gen: part/satagenerations"},
		{Part{Drive: &Drive{Form: Form2i5, Protocol: link.USB}}, "/drive/protocol: part/usbis-enclosure"},
		{Part{Drive: &Drive{Form: FormM2, Protocol: link.PCIe, Gen: 3, Lanes: 4, M2: &M2{Keys: []Key{KeyB, KeyM}, LengthMM: 110, WidthMM: 25}}}, "/drive/lanes: part/notch-bounds-lanes B and M x2"},
		{Part{Card: &Card{M2: &M2{Keys: []Key{KeyE}}, Connector: 4, Lanes: 4, Carrier: &Carrier{Positions: []Position{{Takes: TakesU2}}}}}, "/card/connectorLanes: part/adapter-without-edge/card/lanes: part/edge-notched-at E x2/card/carrier/positions/0/lanes: part/lanes-missing"},
		{Part{Card: &Card{Gen: 3, Lanes: 2, Carrier: &Carrier{Switch: true, Positions: []Position{{Takes: TakesSATA}, {Takes: TakesSATA}}}}}, ""},
		{Part{Card: &Card{Carrier: &Carrier{Positions: []Position{{Takes: TakesSATA}}}}}, "/card/carrier/positions/0/takes: part/ports-need-controller"},
		{Part{Enclosure: &Enclosure{Positions: []Position{{Takes: TakesSlot}}}}, "/enclosure/positions/0/takes: part/box-without-slot"},
		{Part{Fitting: &Fitting{Kind: DataLead, End: AngledEnd}}, ""},
		{Part{Fitting: &Fitting{Kind: PowerAdapter, To: PlugSATA}}, "/fitting: part/adapter-without-ends"},
		{Part{Fitting: &Fitting{Kind: Screws}}, "/fitting: part/thread-missing"},
	} {
		wrong := ""
		for _, p := range c.part.Validate() {
			wrong += p.Pointer + ": " + p.Fact.String()
		}
		if wrong != c.wrong {
			t.Errorf("%+v: %q, want %q", c.part, wrong, c.wrong)
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
