package machine

import (
	"strings"
	"testing"

	"deepbay/internal/core/link"
	"deepbay/internal/core/memory"
	"deepbay/internal/core/part"
	"deepbay/internal/core/problem"
	"deepbay/internal/core/quantity"
)

func good() *Sheet {
	at := Place{XMM: 1, YMM: 1, WidthMM: 10, HeightMM: 5}
	return &Sheet{
		ID: "x", Name: "X", Class: Tower, Board: Board{WidthMM: 200, HeightMM: 200},
		Roots:  []Root{{ID: "cpu", Kind: CPU, Place: at}, {ID: "pch", Kind: Chipset, Place: at, Uplink: &Uplink{To: "cpu", Gen: 3, Lanes: 4}}},
		Groups: []Group{{ID: "g", Root: "cpu", Lanes: 4}},
		Sockets: []Socket{
			{ID: "M2", Kind: M2, Place: at, Group: "g", Gen: 4, Lanes: 4, Protocols: []link.Protocol{link.PCIe}},
			{ID: "SATA1", Kind: SATA, Place: at, Root: "pch"},
			{ID: "A1", Kind: DIMM, Place: at, Root: "cpu", Channel: "A"},
		},
		Settings: []Setting{{ID: "s", Name: "S", Options: []Option{{"a", "A"}, {"b", "B"}}, Default: "a"}},
		Rules:    []Rule{{ID: "r", When: []Condition{{Socket: "M2", Holds: HoldsAnything}}, Then: []Effect{{Socket: "SATA1", Off: true}}}},
		Memory:   Memory{Generation: memory.DDR4, Fill: []Fill{{Slots: []SocketID{"A1"}}}},
	}
}

// shared adds a socket X on the upper lanes of M2's group, and an effect for when it is used.
func shared(s *Sheet, e Effect) {
	s.Sockets = append(s.Sockets, Socket{ID: "X", Kind: M2, Place: s.Sockets[0].Place, Group: "g", FirstLane: 2, Lanes: 2})
	s.Rules = append(s.Rules, Rule{ID: "x", When: []Condition{{Socket: "X", Holds: HoldsAnything}}, Then: []Effect{e}})
}

// Each fault is named at its place; a good sheet has none.
func TestValidate(t *testing.T) {
	for _, c := range []struct {
		name   string
		break_ func(*Sheet)
		want   string // pointer and the start of the sentence, "" for a good sheet
	}{
		{"good", func(*Sheet) {}, ""},
		{"two of a name", func(s *Sheet) { s.Sockets[1].ID = "M2"; s.Rules[0].Then[0].Socket = "M2" }, `/sockets/1/id: machine/named-twice M2 0`},
		{"no processor", func(s *Sheet) {
			s.Roots = s.Roots[1:]
			s.Groups = nil
			s.Sockets = s.Sockets[1:2]
			s.Rules = nil
			s.Memory.Fill = nil
		}, "/roots/0/uplink/to: machine/no-root-is-named cpu\n/roots: machine/not-one-processor 0"},
		{"processor on an uplink", func(s *Sheet) { s.Roots[0].Uplink = &Uplink{To: "pch"} }, "/roots/0/uplink: machine/processor-with-uplink\n/roots/1/uplink/to: machine/uplinks-in-circle"},
		{"loose chipset", func(s *Sheet) { s.Roots[1].Uplink = nil }, "/roots/1: machine/chipset-without-uplink"},
		{"circle", func(s *Sheet) {
			s.Roots = append(s.Roots, Root{ID: "b", Kind: Chipset, Uplink: &Uplink{To: "c"}}, Root{ID: "c", Kind: Chipset, Uplink: &Uplink{To: "b"}})
		}, "/roots/2/uplink/to: machine/uplinks-in-circle\n/roots/3/uplink/to: machine/uplinks-in-circle"},
		{"chipset behind chipset", func(s *Sheet) {
			s.Roots = append(s.Roots, Root{ID: "b", Kind: Chipset, Uplink: &Uplink{To: "pch"}})
		}, ""},
		{"group of no root", func(s *Sheet) { s.Groups[0].Root = "gpu" }, `/groups/0/root: machine/no-root-is-named gpu`},
		{"more lanes than there are", func(s *Sheet) { s.Groups[0].Lanes = 2 }, "/groups/0/lanes: machine/more-than-group 4 2"},
		{"socket of no group", func(s *Sheet) { s.Sockets[0].Group = "h" }, `/sockets/0/group: machine/no-group-is-named h`},
		{"socket of no root", func(s *Sheet) { s.Sockets[1].Root = "h" }, `/sockets/1/root: machine/no-root-is-named h`},
		{"fed twice", func(s *Sheet) { s.Sockets[0].Root = "cpu" }, "/sockets/0/root: machine/group-says-root"},
		{"memory without channel", func(s *Sheet) { s.Sockets[2].Channel = "" }, "/sockets/2: machine/slot-without-channel"},
		{"channel on a port", func(s *Sheet) { s.Sockets[1].Channel = "A" }, "/sockets/1/channel: machine/only-memory-has-channel"},
		{"wider than long", func(s *Sheet) { s.Sockets[0].Kind = Slot; s.Sockets[0].Physical = 1 }, "/sockets/0/lanes: machine/slot-too-short x1 x4"},
		{"off the board", func(s *Sheet) { s.Sockets[0].Place.XMM = 195 }, "/sockets/0/place: machine/outside-board 200 mm 200 mm"},
		{"default that is none", func(s *Sheet) { s.Settings[0].Default = "z" }, `/settings/0/default: machine/not-among-options z`},
		{"rule about no socket", func(s *Sheet) { s.Rules[0].When[0].Socket = "M3" }, `/rules/0/when/0/socket: machine/no-socket-is-named M3`},
		{"rule about nothing", func(s *Sheet) { s.Rules[0].When[0] = Condition{} }, "/rules/0/when/0: machine/condition-of-nothing"},
		{"rule about no processor", func(s *Sheet) { s.Rules[0].When[0] = Condition{Processor: "p"} }, `/rules/0/when/0/processor: machine/no-processor-is-named p`},
		{"two processors of a name", func(s *Sheet) { s.Processors = []Processor{{ID: "p"}, {ID: "p"}} }, `/processors/1/id: machine/named-twice p 0`},
		{"lanes claimed twice", func(s *Sheet) { shared(s, Effect{Socket: "SATA1", Off: true}) }, "/groups/0: machine/lanes-claimed-twice M2 X"},
		{"lanes claimed twice, and settled", func(s *Sheet) { shared(s, Effect{Socket: "M2", MaxLanes: 2}) }, ""},
		{"lanes beyond the end", func(s *Sheet) { shared(s, Effect{Socket: "M2", MaxLanes: 2}); s.Groups[0].Lanes = 3 }, "/groups/0/lanes: machine/beyond-group M2 3 2\n/groups/0/lanes: machine/beyond-group X 3 2"},
		{"one socket instead of the other", func(s *Sheet) {
			s.Sockets = append(s.Sockets, Socket{ID: "X", Kind: M2, Place: s.Sockets[0].Place, Group: "g", Lanes: 4})
			s.Rules = append(s.Rules, Rule{ID: "x", When: []Condition{{Socket: "X", Holds: HoldsAnything}}, Then: []Effect{{Socket: "M2", Off: true}}})
		}, ""},
		{"a split of a port", func(s *Sheet) { s.Sockets[0].Splits = [][]quantity.Lanes{{2, 2}} }, "/sockets/0/splits/0: machine/only-slots-split"},
		{"wider than its key allows", func(s *Sheet) { s.Sockets[0].Key = part.KeyB }, "/sockets/0/lanes: machine/key-bounds-lanes B x2"},
		{"a USB mode on a port that is none", func(s *Sheet) { s.Sockets[1].USB = link.USB10 }, "/sockets/1/usb: machine/only-usbhas-mode"},
		{"under a card nobody names", func(s *Sheet) { s.Sockets[0].UnderMM = 3 }, "/sockets/0/clearUnderCardMM: machine/under-which-card"},
		{"a split that is none", func(s *Sheet) { s.Sockets[0].Kind = Slot; s.Sockets[0].Splits = [][]quantity.Lanes{{4, 4}, {3, 1}} },
			"/sockets/0/splits/0: machine/split-does-not-fit 8 2 x4\n/sockets/0/splits/1: machine/no-pcie-width 3"},
		{"a split that is not offered", func(s *Sheet) { s.Rules[0].Then[0] = Effect{Socket: "M2", Split: []quantity.Lanes{2, 2}} }, "/rules/0/then/0/split: machine/no-such-split M2"},
		{"holds what", func(s *Sheet) { s.Rules[0].When[0].Holds = "" }, "/rules/0/when/0: machine/holds-missing"},
		{"rule about no setting", func(s *Sheet) { s.Rules[0].When[0] = Condition{Setting: "t", Is: "a"} }, `/rules/0/when/0/setting: machine/no-setting-is-named t`},
		{"value that is none", func(s *Sheet) { s.Rules[0].When[0] = Condition{Setting: "s", Is: "c"} }, `/rules/0/when/0/is: machine/no-option c s`},
		{"effect on no socket", func(s *Sheet) { s.Rules[0].Then[0].Socket = "SATA9" }, `/rules/0/then/0/socket: machine/no-socket-is-named SATA9`},
		{"effect of nothing", func(s *Sheet) { s.Rules[0].Then[0].Off = false }, "/rules/0/then/0: machine/nothing-happens"},
		{"profile with more", func(s *Sheet) { s.Rules[0].Then[0].Profile = true }, "/rules/0/then/0: machine/profile-stands-alone"},
		{"fill of a port", func(s *Sheet) { s.Memory.Fill[0].Slots[0] = "SATA1" }, `/memory/fill/0/slots/0: machine/no-memory-slot-is-named SATA1`},
		{"proof of less", func(s *Sheet) { s.Memory.Module = Limit{2 * quantity.GiB, quantity.GiB, "job"} }, "/memory/module/provenBytes: machine/proven-not-more"},
		{"bays with names and ports", func(s *Sheet) { s.Bays = []Bay{{ID: "low", Ports: []SocketID{"SATA1"}}, {ID: "top"}} }, ""},
		{"two bays of a name", func(s *Sheet) { s.Bays = []Bay{{ID: "low"}, {ID: "low"}} }, `/bays/1/id: machine/named-twice low 0`},
		{"a bay named as a socket", func(s *Sheet) { s.Bays = []Bay{{ID: "M2"}} }, `/bays/0/id: machine/bay-named-as-socket M2`},
		{"a bay on no port", func(s *Sheet) { s.Bays = []Bay{{ID: "low", Ports: []SocketID{"M2", "SATA9"}}} },
			"/bays/0/ports/0: machine/no-drive-port M2\n/bays/0/ports/1: machine/no-socket-is-named SATA9"},
		{"a bay said twice", func(s *Sheet) {
			s.Sockets[1].Drives = []part.Form{part.Form2i5}
			s.Bays = []Bay{{ID: "low", Ports: []SocketID{"SATA1"}}}
		}, `/bays/0/ports/0: machine/has-own-bay SATA1`},
		{"proof by nobody", func(s *Sheet) { s.Memory.Total = Limit{quantity.GiB, 2 * quantity.GiB, ""} }, "/memory/total: machine/proof-not-named"},
	} {
		s := good()
		c.break_(s)
		var got []string
		for _, p := range s.Validate() {
			got = append(got, p.String())
		}
		if strings.Join(got, "\n") != c.want {
			t.Errorf("%s:\n%s\nwant\n%s", c.name, strings.Join(got, "\n"), c.want)
		}
	}
}

func TestLookups(t *testing.T) {
	s := good()
	if r := s.RootOf(s.Socket("M2")); r == nil || r.ID != "cpu" {
		t.Errorf("M2 is fed by %v", r)
	}
	if r := s.RootOf(&Socket{}); r != nil {
		t.Errorf("a socket of no root is fed by %v", r)
	}
	if s.Socket("no") != nil || s.Setting("no") != nil || s.Root("no") != nil {
		t.Error("what is not there was found")
	}
	if got := s.Setting("s").OptionName("b") + s.Setting("s").OptionName("z"); got != "Bz" {
		t.Errorf("option names %q", got)
	}
	if err := (problem.List{}).Err(); err != nil {
		t.Errorf("nothing wrong is an error: %v", err)
	}
	l := problem.List{{Pointer: "", Says: "bad", Cure: "mend it"}}.Under("/sheet")
	if l.Err().Error() != "/sheet: bad; mend it" {
		t.Errorf("%v", l.Err())
	}
}
