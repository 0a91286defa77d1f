package job

// This file is what a job proves of a model: more memory than its spec sheet states, seen
// and tested, and links that are faster than the sheet says.

import (
	"slices"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/power"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// ProvenOf is what was proven.
type ProvenOf string

// What jobs prove beyond the sheet.
const (
	ProvenModule ProvenOf = "module" // a module larger than stated works
	ProvenMemory ProvenOf = "memory" // more in all than stated
	ProvenLink   ProvenOf = "link"   // a socket of a higher generation
)

// Values lists the kinds for the formats.
func (ProvenOf) Values() []string {
	return []string{string(ProvenModule), string(ProvenMemory), string(ProvenLink)}
}

// Proven is one figure beyond the sheet's, with what shows it.
type Proven struct {
	Of     ProvenOf
	Socket machine.SocketID // of a link
	Bytes  quantity.Bytes   // of memory
	Gen    quantity.Gen     // of a link
	Says   fact.Fact
}

// proven lists what a job proves. Memory counts once its total was read off a screen and it
// came through a test; a link once it was read.
func proven(v *View) []Proven {
	j := &v.Job
	var out []Proven
	tested := false
	for i := range v.Order {
		if t := j.testOf(v.Order[i].ID); v.Order[i].Test == rig.MemoryTest && t != nil {
			tested = t.State == TestPassed
		}
	}
	limit := &j.Sheet.Memory
	for i := range v.Lines {
		l := &v.Lines[i]
		if l.Reading == nil || l.Reading.Lapsed || l.Reading.Absent {
			continue
		}
		got, k := l.Reading, j.Sheet.Socket(l.ID.Socket.Top())
		switch {
		case l.ID.Kind == power.Total && tested && l.Verdict == power.Agrees && beyond(limit.Total, got.Bytes):
			out = append(out, Proven{Of: ProvenMemory, Bytes: got.Bytes, Says: fact.Of(ProvesMemory, got.Bytes, limit.Total.StatedBytes)})
		case l.ID.Kind == power.Slot && tested && l.Verdict == power.Agrees && beyond(limit.Module, got.Bytes):
			out = larger(out, Proven{Of: ProvenModule, Bytes: got.Bytes, Says: fact.Of(ProvesModule, got.Bytes, limit.Module.StatedBytes)})
		case l.ID.Kind == power.LinkOf && k != nil && !l.ID.Socket.Nested() && k.Gen.Known() && got.Gen > k.Gen:
			out = append(out, Proven{Of: ProvenLink, Socket: k.ID, Gen: got.Gen, Says: fact.Of(ProvesLink, l.ID.Socket, got.Gen, k.Gen)})
		}
	}
	return out
}

// beyond reports that a size is more than a limit states and than any job has proven.
func beyond(l machine.Limit, size quantity.Bytes) bool {
	return l.StatedBytes.Known() && size > l.Largest()
}

// larger keeps the largest module only.
func larger(list []Proven, p Proven) []Proven {
	for i := range list {
		if list[i].Of == p.Of {
			if p.Bytes > list[i].Bytes {
				list[i] = p
			}
			return list
		}
	}
	return append(list, p)
}

// Beyond reports that a sheet does not say yet what was proven.
func (p *Proven) Beyond(s *machine.Sheet) bool {
	switch p.Of {
	case ProvenModule:
		return beyond(s.Memory.Module, p.Bytes)
	case ProvenMemory:
		return beyond(s.Memory.Total, p.Bytes)
	}
	k := s.Socket(p.Socket)
	return k != nil && k.Gen.Known() && p.Gen > k.Gen
}

// SawBeyond reports a reading that a sheet does not say yet, whether or not it proves anything.
func (j *Job) SawBeyond(s *machine.Sheet) bool {
	return slices.ContainsFunc(j.Seen, func(r power.Reading) bool {
		switch r.Line.Kind {
		case power.Total:
			return beyond(s.Memory.Total, r.Bytes)
		case power.Slot:
			return beyond(s.Memory.Module, r.Bytes)
		case power.LinkOf:
			k := s.Socket(r.Line.Socket.Top())
			return k != nil && k.Gen.Known() && r.Gen > k.Gen
		}
		return false
	})
}

// Evidence names the job on a sheet that learnt from it.
func (j *Job) Evidence() string {
	name := []rune(string(j.ID) + ", " + j.Title)
	return string(name[:min(len(name), 120)])
}

// Teach writes what was proven into a sheet, with the job as its evidence; false where the
// sheet has no place for it.
func (p *Proven) Teach(s *machine.Sheet, by string) bool {
	switch p.Of {
	case ProvenModule:
		s.Memory.Module.ProvenBytes, s.Memory.Module.ProvenBy = p.Bytes, by
	case ProvenMemory:
		s.Memory.Total.ProvenBytes, s.Memory.Total.ProvenBy = p.Bytes, by
	case ProvenLink:
		k := s.Socket(p.Socket)
		if k == nil || k.Gen >= p.Gen {
			return false
		}
		k.Gen = p.Gen
	}
	return true
}
