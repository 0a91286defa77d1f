package job

// This file corrects what was written of a piece.

import (
	"reflect"
	"slices"
	"strconv"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/part"
	"deepbay/internal/core/shorthand"
)

// correct gives a piece another serial number, content or description. What it is called and
// what its label says is true of all pieces of its kind, unless it is said to be of this one.
func (a *applier) correct() fact.Fact {
	c := &a.change
	if a.job.mustKnow(&a.list, "/item", c.Item); len(a.list) > 0 {
		return fact.Fact{}
	}
	it := a.job.Item(c.Item)
	old := *a.job.Part(it.Part)
	if at := a.job.Found.Where(c.Item); c.New && !at.IsZero() {
		return a.refuse("/new", fact.Of(WasFoundIn, fact.Typed(old.Name), at))
	}
	var says []fact.Fact
	if it.Serial != c.Serial {
		says = append(says, fact.Of(SerialIs, fact.Typed(c.Serial)))
	}
	if it.New != c.New {
		says = append(says, fact.Of(map[bool]fact.Code{true: IsToFit, false: IsFound}[c.New]))
	}
	switch {
	case it.Holds == c.Holds:
	case c.Holds == "":
		says = append(says, fact.Of(HoldsUnknown))
	default:
		says = append(says, fact.Of(HoldsIs, fact.Typed(c.Holds)))
	}
	it.Serial, it.New, it.Holds = c.Serial, c.New, c.Holds
	if c.Part != nil {
		says = append(says, a.describe(it, &old)...)
	}
	if len(says) == 0 {
		return fact.Of(LeftAll)
	}
	// What was read of it was read of what it was taken for.
	outdate(a.job.Seen)
	outdate(a.job.Before)
	return fact.Of(Corrected, fact.Typed(old.Name), says)
}

// describe gives a piece its new description and says what is other than before.
func (a *applier) describe(it *Item, old *part.Part) []fact.Fact {
	next := *a.change.Part.Clone()
	next.ID = old.ID
	if reflect.DeepEqual(next, *old) {
		return nil
	}
	if l := next.Validate(); len(l) > 0 {
		a.list = append(a.list, l.Under("/part")...)
		return nil
	}
	var says []fact.Fact
	if next.Name != old.Name {
		says = append(says, fact.Of(NameIs, fact.Typed(next.Name)))
	}
	if next.Number != old.Number {
		says = append(says, fact.Of(NumberIs, fact.Typed(next.Number)))
	}
	if !reflect.DeepEqual(named(&next), named(old)) {
		says = append(says, fact.Of(PartIs, fact.Typed(shorthand.Write(&next))))
	}
	twins := 0
	for i := range a.job.Items {
		if a.job.Items[i].Part == old.ID {
			twins++
		}
	}
	if twins > 1 && a.change.Alone {
		for n := 2; a.job.Part(next.ID) != nil; n++ {
			end := "-" + strconv.Itoa(n)
			next.ID = old.ID[:min(len(old.ID), 60-len(end))] + part.ID(end)
		}
		a.job.Parts = append(a.job.Parts, next)
		it.Part = next.ID
		return says
	}
	a.job.Parts[slices.IndexFunc(a.job.Parts, func(p part.Part) bool { return p.ID == old.ID })] = next
	return says
}

// named is a part without what it is called.
func named(p *part.Part) part.Part {
	out := *p
	out.Name, out.Number = "", ""
	return out
}
