package rig_test

import (
	"encoding/json"
	"errors"
	"fmt"
	"math/rand"
	"slices"
	"strings"
	"testing"

	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/rig"
	"deepbay/internal/coretest"
)

func FuzzPath(f *testing.F) {
	for _, s := range []string{"", "M2_1", "PCIE1/2", "A/1/2/3/4/5/6/7", "A/1/2/3/4/5/6/7/8", "A/0", "A/01", "A/+1", "A/", "/1", "A/256", "A//1"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, s string) {
		p := rig.ParsePath(s)
		if p.String() != s {
			t.Fatalf("%q reads as %q", s, p)
		}
		up, n := p, 0
		for up.Nested() {
			if up.Holder().Position(up.Last()) != up {
				t.Fatalf("%q: holder %q, position %d", s, up.Holder(), up.Last())
			}
			up = up.Holder()
			n++
		}
		if n != p.Depth() || p.Top() != up.Top() || n > rig.MaxDepth {
			t.Fatalf("%q: %d deep, %d holders", s, p.Depth(), n)
		}
	})
}

// board has two M.2 sockets, two slots, two ports; adapters, carriers and drives lie
// about: at depth two a drive on a carrier in the slot of an adapter.
func board(placed ...string) rig.Rig {
	sheet := &machine.Sheet{Settings: []machine.Setting{{ID: "s", Default: "a"}}}
	for id, k := range map[machine.SocketID]machine.Kind{"M1": machine.M2, "M2": machine.M2, "X1": machine.Slot, "X2": machine.Slot, "P1": machine.SATA, "P2": machine.SATA} {
		sheet.Sockets = append(sheet.Sockets, machine.Socket{ID: id, Kind: k})
	}
	slices.SortFunc(sheet.Sockets, func(a, b machine.Socket) int { return strings.Compare(string(a.ID), string(b.ID)) })
	four := &part.Carrier{Positions: make([]part.Position, 4)}
	parts := map[byte]*part.Part{
		'a': {Card: &part.Card{M2: &part.M2{}, Carrier: &part.Carrier{Positions: []part.Position{{Takes: part.TakesSlot}}}}},
		'c': {Card: &part.Card{Carrier: four}}, 'd': {Drive: &part.Drive{Form: part.FormM2, M2: &part.M2{}}}, 's': {Drive: &part.Drive{Form: part.Form2i5}}}
	r := rig.Rig{Sheet: sheet}
	for _, name := range []string{"a1", "a2", "c1", "c2", "d1", "d2", "d3", "s1", "s2"} {
		r.Pieces = append(r.Pieces, rig.Piece{ID: rig.ItemID(name), Part: parts[name[0]]})
	}
	for _, p := range placed {
		item, at, _ := strings.Cut(p, ":")
		r.Placements = append(r.Placements, rig.Placement{Item: rig.ItemID(item), Socket: rig.ParsePath(at)})
	}
	return r
}

func moves(text string) []rig.Move {
	var out []rig.Move
	for _, w := range strings.Fields(text) {
		item, at, _ := strings.Cut(w, ":")
		out = append(out, rig.Move{Item: rig.ItemID(item), Socket: rig.ParsePath(at)})
	}
	return out
}

func brief(s rig.Setup) string {
	var out []string
	for _, p := range s.Placements {
		out = append(out, fmt.Sprint(p.Item, ":", p.Socket))
	}
	slices.Sort(out)
	return strings.Join(out, " ")
}

// What moves takes along what it carries, to any depth; what is in the way gives way;
// what cannot be is refused and changes nothing.
func TestMoved(t *testing.T) {
	deep := []string{"a1:M1", "c1:M1/1", "d1:M1/1/2", "s1:P1"}
	for _, c := range []struct {
		name, moves, want string
		done              int
	}{
		{"an adapter with a carrier with a drive", "a1:M2", "a1:M2 c1:M2/1 d1:M2/1/2 s1:P1", 1},
		{"out, with all it carries", "a1:", "s1:P1", 1},
		{"the carrier alone, out of the adapter", "c1:X1", "a1:M1 c1:X1 d1:X1/2 s1:P1", 1},
		{"the drive stays behind", "a1:M2 d1:M1", "a1:M2 c1:M2/1 d1:M1 s1:P1", 2},
		{"onto what comes with the same moves", "d2:M2/1/4 c1:M2/1 a1:M2", "a1:M2 c1:M2/1 d1:M2/1/2 d2:M2/1/4 s1:P1", 3},
		{"in the way", "s2:P1", "a1:M1 c1:M1/1 d1:M1/1/2 s2:P1", 2},
		{"in the way, with what it carries", "a2:M1", "a2:M1 s1:P1", 2},
		{"nothing", "s1:P1", "a1:M1 c1:M1/1 d1:M1/1/2 s1:P1", 0},
		{"onto itself", "a1:M1/1", "fault 1 at M1/1", 0},
		{"onto what it carries", "a1:M1/1/3", "fault 1 at M1/1/3", 0},
		{"no such position", "d2:M1/1/5", "fault 0 at M1/1/5", 0},
		{"no such socket", "d2:Q", "fault 0 at Q", 0},
		{"of a part that has left", "d2:M1/1/1 c1:", "fault 0 at M1/1/1", 0},
		{"nobody", "zz:M2", "fault 2 at ", 0},
	} {
		r := board(deep...)
		got, done, err := r.Moved(moves(c.moves))
		says := brief(got)
		var f *rig.Fault
		if errors.As(err, &f) {
			says = fmt.Sprintf("fault %d at %s", f.Kind, f.At)
		}
		if says != c.want || len(done) != c.done {
			t.Errorf("%s: %s %v\nwant %s, %d changed", c.name, says, done, c.want, c.done)
		}
		if now := brief(r.Setup); now != brief(board(deep...).Setup) {
			t.Errorf("%s: the rig was touched: %s", c.name, now)
		}
	}
}

func TestPut(t *testing.T) {
	for _, c := range []struct{ name, put, want string }{
		{"change places", "c1:X2", "c1:X2 c2:X1 d1:X2/1 d2:X1/3"},
		{"from the mat", "c3:X1", "c2:X2 c3:X1 d2:X2/3"},
		{"a drive with another", "d1:X2/3", "c1:X1 c2:X2 d1:X2/3 d2:X1/1"},
		{"where its own carrier lies", "d1:X1", "c2:X2 d1:X1 d2:X2/3"},
	} {
		r := board("c1:X1", "d1:X1/1", "c2:X2", "d2:X2/3")
		r.Pieces = append(r.Pieces, rig.Piece{ID: "c3", Part: &part.Part{}})
		item, at, _ := strings.Cut(c.put, ":")
		got, _, err := r.Moved(r.Put(rig.ItemID(item), rig.ParsePath(at)))
		if err != nil || brief(got) != c.want {
			t.Errorf("%s: %s %v\nwant %s", c.name, brief(got), err, c.want)
		}
	}
}

// On random machines: a piece is in one place and a place holds one piece, whatever
// is moved; the order of the moves does not matter; what is told is where it was told
// to; moved back, all is as before.
func TestMovedRandomly(t *testing.T) {
	tried, deep := 0, 0
	for seed := range int64(3000) {
		rng := rand.New(rand.NewSource(seed))
		r := coretest.Machine(rng)
		var told []rig.Move
		places := r.Carried()
		for i := range r.Sheet.Sockets {
			places = append(places, rig.Place{Path: rig.On(r.Sheet.Sockets[i].ID)})
		}
		for range 1 + rng.Intn(4) {
			if len(r.Pieces) == 0 {
				break
			}
			m := rig.Move{Item: r.Pieces[rng.Intn(len(r.Pieces))].ID}
			if rng.Intn(5) > 0 {
				m.Socket = places[rng.Intn(len(places))].Path
			}
			if !slices.ContainsFunc(told, func(o rig.Move) bool { return o.Item == m.Item || o.Socket == m.Socket && !m.Socket.IsZero() }) {
				told = append(told, m)
			}
		}
		after, done, err := r.Moved(told)
		other := slices.Clone(told)
		rng.Shuffle(len(other), func(i, j int) { other[i], other[j] = other[j], other[i] })
		again, _, err2 := r.Moved(other)
		if (err == nil) != (err2 == nil) || brief(after) != brief(again) {
			t.Fatalf("seed %d: order matters: %s\nand %s", seed, brief(after), brief(again))
		}
		if err != nil {
			continue
		}
		tried++
		next := r
		next.Setup = after
		for i, p := range after.Placements {
			if k := next.Socket(p.Socket); k == nil {
				t.Fatalf("seed %d: %s lies in %s, which is not there", seed, p.Item, p.Socket)
			}
			deep = max(deep, p.Socket.Depth())
			for _, q := range after.Placements[:i] {
				if p.Item == q.Item || p.Socket == q.Socket {
					t.Fatalf("seed %d: %v and %v", seed, p, q)
				}
			}
		}
		for _, m := range told {
			if at := after.Where(m.Item); at != m.Socket {
				t.Fatalf("seed %d: %s was told to %q and lies in %q", seed, m.Item, m.Socket, at)
			}
		}
		made, _, err := r.Moved(done)
		if err != nil || brief(made) != brief(after) {
			t.Fatalf("seed %d: what is said to have changed makes %s, not %s (%v)", seed, brief(made), brief(after), err)
		}
		var back []rig.Move
		for _, p := range r.Pieces {
			back = append(back, rig.Move{Item: p.ID, Socket: r.Where(p.ID)})
		}
		if home, _, err := next.Moved(back); err != nil || brief(home) != brief(r.Setup) {
			t.Fatalf("seed %d: moved back: %s\nwant %s (%v)", seed, brief(home), brief(r.Setup), err)
		}
	}
	if tried < 1500 || deep < 2 {
		t.Errorf("%d moves made, %d deep: that shows little", tried, deep)
	}
}

func TestPathInFiles(t *testing.T) {
	in := rig.Placement{Item: "d", Socket: rig.ParsePath("PCIE1/2")}
	b, err := json.Marshal(in)
	if err != nil || string(b) != `{"item":"d","socket":"PCIE1/2"}` {
		t.Fatalf("%s %v", b, err)
	}
	var out rig.Placement
	if err := json.Unmarshal(b, &out); err != nil || out != in {
		t.Errorf("%+v %v", out, err)
	}
	if b, err := json.Marshal(rig.Move{Item: "d"}); err != nil || string(b) != `{"item":"d"}` {
		t.Errorf("%s %v", b, err)
	}
}

func ExampleRig_Moved() {
	r := board("c1:X1", "d1:X1/1")
	after, done, _ := r.Moved([]rig.Move{{Item: "c1", Socket: rig.On("X2")}})
	fmt.Println(brief(after))
	fmt.Println(len(done), "move")
	// Output:
	// c1:X2 d1:X2/1
	// 1 move
}
