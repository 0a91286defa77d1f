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
		{func(s *Sheet) { s.Sockets[0].Gen, s.Sockets[0].Lanes = 3, 2 }, "socket M2: gen 4 to 3, lanes 4 to 2"},
		{func(s *Sheet) { s.Sockets[0].Key, s.Sockets[0].Protocols = "M", []link.Protocol{link.SATA} }, "socket M2: key M, protocols"},
		{func(s *Sheet) { s.Sockets = append(s.Sockets[1:], Socket{ID: "N"}) }, "socket N added; socket M2 removed"},
		{func(s *Sheet) { s.Sockets[0], s.Sockets[1] = s.Sockets[1], s.Sockets[0] }, "sockets in another order"},
		{func(s *Sheet) { s.Rules, s.Name = nil, "Y" }, "name X to Y; rule r removed"},
		{func(s *Sheet) { s.Chassis.LowSlots = quantity.Yes }, "chassis: low Profile Slots true"},
		{func(s *Sheet) { s.Memory.Generation = "" }, "memory: generation removed"},
		{func(s *Sheet) { s.Roots[1].Uplink.Gen = 4 }, "root pch: uplink"},
	} {
		a, b := good(), good()
		c.change(b)
		if got := strings.Join(Diff(a, b), "; "); got != c.want {
			t.Errorf("%q, want %q", got, c.want)
		}
	}
}
