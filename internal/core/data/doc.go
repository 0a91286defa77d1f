// Package data is the owner's data on the drives of a job, and the one law over it: what must stay
// has its good copies at every moment, or nobody touches it.
//
// A Datum is what lay on one drive. A Record is everything hands did and everything that was said,
// oldest first; a State is the fold of a record, and State.Do judges what a step would do next. Nothing
// here reads a clock, a plan or a file, and no other room has a rule about copies:
//
//	s := data.Begin(drives, arrays, word)
//	s.Fold(record)
//	s.Do([]data.Act{{What: data.Erases, Item: "item-2"}}) // breaches: what stands against it
//
// The table behind it is in docs/model.md. What is not known counts as the worse of its two cases: a
// drive of which nobody said what it holds is protected, and is never a copy.
package data
