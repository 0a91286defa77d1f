package job

// This file is two people at one job at once.

import (
	"reflect"
	"slices"

	"deepbay/internal/core/power"
)

// Beside reports whether nothing was said between two revisions of a job of the steps or lines that a
// change is about, and they are in both.
func Beside(was, now *Job, c *Change) bool {
	if was.Sheet.ID != now.Sheet.ID || !reflect.DeepEqual(was.Planned, now.Planned) ||
		!reflect.DeepEqual(was.Found, now.Found) || len(was.Past) != len(now.Past) {
		return false // it may mean something else by now
	}
	steps := slices.DeleteFunc(append(slices.Clone(c.Steps), c.Step), func(s string) bool { return s == "" })
	for _, s := range steps {
		if c.Do == DoTick && now.Did(s) {
			continue // both say that it is done
		}
		if !reflect.DeepEqual(was.tickOf(s), now.tickOf(s)) || !reflect.DeepEqual(was.testOf(s), now.testOf(s)) {
			return false
		}
	}
	lines := c.Lines
	if c.Line != (power.LineID{}) {
		lines = append(slices.Clone(lines), c.Line)
	}
	for _, l := range lines {
		if !reflect.DeepEqual(readingOf(was, l, c.In), readingOf(now, l, c.In)) {
			return false
		}
	}
	return len(steps)+len(lines) > 0
}

// readingOf is what was read of a line, nil for nothing.
func readingOf(j *Job, line power.LineID, in State) *power.Reading {
	list := j.Seen
	if in == InFound {
		list = j.Before
	}
	for i := range list {
		if list[i].Line == line && !list[i].Lapsed {
			return &list[i]
		}
	}
	return nil
}
