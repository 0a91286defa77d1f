package demo_test

import (
	"strings"
	"testing"

	"deepbay/demo"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/say"
	"deepbay/internal/format"
)

// TestSheets shows that each sheet of the shop does what it is there for: parts
// of the shelf in it, as "part:socket", settings and the processor as "id=value",
// and what the core must say.
func TestSheets(t *testing.T) {
	parts, err := demo.Parts()
	if err != nil {
		t.Fatal(err)
	}
	for _, c := range []struct {
		sheet, what, lay string
		want             []string // codes at sockets, in the order they are found; "" for none
		says             string   // somewhere in the findings or states
	}{
		{"harrier-t4", "the lower socket takes two ports with it", "ternlight-500:M2_2 mudlark-2000:SATA6 sallow-16g-3200:A2 sallow-16g-3200:B2",
			[]string{"socket-off SATA6", "link-below-drive M2_2", "m2-warm M2_2", "port-lost SATA5"}, "Gen 3 x4, 3.94 GB/s"},
		{"gannet-d1", "a processor that kills a socket", "ternlight-500:M2_1 sallow-16g-3200:A2 sallow-16g-3200:B2 cpu=gen-a",
			[]string{"socket-off M2_1"}, "when the processor is first generation, M2_1 is off"},
		{"gannet-d1", "one that does not", "ternlight-500:M2_1 sallow-16g-3200:A2 sallow-16g-3200:B2 cpu=gen-b", []string{"m2-warm M2_1"}, "Gen 4 x4, 7.88 GB/s"},
		{"gannet-d1", "and one that nobody has looked at", "ternlight-500:M2_1 sallow-16g-3200:A2 sallow-16g-3200:B2", []string{"fit-unknown M2_1", "m2-warm M2_1"}, "does not say which processor is fitted"},
		{"kittiwake-d2", "an M.2 socket that halves the graphics slot", "gallery-8:PCIE1 ternlight-2000:M2_2 sallow-32g-5600:A2 sallow-32g-5600:B2",
			[]string{"card-narrow PCIE1", "link-below-socket M2_2", "memory-speed A2", "memory-speed B2"}, "Gen 4 x8"},
		{"cormorant-w8", "a slot covered by a wide card", "gallery-8:SLOT1 raft-1:SLOT2 sallow-32g-reg:A1", []string{"slot-covered SLOT2", "channels-empty"}, "covers it"},
		{"cormorant-w8", "a plain carrier in a slot that is not split", "raft-4:SLOT3 ternlight-2000:SLOT3/1 ternlight-2000:SLOT3/3 sallow-32g-reg:A1", []string{"position-dead SLOT3/3", "channels-empty"}, "lanes for 1 of 4 positions"},
		{"cormorant-w8", "split in two: the first and third", "raft-4:SLOT3 ternlight-2000:SLOT3/1 ternlight-2000:SLOT3/3 sallow-32g-reg:A1 slot3-layout=8+8", []string{"channels-empty"}, "lanes for 2 of 4 positions"},
		{"cormorant-w8", "a carrier with a switch chip needs no split", "raft-4s:SLOT4 ternlight-2000:SLOT4/1 ternlight-2000:SLOT4/2 ternlight-2000:SLOT4/3 sallow-32g-reg:A1", []string{"carrier-shared SLOT4", "channels-empty"}, "lanes for 4 of 4 positions"},
		{"petrel-l1", "a logger proven with more than its sheet states", "sallow-8g-3l-so:SODIMM1", []string{"module-proven SODIMM1"}, "proven by the job of June"},
		{"plover-m2", "a mini PC with no room for a heatsink", "ternlight-2000:M2 sallow-8g-so:SODIMM1", []string{"m2-height M2", "m2-under M2", "channels-empty"}, "has free above it 2.2 mm"},
		{"dunlin-s3", "a slim desktop that feeds two drives from its board", "mudlark-2000:SATA1 skerry-480:SATA2 sallow-16g-3200:A1 sallow-16g-3200:B1", []string{"bay-loose SATA2", "memory-speed A1", "memory-speed B1"}, "SATA 6 Gb/s"},
		{"dunlin-s3", "and takes no full-height card", "gallery-8:PCIE1 sallow-16g-3200:A1", []string{"card-length PCIE1", "card-bracket PCIE1", "plugs-unknown", "channels-empty", "memory-speed A1"}, "the case takes 170 mm"},
		{"dunlin-s3", "and in the place of its optical drive only with the right lead", "skerry-480:SATA3 sallow-16g-3200:A1 sallow-16g-3200:B1", []string{"plug-wrong SATA3", "memory-speed A1", "memory-speed B1"}, "ends in slimline sata"},
		{"dunlin-s3", "which the shop has", "skerry-480:SATA3 crimp-slim sled-95 spacer-25 sallow-16g-3200:A1 sallow-16g-3200:B1", []string{"memory-speed A1", "memory-speed B1"}, "SATA 6 Gb/s"},
		{"plover-m2", "what does not go in goes outside", "haven-10:USB1 ternlight-2000:USB1/1 sallow-8g-so:SODIMM1", []string{"outside USB1/1", "channels-empty"}, "moves about 900 MB/s outside"},
		{"cormorant-w8", "a U.2 drive on its own port, and one on an adapter", "spindrift-3840:U2_1 stilt-u2:M2_1 spindrift-3840:M2_1/1 sallow-32g-reg:A1", []string{"channels-empty"}, "lanes for 1 of 1 position"},
		{"avocet-e1", "an old desktop takes no DDR4", "sallow-16g-3200:A1", []string{"memory-generation A1", "memory-none"}, "takes DDR3 only"},
	} {
		raw, err := demo.Files.ReadFile("sheets/" + c.sheet + ".sheet.json")
		if err != nil {
			t.Fatal(err)
		}
		sheet, err := format.Sheet(raw)
		if err != nil {
			t.Fatal(err)
		}
		b := rig.Rig{Sheet: &sheet}
		for i, word := range strings.Fields(c.lay) {
			if id, value, ok := strings.Cut(word, "="); ok {
				if id == "cpu" {
					b.Processor = machine.ProcessorID(value)
				} else {
					b.Settings = append(b.Settings, rig.Choice{Setting: machine.SettingID(id), Value: value})
				}
				continue
			}
			name, socket, placed := strings.Cut(word, ":")
			var p *part.Part
			for k := range parts {
				if string(parts[k].ID) == name {
					p = &parts[k]
				}
			}
			if p == nil {
				t.Fatalf("%s: no part %s", c.what, name)
			}
			item := rig.ItemID(rune('a' + i))
			b.Pieces = append(b.Pieces, rig.Piece{ID: item, Part: p})
			if placed {
				b.Placements = append(b.Placements, rig.Placement{Item: item, Socket: rig.ParsePath(socket)})
			}
		}
		b.Found = &rig.Setup{}
		answer := fit.Resolve(&b)
		r := say.English(&b).Answer(&answer)
		var got []string
		all := ""
		for _, f := range r.Findings {
			for _, p := range append([]rig.Placement{{Socket: f.Socket}}, f.Also...) {
				got = append(got, strings.TrimSpace(string(f.Code)+" "+p.Socket.String()))
			}
			all += f.Says.String() + "\n"
			for _, why := range f.Because {
				all += why.Says.String() + "\n"
			}
		}
		for _, s := range r.Sockets {
			all += s.Says.String() + "\n"
		}
		if strings.Join(got, ", ") != strings.Join(c.want, ", ") {
			t.Errorf("%s, %s:\n%s\nwant\n%s", c.sheet, c.what, strings.Join(got, ", "), strings.Join(c.want, ", "))
		}
		if !strings.Contains(all, c.says) {
			t.Errorf("%s, %s: nowhere is said %q:\n%s", c.sheet, c.what, c.says, all)
		}
	}
}
