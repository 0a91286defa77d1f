package say

import (
	"testing"

	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
)

// TestFactsOf reads what a sheet says of its sockets: all that is stated, and nothing else.
func TestFactsOf(t *testing.T) {
	sheet := machine.Sheet{Roots: []machine.Root{{ID: "cpu", Kind: machine.CPU, Name: "the processor"}, {ID: "pch", Kind: machine.Chipset, Name: "the chipset"}}, Groups: []machine.Group{{ID: "pch-a", Root: "pch"}}}
	for _, c := range []struct {
		socket machine.Socket
		want   []string
	}{
		{machine.Socket{Kind: machine.M2}, []string{"kind: M.2 socket"}},
		{machine.Socket{Kind: machine.M2, Where: "under the fan", Group: "pch-a", Gen: 4, Lanes: 4, Protocols: []link.Protocol{link.PCIe, link.SATA}, Key: "M",
			Contacts: machine.RearEdge, LengthsMM: []quantity.Millimetres{60, 80}, WidthMM: 25, TopMM: 3.5, BottomMM: 1.5, UnderMM: 2, Under: 2, Heatsink: quantity.Yes},
			[]string{"kind: M.2 socket", "where: under the fan", "fed by: pch-a", "PCIe: Gen 4 x4", "speaks: PCIe or SATA", "key: M", "contacts at the end towards: rear of the board", "posts at: 60 mm, 80 mm", "room for cards as wide as: 25 mm",
				"free above: 3.5 mm", "free below: 1.5 mm", "under the card at: rear opening 2", "free under that card: 2 mm", "heatsink of the board: yes"}},
		{machine.Socket{Kind: machine.Slot, Gen: 5, Physical: 16, OpenEnd: quantity.No, Splits: [][]quantity.Lanes{{8, 8}, {8, 4, 4}}},
			[]string{"kind: PCIe slot", "PCIe: Gen 5 x?", "can be split: 8+8 or 8+4+4", "as long as: x16", "open at its end: no"}},
		{machine.Socket{Kind: machine.SATA, Root: "pch", SATAGen: 3, Lead: quantity.No, Mount: machine.Mount{Drives: []part.Form{part.Form2i5, part.Form3i5}, BayMM: 26.1, Power: part.PlugSATA, Holder: machine.HeldByCaddy, HasHolder: quantity.Yes}},
			[]string{"kind: SATA port", "fed by: the chipset", "SATA: 6 Gb/s", "takes: 2.5-inch or 3.5-inch", "bay height: 26.1 mm", "data lead: no", "fed from: sata", "held by: caddy", "that holder is there: yes"}},
		{machine.Socket{Kind: machine.SODIMM, Root: "cpu", Channel: "A"}, []string{"kind: SO-DIMM slot", "fed by: the processor", "channel: A"}},
		{machine.Socket{Kind: machine.SODIMM, Channel: machine.UntoldChannel, Told: &machine.Told{}}, []string{"kind: SO-DIMM slot (seen)"}},
		{machine.Socket{Kind: machine.M2, Gen: 3, Lanes: 4, Key: "M", Physical: 4, Told: &machine.Told{Gen: 4, Lanes: 4, Key: "M"}},
			[]string{"kind: M.2 socket (seen)", "PCIe: Gen 3 x4 (the machine told Gen 4 x4)", "as long as: x4", "key: M (seen)"}},
		{machine.Socket{Kind: machine.M2, Told: &machine.Told{Key: "M"}}, []string{"kind: M.2 socket (seen)", "key: not stated (the machine told M)"}},
		{machine.Socket{Kind: machine.USB, USB: link.USB10}, []string{"kind: USB port", "USB: USB 3.2 Gen 2"}},
	} {
		sheet.Sockets = []machine.Socket{c.socket}
		got := FactsOf(Plain, &sheet)[0].Facts
		for i := range max(len(got), len(c.want)) {
			var is, want string
			if i < len(got) {
				is = got[i].What.String() + ": " + got[i].Value.String()
				if note := got[i].Note.String(); note != "" {
					is += " (" + note + ")"
				}
			}
			if i < len(c.want) {
				want = c.want[i]
			}
			if is != want {
				t.Errorf("%s: says %q, want %q", c.socket.Kind, is, want)
			}
		}
	}
}
