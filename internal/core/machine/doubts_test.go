package machine_test

import (
	"strings"
	"testing"

	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/quantity"
	"deepbay/internal/coretest"
)

// TestDoubts changes one thing of a sheet without doubts, and sees which doubt comes of it.
func TestDoubts(t *testing.T) {
	rule := func(id string, when []machine.Condition, then ...machine.Effect) func(*machine.Sheet) {
		return func(s *machine.Sheet) { s.Rules = append(s.Rules, machine.Rule{ID: id, When: when, Then: then}) }
	}
	holds := func(id machine.SocketID, what machine.Holds) machine.Condition {
		return machine.Condition{Socket: id, Holds: what}
	}
	at := func(x, y quantity.Millimetres) machine.Place {
		return machine.Place{XMM: x, YMM: y, WidthMM: 80, HeightMM: 22}
	}
	for name, c := range map[string]struct {
		change func(*machine.Sheet)
		want   string
	}{
		"nothing":          {func(*machine.Sheet) {}, ""},
		"on one another":   {func(s *machine.Sheet) { s.Socket("U").Place, s.Socket("L").Place = at(10, 10), at(30, 12) }, "lies-on"},
		"beside":           {func(s *machine.Sheet) { s.Socket("U").Place, s.Socket("L").Place = at(10, 10), at(12, 25) }, ""},
		"named alike":      {func(s *machine.Sheet) { s.Socket("P5").ID = "p-9" }, "named-alike"},
		"closes itself":    {rule("r", []machine.Condition{holds("U", machine.HoldsAnything)}, machine.Effect{Socket: "U", Off: true}), "closes-itself"},
		"closes another":   {rule("r", []machine.Condition{holds("U", machine.HoldsAnything)}, machine.Effect{Socket: "P9", Off: true}), ""},
		"no faster anyway": {rule("r", []machine.Condition{holds("U", machine.HoldsAnything)}, machine.Effect{Socket: "L", MaxGen: 3}), "changes-none"},
		"slower":           {rule("r", []machine.Condition{holds("U", machine.HoldsAnything)}, machine.Effect{Socket: "L", MaxGen: 2}), ""},
		"never so":         {rule("r", []machine.Condition{holds("U", "pcie"), holds("U", "sata")}, machine.Effect{Socket: "P9", Off: true}), "never-so"},
		"both so":          {rule("r", []machine.Condition{holds("U", "pcie"), holds("L", "sata")}, machine.Effect{Socket: "P9", Off: true}), ""},
		"said before":      {func(s *machine.Sheet) { r := s.Rules[0]; r.ID = "again"; s.Rules = append(s.Rules, r) }, "said-before"},
		"said otherwise": {func(s *machine.Sheet) {
			when := []machine.Condition{holds("U", machine.HoldsAnything)}
			rule("a", when, machine.Effect{Socket: "L", Protocols: []link.Protocol{link.PCIe}})(s)
			rule("b", when, machine.Effect{Socket: "L", Protocols: []link.Protocol{link.SATA}})(s)
		}, "said-other"},
	} {
		s := coretest.Board()
		c.change(s)
		got := ""
		for _, p := range s.Doubts() {
			_, code, _ := strings.Cut(string(p.Fact.Code), "/")
			got += code + " "
		}
		if !strings.HasPrefix(got, c.want) || c.want == "" && got != "" {
			t.Errorf("%s: %q, want %q", name, got, c.want)
		}
	}
}
