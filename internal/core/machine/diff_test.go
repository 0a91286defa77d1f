package machine

import (
	"strings"
	"testing"

	"deepbay/internal/core/link"
	"deepbay/internal/core/quantity"
)

func TestDiff(t *testing.T) {
	for _, c := range []struct {
		change func(*Sheet)
		want   string
	}{
		{func(*Sheet) {}, ""},
		{func(s *Sheet) { s.Sockets[0].Gen, s.Sockets[0].Lanes = 3, 2 }, "entry-changed socket M2 [field-from-to gen 4 3 field-from-to lanes 4 2]"},
		{func(s *Sheet) { s.Sockets[0].Key, s.Sockets[0].Protocols = "M", []link.Protocol{link.SATA} }, "entry-changed socket M2 [field-set key M field-changed protocols]"},
		{func(s *Sheet) { s.Sockets = append(s.Sockets[1:], Socket{ID: "N"}) }, "entries-added socket [N]; entries-removed socket [M2]"},
		{func(s *Sheet) { s.Sockets[0], s.Sockets[1] = s.Sockets[1], s.Sockets[0] }, "entries-reordered socket"},
		{func(s *Sheet) { s.Rules, s.Name = nil, "Y" }, "field-from-to name X Y; entries-removed rule [r]"},
		{func(s *Sheet) { s.Chassis.LowSlots = quantity.Yes }, "part-changed chassis [field-set lowProfileSlots true]"},
		{func(s *Sheet) { s.Memory.Generation = "" }, "part-changed memory [field-removed generation]"},
		{func(s *Sheet) { s.Roots[1].Uplink.Gen = 4 }, "entry-changed root pch [field-changed uplink]"},
	} {
		a, b := good(), good()
		c.change(b)
		var told []string
		for _, f := range Diff(a, b) {
			told = append(told, strings.ReplaceAll(f.String(), "machine/", ""))
		}
		if got := strings.Join(told, "; "); got != c.want {
			t.Errorf("%q, want %q", got, c.want)
		}
	}
}
