package fault

import (
	"fmt"
	"slices"
)

// Untouched is the lines that faults change and none of their changes is said to touch, and how
// many lines were changed in all.
func (c *Case) Untouched() (missed []string, changed int) {
	for i := range c.all {
		for _, v := range c.all[i].variants {
			s := c.show(v.do)
			for _, id := range append(s.foretold.Lines(), c.lines...) {
				is, known, seen := s.foretells(id)
				was, wasKnown, _ := c.base.foretells(id)
				if seen && (!known || known == wasKnown && is == was) {
					continue
				}
				changed++
				if !slices.ContainsFunc(v.do, func(x change) bool { return c.touches(x, id) }) {
					missed = append(missed, fmt.Sprintf("%s changes %s, which nothing in %v touches", c.all[i].Fault, id, v.do))
				}
			}
		}
	}
	return missed, changed
}
