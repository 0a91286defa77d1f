// Package fact is what the core says before it is put into words: a code and values
// with their units. The room say turns facts into sentences; no other room holds one.
//
//	fact.Of(fact.Code("part-link"), rig.ItemID("item-4"), link.Link{Gen: 4, Lanes: 4})
//	// in English: "Ternlight 500 is Gen 4 x4"
package fact

// Code names one thing that can be said. It is stable, and every code has its
// sentence in say.
type Code string

// Fact is something said: which, and about what.
type Fact struct {
	Code Code
	Args []any // names, paths, quantities, ranges, lists of them; say knows each type
}

// Of makes a fact.
func Of(c Code, args ...any) Fact { return Fact{c, args} }

// Is reports whether anything is said.
func (f Fact) Is() bool { return f.Code != "" }

// Count is a number of things; say knows the thing's word in singular and plural.
type Count struct {
	N  int
	Of Noun
}

// Noun is a thing that is counted.
type Noun string
