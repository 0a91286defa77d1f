package data

import (
	"slices"

	"deepbay/internal/core/rig"
)

// Drive is a drive as the record begins.
type Drive struct {
	ID    rig.ItemID
	Holds rig.Content // what its card says today
	At    rig.Path    // where it was found; zero where it was not in the machine
}

// Group is drives that hold their data only together: an array that came with the machine.
type Group []rig.ItemID

// Pair is data that is to come from one drive onto another and is not proved.
type Pair struct {
	N        int
	From, To rig.ItemID
}

// datum names data by the drive it lay on first, and how often that drive was given new data since.
type datum struct {
	of  rig.ItemID
	gen int
}

// grade is how surely a datum lies on a drive.
type grade int

const (
	doubtful grade = iota + 1 // it may lie there: it is protected there, and is no copy
	made                      // hands copied it there, and nobody compared
	good                      // it was there from the beginning, or was compared
)

type drive struct {
	at    rig.Path
	away  bool // out of the shop or the job
	off   bool
	gen   int
	holds map[datum]grade
}

// State is where every drive is and what lies on it, as far as the record tells.
type State struct {
	drives map[rig.ItemID]*drive
	groups []Group
	backup map[datum]bool
	pairs  []Pair
	word   bool
	nested map[rig.ItemID]rig.Path // carriers and other parts that are no drives, where they are
}

// Begin is the state before anybody laid hands on the machine. A datum lies on every drive that is not
// said to be blank. others is the places of parts that are no drives, for drives ride on cards; word is
// that the owner told of a copy; pairs is what is to be copied and was not proved.
func Begin(drives []Drive, others map[rig.ItemID]rig.Path, groups []Group, pairs []Pair, word bool, record Record) *State {
	s := &State{drives: make(map[rig.ItemID]*drive, len(drives)), groups: groups, backup: map[datum]bool{}, pairs: pairs, word: word, nested: others}
	first := map[rig.ItemID]rig.Content{}
	for i := range record {
		for _, e := range record[i].Effects {
			if _, told := first[e.Item]; e.What == Says && !told {
				first[e.Item] = e.Was
			}
			if e.What != Puts && e.What != Takes && s.drives[e.Item] == nil && e.What != Connects && e.What != Disconnects {
				s.begin(e.Item) // also of a drive that has left the job since
				if e.From != "" {
					s.begin(e.From)
				}
			}
		}
	}
	for _, d := range drives {
		holds, told := first[d.ID]
		if !told {
			holds = d.Holds
		}
		x := s.begin(d.ID)
		if x.at = d.At; holds == rig.Blank {
			clear(x.holds)
		}
	}
	for id, holds := range first {
		if holds == rig.Blank {
			clear(s.drives[id].holds)
		}
	}
	return s
}

// begin is a drive with data of its own on it.
func (s *State) begin(id rig.ItemID) *drive {
	if s.drives[id] == nil {
		s.drives[id] = &drive{holds: map[datum]grade{{id, 0}: good}}
	}
	return s.drives[id]
}

// Fold goes through a record. It judges nothing: what happened has happened.
func (s *State) Fold(record Record) {
	void := record.Voided()
	for i := range record {
		for _, e := range record[i].Effects {
			s.take(e, void[record[i].N])
		}
	}
}

// take makes one effect. Of one that is said not to have happened the worse of both cases is kept:
// what was erased may be gone, and may be there.
func (s *State) take(e Act, void bool) {
	if e.What == Puts || e.What == Takes {
		s.move(e, void)
		return
	}
	d := s.drives[e.Item]
	if d == nil {
		return
	}
	switch e.What {
	case Disconnects:
		d.off = !void
	case Connects:
		d.off = d.off && void
	case Erases:
		s.over(e.Item, d, void, false)
	case Clones, Copies:
		s.over(e.Item, d, void, e.What == Copies)
		if from := s.drives[e.From]; from != nil && !void {
			for x, g := range from.holds {
				if g != doubtful {
					d.holds[x] = max(d.holds[x], made)
				}
			}
		}
	case Proves:
		if void {
			return
		}
		if from := s.drives[e.From]; from != nil {
			for x, g := range d.holds {
				if _, of := from.holds[x]; (of || x.of == e.From) && g == made {
					d.holds[x] = good
				}
			}
		}
		s.settle(e.Pair)
	case BacksUp:
		for x := range d.holds {
			if !void {
				s.backup[x] = true
			}
		}
	case Leaves:
		s.over(e.Item, d, void, false)
	case Removed:
		d.away = !void
	case Returns:
		d.away = false
	case Says:
		s.says(e, d, void)
	}
}

// settle ends a pair that is proved.
func (s *State) settle(n int) {
	s.pairs = slices.DeleteFunc(slices.Clone(s.pairs), func(p Pair) bool { return p.N == n })
}

func (s *State) move(e Act, void bool) {
	d := s.drives[e.Item]
	switch {
	case void:
	case d == nil:
		s.nested[e.Item] = e.At
	default:
		d.at = e.At
	}
}

// over is that a drive is written over: all of it, or what did not come from another drive.
func (s *State) over(id rig.ItemID, d *drive, void, keep bool) {
	for _, fellow := range s.groupOf(id) {
		for x, g := range s.drives[fellow].holds {
			if fellow != id && x.of == fellow && g == good {
				s.drives[fellow].holds[x] = doubtful
			}
		}
	}
	for x := range d.holds {
		switch {
		case keep && x.of != id:
		case void:
			d.holds[x] = doubtful
		default:
			delete(d.holds, x)
		}
	}
}

// groupOf is the drives that hold their data only together with a drive, none where it holds its own.
func (s *State) groupOf(id rig.ItemID) Group {
	for _, g := range s.groups {
		if slices.Contains(g, id) {
			return slices.DeleteFunc(slices.Clone(g), func(x rig.ItemID) bool { return s.drives[x] == nil })
		}
	}
	return nil
}

// says is that the card of a drive is corrected.
func (s *State) says(e Act, d *drive, void bool) {
	if void {
		return
	}
	if e.Now != rig.Blank {
		if own := (datum{e.Item, d.gen}); d.holds[own] != good {
			d.gen++
			d.holds[datum{e.Item, d.gen}] = good
		}
		return
	}
	source := e.Pair != 0 // a copy from it was meant when that was said, and nobody copies what is not there
	for x := range d.holds {
		elsewhere := false
		for id, o := range s.drives {
			elsewhere = elsewhere || id != e.Item && o.holds[x] != 0
		}
		if x.of == e.Item && !source && !elsewhere { // it was a slip that anything was there
			delete(d.holds, x)
		} else {
			d.holds[x] = doubtful
		}
	}
}

// Where is the place in which hands have put a drive, zero where it is not in the machine.
func (s *State) Where(id rig.ItemID) rig.Path {
	d := s.drives[id]
	if d == nil || d.away || !s.carried(d.at) {
		return rig.Path{}
	}
	return d.at
}

// carried reports whether everything that carries a place is in the machine.
func (s *State) carried(at rig.Path) bool {
	for at.Nested() {
		at = at.Holder()
		there := false
		for _, p := range s.nested {
			there = there || p == at
		}
		if !there {
			return false
		}
	}
	return !at.IsZero()
}

// Connected lists the drives that run at this moment, by name.
func (s *State) Connected() []rig.ItemID {
	var out []rig.ItemID
	for id, d := range s.drives {
		if !d.off && !s.Where(id).IsZero() {
			out = append(out, id)
		}
	}
	slices.Sort(out)
	return out
}

// Holds reports whether anything that must stay may lie on a drive.
func (s *State) Holds(id rig.ItemID) bool {
	d := s.drives[id]
	return d != nil && len(d.holds) > 0
}

// Arrived reports whether the copy of a transfer lies where it was made, untouched since.
func (s *State) Arrived(p Pair) bool {
	to := s.drives[p.To]
	if to == nil || to.away {
		return false
	}
	for x, g := range to.holds {
		if x.of == p.From && g >= made {
			return true
		}
	}
	return false
}
