package data

import (
	"slices"

	"deepbay/internal/core/rig"
)

// Why is what stands against an act.
type Why string

// The reasons, each a row of the law.
const (
	NotHere  Why = "not here"  // the drive is not in the machine, or not connected, as hands left it
	Waits    Why = "waits"     // a copy from it is meant or made, and not proved
	Unlooked Why = "unlooked"  // nobody said what it holds, and nothing was read back
	NoCopy   Why = "no copy"   // what lies on it is nowhere else, as far as anybody read it back
	OneCopy  Why = "one copy"  // it would leave with one copy only
	IsInside Why = "is inside" // it is in the machine: nothing leaves that way
)

// Breach is an act after which a datum could be without a good copy.
type Breach struct {
	Why  Why
	Item rig.ItemID // the drive that is acted on
	Of   rig.ItemID // the drive whose data it is
	To   rig.ItemID // of a copy that is waited for: where it goes
}

// Do makes what a step or a deed would do, and says what stands against it: none of the rest is
// changed by an effect that is refused. This is the law; no other place has a rule of its own.
func (s *State) Do(effects []Act) []Breach {
	var out []Breach
	var group []rig.ItemID // what is written over together is no copy for one another
	for _, e := range effects {
		switch e.What {
		case Erases, Copies, Clones, Leaves:
			group = append(group, e.Item)
		}
	}
	for _, e := range effects {
		breaches := s.against(e, group)
		if len(breaches) > 0 {
			out = append(out, breaches...)
			continue
		}
		s.take(e, false)
	}
	return out
}

func (s *State) against(e Act, group []rig.ItemID) []Breach {
	d := s.drives[e.Item]
	var out []Breach
	switch e.What {
	case Erases, Copies, Clones:
		if d == nil || d.off || s.Where(e.Item).IsZero() {
			return []Breach{{Why: NotHere, Item: e.Item}}
		}
		if from := s.drives[e.From]; e.What != Erases && (from == nil || from.away || from.off) {
			return []Breach{{Why: NotHere, Item: e.From}}
		}
		if b, waits := s.waits(e.Item); waits {
			return []Breach{b}
		}
		for _, x := range s.onto(e, d) {
			if n, original := s.copies(x, e.Item, group); n == 0 && !original {
				out = append(out, Breach{Why: NoCopy, Item: e.Item, Of: x.of})
			}
		}
	case Leaves:
		if d == nil {
			return nil
		}
		if !s.Where(e.Item).IsZero() {
			return []Breach{{Why: IsInside, Item: e.Item}}
		}
		if b, waits := s.waits(e.Item); waits {
			return []Breach{b}
		}
		for _, x := range s.onto(e, d) {
			n, original := s.copies(x, e.Item, group)
			switch {
			case original && x.of != e.Item: // a copy may go while its source lies untouched
			case n == 0:
				out = append(out, Breach{Why: NoCopy, Item: e.Item, Of: x.of})
			case n == 1 && !s.word:
				out = append(out, Breach{Why: OneCopy, Item: e.Item, Of: x.of})
			}
		}
	case Removed:
		if d != nil && !s.Where(e.Item).IsZero() {
			return []Breach{{Why: IsInside, Item: e.Item}}
		}
	case Proves:
		if d == nil || s.Where(e.Item).IsZero() || !s.Arrived(Pair{From: e.From, To: e.Item}) {
			return []Breach{{Why: NotHere, Item: e.Item}}
		}
	}
	return out
}

// onto is the data that an effect writes over, by name.
func (s *State) onto(e Act, d *drive) []datum {
	var out []datum
	for x := range d.holds {
		if e.What == Copies && x.of != e.Item {
			continue // files lie beside files
		}
		out = append(out, x)
	}
	for _, id := range s.groupOf(e.Item) { // one member less, and what they hold together is gone
		for x := range s.drives[id].holds {
			if id != e.Item && x.of == id {
				out = append(out, x)
			}
		}
	}
	slices.SortFunc(out, func(a, b datum) int {
		if a.of != b.of {
			if a.of < b.of {
				return -1
			}
			return 1
		}
		return a.gen - b.gen
	})
	return out
}

// waits is a copy from a drive that is meant or made and not proved, where it can still be.
func (s *State) waits(id rig.ItemID) (Breach, bool) {
	for _, p := range s.pairs {
		if to := s.drives[p.To]; p.From == id && to != nil && !to.away && s.drives[id].keeps(id) {
			return Breach{Why: Waits, Item: id, Of: id, To: p.To}, true
		}
	}
	return Breach{}, false
}

// keeps reports whether data of a drive's own may still lie on it.
func (d *drive) keeps(id rig.ItemID) bool {
	for x := range d.holds {
		if x.of == id {
			return true
		}
	}
	return false
}

// copies counts the copies of a datum besides a drive that somebody read back, and whether another
// drive has it untouched from the beginning. What hangs together with that drive is no copy.
func (s *State) copies(x datum, but rig.ItemID, group []rig.ItemID) (readBack int, original bool) {
	if s.backup[x] {
		readBack++
	}
	for id, d := range s.drives {
		if id == but || d.away || d.holds[x] != good || slices.Contains(group, id) || slices.Contains(s.groupOf(but), id) {
			continue
		}
		if x.of == id {
			original = true
		} else {
			readBack++
		}
	}
	return readBack, original
}
