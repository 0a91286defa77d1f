package layouts_test

import (
	"testing"

	"deepbay/internal/core/fit"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/rig"
	"deepbay/internal/layouts"
)

// Each layout is a sheet without a fault, of a class of its own kind, and claims
// nothing that a manual must say: no socket of an empty machine has a known rate.
func TestLayouts(t *testing.T) {
	all, err := layouts.All()
	if err != nil {
		t.Fatal(err)
	}
	classes := map[machine.Class]bool{}
	for _, s := range all {
		classes[s.Class] = true
		r := fit.Resolve(&rig.Rig{Sheet: &s})
		for _, k := range r.Sockets {
			if k.Link != nil && k.Link.Known() {
				t.Errorf("%s: %s claims %s", s.ID, k.Socket, k.Link)
			}
		}
		for i, k := range s.Sockets {
			for _, other := range s.Sockets[:i] {
				if a, b := k.Place, other.Place; a.XMM < b.XMM+b.WidthMM && b.XMM < a.XMM+a.WidthMM && a.YMM < b.YMM+b.HeightMM && b.YMM < a.YMM+a.HeightMM {
					t.Errorf("%s draws %s over %s", s.ID, k.ID, other.ID)
				}
			}
		}
		for _, d := range s.Doubts() {
			t.Errorf("%s: %s %s", s.ID, d.Pointer, d.Fact.Code)
		}
		for _, f := range r.Findings {
			if f.Code != "memory-none" {
				t.Errorf("%s, empty: %s", s.ID, f.Says)
			}
		}
	}
	if len(all) < 6 || len(classes) != len(machine.Tower.Values())-1 {
		t.Errorf("%d layouts of %d classes; one for each but the unknown", len(all), len(classes))
	}
}
