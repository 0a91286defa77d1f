package plan

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"testing"
	"time"

	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/memory"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
	"deepbay/internal/coretest"
)

// monster is coretest's, as a question.
func monster(n int) Input {
	found, pieces, wish := coretest.Monster(n)
	return Input{Found: found, Pieces: pieces, Wish: wish}
}

// The monster is proved, by size.
func BenchmarkMonster(b *testing.B) {
	for n := 3; n <= 7; n++ {
		in := monster(n)
		b.Run(fmt.Sprintf("slots=%d/pieces=%d", n, len(in.Pieces)), func(b *testing.B) {
			b.ReportAllocs()
			for b.Loop() {
				if r, err := Find(context.Background(), in); err != nil || r.End != Optimal {
					b.Fatal(r.End, err)
				}
			}
		})
	}
}

func TestMonster(t *testing.T) {
	in := monster(7)
	r, err := Find(context.Background(), in)
	if err != nil || r.End != Optimal {
		t.Fatalf("%v %v after %d builds: %+v bound %v", r.End, err, r.Judged, r.Best, r.Bound)
	}
	t.Logf("%d builds, %v, bound %v", r.Judged, r.Best.Score, r.Bound)
	holds(t, &in, r.Best)
}

// hostile makes a question nobody would ask: hundreds of sockets, drives of which no
// two are alike, settings that switch off, in every value, what other values leave.
func hostile(sockets, drives, settings int, hopeless bool) Input {
	s := &machine.Sheet{ID: "hostile", Name: "Hostile", Roots: []machine.Root{{ID: "cpu", Name: "processor", Kind: machine.CPU}}, Groups: []machine.Group{{ID: "all", Root: "cpu", Lanes: 128}}}
	in := Input{Found: rig.Rig{Sheet: s}}
	for i := range sockets {
		s.Sockets = append(s.Sockets, machine.Socket{ID: machine.SocketID(fmt.Sprint("M2_", i+1)), Kind: machine.M2, Group: "all", Protocols: []link.Protocol{link.PCIe}, Gen: quantity.Gen(3 + i%3), Lanes: 4, Key: part.KeyM, LengthsMM: []quantity.Millimetres{80}})
	}
	s.Sockets = append(s.Sockets, machine.Socket{ID: "DIMM1", Kind: machine.DIMM, Root: "cpu", Channel: "A"})
	s.Memory.Generation = memory.DDR4
	for i := range settings {
		id := machine.SettingID(fmt.Sprint("set", i+1))
		s.Settings = append(s.Settings, machine.Setting{ID: id, Name: string(id), Default: "a", Options: []machine.Option{{Value: "a", Name: "a"}, {Value: "b", Name: "b"}}})
		for k := range s.Sockets[:sockets] {
			off := "ab"[(k+i)%2 : (k+i)%2+1]
			s.Rules = append(s.Rules, machine.Rule{ID: fmt.Sprint("r", len(s.Rules)), When: []machine.Condition{{Setting: id, Is: off}}, Then: []machine.Effect{{Socket: s.Sockets[k].ID, Off: k%(settings+1) == i || hopeless}}})
			if !s.Rules[len(s.Rules)-1].Then[0].Off {
				s.Rules[len(s.Rules)-1].Then[0].MaxGen = 3
			}
		}
	}
	for i := range drives {
		in.Pieces = append(in.Pieces, rig.Piece{ID: rig.ItemID(fmt.Sprint("i", i+1)), New: true, Part: &part.Part{ID: part.ID(fmt.Sprint("d", i+1)), Name: "drive",
			Drive: &part.Drive{Form: part.FormM2, Protocol: link.PCIe, Gen: 4, Lanes: 4, CapacityBytes: quantity.DriveBytes(500), ReadMBps: float64(3000 + 100*i), M2: &part.M2{Keys: []part.Key{part.KeyM}, LengthMM: 80, TwoSided: quantity.No}}}})
	}
	in.Pieces = append(in.Pieces, rig.Piece{ID: "module", New: true, Part: &part.Part{ID: "m", Name: "module", Module: &part.Module{Generation: memory.DDR4, Form: memory.DIMM, SizeBytes: quantity.GiB, RateMTps: 3200, Ranks: 1}}})
	return in
}

// A hostile question ends within its budget: with a proof, or with the admission
// that there is none.
func TestHostile(t *testing.T) {
	for _, c := range []struct {
		name                      string
		sockets, drives, settings int
		hopeless                  bool
		want                      []End
	}{
		{"hundreds of sockets", 300, 40, 4, false, []End{Optimal, GaveUp}},
		{"every socket is off, whatever is set", 300, 40, 2, true, []End{Impossible, GaveUp}},
		{"many settings", 40, 12, 10, false, []End{Optimal, GaveUp}},
		{"more drives than sockets", 20, 21, 3, false, []End{Impossible}},
	} {
		in := hostile(c.sockets, c.drives, c.settings, c.hopeless)
		start := time.Now()
		r, err := Find(context.Background(), in)
		if err != nil || !slices.Contains(c.want, r.End) || r.End == Optimal != (r.Best != nil) && r.End != GaveUp {
			t.Errorf("%s: %s %v", c.name, r.End, err)
		}
		t.Logf("%s: %s after %d builds, %v", c.name, r.End, r.Judged, time.Since(start).Round(time.Millisecond))
		if r.End == Optimal {
			holds(t, &in, r.Best)
		}
		// Cut short, it says so, or had the answer by then.
		in.Budget = 2000
		if r, err := Find(context.Background(), in); err != nil || r.End == Optimal && r.Best == nil {
			t.Errorf("%s, cut short: %s %v", c.name, r.End, err)
		}
		// No longer wanted, it stops.
		gone, cancel := context.WithCancel(context.Background())
		cancel()
		if _, err := Find(gone, in); !errors.Is(err, context.Canceled) {
			t.Errorf("%s, no longer wanted: %v", c.name, err)
		}
	}
}
