package job

// This file is what a job takes from outside itself later on: a newer version of its sheet,
// and the next job of a machine that comes back.

import (
	"slices"
	"time"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/power"
	"deepbay/internal/core/rig"
)

// NewerSheet is what taking another version of the sheet would change.
type NewerSheet struct {
	Differs []fact.Fact   // what the sheet says otherwise
	Comes   []fit.Finding // that the plan would have
	Goes    []fit.Finding // that it has now
	Fault   error         // why it cannot be taken, a problem.List
}

// Newer says what another version of the sheet would change in the job.
func (j *Job) Newer(s *machine.Sheet) NewerSheet {
	out := NewerSheet{Differs: machine.Diff(&j.Sheet, s)}
	next, _, err := Apply(*j, Change{Do: DoSheet, Sheet: s}, Stamp{})
	if err != nil {
		out.Fault = err
		return out
	}
	before, after := j.Check(), next.Check()
	same := func(list []fit.Finding, f *fit.Finding) bool {
		return slices.ContainsFunc(list, func(x fit.Finding) bool { return x.Code == f.Code && x.Socket == f.Socket && x.Item == f.Item })
	}
	for i := range after.Findings {
		if f := &after.Findings[i]; !same(before.Findings, f) {
			out.Comes = append(out.Comes, *f)
		}
	}
	for i := range before.Findings {
		if f := &before.Findings[i]; !same(after.Findings, f) {
			out.Goes = append(out.Goes, *f)
		}
	}
	return out
}

// takeSheet takes another version of the sheet. What was looked up and the sheet has no
// place for any more is dropped.
func (a *applier) takeSheet() fact.Fact {
	s := a.change.Sheet
	if s == nil || s.ID != a.job.Sheet.ID {
		return a.refuse("/sheet", fact.Of(OtherSheet, fact.Typed(a.job.Sheet.ID)))
	}
	differs := machine.Diff(&a.job.Sheet, s)
	if len(differs) == 0 {
		return a.refuse("/sheet", fact.Of(SameSheet))
	}
	if l := s.Validate(); len(l) > 0 {
		a.list = append(a.list, l.Under("/sheet")...)
		return fact.Fact{}
	}
	a.job.Sheet = *s
	a.job.dropBays()
	a.job.dropAnswered()
	return fact.Of(TookSheet, differs)
}

// dropBays forgets in which bays drives were told to lie that the sheet does not know.
func (j *Job) dropBays() {
	of := func(s *rig.Setup) {
		s.Bays = slices.DeleteFunc(slices.Clone(s.Bays), func(l rig.Lying) bool {
			_, known := j.Sheet.Bay(l.Bay)
			return !known
		})
	}
	of(&j.Found)
	of(&j.Planned)
	j.Past = slices.Clone(j.Past)
	for i := range j.Past {
		of(&j.Past[i].Found)
		of(&j.Past[i].Planned)
	}
	for i := range j.Later {
		of(&j.Later[i].Planned)
	}
}

// Again is the next job of a machine that comes back: what was left in it is what is found,
// its serial numbers, what its drives hold and what was looked up with it, and what its
// screens showed last. The wish is new.
func (j *Job) Again(id ID, arrived time.Time) Job {
	out := New(id, j.Title, j.Sheet, rig.Wish{Encrypted: j.Wish.Encrypted, SystemMax: j.Wish.SystemMax}, arrived)
	out.Tag, out.Owner, out.Processor = j.Tag, j.Owner, j.Processor
	end, _ := j.Ahead(len(j.Later))
	left := end.left()
	if len(j.Later) == 0 {
		left = j.Left()
	}
	has := func(id rig.ItemID) bool { return !left.Where(id).IsZero() }
	for _, it := range j.Items {
		if !has(it.ID) {
			continue
		}
		it.New = false
		if it.Role == RoleTool || it.Role == RoleLeaves { // it was to leave, and lies there still
			it.Role = ""
		}
		if it.Holds == rig.Blank || it.Holds == "" && it.Role == RoleSystem {
			it.Holds = map[bool]rig.Content{true: rig.System, false: ""}[it.Role == RoleSystem] // it has been in use since
		}
		out.Items = append(out.Items, it)
		if out.Part(it.Part) == nil {
			out.Parts = append(out.Parts, *j.Part(it.Part))
		}
	}
	out.Found, out.Planned = left.Clone(), left.Clone()
	for _, l := range j.Looked {
		if l.Item == "" || has(l.Item) {
			out.Looked = append(out.Looked, l)
		}
	}
	for i := range j.Arrays {
		if !slices.ContainsFunc(j.Arrays[i].Members, func(id rig.ItemID) bool { return !has(id) }) {
			out.Arrays = append(out.Arrays, j.Arrays[i])
		}
	}
	out.Before = slices.DeleteFunc(slices.Clone(j.Seen), func(x power.Reading) bool { return x.Lapsed })
	if s := j.Wish.Starts; s.Item != "" && has(s.Item) { // what was put there starts it now
		out.Item(s.Item).Holds = rig.System
	}
	out.dropAnswered()
	return out
}
