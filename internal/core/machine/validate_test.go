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
		{"two of a name", func(s *Sheet) { s.Sockets[1].ID = "M2"; s.Rules[0].Then[0].Socket = "M2" }, `/sockets/1/id: "M2" names entry 0 too`},
		{"no processor", func(s *Sheet) {
			s.Roots = s.Roots[1:]
			s.Groups = nil
			s.Sockets = s.Sockets[1:2]
			s.Rules = nil
			s.Memory.Fill = nil
		}, "/roots/0/uplink/to: no root is named \"cpu\"\n/roots: 0 processors"},
		{"processor on an uplink", func(s *Sheet) { s.Roots[0].Uplink = &Uplink{To: "pch"} }, "/roots/0/uplink: a processor has no uplink\n/roots/1/uplink/to: the uplinks run in a circle"},
		{"loose chipset", func(s *Sheet) { s.Roots[1].Uplink = nil }, "/roots/1: a chipset hangs on an uplink"},
		{"circle", func(s *Sheet) {
			s.Roots = append(s.Roots, Root{ID: "b", Kind: Chipset, Uplink: &Uplink{To: "c"}}, Root{ID: "c", Kind: Chipset, Uplink: &Uplink{To: "b"}})
		}, "/roots/2/uplink/to: the uplinks run in a circle\n/roots/3/uplink/to: the uplinks run in a circle"},
		{"chipset behind chipset", func(s *Sheet) {
			s.Roots = append(s.Roots, Root{ID: "b", Kind: Chipset, Uplink: &Uplink{To: "pch"}})
		}, ""},
		{"group of no root", func(s *Sheet) { s.Groups[0].Root = "gpu" }, `/groups/0/root: no root is named "gpu"`},
		{"more lanes than there are", func(s *Sheet) { s.Groups[0].Lanes = 2 }, "/groups/0/lanes: its sockets take 4 lanes, the group has 2"},
		{"socket of no group", func(s *Sheet) { s.Sockets[0].Group = "h" }, `/sockets/0/group: no group is named "h"`},
		{"socket of no root", func(s *Sheet) { s.Sockets[1].Root = "h" }, `/sockets/1/root: no root is named "h"`},
		{"fed twice", func(s *Sheet) { s.Sockets[0].Root = "cpu" }, "/sockets/0/root: the group already says which root feeds it"},
		{"memory without channel", func(s *Sheet) { s.Sockets[2].Channel = "" }, "/sockets/2: a memory slot needs its channel"},
		{"channel on a port", func(s *Sheet) { s.Sockets[1].Channel = "A" }, "/sockets/1/channel: only memory slots are on a channel"},
		{"wider than long", func(s *Sheet) { s.Sockets[0].Kind = Slot; s.Sockets[0].Physical = 1 }, "/sockets/0/lanes: a slot x1 long cannot carry x4"},
		{"off the board", func(s *Sheet) { s.Sockets[0].Place.XMM = 195 }, "/sockets/0/place: it lies outside the board"},
		{"default that is none", func(s *Sheet) { s.Settings[0].Default = "z" }, `/settings/0/default: "z" is not among its options`},
		{"rule about no socket", func(s *Sheet) { s.Rules[0].When[0].Socket = "M3" }, `/rules/0/when/0/socket: no socket is named "M3"`},
		{"rule about nothing", func(s *Sheet) { s.Rules[0].When[0] = Condition{} }, "/rules/0/when/0: a condition asks about a socket, a setting or the processor"},
		{"rule about no processor", func(s *Sheet) { s.Rules[0].When[0] = Condition{Processor: "p"} }, `/rules/0/when/0/processor: no processor is named "p"`},
		{"two processors of a name", func(s *Sheet) { s.Processors = []Processor{{ID: "p"}, {ID: "p"}} }, `/processors/1/id: "p" names entry 0 too`},
		{"lanes claimed twice", func(s *Sheet) { shared(s, Effect{Socket: "SATA1", Off: true}) }, "/groups/0: M2 and X claim the same lanes, and no rule takes them from either"},
		{"lanes claimed twice, and settled", func(s *Sheet) { shared(s, Effect{Socket: "M2", MaxLanes: 2}) }, ""},
		{"lanes beyond the end", func(s *Sheet) { shared(s, Effect{Socket: "M2", MaxLanes: 2}); s.Groups[0].Lanes = 3 }, "/groups/0/lanes: M2 ends at lane 3, the group ends at 2\n/groups/0/lanes: X ends at lane 3, the group ends at 2"},
		{"one socket instead of the other", func(s *Sheet) {
			s.Sockets = append(s.Sockets, Socket{ID: "X", Kind: M2, Place: s.Sockets[0].Place, Group: "g", Lanes: 4})
			s.Rules = append(s.Rules, Rule{ID: "x", When: []Condition{{Socket: "X", Holds: HoldsAnything}}, Then: []Effect{{Socket: "M2", Off: true}}})
		}, ""},
		{"a split of a port", func(s *Sheet) { s.Sockets[0].Splits = [][]quantity.Lanes{{2, 2}} }, "/sockets/0/splits/0: only a PCIe slot is divided"},
		{"wider than its key allows", func(s *Sheet) { s.Sockets[0].Key = part.KeyB }, "/sockets/0/lanes: a socket keyed B carries x2 at most"},
		{"a USB mode on a port that is none", func(s *Sheet) { s.Sockets[1].USB = link.USB10 }, "/sockets/1/usb: only a USB port has a USB mode"},
		{"under a card nobody names", func(s *Sheet) { s.Sockets[0].UnderMM = 3 }, "/sockets/0/clearUnderCardMM: under which card is not said"},
		{"a split that is none", func(s *Sheet) { s.Sockets[0].Kind = Slot; s.Sockets[0].Splits = [][]quantity.Lanes{{4, 4}, {3, 1}} },
			"/sockets/0/splits/0: 8 lanes in 2 parts do not divide a slot of x4\n/sockets/0/splits/1: 3 is not a PCIe width"},
		{"a split that is not offered", func(s *Sheet) { s.Rules[0].Then[0] = Effect{Socket: "M2", Split: []quantity.Lanes{2, 2}} }, "/rules/0/then/0/split: M2 cannot be divided like this"},
		{"holds what", func(s *Sheet) { s.Rules[0].When[0].Holds = "" }, "/rules/0/when/0: what the socket holds is missing"},
		{"rule about no setting", func(s *Sheet) { s.Rules[0].When[0] = Condition{Setting: "t", Is: "a"} }, `/rules/0/when/0/setting: no setting is named "t"`},
		{"value that is none", func(s *Sheet) { s.Rules[0].When[0] = Condition{Setting: "s", Is: "c"} }, `/rules/0/when/0/is: "c" is not an option of s`},
		{"effect on no socket", func(s *Sheet) { s.Rules[0].Then[0].Socket = "SATA9" }, `/rules/0/then/0/socket: no socket is named "SATA9"`},
		{"effect of nothing", func(s *Sheet) { s.Rules[0].Then[0].Off = false }, "/rules/0/then/0: nothing happens"},
		{"profile with more", func(s *Sheet) { s.Rules[0].Then[0].Profile = true }, "/rules/0/then/0: memoryProfile stands alone"},
		{"fill of a port", func(s *Sheet) { s.Memory.Fill[0].Slots[0] = "SATA1" }, `/memory/fill/0/slots/0: no memory slot is named "SATA1"`},
		{"proof of less", func(s *Sheet) { s.Memory.Module = Limit{2 * quantity.GiB, quantity.GiB, "job"} }, "/memory/module/provenBytes: no more was proven than is stated"},
		{"proof by nobody", func(s *Sheet) { s.Memory.Total = Limit{quantity.GiB, 2 * quantity.GiB, ""} }, "/memory/total: the proof is not named"},
	} {
		s := good()
		c.break_(s)
		var got []string
		for _, p := range s.Validate() {
			if p.Cure == "" {
				t.Errorf("%s: %q has no cure", c.name, p.Says)
			}
			p.Cure = ""
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
